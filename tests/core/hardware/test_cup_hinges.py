"""Cup hinges: each figure from the others, places on leaf and cabinet, depth, reveal, borings, and what is said."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import affinity
from shapely.geometry import box
from shapely.ops import unary_union

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.document.cup_hinges import CupChoices, CupHinge, CupUnknown, RevealRow, cup_from_table, cup_keys
from oakmeasure.core.document.hanging import CabinetChoices, Hanging
from oakmeasure.core.document.job import FitChoices, Hand, HardwareChoices, Reading
from oakmeasure.core.drawings.hardware.hardware_view import hardware_view
from oakmeasure.core.edits import hinge_edits, job_edits
from oakmeasure.core.edits.drag import dragged_cup
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.fit.swing.cup_clearance import corner_way, least_reveal, pin_for
from oakmeasure.core.hardware.hinges.cups import cup_count
from oakmeasure.core.hardware.hinges.mortise_depth import solve_cup
from oakmeasure.core.reports.hinge_catalogue import catalogue
from oakmeasure.core.solver import solve
from samples import assert_sums, codes, job, said

CUPBOARD = Framed(
    thickness=20.0,
    stile=60.0,
    top_rail=60.0,
    middle_rail=None,
    bottom_rail=65.0,
    muntin=None,
    panel_thickness=6.0,
    groove_depth=8.0,
)


def hinged(
    hanging=Hanging.OVERLAY,
    *,
    key="heron-110",
    build=CUPBOARD,
    cabinet=None,
    fit=None,
    hand=Hand.LEFT,
    size=(425.0, 425.0),
    **choice,
):
    return job(
        *size,
        hanging=hanging,
        build=build,
        cabinet=cabinet or CabinetChoices(),
        fit=fit or FitChoices(),
        hand=hand,
        hardware=HardwareChoices(cup=CupChoices(hinge=cup_from_table(key), **choice)),
    )


@given(
    st.floats(-5, 30),
    st.floats(8, 15),
    st.sampled_from([0.0, 9.0, 18.0]),
    st.floats(-3, 9),
    st.sampled_from(["overlay", "reach", "crank", "boring", "plate"]),
)
def test_any_one_figure_follows_from_the_other_four(overlay, reach, crank, boring, unknown):
    figures = {
        "overlay": overlay,
        "reach": reach,
        "crank": crank,
        "boring": boring,
        "plate": reach - crank + boring - overlay,
    }
    found = solve_cup(**(figures | {unknown: None}))
    assert found == pytest.approx(figures, abs=1e-9)
    with pytest.raises(InputError):
        solve_cup(**figures)


@pytest.mark.parametrize("unknown", list(CupUnknown))
def test_what_is_sought_is_worked_out_on_the_leaf_and_everything_else_agrees(unknown):
    leaf = solve(hinged(unknown=unknown, boring=4.0, crank=0.0, plate=1.0)).leaves[0]
    f = leaf.figures
    five = {name: f[f"cup_{name}"].value for name in ("overlay", "reach", "crank", "boring", "plate")}
    assert five["overlay"] == pytest.approx(five["reach"] - five["crank"] + five["boring"] - five["plate"])
    assert f["cup_overlay"].value == pytest.approx(f["overlay"].value)
    assert f["leaf_width"].value == pytest.approx(425 + 2 * f["overlay"].value)  # the leaf's size follows the hinge
    assert_sums(leaf)
    assert hardware_view(leaf, Show()).shapes


def test_overlay_leaf_with_its_plates_on_the_fixed_side_by_hand():
    """Hole 425, overlay 14: leaf 453, cups 114 and 339 down, 225 apart, plates 100 and 325 down the opening."""
    leaf = solve(hinged(first=114.0, count=2)).leaves[0]
    assert leaf.build.height == pytest.approx(453)
    assert [each.top.value for each in leaf.cups.places] == pytest.approx([114, 339])
    assert [each.plate.value for each in leaf.cups.places] == pytest.approx([100, 325])
    cut = {each.name: each for each in leaf.borings}
    assert cut["cup 1"].from_top == pytest.approx(114 - 17.5)
    assert (cut["cup 1"].along, cut["cup 1"].depth, cut["cup 1"].member) == (35, 11.5, "hinge stile")
    assert (cut["plate 1"].from_top, cut["plate 1"].to) == (pytest.approx(84), pytest.approx(116))
    assert len(leaf.borings) == 8  # two cups, two screws each, two plates
    assert cut["cup 1 screw 2"].from_top - cut["cup 1 screw 1"].from_top == pytest.approx(45)
    assert cut["cup 1 screw 1"].across == pytest.approx(leaf.figures["cup_centre"].value + 9.5)
    dowelled = solve(hinged(first=114.0, count=2, dowels=True)).leaves[0]
    assert next(each for each in dowelled.borings if each.name == "cup 1 dowel 1").along == 8


def test_cup_is_dragged_in_line_with_a_rail_and_stays_on_its_half():
    tenoned = solve(hinged(size=(400.0, 800.0))).leaves[0]
    rail = tenoned.build.part("top rail").face
    freed = dragged_cup(tenoned, 1, rail.y0 + 4)  # there the cup would cut the rail's tenon
    assert freed.words == "the nearest free place"
    assert freed.value > 60 + 10
    made = hinged(size=(400.0, 800.0), build=CUPBOARD.model_copy(update={"tenon": TenonKind.POCKET}))
    leaf = solve(made).leaves[0]
    drop = dragged_cup(leaf, 1, rail.y0 + 4)
    assert (drop.path, drop.words) == ("hardware.cup.first", "in line with the top rail")
    assert drop.value == pytest.approx(60)
    low = dragged_cup(leaf, len(leaf.cups.places), -500.0)
    assert (low.path, low.value) == ("hardware.cup.last", 30.0)
    assert dragged_cup(leaf, 9, 100.0) is None
    moved = solve(job_edits.with_field(made, "leaf-1", drop.path, drop.value)).leaves[0]
    assert moved.cups.places[0].top.value == pytest.approx(60)


def test_inset_leaf_gets_its_thickness_behind_the_front_and_a_stop():
    even = FitChoices(gap_hinge=2.0, gap_latch=2.0, gap_head=2.0, gap_floor=2.0)
    leaf = solve(hinged(Hanging.INSET, key="heron-long", fit=even, plate=0.0)).leaves[0]
    f = leaf.figures
    assert (f["cup_overlay"].value, f["cup_crank"].value) == (-2, 18)
    assert f["cup_boring"].value == pytest.approx(4)
    assert (f["plate_back"].value, f["stop_back"].value) == (57, 20)
    assert leaf.cups.places[0].plate.value == leaf.cups.places[0].top.value + 2


def test_boring_out_of_range_offers_what_is_sold_or_a_little_less_overlay_and_mends():
    low = hinged(cabinet=CabinetChoices(overlay=12.0), plate=0.0)
    look = said(solve(low).leaves[0], "cup-boring")
    assert look.level is Level.WARNING
    offered = [each for each in look.remedies if each.path]
    assert {each.path for each in offered} >= {"hardware.cup.plate", "cabinet.overlay"}
    for remedy in offered:
        mended = said(solve(job_edits.with_remedy(low, "leaf-1", remedy)).leaves[0], "cup-boring")
        assert mended.level is Level.OK, remedy.text
    shared = hinged(Hanging.HALF_OVERLAY, key="heron-long", plate=0.0, cabinet=CabinetChoices(division=22.0, gap=3.0))
    look = said(solve(shared).leaves[0], "cup-boring")
    assert solve(shared).leaves[0].figures["cup_boring"].value == pytest.approx(6.5)
    assert [(each.path, each.value) for each in look.remedies] == [("cabinet.gap", pytest.approx(4.0))]


@pytest.mark.parametrize(
    ("change", "code", "level"),
    [
        (
            {"build": CUPBOARD.model_copy(update={"thickness": 16.0}), "key": "heron-long", "point": 3.0},
            "cup-depth",
            Level.STOP,
        ),
        ({"build": CUPBOARD.model_copy(update={"stile": 36.0})}, "cup-stile", Level.STOP),
        ({"count": 2, "size": (400.0, 1300.0)}, "cups-few", Level.WARNING),
        ({"size": (400.0, 2600.0)}, "cups-few", Level.STOP),
        ({"size": (640.0, 500.0)}, "cups-wide", Level.WARNING),
        ({"push_latch": True}, "push-damped", Level.WARNING),
        ({"cabinet": CabinetChoices(side=25.0)}, "cup-side", Level.WARNING),
        ({"cabinet": CabinetChoices(run=2, frame=28.6)}, "cup-reveal", Level.WARNING),
        (
            {"unknown": CupUnknown.PLATE, "boring": 4.0, "cabinet": CabinetChoices(overlay=14.0)},
            "cup-not-sold",
            Level.WARNING,
        ),
    ],
)
def test_what_is_wrong_with_cups_is_said_and_a_stop_is_mended_by_its_click(change, code, level):
    made = hinged(**change)
    check = said(solve(made).leaves[0], code)
    assert (check.level, check.stage) == (level, Stage.HARDWARE)
    assert check.remedies
    for remedy in (each for each in check.remedies if each.path):
        mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
        assert code not in codes(mended, Level.STOP)


def test_hinge_that_contradicts_itself_is_refused():
    with pytest.raises(ValueError, match="largest boring"):
        CupHinge(boring_least=8.0, boring_most=5.0)
    for key in cup_keys():
        assert cup_from_table(key).reveal


@given(st.floats(12, 40), st.floats(0.2, 5.0), st.floats(5, 90))
def test_swept_corner_is_what_a_polygon_sweep_gives(thickness, reveal, degrees):
    deep = 6.0
    pin = pin_for(reveal=reveal, deep=deep)
    section = box(0.0, -(thickness - deep), 60.0, deep)  # the leaf's end, its face forward, the pin at (pin, 0)
    turned = [affinity.rotate(section, degrees * at / 120, origin=(pin, 0.0)) for at in range(121)]
    beside = box(-100.0, -100.0, 100.0, deep)  # the neighbour ends at the face: what swings before it meets nothing
    beyond = -unary_union(turned).intersection(beside).bounds[0]
    mine = max(-x for x, _ in corner_way((pin, deep), degrees=degrees, steps=120))
    assert mine <= reveal + 1e-6
    assert mine == pytest.approx(beyond, abs=0.01)


def test_reveal_at_a_row_is_the_row_and_between_rows_lies_between_them():
    rows = [RevealRow(thickness=16, boring=3, reveal=0.6), RevealRow(thickness=24, boring=4, reveal=2.1)]
    assert least_reveal(rows, thickness=24.0, boring=4.0) == 2.1
    assert 0.6 < least_reveal(rows, thickness=20.0, boring=3.5) < 2.1
    assert least_reveal([], thickness=20.0, boring=3.0) is None


@given(st.floats(300, 2390), st.floats(0.5, 21.9))
def test_number_of_cups_never_falls_with_height_or_weight(height, mass):
    here = cup_count(height=height, mass=mass)
    assert here is not None
    assert here <= cup_count(height=min(height * 1.1, 2400), mass=mass)
    assert here <= cup_count(height=height, mass=min(mass * 1.1, 22))
    assert cup_count(height=2401, mass=1) is None


def test_other_hand_has_the_same_borings_and_is_drawn_mirrored():
    left, right = (solve(hinged(hand=hand)).leaves[0] for hand in (Hand.LEFT, Hand.RIGHT))
    assert left.borings == right.borings
    width = left.build.width

    def cups(leaf):
        shapes = [
            each for each in hardware_view(leaf, Show()).shapes if each.ref == "cup:2" and hasattr(each, "points")
        ]
        return sorted(round(x, 3) for x, y in shapes[0].points if y < leaf.build.height / 2)

    assert cups(right) == sorted(round(width - x, 3) for x in cups(left))


def test_mock_up_gives_the_reach():
    made = hinged(unknown=CupUnknown.REACH, boring=2.5, plate=0.0, crank=0.0)
    leaf = solve(made).leaves[0]
    assert leaf.figures["cup_reach"].value == pytest.approx(11.5)
    assert leaf.figures["cup_centre"].value == pytest.approx(20)
    assert "cup-mock-up" in codes(leaf)
    read = job_edits.with_field(hinged(), "leaf-1", "hardware.cup.hinge.reach", 11.7)
    assert read.leaf("leaf-1").hardware.cup.hinge.reach == Reading(value=11.7)


def test_hinge_of_a_mock_up_joins_the_jobs_own_with_its_day_and_its_readings_and_can_be_taken():
    made = hinged(unknown=CupUnknown.REACH, boring=2.5, plate=0.0, crank=0.0)
    kept = hinge_edits.with_kept_hinge(made, "leaf-1", "2026-11-25")
    mine = kept.own_cups[0]
    assert mine.name == "Heron 110, kept 2026-11-25"
    assert mine.reach == Reading(value=11.5)
    assert mine.source == "mock-up: overlay 14, middle 20, crank 0, plate 0 mm, 2026-11-25"
    again = hinge_edits.with_kept_hinge(kept, "leaf-1", "2026-11-25")
    assert len(again.own_cups) == 1
    other = job_edits.with_field(again, "leaf-1", "hardware.cup.unknown", CupUnknown.BORING)
    table = catalogue(other, solve(other).leaves[0])[0]
    own = next(each for each in table.options if each.cells[0] == mine.name)
    assert own.cells[1:3] == ("11.5", "2.5")
    taken = job_edits.with_remedy(other, "leaf-1", own.remedy)
    assert taken.leaf("leaf-1").hardware.cup.hinge == mine
    assert len(table.options) == len(cup_keys()) + 1
    for option in (each for each in table.options if each.remedy and each.level is Level.OK):
        leaf = solve(job_edits.with_remedy(other, "leaf-1", option.remedy)).leaves[0]
        assert said(leaf, "cup-boring").level is Level.OK
        assert said(leaf, "cup-depth").level is Level.OK


def test_butts_of_the_catalogue_are_judged_as_the_leaf_judges_them():
    made = hinge_edits.with_kept_hinge(job(), "leaf-1", "2026-11-25")
    table = catalogue(made, solve(made).leaves[0])[0]
    assert any(each.cells[0].endswith("kept 2026-11-25") for each in table.options)
    for option in (each for each in table.options if each.remedy):
        leaf = solve(job_edits.with_remedy(made, "leaf-1", option.remedy)).leaves[0]
        wrong = codes(leaf) & {"butt-back", "butts-weak", "butt-gap"}
        assert bool(wrong) is (option.level is not Level.OK), option.cells
    sliding = job(hanging=Hanging.SLIDING)
    assert catalogue(sliding, solve(sliding).leaves[0]) == ()
    with pytest.raises(InputError):
        hinge_edits.with_kept_hinge(sliding, "leaf-1", "2026-11-25")
