"""Where loose tenons and dowels stand along the joints of a slab."""

from __future__ import annotations

import math
from collections.abc import Sequence

TENON_CLEAR = 5.0  # mm of wood between a loose tenon and a dado: common practice, no source
FIRST_TENON = 100.0  # from an end: common practice, no source


def clear_of(places: Sequence[float], zones: Sequence[tuple[float, float]]) -> list[float]:
    """Return places along a joint, those in a zone moved to its nearer end: no dado cuts through what holds there.

    Args:
        places: Up from the foot, mm.
        zones: From where to where none may stand, mm.

    >>> clear_of([100.0, 400.0], [(380.0, 430.0)])
    [100.0, 380.0]
    """
    found = []
    for place in places:
        zone = next(((low, high) for low, high in zones if low < place < high), None)
        found.append(place if zone is None else min(zone, key=lambda end: abs(end - place)))
    return found


def tenon_places(*, height: float, every: float) -> list[float]:
    """Return where loose tenons stand along a joint, mm up from the foot, none further apart than `every`.

    Args:
        height: Height, mm.
        every: The most between two of them, mm.

    >>> tenon_places(height=800, every=300)
    [100.0, 400.0, 700.0]
    """
    first = min(FIRST_TENON, height / 4)
    steps = max(1, math.ceil((height - 2 * first) / every - 1e-9))
    return [first + at * (height - 2 * first) / steps for at in range(steps + 1)]
