"""Strips that are crosscut into lengths, each of which holds parts side by side: three stages of cuts.

A slot is a length of a strip. What lies side by side in it is a knapsack over the strip's width; which slots fill a
strip is a knapsack over its length. Source: Gilmore and Gomory 1965, a stage more.
"""

from __future__ import annotations

import math
from bisect import bisect_right
from collections import Counter
from collections.abc import Sequence
from typing import TYPE_CHECKING

from oakmeasure.core.cutting.lp.knapsack import MOST_CELLS, Strips, Tables, Way
from oakmeasure.core.cutting.model import shares

if TYPE_CHECKING:
    import numpy as np

TINY = 1e-6  # what sums of single precision differ by
NEAR_CELLS = 60_000  # of a table, that stay near the processor
SLOT = -1  # stands for the part in a way that is a slot


def side_by_side(
    ways: Sequence[Way], left: list[int], value: Sequence[float], widest: int, kerf: int, grid: int
) -> Tables:
    """Return what parts in one slot are worth at the most.

    It goes by the slot's length along the strip and the width of the strip.

    Args:
        ways: Parts and how they may lie.
        left: How many of each part are left; it goes down by what is taken.
        value: What each part is worth, hundredths of the money.
        widest: The widest strip, tenths of a mm.
        kerf: Of the saw, tenths of a mm.
        grid: To how many tenths of a mm widths and lengths are taken.
    """
    turned = sorted((Way(way.part, way.across, way.along) for way in ways), key=lambda way: (way.across, -way.along))
    return Tables(turned, left, value, widest + kerf, kerf, grid)


def by_length(ways: Sequence[Way], left: Sequence[int]) -> Counter[int]:
    """Return how many slots there can be of each length: one for each part as long.

    Args:
        ways: Parts and how they may lie.
        left: How many of each part are left.
    """
    found = Counter[int]()
    for way in ways:
        found[way.along] += left[way.part]
    return found


def useful_slots(alongs: Sequence[int], worths: np.ndarray, many: Sequence[int]) -> list[tuple[int, np.ndarray, int]]:
    """Return the lengths of slots that are worth more than any shorter one in some width of strip.

    With each comes what it is worth by width, and how many there can be of it. Where a shorter slot is worth as
    much, that one is taken as often more.

    Args:
        alongs: Lengths of slots, tenths of a mm.
        worths: What each length of slot is worth, by the width of the strip.
        many: How many of each part are left.
    """
    found: list[tuple[int, np.ndarray, int]] = []
    for along, gain, count in zip(alongs, worths, many, strict=True):
        if (gain > (found[-1][1] if found else 0.0) * (1 + TINY)).any():
            found.append((along, gain, count))
        elif found:
            found[-1] = (*found[-1][:2], found[-1][2] + count)
    return found


class Slots(Strips):
    """The same questions as Tables answers, for strips of slots. A slot is as long as some part in it."""

    def __init__(
        self, ways: list[Way], left: list[int], longest: int, grid: int, stacks: Tables, widths: Sequence[int] = ()
    ) -> None:
        """stacks: of `side_by_side`. widths: of strips, in order; those of the parts where none are given."""
        import numpy as np

        super().__init__(ways, left)
        self.stacks, self.kerf = stacks, stacks.kerf
        kerf = self.kerf
        self.widths = list(widths) or sorted({way.across for way in ways})
        self._most = sum(left[way.part] for way in ways)
        alongs = self.stacks.widths
        often = by_length(ways, left)
        cells_of = (np.array(self.widths, dtype=np.int64) + kerf) // stacks.unit
        common = math.gcd(longest, *(a + kerf for a in alongs))
        cells = longest * len(alongs) * len(self.widths)
        self.unit, self.grid = max(common, grid, cells // MOST_CELLS), grid
        self.exact = self.unit == common and self.stacks.exact
        size = longest // self.unit
        self.items: list[tuple[int, int, int]] = []
        gains: list[np.ndarray] = []
        for a, worth, many in useful_slots(alongs, stacks.most[:, cells_of], [often[a] for a in alongs]):
            weight = -(-(a + kerf) // self.unit)
            for take in shares(min(many, size // weight)):
                self.items.append((a, take, take * weight))
                gains.append((take * worth * (1 - TINY)).astype(np.float32)[:, None])
        # The most that the items so far are worth, by width of strip and length; and where each item made it more. A
        # few widths at a time, so that what is read again and again stays near the processor.
        self.most = rows = np.zeros((len(self.widths), size + 1), dtype=np.float32)
        self.better = [np.empty((len(self.widths), size + 1 - weight), dtype=bool) for _, _, weight in self.items]
        few = max(1, NEAR_CELLS // (size + 1))
        room = np.empty((few, size + 1), dtype=np.float32)
        for top in range(0, len(self.widths), few):
            block = rows[top : top + few]
            for (_, _, weight), gain, better in zip(self.items, gains, self.better, strict=True):
                before, more = block[:, weight:], room[: len(block), weight:]
                np.add(block[:, : size + 1 - weight], gain[top : top + few], out=more)
                np.greater(more, before, out=better[top : top + few])
                np.maximum(before, more, out=before)

    def strips(self, wide: int) -> int:
        """Return how many strips of that width can be of use; any number of those that no part is as wide as.

        Args:
            wide: Width of the strip, tenths of a mm.
        """
        return super().strips(wide) or self._most

    def taken(self, wide: int, length: int, left: list[int]) -> list[Way]:
        """Return the slots of that span, the longest first.

        Args:
            wide: Width of the strip, tenths of a mm.
            length: Length of the span, tenths of a mm.
            left: How many of each part are left; it goes down by what is taken.
        """
        found: list[Way] = []
        at, width = max(length, 0) // self.unit, bisect_right(self.widths, wide) - 1
        for n in range(len(self.items) if width >= 0 else 0, 0, -1):
            along, take, weight = self.items[n - 1]
            if at >= weight and self.better[n - 1][width, at - weight]:
                found += [Way(SLOT, along, wide)] * take
                at -= weight
        return sorted(found, key=lambda way: -way.along)

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
        lying = self.stacks.taken(along, wide + self.kerf, left)
        return [Way(way.part, way.across, way.along) for way in lying]
