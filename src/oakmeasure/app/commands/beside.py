"""Work beside the window: in a thread, while it goes on being painted, or piece by piece between what is pressed."""

from __future__ import annotations

from collections.abc import Callable
from threading import Thread
from typing import TypeVar

from PySide6.QtCore import QEventLoop, QObject, Qt, QTimer
from PySide6.QtWidgets import QApplication

T = TypeVar("T")
LOOKS_EVERY_MS = 10


def beside(work: Callable[[], T]) -> T:
    """Return what a piece of work gives, or raise what it raises; it is done in a thread.

    What is typed and clicked meanwhile waits: the job that is written is the one that was asked for. For a second or
    so; longer work has progress and can be stopped.
    """
    given: list[T] = []
    failed: list[BaseException] = []

    def run() -> None:
        try:
            given.append(work())
        except BaseException as error:  # raised where it was asked for
            failed.append(error)

    at_work = Thread(target=run, name="beside the window", daemon=True)
    loop, looks = QEventLoop(), QTimer()
    looks.timeout.connect(lambda: None if at_work.is_alive() else loop.quit())
    QApplication.setOverrideCursor(Qt.CursorShape.BusyCursor)
    try:
        at_work.start()
        looks.start(LOOKS_EVERY_MS)
        loop.exec(QEventLoop.ProcessEventsFlag.ExcludeUserInputEvents)
    finally:
        QApplication.restoreOverrideCursor()
    at_work.join()
    if failed:
        raise failed[0]
    return given[0]


def turn_by_turn(owner: QObject, steps: list[Callable[[], object]]) -> None:
    """Do one step in each turn of the window while its owner is there: what is pressed meanwhile need not wait."""
    first, *rest = steps
    try:
        first()
    finally:
        if rest:
            QTimer.singleShot(0, owner, lambda: turn_by_turn(owner, rest))
