"""Bars that nearly fit: three of them are taken apart and filled again in every possible way.

What they waste so comes together in one, until a part of the emptiest bar finds room there, and at last that bar is
not needed.

All sums of up to MOST parts are listed; of those that fill a bar well enough any two that share no part are a packing.
Source: exhaustive search over subsets; for lists in which nearly nothing is wasted, where columns alone do not get
there.
"""

from __future__ import annotations

import random
from collections.abc import Sequence

from oakmeasure.core.cutting.model import SCALE, Cut, CutPlan, Deadline, Problem, StockItem, tenths

MOST = 22  # parts at once: four million sums
PAIRS = 4000  # ways to fill a bar that are held against one another, at the most
SEED = 11
TRIES = 20
WASTEFUL = 4
Fill = list[tuple[int, str]]  # lengths with their kerf, tenths, and names of parts


def fullest(parts: Sequence[int], rooms: Sequence[int], source: random.Random) -> tuple[int, ...] | None:
    """Return the parts of two or three bars of these rooms that hold all of them; None for none.

    Parts are bits; all bars but the last are as full as they come.

    Args:
        parts: Lengths with their kerf, whole numbers.
        rooms: Lengths with their kerf, whole numbers.
        source: Of random numbers.

    >>> fullest([50, 40, 30, 30, 30, 20], [90, 60, 60], random.Random(1)) is not None
    True
    """
    import numpy as np

    total = sum(parts)
    if total > sum(rooms) or len(parts) > MOST:
        return None
    sums = np.zeros(1, dtype=np.int32)
    for part in parts:
        sums = np.concatenate([sums, sums + part])
    lists = []
    for bar in range(len(rooms) - 1):
        least = total - sum(rooms) + rooms[bar]
        found = np.nonzero((sums >= least) & (sums <= rooms[bar]))[0]
        if not len(found):
            return None
        if len(found) > PAIRS:  # the fullest, and some of the others
            order = found[np.argsort(-sums[found], kind="stable")]
            some = np.array(source.sample(range(PAIRS // 2, len(order)), PAIRS // 2))
            found = np.concatenate([order[: PAIRS // 2], order[some]])
        lists.append(found)
    whole = (1 << len(parts)) - 1
    if len(lists) == 1:
        mask = int(lists[0][int(sums[lists[0]].argmax())])
        return mask, whole - mask
    first, second = lists
    best, most = None, total - rooms[2] - 1
    for mask in first.tolist():
        apart = second[(second & mask) == 0]
        if not len(apart):
            continue
        fills = sums[apart]
        at = int(fills.argmax())
        if int(sums[mask]) + int(fills[at]) > most:
            most = int(sums[mask]) + int(fills[at])
            best = (mask, int(apart[at]))
            if most == rooms[0] + rooms[1]:
                break
    if best is None:
        return None
    return (*best, whole - best[0] - best[1])


def better_bars(problem: Problem, plan: CutPlan, watch: Deadline, *, tidy: bool = False) -> CutPlan:
    """Return a plan that costs less, or the same one when the watch ends it. Every bar keeps its stock.

    Args:
        problem: What is to be cut out of what.
        plan: The plan.
        watch: The time that there is, who may stop it, and whom to tell.
        tidy: Go on where nothing can be saved, so that what is left comes together in one long off-cut.
    """
    kerf, trim = tenths(problem.kerf, up=True), tenths(problem.trim, up=True)
    stock = {each.name: each for each in problem.stock}
    bars: dict[tuple[str, int], Fill] = {}
    for cut in plan.cuts:
        bars.setdefault((cut.stock, cut.index), []).append((tenths(cut.length, up=True) + kerf, cut.part))
    room = {key: tenths(stock[key[0]].length, up=False) - 2 * trim + kerf for key in bars}
    source, cost = random.Random(SEED), plan.cost
    while not watch.over() and (tidy or cost > plan.bound + 0.005) and len(bars) > 3:
        victim = min(bars, key=lambda key: sum(size for size, _ in bars[key]) / stock[key[0]].price)
        others = [key for key in bars if key != victim]
        spare = {key: room[key] - sum(size for size, _ in bars[key]) for key in others}
        drawn = _drawn({key: len(bars[key]) for key in others}, spare, source)
        if drawn is None:
            continue
        wasteful = drawn[0]
        extra = next(
            (part for part in sorted(bars[victim], reverse=True) if part[0] <= sum(spare[key] for key in drawn)), None
        )
        parts = [part for key in drawn for part in bars[key]] + ([extra] if extra is not None else [])
        drawn = [*drawn[1:], wasteful]  # what is wasted comes together where it is most already
        found = fullest([size for size, _ in parts], [room[key] for key in drawn], source)
        if found is None:
            continue
        for key, mask in zip(drawn, found, strict=True):
            bars[key] = [part for at, part in enumerate(parts) if mask >> at & 1]
        if extra is not None:
            bars[victim].remove(extra)
            if not bars[victim]:
                del bars[victim]
                cost = _cost(bars, stock)
                if watch.tell is not None:
                    watch.tell(_plan(problem, plan, bars, watch))
    return _plan(problem, plan, bars, watch) if tidy or cost < plan.cost - 0.005 else plan


def _drawn(
    many: dict[tuple[str, int], int], spare: dict[tuple[str, int], int], source: random.Random
) -> list[tuple[str, int]] | None:
    """Return two or three bars that hold few enough parts together, one that wastes much first; None for none.

    many: parts of each bar.
    """
    bars = list(many)
    wasteful = sorted(bars, key=lambda key: -spare[key])[:WASTEFUL]
    first = source.choice(wasteful) if source.random() < 0.6 else source.choice(bars)
    rest = [key for key in many if key != first and many[key] + many[first] < MOST]
    for _ in range(TRIES):
        two = source.sample(rest, min(2, len(rest)))
        if two and many[first] + sum(many[each] for each in two) < MOST:
            return [first, *two]
    return [first, source.choice(rest)] if rest else None


def _cost(bars: dict[tuple[str, int], Fill], stock: dict[str, StockItem]) -> float:
    return sum(stock[name].price for name, _ in bars)


def _plan(problem: Problem, plan: CutPlan, bars: dict[tuple[str, int], Fill], watch: Deadline) -> CutPlan:
    """Return the bars as a plan, in mm."""
    lengths = {each.name: each.length for each in problem.parts}
    stock = {each.name: each for each in problem.stock}
    count: dict[str, int] = {}
    cuts = []
    for (name, _), parts in sorted(bars.items()):
        number = count.get(name, 0)
        count[name] = number + 1
        x = tenths(problem.trim, up=True)
        for size, part in sorted(parts, reverse=True):
            cuts.append(Cut(name, number, part, x / SCALE, 0.0, lengths[part], 0.0))
            x += size
    cost = round(sum(stock[name].price * many for name, many in count.items()), 6)
    return CutPlan(cost, min(plan.bound, cost), tuple(cuts), plan.left, tuple(sorted(count.items())), watch.gone)
