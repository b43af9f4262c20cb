"""A leaf cut open: what of every piece a plane meets, its grooves, tenons and tongues as they are."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence

from oakmeasure.core.base.geometry import Point, signed_area
from oakmeasure.core.base.prisms import Span
from oakmeasure.core.base.rectilinear import Box, rings_of
from oakmeasure.core.body.pieces import Body, Piece
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import SheetMaterial, Species, stuff
from oakmeasure.core.drawings.drawing import Grain, Layer, Sketch
from oakmeasure.core.drawings.refs import part_ref
from oakmeasure.core.leaf.part import Build

PLIES = 4  # of a sheet, that are drawn
SECTION_SHARE = 0.3  # of the width, at which a leaf without panels is cut
PLAN_SHARE = 0.6  # of the height, where it has no ledge
Place = Callable[[float, float], Point]


def cut_across(build: Build) -> float:
    """Return where a leaf is cut upright, from the hinge edge: through the panels next to the hinges, mm.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    panels = sorted((part.face.x0, part.face.y0, part.face.x1) for part in build.parts if part.role is Role.PANEL)
    return (panels[0][0] + panels[0][2]) / 2 if panels else SECTION_SHARE * build.width


def cut_up(build: Build) -> float:
    """Return where a leaf is cut level, up from its foot: through its upper panels, a ledge or a stiffener, mm.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    panels = [part.face for part in build.parts if part.role is Role.PANEL]
    if panels:
        highest = max(panels, key=lambda face: face.y0)
        return highest.y0 + 0.5 * highest.height
    level = [part.face for part in build.parts if part.role in (Role.LEDGE, Role.STIFFENER)]
    return level[-1].y0 + 0.5 * level[-1].height if level else PLAN_SHARE * build.height


def draw_cut(sketch: Sketch, body: Body, at: float, place: Place, *, upright: bool, within: Span | None = None) -> None:
    """Draw what a plane meets of a leaf.

    Args:
        sketch: The drawing that is added to.
        body: The leaf's pieces in place.
        at: Where it is cut, across or up, mm.
        place: From the place along the cut and the depth in from the opening face, mm, to the place on the sheet.
        upright: Whether it is cut upright, else level.
        within: From where to where along the cut it is drawn, mm; None: all of it.
    """
    met: dict[str, tuple[Piece, list[Box]]] = {}
    for piece, rect in body.section(at, upright=upright):
        low, high = (rect.x0, rect.x1) if within is None else (max(rect.x0, within[0]), min(rect.x1, within[1]))
        if low < high:
            met.setdefault(piece.name, (piece, []))[1].append((low, rect.y0, high, rect.y1))
    rings = [(piece, boxes, rings_of(boxes)) for piece, boxes in met.values()]
    rings.sort(key=lambda each: not any(signed_area(ring) < 0 for ring in each[2]))  # what is in a hole goes over it
    for piece, boxes, around in rings:
        for ring in around:
            outline = [place(*point) for point in ring]
            if signed_area(ring) < 0:
                sketch.area(outline, Layer.SPACE)
            else:
                _draw_wood(sketch, piece, outline, upright=upright)
        if not _is_thin(piece) and isinstance(_stuff(piece), SheetMaterial):
            _plies(sketch, piece, boxes, place)


def _draw_wood(sketch: Sketch, piece: Piece, outline: Sequence[Point], *, upright: bool) -> None:
    ref, made_of = part_ref(piece.name), _stuff(piece)
    if piece.material == "steel":
        sketch.area(outline, Layer.METAL, ref=ref)
    elif _is_thin(piece):
        sketch.area(outline, Layer.ROD, ref=ref)
        sketch.line([*outline, outline[0]], Layer.FAINT, ref=ref)
    elif isinstance(made_of, SheetMaterial) or piece.role is Role.PANEL:
        sketch.area(outline, Layer.PANEL, ref=ref, tint=made_of.tint)
    else:
        along = _is_upright(piece) is upright
        layer = Layer.WOOD if along else Layer.END_GRAIN
        grain = (Grain.UPRIGHT if upright else Grain.LEVEL) if along else Grain.END
        sketch.area(outline, layer, ref=ref, grain=grain, tint=made_of.tint)


def _stuff(piece: Piece) -> Species | SheetMaterial:
    return stuff(piece.material)


def _is_thin(piece: Piece) -> bool:
    """Return whether it is too thin for two outlines."""
    return piece.role is Role.VENEER


def _is_upright(piece: Piece) -> bool:
    """Return whether its grain runs up the leaf; a loose tenon or a dowel goes across its joint, as it is long."""
    if piece.part is not None:
        return piece.part.grain_upright
    x0, y0, _, x1, y1, _ = piece.box
    return y1 - y0 > x1 - x0


def _plies(sketch: Sketch, piece: Piece, boxes: Iterable[Box], place: Place) -> None:
    """Lines along a sheet that is cut: its plies."""
    low, high = piece.box[2], piece.box[5]
    for number in range(1, PLIES):
        depth = low + (high - low) * number / PLIES
        for x0, z0, x1, z1 in boxes:
            if z0 < depth < z1:
                sketch.line([place(x0, depth), place(x1, depth)], Layer.FAINT)
