"""What is to be said of a leaf's making: the glue-up, what was read, mishaps that are open, how much is left."""

from __future__ import annotations

import logging
from functools import lru_cache
from typing import TYPE_CHECKING

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.production import ReadingKind
from oakmeasure.core.figures.check import Grounds, Level, Remedy, Stage
from oakmeasure.core.figures.figure import Figure, Origin, fixed
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.making.end_steps import OUT_OF_TWIST
from oakmeasure.core.making.glue import TIGHT, GluePlan, plan_glue
from oakmeasure.core.making.log import last_reading, not_mended
from oakmeasure.core.making.replay import replay
from oakmeasure.core.making.sequence import Making
from oakmeasure.core.survey.square import skew_from_both
from oakmeasure.core.timber.place import glue_of
from oakmeasure.data import table

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign

EARLIER = (Stage.MEASURE, Stage.FIT, Stage.LEAF)  # a leaf that is stopped there has no steps yet
# Mm: common practice, no source
SPREAD_MOST = 0.5
LAST_RIP_OFF = 0.5
MOST_PEOPLE = 4  # who find room round a leaf: common practice, no source
SLOW = "slow-white"  # the glue that stays open longest and asks for nothing else


def judge_steps(ctx: Context, design: LeafDesign, making: Making) -> None:
    """Do all operations on the pieces, on paper; where they do not end at the leaf nobody may work from them.

    Of a leaf that cannot be made as it is asked for nothing is said: its own stops say why.

    Args:
        ctx: The leaf's context: its figures and checks added to.
        design: The leaf, set out with its hardware.
        making: The making, worked out.
    """
    bad = any(each.level is Level.STOP and each.stage in EARLIER for each in ctx.checks_so_far.items)
    if bad or design.body is None:
        return
    names = [each.name for each in design.borings]
    found = replay(design.body, design.cut_parts, making.operations, names).differences
    if not found:
        return
    _log_once(f"{ctx.leaf.name}: steps differ: {'; '.join(each.words for each in found)}")
    more = f"; and {len(found) - 1} more" if len(found) > 1 else ""
    ctx.stop(
        "steps-differ",
        "Do not work from these steps",
        f"Done on paper they do not end at the leaf: {found[0].words}{more}. The cut list is right; the fault is ours.",
        Remedy("Work from the cut list and the drawing; the log has all of it for us"),
    )


@lru_cache(maxsize=500)
def _log_once(words: str) -> None:
    """Name a fault of ours in the log: once, however often the leaf is worked out."""
    logging.getLogger(__name__).error("%s", words)


def judge_making(ctx: Context, build: Build, making: Making) -> None:
    """Judge the making of a leaf; `making` is worked out.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        making: The making, worked out.
    """
    f = ctx.figures
    f.given(
        "make_hours",
        "hours of work, all of it",
        round(making.hours, 2),
        fixed(source="what the leaf costs, shared out among its operations"),
        unit=Unit.HOURS,
    )
    waits = sum(op.wait_hours for op in making.operations)
    f.given(
        "make_waits",
        "hours of waiting, one after the other",
        round(waits, 1),
        fixed(source="glue, wood that settles, coats that dry"),
        unit=Unit.HOURS,
    )
    f.given(
        "finish_grams",
        "finish, all coats, grams",
        round(making.finish.grams),
        fixed(source="both faces, all edges, end grain twice"),
        unit=Unit.RATIO,
    )
    if making.glue is not None:
        _glue(ctx, build, making.glue)
    _mishaps(ctx)
    _square(ctx)
    _flat(ctx)
    _thickness(ctx)
    _last_rip(ctx, build)
    ctx.fine(
        "make",
        f"{len(making.operations)} operations",
        f"{making.hours:.1f} hours of work, {waits:.0f} of waiting beside it.",
        grounds=Grounds("make_hours"),
    )


def _glue(ctx: Context, build: Build, plan: GluePlan) -> None:
    glue, f = plan.glue, ctx.figures
    f.given(
        "glue_open",
        f"{glue.name}: minutes it stays open today",
        round(glue.open_minutes, 2),
        fixed(source=f"at {ctx.leaf.making.shop_temperature_c:g} °C; doubles for every 10 °C less"),
        unit=Unit.RATIO,
    )
    longest = plan.longest
    f.given(
        "glue_longest",
        "longest stage, minutes",
        round(longest, 2),
        fixed(source=f"{plan.people} at it, {plan.clamps} clamps"),
        unit=Unit.RATIO,
    )
    if ctx.leaf.making.shop_temperature_c < glue.least:
        ctx.stop(
            "glue-cold",
            "Too cold for this glue",
            f"{ctx.leaf.making.shop_temperature_c:g} °C; {glue.name} wants {glue.least:g}.",
            Remedy(f"Warm the shop to {glue.least + 4:g} °C", "making.shop_temperature_c", glue.least + 4),
            grounds=Grounds("glue_open", rule="the glue's label goes before"),
        )
    for each in plan.tasks:
        if not each.stages:
            ctx.stop(
                "glue-long",
                f"{each.task.name.capitalize()} cannot be glued in time",
                f"{each.trouble}.",
                *_ways(ctx, build, plan, each.ways),
                grounds=Grounds("glue_open", rule="open time of the glue"),
            )
            return
    _in_time(ctx, build, plan, longest)


def _in_time(ctx: Context, build: Build, plan: GluePlan, longest: float) -> None:
    """Say how much of the open time the longest stage takes."""
    glue, stages = plan.glue, [stage for each in plan.tasks for stage in each.stages]
    cauls = [stage for stage in stages if stage.cauls]
    if longest > TIGHT * glue.open_minutes:
        ctx.warn(
            "glue-tight",
            "A glue-up with no time to spare",
            f"{longest:.1f} of {glue.open_minutes:.1f} minutes.",
            *_ways(ctx, build, plan, ()),
            grounds=Grounds("glue_longest"),
        )
    elif stages:
        many = f"{len(stages)} stages" if len(stages) > 1 else "one stage"
        words = f"; {len(cauls)} of them with bowed cauls, clamps are short" if cauls else ""
        ctx.fine(
            "glue",
            f"Glued in {many}",
            f"The longest takes {longest:.1f} of {glue.open_minutes:.1f} minutes{words}.",
            grounds=Grounds("glue_longest"),
        )


def _ways(ctx: Context, build: Build, plan: GluePlan, ways: tuple[str, ...]) -> list[Remedy]:
    """Return what brings every glue-up into the open time with room to spare, tried out; and the ways that are told."""

    def brings_in(**choices: object) -> bool:
        leaf = ctx.leaf.model_copy(update={"making": ctx.leaf.making.model_copy(update=choices)})
        tried = plan_glue(leaf, build, ctx.rules)
        return tried is not None and tried.fits and tried.longest <= TIGHT * tried.glue.open_minutes

    found = []
    people = next((n for n in range(plan.people + 1, MOST_PEOPLE + 1) if brings_in(people=n)), None)
    if people is not None:
        words = "A second person at it" if people == plan.people + 1 == 2 else f"{people} people at it"
        found.append(Remedy(words, "making.people", people))
    bears = table("glues")[SLOW]["class"] >= glue_of(ctx.leaf.timber)
    if plan.glue.key != SLOW and bears and brings_in(glue=SLOW):
        found.append(Remedy("A slow white glue", "making.glue", SLOW))
    return found + [Remedy(each.capitalize()) for each in ways if "people" not in each and "white" not in each]


def _mishaps(ctx: Context) -> None:
    for entry in not_mended(ctx.leaf.making.log)[:3]:
        ctx.warn(
            "mishap",
            f"Not mended yet: {entry.mishap}",
            f"The {entry.part or 'leaf'}, {entry.at.day} {entry.at:%b}."
            + ("" if entry.repair else " Choose how it is mended."),
            grounds=Grounds(where=f"part:{entry.part}" if entry.part else ""),
        )


def _read(ctx: Context, kind: ReadingKind, name: str, unit: Unit = Unit.MM) -> Figure | None:
    entry = last_reading(ctx.leaf.making.log, kind)
    if entry is None or entry.value is None:
        return None
    return ctx.figures.given(
        figure_name(name), str(kind), entry.value, Origin(source=f"the log, {entry.at.day} {entry.at:%b}"), unit=unit
    )


def _square(ctx: Context) -> None:
    """Diagonals of the leaf as it was glued: rising² − falling² is four times its width times what it leans."""
    rising, falling = _read(ctx, ReadingKind.RISING, "made_rising"), _read(ctx, ReadingKind.FALLING, "made_falling")
    if rising is None or falling is None:
        return
    wide = ctx.figures["glued_width"]
    lean = skew_from_both(width=wide.value, first=rising.value, second=falling.value)
    room = 2 * ctx.figures["trim_side"].value if "trim_side" in ctx.figures else 0.0
    level = Level.OK if abs(lean) <= 0.5 else Level.WARNING if abs(lean) <= room else Level.STOP
    remedies = (
        ()
        if level is Level.OK
        else (Remedy("Planed out of the edges, wedge-shaped"),)
        if level is Level.WARNING
        else (Remedy("Steam the joints open, or a leaf that is narrower"),)
    )
    ctx.report(
        "made-square",
        level,
        "Square as it came out" if level is Level.OK else "It came out of square",
        f"It leans {ctx.fmt(abs(lean))} over its height; {ctx.fmt(room)} are left on to plane.",
        *remedies,
        grounds=Grounds("made_rising", rule="(rising² − falling²) ÷ (4 × width)"),
    )


def _flat(ctx: Context) -> None:
    twist, spread = _read(ctx, ReadingKind.TWIST, "made_twist"), _read(ctx, ReadingKind.SPREAD, "made_spread")
    if twist is not None:
        out = twist.value > OUT_OF_TWIST
        ctx.report(
            "made-twist",
            Level.WARNING if out else Level.OK,
            "It is in twist" if out else "Out of twist",
            f"{ctx.fmt(twist)} by winding sticks, {ctx.fmt(OUT_OF_TWIST)} at the most.",
            *((Remedy("Plane two corners, or let the stop take it up"),) if out else ()),
            grounds=Grounds("made_twist"),
        )
    if spread is not None and spread.value > SPREAD_MOST:
        ctx.warn(
            "made-spread",
            "It is not of one thickness",
            f"{ctx.fmt(spread)} from the thickest place to the thinnest.",
            Remedy("Plane it down, or set lock and hinges out from the opening face alone"),
            grounds=Grounds("made_spread"),
        )


def _thickness(ctx: Context) -> None:
    planned = ctx.figures.get("thickness_set_out")
    if planned is None:
        return
    now = ctx.figures["thickness"]
    words = f"The leaf came out {ctx.fmt(now)}, set out at {ctx.fmt(planned)}"
    if "cup_bored" in ctx.figures:
        cup, bored = ctx.figures["cup_depth"], ctx.figures["cup_bored"]
        if abs(cup.value - bored.value) > 0.01:
            words += f": cups {ctx.fmt(bored)} deep, not {ctx.fmt(cup)}"
    ctx.report(
        "made-thick",
        Level.OK if abs(now.value - planned.value) < 1.0 else Level.WARNING,
        "As thick as it came out",
        words + ".",
        grounds=Grounds("thickness"),
    )


def _last_rip(ctx: Context, build: Build) -> None:
    """The last board as it was ripped, against what is left for it: the leaf is as much wider or narrower."""
    entry = last_reading(ctx.leaf.making.log, ReadingKind.LAST_RIP)
    part = next((p for p in build.parts if entry is not None and p.name == entry.part), None)
    if entry is None or entry.value is None or part is None:
        return
    room = ctx.figures["trim_side"].value if "trim_side" in ctx.figures else 0.0
    over = entry.value - (part.face.width + room)
    level = Level.OK if abs(over) <= LAST_RIP_OFF else Level.WARNING
    words = f"{ctx.fmt(entry.value)}; {ctx.fmt(part.face.width)} and {ctx.fmt(room)} to plane are wanted"
    more = f": {ctx.fmt(abs(over))} {'more to plane off' if over > 0 else 'less to plane than was left on'}"
    remedies = () if level is Level.OK or over > 0 else (Remedy("A wider last board, or a wider gap at the latch"),)
    ctx.report(
        "made-last-rip",
        level,
        "The last board as it was ripped",
        words + (more if level is Level.WARNING else "") + ".",
        *remedies,
        grounds=Grounds(where=f"part:{part.name}"),
    )
