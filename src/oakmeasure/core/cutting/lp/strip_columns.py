"""Rows and columns of the programme: how stock is ripped, and what lies in the spans and slots of its strips."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.base import linear_programme
from oakmeasure.core.cutting.lp.knapsack import Way
from oakmeasure.core.cutting.two_d.exact_fill import CutAt
from oakmeasure.core.cutting.two_d.layouts import StripLayout
from oakmeasure.core.cutting.two_d.slots import SLOT

if TYPE_CHECKING:
    from oakmeasure.core.cutting.two_d.stock_assignment import Shop

DEAR = 4.0  # times what its share of the dearest stock costs, a part is bought at where it finds no place
PAIRED = 10  # widths of parts, of which any two side by side make a strip too,
PAIRED_UP_TO = 800  # in lists of so many parts
Span = tuple[int, int, int, int]  # frame, length, width of the strip, level of its wood
Slot = tuple[int, int, int, int]  # frame, along, width of the strip, level of its wood
Strip = tuple[int, int]  # y, width


@dataclass(frozen=True, slots=True)
class StripFrame:
    """Stock as it lies when strips run along it, or across it."""

    across: bool
    """Whether strips lie across the stock."""
    lies: tuple[Way, ...]
    """How parts may lie in its strips."""
    layouts: dict[int, StripLayout]
    """How strips lie, by the kind of stock."""
    longest: int
    """The longest span, tenths of a mm."""
    widest: int
    """The widest strip, tenths of a mm."""
    large_first: tuple[Way, ...]
    """Parts as they may lie, the largest first."""
    pairs: tuple[int, ...]
    """Widths of strips beside those of the parts."""


@dataclass(frozen=True, slots=True)
class Columns:
    """What was made so far, each with its place in the programme."""

    layouts: dict[tuple[int, int, tuple[Strip, ...]], int]
    """Column of each layout of strips."""
    fills: dict[tuple[Span, tuple[Way, ...]], int]
    """Column of each fill of a span."""
    stacks: dict[tuple[Slot, tuple[Way, ...]], int]
    """Column of each stack in a slot."""


class StripColumns:
    """The columns of one problem, or of a part of it.

    demand: of every part. stock: how many of each kind, None for as many as needed. dear: times its share of the
    dearest stock that a part is bought at. ways: whether strips lie across the stock; all that the problem allows
    where none is given.
    """

    def __init__(
        self,
        shop: Shop,
        demand: Sequence[int],
        stock: dict[int, int | None],
        *,
        dear: float = DEAR,
        ways: Sequence[bool] = (),
    ) -> None:
        self.shop, self.demand, self.stock = shop, list(demand), dict(stock)
        self.parts = [at for at in shop.fits if demand[at]]
        self.frames = [self._frame(across) for across in ways or shop.ways]
        self.programme = linear_programme.Programme((), (), goes_on=True)
        self.cost_row = self.programme.row(-math.inf, math.inf)
        self.part_row = {at: self.programme.row(float(demand[at]), math.inf) for at in self.parts}
        self.stock_row = {
            at: self.programme.row(-math.inf, float(count)) for at, count in stock.items() if count is not None
        }
        self.span_row: dict[Span, int] = {}
        self.slot_row: dict[Slot, int] = {}
        self.made = Columns({}, {}, {})
        self.bought: dict[int, int] = {}
        self.dear: dict[int, float] = {}
        self.sold: list[int] = []  # columns
        rate = dear * max((shop.rate[at] for at in stock), default=1.0)
        for at in self.parts:
            cost = rate * (shop.sizes[at][0] + shop.kerf) * (shop.sizes[at][1] + shop.kerf) + 1.0
            self.bought[at] = self.programme.add(cost, {self.part_row[at]: 1.0, self.cost_row: cost})
            self.dear[at] = cost
        # A part that may hold a knot never reaches from it into clear wood here: plans may be cheaper, so no bound.
        self.proves = len(shop.levels) == 1 and all(
            layout.exact for frame in self.frames for layout in frame.layouts.values()
        )
        self.is_free = True  # nothing is held: the prices make a bound
        self.bound, self.value, self.rounds = 0.0, math.inf, 0
        self.far: dict[int, float] = {}  # how much less than its price each kind of stock was worth, of it
        self.center: list[float] = []  # worths of the parts that gave that bound

    def _frame(self, across: bool) -> StripFrame:
        shop = self.shop
        stocks = [shop.stock[at].turned() if across else shop.stock[at] for at in self.stock]
        longest, widest = max(each.length for each in stocks), max(each.width for each in stocks)
        lies = []
        for at in self.parts:
            lies += [Way(at, along, wide) for along, wide in shop.lies(at, longest, widest, across=across)]
        lies.sort(key=lambda way: (way.across, -way.along, way.part))
        pairs = self._pairs(lies, widest)
        widths = sorted({*pairs, *(way.across for way in lies)})
        return StripFrame(
            across,
            tuple(lies),
            {each.at: StripLayout(each, widths, shop.kerf) for each in stocks},
            longest,
            widest,
            tuple(sorted(lies, key=lambda way: -way.along * way.across)),
            pairs,
        )

    def _pairs(self, lies: Sequence[Way], widest: int) -> tuple[int, ...]:
        """Return how wide two parts of the widths that are wanted most are side by side: strips may be so wide, too."""
        if self.shop.stages < 3 or sum(self.demand) > PAIRED_UP_TO:
            return ()
        wanted: Counter[int] = Counter()
        for way in lies:
            wanted[way.across] += self.demand[way.part]
        some, k = [wide for wide, _ in wanted.most_common(PAIRED)], self.shop.kerf
        return tuple({a + b + k for a in some for b in some if a + b + k <= widest})

    def add_layout(self, at: int, frame: int, strips: Sequence[Strip]) -> bool:
        """Add a way of ripping a piece of stock; return whether it is new.

        Args:
            at: Number of the kind of stock, from 0.
            frame: 0 for strips along the stock, 1 for strips across it.
            strips: Strips as (from, width), tenths of a mm.
        """
        key = (at, frame, tuple(strips))
        if key in self.made.layouts or not strips:
            return False
        cost = float(self.shop.price[at])
        entries = {self.cost_row: cost}
        for span, many in self.spans(at, frame, strips).items():
            if span not in self.span_row:
                self.span_row[span] = self.programme.row(-math.inf, 0.0)
            entries[self.span_row[span]] = -float(many)
        if at in self.stock_row:
            entries[self.stock_row[at]] = 1.0
        self.made.layouts[key] = self.programme.add(cost, entries)
        return True

    def spans(self, at: int, frame: int, strips: Sequence[Strip]) -> Counter[Span]:
        """Return the spans of a piece of stock that is ripped so, with how many there are of each.

        Args:
            at: Number of the kind of stock, from 0.
            frame: 0 for strips along the stock, 1 for strips across it.
            strips: Strips as (from, width), tenths of a mm.
        """
        layout = self.frames[frame].layouts[at]
        return Counter((frame, b - a, wide, level) for y, wide in strips for a, b, level in layout.free(y, wide))

    def add_fill(self, span: Span, lying: Sequence[Way]) -> bool:
        """Add what may lie in a span, parts or slots; return whether it is new.

        Args:
            span: The span: its frame, its width and what lies in it.
            lying: What lies in it, and how.
        """
        key = (span, tuple(sorted(lying, key=lambda way: (-way.along, way.across, way.part))))
        if key in self.made.fills or not lying:
            return False
        entries = {self.span_row[span]: 1.0}
        for way, many in Counter(lying).items():
            row = self._slot(span, way) if way.part == SLOT else self.part_row[way.part]
            entries[row] = entries.get(row, 0.0) + (-many if way.part == SLOT else many)
        self.made.fills[key] = self.programme.add(0.0, entries)
        return True

    def _slot(self, span: Span, way: Way) -> int:
        slot = (span[0], way.along, way.across, span[3])
        if slot not in self.slot_row:
            self.slot_row[slot] = self.programme.row(-math.inf, 0.0)
        return self.slot_row[slot]

    def add_stack(self, slot: Slot, lying: Sequence[Way]) -> bool:
        """Add what may lie side by side in a slot; return whether it is new.

        Args:
            slot: The slot: its frame, its length and what lies in it.
            lying: What lies in it, and how.
        """
        key = (slot, tuple(sorted(lying, key=lambda way: (-way.across, way.part))))
        if key in self.made.stacks or not lying:
            return False
        entries = {self.slot_row[slot]: 1.0}
        for way in lying:
            entries[self.part_row[way.part]] = entries.get(self.part_row[way.part], 0.0) + 1.0
        self.made.stacks[key] = self.programme.add(0.0, entries)
        return True

    def add_piece(self, at: int, frame: int, strips: Sequence[Strip], cuts: Sequence[CutAt]) -> None:
        """Add the way in which a piece is cut, in two stages.

        Args:
            at: Number of the kind of stock, from 0.
            frame: 0 for strips along the stock, 1 for strips across it.
            strips: Strips as (from, width), tenths of a mm.
            cuts: In the frame.
        """
        self.add_layout(at, frame, strips)
        layout = self.frames[frame].layouts[at]
        for y, wide in strips:
            for a, b, level in layout.free(y, wide):
                lying = [Way(part, along, across) for x, up, part, along, across in cuts if up == y and a <= x < b]
                self.add_fill((frame, b - a, wide, level), lying)

    def allow(self) -> None:
        """Tell the programme what is wanted and what stock there is, after `demand` or `stock` were changed."""
        for at, row in self.part_row.items():
            self.programme.limit(row, float(self.demand[at]), math.inf)
        for at, row in self.stock_row.items():
            self.programme.limit(row, -math.inf, float(self.stock[at] or 0))
