"""The hinges: where they go on leaf and lining, the hinge edge, and a plan through one, enlarged."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.base.geometry import Point, circle
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Drawing, Grain, Layer, Lettering, Sketch, handle
from oakmeasure.core.drawings.edge_view import edge_on
from oakmeasure.core.drawings.hardware.bored import bored
from oakmeasure.core.drawings.hardware.cup_view import cup_view
from oakmeasure.core.drawings.layers import LINING_SHOWN, side_gaps
from oakmeasure.core.drawings.leaf.leaf_view import front, no_leaf, roomy_step, sketch_for, surround
from oakmeasure.core.hardware.hinges.butt_places import Butts
from oakmeasure.core.leaf.part import Build, Rect
from oakmeasure.core.solution import LeafSolution

# These views are wider than a leaf is high, so their texts need more mm to stand in.
ROOM = 1.35


def hardware_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the leaf with its butts, the edge with the let-ins, and the plan through a butt.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    build, butts = leaf.build, leaf.butts
    if build is not None and leaf.cups is not None:
        return cup_view(leaf, build, leaf.cups, show)
    if build is None or butts is None:
        return no_leaf(leaf, show)
    sketch = sketch_for(leaf, show, roomy_step(build, show, ROOM))
    step = sketch.step
    surround(sketch, leaf)
    front(sketch, build)
    for tenon in build.tenons:
        if build.is_at(tenon.into, Role.STILE, Place.HINGE):
            sketch.box(tenon.rect, Layer.HIDDEN)
    _knuckles(sketch, leaf, butts)
    bored(sketch, leaf)
    for place in butts.places:
        handle(sketch, (5 * step, (place.rect.y0 + place.rect.y1) / 2), 1.0 * step, f"handle:butt {place.number}")
    _heights(sketch, leaf, build, butts)
    x = build.width + side_gaps(leaf)[1] + LINING_SHOWN + 9 * step
    edge_on(sketch.page(), leaf, build, x, ends=True)
    _plan(sketch.page(), leaf, build, butts, x + build.thickness + 14 * step)
    _schools(sketch.page(), leaf, butts)
    return sketch.drawing(margin=3 * step)


def _schools(page: Sketch, leaf: LeafSolution, butts: Butts) -> None:
    """Where the other schools would put them, down from the leaf's top, for comparison."""
    step = page.step
    x, y = -side_gaps(leaf)[0] - LINING_SHOWN - 25 * step, -12 * step
    for at, (school, tops) in enumerate(butts.schools.items()):
        places = ", ".join(page.show.length(top, sign=False) for top in tops) or "no room"
        text = f"{school} it would be {places}"
        page.write((x, y - 5 * step * at), text, Lettering(Layer.PENCIL, 0.95))


def _knuckles(sketch: Sketch, leaf: LeafSolution, butts: Butts) -> None:
    f = leaf.figures
    radius, gap = f["butt_closed"].value * 0.9, f["gap_hinge"].value
    for place in butts.places:
        ref = f"butt:{place.number}"
        # The leaf of the butt lies in the edge: seen from the front only the knuckle shows, over the gap.
        sketch.rect(Rect(-gap / 2 - radius, place.rect.y0, -gap / 2 + radius, place.rect.y1), Layer.METAL, ref=ref)


def _heights(sketch: Sketch, leaf: LeafSolution, build: Build, butts: Butts) -> None:
    """Both columns of places: down from the leaf's top, and down from the head, on the hinge jamb."""
    step = sketch.step
    page = sketch.page()
    outside = side_gaps(leaf)[0] + LINING_SHOWN
    on_leaf, on_lining = -outside - 7 * step, -outside - 20 * step
    assert leaf.frame is not None
    top = leaf.frame.top("hinge")
    head = top + leaf.frame.head_gap("hinge")
    page.label((on_leaf, head + 6 * step), "leaf", Lettering(Layer.PENCIL, 0.95))
    page.label((on_lining, head + 6 * step), "lining", Lettering(Layer.PENCIL, 0.95))
    for column, start, places in (
        (on_leaf, top, [(each, each.top) for each in butts.places]),
        (on_lining, head, [(each, each.jamb_top) for each in butts.places]),
    ):
        page.line([(column, start), (column, 0)], Layer.FAINT)
        page.line([(column - step, start), (column + step, start)], Layer.DIMENSION)
        page.label((column, start + 2.2 * step), "0", Lettering(Layer.PENCIL, 0.95))
        for place, figure in places:
            y = start - figure.value
            ref = f"butt:{place.number}"
            page.line([(column - step, y), (column + step, y)], Layer.DIMENSION, ref=ref)
            page.line([(column + step, y), (-outside, y)], Layer.FAINT)
            page.label(
                (column, y - 2.0 * step),
                sketch.show.length(figure.value),
                Lettering(bold=True, on_paper=True),
                ref=f"figure:{figure.name}",
            )


def _plan(page: Sketch, leaf: LeafSolution, build: Build, butts: Butts, x: float) -> None:
    """Plan through a shut butt, enlarged, the opening face at the bottom, drawn for its hand."""
    step = page.step
    f = leaf.figures
    assert leaf.body is not None
    t = leaf.body.thickness_along("hinge")
    big = 30 * step / max(t, 30.0)  # so that the thickness fills about 40 steps
    gap, depth, across = f["gap_hinge"].value, f["butt_depth"].value, f["butt_across"].value
    knuckle, closed = f["butt_knuckle"].value, f["butt_closed"].value
    lining, stile = 18.0, 36.0
    mirrored = leaf.leaf.hand is Hand.RIGHT
    y_face = build.height - 62 * step  # the opening face
    x += 12 * step if mirrored else 0.0  # the sizes stand at the left then
    x_edge = x + (stile if mirrored else lining + gap) * big

    def at(across_x: float, into: float) -> Point:
        return (x_edge + (-across_x if mirrored else across_x) * big, y_face + into * big)

    def rect(x0: float, y0: float, x1: float, y1: float) -> Rect:
        (a, b), (c, d) = at(x0, y0), at(x1, y1)
        return Rect(min(a, c), b, max(a, c), d)

    tint = stuff(build.parts[0].species).tint
    page.write((x, build.height), "Plan through a butt, shut", BOLD)
    hand = f"opening face below, {leaf.leaf.hand_in_words}"
    page.write((x, build.height - 4 * step), hand, PENCIL)
    page.rect(rect(0, 0, stile, t), Layer.END_GRAIN, ref="part:hinge stile", grain=Grain.END, tint=tint)
    page.rect(rect(-gap - lining, 0, -gap, t + 12), Layer.LINING)
    page.label(at(-gap - lining / 2, t + 6), "lining", Lettering(Layer.PENCIL, 0.95))
    page.label(at(stile * 0.62, t * 0.5), "leaf", Lettering(Layer.OUTLINE, 1.0, on_paper=True))
    metal = f.get("butt_metal")
    plate = metal.value if metal is not None else closed / 2
    shown = max(depth, 0.0)
    for near, far in ((shown, shown - plate), (-gap - shown, -gap - shown + plate)):
        page.rect(rect(min(near, far), 0, max(near, far), across), Layer.METAL, ref="butt:1")
    pin = at(-gap / 2, -knuckle)
    radius = closed * 0.62 * big
    page.area(circle(*pin, radius), Layer.METAL, ref="butt:1")
    page.area(circle(*pin, radius * 0.35), Layer.SPACE, ref="butt:1")
    page.line([(pin[0] - 1.6 * radius, pin[1]), (pin[0] + 1.6 * radius, pin[1])], Layer.CENTRE)
    page.line([(pin[0], pin[1] - 1.6 * radius), (pin[0], pin[1] + 1.6 * radius)], Layer.CENTRE)
    _plan_dimensions(page, leaf, at, t, across, stile)


def _plan_dimensions(
    page: Sketch, leaf: LeafSolution, at: Callable[[float, float], Point], t: float, across: float, stile: float
) -> None:
    """The sizes of a let-in on the plan, and what there is to say of it under it."""
    show, step = page.show, page.step
    f = leaf.figures
    gap = f["gap_hinge"].value
    top = t + 16
    edge, other = at(0, top), at(-gap, top)
    for x, y in (edge, other):
        page.line([(x, y - 3 * step), (x, y + 3 * step)], Layer.DIMENSION)
    page.label(
        ((edge[0] + other[0]) / 2, edge[1] + 4.5 * step), f"gap {show.length(gap)}", BOLD, ref="figure:gap_hinge"
    )
    side = at(stile + 5, 0)[0]
    page.dimension((side, at(0, 0)[1]), (side, at(0, across)[1]), show.length(across), figure="butt_across")
    page.dimension(
        (side, at(0, across)[1]),
        (side, at(0, t)[1]),
        show.length(f["butt_wood_behind"].value),
        figure="butt_wood_behind",
    )
    x = min(at(stile, 0)[0], at(-gap - 18.0, 0)[0])
    y = at(0, -f["butt_knuckle"].value - f["butt_closed"].value)[1] - 7 * step
    lines = (
        (f"let in {show.length(f['butt_depth'].value)} each side", Layer.OUTLINE),
        (f"({show.length(f['butt_closed'].value)} shut − {show.length(gap)} gap) ÷ 2", Layer.PENCIL),
        (leaf.leaf.hardware.butt.name, Layer.PENCIL),
        ("the leaf with more knuckles", Layer.PENCIL),
        ("goes to the lining", Layer.PENCIL),
    )
    for row, (text, layer) in enumerate(lines):
        page.write(
            (x, y - 4.4 * step * row), text, Lettering(layer, bold=not row), ref="" if row else "figure:butt_depth"
        )
