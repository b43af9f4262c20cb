"""Framed and panelled: stiles full height, rails tenoned between them, muntins between the rails, flat panels.

Arithmetic: shoulder = leaf − 2·stile; rail = shoulder + 2·tenon; panel = sight + 2·(groove − room), the groove
counted from the sight edge, the room from the panel's movement. Sources: common practice of the trade.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace

from oakmeasure.core.build import framed_checks as checks
from oakmeasure.core.build.joints import RailJoint, rail_tenons, tenon_thickness
from oakmeasure.core.build.shape import Build, Part, Rect, Role, Size, Tenon
from oakmeasure.core.context import Context
from oakmeasure.core.fit.shape import Fit
from oakmeasure.core.job import Framed, TenonKind
from oakmeasure.core.timber.choice import Timber, frame_movement
from oakmeasure.core.timber.wood import change_of_width
from oakmeasure.core.units import Unit
from oakmeasure.core.working import Figure, derived, given, minus, plus, total


@dataclass(slots=True)
class _Frame:
    """The setting-out while the leaf is being worked out."""

    ctx: Context
    fit: Fit
    wood: Timber
    choice: Framed
    groove: Figure
    stile: Figure
    thickness: Figure
    tenon_thick: Figure
    tenon: Figure
    shoulder: Figure
    rail_length: Figure
    rails: dict[str, Rect] = field(default_factory=dict)
    rail_widths: dict[str, Figure] = field(default_factory=dict)
    tenons: list[Tenon] = field(default_factory=list)
    parts: list[Part] = field(default_factory=list)

    def rough(self, planed: Size, *, length: float | None = None) -> Size:
        rules = self.ctx.rules
        return Size(
            length if length is not None else planed.length + rules.allow_length.value,
            planed.width + rules.allow_width.value,
            planed.thickness + rules.allow_thickness.value,
        )


def build(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the framed leaf; what cannot be made is said by verdicts, and the rest is still set out."""
    frame = _set_out(ctx, fit, wood)
    _rails(frame)
    rows = _rows(frame)
    columns = _columns(frame)
    for rail in frame.rails:
        _rail_part(frame, rail, len(columns))
    sights = [Rect(x0, y0, x1, y1) for _, y0, y1 in rows for _, x0, x1 in columns]
    _stiles(frame, rows)
    if frame.choice.muntin is not None:
        for row in rows:
            _muntin(frame, row)
    if rows and columns:
        _panels(frame, rows, columns)
    checks.judge(ctx, frame.choice, fit, frame.rails, rows, columns, frame.shoulder, frame.tenon, frame.groove)
    frame_movement(ctx, wood, frame.stile, ctx.figures["gap_latch"])
    panels = len(rows) * len(columns)
    summary = f"{ctx.show.length(frame.choice.thickness, sign=False)} thick · {panels} panel{'s' * (panels != 1)}"
    order = {Role.STILE: 0, Role.RAIL: 1, Role.MUNTIN: 2, Role.PANEL: 3}
    ordered = sorted(frame.parts, key=lambda each: order[each.role])
    # What a stop verdict speaks of (stiles that meet, say) can leave parts of no size: they are not cut.
    real = [part for part in ordered if min(part.finished.length, part.finished.width) > 0]
    parts = tuple(replace(part, mark=str(at), volume=max(part.volume, 0.0)) for at, part in enumerate(real, start=1))
    return Build(
        fit.width.value,
        fit.height.value,
        frame.choice.thickness,
        parts,
        tuple(frame.tenons),
        tuple(sights),
        frame.groove.value,
        frame.choice.panel_thickness,
        frame.tenon_thick.value,
        summary,
    )


def _set_out(ctx: Context, fit: Fit, wood: Timber) -> _Frame:
    choice, add = ctx.leaf.build, ctx.figures.add
    stile = ctx.chosen("stile", "stile", choice.stile, "build.stile")
    thickness = ctx.figures["thickness"]
    groove = ctx.chosen("groove_depth", "groove", choice.groove_depth, "build.groove_depth")
    thick = tenon_thickness(ctx, thickness)
    shoulder = add(total("shoulder", "rail, between shoulders", plus(fit.width), minus(stile, 2)))
    if choice.tenon is TenonKind.THROUGH:
        tenon = add(total("tenon", "tenon, through the stile", plus(stile)))
    else:
        share, step = (
            ctx.rule("blind_share", "blind tenon's share of the stile", Unit.RATIO),
            ctx.rule("joint_step", "joints are set out to"),
        )
        value = math.floor(stile.value * share.value / step.value + 1e-9) * step.value
        tenon = add(
            derived(
                "tenon",
                "tenon, blind",
                value,
                Unit.MM,
                stile,
                share,
                step,
                formula="its share of the stile, to the full step below",
            )
        )
    rail_length = add(total("rail_length", "rail, over its tenons", plus(shoulder), plus(tenon, 2)))
    return _Frame(ctx, fit, wood, choice, groove, stile, thickness, thick, tenon, shoulder, rail_length)


def _rails(frame: _Frame) -> None:
    """Place the rails: bottom and top at the ends, the middle one centred on the lock."""
    ctx, choice, height = frame.ctx, frame.choice, frame.fit.height
    x0, x1 = frame.stile.value, frame.fit.width.value - frame.stile.value

    def rail(name: str, width: float, y0: float) -> None:
        slug = name.replace(" ", "_")
        frame.rail_widths[name] = ctx.chosen(slug, name, width, f"build.{slug}")
        frame.rails[name] = Rect(x0, y0, x1, y0 + width)

    rail("top rail", choice.top_rail, height.value - choice.top_rail)
    if choice.middle_rail is not None:
        lock = ctx.chosen("lock_height", "lock above the floor", choice.lock_height, "build.lock_height")
        centre = ctx.figures.add(
            total(
                "middle_rail_centre", "middle rail's centre, up the leaf", plus(lock), minus(ctx.figures["gap_floor"])
            )
        )
        rail("middle rail", choice.middle_rail, centre.value - choice.middle_rail / 2)
    rail("bottom rail", choice.bottom_rail, 0.0)


Span = tuple[str, float, float]  # name, from, to


def _rows(frame: _Frame) -> list[Span]:
    """Return the sight openings up the leaf, lowest first; those that overlapping rails leave none are dropped."""
    ctx, rails = frame.ctx, frame.rails
    top, bottom, middle = rails["top rail"], rails["bottom rail"], rails.get("middle rail")
    if middle is None:
        spans: list[Span] = [("", bottom.y1, top.y0)]
    else:
        spans = [("lower ", bottom.y1, middle.y0), ("upper ", middle.y1, top.y0)]
        half = frame.rail_widths["middle rail"]
        centre = ctx.figures["middle_rail_centre"]
        ctx.figures.add(
            total(
                "sight_height_lower",
                "lower panels, sight height",
                plus(centre),
                minus(half, 0.5),
                minus(frame.rail_widths["bottom rail"]),
            )
        )
        ctx.figures.add(
            total(
                "sight_height_upper",
                "upper panels, sight height",
                plus(frame.fit.height),
                minus(centre),
                minus(half, 0.5),
                minus(frame.rail_widths["top rail"]),
            )
        )
    if middle is None:
        ctx.figures.add(
            total(
                "sight_height",
                "panels, sight height",
                plus(frame.fit.height),
                minus(frame.rail_widths["top rail"]),
                minus(frame.rail_widths["bottom rail"]),
            )
        )
    return [(name, y0, y1) for name, y0, y1 in spans if y1 > y0]


def _columns(frame: _Frame) -> list[Span]:
    """Return the sight openings across the leaf, from the hinge side."""
    ctx = frame.ctx
    x0, x1 = frame.stile.value, frame.fit.width.value - frame.stile.value
    if frame.choice.muntin is None:
        ctx.figures.add(total("sight_width", "panels, sight width", plus(frame.shoulder)))
        return [("", x0, x1)] if x1 > x0 else []
    muntin = ctx.chosen("muntin", "muntin", frame.choice.muntin, "build.muntin")
    sight = ctx.figures.add(total("sight_width", "panels, sight width", plus(frame.shoulder, 0.5), minus(muntin, 0.5)))
    if sight.value <= 0:
        return []
    return [("hinge-side ", x0, x0 + sight.value), ("latch-side ", x1 - sight.value, x1)]


def _rail_part(frame: _Frame, name: str, columns: int) -> None:
    rect, width = frame.rails[name], frame.rail_widths[name]
    end = "top" if name == "top rail" else "bottom" if name == "bottom rail" else ""
    joint = RailJoint(
        name,
        rect,
        end,
        frame.groove.value,
        frame.tenon.value,
        frame.tenon_thick.value,
        frame.choice.tenon is TenonKind.THROUGH,
    )
    mine = rail_tenons(frame.ctx, joint, frame.fit.width.value)
    frame.tenons += mine
    trim = frame.fit.trim_height.value if end else 0.0
    # A through tenon is cut to the stile as glued up, and planed off with it.
    past = frame.fit.trim_side.value if joint.through else 0.0
    finished = Size(frame.rail_length.value, width.value, frame.thickness.value)
    planed = Size(finished.length + 2 * past, width.value + trim, finished.thickness)
    grooved = 1 if end else 2
    open_length = max(rect.width - (columns - 1) * (frame.choice.muntin or 0.0), 0.0)
    volume = (
        rect.width * rect.height * finished.thickness
        + sum(each.volume for each in mine)
        - (grooved * open_length * frame.groove.value * frame.choice.panel_thickness)
    )
    reach = frame.tenon.value
    frame.parts.append(
        Part(
            name,
            Role.RAIL,
            rect,
            Rect(rect.x0 - reach, rect.y0, rect.x1 + reach, rect.y1),
            False,
            frame.wood.frame.key,
            finished,
            planed,
            frame.rough(planed),
            frame.rail_length,
            width,
            volume,
        )
    )


def _stiles(frame: _Frame, rows: list[Span]) -> None:
    fit, rules = frame.fit, frame.ctx.rules
    w, h, s = fit.width.value, fit.height.value, frame.stile.value
    finished = Size(h, s, frame.thickness.value)
    planed = Size(fit.glued_height.value, s + fit.trim_side.value, finished.thickness)
    rough = frame.rough(planed, length=planed.length + 2 * rules.horn.value)
    groove = sum(y1 - y0 for _, y0, y1 in rows) * frame.groove.value * frame.choice.panel_thickness
    for name, x0 in (("hinge stile", 0.0), ("latch stile", w - s)):
        mortises = sum(each.volume for each in frame.tenons if each.into == name)
        rect = Rect(x0, 0, x0 + s, h)
        frame.parts.append(
            Part(
                name,
                Role.STILE,
                rect,
                rect,
                True,
                frame.wood.frame.key,
                finished,
                planed,
                rough,
                fit.height,
                frame.stile,
                h * s * finished.thickness - mortises - groove,
            )
        )


def _muntin(frame: _Frame, row: Span) -> None:
    ctx, muntin = frame.ctx, frame.ctx.figures["muntin"]
    prefix, y0, y1 = row
    name = f"{prefix}muntin"
    stub = ctx.rule("muntin_tenon", "muntin's tenon")
    sight = ctx.figures[f"sight_height_{prefix.strip()}" if prefix else "sight_height"]
    length = ctx.figures.add(
        total(f"{name.replace(' ', '_')}_length", f"{name}, over its tenons", plus(sight), plus(stub, 2))
    )
    centre = frame.fit.width.value / 2
    rect = Rect(centre - muntin.value / 2, y0, centre + muntin.value / 2, y1)
    below = "bottom rail" if prefix != "upper " else "middle rail"
    above = "top rail" if prefix != "lower " else "middle rail"
    inset = min(frame.groove.value, muntin.value / 2 - 1)
    x0, x1, thick = rect.x0 + inset, rect.x1 - inset, frame.tenon_thick.value
    ends = (
        Tenon(name, below, Rect(x0, y0 - stub.value, x1, y0), thick, False),
        Tenon(name, above, Rect(x0, y1, x1, y1 + stub.value), thick, False),
    )
    frame.tenons += ends
    finished = Size(length.value, muntin.value, frame.thickness.value)
    groove = 2 * (y1 - y0) * frame.groove.value * frame.choice.panel_thickness
    volume = rect.width * rect.height * finished.thickness + sum(each.volume for each in ends) - groove
    for at, part in enumerate(frame.parts):  # the rails lose what the muntin's mortises take
        taken = sum(each.volume for each in ends if each.into == part.name)
        if taken:
            frame.parts[at] = _lighter(part, taken)
    frame.parts.append(
        Part(
            name,
            Role.MUNTIN,
            rect,
            Rect(rect.x0, y0 - stub.value, rect.x1, y1 + stub.value),
            True,
            frame.wood.frame.key,
            finished,
            finished,
            frame.rough(finished),
            length,
            muntin,
            volume,
        )
    )


def _lighter(part: Part, volume: float) -> Part:
    return replace(part, volume=part.volume - volume)


def _panels(frame: _Frame, rows: list[Span], columns: list[Span]) -> None:
    ctx, wood, choice = frame.ctx, frame.wood, frame.choice
    clearance = ctx.rule("panel_clearance", "clearance of a panel")
    sight_width = ctx.figures["sight_width"]
    whole = ctx.figures.add(
        total("panel_widest", "panel to the bottoms of its grooves", plus(sight_width), plus(frame.groove, 2))
    )
    swell = _panel_moves(frame, "swell", "swells, at the wettest", whole, wood.wet)
    room = ctx.figures.add(
        total("panel_room", "room in each groove, across the grain", plus(swell, 0.5), plus(clearance))
    )
    width = ctx.figures.add(
        total("panel_width", "panel, width", plus(sight_width), plus(frame.groove, 2), minus(room, 2))
    )
    shrink = _panel_moves(frame, "shrink", "shrinks, at the driest", width, wood.dry)
    hold = ctx.figures.add(
        total("panel_hold", "panel held, at the driest", plus(frame.groove), minus(room), minus(shrink, 0.5))
    )
    for prefix, y0, y1 in rows:
        sight = ctx.figures[f"sight_height_{prefix.strip()}" if prefix else "sight_height"]
        length = ctx.figures.add(
            total(
                f"{prefix.strip() or 'whole'}_panel_length",
                f"{prefix}panel, length".strip(),
                plus(sight),
                plus(frame.groove, 2),
                minus(clearance, 2),
            )
        )
        for side, x0, x1 in columns:
            face = Rect(x0, y0, x1, y1)
            reach_x, reach_y = frame.groove.value - room.value, frame.groove.value - clearance.value
            outline = Rect(x0 - reach_x, y0 - reach_y, x1 + reach_x, y1 + reach_y)
            finished = Size(length.value, width.value, choice.panel_thickness)
            rough = frame.rough(finished)
            frame.parts.append(
                Part(
                    f"{prefix}{side}panel",
                    Role.PANEL,
                    face,
                    outline,
                    True,
                    wood.panel.key,
                    finished,
                    finished,
                    rough,
                    length,
                    width,
                    finished.length * finished.width * finished.thickness,
                )
            )
    checks.judge_panels(ctx, choice, hold, room, swell, frame.groove, frame.tenon_thick)


def _panel_moves(frame: _Frame, key: str, words: str, across: Figure, air: Figure) -> Figure:
    """Add how much a panel swells or shrinks from the moisture it is made at to that of the air; never less than 0."""
    wood = frame.wood
    change = change_of_width(
        width=across.value,
        coefficient=wood.panel_coefficient.value,
        from_moisture=wood.made.value,
        to_moisture=air.value,
    )
    value = max(0.0, change if key == "swell" else -change)
    return frame.ctx.figures.add(
        derived(
            f"panel_{key}",
            f"panel {words}, by",
            value,
            Unit.MM,
            across,
            wood.panel_coefficient,
            wood.made,
            air,
            formula="width × movement × points of moisture",
        )
    )


def inputs(ctx: Context) -> None:
    """Add what other stages need before the leaf is built: its thickness."""
    ctx.figures.add(
        given(
            "thickness",
            "leaf thickness",
            ctx.leaf.build.thickness,
            edit="build.thickness",
            source="set by hand for this leaf",
            choice=True,
        )
    )
