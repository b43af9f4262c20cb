"""Choices side by side: the ways out where something does not suit, track sets, bevels, and make, alter or buy."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from oakmeasure.core.base.units import HAIR, MM2_PER_M2, Unit
from oakmeasure.core.document.hanging import Hanging, TrackSet
from oakmeasure.core.figures.check import Level, Remedy
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.bought_leaf import DOOR_HEIGHT, DOOR_WIDTH, nearest_slab, slab_sizes
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.fit.gear import GearPlace, backing_for, length_to_buy, misses, overlap_left, sets_for
from oakmeasure.core.fit.swing.bevel import back_gap
from oakmeasure.core.leaf.gap_choice import gap_that_opens
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.data import table

WAY_COLUMNS = ("way", "cost", "hours", "dirt", "what it means")


@dataclass(frozen=True, slots=True)
class Option:
    """One of the choices."""

    cells: tuple[str, ...]
    """A text for each column."""
    level: Level = Level.OK
    """Whether it does."""
    remedy: Remedy | None = None
    """Takes it by one click."""
    is_taken: bool = False
    """Whether it is what the leaf has now."""


@dataclass(frozen=True, slots=True)
class Comparison:
    """Choices of one kind."""

    title: str
    """Its heading."""
    about: str
    """What is compared, in one line."""
    columns: tuple[str, ...]
    """What is compared."""
    options: tuple[Option, ...]
    """The choices side by side."""


def side_by_side(ctx: Context, fitted: Fit, place: GearPlace | None) -> tuple[Comparison, ...]:
    """Return everything that can be compared at Fit.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fitted: Size of the leaf and its gaps, mm.
        place: Of a track set; None for a leaf on hinges.
    """
    found: list[Comparison] = []
    if place is not None:
        found += [*_height_ways(ctx, fitted, place), *_wall_ways(ctx)]
    found += _projection_ways(ctx)
    if place is not None:
        found.append(_sets(ctx, place))
    found += _make_alter_buy(ctx, fitted)
    if ctx.leaf.hanging.has_butts and "least_bevel" in ctx.figures:
        found.append(_bevels(ctx))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class Alternative:
    """A way out, before it is said what it costs."""

    key: str
    """Its key in data/ways_out.toml."""
    means: str = ""
    """What it means, in words."""
    size: float = 0.0
    """Length that is cut, mm."""
    area: float = 0.0
    """Of the leaf's face, m²."""
    extra: float = 0.0
    """Cost of what else is bought, in the job's money."""
    title: str = ""
    """What is done, in a few words; "" for the table's own."""
    level: Level = Level.OK
    """How bad it is."""
    remedy: Remedy | None = None
    """What takes it; None where it is taken, or cannot be."""

    def costed(self, ctx: Context) -> Option:
        """Return it with what it costs: hours × the hour's price + material.

        Args:
            ctx: The leaf's context, whose rules have the hour's price.
        """
        row = table("ways_out")[self.key]
        hours = row["hours"] + row.get("per_100", 0) * self.size / 100 + row.get("hours_per_m2", 0) * self.area
        cost = hours * ctx.rules.hour_price.value + row["material"] + row.get("per_m2", 0) * self.area + self.extra
        words = "; ".join(each for each in (self.means, row.get("says", "")) if each)
        cells = (self.title or row["title"], f"{cost:.0f}", f"{hours:.1f}", row["dirt"], words)
        return Option(cells, self.level, self.remedy)


def _dearest_last(options: Iterator[Option] | list[Option]) -> tuple[Option, ...]:
    """Return what does first, each kind by its cost."""
    return tuple(sorted(options, key=lambda each: (each.level is not Level.OK, float(each.cells[1]))))


# --- the ways out ------------------------------------------------------------------------------------------


def _height_ways(ctx: Context, fitted: Fit, place: GearPlace) -> list[Comparison]:
    """What to do where the set needs a taller opening, or more wall over it, than there is."""
    shorts = [(name, ctx.figures[name].value) for name in ("gear_short", "headroom_short") if name in ctx.figures]
    name, short = max(shorts, key=lambda each: each[1], default=("", 0.0))
    if short <= HAIR:
        return []
    fmt, height = ctx.fmt, fitted.height.value
    options = [
        Alternative(
            "other_gear",
            f"the {each.name} fits",
            extra=each.price,
            title=each.name,
            remedy=Remedy("", "slide.track_set", each),
        ).costed(ctx)
        for each in sets_for(place.way).values()
        if not misses(each, place, ctx.show)
    ]
    if name == "gear_short":
        options += _trim_ways(ctx, fitted, short)
        gains = table("ways_out")["thinner_lining"]["gains"]
        enough = short <= gains
        options.append(
            Alternative(
                "thinner_lining",
                f"gains {fmt(gains)}" + ("" if enough else ", not enough by itself"),
                level=Level.OK if enough else Level.WARNING,
            ).costed(ctx)
        )
        options.append(Alternative("cut_head", f"{fmt(short)} higher", size=short, level=Level.WARNING).costed(ctx))
        area = fitted.width.value * (height - short) / MM2_PER_M2
        options.append(
            Alternative("order_special", f"{ctx.show.size(fitted.width.value, height - short)}", area=area).costed(ctx)
        )
    else:
        lower = overlap_left(ctx, ctx.figures[figure_name(name)])
        options.append(
            Alternative(
                "less_overlap",
                f"{fmt(lower)} over the head",
                remedy=Remedy("", "slide.overlap_head", lower),
                level=Level.OK if lower >= 0 else Level.WARNING,
            ).costed(ctx)
        )
    what = "the opening is too low" if name == "gear_short" else "the wall over the opening is too low"
    about = f"{fmt(short)} are missing: {what} for this set."
    return [Comparison("Ways out", about, WAY_COLUMNS, _dearest_last(options))]


def _trim_ways(ctx: Context, fitted: Fit, short: float) -> Iterator[Option]:
    """Trimming the leaf: half at the top, half at the foot, out of its solid edge."""
    height, solid = fitted.height.value, ctx.rule("solid_edge", "solid edge of a bought slab").value
    each = short / 2
    is_slab = ctx.leaf.slide.size_height is not None
    means = f"{ctx.fmt(each)} off top and foot"
    level = Level.OK
    if is_slab:
        left = solid - each
        means += f", {ctx.fmt(left)} of solid edge left" if left >= 0 else f", its solid edge is only {ctx.fmt(solid)}"
        level = Level.OK if left >= 0 else Level.WARNING
    yield Alternative(
        "trim_slab", means, size=short, level=level, remedy=Remedy("", "slide.size_height", height - short)
    ).costed(ctx)


def _wall_ways(ctx: Context) -> list[Comparison]:
    """What to do where the leaf has no room to slide to."""
    needed, free = ctx.figures.get("free_wall_needed"), ctx.figures.get("free_wall")
    if needed is None or free is None or free.value >= needed.value:
        return []
    lost = needed.value - free.value
    left = ctx.figures["clear_width"].value - lost
    options = [
        Alternative("less_way", f"{ctx.fmt(left)} to walk through", level=Level.WARNING).costed(ctx),
        Alternative("two_leaves", "half the way at a time", remedy=Remedy("", "hanging", Hanging.BYPASS_TRACKS)).costed(
            ctx
        ),
        Alternative(
            "other_gear",
            "into the wall; opens it up: look for pipes and wires",
            title="A pocket in the wall",
            extra=min(each.price for each in sets_for(Hanging.POCKET).values()),
            level=Level.WARNING,
            remedy=Remedy("", "hanging", Hanging.POCKET),
        ).costed(ctx),
    ]
    about = f"{ctx.fmt(lost)} of free wall are missing beside the opening."
    return [Comparison("Ways out", about, WAY_COLUMNS, _dearest_last(options))]


def _projection_ways(ctx: Context) -> list[Comparison]:
    """What a wish for the least projection costs."""
    wish, out = ctx.figures.get("projection"), ctx.figures.get("stands_out")
    if wish is None or out is None or out.value - wish.value <= HAIR:
        return []
    over = out.value - wish.value
    leaves = 2 if ctx.leaf.hanging.bypasses else 1
    thinner = ctx.figures["thickness"].value - over / leaves
    options = [
        Alternative(
            "give_up", f"{ctx.fmt(out)} out of the wall", remedy=Remedy("", "slide.projection", out.value)
        ).costed(ctx)
    ]
    if thinner >= 16:
        options.append(
            Alternative("thinner_leaf", f"{ctx.fmt(thinner)} thick", remedy=ctx.thickness_remedy("", thinner)).costed(
                ctx
            )
        )
    off = ctx.figures.get("stand_off_whole") or ctx.figures.get("stand_off")  # of the track: it stays
    gained = ctx.figures["back_off"].value - max(
        ctx.leaf.slide.running_clearance, off.value if off is not None else 0.0
    )
    if gained > HAIR:
        enough = gained >= over
        options.append(
            Alternative(
                "move_behind",
                f"gains {ctx.fmt(gained)}" + ("" if enough else ", not enough by itself"),
                level=Level.OK if enough else Level.WARNING,
            ).costed(ctx)
        )
    about = f"It stands {ctx.fmt(over)} further out than was wished."
    return [Comparison("Ways out", about, WAY_COLUMNS, _dearest_last(options))]


# --- sets, slabs, bevels -----------------------------------------------------------------------------------


def _sets(ctx: Context, place: GearPlace) -> Comparison:
    """Every set of the table for this way of hanging, against the opening, the leaf and the wall."""
    options = [_set(ctx, each, place) for each in sets_for(place.way).values()]
    options.sort(key=lambda each: (each.level is not Level.OK, float(each.cells[1])))
    about = "Opening, headroom, thickness, weight, length of track; made-up makers, put in your set's sheet."
    return Comparison("Track sets", about, ("set", "price", "needs", "track", "does it fit"), tuple(options))


def _set(ctx: Context, each: TrackSet, place: GearPlace) -> Option:
    found = misses(each, place, ctx.show)
    needs = each.opening if each.opening is not None else place.over_head + each.above + each.lift
    where = "beyond the leaf" if each.opening is not None else "over the opening"
    buy = length_to_buy(each, place.track)
    backing = backing_for(each, place)
    words = "; ".join(miss.words for miss in found) or "fits"
    if not found and backing > HAIR:
        words = f"fits, with a backing board of {ctx.fmt(backing)}"
    cells = (each.name, f"{each.price:.0f}", f"{ctx.fmt(needs)} {where}", ctx.fmt(buy) if buy else "–", words)
    level = Level.WARNING if found or backing > HAIR else Level.OK
    is_taken = ctx.leaf.slide.track_set == each
    return Option(cells, level, None if is_taken else Remedy("", "slide.track_set", each), is_taken)


def _make_alter_buy(ctx: Context, fitted: Fit) -> list[Comparison]:
    """Making the leaf, altering the nearest slab, ordering it to size."""
    width, height = fitted.width.value, fitted.height.value
    if width < DOOR_WIDTH or height < DOOR_HEIGHT or ctx.leaf.hanging.is_cabinet:
        return []
    area, several = (
        width * height * fitted.leaves / MM2_PER_M2,
        f"{fitted.leaves} leaves, " if fitted.leaves > 1 else "",
    )
    options = [
        Alternative("make", f"{several}from boards, as drawn", area=area).costed(ctx),
        Alternative("order_special", f"{several}{ctx.show.size(width, height)}", area=area).costed(ctx),
    ]
    found = nearest_slab(width=width, height=height, sizes=slab_sizes())
    if found is not None:
        solid = ctx.rule("solid_edge", "solid edge of a bought slab").value
        off = max(found.each_edge, found.off_height / 2)
        means = f"{ctx.show.size(found.width, found.height)}: {ctx.fmt(found.each_edge)} off each edge, "
        means += f"{ctx.fmt(found.off_height)} off the height"
        if off > solid:
            means += f"; its solid edge is only {ctx.fmt(solid)}"
        options.append(
            Alternative(
                "alter_slab",
                means,
                size=found.off_width + found.off_height,
                area=found.width * found.height * fitted.leaves / MM2_PER_M2,
                level=Level.OK if off <= solid else Level.WARNING,
            ).costed(ctx)
        )
    about = f"For {ctx.show.size(width, height)}; hours at {ctx.rules.hour_price.value:g}."
    return [Comparison("Make, alter or buy", about, WAY_COLUMNS, _dearest_last(options))]


def _bevels(ctx: Context) -> Comparison:
    """The least bevel beside those of the schools, with the gap that each leaves at the back."""
    f = ctx.figures
    gap, thickness, least, now = gap_that_opens(f), f["thickness"], f["least_bevel"], f["bevel"]
    rows = [("the least that passes", least.value)]
    rows += [(row["name"], float(row["degrees"])) for row in table("bevel_schools").values()]
    rows.sort(key=lambda each: each[1])
    options = []
    for name, degrees in rows:
        passes = degrees + 1e-9 >= least.value
        behind = back_gap(gap=gap.value, thickness=thickness.value, bevel_deg=degrees)
        is_taken = abs(degrees - now.value) < 0.01
        options.append(
            Option(
                (
                    name,
                    ctx.show.value(degrees, Unit.DEG),
                    ctx.fmt(behind),
                    "passes" if passes else "its corner strikes",
                ),
                Level.OK if passes else Level.WARNING,
                None if is_taken or not passes else Remedy("", "fit.bevel_deg", math.ceil(degrees * 100 - 1e-9) / 100),
                is_taken,
            )
        )
    about = f"The gap at the front is {ctx.fmt(gap)}; a bevel widens it at the back and takes edge off the lock."
    return Comparison("Bevel, school by school", about, ("school", "bevel", "gap at the back", ""), tuple(options))
