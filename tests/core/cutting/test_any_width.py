"""The bound for sheets whose strips are of any width: against every way of cutting small ones, and lists whose least is
known.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.cutting.bound.any_width import AnyWidth, prove_bound
from oakmeasure.core.cutting.lp.master import Master
from oakmeasure.core.cutting.model import CutKind, PartItem, Problem, StockItem
from oakmeasure.core.cutting.two_d.stock_assignment import Shop
from oakmeasure.core.document.first_cut import FirstCut

PRICE = 100.0
sizes = st.lists(st.tuples(st.integers(8, 60), st.integers(5, 40), st.integers(1, 40)), min_size=1, max_size=4)


def most(room, kerf, things):
    """Return what things of (size, worth) are worth most behind one another, any number of each, for all rooms."""
    found = np.zeros(room + kerf + 1)
    for at in range(1, room + kerf + 1):
        found[at] = max([found[at - 1], *(found[at - a - kerf] + v for a, v in things if a + kerf <= at)])
    return found


def by_hand(some, length, width, kerf):
    """Return the most that a sheet can be worth in three stages: every width of strip, every length of slot."""
    strips = []
    for wide in range(1, width + 1):
        slots = [(a, most(wide, kerf, [(b, v) for long, b, v in some if long <= a])[-1]) for a, _, _ in some]
        strips.append((wide, most(length, kerf, slots)[-1]))
    return most(width, kerf, strips)[-1]


@given(sizes, st.integers(40, 90), st.integers(30, 60), st.integers(0, 2))
@settings(max_examples=30, deadline=None)
def test_sheet_is_worth_what_the_best_of_all_strips_and_slots_are(some, length, width, kerf):
    """Tenths are taken for the unit: sizes here are whole tenths, of which there is no end of parts."""
    parts = tuple(PartItem(f"p{at}", a / 10, b / 10, 500) for at, (a, b, _) in enumerate(some))
    stock = (StockItem("s", length / 10, width / 10, None, PRICE),)
    shop = Shop(Problem(CutKind.SHEETS, stock, parts, kerf=kerf / 10, first=FirstCut.RIP))
    if not shop.fits:
        return
    master = Master(shop, [many if at in shop.fits else 0 for at, many in enumerate(shop.demand)], {0: None})
    value = [float(v) for _, _, v in some]
    (frame,) = master.frames
    table = AnyWidth(master.useful(frame, value), master, value, frame)
    worth, found = table.sheet(frame.layouts[0].stock, 0.0, lambda: False)
    assert worth == pytest.approx(by_hand([some[at] for at in shop.fits], length, width, kerf), rel=1e-4)
    for strips in found:
        assert max(y + wide for y, wide in strips) <= width
    early, _ = table.sheet(frame.layouts[0].stock, 0.0, lambda: True)
    assert early >= worth - 1e-6  # ended at once it may be too much, never too little


def three_wide(many):
    """Return sheets that are filled to the last where strips are as wide as three parts, and no other way."""
    slots = {400: (90, 100, 110), 600: (80, 97, 123)}
    parts = tuple(PartItem(f"{long}x{wide}", long, wide, many) for long, all_of in slots.items() for wide in all_of)
    return Problem(CutKind.SHEETS, (StockItem("s", 1000, 300, None, PRICE),), parts, kerf=0.0, first=FirstCut.RIP)


def proven(problem):
    shop = Shop(problem)
    master = Master(shop, shop.demand, {each.at: each.count for each in shop.stock})
    master.solve(lambda: False, finest=1)
    before, bounds = master.value, []
    prove_bound(master, lambda: False, bounds.append)
    return before, bounds


def test_programme_that_knows_no_such_strip_asks_too_much_and_the_bound_does_not():
    before, bounds = proven(three_wide(10))
    assert before > 10.2 * 100 * PRICE
    assert bounds == sorted(bounds)
    assert bounds[-1] == pytest.approx(10 * 100 * PRICE, rel=1e-4)
    assert bounds[-1] <= 10 * 100 * PRICE + 0.01


def test_cheaper_sheets_of_which_there_are_few_count_as_many_as_there_are():
    problem = three_wide(10)
    few = StockItem("few", 1000, 300, 4, PRICE / 2)
    narrow = StockItem("narrow", 1000, 95, 1, PRICE)  # most parts do not go into it, and it is too dear
    _, bounds = proven(replace(problem, stock=(*problem.stock, few, narrow)))
    assert bounds[-1] == pytest.approx((6 * PRICE + 4 * PRICE / 2) * 100, rel=1e-4)
