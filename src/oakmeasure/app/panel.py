"""Right of the board: the verdicts, worst first, and the working of the figure that was asked for."""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QColor, QEnterEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from oakmeasure.app import theme
from oakmeasure.app.rod import paint_level
from oakmeasure.app.session import Session
from oakmeasure.app.sheets import label
from oakmeasure.core.units import MINUS
from oakmeasure.core.verdicts import Level, Remedy, Verdict
from oakmeasure.core.working import Figure, Row, State


class Card(QWidget):
    """One verdict: its shape, its title, its sentence with the numbers, and what would mend it."""

    chosen = Signal()
    taken = Signal(object)
    pointed = Signal(bool)

    def __init__(self, verdict: Verdict, *, acknowledged: str = "") -> None:
        super().__init__()
        self.verdict = verdict
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(f"{verdict.level}: {verdict.title}. {verdict.sentence}")
        self.setToolTip(f"{verdict.level}" + (f" · {verdict.rule}" if verdict.rule else ""))
        column = QVBoxLayout(self)
        column.setContentsMargins(38, 7, 8, 8)
        column.setSpacing(1)
        title = label(verdict.title, "sum")
        title.setWordWrap(True)
        column.addWidget(title)
        if verdict.level is not Level.FINE or len(verdict.sentence) < 90:
            sentence = QLabel(theme.typeset(verdict.sentence))
            sentence.setWordWrap(True)
            sentence.setFont(theme.font(13))
            column.addWidget(sentence)
        if acknowledged:
            note = label(f"Answered for: {acknowledged}", "pencil")
            note.setWordWrap(True)
            column.addWidget(note)
        for remedy in verdict.remedies:
            column.addWidget(self._remedy(remedy))
        # Labels would swallow the click that is meant for the card.
        for child in self.findChildren(QLabel):
            child.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)

    def _remedy(self, remedy: Remedy) -> QWidget:
        if not remedy.path:
            advice = label(remedy.text, "pencil")
            advice.setWordWrap(True)
            return advice
        button = QPushButton(remedy.text)
        button.setProperty("role", "link")
        button.setToolTip("takes this change; Ctrl+Z takes it back")
        button.setCursor(Qt.CursorShape.PointingHandCursor)
        button.clicked.connect(lambda: self.taken.emit(remedy))
        return button

    def refuse(self, reason: str) -> None:
        """Say why a remedy could not be taken; "" says nothing."""
        column = self.layout()
        if reason and column is not None:
            note = label(reason, "refused")
            note.setWordWrap(True)
            column.addWidget(note)

    def paintEvent(self, event: QPaintEvent) -> None:
        p = theme.palette()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QColor(p.accent) if self.hasFocus() else Qt.PenStyle.NoPen)
        painter.setBrush(QColor(p.verdict))
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5), 4, 4)
        painter.fillRect(QRectF(0, 0, 4, self.height()), p.level(self.verdict.level))
        paint_level(painter, self.verdict.level, QRectF(15, 11, 13, 12))
        painter.end()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.chosen.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Space):
            self.chosen.emit()
        else:
            super().keyPressEvent(event)

    def enterEvent(self, event: QEnterEvent) -> None:
        self.pointed.emit(True)

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(False)


class Verdicts(QScrollArea):
    """The one list of verdicts, worst first; those of the stage in hand before the others of their level."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.cards: list[Card] = []
        self._body = QWidget()
        self._column = QVBoxLayout(self._body)
        self._column.setContentsMargins(0, 0, 6, 0)
        self._column.setSpacing(6)
        self._column.addStretch(1)
        self.setWidget(self._body)
        self._shown: object = None

    def shown_verdicts(self) -> list[Verdict]:
        """Return the verdicts in the order of the list."""
        session = self.session
        every = [*session.solution.verdicts, *session.solved.verdicts]
        rank = {Level.STOP: 0, Level.LOOK: 1, Level.FINE: 2}
        return sorted(every, key=lambda each: (rank[each.level], each.stage is not session.stage))

    def refresh(self) -> None:
        verdicts = self.shown_verdicts()
        answers = {each.code: each.reason for each in self.session.leaf.acknowledged}
        state = (verdicts, answers, theme.palette())
        if state == self._shown:
            return
        self._shown = state
        for card in self.cards:
            self._column.removeWidget(card)
            card.hide()
            card.deleteLater()
        self.cards = []
        for at, verdict in enumerate(verdicts):
            card = Card(verdict, acknowledged=answers.get(verdict.code, ""))
            card.chosen.connect(lambda verdict=verdict: self._go(verdict))
            card.taken.connect(lambda remedy, card=card: card.refuse(self.session.take(remedy)))
            card.pointed.connect(lambda over, verdict=verdict: self.session.light(verdict.where if over else ""))
            self._column.insertWidget(at, card)
            self.cards.append(card)

    def _go(self, verdict: Verdict) -> None:
        self.session.go_to(verdict.stage)
        self.session.show_working(verdict.figure)
        self.session.light(verdict.where)


class WorkingView(QWidget):
    """A written sum: terms, a line, the result; each term leads to its own working."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("working")
        self._trail: list[str] = []
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 8, 6, 4)
        self._column.setSpacing(4)
        head = QHBoxLayout()
        head.addWidget(label("Working", "head"))
        head.addStretch(1)
        self._back = QPushButton("back")
        self._back.setProperty("role", "link")
        self._back.clicked.connect(self._go_back)
        head.addWidget(self._back)
        self._column.addLayout(head)
        self._title = label("", "group")
        self._title.setWordWrap(True)
        self._column.addWidget(self._title)
        self._rows = QWidget()
        self._column.addWidget(self._rows)
        self._note = label("", "pencil")
        self._note.setWordWrap(True)
        self._column.addWidget(self._note)
        self._column.addStretch(1)

    def refresh(self) -> None:
        """Show the figure that the session names; a figure that is gone leaves a word of what to do."""
        figure = self.session.solved.figures.get(self.session.working)
        self._rows.hide()
        self._rows.deleteLater()
        self._rows = QWidget()
        self._column.insertWidget(2, self._rows)
        self._back.setVisible(bool(self._trail))
        if figure is None:
            self._title.setText("")
            self._note.setText("Click any number to see how it came about.")
            return
        self._title.setText(figure.label[:1].upper() + figure.label[1:])
        self._fill(figure)
        self._note.setText(self._notes(figure))

    def _fill(self, figure: Figure) -> None:
        grid = QGridLayout(self._rows)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(3)
        grid.setColumnStretch(0, 1)
        show, at = self.session.show, 0
        for row in figure.rows:
            if row.value is None:
                note = label(row.label, "pencil")
                note.setWordWrap(True)
                grid.addWidget(note, at, 0, 1, 2)
                at += 1
                continue
            if row.op == "=" and at:
                rule = QFrame()
                rule.setFrameShape(QFrame.Shape.HLine)
                rule.setFixedHeight(1)
                rule.setStyleSheet(f"background: {theme.palette().ink}; border: none;")
                grid.addWidget(rule, at, 1)
                at += 1
            self._term(grid, at, row, figure)
            number = label(
                theme.typeset(self._number(row, show.value(abs(row.value), row.unit))), "sum" if row.op == "=" else ""
            )
            number.setFont(theme.font(15, bold=row.op == "="))
            number.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
            grid.addWidget(number, at, 1)
            at += 1

    def _number(self, row: Row, text: str) -> str:
        negative = (row.value or 0) < 0
        if row.op in ("+", MINUS):
            return f"{MINUS if (row.op == MINUS) is not negative else '+'} {text}"
        return f"{MINUS}{text}" if negative else text

    def _term(self, grid: QGridLayout, at: int, row: Row, figure: Figure) -> None:
        leads_on = row.ref and row.ref != figure.name and row.ref in self.session.solved.figures
        if leads_on:
            link = _TermLink(row.label)
            link.asked.connect(lambda: self._descend(figure.name, row.ref))
            grid.addWidget(link, at, 0)
            return
        text = label(row.label, "sum" if row.op == "=" else "pencil")
        text.setWordWrap(True)
        grid.addWidget(text, at, 0)

    def _notes(self, figure: Figure) -> str:
        notes = []
        if figure.source:
            notes.append(figure.source[:1].upper() + figure.source[1:] + ".")
        if figure.rests_on:
            notes.append("Rests on what is only assumed: " + "; ".join(sorted(figure.rests_on)) + ".")
        elif figure.state is not None:
            known = "measured figures" if figure.state is State.MEASURED else "a figure from a table"
            notes.append(f"Rests on {known}.")
        return "\n".join(notes)

    def _descend(self, here: str, to: str) -> None:
        self._trail.append(here)
        self.session.working = to
        self.session.working_changed.emit()

    def _go_back(self) -> None:
        if self._trail:
            self.session.working = self._trail.pop()
            self.session.working_changed.emit()

    def start_anew(self) -> None:
        """Forget the way down when another figure is asked for from outside."""
        self._trail = [name for name in self._trail if self._leads_to(name)]

    def _leads_to(self, name: str) -> bool:
        figures = self.session.solved.figures
        return name in figures and name != self.session.working


class _TermLink(QLabel):
    """A term's words; clicking them opens the term's own working. Wraps, as a button would not."""

    asked = Signal()

    def __init__(self, text: str) -> None:
        super().__init__(text)
        self.setWordWrap(True)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName(f"working of {text}")
        self.setStyleSheet(f"color: {theme.palette().accent};")

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.asked.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Space):
            self.asked.emit()
        else:
            super().keyPressEvent(event)


def count_text(verdicts: list[Verdict]) -> str:
    """Return "1 stop · 2 look · 14 fine"."""
    words = {Level.STOP: "stop", Level.LOOK: "look", Level.FINE: "fine"}
    counts = {level: sum(each.level is level for each in verdicts) for level in Level}
    return " · ".join(f"{counts[level]} {words[level]}" for level in Level if counts[level])
