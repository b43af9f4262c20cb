"""What in a leaf lies too near to what, how bad it is, and the nearest place where it would be free.

Distances are those of prisms (core/base/prisms.py); rules are in clash_rules.py; what there is in a leaf, in things.py.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field

from oakmeasure.core.base.prisms import Box, Solid, Span, apart_in_depth, distances, nearest_free
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.hardware.clash.bodies import ClashBody
from oakmeasure.core.hardware.clash.rules import MOST_LEAST, BodyKind, Spacing, spacing
from oakmeasure.core.leaf.leaf_context import Context

TOUCH = 1e-6  # mm; nearer to its least distance than this is no clash
MOVES_MOST = 500.0  # mm; further away a free place is no help
SHOWN = 12  # clashes that become checks; more are counted


@dataclass(frozen=True, slots=True)
class Clash:
    """Two things nearer than they may be."""

    one: ClashBody
    """The one."""
    other: ClashBody
    """The other."""
    distance: float
    """Distance of the two, mm; less than 0 where they overlap."""
    rule: Spacing
    """The distance that they should keep."""
    alike: int = 1
    """Pairs of the same two families, this the worst of them."""

    @property
    def level(self) -> Level:
        """How bad it is."""
        return self.rule.meets if self.distance < -max(TOUCH, self.rule.grave) else self.rule.near

    @property
    def code(self) -> str:
        """A name that stays while numbers change, for what was answered."""
        slug = f"clash-{self.one.family}-{self.other.family}".lower()
        return "".join(each if each.isalnum() or each == "-" else "-" for each in slug)


@dataclass(frozen=True, slots=True)
class Mover:
    """How something can be moved."""

    moves: dict[str, float]
    """Each family that goes along, by which share of the way (−1: the other way)."""
    along: str
    """"x" or "y"."""
    low: float
    """How far it can be moved down, mm."""
    high: float
    """How far it can be moved up, mm."""
    edit: Callable[[float], Remedy]
    """The remedy for a way."""


@dataclass(frozen=True, slots=True)
class ClashMap:
    """Everything in the leaf and what clashes, the worst first."""

    things: tuple[ClashBody, ...] = ()
    """All that lies in the leaf."""
    clashes: tuple[Clash, ...] = ()
    """Pairs that are too near one another, the worst first."""
    movers: tuple[Mover, ...] = field(default=(), repr=False)
    """What can be moved, and how far."""

    def family(self, name: str) -> list[ClashBody]:
        """Return the things of a family.

        Args:
            name: Its name.
        """
        return [each for each in self.things if each.family == name]


def find_clashes(things: Sequence[ClashBody]) -> list[Clash]:
    """Return every pair that is nearer than its rule allows, the worst first.

    Things of one family are never asked of one another, nor are kinds without a rule.

    Args:
        things: All that lies in the leaf.
    """
    pairs = list(_near_pairs(things))
    apart = distances([(a.solid, b.solid) for a, b, _ in pairs])
    found = [
        Clash(a, b, distance, rule)
        for (a, b, rule), distance in zip(pairs, apart, strict=True)
        if distance < rule.least - TOUCH and (rule.least > 0 or distance < -TOUCH)
    ]
    return sorted(found, key=lambda each: (each.level is not Level.STOP, each.distance - each.rule.least))


def _near_pairs(things: Sequence[ClashBody]) -> Iterable[tuple[ClashBody, ClashBody, Spacing]]:
    """Sweep up the leaf: only what stands at the same height, and is near by its box, is looked at closely."""
    boxed = sorted(((each.solid.box, each) for each in things), key=lambda pair: pair[0][1])
    standing: list[tuple[Box, ClashBody]] = []
    for box, thing in boxed:
        standing = [each for each in standing if each[0][3] + MOST_LEAST > box[1]]
        for at, other in standing:
            if other.family == thing.family:
                continue
            rule = spacing(thing.kind, other.kind)
            if rule is not None and _boxes_apart(box, at, thing.solid.depth, other.solid.depth) < rule.least + TOUCH:
                yield (*_ordered(thing, other), rule)
        standing.append((box, thing))


HARDWARE = (BodyKind.CUT, BodyKind.SCREW, BodyKind.GROOVE)
RANK = (
    BodyKind.CUT,
    BodyKind.SCREW,
    BodyKind.BITE,
    BodyKind.GROOVE,
    BodyKind.LINE,
    BodyKind.TRIM,
    BodyKind.FIXING,
    BodyKind.JOINT,
    BodyKind.PANEL,
    BodyKind.HOLLOW,
    BodyKind.BLOCKS,
)


def _boxes_apart(one: Box, other: Box, depth: Span, other_depth: Span) -> float:
    """Return how far apart two boxes are at the least, mm: what is in them is no nearer."""
    x = max(one[0] - other[2], other[0] - one[2], 0.0)
    y = max(one[1] - other[3], other[1] - one[3], 0.0)
    return math.hypot(x, y, max(apart_in_depth(depth, other_depth), 0.0))


def _ordered(one: ClashBody, other: ClashBody) -> tuple[ClashBody, ClashBody]:
    """Return two things, what can be moved first."""
    first, second = sorted((one, other), key=lambda each: (RANK.index(each.kind), each.family))
    return first, second


def gathered(clashes: Sequence[Clash]) -> list[Clash]:
    """Return one clash for each two families, the worst, with how many are alike.

    Args:
        clashes: Pairs that are too near one another.
    """
    worst: dict[str, Clash] = {}
    count: dict[str, int] = {}
    for each in clashes:
        worst.setdefault(each.code, each)
        count[each.code] = count.get(each.code, 0) + 1
    return [Clash(each.one, each.other, each.distance, each.rule, count[each.code]) for each in worst.values()]


def free_place(mover: Mover, things: Sequence[ClashBody]) -> float | None:
    """Return the shortest way to where nothing is too near, mm, 0 where it is free; None where there is none.

    By upright boxes: on the safe side for what is round or slants.

    Args:
        mover: What can be moved.
        things: All that lies in the leaf.
    """
    return nearest_free(
        blocked(mover, things), at=0.0, low=max(mover.low, -MOVES_MOST), high=min(mover.high, MOVES_MOST)
    )


def blocked(mover: Mover, things: Sequence[ClashBody]) -> list[Span]:
    """Return the ways, mm, that would bring what is moved too near to something that stays.

    Args:
        mover: What can be moved.
        things: All that lies in the leaf.
    """
    spans = []
    axis, other_axis = (0, 1) if mover.along == "x" else (1, 0)
    own = [each for each in things if each.family in mover.moves]
    rest = [each for each in things if each.family not in mover.moves]
    for thing in own:
        box, share = thing.solid.box, mover.moves[thing.family]
        for each in rest:
            rule = spacing(thing.kind, each.kind)
            if rule is None or apart_in_depth(thing.solid.depth, each.solid.depth) >= rule.least - TOUCH:
                continue
            at, least = each.solid.box, rule.least
            if at[other_axis] - least >= box[other_axis + 2] or box[other_axis] - least >= at[other_axis + 2]:
                continue
            ways = ((at[axis] - least - box[axis + 2]) / share, (at[axis + 2] + least - box[axis]) / share)
            spans.append((min(ways), max(ways)))
    return spans


def judge_clashes(
    ctx: Context, things: Sequence[ClashBody], movers: Sequence[Mover], *, known: Iterable[str] = ()
) -> ClashMap:
    """Find all clashes, say the worst of them with a remedy each, and return the map.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        things: All that lies in the leaf.
        movers: What can be moved, and how far.
        known: Families whose clashes with joints are judged where they are set out, with a remedy of their own.
    """
    spoken_for = set(known)
    found = [
        each
        for each in find_clashes(things)
        if not (each.one.family in spoken_for and each.other.kind is BodyKind.JOINT)
    ]
    told = gathered(found)
    for clash in told[:SHOWN]:
        _say(ctx, clash, things, movers)
    if len(told) > SHOWN:
        ctx.warn("clash-more", f"{len(told) - SHOWN} more clash", "They are marked on the drawing of clashes.")
    hardware = sum(each.kind in HARDWARE for each in things)
    own = sum(each.kind in (BodyKind.FIXING, BodyKind.JOINT, BodyKind.PANEL) for each in things)
    if not told and hardware:
        ctx.fine(
            "clash-none",
            "Nothing clashes",
            f"{hardware} cuts and screws for hardware against each other and {own} joints, "
            "panels and fixings of the leaf.",
        )
    return ClashMap(tuple(things), tuple(told), tuple(movers))


def _say(ctx: Context, clash: Clash, things: Sequence[ClashBody], movers: Sequence[Mover]) -> None:
    one, other, rule = clash.one, clash.other, clash.rule
    meets = clash.distance < -TOUCH
    alike = f" {clash.alike} places alike; this is the worst." if clash.alike > 1 else ""
    how = f"They share {ctx.fmt(-clash.distance)}." if meets else f"{ctx.fmt(max(clash.distance, 0.0))} between them."
    title = f"{one.name[0].upper()}{one.name[1:]} {'meets' if meets else 'is near'} the {other.name}"
    ctx.report(
        clash.code,
        clash.level,
        title,
        f"{how} Else {rule.words}.{alike}",
        *remedies(ctx, clash, things, movers),
        grounds=Grounds(
            where=one.ref or other.ref,
            rule=f"{ctx.fmt(rule.least)} apart: common practice" if rule.least else "not into one another",
        ),
    )


def remedies(ctx: Context, clash: Clash, things: Sequence[ClashBody], movers: Sequence[Mover]) -> list[Remedy]:
    """Return what would mend a clash: the nearest free place of what can be moved, else words.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        clash: The two that are too near one another.
        things: All that lies in the leaf.
        movers: What can be moved, and how far.
    """
    found = []
    for mover in movers:
        if {clash.one.family, clash.other.family} & set(mover.moves):
            way = free_place(mover, things)
            if way is not None and abs(way) > TOUCH:
                found.append(mover.edit(_whole(way, mover, things)))
    if clash.other.kind is BodyKind.FIXING and clash.one.kind in (BodyKind.GROOVE, BodyKind.TRIM, BodyKind.CUT):
        found.append(Remedy(_fixing_words(ctx, clash)))
    return found or [Remedy("Move one of them, or a smaller one")]


def _whole(way: float, mover: Mover, things: Sequence[ClashBody]) -> float:
    """Return the way in whole mm, a little longer, where that is free too: nobody sets out 13.27."""
    whole = float(int(way) + (1 if way > int(way) else -1 if way < int(way) else 0))
    if not mover.low <= whole <= mover.high:
        return way
    return whole if not any(a + TOUCH < whole < b - TOUCH for a, b in blocked(mover, things)) else way


def _fixing_words(ctx: Context, clash: Clash) -> str:
    """What is done about nails and screws in the way of a cutter: the cut first, or shorter ones."""
    cut, fixing = clash.one, clash.other
    start, low = fixing.solid.depth[0], cut.solid.depth[0]
    room = low - clash.rule.least - start
    family = fixing.family
    if cut.kind is BodyKind.TRIM:
        return f"No {family} within {ctx.fmt(clash.rule.least)} of the line, or trim first"
    shorter = f"; or {family} {ctx.fmt(int(room))} long there" if len(fixing.solid.points) == 1 and room >= 10 else ""
    return f"Cut the {cut.name} first, and no {family} after it there{shorter}"


def keep_out(things: Sequence[ClashBody], margin: float) -> dict[str, Solid]:
    """Return for each family of hardware the block that it needs, `margin` round it on the face, mm.

    Args:
        things: All that lies in the leaf.
        margin: Kept free round each device on the face, mm.
    """
    found: dict[str, Solid] = {}
    for family in dict.fromkeys(each.family for each in things if each.kind in HARDWARE):
        boxes = [(each.solid.box, each.solid.depth) for each in things if each.family == family]
        x0, y0 = min(b[0] for b, _ in boxes) - margin, min(b[1] for b, _ in boxes) - margin
        x1, y1 = max(b[2] for b, _ in boxes) + margin, max(b[3] for b, _ in boxes) + margin
        depth = (min(d[0] for _, d in boxes), max(d[1] for _, d in boxes))
        found[family] = Solid(((x0, y0), (x1, y0), (x1, y1), (x0, y1)), depth)
    return found
