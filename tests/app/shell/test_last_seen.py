"""A job that is opened again: shown at once as it was closed, and one is where one was; never as it is not any more."""

from __future__ import annotations

import pytest

from oakmeasure.app.shell import last_seen
from oakmeasure.app.shell.last_seen import Seen, keep_look, last_look
from oakmeasure.app.shell.splash import Splash
from oakmeasure.app.shell.start import go_where
from oakmeasure.core.document.job import new_job
from oakmeasure.core.figures.check import Stage
from oakmeasure.files.job.job_file import load, save


@pytest.fixture(autouse=True)
def own(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path / "cache"))
    return tmp_path


def test_a_window_that_was_closed_on_a_saved_job_is_what_stands_there_at_the_next_start(window, own, demo):
    path = own / "a.oakjob"
    save(demo, path)
    assert window.commands.open_path(path)
    window.resize(1300, 820)
    window.session.choose_leaf("packet-press")
    window.session.go_to(Stage.HARDWARE)
    window.sheet().go_to_page("Locks")
    window.commands.keeps_look = True
    assert window.close()
    look, seen = last_look(path)
    assert seen == Seen("packet-press", "Hardware", "Locks", 1300, 820)
    opening = Splash("a", look, seen)
    opening.show()
    assert opening.grab().toImage().convertToFormat(look.toImage().format()) == look.toImage()
    opening.close()
    window.session.choose_leaf("seed-room")
    window.session.go_to(Stage.MEASURE)
    window.resize(1280, 800)
    go_where(window, seen)
    assert (window.session.leaf_id, window.session.stage, window.sheet().page) == ("packet-press", "Hardware", "Locks")
    assert window.width() == 1300


def test_of_a_file_that_has_changed_nothing_is_shown(window, own):
    path = own / "a.oakjob"
    save(new_job("mill"), path)
    keep_look(window.grab(), Seen(), path)
    assert last_look(path)[0] is not None
    save(load(path).model_copy(update={"name": "other"}), path)
    assert last_look(path) == (None, None)
    assert last_look(own / "never.oakjob") == (None, None)


def test_edits_that_were_let_go_are_not_kept_as_a_look(window, own):
    window.commands.keeps_look = True
    assert window.session.edit("build.stile", 101.0) == ""
    window.commands.ask_keep = lambda: "leave"
    assert window.close()
    assert last_look(None) == (None, None)


WRONG = '{"leaf": "a", "stage": "b", "page": "c", "width": "x", "height": 1}'


def test_a_look_that_is_damaged_is_the_plain_frame(window):
    for text in ("", "[]", "{}", '{"leaf": 1}', WRONG):
        keep_look(window.grab(), Seen(), None)
        (file,) = last_seen.folder().glob("*.json")
        file.write_text(text, encoding="utf-8")
        assert last_look(None) == (None, None), text
    go_where(window, Seen("no such leaf", "no such stage", "no such page", 99_999, 10))
    assert window.session.leaf_id == "seed-room"


def test_no_more_than_a_dozen_looks_are_kept_and_a_place_without_leave_is_no_trouble(window, own):
    picture = window.grab()
    for n in range(last_seen.KEPT + 3):
        path = own / f"{n}.oakjob"
        save(new_job(f"job {n}"), path)
        keep_look(picture, Seen(), path)
    assert len(list(last_seen.folder().glob("*.png"))) == last_seen.KEPT
    for each in last_seen.folder().iterdir():
        each.unlink()
    last_seen.folder().rmdir()
    last_seen.folder().write_text("a file where a folder was meant")
    keep_look(picture, Seen(), None)
