"""Fit against the world outside: the handbook's worked values, a polygon sweep by Shapely, brute force."""

from __future__ import annotations

import math
import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.parsing import parse_length
from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.document.hanging import Aim, Hanging, PairChoices, SlideChoices
from oakmeasure.core.document.job import FitChoices, HeadShape, LeafShape, Reading
from oakmeasure.core.document.readings import HeadKind, Side
from oakmeasure.core.fit.bought_leaf import left_after, nearest_slab
from oakmeasure.core.fit.bypass_sums import bypassing
from oakmeasure.core.fit.fit_probability import chance_over
from oakmeasure.core.fit.largest import largest_square
from oakmeasure.core.fit.swing.bevel import least_bevel_deg, square_corner_growth
from oakmeasure.core.fit.swing.geometry import (
    SwingPlan,
    clear_way,
    corner_rise,
    opens_to_deg,
    rising_easing,
    self_swing_nm,
)
from oakmeasure.core.fit.swing.under_head import nearest_to_head
from oakmeasure.core.survey.outline import HalfPlane, Outline, half_planes
from oakmeasure.core.survey.survey_result import outline_of
from samples import readings, solved

inch = parse_length


def shown(mm: float) -> str:
    return Show(UnitSystem.INCH).length(mm)


# --- swing -----------------------------------------------------------------------------------------------


def throw_deg(knuckle, setback, gap, edge, projection):
    """Return how far a leaf opens before its face meets the architrave's corner: its face stays `knuckle` from the
    pin. 180 where the pin stands half the projection out, or more.
    """
    across, out = gap + edge - setback, projection - knuckle
    if 2 * knuckle >= projection:
        return 180.0
    return min(180.0, math.degrees(math.atan2(across, out) + math.acos(-knuckle / math.hypot(across, out))))


def test_throw_over_an_architrave_of_18():
    """[G] p 6, s 1, architrave 18 out and 6 back, gap 2 → 145.8°; the pin at half the projection → 180°."""
    case = {"setback": 1, "gap": 2, "edge": 6, "projection": 18}
    assert throw_deg(knuckle=6, **case) == pytest.approx(145.8, abs=0.05)
    assert throw_deg(knuckle=9, **case) == 180
    # The same by turning the whole leaf against the architrave's outline.
    architrave = [(-8, 0), (-78, 0), (-78, -18), (-8, -18)]
    assert opens_to_deg(SwingPlan(762, 35, 6, 1), architrave) == pytest.approx(throw_deg(knuckle=6, **case), abs=1e-9)


def test_clear_way_at_90_degrees():
    """[G] 762, gap 3, 35 thick, p 6, s 1 → 725."""
    assert clear_way(SwingPlan(762, 35, 6, 1), latch_gap=3, degrees=90) == pytest.approx(725)
    assert clear_way(SwingPlan(762, 35, 6, 1), latch_gap=3, degrees=90, pull=50) == pytest.approx(675)


def test_hinge_line_out_of_plumb():
    """[G] latch corner +3.05 at 180°; 40 kg at 3/2000 → 0.224 N·m. By rotating about the leaning axis (Rodrigues)."""
    a, c = 4 / 2000, 3 / 2000
    assert corner_rise(width=762, lean_latch=a, lean_out=c, degrees=180) == pytest.approx(3.05, abs=0.005)
    assert self_swing_nm(mass=40, width=762, lean=c) == pytest.approx(0.224, abs=0.0005)
    axis = np.array([a, -c, 1.0])  # to the latch, to the swing side (−y), up
    axis /= np.linalg.norm(axis)
    for degrees in (30, 90, 150, 180):
        turn, start = -math.radians(degrees), np.array([762.0, 0.0, 0.0])
        moved = (
            start * math.cos(turn)
            + np.cross(axis, start) * math.sin(turn)
            + axis * axis.dot(start) * (1 - math.cos(turn))
        )
        assert corner_rise(width=762, lean_latch=a, lean_out=c, degrees=degrees) == pytest.approx(moved[2], abs=0.01)


def test_rising_hinges_top_is_eased_128_8_from_the_hinge():
    """[G] lift 12, gap 2, t 35, p 6, s 1 → 15°, 128.8."""
    easing = rising_easing(lift=12, gap=2, thickness=35, knuckle=6, setback=1)
    assert easing.degrees == pytest.approx(15)
    assert easing.length == pytest.approx(128.8, abs=0.05)


def _swept(plan: SwingPlan, obstacle: Polygon) -> float:
    """The first angle at which the leaf's polygon shares area with the obstacle's, by stepping and halving."""

    def hits(degrees: float) -> bool:
        return Polygon(plan.turned(degrees)).intersection(obstacle).area > 1e-9

    step, at = 0.25, 0.0
    while at < 180 and not hits(at + step):
        at += step
    if at >= 180:
        return 180.0
    low, high = at, at + step
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (low, middle) if hits(middle) else (middle, high)
    return high


def test_200_random_leaves_open_as_far_as_a_polygon_sweep_says():
    """By Shapely, general geometry: leaf and obstacle as polygons, swept in quarter degrees and halved."""
    source = random.Random(12)
    for _ in range(200):
        plan = SwingPlan(
            source.uniform(250, 1000),
            source.uniform(16, 60),
            source.uniform(0, 14),
            source.uniform(0, 6),
            source.uniform(0, 6),
        )
        cx, cy = source.uniform(-700, 1000), source.uniform(-900, -60)
        turns = sorted(source.uniform(0, 2 * math.pi) for _ in range(5))
        outline = [(cx + 40 * math.cos(t), min(cy + 40 * math.sin(t), -15.0)) for t in turns]
        obstacle = Polygon(outline).convex_hull
        if obstacle.geom_type != "Polygon" or obstacle.area < 50 or Polygon(plan.corners).intersects(obstacle):
            continue
        ours = opens_to_deg(plan, list(obstacle.exterior.coords)[:-1])
        assert ours == pytest.approx(_swept(plan, obstacle), abs=0.01)


@given(st.floats(300, 1000), st.floats(16, 60), st.floats(0, 15), st.floats(0, 5))
def test_back_corner_sweeps_the_circle_that_the_growth_says(width, thickness, knuckle, setback):
    plan = SwingPlan(width, thickness, knuckle, setback)
    growth = square_corner_growth(width=width, thickness=thickness, knuckle=knuckle, setback=setback)
    # Where the back corner passes the opening face it stands as far from the pin as it does shut.
    assert math.dist((width + growth, 0.0), plan.pin) == pytest.approx(math.dist((width, thickness), plan.pin))


# --- sliding ---------------------------------------------------------------------------------------------


def test_sliding_leaf_in_inches():
    """[G] 33" with 1" a side → 35"; 84" leaf over 82" with 1/2" of floor gap → 2 1/2" of overlap."""
    slide = SlideChoices(overlap_hinge=inch('1"'), overlap_latch=inch('1"'), overlap_head=inch('2 1/2"'))
    f = solved(inch('33"'), inch('82"'), hanging=Hanging.SLIDING, slide=slide, fit=FitChoices(gap_floor=12.7)).figures
    assert shown(f["leaf_width"].value) == '35"'
    assert shown(f["leaf_height"].value) == '84"'


def test_bypassing_leaves_in_inches():
    """[G] 93", side 1 1/2", centre 6", rollers 3" at 1 1/2": track 96", leaves 51", clear 43 1/2" and 40 1/2"."""
    case = {
        "opening": inch('93"'),
        "side": inch('1 1/2"'),
        "centre": inch('6"'),
        "roller": inch('3"'),
        "roller_in": inch('1 1/2"'),
    }
    two, one = bypassing(**case, one_rail=False), bypassing(**case, one_rail=True)
    assert (shown(two.track), shown(two.leaf), shown(two.clear)) == ('96"', '51"', '43 1/2"')
    assert shown(one.clear) == '40 1/2"'
    with pytest.raises(InputError, match="rollers"):
        bypassing(**{**case, "centre": inch('5"')}, one_rail=True)


def test_bypassing_of_two_of_the_jobs():
    assert bypassing(opening=1150, side=25, centre=60, one_rail=False).clear == 545
    rail = bypassing(opening=2210, side=40, centre=140, one_rail=True, roller=70, roller_in=35)
    assert (rail.track, rail.leaf, rail.clear) == (2290, 1215, 965)


def test_set_that_needs_more_than_there_is_is_3_3_4_short():
    """[G] needs 86 3/4", there is 83"."""
    slide = SlideChoices(size_height=Reading(value=inch('83"')), gear_height=inch('3 3/4"'))
    f = solved(inch('33"'), inch('83"'), hanging=Hanging.POCKET, slide=slide).figures
    assert shown(f["opening_needed"].value) == '86 3/4"'
    assert shown(f["gear_short"].value) == '3 3/4"'


# --- make, alter or buy -------------------------------------------------------------------------------------


def test_slab_of_709_for_703_gives_three_an_edge_and_a_groove_of_20_keeps_15():
    """[G] (709 − 703)/2; 20 − 5."""
    assert nearest_slab(width=703, height=2000, sizes=[(709, 2040)]).each_edge == 3
    assert left_after(depth=20, off=5) == 15
    with pytest.raises(InputError):
        left_after(depth=4, off=5)


def test_pair_in_59_3_8_inches_takes_half_an_inch_off_each_of_two_30_inch_slabs():
    """[G] three gaps of 1/8": 29 1/2" each."""
    gap, wide = inch('1/8"'), inch('59 3/8"')
    f = solved(
        wide,
        inch('80"'),
        hanging=Hanging.PAIR,
        pair=PairChoices(meeting=gap),
        fit=FitChoices(gap_hinge=gap, gap_latch=gap),
    ).figures
    assert shown(f["leaf_width"].value) == '29 1/2"'
    assert shown(inch('30"') - f["leaf_width"].value) == '1/2"'


def test_nearest_slab_is_the_one_that_loses_least_and_never_too_small():
    sizes = [(762, 1981), (838, 1981), (826, 2040), (726, 2040)]
    best = nearest_slab(width=750, height=1970, sizes=sizes)
    assert (best.width, best.height) == (762, 1981)
    assert nearest_slab(width=900, height=1970, sizes=sizes) is None


# --- the largest leaf --------------------------------------------------------------------------------------


def _brute_force(planes: list[HalfPlane]) -> float:
    """The most area of an upright rectangle inside half-planes: a grid over foot and head, refined eight times."""
    a, b, c = (np.array([getattr(each, name) for each in planes])[:, None, None] for name in "abc")
    low, high = np.array([-50.0, 1200.0]), np.array([700.0, 2300.0])
    best = 0.0
    for _ in range(9):
        foot, head = np.meshgrid(np.linspace(low[0], high[0], 61), np.linspace(low[1], high[1], 61), indexing="ij")
        reach = c - b * np.where(b * foot > b * head, foot, head)  # the end of each side that binds
        with np.errstate(divide="ignore", invalid="ignore"):
            x = reach / a
        right = np.min(np.where(a > 1e-9, x, np.inf), axis=0)
        left = np.max(np.where(a < -1e-9, x, -np.inf), axis=0)
        free = np.all(np.where(np.abs(a) <= 1e-9, reach >= 0, True), axis=0)
        area = np.where(free, np.maximum(right - left, 0) * np.maximum(head - foot, 0), 0.0)
        at = np.unravel_index(np.argmax(area), area.shape)
        best, centre = float(area[at]), np.array([foot[at], head[at]])
        span = (high - low) / 12
        low, high = centre - span, centre + span
    return best


def test_largest_leaf_of_200_crooked_openings_agrees_with_a_brute_force_search():
    """[G] brute force over foot and head; agreement of the leaf's mean side to 0.01 mm."""
    source = np.random.default_rng(8)
    gaps = {Side.HINGE: 2.0, Side.LATCH: 3.0, Side.HEAD: 2.0, Side.FLOOR: 6.0}
    for _ in range(200):
        off = source.uniform(-30, 30, 8)
        corners = ((off[0], off[1]), (800 + off[2], off[3]), (800 + off[4], 2000 + off[5]), (off[6], 2000 + off[7]))
        outline = outline_of(corners)
        box = largest_square(outline, gaps, Aim.AREA)
        ours, theirs = (box.x1 - box.x0) * (box.y1 - box.y0), _brute_force(half_planes(outline, gaps))
        assert abs(math.sqrt(ours) - math.sqrt(theirs)) < 0.01
        for plane in half_planes(outline, gaps):
            for x in (box.x0, box.x1):
                for y in (box.y0, box.y1):
                    assert plane.a * x + plane.b * y <= plane.c + 1e-3


# --- weighed, height first, and chance ---------------------------------------------------------------------


GAPS = {Side.HINGE: 2.0, Side.LATCH: 3.0, Side.HEAD: 2.0, Side.FLOOR: 6.0}


def _crooked(source: random.Random) -> Outline:
    off = [source.uniform(-30, 30) for _ in range(8)]
    return outline_of(
        ((off[0], off[1]), (800 + off[2], off[3]), (800 + off[4], 2000 + off[5]), (off[6], 2000 + off[7]))
    )


def test_weighed_leaf_of_200_crooked_openings_agrees_with_a_linear_programme():
    """SciPy's HiGHS over the four edges of the leaf: each side bounds the corner that is next to it."""
    from scipy.optimize import linprog

    source = random.Random(11)
    for _ in range(200):
        outline = _crooked(source)
        planes = half_planes(outline, GAPS)
        counts = source.uniform(0.05, 0.95)
        # x0, x1, y0, y1; a·x + b·y ≤ c at the corner that lies furthest out along (a, b)
        rows = [[min(p.a, 0), max(p.a, 0), min(p.b, 0), max(p.b, 0)] for p in planes]
        best = linprog(
            [counts, -counts, 1 - counts, counts - 1], A_ub=rows, b_ub=[p.c for p in planes], bounds=[(None, None)] * 4
        )
        box = largest_square(outline, GAPS, Aim.WEIGHED, width_counts=counts)
        assert counts * (box.x1 - box.x0) + (1 - counts) * (box.y1 - box.y0) == pytest.approx(-best.fun, abs=0.01)


def test_height_first_takes_the_whole_least_height_and_no_wider_leaf_of_it_fits():
    source = random.Random(12)
    for _ in range(50):
        outline = _crooked(source)
        box = largest_square(outline, GAPS, Aim.HEIGHT)
        low = max(y for _, y in outline.of(Side.FLOOR)) + GAPS[Side.FLOOR]
        high = min(y for _, y in outline.of(Side.HEAD)) - GAPS[Side.HEAD]
        assert (box.y0, box.y1) == pytest.approx((low, high))
        inside = Polygon(outline.points).buffer(1e-6)
        assert inside.contains(Polygon([(box.x0, box.y0), (box.x1, box.y0), (box.x1, box.y1), (box.x0, box.y1)]))
        assert largest_square(outline, GAPS, Aim.WIDTH).x1 - largest_square(outline, GAPS, Aim.WIDTH).x0 <= (
            box.x1 - box.x0 + 0.02
        )


@given(st.floats(-5, 5), st.floats(0.05, 3))
def test_chance_is_the_normal_distribution_s(room, sigma):
    """Against SciPy's normal distribution."""
    from scipy.stats import norm

    assert chance_over(room, sigma) == pytest.approx(norm.cdf(room / sigma), abs=1e-12)


def test_inset_leaf_on_brass_butts_needs_0_67_of_relief():
    """[G] w 412, t 22, p 3.2, s 0.4, gap 0.8, margin 0.3 → 0.67°."""
    plan = {"width": 412, "thickness": 22, "knuckle": 3.2, "setback": 0.4}
    assert least_bevel_deg(**plan, gap=0.8, margin=0.3) == pytest.approx(0.67, abs=0.005)


# --- under a head that is not level -----------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("size", "thickness", "falls", "needed"), [((800, 2000), 44.0, 200.0, 12.16), ((762, 2000), 35.0, 100.0, 5.19)]
)
def test_closing_corner_under_a_head_that_falls_to_the_latch(size, thickness, falls, needed):
    """[G] (√(s² + (t + p)² − p²) − s) × tan of the fall, pin 6 out and 1 back: a turn about the pin."""
    width, height = size
    plan = SwingPlan(width, thickness, 6.0, 1.0)
    head = ((0.0, height), (width, height - falls))
    top = tuple((x, y - 2.0) for x, y in head)
    worst = nearest_to_head(plan, top, head)
    assert (worst.across, worst.gap) == (0.0, pytest.approx(2.0))
    assert worst.gap - worst.left == pytest.approx(needed, abs=0.01)
    up = [(0.0, float(height)), (float(width), height + 0.1 * width)]
    rising = nearest_to_head(plan, [(x, y - 2.0) for x, y in up], up)
    assert rising.left == pytest.approx(2.0)  # one that rises to the latch asks for nothing


def test_a_leaf_under_a_falling_head_is_stopped_and_passes_once_its_gap_is_wide_enough():
    raked = {
        "head": HeadShape(kind=HeadKind.RAKED),
        "readings": readings(width_top=800, width_bottom=800, height_hinge=2000, height_latch=1800),
    }
    leaf = solved(fit=FitChoices(shape=LeafShape.SCRIBED), **raked)
    check = next(each for each in leaf.checks if each.code == "head-strikes")
    assert leaf.figures["head_gap_needed"].value == pytest.approx(12.16, abs=0.05)
    gap = next(each.value for each in check.remedies if each.path == "fit.gap_head")
    mended = solved(fit=FitChoices(shape=LeafShape.SCRIBED, gap_head=gap), **raked)
    assert "head-strikes" not in {each.code for each in mended.checks}
    turned = raked | {"readings": readings(width_top=800, width_bottom=800, height_hinge=1800, height_latch=2000)}
    rises = solved(fit=FitChoices(shape=LeafShape.SCRIBED), **turned)
    assert "head-strikes" not in {each.code for each in rises.checks}
