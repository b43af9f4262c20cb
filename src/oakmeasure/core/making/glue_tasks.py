"""What is glued at one time, of every construction, as closings: the smallest steps that cannot be done by halves.

Minutes are of one person who spreads, closes and taps home: common practice, no source; one's own go before them.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import assert_never

from oakmeasure.core.base.units import MM2_PER_M2
from oakmeasure.core.document.construction_model import GlueOrder
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.leaf.part import Build, GlueUp, GlueUpKind, Part
from oakmeasure.core.making.joints import Joint, joints_of

TENON_MIN = 1.0
MUNTIN_MIN = 0.7
LOOSE_MIN = 0.4
EDGE_MIN_PER_M = 0.7
FACE_MIN_PER_M2 = 4.0
PIECE_MIN = 0.4
CLAMP_EVERY = 350.0  # mm along a joint: 300 to 400, common practice, no source
Line = tuple[tuple[float, float], tuple[float, float]]


@dataclass(frozen=True, slots=True)
class Closing:
    """Done in one go."""

    words: str
    """In words."""
    parts: tuple[str, ...]
    """Names of the parts."""
    minutes: float
    """Minutes of one person, clamps not counted."""
    clamps: int
    """That hold it."""
    bars: tuple[Line, ...] = ()
    """Where they lie in the leaf."""
    alone: bool = False
    """It starts a stage of its own."""
    at: tuple[float, float] | None = None
    """Where its number stands; None: on its part."""


@dataclass(frozen=True, slots=True)
class Task:
    """What is glued up one closing after the other."""

    key: str
    """Its key in operations."""
    name: str
    """What comes of it."""
    closings: tuple[Closing, ...]
    """Joints that are closed one after the other."""
    share: bool = False
    """Clamps stay the same however many close in one stage."""
    cauls: str = ""
    """What is laid under the clamps; "" for nothing."""


def tasks_of(leaf: Leaf, build: Build) -> tuple[Task, ...]:
    """Return the glue-ups of a leaf in their order; none where nothing is glued.

    One's own minutes a joint, where they are said, take the place of those by kind.

    Args:
        leaf: The leaf, as the document holds it.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    if not build.glue_ups:
        return ()
    own, choice = leaf.making.joint_minutes, leaf.build
    match choice.glue_order:
        case GlueOrder.PRESSED:
            return (_pressed(build),)
        case GlueOrder.PRESSED_FRAME:
            return _pressed(build), _frame(build, own)
        case GlueOrder.LAYERS:
            return _layers(build) if build.layered else _one_by_one(build)
        case GlueOrder.SLAB:
            return (_slab(build, choice.glued_at_once, own),)
        case GlueOrder.FRAME:
            return (_frame(build, own),)
        case GlueOrder.FRAME_AND_FILL:
            return _frame(build, own), *(
                _plain(build, each) for each in build.glue_ups if each.kind is not GlueUpKind.FRAME
            )
        case GlueOrder.ONE_BY_ONE:
            return _one_by_one(build)
        case _:
            assert_never(choice.glue_order)


def _one_by_one(build: Build) -> tuple[Task, ...]:
    return tuple(_plain(build, each) for each in build.glue_ups)


def _bar(build: Build, y: float) -> Line:
    return (0.0, y), (build.width, y)


def _frame(build: Build, own: float | None) -> Task:
    """Muntins into rails, rails onto muntins, rails into the hinge stile, last the latch stile onto all of them."""
    joints, sides = joints_of(build), _stiles(build)
    rails = sorted(_named(build, {j.member for j in joints} | {j.into for j in joints}, Role.RAIL), key=_up)
    into_rails = [j for j in joints if j.into not in sides]
    has_panels = any(p.role is Role.PANEL and p.species != "glass" and p.hold is not None for p in build.parts)
    closings: list[Closing] = []
    linked: list[set[str]] = [{rail.name} for rail in rails]
    for muntin in dict.fromkeys(j.member for j in into_rails):
        mine = sorted((j for j in into_rails if j.member == muntin), key=lambda j: j.at[1])
        closings.append(_join(build, f"{muntin} into the {mine[0].into}", mine[:1], own or MUNTIN_MIN, 1))
        linked = _link(linked, {j.into for j in mine})
    for rail in rails:
        tops = [j for j in into_rails if j.into == rail.name and _is_top(j, into_rails)]
        if tops:
            closings.append(
                _join(
                    build,
                    f"{rail.name} onto its muntins{', panels between them in their grooves' if has_panels else ''}",
                    tops,
                    own or MUNTIN_MIN,
                    len(tops),
                )
            )
    stiles = list(dict.fromkeys(j.into for j in joints if j.into in sides))
    first = next((s for s in stiles if build.is_at(s, Role.STILE, Place.HINGE)), stiles[0] if stiles else "")
    for group in linked:
        mine = [j for j in joints if j.into == first and j.member in group]
        if mine:
            closings.append(
                _join(
                    build,
                    f"{' and '.join(j.member for j in mine)} into the {first}{', panel in' if has_panels else ''}",
                    mine,
                    own or TENON_MIN,
                    len(mine),
                )
            )
    rest = [j for j in joints if j.into in sides and j.into != first]
    if rest:
        clamps = max((each.clamps for each in build.glue_ups if each.kind is GlueUpKind.FRAME), default=len(rest))
        closings.append(_join(build, f"{rest[0].into} onto all the rails", rest, own or TENON_MIN, clamps))
    return Task("frame", "the frame", tuple(closings), cauls="blocks under the jaws, over the middle of the thickness")


def _join(build: Build, words: str, joints: list[Joint], minutes: float, clamps: int) -> Closing:
    sides = _stiles(build)
    bars = tuple(_bar(build, j.at[1]) for j in joints if j.into in sides)
    upright = tuple(((j.at[0], 0.0), (j.at[0], build.height)) for j in joints if j.into not in sides)
    pieces = tuple(dict.fromkeys(name for j in joints for name in (j.member, j.into)))
    total = sum(minutes * (1 + 0.5 * (j.pieces - 1)) for j in joints)
    at = (sum(j.at[0] for j in joints) / len(joints), sum(j.at[1] for j in joints) / len(joints))
    return Closing(words, pieces, total, clamps, bars or upright, at=at)


def _is_top(joint: Joint, joints: list[Joint]) -> bool:
    """Return whether a muntin's joint is the upper one of its two."""
    return (
        joint.at[1] >= max(j.at[1] for j in joints if j.member == joint.member)
        and len([j for j in joints if j.member == joint.member]) > 1
    )


def _link(groups: list[set[str]], together: set[str]) -> list[set[str]]:
    apart = [each for each in groups if not each & together]
    joined = set().union(*(each for each in groups if each & together))
    at = next((n for n, each in enumerate(groups) if each & together), len(groups))
    return [*apart[:at], joined, *apart[at:]] if joined else groups


def _stiles(build: Build) -> frozenset[str]:
    return frozenset(part.name for part in build.parts if part.role is Role.STILE)


def _named(build: Build, names: Iterable[str], role: Role) -> list[Part]:
    wanted = set(names)
    return [part for part in build.parts if part.name in wanted and part.role is role]


def _up(part: Part) -> float:
    return part.face.y0


def _slab(build: Build, at_once: int, own: float | None) -> Task:
    """Strips in groups, then the groups; clamps lie across all of them, over and under in turn."""
    strips = sorted((p for p in build.parts if p.role is Role.STRIP), key=lambda p: p.face.x0)
    clamps = max(each.clamps for each in build.glue_ups)
    per = own or EDGE_MIN_PER_M * build.height / 1000
    tenons: dict[frozenset[str], int] = {}
    for tenon in build.tenons:
        pair = frozenset((tenon.member, tenon.into))
        tenons[pair] = tenons.get(pair, 0) + 1

    def close(a: Part, b: Part, *, alone: bool) -> Closing:
        minutes = per + PIECE_MIN + LOOSE_MIN * tenons.get(frozenset((a.name, b.name)), 0)
        ys = [build.height * (n + 0.5) / clamps for n in range(clamps)]
        bars = tuple(((a.face.x0, y), (b.face.x1, y)) for y in ys)
        return Closing(
            f"{a.name} to {b.name}",
            (a.name, b.name),
            minutes,
            clamps,
            bars,
            alone,
            (a.face.x1, (0.3 + 0.4 * (a.face.x0 / max(build.width, 1.0))) * build.height),
        )

    groups = [strips[at : at + at_once] for at in range(0, len(strips), at_once)]
    inside = [close(a, b, alone=n == 0) for group in groups for n, (a, b) in enumerate(itertools.pairwise(group))]
    between = [close(one[-1], two[0], alone=True) for one, two in itertools.pairwise(groups)]
    return Task(
        "slab",
        "the slab",
        (*inside, *between),
        share=True,
        cauls="cauls across both ends, waxed, so that no strip creeps up",
    )


def _layers(build: Build) -> tuple[Task, ...]:
    """Face members laid on the core one by one, first on one face and then on the other; then the lippings."""
    layers = [p for p in build.parts if p.role not in (Role.LIPPING, Role.TRIM) and not p.at_hand]
    over = max((build.depth_of(p)[1] for p in layers), default=0.0)
    front = [p for p in layers if build.depth_of(p)[0] < 0.01]
    back = [p for p in layers if build.depth_of(p)[1] > over - 0.01]
    clamps = max((each.clamps for each in build.glue_ups), default=4)
    closings = []
    for at, side in enumerate((front, back)):
        for n, part in enumerate(side):
            minutes = PIECE_MIN + FACE_MIN_PER_M2 * part.face.width * part.face.height / MM2_PER_M2
            closings.append(
                Closing(
                    f"{part.name} onto the {'front' if not at else 'back'}",
                    (part.name,),
                    minutes,
                    clamps,
                    _across(build, part.face.y0, part.face.y1),
                    alone=n == 0,
                )
            )
    tasks = [Task("layers", "the layers", tuple(closings), share=True, cauls="bearers across, weights or bowed cauls")]
    lippings = [p for p in build.parts if p.role is Role.LIPPING]
    if lippings:
        tasks.append(_edged(build, lippings))
    return tuple(tasks)


def _across(build: Build, y0: float, y1: float) -> tuple[Line, ...]:
    count = max(1, math.ceil((y1 - y0) / CLAMP_EVERY))
    return tuple(_bar(build, y0 + (y1 - y0) * (n + 0.5) / count) for n in range(count))


def _edged(build: Build, lippings: list[Part]) -> Task:
    closings = []
    for part in lippings:
        long = max(part.face.width, part.face.height)
        count = max(2, math.ceil(long / CLAMP_EVERY))
        closings.append(
            Closing(
                f"{part.name} on",
                (part.name,),
                PIECE_MIN + EDGE_MIN_PER_M * long / 1000,
                count,
                _across(build, part.face.y0, part.face.y1),
            )
        )
    return Task("lippings", "the lippings", tuple(closings), cauls="a caul as long as the lipping under the jaws")


def _pressed(build: Build) -> Task:
    """Both veneers of a part at once, so that it stays flat; then the next part."""
    closings: list[Closing] = []
    for core in (p for p in build.parts if p.role not in (Role.VENEER, Role.LIPPING)):
        area = core.face.width * core.face.height / MM2_PER_M2
        clamps = max(2, 2 * math.ceil(max(core.face.width, core.face.height) / CLAMP_EVERY))
        minutes = PIECE_MIN + 2 * FACE_MIN_PER_M2 * area
        closings.append(
            Closing(
                f"both veneers onto the {core.name}",
                (core.name,),
                minutes,
                clamps,
                _across(build, core.face.y0, core.face.y1),
            )
        )
    return Task(
        "press",
        "the veneers",
        tuple(closings),
        cauls="flat boards over the whole face, paper between; pairs of bowed bearers",
    )


def _plain(build: Build, glued: GlueUp) -> Task:
    """A glue-up of which only its size is known: its joints close one after the other."""
    minutes = 2 * PIECE_MIN + EDGE_MIN_PER_M * 2 * min(glued.across, glued.length) / 1000
    new = tuple(p.name for p in build.parts if not p.at_hand) or tuple(
        p.name for p in build.parts if p.role is Role.RAIL
    )
    closings = [
        Closing(f"{glued.name}: {name}", (name,), minutes, max(1, glued.clamps // max(len(new), 1))) for name in new[:6]
    ]
    low = glued.kind is GlueUpKind.NEW_END
    y1 = min(glued.across, build.height) if low else build.height
    bars = tuple(line for n in range(glued.clamps) for line in (_bar(build, y1 * (n + 0.5) / glued.clamps),))
    if closings:
        last = closings[-1]
        closings[-1] = Closing(last.words, last.parts, last.minutes, glued.clamps, bars)
    return Task(str(glued.kind), glued.name, tuple(closings), cauls="blocks under the jaws")
