"""Sheets that are filled next to perfectly.

Few slots waste so little that they can be in such a plan, so that all of them can be listed, and whole numbers of
them chosen at once.

A slot is a length of a strip, for one part or parts side by side; a strip is as wide as some part. The strips of one
width are one row of the programme: how its slots are shared out among them, and the strips among the sheets, is seen
after that. Source: the one-cut model of Dyckhoff 1981, a stage more; a part of the plan's waste bounds each slot's.
"""

from __future__ import annotations

import math
import random
from collections import Counter, defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.base import linear_programme
from oakmeasure.core.cutting.in_tenths import CutPiece
from oakmeasure.core.cutting.two_d.exact_fill import fullest

if TYPE_CHECKING:
    from oakmeasure.core.cutting.lp.knapsack import Way
    from oakmeasure.core.cutting.two_d.stock_assignment import Shop

MOST_SLOTS = 3000  # more than these waste so much that the programme over columns does better
MOST_BESIDE = 5  # parts side by side
# Of sharing lengths out: one by one, and room by room
TRIES = 5000
FILLED = 300
SEED = 3


@dataclass(frozen=True, slots=True)
class Slot:
    """Parts side by side in a strip."""

    wide: int
    """Width of the strip, tenths of a mm."""
    along: int
    """Of the longest, tenths."""
    parts: tuple[Way, ...]
    """What lies in it."""


def tight_plan(shop: Shop, sheets: int, *, across: bool, seconds: float) -> list[CutPiece] | None:
    """Return so many sheets that hold all parts.

    None where none was found in time, or the sheets would not be filled well enough for this. Only for one kind
    of stock, without defects.

    Args:
        shop: The problem in whole tenths.
        sheets: How many sheets.
        across: Whether strips lie across the sheet.
        seconds: For how long it may look, s.
    """
    stock = shop.stock[0].turned() if across else shop.stock[0]
    long, wide, k = stock.length + shop.kerf, stock.width + shop.kerf, shop.kerf
    need = sum(shop.demand[at] * (shop.sizes[at][0] + k) * (shop.sizes[at][1] + k) for at in shop.fits)
    spare = sheets * long * wide - need
    slots = _slots(shop, across, spare)
    if not slots:
        return None
    programme = linear_programme.Programme((), ())
    whole = programme.row(-math.inf, float(sheets * wide))
    lengths = {each: programme.row(-math.inf, 0.0) for each in sorted({slot.wide for slot in slots})}
    held = {at: programme.row(float(shop.demand[at]), float(shop.demand[at])) for at in shop.fits}
    for each, row in lengths.items():
        programme.add(float(each + k), {whole: float(each + k), row: -float(long)})
    for slot in slots:
        many = Counter(way.part for way in slot.parts)
        entries = {lengths[slot.wide]: float(slot.along + k)} | {held[at]: float(n) for at, n in many.items()}
        programme.add(0.0, entries, float(min(shop.demand[at] // n for at, n in many.items())))
    x = programme.solve_whole(seconds=seconds)
    if x is None:
        return None
    taken: dict[int, list[Slot]] = defaultdict(list)
    for slot, many_of_it in zip(slots, x[len(lengths) :], strict=True):
        taken[slot.wide] += [slot] * int(many_of_it)
    strips: list[list[Slot]] = []
    for count, each in zip(x, lengths, strict=False):
        shares = share_out([slot.along + k for slot in taken[each]], int(count), long)
        if shares is None:
            return None
        strips += [[taken[each][at] for at in share] for share in shares if share]
    stacked = share_out([strip[0].wide + k for strip in strips], sheets, wide)
    if stacked is None:
        return None
    return [_piece(shop, [strips[at] for at in share], across) for share in stacked if share]


def share_out(sizes: Sequence[int], many: int, room: int) -> list[list[int]] | None:
    """Return which sizes lie in each of so many rooms of one size; None where no way was found.

    Args:
        sizes: The sizes, tenths of a mm.
        many: How many rooms there are.
        room: Length of a room, tenths of a mm.

    >>> sorted(share_out([5, 4, 3, 3, 3], 2, 9))
    [[0, 1], [2, 3, 4]]
    """
    return _one_by_one(sizes, many, room) or _filled(sizes, many, room)


def _filled(sizes: Sequence[int], many: int, room: int) -> list[list[int]] | None:
    """Fill room after room as full as can be, the largest that is left first, in orders drawn at random."""
    source = random.Random(SEED)
    for _ in range(FILLED):
        left, shares = list(range(len(sizes))), []
        for _ in range(many):
            source.shuffle(left)
            if left:
                largest = max(left, key=lambda at: sizes[at])
                left.remove(largest)
                taken = fullest([sizes[at] for at in left], max(room - sizes[largest], 0))
                shares.append([largest, *(left[n] for n in taken)])
                left = [at for at in left if at not in shares[-1]]
            else:
                shares.append([])
        if not left and all(sum(sizes[at] for at in share) <= room for share in shares):
            return shares
    return None


def _one_by_one(sizes: Sequence[int], many: int, room: int) -> list[list[int]] | None:
    """Put each size, the largest first, into one room after the other; None where none was found in so many tries.

    One that leads nowhere is taken out again.
    """
    order = sorted(range(len(sizes)), key=lambda at: -sizes[at])
    shares: list[list[int]] = [[] for _ in range(many)]
    left, tries = [room] * many, TRIES

    def goes_on(n: int) -> bool:
        nonlocal tries
        if n == len(order):
            return True
        tries -= 1
        rooms = {left[at]: at for at in range(many)}  # of those alike, one
        for _, at in sorted(rooms.items()):  # the fullest first
            if sizes[order[n]] <= left[at] and tries > 0:
                left[at] -= sizes[order[n]]
                shares[at].append(order[n])
                if goes_on(n + 1):
                    return True
                left[at] += sizes[shares[at].pop()]
        return False

    return shares if goes_on(0) else None


def _slots(shop: Shop, across: bool, spare: int) -> list[Slot]:
    """Return all slots that waste no more than `spare`, each once; [] where there are too many."""
    from oakmeasure.core.cutting.lp.knapsack import Way

    stock = shop.stock[0].turned() if across else shop.stock[0]
    lies = [
        Way(at, along, wide)
        for at in shop.fits
        for along, wide in shop.lies(at, stock.length, stock.width, across=across)
    ]
    order = sorted(lies, key=lambda way: (way.along, way.across, way.part))
    found: dict[tuple[int, int, tuple[int, ...]], Slot] = {}
    for wide in sorted({way.across for way in order}):
        for parts in _beside(shop, order, wide, spare):
            slot = Slot(wide, max(way.along for way in parts), parts)
            found.setdefault((wide, slot.along, tuple(sorted(way.part for way in parts))), slot)
            if len(found) > MOST_SLOTS:
                return []
    return list(found.values())


def _beside(shop: Shop, order: Sequence[Way], wide: int, spare: int) -> Iterator[tuple[Way, ...]]:
    """Yield the parts that can lie side by side in a strip of that width and waste no more than `spare`."""
    k, most = shop.kerf, MOST_BESIDE if shop.stages > 2 else 1
    todo: list[tuple[int, int, int, tuple[Way, ...]]] = [(0, 0, 0, ())]  # from, width and area taken, parts
    while todo:
        first, taken, area, parts = todo.pop()
        for n in range(first, len(order)):
            way = order[n]
            now, filled = taken + way.across + k, area + (way.along + k) * (way.across + k)
            if (way.along + k) * now - filled > spare:
                break  # those that come are longer still
            if now > wide + k or sum(each.part == way.part for each in parts) >= shop.demand[way.part]:
                continue
            if (way.along + k) * (wide + k) - filled <= spare:
                yield (*parts, way)
            if len(parts) + 1 < most:
                todo.append((n, now, filled, (*parts, way)))


def _piece(shop: Shop, strips: Sequence[Sequence[Slot]], across: bool) -> CutPiece:
    """Return a sheet with those strips one beside the other, the widest first."""
    piece, y = CutPiece(shop.stock[0].at), 0
    for strip in sorted(strips, key=lambda each: -each[0].wide):
        x = 0
        for slot in sorted(strip, key=lambda each: -each.along):
            up = y
            for way in slot.parts:
                cut = (x, up, way.part, way.along, way.across)
                piece.cuts.append((up, x, way.part, way.across, way.along) if across else cut)
                up += way.across + shop.kerf
            x += slot.along + shop.kerf
        y += strip[0].wide + shop.kerf
    return piece
