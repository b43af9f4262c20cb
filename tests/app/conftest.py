from __future__ import annotations

import gc

import pytest
from PySide6.QtCore import QCoreApplication, QEvent

from oakmeasure.app import theme
from oakmeasure.app.session import Session
from oakmeasure.app.start import application
from oakmeasure.app.window import Window


@pytest.fixture(scope="session")
def qapp():
    """The application as it starts, with its own type: texts are measured as people see them."""
    return application()


@pytest.fixture
def window(qtbot, demo, tmp_path):
    """The real window on the demo job, its questions answered by `answers` and its sayings kept in `said`."""
    application()
    made = Window(Session(demo))
    made.said = []
    made.commands.tell = lambda title, text: made.said.append((title, text))
    made.commands.ask_keep = lambda: "leave"
    made.show()
    qtbot.waitExposed(made)
    yield made
    made.session.undo_stack.setClean()
    if theme.palette() is not theme.LIGHT:
        theme.apply(application(), theme.LIGHT)
    # Windows that outlive their test are restyled with every later one: they must really go.
    made.close()
    # Nor may what sends it signals: a connection to a function holds on to all that the function knows, and the heap
    # that the collector walks through after every test grew to seconds.
    session = made.session
    for each in (made, made.timber, session.make, session.undo_stack, session):
        each.deleteLater()
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    # The wrappers of its widgets go with it: collected later, at any allocation, they ended the process.
    gc.collect()
