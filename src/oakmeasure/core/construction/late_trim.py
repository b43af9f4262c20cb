"""What is taken off a leaf once it is made: everything else moves with it, and what remains is judged at the worst.

The parts stay as they were cut; what is finished is smaller. Coordinates run from the new hinge edge and the new foot.
Sources: arithmetic; what must remain: common practice of the trade.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from oakmeasure.core.base.geometry import area, clipped
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.construction.existing.checks import EDGE_KEPT
from oakmeasure.core.construction.existing.narrowing import TENON_COVER
from oakmeasure.core.construction.framed.lock import BEHIND_SPINDLE
from oakmeasure.core.construction.real_parts import real_parts
from oakmeasure.core.document.job import LateTrim
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.alternatives import Comparison, Option
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Dim, Part, Rect, Size
from oakmeasure.core.leaf.part_factory import around

# What must stay of a member at a trimmed edge, mm: common practice, no source.
LEAST = {Role.RAIL: 40.0, Role.STILE: 45.0, Role.LIPPING: 5.0, Role.BOARD: 30.0, Role.STRIP: 30.0, Role.LEDGE: 40.0}
GAP = -1.0  # marks what grows
GUIDE_LEAST = 8.0  # of a groove, for a guide to hold: common practice, no source
COLUMNS = ("what", "as made", "trimmed", "at the worst", "must stay")
GAPS = {"gap_floor": "foot", "gap_head": "head", "gap_hinge": "hinge", "gap_latch": "latch"}
EDGES = {"foot": "foot", "head": "head", "hinge": "hinge edge", "latch": "latch edge"}


@dataclass(frozen=True, slots=True)
class Remains:
    """What is left of something at one edge."""

    what: str
    """What is left."""
    edge: str
    """At which edge."""
    before: float
    """What is left of it as it was made, mm."""
    after: float
    """What is left of it once it is trimmed, mm."""
    worst: float
    """What is left of it when the site takes all that it may, mm."""
    least: float
    """The least that may be left, mm."""
    where: str = ""
    """What it shows on the drawing."""


def trim_late(ctx: Context, fit: Fit, build: Build) -> tuple[Fit, Build, tuple[Comparison, ...]]:
    """Return fit and build with the late trim taken, and what it leaves as a table; the same where there is none.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    late = ctx.leaf.late
    if not late.is_any and not late.allow_side and not late.allow_end:
        return fit, build, ()
    for edge, words in EDGES.items():
        ctx.figures.given(
            figure_name(f"late_{edge}"), f"off the {words}, once made", getattr(late, edge), fixed(f"late.{edge}")
        )
    ctx.chosen("late_may_side", "the site may take, each long edge", late.allow_side, "late.allow_side")
    ctx.chosen("late_may_end", "the site may take, foot and top each", late.allow_end, "late.allow_end")
    rows = _remains(ctx, build, late)
    _judge(ctx, late, rows)
    table = _table(ctx, rows)
    if not late.is_any:
        return fit, build, (table,)
    new_fit = _smaller(ctx, fit, late)
    if min(new_fit.width.value, new_fit.height.value) < 50:
        ctx.stop(
            "late-all",
            "Nothing would be left of the leaf",
            f"{ctx.fmt(new_fit.width)} × {ctx.fmt(new_fit.height)}.",
            Remedy("No trim", "late", LateTrim()),
            grounds=Grounds("late_foot"),
        )
        return fit, build, (table,)
    return new_fit, real_parts(ctx, trimmed(ctx, build, late, new_fit)), (table,)


def _smaller(ctx: Context, fit: Fit, late: LateTrim) -> Fit:
    f = ctx.figures
    width = f.total(
        "width_trimmed", "leaf width, trimmed", plus(fit.width), minus(f["late_hinge"]), minus(f["late_latch"])
    )
    height = f.total(
        "height_trimmed", "leaf height, trimmed", plus(fit.height), minus(f["late_foot"]), minus(f["late_head"])
    )
    outline = _cut_outline(fit.outline, late, width.value, height.value) if fit.outline else ()
    if "guide_depth" in f:
        f.total("guide_left", "groove for the guide that is left", plus(f["guide_depth"]), minus(f["late_foot"]))
    lock_up = f.get("lock_up") or f.get("middle_rail_centre")
    if lock_up is not None:
        f.total("lock_up_trimmed", "lock, up the trimmed leaf", plus(lock_up), minus(f["late_foot"]))
    for gap, edge in GAPS.items():
        if figure_name(gap) in f and f[figure_name(f"late_{edge}")].value:
            f.total(
                figure_name(f"{gap}_trimmed"),
                f"{f[figure_name(gap)].label}, once it is trimmed",
                plus(f[figure_name(gap)]),
                plus(f[figure_name(f"late_{edge}")]),
            )
    return replace(
        fit,
        width=width,
        height=height,
        outline=outline,
        x_hinge_edge=fit.x_hinge_edge + late.hinge,
        y_foot=fit.y_foot + late.foot,
    )


def _cut_outline(
    outline: tuple[tuple[float, float], ...], late: LateTrim, width: float, height: float
) -> tuple[tuple[float, float], ...]:
    box = _box(late, width, height)
    return tuple((x - late.hinge, y - late.foot) for x, y in clipped(outline, box))


def _box(late: LateTrim, width: float, height: float) -> tuple[tuple[float, float], ...]:
    """Return the corners of what stays, in the coordinates of the leaf as made."""
    x0, y0 = late.hinge, late.foot
    return (x0, y0), (x0 + width, y0), (x0 + width, y0 + height), (x0, y0 + height)


def trimmed(ctx: Context, build: Build, late: LateTrim, fit: Fit) -> Build:
    """Return the build with everything outside the trimmed leaf cut off and everything else where it then is.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        late: What comes off each edge once the leaf is made, mm.
        fit: Size of the leaf and its gaps, mm.
    """
    w, h = fit.width.value, fit.height.value
    box = _box(late, w, h)
    parts = [cut for part in build.parts if (cut := _cut(ctx, part, box, late)) is not None]
    kept = tuple(replace(each, mark=str(at)) for at, each in enumerate(parts, start=1))
    names = {each.name for each in kept}

    def moved(rect: Rect) -> Rect:
        return Rect(
            max(rect.x0 - late.hinge, 0.0),
            max(rect.y0 - late.foot, 0.0),
            min(rect.x1 - late.hinge, w),
            min(rect.y1 - late.foot, h),
        )

    tenons = tuple(replace(each, rect=moved(each.rect)) for each in build.tenons if each.member in names)
    inside = [
        replace(
            each,
            x=each.x - late.hinge,
            y=each.y - late.foot,
            end=each.end and (each.end[0] - late.hinge, each.end[1] - late.foot),
        )
        for each in build.fixings
    ]
    marks = tuple(
        replace(
            each,
            points=tuple((min(max(x - late.hinge, 0.0), w), min(max(y - late.foot, 0.0), h)) for x, y in each.points),
        )
        for each in build.marks
    )
    return replace(
        build,
        width=w,
        height=h,
        parts=kept,
        tenons=tuple(each for each in tenons if min(each.rect.width, each.rect.height) > 1.0),
        sights=tuple(moved(each) for each in build.sights),
        fixings=tuple(each for each in inside if 0 < each.x < w and 0 < each.y < h),
        dims=tuple(_dim(ctx, each, late, w, h) for each in build.dims),
        marks=marks,
    )


def _dim(ctx: Context, dim: Dim, late: LateTrim, width: float, height: float) -> Dim:
    off, most = (late.foot, height) if dim.upright else (late.hinge, width)
    start, end = (min(max(each - off, 0.0), most) for each in (dim.start, dim.end))
    changed = abs((end - start) - (dim.end - dim.start)) > 0.01
    name = dim.figure
    if changed and figure_name(name) in ctx.figures:
        old = ctx.figures[figure_name(name)]
        name = ctx.figures.unused(f"trimmed_{name}_{'low' if start == 0 else 'high'}")
        ctx.figures.derived(
            name,
            f"{old.label}, trimmed",
            end - start,
            old,
            ctx.figures["late_foot"],
            ctx.figures["late_hinge"],
            formula="less what is taken off there",
        )
    return replace(dim, start=start, end=end, figure=name)


def _cut(ctx: Context, part: Part, box: tuple[tuple[float, float], ...], late: LateTrim) -> Part | None:
    """Return what stays of a part, its finished size less what was taken off; None where nothing does."""
    shape = clipped(part.corners, box)
    if len(shape) < 3 or area(shape) < 1.0:
        return None
    moved = tuple((x - late.hinge, y - late.foot) for x, y in shape)
    face, was = around(moved), part.face
    tall, wide = was.height - face.height, was.width - face.width
    out = part.outline
    outline = Rect(out.x0 - late.hinge, out.y0 - late.foot, out.x1 - late.hinge, out.y1 - late.foot)
    part = replace(part, tongues=_joints(part.tongues, box, late), cuts=_joints(part.cuts, box, late))
    if tall < 0.005 and wide < 0.005:
        at = moved if part.shape else ()
        return replace(part, face=face, outline=outline, shape=at)
    along, across = (tall, wide) if part.grain_upright else (wide, tall)
    finished = Size(part.finished.length - along, part.finished.width - across, part.finished.thickness)
    length = _less(ctx, part, part.length, "length", finished.length) if along > 0.005 else part.length
    width = _less(ctx, part, part.width, "width", finished.width) if across > 0.005 else part.width
    return replace(
        part,
        face=face,
        outline=outline,
        shape=moved if part.shape else (),
        finished=finished,
        length=length,
        width=width,
    )


def _joints(solids: tuple[Solid, ...], box: tuple[tuple[float, float], ...], late: LateTrim) -> tuple[Solid, ...]:
    """Return what is left of tongues or cuts, where it then is."""
    kept = ((each, clipped(each.points, box)) for each in solids)
    return tuple(
        replace(each, points=left).moved(-late.hinge, -late.foot)
        for each, left in kept
        if len(left) > 2 and area(left) > 1.0
    )


def _less(ctx: Context, part: Part, old: Figure, which: str, value: float) -> Figure:
    f = ctx.figures
    return f.derived(
        f.unused(f"trimmed_{part.slug}_{which}"),
        f"{part.name}, {which}, trimmed",
        value,
        old,
        f["late_foot"],
        f["late_head"],
        f["late_hinge"],
        f["late_latch"],
        formula="less what is taken off there",
    )


# --- what remains ------------------------------------------------------------------------------------------


def _remains(ctx: Context, build: Build, late: LateTrim) -> list[Remains]:
    """Return everything that a trim takes from, edge by edge."""
    found: list[Remains] = []
    for edge in EDGES:
        taken = getattr(late, edge)
        may = late.allow_side if edge in ("hinge", "latch") else late.allow_end
        if not taken and not may:
            continue
        for what, before, least, where in _at(ctx, build, edge):
            sign = 1.0 if least == GAP else -1.0  # a gap grows by what the leaf loses
            found.append(
                Remains(
                    what,
                    edge,
                    before,
                    before + sign * taken,
                    before + sign * (taken + may),
                    0.0 if least == GAP else least,
                    where,
                )
            )
    return found


def _at(ctx: Context, build: Build, edge: str) -> list[tuple[str, float, float, str]]:
    """Return what stands at an edge: its name, what there is of it, what must stay, where it is shown."""
    f, found = ctx.figures, []
    upright = edge in ("hinge", "latch")
    for part in build.parts:
        r = part.face
        at = {"foot": r.y0, "head": build.height - r.y1, "hinge": r.x0, "latch": build.width - r.x1}[edge]
        least = LEAST.get(part.role)
        if (
            least is None
            or part.is_back
            or (part.depth is not None and part.depth[0] > 0.5 and (part.role is not Role.LEDGE) and not part.at_hand)
        ):
            continue
        if part.role is Role.LEDGE:  # a ledge's ends move in towards the edge; its near edge towards foot or head
            near = {"foot": Place.LOWER, "head": Place.UPPER}.get(edge)
            if (near is not None and near is part.place) or (upright and part.place is Place.LOWER):
                found.append((f"{part.name}, from the {EDGES[edge]}", at, 0.0, f"part:{part.name}"))
        elif at < 0.5 and part.grain_upright is upright:
            found.append(
                (part.name, r.width if upright else r.height, _least(ctx, part, least, edge), f"part:{part.name}")
            )
    gap = next(name for name, its in GAPS.items() if its == edge)
    if figure_name(gap) in f:
        found.append((f[figure_name(gap)].label, f[figure_name(gap)].value, GAP, f"figure:{gap}"))
    if edge == "foot":
        if "guide_depth" in f:
            found.append(("groove for the guide", f["guide_depth"].value, GUIDE_LEAST, "figure:guide_depth"))
        centre = getattr(ctx.leaf.build, "lock_height", None)
        if centre is not None:
            found.append(("lock, up the leaf", centre - f["gap_floor"].value, 0.0, "part:middle rail"))
    return found


def _least(ctx: Context, part: Part, least: float, edge: str) -> float:
    """Return what must stay of a member: its tenons covered, its backset, its solid edge."""
    f = ctx.figures
    if part.role is Role.STILE and "tenon" in f:
        least = (
            min(part.face.width, f["tenon"].value + TENON_COVER)
            if "tenon_cover" in f or f["tenon"].value < (part.face.width - TENON_COVER)
            else least
        )
    lock = ctx.leaf.hardware.lock
    if part.role is Role.STILE and lock is not None and edge == "latch":
        least = max(least, lock.backset + BEHIND_SPINDLE)
    if part.at_hand and part.role is Role.STILE and "solid" in f:
        least = EDGE_KEPT
    return min(least, part.face.width if part.grain_upright else part.face.height)


def _judge(ctx: Context, late: LateTrim, rows: list[Remains]) -> None:
    bad = [each for each in rows if each.worst < each.least - 0.005]
    for each in bad:
        field = f"late.{each.edge}"
        allowed = each.before - each.least
        over = each.after < each.least - 0.005
        side = each.edge in ("hinge", "latch")
        may = "late.allow_side" if side else "late.allow_end"
        spare = max(allowed - (each.before - each.after), 0.0)
        remedy = (
            Remedy(f"{ctx.fmt(allowed)} off the {EDGES[each.edge]}, at the most", field, max(allowed, 0.0))
            if (over)
            else Remedy(f"Leave the site {ctx.fmt(spare)}, at the most", may, spare)
        )
        code = f"late-{each.edge}-{each.what}".replace(" ", "-").replace(",", "")
        ctx.report(
            code,
            Level.STOP if over else Level.WARNING,
            f"Too little is left of the {each.what}" if not over else f"The trim takes too much of the {each.what}",
            f"As made {ctx.fmt(each.before)}, trimmed {ctx.fmt(each.after)}, at the worst {ctx.fmt(each.worst)}; "
            f"{ctx.fmt(each.least)} must stay.",
            remedy,
            grounds=Grounds(f"late_{each.edge}", each.where, rule="what must stay: common practice"),
        )
    if not bad and rows:
        least = min((each for each in rows if each.least), key=lambda each: each.worst - each.least, default=rows[0])
        ctx.fine(
            "late-fine",
            "The leaf bears its trim",
            f"At the worst {ctx.fmt(least.worst)} of the {least.what} is left; {ctx.fmt(least.least)} must stay.",
            grounds=Grounds(f"late_{least.edge}", least.where),
        )


def _table(ctx: Context, rows: list[Remains]) -> Comparison:
    options = [
        Option(
            (
                f"{each.what}" + (f" ({EDGES[each.edge]})" if each.what == "old leaf" else ""),
                ctx.fmt(each.before),
                ctx.fmt(each.after),
                ctx.fmt(each.worst),
                ctx.fmt(each.least) if each.least else "",
            ),
            Level.OK if each.worst >= each.least - 0.005 else Level.WARNING,
        )
        for each in rows
    ]
    about = "What is left of each at the trimmed edges; the hinges, the lock and the list follow by themselves."
    return Comparison("Trimmed once made", about, COLUMNS, tuple(options))
