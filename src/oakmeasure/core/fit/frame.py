"""What a leaf hangs in, as lines with datums: what is cut there is the leaf's own cut carried over to where it hangs.

Opening coordinates: x from the hinge side's foot to the latch side, y up, mm. A place on a jamb is told down from the
corner that jamb and head make, along the jamb: from there one measures on the wood.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.figures.names import FigureName
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening


@dataclass(frozen=True, slots=True)
class Jamb:
    """The face of a side, as a straight line from its foot to the corner under the head."""

    foot: Point
    """Its lower end, mm."""
    head: Point
    """Its corner with the head, mm."""

    def at(self, y: float) -> Point:
        """Return the point of its face at a height, mm.

        Args:
            y: Up, in the opening, mm.
        """
        (ax, ay), (bx, by) = self.foot, self.head
        share = (y - ay) / (by - ay) if by != ay else 0.0
        return ax + share * (bx - ax), y

    def down(self, y: float) -> float:
        """Return how far a height lies down from the head, along the face, mm; less than 0 above it.

        Args:
            y: Up, in the opening, mm.
        """
        x, _ = self.at(y)
        return math.copysign(math.hypot(self.head[0] - x, self.head[1] - y), self.head[1] - y)

    def place(self, down: float) -> Point:
        """Return the point of its face that lies so far down from the head, mm.

        Args:
            down: Along the face, mm.
        """
        (ax, ay), (bx, by) = self.foot, self.head
        long = math.hypot(bx - ax, by - ay)
        return bx + (ax - bx) * down / long, by + (ay - by) * down / long


@dataclass(frozen=True, slots=True)
class Frame:
    """A lining, or the opening of a cabinet, with a leaf where it hangs in it."""

    hinge: Jamb
    """The side that carries the hinges."""
    latch: Jamb
    """The side that it shuts to."""
    leaf_at: Point
    """The leaf's hinge edge and foot, mm."""
    tops: tuple[float, float]
    """Upper ends of the leaf's hinge edge and of its latch edge, up from its foot, mm."""

    def jamb(self, edge: str) -> Jamb:
        """Return the side that an edge of the leaf stands at.

        Args:
            edge: "hinge" or "latch".
        """
        return self.hinge if edge == "hinge" else self.latch

    def top(self, edge: str) -> float:
        """Return the upper end of an edge of the leaf, up from its foot, mm.

        Args:
            edge: "hinge" or "latch".
        """
        return self.tops[0] if edge == "hinge" else self.tops[1]

    def carried(self, edge: str, y: float) -> float:
        """Return where something on an edge of the leaf comes on its jamb: down from the head there, mm.

        Args:
            edge: "hinge" or "latch".
            y: Up the leaf, mm.
        """
        return self.jamb(edge).down(self.leaf_at[1] + y)

    def head_gap(self, edge: str) -> float:
        """Return what is between the top of an edge of the leaf and the head, down its jamb, mm; less over it.

        Args:
            edge: "hinge" or "latch".
        """
        return self.carried(edge, self.top(edge))


def frame_of(opening: Opening, fit: Fit) -> Frame:
    """Return what a leaf hangs in.

    Args:
        opening: The clear opening, with its lining.
        fit: The leaf's size and where it hangs.
    """
    return Frame(
        Jamb(opening.hinge_foot, opening.hinge_head),
        Jamb(opening.latch_foot, opening.latch_head),
        (fit.x_hinge_edge, fit.y_foot),
        (edge_top(fit, "hinge"), edge_top(fit, "latch")),
    )


def edge_top(fit: Fit, edge: str) -> float:
    """Return the upper end of an edge of the leaf, up from its foot, mm: under a raked head the two differ.

    Args:
        fit: Size of the leaf and its outline, mm.
        edge: "hinge" or "latch".
    """
    if len(fit.outline) < 3:
        return fit.height.value
    return _top_at(fit.outline, min(x for x, _ in fit.outline) if edge == "hinge" else max(x for x, _ in fit.outline))


def _top_at(outline: Sequence[Point], x: float) -> float:
    """Return the highest of an outline at one of its sides, mm, scribed as that may be."""
    half = (max(y for _, y in outline) + min(y for _, y in outline)) / 2
    upper = [each for each in outline if each[1] > half] or list(outline)
    return min(upper, key=lambda each: (abs(each[0] - x), -each[1]))[1]


def add_head_gap(ctx: Context, frame: Frame, edge: str) -> Figure:
    """Add what is between the top of an edge of the leaf and the head, as one measures it down that jamb.

    Args:
        ctx: The leaf's context: its figures are added to.
        frame: What the leaf hangs in.
        edge: "hinge" or "latch".
    """
    name: FigureName = "head_gap_hinge" if edge == "hinge" else "head_gap_latch"
    known = ctx.figures.get(name)
    if known is not None:
        return known
    inputs = [each for each in (ctx.figures.get("clear_height"), ctx.figures.get("gap_head")) if each is not None]
    return ctx.figures.derived(
        name,
        f"from the top of the leaf's {edge} edge to the head, on the {edge} jamb",
        frame.head_gap(edge),
        *inputs,
        formula="from the corner of jamb and head down to the leaf where it hangs",
    )
