"""How far a hung leaf opens, what it hits on the way, what is left to walk through, and how its corner rises.

Coordinates are the swing's: origin at the hinge edge on the opening face, x to the latch, y into the thickness; the
pin at (−setback, −knuckle). The leaf opens towards −y, the room on the opening side.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import GRAVITY

FULL_DEG = 180.0
TOUCHING = 1e-9  # rad; what touches when shut does not stop the leaf


@dataclass(frozen=True, slots=True)
class SwingPlan:
    """A leaf on its pin, mm."""

    width: float
    """Width of the leaf on the opening face, mm."""
    thickness: float
    """Thickness of the leaf, mm."""
    knuckle: float
    """From the opening face out to the pin's centre, mm."""
    setback: float
    """From the hinge edge in to the pin's centre, mm."""
    bevel_deg: float = 0.0
    """Bevel of the latch edge towards the closing face, degrees."""

    @property
    def pin(self) -> Point:
        """The hinge's pin in plan, mm."""
        return -self.setback, -self.knuckle

    @property
    def corners(self) -> tuple[Point, ...]:
        """Return the shut leaf's corners: hinge and latch on the opening face, latch and hinge on the closing face."""
        back = self.width - self.thickness * math.tan(math.radians(self.bevel_deg))
        return (0.0, 0.0), (self.width, 0.0), (back, self.thickness), (0.0, self.thickness)

    def turned(self, degrees: float) -> tuple[Point, ...]:
        """Return the corners of the leaf opened so far.

        Args:
            degrees: How far the leaf is open, degrees from shut.
        """
        return tuple(turned(each, self.pin, degrees) for each in self.corners)


def turned(point: Point, pin: Point, degrees: float) -> Point:
    """Return a point of the leaf after it has opened by an angle.

    Args:
        point: Corner or other place of the shut leaf in plan, mm.
        pin: The hinge's pin in plan, mm.
        degrees: How far the leaf is open, degrees from shut.
    """
    turn = math.radians(degrees)
    x, y = point[0] - pin[0], point[1] - pin[1]
    return pin[0] + x * math.cos(turn) + y * math.sin(turn), pin[1] - x * math.sin(turn) + y * math.cos(turn)


def opens_to_deg(plan: SwingPlan, obstacle: Sequence[Point]) -> float:
    """Return the angle at which the opening leaf first touches an obstacle, degrees; 180 where it never does.

    Exact: each corner of one runs on a circle about the pin until it meets a side of the other.

    Args:
        plan: The leaf and the wall in plan, mm.
        obstacle: Corners of a convex outline in plan, mm, clear of the shut leaf.

    Raises:
        InputError: For fewer than three corners.
    """
    if len(obstacle) < 3:
        raise InputError("obstacle", len(obstacle), "at least three corners")
    px, py = plan.pin
    leaf = [(x - px, y - py) for x, y in plan.corners]
    still = [(x - px, y - py) for x, y in obstacle]
    # The leaf's corners turn clockwise to the obstacle's sides; seen from the leaf, its corners come the other way.
    found = [each for corner in leaf for each in _meets(corner, still, -1.0)]
    found += [each for corner in still for each in _meets(corner, leaf, 1.0)]
    return min([FULL_DEG, *(math.degrees(each) for each in found if each > TOUCHING)])


def _meets(point: Point, outline: Sequence[Point], sense: float) -> list[float]:
    """Return the turns, rad, after which a point circling the origin meets the sides of an outline."""
    radius, start = math.hypot(*point), math.atan2(point[1], point[0])
    found = []
    for at, (ax, ay) in enumerate(outline):
        bx, by = outline[(at + 1) % len(outline)]
        dx, dy = bx - ax, by - ay
        a, b, c = dx * dx + dy * dy, ax * dx + ay * dy, ax * ax + ay * ay - radius * radius
        root = b * b - a * c
        if a < 1e-18 or root < 0:
            continue
        for sign in (1.0, -1.0):
            share = (-b + sign * math.sqrt(root)) / a
            if -1e-12 <= share <= 1 + 1e-12:
                turn = math.atan2(ay + share * dy, ax + share * dx) - start
                found.append((sense * turn) % (2 * math.pi))
    return found


def clear_way(plan: SwingPlan, *, latch_gap: float, degrees: float, pull: float = 0.0) -> float:
    """Return what is left to walk through with the leaf opened so far, mm.

    Up to 90° from the latch jamb's edge to the nearest of the leaf, from then on square across the opening. At
    90° it is width + gap − (thickness + knuckle − setback). Not rounded.

    Args:
        plan: The leaf and the wall in plan, mm.
        latch_gap: At the latch, mm.
        degrees: How far the leaf is open, degrees from shut.
        pull: How far a handle stands out of the leaf into the way, mm; counts from 90° on.

    >>> round(clear_way(SwingPlan(762, 35, 6, 1), latch_gap=3, degrees=90), 6)
    725.0
    """
    jamb = (plan.width + latch_gap, 0.0)
    if degrees >= 90:
        return jamb[0] - max(x for x, _ in plan.turned(degrees)) - pull
    return math.dist(jamb, nearest_of_leaf(plan, jamb, degrees))


def nearest_of_leaf(plan: SwingPlan, point: Point, degrees: float) -> Point:
    """Return the place on the opened leaf's outline that is nearest to a point.

    Args:
        plan: The leaf and the wall in plan, mm.
        point: The place in plan that is asked about, mm.
        degrees: How far the leaf is open, degrees from shut.
    """
    corners = plan.turned(degrees)
    sides = zip(corners, (*corners[1:], corners[0]), strict=True)
    return min((_nearest(point, a, b) for a, b in sides), key=lambda each: math.dist(each, point))


def _nearest(point: Point, a: Point, b: Point) -> Point:
    dx, dy = b[0] - a[0], b[1] - a[1]
    square = dx * dx + dy * dy
    share = 0.0 if square == 0 else ((point[0] - a[0]) * dx + (point[1] - a[1]) * dy) / square
    share = min(max(share, 0.0), 1.0)
    return a[0] + share * dx, a[1] + share * dy


def corner_rise(*, width: float, lean_latch: float, lean_out: float, degrees: float) -> float:
    """Return by how much the latch corner rises as the leaf opens on a hinge line out of plumb, mm.

    w·(a(1 − cos θ) − c·sin θ). Not rounded. Source: rotation about a leaning axis, small leans.

    Args:
        width: Width, mm.
        lean_latch: Lean of the hinge line to the latch side, mm per mm of height.
        lean_out: Lean of the hinge line to the swing side, mm per mm of height.
        degrees: How far the leaf is open, degrees from shut.

    >>> round(corner_rise(width=762, lean_latch=4 / 2000, lean_out=3 / 2000, degrees=180), 2)
    3.05
    """
    turn = math.radians(degrees)
    return width * (lean_latch * (1 - math.cos(turn)) - lean_out * math.sin(turn))


def self_swing_nm(*, mass: float, width: float, lean: float) -> float:
    """Return the torque with which a leaf swings by itself on a leaning hinge line, N·m: m·g·(w/2)·lean.

    Args:
        mass: Of the leaf, kg.
        width: Width, mm.
        lean: Lean of the hinge line square to the leaf, mm per mm of height.

    >>> round(self_swing_nm(mass=40, width=762, lean=3 / 2000), 3)
    0.224
    """
    return mass * GRAVITY * width / 2000 * lean


@dataclass(frozen=True, slots=True)
class Easing:
    """Of a leaf on rising hinges: the top edge is eased for `length` mm from the hinge; it has cleared at `degrees`."""

    degrees: float
    """How far the leaf is open where it is free, degrees."""
    length: float
    """How far it is eased from the hinge edge, mm."""


def rising_easing(*, lift: float, gap: float, thickness: float, knuckle: float, setback: float) -> Easing:
    """Return where the top of a leaf on rising hinges must be eased, mm from the hinge edge.

    θ = 90·gap/lift is where the leaf has used up its gap; until then the part nearest the hinge is still under
    the head: x = ((t + p)·cos θ − p)/sin θ − s. Not rounded; 0 where nothing is.

    Args:
        lift: At 90°, mm.
        gap: At the head, mm.
        thickness: Thickness of the leaf, mm.
        knuckle: How far the pin stands in front of the opening face, mm.
        setback: How far the pin stands in from the leaf's hinge edge, mm.

    Raises:
        InputError: For a lift that is not positive.

    >>> round(rising_easing(lift=12, gap=2, thickness=35, knuckle=6, setback=1).length, 1)
    128.8
    """
    if lift <= 0 or gap <= 0:
        raise InputError("lift" if lift <= 0 else "gap", min(lift, gap), "more than 0")
    degrees = 90 * gap / lift
    if degrees >= 90:
        return Easing(90.0, 0.0)
    turn = math.radians(degrees)
    return Easing(degrees, max(0.0, ((thickness + knuckle) * math.cos(turn) - knuckle) / math.sin(turn) - setback))
