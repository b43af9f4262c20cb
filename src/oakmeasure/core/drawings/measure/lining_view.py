"""A lining to be made, in the rough opening: legs, head and packing from the front, strips from the side."""

from __future__ import annotations

from oakmeasure.core.base.units import HAIR, Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.readings import Side
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Anchor, Dimension, Drawing, Grain, Layer, Lettering, Sketch
from oakmeasure.core.drawings.hang.crooked import crooked
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.drawings.leaf.leaf_view import floor_line
from oakmeasure.core.drawings.measure.opening_view import WALL, opening_view, wall_round
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.survey.lining import LiningPlan

SECTION_APART = 620.0  # from one section to the next, so that their names have room


def lining_view(leaf: LeafSolution, show: Show, *, exaggeration: float = 10.0) -> Drawing:
    """Return the lining from the front with its packing, and each side in section with its strips.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        exaggeration: How many times crookedness is drawn.
    """
    lining = leaf.opening.lining
    if lining is None:
        return opening_view(leaf, show, exaggeration=exaggeration)
    shape = crooked(leaf, 1.0)
    w, h = shape.width, shape.height
    sketch = Sketch(show, mirror_at=w if leaf.leaf.hand is Hand.RIGHT else None)
    step = sketch.step = max(h, 1.4 * w) / 100
    wall_round(sketch, shape)
    sketch.area(shape.points, Layer.SPACE)
    sketch.line([*shape.points, shape.points[0]], Layer.OUTLINE)
    x0, y0 = leaf.figures["rough_hinge_side_in"].value, leaf.figures["rough_floor_high"].value
    _front(sketch, lining, x0, y0)
    floor_line(sketch.page(), -WALL, w + WALL, 0.0)
    _sizes(sketch, leaf, lining, (x0, y0))
    page = sketch.page()
    x = w + WALL + 0.8 * SECTION_APART
    for side in (Side.HINGE, Side.LATCH):
        x = _section(page, lining, side, x, exaggeration)
    return sketch.drawing(margin=3 * step)


def _front(sketch: Sketch, lining: LiningPlan, x0: float, y0: float) -> None:
    t = lining.thickness
    (hf, hh), (lf, lh) = lining.legs
    (under_hinge, under_latch) = lining.underside
    foot_hinge, foot_latch = lining.corners[0][1] - y0, lining.corners[1][1] - y0
    legs = {
        "lining leg, hinge side": (hf, hh, hf + t, hh + t, foot_hinge, under_hinge),
        "lining leg, latch side": (lf - t, lh - t, lf, lh, foot_latch, under_latch),
    }
    tint = stuff(lining.parts[0].species).tint
    for name, (a, b, c, d, foot, top) in legs.items():
        corners = [(a - x0, foot), (c - x0, foot), (d - x0, top - y0), (b - x0, top - y0)]
        sketch.area(corners, Layer.WOOD, ref=f"part:{name}", grain=Grain.UPRIGHT, tint=tint)
    head = [
        (hh - x0, under_hinge - y0),
        (lh - x0, under_latch - y0),
        (lh - x0, under_latch - y0 + t),
        (hh - x0, under_hinge - y0 + t),
    ]
    sketch.area(head, Layer.WOOD, ref="part:lining head", grain=Grain.LEVEL, tint=tint)


def _sizes(sketch: Sketch, leaf: LeafSolution, lining: LiningPlan, base: tuple[float, float]) -> None:
    show, step = sketch.show, sketch.step
    f, page = leaf.figures, sketch.page()
    w, h = f["rough_clear_width"].value, f["rough_clear_height"].value
    between, outside = f["between"], lining.outside
    left, right = ((each - base[0]) for each in (lining.legs[0][0], lining.legs[1][0]))
    t = lining.thickness
    sketch.add(
        Dimension(
            (left + t, 0.55 * h), (right - t, 0.55 * h), show.length(between.value), figure="between", arrows=True
        )
    )
    page.label((w / 2, 0.55 * h - 2 * step), "between", PENCIL, anchor=Anchor.BELOW)
    page.dimension((0, -9 * step), (w, -9 * step), show.length(w), figure="rough_clear_width")
    page.label((w / 2, -12 * step), "rough, plumb", PENCIL, anchor=Anchor.BELOW)
    sketch.add(
        Dimension((left, 0.75 * h), (right, 0.75 * h), show.length(outside.value), figure="lining_outside", arrows=True)
    )
    page.label((w / 2, 0.75 * h - 2 * step), "outside", PENCIL, anchor=Anchor.BELOW)
    hinge, latch = (show.length(f[figure_name(f"leg_{slug}")].value) for slug in ("hinge", "latch"))
    if hinge == latch:
        page.label((w / 2, 0.3 * h), f"legs {hinge}", BOLD, ref="figure:leg_hinge")
    else:
        page.label((w / 2, 0.32 * h), f"hinge leg {hinge}", BOLD, ref="figure:leg_hinge")
        page.label((w / 2, 0.24 * h), f"latch leg {latch}", BOLD, ref="figure:leg_latch")
    for stretch in lining.packing:
        x = -WALL - 4 * step if stretch.side is Side.HINGE else w + WALL + 4 * step
        places = [(stretch.lower, stretch.start)]
        if abs(stretch.upper - max(lining.underside)) < 1:
            places.append((stretch.upper, stretch.end))
        for y, thick in places:
            text = show.length(thick)
            sketch.label((x, y), text, Lettering(Layer.READING, bold=True, on_paper=True), ref="figure:packing_left")


def _section(page: Sketch, lining: LiningPlan, side: Side, x: float, times: float) -> float:
    """Draw one side in section, opening face to the left, its lean exaggerated; return where the next one goes."""
    show, step = page.show, page.step
    own = [each for each in lining.strips if each.side is side and each.face == "opening face"]
    top = max(lining.underside)
    depth = lining.depth
    page.label((x + depth / 2, -2 * step), str(side), PENCIL, anchor=Anchor.BELOW)
    page.label((x + depth / 2, -7 * step), "in section", PENCIL, anchor=Anchor.BELOW)
    strips = [(0.0, 0.0, 0.0, top)] if not own else [(s.start, s.end, s.lower, s.upper) for s in own]
    for start, end, low, high in strips:
        wall = [
            (x + start * times, low),
            (x + depth + start * times, low),
            (x + depth + end * times, high),
            (x + end * times, high),
        ]
        page.area(wall, Layer.WALL)
        page.line([wall[0], wall[3]], Layer.OUTLINE)
        page.line([wall[1], wall[2]], Layer.OUTLINE)
        if start > HAIR or end > HAIR:
            strip = [(x, low), wall[0], wall[3], (x, high)]
            page.area(strip, Layer.BAND, ref="figure:strip_" + side.slug)
        page.label((x - 4 * step, low), show.length(start), Lettering(Layer.READING, bold=True), anchor=Anchor.RIGHT)
    page.label(
        (x - 4 * step, top), show.length(strips[-1][1]), Lettering(Layer.READING, bold=True), anchor=Anchor.RIGHT
    )
    for line in hatching(Rect(x + depth * 0.3, 0, x + depth * 0.7, top), 60.0):
        page.line(line, Layer.FAINT)
    page.line([(x, 0), (x, top)], Layer.LEAF)
    page.line([(x + depth, 0), (x + depth, top)], Layer.LEAF)
    return x + SECTION_APART
