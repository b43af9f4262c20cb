"""A combo box in the look of the window."""

from __future__ import annotations

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QColor, QFontMetrics, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QComboBox, QStyle, QStyleOptionComboBox, QStylePainter

from oakmeasure.app import theme
from oakmeasure.language import say

ARROW_PX = 44  # that the arrow and the margins take of the width


class ChoiceBox(QComboBox):
    """A combo box with its arrow in the colour of what can be changed, wheel-proof while the sheet is scrolled."""

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, shown = QStylePainter(self), QStyleOptionComboBox()
        self.initStyleOption(shown)
        words = shown.currentText if self.currentIndex() >= 0 else self.placeholderText()
        shown.currentText = shown.fontMetrics.elidedText(words, Qt.TextElideMode.ElideRight, self.width() - ARROW_PX)
        painter.drawComplexControl(QStyle.ComplexControl.CC_ComboBox, shown)
        painter.drawControl(QStyle.ControlElement.CE_ComboBoxLabel, shown)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QColor(theme.palette().accent), 1.8))
        x, y = self.width() - 18.0, self.height() / 2 - 2
        if self.width() >= 90:
            painter.drawPolyline([QPointF(x, y), QPointF(x + 5, y + 5), QPointF(x + 10, y)])
        painter.end()

    def offer(self, words: list[str]) -> None:
        """Offer these words, said in the language that is chosen; where they are offered already, nothing is done."""
        shown = [say(each) for each in words]
        if [self.itemText(n) for n in range(self.count())] != shown:
            self.clear()
            self.addItems(shown)

    def show_other(self, text: str) -> None:
        """Show a text while none of the options is chosen; a long one gives way in its middle."""
        metrics = QFontMetrics(theme.font(14, bold=True))
        self.setPlaceholderText(metrics.elidedText(say(text), Qt.TextElideMode.ElideMiddle, self.width() - ARROW_PX))

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()
