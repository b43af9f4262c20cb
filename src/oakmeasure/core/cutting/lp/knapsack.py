"""Strips in one piece of stock: which widths fill it best together, and what lies in each, by exact knapsacks."""

from __future__ import annotations

import math
from bisect import bisect_left, bisect_right
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from itertools import groupby
from operator import attrgetter
from typing import TYPE_CHECKING

from oakmeasure.core.cutting.model import shares

if TYPE_CHECKING:
    import numpy as np

    from oakmeasure.core.cutting.in_tenths import StockInTenths, Tenths


Run = tuple[int, int, int]  # from, to, and how clean the parts in it may have to be
MOST_KINDS = 240  # of parts, that are tried for one piece
MOST_CELLS = 8_000_000  # of a table; where it would have more, it is on a grid


@dataclass(frozen=True, slots=True)
class Way:
    """A way in which a part may lie in a strip: along it and across it."""

    part: int
    """Place of the part in the problem, from 0."""
    along: int
    """Its length along the strip, tenths of a mm."""
    across: int
    """Its width across the strip, tenths of a mm."""


def _tried(parts: list[int], sizes: Sequence[tuple[int, int]]) -> list[int]:
    """Return the parts that are tried for a piece.

    Of a list of many kinds these are the largest, and as many of the others, evenly spread over their sizes. A
    piece is filled as well out of them, and a long list is cut three times as fast.
    """
    if len(parts) <= MOST_KINDS:
        return parts
    large_first = sorted(parts, key=lambda at: -sizes[at][0] * sizes[at][1])
    half = MOST_KINDS // 2
    return [*large_first[:half], *large_first[half :: -(-(len(parts) - half) // half)]]


class Filling:
    """Strips in one piece of stock, in its own frame: strips run along x."""

    def __init__(
        self, shop: Tenths, stock: StockInTenths, value: dict[int, float], demand: list[int], across: bool
    ) -> None:
        self.shop, self.stock, self.value = shop, stock, value
        self.left = list(demand)
        self.used = [0] * len(demand)
        self.ways: list[Way] = []
        for at in _tried([at for at in value if self.left[at]], shop.sizes):
            lies = shop.lies(at, stock.length, stock.width, across=across)
            self.ways += [Way(at, along, wide) for along, wide in lies]
        self.ways.sort(key=lambda way: (way.across, -way.along))

    def fill(self) -> tuple[list[tuple[int, int, int, int, int]], list[int]]:
        """Return the cuts and how many of each part they hold: strip upon strip until none is worth its width."""
        cuts: list[tuple[int, int, int, int, int]] = []
        y, k = 0, self.shop.kerf
        marks = sorted({0, *(y1 for _, _, _, y1 in self.stock.holes if 0 < y1 < self.stock.width)})
        while y < self.stock.width:
            ways = [way for way in self.ways if self.left[way.part]]
            room = self.stock.width - y
            ways = [way for way in ways if way.across <= room]
            if not ways:
                break
            wide, strip = self._next_strip(ways, y, room)
            if not strip:
                later = next((each for each in marks if each > y), None)
                if later is None:
                    break
                y = later
                continue
            for x, way in strip:
                cuts.append((x, y, way.part, way.along, way.across))
                self.left[way.part] -= 1
                self.used[way.part] += 1
            y += wide + k
        return cuts, self.used

    def _next_strip(self, ways: list[Way], y: int, room: int) -> tuple[int, list[tuple[int, Way]]]:
        """Return the width of the next strip and what lies in it.

        Of the strips that fill the width best together it is the one that is filled best itself.
        """
        import numpy as np

        def made(some: list[Way]) -> Tables:
            longest = self.stock.length + self.shop.kerf
            return Tables(some, self.left, self.value, longest, self.shop.kerf, self.shop.grid)

        tables = Levels(made, ways, self.shop.clear, self.shop.levels)
        k = self.shop.kerf
        widths = [wide for wide in tables.widths if wide <= room]
        gains = [sum(tables.best(wide, b - a + k, level) for a, b, level in self._free(y, wide)) for wide in widths]
        # Which widths fill the room best together: a knapsack over it, each strip as often as its parts would go.
        unit = math.gcd(*(wide + k for wide in widths), room + k)
        size = (room + k) // unit
        value = np.zeros(size + 1)
        first = np.full(size + 1, -1, dtype=np.int32)
        for at, wide in enumerate(widths):
            weight = (wide + k) // unit
            for _ in range(min(tables.strips(wide), size // weight)):
                with_it = value[: size + 1 - weight] + gains[at]
                better = with_it > value[weight:] + 1e-6
                value[weight:][better] = with_it[better]
                first[weight:][better] = at
        taken, spot = [], size
        while spot > 0 and first[spot] >= 0:
            taken.append(int(first[spot]))
            spot -= (widths[taken[-1]] + k) // unit
            if len(taken) > 64:
                break
        if not taken:
            return 0, []
        pick = max(taken, key=lambda at: gains[at] / (widths[at] + k))
        wide = widths[pick]
        strip: list[tuple[int, Way]] = []
        left = list(self.left)
        for a, b, level in sorted(self._free(y, wide), key=lambda span: span[0] - span[1]):
            x = a
            for way in tables.taken(wide, b - a + k, left, level):
                strip.append((x, way))
                left[way.part] -= 1
                x += way.along + k
        return wide, strip

    def _free(self, y: int, wide: int) -> list[Run]:
        return free_spans(self.stock, y, wide)


def free_spans(stock: StockInTenths, y: int, wide: int) -> list[Run]:
    """Return the spans of a strip that no defect reaches into, for parts of the highest level.

    Between them are those that only parts of lower levels may hold.

    Args:
        stock: The kind of stock.
        y: Lower edge of the strip, tenths of a mm.
        wide: Width of the strip, tenths of a mm.
    """
    met = [
        (x0, x1, rank)
        for (x0, y0, x1, y1), rank in zip(stock.holes, stock.ranks, strict=True)
        if y0 < y + wide and y1 > y
    ]
    return runs(met, stock)


def runs(met: Sequence[Run], stock: StockInTenths) -> list[Run]:
    """Return the spans that defects leave free in a strip of a stock.

    Defects are given as from, to and rank; with each span comes the highest level of the parts that may lie in
    it. A kerf lies between two that touch.

    Args:
        met: From where to where defects reach, and their rank; tenths of a mm.
        stock: The kind of stock.
    """
    found: list[Run] = []
    for level in reversed(stock.levels):
        better = [(a - stock.kerf, b + stock.kerf) for a, b, _ in found]
        taken = [(x0, x1) for x0, x1, rank in met if rank <= level]
        found += [(a, b, level) for a, b in spans_beside([*taken, *better], stock.length) if b > a]
    return found


def spans_beside(taken: Iterable[tuple[int, int]], length: int) -> list[tuple[int, int]]:
    """Return what the spans that are taken leave free of a length, in order.

    Args:
        taken: From where to where each taken span lies, tenths of a mm.
        length: Length of the span, tenths of a mm.
    """
    found, at = [], 0
    for x0, x1 in sorted(taken):
        if x0 > at:
            found.append((at, min(x0, length)))
        at = max(at, x1)
    if at < length:
        found.append((at, length))
    return found


class Strips:
    """What strips may hold, by their width: what its kinds have in common."""

    widths: list[int]
    """Widths that are tried, tenths of a mm."""
    unit: int
    """Tenths of a mm to a cell."""
    grid: int
    """Tenths to which sizes were brought."""
    exact: bool
    """They were not."""
    most: np.ndarray
    """The most that is worth, by width of strip and length in units."""

    def __init__(self, ways: Sequence[Way], left: Sequence[int]) -> None:
        self.ways = ways
        self._strips: dict[int, int] = {}
        for way in ways:
            self._strips[way.across] = self._strips.get(way.across, 0) + left[way.part]

    def best(self, wide: int, length: int) -> float:
        """Return the most that is worth in a span of a strip.

        Args:
            wide: Width of the strip, tenths of a mm.
            length: Length of the span, tenths of a mm.
        """
        at = bisect_right(self.widths, wide)
        return float(self.most[at - 1, max(length, 0) // self.unit]) if at else 0.0

    def bests(self, wide: np.ndarray, length: np.ndarray) -> np.ndarray:
        """Return the most that is worth in each of those lengths, by length and width of strip.

        Args:
            wide: Widths of strips, tenths of a mm.
            length: Lengths of slots, tenths of a mm.
        """
        import numpy as np

        if not self.widths:
            return np.zeros((len(length), len(wide)))
        at = np.searchsorted(self.widths, wide, side="right")
        found = self.most[np.maximum(at, 1)[None, :] - 1, (np.maximum(length, 0) // self.unit)[:, None]]
        return np.where(at[None, :] > 0, found, 0.0)

    def strips(self, wide: int) -> int:
        """Return how many strips of that width can be of use: one for each part as wide at the most.

        Args:
            wide: Width of the strip, tenths of a mm.
        """
        return self._strips.get(wide, 0)

    def taken(self, wide: int, length: int, left: list[int]) -> list[Way]:
        """Return what lies in that span, no more of a part than is left; nothing where it was not kept.

        Args:
            wide: Width of the strip, tenths of a mm.
            length: Length of the span, tenths of a mm.
            left: How many of each part are left; it goes down by what is taken.
        """
        return []

    def stacked(self, along: int, wide: int) -> float:
        """Return the most that parts side by side in a slot are worth: nothing where strips hold no slots.

        Args:
            along: Length of the slot along the strip, tenths of a mm.
            wide: Width of the strip, tenths of a mm.
        """
        return 0.0

    def stack(self, along: int, wide: int, left: list[int]) -> list[Way]:
        """Return nothing: these strips hold no slots.

        Args:
            along: Length of the slot along the strip, tenths of a mm.
            wide: Width of the strip, tenths of a mm.
            left: How many of each part are left; it goes down by what is taken.
        """
        return []


class Tables(Strips):
    """For every width of strip the most that parts of at most that width are worth in any length of it."""

    def __init__(
        self,
        ways: list[Way],
        left: list[int],
        value: Sequence[float] | dict[int, float],
        longest: int,
        kerf: int,
        grid: int,
    ) -> None:
        """grid: whole tenths to which lengths are brought, parts up and spans down; 1 for none."""
        import numpy as np

        super().__init__(ways, left)
        self.kerf, self.grid = kerf, grid
        common = math.gcd(longest, *(way.along + kerf for way in ways))
        self.unit = max(common, grid, longest * len(ways) // MOST_CELLS)
        self.exact = self.unit == common
        size = longest // self.unit
        items: list[tuple[Way, int, int]] = []
        self.upto: dict[int, int] = {}
        for way in ways:
            weight = -(-(way.along + kerf) // self.unit)
            for take in shares(min(left[way.part], size // weight if weight else 0)):
                items.append((way, take, take * weight))
            self.upto[way.across] = len(items)
        # Row n holds the most that the first n items are worth in every length; what lies in one is read off the rows.
        rows = np.zeros((len(items) + 1, size + 1))
        for at, (way, take, weight) in enumerate(items):
            before, row = rows[at], rows[at + 1]
            row[:weight] = before[:weight]
            np.add(before[: size + 1 - weight], take * value[way.part], out=row[weight:])
            np.maximum(row[weight:], before[weight:], out=row[weight:])
        self.items, self.rows = items, rows
        self.widths = sorted(self.upto)
        self.most = rows[[self.upto[wide] for wide in self.widths]]

    def taken(self, wide: int, length: int, left: list[int]) -> list[Way]:
        """Return what lies in that span, the widest first; no more of a part than is left.

        Args:
            wide: Width of the strip, tenths of a mm.
            length: Length of the span, tenths of a mm.
            left: How many of each part are left; it goes down by what is taken.
        """
        found: list[Way] = []
        at, spare = max(length, 0) // self.unit, list(left)
        served = bisect_right(self.widths, wide)
        n = self.upto[self.widths[served - 1]] if served else 0
        # Down a column the worths only grow: the last item that made it more is where the worth is first reached.
        while n > 0:
            n = bisect_left(range(n), self.rows[n, at] - 1e-6, key=self.rows[:, at].__getitem__)
            if n == 0:
                break
            way, take, weight = self.items[n - 1]
            for _ in range(min(take, spare[way.part])):
                found.append(way)
                spare[way.part] -= 1
            at -= weight
            n -= 1
        return sorted(found, key=lambda way: (-way.across, -way.along))


class Highest(Strips):
    """The same worths as Tables has, exact for lists of any length: what lies in a span is not kept."""

    def __init__(self, ways: list[Way], left: list[int], value: Sequence[float], longest: int, kerf: int) -> None:
        import numpy as np

        super().__init__(ways, left)
        self.unit = math.gcd(longest, *(way.along + kerf for way in ways))
        self.grid, self.exact = self.unit, True
        self.widths: list[int] = []
        row, rows = np.zeros(longest // self.unit + 1), []
        for wide, some in groupby(ways, key=attrgetter("across")):
            for way in some:
                weight = (way.along + kerf) // self.unit
                for take in shares(min(left[way.part], (len(row) - 1) // weight)):
                    with_it = row[: len(row) - take * weight] + take * value[way.part]
                    np.maximum(row[take * weight :], with_it, out=row[take * weight :])
            self.widths.append(wide)
            rows.append(row.copy())
        self.most = np.array(rows)


class Levels:
    """Tables for each level of how clean wood is: in a span of a level lie the parts of it and of those below."""

    def __init__(
        self, made: Callable[[list[Way]], Strips], ways: list[Way], clear: Sequence[int], levels: Sequence[int]
    ) -> None:
        self.by_level = {level: made([way for way in ways if clear[way.part] <= level]) for level in levels}
        self.top = self.by_level[levels[-1]]
        self.widths, self.grid = self.top.widths, self.top.grid
        self.exact = all(each.exact for each in self.by_level.values())

    def best(self, wide: int, length: int, level: int) -> float:
        """Return the most that is worth in a span of a strip.

        Args:
            wide: Width of the strip, tenths of a mm.
            length: Length of the span, tenths of a mm.
            level: How clean the parts must be: the rank of defects that they keep off.
        """
        return self.by_level[level].best(wide, length)

    def bests(self, wide: np.ndarray, length: np.ndarray, level: int) -> np.ndarray:
        """Return the most that is worth in each of those lengths, by length and width of strip.

        Args:
            wide: Widths of strips, tenths of a mm.
            length: Lengths of slots, tenths of a mm.
            level: How clean the parts must be: the rank of defects that they keep off.
        """
        return self.by_level[level].bests(wide, length)

    def taken(self, wide: int, length: int, left: list[int], level: int) -> list[Way]:
        """Return what lies in that span; no more of a part than is left.

        Args:
            wide: Width of the strip, tenths of a mm.
            length: Length of the span, tenths of a mm.
            left: How many of each part are left; it goes down by what is taken.
            level: How clean the parts must be: the rank of defects that they keep off.
        """
        return self.by_level[level].taken(wide, length, left)

    def stacked(self, along: int, wide: int, level: int) -> float:
        """Return the most that parts side by side in a slot are worth.

        Args:
            along: Length of the slot along the strip, tenths of a mm.
            wide: Width of the strip, tenths of a mm.
            level: How clean the parts must be: the rank of defects that they keep off.
        """
        return self.by_level[level].stacked(along, wide)

    def stack(self, along: int, wide: int, left: list[int], level: int) -> list[Way]:
        """Return the parts side by side in a slot, as they lie in the strip.

        Args:
            along: Length of the slot along the strip, tenths of a mm.
            wide: Width of the strip, tenths of a mm.
            left: How many of each part are left; it goes down by what is taken.
            level: How clean the parts must be: the rank of defects that they keep off.
        """
        return self.by_level[level].stack(along, wide, left)

    def strips(self, wide: int) -> int:
        """Return how many strips of that width can be of use.

        Args:
            wide: Width of the strip, tenths of a mm.
        """
        return self.top.strips(wide)
