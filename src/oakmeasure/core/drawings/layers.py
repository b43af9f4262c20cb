"""What a leaf of boards or strips needs beside its front: sizes, a section and a plan through all its layers."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from oakmeasure.core.base.geometry import Point, circle
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import SheetMaterial, stuff
from oakmeasure.core.drawings.drawing import Anchor, Dimension, Grain, Layer, Lettering, Sketch, corners
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Build, Fixing, Part, Rect

if TYPE_CHECKING:
    from oakmeasure.core.solution import LeafSolution

GRAIN_LINES = 5
PLIES = 4
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


def section(page: Sketch, build: Build, x0: float, *, words: bool = True) -> None:
    """Upright section near the hinges, the opening face to the left, thickness at twice its size.

    Args:
        page: The drawing that is added to, which is not mirrored by the hand.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        x0: Where it begins, across, mm.
        words: Whether parts are named in it.
    """
    times = 2.0
    if words:
        text = "section, thickness × 2"
        page.label((x0 + build.thickness, build.height + 3 * page.step), text, Lettering(Layer.PENCIL, 0.9))
    panels = sorted((part.face.x0, part.face.y0, part.face.x1) for part in build.parts if part.role is Role.PANEL)
    cut = (panels[0][0] + panels[0][2]) / 2 if panels else 0.3 * build.width
    for part in build.parts:
        if not part.face.x0 <= cut <= part.face.x1:
            continue
        low, high = _span_at(part, cut, upright=True)
        if high <= low:
            continue
        z0, z1 = build.depth_of(part)
        rect = Rect(x0 + z0 * times, low, x0 + z1 * times, high)
        _cut_part(page, part, rect, along=part.grain_upright)


def plan(sketch: Sketch, build: Build) -> None:
    """Level section through a ledge or a stiffener, the opening face at the bottom, thickness at twice its size.

    Args:
        sketch: The drawing that is added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    step = sketch.step
    times = 2.0
    level = [part for part in build.parts if part.role in (Role.LEDGE, Role.STIFFENER)]
    cut = level[-1].face.y0 + 0.5 * level[-1].face.height if level else 0.6 * build.height
    base = -17 * step - build.thickness * times
    for part in build.parts:
        if not part.face.y0 <= cut <= part.face.y1:
            continue
        low, high = _span_at(part, cut, upright=False)
        if high <= low:
            continue
        z0, z1 = build.depth_of(part)
        rect = Rect(low, base + z0 * times, high, base + z1 * times)
        _cut_part(sketch, part, rect, along=not part.grain_upright)
    _tongues(sketch, build, base, times)
    _t_tongues(sketch, build, base, times)
    sketch.page().label(
        (-6 * step, base + build.thickness * times / 2), "plan, × 2", Lettering(Layer.PENCIL, 0.9), anchor=Anchor.RIGHT
    )


def _tongues(sketch: Sketch, build: Build, base: float, times: float) -> None:
    """The tongue of each board in the groove of the next."""
    boards = sorted((part for part in build.parts if part.role is Role.BOARD), key=lambda each: each.face.x0)
    for part in boards:
        tongue = part.planed.width - part.finished.width
        if "tongue" not in part.note or tongue <= 0:
            continue
        z0, z1 = build.depth_of(part)
        middle, half = (z0 + z1) / 2, (z1 - z0) / 6
        tip = Rect(
            part.face.x1,
            base + (middle - half) * times,
            part.face.x1 + min(tongue, 20.0),
            base + (middle + half) * times,
        )
        sketch.rect(tip, Layer.END_GRAIN, ref=f"part:{part.name}", tint=stuff(part.species).tint)
        sketch.box(tip, Layer.OUTLINE, ref=f"part:{part.name}")


def _t_tongues(sketch: Sketch, build: Build, base: float, times: float) -> None:
    """The tongue of a T lipping between the faces."""
    core = next((part for part in build.parts if part.role is Role.CORE), None)
    if core is None:
        return
    z0, z1 = build.depth_of(core)
    for part in build.parts:
        if part.role is not Role.LIPPING or part.outline.width <= part.face.width + 0.5:
            continue
        x0, x1 = (part.face.x1, part.outline.x1) if part.face.x0 < build.width / 2 else (part.outline.x0, part.face.x0)
        tip = Rect(x0, base + z0 * times, x1, base + z1 * times)
        sketch.rect(tip, Layer.END_GRAIN, ref=f"part:{part.name}", grain=Grain.END, tint=stuff(part.species).tint)


def _span_at(part: Part, cut: float, *, upright: bool) -> tuple[float, float]:
    """Return from where to where a part is met by a cut."""
    shape = part.corners if upright else tuple((y, x) for x, y in part.corners)
    met = []
    for (ax, ay), (bx, by) in zip(shape, (*shape[1:], shape[0]), strict=True):
        if (ax <= cut) != (bx <= cut):
            met.append(ay + (cut - ax) / (bx - ax) * (by - ay))
    return (min(met), max(met)) if len(met) >= 2 else (0.0, 0.0)


def _plies(sketch: Sketch, rect: Rect) -> None:
    """Lines along a sheet that is cut: its plies."""
    tall = rect.height > rect.width
    low, high = (rect.x0, rect.x1) if tall else (rect.y0, rect.y1)
    for at in range(1, PLIES):
        off = low + (high - low) * at / PLIES
        ends = ((off, rect.y0), (off, rect.y1)) if tall else ((rect.x0, off), (rect.x1, off))
        sketch.line(ends, Layer.FAINT)


def _cut_part(sketch: Sketch, part: Part, rect: Rect, *, along: bool) -> None:
    tint = stuff(part.species).tint
    if part.species == "steel":
        sketch.rect(rect, Layer.METAL, ref=f"part:{part.name}")
        return
    if part.role is Role.VENEER:  # too thin for two outlines
        sketch.rect(rect, Layer.ROD, ref=f"part:{part.name}")
        sketch.box(rect, Layer.FAINT, ref=f"part:{part.name}")
        return
    made_of = stuff(part.species)
    if isinstance(made_of, SheetMaterial):
        sketch.rect(rect, Layer.PANEL, ref=f"part:{part.name}", tint=tint)
        _plies(sketch, rect)
        return
    layer = Layer.WOOD if along else Layer.END_GRAIN
    grain = (Grain.UPRIGHT if part.grain_upright else Grain.LEVEL) if along else Grain.END
    sketch.rect(rect, layer, ref=f"part:{part.name}", grain=grain, tint=tint)


LINING_SHOWN = 26.0  # mm of lining drawn round the leaf


def side_gaps(leaf: LeafSolution) -> tuple[float, float]:
    """Return the gaps at the left and at the right of the leaf as it is seen.

    Args:
        leaf: The leaf, worked out to the end.
    """
    hinge, latch = leaf.figures["gap_hinge"].value, leaf.figures["gap_latch"].value
    return (latch, hinge) if leaf.leaf.hand is Hand.RIGHT else (hinge, latch)
