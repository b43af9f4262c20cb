"""A light face frame: thin stiles and rails, laid on boards or sheet, or round a sheet in a rebate; braced or not.

Arithmetic: shoulder = leaf − 2·stile; a sheet in a rebate = sight + 2·(rebate − clearance); boards share the width.
Sources: common practice of the trade.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point, area
from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction import braces
from oakmeasure.core.construction.framed import checks as framed_checks
from oakmeasure.core.construction.framed.joints import HINGE_STILE, LATCH_STILE
from oakmeasure.core.construction.framed.layout import FrameLayout, frame_dims, lay_out
from oakmeasure.core.construction.layered.build import frame_of
from oakmeasure.core.construction.light import checks
from oakmeasure.core.construction.light.model import Light, LightBrace, LightFill, LightGlue, LightJoint
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import CHOSEN, Figure, chosen, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Fixing, GlueUp, GlueUpKind, Part, Rect, Size, Tenon
from oakmeasure.core.leaf.part_factory import SCREW_SHORT_OF, SCREWS, PartSpec, add_thickness, around
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.movement import frame_movement
from oakmeasure.core.timber.wood import change_of_width

# Length of a pocket screw by the thickness of the frame, mm: common practice, no source.
POCKET_SCREWS = ((14.0, 25.0), (20.5, 32.0), (26.0, 38.0), (32.0, 50.0), (40.0, 63.0))
TONGUE = 5.0  # of the boards behind: common practice, no source
CLEARANCE = 1.0  # of a sheet in its rebate, each side: common practice, no source
DOWEL, DOWEL_SHARE = 8.0, 0.5  # diameter, and its half length as a share of the stile: common practice, no source
BACK_EVERY = 200.0  # of the screws from behind: common practice, no source
FROM_EDGE = 15.0  # of a screw, from the edge of the member that it holds: common practice, no source


def pocket_screw(thickness: float) -> float:
    """Return the pocket screw for a frame of a thickness, mm.

    Args:
        thickness: Thickness of the frame, mm.

    >>> pocket_screw(20.0)
    32.0
    """
    return next((length for most, length in POCKET_SCREWS if thickness <= most), POCKET_SCREWS[-1][1])


@dataclass(slots=True)
class _LightLeaf:
    ctx: Context
    fit: Fit
    wood: Timber
    choice: Light
    stile: Figure
    shoulder: Figure
    layout: FrameLayout
    parts: list[Part] = field(default_factory=list)
    tenons: list[Tenon] = field(default_factory=list)
    fixings: list[Fixing] = field(default_factory=list)


def build(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the light leaf; what cannot be made is said by checks, and the rest is still set out.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        wood: Species, and moisture as made, at the driest and at the wettest.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Light)
    stile = ctx.chosen("stile", "stile", choice.stile, "build.stile")
    shoulder = ctx.figures.total("shoulder", "rail, between shoulders", plus(fit.width), minus(stile, 2))
    leaf = _LightLeaf(ctx, fit, wood, choice, stile, shoulder, lay_out(ctx, fit, frame_of(choice), shoulder))
    _frame(leaf)
    _joints(leaf)
    _braces(leaf)
    held = _fill(leaf)
    frame_movement(ctx, wood, stile)
    framed_checks.judge_room(ctx, frame_of(choice), fit, leaf.layout, shoulder)
    checks.judge(ctx, choice, held)
    real = [each for each in leaf.parts if min(each.finished.length, each.finished.width) > 0]
    parts = tuple(replace(each, mark=str(at)) for at, each in enumerate(real, start=1))
    sights = tuple(Rect(column.x0, row.y0, column.x1, row.y1) for row in leaf.layout.rows for column in row.columns)
    summary = f"{ctx.show.length(choice.thickness, sign=False)} thick · {choice.fill}"
    says = f"{choice.joint}; {choice.fill}; glue {choice.glue}"
    rails = len(leaf.layout.rails)
    glue = (GlueUp("the frame", fit.height.value, fit.width.value, rails, GlueUpKind.FRAME),)
    return Build(
        width=fit.width.value,
        height=fit.height.value,
        thickness=choice.thickness,
        parts=parts,
        tenons=tuple(leaf.tenons),
        sights=sights,
        summary=summary,
        edge=choice.frame,
        fixings=tuple(leaf.fixings),
        dims=frame_dims(leaf.layout, fit.width.value, stile.value),
        says=says,
        glue_ups=glue,
        layered=True,
    )


def _frame(leaf: _LightLeaf) -> None:
    ctx, fit, choice, wood = leaf.ctx, leaf.fit, leaf.choice, leaf.wood
    w, h, s, t = fit.width.value, fit.height.value, leaf.stile.value, choice.frame
    for name, place, x0 in ((HINGE_STILE, Place.HINGE, 0.0), (LATCH_STILE, Place.LATCH, w - s)):
        rect = Rect(x0, 0.0, x0 + s, h)
        sizes = Size(h, s, t), Size(fit.glued_height.value, s + fit.trim_side.value, t)
        leaf.parts.append(
            PartSpec(
                name,
                Role.STILE,
                rect,
                (fit.height, leaf.stile),
                sizes=sizes,
                species=wood.frame.key,
                upright=True,
                depth=(0.0, t),
                place=place,
            ).made(ctx)
        )
    for rail in leaf.layout.rails:
        trim = fit.trim_height.value if rail.is_end else 0.0
        size = Size(leaf.shoulder.value, rail.width.value, t)
        planed = replace(size, width=size.width + trim)
        note = "2 pocket holes in each end" if choice.joint is LightJoint.POCKET else ""
        leaf.parts.append(
            PartSpec(
                rail.name,
                Role.RAIL,
                rail.rect,
                (leaf.shoulder, rail.width),
                sizes=(size, planed),
                species=wood.frame.key,
                upright=False,
                depth=(0.0, t),
                note=note,
                place=rail.place,
            ).made(ctx)
        )


def _joints(leaf: _LightLeaf) -> None:
    """Two pocket screws or two dowels at each end of each rail, a quarter of its width in."""
    ctx, choice, w, s = leaf.ctx, leaf.choice, leaf.fit.width.value, leaf.stile.value
    thick = ctx.figures["thickness"]
    if choice.joint is LightJoint.POCKET:
        ctx.figures.derived(
            "pocket_screw",
            "pocket screws, length",
            pocket_screw(choice.frame),
            Unit.MM,
            thick,
            formula="by the thickness of the frame",
            source="common practice",
        )
    reach = max(round(s * DOWEL_SHARE), 10.0)
    if choice.joint is LightJoint.DOWELS:
        ctx.figures.derived(
            "dowel_length", "dowels, length", 2 * reach, Unit.MM, leaf.stile, formula="half the stile into each side"
        )
    for rail in leaf.layout.rails:
        r = rail.rect
        for y in (r.y0 + r.height / 4, r.y1 - r.height / 4):
            for stile, x0, x1 in ((HINGE_STILE, s - reach, s), (LATCH_STILE, w - s, w - s + reach)):
                if choice.joint is LightJoint.DOWELS:
                    rect = Rect(x0, y - DOWEL / 2, x1, y + DOWEL / 2)
                    leaf.tenons.append(Tenon(rail.name, stile, rect, DOWEL, False))
                else:
                    x, way = (s + 22.0, -1.0) if stile == HINGE_STILE else (w - s - 22.0, 1.0)
                    long = ctx.figures["pocket_screw"].value
                    leaf.fixings.append(
                        Fixing(
                            x,
                            y,
                            long,
                            "pocket screws",
                            False,
                            f"part:{rail.name}",
                            (0.0, choice.frame),
                            (x + way * long, y),
                        )
                    )


def _braces(leaf: _LightLeaf) -> None:
    """A brace in the upper field, foot at the hinges; crossed ones half-lapped, both whole."""
    ctx, choice = leaf.ctx, leaf.choice
    rows = [row for row in leaf.layout.rows if row.columns]
    if choice.brace is LightBrace.NONE or not rows:
        return
    wide = ctx.chosen("brace_width", "brace, width", choice.brace_width, "build.brace_width")
    row = rows[-1]
    x0, x1 = row.columns[0].x0, row.columns[-1].x1
    try:
        found = braces.pointed_brace(base=x1 - x0, height=row.y1 - row.y0)
        shape = braces.pointed_shape(x0, row.y0, x1, row.y1, wide.value)
    except InputError:
        return
    if wide.value >= 0.5 * min(x1 - x0, row.y1 - row.y0):
        checks.say_brace(ctx, wide, min(x1 - x0, row.y1 - row.y0))
        return
    angle = ctx.figures.derived(
        "brace_angle",
        "brace, from the level",
        found.angle_deg,
        Unit.DEG,
        leaf.shoulder,
        row.sight,
        formula="atan(height ÷ width of its field)",
    )
    length = ctx.figures.derived(
        "brace_blank",
        "brace, tip to tip",
        found.blank,
        Unit.MM,
        leaf.shoulder,
        row.sight,
        angle,
        formula="corner to corner of its field",
    )
    shapes: list[tuple[str, tuple[Point, ...]]] = [("brace", shape)]
    if choice.brace is LightBrace.CROSSED:
        shapes = [("brace 1", shape), ("brace 2", braces.turned_over(shape, x0, x1))]
    for name, corners in shapes:
        size = Size(length.value, wide.value, choice.frame)
        lap = "half-lapped where they cross; " if len(shapes) == 2 else ""
        cut = wide.value**2 * choice.frame / 4 if len(shapes) == 2 else 0.0
        leaf.parts.append(
            PartSpec(
                name,
                Role.BRACE,
                around(corners),
                (length, wide),
                sizes=(size, size),
                species=leaf.wood.frame.key,
                upright=False,
                depth=(0.0, choice.frame),
                shape=corners,
                volume=area(corners) * choice.frame - cut,
                note=f"{lap}both ends pointed, {ctx.show.value(angle.value, Unit.DEG)}",
            ).made(ctx)
        )


# --- what closes it ----------------------------------------------------------------------------------------


def _fill(leaf: _LightLeaf) -> Figure | None:
    """Add boards or sheet; return what the frame, glued over boards, holds back of their movement."""
    choice = leaf.choice
    if choice.fill is LightFill.REBATED:
        _rebated(leaf)
        return None
    if choice.fill is LightFill.SHEET:
        _sheet(leaf)
        return None
    return _boards(leaf)


def _boards(leaf: _LightLeaf) -> Figure | None:
    """Boards side by side: over the whole leaf behind the frame, or in the rebates of each field."""
    ctx, choice, f = leaf.ctx, leaf.choice, leaf.ctx.figures
    across, spans = _spans(leaf)
    most = ctx.chosen("board_most", "boards, at most", choice.board, "build.board")
    count = f.derived(
        "boards_count",
        "boards side by side",
        math.ceil(across.value / most.value - 1e-9),
        Unit.COUNT,
        across,
        most,
        formula="the fewest that reach",
    )
    each = f.derived(
        "board_end",
        "each board, cover",
        across.value / max(count.value, 1.0),
        Unit.MM,
        across,
        count,
        formula="width ÷ boards",
    )
    n = int(count.value)
    z1 = choice.thickness
    depth = (z1 - choice.fill_thickness, z1)
    for name, span, length, extra in spans:
        for at in range(n):
            rect = Rect(span.x0 + at * each.value, span.y0, span.x0 + (at + 1) * each.value, span.y1)
            size = Size(length.value, each.value, choice.fill_thickness)
            planed = Size(length.value + extra, each.value + (0.0 if at == n - 1 else TONGUE), choice.fill_thickness)
            board = PartSpec(
                f"{name}board {at + 1}",
                Role.BOARD,
                rect,
                (length, each),
                sizes=(size, planed),
                species=leaf.wood.panel.key,
                upright=True,
                depth=depth,
                note="" if at == n - 1 else "tongue and groove",
            ).made(ctx)
            leaf.parts.append(replace(board, has_tongue=at < n - 1))
    if choice.fill is LightFill.BOARDS:
        _from_behind(leaf, slotted=choice.glue is LightGlue.JOINTS)
    return _boards_move(leaf, across)


def _boards_move(leaf: _LightLeaf, across: Figure) -> Figure:
    """Add how far all boards together would move."""
    moves = [
        abs(
            change_of_width(
                width=across.value,
                coefficient=leaf.wood.panel_coefficient.value,
                from_moisture=leaf.wood.made.value,
                to_moisture=air.value,
            )
        )
        for air in (leaf.wood.wet, leaf.wood.dry)
    ]
    return leaf.ctx.figures.derived(
        "boards_move",
        "all boards together would move by",
        max(moves),
        Unit.MM,
        across,
        leaf.wood.panel_coefficient,
        leaf.wood.made,
        leaf.wood.wet,
        leaf.wood.dry,
        formula="width × movement × points of moisture, the larger way",
    )


def _spans(leaf: _LightLeaf) -> tuple[Figure, list[tuple[str, Rect, Figure, float]]]:
    """Return how wide the boards lie, and each stretch of them: its name, where, its length, what it is longer now."""
    ctx, fit, choice = leaf.ctx, leaf.fit, leaf.choice
    if choice.fill is LightFill.BOARDS:
        whole = Rect(0.0, 0.0, fit.width.value, fit.height.value)
        return fit.width, [("", whole, fit.height, fit.glued_height.value - fit.height.value)]
    rebate = ctx.chosen("fill_rebate", "rebate for the boards", choice.rebate, "build.rebate")
    clear = ctx.figures.given("sheet_clearance", "clearance in the rebate", CLEARANCE, origin=CHOSEN)
    reach = rebate.value - CLEARANCE
    across = ctx.figures.total(
        "boards_across", "boards, across the rebates", plus(leaf.shoulder), plus(rebate, 2), minus(clear, 2)
    )
    found = []
    for row in leaf.layout.rows:
        length = ctx.figures.total(
            figure_name(f"boards_{row.slug or 'whole'}_length"),
            f"{row.name}boards, length",
            plus(row.sight),
            plus(rebate, 2),
            minus(clear, 2),
        )
        x0 = leaf.stile.value - reach
        found.append((row.name, Rect(x0, row.y0 - reach, x0 + across.value, row.y1 + reach), length, 0.0))
    return across, found


def _sheet(leaf: _LightLeaf) -> None:
    fit, choice = leaf.fit, leaf.choice
    rect = Rect(0.0, 0.0, fit.width.value, fit.height.value)
    size = Size(fit.height.value, fit.width.value, choice.fill_thickness)
    planed = Size(fit.glued_height.value, fit.width.value + 2 * fit.trim_side.value, choice.fill_thickness)
    leaf.parts.append(
        PartSpec(
            "back sheet",
            Role.CORE,
            rect,
            (fit.height, fit.width),
            sizes=(size, planed),
            species=choice.sheet,
            upright=True,
            depth=(choice.frame, choice.thickness),
            bought=True,
            is_back=True,
        ).made(leaf.ctx)
    )
    _from_behind(leaf, slotted=False)


def _rebated(leaf: _LightLeaf) -> None:
    """A sheet in a rebate at the back, one for each field."""
    ctx, choice = leaf.ctx, leaf.choice
    rebate = ctx.chosen("fill_rebate", "rebate for the sheet", choice.rebate, "build.rebate")
    clear = ctx.figures.given("sheet_clearance", "clearance of the sheet", CLEARANCE, origin=CHOSEN)
    for row in leaf.layout.rows:
        for column in row.columns:
            name = f"{row.name}{column.name}sheet"
            slug = name.replace(" ", "_").replace("-", "_")
            high = ctx.figures.total(
                figure_name(f"{slug}_height"), f"{name}, height", plus(row.sight), plus(rebate, 2), minus(clear, 2)
            )
            wide = ctx.figures.total(
                figure_name(f"{slug}_width"), f"{name}, width", plus(column.sight), plus(rebate, 2), minus(clear, 2)
            )
            face = Rect(column.x0, row.y0, column.x1, row.y1)
            reach = rebate.value - CLEARANCE
            outline = Rect(face.x0 - reach, face.y0 - reach, face.x1 + reach, face.y1 + reach)
            size = Size(high.value, wide.value, choice.fill_thickness)
            depth = (choice.frame - choice.fill_thickness, choice.frame)
            leaf.parts.append(
                PartSpec(
                    name,
                    Role.CORE,
                    face,
                    (high, wide),
                    sizes=(size, size),
                    species=choice.sheet,
                    upright=True,
                    depth=depth,
                    outline=outline,
                    bought=True,
                    volume=size.length * size.width * size.thickness,
                ).made(ctx)
            )


def _from_behind(leaf: _LightLeaf, *, slotted: bool) -> None:
    """Screws through what lies behind into every rail."""
    choice, fit = leaf.choice, leaf.fit
    total_thick = choice.frame + choice.fill_thickness
    length = max((each for each in SCREWS if each <= total_thick - SCREW_SHORT_OF), default=0.0)
    leaf.ctx.figures.given(
        "back_screw",
        "screws from behind, length",
        length,
        origin=chosen(source=f"the longest that stays {leaf.ctx.fmt(SCREW_SHORT_OF)} before the front"),
    )
    boards = [each for each in leaf.parts if each.role is Role.BOARD]
    for rail in leaf.layout.rails:
        y = (rail.rect.y0 + rail.rect.y1) / 2
        if boards:
            xs = [(each.face.x0 + each.face.x1) / 2 for each in boards]
        else:
            steps = max(1, math.ceil((fit.width.value - 2 * FROM_EDGE) / BACK_EVERY))
            xs = [FROM_EDGE + at * (fit.width.value - 2 * FROM_EDGE) / steps for at in range(steps + 1)]
        depth = (total_thick - length, total_thick)
        leaf.fixings += [Fixing(x, y, length, "screws", slotted, f"part:{rail.name}", depth) for x in xs]


def inputs(ctx: Context) -> None:
    """Add what other stages need before the leaf is built: its thickness at its edges, and over all.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Light)
    add_thickness(ctx, choice.frame, choice.thickness, "build.frame")
