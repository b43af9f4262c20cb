"""Whole jobs from an empty job, through the screen alone: nothing is refused, and what must come out comes out."""

from __future__ import annotations

import pytest
from pypdf import PdfReader

from by_hand import do
from driving import let_go
from jobs_by_hand import JOBS
from oakmeasure.files.job import job_book


@pytest.mark.parametrize("name", JOBS)
def test_job_is_done_through_the_screen_alone(qtbot, tmp_path, monkeypatch, name: str) -> None:
    monkeypatch.setattr(job_book, "place", lambda: tmp_path / "book")
    done = do(name)
    try:
        assert done.refused == []
        figures = done.window.session.solved.figures
        found = {key: figures[key].value for key in JOBS[name][3]}
        assert found == pytest.approx(JOBS[name][3], abs=0.11)
        assert done.minutes < 6
        assert done.window.session.leaf.hung.signed.by == "E. Fell"
        assert len(list((tmp_path / "book").iterdir())) == 1
        target = tmp_path / "record.pdf"
        done.window.commands.ask_save_path = lambda *_: str(target)
        done.window.commands.record_sheet()
        assert "by E. Fell" in " ".join(each.extract_text() for each in PdfReader(target).pages)
    finally:
        let_go(done.window)
