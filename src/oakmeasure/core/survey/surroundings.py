"""What stands round the opening: sides in wind, the floor where the leaf passes, things in the way."""

from __future__ import annotations

from oakmeasure.core.document.readings import FloorAlong, FloorReadings, InTheWay, Side
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import FIXED, Figure, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context

IN_WIND = 2.0  # of cross-legged sides; more shows at the stop: common practice, no source
AIR = 5.0  # between a leaf and what it passes: common practice, no source
TRAVEL_SLOPE = 2.0  # mm per metre of floor that gear on the floor, or a level track over it, notices: common practice


def look_round(ctx: Context, sill: Figure) -> None:
    """Add the figures of wind, floor and things in the way, and judge them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        sill: Height of the floor where it is highest in the opening, mm.
    """
    _wind(ctx)
    if ctx.leaf.readings.depth is not None and "lining_depth" not in ctx.figures:
        ctx.reading(
            "reading_depth", "depth, face to face", ctx.leaf.readings.depth, "readings.depth", "of lining or wall"
        )
    _floor(ctx, sill)
    for at, thing in enumerate(ctx.leaf.in_the_way):
        _thing(ctx, at, thing)


def across_readings(ctx: Context) -> list[Figure]:
    """Add the leans across the wall as figures; before anything rests on them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    found = []
    for side in (Side.HINGE, Side.LATCH):
        slug = side.slug
        reading = getattr(ctx.leaf.readings, f"across_{slug}")
        if reading is not None:
            found.append(
                ctx.reading(
                    figure_name(f"reading_across_{slug}"),
                    f"lean of the {side} across the wall",
                    reading,
                    f"readings.across_{slug}",
                    "over its height; plus: its head lies to the opening side",
                )
            )
    return found


def _wind(ctx: Context) -> None:
    readings = [ctx.figures.get(figure_name(f"reading_across_{slug}")) for slug in ("hinge", "latch")]
    hinge, latch = readings
    if hinge is None or latch is None:
        return
    wind = ctx.figures.total(
        "wind", "wind: latch side against hinge side", plus(latch), minus(hinge), source="at the head"
    )
    if ctx.leaf.lining is not None:
        return  # a lining to be made is set without wind; the wall's crookedness is in its strips
    where = "head" if wind.value > 0 else "foot"
    if abs(wind.value) > IN_WIND:
        ctx.warn(
            "cross-legged",
            "The sides are cross-legged",
            f"They lean {ctx.fmt(abs(wind.value))} differently across the wall: the leaf touches its stop at the latch "
            f"side's {where} first, and stands off by as much at the other end.",
            Remedy("Reset one leg of the lining, or move the stop to the leaf"),
            grounds=Grounds("wind", "reading:across_latch", rule=f"over {ctx.fmt(IN_WIND)} shows"),
        )
    else:
        ctx.fine(
            "wind",
            "The sides are out of wind",
            f"They lean within {ctx.fmt(IN_WIND)} of each other across the wall.",
            grounds=Grounds("wind"),
        )


# --- the floor -----------------------------------------------------------------------------------------------


def _floor(ctx: Context, sill: Figure) -> None:
    floor = ctx.leaf.floor
    if not floor.points:
        return
    figures = []
    for at, point in enumerate(floor.points):
        place = f"{point.at:g}°" if floor.along is FloorAlong.SWING else ctx.fmt(point.at)
        figures.append(
            ctx.reading(
                figure_name(f"floor_{at + 1}"),
                f"floor at {place}",
                point.height,
                f"{floor.path}.{at}.height",
                "over the sill at the hinge side's foot",
            )
        )
    top = max(range(len(figures)), key=lambda each: figures[each].value)
    highest = ctx.figures.derived(
        "floor_peak",
        f"floor along {floor.along}, highest",
        max(figures[top].value, sill.value),
        *figures,
        sill,
        formula="the highest of these",
    )
    rise = ctx.figures.total("floor_rise", "floor rises above the opening's own by", plus(highest), minus(sill))
    where = f"floor:{top + 1}"
    if floor.along is FloorAlong.SWING:
        _swing(ctx, rise, where)
    else:
        _travel(ctx, floor, figures, highest, rise, where)


def _swing(ctx: Context, rise: Figure, where: str) -> None:
    gap = ctx.figures["gap_floor"]
    left = gap.value - rise.value
    if left < 1.0:
        wanted = min(60.0, round(rise.value + gap.value, 1))
        ctx.warn(
            "floor-drags",
            "The leaf would drag on the floor as it opens",
            f"The floor rises {ctx.fmt(rise)} on the way; the gap is {ctx.fmt(gap)}.",
            Remedy(f"Gap over the floor {ctx.fmt(wanted)}", "fit.gap_floor", wanted),
            Remedy("Or rising hinges, where only part of the way is high"),
            grounds=Grounds("floor_rise", where, rule="the leaf passes the highest floor with air"),
        )
    else:
        ctx.fine(
            "floor",
            "The floor clears the swing",
            f"Least gap {ctx.fmt(left)} with {ctx.fmt(gap)} under the leaf.",
            grounds=Grounds("floor_rise", where),
        )


def _travel(
    ctx: Context, floor: FloorReadings, figures: list[Figure], highest: Figure, rise: Figure, where: str
) -> None:
    places = [each.at for each in floor.points]
    low = min(range(len(figures)), key=lambda each: figures[each].value)
    fall = ctx.figures.derived(
        "floor_fall",
        "floor falls along the travel by",
        highest.value - figures[low].value,
        *figures,
        formula="highest less lowest",
    )
    reach = max(places) - min(places)
    per_metre = 1000 * fall.value / reach if reach > 0 else 0.0
    ctx.figures.derived("floor_slope", "fall over each metre", per_metre, fall, formula="fall ÷ length of the travel")
    if fall.value < 1.0:
        ctx.fine(
            "floor", "The floor is level along the travel", f"Within {ctx.fmt(fall)}.", grounds=Grounds("floor_fall")
        )
        return
    level = Level.WARNING if rise.value > 1.0 or per_metre > TRAVEL_SLOPE else Level.OK
    ctx.report(
        "floor-travel",
        level,
        "The floor is not level along the travel",
        f"It rises {ctx.fmt(rise)} above the opening's own and falls {ctx.fmt(fall)} in all, "
        f"{ctx.fmt(per_metre)} a metre.",
        Remedy("Set the leaf from the highest point; gear on the floor is shimmed where it falls"),
        grounds=Grounds("floor_peak", where, rule=f"over {ctx.fmt(TRAVEL_SLOPE)} a metre is noticed"),
    )


# --- in the way ------------------------------------------------------------------------------------------------


def _thing(ctx: Context, at: int, thing: InTheWay) -> None:
    name = f"in_the_way_{at + 1}"
    value = thing.stands_out.value
    label = f"{thing.what}, {thing.where}: " + ("stands out" if value >= 0 else "lies deep")
    figure = ctx.reading(
        figure_name(name), label, thing.stands_out, f"in_the_way.{at}.stands_out", "from the wall's face"
    )
    where = f"thing:{at + 1}"
    if value < 0:
        label = f"{thing.what} in the wall: nothing goes in deeper than"
        how = f"as deep as it lies, less {ctx.fmt(AIR)} of wall"
        safe = ctx.figures.derived(figure_name(f"{name}_deep"), label, max(-value - AIR, 0.0), figure, formula=how)
        ctx.warn(
            f"hidden-{at + 1}",
            f"A {thing.what} lies {ctx.fmt(-value)} deep",
            f"At the {thing.where}, {ctx.fmt(thing.up)} up: no screw there goes deeper than {ctx.fmt(safe)}.",
            Remedy("Find it before drilling; stop on resistance"),
            grounds=Grounds(name, where, rule=f"{ctx.fmt(AIR)} of wall stays before it"),
        )
        return
    if not (ctx.leaf.hanging.slides or ctx.leaf.hanging.covers):
        ctx.fine(
            f"in-the-way-{at + 1}",
            f"{str(thing.what).capitalize()}, {thing.where}: {ctx.fmt(figure)} out",
            f"It stands {ctx.fmt(thing.away)} from the opening's edge; how far the leaf opens takes it in.",
            grounds=Grounds(name, where),
        )
        return
    air = ctx.figures.get("air") or ctx.figures.given("air", "air between a leaf and what it passes", AIR, FIXED)
    off = ctx.figures.total(
        figure_name(f"{name}_off"), "a leaf in front of it stands off the wall by", plus(figure), plus(air)
    )
    behind = thing.where is Side.BEHIND
    ctx.fine(
        f"in-the-way-{at + 1}",
        f"{str(thing.what).capitalize()}, {thing.where}: {ctx.fmt(figure)} out",
        f"What passes in front of it stands off the wall by {ctx.fmt(off)} or more."
        if not behind
        else f"A leaf in front of it needs {ctx.fmt(off)} from the wall to its back.",
        grounds=Grounds(name, where, rule=f"{ctx.fmt(AIR)} of air"),
    )
