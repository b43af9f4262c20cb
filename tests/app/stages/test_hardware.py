"""The Hardware stage in the window: cups and what is sought, packet, lock, pull, a butt dragged."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QCoreApplication, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit, QPushButton, QToolButton

from driving import box, choose, page, refusals, write
from oakmeasure.core.drawings.views import HardwarePage
from oakmeasure.core.figures.check import Stage
from samples import codes


def test_cup_hinge_is_chosen_and_what_is_sought_is_worked_out(window):
    window.choose_leaf("ledger")
    window.session.go_to(Stage.HARDWARE)
    assert window.session.solved.figures["overlay"].value == 13.5
    choose(window, "hardware.cup.unknown", "boring")
    assert not [
        each for each in window.sheet().findChildren(QLineEdit, "hardware.cup.boring") if each.isVisibleTo(window)
    ]
    choose(window, "cup", "Heron long arm")
    write(window, "hardware.cup.plate", "3")
    f = window.session.solved.figures
    assert f["cup_boring"].value == pytest.approx(f["cup_overlay"].value - 12 + 3)
    assert any("boring" in text for text in window.board.drawing.texts())
    write(window, "hardware.cup.first", "5")
    assert "30 mm to 600 mm" in refusals(window)
    assert {row.cells[0] for row in window.list.records.records} >= {"cup 1", "plate 1"}
    for _ in range(3):
        window.session.undo_stack.undo()
    assert window.session.solved.figures["overlay"].value == 13.5


def test_lock_pull_packet_and_template_are_entered_and_taken_back(window):
    window.session.go_to(Stage.HARDWARE)
    page(window, HardwarePage.LOCKS)
    choose(window, "has-a-lock", "a mortise lock")
    write(window, "hardware.lock.backset", "60")
    choose(window, "hardware.pull.kind", "a bar, screwed from behind")
    names = {row.cells[0] for row in window.list.records.records}
    assert {"lock mortise", "keyhole", "pull hole 2"} <= names
    page(window, HardwarePage.HINGES)
    choose(window, "has-template", "guide bush and cutter")
    assert "template" in codes(window.session.solved)
    write(window, "hardware.template.cutter", "18")
    assert "template_length" not in window.session.solved.figures
    while window.session.undo_stack.canUndo():
        window.session.undo_stack.undo()
    assert not window.session.solved.other_borings


def test_butt_is_dragged_on_the_board_as_one_step_and_written_by_hand(window):
    window.session.go_to(Stage.HARDWARE)
    before = [each.top.value for each in window.session.solved.butts.places]
    place = window.board.place_of("handle:butt 2").toPoint()
    QTest.mousePress(window.board, Qt.MouseButton.LeftButton, pos=place)
    for _ in range(12):
        place.setY(place.y() - 1)
        QTest.mouseMove(window.board, place)
    QTest.mouseRelease(window.board, Qt.MouseButton.LeftButton, pos=place)
    after = [each.top.value for each in window.session.solved.butts.places]
    assert after[1] < before[1] - 20
    assert after[::2] == before[::2]
    window.session.undo_stack.undo()
    assert [each.top.value for each in window.session.solved.butts.places] == before
    assert box(window, "hardware.count").text() in ("", "3")


def test_hinge_is_taken_from_the_catalogue_and_the_leafs_own_is_kept_in_it(window):
    window.choose_leaf("specimens")
    window.session.go_to(Stage.HARDWARE)
    page(window, HardwarePage.CATALOGUE)
    assert window.compare.isVisibleTo(window)
    QTest.mouseClick(window.compare.buttons["Heron 110"], Qt.MouseButton.LeftButton)
    assert window.session.leaf.hardware.cup.hinge.name == "Heron 110"
    window.commands.keep_hinge()
    assert window.session.job.own_cups[0].name.startswith("Heron 110, kept 20")
    assert any(name.startswith("Heron 110, kept") for name in window.compare.buttons)
    window.session.undo_stack.undo()
    window.session.undo_stack.undo()
    assert window.session.leaf.hardware.cup.hinge.name == "Heron long arm"
    window.choose_leaf("winnowing")  # it slides: its sets stand beside each other at Fit
    assert not window.compare.isVisibleTo(window)


def test_table_of_ones_own_hinge_is_written_row_by_row(window):
    window.choose_leaf("press-left")
    window.session.go_to(Stage.HARDWARE)
    page(window, HardwarePage.CATALOGUE)
    QCoreApplication.processEvents()
    before = window.session.leaf.hardware.cup.hinge.reveal
    write(window, "reveals.2.reveal", "9")
    assert window.session.leaf.hardware.cup.hinge.reveal[2].reveal == 9
    assert window.session.solved.figures["cup_reveal"].value > 1.3
    write(window, "hardware.cup.hinge.boring_least", "12")
    assert "largest boring" in refusals(window)
    window.session.undo_stack.undo()
    assert window.session.leaf.hardware.cup.hinge.reveal == before


def test_sliding_leaf_has_its_gear_where_a_hung_one_has_its_hinges(window):
    window.session.go_to(Stage.HARDWARE)
    shown = {page for page in HardwarePage if window.sheet().findChild(QToolButton, f"page-{page}").isVisibleTo(window)}
    assert shown == set(HardwarePage) - {HardwarePage.GEAR}
    window.choose_leaf("barn-side")
    assert window.sheet().page == HardwarePage.GEAR
    shown = {page for page in HardwarePage if window.sheet().findChild(QToolButton, f"page-{page}").isVisibleTo(window)}
    assert shown == {HardwarePage.GEAR, HardwarePage.FIXINGS, HardwarePage.LOCKS, HardwarePage.CLASHES}
    assert window.session.working == "hanger_works"
    write(window, "hardware.hangers.rating_kg", "20")
    assert "hangers-weak" in codes(window.session.solved)
    window.session.undo_stack.undo()
    window.choose_leaf("seed-room")
    assert window.sheet().page == HardwarePage.HINGES


def test_studs_are_entered_and_a_missed_one_is_mended_by_a_click(window):
    window.choose_leaf("barn-side")
    window.session.go_to(Stage.HARDWARE)
    page(window, HardwarePage.FIXINGS)
    assert not any(window.session.solved.gear.held)
    button = next(each for each in window.checks.findChildren(QPushButton) if each.text().startswith("Shift the"))
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)
    assert all(window.session.solved.gear.held)
    assert box(window, "hardware.wall.shift").text() == "92"
    window.session.undo_stack.undo()
    for place in ("130", "536", "942"):
        write(window, "studs.new.at", place)
    assert [each.at for each in window.session.leaf.hardware.wall.studs] == [130, 536, 942]
    write(window, "hardware.wall.backing", "900")
    assert "80" in refusals(window)
    assert window.session.leaf.hardware.wall.backing == 0
    write(window, "hardware.stack.depth", "30")
    assert "stack-none" in codes(window.session.solved)


def test_clash_is_drawn_listed_as_a_zone_and_taken_out_of_the_way_by_one_click(window, tmp_path):
    window.session.go_to(Stage.HARDWARE)
    page(window, HardwarePage.LOCKS)
    choose(window, "hardware.latch.kind", "a tubular latch, bored into the edge")
    write(window, "hardware.latch.up", "950")
    page(window, HardwarePage.CLASHES)
    assert any(ref.startswith("clash:") for ref in window.board.drawing.refs())
    assert "latch" in {row.cells[0] for row in window.list.records.records}
    buttons = window.checks.findChildren(QPushButton)
    button = next(each for each in buttons if each.text().startswith("Move the latch"))
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)
    assert not any(ref.startswith("clash:") for ref in window.board.drawing.refs())
    assert window.session.leaf.hardware.latch.up != 950
    for command, name in (("zone_sheet", "zones.pdf"), ("keep_outs", "zones.csv")):
        window.commands.ask_save_path = lambda *_, name=name: str(tmp_path / name)
        QTest.mouseClick(window.sheet().findChild(QPushButton, command), Qt.MouseButton.LeftButton)
        assert (tmp_path / name).stat().st_size > 200
