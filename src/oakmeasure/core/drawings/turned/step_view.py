"""The picture of a step: the pieces as they lie after it, what it takes off hatched, and that once more, close."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.base.units import Show
from oakmeasure.core.body.pieces import Piece
from oakmeasure.core.drawings.drawing import BOLD, Anchor, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.turned.picture import PictureFrame
from oakmeasure.core.drawings.turned.piece_names import draw_names
from oakmeasure.core.drawings.turned.scene import Detail, Scene, kept_of, scene_played
from oakmeasure.core.drawings.turned.turn import Turn
from oakmeasure.core.drawings.turned.turned_view import draw_sides
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.making.operation import Operation
from oakmeasure.core.making.played import Played

LINES = 30.0  # of text that the height of the picture has room for
MOST_NAMED, WHOLE_NAMED = 24, 9  # pieces at hand that are named, apart and together
LETTER = 0.56  # of a line's height, that a letter of a name is wide
NAMES_WIDE = 13.0  # lines of text that a column of names is wide
CLOSE_WIDE = 19.0  # and the close picture
CLOSE_LONG = 1.3  # of a piece's width, that is seen of it close
LEAST_CLOSE = 110.0  # mm of it at the least
SOME = 40.0  # mm² of what is taken off that are seen at the least
YAWS = (32.0, -32.0, 148.0, -148.0)  # degrees, from which the cut is looked at
PITCHES = (22.0, 50.0, -22.0)
MOST_SET = 5  # settings beside the close picture


def step_view(played: Played, op: Operation, show: Show, turn: Turn, scene: Scene | None = None) -> Drawing:
    """Return the pieces as they lie after a step, the ones at hand named, what it takes off hatched and seen close.

    Args:
        played: The pieces after the step.
        op: The step.
        show: How lengths and other quantities are written.
        turn: From where they are seen, for the leaf's own hand.
        scene: The same pieces in space, where they are known; None: they are set out for it.
    """
    if scene is None or not scene.is_for(played.body, turn):
        scene = scene_played(played, turn)
    picture = PictureFrame.about(scene, turn, LINES)
    sketch = Sketch(show, picture.step)
    sides = draw_sides(sketch, picture, scene, turn)
    half_wide, half_high = picture.half
    names = 0.0
    most = WHOLE_NAMED if played.is_whole else MOST_NAMED
    if 0 < len(played.at_hand) <= most and (scene.marks.pale or not played.is_whole):
        draw_names(sketch, picture, scene, sides, played.at_hand)
        longest = max(map(len, played.at_hand))
        names = max(NAMES_WIDE, LETTER * longest + 2.0) * picture.step
    if not played.is_sawn:
        sketch.label(
            (0.0, half_high - picture.step), "nothing is sawn yet", Lettering(Layer.PENCIL, 1.2, on_paper=True)
        )
    left = half_wide + names + picture.step
    room = Rect(left, -half_high, left + CLOSE_WIDE * picture.step, half_high)
    has_close = _close_up(sketch, played, picture, room, is_mirrored=turn.is_mirrored)
    if has_close:
        _settings(sketch, op, picture, room)
    right = room.x1 if has_close else half_wide + names
    return Drawing(tuple(sketch.shapes), Rect(-half_wide - names, -half_high, right, half_high))


def _settings(sketch: Sketch, op: Operation, picture: PictureFrame, room: Rect) -> None:
    y = room.y0 + (min(len(op.settings), MOST_SET) - 0.5) * 1.25 * picture.step
    for each in op.settings[:MOST_SET]:
        sketch.label((room.x0, y), each.in_words(sketch.show), BOLD, anchor=Anchor.LEFT)
        y -= 1.25 * picture.step


def _close_up(sketch: Sketch, played: Played, whole: PictureFrame, room: Rect, *, is_mirrored: bool) -> bool:
    """Draw what is taken off one piece once more, close; return whether there is any."""
    found = _chosen(played)
    if found is None:
        return False
    piece, off = found
    near = _near(piece, off)
    if near is None:
        return False
    close = replace(
        played,
        body=replace(played.body, pieces=near),
        offsets=((0.0, 0.0, 0.0),) * len(near),
        taken_off=frozenset(range(1, len(near))),
        at_hand=frozenset({piece.name}),
    )
    scene = scene_played(close, Turn(), Detail.CLOSE)
    turn = max(
        (Turn(yaw, pitch, is_mirrored=is_mirrored) for yaw in YAWS for pitch in PITCHES),
        key=lambda each: _seen_of(scene, each),
    )
    if _seen_of(scene, turn) < SOME:
        return False
    frame = PictureFrame.about(scene, turn, LINES)
    high = 0.62 * (room.y1 - room.y0)
    scale = min(high / 2 / frame.half[1], (room.x1 - room.x0) / 2 / frame.half[0])
    middle = (room.x0 + room.x1) / 2, room.y1 - 2.2 * whole.step - frame.half[1] * scale
    frame = replace(frame, scale=scale, shift=middle)
    sketch.label((room.x0, room.y1 - whole.step), f"{piece.name}, close", BOLD, anchor=Anchor.LEFT)
    draw_sides(sketch, frame, scene, turn)
    return True


def _chosen(played: Played) -> tuple[Piece, list[Piece]] | None:
    """Return the piece that the most is taken off for its size, and what that is; None where nothing is."""
    by_name: dict[str, list[Piece]] = {}
    for at in sorted(played.taken_off):
        by_name.setdefault(played.body.pieces[at].name, []).append(played.body.pieces[at])
    if not by_name:
        return None
    name = max(by_name, key=lambda each: _share_off(played.body.piece(each), by_name[each]))
    return played.body.piece(name), by_name[name]


def _share_off(piece: Piece, off: Sequence[Piece]) -> float:
    """Return how much is taken off a piece, as a share of what is left of it."""
    return sum(each.net.volume for each in off) / max(piece.net.volume, 1.0)


def _near(piece: Piece, off: Sequence[Piece]) -> tuple[Piece, ...] | None:
    """Return a piece and what is taken off it as far as it is seen close: a length at its end, or about the cut."""
    part = piece.part
    if part is None:
        return None
    axis = 1 if part.grain_upright else 0
    x0, y0, _, x1, y1, _ = piece.box
    low, high = (y0, y1) if axis else (x0, x1)
    long = max(LEAST_CLOSE, CLOSE_LONG * ((x1 - x0) if axis else (y1 - y0)))
    first = min(off, key=lambda each: -each.box[axis + 3])
    a, b = first.box[axis], first.box[axis + 3]
    end = min(high + 0.05 * long, (a + b + long) / 2 if b - a < long else high + 0.05 * long)
    end = max(end, low + long) if b - a < long else end
    pieces = []
    for each in (piece, *off):
        solids = tuple(_between(each.solids, axis, end - long, end))
        if solids:
            pieces.append(replace(each, solids=solids))
    return tuple(pieces) if len(pieces) > 1 else None


def _between(solids: Sequence[Solid], axis: int, low: float, high: float) -> list[Solid]:
    upper = [each for solid in solids for each in kept_of(solid, axis, low, stays_low=False)]
    return [each for solid in upper for each in kept_of(solid, axis, high, stays_low=True)]


def _seen_of(scene: Scene, turn: Turn) -> float:
    """Return how much of what is taken off is seen from somewhere, mm²."""
    total = 0.0
    for each in scene.seen(turn).shown:
        if each.piece in scene.marks.hatched:
            facing = -sum(a * b for a, b in zip(each.normal, turn.away, strict=True))
            total += each.size * facing
    return total
