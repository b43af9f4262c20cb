"""A leaf as it lies on a router's table: its outline and what is cut into the face that is up, with depths.

Coordinates in mm from the lower left corner of the face that is up, as one looks down on it. Seen on the opening face a
leaf with its hinges left has its hinge edge at x = 0; with its hinges right, or on its closing face, it lies the other
way round.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from enum import StrEnum

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.prism_sums import corners_of
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Hand
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.solution import LeafSolution

SAME = 1e-6  # mm
# At a point of an arch that is kept as chords
LEAST_TURN = math.radians(0.05)
MOST_TURN = math.radians(25)
# Mm: off the circle at the most; its radius at the most
ON_ARC = 0.02
LARGEST_ARC = 50_000.0
JOIN = 0.01  # mm, that pieces of one part are grown by so that they become one


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
    """One shape."""

    layer: FlatLayer
    """What it is: wood, tenon, cut."""
    points: tuple[Point, ...]
    """Corners of a closed outline, two ends of a line, or the centre of a circle of `radius`."""
    what: str
    """What is cut."""
    radius: float = 0.0
    """Of a bore, mm; 0 for other outlines."""
    depth: float = 0.0
    """From the face that is up, mm; 0 of what is not cut to a depth."""

    @property
    def name(self) -> str:
        """Return the name of its layer, the depth with it: POCKET_12.5."""
        return f"{self.layer}_{self.depth:g}" if self.layer in (FlatLayer.POCKET, FlatLayer.BORE) else str(self.layer)


def flat(leaf: LeafSolution, face: FaceUp, hand: Hand | None = None) -> tuple[Flat, ...]:
    """Return the leaf with one face up; () where there is no leaf.

    What lies inside the wood or is cut from an edge is not cut from a face and left out.

    Args:
        leaf: The leaf, worked out to the end.
        face: Which face lies up on the bench.
        hand: None for its own; of a pair, the other one's is the slow leaf.
    """
    build, body = leaf.build, leaf.body
    if build is None or body is None:
        return ()
    bare = body.bare
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
        cut = _cut(boring, bare.span_at(*_middle(boring)) or bare.over_all, face, place)
        if cut is not None:
            found.append(cut)
    return tuple(found)


def flat_part(leaf: LeafSolution, name: str, face: FaceUp, hand: Hand | None = None) -> tuple[Flat, ...]:
    """Return one part with one face up, tenons and tongues with it, the lower left corner of all at 0, 0.

    Depths are from the part's own face.

    Args:
        leaf: The leaf, worked out to the end.
        name: Its name.
        face: Which face lies up on the bench.
        hand: At which side the hinges are, seen from the opening side; None: the leaf's own.

    Raises:
        ValueError: For a name that is no part of the leaf.
    """
    from shapely import Point as At
    from shapely import Polygon, unary_union

    build, body = leaf.build, leaf.body
    part = next((each for each in build.parts if each.name == name), None) if build is not None else None
    if build is None or body is None or part is None:
        names = ", ".join(each.name for each in build.parts) if build is not None else "there is no leaf"
        raise ValueError(f"no part “{name}”: {names}")
    span, seen = build.depth_of(part), Polygon(part.corners)
    outlines = [Polygon(corners_of(each)).buffer(JOIN, join_style="mitre") for each in body.piece(name).solids]
    whole = unary_union(outlines).buffer(-JOIN, join_style="mitre")
    turned = ((hand or leaf.leaf.hand) is Hand.RIGHT) is not (face is FaceUp.CLOSING)
    x0, y0, x1, _ = whole.bounds

    def place(point: Point) -> Point:
        return (x1 - point[0] if turned else point[0] - x0, point[1] - y0)

    ring = list(whole.simplify(0.001).exterior.coords)[:-1]
    found = [Flat(FlatLayer.OUTLINE, tuple(place((float(x), float(y))) for x, y in ring), name)]
    if seen.area < whole.area - 1.0:
        found.append(Flat(FlatLayer.MARK, tuple(place(each) for each in part.corners), f"{name}, shoulders or sight"))
    for boring in leaf.borings:
        if boring.solid is None or boring.is_slow or not whole.covers(At(_middle(boring))):
            continue
        cut = _cut(boring, span, face, place)
        if cut is not None:
            found.append(cut)
    return tuple(found)


def _middle(boring: Boring) -> Point:
    x0, y0, x1, y1 = boring.solid.box if boring.solid is not None else (0.0, 0.0, 0.0, 0.0)
    return (x0 + x1) / 2, (y0 + y1) / 2


def outline_of(leaf: LeafSolution) -> tuple[Point, ...]:
    """Return the corners of a whole leaf from the hinge edge's foot, anticlockwise: scribed, arched or square.

    Args:
        leaf: The leaf, worked out to the end.
    """
    build = leaf.build
    if build is None:
        return ()
    if leaf.fit.outline:
        return leaf.fit.outline
    if any(part.shape for part in build.parts if max(y for _, y in part.corners) > build.height - SAME):
        from shapely import Polygon, unary_union

        whole = unary_union([Polygon(part.corners).buffer(JOIN, join_style="mitre") for part in build.parts])
        ring = whole.buffer(-JOIN, join_style="mitre").simplify(0.001)
        if ring.geom_type == "Polygon":
            return tuple((float(x), float(y)) for x, y in list(ring.exterior.coords)[:-1])
    return (0.0, 0.0), (build.width, 0.0), (build.width, build.height), (0.0, build.height)


def _cut(boring: Boring, span: tuple[float, float], face: FaceUp, place: Callable[[Point], Point]) -> Flat | None:
    """Return what is cut from the face that is up; None for what is not reached from there.

    span: from where to where the wood lies, from the leaf's opening face.
    """
    if boring.solid is None:
        return None
    top, bottom = span
    low, high = boring.solid.depth
    if high <= top + SAME or low >= bottom - SAME:
        return None  # in what lies before or behind it
    through = low <= top + SAME and high >= bottom - SAME
    from_here = low <= top + SAME if face is FaceUp.OPENING else high >= bottom - SAME
    if not from_here or not boring.side.surface.is_face:
        return None  # a butt or a forend as wide as a thin leaf is thick is still let in from its edge
    depth = high - top if face is FaceUp.OPENING else bottom - low
    points = tuple(place(each) for each in boring.solid.points)
    round_hole = len(points) == 1
    layer = FlatLayer.THROUGH if through else FlatLayer.BORE if round_hole else FlatLayer.POCKET
    return Flat(layer, points, boring.name, boring.solid.radius if round_hole else 0.0, 0.0 if through else depth)


# --- arches --------------------------------------------------------------------------------------------------


def bulges(points: Sequence[Point]) -> tuple[float, ...]:
    """Return for each side of a closed outline the tangent of a quarter of the arc that it stands for.

    A side runs from its point to the next; positive to the left, 0 for a straight one.

    An arch is kept as short chords: four points in a row on one circle, turning a little at each, are such.

    Args:
        points: Points, mm.

    >>> bulges([(0, 0), (10, 0), (10, 10), (0, 10)])
    (0.0, 0.0, 0.0, 0.0)
    """
    count = len(points)
    found = [0.0] * count
    for at in range(count if count > 4 else 0):
        four = [points[(at + n) % count] for n in range(4)]
        arc = _arc_of(four)
        if arc:
            for n in range(3):
                chord = math.dist(four[n], four[n + 1])
                found[(at + n) % count] = math.copysign(math.tan(math.asin(chord / 2 / abs(arc)) / 2), arc)
    return tuple(found)


def _arc_of(four: Sequence[Point]) -> float:
    """Return the radius of the circle that four points lie on, less than 0 where it turns right.

    0 where there is none or it turns too far at a point to be an arch kept as chords.
    """
    turns = []
    for a, b, c in zip(four, four[1:], four[2:], strict=False):
        one, two = (b[0] - a[0], b[1] - a[1]), (c[0] - b[0], c[1] - b[1])
        turns.append(math.atan2(one[0] * two[1] - one[1] * two[0], one[0] * two[0] + one[1] * two[1]))
    if not all(LEAST_TURN < abs(t) < MOST_TURN for t in turns) or turns[0] * turns[1] < 0:
        return 0.0
    (ax, ay), (bx, by), (cx, cy) = four[0], four[1], four[3]
    bx, by, cx, cy = bx - ax, by - ay, cx - ax, cy - ay
    twice = 2 * (bx * cy - by * cx)
    if abs(twice) < SAME:
        return 0.0
    b2, c2 = bx * bx + by * by, cx * cx + cy * cy
    x, y = (cy * b2 - by * c2) / twice, (bx * c2 - cx * b2) / twice
    radius = math.hypot(x, y)
    if abs(math.hypot(four[2][0] - ax - x, four[2][1] - ay - y) - radius) > ON_ARC or radius > LARGEST_ARC:
        return 0.0
    return math.copysign(radius, turns[0])
