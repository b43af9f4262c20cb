"""How a leaf moves when its hinges do: a rigid plate in its plane, small turns.

x from the hinge edge to the latch, y up from the foot. A leaf that is shifted by `across` at its foot, lifted by `up`
at its hinge edge and turned by `turn` (radians, less than a few degrees; more than 0 raises the latch edge) moves

    to the latch, at a height y:    across − turn · y
    up, at a distance x:            up + turn · x

Source: rotation of a rigid body, small angles. So packing behind the lower hinge turns the latch edge up.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Motion:
    """How a rigid leaf moves, mm."""

    across: float = 0.0
    """Of the foot's hinge corner towards the latch."""
    up: float = 0.0
    """Of the same, mm."""
    turn: float = 0.0
    """Turn, radians, the latch edge up."""

    def across_at(self, y: float) -> float:
        """Return how far the leaf goes to the latch at a height, mm.

        Args:
            y: Up, from the foot, mm.
        """
        return self.across - self.turn * y

    def up_at(self, x: float) -> float:
        """Return how far it goes up at a distance from its hinge edge, mm.

        Args:
            x: From the hinge edge towards the latch, mm.
        """
        return self.up + self.turn * x


def motion_of(*, low: float, low_packed: float, high: float, high_packed: float) -> Motion:
    """Return how a leaf moves when two of its hinges are packed, mm; less than 0: let in deeper.

    Args:
        low: Height of the lower hinge over the foot, mm.
        low_packed: What the lower hinge is packed by, mm.
        high: Height of the upper hinge over the foot, mm.
        high_packed: What the upper hinge is packed by, mm.

    Raises:
        ZeroDivisionError: For two at one height.

    >>> round(motion_of(low=200, low_packed=1, high=1800, high_packed=0).up_at(762), 5)
    0.47625
    """
    turn = (low_packed - high_packed) / (high - low)
    return Motion(low_packed + turn * low, 0.0, turn)


def packed_at(motion: Motion, heights: Sequence[float]) -> tuple[float, ...]:
    """Return what each hinge must be packed for a motion, mm, so that none of them binds.

    Args:
        motion: How the leaf moves.
        heights: Where hinges are, up the leaf, mm.
    """
    return tuple(motion.across_at(y) for y in heights)
