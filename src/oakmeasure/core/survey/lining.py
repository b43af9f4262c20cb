"""A lining to be made: its sizes from the rough opening or from a leaf that exists, its parts, packing and strips.

Coordinates are the rough opening's: x from the hinge side's foot to the latch, y up from the floor there; across the
wall, + towards the opening side.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import HAIR
from oakmeasure.core.document.readings import Lining, LiningFrom, LiningSchool, Side
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import FIXED, Figure, Origin, Provenance, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Part, Rect, Size
from oakmeasure.core.leaf.part_factory import rough
from oakmeasure.core.survey.lining_strips import Stretch, packing_stretches, strips_of
from oakmeasure.core.survey.outline import Outline
from oakmeasure.core.survey.survey_result import Taken, outline_of

LEAST_PACKING = 2.0  # less cannot be wedged: common practice, no source
SHOWS = 0.5  # a strip thinner than this is caulked: common practice, no source
STRIP_WIDTH = 25.0  # under the edge of an architrave: common practice, no source
WALL_DEPTH = 100.0  # until it is read


@dataclass(frozen=True, slots=True)
class LiningPlan:
    """The lining that is made for an opening, mm."""

    clear: dict[str, Figure]
    """The figures of the opening between its jambs."""
    outline: Outline
    """Its outline."""
    corners: tuple[Point, Point, Point, Point]
    """Corners inside the lining, mm."""
    outside: Figure
    """Outer width of the lining, mm."""
    between: Figure
    """Width between its legs, mm."""
    thickness: float
    """Thickness, mm."""
    depth: float
    """Depth through the wall, mm."""
    legs: tuple[tuple[float, float], tuple[float, float]]
    """Outer faces, x at foot and head, of hinge and latch leg."""
    underside: tuple[float, float]
    """Height of the head's underside at the hinge and at the latch side."""
    packing: tuple[Stretch, ...]
    """Behind each leg."""
    strips: tuple[Stretch, ...]
    """Between wall and lining."""
    parts: tuple[Part, ...] = ()
    """Its parts."""


def plan_lining(ctx: Context, lining: Lining, taken: Taken, rough: dict[str, Figure]) -> LiningPlan:
    """Return the lining, add its figures and judge whether it goes in.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        lining: What is chosen for the lining.
        taken: The opening as it was taken.
        rough: Sizes of the rough opening.
    """
    f = ctx.figures
    thickness = f.given("lining_thickness", "lining, thickness", lining.thickness, fixed("lining.thickness"))
    packing = f.given("packing", "packing, both sides together", lining.packing, fixed("lining.packing"))
    over = f.given("packing_head", "packing over the head", lining.packing_head, fixed("lining.packing_head"))
    width = _rough_width(ctx, taken)
    if lining.made_from is LiningFrom.LEAF and lining.leaf_width is not None:
        between, outside = _from_leaf(ctx, lining, thickness)
    else:
        outside = f.total("lining_outside", "lining, outside", plus(width), minus(packing))
        between = f.total("between", "between the jambs", plus(outside), minus(thickness, 2))
    slack = f.total("packing_left", "packing left at the tightest", plus(rough["clear_width"]), minus(outside))
    head = _head_height(ctx, lining, rough, thickness, over)
    follow = lining.school is LiningSchool.FOLLOW_WALL
    x0 = rough["hinge_side_in"].value + slack.value / 2
    x1 = x0 + outside.value
    floor = rough["floor_high"].value
    top = floor + head.value
    legs, underside = ((x0, x0), (x1, x1)), (top, top)
    if follow:
        legs, underside = _followed(taken, lining, outside.value, width.value, top)
    t = thickness.value
    corners = (
        (legs[0][0] + t, taken.hinge_foot[1]),
        (legs[1][0] - t, taken.latch_foot[1]),
        (legs[1][1] - t, underside[1]),
        (legs[0][1] + t, underside[0]),
    )
    clear = _clear(ctx, corners, between, head, floor, follow)
    depth = _depth(ctx, lining)
    packed = packing_stretches(taken, legs, max(underside))
    lean = (ctx.leaf.readings.across_hinge, ctx.leaf.readings.across_latch)
    strips = () if follow else strips_of(ctx, lean, depth=depth.value, height=max(underside) + t)
    plan = LiningPlan(
        clear, outline_of(corners), corners, outside, between, t, depth.value, legs, underside, packed, strips
    )
    plan = replace(plan, parts=_parts(ctx, lining, taken, plan))
    _judge_packing(ctx, lining, plan, width.value - rough["clear_width"].value)
    _judge_strips(ctx, lining, plan)
    return plan


def _rough_width(ctx: Context, taken: Taken) -> Figure:
    """Return the least width between the sides, on the level but not plumb: what the tape gives."""
    foot, head = taken.latch_foot[0] - taken.hinge_foot[0], taken.latch_head[0] - taken.hinge_head[0]
    value = min(foot, head) - (taken.bow_width.value if taken.bow_width else 0.0)
    label = f"rough width, {'at the foot' if foot <= head else 'at the head'}"
    return ctx.figures.derived("rough_width", label, value, *taken.inputs, formula=taken.how, source=taken.source)


def _from_leaf(ctx: Context, lining: Lining, thickness: Figure) -> tuple[Figure, Figure]:
    f = ctx.figures
    assert lining.leaf_width is not None
    leaf = ctx.reading("existing_width", "the leaf that exists, width", lining.leaf_width, "lining.leaf_width")
    between = f.total(
        "between",
        "between the jambs",
        plus(leaf),
        plus(f["gap_hinge"]),
        plus(f["gap_latch"]),
        source="a lining made to the leaf",
    )
    outside = f.total("lining_outside", "lining, outside", plus(between), plus(thickness, 2))
    f.total("rough_needed", "rough width that it needs", plus(outside), plus(f["packing"]))
    return between, outside


def _head_height(ctx: Context, lining: Lining, rough: dict[str, Figure], thickness: Figure, over: Figure) -> Figure:
    """Return the clear height under the head, from the floor where it is highest."""
    f = ctx.figures
    if lining.made_from is LiningFrom.LEAF and lining.leaf_height is not None:
        leaf = ctx.reading("existing_height", "the leaf that exists, height", lining.leaf_height, "lining.leaf_height")
        return f.total(
            "lining_head_height", "floor to the head's underside", plus(leaf), plus(f["gap_head"]), plus(f["gap_floor"])
        )
    return f.total(
        "lining_head_height",
        "floor to the head's underside",
        plus(rough["clear_height"]),
        minus(over),
        minus(thickness),
    )


def _followed(
    taken: Taken, lining: Lining, outside: float, width: float, top: float
) -> tuple[tuple[tuple[float, float], tuple[float, float]], tuple[float, float]]:
    """Return legs and head that run along the wall, the packing the same all the way up."""
    pack = (width - outside) / 2
    hinge = (taken.hinge_foot[0] + pack, taken.hinge_head[0] + pack)
    latch = (taken.latch_foot[0] - pack, taken.latch_head[0] - pack)
    low = min(taken.hinge_head[1], taken.latch_head[1])
    return (hinge, latch), (top + taken.hinge_head[1] - low, top + taken.latch_head[1] - low)


def _clear(
    ctx: Context, corners: tuple[Point, ...], between: Figure, head: Figure, floor: float, follow: bool
) -> dict[str, Figure]:
    """Return the figures of the opening between the jambs."""
    (hfx, _), (lfx, _), (lhx, lhy), (hhx, hhy) = corners
    how = "the lining as set in the rough opening"

    def place(name: str, label: str, value: float) -> Figure:
        return ctx.figures.derived(figure_name(name), label, value, between, head, formula=how)

    found = {
        "hinge_side_in": place("hinge_side_in", "hinge jamb, furthest in", max(hfx, hhx)),
        "latch_side_in": place("latch_side_in", "latch jamb, furthest in", min(lfx, lhx)),
        "head_low": place("head_low", "head's underside, lowest", min(hhy, lhy)),
        "floor_high": place("floor_high", "floor, highest under the leaf", floor),
    }
    terms = [plus(found["latch_side_in"]), minus(found["hinge_side_in"])] if follow else [plus(between)]
    found["clear_width"] = ctx.figures.total("clear_width", "clear width, plumb", *terms)
    found["clear_height"] = ctx.figures.total(
        "clear_height", "clear height", plus(found["head_low"]), minus(found["floor_high"])
    )
    return found


def _depth(ctx: Context, lining: Lining) -> Figure:
    if lining.depth is not None:
        return ctx.figures.given("lining_depth", "lining, depth", lining.depth, fixed("lining.depth"))
    reading = ctx.leaf.readings.depth
    if reading is not None:
        return ctx.reading("lining_depth", "lining, depth: the wall, face to face", reading, "readings.depth")
    return ctx.figures.given(
        "lining_depth",
        "depth of the wall",
        WALL_DEPTH,
        Origin(edit="readings.depth", source="not read", state=Provenance.ASSUMED),
    )


# --- parts -------------------------------------------------------------------------------------------------


def _parts(ctx: Context, lining: Lining, taken: Taken, plan: LiningPlan) -> tuple[Part, ...]:
    """Return legs and head, and what is packed and made up; the last from off-cuts."""
    f, t, legs, underside = ctx.figures, plan.thickness, plan.legs, plan.underside
    trench = f.given("trench", "legs housed into the head by", lining.trench, fixed("lining.trench"))
    made: list[Part] = []
    width = f.given("lining_part_depth", "lining parts, as wide as the lining is deep", plan.depth, FIXED)
    for side, at, floor in ((Side.HINGE, 0, taken.hinge_foot[1]), (Side.LATCH, 1, taken.latch_foot[1])):
        slug = side.slug
        under = f.derived(
            figure_name(f"underside_{slug}"),
            f"head's underside over the floor, {side}",
            underside[at] - floor,
            f["lining_head_height"],
            formula="from the finished floor where this leg stands",
        )
        length = f.total(figure_name(f"leg_{slug}"), f"lining leg, {side}", plus(under), plus(trench))
        x = min(legs[at]) if at == 0 else max(legs[at]) - t
        rect = Rect(x, floor, x + t, underside[at] + trench.value)
        made.append(_part(ctx, lining, t, (f"lining leg, {side}", f"L{at + 1}"), rect, (length, width)))
    top = max(underside)
    outer = legs[0][1], legs[1][1]  # where the legs stand under the head, which in a crooked wall is not at the foot
    rect = Rect(outer[0], top, outer[1], top + t)
    wider = outer[1] - outer[0] - plan.outside.value
    terms = [plus(plan.outside)]
    if abs(wider) > HAIR:
        how = "the wall there less the wall where it is narrowest"
        terms.append(plus(f.derived("lining_wider", "wider at the head by", wider, *taken.inputs, formula=how)))
    head = f.total("lining_head", "lining head, over both legs", *terms)
    made.append(_part(ctx, lining, t, ("lining head", "L3"), rect, (head, width)))
    made += _made_up(ctx, lining, plan.packing, plan.strips, plan.depth)
    return tuple(made)


def _part(
    ctx: Context, lining: Lining, t: float, name: tuple[str, str], rect: Rect, size: tuple[Figure, Figure]
) -> Part:
    """Return a part of the lining; name: with its mark; size: its length and its width."""
    planed = Size(size[0].value, size[1].value, t)
    species, upright = lining.species or ctx.leaf.timber.wood, rect.height > rect.width
    sawn = rough(ctx, planed)
    return Part(name[0], Role.LINING, rect, rect, upright, species, planed, planed, sawn, *size, name[1])


def _made_up(
    ctx: Context, lining: Lining, packed: tuple[Stretch, ...], strips: tuple[Stretch, ...], depth: float
) -> list[Part]:
    """Return packing behind each leg and the strips, one piece for each run, as thick as its thickest place."""
    made = []
    species = lining.species or ctx.leaf.timber.wood
    wanted: list[tuple[str, list[Stretch], float]] = [
        (f"packing, {side}", [each for each in packed if each.side is side], depth) for side in (Side.HINGE, Side.LATCH)
    ]
    faces = dict.fromkeys((each.side, each.face) for each in strips)
    for side, face in faces:
        own = [each for each in strips if (each.side, each.face) == (side, face)]
        wanted.append((f"strip, {side}, {face}", own, STRIP_WIDTH))
    for number, (name, run, wide) in enumerate(wanted, start=1):
        thick = max((max(abs(each.start), abs(each.end)) for each in run), default=0.0)
        if thick < SHOWS:
            continue
        slug = f"made_up_{number}"
        length = ctx.figures.given(
            figure_name(f"{slug}_length"), f"{name}, length", run[-1].upper - run[0].lower, fixed(source="the stretch")
        )
        width = ctx.figures.given(figure_name(f"{slug}_width"), f"{name}, width", wide, FIXED)
        size = Size(length.value, wide, thick)
        rect = Rect(0, run[0].lower, thick, run[-1].upper)
        made.append(Part(name, Role.PACKING, rect, rect, True, species, size, size, size, length, width, f"P{number}"))
    return made


# --- what is said ----------------------------------------------------------------------------------------------


def _judge_packing(ctx: Context, lining: Lining, plan: LiningPlan, lost: float) -> None:
    """Judge whether it goes in plumb; lost: to the lean, mm."""
    fmt, outside, slack = ctx.fmt, plan.outside, ctx.figures["packing_left"]
    if slack.value < 0:
        less = lining.packing - slack.value + LEAST_PACKING
        can_narrow = lining.made_from is LiningFrom.ROUGH and less <= 100
        ctx.stop(
            "lining-tight",
            "The lining does not go in plumb",
            f"It is {fmt(outside)} outside; plumb there are {fmt(ctx.figures['rough_clear_width'])}, "
            f"{fmt(-slack.value)} too little. The lean takes {fmt(lost)}.",
            *(
                [Remedy(f"Make it narrower: {fmt(round(less))} of packing", "lining.packing", float(round(less)))]
                if can_narrow
                else [Remedy("Cut the wall back, or a narrower leaf")]
            ),
            grounds=Grounds("packing_left", rule="the worst lean eats the packing first"),
        )
    elif slack.value < LEAST_PACKING:
        ctx.warn(
            "lining-packing",
            "Hardly any packing is left",
            f"{fmt(slack)} at the tightest, of {fmt(slack.value + lost)}: the lean takes {fmt(lost)}.",
            Remedy("Wedge it where it is tightest first"),
            grounds=Grounds("packing_left", rule=f"less than {fmt(LEAST_PACKING)} cannot be wedged"),
        )
    else:
        ctx.fine(
            "lining",
            "The lining goes in plumb",
            f"{fmt(outside)} outside, {fmt(ctx.figures['between'])} between the jambs; {fmt(slack)} to pack at the "
            "tightest.",
            grounds=Grounds("between"),
        )
    if "rough_needed" in ctx.figures:
        spare = ctx.figures["rough_clear_width"].value - ctx.figures["rough_needed"].value
        if spare > 25:
            ctx.warn(
                "lining-wide",
                "The opening is wider than the lining needs",
                f"{fmt(spare)} more than {fmt(ctx.figures['rough_needed'])}.",
                Remedy("Pack with timber, not with wedges, or make the wall up"),
                grounds=Grounds("rough_needed"),
            )


def _judge_strips(ctx: Context, lining: Lining, plan: LiningPlan) -> None:
    fmt, strips = ctx.fmt, plan.strips
    thickest = max((max(abs(each.start), abs(each.end)) for each in strips), default=0.0)
    if thickest >= SHOWS:
        sides = ", ".join(
            dict.fromkeys(str(each.side) for each in strips if max(abs(each.start), abs(each.end)) >= SHOWS)
        )
        ctx.warn(
            "lining-strips",
            "The wall is made up to the lining",
            f"Plumb, wall and lining stand up to {fmt(thickest)} out from each other, at the {sides}.",
            Remedy("Strips under the architrave, by the list"),
            Remedy("Or follow the wall", "lining.school", LiningSchool.FOLLOW_WALL),
            grounds=Grounds(rule="plumb first and make the wall up, or follow the wall: schools differ"),
        )
    if lining.school is LiningSchool.FOLLOW_WALL:
        ctx.warn(
            "lining-follows",
            "The lining follows the wall",
            f"No strips; the hinge line leans as the wall does, and the plumb width is "
            f"{fmt(ctx.figures['clear_width'])} of {fmt(ctx.figures['between'])}.",
            Remedy("Or plumb first", "lining.school", LiningSchool.PLUMB_FIRST),
            grounds=Grounds(rule="schools differ"),
        )
