"""A solid slab: strips edge to edge, kept flat by battens, channels or ledges that let it move.

The whole width moves with the seasons; whatever crosses it is fixed in its middle only and slotted outward of it.
Sources: common practice of the trade; movement: Wood Handbook, FPL-GTR-282, ch. 13.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace

from oakmeasure.core.base.prisms import block
from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.slab import checks
from oakmeasure.core.construction.slab.joint_places import TENON_CLEAR, clear_of, tenon_places
from oakmeasure.core.construction.slab.model import Slab, SlabGlue, SlabJoint, Stiffener
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.figure import Figure, Origin, fixed, given, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Dim, Fixing, GlueUp, Loose, Part, Rect, Size, Tenon
from oakmeasure.core.leaf.part_factory import PartSpec, nail_for, screw_for
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.movement import slab_movement
from oakmeasure.core.timber.wood import change_of_width

FIXINGS_EACH = 5  # across a batten or a channel: the middle one round, the others slotted
SLOT_SCREW = 5.0  # diameter of a screw that stands in a slot
# Of a loose tenon: common practice, no source
TENON_LONG = 40.0
TENON_WIDE = 50.0
DOWEL = 10.0  # of a slab's joints, diameter: common practice, no source
CLAMP_EVERY = 300.0  # along a joint: common practice, no source
TWO_NAILS = 30.0  # of a nailed ledge: each nail from its strip's edge


def strip_count(*, width: float, strip: float, shoot: float) -> int:
    """Return the fewest strips alike, none wider than `strip`, that make a width when each joint loses `shoot`; mm.

    Args:
        width: Width, mm.
        strip: The widest strip, mm.
        shoot: What shooting one joint takes, mm.

    >>> strip_count(width=955, strip=140, shoot=0)
    7
    """
    return max(1, math.ceil((width - shoot) / max(strip - shoot, 1.0) - 1e-9))


def slot_length(*, moves: float, from_middle: float, width: float, screw: float = SLOT_SCREW) -> float:
    """Return the length of a slot, mm: the screw's diameter and its share of the width's movement, both ways.

    Args:
        moves: How far the whole width moves through the seasons, mm.
        from_middle: From the fixed middle to the slot, mm.
        width: Width, mm.
        screw: Diameter of the screw, mm.

    >>> slot_length(moves=10.0, from_middle=300.0, width=600.0)
    10.0
    """
    return screw + moves * min(1.0, from_middle / width)


@dataclass(slots=True)
class _SlabLeaf:
    ctx: Context
    fit: Fit
    wood: Timber
    choice: Slab
    parts: list[Part] = field(default_factory=list)
    tenons: list[Tenon] = field(default_factory=list)
    fixings: list[Fixing] = field(default_factory=list)
    dims: list[Dim] = field(default_factory=list)


def build(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the slab; what cannot be made is said by checks, and the rest is still set out.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        wood: Species, and moisture as made, at the driest and at the wettest.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Slab)
    leaf = _SlabLeaf(ctx, fit, wood, choice)
    strips = _strips(leaf)
    slab_movement(ctx, wood, fit.width)
    season = _season(ctx, wood, fit.width)
    if choice.stiffener is not Stiffener.NONE:
        _stiffeners(leaf, season)
    _joints(leaf, strips)
    if choice.stiffener is Stiffener.NAILED:
        _strip_moves(ctx, wood, strips)
    checks.judge(ctx, choice, fit, strips, leaf.fixings, season)
    order = {Role.STRIP: 0, Role.STIFFENER: 1, Role.LEDGE: 1}
    ordered = sorted(leaf.parts, key=lambda each: order[each.role])
    parts = tuple(replace(each, mark=str(at)) for at, each in enumerate(ordered, start=1))
    says = f"{choice.joint}; glue {choice.glue}; {choice.stiffener}"
    summary = f"{ctx.show.length(choice.thickness, sign=False)} thick · {len(strips)} strips"
    return Build(
        width=fit.width.value,
        height=fit.height.value,
        thickness=choice.over_all,
        parts=parts,
        tenons=tuple(leaf.tenons),
        summary=summary,
        fixings=tuple(leaf.fixings),
        dims=tuple(leaf.dims),
        says=says,
        glue_ups=_glue_ups(leaf, strips),
    )


def _glue_ups(leaf: _SlabLeaf, strips: list[Part]) -> tuple[GlueUp, ...]:
    """Groups of strips first, then the groups with one another; a clamp about every 300."""
    choice, h, w = leaf.choice, leaf.fit.glued_height.value, leaf.fit.glued_width.value
    if choice.glue is SlabGlue.NOWHERE or len(strips) < 2:
        return ()
    clamps = max(2, math.ceil(h / CLAMP_EVERY) + 1)
    found = [GlueUp("the slab", h, w, clamps)]
    if len(strips) > choice.group_size:
        group = sum(sorted(each.planed.width for each in strips)[-choice.group_size :])
        found.insert(0, GlueUp(f"each group of {choice.group_size}", h, group, clamps))
    return tuple(found)


# --- strips ------------------------------------------------------------------------------------------------


def _strips(leaf: _SlabLeaf) -> list[Part]:
    ctx, choice, fit, f = leaf.ctx, leaf.choice, leaf.fit, leaf.ctx.figures
    widths = _measured(leaf) if choice.measured else _alike(leaf)
    made: list[Part] = []
    x = 0.0
    for at, width in enumerate(widths):
        first, last = at == 0, at == len(widths) - 1
        face = Rect(x, 0.0, x + width.value, fit.height.value)
        finished = Size(fit.height.value, width.value, choice.thickness)
        planed = Size(fit.glued_height.value, width.value + fit.trim_side.value * (first + last), choice.thickness)
        heart = "heart side to the opening face" if at % 2 == 0 else "heart side to the back"
        made.append(
            PartSpec(
                f"strip {at + 1}",
                Role.STRIP,
                face,
                (fit.height, width),
                sizes=(finished, planed),
                species=leaf.wood.frame.key,
                upright=True,
                depth=(0.0, choice.thickness),
                at_hand=bool(choice.measured),
                note=f"{heart}, best edge to {'the latch' if first else 'the hinges'}",
            ).made(ctx)
        )
        x += width.value
    leaf.parts += made
    name = "strip_width" if "strip_width" in f else "strip_1"
    leaf.dims.append(Dim(0.0, widths[0].value, name, "part:strip 1", False))
    return made


def _alike(leaf: _SlabLeaf) -> list[Figure]:
    choice, f = leaf.choice, leaf.ctx.figures
    most = f.given("strip_most", "strips, at most", choice.strip, fixed("build.strip"))
    shoot = f.given("shoot", "shot off each joint", choice.shoot, fixed("build.shoot"))
    width = leaf.fit.width
    count = strip_count(width=width.value, strip=choice.strip, shoot=choice.shoot)
    number = f.derived(
        "strips_count",
        "strips",
        count,
        width,
        most,
        shoot,
        formula="the fewest that reach over the width",
        unit=Unit.COUNT,
    )
    each = f.derived(
        "strip_width",
        "each strip, as it stands in the slab",
        width.value / count,
        width,
        number,
        formula="width ÷ strips",
    )
    f.total("strip_sawn", "each strip before its joints are shot", plus(each), plus(shoot))
    return [each] * count


def _measured(leaf: _SlabLeaf) -> list[Figure]:
    """Add the strips as they were measured: what they make together, and what is trimmed off both outer ones."""
    choice, f = leaf.choice, leaf.ctx.figures
    shoot = f.given("shoot", "shot off each joint", choice.shoot, fixed("build.shoot"))
    boards = [
        f.given(
            figure_name(f"board_{at}"),
            f"strip {at}, as it is",
            each.width,
            Origin(edit=f"build.measured.{at - 1}.width"),
        )
        for at, each in enumerate(choice.measured, start=1)
    ]
    joints = len(boards) - 1
    laid = f.total(
        "boards_laid",
        "strips laid up, their joints shot",
        *(plus(each) for each in boards),
        *([minus(shoot, joints)] if joints else []),
    )
    over = f.total("laid_over", "to trim off, both edges together", plus(laid), minus(leaf.fit.width))
    f.derived("strips_count", "strips", len(boards), laid, formula="as laid up", unit=Unit.COUNT)
    each_side = max(over.value, 0.0) / 2
    found = []
    for at, each in enumerate(boards, start=1):
        ends = each_side * ((at == 1) + (at == len(boards)))
        lost = choice.shoot * (1.0 if 1 < at < len(boards) else 0.5 if joints else 0.0)
        found.append(
            f.derived(
                figure_name(f"strip_{at}"),
                f"strip {at}, in the slab",
                each.value - ends - lost,
                each,
                over,
                shoot,
                formula="as it is − its share of the joints − what is trimmed off",
            )
        )
    return found


def _joints(leaf: _SlabLeaf, strips: list[Part]) -> None:
    """Loose tenons or dowels along every joint, the first near the ends, the others evenly between."""
    choice = leaf.choice
    if choice.joint is SlabJoint.GLUED or len(strips) < 2:
        return
    loose = Loose.TENON if choice.joint is SlabJoint.TENONS else Loose.DOWEL
    size, thick = (TENON_WIDE, choice.thickness / 3) if loose is Loose.TENON else (DOWEL, DOWEL)
    reach = choice.thickness / 2 - thick / 2, choice.thickness / 2 + thick / 2
    zones = [
        (each.face.y0 - size / 2 - TENON_CLEAR, each.face.y1 + size / 2 + TENON_CLEAR)
        for each in leaf.parts
        if each.role is Role.STIFFENER
        and each.depth is not None
        and each.depth[0] < reach[1]
        and reach[0] < each.depth[1]
    ]
    places = clear_of(tenon_places(height=leaf.fit.height.value, every=choice.joint_spacing), zones)
    for strip in strips[1:]:
        x = strip.face.x0
        for y in places:
            rect = Rect(x - TENON_LONG / 2, y - size / 2, x + TENON_LONG / 2, y + size / 2)
            leaf.tenons.append(
                Tenon(strip.name, strip.name, rect, thick, False, middle=choice.thickness / 2, loose=loose)
            )
    how = f"one near each end, the others at most {leaf.ctx.fmt(choice.joint_spacing)} apart"
    number = given("tenon_every", f"{choice.joint}, about every", choice.joint_spacing, fixed("build.joint_spacing"))
    leaf.ctx.figures.add(number)
    leaf.ctx.figures.derived(
        "tenons_count",
        f"{choice.joint}, together",
        len(leaf.tenons),
        leaf.fit.height,
        number,
        formula=f"in each of {len(strips) - 1} joints {len(places)}: {how}",
        unit=Unit.COUNT,
    )


# --- what keeps it flat ------------------------------------------------------------------------------------


def _season(ctx: Context, wood: Timber, width: Figure) -> Figure:
    """Add how much the slab moves from the driest to the wettest, however it was made."""
    value = change_of_width(
        width=width.value, coefficient=wood.coefficient.value, from_moisture=wood.dry.value, to_moisture=wood.wet.value
    )
    return ctx.figures.derived(
        "season",
        "the slab moves, driest to wettest",
        abs(value),
        width,
        wood.coefficient,
        wood.dry,
        wood.wet,
        formula="width × movement × points of moisture",
    )


def _strip_moves(ctx: Context, wood: Timber, strips: list[Part]) -> None:
    """Add how much the widest strip moves, each for itself where no glue joins them."""
    value = change_of_width(
        width=max(each.finished.width for each in strips),
        coefficient=wood.coefficient.value,
        from_moisture=wood.dry.value,
        to_moisture=wood.wet.value,
    )
    ctx.figures.derived(
        "strip_moves",
        "the widest strip moves, driest to wettest",
        abs(value),
        max((each.width for each in strips), key=lambda each: each.value),
        wood.coefficient,
        wood.dry,
        wood.wet,
        formula="width × movement × points of moisture",
    )


def _stiffeners(leaf: _SlabLeaf, season: Figure) -> None:
    ctx, choice, fit, f = leaf.ctx, leaf.choice, leaf.fit, leaf.ctx.figures
    word = {Stiffener.DADOES: "batten", Stiffener.CHANNELS: "channel", Stiffener.NAILED: "ledge"}[choice.stiffener]
    wide, end, length = _stiffener_size(leaf, word)
    x0 = (fit.width.value - length.value) / 2
    z0, z1 = _depth(choice)
    places = _places(fit.height.value, end.value, choice.stiffeners)
    is_metal = choice.stiffener is Stiffener.CHANNELS
    role = Role.LEDGE if choice.stiffener is Stiffener.NAILED else Role.STIFFENER
    for at, y in enumerate(places, start=1):
        face = Rect(x0, y - wide.value / 2, x0 + length.value, y + wide.value / 2)
        size = Size(length.value, wide.value, choice.stiffener_thickness)
        name = f"{word} {at}"
        wall = checks.CHANNEL_WALL  # of a channel: its bottom, let into the slab, and both sides
        inside = block(face.x0, face.y0 + wall, face.x1, face.y1 - wall, (z0 + wall, z1))
        leaf.parts.append(
            PartSpec(
                name,
                role,
                face,
                (length, wide),
                sizes=(size, size),
                species="steel" if is_metal else leaf.wood.frame.key,
                upright=False,
                depth=(z0, z1),
                cuts=(inside,) if is_metal else (),
                note="middle screw round, the others slotted" if choice.stiffener is not Stiffener.NAILED else "nailed",
            ).made(ctx)
        )
        _fix(leaf, name, face, season)
    first, last = places[0], places[-1]
    leaf.dims.append(Dim(0.0, first, "stiffener_end", f"part:{word} 1", True))
    leaf.dims.append(Dim(last, fit.height.value, "stiffener_end", f"part:{word} {len(places)}", True))
    outermost = max(length.value / 2 - 25, 0.0)
    slot = slot_length(moves=season.value, from_middle=outermost, width=fit.width.value)
    if choice.stiffener is not Stiffener.NAILED:
        f.derived(
            "slot_length",
            f"outermost slot of a {word}",
            slot,
            season,
            length,
            fit.width,
            formula=f"screw of {ctx.fmt(SLOT_SCREW)} + its share of the movement",
        )


def _stiffener_size(leaf: _SlabLeaf, word: str) -> tuple[Figure, Figure, Figure]:
    """Add the stiffeners' width, how far from the ends they lie, and their length; return the three."""
    ctx, choice, fit, f = leaf.ctx, leaf.choice, leaf.fit, leaf.ctx.figures
    wide = ctx.chosen("stiffener_width", f"{word}, width", choice.stiffener_width, "build.stiffener_width")
    inset = ctx.chosen("stiffener_in", f"{word} ends, in from the edge", choice.stiffener_in, "build.stiffener_in")
    end = ctx.chosen("stiffener_end", f"{word}, centre from the ends", choice.stiffener_end, "build.stiffener_end")
    shrink = f.derived(
        "season_shrink",
        "the slab shrinks, at the driest, by",
        max(0.0, -f["leaf_change_dry"].value),
        f["leaf_change_dry"],
        formula="as worked out, less than nothing is nothing",
    )
    terms = [plus(fit.width), minus(inset, 2)]
    if choice.stiffener is not Stiffener.NAILED:
        terms.append(minus(shrink))
    length = f.total(
        "stiffener_length",
        f"{word}, length",
        *terms,
        source="short by what the slab shrinks, or its ends would come out",
    )
    return wide, end, length


def _depth(choice: Slab) -> tuple[float, float]:
    """Return from where to where a stiffener lies, from the opening face: at the back, or let into it."""
    if choice.stiffener is Stiffener.CHANNELS:
        return choice.thickness - choice.stiffener_thickness, choice.thickness
    into = choice.dado if choice.stiffener is Stiffener.DADOES else 0.0
    return choice.thickness - into, choice.thickness - into + choice.stiffener_thickness


def _places(height: float, end: float, count: int) -> list[float]:
    return [end + at * (height - 2 * end) / (count - 1) for at in range(count)]


def _fix(leaf: _SlabLeaf, name: str, face: Rect, season: Figure) -> None:
    """Screws across a stiffener, the middle one round; or two nails to each strip of a nailed ledge."""
    choice = leaf.choice
    if choice.stiffener is Stiffener.NAILED:
        length = nail_for(choice.thickness + choice.stiffener_thickness)
        for strip in (each for each in leaf.parts if each.role is Role.STRIP):
            low, high = max(strip.face.x0, face.x0), min(strip.face.x1, face.x1)
            if high - low < TWO_NAILS:
                continue
            for x, y in ((low + TWO_NAILS, face.y0 + face.height / 4), (high - TWO_NAILS, face.y1 - face.height / 4)):
                leaf.fixings.append(Fixing(x, y, length, "nails", False, f"part:{name}", (0.0, _depth(choice)[1])))
        return
    front, back = _depth(choice)
    if choice.stiffener is Stiffener.CHANNELS:  # its screws go through the channel's own bottom, not over its depth
        back = front + checks.CHANNEL_WALL
    length = screw_for(back) or 0.0
    step = (face.width - 50) / (FIXINGS_EACH - 1)
    for at in range(FIXINGS_EACH):
        x = face.x0 + 25 + at * step
        leaf.fixings.append(
            Fixing(
                x,
                (face.y0 + face.y1) / 2,
                length,
                "screws",
                at != FIXINGS_EACH // 2,
                f"part:{name}",
                (back - length, back),
            )
        )
