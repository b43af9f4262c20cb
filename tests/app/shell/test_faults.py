"""What the program itself fails over: told once, logged once, and one step back is always there."""

from __future__ import annotations

import pytest

from oakmeasure.app.shell import start
from oakmeasure.core import solver
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.figures.check import Stage


@pytest.fixture
def failing(window, monkeypatch, tmp_path):
    """A window whose program fails over every pair; `asked` keeps what it asked, `answer` is what it is told."""
    real = solver.make

    def make(design, *args):
        if design.leaf.hanging is Hanging.PAIR:
            raise ZeroDivisionError("float division by zero")
        return real(design, *args)

    monkeypatch.setattr(solver, "make", make)
    window.asked, window.answer, window.logged = [], "back", []
    window.commands.ask_back = lambda name: window.asked.append(name) or window.answer
    monkeypatch.setattr("oakmeasure.app.commands.job_files.log_trouble", window.logged.append)
    return window


def test_an_edit_that_makes_a_leaf_fail_is_taken_back_at_once_when_one_says_so(failing):
    session = failing.session
    before = session.job
    session.edit("hanging", Hanging.PAIR)
    assert failing.asked == ["Seed room door"]
    assert session.job == before
    assert session.solved.fault is None
    assert len(failing.logged) == 1


def test_an_edit_that_is_kept_leaves_every_page_and_undo_in_reach_and_is_logged_once(failing):
    failing.answer = "keep"
    session = failing.session
    session.edit("hanging", Hanging.PAIR)
    assert "not-worked-out" in [each.code for each in failing.checks.shown_checks()]
    for stage in Stage:
        session.go_to(stage)
        for page in list(failing.sheet().pages):
            failing.sheet().go_to_page(page)
            assert not failing.grab().isNull()
    session.edit("fit.gap_head", 4.0)
    assert failing.asked == ["Seed room door"]  # it failed before that edit too
    assert len(failing.logged) == 1
    session.choose_leaf("drying-loft")
    assert session.solved.fault is None
    while session.undo_stack.canUndo():
        session.undo_stack.undo()
    session.choose_leaf("seed-room")
    assert session.solved.fault is None


def test_an_edit_that_makes_a_leaf_fail_in_a_new_way_is_offered_too(failing, monkeypatch):
    failing.answer = "keep"
    session, make = failing.session, solver.make
    session.edit("hanging", Hanging.PAIR)

    def otherwise(design, *args):
        if design.leaf.fit.gap_head == 4.0:
            raise KeyError("a figure")
        return make(design, *args)

    monkeypatch.setattr(solver, "make", otherwise)
    session.edit("fit.gap_head", 4.0)
    assert len(failing.asked) == len(failing.logged) == 2


def test_a_fault_that_comes_back_by_a_timer_is_told_once(window, monkeypatch):
    boxes = []
    monkeypatch.setattr(start, "TOLD", set())
    monkeypatch.setattr(start.QMessageBox, "warning", lambda *args: boxes.append(args[2]))
    monkeypatch.setattr(start, "log_trouble", lambda error: f"Something went wrong ({type(error).__name__}).")

    def fails(why):
        raise RuntimeError(why)

    for why in ("one", "two", "three"):
        try:
            fails(why)
        except RuntimeError as error:
            start.catch(RuntimeError, error, error.__traceback__)
    assert boxes == ["Something went wrong (RuntimeError). The job is still open: save it."]
