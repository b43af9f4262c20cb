"""Nothing is lost: a journal of what is not saved, earlier saves, a claim on the job file, who changed it meanwhile."""

from __future__ import annotations

from pathlib import Path
from threading import Thread

from platformdirs import user_state_path
from PySide6.QtCore import QObject, QTimer, Signal

from oakmeasure.app.shell.session import Session
from oakmeasure.core.document.job import Job
from oakmeasure.files.job import earlier_saves
from oakmeasure.files.job.claims import Claim, seal
from oakmeasure.files.job.job_file import JobFileError, load
from oakmeasure.files.job.journal import Journal, Left, left_behind
from oakmeasure.files.plain_file import other_names

SYNCED_AFTER = 2000  # ms after an edit it is brought to the disk itself


class Keeper(QObject):
    """`troubled(why)`: edits cannot be kept between saves."""

    troubled = Signal(str)

    def __init__(self, session: Session, folder: Path | None = None) -> None:
        super().__init__(session)
        self.session = session
        self.folder = folder or user_state_path("oak-measure")
        self.journal, self.claim = Journal(self.folder / "journal"), Claim(self.folder / "claims")
        self._job: Job = session.job
        self._seal = ""
        self._told = False
        self._sync = QTimer(self)
        self._sync.setSingleShot(True)
        self._sync.setInterval(SYNCED_AFTER)
        self._sync.timeout.connect(lambda: Thread(target=self.journal.sync, daemon=True).start())
        session.changed.connect(self._changed)
        session.saved_changed.connect(self._saved)
        session.opened.connect(self._opened)
        self._opened(session.job)
        self.has_claim = session.path is None or self.claim.take(session.path)

    # --- what happens ------------------------------------------------------------------------------------

    def _opened(self, job: Job) -> None:
        path = self.session.path
        self._job = job
        self._seal = seal(path) if path is not None else ""
        if path is None:
            self.claim.leave()
        self.journal.begin(job, path)

    def _changed(self) -> None:
        if self.session.job is self._job:
            return
        self._job = self.session.job
        self.journal.record(self._job)
        if self.journal.trouble and not self._told:
            self.troubled.emit(self.journal.trouble)
        self._told = bool(self.journal.trouble)
        self._sync.start()

    def _saved(self) -> None:
        """Begin anew from what is saved now, or from where undoing came back to it."""
        if self.session.is_saved:
            self.journal.begin(self.session.job, self.session.path)

    def close(self) -> None:
        """The window closes: what is not saved was let go."""
        self._sync.stop()
        self.journal.forget()
        self.claim.leave()

    # --- saving ------------------------------------------------------------------------------------------

    def changed_behind(self, path: Path) -> bool:
        """Return whether somebody else has written the job's file since it was read or written here."""
        return path == self.session.path and bool(self._seal) and seal(path) not in ("", self._seal)

    def save(self, path: Path) -> str:
        """Save the job and keep what the file held before; returns why that was not kept or stays elsewhere, or "".

        Raises JobFileError where it cannot be saved; then nothing has changed.
        """
        told = other_names(path)
        try:
            earlier_saves.keep(self.folder / "earlier", path)
        except JobFileError as error:
            told = str(error)
        self.session.save(path)
        self._seal = seal(path)
        return told

    def earlier(self) -> list[earlier_saves.Earlier]:
        """Return the earlier saves of the job's file, the newest first."""
        path = self.session.path
        return earlier_saves.earlier(self.folder / "earlier", path) if path is not None else []

    # --- what was left behind ----------------------------------------------------------------------------

    def left_behind(self) -> list[Left]:
        """Return what other runs have left unsaved."""
        return left_behind(self.folder / "journal")

    def take_up(self, left: Left) -> None:
        """Open what was left, with its unsaved edits as one step that can be undone."""
        path = left.path if left.path is not None and self.claim.take(left.path) else None
        self.session.open(left.base, path)
        if path is not None:
            try:
                same = load(path) == left.base
            except JobFileError:
                same = False
            self._seal = seal(path) if same else "another"
        if not self.session.push("take up what was not saved", lambda _job: left.job):
            left.discard()
