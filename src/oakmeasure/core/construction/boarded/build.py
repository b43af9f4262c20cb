"""Boarded leaves: boards that make the width, ledges that hold them, braces that carry the latch side.

Net of n boards = n·cover − groove, the tongue being outside the cover; the fewest boards that reach the leaf's width,
the end ones ripped alike: (leaf − (n − 2)·cover)/2. Sources: common practice of the trade; braces: `braces`.
"""

from __future__ import annotations

import math
from dataclasses import replace

from oakmeasure.core.base.prisms import block
from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.boarded import checks
from oakmeasure.core.construction.boarded.braces import add_braces
from oakmeasure.core.construction.boarded.fixings import fix_boards
from oakmeasure.core.construction.boarded.leaf import BoardedLeaf
from oakmeasure.core.construction.boarded.model import Boarded, BoardEdge, BoardedStyle, Rip
from oakmeasure.core.construction.framed.joints import tenon_thickness
from oakmeasure.core.construction.spacing import board_count, equal_ends
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure, Origin, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import TONGUE_ROOM, Build, Dim, Part, Rect, Size, Tenon
from oakmeasure.core.leaf.part_factory import PartSpec
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.movement import boards_movement
from oakmeasure.core.timber.wood import change_of_width

SLIVER = 10.0  # mm; nobody rips a board to less
GAP_STEP = 0.5  # to which the gap at fitting is set, as a card or a coin is


def build(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the boarded leaf; what cannot be made is said by checks, and the rest is still set out.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        wood: Species, and moisture as made, at the driest and at the wettest.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Boarded)
    leaf = _set_out(ctx, fit, wood, choice)
    if leaf.is_framed:
        _frame(leaf)
    _boards(leaf)
    ledges = _ledges(leaf)
    add_braces(leaf, ledges)
    leaf.fixings += fix_boards(leaf.ctx, leaf.choice, leaf.parts, ledges)
    checks.judge(ctx, choice, fit, leaf.parts, ledges, leaf.fixings)
    boards_movement(ctx, wood, ctx.figures["board_cover"], leaf.groove if _is_tongued(choice) else None)
    order = {Role.STILE: 0, Role.RAIL: 1, Role.BOARD: 2, Role.LEDGE: 3, Role.BRACE: 4}
    ordered = sorted(leaf.parts, key=lambda each: order[each.role])
    parts = tuple(replace(each, mark=str(at)) for at, each in enumerate(ordered, start=1))
    count = sum(each.role is Role.BOARD for each in parts)
    says = f"{choice.edge}; {choice.style}; {choice.fixed_by}"
    return Build(
        width=fit.width.value,
        height=fit.height.value,
        thickness=choice.thickness,
        parts=parts,
        tenons=tuple(leaf.tenons),
        summary=f"{count} boards · {choice.style}",
        fixings=tuple(leaf.fixings),
        dims=tuple(leaf.dims),
        says=says,
    )


def _is_tongued(choice: Boarded) -> bool:
    return choice.edge is BoardEdge.TONGUED


def _set_out(ctx: Context, fit: Fit, wood: Timber, choice: Boarded) -> BoardedLeaf:
    f = ctx.figures
    groove = f.given(
        "board_groove", "groove of a board", choice.groove if _is_tongued(choice) else 0.0, fixed("build.groove")
    )
    cover = f.given("board_cover", "cover of a board", choice.cover, fixed("build.cover"))
    gap = _gap(ctx, wood, cover, choice)
    w, h = fit.width.value, fit.height.value
    inside = Rect(0.0, 0.0, w, h)
    if choice.style is BoardedStyle.FRAMED:
        stile = ctx.chosen("stile", "stile", choice.stile, "build.stile")
        rail = ctx.chosen("top_rail", "top rail", choice.top_rail, "build.top_rail")
        f.total("boards_width", "between the stiles", plus(fit.width), minus(stile, 2))
        f.total("boards_height", "under the top rail", plus(fit.height), minus(rail))
        inside = Rect(stile.value, 0.0, w - stile.value, h - rail.value)
    else:
        f.total("boards_width", "boards, over all", plus(fit.width))
        f.total("boards_height", "boards, length", plus(fit.height))
    return BoardedLeaf(ctx, fit, wood, choice, groove, gap, inside)


def _gap(ctx: Context, wood: Timber, cover: Figure, choice: Boarded) -> Figure:
    """Add the gap at which boards are fitted, so that they do not buckle when they swell."""
    if choice.gap is not None:
        return ctx.chosen("board_gap", "gap between boards", choice.gap, "build.gap")
    swell = change_of_width(
        width=cover.value, coefficient=wood.coefficient.value, from_moisture=wood.made.value, to_moisture=wood.wet.value
    )
    value = max(0.0, math.ceil(swell / GAP_STEP - 1e-9) * GAP_STEP) if swell > 0.1 else 0.0
    return ctx.figures.derived(
        "board_gap",
        "gap between boards at fitting",
        value,
        cover,
        wood.coefficient,
        wood.made,
        wood.wet,
        formula=f"cover × movement × points of moisture, to the full {ctx.fmt(GAP_STEP)} above",
    )


# --- the frame of a framed leaf ----------------------------------------------------------------------------


def _frame(leaf: BoardedLeaf) -> None:
    ctx, fit, choice = leaf.ctx, leaf.fit, leaf.choice
    f, w, h, s = ctx.figures, fit.width.value, fit.height.value, choice.stile
    key = leaf.wood.frame.key
    thick = tenon_thickness(ctx, f["thickness"])
    share, step = ctx.rules.blind_share.value, ctx.rules.joint_step.value
    reach = math.floor(s * share / step + 1e-9) * step
    tenon = f.derived("tenon", "tenon, blind", reach, f["stile"], formula="its share of the stile, to the full step")
    length = f.total("rail_length", "rail, over its tenons", plus(f["boards_width"]), plus(tenon, 2))
    for name, place, x0 in (("hinge stile", Place.HINGE, 0.0), ("latch stile", Place.LATCH, w - s)):
        rect = Rect(x0, 0, x0 + s, h)
        finished = Size(h, s, choice.frame_thickness)
        planed = Size(fit.glued_height.value, s + fit.trim_side.value, choice.frame_thickness)
        leaf.parts.append(
            PartSpec(
                name,
                Role.STILE,
                rect,
                (fit.height, f["stile"]),
                sizes=(finished, planed),
                species=key,
                upright=True,
                depth=(0.0, choice.frame_thickness),
                place=place,
            ).made(ctx)
        )
    rect = Rect(s, h - choice.top_rail, w - s, h)
    finished = Size(length.value, choice.top_rail, choice.frame_thickness)
    planed = replace(finished, width=finished.width + fit.trim_height.value)
    leaf.parts.append(
        PartSpec(
            "top rail",
            Role.RAIL,
            rect,
            (length, f["top_rail"]),
            sizes=(finished, planed),
            species=key,
            upright=False,
            depth=(0.0, choice.frame_thickness),
            place=Place.TOP,
        ).made(ctx)
    )
    _ledge_tenons(leaf, "top rail", rect, (thick.value, reach), choice.frame_thickness / 2)


def _ledge_tenons(leaf: BoardedLeaf, name: str, rect: Rect, size: tuple[float, float], middle: float) -> None:
    """Add a rail's or a ledge's tenons; size: their thickness and how far they go in, mm."""
    thickness, reach = size
    for stile, x0, x1 in (("hinge stile", rect.x0 - reach, rect.x0), ("latch stile", rect.x1, rect.x1 + reach)):
        low, high = (rect.y0 + 6, rect.y1 - 6) if rect.height > 40 else (rect.y0, rect.y1)
        leaf.tenons.append(Tenon(name, stile, Rect(x0, low, x1, high), thickness, False, middle=middle))


# --- boards ------------------------------------------------------------------------------------------------


def _boards(leaf: BoardedLeaf) -> None:
    covers = _measured(leaf) if leaf.choice.measured else _alike(leaf)
    ctx, choice, fit = leaf.ctx, leaf.choice, leaf.fit
    framed = leaf.is_framed
    length = ctx.figures["boards_height"]
    y1 = leaf.inside.y1
    tongue = leaf.groove.value - TONGUE_ROOM if leaf.groove.value else 0.0
    end_trim = 0.0 if framed else fit.trim_side.value
    top_trim = fit.trim_height.value * (1 if framed else 2)
    layers = 2 if choice.double else 1
    for layer in range(layers):
        behind = choice.ledges_from - choice.panel_thickness
        z0 = behind + layer * choice.board_thickness
        x = leaf.inside.x0
        for at, cover in enumerate(covers):
            name = f"board {at + 1}" if layer == 0 else f"back board {at + 1}"
            face = Rect(x, 0.0, x + cover.value, y1)
            last = at == len(covers) - 1
            finished = Size(length.value, cover.value, choice.board_thickness)
            ends = end_trim * ((at == 0) + last)
            planed = Size(
                length.value + top_trim, cover.value + (0.0 if last else tongue) + ends, choice.board_thickness
            )
            board = PartSpec(
                name,
                Role.BOARD,
                face,
                (length, cover),
                sizes=(finished, planed),
                species=leaf.wood.panel.key,
                upright=True,
                depth=(z0, z0 + choice.board_thickness),
                at_hand=at < len(choice.measured),
                note="" if last or not tongue else "tongue outside the cover",
                is_back=layer > 0,
            ).made(ctx)
            tongued = bool(tongue) and not last
            third = choice.board_thickness / 3
            tongues = (block(face.x1, 0.0, face.x1 + tongue, y1, (z0 + third, z0 + 2 * third)),) if tongued else ()
            leaf.parts.append(replace(board, has_tongue=tongued, tongues=tongues))
            x += cover.value + leaf.gap.value
    if not choice.measured:
        leaf.dims += _board_dims(leaf, covers)


def _alike(leaf: BoardedLeaf) -> list[Figure]:
    """Add how many boards of one cover make the width, and what the ripped ones are; return each board's cover."""
    ctx, choice, f = leaf.ctx, leaf.choice, leaf.ctx.figures
    whole, cover, gap = ctx.figures["boards_width"], ctx.figures["board_cover"], leaf.gap
    pitch = f.total("board_pitch", "from board to board", plus(cover), plus(gap))
    count = board_count(width=whole.value + gap.value, cover=pitch.value, groove=leaf.groove.value)
    number = f.derived(
        "boards_count",
        "boards",
        count,
        whole,
        pitch,
        leaf.groove,
        formula="the fewest whose covers, less one groove, reach over the width",
        unit=Unit.COUNT,
    )
    if count == 1:
        end = f.total("board_end", "the one board", plus(whole))
        return [end]
    rest = whole.value - (count - 1) * pitch.value
    if choice.rip is Rip.LAST and rest >= SLIVER:  # a sliver cannot be ripped: then both ends share what is left
        end = f.derived(
            "board_end", "last board, ripped to", rest, whole, pitch, number, formula="width − (n − 1) × (cover + gap)"
        )
        return [cover] * (count - 1) + [end]
    each = equal_ends(width=whole.value + gap.value, cover=pitch.value, count=count) - gap.value
    end = f.derived(
        "board_end",
        "both end boards, ripped to",
        each,
        whole,
        pitch,
        number,
        gap,
        formula="(width + gap − (n − 2) × (cover + gap)) ÷ 2 − gap",
    )
    if abs(end.value - cover.value) < 1e-6:
        return [cover] * count
    return [end] + [cover] * (count - 2) + [end]


def _measured(leaf: BoardedLeaf) -> list[Figure]:
    """Add the boards as they were measured; the last one is ripped from what is left of the width."""
    ctx, f, gap = leaf.ctx, leaf.ctx.figures, leaf.gap
    boards = [
        f.given(
            figure_name(f"board_{at}"), f"board {at}, cover", each.width, Origin(edit=f"build.measured.{at - 1}.width")
        )
        for at, each in enumerate(leaf.choice.measured, start=1)
    ]
    whole = ctx.figures["boards_width"]
    last = len(boards) + 1
    alone = sum(each.value for each in boards) + gap.value * (len(boards) - 1)
    is_full = alone >= whole.value - checks.FULL  # no further board, and no gap before one
    laid = f.total(
        "boards_laid",
        "boards laid up, their gaps with them",
        *(plus(each) for each in boards),
        plus(gap, len(boards) - is_full),
    )
    if is_full:
        f.total("boards_over", "wider than the leaf, by", plus(laid), minus(whole))
        f.derived("boards_count", "boards", len(boards), whole, formula="as laid up", unit=Unit.COUNT)
        return boards
    rest = f.total(figure_name(f"board_{last}"), f"board {last}, what is left", plus(whole), minus(laid))
    f.derived("boards_count", "boards", last, whole, formula="as laid up, and the last one", unit=Unit.COUNT)
    return [*boards, rest]


def _board_dims(leaf: BoardedLeaf, covers: list[Figure]) -> list[Dim]:
    found, x = [], leaf.inside.x0
    for at, cover in enumerate(covers[:2]):
        found.append(Dim(x, x + cover.value, cover.name, f"part:board {at + 1}", False))
        x += cover.value + leaf.gap.value
    return found


# --- ledges and braces -------------------------------------------------------------------------------------


def _ledges(leaf: BoardedLeaf) -> list[Part]:
    """Place the ledges: near edges from foot and top, the others evenly between, ends in from the leaf's edges."""
    ctx, choice, f = leaf.ctx, leaf.choice, leaf.ctx.figures
    width = ctx.chosen("ledge_width", "ledge, width", choice.ledge_width, "build.ledge_width")
    low = ctx.chosen("ledge_foot", "lower ledge, up from the foot", choice.ledge_from_foot, "build.ledge_from_foot")
    high = ctx.chosen("ledge_top", "upper ledge, down from the top", choice.ledge_top, "build.ledge_top")
    if leaf.is_framed:
        length = f.total("ledge_length", "ledge, over its tenons", plus(f["rail_length"]))
        x0, x1 = leaf.inside.x0, leaf.inside.x1
    else:
        inset = ctx.chosen("ledge_in", "ledge ends, in from the edge", choice.ledge_inset, "build.ledge_inset")
        length = f.total("ledge_length", "ledge, length", plus(leaf.fit.width), minus(inset, 2))
        x0, x1 = inset.value, leaf.fit.width.value - inset.value
    first, last = low.value, leaf.fit.height.value - high.value - width.value
    if leaf.is_framed:  # its top rail is the uppermost ledge
        last = leaf.inside.y1 - width.value if choice.ledges > 2 else last
        places = [first] if choice.ledges == 2 else _spread(first, last, choice.ledges - 1, top=leaf.inside.y1)
    else:
        places = _spread(first, last, choice.ledges)
    z0 = choice.ledges_from
    names = _names(len(places))
    made = []
    for at, (name, y) in enumerate(zip(names, places, strict=True)):
        face = Rect(x0, y, x1, y + width.value)
        size = Size(length.value, width.value, choice.ledge_thickness)
        made.append(
            PartSpec(
                name,
                Role.LEDGE,
                face,
                (length, width),
                sizes=(size, size),
                species=leaf.wood.frame.key,
                upright=False,
                depth=(z0, z0 + choice.ledge_thickness),
                place=Place.LOWER if at == 0 else Place.UPPER if at == len(places) - 1 else None,
            ).made(ctx)
        )
        if leaf.is_framed:
            thick = min(f["tenon_thickness"].value, choice.ledge_thickness)  # bare-faced: one shoulder, at the back
            _ledge_tenons(leaf, name, face, (thick, f["tenon"].value), z0 + thick / 2)
    leaf.parts += made
    for each, figure in ((made[0], "ledge_foot"), (made[-1], "ledge_top")):
        span = (0.0, each.face.y0) if figure == "ledge_foot" else (each.face.y1, leaf.fit.height.value)
        if not (leaf.is_framed and figure == "ledge_top"):
            leaf.dims.append(Dim(*span, figure, f"part:{each.name}", True))
        leaf.dims.append(Dim(each.face.y0, each.face.y1, "ledge_width", f"part:{each.name}", True))
    return made


def _spread(first: float, last: float, count: int, *, top: float | None = None) -> list[float]:
    """Return evenly spaced places; with a top, those of a frame whose top rail stands in for the last."""
    if count == 1:
        return [first]
    if top is not None:
        return [first + at * (top - first) / count for at in range(count)]
    return [first + at * (last - first) / (count - 1) for at in range(count)]


def _names(count: int) -> list[str]:
    if count == 1:
        return ["lower ledge"]
    between = ["middle ledge"] if count == 3 else [f"ledge {at}" for at in range(2, count)]
    return ["lower ledge", *between, "upper ledge"]
