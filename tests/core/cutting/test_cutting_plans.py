"""Cutting plans with a proof: an independent checker over bars, boards with defects and sheets; bounds; bad input."""

from __future__ import annotations

import itertools
import math
import random
from collections import Counter
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.cutting.lp.master import Master
from oakmeasure.core.cutting.model import CutKind, Defect, PartItem, Problem, StockItem, least_cost, tenths
from oakmeasure.core.cutting.plan import cut, longest_offcut, why_left
from oakmeasure.core.cutting.two_d.exact_fill import fullest, perfect_pieces
from oakmeasure.core.cutting.two_d.integer_fill import tight_plan
from oakmeasure.core.cutting.two_d.stock_assignment import Shop
from oakmeasure.core.cutting.two_d.whole_plans import Keep, keep_pieces
from oakmeasure.core.document.first_cut import FirstCut
from plan_checker import NEAR, check, falls_apart
from planning import boards_cut_up, work


def cut_up(source, room, least, most, kerf):
    """Return sizes that fill a room, a kerf apart."""
    sizes = []
    while room > most:
        sizes.append(source.randrange(least, min(most, room - least - kerf) + 1))
        room -= sizes[-1] + kerf
    return [*sizes, room]


@given(st.integers(0, 10**6), st.booleans())
@settings(max_examples=30)
def test_sheets_cut_up_in_three_stages_are_put_together_again_at_once(seed, grain):
    source, kerf, sizes = random.Random(seed), 3, Counter()
    for _ in range(2):
        for wide in cut_up(source, 1200, 200, 620, kerf):
            first, *others = cut_up(source, 2400, 300, 900, kerf)
            sizes[first, wide] += 1  # a strip is as wide as some part
            for along in others:
                stacked = wide > 400 and source.random() < 0.5
                for across in cut_up(source, wide, 90, 250, kerf) if stacked else [wide]:
                    sizes[along, across] += 1
    parts = tuple(PartItem(f"p{a}x{b}", a, b, n, not grain) for (a, b), n in sorted(sizes.items()))
    problem = Problem(CutKind.SHEETS, (StockItem("sheet", 2400, 1200, None, 50.0),), parts, kerf=float(kerf), stages=3)
    shop = Shop(problem)
    found = tight_plan(shop, 2, across=False, seconds=5.0)
    assert found is not None
    assert len(found) == 2
    check(problem, shop.plan(found, 0.0, work(1.0)))
    assert tight_plan(shop, 1, across=False, seconds=5.0) is None


def test_sheets_that_their_parts_fill_are_filled_piece_by_piece():
    """Four parts of 1198.5 × 598.5 fill a sheet of 2400 × 1200 with a kerf of 3 between them: no waste, no fault."""
    part = PartItem("half", 1198.5, 598.5, 8)
    problem = Problem(CutKind.SHEETS, (StockItem("sheet", 2400, 1200, None, 50.0),), (part,), kerf=3.0)
    shop, demand = Shop(problem), [8]
    found = perfect_pieces(shop, demand, {each.at: None for each in shop.stock}, random.Random(1), None)
    assert [len(piece.cuts) for piece in found] == [4, 4]
    assert demand == [0]


def test_checker_refuses_what_is_wrong():
    stock, parts = (StockItem("s", 1000, 300, None, 5.0),), (PartItem("a", 400, 100, 2),)
    problem = Problem(CutKind.SHEETS, stock, parts, kerf=3.0)
    plan = cut(problem, work(0.3))
    check(problem, plan)
    for change in ({"x": 2.0}, {"length": 399.0}, {"y": 250.0}):
        moved = type(plan.cuts[0])(**({name: getattr(plan.cuts[1], name) for name in plan.cuts[1].__slots__} | change))
        broken = type(plan)(plan.cost, plan.bound, (plan.cuts[0], moved), used=plan.used)
        with pytest.raises(AssertionError):
            check(problem, broken)
    pinwheel = [(0, 0, 60, 30), (63, 0, 93, 60), (33, 63, 93, 93), (0, 33, 30, 93)]
    assert not falls_apart(pinwheel, 3)


# --- bars --------------------------------------------------------------------------------------------------

TEXTBOOK = (
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


@pytest.mark.parametrize(("kerf", "least"), [(0.0, 73), (3.2, 74)])
def test_textbook_bars_come_out_least_possible(kerf, least):
    parts = tuple(PartItem(str(length), length, 0, many) for length, many in TEXTBOOK)
    problem = Problem(CutKind.BARS, (StockItem("bar", 5600, 0, None, 1.0),), parts, kerf=kerf)
    plan = cut(problem, work(20.0))
    check(problem, plan)
    assert (plan.cost, plan.is_least, plan.gap) == (least, True, 0)


def constructed(source, bars, kerf):
    """Whole bars cut up at random: what they cost is the least by their material."""
    sizes, parts = {2400.0: 12.0, 3600.0: 15.5}, []
    count = Counter()
    for _ in range(bars):
        long = source.choice(list(sizes))
        count[long] += 1
        left = long
        while left > 700:
            piece = source.choice((260, 315, 404, 488, 552, 640))
            parts.append(piece)
            left -= piece + kerf
        parts.append(left)
    stock = tuple(StockItem(f"{long:g}", long, 0, many, sizes[long]) for long, many in count.items())
    lots = Counter(round(each, 1) for each in parts)
    items = tuple(PartItem(f"p{at}", long, 0, many) for at, (long, many) in enumerate(sorted(lots.items())))
    return Problem(CutKind.BARS, stock, items, kerf=kerf), sum(sizes[each] * many for each, many in count.items())


@pytest.mark.parametrize("seed", range(4))
def test_bars_cut_up_at_random_are_put_together_again(seed):
    problem, cost = constructed(random.Random(seed), 6, 3.2)
    plan = cut(problem, work(20.0))
    check(problem, plan)
    assert plan.is_least
    assert plan.cost == pytest.approx(cost)


@given(st.integers(0, 10_000), st.integers(1, 12))
@settings(max_examples=15)
def test_bars_of_any_list_are_sound_and_their_bound_holds(seed, kinds):
    source = random.Random(seed)
    stock = tuple(
        StockItem(f"s{at}", source.randrange(900, 4000), 0, source.choice((None, 3)), source.randrange(3, 30))
        for at in range(2)
    )
    parts = tuple(PartItem(f"p{at}", source.randrange(200, 3000), 0, source.randrange(1, 5)) for at in range(kinds))
    problem = Problem(CutKind.BARS, stock, parts, kerf=source.choice((0.0, 3.2)), trim=source.choice((0.0, 10.0)))
    plan = cut(problem, work(0.4))
    check(problem, plan)
    assert len(why_left(problem, plan)) == len(plan.left)


def test_bars_that_nearly_fit_come_out_least_possible():
    """Twenty bars cut up in whole 5 mm with 0.02 % lost: no list of columns finds the way back, taking bars apart
    does.
    """
    source, parts = random.Random(1), []
    for _ in range(20):
        left = 6000.0
        while left > 1500:
            parts.append(5 * source.randrange(60, 280))
            left -= parts[-1] + 3
        parts.append(5 * int(left // 5))
    items = tuple(PartItem(f"p{each}", each, 0, many) for each, many in sorted(Counter(parts).items()))
    plan = cut(problem := Problem(CutKind.BARS, (StockItem("bar", 6000, 0, None, 10.0),), items, kerf=3.0), work(5.0))
    check(problem, plan)
    assert plan.cost == 200
    assert plan.is_least


def test_what_bars_leave_comes_together_in_one_long_offcut():
    """Two of 1900 on a bar of 4000 leave 200: one of 150 fits beside them, and two of the six need a fifth bar."""
    parts = (PartItem("long", 1900, 0, 8), PartItem("short", 150, 0, 6))
    plan = cut(problem := Problem(CutKind.BARS, (StockItem("bar", 4000, 0, None, 9.0),), parts, kerf=0.0), work(2.0))
    check(problem, plan)
    assert plan.is_least
    assert plan.cost == 45
    assert longest_offcut(problem, plan) >= 3600


# --- boards and sheets -------------------------------------------------------------------------------------


@given(st.integers(0, 10_000), st.sampled_from([CutKind.BOARDS, CutKind.SHEETS]))
@settings(max_examples=25)
def test_any_list_on_boards_with_defects_or_sheets_is_sound(seed, kind):
    source = random.Random(seed)
    stock, defects = [], []
    for at in range(source.randrange(1, 4)):
        long, wide = source.randrange(900, 3000), source.randrange(120, 1200)
        stock.append(StockItem(f"s{at}", long, wide, source.choice((None, 1, 2)), source.randrange(3, 60)))
        for _ in range(source.randrange(0, 4) if kind is CutKind.BOARDS else 0):
            x, y = source.randrange(0, long - 80), source.randrange(0, wide - 60)
            rank = source.randrange(3)
            defects.append(Defect(f"s{at}", x, y, source.randrange(5, 80), source.randrange(5, 60), rank))
    parts = tuple(
        PartItem(
            f"p{at}",
            source.randrange(100, 1500),
            source.randrange(30, 400),
            source.randrange(1, 4),
            source.random() < 0.4,
            source.choice((0, 1, 2, 2)),
        )
        for at in range(source.randrange(1, 9))
    )
    problem = Problem(
        kind, tuple(stock), parts, tuple(defects), kerf=source.choice((0.0, 3.2)), trim=source.choice((0.0, 6.0))
    )
    check(problem, cut(problem, work(0.25)))


def job_of_sheets(many, seed):
    """Parts of a few widths, two in five with grain, as a workshop's cut list has them."""
    source = random.Random(seed)
    sizes = [(source.randrange(300, 2100), source.choice((95, 150, 220, 300, 450, 610))) for _ in range(24)]
    parts = tuple(PartItem(f"p{at}", *size, many // 24 + 1, source.random() < 0.6) for at, size in enumerate(sizes))
    return Problem(CutKind.SHEETS, (StockItem("sheet", 2440, 1220, None, 54.5),), parts, kerf=3.2, trim=6.0)


@given(st.integers(0, 10_000), st.sampled_from(FirstCut), st.booleans())
@settings(max_examples=15)
def test_long_list_of_sheets_has_a_sound_plan_at_once(seed, first, short):
    problem = replace(job_of_sheets(400, seed), first=first)
    stock = (StockItem("small", 1500, 700, 9, 20.0), replace(problem.stock[0], quantity=12 if short else None))
    problem = replace(problem, stock=stock)
    told = []
    plan = cut(problem, work(0.02, tell=told.append))
    check(problem, told[0])
    check(problem, plan)
    assert bool(plan.left) == short


@pytest.mark.parametrize("seed", [2, 6, 8])
def test_what_the_programme_of_sheets_has_whole_is_kept_at_no_loss(seed):
    shop = Shop(job_of_sheets(240, seed))
    master = Master(shop, shop.demand, {0: None})
    master.solve(lambda: False)
    least = master.value
    found, rest = keep_pieces(master, work(60.0), random.Random(1), Keep(spread=0.0, share=0.1, grid=1, floor=True))
    assert not any(rest)
    assert len(found) == math.ceil(least / shop.price[0])
    wanted = Counter(dict(enumerate(shop.demand)))
    assert Counter(cut[2] for piece in found for cut in piece.cuts) == wanted


def test_sheet_cut_up_in_strips_is_put_together_again_and_proven():
    """Two sheets of strips 602.4 and 600 wide, full along and across, kerf 3.2, trim 6."""
    parts = tuple(PartItem(f"p{at}", long, 602.4, 4) for at, long in enumerate((805.0, 1000.0, 616.6)))
    problem = Problem(CutKind.SHEETS, (StockItem("sheet", 2440, 1220, None, 54.5),), parts, kerf=3.2, trim=6.0)
    plan = cut(problem, work(10.0))
    check(problem, plan)
    assert plan.is_least
    assert plan.cost == 109.0


@pytest.mark.parametrize("first", [FirstCut.RIP, FirstCut.CROSS])
def test_what_is_cut_first_is_kept_to(first):
    source = random.Random(4)
    parts = tuple(
        PartItem(f"p{at}", source.randrange(300, 1100), source.randrange(90, 500), 2, at % 2 == 0) for at in range(9)
    )
    stock = (StockItem("sheet", 2440, 1220, None, 50.0),)
    plan = cut(problem := Problem(CutKind.SHEETS, stock, parts, kerf=3.0, trim=5.0, first=first), work(0.6))
    check(problem, plan)
    low, size = ("y", "width") if first is FirstCut.RIP else ("x", "length")
    for index in range(dict(plan.used)["sheet"]):
        spans = sorted(
            (getattr(each, low), getattr(each, low) + getattr(each, size)) for each in plan.cuts if each.index == index
        )
        strips = [spans[0]]
        for a, b in spans[1:]:
            if a < strips[-1][1] + 3 - NEAR:
                strips[-1] = (strips[-1][0], max(b, strips[-1][1]))
            else:
                strips.append((a, b))
        # In three stages a strip is no wider than its widest part: nothing in it needs the first cuts again.
        widest = [max(b - a for a, b in spans if low_ - NEAR <= a and b <= high + NEAR) for low_, high in strips]
        assert [high - low_ for low_, high in strips] == pytest.approx(widest)


@pytest.mark.parametrize("seed", range(3))
def test_boards_are_proven_least_by_the_programme(seed):
    problem, cost = boards_cut_up(4, seed)
    plan = cut(problem, work(8.0))
    check(problem, plan)
    assert plan.is_least
    assert plan.cost <= cost + NEAR


@given(st.integers(0, 10_000))
@settings(max_examples=12)
def test_bound_of_sheets_holds_for_any_plan_and_knows_parts_over_half_a_sheet(seed):
    source = random.Random(seed)
    parts = tuple(
        PartItem(
            f"p{at}",
            source.randrange(200, 1900),
            source.randrange(80, 900),
            source.randrange(1, 4),
            source.random() < 0.5,
        )
        for at in range(source.randrange(1, 7))
    )
    stock = (StockItem("a", 2000, 1000, None, 40.0), StockItem("b", 1500, 1000, 2, 28.0))
    plan = cut(problem := Problem(CutKind.SHEETS, stock, parts, kerf=4.0), work(0.2))
    check(problem, plan)  # its bound is no more than its cost
    over = Problem(CutKind.SHEETS, stock[:1], (PartItem("long", 1100, 600, 5),), kerf=4.0)
    assert cut(over, work(0.3)).is_least  # five sheets; by their area three would do


def test_part_lies_beside_the_knot_and_a_board_without_room_is_not_taken():
    knot = (Defect("b", 400, 0, 60, 100),)
    problem = Problem(CutKind.BOARDS, (StockItem("b", 1000, 100, 1, 4.0),), (PartItem("a", 500, 90, 1),), knot, 3.0)
    (only,) = cut(problem, work(0.3)).cuts
    assert only.x >= 460
    wide = Problem(CutKind.BOARDS, problem.stock, (PartItem("a", 560, 90, 1),), knot, 3.0)
    plan = cut(wide, work(0.3))
    assert plan.left == (("a", 1),)
    assert "more stock" in why_left(wide, plan)[0]


def test_part_that_may_hold_sapwood_lies_in_it_and_the_one_that_shows_beside_it():
    sapwood = (Defect("b", 0, 0, 1000, 30, rank=1),)
    stock = (StockItem("b", 1000, 124, 1, 4.0),)
    parts = (PartItem("shows", 900, 60, 1, clear=1), PartItem("hidden", 900, 60, 1, clear=0))
    plan = cut(problem := Problem(CutKind.BOARDS, stock, parts, sapwood, 4.0), work(0.5))
    check(problem, plan)
    assert {each.part: each.y for each in plan.cuts} == {"hidden": 0, "shows": 64}
    strict = Problem(CutKind.BOARDS, stock, tuple(replace(each, clear=2) for each in parts), sapwood, 4.0)
    assert sum(many for _, many in cut(strict, work(0.5)).left) == 1


def test_deadline_is_kept_better_plans_are_told_and_a_stop_ends_it():
    source = random.Random(3)
    parts = tuple(PartItem(f"p{at}", source.randrange(200, 1400), source.randrange(60, 500), 2) for at in range(60))
    problem = Problem(CutKind.SHEETS, (StockItem("sheet", 2440, 1220, None, 50.0),), parts, kerf=3.2)
    told = []
    watch = work(1.0, tell=told.append)
    plan = cut(problem, watch)
    assert plan.seconds < 2.0
    assert [each.cost for each in told] == sorted((each.cost for each in told), reverse=True)
    assert plan.cost == told[-1].cost
    check(problem, told[0])
    stopped = cut(problem, work(60.0, stop=lambda: True))
    assert stopped.cuts  # a first sound plan in any case
    assert stopped.seconds < 5


@given(st.lists(st.integers(1, 60), max_size=12), st.integers(0, 200))
def test_fullest_is_what_every_subset_would_give(sizes, room):
    best = max(
        (
            total
            for many in range(len(sizes) + 1)
            for total in map(sum, itertools.combinations(sizes, many))
            if total <= room
        ),
        default=0,
    )
    taken = fullest(sizes, room)
    assert len(set(taken)) == len(taken)
    assert sum(sizes[at] for at in taken) == best


@given(
    st.lists(st.tuples(st.integers(1, 40), st.integers(1, 50), st.integers(1, 3)), min_size=1, max_size=3),
    st.integers(1, 120),
)
def test_least_cost_of_whole_pieces_is_what_every_count_would_give(stock, need):
    found = least_cost(stock, need=need, at_least=0, most=500)
    every = itertools.product(*(range(count + 1) for _, _, count in stock))
    costs = [
        sum(a * kind[0] for a, kind in zip(many, stock, strict=True))
        for many in every
        if sum(a * kind[1] for a, kind in zip(many, stock, strict=True)) >= need
    ]
    assert found == min([*costs, 500])


def test_sizes_are_rounded_to_the_safe_side():
    assert (tenths(602.4, up=True), tenths(602.41, up=True), tenths(602.49, up=False)) == (6024, 6025, 6024)


# --- lists that are read -----------------------------------------------------------------------------------
