"""Framed and panelled: stiles full height, rails tenoned between them, muntins between the rails, fields filled.

Arithmetic: shoulder = leaf − 2·stile (+ 2·sticking when coped); rail = shoulder + 2·tenon, the tenon counted from the
shoulder used. Where rails and muntins stand: `layout`; panels: `panels`. Sources: common practice of the trade.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from itertools import pairwise

from oakmeasure.core.base.arcs import segmental_radius
from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import Unit, counted
from oakmeasure.core.construction.arch import arch_points, under
from oakmeasure.core.construction.framed import checks
from oakmeasure.core.construction.framed.joints import (
    HINGE_STILE,
    LATCH_STILE,
    RailJoint,
    dowel_size,
    judge_dowels,
    rail_tenons,
    tenon_thickness,
)
from oakmeasure.core.construction.framed.layout import Fields, FrameLayout, Rail, lay_out
from oakmeasure.core.construction.framed.lock import judge_lock
from oakmeasure.core.construction.framed.model import Framed, Infill, TenonKind
from oakmeasure.core.construction.framed.panels import FieldFilling, fill
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Dim, GlueUp, GlueUpKind, Part, Rect, Size, Tenon
from oakmeasure.core.leaf.part_factory import rough
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.movement import frame_movement


@dataclass(slots=True)
class _Frame:
    """The setting-out while the leaf is being worked out."""

    ctx: Context
    fit: Fit
    wood: Timber
    choice: Framed
    groove: Figure
    stile: Figure
    thickness: Figure
    tenon_thick: Figure
    tenon: Figure
    shoulder: Figure
    rail_length: Figure
    layout: FrameLayout
    arch: tuple[Point, ...] = ()
    """Points of an arched top rail's lower edge, or ()."""
    tenons: list[Tenon] = field(default_factory=list)
    parts: list[Part] = field(default_factory=list)


def build(ctx: Context, fit: Fit, wood: Timber, moves: Callable[[Figure], None] | None = None) -> Build:
    """Return the framed leaf; what cannot be made is said by checks, and the rest is still set out.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        wood: Species, and moisture as made, at the driest and at the wettest.
        moves: Says how much it moves, by its stile; None: as solid wood.
    """
    frame = _set_out(ctx, fit, wood)
    _arch(frame)
    for rail in frame.layout.rails:
        _rail_part(frame, rail)
    rows = frame.layout.rows
    sights = [Rect(column.x0, row.y0, column.x1, row.y1) for row in rows for column in row.columns]
    _stiles(frame)
    for row in rows:
        _muntins(frame, row)
    panels = fill(FieldFilling(ctx, wood, frame.choice, frame.groove), rows, frame.arch)
    frame.parts += panels
    checks.judge_room(ctx, frame.choice, fit, frame.layout, frame.shoulder)
    checks.judge_joints(ctx, frame.choice, frame.tenon, frame.groove)
    if "dowel" in ctx.figures:
        judge_dowels(ctx, frame.tenons)
    judge_lock(ctx, frame.choice, fit, frame.tenons)
    if moves is None:
        frame_movement(ctx, wood, frame.stile)
    else:
        moves(frame.stile)
    summary = f"{ctx.show.length(frame.choice.thickness, sign=False)} thick · {counted(len(panels), 'panel')}"
    order = {Role.STILE: 0, Role.RAIL: 1, Role.MUNTIN: 2, Role.PANEL: 3}
    ordered = sorted(frame.parts, key=lambda each: order[each.role])
    parts = tuple(replace(part, mark=str(at)) for at, part in enumerate(ordered, start=1))
    return Build(
        width=fit.width.value,
        height=fit.height.value,
        thickness=frame.choice.thickness,
        parts=parts,
        tenons=tuple(frame.tenons),
        sights=tuple(sights),
        groove_depth=frame.groove.value,
        groove_width=frame.choice.panel_thickness,
        tenon_thickness=frame.tenon_thick.value,
        summary=summary,
        dims=_dims(frame),
        says=_says(frame),
        glue_ups=(
            GlueUp("the frame", fit.height.value, fit.glued_width.value, len(frame.layout.rails), GlueUpKind.FRAME),
        ),
    )


def _dims(frame: _Frame) -> tuple[Dim, ...]:
    """Return the sizes to write: rails and sights up the latch side, stiles, muntins and sights of the upper row."""
    found = [Dim(each.rect.y0, each.rect.y1, each.width.name, f"part:{each.name}", True) for each in frame.layout.rails]
    found += [Dim(row.y0, row.y1, row.sight.name, "", True) for row in frame.layout.rows]
    w, s = frame.fit.width.value, frame.stile.value
    found += [Dim(0.0, s, "stile", "part:hinge stile", False), Dim(w - s, w, "stile", "part:latch stile", False)]
    rows = [row for row in frame.layout.rows if row.columns]
    if rows:
        row = max(rows, key=lambda each: (len(each.columns), each.y0))
        found += [Dim(each.x0, each.x1, each.sight.name, "", False) for each in row.columns]
        found += [
            Dim(left.x1, right.x0, "muntin", f"part:{row.name}muntin", False) for left, right in pairwise(row.columns)
        ]
    return tuple(found)


def _says(frame: _Frame) -> str:
    """Return the joints in a few words."""
    kind = frame.choice.tenon
    words = [f"tenons {kind}" if kind in (TenonKind.BLIND, TenonKind.THROUGH) else str(kind)]
    if any(each.is_haunch for each in frame.tenons):
        words.append("haunched")
    if frame.choice.sticking:
        words.append("coped")
    infills = {row.infill for row in frame.layout.rows} - {Infill.FLAT}
    return "; ".join([*words, *sorted(map(str, infills))])


def _set_out(ctx: Context, fit: Fit, wood: Timber) -> _Frame:
    choice, f = ctx.leaf.build, ctx.figures
    assert isinstance(choice, Framed)
    stile = ctx.chosen("stile", "stile", choice.stile, "build.stile")
    thickness = ctx.figures["thickness"]
    groove = ctx.chosen("groove_depth", "groove", choice.groove_depth, "build.groove_depth")
    thick = tenon_thickness(ctx, thickness)
    between = f.total("shoulder", "rail, between shoulders", plus(fit.width), minus(stile, 2))
    sticking = f.given("sticking", "sticking that is coped over", choice.sticking, fixed("build.sticking"))
    coped = [plus(sticking, 2)] if choice.sticking else []
    tenon = _reach(ctx, choice, stile, sticking)
    into = [plus(tenon, 2)] if choice.tenon.is_whole else []
    label = "rail, over its tenons" if choice.tenon.is_whole else "rail, to its shoulders"
    rail_length = f.total("rail_length", label, plus(between), *coped, *into)
    layout = lay_out(ctx, fit, choice, between)
    return _Frame(ctx, fit, wood, choice, groove, stile, thickness, thick, tenon, between, rail_length, layout)


def _reach(ctx: Context, choice: Framed, stile: Figure, sticking: Figure) -> Figure:
    """Add how far a rail, or what joins it, reaches into the stile."""
    f = ctx.figures
    if choice.tenon.goes_through:
        word = {TenonKind.BRIDLE: "bridle, over the stile", TenonKind.HALF_LAP: "half lap, over the stile"}
        terms = [plus(stile), *([minus(sticking)] if choice.sticking else [])]
        return f.total("tenon", word.get(choice.tenon, "tenon, through the stile"), *terms)
    share, step = (
        ctx.rule("blind_share", "blind tenon's share of the stile", Unit.RATIO),
        ctx.rule("joint_step", "joints are set out to"),
    )
    word = {
        TenonKind.LOOSE: "loose tenon, into the stile",
        TenonKind.DOWELS: "dowel, into the stile",
        TenonKind.POCKET: "pocket screw, into the stile",
    }
    value = math.floor(stile.value * share.value / step.value + 1e-9) * step.value
    return f.derived(
        "tenon",
        word.get(choice.tenon, "tenon, blind"),
        value,
        stile,
        share,
        step,
        formula="its share of the stile, to the full step below",
    )


def _arch(frame: _Frame) -> None:
    """Set out the arched lower edge of the top rail: a segment over the shoulders, its crown at the rail's width."""
    ctx, choice = frame.ctx, frame.choice
    if choice.arch_rise is None:
        return
    rise = ctx.chosen("arch", "rise of the top rail's arch", choice.arch_rise, "build.arch_rise")
    top = frame.layout.rail("top rail").rect
    try:
        radius = segmental_radius(span=frame.shoulder.value, rise=rise.value)
    except InputError:
        checks.say_arch(ctx, frame.shoulder, rise)
        return
    ctx.figures.derived(
        "arch_radius",
        "radius of the top rail's arch",
        radius,
        frame.shoulder,
        rise,
        formula="(span² ÷ 4 + rise²) ÷ (2 × rise)",
        source="intersecting chords",
    )
    frame.arch = arch_points(x0=top.x0, x1=top.x1, springing=top.y0 - rise.value, rise=rise.value)


def _rail_part(frame: _Frame, rail: Rail) -> None:
    name, rect, width = rail.name, rail.rect, rail.width
    joint = RailJoint(
        name,
        rect,
        rail.place,
        frame.groove.value,
        frame.tenon.value,
        _joint_thickness(frame),
        frame.choice.tenon.goes_through,
        frame.choice.tenon,
        frame.thickness.value * (0.75 if frame.choice.tenon is TenonKind.HALF_LAP else 0.5),
    )
    mine = rail_tenons(frame.ctx, joint, frame.fit.width.value)
    frame.tenons += mine
    arched = rail.place is Place.TOP and bool(frame.arch)
    wide = width.value + (frame.choice.arch_rise or 0.0 if arched else 0.0)
    trim = frame.fit.trim_height.value if rail.is_end else 0.0
    # A through tenon is cut to the stile as glued up, and planed off with it.
    past = frame.fit.trim_side.value if joint.through else 0.0
    finished = Size(frame.rail_length.value, wide, frame.thickness.value)
    planed = Size(finished.length + 2 * past, wide + trim, finished.thickness)
    shape: tuple[Point, ...] = ()
    face = rect
    if arched:
        rise = frame.choice.arch_rise or 0.0
        face = Rect(rect.x0, rect.y0 - rise, rect.x1, rect.y1)
        shape = (*frame.arch, (rect.x1, rect.y1), (rect.x0, rect.y1))
    reach = frame.tenon.value if frame.choice.tenon.is_whole else 0.0
    loose = _loose(frame, mine)
    arched_by = f"arched, rise {frame.ctx.fmt(frame.choice.arch_rise or 0.0)}" if arched else ""
    frame.parts.append(
        Part(
            name,
            Role.RAIL,
            face,
            Rect(rect.x0 - reach, face.y0, rect.x1 + reach, rect.y1),
            False,
            frame.wood.frame.key,
            finished,
            planed,
            rough(frame.ctx, planed),
            frame.rail_length,
            width,
            shape=shape,
            note="; ".join(each for each in (arched_by, loose) if each),
            place=rail.place,
        )
    )


def _joint_thickness(frame: _Frame) -> float:
    """Return how thick the tenons of the rails are, or their dowels, mm."""
    match frame.choice.tenon:
        case TenonKind.HALF_LAP:
            return frame.thickness.value / 2
        case TenonKind.DOWELS:
            return (frame.ctx.figures.get("dowel") or dowel_size(frame.ctx, frame.thickness)).value
        case _:
            return frame.tenon_thick.value


def _loose(frame: _Frame, mine: list[Tenon]) -> str:
    """Return what joins a rail that ends at its shoulders, for the cut list; both ends together."""
    kind, ctx = frame.choice.tenon, frame.ctx
    long = ctx.fmt(2 * frame.tenon.value)
    if kind is TenonKind.LOOSE and mine:
        return f"{len(mine)} loose tenons {long} × {ctx.fmt(mine[0].rect.height)} × {ctx.fmt(mine[0].thickness)}"
    if kind is TenonKind.DOWELS and mine:
        return f"{len(mine)} dowels {ctx.fmt(mine[0].thickness)} × {long}; carry the second holes over from the first"
    return "4 pocket screws" if kind is TenonKind.POCKET else ""


def _stiles(frame: _Frame) -> None:
    fit, rules = frame.fit, frame.ctx.rules
    w, h, s = fit.width.value, fit.height.value, frame.stile.value
    finished = Size(h, s, frame.thickness.value)
    planed = Size(fit.glued_height.value, s + fit.trim_side.value, finished.thickness)
    sawn = rough(frame.ctx, planed, length=planed.length + 2 * rules.horn.value)
    for name, place, x0 in ((HINGE_STILE, Place.HINGE, 0.0), (LATCH_STILE, Place.LATCH, w - s)):
        rect = Rect(x0, 0, x0 + s, h)
        frame.parts.append(
            Part(
                name,
                Role.STILE,
                rect,
                rect,
                True,
                frame.wood.frame.key,
                finished,
                planed,
                sawn,
                fit.height,
                frame.stile,
                place=place,
            )
        )


def _muntins(frame: _Frame, row: Fields) -> None:
    """Add the muntins of a row, each tenoned into the rails below and above."""
    if len(row.columns) < 2:
        return
    ctx, stub = frame.ctx, frame.ctx.rule("muntin_tenon", "muntin's tenon")
    slug = f"{row.slug}_" if row.slug else ""
    length = ctx.figures.total(
        figure_name(f"{slug}muntin_length"), f"{row.name}muntin, over its tenons", plus(row.sight), plus(stub, 2)
    )
    for at, (left, _right) in enumerate(pairwise(row.columns), start=1):
        name = f"{row.name}muntin" if len(row.columns) == 2 else f"{row.name}muntin {at}"
        _muntin(frame, row, name, left.x1, length)


def _muntin(frame: _Frame, row: Fields, name: str, x: float, length: Figure) -> None:
    """Add a muntin with its two tenons; under an arch its head is scribed to it, and it is as long as it is there."""
    muntin, stub = frame.ctx.figures["muntin"], frame.ctx.figures["rule_muntin_tenon"]
    rect = Rect(x, row.y0, x + muntin.value, row.y1)
    shape: tuple[Point, ...] = ()
    if frame.arch and row.above == "top rail":
        head = under(frame.arch, rect.x0, rect.x1)
        rect = replace(rect, y1=max(y for _, y in head))
        shape = (rect.x0, rect.y0), (rect.x1, rect.y0), *head
        length = _scribed(frame, name, row, rect, stub)
    inset = min(frame.groove.value, muntin.value / 2 - 1)
    x0, x1, thick, middle = rect.x0 + inset, rect.x1 - inset, frame.tenon_thick.value, frame.thickness.value / 2
    low = min((y for _, y in under(frame.arch, x0, x1)), default=rect.y1) if shape else rect.y1
    frame.tenons += (
        Tenon(name, row.below, Rect(x0, row.y0 - stub.value, x1, row.y0), thick, False, is_upright=True, middle=middle),
        Tenon(name, row.above, Rect(x0, low, x1, rect.y1 + stub.value), thick, False, is_upright=True, middle=middle),
    )
    finished = Size(length.value, muntin.value, frame.thickness.value)
    outline = Rect(rect.x0, row.y0 - stub.value, rect.x1, rect.y1 + stub.value)
    frame.parts.append(
        Part(
            name,
            Role.MUNTIN,
            rect,
            outline,
            True,
            frame.wood.frame.key,
            finished,
            finished,
            rough(frame.ctx, finished),
            length,
            muntin,
            shape=shape,
            note="head scribed to the arch" if shape else "",
        )
    )


def _scribed(frame: _Frame, name: str, row: Fields, rect: Rect, stub: Figure) -> Figure:
    """Add the length of a muntin under an arch: to the highest of its head, over its tenons."""
    slug, f = name.replace(" ", "_"), frame.ctx.figures
    high = f.derived(
        figure_name(f"{slug}_sight"),
        f"{name}, to the highest of its head",
        rect.height,
        row.sight,
        f["arch_radius"],
        formula="the arch over its place",
        source="the circle through both springings and the crown",
    )
    return f.total(figure_name(f"{slug}_scribed"), f"{name}, over its tenons", plus(high), plus(stub, 2))
