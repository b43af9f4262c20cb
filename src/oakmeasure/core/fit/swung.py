"""How a leaf on butts opens: what stops it, what way it leaves, how its corner rises, how it clears the floor."""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.context import Context
from oakmeasure.core.fit.shape import Fit
from oakmeasure.core.fit.turning import Plan, clear_way, corner_rise, opens_to_deg, rising_easing
from oakmeasure.core.readings import FloorAlong, InTheWay, Side
from oakmeasure.core.survey.opening import Opening
from oakmeasure.core.units import Unit
from oakmeasure.core.verdicts import Level, Remedy, Stage
from oakmeasure.core.working import Figure, derived

Point = tuple[float, float]
THING_WIDE = 70.0  # of an architrave or a skirting in plan, until more is read
LIFT = 12.0  # of a pair of rising hinges at 90°: common practice, no source
RISE_SEEN = 1.5  # of the latch corner; more shows at the head gap: common practice, no source


@dataclass(frozen=True, slots=True)
class Obstacle:
    """Something in the leaf's way: its outline in plan, in the swing's coordinates. ref: on the drawing."""

    name: str
    outline: tuple[Point, ...]
    ref: str


@dataclass(frozen=True, slots=True)
class Swing:
    """stops_deg: where it stops, 180 for nowhere. stopped_by: what stops it, "" for nothing."""

    plan: Plan
    obstacles: tuple[Obstacle, ...]
    latch_gap: float
    stops_deg: float
    stopped_by: str
    lean_latch: float
    lean_out: float

    def clear_way(self, degrees: float) -> float:
        """Return the clear way, mm, with the leaf opened so far."""
        return clear_way(self.plan, latch_gap=self.latch_gap, degrees=degrees)

    def rise(self, degrees: float) -> float:
        """Return by how much the latch corner has risen, mm."""
        return corner_rise(width=self.plan.width, lean_latch=self.lean_latch, lean_out=self.lean_out, degrees=degrees)


def swing(ctx: Context, opening: Opening, fitted: Fit) -> Swing:
    """Work out the swing of one leaf and judge it."""
    f = ctx.figures
    plan = Plan(fitted.width.value, f["thickness"].value, f["butt_knuckle"].value, f["butt_setback"].value,
                fitted.bevel.value)  # fmt: skip
    gap = f["gap_hinge"].value
    obstacles = tuple(
        each for at, thing in enumerate(ctx.leaf.in_the_way, start=1) if (each := _obstacle(at, thing, gap, plan.width))
    )
    stops, by = 180.0, ""
    for each in obstacles:
        angle = opens_to_deg(plan, each.outline)
        if angle < stops - 1e-9:
            stops, by = angle, each.name
    height = max(opening.hinge_head[1] - opening.hinge_foot[1], 1.0)
    across = f.get("reading_across_hinge")
    lean_out = across.value / height if across is not None and opening.lining is None else 0.0
    lean_latch = (opening.hinge_head[0] - opening.hinge_foot[0]) / height
    latch_gap = (f.get("gap_meeting") or f["gap_latch"]).value
    made = Swing(plan, obstacles, latch_gap, stops, by, lean_latch, lean_out)
    _figures(ctx, made, fitted)
    _corner(ctx, made, fitted)
    _floor(ctx, made)
    return made


def _obstacle(at: int, thing: InTheWay, gap: float, width: float) -> Obstacle | None:
    """Return a thing beside the opening as an outline in front of the wall; what lies in the wall stops no leaf."""
    out = thing.stands_out.value
    if out <= 0 or thing.where not in (Side.HINGE, Side.LATCH):
        return None
    if thing.where is Side.HINGE:
        x1 = -gap - thing.away
        x0 = x1 - THING_WIDE
    else:
        x0 = width + gap + thing.away
        x1 = x0 + THING_WIDE
    outline = ((x0, 0.0), (x0, -out), (x1, -out), (x1, 0.0))
    return Obstacle(f"{thing.what}, {thing.where}", outline, f"thing:{at}")


def _figures(ctx: Context, swing: Swing, fitted: Fit) -> None:
    f, add = ctx.figures, ctx.figures.add
    pin = [f["thickness"], f["butt_knuckle"], f["butt_setback"]]
    outs = [f[f"in_the_way_{each.ref.partition(':')[2]}"] for each in swing.obstacles]
    opens = add(
        derived("opens_to", "opens to", swing.stops_deg, Unit.DEG, fitted.width, *pin, *outs,
                formula="turned about the pin until leaf and obstacle touch; 180 where they never do")
    )  # fmt: skip
    way = add(
        derived("clear_way", "clear way at 90°", swing.clear_way(90), Unit.MM, fitted.width, *pin,
                formula="width + gap − (thickness + pin out − pin back)")
    )  # fmt: skip
    if not swing.stopped_by:
        ctx.say("opens", Level.FINE, Stage.FIT, "It opens all the way",
                f"180°; at 90° the clear way is {ctx.fmt(way)}.", figure="clear_way")  # fmt: skip
        return
    wanted = max(-y for each in swing.obstacles for _, y in each.outline) / 2
    reach = Remedy(f"A butt whose pin stands {ctx.fmt(math.ceil(wanted))} out", "hardware.butt.knuckle",
                   float(math.ceil(wanted)))  # fmt: skip
    ctx.say(
        "opens",
        Level.LOOK if swing.stops_deg < 100 else Level.FINE,
        Stage.FIT,
        f"It opens to {ctx.fmt(opens)}",
        f"There it meets the {swing.stopped_by}. At 90° the clear way is "
        + (f"{ctx.fmt(way)}." if swing.stops_deg >= 90 else "not reached."),
        *(
            [reach]
            if swing.stops_deg > 90 and wanted <= 60
            else [Remedy("A door stop before it, or hinge the other side")]
        ),
        rule="180° needs the pin half the projection out",
        where="figure:opens_to",
        figure="opens_to",
    )


def _corner(ctx: Context, swing: Swing, fitted: Fit) -> None:
    if abs(swing.lean_latch) < 1e-9 and abs(swing.lean_out) < 1e-9:
        return
    degrees = 180.0 if abs(swing.rise(180)) > abs(swing.rise(90)) else 90.0
    rise = ctx.figures.add(
        derived("corner_rise", f"latch corner rises, opened {degrees:g}°", swing.rise(degrees), Unit.MM, fitted.width,
                ctx.figures["hinge_side_in"], formula="w·(a(1 − cos θ) − c·sin θ), a to the latch, c to the swing side")
    )  # fmt: skip
    if abs(rise.value) > RISE_SEEN:
        way = "rises" if rise.value > 0 else "drops"
        ctx.say("corner-rise", Level.LOOK, Stage.FIT, "The hinge line is out of plumb",
                f"Opened {degrees:g}°, the latch corner {way} {ctx.fmt(abs(rise.value))}; the leaf swings by itself.",
                Remedy("Pack the foot or the head of the hinge jamb until it is plumb"),
                rule=f"over {ctx.fmt(RISE_SEEN)} shows", figure="corner_rise")  # fmt: skip


def _floor(ctx: Context, swing: Swing) -> None:
    """Add the least gap over the floor along the arc, the corner's rise in it; rising hinges where it drags."""
    floor, f = ctx.leaf.floor, ctx.figures
    if floor.along is not FloorAlong.SWING or not floor.points:
        return
    sill, gap = f["floor_high"], f["gap_floor"]
    gaps = [gap.value + sill.value + swing.rise(each.at) - each.height.value for each in floor.points]
    at = min(range(len(gaps)), key=gaps.__getitem__)
    inputs: list[Figure] = [gap, f[f"floor_{at + 1}"]]
    least = f.add(
        derived("swing_floor_gap", f"least gap over the floor, at {floor.points[at].at:g}°", gaps[at], Unit.MM, *inputs,
                formula="gap + the corner's rise − the floor's")
    )  # fmt: skip
    if least.value >= 1.0:
        return
    thick, knuckle, setback, head = f["thickness"], f["butt_knuckle"], f["butt_setback"], f["gap_head"]
    easing = rising_easing(lift=LIFT, gap=max(head.value, 0.1), thickness=thick.value, knuckle=knuckle.value,
                           setback=setback.value)  # fmt: skip
    eased = f.add(
        derived(
            "rising_easing",
            f"top edge to ease, for hinges that rise {LIFT:g}",
            easing.length,
            Unit.MM,
            head,
            thick,
            knuckle,
            setback,
            formula="((t + p)·cos θ − p) ÷ sin θ − s, θ = 90 × gap ÷ lift",
        )
    )
    ctx.say(
        "rising-hinges",
        Level.LOOK,
        Stage.FIT,
        "Rising hinges would lift it over",
        f"It drags by {ctx.fmt(1.0 - least.value)} at {floor.points[at].at:g}°. With {ctx.fmt(LIFT)} of lift ease "
        f"the top for {ctx.fmt(eased)} from the hinges.",
        Remedy("Only where part of the way is high; else a wider gap"),
        figure="rising_easing",
    )
