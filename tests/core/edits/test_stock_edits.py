"""Boards of the rack: what to think of, marks that stay on them, labels and pins."""

from __future__ import annotations

from datetime import date, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.stock import Board, Came, Face, MoistureReading, Sawn
from oakmeasure.core.edits.stock_edits import Spot, drawn_mark, moved_mark, sized_mark, spot_on, with_boards, with_pin
from oakmeasure.core.reports.stock_advice import remarks, straight_length

FIRST = date(2026, 9, 1)


def log(percents, every=7):
    return [MoistureReading(day=FIRST + timedelta(days=every * n), percent=each) for n, each in enumerate(percents)]


def test_what_is_to_be_thought_of_with_a_board():
    old = Board(
        length=2000, width=200, thickness=50, came=Came.DONOR, sawn=Sawn.PLANED, one_face=True, bow=16, year=1887
    )
    said = remarks(old, 10.0, Show())
    assert said[0] == "search it for metal before it meets a blade"
    assert "old paint may hold lead" in said
    assert "bowed: no part over 1000" in said
    assert straight_length(old.model_copy(update={"bow": 3})) == 2000
    wet = Board(length=2000, width=200, thickness=50, readings=tuple(log([16.5])))
    assert remarks(wet, 10.0, Show()) == ["6.5 points too wet"]


@given(
    st.sampled_from(list(Face)),
    st.floats(-500, 3500),
    st.floats(-900, 300),
    st.floats(-500, 3500),
    st.floats(-900, 300),
)
@settings(max_examples=80)
def test_mark_that_is_drawn_moved_or_sized_stays_on_its_board(face, x0, y0, x1, y1):
    board = Board(length=3000, width=220, thickness=52)
    start, end = spot_on(board, face, x0, y0), spot_on(board, face, x1, y1)
    mark = drawn_mark(board, start, end, None)
    if mark is None:
        assert abs(start.x - end.x) < 3 or abs(start.y - end.y) < 3
        return
    assert mark.face is (Face.OTHER if face is Face.OTHER else Face.BEST)
    spot = Spot(face, end.x, end.y)
    for each in (mark, moved_mark(board, mark, spot), sized_mark(board, mark, spot)):
        assert each.x >= 0
        assert -3 <= each.y <= board.width
        assert each.x + each.length <= board.length + 3
        assert each.y + each.width <= board.width + 3
    moved = moved_mark(board, mark, Spot(face, 0.0, 0.0))
    assert moved.y == pytest.approx(0.0 if face is not Face.OTHER else board.width - mark.width)


def test_labels_differ_and_pins_name_a_board(demo):
    twice = demo.boards[0].model_copy(update={"label": "B2"})
    with pytest.raises(InputError, match="B2"):
        with_boards(demo, (twice, *demo.boards[1:]))
    with pytest.raises(InputError, match="label of a board"):
        with_pin(demo, "seed-room", "top rail", "nowhere")
    job = with_pin(with_pin(demo, "seed-room", "top rail", "B1"), "seed-room", "top rail", "B3")
    assert [each.board for each in job.cutting.pins] == ["B3"]
    assert with_pin(job, "seed-room", "top rail", "").cutting.pins == ()
