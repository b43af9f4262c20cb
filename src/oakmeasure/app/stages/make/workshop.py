"""Workshop mode: one operation at a time in type that is read at two metres, turned by two keys or a foot pedal.

On: right, down, page down, space; back: left, up, page up, backspace. Enter writes "done" into the log, Escape leaves.
"""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QFontMetrics, QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from oakmeasure.app.canvas.canvas import Canvas
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.make.op_view import work_view
from oakmeasure.core.making.log import Progress
from oakmeasure.data import table
from oakmeasure.language import tr

CAP_PX = 28  # least height of a capital letter at 1280 x 800, so that it is read at two metres
NAME_PX = 58
SET_PX = 56
TEXT_PX = 44
ON = (Qt.Key.Key_Right, Qt.Key.Key_Down, Qt.Key.Key_PageDown, Qt.Key.Key_Space)
BACK = (Qt.Key.Key_Left, Qt.Key.Key_Up, Qt.Key.Key_PageUp, Qt.Key.Key_Backspace)
# Settings on one page, and their type where they are many
PER_PAGE = 6
MANY_PX = 48
LONG = 24  # letters that a line of settings has room for


class Workshop(QWidget):
    """A window of its own over the operations of the leaf in hand."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent, Qt.WindowType.Window)
        self.session, self.room = session, session.room(MakeRoom)
        self.setObjectName("ground")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setWindowTitle(tr("Workshop – Oak Measure"))
        self.resize(1280, 800)
        self.page = 0
        column = QVBoxLayout(self)
        column.setContentsMargins(36, 16, 36, 14)
        column.setSpacing(6)
        head = QHBoxLayout()
        self.place, self.state = self._label(TEXT_PX), self._label(TEXT_PX, bold=True)
        self.state.setAlignment(Qt.AlignmentFlag.AlignRight)
        head.addWidget(self.place, 1)
        head.addWidget(self.state)
        column.addLayout(head)
        self.name = self._label(NAME_PX, bold=True)
        column.addWidget(self.name)
        middle = QHBoxLayout()
        self.settings = self._label(SET_PX, bold=True)
        self.settings.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.board = Canvas()
        self.board.setMinimumHeight(150)
        middle.addWidget(self.settings, 5)
        middle.addWidget(self.board, 6)
        column.addLayout(middle, 1)
        self.held, self.words = self._label(TEXT_PX), self._label(TEXT_PX)
        column.addWidget(self.held)
        column.addWidget(self.words)
        self.session.changed.connect(self.refresh)
        self.refresh()

    def _label(self, px: int, *, bold: bool = False) -> QLabel:
        made = QLabel()
        made.setWordWrap(True)
        self._set(made, px, bold=bold)
        return made

    def _set(self, label: QLabel, px: int, *, bold: bool) -> None:
        label.setFont(theme.font(px, bold=bold))
        label.setStyleSheet(f"font-size: {px}px; font-weight: {600 if bold else 400};")

    def labels(self) -> list[QLabel]:
        """Return everything that is to be read."""
        return [self.place, self.state, self.name, self.settings, self.held, self.words]

    def pages(self) -> int:
        """Return how many pages the operation in hand has: its settings and check, then how and cautions."""
        return 2 if self._more() else 1

    def _more(self) -> str:
        op = self.room.op()
        if op is None:
            return ""
        cautions = table("cautions")
        return "\n".join(
            each
            for each in (
                op.how,
                f"practice: {op.practice}" if op.practice else "",
                *(cautions[key] for key in op.cautions[:2]),
            )
            if each
        )

    def refresh(self) -> None:
        """Show the operation in hand; a text that would not fit gives way at its end, never in its size."""
        op, show = self.room.op(), self.session.show
        solved = self.session.solved
        if op is None or solved.build is None:
            self.name.setText(tr("No leaf yet"))
            return
        operations = self.room.operations
        state = self.room.states()[op.id]
        self.place.setText(tr(f"{operations.index(op) + 1} of {len(operations)}   {self.session.leaf.name}"))
        self.state.setText(tr({Progress.DONE: "done", Progress.RUNNING: "running"}.get(state, "")))
        self.name.setText(self._fitting(tr(op.name), NAME_PX, 2, bold=True))
        first = self.page % self.pages() == 0
        self.board.setVisible(first)
        self.held.setVisible(first)
        if first:
            lines = [_setting(each.in_words(show)) for each in op.settings[:PER_PAGE]]
            self._set(self.settings, SET_PX if len(lines) <= 4 else MANY_PX, bold=True)
            self.settings.setText(tr("\n".join(lines) or "–"))
            self.board.set_drawing(work_view(solved, show, op.id, self.room.played()), keep_view=False)
            self.held.setText(self._fitting(tr(self._held(show)), TEXT_PX, 2))
            check = op.check.in_words(show) if op.check else ""
            self.words.setText(self._fitting(tr(f"Check: {check}" if check else ""), TEXT_PX, 2))
        else:
            self._set(self.settings, TEXT_PX, bold=False)
            self.settings.setText(self._fitting(tr(self._more()), TEXT_PX, 9))
            self.words.setText("")

    def _held(self, show: Show) -> str:
        from oakmeasure.core.drawings.make.bench_lies import lies

        op, solved = self.room.op(), self.session.solved
        how = lies(solved, solved.build, op) if op is not None and solved.build is not None else None
        return f"{how.up.capitalize()}, {how.left} to the left, {how.near} towards you" if how is not None else ""

    def _fitting(self, words: str, px: int, lines: int, *, bold: bool = False) -> str:
        """Return as much of a text as fits in so many lines of the window's width."""
        metrics = QFontMetrics(theme.font(px, bold=bold))
        wide = self.width() - 84
        high = metrics.lineSpacing() * lines + 4

        def fits(text: str) -> bool:
            return metrics.boundingRect(0, 0, wide, 10_000, int(Qt.TextFlag.TextWordWrap), text).height() <= high

        if fits(words):
            return words
        while words and not fits(words + " …"):
            words = words[:-8] if "\n" not in words[-8:] else words.rpartition("\n")[0]
        return words.rstrip() + " …"

    def turn(self, by: int) -> None:
        """Go on: to the second page of the operation where it has one, then to the next."""
        pages = self.pages()
        if 0 <= self.page + by < pages:
            self.page += by
        else:
            at = self.room.op()
            self.room.step(by)
            if self.room.op() is at:
                return
            self.page = 0 if by > 0 else self.pages() - 1
        self.refresh()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in ON:
            self.turn(1)
        elif event.key() in BACK:
            self.turn(-1)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.page = 0
            self.room.end(done=True)
            self.refresh()
        elif event.key() == Qt.Key.Key_Escape:
            self.close()
        else:
            super().keyPressEvent(event)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.refresh()


def _setting(words: str) -> str:
    """Return a setting short enough for a line: its label cut at a word."""
    if len(words) < LONG:
        return words
    label, _, value = words.rpartition(" ")
    return f"{label[: LONG - 4].rpartition(' ')[0] or label[: LONG - 4]} {value}"
