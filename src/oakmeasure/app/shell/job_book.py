"""The job book while a job is open: read when it is first asked for, and again when a leaf was put into it."""

from __future__ import annotations

from PySide6.QtCore import QObject

from oakmeasure.app.shell.session import Session
from oakmeasure.core.making.lessons import Lesson
from oakmeasure.core.reports.hanging_record import BookEntry


class JobBook(QObject):
    """The leaves that were signed off, of all jobs."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.left_out: tuple[str, ...] = ()
        """Files that could not be read, each with why."""
        self._entries: tuple[BookEntry, ...] | None = None

    def entries(self) -> tuple[BookEntry, ...]:
        """Return all of the book."""
        if self._entries is None:
            from oakmeasure.files.job.job_book import read_all

            self._entries, self.left_out = read_all()
        return self._entries

    def lessons(self) -> tuple[Lesson, ...]:
        """Return what was learnt of them."""
        return tuple(lesson for entry in self.entries() for lesson in entry.lessons)

    def forget(self) -> None:
        """Read the book anew when it is next asked for."""
        self._entries = None
