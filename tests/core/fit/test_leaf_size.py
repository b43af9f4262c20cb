"""The leaf's size in its opening: gaps, trimming, bevels, leans and what leaves no leaf."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.document.job import FitChoices
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.fit.swing.bevel import least_bevel_deg, square_corner_growth
from oakmeasure.core.solver import solve
from oakmeasure.core.survey.square import corner_angle_deg, skew_from_both, skew_from_diagonal
from samples import codes, job, readings, solved

leans = st.floats(-12, 12)


def crooked(lean_hinge, lean_latch, rise, *, width=800.0, height=2000.0):
    """An opening by its corners, and all the readings that a perfect tape would give."""
    hf, lf = (0.0, 0.0), (width, rise)
    hh, lh = (lean_hinge, height), (width + lean_latch, height + 3.0)

    def mid(a, b):
        return ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)

    values = {
        "width_top": math.dist(hh, lh),
        "width_middle": math.dist(mid(hf, hh), mid(lf, lh)),
        "width_bottom": math.dist(hf, lf),
        "height_hinge": math.dist(hf, hh),
        "height_latch": math.dist(lf, lh),
        "height_middle": math.dist(mid(hf, lf), mid(hh, lh)),
        "diagonal_rising": math.dist(hf, lh),
        "diagonal_falling": math.dist(hh, lf),
        "lean_hinge": lean_hinge,
        "lean_latch": -lean_latch,
        "sill_rise": rise,
    }
    return (hf, lf, lh, hh), readings(**values)


@given(leans, leans, st.floats(-6, 6))
def test_leaf_hangs_plumb_inside_the_opening_with_its_gaps(lean_hinge, lean_latch, rise):
    (hf, lf, lh, hh), read = crooked(lean_hinge, lean_latch, rise)
    leaf = solved(readings=read)
    f = leaf.figures
    x0, y0 = leaf.fit.x_hinge_edge, leaf.fit.y_foot
    x1, y1 = x0 + f["leaf_width"].value, y0 + f["leaf_height"].value
    for x, corner_low, corner_high, sign, gap in (
        (x0, hf, hh, 1, f["gap_hinge"].value),
        (x1, lf, lh, -1, f["gap_latch"].value),
    ):
        nearest = min(sign * (x - corner[0]) for corner in (corner_low, corner_high))
        assert nearest == pytest.approx(gap, abs=0.02)
    assert min(hh[1], lh[1]) - y1 == pytest.approx(f["gap_head"].value, abs=0.02)
    assert y0 - max(hf[1], lf[1]) == pytest.approx(f["gap_floor"].value, abs=0.02)
    ends = [each.value for each in f if each.name.startswith("gap_") and each.name.count("_") == 2]
    assert len(ends) == 8
    assert min(ends) >= 2 - 0.02


@given(leans, leans)
def test_clear_width_is_what_a_search_over_the_height_finds(lean_hinge, lean_latch):
    (hf, lf, lh, hh), read = crooked(lean_hinge, lean_latch, 0.0)
    up = np.linspace(0, 1, 401)
    hinge, latch = hf[0] + up * (hh[0] - hf[0]), lf[0] + up * (lh[0] - lf[0])
    assert solved(readings=read).figures["clear_width"].value == pytest.approx(latch.min() - hinge.max(), abs=0.02)


def test_uneven_gap_is_said_for_the_edge_where_it_is():
    _, read = crooked(0.0, 9.0, 0.0)
    said = {code for code in codes(solved(readings=read), Level.WARNING) if code.startswith("uneven")}
    assert "uneven-latch" in said
    assert "uneven-hinge" not in said


@given(st.floats(300, 1200), st.floats(16, 60), st.floats(0, 12), st.floats(0, 3), st.floats(1, 6), st.floats(0, 1))
def test_least_bevel_lets_the_back_corner_pass_and_no_more(width, thickness, knuckle, setback, gap, margin):
    bevel = least_bevel_deg(width=width, thickness=thickness, knuckle=knuckle, setback=setback, gap=gap, margin=margin)
    back = thickness * math.tan(math.radians(bevel))
    radius = math.hypot(width + setback - back, thickness + knuckle)
    at_the_face = math.sqrt(radius**2 - knuckle**2) - setback  # where it crosses the opening face's line
    assert at_the_face <= width + gap - margin + 1e-6
    if bevel > 0:
        assert at_the_face == pytest.approx(width + gap - margin, abs=1e-6)


def test_square_corner_grows_less_on_a_wider_leaf():
    plan = {"thickness": 44.0, "knuckle": 6.0, "setback": 1.0}
    grown = [square_corner_growth(width=width, **plan) for width in (400, 600, 800)]
    assert grown == sorted(grown, reverse=True)


@pytest.mark.parametrize(
    ("call", "field"),
    [
        (lambda: square_corner_growth(width=0, thickness=35, knuckle=6, setback=1), "width"),
        (lambda: square_corner_growth(width=700, thickness=math.nan, knuckle=6, setback=1), "thickness"),
        (lambda: square_corner_growth(width=700, thickness=35, knuckle=-1, setback=1), "knuckle"),
        (lambda: least_bevel_deg(width=20, thickness=60, knuckle=6, setback=0, gap=2, margin=1), "thickness"),
        (lambda: skew_from_diagonal(width=762, height=1981, diagonal=3000), "diagonal"),
        (lambda: skew_from_diagonal(width=-1, height=1981, diagonal=2122), "width"),
        (lambda: corner_angle_deg(width=3, height=0, diagonal=5), "height"),
        (lambda: skew_from_both(width=0, first=1, second=1), "width"),
    ],
)
def test_impossible_input_names_its_field(call, field):
    with pytest.raises(InputError) as refused:
        call()
    assert refused.value.field == field
    assert "needs" in str(refused.value)


@given(st.floats(300, 1500), st.floats(1000, 2600), st.floats(-20, 20))
def test_skew_from_both_diagonals_is_the_skew_that_made_them(width, height, skew):
    rise = math.sqrt(height**2 - skew**2)
    first, second = math.hypot(width + skew, rise), math.hypot(width - skew, rise)
    assert skew_from_both(width=width, first=first, second=second) == pytest.approx(skew, abs=1e-6)
    assert skew_from_diagonal(width=width, height=height, diagonal=first) == pytest.approx(skew, abs=1e-6)


def test_gap_by_hand_goes_before_the_rule_and_is_part_of_the_sum():
    leaf = solved(fit=FitChoices(gap_latch=5.0))
    rows = leaf.figures["leaf_width"].rows
    assert [row.value for row in rows] == pytest.approx([762, 2, 5, 755])
    assert leaf.figures["gap_latch"].source == "set by hand for this leaf"


def test_gaps_wider_than_the_opening_leave_no_leaf_but_an_answer():
    leaf = solved(210.0, 1981.0, fit=FitChoices(gap_hinge=60, gap_latch=60))
    assert leaf.build is None
    assert "no-leaf" in codes(leaf, Level.STOP)


def test_trimming_allowance_is_on_at_the_bench_and_off_in_the_leaf():
    leaf = solved(fit=FitChoices(trim_side=5.0, trim_height=4.0), build=Framed(tenon=TenonKind.THROUGH))
    stile, rail = leaf.build.part("hinge stile"), leaf.build.part("top rail")
    assert stile.planed.width == stile.finished.width + 5
    assert stile.planed.length == stile.finished.length + 8
    assert rail.planed.length == rail.finished.length + 10  # the through tenon goes through the stile as glued up
    assert rail.planed.width == rail.finished.width + 4
    assert leaf.figures["leaf_width"].value == solved().figures["leaf_width"].value


def test_bevel_that_is_too_small_is_a_stop_with_the_least_one():
    narrow = job(
        330.0,
        1200.0,
        build=Framed(muntin=None, middle_rail=None, thickness=60.0),
        fit=FitChoices(bevel_deg=1.0, gap_latch=2.0),
    )
    leaf = solve(narrow).leaves[0]
    stop = next(each for each in leaf.checks if each.code == "bevel-short")
    assert stop.level is Level.STOP
    assert "bevel-short" not in codes(solve(job_edits.with_remedy(narrow, "leaf-1", stop.remedies[0])).leaves[0])
