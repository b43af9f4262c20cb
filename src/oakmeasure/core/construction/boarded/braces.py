"""Braces of a boarded leaf: where they lie, how they are cut, what crosses what."""

from __future__ import annotations

import math
from itertools import pairwise

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.prisms import Solid, Span
from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.boarded import checks
from oakmeasure.core.construction.boarded.leaf import BoardedLeaf
from oakmeasure.core.construction.boarded.model import BoardedStyle, BraceEnds
from oakmeasure.core.construction.braces import (
    Brace,
    corner_brace,
    corner_shape,
    halves,
    lapped,
    pointed_brace,
    pointed_shape,
    stile_brace,
    stile_shape,
    turned_over,
)
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.figure import FIXED, Figure
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Part, Rect, Size
from oakmeasure.core.leaf.part_factory import PartSpec, around


def add_braces(leaf: BoardedLeaf, ledges: list[Part]) -> None:
    """Add the braces of every field between two ledges: the foot at the hinge side, on the lower one.

    Args:
        leaf: The leaf while it is set out.
        ledges: The ledges, the lowest first.
    """
    if leaf.choice.style is BoardedStyle.LEDGED:
        return
    fields = [Rect(low.face.x0, low.face.y1, low.face.x1, high.face.y0) for low, high in pairwise(ledges)]
    if leaf.is_framed:
        fields.append(Rect(leaf.inside.x0, ledges[-1].face.y1, leaf.inside.x1, leaf.inside.y1))
    where = (
        [""]
        if len(fields) == 1
        else ["lower ", "upper "]
        if len(fields) == 2
        else [f"{at}. " for at in range(1, len(fields) + 1)]
    )
    width = leaf.ctx.chosen("brace_width", "brace, width", leaf.choice.brace_width, "build.brace_width")
    for prefix, inside in zip(where, fields, strict=True):
        if inside.height <= 0 or inside.width <= 0:
            continue
        _brace(leaf, prefix, inside, width)


def _brace(leaf: BoardedLeaf, prefix: str, inside: Rect, width: Figure) -> None:
    ctx, choice, f = leaf.ctx, leaf.choice, leaf.ctx.figures
    slug = prefix.strip().rstrip(".")
    tail = f"_{slug}" if slug else ""
    base = f.given(figure_name(f"field_width{tail}"), f"{prefix}field, clear width", inside.width, FIXED)
    height = f.given(figure_name(f"field_height{tail}"), f"{prefix}field, clear height", inside.height, FIXED)
    crossed = choice.style is BoardedStyle.X
    ends = BraceEnds.POINTED if crossed else choice.brace_ends
    if ends is BraceEnds.STILES and not leaf.is_framed:
        checks.say_no_stiles(ctx, prefix)
        ends = BraceEnds.CORNER
    box = (inside.x0, inside.y0, inside.x1, inside.y1)
    try:
        brace, shape = _set_brace(ends, box, width.value)
    except InputError as error:
        checks.say_no_brace(ctx, prefix, inside, width, error)
        return
    length = _brace_figures(ctx, prefix, tail, brace, (base, height, width), ends)
    other = turned_over(shape, inside.x0, inside.x1)
    laps = lapped(shape, other, _brace_depth(leaf)) if crossed and choice.half_lapped else ((), ())
    _brace_part(leaf, f"{prefix}brace", (shape, laps[0]), length, width, brace)
    if crossed:
        if choice.half_lapped:
            _brace_part(leaf, f"{prefix}crossing brace", (other, laps[1]), length, width, brace)
        else:
            _halved(leaf, prefix, tail, halves(other, shape), width, brace)
    checks.say_round(ctx, choice, prefix, inside, brace, ends)


def _set_brace(
    ends: BraceEnds, box: tuple[float, float, float, float], width: float
) -> tuple[Brace, tuple[Point, ...]]:
    """Return a brace in its field, and its corners. Raises InputError where it does not go in."""
    base, height = box[2] - box[0], box[3] - box[1]
    if ends is BraceEnds.STILES:
        return stile_brace(base=base, height=height, width=width), stile_shape(*box, width)
    corner = corner_brace(base=base, height=height, width=width)  # a pointed one must fit the same field
    if ends is BraceEnds.POINTED:
        return pointed_brace(base=base, height=height), pointed_shape(*box, width)
    return corner, corner_shape(*box, width)


def _brace_figures(
    ctx: Context, prefix: str, tail: str, brace: Brace, inputs: tuple[Figure, Figure, Figure], ends: BraceEnds
) -> Figure:
    f = ctx.figures
    how = {
        BraceEnds.POINTED: "atan(h ÷ b)",
        BraceEnds.CORNER: "atan(h ÷ b) + asin(width ÷ √(b² + h²))",
        BraceEnds.STILES: "atan(h ÷ b) − asin(width ÷ √(b² + h²))",
    }
    angle = f.derived(
        figure_name(f"brace_angle{tail}"),
        f"{prefix}brace, from the level",
        brace.angle_deg,
        *inputs,
        formula=how[ends],
        unit=Unit.DEG,
    )
    if ends is BraceEnds.POINTED:
        return f.derived(
            figure_name(f"brace_blank{tail}"),
            f"{prefix}brace, tip to tip",
            brace.blank,
            *inputs[:2],
            formula="√(b² + h²)",
        )
    on_stiles = ends is BraceEnds.STILES
    edge = f.derived(
        figure_name(f"brace_edge{tail}"),
        f"{prefix}brace, each long edge",
        brace.edge,
        inputs[0] if on_stiles else inputs[1],
        angle,
        formula="b ÷ cos α" if on_stiles else "h ÷ sin α",
    )
    more = "edge + width × tan α" if on_stiles else "h ÷ sin α + width ÷ tan α"
    return f.derived(
        figure_name(f"brace_blank{tail}"), f"{prefix}brace, blank", brace.blank, edge, inputs[2], angle, formula=more
    )


def _brace_depth(leaf: BoardedLeaf) -> Span:
    """Return from where to where braces lie, in from the opening face, mm."""
    choice = leaf.choice
    z0 = choice.ledges_from
    return z0, z0 + choice.ledge_thickness


def _brace_part(
    leaf: BoardedLeaf,
    name: str,
    lies: tuple[tuple[Point, ...], tuple[Solid, ...]],
    length: Figure,
    width: Figure,
    brace: Brace,
) -> None:
    """Add a brace; lies: its corners, and what is cut out of it where another crosses it."""
    shape, cuts = lies
    size = Size(length.value, width.value, leaf.choice.ledge_thickness)
    note = f"ends cut at {leaf.ctx.show.value(brace.angle_deg, Unit.DEG)}"
    leaf.parts.append(
        PartSpec(
            name,
            Role.BRACE,
            around(shape),
            (length, width),
            sizes=(size, size),
            species=leaf.wood.frame.key,
            upright=False,
            depth=_brace_depth(leaf),
            shape=shape,
            cuts=cuts,
            note=note,
        ).made(leaf.ctx)
    )


def _halved(
    leaf: BoardedLeaf, prefix: str, tail: str, pieces: list[tuple[Point, ...]], width: Figure, brace: Brace
) -> None:
    """Add the crossing brace in two pieces that meet the whole one."""
    crossing = math.sin(math.radians(2 * brace.angle_deg))
    lost = width.value / crossing if crossing > 0 else 0.0
    half = leaf.ctx.figures.derived(
        figure_name(f"brace_half{tail}"),
        f"{prefix}crossing brace, each half along its middle",
        (brace.blank - lost) / 2,
        leaf.ctx.figures[figure_name(f"brace_blank{tail}")],
        width,
        formula="(tip to tip − width ÷ sin 2α) ÷ 2",
    )
    over = width.value / 2 * abs(math.cos(math.radians(2 * brace.angle_deg))) / max(crossing, 0.05)
    longest = leaf.ctx.figures.derived(
        figure_name(f"brace_half_longest{tail}"),
        f"{prefix}crossing brace, each half along its longer edge",
        half.value + over,
        half,
        width,
        formula="middle + width ÷ 2 × cos 2α ÷ sin 2α",
    )
    for name, shape in zip(("lower", "upper"), pieces, strict=True):
        size = Size(longest.value, width.value, leaf.choice.ledge_thickness)
        note = f"ends cut at {leaf.ctx.show.value(brace.angle_deg, Unit.DEG)}, one against the whole brace"
        leaf.parts.append(
            PartSpec(
                f"{prefix}crossing brace, {name} half",
                Role.BRACE,
                around(shape),
                (longest, width),
                sizes=(size, size),
                species=leaf.wood.frame.key,
                upright=False,
                depth=_brace_depth(leaf),
                shape=shape,
                note=note,
            ).made(leaf.ctx)
        )
