"""Operations: their order over all constructions and hardware, their hours, glue-ups, finish, mishaps."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.boarded.model import Boarded, BoardEdge, BoardedStyle, FixedBy
from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.construction.framed.model import FieldRow, Framed, Infill, TenonKind
from oakmeasure.core.construction.layered.model import Layered, Lipping
from oakmeasure.core.construction.light.model import Light, LightBrace, LightFill, LightGlue
from oakmeasure.core.construction.slab.model import Slab, SlabGlue, SlabJoint, Stiffener
from oakmeasure.core.construction.veneered.model import Veneered, VeneerForm
from oakmeasure.core.document.hanging import Hanging, track_sets
from oakmeasure.core.document.hinges import FlushBolts, HardwareChoices, Latch, LatchKind, MortiseLock, Pull, PullKind
from oakmeasure.core.document.job import Hand, SlideChoices
from oakmeasure.core.document.production import MakeChoices, MishapKind
from oakmeasure.core.document.sliding_gear import Guide, GuideKind
from oakmeasure.core.drawings.drawing import Area, Label, Layer
from oakmeasure.core.drawings.make.bench_lies import lies
from oakmeasure.core.drawings.make.op_view import op_view, work_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.making.operation import Bucket, Operation, SideUp, Trade, WorkpieceSetup, in_order
from oakmeasure.core.making.played import player_of
from oakmeasure.core.making.repairs import judge_mishap
from oakmeasure.core.making.sequence import make
from oakmeasure.core.solution import LeafSolution
from oakmeasure.data import table
from samples import codes, framed, job, solved

BUILDS = (
    *(Framed(tenon=kind) for kind in TenonKind),
    Framed(middle_rail=None, muntin=None),
    Framed(rows=(FieldRow(infill=Infill.RAISED, columns=2), FieldRow(infill=Infill.GLASS))),
    Framed(arch_rise=40.0, muntin=None),
    *(Boarded(style=style, fixed_by=by) for style in BoardedStyle for by in FixedBy),
    Boarded(edge=BoardEdge.SQUARE),
    Boarded(double=True, style=BoardedStyle.X, half_lapped=True),
    *(Slab(joint=joint, stiffener=stiff) for joint in SlabJoint for stiff in Stiffener),
    Slab(glue=SlabGlue.NOWHERE),
    Layered(),
    Layered(lipping=Lipping.T, trim=20.0),
    Layered(lipping=Lipping.NONE, muntin=90.0),
    *(Light(fill=fill, glue=glue) for fill in LightFill for glue in LightGlue),
    Light(brace=LightBrace.CROSSED),
    *(Veneered(form=form) for form in VeneerForm),
    Existing(),
    Existing(width=790.0, grooves=5, recess_depth=9.0),
    Existing(inside=Inside.PANELLED, width=800.0),
    Existing(height=1900.0),
)


HANGINGS = (
    Hanging.LINING,
    Hanging.PAIR,
    Hanging.INSET_BUTTS,
    Hanging.OVERLAY,
    Hanging.INSET,
    Hanging.SLIDING,
    Hanging.FLOOR_GEAR,
    Hanging.BYPASS_RAIL,
    Hanging.COVER,
)


HARDWARE = (
    HardwareChoices(),
    HardwareChoices(lock=MortiseLock()),
    HardwareChoices(lock=MortiseLock(), bolts=FlushBolts()),
    *(HardwareChoices(latch=Latch(kind=kind)) for kind in LatchKind),
    HardwareChoices(pull=Pull(kind=PullKind.FLUSH)),
    HardwareChoices(pull=Pull(kind=PullKind.BAR)),
)


def leaf_of(build, hanging=Hanging.LINING, hardware=HARDWARE[0], **more) -> LeafSolution:
    if hanging.slides:
        sets = [each for each in track_sets().values() if hanging in each.ways]
        more.setdefault("slide", SlideChoices(track_set=sets[0] if sets else None))
    wide = {Hanging.PAIR: 1500.0, Hanging.BYPASS_RAIL: 1500.0}.get(hanging, 762.0)
    return solved(wide, build=build, hanging=hanging, hardware=hardware, **more)


def ops_of(leaf: LeafSolution) -> tuple[Operation, ...]:
    assert leaf.making is not None
    return leaf.making.operations


def ids_of(leaf: LeafSolution) -> list[str]:
    return [op.id for op in ops_of(leaf)]


def assert_in_order(operations) -> None:
    """Checked by hand: every need before, and nothing that could wait between an early one and the last of its
    needs.
    """
    done: list[Operation] = []
    for op in operations:
        before = [each.id for each in done]
        assert all(need in before for need in op.needs), op.id
        if op.early:
            last = max((before.index(need) for need in op.needs), default=-1)
            assert all(each.early for each in done[last + 1 :]), op.id
        done.append(op)


@settings(max_examples=140, deadline=None)
@given(build=st.sampled_from(BUILDS), hanging=st.sampled_from(HANGINGS), hardware=st.sampled_from(HARDWARE))
def test_operations_of_any_leaf_follow_their_needs_at_the_earliest_moment(build, hanging, hardware):
    leaf = leaf_of(build, hanging, hardware)
    if leaf.build is None:
        return
    operations = ops_of(leaf)
    assert_in_order(operations)
    assert len({op.id for op in operations}) == len(operations)
    ids = ids_of(leaf)
    hardware_at = [n for n, op in enumerate(operations) if op.cuts]
    assert not hardware_at or ids.index("measure:set") < min(hardware_at)
    assert ids.index("hang:dry") < ids.index("finish:last") < ids.index("hang:last")
    cut = {name for op in operations for name in op.cuts}
    forgotten = {c.name for c in leaf.borings if c.cut_in.is_leaf and not c.kind.is_keep} - cut
    assert not forgotten


@settings(max_examples=60, deadline=None)
@given(build=st.sampled_from(BUILDS), hanging=st.sampled_from((Hanging.LINING, Hanging.PAIR, Hanging.OVERLAY)))
def test_hours_of_the_operations_are_those_that_the_leaf_costs(build, hanging):
    leaf = leaf_of(build, hanging)
    if leaf.build is None:
        return
    hanging_hours = float(table("prices")["hanging"]["hours"])
    costs = leaf.figures["hours"].value + hanging_hours
    assert leaf.making.hours == pytest.approx(costs * leaf.fit.leaves, rel=1e-9)


@pytest.mark.parametrize("build", BUILDS, ids=lambda b: b.kind)
def test_nothing_is_cut_in_a_member_after_it_is_closed_that_could_be_cut_before(build):
    """Grooves, mortises and tenons of a frame are worked in loose members, before any glue."""
    leaf = leaf_of(build)
    ids = ids_of(leaf)
    glue = [n for n, each in enumerate(ids) if each.startswith("glue:") and not each.startswith("glue:press")]
    for early in (
        "groove:frame",
        "mortise:stiles",
        "mortise:rails",
        "tenon:rails",
        "sand:inside",
        "coat:tongues",
        "mortise:strips",
        "tongue:lippings",
        "bore:joints",
        "dowel:joints",
    ):
        if early in ids and glue:
            assert ids.index(early) < min(glue), early


def test_a_field_is_sanded_before_its_moulding_hides_it():
    ids = ids_of(leaf_of(Layered(trim=20.0)))
    assert ids.index("sand:fields") < ids.index("mitre:trims") < ids.index("fix:trims")
    assert ids[ids.index("sand:fields") - 1].startswith("flush:")  # as soon as the faces are flush


def test_a_lock_is_mortised_in_the_loose_stile_deeper_by_what_is_trimmed_unless_a_rail_meets_it():
    lock = HardwareChoices(lock=MortiseLock(case_height=60.0))
    loose = framed(middle_rail=None, muntin=None).leaf
    leaf = solved(build=loose.build, hardware=lock)
    op = leaf.making.op("mortise:lock")
    assert "loose latch stile" in op.name
    assert op.early
    deep = next(s.value for s in op.settings if s.label.startswith("deep"))
    assert deep == lock.lock.case_depth + leaf.figures["trim_side"].value
    ids = ids_of(leaf)
    assert ids.index("mortise:lock") < ids.index("glue:frame")
    meets = solved(build=Framed(), hardware=HardwareChoices(lock=MortiseLock(case_height=350.0)))  # tenons lie there
    ids = ids_of(meets)
    assert ids.index("mortise:lock") > ids.index("size:leaf")


def test_a_guide_groove_is_cut_in_the_loose_rail_and_carried_through_the_feet_when_they_are_sawn():
    guide = HardwareChoices(guide=Guide(kind=GuideKind.FIN))
    ids = ids_of(leaf_of(Framed(), Hanging.SLIDING, guide))
    assert ids.index("groove:guide") < ids.index("glue:frame") < ids.index("size:leaf") < ids.index("groove:guide-ends")


def test_settings_are_the_figures_of_the_leaf():
    leaf = framed()
    mortise = {s.label: s.value for s in leaf.making.op("mortise:stiles").settings}
    f = leaf.figures
    assert mortise["chisel"] == f["tenon_thickness"].value
    assert mortise["deep"] == f["tenon"].value
    assert 2 * mortise["fence to it"] + mortise["chisel"] == pytest.approx(f["thickness"].value)
    let_in = {s.label: s.value for s in leaf.making.op("let-in:leaf").settings}
    assert let_in["1 from the top"] == f["butt_1_top"].value
    assert let_in["deep"] == f["butt_depth"].value


def test_every_operation_that_is_early_says_why_and_what_later_costs():
    for build in BUILDS:
        for op in ops_of(leaf_of(build)):
            assert not op.early or op.why, op.id
            known = table("cautions")
            assert all(key in known for key in op.cautions), op.id


def test_a_ring_of_needs_is_refused_and_a_need_that_is_not_there_too():
    a, b = Operation("a", "A", Trade.SAW, needs=("b",)), Operation("b", "B", Trade.SAW, needs=("a",))
    with pytest.raises(InputError, match="a, b"):
        in_order([a, b])
    with pytest.raises(InputError, match="c"):
        in_order([Operation("a", "A", Trade.SAW, needs=("c",))])


def test_every_mishap_on_any_part_has_a_repair_that_fits_with_its_time():
    for build in (Framed(), Boarded(), Slab(), Layered(lipping=Lipping.T), Light(), Existing(width=790.0)):
        leaf = leaf_of(build, hardware=HARDWARE[1])
        for part in ("", *(p.name for p in leaf.build.parts)):
            for kind in MishapKind:
                judged = judge_mishap(leaf, kind, part, 3.0)
                best = judged.best
                assert best is not None, (part, kind)
                assert best.adds >= 0
                assert judged.words
                assert best is next(each for each in judged.repairs if each.fits)


def test_a_hole_that_comes_through_is_patched_and_one_that_does_not_is_not():
    cupboard = leaf_of(Framed(thickness=20.0, middle_rail=None, muntin=None), Hanging.OVERLAY)
    member = next(c.member for c in cupboard.borings if c.name == "cup 1")
    depth = next(c.depth for c in cupboard.borings if c.name == "cup 1")
    little = judge_mishap(cupboard, MishapKind.HOLE_DEEP, member, 2.0)
    assert little.sound is Level.OK
    assert little.best.key == "disc"
    through = judge_mishap(cupboard, MishapKind.HOLE_DEEP, member, 20.0 - depth)
    assert through.sound is Level.WARNING
    assert {r.key for r in through.repairs if r.fits} >= {"plug", "patch"}


def test_a_short_rail_keeps_its_shoulders_while_two_thirds_of_the_tenon_are_left():
    leaf = framed()
    reach = leaf.figures["tenon"].value
    near = judge_mishap(leaf, MishapKind.SHORT, "middle rail", 2 * reach / 3 - 1.0)
    far = judge_mishap(leaf, MishapKind.SHORT, "middle rail", 2 * reach / 3 + 1.0)
    assert near.best.key == "tenon"
    assert "tenon" not in {r.key for r in far.repairs if r.fits}
    lower, upper = sorted(
        (leaf.build.part("lower muntin"), leaf.build.part("upper muntin")), key=lambda p: p.planed.length
    )
    spoilt = judge_mishap(leaf, MishapKind.SHORT, upper.name, upper.planed.length - lower.planed.length)
    assert next(r for r in spoilt.repairs if r.key == "other").words == f"it makes the {lower.name}"
    moved = judge_mishap(leaf, MishapKind.SHORT, "top rail", 3.0)
    assert any("narrower by 3" in words for r in moved.repairs for words in r.moves)
    inch = judge_mishap(leaf, MishapKind.SHORT, "top rail", 3.0, Show(UnitSystem.INCH))
    assert any('narrower by 1/8"' in words for r in inch.repairs for words in r.moves)
    assert inch.words.startswith('1/8" short of')


def test_a_mishap_with_its_repair_becomes_an_operation_before_the_next_on_its_part():
    entry = {
        "at": "2026-11-20T10:00:00",
        "kind": "mishap",
        "op": "mortise:stiles",
        "part": "hinge stile",
        "mishap": "split",
        "value": 60,
        "repair": "glue",
    }
    leaf = solved(build=Framed(), making=MakeChoices.model_validate({"log": [entry]}))
    ids = ids_of(leaf)
    assert ids[ids.index("mend:1") - 1] == "mortise:stiles" or ids.index("mend:1") > ids.index("mortise:stiles")
    assert ids.index("mend:1") < ids.index("groove:frame") < ids.index("glue:frame")
    assert_in_order(ops_of(leaf))
    assert "mishap" in codes(leaf, Level.WARNING)
    plain = solved(build=Framed())
    assert leaf.making.hours == pytest.approx(plain.making.hours + leaf.making.op("mend:1").hours)


def test_making_is_not_worked_out_where_there_is_no_leaf():
    nothing = solved(hanging=Hanging.OPEN)
    assert nothing.build is None
    assert nothing.making is None
    assert make(nothing, job().rules) is None


def test_buckets_that_take_hours_are_spent_in_some_operation():
    for build in BUILDS:
        leaf = leaf_of(build)
        spent = {op.bucket for op in ops_of(leaf)}
        for bucket in Bucket:
            if bucket and f"hours_{bucket}" in leaf.figures:
                assert bucket in spent, (build.kind, bucket)


def test_a_choice_of_making_that_makes_no_sense_is_refused_at_its_field():
    for path, value in (
        ("making.joint_minutes", -1.0),
        ("making.hours_a_day", 0.0),
        ("making.glue", "spit"),
        ("making.people", 0),
    ):
        with pytest.raises(InputError) as refused:
            job_edits.with_field(job(), "leaf-1", path, value)
        assert refused.value.field.endswith(path.rpartition(".")[2])


@pytest.mark.parametrize("hand", list(Hand))
def test_work_lies_with_its_head_to_the_left_and_the_right_face_towards_one(hand):
    """Turned over and over in the hand: the leaf as it hangs, its top turned to the left, hinges left: hinge edge
    near.
    """
    leaf = solved(build=Framed(), hand=hand)
    left = hand is Hand.LEFT

    def near(up, part=""):
        op = Operation("x", "x", Trade.FIT, hold=WorkpieceSetup(up, part))
        how = lies(leaf, leaf.build, op)
        assert how.left in ("head", "hinge end", "hinge side", "latch side")
        return how.near, how.left

    assert near(SideUp.OPENING) == ("hinge edge" if left else "latch edge", "head")
    assert near(SideUp.CLOSING) == ("latch edge" if left else "hinge edge", "head")
    assert near(SideUp.HINGE_EDGE) == ("closing face" if left else "opening face", "head")
    assert near(SideUp.LATCH_EDGE) == ("opening face" if left else "closing face", "head")
    # The inner edge of the hinge stile looks to the latch, that of the latch stile to the hinges.
    assert near(SideUp.INNER_EDGE, "hinge stile") == near(SideUp.LATCH_EDGE)
    assert near(SideUp.INNER_EDGE, "latch stile") == near(SideUp.HINGE_EDGE)
    assert near(SideUp.HEAD)[1] == ("hinge side" if left else "latch side")
    assert near(SideUp.FOOT)[1] == ("latch side" if left else "hinge side")


def test_a_hinge_let_in_is_drawn_near_the_head_and_open_to_its_face():
    for hand in Hand:
        leaf = solved(build=Framed(), hand=hand)
        shapes = op_view(leaf, Show(), "let-in:leaf").shapes
        metal = [s for s in shapes if isinstance(s, Area) and s.layer is Layer.METAL and s.ref.startswith("butt")]
        bench = next(s for s in shapes if isinstance(s, Area) and s.layer is Layer.WOOD)
        x0, x1 = min(x for x, _ in bench.points), max(x for x, _ in bench.points)
        top = min((min(x for x, _ in m.points) for m in metal), default=x1)
        k = (x1 - x0) / leaf.build.height
        assert top - x0 == pytest.approx(leaf.figures["butt_1_top"].value * k, rel=0.02)
        opening_is_near = hand is Hand.RIGHT  # hinge edge up, head to the left
        low, high = min(y for _, y in bench.points), max(y for _, y in bench.points)
        for each in metal:
            edge = min(y for _, y in each.points) if opening_is_near else max(y for _, y in each.points)
            assert edge == pytest.approx(low if opening_is_near else high)


def test_every_operation_of_every_construction_is_drawn_with_its_texts_on_the_sheet():
    for build in BUILDS[::3]:
        leaf = leaf_of(build, hardware=HARDWARE[2])
        play = player_of(leaf, leaf.making.operations)
        for op in ops_of(leaf):
            for drawing in (op_view(leaf, Show(), op.id), work_view(leaf, Show(), op.id, play.after(op.id))):
                box = drawing.bounds
                assert drawing.shapes
                assert all(
                    box.x0 <= s.x <= box.x1 and box.y0 <= s.y <= box.y1 for s in drawing.shapes if isinstance(s, Label)
                )
