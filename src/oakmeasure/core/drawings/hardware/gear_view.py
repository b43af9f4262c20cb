"""What a sliding leaf hangs on: track, holes and studs from the front; sections through a fixing and the foot."""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise

from oakmeasure.core.base.geometry import circle
from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.sliding_gear import GuideKind, HangerKind
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Anchor, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.hardware.bored import bored
from oakmeasure.core.drawings.hardware.stack_view import stack_drawn
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.drawings.leaf.leaf_view import floor_line, front, no_leaf, roomy_step, sketch_for
from oakmeasure.core.drawings.words import broken
from oakmeasure.core.hardware.sliding.hangers import Gear
from oakmeasure.core.leaf.part import Build, Rect
from oakmeasure.core.solution import LeafSolution

ROOM = 1.25
RAIL = 40.0  # of a track, drawn for the eye
STRAP = 34.0
CLOSE = 14.0  # steps between two holes whose texts would meet
CAPTION = 36  # characters of a line under a title


def gear_view(leaf: LeafSolution, show: Show, gear: Gear) -> Drawing:
    """Return the leaf shut under its track, every hole told from a miss, the loads, and two sections enlarged.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        gear: What the leaf slides on.
    """
    build = leaf.build
    if build is None:
        return no_leaf(leaf, show)
    sketch = sketch_for(leaf, show, roomy_step(build, show, ROOM))
    step = sketch.step
    f = leaf.figures
    line = build.height + f["hole_up"].value if "hole_up" in f else -f["gap_floor"].value
    _studs(sketch, leaf, gear, line)
    front(sketch, build)
    bored(sketch, leaf)
    _track(sketch, leaf, gear, line)
    _hangers(sketch, leaf, build, gear, line)
    track = f["track_needed"].value
    end = track if gear.kind is HangerKind.FLOOR else build.width  # beside it the sections are drawn
    floor_line(sketch, -6 * step, end + 6 * step, -f["gap_floor"].value)
    _line(sketch, leaf, line)
    page = sketch.page()
    # Beside the shut leaf, under the track, the wall is free: there is room for what is drawn large.
    x = build.width + 7 * step if sketch.mirror_at is None else min(build.width - track, -45 * step)
    y = line - 16 * step if gear.kind is not HangerKind.FLOOR else build.height
    if gear.kind is not HangerKind.FLOOR and leaf.leaf.hanging is not Hanging.POCKET:
        y = stack_drawn(page, leaf, x, y)
    _foot(page, leaf, build, x, y - 3 * step)
    return sketch.drawing(margin=2 * step)


def _studs(sketch: Sketch, leaf: LeafSolution, gear: Gear, line: float) -> None:
    """The studs behind the plaster, as far as the track goes."""
    step = sketch.step
    track, wide = leaf.figures["track_needed"].value, leaf.leaf.hardware.wall.stud_width
    for at in gear.studs:
        if -0.2 * track < at < 1.1 * track:
            rect = Rect(at - wide / 2, line - 9 * step, at + wide / 2, line + 11 * step)
            sketch.rect(rect, Layer.LINING)
            sketch.box(rect, Layer.HIDDEN)


def _track(sketch: Sketch, leaf: LeafSolution, gear: Gear, line: float) -> None:
    """The track where it is held up, its holes: round where they hold, crossed where they miss."""
    show, step = sketch.show, sketch.step
    track, start = leaf.figures["track_needed"].value, gear.shift
    half = RAIL / 2 if gear.kind is not HangerKind.FLOOR else RAIL / 5
    sketch.rect(Rect(start, line - half, start + track, line + half), Layer.METAL, ref="figure:track_needed")
    sketch.box(Rect(start, line - half, start + track, line + half), Layer.OUTLINE, ref="figure:track_needed")
    held = gear.held or tuple(True for _ in gear.holes)
    stagger = any(b - a < CLOSE * step for a, b in pairwise(gear.holes))
    for number, (hole, holds) in enumerate(zip(gear.holes, held, strict=True), start=1):
        x, ref = start + hole, f"hole:{number}"
        layer = Layer.OUTLINE if holds else Layer.DOUBT
        sketch.line(circle(x, line, 0.9 * step), layer, ref=ref)
        if not holds:
            r = 1.6 * step
            sketch.line([(x - r, line - r), (x + r, line + r)], Layer.DOUBT, ref=ref)
            sketch.line([(x - r, line + r), (x + r, line - r)], Layer.DOUBT, ref=ref)
        up = 5.0 + (3.6 if stagger and number % 2 == 0 else 0.0)
        sketch.label(
            (x, line + up * step), show.length(hole, sign=False), Lettering(layer, 0.95, on_paper=True), ref=ref
        )
    for number, shim in enumerate(gear.shims, start=1):
        x = start + gear.holes[number - 1]
        sketch.label(
            (x, line - 5 * step),
            show.length(shim.value),
            Lettering(bold=True, on_paper=True),
            ref=f"figure:{shim.name}",
        )
    if gear.shims:
        sketch.label(
            (start + track, line - 9.5 * step), "shims at the holes", Lettering(Layer.PENCIL, 0.95), anchor=Anchor.RIGHT
        )
    y = line + (12.5 if stagger else 9.0) * step
    sketch.dimension((start, y), (start + track, y), show.length(track), figure="track_needed")
    if "stop_room" in leaf.figures:
        room, long = leaf.figures["stop_room"].value, leaf.figures["stop_long"].value
        for x0, x1 in ((start + room - long, start + room), (start + track - room, start + track - room + long)):
            sketch.rect(Rect(x0, line - 0.7 * RAIL, x1, line + 0.7 * RAIL), Layer.METAL, ref="figure:stop_open")
            sketch.box(Rect(x0, line - 0.7 * RAIL, x1, line + 0.7 * RAIL), Layer.OUTLINE, ref="figure:stop_open")


def _hangers(sketch: Sketch, leaf: LeafSolution, build: Build, gear: Gear, line: float) -> None:
    """Straps with their wheels, and what each carries."""
    show, step = sketch.show, sketch.step
    for number, (x, load) in enumerate(zip(gear.at, gear.loads, strict=True), start=1):
        ref = f"figure:{load.name}"
        if gear.kind is HangerKind.FACE:
            low = build.height - leaf.figures["bolt_down"].value - leaf.leaf.hardware.hangers.bolt_apart - 22.0
            strap = Rect(x - STRAP / 2, low, x + STRAP / 2, line + RAIL * 0.9)
            sketch.box(strap, Layer.OUTLINE, ref=ref)
            sketch.line(circle(x, line + RAIL * 0.9, STRAP * 0.9), Layer.OUTLINE, ref=ref)
        elif gear.kind is HangerKind.TOP:
            sketch.line([(x, build.height), (x, line)], Layer.OUTLINE, ref=ref)
            sketch.line(circle(x, line, STRAP / 2), Layer.OUTLINE, ref=ref)
        y = build.height * 0.62
        sketch.line([(x, y), (x, y - 12 * step)], Layer.READING, ref=ref)
        for side in (-1.0, 1.0):
            sketch.line([(x, y - 12 * step), (x + side * step, y - 9.5 * step)], Layer.READING, ref=ref)
        sketch.label((x, y + 3 * step), show.value(load.value, Unit.N), Lettering(bold=True, on_paper=True), ref=ref)
        inward = (0.0, x) if number == 1 else (x, build.width)
        low = y - 15 * step
        sketch.dimension((inward[0], low), (inward[1], low), show.length(inward[1] - inward[0]), figure="bolt_in")


def _line(sketch: Sketch, leaf: LeafSolution, line: float) -> None:
    f = leaf.figures
    if "track_line" not in f:
        return
    x = -12 * sketch.step
    sketch.dimension(
        (x, line - f["track_line"].value), (x, line), sketch.show.length(f["track_line"].value), figure="track_line"
    )


def _foot(page: Sketch, leaf: LeafSolution, build: Build, x: float, top: float) -> None:
    """Section through the foot with its guide, the wall to the right: groove, fin, plate and gap at their sizes."""
    show, step = page.show, page.step
    f, guide = leaf.figures, leaf.leaf.hardware.guide
    t, gap = build.thickness, f["gap_floor"].value
    big = 26 * step / max(t + 40, 80.0)
    page.write((x, top), "Section through the foot", BOLD)
    words = str(guide.kind) if leaf.leaf.hanging is not Hanging.FLOOR_GEAR else "wheels on the track"
    for line in broken(show, f"{words}, {guide.floor}; wall to the right", CAPTION):
        top -= 4.2 * step
        page.write((x, top), line, PENCIL)
    y0 = top - 6.0 * step - 60 * big
    x0 = x + 10 * step

    def rect(a: float, b: float, c: float, d: float) -> Rect:
        """a, c: from the leaf's opening face to the wall; b, d: up from the leaf's foot."""
        return Rect(x0 + a * big, y0 + b * big, x0 + c * big, y0 + d * big)

    tint = stuff(build.parts[0].species).tint
    page.rect(rect(0, 0, t, 60), Layer.WOOD, ref="part:foot", tint=tint)
    ground = rect(-25, -gap - 14, t + 25, -gap)
    page.rect(ground, Layer.WALL)
    for each in hatching(ground, 2.2 * step):
        page.line(each, Layer.FAINT)
    page.line([(ground.x0, ground.y1), (ground.x1, ground.y1)], Layer.FLOOR)
    assert leaf.body is not None
    edge = leaf.body.along("hinge")[1]
    if guide.kind is GuideKind.FIN and "guide_depth" in f:
        _fin(page, leaf, edge, t, rect)
    elif guide.kind is GuideKind.CHEEKS:
        for a, b in ((-guide.felt - guide.cheek, -guide.felt), (edge + guide.felt, edge + guide.felt + guide.cheek)):
            page.rect(rect(a, -gap, b, 32), Layer.METAL, ref="figure:guide_spacing")
    if "plate_deep" in f and leaf.leaf.hanging is Hanging.FLOOR_GEAR:
        wide, deep = f["plate_wide"].value, f["plate_deep"].value
        page.rect(rect((edge - wide) / 2, 0, (edge + wide) / 2, deep), Layer.SPACE, ref="figure:plate_deep")
        page.box(rect((edge - wide) / 2, 0, (edge + wide) / 2, deep), Layer.OUTLINE, ref="figure:plate_deep")
        page.rect(rect(edge / 2 - 4, -gap + 4, edge / 2 + 4, deep - 4), Layer.METAL, ref="figure:hanger_1")
        page.rect(rect(edge / 2 - 14, -gap, edge / 2 + 14, -gap + 4), Layer.METAL, ref="figure:track_needed")
        side = rect(t, 0, t, deep)
        page.dimension(
            (side.x1 + 3 * step, side.y0), (side.x1 + 3 * step, side.y1), show.length(deep), figure="plate_deep"
        )
    left = rect(0, 0, 0, 0)
    page.dimension(
        (left.x0 - 3 * step, left.y0 - gap * big), (left.x0 - 3 * step, left.y0), show.length(gap), figure="gap_floor"
    )


def _fin(
    page: Sketch, leaf: LeafSolution, edge: float, t: float, rect: Callable[[float, float, float, float], Rect]
) -> None:
    """The groove in the foot and the fin in it."""
    show, step, f, guide = page.show, page.step, leaf.figures, leaf.leaf.hardware.guide
    gap = f["gap_floor"].value
    deep = (f.get("guide_left") or f["guide_depth"]).value
    wide, fin = guide.groove_width, guide.fin
    page.rect(rect((edge - wide) / 2, 0, (edge + wide) / 2, deep), Layer.SPACE, ref="figure:guide_depth")
    page.box(rect((edge - wide) / 2, 0, (edge + wide) / 2, deep), Layer.OUTLINE, ref="figure:guide_depth")
    page.rect(rect((edge - fin) / 2, -gap, (edge + fin) / 2, max(deep - 2, 1)), Layer.METAL, ref="figure:guide_fin")
    page.rect(rect(edge / 2 - 20, -gap, edge / 2 + 20, -gap + guide.plate), Layer.METAL, ref="figure:guide_plate")
    side = rect(t, 0, t, deep)
    page.dimension(
        (side.x1 + 3 * step, side.y0),
        (side.x1 + 3 * step, side.y1),
        show.length(deep),
        figure="guide_left" if "guide_left" in f else "guide_depth",
    )
    over = rect((edge - wide) / 2, deep + 12, (edge + wide) / 2, deep + 12)
    page.label(
        ((over.x0 + over.x1) / 2, over.y0),
        show.length(wide),
        Lettering(bold=True, on_paper=True),
        ref="figure:guide_width",
    )
