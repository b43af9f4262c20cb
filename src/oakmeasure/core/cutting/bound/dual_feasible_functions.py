"""A bound for sheets that knows more than their area: two parts that are each over half a sheet need two of them.

Dual feasible functions f on 0 to 1: whatever lengths fit together, the sum of their f is at most 1. Taken along and
across, f(length)·g(width) of the parts on a sheet sum to at most 1, however it is cut. Functions that are superadditive
hold for smaller sheets too, by what they give of the smaller side. Sources: Fekete and Schepers 2001; u(k) Lueker 1983.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from fractions import Fraction
from typing import TYPE_CHECKING

from oakmeasure.core.cutting.model import least_cost

if TYPE_CHECKING:
    from oakmeasure.core.cutting.two_d.stock_assignment import Shop

KS = (1, 2, 3, 4)  # of the functions u(k)
MOST_CUTS = 24  # sizes that serve as the ends of the functions U
SCALE = 1_000_000  # of what is summed, to whole numbers
TRIED = 6  # pairs of functions that are turned into a cost
Function = Callable[[int, int], Fraction]  # of a size and of the whole, both with their kerf


def rounded(k: int) -> Function:
    """Return u(k): (k + 1)·x is rounded down and shared out again; what divides evenly stays as it is.

    Args:
        k: Which function, from 1.
    """

    def of(size: int, whole: int) -> Fraction:
        if (k + 1) * size % whole == 0:
            return Fraction(size, whole)
        return Fraction((k + 1) * size // whole, k)

    return of


def ends(cut: int) -> Function:
    """Return U(cut): what leaves less than `cut` counts as the whole, what is less as nothing.

    Args:
        cut: The size that is cut off at both ends, tenths of a mm; at most half of the whole.
    """

    def of(size: int, whole: int) -> Fraction:
        if size > whole - cut:
            return Fraction(1)
        return Fraction(size, whole) if size >= cut else Fraction(0)

    return of


def plain(size: int, whole: int) -> Fraction:
    """Return a size as it is, of the whole.

    Args:
        size: The size, tenths of a mm.
        whole: The stock's size, tenths of a mm.
    """
    return Fraction(size, whole)


def _functions(sizes: Sequence[int], whole: int) -> list[Function]:
    cuts = sorted({min(size, whole - size) for size in sizes if 0 < size < whole} - {0})
    cuts = [each for each in cuts if 2 * each <= whole]
    some = cuts[:: max(1, len(cuts) // MOST_CUTS)]
    return [plain, *(rounded(k) for k in KS), *(ends(each) for each in some)]


def sheet_bound(shop: Shop, most: int) -> int:
    """Return what no plan of all parts that fit can cost less than, hundredths.

    Args:
        shop: The problem in whole tenths.
        most: Cost of a plan that is known, hundredths.
    """
    import numpy as np

    k = shop.kerf
    whole = (max(each.length for each in shop.stock) + k, max(each.width for each in shop.stock) + k)
    parts = [(shop.sizes[at][0] + k, shop.sizes[at][1] + k, shop.turns[at], shop.demand[at]) for at in shop.fits]
    if not parts:
        return 0
    along = _functions([each[n] for each in parts for n in ((0, 1) if each[2] else (0,))], whole[0])
    across = _functions([each[n] for each in parts for n in ((1, 0) if each[2] else (1,))], whole[1])

    def table(functions: Sequence[Function], n: int, side: int) -> np.ndarray:
        return np.array(
            [
                [float(f(min(each[n], whole[side]), whole[side])) if each[n] <= whole[side] else 1e9 for each in parts]
                for f in functions
            ]
        )

    count = np.array([each[3] for each in parts], dtype=float)
    turns = np.array([each[2] for each in parts])
    fa, ga = table(along, 0, 0), table(across, 1, 1)
    fb, gb = table(along, 1, 0), table(across, 0, 1)
    straight = fa[:, None, :] * ga[None, :, :]
    lying = np.where(turns, np.minimum(straight, fb[:, None, :] * gb[None, :, :]), straight)
    totals = (lying * count).sum(axis=2)
    found = 0
    for place in np.argsort(-totals, axis=None)[:TRIED]:
        f, g = divmod(int(place), len(across))
        kinds = []
        for each in shop.stock:
            size = float(along[f](each.length + k, whole[0]) * across[g](each.width + k, whole[1]))
            kinds.append((each.price, round(SCALE * size) + 1, each.count))
        need = int(SCALE * totals[f, g] * (1 - 1e-9)) - 1
        found = max(found, least_cost(kinds, need=need, at_least=0.0, most=most))
    return found
