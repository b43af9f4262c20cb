"""The veneers of a leaf that is veneered.

Out of which slices of which board, how they lie on its faces, and the ways out where the boards at hand give too
few.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import IN_MM, Show
from oakmeasure.core.construction.veneered.model import Veneered, veneered
from oakmeasure.core.design import LeafDesign
from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.timber.resaw import LaidVeneer, Resawing, Resawn, WayOut, matched, resawn, short_by

LEAST_LEFT = 0.6  # mm; a thinner veneer is sanded through when the finish is renewed. Common practice, no source


@dataclass(frozen=True, slots=True)
class VeneerStrip:
    """A veneer on its place: of which part, where on the face, seen from that face; out of which slice."""

    part: str
    """Name of the veneered face."""
    rect: Rect
    """Where the strip lies on the leaf, mm."""
    laid: LaidVeneer
    """Which veneer of which board it is."""


@dataclass(frozen=True, slots=True)
class VeneerPlan:
    """The veneers of a leaf and the boards that they are sawn from."""

    stock: float
    """Thickness of a board, mm."""
    resawn: Resawn
    """What one board gives."""
    faces: tuple[tuple[VeneerStrip, ...], ...]
    """Front, back, each from left to right and up."""
    needed: int
    """Veneers together."""
    boards: int
    """That they take."""
    at_hand: int | None
    """Boards that there are; None: as many as needed."""
    ways: tuple[WayOut, ...]
    """Out, where they are too few."""


def veneer_plan(leaf: LeafDesign, show: Show = IN_MM) -> VeneerPlan | None:
    """Return the plan; None where the leaf is not veneered, or no veneer can be sawn.

    A part wider than the boards takes several veneers side by side. Each is taken as long as its board: a short
    one wastes the rest of its slice, which keeps the sequence.

    Args:
        leaf: The leaf, set out with its hardware.
        show: How lengths and other quantities are written.
    """
    choice, f = veneered(leaf.leaf.build), leaf.figures
    if choice is None or "veneer_raw" not in f or leaf.build is None:
        return None
    stock, raw, kerf = f["stock"].value, f["veneer_raw"].value, f["resaw_kerf"].value
    wander = choice.thickness_spread
    if choice.thin is not None:  # as they came, measured
        wander = max(choice.thick or choice.thin, choice.thin) - choice.thin
        raw = choice.thin + wander
    rows = [_strips(leaf, choice, back=back) for back in (False, True)]
    rows = [row for row in rows if row]
    sawing = Resawing(stock=stock, raw=raw, kerf=kerf, sanding=choice.sanding, wander=wander)
    try:
        board = resawn(sawing)
        laid = iter(matched(across=sum(map(len, rows)), faces=1, each=len(board.slices), match=choice.match)[0])
    except InputError:
        return None
    faces = tuple(tuple(VeneerStrip(name, rect, next(laid)) for name, rect in row) for row in rows)
    boards = max((each.laid.board for row in faces for each in row), default=0)
    needed, at_hand = sum(map(len, faces)), choice.stock_boards
    ways: tuple[WayOut, ...] = ()
    if at_hand is not None and boards > at_hand:
        ways = short_by(needed=-(-needed // at_hand), sawing=sawing, least=LEAST_LEFT, show=show)
    return VeneerPlan(stock, board, faces, needed, boards, at_hand, ways)


def _strips(leaf: LeafDesign, choice: Veneered, *, back: bool) -> list[tuple[str, Rect]]:
    """Return the veneers of a face, each with its part and where it lies, from left to right and up."""
    assert leaf.build is not None
    found = []
    parts = [each for each in leaf.build.parts if each.role is Role.VENEER and each.is_back is back]
    for part in sorted(parts, key=lambda each: (round(each.face.x0), each.face.y0)):
        box = part.face
        wide = box.width if part.grain_upright else box.height
        count = max(1, math.ceil(wide / choice.stock_width - 1e-6))
        for n in range(count):
            a, b = n / count, (n + 1) / count
            rect = (
                Rect(box.x0 + a * box.width, box.y0, box.x0 + b * box.width, box.y1)
                if part.grain_upright
                else Rect(box.x0, box.y0 + a * box.height, box.x1, box.y0 + b * box.height)
            )
            found.append((part.name, rect))
    return found
