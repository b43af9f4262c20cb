"""Boards and sheets in whole tenths of a mm: stock with what it keeps free, parts, and the pieces that are cut."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace

from oakmeasure.core.cutting.model import CutKind, Defect, Problem, cents, least_cost, tenths
from oakmeasure.core.document.first_cut import FirstCut

MANY_KINDS = 600  # kinds of parts from which plans are made on the coarsest grid
QUICKEST = 60  # that grid, tenths
MANY = 150  # parts from which the first plan is made on a grid
QUICK = 20  # that grid, tenths


@dataclass(frozen=True, slots=True)
class StockInTenths:
    """A kind of stock, whole tenths, without its trim: where things may lie."""

    at: int
    """Its place in the problem, from 0."""
    length: int
    """Length, tenths of a mm."""
    width: int
    """Width, tenths of a mm."""
    price: int
    """Price, hundredths of the money."""
    count: int | None
    """How many there are; None for no limit."""
    holes: tuple[tuple[int, int, int, int], ...] = ()
    """Defects as x0, y0, x1, y1."""
    ranks: tuple[int, ...] = ()
    """Rank of each hole."""
    levels: tuple[int, ...] = (2,)
    """How clean the parts must be, each that there is, the highest last."""
    kerf: int = 0
    """Of the saw, tenths of a mm."""

    def turned(self) -> StockInTenths:
        """Return it with length and width changed: strips then lie across it."""
        holes = tuple((y0, x0, y1, x1) for x0, y0, x1, y1 in self.holes)
        return replace(self, length=self.width, width=self.length, holes=holes)


@dataclass(slots=True)
class CutPiece:
    """One piece of stock with what is cut from it, as x, y, part, length, width in tenths within the trim."""

    stock: int
    """Place of the kind of stock, from 0."""
    cuts: list[tuple[int, int, int, int, int]] = field(default_factory=list)
    """Part, x, y, length and width of each, tenths of a mm."""


class Tenths:
    """A problem in whole tenths: parts rounded up and stock down, each with a kerf to spare."""

    def __init__(self, problem: Problem) -> None:
        self.problem = problem
        self.ways = {FirstCut.RIP: (False,), FirstCut.CROSS: (True,), FirstCut.EITHER: (False, True)}[problem.cut_first]
        self.manners = {FirstCut.RIP: ("rip",), FirstCut.CROSS: ("cross",), FirstCut.EITHER: ("rip", "cross", "both")}[
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

    def _stock(self, at: int) -> StockInTenths:
        """Return a kind of stock with the defects that any part must keep off."""
        each = self.problem.stock[at]
        own = [one for one in self.problem.defects if one.board == each.name and one.rank <= self.levels[-1]]
        long, wide = tenths(each.length, up=False) - 2 * self.trim, tenths(each.width, up=False) - 2 * self.side
        holes, ranks = tuple(self._hole(one) for one in own), tuple(one.rank for one in own)
        return StockInTenths(at, long, wide, cents(each.price), each.quantity, holes, ranks, self.levels, self.kerf)

    def _hole(self, defect: Defect) -> tuple[int, int, int, int]:
        x0, y0 = tenths(defect.x, up=False) - self.trim, tenths(defect.y, up=False) - self.side
        x1, y1 = tenths(defect.x + defect.length, up=True), tenths(defect.y + defect.width, up=True)
        return x0, y0, x1 - self.trim, y1 - self.side

    def goes(self, at: int, stock: StockInTenths) -> bool:
        """Return whether a part goes into a piece of stock without regard to its defects.

        Args:
            at: Number of the part, from 0.
            stock: The kind of stock.
        """
        a, b = self.sizes[at]
        return (a <= stock.length and b <= stock.width) or (self.turns[at] and b <= stock.length and a <= stock.width)

    def lies(self, at: int, length: int, width: int, *, across: bool) -> list[tuple[int, int]]:
        """Return how a part may lie in strips of a frame of that length and width: along them and across them.

        Args:
            at: Number of the part, from 0.
            length: Length of the span, tenths of a mm.
            width: Width of the frame, tenths of a mm.
            across: Whether the strips lie across the stock.
        """
        a, b = self.sizes[at]
        ways = {(b, a) if across else (a, b)} | ({(a, b), (b, a)} if self.turns[at] else set())
        return sorted((along, wide) for along, wide in ways if along <= length and wide <= width)

    def cost(self, pieces: Iterable[CutPiece]) -> int:
        """Return what pieces cost, hundredths.

        Args:
            pieces: The pieces of stock.
        """
        return sum(self.price[each.stock] for each in pieces)

    def room(self, stock: StockInTenths) -> int:
        """Return what parts with their kerfs may take of a stock: all of it but its defects, a kerf round each off.

        A defect can be cut away with cuts that other parts need too: that much less is taken off, so that the
        bound never promises too much.

        Args:
            stock: The kind of stock.
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

    def filled(self, piece: CutPiece) -> float:
        """Return how much of a piece is parts, 0 to 1.

        Args:
            piece: The piece of stock with its cuts.
        """
        stock = self.stock[piece.stock]
        return sum(length * width for _, _, _, length, width in piece.cuts) / max(stock.length * stock.width, 1)

    def may_win(self, pieces: list[CutPiece], demand: list[int], left: dict[int, int | None], below: float) -> bool:
        """Return whether the rest can still be cut for so little that the whole costs less than what is known.

        Args:
            pieces: Pieces of stock with their cuts.
            demand: How many of each part are still wanted.
            left: How many of each kind of stock are left; None for no limit.
            below: What is known to be possible, hundredths of the money.
        """
        if math.isinf(below):
            return True
        k = self.kerf
        need = sum(many * (self.sizes[at][0] + k) * (self.sizes[at][1] + k) for at, many in enumerate(demand) if many)
        spare = int(below) - self.cost(pieces)
        if spare <= 0:
            return False
        kinds = [(each.price, self.room(each), left[each.at]) for each in self.stock if left[each.at] != 0]
        return need == 0 or least_cost(kinds, need=need, at_least=0.0, most=spare) < spare


def _apart(holes: Sequence[tuple[int, int, int, int]]) -> list[tuple[int, int, int, int]]:
    """Return the defects that overlap no larger one: what is counted once is enough for a bound."""
    found: list[tuple[int, int, int, int]] = []
    for x0, y0, x1, y1 in sorted(holes, key=lambda each: -(each[2] - each[0]) * (each[3] - each[1])):
        if all(x1 <= a0 or a1 <= x0 or y1 <= b0 or b1 <= y0 for a0, b0, a1, b1 in found):
            found.append((x0, y0, x1, y1))
    return found
