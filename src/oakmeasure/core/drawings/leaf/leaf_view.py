"""The leaf: front view with its joints, side section, plan, and the two rods with every mark."""

from __future__ import annotations

import textwrap

from oakmeasure.core.base.geometry import circle
from oakmeasure.core.base.units import Show, Unit, UnitSystem
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.construction.clip_to_outline import head_of
from oakmeasure.core.document.job import Hand, Hanging
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.document.species import Species, stuff
from oakmeasure.core.drawings import layers
from oakmeasure.core.drawings.cut_open import cut_across, cut_up, draw_cut
from oakmeasure.core.drawings.drawing import Anchor, Drawing, Grain, Layer, Lettering, Sketch, handle
from oakmeasure.core.drawings.layers import LINING_SHOWN, grain_along, side_gaps
from oakmeasure.core.drawings.leaf.leaf_rods import height_rod, width_rod
from oakmeasure.core.drawings.refs import part_ref
from oakmeasure.core.edits.drag import rails_to_drag
from oakmeasure.core.fit.frame import Frame
from oakmeasure.core.leaf.part import Build, Part, Rect
from oakmeasure.core.solution import LeafSolution

THIN_TIMES = 2.0  # that thin layers are drawn thicker than to scale: they would not be told apart
INCH_ROOM = 1.45  # of texts in inches, against those in mm

NAME_CHARACTERS = 30  # of a line of the leaf's name beside its section


def leaf_view(leaf: LeafSolution, show: Show, *, title: bool = True, handles: bool = False) -> Drawing:
    """Return the setting-out drawing of the leaf; `title` adds what it is in words, `handles` what can be dragged.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        title: Whether it is said in words what the leaf is.
        handles: Whether it shows what can be dragged.
    """
    build = leaf.build
    if build is None:
        return no_leaf(leaf, show)
    step = unit_step(build)
    sketch = sketch_for(leaf, show, step)
    surround(sketch, leaf)
    front(sketch, build)
    joints(sketch, build)
    for rail in rails_to_drag(leaf) if handles else ():
        handle(
            sketch, (rail.face.x1 - 2.2 * step, (rail.face.y0 + rail.face.y1) / 2), 1.1 * step, f"handle:{rail.name}"
        )
    _centre(sketch, leaf)
    height_rod(sketch, leaf, build)
    width_rod(sketch, build)
    layers.dimensions(sketch, leaf, build)
    _sections(sketch, leaf, build)
    if title:
        _title(sketch, leaf, build)
    return sketch.drawing(margin=step)


def joints_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the leaf with its joints and fixings alone, for a narrow place beside their list.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    build = leaf.build
    if build is None:
        return no_leaf(leaf, show)
    sketch = sketch_for(leaf, show, unit_step(build))
    step = sketch.step
    front(sketch, build)
    joints(sketch, build)
    return sketch.drawing(margin=3 * step)


def _centre(sketch: Sketch, leaf: LeafSolution) -> None:
    """The centre of gravity: a ring with a cross, where the leaf balances."""
    if "centre_up" not in leaf.figures:
        return
    x, y = leaf.figures["centre_across"].value, leaf.figures["centre_up"].value
    ref, r = "figure:centre_up", 0.9 * sketch.step
    for dx, dy in ((r, 0.0), (0.0, r)):
        sketch.line([(x - 1.6 * dx, y - 1.6 * dy), (x + 1.6 * dx, y + 1.6 * dy)], Layer.PENCIL, ref=ref)
    sketch.line(circle(x, y, r, steps=18), Layer.PENCIL, ref=ref)


def sketch_for(leaf: LeafSolution, show: Show, step: float) -> Sketch:
    """Return a sketch in the leaf's coordinates, mirrored when the hinges are on the right.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        step: Distance that spaces its lines and texts, mm.
    """
    right = leaf.leaf.hand is Hand.RIGHT
    return Sketch(show, step, mirror_at=leaf.fit.width.value if right else None)


def unit_step(build: Build) -> float:
    """Return the distance that spaces rods and texts, about a hundredth of the leaf's height.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    return max(build.height, 1.6 * build.width) / 100


def roomy_step(build: Build, show: Show, room: float) -> float:
    """Return the same for a view with much text beside the leaf, `room` times as wide; texts in inches take more.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        show: How lengths and other quantities are written.
        room: How many times as wide as the leaf alone.
    """
    return room * unit_step(build) * (INCH_ROOM if show.system is UnitSystem.INCH else 1.0)


def no_leaf(leaf: LeafSolution, show: Show) -> Drawing:
    """Return what is drawn when no leaf is possible: the opening and the reason.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    sketch = Sketch(show)
    w, h = leaf.figures["clear_width"].value, leaf.figures["clear_height"].value
    sketch.rect(Rect(0, 0, w, h), Layer.SPACE)
    sketch.box(Rect(0, 0, w, h), Layer.PENCIL)
    why = "no leaf yet" if leaf.leaf.hanging is Hanging.OPEN else "no leaf fits here"
    if leaf.fault is not None:
        why = "cannot be worked out"
    sketch.label((w / 2, h / 2), why, Lettering(Layer.DOUBT, 1.2, bold=True))
    return sketch.drawing(margin=max(w, h) / 5)


def surround(sketch: Sketch, leaf: LeafSolution) -> None:
    """Draw the lining round the leaf and the floor under it, the gaps at their true width.

    Args:
        sketch: The drawing that is added to.
        leaf: The leaf, worked out to the end.
    """
    step = sketch.step
    f, t = leaf.figures, LINING_SHOWN
    w, h = leaf.fit.width.value, leaf.fit.height.value
    x0, x1 = -f["gap_hinge"].value, w + f["gap_latch"].value
    y0, y1 = -f["gap_floor"].value, h + f["gap_head"].value
    if leaf.fit.outline:
        _surround_outline(sketch, leaf, (x0, y0, x1), t)
    elif leaf.frame is not None and leaf.fit.leaves == 1 and leaf.leaf.hanging.has_butts:
        _surround_as_it_is(sketch, leaf.frame, t)
    else:
        sketch.rect(Rect(x0, y0, x1, y1), Layer.SPACE)
        for rect in (Rect(x0 - t, y0, x0, y1 + t), Rect(x1, y0, x1 + t, y1 + t), Rect(x0, y1, x1, y1 + t)):
            sketch.rect(rect, Layer.LINING)
    floor_line(sketch.page(), -11 * step, w + 14 * step, y0)


def _surround_as_it_is(sketch: Sketch, frame: Frame, thick: float) -> None:
    """The lining as it stands round a square leaf: its sides lean and its head falls as they were read."""
    dx, dy = frame.leaf_at
    (hf, hh), (lf, lh) = ((each.foot, each.head) for each in (frame.hinge, frame.latch))
    foot_h, head_h, head_l, foot_l = ((x - dx, y - dy) for x, y in (hf, hh, lh, lf))
    sketch.area([foot_h, foot_l, head_l, head_h], Layer.SPACE)
    outside = [(x - thick, y) for x, y in (foot_h, head_h)], [(x + thick, y) for x, y in (head_l, foot_l)]
    over = [(x, y + thick) for x, y in (outside[0][1], outside[1][0])]
    sketch.area([foot_h, head_h, head_l, foot_l, outside[1][1], over[1], over[0], outside[0][0]], Layer.LINING)


def _surround_outline(sketch: Sketch, leaf: LeafSolution, box: tuple[float, float, float], thick: float) -> None:
    """The lining round a leaf that is no rectangle: upright sides, a head that follows the leaf's."""
    x0, y0, x1 = box
    head, gap = head_of(leaf.fit.outline), leaf.figures["gap_head"].value
    under = head.between(x0, x1, -gap)
    over = head.between(x0 - thick, x1 + thick, -gap - thick)
    sketch.area([(x0, y0), (x1, y0), *reversed(under)], Layer.SPACE)
    sketch.area([(x0 - thick, y0), (x0, y0), *under, (x1, y0), (x1 + thick, y0), *reversed(over)], Layer.LINING)


def floor_line(page: Sketch, x0: float, x1: float, y: float) -> None:
    """Draw the floor with short strokes under it.

    Args:
        page: The drawing that is added to, which is not mirrored by the hand.
        x0: Where it begins, across, mm.
        x1: Where it ends, across, mm.
        y: Where the floor is, up the drawing, mm.
    """
    step = page.step
    page.line([(x0, y), (x1, y)], Layer.FLOOR)
    at = x0 + step
    while at < x1:
        page.line([(at, y), (at - step, y - step)], Layer.FAINT)
        at += 1.6 * step


def front(sketch: Sketch, build: Build) -> None:
    """Draw what is seen of every part, grain along the wood; what is there already paler than the new wood on it.

    Args:
        sketch: The drawing that is added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    for part in seen_from_front(build):
        if build.layered and build.depth_of(part)[0] > 0.5 and _is_hidden(build, part):
            continue
        layer = (
            Layer.PANEL
            if part.role in (Role.PANEL, Role.CORE) or part.is_old
            else Layer.METAL
            if part.species == "steel"
            else Layer.WOOD
        )
        grain = Grain.UPRIGHT if part.grain_upright else Grain.LEVEL
        tint = stuff(part.species).tint
        if part.role is Role.PANEL:
            layers.panel(sketch, part, tint)
        elif part.shape:
            sketch.area(part.corners, layer, ref=part_ref(part.name), tint=tint)
            slanting = part.role is Role.BRACE or part.is_raked
            strands = grain_along(part.corners) if slanting else layers.strands_in(part.corners, part.grain_upright)
            for strand in strands:
                sketch.line(strand, Layer.GRAIN)
        else:
            sketch.rect(part.face, layer, ref=part_ref(part.name), grain=grain, tint=tint)


def _is_hidden(build: Build, part: Part) -> bool:
    """Return whether a part of a layered leaf lies wholly behind one that is drawn over it: it need not be drawn."""
    r = part.face
    return any(
        other.face.x0 <= r.x0 + 0.01
        and other.face.x1 >= r.x1 - 0.01
        and other.face.y0 <= r.y0 + 0.01
        and other.face.y1 >= r.y1 - 0.01
        and build.depth_of(other)[0] < build.depth_of(part)[0] - 0.01
        and not other.shape
        for other in build.parts
    )


def has_panels(build: Build) -> bool:
    """Return whether it is a frame with panels, not boards or strips on ledges.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    return not build.layered and any(part.role is Role.PANEL for part in build.parts)


def seen_from_front(build: Build) -> list[Part]:
    """Return the parts that are drawn, the furthest behind first.

    Ledges and battens lie behind their boards and are drawn through them, or nothing would be seen but boards.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    if build.layered:  # the foremost hides the others
        return sorted(build.parts, key=lambda each: -build.depth_of(each)[0])
    if has_panels(build):
        return sorted(build.parts, key=lambda each: each.role is not Role.PANEL)
    return sorted(build.parts, key=lambda each: (build.depth_of(each)[1], each.role is not Role.BOARD))


def joints(sketch: Sketch, build: Build) -> None:
    """Draw tenons and haunches in hidden line, wedges where they are wedged, panel edges in the grooves, fixings.

    Args:
        sketch: The drawing that is added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    radius = max(build.width, 600.0) / 130
    for fixing in build.fixings:
        layers.fixing(sketch, fixing, radius)
    for fixing in build.refused:
        layers.refused(sketch, fixing, 1.6 * radius)
    for mark in build.marks:
        sketch.line(mark.points, Layer.HIDDEN if mark.hidden else Layer.OUTLINE, ref=mark.ref)
    for part in build.parts:
        if part.role is Role.PANEL and not part.shape:
            sketch.box(part.outline, Layer.FAINT, ref=part_ref(part.name))
    for tenon in build.tenons:
        sketch.box(tenon.rect, Layer.HIDDEN, ref=part_ref(tenon.member))
        if tenon.through:
            _wedges(sketch, tenon.rect, build.is_at(tenon.into, Role.STILE, Place.HINGE), tenon.member)


def _wedges(sketch: Sketch, rect: Rect, at_hinge: bool, member: str) -> None:
    """Two wedges a tenon, driven from the outside, thick end out."""
    outer, inner = (rect.x0, rect.x0 + 0.75 * rect.width) if at_hinge else (rect.x1, rect.x1 - 0.75 * rect.width)
    thick = min(7.0, rect.height / 5)
    for edge, way in ((rect.y0, -1), (rect.y1, 1)):
        sketch.area([(outer, edge), (outer, edge + way * thick), (inner, edge)], Layer.METAL, ref=part_ref(member))


def _section_x(leaf: LeafSolution, build: Build, step: float) -> float:
    return build.width + side_gaps(leaf)[1] + LINING_SHOWN + 15 * step


def section(page: Sketch, body: Body, x0: float, *, times: float) -> None:
    """Upright section, the opening face to the left.

    Args:
        page: The drawing that is added to, which is not mirrored by the hand.
        body: The leaf's pieces in place.
        x0: Where it begins, across, mm.
        times: How much larger than to scale its thickness is drawn.
    """
    draw_cut(page, body.bare, cut_across(body.build), lambda up, deep: (x0 + deep * times, up), upright=True)


def _sections(sketch: Sketch, leaf: LeafSolution, build: Build) -> None:
    """The leaf cut upright beside it, and level under it, each with what it is."""
    assert leaf.body is not None
    step, times = sketch.step, _times(build)
    deep = build.thickness * times
    page, x0 = sketch.page(), _section_x(leaf, build, step)
    section(page, leaf.body, x0, times=times)
    base = -17 * step - deep
    draw_cut(sketch, leaf.body.bare, cut_up(build), lambda x, z: (x, base + z * times), upright=False)
    words = ("section", "plan") if times == 1 else (f"section, thickness × {times:g}", f"plan, × {times:g}")
    page.label((x0 + deep / 2, build.height + 3 * step), words[0], Lettering(Layer.PENCIL, 0.9))
    page.label((-6 * step, base + deep / 2), words[1], Lettering(Layer.PENCIL, 0.9), anchor=Anchor.RIGHT)


def _times(build: Build) -> float:
    """Return how much larger than to scale the thickness is drawn."""
    return 1.0 if has_panels(build) else THIN_TIMES


def _title(sketch: Sketch, leaf: LeafSolution, build: Build) -> None:
    """What it is, in words, beside the section."""
    show, step = sketch.show, sketch.step
    x, sketch = _section_x(leaf, build, step) + build.thickness * _times(build) + 5 * step, sketch.page()
    y = build.height - step
    moisture = show.value(leaf.leaf.timber.moisture, Unit.PERCENT)
    at = next((n for n, each in enumerate(leaf.woods) if isinstance(stuff(each), Species)), 0)
    woods = [f"{stuff(each).name}, {moisture}" if n == at else stuff(each).name for n, each in enumerate(leaf.woods)]
    lines = [
        *(
            (each, True, Layer.OUTLINE)
            for each in map(show.speech.mark_final, textwrap.wrap(leaf.leaf.name, NAME_CHARACTERS))
        ),
        ("seen from the opening side", False, Layer.PENCIL),
        *([] if build.layered or has_panels(build) else [("what lies behind drawn through", False, Layer.PENCIL)]),
        (leaf.leaf.hand_in_words, False, Layer.PENCIL),
        ("", False, Layer.PENCIL),
        (show.size(build.width, build.height, build.thickness), True, Layer.OUTLINE),
        *((each, False, Layer.PENCIL) for each in woods),
        *((each, False, Layer.PENCIL) for each in build.says.split("; ") if each),
        ("", False, Layer.PENCIL),
        (show.value(leaf.figures["mass"].value, Unit.KG), True, Layer.OUTLINE),
        ("without its hardware", False, Layer.PENCIL),
    ]
    for text, bold, layer in lines:
        if text:
            sketch.write((x, y), text, Lettering(layer, 1.1 if bold else 1.0, bold=bold))
        y -= 3.6 * step
