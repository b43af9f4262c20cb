"""A template by ticks: the board with its marks and strokes, the points, the sides through them, and what is wrong."""

from __future__ import annotations

import math

from oakmeasure.core.base.geometry import Point, circle
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.readings import TickTemplate
from oakmeasure.core.drawings.drawing import PENCIL, Anchor, Drawing, Grain, Layer, Lettering, Sketch
from oakmeasure.core.drawings.hang.crooked import Crooked, crooked
from oakmeasure.core.drawings.measure.opening_view import WALL, largest_leaf, opening_view, sides_named, wall_round
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.survey.tick_board import JudgedTick, TemplateFit, TickStatus

MANY = 60  # ticks beyond which strokes and numbers would only be a thicket


def ticks_view(leaf: LeafSolution, show: Show, *, exaggeration: float = 10.0) -> Drawing:
    """Return the template; crookedness of the sides and misses of the ticks shown `exaggeration` times their size.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        exaggeration: How many times crookedness is drawn.
    """
    fit, template = leaf.opening.template, leaf.leaf.template
    if fit is None or template is None:
        return opening_view(leaf, show, exaggeration=exaggeration)
    shape = crooked(leaf, exaggeration)
    sketch = Sketch(show, mirror_at=shape.width if leaf.leaf.hand is Hand.RIGHT else None)
    step = sketch.step = max(max(y for _, y in shape.points), 1.4 * shape.width) / 100
    wall_round(sketch, shape)
    sketch.area(shape.points, Layer.SPACE)
    _board(sketch, template, fit)
    largest_leaf(sketch, leaf, shape, is_filled=False)
    for at, edge in enumerate(shape.outline.edges):
        sketch.line(shape.line(at), Layer.OUTLINE, ref=f"side:{edge.side}")
    _ticks(sketch, template, fit, shape)
    _check(sketch, template, fit, shape)
    _nick(sketch, template, fit)
    sides_named(sketch, leaf, shape.width, -6 * step)
    words = f"largest square leaf {show.size(leaf.fit.width.value, leaf.fit.height.value)}"
    sketch.page().label(
        (shape.width / 2, -13 * step),
        words,
        Lettering(Layer.LEAF, 1.2, bold=True),
        anchor=Anchor.BELOW,
        ref="figure:leaf_width",
    )
    return sketch.drawing(margin=2 * step)


def _on_opening(fit: TemplateFit, point: Point) -> Point:
    (ox, oy) = fit.corners[0]
    return point[0] - ox, point[1] - oy


def _board(sketch: Sketch, template: TickTemplate, fit: TemplateFit) -> None:
    """The board that the marks are on, a little larger than they are."""
    marks = [_on_opening(fit, (each.x, each.y)) for each in template.ticks]
    marks.append(_on_opening(fit, (template.nick_x, template.nick_y)))
    xs, ys = [x for x, _ in marks], [y for _, y in marks]
    if any(each.angle_deg is not None or each.x2 is not None for each in template.ticks):
        edge = 25.0
        board = Rect(min(xs) - edge, min(ys) - edge, max(xs) + edge, max(ys) + edge)
        sketch.rect(board, Layer.LINING, grain=Grain.UPRIGHT)
        sketch.write((board.x0 + edge / 2, board.y1 - edge), "board", PENCIL)


def _ticks(sketch: Sketch, template: TickTemplate, fit: TemplateFit, shape: Crooked) -> None:
    step = sketch.step
    many = len(fit.ticks) > MANY
    for number, (tick, judged) in enumerate(zip(template.ticks, fit.ticks, strict=True), start=1):
        ref = f"tick:{number}"
        x, y = _shown(fit, judged, shape)
        doubted = judged.status in (TickStatus.SET_ASIDE, TickStatus.UNDECIDED)
        layer = Layer.DOUBT if doubted else Layer.FAINT if judged.status is TickStatus.EXCLUDED else Layer.READING
        mark = _on_opening(fit, (tick.x, tick.y))
        if not many and (tick.angle_deg is not None or tick.x2 is not None):
            sketch.line([mark, (x, y)], Layer.DOUBT if doubted else Layer.FAINT, ref=ref)
            _cross(sketch, mark, 0.6 * step, Layer.FAINT, ref)
        _cross(sketch, (x, y), 0.9 * step, layer, ref)
        if many and not doubted:
            continue
        if doubted:
            sketch.line(circle(x, y, 2.0 * step), layer, ref=ref)
        text = f"{number}"
        if doubted:
            text = f"tick {number}, {sketch.show.length(judged.miss)}"
        elif judged.status is TickStatus.EXCLUDED:
            text = f"{number}, out"
        outward = _inward((x, y), shape, -4.2 * step)
        sketch.label(
            outward, text, Lettering(layer if doubted else Layer.READING, bold=doubted, on_paper=doubted), ref=ref
        )


def _shown(fit: TemplateFit, judged: JudgedTick, shape: Crooked) -> Point:
    """Return where a tick's point is drawn: on its side as drawn, off by its miss as often as the sides are crooked."""
    point = _on_opening(fit, judged.point)
    line = shape.line(judged.side - 1)
    edge = shape.outline.edges[judged.side - 1]
    if len(edge.points) > 2 or len(line) > 2:
        return point
    (ax, ay), (bx, by) = edge.points[0], edge.points[-1]
    square = (bx - ax) ** 2 + (by - ay) ** 2 or 1.0
    share = ((point[0] - ax) * (bx - ax) + (point[1] - ay) * (by - ay)) / square
    off = ((point[0] - ax) * (by - ay) - (point[1] - ay) * (bx - ax)) / math.sqrt(square)
    (sx, sy), (tx, ty) = line[0], line[-1]
    length = math.dist(line[0], line[-1]) or 1.0
    reach = max(min(off * shape.times, 0.9 * WALL), -0.9 * WALL) if abs(off) < WALL else off
    return (sx + share * (tx - sx) + reach * (ty - sy) / length, sy + share * (ty - sy) - reach * (tx - sx) / length)


def _inward(point: Point, shape: Crooked, by: float) -> Point:
    """Return a place for a text beside a point, towards the middle of the opening."""
    cx, cy = shape.width / 2, shape.height / 2
    length = math.dist(point, (cx, cy)) or 1.0
    return point[0] + (cx - point[0]) / length * by, point[1] + (cy - point[1]) / length * by


def _cross(sketch: Sketch, at: Point, size: float, layer: Layer, ref: str = "") -> None:
    x, y = at
    sketch.line([(x - size, y), (x + size, y)], layer, ref=ref)
    sketch.line([(x, y - size), (x, y + size)], layer, ref=ref)


def _check(sketch: Sketch, template: TickTemplate, fit: TemplateFit, shape: Crooked) -> None:
    """The check reading: a square round its point, at the corner that it checks."""
    step = sketch.step
    if fit.check is None:
        return
    at = template.check_corner % template.sides
    x, y = _on_opening(fit, fit.check)
    cx, cy = _on_opening(fit, fit.corners[at])
    sx, sy = shape.corners[at]
    x, y = sx + (x - cx) * shape.times, sy + (y - cy) * shape.times
    size = 1.6 * step
    box = [(x - size, y - size), (x + size, y - size), (x + size, y + size), (x - size, y + size), (x - size, y - size)]
    sketch.line(box, Layer.LEAF, ref="tick:check")
    sketch.label(
        (x, y + 2.2 * step), "check", Lettering(Layer.LEAF, on_paper=True), anchor=Anchor.ABOVE, ref="tick:check"
    )


def _nick(sketch: Sketch, template: TickTemplate, fit: TemplateFit) -> None:
    """The datum nick: a notch on the board with its height over the hinge side's foot."""
    step = sketch.step
    x, y = _on_opening(fit, (template.nick_x, template.nick_y))
    sketch.line([(x - 2 * step, y + step), (x, y), (x - 2 * step, y - step)], Layer.OUTLINE, ref="tick:nick")
    sketch.write(
        (x + step, y), f"nick {sketch.show.length(y)} up", Lettering(Layer.PENCIL, on_paper=True), ref="figure:nick_up"
    )
