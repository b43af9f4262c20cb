"""What can be wrong with a veneered leaf: unlike faces, veneers too thin to finish, a moulding through its edging."""

from __future__ import annotations

from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.veneered.model import BackFace, Veneered
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.leaf.leaf_context import Context

BOW_SEEN = 2.0  # of a leaf; more is seen against its stop: common practice, no source
BEHIND_MOULDING = 3.0  # of edging that stays, so that the core never shows in a moulding: common practice, no source
CORE_LEAST = 6.0  # thinner is no core: common practice, no source


def judge(ctx: Context, choice: Veneered) -> None:
    """Judge core, faces, veneers and edging.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the veneered leaf.
    """
    core = ctx.figures["core"]
    if core.value < CORE_LEAST:
        thicker = choice.thickness + CORE_LEAST - core.value
        ctx.stop(
            "core-thin",
            "The veneers leave no core",
            f"{ctx.fmt(core)} of {ctx.fmt(choice.thickness)}.",
            Remedy(f"A leaf of {ctx.fmt(thicker)}", "build.thickness", thicker),
            grounds=Grounds("core"),
        )
    _faces(ctx, choice)
    _veneers(ctx, choice)
    _edging(ctx, choice)


def _faces(ctx: Context, choice: Veneered) -> None:
    bow = ctx.figures["veneer_bow"]
    if bow.value > BOW_SEEN:
        ctx.warn(
            "veneer-bow",
            "Unlike faces bow the leaf",
            f"Veneer of {ctx.fmt(choice.veneer)} on the front, {choice.back} behind: it bows {ctx.fmt(bow)} at the "
            f"worst, {ctx.show.value(ctx.figures['veneer_points'].value, Unit.PERCENT)} of moisture on.",
            Remedy("The same veneer on both faces", "build.back", BackFace.SAME),
            grounds=Grounds("veneer_bow", rule=f"over {ctx.fmt(BOW_SEEN)} it is seen"),
        )
    elif choice.back is BackFace.SAME:
        ctx.fine(
            "veneer-balanced",
            "Balanced faces",
            "The same veneer on both, laid in one press: it stays flat.",
            grounds=Grounds("veneer_bow"),
        )
    else:
        ctx.fine(
            "veneer-unlike",
            "Unlike faces, but it stays flat enough",
            f"It bows {ctx.fmt(bow)} at the worst.",
            grounds=Grounds("veneer_bow"),
        )


def _veneers(ctx: Context, choice: Veneered) -> None:
    f = ctx.figures
    got, raw = f["veneers_each"], f["veneer_raw"]
    if got.value < 1:
        ctx.stop(
            "veneer-stock",
            "The board gives no veneer",
            f"{ctx.fmt(choice.stock)} thick for veneers sawn at {ctx.fmt(raw)}.",
            Remedy("A thicker board", "build.stock", max(raw.value, 12.0)),
            grounds=Grounds("veneers_each"),
        )
    elif choice.thin is None:
        left = choice.stock - got.value * raw.value - (got.value - 1) * f["resaw_kerf"].value
        ctx.fine(
            "veneers",
            f"{got.value:.0f} veneers from a board",
            f"Sawn at {ctx.fmt(raw)} from {ctx.fmt(choice.stock)}; {ctx.fmt(left)} are left over.",
            grounds=Grounds("veneers_each"),
        )
    if choice.thin is None:
        return
    _measured(ctx, choice, choice.thin)


def _measured(ctx: Context, choice: Veneered, thin: float) -> None:
    """Judge what the thinnest of the measured veneers may lose."""
    f = ctx.figures
    may, spread = f["veneer_may_lose"], f["veneer_spread"]
    numbers = f"They measure {ctx.fmt(f['veneer_thin'])} to {ctx.fmt(f['veneer_thick'])}, {ctx.fmt(spread)} apart."
    thinner = thin - choice.sanding
    mend = (
        Remedy(f"Finish at {ctx.fmt(thinner)}", "build.veneer", thinner)
        if thinner >= 0.5
        else Remedy("Other veneers, thicker")
    )
    if may.value < 0:
        ctx.stop(
            "veneer-short",
            "The thinnest veneer cannot finish as it should",
            f"{numbers} {ctx.fmt(choice.veneer)} is wanted.",
            mend,
            grounds=Grounds("veneer_may_lose"),
        )
    elif may.value < choice.sanding:
        ctx.warn(
            "veneer-short",
            "The thinnest veneer stands little sanding",
            f"{numbers} Once more than {ctx.fmt(may)} comes off it, it cannot finish at {ctx.fmt(choice.veneer)}.",
            mend,
            grounds=Grounds("veneer_may_lose", rule=f"{ctx.fmt(choice.sanding)} for sanding"),
        )
    else:
        ctx.fine(
            "veneers",
            "The veneers can be sanded to one thickness",
            f"{numbers} The thinnest may lose {ctx.fmt(may)}.",
            grounds=Grounds("veneer_may_lose"),
        )


def _edging(ctx: Context, choice: Veneered) -> None:
    edging = ctx.figures["edging"]
    left = edging.value - choice.moulding
    if choice.moulding and left < 1.0:
        wider = choice.moulding + BEHIND_MOULDING
        ctx.report(
            "edging-cut",
            Level.STOP if left < 0 else Level.WARNING,
            "The moulding cuts through its edging",
            f"{ctx.fmt(choice.moulding)} deep in an edging of {ctx.fmt(edging)}: the core would show.",
            Remedy(f"Edging of {ctx.fmt(wider)}", "build.edging", wider),
            grounds=Grounds("edging"),
        )
    elif choice.moulding:
        how = (
            "veneer first would show its glue line in the moulding"
            if choice.edging_first
            else ("its joint shows on the face")
        )
        ctx.fine(
            "edging",
            "The edging takes its moulding",
            f"{ctx.fmt(edging)} wide for a moulding of {ctx.fmt(choice.moulding)}, ripped at "
            f"{ctx.fmt(ctx.figures['edging_sawn'])}; {how}.",
            grounds=Grounds("edging_sawn"),
        )
