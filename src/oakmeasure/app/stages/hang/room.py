"""What the Hang pages show and do.

Gaps and their remedy, a run, a leaf that slides, the drill, the record, the book.
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal

from oakmeasure.app.shell.job_book import JobBook
from oakmeasure.app.shell.part_lists import Listed, ListRow
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.adjustment import PutRight, SignOff
from oakmeasure.core.document.job import Job
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.drawings.hang.hang_view import hang_view, practice_view
from oakmeasure.core.drawings.hang.looks_view import looks_view
from oakmeasure.core.drawings.hang.record_view import book_view, record_view
from oakmeasure.core.drawings.hang.run_view import run_view
from oakmeasure.core.drawings.views import HangPage
from oakmeasure.core.hanging.practice import Drill, Score, drill, score
from oakmeasure.core.hanging.remedy import signed, turn_words
from oakmeasure.core.reports.hanging_record import BookEntry, entry_of_leaf, record_of

if TYPE_CHECKING:
    from oakmeasure.app.shell.session import Session


class HangRoom(QObject):
    """Signal `changed`: what is shown has changed without an edit."""

    changed = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.today = date.today
        self.door: Drill = drill(1)
        self.packed: tuple[float, ...] = (0.0,) * len(self.door.frame.hinges)
        self.planed = 0.0
        self.judged: Score | None = None
        self.search = ""
        self.chosen = 0
        self.book = session.room(JobBook)

    # --- the drill ---------------------------------------------------------------------------------------

    def new_door(self, seed: int) -> None:
        """Hang another door; the same seed gives the same door again."""
        self.door = drill(seed)
        self.packed, self.planed, self.judged = (0.0,) * len(self.door.frame.hinges), 0.0, None
        self.changed.emit()

    def try_remedy(self, packed: Sequence[float], planed: float) -> None:
        """Judge a remedy for the door."""
        self.packed, self.planed = tuple(packed), planed
        self.judged = score(self.door, self.packed, planed, self.session.show)
        self.changed.emit()

    # --- record and book ---------------------------------------------------------------------------------

    def sign(self, by: str, note: str, width: float | None, height: float | None, mass: float | None) -> str:
        """Sign the leaf in hand off and put it into the book. Returns "" or why not."""
        if not by.strip():
            return "who signs it off?"
        session = self.session
        if session.solved.build is None:
            return "there is no leaf to sign off"
        stops = session.solved.open_stops()
        if stops:
            return f"not answered for: {'; '.join(each.title for each in stops[:3])}"
        signed = SignOff(on=self.today(), by=by.strip(), note=note.strip(), width=width, height=height, mass_kg=mass)
        reason = session.edit("hung.signed", signed)
        return reason or self.put_into_book()

    def put_into_book(self) -> str:
        """Write the leaf in hand into the book. Returns "" or why not; the signing stays."""
        from oakmeasure.files.job import job_book
        from oakmeasure.files.job.job_file import JobFileError

        try:
            job_book.put(entry_of_leaf(self.session.job, self.session.solved))
        except (JobFileError, ValueError) as error:
            return f"signed, but not in the book: {error}"
        self.forget()
        return ""

    def forget(self) -> None:
        """Read the book anew when it is next asked for."""
        self.book.forget()
        self.session.room(MakeRoom).kept_lessons = None

    def entries(self) -> tuple[BookEntry, ...]:
        """Return the leaves of the book that answer to what is sought."""
        return tuple(each for each in self.book.entries() if each.matches(self.search, self.session.job.unit))

    def look_for(self, words: str) -> None:
        self.search, self.chosen = words, 0
        self.changed.emit()

    def again(self) -> Job | str:
        """Return a new job that begins as the chosen leaf of the book ended, or why there is none."""
        from oakmeasure.files.job.job_book import start_again
        from oakmeasure.files.job.job_file import JobFileError

        entries = self.entries()
        if not entries:
            return "choose a leaf of the book first"
        try:
            return start_again(entries[min(self.chosen, len(entries) - 1)])
        except JobFileError as error:
            return str(error)

    # --- what is shown -----------------------------------------------------------------------------------

    def drawing(self, page: HangPage) -> Drawing:
        """Return the drawing of a page."""
        solved, show = self.session.solved, self.session.show
        if page is HangPage.RUN:
            return run_view(solved, show)
        if page is HangPage.SLIDE:
            return looks_view(solved, show)
        if page is HangPage.PRACTICE:
            best = self.door.found.plan(PutRight.LEAST_WOOD) if self.judged is not None else None
            return practice_view(self.door, self.packed, self.planed, self.judged, show, best)
        if page is HangPage.RECORD:
            return record_view(record_of(self.session.job, solved, show), show)
        if page is HangPage.BOOK:
            return book_view(self.entries(), self.chosen, show)
        return hang_view(solved, show)

    def listed(self, page: HangPage) -> Listed | None:
        """Return what stands under the drawing of a page; None where nothing does."""
        if page is HangPage.RECORD:
            return None
        show = self.session.show
        if page is HangPage.RUN:
            return self._run_list(show)
        if page is HangPage.SLIDE:
            looks = self.session.solved.hung.looks
            state = {True: "right", False: "not right", None: "to be looked at"}
            return ("in order", "state", "found", "what mends it"), [
                ListRow((each.what, state[each.fine], each.found, each.remedy if each.fine is not True else ""), "")
                for each in looks
            ]
        if page is HangPage.PRACTICE:
            return ("where", "gap", "wanted"), [
                ListRow((f"{p.side}, {p.name}", show.fine(p.gap), show.fine(p.wanted)), "") for p in self.door.places
            ]
        if page is HangPage.BOOK:
            return self._book_list(show)
        return self._remedy_list(show)

    def _remedy_list(self, show: Show) -> Listed:
        """Both aims side by side, step by step; of cups that stand low or proud their screws."""
        solved = self.session.solved
        if solved.hung.turns:
            count = len(solved.cups.places) if solved.cups is not None else 0
            return ("no.", "screw", "moves", "turns", "in its range"), [
                ListRow(
                    (
                        str(n),
                        turn_words(each, count, show),
                        show.fine(each.amount, signed=True),
                        signed(each.turns, 2),
                        "yes" if each.within else "no",
                    ),
                    "",
                )
                for n, each in enumerate(solved.hung.turns, 1)
            ]
        rows = []
        for each in solved.hung.leaves:
            if each.found is None:
                continue
            for steps, plan in ((each.least_wood, each.found.least_wood), (each.even, each.found.even)):
                for n, step in enumerate(steps, start=1):
                    worst = f"{show.fine(plan.worst)} off" if n == 1 else ""
                    whose = f"{plan.aim}, {each.name}" if len(solved.hung.leaves) > 1 else str(plan.aim)
                    rows.append(ListRow((whose if n == 1 else "", str(n), step.words, worst), ""))
        return ("aim", "step", "what is done, in order", "worst gap then"), rows

    def _run_list(self, show: Show) -> Listed:
        plan = self.session.solved.hung.run
        rows = [
            ListRow(
                (
                    f"leaf {n}",
                    show.fine(each.up, signed=True),
                    show.fine(each.rises, signed=True),
                    show.fine(each.across, signed=True),
                    f"{show.fine(each.depth_top, signed=True)} / {show.fine(each.depth_bottom, signed=True)}",
                    *(show.fine(g) if g is not None else "" for g in (each.gap_top, each.gap_bottom)),
                ),
                f"run:{n - 1}",
            )
            for n, each in enumerate(plan.leaves if plan else (), start=1)
        ]
        return (
            "leaf",
            "1 height, up",
            "2 right end up",
            "sides, right",
            "3 depth, top / foot",
            "gap then, top",
            "foot",
        ), rows

    def _book_list(self, show: Show) -> Listed:
        rows = [
            ListRow(
                (
                    str(n),
                    each.name,
                    each.job,
                    each.construction,
                    show.size(each.width, each.height),
                    f"{each.on.day} {each.on:%b %Y}",
                    "; ".join(lesson.text for lesson in each.lessons),
                ),
                f"book:{n - 1}",
            )
            for n, each in enumerate(self.entries(), start=1)
        ]
        return ("no.", "leaf", "job", "construction", "size", "hung", "learnt"), rows

    def title(self, page: HangPage) -> str:
        """Return the words over the drawing."""
        if page is HangPage.BOOK:
            left = f"; left out: {self.book.left_out[0]}" if self.book.left_out else ""
            return f"The job book: {len(self.entries())} of {len(self.book.entries())} leaves{left}"
        if page is HangPage.PRACTICE:
            return f"A drill: door {self.door.seed}"
        return {
            HangPage.GAPS: "As it hangs, and put right",
            HangPage.RUN: "The run, lined up: heights, then sides, then depth",
            HangPage.SLIDE: "Where it binds: what is looked at, in order",
            HangPage.RECORD: "The record",
        }[page]

    def clicked(self, ref: str) -> None:
        """Take what was clicked on the drawing or in the list."""
        kind, _, name = ref.partition(":")
        if kind == "book" and name.isdigit():
            self.chosen = int(name)
            self.changed.emit()

    def in_hand(self) -> str:
        """Return what is lit in the list."""
        return f"book:{self.chosen}"
