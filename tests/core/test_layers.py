"""Layered, light, veneered and existing leaves: each worked by hand; what holds for all seven constructions."""

from __future__ import annotations

import itertools
import random
from typing import get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon
from shapely.ops import unary_union

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.existing.model import EdgeShape, Existing, Inside, ReduceBy, Splice
from oakmeasure.core.construction.existing.narrowing import PANEL_LEAST, reduce, ways
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.layered.build import pin_places
from oakmeasure.core.construction.layered.model import Layered, LayerStyle, Lipping, Pieced, PieceJoint
from oakmeasure.core.construction.light.model import Light, LightBrace, LightFill, LightGlue, LightJoint
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.construction.veneered.model import BackFace, Veneered, VeneerForm
from oakmeasure.core.document import constructions
from oakmeasure.core.document.constructions import Construction
from oakmeasure.core.document.hanging import Hanging, LeafShape
from oakmeasure.core.document.hinges import HardwareChoices, MortiseLock
from oakmeasure.core.document.job import FitChoices, TimberChoices
from oakmeasure.core.document.readings import HeadKind, HeadShape
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.leaf.leaf_view import joints_view, leaf_view
from oakmeasure.core.drawings.leaf.ways_view import ways_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solver import solve
from oakmeasure.core.timber.laminate import Lamina, curvature
from samples import assert_sums, codes, job, readings, solved


def said(leaf, code):
    return next(each for each in leaf.checks if each.code == code)


def part(leaf, name):
    return leaf.build.part(name)


def volume(leaf):
    return sum(each.volume for each in leaf.build.parts)


# --- a whole leaf of each, by hand ---------------------------------------------------------------------------


def test_layered_leaf_worked_by_hand():
    """Leaf 757 × 1973: lipping 20 with a tongue of 10, stiles 110, three layers of 12, lock at 1000 over 6 of gap."""
    leaf = solved(
        build=Layered(
            lipping=Lipping.T,
            lipping_depth=20.0,
            tongue=10.0,
            trim=14.0,
            pieced=Pieced.BOTTOM_RAIL,
            piece_joint=PieceJoint.SCARF,
        )
    )
    f = leaf.figures
    assert (f["thickness"].value, f["first_stile"].value) == (36.0, 20.0)
    assert f["shoulder"].value == pytest.approx(757 - 40 - 220)
    assert f["core_width"].value == pytest.approx(757 - 40 - 20)
    assert f["lipping_width"].value == 30.0
    assert part(leaf, "hinge stile").face.x0 == 20.0
    middle = part(leaf, "middle rail").face
    assert (middle.y0, middle.y1) == (994 - 95, 994 + 95)
    assert f["bottom_rail_piece"].value == pytest.approx(497 / 2 + 12 / 2)  # half of each scarf of 45° through 12
    assert sum("bottom rail" in each.name for each in leaf.build.parts) == 4
    trims = [each for each in leaf.build.parts if each.role is Role.TRIM]
    assert len(trims) == 16  # four round each of two fields on two faces
    assert sorted({round(each.finished.length) for each in trims}) == sorted({497, 689, 1973 - 110 - 1089})
    by_hand = (
        697 * 1973 * 12
        + 2 * 12 * (2 * 110 * 1973 + 497 * (110 + 190 + 210))
        + 2 * 1973 * (20 * 36 + 10 * 12)
        + sum(each.volume for each in trims)
    )
    assert volume(leaf) == pytest.approx(by_hand, rel=1e-9)
    assert f["pin_length"].value == 20.0  # 2 short of two layers of 12
    assert f["leaf_change_wet"].value == pytest.approx(2 * 20 * f["movement"].value * (f["moisture_wet"].value - 10))
    assert f["sheets"].value == 2
    assert {each.species for each in leaf.build.parts} == {"ply_birch", "european_oak"}


def test_three_full_layers_of_half_an_inch():
    leaf = solved(build=Layered(style=LayerStyle.FULL, core=12.7, face=12.7, lipping=Lipping.NONE))
    assert leaf.figures["layers"].value == pytest.approx(38.1)
    assert len(leaf.build.parts) == 3
    assert volume(leaf) == pytest.approx(757 * 1973 * 38.1)
    assert "edges-bare" in codes(leaf, Level.WARNING)
    assert leaf.figures["leaf_change_wet"].value == 0


def test_light_frame_worked_by_hand():
    """Leaf 757 × 1973, members 70 and 90 of 20, boards of at most 100 on the back: eight of 94.625."""
    leaf = solved(build=Light(brace=LightBrace.CROSSED, brace_width=60.0))
    f = leaf.figures
    assert f["shoulder"].value == 617
    assert (f["boards_count"].value, f["board_end"].value) == (8, pytest.approx(757 / 8))
    assert f["pocket_screw"].value == 32
    assert f["brace_blank"].value == pytest.approx((617**2 + 1813**2) ** 0.5)
    frame = 20 * (2 * 70 * 1973 + 617 * 160)
    boards = 757 * 1973 * 9
    braces = sum(each.volume for each in leaf.build.parts if each.role is Role.BRACE)
    assert volume(leaf) == pytest.approx(frame + boards + braces)
    assert sum(each.what == "pocket screws" for each in leaf.build.fixings) == 8
    assert all(each.slotted for each in leaf.build.fixings if each.what == "screws")
    assert leaf.build.edge == 20
    held = solved(build=Light(glue=LightGlue.OVER))
    assert "held-across" in codes(held, Level.WARNING)
    mended = solve(
        job_edits.with_remedy(job(build=Light(glue=LightGlue.OVER)), "leaf-1", said(held, "held-across").remedies[0])
    ).leaves[0]
    assert "held-across" not in codes(mended)


def test_sheet_in_a_rebate_is_the_sight_and_both_rebates_less_its_clearance():
    leaf = solved(build=Light(fill=LightFill.REBATED, fill_thickness=6.0, rebate=10.0, joint=LightJoint.DOWELS))
    sheet = part(leaf, "sheet")
    assert sheet.finished.width == pytest.approx(617 + 2 * 9)
    assert sheet.finished.length == pytest.approx(1813 + 2 * 9)
    assert leaf.build.thickness == 20
    assert leaf.figures["dowel_length"].value == 70
    assert len(leaf.build.tenons) == 8
    thin = job(build=Light(fill=LightFill.REBATED, fill_thickness=16.0))
    look = said(solve(thin).leaves[0], "rebate-deep")
    assert "rebate-deep" not in codes(solve(job_edits.with_remedy(thin, "leaf-1", look.remedies[0])).leaves[0])
    inside = solved(build=Light(fill=LightFill.BOARDED))
    assert inside.build.thickness == 20
    assert inside.figures["boards_across"].value == pytest.approx(617 + 18)


def test_veneered_leaf_worked_by_hand():
    """44 thick: 2.5 on both faces leave a core of 39; edging 12 for a moulding of 9, ripped at 20 for 8 of sapwood."""
    leaf = solved(build=Veneered(moulding=9.0, sapwood=8.0))
    f = leaf.figures
    assert f["core"].value == 39
    assert (f["edging"].value, f["edging_sawn"].value) == (12, 20)
    assert (f["core_width"].value, f["core_height"].value) == (757 - 24, 1973 - 24)
    assert f["veneer_raw"].value == pytest.approx(3.3)
    assert f["veneers_each"].value == 11  # 11 · 3.3 + 10 · 1.2 = 48.3 of 52, one more would be 52.8
    assert f["veneers_across"].value == 4  # of 196 at the most over 757
    assert (f["veneers_needed"].value, f["veneer_boards"].value) == (8, 1)
    by_hand = 733 * 1949 * 39 + 39 * (2 * 12 * 1973 + 2 * 12 * 733) + 2 * 757 * 1973 * 2.5
    assert volume(leaf) == pytest.approx(by_hand)
    assert f["veneer_bow"].value == 0
    after = solved(build=Veneered(moulding=9.0, edging_first=False))
    assert part(after, "hinge edging").finished.thickness == 44
    assert sum(
        each.face.width for each in after.build.parts if each.name.startswith("veneer") and "back" not in each.name
    ) == pytest.approx(733)


def test_built_up_frame_has_a_core_two_edgings_and_two_veneers_a_member_and_weighs_what_they_do():
    leaf = solved(build=Veneered(form=VeneerForm.FRAMED, muntin=None, arch=38.0))
    rail = [each for each in leaf.build.parts if each.name.startswith("top rail")]
    assert [each.name for each in rail] == [
        "top rail",
        "top rail, edging 1",
        "top rail, edging 2",
        "top rail, veneer",
        "top rail, veneer, back",
    ]
    assert rail[0].species == "blockboard"
    assert rail[3].shape == rail[0].shape  # the veneer follows the arch
    assert leaf.figures["arch_radius"].value == pytest.approx(567**2 / 8 / 38 + 19)
    plain = solved(build=Framed(muntin=None, arch=38.0))
    assert {each.name for each in plain.build.parts} <= {each.name for each in leaf.build.parts}
    assert leaf.figures["leaf_change_wet"].value == 0


def test_existing_leaf_made_longer_and_narrower_by_hand():
    """1915 → 1973 is 58 too short for a lap of 75: a stop that names 70 as the least; at 80 more it can be halved."""
    made = job(
        762.0,
        2000.0,
        build=Existing(width=766.0, height=1915.0, inside=Inside.PANELLED, stile=95.0, tenon=60.0, by=ReduceBy.STILES),
    )
    leaf = solve(made).leaves[0]
    f = leaf.figures
    assert f["added"].value == pytest.approx(1992 - 1915)
    assert (f["piece_hinge"].value, f["piece_latch"].value) == (pytest.approx(77 + 75), pytest.approx(77 + 75 + 25))
    assert f["stile_off"].value == pytest.approx(4.5)
    assert f["stile_left"].value == pytest.approx(90.5)
    assert part(leaf, "middle rail").face.y0 == pytest.approx(990 + 77 - 90)
    short = solved(762.0, 1981.0, build=made.leaves[0].build)
    stop = said(short, "splice-short")
    assert stop.level is Level.STOP
    assert "12" in stop.remedies[0].text  # cut 12 off the old end first: 58 + 12 = 70
    block = Existing(width=766.0, height=1915.0, splice=Splice.BLOCK)
    assert "block-loaded" in codes(solved(build=block), Level.WARNING)
    assert "splice-hinge" in codes(solved(762.0, 2100.0, build=made.leaves[0].build), Level.WARNING)


def test_hollow_leaf_limits_what_may_be_done_and_names_the_smallest_change():
    hollow = Existing(
        width=830.0,
        height=1981.0,
        inside=Inside.HOLLOW,
        solid=28.0,
        face=4.0,
        grooves=5,
        groove_depth=4.5,
        recess_depth=8.0,
        thickness=30.0,
        edge_shape=EdgeShape.ROUNDED,
    )
    leaf = solved(build=hollow)
    stop = said(leaf, "edge-gone")
    assert (stop.level, leaf.figures["off_edge"].value) == (Level.STOP, pytest.approx(36.5))
    assert "18" in stop.remedies[0].text  # 28 less the 10 that stay
    for code in ("groove-deep", "recess-deep", "edge-unmeasured"):
        check = said(leaf, code)
        mended = solve(job_edits.with_remedy(job(build=hollow), "leaf-1", check.remedies[0])).leaves[0]
        assert code not in codes(mended)
    little = solved(build=hollow.model_copy(update={"width": 799.0}))
    assert "edge-gone" in codes(little, Level.WARNING)
    solid = solved(build=Existing(inside=Inside.SOLID, width=830.0))
    assert "edge-gone" not in codes(solid)
    assert solid.weights.mass.value > 1.4 * solved(build=Existing(inside=Inside.HOLLOW, width=830.0)).weights.mass.value


@pytest.mark.parametrize(
    ("build", "code"),
    [
        (Existing(face=22.0), "contradicts-face"),
        (Existing(solid=399.0), "contradicts-solid"),
        (Existing(inside=Inside.PANELLED, panels=6, muntin=110.0), "contradicts-muntin"),
        (Existing(inside=Inside.PANELLED, tenon=120.0), "contradicts-tenon"),
        (Existing(inside=Inside.PANELLED, middle_up=1900.0), "contradicts-middle-up"),
        (Existing(height=700.0, inside=Inside.PANELLED, bottom_rail=420.0), "contradicts-bottom-rail"),
        (Veneered(thickness=16.0, veneer=6.0), "core-thin"),
        (Veneered(moulding=20.0, edging=12.0), "edging-cut"),
        (Veneered(veneer=3.0, thin=2.8), "veneer-short"),
        (Layered(stile=375.0), "panel-width"),
        (Layered(lock_height=250.0), "rails-bottom-rail-middle-rail"),
        (Light(stile=250.0, brace=LightBrace.ONE, brace_width=190.0), "brace-wide"),
    ],
)
def test_leaf_that_contradicts_itself_is_a_stop_mended_by_its_smallest_change(build, code):
    made = job(build=build)
    stop = said(solve(made).leaves[0], code)
    assert stop.level is Level.STOP
    for remedy in stop.remedies[:1]:
        assert remedy.path
        assert code not in codes(solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0], Level.STOP)


# --- pins, faces, bow ----------------------------------------------------------------------------------------


def test_pins_that_would_meet_the_lock_or_a_hinge_are_refused_and_all_others_driven():
    lock = HardwareChoices(lock=MortiseLock(case_depth=90.0, case_height=160.0))
    leaf = solved(build=Layered(stile=120.0), hardware=lock)
    driven, refused = leaf.build.fixings, leaf.build.refused
    members = [each for each in leaf.build.parts if each.depth == (0.0, 12.0) and each.role is not Role.LIPPING]
    assert len(driven) + len(refused) == sum(len(pin_places(each.face, 150.0)) for each in members)
    assert refused
    butts = [place.rect for place in leaf.butts.places]

    def is_met(each):
        lock_met = each.x > 757 - 90 - 8 - 1e-9 and abs(each.y - 994) <= 88 + 1e-9
        return lock_met or any(each.x <= 48 and b.y0 - 8 <= each.y <= b.y1 + 8 for b in butts)

    assert all(map(is_met, refused))
    assert not any(map(is_met, driven))
    assert "pins-refused" in codes(leaf)


@given(st.floats(40, 300), st.floats(40, 2000), st.floats(60, 400))
def test_pins_stay_inside_their_member_and_no_further_apart_than_asked(wide, tall, every):
    places = pin_places(Rect(0, 0, wide, tall), every)
    assert all(20 - 1e-6 <= x <= wide - 20 + 1e-6 and 20 - 1e-6 <= y <= tall - 20 + 1e-6 for x, y in places)
    for axis in (0, 1):
        lines = sorted({round(each[axis], 6) for each in places})
        assert all(b - a <= every + 1e-6 for a, b in itertools.pairwise(lines))


def test_unlike_faces_bow_and_like_ones_do_not():
    bare = solved(build=Veneered(back=BackFace.BARE, thickness=20.0, veneer=3.0))
    look = said(bare, "veneer-bow")
    assert bare.figures["veneer_bow"].value > 2
    assert Show().length(bare.figures["veneer_bow"].value) in look.sentence
    mended = solve(job_edits.with_remedy(job(build=bare.leaf.build), "leaf-1", look.remedies[0])).leaves[0]
    assert mended.figures["veneer_bow"].value == 0
    thin = solved(build=Veneered(back=BackFace.THIN, thickness=20.0, veneer=3.0))
    assert 0 < thin.figures["veneer_bow"].value < bare.figures["veneer_bow"].value
    with pytest.raises(InputError):
        curvature([Lamina(-1.0, 1.0, 0.0)])
    with pytest.raises(InputError):
        curvature([Lamina(1.0, 0.0, 0.0)])


@given(st.lists(st.tuples(st.floats(0.5, 30), st.floats(0.05, 2), st.floats(-0.01, 0.01)), min_size=1, max_size=5))
def test_laminate_turned_over_bows_the_other_way_and_a_symmetrical_one_not_at_all(layers):
    strips = [Lamina(*each) for each in layers]
    assert curvature(strips) == pytest.approx(-curvature(strips[::-1]), abs=1e-9)
    assert curvature([*strips, *strips[::-1]]) == pytest.approx(0, abs=1e-9)


# --- reducing ------------------------------------------------------------------------------------------------


def searched(total, counts, sights, may, by):
    """Return the best (off each stile, panels) by trying every symmetrical choice of whole millimetres."""
    best = None
    most = {ReduceBy.SHARED: may, ReduceBy.STILES: may, ReduceBy.PANELS: min(0.5, may)}[by]
    top = 0 if by is ReduceBy.STILES else int(total)
    for sum_off in range(top + 1):
        off = (total - sum_off) / 2
        if not -1e-9 <= off <= most + 1e-9:
            continue
        rows = []
        for count, sight in zip(counts, sights, strict=True):
            base = sum_off // count
            found = None
            for extra in itertools.product((0, 1), repeat=count):
                row = [base + each for each in extra]
                if (
                    sum(row) == sum_off
                    and row == row[::-1]
                    and (not row or max(row) <= max(0, int(sight - PANEL_LEAST)))
                ):
                    found = tuple(row)
                    break
            if found is None:
                break
            rows.append(found)
        if len(rows) < len(counts):
            continue
        if best is None or (off > best[0] + 1e-9) is (by is ReduceBy.SHARED):
            best = (off, tuple(rows))
    return best


def test_reduce_solver_finds_what_exhaustive_search_finds_on_200_random_leaves():
    source = random.Random(20)
    solvable = 0
    for _ in range(200):
        counts = tuple(source.randint(1, 4) for _ in range(source.randint(1, 2)))
        sights = tuple(source.uniform(60, 260) for _ in counts)
        may, total = source.choice([0.0, 4.0, 12.5, 20.0, 33.0]), source.randint(1, 160) / source.choice([1, 2])
        for by in ReduceBy:
            mine = reduce(total=total, rows=counts, sights=sights, may=may, by=by)
            theirs = searched(total, counts, sights, may, by)
            assert (mine is None) is (theirs is None), (total, counts, sights, may, by)
            if mine is None or theirs is None:
                continue
            solvable += 1
            assert mine[0] == pytest.approx(theirs[0], abs=1e-6), (total, counts, may, by)
            for row in mine[1]:
                assert 2 * mine[0] + sum(row) == pytest.approx(total)
                assert row == row[::-1]
                assert max(row) - min(row) <= 1
    assert solvable > 200


@given(st.floats(10, 120), st.lists(st.integers(1, 4), min_size=1, max_size=2), st.sampled_from([1.0, 25.4 / 16, 0.5]))
def test_panels_lose_whole_steps_of_the_rule_alike_from_both_sides(total, counts, step):
    found = reduce(
        total=round(total, 1),
        rows=tuple(counts),
        sights=(200.0,) * len(counts),
        may=20.0,
        by=ReduceBy.SHARED,
        step=step,
    )
    for row in found[1] if found is not None else ():
        assert 2 * found[0] + sum(row) == pytest.approx(round(total, 1), abs=1e-6)
        assert list(row) == list(row)[::-1]
        assert max(row) - min(row) <= step + 1e-9
        assert all(each / step == pytest.approx(round(each / step), abs=1e-9) for each in row)


def test_reduction_keeps_tenons_whole_and_says_what_it_costs_where_it_cannot():
    found = ways(total=75, rows=(3,), sights=(120.0,), stile=95, tenon=62, through=False)
    assert found[ReduceBy.SHARED].tenon_cover == 8
    assert ReduceBy.STILES not in found
    with pytest.raises(InputError):
        reduce(total=-1.0, rows=(1,), sights=(100.0,), may=1.0, by=ReduceBy.SHARED)
    build = Existing(width=840.0, inside=Inside.PANELLED, stile=95.0, tenon=62.0, by=ReduceBy.STILES)
    made = job(build=build)
    leaf = solve(made).leaves[0]
    stop = said(leaf, "reduce-too-far")
    assert stop.level is Level.STOP
    table = leaf.leaf_choices[0]
    assert {each.level for each in table.options} >= {Level.STOP}
    for remedy in stop.remedies:
        assert "reduce-too-far" not in codes(solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0])
    option = next(each for each in table.options if each.remedy)
    assert said(solve(job_edits.with_remedy(made, "leaf-1", option.remedy)).leaves[0], "reduced")
    assert ways_view(leaf, Show()).shapes
    far = solved(400.0, 1981.0, build=build)
    assert "more" in said(far, "reduce-too-far").sentence or said(far, "reduce-too-far").remedies


# --- all seven -----------------------------------------------------------------------------------------------

KINDS = {each.model_fields["kind"].default: each for each in get_args(get_args(Construction)[0])}
EVERY = (
    Framed(),
    Boarded(),
    Slab(),
    Layered(trim=12.0),
    Layered(style=LayerStyle.FULL, lipping=Lipping.T),
    Light(),
    Light(fill=LightFill.SHEET, brace=LightBrace.CROSSED),
    Veneered(),
    Veneered(form=VeneerForm.FRAMED, muntin=None),
    Existing(),
    Existing(inside=Inside.PANELLED),
    Existing(inside=Inside.SOLID, width=700.0),
)


def test_every_construction_has_its_model_its_module_and_its_name():
    assert set(KINDS) == set(constructions.KINDS)


@pytest.mark.parametrize("kind", list(KINDS))
def test_leaf_of_any_construction_stands_on_its_defaults_with_under_ten_inputs(kind):
    made = job_edits.with_construction(job(), "leaf-1", kind)  # two readings, one choice
    leaf = solve(made).leaves[0]
    assert not codes(leaf, Level.STOP)
    assert leaf.weights.mass.value > 5
    assert leaf.figures["cost"].value > 0
    assert leaf.plan.in_words()
    for name in ("thickness", "mass", "hours", "cost"):
        assert name in leaf.figures
    build, default = leaf.leaf.build, KINDS[kind]()
    changed = [name for name in type(build).model_fields if getattr(build, name) != getattr(default, name)]
    assert changed == (["width", "height"] if kind == "existing" else [])  # the size that is wanted, until measured


def anything(data, model):
    """Return a construction with any of its numbers anywhere in its limits and any of its choices any of its words."""
    build = model()
    for name in model.model_fields:
        value = getattr(build, name)
        if name == "kind" or not data.draw(st.booleans()):
            continue
        if isinstance(value, bool):
            build = job_edits.with_value(build, name, not value)
        elif hasattr(type(value), "__members__"):
            build = job_edits.with_value(build, name, data.draw(st.sampled_from(list(type(value)))))
        elif isinstance(value, float):
            try:
                build = job_edits.with_value(build, name, value * data.draw(st.floats(0.3, 3.0)))
            except InputError:
                continue
    return build


@given(st.sampled_from(list(KINDS)), st.data(), st.floats(420, 1100), st.floats(600, 2400))
@settings(max_examples=100)
def test_whatever_a_construction_is_given_it_answers_and_its_sums_add_up(kind, data, width, height):
    build = anything(data, KINDS[kind])
    leaf = solve(job(width, height, build=build)).leaves[0]
    assert leaf.checks
    for stage in Stage:
        assert leaf.key_figure(stage, Show())
    assert leaf_view(leaf, Show()).shapes
    assert joints_view(leaf, Show()).shapes
    assert ways_view(leaf, Show()).shapes
    assert_sums(leaf)
    if leaf.build is None or any(each.stage is Stage.LEAF for each in leaf.open_stops()):
        return
    box = Rect(-1e-6, -1e-6, leaf.build.width + 1e-6, leaf.build.height + 1e-6)
    for each in leaf.build.parts:
        face = each.face
        assert box.x0 <= face.x0 <= face.x1 <= box.x1, (each.name, build)
        assert box.y0 <= face.y0 <= face.y1 <= box.y1, (each.name, build)
        assert min(each.finished.length, each.finished.width, each.finished.thickness) > 0
        assert each.length.value == pytest.approx(each.finished.length, abs=0.01), each.name
        for small, large in ((each.finished, each.planed), (each.planed, each.rough)):
            assert small.length <= large.length + 1e-6, each.name
            assert small.width <= large.width + 1e-6, each.name


@given(st.sampled_from(list(KINDS)), st.data(), st.floats(500, 1000), st.floats(900, 2300))
@settings(max_examples=50)
def test_every_remedy_of_every_construction_can_be_taken_and_mends_its_stop(kind, data, width, height):
    build = anything(data, KINDS[kind])
    made = job(width, height, build=build)
    for check in solve(made).leaves[0].checks:
        assert check.level is Level.OK or check.remedies, check.code
        for remedy in (each for each in check.remedies if each.path and check.stage is Stage.LEAF):
            mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
            assert check.level is not Level.STOP or check.code not in codes(mended, Level.STOP), (
                check.title,
                remedy.text,
            )


RAKED = {
    "readings": readings(
        width_top=580.0,
        width_bottom=580.0,
        height_hinge=640.0,
        height_latch=848.0,
        diagonal_rising=1027.5,
        diagonal_falling=864.0,
    ),
    "head": HeadShape(kind=HeadKind.RAKED),
    "hanging": Hanging.INSET_BUTTS,
    "fit": FitChoices(shape=LeafShape.SCRIBED),
}
SMALL = (
    Layered(stile=60.0, top_rail=60.0, middle_rail=None, bottom_rail=70.0),
    Layered(style=LayerStyle.FULL),
    Light(stile=50.0, top_rail=50.0, bottom_rail=60.0),
    Veneered(thickness=20.0),
    Veneered(
        form=VeneerForm.FRAMED,
        thickness=22.0,
        stile=60.0,
        top_rail=60.0,
        middle_rail=None,
        bottom_rail=65.0,
        muntin=None,
    ),
    Existing(
        width=590.0,
        height=870.0,
        inside=Inside.PANELLED,
        stile=62.0,
        tenon=36.0,
        top_rail=62.0,
        middle_rail=None,
        panels=1,
    ),
    Existing(width=590.0, height=870.0, inside=Inside.SOLID),
)


@pytest.mark.parametrize("build", SMALL, ids=lambda each: f"{each.kind}-{getattr(each, 'form', '')}")
def test_raked_outline_cuts_every_layer_and_nothing_stands_out(build):
    leaf = solved(build=build, **RAKED)
    outline = Polygon(leaf.fit.outline)
    assert all(outline.buffer(0.6).contains(Polygon(each.corners)) for each in leaf.build.parts)
    covered = unary_union([Polygon(each.corners) for each in leaf.build.parts]).area
    assert covered == pytest.approx(outline.area, rel=0.002)
    assert leaf.figures["mass"].value > 0
    assert leaf_view(leaf, Show()).shapes


def test_new_wood_is_cut_from_boards_sheets_from_sheets_and_old_wood_from_nothing():
    for build in EVERY:
        leaf = solved(build=build)
        cut = {piece.piece.part for group in leaf.plan.groups for board in group.plan.boards for piece in board.pieces}
        for each in leaf.build.parts:
            made_of = getattr(stuff(each.species), "moist", None)
            if each.at_hand or made_of == "":
                assert each.name not in cut
            else:
                assert each.name in cut, (build.kind, each.name)
    assert solved(build=Layered(), timber=TimberChoices(finish="varnish")).plan.sheets == 2
