"""What a leaf of boards or strips needs beside its front: sizes, a section and a plan through all its layers."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from oakmeasure.core.base.geometry import Point, circle
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.drawing import Dimension, Grain, Layer, Sketch, corners
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Build, Fixing, Part, Rect

if TYPE_CHECKING:
    from oakmeasure.core.solution import LeafSolution

GRAIN_LINES = 5
NARROW = 9.0  # steps: what is narrower has no room for its number beside another one


def grain_along(shape: tuple[Point, ...]) -> list[tuple[Point, Point]]:
    """Return lines along the longest side of a slanting part, inside it.

    Args:
        shape: Corners of its face, mm; () where that is an upright rectangle.
    """
    sides = list(zip(shape, (*shape[1:], shape[0]), strict=True))
    (ax, ay), (bx, by) = max(sides, key=lambda each: math.dist(*each))
    length = math.dist((ax, ay), (bx, by))
    ux, uy = (bx - ax) / length, (by - ay) / length
    across = [(x - ax) * -uy + (y - ay) * ux for x, y in shape]
    low, high = min(across), max(across)
    found = []
    for at in range(1, GRAIN_LINES):
        off = low + (high - low) * at / GRAIN_LINES
        cuts = []
        for (px, py), (qx, qy) in sides:
            one, other = (px - ax) * -uy + (py - ay) * ux - off, (qx - ax) * -uy + (qy - ay) * ux - off
            if (one > 0) != (other > 0):
                share = one / (one - other)
                cuts.append((px + share * (qx - px), py + share * (qy - py)))
        if len(cuts) == 2:
            found.append((cuts[0], cuts[1]))
    return found


def strands_in(shape: tuple[Point, ...], upright: bool) -> list[tuple[Point, Point]]:
    """Return straight lines along the grain inside a shape that is level or upright.

    Args:
        shape: Corners of its face, mm; () where that is an upright rectangle.
        upright: Whether its grain runs up the leaf.
    """
    turned = shape if upright else tuple((y, x) for x, y in shape)
    low, high = min(x for x, _ in turned), max(x for x, _ in turned)
    count = max(2, min(7, round((high - low) / 18)))
    found: list[tuple[Point, Point]] = []
    for at in range(1, count):
        x = low + (high - low) * at / count
        cuts = sorted(
            ay + (x - ax) / (bx - ax) * (by - ay)
            for (ax, ay), (bx, by) in zip(turned, (*turned[1:], turned[0]), strict=True)
            if (ax <= x) != (bx <= x)
        )
        for start, end in zip(cuts[::2], cuts[1::2], strict=False):
            found.append(((x, start), (x, end)) if upright else ((start, x), (end, x)))
    return found


def panel(sketch: Sketch, part: Part, tint: str) -> None:
    """A panel in its field: its wood or its glass, what is fielded or boarded, a line where it lies lower.

    Args:
        sketch: The drawing that is added to.
        part: The part.
        tint: Colour of the wood, as #rrggbb; "" for the layer's own.
    """
    ref, face = f"part:{part.name}", part.face
    if part.species == "glass":
        sketch.area(part.corners, Layer.SPACE, ref=ref)
        for at in (0.3, 0.42):
            x, y, reach = face.x0 + at * face.width, face.y0 + 0.55 * face.height, 0.2 * min(face.width, face.height)
            sketch.line([(x, y), (x + reach, y + reach)], Layer.PENCIL)
    elif part.shape:
        sketch.area(part.corners, Layer.PANEL, ref=ref, tint=tint)
        for strand in strands_in(part.corners, True):
            sketch.line(strand, Layer.GRAIN)
    else:
        sketch.rect(face, Layer.PANEL, ref=ref, grain=Grain.UPRIGHT, tint=tint)
    for at in range(1, part.boards):
        x = face.x0 + face.width * at / part.boards
        sketch.line([(x, face.y0), (x, face.y1)], Layer.OUTLINE, ref=ref)
    if part.fielded and min(face.width, face.height) > 2.4 * part.fielded:
        inner = Rect(face.x0 + part.fielded, face.y0 + part.fielded, face.x1 - part.fielded, face.y1 - part.fielded)
        sketch.box(inner, Layer.OUTLINE, ref=ref)
        for (ax, ay), (bx, by) in zip(corners(face), corners(inner), strict=True):
            sketch.line([(ax, ay), (bx, by)], Layer.FAINT)
    # A second line inside the sight edge: the panel lies lower than its frame.
    inset = min(5.0, face.width / 6, face.height / 6)
    if part.shape:
        middle = (face.x0 + face.x1) / 2
        inside = [
            (x + (inset if x < middle else -inset), y - inset if at >= 2 else y + inset)
            for at, (x, y) in enumerate(part.shape)
        ]
        sketch.line([*inside, inside[0]], Layer.FAINT)
    else:
        sketch.box(Rect(face.x0 + inset, face.y0 + inset, face.x1 - inset, face.y1 - inset), Layer.FAINT)


def fixing(sketch: Sketch, each: Fixing, radius: float) -> None:
    """A screw as a small round, one in a slot with its slot, a nail as a cross.

    Args:
        sketch: The drawing that is added to.
        each: The nail or the screw.
        radius: Radius, mm.
    """
    if each.what.startswith(("nail", "clenched")):
        for dx, dy in ((radius, radius), (radius, -radius)):
            sketch.line([(each.x - dx, each.y - dy), (each.x + dx, each.y + dy)], Layer.OUTLINE, ref=each.ref)
        return
    ring = circle(each.x, each.y, radius, steps=12)
    sketch.area(ring, Layer.METAL, ref=each.ref)
    if each.slotted:
        wide = 2.2 * radius
        sketch.box(Rect(each.x - wide, each.y - radius, each.x + wide, each.y + radius), Layer.OUTLINE, ref=each.ref)


def refused(sketch: Sketch, each: Fixing, radius: float) -> None:
    """A fixing that must not be driven: a ring in the colour of doubt, struck through.

    Args:
        sketch: The drawing that is added to.
        each: The nail or the screw.
        radius: Radius, mm.
    """
    ring = circle(each.x, each.y, radius, steps=12)
    sketch.line(ring, Layer.DOUBT, ref=each.ref)
    sketch.line([(each.x - radius, each.y - radius), (each.x + radius, each.y + radius)], Layer.DOUBT, ref=each.ref)


def dimensions(sketch: Sketch, leaf: LeafSolution, build: Build) -> None:
    """The sizes that the builder asks for: up the latch side, and on top from the hinge edge.

    Args:
        sketch: The drawing that is added to.
        leaf: The leaf, worked out to the end.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    show, step = sketch.show, sketch.step
    f, page = leaf.figures, sketch.page()
    x = build.width + side_gaps(leaf)[1] + LINING_SHOWN + 3 * step
    y = build.height + f["gap_head"].value + LINING_SHOWN + 2.5 * step
    raised = is_any = False
    for dim in build.dims:
        edit = f[figure_name(dim.figure)].edit
        text = show.length(dim.end - dim.start)
        if dim.upright:
            page.add(Dimension((x, dim.start), (x, dim.end), text, figure=dim.figure, edit=edit, ref=dim.ref))
        else:
            # Short ones side by side stand in two rows, or their numbers would run into one another.
            raised = dim.end - dim.start < NARROW * step and not raised
            is_any = is_any or raised
            at = y + (3.6 * step if raised else 0.0)
            sketch.add(Dimension((dim.start, at), (dim.end, at), text, figure=dim.figure, edit=edit, ref=dim.ref))
    over = y + (11 if is_any else 8) * step
    sketch.dimension((0, over), (build.width, over), show.length(build.width), figure=leaf.fit.width.name)


LINING_SHOWN = 26.0  # mm of lining drawn round the leaf


def side_gaps(leaf: LeafSolution) -> tuple[float, float]:
    """Return the gaps at the left and at the right of the leaf as it is seen.

    Args:
        leaf: The leaf, worked out to the end.
    """
    hinge, latch = leaf.figures["gap_hinge"].value, leaf.figures["gap_latch"].value
    return (latch, hinge) if leaf.leaf.hand is Hand.RIGHT else (hinge, latch)
