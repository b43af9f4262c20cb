"""Boarded leaves: boards that make the width, ledges that hold them, braces that carry the latch side.

Net of n boards = n·cover − groove, the tongue being outside the cover; the fewest boards that reach the leaf's width,
the end ones ripped alike: (leaf − (n − 2)·cover)/2. Sources: common practice of the trade; braces: `braces`.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace
from itertools import pairwise

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point, area
from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.boarded import checks
from oakmeasure.core.construction.boarded.fixings import fix_boards
from oakmeasure.core.construction.boarded.model import Boarded, BoardEdge, BoardedStyle, BraceEnds, Rip
from oakmeasure.core.construction.braces import (
    Brace,
    corner_brace,
    corner_shape,
    halves,
    pointed_brace,
    pointed_shape,
    stile_brace,
    stile_shape,
    turned_over,
)
from oakmeasure.core.construction.framed.joints import tenon_thickness
from oakmeasure.core.construction.spacing import board_count, equal_ends
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure, derived, given, minus, plus, total
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Dim, Fixing, Part, Rect, Size, Tenon
from oakmeasure.core.leaf.part_factory import add_thickness, around, part
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.movement import boards_movement
from oakmeasure.core.timber.wood import change_of_width

SLIVER = 10.0  # mm; nobody rips a board to less
GAP_STEP = 0.5  # to which the gap at fitting is set, as a card or a coin is


@dataclass(slots=True)
class _BoardedLeaf:
    """The leaf while it is being set out."""

    ctx: Context
    fit: Fit
    wood: Timber
    choice: Boarded
    groove: Figure
    gap: Figure
    inside: Rect
    """The rectangle that the boards fill."""
    parts: list[Part] = field(default_factory=list)
    tenons: list[Tenon] = field(default_factory=list)
    fixings: list[Fixing] = field(default_factory=list)
    dims: list[Dim] = field(default_factory=list)

    @property
    def is_framed(self) -> bool:
        return self.choice.style is BoardedStyle.FRAMED


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
    _braces(leaf, ledges)
    leaf.fixings += fix_boards(leaf.ctx, leaf.choice, leaf.parts, ledges)
    checks.judge(ctx, choice, fit, leaf.parts, ledges, leaf.fixings)
    boards_movement(ctx, wood, ctx.figures["board_cover"], leaf.groove if _is_tongued(choice) else None)
    order = {Role.STILE: 0, Role.RAIL: 1, Role.BOARD: 2, Role.LEDGE: 3, Role.BRACE: 4}
    real = [each for each in leaf.parts if min(each.finished.length, each.finished.width) > 0]
    parts = tuple(
        replace(each, mark=str(at)) for at, each in enumerate(sorted(real, key=lambda one: order[one.role]), start=1)
    )
    count = sum(each.role is Role.BOARD for each in parts)
    says = f"{choice.edge}; {choice.style}; {choice.fixed_by}"
    edge = choice.frame if leaf.is_framed else choice.panel_thickness
    return Build(
        width=fit.width.value,
        height=fit.height.value,
        thickness=choice.thickness,
        parts=parts,
        tenons=tuple(leaf.tenons),
        summary=f"{count} boards · {choice.style}",
        edge=edge,
        fixings=tuple(leaf.fixings),
        dims=tuple(leaf.dims),
        says=says,
    )


def _is_tongued(choice: Boarded) -> bool:
    return choice.edge is BoardEdge.TONGUED


def _set_out(ctx: Context, fit: Fit, wood: Timber, choice: Boarded) -> _BoardedLeaf:
    add = ctx.figures.add
    groove = add(
        given(
            "board_groove",
            "groove of a board",
            choice.groove if _is_tongued(choice) else 0.0,
            edit="build.groove",
            choice=True,
        )
    )
    cover = add(given("board_cover", "cover of a board", choice.cover, edit="build.cover", choice=True))
    gap = _gap(ctx, wood, cover, choice)
    w, h = fit.width.value, fit.height.value
    inside = Rect(0.0, 0.0, w, h)
    if choice.style is BoardedStyle.FRAMED:
        stile = ctx.chosen("stile", "stile", choice.stile, "build.stile")
        rail = ctx.chosen("top_rail", "top rail", choice.top_rail, "build.top_rail")
        add(total("boards_width", "between the stiles", plus(fit.width), minus(stile, 2)))
        add(total("boards_height", "under the top rail", plus(fit.height), minus(rail)))
        inside = Rect(stile.value, 0.0, w - stile.value, h - rail.value)
    else:
        add(total("boards_width", "boards, over all", plus(fit.width)))
        add(total("boards_height", "boards, length", plus(fit.height)))
    return _BoardedLeaf(ctx, fit, wood, choice, groove, gap, inside)


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
        Unit.MM,
        cover,
        wood.coefficient,
        wood.made,
        wood.wet,
        formula=f"cover × movement × points of moisture, to the full {ctx.fmt(GAP_STEP)} above",
    )


# --- the frame of a framed leaf ----------------------------------------------------------------------------


def _frame(leaf: _BoardedLeaf) -> None:
    ctx, fit, choice = leaf.ctx, leaf.fit, leaf.choice
    f, w, h, s = ctx.figures, fit.width.value, fit.height.value, choice.stile
    key = leaf.wood.frame.key
    thick = tenon_thickness(ctx, f["thickness"])
    share, step = ctx.rules.blind_share.value, ctx.rules.joint_step.value
    reach = math.floor(s * share / step + 1e-9) * step
    tenon = f.derived(
        "tenon", "tenon, blind", reach, Unit.MM, f["stile"], formula="its share of the stile, to the full step"
    )
    length = f.total("rail_length", "rail, over its tenons", plus(f["boards_width"]), plus(tenon, 2))
    for name, place, x0 in (("hinge stile", Place.HINGE, 0.0), ("latch stile", Place.LATCH, w - s)):
        rect = Rect(x0, 0, x0 + s, h)
        finished = Size(h, s, choice.frame)
        planed = Size(fit.glued_height.value, s + fit.trim_side.value, choice.frame)
        leaf.parts.append(
            part(
                ctx,
                name,
                Role.STILE,
                rect,
                (finished, planed),
                (fit.height, f["stile"]),
                species=key,
                upright=True,
                depth=(0.0, choice.frame),
                place=place,
            )
        )
    rect = Rect(s, h - choice.top_rail, w - s, h)
    finished = Size(length.value, choice.top_rail, choice.frame)
    planed = replace(finished, width=finished.width + fit.trim_height.value)
    leaf.parts.append(
        part(
            ctx,
            "top rail",
            Role.RAIL,
            rect,
            (finished, planed),
            (length, f["top_rail"]),
            species=key,
            upright=False,
            depth=(0.0, choice.frame),
            place=Place.TOP,
        )
    )
    _ledge_tenons(leaf, "top rail", rect, thick.value, reach)


def _ledge_tenons(leaf: _BoardedLeaf, name: str, rect: Rect, thickness: float, reach: float) -> None:
    for stile, x0, x1 in (("hinge stile", rect.x0 - reach, rect.x0), ("latch stile", rect.x1, rect.x1 + reach)):
        low, high = (rect.y0 + 6, rect.y1 - 6) if rect.height > 40 else (rect.y0, rect.y1)
        leaf.tenons.append(Tenon(name, stile, Rect(x0, low, x1, high), thickness, False))


# --- boards ------------------------------------------------------------------------------------------------


def _boards(leaf: _BoardedLeaf) -> None:
    covers = _measured(leaf) if leaf.choice.measured else _alike(leaf)
    ctx, choice, fit = leaf.ctx, leaf.choice, leaf.fit
    framed = leaf.is_framed
    length = ctx.figures["boards_height"]
    y1 = leaf.inside.y1
    tongue = leaf.groove.value
    end_trim = 0.0 if framed else fit.trim_side.value
    top_trim = fit.trim_height.value * (1 if framed else 2)
    layers = 2 if choice.double else 1
    for layer in range(layers):
        behind = choice.frame - choice.ledge_thickness - choice.board if framed else 0.0
        z0 = max(behind, 0.0) + layer * choice.board
        x = leaf.inside.x0
        for at, cover in enumerate(covers):
            name = f"board {at + 1}" if layer == 0 else f"back board {at + 1}"
            face = Rect(x, 0.0, x + cover.value, y1)
            last = at == len(covers) - 1
            finished = Size(length.value, cover.value, choice.board)
            ends = end_trim * ((at == 0) + last)
            planed = Size(length.value + top_trim, cover.value + (0.0 if last else tongue) + ends, choice.board)
            leaf.parts.append(
                part(
                    ctx,
                    name,
                    Role.BOARD,
                    face,
                    (finished, planed),
                    (length, cover),
                    species=leaf.wood.panel.key,
                    upright=True,
                    depth=(z0, z0 + choice.board),
                    at_hand=at < len(choice.measured),
                    note="" if last or not tongue else "tongue outside the cover",
                    is_back=layer > 0,
                )
            )
            x += cover.value + leaf.gap.value
    if not choice.measured:
        leaf.dims += _board_dims(leaf, covers)


def _alike(leaf: _BoardedLeaf) -> list[Figure]:
    """Add how many boards of one cover make the width, and what the ripped ones are; return each board's cover."""
    ctx, choice, add = leaf.ctx, leaf.choice, leaf.ctx.figures.add
    whole, cover, gap = ctx.figures["boards_width"], ctx.figures["board_cover"], leaf.gap
    pitch = add(total("board_pitch", "from board to board", plus(cover), plus(gap)))
    count = board_count(width=whole.value + gap.value, cover=pitch.value, groove=leaf.groove.value)
    number = add(
        derived(
            "boards_count",
            "boards",
            count,
            Unit.COUNT,
            whole,
            pitch,
            leaf.groove,
            formula="the fewest whose covers, less one groove, reach over the width",
        )
    )
    if count == 1:
        end = add(total("board_end", "the one board", plus(whole)))
        return [end]
    rest = whole.value - (count - 1) * pitch.value
    if choice.rip is Rip.LAST and rest >= SLIVER:  # a sliver cannot be ripped: then both ends share what is left
        end = add(
            derived(
                "board_end",
                "last board, ripped to",
                rest,
                Unit.MM,
                whole,
                pitch,
                number,
                formula="width − (n − 1) × (cover + gap)",
            )
        )
        return [cover] * (count - 1) + [end]
    each = equal_ends(width=whole.value + gap.value, cover=pitch.value, count=count) - gap.value
    end = add(
        derived(
            "board_end",
            "both end boards, ripped to",
            each,
            Unit.MM,
            whole,
            pitch,
            number,
            gap,
            formula="(width + gap − (n − 2) × (cover + gap)) ÷ 2 − gap",
        )
    )
    if abs(end.value - cover.value) < 1e-6:
        return [cover] * count
    return [end] + [cover] * (count - 2) + [end]


def _measured(leaf: _BoardedLeaf) -> list[Figure]:
    """Add the boards as they were measured; the last one is ripped from what is left of the width."""
    ctx, add, gap = leaf.ctx, leaf.ctx.figures.add, leaf.gap
    boards = [
        add(given(figure_name(f"board_{at}"), f"board {at}, cover", each.width, edit=f"build.measured.{at - 1}.width"))
        for at, each in enumerate(leaf.choice.measured, start=1)
    ]
    whole = ctx.figures["boards_width"]
    last = len(boards) + 1
    alone = sum(each.value for each in boards) + gap.value * (len(boards) - 1)
    is_full = alone >= whole.value - checks.FULL  # no further board, and no gap before one
    laid = add(
        total(
            "boards_laid",
            "boards laid up, their gaps with them",
            *(plus(each) for each in boards),
            plus(gap, len(boards) - is_full),
        )
    )
    if is_full:
        add(total("boards_over", "wider than the leaf, by", plus(laid), minus(whole)))
        add(derived("boards_count", "boards", len(boards), Unit.COUNT, whole, formula="as laid up"))
        return boards
    rest = add(total(figure_name(f"board_{last}"), f"board {last}, what is left", plus(whole), minus(laid)))
    add(derived("boards_count", "boards", last, Unit.COUNT, whole, formula="as laid up, and the last one"))
    return [*boards, rest]


def _board_dims(leaf: _BoardedLeaf, covers: list[Figure]) -> list[Dim]:
    found, x = [], leaf.inside.x0
    for at, cover in enumerate(covers[:2]):
        found.append(Dim(x, x + cover.value, cover.name, f"part:board {at + 1}", False))
        x += cover.value + leaf.gap.value
    return found


# --- ledges and braces -------------------------------------------------------------------------------------


def _ledges(leaf: _BoardedLeaf) -> list[Part]:
    """Place the ledges: near edges from foot and top, the others evenly between, ends in from the leaf's edges."""
    ctx, choice, add, f = leaf.ctx, leaf.choice, leaf.ctx.figures.add, leaf.ctx.figures
    width = ctx.chosen("ledge_width", "ledge, width", choice.ledge_width, "build.ledge_width")
    low = ctx.chosen("ledge_foot", "lower ledge, up from the foot", choice.ledge_foot, "build.ledge_foot")
    high = ctx.chosen("ledge_top", "upper ledge, down from the top", choice.ledge_top, "build.ledge_top")
    if leaf.is_framed:
        length = add(total("ledge_length", "ledge, over its tenons", plus(f["rail_length"])))
        x0, x1 = leaf.inside.x0, leaf.inside.x1
    else:
        inset = ctx.chosen("ledge_in", "ledge ends, in from the edge", choice.ledge_in, "build.ledge_in")
        length = add(total("ledge_length", "ledge, length", plus(leaf.fit.width), minus(inset, 2)))
        x0, x1 = inset.value, leaf.fit.width.value - inset.value
    first, last = low.value, leaf.fit.height.value - high.value - width.value
    if leaf.is_framed:  # its top rail is the uppermost ledge
        last = leaf.inside.y1 - width.value if choice.ledges > 2 else last
        places = [first] if choice.ledges == 2 else _spread(first, last, choice.ledges - 1, top=leaf.inside.y1)
    else:
        places = _spread(first, last, choice.ledges)
    z0 = choice.frame - choice.ledge_thickness if leaf.is_framed else choice.panel_thickness
    names = _names(len(places))
    made = []
    for at, (name, y) in enumerate(zip(names, places, strict=True)):
        face = Rect(x0, y, x1, y + width.value)
        size = Size(length.value, width.value, choice.ledge_thickness)
        made.append(
            part(
                ctx,
                name,
                Role.LEDGE,
                face,
                (size, size),
                (length, width),
                species=leaf.wood.frame.key,
                upright=False,
                depth=(z0, z0 + choice.ledge_thickness),
                place=Place.LOWER if at == 0 else Place.UPPER if at == len(places) - 1 else None,
            )
        )
        if leaf.is_framed:
            _ledge_tenons(leaf, name, face, f["tenon_thickness"].value, f["tenon"].value)
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


def _braces(leaf: _BoardedLeaf, ledges: list[Part]) -> None:
    """Add the braces of every field between two ledges: the foot at the hinge side, on the lower one."""
    if leaf.choice.style is BoardedStyle.LEDGED:
        return
    fields = [Rect(low.face.x0, low.face.y1, low.face.x1, high.face.y0) for low, high in pairwise(ledges)]
    if leaf.is_framed:
        fields.append(Rect(leaf.inside.x0, ledges[-1].face.y1, leaf.inside.x1, leaf.inside.y1))
    where = (
        [""]
        if len(fields) == 1
        else ["lower ", "upper "]
        if len(fields) == 2
        else [f"{at}. " for at in range(1, len(fields) + 1)]
    )
    width = leaf.ctx.chosen("brace_width", "brace, width", leaf.choice.brace_width, "build.brace_width")
    for prefix, inside in zip(where, fields, strict=True):
        if inside.height <= 0 or inside.width <= 0:
            continue
        _brace(leaf, prefix, inside, width)


def _brace(leaf: _BoardedLeaf, prefix: str, inside: Rect, width: Figure) -> None:
    ctx, choice, add = leaf.ctx, leaf.choice, leaf.ctx.figures.add
    slug = prefix.strip().rstrip(".")
    tail = f"_{slug}" if slug else ""
    base = add(given(figure_name(f"field_width{tail}"), f"{prefix}field, clear width", inside.width, choice=True))
    height = add(given(figure_name(f"field_height{tail}"), f"{prefix}field, clear height", inside.height, choice=True))
    crossed = choice.style is BoardedStyle.X
    ends = BraceEnds.POINTED if crossed else choice.brace_ends
    if ends is BraceEnds.STILES and not leaf.is_framed:
        checks.say_no_stiles(ctx, prefix)
        ends = BraceEnds.CORNER
    box = (inside.x0, inside.y0, inside.x1, inside.y1)
    try:
        brace, shape = _set_brace(ends, box, width.value)
    except InputError as error:
        checks.say_no_brace(ctx, prefix, inside, width, error)
        return
    length = _brace_figures(ctx, prefix, tail, brace, (base, height, width), ends)
    _brace_part(leaf, f"{prefix}brace", shape, length, width, brace)
    if crossed:
        other = turned_over(shape, inside.x0, inside.x1)
        if choice.half_lapped:
            _brace_part(leaf, f"{prefix}crossing brace", other, length, width, brace)
        else:
            _halved(leaf, prefix, tail, halves(other, shape), width, brace)
    checks.say_round(ctx, choice, prefix, inside, brace, ends)


def _set_brace(
    ends: BraceEnds, box: tuple[float, float, float, float], width: float
) -> tuple[Brace, tuple[Point, ...]]:
    """Return a brace in its field, and its corners. Raises InputError where it does not go in."""
    base, height = box[2] - box[0], box[3] - box[1]
    if ends is BraceEnds.STILES:
        return stile_brace(base=base, height=height, width=width), stile_shape(*box, width)
    corner = corner_brace(base=base, height=height, width=width)  # a pointed one must fit the same field
    if ends is BraceEnds.POINTED:
        return pointed_brace(base=base, height=height), pointed_shape(*box, width)
    return corner, corner_shape(*box, width)


def _brace_figures(
    ctx: Context, prefix: str, tail: str, brace: Brace, inputs: tuple[Figure, Figure, Figure], ends: BraceEnds
) -> Figure:
    add = ctx.figures.add
    how = {
        BraceEnds.POINTED: "atan(h ÷ b)",
        BraceEnds.CORNER: "atan(h ÷ b) + asin(width ÷ √(b² + h²))",
        BraceEnds.STILES: "atan(h ÷ b) − asin(width ÷ √(b² + h²))",
    }
    angle = add(
        derived(
            figure_name(f"brace_angle{tail}"),
            f"{prefix}brace, from the level",
            brace.angle_deg,
            Unit.DEG,
            *inputs,
            formula=how[ends],
        )
    )
    if ends is BraceEnds.POINTED:
        return add(
            derived(
                figure_name(f"brace_blank{tail}"),
                f"{prefix}brace, tip to tip",
                brace.blank,
                Unit.MM,
                *inputs[:2],
                formula="√(b² + h²)",
            )
        )
    on_stiles = ends is BraceEnds.STILES
    edge = add(
        derived(
            figure_name(f"brace_edge{tail}"),
            f"{prefix}brace, each long edge",
            brace.edge,
            Unit.MM,
            inputs[0] if on_stiles else inputs[1],
            angle,
            formula="b ÷ cos α" if on_stiles else "h ÷ sin α",
        )
    )
    more = "edge + width × tan α" if on_stiles else "h ÷ sin α + width ÷ tan α"
    return add(
        derived(
            figure_name(f"brace_blank{tail}"),
            f"{prefix}brace, blank",
            brace.blank,
            Unit.MM,
            edge,
            inputs[2],
            angle,
            formula=more,
        )
    )


def _brace_part(
    leaf: _BoardedLeaf, name: str, shape: tuple[Point, ...], length: Figure, width: Figure, brace: Brace
) -> None:
    choice = leaf.choice
    size = Size(length.value, width.value, choice.ledge_thickness)
    z0 = choice.frame - choice.ledge_thickness if leaf.is_framed else choice.panel_thickness
    note = f"ends cut at {leaf.ctx.show.value(brace.angle_deg, Unit.DEG)}"
    leaf.parts.append(
        part(
            leaf.ctx,
            name,
            Role.BRACE,
            around(shape),
            (size, size),
            (length, width),
            species=leaf.wood.frame.key,
            upright=False,
            depth=(z0, z0 + choice.ledge_thickness),
            shape=shape,
            volume=area(shape) * choice.ledge_thickness,
            note=note,
        )
    )


def _halved(
    leaf: _BoardedLeaf, prefix: str, tail: str, pieces: list[tuple[Point, ...]], width: Figure, brace: Brace
) -> None:
    """Add the crossing brace in two pieces that meet the whole one."""
    crossing = math.sin(math.radians(2 * brace.angle_deg))
    lost = width.value / crossing if crossing > 0 else 0.0
    half = leaf.ctx.figures.derived(
        figure_name(f"brace_half{tail}"),
        f"{prefix}crossing brace, each half along its middle",
        (brace.blank - lost) / 2,
        Unit.MM,
        leaf.ctx.figures[figure_name(f"brace_blank{tail}")],
        width,
        formula="(tip to tip − width ÷ sin 2α) ÷ 2",
    )
    over = width.value / 2 * abs(math.cos(math.radians(2 * brace.angle_deg))) / max(crossing, 0.05)
    longest = leaf.ctx.figures.derived(
        figure_name(f"brace_half_longest{tail}"),
        f"{prefix}crossing brace, each half along its longer edge",
        half.value + over,
        Unit.MM,
        half,
        width,
        formula="middle + width ÷ 2 × cos 2α ÷ sin 2α",
    )
    for name, shape in zip(("lower", "upper"), pieces, strict=True):
        size = Size(longest.value, width.value, leaf.choice.ledge_thickness)
        z0 = leaf.choice.panel_thickness
        note = f"ends cut at {leaf.ctx.show.value(brace.angle_deg, Unit.DEG)}, one against the whole brace"
        leaf.parts.append(
            part(
                leaf.ctx,
                f"{prefix}crossing brace, {name} half",
                Role.BRACE,
                around(shape),
                (size, size),
                (longest, width),
                species=leaf.wood.frame.key,
                upright=False,
                depth=(z0, z0 + leaf.choice.ledge_thickness),
                shape=shape,
                volume=area(shape) * leaf.choice.ledge_thickness,
                note=note,
            )
        )


def inputs(ctx: Context) -> None:
    """Add what other stages need before the leaf is built: its thickness at its edges, and over all.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Boarded)
    at_edge = choice.frame if choice.style is BoardedStyle.FRAMED else choice.panel_thickness
    edit = "build.frame" if choice.style is BoardedStyle.FRAMED else "build.board"
    add_thickness(ctx, at_edge, choice.thickness, edit)
