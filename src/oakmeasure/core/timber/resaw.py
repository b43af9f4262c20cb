"""Veneers sawn out of a board in their sequence.

It tells where each lies in the board, what is left of it, how faces are matched, and what to do when it comes out
one short.

n*raw + (n - 1)*kerf <= thickness. Sanded on both sides; the saw wanders, so the thinnest counts. Book-matched: every
other veneer is turned over, so that neighbours mirror one another; slip-matched: all lie as they were sawn.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import IN_MM, Show
from oakmeasure.core.document.veneer_match import Match


@dataclass(frozen=True, slots=True)
class Slice:
    """A veneer in its board: number in the order of sawing, from and to through the thickness, mm."""

    number: int
    """Its number, from 1."""
    low: float
    """Its lower face in the board, mm."""
    high: float
    """Its upper face in the board, mm."""


@dataclass(frozen=True, slots=True)
class Resawn:
    """The veneers that one board gives."""

    slices: tuple[Slice, ...]
    """Where each veneer lies in one board."""
    waste: float
    """What is left of the board behind the last kerf, mm."""
    finished: float
    """Thickness after both sides are sanded, as meant, mm."""
    thinnest: float
    """Thickness after both sides are sanded, at the thinnest place, mm."""


def veneers_from(*, stock: float, raw: float, kerf: float) -> int:
    """Return how many veneers a board gives when it is resawn: n·raw + (n − 1)·kerf ≤ stock; mm.

    Args:
        stock: Thickness of the board, mm.
        raw: Thickness of a sawn veneer, mm.
        kerf: Of the saw, mm.

    >>> veneers_from(stock=28, raw=3.2, kerf=1.3), veneers_from(stock=44, raw=3.6, kerf=1.2)
    (6, 9)
    """
    return max(0, math.floor((stock + kerf) / (raw + kerf) + 1e-9))


@dataclass(frozen=True, slots=True, kw_only=True)
class Resawing:
    """How a board is resawn into veneers."""

    stock: float
    """Thickness of the board, mm."""
    raw: float
    """Thickness of a sawn veneer, mm."""
    kerf: float
    """Of the saw, mm."""
    sanding: float
    """What sanding takes off both sides together, mm."""
    wander: float
    """Thickest less thinnest of one veneer, as measured, mm."""


def resawn(sawing: Resawing) -> Resawn:
    """Return the veneers of a board.

    Args:
        sawing: How it is resawn.

    Raises:
        InputError: Where a veneer would be sanded away.

    >>> len(resawn(Resawing(stock=28, raw=3.2, kerf=1.3, sanding=0.4, wander=0.2)).slices)
    6
    """
    raw, kerf, sanding, wander = sawing.raw, sawing.kerf, sawing.sanding, sawing.wander
    if raw <= sanding + wander:
        raise InputError("raw", raw, f"more than {sanding + wander:g} mm, which sanding and the saw take")
    count = veneers_from(stock=sawing.stock, raw=raw, kerf=kerf)
    slices = tuple(Slice(n + 1, n * (raw + kerf), n * (raw + kerf) + raw) for n in range(count))
    waste = sawing.stock - (slices[-1].high + kerf if slices else 0.0)
    return Resawn(slices, max(waste, 0.0), raw - sanding - wander / 2, raw - sanding - wander)


@dataclass(frozen=True, slots=True)
class LaidVeneer:
    """A veneer on a face: board and number in it, whether it is turned over."""

    board: int
    """Number of the board it is sawn from."""
    number: int
    """Its number, from 1."""
    turned: bool
    """Whether it is turned over, as in a book."""


def matched(*, across: int, faces: int, each: int, match: Match) -> tuple[tuple[LaidVeneer, ...], ...]:
    """Return the veneers of every face from left to right, in the order that they were sawn, board after board.

    Book-matched pairs are kept within one board: an odd last veneer of a board is left over.

    Args:
        across: How many veneers lie side by side on a face.
        faces: How many faces are veneered.
        each: How many veneers come from one board.
        match: How veneers lie side by side.

    Raises:
        InputError: Where a board gives none.

    >>> [(v.board, v.number, v.turned) for v in matched(across=2, faces=1, each=5, match=Match.BOOK)[0]]
    [(1, 1, False), (1, 2, True)]
    """
    if each < 1:
        raise InputError("stock", each, "a board that gives a veneer")
    use = each - each % 2 if match is Match.BOOK and across > 1 and each > 1 else each
    found, at = [], 0
    for _ in range(faces):
        row = []
        for place in range(across):
            board, number = divmod(at, use)
            row.append(LaidVeneer(board + 1, number + 1, match is Match.BOOK and place % 2 == 1))
            at += 1
        found.append(tuple(row))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class WayOut:
    """What can be done when a board gives too few: words, thickness finished at the thinnest, mm, boards it takes."""

    words: str
    """In words."""
    thinnest: float
    """What its veneers have at the thinnest place, mm."""
    boards: int
    """How many boards it takes."""
    holds: bool
    """Whether veneers stay thick enough."""


def short_by(*, needed: int, sawing: Resawing, least: float, show: Show = IN_MM) -> tuple[WayOut, ...]:
    """Return the ways out where `needed` veneers do not come out of one board; () where they do.

    Args:
        needed: How many veneers are wanted.
        sawing: How the board is resawn.
        least: Thickness under which a veneer is sanded through in places, mm.
        show: How lengths and other quantities are written.

    >>> sawing = Resawing(stock=28, raw=3.2, kerf=1.3, sanding=0.4, wander=0.2)
    >>> [way.boards for way in short_by(needed=7, sawing=sawing, least=1.5)]
    [1, 2]
    """
    got = resawn(sawing)
    if len(got.slices) >= needed:
        return ()
    thinner = (sawing.stock - (needed - 1) * sawing.kerf) / needed
    left = thinner - sawing.sanding - sawing.wander
    boards = math.ceil(needed / len(got.slices)) if got.slices else 0
    words = f"saw them {show.fine(thinner)} instead of {show.fine(sawing.raw)}: {needed} come out of the board"
    found = [WayOut(words, left, 1, left >= least)]
    if boards:
        word = f"{boards} boards of the same log, so that the figure goes on" if boards > 1 else "one board"
        found.append(WayOut(word, got.thinnest, boards, True))
    return tuple(found)
