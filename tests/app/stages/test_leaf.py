"""The Leaf and Timber stages in the window: constructions, patterns, lay-up, a rail dragged, the year."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QCoreApplication, Qt
from PySide6.QtTest import QTest

from driving import box, choose, let_go, page, refusals, write
from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.window import Window
from oakmeasure.core.document.job import new_job
from oakmeasure.core.document.roles import Role
from oakmeasure.core.drawings.views import LeafPage, TimberPage
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.gauges.protocol import GaugeReading, Quantity
from samples import codes


@pytest.mark.parametrize(
    ("construction", "role"),
    [
        ("framed and panelled", Role.PANEL),
        ("boarded", Role.BRACE),
        ("solid slab", Role.STIFFENER),
        ("layered from sheet", Role.LIPPING),
        ("light face frame", Role.BOARD),
        ("veneered, built up", Role.VENEER),
        ("a leaf that exists", Role.CORE),
    ],
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
    let_go(fresh)


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
        if "lock height" in window.middle.title.text():
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


# --- layered, light, veneered, existing ----------------------------------------------------------------------


def test_every_word_of_every_construction_can_be_chosen_and_every_box_written_and_taken_back(window):
    """Each choice through all of its words, each box one step up: nothing is refused without a reason beside it."""
    window.session.go_to(Stage.LEAF)
    for construction in ("layered from sheet", "light face frame", "veneered, built up", "a leaf that exists"):
        choose(window, "construction", construction)
        for combo in [each for each in window.sheet().findChildren(ChoiceBox) if each.isVisibleTo(window)]:
            if combo.objectName() == "construction":
                continue
            for at in range(combo.count()):
                combo.setCurrentIndex(at)
                combo.activated.emit(at)
                QCoreApplication.processEvents()
                assert combo.currentIndex() == at, (construction, combo.objectName())
        for path, entry in window.sheet().entries.items():
            if entry.isVisibleTo(window) and entry.line.text():
                write(window, path, str(float(entry.line.text().replace(",", ".")) + 1))
        assert window.session.solved.build is not None
    while window.session.undo_stack.canUndo():
        window.session.undo_stack.undo()
    assert window.session.leaf.build.kind == "framed"


def test_late_trim_is_one_entry_and_its_table_follows(window):
    window.session.go_to(Stage.LEAF)
    page(window, LeafPage.WAYS)
    before = window.session.solved.build.height
    write(window, "late.foot", "5")
    assert window.session.solved.build.height == before - 5
    assert any(each.title == "Trimmed once made" for each in window.session.solved.leaf_choices)
    assert window.compare.isVisibleTo(window)
    assert "5" in " ".join(window.board.drawing.texts())
    write(window, "late.foot", "999")
    assert "0 mm to 200 mm" in refusals(window)
    window.session.undo_stack.undo()
    assert window.session.solved.build.height == before


def test_way_of_making_a_leaf_narrower_is_taken_by_its_word_and_taken_back(window):
    window.choose_leaf("pantry")
    window.session.go_to(Stage.LEAF)
    page(window, LeafPage.WAYS)
    assert window.session.solved.figures["stile_off"].value == pytest.approx(20, abs=0.1)
    QTest.mouseClick(window.compare.buttons["Panels only"], Qt.MouseButton.LeftButton)
    assert window.session.solved.figures["stile_off"].value == pytest.approx(0, abs=0.1)
    window.session.undo_stack.undo()
    assert window.session.solved.figures["stile_off"].value == pytest.approx(20, abs=0.1)


def test_leaf_is_shown_beside_another_construction_which_is_then_built(window):
    window.session.go_to(Stage.LEAF)
    page(window, LeafPage.OTHER)
    other = window.middle.other
    assert other.box.currentText() == "boarded"
    other.box.setCurrentIndex(other.box.findText("veneered, built up"))
    other.box.activated.emit(other.box.currentIndex())
    assert window.session.beside().other.leaf.build.kind == "veneered"
    assert "veneered, built up" in window.board.drawing.texts()
    QTest.mouseClick(other.take, Qt.MouseButton.LeftButton)
    assert window.session.leaf.build.kind == "veneered"
    assert other.box.findText("veneered, built up") < 0
    window.session.undo_stack.undo()
    assert window.session.leaf.build.kind == "framed"


def test_place_sets_the_air_and_glue_finish_and_fixings_are_chosen_beside_it(window):
    window.session.go_to(Stage.TIMBER)
    page(window, TimberPage.YEAR)
    choose(window, "place", "outside")
    assert box(window, "timber.wet.humidity").text() == "88"
    choose(window, "timber.glue", "D2")
    assert "place-glue" in codes(window.session.solved)
    window.session.undo_stack.undo()
    window.session.undo_stack.undo()
    assert window.session.leaf.timber.place == "dry room"
