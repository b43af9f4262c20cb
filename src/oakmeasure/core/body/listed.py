"""How large a piece of a leaf is as its body has it, and a cut list that says so."""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.base.prisms import Solid, Span
from oakmeasure.core.body.pieces import Body, Piece
from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Part, Size

ALIKE = 0.005  # mm: the same size


def is_slanting(part: Part) -> bool:
    """Return whether a part lies askew in the leaf, so that its sizes are none of the leaf's ways.

    Args:
        part: The part.
    """
    return part.role is Role.BRACE or part.is_raked


def reach_of(piece: Piece) -> tuple[Span, Span]:
    """Return from where to where a piece reaches across and up: along its grain with its tenons, across it without.

    Args:
        piece: The piece; it has a part.
    """
    part = piece.part
    assert part is not None
    x0, y0, _, x1, y1, _ = piece.box
    a0, b0, a1, b1 = (most(each.box[at] for each in _own(piece)) for at, most in enumerate((min, min, max, max)))
    return ((a0, a1), (y0, y1)) if part.grain_upright else ((x0, x1), (b0, b1))


def size_of(piece: Piece) -> Size:
    """Return a piece's size as the body has it, its tenons and tongues with it, mm.

    Args:
        piece: The piece; it has a part.
    """
    part = piece.part
    assert part is not None
    if is_slanting(part) or part.is_bent:
        return part.finished
    (x0, x1), (y0, y1) = reach_of(piece)
    long, wide = (y1 - y0, x1 - x0) if part.grain_upright else (x1 - x0, y1 - y0)
    if part.sloped:
        return Size(long, wide, part.finished.thickness)
    depths = [each.depth for each in _own(piece)]
    return Size(long, wide, max(z for _, z in depths) - min(z for z, _ in depths))


def _own(piece: Piece) -> tuple[Solid, ...]:
    """Return what a piece is without its tenons: a haunch makes no rail wider."""
    part = piece.part
    assert part is not None
    return piece.solids[: (2 if part.sloped else 1) + len(part.tongues)]


def listed(body: Body) -> Body:
    """Return a scribed leaf with its parts listed as long and wide as its body has them; what is left on stays on.

    Where the edges of a leaf lean, what reaches them is a little shorter or wider than it was set out.

    Args:
        body: The leaf's pieces in place.
    """
    pieces = tuple(
        piece if piece.part is None else replace(piece, part=_as_it_is(piece, piece.part)) for piece in body.pieces
    )
    parts = tuple(piece.part for piece in pieces if piece.part is not None)
    return Body(replace(body.build, parts=parts), pieces)


def _as_it_is(piece: Piece, part: Part) -> Part:
    size = size_of(piece)
    more_long = size.length - part.finished.length
    more_wide = 0.0 if part.has_tongue else size.width - part.finished.width  # a board's cover goes without its tongue
    if max(abs(more_long), abs(more_wide)) < ALIKE:
        return part

    def grown(size: Size) -> Size:
        return Size(size.length + more_long, size.width + more_wide, size.thickness)

    finished, planed = grown(part.finished), grown(part.planed)
    # What is planed off a leaf once it is glued up was set out: nothing is made smaller than that before.
    planed = Size(max(planed.length, part.planed.length), max(planed.width, part.planed.width), planed.thickness)
    rough = Size(max(part.rough.length, planed.length), max(part.rough.width, planed.width), part.rough.thickness)
    return replace(part, finished=finished, planed=planed, rough=rough)
