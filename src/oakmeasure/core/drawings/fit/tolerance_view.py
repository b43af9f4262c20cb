"""Where each gap, or overlap, will lie: a bar from 5 to 95 % of the drawn leaves, and what was asked."""

from __future__ import annotations

import math
from collections.abc import Callable

from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Anchor, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.reports.tolerance import Range, Tolerance

# Drawing units; the numbers on it are the gaps
WIDE = 300.0
NAMES = 86.0
ROW = 27.0
BAR = 10.0
LARGE = 20.0  # overlaps this large are shown by how far they miss, or their bars could not be seen


def tolerance_view(found: Tolerance, show: Show) -> Drawing:
    """Return the plot, one row for each end of each edge.

    Args:
        found: Where each gap will lie.
        show: How lengths and other quantities are written.
    """
    sketch = Sketch(show)
    relative = max(each.asked for each in found.ranges) > LARGE
    rows = [(each, each.asked if relative else 0.0) for each in found.ranges]
    low = min(0.0, *(each.low - base for each, base in rows))
    high = max(1.0, *(each.high - base for each, base in rows))
    step = sketch.step = _step(high - low)
    low, high = step * math.floor(low / step), step * math.ceil(high / step)

    def across(value: float) -> float:
        return NAMES + (WIDE - NAMES) * (value - low) / (high - low)

    foot = -ROW * len(rows) - 4
    for at in range(round((high - low) / step) + 1):
        value = low + at * step
        sketch.line([(across(value), 4.0), (across(value), foot)], Layer.FAINT)
        sketch.label((across(value), foot - 3), show.short_length(value), PENCIL, anchor=Anchor.BELOW)
    sketch.line([(across(0.0), 4.0), (across(0.0), foot)], Layer.OUTLINE)
    for at, (each, base) in enumerate(rows):
        _row(sketch, each, base, -ROW * (at + 0.5), across)
    words = "off what is asked" if relative else "gap; 0: it touches"
    sketch.label(((NAMES + WIDE) / 2, foot - 18), words, PENCIL, anchor=Anchor.BELOW)
    return sketch.drawing(margin=6.0)


def _row(sketch: Sketch, each: Range, base: float, y: float, across: Callable[[float], float]) -> None:
    show = sketch.show
    bad = each.low < each.least
    x0, x1 = across(each.low - base), across(each.high - base)
    if x1 - x0 < 2:
        x0, x1 = x0 - 1, x1 + 1
    ref = f"figure:{each.figure}" if each.figure else ""
    bar = Rect(x0, y - BAR / 2, x1, y + BAR / 2)
    sketch.rect(bar, Layer.BAND if bad else Layer.LEAF, ref=ref)
    sketch.box(bar, Layer.DOUBT if bad else Layer.LEAF, ref=ref)
    asked = across(each.asked - base)
    sketch.line([(asked, y - 0.85 * BAR), (asked, y + 0.85 * BAR)], Layer.OUTLINE, ref=ref)
    numbers = f"{show.short_length(each.low)} to {show.short_length(each.high)}"
    sketch.write((0.0, y + 6.0), each.label, BOLD, ref=ref)
    sketch.write((0.0, y - 6.0), numbers, Lettering(Layer.DOUBT if bad else Layer.PENCIL), ref=ref)


def _step(span: float) -> float:
    """Return a round step that gives four to eight lines."""
    rough = span / 5
    power = 10 ** math.floor(math.log10(rough))
    return next(each * power for each in (1, 2, 5, 10) if each * power >= rough)
