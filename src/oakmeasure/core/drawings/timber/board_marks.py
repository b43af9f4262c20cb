"""A board as it is, seen on one face: its grain, what is wrong with it and where, the trim at its ends."""

from __future__ import annotations

from oakmeasure.core.document.stock import Board, BoardMark, Face, Flaw
from oakmeasure.core.drawings.drawing import Grain, Layer, Sketch
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.leaf.part import Rect

SAPWOOD_TINT = "#F3E6C4"
KNOT_RINGS = (1.0, 0.62, 0.3)


def face_of(sketch: Sketch, board: Board, y: float, tint: str, *, face: Face = Face.BEST, ref: str = "") -> Rect:
    """Draw a face of a board with its head end at 0 and its lower edge at y; return where it lies.

    Args:
        sketch: The drawing that is added to.
        board: The board, seen on its best face with its head end to the left.
        y: Where the board's lower edge is on the drawing, mm.
        tint: Colour of the wood, as #rrggbb; "" for the layer's own.
        face: Which face of the board is seen.
        ref: What it shows, for pointing at it: "part:top rail"; "" for nothing.
    """
    rect = Rect(0.0, y, board.length, y + board.width)
    sketch.rect(rect, Layer.WOOD, ref=ref, grain=Grain.LEVEL, tint=tint)
    for at, mark in enumerate(board.marks):
        if mark.face in (face, Face.THROUGH):
            draw_mark(sketch, board, mark, rect, face, ref=f"mark:{at + 1}")
    sketch.box(rect, Layer.OUTLINE)
    return rect


def mark_rect(board: Board, mark: BoardMark, rect: Rect, face: Face) -> Rect:
    """Return where a mark lies on a face as drawn: the other face is seen turned over about the board's length.

    Args:
        board: The board, seen on its best face with its head end to the left.
        mark: The mark of a defect.
        rect: The rectangle, mm.
        face: Which face of the board is seen.
    """
    low = mark.y if face is not Face.OTHER else board.width - mark.y - mark.width
    x, y = rect.x0 + mark.x, rect.y0 + low
    return Rect(x, y, x + mark.length, y + mark.width)


def draw_mark(sketch: Sketch, board: Board, mark: BoardMark, rect: Rect, face: Face, *, ref: str) -> None:
    """Draw one mark: knots as rings, sapwood pale, splits as lines, metal and grooves hatched.

    Args:
        sketch: The drawing that is added to.
        board: The board, seen on its best face with its head end to the left.
        mark: The mark of a defect.
        rect: The rectangle, mm.
        face: Which face of the board is seen.
        ref: What it shows, for pointing at it: "mark:1".
    """
    place = mark_rect(board, mark, rect, face)
    if mark.flaw is Flaw.SAPWOOD:
        sketch.rect(place, Layer.WOOD, ref=ref, tint=SAPWOOD_TINT)
        sketch.box(place, Layer.FAINT, ref=ref)
        return
    if mark.flaw is Flaw.KNOT:
        mid = ((place.x0 + place.x1) / 2, (place.y0 + place.y1) / 2)
        sketch.rect(place, Layer.END_GRAIN, ref=ref)
        for share in KNOT_RINGS:
            w, h = place.width / 2 * share, place.height / 2 * share
            ring = [(mid[0] + w * a, mid[1] + h * b) for a, b in _RING]
            sketch.line([*ring, ring[0]], Layer.OUTLINE if share == 1.0 else Layer.PENCIL, ref=ref)
        return
    if mark.flaw is Flaw.SPLIT:
        sketch.rect(place, Layer.WASTE, ref=ref)
        steps = 7
        zigzag = [
            (place.x0 + place.width * n / steps, place.y0 + place.height * (0.3 if n % 2 else 0.7))
            for n in range(steps + 1)
        ]
        sketch.line(zigzag, Layer.OUTLINE, ref=ref)
        return
    sketch.rect(place, Layer.WASTE if mark.flaw is not Flaw.STAIN else Layer.BAND, ref=ref)
    if mark.flaw is not Flaw.STAIN:
        for line in hatching(place, max(min(place.width, place.height) / 4, 6.0)):
            sketch.line(line, Layer.PENCIL, ref=ref)
    sketch.box(place, Layer.DOUBT if mark.flaw is Flaw.METAL else Layer.PENCIL, ref=ref)


_RING = [
    (1, 0),
    (0.87, 0.5),
    (0.5, 0.87),
    (0, 1),
    (-0.5, 0.87),
    (-0.87, 0.5),
    (-1, 0),
    (-0.87, -0.5),
    (-0.5, -0.87),
    (0, -1),
    (0.5, -0.87),
    (0.87, -0.5),
]
