"""The gaps of a leaf that hangs, and the remedy: what to pack, let in, turn and plane so that they come right.

A linear programme (HiGHS) over the leaf's motion and what is planed at each place that was read. Without the
plane first: where hinges alone bring every gap within the tolerance, no wood is planed, whatever the aim. Else either
the least wood and then the most even gap, or the most even gap and then the least wood.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.units import IN_MM, Show
from oakmeasure.core.document.adjustment import Gaps, PutRight
from oakmeasure.core.hanging.lexicographic_lp import Least, in_turn
from oakmeasure.core.hanging.rigid import Motion, packed_at

PLANED_MOST = 15.0  # mm at one place
HINGE_EDGE_COSTS = 3.0  # as much as the same off another edge: the hinges come off for it
WOOD_LEAST = 0.05  # less is a breath on the plane


@dataclass(frozen=True, slots=True)
class GapPlace:
    """A gap that was read."""

    side: str
    """Hinge, latch, head, floor."""
    name: str
    """Where it is."""
    at: float
    """Up the leaf, or from its hinge edge, mm."""
    gap: float
    """The gap that was read, mm."""
    wanted: float
    """The gap that it should have, mm."""


@dataclass(frozen=True, slots=True)
class HungFrame:
    """The leaf and what moves it."""

    width: float
    """Width, mm."""
    height: float
    """Height, mm."""
    hinges: tuple[float, ...]
    """Heights over the foot."""
    pack: float
    """How far each hinge may be packed, mm."""
    let_in: float
    """How much deeper each hinge may be let in, mm."""
    lift: float = 0.0
    """How far the leaf may be set up or down at its hinges, mm."""


@dataclass(frozen=True, slots=True)
class RemedyPlan:
    """One way of putting a hung leaf right, mm."""

    aim: PutRight
    """What counts."""
    motion: Motion
    """How the leaf moves."""
    packed: tuple[float, ...]
    """At each hinge, less than 0 let in deeper."""
    planed: tuple[float, ...]
    """At each place, mm."""
    after: tuple[float, ...]
    """Gaps then."""
    worst: float
    """How far the worst of the gaps is off, mm."""
    wood: float
    """Planed off, mm · mm along the edges."""
    within: bool
    """All in the tolerance."""

    @property
    def planes(self) -> bool:
        """Return whether any wood is planed off."""
        return any(each > WOOD_LEAST for each in self.planed)


@dataclass(frozen=True, slots=True)
class Found:
    """What was found for a hung leaf."""

    places: tuple[GapPlace, ...]
    """What was read."""
    least_wood: RemedyPlan
    """The plan that takes the least wood."""
    even: RemedyPlan
    """The plan that gives the most even gaps."""
    needs: tuple[float, ...] = ()
    """What each hinge would have to be packed to do it without the plane, where that is more than it may; () where
    it is not.
    """

    def plan(self, aim: PutRight) -> RemedyPlan:
        """Return the remedy that serves an aim best.

        Args:
            aim: The least wood off, or the most even gaps.
        """
        return self.least_wood if aim is PutRight.LEAST_WOOD else self.even


def places_of(gaps: Gaps, *, width: float, height: float, wanted: dict[str, float]) -> tuple[GapPlace, ...]:
    """Return the places that were read.

    Args:
        gaps: The gaps as they were read, mm.
        width: Width, mm.
        height: Height, mm.
        wanted: The gap that each side should have, mm.
    """
    up = {"top": height, "middle": height / 2, "bottom": 0.0}
    along = {"hinge": 0.0, "middle": width / 2, "latch": width}
    found = []
    for side, stations in (("hinge", up), ("latch", up), ("head", along), ("floor", along)):
        for name, at in stations.items():
            gap = getattr(gaps, f"{side}_{name}")
            if gap is not None:
                found.append(GapPlace(side, name, at, gap, wanted[side]))
    return tuple(found)


def moved(place: GapPlace, motion: Motion) -> float:
    """Return the gap at a place after a motion, nothing planed, mm.

    Args:
        place: Where the gap is read.
        motion: How the leaf moves.
    """
    if place.side == "hinge":
        return place.gap + motion.across_at(place.at)
    if place.side == "latch":
        return place.gap - motion.across_at(place.at)
    return place.gap - motion.up_at(place.at) if place.side == "head" else place.gap + motion.up_at(place.at)


def _effect(place: GapPlace, frame: HungFrame) -> tuple[float, float, float]:
    """Return what across, up and turn (a whole turn of 1 mm over the height) do to a gap."""
    unit = 1.0 / frame.height
    return {
        "hinge": (1.0, 0.0, -place.at * unit),
        "latch": (-1.0, 0.0, place.at * unit),
        "head": (0.0, -1.0, -place.at * unit),
        "floor": (0.0, 1.0, place.at * unit),
    }[place.side]


@dataclass(slots=True)
class _Programme:
    """The linear programme of a remedy.

    Its columns: across, up, turn (mm over the height), what is planed at each place, the worst deviation, and how
    far each hinge goes whichever way.
    """

    places: Sequence[GapPlace]
    frame: HungFrame
    tolerance: float
    free: bool = False
    planing: bool = True

    @property
    def worst_at(self) -> int:
        return 3 + len(self.places)

    @property
    def columns(self) -> int:
        return self.worst_at + 1 + len(self.frame.hinges)

    def _gap(self, n: int) -> list[float]:
        """Return what each column does to the gap at a place."""
        row = [*_effect(self.places[n], self.frame), *([0.0] * (self.columns - 3))]
        row[3 + n] = 1.0
        return row

    def rows(self) -> tuple[list[list[float]], list[float]]:
        """Return what holds whatever is sought: hinges in their range, the worst deviation over every deviation."""
        rows, most = [], []
        for n, place in enumerate(self.places):
            high = self._gap(n)
            low = [-each for each in high]
            high[self.worst_at] = low[self.worst_at] = -1.0
            rows += [high, low]
            most += [place.wanted - place.gap, place.gap - place.wanted]
        for n, y in enumerate(self.frame.hinges):
            packed = [1.0, 0.0, -y / self.frame.height, *([0.0] * (self.columns - 3))]
            for sign in (1.0, -1.0):
                row = [sign * each for each in packed]
                if not self.free:
                    rows.append(row)
                    most.append(self.frame.pack if sign > 0 else self.frame.let_in)
                goes = list(row)
                goes[self.worst_at + 1 + n] = -1.0
                rows.append(goes)
                most.append(0.0)
        return rows, most

    def at_least(self) -> tuple[list[list[float]], list[float]]:
        """Return that no gap is less than its tolerance lets it be."""
        rows = [[-each for each in self._gap(n)] for n in range(len(self.places))]
        return rows, [place.gap - max(place.wanted - self.tolerance, 0.0) for place in self.places]

    def bounds(self) -> list[tuple[float | None, float | None]]:
        lift = (None, None) if self.free else (-self.frame.lift, self.frame.lift)
        planed: tuple[float, float] = (0.0, PLANED_MOST if self.planing else 0.0)
        rest = self.columns - self.worst_at
        return [(None, None), lift, (None, None), *([planed] * len(self.places)), *([(0.0, None)] * rest)]

    def wood(self) -> list[float]:
        """Return what each column takes off, as a cost."""
        costs = [HINGE_EDGE_COSTS if p.side == "hinge" else 1.0 for p in self.places]
        return [0.0, 0.0, 0.0, *costs, *([0.0] * (self.columns - self.worst_at))]

    def worst(self) -> list[float]:
        return [1.0 if n == self.worst_at else 0.0 for n in range(self.columns)]

    def least_moved(self) -> list[float]:
        """Return the last aim: of all that do it, the one that moves the hinges least."""
        return [1.0 if n > self.worst_at else 0.0 for n in range(self.columns)]


def _solve(programme: _Programme, aims: Sequence[list[float]], *, floor: bool) -> Least | None:
    """Solve one aim after the other; floor: no gap less than its tolerance lets it be.

    None where there is no solution.
    """
    rows, most = programme.rows()
    if floor:
        more, limits = programme.at_least()
        rows, most = rows + more, most + limits
    return in_turn(aims, rows, most, programme.bounds())


def _plan(aim: PutRight, programme: _Programme, answer: Least) -> RemedyPlan:
    x = answer.x
    frame = programme.frame
    motion = Motion(x[0], x[1], x[2] / frame.height)
    planed = tuple(each if each > WOOD_LEAST else 0.0 for each in x[3 : programme.worst_at])
    after = tuple(moved(place, motion) + off for place, off in zip(programme.places, planed, strict=True))
    worst = max((abs(gap - place.wanted) for gap, place in zip(after, programme.places, strict=True)), default=0.0)
    wood = sum(
        off * _reach(place, programme.places, frame) for off, place in zip(planed, programme.places, strict=True)
    )
    return RemedyPlan(
        aim, motion, packed_at(motion, frame.hinges), planed, after, worst, wood, worst <= programme.tolerance + 0.01
    )


def _reach(place: GapPlace, places: Sequence[GapPlace], frame: HungFrame) -> float:
    """Return how much of an edge a place stands for, mm."""
    whole = frame.height if place.side in ("hinge", "latch") else frame.width
    return whole / max(sum(each.side == place.side for each in places), 1)


def put_right(places: Sequence[GapPlace], frame: HungFrame, *, tolerance: float) -> Found | None:
    """Return both plans for the gaps that were read; None where nothing was read.

    Whatever the aim, no wood is planed where the hinges alone bring every gap within the tolerance.

    Args:
        places: Where gaps are read, and what they are.
        frame: Width, height and hinges of the leaf as it hangs.
        tolerance: Less than this counts as nothing, mm.
    """
    if not places:
        return None
    hinges = _Programme(places, frame, tolerance, planing=False)
    alone = _solve(hinges, [hinges.worst(), hinges.least_moved()], floor=False)
    if alone is not None:
        plan = _plan(PutRight.LEAST_WOOD, hinges, alone)
        if plan.within:
            even = RemedyPlan(
                PutRight.EVEN, plan.motion, plan.packed, plan.planed, plan.after, plan.worst, plan.wood, True
            )
            return Found(tuple(places), plan, even)
    whole = _Programme(places, frame, tolerance)
    wood = _solve(whole, [whole.wood(), whole.worst(), whole.least_moved()], floor=True)
    even_answer = _solve(whole, [whole.worst(), whole.wood(), whole.least_moved()], floor=False)
    if even_answer is None:
        return None
    least = _plan(PutRight.LEAST_WOOD, whole, wood if wood is not None else even_answer)
    free = _Programme(places, frame, tolerance, free=True, planing=False)
    unbound = _solve(free, [free.worst(), free.least_moved()], floor=False)
    needs: tuple[float, ...] = ()
    if unbound is not None:
        wished = _plan(PutRight.EVEN, free, unbound)
        needs = wished.packed if wished.within else ()
    return Found(tuple(places), least, _plan(PutRight.EVEN, whole, even_answer), needs)


def contradictions(
    gaps: Gaps, *, room_across: float, room_up: float, sure: float = 3.0, show: Show = IN_MM
) -> list[str]:
    """Return which gaps cannot be of this leaf in this opening, in words.

    Args:
        gaps: The gaps as they were read, mm.
        room_across: Width of the opening less that of the leaf, mm.
        room_up: Height of the opening less that of the leaf, mm.
        sure: How far two measurements may differ before they contradict each other, mm.
        show: How lengths and other quantities are written.
    """
    found, fine = list[str](), show.fine
    for name in ("top", "middle", "bottom"):
        one, two = getattr(gaps, f"hinge_{name}"), getattr(gaps, f"latch_{name}")
        if one is not None and two is not None and abs(one + two - room_across) > sure:
            across = fine(room_across)
            found.append(f"{name}: {fine(one)} and {fine(two)} make {fine(one + two)}, opening less leaf {across}")
    for name in ("hinge", "middle", "latch"):
        one, two = getattr(gaps, f"head_{name}"), getattr(gaps, f"floor_{name}")
        if one is not None and two is not None and abs(one + two - room_up) > sure:
            both, up = fine(one + two), fine(room_up)
            found.append(f"at the {name}: {fine(one)} over and {fine(two)} under make {both}, there are {up}")
    return found
