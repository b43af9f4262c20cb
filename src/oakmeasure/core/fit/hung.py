"""A leaf hung on butts in a lining: its size, its gaps along every edge, what is left on to trim, its bevel."""

from __future__ import annotations

import math
from dataclasses import replace

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.hanging import Aim, LeafShape
from oakmeasure.core.document.job import Hanging
from oakmeasure.core.document.readings import Side
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.edges import gaps_along
from oakmeasure.core.fit.fit_result import Fit, finished, size_inside
from oakmeasure.core.fit.largest import largest_square, scribe
from oakmeasure.core.fit.swing.bevel import back_gap, least_bevel_deg, square_corner_growth
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening

AIM_WORDS = {
    Aim.WIDTH: "the least plumb width, then as tall as head and floor allow over it",
    Aim.HEIGHT: "the least height over the whole width, then as wide as the sides allow over it",
    Aim.WEIGHED: "of all upright rectangles the one of the greatest weighed size, the width counting {share:g} %",
    Aim.AREA: "of all upright rectangles the one of most area",
}


def fit_hung(ctx: Context, opening: Opening) -> Fit:
    """Work out the leaf, or pair, that hangs plumb in the opening on butts, and judge it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
    """
    choice, f = ctx.leaf.fit, ctx.figures
    pair = ctx.leaf.hanging is Hanging.PAIR
    if not pair and (choice.shape is LeafShape.SCRIBED or choice.aim is not Aim.WIDTH):
        odd = _by_outline(ctx, opening)
        if odd is not None:
            return odd
    hinge, latch = f["gap_hinge"], f["gap_latch"]
    width, height, at = size_inside(ctx, opening, width=_half(ctx, opening, hinge) if pair else None)
    meeting = f.get("gap_meeting")
    bevel = _bevel(ctx, width, meeting or latch)
    apart = meeting.value - ctx.leaf.pair.rebate if meeting else 0.0
    fitted = replace(finished(ctx, width, height, bevel, at=at), leaves=2 if pair else 1, apart=apart)
    if fitted.possible:
        across = width if not pair else f["pair_width"]
        gaps_along(ctx, opening, across, height, at)
    return fitted


def _by_outline(ctx: Context, opening: Opening) -> Fit | None:
    """Work out a leaf that is scribed, or the square one of most area; None, with a word, where the gaps leave none."""
    choice, f = ctx.leaf.fit, ctx.figures
    gaps = {side: f[figure_name(f"gap_{side.slug}")].value for side in (Side.HINGE, Side.LATCH, Side.HEAD, Side.FLOOR)}
    made = scribe(ctx, opening, gaps) if choice.shape is LeafShape.SCRIBED else None
    how = "over its widest, scribed to the opening with its gaps"
    try:
        if made is not None:
            box = made.box
        else:
            box = largest_square(opening.outline, gaps, choice.aim, width_counts=choice.width_weight_percent / 100)
            how = AIM_WORDS[choice.aim].format(share=choice.width_weight_percent)
    except InputError:
        return None
    inputs = (
        opening.clear_width,
        opening.clear_height,
        *(f[figure_name(f"gap_{edge}")] for edge in ("hinge", "latch", "head", "floor")),
    )
    width = f.derived("leaf_width", "leaf width", box.x1 - box.x0, *inputs, formula=how)
    height = f.derived("leaf_height", "leaf height", box.y1 - box.y0, *inputs, formula=how)
    bevel = _bevel(ctx, width, f["gap_latch"])
    outline = tuple((x - box.x0, y - box.y0) for x, y in made.outline) if made is not None else ()
    fitted = replace(finished(ctx, width, height, bevel, at=(box.x0, box.y0)), outline=outline)
    if fitted.possible:
        gaps_along(ctx, opening, width, height, (box.x0, box.y0), is_scribed=made is not None)
    return fitted


def _half(ctx: Context, opening: Opening, hinge: Figure) -> Figure:
    """Add one leaf of a pair: (clear − 2·hinge gap − meeting gap)/2; a rebate adds half its overlap to each."""
    choice, f = ctx.leaf.pair, ctx.figures
    label, latch = "gap where they meet", f["gap_latch"]
    if choice.meeting is None:
        origin = fixed("pair.meeting", source="as the gap at the latch, until it is set")
        meeting = f.given("gap_meeting", label, latch.value, origin)
    else:
        meeting = ctx.chosen("gap_meeting", label, choice.meeting, "pair.meeting")
    rebate = f.given("rebate", "rebated meeting, overlap", choice.rebate, fixed("pair.rebate"))
    both = f.total(
        "pair_both",
        "both leaves together",
        plus(opening.clear_width),
        minus(hinge, 2),
        minus(meeting),
        *([plus(rebate)] if choice.rebate else []),
    )
    width = f.total("leaf_width", "leaf width, each of the pair", plus(both, 0.5))
    f.total("pair_width", "the pair, hinge edge to hinge edge", plus(opening.clear_width), minus(hinge, 2))
    return width


def _bevel(ctx: Context, width: Figure, gap: Figure) -> Figure:
    figures = ctx.figures
    school = ctx.chosen(
        "bevel", "bevel of the latch edge", ctx.leaf.fit.bevel_deg, "fit.bevel_deg", Unit.DEG, rule="bevel_deg"
    )
    margin = ctx.chosen(
        "bevel_margin", "margin kept as the corner passes", ctx.leaf.fit.bevel_margin, "fit.bevel_margin"
    )
    thickness, knuckle, setback = figures["thickness"], figures["butt_knuckle"], figures["butt_setback"]
    plan = {"width": width.value, "thickness": thickness.value, "knuckle": knuckle.value, "setback": setback.value}
    inputs = (width, thickness, knuckle, setback)
    try:
        growth = square_corner_growth(**plan)
        least_value = least_bevel_deg(**plan, gap=gap.value, margin=margin.value)
    except InputError:
        ctx.stop(
            "no-bevel",
            "No bevel lets the latch edge pass",
            f"{ctx.fmt(width)} wide and {ctx.fmt(thickness)} thick cannot swing past its lining.",
            Remedy("A wider gap or a thinner leaf"),
            grounds=Grounds("leaf_width"),
        )
        return school
    figures.derived(
        "square_growth",
        "a square back corner swings out by",
        growth,
        *inputs,
        formula="√((w + s)² + t² + 2tp) − (w + s)",
    )
    least = figures.derived(
        "least_bevel",
        "least bevel",
        least_value,
        *inputs,
        gap,
        margin,
        formula="atan(((w + s) − √((w + s + gap − margin)² − t² − 2tp)) ÷ t)",
        unit=Unit.DEG,
    )
    _judge_bevel(ctx, gap, school, least)
    return school


def _judge_bevel(ctx: Context, gap: Figure, school: Figure, least: Figure) -> None:
    """Judge the bevel that is planed against the least that passes."""
    figures, thickness = ctx.figures, ctx.figures["thickness"]
    behind = figures.derived(
        "latch_gap_back",
        "gap at the back of the latch edge",
        back_gap(gap=gap.value, thickness=thickness.value, bevel_deg=school.value),
        gap,
        thickness,
        school,
        formula="gap + t × tan(bevel)",
    )
    numbers = f"Least {ctx.fmt(least)}, planed {ctx.fmt(school)}: the gap is {ctx.fmt(behind)} at the back."
    if school.value + 1e-9 < least.value:
        enough = math.ceil(least.value * 10) / 10
        ctx.stop(
            "bevel-short",
            "The latch edge will not pass",
            numbers,
            Remedy(f"Bevel {ctx.show.value(enough, Unit.DEG)}", "fit.bevel_deg", enough),
            grounds=Grounds("least_bevel", "edge:latch", rule="margin of the gap kept as the corner passes"),
        )
    else:
        ctx.fine("bevel", "The latch edge passes", numbers, grounds=Grounds("least_bevel", "edge:latch"))
