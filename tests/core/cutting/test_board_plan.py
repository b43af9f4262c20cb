"""The quick plan of boards: one that a saw can cut, and a bound that no plan beats."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.cutting.board_plan import BoardPiece, BoardStock, plan_boards

STOCK = (BoardStock("long", 4200, 225), BoardStock("short", 2400, 200), BoardStock("wide", 3000, 300, quantity=2))


pieces = st.lists(
    st.builds(
        lambda n, length, width: BoardPiece(f"p{n}", f"p{n}", length, width),
        st.integers(0, 10**6),
        st.floats(100, 4100),
        st.floats(20, 290),
    ),
    min_size=1,
    max_size=14,
    unique_by=lambda each: each.name,
)


@given(pieces, st.floats(0, 6), st.floats(0, 40))
def test_plan_is_one_that_a_saw_can_cut(wanted, kerf, end_trim):
    plan = plan_boards(wanted, STOCK, kerf=kerf, end_trim=end_trim)
    placed = [each for board in plan.boards for each in board.pieces]
    names = [each.piece.name for each in placed] + [each.name for each in plan.unplaced]
    assert sorted(names) == sorted(each.name for each in wanted)
    assert sum(board.stock.name == "wide" for board in plan.boards) <= 2
    for board in plan.boards:
        strips = sorted(board.strips)
        for (y, width), (following, _) in pairwise(strips):
            assert following >= y + width + kerf - 1e-6
        assert strips[-1][0] + strips[-1][1] <= board.stock.width + 1e-6
        for strip_y, width in strips:
            row = sorted((each for each in board.pieces if each.y == strip_y), key=lambda each: each.x)
            assert row[0].x >= end_trim - 1e-6
            assert row[-1].x + row[-1].piece.length <= board.stock.length - end_trim + 1e-6
            assert all(each.piece.width <= width + 1e-6 for each in row)
            for one, other in pairwise(row):
                assert other.x >= one.x + one.piece.length + kerf - 1e-6
    if not plan.unplaced:
        assert plan.least_boards <= len(plan.boards)
        assert plan.least_area <= plan.area_used + 1e-6


def test_two_stiles_side_by_side_cost_one_kerf():
    two = [BoardPiece("a", "a", 2000, 100), BoardPiece("b", "b", 2000, 100)]
    plan = plan_boards(two, [BoardStock("s", 2000, 203.2)], kerf=3.2, end_trim=0)
    assert (len(plan.boards), plan.least_boards) == (1, 1)
    assert len(plan_boards(two, [BoardStock("s", 2000, 203.1)], kerf=3.2, end_trim=0).boards) == 2


def test_cheaper_boards_are_taken_where_every_board_has_a_price():
    dear = BoardStock("dear", 2400, 200, price=90.0)
    cheap = BoardStock("cheap", 3000, 225, price=50.0)
    plan = plan_boards([BoardPiece("a", "a", 2000, 100)], [dear, cheap], kerf=3, end_trim=10)
    assert [board.stock.name for board in plan.boards] == ["cheap"]


def test_bound_counts_pieces_that_cannot_lie_side_by_side():
    wide = [BoardPiece(str(at), str(at), 1500, 130) for at in range(4)]
    plan = plan_boards(wide, [BoardStock("s", 2400, 200)], kerf=3, end_trim=0)
    assert plan.least_boards == 3  # 4 × 1503 of length in boards of 2403; by area it would be 2
    assert len(plan.boards) == 4


@st.composite
def boards_cut_up(draw):
    """Whole boards ripped into strips and the strips crosscut, nothing left over: a plan of so many boards exists."""
    kerf = draw(st.floats(0, 5))
    count = draw(st.integers(1, 3))
    made = []
    for board in range(count):
        for strip, width in enumerate(_divided(draw, 200.0, kerf, 2)):
            for at, length in enumerate(_divided(draw, 2400.0, kerf, 3)):
                made.append(BoardPiece(f"{board}-{strip}-{at}", "p", length, width))
    return kerf, count, made


def _divided(draw, whole, kerf, most):
    """Divide a length, with a kerf between the parts."""
    parts = draw(st.integers(1, most))
    shares = [draw(st.floats(1, 3)) for _ in range(parts)]
    net = whole - (parts - 1) * kerf
    return [net * share / sum(shares) for share in shares]


@given(boards_cut_up())
def test_bound_never_exceeds_a_plan_that_is_known_to_exist(case):
    """No plan may be called impossible that was made beforehand; the plan found is at most half as many again."""
    kerf, count, wanted = case
    plan = plan_boards(wanted, [BoardStock("s", 2400, 200)], kerf=kerf, end_trim=0)
    assert plan.least_boards <= count
    assert plan.least_area <= count * 2400 * 200 * (1 + 1e-9)
    assert not plan.unplaced
    assert len(plan.boards) <= math.ceil(1.5 * count)


def test_pieces_that_fill_a_board_to_the_last_kerf_fit_on_it():
    thirds = [BoardPiece(str(at), "p", (2400 - 2 * 3.2) / 3, 200) for at in range(3)]
    plan = plan_boards(thirds, [BoardStock("s", 2400, 200)], kerf=3.2, end_trim=0)
    assert (len(plan.boards), plan.least_boards) == (1, 1)
    assert plan.area_of_pieces == pytest.approx(plan.area_used - 2 * 3.2 * 200)


def test_nothing_to_cut_and_nothing_to_cut_from():
    empty = plan_boards([], STOCK, kerf=3, end_trim=10)
    assert (empty.boards, empty.unplaced, empty.least_boards) == ((), (), 0)
    piece = BoardPiece("a", "a", 100, 50)
    assert plan_boards([piece], [], kerf=3, end_trim=10).unplaced == (piece,)
