"""A run of cabinet leaves lined up together: heights first, then sides, then depth, each screw within its range."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.units import IN_MM, Show
from oakmeasure.core.document.adjustment import RunLeaf
from oakmeasure.core.hanging.lexicographic_lp import in_turn
from oakmeasure.core.hanging.remedy import DEPTH_RANGE, HEIGHT_RANGE, SIDE_RANGE


@dataclass(frozen=True, slots=True)
class LeafTurned:
    """What one leaf of a run goes, mm."""

    up: float
    """How far all of it goes up, mm."""
    rises: float
    """How far its right end rises over its left, mm."""
    across: float
    """How far its middle goes to the right, mm."""
    depth_top: float
    """How far its top goes out of the cabinet, mm."""
    depth_bottom: float
    """How far its foot goes out of the cabinet, mm."""
    gap_top: float | None
    """Gap to the next leaf afterwards at the top, mm; None for the last."""
    gap_bottom: float | None
    """Gap to the next leaf afterwards at the foot, mm; None for the last."""


@dataclass(frozen=True, slots=True)
class RunPlan:
    """How a run of leaves is lined up, mm."""

    leaves: tuple[LeafTurned, ...]
    """From the left."""
    line: float
    """How high the tops then lie, from where they should, mm."""
    gap: float
    """That they share."""
    worst_height: float
    """What is left of uneven heights, mm."""
    worst_gap: float
    """What is left of uneven gaps, mm."""
    short: tuple[str, ...]
    """What cannot be reached, in words."""


def line_up(
    run: Sequence[RunLeaf],
    *,
    width: float,
    height: float,
    spread: float,
    wanted: float | None = None,
    show: Show = IN_MM,
) -> RunPlan | None:
    """Return how a run of leaves is lined up; None for an empty run.

    Heights: the tops on one line, as near as may be to where they should be. Sides: the leaf is turned by its
    hinges' side screws, and what is left of their range brings the gaps together (linear programme, HiGHS).

    Args:
        run: The leaves of the run, from left to right.
        width: Of one leaf, mm.
        height: Of one leaf, mm.
        spread: Between its outermost hinges, mm.
        wanted: Gap between two leaves, mm; None: the one that makes the worst of them best.
        show: How lengths and other quantities are written.

    Raises:
        ZeroDivisionError: For a leaf without width.
    """
    if not run:
        return None
    turns = [(each.low_right - each.low_left) / width for each in run]
    most_turn = 2 * SIDE_RANGE / max(spread, 1.0)
    kept = [min(max(turn, -most_turn), most_turn) for turn in turns]
    lows = [each.low_left for each in run]
    line = 0.0 if max(abs(low) for low in lows) <= HEIGHT_RANGE else -(max(lows) + min(lows)) / 2
    ups = [min(max(low + line, -HEIGHT_RANGE), HEIGHT_RANGE) for low in lows]
    left = [SIDE_RANGE - abs(turn) * spread / 2 for turn in kept]
    across, gap, worst = _sides(run, kept, left, height=height, wanted=wanted)
    short = _short(run, turns, kept, lows, line, show)
    leaves = []
    for n, (each, up, turn, shift) in enumerate(zip(run, ups, kept, across, strict=True)):
        last = n == len(run) - 1
        tops = (
            None
            if last or each.gap_top is None
            else _gap(each.gap_top, kept[n], kept[n + 1], shift, across[n + 1], height / 2)
        )
        feet = (
            None
            if last or each.gap_bottom is None
            else _gap(each.gap_bottom, kept[n], kept[n + 1], shift, across[n + 1], -height / 2)
        )
        leaves.append(
            LeafTurned(up, turn * width, shift, _in_range(-each.proud_top), _in_range(-each.proud_bottom), tops, feet)
        )
    ends = [
        (low - up + line, each.low_right - (up + turn * width) + line)
        for each, low, up, turn in zip(run, lows, ups, kept, strict=True)
    ]
    worst_height = max(abs(end) for pair in ends for end in pair)
    return RunPlan(tuple(leaves), line, gap, worst_height, worst, short)


def _in_range(depth: float) -> float:
    return min(max(depth, -DEPTH_RANGE), DEPTH_RANGE)


def _gap(gap: float, turn: float, next_turn: float, across: float, next_across: float, up: float) -> float:
    """Return a gap after both leaves have moved; up: over their middle, mm."""
    return gap + (next_across - next_turn * up) - (across - turn * up)


def _sides(
    run: Sequence[RunLeaf], turns: Sequence[float], left: Sequence[float], *, height: float, wanted: float | None
) -> tuple[list[float], float, float]:
    """Return how far each leaf goes to the right, the gap that they share and how far the worst is off."""
    read = [
        (n, end)
        for n, each in enumerate(run[:-1])
        for end in ("top", "bottom")
        if getattr(each, f"gap_{end}") is not None
    ]
    if not read:
        return [0.0] * len(run), wanted or 0.0, 0.0
    count = len(run)
    # Columns: each leaf's way, the gap, the worst deviation, then how much each leaf goes, whichever way.
    rows, most = [], []
    for n, end in read:
        up = height / 2 if end == "top" else -height / 2
        now = _gap(getattr(run[n], f"gap_{end}"), turns[n], turns[n + 1], 0.0, 0.0, up)
        for sign in (1.0, -1.0):
            row = [0.0] * (2 * count + 2)
            row[n], row[n + 1], row[count], row[count + 1] = -sign, sign, -sign, -1.0
            rows.append(row)
            most.append(-sign * now)
    for n in range(count):
        for sign in (1.0, -1.0):
            row = [0.0] * (2 * count + 2)
            row[n], row[count + 2 + n] = sign, -1.0
            rows.append(row)
            most.append(0.0)
    shared = (wanted, wanted) if wanted is not None else (0.0, None)
    bounds = [*((-each, each) for each in left), shared, (0.0, None), *([(0.0, None)] * count)]
    worst = [0.0] * (count + 1) + [1.0] + [0.0] * count
    found = in_turn([worst, [0.0] * (count + 2) + [1.0] * count], rows, most, bounds)
    if found is None:
        return [0.0] * count, wanted or 0.0, 0.0
    return list(found.x[:count]), found.x[count], found.x[count + 1]


def _short(
    run: Sequence[RunLeaf],
    turns: Sequence[float],
    kept: Sequence[float],
    lows: Sequence[float],
    line: float,
    show: Show,
) -> tuple[str, ...]:
    words = []
    for n, (each, turn, held, low) in enumerate(zip(run, turns, kept, lows, strict=True), start=1):
        if abs(turn - held) > 1e-9:
            words.append(f"leaf {n} leans more than its side screws turn it: move a plate up or down")
        if abs(low + line) > HEIGHT_RANGE + 1e-9:
            words.append(
                f"leaf {n} stands {show.fine(abs(low + line))} off the line, its plates go {show.fine(HEIGHT_RANGE)}: "
                "bore them anew"
            )
        for end in ("top", "bottom"):
            proud = getattr(each, f"proud_{end}")
            if abs(proud) > DEPTH_RANGE:
                out, most = show.fine(abs(proud)), show.fine(DEPTH_RANGE)
                words.append(f"leaf {n} is {out} out at its {end}, its screws go {most}: it is in twist")
    return tuple(words)
