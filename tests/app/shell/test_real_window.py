"""The core without the screen, and the window on a real one: its main path, its pages by keyboard, its looks."""

from __future__ import annotations

import json
import os
import subprocess
import sys

import pytest
from PySide6.QtCore import QRectF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLineEdit, QToolButton

from oakmeasure.app.canvas.label_places import fitted, label_box
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.start import application
from oakmeasure.core.drawings.drawing import Label
from oakmeasure.core.figures.check import Stage
from oakmeasure.files.job.job_file import load


def test_core_and_files_load_no_qt():
    code = (
        "import pkgutil, sys, importlib, oakmeasure.core, oakmeasure.files\n"
        "for package in (oakmeasure.core, oakmeasure.files):\n"
        "    for each in pkgutil.walk_packages(package.__path__, package.__name__ + '.'):\n"
        "        importlib.import_module(each.name)\n"
        "assert not [name for name in sys.modules if name.startswith(('PySide6', 'shiboken6', 'scipy'))]"
    )
    subprocess.run([sys.executable, "-c", code], check=True, timeout=60)


@pytest.fixture
def xvfb():
    """A screen that exists only in memory; its number."""
    read, write_end = os.pipe()
    with subprocess.Popen(
        ["Xvfb", "-displayfd", str(write_end), "-screen", "0", "1280x800x24", "-nolisten", "tcp"],
        pass_fds=[write_end],
        stderr=subprocess.DEVNULL,
    ) as server:
        os.close(write_end)
        with os.fdopen(read) as numbers:
            yield f":{numbers.readline().strip()}"
        server.terminate()


def test_main_path_in_a_real_window(xvfb, tmp_path):
    """From a reading to a saved job and a bench sheet, by keyboard, on an X server."""
    environment = {**os.environ, "DISPLAY": xvfb, "QT_QPA_PLATFORM": "xcb"}
    script = os.path.join(os.path.dirname(__file__), "real_window.py")
    done = subprocess.run([sys.executable, script, str(tmp_path)], env=environment, timeout=120, capture_output=True)
    assert done.returncode == 0, done.stderr.decode()
    assert b"Traceback" not in done.stderr
    made = load(tmp_path / "real.oakjob")
    assert made.leaves[0].readings.width_top.value == 743.5
    assert made.leaves[0].build.stile == 102
    assert (tmp_path / "real.pdf").read_bytes().startswith(b"%PDF")
    assert (tmp_path / "real.png").stat().st_size > 30_000


def test_every_page_of_every_stage_is_walked_by_keyboard_alone_in_a_real_window(xvfb):
    """Tab comes to every control, each has a name, and it is seen which one has the cursor."""
    environment = {**os.environ, "DISPLAY": xvfb, "QT_QPA_PLATFORM": "xcb"}
    script = os.path.join(os.path.dirname(__file__), "keyboard_walk.py")
    done = subprocess.run([sys.executable, script], env=environment, timeout=200, capture_output=True, text=True)
    assert done.returncode == 0, done.stderr
    pages = [json.loads(line) for line in done.stdout.splitlines()]
    assert {each["stage"] for each in pages} == {str(stage) for stage in Stage}
    assert len(pages) > 30
    for each in pages:
        assert each["reached"] > 40
        assert (each["missed"], each["unnamed"], each["unseen"]) == ([], [], []), each


def test_the_drawing_is_gone_through_by_keyboard_and_each_thing_on_it_has_a_name(window):
    board = window.board
    for stage in Stage:
        window.session.go_to(stage)
        board.setFocus()
        names = set()
        for _ in board.things():
            QTest.keyClick(board, Qt.Key.Key_Right)
            assert board.lit in board.things()
            names.add(board.accessibleName())
            assert "on the drawing" in board.accessibleName()
        assert len(names) == len(board.things())
    window.session.go_to(Stage.LEAF)
    board.setFocus()
    board.pointed.emit("")
    size = next(ref for ref, shape in board.things().items() if getattr(shape, "edit", "") == "build.stile")
    for _ in board.things():
        QTest.keyClick(board, Qt.Key.Key_Left)
        if board.lit == size:
            break
    before = window.session.solved.figures["stile"].value
    QTest.keyClick(board, Qt.Key.Key_Return)
    box = board.findChild(QLineEdit, "boardEntry")
    assert not box.isHidden()
    QTest.keyClicks(box, f"{before + 7:g}")
    QTest.keyClick(box, Qt.Key.Key_Return)
    assert window.session.solved.figures["stile"].value == before + 7
    large = board._view.scale
    QTest.keyClick(board, Qt.Key.Key_Plus)
    assert board._view.scale > large
    QTest.keyClick(board, Qt.Key.Key_0)
    QTest.keyClick(board, Qt.Key.Key_Escape)
    assert board.lit == ""


def test_session_signals_once_per_edit(qtbot, demo):
    session = Session(demo)
    with qtbot.waitSignal(session.changed, timeout=1000):
        assert session.edit("build.stile", 96.0) == ""
    assert session.edit("build.stile", 1.0).startswith("needs 30 mm")


def test_small_window_leaves_the_words_out_and_keeps_the_leaf_large(window):
    window.session.go_to(Stage.LEAF)
    window.resize(1280, 800)
    application().processEvents()
    assert "tenons blind" in window.board.drawing.texts()
    window.resize(1024, 700)
    application().processEvents()
    assert window.width() == 1024
    assert "tenons blind" not in window.board.drawing.texts()
    leaf = window.session.solved.build
    assert window.board._view.scale * leaf.height > 0.6 * window.board.height()


def test_settings_of_all_leaves_that_are_known_are_listed_the_largest_first_and_go_to_a_file(window, tmp_path):
    window.session.go_to(Stage.TIMBER)
    QTest.mouseClick(window.sheet().findChild(QToolButton, "page-Saw"), Qt.MouseButton.LeftButton)
    rows = [record.cells for record in window.list.records.records]
    assert {row[0] for row in rows} == {"planer, thickness", "saw, fence", "saw, stop"}
    window.session.solution.leaf("drying-loft")
    window.sheet().go_to_page("Saw")
    assert any("Drying loft" in record.cells[4] for record in window.list.records.records)
    window.commands.ask_save_path = lambda *_: str(tmp_path / "settings.csv")
    window.commands.settings_list()
    assert "saw, fence" in (tmp_path / "settings.csv").read_text(encoding="utf-8-sig")


def test_texts_of_a_drawing_do_not_lie_on_one_another_in_the_smallest_window(window):
    window.resize(1024, 700)
    for leaf_id, stage, page in (
        ("packet-press", Stage.HARDWARE, "Hinges"),
        ("scullery", Stage.HANG, "Gaps"),
        ("seed-room", Stage.TIMBER, "Parts"),
    ):
        window.choose_leaf(leaf_id)
        window.session.go_to(stage)
        window.sheet().go_to_page(page)
        board = window.middle.board
        view = fitted(board.drawing, QRectF(0, 0, 400, 320))
        assert view.text >= 0.74  # of 13.5 px
        labels = [each for each in board.drawing.shapes if isinstance(each, Label) and each not in view.left_out]
        boxes = [label_box(each, view) for each in labels]
        for at, one in enumerate(boxes):
            for other in boxes[:at]:
                shared = one.intersected(other)
                least = min(one.width() * one.height(), other.width() * other.height())
                assert shared.width() * shared.height() <= 0.31 * least or not least


def test_no_box_is_left_white_in_the_dark(window):
    theme.apply(QApplication.instance(), theme.DARK)
    try:
        for stage in Stage:
            window.session.go_to(stage)
            for page in list(window.sheet().pages):
                window.sheet().go_to_page(page)
                for line in window.sheet().findChildren(QLineEdit):
                    if line.isVisibleTo(window):
                        image = line.grab().toImage()
                        corner = image.pixelColor(image.width() - 4, 4)
                        is_dark = corner.alpha() == 0 or corner.lightnessF() < 0.5  # or what is under it shows
                        assert is_dark, (stage, page, line.objectName())
    finally:
        theme.apply(QApplication.instance(), theme.LIGHT)


@pytest.mark.parametrize("platform", ["offscreen", "xcb"])
def test_random_hands_on_the_window_find_nothing(platform, xvfb, tmp_path):
    """Keys, clicks, drags, boxes and the commands of the menu, for a while; the bench goes on for longer."""
    environment = {**os.environ, "DISPLAY": xvfb, "QT_QPA_PLATFORM": platform}
    script = os.path.join(os.path.dirname(__file__), "../../window_walk.py")
    done = subprocess.run([sys.executable, script, "120", "1"], env=environment, timeout=300, capture_output=True)
    assert done.returncode == 0, done.stderr.decode()[-2000:]
    met = json.loads(done.stdout.splitlines()[-1])
    assert met["found"] == {}
    assert met["steps"] == 120
