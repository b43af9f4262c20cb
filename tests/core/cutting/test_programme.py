"""What the cutting programme is made of, each against everything that could be: knapsacks, strips beside defects,
bounds, bars filled again, the worker's papers.
"""

from __future__ import annotations

import itertools
import json
import random
import subprocess
import sys
from dataclasses import asdict, replace
from fractions import Fraction

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.cutting.bound.dual_feasible_functions import ends, plain, rounded
from oakmeasure.core.cutting.in_tenths import StockInTenths
from oakmeasure.core.cutting.lp import sample
from oakmeasure.core.cutting.lp.knapsack import Highest, Levels, Tables, Way, runs, spans_beside
from oakmeasure.core.cutting.lp.master import Master
from oakmeasure.core.cutting.model import CutKind, Defect, PartItem, Problem, StockItem
from oakmeasure.core.cutting.one_d.repack import fullest
from oakmeasure.core.cutting.plan import cut
from oakmeasure.core.cutting.two_d.integer_fill import share_out
from oakmeasure.core.cutting.two_d.layouts import StripLayout
from oakmeasure.core.cutting.two_d.slots import Slots, side_by_side
from oakmeasure.core.cutting.two_d.stock_assignment import Shop
from oakmeasure.core.document.first_cut import FirstCut
from oakmeasure.core.drawings.timber.plan_view import pages_of, plan_view, stock_ref
from oakmeasure.core.drawings.timber.stock_view import rack_view
from oakmeasure.files.plan_worker import encoded, improve, plan_from, problem_from
from planning import planned, work

parts = st.lists(
    st.tuples(st.integers(5, 40), st.integers(3, 20), st.integers(1, 3), st.integers(1, 30)), min_size=1, max_size=4
)


def every_choice(lies, left):
    """Every number of each part, at most as many as are left."""
    return itertools.product(*(range(left[way.part] + 1) for way in lies))


@given(parts, st.integers(10, 90), st.integers(0, 3))
@settings(max_examples=60)
def test_span_of_a_strip_holds_what_is_worth_most_of_all_that_fits(some, length, kerf):
    lies = sorted((Way(at, a, b) for at, (a, b, _, _) in enumerate(some)), key=lambda way: (way.across, -way.along))
    left, value = [n for _, _, n, _ in some], [float(v) for *_, v in some]
    tables = Tables(lies, left, value, 90 + kerf, kerf, 1)
    for wide in {way.across for way in lies}:
        best = max(
            sum(value[way.part] * n for way, n in zip(lies, many, strict=True))
            for many in every_choice(lies, left)
            if sum(n * (way.along + kerf) for way, n in zip(lies, many, strict=True)) <= length + kerf
            and all(way.across <= wide for way, n in zip(lies, many, strict=True) if n)
        )
        assert tables.best(wide, length + kerf) == pytest.approx(best)
        alone = Highest(lies, left, value, 90 + kerf, kerf)
        assert alone.best(wide, length + kerf) == pytest.approx(best)
        assert alone.bests(np.array([wide]), np.array([length + kerf])) == pytest.approx(best)
        taken = tables.taken(wide, length + kerf, left)
        assert sum(value[way.part] for way in taken) == pytest.approx(best)
        assert sum(way.along + kerf for way in taken) <= length + kerf


@given(parts, st.integers(20, 90), st.integers(0, 3))
@settings(max_examples=40)
def test_slots_hold_what_lies_side_by_side_and_no_more_than_the_strip(some, length, kerf):
    lies = [Way(at, a, b) for at, (a, b, _, _) in enumerate(some)]
    left, value = [n for _, _, n, _ in some], [float(v) for *_, v in some]
    widest = max(way.across for way in lies)
    ways = sorted(lies, key=lambda way: (way.across, -way.along))
    slots = Slots(ways, left, 90 + kerf, 1, side_by_side(ways, left, value, widest, kerf, 1))
    plain_one = Tables(ways, left, value, 90 + kerf, kerf, 1)
    for wide in sorted({way.across for way in lies}):
        worth = slots.best(wide, length + kerf)
        # A slot may name a part again that another one names: never less than two stages, never over the plain sum.
        assert worth >= plain_one.best(wide, length + kerf) - 1e-3
        taken = slots.taken(wide, length + kerf, left)
        assert sum(way.along + kerf for way in taken) <= length + kerf
        got = 0.0
        for slot in taken:
            beside = slots.stack(slot.along, wide, left)
            assert sum(way.across + kerf for way in beside) <= wide + kerf
            assert all(way.along <= slot.along for way in beside)
            got += sum(value[way.part] for way in beside)
        assert got == pytest.approx(worth, rel=1e-4, abs=1e-3)


holes = st.lists(st.tuples(st.integers(0, 70), st.integers(0, 30), st.integers(2, 25), st.integers(2, 12)), max_size=3)


@given(holes, st.lists(st.integers(4, 20), min_size=1, max_size=3, unique=True), st.integers(0, 2))
@settings(max_examples=60)
def test_strips_beside_defects_are_worth_what_the_best_of_all_places_is(marks, widths, kerf):
    """Every start of every strip on a board of 80 x 36 is tried, each worth the clear length in it."""
    boxes = tuple((x, y, min(x + a, 80), min(y + b, 36)) for x, y, a, b in marks)
    stock = StockInTenths(0, 80, 36, 100, 1, boxes, (0,) * len(boxes), (2,), kerf)
    lies = [Way(at, 10, wide) for at, wide in enumerate(sorted(widths))]
    value = [float(wide) for wide in sorted(widths)]
    levels = Levels(lambda ways: Tables(ways, [50] * len(lies), value, 80 + kerf, kerf, 1), lies, [2] * len(lies), (2,))
    layout = StripLayout(stock, sorted(widths), kerf)
    best, strips = layout.best(levels)

    def worth(y, wide):
        met = [(x0, x1) for x0, y0, x1, y1 in boxes if y0 < y + wide and y1 > y]
        return sum(levels.best(wide, b - a + kerf, 2) for a, b in spans_beside(met, 80))

    value_from = [0.0] * 80
    for y in range(35, -1, -1):
        ways = [worth(y, wide) + value_from[y + wide + kerf] for wide in widths if y + wide <= 36]
        value_from[y] = max([value_from[y + 1], *ways])
    assert best == pytest.approx(value_from[0])
    assert sum(worth(y, wide) for y, wide in strips) == pytest.approx(best)


@given(st.lists(st.tuples(st.integers(0, 90), st.integers(1, 30), st.integers(0, 2)), max_size=4), st.integers(0, 4))
def test_runs_are_clear_for_their_parts_and_a_kerf_apart(marks, kerf):
    met = [(x, x + a, rank) for x, a, rank in marks]
    found = runs(met, StockInTenths(0, 100, 10, 1, None, levels=(0, 1, 2), kerf=kerf))
    for a, b, level in found:
        assert 0 <= a < b <= 100
        assert all(x1 <= a or b <= x0 for x0, x1, rank in met if rank <= level)
    for (a, b, _), (c, d, _) in itertools.combinations(found, 2):
        assert c - b >= 0 or a - d >= 0


@given(st.lists(st.integers(1, 99), min_size=1, max_size=6), st.sampled_from(["plain", 1, 2, 3, 4, *range(5, 50, 9)]))
def test_dual_functions_never_make_more_than_one_of_what_fits_together(sizes, which):
    f = plain if which == "plain" else rounded(which) if which <= 4 else ends(which)
    fits = list(itertools.takewhile(lambda total: total <= 100, itertools.accumulate(sizes)))
    assert sum((f(each, 100) for each in sizes[: len(fits)]), Fraction(0)) <= 1
    for a, b in itertools.combinations(sizes, 2):  # superadditive: they hold for smaller sheets too
        if a + b <= 100:
            assert f(a, 100) + f(b, 100) <= f(a + b, 100)


@given(
    st.lists(st.integers(3, 30), min_size=2, max_size=8), st.integers(20, 60), st.integers(20, 60), st.integers(20, 60)
)
@settings(max_examples=80)
def test_bars_filled_again_hold_everything_where_any_way_does(sizes, a, b, c):
    import random

    found = fullest(sizes, [a, b, c], random.Random(1))
    every = itertools.product(range(3), repeat=len(sizes))
    sums = [tuple(sum(s for s, bar in zip(sizes, way, strict=True) if bar == n) for n in range(3)) for way in every]
    possible = [each for each in sums if each[0] <= a and each[1] <= b and each[2] <= c]
    assert (found is None) == (not possible)
    if found is not None:
        assert sum(found) == (1 << len(sizes)) - 1
        filled = [sum(s for at, s in enumerate(sizes) if mask >> at & 1) for mask in found]
        assert filled[0] <= a
        assert filled[1] <= b
        assert filled[2] <= c
        assert filled[0] + filled[1] == max(each[0] + each[1] for each in possible)


@given(
    st.lists(
        st.tuples(st.integers(200, 900), st.sampled_from([60, 90, 120]), st.integers(1, 3)), min_size=1, max_size=5
    ),
    st.booleans(),
)
@settings(max_examples=20)
def test_bound_of_the_programme_is_under_every_plan_of_its_kind(some, knots):
    stock = tuple(StockItem(f"b{n}", 1000 + 150 * n, 200, 2, 10.0 + n) for n in range(4))
    marks = (Defect("b0", 300, 40, 60, 60), Defect("b1", 0, 0, 1150, 20)) if knots else ()
    problem = Problem(
        CutKind.BOARDS, stock, tuple(PartItem(f"p{n}", a, b, m) for n, (a, b, m) in enumerate(some)), marks, kerf=4.0
    )
    shop = Shop(problem)
    master = Master(shop, shop.demand, {each.at: each.count for each in shop.stock})
    master.solve(lambda: False)
    plan = cut(problem, work(0.4))
    if not plan.left:
        assert master.bound <= 100 * plan.cost + 0.01
        assert plan.bound <= plan.cost


def many_boards(seed, kinds, boards):
    """Parts of many lengths, each once or twice, and boards that are all different."""
    source = random.Random(seed)
    sizes = {(source.randrange(400, 2000), source.choice((60, 90, 120, 150))) for _ in range(kinds)}
    stock = tuple(
        StockItem(
            f"b{n}", source.choice((2400, 3000)), source.randrange(180, 320), 1, round(source.uniform(20.0, 32.0), 2)
        )
        for n in range(boards)
    )
    return Problem(
        CutKind.BOARDS,
        stock,
        tuple(PartItem(f"p{a}x{b}", a, b, source.choice((1, 2))) for a, b in sorted(sizes)),
        kerf=3.0,
    )


def test_programme_begun_at_the_prices_of_a_sample_ends_where_it_ends_without():
    shop = Shop(many_boards(2, 170, 150))
    stock = {each.at: each.count for each in shop.stock}
    near = sample.prices(shop, shop.demand, stock, (), lambda: False)
    assert near is not None
    begun, plain_one = (Master(shop, shop.demand, stock) for _ in range(2))
    begun.begin(near)
    assert begun.bound > 0
    begun.solve(lambda: False)
    plain_one.solve(lambda: False)
    assert begun.value == pytest.approx(plain_one.value, rel=1e-4)
    assert begun.bound <= plain_one.value * (1 + 1e-9)
    assert begun.bound == pytest.approx(plain_one.bound, rel=1e-3)


def test_sample_of_a_short_list_is_not_asked():
    shop = Shop(many_boards(3, 40, 30))
    assert sample.prices(shop, shop.demand, {each.at: each.count for each in shop.stock}, (), lambda: False) is None


@given(st.lists(st.integers(1, 9), min_size=1, max_size=6), st.integers(1, 3), st.integers(5, 14))
def test_sizes_are_shared_out_where_that_can_be(sizes, many, room):
    can_be = any(
        all(sum(size for size, at in zip(sizes, way, strict=True) if at == n) <= room for n in range(many))
        for way in itertools.product(range(many), repeat=len(sizes))
    )
    found = share_out(sizes, many, room)
    assert (found is not None) == can_be
    if found is not None:
        assert sorted(at for each in found for at in each) == list(range(len(sizes)))
        assert all(sum(sizes[at] for at in each) <= room for each in found)


# --- the worker --------------------------------------------------------------------------------------------

SMALL = Problem(
    CutKind.BOARDS,
    (StockItem("b", 1000, 200, 3, 4.0),),
    (PartItem("a", 400, 90, 5, clear=1),),
    (Defect("b", 500, 0, 40, 40, 1),),
    3.0,
    5.0,
    FirstCut.RIP,
    2,
)


def test_problems_and_plans_come_back_from_their_papers_the_same():
    document = json.loads(encoded([SMALL, replace(SMALL, first=None, stages=None)], 2.0))
    assert [problem_from(each) for each in document["problems"]] == [SMALL, replace(SMALL, first=None, stages=None)]
    plan = cut(SMALL, work(0.3))
    assert plan_from(json.loads(json.dumps(asdict(plan)))) == plan


def test_worker_tells_of_every_lot_and_only_of_better_plans():
    told: dict[int, list] = {}
    improve(
        [SMALL, replace(SMALL, kind=CutKind.SHEETS, defects=())], 0.6, lambda at, p: told.setdefault(at, []).append(p)
    )
    assert set(told) == {0, 1}
    for plans in told.values():
        keys = [(sum(n for _, n in each.left), each.cost, -each.bound) for each in plans]
        assert keys == sorted(keys, reverse=True)


def test_worker_answers_on_its_output_line_by_line():
    done = subprocess.run(
        [sys.executable, "-m", "oakmeasure.files.plan_worker"],
        input=encoded([SMALL], 0.3),
        text=True,
        capture_output=True,
        check=True,
        timeout=60,
    )
    lines = [json.loads(line) for line in done.stdout.splitlines()]
    assert plan_from(lines[-1]["plan"]).cost == cut(SMALL, work(0.3)).cost


# --- the drawings ------------------------------------------------------------------------------------------


def test_plan_shows_every_board_of_a_lot_once_page_by_page_and_every_piece(demo):
    plan = planned(demo, ("scullery", "sorting", "pair"))
    for lot in plan.lots:
        pages = pages_of(lot)
        assert [each for page in pages for each in page] == list(lot.stock)
        for system in UnitSystem:
            refs = set()
            for at in range(len(pages)):
                refs |= plan_view(lot, Show(system), page=at, leaf_id="scullery").refs()
            assert {stock_ref(each) for each in lot.stock} <= refs
            assert sum(each.startswith("piece:") for each in refs) == len(
                {(each.wanted.leaf, each.wanted.name) for one in lot.stock for each in one.pieces}
            )


def test_rack_shows_each_face_with_its_own_marks(demo):
    drawing = rack_view(demo, Show(), board=0, mark=0)  # B1: sapwood on the other face, a knot and a split through
    assert {"mark:1", "mark:2", "mark:3", "handle:move other face", "handle:size other face"} <= drawing.refs()
    assert "handle:move best face" not in drawing.refs()
    assert {f"rack:{at}" for at, each in enumerate(demo.boards) if each.is_owned} <= drawing.refs()
    empty = rack_view(demo.model_copy(update={"boards": ()}), Show(), board=-1)
    assert "no boards on the rack yet" in empty.texts()[0]
