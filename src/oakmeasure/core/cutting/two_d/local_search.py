"""Better plans from a good one: a few pieces are taken apart and what they held is cut anew by the programme.

How many parts that is follows what can be proven in its time. Two aims: a set that costs less; or, where pieces are
alike and only a whole one less helps, one piece that holds less than it did, until it holds nothing. Source: large
neighbourhood search, Shaw 1998.
"""

from __future__ import annotations

import math
import random
from collections import Counter
from collections.abc import Sequence
from typing import Protocol

from oakmeasure.core.cutting.in_tenths import CutPiece
from oakmeasure.core.cutting.lp.master import COARSE, Master
from oakmeasure.core.cutting.model import Deadline
from oakmeasure.core.cutting.two_d.stock_assignment import Refill, Shop
from oakmeasure.core.cutting.two_d.whole_plans import Keep, assembled, keep_pieces, whole_numbers

# That are cut anew at once
PARTS = 30.0
LEAST_PARTS = 10.0
MOST_PARTS = 70.0
# How many there are next time, after a proof and without one
GROWN = 1.1
SHRUNK = 0.85
# Of the time, for one of the two steps; seconds
SHARE = 0.08
LEAST_TIME = 0.05
FREE_KINDS = 8  # of free stock that they may be cut from
NEAR = 1e-4  # of the cost; a bound as near is near enough
# Of the steps, how many keep piece after piece, and with how many parts
QUICK = 0.5
QUICK_PARTS = 30
SPREADS = (0.0, 0.03, 0.06, 0.1)  # chance in these
DEAR = 3.0  # times its share of the stock, a part is bought at where pieces are to hold as much as they can
Plan = tuple[list[CutPiece], list[int]]  # pieces, and what they leave of each part


class Searching(Protocol):
    """The search that these belong to."""

    shop: Shop
    """The problem in whole tenths."""
    watch: Deadline
    """The time that there is."""
    source: random.Random
    """Of random numbers."""
    best: list[CutPiece] | None
    """The best plan so far; None before there is one."""
    key: tuple[float, float]
    """Cost of that plan and what breaks a tie."""
    area: dict[int, float]
    """Area of each kind of stock, square tenths."""

    def missing(self, pieces: Sequence[CutPiece]) -> list[int]:
        """Return how many of each part that would go into some stock are not cut.

        Args:
            pieces: Pieces of stock with their cuts.
        """
        ...

    def stock_left(self, pieces: Sequence[CutPiece]) -> dict[int, int | None]:
        """Return how many of each kind of stock are left beside those pieces.

        Args:
            pieces: Pieces of stock with their cuts.
        """
        ...

    def offer(self, pieces: list[CutPiece], left: int) -> None:
        """Take a plan that leaves less or costs less.

        Args:
            pieces: Pieces of stock with their cuts.
            left: How many parts the plan leaves.
        """
        ...


class Recut:
    """Takes pieces of a search's best plan apart, again and again."""

    def __init__(self, search: Searching) -> None:
        self.search, self.shop, self.parts = search, search.shop, PARTS
        self.step = max(SHARE * search.watch.seconds, LEAST_TIME)

    def cheaper(self) -> None:
        """Look for a cheaper way to cut what a few pieces hold, and what is left over; free stock may be taken."""
        search, shop = self.search, self.shop
        best, quick = search.best or [], search.source.random() < QUICK
        apart = self._drawn(best, (), QUICK_PARTS if quick else self.parts)
        kept_ones = [each for at, each in enumerate(best) if at not in apart]
        demand = self._held(best, apart)
        short = search.key[0] > shop.homeless
        if short:
            demand = [a + b for a, b in zip(demand, search.missing(best), strict=True)]
        left = search.stock_left(kept_ones)
        stock = {at: left[at] for at in {*self._free(left, demand), *(best[at].stock for at in apart)}}
        paid = math.inf if short else shop.cost(best[at] for at in apart)
        master = Master(shop, demand, stock)
        if quick:
            found = self._kept(master, paid)
        else:
            found = self._solved(master, paid, all_parts=not short)
        if found is not None:
            search.offer([*kept_ones, *found[0]], shop.homeless + sum(found[1]))

    def _kept(self, master: Master, below: float) -> Plan | None:
        """Return pieces that cost less than `below` and leave nothing, made one after the other; None for none.

        Where there is no limit, those that leave least.
        """
        watch, source = self.search.watch, self.search.source
        end = watch.gone + self.step
        master.solve(lambda: watch.over() or watch.gone > end, finest=1, near=NEAR)
        best: Plan | None = None
        least = (0 if math.isfinite(below) else sum(master.demand), below)
        for spread in SPREADS:
            if master.value >= below - 0.5 or watch.over():
                break
            found = keep_pieces(master, watch, source, Keep(spread=spread, share=0.01, grid=COARSE))
            if found is not None:
                cost = float(self.shop.cost(found[0]))
                if (sum(found[1]), cost) < least:
                    best, least = found, (sum(found[1]), cost)
        return best

    def emptier(self) -> None:
        """Let a few pieces take over as much as they can of what the emptiest one holds."""
        search, shop = self.search, self.shop
        best = search.best or []
        if len(best) < 2 or search.key[0] > shop.homeless:
            return
        victim = min(range(len(best)), key=lambda at: shop.filled(best[at]) * search.source.uniform(0.9, 1.1))
        apart = self._drawn(best, (victim,), self.parts)
        others = [best[at] for at in apart if at != victim]
        keep_pieces = [each for at, each in enumerate(best) if at not in apart]
        stock: dict[int, int | None] = dict(Counter(each.stock for each in others))
        demand = self._held(best, apart)
        found = self._solved(Master(shop, demand, stock, dear=DEAR), math.inf, all_parts=False)
        if found is None:
            return
        new, rest = found
        if not any(rest):
            search.offer([*keep_pieces, *new], shop.homeless)
            return
        spare = search.stock_left([*keep_pieces, *new])
        last = shop.refill(search.area, shop.manners[-1], search.source, rest, spare, Refill())
        if last is None or any(rest) or shop.cost(last) > shop.price[best[victim].stock]:
            return
        if sum(shop.filled(each) ** 2 for each in [*new, *last]) >= sum(shop.filled(best[at]) ** 2 for at in apart):
            search.best = [*keep_pieces, *new, *last]

    def _solved(self, master: Master, below: float, *, all_parts: bool) -> Plan | None:
        """Return the pieces and what is left over; None for none cheaper than `below`."""
        watch, began = self.search.watch, self.search.watch.gone
        master.solve(lambda: watch.over() or watch.gone > began + self.step, finest=1, near=NEAR)
        if master.value >= below - 0.5:
            return None
        x = whole_numbers(master, seconds=max(min(self.step, watch.left), 0.02), below=below, every=all_parts)
        change = GROWN if master.programme.proven else SHRUNK
        self.parts = min(max(self.parts * change, LEAST_PARTS), MOST_PARTS)
        return None if x is None else assembled(master, x)

    def _held(self, best: Sequence[CutPiece], apart: set[int]) -> list[int]:
        demand = [0] * len(self.shop.demand)
        for at in apart:
            for cut in best[at].cuts:
                demand[cut[2]] += 1
        return demand

    def _free(self, left: dict[int, int | None], demand: Sequence[int]) -> list[int]:
        """Return a few kinds of stock that are there; one that the largest part goes into is always among them."""
        shop, source = self.shop, self.search.source
        free = [at for at, count in left.items() if count != 0]
        some = source.sample(free, min(len(free), FREE_KINDS))
        largest = max((at for at, many in enumerate(demand) if many), key=lambda at: shop.sizes[at], default=None)
        if largest is not None:
            holds = [at for at in free if shop.goes(largest, shop.stock[at])]
            some += source.sample(holds, min(len(holds), FREE_KINDS // 2))
        return some

    def _drawn(self, best: Sequence[CutPiece], first: Sequence[int], most: float) -> set[int]:
        """Return a few pieces, the wasteful ones rather, with no more parts than are solved quickly."""
        shop, source = self.shop, self.search.source
        waste = [1.0 - shop.filled(each) + 0.03 for each in best]
        order = sorted(range(len(best)), key=lambda at: source.random() ** (1.0 / waste[at]), reverse=True)
        found, parts = set(first), sum(len(best[at].cuts) for at in first)
        for at in order:
            if at in found:
                continue
            parts += len(best[at].cuts)
            if len(found) >= 2 and parts > most:
                break
            found.add(at)
        return found
