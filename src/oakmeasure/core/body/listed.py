"""What the cut list says of a piece of a leaf that is cut to an outline: as large as the body has it."""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.body.pieces import Body, Piece
from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Build, Part, Size

ALIKE = 0.005  # mm: the same size
ASKEW = (Role.BRACE,)  # lie askew in the leaf: their sizes are along themselves


def listed(build: Build, body: Body) -> Build:
    """Return a leaf's parts as long and wide as its body has them; what is left on for trimming stays on.

    Where the edges of a leaf lean, what reaches them is a little shorter or wider than it was set out.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        body: The pieces that follow from them.
    """
    pieces = {piece.name: piece for piece in body.pieces if piece.part is not None}
    return replace(build, parts=tuple(_as_it_is(part, pieces[part.name]) for part in build.parts))


def _as_it_is(part: Part, piece: Piece) -> Part:
    if part.role in ASKEW or part.is_raked or part.is_bent:
        return part
    x0, y0, _, x1, y1, _ = piece.box
    own = piece.solids[: (2 if part.sloped else 1) + len(part.tongues)]  # its tenons make it no wider
    a0, b0 = (min(each.box[at] for each in own) for at in (0, 1))
    a1, b1 = (max(each.box[at] for each in own) for at in (2, 3))
    long, wide = (y1 - y0, a1 - a0) if part.grain_upright else (x1 - x0, b1 - b0)
    more_long, more_wide = long - part.finished.length, wide - part.finished.width
    if part.has_tongue or abs(more_wide) < ALIKE:
        more_wide = 0.0
    if abs(more_long) < ALIKE:
        more_long = 0.0
    if not more_long and not more_wide:
        return part

    def grown(size: Size) -> Size:
        return Size(size.length + more_long, size.width + more_wide, size.thickness)

    finished, planed = grown(part.finished), grown(part.planed)
    # What is planed off a leaf once it is glued up was set out: nothing is made smaller than that before.
    planed = Size(max(planed.length, part.planed.length), max(planed.width, part.planed.width), planed.thickness)
    rough = Size(max(part.rough.length, planed.length), max(part.rough.width, planed.width), part.rough.thickness)
    return replace(part, finished=finished, planed=planed, rough=rough)
