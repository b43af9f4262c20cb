"""Hardware in motion: what a leaf, its wheels and its bolts pass on their way. Source: geometry; common practice."""

from __future__ import annotations

from oakmeasure.core.document.sliding_gear import GuideKind, HangerKind
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import minus, plus
from oakmeasure.core.hardware.sliding.hangers import Gear
from oakmeasure.core.leaf.leaf_context import Context

PASSING = 1.0  # of air between metal that passes: common practice, no source


def judge_motion(ctx: Context, gear: Gear) -> None:
    """Judge what passes what: wheels and the heads that hold the track, leaf and leaf, leaf and guide.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        gear: What the leaf slides on.
    """
    if gear.kind is HangerKind.FACE:
        _wheel_over_heads(ctx)
    if ctx.leaf.hanging.bypasses:
        _leaf_past_straps(ctx, gear)
        _leaf_past_cheeks(ctx)


def _wheel_over_heads(ctx: Context) -> None:
    """A wheel on a flat rail passes over the heads of the bolts that hold the rail."""
    f, choice = ctx.figures, ctx.leaf.hardware.hangers
    head = ctx.chosen("bolt_head", "heads that hold the track, height", choice.bolt_head, "hardware.hangers.bolt_head")
    room = ctx.chosen("head_room", "room for them beside the wheel", choice.head_room, "hardware.hangers.head_room")
    air = f.total("wheel_air", "air between wheel and bolt heads", plus(room), minus(head))
    if air.value < PASSING - 1e-9:
        lower = max(room.value - PASSING, 0.0)
        ctx.report(
            "wheel-jams",
            Level.STOP if air.value <= 0 else Level.WARNING,
            "The wheels jam on the bolt heads" if air.value <= 0 else "The wheels hardly pass the bolt heads",
            f"Heads {ctx.fmt(head)} high, {ctx.fmt(room)} of room.",
            Remedy(f"Flat heads of {ctx.fmt(lower)}", "hardware.hangers.bolt_head", lower),
            Remedy("Or spacers behind the track"),
            grounds=Grounds("wheel_air", rule=f"{ctx.fmt(PASSING)} of air"),
        )
    else:
        ctx.fine(
            "wheels-pass",
            "The wheels pass the bolt heads",
            f"{ctx.fmt(air)} of air over heads of {ctx.fmt(head)}.",
            grounds=Grounds("wheel_air"),
        )


def _leaf_past_straps(ctx: Context, gear: Gear) -> None:
    """The inner leaf's straps and bolt heads stand before its face, and the outer leaf passes before them."""
    if gear.kind is not HangerKind.FACE:
        return
    f = ctx.figures
    strap = ctx.chosen(
        "strap", "strap with its bolt heads, off the face", ctx.leaf.hardware.hangers.strap, "hardware.hangers.strap"
    )
    air = f.total("strap_air", "air between the leaves past straps and heads", plus(f["slide_air"]), minus(strap))
    if air.value < PASSING - 1e-9:
        wanted = strap.value + PASSING
        ctx.stop(
            "straps-meet",
            "The outer leaf meets the inner one's bolt heads",
            f"They stand {ctx.fmt(strap)} off its face, {ctx.fmt(f['slide_air'])} lie between the leaves.",
            Remedy(f"{ctx.fmt(wanted)} between the leaves", "slide.running_clearance", wanted),
            Remedy("Or straps let in flush, bolts with sunk heads", "hardware.hangers.strap", 0.0),
            grounds=Grounds("strap_air", rule=f"{ctx.fmt(PASSING)} of air"),
        )
    else:
        ctx.fine(
            "straps-pass",
            "The leaves pass each other's straps",
            f"{ctx.fmt(air)} of air.",
            grounds=Grounds("strap_air"),
        )


def _leaf_past_cheeks(ctx: Context) -> None:
    """Between the leaves stands a cheek of the outer one's guide: the inner leaf passes beside it."""
    guide, f = ctx.leaf.hardware.guide, ctx.figures
    if guide.kind is not GuideKind.CHEEKS:
        return
    cheek = ctx.chosen("guide_cheek_thick", "guide's cheek, thickness", guide.cheek, "hardware.guide.cheek")
    felt = f["guide_felt"]
    air = f.total(
        "cheek_air", "inner leaf to the cheek between the leaves", plus(f["slide_air"]), minus(cheek), minus(felt)
    )
    if air.value < PASSING - 1e-9:
        wanted = cheek.value + felt.value + PASSING
        ctx.stop(
            "guide-between",
            "The inner leaf meets the outer one's guide",
            f"Cheek and felt take {ctx.fmt(cheek.value + felt.value)} of {ctx.fmt(f['slide_air'])} between the leaves.",
            Remedy(f"{ctx.fmt(wanted)} between the leaves", "slide.running_clearance", wanted),
            Remedy("Or a fin in a groove in each foot", "hardware.guide.kind", GuideKind.FIN),
            grounds=Grounds("cheek_air", rule=f"{ctx.fmt(PASSING)} of air"),
        )
    else:
        ctx.fine(
            "guide-passes", "The inner leaf passes the guide", f"{ctx.fmt(air)} of air.", grounds=Grounds("cheek_air")
        )
