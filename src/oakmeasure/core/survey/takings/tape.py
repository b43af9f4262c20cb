"""A four-sided opening taken by tape and level."""

from __future__ import annotations

from oakmeasure.core.base.arcs import half_round_rise, segmental_radius, two_centred_radius
from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import counted
from oakmeasure.core.document.job import Leaf, Reading
from oakmeasure.core.document.readings import HeadKind, Side
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, Origin, Provenance, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.adjust import Adjustment, Observed, Status, adjust
from oakmeasure.core.survey.checks import assumed, judge_readings, say_contradictory
from oakmeasure.core.survey.heads import head_line
from oakmeasure.core.survey.kinds import KINDS, SurveyKind
from oakmeasure.core.survey.survey_result import Taken, bow_at, outline_of

LEAST_SPAN = 50.0


def take_by_tape(ctx: Context) -> Taken:
    """Adjust the readings of tape and level, and judge them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    head = ctx.leaf.head.kind
    readings = readings_of(ctx)
    figures = {
        kind: ctx.reading(
            figure_name(f"reading_{kind}"), KINDS[kind].label, reading, f"readings.{kind}", KINDS[kind].wanted
        )
        for kind, reading in readings.items()
    }
    if head.is_curved and len(readings) > 1:
        # Then it is read to the crown, and says nothing of the four corners.
        readings.pop(SurveyKind.HEIGHT_MIDDLE, None)
    observed = {kind: _straightened(ctx, kind, each) for kind, each in readings.items()}
    try:
        adjustment = adjust(observed, is_raked=head is HeadKind.RAKED)
    except InputError:
        return _contradictory(ctx, observed)
    aside = (Status.SET_ASIDE, Status.BOWED)  # no part of what the corners were worked out from
    inputs = [figures[kind] for kind in readings if adjustment.readings[kind].status not in aside]
    count = len(inputs)
    inputs += assumed(ctx, adjustment)
    for at, bow in enumerate(ctx.leaf.bows):
        label = f"{bow.side}, bow at {ctx.fmt(bow.at)}"
        inputs.append(
            ctx.reading(
                figure_name(f"bow_{at + 1}"), label, bow.into, f"bows.{at}.into", "off a stretched line, + is in"
            )
        )
    line = _head(ctx, adjustment, inputs)
    return Taken(
        outline_of(adjustment.corners, head=line, bows=ctx.leaf.bows),
        adjustment.corners,
        adjustment.covariance,
        tuple(inputs),
        f"least squares over {counted(count, 'reading')}, the hinge side's foot being 0",
        "survey adjustment, weighted by each reading's uncertainty",
        adjustment,
        bow_width=_bow(ctx, adjustment, SurveyKind.WIDTH_MIDDLE),
        bow_height=_bow(ctx, adjustment, SurveyKind.HEIGHT_MIDDLE),
    )


def judge_tape(ctx: Context, taken: Taken) -> None:
    """Say what the readings say of each other; after the clear width, whose uncertainty the sentences give.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        taken: The opening as it was taken.
    """
    if taken.adjustment is not None:
        judge_readings(ctx, taken.adjustment, {kind: KINDS[kind].label for kind in SurveyKind})


def readings_of(ctx: Context) -> dict[SurveyKind, Reading]:
    """Return the readings that were taken.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    every = {kind: getattr(ctx.leaf.readings, kind) for kind in SurveyKind}
    return {kind: reading for kind, reading in every.items() if reading is not None}


def sigma_of(ctx: Context, kind: SurveyKind, reading: Reading | None = None) -> float:
    """Return the standard uncertainty of a reading, mm: its own, or its kind's by the shop rules.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        kind: Kind of the reading.
        reading: The reading; None where only its kind is known.
    """
    if reading is not None and reading.sigma is not None:
        return reading.sigma
    if kind.startswith("diagonal"):
        return ctx.rules.sigma_diagonal.value
    if kind.is_plumb:
        r = ctx.leaf.readings
        span = r.some_width if kind in (SurveyKind.SILL_RISE, SurveyKind.HEAD_RISE) else r.some_height
        return ctx.rules.sigma_plumb_per_m.value * span.value / 1000
    return ctx.rules.sigma_tape.value


def lean_over_side(leaf: Leaf, name: str, slope: float) -> float:
    """Return what a slope in mm per metre, as an inclinometer reads it, comes to over a whole side, mm.

    Over the height for a lean, over the width for sill and head.

    Args:
        leaf: The leaf, as the document holds it.
        name: The reading's field.
        slope: As the inclinometer reads it, mm per metre.
    """
    over = leaf.readings.some_width if name.endswith("_rise") else leaf.readings.some_height
    return slope * over.value / 1000


def _straightened(ctx: Context, kind: SurveyKind, reading: Reading) -> Observed:
    """Return the reading as it would be between straight sides: bows that were read themselves are added back."""
    value, bows, r = reading.value, ctx.leaf.bows, ctx.leaf.readings
    if bows and kind.is_width:
        height = r.some_height.value
        at = {SurveyKind.WIDTH_TOP: 1.0, SurveyKind.WIDTH_MIDDLE: 0.5, SurveyKind.WIDTH_BOTTOM: 0.0}[kind] * height
        value += sum(bow_at(bows, side, at, height) for side in (Side.HINGE, Side.LATCH))
    if bows and kind is SurveyKind.HEIGHT_MIDDLE:
        width = r.some_width.value
        value += sum(bow_at(bows, side, width / 2, width) for side in (Side.HEAD, Side.FLOOR))
    return Observed(value, sigma_of(ctx, kind, reading))


def _bow(ctx: Context, adj: Adjustment[SurveyKind], kind: SurveyKind) -> Figure | None:
    """Return how far a side bows in at the middle, beyond what the tapered clear size already gives away."""
    judged = adj.readings.get(kind)
    doubted = judged is not None and judged.status in (Status.BOWED, Status.UNDECIDED)
    if judged is None or not doubted or judged.miss >= 0:
        return None
    # A straight taper leaves room at the middle; only what the bow takes beyond that narrows the plumb size.
    if kind is SurveyKind.WIDTH_MIDDLE:
        room = min(abs(adj.hinge_head[0]), abs(adj.latch_head[0] - adj.latch_foot[0])) / 2
    else:
        room = min(abs(adj.latch_foot[1]), abs(adj.latch_head[1] - adj.hinge_head[1])) / 2
    taken = -judged.miss - room
    if taken <= 0:
        return None
    what = "width" if kind is SurveyKind.WIDTH_MIDDLE else "height"
    how = f"reading less what straight edges make it, {ctx.fmt(judged.adjusted)}, less the room {ctx.fmt(room)}"
    label = f"bow into the {what} at the middle"
    reading = ctx.figures[figure_name(f"reading_{kind}")]
    return ctx.figures.derived(
        figure_name(f"bow_{what}"), label, taken, reading, formula=f"{how} that the taper leaves there"
    )


# --- the head --------------------------------------------------------------------------------------------


def _head(ctx: Context, adj: Adjustment[SurveyKind], inputs: list[Figure]) -> tuple[Point, ...]:
    """Add the figures of a curved head and return its line; () for one that is straight."""
    kind = ctx.leaf.head.kind
    start, end = adj.hinge_head, adj.latch_head
    if kind is HeadKind.RAKED:
        rake = end[1] - start[1]
        ctx.figures.derived(
            "head_rake", "rake of the head, + up to the latch", rake, *inputs, formula="from corner to corner"
        )
    if not kind.is_curved:
        return ()
    span_value = ((end[0] - start[0]) ** 2 + (end[1] - start[1]) ** 2) ** 0.5
    span = ctx.figures.derived(
        "head_span", "span of the head", span_value, *inputs, formula="where it springs, side to side"
    )
    rise = _rise(ctx, kind, span, adj)
    try:
        if kind is HeadKind.TWO_CENTRED:
            radius, formula = two_centred_radius(span=span.value, rise=rise.value), "rise² ÷ span + span ÷ 4"
        else:
            radius, formula = segmental_radius(span=span.value, rise=rise.value), "span² ÷ (8 × rise) + rise ÷ 2"
        line = head_line(start, end, kind, rise.value)
    except InputError as error:
        ctx.stop(
            "head-impossible",
            f"No {kind} head has this rise",
            f"{ctx.fmt(rise)} over a span of {ctx.fmt(span)}: the rise needs "
            + (f"{ctx.fmt(error.limits[0])} to {ctx.fmt(error.limits[1])}." if error.limits else f"{error.need}."),
            Remedy("Read the rise again, or choose another shape of head"),
            grounds=Grounds("head_arch_rise", "reading:head_rise_crown"),
        )
        return ()
    ctx.figures.derived("head_radius", "radius of the head", radius, span, rise, formula=formula)
    return line


def _rise(ctx: Context, kind: HeadKind, span: Figure, adj: Adjustment[SurveyKind]) -> Figure:
    label = "rise of the head above where it springs"
    if ctx.leaf.head.rise is not None:
        return ctx.reading("head_arch_rise", label, ctx.leaf.head.rise, "head.rise", "crown above the springing line")
    crown = ctx.figures.get(figure_name(f"reading_{SurveyKind.HEIGHT_MIDDLE}"))
    if kind is HeadKind.HALF_ROUND or crown is None:
        if kind is HeadKind.HALF_ROUND:
            rise, state, how = half_round_rise(span=span.value), None, "half the span"
        else:
            rise, state, how = (
                span.value / (8 if kind is HeadKind.SEGMENTAL else 1.1547),
                Provenance.ASSUMED,
                "not read yet",
            )
        if state is None:
            return ctx.figures.derived("head_arch_rise", label, rise, span, formula=how)
        return ctx.figures.given("head_arch_rise", label, rise, Origin(edit="head.rise", source=how, state=state))
    springing = ctx.figures.derived(
        "head_springing",
        "where the head springs, at the middle",
        (adj.hinge_head[1] + adj.latch_head[1]) / 2,
        span,
        formula="half way between its two ends",
    )
    return ctx.figures.total("head_arch_rise", label, plus(crown), minus(springing))


# --- readings that close to nothing ------------------------------------------------------------------------


def _contradictory(ctx: Context, observed: dict[SurveyKind, Observed]) -> Taken:
    """Fall back to the least of each reading, square, so that the rest can be seen, and say so with a stop."""
    widths = [kind for kind in observed if kind.is_width]
    heights = [kind for kind in observed if kind.is_height]
    inputs = tuple(ctx.figures[figure_name(f"reading_{kind}")] for kind in (*widths, *heights))
    w = min(observed[kind].value for kind in widths)
    h = min(
        (observed[kind].value for kind in heights),
        default=ctx.figures["reading_height_middle"].value if "reading_height_middle" in ctx.figures else 2000.0,
    )
    say_contradictory(ctx)
    corners = ((0.0, 0.0), (w, 0.0), (w, h), (0.0, h))
    flat = [[0.0] * 6 for _ in range(6)]
    how = "the least reading, since no opening has them all"
    return Taken(outline_of(corners), corners, flat, inputs, how, "no survey adjustment")
