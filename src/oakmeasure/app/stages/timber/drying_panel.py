"""The sheet of the moisture log: which board, a reading of a day, the readings so far."""

from __future__ import annotations

from datetime import date
from functools import partial

from PySide6.QtCore import QDate
from PySide6.QtWidgets import QDateEdit, QHBoxLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.forms.notes import note_label, tell
from oakmeasure.app.forms.quantity_edit import Asked, QuantityEdit
from oakmeasure.app.shell.session import Session
from oakmeasure.core.base.units import Unit
from oakmeasure.core.drawings.timber.stock_view import owned
from oakmeasure.core.edits import stock_edits
from oakmeasure.language import tr


class DryingPanel(QWidget):
    """Writes readings to the board in hand."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(5)
        self.which = ChoiceBox()
        self.which.setObjectName("dryingBoard")
        self.which.setAccessibleName(tr("board in hand"))
        self.which.activated.connect(lambda at: session.take_board(owned(session.job)[at]))
        column.addWidget(self.which)
        row = QHBoxLayout()
        self.day = QDateEdit(QDate.currentDate())
        self.day.setObjectName("drying.day")
        self.day.setAccessibleName(tr("day of the reading"))
        self.day.setDisplayFormat("d MMM yyyy")
        self.day.setCalendarPopup(True)
        row.addWidget(self.day, 1)
        self.percent = QuantityEdit(
            "moisture", Unit.PERCENT, self._write, name="drying.percent", asks=Asked(optional=True)
        )
        self.percent.setFixedWidth(126)
        row.addWidget(self.percent)
        column.addLayout(row)
        self.note = note_label()
        self.percent.told.connect(lambda text, refused: tell(self.note, text, refused))
        column.addWidget(self.note)
        self._box = QVBoxLayout()
        self._box.setSpacing(0)
        column.addLayout(self._box)
        self._shown: list[QWidget] = []

    def refresh(self) -> None:
        """Show the readings of the board in hand."""
        session, at = self.session, self.session.board_in_hand()
        words = [session.job.boards[n].label or "–" for n in owned(session.job)]
        self.which.offer(words)
        for old in self._shown:
            old.hide()
            self._box.removeWidget(old)
            old.deleteLater()
        self._shown = []
        if at is None:
            return
        self.which.setCurrentIndex(owned(session.job).index(at))
        for each in reversed(session.job.boards[at].readings):
            row = QWidget()
            line = QHBoxLayout(row)
            line.setContentsMargins(0, 0, 0, 0)
            line.addWidget(QLabel(tr(f"{each.day:%d %b %Y}")), 1)
            line.addWidget(QLabel(tr(f"{each.percent:g} %")))
            away = QToolButton()
            away.setText("×")
            away.setAccessibleName(tr(f"take the reading of {each.day:%d %b %Y} off"))
            away.clicked.connect(partial(self._remove, each.day))
            line.addWidget(away)
            self._box.addWidget(row)
            self._shown.append(row)

    def _write(self, value: float | None, _nudge: bool) -> str:
        at = self.session.board_in_hand()
        if value is None or at is None:
            return ""
        chosen = self.day.date()
        day = date(chosen.year(), chosen.month(), chosen.day())
        reason = self.session.push("write a reading", lambda job: stock_edits.with_reading(job, at, day, value))
        if not reason:
            self.percent.clear()
        return reason

    def _remove(self, day: date, _on: bool = False) -> None:
        at = self.session.board_in_hand()
        if at is not None:
            self.session.push("take a reading off", lambda job: stock_edits.without_reading(job, at, day))
