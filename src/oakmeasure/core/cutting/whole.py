"""Whole plans out of the programme's columns: by choosing whole numbers of them, or by keeping one after the other."""

from __future__ import annotations

import math
import random
from collections import Counter, defaultdict
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from oakmeasure.core.cutting.exact import CutAt
from oakmeasure.core.cutting.filling import Way
from oakmeasure.core.cutting.highs import Solved
from oakmeasure.core.cutting.master import Master, Prices, Slot, Span, Strip
from oakmeasure.core.cutting.pieces import Piece
from oakmeasure.core.cutting.slots import SLOT

if TYPE_CHECKING:
    import numpy as np

    from oakmeasure.core.cutting.problem import Watch
LENIENT = 1.1  # times what the programme would pay for it, that a part may be bought at while pieces are kept
HURRY = 0.3  # of its time, from which a plan is ended in haste
FLOORS = 3  # times that the whole numbers of the programme are kept, solved anew between
FLOORED = 0.01  # of its price that a piece may lose to be kept among the whole numbers of the programme
TAIL = 90  # parts, for which whole numbers are chosen together
STEPS = 3  # that a plan should still have time for
SERVE, QUICK, ASKED_FIRST = (
    4,
    20,
    3,
)  # pieces cut at the same worths; tenths; kinds of stock tried for a piece of a quick plan
LEAST = 0.05  # of what may lie in a span, that the programme has, for it to be taken
SURER = 0.02  # of its price that a piece may lose more where the programme is sure of it
Lying = dict[Span, list[list[Any]]]  # how much of what the programme has in a span
Layouts = tuple[int, int, tuple[Strip, ...]]  # a piece of stock, its frame, its strips


def chosen(master: Master, *, seconds: float, below: float = math.inf, all_parts: bool = True) -> np.ndarray | None:
    """Return the cheapest whole numbers of the columns at hand that were found in time; None where there are none.

    below: hundredths, what they must cost less than. all_parts: none may be left over.
    """
    programme = master.programme
    programme.limit(master.cost_row, -math.inf, below - 0.5 if math.isfinite(below) else math.inf)
    for at in master.bought.values():
        programme.hold(at, 0.0, 0.0 if all_parts else math.inf)
    found = programme.solve_whole(seconds=seconds)
    programme.limit(master.cost_row, -math.inf, math.inf)
    for at in master.bought.values():
        programme.hold(at, 0.0, math.inf)
    return found


def kept(
    master: Master,
    watch: Watch,
    source: random.Random,
    *,
    spread: float,
    share: float,
    grid: int,
    tail: float = 0.0,
    floor: bool = False,
    lenient: bool = False,
) -> tuple[list[Piece], list[int]] | None:
    """Return a whole plan, and the parts that it leaves: pieces of stock are kept one after the other, those that lose
    least at the prices of the rest, which is solved and priced anew. spread: how much chance decides. share: of the
    pieces that could be kept, how many are at once, more where time is short. tail: seconds for choosing whole numbers
    for the last parts together. floor: keep first what the programme has in whole numbers. lenient: let the programme
    leave out what it can only cut badly; it comes last, between the rest. None where the watch ended it.
    """
    whole_demand, whole_stock = master.demand, master.stock
    master.demand, master.stock, master.is_free = list(whole_demand), dict(whole_stock), False
    try:
        steps = _Keeping(master, watch, source, spread, share, grid, lenient)
        for _ in range(FLOORS if floor else 0):
            steps.floor()
        if tail <= 0.0:
            return steps.to_the_end(0)
        begun = steps.to_the_end(TAIL)
        if begun is None or not 0 < sum(begun[1]) <= TAIL:
            return begun
        demand, stock = list(master.demand), dict(master.stock)
        ended = steps.to_the_end(0)
        paid = math.inf
        if ended is not None and not any(ended[1]):
            paid = float(sum(master.shop.price[each.stock] for each in ended[0][len(begun[0]) :]))
        master.demand, master.stock = demand, stock
        master.allow()
        x = chosen(master, seconds=min(tail, watch.left), below=paid)
        if x is None:
            return ended
        last, rest = assembled(master, x)
        return [*begun[0], *last], rest
    finally:
        master.demand, master.stock, master.is_free = whole_demand, whole_stock, True
        master.buy_at()
        master.programme.inside(False)
        master.allow()


class _Keeping:
    """Pieces of stock kept one after the other."""

    def __init__(
        self, master: Master, watch: Watch, source: random.Random, spread: float, share: float, grid: int, lenient: bool
    ) -> None:
        self.master, self.watch, self.source = master, watch, source
        self.spread, self.share, self.grid = spread, share, grid
        self.whole_time = watch.left
        self.found: list[Piece] = []
        self.solved = master.programme.solve()
        self.is_lenient = lenient
        if self.solved is not None and lenient:
            master.buy_at([LENIENT * each for each in master.paid(self.solved)])

    def to_the_end(self, few: int) -> tuple[list[Piece], list[int]] | None:
        """Keep pieces until no more parts are left than `few`, or none can be kept; None where the watch ended it."""
        master, watch = self.master, self.watch
        while sum(master.demand) > few:
            if self.solved is None or watch.over():
                return None
            began = watch.gone
            prices = master.prices(self.solved, self.grid)
            if watch.left < HURRY * self.whole_time:  # the rest as it comes
                worth = {at: each for at, each in enumerate(prices.value) if each > 0}
                rest = quick(master, worth, watch.over, self.source)
                return [*self.found, *rest[0]], rest[1]
            if not self._step(self.solved, prices):
                if not self.is_lenient:
                    break
                self.is_lenient = False
                master.buy_at()
                self.solved = master.programme.solve()
            self.share = max(self.share, STEPS * (watch.gone - began) / max(watch.left, 1e-3))
        return list(self.found), list(master.demand)

    def floor(self) -> None:
        """Keep what the programme has of each way of cutting in whole numbers; the rest of it is solved anew."""
        if self.solved is None:
            return
        master, solved = self.master, self.solved
        prices = master.prices(solved, self.grid)
        lying = _lying(master, solved.x)
        taken = 0
        for key, at in sorted(master.made.layouts.items(), key=lambda each: -solved.x[each[1]]):
            for _ in range(int(solved.x[at] + 1e-6)):
                cuts = _filled(master, key, prices, lying)
                worth = sum(prices.value[cut[2]] for cut in cuts)
                price = master.shop.price[key[0]] - prices.extra.get(key[0], 0.0)
                if worth >= (1 - FLOORED) * price:
                    taken += _keep(master, 1, key, cuts, self.found)
        if taken:
            self._again()

    def _step(self, solved: Solved, prices: Prices) -> int:
        """Keep a share of the pieces that could be, and solve what is left; return how many were kept."""
        master = self.master
        offers = _offers(master, prices, self.source, self.spread)
        most, taken = max(1, round(self.share * len(offers))), 0
        for _, key, cuts in offers:
            often = max(1, int(solved.x[master.made.layouts[key]]))
            taken += _keep(master, often, key, cuts, self.found)
            if taken >= most:
                break
        if taken:
            self._again()
        return taken

    def _again(self) -> None:
        """Solve what is left, price it and solve it again."""
        master = self.master
        master.allow()
        self.solved = master.programme.solve()
        if self.solved is not None:
            master.price(master.prices(self.solved, self.grid))
            self.solved = master.programme.solve()


def quick(
    master: Master, worth: dict[int, float], until: Callable[[], bool], source: random.Random
) -> tuple[list[Piece], list[int]]:
    """Return a whole plan made piece after piece without the programme, and the parts that it leaves. The tables of
    what is worth most serve for several pieces; what is cut in two stages is a column of the programme after that.
    """
    whole_demand, whole_stock = master.demand, master.stock
    found: list[Piece] = []
    master.demand, master.stock = list(whole_demand), dict(whole_stock)
    value = [worth.get(at, 0.0) for at in range(len(whole_demand))]
    rate, price, served = master.shop.rate, master.shop.price, 0
    while any(master.demand) and not until():
        if served % SERVE == 0:
            prices = master.prices_at(value, QUICK)
        there = sorted(at for at, count in master.stock.items() if count != 0)
        there = sorted(there, key=lambda at: rate[at] * source.uniform(0.8, 1.25))[:ASKED_FIRST]
        best: tuple[float, Layouts, list[CutAt]] | None = None
        for n, frame in enumerate(master.frames):
            for at in there:
                strips = frame.layouts[at].best(prices.tables[n])[1] if prices.tables[n].widths else []
                cuts = _filled(master, (at, n, tuple(strips)), prices, defaultdict(list))
                gain = sum(value[cut[2]] for cut in cuts) / max(price[at], 1)
                if cuts and (best is None or gain > best[0]):
                    best = (gain, (at, n, tuple(strips)), cuts)
        if best is None and served % SERVE == 0:
            break
        served = served + 1 if best is not None else 0
        if best is not None:
            _keep(master, 1, best[1], best[2], found)
            if master.shop.stages == 2:
                master.add_piece(*best[1], best[2])
    rest, master.demand, master.stock = master.demand, whole_demand, whole_stock
    return found, rest


def _offers(
    master: Master, prices: Prices, source: random.Random, spread: float
) -> list[tuple[float, Layouts, list[CutAt]]]:
    """Return the ways of cutting a piece that the programme now uses, filled with what is still wanted, those that lose
    least first: their price less what lies in them is worth, of the price.
    """
    found, x = [], prices.used
    used = {key: float(x[at]) for key, at in master.made.layouts.items() if at < len(x) and x[at] > 1e-4}
    lying = _lying(master, x)
    for key, much in sorted(used.items(), key=lambda each: -each[1]):
        if master.stock[key[0]] == 0:
            continue
        cuts = _filled(master, key, prices, lying)
        worth = sum(prices.value[cut[2]] for cut in cuts)
        price = max(master.shop.price[key[0]] - prices.extra.get(key[0], 0.0), 1.0)
        loss = 1.0 - worth / price - SURER * min(much, 1.0) + spread * source.random()
        if cuts:
            found.append((loss, key, cuts))
    return sorted(found, key=lambda each: each[0])


def _lying(master: Master, x: Sequence[float] | np.ndarray) -> Lying:
    """Return what the programme has in each span, and how much of it."""
    lying: Lying = defaultdict(list)
    for (span, ways), at in master.made.fills.items():
        if at < len(x) and x[at] > LEAST:
            lying[span].append([float(x[at]), ways])
    return lying


def _keep(master: Master, most: int, key: Layouts, cuts: list[CutAt], found: list[Piece]) -> int:
    """Keep a piece that is cut so, as often as wanted and as the parts and the stock allow; return how often."""
    at, n, _ = key
    used, count = Counter(cut[2] for cut in cuts), master.stock[at]
    many = min(master.demand[part] // each for part, each in used.items())
    many = min(many, most, many if count is None else count)
    for _ in range(many):
        lying = (
            [(y, x, part, wide, along) for x, y, part, along, wide in cuts] if master.frames[n].across else list(cuts)
        )
        found.append(Piece(at, lying))
    for part, each in used.items():
        master.demand[part] -= each * many
    if count is not None:
        master.stock[at] = count - many
    return many


def _filled(master: Master, key: Layouts, prices: Prices, lying: Lying) -> list[CutAt]:
    """Return what a piece of stock that is ripped so holds, no more of a part than is still wanted: in each span what
    the programme has there, `lying`, which goes down; else what is worth most at these prices.
    """
    at, n, strips = key
    layout, tables, k = master.frames[n].layouts[at], prices.tables[n], master.shop.kerf
    left, cuts = list(master.demand), []
    clear = master.shop.clear
    wanted = [way for way in master.frames[n].large_first if left[way.part]]
    least = min((way.along for way in wanted), default=math.inf)
    spans = [(a, b, level, y, wide) for y, wide in strips for a, b, level in layout.free(y, wide)]
    for a, b, level, y, wide in sorted(spans, key=lambda span: -tables.best(span[4], span[1] - span[0] + k, span[2])):
        x = a
        for way in _taken(lying[n, b - a, wide, level], left) or tables.taken(wide, b - a + k, left, level):
            beside = tables.stack(way.along, wide, left, level) if way.part == SLOT else [way]
            up = y
            for each in beside:
                left[each.part] -= 1
                cuts.append((x, up, each.part, each.along, each.across))
                up += each.across + k
            x += way.along + k if beside else 0
        rest = b - x
        for way in wanted if rest >= least else ():
            if way.along > rest:
                continue
            while (
                clear[way.part] <= level and way.across <= wide and left[way.part] and x + way.along <= b
            ):  # what the knapsack had twice
                left[way.part] -= 1
                cuts.append((x, y, way.part, way.along, way.across))
                x += way.along + k
    return cuts


def _taken(fills: list[list[Any]], left: list[int]) -> tuple[Way, ...]:
    """Return what the programme has most of in a span and is still wanted, and take it off; () for nothing."""
    for each in sorted(fills, key=lambda each: -each[0]):
        if each[0] < LEAST:
            break
        if all(many <= left[part] for part, many in Counter(way.part for way in each[1] if way.part != SLOT).items()):
            each[0] -= 1.0
            return each[1]
    return ()


def assembled(master: Master, x: np.ndarray) -> tuple[list[Piece], list[int]]:
    """Return the pieces of stock that whole numbers of columns mean, and what is left over; nothing is cut twice."""
    fills: dict[Span, list[tuple[Way, ...]]] = defaultdict(list)
    stacks: dict[Slot, list[tuple[Way, ...]]] = defaultdict(list)
    for (span, lying), at in master.made.fills.items():
        fills[span] += [lying] * _whole(x, at)
    for (slot, lying), at in master.made.stacks.items():
        stacks[slot] += [lying] * _whole(x, at)
    left, pieces, k = list(master.demand), [], master.shop.kerf
    for (stock, n, strips), at in master.made.layouts.items():
        for _ in range(_whole(x, at)):
            frame = master.frames[n]
            cuts: list[CutAt] = []
            for y, wide in strips:
                for a, b, level in frame.layouts[stock].free(y, wide):
                    waiting = fills[n, b - a, wide, level]
                    if waiting:
                        cuts += _laid(waiting.pop(), stacks, left, (n, level), a, y, k)
            if frame.across:
                cuts = [(y, x0, part, wide, along) for x0, y, part, along, wide in cuts]
            if cuts:
                pieces.append(Piece(stock, cuts))
    return pieces, left


def _whole(x: np.ndarray, at: int) -> int:
    return int(x[at] + 0.5) if at < len(x) else 0


def _laid(
    lying: Sequence[Way],
    stacks: dict[Slot, list[tuple[Way, ...]]],
    left: list[int],
    where: tuple[int, int],
    x: int,
    y: int,
    kerf: int,
) -> list[CutAt]:
    """Return the cuts of a span that begins at x, y; `left` goes down, what is no longer wanted is left out."""
    cuts = []
    for way in lying:
        if way.part != SLOT:
            beside: Sequence[Way] = (way,)
        else:
            waiting = stacks[where[0], way.along, way.across, where[1]]
            beside = waiting.pop() if waiting else ()
        up, any_of_them = y, False
        for each in beside:
            if left[each.part] > 0:
                left[each.part] -= 1
                cuts.append((x, up, each.part, each.along, each.across))
                up += each.across + kerf
                any_of_them = True
        if any_of_them:
            x += way.along + kerf
    return cuts
