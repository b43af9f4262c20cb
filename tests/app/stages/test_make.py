"""The Make stage: steps, log, batch, glue clock, mishaps, labels, workshop mode, driven as a person would."""

from __future__ import annotations

from datetime import date, datetime, timedelta

import pytest
from PySide6.QtCore import QCoreApplication, Qt
from PySide6.QtGui import QFontMetrics
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QComboBox, QLabel, QLineEdit, QPushButton

from driving import box, choose, page, refusals, write
from oakmeasure.app.stages.make.glue_clock import GlueClock
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.app.stages.make.workshop import CAP_PX, Workshop
from oakmeasure.core.document.production import LogKind, MishapKind
from oakmeasure.core.drawings.views import MakePage
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.making.log import Progress, not_mended
from oakmeasure.files.job import lesson_store

NOW = datetime(2026, 11, 26, 9, 0)
LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def made(window, tmp_path, monkeypatch):
    """The window at Make, with a clock that goes on by ten minutes at each look, and lessons of its own."""
    monkeypatch.setattr(lesson_store, "place", lambda: tmp_path / "lessons.jsonl")
    ticks = iter(range(0, 100_000, 10))
    window.session.room(MakeRoom).now = lambda: NOW + timedelta(minutes=next(ticks))
    window.session.go_to(Stage.MAKE)
    return window


def press(window, name):
    button = next(each for each in window.sheet().findChildren(QPushButton, name) if each.isVisibleTo(window))
    QTest.mouseClick(button, LEFT)


def pick(window, name, text):
    combo = next(each for each in window.sheet().findChildren(QComboBox, name) if each.isVisibleTo(window))
    assert combo.findText(text) >= 0, [combo.itemText(n) for n in range(combo.count())]
    combo.setCurrentIndex(combo.findText(text))
    combo.activated.emit(combo.currentIndex())


def rows(window):
    return [record.cells for record in window.list.records.records]


def words(window) -> str:
    return " ".join(each.text() for each in window.sheet().findChildren(QLabel) if each.isVisibleTo(window))


def test_steps_are_started_stopped_and_done_and_the_rod_counts_them(made):
    room = made.session.room(MakeRoom)
    first = room.op()
    press(made, "stepStart")
    assert room.states()[first.id] is Progress.RUNNING
    press(made, "stepStop")
    assert room.states()[first.id] is Progress.STOPPED
    assert "0.2 h at it" in words(made)
    press(made, "stepStart")
    press(made, "stepDone")
    assert room.states()[first.id] is Progress.DONE
    assert room.op() is not first
    assert made.session.solved.key_figure(Stage.MAKE, made.session.show).startswith("1 of ")
    made.session.undo_stack.undo()
    assert room.states()[first.id] is Progress.RUNNING
    assert [entry.kind for entry in made.session.leaf.making.log] == [LogKind.START, LogKind.STOP, LogKind.START]


def test_a_step_chosen_in_the_list_is_drawn_with_its_settings_and_what_it_needs_first(made):
    at = next(n for n, cells in enumerate(rows(made)) if cells[1] == "Cut the mortises in the loose stiles")
    made.list.selectRow(at)
    texts = made.board.drawing.texts()
    assert any("chisel" in each for each in texts)
    assert any("inner edge up" in each for each in texts)
    assert "first: " in words(made)
    assert "mortises" in made.middle.title.text()


def test_a_reading_changes_the_cup_at_once_and_the_change_is_shown(made):
    made.choose_leaf("ledger")
    page(made, MakePage.LOG)
    assert "cup depth 13 → 12.5" in made.middle.title.text()
    pick(made, "readingKind", "thickness of the leaf")
    write(made, "log.mm", "17.9")
    assert "cup depth 13 →" not in made.middle.title.text()
    assert next(c.depth for c in made.session.solved.borings if c.name == "cup 1") == 13.0
    write(made, "log.mm", "-4")
    assert refusals(made)
    pick(made, "readingKind", "moisture")
    write(made, "log.%", "60")
    assert "needs 4 to 25" in refusals(made)
    assert len([e for e in made.session.leaf.making.log if e.kind is LogKind.READING]) == 7  # six of the demo, one more


def test_a_reading_far_from_what_was_reckoned_is_asked_about_and_not_taken(made):
    made.choose_leaf("ledger")
    page(made, MakePage.LOG)
    before = made.session.leaf.making.log
    pick(made, "readingKind", "weight")
    write(made, "log.kg", "58.7")
    assert "58.7 kg is far from" in refusals(made)
    assert made.session.leaf.making.log == before
    press(made, "readingIsSo")
    assert made.session.leaf.making.log[-1].value == 58.7
    count = len(made.session.leaf.making.log)
    write(made, "log.kg", "61.2")  # still far from what it comes to by its sizes, though near the last reading
    assert "is far from" in refusals(made)
    assert len(made.session.leaf.making.log) == count


def test_a_note_marked_as_a_lesson_comes_back_unasked_on_another_leaf_and_in_another_job(made):
    made.session.room(MakeRoom).take("tenon:rails")
    page(made, MakePage.LOG)
    press(made, "noteWrite")
    assert "a few words first" in refusals(made)
    made.sheet().findChild(QLineEdit, "noteText").setText("Saw the shoulders first")
    pick(made, "noteAbout", "a lesson for this construction")
    press(made, "noteWrite")
    made.choose_leaf("drying-loft")
    page(made, MakePage.STEPS)
    made.session.room(MakeRoom).take("tenon:rails")
    assert "Saw the shoulders first" in words(made)
    assert lesson_store.kept_lessons()[0].text == "Saw the shoulders first"
    lesson_store.place().write_text(lesson_store.place().read_text() + '{"about": "constr', encoding="utf-8")
    assert len(lesson_store.kept_lessons()) == 1  # a line that is cut off costs only itself


def test_a_mishap_is_judged_written_down_mended_and_done_with(made):
    made.session.room(MakeRoom).take("mortise:stiles")
    page(made, MakePage.MISHAPS)
    pick(made, "mishapKind", "Split")
    pick(made, "mishapPart", "hinge stile")
    write(made, "mishap.by", "60")
    assert any(cells[0] == "Run glue in and clamp it" for cells in rows(made))
    pick(made, "mishapRepair", "Run glue in and clamp it")
    press(made, "mishapWrite")
    assert len(not_mended(made.session.leaf.making.log)) == 1
    assert "not mended: split" in words(made)
    assert made.session.solved.making.op("mend:1") is not None
    assert any(v.code == "mishap" for v in made.session.solved.checks)
    page(made, MakePage.STEPS)
    made.session.room(MakeRoom).take("mend:1")
    press(made, "stepDone")
    assert not not_mended(made.session.leaf.making.log)
    write_negative(made)


def write_negative(window):
    page(window, MakePage.MISHAPS)
    write(window, "mishap.by", "-5")
    assert refusals(window)
    assert box(window, "mishap.by").text() == "-5"


def test_glue_and_day_change_the_stages_and_a_day_that_is_too_hot_stops_it(made):
    page(made, MakePage.GLUE)
    stages = len(rows(made))
    choose(made, "making.glue", "slow white glue, D3")
    assert 0 < len(rows(made)) < stages
    choose(made, "making.glue", "hot hide glue, D1")
    write(made, "making.shop_temperature_c", "30")
    assert "No stage fits" in words(made)
    assert any(v.code == "glue-long" for v in made.session.solved.checks)
    write(made, "making.joint_minutes", "-2")
    assert refusals(made)


def test_the_glue_clock_counts_down_says_what_is_next_and_tells_when_it_is_over(made, qtbot):
    stage = made.session.solved.making.glue.stage(1)[1]
    seconds = [0.0]
    clock = GlueClock(None, 9.0, stage, seconds=lambda: seconds[0])
    qtbot.addWidget(clock)
    assert clock.count.text() == "9:00"
    assert clock.next.text() == stage.closings[0].words
    seconds[0] = 125.0
    clock.tick()
    assert clock.count.text() == "6:55"
    seconds[0] = 9.5 * 60
    clock.tick()
    assert clock.count.text() == "over by 0:30"
    assert "leave it" in clock.next.text()
    clock.restart()
    assert clock.count.text() == "9:00"
    QTest.keyClick(clock, Qt.Key.Key_Escape)
    assert not clock.isVisible()


def test_workshop_mode_is_read_at_two_metres_and_turned_by_two_keys(made, qtbot):
    shop = Workshop(made.session)
    qtbot.addWidget(shop)
    shop.resize(1280, 800)
    shop.show()
    operations = made.session.room(MakeRoom).operations
    seen = set()
    for _ in range(3 * len(operations)):
        seen.add(made.session.room(MakeRoom).op().id)
        QCoreApplication.processEvents()
        for label in shop.labels():
            if label.isVisible() and label.text():
                assert QFontMetrics(label.font()).capHeight() >= CAP_PX, label.text()
                assert label.height() >= label.heightForWidth(label.width()) - 2, label.text()  # nothing is cut off
        QTest.keyClick(shop, Qt.Key.Key_PageDown)
    assert seen == {op.id for op in operations}
    at = made.session.room(MakeRoom).op()
    QTest.keyClick(shop, Qt.Key.Key_PageUp)
    QTest.keyClick(shop, Qt.Key.Key_PageUp)
    assert operations.index(made.session.room(MakeRoom).op()) <= operations.index(at)
    made.session.room(MakeRoom).take(operations[0].id)
    shop.refresh()
    QTest.keyClick(shop, Qt.Key.Key_Return)
    assert made.session.room(MakeRoom).states()[operations[0].id] is Progress.DONE
    QTest.keyClick(shop, Qt.Key.Key_Escape)


def test_the_batch_shows_every_leaf_with_the_operation_and_leads_to_it(made):
    assert made.session.solution.leaves
    page(made, MakePage.BATCH)
    at = next(
        n
        for n, cells in enumerate(rows(made))
        if cells[0] == "Plough the grooves in the loose members" or cells[0] == "Plough the grooves"
    )
    made.list.selectRow(at)
    having = [s for s in made.session.solution.leaves if s.making and s.making.op("groove:frame")]
    assert rows(made)[at][1] == str(len(having))
    assert f"{len(having)} leaves" in made.middle.title.text()
    made._ask_part("leaf:drying-loft")
    assert made.session.leaf_id == "drying-loft"


def test_a_due_day_that_cannot_be_kept_names_the_step(made):
    made.session.room(MakeRoom).now = lambda: NOW
    page(made, MakePage.TIME)
    assert "h of work left" in made.middle.title.text()
    made.session.edit("making.due", date(2026, 12, 1))
    title = made.middle.title.text()
    assert "late; counted back, first too late: " in title
    assert any(cells[4] == "makes it late" and cells[0] == title.partition("too late: ")[2] for cells in rows(made))
    made.session.edit("making.due", date(2027, 3, 1))
    assert "h of work left" in made.middle.title.text()
    assert not any("late" in cells[4] for cells in rows(made))


def test_labels_go_to_a_printer_and_one_that_nobody_listens_on_is_told(made, qtbot):
    page(made, MakePage.LABELS)
    made.sheet().findChild(QPushButton, "simPrinter").click()
    room = made.session.room(MakeRoom)
    with qtbot.waitSignal(room.printed, timeout=5000):
        press(made, "printLabels")
    assert len(room.tape()) == len(room.labels())
    assert all(cells[5] == "× 1" for cells in rows(made))
    made.sheet().findChild(QPushButton, "simPrinter").click()
    with qtbot.waitSignal(room.printed, timeout=5000):
        press(made, "printLabels")
    assert "nobody listens" in refusals(made)


def test_every_page_of_make_fits_its_texts_in_mm_and_inch(made):
    for leaf in ("seed-room", "barn-side", "pair", "reading-room"):
        made.choose_leaf(leaf)
        for name in MakePage:
            page(made, name)
            assert made.board.drawing.shapes
            assert made.middle.title.text()
            assert not any("nan" in text.lower().split() for text in made.board.drawing.texts())


def test_a_log_is_written_and_read_back_and_a_line_that_is_cut_off_is_told(made, tmp_path):
    told: list[str] = []
    made.commands.tell = lambda title, text: told.append(text)
    path = tmp_path / "log.jsonl"
    made.commands.ask_save_path = lambda *_: str(path)
    made.commands.export_log()
    whole = path.read_bytes()
    before = made.session.job.leaf("ledger").making.log
    made.session.push("empty it", lambda job: job_edits.with_field(job, "ledger", "making.log", ()))
    path.write_bytes(whole[:-30])  # the last line is cut off
    made.commands.ask_log_path = lambda: str(path)
    made.commands.import_log()
    after = made.session.job.leaf("ledger").making.log
    assert set(after) == set(before[:-1])
    assert "cut off" in told[-1]
    assert f"line {len(before)}" in told[-1]
    made.commands.ask_log_path = lambda: str(tmp_path / "none.jsonl")
    made.commands.import_log()
    assert "as it was" in told[-1]
    assert made.session.job.leaf("ledger").making.log == after


def test_mishap_kinds_all_have_words_on_the_board(made):
    page(made, MakePage.MISHAPS)
    for kind in MishapKind:
        made.session.room(MakeRoom).describe(kind, "middle rail", 4.0)
        assert any(str(kind) in text for text in made.board.drawing.texts())
