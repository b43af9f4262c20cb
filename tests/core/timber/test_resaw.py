"""Veneers out of boards: slices, book-matched pairs, ways out where one is short."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.veneer_match import Match
from oakmeasure.core.planning.veneer_plan import veneer_plan
from oakmeasure.core.timber.resaw import Resawing, matched, resawn, short_by


@given(st.floats(12, 80), st.floats(1.5, 6), st.floats(0.8, 2), st.floats(0, 0.8), st.floats(0, 0.5))
@settings(max_examples=60)
def test_slices_lie_in_the_board_a_kerf_apart_and_one_more_would_not(stock, raw, kerf, sanding, wander):
    if raw <= sanding + wander:
        with pytest.raises(InputError, match="sanding"):
            resawn(Resawing(stock=stock, raw=raw, kerf=kerf, sanding=sanding, wander=wander))
        return
    found = resawn(Resawing(stock=stock, raw=raw, kerf=kerf, sanding=sanding, wander=wander))
    for a, b in zip(found.slices, found.slices[1:], strict=False):
        assert b.low - a.high == pytest.approx(kerf)
    if found.slices:
        assert found.slices[-1].high <= stock + 1e-6
    more = len(found.slices) + 1
    assert more * raw + (more - 1) * kerf > stock - 1e-6
    assert found.thinnest <= found.finished <= raw


def test_book_matched_pairs_come_from_one_board_and_mirror_one_another():
    rows = matched(across=4, faces=2, each=5, match=Match.BOOK)
    for row in rows:
        for left, right in zip(row[::2], row[1::2], strict=True):
            assert left.board == right.board
            assert right.number == left.number + 1
            assert (left.turned, right.turned) == (False, True)
    slip = matched(across=4, faces=2, each=5, match=Match.SLIP)
    assert [(each.board, each.number) for row in slip for each in row] == [
        (1, 1),
        (1, 2),
        (1, 3),
        (1, 4),
        (1, 5),
        (2, 1),
        (2, 2),
        (2, 3),
    ]
    with pytest.raises(InputError):
        matched(across=2, faces=1, each=0, match=Match.SLIP)


def test_one_short_is_sawn_thinner_or_out_of_another_board():
    """28 thick gives 6 of 3.2 with a kerf of 1.3; 7 come of (28 - 6 x 1.3)/7 = 2.886."""
    sawing = Resawing(stock=28, raw=3.2, kerf=1.3, sanding=0.4, wander=0.2)
    thinner, another = short_by(needed=7, sawing=sawing, least=2.0)
    assert thinner.thinnest == pytest.approx(20.2 / 7 - 0.6)
    assert thinner.holds
    assert another.boards == 2
    assert not short_by(needed=7, sawing=sawing, least=2.5)[0].holds
    assert short_by(needed=6, sawing=sawing, least=2.0) == ()


def test_every_veneer_of_the_reading_room_has_its_slice_once(solved_demo):
    plan = veneer_plan(solved_demo.leaf("reading-room"))
    laid = [(each.laid.board, each.laid.number) for row in plan.faces for each in row]
    assert len(laid) == len(set(laid)) == plan.needed
    assert all(number <= len(plan.resawn.slices) for _, number in laid)
    assert veneer_plan(solved_demo.leaf("seed-room")) is None
