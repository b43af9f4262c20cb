"""Every way of hanging in the window, lists edited row by row, leaves that unfold behind it."""

from __future__ import annotations

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QComboBox, QLineEdit, QToolButton

from oakmeasure.core.base.parsing import parse_length
from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.document import field_path
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.solver import Solver, solve


def visible(window, kind, name):
    return next(each for each in window.sheet().findChildren(kind, name) if each.isVisibleTo(window))


@pytest.mark.parametrize("way", list(Hanging))
def test_each_way_of_hanging_is_chosen_shown_and_taken_back_on_every_stage(window, way):
    window.session.go_to(Stage.FIT)
    combo = visible(window, QComboBox, "hanging")
    combo.setCurrentIndex(combo.findText(str(way)))
    combo.activated.emit(combo.currentIndex())
    assert window.session.leaf.hanging is way
    for page in window.sheet().pages:
        window.sheet().go_to_page(page)
        assert window.board.drawing.shapes
        assert window.middle.opened.isVisible() is (page == "Opens" and (way.slides or way.has_butts or way.is_cabinet))
    for stage in Stage:
        window.session.go_to(stage)
        assert window.rod.marks[stage].key
        assert window.board.drawing.texts()
    if way is not Hanging.LINING:
        window.session.undo_stack.undo()
    assert window.session.leaf.hanging is Hanging.LINING


def test_row_is_changed_refused_marked_as_assumed_and_taken_off(window):
    window.choose_leaf("winnowing")
    window.sheet().go_to_page("Round it")
    QTest.qWait(1)  # new rows are laid out by the event loop
    line = visible(window, QLineEdit, "travel.1.height")
    line.setFocus()
    line.selectAll()
    QTest.keyClicks(line, "500")
    QTest.keyClick(line, Qt.Key.Key_Return)
    assert window.session.leaf.floor.travel[1].height.value == 3.0
    assert line.text() == "500"  # refused, and still there to be mended
    line.selectAll()
    QTest.keyClicks(line, "2.5")
    QTest.keyClick(line, Qt.Key.Key_Return)
    assert window.session.leaf.floor.travel[1].height.value == 2.5
    QTest.keyClick(line, Qt.Key.Key_M, Qt.KeyboardModifier.ControlModifier)
    assert window.session.leaf.floor.travel[1].height.state is Provenance.ASSUMED
    remove = next(
        each for each in window.sheet().findChildren(QToolButton) if each.accessibleName() == "take height 2 off"
    )
    QTest.mouseClick(remove, Qt.MouseButton.LeftButton)
    assert [each.at for each in window.session.leaf.floor.travel] == [0, 800, 1200, 1600]


def test_window_waits_for_the_leaf_in_hand_only_and_learns_of_the_others_later(window, demo, qtbot):
    solver = Solver()
    unfolding = solver.unfold(demo)
    assert unfolding.leaf("hatch").leaf.id == "hatch"
    assert solver.worked_out == 1
    assert unfolding.checks == ()
    assert unfolding.known("pair") is None
    whole = unfolding.whole()
    assert solver.worked_out == len(demo.leaves)
    assert [each.checks for each in whole.leaves] == [each.checks for each in solve(demo).leaves]
    few = field_path.with_value(demo, "boards", tuple(each for each in demo.boards if each.is_owned))
    window.session.open(few, None)
    qtbot.waitUntil(lambda: not window.session.solution.next_missing(), timeout=10_000)
    assert any(each.code == "boards-shared" for each in window.checks.shown_checks())


def test_leaf_is_chosen_from_the_list_beside_the_rack(window):
    line = window.job_line
    line._fill_leaf_menu()
    names = [each.text() for each in line._leaf_menu.actions()]
    assert len(names) == len(window.session.job.leaves)
    line._leaf_menu.actions()[21].trigger()
    assert window.session.leaf_id == "pair"
    assert any(each.leaf.id == "pair" and each.current for each in line._silhouettes)


@pytest.mark.parametrize("mm", [-3.2, 0.0, 258.24, 9999.0])
def test_short_length_is_read_back_to_a_hundredth_of_an_inch(mm):
    text = Show(UnitSystem.INCH).short_length(mm)
    assert parse_length(text, UnitSystem.INCH, allow_negative=True) == pytest.approx(mm, abs=0.13)
