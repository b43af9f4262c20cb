from __future__ import annotations

import gc
from dataclasses import replace

import pytest

from driving import let_go
from oakmeasure.app.shell import session, theme
from oakmeasure.app.shell.start import application
from oakmeasure.app.shell.window import Window
from oakmeasure.core.solver import Solver


@pytest.fixture(scope="session")
def qapp():
    """The application as it starts, with its own type: texts are measured as people see them."""
    return application()


@pytest.fixture(scope="session")
def demo_solver(demo):
    """What has worked out the demo job already."""
    solver = Solver()
    solver.solve(demo)
    gc.freeze()  # it stays to the end
    return solver


@pytest.fixture
def window(qtbot, demo, demo_solver, monkeypatch):
    """The real window on the demo job, its questions answered by `answers` and its sayings kept in `said`.

    It knows the leaves of the demo job from the first: what is edited is worked out anew.
    """
    application()
    with monkeypatch.context() as patch:
        patch.setattr(session, "Solver", lambda: replace(demo_solver, worked_out=0))
        made = Window(session.Session(demo))
    made.said = []
    made.commands.tell = lambda title, text: made.said.append((title, text))
    made.commands.ask_keep = lambda: "leave"
    made.show()
    qtbot.waitExposed(made)
    yield made
    if theme.palette() is not theme.LIGHT:
        theme.apply(application(), theme.LIGHT)
    let_go(made)
