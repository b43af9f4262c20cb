"""Draws a core drawing on a PDF page at a stated scale, in black with light tints, so that a copier keeps it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.drawings.drawing import Anchor, Area, Dimension, Drawing, Label, Layer, Line
from oakmeasure.core.drawings.hatching import grain_in
from oakmeasure.data import path_of
from oakmeasure.language import tr

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

REGULAR = "SourceSans3"
BOLD = "SourceSans3-Semibold"
TEXT_PT = 7.2
LEAST_PT = 4.5
WHITE = "#FFFFFF"
SCALES = (1, 2, 5, 8, 10, 12, 15, 20, 25, 50, 100)

# layer -> (grey of the line, width in points, dashes)
_LINES: dict[Layer, tuple[float, float, tuple[float, ...]]] = {
    Layer.OUTLINE: (0.0, 0.7, ()),
    Layer.HIDDEN: (0.15, 0.5, (2.4, 1.6)),
    Layer.PENCIL: (0.3, 0.5, ()),
    Layer.FAINT: (0.55, 0.25, ()),
    Layer.GRAIN: (0.72, 0.2, ()),
    Layer.DIMENSION: (0.2, 0.4, ()),
    Layer.FLOOR: (0.0, 1.2, ()),
    Layer.CENTRE: (0.3, 0.4, (5, 2, 1, 2)),
    Layer.METAL: (0.0, 0.5, ()),
}
_FILLS = {
    Layer.WOOD: "#F3E8D3",
    Layer.PANEL: "#FBF5E9",
    Layer.END_GRAIN: "#EAD9B8",
    Layer.ROD: "#FAF1DD",
    Layer.LINING: "#E8E5E0",
    Layer.WALL: "#ECEAE6",
    Layer.SPACE: WHITE,
    Layer.METAL: "#777777",
    Layer.WASTE: "#F1F1F1",
    Layer.LEAF: "#F4F7F6",
    Layer.BAND: "#F3EEE4",
    Layer.HANDLE: WHITE,
}
_EDGED = {Layer.WOOD, Layer.PANEL, Layer.END_GRAIN, Layer.METAL}


PALE = 0.55  # of a side's own colour, that stays white on paper


def _pale(tint: str) -> str:
    """Return a colour of the screen so light that a copier leaves the lines on it."""
    rgb = (int(tint[at : at + 2], 16) for at in (1, 3, 5))
    return "#" + "".join(f"{round(each + (255 - each) * PALE):02X}" for each in rgb)


def register_fonts() -> None:
    """Put the shipped type into the page."""
    if REGULAR not in pdfmetrics.getRegisteredFontNames():
        pdfmetrics.registerFont(TTFont(REGULAR, path_of("fonts/SourceSans3-Regular.ttf")))
        pdfmetrics.registerFont(TTFont(BOLD, path_of("fonts/SourceSans3-Semibold.ttf")))
        pdfmetrics.registerFontFamily(REGULAR, normal=REGULAR, bold=BOLD)


def scale_for(drawing: Drawing, *, width: float, height: float) -> int:
    """Return N of the largest scale 1:N of the usual ones at which the drawing fits `width` × `height` mm of paper.

    Args:
        drawing: The drawing.
        width: Width of the paper that there is, mm.
        height: Height of the paper that there is, mm.
    """
    needed = max(drawing.bounds.width / width, drawing.bounds.height / height)
    return next((each for each in SCALES if each >= needed), SCALES[-1])


def reach(drawing: Drawing, scale: float) -> tuple[float, float]:
    """Return from where to where a drawing reaches across the paper with its texts, mm from the left of its box.

    Args:
        drawing: The drawing.
        scale: Millimetres of the drawing for one on the paper.
    """
    low, high = 0.0, drawing.bounds.width / scale
    for each in drawing.shapes:
        if isinstance(each, Label) and not each.room.width:
            font = BOLD if each.lettering.bold else REGULAR
            wide = pdfmetrics.stringWidth(tr(each.text), font, TEXT_PT * each.lettering.size) / mm
            at = (each.x - drawing.bounds.x0) / scale
            start = at - {Anchor.LEFT: 0.0, Anchor.RIGHT: wide}.get(each.anchor, wide / 2)
            low, high = min(low, start), max(high, start + wide)
    return low, high


class Pen:
    """Draws on a canvas: drawing mm to page points."""

    def __init__(self, canvas: Canvas, drawing: Drawing, *, left: float, top: float, scale: float) -> None:
        """left, top: where the drawing's box begins, mm of paper from the page's left and bottom. scale: N of 1:N."""
        self.canvas, self.drawing, self.per_mm = canvas, drawing, mm / scale
        self.x0, self.y1 = left * mm, top * mm
        self._tinted: list[tuple[float, float, float, float]] = []  # boxes of what is drawn so far and not white, mm

    def at(self, point: Point) -> Point:
        """Return a point of the drawing on the page, points.

        Args:
            point: A point of the drawing, mm.
        """
        b = self.drawing.bounds
        return self.x0 + (point[0] - b.x0) * self.per_mm, self.y1 - (b.y1 - point[1]) * self.per_mm

    def draw(self) -> None:
        """Draw every shape, bottom one first."""
        self.canvas.saveState()
        self.canvas.setLineJoin(0)
        for shape in self.drawing.shapes:
            if isinstance(shape, Area):
                self._area(shape)
            elif isinstance(shape, Line):
                self._line(shape.points, shape.layer)
            elif isinstance(shape, Label):
                self._label(shape)
            else:
                self._dimension(shape)
        self.canvas.restoreState()

    def _stroke(self, layer: Layer) -> None:
        grey, width, dashes = _LINES.get(layer, (0.1, 0.5, ()))
        self.canvas.setStrokeColor(Color(grey, grey, grey))
        self.canvas.setLineWidth(width)
        self.canvas.setDash(list(dashes))

    def _area(self, area: Area) -> None:
        path = self.canvas.beginPath()
        path.moveTo(*self.at(area.points[0]))
        for point in area.points[1:]:
            path.lineTo(*self.at(point))
        path.close()
        self._stroke(Layer.OUTLINE if area.layer in _EDGED else Layer.FAINT)
        fill = _pale(area.tint) if area.layer is Layer.FACET and area.tint else _FILLS.get(area.layer, WHITE)
        if fill != WHITE:
            xs, ys = zip(*area.points, strict=True)
            self._tinted.append((min(xs), min(ys), max(xs), max(ys)))
        self.canvas.setFillColor(HexColor(fill))
        self.canvas.drawPath(path, stroke=int(area.layer in _EDGED or area.layer is Layer.LINING), fill=1)
        for layer, points in area.strokes:
            self._line(points, layer)
        lines = grain_in(area)
        if lines:
            self.canvas.saveState()
            self.canvas.clipPath(path, stroke=0, fill=0)
            self._lines(lines, Layer.GRAIN)
            self.canvas.restoreState()

    def _line(self, points: Sequence[Point], layer: Layer) -> None:
        self._lines((points,), layer)

    def _lines(self, lines: Iterable[Sequence[Point]], layer: Layer) -> None:
        """Draw lines of one kind in one stroke: a leaf's grain is a thousand of them."""
        self._stroke(layer)
        path = self.canvas.beginPath()
        for points in lines:
            path.moveTo(*self.at(points[0]))
            for point in points[1:]:
                path.lineTo(*self.at(point))
        self.canvas.drawPath(path, stroke=1, fill=0)

    def _text(self, x: float, y: float, text: str, *, size: float, bold: bool, clear: bool) -> None:
        """Write centred on (x, y) in points."""
        font = BOLD if bold else REGULAR
        width = pdfmetrics.stringWidth(text, font, size)
        if clear:
            self.canvas.setFillColor(HexColor(WHITE))
            self.canvas.rect(x - width / 2 - 1, y - size * 0.42, width + 2, size * 0.9, stroke=0, fill=1)
        self.canvas.setFillColor(HexColor("#111111"))
        self.canvas.setFont(font, size)
        self.canvas.drawString(x - width / 2, y - size * 0.32, text)

    def _label(self, label: Label) -> None:
        size = label.set_in(TEXT_PT, self.per_mm, least=LEAST_PT)
        font = BOLD if label.lettering.bold else REGULAR
        text = tr(label.text)
        if label.room.width:
            room = label.room.width * self.per_mm
            said = map(tr, (label.text, *label.room.shorter))
            fits = (each for each in said if pdfmetrics.stringWidth(each, font, size) <= room)
            text = next(fits, "")
        width = pdfmetrics.stringWidth(text, font, size)
        x, y = self.at((label.x, label.y))
        x += {Anchor.LEFT: width / 2, Anchor.RIGHT: -width / 2}.get(label.anchor, 0.0)
        y += {Anchor.BELOW: -size * 0.6, Anchor.ABOVE: size * 0.6}.get(label.anchor, 0.0)
        # A copier makes dots of a tint: a text on it stands on paper.
        on_tint = any(x0 <= label.x <= x1 and y0 <= label.y <= y1 for x0, y0, x1, y1 in self._tinted)
        clear = label.lettering.on_paper or (on_tint and bool(text))
        self._text(x, y, text, size=size, bold=label.lettering.bold, clear=clear)

    def _dimension(self, dimension: Dimension) -> None:
        self._line((dimension.start, dimension.end), Layer.DIMENSION)
        (x0, y0), (x1, y1) = self.at(dimension.start), self.at(dimension.end)
        for x, y in ((x0, y0), (x1, y1)):
            self.canvas.line(x - 2, y - 2, x + 2, y + 2)
        text = tr(dimension.text)
        width = pdfmetrics.stringWidth(text, BOLD, TEXT_PT)
        x, y = x0 + (x1 - x0) * dimension.share, y0 + (y1 - y0) * dimension.share
        upright = abs(y1 - y0) > abs(x1 - x0)
        if upright and abs(y1 - y0) < TEXT_PT + 4:
            x += width / 2 + 4
        elif not upright and abs(x1 - x0) < width + 4:
            y += TEXT_PT * 0.8
        self._text(x, y, text, size=TEXT_PT, bold=True, clear=True)
