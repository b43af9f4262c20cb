"""A leaf hung on butts in a lining: its size, its gaps along every edge, what is left on to trim, its bevel."""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.context import Context
from oakmeasure.core.errors import InputError
from oakmeasure.core.fit.swing import back_gap, least_bevel_deg, square_corner_growth
from oakmeasure.core.job import Hanging
from oakmeasure.core.survey.opening import Opening
from oakmeasure.core.units import Unit
from oakmeasure.core.verdicts import Level, Remedy, Stage
from oakmeasure.core.working import Figure, derived, minus, plus, total

LEAST_LEAF_WIDTH, LEAST_LEAF_HEIGHT = 150.0, 250.0
UNEVEN = 3.0  # a gap that varies by more than this shows: common practice, no source


@dataclass(frozen=True, slots=True)
class Fit:
    """The leaf in its opening. x_hinge_edge: the leaf's hinge edge in the opening's coordinates; y_foot: its foot.

    The glued size is the size at the bench, with the trimming allowance still on.
    """

    width: Figure
    height: Figure
    trim_side: Figure
    trim_height: Figure
    glued_width: Figure
    glued_height: Figure
    x_hinge_edge: float
    y_foot: float
    bevel: Figure
    possible: bool


def gaps(ctx: Context) -> None:
    """Add the gaps round the leaf; a lining made to a leaf rests on them, and so does the floor's verdict."""
    choice = ctx.leaf.fit
    ctx.chosen("gap_hinge", "gap at the hinges", choice.gap_hinge, "fit.gap_hinge")
    ctx.chosen("gap_latch", "gap at the latch", choice.gap_latch, "fit.gap_latch")
    ctx.chosen("gap_head", "gap at the head", choice.gap_head, "fit.gap_head")
    ctx.chosen("gap_floor", "gap over the floor", choice.gap_floor, "fit.gap_floor")


def fit(ctx: Context, opening: Opening) -> Fit:
    """Work out the square leaf that hangs plumb in the opening, and judge it."""
    choice = ctx.leaf.fit
    hinge, latch, head, floor = (ctx.figures[f"gap_{edge}"] for edge in ("hinge", "latch", "head", "floor"))
    width = ctx.figures.add(total("leaf_width", "leaf width", plus(opening.clear_width), minus(hinge), minus(latch)))
    height = ctx.figures.add(total("leaf_height", "leaf height", plus(opening.clear_height), minus(head), minus(floor)))
    side = ctx.chosen("trim_side", "trimming allowance, each side", choice.trim_side, "fit.trim_side")
    ends = ctx.chosen("trim_height", "trimming allowance, top and bottom each", choice.trim_height, "fit.trim_height")
    glued_width = ctx.figures.add(total("glued_width", "width at the glue-up", plus(width), plus(side, 2)))
    glued_height = ctx.figures.add(total("glued_height", "height at the glue-up", plus(height), plus(ends, 2)))
    possible = width.value >= LEAST_LEAF_WIDTH and height.value >= LEAST_LEAF_HEIGHT
    if ctx.leaf.hanging is Hanging.OPEN:
        possible = False
        ctx.say("hanging-open", Level.LOOK, Stage.FIT, "How it hangs is not decided",
                f"The opening is known: {ctx.show.size(opening.clear_width.value, opening.clear_height.value)} clear. "
                "The leaf follows from the way of hanging.",
                Remedy(f"Hang it {Hanging.LINING}", "hanging", Hanging.LINING), figure="clear_width")  # fmt: skip
    elif not possible:
        ctx.say(
            "no-leaf",
            Level.STOP,
            Stage.FIT,
            "No leaf is left",
            f"The gaps leave {ctx.show.size(width.value, height.value)}; a leaf needs at least "
            f"{ctx.show.size(LEAST_LEAF_WIDTH, LEAST_LEAF_HEIGHT)}.",
            Remedy("Smaller gaps, or read the opening again"),
            figure="leaf_width",
        )
    bevel = _bevel(ctx, width, latch)
    if possible:
        _edges(ctx, opening, width, height, hinge, floor)
    return Fit(
        width,
        height,
        side,
        ends,
        glued_width,
        glued_height,
        opening.hinge_in.value + hinge.value,
        opening.floor_high.value + floor.value,
        bevel,
        possible,
    )


def _bevel(ctx: Context, width: Figure, gap: Figure) -> Figure:
    figures = ctx.figures
    school = ctx.chosen(
        "bevel", "bevel of the latch edge", ctx.leaf.fit.bevel_deg, "fit.bevel_deg", Unit.DEG, rule="bevel_deg"
    )
    margin = ctx.rule("bevel_margin", "margin kept as the corner passes")
    thickness, knuckle, setback = figures["thickness"], figures["butt_knuckle"], figures["butt_setback"]
    plan = {"width": width.value, "thickness": thickness.value, "knuckle": knuckle.value, "setback": setback.value}
    inputs = (width, thickness, knuckle, setback)
    try:
        growth = square_corner_growth(**plan)
        least_value = least_bevel_deg(**plan, gap=gap.value, margin=margin.value)
    except InputError:
        ctx.say(
            "no-bevel",
            Level.STOP,
            Stage.FIT,
            "No bevel lets the latch edge pass",
            f"{ctx.fmt(width)} wide and {ctx.fmt(thickness)} thick cannot swing past its lining.",
            Remedy("A wider gap or a thinner leaf"),
            figure="leaf_width",
        )
        return school
    figures.add(
        derived(
            "square_growth",
            "a square back corner swings out by",
            growth,
            Unit.MM,
            *inputs,
            formula="√((w + s)² + t² + 2tp) − (w + s)",
        )
    )
    least = figures.add(
        derived(
            "least_bevel",
            "least bevel",
            least_value,
            Unit.DEG,
            *inputs,
            gap,
            margin,
            formula="atan(((w + s) − √((w + s + gap − margin)² − t² − 2tp)) ÷ t)",
        )
    )
    behind = figures.add(
        derived(
            "latch_gap_back",
            "gap at the back of the latch edge",
            back_gap(gap=gap.value, thickness=thickness.value, bevel_deg=school.value),
            Unit.MM,
            gap,
            thickness,
            school,
            formula="gap + t × tan(bevel)",
        )
    )
    numbers = f"Least {ctx.fmt(least)}, planed {ctx.fmt(school)}: the gap is {ctx.fmt(behind)} at the back."
    if school.value + 1e-9 < least.value:
        enough = math.ceil(least.value * 10) / 10
        ctx.say(
            "bevel-short",
            Level.STOP,
            Stage.FIT,
            "The latch edge will not pass",
            numbers,
            Remedy(f"Bevel {ctx.show.value(enough, Unit.DEG)}", "fit.bevel_deg", enough),
            rule="margin of the gap kept as the corner passes",
            where="edge:latch",
            figure="least_bevel",
        )
    else:
        ctx.say(
            "bevel", Level.FINE, Stage.FIT, "The latch edge passes", numbers, where="edge:latch", figure="least_bevel"
        )
    return school


def _edges(ctx: Context, opening: Opening, width: Figure, height: Figure, hinge: Figure, floor: Figure) -> None:
    """Add the gap at both ends of every edge; say where a square leaf leaves an uneven one."""
    x0, y0 = opening.hinge_in.value + hinge.value, opening.floor_high.value + floor.value
    x1, y1 = x0 + width.value, y0 + height.value
    ends = {
        "hinge side": (("at the foot", x0 - opening.hinge_foot[0]), ("at the head", x0 - opening.hinge_head[0])),
        "latch side": (("at the foot", opening.latch_foot[0] - x1), ("at the head", opening.latch_head[0] - x1)),
        "head": (("at the hinges", opening.hinge_head[1] - y1), ("at the latch", opening.latch_head[1] - y1)),
        "floor": (("at the hinges", y0 - opening.hinge_foot[1]), ("at the latch", y0 - opening.latch_foot[1])),
    }
    uneven = False
    for edge, ((first, one), (second, other)) in ends.items():
        for where, value in ((first, one), (second, other)):
            name = f"gap_{edge.split()[0]}_{where.split()[-1]}"
            ctx.figures.add(
                derived(
                    name,
                    f"gap, {edge}, {where}",
                    value,
                    Unit.MM,
                    opening.clear_width,
                    width,
                    formula="from the adjusted corner to the square leaf",
                )
            )
        if abs(one - other) > UNEVEN:
            uneven = True
            ctx.say(
                f"uneven-{edge.split()[0]}",
                Level.LOOK,
                Stage.FIT,
                f"The gap along the {edge} is uneven",
                f"A square leaf leaves {ctx.fmt(one)} {first} and {ctx.fmt(other)} {second}.",
                Remedy("Pack the lining, or scribe that edge out of the trimming allowance"),
                rule=f"a difference over {ctx.fmt(UNEVEN)} shows",
                where=f"edge:{edge.split()[0]}",
                figure=f"gap_{edge.split()[0]}_{first.split()[-1]}",
            )
    if not uneven:
        ctx.say(
            "even",
            Level.FINE,
            Stage.FIT,
            "The gaps are even",
            f"A square leaf keeps every gap within {ctx.fmt(UNEVEN)} along its edge.",
            figure="leaf_width",
        )
