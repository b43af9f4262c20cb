"""The window's own pieces: entries, painter, board, lists."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QPoint, QPointF, QRectF, Qt
from PySide6.QtGui import QImage, QPainter, QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QBoxLayout, QLabel, QWidget

from oakmeasure.app.canvas.canvas import Canvas
from oakmeasure.app.canvas.label_places import View, dimension_box, fitted, label_box, label_text, text_size
from oakmeasure.app.canvas.painter import paint
from oakmeasure.app.forms.choice_box import ChoiceBox, ChoiceRow
from oakmeasure.app.forms.quantity_edit import QuantityEdit, StateMark, read
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.part_lists import RecordList, RecordModel, boring_list, cut_list, readings_list
from oakmeasure.app.shell.start import application
from oakmeasure.core.base.errors import LengthError
from oakmeasure.core.base.units import Show, Unit, UnitSystem
from oakmeasure.core.drawings.drawing import Anchor, Dimension, Drawing, Label, Room
from oakmeasure.core.drawings.hang.looks_view import looks_view
from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
from oakmeasure.core.drawings.views import VIEWS, HardwarePage
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solver import solve_leaf
from oakmeasure.files.job.job_file import demo_job
from samples import framed, solved

INCH = Show(UnitSystem.INCH)


@pytest.fixture(autouse=True)
def _app(qapp):
    assert qapp is application()


# --- type ------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "shown"),
    [('27 7/8"', '27 ⁷⁄₈"'), ('5/16" +', '⁵⁄₁₆" +'), ('26" × 73 1/2"', '26" × 73 ¹⁄₂"'), ("95", "95"), ("1/2", "1/2")],
)
def test_inch_fractions_are_set_as_true_ones_and_nothing_else_is(text, shown):
    assert theme.typeset(text) == shown


def test_style_sheet_has_a_colour_for_every_name():
    for p in (theme.LIGHT, theme.DARK):
        assert "$" not in theme.style_sheet(p)


# --- painter ---------------------------------------------------------------------------------------------


@pytest.mark.parametrize("stage", list(Stage))
@pytest.mark.parametrize("show", [Show(), INCH])
def test_whole_drawing_with_its_texts_fits_the_room(stage, show):
    room = QRectF(0, 0, 640, 560)
    drawing = VIEWS[stage](solved(), show)
    view = fitted(drawing, room)
    for shape in drawing.shapes:
        if isinstance(shape, Label) and label_text(shape, view):
            assert room.adjusted(-3, -3, 3, 3).contains(label_box(shape, view)), shape.text
        elif isinstance(shape, Dimension):
            assert room.adjusted(-3, -3, 3, 3).contains(dimension_box(shape, view)), shape.text


def test_two_sizes_side_by_side_stand_at_other_heights_where_there_is_no_room():
    sizes = [Dimension((x, 0), (x, 1000), text) for x, text in ((0, "2030.9"), (40, "2019.9"))]
    view = fitted(Drawing(tuple(sizes), Rect(0, 0, 40, 1000)), QRectF(0, 0, 300, 300))
    one, other = (dimension_box(each, view) for each in sizes)
    assert not one.intersects(other)
    assert abs(one.x() - other.x()) < one.width()


@pytest.mark.parametrize("leaf_id", ["winnowing", "meter", "sorting"])
def test_what_is_looked_at_of_a_sliding_leaf_fits_a_small_window(leaf_id):
    made = demo_job()
    drawing, room = looks_view(solve_leaf(made, made.leaf(leaf_id)), Show()), QRectF(0, 0, 400, 330)
    view = fitted(drawing, room)
    shown = [each for each in drawing.shapes if isinstance(each, Label) and each not in view.left_out]
    assert all(room.adjusted(-3, -3, 3, 3).contains(label_box(each, view)) for each in shown)


def test_texts_of_the_leaf_do_not_lie_on_each_other():
    drawing = leaf_view(solved(), Show())
    view = fitted(drawing, QRectF(0, 0, 640, 600))
    boxes = [(s.text, label_box(s, view)) for s in drawing.shapes if isinstance(s, Label)]
    boxes += [(s.text, dimension_box(s, view)) for s in drawing.shapes if isinstance(s, Dimension)]
    for at, (text, box) in enumerate(boxes):
        for other, its in boxes[at + 1 :]:
            shared = box.adjusted(1, 3, -1, -3).intersected(its.adjusted(1, 3, -1, -3))
            assert shared.isEmpty(), (text, other)


@pytest.mark.parametrize("show", [Show(), INCH], ids=["mm", "inch"])
@pytest.mark.parametrize("leaf_id", ["coal-hole", "pair", "packet-press", "barn-side", "walnut", "sorting"])
def test_texts_of_every_hardware_view_fit_and_do_not_lie_on_each_other(show, leaf_id):
    made, room = demo_job(), QRectF(0, 0, 660, 430)
    leaf = solve_leaf(made, made.leaf(leaf_id))
    for each in HardwarePage:
        drawing = VIEWS[Stage.HARDWARE](leaf, show, page=each)
        view = fitted(drawing, room)
        boxes = [(s.text, label_box(s, view)) for s in drawing.shapes if isinstance(s, Label) and label_text(s, view)]
        boxes += [(s.text, dimension_box(s, view)) for s in drawing.shapes if isinstance(s, Dimension)]
        for at, (text, box) in enumerate(boxes):
            assert room.adjusted(-3, -3, 3, 3).contains(box), (each, text)
            for other, its in boxes[at + 1 :]:
                shared = box.adjusted(1, 3, -1, -3).intersected(its.adjusted(1, 3, -1, -3))
                assert shared.isEmpty(), (each, text, other)


def test_label_without_room_shows_what_fits_or_nothing():
    label = Label(0, 0, "upper hinge-side panel", room=Room(100, ("8 · 1/2", "8")))
    assert label_text(label, View(10, 0, 0)) == "upper hinge-side panel"
    assert label_text(label, View(0.6, 0, 0)) == "8 · 1/2"
    assert label_text(label, View(0.01, 0, 0)) == ""


def test_zooming_holds_the_point_under_the_pointer():
    view = View(0.25, 100, 500)
    point = QPointF(300, 200)
    zoomed = view.zoomed(2.0, point)
    world = ((point.x() - view.x) / view.scale, (view.y - point.y()) / view.scale)
    assert zoomed.at(world) == point
    assert zoomed.scale == 0.5


def test_wood_is_painted_in_its_species_tint():
    drawing = leaf_view(framed(), Show())
    view = fitted(drawing, QRectF(0, 0, 640, 600))
    picture = QImage(640, 600, QImage.Format.Format_RGB32)
    picture.fill(0xFFFFFF)
    painter = QPainter(picture)
    paint(painter, drawing, view)
    painter.end()
    stile = view.at((12, 600)).toPoint()
    seen = {picture.pixelColor(stile + QPoint(dx, dy)).name().upper() for dx in range(6) for dy in range(6)}
    assert "#E3C394" in seen  # European oak


# --- board -----------------------------------------------------------------------------------------------


@pytest.fixture
def board(qtbot):
    made = Canvas()
    qtbot.addWidget(made)
    made.resize(640, 600)
    made.set_drawing(leaf_view(solved(), Show()))
    made.show()
    return made


def test_board_points_at_parts_and_goes_back_to_nothing(board):
    refs = []
    board.pointed.connect(refs.append)
    QTest.mouseMove(board, board.place_of("part:top rail").toPoint() + QPoint(40, 0))
    QTest.mouseMove(board, QPoint(3, 3))
    assert refs[-1] == ""
    assert any(ref.startswith("part:") for ref in refs)


def test_board_is_zoomed_moved_and_shown_whole_again(board):
    whole = board._view
    wheel = QWheelEvent(
        QPointF(200, 200),
        QPointF(200, 200),
        QPoint(),
        QPoint(0, 240),
        Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase,
        False,
    )
    board.wheelEvent(wheel)
    assert board._view.scale > whole.scale
    QTest.mousePress(board, Qt.MouseButton.MiddleButton, pos=QPoint(100, 100))
    QTest.mouseMove(board, QPoint(150, 120))
    QTest.mouseRelease(board, Qt.MouseButton.MiddleButton, pos=QPoint(150, 120))
    kept = board._view
    board.set_drawing(leaf_view(framed(stile=100.0), Show()), keep_view=True)
    assert board._view == kept
    board.fit_again()
    assert board._view.scale == pytest.approx(whole.scale, rel=0.02)


def test_board_box_is_closed_with_escape_and_changes_nothing(board):
    written = []
    board.commit = lambda path, text: written.append((path, text)) or ""
    dimension = next(s for s in board.drawing.shapes if isinstance(s, Dimension) and s.edit == "build.muntin")
    board.open_entry(dimension)
    QTest.keyClick(board._box, Qt.Key.Key_Escape)
    assert board._box.isHidden()
    assert not written
    board.open_entry(dimension)
    QTest.keyClick(board._box, Qt.Key.Key_Return)
    assert written == [("build.muntin", "95")]


# --- entries ---------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "unit", "show", "value"),
    [
        ("27 7/8", Unit.MM, INCH, 708.025),
        ("708 - 5", Unit.MM, Show(), 703),
        ("50 F", Unit.CELSIUS, Show(), 10),
        ("65", Unit.PERCENT, Show(), 65),
        ("3", Unit.COUNT, Show(), 3),
    ],
)
def test_read_takes_the_unit_of_the_box(text, unit, show, value):
    assert read(text, unit, show) == pytest.approx(value)


def test_entry_commits_once_and_only_what_was_changed(qtbot):
    taken = []
    entry = QuantityEdit("stile", Unit.MM, lambda value, nudge: taken.append((value, nudge)) or "")
    qtbot.addWidget(entry)
    entry.show_value(95.04, Show())
    assert entry.line.text() == "95"
    assert entry.commit()
    assert taken == []  # what is shown rounded is not written back rounded
    entry.line.setText("96")
    assert entry.commit()
    assert taken == [(96.0, False)]
    QTest.keyClick(entry.line, Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier)
    assert taken[-1] == (106.0, True)


def test_entry_that_is_refused_keeps_its_text_until_it_is_given_back(qtbot):
    said = []
    entry = QuantityEdit("stile", Unit.MM, lambda _value, _nudge: "needs 30 mm to 400 mm")
    qtbot.addWidget(entry)
    entry.told.connect(lambda text, refused: said.append((text, refused)))
    entry.show_value(95.0, Show())
    entry.line.setText("5000")
    assert not entry.commit()
    assert said[-1] == ("needs 30 mm to 400 mm", True)
    entry.show_value(95.0, Show())  # a redraw does not wipe it
    assert entry.line.text() == "5000"
    entry.give_back()
    assert entry.line.text() == "95"
    assert said[-1] == ("", False)


def test_inch_nudge_is_a_sixteenth(qtbot):
    taken = []
    entry = QuantityEdit("stile", Unit.MM, lambda value, _nudge: taken.append(value) or "")
    qtbot.addWidget(entry)
    entry.show_value(95.25, INCH)
    QTest.keyClick(entry.line, Qt.Key.Key_Down)
    assert taken == [pytest.approx(95.25 - 25.4 / 16)]


def test_empty_box_that_must_hold_something_is_refused(qtbot):
    entry = QuantityEdit("stile", Unit.MM, lambda _value, _nudge: "")
    qtbot.addWidget(entry)
    entry.show_value(95.0, Show())
    entry.line.setText("")
    assert not entry.commit()
    with pytest.raises(LengthError):
        read("", Unit.MM, Show())


def test_state_mark_is_a_shape_for_each_state(qtbot):
    mark = StateMark()
    qtbot.addWidget(mark)
    mark.resize(18, 18)
    pictures = []
    for state in Provenance:
        mark.set_state(state)
        assert str(state) in mark.accessibleName()
        picture = mark.grab().toImage().convertToFormat(QImage.Format.Format_Grayscale8)
        pictures.append(sum(picture.pixelColor(x, y).value() < 200 for x in range(18) for y in range(18)))
    assert len(set(pictures)) == 3  # told apart without colour


# --- lists -----------------------------------------------------------------------------------------------


def test_lists_have_a_row_for_each_part_boring_and_reading():
    leaf = solved()
    header, rows = cut_list(leaf, Show())
    assert [row.cells[1] for row in rows] == [part.name for part in leaf.build.parts]
    assert all(len(row.cells) == len(header) for row in rows)
    header, rows = boring_list(leaf, Show())
    assert len(rows) == len(leaf.butts.borings)
    assert {row.ref for row in rows} == {"butt:1", "butt:2", "butt:3"}
    _, rows = readings_list(leaf, Show())
    assert len(rows) == 8


def test_record_model_puts_numbers_to_the_right_and_lights_its_row():
    model = RecordModel()
    model.put(*cut_list(solved(), Show()))
    name, size = model.index(0, 1), model.index(0, 2)
    assert model.data(size, Qt.ItemDataRole.TextAlignmentRole) & Qt.AlignmentFlag.AlignRight
    assert model.data(name, Qt.ItemDataRole.TextAlignmentRole) & Qt.AlignmentFlag.AlignLeft
    model.light("part:hinge stile")
    assert model.data(name, Qt.ItemDataRole.BackgroundRole) is not None
    assert model.data(model.index(1, 1), Qt.ItemDataRole.BackgroundRole) is None
    model.light("part:panel")
    last = model.index(model.rowCount() - 1, 1)
    assert model.data(last, Qt.ItemDataRole.BackgroundRole) is not None


def test_anchor_says_which_way_a_text_grows():
    view = View(1, 100, 100)
    left, right = (label_box(Label(0, 0, "text", anchor=each), view) for each in (Anchor.LEFT, Anchor.RIGHT))
    assert left.left() == right.right() == 100


@pytest.mark.parametrize("show", [Show(), INCH])
def test_no_cell_of_a_list_is_cut_off(qtbot, show):
    for listed in (cut_list, boring_list, readings_list):
        table = RecordList()
        qtbot.addWidget(table)
        table.show_records(*listed(solved(), show))
        for row in range(len(table.records.records)):
            for column in range(len(table.records.header)):
                text = theme.typeset(table.records.records[row].cells[column])
                wanted = text_size(text, 14, table.records.is_name(column))[0]
                assert table.columnWidth(column) >= wanted + 8, text


@pytest.mark.parametrize(
    ("words", "is_under", "is_told"),
    [
        ("none", False, False),
        ("a fin in a groove in the foot", True, False),
        ("a roller or ball catch, bored into the edge", True, True),
    ],
)
def test_choice_goes_under_its_label_where_its_words_would_be_cut_off(qtbot, words, is_under, is_told):
    holder, box = QWidget(), ChoiceBox()
    qtbot.addWidget(holder)
    box.addItems(["none", words])
    row = ChoiceRow(QLabel("Latch"), box, beside=186, under=274)
    holder.setLayout(row)
    box.setCurrentIndex(1)
    row.fit()
    assert (row.direction() is QBoxLayout.Direction.TopToBottom) is is_under
    assert box.width() == (274 if is_under else 186)
    assert (words in box.toolTip()) is is_told
