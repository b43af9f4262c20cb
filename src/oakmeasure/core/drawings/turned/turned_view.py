"""The picture of a leaf seen askew: its sides in the order in which they hide one another, named where it is apart."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import lru_cache

from oakmeasure.core.base.convex_cells import Point3
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.drawing import Area, Drawing, Layer, Sketch, handle
from oakmeasure.core.drawings.leaf.leaf_view import no_leaf
from oakmeasure.core.drawings.turned.picture import PictureFrame
from oakmeasure.core.drawings.turned.piece_names import Sides, draw_names, kinds
from oakmeasure.core.drawings.turned.scene import Scene, scene_of
from oakmeasure.core.drawings.turned.turn import CUT_HANDLE, YAW, CutWay, Turn
from oakmeasure.core.leaf.part import Tenon
from oakmeasure.core.solution import LeafSolution

LINES = 36.0  # of text that the height of the picture has room for
NAMED_FROM = 0.2  # apart, from which the pieces are named
TONES = 16  # of each colour, from the darkest side to the lightest
TAKEN_OFF = "#FBF3E2"  # wood that is taken off, under its hatching
DARK, INK = 0.42, (42, 32, 22)
CUT_PALE = 0.35  # how much paler wood is where it is cut open
AWAY_PALE = 0.6  # how much paler the pieces are that nobody works at


def turned_view(
    leaf: LeafSolution, show: Show, turn: Turn, scene: Scene | None = None, *, lines: float = LINES
) -> Drawing:
    """Return a leaf seen askew, its pieces named once they are drawn apart.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        turn: From where it is seen, how far it is apart and where it is cut open.
        scene: The same leaf's pieces in space, where they are known; None: they are set out for it.
        lines: Of text, that the height of the picture has room for.
    """
    if leaf.build is None or leaf.body is None:
        return no_leaf(leaf, show)
    turn = for_hand(leaf, turn)
    if scene is None or not scene.is_for(leaf.body, turn):
        scene = scene_of(leaf.body, turn)
    picture = PictureFrame.about(scene, turn, lines)
    sketch = Sketch(show, picture.step)
    if turn.apart > 0:
        for tenon in leaf.build.tenons:
            _way_out(sketch, picture, scene, tenon)
    if turn.cut is not CutWay.NONE:
        sketch.line(_cut_outline(picture, scene), Layer.LEAF, ref=CUT_HANDLE)
    sides = draw_sides(sketch, picture, scene, turn)
    if turn.apart >= NAMED_FROM:
        draw_names(sketch, picture, scene, sides)
    if turn.cut is not CutWay.NONE:
        handle(sketch, _cut_grip(picture, scene), 0.5 * picture.step, CUT_HANDLE)
    return Drawing(tuple(sketch.shapes), picture.bounds)


def clearest(leaf: LeafSolution) -> Turn:
    """Return the view of a leaf taken apart, from before it or from behind, where most is seen of its pieces.

    Args:
        leaf: The leaf, worked out to the end.
    """
    tries = [for_hand(leaf, Turn(yaw, apart=1.0)) for yaw in (YAW, 180.0 - YAW)]
    return max(tries, key=lambda turn: _share_seen(leaf, turn))


def _share_seen(leaf: LeafSolution, turn: Turn) -> float:
    assert leaf.body is not None
    scene = scene_of(leaf.body, turn)
    sides = draw_sides(Sketch(Show()), PictureFrame.about(scene, turn, LINES), scene, turn)
    return sum(max(map(sides.share_seen, each)) for each in kinds(scene, Show()).values())


def for_hand(leaf: LeafSolution, turn: Turn) -> Turn:
    """Return a view for a leaf's own hand: with hinges on the right it is mirrored, as on every other drawing.

    Args:
        leaf: The leaf, worked out to the end.
        turn: The view.
    """
    return replace(turn, is_mirrored=leaf.leaf.hand is Hand.RIGHT)


def draw_sides(sketch: Sketch, picture: PictureFrame, scene: Scene, turn: Turn) -> Sides:
    """Draw every side that is seen, the furthest first, each with its grain and its edges.

    Args:
        sketch: The drawing that is added to.
        picture: Where things lie in it.
        scene: The pieces in space.
        turn: From where they are seen.
    """
    seen = scene.seen(turn)
    flat = (seen.points - picture.middle) @ turn.onto * picture.scale + picture.shift
    points = list(map(tuple, flat.tolist()))
    tones: dict[Point3, int] = {}
    refs = [scene.ref(at) for at in range(len(scene.body.pieces))]
    outlines: list[tuple[Point, ...]] = []
    add = sketch.shapes.append
    for each in seen.shown:
        tone = tones.get(each.normal)
        if tone is None:
            tone = tones[each.normal] = round(turn.light(each.normal) * (TONES - 1))
        ref = refs[each.piece]
        pale = CUT_PALE if each.is_cut else AWAY_PALE if each.piece in scene.marks.pale else 0.0
        colour = TAKEN_OFF if each.piece in scene.marks.hatched else scene.tints[each.piece]
        tint = _toned(colour, TONES - 1 if each.is_cut else tone, pale)
        strokes = tuple((layer, tuple(points[first:last])) for layer, first, last in each.strokes)
        corners = tuple(points[each.corners[0] : each.corners[1]])
        add(Area(corners, Layer.FACET, ref, tint=tint, strokes=strokes))
        outlines.append(corners)
    return Sides([each.piece for each in seen.shown], outlines)


@lru_cache(maxsize=1000)
def _toned(tint: str, tone: int, pale: float) -> str:
    """Return a colour as it is in so much light."""
    share = (1 - tone / (TONES - 1)) * DARK
    rgb = [int(tint[at : at + 2], 16) for at in (1, 3, 5)] if tint else [217, 185, 138]
    mixed = [colour + (ink - colour) * share for colour, ink in zip(rgb, INK, strict=True)]
    if pale:
        mixed = [colour + (255 - colour) * pale for colour in mixed]
    return "#" + "".join(f"{round(each):02X}" for each in mixed)


def _way_out(sketch: Sketch, picture: PictureFrame, scene: Scene, tenon: Tenon) -> None:
    """Draw the line along which a tenon was drawn out of its mortise."""
    names = [piece.name for piece in scene.body.pieces]
    if tenon.member not in names or tenon.into not in names or tenon.member == tenon.into:
        return
    r, middle = tenon.rect, sum(tenon.depth) / 2
    face = scene.body.piece(tenon.member).part
    if face is None:
        return
    x = r.x0 if r.x1 <= face.face.x0 + 1 else r.x1 if r.x0 >= face.face.x1 - 1 else (r.x0 + r.x1) / 2
    y = r.y0 if r.y1 <= face.face.y0 + 1 else r.y1 if r.y0 >= face.face.y1 - 1 else (r.y0 + r.y1) / 2
    ends = [
        picture.at(tuple(a + b for a, b in zip((x, y, middle), scene.offsets[names.index(name)], strict=True)))  # type: ignore[arg-type]
        for name in (tenon.member, tenon.into)
    ]
    if math.dist(*ends) > 1.0:
        sketch.line(ends, Layer.HIDDEN)


# --- the cut --------------------------------------------------------------------------------------------------------


def _cut_corners(scene: Scene) -> list[Point3]:
    """Return the corners of the plane that cuts the leaf, a little larger than the leaf."""
    _, way, share, _ = scene.setting
    over = 0.03 * max(scene.body.width, scene.body.height)
    front, back = scene.body.over_all
    low, high = [-over, -over, front - over], [scene.body.width + over, scene.body.height + over, back + over]
    at = (low[way.axis] + over) + (high[way.axis] - low[way.axis] - 2 * over) * share
    low[way.axis] = high[way.axis] = at
    one, other = (axis for axis in range(3) if axis != way.axis)
    corners = []
    for a, b in ((low, low), (high, low), (high, high), (low, high)):
        corner = [at, at, at]
        corner[one], corner[other] = a[one], b[other]
        corners.append((corner[0], corner[1], corner[2]))
    return corners


def _cut_outline(picture: PictureFrame, scene: Scene) -> list[Point]:
    corners = [picture.at(each) for each in _cut_corners(scene)]
    return [*corners, corners[0]]


def _cut_grip(picture: PictureFrame, scene: Scene) -> Point:
    """Return where the plane is taken hold of: the highest of its corners, or of a level one the one to the right."""
    corners = [picture.at(each) for each in _cut_corners(scene)]
    if scene.setting[1] is CutWay.LEVEL:
        return max(corners)
    return max(corners, key=lambda corner: corner[1])


def cut_dragged(leaf: LeafSolution, turn: Turn, before: Point, now: Point) -> float:
    """Return the share of the leaf at which the cut stands once its grip is dragged.

    Args:
        leaf: The leaf, worked out to the end.
        turn: The view.
        before: Where the grip was taken hold of, on the drawing, mm.
        now: Where it is drawn to, mm.
    """
    assert leaf.body is not None
    front, back = leaf.body.over_all
    size = (leaf.body.width, leaf.body.height, back - front)[turn.cut.axis]
    right, up = for_hand(leaf, turn).onto[turn.cut.axis]
    length = math.hypot(right, up)
    if length < 0.05 or size <= 0:
        return turn.cut_at  # one looks along it: it cannot be drawn that way
    moved = ((now[0] - before[0]) * right + (now[1] - before[1]) * up) / (length * length)
    return min(max(turn.cut_at + moved / size, 0.0), 1.0)
