"""Everything that the window says, gathered: all pages of all leaves of a job, and the boxes that open over them."""

from __future__ import annotations

import json
import re
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from enum import Enum
from pathlib import Path
from typing import Any

from PySide6.QtWidgets import QApplication, QWidget

from driving import let_go
from oakmeasure import language
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.window import Window
from oakmeasure.core.document.job import Job
from oakmeasure.core.figures.check import Stage
from oakmeasure.data import path_of
from oakmeasure.language.phrases import Phrases

FREE = ("name", "place", "text", "by")  # fields of what is only typed
LONG = 24  # letters, from which what begins small is a sentence that somebody typed
FORMULA = re.compile(r"\S+\.jpg|[\w.]+² ?[/×][^\n]*|kg/m³")


class Listener:
    """Stands in for the phrases of a language: says what it is told and keeps it."""

    def __init__(self) -> None:
        self.heard: dict[str, None] = {}
        self.kept: set[str] = set()  # broken or cut off since it was said
        self.names: set[str] = set()

    def tr(self, text: str) -> str:
        if text not in self.kept:
            self.heard[text] = None
        return text

    def mark_final(self, said: str) -> None:
        self.kept.add(said)


@contextmanager
def listening() -> Iterator[Listener]:
    """Gather what is said meanwhile."""
    listener, before = Listener(), language._phrases
    language.set_catalogue(listener)
    try:
        yield listener
    finally:
        language.set_catalogue(before)


def show_pages(window: Window, leaf_ids: list[str]) -> None:
    """Show every page of every stage of those leaves, and point at every figure of the drawing."""
    for leaf_id in leaf_ids:
        window.choose_leaf(leaf_id)
        for stage in Stage:
            window.session.go_to(stage)
            for page in list(window.sheet().pages):
                window.sheet().go_to_page(page)
                QApplication.processEvents()
        show_apart(window)


def show_apart(window: Window) -> None:
    """Turn the leaf in hand and take it apart, so that every piece is named on the board."""
    room = window.turning.room
    window.session.go_to(Stage.LEAF)
    window.sheet().go_to_page(next(iter(window.sheet().pages)))
    room.switch(True)
    room.set_turn(replace(room.turn, apart=1.0))
    window.board.grab()
    room.switch(False)


def show_workings(window: Window) -> None:
    """Show how every figure of the leaf in hand came about."""
    for figure in window.session.solved.figures:
        window.session.show_working(figure.name)
        QApplication.processEvents()


def show_boxes(window: Window) -> None:
    """Open the boxes that stand beside the pages, one after the other."""
    from oakmeasure.app.stages.make.workshop import Workshop
    from oakmeasure.app.stages.measure.to_measure import ToMeasureDialog
    from oakmeasure.app.tools.dialogs import NewJob
    from oakmeasure.app.tools.glossary import WordsBox
    from oakmeasure.app.tools.quick_sums import SumBox
    from oakmeasure.app.tools.rules_dialog import RulesDialog
    from oakmeasure.app.tools.schedule import ScheduleBox
    from oakmeasure.core.sums.registry import SUMS

    sums = SumBox(window, window.session)
    session = window.session
    boxes: list[QWidget] = [
        NewJob(window, session.job.unit, offers_demo=True),
        RulesDialog(window, session),
        ScheduleBox(window, session),
        sums,
        ToMeasureDialog(window, session),
        WordsBox(window),
        Workshop(session),
    ]
    for box in boxes:
        box.show()
        for name in SUMS if box is sums else ("",):
            if name:
                sums.choose(name)
            QApplication.processEvents()
            box.grab()
        box.close()


def heard_of(job: Job, leaf_ids: list[str] | None = None) -> dict[str, None]:
    """Return what the window says of a job."""
    with listening() as listener:
        window = Window(Session(job))
        window.resize(1280, 800)
        window.show()
        show_pages(window, leaf_ids or [each.id for each in job.leaves])
        show_boxes(window)
        let_go(window)
    return listener.heard


def typed_in(value: Any) -> Iterator[str]:
    """Yield what somebody typed into a job: names, notes, places; longest first where it is sorted so."""
    if isinstance(value, str):
        if not isinstance(value, Enum) and (value[:1].isupper() or len(value) > LONG):
            yield value
    elif isinstance(value, dict):
        for key, each in value.items():
            yield from (each,) if key in FREE and isinstance(each, str) and each else typed_in(each)
    elif isinstance(value, list | tuple):
        for each in value:
            yield from typed_in(each)


def strange_in(phrases: Phrases, heard: Iterable[str], job: Job) -> list[str]:
    """Return what is not said wholly in a language, but for what somebody typed, whole or cut off, and formulas."""
    book = [json.loads(each.read_text(encoding="utf-8")) for each in Path(path_of("book")).glob("*.json")]
    typed = sorted(set(typed_in([job.model_dump(), book])), key=len, reverse=True)
    names = re.compile("|".join(rf"(?<!\w){re.escape(each)}(?!\w)" for each in typed))

    def is_said(text: str) -> bool:
        return phrases.is_known(text) or phrases.is_known(names.sub("§", text))

    return [each for each in heard if not is_said(FORMULA.sub("=", each))]
