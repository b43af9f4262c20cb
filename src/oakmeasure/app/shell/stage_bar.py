"""The rod: a setting-out rod across the window with a mark for each stage; the way through the work and its summary."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QSizePolicy, QWidget

from oakmeasure.app.forms.clickable import Clickable
from oakmeasure.app.shell import theme
from oakmeasure.core.drawings.hatching import grain_lines
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.leaf.part import Rect
from oakmeasure.language import tr

HEIGHT = theme.ROD_HIGH


def paint_level(painter: QPainter, level: Level, box: QRectF) -> None:
    """Paint a level as its shape: a square with a bar for a stop, a triangle for a warning, a tick for OK."""
    p = theme.palette()
    tone = p.level(level)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    if level is Level.OK:
        painter.setPen(QPen(tone, 2.0, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        painter.drawPolyline(
            [
                QPointF(box.left() + 1, box.center().y()),
                QPointF(box.left() + box.width() * 0.38, box.bottom() - 2),
                QPointF(box.right() - 1, box.top() + 2),
            ]
        )
        return
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(tone)
    if level is Level.STOP:
        painter.drawRoundedRect(box, 2, 2)
        painter.setBrush(QColor(p.sheet))
        painter.drawRect(QRectF(box.left() + 3, box.center().y() - 1.2, box.width() - 6, 2.4))
    else:
        painter.drawPolygon(QPolygonF([QPointF(box.center().x(), box.top()), box.bottomRight(), box.bottomLeft()]))
        painter.setBrush(QColor(p.sheet))
        painter.drawRect(QRectF(box.center().x() - 0.9, box.top() + 5, 1.8, 4))
        painter.drawRect(QRectF(box.center().x() - 0.9, box.bottom() - 3, 1.8, 1.6))
    painter.setBrush(Qt.BrushStyle.NoBrush)


class StageMark(Clickable):
    """One stage on the rod: its name, its key figure now and its worst check."""

    def __init__(self, stage: Stage) -> None:
        super().__init__()
        self.stage = stage
        self.key = ""
        self.level: Level | None = Level.OK
        self.current = False
        self.setObjectName(f"mark-{stage}")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        return QSize(180, HEIGHT)

    def show_state(self, key: str, level: Level | None, current: bool) -> None:
        """Show the key figure and the worst level; None: nothing is worked out here yet."""
        if (key, level, current) == (self.key, self.level, self.current):
            return
        self.key, self.level, self.current = key, level, current
        words = level.words if level is not None else "not yet"
        self.setAccessibleName(tr(f"{self.stage}: {key}; {words}"))
        self.setToolTip(tr(f"{self.stage}: {key}; {words}"))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        p = theme.palette()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.current or self.hasFocus():
            painter.setPen(QPen(QColor(p.accent), 4 if self.current and self.hasFocus() else 2))
            painter.setBrush(QColor(p.sheet) if self.current else Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(3, 3, -3, -5), 5, 5)
        wood_ink = QColor(p.ink) if p.wood_share == 1.0 or self.current else QColor("#EFE9DE")
        painter.setPen(QColor(p.accent) if self.current else wood_ink)
        painter.setFont(theme.font(17, bold=True))
        painter.drawText(QRectF(18, 10, self.width() - 44, 24), Qt.AlignmentFlag.AlignVCenter, tr(str(self.stage)))
        painter.setPen(wood_ink)
        painter.setFont(theme.font(14))
        room = self.width() - 26
        key = painter.fontMetrics().elidedText(theme.typeset(tr(self.key)), Qt.TextElideMode.ElideRight, room)
        painter.drawText(QRectF(18, 34, room, 22), Qt.AlignmentFlag.AlignVCenter, key)
        if self.level is None:
            painter.end()
            return
        box = QRectF(self.width() - 31, 15, 14, 13)
        if not self.current:  # a patch of paper under the sign keeps its contrast on the wood
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(p.sheet))
            painter.drawEllipse(box.center(), 11.5, 11.5)
        paint_level(painter, self.level, box)
        painter.end()


class StageBar(QWidget):
    """The wooden rod with its marks."""

    chosen = Signal(Stage)

    def __init__(self) -> None:
        super().__init__()
        from PySide6.QtWidgets import QHBoxLayout

        self.setFixedHeight(HEIGHT)
        self.marks = {stage: StageMark(stage) for stage in Stage}
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        for stage, mark in self.marks.items():
            row.addWidget(mark)
            mark.clicked.connect(lambda stage=stage: self.chosen.emit(stage))

    def paintEvent(self, event: QPaintEvent) -> None:
        p = theme.palette()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), theme.rod_wood())
        grain = QColor(p.ink)
        grain.setAlphaF(0.09)
        painter.setPen(QPen(grain, 1))
        for line in grain_lines(Rect(0, 2, self.width(), HEIGHT - 4), upright=False):
            painter.drawPolyline([QPointF(*each) for each in line])
        edge = QColor(p.pencil)
        painter.setPen(QPen(edge, 1.2))
        painter.drawLine(0, 0, self.width(), 0)
        painter.drawLine(0, HEIGHT - 1, self.width(), HEIGHT - 1)
        edge.setAlphaF(0.6)
        painter.setPen(QPen(edge, 1))
        for at in range(0, self.width(), 10):  # the divisions of a rule along the lower edge
            tall = 9 if at % 100 == 0 else 6 if at % 50 == 0 else 4
            painter.drawLine(at, HEIGHT - tall, at, HEIGHT - 1)
        for mark in list(self.marks.values())[1:]:
            painter.drawLine(mark.x(), 12, mark.x(), HEIGHT - 18)
        painter.end()
