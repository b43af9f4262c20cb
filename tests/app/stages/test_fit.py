"""The Fit stage in the window: ways of hanging, handles, an even gap, choices side by side."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest

from driving import choose, page, write
from oakmeasure.core.figures.check import Stage
from samples import codes


def test_way_of_hanging_is_chosen_and_the_leaf_is_opened_by_its_handle(window):
    window.session.go_to(Stage.FIT)
    page(window, "Opens")
    QTest.mousePress(window.board, Qt.MouseButton.LeftButton, pos=window.board.place_of("handle:opened").toPoint())
    pin = window.board.place_of("figure:butt_knuckle").toPoint()
    QTest.mouseMove(window.board, pin + QPoint(0, 150))  # straight down from the pin: open to a right angle
    QTest.mouseRelease(window.board, Qt.MouseButton.LeftButton, pos=pin)
    assert abs(window.middle.opened.value() - 90) <= 2
    assert any(text.startswith("opened ") for text in window.board.drawing.texts())
    page(window, "Leaf")
    choose(window, "hanging", "sliding on the wall")
    write(window, "slide.overlap_head", "-10")
    assert window.session.leaf.slide.overlap_head == -10
    page(window, "Opens")
    window.board.handle_moved.emit("handle:opened", 2000.0, 900.0)
    assert "slid 100 %" in window.middle.opened_label.text()
    write(window, "slide.track", "100")
    assert "track-short" in codes(window.session.solved)
    window.session.undo_stack.undo()
    assert "track-short" not in codes(window.session.solved)


def test_leaf_left_full_is_sized_to_its_shims_through_the_screen_alone(window, qtbot):
    window.choose_leaf("weighing-office")
    window.session.go_to(Stage.FIT)
    page(window, "Goes in")
    qtbot.waitUntil(lambda: "goes in without planing" in window.goes_in.sentence.text(), timeout=10_000)
    assert not window.board.isVisible()
    choose(window, "has-fit.even", "what the hinges make")
    assert "not-hung" in codes(window.session.solved)
    write(window, "shims.new.thickness", "0.8")
    write(window, "shims.new.count", "2")
    assert window.session.solved.figures["gap_latch"].value == pytest.approx(1.6)
    write(window, "fit.even.full_width", "800")
    assert window.session.solved.figures["plane_latch_edge"].value == pytest.approx(
        800 - window.session.solved.figures["leaf_width"].value
    )
    choose(window, "has-fit.even", "those that are chosen")
    assert window.session.leaf.fit.even is None


def test_way_out_is_taken_from_the_comparison_and_undone(window):
    window.choose_leaf("reading-room")
    window.session.go_to(Stage.FIT)
    page(window, "Compare")
    assert "gear-short" in codes(window.session.solved)
    QTest.mouseClick(window.compare.buttons["Osier pocket frame, low"], Qt.MouseButton.LeftButton)
    assert "gear-short" not in codes(window.session.solved)
    assert window.session.leaf.slide.track_set.name == "Osier pocket frame, low"
    assert "Osier" in window.session.undo_stack.undoText()
    window.session.undo_stack.undo()
    assert "gear-short" in codes(window.session.solved)
    window.choose_leaf("ledger")
    assert not window.compare.buttons
    page(window, "Opens")
    write(window, "hardware.cup.hinge.opens", "155")
    assert window.session.solved.figures["opens_to"].value == 155
    window.board.handle_moved.emit("handle:opened", -400.0, -300.0)
    assert window.middle.opened.value() > 90
