"""The track of a sliding leaf: its height and holes, what is behind them, shims on the floor, stops. mm.

Along the track all is measured from its hinge end as it is first held up. Source: common practice of the trade.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import HAIR, Unit
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.readings import FloorAlong
from oakmeasure.core.document.sliding_gear import LEAST_BACKING, HangerKind, WallChoices, WallKind
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.fit.gear import from_set_or
from oakmeasure.core.fit.slide import ROLLER
from oakmeasure.core.hardware.fixing_stack import LEAST_BITE
from oakmeasure.core.hardware.sliding.hangers import Gear, gear_figure
from oakmeasure.core.hardware.sliding.studs import (
    Alignment,
    alignment,
    best_shift,
    margin,
    redrilled,
    stud_places,
    track_holes,
)
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening

# Until a set is chosen: common practice, no source
USUAL_FIRST = 50.0
USUAL_PITCH = 400.0
USUAL_UP = 60.0
EDGE = 1.0  # of a screw's own diameters, from its middle to a stud's edge: common practice, no source
MOST_APART = 610.0  # between two fixings of a track: common practice, no source
LEVEL = 2.0  # per metre; a leaf on the floor rolls by itself on more: common practice, no source
SHIM_SEEN = 0.3  # less is left to the screws


def fix_track(ctx: Context, opening: Opening, fit: Fit, gear: Gear) -> Gear:
    """Add the track's height, its holes and what they meet; return the gear with them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
        fit: Size of the leaf and its gaps, mm.
        gear: What the leaf slides on.
    """
    f = ctx.figures
    _stops(ctx, gear)
    try:
        first = gear_figure(ctx, "hole_first", "track's first hole, from its end", USUAL_FIRST)
        pitch = gear_figure(ctx, "hole_pitch", "track's holes, from one to the next", USUAL_PITCH)
        holes = track_holes(length=f["track_needed"].value, first=first.value, pitch=pitch.value)
    except InputError as error:
        ctx.stop(
            "track-holes",
            "The track's holes do not lie on it",
            str(error),
            Remedy("A longer track, or its first hole nearer to the end"),
            grounds=Grounds("track_needed"),
        )
        return gear
    f.derived(
        "track_holes",
        "holes in the track, cut to length",
        len(holes),
        f["track_needed"],
        first,
        pitch,
        formula="every pitch, and one near the cut end",
        unit=Unit.COUNT,
    )
    if ctx.leaf.hanging is Hanging.FLOOR_GEAR:
        return replace(gear, holes=holes, shims=_shims(ctx, opening, fit, holes))
    _height(ctx)
    if ctx.leaf.hanging is Hanging.POCKET:
        return replace(gear, holes=holes)  # its frame carries it
    return _fixed(ctx, replace(gear, holes=holes))


def _height(ctx: Context) -> None:
    """Add the height of the track's holes over the finished floor: where the line is snapped."""
    f, track, choice = ctx.figures, ctx.leaf.slide.track_set, ctx.leaf.hardware.hangers
    value, source = choice.hole_up, "set by hand for this leaf"
    if value is None:
        value, source = (
            (track.above - track.hole_down, track.name)
            if track is not None
            else (USUAL_UP, "taken until a set is chosen")
        )
    up = f.given(
        "hole_up", "track's holes over the leaf's top", value, fixed("hardware.hangers.hole_up", source=source)
    )
    terms = [plus(f["gap_floor"]), plus(f["leaf_height"]), plus(up)]
    if "hung_higher" in f:
        terms.insert(1, plus(f["hung_higher"]))
    line = f.total("track_line", "track's holes over the finished floor, level", *terms)
    ctx.fine(
        "track-line",
        f"Snap the track's line {ctx.fmt(line)} over the floor",
        "Level, from the highest floor along the travel.",
        grounds=Grounds("track_line"),
    )


# --- what is behind the holes ------------------------------------------------------------------------------


def _fixed(ctx: Context, gear: Gear) -> Gear:
    wall = ctx.leaf.hardware.wall
    if wall.kind is WallKind.BOARD:
        ctx.stop(
            "wall-board",
            "Never on plasterboard alone",
            "It holds neither the leaf's weight nor its jolts.",
            Remedy("Find the studs, and say where they are", "hardware.wall.kind", WallKind.STUDS),
            Remedy("Or a backing board fixed to what carries it"),
            grounds=Grounds("track_holes", rule="never plasterboard alone"),
        )
        return gear
    if wall.kind is WallKind.MASONRY:
        return replace(gear, shift=wall.shift)
    length = ctx.figures["track_needed"].value
    studs = _studs(wall, length)
    if not studs:
        ctx.warn(
            "studs",
            "Where are the studs behind the track?",
            "Not found yet; every hole of the track must meet one.",
            Remedy("Find them: the first one and their pitch, or each of them"),
            Remedy("A backing board frees the track's holes; it needs two studs itself"),
            grounds=Grounds("track_holes", rule="never plasterboard alone"),
        )
        return gear
    edge = EDGE * ctx.leaf.hardware.stack.diameter
    if wall.backing >= LEAST_BACKING:
        return _on_backing(ctx, gear, wall, studs, length)
    holes = gear.holes
    if wall.redrill:
        new = redrilled(length=length, studs=[each - wall.shift for each in studs], apart=MOST_APART)
        holes = new or holes
    now = alignment(holes, studs, width=wall.stud_width, edge=edge, shift=wall.shift)
    held = tuple(margin(each + wall.shift, studs, wall.stud_width) >= edge - 1e-9 for each in holes)
    made = replace(gear, holes=holes, held=held, studs=studs, shift=wall.shift)
    _figures(ctx, now, len(holes))
    if gear.kind is not HangerKind.FLOOR:  # no stop stands on what guides its head
        _shifted(ctx, wall)
    if now.hits == len(holes):
        again = "Drilled anew before the studs, " if wall.redrill else ""
        ctx.fine(
            "studs",
            "Every hole meets a stud",
            f"{again}{len(holes)} holes, {ctx.fmt(now.least)} or more inside the wood.",
            grounds=Grounds("stud_margin", rule=f"{ctx.fmt(edge)} from a stud's edge"),
        )
        return made
    _not_held(ctx, made, wall, now, edge, length)
    return made


def _studs(wall: WallChoices, length: float) -> tuple[float, ...]:
    """Return the middles of the studs as they were found, or by the first and their pitch; () until then."""
    if wall.studs:
        return tuple(sorted(each.at for each in wall.studs))
    if wall.stud_first is None:
        return ()
    beyond = wall.reach + 700.0
    return stud_places(first=wall.stud_first, pitch=wall.stud_pitch, low=-beyond, high=length + beyond)


def _figures(ctx: Context, now: Alignment, count: int) -> None:
    f = ctx.figures
    f.given("stud_hits", "holes that meet a stud", now.hits, fixed(source=f"of {count}"), unit=Unit.COUNT)
    f.given(
        "stud_margin",
        "least wood from a hole's middle to its stud's edge",
        now.least,
        fixed(source="less than 0: beside it"),
    )


def _shifted(ctx: Context, wall: WallChoices) -> None:
    """A shifted track ends earlier on the side that it leaves: the wheels' way must still lie on it."""
    if not wall.shift:
        return
    f = ctx.figures
    shift = f.given("track_shift", "track shifted", abs(wall.shift), fixed("hardware.wall.shift"))
    short = f.total("track_longer", "track longer, for the shift", plus(shift), minus(f["stop_room"]))
    if short.value > HAIR:
        f.total("track_whole", "track, with what the shift takes", plus(f["track_needed"]), plus(short))
        side = "hinge" if wall.shift > 0 else "latch"
        ctx.warn(
            "track-shifted",
            "The shifted track must be longer",
            f"Shifted {ctx.fmt(shift)}, a wheel would leave it at the {side} side.",
            Remedy(f"A track of {ctx.fmt(f['track_whole'])}, the more at the {side} side"),
            grounds=Grounds("track_longer"),
        )


def _not_held(ctx: Context, gear: Gear, wall: WallChoices, now: Alignment, edge: float, length: float) -> None:
    """Say what is missed, and the ways out: a shift that holds all, new holes before the studs, a board."""
    holes, studs = gear.holes, gear.studs
    best = best_shift(holes, studs, width=wall.stud_width, edge=edge, reach=wall.reach)
    remedies, words = [], [f"{now.hits} of {len(holes)} holes are held."]
    if best.hits == len(holes):
        way = best.shift - wall.shift
        remedies.append(
            Remedy(
                f"Shift the track {ctx.fmt(abs(way))} to the {'latch' if way > 0 else 'hinge'}",
                "hardware.wall.shift",
                round(best.shift, 3),
            )
        )
        words.append(f"Shifted, all are, by {ctx.fmt(best.least)} of wood at the least.")
    else:
        words.append(f"No shift within {ctx.fmt(wall.reach)} holds all; the best holds {best.hits}.")
    new = redrilled(length=length, studs=[each - wall.shift for each in studs], apart=MOST_APART)
    if new and not wall.redrill:
        places = ", ".join(ctx.show.length(each, sign=False) for each in new)
        remedies.append(Remedy(f"Drill it anew before {len(new)} studs", "hardware.wall.redrill", True))
        words.append(f"Drilled anew, at {places} from its hinge end.")
    board = max(LEAST_BACKING, wall.backing)
    remedies.append(Remedy(f"A backing board of {ctx.fmt(board)}", "hardware.wall.backing", board))
    title = "The track has no stud behind it" if not now.hits else "Not every hole of the track meets a stud"
    ctx.stop(
        "studs",
        title,
        " ".join(words),
        *remedies,
        grounds=Grounds("stud_hits", "figure:track_needed", rule=f"{ctx.fmt(edge)} from a stud's edge"),
    )


def _on_backing(ctx: Context, gear: Gear, wall: WallChoices, studs: tuple[float, ...], length: float) -> Gear:
    """A board carries the track anywhere, as long as it is held itself by every stud behind it."""
    behind = [each for each in studs if 0 <= each <= length]
    if len(behind) < 2:
        ctx.stop(
            "studs",
            "The backing board has too few studs",
            f"{len(behind)} within its length of {ctx.fmt(length)}.",
            Remedy("A longer board, over two studs at the least"),
            grounds=Grounds("track_needed"),
        )
    elif max(b - a for a, b in pairwise(behind)) > 1.5 * MOST_APART:
        ctx.warn(
            "studs",
            "The backing board's studs are far apart",
            f"{len(behind)} in {ctx.fmt(length)}.",
            Remedy("A thicker board, or a nogging between them"),
            grounds=Grounds("track_needed"),
        )
    else:
        ctx.fine(
            "studs",
            f"A backing board of {ctx.fmt(wall.backing)} carries the track",
            f"Two screws into each of {len(behind)} studs, {ctx.fmt(LEAST_BITE)} or more in the wood; the track "
            "where its holes are.",
            grounds=Grounds("wall_backing"),
        )
    return replace(gear, studs=studs, shift=wall.shift, held=tuple(True for _ in gear.holes))


# --- on the floor ------------------------------------------------------------------------------------------


def _shims(ctx: Context, opening: Opening, fit: Fit, holes: Sequence[float]) -> tuple[Figure, ...]:
    """Add a shim at each fixing of a track on the floor: how much lower the floor is there than at its highest."""
    floor, f = ctx.leaf.floor, ctx.figures
    _load_path(ctx)
    points = sorted((each.at, each.height.value) for each in floor.travel)
    if floor.along is not FloorAlong.TRAVEL or len(points) < 2:
        ctx.warn(
            "floor-level",
            "The floor under the track is not read",
            "A leaf on wheels rolls by itself where its track falls.",
            Remedy("Read the floor along the travel, at two places or more"),
            grounds=Grounds("track_needed"),
        )
        return ()
    start = fit.x_hinge_edge - opening.hinge_in.value
    heights = [floor_at(points, start + each) for each in holes]
    highest, readings = max(heights), [f[figure_name(f"floor_{at + 1}")] for at in range(len(points))]
    found = tuple(
        f.derived(
            figure_name(f"shim_{at}"),
            f"shim at the track's hole {at}, {ctx.show.length(hole, sign=False)} along",
            highest - high,
            *readings,
            formula="highest floor − the floor here, between its readings",
        )
        for at, (hole, high) in enumerate(zip(holes, heights, strict=True), start=1)
    )
    most = max(found, key=lambda each: each.value)
    slope = max(abs(b[1] - a[1]) / (b[0] - a[0]) * 1000 for a, b in pairwise(points) if b[0] > a[0])
    if most.value > SHIM_SEEN:
        ctx.warn(
            "floor-level",
            "Shim the track until it is level",
            f"The floor falls up to {ctx.fmt(slope)} a metre; {ctx.fmt(most)} at the most under the track.",
            Remedy("Shims at every hole, full under the track"),
            grounds=Grounds(most.name, rule=f"over {ctx.fmt(LEVEL)} a metre a leaf rolls"),
        )
    else:
        ctx.fine(
            "floor-level",
            "The floor under the track is level",
            f"{ctx.fmt(most)} at the most.",
            grounds=Grounds(most.name),
        )
    return found


def floor_at(points: Sequence[tuple[float, float]], at: float) -> float:
    """Return the floor's height, mm, between its readings; beyond them it goes on as between the last two.

    Source: slope × distance.

    Args:
        points: Place and height, mm, rising places, two or more.
        at: How far along the track, mm.

    >>> floor_at([(0.0, 0.0), (1000.0, -5.0)], 1600.0)
    -8.0
    """
    pairs = list(pairwise(points))
    (x0, y0), (x1, y1) = next((pair for pair in pairs if at <= pair[1][0]), pairs[-1])
    return y0 + (y1 - y0) * (at - x0) / (x1 - x0) if x1 > x0 else y0


def _load_path(ctx: Context) -> None:
    """Say where the weight goes: through two wheels into the floor, which must bear it there."""
    f = ctx.figures
    most = max(f["hanger_1"], f["hanger_2"], key=lambda each: each.value)
    kind = ctx.leaf.hardware.guide.floor
    if kind.name in ("LAMINATE", "CARPET"):
        ctx.stop(
            "floor-bears",
            f"No track on {kind}",
            f"Each wheel brings up to {ctx.fmt(most)}; what is under the floor must bear it.",
            Remedy("Cut the floor away and set the track on what is under it"),
            grounds=Grounds(most.name, rule="load to the floor"),
        )
    else:
        ctx.fine(
            "floor-bears",
            "The weight goes into the floor",
            f"Up to {ctx.fmt(most)} under each wheel, along the whole track.",
            Remedy("Structure: whoever answers for the floor decides"),
            grounds=Grounds(most.name),
        )


# --- stops -------------------------------------------------------------------------------------------------


def _stops(ctx: Context, gear: Gear) -> None:
    """Add where the stops stand: a wheel runs against them, not the leaf's edge, so a leaf may stop early."""
    f, choice = ctx.figures, ctx.leaf.hardware.hangers
    if gear.kind is HangerKind.FLOOR:
        return
    roller = from_set_or(ctx, "roller", ROLLER)
    room = f.total("stop_room", "leaf's edge to the wheel's near side", plus(f["bolt_in"]), minus(roller, 0.5))
    long = ctx.chosen("stop_long", "stop on the track, length", choice.stop_long, "hardware.hangers.stop_long")
    f.total(
        "stop_open",
        "stop for the open leaf: its working face, from the track's hinge end",
        plus(f["track_needed"]),
        minus(room),
    )
    early = long.value - room.value
    if early > HAIR:
        # The stop would stand beyond the track's end: the leaf ends its way before the opening is clear or covered.
        f.total("stops_early", "leaf stops early by", plus(long), minus(room))
        ctx.warn(
            "stops-early",
            "The leaf stops before the end of its way",
            f"A stop of {ctx.fmt(long)} has {ctx.fmt(room)} between wheel and track's end: {ctx.fmt(early)} early at "
            "each end.",
            Remedy(f"A track {ctx.fmt(2 * early)} longer than {ctx.fmt(f['track_needed'])}"),
            Remedy("Or hangers further in", "hardware.hangers.bolt_in", f["bolt_in"].value + early),
            grounds=Grounds("stop_room", rule="a wheel runs against the stop, not the leaf"),
        )
    else:
        ctx.fine(
            "stops",
            "The stops fit on the track",
            f"Their working faces {ctx.fmt(room)} in from the shut leaf's edge, and at {ctx.fmt(f['stop_open'])}.",
            grounds=Grounds("stop_open"),
        )
