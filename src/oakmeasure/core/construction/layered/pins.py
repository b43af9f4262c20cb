"""Pins that hold layers together: how long, and where they go."""

from __future__ import annotations

from oakmeasure.core.leaf.part import Rect

# Lengths in which panel pins are commonly sold, mm: common practice, no source.
PINS = (10.0, 13.0, 15.0, 18.0, 20.0, 25.0, 30.0, 40.0, 50.0)
PIN_SHORT_OF = 2.0  # of the two layers that it holds together: common practice, no source
# From a member's edge; wider members take two rows: common practice, no source
PIN_IN = 25.0
TWO_ROWS = 90.0


def pin_for(layers: float) -> float | None:
    """Return the longest pin that stays 2 short of the layers that it goes through, mm; None where none does.

    Args:
        layers: Thickness of all layers that it goes through, mm.

    >>> pin_for(24.0)
    20.0
    """
    return max((each for each in PINS if each <= layers - PIN_SHORT_OF + 1e-9), default=None)


def pin_places(face: Rect, every: float) -> list[tuple[float, float]]:
    """Return where pins go in a member: 25 from its edges, in rows no further apart than `every`.

    Where it is wide there are two rows at least. All mm.

    Args:
        face: What is seen of it in the finished leaf, mm.
        every: The most between two rows, mm.

    >>> pin_places(Rect(0, 0, 50, 200), 150)
    [(25.0, 25.0), (25.0, 175.0)]
    """

    def along(low: float, high: float, least: int) -> list[float]:
        first, last = low + PIN_IN, high - PIN_IN
        if last - first < 1.0 or (high - low < TWO_ROWS and least == 1):
            return [(low + high) / 2]
        steps = max(1, -int(-(last - first) // every))
        return [first + at * (last - first) / steps for at in range(steps + 1)]

    wide, tall = face.width, face.height
    xs = along(face.x0, face.x1, 1 if wide <= tall else 2)
    ys = along(face.y0, face.y1, 1 if tall < wide else 2)
    return [(x, y) for x in xs for y in ys]
