"""Where the texts of a drawing stand, and how large, so that none lies on another."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache
from itertools import pairwise

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QFontMetricsF, QPolygonF

from oakmeasure.app.shell import theme
from oakmeasure.core.drawings.drawing import Anchor, Dimension, Drawing, Label, Layer

TEXT_PX = 13.5
LEAST_PX = 9.0  # of type that is read
TEXT_SIZES = (1.0, 0.9, 0.8, 0.74)  # of it, the next where texts would lie on one another
DEAR_SMALL = 15.0  # texts that may rather be left out than all be set smaller by their size
FIRST_TURNS = 3  # at the least, that the scale is reckoned anew
MOST_TURNS = 8
CLOSE = 0.14  # of its height that a line of words may stand into the one over it
LAPPED = 0.3  # of the smaller one's area, from which two texts do
SHARES = (0.38, 0.62, 0.27, 0.73, 0.18, 0.82)  # of its line, where else a size may stand
TOUCHING = 2.0  # px that two texts of one line may share
BETWEEN = 3.0  # px that should be between two figures
LEVEL = 0.6  # of its height, from which a text stands beside another one


@dataclass(frozen=True, slots=True)
class View:
    """How mm become px: scale in px per mm, and where the drawing's origin stands.

    text: how large texts are, of their usual size. down: px that a line of words is moved down, to stand under the one
    before it. aside: px that a figure is moved to the right, to stand clear of its neighbour. slid: where along its
    line a size stands that would lie on another one. left_out: those that there is no room for.
    """

    scale: float
    x: float
    y: float
    text: float = 1.0
    down: Mapping[Label, float] = field(default_factory=dict)
    aside: Mapping[Label, float] = field(default_factory=dict)
    slid: Mapping[Dimension, float] = field(default_factory=dict)
    left_out: frozenset[Label] = frozenset()

    def at(self, point: tuple[float, float]) -> QPointF:
        return QPointF(self.x + point[0] * self.scale, self.y - point[1] * self.scale)

    def back(self, point: QPointF) -> tuple[float, float]:
        """Return the place on the drawing, mm, of a px point."""
        return (point.x() - self.x) / self.scale, (self.y - point.y()) / self.scale

    def polygon(self, points: tuple[tuple[float, float], ...]) -> QPolygonF:
        scale, left, top = self.scale, self.x, self.y  # some two thousand points a picture: no call for each
        return QPolygonF([QPointF(left + x * scale, top - y * scale) for x, y in points])

    def zoomed(self, factor: float, around: QPointF) -> View:
        """Return the view with a px point held in its place."""
        return View(
            self.scale * factor,
            around.x() + (self.x - around.x()) * factor,
            around.y() + (self.y - around.y()) * factor,
        )


def fitted(drawing: Drawing, room: QRectF) -> View:
    """Return the view that shows the whole drawing, its texts included, centred in `room`.

    Where texts would lie on one another they are set smaller; what still has no room is left out, the least first: it
    is there again when one comes nearer.
    """
    texts = [shape for shape in drawing.shapes if isinstance(shape, Label | Dimension)]
    best, least = View(1.0, 0, 0), math.inf
    for size in TEXT_SIZES:
        if DEAR_SMALL * (1 - size) >= least:
            break
        view = _fitted(drawing, texts, room, size)
        crowded = _crowded(texts, view)
        cost = len(crowded) + DEAR_SMALL * (1 - size)
        if cost < least:
            best, least = replace(view, left_out=crowded), cost
    aside, slid = _apart(texts, best), _beside_one_another(texts, best)
    if aside or slid:
        best = replace(best, aside=aside, slid=slid)
        best = replace(best, left_out=_crowded(texts, best))
    return best


def _fitted(drawing: Drawing, texts: list[Label | Dimension], room: QRectF, size: float) -> View:
    b = drawing.bounds
    scale = min(room.width() / max(b.width, 1), room.height() / max(b.height, 1))
    view = View(scale, 0, 0, size)
    # Texts keep their size in px: what they need beyond the lines changes with the scale.
    for turn in range(MOST_TURNS):
        extent = _extent(drawing, texts, view)
        fits = min(room.width() / max(extent.width(), 1), room.height() / max(extent.height(), 1), 1.6)
        if turn >= FIRST_TURNS and fits > 0.99:
            break
        scale *= fits
        view = View(scale, 0, 0, size)
    view = replace(view, down=_under_one_another(texts, view))
    extent = _extent(drawing, texts, view)
    return replace(view, x=room.center().x() - extent.center().x(), y=room.center().y() - extent.center().y())


def _under_one_another(texts: list[Label | Dimension], view: View) -> dict[Label, float]:
    """Return how far lines of words that begin at one place must go down so that each stands under the one before."""
    columns: list[list[Label]] = []
    lines = [each for each in texts if isinstance(each, Label) and each.anchor is Anchor.LEFT and not each.room.width]
    for each in sorted(lines, key=lambda line: line.x):
        if not columns or (each.x - columns[-1][-1].x) * view.scale > INDENT:
            columns.append([])
        columns[-1].append(each)
    found: dict[Label, float] = {}
    for lines in columns:
        foot = -math.inf
        for each in sorted(lines, key=lambda line: -line.y):
            box = label_box(each, view)
            least = foot - CLOSE * box.height()
            if box.y() < least:
                found[each] = least - box.y()
            foot = max(box.y(), least) + box.height()
    return found


def _apart(texts: list[Label | Dimension], view: View) -> dict[Label, float]:
    """Return how far figures of one row that all but touch must go to either side: two would read as another one."""
    rows: dict[float, list[Label]] = defaultdict(list)
    for each in texts:
        if isinstance(each, Label) and each.anchor in CENTRED and not each.room.width and _is_figure(each):
            rows[round(each.y, 3)].append(each)
    found: dict[Label, float] = {}
    for row in rows.values():
        for one, other in pairwise(sorted(row, key=lambda each: each.x)):
            lack = BETWEEN - (label_box(other, view).x() - label_box(one, view).right())
            if 0 < lack <= MOST_ASIDE:
                found[one] = found.get(one, 0.0) - lack / 2
                found[other] = found.get(other, 0.0) + lack / 2
    return found


def _beside_one_another(texts: list[Label | Dimension], view: View) -> dict[Dimension, float]:
    """Return where along their lines sizes must stand that would lie on one written before, as far as there is room."""
    kept: list[QRectF] = []
    found: dict[Dimension, float] = {}
    for each in texts:
        if not isinstance(each, Dimension):
            continue
        box = dimension_box(each, view)
        shares = SHARES if _lies_on(box, kept) and _has_room(each, box, view) else ()
        words = [label_box(other, view) for other in texts if isinstance(other, Label)] if shares else []
        for share in shares:
            other = dimension_box(each, replace(view, slid={each: share}))
            if not _lies_on(other, kept) and not _lies_on(other, words):
                found[each], box = share, other
                break
        kept.append(box)
    return found


def _lies_on(box: QRectF, others: list[QRectF]) -> bool:
    return any(box.intersects(other) for other in others)


def _has_room(dimension: Dimension, box: QRectF, view: View) -> bool:
    """Return whether a line is long enough for its text to stand elsewhere on it."""
    start, end = view.at(dimension.start), view.at(dimension.end)
    if _is_upright(dimension):
        return abs(end.y() - start.y()) > 3 * box.height()
    return abs(end.x() - start.x()) > 2 * box.width()


def _crowded(texts: list[Label | Dimension], view: View) -> frozenset[Label]:
    """Return the labels that lie on others which matter more: dimensions, bold words, ink before pencil."""
    boxes = [
        (_matters(each), label_box(each, view) if isinstance(each, Label) else dimension_box(each, view), each)
        for each in texts
    ]
    kept: list[tuple[float, float, float, float, bool]] = []
    found = set()
    for _, box, each in sorted(boxes, key=lambda one: one[0]):
        x0, y0, x1, y1 = box.x(), box.y(), box.right(), box.bottom()
        most = LAPPED * (x1 - x0) * (y1 - y0)
        figure = _is_figure(each)
        for a0, b0, a1, b1, other in kept:
            across, up = min(x1, a1) - max(x0, a0), min(y1, b1) - max(y0, b0)
            lapped = across > 0 and up > 0 and across * up > min(most, LAPPED * (a1 - a0) * (b1 - b0))
            share = 0.0 if figure and other else TOUCHING  # two figures that touch read as another one
            if lapped or (across > share and up > LEVEL * (y1 - y0)):
                if isinstance(each, Label):
                    found.add(each)
                break
        else:
            kept.append((x0, y0, x1, y1, figure))
    return frozenset(found)


def _is_figure(shape: Label | Dimension) -> bool:
    return shape.text[:1].isdigit()


def _matters(shape: Label | Dimension) -> int:
    if isinstance(shape, Dimension):
        return 0
    return 1 if shape.lettering.bold else 3 if shape.layer is Layer.PENCIL else 2


def _extent(drawing: Drawing, texts: list[Label | Dimension], view: View) -> QRectF:
    b = drawing.bounds
    box = QRectF(view.at((b.x0, b.y1)), view.at((b.x1, b.y0)))
    for shape in texts:
        box = box.united(label_box(shape, view) if isinstance(shape, Label) else dimension_box(shape, view))
    return box


CENTRED = (Anchor.CENTRE, Anchor.ABOVE, Anchor.BELOW)
INDENT = 8.0  # px that lines of one text may begin further in
MOST_ASIDE = 8.0  # px that two figures may be moved apart


def label_text(label: Label, view: View) -> str:
    """Return the text that fits into the label's room; "" where none does."""
    if not label.room.width:
        return theme.typeset(label.text)
    room = label.room.width * view.scale
    texts = map(theme.typeset, (label.text, *label.room.shorter))
    return next((each for each in texts if text_size(each, px_of(label, view), label.lettering.bold)[0] <= room), "")


def px_of(label: Label, view: View) -> float:
    """Return how large a label is set."""
    return label.set_in(TEXT_PX * view.text, view.scale, least=LEAST_PX)


def label_box(label: Label, view: View) -> QRectF:
    """Return the px box of a label."""
    width, height = text_size(label_text(label, view), px_of(label, view), label.lettering.bold)
    at = view.at((label.x, label.y))
    x = {Anchor.LEFT: at.x(), Anchor.RIGHT: at.x() - width}.get(label.anchor, at.x() - width / 2)
    y = {Anchor.BELOW: at.y(), Anchor.ABOVE: at.y() - height}.get(label.anchor, at.y() - height / 2)
    return QRectF(x + view.aside.get(label, 0.0), y + view.down.get(label, 0.0), width, height)


def _is_upright(dimension: Dimension) -> bool:
    return abs(dimension.end[1] - dimension.start[1]) > abs(dimension.end[0] - dimension.start[0])


def dimension_box(dimension: Dimension, view: View) -> QRectF:
    """Return the px box of a dimension's text; beside an upright line that is too short for it, else on the line."""
    width, height = text_size(theme.typeset(dimension.text), TEXT_PX * view.text, True)
    width += 6
    start, end = view.at(dimension.start), view.at(dimension.end)
    middle = start + (end - start) * view.slid.get(dimension, dimension.share)
    if _is_upright(dimension):
        if abs(end.y() - start.y()) < height + 6:
            return QRectF(middle.x() + TICK_PX + 2, middle.y() - height / 2, width, height)
        return QRectF(middle.x() - width / 2, middle.y() - height / 2, width, height)
    if abs(end.x() - start.x()) < width + 4:
        return QRectF(middle.x() - width / 2, middle.y() - height - TICK_PX, width, height)
    return QRectF(middle.x() - width / 2, middle.y() - height / 2, width, height)


TICK_PX = 5.0


@lru_cache(maxsize=4096)
def text_size(text: str, px: float, bold: bool) -> tuple[float, float]:
    """Return width and height of a text in px."""
    metrics = QFontMetricsF(theme.font(px, bold=bold))
    return metrics.horizontalAdvance(text), metrics.height()
