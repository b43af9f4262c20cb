"""The Hang stage: gaps and both remedies, runs, sliding leaves, the drill, signing off, the job book."""

from __future__ import annotations

from datetime import date

import pytest
from pypdf import PdfReader
from PySide6.QtCore import QCoreApplication, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel, QLineEdit, QPushButton, QSpinBox

from driving import box, choose, page, refusals, write
from oakmeasure.app.shell.job_book import JobBook
from oakmeasure.app.stages.hang.room import HangRoom
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.core.drawings.views import HangPage
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.files.job import job_book

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def hung(window, tmp_path, monkeypatch):
    """The window at Hang, with a job book of its own beside the shipped leaves."""
    monkeypatch.setattr(job_book, "place", lambda: tmp_path / "book")
    window.session.room(HangRoom).today = lambda: date(2026, 11, 26)
    window.session.go_to(Stage.HANG)
    return window


def press(window, name):
    button = next(each for each in window.sheet().findChildren(QPushButton, name) if each.isVisibleTo(window))
    QTest.mouseClick(button, LEFT)


def rows(window):
    return [record.cells for record in window.list.records.records]


def say(window, code):
    return next(each for each in window.session.solved.checks if each.code == code)


def test_gaps_are_written_and_both_remedies_stand_side_by_side(hung):
    assert "not hung yet" in hung.session.solved.key_figure(Stage.HANG, hung.session.show)
    for name, text in (
        ("hinge_top", "3.1"),
        ("hinge_bottom", "1.1"),
        ("latch_top", "1.9"),
        ("latch_bottom", "3.9"),
        ("head_latch", "1.2"),
    ):
        write(hung, f"hung.gaps.{name}", text)
    aims = [cells[0] for cells in rows(hung) if cells[0]]
    assert aims == ["least wood off", "the most even gap"]
    assert any("let the top hinge in" in cells[2] for cells in rows(hung))
    assert any(each.startswith("let in") for each in hung.board.drawing.texts())
    choose(hung, "hung.aim", "the most even gap")
    assert any(each == "The most even gap" for each in hung.board.drawing.texts())
    hung.session.undo_stack.undo()
    assert hung.session.leaf.hung.aim == "least wood off"


def test_a_gap_that_cannot_be_is_refused_beside_its_box_and_stays(hung):
    write(hung, "hung.gaps.latch_top", "-2")
    assert refusals(hung)
    assert box(hung, "hung.gaps.latch_top").text() == "-2"
    write(hung, "hung.gaps.latch_top", "9")
    write(hung, "hung.gaps.hinge_top", "9")
    assert say(hung, "hang-contradicts").level is Level.WARNING
    box(hung, "hung.gaps.latch_top").clear()
    QTest.keyClick(box(hung, "hung.gaps.latch_top"), Qt.Key.Key_Return)
    assert hung.session.leaf.hung.gaps.latch_top is None


def test_a_cupboard_out_of_level_is_turned_screw_by_screw(hung):
    hung.choose_leaf("press-left")
    page(hung, HangPage.GAPS)
    assert [cells[1].partition(",")[0] for cells in rows(hung)] == [
        "top hinge",
        "bottom hinge",
        "top hinge",
        "bottom hinge",
    ]
    assert any("1 1/2 turns, 1.13 to the hinge side" in cells[1] for cells in rows(hung))
    write(hung, "hung.gaps.low_latch", "9")
    assert say(hung, "hang-turns").level is Level.STOP


def test_a_run_is_written_from_the_left_and_lined_up(hung):
    hung.choose_leaf("pigeon-holes")
    page(hung, HangPage.RUN)
    assert len(rows(hung)) == 3
    assert say(hung, "hang-run").level is Level.OK
    QCoreApplication.processEvents()  # rows are made when there is time
    write(hung, "hung.run.0.low_left", "6")
    assert say(hung, "hang-run").level is Level.STOP
    assert "leaf 1" in say(hung, "hang-run").sentence


def test_a_leaf_that_slides_is_looked_at_in_order(hung):
    hung.choose_leaf("winnowing")
    page(hung, HangPage.SLIDE)
    assert [cells[1] for cells in rows(hung)][:2] == ["not right", "not right"]
    write(hung, "hung.sliding.rail_rises", "0.5")
    assert rows(hung)[1][1] == "right"
    choose(hung, "hung.proof_held", "not hung yet")
    assert say(hung, "hang-proof").level is Level.STOP


def test_a_drill_is_set_judged_and_repeated_by_its_number(hung):
    page(hung, HangPage.PRACTICE)
    room = hung.session.room(HangRoom)
    seed = hung.sheet().findChild(QSpinBox, "drillSeed")
    seed.setValue(7)
    gaps = [cells[1] for cells in rows(hung)]
    for n, fault in enumerate(room.door.faults):
        line = box(hung, f"drill.{n}")
        line.setText(f"{-fault:g}")
    press(hung, "drillJudge")
    assert room.judged.points == 100
    assert any("100 of 100" in each for each in hung.board.drawing.texts())
    box(hung, "drill.planed").setText("-1")
    press(hung, "drillJudge")
    assert "does not grow back" in refusals(hung)
    box(hung, "drill.planed").setText("0")
    box(hung, "drill.0").setText("rather more")
    press(hung, "drillJudge")
    assert refusals(hung)
    seed.setValue(8)
    assert [cells[1] for cells in rows(hung)] != gaps
    seed.setValue(7)
    assert [cells[1] for cells in rows(hung)] == gaps
    assert room.judged is None


def test_a_leaf_is_signed_off_goes_into_the_book_and_begins_a_new_job(hung):
    told = []
    hung.commands.tell = lambda title, text: told.append(text)
    hung.choose_leaf("hatch")
    page(hung, HangPage.RECORD)
    press(hung, "signOff")
    assert "who signs it off?" in refusals(hung)
    for stop in hung.session.solved.open_stops():
        hung.session.push(
            "answer", lambda job, stop=stop: job_edits.with_acknowledged(job, "hatch", stop.code, "seen and meant")
        )
    hung.sheet().findChild(QLineEdit, "signBy").setText("I. Tarn")
    hung.sheet().findChild(QLineEdit, "signNote").setText("shuts by its own weight")
    box(hung, "sign.width").setText("633.5")
    press(hung, "signOff")
    assert not refusals(hung)
    assert hung.session.leaf.hung.signed.width == 633.5
    assert hung.session.solved.key_figure(Stage.HANG, hung.session.show) == "hung 26 Nov 2026"
    page(hung, HangPage.BOOK)
    assert len(rows(hung)) == 4
    assert rows(hung)[0][1] == "Hatch in the gable"
    hung.sheet().findChild(QLineEdit, "bookSearch").setText("ferry 742")
    assert [cells[1] for cells in rows(hung)] == ["Net loft hatch"]
    hung.commands.may_close = lambda: True
    hung.commands.reopen()
    leaf = hung.session.leaf
    assert leaf.name == "Net loft hatch"
    assert hung.session.job.name == "After Net loft hatch"
    assert leaf.hung.signed is None
    assert leaf.making.log == ()
    assert all(
        getattr(leaf.readings, name).state is Provenance.ASSUMED
        for name in ("width_middle",)
        if getattr(leaf.readings, name)
    )


def test_the_record_goes_on_paper_with_gaps_and_who_signed(hung, tmp_path):
    hung.choose_leaf("drying-loft")
    page(hung, HangPage.RECORD)
    assert any("hung 20 November 2026" in each for each in hung.board.drawing.texts())
    target = tmp_path / "record.pdf"
    hung.commands.ask_save_path = lambda *_: str(target)
    hung.commands.record_sheet()
    reader = PdfReader(target)
    text = " ".join(page.extract_text() for page in reader.pages)
    assert len(reader.pages) in (1, 2)
    for words in ("Hung 20 November 2026 by I. Tarn", "latch, middle: 3.2", "661.8", "15.6 kg", "one shim of 0.25"):
        assert words in " ".join(text.split()), words


def test_a_damaged_file_of_the_book_is_left_out_and_told(hung):
    folder = job_book.place()
    folder.mkdir(parents=True)
    (folder / f"2024-01-01-torn{job_book.SUFFIX}").write_text('{"name": "Torn', encoding="utf-8")
    (folder / f"2024-01-02-odd{job_book.SUFFIX}").write_text('{"name": "Odd"}', encoding="utf-8")
    page(hung, HangPage.BOOK)
    assert len(rows(hung)) == 3
    assert "left out" in hung.middle.title.text()
    assert len(hung.session.room(JobBook).left_out) == 2
    entry = job_book.shipped()[0]
    assert job_book.loads_entry(job_book.dumps(entry)) == job_book.loads_entry(job_book.dumps(entry))


def test_lessons_of_the_book_come_back_at_make(hung):
    hung.choose_leaf("coal-hole")
    hung.session.go_to(Stage.MAKE)
    hung.session.room(MakeRoom).take("seal:boards")
    text = " ".join(each.text() for each in hung.sheet().findChildren(QLabel) if each.isVisibleTo(hung))
    assert "Coat the tongues before the ledges go on" in text


def test_every_page_of_hang_can_be_shown_for_every_way_of_hanging(hung):
    for leaf in ("seed-room", "pair", "press-left", "scale-case", "meter", "walnut", "reading-room"):
        hung.choose_leaf(leaf)
        for name in hung.sheet().pages:
            if hung.sheet().findChild(object, f"page-{name}").isVisibleTo(hung):
                page(hung, name)
                assert hung.board.drawing.shapes
                assert hung.middle.title.text()
