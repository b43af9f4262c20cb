"""What clashes: every cut, screw, joint and fixing on the leaf's face, both edges, and a section through each clash."""

from __future__ import annotations

from oakmeasure.core.base.geometry import Point, circle
from oakmeasure.core.base.geometry import Point as Place
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.edge_view import edge_on, section
from oakmeasure.core.drawings.hardware.bored import outline_of
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.drawings.leaf.leaf_view import front, no_leaf, roomy_step, sketch_for
from oakmeasure.core.hardware.clash.rules import BodyKind
from oakmeasure.core.hardware.clash.search import HARDWARE, Clash
from oakmeasure.core.hardware.clash.zones import zones
from oakmeasure.core.leaf.part import Build, Rect
from oakmeasure.core.solution import LeafSolution

ROOM = 1.25
SECTIONS = 3  # that are drawn, of the worst clashes
IN_SECTION = 130.0  # of the leaf's width that a section shows


def clash_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the leaf with all that lies in it, keep-out zones hatched by their outline, each clash ringed and cut.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    build, body = leaf.build, leaf.body
    if build is None or body is None:
        return no_leaf(leaf, show)
    sketch = sketch_for(leaf, show, roomy_step(build, show, ROOM))
    step = sketch.step
    front(sketch, build)
    for zone in zones(leaf.clashes, body):
        rect = Rect(zone.from_hinge, build.height - zone.to, zone.in_to, build.height - zone.from_top)
        sketch.rect(rect, Layer.BAND, ref=zone.ref)
    for thing in leaf.clashes.things:
        if thing.kind not in (BodyKind.BITE, BodyKind.PANEL, BodyKind.HOLLOW, BodyKind.BLOCKS):
            layer = Layer.OUTLINE if thing.kind in HARDWARE else Layer.HIDDEN
            sketch.line(outline_of(thing.solid), layer, ref=thing.ref)
    page = sketch.page()
    for number, clash in enumerate(leaf.clashes.clashes, start=1):
        x, y = place_between(clash)
        ref = f"clash:{number}"
        sketch.line(circle(x, y, 2.2 * step), Layer.DOUBT, ref=ref)
        sketch.label((x, y + 3.6 * step), str(number), Lettering(Layer.DOUBT, bold=True, on_paper=True), ref=ref)
    page.write((0.0, -3 * step), "keep the tinted free", Lettering(Layer.PENCIL, 0.95))
    x = build.width + 8 * step
    edge_on(page, leaf, build, x)
    edge_on(page, leaf, build, x + build.thickness + 18 * step, at_latch=True)
    _sections(page, leaf, build, x + 2 * build.thickness + 32 * step)
    return sketch.drawing(margin=2 * step)


def zones_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the leaf with its keep-out zones alone, numbered from the top down, for paper.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    build, body = leaf.build, leaf.body
    if build is None or body is None:
        return no_leaf(leaf, show)
    sketch = sketch_for(leaf, show, roomy_step(build, show, ROOM))
    step = sketch.step
    front(sketch, build)
    found = zones(leaf.clashes, body)
    for number, zone in enumerate(found, start=1):
        rect = Rect(zone.from_hinge, build.height - zone.to, zone.in_to, build.height - zone.from_top)
        sketch.rect(rect, Layer.SPACE, ref=zone.ref)
        for line in hatching(rect, step):  # a tint alone is lost on a copier
            sketch.line(line, Layer.OUTLINE)
        sketch.box(rect, Layer.OUTLINE, ref=zone.ref)
        near_hinge = rect.x0 < build.width / 2
        x = rect.x0 - 1.8 * step if near_hinge and rect.width < build.width / 2 else rect.x1 + 1.8 * step
        sketch.label(
            (x, (rect.y0 + rect.y1) / 2), str(number), Lettering(size=1.25, bold=True, on_paper=True), ref=zone.ref
        )
    return sketch.drawing(margin=3 * step)


def place_between(clash: Clash) -> Place:
    """Return the middle of where two things come nearest, by their boxes.

    Args:
        clash: The two that are too near one another.
    """
    a, b = clash.one.solid.box, clash.other.solid.box
    xs = sorted((max(a[0], b[0]), min(a[2], b[2])))
    ys = sorted((max(a[1], b[1]), min(a[3], b[3])))
    return (xs[0] + xs[1]) / 2, (ys[0] + ys[1]) / 2


def _sections(page: Sketch, leaf: LeafSolution, build: Build, x: float) -> None:
    """Level sections through the worst clashes, the opening face below, as wide as both things need."""
    step = page.step
    top = build.height
    if not leaf.clashes.clashes:
        page.write((x, top), "Nothing clashes", BOLD)
        count = sum(each.kind in HARDWARE for each in leaf.clashes.things)
        page.write((x, top - 4.4 * step), f"{count} cuts and screws for hardware,", PENCIL)
        page.write((x, top - 8.4 * step), "each against all that lies in the leaf", PENCIL)
        return
    mirrored = leaf.leaf.hand is Hand.RIGHT
    for number, clash in enumerate(leaf.clashes.clashes[:SECTIONS], start=1):
        across, y = place_between(clash)
        low = min(max(across - IN_SECTION / 2, 0.0), max(build.width - IN_SECTION, 0.0))
        high = min(low + IN_SECTION, build.width)
        big = 40 * step / IN_SECTION
        _heading(page, clash, number, x, top)
        base = top - 16 * step - build.thickness * big

        def at(
            from_hinge: float, into: float, low: float = low, high: float = high, base: float = base, big: float = big
        ) -> Point:
            off = high - from_hinge if mirrored else from_hinge - low
            return x + off * big, base + into * big

        section(page, leaf, build, ((low, y), (high, y)), at, lit=(clash.one.family, clash.other.family))
        centre = at(across, (clash.one.solid.depth[0] + clash.one.solid.depth[1]) / 2)
        page.line(circle(*centre, 2.6 * step), Layer.DOUBT, ref=f"clash:{number}")
        down = page.show.length(build.height - y)
        page.write((x, base - 2.4 * step), f"{down} down, opening face below", Lettering(Layer.PENCIL, 0.95))
        top = base - 10 * step


def _heading(page: Sketch, clash: Clash, number: int, x: float, y: float) -> None:
    show, step = page.show, page.step
    share = clash.distance < 0
    how = f"they share {show.length(-clash.distance)}" if share else f"{show.length(clash.distance)} between them"
    page.write((x, y), f"{number}  {clash.one.name}", BOLD, ref=f"clash:{number}")
    page.write((x, y - 4.2 * step), f"and the {clash.other.name}", ref=f"clash:{number}")
    more = f", {clash.alike} alike" if clash.alike > 1 else ""
    page.write((x, y - 8.4 * step), how + more, Lettering(Layer.DOUBT))
