"""The schedule in the window: lines, sorting, finding, several changed alike, read from a file and written."""

from __future__ import annotations

import csv
import io

import pytest
from PySide6.QtCore import QCoreApplication, QItemSelectionModel, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QStyledItemDelegate

from oakmeasure.app.tools.schedule import ALIKE, COLUMNS
from oakmeasure.core.document.job import Hand
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.reports.schedule import SORTS

SELECT = QItemSelectionModel.SelectionFlag.Select | QItemSelectionModel.SelectionFlag.Rows


@pytest.fixture
def lines(window):
    window.session.whole()
    QTest.qWaitForWindowActive(window)
    QTest.keyClick(window, Qt.Key.Key_F6)
    QCoreApplication.processEvents()
    opened = window.commands.lines
    assert opened.isVisible()
    yield opened
    opened.close()


def names(lines):
    return [each.name for each in lines.model.rows]


def choose(lines, *ids):
    lines.table.clearSelection()
    for at, row in enumerate(lines.model.rows):
        if row.leaf_id in ids:
            lines.table.selectionModel().select(lines.model.index(at, 0), SELECT)
    assert set(lines.chosen()) == set(ids)


def set_alike(lines, words, to):
    at = next(n for n, each in enumerate(ALIKE) if each.words == words)
    lines.field.setCurrentIndex(at)
    lines.field.activated.emit(at)
    if ALIKE[at].unit is None:
        lines.choice.setCurrentIndex(lines.choice.findData(to))
    else:
        lines.value.line.setFocus()
        lines.value.line.selectAll()
        QTest.keyClicks(lines.value.line, to)
    QTest.mouseClick(lines.set_button, Qt.MouseButton.LeftButton)


def test_one_key_shows_every_leaf_in_the_jobs_order_with_its_sizes(lines):
    session = lines.session
    assert names(lines) == [each.name for each in session.job.leaves]
    leaf = session.solved
    row = lines.model.rows[[each.leaf_id for each in lines.model.rows].index(session.leaf_id)]
    at = lines.model.rows.index(row)
    assert lines.model.text(at, COLUMNS.index("width")) == session.show.length(leaf.fit.width.value)
    assert lines.model.text(at, COLUMNS.index("state")) == row.state
    assert lines.count.text() == f"{len(session.job.leaves)} leaves"


def test_a_click_on_a_column_sorts_again_turns_round_and_a_third_time_undoes(lines):
    before = names(lines)
    for column in range(1, len(COLUMNS)):
        key = SORTS[COLUMNS[column]]
        lines.sort_by(column)
        up = [key(each) for each in lines.model.rows]
        assert up == sorted(up)
        lines.sort_by(column)
        assert [key(each) for each in lines.model.rows] == up[::-1]
        lines.sort_by(column)
        assert names(lines) == before


def test_words_leave_the_leaves_that_answer_and_what_is_chosen_stays_chosen(lines):
    choose(lines, "coal-hole")
    QTest.keyClicks(lines.look, "boarded")
    assert 0 < len(names(lines)) < len(lines.session.job.leaves)
    assert lines.chosen() == ["coal-hole"]
    assert "of" in lines.count.text()
    lines.look.setText("")
    QTest.keyClicks(lines.look, "stop")
    assert all(each.level is Level.STOP or "stop" in each.name.lower() for each in lines.model.rows)


def test_several_are_changed_alike_in_one_step_and_undo_takes_it_back(lines):
    session, before = lines.session, lines.session.job
    choose(lines, "seed-room", "drying-loft", "scullery")
    set_alike(lines, "gap at the latch", "4.5")
    assert {session.job.leaf(each).fit.gap_latch for each in ("seed-room", "drying-loft", "scullery")} == {4.5}
    assert "set on 3" in lines.note.text()
    set_alike(lines, "hand", Hand.RIGHT)
    assert session.job.leaf("scullery").hand is Hand.RIGHT
    session.undo_stack.undo()
    session.undo_stack.undo()
    assert session.job == before


def test_what_one_leaf_refuses_none_takes_and_it_is_named(lines):
    session, before = lines.session, lines.session.job
    choose(lines, "seed-room", "coal-hole")
    set_alike(lines, "thickness", "40")
    assert session.job == before
    assert lines.note.property("role") == "refused"
    assert session.job.leaf("coal-hole").name in lines.note.text()
    set_alike(lines, "gap at the latch", "7/0")
    assert session.job == before
    lines.table.clearSelection()
    assert not lines.set_button.isEnabled()


def test_a_double_click_goes_to_the_leaf(lines):
    row = next(n for n, each in enumerate(lines.model.rows) if each.leaf_id != lines.session.leaf_id)
    lines.table.doubleClicked.emit(lines.model.index(row, 1))
    assert lines.session.leaf_id == lines.model.rows[row].leaf_id


def test_200_leaves_are_scrolled_through_by_painting_only_what_is_seen(lines):
    session = lines.session
    many = session.job
    for n in range(200 - len(many.leaves)):
        many = job_edits.with_new_leaf(many, f"Store {n}")
    session.open(many, None)
    session.whole()
    lines.refresh()
    assert lines.model.rowCount() == 200
    bar = lines.table.verticalScrollBar()
    painted, asked = [], []

    class Counted(QStyledItemDelegate):
        def paint(self, painter, option, index):
            asked.append(index.row())
            super().paint(painter, option, index)

    delegate = Counted()
    lines.table.setItemDelegate(delegate)
    for place in range(0, bar.maximum(), max(1, bar.maximum() // 12)):
        bar.setValue(place)
        asked.clear()
        lines.table.grab()
        painted.append(len(set(asked)))
    assert len(painted) >= 12
    assert 0 < max(painted) < 40  # rows that are painted, of 200
    first, last = lines.table.rowAt(0), lines.table.rowAt(lines.table.viewport().height() - 1)
    assert last - first < 30


def test_a_schedule_is_read_into_the_job_and_written_from_it(lines, window, tmp_path):
    commands, session = window.commands, window.session
    path = tmp_path / "in.csv"
    path.write_text("name;width_mm;height_mm\nNorth;742,5;1990\nSouth;743;1991\n", encoding="utf-8")
    commands.ask_schedule_path = lambda: str(path)
    count = len(session.job.leaves)
    commands.import_schedule()
    assert [each.name for each in session.job.leaves[count:]] == ["North", "South"]
    session.undo_stack.undo()
    assert len(session.job.leaves) == count
    said = []
    commands.tell = lambda title, text: said.append((title, text))
    path.write_text("name,width_mm,height_mm\nNorth,up,1990\n", encoding="utf-8")
    commands.import_schedule()
    assert said == [("Not read", "in.csv, line 2: width_mm: “up”: “up” is not a unit that belongs here")]
    commands.ask_save_path = lambda *_: str(tmp_path / "out.csv")
    commands.export_schedule()
    table = list(csv.DictReader(io.StringIO((tmp_path / "out.csv").read_text("utf-8-sig"))))
    assert [each["name"] for each in table] == [each.name for each in session.job.leaves]
