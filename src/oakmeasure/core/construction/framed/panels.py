"""What stands in the fields of a frame: panels in grooves, flat or raised, boards, glass in its rebate.

panel = sight + 2·(groove − room), the groove counted from the sight edge, the room from the panel's movement.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from oakmeasure.core.base.geometry import Point, field_grown
from oakmeasure.core.construction.arch import under
from oakmeasure.core.construction.framed import checks
from oakmeasure.core.construction.framed.layout import FieldColumn, Fields, PanelAcross
from oakmeasure.core.construction.framed.model import Framed, Infill
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.figure import FIXED, Figure, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Hold, Part, Rect, Size
from oakmeasure.core.leaf.part_factory import rough
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.wood import change_of_width

# Of a glazed field, and round its pane: common practice, no source
REBATE = 12.0
GLASS_CLEARANCE = 3.0
BOARD_COVER = 95.0  # of the boards in a field, at most: common practice, no source


@dataclass(frozen=True, slots=True)
class FieldFilling:
    """What every field of a frame is filled by."""

    ctx: Context
    """The leaf's context: its choices are read, its figures and checks added to."""
    wood: Timber
    """Species, and moisture as made, at the driest and at the wettest."""
    choice: Framed
    """What is chosen for the frame."""
    groove: Figure
    """Depth of the panel groove, mm."""


def fill(by: FieldFilling, rows: tuple[Fields, ...], arch: tuple[Point, ...]) -> list[Part]:
    """Return what fills every field, its figures added and judged.

    Args:
        by: What they are filled by.
        rows: Fields of each row, from the foot up.
        arch: Lower edge of the top rail as points, mm; () where it is straight.
    """
    ctx, groove = by.ctx, by.groove
    made: list[Part] = []
    known: dict[str, PanelAcross] = {}
    sights = {column.sight.name for row in rows if row.infill is not Infill.GLASS for column in row.columns}
    judged = False
    for row in rows:
        edge = arch if row.above == "top rail" else ()
        if row.infill is Infill.GLASS:
            made += _panes(by, row, edge)
            continue
        length = _length(ctx, row, groove)
        for column in row.columns:
            name = column.sight.name
            if name not in known:
                tail = "" if len(sights) == 1 else name.removeprefix("sight_width")
                known[name] = _across(ctx, by.wood, column.sight, groove, tail)
            made.append(_panel(by, row, column, known[name], length, edge))
        if not judged and row.columns:
            judged = True
            worst = min(known.values(), key=lambda each: each.hold.value)
            checks.judge_panels(ctx, by.choice, worst, groove)
    return made


def _across(ctx: Context, wood: Timber, sight: Figure, groove: Figure, tail: str) -> PanelAcross:
    """Add how wide a panel may be: free in its grooves at the wettest, still held at the driest."""
    f, clearance = ctx.figures, ctx.rule("panel_clearance", "clearance of a panel")
    whole = f.total(
        figure_name(f"panel_widest{tail}"), "panel to the bottoms of its grooves", plus(sight), plus(groove, 2)
    )
    swell = _moves(ctx, wood, f"swell{tail}", "swells, at the wettest", whole, wood.wet)
    room = f.total(
        figure_name(f"panel_room{tail}"), "room in each groove, across the grain", plus(swell, 0.5), plus(clearance)
    )
    width = f.total(figure_name(f"panel_width{tail}"), "panel, width", plus(sight), plus(groove, 2), minus(room, 2))
    shrink = _moves(ctx, wood, f"shrink{tail}", "shrinks, at the driest", width, wood.dry)
    hold = f.total(
        figure_name(f"panel_hold{tail}"), "panel held, at the driest", plus(groove), minus(room), minus(shrink, 0.5)
    )
    return PanelAcross(width, room, hold, swell, shrink, whole)


def _moves(ctx: Context, wood: Timber, key: str, words: str, across: Figure, air: Figure) -> Figure:
    """Add how much a panel swells or shrinks from the moisture it is made at to that of the air; never less than 0."""
    change = change_of_width(
        width=across.value,
        coefficient=wood.panel_coefficient.value,
        from_moisture=wood.made.value,
        to_moisture=air.value,
    )
    value = max(0.0, change if key.startswith("swell") else -change)
    return ctx.figures.derived(
        figure_name(f"panel_{key}"),
        f"panel {words}, by",
        value,
        across,
        wood.panel_coefficient,
        wood.made,
        air,
        formula="width × movement × points of moisture",
    )


def _length(ctx: Context, row: Fields, groove: Figure) -> Figure:
    clearance = ctx.rule("panel_clearance", "clearance of a panel")
    return ctx.figures.total(
        figure_name(f"{row.slug or 'whole'}_panel_length"),
        f"{row.name}panel, length".strip(),
        plus(row.sight),
        plus(groove, 2),
        minus(clearance, 2),
    )


def _panel(
    by: FieldFilling, row: Fields, column: FieldColumn, across: PanelAcross, length: Figure, arch: tuple[Point, ...]
) -> Part:
    ctx, choice, groove = by.ctx, by.choice, by.groove
    clearance = ctx.rules.panel_clearance.value
    face = Rect(column.x0, row.y0, column.x1, row.y1)
    reach_x, reach_y = groove.value - across.room.value, groove.value - clearance
    outline = Rect(face.x0 - reach_x, face.y0 - reach_y, face.x1 + reach_x, face.y1 + reach_y)
    thick = choice.field_thickness if row.infill is Infill.RAISED else choice.panel_thickness
    finished = Size(length.value, across.width.value, thick)
    shape = _shape(face, arch)
    if shape:
        length = _arched(ctx, f"{row.name}{column.name}panel", shape, (reach_x, reach_y), length)
        finished = replace(finished, length=length.value)
    boards = max(1, math.ceil(finished.width / BOARD_COVER - 1e-9)) if row.infill is Infill.BOARDS else 1
    fielded = choice.fielding if row.infill is Infill.RAISED else 0.0
    return Part(
        f"{row.name}{column.name}panel",
        Role.PANEL,
        face,
        outline,
        True,
        by.wood.panel.key,
        finished,
        finished,
        rough(ctx, finished),
        length,
        across.width,
        shape=shape,
        note=_note(ctx, choice, finished, boards, fielded, bool(shape)),
        boards=boards,
        fielded=fielded,
        sloped=max(choice.field_thickness - choice.panel_thickness, 0.0) if fielded else 0.0,
        hold=_held(by, choice.panel_thickness, across.room.value, clearance),
    )


def _arched(ctx: Context, name: str, shape: tuple[Point, ...], reach: tuple[float, float], length: Figure) -> Figure:
    """Return how long a panel or a pane under an arch is: to the highest of it, its edges in their grooves."""
    ys = [y for _, y in field_grown(shape, *reach)]
    slug = name.replace(" ", "_").replace("-", "_")
    return ctx.figures.derived(
        ctx.figures.unused(f"{slug}_arched"),
        f"{name}, to the highest of its head",
        max(ys) - min(ys),
        length,
        ctx.figures["arch_radius"],
        formula="the arch over its place, and what the grooves take",
    )


def _held(by: FieldFilling, thick: float, aside: float, along: float) -> Hold:
    """Return a groove in mid-thickness; thick: its width; aside, along: from the panel to its bottom, mm."""
    middle = by.ctx.figures["thickness"].value / 2
    return Hold((middle - thick / 2, middle + thick / 2), (aside, along))


def _note(ctx: Context, choice: Framed, size: Size, boards: int, fielded: float, arched: bool) -> str:
    words = []
    if fielded:
        words.append(f"fielded {ctx.fmt(fielded)} to {ctx.fmt(choice.panel_thickness)}")
    if boards > 1:
        words.append(f"{boards} tongued boards of {ctx.fmt(size.width / boards)}")
    if arched:
        words.append("top cut to the arch")
    return ", ".join(words)


def _shape(face: Rect, arch: tuple[Point, ...]) -> tuple[Point, ...]:
    """Return the corners of a field under an arch; () where its top is level."""
    if not arch:
        return ()
    return (face.x0, face.y0), (face.x1, face.y0), *under(arch, face.x0, face.x1)


def _panes(by: FieldFilling, row: Fields, arch: tuple[Point, ...]) -> list[Part]:
    """Add a pane for every field of a row: sight and its rebates, less the clearance all round."""
    ctx, choice, f = by.ctx, by.choice, by.ctx.figures
    rebate = ctx.figures.get("glass_rebate") or f.given("glass_rebate", "rebate for the glass", REBATE, FIXED)
    clear = ctx.figures.get("glass_clearance") or f.given(
        "glass_clearance", "clearance round the glass", GLASS_CLEARANCE, FIXED
    )
    height = f.total(
        figure_name(f"{row.slug or 'whole'}_glass_height"),
        f"{row.name}pane, height".strip(),
        plus(row.sight),
        plus(rebate, 2),
        minus(clear, 2),
    )
    made = []
    for column in row.columns:
        name = f"{row.name}{column.name}pane"
        width = f.total(
            figure_name(name.replace(" ", "_").replace("-", "_") + "_width"),
            f"{name}, width",
            plus(column.sight),
            plus(rebate, 2),
            minus(clear, 2),
        )
        face = Rect(column.x0, row.y0, column.x1, row.y1)
        reach = REBATE - GLASS_CLEARANCE
        outline = Rect(face.x0 - reach, face.y0 - reach, face.x1 + reach, face.y1 + reach)
        shape, tall = _shape(face, arch), height
        if shape:
            tall = _arched(ctx, name, shape, (reach, reach), height)
        size = Size(tall.value, width.value, choice.glass_thickness)
        made.append(
            Part(
                name,
                Role.PANEL,
                face,
                outline,
                True,
                "glass",
                size,
                size,
                size,
                tall,
                width,
                shape=shape,
                note="beads all round, no glass against wood",
                hold=_held(by, size.thickness, GLASS_CLEARANCE, GLASS_CLEARANCE),
            )
        )
    if made:
        checks.say_glass(ctx, made[0])
    return made
