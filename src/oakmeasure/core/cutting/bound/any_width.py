"""A bound for sheets that are cut in three stages, for strips of every width: what no plan can cost less than.

The programme of strips (master.py) only knows strips as wide as a part, or as two of them. Here a strip may be as wide
as any parts side by side. What each can hold at the most is reckoned on a grid of whole mm first, rounded so that it is
never too little, and exactly only for those widths that would make the best sheet. The prices that it is reckoned at
are made better by columns, as in the programme. Sources: Gilmore and Gomory 1965; the bound, Farley 1990; prices
between the last and the best ones, Wentges 1997.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from oakmeasure.core.cutting.lp.knapsack import Levels, Strips, Way
from oakmeasure.core.cutting.lp.master import Master, Prices
from oakmeasure.core.cutting.lp.strip_columns import Strip, StripFrame
from oakmeasure.core.cutting.model import shares
from oakmeasure.core.cutting.two_d.slots import Slots, by_length, side_by_side, useful_slots

if TYPE_CHECKING:
    import numpy as np

    from oakmeasure.core.cutting.in_tenths import StockInTenths

GRID = 10  # tenths, of what is reckoned for every width
TRIED = 80  # widths reckoned exactly, after which the lengths are, too
AT_ONCE = 8  # widths that are reckoned exactly beside those of the best sheet
TINY = 4e-6  # of a worth, that sums of single precision may have lost
BLOCK = 64  # widths at once, that stay near the processor
MORE = 8  # ways of ripping that are tried beside the best one
SMOOTH = 0.5  # of the way from the last prices to those with the best bound
ALIKE = 1e-6  # of a worth, that counts for nothing


def prove_bound(master: Master, until: Callable[[], bool], told: Callable[[float], None]) -> None:
    """Raise the bound of a programme of sheets round by round, and tell of each better one, hundredths.

    Args:
        master: The linear programme of strips and what lies in them.
        until: What says when the time is over.
        told: What is called with each better bound, hundredths of the money.
    """
    best, center, smooth = 0.0, list[float](), SMOOTH
    while not until():
        solved = master.programme.solve()
        if solved is None:
            return
        paid = master.paid(solved)
        share = smooth if center else 0.0
        value = [share * a + (1 - share) * b for a, b in zip(center or paid, paid, strict=True)]
        tables = tuple(_tables(master, frame, value) for frame in master.frames)
        prices = Prices(solved.x, solved.prices, value, master.extra(solved), tables)
        bound, added = _round(master, prices, until)
        if bound > best:
            best, center, smooth = bound, value, SMOOTH
            told(best)
        elif not added:
            if not share:
                return
            smooth = 0.0  # what the last prices ask for themselves


def _tables(master: Master, frame: StripFrame, value: list[float]) -> Levels:
    def made(some: list[Way]) -> AnyWidth:
        return AnyWidth(some, master, value, frame)

    return Levels(made, master.useful(frame, value), master.shop.clear, master.shop.levels[-1:])


def _round(master: Master, prices: Prices, until: Callable[[], bool]) -> tuple[float, int]:
    """Return the bound at these prices, and how many columns they ask for, which are added."""
    best, added, hot = {}, 0, master.in_use(prices.used)
    for n, (frame, table) in enumerate(zip(master.frames, prices.tables, strict=True)):
        for at, layout in frame.layouts.items():
            any_width = table.top
            assert isinstance(any_width, AnyWidth)
            price = master.shop.price[at] - prices.extra.get(at, 0.0)
            worth, found = any_width.sheet(layout.stock, price, until)
            best[at, n] = worth, list[Strip]()
            for strips in found if worth > price * (1 + ALIKE) else ():
                added += master.add_layout(at, n, strips)
                hot |= set(master.spans(at, n, strips))
    is_exact = all(table.exact for table in prices.tables)  # a sheet may be too large for that
    bound = master.bound_of(prices, best) if is_exact else 0.0
    return bound, 0 if until() or not is_exact else added + master.fill(prices, hot)


class AnyWidth(Strips):
    """What strips of any width can hold at the most, asked for width by width."""

    def __init__(self, ways: list[Way], master: Master, value: list[float], frame: StripFrame) -> None:
        super().__init__(ways, master.demand)
        self.left, self.kerf, self.longest = master.demand, master.shop.kerf, frame.longest + master.shop.kerf
        self.stacks = side_by_side(ways, self.left, value, frame.widest, self.kerf, 1)
        self.widths = sorted({way.across for way in ways})
        self.grid, self.exact = 1, self.stacks.exact
        self.narrow: dict[int, Slots] = {}
        self.often = by_length(ways, self.left)

    # --- as other tables are asked ------------------------------------------------------------------------------

    def best(self, wide: int, length: int) -> float:
        """Return the most that is worth in a span of a strip.

        Args:
            wide: Width of the strip, tenths of a mm.
            length: Length of the span, tenths of a mm.
        """
        return self._strip(wide).best(wide, length)

    def taken(self, wide: int, length: int, left: list[int]) -> list[Way]:
        """Return the slots of that span.

        Args:
            wide: Width of the strip, tenths of a mm.
            length: Length of the span, tenths of a mm.
            left: How many of each part are left; it goes down by what is taken.
        """
        return self._strip(wide).taken(wide, length, left)

    def stacked(self, along: int, wide: int) -> float:
        """Return the most that parts side by side in a slot are worth.

        Args:
            along: Length of the slot along the strip, tenths of a mm.
            wide: Width of the strip, tenths of a mm.
        """
        return self.stacks.best(along, wide + self.kerf)

    def stack(self, along: int, wide: int, left: list[int]) -> list[Way]:
        """Return the parts side by side in a slot, as they lie in the strip.

        Args:
            along: Length of the slot along the strip, tenths of a mm.
            wide: Width of the strip, tenths of a mm.
            left: How many of each part are left; it goes down by what is taken.
        """
        return self._strip(wide).stack(along, wide, left)

    def _strip(self, wide: int) -> Slots:
        if wide not in self.narrow:
            self.narrow[wide] = Slots(list(self.ways), self.left, self.longest, 1, self.stacks, [wide])
        return self.narrow[wide]

    # --- a whole sheet ------------------------------------------------------------------------------------------

    def sheet(
        self, stock: StockInTenths, least: float, until: Callable[[], bool]
    ) -> tuple[float, list[list[tuple[int, int]]]]:
        """Return what a sheet can be worth at the most, and its strips as (y, width).

        Too much, but never too little, where the time is over before.

        Args:
            stock: The kind of stock.
            least: The worth that a sheet must exceed: where none does, that worth and no strips.
            until: What says when the time is over.
        """
        import numpy as np

        length, cells = stock.length + self.kerf, (stock.width + self.kerf) // self.stacks.unit
        often = self._possible(length, cells, least)
        if not often.any():
            return least, []
        finest = math.gcd(length, *(way.along + self.kerf for way in self.ways))
        grid = min(GRID, *(way.along + self.kerf for way in self.ways))  # nothing is brought to no length at all
        most, known = self._relaxed(length, often, grid), set[int]()
        while True:
            together = _Together(most, often)
            open_ones = {each for each in together.widths(cells) if each not in known}
            if not open_ones or until():
                break
            if len(known) > TRIED and grid > finest:
                grid = finest
                most = np.minimum(most, self._relaxed(length, often, grid))
            worth = np.where(often > 0, together.beside(np.arange(cells + 1), most), 0.0)
            worth[list(known)] = 0.0
            some = sorted(open_ones | {int(each) for each in np.argsort(worth)[-AT_ONCE:] if worth[each] > least})
            for each, held in zip(some, self._held(np.array(some), length, finest), strict=True):
                most[: each + 1] = np.minimum(most[: each + 1], held)  # what is narrower holds no more
            known |= set(some)
        found = {tuple(together.widths(cells))}
        for each in sorted(known, key=lambda each: -together.beside(each, most))[:MORE]:
            if together.beside(each, most) > least:
                found.add(tuple(sorted((each, *together.widths(cells - each)), reverse=True)))
        return max(least, float(together.value[cells])), [self._placed(each) for each in found]

    def _possible(self, length: int, cells: int, least: float) -> np.ndarray:
        """Return how many strips there can be of each width, cells.

        None of those that are in no sheet that is worth more than `least`, even if a strip were as full all along
        as the fullest slot of it.
        """
        import numpy as np

        often, alongs = self._often(cells), np.array(self.stacks.widths) + self.kerf
        dense = length * (self.stacks.most[:, : cells + 1] / alongs[:, None]).max(axis=0) * (1 + TINY)
        at_most = _Together(dense, often).beside(np.arange(cells + 1), dense)
        return np.where(at_most > least, often, 0)

    def _placed(self, taken: Sequence[int]) -> list[tuple[int, int]]:
        """Return strips of those widths, cells, as (y, width)."""
        y, strips = 0, []
        for each in taken:
            strips.append((y, each * self.stacks.unit - self.kerf))
            y += each * self.stacks.unit
        return strips

    def _often(self, cells: int) -> np.ndarray:
        """Return how many strips there can be whose parts, side by side, are just that wide, by cells of width.

        Each takes up parts that are as wide together: of no width there are more than those would make up.
        """
        import numpy as np

        unit, reached, area = self.stacks.unit, np.zeros(cells + 1, dtype=bool), np.zeros(cells + 1)
        reached[0] = True
        wide = [((way.across + self.kerf) // unit, self.left[way.part]) for way in self.ways]
        wide = [(each, count) for each, count in wide if each <= cells]  # another kind of sheet may be wider
        for each, count in wide:
            for many in shares(min(count, cells // each)):
                reached[many * each :] |= reached[: cells + 1 - many * each].copy()
        for each, count in wide:
            area[each:] += np.where(reached[: cells + 1 - each], count * each, 0)
        return np.where(reached, area // np.maximum(np.arange(cells + 1), 1), 0).astype(int)

    def _relaxed(self, length: int, often: np.ndarray, grid: int) -> np.ndarray:
        """Return what a strip can hold at the most, by cells of width, 0 for those that there are none of.

        Widths are brought to whole mm, up.
        """
        import numpy as np

        step = max(1, GRID // self.stacks.unit)
        some, whole = np.flatnonzero(often), np.zeros(len(often))
        mm, at_mm = np.unique(some // step, return_inverse=True)
        whole[some] = self._held(np.minimum(mm * step + step - 1, len(often) - 1), length, grid)[at_mm]
        return whole

    def _held(self, cells: np.ndarray, length: int, grid: int) -> np.ndarray:
        """Return what strips of those widths can hold at the most; lengths of parts are brought to the grid, down."""
        import numpy as np

        worths, size = self.stacks.most[:, cells].astype(np.float32), length // grid
        many = [self.often[along] for along in self.stacks.widths]
        found = np.zeros(len(cells))
        for at in range(0, len(cells), BLOCK):
            rows = np.zeros((size + 1, len(cells[at : at + BLOCK])), dtype=np.float32)
            for along, gain, count in useful_slots(self.stacks.widths, worths[:, at : at + BLOCK], many):
                weight = (along + self.kerf) // grid
                for each in shares(min(count, size // weight)):
                    np.maximum(
                        rows[each * weight :], rows[: size + 1 - each * weight] + each * gain, out=rows[each * weight :]
                    )
            found[at : at + BLOCK] = rows[size]
        return found * (1 + TINY)


class _Together:
    """What strips are worth most together."""

    def __init__(self, most: np.ndarray, often: np.ndarray) -> None:
        """most: what a strip is worth. often: how many there can be; both by cells of width."""
        import numpy as np

        cells = len(often) - 1
        self.value = value = np.zeros(cells + 1)  # by cells of width
        self._steps: list[tuple[int, int, np.ndarray]] = []
        enough = 0.0
        for each in map(int, np.flatnonzero(often)):
            if most[each] <= enough:
                continue  # a narrower one, of which there is no want, is worth as much
            if often[each] >= cells // each:
                enough = most[each]
            for many in shares(min(int(often[each]), cells // each)):
                taken = many * each
                with_it = value[: cells + 1 - taken] + many * most[each]
                better = with_it > value[taken:] + ALIKE
                if better.any():
                    value[taken:][better] = with_it[better]
                    self._steps.append((each, many, better))

    def beside(self, each: int | np.ndarray, most: np.ndarray) -> Any:
        """Return what a sheet with a strip of that width can be worth."""
        return most[each] + self.value[len(self.value) - 1 - each]

    def widths(self, cells: int) -> list[int]:
        """Return the widths of the strips in so many cells, the widest first."""
        found = list[int]()
        for each, many, better in reversed(self._steps):
            if cells >= many * each and better[cells - many * each]:
                found += [each] * many
                cells -= many * each
        return found
