"""The veneers of a leaf that is veneered: out of which slices of which board, how they lie on its faces, and the ways
out where the boards at hand give too few.
"""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.build_choices import BackFace, Veneered
from oakmeasure.core.errors import InputError
from oakmeasure.core.solve import LeafSolution
from oakmeasure.core.timber.resaw import Laid, Resawn, WayOut, matched, resawn, short_by

LEAST_LEFT = 0.6  # mm; a thinner veneer is sanded through when the finish is renewed. Common practice, no source


@dataclass(frozen=True, slots=True)
class VeneerPlan:
    """stock: thickness of a board, mm. faces: front, back. needed: veneers together. boards: that they take."""

    stock: float
    resawn: Resawn
    faces: tuple[tuple[Laid, ...], ...]
    needed: int
    boards: int
    at_hand: int | None
    ways: tuple[WayOut, ...]


def veneer_plan(leaf: LeafSolution) -> VeneerPlan | None:
    """Return the plan; None where the leaf is not veneered flush, or no veneer can be sawn."""
    choice, f = leaf.leaf.build, leaf.figures
    if not isinstance(choice, Veneered) or "veneers_across" not in f or "veneer_raw" not in f:
        return None
    stock, raw, kerf = f["stock"].value, f["veneer_raw"].value, f["resaw_kerf"].value
    count = 2 if choice.back is BackFace.SAME else 1
    across = int(f["veneers_across"].value)
    try:
        board = resawn(stock=stock, raw=raw, kerf=kerf, sanding=choice.sanding, wander=choice.wander)
        faces = matched(across=across, faces=count, each=len(board.slices), match=choice.match)
    except InputError:
        return None
    boards = max(each.board for row in faces for each in row)
    ways: tuple[WayOut, ...] = ()
    at_hand = choice.stock_boards
    if at_hand is not None and boards > at_hand:
        each = -(-count * across // at_hand)
        ways = short_by(needed=each, stock=stock, raw=raw, kerf=kerf, sanding=choice.sanding, wander=choice.wander,
                        least=LEAST_LEFT)  # fmt: skip
    return VeneerPlan(stock, board, faces, count * across, boards, at_hand, ways)
