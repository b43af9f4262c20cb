"""Mortise locks and pulls: where they are cut and bored, on leaf and lining, each from an end that can be measured.

Heights come from above the finished floor; on the leaf they are less the floor gap, on the lining more by the head gap
when taken down. Nothing here knows the hand: the latch edge is named. Sources: the lock's own sheet;
common practice of the trade.
"""

from __future__ import annotations

from oakmeasure.core.base.prisms import Span, block, bore
from oakmeasure.core.base.units import HAIR
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.document.hinges import MortiseLock, Pull, PullKind
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import FIXED, Figure, fixed, minus, plus
from oakmeasure.core.figures.names import FigureName
from oakmeasure.core.fit.fit_result import Fit, gap_as_hung
from oakmeasure.core.fit.frame import Frame, add_head_gap
from oakmeasure.core.hardware.boring import Boring, BoringKind, CutIn, CutSide, Datum, KeepPlate, keep, leaf_cut
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.lock_place import lock_wish
from oakmeasure.core.leaf.part import Rect

USUAL_HEIGHT = 1000.0  # of a lock above the floor, where the construction asks for none: common practice
FACE_LEFT = 3.0  # under a flush pull: common practice, no source
JIG_MARGIN = 25.0  # of a drilling template beyond its holes: common practice, no source
BAR_BORE = 5.0  # clearance hole of a bar's screws, mm


def bore_lock(ctx: Context, fit: Fit, frame: Frame, body: Body) -> tuple[Boring, ...]:
    """Add the lock's places and return what is cut for it; () without a lock.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf, as high as its latch edge is, mm.
        frame: What the leaf hangs in.
        body: The leaf's pieces in place.
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
    up = f.get("lock_up_trimmed") or f.get("lock_up") or f.get("middle_rail_centre")
    if up is None:
        asked = height.value - gap_as_hung(f, "gap_floor").value
        wish = lock_wish(asked, lock.case_height, fit.height.value)
        if abs(wish - asked) > HAIR:
            up = f.derived("lock_up", "lock, up the leaf", wish, fit.height, formula="half way up a low leaf")
        else:
            up = f.total("lock_up", "lock, up the leaf", plus(height), minus(gap_as_hung(f, "gap_floor")))
    down = f.total("lock_down", "lock's middle, down from the leaf's top", plus(fit.height), minus(up))
    keep_down(ctx, frame, "lock_keep", "lock's middle", fit.height.value - down.value, down)
    back = f.get("lock_backset") or f.given("lock_backset", "backset", lock.backset, fixed("hardware.lock.backset"))
    deep = f.get("lock_case") or f.given(
        "lock_case", "lock case, forend to back", lock.case_depth, fixed("hardware.lock.case_depth")
    )
    _judge(ctx, lock)
    fore = lock.forend_length / 2
    y = fit.height.value - down.value
    member = latch_member(body, y)
    found = _lock_cuts(lock, body, (body.out_at("latch", y), y), down.value, back.value, deep.value)
    plate = (lock.forend_length, lock.forend_width, lock.forend_thickness)
    at = keep(
        BoringKind.LOCK_KEEP,
        ctx.leaf.hanging,
        member,
        plate=KeepPlate(down.value - fore, *plate, middle(body.along("latch"), lock.forend_width)),
        on_jamb=frame.carried("latch", y + fore),
        leaf=(fit.width.value, fit.height.value),
    )
    if at is not None:
        found.append(at)
    return tuple(found)


def _lock_cuts(
    lock: MortiseLock, body: Body, at: tuple[float, float], down: float, back: float, deep: float
) -> list[Boring]:
    """Return what is cut into the leaf; at: its latch edge, and the lock's middle up it."""
    half, fore, (w, y) = lock.case_height / 2, lock.forend_length / 2, at
    member, faces = latch_member(body, y), body.along("latch")
    spindle_in, spindle = through_at(body, w - back, y)
    found = [
        leaf_cut(
            BoringKind.LOCK_MORTISE,
            member,
            CutSide.LATCH_EDGE,
            down - half,
            (lock.case_height, lock.case_thickness, deep),
            block(w - deep, y - half, w, y + half, middle(faces, lock.case_thickness)),
        ),
        leaf_cut(
            BoringKind.LOCK_FOREND,
            member,
            CutSide.LATCH_EDGE,
            down - fore,
            (lock.forend_length, lock.forend_width, lock.forend_thickness),
            block(w - lock.forend_thickness, y - fore, w, y + fore, middle(faces, lock.forend_width)),
        ),
        leaf_cut(
            BoringKind.SPINDLE_HOLE,
            spindle_in,
            CutSide.BOTH_FACES_AT_LATCH,
            down - lock.spindle_bore / 2,
            (lock.spindle_bore, back, spindle[1] - spindle[0]),
            bore(w - back, y, lock.spindle_bore, spindle),
        ),
    ]
    if lock.key_bore:
        key_in, key = through_at(body, w - back, y - lock.key_below)
        found.append(
            leaf_cut(
                BoringKind.KEYHOLE,
                key_in,
                CutSide.BOTH_FACES_AT_LATCH,
                down + lock.key_below - lock.key_bore / 2,
                (lock.key_bore, back, key[1] - key[0]),
                bore(w - back, y - lock.key_below, lock.key_bore, key),
            )
        )
    return found


def keep_down(ctx: Context, frame: Frame, name: FigureName, what: str, y: float, down: Figure) -> None:
    """Add where a lock's or a latch's middle comes on the jamb that it shuts to; of a pair that is the other leaf.

    Args:
        ctx: The leaf's context: its figures are added to.
        frame: What the leaf hangs in.
        name: The figure's name.
        what: What it is, in words.
        y: Its middle, up the leaf, mm.
        down: Its middle, down the leaf's own edge.
    """
    if not ctx.leaf.hanging.has_butts:
        return
    over = add_head_gap(ctx, frame, "latch")
    ctx.figures.derived(
        name,
        f"{what}, down from the head, on the latch jamb",
        frame.carried("latch", y),
        down,
        over,
        formula="down the leaf's latch edge + from there up to the head",
    )


def middle(faces: Span, wide: float) -> Span:
    """Return from where to where what is let into the middle of an edge lies, in from the opening face, mm.

    Args:
        faces: Where the leaf's two faces are, mm.
        wide: Width of what lies in the middle of the thickness, mm.
    """
    at = (faces[0] + faces[1]) / 2
    return at - wide / 2, at + wide / 2


def latch_member(body: Body, y: float) -> str:
    """Return what stands at the latch edge, in the middle of its thickness.

    Args:
        body: The leaf's pieces in place.
        y: At which height, up the leaf, mm.
    """
    front, back = body.along("latch")
    return name_at(body, (body.edge_at("latch", y), y, (front + back) / 2))


def _judge(ctx: Context, lock: MortiseLock) -> None:
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


def bore_pull(ctx: Context, fit: Fit, frame: Frame, body: Body) -> tuple[Boring, ...]:
    """Add the pull's places and return what is bored or let in for it; () without one.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf, as high as its latch edge is, mm.
        frame: What the leaf hangs in.
        body: The leaf's pieces in place.
    """
    pull, f = ctx.leaf.hardware.pull, ctx.figures
    if pull.kind is PullKind.NONE:
        return ()
    above = ctx.chosen("pull_up", "pull's middle above the floor", pull.up, "hardware.pull.up")
    terms = [plus(fit.height), minus(above)]
    if "gap_floor" in f:
        terms.append(plus(gap_as_hung(f, "gap_floor")))
    down = f.total("pull_down", "pull's middle, down from the leaf's top", *terms)
    edge = ctx.chosen("pull_in", "pull, in from the latch edge", pull.in_from, "hardware.pull.in_from")
    half = pull.centres / 2 if pull.kind is PullKind.BAR else pull.recess_high / 2
    y = fit.height.value - down.value
    x = body.out_at("latch", y) - edge.value
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
        return _bar_holes(ctx, pull, (x, y), down, edge, body)
    return _recess(ctx, pull, (x, y), down, edge, body)


def _recess(
    ctx: Context, pull: Pull, at: tuple[float, float], down: Figure, edge: Figure, body: Body
) -> tuple[Boring, ...]:
    """Return the recess of a flush pull; judge what stays under it."""
    f, half, (x, y) = ctx.figures, pull.recess_high / 2, at
    deep = ctx.chosen("pull_deep", "flush pull, depth", pull.recess_deep, "hardware.pull.recess_deep")
    wide = pull.recess_wide / 2
    front, back = body.span_over(Rect(x - wide, y - half, x + wide, y + half)) or (0.0, 0.0)
    there = wood_there(ctx, "pull_wood", "leaf, thickness under the pull", back - front)
    left = f.total("pull_left", "wood left under the flush pull", plus(there), minus(deep))
    if left.value < FACE_LEFT:
        less = there.value - FACE_LEFT
        ctx.stop(
            "pull-deep",
            "The flush pull comes through the leaf",
            f"{ctx.fmt(left)} would be left.",
            Remedy(f"A pull {ctx.fmt(less)} deep", "hardware.pull.recess_deep", less)
            if 1 <= less <= 40
            else Remedy("A pull on the face"),
            grounds=Grounds("pull_left", rule=f"{ctx.fmt(FACE_LEFT)} stay"),
        )
    return (
        leaf_cut(
            BoringKind.FLUSH_PULL,
            through_at(body, x, y)[0],
            CutSide.OPENING_AT_LATCH,
            down.value - half,
            (pull.recess_high, edge.value, deep.value),
            block(x - wide, y - half, x + wide, y + half, (front, front + deep.value)),
        ),
    )


def _bar_holes(
    ctx: Context, pull: Pull, at: tuple[float, float], down: Figure, edge: Figure, body: Body
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
    found = []
    for number, off in ((1, -half), (2, half)):
        member, (front, back) = through_at(body, x, y - off)
        found.append(
            Boring(
                BoringKind.PULL_HOLE,
                CutIn.LEAF,
                member,
                CutSide.OPENING_THROUGH_AT_LATCH,
                Datum.LEAF_TOP,
                down.value + off - BAR_BORE / 2,
                BAR_BORE,
                edge.value,
                back - front,
                bore(x, y - off, BAR_BORE, (front, back)),
                at=number,
            )
        )
    return tuple(found)


def through_at(body: Body, x: float, y: float) -> tuple[str, Span]:
    """Return the piece that a hole through the leaf is begun in, and from where to where the hole goes.

    Args:
        body: The leaf's pieces in place.
        x: Across, mm.
        y: Up, mm.

    Returns:
        Its name, "the leaf" where the leaf is open there, and the depths, mm.
    """
    met = body.through(x, y)
    return (met[0].piece.name, (met[0].depth[0], met[-1].depth[1])) if met else ("the leaf", body.along("latch"))


def name_at(body: Body, at: tuple[float, float, float]) -> str:
    """Return the name of the piece at a place, "the leaf" where there is no wood.

    Args:
        body: The leaf's pieces in place.
        at: Across, up, and in from the opening face, mm.
    """
    piece = body.piece_at(*at)
    return piece.name if piece is not None else "the leaf"


def wood_there(ctx: Context, name: FigureName, label: str, thickness: float) -> Figure:
    """Return how thick the leaf is at a place: its thickness at its edges, or where that differs another figure.

    Args:
        ctx: The leaf's context: its figures are added to.
        name: The figure's name.
        label: What it is called.
        thickness: Thickness of the leaf there, mm.
    """
    known = ctx.figures["thickness"]
    if abs(thickness - known.value) < HAIR:
        return known
    return ctx.figures.given(name, label, max(thickness, 0.0), fixed(source="what is there"))
