"""What the shop can hold: bench, clamps, planer, sander, saw; each part and each glue-up against it.

Sources: the shop rules; ways round: common practice of the trade.
"""

from __future__ import annotations

from oakmeasure.core.base.units import Unit, counted
from oakmeasure.core.document.species import SheetMaterial, stuff
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import fixed
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Part


def judge_shop(ctx: Context, build: Build) -> None:
    """Say what of the leaf the shop cannot hold as it is, and the ways round.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    found = len(ctx.checks_so_far.items)
    _bench(ctx, build)
    _clamps(ctx, build)
    _planer(ctx, build)
    _sander(ctx, build)
    _saw(ctx, build)
    if len(ctx.checks_so_far.items) == found and build.glue_ups:
        ctx.fine(
            "shop",
            "The shop can hold it",
            f"Bench, clamps, planer and saw; {counted(len(build.glue_ups), 'glue-up')}.",
            grounds=Grounds("rule_bench_length"),
        )


def _bench(ctx: Context, build: Build) -> None:
    bench = ctx.rule("bench_length", "bench, length")
    longest = max([build.height, *(part.planed.length for part in build.parts)])
    if longest > bench.value:
        ctx.warn(
            "shop-bench",
            "It is longer than the bench",
            f"{ctx.fmt(longest)} on {ctx.fmt(bench)}.",
            Remedy("Two bearers on the floor, set true with winding sticks"),
            grounds=Grounds("rule_bench_length"),
        )


def _clamps(ctx: Context, build: Build) -> None:
    reach = ctx.rule("clamp_reach", "clamps reach")
    number = ctx.rule("clamps", "clamps", Unit.COUNT)
    if not build.glue_ups:
        return
    widest = max(build.glue_ups, key=lambda each: each.across)
    most = max(build.glue_ups, key=lambda each: each.clamps)
    f = ctx.figures
    f.given("glue_across", f"widest glue-up: {widest.name}", widest.across, fixed(source="as it is set out"))
    f.given("glue_clamps", f"clamps for {most.name}", most.clamps, fixed(source="common practice"), unit=Unit.COUNT)
    if widest.across > reach.value:
        ctx.warn(
            "shop-reach",
            "The clamps do not reach",
            f"{widest.name.capitalize()}: {ctx.fmt(widest.across)} across, clamps reach {ctx.fmt(reach)}.",
            Remedy("Two clamps end to end, or wedges between cleats on a board"),
            grounds=Grounds("glue_across"),
        )
    if most.clamps > number.value:
        ctx.warn(
            "shop-clamps",
            "Not enough clamps at one time",
            f"{most.name.capitalize()} takes {most.clamps}, there are {number.value:.0f}.",
            Remedy("Bowed bearers reach two places with one clamp"),
            Remedy("Or in stages, weights and cleats between"),
            grounds=Grounds("glue_clamps"),
        )


def _planer(ctx: Context, build: Build) -> None:
    planer = ctx.rule("planer_width", "planer takes")
    wide = [part for part in build.parts if _planed(part) and part.planed.width > planer.value]
    if wide:
        first = max(wide, key=lambda each: each.planed.width)
        ctx.warn(
            "shop-planer",
            "A part is wider than the planer",
            f"The {first.name} is {ctx.fmt(first.planed.width)}, the planer takes {ctx.fmt(planer)}.",
            Remedy("Plane it in halves before the last joint, or by hand across the grain"),
            grounds=Grounds("rule_planer_width", f"part:{first.name}"),
        )


def _planed(part: Part) -> bool:
    return not part.at_hand and not isinstance(stuff(part.species), SheetMaterial)


def _sander(ctx: Context, build: Build) -> None:
    sander = ctx.rule("sander_width", "sander takes")
    if 0 < sander.value < build.width:
        ctx.warn(
            "shop-sander",
            "The leaf is wider than the sander",
            f"{ctx.fmt(build.width)}, it takes {ctx.fmt(sander)}.",
            Remedy("By hand, or in a shop with a wider one"),
            grounds=Grounds("rule_sander_width"),
        )


def _saw(ctx: Context, build: Build) -> None:
    saw = ctx.rule("saw_width", "saw, beside the blade")
    sheets = [part for part in build.parts if isinstance(stuff(part.species), SheetMaterial) and not part.at_hand]
    wide = [part for part in sheets if min(part.planed.width, part.planed.length) > saw.value]
    if wide:
        ctx.warn(
            "shop-saw",
            "A sheet part is wider than the saw takes",
            f"The {wide[0].name}: {ctx.show.size(wide[0].planed.length, wide[0].planed.width)}.",
            Remedy("A hand saw along a straightedge, or have it cut where it is sold"),
            grounds=Grounds("rule_saw_width", f"part:{wide[0].name}"),
        )
