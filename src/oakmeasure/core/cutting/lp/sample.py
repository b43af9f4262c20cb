"""Prices of parts that a sample tells nearly: of a long list one part in a few is planned on one board in a few.

What a part is worth follows its length within its width, so that the prices of those between are read off. They only
say where the programme begins; its bound and its plans do not rest on them.
"""

from __future__ import annotations

import random
from collections import defaultdict
from collections.abc import Callable, Sequence

from oakmeasure.core.cutting.lp.master import Master
from oakmeasure.core.cutting.two_d.stock_assignment import Shop

ONE_IN = 4  # kinds of parts, in order of width and length
LEAST_KINDS = 160  # of parts; shorter lists are solved as soon
DEAR = 1.5  # times its share of the dearest stock, that a part is bought at
NEAR = 2e-4  # of the cost, from which a round of the sample is no longer worth its time
SEED = 5


def prices(
    shop: Shop, demand: Sequence[int], stock: dict[int, int | None], ways: Sequence[bool], until: Callable[[], bool]
) -> list[float] | None:
    """Return what each part is worth nearly, hundredths.

    None for a list too short to need it, or where the time was over.

    Args:
        shop: The problem in whole tenths.
        demand: Of each part.
        stock: How many of each kind.
        ways: Whether strips lie across the stock.
        until: What says when the time is over.
    """
    import numpy as np

    parts = [at for at in shop.fits if demand[at]]
    if len(parts) < LEAST_KINDS:
        return None
    by_width: dict[int, list[int]] = defaultdict(list)
    for at in sorted(parts, key=lambda at: (shop.sizes[at][1], shop.sizes[at][0])):
        by_width[shop.sizes[at][1]].append(at)
    drawn = {at for ats in by_width.values() for at in (*ats[::ONE_IN], ats[-1])}
    some = [many if at in drawn else 0 for at, many in enumerate(demand)]
    share = _area(shop, some) / _area(shop, demand)
    kinds = sorted(stock)
    random.Random(SEED).shuffle(kinds)
    there = {at: stock[at] for at in kinds[: max(1, round(share * len(kinds)))]}
    master = Master(shop, some, there, dear=DEAR, ways=ways)
    rounds, before = 0, 0.0

    def is_near() -> bool:
        nonlocal rounds, before
        rounds, before, gone = rounds + 1, master.value, abs(master.value - before)
        return until() or (rounds > 5 and gone < NEAR * master.value)

    solved = master.solve(is_near, finest=1)
    if solved is None or until():
        return None
    paid = master.paid(solved)
    value = list(paid)
    for ats in by_width.values():
        known = [at for at in ats if at in drawn]
        for at in ats:
            value[at] = float(
                np.interp(shop.sizes[at][0], [shop.sizes[each][0] for each in known], [paid[each] for each in known])
            )
    return value


def _area(shop: Shop, demand: Sequence[int]) -> float:
    return sum(many * float(shop.sizes[at][0] * shop.sizes[at][1]) for at, many in enumerate(demand))
