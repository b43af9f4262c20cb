"""Lock, latch and pull: where they are on the leaf, the latch edge, and a plan through them with their depths."""

from __future__ import annotations

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Drawing, Layer, Lettering, Onto, Sketch
from oakmeasure.core.drawings.edge_view import edge_on, section
from oakmeasure.core.drawings.hardware.bored import bored
from oakmeasure.core.drawings.leaf.leaf_view import front, no_leaf, roomy_step, sketch_for, surround
from oakmeasure.core.hardware.boring import Boring, Device, Surface
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.solution import LeafSolution

ROOM = 1.3
OF_LOCKS = (Device.LOCK, Device.LATCH, Device.PULL, Device.BOLT)
IN_PLAN = 120.0  # of the leaf from its latch edge that is shown in plan
BESIDE = 24.0  # of what carries it


def lock_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the leaf with lock, latch and pull, the latch edge, and the plan through them.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    build = leaf.build
    if build is None:
        return no_leaf(leaf, show)
    sketch = sketch_for(leaf, show, roomy_step(build, show, ROOM))
    step = sketch.step
    if leaf.leaf.hanging.has_butts:
        surround(sketch, leaf)
    front(sketch, build)
    bored(sketch, leaf)
    cuts = [each for each in leaf.other_borings if each.solid is not None and each.kind.device in OF_LOCKS]
    page = sketch.page()
    x = build.width + 12 * step
    edge_on(page, leaf, build, x, at_latch=True, ends=True)
    _heights(page, leaf, build, cuts)
    _plan(page, leaf, build, cuts, x + build.thickness + 21 * step)
    return sketch.drawing(margin=2 * step)


def _heights(page: Sketch, leaf: LeafSolution, build: Build, cuts: list[Boring]) -> None:
    """The middles of what is cut, down from the leaf's top and up from the finished floor."""
    show, step = page.show, page.step
    f = leaf.figures
    floor = -f["gap_floor"].value
    if not cuts:
        return
    top, up = -10 * step, -25 * step
    page.label((top, build.height + 6 * step), "from top", Lettering(Layer.PENCIL, 0.95))
    page.label((up, build.height + 6 * step), "over floor", Lettering(Layer.PENCIL, 0.95))
    page.line([(top, build.height), (top, 0.0)], Layer.FAINT)
    page.line([(up, build.height), (up, floor)], Layer.FAINT)
    for name in ("lock_down", "latch_down", "pull_down"):
        if name not in f:
            continue
        y = build.height - f[name].value
        page.line([(up - step, y), (0.0, y)], Layer.FAINT)
        page.label(
            (top, y - 2.2 * step), show.length(f[name].value), Lettering(bold=True, on_paper=True), ref=f"figure:{name}"
        )
        page.label(
            (up, y - 2.2 * step), show.length(y - floor), Lettering(bold=True, on_paper=True), ref=f"figure:{name}"
        )


def _plan(page: Sketch, leaf: LeafSolution, build: Build, cuts: list[Boring], x: float) -> None:
    """Level section through the lock, else the latch, else the pull, enlarged, the opening face below."""
    step = page.step
    page.write((x, build.height), "Plan through it, shut", BOLD)
    hand = f"opening face below, {leaf.leaf.hand_in_words}"
    page.write((x, build.height - 4 * step), hand, PENCIL)
    centre = next(
        (leaf.figures[name] for name in ("lock_down", "latch_down", "pull_down") if name in leaf.figures), None
    )
    if centre is None or not cuts:
        page.write((x, build.height - 10 * step), "none yet: choose at the left", PENCIL)
        return
    assert leaf.body is not None
    y, w, t = build.height - centre.value, build.width, leaf.body.thickness_along("latch")
    big = 46 * step / (IN_PLAN + BESIDE)
    mirrored = leaf.leaf.hand is Hand.RIGHT
    base = build.height - 14 * step - (t + 6) * big
    start = x + (BESIDE if mirrored else 0.0) * big

    def at(from_hinge: float, into: float) -> Point:
        off = w - from_hinge if mirrored else from_hinge - (w - IN_PLAN)
        return start + off * big, base + into * big

    section(page, leaf, build, ((w - IN_PLAN, y), (w, y)), at, lit=tuple({each.family for each in cuts}))
    _carrier(page, leaf, at, w, t)
    _sizes(page, leaf, cuts, at, y, t)


def _carrier(page: Sketch, leaf: LeafSolution, at: Onto, w: float, t: float) -> None:
    if not leaf.leaf.hanging.has_butts:
        return
    gap = leaf.figures["gap_latch"].value
    outline = [at(w + gap, 0.0), at(w + BESIDE, 0.0), at(w + BESIDE, t + 6), at(w + gap, t + 6)]
    page.area(outline, Layer.LINING)


def _sizes(page: Sketch, leaf: LeafSolution, cuts: list[Boring], at: Onto, y: float, t: float) -> None:
    show, step = page.show, page.step
    f, w = leaf.figures, leaf.build.width if leaf.build else 0.0
    deep = max(
        (each for each in cuts if each.side.surface is Surface.LATCH_EDGE), key=lambda each: each.depth, default=None
    )
    back = next((f[name] for name in ("lock_backset", "latch_backset", "pull_in") if name in f), None)
    low, high = at(w, 0)[1], at(w, t)[1]
    if deep is not None:
        line = low - 5 * step
        page.dimension((at(w, 0)[0], line), (at(w - deep.depth, 0)[0], line), show.length(deep.depth), ref=deep.ref)
    if back is not None:
        line = high + 5 * step
        page.dimension((at(w, 0)[0], line), (at(w - back.value, 0)[0], line), show.length(back.value), figure=back.name)
    x = min(at(w - IN_PLAN, 0)[0], at(w, 0)[0])
    texts = [
        f"{each.name}: {show.length(each.across)} across, {show.length(each.depth)} deep"
        if each.side.surface in (Surface.LATCH_EDGE, Surface.MEETING_EDGE)
        else f"{each.name}: {show.length(each.across)} in, {show.length(each.along)} high"
        for each in cuts
    ]
    for row, (text, each) in enumerate(zip(texts, cuts, strict=True)):
        text += ", slow leaf" if each.is_slow else ""
        page.write((x, low - (11 + 4.4 * row) * step), text, ref=each.ref)
