"""What the Make pages show and do: the operation in hand, glue stage, mishap, log, labels.

The window asks it for drawing, list and words; clicks come back to it; every edit goes through the session.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import datetime
from threading import Thread
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal

from oakmeasure.app.shell.job_book import JobBook
from oakmeasure.app.shell.part_lists import Listed
from oakmeasure.app.stages.make import lists as make_lists
from oakmeasure.core.base.units import counted
from oakmeasure.core.document.production import LogKind, MishapKind
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.drawings.make.glue_view import glue_view
from oakmeasure.core.drawings.make.make_views import LABELS_SHOWN, batch_view, labels_view, mishap_view
from oakmeasure.core.drawings.make.op_view import op_view
from oakmeasure.core.drawings.make.time_view import finish_view, time_view
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.drawings.views import MakePage
from oakmeasure.core.edits import log_edits
from oakmeasure.core.making.as_made import GOES_BACK, Change, changes
from oakmeasure.core.making.finish import Day, finish_days
from oakmeasure.core.making.labels import PieceLabel, labels_of
from oakmeasure.core.making.lessons import Lesson, at_operations, lessons_in
from oakmeasure.core.making.log import Pace, Progress, not_mended, own_pace, progress
from oakmeasure.core.making.operation import Operation, Trade
from oakmeasure.core.making.played import Played, Player, player_of
from oakmeasure.core.making.repair_case import Judgement
from oakmeasure.core.making.repairs import judge_mishap
from oakmeasure.core.making.spoilt_holes import holes_of
from oakmeasure.core.making.workdays import Workdays
from oakmeasure.core.making.working_plan import Timetable, timetable
from oakmeasure.core.reports.batch import Batch, batches
from oakmeasure.core.solver import solve_leaf
from oakmeasure.files.crash_log import log_trouble
from oakmeasure.gauges.label_client import PrinterError, send_labels

if TYPE_CHECKING:
    from oakmeasure.app.shell.session import Session
    from oakmeasure.gauges.label_printer import SimulatedPrinter


class MakeRoom(QObject):
    """Signals: `changed`, what is shown has changed without an edit; `printed(how many, trouble)`."""

    changed = Signal()
    printed = Signal(int, str)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.now: Callable[[], datetime] = lambda: datetime.now().replace(microsecond=0)
        self.kept_lessons: Sequence[Lesson] | None = None
        self.stage = 1
        self.label_page = 0
        self.wrong: tuple[MishapKind, str, float | None] = (MishapKind.HOLE_DEEP, "", None)
        self.wrong_hole = ""
        self.printer: SimulatedPrinter | None = None
        self._op_of: dict[str, str] = {}
        self._batch = ""
        self._batches: tuple[object, tuple[Batch, ...]] = (None, ())
        self._changes: dict[int, tuple[Change, ...]] = {}
        self._changes_of: object = None
        self._player: tuple[object, Player | None] = (None, None)

    # --- the operation in hand ---------------------------------------------------------------------------

    @property
    def operations(self) -> tuple[Operation, ...]:
        """Return the operations of the leaf in hand."""
        making = self.session.solved.making
        return making.operations if making is not None else ()

    def op(self) -> Operation | None:
        """Return the operation in hand: the one that was taken, else the running one, else the next."""
        operations = self.operations
        wanted = self._op_of.get(self.session.leaf_id, "")
        found = next((each for each in operations if each.id == wanted), None)
        if found is not None or not operations:
            return found
        states = self.states()
        for state in (Progress.RUNNING, Progress.STOPPED, Progress.READY):
            found = next((each for each in operations if states[each.id] is state), None)
            if found is not None:
                return found
        return operations[-1]

    def in_hand(self) -> str:
        """Return what the operation in hand is called in lists."""
        op = self.op()
        return f"op:{self._batch or op.id}" if op is not None else ""

    def states(self) -> dict[str, Progress]:
        """Return how far each operation of the leaf in hand is."""
        return progress(self.operations, self.session.leaf.making.log)

    def take(self, op_id: str) -> None:
        """Take an operation in hand; it is no edit."""
        self._op_of[self.session.leaf_id] = op_id
        self._batch = op_id
        self.changed.emit()

    def step(self, by: int) -> None:
        """Go on to the next operation, or back."""
        op, operations = self.op(), self.operations
        if op is not None:
            at = min(max(operations.index(op) + by, 0), len(operations) - 1)
            self.take(operations[at].id)

    def begin(self) -> str:
        """Write into the log that the operation in hand is started. Returns "" or why not."""
        op, at = self.op(), self.now()
        if op is None:
            return "there is no leaf yet"
        return self.session.push(f"start: {op.name}", lambda job: log_edits.begun(job, self.session.solved, op.id, at))

    def end(self, *, done: bool) -> str:
        """Write that it is done, or stopped; then the next one is in hand."""
        op, at = self.op(), self.now()
        if op is None:
            return "there is no leaf yet"
        reason = self.session.push(
            f"{'done' if done else 'stop'}: {op.name}",
            lambda job: log_edits.ended(job, self.session.solved, op.id, at, done=done),
        )
        if done and not reason:
            self._op_of.pop(self.session.leaf_id, None)
            self.changed.emit()
        return reason

    def played(self) -> Played:
        """Return the pieces of the leaf in hand as they lie after the operation in hand."""
        solved, op = self.session.solved, self.op()
        assert op is not None
        if self._player[0] is not solved:
            self._player = (solved, player_of(solved, self.operations))
        assert self._player[1] is not None
        return self._player[1].after(op.id)

    # --- lessons, pace, time -----------------------------------------------------------------------------

    def lessons(self) -> tuple[Lesson, ...]:
        """Return the lessons of this job and those that are kept."""
        if self.kept_lessons is None:
            from oakmeasure.files.job.lesson_store import kept_lessons

            self.kept_lessons = (*kept_lessons(), *self.session.room(JobBook).lessons())
        return (*lessons_in(self.session.job), *self.kept_lessons)

    def lessons_at(self) -> dict[str, tuple[Lesson, ...]]:
        """Return the lessons at each operation of the leaf in hand."""
        return at_operations(self.lessons(), self.session.leaf, self.operations)

    def pace(self) -> dict[Trade, Pace]:
        """Return one's own pace over all leaves that are worked out."""
        leaves = self.session.worked_out()
        return own_pace((each.making.operations, each.leaf.making.log) for each in leaves if each.making is not None)

    def timetable(self) -> Timetable | None:
        """Return when the rest of the leaf in hand is done."""
        operations = self.operations
        return timetable(operations, self.session.leaf.making, self.pace(), self.now()) if operations else None

    def coat_days(self) -> tuple[Day, ...]:
        """Return the calendar of the finish: from when its turn comes, by the timetable."""
        making, table = self.session.solved.making, self.timetable()
        if making is None or table is None:
            return ()
        slot = next((each for each in table.slots if each.op.id.startswith("finish:")), None)
        choices = self.session.leaf.making
        hours = slot.hours if slot is not None else 0.5
        return finish_days(
            making.finish,
            slot.start if slot is not None else table.begin,
            Workdays(choices.hours_a_day),
            hours_a_coat=max(hours, 0.1),
        )

    # --- what a reading changed --------------------------------------------------------------------------

    def changed_by(self) -> dict[int, tuple[Change, ...]]:
        """Return what each reading in the log has changed, by its place: the leaf with it against the leaf without."""
        solved, job = self.session.solved, self.session.job
        if self._changes_of is not solved:
            log, found = solved.leaf.making.log, {}
            for at, entry in enumerate(log):
                if entry.kind is LogKind.READING and entry.reading in GOES_BACK:
                    rest = solved.leaf.making.model_copy(update={"log": (*log[:at], *log[at + 1 :])})
                    found[at] = changes(solve_leaf(job, solved.leaf.model_copy(update={"making": rest})), solved)
            self._changes_of, self._changes = solved, found
        return self._changes

    def newest_change(self) -> str:
        """Return what the newest reading has changed, in words; "" where nothing."""
        found = self.changed_by()
        words = [make_lists.change_words(each, self.session.show) for each in found[max(found)][:4]] if found else []
        return ", ".join(words)

    # --- mishaps -----------------------------------------------------------------------------------------

    def judged(self) -> Judgement | None:
        """Return what the mishap that is described means; None until it is said how far it went wrong."""
        kind, part, by = self.wrong
        solved = self.session.solved
        if solved.build is None or (by is None and kind is not MishapKind.SCREW):
            return None
        return judge_mishap(solved, kind, part, by or 0.0, self.session.show, hole=self.hole())

    def holes(self) -> list[str]:
        """Return what is bored and cut in the part at hand for hardware, by name, where a hole went wrong."""
        kind, part, _by = self.wrong
        if kind not in (MishapKind.HOLE_DEEP, MishapKind.HOLE_OFF) or self.session.solved.build is None:
            return []
        return [each.name for each in holes_of(self.session.solved, part)]

    def hole(self) -> str:
        """Return the hole that went wrong: the one that was said, else the first that the operation in hand makes."""
        holes, op = self.holes(), self.op()
        if self.wrong_hole in holes:
            return self.wrong_hole
        return next((each for each in (*(op.cuts if op is not None else ()), *holes) if each in holes), "")

    def describe(self, kind: MishapKind, part: str, by: float | None) -> None:
        """Describe a mishap; it is no edit until it is written into the log."""
        self.wrong = (kind, part, by)
        self.changed.emit()

    def write_mishap(self, repair: str) -> str:
        """Write the mishap into the log with the repair that was chosen. Returns "" or why not."""
        kind, part, by = self.wrong
        op, at, session = self.op(), self.now(), self.session
        wrong = log_edits.Mishap(kind, part, by or 0.0, repair, op.id if op else "", self.hole())
        reason = session.push(f"mishap: {kind}", lambda job: log_edits.gone_wrong(job, session.solved, wrong, at))
        if not reason:
            self.wrong = (kind, part, None)
            self.changed.emit()
        return reason

    def note(self, text: str) -> str:
        """Write a note into the log of the leaf in hand. Returns "" or why not."""
        entry = {"at": self.now(), "kind": LogKind.NOTE, "text": text}
        leaf_id = self.session.leaf_id
        return self.session.push("note", lambda job: log_edits.with_entry(job, leaf_id, log_edits.entry_of(**entry)))

    # --- labels ------------------------------------------------------------------------------------------

    def labels(self) -> tuple[PieceLabel, ...]:
        """Return the labels of the leaf in hand."""
        return labels_of(self.session.solved, self.session.show, job=self.session.job.name)

    def tape(self) -> list[tuple[str, ...]]:
        """Return what has come out of the simulated printer."""
        return self.printer.tape if self.printer is not None else []

    def switch_printer(self) -> str:
        """Switch the simulated printer on, or off. Returns "" or why it cannot be."""
        from oakmeasure.gauges.label_printer import SimulatedPrinter

        if self.printer is not None:
            self.leave()
        else:
            try:
                self.printer = SimulatedPrinter()
            except OSError as error:
                return (error.strerror or str(error)).lower()
        self.changed.emit()
        return ""

    def print_labels(self, host: str, port: int) -> None:
        """Print the labels of the leaf in hand, off the main thread.

        `printed` says how many came out and what failed.
        """
        lines = [each.lines() for each in self.labels()]

        def run() -> None:
            try:
                self.printed.emit(send_labels(lines, host=host, port=port), "")
            except PrinterError as error:
                self.printed.emit(error.printed, str(error))
            except Exception as error:  # whatever it is, the button works again and it is said beside it
                self.printed.emit(0, log_trouble(error))

        Thread(target=run, name="labels", daemon=True).start()

    def leave(self) -> None:
        """Switch off what runs; the window closes."""
        if self.printer is not None:
            self.printer.close()
            self.printer = None

    # --- what is shown -----------------------------------------------------------------------------------

    def batches(self) -> tuple[Batch, ...]:
        """Return every operation over the leaves that are worked out."""
        leaves = self.session.worked_out()
        key = tuple(map(id, leaves))
        if self._batches[0] != key:
            self._batches = (key, batches(leaves))
        return self._batches[1]

    def batch(self) -> Batch | None:
        """Return the batch that is looked at: the one that was taken, or that of the operation in hand."""
        op = self.op()
        wanted = self._batch or (op.id if op is not None else "")
        return next((each for each in self.batches() if each.op_id == wanted), None)

    def drawing(self, page: MakePage) -> Drawing:
        """Return the drawing of a page."""
        session, op = self.session, self.op()
        solved, show = session.solved, session.show
        if solved.making is None:
            return empty_view("no leaf yet: nothing to make")
        if page is MakePage.BATCH:
            return batch_view(self.batch(), {each.leaf.id: each for each in session.worked_out()}, show)
        if page is MakePage.GLUE:
            return glue_view(solved, self.stage, self.session.show)
        if page is MakePage.FINISH:
            return finish_view(solved.making.finish, self.coat_days(), show)
        if page is MakePage.TIME:
            return time_view(self.timetable(), show, chosen=op.id if op else "")
        if page is MakePage.MISHAPS:
            kind, part, _ = self.wrong
            where = ", ".join(each for each in (self.hole(), part or "the leaf") if each)
            return mishap_view(solved, part, self.judged(), f"{kind}, {where}", show)
        if page is MakePage.LABELS:
            return labels_view(self.labels(), show, page=self.label_page)
        return op_view(solved, show, op.id if op else "")

    def listed(self, page: MakePage) -> Listed:
        """Return what stands under the drawing of a page."""
        session = self.session
        solved, show = session.solved, session.show
        if page is MakePage.BATCH:
            return make_lists.batch_list(self.batches(), self._batch)
        if page is MakePage.GLUE:
            return make_lists.glue_list(solved.making.glue if solved.making else None, self.session.show)
        if page is MakePage.FINISH:
            return make_lists.finish_list(solved.making.finish if solved.making else None, self.coat_days())
        if page is MakePage.TIME:
            return make_lists.time_list(self.timetable(), self.pace())
        if page is MakePage.MISHAPS:
            return make_lists.repair_list(self.judged(), show)
        if page is MakePage.LOG:
            return make_lists.log_list(solved, show, self.changed_by())
        if page is MakePage.LABELS:
            return make_lists.tape_list(self.labels(), self.tape())
        return make_lists.step_list(solved, show, self.lessons_at())

    def title(self, page: MakePage) -> str:
        """Return the words over the drawing."""
        solved = self.session.solved
        if page is MakePage.BATCH:
            batch = self.batch()
            if batch is None:
                return "One operation over all leaves"
            leaves = counted(len(batch.leaves), "leaf", "leaves")
            return f"{batch.name}: {leaves}, {counted(len(batch.alike()), 'set-up')}"
        if page is MakePage.TIME:
            return self._time_title()
        if page is MakePage.LOG:
            change = self.newest_change()
            return f"The newest reading: {change}" if change else "What was done, read and noted"
        if page is MakePage.MISHAPS:
            left = not_mended(solved.leaf.making.log)
            return f"{len(left)} not mended yet" if left else "When something goes wrong"
        op = self.op()
        if page is MakePage.STEPS and op is not None:
            return f"{self.operations.index(op) + 1} of {len(self.operations)}   {op.name}"
        words = {
            MakePage.GLUE: "The glue-up, stage by stage",
            MakePage.FINISH: "The coats, day by day",
            MakePage.LABELS: "Labels, one for every piece",
        }
        return words.get(page, "The operation in hand")

    def _time_title(self) -> str:
        table = self.timetable()
        if table is None:
            return "The time that it takes"
        if not table.is_late:
            return f"{table.hours:.1f} h of work left, {table.waits:.0f} h of waiting"
        late, first = f"{counted(table.days_late, 'day')} late", table.first_late
        return f"{late}; counted back, first too late: {first.op.name}" if first is not None else late

    def clicked(self, ref: str) -> None:
        """Take what was clicked on the drawing or in the list."""
        kind, _, name = ref.partition(":")
        if kind == "op":
            self.take(name)
        elif kind == "stage" and name.isdigit():
            self.stage = int(name)
            self.changed.emit()
        elif kind == "leaf":
            self.session.choose_leaf(name)

    def turn_labels(self, by: int) -> None:
        """Show other labels."""
        last = max(0, (len(self.labels()) - 1) // LABELS_SHOWN)
        self.label_page = min(max(self.label_page + by, 0), last)
        self.changed.emit()
