"""Strips, spans and what lies in them as one linear programme.

Which pieces of stock are ripped how, and what each span of a strip is crosscut into, are columns of their own, so
that any fill goes with any strip of its length and width.

Columns are made where the prices of the programme ask for them. The prices also give a bound: no plan of this way of
cutting can cost less. Sources: Gilmore and Gomory 1965, the two stages kept apart; bound, Farley 1990 and Lagrange.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Collection, Sequence
from dataclasses import dataclass, replace
from functools import partial
from typing import TYPE_CHECKING

from oakmeasure.core.base import linear_programme
from oakmeasure.core.cutting.lp.knapsack import Highest, Levels, Tables, Way
from oakmeasure.core.cutting.lp.strip_columns import Span, Strip, StripColumns, StripFrame
from oakmeasure.core.cutting.two_d.slots import Slots, side_by_side

if TYPE_CHECKING:
    import numpy as np


# Tenths, the grids of the knapsacks
COARSE = 10
FINE = 1
SLOW = 1e-4  # of the cost, from which the next grid is taken
FEW_LAYOUTS = 12  # that are added in a round, or a sixth of the kinds of stock
# Of prices that are known nearly, between which those of the programme stay at first
UP = 1.1
DOWN = 0.9
WEIGHED = 4  # rounds, after which all stock is asked, and a bound is reckoned where the tables give none
LAST_WAY = (0.3, 0.5, 0.3, 0.5)  # shares of the way to the last prices, where the bound is reckoned
FAR = 0.08  # of its price, that a piece was worth less, for it not to be asked between


@dataclass(frozen=True, slots=True)
class Prices:
    """What a solved programme would pay for a part and for another piece of each stock.

    With them, by frame, what is worth most at that in each width and length.
    """

    used: Sequence[float] | np.ndarray
    """How much of each column the programme uses."""
    dual: Sequence[float] | np.ndarray
    """What one more of each row's limit would cost."""
    value: list[float]
    """What each part is worth, hundredths of the money."""
    extra: dict[int, float]
    """What another piece of each stock is worth, by its kind."""
    tables: tuple[Levels, ...]
    """What is worth most in each width and length, by frame."""


class Master(StripColumns):
    """The programme of one problem, or of a part of it: it is solved, and priced."""

    # --- prices known nearly -----------------------------------------------------------------------------------

    def begin(self, value: Sequence[float]) -> None:
        """Begin at prices that are known nearly, with the columns that they ask for.

        Until `loosen`, parts are bought a little above them and sold a little below. Source: stabilised column
        generation, du Merle and others 1999.

        Args:
            value: What each part is worth, hundredths of the money.
        """
        self.buy_at([UP * each for each in value])
        self.sold = [self.programme.add(-DOWN * value[at], {self.part_row[at]: -1.0}) for at in self.parts]
        prices = self.prices_at(list(value), FINE)
        self.weigh(value)
        hot: set[Span] = set()
        for (at, n), (worth, strips) in self._best(prices, self.stock).items():
            if worth > DOWN * self.shop.price[at] and self.add_layout(at, n, strips):
                hot |= set(self.spans(at, n, strips))
        self.fill(prices, hot)
        self.programme.inside(True)

    def buy_at(self, value: Sequence[float] = ()) -> None:
        """Let parts be bought at these prices; dearly where none are given.

        Args:
            value: What each part is worth, hundredths of the money.
        """
        for at, column in self.bought.items():
            self.programme.cost(column, min(value[at], self.dear[at]) if value else self.dear[at])

    def loosen(self, *, hurried: bool = False) -> bool:
        """Let the prices go where they will; return whether they were held.

        Args:
            hurried: Whether it stays with interior points, as the simplex method has no corner to begin at.
        """
        if not self.sold:
            return False
        self.buy_at()
        for column in self.sold:
            self.programme.hold(column, 0.0, 0.0)
        if not hurried:
            self.programme.inside(False)
        self.sold = []
        return True

    # --- prices ------------------------------------------------------------------------------------------------

    def solve(
        self, until: Callable[[], bool], *, finest: int = FINE, near: float = 0.0
    ) -> linear_programme.Solved | None:
        """Make columns until no more are asked for, or the time is over; None where the programme has no answer.

        Args:
            until: What says when the time is over.
            finest: The finest grid of the knapsacks, tenths of a mm; only at 1 it gives a bound.
            near: Share of the cost; a bound that near is enough.
        """
        grid, before = finest if self.sold else max(COARSE, finest), math.inf
        while True:
            solved = self.programme.solve()
            if solved is None:
                return None
            before, self.value = self.value, solved.value
            if until():
                if self.sold:
                    self.weigh(self.paid(solved), LAST_WAY)
                    self.loosen(hurried=True)
                return solved
            added = self.price(self.prices(solved, grid))
            slow = before - self.value < SLOW * self.value
            if grid > finest and (slow or not added):
                grid = finest
                continue
            is_near = grid == FINE and self.value - self.bound <= near * self.value
            if (is_near or not added) and not self.loosen():
                return self.programme.solve() if added else solved

    def prices(self, solved: linear_programme.Solved, grid: int) -> Prices:
        """Return what the programme would pay for each part, and for another piece of each stock.

        Args:
            solved: The programme's answer.
            grid: To how many tenths of a mm widths and lengths are taken.
        """
        made = self.prices_at(self.paid(solved), grid)
        return replace(made, used=solved.x, dual=solved.prices, extra=self.extra(solved))

    def paid(self, solved: linear_programme.Solved) -> list[float]:
        """Return what the programme would pay for each part.

        Args:
            solved: The programme's answer.
        """
        value = [0.0] * len(self.shop.demand)
        for at, row in self.part_row.items():
            value[at] = max(float(solved.prices[row]), 0.0)
        return value

    def extra(self, solved: linear_programme.Solved) -> dict[int, float]:
        """Return what one more of each kind of stock that is counted would save, negative.

        Args:
            solved: The programme's answer.
        """
        return {at: min(float(solved.prices[row]), 0.0) for at, row in self.stock_row.items()}

    def prices_at(self, value: list[float], grid: int) -> Prices:
        """Return what is worth most at such worths of the parts.

        Args:
            value: What each part is worth, hundredths of the money.
            grid: To how many tenths of a mm widths and lengths are taken.
        """
        tables = tuple(self._tables(frame, value, grid) for frame in self.frames)
        return Prices((), (), value, {}, tables)

    def price(self, prices: Prices) -> int:
        """Add the columns that the prices ask for; return how many.

        Args:
            prices: What each part and another piece of each stock is worth.
        """
        gives_bound = self.is_free and self.proves and all(table.exact for table in prices.tables)
        every = gives_bound or self.rounds % WEIGHED == 0
        added = self._price(prices, every=every, gives_bound=gives_bound)
        if not added and not every:
            added = self._price(prices, every=True, gives_bound=False)
        self.rounds += 1
        if self.is_free and not gives_bound and every:
            self.weigh(prices.value)
        return added

    def _price(self, prices: Prices, *, every: bool, gives_bound: bool) -> int:
        """Add the columns that are asked for; of the stock that is there, or of what was not far from its price."""
        shop, extra = self.shop, prices.extra
        there = [at for at, many in self.stock.items() if many != 0 and (every or self.far.get(at, 0.0) < FAR)]
        best = self._best(prices, self.stock if gives_bound else there)
        lacks = {
            key: (shop.price[key[0]] - extra.get(key[0], 0.0) - worth) / max(shop.price[key[0]], 1)
            for key, (worth, _) in best.items()
        }
        for at in there:
            self.far[at] = min(lacks[at, n] for n in range(len(self.frames)))
        order = sorted(lacks, key=lambda key: lacks[key])
        added, hot = 0, set()
        for key in order[: max(FEW_LAYOUTS, len(self.stock) // 6)]:
            if lacks[key] < -1e-6:
                strips = best[key][1]
                added += self.add_layout(*key, strips)
                hot |= set(self.spans(*key, strips))
        if gives_bound:
            self.bound = max(self.bound, self.bound_of(prices, best))
        return added + self.fill(prices, hot | self.in_use(prices.used))

    def in_use(self, used: Sequence[float] | np.ndarray) -> set[Span]:
        """Return the spans of the ways of ripping that the programme uses.

        Args:
            used: How much of each column the programme uses.
        """
        return {
            span
            for (at, n, ripped), column in self.made.layouts.items()
            if column < len(used) and used[column] > 1e-6
            for span in self.spans(at, n, ripped)
        }

    def weigh(self, value: Sequence[float], on_the_way: Sequence[float] = (0.5,)) -> None:
        """Raise the bound by what these worths of the parts give with exact tables.

        Worths on the way to them from those that gave the best bound are weighed too: a bound at worths between
        two is at least the one between theirs. Nothing where the bound would not hold, or is not asked for;
        slots have no such tables.

        Args:
            value: What each part is worth, hundredths of the money.
            on_the_way: Worths on the way to those from the ones that gave the best bound.
        """
        if not self.proves or self.shop.stages != 2:
            return
        k = self.shop.kerf
        for share in (1.0, *(on_the_way if self.center else ())):
            each = [share * a + (1 - share) * b for a, b in zip(value, self.center or value, strict=True)]
            tables = tuple(
                Levels(
                    partial(Highest, left=self.demand, value=each, longest=frame.longest + k, kerf=k),
                    self.useful(frame, each),
                    self.shop.clear,
                    self.shop.levels,
                )
                for frame in self.frames
            )
            prices = Prices((), (), each, {}, tables)
            bound = self.bound_of(prices, self._best(prices, self.stock))
            if bound > self.bound:
                self.bound, self.center = bound, each

    def _best(self, prices: Prices, some: Collection[int]) -> dict[tuple[int, int], tuple[float, list[Strip]]]:
        """Return for these kinds of stock, and each frame, what one can be worth at the most, and its strips."""
        best: dict[tuple[int, int], tuple[float, list[Strip]]] = {}
        for n, (frame, tables) in enumerate(zip(self.frames, prices.tables, strict=True)):
            for at in some:
                best[at, n] = frame.layouts[at].best(tables) if tables.widths else (0.0, [])
        return best

    def useful(self, frame: StripFrame, value: list[float]) -> list[Way]:
        """Return how the parts may lie that are wanted and worth something.

        Args:
            frame: The stock with strips along it, or across it.
            value: What each part is worth, hundredths of the money.
        """
        return [way for way in frame.lies if value[way.part] > 1e-9 and self.demand[way.part]]

    def _tables(self, frame: StripFrame, value: list[float], grid: int) -> Levels:
        useful = self.useful(frame, value)
        longest, k = frame.longest + self.shop.kerf, self.shop.kerf

        def made(some: list[Way]) -> Tables | Slots:
            if self.shop.stages > 2:
                stacks = side_by_side(some, self.demand, value, frame.widest, k, 1 if grid == 1 else min(grid, 5))
                widths = sorted({*frame.pairs, *(way.across for way in some)})
                return Slots(some, self.demand, longest, grid, stacks, widths)
            return Tables(some, self.demand, value, longest, k, grid)

        return Levels(made, useful, self.shop.clear, self.shop.levels)

    def fill(self, prices: Prices, hot: set[Span]) -> int:
        """Add for each span that is in use, and each slot, what is worth more in it than its price.

        Args:
            prices: What each part and another piece of each stock is worth.
            hot: Spans that are in use.
        """
        added, k, dual = 0, self.shop.kerf, prices.dual
        many = len(dual)
        for span in sorted(hot):
            n, length, wide, level = span
            row, table = self.span_row[span], prices.tables[n]
            price = -float(dual[row]) if row < many else 0.0
            if table.best(wide, length + k, level) > price + 1e-6 * max(price, 1.0):
                added += self.add_fill(span, table.taken(wide, length + k, self.demand, level))
        for slot, row in list(self.slot_row.items()):
            n, along, wide, level = slot
            table = prices.tables[n]
            price = -float(dual[row]) if row < many else 0.0
            if table.stacked(along, wide, level) > price + 1e-6 * max(price, 1.0):
                added += self.add_stack(slot, table.stack(along, wide, self.demand, level))
        return added

    def bound_of(self, prices: Prices, best: dict[tuple[int, int], tuple[float, list[Strip]]]) -> float:
        """Return what no plan can cost less than, at any prices.

        Those that are shrunk until no piece of stock is worth more than it costs, or, where all stock is
        counted, less what the pieces are worth more than they cost.

        Args:
            prices: What each part and another piece of each stock is worth.
            best: What the best piece of each kind and way is worth, and its strips.
        """
        value, extra = prices.value, prices.extra
        plain = sum(value[at] * self.demand[at] for at in self.parts)
        spare, lagrange, worst = plain, plain, 1.0
        worths = {at: 0.0 for at, _ in best}
        for (at, _), (each, _) in best.items():
            worths[at] = max(worths[at], each)
        for at, worth in worths.items():
            price, count = max(float(self.shop.price[at]), 1e-9), self.stock[at]
            worst = max(worst, (worth + extra.get(at, 0.0)) / price)
            if count is None:
                lagrange = -math.inf
            else:
                lagrange -= count * max(0.0, worth - price)
                spare += count * extra.get(at, 0.0)
        return max(spare / worst, lagrange)
