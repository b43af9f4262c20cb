"""Boards and sheets in whole tenths, and the making of one plan: piece after piece, each cut as well as can be."""

from __future__ import annotations

import math
import random
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace

from oakmeasure.core.cutting.lp.knapsack import Filling
from oakmeasure.core.cutting.model import (
    SCALE,
    Cut,
    CutKind,
    CutPlan,
    Defect,
    First,
    Problem,
    Watch,
    cents,
    least_cost,
    tenths,
)
from oakmeasure.core.cutting.two_d import exact_fill

NOISE = 0.06  # of a part's worth, from plan to plan
MEMORY = 0.75  # of a part's worth that stays from plan to plan
MANY_KINDS, QUICKEST = 600, 60  # kinds of parts from which that grid is so many tenths
MANY, QUICK = 150, 20  # parts from which the first plan is made on a grid of so many tenths
ASKED, ASKED_FIRST = 6, 3  # kinds of stock that are tried for a piece


@dataclass(frozen=True, slots=True)
class Stock:
    """A kind of stock, whole tenths, without its trim: where things may lie. holes: defects as x0, y0, x1, y1.

    ranks: of the holes. levels: how clean the parts must be, each that there is, the highest last.
    """

    at: int
    length: int
    width: int
    price: int
    count: int | None
    holes: tuple[tuple[int, int, int, int], ...] = ()
    ranks: tuple[int, ...] = ()
    levels: tuple[int, ...] = (2,)
    kerf: int = 0

    def turned(self) -> Stock:
        """Return it with length and width changed: strips then lie across it."""
        holes = tuple((y0, x0, y1, x1) for x0, y0, x1, y1 in self.holes)
        return replace(self, length=self.width, width=self.length, holes=holes)


@dataclass(slots=True)
class Piece:
    """One piece of stock with what is cut from it, as x, y, part, length, width in tenths within the trim."""

    stock: int
    cuts: list[tuple[int, int, int, int, int]] = field(default_factory=list)


class Shop:
    """The problem in whole tenths, and the making of one plan."""

    def __init__(self, problem: Problem) -> None:
        self.problem = problem
        self.ways = {First.RIP: (False,), First.CROSS: (True,), First.EITHER: (False, True)}[problem.cut_first]
        self.manners = {First.RIP: ("rip",), First.CROSS: ("cross",), First.EITHER: ("rip", "cross", "both")}[
            problem.cut_first
        ]
        self.stages = problem.cut_stages
        self.kerf, self.trim = tenths(problem.kerf, up=True), tenths(problem.trim, up=True)
        side = self.trim if problem.kind is CutKind.SHEETS else 0  # boards are trimmed at their ends
        self.side = side
        self.clear = [each.clear for each in problem.parts]
        self.levels = tuple(sorted(set(self.clear))) or (2,)
        self.stock = [self._stock(at) for at in range(len(problem.stock))]
        self.price = [each.price for each in self.stock]
        self.rate = {each.at: each.price / max(self.room(each), 1) for each in self.stock}
        self.sizes = [(tenths(each.length, up=True), tenths(each.width, up=True)) for each in problem.parts]
        self.demand = [each.quantity for each in problem.parts]
        self.turns = [each.turns for each in problem.parts]
        self.fits = [at for at in range(len(problem.parts)) if any(self.goes(at, each) for each in self.stock)]
        self.is_large = sum(self.demand) > MANY
        many_kinds = len(self.fits) > MANY_KINDS
        self.grid = (QUICKEST if many_kinds else QUICK) if self.is_large else 1
        self.homeless = sum(self.demand) - sum(self.demand[at] for at in self.fits)

    def _stock(self, at: int) -> Stock:
        """Return a kind of stock with the defects that any part must keep off."""
        each = self.problem.stock[at]
        own = [one for one in self.problem.defects if one.board == each.name and one.rank <= self.levels[-1]]
        long, wide = tenths(each.length, up=False) - 2 * self.trim, tenths(each.width, up=False) - 2 * self.side
        holes, ranks = tuple(self._hole(one) for one in own), tuple(one.rank for one in own)
        return Stock(at, long, wide, cents(each.price), each.quantity, holes, ranks, self.levels, self.kerf)

    def _hole(self, defect: Defect) -> tuple[int, int, int, int]:
        x0, y0 = tenths(defect.x, up=False) - self.trim, tenths(defect.y, up=False) - self.side
        x1, y1 = tenths(defect.x + defect.length, up=True), tenths(defect.y + defect.width, up=True)
        return x0, y0, x1 - self.trim, y1 - self.side

    def goes(self, at: int, stock: Stock) -> bool:
        """Return whether a part goes into a piece of stock without regard to its defects."""
        a, b = self.sizes[at]
        return (a <= stock.length and b <= stock.width) or (self.turns[at] and b <= stock.length and a <= stock.width)

    def lies(self, at: int, length: int, width: int, *, across: bool) -> list[tuple[int, int]]:
        """Return how a part may lie in strips of a frame of that length and width: along them and across them. across:
        the strips lie across the stock.
        """
        a, b = self.sizes[at]
        ways = {(b, a) if across else (a, b)} | ({(a, b), (b, a)} if self.turns[at] else set())
        return sorted((along, wide) for along, wide in ways if along <= length and wide <= width)

    def cost(self, pieces: Iterable[Piece]) -> int:
        """Return what pieces cost, hundredths."""
        return sum(self.price[each.stock] for each in pieces)

    def room(self, stock: Stock) -> int:
        """Return what parts with their kerfs may take of a stock: all of it but its defects, a kerf round each off.

        A defect can be cut away with cuts that other parts need too: that much less is taken off, so that the bound
        never promises too much.
        """
        k = self.kerf
        whole = (stock.length + k) * (stock.width + k)
        lost = 0
        hard = [hole for hole, rank in zip(stock.holes, stock.ranks, strict=True) if rank <= self.levels[0]]
        for x0, y0, x1, y1 in _apart(hard):
            wide, high = min(x1, stock.length) - max(x0, 0) - k, min(y1, stock.width) - max(y0, 0) - k
            if wide > 0 and high > 0:
                lost += wide * high
        return max(whole - lost, 0)

    def filled(self, piece: Piece) -> float:
        """Return how much of a piece is parts, 0 to 1."""
        stock = self.stock[piece.stock]
        return sum(length * width for _, _, _, length, width in piece.cuts) / max(stock.length * stock.width, 1)

    def may_win(self, pieces: list[Piece], demand: list[int], left: dict[int, int | None], below: float) -> bool:
        """Return whether the rest can still be cut for so little that the whole costs less than what is known."""
        if math.isinf(below):
            return True
        k = self.kerf
        need = sum(many * (self.sizes[at][0] + k) * (self.sizes[at][1] + k) for at, many in enumerate(demand) if many)
        spare = int(below) - self.cost(pieces)
        if spare <= 0:
            return False
        kinds = [(each.price, self.room(each), left[each.at]) for each in self.stock if left[each.at] != 0]
        return need == 0 or least_cost(kinds, need=need, at_least=0.0, most=spare) < spare

    # --- one plan --------------------------------------------------------------------------------------------

    def whole_plan(
        self,
        worth: dict[int, float],
        ways: str,
        source: random.Random,
        rounds: int,
        watch: Watch | None,
        below: float = math.inf,
    ) -> tuple[list[Piece], list[int]] | None:
        """Return a plan of everything and what it leaves of each part; None for one that cannot cost less than `below`,
        hundredths.
        """
        noise = 0.0 if rounds == 0 else NOISE
        value = {at: each * (1.0 + noise * source.uniform(-1.0, 1.0)) for at, each in worth.items()}
        demand = [count if at in value else 0 for at, count in enumerate(self.demand)]
        left = {each.at: each.count for each in self.stock}
        pieces = self.refill(value, ways, source, demand, left, below, perfect=rounds > 0, watch=watch)
        return None if pieces is None else (pieces, demand)

    def refill(
        self,
        value: dict[int, float],
        ways: str,
        source: random.Random,
        demand: list[int],
        left: dict[int, int | None],
        below: float,
        *,
        perfect: bool,
        watch: Watch | None,
    ) -> list[Piece] | None:
        """Return pieces that cut what is in demand, which goes down, out of the stock that is left, until the watch
        ends it; None where it cannot cost less than `below`, hundredths. perfect: what wastes next to nothing first.
        """
        few = perfect and sum(demand) <= MANY  # a long list is cut well enough as it comes
        pieces: list[Piece] = exact_fill.perfect_pieces(self, demand, left, source, watch) if few else []
        while any(demand):
            if watch is not None and watch.over():
                break
            if not self.may_win(pieces, demand, left, below):
                return None
            found: tuple[float, Piece, list[int]] | None = None
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
                pieces.append(Piece(made.stock, list(made.cuts)))
                for at, many in enumerate(used):
                    demand[at] -= many
                count = left[made.stock]
                if count is not None:
                    left[made.stock] = count - 1
        self.cheapest(pieces, left)
        return pieces

    def _asked(self, left: dict[int, int | None], source: random.Random, *, first: bool) -> list[Stock]:
        """Return the kinds of stock that are tried for the next piece: a few of the good ones."""
        there = [each for each in self.stock if left[each.at] != 0]
        many = ASKED_FIRST if first else ASKED
        if len(there) <= many:
            return there
        good = sorted(there, key=lambda each: self.rate[each.at] * source.uniform(0.8, 1.25))
        return sorted(good[:many], key=lambda each: each.at)

    def _again(self, made: Piece, used: list[int], demand: list[int], left: dict[int, int | None]) -> int:
        """Return how often the same piece is cut at once: half as often as its parts would allow, for long lists."""
        most = min(count // many for count, many in zip(demand, used, strict=True) if many)
        count = left[made.stock]
        most = most if count is None else min(most, count)
        return max(1, most // 2)

    def _filled(self, stock: Stock, value: dict[int, float], demand: list[int], ways: str) -> tuple[Piece, list[int]]:
        """Return one piece of stock cut as well as can be, strips along it or across it, whichever is worth more."""
        best: tuple[float, Piece, list[int]] | None = None
        for across in (False, True):
            if (across and ways == "rip") or (not across and ways == "cross"):
                continue
            cuts, used = Filling(self, stock.turned() if across else stock, value, demand, across).fill()
            gain = sum(value[at] * many for at, many in enumerate(used) if many)
            if best is None or gain > best[0]:
                if across:
                    cuts = [(y, x, part, width, length) for x, y, part, length, width in cuts]
                best = (gain, Piece(stock.at, cuts), used)
        assert best is not None
        return best[1], best[2]

    def cheapest(self, pieces: list[Piece], left: dict[int, int | None]) -> None:
        """Change each piece for the cheapest stock that still holds its cuts beside its defects and is left."""
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

    def _holds(self, stock: Stock, cuts: Sequence[tuple[int, int, int, int, int]]) -> bool:
        """Return whether a stock holds the same cuts, beside its defects."""
        for x, y, part, length, width in cuts:
            if x + length > stock.length or y + width > stock.width:
                return False
            for (x0, y0, x1, y1), rank in zip(stock.holes, stock.ranks, strict=True):
                if rank <= self.clear[part] and x < x1 and x0 < x + length and y < y1 and y0 < y + width:
                    return False
        return True

    def correct(self, worth: dict[int, float], pieces: list[Piece]) -> None:
        """Raise the worth of parts that lie on wasteful pieces: the next plan cuts them first."""
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

    def plan(self, pieces: Sequence[Piece], bound: float, watch: Watch) -> CutPlan:
        """Return the plan in mm, from the stock's corner."""
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


def _apart(holes: Sequence[tuple[int, int, int, int]]) -> list[tuple[int, int, int, int]]:
    """Return the defects that overlap no larger one: what is counted once is enough for a bound."""
    found: list[tuple[int, int, int, int]] = []
    for x0, y0, x1, y1 in sorted(holes, key=lambda each: -(each[2] - each[0]) * (each[3] - each[1])):
        if all(x1 <= a0 or a1 <= x0 or y1 <= b0 or b1 <= y0 for a0, b0, a1, b1 in found):
            found.append((x0, y0, x1, y1))
    return found
