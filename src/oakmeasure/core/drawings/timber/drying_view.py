"""The moisture log of a board: its readings over the days, the line through them, and when it will be ready."""

from __future__ import annotations

from datetime import timedelta

from oakmeasure.core.base.geometry import circle
from oakmeasure.core.base.units import IN_MM
from oakmeasure.core.document.stock import Board
from oakmeasure.core.drawings.drawing import BOLD, Anchor, Drawing, Layer, Lettering, Onto, Sketch
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.timber.drying import Trend
from oakmeasure.core.timber.wood import READY_WITHIN

WIDE = 1000.0
TALL = 470.0
STEP = 10.0
LEAST_DAYS = 28


def drying_view(board: Board, found: Trend | None, rest: tuple[float, float]) -> Drawing:
    """Return the plot.

    Args:
        board: The board, seen on its best face with its head end to the left.
        found: How the board dries; None for too few readings.
        rest: Moisture at rest in the driest and the wettest air of the room, %.
    """
    if found is None:
        return empty_view("no readings of this board yet: write one in, at the left")
    sketch = Sketch(IN_MM)
    days = max(LEAST_DAYS, (board.readings[-1].day - found.first).days + 7)
    if found.ready is not None:
        days = max(days, min((found.ready - found.first).days + round(found.either_side) + 7, 4 * days, 400))
    values = [each.percent for each in board.readings] + [found.start, *rest]
    low, high = min(values) - 2.5, max(values) + 1.5

    def at(day: float, percent: float) -> tuple[float, float]:
        return WIDE * day / days, TALL * (percent - low) / (high - low)

    band = Rect(0, at(0, found.rest - READY_WITHIN)[1], WIDE, at(0, found.rest + READY_WITHIN)[1])
    sketch.rect(band, Layer.BAND)
    sketch.label(
        (WIDE - STEP, band.y0 + 1.5 * STEP),
        f"ready: {found.rest:.1f} ± {READY_WITHIN:g} %",
        Lettering(Layer.PENCIL, 0.9),
        anchor=Anchor.RIGHT,
    )
    _axes(sketch, found, days, low, high, at)
    if found.rate > 0:
        curve = [at(days * n / 60, found.at(days * n / 60)) for n in range(61)]
        sketch.line(curve, Layer.LEAF)
    for each in board.readings:
        x, y = at((each.day - found.first).days, each.percent)
        ring = circle(x, y, 6, steps=16)
        sketch.area(ring, Layer.END_GRAIN)
        sketch.line(ring, Layer.OUTLINE)
        sketch.label((x, y + 2.4 * STEP), f"{each.percent:g}", Lettering(size=0.85))
    _ready(sketch, found, at)
    return sketch.drawing(margin=4.5 * STEP)


def _axes(sketch: Sketch, found: Trend, days: int, low: float, high: float, at: Onto) -> None:
    sketch.line([(0, TALL), (0, 0), (WIDE, 0)], Layer.OUTLINE)
    for percent in range(int(low) + 1, int(high) + 1, 2 if high - low > 8 else 1):
        y = at(0, percent)[1]
        sketch.line([(0, y), (WIDE, y)], Layer.FAINT)
        sketch.label((-STEP, y), f"{percent} %", Lettering(Layer.PENCIL, 0.85), anchor=Anchor.RIGHT)
    every = next(each for each in (7, 14, 28, 56, 112) if days / each <= 10 or each == 112)
    for day in range(0, days + 1, every):
        x = at(day, low)[0]
        sketch.line([(x, 0), (x, -STEP)], Layer.OUTLINE)
        when = found.first + timedelta(days=day)
        sketch.label((x, -1.5 * STEP), f"{when:%d %b}", Lettering(Layer.PENCIL, 0.85), anchor=Anchor.BELOW)


def _ready(sketch: Sketch, found: Trend, at: Onto) -> None:
    """Draw the day when it will be ready, with the days before and after that it may be as well."""
    if found.ready is None or found.earliest is None or found.latest is None or found.is_ready:
        return
    level = found.rest + READY_WITHIN * (1 if found.start >= found.rest else -1)
    x, y = at((found.ready - found.first).days, level)
    a, b = (at(max((day - found.first).days, 0), level)[0] for day in (found.earliest, found.latest))
    sketch.line([(a, y), (min(b, WIDE), y)], Layer.DOUBT)
    sketch.line([(x, 0), (x, y)], Layer.DOUBT)
    sketch.label(
        (x, y + 3.2 * STEP), f"ready {found.ready:%d %B} ± {found.either_side:.0f} days", BOLD, anchor=Anchor.CENTRE
    )
