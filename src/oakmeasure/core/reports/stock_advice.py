"""What there is to think of with a board before it is cut: wet, bowed, one face only, metal in it, dark with age."""

from __future__ import annotations

import math

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.stock import Board, Came, Flaw, Sawn
from oakmeasure.core.timber.wood import READY_WITHIN

SPARE_FOR_BOW = 4.0  # mm that milling usually has to spare: a rough board is sawn so much over


def straight_length(board: Board, spare: float = SPARE_FOR_BOW) -> float:
    """Return how long a part may be so that the board's bow takes no more than `spare` of its thickness, mm.

    A bow is an arc: a length l of the whole L has (l/L)² of it. Source: sagitta of a flat arc.

    Args:
        board: The board, seen on its best face with its head end to the left.
        spare: Share of its sawn thickness that the bow may take, mm.

    >>> straight_length(Board(length=3000, width=200, thickness=53, bow=16), 4)
    1500.0
    """
    if board.bow <= spare:
        return board.length
    return board.length * math.sqrt(spare / board.bow)


def remarks(board: Board, rest: float, show: Show) -> list[str]:
    """Return what is to be thought of, the gravest first.

    Args:
        board: The board, seen on its best face with its head end to the left.
        rest: Moisture that its room brings it to, %.
        show: How lengths and other quantities are written.
    """
    found = []
    metal = sum(mark.flaw is Flaw.METAL for mark in board.marks)
    old = board.came in (Came.RECLAIMED, Came.DONOR)
    if old and not board.searched:
        found.append("search it for metal before it meets a blade")
    elif metal:
        found.append(f"{metal} nails left in: mark them on both faces")
    if board.readings and abs(board.readings[-1].percent - rest) > READY_WITHIN:
        away = board.readings[-1].percent - rest
        found.append(f"{abs(away):.1f} points too {'wet' if away > 0 else 'dry'}")
    if board.one_face:
        found.append("wood off one face only")
    straight = straight_length(board)
    if straight < board.length:
        found.append(f"bowed: no part over {show.length(straight)}")
    if old and board.sawn is Sawn.PLANED:
        found.append("old paint may hold lead")
    if old and (board.year or board.colour):
        found.append("match " + ", ".join(each for each in (str(board.year or ""), board.colour) if each))
    if board.forbidden:
        found.append("left out of the plan")
    return found
