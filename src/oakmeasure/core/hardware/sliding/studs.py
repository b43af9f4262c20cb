"""Track holes and what is behind them: the best shift, holes drilled anew, all by exact search. Lengths in mm.

Everything is measured along the track from its hinge end as it is first held up.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from oakmeasure.core.base.errors import InputError

FREE_END = 0.75  # of the pitch: a cut end that is longer gets a hole: common practice, no source
END = 25.0  # of a track beyond its last hole: common practice, no source
CLOSE = 1e-9


def track_holes(*, length: float, first: float, pitch: float) -> tuple[float, ...]:
    """Return a track's holes once it is cut to length: every pitch from the first, and one near the cut end.

    The last whole one may leave a long free end; then one is drilled as far from that end as the first is from
    its own.

    Args:
        length: Length of the track, mm.
        first: From the track's end to its first hole, mm.
        pitch: From hole to hole, mm.

    Raises:
        InputError: For a pitch that is not positive or a track shorter than twice the first hole.

    >>> track_holes(length=1910, first=50, pitch=400)
    (50, 450, 850, 1250, 1650)
    """
    if pitch <= 0:
        raise InputError("hole_pitch", pitch, "more than 0")
    if length < 2 * first:
        raise InputError("track", length, f"at least twice the first hole, {2 * first:g} mm")
    found = [first]
    while found[-1] + pitch <= length - END + CLOSE:
        found.append(found[-1] + pitch)
    if length - found[-1] > max(FREE_END * pitch, first + END):
        found.append(length - first)
    return tuple(found)


def stud_places(*, first: float, pitch: float, low: float, high: float) -> tuple[float, ...]:
    """Return the middles of all studs between two places, from one of them and their pitch.

    Args:
        first: Place of one stud's middle along the wall, mm.
        pitch: From middle to middle, mm.
        low: Where the wall begins, mm.
        high: Where the wall ends, mm.

    >>> stud_places(first=130, pitch=406, low=-300, high=600)
    (-276, 130, 536)
    """
    if pitch <= 0:
        raise InputError("stud_pitch", pitch, "more than 0")
    start = first - pitch * int((first - low) // pitch)
    found = []
    while start <= high:
        found.append(start)
        start += pitch
    return tuple(found)


def margin(place: float, studs: Sequence[float], width: float) -> float:
    """Return how far inside wood a hole lies, mm, from the nearer edge of its stud; less than 0 beside all of them.

    Args:
        place: Place of the hole along the wall, mm.
        studs: Where the studs' middles are along the wall, rising, mm.
        width: Width of a stud, mm.

    >>> margin(110.0, (100.0, 500.0), 38.0), margin(300.0, (100.0, 500.0), 38.0)
    (9.0, -181.0)
    """
    if not studs:
        return -1e9
    at = bisect_left(studs, place)
    near = min(abs(place - each) for each in studs[max(at - 1, 0) : at + 1])
    return width / 2 - near


@dataclass(frozen=True, slots=True)
class Alignment:
    """How the holes of a track lie to the studs."""

    shift: float
    """How far the track is shifted, mm."""
    least: float
    """Of its holes' margins, mm."""
    hits: int
    """Of them that are held."""


def alignment(holes: Sequence[float], studs: Sequence[float], *, width: float, edge: float, shift: float) -> Alignment:
    """Return how the holes lie when the track is shifted by so much.

    Args:
        holes: Places of the track's holes, from its left end, mm.
        studs: Where studs stand along the wall, mm.
        width: Width of a stud, mm.
        edge: Wood wanted beside a hole's middle, mm.
        shift: How far the track is moved along the wall, mm.
    """
    found = [margin(each + shift, studs, width) for each in holes]
    return Alignment(shift, min(found, default=0.0), sum(each >= edge - CLOSE for each in found))


def best_shift(holes: Sequence[float], studs: Sequence[float], *, width: float, edge: float, reach: float) -> Alignment:
    """Return the shift within ± reach that holds the most holes.

    If all, the one with the greatest least margin; of these the shortest.

    Exact: a hole is gained or lost where its margin is `edge`; the least margin of all is a piecewise straight
    line with its peaks where one hole meets a stud's middle, or two are as far off theirs, one to each side.
    Source: geometry.

    Args:
        holes: Places of the track's holes, from its left end, mm.
        studs: Where studs stand along the wall, mm.
        width: Width of a stud, mm.
        edge: Wood wanted beside a hole's middle, mm.
        reach: How far the track may be shifted, either way, mm.

    Raises:
        InputError: For no holes.
    """
    if not holes:
        raise InputError("holes", "none", "at least one hole")
    middles = sorted({stud - hole for hole in holes for stud in studs})
    middles = [each for each in middles if abs(each) <= reach + width]
    tries = {0.0, -reach, reach, *middles}
    tries |= {each + side * (width / 2 - edge) for each in middles for side in (-1.0, 1.0)}
    tries |= {(a + b) / 2 for at, a in enumerate(middles) for b in middles[at + 1 :] if b - a <= width}
    found = [
        alignment(holes, studs, width=width, edge=edge, shift=each) for each in tries if abs(each) <= reach + CLOSE
    ]
    return max(found, key=lambda each: _rank(each, len(holes)))


def _rank(found: Alignment, count: int) -> tuple[int, float, float]:
    least = round(found.least, 6) if found.hits == count else 0.0
    return found.hits, least, -abs(found.shift)


def redrilled(*, length: float, studs: Sequence[float], apart: float) -> tuple[float, ...]:
    """Return where a track is drilled anew, one hole before each stud that it passes.

    () where it cannot hold there.

    Args:
        length: Length of the track, mm.
        studs: Where studs stand along the wall, mm.
        apart: The most between two holes, and half of it free at an end, mm.

    >>> redrilled(length=1000, studs=(-276.0, 130.0, 536.0, 942.0), apart=610.0)
    (130.0, 536.0, 942.0)
    """
    found = tuple(each for each in studs if END <= each <= length - END)
    if len(found) < 2:
        return ()
    gaps = [b - a for a, b in pairwise(found)]
    free = max(found[0], length - found[-1])
    return found if max(gaps) <= apart and free <= apart else ()
