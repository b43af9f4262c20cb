"""Leaves that slide in front of the wall or into it, that pass each other, or that cover and lift off."""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import HAIR
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, derived, fixed, minus, plus
from oakmeasure.core.fit.bypass_sums import Bypass, bypassing, least_centre
from oakmeasure.core.fit.fit_result import Fit, finished, square_edge
from oakmeasure.core.fit.gear import from_set, from_set_or, tallest
from oakmeasure.core.fit.slide_stack import stack_up
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening

OVERLAP_HEAD = 45.0  # of a leaf before its wall: common practice, no source
USUAL_OVERLAP_HEAD = {Hanging.POCKET: 12.0}  # its top stands in the slot under the track: common practice, no source
# Until a set is chosen: common practice, no source
ROLLER = 70.0
ROLLER_IN = 35.0
DROP = 20.0


def fit_slide(ctx: Context, opening: Opening) -> Fit:
    """Work out a leaf before its opening: its size by its overlaps, its way, its track, what it must clear.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
    """
    choice, f = ctx.leaf.slide, ctx.figures
    hanging = ctx.leaf.hanging
    left = f.given("overlap_hinge", "overlap at the hinge side", choice.overlap_hinge, fixed("slide.overlap_hinge"))
    right = f.given("overlap_latch", "overlap at the latch side", choice.overlap_latch, fixed("slide.overlap_latch"))
    leaves, apart = 1, 0.0
    if hanging.bypasses:
        width, passing = _bypass(ctx, opening, left)
        leaves, apart = 2, -ctx.figures["centre"].value
        clear = passing.clear if passing else 0.0
    else:
        width = _width(ctx, opening, left, right)
        clear = opening.clear_width.value
    height = _height(ctx, opening)
    if hanging.slides:
        _way(ctx, opening, clear)
        _track(ctx, opening, width)
        _floor(ctx)
    stack_up(ctx, leaves)
    foot = opening.floor_high.value
    peak = ctx.figures.get("floor_peak")
    foot = max(foot, peak.value if peak is not None and hanging.slides else foot) + ctx.figures["gap_floor"].value
    at = (opening.hinge_in.value - left.value, foot)
    fitted = replace(finished(ctx, width, height, square_edge(ctx), at=at), leaves=leaves, apart=apart)
    if fitted.possible:
        _gear(ctx, opening, height)
    return fitted


def _width(ctx: Context, opening: Opening, left: Figure, right: Figure) -> Figure:
    size = ctx.leaf.slide.size_width
    if size is not None:
        width = ctx.reading("leaf_width", "leaf width, the slab at hand", size, "slide.size_width")
        covered = width.value - opening.clear_width.value
        if covered < left.value + right.value - HAIR:
            ctx.warn(
                "slab-narrow",
                "The slab covers less than was wished",
                f"{ctx.fmt(width)} over {ctx.fmt(opening.clear_width)}: {ctx.fmt(covered / 2)} a side.",
                Remedy("A wider slab, or less overlap"),
                grounds=Grounds("leaf_width"),
            )
        return width
    return ctx.figures.total("leaf_width", "leaf width", plus(opening.clear_width), plus(left), plus(right))


def _height(ctx: Context, opening: Opening) -> Figure:
    choice = ctx.leaf.slide
    up = _under_track(ctx) if choice.track_up is not None and ctx.leaf.hanging.slides else None
    if choice.size_height is not None:
        slab = ctx.reading("leaf_height", "leaf height, the slab at hand", choice.size_height, "slide.size_height")
        if up is not None:
            _slab_under_track(ctx, slab, up)
        return slab
    if up is not None:
        height = ctx.figures.total("leaf_height", "leaf height", plus(up))
        over = derived(
            "overlap_head",
            "overlap at the head",
            height.value + ctx.figures["gap_floor"].value - opening.clear_height.value,
            height,
            ctx.figures["gap_floor"],
            opening.clear_height,
            formula="leaf + floor gap − opening",
        )
        ctx.figures.add(over)
        if over.value < 0:
            ctx.warn(
                "head-open",
                "The leaf does not reach the opening's head",
                f"Under the track that is up it ends {ctx.fmt(-over.value)} below it.",
                Remedy("Raise the track, or close the gap with a pelmet"),
                grounds=Grounds("overlap_head"),
            )
        return height
    head = ctx.figures.given(
        "overlap_head",
        "overlap at the head",
        USUAL_OVERLAP_HEAD.get(ctx.leaf.hanging, OVERLAP_HEAD) if choice.overlap_head is None else choice.overlap_head,
        fixed("slide.overlap_head", source="" if choice.overlap_head is not None else "usual for this way of hanging"),
    )
    floor = ctx.figures["gap_floor"]
    return ctx.figures.total(
        "leaf_height",
        "leaf height",
        plus(opening.clear_height),
        plus(head),
        minus(floor),
        source="opening + head overlap − floor gap; an overlap may be negative",
    )


def _under_track(ctx: Context) -> Figure:
    """Add the leaf that hangs under a track that is up: floor to track − drop − floor gap, over the highest floor."""
    choice, f = ctx.leaf.slide, ctx.figures
    assert choice.track_up is not None
    up = ctx.reading("track_up", "floor to the underside of the track", choice.track_up, "slide.track_up")
    drop = from_set_or(ctx, "drop", DROP)
    rise = f.get("floor_rise")
    terms = [plus(up), minus(drop), minus(f["gap_floor"])]
    if rise is not None and rise.value > 0:
        terms.append(minus(rise))
    return f.total("under_track", "leaf that goes under the track", *terms)


def _slab_under_track(ctx: Context, slab: Figure, most: Figure) -> None:
    """Judge a slab at hand under a track that is up already."""
    over = slab.value - most.value
    if over > HAIR:
        ctx.stop(
            "under-track",
            "The slab does not go under the track",
            f"{ctx.fmt(slab)} tall; {ctx.fmt(most)} go under it: {ctx.fmt(over)} too much.",
            Remedy(f"Trim it to {ctx.fmt(most)}", "slide.size_height", most.value),
            Remedy("Or raise the track"),
            grounds=Grounds("under_track"),
        )


def _bypass(ctx: Context, opening: Opening, side: Figure) -> tuple[Figure, Bypass | None]:
    """Add track and leaf of two that pass each other; a STOP where their rollers cannot."""
    choice, f = ctx.leaf.slide, ctx.figures
    rail = ctx.leaf.hanging is Hanging.BYPASS_RAIL
    roller, roller_in = _roller(ctx) if rail else (0.0, 0.0)
    least = least_centre(roller=roller, roller_in=roller_in) if rail else 0.0
    value = choice.centre if choice.centre is not None else max(least, 60.0 if not rail else least)
    centre = f.given("centre", "overlap of the leaves in the middle", value, fixed("slide.centre"))
    track = f.total("track_needed", "track", plus(opening.clear_width), plus(side, 2))
    width = f.total("leaf_width", "leaf width, each of the two", plus(track, 0.5), plus(centre, 0.5))
    try:
        passing = bypassing(
            opening=opening.clear_width.value,
            side=side.value,
            centre=value,
            one_rail=rail,
            roller=roller,
            roller_in=roller_in,
        )
    except InputError as error:
        remedy = Remedy(f"Overlap {ctx.fmt(least)}", "slide.centre", least) if value < least else Remedy("Less overlap")
        ctx.stop(
            "bypass",
            "The two leaves cannot pass",
            f"They overlap {ctx.fmt(centre)} in the middle; needs {error.need}.",
            remedy,
            grounds=Grounds("centre", rule="on one rail the wheels stand between each other"),
        )
        return width, None
    return width, passing


def _roller(ctx: Context) -> tuple[float, float]:
    """Return the width of a roller and its centre from the leaf's edge, mm."""
    return from_set_or(ctx, "roller", ROLLER).value, from_set_or(ctx, "roller_in", ROLLER_IN).value


def _way(ctx: Context, opening: Opening, clear: float) -> None:
    """Add the clear way, less a pull that cannot pass the jamb."""
    choice, f = ctx.leaf.slide, ctx.figures
    hanging = ctx.leaf.hanging
    inputs = [opening.clear_width, ctx.figures["overlap_hinge"]]
    how = "the opening, the leaf slid right past it"
    if hanging.bypasses:
        inputs += [ctx.figures["leaf_width"]]
        how = "opening − leaf + side overlap" + (", less a roller" if hanging is Hanging.BYPASS_RAIL else "")
    way = clear - choice.pull
    if choice.pull:
        inputs.append(f.given("pull", "pull that cannot pass the jamb", choice.pull, fixed("slide.pull")))
        how += ", less the pull"
    figure = f.derived("clear_way", "clear way", way, *inputs, formula=how)
    ctx.fine(
        "clear-way",
        f"The clear way is {ctx.fmt(figure)}",
        f"Of an opening of {ctx.fmt(opening.clear_width)}.",
        Remedy("Access widths: local code decides"),
        grounds=Grounds("clear_way"),
    )


def _track(ctx: Context, opening: Opening, width: Figure) -> None:
    """Add the track that is needed and judge the one at hand, and the free wall beside the opening."""
    choice, f, hanging = ctx.leaf.slide, ctx.figures, ctx.leaf.hanging
    needed = ctx.figures.get("track_needed") or f.total("track_needed", "track, twice the leaf", plus(width, 2))
    if choice.track is not None:
        there = f.given("track", "track at hand", choice.track, fixed("slide.track"))
        rest = there.value - needed.value
        if there.value < width.value:
            ctx.stop(
                "track-short",
                "The track is shorter than its leaf",
                f"{ctx.fmt(there)} for a leaf of {ctx.fmt(width)}.",
                Remedy("A longer track"),
                grounds=Grounds("track"),
            )
        elif rest < 0:
            ctx.warn(
                "track-short",
                "The leaf does not clear the opening",
                f"The track is {ctx.fmt(there)}, {ctx.fmt(-rest)} short of {ctx.fmt(needed)}.",
                Remedy("A longer track, or take the way that is left"),
                grounds=Grounds("track_needed"),
            )
        else:
            ctx.fine(
                "track",
                "The track is long enough",
                f"Cut {ctx.fmt(rest)} off, to {ctx.fmt(needed)}.",
                grounds=Grounds("track_needed"),
            )
    if hanging.bypasses or hanging is Hanging.POCKET or choice.free_wall is None:
        return
    stop = f.given("stop", "kept free for the stop", choice.stop, fixed("slide.stop"))
    wanted = f.total(
        "free_wall_needed", "free wall that it needs", plus(width), minus(ctx.figures["overlap_latch"]), plus(stop)
    )
    free = f.given("free_wall", "free wall beside the opening", choice.free_wall, fixed("slide.free_wall"))
    if free.value < wanted.value:
        lost = wanted.value - free.value
        ctx.warn(
            "free-wall",
            "The wall beside is too short",
            f"{ctx.fmt(free)} free; the leaf needs {ctx.fmt(wanted)}: {ctx.fmt(lost)} stay in the way.",
            Remedy("A pair, by-passing leaves, or a leaf that goes the other way"),
            grounds=Grounds("free_wall_needed"),
        )


def _floor(ctx: Context) -> None:
    rise = ctx.figures.get("floor_rise")
    if rise is None or rise.value < HAIR:
        return
    ctx.figures.total(
        "hung_higher", "hung higher, for the floor along its way", plus(rise), source="set from the highest point"
    )
    ctx.warn(
        "hung-higher",
        "Hang it from the highest floor",
        f"The floor rises {ctx.fmt(rise)} along the travel: track and leaf go up by as much; the size stays.",
        Remedy("Mark the track from the highest point, not at the opening"),
        grounds=Grounds("hung_higher"),
    )


def _gear(ctx: Context, opening: Opening, height: Figure) -> None:
    """Judge whether the opening is as tall as the set needs."""
    f = ctx.figures
    gear = from_set(ctx, "gear_height")
    if gear is None:
        return
    needed = f.total("opening_needed", "opening that the set needs", plus(height), plus(gear))
    there = f.derived(
        "opening_there", "opening, floor to head", tallest(opening), opening.clear_height, formula="where it is tallest"
    )
    short = f.total("gear_short", "missing for the set", plus(needed), minus(there))
    if short.value > HAIR:
        shorter = height.value - short.value
        ctx.stop(
            "gear-short",
            "The set does not fit the opening",
            f"It needs {ctx.fmt(needed)}, there is {ctx.fmt(there)}: {ctx.fmt(short)} short.",
            Remedy(f"A leaf of {ctx.fmt(shorter)}: trim it", "slide.size_height", shorter),
            Remedy("Or another of the ways out, side by side"),
            grounds=Grounds("gear_short", rule="tracks state the opening they need: compare before cutting"),
        )
    else:
        ctx.fine(
            "gear",
            "The set fits the opening",
            f"It needs {ctx.fmt(needed)} of {ctx.fmt(there)}.",
            grounds=Grounds("opening_needed"),
        )
