"""Starts the window, on a screen or painted into a picture."""

from __future__ import annotations

import os
import sys
import time
import traceback
from collections.abc import Callable
from functools import partial
from pathlib import Path
from types import TracebackType

# Qt's binding reads the source of every module that is imported after it, to see whether it is used there: some
# 70 ms for the core and its libraries. Imported before, they are left alone.
import oakmeasure.core.drawings.views
import oakmeasure.core.solver
import oakmeasure.files.job.job_file  # noqa: F401
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.files.job.job_file import demo_job

# isort: split
from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication, QMessageBox, QWidget

from oakmeasure.app.commands.gc_rests import Sweeper
from oakmeasure.app.shell.application import application, speak_of_qt
from oakmeasure.app.shell.last_seen import Seen
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.window import Window
from oakmeasure.core.document.job import Job, new_job
from oakmeasure.core.figures.check import Stage
from oakmeasure.files.crash_log import log_trouble
from oakmeasure.files.job.job_file import JobFileError, load
from oakmeasure.language import Language, set_language, tr

OPENED: list[Window] = []  # that took the place of another: nothing else holds it
PLAN_SECONDS = 30.0  # that a picture waits for a plan, at the most


def open_window(job: Job, place: Path | None = None, seen: Seen | None = None) -> Window:
    """Return the window on a job, shown; where one was when it was closed."""
    window = Window(Session(job, place))
    window.commands.open_anew = partial(open_anew, window)
    if seen is not None:
        go_where(window, seen)
    window.show()
    Sweeper(window.session, window)
    return window


def open_anew(window: Window, language: Language) -> Window:
    """Close a window and open one on the same job, where it was, that speaks another language."""
    app, session = QApplication.instance(), window.session
    assert isinstance(app, QApplication)
    seen = window.commands.where()
    app.setQuitOnLastWindowClosed(False)  # between the two there is none
    window.close()
    set_language(language)
    speak_of_qt(app, language)
    fresh = open_window(session.job, session.path, seen)
    fresh.commands.keeps_look = window.commands.keeps_look
    app.setQuitOnLastWindowClosed(True)
    window.deleteLater()
    OPENED[:] = [fresh]
    return fresh


def go_where(window: Window, seen: Seen) -> None:
    """Go to the leaf, the stage and the page where one was, as far as they are there."""
    window.resize(min(seen.width, 8000), min(seen.height, 8000))
    session = window.session
    if any(each.id == seen.leaf for each in session.job.leaves):
        session.choose_leaf(seen.leaf)
    session.go_to(next((each for each in Stage if each == seen.stage), session.stage))
    if seen.page in window.sheet().pages:
        window.sheet().go_to_page(seen.page)


TOLD: set[tuple[object, ...]] = set()  # faults that a box has told of, by what and where


def catch(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
    """Take what nothing else caught: the person gets a sentence, the job stays open as it was."""
    if issubclass(kind, KeyboardInterrupt):
        sys.__excepthook__(kind, error, trace)
        return
    last = traceback.extract_tb(trace)[-1:]
    which = kind.__name__, *((each.filename, each.lineno) for each in last)
    if which in TOLD:  # a timer or a painter comes by again: one box is enough, and undo stays in reach
        return
    TOLD.add(which)
    QMessageBox.warning(
        QApplication.activeWindow(),
        tr("Something went wrong"),
        tr(f"{log_trouble(error)} The job is still open: save it."),
    )


def run(path: str | None, *, demo: bool = False, opening: QWidget | None = None, seen: Seen | None = None) -> int:
    """Open the window on a job file, on the demo job, or on a new job.

    It opens in the place of what stood there while it was made. Returns the exit status.
    """
    app = application()
    sys.excepthook = catch
    refused = ""
    job, place = new_job(), None
    if demo:
        job = demo_job()
    elif path is not None:
        try:
            job, place = load(path), Path(path)
        except JobFileError as error:
            refused = str(error)
    window = open_window(job, place, seen)
    window.commands.keeps_look = True
    if opening is not None:
        QTimer.singleShot(0, opening, opening.close)
    if place is not None and not window.commands.keeper.has_claim:
        window.commands.of_another(place)
    QTimer.singleShot(0, window, lambda: begin(window, asks=path is None and not demo))
    if refused:
        QMessageBox.information(window, tr("Not opened"), tr(refused))
    QTimer.singleShot(1500, window, window.commands.ready_sums)
    return app.exec()


def begin(window: Window, *, asks: bool) -> None:
    """Ask what is to be done with what the last run left unsaved; else, with nothing to open, for a new job."""
    was = window.session.job
    window.commands.recover()
    if asks and window.session.job is was:
        window.commands.new_job(first=True)


def picture(
    job: Job,
    target: Path,
    *,
    stage: Stage,
    leaf: str = "",
    page: str = "",
    prepare: Callable[[Session], object] | None = None,
) -> None:
    """Paint the window at 1280 × 800 on a stage of a leaf into a PNG. prepare: done before it is shown.

    Raises JobFileError when it cannot be written.
    """
    if not (os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY")):
        os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    app = application()
    session = Session(job)
    window = Window(session)
    window.resize(1280, 800)
    if leaf:
        session.choose_leaf(leaf)
    session.go_to(stage)
    if page:
        window.sheet().go_to_page(page)
    if prepare is not None:
        prepare(session)
    window.show()
    assert len(session.solution.leaves) == len(job.leaves)  # all worked out: a picture does not wait for them
    window.job_line.refresh()
    for plot in (window.sure, window.goes_in):
        if plot.isVisible():
            plot.draw_now()
    began = time.monotonic()
    while window.timber.planner.is_running and time.monotonic() - began < PLAN_SECONDS:  # the best plan is shown
        app.processEvents()
        time.sleep(0.02)
    for _ in range(5):
        app.processEvents()
    target.parent.mkdir(parents=True, exist_ok=True)
    written = window.grab().save(str(target), "PNG")
    window.session.undo_stack.setClean()
    window.close()
    if not written:
        raise JobFileError(f"{target.name} was not written")


def workshop_picture(job: Job, target: Path, *, leaf: str, op: str) -> None:
    """Paint workshop mode at 1280 × 800 on an operation of a leaf into a PNG."""
    from oakmeasure.app.stages.make.workshop import Workshop

    app = application()
    session = Session(job)
    session.choose_leaf(leaf)
    session.room(MakeRoom).take(op)
    shop = Workshop(session)
    shop.show()
    for _ in range(5):
        app.processEvents()
    shop.grab().save(str(target), "PNG")
    shop.close()


def schedule_picture(job: Job, target: Path) -> None:
    """Paint the schedule of a job, the worst first, into a PNG."""
    from oakmeasure.app.tools.schedule import WIDTHS

    app = application()
    window = Window(Session(job))
    window.session.whole()
    window.commands.schedule()
    lines = window.commands.lines
    if lines is not None:
        lines.sort_by(len(WIDTHS) - 1)
        lines.table.selectRow(1)
        for _ in range(5):
            app.processEvents()
        lines.grab().save(str(target), "PNG")
        lines.close()
    window.close()


def sum_picture(job: Job, target: Path, *, leaf: str, name: str) -> None:
    """Paint the box of quick sums at one of them into a PNG."""
    app = application()
    session = Session(job)
    session.choose_leaf(leaf)
    window = Window(session)
    box = window.commands.ready_sums()
    box.choose(name)
    box.show()
    for _ in range(5):
        app.processEvents()
    box.grab().save(str(target), "PNG")
    box.close()
    window.close()
