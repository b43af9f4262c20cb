"""Paints a core drawing with QPainter. Holds no arithmetic of the trade."""

from __future__ import annotations

from functools import cache

from PySide6.QtCore import QLineF, QPointF, Qt
from PySide6.QtGui import QBrush, QColor, QPainter, QPen, QPixmap, QPolygonF

from oakmeasure.app.canvas.label_places import TEXT_PX, TICK_PX, View, dimension_box, label_box, label_text, px_of
from oakmeasure.app.shell import theme
from oakmeasure.core.drawings.drawing import Area, Dimension, Drawing, Grain, Label, Layer, Line, Shape
from oakmeasure.core.drawings.hatching import grain_lines, hatching
from oakmeasure.core.leaf.part import Rect
from oakmeasure.language import tr

ANTIALIASED, NO_PEN, GRAIN = QPainter.RenderHint.Antialiasing, Qt.PenStyle.NoPen, Layer.GRAIN
GRAIN_PX = 180  # width of the tile of grain that is laid over wood
_PENS: dict[Layer, tuple[str, float, float, tuple[float, ...]]] = {
    # layer: colour of the palette, alpha, width in px, dashes
    Layer.OUTLINE: ("ink", 1.0, 1.3, ()),
    Layer.HIDDEN: ("accent", 1.0, 1.1, (4, 3)),
    Layer.PENCIL: ("pencil", 1.0, 1.0, ()),
    Layer.FAINT: ("pencil", 0.55, 0.5, ()),
    Layer.GRAIN: ("ink", 0.2, 0.6, ()),
    Layer.DIMENSION: ("pencil", 1.0, 0.9, ()),
    Layer.LEAF: ("accent", 1.0, 1.6, ()),
    Layer.DOUBT: ("look", 1.0, 2.0, ()),
    Layer.FLOOR: ("ink", 1.0, 2.0, ()),
    Layer.CENTRE: ("pencil", 1.0, 0.8, (7, 3, 2, 3)),
}


@cache
def _pen(layer: Layer, p: theme.Palette) -> QPen:
    name, alpha, width, dashes = _PENS.get(layer, ("ink", 1.0, 1.0, ()))
    tone = QColor(getattr(p, name))
    tone.setAlphaF(alpha)
    pen = QPen(tone, width)
    pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
    if dashes:
        pen.setDashPattern(dashes)
    return pen


@cache
def _fill(layer: Layer, tint: str, p: theme.Palette) -> QBrush:
    wood = tint or "#EBC88F"
    if layer in (Layer.WOOD, Layer.END_GRAIN, Layer.FACET):
        return QBrush(theme.mixed(wood, p.wood_share, p.ground))
    if layer is Layer.PANEL:
        return QBrush(theme.mixed(theme.mixed(wood, 0.72, "#FFFFFF").name(), p.wood_share, p.ground))
    colour, share, ground = {
        Layer.ROD: ("#F2DDB4", p.wood_share, p.ground),
        Layer.LINING: (p.hairline, 0.75, p.sheet),
        Layer.WALL: (p.hairline, 0.6, p.ground),
        Layer.METAL: (p.ink, 0.5, p.sheet),
        Layer.WASTE: (p.hairline, 0.35, p.sheet),
        Layer.LEAF: (p.accent_soft, 1.0, p.sheet),
        Layer.BAND: (p.look, 0.16, p.sheet),
        Layer.HANDLE: (p.accent, 1.0, p.sheet),
    }.get(layer, (p.sheet, 1.0, p.sheet))
    return QBrush(theme.mixed(colour, share, ground))


_EDGED = {Layer.WOOD, Layer.PANEL, Layer.END_GRAIN, Layer.METAL}
_EDGED_FAINT = {Layer.LINING}


def paint(painter: QPainter, drawing: Drawing, view: View) -> None:
    """Paint every shape, bottom one first."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setRenderHint(QPainter.RenderHint.TextAntialiasing)
    palette, drawn, facet = theme.palette(), None, Layer.FACET
    sides = _SidePainter(painter, view, palette)
    for shape in drawing.shapes:
        if isinstance(shape, Line):  # most shapes are lines, many of one layer after another: one pen for them
            if shape.layer is not drawn:
                painter.setPen(_pen(shape.layer, palette))
                drawn = shape.layer
            painter.drawPolyline(view.polygon(shape.points))
            continue
        drawn = None
        if shape.layer is facet:
            sides.paint(shape)  # type: ignore[arg-type]
        else:
            paint_shape(painter, shape, view)


class _SidePainter:
    """Paints sides of pieces and the lines on them. A turned leaf has hundreds, sixty times a second."""

    def __init__(self, painter: QPainter, view: View, palette: theme.Palette) -> None:
        """painter: what they are painted with. view: where. palette: the colours of the day."""
        self.painter, self.view, self.palette = painter, view, palette
        self.fills: dict[str, QBrush] = {}
        self.grain, self.outline = _pen(Layer.GRAIN, palette), QPen(_pen(Layer.OUTLINE, palette))
        self.outline.setWidthF(1.0)  # a wider line is painted far more slowly

    def paint(self, area: Area) -> None:
        """Paint one."""
        painter, scale, left, top = self.painter, self.view.scale, self.view.x, self.view.y
        fill = self.fills.get(area.tint)
        if fill is None:
            fill = self.fills[area.tint] = _fill(Layer.FACET, area.tint, self.palette)
        painter.setRenderHint(ANTIALIASED, False)  # with it the ground would show between two sides that meet
        painter.setPen(NO_PEN)
        painter.setBrush(fill)
        painter.drawPolygon([QPointF(left + x * scale, top - y * scale) for x, y in area.points])
        painter.setRenderHint(ANTIALIASED, True)
        drawn: Layer | None = None
        lines: list[QLineF] = []
        for layer, points in area.strokes:
            if layer is not drawn:
                self._draw(drawn, lines)
                drawn, lines = layer, []
            ax, ay = points[0]
            ax, ay = left + ax * scale, top - ay * scale
            for x, y in points[1:]:
                bx, by = left + x * scale, top - y * scale
                lines.append(QLineF(ax, ay, bx, by))
                ax, ay = bx, by
        self._draw(drawn, lines)

    def _draw(self, layer: Layer | None, lines: list[QLineF]) -> None:
        if layer is not None and lines:
            self.painter.setPen(self.grain if layer is GRAIN else self.outline)
            self.painter.drawLines(lines)


def paint_shape(painter: QPainter, shape: Shape, view: View, *, colour: QColor | None = None) -> None:
    """Paint one shape; `colour` overrides its own, to light it up."""
    if isinstance(shape, Area):
        _paint_area(painter, shape, view, colour)
    elif isinstance(shape, Line):
        pen = _pen(shape.layer, theme.palette())
        if colour is not None:
            pen = QPen(colour, pen.widthF() + 1.0)
        painter.setPen(pen)
        painter.drawPolyline(view.polygon(shape.points))
    elif isinstance(shape, Label):
        _paint_label(painter, shape, view, colour)
    else:
        _paint_dimension(painter, shape, view, colour)


def _paint_area(painter: QPainter, area: Area, view: View, colour: QColor | None) -> None:
    if colour is not None:
        wash = QColor(colour)
        wash.setAlphaF(0.28)
        painter.setPen(Qt.PenStyle.NoPen if area.layer is Layer.FACET else QPen(colour, 2.0))
        painter.setBrush(wash)
    else:
        p = theme.palette()
        edge = Layer.OUTLINE if area.layer in _EDGED else Layer.FAINT if area.layer in _EDGED_FAINT else None
        painter.setPen(_pen(edge, p) if edge else Qt.PenStyle.NoPen)
        painter.setBrush(_fill(area.layer, area.tint, p))
    polygon = view.polygon(area.points)
    painter.drawPolygon(polygon)
    if area.strokes:
        _strokes(painter, area, view, colour)
    if area.grain is not Grain.NONE and colour is None:
        corner = polygon.boundingRect().topLeft()
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(_grain(area.grain, theme.palette()))
        shift = hash(area.points[0]) % GRAIN_PX  # so that no two boards side by side are alike
        painter.setBrushOrigin(corner + QPointF(shift, shift))
        painter.drawPolygon(polygon)
        painter.setBrushOrigin(0, 0)
    painter.setBrush(Qt.BrushStyle.NoBrush)


def _strokes(painter: QPainter, area: Area, view: View, colour: QColor | None) -> None:
    """Paint the lines on an area; lit up, its edges alone."""
    for layer, points in area.strokes:
        if colour is None or layer is not Layer.GRAIN:
            painter.setPen(_pen(layer, theme.palette()) if colour is None else QPen(colour, 1.6))
            painter.drawPolyline(view.polygon(points))


@cache
def _grain(grain: Grain, p: theme.Palette) -> QBrush:
    """Return wood grain to lay over an area: painted once, since three hundred fine lines an edit are slow."""
    upright = grain is Grain.UPRIGHT
    size = (GRAIN_PX, 5 * GRAIN_PX) if upright else (5 * GRAIN_PX, GRAIN_PX) if grain is Grain.LEVEL else (30, 30)
    tile = QPixmap(*size)
    tile.fill(Qt.GlobalColor.transparent)
    box = Rect(0, 0, *size)
    if grain is Grain.END:  # each line over the edge too: the tile must join itself
        lines = hatching(Rect(-30, -30, 60, 60), 6.0)
    else:
        strips = 9
        lines = []
        for at in range(strips):  # a tile is several boards' worth of grain side by side
            low, high = GRAIN_PX * at / strips, GRAIN_PX * (at + 1) / strips
            strip = Rect(low, box.y0, high, box.y1) if upright else Rect(box.x0, low, box.x1, high)
            lines += grain_lines(strip, upright=upright)
    painter = QPainter(tile)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(_pen(Layer.GRAIN, p))
    for line in lines:
        painter.drawPolyline(QPolygonF([QPointF(x, y) for x, y in line]))
    painter.end()
    return QBrush(tile)


def _text_colour(layer: Layer, editable: bool = False) -> QColor:
    p = theme.palette()
    if layer is Layer.DOUBT:
        return QColor(p.look)
    if layer in (Layer.LEAF, Layer.HIDDEN) or editable:
        return QColor(p.accent)
    if layer in (Layer.PENCIL, Layer.DIMENSION):
        return QColor(p.pencil)
    return QColor(p.ink)


def _paint_label(painter: QPainter, label: Label, view: View, colour: QColor | None) -> None:
    if label in view.left_out:
        return
    box = label_box(label, view)
    painter.setFont(theme.font(px_of(label, view), bold=label.lettering.bold or colour is not None))
    if label.lettering.on_paper:
        paper = QColor(theme.palette().sheet)
        painter.fillRect(box.adjusted(-4, 0, 4, 0), paper)
    painter.setPen(colour or _text_colour(label.layer))
    text = label_text(label, view)
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextDontClip, tr(text))


def _paint_dimension(painter: QPainter, dimension: Dimension, view: View, colour: QColor | None) -> None:
    start, end = view.at(dimension.start), view.at(dimension.end)
    pen = _pen(dimension.layer, theme.palette())
    painter.setPen(QPen(colour, pen.widthF()) if colour else pen)
    painter.drawLine(start, end)
    for point, other in ((start, end), (end, start)):
        if dimension.arrows:
            _arrow(painter, point, other)
        else:
            painter.drawLine(point + QPointF(-TICK_PX, TICK_PX), point + QPointF(TICK_PX, -TICK_PX))
    box = dimension_box(dimension, view)
    p = theme.palette()
    painter.fillRect(box, QColor(p.sheet if dimension.arrows else p.ground))
    painter.setFont(theme.font(TEXT_PX * view.text, bold=True))
    text = _text_colour(dimension.layer, editable=bool(dimension.edit) and dimension.layer is not Layer.DOUBT)
    painter.setPen(colour or text)
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextDontClip, theme.typeset(dimension.text))


def _arrow(painter: QPainter, point: QPointF, other: QPointF) -> None:
    dx, dy = other.x() - point.x(), other.y() - point.y()
    length = max((dx * dx + dy * dy) ** 0.5, 1e-6)
    ux, uy = dx / length, dy / length
    for side in (1, -1):
        painter.drawLine(point, point + QPointF(8 * ux - 4 * side * uy, 8 * uy + 4 * side * ux))
