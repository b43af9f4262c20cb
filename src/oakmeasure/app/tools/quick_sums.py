"""Quick sums: a box that opens with one key, finds a sum by words, and shows drawing, result and working."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from oakmeasure.app.canvas.canvas import Canvas
from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.forms.notes import label, note_label, tell
from oakmeasure.app.forms.quantity_edit import Asked, BoxLook, QuantityEdit
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import in_words
from oakmeasure.core.drawings.sums.sum_view import blank, sum_view
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.sums.examples import start
from oakmeasure.core.sums.quick import Answer, Sum, SumOption, Value, answer, read, read_option
from oakmeasure.core.sums.registry import SUMS, find
from oakmeasure.language import tr

LISTED = 250
BOXES = 260
RESULT_PX = 21
ROW_PX = 30


class SumBox(QDialog):
    """Stays open beside the window; what was written in each sum is kept while the program runs."""

    def __init__(self, parent: QWidget | None, session: Session) -> None:
        super().__init__(parent)
        self.session = session
        self.setWindowTitle(tr("Quick sums – Oak Measure"))
        self.resize(1080, 660)
        self.which: Sum = next(iter(SUMS.values()))
        self.kept: dict[str, dict[str, Value]] = {}
        self.found: Answer | None = None
        self.notes: dict[str, QLabel] = {}
        self.entries: dict[str, QWidget] = {}
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        sheet = QWidget()
        sheet.setObjectName("sheet")
        inside = QHBoxLayout(sheet)
        inside.setContentsMargins(16, 14, 8, 14)
        inside.setSpacing(18)
        inside.addLayout(self._left())
        inside.addLayout(self._middle())
        row.addWidget(sheet)
        row.addLayout(self._right(), 1)
        self.look.textChanged.connect(self._find)
        self.list.currentItemChanged.connect(self._chosen)
        session.changed.connect(self._job_changed)
        self._find("")

    # --- laying out ----------------------------------------------------------------------------------------

    def _left(self) -> QVBoxLayout:
        column = QVBoxLayout()
        self.look = QLineEdit()
        self.look.setObjectName("find")
        self.look.setPlaceholderText(tr("Find a sum: brace, cup, gap …"))
        self.look.setAccessibleName(tr("find a sum by words"))
        self.list = QListWidget()
        self.list.setObjectName("sums")
        self.list.setFixedWidth(LISTED)
        self.list.setAccessibleName(tr("quick sums"))
        column.addWidget(self.look)
        column.addWidget(self.list, 1)
        return column

    def _middle(self) -> QVBoxLayout:
        column = QVBoxLayout()
        self.title, self.says = label("", "head"), label("", "pencil")
        for each in (self.title, self.says):
            each.setWordWrap(True)
            each.setFixedWidth(BOXES - 10)
            column.addWidget(each)
        self.area = QScrollArea()
        self.area.setWidgetResizable(True)
        self.area.setFixedWidth(BOXES)
        self.area.setFrameShape(QScrollArea.Shape.NoFrame)
        self.area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        column.addWidget(self.area, 1)
        return column

    def _right(self) -> QVBoxLayout:
        column = QVBoxLayout()
        column.setContentsMargins(20, 14, 16, 14)
        self.outcome = QLabel()
        self.outcome.setFont(theme.font(RESULT_PX))
        self.outcome.setStyleSheet(f"font-size: {RESULT_PX}px;")
        self.outcome.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.outcome.setAccessibleName(tr("result"))
        self.board = Canvas()
        self.board.setAccessibleName(tr("drawing of the sum"))
        self.working = QLabel()
        self.working.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.working.setAccessibleName(tr("working"))
        self.working.setWordWrap(True)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setFrameShape(QScrollArea.Shape.NoFrame)
        scroll.setWidget(self.working)
        scroll.setStyleSheet("QScrollArea, QScrollArea > QWidget > QWidget { background: transparent; }")
        self.send_row = QHBoxLayout()
        self.sent = note_label()
        column.addWidget(self.outcome)
        column.addWidget(self.board, 3)
        column.addWidget(label("Working", "group"))
        column.addWidget(scroll, 2)
        column.addLayout(self.send_row)
        column.addWidget(self.sent)
        return column

    # --- finding -------------------------------------------------------------------------------------------

    def _find(self, words: str) -> None:
        found = find(words)
        self.list.blockSignals(True)
        self.list.clear()
        for each in found:
            item = QListWidgetItem(tr(each.title))
            item.setSizeHint(QSize(LISTED - 24, ROW_PX))
            item.setData(Qt.ItemDataRole.UserRole, each.name)
            self.list.addItem(item)
        at = next((n for n, each in enumerate(found) if each is self.which and not words), 0)
        self.list.setCurrentRow(at if found else -1)
        self.list.blockSignals(False)
        self._chosen(self.list.currentItem())

    def _chosen(self, item: QListWidgetItem | None, _before: QListWidgetItem | None = None) -> None:
        if item is not None:
            self.choose(str(item.data(Qt.ItemDataRole.UserRole)))

    def _mark(self, name: str) -> None:
        at = [self.list.item(n).data(Qt.ItemDataRole.UserRole) for n in range(self.list.count())]
        if name in at and self.list.currentRow() != at.index(name):
            self.list.blockSignals(True)
            self.list.setCurrentRow(at.index(name))
            self.list.blockSignals(False)

    def choose(self, name: str) -> None:
        """Show a sum by its name."""
        self.which = SUMS[name]
        self._mark(name)
        if name not in self.kept:
            self.kept[name] = self._start()
        self.title.setText(tr(self.which.title))
        self.says.setText(tr(self.which.says))
        self._fill()
        self._work_out()

    def _start(self) -> dict[str, Value]:
        solved = self.session.solved
        said = start(self.which, solved.figures if solved.build is not None else None)
        texts = {name: [str(each) for each in values] for name, values in said.items()}
        values = read(self.which, texts)
        for name, given in said.items():
            if isinstance(given[0], float) and len(given) == 1:
                values[name] = given[0]  # of the leaf: not by way of a text that rounds it
        try:
            answer(self.which, values)
        except InputError:  # the leaf's figures do not make this sum
            return read(self.which, {name: [str(v) for v in given] for name, given in start(self.which).items()})
        return values

    # --- boxes ---------------------------------------------------------------------------------------------

    @property
    def values(self) -> dict[str, Value]:
        """Return what is written in the boxes of the sum in hand."""
        return self.kept[self.which.name]

    def _fill(self) -> None:
        self.notes, self.entries = {}, {}
        holder = QWidget()
        holder.setObjectName("sumBoxes")
        column = QVBoxLayout(holder)
        column.setContentsMargins(0, 4, 10, 4)
        column.setSpacing(6)
        for option in self.which.options:
            widget = self._widget(option)
            note = note_label()
            self.entries[option.name], self.notes[option.name] = widget, note
            column.addWidget(widget)
            column.addWidget(note)
        column.addStretch(1)
        self.area.setWidget(holder)

    def _widget(self, option: SumOption) -> QWidget:
        if option.unit is None:
            return self._choice(option)
        if option.repeated:
            return self._several(option)
        entry = QuantityEdit(
            option.label,
            option.unit,
            lambda value, _nudge: self._set(option, value),
            name=f"sum.{option.name}",
            look=BoxLook.COMPACT,
            asks=Asked(signed=option.low < 0, optional=not option.needed),
        )
        value = self.values.get(option.name)
        entry.show_value(value if isinstance(value, float) else None, self.session.show)
        entry.told.connect(lambda text, refused: tell(self.notes[option.name], text, refused))
        return entry

    def _choice(self, option: SumOption) -> QWidget:
        box = ChoiceBox()
        box.setAccessibleName(tr(option.label))
        box.setObjectName(f"sum.{option.name}")
        if not option.needed:
            box.addItem("–", "")
        for key in option.choices:
            box.addItem(tr(key.replace("_", " ")), key)
        box.setCurrentIndex(box.findData(self.values.get(option.name, "")))
        box.activated.connect(lambda at: self._set(option, box.itemData(at) or None))
        return box

    def _several(self, option: SumOption) -> QWidget:
        line = QLineEdit()
        line.setProperty("role", "box")
        line.setObjectName(f"sum.{option.name}")
        line.setAccessibleName(tr(f"{option.label}, several with ; between"))
        line.setPlaceholderText(tr(f"{option.label}; {option.label}; …"))
        given = self.values.get(option.name, ())
        show = self.session.show
        if isinstance(given, tuple):
            line.setText("; ".join(show.length(each, sign=False) for each in given))
        line.editingFinished.connect(lambda: self._set_several(option, line.text()))
        return line

    def _set_several(self, option: SumOption, text: str) -> None:
        try:
            written = [each for each in text.split(";") if each.strip()]
            reason = self._set(option, read_option(option, written, self.session.show.system) if written else None)
        except InputError as error:
            reason = in_words(error, self.session.show)
        tell(self.notes[option.name], reason, bool(reason))

    def _set(self, option: SumOption, value: Value | None) -> str:
        """Take one option. Returns "" or why it is refused; what another one says is told under that."""
        values = {name: each for name, each in self.values.items() if name != option.name}
        if value is not None:
            values[option.name] = value
        try:
            answer(self.which, values)
        except InputError as error:
            if error.field == option.name:
                return in_words(error, self.session.show)
        self.kept[self.which.name] = values
        self._work_out()
        return ""

    # --- the answer ----------------------------------------------------------------------------------------

    def _work_out(self) -> None:
        show = self.session.show
        for note in self.notes.values():
            tell(note, "", False)
        try:
            self.found = answer(self.which, self.values)
        except InputError as error:
            self.found = None
            if error.field in self.notes:
                tell(self.notes[error.field], in_words(error, show), True)
            at = next((each.label for each in self.which.options if each.name == error.field), error.field)
            self.outcome.setText(tr(f"{at}: {in_words(error, show)}"))  # the note goes when its box is entered
            self.working.setText("")
            self.board.set_drawing(blank())
            self._offer()
            return
        bold = "align='right' style='font-weight: 600'"
        rows = (
            f"<tr><td>{each.label}&nbsp;&nbsp;</td><td {bold}>{show.value(each.value, each.unit)}</td></tr>"
            for each in self.found.gives
        )
        self.outcome.setText(tr(f"<table>{''.join(rows)}</table>"))
        self.working.setText(tr("\n".join(self.found.working(show))))
        self.working.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.board.set_drawing(sum_view(self.found, show))
        self._offer()

    def _offer(self) -> None:
        """Offer to put into the leaf what it has a field for, and the answer into its log."""
        while (item := self.send_row.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        self.sent.hide()
        if self.found is None:
            return
        for name, path in self.which.sends.items():
            if self._holds(path):
                words = next((o.label for o in self.which.options if o.name == name), None)
                words = words or self.found.figures[figure_name(name)].label
                self._button(f"{words} → leaf", lambda _on=False, name=name, path=path: self._send(name, path))
        self._button("Note it in the log", lambda _on=False: self._note())
        self.send_row.addStretch(1)

    def _button(self, text: str, what: Callable[..., None]) -> None:
        button = QPushButton(tr(text))
        button.setProperty("role", "plain")
        button.clicked.connect(what)
        self.send_row.addWidget(button)

    def _holds(self, path: str) -> bool:
        """Return whether the leaf in hand, made and hung as it is, has such a field."""
        from oakmeasure.core.document.field_path import get

        try:
            get(self.session.leaf, path)
        except (AttributeError, LookupError, InputError):
            return False
        return True

    def _send(self, name: str, path: str) -> None:
        assert self.found is not None
        figure = self.found.figures.get(figure_name(name.replace("-", "_")))
        value: Value | None = figure.value if figure is not None else self.values.get(name)
        reason = self.session.edit(path, value)
        tell(self.sent, reason or f"Put into {self.session.leaf.name}. Ctrl+Z takes it back.", bool(reason))

    def _note(self) -> None:
        assert self.found is not None
        show = self.session.show
        words = ", ".join(f"{each.label} {show.value(each.value, each.unit)}" for each in self.found.gives)
        reason = self.session.room(MakeRoom).note(f"{self.which.title}: {words}")
        tell(self.sent, reason or f"Noted in the log of {self.session.leaf.name}.", bool(reason))

    def _job_changed(self) -> None:
        if self.isVisible():
            said = self.sent.text() if self.sent.isVisible() else ""
            self._work_out()
            tell(self.sent, said, False)

    # --- keys ----------------------------------------------------------------------------------------------

    def open_for(self) -> None:
        """Show it with the search in hand."""
        self._work_out()
        self.show()
        self.raise_()
        self.activateWindow()
        self.look.setFocus()
        self.look.selectAll()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up) and self.look.hasFocus():
            step = 1 if event.key() == Qt.Key.Key_Down else -1
            self.list.setCurrentRow(max(0, min(self.list.count() - 1, self.list.currentRow() + step)))
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            if self.look.hasFocus():
                self._first_box()
        else:
            super().keyPressEvent(event)

    def _first_box(self) -> None:
        first = next(iter(self.entries.values()), None)
        if isinstance(first, QuantityEdit):
            first.line.setFocus()
            first.line.selectAll()
        elif first is not None:
            first.setFocus()
