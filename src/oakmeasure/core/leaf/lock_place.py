"""How high a lock is wished on a leaf: as it is asked, if the leaf is tall enough for that."""

from __future__ import annotations

LOCK_END = 40.0  # from a case to the leaf's end: common practice, no source


def lock_wish(up: float, tall: float, height: float) -> float:
    """Return how far up the leaf a lock is wished, mm: as asked, or half way up a leaf that is too low for that.

    Args:
        up: As asked, mm.
        tall: Height of its case, mm.
        height: Height of the leaf, mm.
    """
    return up if tall / 2 + LOCK_END <= up <= height - tall / 2 - LOCK_END else height / 2
