"""The box of quick sums: one key, words, boxes, result with drawing and working, into the job."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QCoreApplication, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QComboBox, QLineEdit, QPushButton

from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document.production import LogKind
from oakmeasure.core.drawings.drawing import Dimension
from oakmeasure.core.sums.registry import SUMS

RETURN = Qt.Key.Key_Return


@pytest.fixture
def sums(window):
    window.show()
    QTest.qWaitForWindowActive(window)
    QTest.keyClick(window, Qt.Key.Key_F4)
    QCoreApplication.processEvents()
    opened = window.commands.sums
    assert opened.isVisible()
    yield opened
    opened.close()


def line(sums, option):
    return sums.area.widget().findChild(QLineEdit, f"sum.{option}")


def write(sums, option, text):
    box = line(sums, option)
    box.setFocus()
    box.selectAll()
    QTest.keyClicks(box, text)
    QTest.keyClick(box, RETURN)


def press(sums, words):
    QCoreApplication.processEvents()
    button = next(
        each for each in sums.findChildren(QPushButton) if each.isVisibleTo(sums) and each.text().startswith(words)
    )
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)


def test_one_key_opens_it_words_find_and_enter_goes_to_the_first_box(sums):
    QTest.keyClicks(sums.look, "brace")
    assert sums.title.text() == "Brace in a field"
    QTest.keyClick(sums.look, Qt.Key.Key_Down)
    QTest.keyClick(sums.look, Qt.Key.Key_Up)
    QTest.keyClick(sums.look, RETURN)
    for option, text in (("width", "600"), ("height", "28 in - 11.2mm"), ("brace-width", "100")):
        write(sums, option, text)
    assert "55.63°" in sums.outcome.text()
    assert "848.1 mm" in sums.outcome.text()
    assert any(isinstance(each, Dimension) and each.figure == "long_edge" for each in sums.board.drawing.shapes)
    assert "field, height: 700 mm" in sums.working.text()


def test_the_find_box_of_the_window_knows_the_sums(window):
    finder = window.job_line.finder
    finder.setFocus()
    finder.renew()
    QTest.keyClicks(finder, "radius of an arch")
    QTest.keyClick(finder, RETURN)
    assert window.commands.sums.isVisible()
    assert window.commands.sums.title.text() == "Radius of an arch"
    window.commands.sums.close()


def test_every_sum_opens_with_an_answer_of_the_leaf_or_an_example(sums):
    for name, told in SUMS.items():
        sums.choose(name)
        assert sums.found is not None, name
        assert all(each.label in sums.outcome.text() for each in sums.found.gives), name
        assert sums.board.drawing.shapes, name
        assert sums.list.currentItem().text() == told.title
    assert len(sums.entries) == len(SUMS[name].options)


def test_a_leaf_size_starts_as_the_leaf_in_hand_is(sums):
    sums.choose("leaf-size")
    leaf = sums.session.solved
    assert sums.found.values()["leaf_width"] == pytest.approx(leaf.fit.width.value)
    assert sums.found.values()["leaf_height"] == pytest.approx(leaf.fit.height.value)


def test_what_is_refused_is_told_beside_its_box_and_stays_there(sums):
    sums.choose("arch")
    write(sums, "rise", "5000")
    note = sums.notes["rise"]
    assert note.isVisibleTo(sums)
    assert note.property("role") == "refused"
    assert line(sums, "rise").text() == "5000"
    assert sums.found is not None  # the last good answer still stands
    write(sums, "rise", "7/0")
    assert "divides by nothing" in note.text()
    write(sums, "rise", "100")
    assert not note.isVisibleTo(sums)


def test_what_another_option_makes_senseless_is_told_where_the_answer_stood(sums):
    sums.choose("tenon-panel")
    write(sums, "groove", "1")
    assert sums.found is None
    assert sums.outcome.text() == "room for the panel, each side: needs at most the groove, 1 mm"
    write(sums, "groove", "12")
    assert sums.found is not None


def test_several_boards_and_choices_are_taken(sums):
    sums.choose("last-rip")
    write(sums, "leaf-width", "700")
    write(sums, "laid", "150; 151.5; 149")
    assert sums.found.values()["last_rip"] == pytest.approx(249.5)
    write(sums, "laid", "150; x")
    assert sums.notes["laid"].isVisibleTo(sums)
    sums.choose("movement")
    before = sums.found.values()["change"]
    cut = sums.area.widget().findChild(QComboBox, "sum.cut")
    cut.setCurrentIndex(cut.findData("radial"))
    cut.activated.emit(cut.currentIndex())
    assert abs(sums.found.values()["change"]) < abs(before)


def test_a_figure_goes_into_the_leaf_and_one_undo_takes_it_back(sums):
    session = sums.session
    before = session.job
    sums.choose("edge-bevel")
    write(sums, "gap", "2")
    press(sums, "least bevel")
    assert session.leaf.fit.bevel_deg == pytest.approx(sums.found.values()["least_bevel"])
    assert session.leaf.name in sums.sent.text()
    session.undo_stack.undo()
    assert session.job == before
    press(sums, "Note it")
    entry = session.leaf.making.log[-1]
    assert entry.kind is LogKind.NOTE
    assert "Bevel of the latch edge" in entry.text


def test_what_the_document_refuses_is_said_and_the_job_stays(sums):
    sums.choose("tenon-panel")
    write(sums, "groove", "60")
    before = sums.session.job
    press(sums, "groove, depth")
    assert sums.sent.property("role") == "refused"
    assert sums.session.job == before


def test_inches_are_shown_when_the_job_is_in_inches_and_what_was_written_is_kept(sums):
    sums.choose("lining")
    write(sums, "rough-width", "900")
    sums.choose("arch")
    sums.session.set_unit(UnitSystem.INCH)
    sums.choose("lining")
    assert sums.values["rough-width"] == 900
    assert '"' in sums.outcome.text()
    assert '7/16"' in line(sums, "rough-width").text()
