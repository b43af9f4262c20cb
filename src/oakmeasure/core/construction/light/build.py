"""A light face frame: thin stiles and rails, laid on boards or sheet, or round a sheet in a rebate; braced or not.

Arithmetic: shoulder = leaf − 2·stile; a sheet in a rebate = sight + 2·(rebate − clearance); boards share the width.
Sources: common practice of the trade.
"""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction import braces
from oakmeasure.core.construction.framed import checks as framed_checks
from oakmeasure.core.construction.framed.joints import HINGE_STILE, LATCH_STILE
from oakmeasure.core.construction.framed.layout import frame_dims, lay_out
from oakmeasure.core.construction.layered.build import frame_of
from oakmeasure.core.construction.light import checks
from oakmeasure.core.construction.light.fill import fill
from oakmeasure.core.construction.light.leaf import LightLeaf
from oakmeasure.core.construction.light.model import Light, LightBrace, LightJoint
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import minus, plus
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Fixing, GlueUp, GlueUpKind, Loose, Rect, Size, Tenon
from oakmeasure.core.leaf.part_factory import PartSpec, around
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.movement import frame_movement

# Length of a pocket screw by the thickness of the frame, mm: common practice, no source.
POCKET_SCREWS = ((14.0, 25.0), (20.5, 32.0), (26.0, 38.0), (32.0, 50.0), (40.0, 63.0))
# Diameter, and its half length as a share of the stile: common practice, no source
DOWEL = 8.0
DOWEL_SHARE = 0.5


def pocket_screw(thickness: float) -> float:
    """Return the pocket screw for a frame of a thickness, mm.

    Args:
        thickness: Thickness of the frame, mm.

    >>> pocket_screw(20.0)
    32.0
    """
    return next((length for most, length in POCKET_SCREWS if thickness <= most), POCKET_SCREWS[-1][1])


def build(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the light leaf; what cannot be made is said by checks, and the rest is still set out.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        wood: Species, and moisture as made, at the driest and at the wettest.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Light)
    stile = ctx.chosen("stile", "stile", choice.stile, "build.stile")
    shoulder = ctx.figures.total("shoulder", "rail, between shoulders", plus(fit.width), minus(stile, 2))
    leaf = LightLeaf(ctx, fit, wood, choice, stile, shoulder, lay_out(ctx, fit, frame_of(choice), shoulder))
    _frame(leaf)
    _joints(leaf)
    _braces(leaf)
    held = fill(leaf)
    frame_movement(ctx, wood, stile)
    framed_checks.judge_room(ctx, frame_of(choice), fit, leaf.layout, shoulder)
    checks.judge(ctx, choice, held)
    parts = tuple(replace(each, mark=str(at)) for at, each in enumerate(leaf.parts, start=1))
    sights = tuple(Rect(column.x0, row.y0, column.x1, row.y1) for row in leaf.layout.rows for column in row.columns)
    summary = f"{ctx.show.length(choice.thickness, sign=False)} thick · {choice.fill}"
    says = f"{choice.joint}; {choice.fill}; glue {choice.glue}"
    rails = len(leaf.layout.rails)
    glue = (GlueUp("the frame", fit.height.value, fit.width.value, rails, GlueUpKind.FRAME),)
    return Build(
        width=fit.width.value,
        height=fit.height.value,
        thickness=choice.thickness,
        parts=parts,
        tenons=tuple(leaf.tenons),
        sights=sights,
        summary=summary,
        fixings=tuple(leaf.fixings),
        dims=frame_dims(leaf.layout, fit.width.value, stile.value),
        says=says,
        glue_ups=glue,
        layered=True,
    )


def _frame(leaf: LightLeaf) -> None:
    ctx, fit, choice, wood = leaf.ctx, leaf.fit, leaf.choice, leaf.wood
    w, h, s, t = fit.width.value, fit.height.value, leaf.stile.value, choice.frame_thickness
    for name, place, x0 in ((HINGE_STILE, Place.HINGE, 0.0), (LATCH_STILE, Place.LATCH, w - s)):
        rect = Rect(x0, 0.0, x0 + s, h)
        sizes = Size(h, s, t), Size(fit.glued_height.value, s + fit.trim_side.value, t)
        leaf.parts.append(
            PartSpec(
                name,
                Role.STILE,
                rect,
                (fit.height, leaf.stile),
                sizes=sizes,
                species=wood.frame.key,
                upright=True,
                depth=(0.0, t),
                place=place,
            ).made(ctx)
        )
    for rail in leaf.layout.rails:
        trim = fit.trim_height.value if rail.is_end else 0.0
        size = Size(leaf.shoulder.value, rail.width.value, t)
        planed = replace(size, width=size.width + trim)
        note = "2 pocket holes in each end" if choice.joint is LightJoint.POCKET else ""
        leaf.parts.append(
            PartSpec(
                rail.name,
                Role.RAIL,
                rail.rect,
                (leaf.shoulder, rail.width),
                sizes=(size, planed),
                species=wood.frame.key,
                upright=False,
                depth=(0.0, t),
                note=note,
                place=rail.place,
            ).made(ctx)
        )


def _joints(leaf: LightLeaf) -> None:
    """Two pocket screws or two dowels at each end of each rail, a quarter of its width in."""
    ctx, choice, w, s = leaf.ctx, leaf.choice, leaf.fit.width.value, leaf.stile.value
    thick = ctx.figures["thickness"]
    if choice.joint is LightJoint.POCKET:
        ctx.figures.derived(
            "pocket_screw",
            "pocket screws, length",
            pocket_screw(choice.frame_thickness),
            thick,
            formula="by the thickness of the frame",
            source="common practice",
        )
    reach = max(round(s * DOWEL_SHARE), 10.0)
    if choice.joint is LightJoint.DOWELS:
        ctx.figures.derived(
            "dowel_length", "dowels, length", 2 * reach, leaf.stile, formula="half the stile into each side"
        )
    for rail in leaf.layout.rails:
        r = rail.rect
        for y in (r.y0 + r.height / 4, r.y1 - r.height / 4):
            for stile, x0, x1 in ((HINGE_STILE, s - reach, s), (LATCH_STILE, w - s, w - s + reach)):
                if choice.joint is LightJoint.DOWELS:
                    rect = Rect(x0, y - DOWEL / 2, x1, y + DOWEL / 2)
                    middle = choice.frame_thickness / 2
                    leaf.tenons.append(Tenon(rail.name, stile, rect, DOWEL, False, middle=middle, loose=Loose.DOWEL))
                else:
                    x, way = (s + 22.0, -1.0) if stile == HINGE_STILE else (w - s - 22.0, 1.0)
                    long = ctx.figures["pocket_screw"].value
                    leaf.fixings.append(
                        Fixing(
                            x,
                            y,
                            long,
                            "pocket screws",
                            False,
                            f"part:{rail.name}",
                            (0.0, choice.frame_thickness),
                            (x + way * long, y),
                        )
                    )


def _braces(leaf: LightLeaf) -> None:
    """A brace in the upper field, foot at the hinges; crossed ones half-lapped, both whole."""
    ctx, choice = leaf.ctx, leaf.choice
    rows = [row for row in leaf.layout.rows if row.columns]
    if choice.brace is LightBrace.NONE or not rows:
        return
    wide = ctx.chosen("brace_width", "brace, width", choice.brace_width, "build.brace_width")
    row = rows[-1]
    x0, x1 = row.columns[0].x0, row.columns[-1].x1
    try:
        found = braces.pointed_brace(base=x1 - x0, height=row.y1 - row.y0)
        shape = braces.pointed_shape(x0, row.y0, x1, row.y1, wide.value)
    except InputError:
        return
    if wide.value >= 0.5 * min(x1 - x0, row.y1 - row.y0):
        checks.say_brace(ctx, wide, min(x1 - x0, row.y1 - row.y0))
        return
    angle = ctx.figures.derived(
        "brace_angle",
        "brace, from the level",
        found.angle_deg,
        leaf.shoulder,
        row.sight,
        formula="atan(height ÷ width of its field)",
        unit=Unit.DEG,
    )
    length = ctx.figures.derived(
        "brace_blank",
        "brace, tip to tip",
        found.blank,
        leaf.shoulder,
        row.sight,
        angle,
        formula="corner to corner of its field",
    )
    shapes: list[tuple[str, tuple[Point, ...]]] = [("brace", shape)]
    laps: dict[str, tuple[Solid, ...]] = {}
    thick = choice.brace_thickness
    if choice.brace is LightBrace.CROSSED:
        shapes = [("brace 1", shape), ("brace 2", braces.turned_over(shape, x0, x1))]
        laps = dict(zip(("brace 1", "brace 2"), braces.lapped(shape, shapes[1][1], (0.0, thick)), strict=True))
    for name, corners in shapes:
        size = Size(length.value, wide.value, thick)
        lap = "half-lapped where they cross; " if len(shapes) == 2 else ""
        leaf.parts.append(
            PartSpec(
                name,
                Role.BRACE,
                around(corners),
                (length, wide),
                sizes=(size, size),
                species=leaf.wood.frame.key,
                upright=False,
                depth=(0.0, thick),
                shape=corners,
                cuts=laps.get(name, ()),
                note=f"{lap}both ends pointed, {ctx.show.value(angle.value, Unit.DEG)}",
            ).made(ctx)
        )
