"""What a leaf costs, as bars to one scale: made here beside the nearest that is bought, and the parts bought three
ways.
"""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.core.build.shape import Rect
from oakmeasure.core.drawing import Anchor, Drawing, Grain, Layer, Sketch
from oakmeasure.core.drawings.plan_view import empty_view
from oakmeasure.core.pricing import BuyWay, Line, Price

LONG, BAR, AIR = 560.0, 38.0, 22.0
NAMES = 470.0  # room for the words before the bars, and beside the next column
WOOD, WORK, OTHER = "#D9B98A", "#AEBBC4", "#CFCBBE"


def price_view(price: Price | None, ways: Sequence[BuyWay]) -> Drawing:
    """Return the bars: what is made here at the left, bought leaf and bought parts at the right."""
    if price is None:
        return empty_view("this leaf cannot be made yet: no price")
    most = max(price.price, price.bought_price or 0.0, *(each.total for each in ways), 1.0)
    sketch = Sketch()
    _stack(sketch, (0.0, 0.0), "Made here", (*price.lines, Line("margin", price.margin)), most)
    x = LONG + NAMES + 4 * BAR
    y = _stack(sketch, (x, 0.0), "Nearest bought leaf", price.bought, most) - 2 * AIR if price.bought else 0.0
    if ways:
        sketch.label(x - 8, y, "The solid parts, three ways", anchor=Anchor.LEFT, bold=True)
        y -= AIR
        best = min(each.total for each in ways)
        for each in ways:
            y -= BAR + AIR
            _bar(sketch, x, 0.0, y, each.material, most, WOOD)
            _bar(sketch, x, each.material, y, each.service, most, OTHER)
            _bar(sketch, x, each.material + each.service, y, each.hours_cost, most, WORK)
            sketch.label(x - 8, y + BAR / 2, each.words, anchor=Anchor.RIGHT, size=0.9, bold=each.total <= best)
            sketch.label(
                x + LONG * each.total / most + 8, y + BAR / 2, f"{each.total:.0f}", anchor=Anchor.LEFT, bold=True
            )
    sketch.label(-NAMES, 0.0, "")  # room for the words before the bars
    return sketch.drawing(margin=1.5 * BAR)


def _stack(sketch: Sketch, at: tuple[float, float], title: str, lines: Sequence[Line], most: float) -> float:
    """Draw the lines of a price one under the other, each where the last one ended; return where they end below."""
    x0, y = at
    total = sum(each.value for each in lines)
    sketch.label(x0 - 8, y, f"{title}: {total:.0f} with margin", anchor=Anchor.LEFT, bold=True)
    start, y = 0.0, y - AIR
    for each in lines:
        y -= BAR + AIR
        tint = WORK if each.hours else OTHER if each.words == "margin" else WOOD
        _bar(sketch, x0, start, y, each.value, most, tint)
        sketch.label(x0 - 8, y + BAR / 2, each.words, anchor=Anchor.RIGHT, size=0.9)
        hours = f"   {each.hours:.1f} h" if each.hours else ""
        end = x0 + LONG * (start + each.value) / most
        words = f"{each.value:.0f}{hours}"
        if end > x0 + 0.8 * LONG:  # beyond it the next column stands
            sketch.label(x0 + LONG * start / most - 8, y + BAR / 2, words, anchor=Anchor.RIGHT, size=0.9)
        else:
            sketch.label(end + 8, y + BAR / 2, words, anchor=Anchor.LEFT, size=0.9)
        start += each.value
    return y - AIR


def _bar(sketch: Sketch, x0: float, start: float, y: float, value: float, most: float, tint: str) -> None:
    if value > 0:
        rect = Rect(x0 + LONG * start / most, y, x0 + LONG * (start + value) / most, y + BAR)
        sketch.rect(rect, Layer.WOOD, grain=Grain.NONE, tint=tint)
        sketch.box(rect, Layer.OUTLINE)
