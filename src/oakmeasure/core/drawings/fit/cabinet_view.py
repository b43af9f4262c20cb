"""A cabinet leaf on or in its opening, and a run of them on one frame, from the front."""

from __future__ import annotations

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.drawing import Drawing, Layer, Lettering, Sketch, corners
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution

SIDE = 18.0  # of a cabinet, drawn round the opening


def cabinet_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the leaf, or the run, before its openings, with the overlay on every edge.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    f, opening = leaf.figures, leaf.opening
    w, h = opening.clear_width.value, opening.clear_height.value
    lw, lh = leaf.fit.width.value, leaf.fit.height.value
    x0 = leaf.fit.x_hinge_edge - opening.hinge_in.value
    y0 = leaf.fit.y_foot - opening.floor_high.value
    run = leaf.fit.leaves
    frame = leaf.leaf.cabinet.frame if run > 1 else SIDE
    half = leaf.leaf.hanging is Hanging.HALF_OVERLAY
    pitch = w + frame
    sketch = Sketch(show, mirror_at=w if leaf.leaf.hand is Hand.RIGHT and run == 1 else None)
    unit = max(h, w * run) / 100
    left = leaf.leaf.cabinet.division if half else frame
    sketch.rect(Rect(-left, -frame, run * pitch, h + frame), Layer.LINING)
    for at in range(run):
        sketch.rect(Rect(at * pitch, 0, at * pitch + w, h), Layer.SPACE)
        box = Rect(x0 + at * pitch, y0, x0 + at * pitch + lw, y0 + lh)
        sketch.area(corners(box), Layer.LEAF, ref="figure:leaf_width")
        sketch.box(box, Layer.LEAF, ref="figure:leaf_width")
        sketch.box(Rect(at * pitch, 0, at * pitch + w, h), Layer.HIDDEN)
    if half:  # the other leaf of the two
        edge = x0 - leaf.leaf.cabinet.gap
        sketch.line([(edge, y0), (edge, y0 + lh)], Layer.PENCIL)
        sketch.line([(edge, y0), (edge - 0.2 * w, y0)], Layer.PENCIL)
        sketch.line([(edge, y0 + lh), (edge - 0.2 * w, y0 + lh)], Layer.PENCIL)
    low = -frame - 8 * unit
    sketch.dimension((x0, low), (x0 + lw, low), show.length(lw), figure=leaf.fit.width.name)
    sketch.dimension((0, low - 8 * unit), (w, low - 8 * unit), show.length(w), figure="clear_width")
    edge = -left - 8 * unit
    sketch.dimension((edge, y0), (edge, y0 + lh), show.length(lh), figure=leaf.fit.height.name)
    page = sketch.page()
    page.label((x0 + lw / 2, y0 + lh / 2), show.size(lw, lh), Lettering(Layer.LEAF, 1.45, bold=True))
    for name, x, y in (
        ("overlay", x0 + lw - 2 * unit, h / 3),
        ("overlay_shared", x0 + 2 * unit, h / 3),
        ("run_between", x0 + lw + leaf.fit.apart / 2, -frame - 3 * unit),
    ):
        if figure_name(name) in f:
            sketch.label(
                (x, y),
                show.length(f[figure_name(name)].value),
                Lettering(bold=True, on_paper=True),
                ref=f"figure:{name}",
            )
    return sketch.drawing(margin=2 * unit)
