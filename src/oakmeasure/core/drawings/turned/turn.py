"""From where a leaf is seen, how far it is taken apart, and where it is cut open."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any

from oakmeasure.core.base.convex_cells import Point3

CUT_HANDLE = "handle:cut"
YAW, PITCH = 32.0, 16.0  # degrees from which a leaf is seen first
MOST_PITCH = 88.0


class CutWay(StrEnum):
    """Which way the plane stands that cuts a leaf open."""

    NONE = "whole"
    UPRIGHT = "cut upright"
    LEVEL = "cut level"
    THROUGH = "cut through its thickness"

    @property
    def axis(self) -> int:
        """Number of the axis that the plane is square to: 0 across, 1 up, 2 in from the opening face."""
        return {CutWay.UPRIGHT: 0, CutWay.LEVEL: 1}.get(self, 2)


@dataclass(frozen=True, slots=True)
class Turn:
    """A view of a leaf from any side, from far away."""

    yaw: float = YAW
    """How far it is turned about its height, degrees; 0: the opening face in front."""
    pitch: float = PITCH
    """How far one looks down on it, degrees."""
    apart: float = 0.0
    """How far it is taken apart: 0 whole, 1 all of it."""
    cut: CutWay = CutWay.NONE
    """Which way it is cut open."""
    cut_at: float = 0.5
    """Where, as a share of the leaf that way: what lies beyond towards the viewer is taken off."""
    is_mirrored: bool = False
    """Whether the hinges are on the right."""

    def turned(self, yaw: float, pitch: float) -> Turn:
        """Return it turned further.

        Args:
            yaw: About its height, degrees.
            pitch: How much further down one looks, degrees.
        """
        around = (self.yaw + yaw + 180.0) % 360.0 - 180.0
        return replace(self, yaw=around, pitch=min(max(self.pitch + pitch, -MOST_PITCH), MOST_PITCH))

    @property
    def _side(self) -> float:
        return -1.0 if self.is_mirrored else 1.0

    @property
    def onto(self) -> Any:
        """Matrix that turns places of the leaf (across, up, in) into places of the picture (right, up)."""
        import numpy as np  # it takes its time to load, and few turn a leaf at once

        yaw, pitch = math.radians(self.yaw), math.radians(self.pitch)
        s = self._side
        return np.array(
            [
                [s * math.cos(yaw), -s * math.sin(yaw) * math.sin(pitch)],
                [0.0, math.cos(pitch)],
                [math.sin(yaw), math.cos(yaw) * math.sin(pitch)],
            ]
        )

    @property
    def away(self) -> Point3:
        """The direction in which one looks, as across, up and in; of length 1."""
        yaw, pitch = math.radians(self.yaw), math.radians(self.pitch)
        return -self._side * math.sin(yaw) * math.cos(pitch), -math.sin(pitch), math.cos(yaw) * math.cos(pitch)

    def light(self, normal: Point3) -> float:
        """Return how much light falls on a side, 0 to 1: from the left, from above and from behind the viewer.

        Args:
            normal: Of the side, of length 1.
        """
        right, up = (sum(a * b for a, b in zip(normal, column, strict=True)) for column in self.onto.T)
        front = -sum(a * b for a, b in zip(normal, self.away, strict=True))
        return min(max(0.42 * front + 0.45 * up - 0.32 * right + 0.5, 0.0), 1.0)
