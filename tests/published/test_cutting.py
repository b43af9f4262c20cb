"""Cutting plans against the world outside: the textbook instance, and SciPy's integer programme over every pattern."""

from __future__ import annotations

import itertools
import random

import numpy as np
import pytest
from scipy.optimize import Bounds, LinearConstraint, milp

from oakmeasure.core.cutting.model import CutKind, PartItem, Problem, StockItem
from oakmeasure.core.cutting.plan import cut
from planning import work


def every_pattern(lengths, demand, room, kerf):
    """All ways of cutting one bar, none of which has room for one more part that is wanted."""
    counts = [
        range(min(many, int((room + kerf) // (length + kerf))) + 1)
        for length, many in zip(lengths, demand, strict=True)
    ]
    for pattern in itertools.product(*counts):
        used = sum(many * (length + kerf) for many, length in zip(pattern, lengths, strict=True))
        if any(pattern) and used <= room + kerf + 1e-9:
            yield pattern


def least_by_all_patterns(stock, lengths, demand, kerf):
    """The least cost over every pattern of every bar, by a solver of its own."""
    columns = [(kind, pattern) for kind in stock for pattern in every_pattern(lengths, demand, kind.length, kerf)]
    cost = np.array([kind.price for kind, _ in columns])
    rows = [np.array([float(pattern[at]) for _, pattern in columns]) for at in range(len(lengths))]
    limits = [LinearConstraint(row, demand[at], np.inf) for at, row in enumerate(rows)]
    for kind in stock:
        if kind.quantity is not None:
            of_kind = np.array([float(each is kind) for each, _ in columns])
            limits.append(LinearConstraint(of_kind, 0, kind.quantity))
    solved = milp(cost, constraints=limits, integrality=np.ones(len(columns)), bounds=Bounds(0, np.inf))
    return None if solved.x is None else float(solved.fun)


@pytest.mark.parametrize("seed", range(12))
def test_bars_cost_what_a_solver_over_every_pattern_says(seed):
    source = random.Random(seed)
    kerf = source.choice((0.0, 3.2))
    lengths = sorted(source.sample(range(500, 1500), 4))
    demand = [source.randrange(1, 5) for _ in lengths]
    stock = (StockItem("short", 2400, 0, source.choice((None, 3)), 11.5), StockItem("long", 3600, 0, None, 16.0))
    parts = tuple(PartItem(f"{length}", length, 0, many) for length, many in zip(lengths, demand, strict=True))
    plan = cut(Problem(CutKind.BARS, stock, parts, kerf=kerf), work(10.0))
    least = least_by_all_patterns(stock, lengths, demand, kerf)
    assert plan.cost == pytest.approx(least)
    assert plan.bound <= least + 1e-6


def test_textbook_instance_needs_73_bars_and_its_linear_bound_is_72_917():
    """Gau and Wäscher's kind of instance, from memory: LP 72.9167, so 73 is the least and is reached."""
    sizes = (
        (1380, 22),
        (1520, 25),
        (1560, 12),
        (1710, 14),
        (1820, 18),
        (1880, 18),
        (1930, 20),
        (2000, 10),
        (2050, 12),
        (2100, 14),
        (2140, 16),
        (2150, 18),
        (2200, 20),
    )
    parts = tuple(PartItem(str(length), length, 0, many) for length, many in sizes)
    assert sum(length * many for length, many in sizes) / 5600 < 72.9167
    plan = cut(Problem(CutKind.BARS, (StockItem("bar", 5600, 0, None, 1.0),), parts, kerf=0.0), work(20.0))
    assert (plan.cost, plan.bound) == (73.0, 73.0)
    kerfed = cut(Problem(CutKind.BARS, (StockItem("bar", 5600, 0, None, 1.0),), parts, kerf=3.2), work(20.0))
    assert (kerfed.cost, kerfed.bound) == (74.0, 74.0)


@pytest.mark.parametrize("seed", range(6))
def test_sheets_never_cost_less_than_their_area_nor_the_bound_more_than_the_plan(seed):
    source = random.Random(seed)
    parts = tuple(
        PartItem(
            f"p{at}",
            source.randrange(200, 900),
            source.randrange(100, 500),
            source.randrange(1, 4),
            source.random() < 0.5,
        )
        for at in range(8)
    )
    plan = cut(Problem(CutKind.SHEETS, (StockItem("sheet", 2440, 1220, None, 10.0),), parts, kerf=3.2), work(0.4))
    area = sum(part.length * part.width * part.quantity for part in parts) / (2440 * 1220)
    assert plan.cost >= 10.0 * area
    assert plan.bound <= plan.cost
    assert plan.bound >= 10.0 * np.floor(area)
