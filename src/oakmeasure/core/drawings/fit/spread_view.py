"""How sure the clear width is, as a picture: how often each width came up, and where the leaf needs it to be."""

from __future__ import annotations

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.uncertainty import Spread
from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import Anchor, Drawing, Layer, Lettering, Sketch

# Drawing units; the numbers on it are the widths
WIDE = 300.0
TALL = 110.0


def spread_view(spread: Spread, needed: float, show: Show) -> Drawing:
    """Return the plot.

    Args:
        spread: How often each width came up.
        needed: The clear width from which on the leaf goes in, mm.
        show: How lengths and other quantities are written.
    """
    sketch = Sketch(show)
    reach = 0.35 * (spread.end - spread.start)  # further off, what is needed only stands at the edge
    low = min(spread.start, max(needed - 0.1 * reach, spread.start - reach))
    high = max(spread.end, min(needed + 0.1 * reach, spread.end + reach))

    def across(value: float) -> float:
        return WIDE * (value - low) / (high - low)

    most = max(spread.bars) or 1.0
    step = sketch.step = (spread.end - spread.start) / len(spread.bars)
    top: list[Point] = []
    for at, share in enumerate(spread.bars):
        top.append((across(spread.start + (at + 0.5) * step), TALL * share / most))
    curve = [(across(spread.start), 0.0), *top, (across(spread.end), 0.0)]
    sketch.area(curve, Layer.LEAF)
    sketch.line(top, Layer.LEAF)
    sketch.line([(0.0, 0.0), (WIDE, 0.0)], Layer.PENCIL)
    for value, bold in ((spread.low, False), (spread.mean, True), (spread.high, False)):
        x = across(value)
        sketch.line([(x, 0.0), (x, -5.0)], Layer.OUTLINE)
        sketch.label((x, -8.0), show.length(value), Lettering(bold=bold), anchor=Anchor.BELOW)
    x = min(max(across(needed), 0.0), WIDE)
    sketch.line([(x, 0.0), (x, TALL * 1.06)], Layer.DOUBT)
    right = x < WIDE / 2
    words = f"{show.length(needed)} needed"
    sketch.label(
        (x + (4 if right else -4), TALL * 1.06),
        words,
        Lettering(Layer.DOUBT),
        anchor=Anchor.LEFT if right else Anchor.RIGHT,
    )
    return sketch.drawing(margin=6.0)
