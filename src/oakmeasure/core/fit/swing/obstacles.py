"""How a leaf on butts opens: what stops it, what way it leaves, how its corner rises, how it clears the floor."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import HAIR, Unit
from oakmeasure.core.document.cup_hinges import cup_from_table, cup_keys
from oakmeasure.core.document.readings import FloorAlong, FloorPoint, InTheWay, Side
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure, fixed
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.fit.swing.cup_clearance import cup_pin
from oakmeasure.core.fit.swing.geometry import (
    SwingPlan,
    clear_way,
    corner_rise,
    opens_to_deg,
    rising_easing,
    self_swing_nm,
)
from oakmeasure.core.fit.swing.under_head import judge_head
from oakmeasure.core.leaf.gap_choice import gap_that_opens
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening

LEAST_OVER_FLOOR = 1.0  # or it drags on the first grain of sand: common practice, no source
THING_WIDE = 70.0  # of an architrave or a skirting in plan, until more is read
LIFT = 12.0  # of a pair of rising hinges at 90°: common practice, no source
SELF_SWING = 0.1  # N·m that the friction of greased butts still holds: common practice, no source
RISE_SEEN = 1.5  # of the latch corner; more shows at the head gap: common practice, no source


@dataclass(frozen=True, slots=True)
class Obstacle:
    """Something in the leaf's way: its outline in plan, in the swing's coordinates."""

    name: str
    """What stands in the way."""
    outline: tuple[Point, ...]
    """Its corners in plan, mm."""
    ref: str
    """On the drawing."""


@dataclass(frozen=True, slots=True)
class Swing:
    """How a leaf swings, and what stops it."""

    plan: SwingPlan
    """The leaf and the wall in plan."""
    obstacles: tuple[Obstacle, ...]
    """What stands in the way."""
    latch_gap: float
    """Gap at the latch, mm."""
    stops_deg: float
    """Where it stops, degrees from shut; 180 for nowhere."""
    stopped_by: str
    """What stops it, "" for nothing."""
    lean_latch: float
    """Lean of the hinge line to the latch side, mm per mm of height."""
    lean_out: float
    """Lean of the hinge line to the swing side, mm per mm of height."""
    front: float = 0.0
    """Of the wall or cabinet that carries it, behind the leaf's opening face, mm."""

    def clear_way(self, degrees: float) -> float:
        """Return the clear way, mm, with the leaf opened so far.

        Args:
            degrees: How far the leaf is open, degrees from shut.
        """
        return clear_way(self.plan, latch_gap=self.latch_gap, degrees=degrees)

    def rise(self, degrees: float) -> float:
        """Return by how much the latch corner has risen, mm.

        Args:
            degrees: How far the leaf is open, degrees from shut.
        """
        return corner_rise(width=self.plan.width, lean_latch=self.lean_latch, lean_out=self.lean_out, degrees=degrees)


def swing(ctx: Context, opening: Opening, fitted: Fit) -> Swing:
    """Work out the swing of one leaf and judge it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
        fitted: Size of the leaf and its gaps, mm.
    """
    f, hanging = ctx.figures, ctx.leaf.hanging
    plan = _plan(ctx, fitted)
    gap = -f["overlay"].value if hanging.lies_on else f["gap_hinge"].value
    front = plan.thickness if hanging.lies_on else 0.0
    obstacles = tuple(
        each
        for at, thing in enumerate(ctx.leaf.in_the_way, start=1)
        if (each := _obstacle(at, thing, gap, plan.width, front))
    )
    _lies_over(ctx, obstacles, plan)
    stops, by = 180.0, ""
    if not hanging.has_butts:
        stops, by = min(180.0, ctx.leaf.hardware.cup.hinge.opens), "hinge's own stop"
    for each in obstacles:
        angle = opens_to_deg(plan, each.outline)
        if angle < stops - 1e-9:
            stops, by = angle, each.name
    height = max(opening.hinge_head[1] - opening.hinge_foot[1], 1.0)
    across = f.get("reading_across_hinge")
    lean_out = across.value / height if across is not None and opening.lining is None else 0.0
    lean_latch = (opening.hinge_head[0] - opening.hinge_foot[0]) / height
    latch_gap = gap if hanging.lies_on else gap_that_opens(f).value
    made = Swing(plan, obstacles, latch_gap, stops, by, lean_latch, lean_out, front)
    if not hanging.has_butts:
        _on_cups(ctx, made, fitted)
        return made
    drags = _drags_at(ctx, made)
    if drags is not None and drags < made.stops_deg:
        made = replace(made, stops_deg=drags, stopped_by="floor")
    judge_head(ctx, opening, fitted, plan)
    _figures(ctx, made, fitted)
    _corner(ctx, made, fitted)
    _floor(ctx, made)
    return made


def _lies_over(ctx: Context, obstacles: Sequence[Obstacle], plan: SwingPlan) -> None:
    """Stop a leaf that would lie over what stands beside it even when it is shut."""
    for each in obstacles:
        x0, x1 = min(x for x, _ in each.outline), max(x for x, _ in each.outline)
        over = min(x1, plan.width - x0)
        if over <= HAIR or x0 >= plan.width or x1 <= 0:
            continue
        overlay = ctx.figures.get("overlay")
        less = overlay.value - over if overlay is not None else 0.0
        ctx.stop(
            "lies-over",
            f"The leaf lies over the {each.name}",
            f"Shut, its edge would stand {ctx.fmt(over)} inside it.",
            Remedy(f"Overlay {ctx.fmt(less)} at the most", "cabinet.overlay", round(less, 1))
            if less > 0
            else Remedy("A narrower leaf, or move what stands there"),
            grounds=Grounds("overlay" if overlay is not None else "leaf_width", each.ref),
        )


def _plan(ctx: Context, fitted: Fit) -> SwingPlan:
    f = ctx.figures
    width, thickness = fitted.width.value, f["thickness"].value
    if not ctx.leaf.hanging.has_butts:
        pin_in, pin_deep = cup_pin(ctx.leaf.hardware.cup.hinge, thickness=thickness, boring=f["cup_boring"].value)
        return SwingPlan(width, thickness, -pin_deep, -pin_in)
    return SwingPlan(width, thickness, f["butt_knuckle"].value, f["butt_setback"].value, fitted.bevel.value)


def _on_cups(ctx: Context, swing: Swing, fitted: Fit) -> None:
    """Add how far a leaf on cup hinges opens, and judge it against what is wished."""
    choice, f, hinge = ctx.leaf.cabinet, ctx.figures, ctx.leaf.hardware.cup.hinge
    angle = f.given(
        "hinge_angle",
        "the hinges open to",
        hinge.opens,
        fixed("hardware.cup.hinge.opens", source=f"“{hinge.name}”"),
        unit=Unit.DEG,
    )
    outs = [ctx.figures[figure_name(f"in_the_way_{each.ref.partition(':')[2]}")] for each in swing.obstacles]
    opens = f.derived(
        "opens_to",
        "opens to",
        swing.stops_deg,
        angle,
        fitted.width,
        *outs,
        formula="the hinge's own stop, or where leaf and obstacle touch",
        unit=Unit.DEG,
    )
    if choice.must_open is None:
        ctx.fine(
            "opens",
            f"It opens to {ctx.fmt(opens)}",
            f"There it meets the {swing.stopped_by}.",
            grounds=Grounds("opens_to", "figure:opens_to"),
        )
        return
    wish = f.given("must_open", "must open to", choice.must_open, fixed("cabinet.must_open"), unit=Unit.DEG)
    if opens.value >= wish.value - 1e-9:
        ctx.fine(
            "opens",
            f"It opens to {ctx.fmt(opens)}",
            f"{ctx.fmt(wish)} is wished.",
            grounds=Grounds("opens_to", "figure:opens_to"),
        )
        return
    _too_little(ctx, swing, opens, wish)


def _too_little(ctx: Context, swing: Swing, opens: Figure, wish: Figure) -> None:
    """Say what would let it open as far as is wished."""
    wider = next((key for key in cup_keys() if cup_from_table(key).opens >= wish.value), None)
    remedy = Remedy("Move what stands in its way")
    if swing.stopped_by == "hinge's own stop":
        remedy = (
            Remedy(
                f"Take the {cup_from_table(wider).name}: it opens to {cup_from_table(wider).opens:g}°",
                "hardware.cup.hinge",
                cup_from_table(wider),
            )
            if wider is not None
            else Remedy("No cup hinge opens so far: butts, or a smaller wish")
        )
    ctx.warn(
        "opens",
        f"It opens to {ctx.fmt(opens)} only",
        f"{ctx.fmt(wish)} is wished; there it meets the {swing.stopped_by}.",
        remedy,
        grounds=Grounds("opens_to", "figure:opens_to"),
    )


def swings_by_itself(ctx: Context, swing: Swing, mass: Figure) -> None:
    """Add the torque with which the leaf swings by itself on a hinge line that leans, and say which way.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        swing: How the leaf swings, and what stands in its way.
        mass: Of the leaf, kg.
    """
    lean = max((swing.lean_latch, swing.lean_out), key=abs)
    if not ctx.leaf.hanging.has_butts or abs(lean) < 1e-9:
        return
    torque = self_swing_nm(mass=mass.value, width=swing.plan.width, lean=abs(lean))
    figure = ctx.figures.derived(
        "self_swing",
        "swings by itself with",
        torque,
        mass,
        ctx.figures["leaf_width"],
        formula="m·g·(w ÷ 2)·lean, the greater of the two leans",
        unit=Unit.NM,
    )
    if figure.value < SELF_SWING:
        return
    if abs(swing.lean_out) >= abs(swing.lean_latch):
        way = "opens" if swing.lean_out > 0 else "shuts"
        words = f"Out of plumb across the wall: from shut it {way} by itself"
    else:
        way = "past the middle it falls shut" if swing.lean_latch < 0 else "past the middle it falls open"
        words = f"Out of plumb along the wall: {way}"
    ctx.warn(
        "self-swing",
        "The leaf swings by itself",
        f"{words}, with {ctx.fmt(figure)}.",
        Remedy("Plumb the hinge jamb; a hinge bent a little only hides it"),
        grounds=Grounds("self_swing", rule=f"friction holds about {SELF_SWING:g} N·m"),
    )


def _obstacle(at: int, thing: InTheWay, gap: float, width: float, front: float) -> Obstacle | None:
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
    outline = ((x0, front), (x0, front - out), (x1, front - out), (x1, front))
    return Obstacle(f"{thing.what}, {thing.where}", outline, f"thing:{at}")


def _figures(ctx: Context, swing: Swing, fitted: Fit) -> None:
    f = ctx.figures
    pin = [f["thickness"], f["butt_knuckle"], f["butt_setback"]]
    outs = [f[figure_name(f"in_the_way_{each.ref.partition(':')[2]}")] for each in swing.obstacles]
    opens = f.derived(
        "opens_to",
        "opens to",
        swing.stops_deg,
        fitted.width,
        *pin,
        *outs,
        formula="turned about the pin until leaf and obstacle touch; 180 where they never do",
        unit=Unit.DEG,
    )
    way = f.derived(
        "clear_way",
        "clear way at 90°",
        swing.clear_way(90),
        fitted.width,
        *pin,
        formula="width + gap − (thickness + pin out − pin back)",
    )
    if not swing.stopped_by:
        ctx.fine(
            "opens",
            "It opens all the way",
            f"180°; at 90° the clear way is {ctx.fmt(way)}.",
            grounds=Grounds("clear_way"),
        )
        return
    if swing.stopped_by == "floor":
        return  # that is said of the floor, with what would lift it over
    wanted = max(-y for each in swing.obstacles for _, y in each.outline) / 2
    reach = Remedy(
        f"A butt whose pin stands {ctx.fmt(math.ceil(wanted))} out",
        "hardware.butt.pin_projection",
        float(math.ceil(wanted)),
    )
    ctx.report(
        "opens",
        Level.WARNING if swing.stops_deg < 100 else Level.OK,
        f"It opens to {ctx.fmt(opens)}",
        f"There it meets the {swing.stopped_by}. At 90° the clear way is "
        + (f"{ctx.fmt(way)}." if swing.stops_deg >= 90 else "not reached."),
        *(
            [reach]
            if swing.stops_deg > 90 and wanted <= 60
            else [Remedy("A door stop before it, or hinge the other side")]
        ),
        grounds=Grounds("opens_to", "figure:opens_to", rule="180° needs the pin half the projection out"),
    )


def _corner(ctx: Context, swing: Swing, fitted: Fit) -> None:
    if abs(swing.lean_latch) < 1e-9 and abs(swing.lean_out) < 1e-9:
        return
    degrees = 180.0 if abs(swing.rise(180)) > abs(swing.rise(90)) else 90.0
    rise = ctx.figures.derived(
        "corner_rise",
        f"latch corner rises, opened {degrees:g}°",
        swing.rise(degrees),
        fitted.width,
        ctx.figures["hinge_side_in"],
        formula="w·(a(1 − cos θ) − c·sin θ), a to the latch, c to the swing side",
    )
    if abs(rise.value) > RISE_SEEN:
        way = "rises" if rise.value > 0 else "drops"
        ctx.warn(
            "corner-rise",
            "The hinge line is out of plumb",
            f"Opened {degrees:g}°, the latch corner {way} {ctx.fmt(abs(rise.value))}.",
            Remedy("Pack the foot or the head of the hinge jamb until it is plumb"),
            grounds=Grounds("corner_rise", rule=f"over {ctx.fmt(RISE_SEEN)} shows"),
        )


def floor_at(points: Sequence[FloorPoint], degrees: float) -> float | None:
    """Return the floor's height under the latch corner, between the places that were read; None beyond them.

    Args:
        points: Where the floor was read, and how high it is there, mm.
        degrees: How far the leaf is open, degrees from shut.
    """
    places = sorted((each.at, each.height.value) for each in points)
    if not places or not places[0][0] <= degrees <= places[-1][0]:
        return None
    for (a, low), (b, high) in pairwise(places):
        if a <= degrees <= b:
            return low + (high - low) * (degrees - a) / (b - a) if b > a else high
    return places[0][1]


def _drags_at(ctx: Context, swing: Swing) -> float | None:
    """Return the angle at which the leaf first touches the floor, to half a degree; None where it never does."""
    points = ctx.leaf.floor.swing
    if not points:
        return None
    clear = ctx.figures["gap_floor"].value + ctx.figures["floor_high"].value
    for half in range(361):
        floor = floor_at(points, half / 2)
        if floor is not None and clear + swing.rise(half / 2) < floor:
            return half / 2
    return None


def _floor(ctx: Context, swing: Swing) -> None:
    """Add the least gap over the floor along the arc, the corner's rise in it; rising hinges where it drags."""
    floor, f = ctx.leaf.floor, ctx.figures
    if floor.along is not FloorAlong.SWING or not floor.points:
        return
    sill, gap = f["floor_high"], f["gap_floor"]
    gaps = [gap.value + sill.value + swing.rise(each.at) - each.height.value for each in floor.points]
    at = min(range(len(gaps)), key=gaps.__getitem__)
    inputs: list[Figure] = [gap, f[figure_name(f"floor_{at + 1}")]]
    least = f.derived(
        "swing_floor_gap",
        f"least gap over the floor, at {floor.points[at].at:g}°",
        gaps[at],
        *inputs,
        formula="gap + the corner's rise − the floor's",
    )
    if least.value >= LEAST_OVER_FLOOR:
        return
    thick, knuckle, setback, head = f["thickness"], f["butt_knuckle"], f["butt_setback"], f["gap_head"]
    easing = rising_easing(
        lift=LIFT, gap=max(head.value, 0.1), thickness=thick.value, knuckle=knuckle.value, setback=setback.value
    )
    eased = f.derived(
        "rising_easing",
        f"top edge to ease, for hinges that rise {ctx.fmt(LIFT)}",
        easing.length,
        head,
        thick,
        knuckle,
        setback,
        formula="((t + p)·cos θ − p) ÷ sin θ − s, θ = 90 × gap ÷ lift",
    )
    ctx.warn(
        "rising-hinges",
        "Rising hinges would lift it over",
        (f"It drags from {swing.stops_deg:.0f}°, " if swing.stopped_by == "floor" else "It comes close, ")
        + f"{ctx.fmt(LEAST_OVER_FLOOR - least.value)} too low at {floor.points[at].at:g}°. "
        f"With {ctx.fmt(LIFT)} of lift ease the top for {ctx.fmt(eased)} from the hinges.",
        Remedy("Only where part of the way is high; else a wider gap"),
        grounds=Grounds("rising_easing"),
    )
