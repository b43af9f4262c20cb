"""The rods beside a leaf's drawing: its heights and its widths from one end."""

from __future__ import annotations

from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.drawings.drawing import Anchor, Grain, Layer, Lettering, Sketch
from oakmeasure.core.drawings.layers import LINING_SHOWN, side_gaps
from oakmeasure.core.drawings.refs import part_ref
from oakmeasure.core.leaf.part import Build, Rect
from oakmeasure.core.solution import LeafSolution

ROD_ROWS = 3  # rows of figures under the rod; steps between two, and of a digit
ROD_APART = 2.0


def height_marks(build: Build) -> list[tuple[float, str]]:
    """Return every mark of the height rod, up from the foot, with the part whose edge it is.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    level = [part for part in build.parts if part.role in (Role.RAIL, Role.LEDGE, Role.STIFFENER)]
    foot, top = build.parts[0].name, build.parts[0].name
    if any(part.role is Role.RAIL for part in level):
        rails = sorted((part for part in level if part.role is Role.RAIL), key=lambda each: each.face.y0)
        foot, top = rails[0].name, rails[-1].name
    marks = {0.0: foot, build.height: top}
    for part in level:
        marks.setdefault(part.face.y0, part.name)
        marks.setdefault(part.face.y1, part.name)
    return sorted(marks.items())


def width_marks(build: Build) -> list[tuple[float, str]]:
    """Return every mark of the width rod, from the hinge edge.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    marks: dict[float, str] = {}
    shown = (Role.STILE, Role.MUNTIN) if build.layered else (Role.STILE, Role.MUNTIN, Role.BOARD, Role.STRIP)
    for part in build.parts:
        if part.role in shown:
            marks.setdefault(round(part.face.x0, 6), part.name)
            marks.setdefault(round(part.face.x1, 6), part.name)
    return sorted(marks.items())


def height_rod(sketch: Sketch, leaf: LeafSolution, build: Build) -> None:
    """The rod up the left side of the page: every mark from the foot, hinges as arrow heads.

    Args:
        sketch: The drawing that is added to.
        leaf: The leaf, worked out to the end.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    step = sketch.step
    sketch, (left, _) = sketch.page(), side_gaps(leaf)
    x1 = -left - LINING_SHOWN - 4 * step
    x0 = x1 - 3 * step
    sketch.rect(Rect(x0, 0, x1, build.height), Layer.ROD, grain=Grain.UPRIGHT)
    sketch.box(Rect(x0, 0, x1, build.height), Layer.OUTLINE)
    last = -1e9
    for y, name in height_marks(build):
        sketch.line([(x0, y), (x1, y)], Layer.OUTLINE, ref=part_ref(name))
        sketch.line([(x1, y), (-left, y)], Layer.FAINT)
        if y - last > 1.6 * step:
            sketch.label(
                (x0 - step, y), sketch.show.length(y), Lettering(size=0.95), anchor=Anchor.RIGHT, ref=part_ref(name)
            )
            last = y
    for tenon in build.tenons:
        if (
            build.is_at(tenon.into, Role.STILE, Place.HINGE) and not tenon.is_haunch
        ):  # the mortises, for marking out the stile
            sketch.rect(
                Rect(x0 + step, tenon.rect.y0, x1 - step, tenon.rect.y1), Layer.SPACE, ref=part_ref(tenon.member)
            )
            sketch.box(
                Rect(x0 + step, tenon.rect.y0, x1 - step, tenon.rect.y1), Layer.PENCIL, ref=part_ref(tenon.member)
            )
    if leaf.butts is not None:
        for place in leaf.butts.places:
            middle = (place.rect.y0 + place.rect.y1) / 2
            for y in (place.rect.y0, place.rect.y1):
                sketch.line([(x1 - 1.2 * step, y), (x1, y)], Layer.METAL, ref=f"butt:{place.number}")
            sketch.area(
                [(x1, middle - 0.6 * step), (x1, middle + 0.6 * step), (x1 - step, middle)],
                Layer.METAL,
                ref=f"butt:{place.number}",
            )


def width_rod(sketch: Sketch, build: Build) -> None:
    """The rod along the bottom: every mark from the hinge edge.

    Args:
        sketch: The drawing that is added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    step = sketch.step
    y1 = -4.5 * step
    y0 = y1 - 3 * step
    sketch.rect(Rect(0, y0, build.width, y1), Layer.ROD, grain=Grain.LEVEL)
    sketch.box(Rect(0, y0, build.width, y1), Layer.OUTLINE)
    ends, last = [-1e9] * ROD_ROWS, -1e9  # how far each row of figures is written
    for x, name in width_marks(build):
        sketch.line([(x, y0), (x, y1)], Layer.OUTLINE, ref=part_ref(name))
        text = sketch.show.length(x)
        half = DIGIT * step * len(text) / 2
        level = next((n for n, end in enumerate(ends) if x - half > end), None)
        is_end = x > build.width - 1e-6
        if level is None or (x - last < ROD_APART * step and not is_end):  # the far side of a gap between boards
            continue
        sketch.label(
            (x, y0 - (0.6 + 3.0 * level) * step), text, Lettering(size=0.95), anchor=Anchor.BELOW, ref=part_ref(name)
        )
        ends[level], last = x + half + 0.5 * step, x


DIGIT = 1.35
