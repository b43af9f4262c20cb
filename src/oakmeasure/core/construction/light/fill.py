"""What closes a light frame: boards or a sheet behind it, or in its rebates."""

from __future__ import annotations

import math
from dataclasses import replace

from oakmeasure.core.base.prisms import Solid, Span, block
from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.light.leaf import LightLeaf
from oakmeasure.core.construction.light.model import LightFill, LightGlue
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.figure import FIXED, Figure, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Fixing, Hold, Rect, Size
from oakmeasure.core.leaf.part_factory import SCREW_SHORT_OF, SCREWS, PartSpec
from oakmeasure.core.timber.wood import change_of_width

TONGUE = 5.0  # of the boards behind: common practice, no source
CLEARANCE = 1.0  # of a sheet in its rebate, each side: common practice, no source
BACK_EVERY = 200.0  # of the screws from behind: common practice, no source
FROM_EDGE = 15.0  # of a screw, from the edge of the member that it holds: common practice, no source


def fill(leaf: LightLeaf) -> Figure | None:
    """Add boards or sheet; return what the frame, glued over boards, holds back of their movement.

    Args:
        leaf: The leaf while it is set out.
    """
    choice = leaf.choice
    if choice.fill is LightFill.REBATED:
        _rebated(leaf)
        return None
    if choice.fill is LightFill.SHEET:
        _sheet(leaf)
        return None
    return _boards(leaf)


def _boards(leaf: LightLeaf) -> Figure | None:
    """Boards side by side: over the whole leaf behind the frame, or in the rebates of each field."""
    ctx, choice, f = leaf.ctx, leaf.choice, leaf.ctx.figures
    across, spans = _spans(leaf)
    most = ctx.chosen("board_most", "boards, at most", choice.board, "build.board")
    count = f.derived(
        "boards_count",
        "boards side by side",
        math.ceil(across.value / most.value - 1e-9),
        across,
        most,
        formula="the fewest that reach",
        unit=Unit.COUNT,
    )
    each = f.derived(
        "board_end", "each board, cover", across.value / max(count.value, 1.0), across, count, formula="width ÷ boards"
    )
    n, trim = int(count.value), leaf.fit.trim_side.value if choice.fill is LightFill.BOARDS else 0.0
    z1 = choice.thickness
    depth = (z1 - choice.fill_thickness, z1)
    for name, span, length, extra in spans:
        for at in range(n):
            rect = Rect(span.x0 + at * each.value, span.y0, span.x0 + (at + 1) * each.value, span.y1)
            size = Size(length.value, each.value, choice.fill_thickness)
            ends = trim * ((at == 0) + (at == n - 1))
            wide = each.value + (0.0 if at == n - 1 else TONGUE) + ends
            planed = Size(length.value + extra, wide, choice.fill_thickness)
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
            hold = Hold(depth, (CLEARANCE, CLEARANCE)) if choice.fill is LightFill.BOARDED else None
            leaf.parts.append(
                replace(board, has_tongue=at < n - 1, tongues=_tongues(rect, depth, at < n - 1), hold=hold)
            )
    if choice.fill is LightFill.BOARDS:
        _from_behind(leaf, slotted=choice.glue is LightGlue.JOINTS)
    return _boards_move(leaf, across)


def _tongues(rect: Rect, depth: Span, tongued: bool) -> tuple[Solid, ...]:
    third = (depth[1] - depth[0]) / 3
    return (
        (block(rect.x1, rect.y0, rect.x1 + TONGUE, rect.y1, (depth[0] + third, depth[1] - third)),) if tongued else ()
    )


def _boards_move(leaf: LightLeaf, across: Figure) -> Figure:
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
        across,
        leaf.wood.panel_coefficient,
        leaf.wood.made,
        leaf.wood.wet,
        leaf.wood.dry,
        formula="width × movement × points of moisture, the larger way",
    )


def _spans(leaf: LightLeaf) -> tuple[Figure, list[tuple[str, Rect, Figure, float]]]:
    """Return how wide the boards lie, and each stretch of them: its name, where, its length, what it is longer now."""
    ctx, fit, choice = leaf.ctx, leaf.fit, leaf.choice
    if choice.fill is LightFill.BOARDS:
        whole = Rect(0.0, 0.0, fit.width.value, fit.height.value)
        return fit.width, [("", whole, fit.height, fit.glued_height.value - fit.height.value)]
    rebate = ctx.chosen("fill_rebate", "rebate for the boards", choice.rebate, "build.rebate")
    clear = ctx.figures.given("sheet_clearance", "clearance in the rebate", CLEARANCE, FIXED)
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


def _sheet(leaf: LightLeaf) -> None:
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
            depth=(choice.frame_thickness, choice.thickness),
            bought=True,
            is_back=True,
        ).made(leaf.ctx)
    )
    _from_behind(leaf, slotted=False)


def _rebated(leaf: LightLeaf) -> None:
    """A sheet in a rebate at the back, one for each field."""
    ctx, choice = leaf.ctx, leaf.choice
    rebate = ctx.chosen("fill_rebate", "rebate for the sheet", choice.rebate, "build.rebate")
    clear = ctx.figures.given("sheet_clearance", "clearance of the sheet", CLEARANCE, FIXED)
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
            depth = (choice.frame_thickness - choice.fill_thickness, choice.frame_thickness)
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
                    hold=Hold(depth, (CLEARANCE, CLEARANCE)),
                ).made(ctx)
            )


def _from_behind(leaf: LightLeaf, *, slotted: bool) -> None:
    """Screws through what lies behind into every rail."""
    choice, fit = leaf.choice, leaf.fit
    total_thick = choice.frame_thickness + choice.fill_thickness
    length = max((each for each in SCREWS if each <= total_thick - SCREW_SHORT_OF), default=0.0)
    leaf.ctx.figures.given(
        "back_screw",
        "screws from behind, length",
        length,
        fixed(source=f"the longest that stays {leaf.ctx.fmt(SCREW_SHORT_OF)} before the front"),
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
