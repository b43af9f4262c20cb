"""The leaf in its opening: every gap where it is, and the latch edge in plan as it passes the lining."""

from __future__ import annotations

import math
from collections.abc import Callable

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Anchor, Drawing, Grain, Layer, Lettering, Sketch
from oakmeasure.core.drawings.layers import side_gaps
from oakmeasure.core.drawings.leaf.leaf_view import front, no_leaf, sketch_for, surround, unit_step
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution

# These views are wider than a leaf is high, so their texts need more mm to stand in.
ROOM = 1.35
SMALL_ROOM = 1.7  # where the letters are large beside the leaf


def fit_view(leaf: LeafSolution, show: Show, *, is_small: bool = False) -> Drawing:
    """Return the hung leaf with its gaps, and the latch edge enlarged.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        is_small: Whether a table takes the larger part of the board: then its sizes are left to that.
    """
    build = leaf.build
    if build is None:
        return no_leaf(leaf, show)
    sketch = sketch_for(leaf, show, (SMALL_ROOM if is_small else ROOM) * unit_step(build))
    step = sketch.step
    surround(sketch, leaf)
    front(sketch, build)
    if leaf.fit.outline:  # what is scribed off the rectangle that it was glued up to
        sketch.line([*leaf.fit.outline, leaf.fit.outline[0]], Layer.DOUBT)
    _gaps(sketch, leaf)
    if not is_small:
        _sizes(sketch, leaf)
    _latch_edge(sketch.page(), leaf, build.width + 15 * step)
    return sketch.drawing(margin=2 * step)


def _gaps(sketch: Sketch, leaf: LeafSolution) -> None:
    """The gap at both ends of every edge, written where it is."""
    f = leaf.figures
    w, h = leaf.fit.width.value, leaf.fit.height.value
    out = 3.4 * sketch.step
    right = leaf.leaf.hand is Hand.RIGHT
    sides = {
        "gap_hinge_head": (-out, 0.93 * h),
        "gap_hinge_foot": (-out, 0.05 * h),
        "gap_latch_head": (w + out, 0.93 * h),
        "gap_latch_foot": (w + out, 0.05 * h),
        "gap_head_hinges": (0.12 * w, h + out),
        "gap_head_latch": (0.88 * w, h + out),
        "gap_floor_hinges": (0.12 * w, -out),
        "gap_floor_latch": (0.88 * w, -out),
    }
    for name, (x, y) in sides.items():
        figure = f[figure_name(name)]
        at_left = (x < 0) is not right
        anchor = Anchor.CENTRE if 0 < x < w else Anchor.RIGHT if at_left else Anchor.LEFT
        px, py = sketch.at(x, y)
        sketch.page().label(
            (px, py),
            sketch.show.length(figure.value),
            Lettering(Layer.LEAF, 1.05, bold=True, on_paper=True),
            anchor=anchor,
            ref=f"figure:{name}",
        )


def _sizes(sketch: Sketch, leaf: LeafSolution) -> None:
    show, step = sketch.show, sketch.step
    page, f = sketch.page(), leaf.figures
    w, h = leaf.fit.width.value, leaf.fit.height.value
    left, right = side_gaps(leaf)
    y = -10 * step
    page.dimension((0, y), (w, y), show.length(w), figure=leaf.fit.width.name)
    page.dimension(
        (-left, y - 5 * step), (w + right, y - 5 * step), show.length(f["clear_width"].value), figure="clear_width"
    )
    x = -9 * step
    page.dimension((x, 0), (x, h), show.length(h), figure=leaf.fit.height.name)
    page.dimension(
        (x - 11 * step, -f["gap_floor"].value),
        (x - 11 * step, h + f["gap_head"].value),
        show.length(f["clear_height"].value),
        figure="clear_height",
    )
    page.write((w + right + 2 * step, y), "leaf", PENCIL)
    page.write((w + right + 2 * step, y - 5 * step), "clear, plumb", PENCIL)


def _latch_edge(page: Sketch, leaf: LeafSolution, x: float) -> None:
    """Plan of the latch edge, shut, with the path of its back corner; the opening face below."""
    step = page.step
    f, build = leaf.figures, leaf.build
    if build is None or "least_bevel" not in f:
        return
    assert leaf.body is not None
    t, w, gap = leaf.body.thickness_along("latch"), leaf.fit.width.value, f["gap_latch"].value
    knuckle, setback = f["butt_knuckle"].value, f["butt_setback"].value
    big = 30 * step / max(t, 30.0)
    mirrored = leaf.leaf.hand is Hand.RIGHT
    shown, lining = 26.0, 16.0
    y_face = build.height - 52 * step
    x_edge = x + (lining + gap if mirrored else shown) * big

    def at(past_edge: float, into: float) -> tuple[float, float]:
        return (x_edge + (-past_edge if mirrored else past_edge) * big, y_face + into * big)

    back = t * math.tan(math.radians(f["bevel"].value))
    tint = stuff(build.parts[0].species).tint
    page.write((x, build.height), "Plan of the latch edge, shut", BOLD)
    page.write((x, build.height - 4 * step), f"opening face below, {leaf.leaf.hand_in_words}", PENCIL)
    page.area(
        [at(-shown, 0), at(0, 0), at(-back, t), at(-shown, t)],
        Layer.END_GRAIN,
        ref="part:latch stile",
        grain=Grain.END,
        tint=tint,
    )
    wood = at(gap, 0), at(gap + lining, t + 10)
    page.rect(Rect(min(wood[0][0], wood[1][0]), wood[0][1], max(wood[0][0], wood[1][0]), wood[1][1]), Layer.LINING)
    page.label(at(gap + lining / 2, t * 0.5), "lining", Lettering(Layer.PENCIL, 0.95))
    page.label(at(-shown * 0.62, t * 0.5), "leaf", Lettering(on_paper=True))
    _path(page, at, (w + setback - back, t + knuckle), (w + setback, knuckle))
    _latch_texts(page, leaf, at, t, back, gap)


def _path(page: Sketch, at: Callable[[float, float], Point], corner: Point, latch: Point) -> None:
    """The circle of the back corner about the pin, from shut to a few degrees open.

    corner, latch: the back corner and the latch edge's front corner, from the pin.
    """
    radius, start = math.hypot(*corner), math.atan2(corner[1], corner[0])
    points = []
    for step in range(30):
        angle = start - math.radians(0.22 * step)
        x, y = radius * math.cos(angle) - latch[0], radius * math.sin(angle) - latch[1]
        if y < -6:
            break
        points.append(at(x, y))
    page.line(points, Layer.LEAF, ref="figure:least_bevel")


def _latch_texts(
    page: Sketch, leaf: LeafSolution, at: Callable[[float, float], Point], t: float, back: float, gap: float
) -> None:
    show, step = page.show, page.step
    f = leaf.figures
    low = at(gap / 2, -3)
    page.label(
        (low[0], low[1] - 2 * step), f"gap {show.length(gap)}", BOLD, anchor=Anchor.BELOW, ref="figure:gap_latch"
    )
    high = at((gap - back) / 2, t)
    page.label(
        (high[0], high[1] + 2 * step),
        show.length(f["latch_gap_back"].value),
        BOLD,
        anchor=Anchor.ABOVE,
        ref="figure:latch_gap_back",
    )
    x, y = at(0, 0)[0], low[1] - 9 * step
    page.label((x, y), f"bevel {show.value(f['bevel'].value, Unit.DEG)}", BOLD, anchor=Anchor.BELOW, ref="figure:bevel")
    page.label(
        (x, y - 4 * step),
        f"the least that passes is {show.value(f['least_bevel'].value, Unit.DEG)}",
        PENCIL,
        anchor=Anchor.BELOW,
        ref="figure:least_bevel",
    )
