"""A list in the sheet: a row of boxes for each item, and an empty row to write the next one into."""

from __future__ import annotations

from functools import partial
from typing import Any

from PySide6.QtCore import QCoreApplication, QEvent, QTimer, Signal
from PySide6.QtWidgets import QApplication, QHBoxLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.forms.notes import note_label, tell
from oakmeasure.app.forms.quantity_edit import NEXT_STATE, Asked, BoxLook, QuantityEdit
from oakmeasure.app.shell.session import Session
from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Unit, in_words
from oakmeasure.core.document import field_path
from oakmeasure.core.document.job import Reading
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.forms.fields import Column, Rows
from oakmeasure.language import tr

MOST_ROWS = 40  # more come from a file and are seen in the list beside the board
AT_ONCE = 3  # rows that are made in one go; the next follow when what was pressed meanwhile is done
REMOVE_PX = 22


class _Row(QWidget):
    """One item; `at` is its place, or None for the empty row at the end."""

    def __init__(self, owner: ListRows, at: int | None) -> None:
        super().__init__(owner)
        self.at = at
        self.boxes: dict[str, QuantityEdit | ChoiceBox] = {}
        self.values: dict[str, Any] = {}  # of the empty row, as far as it is written
        line = QHBoxLayout(self)
        line.setContentsMargins(0, 0, 0, 0)
        line.setSpacing(3)
        for column in owner.rows.columns:
            box = owner.new_choice(self, column) if column.options else owner.new_entry(self, column)
            self.boxes[column.name] = box
            line.addWidget(box, column.share)
        self.remove = QToolButton()
        self.remove.setText(tr("×" if at is not None else "+"))
        self.remove.setFixedWidth(REMOVE_PX)
        words = f"take {owner.rows.word} {at + 1} off" if at is not None else f"add this {owner.rows.word}"
        self.remove.setToolTip(tr(words))
        self.remove.setAccessibleName(tr(words))
        self.remove.clicked.connect(partial(owner.remove, at) if at is not None else partial(owner.add, self))
        line.addWidget(self.remove)


class ListRows(QWidget):
    """The rows of one list. Signal `pointed(ref)`: what the row with the cursor shows on the drawing."""

    pointed = Signal(str)

    def __init__(self, session: Session, rows: Rows) -> None:
        super().__init__()
        self.session, self.rows = session, rows
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        self._head = QHBoxLayout()
        self._head.setSpacing(3)
        self._heads: dict[str, QLabel] = {}
        for each in rows.columns:
            title = QLabel(tr(each.label))
            title.setProperty("role", "pencil")
            self._heads[each.name] = title
            self._head.addWidget(title, each.share)
        self._head.addSpacing(REMOVE_PX + 3)
        column.addLayout(self._head)
        self._box = QVBoxLayout()
        self._box.setSpacing(3)
        column.addLayout(self._box)
        self._more = note_label()
        column.addWidget(self._more)
        self.note = note_label()
        self._rows: list[_Row] = []
        self._growing = QTimer(self, singleShot=True, interval=0)
        self._growing.timeout.connect(self._grow)
        self.draft = _Row(self, None)
        column.addWidget(self.draft)
        column.addWidget(self.note)

    # --- building ----------------------------------------------------------------------------------------

    def _name(self, row_at: int | None, column: Column) -> str:
        return f"{self.rows.name}.{'new' if row_at is None else row_at}.{column.name}"

    def new_entry(self, row: _Row, column: Column) -> QuantityEdit:
        """Return the box of a column in a row."""
        number = "new " + self.rows.word if row.at is None else f"{self.rows.word} {row.at + 1}"
        entry = QuantityEdit(
            f"{number}, {column.label}",
            column.unit,
            partial(self._commit, row, column),
            name=self._name(row.at, column),
            look=BoxLook.NARROW,
            asks=Asked(signed=column.signed, optional=column.optional or row.at is None),
        )
        entry.told.connect(lambda text, refused: tell(self.note, text, refused))
        entry.entered.connect(lambda focused: self._entered(row, focused))
        entry.state_asked.connect(lambda: self._next_state(row, column))
        entry.row_ended.connect(lambda: self.add(row))
        entry.last_in_row = row.at is None and column is self.rows.columns[-1]
        return entry

    def new_choice(self, row: _Row, column: Column) -> ChoiceBox:
        """Return the combo box of a column in a row."""
        assert column.options is not None
        combo = ChoiceBox()
        combo.setObjectName(self._name(row.at, column))
        combo.setProperty("narrow", True)
        combo.setMinimumWidth(40)
        combo.setAccessibleName(tr(f"{self.rows.word}, {column.label}"))
        keys = []
        for key, text in column.options():
            combo.addItem(tr(text), key)
            keys.append(key)
        combo.view().setMinimumWidth(150)
        combo.activated.connect(lambda at: self._choose(row, column, keys[at]))
        return combo

    # --- showing -----------------------------------------------------------------------------------------

    def items(self) -> tuple[Any, ...]:
        """Return the list as it is in the job."""
        model: Any = self.session.job if self.rows.of_job else self.session.leaf
        return field_path.get(model, self.rows.path) or ()

    def refresh(self) -> None:
        """Show the list as it is now."""
        items = self.items()
        shown = items[:MOST_ROWS]
        while len(self._rows) > len(shown):
            self._rows.pop().deleteLater()
        for row, item in zip(self._rows, shown, strict=False):
            self._show(row, item)
        if len(self._rows) < min(AT_ONCE, len(shown)):
            self._grow()
        elif len(self._rows) < len(shown):
            self._growing.start()
        self._more.setText(tr(f"and {len(items) - len(shown)} more, in the list beside the board"))
        self._more.setVisible(len(items) > len(shown))
        self._show_draft()
        self._show_columns()

    def _grow(self) -> None:
        """Make the next rows that are missing, and come back for the rest."""
        missing = self.items()[len(self._rows) : MOST_ROWS]
        for item in missing[:AT_ONCE]:
            row = _Row(self, len(self._rows))
            self._rows.append(row)
            self._box.addWidget(row)
            self._show(row, item)
        if missing:
            self._show_columns()
        if len(missing) > AT_ONCE:
            self._growing.start()

    def is_as_the_job(self) -> bool:
        """Return whether it holds nothing but what the job says: nothing is written into the empty row, or refused."""
        return not self.draft.values and not any(each.property("refused") for each in self.findChildren(QuantityEdit))

    def shorten(self) -> None:
        """Take away the rows far down, until the list is shown anew."""
        if self.is_as_the_job():
            while len(self._rows) > AT_ONCE:
                row = self._rows.pop()
                row.hide()
                row.deleteLater()
                QCoreApplication.sendPostedEvents(row, QEvent.Type.DeferredDelete)

    def _show(self, row: _Row, item: Any) -> None:
        show = self.session.show
        for column in self.rows.columns:
            value = getattr(item, column.name)
            state = value.state if isinstance(value, Reading) else None
            value = value.value if isinstance(value, Reading) else value
            box = row.boxes[column.name]
            if isinstance(box, ChoiceBox):
                box.setCurrentIndex(box.findData(value))
            else:
                placeholder = "any" if column.name == "quantity" else ""
                box.show_value(value, show, placeholder=placeholder)
                box.set_flag("doubted", state is Provenance.ASSUMED)

    def _show_draft(self) -> None:
        suggested = self.rows.suggest(self.session.leaf) if self.rows.suggest else {}
        for column in self.rows.columns:
            box = self.draft.boxes[column.name]
            if isinstance(box, QuantityEdit):
                hint = suggested.get(column.name)
                hint_text = "" if hint is None else self.session.show.value(hint, column.unit, with_unit=False)
                box.show_value(self.draft.values.get(column.name), self.session.show, placeholder=hint_text)

    def _show_columns(self) -> None:
        if self.rows.columns_for is None:
            return
        shown = self.rows.columns_for(self.session.leaf)
        for name, head in self._heads.items():
            head.setVisible(name in shown)
            for row in (*self._rows, self.draft):
                row.boxes[name].setVisible(name in shown)

    def focus(self, name: str = "") -> None:
        """Put the cursor into the empty row."""
        for box in self.draft.boxes.values():
            if isinstance(box, QuantityEdit) and box.isVisible():
                box.line.setFocus()
                return

    # --- intents -----------------------------------------------------------------------------------------

    def _entered(self, row: _Row, focused: bool) -> None:
        if self.rows.where and row.at is not None:
            self.pointed.emit(f"{self.rows.where}:{row.at + 1}" if focused else "")
        if not focused and row.at is None:
            QTimer.singleShot(0, lambda: self._left(row))

    def _left(self, row: _Row) -> None:
        """The cursor left the empty row: add what is written, if it is whole."""
        focus = QApplication.focusWidget()
        if focus is not None and not row.isAncestorOf(focus) and self._is_whole(row):
            self.add(row)

    def _is_whole(self, row: _Row) -> bool:
        values = self._written(row)
        shown = self.rows.columns_for(self.session.leaf) if self.rows.columns_for else None
        needed = [
            each.name
            for each in self.rows.columns
            if not each.optional and not each.options and (shown is None or each.name in shown)
        ]
        return bool(row.values) and all(values.get(name) is not None for name in needed)

    def _written(self, row: _Row) -> dict[str, Any]:
        suggested = self.rows.suggest(self.session.leaf) if self.rows.suggest else {}
        values = suggested | {name: value for name, value in row.values.items() if value is not None}
        for column in self.rows.columns:
            box = row.boxes[column.name]
            if isinstance(box, ChoiceBox):
                values[column.name] = box.currentData()
        return values

    def _commit(self, row: _Row, column: Column, value: float | None, nudge: bool) -> str:
        given: Any = value
        if column.unit is Unit.COUNT and value is not None:
            if value != int(value):
                return "needs a whole number"
            given = int(value)
        if row.at is None:
            row.values[column.name] = given
            return ""
        path = f"{self.rows.path}.{row.at}.{column.name}"
        if self.rows.of_job:
            return self.session.push(
                f"set {self.rows.word} {column.label}", lambda job: field_path.with_value(job, path, given)
            )
        return self.session.edit(path, given, nudge=nudge)

    def _choose(self, row: _Row, column: Column, key: Any) -> None:
        if row.at is not None:
            path = f"{self.rows.path}.{row.at}.{column.name}"
            if self.rows.of_job:
                reason = self.session.push(f"choose {column.label}", lambda job: field_path.with_value(job, path, key))
            else:
                reason = self.session.edit(path, key)
            tell(self.note, reason, bool(reason))

    def _next_state(self, row: _Row, column: Column) -> None:
        if row.at is None or not column.is_reading:
            return
        path = f"{self.rows.path}.{row.at}.{column.name}"
        reading = field_path.get(self.session.leaf, path)
        if isinstance(reading, Reading):
            self.session.set_state(path, NEXT_STATE[reading.state])

    def add(self, row: _Row) -> None:
        """Make the empty row's item; what is missing is said under it."""
        if not self._is_whole(row):
            tell(
                self.note,
                f"write the {self.rows.word}'s figures into the empty row"
                if not row.values
                else "a figure is missing in this row",
                bool(row.values),
            )
            return
        values = self._written(row)
        for column in self.rows.columns:
            if column.is_reading and column.name in values:
                values[column.name] = Reading(value=values[column.name])
        try:
            item = self.rows.make(values)
        except ValueError as error:
            refused = field_path.refusal(error) if not isinstance(error, InputError) else error  # type: ignore[arg-type]
            tell(self.note, f"{refused.field.rpartition('.')[2]}: {in_words(refused, self.session.show)}", True)
            return
        items = (*self.items(), item)
        reason = self._replace(f"add a {self.rows.word}", items)
        if reason:
            tell(self.note, reason, True)
            return
        focus = QApplication.focusWidget()
        had_focus = focus is not None and row.isAncestorOf(focus)
        row.values.clear()
        for box in row.boxes.values():
            if isinstance(box, QuantityEdit):
                box.clear()
        self.refresh()
        if had_focus:
            self.focus()

    def remove(self, at: int) -> None:
        """Take an item off the list."""
        items = self.items()
        reason = self._replace(f"take a {self.rows.word} off", (*items[:at], *items[at + 1 :]))
        tell(self.note, reason, bool(reason))

    def _replace(self, words: str, items: tuple[Any, ...]) -> str:
        leaf_id, path = self.session.leaf_id, self.rows.path
        if self.rows.of_job:
            return self.session.push(words, lambda job: field_path.with_value(job, path, items))
        return self.session.push(words, lambda job: job_edits.with_field(job, leaf_id, path, items))
