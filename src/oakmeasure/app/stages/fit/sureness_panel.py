"""How sure it is: a plot and its sentence, drawn in a thread when the figures have come to rest."""

from __future__ import annotations

import contextlib
import threading
from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import QObject, QRectF, QTimer, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from oakmeasure.app.canvas.label_places import fitted
from oakmeasure.app.canvas.painter import paint
from oakmeasure.app.forms.notes import label
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.session import Session
from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.drawings.fit.spread_view import spread_view
from oakmeasure.core.solution import LeafSolution
from oakmeasure.language import tr

REST_MS = 180


@dataclass(frozen=True, slots=True)
class SurenessPlot:
    """A plot and what it means."""

    drawing: Drawing
    sentence: str
    detail: str


Work = Callable[[LeafSolution, Show], SurenessPlot | None]


def how_sure_shown(leaf: LeafSolution, show: Show) -> SurenessPlot | None:
    """Return how sure the clear width is."""
    from oakmeasure.core.reports.sureness import how_sure

    found = how_sure(leaf, show)
    return (
        None
        if found is None
        else SurenessPlot(spread_view(found.spread, found.needed, show), found.sentence, found.detail)
    )


def tolerance_shown(leaf: LeafSolution, show: Show) -> SurenessPlot | None:
    """Return whether the leaf will go in."""
    from oakmeasure.core.drawings.fit.tolerance_view import tolerance_view
    from oakmeasure.core.reports.tolerance import tolerance

    found = tolerance(leaf, show)
    return None if found is None else SurenessPlot(tolerance_view(found, show), found.sentence, found.detail)


class _Told(QObject):
    done = Signal(object, object)


def _draw(work: Work, leaf: LeafSolution, show: Show, told: _Told) -> None:
    """Draw in a thread of its own; the window may be gone when it is done."""
    found = work(leaf, show)
    with contextlib.suppress(RuntimeError):
        told.done.emit(leaf, found)


class Picture(QWidget):
    """Shows one core drawing, nothing more."""

    def __init__(self) -> None:
        super().__init__()
        self.drawing: Drawing | None = None
        self.setMinimumHeight(120)

    def put(self, drawing: Drawing | None) -> None:
        self.drawing = drawing
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(theme.palette().sheet))
        if self.drawing is not None:
            paint(painter, self.drawing, fitted(self.drawing, QRectF(self.rect()).adjusted(6, 4, -6, -4)))
        painter.end()


class SurePanel(QWidget):
    """The plot with its sentence."""

    def __init__(self, session: Session, title: str, work: Work, about: str) -> None:
        super().__init__()
        self.session, self.work = session, work
        self.setObjectName("panel")
        column = QVBoxLayout(self)
        column.setContentsMargins(14, 6, 10, 10)
        column.setSpacing(3)
        column.addWidget(label(title, "group"))
        self.picture = Picture()
        self.picture.setAccessibleName(tr(about))
        self.sentence = label("", "sum")
        self.sentence.setObjectName("sureSentence")
        self.detail = label("", "pencil")
        column.addWidget(self.sentence)
        column.addWidget(self.picture, 1)
        column.addWidget(self.detail)
        for each in (self.sentence, self.detail):
            each.setWordWrap(True)
        self._told = _Told()
        self._told.done.connect(self._put)
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(REST_MS)
        self._rest.timeout.connect(self._start)
        self._drawn: LeafSolution | None = None

    def refresh(self) -> None:
        """Ask for the plot of the leaf in hand, once no more edits follow."""
        if self.session.solved is not self._drawn:
            self._rest.start()

    def _start(self) -> None:
        self._drawn = self.session.solved
        work = (self.work, self._drawn, self.session.show, self._told)
        threading.Thread(target=_draw, args=work, name="how sure", daemon=True).start()

    def draw_now(self) -> None:
        """Draw without waiting, for pictures of the window."""
        self._rest.stop()
        self._drawn = self.session.solved
        self._put(self._drawn, self.work(self._drawn, self.session.show))

    def _put(self, leaf: object, shown: object) -> None:
        if leaf is not self.session.solved:
            return  # another edit overtook it
        if not isinstance(shown, SurenessPlot):
            self.picture.put(None)
            self.picture.hide()
            self.sentence.setText("")
            self.detail.setText(tr("Not drawn: no plumb width bounds this opening, or nothing is uncertain in it."))
            return
        self.picture.show()
        self.picture.put(shown.drawing)
        self.sentence.setText(theme.typeset(shown.sentence))
        self.detail.setText(theme.typeset(shown.detail))
