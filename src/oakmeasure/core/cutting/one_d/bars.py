"""Bars of several lengths, prices and counts: column generation, an integer master, and a proven bound.

Each column is a way of cutting one bar; the best new one for the prices of the linear programme is a bounded knapsack.
Whole bars of the solved programme are kept, the rest is solved again as a problem of its own. Sources: Gilmore and
Gomory 1961, 1963; the bound is the programme's own (Farley 1990), raised to the next cost that whole bars can have.
"""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from oakmeasure.core.cutting.model import CENT, SCALE, Cut, CutPlan, Deadline, Problem, cents, least_cost, tenths
from oakmeasure.core.cutting.one_d.bar_programme import MANY, Bars, SolvedBars, bar_programme, solve_bars
from oakmeasure.core.cutting.one_d.patterns import Column, every_way

if TYPE_CHECKING:
    import numpy as np


MOST_WAYS = 3000  # of cutting all kinds of bar, that are listed
TAIL_SHARE = 0.35  # of the time that is left, for one integer programme


def plan_bars(problem: Problem, watch: Deadline) -> CutPlan:
    """Return the best plan found until the watch ends it, with its bound; parts too long for any bar are left.

    Args:
        problem: What is to be cut out of what.
        watch: The time that there is, who may stop it, and whom to tell.
    """
    kerf = tenths(problem.kerf, up=True)
    trim = 2 * tenths(problem.trim, up=True)
    sizes = [max(tenths(each.length, up=False) - trim, 0) + kerf for each in problem.stock]
    fits = [at for at, each in enumerate(problem.parts) if tenths(each.length, up=True) + kerf <= max(sizes, default=0)]
    bars = Bars(
        sizes,
        [cents(each.price) for each in problem.stock],
        [each.quantity for each in problem.stock],
        [tenths(problem.parts[at].length, up=True) + kerf for at in fits],
        [problem.parts[at].quantity for at in fits],
    )
    first = first_fit(bars)
    best = _Best(problem, fits, bars, watch)
    best.offer(first)
    need = sum(a * b for a, b in zip(bars.lengths, bars.demand, strict=True))
    kinds = list(zip(bars.prices, bars.sizes, bars.counts, strict=True))
    # A first plan that runs out of bars may still be put right; then all the bars there are is the most it can cost.
    most = best.cost if not best.short else sum(price * (count or 0) for price, _, count in kinds)
    best.bound = least_cost(kinds, need=need, at_least=0.0, most=most)
    best.tell()
    if fits and not best.is_least:
        _all_ways(bars, best, watch)
    if fits and not best.is_least and not watch.over():
        pool = dict.fromkeys(first)
        pool.update(dict.fromkeys(_single(bars)))
        solved = solve_bars(bars, list(bars.demand), list(pool), watch)
        pool.update(dict.fromkeys(solved.columns))
        best.bound = max(best.bound, least_cost(kinds, need=need, at_least=solved.bound, most=most))
        best.tell()
        _integer(bars, solved, pool, best, watch)
    return best.plan(best.bound / CENT)


class _Best:
    """The cheapest whole plan so far; tells the watch of every better one."""

    def __init__(self, problem: Problem, fits: list[int], bars: Bars, watch: Deadline) -> None:
        self.problem, self.fits, self.bars, self.watch = problem, fits, bars, watch
        self.columns: list[Column] = []
        self.missing, self.cost, self.bound = 1 << 60, 0, 0

    def offer(self, columns: list[Column]) -> None:
        """Take a plan if it cuts all and costs less, or cuts more than the one that is known."""
        bars = self.bars
        missing = sum(
            max(want - sum(column[1][at] for column in columns), 0) * bars.lengths[at]
            for at, want in enumerate(bars.demand)
        )
        cost = sum(bars.prices[kind] for kind, _ in columns)
        if (missing, cost) < (self.missing, self.cost):
            self.columns, self.missing, self.cost = columns, missing, cost
            self.tell()

    @property
    def short(self) -> bool:
        return self.missing > 0

    def tell(self) -> None:
        if self.watch.tell is not None and not self.short:
            self.watch.tell(self.plan(self.bound / CENT))

    @property
    def is_least(self) -> bool:
        return not self.short and self.cost <= self.bound

    def plan(self, bound: float) -> CutPlan:
        return _plan_of(self.problem, self.fits, self.bars, self.columns, bound, self.watch)


def first_fit(bars: Bars) -> list[Column]:
    """Return a plan at once: the longest parts first, each onto the first open bar that takes it.

    A new bar is the cheapest by length of those that take the part and are left; parts that none takes are left
    out.

    Args:
        bars: The bars, and the parts that are wanted of them.
    """
    left = list(bars.counts)
    order = sorted(range(len(bars.lengths)), key=lambda at: -bars.lengths[at])
    rate = sorted(range(len(bars.sizes)), key=lambda k: bars.prices[k] / max(bars.sizes[k], 1))
    open_bars: list[list] = []
    for at in order:
        for _ in range(bars.demand[at]):
            length = bars.lengths[at]
            room = next((each for each in open_bars if each[1] >= length), None)
            if room is None:
                kind = next((k for k in rate if bars.sizes[k] >= length and left[k] != 0), None)
                if kind is None:
                    continue
                count = left[kind]
                if count is not None:
                    left[kind] = count - 1
                room = [kind, bars.sizes[kind], [0] * len(bars.lengths)]
                open_bars.append(room)
            room[1] -= length
            room[2][at] += 1
    return [_cheaper((kind, tuple(counts)), bars, left) for kind, _, counts in open_bars]


def _cheaper(column: Column, bars: Bars, left: list[int | None]) -> Column:
    """Return the same cut out of the cheapest bar that still holds it and is left."""
    kind, counts = column
    need = sum(a * b for a, b in zip(counts, bars.lengths, strict=True))
    for other in sorted(range(len(bars.sizes)), key=lambda k: bars.prices[k]):
        if bars.prices[other] >= bars.prices[kind]:
            return column
        count = left[other]
        if bars.sizes[other] >= need and count != 0:
            if count is not None:
                left[other] = count - 1
            back = left[kind]
            if back is not None:
                left[kind] = back + 1
            return other, counts
    return column


def _single(bars: Bars) -> list[Column]:
    """Return a way of cutting each part alone, as often as it goes, out of every bar: the programme can start."""
    found = []
    for kind, size in enumerate(bars.sizes):
        for at, length in enumerate(bars.lengths):
            count = min(size // length, bars.demand[at])
            if count:
                found.append((kind, tuple(count if n == at else 0 for n in range(len(bars.lengths)))))
    return found


# --- whole bars ----------------------------------------------------------------------------------------------


def _integer(bars: Bars, solved: SolvedBars, pool: dict[Column, None], best: _Best, watch: Deadline) -> None:
    """Whole bars: of the columns at hand.

    Then, again and again, those that are surely taken kept and the rest solved as a problem of its own, whose new
    columns join the pool.
    """
    if sum(bars.demand) <= MANY:
        _master(bars, bars, [], list(pool), best, watch)
    for keep in (1.0, 0.5, 0.85, 0.3, 0.7):
        if best.is_least or watch.over():
            return
        _dive(bars, solved, pool, best, watch, keep)
        if not best.is_least and not watch.over():
            _master(bars, bars, [], list(pool), best, watch)


def _dive(bars: Bars, solved: SolvedBars, pool: dict[Column, None], best: _Best, watch: Deadline, keep: float) -> None:
    """Take whole bars of the programme, solve the rest anew, and so on until nothing is left; the tail exactly."""
    demand, counts = list(bars.demand), list(bars.counts)
    taken: list[Column] = []
    x, columns = solved.x, solved.columns
    while any(demand) and not watch.over():
        step = _whole(bars, columns, x, demand, counts, keep)
        if not step:
            break
        for column in step:
            taken.append(column)
            count = counts[column[0]]
            if count is not None:
                counts[column[0]] = count - 1
            demand = [max(a - b, 0) for a, b in zip(demand, column[1], strict=True)]
        rest = Bars(bars.sizes, bars.prices, counts, bars.lengths, demand)
        best.offer([*taken, *first_fit(rest)])
        fits = [each for each in columns if all(a <= b for a, b in zip(each[1], demand, strict=True))]
        again = solve_bars(rest, demand, [*fits, *_single(rest)], watch)
        x, columns = again.x, again.columns
        pool.update(dict.fromkeys(columns))
        if sum(demand) <= 60 or keep == 1.0:
            _master(bars, rest, taken, columns, best, watch)
            if best.is_least:
                return
    if not any(demand):
        best.offer(taken)
        return
    rest = Bars(bars.sizes, bars.prices, counts, bars.lengths, demand)
    best.offer([*taken, *first_fit(rest)])


def _whole(
    bars: Bars, columns: list[Column], x: np.ndarray, demand: list[int], counts: list[int | None], keep: float
) -> list[Column]:
    """Return the bars that are taken now: the whole part of each column, or the one that is nearest to a whole."""
    import numpy as np

    found: list[Column] = []
    wanted, left = list(demand), list(counts)

    def take(column: Column) -> bool:
        count = left[column[0]]
        if count == 0 or any(a > b for a, b in zip(column[1], wanted, strict=True)):
            return False
        if count is not None:
            left[column[0]] = count - 1
        for at, many in enumerate(column[1]):
            wanted[at] -= many
        found.append(column)
        return True

    for at in np.argsort(-x):
        for _ in range(math.floor(x[at] + 1e-6)):
            take(columns[at])
    if not found or keep < 1.0:
        order = sorted(range(len(columns)), key=lambda at: -(x[at] - math.floor(x[at] + 1e-6)))
        for at in order:
            part = x[at] - math.floor(x[at] + 1e-6)
            if part >= keep or not found:
                if part > 1e-6:
                    take(columns[at])
            else:
                break
    return found


def _all_ways(bars: Bars, best: _Best, watch: Deadline) -> None:
    """Where the ways of cutting are few enough to list, choose the best whole set of them: that is the least."""
    ways = every_way(bars.sizes, bars.lengths, bars.demand, most=MOST_WAYS)
    if ways is None:
        return
    if _master(bars, bars, [], ways, best, watch) and not best.short:
        best.bound = best.cost
        best.tell()


def _master(bars: Bars, rest: Bars, taken: list[Column], columns: list[Column], best: _Best, watch: Deadline) -> bool:
    """Solve what is left for whole bars over the columns at hand, on top of those taken, and offer a better plan.

    Return whether nothing cheaper can be made of them.
    """
    demand = rest.demand
    useful = list(
        dict.fromkeys((kind, tuple(min(a, b) for a, b in zip(parts, demand, strict=True))) for kind, parts in columns)
    )
    useful = [each for each in useful if any(each[1])]
    if not useful or watch.over():
        return False
    made = bar_programme(bars, demand, rest.counts, useful)
    paid = sum(bars.prices[kind] for kind, _ in taken)
    x = made.solve_whole(seconds=min(watch.left, max(TAIL_SHARE * watch.left, 0.3)))
    if x is None:
        return False
    whole = [useful[at] for at in range(len(useful)) for _ in range(int(x[at]))]
    if best.short or paid + sum(bars.prices[kind] for kind, _ in whole) < best.cost:
        best.offer(_exactly(bars, [*taken, *whole]))
    return made.proven


def _exactly(bars: Bars, columns: list[Column]) -> list[Column]:
    """Return the plan with no part cut more often than it is wanted, each bar then the cheapest that holds its cut."""
    left = list(bars.demand)
    found = []
    spare = [
        None if count is None else count - sum(kind == k for kind, _ in columns) for k, count in enumerate(bars.counts)
    ]
    for kind, parts in columns:
        kept = tuple(min(a, b) for a, b in zip(parts, left, strict=True))
        left = [a - b for a, b in zip(left, kept, strict=True)]
        if any(kept):
            found.append(_cheaper((kind, kept), bars, spare))
    return found


def _plan_of(
    problem: Problem, fits: list[int], bars: Bars, columns: list[Column], bound: float, watch: Deadline
) -> CutPlan:
    """Return the plan in mm: on each bar its longest part first, a kerf between all."""
    kerf, start = tenths(problem.kerf, up=True), tenths(problem.trim, up=True)
    cuts: list[Cut] = []
    index: dict[int, int] = {}
    done = [0] * len(problem.parts)
    for kind, counts in sorted(columns, key=lambda each: (each[0], tuple(-n for n in each[1]))):
        stock = problem.stock[kind]
        number = index.get(kind, 0)
        index[kind] = number + 1
        x = start
        order = sorted((at for at, many in enumerate(counts) for _ in range(many)), key=lambda at: -bars.lengths[at])
        for at in order:
            part = problem.parts[fits[at]]
            cuts.append(Cut(stock.name, number, part.name, x / SCALE, 0.0, part.length, 0.0))
            done[fits[at]] += 1
            x += bars.lengths[at]
    assert kerf >= 0
    left = tuple(
        (part.name, part.quantity - many)
        for part, many in zip(problem.parts, done, strict=True)
        if many < part.quantity
    )
    used = tuple((problem.stock[kind].name, many) for kind, many in sorted(index.items()))
    cost = sum(problem.stock[kind].price * many for kind, many in index.items())
    return CutPlan(round(cost, 6), min(bound, cost) if not left else 0.0, tuple(cuts), left, used, watch.gone)
