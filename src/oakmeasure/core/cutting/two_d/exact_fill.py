"""Pieces of stock that are filled without waste, found by subset sums: a large whole number serves as the set of sums.

Strips whose widths fill the stock together, each filled along its length; parts of one length may stand side by side in
a strip if their widths fill it. Orders are drawn at random, so that other fillings are found each time.
"""

from __future__ import annotations

import random
from collections import defaultdict
from collections.abc import Sequence
from typing import TYPE_CHECKING

from oakmeasure.core.cutting.in_tenths import CutPiece
from oakmeasure.core.cutting.lp.knapsack import free_spans
from oakmeasure.core.cutting.model import CutKind

if TYPE_CHECKING:
    from oakmeasure.core.cutting.in_tenths import StockInTenths, Tenths
    from oakmeasure.core.cutting.model import Deadline

CutAt = tuple[int, int, int, int, int]
Block = tuple[int, tuple[tuple[int, int], ...]]  # along, and the parts across it with their widths
SPARES = (0.0005, 0.012)  # of a piece's free area that may be lost for it to be taken; one or the other for a plan
MISSES = 40  # pieces that waste too much, one after the other, before the rest is cut as it comes
TRIES = 2  # of finding such parts, for each length and width
BLOCKS = 4  # parts side by side in a strip


def fullest(sizes: Sequence[int], room: int) -> list[int]:
    """Return which sizes fill a room best together, each once: their places, in the order given.

    Args:
        sizes: The sizes, tenths of a mm.
        room: Length of a room, tenths of a mm.

    >>> sum([30, 50, 41, 20][at] for at in fullest([30, 50, 41, 20], 91))
    91
    """
    mask, sums, steps = (1 << (room + 1)) - 1, 1, []
    for size in sizes:
        steps.append(sums)
        sums |= (sums << size) & mask
        if sums >> room & 1:
            break
    at, found = sums.bit_length() - 1, []
    for place in range(len(steps) - 1, -1, -1):
        if not steps[place] >> at & 1:
            found.append(place)
            at -= sizes[place]
    return found[::-1]


def perfect_pieces(
    shop: Tenths, demand: list[int], counts: dict[int, int | None], source: random.Random, watch: Deadline | None
) -> list[CutPiece]:
    """Return pieces that waste next to nothing, as many as are found one after the other.

    Demand and counts go down.

    Args:
        shop: The problem in whole tenths.
        demand: How many of each part are still wanted.
        counts: How many of each kind of stock are left; None for no limit.
        source: Of random numbers.
        watch: The time that there is, and whom to tell; None for no end.
    """
    found: list[CutPiece] = []
    misses, spare = 0, source.choice(SPARES)
    while misses < MISSES and not (watch is not None and watch.over()):
        stocks = [each for each in shop.stock if counts[each.at] != 0]
        if not stocks or not any(demand):
            break
        stock = min(stocks, key=lambda each: shop.rate[each.at] * source.uniform(0.85, 1.15))
        across = source.choice(shop.ways)
        cuts = _one(shop, stock.turned() if across else stock, demand, across, source, spare)
        if not cuts:
            misses += 1
            continue
        if across:
            cuts = [(y, x, part, wide, long) for x, y, part, long, wide in cuts]
        for cut in cuts:
            demand[cut[2]] -= 1
        count = counts[stock.at]
        counts[stock.at] = None if count is None else count - 1
        found.append(CutPiece(stock.at, cuts))
    return found


def _one(
    shop: Tenths, stock: StockInTenths, demand: list[int], across: bool, source: random.Random, spare: float
) -> list[CutAt]:
    """Return the cuts of one piece that wastes next to nothing; [] where none was found."""
    k, left = shop.kerf, list(demand)
    classes = _classes(shop, left, stock, across, source)
    widths: list[int] = []
    for wide, blocks in classes.items():
        total = sum((along + k) for along, _ in blocks)
        widths += [wide] * int(
            total // (stock.length + k) + (source.random() < (total % (stock.length + k)) / (stock.length + k))
        )
    source.shuffle(widths)
    chosen = [widths[at] for at in fullest([wide + k for wide in widths], stock.width + k)]
    if not chosen:
        return []
    source.shuffle(chosen)
    cuts: list[CutAt] = []
    y, marks = 0, sorted(y1 for _, _, _, y1 in stock.holes if 0 < y1 < stock.width)
    for wide in chosen:
        strip = _strip(shop, stock, classes[wide], left, (y, wide), source)
        later = next((mark for mark in marks if mark > y), None)
        if not strip and later is not None and later + wide <= stock.width:
            y = later
            strip = _strip(shop, stock, classes[wide], left, (y, wide), source)
        if not strip or y + wide > stock.width:
            continue
        cuts += strip
        for cut in strip:
            left[cut[2]] -= 1
        y += wide + k
    filled = sum((long + k) * (wide + k) for _, _, _, long, wide in cuts)
    return cuts if filled >= (1 - spare) * shop.room(stock) else []


def _classes(
    shop: Tenths, left: list[int], stock: StockInTenths, across: bool, source: random.Random
) -> dict[int, list[Block]]:
    """Return for each width of strip what can lie in it full: single parts, and parts side by side."""
    k = shop.kerf
    single: dict[int, list[Block]] = defaultdict(list)
    by_along: dict[int, list[tuple[int, int]]] = defaultdict(list)
    for at in shop.fits:
        for along, wide in shop.lies(at, stock.length, stock.width, across=across):
            for _ in range(left[at]):
                single[wide].append((along, ((at, wide),)))
                by_along[along].append((at, wide))
    if shop.problem.kind is CutKind.SHEETS:
        for along, parts in by_along.items():
            if len(parts) > 1:
                _side_by_side(single, along, parts, k, source)
    return single


def _side_by_side(
    single: dict[int, list[Block]], along: int, parts: list[tuple[int, int]], kerf: int, source: random.Random
) -> None:
    """Add blocks of parts of one length whose widths fill a strip that there is for wider ones."""
    for wide in list(single):
        fits = [each for each in parts if each[1] < wide]
        if len(fits) < 2:
            continue
        for _ in range(TRIES):
            source.shuffle(fits)
            taken = fullest([each[1] + kerf for each in fits[:16]], wide + kerf)
            block = tuple(fits[at] for at in taken)
            if 2 <= len(block) <= BLOCKS and sum(each[1] + kerf for each in block) == wide + kerf:
                single[wide].append((along, block))


def _strip(
    shop: Tenths,
    stock: StockInTenths,
    blocks: list[Block],
    left: list[int],
    strip: tuple[int, int],
    source: random.Random,
) -> list[CutAt]:
    """Return what fills a strip span by span; a span that is not filled well is left to others.

    strip: where it begins, and its width.
    """
    (y, wide), k, spare = strip, shop.kerf, list(left)
    cuts: list[CutAt] = []
    # The last are taken first: long ones, which are hard to place later; drawn a little, never the same twice.
    order = sorted(blocks, key=lambda block: block[0] * source.uniform(0.5, 1.5))
    clean = [run for run in free_spans(stock, y, wide) if run[2] == stock.levels[-1]]
    for a, b, _ in sorted(clean, key=lambda run: run[0] - run[1]):
        usable = []
        count: dict[int, int] = {}
        for block in order:
            needs: dict[int, int] = {}
            for at, _ in block[1]:
                needs[at] = needs.get(at, 0) + 1
            if all(count.get(at, 0) + n <= spare[at] for at, n in needs.items()) and block[0] <= b - a:
                usable.append(block)
                for at, n in needs.items():
                    count[at] = count.get(at, 0) + n
        x = a
        for place in fullest([along + k for along, _ in usable], b - a + k):
            along, parts = usable[place]
            at_y = y
            for at, across in parts:
                cuts.append((x, at_y, at, along, across))
                spare[at] -= 1
                at_y += across + k
            x += along + k
    return cuts
