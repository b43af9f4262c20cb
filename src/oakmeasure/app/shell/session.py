"""The session: one open job, what follows from it, and every edit as one undo step.

Views read `job` and `solution` and send intents; only the session changes the job.
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar

from PySide6.QtCore import QObject, QTimer, Signal
from PySide6.QtGui import QUndoCommand, QUndoStack

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show, UnitSystem, in_words
from oakmeasure.core.document import field_path
from oakmeasure.core.document.job import Job, Leaf
from oakmeasure.core.drawings.timber.stock_view import owned
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Remedy, Stage
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.reports.compare_constructions import ConstructionComparison, beside, other_kinds
from oakmeasure.core.solution import LeafSolution, Solution
from oakmeasure.core.solver import LazySolution, Solver
from oakmeasure.files.job import job_file
from oakmeasure.language import SPOKEN, protect_names

Room = TypeVar("Room", bound=QObject)
OTHERS_AFTER = 400  # ms after a job is opened: first it is shown


class _Edit(QUndoCommand):
    """One intent with the job before and after. Nudges of the same field merge into one step."""

    def __init__(self, session: Session, text: str, before: Job, after: Job, key: str) -> None:
        super().__init__(text)
        self.session, self.before, self.after, self.key = session, before, after, key

    def redo(self) -> None:
        self.session._put(self.after)

    def undo(self) -> None:
        self.session._put(self.before)

    def id(self) -> int:
        return 1 if self.key else -1

    def mergeWith(self, other: QUndoCommand) -> bool:
        if not isinstance(other, _Edit) or other.key != self.key:
            return False
        self.after = other.after
        return True


class Session(QObject):
    """Signals: `changed` after every change of job, leaf, unit, board or mark; `stage_changed`, `working_changed` and
    `lit_changed` when one looks elsewhere; `others_known` when every leaf is worked out; `failed` of each leaf that
    cannot be.
    """

    changed = Signal()
    opened = Signal(object)  # the job, before anything shows it
    stage_changed = Signal()
    working_changed = Signal()
    lit_changed = Signal()
    saved_changed = Signal()
    field_asked = Signal(str)
    others_known = Signal()
    failed = Signal(object, bool)  # a leaf that the program fails over; whether the edit made just now did it

    def __init__(self, job: Job, path: Path | None = None) -> None:
        super().__init__()
        self.undo_stack = QUndoStack(self)
        self.undo_stack.cleanChanged.connect(self.saved_changed)
        self._solver = Solver()
        self.solution: LazySolution = self._solver.unfold(job)
        self._others = QTimer(self)
        self._others.timeout.connect(self._one_more)
        self._beside: ConstructionComparison | None = None
        self._beside_kind = ""
        self._board, self.mark = -1, -1
        self.stage = Stage.MEASURE
        self.working = ""
        self.lit = ""
        self._rooms: dict[type[QObject], QObject] = {}
        self.open(job, path)

    def room(self, kind: type[Room]) -> Room:
        """Return what a stage keeps while the job is open, made when it is first asked for.

        Args:
            kind: The stage's class, made of a session.

        Returns:
            The one of that kind.
        """
        found = self._rooms.get(kind)
        if not isinstance(found, kind):
            found = self._rooms[kind] = kind(self)
        return found

    # --- what is open ------------------------------------------------------------------------------------

    def open(self, job: Job, path: Path | None) -> None:
        """Take another job; the undo stack starts anew."""
        self.path = path
        self.leaf_id = job.leaves[0].id
        self.undo_stack.clear()
        self._others.setInterval(OTHERS_AFTER)
        self.opened.emit(job)
        self._put(job)
        self.saved_changed.emit()

    def _put(self, job: Job) -> None:
        self.job = job
        if all(each.id != self.leaf_id for each in job.leaves):
            self.leaf_id = job.leaves[-1].id
        protect_names(job.names)
        self.solution = self._solver.unfold(job)
        self.changed.emit()
        self._tell_fault(self.solved)
        if self.solution.next_missing() and not self._others.isActive():
            self._others.start()

    def _one_more(self) -> None:
        """Work out one of the leaves that nobody looks at; when none is left, say so."""
        missing = self.solution.next_missing()
        if missing:
            self._tell_fault(self.solution.leaf(missing))
            self._others.setInterval(0)  # from now on whenever nothing else is to be done
            return
        self._others.stop()
        self.others_known.emit()

    def _tell_fault(self, solved: LeafSolution, *, edited: bool = False) -> None:
        if solved.fault is not None:
            self.failed.emit(solved, edited)

    def whole(self) -> Solution:
        """Return the finished solution of all leaves, for lists and paper."""
        return self.solution.whole()

    def worked_out(self) -> list[LeafSolution]:
        """Return the leaves that are worked out by now; the others follow while nothing else is to be done."""
        found = (self.solution.known(each.id) for each in self.job.leaves)
        return [each for each in found if each is not None]

    @property
    def leaf(self) -> Leaf:
        return self.job.leaf(self.leaf_id)

    @property
    def solved(self) -> LeafSolution:
        return self.solution.leaf(self.leaf_id)

    @property
    def show(self) -> Show:
        return Show(self.job.unit, speech=SPOKEN)

    @property
    def is_saved(self) -> bool:
        return self.undo_stack.isClean()

    def save(self, path: Path) -> None:
        """Write the job. Raises JobFileError; then nothing has changed."""
        job_file.save(self.job, path)
        self.path = path
        self.undo_stack.setClean()
        self.saved_changed.emit()

    # --- where one looks -----------------------------------------------------------------------------------

    def go_to(self, stage: Stage) -> None:
        if stage is not self.stage:
            self.stage = stage
            self.stage_changed.emit()

    def choose_leaf(self, leaf_id: str) -> None:
        if leaf_id != self.leaf_id:
            self.leaf_id = leaf_id
            self.changed.emit()

    # --- the rack ------------------------------------------------------------------------------------------

    def board_in_hand(self) -> int | None:
        """Return the place of the board that is looked at; None where there is none on the rack."""
        places = owned(self.job)
        if not places:
            return None
        return self._board if self._board in places else places[0]

    def take_board(self, at: int) -> None:
        """Look at another board of the rack; it is no edit."""
        self._board, self.mark = at, -1
        self.changed.emit()

    def take_mark(self, at: int) -> None:
        """Take one of the board's marks in hand."""
        self.mark = at
        self.changed.emit()

    def beside_kind(self) -> str:
        """Return the construction that stands beside the leaf in hand."""
        kinds = [key for key, _ in other_kinds(self.leaf.build.kind)]
        return self._beside_kind if self._beside_kind in kinds else kinds[0]

    def put_beside(self, kind: str) -> None:
        """Choose the construction that stands beside the leaf; it is no edit."""
        self._beside_kind = kind

    def beside(self) -> ConstructionComparison:
        """Return the leaf in hand beside itself in another construction, worked out when it is first asked for."""
        kind, solved = self.beside_kind(), self.solved
        if self._beside is None or self._beside.one is not solved or self._beside.other.leaf.build.kind != kind:
            self._beside = beside(self.job, self.leaf_id, solved, kind)
        return self._beside

    def show_working(self, figure: str) -> None:
        if figure and figure_name(figure) in self.solved.figures:
            self.working = figure
            self.working_changed.emit()

    def light(self, ref: str) -> None:
        """Light one thing up everywhere: on the drawing, in the lists, in the sheet."""
        if ref != self.lit:
            self.lit = ref
            self.lit_changed.emit()

    # --- edits -----------------------------------------------------------------------------------------------

    def push(self, text: str, change: Callable[[Job], Job], *, key: str = "") -> str:
        """Make an edit as one undo step. Returns "" or, when the document refuses it, the reason in plain words."""
        try:
            after = change(self.job)
        except InputError as error:
            return in_words(error, self.show)
        if after != self.job:
            before = self.solved
            self.undo_stack.push(_Edit(self, text, self.job, after, key))
            if (before.leaf.id, repr(before.fault)) != (self.leaf_id, repr(self.solved.fault)):
                self._tell_fault(self.solved, edited=True)
        return ""

    def edit(self, path: str, value: Any, *, nudge: bool = False) -> str:
        """Set a field of the leaf; see `push`."""
        name = path.rpartition(".")[2].replace("_", " ")
        key = f"{self.leaf_id}:{path}" if nudge else ""
        return self.push(f"set {name}", lambda job: job_edits.with_field(job, self.leaf_id, path, value), key=key)

    def set_state(self, path: str, state: Provenance) -> str:
        return self.push(f"mark as {state}", lambda job: job_edits.with_state(job, self.leaf_id, path, state))

    def set_unit(self, unit: UnitSystem) -> None:
        self.push(f"show {unit}", lambda job: field_path.with_value(job, "unit", unit))

    def take(self, remedy: Remedy) -> str:
        return self.push(remedy.text, lambda job: job_edits.with_remedy(job, self.leaf_id, remedy))
