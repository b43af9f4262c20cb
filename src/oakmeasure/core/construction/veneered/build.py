"""Veneered and built up: a core, solid edging, veneers sawn in the shop on both faces; flush, or member by member.

Arithmetic: raw = finished + sanding + wander; n·raw + (n − 1)·kerf ≤ thickness of the board; core = leaf − both
veneers; the edging is as wide as its moulding is deep and what must stay behind it, and is sawn wider by the sapwood.
Sources: common practice of the trade; bow of unlike faces: theory of laminated strips (Timoshenko 1925 for two).
"""

from __future__ import annotations

import math
from dataclasses import replace

from oakmeasure.core.base.geometry import Point, clipped
from oakmeasure.core.base.units import HAIR, Unit
from oakmeasure.core.construction.framed import build as framed_build
from oakmeasure.core.construction.veneered import checks
from oakmeasure.core.construction.veneered.faces import BOUGHT, lay_faces, say_bow, say_yield
from oakmeasure.core.construction.veneered.model import BackFace, Veneered, VeneerForm
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure, Term, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Dim, GlueUp, Part, Rect, Size
from oakmeasure.core.leaf.part_factory import PartSpec, around
from oakmeasure.core.timber.choice import Timber, movement_of
from oakmeasure.core.timber.movement import Moving, edges_movement

PLAIN_EDGING = 8.0  # without a moulding: common practice, no source


def build(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the leaf before it is cut to its outline; `after` makes layers of what is built up member by member.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        wood: Species, and moisture as made, at the driest and at the wettest.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Veneered)
    front, back = _thicknesses(ctx, choice)
    edging = _edging(ctx, choice)
    if choice.form is VeneerForm.FRAMED:
        return _framed(ctx, fit, wood, choice, (front, back))
    f = ctx.figures
    core_width = f.total("core_width", "core, width", plus(fit.width), minus(edging, 2))
    core_height = f.total("core_height", "core, height", plus(fit.height), minus(edging, 2))
    e = edging.value
    w, h = fit.width.value, fit.height.value
    t, z0, z1 = choice.thickness, front.value, choice.thickness - back.value
    parts = [
        PartSpec(
            "core",
            Role.CORE,
            Rect(e, e, w - e, h - e),
            (core_height, core_width),
            sizes=(Size(core_height.value, core_width.value, z1 - z0),) * 2,
            species=choice.core,
            upright=True,
            depth=(z0, z1),
            bought=True,
        ).made(ctx)
    ]
    parts += _edges(ctx, choice, fit, wood, (0.0, t) if not choice.edging_first else (z0, z1), edging)
    parts += lay_faces(ctx, choice, fit, wood, (front, back), edging)
    _moves(ctx, choice, wood, ctx.figures.total("solid_edges", "both edgings", plus(edging, 2)), fit.width)
    say_yield(ctx, choice, fit)
    say_bow(ctx, choice, wood, front, back, fit.width)
    checks.judge(ctx, choice)
    numbered = tuple(
        replace(each, mark=str(at))
        for at, each in enumerate(parts, start=1)
        if min(each.finished.length, each.finished.width) > 0
    )
    dims = (
        Dim(0.0, e, "edging", "part:hinge edging", False),
        Dim(e, w - e, "core_width", "part:core", False),
        Dim(0.0, e, "edging", "part:foot edging", True),
        Dim(e, h - e, "core_height", "part:core", True),
    )
    glue = _glue_ups(w, h, t)
    words = "edged before the veneer" if choice.edging_first else "edged after the veneer"
    summary = f"{ctx.show.length(t, sign=False)} thick · veneered"
    return Build(
        width=w,
        height=h,
        thickness=t,
        parts=numbered,
        summary=summary,
        dims=dims,
        says=f"{choice.form}; {words}",
        glue_ups=glue,
        layered=True,
    )


def _glue_ups(w: float, h: float, t: float) -> tuple[GlueUp, ...]:
    """Return what is glued up of a flush leaf."""
    rows = max(2, round(h / 400) + 1)
    return (
        GlueUp("edging on the core", h, w, max(2, round(h / 300) + 1)),
        GlueUp("both veneers, under bearers or in a bag", h, t + 120, 2 * rows),
    )


def _framed(ctx: Context, fit: Fit, wood: Timber, choice: Veneered, veneers: tuple[Figure, Figure]) -> Build:
    """Return the leaf set out as a frame; its core moves as its sheet does, its edgings as their wood."""
    core, edging = movement_of(ctx, wood, choice.core), ctx.figures["edging"]

    def moves(stile: Figure) -> None:
        edges = ctx.figures.total("solid_edges", "edgings of both stiles", plus(edging, 4))
        _moves(ctx, choice, wood, edges, ctx.figures.total("both_stiles", "both stiles", plus(stile, 2)))

    built = framed_build.build(ctx, fit, replace(wood, coefficient=core, panel_coefficient=core), moves)
    say_yield(ctx, choice, fit)
    say_bow(ctx, choice, wood, *veneers, ctx.figures["stile"])
    checks.judge(ctx, choice)
    words = "edged before the veneer" if choice.edging_first else "edged after it"
    return replace(built, says=f"{choice.form}; {words}; {built.says}", layered=True)


def _moves(ctx: Context, choice: Veneered, wood: Timber, edges: Figure, across: Figure) -> None:
    """Say how much it moves: its edgings as wood, its core as a sheet; across: both together."""
    sheet = ctx.figures.total("sheet_across", "core across the leaf", plus(across), minus(edges))
    edges_movement(ctx, wood, edges, Moving(sheet, movement_of(ctx, wood, choice.core)))


def _thicknesses(ctx: Context, choice: Veneered) -> tuple[Figure, Figure]:
    """Add the veneers' thicknesses on both faces and the core's between them."""
    f = ctx.figures
    front = ctx.chosen("veneer", "veneer, finished", choice.veneer, "build.veneer")
    on_back = {BackFace.SAME: front.value, BackFace.THIN: BOUGHT, BackFace.BARE: 0.0}[choice.back]
    back = f.given("veneer_back", "veneer on the back", on_back, fixed(source=str(choice.back)))
    f.total("core", "core, thickness", plus(ctx.figures["thickness"]), minus(front), minus(back))
    return front, back


def _edging(ctx: Context, choice: Veneered) -> Figure:
    """Add the width of the edging: by hand, or its moulding and what stays behind it; and what it is sawn to."""
    f = ctx.figures
    moulding = f.given("moulding", "edge moulding, deep", choice.moulding, fixed("build.moulding"))
    if choice.edging is not None:
        edging = ctx.chosen("edging", "edging, width", choice.edging, "build.edging")
    elif choice.moulding:
        stays = f.given(
            "behind_moulding",
            "edging that stays behind the moulding",
            checks.BEHIND_MOULDING,
            fixed(source="common practice"),
        )
        edging = f.total("edging", "edging, width", plus(moulding), plus(stays))
    else:
        edging = f.given("edging", "edging, width", PLAIN_EDGING, fixed("build.edging", source="common practice"))
    sapwood = f.given("sapwood", "sapwood on the edging's board", choice.sapwood, fixed("build.sapwood"))
    f.total("edging_sawn", "edging, ripped from the board at", plus(edging), plus(sapwood))
    return edging


def _edges(
    ctx: Context, choice: Veneered, fit: Fit, wood: Timber, depth: tuple[float, float], edging: Figure
) -> list[Part]:
    """Return the solid edging: both long edges the full height, foot and top between them."""
    w, h, e = fit.width.value, fit.height.value, edging.value
    thick = depth[1] - depth[0]
    sawn = ctx.figures["edging_sawn"]
    note = f"sapwood of {ctx.fmt(choice.sapwood)} ripped off" if choice.sapwood else ""
    made = []
    for name, rect, upright in (
        ("hinge edging", Rect(0.0, 0.0, e, h), True),
        ("latch edging", Rect(w - e, 0.0, w, h), True),
        ("foot edging", Rect(e, 0.0, w - e, e), False),
        ("top edging", Rect(e, h - e, w - e, h), False),
    ):
        length = fit.height if upright else ctx.figures["core_width"]
        ends = fit.glued_height.value - fit.height.value if upright else 0.0
        trim = fit.trim_side.value if upright else fit.trim_height.value
        finished = Size(length.value, e, thick)
        planed = Size(length.value + ends, sawn.value + trim, thick)
        made.append(
            PartSpec(
                name,
                Role.LIPPING,
                rect,
                (length, edging),
                sizes=(finished, planed),
                species=wood.frame.key,
                upright=upright,
                depth=depth,
                note=note,
            ).made(ctx)
        )
    return made


# --- member by member --------------------------------------------------------------------------------------


def after(ctx: Context, fit: Fit, wood: Timber, built: Build) -> Build:
    """Return a framed one with each member as core, edging and veneers; its names stay, the core carries them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        wood: Species, and moisture as made, at the driest and at the wettest.
        built: The leaf as a frame of solid members.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Veneered)
    if choice.form is not VeneerForm.FRAMED:
        return built
    front, back, edging = ctx.figures["veneer"], ctx.figures["veneer_back"], ctx.figures["edging"]
    made: list[Part] = []
    for each in built.parts:
        made += _layers(ctx, choice, wood, built, each, (front, back, edging))
    count = sum(each.role is Role.VENEER for each in made)
    needed = ctx.figures.derived(
        "veneers_needed", "veneers, together", count, front, formula="one for each face of each member", unit=Unit.COUNT
    )
    got = ctx.figures["veneers_each"]
    ctx.figures.derived(
        "veneer_sets",
        "boards' thicknesses to resaw",
        math.ceil(count / got.value) if got.value else 0,
        needed,
        got,
        formula="veneers ÷ veneers from one board",
        unit=Unit.COUNT,
    )
    parts = tuple(replace(each, mark=str(at)) for at, each in enumerate(made, start=1))
    return replace(built, parts=parts)


def _layers(
    ctx: Context, choice: Veneered, wood: Timber, built: Build, member: Part, layers: tuple[Figure, Figure, Figure]
) -> list[Part]:
    """Return a member as its core, under its own name, its two edgings and its two veneers."""
    front, back, edging = layers
    if member.species == "glass":
        return [member]
    z0, z1 = built.depth_of(member)
    edged = member.role in (Role.STILE, Role.RAIL, Role.MUNTIN)
    e = min(edging.value, member.finished.width / 4) if edged else 0.0
    thick = max(member.finished.thickness - front.value - back.value, 1.0)
    width = member.width
    terms: list[Term] = [plus(member.width), minus(edging, 2)]
    if edged and e == edging.value:
        key = f"{member.slug}_core_width"
        width = ctx.figures.total(figure_name(key), f"{member.name}, core, width", *terms)
    finished = Size(member.finished.length, member.finished.width - 2 * e, thick)
    inner, shape = _inner(member, e)
    if shape and member.grain_upright:  # cut to a head: between its edgings it is not as long
        finished = replace(finished, length=inner.height + member.finished.length - member.face.height)
    core = replace(
        member,
        face=inner,
        shape=shape,
        species=choice.core,
        finished=finished,
        planed=replace(finished, length=member.planed.length),
        rough=replace(finished, length=member.planed.length),
        width=width,
        depth=(z0 + front.value, z1 - back.value),
        note="; ".join(x for x in (member.note, "core, edged and veneered" if edged else "core, veneered") if x),
    )
    made, seen = [core], _seen_figure(ctx, member)
    if edged:
        made += _edgings(ctx, wood, core, (member, seen), (edging, e))
    for ending, depth in (("", (z0, z0 + front.value)), (", back", (z1 - back.value, z1))):
        layer = depth[1] - depth[0]
        if layer <= 0:
            continue
        size = Size(_seen(member), member.finished.width, layer)
        more = member.planed.length - member.finished.length
        glued = Size(size.length + more, member.planed.width, layer)
        made.append(
            PartSpec(
                f"{member.name}, veneer{ending}",
                Role.VENEER,
                member.face,
                (seen, member.width),
                sizes=(size, glued),
                species=wood.panel.key,
                upright=member.grain_upright,
                depth=depth,
                shape=member.shape,
                at_hand=True,
                outline=member.outline,
                hold=member.hold,
                place=member.place,
                is_back=bool(ending),
            ).made(ctx)
        )
    return [core, *(replace(each, is_raked=member.is_raked, layer_of=core.name) for each in made[1:])]


def _edgings(
    ctx: Context, wood: Timber, core: Part, on: tuple[Part, Figure], edging: tuple[Figure, float]
) -> list[Part]:
    """Return both edgings of a member; on: it and its length that shows; edging: as chosen, and how thick it is."""
    (member, length), thick, e = on, core.finished.thickness, edging[1]
    made, f = [], member.face
    size = Size(_seen(member), e, thick)
    trim = member.planed.width - member.finished.width  # on the edging that is trimmed once it is glued up
    outer = 1 if member.place in (Place.HINGE, Place.BOTTOM) else 2
    inner = max(f.y1 - e, f.y0), max(f.x1 - e, f.x0)
    rects = (
        (Rect(f.x0, f.y0, f.x0 + e, f.y1), Rect(inner[1], f.y0, f.x1, f.y1))
        if core.grain_upright
        else (Rect(f.x0, f.y0, f.x1, f.y0 + e), Rect(f.x0, inner[0], f.x1, f.y1))
    )
    shapes: tuple[tuple[Point, ...], ...] = ((), ())
    if member.shape and core.grain_upright:
        low, high = (clipped(_corners(each), member.shape) for each in rects)
        shapes = low, high
    elif member.shape:
        lower, upper = _edges_of(member.shape)
        up = _upright(member, e)
        under = (*lower, *((x, y + up) for x, y in reversed(lower)))
        shapes = under, (*((x, y - up) for x, y in reversed(upper)), *upper)
    for at, (rect, shape) in enumerate(zip(rects, shapes, strict=True), start=1):
        made.append(
            PartSpec(
                f"{core.name}, edging {at}",
                Role.LIPPING,
                around(shape) if shape else rect,
                (length, edging[0]),
                sizes=(size, Size(core.planed.length, ctx.figures["edging_sawn"].value + trim * (at == outer), thick)),
                species=wood.frame.key,
                upright=core.grain_upright,
                depth=core.depth or (0.0, thick),
                shape=shape,
                note="bent, or sawn to the curve" if shape and not member.is_raked else "",
            ).made(ctx)
        )
    return made


def _corners(rect: Rect) -> tuple[Point, ...]:
    return (rect.x0, rect.y0), (rect.x1, rect.y0), (rect.x1, rect.y1), (rect.x0, rect.y1)


def _edges_of(shape: tuple[Point, ...]) -> tuple[tuple[Point, ...], tuple[Point, ...]]:
    """Return the lower edge of a rail that is arched or raked, left to right, and its upper one, right to left."""
    left = min(range(len(shape)), key=lambda at: (round(shape[at][0], 6), shape[at][1]))
    shape = (*shape[left:], *shape[:left])
    right = max(range(len(shape)), key=lambda at: (round(shape[at][0], 6), -shape[at][1]))
    return shape[: right + 1], shape[right + 1 :]


def _upright(member: Part, thick: float) -> float:
    """Return how high a strip of a thickness stands on a raked rail, plumb, mm."""
    if not member.is_raked:
        return thick
    (ax, ay), *_, (bx, by) = _edges_of(member.shape)[0]
    return thick * math.hypot(1.0, (by - ay) / (bx - ax))


def _inner(member: Part, thick: float) -> tuple[Rect, tuple[Point, ...]]:
    """Return the face and the corners of what lies between a member's edgings."""
    f = member.face
    if not thick:
        return f, member.shape
    if member.grain_upright:
        rect = Rect(f.x0 + thick, f.y0, f.x1 - thick, f.y1)
        shape = clipped(_corners(rect), member.shape) if member.shape else ()
        return (around(shape), shape) if len(shape) > 2 else (rect, ())
    if not member.shape:
        return Rect(f.x0, f.y0 + thick, f.x1, f.y1 - thick), ()
    (lower, upper), up = _edges_of(member.shape), _upright(member, thick)
    shape = (*((x, y + up) for x, y in lower), *((x, y - up) for x, y in upper))
    return around(shape), shape


def _seen(member: Part) -> float:
    """Return a member's length without what its tenons reach into others, mm: so long are its edgings and veneers."""
    if member.role is Role.PANEL:
        return member.finished.length
    f = member.face
    if not member.is_raked:
        return f.height if member.grain_upright else f.width
    slope = _upright(member, 1.0)
    return f.width * slope + member.finished.width * math.sqrt(slope * slope - 1.0)


def _seen_figure(ctx: Context, member: Part) -> Figure:
    """Return the figure of that length: the member's own where nothing of it is hidden."""
    long = _seen(member)
    if abs(long - member.length.value) < HAIR:
        return member.length
    return ctx.figures.derived(
        ctx.figures.unused(f"{member.slug}_seen"),
        f"{member.name}, between what it joins",
        long,
        member.length,
        formula="its length less its tenons",
    )
