"""Twenty-one jobs from an empty job, through the screen alone: nothing is refused, and what must come out comes out."""

from __future__ import annotations

import pytest

from by_hand import JOBS, closed, do


@pytest.mark.parametrize("name", JOBS)
def test_job_is_done_through_the_screen_alone(qtbot, name: str) -> None:
    done = do(name)
    try:
        assert done.refused == []
        figures = done.window.session.solved.figures
        found = {key: figures[key].value for key in JOBS[name][3]}
        assert found == pytest.approx(JOBS[name][3], abs=0.11)
        assert done.minutes < 6
    finally:
        closed(done)
