"""The opening as measured: clear sizes, how sure they are, and what the readings say of each other."""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.context import Context
from oakmeasure.core.errors import InputError
from oakmeasure.core.job import Reading
from oakmeasure.core.survey.adjust import Adjustment, Judged, Observed, Status, adjust
from oakmeasure.core.survey.kinds import KINDS, Kind
from oakmeasure.core.survey.next_reading import best_next
from oakmeasure.core.survey.square import skew_from_both
from oakmeasure.core.units import Unit
from oakmeasure.core.verdicts import Level, Remedy, Stage
from oakmeasure.core.working import Figure, State, derived, given, minus, plus, total


@dataclass(frozen=True, slots=True)
class Opening:
    """Corners and the plumb clear size; `adjustment` is None when the readings contradict each other."""

    hinge_foot: tuple[float, float]
    latch_foot: tuple[float, float]
    latch_head: tuple[float, float]
    hinge_head: tuple[float, float]
    hinge_in: Figure
    latch_in: Figure
    head_low: Figure
    floor_high: Figure
    clear_width: Figure
    clear_height: Figure
    adjustment: Adjustment | None


def survey(ctx: Context) -> Opening:
    """Adjust the readings, add the opening's figures and judge the readings."""
    readings = _readings(ctx)
    figures = {
        kind: ctx.reading(f"reading_{kind}", KINDS[kind].label, reading, f"readings.{kind}", KINDS[kind].wanted)
        for kind, reading in readings.items()
    }
    observed = {kind: Observed(each.value, sigma(ctx, kind, each)) for kind, each in readings.items()}
    try:
        adjustment = adjust(observed)
    except InputError:
        return _contradictory(ctx, observed)
    aside = (Status.SET_ASIDE, Status.BOWED)  # no part of what the corners were worked out from
    inputs = [figure for kind, figure in figures.items() if adjustment.readings[kind].status not in aside]
    for label in adjustment.assumptions:
        name = "assumed_" + label.replace(" ", "_")
        inputs.append(ctx.figures.add(given(name, label, 0.0, state=State.ASSUMED, source="no reading says otherwise")))
    opening = _opening(ctx, adjustment, inputs)
    _judge_readings(ctx, adjustment)
    return opening


def sigma(ctx: Context, kind: Kind, reading: Reading | None = None) -> float:
    """Return the standard uncertainty of a reading, mm: its own, or its kind's by the shop rules."""
    if reading is not None and reading.sigma is not None:
        return reading.sigma
    if kind.startswith("diagonal"):
        return ctx.rules.sigma_diagonal.value
    if kind.is_plumb:
        r = ctx.leaf.readings
        widths, heights = (
            (r.width_bottom, r.width_middle, r.width_top),
            (r.height_hinge, r.height_middle, r.height_latch),
        )
        span = next(each for each in (widths if kind is Kind.SILL_RISE else heights) if each is not None)
        return ctx.rules.sigma_plumb_per_m.value * span.value / 1000
    return ctx.rules.sigma_tape.value


def _readings(ctx: Context) -> dict[Kind, Reading]:
    every = {kind: getattr(ctx.leaf.readings, kind) for kind in Kind}
    return {kind: reading for kind, reading in every.items() if reading is not None}


def _opening(ctx: Context, adj: Adjustment, inputs: list[Figure]) -> Opening:
    count = sum(each.name.startswith("reading_") for each in inputs)
    how = f"least squares over {count} reading{'s' * (count != 1)}, the hinge side's foot being 0"

    def corner(name: str, label: str, value: float) -> Figure:
        return ctx.figures.add(
            derived(
                name,
                label,
                value,
                Unit.MM,
                *inputs,
                formula=how,
                source="survey adjustment, weighted by each reading's uncertainty",
            )
        )

    def end(at_head: bool) -> str:
        return "at the head" if at_head else "at the foot"

    hinge_at_head, latch_at_foot = adj.hinge_head[0] > 0, adj.latch_foot[0] < adj.latch_head[0]
    hinge_in = corner("hinge_side_in", f"hinge side, furthest in ({end(hinge_at_head)})", max(0.0, adj.hinge_head[0]))
    latch_in = corner(
        "latch_side_in",
        f"latch side, furthest in ({end(not latch_at_foot)})",
        min(adj.latch_foot[0], adj.latch_head[0]),
    )
    head_at_hinge = adj.hinge_head[1] < adj.latch_head[1]
    head = corner(
        "head_low",
        f"head, lowest (at the {'hinge' if head_at_hinge else 'latch'} side)",
        min(adj.hinge_head[1], adj.latch_head[1]),
    )
    floor = corner("floor_high", "floor, highest under the leaf", max(0.0, adj.latch_foot[1]))
    width_bow, height_bow = _bow(ctx, adj, Kind.WIDTH_MIDDLE), _bow(ctx, adj, Kind.HEIGHT_MIDDLE)
    clear_width = total(
        "clear_width",
        "clear width, plumb",
        plus(latch_in),
        minus(hinge_in),
        *([minus(width_bow)] if width_bow else []),
        source="the least plumb width, from the hinge side's furthest in to the latch side's",
    )
    clear_height = total(
        "clear_height", "clear height", plus(head), minus(floor), *([minus(height_bow)] if height_bow else [])
    )
    ctx.figures.add(clear_width)
    ctx.figures.add(clear_height)
    _uncertainty(ctx, adj, clear_width, hinge_at_head, latch_at_foot)
    _skew(ctx, adj, inputs)
    return Opening(
        adj.hinge_foot,
        adj.latch_foot,
        adj.latch_head,
        adj.hinge_head,
        hinge_in,
        latch_in,
        head,
        floor,
        clear_width,
        clear_height,
        adj,
    )


def _bow(ctx: Context, adj: Adjustment, kind: Kind) -> Figure | None:
    """Return how far a side bows in at the middle, beyond what the tapered clear size already gives away."""
    judged = adj.readings.get(kind)
    doubted = judged is not None and judged.status in (Status.BOWED, Status.UNDECIDED)
    if judged is None or not doubted or judged.miss >= 0:
        return None
    # A straight taper leaves room at the middle; only what the bow takes beyond that narrows the plumb size.
    if kind is Kind.WIDTH_MIDDLE:
        room = min(abs(adj.hinge_head[0]), abs(adj.latch_head[0] - adj.latch_foot[0])) / 2
    else:
        room = min(abs(adj.latch_foot[1]), abs(adj.latch_head[1] - adj.hinge_head[1])) / 2
    taken = -judged.miss - room
    if taken <= 0:
        return None
    reading = ctx.figures[f"reading_{kind}"]
    what = "width" if kind is Kind.WIDTH_MIDDLE else "height"
    label = f"bow into the {what} at the middle"
    return ctx.figures.add(
        derived(
            f"bow_{what}",
            label,
            taken,
            Unit.MM,
            reading,
            formula=f"reading less what straight edges make it, {ctx.fmt(judged.adjusted)}, "
            f"less the room {ctx.fmt(room)} that the taper leaves there",
        )
    )


def _uncertainty(ctx: Context, adj: Adjustment, clear: Figure, hinge_at_head: bool, latch_at_foot: bool) -> None:
    """Add how sure the clear width is, and how sure one more reading, the best one, would make it."""
    gradient = [0.0] * 6
    gradient[0 if latch_at_foot else 2] += 1
    if hinge_at_head:
        gradient[4] -= 1
    best = best_next(adj, size=gradient, sigmas={kind: sigma(ctx, kind) for kind in Kind})
    how = "standard uncertainty, carried through the adjustment"
    now = ctx.figures.add(
        derived("clear_width_uncertainty", "uncertainty of the clear width", best.now, Unit.MM, clear, formula=how)
    )
    label = f"its uncertainty after one more reading, the {KINDS[best.kind].label}"
    ctx.figures.add(derived("clear_width_uncertainty_next", label, best.then, Unit.MM, now, formula=how))
    ctx.next_reading = best.kind


def next_words(ctx: Context) -> str:
    """Return which reading would help most and by how much."""
    then = ctx.fmt(ctx.figures["clear_width_uncertainty_next"])
    kind = Kind(ctx.next_reading)
    again = "again" if getattr(ctx.leaf.readings, kind) is not None else "next"
    return f"read the {KINDS[kind].label} {again}: the clear width is then known to ± {then}"


def _skew(ctx: Context, adj: Adjustment, inputs: list[Figure]) -> None:
    rising = math.hypot(*adj.latch_head)
    falling = math.hypot(adj.hinge_head[0] - adj.latch_foot[0], adj.hinge_head[1] - adj.latch_foot[1])
    width = (
        float(
            math.hypot(*adj.latch_foot)
            + math.hypot(adj.latch_head[0] - adj.hinge_head[0], adj.latch_head[1] - adj.hinge_head[1])
        )
        / 2
    )
    ctx.figures.add(
        derived(
            "skew",
            "out of square over the height",
            skew_from_both(width=width, first=rising, second=falling),
            Unit.MM,
            *inputs,
            formula="(rising² − falling²) ÷ (4 × width), the three as adjusted",
        )
    )


def _contradictory(ctx: Context, observed: dict[Kind, Observed]) -> Opening:
    """Fall back to the least of each reading, square, so that the rest can be seen, and say so with a stop."""

    def least(name: str, label: str, kinds: list[Kind]) -> Figure:
        figures = [ctx.figures[f"reading_{kind}"] for kind in kinds]
        return ctx.figures.add(
            derived(
                name,
                label,
                min(each.value for each in figures),
                Unit.MM,
                *figures,
                formula="the least reading, since no opening has them all",
            )
        )

    width = least("clear_width", "clear width", [kind for kind in observed if kind.is_width])
    height = least("clear_height", "clear height", [kind for kind in observed if kind.is_height])
    zero = ctx.figures.add(given("hinge_side_in", "hinge side", 0.0))
    latch = ctx.figures.add(total("latch_side_in", "latch side", plus(width)))
    head = ctx.figures.add(total("head_low", "head", plus(height)))
    floor = ctx.figures.add(given("floor_high", "floor", 0.0))
    ctx.say(
        "survey-contradictory",
        Level.STOP,
        Stage.MEASURE,
        "No opening has these readings",
        "Together they close to no shape, so nothing below can be trusted.",
        Remedy("Take widths, heights and diagonals again"),
        figure="clear_width",
    )
    w, h = width.value, height.value
    return Opening((0, 0), (w, 0), (w, h), (0, h), zero, latch, head, floor, width, height, None)


# --- what the readings say of each other -----------------------------------------------------------------


def _judge_readings(ctx: Context, adj: Adjustment) -> None:
    said = False
    for kind, judged in adj.readings.items():
        if judged.status in (Status.SET_ASIDE, Status.BOWED):
            said = True
            _say_aside(ctx, kind, judged)
    if adj.undecided:
        said = True
        _say_undecided(ctx, adj)
    unchecked = [
        kind for kind, judged in adj.readings.items() if judged.least_blunder == float("inf") and not kind.is_plumb
    ]
    if unchecked:
        names = ", ".join(KINDS[kind].label for kind in unchecked)
        ctx.say(
            "survey-unchecked",
            Level.LOOK,
            Stage.MEASURE,
            "A misread would not show",
            f"Nothing checks the {names}. The clear width is known to ± "
            f"{ctx.fmt(ctx.figures['clear_width_uncertainty'])}.",
            Remedy("Read both diagonals, and widths and heights at three places"),
            *([] if adj.assumptions else [Remedy(f"Most would help: {next_words(ctx)}")]),
            rule="a reading is checked when others would contradict a misread",
            where=f"reading:{unchecked[0]}",
        )
    elif not said:
        least = max(judged.least_blunder for judged in adj.readings.values() if judged.least_blunder < float("inf"))
        width, sigma_width = ctx.figures["clear_width"], ctx.figures["clear_width_uncertainty"]
        ctx.say(
            "survey-agrees",
            Level.FINE,
            Stage.MEASURE,
            "The readings agree",
            f"{len(adj.readings)} readings; any misread of {ctx.fmt(least)} or more would show. "
            f"The clear width is {ctx.fmt(width)} ± {ctx.fmt(sigma_width)}.",
            Remedy(f"To be surer, {next_words(ctx)}"),
            rule="normalised residual under 3",
            figure="clear_width",
        )


def _say_aside(ctx: Context, kind: Kind, judged: Judged) -> None:
    label = KINDS[kind].label
    numbers = (
        f"The {label} reads {ctx.fmt(judged.value)}; the other readings make it {ctx.fmt(judged.adjusted)}, "
        f"{judged.normalised:.1f} times the spread that is usual."
    )
    again = Remedy("Take it again")
    if judged.status is Status.BOWED:
        way = "in" if judged.miss < 0 else "out"
        ctx.say(
            f"bowed-{kind}",
            Level.LOOK,
            Stage.MEASURE,
            f"A side bows {way}, or a middle reading is wrong",
            numbers + " Taken as a bow until a second reading says otherwise.",
            again,
            rule="normalised residual over 3",
            where=f"reading:{kind}",
            figure=f"reading_{kind}",
        )
        return
    ctx.say(
        f"misread-{kind}",
        Level.LOOK,
        Stage.MEASURE,
        f"Misread: {label}",
        numbers + " It is set aside.",
        again,
        rule="normalised residual over 3",
        where=f"reading:{kind}",
        figure=f"reading_{kind}",
    )


def _say_undecided(ctx: Context, adj: Adjustment) -> None:
    labels = [KINDS[kind].label for kind in adj.undecided]
    names = ", ".join(labels[:-1]) + " and " + labels[-1]
    size = max(abs(adj.readings[kind].blunder) for kind in adj.undecided)
    if len(adj.undecided) <= 3:
        advice = f"Take {names} again"
    else:
        advice = "Take both diagonals again, then the widths"
    plumb = "" if any(kind.is_plumb for kind in adj.readings) else ", or read the lean of both sides"
    ctx.say(
        "survey-undecided",
        Level.LOOK,
        Stage.MEASURE,
        "Readings disagree; which one is wrong cannot be told",
        f"One of {names} is out by about {ctx.fmt(size)}; each explains it equally well. All are kept for now.",
        Remedy(advice + plumb),
        rule="normalised residual over 3",
        where=f"reading:{adj.undecided[0]}",
        figure=f"reading_{adj.undecided[0]}",
    )
