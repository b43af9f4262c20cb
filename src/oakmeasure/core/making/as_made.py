"""What was read while a leaf was made, taken into its figures: widths of boards, moisture, thickness, weight.

Widths and moisture go in before the leaf is set out; thickness and weight after, since joints that are cut stay as they
are. A cup is then bored so that about as much wood stays under it as was planned. Source: ours; geometry.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.base.units import HAIR, Unit
from oakmeasure.core.body.weight import Weights
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.document.production import LogEntry, LogKind, ReadingKind
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.figure import Figure, Origin, Provenance, given
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Part
from oakmeasure.core.making.log import last_reading

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign

GOES_BACK = (ReadingKind.THICKNESS, ReadingKind.BOARD_WIDTH, ReadingKind.MOISTURE, ReadingKind.MASS)


LEAST_LAYER = 0.5  # that a layer is reckoned with, mm, however thin a leaf came out


def source_of(entry: LogEntry) -> str:
    """Return where a figure comes from, for its working.

    Args:
        entry: The reading in the log.
    """
    return f"read when it was made, {entry.at.day} {entry.at:%b}"


# --- before the leaf is set out ----------------------------------------------------------------------------


def widths_read(leaf: Leaf) -> dict[str, LogEntry]:
    """Return the latest reading of the width of every board or strip that has one.

    Args:
        leaf: The leaf, as the document holds it.
    """
    found: dict[str, LogEntry] = {}
    for entry in leaf.making.log:
        if entry.kind is LogKind.READING and entry.reading is ReadingKind.BOARD_WIDTH:
            old = found.get(entry.part)
            if old is None or old.at <= entry.at:
                found[entry.part] = entry
    return found


def read_back(leaf: Leaf, set_out: Callable[[], Build | None]) -> Leaf:
    """Return the leaf with moisture and widths as they were read.

    Args:
        leaf: The leaf, as the document holds it.
        set_out: Gives the leaf as it was set out, for the widths of the boards that nobody has read; asked for
            only where some were.
    """
    wet = last_reading(leaf.making.log, ReadingKind.MOISTURE)
    if wet is not None and wet.value is not None:
        leaf = leaf.model_copy(update={"timber": leaf.timber.model_copy(update={"moisture": wet.value})})
    read = widths_read(leaf)
    choice = leaf.build
    if not read or choice.with_widths(()) is None:
        return leaf
    build = set_out()
    if build is None:
        return leaf
    laid = sorted(
        (p for p in build.parts if p.role in (Role.BOARD, Role.STRIP) and not p.is_back), key=lambda p: p.face.x0
    )
    widths = [(read[p.name].value or 0.0) if p.name in read else p.face.width for p in laid]
    return leaf.model_copy(update={"build": choice.with_widths(widths)})


def still_made(build: Build, leaf: Leaf) -> Build:
    """Return a leaf whose boards were read while it was made: they are no boards at hand, they are its parts.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        leaf: The leaf, as the document holds it.
    """
    if not widths_read(leaf) or bool(getattr(leaf.build, "measured", None)):
        return build
    return replace(
        build, parts=tuple(replace(p, at_hand=False) if p.role in (Role.BOARD, Role.STRIP) else p for p in build.parts)
    )


# --- after it is set out -----------------------------------------------------------------------------------


def as_made(ctx: Context, build: Build) -> Build:
    """Return the leaf as thick as it came out, its parts with it; the same where nobody has read it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    entry = last_reading(ctx.leaf.making.log, ReadingKind.THICKNESS)
    if entry is None or entry.value is None:
        return build
    before = ctx.figures["thickness"]
    old, new = before.value, entry.value
    _keep_as_set_out(ctx, before)
    ctx.figures.by_name["thickness"] = given(
        "thickness", before.label, new, Origin(source=source_of(entry), state=Provenance.MEASURED)
    )
    over = ctx.figures.get("thickness_over")
    if over is not None:
        ctx.figures.by_name["thickness_over"] = given(
            "thickness_over", over.label, over.value + new - old, Origin(source=over.source, state=Provenance.MEASURED)
        )
    deeper = _depths(build, old, new)
    parts = tuple(_thinner(p, build, deeper) for p in build.parts)
    tenons = tuple(replace(each, middle=deeper(each.middle)) for each in build.tenons)
    return replace(build, thickness=build.thickness + new - old, parts=parts, tenons=tenons)


def _keep_as_set_out(ctx: Context, before: Figure) -> None:
    """Give the thickness that was set out a name of its own: what was worked out by it says so in its working."""
    kept = replace(before, name="thickness_set_out", label=f"{before.label}, as set out")
    for name, figure in ctx.figures.by_name.items():
        if any(row.ref == before.name for row in figure.rows):
            rows = (
                replace(row, ref=kept.name, label=kept.label) if row.ref == before.name else row for row in figure.rows
            )
            ctx.figures.by_name[name] = replace(figure, rows=tuple(rows))
    ctx.figures.by_name[kept.name] = kept


def _thinner(part: Part, build: Build, deeper: Callable[[float], float]) -> Part:
    """Return a part whose faces and joints lie where they came out."""
    hold = part.hold
    if hold is not None:  # what it holds keeps its thickness
        middle, half = deeper(sum(hold.depth) / 2), (hold.depth[1] - hold.depth[0]) / 2
        hold = replace(hold, depth=(middle - half, middle + half))
        part = replace(part, hold=hold)
    if part.depth is None and part.role is Role.PANEL:
        return part
    a, b = build.depth_of(part)
    front, thick = deeper(a), max(deeper(b) - deeper(a), LEAST_LAYER)

    def moved(solid: Solid) -> Solid:
        z0, z1 = (front + (z - a) * thick / (b - a) for z in solid.depth)
        return replace(solid, depth=(z0, z1))

    return replace(
        part,
        finished=replace(part.finished, thickness=thick),
        depth=None if part.depth is None else (front, front + thick),
        tongues=tuple(map(moved, part.tongues)),
        cuts=tuple(map(moved, part.cuts)),
    )


def _depths(build: Build, old: float, new: float) -> Callable[[float], float]:
    """Return where what lay at a depth lies now: what came off is off both faces alike, if the layers there bear it.

    Else, of a leaf that came out quite another one, every layer is as much thinner as the whole is.
    """
    off = new - old
    outer = [b - a for a, b in map(build.depth_of, build.parts) if a < HAIR or abs(b - old) < HAIR]
    bears = all(each + off / 2 > LEAST_LAYER for each in outer)

    def deeper(depth: float) -> float:
        if depth <= HAIR / 100:
            return 0.0
        if depth >= old - HAIR / 100:
            return depth + off
        return depth + off / 2 if bears else depth * new / old

    return deeper


def as_weighed(ctx: Context, weights: Weights) -> Weights:
    """Return the weights with the leaf's own as it was weighed; the same where nobody has weighed it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        weights: The weights, worked out.
    """
    entry = last_reading(ctx.leaf.making.log, ReadingKind.MASS)
    if entry is None or entry.value is None:
        return weights
    reckoned = ctx.figures["mass"]
    ctx.figures.by_name["mass_reckoned"] = replace(reckoned, name="mass_reckoned", label=f"{reckoned.label}, reckoned")
    mass = given(
        "mass",
        reckoned.label,
        entry.value,
        Origin(source=f"weighed, {entry.at.day} {entry.at:%b}", state=Provenance.MEASURED),
        unit=Unit.KG,
    )
    ctx.figures.by_name["mass"] = mass
    return replace(weights, mass=mass)


# --- what a reading changes --------------------------------------------------------------------------------

# Figures that a reading may change, and what they are called in a few words.
SHOWN = {
    "cup_depth": "cup depth",
    "cup_left": "wood under the cup",
    "butt_across": "hinge, across",
    "butt_depth": "hinge, deep",
    "mass": "weight",
    "board_end": "last board",
    "laid_over": "to trim off",
    "screw_thread": "thread in the wood",
    "stop_back": "stop set back",
    "plate_back": "plates back",
    "panel_room": "room for panels",
    "season": "season",
    "leaf_change_wet": "swells by",
    "leaf_change_dry": "shrinks by",
    "panel_hold": "panel held",
    "bolt_length": "bolts",
    "least_bevel": "least bevel",
    "proof_load": "proof load",
    "screws_work": "a hinge's screws",
}


@dataclass(frozen=True, slots=True)
class Change:
    """One figure before and after a reading."""

    label: str
    """What it is called on the screen."""
    before: float
    """As it was set out, in its unit."""
    after: float
    """As it was made, in its unit."""
    unit: Unit
    """Its unit."""


def changes(before: LeafDesign, after: LeafDesign) -> tuple[Change, ...]:
    """Return what a reading has changed, what is cut by it first.

    Args:
        before: The leaf without the reading.
        after: The leaf with the reading.
    """
    found = []
    for name, words in SHOWN.items():
        old, new = _value(before, name), _value(after, name)
        least = HAIR if old is None or old.unit is Unit.MM else 0.005
        if old is not None and new is not None and abs(old.value - new.value) > least:
            found.append(Change(words, old.value, new.value, old.unit))
    one, two = _last_board(before), _last_board(after)
    if one is not None and two is not None and abs(one - two) > HAIR and all(c.label != "last board" for c in found):
        found.insert(0, Change("last board", one, two, Unit.MM))
    return tuple(found)


def _value(leaf: LeafDesign, name: str) -> Figure | None:
    if name == "cup_depth" and "cup_bored" in leaf.figures:
        return leaf.figures["cup_bored"]
    return leaf.figures.get(figure_name(name))


def _last_board(leaf: LeafDesign) -> float | None:
    if leaf.build is None:
        return None
    boards = [p for p in leaf.build.parts if p.role is Role.BOARD and not p.is_back]
    return max(boards, key=lambda p: p.face.x0).face.width if boards else None
