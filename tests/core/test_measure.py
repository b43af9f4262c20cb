"""Heads, bows, polygons, linings, floors and things in the way."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.job import FitChoices, Reading
from oakmeasure.core.document.readings import (
    FloorAlong,
    FloorPoint,
    FloorReadings,
    HeadKind,
    HeadShape,
    Lining,
    LiningFrom,
    LiningSchool,
    MeasuredBy,
    Polygon,
    PolygonSide,
    Side,
    SideOffset,
)
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.reports.open_readings import all_to_measure
from oakmeasure.core.solver import solve
from oakmeasure.core.survey.adjust import Observed, Status
from oakmeasure.core.survey.outline import half_planes, scribed
from oakmeasure.core.survey.polygon import adjust_polygon
from oakmeasure.core.survey.survey_result import outline_of
from oakmeasure.core.survey.takings.polygon import next_span
from oakmeasure.core.survey.takings.tape import lean_over_side
from samples import codes, job, readings, solved, square_readings

LEVEL = {
    "width_top": 800.0,
    "width_middle": 800.0,
    "width_bottom": 800.0,
    "height_hinge": 2000.0,
    "height_latch": 2000.0,
    "lean_hinge": 0.0,
    "lean_latch": 0.0,
}
HEXAGON = ((0, 0), (900, 0), (1000, 600), (900, 1800), (450, 2100), (0, 1900))


def polygon(corners, *, wrong=None, pairs=None):
    pairs = pairs or list(itertools.combinations(range(len(corners)), 2))
    spans = []
    for a, b in pairs:
        length = round(math.dist(corners[a], corners[b]), 1) + (wrong[1] if wrong and wrong[0] == (a, b) else 0.0)
        spans.append(PolygonSide(start=a + 1, end=b + 1, length=Reading(value=length)))
    return Polygon(corners=len(corners), spans=tuple(spans))


# --- heads and bows ------------------------------------------------------------------------------------------


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


# --- polygons --------------------------------------------------------------------------------------------------


def test_hexagon_by_all_its_lengths_comes_back_and_one_misread_diagonal_is_set_aside():
    leaf = solved(measured_by=MeasuredBy.POLYGON, polygon=polygon(HEXAGON, wrong=((1, 4), 14.0)))
    assert "misread-span_2-5" in codes(leaf, Level.WARNING)
    for (x, y), (cx, cy) in zip(leaf.opening.taken.corners, HEXAGON, strict=True):
        assert math.dist((x, y), (cx, cy)) < 2.0
    assert 0 < leaf.figures["clear_width_uncertainty"].value < 10
    box = (
        leaf.opening.hinge_in.value,
        leaf.opening.floor_high.value,
        leaf.opening.latch_in.value,
        leaf.opening.head_low.value,
    )
    assert box[2] - box[0] == pytest.approx(900, abs=2)


def test_300_simulated_surveys_of_every_shape_name_the_misread_or_say_that_it_cannot_be_told():
    source = np.random.default_rng(33)
    shapes = [((0, 0), (740, 0), (744, 2030), (3, 2030)), HEXAGON[:5], HEXAGON, ((0, 0), (1200, 0), (0, 1500))]
    blamed = unseen = 0
    for at in range(300):
        corners = shapes[at % len(shapes)]
        pairs = list(itertools.combinations(range(len(corners)), 2))
        read = {f"{a + 1}-{b + 1}": math.dist(corners[a], corners[b]) + source.normal(0, 0.5) for a, b in pairs}
        if len(corners) == 3:
            adjust_polygon(3, {key: Observed(value, 0.5) for key, value in read.items()})
            continue  # nothing checks a triangle; it must only not accuse anybody
        wrong = str(source.choice(list(read)))
        read[wrong] += source.choice([-1, 1]) * source.uniform(15, 30)
        result = adjust_polygon(len(corners), {key: Observed(value, 0.5) for key, value in read.items()})
        aside = [key for key, each in result.readings.items() if each.status is Status.SET_ASIDE]
        blamed += bool(aside) and wrong not in aside
        unseen += not aside and wrong not in result.undecided
    assert blamed <= 4
    assert unseen <= 4


def test_polygon_that_can_rack_asks_for_the_length_that_would_hold_it():
    sides = [(at, (at + 1) % 5) for at in range(5)]
    leaf = solved(measured_by=MeasuredBy.POLYGON, polygon=polygon(HEXAGON[:5], pairs=sides))
    said = next(each for each in leaf.checks if each.code == "polygon-open")
    assert said.level is Level.STOP
    assert "diagonal from corner" in said.sentence


def test_lengths_that_close_to_no_polygon_are_contradictory():
    with pytest.raises(InputError):
        adjust_polygon(3, {"1-2": Observed(300, 0.5), "2-3": Observed(300, 0.5), "1-3": Observed(5000, 0.5)})
    leaf = solved(measured_by=MeasuredBy.POLYGON, polygon=polygon(((0, 0), (400, 0), (400, 500), (-900, -700))))
    assert codes(leaf, Level.STOP) & {"survey-contradictory", "polygon-open"}


def test_next_length_to_read_goes_round_the_sides_and_then_across():
    sample = job(measured_by=MeasuredBy.POLYGON, polygon=Polygon(corners=4))
    order = []
    for _ in range(6):
        leaf = sample.leaves[0]
        span = PolygonSide(**next_span(leaf), length=Reading(value=500))
        order.append((span.start, span.end))
        sample = job_edits.with_field(sample, "leaf-1", "polygon.spans", (*leaf.polygon.spans, span))
    assert order == [(1, 2), (2, 3), (3, 4), (4, 1), (1, 3), (2, 4)]
    assert next_span(sample.leaves[0]) == {}


# --- lining ----------------------------------------------------------------------------------------------------


def rough(lean=0.0, across=0.0):
    return readings(
        **{**LEVEL, "width_top": 800 + lean, "width_middle": 800 + lean / 2, "lean_latch": lean},
        across_latch=across,
        across_hinge=0.0,
        depth=110.0,
    )


def test_worst_lean_eats_the_packing_first_and_the_remedy_makes_the_lining_go_in():
    tall = solved(readings=readings(**{**LEVEL, "lean_hinge": 10.0, "lean_latch": 10.0}), lining=Lining(packing=12))
    assert tall.figures["packing_left"].value == pytest.approx(2)
    sample = job(readings=readings(**{**LEVEL, "lean_hinge": 20.0, "lean_latch": 20.0}), lining=Lining(packing=12))
    leaf = solve(sample).leaves[0]
    said = next(each for each in leaf.checks if each.code == "lining-tight")
    mended = solve(job_edits.with_remedy(sample, "leaf-1", said.remedies[0])).leaves[0]
    assert "lining-tight" not in codes(mended)
    assert mended.figures["packing_left"].value == pytest.approx(2, abs=0.6)


def test_packing_behind_each_leg_and_the_lining_fill_the_rough_opening_at_every_height():
    leaf = solved(readings=rough(lean=8.0), lining=Lining(packing=12))
    lining = leaf.opening.lining
    for hinge, latch in zip(lining.packing[::2], lining.packing[1::2], strict=True):
        width = 800 + 8 * hinge.lower / 2000
        assert hinge.start + lining.outside.value + latch.start == pytest.approx(width)


def test_two_schools_for_a_crooked_wall_strips_or_none_and_a_narrower_plumb_leaf():
    sample = job(readings=rough(lean=-6.0, across=8.0), lining=Lining())
    plumb = solve(sample).leaves[0]
    follow = solve(job_edits.with_field(sample, "leaf-1", "lining.school", LiningSchool.FOLLOW_WALL)).leaves[0]
    assert plumb.opening.lining.strips
    assert not follow.opening.lining.strips
    assert follow.figures["clear_width"].value == pytest.approx(plumb.figures["clear_width"].value)
    assert follow.opening.latch_head[0] < follow.opening.latch_foot[0]
    thickest = max(each.start for each in plumb.opening.lining.strips)
    assert thickest == pytest.approx(8, abs=0.1)
    assert any(part.name.startswith("strip, latch side") for part in plumb.cut_parts)


def test_legs_follow_a_falling_floor_and_the_head_stays_level():
    leaf = solved(readings=readings(**LEVEL, sill_rise=-7.0), lining=Lining())
    f = leaf.figures
    assert f["leg_latch"].value - f["leg_hinge"].value == pytest.approx(7, abs=0.4)
    assert leaf.opening.lining.underside[0] == leaf.opening.lining.underside[1]


@given(st.floats(400, 1200), st.floats(600, 2300))
def test_lining_made_to_a_leaf_gives_that_leaf_back(width, height):
    lining = Lining(made_from=LiningFrom.LEAF, leaf_width=Reading(value=width), leaf_height=Reading(value=height))
    leaf = solved(readings=square_readings(1300, 2450), lining=lining)
    assert leaf.fit.width.value == pytest.approx(width)
    assert leaf.fit.height.value == pytest.approx(height)


# --- round it --------------------------------------------------------------------------------------------------


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


def test_still_to_measure_names_over_all_leaves_what_is_assumed_and_what_hangs_on_it(demo):
    items = all_to_measure(solve(demo).leaves)
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


def test_new_leaf_keeps_nothing_that_was_read_at_the_other_opening(demo):
    fresh = job_edits.with_new_leaf(demo, "Hatch").leaves[-1]
    assert fresh.measured_by is MeasuredBy.TAPE
    assert fresh.template is None
    assert not fresh.in_the_way
