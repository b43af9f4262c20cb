"""Templates at full size: what is let in, bored or shaped, drawn on the wood that it is laid on, for both hands.

Each template has a frame of its own, mm, as one looks straight at the surface: of a leaf with its hinges left as seen
from the opening side. `Template.of` gives the other hand. A reference is the edge that the paper is laid against;
everything else is measured from it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.roles import Role
from oakmeasure.core.hardware.boring import Boring, CutIn, CutSide, Device, Surface
from oakmeasure.core.paper.outlines import big_ones, brace_ends, cut_from, edges_of, joined
from oakmeasure.core.paper.router_layout import FaceUp, Flat, FlatLayer, outline_of
from oakmeasure.core.paper.template import Reference, Template
from oakmeasure.core.solution import LeafSolution

# Mm of wood shown about what is cut; along an edge
AROUND = 22.0
ALONG = 12.0
NEAR_END = 120.0  # mm; a hanger that lies nearer to the head is laid against that too
PLATE_HOLE = 5.0  # mm, of the two holes of a cup hinge's plate


def templates(leaf: LeafSolution, show: Show) -> tuple[Template, ...]:
    """Return every template of a leaf, as for hinges on the left; () where there is no leaf.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    if leaf.build is None:
        return ()
    found: list[Template] = []
    for group in _grouped(leaf.borings):
        made = _of_group(leaf, show, group)
        if made is not None:
            found.append(made)
    return (*joined(found), *brace_ends(leaf, show), *big_ones(leaf))


def needs_template(leaf: LeafSolution) -> bool:
    """Return whether a leaf has any, without drawing them.

    Args:
        leaf: The leaf, worked out to the end.
    """
    if leaf.build is None:
        return False
    if any(_surface(each) for each in leaf.borings) or any(part.role is Role.BRACE for part in leaf.build.parts):
        return True
    return bool(leaf.fit.outline) or (any(part.shape for part in leaf.build.parts) and bool(big_ones(leaf)))


def kinds_of(found: Iterable[Template]) -> tuple[str, ...]:
    """Return the kinds among templates, each once, in their order.

    Args:
        found: Those that there are.
    """
    return tuple(dict.fromkeys(each.kind for each in found))


# --- what belongs together -----------------------------------------------------------------------------------


def device_of(boring: Boring) -> str:
    """Return what a cut is for: "cup 1" for its screws too, "lock" for its keyhole.

    Args:
        boring: The cut.
    """
    if boring.kind.device is Device.BOLT:
        return boring.name
    return f"{boring.kind.device} {boring.number}" if boring.number else str(boring.kind.device)


def _surface(boring: Boring) -> str:
    """Return which surface it is cut into, or what carries it.

    "" for what needs no template: it runs all along, or is bored where a bolt shoots.
    """
    if boring.kind.is_groove or boring.kind.is_bolt_hole:
        return ""
    return boring.member if boring.solid is None else str(boring.side.surface)


def _grouped(borings: Sequence[Boring]) -> list[list[Boring]]:
    groups: dict[tuple[str, str, bool], list[Boring]] = {}
    for each in borings:
        surface = _surface(each)
        if surface:
            groups.setdefault((device_of(each), surface, each.is_slow), []).append(each)
    return list(groups.values())


def _of_group(leaf: LeafSolution, show: Show, group: list[Boring]) -> Template | None:
    first = group[0]
    device, kind, surface = device_of(first), first.kind.device, first.side.surface
    if first.solid is None:
        made = _in_carrier(leaf, kind, first)
    elif surface.is_face:
        made = _in_face(leaf, kind, FaceUp.OPENING if surface is Surface.OPENING_FACE else FaceUp.CLOSING, group)
    elif surface.is_end:
        made = _in_end(leaf, kind, surface, group)
    else:
        made = _in_edge(leaf, kind, surface, group)
    middle = first.from_top + first.along / 2
    where = f"{show.length(middle)} {first.datum}"
    if surface.is_end and first.solid is not None:
        x0, _, x1, _ = first.solid.box
        width = leaf.build.width if leaf.build is not None else 0.0
        at_latch = x0 + x1 > width
        where = f"{show.length(width - x1 if at_latch else x0)} from the {'latch' if at_latch else 'hinge'} edge"
    notes = ("Bored from both faces: the paper of the other hand serves the other face.",)
    return replace(
        made,
        places=((device, where),),
        is_slow=first.is_slow,
        notes=notes if first.side is CutSide.BOTH_FACES_AT_LATCH else (),
    )


# --- on a face -----------------------------------------------------------------------------------------------


def _in_face(leaf: LeafSolution, kind: Device, face: FaceUp, group: list[Boring]) -> Template:
    """Cuts from a face, with the edge that they are measured from, and head or foot where those are near."""
    build = leaf.build
    assert build is not None
    solids = [each.solid for each in group if each.solid is not None]
    x0, y0, x1, y1 = _around(solids)
    from_latch = any(each.side.is_measured_from_latch for each in group)
    x0, x1 = (x0, build.width) if from_latch else (0.0, x1)
    sx0, sy0, sx1, sy1 = solids[0].box
    # Hangers are laid against the head too; a cup's or a lock's height is its own, and one paper serves all of them.
    at_end = kind is Device.HANGER and y1 > build.height - NEAR_END
    y1 = build.height if at_end else y1
    origin = (build.width if from_latch else 0.0, build.height if at_end else (sy0 + sy1) / 2)
    side = -1.0 if face is FaceUp.CLOSING else 1.0

    def place(point: Point) -> Point:
        return (side * (point[0] - origin[0]), point[1] - origin[1])

    wood = cut_from(outline_of(leaf), (x0, y0, x1, y1))
    references = edges_of(wood, outline_of(leaf), build.width, build.height)
    cuts = []
    assert leaf.body is not None
    bare = leaf.body.bare
    for each in group:
        solid = each.solid
        if solid is None:
            continue
        deep, (bx0, by0, bx1, by1) = solid.depth[1] - solid.depth[0], solid.box
        faces = bare.span_at((bx0 + bx1) / 2, (by0 + by1) / 2) or bare.over_all
        through = deep >= faces[1] - faces[0] - 1e-6
        round_hole = len(solid.points) == 1
        layer = FlatLayer.THROUGH if through else FlatLayer.BORE if round_hole else FlatLayer.POCKET
        cuts.append(
            Flat(
                layer,
                tuple(place(p) for p in solid.points),
                each.name,
                solid.radius if round_hole else 0.0,
                0.0 if through else deep,
            )
        )
    middle = ((sx0 + sx1) / 2, (sy0 + sy1) / 2)
    lines = ((place((x0, middle[1])), place((x1, middle[1]))),)
    return Template(
        kind,
        (),
        f"{face} face of the leaf",
        tuple(place(p) for p in wood),
        tuple(replace(r, start=place(r.start), end=place(r.end)) for r in references),
        tuple(cuts),
        lines,
        lay=_lay(references),
    )


def _lay(references: Iterable[Reference]) -> str:
    names = list(dict.fromkeys(each.name for each in references if each.name != "edge"))
    return f"Lay the thick line on the {' and the '.join(names)}." if names else ""


def _around(solids: Sequence[Solid], more: float = AROUND) -> tuple[float, float, float, float]:
    boxes = [each.box for each in solids]
    return (
        min(b[0] for b in boxes) - more,
        min(b[1] for b in boxes) - more,
        max(b[2] for b in boxes) + more,
        max(b[3] for b in boxes) + more,
    )


# --- on an edge or an end ------------------------------------------------------------------------------------


def _in_edge(leaf: LeafSolution, kind: Device, edge: Surface, group: list[Boring]) -> Template:
    """Cuts into a long edge, seen straight on, head up: x from the opening face.

    Of hinges on the left the opening face is at the right of the hinge edge and at the left of the latch edge.
    """
    assert leaf.build is not None
    thick = leaf.build.thickness
    solids = [each.solid for each in group if each.solid is not None]
    _, y0, _, y1 = solids[0].box
    middle = (y0 + y1) / 2
    side = -1.0 if edge == "hinge edge" else 1.0
    _, low, _, high = _around(solids, ALONG)
    low, high = max(low, 0.0) - middle, min(high, leaf.build.height) - middle

    def place(depth: float, y: float) -> Point:
        return (side * depth, y - middle)

    cuts = [
        _end_on(each.name, each.solid, place, lambda p: p[1], across=edge) for each in group if each.solid is not None
    ]
    wood = ((0.0, low), (side * thick, low), (side * thick, high), (0.0, high))
    faces = (
        Reference((0.0, low), (0.0, high), "opening face"),
        Reference((side * thick, low), (side * thick, high), "closing face", is_datum=False),
    )
    surface = f"{edge} of the {'slow ' if group[0].is_slow else ''}leaf"
    line = ((0.0, 0.0), (side * thick, 0.0))
    return Template(
        kind, (), surface, wood, faces, tuple(cuts), (line,), lay="Lay the thick line on the arris of the opening face."
    )


def _in_end(leaf: LeafSolution, kind: Device, end: Surface, group: list[Boring]) -> Template:
    """Cuts into head or foot, seen straight on with the opening face towards one: y from the opening face."""
    build = leaf.build
    assert build is not None
    solids = [each.solid for each in group if each.solid is not None]
    x0, _, x1, _ = _around(solids)
    from_latch = (x0 + x1) / 2 > build.width / 2
    x0, x1 = (x0, build.width) if from_latch else (0.0, x1)
    origin = build.width if from_latch else 0.0
    side = 1.0 if end == "head" else -1.0  # the foot is seen with the leaf stood on its head: hinges to the right

    def place(depth: float, x: float) -> Point:
        return (side * (x - origin), depth)

    cuts = [
        _end_on(each.name, each.solid, place, lambda p: p[0], across=end) for each in group if each.solid is not None
    ]
    ends = place(0.0, x0), place(0.0, x1)
    wood = (*ends, place(build.thickness, x1), place(build.thickness, x0))
    at_edge = place(0.0, origin), place(build.thickness, origin)
    name = "latch edge" if from_latch else "hinge edge"
    references = (
        Reference(*ends, "opening face"),
        Reference(*at_edge, name),
        Reference(wood[2], wood[3], "closing face", is_datum=False),
    )
    sx0, _, sx1, _ = solids[0].box
    line = place(0.0, (sx0 + sx1) / 2), place(build.thickness, (sx0 + sx1) / 2)
    return Template(kind, (), f"{end} of the leaf", wood, references, tuple(cuts), (line,), lay=_lay(references[:2]))


def _end_on(
    name: str, solid: Solid, place: Callable[[float, float], Point], along: Callable[[Point], float], *, across: str
) -> Flat:
    """Return a cut as it is seen from the end or edge that it goes into; its depth is how far it goes in there."""
    x0, y0, x1, y1 = solid.box
    deep = y1 - y0 if across in ("head", "foot") else x1 - x0
    d0, d1 = solid.depth
    if len(solid.points) == 2:
        return Flat(FlatLayer.BORE, (place((d0 + d1) / 2, along(solid.points[0])),), name, solid.radius, deep)
    low, high = (x0, x1) if across in ("head", "foot") else (y0, y1)
    corners = (place(d0, low), place(d1, low), place(d1, high), place(d0, high))
    return Flat(FlatLayer.POCKET, corners, name, 0.0, deep)


# --- in what carries the leaf --------------------------------------------------------------------------------


def _in_carrier(leaf: LeafSolution, kind: Device, boring: Boring) -> Template:
    """A plate, a keep or a butt in lining or cabinet, seen from inside the opening.

    X from the front edge, which is level with the leaf's opening face. Of hinges on the left it lies at the left of
    the hinge side, at the right of the latch side.
    """
    assert leaf.build is not None
    half, thick = boring.along / 2, leaf.build.thickness
    at_latch = boring.cut_in is CutIn.LATCH_SIDE
    side = -1.0 if at_latch else 1.0
    if kind is Device.PLATE:
        deep, names = boring.across + AROUND, "front edge"
        cuts = tuple(
            Flat(FlatLayer.BORE, ((side * boring.across, y),), f"{boring.name} hole {n}", PLATE_HOLE / 2, boring.depth)
            for n, y in ((1, half), (2, -half))
        )
    else:
        deep, names = thick, "front edge, the opening face of the shut leaf"
        # What is let in for a lock or a latch faces the middle of the leaf's edge, a butt's plate its opening face.
        start = 0.0 if kind is Device.BUTT else (thick - boring.across) / 2
        if boring.along:
            corners = ((start, -half), (start + boring.across, -half), (start + boring.across, half), (start, half))
            cuts = (Flat(FlatLayer.POCKET, tuple((side * x, y) for x, y in corners), boring.name, 0.0, boring.depth),)
        else:
            at = (side * (start + boring.across / 2), 0.0)
            cuts = (Flat(FlatLayer.BORE, (at,), boring.name, boring.across / 2, boring.depth),)
    low, high = -half - ALONG, half + ALONG
    wood = ((0.0, low), (side * deep, low), (side * deep, high), (0.0, high))
    references = [Reference((0.0, low), (0.0, high), names)]
    if kind is not Device.PLATE:
        references.append(Reference(wood[1], wood[2], "closing face of the shut leaf", is_datum=False))
    return Template(
        kind,
        (),
        f"{boring.member}, {boring.edge}",
        wood,
        tuple(references),
        cuts,
        (((0.0, 0.0), (side * deep, 0.0)),),
        lay="Lay the thick line on the front edge.",
    )


def hands(leaf: LeafSolution, template: Template) -> tuple[tuple[Hand, bool], ...]:
    """Return both hands, this leaf's own first, each with whether it is the leaf's own.

    Args:
        leaf: The leaf, worked out to the end.
        template: The template.
    """
    own = leaf.leaf.hand
    if template.is_slow:
        own = Hand.LEFT if own is Hand.RIGHT else Hand.RIGHT
    other = next(each for each in Hand if each is not own)
    return (own, True), (other, False)


def templates_asked_for(found: Iterable[Template], only: Sequence[str]) -> tuple[Template, ...]:
    """Return the templates of the kinds named, all where none is; ValueError for a kind that is not among them.

    Args:
        found: Those that there are.
        only: Kinds that are wanted; empty for all.
    """
    found = tuple(found)
    kinds = kinds_of(found)
    unknown = next((each for each in only if each not in kinds), None)
    if unknown is not None:
        raise ValueError(f"no template “{unknown}” for this leaf; there is: {', '.join(kinds) or 'none'}")
    return tuple(each for each in found if not only or each.kind in only)
