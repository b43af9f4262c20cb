"""A leaf before its opening: from the front with its track, and in plan with all that it must pass."""

from __future__ import annotations

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.readings import Side
from oakmeasure.core.document.species import species
from oakmeasure.core.drawings.drawing import (
    PENCIL,
    Anchor,
    Dimension,
    Drawing,
    Layer,
    Lettering,
    Sketch,
    corners,
    handle,
)
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.drawings.leaf.leaf_view import floor_line
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution

# Of the track and of a stop on it, drawn for the eye
RAIL = 32.0
STOP = 22.0
WALL_DEPTH = 110.0


def slide_view(leaf: LeafSolution, show: Show, *, slid: float) -> Drawing:
    """Return the front and the plan, the leaf slid by a share of its way, 0 shut to 1 open.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        slid: Share of its way, 0 shut to 1 open.
    """
    f, opening = leaf.figures, leaf.opening
    w, h = opening.clear_width.value, opening.clear_height.value
    lw, lh = leaf.fit.width.value, leaf.fit.height.value
    x0 = leaf.fit.x_hinge_edge - opening.hinge_in.value
    y0 = leaf.fit.y_foot - opening.floor_high.value
    sketch = Sketch(show, mirror_at=w if leaf.leaf.hand is Hand.RIGHT else None)
    step = sketch.step = max(h, 1.5 * w) / 100
    places = _places(leaf, x0, lw, w, slid)
    low = min(-0.25 * w, *(x for x, _ in places)) - 6 * step
    high = max(w + lw, *(x + lw for x, _ in places)) + 6 * step
    if "free_wall" in f:
        high = max(high, w + f["free_wall"].value + 6 * step)
    if not leaf.leaf.hanging.slides:
        high = w + 0.3 * w
    _front(sketch, leaf, low, high, w, h)
    for x, layer in places:
        box = Rect(x, y0, x + lw, y0 + lh)
        sketch.area(corners(box), Layer.LEAF if layer is None else layer, ref="figure:leaf_width")
        sketch.box(box, Layer.LEAF, ref="figure:leaf_width")
    if leaf.leaf.hanging.slides:
        front = places[-1][0]
        handle(sketch, (front + 0.08 * lw, y0 + 0.48 * lh), 2.2 * step, "handle:opened")
        track = f["track_needed"].value
        top = y0 + lh + 2 * step
        sketch.rect(Rect(x0, top, x0 + track, top + RAIL), Layer.METAL, ref="figure:track_needed")
        sketch.dimension((x0, top + 7 * step), (x0 + track, top + 7 * step), show.length(track), figure="track_needed")
        for end in (x0, x0 + track - STOP):
            sketch.rect(Rect(end, top - 0.4 * RAIL, end + STOP, top + 1.2 * RAIL), Layer.METAL, ref="figure:stop")
        _free(sketch, leaf, w, h, high)
    sketch.box(Rect(0, 0, w, h), Layer.HIDDEN)
    floor_line(sketch.page(), low, high, 0.0)
    sketch.dimension((x0, -7 * step), (x0 + lw, -7 * step), show.length(lw), figure=leaf.fit.width.name)
    sketch.dimension((low + 3 * step, y0), (low + 3 * step, y0 + lh), show.length(lh), figure=leaf.fit.height.name)
    if "clear_way" in f:
        _clear(sketch, leaf, places, slid)
    _plan(sketch, leaf, places, low, high)
    return sketch.drawing(margin=2 * step)


def slid_to(leaf: LeafSolution, x: float) -> float:
    """Return the share of its way to which the leaf slides when its handle is drawn to a place on the drawing.

    Args:
        leaf: The leaf, worked out to the end.
        x: Across, away from the hinge edge, mm.
    """
    if leaf.leaf.hand is Hand.RIGHT:
        x = leaf.opening.clear_width.value - x
    lw, start = leaf.fit.width.value, leaf.fit.x_hinge_edge - leaf.opening.hinge_in.value
    shut = _places(leaf, start, lw, 0.0, 0.0)[-1][0]
    whole = _places(leaf, start, lw, 0.0, 1.0)[-1][0]
    return min(max((x - 0.08 * lw - shut) / (whole - shut), 0.0), 1.0) if whole > shut else 0.0


def _places(leaf: LeafSolution, x0: float, lw: float, w: float, slid: float) -> list[tuple[float, Layer | None]]:
    """Return the hinge-side edge of each leaf, the one behind first."""
    if leaf.leaf.hanging.bypasses:
        other = x0 + lw + leaf.fit.apart
        way = other - x0 - (leaf.figures["roller"].value if leaf.leaf.hanging is Hanging.BYPASS_RAIL else 0.0)
        return [(other, Layer.LINING), (x0 + way * slid, None)]
    way = lw if leaf.leaf.hanging.slides else 0.0
    return [(x0 + way * slid, None)]


def _front(sketch: Sketch, leaf: LeafSolution, low: float, high: float, w: float, h: float) -> None:
    step = sketch.step
    top = h + 22 * step
    for rect in (Rect(low, 0, 0, top), Rect(w, 0, high, top), Rect(0, h, w, top)):
        sketch.rect(rect, Layer.WALL)
    sketch.rect(Rect(0, 0, w, h), Layer.SPACE)
    for at, thing in enumerate(leaf.leaf.in_the_way, start=1):
        ref = f"thing:{at}"
        if thing.where is Side.BEHIND:
            box = Rect(thing.away - step, thing.up - step, thing.away + step, thing.up + step)
            sketch.rect(box, Layer.METAL, ref=ref)
        elif thing.where in (Side.HINGE, Side.LATCH) and thing.stands_out.value > 0:
            edge = -thing.away if thing.where is Side.HINGE else w + thing.away
            wide = -60.0 if thing.where is Side.HINGE else 60.0
            sketch.box(Rect(min(edge, edge + wide), 0, max(edge, edge + wide), h + 60), Layer.PENCIL, ref=ref)


def _free(sketch: Sketch, leaf: LeafSolution, w: float, h: float, high: float) -> None:
    """What is free beside and over the opening, as far as it was read, and what stands there."""
    show, step = sketch.show, sketch.step
    f = leaf.figures
    if "free_wall" in f:
        end = w + f["free_wall"].value
        sketch.line([(end, 0.0), (end, h + 22 * step)], Layer.OUTLINE, ref="figure:free_wall")
        rect = Rect(end, 0.0, max(end + 4 * step, high), h + 22 * step)
        for line in hatching(rect, 3 * step):
            sketch.line(line, Layer.FAINT)
        sketch.dimension((w, 0.16 * h), (end, 0.16 * h), show.length(f["free_wall"].value), figure="free_wall")
    if "headroom" in f:
        top = h + f["headroom"].value
        sketch.line([(-8 * step, top), (w + 8 * step, top)], Layer.FLOOR, ref="figure:headroom")
        sketch.dimension((-6 * step, h), (-6 * step, top), show.length(f["headroom"].value), figure="headroom")


def _clear(sketch: Sketch, leaf: LeafSolution, places: list[tuple[float, Layer | None]], slid: float) -> None:
    """What is left to walk through as the leaves stand now; fully open it is the clear way of the sums."""
    show, lw = sketch.show, leaf.fit.width.value
    w, h = leaf.opening.clear_width.value, leaf.opening.clear_height.value
    covered = sorted((max(x, 0.0), min(x + lw, w)) for x, _ in places if x < w and x + lw > 0)
    free, at = (0.0, 0.0), 0.0
    for a, b in [*covered, (w, w)]:
        if a - at > free[1] - free[0]:
            free = (at, a)
        at = max(at, b)
    if free[1] - free[0] < 1:
        return
    figure = leaf.figures["clear_way"]
    whole = slid >= 1.0
    text = show.length(figure.value) if whole else show.length(free[1] - free[0])
    sketch.add(
        Dimension(
            (free[0], 0.45 * h),
            (free[1], 0.45 * h),
            text,
            arrows=True,
            ref="figure:clear_way",
            layer=Layer.READING,
            figure="clear_way" if whole else "",
        )
    )


def _plan(
    sketch: Sketch, leaf: LeafSolution, places: list[tuple[float, Layer | None]], low: float, high: float
) -> None:
    """The plan below: wall, what stands out, leaf; depths at three times their size, so that they can be read."""
    show, step = sketch.show, sketch.step
    f, times = leaf.figures, 3.0
    w, lw = leaf.opening.clear_width.value, leaf.fit.width.value
    base = -30 * step
    for x0, x1 in ((low, 0.0), (w, high)):
        rect = Rect(x0, base, x1, base + 0.6 * WALL_DEPTH)
        sketch.rect(rect, Layer.WALL)
        for line in hatching(rect, 2.4 * step):
            sketch.line(line, Layer.FAINT)
        sketch.box(rect, Layer.OUTLINE)
    for at, thing in enumerate(leaf.leaf.in_the_way, start=1):
        out = thing.stands_out.value * times
        if out <= 0 or thing.where in (Side.HEAD, Side.FLOOR):
            continue
        centre = {Side.HINGE: -thing.away - 40, Side.LATCH: w + thing.away + 40}.get(thing.where, thing.away)
        rect = Rect(centre - 40, base - out, centre + 40, base)
        sketch.rect(rect, Layer.LINING, ref=f"thing:{at}")
        sketch.box(rect, Layer.OUTLINE, ref=f"thing:{at}")
        sketch.label(
            (centre, base + 0.3 * WALL_DEPTH),
            show.length(thing.stands_out.value),
            Lettering(bold=True, on_paper=True),
            ref=f"thing:{at}",
        )
    off = (f.get("stand_off_whole") or f.get("stand_off") or f["back_off"]).value
    thick = (f.get("thickness_over") or f["thickness"]).value
    tint = species(leaf.leaf.timber.wood).tint
    for at, (x, _) in enumerate(places):
        back = off
        if at == 1:  # of two that pass each other, the one in front
            back = off + thick + leaf.leaf.slide.running_clearance
        box = Rect(x, base - (back + thick) * times, x + lw, base - back * times)
        sketch.area(corners(box), Layer.WOOD, ref="figure:stands_out", tint=tint)
    x = high - 4 * step
    whole = f["stands_out"].value
    sketch.dimension((x, base), (x, base - whole * times), show.length(whole), figure="stands_out")
    sketch.page().label(
        ((low + high) / 2, base - (whole + 8) * times - 2 * step),
        "plan, depths × 3; opening side below",
        PENCIL,
        anchor=Anchor.BELOW,
    )
