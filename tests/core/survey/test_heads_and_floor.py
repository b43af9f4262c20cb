"""Heads, bows, floors, leaning sides and things in the way."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.document.job import FitChoices, Reading
from oakmeasure.core.document.readings import (
    FloorAlong,
    FloorPoint,
    FloorReadings,
    HeadKind,
    HeadShape,
    Side,
    SideOffset,
)
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.reports.open_readings import all_to_measure
from oakmeasure.core.solver import solve
from oakmeasure.core.survey.outline import half_planes, scribed
from oakmeasure.core.survey.survey_result import outline_of
from oakmeasure.core.survey.takings.tape import lean_over_side
from samples import codes, job, readings, solved

LEVEL = {
    "width_top": 800.0,
    "width_middle": 800.0,
    "width_bottom": 800.0,
    "height_hinge": 2000.0,
    "height_latch": 2000.0,
    "lean_hinge": 0.0,
    "lean_latch": 0.0,
}


@pytest.mark.parametrize(
    ("kind", "crown", "radius"),
    [(HeadKind.SEGMENTAL, 2120.0, 726.667), (HeadKind.HALF_ROUND, None, 400.0), (HeadKind.TWO_CENTRED, 2692.82, 800.0)],
)
def test_curved_head_takes_its_rise_from_the_crown_and_leaves_the_leaf_under_the_springing(kind, crown, radius):
    more = {"height_middle": crown} if crown else {}
    leaf = solved(readings=readings(**LEVEL, **more), head=HeadShape(kind=kind))
    assert leaf.figures["head_radius"].value == pytest.approx(radius, abs=0.01)
    assert leaf.figures["clear_height"].value == pytest.approx(2000)
    assert max(y for _, y in leaf.opening.outline.points) == pytest.approx(crown or 2400, abs=0.1)


def test_rise_that_no_segment_can_have_is_a_stop_with_its_limits():
    leaf = solved(readings=readings(**LEVEL), head=HeadShape(kind=HeadKind.SEGMENTAL, rise=Reading(value=500)))
    said = next(each for each in leaf.checks if each.code == "head-impossible")
    assert said.level is Level.STOP
    assert "400" in said.sentence


def test_raked_head_keeps_its_rake_and_the_square_leaf_stands_under_its_low_end():
    leaf = solved(readings=readings(**{**LEVEL, "height_latch": 2180.0}), head=HeadShape(kind=HeadKind.RAKED))
    assert leaf.figures["head_rake"].value == pytest.approx(180)
    assert leaf.figures["clear_height"].value == pytest.approx(2000)
    outline = scribed(leaf.opening.outline, {Side.HEAD: 2.0})
    assert max(y for _, y in outline) > 2170


@given(st.sampled_from([Side.HINGE, Side.LATCH]), st.floats(1, 20), st.floats(300, 1700))
def test_a_read_bow_narrows_the_leaf_by_itself_and_a_bow_outward_by_nothing(side, into, at):
    straight = solved(readings=readings(**LEVEL)).figures["clear_width"].value
    for sign in (1, -1):
        offset = SideOffset(side=side, at=at, into=Reading(value=sign * into))
        middle = LEVEL["width_middle"] - sign * into * min(1000 / at, 1000 / (2000 - at))
        leaf = solved(readings=readings(**{**LEVEL, "width_middle": middle}), bows=(offset,))
        lost = straight - leaf.figures["clear_width"].value
        assert lost == pytest.approx(into if sign > 0 else 0.0, abs=1e-6)
        assert not codes(leaf) & {"bowed-width_middle", "misread-width_middle"}  # the bow explains the middle reading


def test_side_that_bows_in_is_replaced_by_its_inner_chord_for_the_scribed_leaf():
    bow = SideOffset(side=Side.LATCH, at=1000, into=Reading(value=9))
    outline = outline_of(((0, 0), (800, 0), (800, 2000), (0, 2000)), bows=(bow,))
    assert max(x for x, _ in scribed(outline, {})) == pytest.approx(791)
    assert len(half_planes(outline)) == 4


@pytest.mark.parametrize(("hinge", "latch", "where"), [(0, 5, "head"), (4, -1, "foot"), (3, 2, None)])
def test_cross_legged_sides_say_which_corner_touches_first(hinge, latch, where):
    leaf = solved(readings=readings(**LEVEL, across_hinge=hinge, across_latch=latch))
    said = [each for each in leaf.checks if each.code == "cross-legged"]
    assert bool(said) is (where is not None)
    if where:
        assert f"latch side's {where}" in said[0].sentence


def test_floor_that_rises_under_the_swing_asks_for_a_wider_gap_and_that_mends_it():
    floor = FloorReadings(
        swing=(FloorPoint(at=30, height=Reading(value=2)), FloorPoint(at=90, height=Reading(value=9)))
    )
    sample = job(readings=readings(**LEVEL), floor=floor, fit=FitChoices(gap_floor=6))
    leaf = solve(sample).leaves[0]
    said = next(each for each in leaf.checks if each.code == "floor-drags")
    assert said.where == "floor:2"
    mended = solve(job_edits.with_remedy(sample, "leaf-1", said.remedies[0])).leaves[0]
    assert "floor-drags" not in codes(mended)


def test_travel_is_set_from_its_highest_point_wherever_that_is():
    points = tuple(FloorPoint(at=at, height=Reading(value=h)) for at, h in ((0, 0.0), (900, -4.0), (1500, 3.0)))
    leaf = solved(readings=readings(**LEVEL), floor=FloorReadings(along=FloorAlong.TRAVEL, travel=points))
    assert leaf.figures["floor_peak"].value == 3
    assert leaf.figures["floor_fall"].value == 7


def test_still_to_measure_names_over_all_leaves_what_is_assumed_and_what_hangs_on_it(solved_demo):
    items = all_to_measure(solved_demo.leaves)
    assert [each.state for each in items] == sorted(
        (each.state for each in items), key=lambda s: s is not Provenance.ASSUMED
    )
    sill = next(each for each in items if each.leaf_id == "office-store" and each.label == "the sill is level")
    assert "leaf width" in sill.hangs
    closed = next(each for each in items if each.leaf_id == "weighing-office" and each.name == "butt_closed")
    assert closed.state is Provenance.ASSUMED
    tabled = next(each for each in items if each.leaf_id == "seed-room" and each.state is Provenance.FROM_TABLE)
    assert tabled.edit.startswith("hardware.butt")


def test_slope_of_an_inclinometer_is_turned_into_the_lean_over_the_side():
    leaf = job(readings=readings(**LEVEL)).leaves[0]
    assert lean_over_side(leaf, "lean_latch", 3.0) == pytest.approx(6.0)
    assert lean_over_side(leaf, "sill_rise", 3.0) == pytest.approx(2.4)
