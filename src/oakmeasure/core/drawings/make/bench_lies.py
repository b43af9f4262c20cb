"""How the work lies on the bench: which face or edge looks up, and where its head is."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.document.job import Hand
from oakmeasure.core.leaf.part import Build, Part, Rect
from oakmeasure.core.making.operation import Operation, SideUp
from oakmeasure.core.solution import LeafSolution

# Where the work lies on the sheet
WIDE = 1080.0
LEFT = 40.0
LOW = 336.0
HIGH = 500.0
LEAST = 0.6  # of the room across, so that a thin member is seen: then it is drawn wider than to scale, and it says so
EDGES = (SideUp.HINGE_EDGE, SideUp.LATCH_EDGE, SideUp.INNER_EDGE)


@dataclass(frozen=True, slots=True)
class Lies:
    """How the work lies: from the leaf's coordinates to the bench.

    upright: its grain runs along the leaf's height.
    """

    long: float
    """Length of what is drawn, mm."""
    across: float
    """Width of what is drawn, mm."""
    left: str
    """What its left end is."""
    right: str
    """What its right end is."""
    near: str
    """What is towards the one who works."""
    up: str
    """Which side lies up, in words."""
    flip_long: bool
    """Whether it is turned end for end."""
    flip_across: bool
    """Whether it is turned over about its length."""
    box: Rect
    """What is seen, mm."""
    by_depth: bool
    """Whether an edge is seen, its depth across."""
    level: bool
    """Whether its length lies level."""


def lies(leaf: LeafSolution, build: Build, op: Operation) -> Lies | None:
    """Return how the work of an operation lies; None where nothing lies on the bench.

    Args:
        leaf: The leaf, worked out to the end.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        op: The operation; None for none.
    """
    if op.hold is None:
        return None
    hold = op.hold
    part = next((p for p in build.parts if p.name == hold.part), None) if hold.part else None
    box = part.outline if part is not None else Rect(0.0, 0.0, build.width, build.height)
    left = leaf.leaf.hand is Hand.LEFT
    level = part is not None and not part.grain_upright
    if hold.up in (SideUp.FOOT, SideUp.HEAD):
        foot = hold.up is SideUp.FOOT
        # The opening face towards one: right side up the hinges are where they are seen, on its head the other way.
        hinge_left = left is not foot
        ends = ("hinge side", "latch side") if hinge_left else ("latch side", "hinge side")
        return Lies(
            box.width, build.thickness, *ends, "opening face", str(hold.up), not hinge_left, False, box, True, True
        )
    if hold.up in EDGES:
        return _on_edge(build, hold.up, part, box, left=left, level=level)
    opening = hold.up is SideUp.OPENING
    if level:
        ends = ("hinge end", "latch end")
        near = "foot edge" if opening else "head edge"
        # A rail lies as it is seen: hinge end to the left, whichever hand.
        return Lies(
            box.width, box.height, *ends, near, str(hold.up), False, (not opening) is not (not left), box, False, True
        )
    hinge_near = left is opening
    near = "hinge edge" if hinge_near else "latch edge"
    return Lies(box.height, box.width, "head", "foot", near, str(hold.up), True, not hinge_near, box, False, False)


def _on_edge(build: Build, up: SideUp, part: Part | None, box: Rect, *, left: bool, level: bool) -> Lies:
    at_hinge = up is SideUp.HINGE_EDGE or (
        up is SideUp.INNER_EDGE and part is not None and part.face.x0 > build.width / 2
    )
    near = "opening face" if at_hinge is not left else "closing face"
    words = {SideUp.INNER_EDGE: "inner edge up, to the panel"}.get(up, str(up))
    if level:
        return Lies(
            box.width,
            build.thickness,
            "hinge end",
            "latch end",
            near,
            words,
            False,
            near != "opening face",
            box,
            True,
            True,
        )
    return Lies(
        box.height, build.thickness, "head", "foot", near, words, True, near != "opening face", box, True, False
    )
