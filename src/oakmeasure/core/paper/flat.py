"""A leaf as it lies on a router's table: its outline and what is cut into the face that is up, with depths.

Coordinates in mm from the lower left corner of the face that is up, as one looks down on it. Seen on the opening face a
leaf with its hinges left has its hinge edge at x = 0; with its hinges right, or on its closing face, it lies the other
way round.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum

from oakmeasure.core.hang_choices import Hanging
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.job import Hand
from oakmeasure.core.solve import LeafSolution

SAME = 1e-6  # mm
Point = tuple[float, float]


class FaceUp(StrEnum):
    """Which face of the leaf is up."""

    OPENING = "opening"
    CLOSING = "closing"


class FlatLayer(StrEnum):
    """What a shape is on the table; a pocket's and a bore's depth is told beside it."""

    OUTLINE = "OUTLINE"
    THROUGH = "CUT_THROUGH"
    POCKET = "POCKET"
    BORE = "BORE"
    MARK = "MARK"


@dataclass(frozen=True, slots=True)
class Flat:
    """One shape. points: corners of a closed outline, two ends of a line, or the centre of a circle of `radius`.

    depth: from the face that is up, mm; 0 of what is not cut to a depth.
    """

    layer: FlatLayer
    points: tuple[Point, ...]
    what: str
    radius: float = 0.0
    depth: float = 0.0

    @property
    def name(self) -> str:
        """Return the name of its layer, the depth with it: POCKET_12.5."""
        return f"{self.layer}_{self.depth:g}" if self.layer in (FlatLayer.POCKET, FlatLayer.BORE) else str(self.layer)


def flat(leaf: LeafSolution, face: FaceUp, hand: Hand | None = None) -> tuple[Flat, ...]:
    """Return the leaf with one face up; () where there is no leaf. hand: None for its own; of a pair, the other one's
    is the slow leaf.

    What lies inside the wood or is cut from an edge is not cut from a face and left out.
    """
    build = leaf.build
    if build is None:
        return ()
    mine = hand or leaf.leaf.hand
    turned = (mine is Hand.RIGHT) is not (face is FaceUp.CLOSING)

    def place(point: Point) -> Point:
        return (build.width - point[0] if turned else point[0], point[1])

    found = [Flat(FlatLayer.OUTLINE, tuple(place(each) for each in outline_of(leaf)), "leaf")]
    for part in build.parts:
        found.append(Flat(FlatLayer.MARK, tuple(place(each) for each in part.corners), part.name))
    for mark in build.marks:
        if not mark.hidden and len(mark.points) == 2:
            found.append(Flat(FlatLayer.MARK, tuple(place(each) for each in mark.points), mark.ref))
    slow = leaf.leaf.hanging is Hanging.PAIR and mine is not leaf.leaf.hand
    for boring in leaf.borings:
        if boring.solid is None or (boring.is_slow and not slow) or (boring.is_active and slow):
            continue
        cut = _cut(boring, build.thickness, face, place)
        if cut is not None:
            found.append(cut)
    return tuple(found)


def outline_of(leaf: LeafSolution) -> tuple[Point, ...]:
    """Return the corners of a whole leaf from the hinge edge's foot, anticlockwise: scribed, arched or square."""
    build = leaf.build
    if build is None:
        return ()
    if leaf.fit.outline:
        return leaf.fit.outline
    if any(part.shape for part in build.parts if max(y for _, y in part.corners) > build.height - SAME):
        from shapely import Polygon, unary_union

        whole = unary_union([Polygon(part.corners).buffer(0.01, join_style="mitre") for part in build.parts])
        ring = whole.buffer(-0.01, join_style="mitre").simplify(0.001)
        if ring.geom_type == "Polygon":
            return tuple((float(x), float(y)) for x, y in list(ring.exterior.coords)[:-1])
    return (0.0, 0.0), (build.width, 0.0), (build.width, build.height), (0.0, build.height)


def _cut(boring: Boring, thickness: float, face: FaceUp, place: Callable[[Point], Point]) -> Flat | None:
    """Return what is cut from the face that is up; None for what is not reached from there."""
    if boring.solid is None:
        return None
    low, high = boring.solid.depth
    through = low <= SAME and high >= thickness - SAME
    from_here = low <= SAME if face is FaceUp.OPENING else high >= thickness - SAME
    if not from_here or boring.edge in ("hinge edge", "latch edge"):
        return None  # a butt through a thin leaf is still let in from its edge
    depth = high if face is FaceUp.OPENING else thickness - low
    points = tuple(place(each) for each in boring.solid.points)
    round_hole = len(points) == 1
    layer = FlatLayer.THROUGH if through else FlatLayer.BORE if round_hole else FlatLayer.POCKET
    return Flat(layer, points, boring.name, boring.solid.radius if round_hole else 0.0, 0.0 if through else depth)
