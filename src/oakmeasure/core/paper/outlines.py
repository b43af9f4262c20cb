"""Shapes of wood for templates: pieces of the leaf's outline, the ends of braces, arch, raked head, the whole outline.

Shapely does the cutting; it is loaded only here.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import replace

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Part
from oakmeasure.core.paper.router_layout import outline_of
from oakmeasure.core.paper.template import Box, Reference, Template
from oakmeasure.core.solution import LeafSolution

ON_LINE = 0.02  # mm; nearer than this a point lies on the outline
UNDER = 80.0  # mm shown under the lowest point of an arch or a raked head
END_LONG = 60.0  # mm of a brace shown beyond its cut
LEVEL = 0.5  # mm; a head whose corners differ by less is level


def cut_from(outline: Sequence[Point], box: Box) -> tuple[Point, ...]:
    """Return what of an outline lies in a box; () where nothing does.

    Args:
        outline: Corners of the leaf's outline, anticlockwise, mm.
        box: The box, mm.
    """
    from shapely import Polygon
    from shapely import box as rectangle

    piece = Polygon(outline).intersection(rectangle(*box))
    if piece.geom_type != "Polygon" or piece.is_empty:
        return ()
    return tuple((float(x), float(y)) for x, y in list(piece.exterior.coords)[:-1])


def edges_of(wood: Sequence[Point], outline: Sequence[Point], width: float, height: float) -> tuple[Reference, ...]:
    """Return the sides of a piece that are edges of the leaf itself, named by where they lie.

    Args:
        wood: Corners of the piece, mm.
        outline: Corners of the leaf's outline, anticlockwise, mm.
        width: Width, mm.
        height: Height, mm.
    """
    from shapely import LineString, Polygon
    from shapely import Point as At

    if not wood:
        return ()
    ring = Polygon(outline).exterior
    found = []
    for start, end in _sides(wood):
        middle = LineString([start, end]).interpolate(0.5, normalized=True)
        if max(ring.distance(At(start)), ring.distance(At(end)), ring.distance(middle)) < ON_LINE:
            found.append(Reference(start, end, _named(start, end, width, height)))
    return tuple(found)


def has_edge_in(template: Template, box: Box) -> bool:
    """Return whether an edge of the wood comes into a box: whether a sheet of paper there is worth its ink.

    Args:
        template: The template.
        box: The box, mm.
    """
    from shapely import LineString
    from shapely import box as rectangle

    area = rectangle(*box)
    return any(LineString([each.start, each.end]).intersects(area) for each in template.references)


def _sides(points: Sequence[Point]) -> list[tuple[Point, Point]]:
    return list(zip(points, (*points[1:], points[0]), strict=True))


def _named(start: Point, end: Point, width: float, height: float) -> str:
    """Return which edge of the leaf a side is, by its direction and where it lies."""
    upright = abs(end[1] - start[1]) > abs(end[0] - start[0])
    if upright:
        return "hinge edge" if start[0] + end[0] < width else "latch edge"
    return "foot" if start[1] + end[1] < height else "head"


def joined(found: Iterable[Template]) -> tuple[Template, ...]:
    """Return templates with those that are the same in all but their place as one, its places together.

    Args:
        found: Those that there are.
    """
    kept: dict[object, Template] = {}
    for each in found:
        cuts = tuple((c.layer, _rounded(c.points), round(c.radius, 2), round(c.depth, 2)) for c in each.cuts)
        key = (each.kind, each.surface, each.is_slow, _rounded(each.wood), cuts)
        same = kept.get(key)
        kept[key] = each if same is None else replace(same, places=(*same.places, *each.places))
    return tuple(kept.values())


def _rounded(points: Iterable[Point]) -> tuple[Point, ...]:
    return tuple((round(x, 2) + 0.0, round(y, 2) + 0.0) for x, y in points)


# --- braces --------------------------------------------------------------------------------------------------


def brace_ends(leaf: LeafSolution, show: Show) -> tuple[Template, ...]:
    """Return both ends of every brace, each lying along the board that it is cut from: x along it from its tip.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    if leaf.build is None:
        return ()
    found = []
    for part in leaf.build.parts:
        if part.role is Role.BRACE and len(part.corners) >= 4:
            found += [_brace_end(part, show, upper=False), _brace_end(part, show, upper=True)]
    return joined(found)


def _brace_end(part: Part, show: Show, *, upper: bool) -> Template:
    """Lay the brace along x, its cut end to the left, and show so much of it as has its cuts and a little more."""
    by_height = sorted(part.corners, key=lambda p: p[1])
    half = len(by_height) // 2
    low, high = _middle(by_height[:half]), _middle(by_height[half:])
    start, end = (high, low) if upper else (low, high)
    long_edge = max(_sides(part.corners), key=lambda s: math.dist(*s))
    turn = math.atan2(long_edge[1][1] - long_edge[0][1], long_edge[1][0] - long_edge[0][0])
    if math.cos(turn) * (end[0] - start[0]) + math.sin(turn) * (end[1] - start[1]) < 0:
        turn += math.pi
    laid = [(x * math.cos(turn) + y * math.sin(turn), y * math.cos(turn) - x * math.sin(turn)) for x, y in part.corners]
    tip, bottom = min(x for x, _ in laid), min(y for _, y in laid)
    laid = [(x - tip, y - bottom) for x, y in laid]
    whole = max(x for x, _ in laid)
    cut_to = max(x for x, _ in laid if x < whole / 2)
    wood = cut_from(laid, (-1.0, -1.0, cut_to + END_LONG, max(y for _, y in laid) + 1.0))
    references, notes = [], []
    for each in edges_of(wood, laid, 0.0, 0.0):
        a, b = each.start, each.end
        along = abs(b[1] - a[1]) < LEVEL
        references.append(Reference(a, b, "edge of the board" if along else "cut", is_datum=along))
        if not along:
            angle = math.degrees(math.atan2(abs(b[1] - a[1]), abs(b[0] - a[0])))
            notes.append(
                f"Cut at {show.value(angle, Unit.DEG)} to the edge, {show.length(math.dist(a, b), unit=True)} long."
            )
    end_name = "upper end" if upper else "lower end"
    return Template(
        "brace",
        tuple(notes),
        "brace as seen from the opening side",
        wood,
        tuple(references),
        places=((f"{part.name}, {end_name}", ""),),
        lay="Lay the thick lines along the board.",
    )


def _middle(points: Sequence[Point]) -> Point:
    return sum(x for x, _ in points) / len(points), sum(y for _, y in points) / len(points)


# --- large ones ----------------------------------------------------------------------------------------------


def big_ones(leaf: LeafSolution) -> tuple[Template, ...]:
    """Return the arch or the raked head, and the whole outline of a leaf that is scribed to its opening.

    Args:
        leaf: The leaf, worked out to the end.
    """
    build = leaf.build
    if build is None:
        return ()
    outline = outline_of(leaf)
    head = [p for p in outline if p[1] > build.height / 2]
    left, right = min(head, key=lambda p: (p[0], -p[1])), max(head, key=lambda p: (p[0], p[1]))
    springs = min(left[1], right[1])
    risen = [p for p in head if p[1] > springs + LEVEL and p not in (left, right)]
    found = []
    if len(risen) > 2:
        found.append(_big(leaf, "arch", springs - UNDER))
    elif abs(left[1] - right[1]) > LEVEL:
        found.append(_big(leaf, "raked head", springs - UNDER))
    if leaf.fit.outline:
        found.append(_big(leaf, "outline", 0.0))
    return tuple(found)


def _big(leaf: LeafSolution, kind: str, bottom: float) -> Template:
    from shapely import LineString
    from shapely import box as rectangle

    build = leaf.build
    assert build is not None
    outline = outline_of(leaf)
    top = max(y for _, y in outline)
    window = (-1.0, bottom, max(x for x, _ in outline) + 1.0, top + 1.0)
    wood = cut_from(outline, window)
    lines = []
    for part in build.parts:
        if part.role in (Role.VENEER, Role.BRACE):
            continue
        for side in _sides(part.corners):
            piece = LineString(side).intersection(rectangle(*window))
            if piece.geom_type == "LineString" and not piece.is_empty:
                a, b = piece.coords[0], piece.coords[-1]
                lines.append(((float(a[0]), float(a[1])), (float(b[0]), float(b[1]))))
    references = edges_of(wood, outline, build.width, build.height)
    first = min(references, key=lambda r: (r.name != "hinge edge", r.name != "foot"), default=None)
    lay = f"Join the sheets; lay the {first.name} first." if first is not None else ""
    return Template(kind, (), "opening face of the leaf", wood, references, lines=tuple(lines), lay=lay)
