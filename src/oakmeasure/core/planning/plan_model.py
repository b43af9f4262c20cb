"""The plan of a job's wood as data: what is wanted, what it comes out of, where it lies, what is left."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from oakmeasure.core.cutting.model import CutKind, CutPlan, Defect, Problem
from oakmeasure.core.document.species import stuff
from oakmeasure.core.document.stock import Board, Section, SheetStock
from oakmeasure.core.leaf.part import Part


@dataclass(frozen=True, slots=True)
class Wanted:
    """One piece that is to be cut, mm, rough. strip: of a part that is glued up of several."""

    leaf: str
    """Id of the leaf."""
    leaf_name: str
    """Name of the leaf."""
    part: Part
    """The part."""
    name: str
    """What the piece is called on the plan."""
    length: float
    """Length to be sawn, mm."""
    width: float
    """Width to be sawn, mm."""
    clear: int
    """Rank of the defects that it must keep off, and of all below."""

    @property
    def mark(self) -> str:
        """Return its number in the cut list of its leaf."""
        return self.part.mark


@dataclass(frozen=True, slots=True)
class Source:
    """A board, section or sheet of the rack."""

    item: Board | Section | SheetStock
    """The entry of the stock list."""
    at: int
    """Its place in its list of the job; −1 for a sheet of the usual size."""
    price: float
    """Price of one piece, in the job's money."""

    @property
    def name(self) -> str:
        """Return its label, or its kind and number."""
        label = getattr(self.item, "label", "")
        word = {Board: "board", Section: "section", SheetStock: "sheet"}[type(self.item)]
        return label or (f"{word} {self.at + 1}" if self.at >= 0 else word)

    @property
    def is_owned(self) -> bool:
        """Whether it is on the rack, not at the yard."""
        return self.item.quantity is not None


@dataclass(frozen=True, slots=True)
class PlacedPiece:
    """A piece on its board, mm from the board's corner; as it lies."""

    wanted: Wanted
    """The piece."""
    x: float
    """From the stock's head end, mm."""
    y: float
    """From the stock's lower edge, mm."""
    length: float
    """Along the stock, mm."""
    width: float
    """Across the stock, mm."""


@dataclass(frozen=True, slots=True)
class Offcut:
    """What is left of a board in one rectangle that is worth keeping, mm."""

    x: float
    """From the stock's head end, mm."""
    y: float
    """From the stock's lower edge, mm."""
    length: float
    """Along the stock, mm."""
    width: float
    """Across the stock, mm."""


@dataclass(frozen=True, slots=True)
class CutStock:
    """One board, bar or sheet with what is cut from it."""

    source: Source
    """The piece of stock."""
    number: int
    """Among those alike."""
    pieces: tuple[PlacedPiece, ...]
    """What is cut from it."""
    offcuts: tuple[Offcut, ...] = ()
    """What is left of it."""


@dataclass(frozen=True, slots=True)
class Lot:
    """Parts of one kind of stock."""

    kind: CutKind
    """How it is cut: bars, boards or sheets."""
    made_of: str
    """What the stock is called."""
    thickness: float
    """Thickness of the finished parts, mm."""
    width: float
    """Width of a bar, mm; 0 for boards and sheets."""
    problem: Problem
    """For the solvers."""
    wanted: Mapping[str, tuple[Wanted, ...]]
    """By the name of an item, those that are alike."""
    sources: Mapping[str, Source]
    """By the name of a stock."""
    laid: Mapping[str, tuple[PlacedPiece, ...]] = field(default_factory=dict)
    """Pieces that are pinned, by the name of the stock they are pinned to."""
    rest: Mapping[str, tuple[str, Remnant]] = field(default_factory=dict)
    """What is left of a pinned board, by the name of its stock: where it lies on the board."""
    sunk: float = 0.0
    """What boards that are pinned cost already, in the job's money."""

    @property
    def title(self) -> str:
        """Return what it is of, in words."""
        return stuff(self.made_of).name


@dataclass(frozen=True, slots=True)
class Needs:
    """All lots of a job, and the parts that no stock of the rack or the yard is thick enough for, with the reason."""

    lots: tuple[Lot, ...]
    """Parts of one kind of stock together."""
    homeless: tuple[tuple[Wanted, str], ...] = ()
    """Parts that no stock can hold, each with the reason."""


@dataclass(frozen=True, slots=True)
class LotPlan:
    """A lot with the plan that was found."""

    lot: Lot
    """What was to be cut."""
    plan: CutPlan
    """The plan as the search gave it."""
    stock: tuple[CutStock, ...]
    """Each piece of stock with its cuts."""
    left: tuple[tuple[Wanted, int], ...] = ()
    """Parts that found no stock, with how many."""

    @property
    def cost(self) -> float:
        """Return what its stock costs, that of pinned boards too."""
        return self.plan.cost + self.lot.sunk

    @property
    def bound(self) -> float:
        """Return what it cannot cost less than; the pinned boards are taken in any case."""
        return self.plan.bound + self.lot.sunk


@dataclass(frozen=True, slots=True)
class JobPlan:
    """The plans of all lots."""

    lots: tuple[LotPlan, ...]
    """The plan of each lot."""
    homeless: tuple[tuple[Wanted, str], ...] = ()
    """Parts that no stock can hold, each with the reason."""

    @property
    def cost(self) -> float:
        """Return what all stock costs that is taken."""
        return sum(each.cost for each in self.lots)

    @property
    def bound(self) -> float:
        """Return what no plan of all of it can cost less than."""
        return sum(each.bound for each in self.lots)

    @property
    def gap(self) -> float:
        """Return how much of the cost a better plan could save at the most, 0 to 1."""
        return max(0.0, 1 - self.bound / self.cost) if self.cost > 0 else 0.0

    @property
    def is_least(self) -> bool:
        """Whether each lot is proven to be the least possible."""
        return all(each.plan.is_least for each in self.lots)

    @property
    def is_whole(self) -> bool:
        """Whether every part has its place."""
        return not self.homeless and not any(each.left for each in self.lots)


@dataclass(frozen=True, slots=True)
class Remnant:
    """A rectangle of a board, where it lies, with the defects in it, from its own corner; mm."""

    x: float
    """From the stock's head end, mm."""
    y: float
    """From the stock's lower edge, mm."""
    length: float
    """Along the stock, mm."""
    width: float
    """Across the stock, mm."""
    defects: tuple[Defect, ...] = ()
    """What lies in it that parts must keep off."""

    def part_of(self, x: float, y: float, length: float, width: float) -> Remnant:
        """Return a rectangle of it; x, y from its own corner.

        Args:
            x: From the remnant's own corner along the stock, mm.
            y: From the remnant's own corner across the stock, mm.
            length: Along the stock, mm.
            width: Across the stock, mm.
        """
        inside = []
        for each in self.defects:
            x0, x1 = max(each.x, x), min(each.x + each.length, x + length)
            y0, y1 = max(each.y, y), min(each.y + each.width, y + width)
            if x1 > x0 and y1 > y0:
                inside.append(Defect(each.board, x0 - x, y0 - y, x1 - x0, y1 - y0, each.rank))
        return Remnant(self.x + x, self.y + y, length, width, tuple(inside))
