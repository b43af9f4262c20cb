"""Where places of a leaf lie in its picture, and how large that is."""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.base.convex_cells import Point3
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.drawings.turned.scene import Scene
from oakmeasure.core.drawings.turned.turn import Turn
from oakmeasure.core.leaf.part import Rect

MARGIN = 0.04  # of the picture's height, about it


@dataclass(frozen=True, slots=True)
class PictureFrame:
    """Where places of the leaf lie in the picture, and how large that is."""

    onto: tuple[tuple[float, float], ...]
    """Matrix from across, up and in to right and up."""
    middle: Point3
    """What stands in the picture's middle, mm."""
    half: tuple[float, float]
    """Half its width and its height, whichever way the leaf is turned, mm."""
    lines: float
    """Lines of text that its height has room for."""
    scale: float = 1.0
    """How many times larger than the leaf it is drawn."""
    shift: Point = (0.0, 0.0)
    """Where its middle stands on the drawing, mm."""

    @staticmethod
    def about(scene: Scene, turn: Turn, lines: float) -> PictureFrame:
        """Return it about all that is shown, large enough for every turn about its height.

        Args:
            scene: The leaf's pieces in space.
            turn: From where they are seen.
            lines: Of text, that its height has room for.
        """
        sizes = [b - a for a, b in zip(scene.low, scene.high, strict=True)]
        middle = tuple((a + b) / 2 for a, b in zip(scene.low, scene.high, strict=True))
        wide = math.hypot(sizes[0], sizes[2]) / 2
        high = max(sizes[1] / 2 * (1 + 2 * MARGIN) + 0.3 * wide * math.cos(math.radians(turn.yaw)) ** 2, 0.6 * wide)
        return PictureFrame(tuple(map(tuple, turn.onto.tolist())), middle, (wide, high), lines)  # type: ignore[arg-type]

    @property
    def step(self) -> float:
        """Height of a line of text, mm."""
        return 2 * self.half[1] / self.lines

    @property
    def bounds(self) -> Rect:
        """What the picture takes up, mm."""
        wide, high = self.half
        return Rect(-wide, -high, wide, high)

    def at(self, point: Point3) -> Point:
        """Return where a place of the leaf lies in the picture, mm.

        Args:
            point: Across, up and in, mm.
        """
        (a, b), (c, d), (e, f) = self.onto
        x, y, z = (self.scale * (p - m) for p, m in zip(point, self.middle, strict=True))
        return a * x + c * y + e * z + self.shift[0], b * x + d * y + f * z + self.shift[1]
