"""The few questions that are asked in a box of their own."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QDialog, QDialogButtonBox, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.forms.notes import label, tell
from oakmeasure.app.forms.quantity_edit import BoxLook, QuantityEdit
from oakmeasure.app.shell.session import Session
from oakmeasure.app.tools.file_dialogs import answered
from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show, Unit, UnitSystem, in_words
from oakmeasure.core.document.field_path import with_value
from oakmeasure.core.document.job import Hand, Job, new_job
from oakmeasure.core.edits.job_edits import with_acknowledged, with_field, with_leaf, with_start
from oakmeasure.core.figures.check import Check
from oakmeasure.language import tr


def _buttons(dialog: QDialog, accept: str) -> QDialogButtonBox:
    box = QDialogButtonBox()
    ok = box.addButton(tr(accept), QDialogButtonBox.ButtonRole.AcceptRole)
    ok.setObjectName("accept")
    cancel = box.addButton(tr("Not now"), QDialogButtonBox.ButtonRole.RejectRole)
    cancel.setProperty("role", "plain")
    box.accepted.connect(dialog.accept)
    box.rejected.connect(dialog.reject)
    return box


class NewJob(QDialog):
    """A new job in three questions: what is it for, how does it hang, what did you read.

    Or, at a start with nothing to open, a look at the job that ships with the application: `wants_demo`.
    """

    def __init__(self, parent: QWidget | None, unit: UnitSystem, *, offers_demo: bool = False) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("New job"))
        self.setMinimumWidth(420)
        self.job: Job = new_job(unit=unit, rules="workshop-inch" if unit is UnitSystem.INCH else "site-metric")
        self._entries: list[QuantityEdit] = []
        self.wants_demo = False
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 20, 24, 18)
        column.setSpacing(8)
        column.addWidget(label("What is it for?", "group"))
        self.name = QLineEdit()
        self.name.setObjectName("find")
        self.name.setPlaceholderText(tr("seed room door"))
        self.name.setAccessibleName(tr("what the leaf is for"))
        column.addWidget(self.name)
        column.addWidget(label("How does it hang?", "group"))
        self.hand = ChoiceBox()
        self.hand.addItems([tr(each) for each in [f"on butts in a lining, {each}" for each in Hand]])
        self.hand.setAccessibleName(tr("how the leaf hangs"))
        column.addWidget(self.hand)
        column.addWidget(label("seen from the opening side, where the knuckles show", "pencil"))
        column.addWidget(label("What did you read?", "group"))
        row = QHBoxLayout()
        self._note = label("", "pencil")
        self._note.hide()
        for title, path in (("width", "width_middle"), ("height", "height_middle")):
            row.addWidget(self._entry(title, f"readings.{path}"))
        column.addLayout(row)
        column.addWidget(self._note)
        column.addWidget(label("Leave them as they are if nothing is measured yet: they count as assumed.", "pencil"))
        column.addSpacing(8)
        buttons = _buttons(self, "Show the leaf")
        if offers_demo:
            look = buttons.addButton(tr("Look at a finished job first"), QDialogButtonBox.ButtonRole.ResetRole)
            look.setObjectName("demo")
            look.setProperty("role", "plain")
            look.clicked.connect(self._look)
        column.addWidget(buttons)

    def _look(self) -> None:
        self.wants_demo = True
        super().accept()  # whatever stands in the boxes

    def _entry(self, title: str, path: str) -> QuantityEdit:
        entry = QuantityEdit(
            title, Unit.MM, lambda value, _nudge: self._set(path, value), name=path, look=BoxLook.COMPACT
        )
        entry.told.connect(lambda text, refused: tell(self._note, text, refused))
        reading = getattr(self.job.leaves[0].readings, path.partition(".")[2])
        entry.show_value(reading.value, Show(self.job.unit))
        self._entries.append(entry)
        return entry

    def _set(self, path: str, value: float | None) -> str:
        try:
            self.job = with_field(self.job, self.job.leaves[0].id, path, value)
        except InputError as error:
            return in_words(error, Show(self.job.unit))
        return ""

    def accept(self) -> None:
        if not all(entry.commit() for entry in self._entries):
            return
        name = self.name.text().strip() or "Leaf 1"
        hand = list(Hand)[self.hand.currentIndex()]
        leaf_id = self.job.leaves[0].id
        self.job = with_leaf(
            self.job, leaf_id, lambda leaf: with_value(with_value(leaf, "name", name[:80]), "hand", hand)
        )
        self.job = with_start(with_value(self.job, "name", name[:80]), leaf_id)
        super().accept()


class AnswerStops(QDialog):
    """Before a bench sheet is printed, or a leaf signed off, every stop is answered for; the reasons go with it."""

    def __init__(
        self, parent: QWidget | None, stops: list[Check], answer: Callable[[str, str], str], *, signs: bool = False
    ) -> None:
        """signs: the leaf is signed off; else a sheet is printed."""
        super().__init__(parent)
        self.setWindowTitle(tr("Stops to answer for"))
        self.setMinimumWidth(520)
        self._answer = answer
        self._reasons: list[tuple[Check, QLineEdit]] = []
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 20, 24, 18)
        column.setSpacing(8)
        lead = label(
            "These stops stand open. Say why the leaf may hang all the same: the record keeps it."
            if signs
            else "The sheet would carry these stops. Say why it may go to the bench all the same.",
            "pencil",
        )
        lead.setWordWrap(True)
        column.addWidget(lead)
        for stop in stops:
            column.addWidget(label(stop.title, "group"))
            sentence = label(stop.sentence, "pencil")
            sentence.setWordWrap(True)
            column.addWidget(sentence)
            reason = QLineEdit()
            reason.setObjectName("find")
            reason.setAccessibleName(tr(f"reason, {stop.title}"))
            column.addWidget(reason)
            self._reasons.append((stop, reason))
        self._refused = label("", "refused")
        self._refused.hide()
        column.addWidget(self._refused)
        column.addWidget(_buttons(self, "Sign with these reasons" if signs else "Print with these reasons"))

    def accept(self) -> None:
        for stop, reason in self._reasons:
            refused = (
                "write a reason" if len(reason.text().strip()) < 3 else self._answer(stop.code, reason.text().strip())
            )
            if refused:
                self._refused.setText(tr(f"{stop.title}: {refused}"))
                self._refused.show()
                reason.setFocus()
                return
        super().accept()


def answered_for(parent: QWidget | None, session: Session, *, signs: bool = False) -> bool:
    """Ask for a reason for every stop of the leaf in hand that has none; returns whether all are answered for."""
    stops, leaf_id = session.solved.open_stops(), session.leaf_id

    def answer(code: str, reason: str) -> str:
        return session.push("answer a stop", lambda job: with_acknowledged(job, leaf_id, code, reason))

    return not stops or answered(AnswerStops(parent, stops, answer, signs=signs))
