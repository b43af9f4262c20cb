"""The quick plan of a leaf on boards as they are: clear lengths, boards sawn alike, what the leaves share."""

from __future__ import annotations

from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.cutting.leaf_plan import _clear, board_at, boards_for
from oakmeasure.core.document.stock import Board, BoardMark, Face, Flaw
from oakmeasure.core.solver import solve
from samples import codes

marks = st.lists(
    st.builds(
        BoardMark,
        flaw=st.sampled_from(list(Flaw)),
        face=st.sampled_from(list(Face)),
        x=st.integers(0, 2500).map(float),
        y=st.integers(0, 150).map(float),
        length=st.integers(5, 500).map(float),
        width=st.integers(3, 50).map(float),
    ),
    max_size=5,
)


@given(marks, st.integers(0, 10))
@settings(max_examples=80)
def test_clear_lengths_of_a_board_are_no_more_than_it_has(some, crook):
    board = Board(length=3000, width=200, thickness=52, quantity=2, price=90.0, crook=crook, marks=tuple(some))
    found = _clear(4, board)
    assert all(board_at(each.name) == 4 for each in found)
    assert sum(each.length for each in found) <= board.length
    assert all(each.width <= max(board.width - crook, 20) for each in found)
    assert sum(each.price for each in found) <= 90.0 + 1e-9
    seen = [mark for mark in some if mark.rank < 2]
    if not seen:
        assert [(each.length, each.width) for each in found] == [(3000, 200 - crook)]
    through = [mark for mark in seen if mark.length <= 1500]
    lost = sum(mark.length for mark in through)
    assert sum(each.length for each in found) >= board.length - lost - 200 * (len(through) + 1)


@given(
    st.lists(st.tuples(st.sampled_from([None, "walnut", "ash"]), st.floats(18, 60), st.booleans()), max_size=8),
    st.floats(15, 60),
)
def test_boards_for_a_part_are_thick_enough_of_its_kind_and_sawn_alike(some, rough):
    rack = [
        Board(species=kind, length=2000, width=200, thickness=round(thick, 1), forbidden=out)
        for kind, thick, out in some
    ]
    found = boards_for(rack, "walnut", rough)
    fit = [each for each in rack if each.species in (None, "walnut") and not each.forbidden and each.thickness >= rough]
    assert bool(found) == bool(fit)
    if found:
        least = min(each.thickness for each in fit)
        assert found[0][1].thickness == least
        assert {at for at, _ in found} == {
            at for at, each in enumerate(rack) if each in fit and each.thickness <= least + 4
        }


def test_leaves_that_want_the_same_board_say_so_only_where_the_yard_has_no_more(demo, solved_demo):
    rack = tuple(each for each in demo.boards if each.is_owned)
    alone = solve(demo.model_copy(update={"boards": rack}))
    assert any(each.code == "boards-shared" for each in alone.checks)
    assert not any(each.code == "boards-shared" for each in solved_demo.checks)


def test_board_that_is_left_out_serves_no_leaf(demo):
    boards = tuple(each.model_copy(update={"forbidden": True}) for each in demo.boards)
    leaf = solve(demo.model_copy(update={"boards": boards})).leaf("seed-room")
    assert leaf.plan.boards == 0
    assert any(code.startswith("no-board-") for code in codes(leaf))
