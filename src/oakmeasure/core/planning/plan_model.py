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
    leaf_name: str
    part: Part
    name: str
    length: float
    width: float
    clear: int

    @property
    def mark(self) -> str:
        """Return its number in the cut list of its leaf."""
        return self.part.mark


@dataclass(frozen=True, slots=True)
class Source:
    """A board, section or sheet of the rack. at: its place in its list of the job; −1 for a sheet of the usual size."""

    item: Board | Section | SheetStock
    at: int
    price: float

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
    x: float
    y: float
    length: float
    width: float


@dataclass(frozen=True, slots=True)
class Offcut:
    """What is left of a board in one rectangle that is worth keeping, mm."""

    x: float
    y: float
    length: float
    width: float


@dataclass(frozen=True, slots=True)
class CutStock:
    """One board, bar or sheet with what is cut from it. number: among those alike."""

    source: Source
    number: int
    pieces: tuple[PlacedPiece, ...]
    offcuts: tuple[Offcut, ...] = ()


@dataclass(frozen=True, slots=True)
class Lot:
    """Parts of one kind of stock. problem: for the solvers. wanted: by the name of an item, those that are alike.

    sources: by the name of a stock. laid: pieces that are pinned, by the name of the stock they are pinned to. rest:
    what is left of a pinned board, by the name of its stock: where it lies on the board.
    """

    kind: CutKind
    made_of: str
    thickness: float
    width: float
    problem: Problem
    wanted: Mapping[str, tuple[Wanted, ...]]
    sources: Mapping[str, Source]
    laid: Mapping[str, tuple[PlacedPiece, ...]] = field(default_factory=dict)
    rest: Mapping[str, tuple[str, Remnant]] = field(default_factory=dict)
    sunk: float = 0.0

    @property
    def title(self) -> str:
        """Return what it is of, in words."""
        return stuff(self.made_of).name


@dataclass(frozen=True, slots=True)
class Needs:
    """All lots of a job, and the parts that no stock of the rack or the yard is thick enough for, with the reason."""

    lots: tuple[Lot, ...]
    homeless: tuple[tuple[Wanted, str], ...] = ()


@dataclass(frozen=True, slots=True)
class LotPlan:
    """A lot with the plan that was found."""

    lot: Lot
    plan: CutPlan
    stock: tuple[CutStock, ...]
    left: tuple[tuple[Wanted, int], ...] = ()

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
    homeless: tuple[tuple[Wanted, str], ...] = ()

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
    y: float
    length: float
    width: float
    defects: tuple[Defect, ...] = ()

    def part_of(self, x: float, y: float, length: float, width: float) -> Remnant:
        """Return a rectangle of it; x, y from its own corner."""
        inside = []
        for each in self.defects:
            x0, x1 = max(each.x, x), min(each.x + each.length, x + length)
            y0, y1 = max(each.y, y), min(each.y + each.width, y + width)
            if x1 > x0 and y1 > y0:
                inside.append(Defect(each.board, x0 - x, y0 - y, x1 - x0, y1 - y0, each.rank))
        return Remnant(self.x + x, self.y + y, length, width, tuple(inside))
