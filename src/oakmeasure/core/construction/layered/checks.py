"""What can be wrong with a layered leaf: bare edges, trims that stand proud, pieced members without paint."""

from __future__ import annotations

from oakmeasure.core.construction.layered.model import Layered, LayerStyle, Lipping, Pieced
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.timber.place import finish_of

HINGE_WOOD = 8.0  # of lipping at the hinges, for screws not to lift the plies: common practice, no source
PAINTED = ("paint", "outside paint")


def judge(ctx: Context, choice: Layered) -> None:
    """Judge layers, lippings, trims and pieced members.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the layered leaf.
    """
    layers = ctx.figures["thickness"]
    ctx.fine(
        "layers",
        "Balanced layers",
        f"{ctx.fmt(choice.face)} + {ctx.fmt(choice.core)} + {ctx.fmt(choice.face)} = {ctx.fmt(layers)}; both faces "
        "alike, so that it stays flat.",
        grounds=Grounds("thickness"),
    )
    _lipping(ctx, choice)
    _trims(ctx, choice)
    _pieces(ctx, choice)
    if "pin_length" not in ctx.figures:
        ctx.warn(
            "pins-long",
            "No pin is short enough",
            f"Two layers are {ctx.fmt(choice.face + choice.core)}; the shortest pin would come through.",
            Remedy("Clamps and bearers alone, while the glue sets"),
            grounds=Grounds("thickness"),
        )


def _lipping(ctx: Context, choice: Layered) -> None:
    if choice.lipping is Lipping.NONE:
        ctx.warn(
            "edges-bare",
            "The layers show on its edges",
            "Plies show, drink water, and hold no hinge screw well.",
            Remedy("A plain lipping", "build.lipping", Lipping.PLAIN),
            grounds=Grounds("thickness"),
        )
        return
    core = ctx.figures["core_width"]
    if core.value < 40:
        most = max(3.0, choice.lipping_depth - (40 - core.value) / 2)
        ctx.stop(
            "core-narrow",
            "Its lippings leave no core",
            f"Between them the core is {ctx.fmt(core)} wide.",
            Remedy(f"Lippings {ctx.fmt(most)} deep", "build.lipping_depth", most)
            if most >= 3.05
            else Remedy("A plain lipping", "build.lipping", Lipping.PLAIN),
            grounds=Grounds("core_width"),
        )
    if ctx.leaf.hanging.has_butts and choice.lipping_depth < HINGE_WOOD:
        ctx.warn(
            "lipping-thin",
            "Hinge screws reach the plies",
            f"The lipping is {ctx.fmt(choice.lipping_depth)} deep; screws in the edge of a sheet lift its plies.",
            Remedy(f"A lipping {ctx.fmt(HINGE_WOOD + 12)} deep", "build.lipping_depth", HINGE_WOOD + 12),
            grounds=Grounds(
                "lipping_depth", "part:hinge lipping", rule=f"{ctx.fmt(HINGE_WOOD)} at the least: common practice"
            ),
        )


def _trims(ctx: Context, choice: Layered) -> None:
    if choice.trim is None or choice.style is LayerStyle.FULL:
        return
    if choice.trim_thickness > choice.face:
        ctx.warn(
            "trim-proud",
            "The trim stands proud of the stiles",
            f"{ctx.fmt(choice.trim_thickness)} in a step of {ctx.fmt(choice.face)}: by "
            f"{ctx.fmt(choice.trim_thickness - choice.face)}.",
            Remedy(f"Trim {ctx.fmt(choice.face)} thick", "build.trim_thickness", choice.face),
            grounds=Grounds("trim", rule="no prouder than the stiles, where a leaf or a stop passes"),
        )


def _pieces(ctx: Context, choice: Layered) -> None:
    if choice.pieced is Pieced.NONE or choice.style is LayerStyle.FULL:
        return
    finish = finish_of(ctx.leaf.timber)
    if finish not in PAINTED:
        ctx.warn(
            "pieced-shows",
            "The joints of its pieces will show",
            f"{choice.pieced.capitalize()} in two, joined by a {choice.piece_joint}; the finish is {finish}.",
            Remedy("Paint", "timber.finish", "paint"),
            Remedy("Or whole members", "build.pieced", Pieced.NONE),
            grounds=Grounds("thickness", rule="pieced members are for painted work: common practice"),
        )
    else:
        ctx.fine(
            "pieced",
            f"{choice.pieced.capitalize()} in two pieces",
            f"Joined by a {choice.piece_joint}, glued on the core, alike on both faces; filled and painted.",
            grounds=Grounds("thickness"),
        )
