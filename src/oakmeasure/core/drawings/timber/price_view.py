"""What a leaf costs, as bars to one scale.

Made here beside the nearest that is bought, and the parts bought three ways.
"""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.core.base.units import IN_MM
from oakmeasure.core.costing.pricing import BuyWay, Price, PriceLine
from oakmeasure.core.drawings.drawing import BOLD, OAK, Anchor, Drawing, Grain, Layer, Lettering, Sketch
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.leaf.part import Rect

LONG = 560.0
BAR = 38.0
AIR = 22.0
NAMES = 470.0  # room for the words before the bars
WOOD = OAK
WORK = "#AEBBC4"
OTHER = "#CFCBBE"


def price_view(price: Price | None, ways: Sequence[BuyWay]) -> Drawing:
    """Return the bars: what is made here, under it the bought leaf and the bought parts.

    Args:
        price: What the leaf costs; None where that is not known.
        ways: The same parts bought three ways.
    """
    if price is None:
        return empty_view("this leaf cannot be made yet: no price")
    most = max(price.price, price.bought_price or 0.0, *(each.total for each in ways), 1.0)
    sketch = Sketch(IN_MM)
    y = _stack(sketch, 0.0, "Made here", (*price.lines, PriceLine("margin", price.margin)), most)
    if price.bought:
        y = _stack(sketch, y, "Nearest bought leaf", price.bought, most)
    if ways:
        sketch.write((-8, y), "The solid parts, three ways", BOLD)
        y -= AIR
        best = min(each.total for each in ways)
        for each in ways:
            y -= BAR + AIR
            _bar(sketch, 0.0, y, each.material, most, WOOD)
            _bar(sketch, each.material, y, each.service, most, OTHER)
            _bar(sketch, each.material + each.service, y, each.hours_cost, most, WORK)
            sketch.label(
                (-8, y + BAR / 2), each.words, Lettering(size=0.9, bold=each.total <= best), anchor=Anchor.RIGHT
            )
            end = LONG * each.total / most + 8
            sketch.write((end, y + BAR / 2), f"{each.total:.0f}", BOLD)
    sketch.label((-NAMES, 0.0), "")  # room for the words before the bars
    return sketch.drawing(margin=BAR)


def _stack(sketch: Sketch, y: float, title: str, lines: Sequence[PriceLine], most: float) -> float:
    """Draw the lines of a price one under the other, each where the last one ended; return where the next begins."""
    total = sum(each.value for each in lines)
    sketch.write((-8, y), f"{title}: {total:.0f} with margin", BOLD)
    start, y = 0.0, y - AIR
    for each in lines:
        y -= BAR + AIR
        tint = WORK if each.hours else OTHER if each.words == "margin" else WOOD
        _bar(sketch, start, y, each.value, most, tint)
        sketch.label((-8, y + BAR / 2), each.words, Lettering(size=0.9), anchor=Anchor.RIGHT)
        hours = f"   {each.hours:.1f} h" if each.hours else ""
        end = LONG * (start + each.value) / most
        sketch.write((end + 8, y + BAR / 2), f"{each.value:.0f}{hours}", Lettering(size=0.9))
        start += each.value
    return y - 2 * AIR


def _bar(sketch: Sketch, start: float, y: float, value: float, most: float, tint: str) -> None:
    if value > 0:
        rect = Rect(LONG * start / most, y, LONG * (start + value) / most, y + BAR)
        sketch.rect(rect, Layer.WOOD, grain=Grain.NONE, tint=tint)
        sketch.box(rect, Layer.OUTLINE)
