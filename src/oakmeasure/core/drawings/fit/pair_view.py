"""A pair of leaves in their opening, each hinged at its own side, with the gaps at the edges and where they meet."""

from __future__ import annotations

from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import PENCIL, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.layers import LINING_SHOWN
from oakmeasure.core.drawings.leaf.leaf_view import floor_line, front
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Build, Rect
from oakmeasure.core.solution import LeafSolution


def pair_view(leaf: LeafSolution, build: Build, show: Show) -> Drawing:
    """Return both leaves from the front; the second is the first turned round.

    Args:
        leaf: The leaf, worked out to the end.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        show: How lengths and other quantities are written.
    """
    f, w, h, apart = leaf.figures, build.width, build.height, leaf.fit.apart
    across = 2 * w + apart
    step = max(h, across) / 100
    side, head, floor, t = f["gap_hinge"].value, f["gap_head"].value, f["gap_floor"].value, LINING_SHOWN
    sketch = Sketch(show, step)
    sketch.rect(Rect(-side, -floor, across + side, h + head), Layer.SPACE)
    for rect in (
        Rect(-side - t, -floor, -side, h + head + t),
        Rect(across + side, -floor, across + side + t, h + head + t),
        Rect(-side, h + head, across + side, h + head + t),
    ):
        sketch.rect(rect, Layer.LINING)
    floor_line(sketch, -12 * step, across + 12 * step, -floor)
    front(sketch, build)
    front(Sketch(show, step, sketch.shapes, mirror_at=across), build)
    _written(sketch, leaf, across)
    y, x = -9 * step, -10 * step
    sketch.dimension((0, y), (w, y), show.length(w), figure=leaf.fit.width.name)
    sketch.dimension((across - w, y), (across, y), show.length(w), figure=leaf.fit.width.name)
    sketch.dimension(
        (-side, y - 6 * step), (across + side, y - 6 * step), show.length(f["clear_width"].value), figure="clear_width"
    )
    sketch.dimension((x, 0), (x, h), show.length(h), figure=leaf.fit.height.name)
    sketch.write((across + 3 * step, y), "leaves", PENCIL)
    sketch.write((across + side + 3 * step, y - 6 * step), "clear, plumb", PENCIL)
    return sketch.drawing(margin=2 * step)


def _written(sketch: Sketch, leaf: LeafSolution, across: float) -> None:
    """The gaps where they are."""
    f, h, out = leaf.figures, leaf.fit.height.value, 4 * sketch.step
    places = {
        "gap_hinge_head": (-out, 0.93 * h),
        "gap_hinge_foot": (-out, 0.06 * h),
        "gap_latch_head": (across + out, 0.93 * h),
        "gap_latch_foot": (across + out, 0.06 * h),
        "gap_head_hinges": (0.1 * across, h + out),
        "gap_head_latch": (0.9 * across, h + out),
        "gap_floor_hinges": (0.1 * across, -out),
        "gap_floor_latch": (0.9 * across, -out),
        "gap_meeting": (across / 2, h + out),
    }
    for name, (x, y) in places.items():
        text = sketch.show.length(f[figure_name(name)].value)
        sketch.label((x, y), text, Lettering(Layer.LEAF, 1.05, bold=True, on_paper=True), ref=f"figure:{name}")
