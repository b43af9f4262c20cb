"""The best way of cutting one piece of stock at given worths of its parts.

It finds where strips may lie beside its defects, which of them are worth most together, and what lies in each.

A strip starts at the edge, at the far side of a defect, or a kerf beyond another strip: nothing is gained elsewhere.
Its spans between defects are filled by knapsacks that all pieces of stock share. Sources: Gilmore and Gomory 1965 for
two stages; the places are Herz's (1972) discretisation points, with those of the defects.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING

from oakmeasure.core.cutting.lp.knapsack import free_spans, runs
from oakmeasure.core.cutting.model import shares

if TYPE_CHECKING:
    import numpy as np

    from oakmeasure.core.cutting.in_tenths import StockInTenths
    from oakmeasure.core.cutting.lp.knapsack import Levels, Run

MOST_PLACES = 3000  # for strips on a board; more are brought to a grid
GRIDS = (1, 5, 10, 20, 50)  # tenths


class StripLayout:
    """A piece of stock in its own frame, strips along x: where strips of each width may start, and their free spans."""

    def __init__(self, stock: StockInTenths, widths: Sequence[int], kerf: int) -> None:
        import numpy as np

        self.stock, self.kerf = stock, kerf
        self.widths = [each for each in widths if each <= stock.width]
        self.spans: list[list[Run]] = []
        self.exact = True
        if not stock.holes or not self.widths:
            return
        self.places = self._places()
        place, wide = np.array(self.places), np.array(self.widths)
        ends = place[:, None] + wide[None, :]
        self.fits = ends <= stock.width
        after = np.searchsorted(place, ends + kerf)
        self.after = np.minimum(after, len(place))
        seen = np.zeros(ends.shape, dtype=np.int64)
        for bit, (_, y0, _, y1) in enumerate(stock.holes[:62]):
            seen |= ((y0 < ends) & (place[:, None] < y1)).astype(np.int64) << bit
        if len(stock.holes) > 62:  # more than a board ever has: those of the others count everywhere
            seen |= 1 << 62
        kinds, at = np.unique(seen, return_inverse=True)
        self.kind = at.reshape(ends.shape)
        self.spans = [_free(stock, int(mask)) for mask in kinds]
        # The same by level, as which of the kinds each span is of, and its length.
        self.by_level: dict[int, tuple[np.ndarray, np.ndarray]] = {}
        for level in stock.levels:
            some = [(n, b - a) for n, spans in enumerate(self.spans) for a, b, each in spans if each == level]
            if some:
                kind, length = np.array(some).T
                self.by_level[level] = (kind, length)

    def _places(self) -> list[int]:
        """Return where strips may start, in order; on a grid where there would be too many."""
        starts = {0, *(y1 for _, _, _, y1 in self.stock.holes if 0 < y1 < self.stock.width)}
        for grid in GRIDS:
            found, todo = set(starts), list(starts)
            while todo and len(found) <= MOST_PLACES:
                y = todo.pop()
                for wide in self.widths:
                    step = -(-(y + wide + self.kerf) // grid) * grid
                    if step < self.stock.width and step not in found:
                        found.add(step)
                        todo.append(step)
            if len(found) <= MOST_PLACES:
                self.exact = grid == 1
                break
        return sorted(found)

    def best(self, tables: Levels, start: int = 0) -> tuple[float, list[tuple[int, int]]]:
        """Return the most that the stock beyond y = start can be worth, and its strips as (y, width).

        It goes by the tables of what lies in them.

        Args:
            tables: The tables of what lies in strips, one for each level of clearness.
            start: Where the strips begin, tenths of a mm.
        """
        import numpy as np

        if not self.widths:
            return 0.0, []
        if not self.stock.holes:
            return self._plain(tables, start)
        k = self.kerf
        wide, gains = np.array(self.widths), np.zeros((len(self.spans), len(self.widths)))
        for level, (kind, length) in self.by_level.items():
            np.add.at(gains, kind, tables.bests(wide, length + k, level))
        worth = np.where(self.fits, gains[self.kind, np.arange(len(self.widths))[None, :]], -1.0)
        count, begin = len(self.places), int(np.searchsorted(self.places, start))
        # As many turns as there are strips one beside the other: in each, one more strip before what is best so far.
        value = np.zeros(count + 1)
        while True:
            each = worth + value[self.after]
            new = np.append(each.max(axis=1), 0.0)
            new = np.maximum.accumulate(new[::-1])[::-1]
            if (new <= value + 1e-6).all():
                break
            value = new
        taken, strips, at = each.argmax(axis=1), [], begin
        while at < count:
            if value[at] <= value[at + 1] + 1e-6:
                at += 1
                continue
            strips.append((self.places[at], self.widths[taken[at]]))
            at = int(self.after[at, taken[at]])
        return float(value[begin]), strips

    def _plain(self, tables: Levels, start: int) -> tuple[float, list[tuple[int, int]]]:
        """Return the same without defects: a knapsack over the width."""
        import numpy as np

        k, room = self.kerf, self.stock.width - start + self.kerf
        if room <= k:
            return 0.0, []
        unit = max(math.gcd(room, *(wide + k for wide in self.widths)), tables.grid)
        size = room // unit
        value, steps = np.zeros(size + 1), []
        for at, wide in enumerate(self.widths):
            gain = tables.best(wide, self.stock.length + k, self.stock.levels[-1])
            weight = -(-(wide + k) // unit)
            for take in shares(min(size // weight, tables.strips(wide)) if gain > 0 else 0):
                with_it = value[: size + 1 - take * weight] + take * gain
                better = with_it > value[take * weight :] + 1e-6
                value[take * weight :][better] = with_it[better]
                steps.append((at, take, take * weight, better))
        strips: list[int] = []
        spot = size
        for at, take, weight, better in reversed(steps):
            if spot >= weight and better[spot - weight]:
                strips += [self.widths[at]] * take
                spot -= weight
        y, found = start, []
        for wide in sorted(strips, reverse=True):
            found.append((y, wide))
            y += wide + k
        return float(value[size]), found

    def free(self, y: int, wide: int) -> list[Run]:
        """Return the spans of a strip that no defect reaches into, the longest first.

        Args:
            y: Lower edge of the strip, tenths of a mm.
            wide: Width of the strip, tenths of a mm.
        """
        return sorted(free_spans(self.stock, y, wide), key=lambda span: span[0] - span[1])


def _free(stock: StockInTenths, mask: int) -> list[Run]:
    """Return the spans that the defects of a mask leave free."""
    met = [
        (hole[0], hole[2], rank)
        for bit, (hole, rank) in enumerate(zip(stock.holes, stock.ranks, strict=True))
        if mask >> min(bit, 62) & 1
    ]
    return runs(met, stock)
