"""Boards with defects, and sheets: cut right through into strips, the strips across into parts, parts trimmed to width.

A strip lies along the stock (ripped first) or across it (crosscut first). It is filled by an exact bounded knapsack, a
part of less width allowed in it; which strips a piece of stock gets is a knapsack over its width. Whole plans are made
again and again, the worth of a part raised where plans waste around it, until the watch ends it or the material bound
is met. Sources: sequential value correction, Mukhacheva and Mukhacheva 1991; the bound is of the material.
"""

from __future__ import annotations

import math
import random

from oakmeasure.core.cutting import highs
from oakmeasure.core.cutting.pieces import NOISE, Piece, Shop
from oakmeasure.core.cutting.problem import CENT, CutKind, CutPlan, Problem, Watch, least_cost

LARGE_FIRST = 1.06  # power of its area that a part is worth: small ones fill what is left
SEED = 7
QUICK_PLAN = 0.08  # of the time: a whole plan that takes less is made again and again
FIRST, AGAIN = 4, 0.1  # whole plans at the start; of the time, after which there is another one
POOL = 3000  # pieces, more of which are not chosen from
JOIN_SHARE, LAST = 0.15, 0.18  # of the time: for one choice out of the pool, and kept for the last one


def plan_strips(problem: Problem, watch: Watch) -> CutPlan:
    """Return the best plan found until the watch ends it or the bound is met; what fits nowhere is left."""
    shop = Shop(problem)
    search = Search(shop, watch)
    while search.best is None or not (watch.over() or search.is_least):
        if search.best and (search.rounds >= FIRST or watch.left < 3 * search.took):
            if search.begins_anew():
                search.round()
            else:
                search.mend()
        elif not search.round():
            break
        search.rest_and_join()
    return shop.plan(search.best or [], search.bound / CENT, watch)


class Search:
    """Plan after plan, what they cut kept in a pool, of which the best whole set is chosen now and then."""

    def __init__(self, shop: Shop, watch: Watch) -> None:
        self.shop, self.watch = shop, watch
        k = shop.kerf
        self.need = sum(shop.demand[at] * (shop.sizes[at][0] + k) * (shop.sizes[at][1] + k) for at in shop.fits)
        self.kinds = [(each.price, shop.room(each), each.count) for each in shop.stock]
        self.worth = {at: float(shop.sizes[at][0] * shop.sizes[at][1]) ** LARGE_FIRST for at in shop.fits}
        self.area = {at: float(shop.sizes[at][0] * shop.sizes[at][1]) for at in shop.fits}
        self.source = random.Random(SEED)
        self.rounds, self.bound, self.joined, self.again, self.took = 0, 0, False, 0.0, 0.0
        self.best: list[Piece] | None = None
        self.key = (math.inf, math.inf)

    @property
    def is_least(self) -> bool:
        return self.best is not None and not self.key[0] and self.key[1] <= self.bound

    def begins_anew(self) -> bool:
        """Return whether the next plan is made from nothing: what is mended stays near where it began. Half of the
        time where that is quick, else now and then.
        """
        if self.watch.left < 3 * self.took:
            return False
        if self.took < QUICK_PLAN * self.watch.seconds:
            return self.source.random() < 0.5
        due = self.watch.gone > self.again
        if due:
            self.again = self.watch.gone + AGAIN * self.watch.seconds
        return due

    def round(self) -> bool:
        """Make one whole plan; return whether the search may go on."""
        sheets = self.shop.problem.kind is CutKind.SHEETS
        ways = ("rip", "cross", "both")[self.rounds % 3] if sheets else ("rip", "rip", "both")[self.rounds % 3]
        large = self.shop.is_large or self.rounds % 2
        worth = self.worth if large else self.area
        watch = self.watch if self.best is not None else None
        below = math.inf if self.key[0] else self.key[1]
        began = self.watch.gone
        pieces, left = self.shop.whole_plan(worth, ways, self.source, self.rounds, watch, below)
        self.took = max(self.took, self.watch.gone - began)
        self.shop.grid = 1 if self.shop.grid == 1 or self.took < 0.1 * self.watch.seconds else self.shop.grid
        if pieces is None:
            return False
        if pieces or self.best is None:
            self.offer(pieces, left)
            self.shop.correct(self.worth, pieces)
        self.rounds += 1
        return bool(self.shop.fits)

    def mend(self) -> None:
        """Take a few pieces of the best plan apart, the wasteful ones rather, and cut what they held anew."""
        best, shop, source = self.best, self.shop, self.source
        assert best is not None
        waste = [1.0 - shop.filled(each) + 0.03 for each in best]
        many = min(len(best), source.choice((2, 2, 3, 3, 4, 6)))
        drawn = sorted(range(len(best)), key=lambda at: source.random() ** (1.0 / waste[at]), reverse=True)[:many]
        apart = [best[at] for at in drawn]
        kept = [each for at, each in enumerate(best) if at not in set(drawn)]
        demand = [many if at in self.worth else 0 for at, many in enumerate(shop.demand)]
        for piece in kept:
            for cut in piece.cuts:
                demand[cut[2]] -= 1
        left = {each.at: each.count for each in shop.stock}
        for piece in kept:
            count = left[piece.stock]
            left[piece.stock] = None if count is None else count - 1
        paid = sum(shop.price[each.stock] for each in apart)
        worth = source.choice((self.area, self.worth))
        value = {at: each * source.uniform(1 - 3 * NOISE, 1 + 3 * NOISE) for at, each in worth.items()}
        ways = source.choice(("rip", "cross", "both")) if shop.problem.kind is CutKind.SHEETS else "rip"
        short = self.key[0] > shop.homeless
        below = math.inf if short else paid + 1
        new = shop.refill(value, ways, source, demand, left, below, perfect=source.random() < 0.6, watch=self.watch)
        if new is None or (any(demand) and not short):
            return
        cost = sum(shop.price[each.stock] for each in new)
        even = sum(shop.filled(each) ** 2 for each in apart)
        if cost < paid or short:
            self.offer([*kept, *new], shop.homeless + sum(demand))
        elif cost == paid and sum(shop.filled(each) ** 2 for each in new) >= even:
            self.best = [*kept, *new]  # as dear, but the waste is more in one place: from there it may go

    def rest_and_join(self) -> None:
        """Before the time is over, choose anew out of the pool."""
        late = self.watch.left < LAST * self.watch.seconds
        if late and not self.joined and not self.is_least and self.best is not None:
            self.joined = True
            if len(self.shop.pool) <= POOL and self.watch.left > 0.2:
                self.join()

    def offer(self, pieces: list[Piece], left: int) -> None:
        """Take a plan that leaves less or costs less."""
        cost = sum(self.shop.price[each.stock] for each in pieces)
        if (float(left), float(cost)) >= self.key:
            return
        self.best, self.key = pieces, (float(left), float(cost))
        if not left:
            if not self.bound:
                self.bound = least_cost(self.kinds, need=self.need, at_least=0.0, most=cost)
            if self.watch.tell is not None:
                self.watch.tell(self.shop.plan(pieces, self.bound / CENT, self.watch))

    def join(self) -> None:
        """Choose the cheapest whole set of pieces out of all that were cut so far."""
        shop, pool = self.shop, list(self.shop.pool.values())
        limited = {each.at: len(shop.fits) + n for n, each in enumerate(one for one in shop.stock
                                                                        if one.count is not None)}  # fmt: skip
        row = {at: n for n, at in enumerate(shop.fits)}
        low = [float(shop.demand[at]) for at in shop.fits] + [-math.inf for _ in limited]
        high = [math.inf for _ in shop.fits] + [float(shop.stock[at].count or 0) for at in limited]
        programme = highs.Programme(low, high)
        for piece in pool:
            entries: dict[int, float] = {}
            for _, _, part, _, _ in piece.cuts:
                entries[row[part]] = entries.get(row[part], 0.0) + 1.0
            if piece.stock in limited:
                entries[limited[piece.stock]] = 1.0
            programme.add(float(shop.price[piece.stock]), entries)
        x = programme.solve_whole(seconds=min(JOIN_SHARE * self.watch.seconds, max(self.watch.left - 0.1, 0.05)))
        if x is None:
            return
        spare = {at: shop.demand[at] for at in shop.fits}
        chosen: list[Piece] = []
        for piece, many in zip(pool, x, strict=True):
            for _ in range(int(many)):
                kept = []
                for cut in piece.cuts:
                    if spare[cut[2]] > 0:
                        spare[cut[2]] -= 1
                        kept.append(cut)
                if kept:
                    chosen.append(Piece(piece.stock, kept))
        self.offer(chosen, sum(spare.values()) + shop.homeless)
