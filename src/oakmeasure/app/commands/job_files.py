"""The job's own file: new, open, save, earlier saves, and what a run that ended badly has left."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QMessageBox

from oakmeasure.app.commands.autosave import Keeper
from oakmeasure.app.commands.papers import Host, Papers
from oakmeasure.app.shell.last_seen import Seen, keep_look
from oakmeasure.app.shell.session import Session
from oakmeasure.app.tools.dialogs import NewJob
from oakmeasure.app.tools.file_dialogs import answered, file_name, say_kinds
from oakmeasure.core.document.job import new_job
from oakmeasure.core.solution import LeafSolution
from oakmeasure.files.crash_log import log_trouble
from oakmeasure.files.job.job_file import SUFFIX, JobFileError, load
from oakmeasure.files.job.journal import Left
from oakmeasure.language import tr

JOB_FILTER = f"Jobs (*{SUFFIX})"


class JobFiles(Papers):
    """`ask_*` are replaced in tests by functions that answer."""

    def __init__(self, host: Host, session: Session) -> None:
        super().__init__(host, session)
        self.keeper = Keeper(session)
        self.keeps_look = False  # a program that a person started does
        self._logged: set[tuple[str, str]] = set()
        session.failed.connect(self.leaf_failed)
        self.leaf_failed(session.solved, edited=False)
        self.keeper.troubled.connect(lambda why: self.tell("Edits are not kept", f"Until the next save: {why}."))

    def leaf_failed(self, solved: LeafSolution, edited: bool) -> None:
        """Log a leaf that the program fails over, once; an edit that made it fail is offered to be taken back."""
        fault = solved.fault
        if fault is None:
            return
        which = solved.leaf.id, repr(fault)
        if which not in self._logged:
            self._logged.add(which)
            log_trouble(fault)
        if edited and self.ask_back(solved.leaf.name) == "back":
            self.session.undo_stack.undo()

    # --- asking ------------------------------------------------------------------------------------------

    def ask_file(self, title: str, kinds: str) -> str:
        return QFileDialog.getOpenFileName(self.window, tr(title), self._folder(), say_kinds(kinds))[0]

    def ask_open_path(self) -> str:
        return self.ask_file("Open a job", JOB_FILTER)

    def _asked(self, title: str, text: str, answers: dict[str, str]) -> str:
        """Ask with a button for each answer; returns its key, the last one's where the box is shut.

        answers: words by their keys, the safest last.
        """
        box = QMessageBox(self.window)
        box.setWindowTitle(tr(title))
        box.setText(tr(text))
        keys = list(answers)
        roles = [QMessageBox.ButtonRole.AcceptRole, QMessageBox.ButtonRole.DestructiveRole]
        buttons = {
            box.addButton(
                tr(answers[key]), roles[min(n, 1)] if key != keys[-1] else QMessageBox.ButtonRole.RejectRole
            ): key
            for n, key in enumerate(keys)
        }
        answered(box)
        return next((key for button, key in buttons.items() if button is box.clickedButton()), keys[-1])

    def ask_keep(self) -> str:
        """Return "save", "leave" or "stay" for a job with unsaved edits."""
        text = f"“{self.session.job.name}” has changes that are not saved."
        return self._asked("Not saved", text, {"save": "Save", "leave": "Leave them", "stay": "Stay here"})

    def ask_back(self, name: str) -> str:
        """Return "back" or "keep" for an edit that the program fails over."""
        text = (
            f"The program fails over “{name}” as it is now. That is not your doing. Every other leaf goes on, and this "
            "one too, once the change is taken back."
        )
        return self._asked(
            "This leaf cannot be worked out", text, {"keep": "Keep the change", "back": "Take the change back"}
        )

    def ask_taken(self, path: Path) -> str:
        """Return "copy" or "stay" for a file that another window has open."""
        text = f"{path.name} is open in another window. Two at once would write over one another."
        return self._asked("Open already", text, {"copy": "Open a copy, saved under another name", "stay": "Stay here"})

    def ask_changed(self, path: Path) -> str:
        """Return "as", "over" or "stay" for a file that somebody else has changed since it was opened."""
        text = (
            f"{path.name} was changed by someone else since it was opened here. What is written over is kept among "
            "the earlier saves."
        )
        return self._asked(
            "Changed meanwhile", text, {"as": "Save under another name", "over": "Write over it", "stay": "Not now"}
        )

    def ask_left(self, left: Left) -> str:
        """Return "take", "drop" or "later" for what another run left unsaved."""
        where = left.path.name if left.path is not None else "never saved"
        edits = "1 edit was" if left.edits == 1 else f"{left.edits} edits were"
        text = (
            f"“{left.job.name}” ({where}): {edits} not saved when the program ended, the last on "
            f"{left.at:%d %B %Y at %H:%M}."
        )
        return self._asked(
            "Not saved last time",
            text,
            {"take": "Take them up again", "drop": "Throw them away", "later": "Ask again next time"},
        )

    def leave(self) -> None:
        """The window closes: what is being written is stopped, what is not saved was let go."""
        if self.writer is not None and self.writer.thread_at_work.is_alive():
            self.writer.leave()
        self.keeper.close()
        if self.keeps_look and self.session.is_saved:
            self._keep_look()

    def where(self) -> Seen:
        """Return where one is now."""
        return self.host.where()

    def _keep_look(self) -> None:
        """Keep how the job looks, for its next start; of a job without a file only the demo job's."""
        from oakmeasure.files.job.job_file import demo_job

        session = self.session
        if session.path is not None or session.job == demo_job():
            keep_look(self.window.grab(), self.where(), session.path)

    # --- files -------------------------------------------------------------------------------------------

    def may_close(self) -> bool:
        """Return whether the job may be left: it is saved, or the person says so."""
        if self.session.is_saved:
            return True
        answer = self.ask_keep()
        return self.save() if answer == "save" else answer == "leave"

    def new_job(self, *, first: bool = False) -> None:
        """Ask for a new job in three questions. first: nothing is open yet; the demo job is offered too."""
        if not self.may_close():
            return
        dialog = NewJob(self.window, self.session.job.unit, offers_demo=first)
        if not answered(dialog):
            return
        if dialog.wants_demo:
            from oakmeasure.files.job.job_file import demo_job

            self.session.open(demo_job(), None)
        else:
            self.session.open(dialog.job, None)

    def open(self) -> None:
        if not self.may_close():
            return
        path = self.ask_open_path()
        if path:
            self.open_path(Path(path))

    def open_path(self, path: Path) -> bool:
        """Open a job file; one that is refused leaves the open job as it is."""
        try:
            job = load(path)
        except JobFileError as error:
            self.tell("Not opened", str(error))
            return False
        if self.keeper.claim.take(path):
            self.session.open(job, path)
        elif self.ask_taken(path) == "copy":
            self.session.open(job, None)
        else:
            return False
        return True

    def of_another(self, path: Path) -> None:
        """A file that was given at the start is open in another window: a copy of it, or a new job."""
        job = self.session.job if self.ask_taken(path) == "copy" else new_job()
        self.session.open(job, None)

    def save(self) -> bool:
        if self.session.path is None:
            return self.save_as()
        return self._save_to(self.session.path)

    def save_as(self) -> bool:
        suggested = str(Path(self._folder()) / f"{file_name(self.session.job.name)}{SUFFIX}")
        path = self.ask_save_path("Save the job", suggested, JOB_FILTER)
        if not path:
            return False
        return self._save_to(Path(path if path.endswith(SUFFIX) else path + SUFFIX))

    def _save_to(self, path: Path) -> bool:
        if not self.keeper.claim.take(path):
            self.tell("Not saved", f"{path.name} is open in another window: save it under another name.")
            return False
        if self.keeper.changed_behind(path):
            answer = self.ask_changed(path)
            if answer != "over":
                return self.save_as() if answer == "as" else False
        try:
            told = self.keeper.save(path)
        except JobFileError as error:
            self.tell("Not saved", f"{error}. Nothing is lost: the job is still open; save it somewhere else.")
            return False
        if told:
            self.tell("Saved", f"{path.name} is saved, but {told}.")
        return True

    def earlier_saves(self) -> None:
        """Take an earlier save in place of the job, as one step that can be undone."""
        there = self.keeper.earlier()
        if not there:
            self.tell("Earlier saves", "There is none yet: the last ten are kept, from the second save on.")
            return
        names = [f"{n}: {each.at:%d %B %Y, %H:%M:%S}" for n, each in enumerate(there, start=1)]
        name = self.ask_one_of("Earlier saves", "Take which one in place of the job as it is?", names)
        if not name:
            return
        try:
            job = load(there[names.index(name)].file)
        except JobFileError as error:
            self.tell("Not opened", f"{error}. The job is as it was.")
            return
        self._report(self.session.push(f"take the save of {name.partition(': ')[2]}", lambda _job: job))

    def recover(self) -> None:
        """Ask about what another run of the program left unsaved; the first that is taken up is opened with it."""
        for left in self.keeper.left_behind():
            answer = self.ask_left(left)
            if answer == "drop":
                left.discard()
            if answer == "take":
                self.keeper.take_up(left)
                return
