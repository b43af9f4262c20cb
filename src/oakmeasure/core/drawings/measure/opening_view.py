"""The opening as measured, its crookedness exaggerated, with readings, how sure its sides are, and the largest leaf."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import HAIR, Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.readings import FloorAlong, Side
from oakmeasure.core.drawings.drawing import PENCIL, Anchor, Dimension, Drawing, Layer, Lettering, Sketch, corners
from oakmeasure.core.drawings.hang.crooked import Crooked, crooked, side_sigmas
from oakmeasure.core.drawings.leaf.leaf_view import floor_line
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.survey.adjust import Judged, Status
from oakmeasure.core.survey.kinds import SurveyKind
from oakmeasure.core.survey.outline import scribed
from oakmeasure.core.survey.takings.polygon import PREFIX

SHOWN_RESIDUAL = 0.05  # mm; less says nothing
WALL = 120.0  # mm of wall drawn round the opening


def opening_view(leaf: LeafSolution, show: Show, *, exaggeration: float = 10.0) -> Drawing:
    """Return the opening with every departure from square shown `exaggeration` times its size.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        exaggeration: How many times crookedness is drawn.
    """
    shape = crooked(leaf, exaggeration)
    w, h = shape.width, shape.height
    sketch = Sketch(show, mirror_at=w if leaf.leaf.hand is Hand.RIGHT else None)
    tall = max(y for _, y in shape.points)
    step = sketch.step = max(tall, 1.4 * w) / 100
    wall_round(sketch, shape)
    sketch.area(shape.points, Layer.SPACE)
    _bands(sketch, leaf, shape)
    largest_leaf(sketch, leaf, shape)
    floor_line(sketch.page(), -WALL, w + WALL, min(0.0, *(y for _, y in shape.corners[:2])))
    for at, edge in enumerate(shape.outline.edges):
        sketch.line(shape.line(at), Layer.OUTLINE, ref=f"side:{edge.side}")
    # The true rectangle, in pencil: what the opening would be.
    sketch.line([(0, 0), (w, 0), (w, h), (0, h), (0, 0)], Layer.CENTRE)
    _plumb(sketch, leaf, shape)
    adjustment = leaf.opening.adjustment
    if adjustment is not None:
        if isinstance(next(iter(adjustment.readings)), SurveyKind):
            _taped(sketch, leaf, adjustment.readings, shape)
        else:
            _spans(sketch, leaf, adjustment.readings, shape)
    _floor_heights(sketch, leaf, shape)
    sides_named(sketch, leaf, w, -4 * step)
    return sketch.drawing(margin=2 * step)


def wall_round(sketch: Sketch, shape: Crooked) -> None:
    """Draw the wall that the opening is in.

    Args:
        sketch: The drawing that is added to.
        shape: The opening with its crookedness exaggerated.
    """
    xs, ys = [x for x, _ in shape.points], [y for _, y in shape.points]
    sketch.rect(Rect(min(0, *xs) - WALL, min(0, *ys), max(shape.width, *xs) + WALL, max(ys) + 0.7 * WALL), Layer.WALL)


def sides_named(sketch: Sketch, leaf: LeafSolution, width: float, y: float) -> None:
    """Say under the drawing which side the hinges are on.

    Args:
        sketch: The drawing that is added to.
        leaf: The leaf, worked out to the end.
        width: Clear width that the words stand under, mm.
        y: Where the words stand, up the drawing, mm.
    """
    left = leaf.leaf.hand is Hand.LEFT
    for x, text in ((-WALL / 2, "hinges" if left else "latch"), (width + WALL / 2, "latch" if left else "hinges")):
        sketch.page().label((x, y), text, PENCIL, anchor=Anchor.BELOW)


def _bands(sketch: Sketch, leaf: LeafSolution, shape: Crooked) -> None:
    """Two standard errors to either side of every side that is not sure to a hair."""
    taken = leaf.opening.taken
    for at in range(len(taken.corners)):
        sigmas = side_sigmas(taken.corners, taken.covariance, at)
        if max(sigmas) > 0.01:
            # Far out it says no more than "anywhere": kept within the wall.
            most = 0.45 * WALL / shape.times
            sketch.area(shape.band(at, (min(sigmas[0], most), min(sigmas[1], most))), Layer.BAND)


def largest_leaf(sketch: Sketch, leaf: LeafSolution, shape: Crooked, *, is_filled: bool = True) -> None:
    """The largest square leaf at its true size inside the clear plumb opening.

    Of an odd shape the scribed one is drawn too.

    Args:
        sketch: The drawing that is added to.
        leaf: The leaf, worked out to the end.
        shape: The opening with its crookedness exaggerated.
        is_filled: Whether it is filled with the tint of wood.
    """
    f, opening = leaf.figures, leaf.opening
    gaps = {side: f[figure_name(f"gap_{side.slug}")].value for side in (Side.HINGE, Side.LATCH, Side.HEAD, Side.FLOOR)}
    w, h = leaf.fit.width.value, leaf.fit.height.value
    if w <= 0 or h <= 0:
        return
    x0, y0 = gaps[Side.HINGE], gaps[Side.FLOOR]
    if opening.taken_as:
        base = tuple(f[figure_name(f"{opening.taken_as}{each}")].value for each in ("hinge_side_in", "floor_high"))
        x0 += opening.hinge_in.value - base[0]
        y0 += opening.floor_high.value - base[1]
    box = Rect(x0, y0, x0 + w, y0 + h)
    ref = "figure:leaf_width"
    if shape.times == 1.0 or len(opening.outline.edges) != 4 or any(len(e.points) > 8 for e in opening.outline.edges):
        outline = scribed(opening.outline, gaps)
        if outline:
            moved = [(x - opening.hinge_in.value, y - opening.floor_high.value) for x, y in outline]
            if is_filled:
                sketch.area(moved, Layer.LEAF, ref=ref)
            sketch.line([*moved, moved[0]], Layer.HIDDEN, ref=ref)
    if is_filled:
        sketch.area(corners(box), Layer.LEAF, ref=ref)
    sketch.box(box, Layer.LEAF, ref=ref)
    if not is_filled:
        return
    page, middle = sketch.page(), sketch.at(x0 + w / 2, 0)[0]
    y, below = y0 + 0.6 * h, 4.6 * max(h, 1.9 * w) / 100
    page.label((middle, y), sketch.show.size(w, h), Lettering(Layer.LEAF, 1.45, bold=True, on_paper=True), ref=ref)
    page.label((middle, y - below), "largest square leaf", Lettering(Layer.LEAF, 1.0, on_paper=True))


def _plumb(sketch: Sketch, leaf: LeafSolution, shape: Crooked) -> None:
    """Plumb lines at both feet, and how far each side's head stands off them."""
    step = sketch.step
    if shape.times == 1.0 and len(shape.corners) != 4:
        return
    taken = leaf.opening.taken
    (hf, lf, lh, hh) = shape.corners if len(shape.corners) == 4 else (*shape.corners[:3], shape.corners[-1])
    for foot, head, real in (
        (hf, hh, taken.hinge_head[0] - taken.hinge_foot[0]),
        (lf, lh, taken.latch_head[0] - taken.latch_foot[0]),
    ):
        top = max(y for _, y in shape.points) + 3.5 * step
        if abs(real) < HAIR or abs(head[0] - foot[0]) < 0.3 * step:
            continue
        sketch.line([foot, (foot[0], top)], Layer.CENTRE)
        sketch.line([(foot[0], top - step), (head[0], top - step)], Layer.READING)
        sketch.label(
            ((foot[0] + head[0]) / 2, top + 1.2 * step),
            sketch.show.length(abs(real)),
            Lettering(Layer.READING, 1.0, bold=True, on_paper=True),
        )


# --- readings ------------------------------------------------------------------------------------------------


def _along(a: Point, b: Point, share: float) -> Point:
    return a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share


def _taped(sketch: Sketch, leaf: LeafSolution, readings: Mapping[Any, Judged], shape: Crooked) -> None:
    """Every reading of tape where it was taken."""
    hf, lf, lh, hh = shape.corners
    places = {
        SurveyKind.DIAGONAL_RISING: (hf, lh),
        SurveyKind.DIAGONAL_FALLING: (hh, lf),
        SurveyKind.WIDTH_TOP: (_along(hf, hh, 0.94), _along(lf, lh, 0.94)),
        SurveyKind.WIDTH_MIDDLE: (_along(hf, hh, 0.5), _along(lf, lh, 0.5)),
        SurveyKind.WIDTH_BOTTOM: (_along(hf, hh, 0.05), _along(lf, lh, 0.05)),
        SurveyKind.HEIGHT_HINGE: (_along(hf, lf, 0.09), _along(hh, lh, 0.09)),
        SurveyKind.HEIGHT_MIDDLE: (_along(hf, lf, 0.5), _along(hh, lh, 0.5)),
        SurveyKind.HEIGHT_LATCH: (_along(hf, lf, 0.91), _along(hh, lh, 0.91)),
    }
    for kind, (start, end) in places.items():
        reading = getattr(leaf.leaf.readings, kind)
        if reading is None:
            continue
        judged = readings.get(kind)
        if judged is None:  # the height to an arch's crown
            crown = max(y for _, y in shape.points)
            _written(sketch, _Written(kind, reading.value, None, f"readings.{kind}", 0.28), start, (start[0], crown))
            continue
        share = SHARES.get(kind, 0.28 if kind.is_height else 0.5)
        written = _Written(kind, reading.value, judged, f"readings.{kind}", share, kind.startswith("diagonal"))
        _written(sketch, written, start, end)


def _spans(sketch: Sketch, leaf: LeafSolution, readings: Mapping[Any, Judged], shape: Crooked) -> None:
    """Sides and diagonals of a polygon, and its corners by number."""
    step = max(max(y for _, y in shape.points), 1.4 * shape.width) / 100
    polygon = leaf.leaf.polygon
    assert polygon is not None
    paths = {each: at for at, each in reversed(list(enumerate(polygon.spans)))}
    for span, at in paths.items():
        key = f"{min(span.start, span.end)}-{max(span.start, span.end)}"
        judged = readings.get(key)
        if judged is None:
            continue
        a, b = shape.corners[span.start - 1], shape.corners[span.end - 1]
        is_side = (span.end - span.start) % polygon.corners in (1, polygon.corners - 1)
        edit, share = f"polygon.spans.{at}.length", 0.5 if is_side else 0.36
        _written(sketch, _Written(PREFIX + key, span.length.value, judged, edit, share, not is_side), a, b)
    for number, (x, y) in enumerate(shape.corners, start=1):
        sketch.label((x, y + 2.5 * step), str(number), Lettering(Layer.PENCIL, bold=True, on_paper=True))


@dataclass(frozen=True, slots=True)
class _Written:
    """A reading to be written on its line: how far along that its number stands, and the path of its field."""

    name: str
    value: float
    judged: Judged | None
    edit: str
    share: float
    is_diagonal: bool = False


SHARES = {SurveyKind.DIAGONAL_RISING: 0.83, SurveyKind.DIAGONAL_FALLING: 0.62}  # clear of each other and the middle


def _written(sketch: Sketch, reading: _Written, start: Point, end: Point) -> None:
    """Write a reading on the line that was read; one that is doubted in its own layer, with what the others make it."""
    show, judged, where = sketch.show, reading.judged, reading.share
    ref = f"reading:{reading.name}"
    doubted = judged is not None and judged.status is not Status.USED
    layer = Layer.DOUBT if doubted else Layer.READING
    text = show.length(reading.value)
    if judged is not None and judged.status in (Status.SET_ASIDE, Status.BOWED):
        text = f"{text}, not {show.length(judged.adjusted)}"
    elif doubted:
        text = f"{text} ?"
    if reading.is_diagonal:
        sketch.line([start, end], Layer.DOUBT if doubted else Layer.FAINT, ref=ref)
        sketch.label(_along(start, end, where), text, Lettering(layer, bold=doubted, on_paper=True), ref=ref)
    else:
        sketch.add(
            Dimension(
                start, end, text, f"reading_{reading.name}", reading.edit, layer, arrows=True, ref=ref, share=where
            )
        )
    if judged is not None and not doubted and abs(judged.miss) >= SHOWN_RESIDUAL:
        # Under the reading: by how much it misses what the opening is taken to be.
        x, y = _along(start, end, where)
        sign = "+" if judged.miss > 0 else ""
        sketch.label(
            (x, y - 3.4 * sketch.step),
            sign + show.length(judged.miss),
            Lettering(Layer.PENCIL, 0.85, on_paper=True),
            ref=ref,
        )


def _floor_heights(sketch: Sketch, leaf: LeafSolution, shape: Crooked) -> None:
    """Heights of the floor along a travel, exaggerated, where they were read."""
    floor = leaf.leaf.floor
    if floor.along is not FloorAlong.TRAVEL or not floor.points:
        return
    inside = [each for each in sorted(floor.points, key=lambda p: p.at) if -WALL <= each.at <= shape.width + WALL]
    line = [(each.at, each.height.value * shape.times) for each in inside]
    if len(line) > 1:
        sketch.line(line, Layer.FLOOR)
    for at, (x, y) in enumerate(line):
        text = sketch.show.length(inside[at].height.value)
        sketch.label(
            (x, min(y, 0) - 2 * sketch.step), text, Lettering(Layer.READING), anchor=Anchor.BELOW, ref=f"floor:{at + 1}"
        )
