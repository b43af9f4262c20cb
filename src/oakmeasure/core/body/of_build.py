"""The body that follows from a leaf's parts and joints: tenons on members, and in their neighbours what takes them.

One rule for every construction: what goes into a piece is cut out of it. A new kind of joint is told by its part, as
tongue, hold or cut, and nothing here knows the construction.
"""

from __future__ import annotations

import math
from dataclasses import replace

from oakmeasure.core.base.geometry import area, clipped, field_grown
from oakmeasure.core.base.prisms import Solid, Span, block
from oakmeasure.core.body.pieces import Body, CutOut, CutOutKind, Piece, meets
from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Build, Loose, Part, Rect, Tenon

LET_IN = (Role.STIFFENER, Role.LEDGE)  # what lies across a slab, let into it or on it
HELD = (
    Role.PANEL,
    Role.CORE,
    Role.VENEER,
    Role.BOARD,
)  # what a groove or a rebate holds, and what lies beside it there


def body_of(build: Build) -> Body:
    """Return a leaf's body.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    rectangle = ((0.0, 0.0), (build.width, 0.0), (build.width, build.height), (0.0, build.height))
    outline = build.outline or rectangle
    pieces = {part.name: _piece(build, part, outline) for part in build.parts}
    cuts: dict[str, list[CutOut]] = {name: [] for name in pieces}
    loose = [_join(build, tenon, pieces, cuts) for tenon in build.tenons]
    for piece in list(pieces.values()):
        part = piece.part
        assert part is not None
        _take(part, _housings(build, part), pieces, cuts)
    made = [replace(piece, cuts=tuple(cuts[piece.name])) if cuts[piece.name] else piece for piece in pieces.values()]
    return Body(build, (*made, *(each for each in loose if each is not None)))


def _piece(build: Build, part: Part, outline: tuple[tuple[float, float], ...]) -> Piece:
    """Return a part as prisms, nothing cut out of it but what it says itself."""
    corners = part.whole if part.hold is None else clipped(part.whole, outline) or part.corners
    own = tuple(CutOut(CutOutKind.LAP, each, "") for each in part.cuts)
    depth = build.depth_of(part)
    if part.hold is not None and part.sloped:  # its slopes as one step: Piece.net knows what that leaves out
        middle = (part.hold.depth[0] + part.hold.depth[1]) / 2
        thin = (part.finished.thickness - part.sloped) / 2
        inner = field_grown(corners, -part.step_in, -part.step_in)
        main = (prism(corners, (middle - thin, middle + thin)), *([prism(inner, depth)] if len(inner) > 2 else []))
    else:
        main = (prism(corners, depth),)
    return Piece(part.name, part.species, (*main, *part.tongues), part, own)


def prism(corners: tuple[tuple[float, float], ...], depth: Span) -> Solid:
    """Return a prism; an upright rectangle is a block whatever corner comes first.

    Args:
        corners: Corners of its outline, anticlockwise, mm.
        depth: From where to where it lies, mm.
    """
    xs, ys = {round(x, 6) for x, _ in corners}, {round(y, 6) for _, y in corners}
    if len(corners) == 4 and len(xs) == 2 and len(ys) == 2:
        (x0, x1), (y0, y1) = sorted(xs), sorted(ys)
        if abs(area(corners) - (x1 - x0) * (y1 - y0)) < 1e-3:
            return block(x0, y0, x1, y1, depth)
    return Solid(tuple(corners), depth)


def _join(build: Build, tenon: Tenon, pieces: dict[str, Piece], cuts: dict[str, list[CutOut]]) -> Piece | None:
    """Add a tenon to its member and its mortise to what it goes into; return it where it is a piece of its own."""
    if tenon.loose is None:
        if tenon.member in pieces:
            piece, other = pieces[tenon.member], pieces.get(tenon.into)
            solid = _inside(tenon, other.part) if other is not None and other.part is not None else tenon.solid
            pieces[tenon.member] = replace(piece, solids=(*piece.solids, solid))
        for name, other in pieces.items():
            if name == tenon.into or (other.part is not None and other.part.layer_of == tenon.into):
                cuts[name].append(CutOut(CutOutKind.MORTISE, tenon.solid, tenon.member))
        return None
    solid = _both_halves(tenon, pieces)
    piece = Piece(str(tenon.loose), pieces[tenon.member].material if tenon.member in pieces else "", (solid,))
    for name, other in pieces.items():
        if (name in (tenon.member, tenon.into) or tenon.member == tenon.into) and meets(other, solid):
            cuts[name].append(CutOut(CutOutKind.SOCKET, solid, str(tenon.loose)))
    return piece


def _inside(tenon: Tenon, other: Part) -> Solid:
    """Return a tenon cut off level with the stile that it goes into, where that is cut to an outline."""
    corners = clipped(tenon.solid.points, other.shape) if other.shape and other.role is Role.STILE else ()
    return prism(corners, tenon.depth) if len(corners) > 2 else tenon.solid


def _both_halves(tenon: Tenon, pieces: dict[str, Piece]) -> Solid:
    """Return all of a loose tenon: half of it lies in the rail behind the shoulder; a dowel as a square of its area."""
    r, member = tenon.rect, pieces.get(tenon.member)
    if tenon.member != tenon.into and member is not None and member.part is not None:
        face = member.part.face
        shoulder = face.x0 if r.x1 <= face.x0 + 1e-6 else face.x1
        r = Rect(min(r.x0, 2 * shoulder - r.x1), r.y0, max(r.x1, 2 * shoulder - r.x0), r.y1)
    if tenon.loose is Loose.DOWEL:
        half, middle = tenon.thickness * math.sqrt(math.pi) / 4, (r.y0 + r.y1) / 2
        return block(r.x0, middle - half, r.x1, middle + half, (tenon.middle - half, tenon.middle + half))
    return block(r.x0, r.y0, r.x1, r.y1, tenon.depth)


def _housings(build: Build, part: Part) -> list[tuple[CutOutKind, Solid]]:
    """Return what a part needs cut out of its neighbours: grooves, housings, what takes its tongues."""
    found = [(CutOutKind.GROOVE, each) for each in part.tongues]
    if part.hold is not None:
        found.append((CutOutKind.REBATE, prism(field_grown(part.whole, *part.hold.room), part.hold.depth)))
    if part.role in LET_IN:
        found.append((CutOutKind.HOUSING, prism(part.whole, build.depth_of(part))))
    return found


def _take(
    part: Part, housings: list[tuple[CutOutKind, Solid]], pieces: dict[str, Piece], cuts: dict[str, list[CutOut]]
) -> None:
    for kind, solid in housings:
        for name, other in pieces.items():
            if name == part.name or not meets(other, solid):
                continue
            if kind is CutOutKind.REBATE and other.role in HELD:
                continue  # the boards of one field, or two layers of one panel, lie in the same groove
            if kind is CutOutKind.GROOVE and part.hold is not None and other.role not in HELD:
                continue  # boards in a rebate: that takes their tongues too
            if kind is CutOutKind.HOUSING and other.role in (*LET_IN, Role.BRACE):
                continue
            cuts[name].append(CutOut(kind, solid, part.name))
