"""The linear programme of ways to cut bars: its columns, its prices and its bound."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.base import linear_programme
from oakmeasure.core.cutting.model import Deadline, shares
from oakmeasure.core.cutting.one_d.patterns import Column

if TYPE_CHECKING:
    import numpy as np


EPS = 1e-7
COARSE = 10  # tenths
BESIDE = 4  # sets of ways of cutting sought at one set of prices
PROVE_EVERY = 25  # rounds, after which the bound is worked out anew
NEAR = 0.001  # of the cost; a larger list is not solved nearer before whole bars are sought
LINEAR_SHARE = 0.55  # of the time, after which whole bars are sought in any case
MANY = 150  # parts from which whole bars are kept before the rest is solved


@dataclass(slots=True)
class Bars:
    """The problem in whole tenths and hundredths, the kerf added to every part and once to every bar."""

    sizes: list[int]
    """What can be cut out of each kind of bar, tenths of a mm, a kerf longer than it is."""
    prices: list[int]
    """Price of each kind, hundredths of the money."""
    counts: list[int | None]
    """How many there are of each kind; None for as many as needed."""
    lengths: list[int]
    """Length of each part with its kerf, tenths of a mm."""
    demand: list[int]
    """How many of each part are wanted."""

    @property
    def longest(self) -> int:
        """What can be cut out of the longest kind, tenths of a mm."""
        return max(self.sizes, default=0)


@dataclass(slots=True)
class SolvedBars:
    """A solved programme of bars."""

    columns: list[Column]
    """All of them."""
    x: np.ndarray
    """How often each is taken."""
    bound: float
    """No plan costs less, hundredths."""
    done: bool
    """Proven."""


def solve_bars(bars: Bars, demand: list[int], columns: list[Column], watch: Deadline) -> SolvedBars:
    """Solve the programme by column generation; ended early, its bound still holds.

    Columns are sought on a coarse grid first, ten times as fast; only when that finds no more, to the tenth.

    Args:
        bars: The problem, in whole tenths.
        demand: How many of each part are wanted.
        columns: Ways of cutting that it begins with.
        watch: The time that there is, who may stop it, and whom to tell.
    """
    import numpy as np

    wanted = np.array(demand, dtype=float)
    limited = {k: len(demand) + n for n, k in enumerate(k for k, count in enumerate(bars.counts) if count is not None)}
    programme = bar_programme(bars, demand, bars.counts, columns, dear=True)
    columns, known = list(columns), set(columns)
    coarse, exact = _Knapsack(bars, demand, COARSE), _Knapsack(bars, demand, 1)
    bound, x = 0.0, np.zeros(len(columns))
    must_prove, rounds = sum(demand) <= MANY, 0
    while True:
        solved = programme.solve()
        if solved is None:
            return SolvedBars(columns, x, bound, False)
        x, duals = solved.x[len(demand) :], np.maximum(solved.prices[: len(demand)], 0.0)
        extra = {k: min(float(solved.prices[row]), 0.0) for k, row in limited.items()}
        rounds += 1
        late = watch.over() or watch.gone > LINEAR_SHARE * watch.seconds
        new = [] if late else _several(bars, coarse, duals, extra, known)
        if not new or rounds % PROVE_EVERY == 0:
            more, worst = _priced(bars, exact, duals, extra, known)
            new += [each for each in more if each not in new]
            # Farley: prices shrunk until no way of cutting is worth more than its bar are those of a valid bound.
            spare = sum(extra[k] * float(bars.counts[k] or 0) for k in limited)
            bound = max(bound, (float(duals @ wanted) + spare) / worst)
        near = not must_prove and solved.value - bound <= NEAR * solved.value
        if not new or late or near:
            return SolvedBars(columns, x, bound, not new)
        for column in new:
            programme.add(float(bars.prices[column[0]]), _entries(column, limited))
        columns += new
        known.update(new)
        x = np.concatenate([x, np.zeros(len(new))])


def _several(
    bars: Bars, knapsack: _Knapsack, duals: np.ndarray, extra: dict[int, float], known: set[Column]
) -> list[Column]:
    """Return new ways of cutting, those of the parts that the first ones leave out beside them."""
    found: list[Column] = []
    values = duals.copy()
    for _ in range(BESIDE):
        new, _ = _priced(bars, knapsack, values, extra, known)
        new = [each for each in new if each not in found]
        if not new:
            break
        found += new
        for _, counts in new:
            for at, many in enumerate(counts):
                if many:
                    values[at] = 0.0
    return found


def _priced(
    bars: Bars, knapsack: _Knapsack, duals: np.ndarray, extra: dict[int, float], known: set[Column]
) -> tuple[list[Column], float]:
    """Return new ways of cutting that are worth more than their bars, and how many times their price the best is."""
    values, taken = knapsack.best(duals)
    new: list[Column] = []
    worst = 1.0
    for kind, size in enumerate(bars.sizes):
        value, price = values[size], bars.prices[kind] - extra.get(kind, 0.0)
        if value > price + 1e-6 * max(price, 1.0):
            column = (kind, knapsack.counts(size, taken))
            if column not in known and column not in new:
                new.append(column)
            worst = max(worst, (value + extra.get(kind, 0.0)) / max(bars.prices[kind], 1e-9))
    return new, worst


def _entries(column: Column, limited: dict[int, int]) -> dict[int, float]:
    """Return what a column brings to each row: parts, and one bar of its kind where those are counted."""
    kind, counts = column
    found = {at: float(many) for at, many in enumerate(counts) if many}
    if kind in limited:
        found[limited[kind]] = 1.0
    return found


def bar_programme(
    bars: Bars, demand: list[int], counts: list[int | None], columns: list[Column], *, dear: bool = False
) -> linear_programme.Programme:
    """Return the programme: every part as often as it is wanted, no more bars than there are.

    Args:
        bars: The problem, in whole tenths.
        demand: How many of each part are wanted.
        counts: How many bars of each kind there are; None for as many as needed.
        columns: Ways of cutting.
        dear: Whether its first columns are single parts, bought dearly, so that there is an answer before the bars
            are cut well enough to last.
    """
    limited = [k for k, count in enumerate(counts) if count is not None]
    low = [float(each) for each in demand] + [-math.inf for _ in limited]
    high = [math.inf for _ in demand] + [float(counts[k] or 0) for k in limited]
    made = linear_programme.Programme(low, high)
    rows = {k: len(demand) + n for n, k in enumerate(limited)}
    for at in range(len(demand) if dear else 0):
        made.add(3.0 * max(bars.prices) + 1.0, {at: 1.0})
    for column in columns:
        made.add(float(bars.prices[column[0]]), _entries(column, rows))
    return made


class _Knapsack:
    """The most valuable cut of a bar of any length up to the longest, no part more often than it is wanted."""

    def __init__(self, bars: Bars, demand: list[int], grid: int) -> None:
        """grid: whole tenths to which sizes are brought, parts up and bars down."""
        self.size, self.lengths = bars.longest, bars.lengths
        common = math.gcd(*bars.lengths, *bars.sizes) if bars.lengths else 1
        self.unit = common if grid <= common else grid
        self.items: list[tuple[int, int]] = []  # part, how many of it at once
        for at, length in enumerate(bars.lengths):
            self.items += [(at, take) for take in shares(min(demand[at], self.size // length))]

    def best(self, duals: np.ndarray) -> tuple[_Spread, list[tuple[int, int, int, np.ndarray]]]:
        """Return the best value for each length, by whole units, and what was taken where."""
        import numpy as np

        value = np.zeros(self.size // self.unit + 1)
        taken = []
        for at, many in self.items:
            gain, weight = many * float(duals[at]), many * -(-self.lengths[at] // self.unit)
            if gain <= EPS or weight >= len(value):
                continue
            with_it = value[:-weight] + gain
            better = with_it > value[weight:] + EPS
            value[weight:][better] = with_it[better]
            taken.append((at, many, weight, better))
        return _Spread(value, self.unit), taken

    def counts(self, size: int, taken: list[tuple[int, int, int, np.ndarray]]) -> tuple[int, ...]:
        """Return how many of each part the best cut of that length holds."""
        found, at = [0] * len(self.lengths), size // self.unit
        for part, many, weight, better in reversed(taken):
            if at >= weight and better[at - weight]:
                found[part] += many
                at -= weight
        return tuple(found)


class _Spread:
    """Values by length, kept by whole units."""

    def __init__(self, value: np.ndarray, unit: int) -> None:
        self.value, self.unit = value, unit

    def __getitem__(self, size: int) -> float:
        return float(self.value[size // self.unit])
