"""What a leaf costs, as bars to one scale: made here beside the nearest that is bought, and the parts bought three
ways.
"""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.core.build.shape import Rect
from oakmeasure.core.drawing import Anchor, Drawing, Grain, Layer, Sketch
from oakmeasure.core.drawings.plan_view import empty_view
from oakmeasure.core.pricing import BuyWay, Line, Price

LONG, BAR, AIR = 620.0, 17.0, 9.0
WOOD, WORK, OTHER = "#D9B98A", "#AEBBC4", "#CFCBBE"


def price_view(price: Price | None, ways: Sequence[BuyWay]) -> Drawing:
    """Return the bars."""
    if price is None:
        return empty_view("this leaf cannot be made yet: no price")
    most = max(price.price, price.bought_price or 0.0, *(each.total for each in ways), 1.0)
    sketch = Sketch()
    y = _stack(sketch, 0.0, "Made here", (*price.lines, Line("margin", price.margin)), most)
    if price.bought:
        y = _stack(sketch, y - 2 * AIR, "Nearest bought leaf", price.bought, most)
    y -= 3 * AIR
    if ways:
        sketch.label(0, y, "The solid parts, three ways", anchor=Anchor.LEFT, bold=True)
        best = min(each.total for each in ways)
        for each in ways:
            y -= BAR + AIR
            _bar(sketch, 0.0, y, each.material, most, WOOD)
            _bar(sketch, each.material, y, each.service, most, OTHER)
            _bar(sketch, each.material + each.service, y, each.total - each.material - each.service, most, WORK)
            sketch.label(-8, y + BAR / 2, each.words, anchor=Anchor.RIGHT, size=0.9, bold=each.total <= best)
            sketch.label(LONG * each.total / most + 8, y + BAR / 2, f"{each.total:.0f}", anchor=Anchor.LEFT, bold=True)
    return sketch.drawing(margin=46.0)


def _stack(sketch: Sketch, y: float, title: str, lines: Sequence[Line], most: float) -> float:
    """Draw the lines of a price one under the other, each where the last one ended; return where they end below."""
    total = sum(each.value for each in lines)
    sketch.label(0, y, title, anchor=Anchor.LEFT, bold=True)
    sketch.label(LONG, y, f"{total:.0f} with margin", anchor=Anchor.RIGHT, bold=True)
    x = 0.0
    for each in lines:
        y -= BAR + AIR / 2
        _bar(sketch, x, y, each.value, most, WORK if each.hours else OTHER if each.words == "margin" else WOOD)
        sketch.label(-8, y + BAR / 2, each.words, anchor=Anchor.RIGHT, size=0.9)
        hours = f"   {each.hours:.1f} h" if each.hours else ""
        sketch.label(LONG * (x + each.value) / most + 8, y + BAR / 2, f"{each.value:.0f}{hours}", anchor=Anchor.LEFT,
                     size=0.9)  # fmt: skip
        x += each.value
    return y - AIR


def _bar(sketch: Sketch, x: float, y: float, value: float, most: float, tint: str) -> None:
    if value > 0:
        rect = Rect(LONG * x / most, y, LONG * (x + value) / most, y + BAR)
        sketch.rect(rect, Layer.WOOD, grain=Grain.NONE, tint=tint)
        sketch.box(rect, Layer.OUTLINE)
