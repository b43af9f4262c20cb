"""Two constructions of one leaf side by side, to one scale, each with its section."""

from __future__ import annotations

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.constructions import trade_name
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.drawing import BOLD, Anchor, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.leaf.leaf_view import front, joints, section, unit_step
from oakmeasure.core.reports.compare_constructions import ConstructionComparison
from oakmeasure.core.solution import LeafSolution


def beside_view(pair: ConstructionComparison, show: Show) -> Drawing:
    """Return both leaves on one sheet, the one in hand first.

    Args:
        pair: The leaf as it is, and built another way.
        show: How lengths and other quantities are written.
    """
    sketch = Sketch(show)
    x = 0.0
    for leaf in (pair.one, pair.other):
        x += _one(sketch, leaf, x)
    return sketch.drawing(margin=20.0)


def _one(sketch: Sketch, leaf: LeafSolution, x: float) -> float:
    """Draw one leaf from `x`; return how much room it took."""
    build = leaf.build
    name = trade_name(leaf.leaf.build.kind)
    if build is None:
        sketch.label((x + 300, 500), f"{name}: no leaf", Lettering(Layer.DOUBT))
        return 900.0
    step = unit_step(build)
    mine = Sketch(sketch.show, step, mirror_at=build.width if leaf.leaf.hand is Hand.RIGHT else None)
    front(mine, build)
    joints(mine, build)
    page = mine.page()
    page.label((build.width / 2, -step), name, BOLD, anchor=Anchor.BELOW)
    page.label(
        (build.width / 2, build.height + step),
        sketch.show.size(build.width, build.height, build.thickness),
        Lettering(Layer.PENCIL, 0.9),
        anchor=Anchor.ABOVE,
    )
    assert leaf.body is not None
    section(page, leaf.body, build.width + 8 * step, times=2.0)
    for shape in mine.shapes:
        sketch.shapes.append(shape.moved(x))
    return build.width + 30 * step + 2 * build.thickness
