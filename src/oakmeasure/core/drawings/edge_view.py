"""An edge of the leaf seen straight on, and a section through the leaf, with what is cut there and how deep.

Looking at the hinge edge of a leaf with its hinges on the left, the opening face is at the right hand; at its latch
edge, or with the hinges on the right, at the left: drawn so, and written.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.cut_open import draw_cut
from oakmeasure.core.drawings.drawing import Anchor, Grain, Layer, Lettering, Sketch
from oakmeasure.core.hardware.boring import Boring, BoringKind, Surface
from oakmeasure.core.hardware.clash.bodies import ClashBody
from oakmeasure.core.hardware.clash.rules import BodyKind
from oakmeasure.core.leaf.part import Build, Part, Rect
from oakmeasure.core.solution import LeafSolution

REACH = 60.0  # from the edge; what starts further in is not seen in this view
TEXT_HIGH = 1.8  # steps that two lines of text need
AT_EDGE = 0.5  # nearer than this it is open to the edge
# What gets its figures beside it: not screws, nor plates that lie round another cut.
TOLD = (
    BoringKind.BUTT,
    BoringKind.CUP,
    BoringKind.PLATE,
    BoringKind.LOCK_MORTISE,
    BoringKind.LATCH_BORE,
    BoringKind.LATCH_SPINDLE,
    BoringKind.THUMB_SLOT,
    BoringKind.SPINDLE_HOLE,
    BoringKind.FLUSH_PULL,
    BoringKind.GUIDE_GROOVE,
    BoringKind.HEAD_GROOVE,
)


def edge_on(
    page: Sketch, leaf: LeafSolution, build: Build, x: float, *, at_latch: bool = False, ends: bool = False
) -> None:
    """Draw an edge at x: its layers, through tenons, and every cut near it.

    Beside each how deep it goes, or with `ends` where it starts and stops, down from the leaf's top.

    Args:
        page: The drawing that is added to, which is not mirrored by the hand.
        leaf: The leaf, worked out to the end.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        x: Across, away from the hinge edge, mm.
        at_latch: Whether the latch edge is seen, else the hinge edge.
        ends: Whether it says where cuts start and stop, else how deep they go.
    """
    show, step = page.show, page.step
    t, w = build.thickness, build.width
    face_right = (leaf.leaf.hand is Hand.LEFT) is not at_latch

    def span(depth: tuple[float, float]) -> tuple[float, float]:
        return (x + t - depth[1], x + t - depth[0]) if face_right else (x + depth[0], x + depth[1])

    def away(solid: Solid) -> float:
        return w - solid.box[2] if at_latch else solid.box[0]

    for each in _at_edge(build, at_latch):
        x0, x1 = span(build.depth_of(each))
        layer, grain = (Layer.WOOD, Grain.UPRIGHT) if each.grain_upright else (Layer.END_GRAIN, Grain.END)
        page.rect(
            Rect(x0, each.face.y0, x1, each.face.y1),
            layer,
            ref=f"part:{each.name}",
            grain=grain,
            tint=stuff(each.species).tint,
        )
    into = "latch stile" if at_latch else "hinge stile"
    for tenon in build.tenons:
        if tenon.through and tenon.into == into:
            middle, half = x + t / 2, tenon.thickness / 2
            page.rect(
                Rect(middle - half, tenon.rect.y0, middle + half, tenon.rect.y1),
                Layer.END_GRAIN,
                ref=f"part:{tenon.member}",
                grain=Grain.END,
            )
    _heading(page, build, x, "latch edge" if at_latch else "hinge edge", face_right)
    for cut in leaf.borings:
        if cut.solid is None or away(cut.solid) > REACH:
            continue
        _, y0, _, y1 = cut.solid.box
        x0, x1 = span(cut.solid.depth)
        if away(cut.solid) > AT_EDGE:
            page.box(Rect(x0, y0, x1, y1), Layer.HIDDEN, ref=cut.ref)
        else:
            page.rect(Rect(x0, y0, x1, y1), Layer.METAL, ref=cut.ref)
        if _is_told(cut, at_latch):
            deep = cut.depth if at_latch else cut.solid.depth[1] - cut.solid.depth[0]
            texts = (
                ((y1 + 0.6 * step, show.length(cut.from_top)), (y0 - 0.6 * step, show.length(cut.to)))
                if ends
                else (((y0 + y1) / 2, show.length(deep)),)
            )
            if ends and y1 - y0 < TEXT_HIGH * step:
                texts = (((y0 + y1) / 2, f"{show.length(cut.from_top)} to {show.length(cut.to)}"),)
            for y, text in texts:
                page.write((x + t + 1.2 * step, y), text, Lettering(size=0.95), ref=cut.ref)


def _is_told(cut: Boring, at_latch: bool) -> bool:
    """Return whether a cut gets its figures beside it: not screws, nor plates that lie round another cut."""
    at_edge = cut.side.surface in (Surface.LATCH_EDGE, Surface.MEETING_EDGE)
    here = at_edge if at_latch else cut.side.is_measured_from_hinge
    return here and cut.kind in TOLD


def _heading(page: Sketch, build: Build, x: float, words: str, face_right: bool) -> None:
    step = page.step
    t, h = build.thickness, build.height
    page.label((x + t / 2, h + 6 * step), words, Lettering(Layer.PENCIL, 0.95))
    page.label((x + t / 2, h + 2.6 * step), page.show.length(t), Lettering(Layer.PENCIL, 0.95))
    side, tip = (x + t, x + t + 2.4 * step) if face_right else (x, x - 2.4 * step)
    page.line([(side, -2 * step), (tip, -2 * step)], Layer.PENCIL)
    page.line([(tip, -2 * step), (tip - (tip - side) * 0.4, -1.2 * step)], Layer.PENCIL)
    page.line([(tip, -2 * step), (tip - (tip - side) * 0.4, -2.8 * step)], Layer.PENCIL)
    page.label((x + t / 2, -4.6 * step), "opening face", Lettering(Layer.PENCIL, 0.9), anchor=Anchor.BELOW)


def _at_edge(build: Build, at_latch: bool) -> Iterable[Part]:
    """Return what is seen at an edge, what lies furthest in first."""
    off = [
        (build.width - each.face.x1 if at_latch else each.face.x0, each)
        for each in build.parts
        if each.role is not Role.PANEL
    ]
    return (each for away, each in sorted(off, key=lambda pair: -pair[0]) if away < REACH)


def section(
    page: Sketch,
    leaf: LeafSolution,
    build: Build,
    line: tuple[Point, Point],
    at: Callable[[float, float], Point],
    *,
    lit: tuple[str, ...] = (),
) -> None:
    """Draw a level section.

    Args:
        page: The drawing that is added to, which is not mirrored by the hand.
        leaf: The leaf, worked out to the end.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        line: Along what it is cut: from the hinge edge on and up from the foot, mm, both ends at one height.
        at: From there and from the depth, mm, to the place on the sheet.
        lit: Families that are drawn in full; all others in hidden line.
    """
    (low, y), (high, _) = line

    def box(x0: float, x1: float, depth: tuple[float, float]) -> list[Point]:
        x0, x1 = max(x0, low), min(x1, high)
        return [at(x0, depth[0]), at(x1, depth[0]), at(x1, depth[1]), at(x0, depth[1])]

    assert leaf.body is not None
    draw_cut(page, leaf.body.bare, y, at, upright=False, within=(low, high))
    for thing in leaf.clashes.things:
        x0, y0, x1, y1 = thing.solid.box
        if y0 <= y <= y1 and x0 < high and x1 > low and thing.kind is not BodyKind.BITE:
            _cut(page, thing, box(x0, x1, thing.solid.depth), lit)


def _cut(page: Sketch, thing: ClashBody, outline: list[Point], lit: tuple[str, ...]) -> None:
    steel = thing.kind in (BodyKind.SCREW, BodyKind.FIXING)
    ring = [*outline, outline[0]]
    if thing.family in lit:
        page.area(outline, Layer.METAL if steel or thing.kind is BodyKind.JOINT else Layer.SPACE, ref=thing.ref)
        page.line(ring, Layer.OUTLINE, ref=thing.ref)
    elif thing.kind is not BodyKind.PANEL:
        page.line(ring, Layer.HIDDEN, ref=thing.ref)
