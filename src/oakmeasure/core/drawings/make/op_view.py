"""The operation at hand: the work as it lies on the bench, and what to do in words.

The drawing shows what looks up, where its head is and what is cut; the words what to set, to check and to beware
of.

The work lies with its head, or its hinge end, to the left. Seen so, the hinge edge of a leaf that is hinged on the left
is towards the one who works when the opening face is up; turned over, or hinged on the right, it is away.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import Show
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Anchor, Drawing, Grain, Layer, Lettering, Room, Sketch
from oakmeasure.core.drawings.make.bench_lies import EDGES, HIGH, LEAST, LEFT, LOW, WIDE, Lies, lies
from oakmeasure.core.drawings.make.cut_places import cut_places, draw_places
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.drawings.words import broken
from oakmeasure.core.hardware.boring import BoringKind
from oakmeasure.core.leaf.part import Build, Part, Rect
from oakmeasure.core.making.operation import Operation, SideUp, Trade, time_words
from oakmeasure.core.making.played import Played
from oakmeasure.core.solution import LeafSolution
from oakmeasure.data import table

THUMB = Rect(0.0, 4.0, 150.0, 282.0)
CUT = Rect(172.0, 60.0, 352.0, 232.0)
WORDS_Y = 250.0
LINE = 29.0
BESIDE = 150.0  # beside the work, in which the name of an end stands
MOST_WIDER = 6.0  # that a thin member is drawn wider than to scale
ALONE = 560.0  # the room that the work has upwards where the words stand beside it
# Characters in a line of settings
SETTINGS = 52
MOST_LINES = 4
# Where words begin, and how many characters a line has
BESIDE_CUT = (416.0, 46)
BESIDE_THUMB = (196.0, 58)


def op_view(leaf: LeafSolution, show: Show, op_id: str) -> Drawing:
    """Return the drawing of an operation; of the first one where there is no such.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        op_id: Id of the operation.
    """
    build, making = leaf.build, leaf.making
    if build is None or making is None:
        return empty_view("no leaf yet: nothing to make")
    op = making.op(op_id) or making.operations[0]
    sketch = Sketch(show)
    _settings(sketch, op)
    how = lies(leaf, build, op)
    if how is None:
        _no_bench(sketch, leaf, build, op)
    else:
        _bench(sketch, leaf, build, op, how)
    _thumb(sketch, leaf, build, op)
    assert leaf.body is not None
    has_cut = _section(sketch, leaf.body, op)
    _words(sketch, op, *(BESIDE_CUT if has_cut else BESIDE_THUMB))
    return sketch.drawing(margin=14)


def work_view(leaf: LeafSolution, show: Show, op_id: str, played: Played) -> Drawing:
    """Return the work on the bench alone, each cut with its places from the end that one measures from.

    For a place where the words stand large beside it.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        op_id: Id of the operation.
        played: The pieces after it.
    """
    build, making = leaf.build, leaf.making
    op = making.op(op_id) if making is not None else None
    if build is None or op is None:
        return empty_view("")
    sketch = Sketch(show)
    how = lies(leaf, build, op)
    if how is None:
        _thumb(sketch, leaf, build, op)
        return sketch.drawing(margin=10)
    at = _bench(sketch, leaf, build, op, how, alone=True)
    draw_places(sketch, cut_places(leaf, op, how, played), how, at)
    return sketch.drawing(margin=10)


def _settings(sketch: Sketch, op: Operation) -> None:
    words = [each.in_words(sketch.show) for each in op.settings]
    if not words:
        return
    lines = _lines(words)
    for n, line in enumerate(lines):
        sketch.write((0, 590 + 44 * (len(lines) - 1 - n)), line, Lettering(Layer.LEAF, 1.2, bold=True))


def _lines(words: Sequence[str]) -> list[str]:
    """Return settings in a few lines, none of them parted."""
    lines = [""]
    for each in words:
        longer = f"{lines[-1]}   ·   {each}" if lines[-1] else each
        if len(longer) > SETTINGS and lines[-1]:
            lines.append(each)
        else:
            lines[-1] = longer
    return lines if len(lines) <= MOST_LINES else [*lines[: MOST_LINES - 1], f"{lines[MOST_LINES - 1]}   …"]


def _no_bench(sketch: Sketch, leaf: LeafSolution, build: Build, op: Operation) -> None:
    """Nothing lies on the bench: the parts at hand in a row, as on the rack, or what is done on site."""
    named = [p for p in leaf.cut_parts if p.name in op.parts][:12]
    if [c for c in leaf.borings if c.name in op.cuts and c.solid is None]:
        _carrier(sketch, leaf, build, op)
        return
    if not named:
        named = list(build.parts)[:12]
    k = (WIDE - 2 * LEFT) / max(p.planed.length for p in named)
    gap = 7.0
    tall = sum(p.planed.width for p in named) * k + gap * (len(named) - 1)
    squeeze = min(1.0, (HIGH - LOW - gap * (len(named) - 1)) / max(tall - gap * (len(named) - 1), 1.0))
    y = HIGH
    for part in named:
        high = max(part.planed.width * k * squeeze, 5.0)
        y -= high
        rect = Rect(LEFT, y, LEFT + part.planed.length * k, y + high)
        sketch.rect(rect, Layer.WOOD, ref=f"part:{part.name}", grain=Grain.LEVEL, tint=stuff(part.species).tint)
        sketch.box(rect, Layer.OUTLINE, ref=f"part:{part.name}")
        if high > 20:
            sketch.label(
                ((rect.x0 + rect.x1) / 2, y + high / 2),
                part.name,
                Lettering(size=0.85, on_paper=True),
                room=Room(rect.width),
            )
        y -= gap


def _carrier(sketch: Sketch, leaf: LeafSolution, build: Build, op: Operation) -> None:
    """What carries the leaf, its upper end to the left, with what is cut there measured from that end."""
    cuts = sorted((c for c in leaf.borings if c.name in op.cuts and c.solid is None), key=lambda c: c.from_top)
    member = cuts[0].member
    cuts = [c for c in cuts if c.member == member]
    long = max(build.height, *(c.to for c in cuts)) * 1.03
    k = (WIDE - 2 * LEFT) / long
    rect = Rect(LEFT, LOW + 44, WIDE - LEFT, LOW + 106)
    sketch.rect(rect, Layer.LINING)
    sketch.box(rect, Layer.OUTLINE)
    for n, cut in enumerate(cuts[:8]):
        x0, x1 = LEFT + cut.from_top * k, max(LEFT + cut.to * k, LEFT + cut.from_top * k + 5)
        sketch.rect(Rect(x0, rect.y0 + 16, x1, rect.y1 - 16), Layer.METAL, ref=cut.ref)
        if n < 5:
            middle = (cut.from_top + cut.to) / 2 if cut.kind is BoringKind.PLATE else cut.from_top
            sketch.label((LEFT + middle * k, rect.y1 + 14), sketch.show.length(middle), Lettering(size=0.95))
    sketch.write((LEFT, rect.y1 + 44), "upper end", Lettering(Layer.LEAF, bold=True))
    sketch.label((WIDE / 2, rect.y0 - 22), f"{member}: {cuts[0].datum}", PENCIL)


# --- the work on the bench ---------------------------------------------------------------------------------


def _bench(
    sketch: Sketch, leaf: LeafSolution, build: Build, op: Operation, how: Lies, *, alone: bool = False
) -> Callable[[float, float, float], Point]:
    """Draw the work as it lies; alone: without the names of its sides, in the room that is else for the words.

    Returns where a place of the leaf is drawn.
    """
    high = ALONE if alone else HIGH - LOW
    kx = min((WIDE - 2 * LEFT) / how.long, high / max(how.across, 1.0))
    ky = max(kx, min(LEAST * high / how.across, MOST_WIDER * kx))
    x0 = LEFT + (WIDE - 2 * LEFT - how.long * kx) / 2
    y0 = LOW - 10 if alone else LOW + (high - how.across * ky) / 2
    sketch.line([(0, LOW - 10), (WIDE, LOW - 10)], Layer.OUTLINE)
    sketch.line([(0, LOW - 16), (WIDE, LOW - 16)], Layer.FAINT)

    def at(x: float, y: float, depth: float) -> Point:
        """Return where a place of the leaf is drawn."""
        along = (x - how.box.x0) if how.level else (y - how.box.y0)
        along = how.long - along if how.flip_long else along
        across = depth if how.by_depth else (y - how.box.y0) if how.level else (x - how.box.x0)
        across = how.across - across if how.flip_across else across
        return x0 + along * kx, y0 + across * ky

    def box(rect: Rect, depth: tuple[float, float]) -> Rect:
        (ax, ay), (bx, by) = at(rect.x0, rect.y0, depth[0]), at(rect.x1, rect.y1, depth[1])
        return Rect(min(ax, bx), min(ay, by), max(ax, bx), max(ay, by))

    for part in _drawn(build, op, how):
        rect = box(part.outline if op.hold and op.hold.part else part.face, build.depth_of(part))
        along = part.grain_upright is not how.level
        grain = Grain.LEVEL if along else Grain.UPRIGHT
        layer = Layer.PANEL if part.role is Role.PANEL else Layer.METAL if part.species == "steel" else Layer.WOOD
        sketch.rect(rect, layer, ref=f"part:{part.name}", grain=grain, tint=stuff(part.species).tint)
        sketch.box(rect, Layer.OUTLINE, ref=f"part:{part.name}")
    _tenons(sketch, build, op, how, box)
    _grooves(sketch, build, op, how, (x0, y0), (kx, ky))
    for cut in leaf.borings:
        if (
            cut.solid is not None
            and cut.name in op.cuts
            and (not op.hold or not op.hold.part or cut.member == op.hold.part)
        ):
            a = cut.solid.box
            sketch.rect(box(Rect(*a), cut.solid.depth), Layer.METAL, ref=cut.ref)
    if not alone:
        _around(sketch, how, op.hold.part if op.hold else "", (x0, y0), (kx, ky))
    elif ky > kx * 1.05:
        sketch.label((WIDE - LEFT, LOW - 40), f"across × {ky / kx:.1f}", PENCIL, anchor=Anchor.RIGHT)
    return at


def _drawn(build: Build, op: Operation, how: Lies) -> Sequence[Part]:
    """Return the parts that are drawn on the bench: the one, or all that are seen from where one looks."""
    if op.hold is not None and op.hold.part:
        return [p for p in build.parts if p.name == op.hold.part]
    if how.by_depth:
        edge = [p for p in build.parts if _at_edge(p, build, op)]
        return edge or list(build.parts)
    up_closing = op.hold is not None and op.hold.up is SideUp.CLOSING
    panels = [p for p in build.parts if p.role is Role.PANEL]
    rest = [p for p in build.parts if p.role is not Role.PANEL]
    rest.sort(key=lambda p: build.depth_of(p)[1 if up_closing else 0] * (1 if up_closing else -1))
    return [*panels, *rest]


def _at_edge(part: Part, build: Build, op: Operation) -> bool:
    up = op.hold.up if op.hold else SideUp.OPENING
    r = part.face
    return {
        SideUp.HINGE_EDGE: r.x0 < 1.0,
        SideUp.LATCH_EDGE: r.x1 > build.width - 1.0,
        SideUp.FOOT: r.y0 < 1.0,
        SideUp.HEAD: r.y1 > build.height - 1.0,
    }.get(up, True)


def _tenons(
    sketch: Sketch, build: Build, op: Operation, how: Lies, box: Callable[[Rect, tuple[float, float]], Rect]
) -> None:
    """Mortises in the member that lies there and its own tenons."""
    name = op.hold.part if op.hold else ""
    for tenon in build.tenons:
        if not name or name not in (tenon.member, tenon.into):
            continue
        depth = tenon.depth
        if tenon.into == name and how.by_depth:
            sketch.rect(box(tenon.rect, depth), Layer.SPACE, ref=f"part:{tenon.member}")
            sketch.box(box(tenon.rect, depth), Layer.OUTLINE, ref=f"part:{tenon.member}")
        else:
            sketch.box(box(tenon.rect, depth), Layer.HIDDEN, ref=f"part:{tenon.member}")


def _grooves(sketch: Sketch, build: Build, op: Operation, how: Lies, at: Point, k: tuple[float, float]) -> None:
    """The groove along an edge that looks up, where the operation cuts it."""
    if not op.id.startswith("groove:") or not how.by_depth:
        return
    wide = next((s.value for s in op.settings if s.label == "wide"), build.groove_width)
    middle = at[1] + how.across * k[1] / 2
    rect = Rect(at[0], middle - wide * k[1] / 2, at[0] + how.long * k[0], middle + wide * k[1] / 2)
    sketch.rect(rect, Layer.METAL)
    sketch.box(rect, Layer.OUTLINE)


def _around(sketch: Sketch, how: Lies, part: str, at: Point, k: tuple[float, float]) -> None:
    """What looks up, what is towards one, where the head is."""
    x0, y0 = at
    x1, y1 = x0 + how.long * k[0], y0 + how.across * k[1]
    wider = k[1] / k[0]
    note = f"   (across × {wider:.1f})" if wider > 1.05 else ""
    sketch.label(((x0 + x1) / 2, y1 + 28), how.up + note, BOLD)
    sketch.label(((x0 + x1) / 2, LOW - 34), f"{part or 'the leaf'}  ·  towards you: {how.near}", PENCIL)
    middle = (y0 + y1) / 2
    tip = max(x0 - 10, 8.0)
    for dy in (-9, 9):
        sketch.line([(tip, middle + dy), (tip - 16, middle), (tip, middle - dy)], Layer.LEAF)
    beside = x0 > BESIDE and x1 < WIDE - BESIDE  # of short work the names of its ends stand beside it
    ends = (Anchor.RIGHT, Anchor.LEFT) if beside else (Anchor.LEFT, Anchor.RIGHT)
    sketch.label((max(x0 - 4, 4.0), y1 + 28), how.left, Lettering(Layer.LEAF, bold=True), anchor=ends[0])
    sketch.label((min(x1 + 4, WIDE - 4), y1 + 28), how.right, PENCIL, anchor=ends[1])


# --- where it belongs, and the cut in section ----------------------------------------------------------------


def _thumb(sketch: Sketch, leaf: LeafSolution, build: Build, op: Operation) -> None:
    """The leaf as it hangs, with the parts at hand filled in."""
    k = min(THUMB.width / build.width, THUMB.height / build.height)
    small = Sketch(sketch.show, mirror_at=build.width if leaf.leaf.hand is Hand.RIGHT else None)
    chosen = {op.hold.part} if op.hold and op.hold.part else set(op.parts)
    for part in build.parts:
        lit = part.name in chosen
        corners = [(x, y) for x, y in part.corners]
        points = [small.at(x, y) for x, y in corners]
        moved = [(THUMB.x0 + x * k, THUMB.y0 + y * k) for x, y in points]
        if lit:
            sketch.area(moved, Layer.WOOD, ref=f"part:{part.name}", tint=stuff(part.species).tint)
        sketch.line([*moved, moved[0]], Layer.OUTLINE if lit else Layer.FAINT, ref=f"part:{part.name}" if lit else "")
    frame = [(0.0, 0.0), (build.width, 0.0), (build.width, build.height), (0.0, build.height), (0.0, 0.0)]
    sketch.line([(THUMB.x0 + x * k, THUMB.y0 + y * k) for x, y in frame], Layer.PENCIL)
    hinge_x = 0.0 if leaf.leaf.hand is Hand.LEFT else build.width * k
    for y in (0.16, 0.84):
        sketch.line(
            [(hinge_x, THUMB.y0 + (y - 0.03) * build.height * k), (hinge_x, THUMB.y0 + (y + 0.03) * build.height * k)],
            Layer.LEAF,
        )


def _section(sketch: Sketch, body: Body, op: Operation) -> bool:
    """The cut seen on the end of the member, large.

    How wide, how deep, how far from the face that lies at the fence. Returns whether there is one.
    """
    show = sketch.show
    by = {s.label: s.value for s in op.settings}
    wide = next((by[key] for key in ("wide", "chisel", "tenon", "thick") if key in by), None)
    deep = next((by[key] for key in ("deep", "deep, from this edge", "long", "depth stop") if key in by), None)
    if deep is None or op.trade not in (Trade.JOINT, Trade.ROUT, Trade.BORE):
        return False
    front, back = body.along("hinge")
    thick = back - front
    edge_cut = op.hold is not None and (op.hold.up in EDGES or op.hold.up in (SideUp.FOOT, SideUp.HEAD))
    if edge_cut:
        body_wide, body_high = thick, max(1.6 * deep, 1.2 * thick)
        wide = min(wide if wide is not None else thick / 3, thick)
        left = (thick - wide) / 2
        if "across" in by:  # a hinge is let in from the opening face
            left, wide = 0.0, min(by["across"], thick)
    elif "fence to the middle" in by:
        body_wide, body_high = 2.6 * by["fence to the middle"], thick
        left, wide = by["fence to the middle"] - 17.5, 35.0
    else:
        wide = wide if wide is not None else 2 * deep
        body_wide, body_high = 2.2 * wide, thick
        left = 0.6 * wide
    k = min(CUT.width / body_wide, CUT.height / body_high)
    x0, y1 = CUT.x0 + (CUT.width - body_wide * k) / 2, CUT.y1
    y0 = y1 - body_high * k
    sketch.rect(Rect(x0, y0, x0 + body_wide * k, y1), Layer.END_GRAIN, grain=Grain.END)
    cut = Rect(x0 + left * k, max(y1 - deep * k, y0), x0 + (left + wide) * k, y1)
    sketch.rect(cut, Layer.SPACE)
    sketch.line([(cut.x0, y1), (cut.x0, cut.y0), (cut.x1, cut.y0), (cut.x1, y1)], Layer.OUTLINE)
    sketch.line([(x0, y1), (x0, y0), (x0 + body_wide * k, y0), (x0 + body_wide * k, y1)], Layer.OUTLINE)
    if wide * k > 12:
        sketch.dimension((cut.x0, y1 + 14), (cut.x1, y1 + 14), show.length(wide))
    sketch.dimension((x0 + body_wide * k + 16, cut.y0), (x0 + body_wide * k + 16, y1), show.length(deep))
    sketch.label(((CUT.x0 + CUT.x1) / 2, y0 - 16), "end of it, cut side up", Lettering(Layer.PENCIL, 0.85))
    return True


# --- words -------------------------------------------------------------------------------------------------


def _words(sketch: Sketch, op: Operation, x: float, characters: int) -> None:
    show = sketch.show
    cautions = table("cautions")
    said = [
        ("", op.how, Layer.OUTLINE),
        ("check: ", op.check.in_words(show) if op.check else "", Layer.OUTLINE),
        ("practice: ", op.practice, Layer.OUTLINE),
        ("", f"then {time_words(op.wait_hours)} for {op.wait_for}" if op.wait_hours else "", Layer.PENCIL),
        ("caution: ", " ".join(cautions[key] for key in op.cautions), Layer.DOUBT),
        ("why now: ", (op.why + (f"; later: {op.later}" if op.later else "")) if op.why else "", Layer.PENCIL),
    ]
    y = WORDS_Y
    for head, words, layer in said:
        if not words:
            continue
        for n, line in enumerate(broken(show, words, characters, show.speech.tr(head))):
            sketch.write((x, y), line, Lettering(layer, 0.95, bold=bool(head) and not n and layer is Layer.DOUBT))
            y -= LINE
        y -= LINE * 0.28
