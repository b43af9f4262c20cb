"""What is cut and bored for lock and pull, on the front of a leaf."""

from __future__ import annotations

import math

from oakmeasure.core.build.shape import Build, Rect
from oakmeasure.core.drawing import Layer, Sketch
from oakmeasure.core.solve import LeafSolution


def bored(sketch: Sketch, leaf: LeafSolution, build: Build) -> None:
    """What is cut and bored at the latch edge for lock and pull: from the edge in hidden line, holes in the face."""
    w, h = build.width, build.height
    for each in leaf.extra:
        if "lining" in each.member:
            continue
        y1, y0 = h - each.from_top, h - each.to
        if each.edge.startswith("latch edge"):
            sketch.box(Rect(w - each.depth, y0, w, y1), Layer.HIDDEN, ref=each.ref)
        elif each.name == "flush pull":
            half = leaf.leaf.hardware.pull.recess_wide / 2
            sketch.box(Rect(w - each.across - half, y0, w - each.across + half, y1), Layer.OUTLINE, ref=each.ref)
        else:
            x, y, radius = w - each.across, (y0 + y1) / 2, max(each.along / 2, 3.0)
            ring = [(x + radius * math.cos(math.radians(d)), y + radius * math.sin(math.radians(d)))
                    for d in range(0, 361, 20)]  # fmt: skip
            sketch.line(ring, Layer.OUTLINE, ref=each.ref)
