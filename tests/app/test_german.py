"""The second language: everything that the window says of the demo job is said in German; changed while it runs."""

from __future__ import annotations

from datetime import date

import pytest
from PySide6.QtCore import QTranslator
from PySide6.QtWidgets import QApplication

from driving import let_go
from oakmeasure.app.shell import start
from oakmeasure.core.document.constructions import KINDS, trade_name
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.solver import solve
from oakmeasure.files import job_folder
from oakmeasure.files.settings import read_settings
from oakmeasure.language import Language, current_language, set_language, tr
from oakmeasure.language.phrases import phrases_of
from shown import heard_of, listening, strange_in

# Framed, boarded, layered and solid; swung, slid and on cups; a cabinet, an old leaf, an arch. All of them: the tool.
LEAVES = ("office-store", "packet-press", "tool-shed", "coal-hole", "pair", "walnut", "linen-press")

PAPERS = ("seed-room", "office-store", "packet-press")


def test_all_that_the_window_says_is_said_in_german(qapp, demo):
    german = phrases_of(Language.GERMAN)
    heard = heard_of(demo, list(LEAVES))
    assert len(heard) > 5000
    assert [each for each in strange_in(german, heard, demo) if each not in being_built(german)] == []


def being_built(german):
    """Return what constructions are called that nobody has said in German yet; `./run lint` tells of them."""
    return {name for name in map(trade_name, KINDS) if german.tr(name) == name}


def test_all_that_the_papers_say_is_said_in_german(demo, tmp_path):
    some = solve(demo.model_copy(update={"leaves": tuple(each for each in demo.leaves if each.id in PAPERS)}))
    with listening() as listener:
        list(job_folder._put(job_folder._tasks(some, "A4", date(2026, 11, 26), []), tmp_path))
    heard = [each for each in listener.heard if not each.startswith("OK: ")]  # made of what was said before
    assert len(heard) > 800
    assert strange_in(phrases_of(Language.GERMAN), heard, demo) == []


@pytest.fixture
def english_again(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    yield
    set_language(Language.ENGLISH)
    start.speak_of_qt(QApplication.instance(), Language.ENGLISH)
    for each in start.OPENED:
        let_go(each)
    start.OPENED.clear()


def test_language_is_changed_in_the_menu_and_nothing_is_lost(qapp, demo, tmp_path, english_again):
    window = start.open_window(demo)
    commands, session = window.commands, window.session
    path = tmp_path / "mill.oakjob"
    commands.ask_save_path = lambda _title, _suggested, _kinds: str(path)
    session.push("another name", lambda job: job.model_copy(update={"name": "Lower mill"}))
    window.choose_leaf("packet-press")
    session.go_to(Stage.HARDWARE)
    commands.ask_one_of = lambda _title, _question, _names: ""
    commands.other_language()
    assert (current_language(), path.exists()) == (Language.ENGLISH, False)  # thought better of
    commands.ask_one_of = lambda _title, _question, names: names[-1]
    commands.other_language()
    assert path.exists()
    assert not window.isVisible()
    (fresh,) = start.OPENED
    assert fresh.isVisible()
    assert (fresh.session.job.name, fresh.session.leaf_id, fresh.session.stage) == (
        "Lower mill",
        "packet-press",
        Stage.HARDWARE,
    )
    assert fresh.session.path == path
    assert fresh.commands.keeper.has_claim
    assert read_settings().language is current_language() is Language.GERMAN
    texts = {action.text() for action in fresh.commands.menu.actions()}
    assert tr("Workshop mode") in texts
    assert "Workshop mode" not in texts
    assert QApplication.instance().findChildren(QTranslator)


def test_language_stays_where_the_job_cannot_be_saved(window, english_again):
    window.commands.ask_save_path = lambda *_: ""
    window.session.push("another name", lambda job: job.model_copy(update={"name": "Lower mill"}))
    window.commands.ask_one_of = lambda _title, _question, names: names[-1]
    window.commands.other_language()
    assert current_language() is Language.ENGLISH
    assert window.isVisible()
    assert start.OPENED == []
