"""Veneers out of a board: its end with the slices numbered, and the faces as they are matched."""

from __future__ import annotations

from oakmeasure.core.base.units import HAIR, Show
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import BOLD, Anchor, Drawing, Grain, Layer, Lettering, Sketch
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.planning.veneer_plan import VeneerPlan, VeneerStrip
from oakmeasure.core.solution import LeafSolution

END = 9.0  # times as large as the faces the end of the board is drawn


def veneer_view(leaf: LeafSolution, plan: VeneerPlan | None, show: Show) -> Drawing:
    """Return the board's end, enlarged, beside the faces with the number of each veneer.

    Args:
        leaf: The leaf, worked out to the end.
        plan: The plan; None where there are no veneers.
        show: How lengths and other quantities are written.
    """
    if plan is None or leaf.build is None:
        return empty_view("this leaf has no veneers that are sawn")
    found, stock = plan.resawn, plan.stock
    sketch = Sketch(show)
    height, width = leaf.build.height, leaf.build.width
    step = sketch.step = height / 70
    tint = stuff(leaf.leaf.timber.panel_species or leaf.leaf.timber.wood).tint
    scale = min(END, 0.8 * height / max(stock, 1.0))
    deep = stock * scale
    x0 = -deep - 16 * step
    for each in found.slices:
        rect = Rect(x0 + each.low * scale, height * 0.24, x0 + each.high * scale, height * 0.86)
        sketch.rect(rect, Layer.END_GRAIN, grain=Grain.END, tint=tint)
        sketch.box(rect, Layer.OUTLINE)
        sketch.label(((rect.x0 + rect.x1) / 2, rect.y1 + 1.6 * step), str(each.number), Lettering(size=0.95, bold=True))
    last = found.slices[-1].high if found.slices else 0.0
    if found.waste > HAIR:
        rest = Rect(x0 + (stock - found.waste) * scale, height * 0.24, x0 + deep, height * 0.86)
        sketch.rect(rest, Layer.WASTE)
        sketch.box(rest, Layer.PENCIL)
    sketch.box(Rect(x0, height * 0.24, x0 + deep, height * 0.86), Layer.HIDDEN)
    sketch.dimension((x0, height * 0.20), (x0 + deep, height * 0.20), show.length(stock))
    words = f"end of the board, {scale:.0f} times as large"
    sketch.label((x0 + deep / 2, height * 0.13), words, Lettering(Layer.PENCIL, 0.9))
    tail = f"left behind the last: {show.length(found.waste)}" if last else "no veneer comes out of it"
    sketch.label((x0 + deep / 2, height * 0.095), tail, Lettering(Layer.PENCIL, 0.9))
    for n, row in enumerate(plan.faces):
        x = n * (width + 9 * step)
        sketch.box(Rect(x, 0.0, x + width, height), Layer.FAINT)
        for strip in row:
            box, laid = strip.rect, strip.laid
            x0, x1 = (width - box.x1, width - box.x0) if n == 1 else (box.x0, box.x1)  # the back seen from behind
            number = f"{laid.board}·{laid.number}" if plan.boards > 1 else f"{laid.number}"
            _strip(sketch, strip, Rect(x + x0, box.y0, x + x1, box.y1), number, tint)
        sketch.label((x + width / 2, height + 2.2 * step), ("front", "back")[n], BOLD, anchor=Anchor.CENTRE)
    return sketch.drawing(margin=2.5 * step)


def _strip(sketch: Sketch, strip: VeneerStrip, rect: Rect, number: str, tint: str) -> None:
    """Draw a veneer on its face, with its number and a flame that leans as it lies."""
    upright = rect.height >= rect.width
    sketch.rect(rect, Layer.WOOD, grain=Grain.UPRIGHT if upright else Grain.LEVEL, tint=tint)
    sketch.box(rect, Layer.OUTLINE)
    mid = ((rect.x0 + rect.x1) / 2, (rect.y0 + rect.y1) / 2)
    lean = min(rect.width, rect.height) * (-0.3 if strip.laid.turned else 0.3)
    for k in (-2, -1, 1, 2):
        if upright:
            y = mid[1] + k * rect.height * 0.12
            sketch.line([(mid[0] - lean, y), (mid[0], y + abs(lean)), (mid[0] + lean * 0.5, y)], Layer.GRAIN)
        else:
            at = mid[0] + k * rect.width * 0.12
            sketch.line([(at, mid[1] - lean), (at + abs(lean), mid[1]), (at, mid[1] + lean * 0.5)], Layer.GRAIN)
    sketch.label(mid, number, Lettering(size=0.95, bold=True, on_paper=True))
