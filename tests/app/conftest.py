from __future__ import annotations

import pytest

from driving import let_go
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.start import application
from oakmeasure.app.shell.window import Window


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
    if theme.palette() is not theme.LIGHT:
        theme.apply(application(), theme.LIGHT)
    let_go(made)
