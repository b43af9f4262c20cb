"""Whole plans out of the programme's columns: by choosing whole numbers of them, or by keeping one after the other."""

from __future__ import annotations

import math
import random
from collections import Counter, defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from oakmeasure.core.base.linear_programme import Solved
from oakmeasure.core.cutting.in_tenths import CutPiece
from oakmeasure.core.cutting.lp.knapsack import Way
from oakmeasure.core.cutting.lp.master import Master, Prices
from oakmeasure.core.cutting.lp.strip_columns import Slot, Span, Strip
from oakmeasure.core.cutting.model import CutKind
from oakmeasure.core.cutting.two_d.exact_fill import CutAt
from oakmeasure.core.cutting.two_d.slots import SLOT

if TYPE_CHECKING:
    import numpy as np

    from oakmeasure.core.cutting.model import Deadline
LENIENT = 1.1  # times what the programme would pay for it, that a part may be bought at while pieces are kept
HURRY = 0.3  # of its time, from which a plan is ended in haste
FLOORS = 2  # times that the whole numbers of the programme are kept, solved anew between
FLOORED = 0.01  # of its price that a piece may lose to be kept among the whole numbers of the programme
TAILS = (75, 50, 30)  # parts that are left, for which whole numbers are chosen together
LEAST_TIME = 0.05  # seconds, below which none are chosen
STEPS = 3  # that a plan should still have time for
SERVE = 4  # pieces of a quick plan that are cut at the same worths
QUICK = 20  # tenths: its grid, of two stages
QUICK_SLOTS = 50  # tenths: its grid, of three stages
ASKED_FIRST = 3  # kinds of stock that are tried for one of its pieces
LEAST = 0.05  # of what may lie in a span, that the programme has, for it to be taken
SURER = 0.02  # of its price that a piece may lose more where the programme is sure of it
Layouts = tuple[int, int, tuple[Strip, ...]]  # a piece of stock, its frame, its strips


def whole_numbers(master: Master, *, seconds: float, below: float = math.inf, every: bool = True) -> np.ndarray | None:
    """Return the cheapest whole numbers of the columns at hand that were found in time; None where there are none.

    Args:
        master: The linear programme of strips and what lies in them.
        seconds: For how long it may look, s.
        below: What they must cost less than, hundredths of the money.
        every: Whether none may be left over.
    """
    programme = master.programme
    programme.limit(master.cost_row, -math.inf, below - 0.5 if math.isfinite(below) else math.inf)
    for at in master.bought.values():
        programme.hold(at, 0.0, 0.0 if every else math.inf)
    found = programme.solve_whole(seconds=seconds)
    programme.limit(master.cost_row, -math.inf, math.inf)
    for at in master.bought.values():
        programme.hold(at, 0.0, math.inf)
    return found


@dataclass(frozen=True, slots=True, kw_only=True)
class Keep:
    """How pieces of stock are kept one after the other."""

    spread: float
    """How much chance decides, 0 for not at all."""
    share: float
    """Share of the pieces that could be kept which are kept at once, more where time is short."""
    grid: int
    """To how many tenths of a mm widths and lengths are taken."""
    tail: float = 0.0
    """Seconds for the last parts, each time that whole numbers are chosen for them together."""
    below: float = math.inf
    """What the plan must cost less than for that to be of use, hundredths of the money."""
    floor: bool = False
    """Whether what the programme has in whole numbers is kept first."""
    lenient: bool = False
    """Whether the programme may leave out what it can only cut badly; this comes last, between the rest."""


def keep_pieces(
    master: Master, watch: Deadline, source: random.Random, how: Keep
) -> tuple[list[CutPiece], list[int]] | None:
    """Return a whole plan, and the parts that it leaves.

    Pieces of stock are kept one after the other, those that lose least at the prices of the rest, which is
    solved and priced anew. None where the watch ended it.

    Args:
        master: The linear programme of strips and what lies in them.
        watch: The time that there is, who may stop it, and whom to tell.
        source: Of random numbers.
        how: How pieces are kept.
    """
    whole_demand, whole_stock = master.demand, master.stock
    master.demand, master.stock, master.is_free = list(whole_demand), dict(whole_stock), False
    try:
        steps, below = _Keeping(master, watch, source, how), how.below
        for _ in range(FLOORS if how.floor else 0):
            steps.floor()
        marks = []
        for few in (*TAILS, 0) if how.tail > 0.0 else (0,):
            ended = steps.to_the_end(few)
            if ended is None or steps.is_hurried:
                break
            marks.append(steps.mark())
        if ended is not None and not any(ended[1]):
            below = min(below, float(master.shop.cost(ended[0])))
        for mark in reversed(marks):
            better = steps.together(mark, seconds=min(how.tail, watch.left), below=below)
            if better is not None:
                return better
        return ended
    finally:
        master.demand, master.stock, master.is_free = whole_demand, whole_stock, True
        master.buy_at()
        master.programme.inside(False)
        master.allow()


@dataclass(frozen=True, slots=True)
class _Mark:
    """How far pieces were kept: how many were, what was left, and what the programme pays for it."""

    kept: int
    demand: list[int]
    stock: dict[int, int | None]
    value: float


class _Keeping:
    """Pieces of stock kept one after the other."""

    def __init__(self, master: Master, watch: Deadline, source: random.Random, how: Keep) -> None:
        self.master, self.watch, self.source = master, watch, source
        self.spread, self.share, self.grid = how.spread, how.share, how.grid
        self.whole_time = watch.left
        self.found: list[CutPiece] = []
        self.solved = master.programme.solve()
        self.is_lenient, self.is_hurried = how.lenient, False
        if self.solved is not None and how.lenient:
            master.buy_at([LENIENT * each for each in master.paid(self.solved)])

    def to_the_end(self, few: int) -> tuple[list[CutPiece], list[int]] | None:
        """Keep pieces until no more parts are left than `few`, or none can be kept; None where the watch ended it."""
        master, watch = self.master, self.watch
        while sum(master.demand) > few:
            if self.solved is None or watch.over():
                return None
            began = watch.gone
            prices = master.prices(self.solved, self.grid)
            if watch.left < HURRY * self.whole_time:  # the rest as it comes
                self.is_hurried = True
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

    def mark(self) -> _Mark:
        value = math.inf if self.solved is None else self.solved.value
        return _Mark(len(self.found), list(self.master.demand), dict(self.master.stock), value)

    def together(self, mark: _Mark, *, seconds: float, below: float) -> tuple[list[CutPiece], list[int]] | None:
        """Return the plan that goes on from a mark by choosing whole numbers for all that was left there.

        None for none that costs less than `below`.
        """
        master, begun = self.master, self.found[: mark.kept]
        spare = below - master.shop.cost(begun)
        if not any(mark.demand) or seconds < LEAST_TIME or mark.value > spare - 0.5:
            return None
        master.demand, master.stock = list(mark.demand), dict(mark.stock)
        master.allow()
        x = whole_numbers(master, seconds=seconds, below=spare)
        if x is None:
            return None
        last, rest = assembled(master, x)
        return [*begun, *last], rest

    def floor(self) -> None:
        """Keep what the programme has of each way of cutting in whole numbers; the rest of it is solved anew."""
        if self.solved is None:
            return
        master, solved = self.master, self.solved
        prices = master.prices(solved, self.grid)
        having = _Having(master, solved.x)
        taken = 0
        for key, at in sorted(master.made.layouts.items(), key=lambda each: -solved.x[each[1]]):
            for _ in range(int(solved.x[at] + 1e-6)):
                cuts = _filled(master, key, prices, having)
                worth = _worth(prices, cuts)
                price = master.shop.price[key[0]] - prices.extra.get(key[0], 0.0)
                if worth >= (1 - FLOORED) * price:
                    taken += _keep(master, 1, key, cuts, self.found)
        if taken:
            self._again()

    def _step(self, solved: Solved, prices: Prices) -> int:
        """Keep a share of the pieces that could be, and solve what is left; return how many were kept."""
        master = self.master
        offers = _offers(master, prices, self.source, self.spread)
        most, taken, having = max(1, round(self.share * len(offers))), 0, _Having(master, solved.x)
        for _, key, cuts in offers:
            first = _worth(prices, cuts)
            for _ in range(max(1, int(solved.x[master.made.layouts[key]]))):
                filled = _filled(master, key, prices, having)  # the next one of a kind may hold other parts
                if not filled or _worth(prices, filled) < (1 - FLOORED) * first:
                    break
                taken += _keep(master, 1, key, filled, self.found)
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
) -> tuple[list[CutPiece], list[int]]:
    """Return a whole plan made piece after piece without the programme, and the parts that it leaves.

    The tables of what is worth most serve for several pieces; what is cut in two stages is a column of the
    programme after that.

    Args:
        master: The linear programme of strips and what lies in them.
        worth: What each part is worth, hundredths of the money.
        until: What says when the time is over.
        source: Of random numbers.
    """
    whole_demand, whole_stock = master.demand, master.stock
    found: list[CutPiece] = []
    master.demand, master.stock = list(whole_demand), dict(whole_stock)
    value = [worth.get(at, 0.0) for at in range(len(whole_demand))]
    rate, price, served, nothing = master.shop.rate, master.shop.price, 0, _Having(master, ())
    while any(master.demand) and not until():
        if served % SERVE == 0:
            prices = master.prices_at(value, QUICK if master.shop.stages == 2 else QUICK_SLOTS)
        there = sorted(at for at, count in master.stock.items() if count != 0)
        there = sorted(there, key=lambda at: rate[at] * source.uniform(0.8, 1.25))[:ASKED_FIRST]
        best: tuple[float, Layouts, list[CutAt]] | None = None
        for n, frame in enumerate(master.frames):
            for at in there:
                strips = frame.layouts[at].best(prices.tables[n])[1] if prices.tables[n].widths else []
                cuts = _filled(master, (at, n, tuple(strips)), prices, nothing)
                gain = _worth(prices, cuts) / max(price[at], 1)
                if cuts and (best is None or gain > best[0]):
                    best = (gain, (at, n, tuple(strips)), cuts)
        if best is None and served % SERVE == 0:
            break
        served = served + 1 if best is not None else 0
        if best is not None:
            most = 1 if master.shop.problem.kind is CutKind.BOARDS else sum(master.demand)  # sheets are all alike
            _keep(master, most, best[1], best[2], found)
            if master.shop.stages == 2:
                master.add_piece(*best[1], best[2])
    rest, master.demand, master.stock = master.demand, whole_demand, whole_stock
    return found, rest


def _offers(
    master: Master, prices: Prices, source: random.Random, spread: float
) -> list[tuple[float, Layouts, list[CutAt]]]:
    """Return the ways of cutting a piece that the programme now uses, filled with what is still wanted.

    Those that lose least come first: their price less what lies in them is worth, of the price.
    """
    found, x = [], prices.used
    used = {key: float(x[at]) for key, at in master.made.layouts.items() if at < len(x) and x[at] > 1e-4}
    having = _Having(master, x)
    for key, much in sorted(used.items(), key=lambda each: -each[1]):
        if master.stock[key[0]] == 0:
            continue
        cuts = _filled(master, key, prices, having)
        worth = _worth(prices, cuts)
        price = max(master.shop.price[key[0]] - prices.extra.get(key[0], 0.0), 1.0)
        loss = 1.0 - worth / price - SURER * min(much, 1.0) + spread * source.random()
        if cuts:
            found.append((loss, key, cuts))
    return sorted(found, key=lambda each: each[0])


def _worth(prices: Prices, cuts: Sequence[CutAt]) -> float:
    """Return what the programme would pay for the parts of a piece."""
    return sum(prices.value[cut[2]] for cut in cuts)


class _Having:
    """What the programme has in each span and each slot, and how much of it: goes down as it is taken."""

    def __init__(self, master: Master, x: Sequence[float] | np.ndarray) -> None:
        self.spans: dict[Span, list[list[Any]]] = defaultdict(list)
        self.slots: dict[Slot, list[list[Any]]] = defaultdict(list)
        for made, has in ((master.made.fills, self.spans), (master.made.stacks, self.slots)):
            for (where, ways), at in made.items():
                if at < len(x) and x[at] > LEAST:
                    has[where].append([float(x[at]), ways])

    def fill(self, span: Span, left: Sequence[int]) -> tuple[Way, ...]:
        """Take what the programme has most of in a span and is still wanted; () for nothing."""
        return _taken(self.spans.get(span, []), left)

    def stack(self, slot: Slot, left: Sequence[int]) -> tuple[Way, ...]:
        """Take what the programme has most of in a slot and is still wanted; () for nothing."""
        return _taken(self.slots.get(slot, []), left)


def _keep(master: Master, most: int, key: Layouts, cuts: list[CutAt], found: list[CutPiece]) -> int:
    """Keep a piece that is cut so, as often as wanted and as the parts and the stock allow; return how often."""
    at, n, _ = key
    used, count = Counter(cut[2] for cut in cuts), master.stock[at]
    many = min(master.demand[part] // each for part, each in used.items())
    many = min(many, most, many if count is None else count)
    for _ in range(many):
        lying = (
            [(y, x, part, wide, along) for x, y, part, along, wide in cuts] if master.frames[n].across else list(cuts)
        )
        found.append(CutPiece(at, lying))
    for part, each in used.items():
        master.demand[part] -= each * many
    if count is not None:
        master.stock[at] = count - many
    return many


def _filled(master: Master, key: Layouts, prices: Prices, having: _Having) -> list[CutAt]:
    """Return what a piece of stock that is ripped so holds, no more of a part than is still wanted.

    In each span and slot it is what the programme has there, which goes down; else what is worth most at these
    prices.
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
        for way in having.fill((n, b - a, wide, level), left) or tables.taken(wide, b - a + k, left, level):
            beside: Sequence[Way] = (way,)
            if way.part == SLOT:
                has = having.stack((n, way.along, wide, level), left)
                beside = has or tables.stack(way.along, wide, left, level)
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


def _taken(fills: list[list[Any]], left: Sequence[int]) -> tuple[Way, ...]:
    for each in sorted(fills, key=lambda each: -each[0]):
        if each[0] < LEAST:
            break
        if all(many <= left[part] for part, many in Counter(way.part for way in each[1] if way.part != SLOT).items()):
            each[0] -= 1.0
            return each[1]
    return ()


def assembled(master: Master, x: np.ndarray) -> tuple[list[CutPiece], list[int]]:
    """Return the pieces of stock that whole numbers of columns mean, and what is left over; nothing is cut twice.

    Args:
        master: The linear programme of strips and what lies in them.
        x: How often each column is taken, whole numbers.
    """
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
                        cuts += _laid(waiting.pop(), stacks, left, (n, level), (a, y), k)
            if frame.across:
                cuts = [(y, x0, part, wide, along) for x0, y, part, along, wide in cuts]
            if cuts:
                pieces.append(CutPiece(stock, cuts))
    return pieces, left


def _whole(x: np.ndarray, at: int) -> int:
    return int(x[at] + 0.5) if at < len(x) else 0


def _laid(
    lying: Sequence[Way],
    stacks: dict[Slot, list[tuple[Way, ...]]],
    left: list[int],
    where: tuple[int, int],
    at: tuple[int, int],
    kerf: int,
) -> list[CutAt]:
    """Return the cuts of a span that begins there; `left` goes down, what is no longer wanted is left out.

    where: its frame and its level.
    """
    cuts, (x, y) = [], at
    for way in lying:
        waiting = [(way,)] if way.part != SLOT else stacks[where[0], way.along, way.across, where[1]]
        beside: Sequence[Way] = waiting.pop() if waiting else ()
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
