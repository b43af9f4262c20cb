"""The real window, driven with keys and mouse, without a screen."""

from __future__ import annotations

import csv
import sys

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QComboBox, QLineEdit, QPushButton, QToolButton, QWidget

from driving import box, note_under, write
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.start import application
from oakmeasure.app.tools.dialogs import AnswerStops, NewJob
from oakmeasure.app.tools.rules_dialog import RulesDialog
from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.drawings.drawing import Dimension
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.files.job.job_file import load
from samples import job

KEY = Qt.Key


def test_there_is_one_window_and_closing_it_ends_the_program(window):
    for stage in Stage:
        window.session.go_to(stage)
    assert [each for each in application().topLevelWidgets() if each.isVisible()] == [window]


def test_reading_typed_as_a_sum_changes_the_leaf_and_moves_on(window):
    before = window.session.solved.figures["leaf_width"].value
    write(window, "readings.width_bottom", "736.5 - 4")
    assert window.session.leaf.readings.width_bottom.value == 732.5
    assert window.session.leaf.readings.width_bottom.state is Provenance.MEASURED
    assert window.session.solved.figures["leaf_width"].value != before
    assert window.focusWidget() is box(window, "readings.height_hinge")


REASONS = {
    "seven": "not a unit",
    "12": "needs 200 mm to 3000 mm",
    "7/0": "divides by nothing",
    "1,200": "without the comma",
    "-5": "less than nothing",
}


def test_refused_entry_says_why_keeps_what_was_typed_and_the_last_good_value(window):
    for text, reason in REASONS.items():
        good = window.session.leaf.readings.width_top
        write(window, "readings.width_top", text)
        assert reason in note_under(window, "readings.width_top")
        assert box(window, "readings.width_top").text() == text
        assert window.session.leaf.readings.width_top == good
        write(window, "readings.width_middle", "739.4")  # other work goes on; the refused text stays
        assert box(window, "readings.width_top").text() == text
        QTest.keyClick(box(window, "readings.width_top"), KEY.Key_Escape)
        assert box(window, "readings.width_top").text() == "742"
        assert not note_under(window, "readings.width_top")
        window.session.undo_stack.undo()


def test_every_edit_is_undone_and_redone(window):
    start = window.session.job
    write(window, "readings.width_top", "743")
    window.session.go_to(Stage.LEAF)
    write(window, "build.stile", "100")
    window.job_line.unit_chosen.emit(UnitSystem.INCH)
    after = window.session.job
    assert window.session.undo_stack.count() == 3
    for _ in range(3):
        QTest.keyClick(window, KEY.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert window.session.job == start
    for _ in range(3):
        QTest.keyClick(window, KEY.Key_Z, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
    assert window.session.job == after


def test_nudges_with_the_arrow_keys_are_one_step(window):
    window.session.go_to(Stage.LEAF)
    line = box(window, "build.stile")
    line.setFocus()
    for _ in range(3):
        QTest.keyClick(line, KEY.Key_Up)
    assert window.session.leaf.build.stile == 98
    assert window.session.undo_stack.count() == 1


def test_state_of_a_reading_is_changed_with_a_key_and_what_hangs_on_it_says_so(window):
    line = box(window, "readings.width_top")
    line.setFocus()
    QTest.keyClick(line, KEY.Key_M, Qt.KeyboardModifier.ControlModifier)
    assert window.session.leaf.readings.width_top.state is Provenance.ASSUMED
    assert any(card.check.code == "assumed-measure" for card in window.checks.cards)


def test_emptied_optional_box_goes_back_to_the_rules(window):
    window.session.go_to(Stage.FIT)
    write(window, "fit.gap_floor", "11")
    assert window.session.leaf.fit.gap_floor == 11
    line = box(window, "fit.gap_floor")
    line.clear()
    QTest.keyClick(line, KEY.Key_Return)
    assert window.session.leaf.fit.gap_floor is None
    assert line.placeholderText() == "6"


def test_rod_shows_key_figure_and_worst_check_and_leads_to_its_stage(window):
    for stage in Stage:
        mark = window.rod.marks[stage]
        QTest.mouseClick(mark, Qt.MouseButton.LeftButton)
        assert window.session.stage is stage
        assert window.sheets.currentWidget() is window.sheet()
        assert mark.key == window.session.solved.key_figure(stage, window.session.show)
        assert mark.accessibleName().startswith(str(stage))
        assert window.board.drawing.shapes
        picture = window.grab().toImage()
        assert picture.width() >= 1024
        colours = {picture.pixelColor(x, y).name() for x in range(330, 980, 27) for y in range(190, 640, 9)}
        assert len(colours) > 4, f"the board of {stage} is empty"


def test_dimension_on_the_drawing_is_edited_where_it_stands(window):
    window.session.go_to(Stage.LEAF)
    place = _dimension(window, "bottom_rail")
    QTest.mouseClick(window.board, Qt.MouseButton.LeftButton, pos=place)
    entry = window.board.findChild(QLineEdit, "boardEntry")
    assert entry.isVisible()
    assert window.session.working == "bottom_rail"
    entry.selectAll()
    QTest.keyClicks(entry, "9000")
    QTest.keyClick(entry, KEY.Key_Return)
    message = window.board.findChild(QWidget, "boardMessage")
    assert message.isVisible()
    assert "needs 30 mm to 600 mm" in message.text()
    assert window.session.leaf.build.bottom_rail == 210
    entry.selectAll()
    QTest.keyClicks(entry, "210 + 15")
    QTest.keyClick(entry, KEY.Key_Return)
    assert window.session.leaf.build.bottom_rail == 225
    assert not entry.isVisible()


def _dimension(window, figure) -> QPoint:
    shape = next(s for s in window.board.drawing.shapes if isinstance(s, Dimension) and s.figure == figure)
    from oakmeasure.app.canvas.label_places import dimension_box

    return dimension_box(shape, window.board._view).center().toPoint()


def test_hovering_a_part_lights_it_up_in_the_list_and_back(window):
    window.session.go_to(Stage.TIMBER)
    place = window.board.place_of("part:bottom rail").toPoint()
    QTest.mouseMove(window.board, place)
    assert window.session.lit == "part:bottom rail"
    assert window.list.records.lit == "part:bottom rail"
    row = next(at for at, each in enumerate(window.list.records.records) if each.ref == "part:top rail")
    window.list.selectRow(row)
    assert window.board.lit == "part:top rail"
    assert window.session.working == "rail_length"


def test_working_leads_down_to_the_readings_and_back(window):
    window.session.show_working("leaf_width")
    for name in ("clear_width", "latch_side_in", "reading_width_top"):
        assert f'href="{name}"' in window.working.sum.text()
        window.working.sum.linkActivated.emit(name)
        assert window.session.working == name
        assert window.session.solved.figures[name].label.lower() in window.working.sum.text().lower()
    back = next(b for b in window.working.findChildren(QPushButton) if b.text() == "back")
    QTest.mouseClick(back, Qt.MouseButton.LeftButton)
    assert window.session.working == "latch_side_in"


def test_checks_are_worst_first_lead_there_and_their_remedy_is_taken_and_undone(window):
    window.session.go_to(Stage.LEAF)
    write(window, "build.lock_height", "300")
    levels = [card.check.level for card in window.checks.cards]
    assert levels == sorted(levels, key=list(Level).index)
    assert levels[0] is Level.STOP
    window.session.go_to(Stage.MEASURE)
    QTest.mouseClick(window.checks.cards[0], Qt.MouseButton.LeftButton, pos=QPoint(12, 12))
    assert window.session.stage is Stage.LEAF
    assert window.session.lit == "part:middle rail"
    remedy = next(b for b in window.checks.cards[0].findChildren(QPushButton) if b.text() == "Lock at 334")
    QTest.mouseClick(remedy, Qt.MouseButton.LeftButton)
    assert window.session.leaf.build.lock_height == 334
    assert all(card.check.level is not Level.STOP for card in window.checks.cards)
    window.session.undo_stack.undo()
    assert window.session.leaf.build.lock_height == 300


def test_find_goes_to_a_part_a_figure_and_a_check(window):
    QTest.keyClick(window, KEY.Key_K, Qt.KeyboardModifier.ControlModifier)
    finder = window.job_line.finder
    finder.setFocus()
    finder.renew()
    QTest.keyClicks(finder, "pull on the top")
    QTest.keyClick(finder, KEY.Key_Return)
    assert window.session.working == "top_hinge_pull"
    window.go_to_found("part", "part:middle rail")
    assert window.session.stage is Stage.LEAF
    assert window.session.lit == "part:middle rail"


def test_inches_everywhere_and_back_without_moving_a_value(window):
    values = [each.value for each in window.session.solved.figures]
    button = window.job_line.findChild(QWidget, "unit-inch")
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)
    assert '"' in window.rod.marks[Stage.FIT].key
    assert [each.value for each in window.session.solved.figures] == values
    window.session.go_to(Stage.LEAF)
    line = box(window, "build.stile")
    assert line.text() == '3 3/4" −'
    QTest.keyClick(line, KEY.Key_Return)  # leaving the box as it is must not round the stile to a sixteenth
    assert window.session.leaf.build.stile == 95.0
    write(window, "build.stile", "3 3/4")
    assert window.session.leaf.build.stile == 95.25


def test_other_leaf_has_its_own_sheet_values(window):
    write(window, "readings.width_top", "seven")
    QTest.keyClick(window, KEY.Key_2, Qt.KeyboardModifier.AltModifier)
    assert window.session.leaf_id == "drying-loft"
    assert box(window, "readings.width_top").text() == "678.5"
    combo = window.sheet().findChild(QComboBox, "hand")
    assert combo.currentText() == "hinges right"


def test_choice_and_board_rows_edit_the_job(window):
    window.session.go_to(Stage.TIMBER)
    combo = window.sheet().findChild(QComboBox, "timber.species")
    combo.setCurrentIndex(combo.findText("Walnut"))
    combo.activated.emit(combo.currentIndex())
    assert window.session.leaf.timber.species == "walnut"
    QTest.mouseClick(window.sheet().findChild(QToolButton, "page-Plan"), Qt.MouseButton.LeftButton)
    window.timber.planner.stop()
    write(window, "boards.0.length", "4800")
    assert window.session.job.boards[0].length == 4800
    count = len(window.session.job.boards)
    for name, text in (("length", "3600"), ("width", "175"), ("thickness", "38")):
        write(window, f"boards.new.{name}", text)
    write(window, "boards.new.quantity", "2.5")
    assert "whole" in note_under(window, "")
    assert len(window.session.job.boards) == count
    write(window, "boards.new.quantity", "2")
    write(window, "boards.new.price", "30")
    board = window.session.job.boards[-1]
    assert (board.length, board.width, board.thickness, board.quantity) == (3600, 175, 38, 2)
    assert box(window, "boards.new.length").hasFocus()
    assert box(window, "boards.new.length").text() == ""


def test_saving_opening_and_a_refused_file(window, tmp_path, monkeypatch):
    path = tmp_path / "store.oakjob"
    window.commands.ask_save_path = lambda *_: str(path)
    write(window, "readings.width_top", "741")
    assert window.windowTitle().startswith("*")
    assert window.commands.save()
    assert load(path) == window.session.job
    assert not window.windowTitle().startswith("*")
    bad = tmp_path / "bad.oakjob"
    bad.write_text("{")
    open_job = window.session.job
    assert not window.commands.open_path(bad)
    assert window.session.job is open_job
    assert "bad.oakjob was not opened" in window.said[-1][1]
    window.commands.ask_save_path = lambda *_: str(tmp_path / "none" / "x.oakjob")
    assert not window.commands.save_as()
    assert "Nothing is lost" in window.said[-1][1]


def test_bench_sheet_asks_for_a_reason_for_every_stop(window, tmp_path):
    window.session.go_to(Stage.LEAF)
    write(window, "build.lock_height", "300")
    path = tmp_path / "sheet.pdf"
    window.commands.ask_save_path = lambda *_: str(path)
    window.commands.answer_stops = lambda: False
    window.commands.bench_sheet()
    assert not path.exists()
    del window.commands.answer_stops
    stops = [each for each in window.session.solved.checks if each.level is Level.STOP]

    def answer(code, reason):
        return window.session.push(
            "", lambda made: job_edits.with_acknowledged(made, window.session.leaf_id, code, reason)
        )

    dialog = AnswerStops(window, stops, answer)
    dialog.accept()
    assert not dialog.result()
    for _stop, line in dialog._reasons:
        line.setText("kept for its carving")
    dialog.accept()
    assert dialog.result()
    window.commands.bench_sheet()
    assert path.read_bytes().startswith(b"%PDF")


def test_lists_are_written_as_csv(window, tmp_path):
    for name, write_list in (("cut", window.commands.cut_list), ("bore", window.commands.boring_list)):
        path = tmp_path / f"{name}.csv"
        window.commands.ask_save_path = lambda *_, path=path: str(path)
        write_list()
        assert len(list(csv.reader(path.read_text(encoding="utf-8-sig").splitlines()))) > 5


def test_leaves_are_added_renamed_and_removed(window):
    before = len(window.session.job.leaves)
    window.commands.ask_text = lambda *_: "Boat store hatch"
    window.commands.add_leaf()
    assert window.session.leaf.name == "Boat store hatch"
    assert all(r is None or r.state is Provenance.ASSUMED for _, r in window.session.leaf.readings)
    window.commands.remove_leaf()
    assert len(window.session.job.leaves) == before


def test_new_job_in_three_questions_already_shows_a_leaf(window):
    dialog = NewJob(window, UnitSystem.MM)
    dialog.name.setText("Net loft hatch")
    dialog.hand.setCurrentIndex(1)
    width = dialog.findChild(QLineEdit, "readings.width_middle")
    width.setText("610")
    dialog.accept()
    assert dialog.result()
    window.session.open(dialog.job, None)
    assert window.session.leaf.name == "Net loft hatch"
    assert window.session.leaf.readings.width_middle.value == 610
    assert window.session.solved.build is not None


def test_first_start_offers_the_demo_job_whatever_is_in_the_boxes(window, monkeypatch):
    def looks(dialog):
        dialog.findChild(QLineEdit, "readings.width_middle").setText("nonsense")
        dialog.findChild(QPushButton, "demo").click()
        return dialog.result()

    window.session.open(job(), None)
    monkeypatch.setattr(NewJob, "exec", looks)
    window.commands.new_job(first=True)
    assert window.session.job.name == "Saltmarsh seed store"
    assert window.session.path is None
    assert NewJob(window, UnitSystem.MM).findChild(QPushButton, "demo") is None  # later it is the menu's affair


def test_shop_rules_are_read_changed_refused_and_taken_back(window):
    window.session.go_to(Stage.FIT)
    dialog = RulesDialog(window, window.session)
    entry = dialog._entries["gap_latch"]
    assert dialog._reasons["gap_latch"].text() == "room for a damp week"
    before = window.session.solved.figures["leaf_width"].value
    for text, taken in (("4", True), ("400", False), ("", False)):
        entry.line.setText(text)
        assert entry.commit() is taken
    assert not dialog._note.isHidden()
    assert window.session.solved.figures["leaf_width"].value == pytest.approx(before - 1)
    combo = window.sheet().findChild(QComboBox, "rules")
    assert combo.currentIndex() == -1
    assert combo.placeholderText().startswith("Site joi")
    assert combo.placeholderText().endswith("changed")
    window.session.undo_stack.undo()
    assert combo.currentText() == "Site joinery, metric"
    dialog.deleteLater()


def test_new_job_in_inches_refuses_in_inches(window):
    dialog = NewJob(window, UnitSystem.INCH)
    dialog.findChild(QLineEdit, "readings.width_middle").setText("4")
    dialog.accept()
    assert not dialog.result()
    assert dialog._note.text() == 'needs 7 7/8" to 118 1/8"'


def test_no_leaf_at_all_still_shows_every_stage(window):
    tiny = job_edits.with_field(job(215), "leaf-1", "fit.gap_hinge", 60.0)
    tiny = job_edits.with_field(tiny, "leaf-1", "fit.gap_latch", 60.0)
    window.session.open(tiny, None)
    for stage in Stage:
        window.session.go_to(stage)
        window.grab()
    assert window.session.solved.build is None


def test_exaggeration_draws_again(window):
    one = window.board.drawing
    window.middle.crooked.setValue(20)
    assert window.board.drawing != one
    assert "× 20" in window.middle.crooked_label.text()


def test_both_themes_meet_contrast_aa():
    for p in (theme.LIGHT, theme.DARK):
        for ink in (p.ink, p.pencil, p.accent, p.look, p.stop, p.fine):
            for paper in (p.sheet, p.ground, p.check, p.field):
                assert theme.contrast(ink, paper) >= 4.5, (p.name, ink, paper)


def test_a_fault_of_the_program_is_a_sentence_and_a_log_and_no_traceback(window, tmp_path, monkeypatch, capsys):
    from oakmeasure.app.shell import start
    from oakmeasure.files import crash_log

    monkeypatch.setattr(crash_log, "user_log_path", lambda *_args, **_kw: tmp_path)
    said = []
    monkeypatch.setattr(start.QMessageBox, "warning", lambda *words: said.append(words[-1]))
    try:
        raise RuntimeError("a fault")
    except RuntimeError as error:
        start.catch(RuntimeError, error, None)
    assert "not your doing" in said[0]
    assert "RuntimeError: a fault" in (tmp_path / "trouble.log").read_text()
    assert "Traceback" not in capsys.readouterr().err


def test_every_box_has_a_name_for_those_who_cannot_see_it(window):
    for stage in Stage:
        window.session.go_to(stage)
        for line in window.sheet().findChildren(QLineEdit):
            assert line.accessibleName(), line.objectName()
        for combo in window.sheet().findChildren(QComboBox):
            assert combo.accessibleName()


def test_binding_keeps_its_references_to_none():
    """One release line of the binding lost a reference to None at each call of a method that returns nothing, and
    ended the process after some thousand calls."""
    application()
    widget = QWidget()
    before = sys.getrefcount(None)
    for _ in range(5000):
        widget.setToolTip("x")
    assert sys.getrefcount(None) > before - 1000


# --- the core without the screen, the screen with a real one -----------------------------------------------
