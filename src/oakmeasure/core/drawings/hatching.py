"""Lines across an area: hatching, and the way its grain runs."""

from __future__ import annotations

import math
import random

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.drawings.drawing import Area, Grain
from oakmeasure.core.leaf.part import Rect


def hatching(rect: Rect, spacing: float) -> list[list[Point]]:
    """Return lines at 45° that fill a rectangle: cut end grain, or wall, as on a workshop drawing.

    Args:
        rect: The rectangle, mm.
        spacing: Between two lines, mm.
    """
    lines: list[list[Point]] = []
    offset = rect.y0 - rect.width + spacing / 2  # of the line y = x − x0 + offset
    while offset < rect.y1:
        low = max(rect.x0, rect.x0 + rect.y0 - offset)
        high = min(rect.x1, rect.x0 + rect.y1 - offset)
        if high > low:
            lines.append([(low, low - rect.x0 + offset), (high, high - rect.x0 + offset)])
        offset += spacing
    return lines


def grain_in(area: Area) -> list[list[Point]]:
    """Return the lines that show which way the wood runs in an area, over the box that it fills: to be clipped.

    Args:
        area: The area with its grain.
    """
    xs, ys = [x for x, _ in area.points], [y for _, y in area.points]
    box = Rect(min(xs), min(ys), max(xs), max(ys))
    if area.grain is Grain.NONE:
        return []
    if area.grain is Grain.END:
        return hatching(box, max(min(box.width, box.height) / 5, 4.0))
    return grain_lines(box, upright=area.grain is Grain.UPRIGHT)


def grain_lines(rect: Rect, *, upright: bool) -> list[list[Point]]:
    """Return the face grain of a board: lines along it that wander, closer towards the edges as in flat-sawn wood.

    The same rectangle always gets the same grain.

    Args:
        rect: The rectangle, mm.
        upright: Whether its grain runs up the leaf.
    """
    length, width = (rect.height, rect.width) if upright else (rect.width, rect.height)
    if length <= 0 or width <= 0:
        return []
    source = random.Random(round(rect.x0 * 7 + rect.y0 * 13 + length * 3 + width))
    count = max(3, min(8, int(width / 16)))
    centre = source.uniform(0.35, 0.65)
    lines: list[list[Point]] = []
    for at in range(count):
        share = (at + 0.5) / count
        # Crowded at the edges, wide apart at the heart.
        across = centre + (share - centre) * (0.55 + 0.45 * abs(2 * share - 1))
        swing = width * 0.012 * source.uniform(0.4, 1.6)
        phase, turns = source.uniform(0, 6.3), source.uniform(0.5, 1.4)
        start, end = source.uniform(0, 0.12), source.uniform(0.86, 1.0)
        line: list[Point] = []
        for step in range(7):
            along = start + (end - start) * step / 6
            side = across * width + swing * math.sin(phase + turns * 6.3 * along)
            side = min(max(side, width * 0.02), width * 0.98)
            line.append(
                (rect.x0 + side, rect.y0 + along * length) if upright else (rect.x0 + along * length, rect.y0 + side)
            )
        lines.append(line)
    return lines
