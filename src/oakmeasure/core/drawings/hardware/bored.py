"""What is cut and bored for lock, latch and pull, on the front of a leaf."""

from __future__ import annotations

from oakmeasure.core.base.geometry import Point, circle
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.drawings.drawing import Layer, Sketch
from oakmeasure.core.solution import LeafSolution

SEEN = 0.5  # nearer to the opening face than this it is seen there, mm


def bored(sketch: Sketch, leaf: LeafSolution) -> None:
    """What is cut and bored for lock, latch and pull: what is seen from the opening side in full line, else hidden.

    Args:
        sketch: The drawing that is added to.
        leaf: The leaf, worked out to the end.
    """
    for each in leaf.other_borings:
        if each.solid is not None:
            layer = Layer.OUTLINE if each.solid.depth[0] < SEEN else Layer.HIDDEN
            sketch.line(outline_of(each.solid), layer, ref=each.ref)


def outline_of(solid: Solid) -> list[Point]:
    """Return the closed outline of a solid on the face.

    Args:
        solid: The solid of a cut or a device.
    """
    if len(solid.points) == 1:
        return circle(*solid.points[0], max(solid.radius, 1.5))
    if len(solid.points) == 2:
        x0, y0, x1, y1 = solid.box
        return [(x0, y0), (x1, y0), (x1, y1), (x0, y1), (x0, y0)]
    return [*solid.points, solid.points[0]]
