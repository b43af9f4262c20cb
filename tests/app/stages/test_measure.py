"""The Measure stage in the window: pages, ticks, lists with an empty row, the gauge, how sure, still to be measured."""

from __future__ import annotations

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QDialog, QPushButton

from driving import RETURN, box, choose, page, refusals, write
from oakmeasure.app.stages.measure.to_measure import ToMeasureDialog
from oakmeasure.core.document.readings import FloorAlong, MeasuredBy, TickForm
from oakmeasure.core.drawings.views import MeasurePage
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.gauges.protocol import GaugeReading, Quantity
from samples import codes


def test_each_page_has_its_own_board_and_list(window):
    window.choose_leaf("pair")
    titles = set()
    for name in MeasurePage:
        page(window, name)
        titles.add(window.middle.title.text())
        assert window.board.drawing.shapes
        assert window.list.records.records or name is MeasurePage.ROUND
    assert len(titles) == 3


def test_opening_measured_by_sides_and_diagonals_through_the_screen_alone(window):
    choose(window, "measured_by", "sides and diagonals")
    assert "polygon-open" in codes(window.session.solved)
    for length in ("740", "2030", "740", "2030"):
        write(window, "spans.new.length", length)  # which corners is suggested: round the sides, then across
    assert "polygon-open" in codes(window.session.solved)
    write(window, "spans.new.length", "2160.69")
    write(window, "spans.new.length", "2160.69")
    assert "survey-agrees" in codes(window.session.solved)
    assert window.session.solved.figures["clear_width"].value == pytest.approx(740, abs=0.1)
    write(window, "polygon.corners", "9")
    assert "3 to 8" in refusals(window) or "less than or equal to 8" in refusals(window)
    choose(window, "measured_by", "tape and level")
    assert box(window, "readings.width_top").text() == "742"  # nothing was lost
    assert len(window.session.leaf.polygon.spans) == 6


def test_tick_is_taken_out_and_in_again_by_a_click_and_the_others_stay(window):
    window.choose_leaf("hatch")
    place = window.board.place_of("tick:5")
    QTest.mouseClick(window.board, Qt.MouseButton.LeftButton, pos=place.toPoint())
    assert window.session.leaf.template.ticks[4].excluded
    assert "tick-5" not in codes(window.session.solved)
    window._ask_part("tick:5")
    assert not window.session.leaf.template.ticks[4].excluded
    window.session.undo_stack.undo()
    assert window.session.leaf.template.ticks[4].excluded


def test_ticks_are_written_one_after_the_other_without_leaving_the_keyboard(window):
    window.choose_leaf("hatch")
    before = len(window.session.leaf.template.ticks)
    for x, y, angle in (("300", "260", "-88"), ("310", "650", "91.5")):
        write(window, "ticks.new.x", x)
        write(window, "ticks.new.y", y)
        write(window, "ticks.new.angle_deg", angle)
        line = box(window, "ticks.new.side")
        assert line.hasFocus()
        QTest.keyClick(line, RETURN)
        assert box(window, "ticks.new.x").hasFocus()
    assert len(window.session.leaf.template.ticks) == before + 2
    assert window.session.leaf.template.ticks[-1].side is None
    choose(window, "template.form", "points alone")
    assert window.session.leaf.template.form is TickForm.POINT
    QTest.mouseClick(window.sheet().findChild(QPushButton, "take_check"), Qt.MouseButton.LeftButton)
    assert len(window.session.leaf.template.ticks) == before + 1


def test_ticks_from_a_file_and_a_file_that_is_refused(window, tmp_path):
    good, bad = tmp_path / "ticks.csv", tmp_path / "bad.csv"
    rows = [(x, y) for x in (0, 700) for y in (200, 800, 1400)] + [(x, y) for x in (100, 600) for y in (0, 2000)]
    good.write_text("x,y\n" + "\n".join(f"{x},{y}" for x, y in rows))
    bad.write_text("x,y\n1,nothing\n")
    window.commands.ask_points_path = lambda: str(good)
    window.commands.import_ticks()
    assert window.session.leaf.measured_by is MeasuredBy.TICKS
    assert window.session.solved.figures["clear_width"].value == pytest.approx(700)
    window.commands.ask_points_path = lambda: str(bad)
    window.commands.import_ticks()
    assert "line 2" in window.said[-1][1]
    assert len(window.session.leaf.template.ticks) == 10


def test_floor_and_things_are_written_and_refused_in_words(window):
    page(window, MeasurePage.ROUND)
    write(window, "swing.new.at", "90")
    write(window, "swing.new.height", "30")
    assert "floor-drags" in codes(window.session.solved)
    write(window, "swing.new.at", "200")
    write(window, "swing.new.height", "1")
    assert "0 to 180" in refusals(window)
    assert box(window, "swing.new.at").text() == "200"  # what was typed stays
    choose(window, "floor.along", "the travel")
    assert window.session.leaf.floor.along is FloorAlong.TRAVEL
    write(window, "in_the_way.new.stands_out", "18")
    assert window.session.leaf.in_the_way[0].stands_out.value == 18
    assert "floor:1" not in window.board.drawing.refs()
    assert "thing:1" in window.board.drawing.refs()


def test_lining_to_be_made_and_its_school_by_the_checks_button(window):
    page(window, MeasurePage.LINING)
    choose(window, "lining", "to the rough opening")
    assert window.session.solved.figures["between"].value == pytest.approx(736.5 - 12 - 50, abs=0.5)
    write(window, "lining.packing", "1")
    said = next(each for each in window.session.solved.checks if each.code in ("lining-tight", "lining-packing"))
    assert said.sentence
    write(window, "lining.trench", "24")
    assert "0 mm to 20 mm" in refusals(window)
    choose(window, "lining", "is in, or none")
    assert window.session.leaf.lining is None


def test_reading_with_its_uncertainty_is_taken_from_one_line(window):
    write(window, "readings.width_top", "742.5 ± 2")
    reading = window.session.leaf.readings.width_top
    assert (reading.value, reading.sigma, reading.state) == (742.5, 2, Provenance.MEASURED)
    row = next(each for each in window.list.records.records if each.ref == "reading:width_top")
    assert row.cells[1] == "2"
    write(window, "readings.width_top", "742 ± wide")
    assert refusals(window)


def test_how_sure_is_drawn_when_the_readings_rest_and_says_its_seed(window, qtbot):
    write(window, "readings.width_top", "743")
    qtbot.waitUntil(lambda: "openings a leaf of" in window.sure.sentence.text(), timeout=10_000)
    assert "seed" in window.sure.detail.text()
    assert window.sure.picture.drawing is not None


def test_exaggeration_is_moved_and_does_not_apply_where_there_is_no_rectangle(window):
    window.middle.crooked.setValue(20)
    assert "20" in window.middle.crooked_label.text()
    choose(window, "measured_by", "sides and diagonals")
    corners = ((0, 0), (900, 0), (1000, 900), (450, 1500), (0, 1200))
    write(window, "polygon.corners", "5")
    for length in ("900", "905.54", "813.94", "540.83", "1200"):
        write(window, "spans.new.length", length)
    for length in ("1345.36", "1566.05", "1566.05", "1500", "1044.03"):
        write(window, "spans.new.length", length)
    assert len(window.session.leaf.polygon.spans) == 10
    assert len(window.session.solved.opening.taken.corners) == len(corners)
    assert not window.middle.crooked.isVisible()


def test_still_to_be_measured_lists_all_leaves_and_leads_to_the_box(window, monkeypatch):
    dialog = ToMeasureDialog(window, window.session)
    monkeypatch.setattr(QDialog, "exec", lambda _self: 0)
    at = next(
        at for at, each in enumerate(dialog.items) if each.edit.startswith("hardware") and each.leaf_id == "hatch"
    )
    dialog.list.chosen.emit(str(at))
    assert window.session.leaf_id == "hatch"
    assert window.session.stage is Stage.HARDWARE
    assert box(window, dialog.items[at].edit).hasFocus()


# --- the gauge -------------------------------------------------------------------------------------------


@pytest.fixture
def gauge(window, qtbot):
    window.gauge.connect_simulated(bad_share=0.0)
    qtbot.waitUntil(lambda: "takes the reading" in window.gauge.words.text(), timeout=5000)
    yield window.gauge
    window.gauge.disconnect_gauge()


def test_gauge_fills_the_box_with_the_cursor_and_moves_on(window, gauge, qtbot):
    box(window, "readings.width_top").setFocus()
    for name in ("width_top", "width_middle", "width_bottom"):
        gauge.press_simulated()
        reading = window.session.leaf.readings
        before = getattr(reading, name).value
        qtbot.waitUntil(lambda n=name, b=before: getattr(window.session.leaf.readings, n).value != b, timeout=5000)
    assert box(window, "readings.height_hinge").hasFocus()
    assert window.session.leaf.readings.width_top.value == pytest.approx(742, abs=2)
    window.session.undo_stack.undo()
    assert window.session.leaf.readings.width_bottom.value == 736.5


def test_bad_line_is_shown_and_changes_nothing(window, gauge, qtbot):
    box(window, "readings.width_top").setFocus()
    before = window.session.job
    gauge.simulated.send(b"BATTERY\x01 LOW\r\n")
    qtbot.waitUntil(lambda: "BATTERY" in gauge.last.text(), timeout=5000)
    assert window.session.job is before
    gauge.simulated.unplug()
    qtbot.waitUntil(lambda: "unplugged" in gauge.words.text(), timeout=5000)
    gauge.simulated.plug_in()
    qtbot.waitUntil(lambda: "takes the reading" in gauge.words.text(), timeout=5000)
    gauge.simulated.press(741.0)
    qtbot.waitUntil(lambda: window.session.job is not before, timeout=5000)


def test_slope_goes_into_a_lean_only_and_a_reading_out_of_range_is_refused_beside_the_box(window, gauge):
    box(window, "readings.lean_latch").setFocus()
    gauge.take(GaugeReading(Quantity.SLOPE, 2.0))
    assert window.session.leaf.readings.lean_latch.value == pytest.approx(2 * 2.031, abs=0.01)
    box(window, "readings.width_top").setFocus()
    gauge.take(GaugeReading(Quantity.SLOPE, 2.0))
    assert "no lean" in gauge.last.text()
    gauge.take(GaugeReading(Quantity.ANGLE, 2.0))
    assert "angle came" in gauge.last.text()
    gauge.take(GaugeReading(Quantity.DISTANCE, 99_000.0))
    assert "200" in refusals(window)
    window.setFocus()
    gauge.take(GaugeReading(Quantity.DISTANCE, 740.0))
    assert "no box has the cursor" in gauge.last.text()


def test_a_reading_typed_over_an_assumed_one_is_measured_whatever_it_equals(window):
    path = "readings.width_bottom"
    window.session.set_state(path, Provenance.ASSUMED)
    shown = box(window, path).text()
    write(window, path, shown)
    assert window.session.leaf.readings.width_bottom.state is Provenance.MEASURED
    window.session.set_state(path, Provenance.ASSUMED)
    box(window, path).setFocus()
    QTest.keyClick(box(window, path), RETURN)  # walked through, nothing typed
    assert window.session.leaf.readings.width_bottom.state is Provenance.ASSUMED
