"""What has to be made on each piece of a leaf, read off its body: joints, grooves, tongues, shapes."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.body.listed import is_slanting, reach_of
from oakmeasure.core.body.pieces import Body, CutOut, CutOutKind, Piece
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.making.changes import Axis, Feature, FeatureKind, LeafEdge

TOUCHES = 0.01  # mm from an edge of the leaf, within which a piece lies there
NO_WOOD = ("glass", "steel")  # as they come: nothing of them is cut


def features_of(body: Body) -> tuple[Feature, ...]:
    """Return everything that has to be made on the pieces of a leaf beside their sizes and its hardware.

    Args:
        body: The leaf's pieces in place.
    """
    new = {piece.name for piece in body.pieces if piece.part is None or not piece.part.is_old}
    boards = {piece.name for piece in body.pieces if piece.role is Role.BOARD}  # a tongue is scribed to what it ends at
    return tuple(
        feature
        for piece in body.pieces
        if piece.part is not None and piece.part.species not in NO_WOOD
        for feature, _ in made_on(piece)
        if not piece.part.is_old or feature.kind is FeatureKind.SHAPE or feature.other in new
        if not (feature.kind is FeatureKind.GROOVE and feature.other in boards and piece.part.role is not Role.BOARD)
    )


def made_on(piece: Piece) -> Iterator[tuple[Feature, Solid | CutOut | None]]:
    """Yield what has to be made on a piece, each with what of it that is: its tenon, its groove; None for a shape.

    Args:
        piece: The piece; one without a part has nothing.
    """
    part = piece.part
    if part is None:
        return
    count: Counter[FeatureKind] = Counter()

    def feature(kind: FeatureKind, other: str = "") -> Feature:
        count[kind] += 1
        return Feature(piece.name, kind, count[kind], other)

    for cut in piece.cuts:
        if cut.kind is not CutOutKind.HARDWARE:
            yield feature(FeatureKind(cut.kind), cut.goes_in), cut
    main = solids_of_its_own(piece)
    if main == 2:
        yield feature(FeatureKind.FIELD), None
    for at, solid in enumerate(piece.solids[main:]):
        yield feature(FeatureKind.TONGUE if at < len(part.tongues) else FeatureKind.TENON), solid
    if part.shape and not is_slanting(part):
        yield feature(FeatureKind.SHAPE), None


def solids_of_its_own(piece: Piece) -> int:
    """Return how many of a piece's solids are itself, before its tongues and tenons: two of a raised panel.

    Args:
        piece: The piece.
    """
    part = piece.part
    return 2 if part is not None and part.hold is not None and part.sloped and len(piece.solids) > 1 else 1


def sides_of(piece: Piece, body: Body) -> dict[LeafEdge, Axis]:
    """Return the edges of the leaf at which a piece lies, each with the way of the piece that a trim there takes off.

    Args:
        piece: The piece.
        body: The leaf's pieces in place.
    """
    part = piece.part
    if part is None:
        return {}
    if is_slanting(part):
        edged = any(p.part and p.part.role is Role.LIPPING and p.part.layer_of == part.name for p in body.pieces)
        is_at_head = part.place is Place.TOP and part.role is Role.RAIL and not edged
        return {LeafEdge.HEAD: Axis.WIDTH} if is_at_head else {}
    (x0, x1), (y0, y1) = reach_of(piece)
    across, up = (Axis.WIDTH, Axis.LENGTH) if part.grain_upright else (Axis.LENGTH, Axis.WIDTH)
    at = {
        LeafEdge.HINGE: (x0 < TOUCHES, across),
        LeafEdge.LATCH: (x1 > body.width - TOUCHES, across),
        LeafEdge.FOOT: (y0 < TOUCHES, up),
        LeafEdge.HEAD: (y1 > body.height - TOUCHES, up),
    }
    return {side: axis for side, (touches, axis) in at.items() if touches}
