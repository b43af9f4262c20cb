"""Latches and flush bolts: what is bored for them in leaf and lining, and whether the edge holds it.

A height comes from above the finished floor: on the leaf it is less the floor gap, on the lining, taken down from its
head, more by the head gap; so both sides line up. Sources: the latch's own sheet; common practice of the trade.
"""

from __future__ import annotations

from oakmeasure.core.base.prisms import block, bore, rod
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import FlushBolts, Latch, LatchKind
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure, minus, plus
from oakmeasure.core.fit.fit_result import Fit, gap_as_hung
from oakmeasure.core.fit.frame import Frame
from oakmeasure.core.hardware.boring import Boring, BoringKind, CutIn, CutSide, Datum, KeepPlate, keep, leaf_cut
from oakmeasure.core.hardware.locks.mortise_locks import keep_down, latch_member, middle, through_at
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build

BESIDE = 5.0  # wood on each side of what is bored into an edge: common practice, no source
INNER_WOOD = 6.0  # of the member at the latch edge, beyond a bore: common practice, no source


def bore_latch(ctx: Context, fit: Fit, frame: Frame, body: Body) -> tuple[Boring, ...]:
    """Add the latch's places and return what is cut for it; () without one.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf, as high as its latch edge is, mm.
        frame: What the leaf hangs in.
        body: The leaf's pieces in place.
    """
    latch, f = ctx.leaf.hardware.latch, ctx.figures
    if latch.kind is LatchKind.NONE:
        return ()
    down = _down(ctx, fit, frame)
    if not 0 < down.value < fit.height.value:
        up = fit.height.value / 2 + f["gap_floor"].value
        ctx.stop(
            "latch-off",
            "The latch does not lie on the leaf",
            f"Its middle is {ctx.fmt(down)} down from the top of {ctx.fmt(fit.height)}.",
            Remedy(f"{ctx.fmt(up)} above the floor", "hardware.latch.up", up),
            grounds=Grounds("latch_down"),
        )
        return ()
    member = latch_member(body, fit.height.value - down.value)
    if latch.kind in (LatchKind.TUBULAR, LatchKind.CATCH):
        return _in_edge(ctx, (fit, frame), body, latch, member, down)
    return _on_face(ctx, fit, body, latch, member, down)


def _down(ctx: Context, fit: Fit, frame: Frame) -> Figure:
    f = ctx.figures
    up = ctx.chosen("latch_up", "latch above the floor", ctx.leaf.hardware.latch.up, "hardware.latch.up")
    down = f.total(
        "latch_down",
        "latch's middle, down from the leaf's top",
        plus(fit.height),
        plus(gap_as_hung(f, "gap_floor")),
        minus(up),
    )
    keep_down(ctx, frame, "latch_keep", "latch's middle", fit.height.value - down.value, down)
    return down


def _in_edge(
    ctx: Context, where: tuple[Fit, Frame], body: Body, latch: Latch, member: str, down: Figure
) -> tuple[Boring, ...]:
    """A body bored into the middle of the edge, its forend let in, its keep in the lining; a spindle, of a latch.

    where: the leaf as high as its latch edge is, and what it hangs in.
    """
    fit, frame = where
    f, y = ctx.figures, fit.height.value - down.value
    w = body.out_at("latch", y)
    thick, half, faces = f["thickness"], latch.plate_length / 2, body.along("latch")
    hole = ctx.chosen("latch_bore", "latch, bore in the edge", latch.bore, "hardware.latch.bore")
    deep = ctx.chosen("latch_deep", "latch, depth of its bore", latch.deep, "hardware.latch.deep")
    beside = f.total("latch_beside", "wood beside the latch's bore, each side", plus(thick, 0.5), minus(hole, 0.5))
    found = [
        leaf_cut(
            BoringKind.LATCH_BORE,
            member,
            CutSide.LATCH_EDGE,
            down.value - hole.value / 2,
            (hole.value, hole.value, deep.value),
            rod((w - deep.value, y), (w - hole.value / 2, y), hole.value, sum(faces) / 2),
        )
    ]
    if latch.plate_length:
        found.append(
            leaf_cut(
                BoringKind.LATCH_FOREND,
                member,
                CutSide.LATCH_EDGE,
                down.value - half,
                (latch.plate_length, latch.plate_width, latch.plate_thickness),
                block(w - latch.plate_thickness, y - half, w, y + half, middle(faces, latch.plate_width)),
            )
        )
    if latch.kind is LatchKind.TUBULAR:
        found.append(_spindle(ctx, latch, body, down, w, y))
        _backset(ctx, latch, deep)
    plate = (latch.plate_length, latch.plate_width, latch.plate_thickness)
    at = keep(
        BoringKind.LATCH_KEEP,
        ctx.leaf.hanging,
        member,
        plate=KeepPlate(down.value - half, *plate, middle(faces, latch.plate_width)),
        on_jamb=frame.carried("latch", y + half),
        leaf=(w, fit.height.value),
    )
    if at is not None:
        found.append(at)
    _judge_edge(ctx, body.build, latch, beside, deep, member)
    return tuple(found)


def _spindle(ctx: Context, latch: Latch, body: Body, down: Figure, w: float, y: float) -> Boring:
    back = ctx.chosen("latch_backset", "latch, backset", latch.backset, "hardware.latch.backset")
    x = w - back.value
    member, faces = through_at(body, x, y)
    return leaf_cut(
        BoringKind.LATCH_SPINDLE,
        member,
        CutSide.BOTH_FACES_AT_LATCH,
        down.value - latch.spindle / 2,
        (latch.spindle, back.value, faces[1] - faces[0]),
        bore(x, y, latch.spindle, faces),
    )


def _backset(ctx: Context, latch: Latch, deep: Figure) -> None:
    if latch.backset >= deep.value:
        wanted = latch.backset + 15
        ctx.stop(
            "latch-backset",
            "The spindle lies beyond the latch's bore",
            f"Backset {ctx.fmt(latch.backset)}, bored {ctx.fmt(deep)} deep.",
            Remedy(f"Bore {ctx.fmt(wanted)} deep", "hardware.latch.deep", wanted)
            if wanted <= 150
            else Remedy("Measure the latch again"),
            grounds=Grounds("latch_deep"),
        )


def _judge_edge(ctx: Context, build: Build, latch: Latch, beside: Figure, deep: Figure, member: str) -> None:
    """The bore against the leaf's thickness, and against the width of the member that it goes into."""
    if beside.value < BESIDE:
        most = ctx.figures["thickness"].value - 2 * BESIDE
        ctx.report(
            "latch-thin",
            Level.STOP if beside.value < 2 else Level.WARNING,
            "The leaf is thin for its latch",
            f"{ctx.fmt(beside)} stay on each side of a bore of {ctx.fmt(ctx.figures['latch_bore'])}.",
            Remedy(f"A latch that needs {ctx.fmt(most)}", "hardware.latch.bore", most)
            if most >= 6
            else Remedy("A rim latch", "hardware.latch.kind", LatchKind.RIM),
            grounds=Grounds("latch_beside", rule=f"{ctx.fmt(BESIDE)} on each side"),
        )
    else:
        ctx.fine(
            "latch",
            f"The latch is bored {ctx.fmt(deep)} into the edge",
            f"{ctx.fmt(ctx.figures['latch_bore'])} wide; {ctx.fmt(beside)} stay on each side.",
            grounds=Grounds("latch_down"),
        )
    part = next((each for each in build.parts if each.name == member), None)
    if part is None:
        return
    if part.role in (Role.STILE, Role.LIPPING) and not build.layered and deep.value > part.face.width - INNER_WOOD:
        short = part.face.width - INNER_WOOD
        ctx.warn(
            "latch-deep",
            "The latch's bore comes through the stile",
            f"{ctx.fmt(deep)} deep in {ctx.fmt(part.face.width)}.",
            Remedy(f"A latch {ctx.fmt(short)} deep", "hardware.latch.deep", short)
            if 15 <= short <= 150
            else Remedy("A wider stile"),
            grounds=Grounds("latch_deep", rule=f"{ctx.fmt(INNER_WOOD)} stay"),
        )


def _on_face(ctx: Context, fit: Fit, body: Body, latch: Latch, member: str, down: Figure) -> tuple[Boring, ...]:
    """A latch that lies on the face: a thumb latch's slot, or a rim latch's spindle, goes through the leaf."""
    y = fit.height.value - down.value
    w = body.out_at("latch", y)
    part = next((each for each in body.build.parts if each.name == member), None)
    inner = latch.backset + max(latch.slot_wide, latch.spindle) / 2
    if part is not None and part.role is Role.STILE and inner > part.face.width:
        ctx.warn(
            "latch-deep",
            "The latch's hole lies beyond the stile",
            f"Backset {ctx.fmt(latch.backset)} on a stile of {ctx.fmt(part.face.width)}.",
            Remedy(f"A backset of {ctx.fmt(part.face.width / 2)}", "hardware.latch.backset", part.face.width / 2),
            grounds=Grounds("latch_down"),
        )
    side = "on the face that it shuts to" if latch.kind is LatchKind.RIM else "its bar behind"
    ctx.fine(
        "latch",
        f"{str(latch.kind).partition(',')[0].capitalize()}, {side}",
        f"{ctx.fmt(latch.backset)} in from the latch edge, {ctx.fmt(down)} down.",
        grounds=Grounds("latch_down"),
    )
    if latch.kind is LatchKind.RIM:
        return (_spindle(ctx, latch, body, down, w, y),)
    back = ctx.chosen(
        "latch_backset", "thumb latch, slot's middle from the edge", latch.backset, "hardware.latch.backset"
    )
    high, wide, x = latch.slot_high / 2, latch.slot_wide / 2, w - back.value
    member, faces = through_at(body, x, y)
    return (
        leaf_cut(
            BoringKind.THUMB_SLOT,
            member,
            CutSide.THROUGH_AT_LATCH,
            down.value - high,
            (latch.slot_high, back.value, faces[1] - faces[0]),
            block(x - wide, y - high, x + wide, y + high, faces),
        ),
    )


def bore_bolts(ctx: Context, fit: Fit, frame: Frame, body: Body) -> tuple[Boring, ...]:
    """Add a pair's flush bolts and return what is cut for them in the slow leaf, head and floor; () without them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf, as high as its latch edge is, mm.
        frame: What the leaf hangs in.
        body: The leaf's pieces in place.
    """
    bolts, f = ctx.leaf.hardware.bolts, ctx.figures
    if bolts is None or ctx.leaf.hanging is not Hanging.PAIR:
        return ()
    thick, h = f["thickness"], fit.height.value
    width = ctx.chosen("bolt_width", "flush bolt, width", bolts.width, "hardware.bolts.width")
    beside = f.total("bolt_beside", "wood beside a flush bolt, each side", plus(thick, 0.5), minus(width, 0.5))
    _judge_bolts(ctx, bolts, thick, beside)
    ends = (BoringKind.BOLT_TOP, h - bolts.length), (BoringKind.BOLT_FOOT, 0.0)
    return (
        *(_bolt_recess(kind, body, bolts, low, h) for kind, low in ends),
        Boring(
            BoringKind.BOLT_HOLE_TOP,
            CutIn.HEAD,
            "lining head",
            CutSide.MEETING_LINE,
            Datum.INTO_HEAD,
            0.0,
            bolts.bolt,
            bolts.deep / 2,
            bolts.into,
        ),
        Boring(
            BoringKind.BOLT_HOLE_FOOT,
            CutIn.FLOOR,
            "floor or sill",
            CutSide.MEETING_LINE,
            Datum.INTO_FLOOR,
            0.0,
            bolts.bolt,
            bolts.deep / 2,
            bolts.into,
        ),
    )


def _bolt_recess(kind: BoringKind, body: Body, bolts: FlushBolts, low: float, height: float) -> Boring:
    """Return a bolt's recess in the meeting edge; low: its lower end up the leaf, height: of the leaf there, mm."""
    middle_up = low + bolts.length / 2
    edge = body.out_at("latch", middle_up)
    return Boring(
        kind,
        CutIn.SLOW_LEAF,
        latch_member(body, middle_up),
        CutSide.MEETING_EDGE,
        Datum.LEAF_TOP,
        height - low - bolts.length,
        bolts.length,
        bolts.width,
        bolts.deep,
        block(edge - bolts.deep, low, edge, low + bolts.length, middle(body.along("latch"), bolts.width)),
    )


def _judge_bolts(ctx: Context, bolts: FlushBolts, thick: Figure, beside: Figure) -> None:
    """Judge the wood beside the bolts."""
    if beside.value < BESIDE:
        most = thick.value - 2 * BESIDE
        ctx.report(
            "bolts-thin",
            Level.STOP if beside.value < 2 else Level.WARNING,
            "The leaf is thin for its flush bolts",
            f"{ctx.fmt(beside)} stay on each side.",
            Remedy(f"Bolts {ctx.fmt(most)} wide", "hardware.bolts.width", most)
            if most >= 8
            else Remedy("Bolts on the face"),
            grounds=Grounds("bolt_beside", rule=f"{ctx.fmt(BESIDE)} on each side"),
        )
    else:
        ctx.fine(
            "bolts",
            "Flush bolts in the slow leaf, top and bottom",
            f"{ctx.fmt(beside)} stay on each side; each goes {ctx.fmt(bolts.into)} into head and floor.",
            Remedy("Escape and fire doors: local code decides whether bolts are allowed"),
            grounds=Grounds("bolt_beside"),
        )
