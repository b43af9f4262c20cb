"""Laws of a leaf's body, for any construction, head and way of hanging: what is said of one that breaks them."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator
from itertools import combinations, pairwise

import shapely

from oakmeasure.core.base.prism_sums import corners_of, flat
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.body.pieces import Body, Piece
from oakmeasure.core.design import LeafDesign
from oakmeasure.core.document.constructions import KINDS, model_of
from oakmeasure.core.document.hanging import Hanging, LeafShape
from oakmeasure.core.document.job import Hand, Job, Leaf, OpeningReadings, Reading
from oakmeasure.core.document.readings import HeadKind, MeasuredBy
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.solver import solve_leaf

FILLS, LENGTH, ROOM = 0.01, 0.01, 1e-3  # mm
# What leaves no room for a part says so with a stop: there a body need not be one.
ASKED_TOO_MUCH = (
    "rails-",
    "ledge-head",
    "edge-gone",
    "end-gone",
    "part-gone",
    "panel-width",
    "stiffener-out",
    "butts-room",
    "arch",
    "reduce-too-far",
    "strips-short",
)


def laws(leaf: LeafSolution) -> list[str]:
    """Return what breaks the laws in a leaf that has room for all its parts; [] where a stop says that it has not.

    Args:
        leaf: The leaf, worked out to the end.
    """
    if leaf.fault is not None:
        return [repr(leaf.fault)]
    stops = [each.code for each in leaf.checks if each.level is Level.STOP]
    return [] if any(each.startswith(ASKED_TOO_MUCH) for each in stops) else broken(leaf)


def random_leaf(job: Job, source: random.Random) -> Leaf:
    """Return one of a job's leaves in another opening, hung and made another way, under another head."""
    leaf = source.choice(job.leaves)
    width, height = source.uniform(380, 1100), source.uniform(600, 2400)
    head = source.choice(tuple(HeadKind))
    rise = source.uniform(-0.25, 0.25) * width if head is HeadKind.RAKED else source.uniform(-6, 6)
    lean = [source.uniform(-5, 5) for _ in range(2)]
    values = {
        "width_bottom": width,
        "width_top": width - sum(lean),
        "height_hinge": height,
        "height_latch": max(height + rise, 400.0),
        "lean_hinge": lean[0],
        "lean_latch": lean[1],
    }
    readings = OpeningReadings(**{name: Reading(value=value) for name, value in values.items()})
    update = {
        "readings": readings,
        "measured_by": MeasuredBy.TAPE,
        "lining": None,
        "hanging": source.choice(tuple(Hanging)),
        "head": leaf.head.model_copy(update={"kind": head}),
        "fit": leaf.fit.model_copy(update={"shape": LeafShape.SCRIBED}) if source.random() < 0.7 else leaf.fit,
    }
    if source.random() < 0.6:
        update["build"] = model_of(source.choice(KINDS))()
    return leaf.model_copy(update=update)


def unlike_its_mirror(job: Job, leaf: Leaf) -> list[str]:
    """Return what differs between a leaf hung on the left and the same on the right: all is told from the hinges."""
    one, other = (solve_leaf(job, leaf.model_copy(update={"hand": hand})) for hand in Hand)
    found = [key for key, value in one.figures.by_name.items() if value != other.figures.by_name.get(key)]
    found += [each.name for each, there in zip(one.borings, other.borings, strict=True) if each != there]
    if one.body is None or other.body is None:
        return found if one.body is other.body else ["only one of them is a body"]
    pieces = zip(one.body.pieces, other.body.pieces, strict=True)
    return found + [a.name for a, b in pieces if (a.solids, a.cuts) != (b.solids, b.cuts)]


def broken(leaf: LeafDesign) -> list[str]:
    """Return what in a leaf's body breaks the laws, in words; [] for none.

    Args:
        leaf: The leaf, set out with its hardware.
    """
    body = leaf.body
    if body is None:
        return []
    return [*overlaps(body), *sizes(body), *thicknesses(leaf, body), *cuts_in_wood(leaf, body), *fills(leaf, body)]


def solid_slabs(piece: Piece) -> list[tuple[float, float, object]]:
    """Return a piece as slabs: from and to in depth, and what of its face is wood there."""
    solids, cuts = piece.solids, [each.solid for each in piece.cuts]
    depths = sorted({round(z, 9) for each in (*solids, *cuts) for z in each.depth})
    found = []
    for z0, z1 in pairwise(depths):
        middle = (z0 + z1) / 2
        whole = shapely.union_all([flat(each) for each in solids if each.depth[0] < middle < each.depth[1]])
        less = [flat(each) for each in cuts if each.depth[0] < middle < each.depth[1]]
        left = shapely.difference(whole, shapely.union_all(less)) if less else whole
        if not left.is_empty:
            found.append((z0, z1, left))
    return found


def overlaps(body: Body) -> Iterator[str]:
    """Yield the pieces of which two share room."""
    slabs = {id(piece): solid_slabs(piece) for piece in body.pieces}
    for one, other in combinations(body.pieces, 2):
        a, b = one.box, other.box
        if any(min(a[at + 3], b[at + 3]) - max(a[at], b[at]) < ROOM for at in range(3)):
            continue
        for z0, z1, area in slabs[id(one)]:
            for y0, y1, there in slabs[id(other)]:
                if min(z1, y1) - max(z0, y0) > ROOM:
                    both = shapely.intersection(area, there).area * (min(z1, y1) - max(z0, y0))
                    if both > 0.5:
                        yield f"{one.name} and {other.name} share {both:.1f} mm³"


def along(piece: Piece, tenons: set[Solid]) -> tuple[float, float]:
    """Return a piece's extents along its grain and across it, mm, without some of its prisms."""
    part = piece.part
    assert part is not None
    turns = [math.pi / 2 if part.grain_upright else 0.0]
    if part.is_raked or part.role is Role.BRACE:
        sides = zip(part.corners, (*part.corners[1:], part.corners[0]), strict=True)
        long = [(b[0] - a[0], b[1] - a[1]) for a, b in sides if part.role is Role.BRACE or abs(a[0] - b[0]) > 1]
        turns = [math.atan2(up, across) for across, up in long]
    points = [each for solid in piece.solids if solid not in tenons for each in corners_of(solid)]
    found = []
    for turn in turns:
        u = [x * math.cos(turn) + y * math.sin(turn) for x, y in points]
        v = [y * math.cos(turn) - x * math.sin(turn) for x, y in points]
        found.append((max(u) - min(u), max(v) - min(v)))
    return min(found, key=lambda each: abs(each[1] - part.finished.width))


def sizes(body: Body) -> Iterator[str]:
    """Yield the parts whose listed sizes are not those of the wood in its place."""
    for piece in body.pieces:
        part = piece.part
        if part is None:
            continue
        own = set(piece.solids[(2 if part.sloped else 1) + len(part.tongues) :])  # its tenons
        (long, _), (_, wide) = along(piece, set()), along(piece, own)
        spare = part.finished.length - long  # a raked rail's blank has its full width at its tenons' ends too
        if not -LENGTH < spare < (part.finished.width if part.is_raked and own else LENGTH) and not part.is_bent:
            yield f"{part.name}: listed {part.finished.length:.2f} long, is {long:.2f}"
        if abs(wide - part.finished.width) > LENGTH and not part.has_tongue and not part.is_bent:
            yield f"{part.name}: listed {part.finished.width:.2f} wide, is {wide:.2f}"
        z0, z1 = min(s.depth[0] for s in piece.solids), max(s.depth[1] for s in piece.solids)
        if abs(z1 - z0 - part.finished.thickness) > LENGTH:
            yield f"{part.name}: listed {part.finished.thickness:.2f} thick, is {z1 - z0:.2f}"
        if min(part.finished.length, part.finished.width, part.finished.thickness) <= 0 or piece.net.volume <= 0:
            yield f"{part.name}: nothing of it is left"


def thicknesses(leaf: LeafDesign, body: Body) -> Iterator[str]:
    """Yield where the leaf's figures of thickness are not the body's."""
    f = leaf.figures
    for edge in ("hinge", "latch"):
        if abs(body.thickness_along(edge) - f["thickness"].value) > LENGTH:
            yield f"thickness at the {edge} edge: {f['thickness'].value:.2f}, is {body.thickness_along(edge):.2f}"
    over = f.get("thickness_over") or f["thickness"]
    z0, z1 = body.over_all
    if abs(z1 - z0 - over.value) > LENGTH:
        yield f"thickness over all: {over.value:.2f}, is {z1 - z0:.2f}"
    if abs(body.build.thickness - over.value) > LENGTH:
        yield f"thickness of the parts together: {body.build.thickness:.2f}, over all {over.value:.2f}"


def cuts_in_wood(leaf: LeafDesign, body: Body) -> Iterator[str]:
    """Yield the hardware's cuts that are not in the wood that they name, or deeper than it."""
    for each in leaf.borings:
        if each.solid is None or each.is_slow:
            continue
        into = [piece for piece in body.pieces if any(cut.solid == each.solid for cut in piece.cuts)]
        if not into:
            yield f"{each.name}: cut in no wood"
        if each.part not in {piece.name for piece in into} | {"head", "foot"}:
            yield f"{each.name}: said to be in {each.part}, is in {', '.join(piece.name for piece in into)}"
        z0, z1 = body.over_all
        if each.solid.depth[0] < z0 - LENGTH or each.solid.depth[1] > z1 + LENGTH:
            yield f"{each.name}: from {each.solid.depth[0]:.1f} to {each.solid.depth[1]:.1f} in {z1 - z0:.1f}"
        x0, y0, x1, y1 = each.solid.box
        if x0 < -LENGTH or y0 < -LENGTH or x1 > body.width + LENGTH or y1 > body.height + LENGTH:
            yield f"{each.name}: beyond the leaf"
        if each.side.surface.is_face and abs(each.depth - (each.solid.depth[1] - each.solid.depth[0])) > LENGTH:
            yield f"{each.name}: listed {each.depth:.1f} deep, is {each.solid.depth[1] - each.solid.depth[0]:.1f}"


def fills(leaf: LeafDesign, body: Body) -> Iterator[str]:
    """Yield whether the pieces' faces leave a part of the leaf's outline open, or stand out beyond it."""
    outline = shapely.Polygon(leaf.fit.outline) if leaf.fit.outline else shapely.box(0, 0, body.width, body.height)
    faces = shapely.union_all([flat(each) for piece in body.pieces for each in piece.solids], grid_size=1e-6)
    beyond = shapely.difference(faces, outline.buffer(FILLS)).area
    if beyond > 1.0:
        yield f"pieces stand out beyond the outline: {beyond:.1f} mm²"
    gap = leaf.figures.get("board_gap")
    closed = faces.buffer((gap.value if gap is not None else 0.0) / 2 + FILLS, join_style="mitre")
    if leaf.leaf.build.kind == "light" and getattr(leaf.leaf.build, "fill", None) is None:
        return
    open_ = shapely.difference(outline, closed).area
    if open_ > 1.0:
        yield f"the outline is open: {open_:.1f} mm²"


__all__ = ["Solid", "broken", "flat", "laws", "random_leaf"]
