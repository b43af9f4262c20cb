"""A combo box in the look of the window."""

from __future__ import annotations

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QColor, QFontMetrics, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QBoxLayout, QComboBox, QLabel, QStyle, QStyleOptionComboBox, QStylePainter

from oakmeasure.app.shell import theme
from oakmeasure.language import tr

ARROW_PX = 44  # that the arrow and the margins take of the width
NARROW_PX = 90  # of a box, under which it has no arrow
MARGINS_PX = 12  # that the margins take of a narrow one


class ChoiceBox(QComboBox):
    """A combo box with its arrow in the colour of what can be changed, wheel-proof while the sheet is scrolled."""

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, shown = QStylePainter(self), QStyleOptionComboBox()
        self.initStyleOption(shown)
        words = shown.currentText if self.currentIndex() >= 0 else self.placeholderText()
        room = self.width() - (ARROW_PX if self.width() >= NARROW_PX else MARGINS_PX)
        shown.currentText = shown.fontMetrics.elidedText(words, Qt.TextElideMode.ElideRight, room)
        painter.drawComplexControl(QStyle.ComplexControl.CC_ComboBox, shown)
        painter.drawControl(QStyle.ControlElement.CE_ComboBoxLabel, shown)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QColor(theme.palette().accent), 1.8))
        x, y = self.width() - 18.0, self.height() / 2 - 2
        if self.width() >= NARROW_PX:
            painter.drawPolyline([QPointF(x, y), QPointF(x + 5, y + 5), QPointF(x + 10, y)])
        painter.end()

    def offer(self, words: list[str]) -> None:
        """Offer these words, said in the language that is chosen; where they are offered already, nothing is done."""
        shown = [tr(each) for each in words]
        if [self.itemText(n) for n in range(self.count())] != shown:
            self.clear()
            self.addItems(shown)

    def show_other(self, text: str) -> None:
        """Show a text while none of the options is chosen; a long one gives way in its middle."""
        metrics = QFontMetrics(theme.font(14, bold=True))
        self.setPlaceholderText(metrics.elidedText(tr(text), Qt.TextElideMode.ElideMiddle, self.width() - ARROW_PX))

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()


class ChoiceRow(QBoxLayout):
    """A choice beside its label; under it, as wide as there is room, while what is chosen would be cut off there."""

    def __init__(self, title: QLabel, box: ChoiceBox, *, beside: int, under: int) -> None:
        """beside, under: px of the box in either place."""
        super().__init__(QBoxLayout.Direction.LeftToRight)
        self._box, self._beside, self._under, self._note = box, beside, under, box.toolTip()
        self.addWidget(title, 1)
        self.addWidget(box)
        self.fit()

    def fit(self) -> None:
        """Give the box the place that its words need; what is cut off even there is its tool tip."""
        words = self._box.currentText()
        wide = QFontMetrics(theme.font(14, bold=True)).horizontalAdvance(words) + ARROW_PX
        is_under = wide > self._beside
        self.setDirection(QBoxLayout.Direction.TopToBottom if is_under else QBoxLayout.Direction.LeftToRight)
        self.setSpacing(2 if is_under else 6)
        self._box.setFixedWidth(self._under if is_under else self._beside)
        cut_off = words if wide > self._under else ""
        self._box.setToolTip("\n".join(each for each in (cut_off, self._note) if each))
