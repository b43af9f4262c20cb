"""A whole plan of sheets at once, however long the list: parts on strips as they come, the widest first.

Source: first fit by decreasing height for two-stage packing, Coffman, Garey, Johnson and Tarjan 1980.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.cutting.in_tenths import CutPiece

if TYPE_CHECKING:
    from oakmeasure.core.cutting.in_tenths import StockInTenths
    from oakmeasure.core.cutting.two_d.stock_assignment import Shop

OPEN = 30  # strips, and sheets, that are looked at for a place


@dataclass(slots=True)
class _Sheet:
    """A sheet in the frame of its strips."""

    stock: StockInTenths
    piece: CutPiece
    y: int = 0
    """Where the next strip may start."""


@dataclass(slots=True)
class _ShelfStrip:
    """A strip of a sheet."""

    sheet: _Sheet
    y: int
    width: int
    x: int = 0
    """Where the next part may start."""


class _Shelves:
    """The sheets that were begun, and those that are left."""

    def __init__(self, shop: Shop, left: dict[int, int | None], *, across: bool) -> None:
        cheap = sorted(shop.stock, key=lambda each: shop.rate[each.at])
        self.frames = [each.turned() if across else each for each in cheap]
        self.left = dict(left)
        self.kerf = shop.kerf
        self.sheets: list[_Sheet] = []
        self.strips: list[_ShelfStrip] = []

    def strip(self, along: int, wide: int) -> _ShelfStrip | None:
        """Return a strip with room for such a part, a new one where need be; None where no stock is left for it."""
        for strip in self.strips[-OPEN:]:
            if strip.width >= wide and strip.x + along <= strip.sheet.stock.length:
                return strip
        sheet = self._sheet(along, wide)
        if sheet is None:
            return None
        self.strips.append(_ShelfStrip(sheet, sheet.y, wide))
        sheet.y += wide + self.kerf
        return self.strips[-1]

    def _sheet(self, along: int, wide: int) -> _Sheet | None:
        for sheet in self.sheets[-OPEN:]:
            if sheet.y + wide <= sheet.stock.width and along <= sheet.stock.length:
                return sheet
        for stock in self.frames:
            count = self.left[stock.at]
            if count != 0 and along <= stock.length and wide <= stock.width:
                self.left[stock.at] = None if count is None else count - 1
                self.sheets.append(_Sheet(stock, CutPiece(stock.at)))
                return self.sheets[-1]
        return None


def shelved(shop: Shop, demand: Sequence[int], left: dict[int, int | None]) -> tuple[list[CutPiece], list[int]]:
    """Return pieces that cut what is in demand in two stages, and how many of each part found no place.

    They are cut out of the stock that is left, which has no defects.

    Args:
        shop: The problem in whole tenths.
        demand: How many of each part are wanted.
        left: How many of each kind of stock are left; None for no limit.
    """
    across = shop.ways[0]
    shelves = _Shelves(shop, left, across=across)
    longest, widest = max(each.length for each in shelves.frames), max(each.width for each in shelves.frames)
    rest = list(demand)
    lying = []
    for at in shop.fits:
        ways = shop.lies(at, longest, widest, across=across)
        lying += [(*min(ways, key=lambda way: way[1]), at)] if ways else []
    for along, wide, at in sorted(lying, key=lambda each: (-each[1], -each[0])):
        while rest[at] and (strip := shelves.strip(along, wide)) is not None:
            x, y, length, width = strip.x, strip.y, along, wide
            if across:
                x, y, length, width = y, x, width, length
            strip.sheet.piece.cuts.append((x, y, at, length, width))
            strip.x += along + shop.kerf
            rest[at] -= 1
    return [each.piece for each in shelves.sheets], rest
