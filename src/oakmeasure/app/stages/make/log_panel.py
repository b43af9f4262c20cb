"""The panel of the log: a reading, a note, a photo; a note may be a lesson."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QFileDialog, QHBoxLayout, QLineEdit, QWidget

from oakmeasure.app.forms.notes import label, tell
from oakmeasure.app.forms.quantity_edit import Asked, QuantityEdit
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.make.panels import Stack, choice
from oakmeasure.app.tools.file_dialogs import say_kinds
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.production import OF_A_PART, About, LogKind, ReadingKind, unit_of
from oakmeasure.core.edits import log_edits
from oakmeasure.core.making.far_off import asked_about
from oakmeasure.core.making.lessons import Lesson, keys_of
from oakmeasure.files.job.job_file import JobFileError
from oakmeasure.language import tr

LESSONS: tuple[tuple[About | None, str], ...] = (
    (None, "only a note"),
    (About.CONSTRUCTION, "a lesson for this construction"),
    (About.HARDWARE, "a lesson for this hardware"),
    (About.TIMBER, "a lesson for this timber"),
)


class LogPanel(Stack):
    """Writes entries; each is one step that can be undone."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.kinds = list(ReadingKind)
        self.column.addWidget(label("A reading", "group"))
        self.kind = choice(
            "readingKind", "what was read", [str(each) for each in self.kinds], lambda _at: self.refresh()
        )
        self.part = choice("readingPart", "of which part", [], lambda _at: None)
        self.column.addWidget(self.kind)
        self.column.addWidget(self.part)
        self._value_row = QHBoxLayout()
        self.values: dict[Unit, QuantityEdit] = {}
        for unit in (Unit.MM, Unit.PERCENT, Unit.KG):
            entry = QuantityEdit("reading", unit, self._read, name=f"log.{unit}", asks=Asked(optional=True))
            entry.told.connect(lambda text, refused: tell(self.note, text, refused))
            self.values[unit] = entry
            self._value_row.addWidget(entry)
        self.column.addLayout(self._value_row)
        self.column.addWidget(self.note)
        self._asked: tuple[ReadingKind, float, str] | None = None
        self.is_so = self.button("It is so: write it down", "readingIsSo", self._take, role="plain")
        self.column.addWidget(self.is_so)
        self.column.addWidget(label("A note", "group"))
        self.text = QLineEdit()
        self.text.setObjectName("noteText")
        self.text.setProperty("role", "box")
        self.text.setAccessibleName(tr("note"))
        self.text.setPlaceholderText(tr("in a few words"))
        self.text.setMaxLength(500)
        self.text.returnPressed.connect(lambda: self.show_note(self._note()))
        self.column.addWidget(self.text)
        self.about = choice("noteAbout", "is it a lesson", [words for _, words in LESSONS], lambda _at: None)
        self.column.addWidget(self.about)
        self.photo = QLineEdit()
        self.photo.setObjectName("notePhoto")
        self.photo.setProperty("role", "box")
        self.photo.setAccessibleName(tr("photo, by its file"))
        self.photo.setPlaceholderText(tr("photo: its file"))
        find = self.button("find…", "notePhotoFind", self._find, role="plain")
        line = self.row(self.photo)
        line.addWidget(find)
        self.column.addWidget(self.button("Write it down", "noteWrite", self._note))

    def refresh(self) -> None:
        """Show which part is asked for, and in what it is read."""
        kind = self.kinds[self.kind.currentIndex()]
        wanted = kind in OF_A_PART
        self.part.offer(self._parts())
        self.part.setVisible(wanted)
        unit = unit_of(kind)
        for each, entry in self.values.items():
            entry.setVisible(each is unit)
            entry.show_value(None, self.session.show)
        self.is_so.setVisible(self._asked is not None)

    def _parts(self) -> list[str]:
        return [each.name for each in self.session.solved.cut_parts]

    def _read(self, value: float | None, _nudge: bool) -> str:
        if value is None:
            return ""
        kind, session = self.kinds[self.kind.currentIndex()], self.session
        part = self._parts()[self.part.currentIndex()] if kind in OF_A_PART and self.part.count() else ""
        asked = asked_about(session.solved, kind, value, part, session.show)
        self._asked = (kind, value, part) if asked else None
        self.is_so.setVisible(bool(asked))
        return asked or self._written(kind, value, part)

    def _take(self) -> str:
        """Write down what was asked about."""
        asked, self._asked = self._asked, None
        self.is_so.setVisible(False)
        return self._written(*asked) if asked is not None else ""

    def _written(self, kind: ReadingKind, value: float, part: str) -> str:
        """Write a reading into the log; return "" or why not."""
        session, op, at = self.session, self.room.op(), self.room.now()

        def write(job: Job) -> Job:
            log_edits.check_part(session.solved, part)
            entry = log_edits.entry_of(
                at=at, kind=LogKind.READING, reading=kind, value=value, part=part, op=op.id if op else ""
            )
            return log_edits.with_entry(job, session.leaf_id, entry)

        reason = session.push(f"read {kind}", write)
        if not reason:
            for entry in self.values.values():
                QTimer.singleShot(0, entry.clear)  # when the box has taken what was written
            change = self.room.newest_change()
            tell(self.note, f"changed: {change}" if change else "written down", False)
        return reason

    def _note(self) -> str:
        words, photo = self.text.text().strip(), self.photo.text().strip()
        about, session, op, at = LESSONS[self.about.currentIndex()][0], self.session, self.room.op(), self.room.now()
        if not words and not photo:
            return "a few words first, or a photo"

        def write(job: Job) -> Job:
            entry = log_edits.entry_of(
                at=at, kind=LogKind.NOTE, text=words, photo=photo, about=about, op=op.id if op else ""
            )
            return log_edits.with_entry(job, session.leaf_id, entry)

        reason = session.push("write a note", write)
        if reason:
            return reason
        self.text.clear()
        self.photo.clear()
        self.about.setCurrentIndex(0)
        if about is not None and words:
            return self._keep(
                Lesson(
                    about,
                    keys_of(session.leaf, about)[0],
                    op.id if op else "",
                    words,
                    session.leaf.name,
                    session.job.name,
                    at.date(),
                )
            )
        return ""

    def _keep(self, lesson: Lesson) -> str:
        """Keep a lesson for other jobs too; where that fails it stays in this one."""
        from oakmeasure.files.job.lesson_store import keep

        try:
            keep(lesson)
        except JobFileError as error:
            return f"kept in this job only: {error}"
        self.room.kept_lessons = None
        return ""

    def _find(self) -> str:
        found, _ = QFileDialog.getOpenFileName(
            self._top(), tr("A photo"), "", say_kinds("Pictures (*.jpg *.jpeg *.png)")
        )
        if found:
            base = self.session.path.parent if self.session.path else None
            inside = base is not None and Path(found).is_relative_to(base)
            self.photo.setText(str(Path(found).relative_to(base)) if inside and base is not None else found)
        return ""

    def _top(self) -> QWidget:
        return self.window()
