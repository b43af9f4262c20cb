"""Sums of hardware that need no leaf: cup hinges, how deep a butt is let in, what a screw holds."""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError

# 0 = reach − crank + boring − plate − overlay: how each figure counts in it.
SIGNS = {"overlay": -1, "reach": 1, "crank": -1, "boring": 1, "plate": -1}


def solve_cup(
    *, overlay: float | None, reach: float | None, crank: float | None, boring: float | None, plate: float | None
) -> dict[str, float]:
    """Return all five figures, mm, the one that is None worked out from the others.

    Source: overlay = reach − crank + boring − plate.

    Args:
        overlay: How far the leaf lies over the side's front edge, mm; None where it is asked for.
        reach: Overlay of the straight arm at no boring distance and no plate, mm; None where it is asked for.
        crank: What the arm's crank takes off, mm; None where it is asked for.
        boring: From the leaf's edge to the cup's edge, mm.
        plate: Height of the mounting plate, mm; None where it is asked for.

    Raises:
        InputError: Unless exactly one is None.

    >>> solve_cup(overlay=16, reach=11, crank=0, boring=None, plate=0)["boring"]
    5
    """
    known = {"overlay": overlay, "reach": reach, "crank": crank, "boring": boring, "plate": plate}
    missing = [name for name, value in known.items() if value is None]
    if len(missing) != 1:
        raise InputError("unknown", ", ".join(missing) or "none", "exactly one figure to work out")
    (unknown,) = missing
    rest = sum(SIGNS[name] * value for name, value in known.items() if value is not None)
    return {name: -SIGNS[unknown] * rest if value is None else value for name, value in known.items()}


def mortise_depth(*, closed: float, gap: float) -> float:
    """Return how deep a butt is let in, leaf and lining each, mm: half of what it is thicker than the gap.

    Args:
        closed: Thickness of the butt when it is closed, mm.
        gap: Gap at the hinge edge, mm.

    >>> mortise_depth(closed=5.5, gap=2)
    1.75
    """
    return (closed - gap) / 2


def withdrawal(*, gravity: float, diameter: float, thread: float) -> float:
    """Return what a wood screw bears along itself before it pulls out, N: 108.25·G²·D·L.

    diameter, thread in the solid wood: mm. Across the grain only. Not rounded.

    Args:
        gravity: Oven-dry mass over volume at 12 %.
        diameter: Of the hole or the screw, mm.
        thread: Length of thread in the solid wood, mm.

    Raises:
        InputError: Outside 0 < G < 1.2 or for sizes that are not positive.

    >>> round(withdrawal(gravity=0.42, diameter=4.2, thread=20))
    1604
    """
    if not 0 < gravity < 1.2:
        raise InputError("gravity", gravity, "more than 0 and less than 1.2")
    if diameter <= 0 or thread <= 0:
        raise InputError("thread", thread, "more than 0")
    return 108.25 * gravity**2 * diameter * thread
