"""Jobs as a person does them: from an empty job, through the screen alone, the inputs counted.

`python tests/by_hand.py` prints the table of docs/by-hand.md.
"""

from __future__ import annotations

import sys
import tempfile
from dataclasses import dataclass, field
from pathlib import Path

from PySide6.QtCore import Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QComboBox, QLabel, QLineEdit, QPushButton, QToolButton

from driving import let_go
from jobs_by_hand import JOBS, Step
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.theme import typeset
from oakmeasure.app.shell.window import Window
from oakmeasure.app.stages.hang.panels import SignPanel
from oakmeasure.app.tools.dialogs import AnswerStops, NewJob
from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document.job import new_job
from oakmeasure.core.figures.check import Stage

# Seconds of the keystroke-level model: a key, a click with its way, the hand from one to the other, a thought.
# Source: Card, Moran and Newell 1980, from memory; a key of somebody who is no typist.
KEY, CLICK, HOME, THOUGHT = 0.28, 1.3, 0.4, 1.35


@dataclass
class Done:
    """A job, its inputs counted, what was refused, and the stops that were answered for when it was signed off."""

    window: Window
    keys: int = 0
    clicks: int = 0
    boxes: int = 0
    refused: list[str] = field(default_factory=list)
    stops: list[str] = field(default_factory=list)

    @property
    def minutes(self) -> float:
        hands = KEY * self.keys + CLICK * self.clicks + HOME * self.boxes
        return (hands + THOUGHT * (self.boxes + self.clicks / 2)) / 60

    def take(self, step: Step) -> None:
        """Go to a stage and page, "Fit/Opens"; take a check's remedy, "!code"; or fill a box."""
        if isinstance(step, tuple):
            self.fill(step[0], str(step[1]))
        elif step.startswith("!"):
            card = next(each for each in self.window.checks.cards if each.check.code == step[1:])
            remedy = next(each for each in card.check.remedies if each.path)
            words = typeset(remedy.text).split()
            button = next(each for each in card.findChildren(QPushButton) if each.text().split() == words)
            QTest.mouseClick(button, Qt.MouseButton.LeftButton)
            self.clicks += 1
        else:
            stage, _, page = step.partition("/")
            QTest.mouseClick(self.window.rod.marks[Stage(stage)], Qt.MouseButton.LeftButton)
            self.clicks += 1 + bool(page)
            if page:
                tab = self.window.sheet().findChild(QToolButton, f"page-{page}")
                QTest.mouseClick(tab, Qt.MouseButton.LeftButton)
        QApplication.processEvents()
        labels = [label for place in (self.window.sheet(), self.window.checks) for label in place.findChildren(QLabel)]
        said = (each for each in labels if each.property("role") == "refused")
        self.refused += [f"{step}: {each.text()}" for each in said if each.text() and each.isVisibleTo(self.window)]

    def hang(self) -> None:
        """Write down how it hangs, answer for what stops it, and sign it off."""
        self.take("Hang")
        sheet, figures = self.window.sheet(), self.window.session.solved.figures
        for at, name in enumerate(AS_HUNG):
            if any(each.isVisibleTo(self.window) for each in sheet.findChildren(QLineEdit, name)):
                planned = figures.get(f"gap_{name.rpartition('.')[2].partition('_')[0]}")
                gap = planned.value if planned is not None else 8.0
                self.fill(name, f"{gap + 0.1 * (at % 3):.1f}")  # a little more from place to place, as it comes
        if any(each.isVisibleTo(self.window) for each in sheet.findChildren(QComboBox, "hung.proof_held")):
            self.fill("hung.proof_held", "it held")
        self.take("Hang/Record")
        panel = self.window.findChild(SignPanel)
        self.type_into(sheet.findChild(QLineEdit, "signBy"), "E. Fell")
        self.stops = [each.code for each in self.window.session.solved.open_stops()]
        if self.stops:
            QTimer.singleShot(0, self.window, self.answer)
        QTest.mouseClick(panel.go, Qt.MouseButton.LeftButton)
        self.clicks += 1

    def answer(self) -> None:
        """Give a reason for every stop that is open, in the box that asks for them."""
        box = QApplication.activeModalWidget()
        assert isinstance(box, AnswerStops)
        for line in box.findChildren(QLineEdit, "find"):
            self.type_into(line, "agreed with the customer")
        QTest.mouseClick(box.findChild(QPushButton, "accept"), Qt.MouseButton.LeftButton)
        self.clicks += 1

    def type_into(self, line: QLineEdit, text: str) -> None:
        """Write into a line that has no name in the job."""
        QTest.keyClicks(line, text)
        self.keys += len(text)
        self.boxes += 1

    def choose(self, combo: QComboBox, at: int) -> None:
        """Open a list, go down it and take an option; counted as the two clicks that it takes with a mouse."""
        combo.setFocus()
        QTest.keyClick(combo, Qt.Key.Key_Down, Qt.KeyboardModifier.AltModifier)
        opened = combo.view()
        assert opened.isVisible()
        QTest.keyClick(opened, Qt.Key.Key_Home)
        for _ in range(at):
            QTest.keyClick(opened, Qt.Key.Key_Down)
        QTest.keyClick(opened, Qt.Key.Key_Return)
        self.clicks += 2

    def fill(self, name: str, text: str) -> None:
        """Write into a box, or choose the first option with these words."""
        sheet = self.window.sheet()
        for combo in (each for each in sheet.findChildren(QComboBox, name) if each.isVisibleTo(self.window)):
            options = [combo.itemText(n) for n in range(combo.count())]
            at = next(n for n, each in enumerate(options) if text in each)
            self.choose(combo, at)
            return
        line = next(each for each in sheet.findChildren(QLineEdit, name) if each.isVisibleTo(self.window))
        line.setFocus()
        line.selectAll()
        QTest.keyClicks(line, text)
        QTest.keyClick(line, Qt.Key.Key_Return)
        self.keys += len(text) + 1
        self.boxes += 1


def begun(name: str, width: float, height: float) -> Done:
    """Return a new job of one leaf, by the three questions of the first start."""
    window = Window(Session(new_job()))
    window.resize(1280, 800)
    window.show()
    done = Done(window)
    asked = NewJob(window, UnitSystem.MM)
    QTest.keyClicks(asked.name, name)
    for entry, value in zip(asked._entries, (width, height), strict=True):
        entry.line.selectAll()
        QTest.keyClicks(entry.line, f"{value:g}")
    asked.accept()
    window.session.open(asked.job, None)
    done.keys = len(name) + len(f"{width:g}{height:g}")
    done.boxes, done.clicks = 3, 2
    return done


# What is read of a leaf that hangs, as far as its sheet asks for it.
AS_HUNG = (
    *(f"hung.gaps.{side}_{at}" for side in ("hinge", "latch") for at in ("top", "middle", "bottom")),
    *(f"hung.gaps.head_{at}" for at in ("hinge", "middle", "latch")),
    "hung.sliding.jamb_top",
    "hung.sliding.jamb_bottom",
)


def do(name: str) -> Done:
    """Do one of the jobs, from the readings to the leaf that is signed off; the window stays open."""
    width, height, steps, _ = JOBS[name]
    done = begun(name, width, height)
    for step in steps:
        done.take(step)
    done.hang()
    return done


def main() -> None:
    """Print the table. What is signed off goes into a book of its own, not into that of whoever runs it."""
    from oakmeasure.app.shell.start import application
    from oakmeasure.files.job import job_book

    folder = Path(tempfile.mkdtemp(prefix="oak-measure-by-hand-"))
    job_book.place = lambda: folder
    app = application()
    print("| job | boxes | keys | clicks | minutes | answered for |\n| --- | ---: | ---: | ---: | ---: | --- |")
    for name in JOBS:
        done = do(name)
        print(f"| {name} | {done.boxes} | {done.keys} | {done.clicks} | {done.minutes:.1f} | {', '.join(done.stops)} |")
        let_go(done.window)
    del app


if __name__ == "__main__":
    sys.exit(main())
