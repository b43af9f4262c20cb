"""Memory is swept in the rests that people make, not in the middle of an edit."""

from __future__ import annotations

import gc
import time

import pytest

from oakmeasure.app.commands.gc_rests import REST_S, YOUNG, Sweeper
from oakmeasure.app.shell.session import Session
from oakmeasure.files.job.job_file import demo_job


class Loop:
    """Something that only the collector can take away."""

    def __init__(self) -> None:
        self.me = self


def test_memory_is_swept_in_a_rest_and_not_while_somebody_edits(qtbot, monkeypatch: pytest.MonkeyPatch) -> None:
    before = gc.get_threshold()
    try:
        session = Session(demo_job())
        sweeper = Sweeper(session, session)
        assert gc.get_threshold() == YOUNG
        made = [Loop() for _ in range(10)]
        del made
        session.edit("fit.gap_floor", 4.5)
        assert not sweeper.look()  # just edited
        now = time.monotonic()
        monkeypatch.setattr("oakmeasure.app.commands.gc_rests.time.monotonic", lambda: now + REST_S + 1)
        assert sweeper.look()
        assert not [each for each in gc.get_objects() if type(each) is Loop]
    finally:
        gc.set_threshold(*before)
