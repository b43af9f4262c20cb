"""Writes the job folder off the main thread, with progress and stop."""

from __future__ import annotations

from pathlib import Path
from threading import Event, Thread

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtWidgets import QProgressDialog, QWidget

from oakmeasure.core.solution import Solution
from oakmeasure.files.crash_log import log_trouble
from oakmeasure.files.job.job_file import JobFileError
from oakmeasure.files.pdf.full_size import PaperError
from oakmeasure.language import tr

LONGEST_FILE = 10.0  # seconds that one leaf's files take at the most


class FolderWriter(QObject):
    """Signals: `moved(done, of, name)`; `ended(title, text)` when it is written, could not be, or was stopped."""

    moved = Signal(int, int, str)
    ended = Signal(str, str)

    def __init__(self, parent: QWidget, solution: Solution, target: Path, paper: str) -> None:
        super().__init__(parent)
        self._solution, self._target, self._paper = solution, target, paper
        self._stopped = Event()
        self.box = QProgressDialog(tr("Writing the job folder"), tr("Stop"), 0, 0, parent)
        self.box.setWindowTitle(tr("Job folder"))
        self.box.setWindowModality(Qt.WindowModality.WindowModal)
        self.box.setMinimumDuration(200)
        self.box.setAutoClose(False)
        self.box.setAutoReset(False)
        self.box.canceled.connect(self._stopped.set)
        self.moved.connect(self._show)
        self.ended.connect(self.box.close)
        self.thread_at_work = Thread(target=self._run, name="job folder", daemon=True)

    def leave(self) -> None:
        """Stop it and wait until nothing of it is left; the window closes."""
        self._stopped.set()
        self.thread_at_work.join(LONGEST_FILE)

    def start(self) -> None:
        """Begin to write."""
        self.thread_at_work.start()

    def _run(self) -> None:
        from oakmeasure.files.job_folder import write_folder

        try:
            written = write_folder(self._solution, self._target, paper=self._paper, told=self._told)
        except (JobFileError, PaperError) as error:
            self.ended.emit("Not written", f"{error}.")
            return
        except Exception as error:  # whatever it is, it reaches the person as a sentence
            self.ended.emit("Not written", log_trouble(error))
            return
        if written is None:
            self.ended.emit("Stopped", "Nothing was written.")
            return
        left = "".join(f"\n· {each}" for each in written.left_out[:12])
        more = f"\n· and {len(written.left_out) - 12} more, in its read me" if len(written.left_out) > 12 else ""
        text = f"{len(written.files)} files in {written.folder.name}." + (f"\n\nLeft out:{left}{more}" if left else "")
        self.ended.emit("Job folder", text)

    def _told(self, done: int, of: int, name: str) -> bool:
        self.moved.emit(done, of, name)
        return not self._stopped.is_set()

    def _show(self, done: int, of: int, name: str) -> None:
        self.box.setMaximum(of)
        self.box.setValue(done)
        self.box.setLabelText(tr(name or "done"))
