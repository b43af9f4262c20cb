"""Templates by ticks: grouping, wrong ticks, check reading, other ways of writing them."""

from __future__ import annotations

import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document import field_path
from oakmeasure.core.document.job import Reading
from oakmeasure.core.document.readings import HeadKind, MeasuredBy, Tick, TickForm, TickTemplate
from oakmeasure.core.edits import job_edits, tick_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from oakmeasure.core.survey.grouping import grouped
from oakmeasure.core.survey.heads import head_line
from oakmeasure.core.survey.tick_board import TickStatus, fit_template
from oakmeasure.core.survey.ticks import fit_side, point_of
from samples import codes, job, solved

CORNERS = ((0.0, 0.0), (640.0, 0.0), (647.0, 910.0), (7.0, 905.0))


def along(corners, counts, *, sigma=0.2, seed=1):
    """Points along the sides with their side's number, a little off, as ticks come out."""
    source = random.Random(seed)
    found = []
    for side, count in enumerate(counts, start=1):
        (ax, ay), (bx, by) = corners[side - 1], corners[side % len(corners)]
        for at in range(count):
            share = (at + 0.5) / count
            x, y = ax + share * (bx - ax), ay + share * (by - ay)
            found.append(((x + source.gauss(0, sigma), y + source.gauss(0, sigma)), side))
    return found


def template(points, *, named=False, stick=250.0, **more):
    """The ticks of a stick laid from inside the opening to each point."""
    ticks = []
    for number, ((x, y), side) in enumerate(points):
        turn = math.atan2(y - 450, x - 320) + 0.1 * math.sin(number)
        ticks.append(
            Tick(
                x=x - stick * math.cos(turn),
                y=y - stick * math.sin(turn),
                angle_deg=math.degrees(turn),
                side=side if named else None,
            )
        )
    return TickTemplate(stick=Reading(value=stick), ticks=tuple(ticks), **more)


def moved(made: TickTemplate, at: int, x: float, y: float) -> TickTemplate:
    tick = made.ticks[at]
    return field_path.with_value(field_path.with_value(made, f"ticks.{at}.x", tick.x + x), f"ticks.{at}.y", tick.y + y)


def leaf_of(made: TickTemplate):
    return solved(measured_by=MeasuredBy.TICKS, template=made)


def test_sides_and_corners_come_out_of_ticks_in_any_order():
    points = along(CORNERS, (4, 4, 4, 4))
    random.Random(3).shuffle(points)
    fit = fit_template(template(points), 0.5)
    assert [each.side for each in fit.ticks] == [side for _, side in points]
    (ox, oy) = fit.corners[0]
    for (x, y), (cx, cy) in zip(fit.corners, CORNERS, strict=True):
        assert (x - ox, y - oy) == pytest.approx((cx, cy), abs=1.2)


@given(st.integers(3, 8), st.integers(0, 10_000), st.floats(0.85, 1.15))
def test_automatic_grouping_finds_the_sides_of_convex_openings(sides, seed, stretch):
    start = -math.pi / 2 - math.pi / sides
    turns = [start + 2 * math.pi * at / sides for at in range(sides)]
    corners = [(500 * math.cos(turn), 700 * math.sin(turn) * stretch) for turn in turns]
    points = along(corners, (5,) * sides, seed=seed)
    random.Random(seed).shuffle(points)
    got = grouped([point for point, _ in points], sides=sides, curved_head=False, tick_sigma=0.5)
    true = [side for _, side in points]
    # A corner that is nearly straight may give one tick to its neighbour; never more.
    assert sum(a != b for a, b in zip(got, true, strict=True)) <= 1


@pytest.mark.parametrize("at", range(16))
def test_a_tick_wrong_by_nine_is_set_aside_and_named_whichever_it_is(at):
    points = along(CORNERS, (4, 4, 4, 4))
    side = points[at][1]
    wrong = moved(template(points), at, *((0, 9) if side in (1, 3) else (9, 0)))
    leaf = leaf_of(wrong)
    assert f"tick-{at + 1}" in codes(leaf, Level.WARNING)
    true = leaf_of(template(points)).figures["clear_width"].value
    assert leaf.figures["clear_width"].value == pytest.approx(true, abs=1.0)


def test_three_ticks_that_disagree_are_undecided_until_the_check_corner_decides():
    wrong = moved(template(along(CORNERS, (3, 3, 3, 3)), named=True), 4, 9.0, 0.0)
    leaf = leaf_of(wrong)
    assert "ticks-undecided-2" in codes(leaf, Level.STOP)  # a size hangs on it
    said = next(each for each in leaf.checks if each.code == "ticks-undecided-2")
    assert "as if it were tick 5" in said.sentence  # the one without which the opening is squarest is the likeliest
    true = leaf_of(template(along(CORNERS, (3, 3, 3, 3)), named=True)).figures["clear_width"].value
    assert leaf.figures["clear_width"].value == pytest.approx(true, abs=1.0)
    assert all(each.status is TickStatus.UNDECIDED for each in leaf.opening.template.ticks[3:6])
    check = template([(CORNERS[2], None)]).ticks[0]
    leaf = leaf_of(field_path.with_value(field_path.with_value(wrong, "check", check), "check_corner", 2))
    assert {"tick-5", "check-used"} <= codes(leaf, Level.WARNING)


def test_tick_named_for_the_wrong_side_is_told_where_it_lies_and_the_remedy_mends_it():
    made = template(along(CORNERS, (4, 4, 4, 4)), named=True)
    made = field_path.with_value(made, "ticks.5.side", 4)
    sample = job(measured_by=MeasuredBy.TICKS, template=made)
    leaf = solve(sample).leaves[0]
    said = next(each for each in leaf.checks if each.code == "tick-6")
    assert "lies on the latch side" in said.sentence
    mended = solve(job_edits.with_remedy(sample, "leaf-1", said.remedies[0])).leaves[0]
    assert "tick-6" not in codes(mended)


@pytest.mark.parametrize("counts", [(4, 4, 1, 4), (0, 4, 4, 4)])
def test_side_with_too_few_points_is_said_and_the_rest_of_the_job_lives(counts):
    leaf = leaf_of(template(along(CORNERS, counts), named=True))
    said = next(each for each in leaf.checks if each.code == "template-open")
    assert said.level is Level.STOP
    assert ("head" if counts[0] else "floor") in said.sentence
    assert leaf.figures["clear_width"].value > 0


def test_too_few_ticks_sides_that_run_parallel_and_crossed_names_are_refused_in_words():
    with pytest.raises(InputError, match="at least 8"):
        fit_template(template(along(CORNERS, (2, 2, 1, 0))), 0.5)
    swapped = [(point, {1: 1, 2: 4, 3: 3, 4: 2}[side]) for point, side in along(CORNERS, (3, 3, 3, 3))]
    assert "template-open" in codes(leaf_of(template(swapped, named=True)), Level.STOP)
    parallel = [(point, {1: 1, 2: 2, 3: 4, 4: 3}[side]) for point, side in along(CORNERS, (3, 3, 3, 3))]
    assert "template-open" in codes(leaf_of(template(parallel, named=True)), Level.STOP)


def test_curved_head_is_a_circle_and_its_springings_lie_on_the_sides():
    arch = head_line(CORNERS[3], CORNERS[2], HeadKind.SEGMENTAL, 90.0, steps=40)
    points = along(CORNERS, (3, 4, 0, 4)) + [((x, y), 3) for x, y in arch[3:-3:4]]
    leaf = leaf_of(template(points, head="curved"))
    assert leaf.figures["head_radius"].value == pytest.approx(640.02**2 / 720 + 45, rel=0.01)
    assert leaf.opening.taken.corners[2] == pytest.approx(CORNERS[2], abs=2.0)
    assert len(leaf.opening.outline.edges[2].points) > 8


def test_excluded_tick_is_out_of_the_fit_but_its_miss_is_still_shown():
    made = moved(template(along(CORNERS, (4, 4, 4, 4))), 5, 25.0, 0.0)
    made = field_path.with_value(made, "ticks.5.excluded", True)
    judged = fit_template(made, 0.5).ticks[5]
    assert judged.status is TickStatus.EXCLUDED
    assert judged.miss == pytest.approx(25, abs=1)
    assert "tick-6" not in codes(leaf_of(made))


def test_check_reading_that_misses_is_said_with_its_miss():
    made = template(along(CORNERS, (4, 4, 4, 4)))
    (x, y) = CORNERS[2]
    off = template([((x + 6, y), None)]).ticks[0]
    leaf = leaf_of(field_path.with_value(field_path.with_value(made, "check", off), "check_corner", 2))
    assert "check-off" in codes(leaf, Level.WARNING)
    assert leaf.figures["check_miss"].value == pytest.approx(6, abs=0.8)


def test_a_side_moves_with_its_standard_error():
    """200 drawings of the same template: the corner's spread is what the fit says of it."""
    found = []
    for seed in range(200):
        fit = fit_template(template(along(CORNERS, (4, 4, 4, 4), sigma=0.5, seed=seed), named=True), 0.5)
        found.append(fit.corners[1][0] - fit.corners[0][0])
    mean = sum(found) / len(found)
    spread = math.sqrt(sum((each - mean) ** 2 for each in found) / len(found))
    said = math.sqrt(fit_template(template(along(CORNERS, (4, 4, 4, 4), sigma=1e-3), named=True), 0.5).covariance[0][0])
    assert spread == pytest.approx(said, rel=0.2)


@given(st.sampled_from(list(TickForm)), st.sampled_from(list(TickForm)), st.floats(-180, 180), st.floats(100, 900))
def test_writing_ticks_another_way_moves_no_point(one, other, angle, stick):
    made = TickTemplate(stick=Reading(value=stick), ticks=(Tick(x=30, y=-12, angle_deg=angle), Tick(x=5, y=5)))
    sample = job(measured_by=MeasuredBy.TICKS, template=made)
    before = [point_of(each, stick) for each in made.ticks]
    for form in (one, other):
        sample = tick_edits.with_tick_form(sample, "leaf-1", form)
    after = sample.leaves[0].template
    assert after.form is other
    for tick, (x, y) in zip(after.ticks, before, strict=True):
        assert point_of(tick, stick) == pytest.approx((x, y), abs=1e-6)


@given(st.lists(st.tuples(st.floats(-2000, 2000), st.floats(-2000, 2000)), max_size=14), st.booleans())
def test_no_heap_of_ticks_makes_the_leaf_fail(points, curved):
    made = TickTemplate(ticks=tuple(Tick(x=x, y=y) for x, y in points), head="curved" if curved else "straight")
    leaf = leaf_of(made)
    assert all(math.isfinite(each.value) for each in leaf.figures)


def test_side_is_seen_through_two_wrong_of_six_and_said_to_be_open_when_half_disagree():
    line = [(0.0, 100.0 * at) for at in range(6)]
    two = [(x + (12 if at in (1, 4) else 0), y) for at, (x, y) in enumerate(line)]
    fit = fit_side(two, tick_sigma=0.5)
    assert fit.kept == (True, False, True, True, False, True)
    half = [(x + (12 if at > 2 else 0), y) for at, (x, y) in enumerate(line)]
    assert fit_side(half, tick_sigma=0.5).rivals
