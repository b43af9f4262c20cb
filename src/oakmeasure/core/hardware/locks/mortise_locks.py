"""Mortise locks and pulls: where they are cut and bored, on leaf and lining, each from an end that can be measured.

Heights come from above the finished floor; on the leaf they are less the floor gap, on the lining more by the head gap
when taken down. Nothing here knows the hand: the latch edge is named. Sources: the lock's own sheet;
common practice of the trade.
"""

from __future__ import annotations

from oakmeasure.core.base.prisms import block, bore
from oakmeasure.core.document.hinges import MortiseLock, Pull, PullKind
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import FIXED, Figure, fixed, minus, plus
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.hardware.boring import Boring, BoringKind, CutIn, CutSide, Datum, KeepPlate, keep, leaf_cut
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build

USUAL_HEIGHT = 1000.0  # of a lock above the floor, where the construction asks for none: common practice
FACE_LEFT = 3.0  # under a flush pull: common practice, no source
JIG_MARGIN = 25.0  # of a drilling template beyond its holes: common practice, no source
BAR_BORE = 5.0  # clearance hole of a bar's screws, mm


def bore_lock(ctx: Context, fit: Fit, build: Build) -> tuple[Boring, ...]:
    """Add the lock's places and return what is cut for it; () without a lock.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    lock, f = ctx.leaf.hardware.lock, ctx.figures
    if lock is None:
        return ()
    above = getattr(ctx.leaf.build, "lock_height", None)
    height = f.get("lock_height") or f.given(
        "lock_height",
        "lock above the floor",
        above or USUAL_HEIGHT,
        fixed("build.lock_height" if above is not None else "", source="common practice"),
    )
    up = f.get("middle_rail_centre") or f.total("lock_up", "lock, up the leaf", plus(height), minus(f["gap_floor"]))
    down = f.total("lock_down", "lock's middle, down from the leaf's top", plus(fit.height), minus(up))
    f.total("lock_keep", "lock's middle, down from the lining's head", plus(down), plus(f["gap_head"]))
    back = f.get("lock_backset") or f.given("lock_backset", "backset", lock.backset, fixed("hardware.lock.backset"))
    deep = f.get("lock_case") or f.given(
        "lock_case", "lock case, forend to back", lock.case_depth, fixed("hardware.lock.case_depth")
    )
    _judge(ctx, lock, build)
    member = latch_member(build)
    fore = lock.forend_length / 2
    w, y, thick = fit.width.value, fit.height.value - down.value, f["thickness"].value
    found = _lock_cuts(lock, member, (w, y, thick), down.value, back.value, deep.value)
    plate = (lock.forend_length, lock.forend_width, lock.forend_thickness)
    at = keep(
        BoringKind.LOCK_KEEP,
        ctx.leaf.hanging,
        member,
        plate=KeepPlate(down.value - fore, *plate, middle(thick, lock.forend_width)),
        head_gap=f["gap_head"].value,
        leaf=(w, fit.height.value),
    )
    if at is not None:
        found.append(at)
    return tuple(found)


def _lock_cuts(
    lock: MortiseLock, member: str, at: tuple[float, float, float], down: float, back: float, deep: float
) -> list[Boring]:
    """Return what is cut into the leaf; at: its latch edge, the lock's middle up it, its thickness."""
    half, fore, (w, y, thick) = lock.case_height / 2, lock.forend_length / 2, at
    found = [
        leaf_cut(
            BoringKind.LOCK_MORTISE,
            member,
            CutSide.LATCH_EDGE,
            down - half,
            (lock.case_height, lock.case_thickness, deep),
            block(w - deep, y - half, w, y + half, middle(thick, lock.case_thickness)),
        ),
        leaf_cut(
            BoringKind.LOCK_FOREND,
            member,
            CutSide.LATCH_EDGE,
            down - fore,
            (lock.forend_length, lock.forend_width, lock.forend_thickness),
            block(w - lock.forend_thickness, y - fore, w, y + fore, middle(thick, lock.forend_width)),
        ),
        leaf_cut(
            BoringKind.SPINDLE_HOLE,
            member,
            CutSide.BOTH_FACES_AT_LATCH,
            down - lock.spindle_bore / 2,
            (lock.spindle_bore, back, thick),
            bore(w - back, y, lock.spindle_bore, (0.0, thick)),
        ),
    ]
    if lock.key_bore:
        found.append(
            leaf_cut(
                BoringKind.KEYHOLE,
                member,
                CutSide.BOTH_FACES_AT_LATCH,
                down + lock.key_below - lock.key_bore / 2,
                (lock.key_bore, back, thick),
                bore(w - back, y - lock.key_below, lock.key_bore, (0.0, thick)),
            )
        )
    return found


def middle(thickness: float, wide: float) -> tuple[float, float]:
    """Return from where to where what is let into the middle of an edge lies, from the opening face, mm.

    Args:
        thickness: Thickness of the leaf, mm.
        wide: Width of what lies in the middle of the thickness, mm.
    """
    return (thickness - wide) / 2, (thickness + wide) / 2


def latch_member(build: Build) -> str:
    """Return what stands at the latch edge.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    upright = [part for part in build.parts if part.grain_upright and part.role is not Role.VENEER]
    return max(upright, key=lambda each: (each.face.x1, each.finished.thickness), default=build.parts[0]).name


def _judge(ctx: Context, lock: MortiseLock, build: Build) -> None:
    """Judge what the construction itself does not: backset inside the case, a leaf that is thin or hollow there."""
    if lock.backset >= lock.case_depth:
        ctx.stop(
            "lock-contradicts",
            "The spindle lies behind the lock's case",
            f"Backset {ctx.fmt(lock.backset)}, the case is {ctx.fmt(lock.case_depth)} deep.",
            Remedy(f"A backset of {ctx.fmt(lock.case_depth - 15)}", "hardware.lock.backset", lock.case_depth - 15)
            if lock.case_depth - 15 >= 15
            else Remedy("Measure the lock again"),
            grounds=Grounds("lock_backset"),
        )
    inside = getattr(ctx.leaf.build, "inside", None)
    solid = ctx.figures.get("solid_left")
    if (
        inside is not None
        and inside.name in ("HOLLOW", "BLOCKS")
        and solid is not None
        and (lock.case_depth > solid.value)
    ):
        ctx.report(
            "lock-hollow",
            Level.STOP if inside.name == "HOLLOW" else Level.WARNING,
            "The lock's case reaches beyond the solid edge",
            f"{ctx.fmt(lock.case_depth)} deep; {ctx.fmt(solid)} is solid.",
            Remedy("Only where its lock block is: knock, or find it by its mark")
            if inside.name == "BLOCKS"
            else Remedy("A rim lock, or glue a block in"),
            grounds=Grounds("lock_case"),
        )


def bore_pull(ctx: Context, fit: Fit, build: Build) -> tuple[Boring, ...]:
    """Add the pull's places and return what is bored or let in for it; () without one.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    pull, f = ctx.leaf.hardware.pull, ctx.figures
    if pull.kind is PullKind.NONE:
        return ()
    above = ctx.chosen("pull_up", "pull's middle above the floor", pull.up, "hardware.pull.up")
    floor = f.get("gap_floor")
    terms = [plus(fit.height), minus(above)] + ([plus(floor)] if floor is not None else [])
    down = f.total("pull_down", "pull's middle, down from the leaf's top", *terms)
    edge = ctx.chosen("pull_in", "pull, in from the latch edge", pull.in_from, "hardware.pull.in_from")
    member = latch_member(build)
    half = pull.centres / 2 if pull.kind is PullKind.BAR else pull.recess_high / 2
    x, y = fit.width.value - edge.value, fit.height.value - down.value
    if not half < down.value < fit.height.value - half:
        half_way = f["pull_up"].value + down.value - fit.height.value / 2
        ctx.stop(
            "pull-out",
            "The pull does not lie on the leaf",
            f"Its middle is {ctx.fmt(down)} down from the top of {ctx.fmt(fit.height)}.",
            Remedy(f"{ctx.fmt(half_way)} above the floor", "hardware.pull.up", half_way)
            if 100 <= half_way <= 2500
            else Remedy("A smaller pull"),
            grounds=Grounds("pull_down"),
        )
        return ()
    if pull.kind is PullKind.BAR:
        return _bar_holes(ctx, pull, (x, y), down, edge, member)
    return _recess(ctx, pull, (x, y), down, edge, member)


def _recess(
    ctx: Context, pull: Pull, at: tuple[float, float], down: Figure, edge: Figure, member: str
) -> tuple[Boring, ...]:
    """Return the recess of a flush pull; judge what stays under it."""
    f, half, (x, y) = ctx.figures, pull.recess_high / 2, at
    deep = ctx.chosen("pull_deep", "flush pull, depth", pull.recess_deep, "hardware.pull.recess_deep")
    left = f.total("pull_left", "wood left under the flush pull", plus(f["thickness"]), minus(deep))
    if left.value < FACE_LEFT:
        less = f["thickness"].value - FACE_LEFT
        ctx.stop(
            "pull-deep",
            "The flush pull comes through the leaf",
            f"{ctx.fmt(left)} would be left.",
            Remedy(f"A pull {ctx.fmt(less)} deep", "hardware.pull.recess_deep", less)
            if 1 <= less <= 40
            else Remedy("A pull on the face"),
            grounds=Grounds("pull_left", rule=f"{ctx.fmt(FACE_LEFT)} stay"),
        )
    wide = pull.recess_wide / 2
    return (
        leaf_cut(
            BoringKind.FLUSH_PULL,
            member,
            CutSide.OPENING_AT_LATCH,
            down.value - half,
            (pull.recess_high, edge.value, deep.value),
            block(x - wide, y - half, x + wide, y + half, (0.0, deep.value)),
        ),
    )


def _bar_holes(
    ctx: Context, pull: Pull, at: tuple[float, float], down: Figure, edge: Figure, member: str
) -> tuple[Boring, ...]:
    """Return the two holes of a bar; add its drilling template."""
    f, half, (x, y) = ctx.figures, pull.centres / 2, at
    holes = ctx.chosen("pull_centres", "bar, from screw to screw", pull.centres, "hardware.pull.centres")
    margin = f.given("jig_margin", "beyond the holes, each end of the template", JIG_MARGIN, FIXED)
    f.total("jig_length", "drilling template, length", plus(holes), plus(margin, 2))
    f.total("jig_width", "drilling template, from its fence", plus(edge), plus(margin))
    ctx.fine(
        "pull",
        "The bar's holes, both sides alike",
        f"{ctx.fmt(holes)} apart, {ctx.fmt(edge)} in; drill both faces from one template "
        f"{ctx.fmt(f['jig_length'])} × {ctx.fmt(f['jig_width'])}, its fence on the latch edge.",
        grounds=Grounds("pull_centres"),
    )
    return tuple(
        Boring(
            BoringKind.PULL_HOLE,
            CutIn.LEAF,
            member,
            CutSide.OPENING_THROUGH_AT_LATCH,
            Datum.LEAF_TOP,
            down.value + off - BAR_BORE / 2,
            BAR_BORE,
            edge.value,
            f["thickness"].value,
            bore(x, y - off, BAR_BORE, (0.0, f["thickness"].value)),
            at=at,
        )
        for at, off in ((1, -half), (2, half))
    )
