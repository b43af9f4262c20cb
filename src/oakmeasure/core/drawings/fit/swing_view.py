"""The leaf opening in plan: where it stands, what it hits, the way that is left, the floor's and the corner's rise."""

from __future__ import annotations

import math

from oakmeasure.core.base.geometry import Point, circle
from oakmeasure.core.base.units import HAIR, Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.species import species
from oakmeasure.core.drawings.drawing import PENCIL, Anchor, Dimension, Drawing, Grain, Layer, Lettering, Sketch, handle
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.fit.swing.geometry import nearest_of_leaf, turned
from oakmeasure.core.fit.swing.obstacles import Swing, floor_at
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution

STEPS = 30
REBATE = 12.0  # of the stop, drawn for the eye
# Drawn for the eye until hinges are chosen
CABINET_SIDE = 18.0
CUP_EDGE = 4.5


def swing_view(leaf: LeafSolution, show: Show, swing: Swing, *, opened: float) -> Drawing:
    """Return the plan with the leaf opened by `opened` degrees, or as far as it goes.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        swing: How the leaf swings, and what stands in its way.
        opened: Degrees from shut; None for as far as it goes.
    """
    plan = swing.plan
    at = min(opened, swing.stops_deg)
    w = plan.width
    on_cups = not leaf.leaf.hanging.has_butts
    sketch = Sketch(show, mirror_at=w if leaf.leaf.hand is Hand.RIGHT else None)
    step = sketch.step = w / 60
    if on_cups:
        _cabinet(sketch, leaf, swing)
    else:
        _lining(sketch, leaf, swing)
    for each in swing.obstacles:
        sketch.area(each.outline, Layer.LINING, ref=each.ref)
        sketch.line([*each.outline, each.outline[0]], Layer.OUTLINE, ref=each.ref)
    sketch.line(
        [turned((w, 0.0), plan.pin, swing.stops_deg * at_step / STEPS) for at_step in range(STEPS + 1)], Layer.CENTRE
    )
    sketch.line([*plan.corners, plan.corners[0]], Layer.HIDDEN)
    corners = plan.turned(at)
    tint = species(leaf.leaf.timber.wood).tint
    sketch.area(corners, Layer.WOOD, ref="figure:opens_to", grain=Grain.NONE, tint=tint)
    sketch.line([*corners, corners[0]], Layer.OUTLINE, ref="figure:opens_to")
    handle(sketch, corners[1], 1.1 * step, "handle:opened")
    if on_cups:
        _cup(sketch, swing, at)
    else:
        _pin(sketch, plan.pin, 0.35 * step + plan.knuckle / 2)
        _way(sketch, leaf, swing, at, corners)
    _words(sketch, leaf, swing, opened, at)
    return sketch.drawing(margin=1.5 * step)


def swung_to(leaf: LeafSolution, swing: Swing, x: float, y: float) -> float:
    """Return the share of 180° to which the leaf opens when its latch corner is drawn to a place on the drawing.

    Args:
        leaf: The leaf, worked out to the end.
        swing: How the leaf swings, and what stands in its way.
        x: Across the drawing, mm.
        y: Up the drawing, mm.
    """
    if leaf.leaf.hand is Hand.RIGHT:
        x = swing.plan.width - x
    px, py = swing.plan.pin
    shut = math.atan2(-py, swing.plan.width - px)
    turn = math.degrees(shut - math.atan2(y - py, x - px)) % 360
    return 0.0 if turn > 270 else min(turn, 180.0) / 180


def _lining(sketch: Sketch, leaf: LeafSolution, swing: Swing) -> None:
    """The jambs, with the stop that the leaf shuts against."""
    w, t, gap = swing.plan.width, swing.plan.thickness, leaf.figures["gap_hinge"].value
    side, depth = 0.35 * w, max(2.6 * t, 90.0)
    _jamb(sketch, -gap - side, -gap, depth)
    _jamb(sketch, w + swing.latch_gap, w + swing.latch_gap + side, depth)
    for x0, x1 in ((-gap, -gap + REBATE + gap), (w + swing.latch_gap - REBATE - swing.latch_gap, w + swing.latch_gap)):
        sketch.rect(Rect(x0, t, x1, t + 25), Layer.LINING)


def _cabinet(sketch: Sketch, leaf: LeafSolution, swing: Swing) -> None:
    """The cabinet's two sides, behind a leaf that lies on them or beside one that stands between them."""
    f, w, front = leaf.figures, swing.plan.width, swing.front
    if leaf.leaf.hanging.lies_on:
        hinge = (f.get("overlay_shared") or f["overlay"]).value
        latch = w - f["overlay"].value
        thick = f["division"].value if "division" in f else CABINET_SIDE
    else:
        hinge, latch, thick = -f["gap_hinge"].value, w + f["gap_latch"].value, CABINET_SIDE
    for x0, x1 in ((hinge - thick, hinge), (latch, latch + CABINET_SIDE)):
        rect = Rect(x0, front, x1, front + 0.3 * w)
        sketch.rect(rect, Layer.LINING)
        sketch.box(rect, Layer.OUTLINE)


def _cup(sketch: Sketch, swing: Swing, at: float) -> None:
    """The cup in the leaf's back, where it is commonly bored."""
    plan = swing.plan
    t = plan.thickness
    box = ((CUP_EDGE, t), (CUP_EDGE + 35.0, t), (CUP_EDGE + 35.0, 0.35 * t), (CUP_EDGE, 0.35 * t))
    sketch.area([turned(each, plan.pin, at) for each in box], Layer.METAL)


def _jamb(sketch: Sketch, x0: float, x1: float, depth: float) -> None:
    rect = Rect(x0, 0, x1, depth)
    sketch.rect(rect, Layer.WALL)
    for line in hatching(rect, 2 * sketch.step):
        sketch.line(line, Layer.FAINT)
    sketch.box(rect, Layer.OUTLINE)


def _pin(sketch: Sketch, at: Point, radius: float) -> None:
    ring = circle(*at, radius, steps=18)
    sketch.area(ring, Layer.METAL, ref="figure:butt_knuckle")


def _way(sketch: Sketch, leaf: LeafSolution, swing: Swing, at: float, corners: tuple[Point, ...]) -> None:
    """The clear way where it is measured."""
    show = sketch.show
    if at < 5:
        return
    jamb = (swing.plan.width + swing.latch_gap, 0.0)
    way = swing.clear_way(at)
    if at >= 90:
        y = -0.35 * swing.plan.width
        start = (max(x for x, _ in corners), y)
        sketch.line([jamb, (jamb[0], y)], Layer.FAINT)
        sketch.add(
            Dimension(start, (jamb[0], y), show.length(way), arrows=True, ref="figure:clear_way", layer=Layer.READING)
        )
        return
    nearest = nearest_of_leaf(swing.plan, jamb, at)
    sketch.add(Dimension(jamb, nearest, show.length(way), arrows=True, ref="figure:clear_way", layer=Layer.READING))


def _words(sketch: Sketch, leaf: LeafSolution, swing: Swing, opened: float, at: float) -> None:
    show, step = sketch.show, sketch.step
    page, w = sketch.page(), swing.plan.width
    lines = [f"opened {at:.0f}°"]
    if opened > at + 0.5:
        lines[0] += f": stopped by the {swing.stopped_by}"
    rise = swing.rise(at)
    if abs(rise) >= HAIR:
        lines.append(f"latch corner {'up' if rise > 0 else 'down'} {show.length(abs(rise))}")
    floor = floor_at(leaf.leaf.floor.swing, at)
    if floor is not None:
        f = leaf.figures
        left = f["gap_floor"].value + f["floor_high"].value + rise - floor
        lines.append(f"over the floor {show.length(left)}" if left >= 0 else f"drags by {show.length(-left)}")
    for number, line in enumerate(lines):
        layer = Layer.DOUBT if "stopped" in line or "drags" in line else Layer.LEAF
        page.label((w / 2, 9 * step + 4 * step * (len(lines) - number)), line, Lettering(layer, 1.15, bold=number == 0))
    page.label((w / 2, -1.06 * w), "plan: opening side below", PENCIL, anchor=Anchor.BELOW)
