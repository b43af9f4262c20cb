"""An opening taken by ticks on a board: its figures, and what is said of the ticks."""

from __future__ import annotations

import math

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point, signed_area
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.readings import TickTemplate
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, Origin
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.survey_result import Taken, outline_of
from oakmeasure.core.survey.tick_board import JudgedTick, TemplateFit, TickStatus, fit_template, side_names
from oakmeasure.core.survey.ticks import OUTLIER, Round

ARC_PIECES = 24
NICK_APART = 2.0  # mm between the nick as read on the wall and on the board: common practice, no source


def take_by_ticks(ctx: Context, template: TickTemplate) -> Taken | None:
    """Fit the sides to the ticks; None, with a check, where they make no outline yet.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        template: The board with its ticks.
    """
    stick = ctx.reading("stick", "stick, point to mark", template.stick, "template.stick", "measured on the stick")
    used = [each for each in template.ticks if not each.excluded]
    uses_stick = any(each.angle_deg is not None or each.x2 is not None for each in used)
    sigma = ctx.rule("sigma_tick", "uncertainty of a tick")
    count = ctx.figures.given("ticks", "ticks used", len(used), Origin(source="on the board"), unit=Unit.COUNT)
    try:
        fit = fit_template(template, sigma.value)
        if signed_area(fit.corners) <= 0:
            raise InputError("ticks", "crossed", "an outline that goes round anticlockwise: look at the sides' names")
    except InputError as error:
        ctx.stop(
            "template-open",
            "The ticks make no outline yet",
            f"{error.value}: needs {error.need}.".capitalize(),
            Remedy("Take more ticks, or name the sides of those there are"),
            grounds=Grounds("clear_width"),
        )
        return None
    inputs: list[Figure] = [count, sigma] + ([stick] if uses_stick else [])
    ox, oy = fit.corners[0]
    corners = tuple((x - ox, y - oy) for x, y in fit.corners)
    names = side_names(template.sides)
    for name, side in zip(names, fit.sides, strict=True):
        slug = name.replace(" ", "_")
        ctx.figures.derived(
            figure_name(f"sigma_{slug}"),
            f"standard error of the {name}",
            side.sigma,
            sigma,
            count,
            formula="the larger of a tick's uncertainty and the ticks' own spread, ÷ √ticks",
        )
    arch = fit.sides[2].curve if template.sides == 4 and isinstance(fit.sides[2].curve, Round) else None
    line: tuple[Point, ...] = ()
    if arch is not None:
        ctx.figures.derived(
            "head_radius", "radius of the head", arch.radius, *inputs, formula="circle through the ticks"
        )
        line = _arch(arch, (ox, oy), corners[3], corners[2])
    _nick(ctx, template, inputs, (ox, oy))
    return Taken(
        outline_of(corners, head=line, bows=ctx.leaf.bows, sigmas=[each.sigma for each in fit.sides]),
        corners,
        fit.covariance,
        tuple(inputs),
        f"sides fitted to {len(used)} ticks, wrong ones set aside; the hinge side's foot being 0",
        "template by ticks: consensus, then least squares",
        template=fit,
    )


def _arch(arch: Round, origin: Point, start: Point, end: Point) -> tuple[Point, ...]:
    """Return the arch from the hinge side's head to the latch side's, over the top."""
    cx, cy = arch.x - origin[0], arch.y - origin[1]
    first = math.atan2(start[1] - cy, start[0] - cx)
    last = math.atan2(end[1] - cy, end[0] - cx)
    turn = (first - last) % (2 * math.pi)
    angles = [first - turn * at / ARC_PIECES for at in range(ARC_PIECES + 1)]
    return tuple((cx + arch.radius * math.cos(each), cy + arch.radius * math.sin(each)) for each in angles)


def _nick(ctx: Context, template: TickTemplate, inputs: list[Figure], origin: Point) -> None:
    """Add where the datum nick stands from the fitted hinge side's foot."""
    for name, label, value in (
        ("nick_across", "datum nick, from the hinge side's foot towards the latch", template.nick_x - origin[0]),
        ("nick_up", "datum nick, over the hinge side's foot", template.nick_y - origin[1]),
    ):
        how = "the nick on the board less the foot as fitted"
        ctx.figures.derived(figure_name(name), label, value, *inputs, formula=how)


# --- what is said of the ticks ------------------------------------------------------------------------------


def judge_ticks(ctx: Context, template: TickTemplate, fit: TemplateFit) -> None:
    """Say which ticks are wrong, which sides nothing checks, how far the check reading misses.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        template: The board with its ticks.
        fit: The sides that were laid through the ticks.
    """
    names = side_names(template.sides)
    for at, tick in enumerate(fit.ticks):
        if tick.status is TickStatus.SET_ASIDE:
            _say_wrong(ctx, at, tick, names)
    for side, name in enumerate(names, start=1):
        own = [at for at, each in enumerate(fit.ticks) if each.side == side]
        open_ones = [at for at in own if fit.ticks[at].status is TickStatus.UNDECIDED]
        if open_ones:
            listed = ", ".join(str(at + 1) for at in open_ones)
            ctx.stop(
                f"ticks-undecided-{side}",
                f"Ticks on the {name} disagree",
                f"One of ticks {listed} is wrong; which one cannot be told. All else is, for now, as if it were tick "
                f"{next((at + 1 for at in open_ones if abs(fit.ticks[at].miss) > 1e-6), open_ones[0] + 1)}."
                f" That leaves the opening squarest.",
                Remedy(f"Take one more tick on the {name}"),
                grounds=Grounds(where=f"tick:{open_ones[0] + 1}", rule="two lines fit about equally well"),
            )
    unchecked = [name for name, side in zip(names, fit.sides, strict=True) if side.spread is None and not side.rivals]
    if unchecked:
        ctx.warn(
            "ticks-unchecked",
            "A wrong tick would not show",
            f"The {', '.join(unchecked)}: as many ticks as the line needs, and none that checks it.",
            Remedy("Three ticks a side show a wrong one, four say which"),
            grounds=Grounds(rule="two points make a line, three check it"),
        )
    _say_check(ctx, template, fit, names)
    _say_nick(ctx, template)


def _say_wrong(ctx: Context, at: int, tick: JudgedTick, names: tuple[str, ...]) -> None:
    way = "outside" if tick.miss > 0 else "inside"
    name = names[tick.side - 1]
    sentence = f"It lies {ctx.fmt(abs(tick.miss))} {way} the line that the others on the {name} agree on; set aside."
    remedies = [Remedy(f"Leave tick {at + 1} out", f"template.ticks.{at}.excluded", True), Remedy("Take it again")]
    if tick.nearer:
        other = names[tick.nearer - 1]
        sentence = f"It is named for the {name}, {ctx.fmt(abs(tick.miss))} away, and lies on the {other}."
        remedies = [Remedy(f"It belongs to the {other}", f"template.ticks.{at}.side", tick.nearer)]
    ctx.warn(
        f"tick-{at + 1}",
        f"Tick {at + 1} is wrong",
        sentence,
        *remedies,
        grounds=Grounds(
            f"sigma_{name.replace(' ', '_')}",
            f"tick:{at + 1}",
            rule=f"more than {OUTLIER:g} times a tick's uncertainty off",
        ),
    )


def _say_check(ctx: Context, template: TickTemplate, fit: TemplateFit, names: tuple[str, ...]) -> None:
    n = template.sides
    at, after = names[template.check_corner - 1], names[template.check_corner % n]
    if fit.check_miss is None:
        ctx.warn(
            "check-none",
            "No check reading",
            "Nothing outside the ticks says that the template is true.",
            Remedy("Lay the stick into one corner and keep that tick as the check"),
        )
        return
    sigma = ctx.figures["rule_sigma_tick"]
    inputs = [sigma, ctx.figures["ticks"]]
    miss = ctx.figures.derived(
        "check_miss",
        f"check reading's miss, corner of {at} and {after}",
        fit.check_miss,
        *inputs,
        formula="from the check tick's point to the corner as fitted",
    )
    limit = OUTLIER * math.hypot(
        sigma.value, *(fit.sides[each - 1].sigma for each in (template.check_corner, template.check_corner % n + 1))
    )
    where = f"It misses the corner of {at} and {after} by {ctx.fmt(miss)}; up to {ctx.fmt(limit)} is usual."
    if fit.decided_by_check:
        side = names[fit.decided_by_check[0] - 1]
        ctx.warn(
            "check-used",
            "The check reading had to decide",
            f"On the {side} the ticks alone could not say which is wrong. {where} It checks nothing else now.",
            Remedy(f"Take one more tick on the {side}"),
            grounds=Grounds("check_miss", "tick:check"),
        )
    elif fit.check_miss <= limit:
        ctx.fine("check", "The check reading agrees", where, grounds=Grounds("check_miss", "tick:check"))
    else:
        ctx.warn(
            "check-off",
            "The check reading misses",
            where,
            Remedy("Take the check again; then the ticks of those two sides"),
            grounds=Grounds("check_miss", "tick:check"),
        )


def _say_nick(ctx: Context, template: TickTemplate) -> None:
    if template.nick_up is None:
        return
    up = ctx.figures["nick_up"]
    apart = template.nick_up - up.value
    if abs(apart) > NICK_APART:
        ctx.warn(
            "nick",
            "The nick is not where it was read",
            f"On the wall it is {ctx.fmt(template.nick_up)} over the floor, by the ticks {ctx.fmt(up)}.",
            Remedy("Read the nick again; did the board slip?"),
            grounds=Grounds("nick_up", "tick:nick"),
        )
