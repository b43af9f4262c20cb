"""The setting-out rod: every mark of a leaf along its height and its width.

Each is measured from one end, so that errors do not add up.

Lanes of a rod lie beside one another like the sides of the stick: the members, their joints, the panels and boards,
the hardware. Distances are of the finished leaf, mm: of the height rod up from the foot, of the width rod from the
hinge edge, seen from the opening side.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.leaf.part import Build, Part
from oakmeasure.core.solution import LeafSolution

SAME = 0.005  # mm; marks nearer than this are one


class Lane(StrEnum):
    """A side of the stick."""

    MEMBERS = "members"
    JOINTS = "joints"
    PANELS = "panels and boards"
    HARDWARE = "hardware"


@dataclass(frozen=True, slots=True)
class RodSpan:
    """From where to where on a rod something lies; a point where both are the same."""

    start: float
    """Where it begins on the rod, mm."""
    end: float
    """Where it ends on the rod, mm."""
    what: str
    """What it is."""
    lane: Lane
    """In which row of the rod it lies."""

    @property
    def is_point(self) -> bool:
        """Whether it is one place and no length."""
        return self.end - self.start < SAME


@dataclass(frozen=True, slots=True)
class RodMark:
    """One line across the stick."""

    at: float
    """From the datum end, mm."""
    what: tuple[str, ...]
    """Everything that begins, ends or lies there."""

    @property
    def names(self) -> tuple[str, ...]:
        """Return what is there without saying which end of it."""
        return tuple(dict.fromkeys(each.partition(",")[0] for each in self.what))


@dataclass(frozen=True, slots=True)
class Rod:
    """A stick."""

    name: str
    """Its name, as it is shown."""
    datum: str
    """The end that everything is measured from."""
    length: float
    """Length of the rod, mm."""
    spans: tuple[RodSpan, ...]
    """What is marked on it."""
    upright: bool
    """Of a height rod."""

    def lane(self, lane: Lane) -> tuple[RodSpan, ...]:
        """Return what lies on one side of the stick, from the datum on.

        Args:
            lane: Which row of the rod.
        """
        return tuple(sorted((each for each in self.spans if each.lane is lane), key=lambda s: (s.start, s.end)))

    def marks(self) -> tuple[RodMark, ...]:
        """Return every mark from the datum end to the other, those at one place as one."""
        words: list[tuple[float, str]] = [(0.0, self.datum), (self.length, "the other end")]
        low, high = ("lower end", "upper end") if self.upright else ("hinge-side end", "latch-side end")
        for span in self.spans:
            if span.is_point:
                words.append((span.start, f"{span.what}, centre"))
            else:
                words += [(span.start, f"{span.what}, {low}"), (span.end, f"{span.what}, {high}")]
        found: list[tuple[float, list[str]]] = []
        for at, what in sorted(words, key=lambda each: each[0]):
            if found and at - found[-1][0] < SAME:
                if what not in found[-1][1]:
                    found[-1][1].append(what)
            else:
                found.append((at, [what]))
        return tuple(RodMark(at, tuple(what)) for at, what in found)


def rods(leaf: LeafSolution) -> tuple[Rod, ...]:
    """Return the height rod and the width rod of a leaf; () where there is none.

    Args:
        leaf: The leaf, worked out to the end.
    """
    build = leaf.build
    if build is None:
        return ()
    borings = [each for each in leaf.borings if each.solid is not None and not each.is_slow]
    height = [*_members(build, upright=True), *_joints(build, upright=True), *_filling(build, upright=True)]
    width = [*_members(build, upright=False), *_joints(build, upright=False), *_filling(build, upright=False)]
    for upright, spans in ((True, height), (False, width)):
        cut = (_bored(each, build, upright=upright) for each in borings)
        spans += [each for each in cut if each is not None]
    return (
        Rod("height rod", "foot of the leaf", build.height, _once(height), upright=True),
        Rod("width rod", "hinge edge", build.width, _once(width), upright=False),
    )


def _once(spans: Iterable[RodSpan]) -> tuple[RodSpan, ...]:
    """Return the spans without those that say the same at the same place."""
    kept: dict[tuple[int, int, str], RodSpan] = {}
    for each in spans:
        kept.setdefault((round(each.start / SAME), round(each.end / SAME), each.what), each)
    return tuple(kept.values())


ALONG_HEIGHT = (Role.RAIL, Role.LEDGE, Role.STIFFENER)
ALONG_WIDTH = (Role.STILE, Role.MUNTIN, Role.LIPPING)


def _of(part: Part, *, upright: bool) -> tuple[float, float]:
    f = part.face
    return (f.y0, f.y1) if upright else (f.x0, f.x1)


def _members(build: Build, *, upright: bool) -> list[RodSpan]:
    """Rails on the height rod, stiles and muntins on the width rod; how far a ledge or brace reaches on both."""
    roles = ALONG_HEIGHT if upright else ALONG_WIDTH
    both = (Role.BRACE,) if upright else (Role.BRACE, Role.LEDGE)
    found = []
    for part in build.parts:
        if part.role in roles or part.role in both:
            found.append(RodSpan(*_of(part, upright=upright), part.name, Lane.MEMBERS))
    return found


def _joints(build: Build, *, upright: bool) -> list[RodSpan]:
    """Mortises and haunches on the height rod; shoulders and tenon ends on the width rod."""
    found = []
    sides = {part.name: part for part in build.parts if part.role in (Role.STILE, Role.LIPPING)}
    for tenon in build.tenons:
        into_stile = tenon.into in sides
        r = tenon.rect
        what = "haunch" if tenon.is_haunch else "mortise" if upright else "tenon"
        if upright and into_stile and sides[tenon.into].place is Place.HINGE:
            found.append(RodSpan(r.y0, r.y1, f"{tenon.member} {what}", Lane.JOINTS))
        elif not upright and into_stile:
            found.append(RodSpan(r.x0, r.x1, f"{tenon.member} {what}", Lane.JOINTS))
        elif not into_stile:
            start, end = (r.y0, r.y1) if upright else (r.x0, r.x1)
            found.append(RodSpan(start, end, f"{tenon.member} {what}", Lane.JOINTS))
    if not upright:
        found += [
            RodSpan(*_of(part, upright=False), f"{part.name} shoulders", Lane.JOINTS)
            for part in build.parts
            if part.role is Role.RAIL
        ]
    return found


def _filling(build: Build, *, upright: bool) -> list[RodSpan]:
    """Panels in their grooves, boards and strips, and lines on the face."""
    found = []
    for part in build.parts:
        o = part.outline
        if part.role is Role.PANEL:
            found.append(RodSpan(*((o.y0, o.y1) if upright else (o.x0, o.x1)), part.name, Lane.PANELS))
        elif part.role in (Role.BOARD, Role.STRIP) and not upright:
            found.append(RodSpan(*_of(part, upright=False), part.name, Lane.PANELS))
    for mark in build.marks:
        along = [point[1] if upright else point[0] for point in mark.points]
        if len(mark.points) == 2 and max(along) - min(along) < SAME:
            found.append(RodSpan(along[0], along[0], mark.ref.rpartition(":")[2].replace("_", " "), Lane.PANELS))
    return found


def _bored(boring: Boring, build: Build, *, upright: bool) -> RodSpan | None:
    """Return a cut for hardware: a bore by its centre, the rest by its ends; None for what runs all along."""
    if boring.solid is None:
        return None
    x0, y0, x1, y1 = boring.solid.box
    start, end = (y0, y1) if upright else (x0, x1)
    if end - start >= (build.height if upright else build.width) - 1.0:
        return None
    if len(boring.solid.points) == 1:
        middle = boring.solid.points[0][1 if upright else 0]
        return RodSpan(middle, middle, boring.name, Lane.HARDWARE)
    return RodSpan(start, end, boring.name, Lane.HARDWARE)
