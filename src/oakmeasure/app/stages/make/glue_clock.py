"""The glue clock: how long the glue still stays open, in figures that are read across the shop, and what is next."""

from __future__ import annotations

import time
from collections.abc import Callable

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QProgressBar, QPushButton, QVBoxLayout, QWidget

from oakmeasure.app.shell import theme
from oakmeasure.core.figures.check import Level
from oakmeasure.core.making.glue import GlueStage, clock_face
from oakmeasure.language import tr

COUNT_PX = 190
NEXT_PX = 50
SMALL_PX = 44
TICK_MS = 200


class GlueClock(QWidget):
    """Runs from the first bead; Escape puts it away. seconds: the clock that it reads."""

    def __init__(
        self,
        parent: QWidget | None,
        open_minutes: float,
        stage: GlueStage,
        *,
        seconds: Callable[[], float] = time.monotonic,
    ) -> None:
        super().__init__(parent, Qt.WindowType.Window)
        self.setObjectName("ground")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setWindowTitle(tr("Glue clock – Oak Measure"))
        self.resize(1280, 800)
        self.open_minutes, self.stage = open_minutes, stage
        self._seconds = seconds
        self._began = seconds()
        column = QVBoxLayout(self)
        column.setContentsMargins(60, 30, 60, 30)
        self.count = self._label(COUNT_PX, bold=True)
        self.count.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.next = self._label(NEXT_PX, bold=True)
        self.after = self._label(SMALL_PX)
        self.after.setProperty("role", "")
        self.bar = QProgressBar()
        self.bar.setRange(0, 1000)
        self.bar.setTextVisible(False)
        self.bar.setFixedHeight(22)
        column.addWidget(self.count)
        column.addWidget(self.bar)
        column.addStretch(1)
        column.addWidget(self.next)
        column.addWidget(self.after)
        column.addStretch(1)
        row = QHBoxLayout()
        self.again = QPushButton(tr("From the start"))
        self.again.clicked.connect(self.restart)
        self.away = QPushButton(tr("Put it away"))
        self.away.setProperty("role", "plain")
        self.away.clicked.connect(self.close)
        for each in (self.again, self.away):
            each.setMinimumHeight(64)
            each.setFont(theme.font(24, bold=True))
            row.addWidget(each)
        column.addLayout(row)
        self._timer = QTimer(self)
        self._timer.setInterval(TICK_MS)
        self._timer.timeout.connect(self.tick)
        self._timer.start()
        self.tick()

    def _label(self, px: int, *, bold: bool = False) -> QLabel:
        made = QLabel()
        made.setFont(theme.font(px, bold=bold))
        made.setWordWrap(True)
        return made

    def restart(self) -> None:
        """Begin again with the first bead."""
        self._began = self._seconds()
        self.tick()

    def tick(self) -> None:
        """Show what is left and what is next."""
        face = clock_face(self.stage, self.open_minutes, self._seconds() - self._began)
        self.count.setText(tr(face.left))
        self.bar.setValue(round(1000 * face.gone))
        self.next.setText(tr(face.now))
        self.after.setText(tr(f"then: {face.then}" if face.then else f"{self.stage.clamps} clamps stay on"))
        p = theme.palette()
        colour = p.accent if face.level is Level.OK else p.level(face.level).name()
        self.count.setStyleSheet(f"color: {colour};")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.close()
        else:
            super().keyPressEvent(event)
