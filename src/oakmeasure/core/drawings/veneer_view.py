"""Veneers out of a board: its end with the slices numbered, and the faces as they are matched."""

from __future__ import annotations

from oakmeasure.core.build.shape import Rect
from oakmeasure.core.drawing import Anchor, Drawing, Grain, Layer, Sketch
from oakmeasure.core.drawings.plan_view import empty_view
from oakmeasure.core.solve import LeafSolution
from oakmeasure.core.timber.resaw import Laid, Resawn
from oakmeasure.core.timber.species import stuff
from oakmeasure.core.units import Show

END = 9.0  # times as large as the faces the end of the board is drawn


def veneer_view(
    leaf: LeafSolution, found: Resawn | None, faces: tuple[tuple[Laid, ...], ...], show: Show, *, stock: float
) -> Drawing:
    """Return the board's end, enlarged, beside the faces with the number of each veneer."""
    if found is None or leaf.build is None:
        return empty_view("this leaf has no veneers that are sawn")
    sketch = Sketch()
    height, width = leaf.build.height, leaf.build.width
    step = height / 70
    tint = stuff(leaf.leaf.timber.panel_species or leaf.leaf.timber.species).tint
    scale = min(END, 0.8 * height / max(stock, 1.0))
    deep = stock * scale
    x0 = -deep - 16 * step
    for each in found.slices:
        rect = Rect(x0 + each.low * scale, height * 0.24, x0 + each.high * scale, height * 0.86)
        sketch.rect(rect, Layer.END_GRAIN, grain=Grain.END, tint=tint)
        sketch.box(rect, Layer.OUTLINE)
        sketch.label((rect.x0 + rect.x1) / 2, rect.y1 + 1.6 * step, str(each.number), bold=True, size=0.95)
    last = found.slices[-1].high if found.slices else 0.0
    if found.waste > 0.05:
        rest = Rect(x0 + (stock - found.waste) * scale, height * 0.24, x0 + deep, height * 0.86)
        sketch.rect(rest, Layer.WASTE)
        sketch.box(rest, Layer.PENCIL)
    sketch.box(Rect(x0, height * 0.24, x0 + deep, height * 0.86), Layer.HIDDEN)
    sketch.dimension((x0, height * 0.20), (x0 + deep, height * 0.20), show.length(stock))
    words = f"end of the board, {scale:.0f} times as large"
    sketch.label(x0 + deep / 2, height * 0.13, words, layer=Layer.PENCIL, size=0.9)
    tail = f"left behind the last: {show.length(found.waste)}" if last else "no veneer comes out of it"
    sketch.label(x0 + deep / 2, height * 0.095, tail, layer=Layer.PENCIL, size=0.9)
    for n, row in enumerate(faces):
        _face(sketch, row, n * (width + 9 * step), width, height, tint, ("front", "back")[n % 2], step)
    return sketch.drawing(margin=2.5 * step)


def _face(sketch: Sketch, row: tuple[Laid, ...], x: float, width: float, height: float, tint: str, name: str,
          step: float) -> None:  # fmt: skip
    wide = width / max(len(row), 1)
    several = len({each.board for each in row}) > 1 or any(each.board > 1 for each in row)
    for n, each in enumerate(row):
        rect = Rect(x + n * wide, 0.0, x + (n + 1) * wide, height)
        sketch.rect(rect, Layer.WOOD, grain=Grain.UPRIGHT, tint=tint)
        sketch.box(rect, Layer.OUTLINE)
        mid, number = (rect.x0 + rect.x1) / 2, f"{each.board}·{each.number}" if several else f"{each.number}"
        sketch.label(mid, height / 2, number, bold=True, size=1.4, on_paper=True)
        # A flame that leans one way, and the other way where the veneer is turned over.
        lean = wide * (-0.22 if each.turned else 0.22)
        for k in range(3):
            y = height * (0.15 + 0.06 * k)
            sketch.line([(mid - lean, y), (mid, y + height * 0.1), (mid + lean * 0.4, y)], Layer.GRAIN)
        sketch.label(mid, height * 0.44, "turned" if each.turned else "", layer=Layer.PENCIL, size=0.85,
                     room=wide, shorter=("",))  # fmt: skip
    sketch.label(x + width / 2, height + 2.2 * step, name, anchor=Anchor.CENTRE, bold=True)
