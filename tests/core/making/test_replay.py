"""Every step done on the pieces on paper ends at the leaf; faults planted in the steps are named, each of them."""

from __future__ import annotations

import random
from collections.abc import Callable
from dataclasses import replace

import pytest

from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.layered.model import Layered, LayerStyle, Lipping
from oakmeasure.core.construction.light.model import Light, LightFill, LightGlue
from oakmeasure.core.construction.slab.model import Slab, SlabJoint, Stiffener
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import HardwareChoices, butt_from_table
from oakmeasure.core.document.sliding_gear import Guide, GuideKind
from oakmeasure.core.making.changes import Brought, FeatureMade, Joined, LeafEdge, PieceTaken, Trimmed
from oakmeasure.core.making.operation import Operation
from oakmeasure.core.making.replay import replay
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.solver import solve_leaf
from replay_laws import random_made, unmade, unsaid
from samples import solved

Plant = Callable[[tuple[Operation, ...]], tuple[Operation, ...]]


def test_the_steps_of_every_demo_leaf_end_at_it(solved_demo):
    for leaf in solved_demo.leaves:
        assert unmade(leaf) == [], leaf.leaf.name
        assert unsaid(leaf) == [], leaf.leaf.name


def test_the_steps_of_any_leaf_end_at_it(demo):
    """A sample of any construction with any choices, hung any way under any head; the bench has two thousand."""
    source = random.Random(32)
    for _ in range(200):
        leaf = random_made(demo, source)
        made = solve_leaf(demo, leaf)
        assert unmade(made) == [], (leaf.name, leaf.build)
        assert unsaid(made) == [], (leaf.name, leaf.build)


# --- faults planted ---------------------------------------------------------------------------------------------


def skip(op_id: str) -> Plant:
    return lambda ops: tuple(each for each in ops if each.id != op_id)


def twice(op_id: str) -> Plant:
    return lambda ops: tuple(replace(o, changes=o.changes * 2, cuts=o.cuts * 2) if o.id == op_id else o for o in ops)


def changed(op_id: str, kind: type, **what: object) -> Plant:
    """The first change of a kind in an operation is another one."""

    def plant(ops: tuple[Operation, ...]) -> tuple[Operation, ...]:
        found = []
        for op in ops:
            at = next((n for n, each in enumerate(op.changes) if op.id == op_id and isinstance(each, kind)), None)
            if at is not None:
                made = {
                    name: value(getattr(op.changes[at], name)) if callable(value) else value
                    for name, value in what.items()
                }
                op = replace(op, changes=(*op.changes[:at], replace(op.changes[at], **made), *op.changes[at + 1 :]))
            found.append(op)
        return tuple(found)

    return plant


def only(op_id: str, count: int) -> Plant:
    """Of what an operation cuts for hardware only some."""
    return lambda ops: tuple(replace(o, cuts=o.cuts[:count]) if o.id == op_id else o for o in ops)


def without(op_id: str, kind: type, count: int = 1) -> Plant:
    """Some changes of a kind are forgotten."""

    def plant(ops: tuple[Operation, ...]) -> tuple[Operation, ...]:
        found = []
        for op in ops:
            if op.id == op_id:
                gone = [each for each in op.changes if isinstance(each, kind)][:count]
                op = replace(op, changes=tuple(each for each in op.changes if each not in gone))
            found.append(op)
        return tuple(found)

    return plant


def more(by: float) -> Callable[[float], float]:
    return lambda value: value + by


FAULTS = [
    ("seed-room", "a step is skipped", skip("mortise:stiles")),
    ("seed-room", "tenons are forgotten", skip("tenon:rails")),
    ("seed-room", "grooves are forgotten", skip("groove:frame")),
    ("seed-room", "it is never glued", skip("glue:frame")),
    ("seed-room", "it is never sized", skip("size:leaf")),
    ("seed-room", "grooves are ploughed twice", twice("groove:frame")),
    ("seed-room", "the trim is taken off twice", twice("size:leaf")),
    ("seed-room", "an allowance is doubled", changed("size:leaf", Trimmed, by=lambda value: 2 * value)),
    ("seed-room", "the wrong edge is trimmed", changed("size:leaf", Trimmed, side=LeafEdge.FOOT)),
    ("seed-room", "a stile is planed 1 too thin", changed("thickness:parts", Brought, to=more(-1.0))),
    ("seed-room", "a part is ripped to its finished width", changed("width:parts", Brought, to=more(-2.0))),
    ("seed-room", "a part is cut 3 short", changed("length:parts", Brought, to=more(-3.0))),
    ("seed-room", "one mortise is forgotten", without("mortise:stiles", FeatureMade)),
    ("seed-room", "two of three butts are let in", only("let-in:leaf", 2)),
    ("seed-room", "butts are let in twice", twice("let-in:leaf")),
    ("coal-hole", "ledges are never fixed", skip("fix:ledges")),
    ("coal-hole", "boards have no tongue", skip("tongue:boards")),
    ("coal-hole", "one board has no groove", without("groove:boards", FeatureMade)),
    ("coal-hole", "the brace is never fixed", skip("fix:brace")),
    ("office-store", "the layers are never glued", skip("glue:layers")),
    ("office-store", "the lippings have no tongue", skip("tongue:lippings")),
    ("office-store", "the lippings are never glued on", without("glue:lippings", Joined)),
    ("walnut", "strips are never joined", skip("glue:slab")),
    ("walnut", "no groove for the channels", skip("dado:slab")),
    ("walnut", "one socket is forgotten", without("mortise:strips", FeatureMade)),
    ("meter", "boards of a light frame are fixed by nobody", skip("fill:frame")),
    ("reading-room", "edgings stay as long as they were glued on", without("fit:joints", Brought, 9)),
    ("reading-room", "veneers are never pressed", skip("glue:press")),
    ("pantry", "panels are not made narrower", without("narrow:panels", Brought, 9)),
    ("pantry", "an old stile is narrowed twice", changed("narrow:edges", Brought, to=more(-20.0))),
    ("made-longer", "the new end is never joined", without("glue:end", Joined)),
    (
        "made-longer",
        "an old part comes to be larger",
        changed("read:leaf", PieceTaken, size=lambda s: replace(s, width=s.width + 5)),
    ),
]


def differences(leaf: LeafSolution, operations: tuple[Operation, ...]) -> list[str]:
    names = [each.name for each in leaf.borings]
    return [each.words for each in replay(leaf.body, leaf.cut_parts, operations, names).differences]


@pytest.mark.parametrize(("leaf_id", "fault", "plant"), FAULTS, ids=[f"{a}: {b}" for a, b, _ in FAULTS])
def test_a_fault_that_is_planted_in_the_steps_is_named(solved_demo, leaf_id, fault, plant):
    leaf = solved_demo.leaf(leaf_id)
    planted = plant(leaf.making.operations)
    assert planted != leaf.making.operations, "nothing was planted"
    assert differences(leaf, planted), fault


def test_steps_that_do_not_end_at_the_leaf_are_a_stop(demo, monkeypatch):
    """The list is there all the same, and says that nobody may work from it; the log names all of it."""
    from oakmeasure.core.making import sequence

    real = sequence.size
    monkeypatch.setattr(sequence, "size", lambda m: real(m) or m.steps.items.pop("glue:frame", None))
    leaf = solve_leaf(demo, demo.leaf("hatch").model_copy(update={"name": "Planted"}))
    (stop,) = [each for each in leaf.checks if each.code == "steps-differ"]
    assert stop.title == "Do not work from these steps"


# --- what stood in the steps, each with its right figure -----------------------------------------------------------


def settings_of(leaf: LeafSolution, op_id: str) -> dict[str, float]:
    return {each.label: each.value for each in leaf.making.op(op_id).settings}


def test_layers_are_trimmed_to_the_faces_and_no_groove_is_cut_that_is_there():
    """Fault 32: 812.8 over all, lippings of 19.05, tongue 25.4: the faces are 774.7 wide, the core 723.9."""
    lipped = Layered(lipping=Lipping.T, lipping_depth=19.05, tongue=25.4)
    leaf = solved(812.8 + 5.0, 2040.0, build=lipped)
    width = leaf.fit.width.value
    assert settings_of(leaf, "flush:layers")["wide"] == pytest.approx(width - 2 * 19.05)
    assert leaf.making.op("groove:edges") is None
    assert settings_of(leaf, "mark:core")["faces over its edges"] == 25.4
    assert unmade(leaf) == []


def test_what_is_there_already_is_not_planed_to_size_twice():
    """Fault 33: a leaf that exists is taken to its width once; sizing takes nothing more off it."""
    leaf = solved(709.0, 2000.0, build=Existing(inside=Inside.SOLID, width=709.0, height=2000.0))
    assert "off each side" not in settings_of(leaf, "size:leaf")
    assert "off each edge" in settings_of(leaf, "narrow:edges")
    assert settings_of(leaf, "shorten:ends")
    assert unmade(leaf) == []


def test_a_panelled_leaf_loses_by_stile_and_by_rail_what_it_loses(solved_demo):
    """Fault 34: 66 off the leaf, 20 off each stile, and so 26 off each rail between its shoulders."""
    leaf = solved_demo.leaf("pantry")
    assert "off each edge" not in settings_of(leaf, "narrow:edges")
    assert settings_of(leaf, "narrow:edges")["off each stile"] == pytest.approx(20.0, abs=0.01)
    assert settings_of(leaf, "narrow:panels")["off each rail"] == pytest.approx(26.0, abs=0.01)


def test_every_butt_has_its_place_in_the_step():
    """Fault 35: four butts, four places in the leaf and four on the jamb."""
    taken = HardwareChoices(butt=butt_from_table("brock-100"), count=4)
    leaf = solved(800.0, 2300.0, hardware=taken, build=Framed())
    assert sum("from the top" in each for each in settings_of(leaf, "let-in:leaf")) == 4
    assert sum("from the head" in each for each in settings_of(leaf, "let-in:side")) == 4


def test_a_rough_face_that_stays_is_not_flattened(solved_demo):
    """Fault 36: old boards keep one face; only the other one is flattened."""
    assert "the rough one stays" in solved_demo.leaf("tool-shed").making.op("flat:slab").name


def test_a_recess_for_gear_is_told_as_long_wide_and_deep_as_it_is(solved_demo):
    """Fault 39: 150 × 24 × 42, not 42 × 42."""
    told = settings_of(solved_demo.leaf("walnut"), "let-in:gear")
    cut = next(each for each in solved_demo.leaf("walnut").borings if each.kind.is_recess)
    x0, y0, x1, y1 = cut.solid.box
    assert (told["long"], told["deep"]) == (pytest.approx(x1 - x0), pytest.approx(y1 - y0))
    assert told["wide"] == pytest.approx(cut.solid.depth[1] - cut.solid.depth[0])


def test_three_full_layers_are_glued_a_face_at_a_time():
    """Fault 37: always a stop without words; a shop alone does one face after the other, within the open time."""
    leaf = solved(800.0, 2040.0, build=Layered(style=LayerStyle.FULL))
    plan = next(each for each in leaf.making.glue.tasks if each.task.key == "layers")
    assert [closing.parts for stage in plan.stages for closing in stage.closings] == [("front layer",), ("back layer",)]
    assert len(plan.stages) == 2
    assert not [each for each in leaf.checks if each.code.startswith("glue-long")]
    assert unmade(leaf) == []


def test_boards_of_a_light_frame_are_tongued_and_fixed(solved_demo):
    """Fault 40: with the frame glued over its filling the boards were held by nothing; their tongues nobody cut."""
    made = Light(fill=LightFill.BOARDED, glue=LightGlue.OVER)
    leaf = solved(700.0, 1300.0, build=made)
    assert unmade(leaf) == []
    assert leaf.making.op("fill:frame") is not None
    assert leaf.making.op("tongue:boards") is not None


def test_a_loose_rail_is_grooved_deeper_by_what_its_foot_loses():
    """Fault 41: on the loose bottom rail, before the leaf is sized; the stiles' feet after it."""
    guide = Guide(kind=GuideKind.FIN)
    leaf = solved(800.0, 2040.0, hanging=Hanging.SLIDING, build=Framed(), hardware=HardwareChoices(guide=guide))
    deep, trim = leaf.figures["guide_depth"].value, leaf.figures["trim_height"].value
    assert settings_of(leaf, "groove:guide")["deep"] == pytest.approx(deep + trim)
    assert settings_of(leaf, "groove:guide-ends")["deep"] == pytest.approx(deep)


def test_end_boards_and_strips_are_ripped_wide_enough_for_what_is_planed_off_later(solved_demo):
    """What the step says and what comes off the leaf's edge later leave the finished board."""
    for leaf_id, ends in (("coal-hole", 2), ("barn-side", 2), ("tool-shed", 2)):
        leaf = next(each for each in solved_demo.leaves if each.leaf.id == leaf_id)
        off = leaf.figures["trim_side"].value
        said = [each.value for each in leaf.making.op("rip:last").settings]
        covers = {round(leaf.build.part(name).finished.width + off, 1) for name in leaf.making.op("rip:last").parts}
        assert len(leaf.making.op("rip:last").parts) == ends
        assert covers == {round(each, 1) for each in said}


def test_panels_wait_for_their_grooves(solved_demo):
    leaf = next(each for each in solved_demo.leaves if each.leaf.id == "seed-room")
    ids = [each.id for each in leaf.making.operations]
    panels = {each.name for each in leaf.build.parts if each.role == "panel"}
    cut = [
        op.id
        for op in leaf.making.operations
        for change in op.changes
        if isinstance(change, Brought) and change.piece in panels and change.axis != "thickness"
    ]
    assert set(cut) == {"cut:panels"}
    assert ids.index("cut:panels") > ids.index("groove:frame")


def test_the_muntins_joints_are_told_too(solved_demo):
    leaf = next(each for each in solved_demo.leaves if each.leaf.id == "seed-room")
    reach = {each.reach for each in leaf.build.tenons if each.member == "lower muntin"}
    deep = [each.value for each in leaf.making.op("mortise:rails").settings if each.label == "deep"]
    assert deep == [pytest.approx(each) for each in reach]
    lower = leaf.build.part("lower muntin")
    said = [each.value for each in leaf.making.op("tenon:rails").settings]
    assert any(each == pytest.approx(lower.finished.length - 2 * deep[0]) for each in said)


def test_no_loose_tenon_stands_where_a_dado_is_routed():
    """A thin slab whose battens' dadoes reach its tenons: they stand clear of them, and the steps end at the leaf."""
    build = Slab(thickness=23.0, joint=SlabJoint.TENONS, stiffener=Stiffener.DADOES, joint_spacing=120.0)
    leaf = solved(760.0, 1700.0, hanging=Hanging.SLIDING, build=build)
    battens = [each.face for each in leaf.build.parts if each.role == "stiffener"]
    assert battens
    assert leaf.build.tenons
    assert not [t for t in leaf.build.tenons for face in battens if t.rect.y0 < face.y1 and face.y0 < t.rect.y1]
    assert unmade(leaf) == []
