"""Cup hinges: where cups and plates go, and a plan through one with its depths and the way of its corner."""

from __future__ import annotations

from oakmeasure.core.base.geometry import Point, circle
from oakmeasure.core.base.units import HAIR, Show
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import (
    BOLD,
    PENCIL,
    Anchor,
    Drawing,
    Grain,
    Layer,
    Lettering,
    Onto,
    Sketch,
    handle,
)
from oakmeasure.core.drawings.edge_view import edge_on
from oakmeasure.core.drawings.hardware.bored import bored
from oakmeasure.core.drawings.leaf.leaf_view import front, roomy_step, sketch_for
from oakmeasure.core.fit.swing.cup_clearance import corner_way, cup_pin
from oakmeasure.core.hardware.hinges.cup_checks import CUP
from oakmeasure.core.hardware.hinges.cups import Cups
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.solution import LeafSolution

ROOM = 1.3
SWEEP = 70.0  # degrees of the corner's way that are drawn


def cup_view(leaf: LeafSolution, build: Build, cups: Cups, show: Show) -> Drawing:
    """Return the leaf with its cups, both columns of heights, and the plan through a hinge.

    Args:
        leaf: The leaf, worked out to the end.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        cups: The leaf's cup hinges; None where it hangs on something else.
        show: How lengths and other quantities are written.
    """
    sketch = sketch_for(leaf, show, roomy_step(build, show, ROOM))
    step = sketch.step
    front(sketch, build)
    for place in cups.places:
        _cup(sketch, place.rect.x0 + CUP / 2, place.rect.y0 + CUP / 2, leaf, f"cup:{place.number}")
    bored(sketch, leaf)
    for place in (cups.places[0], cups.places[-1]):
        middle = (place.rect.y0 + place.rect.y1) / 2
        handle(sketch, (place.rect.x1 + 5 * step, middle), 1.0 * step, f"handle:cup {place.number}")
    _heights(sketch, leaf, build, cups)
    page = sketch.page()
    page.label(
        (build.width / 2, -3 * step), "seen from the opening side", Lettering(Layer.PENCIL, 0.95), anchor=Anchor.BELOW
    )
    x = build.width + 14 * step
    edge_on(page, leaf, build, x)
    _plan(page, leaf, build, cups, x + build.thickness + 16 * step)
    return sketch.drawing(margin=4 * step)


def _cup(sketch: Sketch, x: float, y: float, leaf: LeafSolution, ref: str) -> None:
    """A cup in hidden line, its two screws on their line."""
    hinge = leaf.leaf.hardware.cup.hinge
    sketch.line(circle(x, y, CUP / 2), Layer.HIDDEN, ref=ref)
    line = x + hinge.pattern_off
    for off in (-hinge.pattern_apart / 2, hinge.pattern_apart / 2):
        sketch.line(circle(line, y + off, 3.0), Layer.HIDDEN, ref=ref)
    sketch.line([(x - 24, y), (x + 24, y)], Layer.CENTRE)
    sketch.line([(x, y - 24), (x, y + 24)], Layer.CENTRE)


def _heights(sketch: Sketch, leaf: LeafSolution, build: Build, cups: Cups) -> None:
    """Down from the leaf's top, and for the plates down from the opening's upper edge."""
    step = sketch.step
    page = sketch.page()
    assert leaf.frame is not None
    top = leaf.frame.top("hinge")
    for x, start, word, places in (
        (-8 * step, top, "cups", [(each.number, each.top) for each in cups.places]),
        (-21 * step, top + leaf.frame.head_gap("hinge"), "plates", [(each.number, each.plate) for each in cups.places]),
    ):
        page.label((x, build.height + 7 * step), word, Lettering(Layer.PENCIL, 0.95))
        page.line([(x, start), (x, 0)], Layer.FAINT)
        page.line([(x - step, start), (x + step, start)], Layer.DIMENSION)
        page.label((x, start + 2.2 * step), "0", Lettering(Layer.PENCIL, 0.95))
        for number, figure in places:
            y = start - figure.value
            page.line([(x - step, y), (x + step, y)], Layer.DIMENSION, ref=f"cup:{number}")
            page.line([(x + step, y), (0, y)], Layer.FAINT)
            page.label(
                (x, y - 2.2 * step),
                sketch.show.length(figure.value),
                Lettering(bold=True, on_paper=True),
                ref=f"figure:{figure.name}",
            )


def _plan(page: Sketch, leaf: LeafSolution, build: Build, cups: Cups, x: float) -> None:
    """Plan through a shut hinge, enlarged, the opening face below; drawn for its hand."""
    step = page.step
    f, mirrored = leaf.figures, leaf.leaf.hand is Hand.RIGHT
    assert leaf.body is not None
    t, over, big = leaf.body.thickness_along("hinge"), cups.over.value, 62 * step / 74.0
    inset = leaf.leaf.hanging is Hanging.INSET
    shown = 74.0
    x0 = x + (shown if mirrored else 24.0) * big
    y0 = build.height - 8 * step - (t + 34.0) * big
    side = leaf.leaf.cabinet.side

    def at(across: float, into: float) -> Point:
        return (x0 + (-across if mirrored else across) * big, y0 + into * big)

    def box(a: float, b: float, c: float, d: float) -> list[Point]:
        return [at(a, b), at(c, b), at(c, d), at(a, d)]

    hand = f"opening face below, {leaf.leaf.hand_in_words}"
    page.write((x, build.height), "Plan through a hinge, shut", BOLD)
    page.write((x, build.height - 4 * step), hand, PENCIL)
    tint = stuff(build.parts[0].species).tint
    # Leaf: from its hinge edge at 0 inwards. Cabinet's side: outside of it for inset, under it for an overlay.
    page.area(box(0, 0, shown - 24, t), Layer.END_GRAIN, ref="part:hinge stile", grain=Grain.END, tint=tint)
    s0, s1 = over - side, over
    deep = (0.0, t + 30.0) if inset else (t + leaf.leaf.hardware.cup.hinge.stand_off, t + 32.0)
    page.area(box(s0, deep[0], s1, deep[1]), Layer.LINING)
    centre, cup = cups.centre.value, f["cup_depth"].value
    page.area(box(centre - CUP / 2, t - cup, centre + CUP / 2, t), Layer.METAL, ref="cup:1")
    point = f["cup_point"].value
    page.area([at(centre - 2, t - cup), at(centre + 2, t - cup), at(centre, t - cup - point)], Layer.METAL, ref="cup:1")
    page.area(box(s1, t + 6, s1 + 9, t + 26), Layer.METAL, ref="cup:1")  # the plate on the side
    page.area(box(s1 + 4, t + 4, centre, t + 9), Layer.METAL, ref="cup:1")  # the arm
    _swept(page, leaf, cups, at)
    _sizes(page, leaf, cups, at, t)


def _swept(page: Sketch, leaf: LeafSolution, cups: Cups, at: Onto) -> None:
    """The way of the front corner as the leaf opens, out to its least reveal."""
    if cups.reveal is None or cups.reveal.value < HAIR:
        return
    pin = cup_pin(leaf.leaf.hardware.cup.hinge, thickness=leaf.figures["thickness"].value, boring=cups.boring.value)
    page.line([at(*each) for each in corner_way(pin, degrees=SWEEP)], Layer.LEAF, ref="figure:cup_reveal")


def _sizes(page: Sketch, leaf: LeafSolution, cups: Cups, at: Onto, t: float) -> None:
    show, step = page.show, page.step
    f = leaf.figures
    boring, centre = cups.boring.value, cups.centre.value
    low = at(0, 0)[1]
    page.dimension(
        (at(0, 0)[0], low - 5 * step), (at(centre, 0)[0], low - 5 * step), show.length(centre), figure="cup_centre"
    )
    side = at(50, 0)[0] + (2 * step if at(50, 0)[0] > at(0, 0)[0] else -2 * step)
    page.dimension((side, at(0, 0)[1]), (side, at(0, t)[1]), show.length(t), figure="thickness")
    lines = (
        ("cups in the closing face", "cup_count"),
        (f"leaf's edge to the cup {show.length(boring)}", "cup_boring"),
        (f"overlay {show.length(cups.over.value)} = boring + reach {show.length(f['cup_reach'].value)}", "cup_overlay"),
        (f"− crank {show.length(f['cup_crank'].value)} − plate {show.length(f['cup_plate'].value)}", "cup_crank"),
        (
            f"cup {show.length(f['cup_depth'].value)} deep, {show.length(f['cup_left'].value)} left under its point",
            "cup_left",
        ),
        (f"plate's holes {show.length(cups.plate_back.value)} back from the front edge", "plate_back"),
    )
    x = min(at(-24, 0)[0], at(50, 0)[0])
    for row, (text, name) in enumerate(lines):
        page.write((x, low - (11 + 4.4 * row) * step), text, Lettering(bold=name == "cup_boring"), ref=f"figure:{name}")
    if cups.reveal is not None:
        page.write(
            (x, low - (11 + 4.4 * len(lines)) * step),
            f"corner's way: {show.length(cups.reveal.value)} out",
            Lettering(Layer.LEAF),
            ref="figure:cup_reveal",
        )
    page.write((x, low - (11 + 4.4 * (len(lines) + 1)) * step), leaf.leaf.hardware.cup.hinge.name, PENCIL)
