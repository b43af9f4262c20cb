"""The sheet of the rack: one board's figures, what is wrong with it, turned over, added, taken off."""

from __future__ import annotations

from functools import partial
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QLineEdit, QPushButton, QVBoxLayout, QWidget

from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.forms.list_editor import ListRows
from oakmeasure.app.forms.notes import label, note_label, tell
from oakmeasure.app.forms.quantity_edit import Asked, BoxLook, QuantityEdit
from oakmeasure.app.shell.session import Session
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.species import species, species_keys
from oakmeasure.core.document.stock import Board, BoardMark, Came, Face, Flaw, Sawn
from oakmeasure.core.drawings.timber.stock_view import owned
from oakmeasure.core.edits import stock_edits
from oakmeasure.core.forms.fields import Column, Rows, enum_options
from oakmeasure.language import tr

FIGURES = (
    ("length", "long", Unit.MM),
    ("width", "wide", Unit.MM),
    ("thickness", "thick", Unit.MM),
    ("quantity", "pieces", Unit.COUNT),
    ("price", "price", Unit.MONEY),
    ("year", "year", Unit.COUNT),
    ("bow", "bow", Unit.MM),
    ("crook", "crook", Unit.MM),
)


class RackPanel(QWidget):
    """Shows and edits the board in hand; `session.board` says which, `session.mark` which of its marks."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(5)
        self.which = ChoiceBox()
        self.which.setObjectName("rackBoard")
        self.which.setAccessibleName(tr("board in hand"))
        self.which.activated.connect(lambda at: session.take_board(owned(session.job)[at]))
        row = QHBoxLayout()
        row.setSpacing(12)
        row.addWidget(self.which, 1)
        for name, words, what in (("addBoard", "Add", self._add), ("removeBoard", "Remove", self._remove)):
            button = QPushButton(tr(words))
            button.setObjectName(name)
            button.setProperty("role", "link")
            button.clicked.connect(what)
            row.addWidget(button)
        column.addLayout(row)
        self.note = note_label()
        column.addWidget(self.note)
        self.body = QWidget()
        inner = QVBoxLayout(self.body)
        inner.setContentsMargins(0, 0, 0, 0)
        inner.setSpacing(5)
        self._texts(inner)
        self._figures(inner)
        self._choices(inner)
        column.addWidget(self.body)
        column.addWidget(label("Not clear", "group"))
        hint = label("drag on a face to draw one; x from the head end, y from the best face's lower edge", "pencil")
        hint.setWordWrap(True)
        column.addWidget(hint)
        self._marks_box = QVBoxLayout()
        column.addLayout(self._marks_box)
        self.marks: ListRows | None = None
        self._marks_of = -1

    # --- building ----------------------------------------------------------------------------------------

    def _texts(self, column: QVBoxLayout) -> None:
        self.texts: dict[str, QLineEdit] = {}
        for name, words in (("label", "Label"), ("colour", "Colour, to match")):
            line = QLineEdit()
            line.setObjectName(f"rack.{name}")
            line.setProperty("role", "box")
            line.setMaxLength(40 if name == "label" else 60)
            line.setAccessibleName(tr(words))
            line.editingFinished.connect(partial(self._write, name))
            row = QHBoxLayout()
            row.addWidget(QLabel(tr(words)), 1)
            line.setFixedWidth(150)
            row.addWidget(line)
            column.addLayout(row)
            self.texts[name] = line

    def _figures(self, column: QVBoxLayout) -> None:
        grid = QGridLayout()
        grid.setSpacing(6)
        self.entries: dict[str, QuantityEdit] = {}
        for at, (name, words, unit) in enumerate(FIGURES):
            entry = QuantityEdit(
                words,
                unit,
                partial(self._set, name),
                name=f"rack.{name}",
                look=BoxLook.COMPACT,
                asks=Asked(optional=name in ("price", "year")),
            )
            entry.told.connect(lambda text, refused: tell(self.note, text, refused))
            self.entries[name] = entry
            grid.addWidget(entry, at // 3, at % 3)
        column.addLayout(grid)

    def _choices(self, column: QVBoxLayout) -> None:
        self.choices: dict[str, ChoiceBox] = {}
        kinds = sorted(((key, species(key).name) for key in species_keys()), key=lambda each: each[1])
        yes = [(False, "no"), (True, "yes")]
        for name, words, options in (
            ("species", "Species", [(None, "any"), *kinds]),
            ("came", "Came as", [(each, str(each)) for each in Came]),
            ("sawn", "Faces", [(each, str(each)) for each in Sawn]),
            ("one_face", "One face kept", yes),
            ("searched", "Searched for metal", yes),
            ("forbidden", "Left out", yes),
        ):
            box = ChoiceBox()
            box.setObjectName(f"rack.{name}")
            box.setAccessibleName(tr(words))
            box.setFixedWidth(150)
            for key, text in options:
                box.addItem(tr(text), key)
            box.activated.connect(partial(self._choose, name))
            row = QHBoxLayout()
            row.addWidget(QLabel(tr(words)), 1)
            row.addWidget(box)
            column.addLayout(row)
            self.choices[name] = box
        turn = QPushButton(tr("Turn it over: the other face is the best"))
        turn.setProperty("role", "link")
        turn.setObjectName("turnBoard")
        turn.clicked.connect(self._turn)
        column.addWidget(turn, alignment=Qt.AlignmentFlag.AlignLeft)

    # --- showing -----------------------------------------------------------------------------------------

    def refresh(self) -> None:
        """Show the board in hand as it is now."""
        session, job = self.session, self.session.job
        places = owned(job)
        words = [
            f"{job.boards[at].label or '–'}   {session.show.size(job.boards[at].length, job.boards[at].width)}"
            for at in places
        ]
        self.which.offer(words)
        at = session.board_in_hand()
        self.body.setVisible(at is not None)
        if at is None:
            return
        self.which.setCurrentIndex(places.index(at))
        board = job.boards[at]
        for name, entry in self.entries.items():
            entry.show_value(getattr(board, name), session.show)
        for name, line in self.texts.items():
            if not line.hasFocus() or not line.isModified():
                line.setText(getattr(board, name))
        for name, box in self.choices.items():
            box.setCurrentIndex(box.findData(getattr(board, name)))
        if self._marks_of != at:
            self._show_marks_of(at)
        if self.marks is not None:
            self.marks.refresh()

    def _show_marks_of(self, at: int) -> None:
        if self.marks is not None:
            self.marks.hide()
            self._marks_box.removeWidget(self.marks)
            self.marks.deleteLater()
        columns = (
            Column("flaw", "what", options=enum_options(Flaw), share=5),
            Column("face", "face", options=enum_options(Face), share=4),
            Column("x", "x"),
            Column("y", "y"),
            Column("length", "long"),
            Column("width", "wide"),
        )
        rows = Rows(
            "marks",
            f"boards.{at}.marks",
            columns,
            lambda values: BoardMark(**values),
            "defect",
            of_job=True,
            where="mark",
        )
        self.marks = ListRows(self.session, rows)
        self.marks.pointed.connect(self.session.light)
        self._marks_box.addWidget(self.marks)
        self.marks.show()
        self._marks_of = at

    # --- intents -----------------------------------------------------------------------------------------

    def _push(self, words: str, change: Any, *, key: str = "") -> str:
        at = self.session.board_in_hand()
        if at is None:
            return ""
        return self.session.push(words, lambda job: change(job, at), key=key)

    def _set(self, name: str, value: float | None, nudge: bool) -> str:
        given: Any = value
        if name in ("quantity", "year") and value is not None:
            if value != int(value):
                return "needs a whole number"
            given = int(value)
        key = f"rack.{name}.{self.session.board_in_hand()}" if nudge else ""
        return self._push(f"set {name}", lambda job, at: stock_edits.with_board(job, at, **{name: given}), key=key)

    def _write(self, name: str) -> None:
        text = self.texts[name].text().strip()
        reason = self._push(f"set {name}", lambda job, at: stock_edits.with_board(job, at, **{name: text}))
        self.texts[name].setModified(False)
        tell(self.note, reason, bool(reason))

    def _choose(self, name: str, _index: int) -> None:
        key = self.choices[name].currentData()
        reason = self._push(f"choose {name}", lambda job, at: stock_edits.with_board(job, at, **{name: key}))
        tell(self.note, reason, bool(reason))

    def _turn(self) -> None:
        def turned(job: Job, at: int) -> Job:
            board: Board = job.boards[at].turned_over()
            return stock_edits.with_boards(job, (*job.boards[:at], board, *job.boards[at + 1 :]))

        self._push("turn the board over", turned)

    def _add(self) -> None:
        at = self.session.board_in_hand()
        self.session.push("add a board", lambda job: stock_edits.with_new_board(job, at))
        self.session.take_board(owned(self.session.job)[-1])

    def _remove(self) -> None:
        self._push("take a board off the rack", stock_edits.without_board)
