"""The leaf turned on the board, with mouse and keys."""

from __future__ import annotations

from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest

from driving import let_go, page
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.window import Window
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.core.base.geometry import area
from oakmeasure.core.drawings.drawing import Layer
from oakmeasure.core.drawings.turned.turn import PITCH, YAW, CutWay
from oakmeasure.core.figures.check import Stage

LEFT = Qt.MouseButton.LeftButton


def turn_it(window, stage=Stage.LEAF):
    window.session.go_to(stage)
    QTest.mouseClick(window.turning.button, LEFT)
    assert window.turning.button.isChecked()


def facets(window):
    return [each for each in window.board.drawing.shapes if each.layer is Layer.FACET]


def drag(board, start: QPoint, end: QPoint):
    QTest.mousePress(board, LEFT, Qt.KeyboardModifier.NoModifier, start)
    for step in range(1, 5):
        QTest.mouseMove(board, start + (end - start) * step / 4)
    QTest.mouseRelease(board, LEFT, Qt.KeyboardModifier.NoModifier, end)


def test_it_stands_at_leaf_hardware_and_make_and_nowhere_else(window):
    for stage in Stage:
        window.session.go_to(stage)
        can = stage in (Stage.LEAF, Stage.HARDWARE, Stage.MAKE)
        assert window.turning.button.isVisibleTo(window) is can
        assert not facets(window)
    for stage in (Stage.LEAF, Stage.HARDWARE, Stage.MAKE):
        window.session.go_to(stage)
        window.turning.button.setChecked(True)
        assert len(facets(window)) > 20
    window.session.go_to(Stage.FIT)
    assert not facets(window)
    assert not window.turning.apart.isVisibleTo(window)
    window.session.go_to(Stage.LEAF)
    page(window, "Ways")
    assert not facets(window)
    window.turning.button.setChecked(False)
    page(window, "Set out")
    assert window.middle.title.text() == "The leaf, set out"


def test_dragging_turns_it_and_a_click_still_asks(window):
    turn_it(window)
    board, before = window.board, window.turning.room.turn
    middle = board.rect().center()
    drag(board, middle, middle + QPoint(100, 40))
    turn = window.turning.room.turn
    assert turn.yaw < before.yaw - 30
    assert turn.pitch > before.pitch + 10
    shape = max(facets(window), key=lambda each: area(each.points))
    place = board._view.polygon(shape.points).boundingRect().center().toPoint()
    QTest.mouseMove(board, place)
    named = window.session.lit
    assert named.startswith("part:")
    QTest.mouseClick(board, LEFT, Qt.KeyboardModifier.NoModifier, place)
    assert window.session.working == next(
        each.length.name for each in window.session.solved.cut_parts if f"part:{each.name}" == named
    )
    assert window.turning.room.turn == turn  # a click turns nothing


def test_keys_turn_it_name_its_pieces_and_put_it_back(window):
    turn_it(window)
    board = window.board
    board.setFocus()
    for key in (Qt.Key.Key_Right, Qt.Key.Key_Right, Qt.Key.Key_Down):
        QTest.keyClick(board, key)
    turn = window.turning.room.turn
    assert (turn.yaw, turn.pitch) == (YAW - 12, PITCH + 6)
    QTest.keyClick(board, Qt.Key.Key_PageDown)
    assert window.session.lit.startswith("part:")
    window.turning.apart.setValue(60)
    QTest.keyClick(board, Qt.Key.Key_0)
    assert (window.turning.room.turn.yaw, window.turning.room.turn.pitch, window.turning.apart.value()) == (
        YAW,
        PITCH,
        0,
    )
    assert "arrows turn" in board.accessibleDescription()
    window.turning.button.setChecked(False)
    assert "arrows go from part to part" in board.accessibleDescription()


def test_the_slider_takes_it_apart_and_names_the_pieces(window):
    turn_it(window)
    assert window.board.drawing.texts() == []
    wide = window.board.drawing.bounds.width
    window.turning.apart.setValue(100)
    assert window.board.drawing.bounds.width > wide + 100
    assert {"top rail", "hinge stile"} <= set(window.board.drawing.texts())
    assert window.turning.apart_label.text() == "apart 100 %"


def test_an_edit_is_seen_and_the_turn_stays(window):
    turn_it(window)
    window.turning.room.turned(50, 0)
    turn, before = window.turning.room.turn, [each.points for each in facets(window)]
    assert window.session.edit("build.stile", 120.0) == ""
    assert window.turning.room.turn == turn
    assert [each.points for each in facets(window)] != before
    window.session.undo_stack.undo()
    assert [each.points for each in facets(window)] == before


def test_it_is_cut_open_and_the_cut_is_dragged(window):
    turn_it(window)
    whole = len(facets(window))
    turning = window.turning
    turning.cut.setCurrentIndex(list(CutWay).index(CutWay.LEVEL))
    turning.cut.activated.emit(turning.cut.currentIndex())
    assert turning.room.turn.cut is CutWay.LEVEL
    assert len(facets(window)) != whole
    board = window.board
    grip = next(each for each in board.drawing.shapes if each.layer is Layer.HANDLE)
    xs, ys = [x for x, _ in grip.points], [y for _, y in grip.points]
    place = board._view.at((sum(xs) / len(xs), sum(ys) / len(ys))).toPoint()
    drag(board, place, place - QPoint(0, 60))
    assert turning.room.turn.cut_at > 0.55
    assert turning.room.turn.yaw == YAW


def test_every_leaf_of_the_demo_job_can_be_turned(qapp, demo):
    window = Window(Session(demo))
    window.show()
    turn_it(window)
    for leaf in demo.leaves:
        window.choose_leaf(leaf.id)
        window.turning.room.turned(130, 30)
        window.turning.apart.setValue(50 if window.turning.apart.value() else 100)
        assert bool(facets(window)) is (window.session.solved.body is not None)
    let_go(window)


def test_the_slider_at_make_plays_the_steps_on_the_pieces(window):
    """From the first step to the last by the slider's keys: the pieces of each step, its cut hatched and seen close."""
    session = window.session
    session.go_to(Stage.MAKE)
    slider, room = window.turning.steps, session.room(MakeRoom)
    assert slider.isVisibleTo(window)
    assert not window.turning.apart.isVisibleTo(window)
    ids = [each.id for each in room.operations]
    slider.setFocus()
    QTest.keyClick(slider, Qt.Key.Key_Home)
    QTest.keyClick(slider, Qt.Key.Key_Right)
    assert window.turning.room.is_on
    for op_id in ("rip:rough", "mortise:stiles", "glue:frame", "size:leaf", "let-in:leaf", "hang:last"):
        while room.op().id != op_id:
            QTest.keyClick(slider, Qt.Key.Key_Right)
        assert slider.value() == ids.index(op_id) + 1
        assert room.op().name in window.middle.title.text()
        assert len(facets(window)) > 20
        words = " ".join(window.board.drawing.texts())
        assert ("close" in words) is (op_id in ("mortise:stiles", "size:leaf", "let-in:leaf"))
    room.take("mortise:stiles")  # in the list, as well
    assert slider.value() == ids.index("mortise:stiles") + 1
    QTest.mouseClick(window.turning.button, LEFT)
    assert not facets(window)  # the work on the bench, and what to do in words
