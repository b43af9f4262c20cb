"""What the window does so that nothing is lost: taken up again, earlier saves, changed by others, open twice."""

from __future__ import annotations

import os

import pytest

from oakmeasure.app.commands.autosave import Keeper
from oakmeasure.app.shell import start
from oakmeasure.app.shell.session import Session
from oakmeasure.core.document.job import new_job
from oakmeasure.core.edits import job_edits
from oakmeasure.files.job.claims import Claim
from oakmeasure.files.job.job_file import load, save
from oakmeasure.files.job.journal import Journal


@pytest.fixture
def files(window, tmp_path):
    """The window's commands on a saved job of one leaf, its state in a folder of its own, every question noted."""
    commands = window.commands
    keeper = commands.keeper
    keeper.folder = tmp_path / "state"
    keeper.journal.folder, keeper.claim.folder = keeper.folder / "journal", keeper.folder / "claims"
    path = tmp_path / "a.oakjob"
    save(new_job("mill"), path)
    assert commands.open_path(path)
    commands.path, commands.asked = path, []
    return commands


def answering(files, name, answer):
    def ask(*words):
        files.asked.append((name, words))
        return answer

    setattr(files, name, ask)


def gap(commands):
    return commands.session.leaf.fit.gap_floor


def left_by_another(files, *, path, job=None):
    """Leave a journal behind, as a program that was killed does."""
    base = job or load(path)
    journal = Journal(files.keeper.folder / "journal")
    journal.begin(base, path)
    journal.record(job_edits.with_field(base, base.leaves[0].id, "fit.gap_floor", 7.5))
    journal._close()


def journals(files):
    folder = files.keeper.folder / "journal"
    return list(folder.glob("*.journal")) if folder.is_dir() else []


def test_what_was_not_saved_is_taken_up_again_as_one_step_that_can_be_undone(files):
    left_by_another(files, path=files.path)
    answering(files, "ask_left", "take")
    files.new_job = lambda **_more: pytest.fail("asked for a new job over what was taken up")
    start.begin(files.window, asks=True)
    assert gap(files) == 7.5
    assert files.session.path == files.path
    assert not files.session.is_saved
    assert len(journals(files)) == 1  # its own now: what is taken up is not saved yet either
    files.session.undo_stack.undo()
    assert files.session.job == load(files.path)
    assert journals(files) == []
    files.session.undo_stack.redo()
    assert files.save()
    assert load(files.path).leaves[0].fit.gap_floor == 7.5
    assert journals(files) == []


@pytest.mark.parametrize(("answer", "left"), [("later", 1), ("drop", 0)])
def test_it_can_wait_or_be_thrown_away(files, answer, left):
    left_by_another(files, path=None, job=new_job("never saved"))
    answering(files, "ask_left", answer)
    files.recover()
    assert len(files.asked) == 1
    assert len(journals(files)) == left
    assert files.session.job == load(files.path)


def test_the_question_says_which_job_and_how_much(files, monkeypatch):
    left_by_another(files, path=files.path)
    said = []
    monkeypatch.setattr(files, "_asked", lambda _title, text, _answers: said.append(text) or "later")
    files.recover()
    assert "“mill” (a.oakjob): 1 edit was not saved" in said[0]


def test_a_file_that_someone_changed_meanwhile_is_asked_about_and_kept(files, tmp_path):
    save(new_job("theirs"), files.path)
    assert files.session.edit("fit.gap_floor", 4.5) == ""
    answering(files, "ask_changed", "stay")
    assert not files.save()
    assert load(files.path).name == "theirs"
    answering(files, "ask_changed", "as")
    answering(files, "ask_save_path", str(tmp_path / "mine.oakjob"))
    assert files.save()
    assert load(tmp_path / "mine.oakjob").leaves[0].fit.gap_floor == 4.5
    assert load(files.path).name == "theirs"


def test_writing_over_it_keeps_theirs_among_the_earlier_saves(files):
    save(new_job("theirs"), files.path)
    assert files.session.edit("fit.gap_floor", 4.5) == ""
    answering(files, "ask_changed", "over")
    assert files.save()
    assert load(files.keeper.earlier()[0].file).name == "theirs"
    files.asked.clear()
    assert files.session.edit("fit.gap_floor", 4.0) == ""
    assert files.save()
    assert files.asked == []  # now it is its own again


def test_an_earlier_save_is_taken_in_its_place_and_can_be_undone(files):
    for value in (4.0, 5.0, 6.0):
        assert files.session.edit("fit.gap_floor", value) == ""
        assert files.save()
    files.ask_one_of = lambda _title, _question, names: names[-1]
    files.earlier_saves()
    assert files.session.job == new_job("mill")
    files.session.undo_stack.undo()
    assert gap(files) == 6.0


def test_a_file_that_another_window_has_is_a_copy_or_left_alone(files, tmp_path):
    theirs = tmp_path / "theirs.oakjob"
    save(new_job("theirs"), theirs)
    claim = Claim(files.keeper.claim.folder)
    assert claim.take(theirs)
    answering(files, "ask_taken", "stay")
    assert not files.open_path(theirs)
    assert files.session.job.name == "mill"
    answering(files, "ask_save_path", str(theirs))
    assert not files.save_as()
    assert "open in another window" in files.window.said[-1][1]
    answering(files, "ask_taken", "copy")
    assert files.open_path(theirs)
    assert files.session.path is None
    assert files.session.job.name == "theirs"
    claim.leave()
    assert files.open_path(theirs)
    assert files.session.path == theirs


def test_a_place_that_keeps_nothing_is_told_once_and_the_job_can_still_be_saved(files):
    files.keeper.journal.folder.parent.mkdir(parents=True, exist_ok=True)
    files.keeper.journal.folder.write_text("a file where a folder was meant")
    (files.keeper.folder / "earlier").write_text("the same")
    for value in (4.0, 4.5, 5.0):
        assert files.session.edit("fit.gap_floor", value) == ""
    told = [text for title, text in files.window.said if title == "Edits are not kept"]
    assert len(told) == 1
    assert files.save()
    assert "an earlier save was not kept" in files.window.said[-1][1]
    assert load(files.path).leaves[0].fit.gap_floor == 5.0


def test_closing_lets_go_of_the_file_and_of_what_was_left_unsaved(files):
    assert files.session.edit("fit.gap_floor", 4.0) == ""
    assert len(journals(files)) == 1
    files.ask_keep = lambda: "leave"
    assert files.window.close()
    assert journals(files) == []
    claim = Claim(files.keeper.claim.folder)
    assert claim.take(files.path)
    claim.leave()


def test_three_hundred_edits_and_an_undo_are_taken_up_as_they_were(tmp_path):
    session = Session(new_job("mill"))
    session.keeper = Keeper(session, tmp_path)
    for n in range(300):
        assert session.edit("fit.gap_floor", 3 + n / 100) == ""
    session.undo_stack.undo()
    session.keeper.journal._close()
    session.keeper._sync.stop()
    (left,) = session.keeper.left_behind()
    assert left.job == session.job
    assert left.edits == 301


def test_another_name_of_the_same_file_is_told_to_keep_what_was_before(window, tmp_path):
    path = tmp_path / "a.oakjob"
    assert window.commands._save_to(path)
    window.said.clear()
    os.link(path, tmp_path / "b.oakjob")
    window.session.edit("fit.gap_floor", 11.5)
    assert window.commands._save_to(path)
    assert "hard link" in window.said[-1][1]
    assert load(path).leaves[0].fit.gap_floor == 11.5
    assert load(tmp_path / "b.oakjob").leaves[0].fit.gap_floor != 11.5
