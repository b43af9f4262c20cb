"""Practice: a crooked door with known faults, by a seed; the remedy that somebody finds, its score and its working."""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.units import IN_MM, Show
from oakmeasure.core.document.adjustment import PutRight
from oakmeasure.core.hanging.gap_remedy import Found, GapPlace, HungFrame, moved, put_right
from oakmeasure.core.hanging.rigid import Motion, motion_of, packed_at

TOLERANCE = 0.5
WANTED = {"hinge": 2.0, "latch": 3.0, "head": 2.0, "floor": 6.0}
STEP = 0.25  # of packing in a drill, mm
# Points: a gap that binds; wood too many, a mm; a mm off
SPOILT = 25.0
WOOD_COSTS = 15.0
OFF_COSTS = 30.0


@dataclass(frozen=True, slots=True)
class Drill:
    """A crooked door to practise on."""

    seed: int
    """Gives the same door again."""
    frame: HungFrame
    """Width, height and hinges of the leaf as it hangs."""
    faults: tuple[float, ...]
    """What each hinge was set wrong by, from the top, mm (what would put it right is their opposite)."""
    swollen: float
    """How much too full the latch edge is, mm."""
    places: tuple[GapPlace, ...]
    """The gaps as read."""

    @property
    def found(self) -> Found:
        """Return what the solver finds."""
        answer = put_right(self.places, self.frame, tolerance=TOLERANCE)
        assert answer is not None
        return answer


def drill(seed: int) -> Drill:
    """Return the door of a seed.

    Two or three butts, one or two of them wrong, every third door too full at the latch.

    Args:
        seed: Of the random numbers; the same one gives the same draws.
    """
    source = random.Random(seed)
    width, height = float(source.randrange(620, 900, 2)), float(source.randrange(1900, 2080, 2))
    low, high = 275.0, height - 200.0
    hinges = (high, low) if source.random() < 0.4 else (high, (high + low) / 2, low)
    frame = HungFrame(width, height, hinges, 2.0, 1.0)
    swollen = source.choice((0.0, 0.0, 1.0, 1.5)) if seed % 3 == 0 else 0.0
    while True:
        ends = [STEP * source.randrange(-6, 5) for _ in range(2)]
        turn = (ends[1] - ends[0]) / (high - low)
        wrong = Motion(ends[1] + turn * low, 0.0, turn)
        faults = packed_at(wrong, hinges)
        if max(map(abs, ends)) >= 0.75 and all(-2.0 <= each <= 1.0 for each in faults):
            break
    return Drill(seed, frame, faults, swollen, _places(frame, wrong, swollen))


def _places(frame: HungFrame, wrong: Motion, swollen: float) -> tuple[GapPlace, ...]:
    up = {"top": frame.height, "middle": frame.height / 2, "bottom": 0.0}
    along = {"hinge": 0.0, "middle": frame.width / 2, "latch": frame.width}
    found = []
    for side, stations in (("hinge", up), ("latch", up), ("head", along)):
        for name, at in stations.items():
            true = GapPlace(side, name, at, WANTED[side], WANTED[side])
            gap = moved(true, wrong) - (swollen if side == "latch" else 0.0)
            found.append(GapPlace(side, name, at, round(max(gap, 0.0), 2), WANTED[side]))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class Score:
    """wood: planed, mm at the latch."""

    points: int
    """Points, of 100."""
    worst: float
    """Of the gaps then, mm off."""
    after: tuple[float, ...]
    """The gaps after the remedy, mm."""
    working: tuple[str, ...]
    """How it came about."""


def score(door: Drill, packed: Sequence[float], planed: float, show: Show = IN_MM) -> Score:
    """Return what a remedy is worth.

    Args:
        door: The drill's crooked door.
        packed: What each hinge is packed by from the top, mm, less than 0 let in deeper; the outer two count, a
            middle one that does not lie between them binds.
        planed: What is planed off the latch edge, mm.
        show: How lengths and other quantities are written.

    Raises:
        ValueError: Unless there is one value for each hinge.
    """
    hinges = door.frame.hinges
    if len(packed) != len(hinges):
        raise ValueError(f"{len(hinges)} hinges, {len(packed)} values")
    high, low = hinges[0], hinges[-1]
    motion = motion_of(low=low, low_packed=packed[-1], high=high, high_packed=packed[0])
    after = tuple(moved(place, motion) + (planed if place.side == "latch" else 0.0) for place in door.places)
    worst = max(abs(gap - place.wanted) for gap, place in zip(after, door.places, strict=True))
    best = door.found.plan(PutRight.LEAST_WOOD)
    needed = max(
        (off for place, off in zip(door.places, best.planed, strict=True) if place.side == "latch"), default=0.0
    )
    working, points = [f"worst gap {show.fine(worst)} off, it could be {show.fine(best.worst)}"], 100.0
    beyond = max(worst - max(best.worst, TOLERANCE), 0.0)
    points -= OFF_COSTS * beyond
    if beyond > 0:
        working.append(f"{show.fine(beyond)} beyond what was possible: −{OFF_COSTS * beyond:.0f}")
    spare = max(planed - needed - 0.1, 0.0)
    points -= WOOD_COSTS * spare
    if spare > 0:
        working.append(f"{show.fine(spare)} of wood that could have stayed: −{WOOD_COSTS * spare:.0f}")
    if min(after) < 0.0:
        points -= SPOILT
        working.append(f"it binds: a gap of {show.fine(min(after))}: −{SPOILT:.0f}")
    if len(hinges) > 2 and abs(packed[1] - motion.across_at(hinges[1])) > 0.3:
        points -= SPOILT
        off = show.fine(packed[1] - motion.across_at(hinges[1]), signed=True)
        working.append(f"the middle hinge is {off} out of line: −{SPOILT:.0f}")
    over = [each for each in packed if each > door.frame.pack + 1e-9 or -each > door.frame.let_in + 1e-9]
    if over:
        points -= SPOILT
        working.append(f"{show.fine(over[0], signed=True)} is more than a hinge is packed or let in: −{SPOILT:.0f}")
    return Score(max(round(points), 0), worst, after, tuple(working))
