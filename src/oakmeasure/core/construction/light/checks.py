"""What can be wrong with a light frame: boards held across their grain, a rebate too deep, screws that come through."""

from __future__ import annotations

from oakmeasure.core.construction.light.model import Light, LightBrace, LightFill, LightGlue, LightJoint
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.leaf.leaf_context import Context

HELD_MOVES = 2.0  # so much movement a glued frame bears before boards split: common practice, no source
UNDER_REBATE = 6.0  # of the frame before a rebated sheet: common practice, no source
TALL = 1800.0  # taller leaves on pocket screws alone sag: common practice, no source


def judge(ctx: Context, choice: Light, moves: Figure | None) -> None:
    """Judge filling, glue and joints.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the light frame.
        moves: Of all boards behind together; None without boards.
    """
    if moves is not None:
        _boards(ctx, choice, moves)
    if choice.fill.is_in_rebate and choice.frame_thickness - choice.fill_thickness < UNDER_REBATE:
        thinner = choice.frame_thickness - UNDER_REBATE
        ctx.report(
            "rebate-deep",
            Level.STOP if choice.frame_thickness <= choice.fill_thickness else Level.WARNING,
            "The rebate leaves the frame thin",
            f"{ctx.fmt(choice.fill_thickness)} in a frame of {ctx.fmt(choice.frame_thickness)} leaves "
            f"{ctx.fmt(choice.frame_thickness - choice.fill_thickness)}.",
            Remedy(f"A sheet of {ctx.fmt(thinner)}", "build.fill_thickness", thinner)
            if thinner >= 3
            else Remedy("A thicker frame"),
            grounds=Grounds("fill_rebate", rule=f"{ctx.fmt(UNDER_REBATE)} stay: common practice"),
        )
    if choice.fill.is_in_rebate and choice.rebate > choice.stile - 15:
        most = choice.stile - 15
        ctx.stop(
            "rebate-wide",
            "The rebate eats the stile",
            f"{ctx.fmt(choice.rebate)} of {ctx.fmt(choice.stile)}.",
            Remedy(f"A rebate of {ctx.fmt(most)}", "build.rebate", most),
            grounds=Grounds("fill_rebate"),
        )
    tall = ctx.figures["leaf_height"]
    if (
        choice.joint is LightJoint.POCKET
        and choice.fill.is_boards
        and choice.brace is LightBrace.NONE
        and (tall.value > TALL)
    ):
        ctx.warn(
            "light-sags",
            "Nothing keeps a tall light frame square",
            f"{ctx.fmt(tall)} tall, pocket screws, boards that can shift on one another.",
            Remedy("A brace", "build.brace", LightBrace.ONE),
            Remedy("Or a sheet behind", "build.fill", LightFill.SHEET),
            grounds=Grounds("leaf_height", rule=f"over {ctx.fmt(TALL)}: common practice"),
        )


def _boards(ctx: Context, choice: Light, moves: Figure) -> None:
    if choice.glue is LightGlue.OVER and moves.value > HELD_MOVES:
        ctx.warn(
            "held-across",
            "The glued frame holds the boards across their grain",
            f"Together they would move {ctx.fmt(moves)}; glued to the rails they split or bow the frame.",
            Remedy("Glue in the frame's joints only", "build.glue", LightGlue.JOINTS),
            Remedy("Or a sheet behind", "build.fill", LightFill.SHEET),
            grounds=Grounds("boards_move", "part:board 1", rule=f"over {ctx.fmt(HELD_MOVES)}: common practice"),
        )
    else:
        how = (
            "screwed in slots from behind, no glue on them" if choice.glue is LightGlue.JOINTS else "glued to the frame"
        )
        ctx.fine(
            "boards-free",
            "The boards can move",
            f"{ctx.fmt(moves)} together; they are {how}.",
            grounds=Grounds("boards_move", "part:board 1"),
        )


def say_brace(ctx: Context, width: Figure, room: float) -> None:
    """Say that a brace is too wide for its field.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        width: Width, mm.
        room: Width that there is for it, mm; 0 for as much as it needs.
    """
    most = max(25.0, 0.4 * room)
    ctx.stop(
        "brace-wide",
        "The brace is too wide for its field",
        f"{ctx.fmt(width)} in a field {ctx.fmt(room)} across.",
        Remedy(f"A brace of {ctx.fmt(most)}", "build.brace_width", most)
        if most < width.value
        else Remedy("No brace", "build.brace", LightBrace.NONE),
        grounds=Grounds("brace_width"),
    )
