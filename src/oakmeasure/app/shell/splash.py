"""What stands on the screen while the window is made: its frame, at once. Nothing heavy is imported here.

A window on a job takes most of its time to read the core; one that waits for that looks as if nothing had been clicked.
"""

from __future__ import annotations

from pathlib import Path

# Qt's binding reads the source of every module that is imported after it: these and what they need come before.
import oakmeasure.core.figures.check
import oakmeasure.data
import oakmeasure.files.job.claims
import oakmeasure.files.settings  # noqa: F401

# isort: split
from PySide6.QtCore import QRectF
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPixmap
from PySide6.QtWidgets import QWidget

from oakmeasure.app.shell import theme
from oakmeasure.app.shell.application import application
from oakmeasure.app.shell.last_seen import DEMO, Seen, last_look
from oakmeasure.core.figures.check import Stage
from oakmeasure.language import tr

SIZE = (1280, 800)
# Qt's own numbers for these: the names would have all of its enumerations made, which takes as long as the painting.
V_CENTRE = 0x80
CENTRE = 0x84
LINE = theme.LINE_HIGH
ROD = theme.ROD_HIGH
SHEET = theme.SHEET_WIDE


class Splash(QWidget):
    """The window as it looked when this job was closed.

    Of one that was never seen, or has changed since, its frame: its line, its rod with the seven stages, and what
    is being opened. It cannot answer yet: the cursor is busy.
    """

    def __init__(self, what: str, look: QPixmap | None = None, seen: Seen | None = None) -> None:
        """look, seen: how it looked when it was closed, and how large it was."""
        super().__init__()
        self.what, self.look = what, look
        self.was_painted = False
        self.setWindowTitle(f"{what} – Oak Measure")
        self.resize(*((seen.width, seen.height) if seen is not None else SIZE))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        if self.look is not None:
            painter.drawPixmap(self.rect(), self.look)
        else:
            self._frame(painter)
        painter.end()
        self.was_painted = True

    def _frame(self, painter: QPainter) -> None:
        """Paint the window as far as it is always the same."""
        p, wide, high = theme.palette(), self.width(), self.height()
        painter.fillRect(self.rect(), QColor(p.ground))
        painter.fillRect(QRectF(0, LINE + ROD, SHEET, high), QColor(p.sheet))
        painter.fillRect(QRectF(0, LINE, wide, ROD), theme.rod_wood())
        painter.setPen(QPen(QColor(p.pencil), 1.2))
        painter.drawLine(0, LINE, wide, LINE)
        painter.drawLine(0, LINE + ROD, wide, LINE + ROD)
        painter.setPen(QColor(p.ink))
        painter.setFont(theme.font(17, bold=True))
        each = wide / len(Stage)
        for at, stage in enumerate(Stage):
            box = QRectF(at * each + 18, LINE + 10, each - 18, 24)
            painter.drawText(box, V_CENTRE, tr(str(stage)))
        painter.drawText(QRectF(22, 0, wide - 44, LINE), V_CENTRE, self.what)
        painter.setFont(theme.font(20))
        painter.setPen(QColor(p.pencil))
        middle = QRectF(SHEET, LINE + ROD, wide - SHEET, high - LINE - ROD)
        painter.drawText(middle, CENTRE, tr("Setting it out …"))


def run(path: str | None, *, demo: bool = False) -> int:
    """Show the frame, then open the window in its place. Returns the exit status."""
    app = application()
    look, seen = last_look(Path(path) if path is not None else None) if demo or path is not None else (None, None)
    opening = Splash(DEMO if demo else Path(path).stem if path is not None else "a new job", look, seen)
    opening.show()
    for _ in range(20):
        app.processEvents()
        if opening.was_painted:
            break
    from PySide6.QtCore import Qt

    opening.setCursor(Qt.CursorShape.BusyCursor)
    from oakmeasure.app.shell import start

    return start.run(path, demo=demo, opening=opening, seen=seen)
