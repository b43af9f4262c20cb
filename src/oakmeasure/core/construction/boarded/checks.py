"""What can be wrong with a boarded leaf, and how a strange angle becomes a round one."""

from __future__ import annotations

from itertools import pairwise

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import HAIR, Unit
from oakmeasure.core.construction.boarded.model import Boarded, BoardEdge, BoardedStyle, BraceEnds, FixedBy, Rip
from oakmeasure.core.construction.braces import Brace, height_for_corner, height_for_pointed, height_for_stile
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Fixing, Part, Rect

FROM_JOINT = 19.0  # of a fixing: common practice, no source
NARROW_SHARE = 1 / 3  # of a cover; an end board narrower than this looks like a mistake: common practice, no source
FROM_EDGE = 10.0  # of a fixing to a ledge's edge, or it splits: common practice, no source
# A brace outside these carries little: common practice, no source
STEEP_FROM = 70.0
FLAT_TO = 35.0
ROUND_STEP = 5.0  # degrees
BRACED_FROM = 600.0  # width of a leaf that drops without a brace: common practice, no source
# Of a ledge's ends, and what a stop covers: common practice, no source
LEDGE_IN = 32.0
STOP_WIDE = (25.0, 38.0)
LEDGE_MOVES = 60.0  # so far a ledge may be moved for the sake of an angle

FULL = 0.05  # mm that boards at hand may lay up too wide or too narrow to fill the leaf


def judge(
    ctx: Context, choice: Boarded, fit: Fit, parts: list[Part], ledges: list[Part], fixings: list[Fixing]
) -> None:
    """Judge boards, ledges and fixings.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the boarded leaf.
        fit: Size of the leaf and its gaps, mm.
        parts: The parts so far.
        ledges: The ledges, the lowest first.
        fixings: Nails and screws that hold the boards.
    """
    _boards(ctx, choice)
    _ledges(ctx, choice, fit, ledges)
    _fixings(ctx, choice, ledges, parts, fixings)
    if choice.style is BoardedStyle.FRAMED:
        _flush(ctx, choice)
    if choice.style is BoardedStyle.LEDGED and fit.width.value > BRACED_FROM:
        ctx.warn(
            "no-brace",
            "Without a brace it will drop",
            f"{ctx.fmt(fit.width)} wide on ledges alone.",
            Remedy("A brace, Z", "build.style", BoardedStyle.Z),
            grounds=Grounds("leaf_width", "part:lower ledge", rule=f"over {ctx.fmt(BRACED_FROM)}: common practice"),
        )


def _boards(ctx: Context, choice: Boarded) -> None:
    f = ctx.figures
    count = int(f["boards_count"].value)
    end = (
        f[figure_name(f"board_{count}")]
        if choice.measured and figure_name(f"board_{count}") in f
        else f.get("board_end")
    )
    if end is None:
        return
    over = f.get("boards_over")
    if choice.measured and (over is None or over.value < FULL):
        ctx.fine(
            "lay-up",
            f"{count} boards, the last one ripped to {ctx.fmt(end)}"
            if over is None
            else f"{count} boards fill the leaf",
            f"{ctx.fmt(f['boards_laid'])} are laid up of {ctx.fmt(f['boards_width'])}.",
            grounds=Grounds(end.name),
        )
    elif over is not None:
        ctx.stop(
            "boards-over",
            "The boards are wider than the leaf",
            f"They lay up to {ctx.fmt(f['boards_laid'])}, {ctx.fmt(over)} too much.",
            *_ripped(ctx, choice, over.value),
            Remedy("Leave one out, or put a narrower one in"),
            grounds=Grounds("boards_laid", "part:board 1"),
        )
        return
    _ends(ctx, choice, end)


def _ends(ctx: Context, choice: Boarded, end: Figure) -> None:
    """Judge how wide the end boards are."""
    f, cover = ctx.figures, ctx.figures["board_cover"]
    count = int(f["boards_count"].value)
    if end.value < NARROW_SHARE * cover.value and count > 2:
        other = choice.rip is Rip.LAST and not choice.measured
        ctx.warn(
            "ends-narrow",
            "The end boards are narrow",
            f"{ctx.fmt(end)} beside {ctx.fmt(cover)}: it looks like a mistake and splits at the fixings.",
            Remedy("Rip both ends alike", "build.rip", Rip.BOTH)
            if other
            else Remedy("Boards of another width, or rip every board alike"),
            grounds=Grounds(end.name, "part:board 1", rule="a third of a board at the least: common practice"),
        )
    elif not choice.measured:
        words = (
            f"{ctx.fmt(cover)} each"
            if abs(end.value - cover.value) < HAIR
            else (f"the {'end ones' if choice.rip is Rip.BOTH else 'last one'} ripped to {ctx.fmt(end)}")
        )
        paper = count * cover.value
        note = ""
        if choice.edge is BoardEdge.TONGUED and paper - ctx.figures["boards_width"].value < 2 * cover.value:
            note = f" Each tongue hides {ctx.fmt(f['board_groove'])}: only the covers count."
        ctx.fine(
            "lay-up",
            f"{count} boards, {words}",
            f"For {ctx.fmt(f['boards_width'])}.{note}",
            grounds=Grounds("boards_count"),
        )


def _ripped(ctx: Context, choice: Boarded, over: float) -> list[Remedy]:
    """Return how boards that lay up too wide are ripped: both ends alike, or the last one.

    What is left is the last. over: mm.
    """
    laid = choice.measured
    first, last = laid[0].width, laid[-1].width
    found = []
    if len(laid) > 2 and over < min(first, last):
        ends = [each.model_copy(update={"width": each.width - over / 2}) for each in (laid[0], laid[-1])]
        words = f"Rip both ends alike, {ctx.fmt(over / 2)} off each"
        found.append(Remedy(words, "build.measured", (ends[0], *laid[1:-1], ends[1])))
    if len(laid) > 1 and over < last / 2:
        ripped = laid[-1].model_copy(update={"width": last - over})
        found.append(Remedy(f"Rip the last one to {ctx.fmt(last - over)}", "build.measured", (*laid[:-1], ripped)))
    return found


def _ledges(ctx: Context, choice: Boarded, fit: Fit, ledges: list[Part]) -> None:
    for low, high in pairwise(ledges):
        room = high.face.y0 - low.face.y1
        if room <= 0:
            less = max(20.0, (fit.height.value - 2 * choice.ledge_width - 60) / 2)
            ctx.stop(
                "ledges-meet",
                "The ledges overlap",
                f"{ctx.fmt(-room)} one over the other in {ctx.fmt(fit.height)}.",
                Remedy(f"The lower one {ctx.fmt(less)} from the foot", "build.ledge_from_foot", less),
                grounds=Grounds("ledge_foot", "part:upper ledge"),
            )
            return
    if choice.style is not BoardedStyle.FRAMED and ctx.figures["ledge_length"].value < 100:
        ctx.stop(
            "ledge-short",
            "No length is left for the ledges",
            f"{ctx.fmt(ctx.figures['ledge_length'])} between their ends.",
            Remedy(f"Ends {ctx.fmt(LEDGE_IN)} in", "build.ledge_inset", LEDGE_IN),
            grounds=Grounds("ledge_length", "part:lower ledge"),
        )
    if choice.style is not BoardedStyle.FRAMED and choice.ledge_inset < STOP_WIDE[0] and ctx.leaf.hanging.has_butts:
        ctx.warn(
            "ledge-stop",
            "The ledges may meet the stop",
            f"Their ends are {ctx.fmt(choice.ledge_inset)} in from the edges.",
            Remedy(f"Ends {ctx.fmt(LEDGE_IN)} in", "build.ledge_inset", LEDGE_IN),
            grounds=Grounds(
                "ledge_in",
                "part:lower ledge",
                rule=f"{ctx.fmt(STOP_WIDE[0])} to {ctx.fmt(STOP_WIDE[1])} where that face meets the stop",
            ),
        )


def _fixings(ctx: Context, choice: Boarded, ledges: list[Part], parts: list[Part], fixings: list[Fixing]) -> None:
    length, stack = ctx.figures["fixing_length"], ctx.figures["fixing_stack"]
    if length.value <= 0:
        ctx.stop(
            "no-screw",
            "No screw is short enough",
            f"Boards and ledge are {ctx.fmt(stack)} together.",
            Remedy("Thicker ledges"),
            grounds=Grounds("fixing_stack"),
        )
        return
    boards = [each for each in parts if each.role is Role.BOARD]
    narrow = [each for each in boards if 0 < each.face.width < 2 * FROM_JOINT]
    if narrow:
        ctx.warn(
            "fixing-edge",
            "A board takes one fixing only",
            f"The {narrow[0].name} is {ctx.fmt(narrow[0].face.width)}: {ctx.fmt(FROM_JOINT)} from each joint is not "
            "to be had.",
            Remedy("Rip the boards more evenly"),
            grounds=Grounds("fixing_length", f"part:{narrow[0].name}", rule=f"{ctx.fmt(FROM_JOINT)} from a joint"),
        )
    if ledges[0].face.height / 4 < FROM_EDGE:
        ctx.warn(
            "ledge-narrow",
            "The fixings are near the ledge's edge",
            f"{ctx.fmt(ledges[0].face.height / 4)} from it.",
            Remedy(f"Ledges of {ctx.fmt(4 * FROM_EDGE)}", "build.ledge_width", 4 * FROM_EDGE),
            grounds=Grounds("ledge_width", "part:lower ledge", rule=f"{ctx.fmt(FROM_EDGE)} or it splits"),
        )
    slotted = sum(each.slotted for each in fixings)
    words = f"{len(fixings)} {choice.fixed_by} of {ctx.fmt(length)} through {ctx.fmt(stack)}"
    words += f", {slotted} in slots" if slotted else ""
    if choice.fixed_by is FixedBy.NAILS:
        words += "; bored first, bent across the grain"
    ctx.fine(
        "fixings",
        "Two fixings to each board and ledge",
        words + ".",
        grounds=Grounds("fixing_length", "part:lower ledge"),
    )


def _flush(ctx: Context, choice: Boarded) -> None:
    wanted = choice.frame_thickness - choice.panel_thickness
    if abs(wanted - choice.ledge_thickness) > HAIR:
        word = "proud of" if choice.ledge_thickness > wanted else "below"
        ctx.warn(
            "ledge-flush",
            "Ledges and frame are not flush",
            f"Board {ctx.fmt(choice.board_thickness)} and ledge {ctx.fmt(choice.ledge_thickness)} stand {word} the "
            f"frame of {ctx.fmt(choice.frame_thickness)}.",
            Remedy(f"Ledges of {ctx.fmt(wanted)}", "build.ledge_thickness", wanted)
            if wanted >= 12
            else Remedy("A thicker frame or thinner boards"),
            grounds=Grounds("ledge_thick", "part:lower ledge"),
        )


# --- braces ------------------------------------------------------------------------------------------------


def say_no_brace(ctx: Context, prefix: str, inside: Rect, width: Figure, error: InputError) -> None:
    """Say that a brace does not go into its field.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        prefix: What its name begins with: "lower " or "upper "; "" where there is one.
        inside: The field that the brace crosses, mm.
        width: Width, mm.
        error: Why it was refused.
    """
    less = 0.5 * min(inside.width, inside.height)
    ctx.stop(
        f"brace-{prefix.strip().rstrip('.') or 'one'}",
        f"The {prefix}brace does not go in",
        f"{ctx.fmt(width)} wide in a field of {ctx.show.size(inside.width, inside.height)}; needs {error.need}.",
        Remedy(f"A brace of {ctx.fmt(less)}", "build.brace_width", less)
        if less >= 40
        else Remedy("Ledges further apart"),
        grounds=Grounds(width.name, "part:lower ledge"),
    )


def say_no_stiles(ctx: Context, prefix: str) -> None:
    """Say that there are no stiles for a brace to end on; it is set out on the ledges.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        prefix: What its name begins with: "lower " or "upper "; "" where there is one.
    """
    tail = prefix.strip().rstrip(".") or "one"
    ctx.warn(
        f"no-stiles-{tail}",
        "There are no stiles to end on",
        "A brace ends on the stiles of a framed leaf only; it is set out flat on the ledges.",
        Remedy("Flat on the ledges", "build.brace_ends", BraceEnds.CORNER),
        grounds=Grounds("brace_width", f"part:{prefix}brace"),
    )


def say_round(ctx: Context, choice: Boarded, prefix: str, inside: Rect, brace: Brace, ends: BraceEnds) -> None:
    """Judge a brace's slope, and say which place of a ledge would make its angle a round one.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the boarded leaf.
        prefix: What its name begins with: "lower " or "upper "; "" where there is one.
        inside: The field that the brace crosses, mm.
        brace: The brace as it is set out.
        ends: How the brace ends.
    """
    tail = prefix.strip().rstrip(".")
    figure = f"brace_angle_{tail}" if tail else "brace_angle"
    where = f"part:{prefix}brace"
    said = ctx.show.value(brace.angle_deg, Unit.DEG)
    if brace.angle_deg < FLAT_TO or brace.angle_deg > STEEP_FROM:
        how = "flat" if brace.angle_deg < FLAT_TO else "steep"
        mend = "A ledge between makes two shorter fields" if how == "steep" else "Ledges further apart"
        ctx.warn(
            f"brace-slope-{tail or 'one'}",
            f"The {prefix}brace is {how}",
            f"{said} from the level.",
            Remedy(mend, "build.ledges", min(choice.ledges + 1, 4))
            if how == "steep" and choice.ledges < 4
            else Remedy(mend),
            grounds=Grounds(figure, where, rule=f"{FLAT_TO:g} to {STEEP_FROM:g}°"),
        )
    wanted = round(brace.angle_deg / ROUND_STEP) * ROUND_STEP
    if abs(wanted - brace.angle_deg) < 0.02 or not 0 < wanted < 90:
        return
    if ends is BraceEnds.POINTED:
        height = height_for_pointed(base=inside.width, angle_deg=wanted)
    else:
        rule = height_for_stile if ends is BraceEnds.STILES else height_for_corner
        height = rule(base=inside.width, width=choice.brace_width, angle_deg=wanted)
    down = inside.height - height  # by so much the upper ledge comes down, or the lower one up
    moved = choice.ledge_top + down
    if abs(down) > LEDGE_MOVES or not 20 <= moved <= 800 or choice.ledges > 2 or choice.style is BoardedStyle.FRAMED:
        return
    ctx.fine(
        f"brace-round-{tail or 'one'}",
        f"The {prefix}brace stands at {said}",
        f"{ctx.show.value(wanted, Unit.DEG)} were rounder: the upper ledge {ctx.fmt(abs(down))} "
        f"{'lower' if down > 0 else 'higher'}.",
        Remedy(f"Make it {ctx.show.value(wanted, Unit.DEG)}", "build.ledge_top", moved),
        grounds=Grounds(figure, where),
    )
