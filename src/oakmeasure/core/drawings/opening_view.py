"""The opening as measured, its crookedness exaggerated, with the readings on it and the largest square leaf."""

from __future__ import annotations

from collections.abc import Mapping

from oakmeasure.core.build.shape import Rect
from oakmeasure.core.drawing import Anchor, Drawing, Layer, Point, Sketch, corners
from oakmeasure.core.drawings.leaf_view import floor_line
from oakmeasure.core.job import Hand
from oakmeasure.core.solve import LeafSolution
from oakmeasure.core.survey.adjust import Judged, Status
from oakmeasure.core.survey.kinds import Kind
from oakmeasure.core.units import Show

WALL = 120.0  # mm of wall drawn round the opening


def opening_view(leaf: LeafSolution, show: Show, *, exaggeration: float = 10.0) -> Drawing:
    """Return the opening with every departure from square shown `exaggeration` times its size."""
    opening, f = leaf.opening, leaf.figures
    w, h = f["clear_width"].value, f["clear_height"].value
    base = (f["hinge_side_in"].value, f["floor_high"].value)
    sketch = Sketch(mirror_at=w if leaf.leaf.hand is Hand.RIGHT else None)
    step = max(h, 1.4 * w) / 100

    def shown(point: Point, nominal: Point) -> Point:
        """The nominal corner of the clear opening, moved by the exaggerated departure of the real one."""
        dx, dy = point[0] - base[0] - nominal[0], point[1] - base[1] - nominal[1]
        return nominal[0] + dx * exaggeration, nominal[1] + dy * exaggeration

    hf, lf = shown(opening.hinge_foot, (0, 0)), shown(opening.latch_foot, (w, 0))
    lh, hh = shown(opening.latch_head, (w, h)), shown(opening.hinge_head, (0, h))
    _wall(sketch, (hf, lf, lh, hh), step)
    sketch.area((hf, lf, lh, hh), Layer.SPACE)
    _leaf(sketch, leaf, show)
    floor_line(sketch.page(), -WALL, w + WALL, min(hf[1], lf[1], 0.0), step)
    sketch.line([hf, hh, lh, lf, hf], Layer.OUTLINE)
    _plumb(sketch, leaf, show, (hf, lf, lh, hh), step)
    if opening.adjustment is not None:
        _readings(sketch, opening.adjustment.readings, (hf, lf, lh, hh), show, step)
    page = sketch.page()
    hinges_left = leaf.leaf.hand is Hand.LEFT
    for x, text in (
        (-WALL / 2, "hinges" if hinges_left else "latch"),
        (w + WALL / 2, "latch" if hinges_left else "hinges"),
    ):
        page.label(x, -4 * step, text, layer=Layer.PENCIL, anchor=Anchor.BELOW)
    return sketch.drawing(margin=2 * step)


Corners = tuple[Point, Point, Point, Point]  # hinge foot, latch foot, latch head, hinge head


def _wall(sketch: Sketch, at: Corners, step: float) -> None:
    hf, lf, lh, hh = at
    left, right = min(hf[0], hh[0], 0) - WALL, max(lf[0], lh[0]) + WALL
    top, foot = max(lh[1], hh[1]) + 0.7 * WALL, min(hf[1], lf[1], 0.0)
    sketch.rect(Rect(left, foot, right, top), Layer.WALL)


def _leaf(sketch: Sketch, leaf: LeafSolution, show: Show) -> None:
    """The square leaf at its true size inside the clear plumb opening."""
    f = leaf.figures
    x0, y0 = f["gap_hinge"].value, f["gap_floor"].value
    w, h = leaf.fit.width.value, leaf.fit.height.value
    if not leaf.fit.possible:
        return
    box = Rect(x0, y0, x0 + w, y0 + h)
    sketch.area(corners(box), Layer.LEAF, ref="figure:leaf_width")
    sketch.box(box, Layer.LEAF)
    page = sketch.page()
    middle = f["clear_width"].value / 2
    page.label(middle, y0 + 0.60 * h, show.size(w, h), layer=Layer.LEAF, size=1.45, bold=True, ref="figure:leaf_width")
    page.label(middle, y0 + 0.60 * h - 0.046 * h, "largest square leaf", layer=Layer.LEAF, size=1.0)


def _plumb(sketch: Sketch, leaf: LeafSolution, show: Show, at: Corners, step: float) -> None:
    """Plumb lines at both feet, and how far each side's head stands off them."""
    opening = leaf.opening
    hf, lf, lh, hh = at
    for foot, head, real in (
        (hf, hh, opening.hinge_head[0] - opening.hinge_foot[0]),
        (lf, lh, opening.latch_head[0] - opening.latch_foot[0]),
    ):
        top = max(lh[1], hh[1]) + 3.5 * step
        if abs(real) < 0.05 or abs(head[0] - foot[0]) < 0.3 * step:
            continue
        sketch.line([foot, (foot[0], top)], Layer.CENTRE)
        sketch.line([(foot[0], top - step), (head[0], top - step)], Layer.READING)
        sketch.label(
            (foot[0] + head[0]) / 2,
            top + 1.2 * step,
            show.length(abs(real)),
            layer=Layer.READING,
            bold=True,
            size=1.0,
            on_paper=True,
        )


def _readings(sketch: Sketch, readings: Mapping[Kind, Judged], at: Corners, show: Show, step: float) -> None:
    """Every reading where it was taken; one that is doubted in its own layer, with what the others make it."""
    hf, lf, lh, hh = at

    def along(a: Point, b: Point, share: float) -> Point:
        return a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share

    places = {
        Kind.WIDTH_TOP: (along(hf, hh, 0.94), along(lf, lh, 0.94)),
        Kind.WIDTH_MIDDLE: (along(hf, hh, 0.5), along(lf, lh, 0.5)),
        Kind.WIDTH_BOTTOM: (along(hf, hh, 0.05), along(lf, lh, 0.05)),
        Kind.HEIGHT_HINGE: (along(hf, lf, 0.09), along(hh, lh, 0.09)),
        Kind.HEIGHT_MIDDLE: (along(hf, lf, 0.5), along(hh, lh, 0.5)),
        Kind.HEIGHT_LATCH: (along(hf, lf, 0.91), along(hh, lh, 0.91)),
        Kind.DIAGONAL_RISING: (hf, lh),
        Kind.DIAGONAL_FALLING: (hh, lf),
    }
    for kind in (Kind.DIAGONAL_RISING, Kind.DIAGONAL_FALLING, *places):
        judged = readings.get(kind)
        if judged is None or (kind.startswith("diagonal") and kind in (shape.ref[8:] for shape in sketch.shapes)):
            continue
        _reading(sketch, kind, judged, *places[kind], show)


def _reading(sketch: Sketch, kind: Kind, judged: Judged, start: Point, end: Point, show: Show) -> None:
    ref = f"reading:{kind}"
    doubted = judged.status is not Status.USED
    layer = Layer.DOUBT if doubted else Layer.READING
    text = show.length(judged.value)
    if judged.status in (Status.SET_ASIDE, Status.BOWED):
        text = f"{text}, not {show.length(judged.adjusted)}"
    elif doubted:
        text = f"{text} ?"
    if kind.startswith("diagonal"):
        line_layer = Layer.DOUBT if doubted else Layer.FAINT
        sketch.line([start, end], line_layer, ref=ref)
        share = 0.83 if kind is Kind.DIAGONAL_RISING else 0.62
        x, y = start[0] + (end[0] - start[0]) * share, start[1] + (end[1] - start[1]) * share
        sketch.label(x, y, text, layer=layer, bold=doubted, on_paper=True, ref=ref)
        return
    sketch.dimension(
        start,
        end,
        text,
        layer=layer,
        figure=f"reading_{kind}",
        edit=f"readings.{kind}",
        arrows=True,
        ref=ref,
        share=0.28 if kind.is_height else 0.5,
    )
