"""Everything that the window says, gathered: all pages of all leaves of a job, and the boxes that open over them."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from PySide6.QtWidgets import QApplication, QWidget

from oakmeasure import language
from oakmeasure.app.session import Session
from oakmeasure.app.window import Window
from oakmeasure.core.job import Job
from oakmeasure.core.verdicts import Stage


class Listener:
    """Stands in for the phrases of a language: says what it is told and keeps it."""

    def __init__(self) -> None:
        self.heard: dict[str, None] = {}

    def say(self, text: str) -> str:
        self.heard[text] = None
        return text


@contextmanager
def listening() -> Iterator[Listener]:
    """Gather what is said meanwhile."""
    listener, before = Listener(), language._phrases
    language._phrases = listener
    try:
        yield listener
    finally:
        language._phrases = before


def show_pages(window: Window, leaf_ids: list[str]) -> None:
    """Show every page of every stage of those leaves, and point at every figure of the drawing."""
    for leaf_id in leaf_ids:
        window.choose_leaf(leaf_id)
        for stage in Stage:
            window.session.go_to(stage)
            for page in list(window.sheet().pages):
                window.sheet().go_to_page(page)
                QApplication.processEvents()
                window.grab()


def show_workings(window: Window) -> None:
    """Show how every figure of the leaf in hand came about."""
    for figure in window.session.solved.figures:
        window.session.show_working(figure.name)
        QApplication.processEvents()


def show_boxes(window: Window) -> None:
    """Open the boxes that stand beside the pages, one after the other."""
    from oakmeasure.app.dialogs import NewJob
    from oakmeasure.app.rules_dialog import RulesDialog
    from oakmeasure.app.schedule_box import ScheduleBox
    from oakmeasure.app.sum_box import SumBox
    from oakmeasure.app.to_measure import ToMeasureDialog
    from oakmeasure.app.words_box import WordsBox
    from oakmeasure.app.workshop import Workshop
    from oakmeasure.core.sums.registry import SUMS

    sums = SumBox(window, window.session)
    session = window.session
    boxes: list[QWidget] = [NewJob(window, session.job.unit, offers_demo=True), RulesDialog(window, session),
                            ScheduleBox(window, session), sums, ToMeasureDialog(window, session), WordsBox(window),
                            Workshop(session)]  # fmt: skip
    for box in boxes:
        box.show()
        for name in SUMS if box is sums else ("",):
            if name:
                sums.choose(name)
            QApplication.processEvents()
            box.grab()
        box.close()


def heard_of(job: Job, leaf_ids: list[str] | None = None) -> dict[str, None]:
    """Return what the window says of a job."""
    with listening() as listener:
        window = Window(Session(job))
        window.resize(1280, 800)
        window.show()
        show_pages(window, leaf_ids or [each.id for each in job.leaves])
        show_boxes(window)
        window.timber.leave()
        window.session.undo_stack.setClean()
        window.close()
    return listener.heard
