"""Right of the board: the checks, worst first, and the working of the figure that was asked for."""

from __future__ import annotations

from html import escape

from PySide6.QtCore import QEvent, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QEnterEvent, QFontMetricsF, QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from oakmeasure.app.forms.clickable import Clickable
from oakmeasure.app.forms.notes import label
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.stage_bar import paint_level
from oakmeasure.core.base.glossary import explained
from oakmeasure.core.base.units import MINUS
from oakmeasure.core.figures.check import Check, Level, Remedy, rank
from oakmeasure.core.figures.figure import Figure, Provenance, WorkingRow
from oakmeasure.core.figures.names import figure_name
from oakmeasure.language import tr

READABLE_PX = 160
BUTTON_PX = 168


def _in_lines(words: str) -> str:
    """Return what a button says in lines that the panel has room for; a button does not break them itself."""
    metrics, lines = QFontMetricsF(theme.font(14, bold=True)), [""]
    for word in words.split(" "):
        longer = f"{lines[-1]} {word}".strip()
        if lines[-1] and metrics.horizontalAdvance(longer) > BUTTON_PX:
            lines.append(word)
        else:
            lines[-1] = longer
    return "\n".join(lines)


class Words(QLabel):
    """A label that wraps and remembers its heights: a layout asks for them many times, rich text is slow to lay out."""

    def __init__(self) -> None:
        super().__init__()
        self.setWordWrap(True)
        self._heights: dict[int, int] = {}

    def setText(self, text: str) -> None:
        if text != self.text():
            self._heights.clear()
            super().setText(text)

    def heightForWidth(self, width: int) -> int:
        if width not in self._heights:
            self._heights[width] = super().heightForWidth(width)
        return self._heights[width]

    def sizeHint(self) -> QSize:
        # As wide as it stands: Qt would lay the text out at several widths to find a pleasing one.
        wide = max(self.width(), READABLE_PX)
        return QSize(wide, self.heightForWidth(wide))

    def minimumSizeHint(self) -> QSize:
        return QSize(READABLE_PX, self.heightForWidth(max(self.width(), READABLE_PX)))

    def changeEvent(self, event: QEvent) -> None:
        if event.type() in (QEvent.Type.FontChange, QEvent.Type.StyleChange):
            self._heights.clear()
        super().changeEvent(event)


class Card(Clickable):
    """One check: its shape, its title, its sentence with the numbers, and what would mend it."""

    taken = Signal(object)
    pointed = Signal(bool)

    def __init__(self) -> None:
        super().__init__()
        self.check: Check | None = None
        self._shown: tuple[object, ...] = ()
        column = QVBoxLayout(self)
        column.setContentsMargins(38, 7, 8, 8)
        column.setSpacing(1)
        self._text = Words()
        self._text.setTextFormat(Qt.TextFormat.RichText)
        self._text.setFont(theme.font(13))
        # A label would swallow the click that is meant for the card.
        self._text.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        column.addWidget(self._text)
        self._buttons: list[QWidget] = []

    def show_check(self, check: Check, answered: str) -> None:
        """Show a check; a card keeps its widgets while only numbers change."""
        shown = (check, answered, theme.palette())
        if shown == self._shown:
            return
        self._shown = shown
        old, self.check = self.check, check
        self.setAccessibleName(tr(f"{check.level.words}: {check.title}. {check.sentence}"))
        level = check.level.words + (f" · {check.rule}" if check.rule else "")
        self.setToolTip(tr("\n".join(each for each in (level, explained(f"{check.title} {check.sentence}")) if each)))
        self._text.setText(tr(self._html(check, answered)))
        if old is None or old.remedies != check.remedies:
            self._renew_buttons(check)
        self.update()

    def _html(self, check: Check, answered: str) -> str:
        pencil = theme.palette().pencil
        lines = [
            f'<span style="font-size:14px; font-weight:600">{escape(theme.typeset(check.title))}</span>',
            escape(theme.typeset(check.sentence)),
        ]
        if answered:
            lines.append(f'<span style="color:{pencil}">Answered for: {escape(answered)}</span>')
        lines += [
            f'<span style="color:{pencil}">{escape(theme.typeset(each.text))}</span>'
            for each in check.remedies
            if not each.path
        ]
        return "<br>".join(lines)

    def _renew_buttons(self, check: Check) -> None:
        column = self.layout()
        assert column is not None
        for button in self._buttons:
            column.removeWidget(button)
            button.hide()
            button.deleteLater()
        self._buttons = [self._button(each) for each in check.remedies if each.path]
        for button in self._buttons:
            column.addWidget(button)

    def _button(self, remedy: Remedy) -> QPushButton:
        button = QPushButton(_in_lines(theme.typeset(remedy.text)))
        button.setProperty("role", "link")
        button.setToolTip(tr("takes this change; Ctrl+Z takes it back"))
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
            self._buttons.append(note)

    def paintEvent(self, event: QPaintEvent) -> None:
        p = theme.palette()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QColor(p.accent) if self.hasFocus() else Qt.PenStyle.NoPen)
        painter.setBrush(QColor(p.check))
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5), 4, 4)
        level = self.check.level if self.check else Level.OK
        painter.fillRect(QRectF(0, 0, 4, self.height()), p.level(level))
        paint_level(painter, level, QRectF(15, 11, 13, 12))
        painter.end()

    def enterEvent(self, event: QEnterEvent) -> None:
        self.pointed.emit(True)

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(False)


class CheckList(QScrollArea):
    """The one list of checks, worst first; those of the stage in hand before the others of their level."""

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

    def shown_checks(self) -> list[Check]:
        """Return the checks in the order of the list."""
        session = self.session
        every = [*session.solution.checks, *session.solved.checks]
        return sorted(every, key=lambda each: (rank(each.level), each.stage is not session.stage))

    def refresh(self) -> None:
        """Show the checks as they are now, in as many of the cards as there were before as will do."""
        checks = self.shown_checks()
        answers = {each.code: each.reason for each in self.session.leaf.acknowledged}
        while len(self.cards) > len(checks):
            card = self.cards.pop()
            self._column.removeWidget(card)
            card.hide()
            card.deleteLater()
        while len(self.cards) < len(checks):
            self._new_card()
        for card, check in zip(self.cards, checks, strict=True):
            card.show_check(check, answers.get(check.code, ""))

    def _new_card(self) -> None:
        card = Card()
        card.clicked.connect(lambda: self._go(card.check))
        card.taken.connect(lambda remedy: card.refuse(self.session.take(remedy)))
        card.pointed.connect(lambda over: self.session.light(card.check.where if over and card.check else ""))
        self._column.insertWidget(len(self.cards), card)
        self.cards.append(card)

    def _go(self, check: Check | None) -> None:
        if check is None:
            return
        self.session.go_to(check.stage)
        self.session.show_working(check.figure)
        self.session.light(check.where)


class WorkingView(QWidget):
    """A written sum: terms, a line, the result; each term leads to its own working."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("working")
        self._trail: list[str] = []
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 6, 4)
        column.setSpacing(4)
        head = QHBoxLayout()
        head.addWidget(label("Working", "head"))
        head.addStretch(1)
        self._back = QPushButton(tr("back"))
        self._back.setProperty("role", "link")
        self._back.clicked.connect(self._go_back)
        head.addWidget(self._back)
        column.addLayout(head)
        self.sum = QLabel()
        self.sum.setTextFormat(Qt.TextFormat.RichText)
        self.sum.setWordWrap(True)
        self.sum.setAccessibleName(tr("working"))
        self.sum.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.sum.setTextInteractionFlags(
            Qt.TextInteractionFlag.LinksAccessibleByMouse | Qt.TextInteractionFlag.LinksAccessibleByKeyboard
        )
        self.sum.linkActivated.connect(self._descend)
        column.addWidget(self.sum, 1)

    def refresh(self) -> None:
        """Show the figure that the session names; a figure that is gone leaves a word of what to do."""
        figure = self.session.solved.figures.get(figure_name(self.session.working))
        self._back.setVisible(bool(self._trail))
        pencil = theme.palette().pencil
        if figure is None:
            self.sum.setText(tr(f'<span style="color:{pencil}">Click any number to see how it came about.</span>'))
            return
        title = f'<p style="font-weight:600; margin:0 0 4px 0">{escape(_capital(figure.label))}</p>'
        rows = "".join(self._row(row, figure) for row in figure.rows)
        notes = "".join(
            f'<p style="color:{pencil}; font-size:13px; margin:4px 0 0 0">{escape(each)}</p>' for each in _notes(figure)
        )
        self.sum.setToolTip(tr(explained("; ".join([figure.label, *(row.label for row in figure.rows)]))))
        self.sum.setText(tr(f'{title}<table width="100%" cellspacing="0" cellpadding="1">{rows}</table>{notes}'))

    def height_wanted(self) -> int:
        """Return about how high the working is, in px: reckoned from its words, since laying it out twice is slow."""
        figure = self.session.solved.figures.get(figure_name(self.session.working))
        if figure is None:
            return 90
        lines = sum(1 + len(row.label) // (26 if row.value is not None else 40) for row in figure.rows)
        return 86 + 22 * lines + sum(6 + 18 * (1 + len(each) // 42) for each in _notes(figure))

    def _row(self, row: WorkingRow, figure: Figure) -> str:
        p = theme.palette()
        if row.value is None:
            return f'<tr><td colspan="2" style="color:{p.pencil}; font-size:13px">{escape(row.label)}</td></tr>'
        show = self.session.show
        words = "" if row.label == figure.label and len(figure.rows) == 1 else escape(row.label)  # the title says it
        if row.ref and row.ref != figure.name and figure_name(row.ref) in self.session.solved.figures:
            words = f'<a href="{row.ref}" style="color:{p.accent}; text-decoration:none">{words}</a>'
        number = escape(_signed(row, theme.typeset(show.value(abs(row.value), row.unit))))
        rule = ""
        if row.op == "=":
            words, number = (f'<span style="font-weight:600">{each}</span>' for each in (words, number))
            rule = f"border-top:1px solid {p.ink};" if len(figure.rows) > 1 else ""
        return (
            f'<tr><td style="padding-right:8px">{words}</td>'
            f'<td align="right" style="white-space:nowrap; font-size:15px; {rule}">{number}</td></tr>'
        )

    def _descend(self, to: str) -> None:
        self._trail.append(self.session.working)
        self.session.working = to
        self.session.working_changed.emit()

    def _go_back(self) -> None:
        if self._trail:
            self.session.working = self._trail.pop()
            self.session.working_changed.emit()


def _signed(row: WorkingRow, text: str) -> str:
    negative = (row.value or 0) < 0
    if row.op in ("+", MINUS):
        return f"{MINUS if (row.op == MINUS) is not negative else '+'} {text}"
    return f"{MINUS}{text}" if negative else text


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def _notes(figure: Figure) -> list[str]:
    """Return whose rule it is and what it rests on."""
    notes = [_capital(figure.source) + "."] if figure.source else []
    if figure.rests_on:
        notes.append("Rests on what is only assumed: " + "; ".join(sorted(figure.rests_on)) + ".")
    elif figure.state is not None:
        notes.append(
            f"Rests on {'measured figures' if figure.state is Provenance.MEASURED else 'a figure from a table'}."
        )
    return notes


def count_text(checks: list[Check]) -> str:
    """Return "1 stop · 2 look · 14 fine"."""
    words = {Level.STOP: "do not cut", Level.WARNING: "to check", Level.OK: "OK"}
    counts = {level: sum(each.level is level for each in checks) for level in Level}
    return " · ".join(f"{counts[level]} {words[level]}" for level in Level if counts[level])


# Px of the panel, and of the window up to which it is narrow
PANEL_WIDTH = 292
NARROW_WIDTH = 262
NARROW_TO = 1180


class SidePanel(QWidget):
    """The checks with their count, and under them the working of the figure that was asked for."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(PANEL_WIDTH)
        self.checks, self.working = CheckList(session), WorkingView(session)
        self._count = label("", "pencil")
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 14, 10, 8)
        column.setSpacing(6)
        head = QHBoxLayout()
        head.addWidget(label("Checks", "head"))
        head.addStretch(1)
        head.addWidget(self._count)
        head.setContentsMargins(0, 0, 8, 0)
        column.addLayout(head)
        column.addWidget(self.checks, 1)
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        self._scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._scroll.setWidget(self.working)
        column.addWidget(self._scroll)

    def fit_into(self, window_px: int) -> None:
        """Give the drawing of a small window some of the panel's room."""
        self.setFixedWidth(NARROW_WIDTH if window_px < NARROW_TO else PANEL_WIDTH)

    def refresh(self) -> None:
        """Show the checks as they are now, and how many there are of each level."""
        self.checks.refresh()
        self._count.setText(tr(count_text(self.checks.shown_checks())))

    def show_working(self, window_height: int) -> None:
        """Show the working, its box as high as it needs and no higher than leaves the checks room."""
        self.working.refresh()
        self._scroll.setFixedHeight(min(self.working.height_wanted(), max(window_height // 2 - 50, 240)))
