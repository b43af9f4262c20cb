"""The panels of the Make sheet.

The operation in hand with its log buttons, batch, glue clock, days, mishaps, labels.
"""

from __future__ import annotations

from collections.abc import Callable
from datetime import date

from PySide6.QtCore import QDate, Qt
from PySide6.QtWidgets import QCheckBox, QDateEdit, QHBoxLayout, QLabel, QLineEdit, QPushButton, QVBoxLayout, QWidget

from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.forms.notes import label, note_label, tell
from oakmeasure.app.forms.quantity_edit import Asked, QuantityEdit
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.production import MishapKind
from oakmeasure.core.making.log import Progress, not_mended, spent
from oakmeasure.core.making.operation import time_words
from oakmeasure.core.making.working_plan import day_words
from oakmeasure.language import tr

STATE_WORDS = {
    Progress.OPEN: "not begun",
    Progress.READY: "next",
    Progress.RUNNING: "running",
    Progress.STOPPED: "stopped",
    Progress.DONE: "done",
}


class Stack(QWidget):
    """A column of widgets with a note at its end."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session, self.room = session, session.room(MakeRoom)
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(6)
        self.note = note_label()

    def words(self, role: str = "pencil") -> QLabel:
        """Add a label that wraps."""
        made = label("", role)
        made.setWordWrap(True)
        self.column.addWidget(made)
        return made

    def button(self, words: str, name: str, what: Callable[[], object], *, role: str = "") -> QPushButton:
        """Return a button; one in no role is the one that matters."""
        made = QPushButton(tr(words))
        made.setObjectName(name)
        if role:
            made.setProperty("role", role)
        made.clicked.connect(lambda _on=False: self.show_note(what()))
        return made

    def row(self, *widgets: QWidget) -> QHBoxLayout:
        """Add widgets side by side."""
        line = QHBoxLayout()
        line.setSpacing(6)
        for each in widgets:
            line.addWidget(each, 1)
        self.column.addLayout(line)
        return line

    def show_note(self, reason: object) -> None:
        """Say why something was refused; nothing where it was not."""
        tell(self.note, reason if isinstance(reason, str) else "", True)


def choice(name: str, words: str, options: list[str], chosen: Callable[[int], object]) -> ChoiceBox:
    """Return a choice of words."""
    made = ChoiceBox()
    made.setObjectName(name)
    made.setAccessibleName(tr(words))
    made.addItems([tr(each) for each in options])
    made.activated.connect(chosen)
    return made


class StepPanel(Stack):
    """The operation in hand: start, stop, done; back and on; the workshop mode; what was learnt before."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        room = self.room
        self.name, self.state = self.words("head"), self.words()
        self.start = self.button("Start", "stepStart", room.begin)
        self.done = self.button("Done", "stepDone", lambda: room.end(done=True))
        self.stop = self.button("Stop", "stepStop", lambda: room.end(done=False), role="plain")
        self.row(self.start, self.stop, self.done)
        self.row(
            self.button("‹ back", "stepBack", lambda: room.step(-1), role="plain"),
            self.button("on ›", "stepOn", lambda: room.step(1), role="plain"),
        )
        self.needs = self.words()
        self.lesson = self.words("lesson")
        self.lesson.setObjectName("lesson")
        self.column.addWidget(self.note)

    def refresh(self) -> None:
        """Show the operation in hand."""
        room, op = self.room, self.room.op()
        for each in (self.start, self.stop, self.done):
            each.setEnabled(op is not None)
        if op is None:
            self.name.setText(tr("No leaf yet"))
            return
        states = room.states()
        state = states[op.id]
        mine = spent(self.session.leaf.making.log, op.id)
        took = f", {mine.hours:.1f} h at it" if mine.hours else ""
        since = f" since {mine.since:%H:%M}" if mine.since else ""
        wait = f"; then {time_words(op.wait_hours)} for {op.wait_for}" if op.wait_hours else ""
        self.name.setText(tr(op.name))
        self.state.setText(tr(f"{STATE_WORDS[state]}{since}{took}; about {op.hours:.1f} h{wait}"))
        self.start.setText(tr("Resume" if state in (Progress.STOPPED, Progress.DONE) else "Start"))
        self.start.setEnabled(state is not Progress.RUNNING)
        self.stop.setEnabled(state is Progress.RUNNING)
        names = {each.id: each.name for each in room.operations}
        missing = [names[need] for need in op.needs if states[need] is not Progress.DONE]
        text = f"first: {'; '.join(missing[:3])}" + (f" and {len(missing) - 3} more" if len(missing) > 3 else "")
        self.needs.setText(tr(text if missing else ""))
        self.needs.setVisible(bool(missing))
        lessons = room.lessons_at().get(op.id, ())
        self.lesson.setText(
            tr("\n".join(f"Learnt, {day_words(each.on)}, {each.leaf}: {each.text}" for each in lessons))
        )
        self.lesson.setVisible(bool(lessons))


class BatchPanel(Stack):
    """The operation over all leaves, in groups that share every setting."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.name, self.groups = self.words("head"), self.words()
        self.column.addWidget(self.note)

    def refresh(self) -> None:
        """Show the batch that is looked at."""
        batch, show = self.room.batch(), self.session.show
        if batch is None:
            self.name.setText(tr("No operation yet"))
            return
        self.name.setText(tr(batch.name))
        lines = []
        for n, group in enumerate(batch.alike(), start=1):
            settings = ", ".join(each.in_words(show) for each in group[0].op.settings[:5]) or "as it comes"
            lines.append(f"{n}.  {settings}\n     {'; '.join(each.leaf for each in group)}")
        self.groups.setText(tr("\n".join(lines)))


class GluePanel(Stack):
    """Which stage, and the clock."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.which = choice("glueStage", "stage of the glue-up", [], self._choose)
        self.column.addWidget(self.which)
        self.warning = self.words()
        self.go = self.button("Dry fit done: start the clock", "glueClock", self._clock)
        self.column.addWidget(self.go)
        self.column.addWidget(self.note)

    def refresh(self) -> None:
        """Show the stages of the leaf in hand."""
        making = self.session.solved.making
        plan = making.glue if making is not None else None
        words = [
            f"{task.task.name}, stage {stage.number} of {len(task.stages)}"
            for task in (plan.tasks if plan else ())
            for stage in task.stages
        ]
        self.which.offer(words)
        self.room.stage = min(max(self.room.stage, 1), max(len(words), 1))
        self.which.setCurrentIndex(self.room.stage - 1)
        found = plan.stage(self.room.stage) if plan is not None else None
        self.go.setEnabled(found is not None)
        self.which.setVisible(bool(words))
        if plan is None or found is None:
            self.warning.setText(tr("" if plan is None else "No stage fits: see what would help."))
            return
        self.warning.setText(
            tr(
                f"{found[1].minutes:.1f} of {plan.glue.open_minutes:.1f} minutes, {plan.spare(found[1]):.1f} to spare. "
                "Before the first bead: put it together dry, every clamp set, cauls and a rag at hand."
            )
        )

    def _choose(self, at: int) -> None:
        self.room.stage = at + 1
        self.room.changed.emit()

    def _clock(self) -> str:
        from oakmeasure.app.stages.make.glue_clock import GlueClock

        making = self.session.solved.making
        found = making.glue.stage(self.room.stage) if making is not None and making.glue is not None else None
        if making is None or making.glue is None or found is None:
            return "no stage to start"
        self.clock = GlueClock(self.window(), making.glue.glue.open_minutes, found[1])
        self.clock.show()
        return ""


class DaysPanel(Stack):
    """When it is to begin and when it is due; neither need be said."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.edits: dict[str, tuple[QCheckBox, QDateEdit]] = {}
        for field, words in (("start", "begins"), ("due", "hung by")):
            box = QCheckBox(tr(words))
            box.setObjectName(f"has-{field}")
            day = QDateEdit(QDate.currentDate())
            day.setObjectName(f"making.{field}")
            day.setAccessibleName(tr(words))
            day.setDisplayFormat("ddd d MMM yyyy")
            day.setCalendarPopup(True)
            box.toggled.connect(lambda on, field=field: self._put(field, on))
            day.dateChanged.connect(lambda _day, field=field: self._put(field, self.edits[field][0].isChecked()))
            self.edits[field] = (box, day)
            self.row(box, day)
        self.column.addWidget(self.note)

    def refresh(self) -> None:
        """Show the days of the leaf in hand."""
        for field, (box, day) in self.edits.items():
            value: date | None = getattr(self.session.leaf.making, field)
            for each in (box, day):
                each.blockSignals(True)
            box.setChecked(value is not None)
            day.setEnabled(value is not None)
            if value is not None:
                day.setDate(QDate(value.year, value.month, value.day))
            for each in (box, day):
                each.blockSignals(False)

    def _put(self, field: str, on: bool) -> None:
        chosen = self.edits[field][1].date()
        day = date(chosen.year(), chosen.month(), chosen.day()) if on else None
        self.show_note(self.session.edit(f"making.{field}", day))


class MishapPanel(Stack):
    """What went wrong, where and by how much; then the repair, and into the log."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.kinds = list(MishapKind)
        self.kind = choice("mishapKind", "what went wrong", [str(each).capitalize() for each in self.kinds], self._said)
        self.part = choice("mishapPart", "part", [], self._said)
        self.hole = choice("mishapHole", "which hole", [], self._said)
        self.by = QuantityEdit("by how much", Unit.MM, self._sized, name="mishap.by", asks=Asked(optional=True))
        for each in (self.kind, self.part, self.hole):
            self.column.addWidget(each)
        line = QHBoxLayout()
        line.addWidget(QLabel(tr("by, or how long")), 1)
        self.by.setFixedWidth(126)
        line.addWidget(self.by)
        self.column.addLayout(line)
        self.by.told.connect(lambda text, refused: tell(self.note, text, refused))
        self.repair = choice("mishapRepair", "repair", [], lambda _at: None)
        self.column.addWidget(self.repair)
        self.write = self.button("Write it into the log", "mishapWrite", self._write)
        self.column.addWidget(self.write)
        self.column.addWidget(self.note)
        self.open = self.words()

    def refresh(self) -> None:
        """Show the mishap that is described, and those that are not mended."""
        kind, part, by = self.room.wrong
        parts, holes = self._parts(), self.room.holes()
        self.hole.offer(holes)
        self.hole.setVisible(bool(holes))
        self.hole.setCurrentIndex(holes.index(self.room.hole()) if holes else -1)
        self.part.offer(parts)
        self.kind.setCurrentIndex(self.kinds.index(kind))
        self.part.setCurrentIndex(parts.index(part) if part in parts else 0)
        self.by.show_value(by, self.session.show)
        judged = self.room.judged()
        fits = [each for each in judged.repairs if each.fits] if judged is not None else []
        names = [each.name for each in fits]
        self._keys = [each.key for each in fits]
        self.repair.offer(names)
        self.repair.setVisible(bool(names))
        self.write.setEnabled(judged is not None)
        left = not_mended(self.session.leaf.making.log)
        self.open.setText(tr("\n".join(f"not mended: {each.mishap}, {each.part or 'the leaf'}" for each in left)))

    def _parts(self) -> list[str]:
        return ["the leaf", *(each.name for each in self.session.solved.cut_parts)]

    def _described(self, by: float | None) -> None:
        at = self.part.currentIndex()
        holes = self.room.holes()
        if 0 <= self.hole.currentIndex() < len(holes):
            self.room.wrong_hole = holes[self.hole.currentIndex()]
        self.room.describe(self.kinds[self.kind.currentIndex()], self._parts()[at] if at > 0 else "", by)
        self.refresh()

    def _said(self, _at: int) -> None:
        self._described(self.room.wrong[2])

    def _sized(self, value: float | None, _nudge: bool) -> str:
        self._described(value)
        return ""

    def _write(self) -> str:
        at = self.repair.currentIndex()
        return self.room.write_mishap(self._keys[at] if 0 <= at < len(self._keys) else "")


class LabelPanel(Stack):
    """A sheet of labels, or a printer that listens on a socket."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        room = self.room
        self.row(
            self.button("‹", "labelsBack", lambda: room.turn_labels(-1), role="plain"),
            self.button("›", "labelsOn", lambda: room.turn_labels(1), role="plain"),
        )
        self.column.addWidget(label("Label printer", "group"))
        self.host, self.port = QLineEdit("127.0.0.1"), QLineEdit("9321")
        for line, name, words in ((self.host, "printerHost", "machine"), (self.port, "printerPort", "port")):
            line.setObjectName(name)
            line.setProperty("role", "box")
            line.setAccessibleName(tr(words))
        self.row(self.host, self.port)
        self.go = self.button("Print the labels of this leaf", "printLabels", self._print)
        self.column.addWidget(self.go)
        self.sim = self.button("Switch the simulated printer on", "simPrinter", self._switch, role="link")
        self.column.addWidget(self.sim, alignment=Qt.AlignmentFlag.AlignLeft)
        self.column.addWidget(self.note)
        room.printed.connect(self._printed)

    def refresh(self) -> None:
        """Show whether the simulated printer is on."""
        printer = self.room.printer
        self.sim.setText(tr("Switch the simulated printer off" if printer else "Switch the simulated printer on"))

    def _switch(self) -> str:
        reason = self.room.switch_printer()
        if self.room.printer is not None:
            self.host.setText("127.0.0.1")
            self.port.setText(str(self.room.printer.port))
        self.refresh()
        return reason

    def _print(self) -> str:
        text = self.port.text().strip()
        if not text.isdigit() or not 0 < int(text) < 65536:
            return f"{text or 'nothing'} is no port: 1 to 65535"
        self.go.setEnabled(False)
        self.room.print_labels(self.host.text().strip(), int(text))
        return ""

    def _printed(self, count: int, trouble: str) -> None:
        self.go.setEnabled(True)
        tell(self.note, trouble or f"{count} labels printed", bool(trouble))
        self.room.changed.emit()
