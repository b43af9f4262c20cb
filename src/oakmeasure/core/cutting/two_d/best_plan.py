"""The best plan of boards or sheets so far, and what is proven of it."""

from __future__ import annotations

import math
import random
from collections.abc import Sequence

from oakmeasure.core.cutting.bound import bound_process
from oakmeasure.core.cutting.bound.dual_feasible_functions import sheet_bound
from oakmeasure.core.cutting.in_tenths import CutPiece
from oakmeasure.core.cutting.lp.master import Master
from oakmeasure.core.cutting.model import CENT, CutKind, Deadline, least_cost
from oakmeasure.core.cutting.two_d.shelves import shelved
from oakmeasure.core.cutting.two_d.stock_assignment import Shop

LARGE_FIRST = 1.06  # power of its area that a part is worth: small ones fill what is left
SEED = 7
# That HiGHS may take too long: seconds, and of the time it was given
LATE = 0.05
OVERRUN = 0.1
PROOF_KINDS = 400  # of parts on sheets, of which a bound is proven


class BestPlan:
    """The best plan so far, and what is proven of it."""

    def __init__(self, shop: Shop, watch: Deadline) -> None:
        self.shop, self.watch = shop, watch
        k = shop.kerf
        self.need = sum(shop.demand[at] * (shop.sizes[at][0] + k) * (shop.sizes[at][1] + k) for at in shop.fits)
        self.kinds = [(each.price, shop.room(each), each.count) for each in shop.stock]
        self.worth = {at: float(shop.sizes[at][0] * shop.sizes[at][1]) ** LARGE_FIRST for at in shop.fits}
        self.area = {at: float(shop.sizes[at][0] * shop.sizes[at][1]) for at in shop.fits}
        self.source = random.Random(SEED)
        self.rounds, self.bound, self.programme_bound, self.again, self.took, self.late = 0, 0, 0.0, 0.0, 0.0, LATE
        self.best: list[CutPiece] | None = None
        self.master: Master | None = None
        self.aside: bound_process.BoundProcess | None = None
        self.key = (math.inf, math.inf)

    @property
    def is_least(self) -> bool:
        """Whether no plan costs less."""
        return self.best is not None and not self.key[0] and self.key[1] <= self.bound

    @property
    def is_over(self) -> bool:
        """Whether the time is over."""
        return self.watch.over() or self.is_least

    def begin_aside(self, master: Master | None = None) -> None:
        """Let a second process prove the bound.

        It does so of a long list of boards, or one whose wood is not all as clean, and of sheets.

        Args:
            master: The programme of a long list of sheets, to go on from.
        """
        shop, demand = self.shop, self.missing([])
        if self.aside is not None or not shop.fits or self.is_over:
            return
        if shop.problem.kind is CutKind.BOARDS:
            if shop.is_large or len(shop.levels) > 1:
                self.aside = bound_process.started(self.watch, bound_process.of_strips(shop, demand, self.stock))
        elif self.is_plain and shop.stages == 3 and len(shop.fits) <= PROOF_KINDS:
            self.aside = bound_process.started(
                self.watch, bound_process.of_sheets(master or Master(shop, demand, self.stock))
            )

    def end_aside(self) -> None:
        """Let it go."""
        if self.aside is not None:
            self.aside.close()

    @property
    def stock(self) -> dict[int, int | None]:
        """Return how many there are of each kind of stock, None for as many as needed."""
        return {each.at: each.count for each in self.shop.stock if each.count != 0}

    @property
    def paid(self) -> float:
        """Return what a plan must cost less than."""
        return math.inf if self.key[0] > self.shop.homeless else self.key[1]

    def take_bound(self, bound: float) -> None:
        """Raise the bound to the programme's, or to what the second process has by now.

        Args:
            bound: What no plan can cost less than, in the job's money.
        """
        best = max(bound, self.aside.listen() if self.aside else 0.0)
        if best > self.programme_bound and self.best is not None and not self.key[0]:
            self.programme_bound, before = best, self.bound
            self.raise_bound()
            if self.bound > before:
                self.tell()

    def raise_bound(self) -> None:
        """Raise the bound to the next cost that whole pieces of stock can have."""
        if not self.key[0] and self.best is not None:
            most = int(self.key[1])
            material = least_cost(self.kinds, need=self.need, at_least=self.programme_bound, most=most)
            self.bound = max(self.bound, material)
            if self.shop.problem.kind is CutKind.SHEETS and self.bound < most:
                self.bound = max(self.bound, sheet_bound(self.shop, most))

    def stock_left(self, pieces: Sequence[CutPiece]) -> dict[int, int | None]:
        """Return how many of each kind of stock are left beside those pieces.

        Args:
            pieces: Pieces of stock with their cuts.
        """
        left = {each.at: each.count for each in self.shop.stock}
        for piece in pieces:
            count = left[piece.stock]
            left[piece.stock] = None if count is None else count - 1
        return left

    @property
    def is_whole(self) -> bool:
        """Whether there is a plan of more than one piece of stock that leaves nothing."""
        return self.best is not None and len(self.best) > 1 and not self.key[0] and not self.shop.is_large

    def aims(self, pieces: Sequence[CutPiece]) -> tuple[float, int]:
        """Return what counts among plans of one cost, less is better.

        First the largest off-cut, negative, then how many widths the fence is set to.

        Args:
            pieces: Pieces of stock with their cuts.
        """
        largest, widths = 0, set()
        for piece in pieces:
            stock = self.shop.stock[piece.stock]
            end = max(cut[0] + cut[3] for cut in piece.cuts) + self.shop.kerf
            top = max(cut[1] + cut[4] for cut in piece.cuts) + self.shop.kerf
            largest = max(largest, (stock.length - end) * stock.width, stock.length * (stock.width - top))
            widths |= {cut[4] for cut in piece.cuts}
        return -float(largest), len(widths)

    def missing(self, pieces: Sequence[CutPiece]) -> list[int]:
        """Return how many of each part that would go into some stock are not cut.

        Args:
            pieces: Pieces of stock with their cuts.
        """
        found = [many if at in self.worth else 0 for at, many in enumerate(self.shop.demand)]
        for piece in pieces:
            for cut in piece.cuts:
                found[cut[2]] -= 1
        return found

    @property
    def is_plain(self) -> bool:
        """Whether no stock has defects."""
        return not any(each.holes for each in self.shop.stock)

    def shelved(self, pieces: list[CutPiece], demand: Sequence[int]) -> tuple[list[CutPiece], list[int]]:
        """Return those pieces, and what is still in demand as quickly as it can be cut.

        Args:
            pieces: Pieces of stock with their cuts.
            demand: How many of each part are wanted.
        """
        more, rest = shelved(self.shop, demand, self.stock_left(pieces))
        return [*pieces, *more], rest

    def offer(self, pieces: list[CutPiece], left: int) -> None:
        """Take a plan that leaves less or costs less.

        Args:
            pieces: Pieces of stock with their cuts.
            left: How many parts the plan leaves.
        """
        cost = self.shop.cost(pieces)
        if (float(left), float(cost)) >= self.key:
            return
        self.best, self.key = pieces, (float(left), float(cost))
        if not left and not self.bound:
            self.raise_bound()
        self.tell()

    def tell(self) -> None:
        """Tell of the best plan and its bound."""
        if self.watch.tell is not None and self.best is not None:
            self.watch.tell(self.shop.plan(self.best, self.bound / CENT, self.watch))
