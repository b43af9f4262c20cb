"""Walks every page of every stage by keyboard alone, on a real X server; run by test_window as a process of its own.

Prints one line a page: stage, page, how many controls were reached, those that were not or have no name, and those that
look the same with the cursor as without it.
"""

from __future__ import annotations

import json
import sys

from PySide6.QtCore import Qt
from PySide6.QtGui import QGuiApplication
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractSpinBox, QApplication, QComboBox, QLabel, QToolButton, QWidget

from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.start import application
from oakmeasure.app.shell.window import Window
from oakmeasure.core.figures.check import Stage
from oakmeasure.files.job.job_file import demo_job

MOST_TABS = 600


def called(widget: QWidget) -> str:
    text = getattr(widget, "text", None)
    return widget.accessibleName() or (text() if callable(text) else "") or ""


def within_reach(window: Window) -> list[QWidget]:
    """Everything that the Tab key should come to."""
    return [
        each
        for each in window.findChildren(QWidget)
        if each.isVisible()
        and each.isEnabled()
        and each.focusPolicy() & Qt.FocusPolicy.TabFocus
        and not isinstance(each.parent(), QComboBox | QAbstractSpinBox)
    ]


def walked(window: Window) -> list[QWidget]:
    """Everything that it does come to, until it is round."""
    seen: list[QWidget] = []
    for _ in range(MOST_TABS):
        now = QApplication.focusWidget()
        assert now is not None, "the cursor is lost"
        if now in seen and now is not seen[-1]:  # the links of a text are gone through one by one
            break
        if now not in seen:
            seen.append(now)
        QTest.keyClick(now, Qt.Key.Key_Tab)
    return seen


def looks_otherwise(window: Window, widget: QWidget) -> bool:
    """Return whether one sees that a control has the cursor."""
    widget.setFocus(Qt.FocusReason.TabFocusReason)
    QApplication.processEvents()
    frame = widget.parentWidget() or widget  # a box shows it by its frame
    on = frame.grab().toImage()
    widget.clearFocus()
    QApplication.processEvents()
    return on != frame.grab().toImage()


def main() -> int:
    app = application()
    assert QGuiApplication.platformName() == "xcb"
    QApplication.setCursorFlashTime(0)
    window = Window(Session(demo_job()))
    window.show()
    assert QTest.qWaitForWindowExposed(window)
    window.activateWindow()
    assert QTest.qWaitForWindowActive(window)
    for number, stage in enumerate(Stage, start=1):
        QTest.keyClick(window, Qt.Key(Qt.Key.Key_0 + number), Qt.KeyboardModifier.ControlModifier)
        assert window.session.stage is stage
        pages = [
            each
            for each in window.sheet().findChildren(QToolButton)
            if each.isVisible() and each.objectName().startswith("page-")
        ]
        looked_at: set[type[QWidget]] = set()  # a kind of control shows the cursor alike on all pages of a stage
        for page in pages or [None]:
            if page is not None:
                page.setFocus(Qt.FocusReason.TabFocusReason)
                QTest.keyClick(page, Qt.Key.Key_Space)
            for _ in range(3):
                app.processEvents()
            reached, wanted = walked(window), within_reach(window)
            kinds = {
                type(each): each for each in reached if not isinstance(each, QLabel) and type(each) not in looked_at
            }
            looked_at.update(kinds)
            print(
                json.dumps(
                    {
                        "stage": str(stage),
                        "page": page.objectName() if page is not None else "",
                        "reached": len(reached),
                        "missed": [called(each) or each.objectName() for each in wanted if each not in reached],
                        "unnamed": [
                            f"{type(each).__name__} {each.objectName()}" for each in reached if not called(each)
                        ],
                        "unseen": [
                            f"{kind.__name__} {called(each)}"
                            for kind, each in kinds.items()
                            if not looks_otherwise(window, each)
                        ],
                    }
                ),
                flush=True,
            )
    window.session.undo_stack.setClean()
    window.timber.leave()
    sys.stdout.flush()
    window.close()
    return 0


if __name__ == "__main__":
    sys.exit(main())
