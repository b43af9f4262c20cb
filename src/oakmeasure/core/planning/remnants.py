"""Parts that are pinned to a board: where they lie on it, and what that leaves of it, in pieces that through cuts part.

A pinned part takes the lowest clear place on the board; the board is ripped below and above it, and the strip is
crosscut at both its ends. Four rectangles are left at the most, each planned like a board of its own.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING

from oakmeasure.core.cutting.lp.knapsack import spans_beside
from oakmeasure.core.cutting.model import Defect
from oakmeasure.core.document.stock import Board
from oakmeasure.core.planning.plan_model import Remnant

if TYPE_CHECKING:
    from oakmeasure.core.document.job import Job
    from oakmeasure.core.planning.plan_model import PlacedPiece, Source, Wanted

# Of what is left, to be looked at again
LEAST_LENGTH = 60.0
LEAST_WIDTH = 15.0


def place_in(remnant: Remnant, length: float, width: float, clear: int, trim: float) -> tuple[float, float] | None:
    """Return the lowest place where a part so clean lies beside the defects; None for none.

    Of places as low, the nearest to the head end.

    Args:
        remnant: What is left of the board.
        length: Of the part, along the board, mm.
        width: Of the part, across the board, mm.
        clear: Rank of the defects that it must keep off, and of all below.
        trim: Taken off each end of the board, mm.
    """
    against = [each for each in remnant.defects if each.rank <= clear]
    for y in sorted({0.0, *(each.y + each.width for each in against)}):
        if y + width > remnant.width + 1e-6:
            break
        met = [
            (round(10 * each.x), round(10 * (each.x + each.length)))
            for each in against
            if each.y < y + width - 1e-6 and each.y + each.width > y + 1e-6
        ]
        ends = [(0, round(10 * trim)), (round(10 * (remnant.length - trim)), round(10 * remnant.length))]
        for a, b in spans_beside([*met, *ends], round(10 * remnant.length)):
            if (b - a) / 10 >= length - 1e-6:
                return a / 10, y
    return None


def without(remnant: Remnant, x: float, y: float, length: float, width: float, kerf: float) -> list[Remnant]:
    """Return what a part at x, y leaves of a rectangle: below and above its strip, before and behind it.

    Args:
        remnant: What is left of the board.
        x: Of the part, along the board, mm.
        y: Of the part, across the board, mm.
        length: Of the part, along the board, mm.
        width: Of the part, across the board, mm.
        kerf: Of the saw, mm.
    """
    top, end = y + width + kerf, x + length + kerf
    made = [
        (0.0, 0.0, remnant.length, y - kerf),
        (0.0, top, remnant.length, remnant.width - top),
        (0.0, y, x - kerf, width),
        (end, y, remnant.length - end, width),
    ]
    return [remnant.part_of(*each) for each in made if each[2] >= LEAST_LENGTH and each[3] >= LEAST_WIDTH]


def pinned(
    job: Job, sources: Mapping[str, Source], wanted: Sequence[Wanted], pins: Mapping[tuple[str, str], str]
) -> tuple[dict[str, tuple[PlacedPiece, ...]], dict[str, tuple[str, Remnant]], float, list[Wanted]]:
    """Return the pinned pieces on their boards and what is not pinned.

    Four things: the pieces on their boards, what these boards leave, what the boards cost, and the pieces that
    are not pinned or find no place on their board.

    Args:
        job: The job that is read; it is not changed.
        sources: The stock, by its name.
        wanted: Pieces that are wanted.
        pins: Which board a part of a leaf is pinned to.
    """
    from oakmeasure.core.planning.plan_model import PlacedPiece

    kerf, trim = job.rules.kerf.value, job.rules.end_trim.value
    left: dict[str, list[Remnant]] = {}
    laid: dict[str, list[PlacedPiece]] = {}
    free: list[Wanted] = []
    for each in sorted(wanted, key=lambda one: -one.length * one.width):
        name = pins.get((each.leaf, each.name), "")
        board = sources[name].item if name in sources else None
        if not isinstance(board, Board):
            free.append(each)
            continue
        if name not in left:
            marks = tuple(Defect(name, one.x, one.y, one.length, one.width, one.rank) for one in board.marks)
            left[name] = [Remnant(0.0, 0.0, board.length, board.width - board.crook, marks)]
        for at, remnant in enumerate(left[name]):
            place = place_in(remnant, each.length, each.width, each.clear, trim)
            if place is not None:
                left[name][at : at + 1] = without(remnant, *place, each.length, each.width, kerf)
                where = (remnant.x + place[0], remnant.y + place[1])
                laid.setdefault(name, []).append(PlacedPiece(each, *where, each.length, each.width))
                break
        else:
            free.append(each)
    rest = {f"{name} · rest {n + 1}": (name, each) for name in laid for n, each in enumerate(left[name])}
    sunk = sum(sources[name].price for name in laid)
    order = {id(each): at for at, each in enumerate(wanted)}
    free.sort(key=lambda each: order[id(each)])
    return {name: tuple(pieces) for name, pieces in laid.items()}, rest, sunk, free
