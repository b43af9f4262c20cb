"""Boards and sheets in whole tenths, and the making of one plan: piece after piece, each cut as well as can be."""

from __future__ import annotations

import math
import random
from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.cutting.in_tenths import MANY, CutPiece, StockInTenths, Tenths
from oakmeasure.core.cutting.lp.knapsack import Filling
from oakmeasure.core.cutting.model import SCALE, Cut, CutPlan, Deadline
from oakmeasure.core.cutting.two_d import exact_fill

NOISE = 0.06  # of a part's worth, from plan to plan
MEMORY = 0.75  # of a part's worth that stays from plan to plan
# Kinds of stock that are tried for a piece
ASKED = 6
ASKED_FIRST = 3


@dataclass(frozen=True, slots=True, kw_only=True)
class Refill:
    """What ends the filling of stock, and what comes first."""

    below: float = math.inf
    """What the pieces must cost less than, hundredths of the money."""
    perfect: bool = False
    """Whether what wastes next to nothing comes first."""
    watch: Deadline | None = None
    """The time that there is, and whom to tell; None for no end."""


class Shop(Tenths):
    """The problem in whole tenths, and the making of one plan."""

    def whole_plan(
        self,
        worth: dict[int, float],
        ways: str,
        source: random.Random,
        rounds: int,
        watch: Deadline | None,
        below: float = math.inf,
    ) -> tuple[list[CutPiece], list[int]] | None:
        """Return a plan of everything and what it leaves of each part.

        None for one that cannot cost less than `below`, hundredths.

        Args:
            worth: What each part is worth, hundredths of the money.
            ways: "rip", "cross" or "both": how strips may lie.
            source: Of random numbers.
            rounds: How many plans were made before.
            watch: The time that there is, and whom to tell; None for no end.
            below: What is known to be possible, hundredths of the money.
        """
        noise = 0.0 if rounds == 0 else NOISE
        value = {at: each * (1.0 + noise * source.uniform(-1.0, 1.0)) for at, each in worth.items()}
        demand = [count if at in value else 0 for at, count in enumerate(self.demand)]
        left = {each.at: each.count for each in self.stock}
        pieces = self.refill(value, ways, source, demand, left, Refill(below=below, perfect=rounds > 0, watch=watch))
        return None if pieces is None else (pieces, demand)

    def refill(
        self,
        value: dict[int, float],
        ways: str,
        source: random.Random,
        demand: list[int],
        left: dict[int, int | None],
        how: Refill,
    ) -> list[CutPiece] | None:
        """Return pieces that cut what is in demand out of the stock that is left.

        None where they cost too much.

        Demand goes down by what is cut, until the watch ends it.

        Args:
            value: What each part is worth, hundredths of the money.
            ways: "rip", "cross" or "both": how strips may lie.
            source: Of random numbers.
            demand: How many of each part are still wanted.
            left: How many of each kind of stock are left; None for no limit.
            how: What ends it, and what comes first.
        """
        watch = how.watch
        few = how.perfect and sum(demand) <= MANY  # a long list is cut well enough as it comes
        pieces: list[CutPiece] = exact_fill.perfect_pieces(self, demand, left, source, watch) if few else []
        while any(demand):
            if watch is not None and watch.over():
                break
            if not self.may_win(pieces, demand, left, how.below):
                return None
            found: tuple[float, CutPiece, list[int]] | None = None
            for stock in self._asked(left, source, first=watch is None):
                made, used = self._filled(stock, value, demand, ways)
                gain = sum(value[at] * many for at, many in enumerate(used) if many)
                rate = gain / max(stock.price, 1)
                if made.cuts and (found is None or rate > found[0]):
                    found = (rate, made, used)
            if found is None:
                break
            _, made, used = found
            for _ in range(self._again(made, used, demand, left)):
                pieces.append(CutPiece(made.stock, list(made.cuts)))
                for at, many in enumerate(used):
                    demand[at] -= many
                count = left[made.stock]
                if count is not None:
                    left[made.stock] = count - 1
        self.cheapest(pieces, left)
        return pieces

    def _asked(self, left: dict[int, int | None], source: random.Random, *, first: bool) -> list[StockInTenths]:
        """Return the kinds of stock that are tried for the next piece: a few of the good ones."""
        there = [each for each in self.stock if left[each.at] != 0]
        many = ASKED_FIRST if first else ASKED
        if len(there) <= many:
            return there
        good = sorted(there, key=lambda each: self.rate[each.at] * source.uniform(0.8, 1.25))
        return sorted(good[:many], key=lambda each: each.at)

    def _again(self, made: CutPiece, used: list[int], demand: list[int], left: dict[int, int | None]) -> int:
        """Return how often the same piece is cut at once: half as often as its parts would allow, for long lists."""
        most = min(count // many for count, many in zip(demand, used, strict=True) if many)
        count = left[made.stock]
        most = most if count is None else min(most, count)
        return max(1, most // 2)

    def _filled(
        self, stock: StockInTenths, value: dict[int, float], demand: list[int], ways: str
    ) -> tuple[CutPiece, list[int]]:
        """Return one piece of stock cut as well as can be, strips along it or across it, whichever is worth more."""
        best: tuple[float, CutPiece, list[int]] | None = None
        for across in (False, True):
            if (across and ways == "rip") or (not across and ways == "cross"):
                continue
            cuts, used = Filling(self, stock.turned() if across else stock, value, demand, across).fill()
            gain = sum(value[at] * many for at, many in enumerate(used) if many)
            if best is None or gain > best[0]:
                if across:
                    cuts = [(y, x, part, width, length) for x, y, part, length, width in cuts]
                best = (gain, CutPiece(stock.at, cuts), used)
        assert best is not None
        return best[1], best[2]

    def cheapest(self, pieces: list[CutPiece], left: dict[int, int | None]) -> None:
        """Change each piece for the cheapest stock that still holds its cuts beside its defects and is left.

        Args:
            pieces: Pieces of stock with their cuts.
            left: How many of each kind of stock are left; None for no limit.
        """
        for piece in pieces:
            if not piece.cuts:
                continue
            for other in sorted(self.stock, key=lambda each: each.price):
                if other.price >= self.price[piece.stock]:
                    break
                count = left[other.at]
                if count != 0 and self._holds(other, piece.cuts):
                    back = left[piece.stock]
                    left[piece.stock] = None if back is None else back + 1
                    left[other.at] = None if count is None else count - 1
                    piece.stock = other.at
                    break

    def _holds(self, stock: StockInTenths, cuts: Sequence[tuple[int, int, int, int, int]]) -> bool:
        """Return whether a stock holds the same cuts, beside its defects."""
        for x, y, part, length, width in cuts:
            if x + length > stock.length or y + width > stock.width:
                return False
            for (x0, y0, x1, y1), rank in zip(stock.holes, stock.ranks, strict=True):
                if rank <= self.clear[part] and x < x1 and x0 < x + length and y < y1 and y0 < y + width:
                    return False
        return True

    def correct(self, worth: dict[int, float], pieces: list[CutPiece]) -> None:
        """Raise the worth of parts that lie on wasteful pieces: the next plan cuts them first.

        Args:
            worth: What each part is worth, hundredths of the money.
            pieces: Pieces of stock with their cuts.
        """
        total: dict[int, float] = {}
        many: dict[int, int] = {}
        for piece in pieces:
            area = sum(length * width for _, _, _, length, width in piece.cuts)
            stock = self.stock[piece.stock]
            waste = stock.length * stock.width / max(area, 1)
            for _, _, part, length, width in piece.cuts:
                total[part] = total.get(part, 0.0) + length * width * min(waste, 3.0)
                many[part] = many.get(part, 0) + 1
        for part, each in total.items():
            worth[part] = MEMORY * worth[part] + (1 - MEMORY) * each / many[part]

    def plan(self, pieces: Sequence[CutPiece], bound: float, watch: Deadline) -> CutPlan:
        """Return the plan in mm, from the stock's corner.

        Args:
            pieces: Pieces of stock with their cuts.
            bound: What no plan can cost less than, in the job's money.
            watch: The time that there is, who may stop it, and whom to tell.
        """
        cuts: list[Cut] = []
        index: dict[int, int] = {}
        done = [0] * len(self.demand)
        for piece in sorted(pieces, key=lambda each: each.stock):
            stock = self.problem.stock[piece.stock]
            number = index.get(piece.stock, 0)
            index[piece.stock] = number + 1
            for x, y, at, length, _ in sorted(piece.cuts):
                part = self.problem.parts[at]
                turned = length != self.sizes[at][0]
                size = (part.width, part.length) if turned else (part.length, part.width)
                cuts.append(Cut(stock.name, number, part.name, (x + self.trim) / SCALE, (y + self.side) / SCALE, *size))
                done[at] += 1
        left = tuple(
            (part.name, part.quantity - many)
            for part, many in zip(self.problem.parts, done, strict=True)
            if many < part.quantity
        )
        cost = round(sum(self.problem.stock[at].price * many for at, many in index.items()), 6)
        used = tuple((self.problem.stock[at].name, many) for at, many in sorted(index.items()))
        return CutPlan(cost, min(bound, cost) if not left else 0.0, tuple(cuts), left, used, watch.gone)
