"""What can be wrong with a slab: held across its grain, too few strips, stiffeners that cut it through."""

from __future__ import annotations

import math
from collections.abc import Sequence

from oakmeasure.core.base.units import HAIR, Unit, counted
from oakmeasure.core.construction.slab.model import Slab, SlabGlue, SlabJoint, Stiffener
from oakmeasure.core.document.construction_model import LaidBoard
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Fixing, Part
from oakmeasure.core.leaf.part_factory import SCREW_SHORT_OF, SCREWS

STRIP_LEAST = 30.0  # thinner is a lath: common practice, no source
WIDEST_STRIP = 200.0  # wider flat-sawn strips cup: common practice, no source
# Of a metal channel, and how deep one is: common practice, no source
CHANNEL_WALL = 2.0
CHANNEL_LEAST = 5.0
UNDER_DADO = 12.0  # wood that stays under a dado: common practice, no source
UNDER_CHANNEL = max(UNDER_DADO, SCREWS[0] + SCREW_SHORT_OF - CHANNEL_WALL)  # so that the shortest screw holds it
HELD_MOVES = 2.0  # so much movement a nailed ledge bears before strips split: common practice, no source


def glue_stages(*, strips: int, at_once: int) -> int:
    """Return in how many glue-ups a slab comes together, `at_once` pieces in each: groups first, then the groups.

    Args:
        strips: How many strips there are.
        at_once: How many pieces one closes in one glue-up.

    >>> glue_stages(strips=7, at_once=3)
    3
    """
    pieces, stages = strips, 0
    while pieces > 1:
        groups = math.ceil(pieces / at_once)
        stages += sum(min(at_once, pieces - at * at_once) > 1 for at in range(groups))
        pieces = groups
    return stages


def judge(ctx: Context, choice: Slab, fit: Fit, strips: list[Part], fixings: Sequence[Fixing], season: Figure) -> None:
    """Judge strips, joints and stiffeners with what holds them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the slab.
        fit: Size of the leaf and its gaps, mm.
        strips: The strips, from the hinge edge.
        fixings: Nails and screws that hold the boards.
        season: How far the width moves between the driest and the wettest air, mm.
    """
    _strips(ctx, choice, fit, strips)
    _glue(ctx, choice, strips, season)
    if choice.stiffener is Stiffener.NONE:
        ctx.warn(
            "no-stiffener",
            "Nothing keeps it flat",
            f"A slab of {len(strips)} strips, {ctx.fmt(fit.width)} wide.",
            Remedy("Battens in dadoes", "build.stiffener", Stiffener.DADOES),
            grounds=Grounds("season"),
        )
        return
    _stiffeners(ctx, choice, fit, season)
    if not all(each.length for each in fixings):
        _no_screw(ctx, choice)


def _strips(ctx: Context, choice: Slab, fit: Fit, strips: list[Part]) -> None:
    over = ctx.figures.get("laid_over")
    if over is not None:
        laid = ctx.figures["boards_laid"]
        if over.value < -HAIR:
            ctx.stop(
                "strips-short",
                "The strips do not make the width",
                f"They lay up to {ctx.fmt(laid)}, {ctx.fmt(-over.value)} short of {ctx.fmt(fit.width)}.",
                Remedy(
                    f"One more strip of {ctx.fmt(max(STRIP_LEAST, -over.value))}",
                    "build.measured",
                    (*choice.measured, LaidBoard(width=min(max(STRIP_LEAST, -over.value + choice.shoot), 600.0))),
                ),
                grounds=Grounds("laid_over", "part:strip 1"),
            )
        else:
            ctx.fine(
                "lay-up",
                f"The strips make {ctx.fmt(laid)}",
                f"{ctx.fmt(over)} come off to {ctx.fmt(fit.width)}, half at each edge.",
                grounds=Grounds("laid_over", "part:strip 1"),
            )
    narrow = [each for each in strips if each.finished.width < STRIP_LEAST]
    if narrow:
        ctx.warn(
            "strip-narrow",
            "An outer strip gets thin",
            f"The {narrow[0].name} keeps {ctx.fmt(narrow[0].finished.width)}.",
            Remedy("Leave one strip out, or trim one edge only"),
            grounds=Grounds(
                narrow[0].width.name,
                f"part:{narrow[0].name}",
                rule=f"{ctx.fmt(STRIP_LEAST)} at the least: common practice",
            ),
        )
    widest = max(strips, key=lambda each: each.finished.width)
    if widest.finished.width > WIDEST_STRIP:
        ctx.warn(
            "strip-wide",
            "Wide strips cup",
            f"The {widest.name} is {ctx.fmt(widest.finished.width)}; freshly ripped it springs as well.",
            Remedy("Rip it, turn one half over, let both rest before the joint is shot"),
            grounds=Grounds(
                widest.width.name, f"part:{widest.name}", rule=f"over {ctx.fmt(WIDEST_STRIP)}: common practice"
            ),
        )


def _glue(ctx: Context, choice: Slab, strips: list[Part], season: Figure) -> None:
    if choice.glue is SlabGlue.NOWHERE or len(strips) < 2:
        return
    stages = ctx.figures.derived(
        "glue_stages",
        "glue-ups",
        glue_stages(strips=len(strips), at_once=choice.group_size),
        ctx.figures["strips_count"],
        formula=f"{choice.group_size} at a time, then what came of them",
        unit=Unit.COUNT,
    )
    if choice.glue is SlabGlue.MORTISES and choice.joint is SlabJoint.GLUED:
        ctx.stop(
            "glue-where",
            "There are no mortises to glue",
            "The joint is plain edges, and the glue is to go in the mortises only.",
            Remedy("Loose tenons", "build.joint", SlabJoint.TENONS),
            Remedy("Or glue on every edge", "build.glue", SlabGlue.EDGES),
            grounds=Grounds("glue_stages"),
        )
        return
    where = (
        "in the mortises only: the edges stay dry and open a little when they shrink"
        if (choice.glue is SlabGlue.MORTISES)
        else "on every edge: it moves as one"
    )
    ctx.fine(
        "slab-glue",
        counted(round(stages.value), "glue-up"),
        f"Glue {where}. The slab moves {ctx.fmt(season)} from the driest to the wettest.",
        grounds=Grounds("glue_stages"),
    )


def _stiffeners(ctx: Context, choice: Slab, fit: Fit, season: Figure) -> None:
    f = ctx.figures
    _on_leaf(ctx, choice, fit)
    if choice.stiffener is Stiffener.NAILED:
        strip = f["strip_moves"]  # where no glue joins them, each strip moves for itself
        held = strip if choice.glue is SlabGlue.NOWHERE else season
        goes_dry = strip.value <= HELD_MOVES
        if held.value > HELD_MOVES:
            ctx.warn(
                "held-across",
                "The nails hold the wood across its grain",
                f"It moves {ctx.fmt(held)} through the seasons; nails give about {ctx.fmt(HELD_MOVES)}, then a "
                "strip splits or a joint opens.",
                Remedy("Battens in dadoes, slotted", "build.stiffener", Stiffener.DADOES),
                *([Remedy("Or no glue on the boards", "build.glue", SlabGlue.NOWHERE)] if goes_dry else []),
                grounds=Grounds(held.name, "part:ledge 1"),
            )
            ctx.warn(
                "nails",
                "Nails stay in the wood",
                "Later tools will meet them: groove, lock and trimming.",
                Remedy("Draw their places on the leaf before anything is cut"),
                grounds=Grounds("stiffener_length", "part:ledge 1"),
            )
        return
    is_dado = choice.stiffener is Stiffener.DADOES
    into, kept = (choice.dado, UNDER_DADO) if is_dado else (choice.stiffener_thickness, UNDER_CHANNEL)
    under = choice.thickness - into
    if under < kept:
        deepest = choice.thickness - kept
        field, least = ("build.dado", 0.0) if is_dado else ("build.stiffener_thickness", CHANNEL_LEAST)
        ctx.report(
            "dado-deep",
            Level.STOP if under <= 0 else Level.WARNING,
            "The stiffener cuts the slab thin",
            f"{ctx.fmt(into)} deep in {ctx.fmt(choice.thickness)} leaves {ctx.fmt(under)}.",
            Remedy(f"{ctx.fmt(deepest)} deep", field, deepest) if deepest >= least else Remedy("A thicker slab"),
            grounds=Grounds("stiffener_width", rule=f"{ctx.fmt(kept)} stay: common practice"),
        )
    slot = f["slot_length"]
    ctx.fine(
        "slots",
        "The slab can move on its stiffeners",
        f"Fixed in the middle; the outermost slots are {ctx.fmt(slot)} long for {ctx.fmt(season)} of movement.",
        grounds=Grounds("slot_length"),
    )


def _on_leaf(ctx: Context, choice: Slab, fit: Fit) -> None:
    """Judge whether the stiffeners lie on the leaf, long enough to hold it."""
    f, height, half = ctx.figures, fit.height.value, choice.stiffener_width / 2
    if not half <= choice.stiffener_end <= height / 2 - half:
        end = height / 5
        ctx.stop(
            "stiffener-out",
            "The stiffeners do not lie in the leaf one over the other",
            f"Their centres are {ctx.fmt(choice.stiffener_end)} from foot and top of {ctx.fmt(fit.height)}, each is "
            f"{ctx.fmt(choice.stiffener_width)} wide.",
            Remedy(f"{ctx.fmt(end)} from the ends", "build.stiffener_end", end)
            if 40 <= end <= 800 and half <= end
            else Remedy("Narrower ones, or none"),
            grounds=Grounds("stiffener_end"),
        )
    if f["stiffener_length"].value < 0.3 * fit.width.value:
        less = fit.width.value / 10
        ctx.stop(
            "stiffener-short",
            "The stiffeners are too short to hold it",
            f"{ctx.fmt(f['stiffener_length'])} of {ctx.fmt(fit.width)}.",
            Remedy(f"Ends {ctx.fmt(less)} in", "build.stiffener_in", less),
            grounds=Grounds("stiffener_length"),
        )


def _no_screw(ctx: Context, choice: Slab) -> None:
    """Say that nothing sold is short enough for what lies under a channel, and how shallow one it would be for."""
    most = choice.thickness - UNDER_CHANNEL
    ctx.stop(
        "no-screw",
        "No screw is short enough",
        f"{ctx.fmt(choice.thickness - choice.stiffener_thickness)} of wood lies under the channels.",
        Remedy(f"Channels of {ctx.fmt(most)}", "build.stiffener_thickness", most)
        if most >= CHANNEL_LEAST
        else Remedy("A thicker slab, or battens on it"),
        grounds=Grounds(
            "stiffener_length",
            "part:channel 1",
            rule=f"the shortest is {ctx.fmt(SCREWS[0])}, and stays {ctx.fmt(SCREW_SHORT_OF)} short of the face",
        ),
    )
