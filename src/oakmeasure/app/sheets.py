"""The stage sheet at the left: the boxes and choices of one stage, built from `sheet_spec`."""

from __future__ import annotations

from functools import partial
from typing import Any

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QColor, QFontMetrics, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import (
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from oakmeasure.app import theme
from oakmeasure.app.entry import NEXT_STATE, Entry
from oakmeasure.app.session import Session
from oakmeasure.app.sheet_spec import SHEETS, Choice, Field, Group
from oakmeasure.core import edits
from oakmeasure.core.job import Board, Reading
from oakmeasure.core.survey.adjust import Status
from oakmeasure.core.units import Unit
from oakmeasure.core.verdicts import Stage
from oakmeasure.core.working import State


def label(text: str, role: str) -> QLabel:
    made = QLabel(text)
    made.setProperty("role", role)
    return made


class Sheet(QScrollArea):
    """All groups of one stage."""

    def __init__(self, session: Session, stage: Stage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        body = QWidget()
        body.setObjectName("sheet")
        self._column = QVBoxLayout(body)
        self._column.setContentsMargins(18, 14, 16, 14)
        self._column.setSpacing(5)
        self.entries: dict[str, Entry] = {}
        self._fields: dict[str, Field] = {}
        self._choices: list[tuple[Choice, ChoiceBox, list[Any]]] = []
        self._boards: BoardRows | None = None
        for group in SHEETS[stage]:
            self._add_group(group)
        self._column.addStretch(1)
        self.setWidget(body)
        session.lit_changed.connect(self._light)

    # --- building ----------------------------------------------------------------------------------------

    def _add_group(self, group: Group) -> None:
        head = QHBoxLayout()
        head.setContentsMargins(0, 8, 0, 0)
        head.addWidget(label(group.title, "group"))
        head.addStretch(1)
        if group.hint:
            head.addWidget(label(group.hint, "pencil"))
        self._column.addLayout(head)
        if group.columns > 1:
            self._add_grid(group)
            return
        for item in group.items:
            if isinstance(item, Field):
                self._add_field(item)
            elif isinstance(item, Choice):
                self._add_choice(item)
            else:
                self._boards = BoardRows(self.session)
                self._column.addWidget(self._boards)

    def _add_grid(self, group: Group) -> None:
        grid = QGridLayout()
        grid.setSpacing(6)
        note = _note()
        for at, item in enumerate(group.items):
            assert isinstance(item, Field)
            grid.addWidget(self._entry(item, note, compact=True), at // group.columns, at % group.columns)
        for column in range(group.columns):
            grid.setColumnStretch(column, 1)
        self._column.addLayout(grid)
        self._column.addWidget(note)

    def _add_field(self, field: Field) -> None:
        note = _note()
        entry = self._entry(field, note, compact=False)
        entry.setFixedWidth(126)
        row = QHBoxLayout()
        title = QLabel(field.label)
        title.setBuddy(entry.line)
        row.addWidget(title, 1)
        row.addWidget(entry)
        self._column.addLayout(row)
        self._column.addWidget(note)

    def _entry(self, field: Field, note: QLabel, *, compact: bool) -> Entry:
        entry = Entry(
            field.label,
            field.unit,
            lambda value, nudge: self._commit(field, value, nudge),
            compact=compact,
            signed=field.signed,
            optional=field.optional,
            has_state=field.has_state,
            note=field.note,
            name=field.path,
        )
        entry.told.connect(lambda text, refused: tell(note, text, refused))
        entry.entered.connect(lambda focused: self._entered(field, focused))
        entry.state_asked.connect(lambda: self._next_state(field))
        self.entries[field.path] = entry
        self._fields[field.path] = field
        return entry

    def _add_choice(self, choice: Choice) -> None:
        combo = ChoiceBox()
        combo.setObjectName(choice.name)
        combo.setAccessibleName(choice.label)
        combo.setToolTip(choice.note)
        combo.setFixedWidth(186)
        keys = []
        for key, text in choice.options():
            combo.addItem(text)
            keys.append(key)
        combo.activated.connect(lambda at: self._choose(choice, keys[at]))
        row = QHBoxLayout()
        title = QLabel(choice.label)
        title.setBuddy(combo)
        row.addWidget(title, 1)
        row.addWidget(combo)
        self._column.addLayout(row)
        self._choices.append((choice, combo, keys))

    # --- showing -----------------------------------------------------------------------------------------

    def refresh(self) -> None:
        """Show the job as it is now; changes nothing."""
        leaf, solved, show = self.session.leaf, self.session.solved, self.session.show
        judged = solved.opening.adjustment.readings if solved.opening.adjustment else {}
        for path, entry in self.entries.items():
            field = self._fields[path]
            value = edits.get(leaf, path)
            state: State | None = None
            if isinstance(value, Reading):
                state, value = value.state, value.value
            placeholder = ""
            figure = solved.figures.get(field.figure) if field.figure and value is None else None
            if figure is not None:
                placeholder = show.value(figure.value, field.unit, with_unit=False)
            entry.show_value(value, show, placeholder=placeholder, state=state)
            if path.startswith("readings."):
                reading = judged.get(path.partition(".")[2])
                entry.set_flag("doubted", reading is not None and reading.status is not Status.USED)
        for choice, combo, keys in self._choices:
            key = choice.get(self.session.job, self.session.leaf_id)
            combo.setCurrentIndex(keys.index(key) if key in keys else -1)
            if choice.other is not None:
                combo.show_other(choice.other(self.session.job))
        if self._boards is not None:
            self._boards.refresh()

    def _light(self) -> None:
        for path, entry in self.entries.items():
            ref = self._fields[path].ref
            entry.set_flag("lit", bool(ref) and ref == self.session.lit and not entry.line.hasFocus())

    def focus_first(self) -> None:
        """Put the cursor into the first box that is empty, or into the first one."""
        entries = list(self.entries.values())
        if entries:
            entries[0].line.setFocus()

    def focus_field(self, path: str) -> bool:
        """Put the cursor into the box of a field; False when this sheet has none."""
        entry = self.entries.get(path)
        if entry is None:
            return False
        entry.line.setFocus()
        entry.line.selectAll()
        self.ensureWidgetVisible(entry)
        return True

    # --- intents -----------------------------------------------------------------------------------------

    def _commit(self, field: Field, value: float | None, nudge: bool) -> str:
        given: Any = value
        if field.unit is Unit.COUNT and value is not None:
            if value != int(value):
                return "needs a whole number"
            given = int(value)
        return self.session.edit(field.path, given, nudge=nudge)

    def _choose(self, choice: Choice, key: Any) -> None:
        leaf_id = self.session.leaf_id
        self.session.push(f"choose {choice.label.lower()}", lambda job: choice.put(job, leaf_id, key))

    def _entered(self, field: Field, focused: bool) -> None:
        self.session.light(field.ref if focused else "")
        if focused:
            figure = field.figure or field.path.rpartition(".")[2]
            if field.path.startswith("readings."):
                figure = f"reading_{figure}"
            elif field.path.startswith("hardware.butt."):
                figure = f"butt_{figure}"
            worked_out = self.session.solved.figures.get(figure)
            if worked_out is not None and len(worked_out.rows) > 1:
                self.session.show_working(figure)

    def _next_state(self, field: Field) -> None:
        reading = edits.get(self.session.leaf, field.path)
        if isinstance(reading, Reading):
            self.session.set_state(field.path, NEXT_STATE[reading.state])


def _note() -> QLabel:
    note = label("", "pencil")
    note.setWordWrap(True)
    note.hide()
    return note


def tell(note: QLabel, text: str, refused: bool) -> None:
    """Say a note, or why something was refused, under its box."""
    role = "refused" if refused else "pencil"
    if note.property("role") != role:
        note.setProperty("role", role)
        note.style().unpolish(note)
        note.style().polish(note)
    note.setText(text)
    note.setVisible(bool(text))


class ChoiceBox(QComboBox):
    """A combo box with its arrow in the colour of what can be changed, wheel-proof while the sheet is scrolled."""

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QColor(theme.palette().accent), 1.8))
        x, y = self.width() - 18.0, self.height() / 2 - 2
        painter.drawPolyline([QPointF(x, y), QPointF(x + 5, y + 5), QPointF(x + 10, y)])
        painter.end()

    def show_other(self, text: str) -> None:
        """Show a text while none of the options is chosen; a long one gives way in its middle."""
        metrics = QFontMetrics(theme.font(14, bold=True))
        self.setPlaceholderText(metrics.elidedText(text, Qt.TextElideMode.ElideMiddle, self.width() - 44))

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()


class BoardRows(QWidget):
    """The boards on the rack, a row each: length, width, thickness, how many (empty: as many as needed)."""

    PARTS = (("length", Unit.MM), ("width", Unit.MM), ("thickness", Unit.MM), ("quantity", Unit.COUNT))

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.setSpacing(4)
        self._note = _note()
        self._rows: list[tuple[QWidget, list[Entry]]] = []
        self._rows_box = QVBoxLayout()
        self._rows_box.setSpacing(4)
        self._column.addLayout(self._rows_box)
        self._column.addWidget(self._note)
        add = QPushButton("Add a board")
        add.setProperty("role", "link")
        add.setObjectName("addBoard")
        add.clicked.connect(self._add)
        self._column.addWidget(add, alignment=Qt.AlignmentFlag.AlignLeft)

    def refresh(self) -> None:
        boards = self.session.job.boards
        while len(self._rows) > len(boards):
            row, _ = self._rows.pop()
            row.deleteLater()
        while len(self._rows) < len(boards):
            self._rows.append(self._new_row(len(self._rows)))
            self._rows_box.addWidget(self._rows[-1][0])
        for board, (_, entries) in zip(boards, self._rows, strict=True):
            for (name, _unit), entry in zip(self.PARTS, entries, strict=True):
                entry.show_value(
                    getattr(board, name), self.session.show, placeholder="any" if name == "quantity" else ""
                )

    def _new_row(self, at: int) -> tuple[QWidget, list[Entry]]:
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 0, 0, 0)
        line.setSpacing(4)
        entries = []
        for name, unit in self.PARTS:
            entry = Entry(
                f"board {at + 1}, {name}",
                unit,
                partial(self._commit, at, name),
                optional=name == "quantity",
                name=f"boards.{at}.{name}",
                shows_unit=False,
            )
            entry.told.connect(lambda text, refused: tell(self._note, text, refused))
            line.addWidget(entry, 5 if name == "length" else 4)
            entries.append(entry)
        remove = QToolButton()
        remove.setText("×")
        remove.setToolTip("take this size off the list")
        remove.setAccessibleName(f"take board {at + 1} off the list")
        remove.clicked.connect(lambda: self._remove(at))
        line.addWidget(remove)
        return row, entries

    def _commit(self, at: int, name: str, value: float | None, _nudge: bool) -> str:
        given = int(value) if name == "quantity" and value is not None and value == int(value) else value
        return self.session.push(f"set board {name}", lambda job: edits.with_board(job, at, name, given))

    def _add(self) -> None:
        boards = self.session.job.boards
        like = boards[-1] if boards else Board(length=2400, width=200, thickness=52)
        self.session.push("add a board", lambda job: edits.with_value(job, "boards", (*job.boards, like)))

    def _remove(self, at: int) -> None:
        self.session.push("take a board off", lambda job: edits.without_board(job, at))
