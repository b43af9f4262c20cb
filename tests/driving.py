"""How the tests drive a window: by its boxes, choices and pages, as a person would."""

from __future__ import annotations

import gc

from PySide6.QtCore import QCoreApplication, QEvent, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QComboBox, QLabel, QLineEdit, QToolButton

from oakmeasure.app.stages.make.room import MakeRoom

RETURN = Qt.Key.Key_Return


def box(window, name) -> QLineEdit:
    found = window.sheet().findChildren(QLineEdit, name)
    assert found, name
    return next((each for each in found if each.isVisibleTo(window)), found[0])  # one below the fold is scrolled to


def write(window, name, text, key=RETURN):
    line = box(window, name)
    line.setFocus()
    line.selectAll()
    QTest.keyClicks(line, text)
    QTest.keyClick(line, key)


def choose(window, name, text):
    combo = next(each for each in window.sheet().findChildren(QComboBox, name) if each.isVisibleTo(window))
    combo.setCurrentIndex(combo.findText(text))
    assert combo.currentText() == text
    combo.activated.emit(combo.currentIndex())


def page(window, name):
    QTest.mouseClick(window.sheet().findChild(QToolButton, f"page-{name}"), Qt.MouseButton.LeftButton)


def refusals(window) -> str:
    said = [each.text() for each in window.sheet().findChildren(QLabel) if each.property("role") == "refused"]
    return " ".join(each for each in said if each)


def let_go(window) -> None:
    """Close a window, without a question, and have it really go: one that outlives its test is restyled with every
    later one.
    """
    window.timber.leave()
    window.session.undo_stack.setClean()
    window.close()
    # Nor may what sends it signals: a connection to a function holds on to all that the function knows, and the heap
    # that the collector walks through after every test grew to seconds.
    session = window.session
    for each in (window, window.timber, session.room(MakeRoom), session.undo_stack, session):
        each.deleteLater()
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    # The wrappers of its widgets go with it: collected later, at any allocation, they ended the process. What is left
    # then stays for good: the collector need not walk through it again after the next window.
    gc.collect()
    gc.freeze()


def note_under(window, name) -> str:
    """The refusal that stands beside the boxes of the stage in hand."""
    said = [each.text() for each in window.sheet().findChildren(QLabel) if each.property("role") == "refused"]
    return " ".join(each for each in said if each)
