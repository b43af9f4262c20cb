"""What is to be cut out of what, and the plan that says how: bars, boards with defects, sheets.

Sizes are mm. Inside the solvers they are whole tenths: parts rounded up, stock rounded down, so that no plan cuts more
than there is. x runs along the stock from its corner, y across.
"""

from __future__ import annotations

import math
import time
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field
from enum import StrEnum

from oakmeasure.core.document.first_cut import FirstCut

SCALE = 10  # solver units to a mm
CENT = 100  # to a unit of money
LARGE = 60_000  # hundredths; above it one piece of stock more or less is within the gap anyway


class CutKind(StrEnum):
    """What the stock is."""

    BARS = "bars"
    BOARDS = "boards"
    SHEETS = "sheets"


@dataclass(frozen=True, slots=True)
class StockItem:
    """A kind of stock. quantity None: as many as needed. width 0: a bar."""

    name: str
    """Its name, as it is shown."""
    length: float
    """Length, mm."""
    width: float
    """Width, mm."""
    quantity: int | None
    """How many there are; None for as many as wanted."""
    price: float
    """Price of one, in the job's money."""


@dataclass(frozen=True, slots=True)
class PartItem:
    """Parts that are alike."""

    name: str
    """Its name, as it is shown."""
    length: float
    """Length, mm."""
    width: float
    """Width, mm."""
    quantity: int
    """How many are wanted."""
    turns: bool = False
    """May be turned across the stock's length; else its grain runs along it."""
    clear: int = 2
    """How clean its wood must be: 0 sound, 1 clear on the face that shows, 2 clear all round."""


@dataclass(frozen=True, slots=True)
class Defect:
    """A rectangle of a stock that no part may hold whose `clear` is as high as its rank or higher.

    Each piece of that stock has it. rank 0: a split, metal; 1: a knot, sapwood; 2: one on the face that does not
    show.
    """

    board: str
    """Name of the stock."""
    x: float
    """From the stock's head end, mm."""
    y: float
    """From the stock's lower edge, mm."""
    length: float
    """Length, mm."""
    width: float
    """Width, mm."""
    rank: int = 0
    """What it spoils: 0 for a split or metal, 1 for a knot or sapwood, 2 for one on the face that does not show.
    """


@dataclass(frozen=True, slots=True)
class Problem:
    """Trimming is no stage."""

    kind: CutKind
    """Bars, boards or sheets."""
    stock: tuple[StockItem, ...]
    """The stock that there is."""
    parts: tuple[PartItem, ...]
    """The parts that are wanted."""
    defects: tuple[Defect, ...] = ()
    """What parts must keep off."""
    kerf: float = 3.2
    """Width of the saw's cut, mm."""
    trim: float = 0.0
    """Taken off every edge of a sheet, or both ends of a board or bar, before anything is cut, mm."""
    first: FirstCut | None = None
    """The first cuts; boards are ripped, sheets cut either way where nothing is said."""
    stages: int | None = None
    """2, strips and what lies one behind the other in them, as boards are; 3, several side by side in them too.
    """

    @property
    def cut_first(self) -> FirstCut:
        """Return what is cut first."""
        return self.first or (FirstCut.RIP if self.kind is CutKind.BOARDS else FirstCut.EITHER)

    @property
    def cut_stages(self) -> int:
        """Return in how many stages."""
        return self.stages or (2 if self.kind is CutKind.BOARDS else 3)


@dataclass(frozen=True, slots=True)
class Cut:
    """A part on a piece of stock: index counts the pieces of that stock."""

    stock: str
    """Name of the stock."""
    index: int
    """Which piece of that stock, from 0."""
    part: str
    """Name of the part."""
    x: float
    """From the stock's head end, mm."""
    y: float
    """From the stock's lower edge, mm."""
    length: float
    """Along the stock as it lies, mm."""
    width: float
    """Across the stock as it lies, mm."""


@dataclass(frozen=True, slots=True)
class CutPlan:
    """What is cut from which stock."""

    cost: float
    """Cost of the stock that is taken, in the job's money."""
    bound: float
    """What no plan of all parts can cost less than, in the job's money."""
    cuts: tuple[Cut, ...]
    """Every part with its place."""
    left: tuple[tuple[str, int], ...] = ()
    """Parts that found no stock, with how many."""
    used: tuple[tuple[str, int], ...] = ()
    """Pieces of each stock."""
    seconds: float = 0.0
    """Seconds that it took."""

    @property
    def gap(self) -> float:
        """Return how much of its cost a better plan could save at the most, 0 to 1."""
        return max(0.0, (self.cost - self.bound) / self.cost) if self.cost > 0 else 0.0

    @property
    def is_least(self) -> bool:
        """Return whether no plan can cost less: proven."""
        return not self.left and self.cost <= self.bound + 0.5 / CENT


@dataclass(slots=True)
class Deadline:
    """How long a search may go on, who may stop it, and who is told of every better plan."""

    seconds: float
    """How long there is, s."""
    stop: Callable[[], bool] | None = None
    """Says whether the person has stopped it; None for nobody."""
    tell: Callable[[CutPlan], None] | None = None
    """Is told of each better plan; None for nobody."""
    clock: Callable[[], float] = time.monotonic
    """Tells seconds and only runs on; one that counts work makes a search the same on a busy machine."""
    spent: float = 0.0
    """Seconds that had gone when it began."""
    _began: float = field(init=False)

    def __post_init__(self) -> None:
        self._began = self.clock() - self.spent

    @property
    def left(self) -> float:
        """Return the seconds that are left."""
        return self.seconds - self.gone

    @property
    def gone(self) -> float:
        """Return the seconds that have gone."""
        return self.clock() - self._began

    def over(self) -> bool:
        """Return whether the search must end."""
        return self.left <= 0 or (self.stop is not None and self.stop())


def tenths(mm: float, *, up: bool) -> int:
    """Return a length in solver units, rounded up or down; what a float cannot hold counts for nothing.

    Args:
        mm: The length, mm.
        up: Whether it is rounded up, else down.
    """
    scaled = mm * SCALE
    near = round(scaled)
    if abs(scaled - near) < 1e-6:
        return near
    return math.ceil(scaled) if up else math.floor(scaled)


def cents(price: float) -> int:
    """Return a price in whole hundredths.

    Args:
        price: The price, in the job's money.
    """
    return round(price * CENT)


def shares(count: int) -> Iterator[int]:
    """Yield the sizes of bundles that make up every number up to a count: each is taken whole or not at all.

    Args:
        count: How many there are.

    >>> list(shares(10))
    [1, 2, 4, 3]
    """
    share = 1
    while count > 0:
        take = min(share, count)
        count -= take
        share *= 2
        yield take


def _by_material(stock: Sequence[tuple[int, int, int | None]], need: int) -> float:
    """Return what the material alone costs at the least, parts of a piece allowed."""
    cost = 0.0
    for price, size, count in sorted(stock, key=lambda each: each[0] / max(each[1], 1)):
        whole = need / size if size > 0 else math.inf
        take = whole if count is None else min(count, whole)
        cost += take * price
        need -= round(take * size)
        if need <= 0:
            break
    return cost


def least_cost(stock: Sequence[tuple[int, int, int | None]], *, need: int, at_least: float, most: int) -> int:
    """Return the least cost of whole pieces of stock, hundredths, that reaches `at_least` and holds `need` in all.

    Exact: the most size that every whole cost can buy, by dynamic programming.

    Args:
        stock: Price, size and how many of each there are.
        need: What they must hold in all, in units of the size.
        at_least: The least cost that counts, hundredths.
        most: Cost of a plan that is known, hundredths; no more is tried.

    Raises:
        nothing: ; returns `most` where no combination below it does.
    """
    import numpy as np

    if most <= 0:
        return most
    if most > LARGE:
        step = math.gcd(*(price for price, _, _ in stock)) or 1  # every cost of whole pieces is a multiple of it
        return min(most, step * math.ceil((max(at_least, _by_material(stock, need)) - 1e-6) / step))
    best = np.full(most + 1, -1, dtype=np.int64)
    best[0] = 0
    for price, size, count in stock:
        if price <= 0:
            return min(most, max(0, math.ceil(at_least - 1e-6)))
        pieces = most // price if count is None else min(count, most // price)
        for take in shares(pieces):
            cost, gain = take * price, take * size
            if cost > most:
                continue
            with_it = np.where(best[: most + 1 - cost] >= 0, best[: most + 1 - cost] + gain, -1)
            best[cost:] = np.maximum(best[cost:], with_it)
    enough = np.nonzero(best >= need)[0]
    enough = enough[enough >= at_least - 1e-3]
    return int(enough[0]) if len(enough) else most
