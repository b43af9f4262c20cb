"""A leaf through its year: the two side gaps, the width, and the wood's moisture, month by month."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Anchor, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.leaf.leaf_view import no_leaf
from oakmeasure.core.reports.year import MONTHS, Moment, year_of
from oakmeasure.core.solution import LeafSolution

# Drawing units; the numbers on it are the sizes
WIDE = 600.0
TALL = 150.0
APART = 84.0
LEAST_GAPS = 1.0  # of both side gaps together; less is shown as doubtful


@dataclass(frozen=True, slots=True)
class _Curve:
    """A curve over the year: what it is, a value for each of its moments, and how one is written."""

    words: str
    values: Sequence[float]
    text: Callable[[float], str]
    doubtful: bool = False


def year_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the curves, one over the other, each on its own scale.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    year = year_of(leaf)
    if not year:
        return no_leaf(leaf, show)
    sketch = Sketch(show)
    what = "the leaf's width" if "moving_width" in leaf.figures else "each board's width"
    curves = [
        _Curve(f"{what}, against when it was made", [each.change for each in year], show.length),
        _Curve(
            "moisture at which the wood rests",
            [each.moisture for each in year],
            lambda value: show.value(value, Unit.PERCENT),
        ),
    ]
    tight = year[0].gaps is not None and min(each.gaps or 0.0 for each in year) < LEAST_GAPS
    if year[0].gaps is not None:
        gaps = [each.gaps or 0.0 for each in year]
        curves.insert(0, _Curve("the two side gaps together", gaps, show.length, doubtful=tight))
    top = 0.0
    for curve in curves:
        _draw(sketch, year, curve, top)
        top -= TALL + APART
    foot = top + APART
    for at, month in enumerate(MONTHS):
        sketch.label(((at + 0.5) * WIDE / 12, foot - 10), month, PENCIL, anchor=Anchor.BELOW)
    words = "thick wood lags weeks behind the air: the real swing is smaller"
    sketch.label((WIDE / 2, foot - 36), words, PENCIL, anchor=Anchor.BELOW)
    return sketch.drawing(margin=14.0)


def _draw(sketch: Sketch, year: tuple[Moment, ...], curve: _Curve, top: float) -> None:
    values, doubtful = curve.values, curve.doubtful
    low, high = min(values), max(values)
    room = max(0.14 * (high - low), 0.05)
    low, high = low - room, high + room
    foot = top - TALL

    def at(amount: float) -> float:
        return foot + TALL * (amount - low) / (high - low)

    sketch.write((0.0, top + 32), curve.words, BOLD)
    for month in range(13):
        sketch.line([(month * WIDE / 12, foot), (month * WIDE / 12, top)], Layer.FAINT)
    sketch.line([(0.0, foot), (WIDE, foot)], Layer.PENCIL)
    if low < 0 < high:
        sketch.line([(0.0, at(0.0)), (WIDE, at(0.0))], Layer.OUTLINE)
        sketch.label((-8, at(0.0)), "0", PENCIL, anchor=Anchor.RIGHT)
    layer = Layer.DOUBT if doubtful else Layer.LEAF
    points = [(each.month * WIDE / 12, at(amount)) for each, amount in zip(year, values, strict=True)]
    sketch.line(points, layer)
    for amount, above in ((max(values), True), (min(values), False)):
        x, y = points[values.index(amount)]
        x = min(max(x, 30.0), WIDE - 30.0)
        sketch.label(
            (x, y + (7 if above else -7)),
            curve.text(amount),
            Lettering(Layer.DOUBT if doubtful and not above else Layer.LEAF, bold=True, on_paper=True),
            anchor=Anchor.ABOVE if above else Anchor.BELOW,
        )
