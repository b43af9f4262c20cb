"""How boards and lines share a width."""

from __future__ import annotations

import math

from oakmeasure.core.base.errors import InputError


def board_count(*, width: float, cover: float, groove: float) -> int:
    """Return the fewest boards that make a width: the least n with n·cover − groove ≥ width.

    Args:
        width: Width of the leaf, mm.
        cover: What one board shows, its gap with it, mm.
        groove: Depth of the groove that a tongue goes into, mm; 0 for square edges.

    Raises:
        InputError: For a cover that is not more than the groove.

    >>> board_count(width=742, cover=112, groove=6)
    7
    """
    if cover <= groove or cover <= 0:
        raise InputError("cover", cover, f"more than the groove, {groove:g} mm")
    return max(1, math.ceil((width + groove) / cover - 1e-9))


def equal_ends(*, width: float, cover: float, count: int) -> float:
    """Return the width of both end boards when they are ripped alike: (width − (n − 2)·cover)/2, mm.

    Args:
        width: Width, mm.
        cover: What a whole board shows, its gap with it, mm.
        count: How many there are.

    >>> equal_ends(width=742, cover=112, count=7)
    91.0
    """
    return width if count == 1 else (width - (count - 2) * cover) / 2


def pitch_between(*, width: float, band: float, count: int) -> float:
    """Return how far apart V lines stand: (W − 2·band)/(n − 1), the band to the outer line's middle; mm.

    Args:
        width: Width, mm.
        band: From the edge to the middle of the outer line, mm.
        count: How many there are.

    >>> round(pitch_between(width=832, band=72, count=7), 3)
    114.667
    """
    return (width - 2 * band) / (count - 1)


def even_split(*, total: float, count: int, step: float = 1.0) -> tuple[float, float]:
    """Return (off each of `count` panels in whole steps, what is left over for the middle ones), mm.

    Args:
        total: Off all of them together, mm, 0 or more.
        count: How many panels share it.
        step: It is shared out in whole ones of it, mm.

    Raises:
        InputError: For fewer panels than one.

    >>> even_split(total=25, count=3)
    (8.0, 1.0)
    """
    if count < 1:
        raise InputError("panels", count, "1 or more")
    each = step * math.floor(total / count / step + 1e-9)
    return each, max(0.0, total - each * count)
