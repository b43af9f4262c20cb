"""What stands round the opening: a plan with the leaf's way and things in it, and the floor along that way."""

from __future__ import annotations

import math

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.readings import FloorAlong, InTheWay, Side
from oakmeasure.core.drawings.drawing import PENCIL, Anchor, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution

SLAB = 40.0  # thickness that stands for the leaf in the plan
STEPS = 12
WALL_SIDE = 0.32  # of wall drawn beside the opening, as a share of its width


def floor_view(leaf: LeafSolution, show: Show, *, exaggeration: float = 10.0) -> Drawing:
    """Return plan and floor profile; heights of the floor are shown `exaggeration` times their size and more.

    Coordinates: x from the hinge side to the latch, the wall's opening face at y 0, the opening side below.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        exaggeration: How many times crookedness is drawn.
    """
    w = leaf.figures["clear_width"].value
    sketch = Sketch(show, mirror_at=w if leaf.leaf.hand is Hand.RIGHT else None)
    depth = max(_depth(leaf), 60.0)
    side = max(WALL_SIDE * w, 160.0)
    low, high = -side, w + side
    travels = leaf.leaf.floor.along is FloorAlong.TRAVEL
    if travels:
        places = [each.at for each in leaf.leaf.floor.points]
        low, high = min([low, *places]), max([high, *places])
    step = sketch.step = (high - low) / 100
    _wall(sketch, w, depth, low, high)
    if travels:
        _travel_plan(sketch, leaf, w)
    else:
        _swing_plan(sketch, leaf, w)
    for at, thing in enumerate(leaf.leaf.in_the_way, start=1):
        _thing(sketch, at, thing, w)
    page = sketch.page()
    page.label((w / 2, depth + 2 * step), "plan, opening side below", PENCIL, anchor=Anchor.ABOVE)
    for x, text in ((low + side / 2, "hinges"), (w + side / 2, "latch")):
        sketch.label((x, depth + 2 * step), text, PENCIL, anchor=Anchor.ABOVE)
    lowest = min(_ys(sketch), default=0.0)
    room = Rect(low, 0, high, lowest - 6 * step)
    if not travels:  # a swing is as deep as it is wide: the floor beside it, not below
        room = Rect(high + 14 * step, 0, high + 14 * step + 0.9 * (high - low), -8 * step)
    _profile(sketch, leaf, room, exaggeration)
    return sketch.drawing(margin=step)


def _ys(sketch: Sketch) -> list[float]:
    found: list[float] = []
    for shape in sketch.shapes:
        points = getattr(shape, "points", ())
        found += [y for _, y in points]
    return found


def _depth(leaf: LeafSolution) -> float:
    depth = leaf.figures.get("lining_depth") or leaf.figures.get("reading_depth")
    return depth.value if depth is not None else 100.0


def _wall(sketch: Sketch, w: float, depth: float, low: float, high: float) -> None:
    for x0, x1 in ((low, 0.0), (w, high)):
        rect = Rect(x0, 0, x1, depth)
        sketch.rect(rect, Layer.WALL)
        for line in hatching(rect, (high - low) / 45):
            sketch.line(line, Layer.FAINT)
        sketch.box(rect, Layer.OUTLINE)


def _swing_plan(sketch: Sketch, leaf: LeafSolution, w: float) -> None:
    """The leaf shut and at 90°, and the arc of its latch edge on the floor with the places that were read."""
    width = max(leaf.fit.width.value, 50.0)
    gap = leaf.figures["gap_hinge"].value
    sketch.rect(Rect(gap, 0, gap + width, SLAB), Layer.LEAF)
    sketch.box(Rect(gap, 0, gap + width, SLAB), Layer.LEAF)
    last = max([90.0, *(each.at for each in leaf.leaf.floor.points)])
    sketch.line([_on_arc(gap, width, last * at / STEPS) for at in range(STEPS + 1)], Layer.HIDDEN)
    sketch.line([(gap, 0), (gap, -width), (gap + SLAB, -width), (gap + SLAB, 0)], Layer.HIDDEN)
    for at, point in enumerate(leaf.leaf.floor.points):
        place = _on_arc(gap, width, point.at)
        ref = f"floor:{at + 1}"
        sketch.line([(gap, 0), place], Layer.FAINT, ref=ref)
        outward = _on_arc(gap, 1.06 * width, point.at)
        sketch.label(outward, f"{point.at:g}°", Lettering(Layer.PENCIL, on_paper=True), ref=ref)


def _on_arc(x: float, radius: float, degrees: float) -> Point:
    turn = math.radians(degrees)
    return x + radius * math.cos(turn), -radius * math.sin(turn)


def _travel_plan(sketch: Sketch, leaf: LeafSolution, w: float) -> None:
    """The leaf in front of the wall, and the line that it travels."""
    points = [each.at for each in leaf.leaf.floor.points]
    off = max([0.0, *(each.stands_out.value for each in leaf.leaf.in_the_way)]) + 20.0
    box = Rect(0, -off - SLAB, w, -off)
    sketch.rect(box, Layer.LEAF)
    sketch.box(box, Layer.LEAF)
    sketch.line([(min([0.0, *points]), -off - SLAB / 2), (max([w, *points]), -off - SLAB / 2)], Layer.CENTRE)


def _thing(sketch: Sketch, at: int, thing: InTheWay, w: float) -> None:
    """Architrave, skirting, pipe … where it stands, to scale, with how far it stands out."""
    step = sketch.step
    out = thing.stands_out.value
    wide = max(4 * step, 60.0) if abs(out) >= 12 else max(1.2 * step, 16.0)
    starts = {Side.LATCH: w + thing.away, Side.HINGE: -thing.away - wide, Side.BEHIND: thing.away - wide / 2}
    if thing.where not in starts:
        return  # over the head or on the floor: not in this plan, but in the list
    x0 = starts[thing.where]
    ref = f"thing:{at}"
    rect = Rect(x0, -out, x0 + wide, 0) if out >= 0 else Rect(x0, -out - 10, x0 + wide, -out + 10)
    sketch.rect(rect, Layer.METAL if out < 0 or wide < 20 else Layer.LINING, ref=ref)
    sketch.box(rect, Layer.OUTLINE, ref=ref)
    word = f"{thing.what} {sketch.show.length(abs(out))} {'deep' if out < 0 else 'out'}"
    y = rect.y0 - 2.5 * step - (3 * step if thing.where is Side.BEHIND else 0)
    if out < 0:
        y = rect.y1 + 3 * step
    sketch.label((x0 + wide / 2, y), word, Lettering(Layer.READING, on_paper=True), ref=ref)


def _profile(sketch: Sketch, leaf: LeafSolution, room: Rect, exaggeration: float) -> None:
    """The floor along the way, from the side, heights exaggerated; and the leaf's foot over it.

    room: x0 to x1 that it may take, y1 its top.
    """
    show, step = sketch.show, sketch.step
    floor, f, page = leaf.leaf.floor, leaf.figures, sketch.page()
    top = room.y1
    if not floor.points:
        words = "no floor height read along the leaf's way yet"
        page.label(((room.x0 + room.x1) / 2, top), words, PENCIL, anchor=Anchor.BELOW)
        return
    swing = floor.along is FloorAlong.SWING
    points = sorted(enumerate(floor.points), key=lambda each: each[1].at)
    heights = [each.height.value for _, each in points]
    foot = (f["floor_high"].value if swing else f["floor_peak"].value) + f["gap_floor"].value
    # As high as the slider asks, as far as there is room.
    tall = (0.55 if swing else 0.34) * (room.x1 - room.x0)
    times = min(4.0 * exaggeration, tall / max(foot - min(heights), 1.0))
    low, high = min(each.at for _, each in points), max(each.at for _, each in points)
    low, high = (0.0, max(high, 90.0)) if swing else (min(low, 0.0), max(high, low + 1.0))
    left, wide = room.x0 + 6 * step, room.x1 - room.x0 - 12 * step
    base = top - 5 * step - foot * times

    def at(place: float, height: float) -> Point:
        share = (place - low) / (high - low)
        if not swing and leaf.leaf.hand is Hand.RIGHT:
            share = 1 - share
        return left + wide * share, base + height * times

    line = sorted(at(each.at, each.height.value) for _, each in points)
    ends = [(left, line[0][1]), *line, (left + wide, line[-1][1])]
    deep = base + min(0.0, *heights) * times - 4 * step
    page.area([*ends, (left + wide, deep), (left, deep)], Layer.WALL)
    page.line(ends, Layer.FLOOR)
    page.line([at(low, foot), at(high, foot)], Layer.LEAF, ref="figure:gap_floor")
    words = "foot of the leaf as it opens" if swing else "foot of the leaf, set from the highest point"
    words += f"; heights × {times:.0f}"
    page.label((left + wide / 2, at(low, foot)[1] + step), words, Lettering(Layer.LEAF), anchor=Anchor.ABOVE)
    for number, each in points:
        x, y = at(each.at, each.height.value)
        ref = f"floor:{number + 1}"
        drags = each.height.value > foot
        page.line([(x, y), (x, at(low, foot)[1])], Layer.DOUBT if drags else Layer.FAINT, ref=ref)
        text = show.length(each.height.value)
        page.label(
            (x, y - step),
            text,
            Lettering(Layer.DOUBT if drags else Layer.READING, bold=True, on_paper=True),
            anchor=Anchor.BELOW,
            ref=ref,
        )
        place = f"{each.at:g}°" if swing else show.length(each.at)
        page.label((x, deep - step), place, PENCIL, anchor=Anchor.BELOW, ref=ref)
