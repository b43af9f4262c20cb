"""A walk of random hands over the real window: keys, clicks, drags, the wheel, every command of its menu.

Each step's work on the main thread is counted in seconds of CPU. Used by the tests with some hundred steps and by the
bench with thousands; as a program it prints what it met, as JSON:

    python tests/window_walk.py STEPS SEED
"""

from __future__ import annotations

import json
import os
import random
import sys
import tempfile
import time
import traceback
from collections.abc import Callable
from contextlib import suppress
from dataclasses import asdict, dataclass, field
from pathlib import Path

from PySide6.QtCore import QPoint, QPointF, Qt, QTimer
from PySide6.QtGui import QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractItemView,
    QAbstractSlider,
    QApplication,
    QComboBox,
    QDialog,
    QFileDialog,
    QInputDialog,
    QLineEdit,
    QMessageBox,
    QWidget,
)

from oakmeasure.core.document.job import Job
from oakmeasure.files.job.job_file import demo_job
from walking import complaints

TYPED = (
    "",
    "0",
    "-5",
    "762",
    "1981.5",
    "12",
    "3",
    "45",
    "29 1/4",
    '78"',
    "1,981",
    "12,5",
    "1e9",
    "nan",
    "²",
    "9" * 40,
    "abc",
    "Ä & <b>",
    "=1+1",
    "2+3",
    "100-2x3",
    " ",
    "\u0130",
)
KEYS = (
    Qt.Key.Key_Tab,
    Qt.Key.Key_Return,
    Qt.Key.Key_Escape,
    Qt.Key.Key_Up,
    Qt.Key.Key_Down,
    Qt.Key.Key_Left,
    Qt.Key.Key_Right,
    Qt.Key.Key_PageDown,
    Qt.Key.Key_Home,
    Qt.Key.Key_Plus,
    Qt.Key.Key_Minus,
    Qt.Key.Key_Space,
    Qt.Key.Key_Delete,
    Qt.Key.Key_F2,
)
CHORDS = ("Ctrl+Z", "Ctrl+Shift+Z", "Ctrl+K", "Ctrl+L", "Ctrl+1", "Ctrl+3", "Ctrl+Tab", "F4", "F6", "Alt+2", "Alt+5")
SETTLED = 6  # rounds of the event loop after a step
# What would leave the window, or waits for a program of its own.
NOT_TAKEN = ("Language…", "Sprache…")


@dataclass(slots=True)
class Met:
    """What a walk over the window met. slowest: steps by their seconds of CPU on the main thread."""

    steps: int = 0
    found: dict[str, str] = field(default_factory=dict)
    slowest: list[tuple[float, str]] = field(default_factory=list)


class Walker:
    """Random hands on a window; what the window asks is answered at random, too."""

    def __init__(self, window: QWidget, place: Path, seed: int) -> None:
        self.window, self.place, self.source = window, place, random.Random(seed)
        self.met = Met()
        self.said = ""
        self.trail: list[str] = []
        self.hand_in = QTimer()
        self.hand_in.setInterval(20)
        self.hand_in.timeout.connect(self.answer)
        self.hand_in.start()
        self.longest = self.mark = 0.0
        self.beat = QTimer()  # in the loop of a box that waits, or of a long work that lets the window live, too
        self.beat.timeout.connect(self.came_back)
        self.beat.start(0)

    # --- what a step is ------------------------------------------------------------------------------------------

    def step(self) -> None:
        """Do one thing, let the window settle, and see whether all is well."""
        ways: list[tuple[float, Callable[[], str]]] = [
            (5, self.fill),
            (3, self.choose),
            (4, self.press),
            (2, self.go_to_stage),
            (2, self.go_to_page),
            (1.5, self.go_to_leaf),
            (2, self.command),
            (2, self.on_the_board),
            (1, self.in_a_list),
            (1, self.slide),
            (1.5, self.strike),
        ]
        way = self.source.choices([each for _, each in ways], [share for share, _ in ways])[0]
        self.said = way.__name__
        self.longest, self.mark = 0.0, time.thread_time()
        self.do(way)
        self.came_back()
        for _ in range(SETTLED):
            QApplication.processEvents()
            self.came_back()
        took = self.longest
        self.met.steps += 1
        self.trail = [*self.trail[-12:], self.said]
        self.met.slowest = sorted([*self.met.slowest, (round(took, 3), self.said)], reverse=True)[:40]
        self.look()

    def do(self, way: Callable[[], str]) -> None:
        try:
            self.said = way() or self.said
        except Exception as error:  # raised through a direct call instead of a slot
            self.failed(error)

    def came_back(self) -> None:
        """Note for how many seconds of CPU the main thread was held, until it came back to what is pressed."""
        now = time.thread_time()
        self.longest, self.mark = max(self.longest, now - self.mark), now

    def look(self) -> None:
        session = self.window.session
        for each in complaints(session.job, session.solved):
            self.found(each)

    def found(self, what: str) -> None:
        self.met.found.setdefault(what[:300], " > ".join((*self.trail, self.said)))

    def failed(self, error: BaseException) -> None:
        last = traceback.extract_tb(error.__traceback__)[-1:]
        where = "".join(f"{each.filename.rpartition('/')[2]}:{each.lineno}" for each in last)
        self.found(f"{type(error).__name__} {error} at {where}")

    # --- hands ---------------------------------------------------------------------------------------------------

    def any_of(self, kind: type, among: QWidget | None = None) -> QWidget | None:
        # The window's sheets hold thousands of boxes; what is on the screen counts.
        place = among or self.source.choice((self.window, self.window.sheet(), self.window.side, self.window.sheet()))
        seen = [each for each in place.findChildren(kind) if each.isVisible() and each.isEnabled()]
        return self.source.choice(seen) if seen else None

    def fill(self, among: QWidget | None = None) -> str:
        line = self.any_of(QLineEdit, among)
        if line is None or line.isReadOnly():
            return ""
        text = self.source.choice(TYPED) if self.source.random() < 0.4 else self.near(line.text())
        said = f"write {line.objectName()} {text!r}"
        line.setFocus()
        line.selectAll()
        if text.isascii() and text:
            QTest.keyClicks(line, text)
        else:  # pasted: the test library has no keys for it
            line.insert(text or "")
        with suppress(RuntimeError):  # a list's row may go as it is written
            QTest.keyClick(line, self.source.choice((Qt.Key.Key_Return, Qt.Key.Key_Tab, Qt.Key.Key_Escape)))
        return said

    def near(self, text: str) -> str:
        try:
            return f"{float(text.replace('−', '-')) * self.source.uniform(0.5, 1.6):.1f}"
        except ValueError:
            return f"{self.source.uniform(0, 300):.0f}"

    def choose(self, among: QWidget | None = None) -> str:
        combo = self.any_of(QComboBox, among)
        if combo is None or not combo.count():
            return ""
        at = self.source.randrange(combo.count())
        said = f"choose {combo.objectName()} {combo.itemText(at)!r}"
        combo.setCurrentIndex(at)
        combo.activated.emit(at)
        return said

    def press(self, among: QWidget | None = None) -> str:
        button = self.any_of(QAbstractButton, among)
        if button is None:
            return ""
        said = f"press {button.objectName()} {button.text()!r}"
        if getattr(button, "menu", lambda: None)() is None:
            QTest.mouseClick(button, Qt.MouseButton.LeftButton)
        return said

    def go_to_stage(self) -> str:
        stage, mark = self.source.choice(list(self.window.rod.marks.items()))
        QTest.mouseClick(mark, Qt.MouseButton.LeftButton)
        return f"stage {stage}"

    def go_to_page(self) -> str:
        pages = list(self.window.sheet().pages)
        if not pages:
            return ""
        page = self.source.choice(pages)
        self.window.sheet().go_to_page(page)
        return f"page {page}"

    def go_to_leaf(self) -> str:
        leaf = self.source.choice(self.window.session.job.leaves)
        self.window.choose_leaf(leaf.id)
        return f"leaf {leaf.id}"

    def command(self) -> str:
        actions = [each for each in self.window.commands.menu.actions() if each.isEnabled() and each.text()]
        action = self.source.choice([each for each in actions if each.text() not in NOT_TAKEN])
        said = f"command {action.text()}"
        action.trigger()
        return said

    def on_the_board(self) -> str:
        board = self.window.board
        if not board.isVisible():
            return ""
        here, there = (
            QPoint(self.source.randrange(max(1, board.width())), self.source.randrange(max(1, board.height())))
            for _ in range(2)
        )
        way = self.source.randrange(4)
        if way == 0:
            QTest.mouseClick(board, Qt.MouseButton.LeftButton, pos=here)
        elif way == 1:
            QTest.mouseDClick(board, Qt.MouseButton.LeftButton, pos=here)
        elif way == 2:
            QTest.mousePress(board, Qt.MouseButton.LeftButton, pos=here)
            for at in (0.3, 0.7, 1.0):
                QTest.mouseMove(board, here + (there - here) * at)
            QTest.mouseRelease(board, Qt.MouseButton.LeftButton, pos=there)
        else:
            turned = QPoint(0, self.source.choice((-240, -120, 120, 240)))
            event = QWheelEvent(
                QPointF(here),
                QPointF(board.mapToGlobal(here)),
                QPoint(),
                turned,
                Qt.MouseButton.NoButton,
                Qt.KeyboardModifier.NoModifier,
                Qt.ScrollPhase.NoScrollPhase,
                False,
            )
            QApplication.sendEvent(board, event)
        return f"board {('click', 'double click', 'drag', 'wheel')[way]}"

    def in_a_list(self) -> str:
        view = self.any_of(QAbstractItemView)
        if view is None or view.model() is None or not view.model().rowCount():
            return ""
        index = view.model().index(self.source.randrange(view.model().rowCount()), 0)
        view.scrollTo(index, QAbstractItemView.ScrollHint.EnsureVisible)
        QTest.mouseClick(view.viewport(), Qt.MouseButton.LeftButton, pos=view.visualRect(index).center())
        return f"list {view.objectName()}"

    def slide(self) -> str:
        slider = self.any_of(QAbstractSlider, self.window)
        if slider is None:
            return ""
        slider.setValue(self.source.randint(slider.minimum(), slider.maximum()))
        return f"slider {slider.objectName()}"

    def strike(self) -> str:
        at = QApplication.focusWidget() or self.window
        if self.source.random() < 0.5:
            key = self.source.choice(KEYS)
            QTest.keyClick(at, key)
            return f"key {key.name}"
        chord = self.source.choice(CHORDS)
        QTest.keySequence(at, chord)
        return f"keys {chord}"

    # --- what the window asks ------------------------------------------------------------------------------------

    def answer(self) -> None:
        """Do something in a box that waits for an answer, then leave it."""
        box = QApplication.activeModalWidget() or QApplication.activePopupWidget()
        if box is None:
            return
        if QApplication.activePopupWidget() is box or self.source.random() < 0.3:
            box.close() if not isinstance(box, QDialog) else box.reject()
            return
        try:
            self.source.choice((self.fill, self.choose, self.press, self.press))(box)
        except Exception as error:
            self.failed(error)

    def file(self, *_args: object, **_kwargs: object) -> tuple[str, str]:
        """Answer for the box of files: none, a new one, one that is there, nothing that can be."""
        names = ("", "", "a.csv", "b.pdf", "c.oakjob", "there", "nowhere/d.csv", "e.jsonl", "f")
        name = self.source.choice(names)
        return (str(self.place / name) if name else "", "")

    def text(self, *_args: object, **kwargs: object) -> tuple[str, bool]:
        """Answer for the box that asks for a line of text."""
        return self.source.choice((*TYPED, str(kwargs.get("text", "")))), self.source.random() < 0.7

    def item(self, _parent: object, _title: str, _question: str, items: list[str], *_rest: object) -> tuple[str, bool]:
        """Answer for the box that asks for one of several."""
        return self.source.choice(items), self.source.random() < 0.7


def walk_window(window: QWidget, steps: int, place: Path, *, seed: int) -> Met:
    """Walk so many steps over a window that is shown."""
    walker = Walker(window, place, seed)
    (place / "there").mkdir(exist_ok=True)
    (place / "a.csv").write_text("length_mm,width_mm,thickness_mm\n2400,200,26\n", "utf-8")
    kept = [(QFileDialog, "getSaveFileName"), (QFileDialog, "getOpenFileName"), (QFileDialog, "getExistingDirectory")]
    kept += [(QInputDialog, "getText"), (QInputDialog, "getItem")]
    kept += [(QMessageBox, "information"), (QMessageBox, "warning"), (sys, "excepthook")]
    before = [(where, name, getattr(where, name)) for where, name in kept]
    QFileDialog.getSaveFileName = QFileDialog.getOpenFileName = staticmethod(walker.file)
    QFileDialog.getExistingDirectory = staticmethod(lambda *a, **k: walker.file()[0])
    QInputDialog.getText, QInputDialog.getItem = staticmethod(walker.text), staticmethod(walker.item)
    QMessageBox.information = QMessageBox.warning = staticmethod(lambda *a, **k: QMessageBox.StandardButton.Ok)
    sys.excepthook = lambda _kind, error, _trace: walker.failed(error)
    try:
        while walker.met.steps < steps:
            walker.step()
    finally:
        walker.hand_in.stop()
        walker.beat.stop()
        for where, name, what in before:
            setattr(where, name, what)
    return walker.met


def main() -> None:
    """Walk over the demo job in a window of its own, with settings of its own, and print what was met."""
    steps, seed = int(sys.argv[1]), int(sys.argv[2])
    job: Job = demo_job()
    with tempfile.TemporaryDirectory() as place:
        for each in ("CONFIG", "STATE", "DATA", "CACHE"):
            os.environ[f"XDG_{each}_HOME"] = place
        os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
        from oakmeasure.app.shell.start import application, open_window

        application()
        window = open_window(job)
        window.resize(1280, 800)
        window.commands.ask_keep = lambda: "leave"
        met = walk_window(window, steps, Path(place), seed=seed)
        print(json.dumps(asdict(met)))
        sys.stdout.flush()
        os._exit(0)


if __name__ == "__main__":
    main()
