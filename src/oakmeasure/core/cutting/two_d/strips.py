"""The search for a plan of boards with defects, or of sheets.

Quick plans, the programme with whole plans of it, then a few pieces at a time cut anew, until the watch ends it or
the bound is met.

Small lists of sheets are also made whole again and again, the worth of a part raised where plans waste around it.
Sources: sequential value correction, Mukhacheva and Mukhacheva 1991; the others in the modules that are called.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

from oakmeasure.core.cutting.in_tenths import CutPiece
from oakmeasure.core.cutting.lp import sample
from oakmeasure.core.cutting.lp.master import COARSE, Master
from oakmeasure.core.cutting.model import CENT, CutKind, CutPlan, Deadline, Problem
from oakmeasure.core.cutting.two_d.best_plan import LATE, OVERRUN, BestPlan
from oakmeasure.core.cutting.two_d.integer_fill import tight_plan
from oakmeasure.core.cutting.two_d.local_search import Recut
from oakmeasure.core.cutting.two_d.stock_assignment import NOISE, Refill, Shop
from oakmeasure.core.cutting.two_d.whole_plans import Keep, assembled, keep_pieces, quick, whole_numbers

QUICK_PLAN = 0.08  # of the time: a whole plan that takes less is made again and again
# Whole plans at the start; of the time, after which there is another one
FIRST = 4
AGAIN = 0.1
PLAIN_SHARE = 0.5  # of the time, for plans of sheets without the programme: lists that fill their sheets need it most
# Of the time, at which columns are no longer made, of long lists too, and whole plans of the programme no longer begun:
PROGRAMME_SHARE = 0.75
LARGE_SHARE = 0.5
KEEP_SHARE = 0.9
TIGHT_SHARE = 0.15  # of the time, for whole numbers of all slots, in each of two ways
AGAIN_SHARE = 0.6  # of what a whole plan of the programme took, that another one takes: its columns are there
ALONE_SHARES = (0.6, 0.8)  # the same for one way of cutting, then the other
CHOICE_SHARE = 0.2  # of the time that is left, for choosing whole numbers of all columns
# Parts, of longer lists of sheets than which columns end sooner and more is kept at once:
LONG = 1500
LONG_SHARE = 0.65
LONG_KEPT = 0.5
LONGEST = 800  # parts; of longer lists what the programme has whole is kept first
LONG_REST = 60  # parts that a plan of the programme may leave, for which the watch is not asked
TAIL_SHARE = 0.15  # of the time, for choosing whole numbers for the last parts
# Seconds at the most for the second aims; of the time, from which there are no others
TIDY = 0.6
TIDY_FROM = 0.95
NEAR = 1e-4  # of the cost; a bound as near is near enough
SPREADS = (0.0, 0.025, 0.05, 0.1)  # chance in the plans that keep piece after piece
# Of the pieces that could be kept, how many are at once
SURE_SHARE = 0.04
QUICK_SHARE = 0.12
# Of the steps that better a plan of sheets, less the one before
MENDED = 0.3
EMPTIED = 0.9
PROOF_FROM = 0.4  # of the time, at which the proof for a long list of sheets begins at the latest
FEW_KINDS = 200  # of parts, for which tables are made quickly
FINEST_SHEETS = ((FEW_KINDS, 1), (700, 5), (math.inf, 10))


def plan_strips(problem: Problem, watch: Deadline) -> CutPlan:
    """Return the best plan found until the watch ends it or the bound is met; what fits nowhere is left.

    Args:
        problem: What is to be cut out of what.
        watch: The time that there is, who may stop it, and whom to tell.
    """
    search = Search(Shop(problem), watch)
    try:
        return _planned(search)
    finally:
        search.end_aside()


def _planned(search: Search) -> CutPlan:
    shop, watch, problem = search.shop, search.watch, search.shop.problem
    if problem.kind is CutKind.BOARDS:
        search.begin_aside()
    if shop.is_large and shop.fits and search.is_plain:
        search.take(search.shelved([], search.missing([])))
    if shop.is_large and (problem.kind is CutKind.BOARDS or (sum(shop.demand) > LONGEST and is_of_few_kinds(shop))):
        search.quick()
    else:
        search.round()
    sheets = problem.kind is CutKind.SHEETS
    if sheets:
        if not shop.is_large and len(shop.stock) == 1 and search.is_plain:
            search.tight()
        if not shop.is_large:
            search.begin_aside()
        search.mend_until(PLAIN_SHARE if not shop.is_large else 0.0)
    if sheets and not shop.is_large and len(shop.ways) > 1:  # one way alone is solved sooner
        for at, across in enumerate(shop.ways):
            if shop.fits and not search.is_over and watch.gone < ALONE_SHARES[at] * watch.seconds:
                search.programme(until=ALONE_SHARES[at], finest=1, ways=(across,))
    elif shop.fits and not search.is_over:
        search.programme(until=programme_share(shop), finest=finest_grid(shop) if sheets else 1)
    search.recut()
    search.take_bound(0.0)
    search.tidy()
    return shop.plan(search.best or [], search.bound / CENT, watch)


def finest_grid(shop: Shop) -> int:
    """Return the grid for the programme of sheets, tenths: the more kinds of parts, the coarser.

    Args:
        shop: The problem in whole tenths.
    """
    return next(grid for most, grid in FINEST_SHEETS if len(shop.fits) <= most)


def is_of_few_kinds(shop: Shop) -> bool:
    """Return whether whole plans and columns of the programme are made quickly.

    Args:
        shop: The problem in whole tenths.
    """
    return len(shop.fits) <= FEW_KINDS


def programme_share(shop: Shop) -> float:
    """Return at which share of the time columns are no longer made.

    Args:
        shop: The problem in whole tenths.
    """
    if not shop.is_large:
        return PROGRAMME_SHARE
    return LONG_SHARE if shop.problem.kind is CutKind.SHEETS and sum(shop.demand) > LONG else LARGE_SHARE


class Search(BestPlan):
    """The best plan so far, and the ways to a better one."""

    def mend_until(self, share: float) -> None:
        """Make whole plans and mend the best one, until the least is reached or that share of the time is gone.

        Args:
            share: Share of the time, 0 to 1.
        """
        while not self.is_over and self.watch.gone < share * self.watch.seconds:
            self.take_bound(0.0)
            if self.rounds >= FIRST and not self.begins_anew():
                self.mend()
            elif not self.round():
                break

    def quick(self) -> None:
        """Make a whole plan of a long list."""
        master = Master(self.shop, self.missing([]), self.stock)
        found, rest = quick(master, self.worth, self.watch.over, self.source)
        self.master = master
        self.take((found, rest))

    def tight(self) -> None:
        """Look for a plan of as few sheets as the material allows, where they are filled next to perfectly."""
        shop = self.shop
        sheets = -(-self.bound // max(shop.stock[0].price, 1))
        for across in shop.ways:
            seconds = min(TIGHT_SHARE * self.watch.seconds, self.watch.left)
            if not self.is_over and not self.key[0]:
                found = tight_plan(shop, sheets, across=across, seconds=seconds)
                if found is not None:
                    self.offer(found, 0)

    def programme(self, *, until: float, finest: int, ways: Sequence[bool] = ()) -> None:
        """Solve the programme over strips, take its bound, and make whole plans of it.

        Args:
            until: At which share of the time it ends.
            finest: The finest grid of the knapsacks, tenths of a mm.
            ways: Whether strips lie across the stock: either, or both.
        """
        shop, watch = self.shop, self.watch
        master = self.master or Master(shop, self.missing([]), self.stock, ways=ways)
        master.proves &= self.aside is None
        master.programme.left = lambda: watch.left + LATE

        sheets = shop.problem.kind is CutKind.SHEETS

        def is_due() -> bool:
            if sheets and shop.is_large and watch.gone > PROOF_FROM * watch.seconds:
                self.begin_aside(master)
            return watch.over() or watch.gone > until * watch.seconds

        if not sheets:
            told = self.aside
            paid = told.prices() if told else sample.prices(shop, master.demand, self.stock, ways, is_due)
            if paid is not None:
                master.begin(paid)
        master.solve(is_due, finest=finest, near=NEAR)
        if not sheets:
            self.take_bound(master.bound)
        elif shop.is_large:
            self.begin_aside(master)
        self.choose(master)
        while not self.is_over and watch.gone < KEEP_SHARE * watch.seconds:
            for spread in SPREADS:
                began = watch.gone
                self.take_bound(0.0)
                self.keep(master, spread, finest)
                again = AGAIN_SHARE * (watch.gone - began) if shop.is_large else 0.0
                due = watch.gone + again  # what is hurried is worth little
                if self.is_over or due > KEEP_SHARE * watch.seconds or self.is_reached(master):
                    break
            self.choose(master)  # among what these have added
            if due > KEEP_SHARE * watch.seconds or self.is_reached(master):
                break

    def keep(self, master: Master, spread: float, finest: int) -> None:
        """Make a plan by keeping piece after piece of the programme's.

        Of long lists several are kept at once, of the longest what it has whole; and the last parts are brought
        together by whole numbers.

        Args:
            master: The linear programme of strips and what lies in them.
            spread: How far prices are changed by chance.
            finest: The finest grid of the knapsacks, tenths of a mm.
        """
        many, large = sum(self.shop.demand), self.shop.is_large
        share, tail = (QUICK_SHARE, TAIL_SHARE * self.watch.seconds) if large else (SURE_SHARE, 0.0)
        share = LONG_KEPT if many > LONG else share
        grid = COARSE if large and self.shop.problem.kind is CutKind.BOARDS else finest
        sheets = self.shop.problem.kind is CutKind.SHEETS
        self.take(
            keep_pieces(
                master,
                self.watch,
                self.source,
                Keep(
                    spread=spread,
                    share=share,
                    grid=grid,
                    tail=tail,
                    below=self.paid,
                    floor=many > LONGEST and sheets,
                    lenient=not sheets,
                ),
            )
        )

    def is_reached(self, master: Master) -> bool:
        """Return whether a piece less is out of the programme's reach.

        Args:
            master: The linear programme of strips and what lies in them.
        """
        return master.value > self.paid - min(self.shop.price) + 0.5

    def choose(self, master: Master) -> None:
        """Take the best whole numbers of the columns at hand; long lists have too many.

        Args:
            master: The linear programme of strips and what lies in them.
        """
        asked, began = CHOICE_SHARE * self.watch.left, self.watch.gone
        if self.shop.is_large or self.is_over or asked + max(self.late, OVERRUN * asked) > self.watch.left:
            return
        x = whole_numbers(master, seconds=asked, below=self.paid)
        self.late = max(self.late, self.watch.gone - began - asked)  # HiGHS looks at its clock now and then
        self.take(None if x is None else assembled(master, x))

    def take(self, found: tuple[list[CutPiece], list[int]] | None) -> None:
        """Offer a plan; what it leaves over is cut as well as can be.

        Args:
            found: Pieces of a plan and how many of each part it leaves; None for none.
        """
        if found is None:
            return
        pieces, demand = found
        if any(demand) and self.watch.over() and self.best is not None:
            return  # a long rest is not cut in no time
        self.shop.cheapest(pieces, self.stock_left(pieces))
        left = self.stock_left(pieces)
        watch = self.watch if sum(demand) > LONG_REST else None  # of a few the deadline is not felt
        rest = self.shop.refill(self.worth, self.shop.manners[-1], self.source, demand, left, Refill(watch=watch))
        if rest is not None or self.best is None:
            self.offer([*pieces, *(rest or [])], self.shop.homeless + sum(demand))

    def recut(self) -> None:
        """Take a few pieces apart and cut what they held as cheaply as can be, again and again."""
        tool = Recut(self)
        alike = self.shop.problem.kind is CutKind.SHEETS
        alike_end = TIDY_FROM * self.watch.seconds  # the rest is for the largest off-cut
        while self.best and not self.is_over and not (alike and self.watch.gone > alike_end):
            self.take_bound(0.0)
            chance = self.source.random()
            if alike and chance < MENDED:
                self.mend()
            elif alike and chance < EMPTIED:
                tool.emptier()
            else:
                tool.cheaper()

    def tidy(self) -> None:
        """Of plans of one cost take the one with the largest off-cut, then the one with fewest fence settings."""
        began, best, aims = self.watch.gone, self.best, self.aims(self.best or [])
        tool = Recut(self)
        while self.is_whole and self.watch.gone < began + min(TIDY, 0.1 * self.watch.seconds) and not self.watch.over():
            tool.emptier()
            found = self.aims(self.best or [])
            if found < aims:
                best, aims = self.best, found
        self.best = best

    def begins_anew(self) -> bool:
        """Return whether the next plan is made from nothing: what is mended stays near where it began.

        Half of the time where that is quick, else now and then.
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
        """Make one whole plan; return whether there is anything to plan."""
        ways = self.shop.manners[self.rounds % len(self.shop.manners)]
        large = self.shop.is_large or self.rounds % 2
        worth = self.worth if large else self.area
        watch = self.watch if self.best is not None else None
        below = math.inf if self.key[0] else self.key[1]
        began = self.watch.gone
        found = self.shop.whole_plan(worth, ways, self.source, self.rounds, watch, below)
        self.took = max(self.took, self.watch.gone - began)
        self.shop.grid = 1 if self.shop.grid == 1 or self.took < 0.1 * self.watch.seconds else self.shop.grid
        self.rounds += 1
        if found is not None:
            if any(found[1]) and self.is_plain and self.watch.over():
                found = self.shelved(*found)
            self.offer(found[0], sum(found[1]) + self.shop.homeless)
            self.shop.correct(self.worth, found[0])
        return bool(self.shop.fits)

    def mend(self) -> None:
        """Take a few pieces of the best plan apart, the wasteful ones rather, and cut what they held anew."""
        best, shop, source = self.best, self.shop, self.source
        assert best is not None
        waste = [1.0 - shop.filled(each) + 0.03 for each in best]
        many = min(len(best), source.choice((2, 2, 3, 3, 4, 6)))
        drawn = sorted(range(len(best)), key=lambda at: source.random() ** (1.0 / waste[at]), reverse=True)[:many]
        apart = [best[at] for at in drawn]
        keep_pieces = [each for at, each in enumerate(best) if at not in set(drawn)]
        demand = [many if at in self.worth else 0 for at, many in enumerate(shop.demand)]
        for piece in keep_pieces:
            for cut in piece.cuts:
                demand[cut[2]] -= 1
        left = {each.at: each.count for each in shop.stock}
        for piece in keep_pieces:
            count = left[piece.stock]
            left[piece.stock] = None if count is None else count - 1
        paid = shop.cost(apart)
        worth = source.choice((self.area, self.worth))
        value = {at: each * source.uniform(1 - 3 * NOISE, 1 + 3 * NOISE) for at, each in worth.items()}
        ways = source.choice(shop.manners)
        short = self.key[0] > shop.homeless
        below = math.inf if short else paid + 1
        new = shop.refill(
            value, ways, source, demand, left, Refill(below=below, perfect=source.random() < 0.6, watch=self.watch)
        )
        if new is None or (any(demand) and not short):
            return
        cost = shop.cost(new)
        even = sum(shop.filled(each) ** 2 for each in apart)
        if cost < paid or short:
            self.offer([*keep_pieces, *new], shop.homeless + sum(demand))
        elif cost == paid and sum(shop.filled(each) ** 2 for each in new) >= even:
            self.best = [*keep_pieces, *new]  # as dear, but the waste is more in one place: from there it may go
