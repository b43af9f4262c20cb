"""The ways of making an old leaf narrower, side by side: what comes off hatched; or the leaf with its late trim."""

from __future__ import annotations

from itertools import pairwise

from oakmeasure.core.base.units import HAIR, Show
from oakmeasure.core.construction.existing.model import Existing, panelled
from oakmeasure.core.construction.existing.narrowing import Reduction, distinct, sights_of, ways_of
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import BOLD, Anchor, Drawing, Grain, Layer, Lettering, Sketch
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.drawings.leaf.leaf_view import front, joints, no_leaf, sketch_for, unit_step
from oakmeasure.core.leaf.part import Build, Rect
from oakmeasure.core.solution import LeafSolution
from oakmeasure.data import table


def ways_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the ways side by side; of a leaf without such ways, the leaf with what is trimmed off it.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    choice, build = panelled(leaf.leaf.build), leaf.build
    if build is None:
        return no_leaf(leaf, show)
    over = leaf.figures["old_over"].value if "old_over" in leaf.figures else 0.0
    if choice is not None and over > HAIR:
        found = ways_of(choice, over, leaf.figures["rule_joint_step"].value)
        if found:
            return _side_by_side(choice, distinct(found, choice.reduce_by), show)
    return _trimmed(leaf, build, show)


def _side_by_side(choice: Existing, found: list[Reduction], show: Show) -> Drawing:
    sketch, x, apart = Sketch(show), 0.0, 0.8 * choice.width
    for each in found:
        _one(sketch, choice, each, x)
        x += choice.width + apart
    return sketch.drawing(margin=30.0)


def _one(sketch: Sketch, choice: Existing, way: Reduction, x: float) -> None:
    """The old leaf as it is, each member's loss hatched where it is cut."""
    w, h, s, tint = choice.width, choice.height, choice.stile, stuff(choice.wood).tint
    bounds = [0.0, choice.bottom_rail]
    if choice.middle_rail is not None:
        half = choice.middle_rail / 2
        bounds += [choice.middle_up - half, choice.middle_up + half]
    bounds += [h - choice.top_rail, h]
    rails = list(zip(bounds[::2], bounds[1::2], strict=True))
    for x0 in (0.0, w - s):
        sketch.rect(Rect(x + x0, 0, x + x0 + s, h), Layer.WOOD, grain=Grain.UPRIGHT, tint=tint)
    for low, high in rails:
        sketch.rect(Rect(x + s, low, x + w - s, high), Layer.WOOD, grain=Grain.LEVEL, tint=tint)
    for row, ((_, low), (high, _)) in enumerate(pairwise(rails)):
        _row(sketch, choice, way, row, Rect(x + s, low, x + s + sights_of(choice)[row], high))
    if way.stile_off > HAIR:
        for x0, x1 in ((0.0, way.stile_off), (w - way.stile_off, w)):
            _cut(sketch, Rect(x + x0, 0, x + x1, h))
        text = sketch.show.length(way.stile_off)
        sketch.label((x, h), text, Lettering(Layer.DOUBT, bold=True), anchor=Anchor.ABOVE)
        sketch.label((x + w, h), text, Lettering(Layer.DOUBT, bold=True), anchor=Anchor.ABOVE)
    sketch.label((x + w / 2, 0), table("ways_out")[way.key]["title"], BOLD, anchor=Anchor.BELOW, ref="figure:stile_off")


def _row(sketch: Sketch, choice: Existing, way: Reduction, row: int, first: Rect) -> None:
    """A row of panels; `first` is the face of its first."""
    x, low, sight, high, tint = first.x0, first.y0, first.width, first.y1, stuff(choice.wood).tint
    told: list[tuple[float, str]] = []  # after all panels: a narrow one would lie on its neighbour's figure
    for at, off in enumerate(way.panels[row]):
        face = Rect(x, low, x + sight, high)
        sketch.rect(face, Layer.PANEL, grain=Grain.UPRIGHT, tint=tint)
        if off:
            _cut(sketch, Rect(x + sight - off, low, x + sight, high))
            told.append((x + sight / 2, sketch.show.length(off, sign=False)))
        x += sight
        if at < len(way.panels[row]) - 1:
            sketch.rect(Rect(x, low, x + choice.muntin, high), Layer.WOOD, grain=Grain.UPRIGHT, tint=tint)
            x += choice.muntin
    for at_x, words in told:
        sketch.label((at_x, (low + high) / 2), words, Lettering(Layer.DOUBT, 0.9, bold=True, on_paper=True))


def _cut(sketch: Sketch, rect: Rect) -> None:
    sketch.rect(rect, Layer.WASTE)
    for line in hatching(rect, max(rect.width, 12.0)):
        sketch.line(line, Layer.DOUBT)
    sketch.box(rect, Layer.DOUBT)


def _trimmed(leaf: LeafSolution, build: Build, show: Show) -> Drawing:
    """The leaf with its joints, what is trimmed off hatched round it."""
    sketch, late = sketch_for(leaf, show, unit_step(build)), leaf.leaf.late
    front(sketch, build)
    joints(sketch, build)
    w, h = build.width, build.height
    for edge, rect, at in (
        ("foot", Rect(0, -late.foot, w, 0), (w / 2, -late.foot)),
        ("head", Rect(0, h, w, h + late.head), (w / 2, h)),
        ("hinge", Rect(-late.hinge, 0, 0, h), (-late.hinge, h / 2)),
        ("latch", Rect(w, 0, w + late.latch, h), (w + late.latch, h / 2)),
    ):
        off = getattr(late, edge)
        if not off:
            continue
        _cut(sketch, rect)
        anchor = {"foot": Anchor.BELOW, "head": Anchor.ABOVE, "hinge": Anchor.RIGHT, "latch": Anchor.LEFT}[edge]
        sketch.label(
            at, f"{show.length(off)} off", Lettering(Layer.DOUBT, bold=True), anchor=anchor, ref=f"figure:late_{edge}"
        )
    side = "right" if leaf.leaf.hand is Hand.RIGHT else "left"
    sketch.page().label((w / 2, h), f"hinges {side}", Lettering(Layer.PENCIL, 0.9), anchor=Anchor.ABOVE)
    return sketch.drawing(margin=40.0)
