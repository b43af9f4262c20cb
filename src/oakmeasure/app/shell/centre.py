"""The middle of the window: the board with its handles above, and beside or under it what belongs to the page."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QSlider, QSplitter, QVBoxLayout, QWidget

from oakmeasure.app.canvas.canvas import Canvas
from oakmeasure.app.forms.notes import label
from oakmeasure.app.shell import titles
from oakmeasure.app.shell.part_lists import RecordList
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.fit.compare_panel import ComparePanel
from oakmeasure.app.stages.fit.sureness_panel import SurePanel, how_sure_shown, tolerance_shown
from oakmeasure.app.stages.leaf.compare_panel import BesidePanel
from oakmeasure.app.stages.timber.plan_strip import PlanStrip
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.language import tr

EXAGGERATION = 10


class Middle(QWidget):
    """Widgets only; the window says which of them a page shows, and in what shares."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.board = Canvas()
        self.list = RecordList()
        self.sure = SurePanel(session, "How sure", how_sure_shown, "how often each clear width came up")
        self.goes_in = SurePanel(session, "Where each gap will lie", tolerance_shown, "where each gap will lie")
        self.compare = ComparePanel(session)
        self.other = BesidePanel(session)
        self.title = label("", "group")
        self.crooked_label, self.opened_label = QLabel(), QLabel()
        self.crooked = _slider("exaggeration", "how many times the crookedness is shown", 1, 20, EXAGGERATION, 150)
        self.opened = _slider("opened", "how far the leaf is opened", 0, 180, 63, 190)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self.strip = PlanStrip()
        column.addWidget(self._head())
        column.addWidget(self.strip)
        self.split = QSplitter(Qt.Orientation.Vertical)
        self.split.setChildrenCollapsible(False)
        self.split.setHandleWidth(8)
        self.split.addWidget(self.board)
        self.beside = self._beside()
        self.split.addWidget(self.beside)
        self.split.setStretchFactor(0, 3)
        self.split.setStretchFactor(1, 1)
        column.addWidget(self.split, 1)

    def drawing(self) -> Drawing:
        """Return what stands on the board."""
        return self.board.drawing

    def give_list(self, most: int) -> None:
        """Give the list under the board what its rows need, px at the most, and the board the rest."""
        whole = self.split.height()
        tall = min(34 + 24 * len(self.list.records.records), most, int(titles.LIST_SHARE * whole))
        self.split.setSizes([max(whole - tall, 300), tall])

    def _head(self) -> QWidget:
        head = QWidget()
        head.setObjectName("boardHead")
        head.setFixedHeight(40)
        row = QHBoxLayout(head)
        row.setContentsMargins(22, 6, 22, 0)
        row.addWidget(self.title)
        row.addStretch(1)
        for each in (self.opened_label, self.opened, self.crooked_label, self.crooked):
            row.addWidget(each)
        self._row = row
        return head

    def take_in(self, widgets: Sequence[QWidget]) -> None:
        """Put more over the board, to the right of what is there."""
        for each in widgets:
            self._row.addWidget(each)

    def _beside(self) -> QWidget:
        beside = QWidget()
        beside.setObjectName("panel")
        column = QVBoxLayout(beside)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        shares = ((self.list, 3), (self.sure, 2), (self.goes_in, 1), (self.compare, 1), (self.other, 1))
        for each, share in shares:
            column.addWidget(each, share)
        return beside


def _slider(name: str, words: str, low: int, high: int, value: int, width: int) -> QSlider:
    slider = QSlider(Qt.Orientation.Horizontal)
    slider.setObjectName(name)
    slider.setAccessibleName(tr(words))
    slider.setRange(low, high)
    slider.setValue(value)
    slider.setFixedWidth(width)
    return slider
