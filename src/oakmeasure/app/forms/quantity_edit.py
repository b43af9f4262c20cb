"""The box in which a length or another quantity is written: takes sums, says why it refuses, loses nothing."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from enum import Enum, auto

from PySide6.QtCore import QEvent, QObject, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLabel, QLineEdit, QVBoxLayout, QWidget

from oakmeasure.app.shell import theme
from oakmeasure.core.base.errors import LengthError
from oakmeasure.core.base.glossary import explained
from oakmeasure.core.base.parsing import parse_length, parse_quantity
from oakmeasure.core.base.units import MM_PER_INCH, Show, Unit, UnitSystem
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.language import tr

NEXT_STATE = {
    Provenance.MEASURED: Provenance.ASSUMED,
    Provenance.ASSUMED: Provenance.FROM_TABLE,
    Provenance.FROM_TABLE: Provenance.MEASURED,
}


def read(text: str, unit: Unit, show: Show, *, signed: bool = False) -> float:
    """Return the number that a text writes in `unit`. Raises LengthError."""
    if unit is Unit.MM:
        return parse_length(text, show.system, allow_negative=signed)
    return parse_quantity(text, unit)


_SURE = re.compile(r"^(.*?)\s*(?:±|\+/-|\+-)\s*(.+)$")


def read_sure(text: str, unit: Unit, show: Show, *, signed: bool, sure: bool = True) -> tuple[float, float | None]:
    """Return the number of a text and, of "742 ± 1", how sure it is. Raises LengthError."""
    found = _SURE.match(text) if sure else None
    if found is None:
        return read(text, unit, show, signed=signed), None
    return read(found[1], unit, show, signed=signed), read(found[2], unit, show)


class StateMark(QWidget):
    """How well a figure is known, as a shape: a full dot is measured, a half one from a table, a ring assumed."""

    clicked = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.state = Provenance.MEASURED
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def sizeHint(self) -> QSize:
        return QSize(18, 18)

    def set_state(self, state: Provenance) -> None:
        self.state = state
        self.setToolTip(tr(f"{state}: click, or Ctrl+M in the box, to change"))
        self.setAccessibleName(tr(f"known as {state}"))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        p = theme.palette()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        tone = QColor(
            p.look if self.state is Provenance.ASSUMED else p.fine if self.state is Provenance.MEASURED else p.pencil
        )
        circle = QRectF(self.width() / 2 - 4.5, self.height() / 2 - 4.5, 9, 9)
        painter.setPen(QPen(tone, 1.6))
        if self.state is Provenance.MEASURED:
            painter.setBrush(tone)
        painter.drawEllipse(circle)
        if self.state is Provenance.FROM_TABLE:
            painter.setBrush(tone)
            painter.drawPie(circle, 90 * 16, 180 * 16)
        painter.end()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.clicked.emit()


class _QuantityLine(QLineEdit):
    """A line that nudges its value with the arrow keys and gives it back with Escape."""

    nudged = Signal(int)
    gave_up = Signal()
    state_asked = Signal()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            step = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
            self.nudged.emit(step if event.key() == Qt.Key.Key_Up else -step)
        elif event.key() == Qt.Key.Key_Escape:
            self.gave_up.emit()
        elif event.key() == Qt.Key.Key_M and event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.state_asked.emit()
        else:
            super().keyPressEvent(event)


class BoxLook(Enum):
    """How a box is laid out."""

    ROW = auto()  # its state, the number and the unit in a row
    COMPACT = auto()  # its label over the number
    NARROW = auto()  # the number alone, for the columns of a list


@dataclass(frozen=True, slots=True)
class Asked:
    """What a box asks: whether less than 0 and nothing are taken, whether it shows a state, and what is said of it."""

    signed: bool = False
    optional: bool = False
    has_state: bool = False
    note: str = ""


ANY = Asked()


class QuantityEdit(QFrame):
    """A box for one quantity.

    `commit(value, nudge)` is called with the number, or None for an emptied optional box; it returns "" or the
    reason for refusing it. Signals: `told(text, refused)` what to say beside the box ("" for nothing),
    `entered(focused)`, `state_asked`.
    """

    told = Signal(str, bool)
    entered = Signal(bool)
    state_asked = Signal()
    row_ended = Signal()

    def __init__(
        self,
        label: str,
        unit: Unit,
        commit: Callable[[float | None, bool], str],
        *,
        name: str = "",
        look: BoxLook = BoxLook.ROW,
        asks: Asked = ANY,
    ) -> None:
        super().__init__()
        self.setObjectName("entryBox")
        note = asks.note
        self.unit, self.signed, self.optional, self.note = unit, asks.signed, asks.optional, note
        self._look = look
        self.sigma: float | None = None  # as written behind a "±" with the value that is being committed
        self.last_in_row = False  # of an empty row: Enter ends the row instead of moving on
        self._commit_value = commit
        self._show = Show()
        self._value: float | None = None
        self._shown = ""
        self.line = _QuantityLine()
        self.line.setObjectName(name)
        self.line.setAccessibleName(tr(label))
        self.line.setAccessibleDescription(tr(note))
        self.line.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.line.setToolTip(tr("\n".join(each for each in (note, explained(label)) if each)))
        self.mark = StateMark() if asks.has_state else None
        self.line.setMinimumWidth(24)
        # With its parent from the start: a label without one that is made visible is a window of its own.
        self._unit_label = QLabel("", self) if look is BoxLook.ROW else None
        self._lay_out(label)
        self.line.installEventFilter(self)
        self.line.returnPressed.connect(self._enter)
        self.line.nudged.connect(self._nudge)
        self.line.gave_up.connect(self.give_back)
        self.line.state_asked.connect(self.state_asked)
        if self.mark is not None:
            self.mark.clicked.connect(self.state_asked)

    def _lay_out(self, label: str) -> None:
        if self._look is BoxLook.COMPACT:
            column = QVBoxLayout(self)
            column.setContentsMargins(8, 3, 8, 4)
            column.setSpacing(0)
            head = QHBoxLayout()
            head.setSpacing(2)
            title = QLabel(tr(label))
            title.setBuddy(self.line)
            head.addWidget(title, 1)
            if self.mark is not None:
                head.addWidget(self.mark)
            column.addLayout(head)
            column.addWidget(self.line)
            self.setFixedHeight(50)
            return
        row = QHBoxLayout(self)
        row.setContentsMargins(*((3, 2, 4, 2) if self._look is BoxLook.NARROW else (6, 3, 8, 3)))
        row.setSpacing(6)
        if self.mark is not None:
            row.addWidget(self.mark)
        row.addWidget(self.line, 1)
        if self._unit_label is not None:
            row.addWidget(self._unit_label)
        self.setFixedHeight(32 if self._look is BoxLook.NARROW else 36)

    # --- showing -----------------------------------------------------------------------------------------

    def show_value(
        self, value: float | None, show: Show, *, placeholder: str = "", state: Provenance | None = None
    ) -> None:
        """Show the job's value. What a person is typing, or was refused, stays on screen."""
        self._show = show
        if self._unit_label is not None:
            says_it = self.unit is Unit.MM and show.system is UnitSystem.INCH
            self._unit_label.setText(tr("" if says_it else _unit_text(self.unit)))
        self.line.setPlaceholderText(tr(placeholder))
        # A sixteenth with its sign is long; in the narrow boxes it is set smaller so that it stays whole.
        tight = self._look is BoxLook.COMPACT or self.mark is not None
        self.set_flag("small", self._look is BoxLook.NARROW or (tight and show.system is UnitSystem.INCH))
        if self.mark is not None:
            self.mark.setVisible(state is not None)
            if state is not None:
                self.mark.set_state(state)
        text = self._text(value)
        refused = bool(self.property("refused"))
        busy = (self.line.hasFocus() and self.line.text() != self._shown) or refused
        if busy and value == self._value:
            return
        self._value, self._shown = value, text
        self.line.setText(text)
        self._refuse("")

    def _text(self, value: float | None) -> str:
        """Return a value as the box shows it; a narrow box has no room for a sixteenth with its sign."""
        if value is None:
            return ""
        if self._look is BoxLook.NARROW and self.unit is Unit.MM and self._show.system is UnitSystem.INCH:
            return tr(self._show.short_length(value))
        return tr(self._show.value(value, self.unit, with_unit=False))

    def set_flag(self, name: str, on: bool) -> None:
        """Set one of the style flags `doubted`, `lit`, `focused`, `refused`, `small`."""
        if bool(self.property(name)) != on:
            self.setProperty(name, on)
            shown = Qt.WidgetAttribute.WA_WState_Polished  # until then it has no look that would be another
            for each in (one for one in (self, self.line) if one.testAttribute(shown)):
                each.style().unpolish(each)
                each.style().polish(each)

    # --- committing --------------------------------------------------------------------------------------

    def _enter(self) -> None:
        if self.commit():
            self._move_on()

    def _move_on(self) -> None:
        if self.last_in_row:
            self.row_ended.emit()
        else:
            self.focusNextChild()

    def commit(self) -> bool:
        """Read the text and hand it on. Returns whether it was taken."""
        text = self.line.text().strip()
        if text == self._shown:
            self._refuse("")
            if not (text and self._is_typed_over()):
                return True
            return self._taken(self._commit_value(self._value, False), self._value)
        if not text and self.optional:
            return self._taken(self._commit_value(None, False))
        try:
            value, self.sigma = read_sure(text, self.unit, self._show, signed=self.signed, sure=self.mark is not None)
        except LengthError as error:
            return self._taken(str(error))
        self._shown = "" if self._value is None else self._shown
        return self._taken(self._commit_value(value, False), value)

    def _is_typed_over(self) -> bool:
        """Return whether somebody typed just what an assumed reading held: then it was read, and is measured."""
        return self.line.isModified() and self.mark is not None and self.mark.state is Provenance.ASSUMED

    def _taken(self, reason: str, value: float | None = None) -> bool:
        self._refuse(reason)
        if not reason:
            self._value = value
            self._shown = self._text(value)
            self.line.setText(self._shown)
        return not reason

    def _refuse(self, reason: str) -> None:
        self.set_flag("refused", bool(reason))
        if reason:
            self.told.emit(reason, True)
        else:
            self.told.emit(self.note if self.line.hasFocus() else "", False)

    def _nudge(self, steps: int) -> None:
        if self._value is None:
            return
        unit = 1.0
        if self.unit is Unit.MM and self._show.system is UnitSystem.INCH:
            unit = MM_PER_INCH / self._show.denominator
        value = self._value + steps * unit
        reason = self._commit_value(value, True)
        if reason:
            self.told.emit(reason, True)
        else:
            self._taken("", value)

    @property
    def value(self) -> float | None:
        """Return the value that the box stands for; what is being typed is not it yet."""
        return self._value

    def clear(self) -> None:
        """Empty the box for the next value."""
        self._value, self._shown = None, ""
        self.line.clear()
        self._refuse("")

    def take(self, value: float) -> bool:
        """Take a value from a gauge as if it were typed, and move on. Returns whether it was taken."""
        # In mm, so that nothing is rounded to a mark of the rule on its way.
        self.line.setText(f"{value:.2f} mm" if self.unit is Unit.MM else f"{value:.2f}")
        taken = self.commit()
        if taken:
            self._move_on()
        return taken

    def give_back(self) -> None:
        """Put the job's value back in the box."""
        self.line.setText(self._shown)
        self._refuse("")
        self.line.selectAll()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.FocusIn:
            self.set_flag("focused", True)
            self.entered.emit(True)
            if not self.property("refused"):
                self.told.emit(self.note, False)
        elif event.type() == QEvent.Type.FocusOut:
            self.set_flag("focused", False)
            self.entered.emit(False)
            if not self.property("refused"):
                self.told.emit("", False)
            self.commit()
        return False

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.line.setFocus()
        self.line.selectAll()


def _unit_text(unit: Unit) -> str:
    return {Unit.MM: "mm", Unit.PERCENT: "%", Unit.CELSIUS: "°C", Unit.DEG: "°", Unit.KG: "kg"}.get(unit, "")
