"""The Leaf and Timber stages in the window: constructions, patterns, lay-up, a rail dragged, the year."""

from __future__ import annotations

import gc

import pytest
from PySide6.QtCore import QCoreApplication, QEvent, Qt
from PySide6.QtTest import QTest

from driving import box, choose, page, write
from oakmeasure.app.session import Session
from oakmeasure.app.window import Window
from oakmeasure.core.build.shape import Role
from oakmeasure.core.drawings.views import LeafPage, TimberPage
from oakmeasure.core.job import new_job
from oakmeasure.core.verdicts import Level, Stage
from oakmeasure.gauges.protocol import GaugeReading, Quantity
from samples import codes


@pytest.mark.parametrize(
    ("construction", "role"),
    [("framed and panelled", Role.PANEL), ("boarded", Role.BRACE), ("solid slab", Role.STIFFENER)],
)
def test_newcomer_gets_from_two_readings_to_a_whole_leaf_of_any_construction(qtbot, construction, role):
    """Five inputs: a width, a height, on to Leaf, the construction, on to Timber."""
    fresh = Window(Session(new_job()))
    fresh.show()
    qtbot.waitExposed(fresh)
    write(fresh, "readings.width_middle", "768")
    write(fresh, "readings.height_middle", "1990")
    fresh.session.go_to(Stage.LEAF)
    choose(fresh, "construction", construction)
    fresh.session.go_to(Stage.TIMBER)
    solved = fresh.session.solved
    assert any(part.role is role for part in solved.build.parts)
    assert not codes(solved, Level.STOP)
    assert solved.leaf.readings.width_middle.value == 768
    assert fresh.list.records.records  # its cut list
    fresh.session.undo_stack.setClean()
    fresh.close()
    fresh.deleteLater()
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    gc.collect()


def test_pattern_is_chosen_a_rail_dragged_to_the_lock_and_taken_back(window):
    window.session.go_to(Stage.LEAF)
    choose(window, "pattern", "six panels")
    assert sum(part.role is Role.PANEL for part in window.session.solved.build.parts) == 6
    write(window, "build.lock_height", "900")
    place = window.board.place_of("handle:middle rail").toPoint()
    start = window.session.leaf.build.lock_height
    QTest.mousePress(window.board, Qt.MouseButton.LeftButton, pos=place)
    for _ in range(60):
        place.setY(place.y() - 1)
        QTest.mouseMove(window.board, place)
        if "lock height" in window._board_title.text():
            break
    QTest.mouseRelease(window.board, Qt.MouseButton.LeftButton, pos=place)
    assert window.session.leaf.build.lock_height == 1000
    window.session.undo_stack.undo()  # the whole drag is one step
    assert window.session.leaf.build.lock_height == start
    choose(window, "pattern", "glazed top")
    assert "glass" in codes(window.session.solved)


def test_boards_are_laid_up_one_by_one_and_the_last_rip_is_worked_out(window):
    window.session.go_to(Stage.LEAF)
    choose(window, "construction", "boarded")
    write(window, "build.gap", "0")
    for width in ("150", "6 1/4in", "155"):
        write(window, "boards-laid.new.width", width)
    assert [each.width for each in window.session.leaf.build.measured] == pytest.approx([150, 158.75, 155])
    left = window.session.solved.figures["board_4"].value
    assert window.gauge.isVisible()
    line = box(window, "boards-laid.new.width")
    line.setFocus()
    window.gauge.take(GaugeReading(Quantity.DISTANCE, 141.5))
    assert window.session.leaf.build.measured[-1].width == 141.5
    window.session.undo_stack.undo()
    assert left == pytest.approx(window.session.solved.figures["leaf_width"].value - 463.75)
    page(window, LeafPage.JOINTS)
    rows = [each.cells for each in window.list.records.records]
    assert sum("screw" in each[0] for each in rows) == len(window.session.solved.build.fixings)
    choose(window, "build.fixed_by", "clenched nails")
    assert {each.cells[4] for each in window.list.records.records} == {"52"}  # 20 + 20 and 12 to bend over
    page(window, LeafPage.SET_OUT)
    choose(window, "build.style", "framed and braced")
    assert any(part.name == "hinge stile" for part in window.session.solved.build.parts)
    choose(window, "construction", "solid slab")
    choose(window, "build.stiffener", "nailed ledges")
    assert "held-across" in codes(window.session.solved)
    choose(window, "build.stiffener", "nothing")
    assert "no-stiffener" in codes(window.session.solved)


def test_year_has_its_own_page_beside_the_boards(window):
    window.session.go_to(Stage.TIMBER)
    page(window, TimberPage.YEAR)
    assert not window.list.isVisible()
    assert "the two side gaps together" in window.board.drawing.texts()
    before = window.board.drawing.texts()
    write(window, "timber.wet.humidity", "85")
    assert window.board.drawing.texts() != before
    page(window, TimberPage.BOARDS)
    assert window.list.isVisible()
