"""Layered from sheet: a core, stiles and rails on both of its faces, lippings on the long edges; or three full layers.

Arithmetic: thickness = core + 2·face; first stile in by the lipping's depth; rail = leaf − 2·lipping − 2·stile; a T's
tongue lies between the faces, so its core is shorter by it on each side. Sources: common practice of the trade.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from itertools import pairwise

from oakmeasure.core.base.prisms import Solid, block
from oakmeasure.core.construction.framed import checks as framed_checks
from oakmeasure.core.construction.framed.joints import HINGE_STILE, LATCH_STILE
from oakmeasure.core.construction.framed.layout import FrameLayout, frame_dims, lay_out
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.layered import checks
from oakmeasure.core.construction.layered.model import Layered, LayerStyle, Lipping, Pieced, PieceJoint
from oakmeasure.core.construction.layered.pins import PIN_SHORT_OF, pin_for, pin_places
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Dim, Fixing, GlueUp, Part, Rect, Size
from oakmeasure.core.leaf.part_factory import PartSpec, around
from oakmeasure.core.timber.choice import Timber, movement_of
from oakmeasure.core.timber.movement import Moving, edges_movement

CLAMP_EVERY = 200.0  # along a lipping, or with bearers over a face: common practice, no source


def first_stile(*, lipping: Lipping, depth: float) -> float:
    """Return how far the first stile stands in from the leaf's edge, mm: by the lipping's depth.

    Args:
        lipping: How the edge is lipped.
        depth: Depth of the lipping, mm.

    >>> first_stile(lipping=Lipping.T, depth=20)
    20
    """
    return 0.0 if lipping is Lipping.NONE else depth


def frame_of(choice: object) -> Framed:
    """Return a construction's members as a frame is set out: its widths, one or two rows, one muntin or none.

    Args:
        choice: What is chosen for the construction.
    """
    names = ("stile", "top_rail", "middle_rail", "bottom_rail", "muntin", "lock_height")
    return Framed.model_construct(**{name: getattr(choice, name, None) for name in names})


@dataclass(slots=True)
class _LayeredLeaf:
    ctx: Context
    fit: Fit
    wood: Timber
    choice: Layered
    inset: float
    stile: Figure
    shoulder: Figure
    layout: FrameLayout
    parts: list[Part] = field(default_factory=list)
    fixings: list[Fixing] = field(default_factory=list)

    def faces(self) -> tuple[tuple[str, tuple[float, float]], ...]:
        """Return the two faces: what a member's name ends in there, and its layer from and to."""
        t, face = self.choice.thickness, self.choice.face
        return ("", (0.0, face)), (", back", (t - face, t))


def build(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the layered leaf; what cannot be made is said by checks, and the rest is still set out.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        wood: Species, and moisture as made, at the driest and at the wettest.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Layered)
    leaf = _set_out(ctx, fit, wood, choice)
    _core(leaf)
    if choice.style is LayerStyle.FULL:
        _full_layers(leaf)
    else:
        _members(leaf)
        _trims(leaf)
    _lippings(leaf)
    depth = ctx.figures.get("lipping_depth")
    edges = None if depth is None else ctx.figures.total("solid_edges", "both lippings", plus(depth, 2))
    less = [minus(edges)] if edges is not None else []
    sheet = ctx.figures.total("sheet_across", "sheet across the leaf", plus(fit.width), *less)
    edges_movement(ctx, wood, edges, Moving(sheet, movement_of(ctx, wood, choice.sheet)))
    _pins(leaf)
    if choice.style is LayerStyle.FRAME:
        framed_checks.judge_room(ctx, frame_of(choice), fit, leaf.layout, leaf.shoulder)
    checks.judge(ctx, choice)
    parts = tuple(replace(each, mark=str(at)) for at, each in enumerate(leaf.parts, start=1))
    sights = tuple(Rect(column.x0, row.y0, column.x1, row.y1) for row in leaf.layout.rows for column in row.columns)
    summary = f"{ctx.show.length(choice.thickness, sign=False)} thick · 3 layers"
    lipped = "no lipping" if choice.lipping is Lipping.NONE else f"lipping {choice.lipping}"
    return Build(
        width=fit.width.value,
        height=fit.height.value,
        thickness=choice.thickness,
        parts=parts,
        sights=sights if choice.style is LayerStyle.FRAME else (),
        summary=summary,
        fixings=tuple(leaf.fixings),
        dims=_dims(leaf),
        says=f"{choice.style}; {lipped}",
        glue_ups=_glue_ups(leaf),
        layered=True,
    )


def _set_out(ctx: Context, fit: Fit, wood: Timber, choice: Layered) -> _LayeredLeaf:
    f = ctx.figures
    stile = ctx.chosen("stile", "stile", choice.stile, "build.stile")
    inset, terms = first_stile(lipping=choice.lipping, depth=choice.lipping_depth), []
    if inset:
        depth = ctx.chosen("lipping_depth", "lipping, in from the edge", choice.lipping_depth, "build.lipping_depth")
        f.total("first_stile", "first stile stands in from the edge", plus(depth))
        terms = [minus(depth, 2)]
    f.total("layer_width", "outer layer, width", plus(fit.width), *terms)
    shoulder = f.total("shoulder", "rail, between the stiles", plus(fit.width), *terms, minus(stile, 2))
    layout = lay_out(ctx, fit, frame_of(choice), shoulder, inset=inset)
    if "middle_rail_centre" in f:
        f.total(
            "rail_marked",
            "middle rail's centre, from the core's foot as it is glued up",
            plus(f["middle_rail_centre"]),
            plus(fit.trim_height),
        )
    return _LayeredLeaf(ctx, fit, wood, choice, inset, stile, shoulder, layout)


# --- layers ------------------------------------------------------------------------------------------------


def _sheet(leaf: _LayeredLeaf, spec: PartSpec, trims: tuple[float, float] = (0.0, 0.0)) -> Part:
    """Return a piece of sheet. trims: added to its length and its width until the leaf is trimmed."""
    length, width = spec.figures[0].value, spec.figures[1].value
    finished = Size(length, width, spec.depth[1] - spec.depth[0])
    planed = Size(length + trims[0], width + trims[1], finished.thickness)
    return replace(spec, sizes=(finished, planed), species=leaf.choice.sheet, bought=True).made(leaf.ctx)


def _ends(leaf: _LayeredLeaf) -> float:
    return leaf.fit.glued_height.value - leaf.fit.height.value


def _core(leaf: _LayeredLeaf) -> None:
    """The middle layer: the whole leaf less its lippings, and less both tongues of a T."""
    choice, fit, f = leaf.choice, leaf.fit, leaf.ctx.figures
    terms, inset = [plus(fit.width)], leaf.inset
    if leaf.inset:
        terms.append(minus(f["lipping_depth"], 2))
    if choice.lipping is Lipping.T:
        tongue = leaf.ctx.chosen("tongue", "tongue of the lipping", choice.tongue, "build.tongue")
        terms.append(minus(tongue, 2))
        inset += choice.tongue
    width = f.total("core_width", "core, width", *terms)
    face = Rect(inset, 0.0, fit.width.value - inset, fit.height.value)
    side = 0.0 if leaf.inset else 2 * fit.trim_side.value
    z = (choice.face, choice.face + choice.core)
    leaf.parts.append(
        _sheet(
            leaf,
            PartSpec(
                "core", Role.CORE, face, (fit.height, width), z, upright=True, note="held flat while the glue sets"
            ),
            (_ends(leaf), side),
        )
    )


def _full_layers(leaf: _LayeredLeaf) -> None:
    fit, f = leaf.fit, leaf.ctx.figures
    width = f["layer_width"]
    face = Rect(leaf.inset, 0.0, fit.width.value - leaf.inset, fit.height.value)
    side = 0.0 if leaf.inset else 2 * fit.trim_side.value
    for name, is_back, depth in (("front layer", False, leaf.faces()[0][1]), ("back layer", True, leaf.faces()[1][1])):
        leaf.parts.append(
            _sheet(
                leaf,
                PartSpec(name, Role.CORE, face, (fit.height, width), depth, upright=True, is_back=is_back),
                (_ends(leaf), side),
            )
        )


def _members(leaf: _LayeredLeaf) -> None:
    """Stiles the full height, rails between them, muntins between the rails; the same on both faces."""
    fit, w, s = leaf.fit, leaf.fit.width.value, leaf.stile.value
    side = 0.0 if leaf.inset else fit.trim_side.value
    for is_back, (_, depth) in zip((False, True), leaf.faces(), strict=True):
        for name, place, x0 in ((HINGE_STILE, Place.HINGE, leaf.inset), (LATCH_STILE, Place.LATCH, w - leaf.inset - s)):
            rect = Rect(x0, 0.0, x0 + s, fit.height.value)
            stile = PartSpec(name, Role.STILE, rect, (fit.height, leaf.stile), depth, place=place, is_back=is_back)
            _member(leaf, stile, (_ends(leaf), side))
        for rail in leaf.layout.rails:
            trim = fit.trim_height.value if rail.is_end else 0.0
            spec = PartSpec(rail.name, Role.RAIL, rail.rect, (leaf.shoulder, rail.width), depth, upright=False)
            _member(leaf, replace(spec, place=rail.place, is_back=is_back), (0.0, trim))
        for row in leaf.layout.rows:
            for at, (left, right) in enumerate(pairwise(row.columns), start=1):
                name = f"{row.name}muntin" if len(row.columns) == 2 else f"{row.name}muntin {at}"
                rect = Rect(left.x1, row.y0, right.x0, row.y1)
                figures = (row.sight, leaf.ctx.figures["muntin"])
                _member(leaf, PartSpec(name, Role.MUNTIN, rect, figures, depth, is_back=is_back), (0.0, 0.0))


def _is_pieced(choice: Layered, spec: PartSpec) -> bool:
    return (
        (choice.pieced is Pieced.BOTTOM_RAIL and spec.role is Role.RAIL and spec.place is Place.BOTTOM)
        or (choice.pieced is Pieced.RAILS and spec.role is Role.RAIL)
        or (choice.pieced is Pieced.STILES and spec.role is Role.STILE)
    )


def _member(leaf: _LayeredLeaf, spec: PartSpec, trims: tuple[float, float]) -> None:
    """Add a member of one face, or its two pieces; trims: as a sheet's."""
    name, rect, figures, ending = spec.name, spec.face, spec.figures, ", back" if spec.is_back else ""
    if not _is_pieced(leaf.choice, spec):
        leaf.parts.append(_sheet(leaf, replace(spec, name=name + ending), trims))
        return
    f = leaf.ctx.figures
    key = f"{name.replace(' ', '_')}_piece"
    over = [plus(f["face"], 0.5)] if leaf.choice.piece_joint is PieceJoint.SCARF else []
    length = f.get(figure_name(key)) or f.total(
        figure_name(key), f"{name}, each of its two pieces", plus(figures[0], 0.5), *over
    )
    middle = (rect.y0 + rect.y1) / 2 if spec.upright else (rect.x0 + rect.x1) / 2
    halves = (
        (Rect(rect.x0, rect.y0, rect.x1, middle), Rect(rect.x0, middle, rect.x1, rect.y1))
        if spec.upright
        else (Rect(rect.x0, rect.y0, middle, rect.y1), Rect(middle, rect.y0, rect.x1, rect.y1))
    )
    note = "one end bevelled 45° for the scarf" if over else "one end square for the butt"
    for at, half in enumerate(halves, start=1):
        piece = replace(spec, name=f"{name}{ending}, piece {at}", face=half, figures=(length, figures[1]), note=note)
        made = _sheet(leaf, piece, (trims[0] / 2, trims[1]))
        leaf.parts.append(replace(made, is_half=True))


def _trims(leaf: _LayeredLeaf) -> None:
    """Mouldings round every field on both faces, mitred: each as long as the sight that it lies along."""
    choice, ctx = leaf.choice, leaf.ctx
    if choice.trim is None:
        return
    wide = ctx.chosen("trim", "trim round the fields, width", choice.trim, "build.trim")
    t, total_thick = choice.trim_thickness, choice.thickness
    low = max(choice.face - t, 0.0)
    for ending, depth in (("", (low, choice.face)), (", back", (total_thick - choice.face, total_thick - low))):
        for row in leaf.layout.rows:
            for column in row.columns:
                r = Rect(column.x0, row.y0, column.x1, row.y1)
                w = min(wide.value, r.width / 2, r.height / 2)
                inner = Rect(r.x0 + w, r.y0 + w, r.x1 - w, r.y1 - w)
                for side, shape, upright in (
                    ("foot", ((r.x0, r.y0), (r.x1, r.y0), (inner.x1, inner.y0), (inner.x0, inner.y0)), False),
                    ("top", ((inner.x0, inner.y1), (inner.x1, inner.y1), (r.x1, r.y1), (r.x0, r.y1)), False),
                    ("hinge side", ((r.x0, r.y0), (inner.x0, inner.y0), (inner.x0, inner.y1), (r.x0, r.y1)), True),
                    ("latch side", ((inner.x1, inner.y0), (r.x1, r.y0), (r.x1, r.y1), (inner.x1, inner.y1)), True),
                ):
                    length = row.sight if upright else column.sight
                    size = Size(length.value, wide.value, t)
                    name = f"{row.name}{column.name}trim, {side}{ending}"
                    leaf.parts.append(
                        PartSpec(
                            name,
                            Role.TRIM,
                            around(shape),
                            (length, wide),
                            sizes=(size, size),
                            species=leaf.wood.frame.key,
                            upright=upright,
                            depth=depth,
                            shape=shape,
                            is_back=bool(ending),
                            note="both ends mitred 45°",
                        ).made(ctx)
                    )


def _lippings(leaf: _LayeredLeaf) -> None:
    """Solid wood on the long edges, as thick as all layers; a T has its tongue between the faces."""
    choice, fit, ctx = leaf.choice, leaf.fit, leaf.ctx
    if not leaf.inset:
        return
    depth = ctx.figures["lipping_depth"]
    terms = [plus(ctx.figures["tongue"])] if choice.lipping is Lipping.T else []
    width = ctx.figures.total("lipping_width", "lipping, sawn across", plus(depth), *terms)
    tongue = width.value - depth.value
    w, h, t = fit.width.value, fit.height.value, choice.thickness
    finished = Size(h, width.value, t)
    planed = Size(fit.glued_height.value, width.value + fit.trim_side.value, t)
    note = f"rebated both sides to a tongue of {ctx.fmt(choice.core)} × {ctx.fmt(tongue)}" if tongue else ""
    for name, place, x0, out0 in (
        ("hinge lipping", Place.HINGE, 0.0, 0.0),
        ("latch lipping", Place.LATCH, w - depth.value, w - width.value),
    ):
        face, outline = Rect(x0, 0.0, x0 + depth.value, h), Rect(out0, 0.0, out0 + width.value, h)
        leaf.parts.append(
            PartSpec(
                name,
                Role.LIPPING,
                face,
                (fit.height, width),
                sizes=(finished, planed),
                species=leaf.wood.frame.key,
                upright=True,
                depth=(0.0, t),
                outline=outline,
                tongues=_tongue(choice, face, outline),
                note=note,
                place=place,
            ).made(ctx)
        )


def _tongue(choice: Layered, face: Rect, outline: Rect) -> tuple[Solid, ...]:
    """Return the tongue of a T: what of its outline lies beyond its face, as thick as the core."""
    depth = (choice.face, choice.face + choice.core)
    x0, x1 = (face.x1, outline.x1) if outline.x1 > face.x1 else (outline.x0, face.x0)
    return (block(x0, face.y0, x1, face.y1, depth),) if x1 > x0 else ()


# --- what holds it while it sets ---------------------------------------------------------------------------


def _pins(leaf: _LayeredLeaf) -> None:
    """Pins along the middle of every member of the front face, shorter than the two layers that they hold."""
    choice, ctx = leaf.choice, leaf.ctx
    length = pin_for(choice.face + choice.core)
    if length is None:
        return
    every = ctx.chosen("pin_every", "pins, about every", choice.pin_every, "build.pin_every")
    ctx.figures.given(
        "pin_length",
        "pins, length",
        length,
        fixed(source=f"the longest that stays {ctx.fmt(PIN_SHORT_OF)} short of the two layers"),
    )
    _, back_z = leaf.faces()[1]
    front = [
        each
        for each in leaf.parts
        if each.role in (Role.STILE, Role.RAIL, Role.MUNTIN) and each.depth is not None and each.depth != back_z
    ] or [each for each in leaf.parts if each.role is Role.CORE and each.depth is not None and each.depth[0] <= 0]
    for member in front:
        for x, y in pin_places(member.face, every.value):
            leaf.fixings.append(Fixing(x, y, length, "pins", False, f"part:{member.name}", (0.0, length)))


def _glue_ups(leaf: _LayeredLeaf) -> tuple[GlueUp, ...]:
    """The layers under bearers, then both lippings with clamps across."""
    w, h = leaf.fit.width.value, leaf.fit.glued_height.value
    rows = max(2, round(h / (2 * CLAMP_EVERY)) + 1)
    found = [GlueUp("the layers, under bearers", h, leaf.choice.thickness + 120, 2 * rows)]
    if leaf.inset:
        found.append(GlueUp("both lippings", h, w, max(2, round(h / (1.5 * CLAMP_EVERY)) + 1)))
    return tuple(found)


def _dims(leaf: _LayeredLeaf) -> tuple[Dim, ...]:
    if leaf.choice.style is LayerStyle.FULL:
        return ()
    return frame_dims(leaf.layout, leaf.fit.width.value, leaf.stile.value, leaf.inset)
