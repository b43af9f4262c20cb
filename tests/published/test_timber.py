"""Wood of a whole job against the world outside: veneers from boards, drying, dual functions, facts of the saw."""

from __future__ import annotations

import math
from datetime import date, timedelta
from fractions import Fraction

import numpy as np
import pytest
from scipy.optimize import curve_fit

from oakmeasure.core.cutting.bound.dual_feasible_functions import ends, rounded
from oakmeasure.core.cutting.model import CutKind, Defect, PartItem, Problem, StockItem
from oakmeasure.core.cutting.plan import cut
from oakmeasure.core.document.job import Climate, TimberChoices
from oakmeasure.core.document.stock import Board, MoistureReading
from oakmeasure.core.reports.stock_advice import straight_length
from oakmeasure.core.timber.drying import METER, trend
from oakmeasure.core.timber.place import at_rest
from oakmeasure.core.timber.resaw import Resawing, resawn
from planning import work


@pytest.mark.parametrize(("stock", "raw", "kerf", "count"), [(28, 3.2, 1.3, 6), (44, 3.6, 1.2, 9)])
def test_veneers_from_a_board(stock, raw, kerf, count):
    """Common practice, no source: n veneers need n - 1 kerfs."""
    assert len(resawn(Resawing(stock=stock, raw=raw, kerf=kerf, sanding=0.3, wander=0.1)).slices) == count


def test_wood_rests_where_the_wood_handbook_says():
    """Wood Handbook, FPL-GTR-282, table 4-2: at 70 F, 30 % gives 6.2 and 65 % gives 12.0."""
    dry, wet = Climate(temperature=21.111, humidity=30), Climate(temperature=21.111, humidity=65)
    low, high = at_rest(TimberChoices(dry=dry, wet=wet))
    assert (low, high) == (pytest.approx(6.2, abs=0.06), pytest.approx(12.0, abs=0.06))


def test_trend_is_what_scipy_fits_to_the_same_readings():
    """SciPy's curve_fit on M = E + A exp(-kt), each reading as sure as the meter: the same rate, start and spread."""
    source = np.random.default_rng(2)
    days = np.arange(0, 57, 7)
    percents = 9.5 + 13 * np.exp(-0.025 * days) + source.normal(0, 0.1, len(days))
    readings = [
        MoistureReading(day=date(2026, 3, 1) + timedelta(days=int(d)), percent=round(float(p), 3))
        for d, p in zip(days, percents, strict=True)
    ]
    found = trend(readings, 9.5)
    (away, rate), spread = curve_fit(
        lambda t, a, k: 9.5 + a * np.exp(-k * t),
        days,
        [each.percent for each in readings],
        p0=(10, 0.02),
        sigma=np.full(len(days), METER),
        absolute_sigma=True,
    )
    assert found.rate == pytest.approx(rate, rel=0.01)
    assert found.start - 9.5 == pytest.approx(away, rel=0.005)
    # Its day: t = ln(A/2)/k, its variance by the gradient.
    grad = np.array([1 / (away * rate), -math.log(away / 2) / rate**2])
    assert found.sigma_days == pytest.approx(math.sqrt(grad @ spread @ grad), rel=0.05)
    assert (found.ready - date(2026, 3, 1)).days == pytest.approx(math.log(away / 2) / rate, abs=1)


@pytest.mark.parametrize(
    ("k", "size", "value"),
    [(1, 51, 1), (1, 50, Fraction(1, 2)), (1, 49, 0), (2, 34, Fraction(1, 2)), (2, 67, 1), (3, 26, Fraction(1, 3))],
)
def test_lueker_function_at_its_steps(k, size, value):
    """Fekete and Schepers 2001, u(k): from memory."""
    assert rounded(k)(size, 100) == value


def test_parts_over_half_a_sheet_each_take_their_own():
    """Martello and Vigo 1998, the bound L1: what is longer and wider than half of it shares no sheet. From memory."""
    assert (ends(30)(71, 100), ends(30)(70, 100), ends(30)(29, 100)) == (1, Fraction(7, 10), 0)
    parts = (PartItem("large", 1300, 620, 4), PartItem("small", 300, 200, 10))
    plan = cut(Problem(CutKind.SHEETS, (StockItem("sheet", 2440, 1220, None, 10.0),), parts, kerf=3.0), work(1.0))
    assert (plan.cost, plan.is_least) == (40.0, True)


def test_bow_of_a_shorter_piece_is_its_square():
    """Geometry of a flat arc: half the length has a quarter of the bow."""
    board = Board(length=3000, width=200, thickness=52, bow=16)
    assert straight_length(board, 4.0) == 1500


def test_nine_quarters_come_out_of_a_sheet_and_a_knot_costs_a_board_its_long_part():
    """Facts of the saw, no source: kerfs count once less than pieces; a knot in the middle halves what is clear."""
    sheet = (StockItem("sheet", 2440, 1220, None, 10.0),)
    side = ((2440 + 4) / 3 - 4, (1220 + 4) / 3 - 4)
    nine = cut(
        Problem(CutKind.SHEETS, sheet, (PartItem("ninth", math.floor(10 * side[0]) / 10, side[1], 9),), kerf=4.0),
        work(1.0),
    )
    assert nine.cost == 10
    knot = (Defect("b", 980, 0, 40, 100),)
    board = (StockItem("b", 2000, 100, 1, 5.0),)
    assert not cut(Problem(CutKind.BOARDS, board, (PartItem("a", 980, 100, 2),), knot, 0.0), work(0.5)).left
    assert cut(Problem(CutKind.BOARDS, board, (PartItem("a", 981, 100, 1),), knot, 0.0), work(0.5)).left == (("a", 1),)
