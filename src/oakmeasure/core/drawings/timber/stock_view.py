"""The rack: one board large, both its faces, with what is wrong where; under it all that is there, to one scale."""

from __future__ import annotations

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.species import stuff
from oakmeasure.core.document.stock import Board, Came, Face, SheetStock
from oakmeasure.core.drawings.drawing import BOLD, Anchor, Drawing, Grain, Layer, Lettering, Room, Sketch, handle
from oakmeasure.core.drawings.timber.board_marks import face_of, mark_rect
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.leaf.part import Rect

UNKNOWN_TINT = "#E8D8B8"
ACROSS = 3  # columns of small boards


def owned(job: Job) -> list[int]:
    """Return the places of the boards that are on the rack, not at the yard.

    Args:
        job: The job that is read; it is not changed.
    """
    return [at for at, each in enumerate(job.boards) if each.is_owned]


def rack_view(job: Job, show: Show, *, board: int, mark: int = -1) -> Drawing:
    """Return the rack.

    Args:
        job: The job that is read; it is not changed.
        show: How lengths and other quantities are written.
        board: Place of the board that is shown large, from 0.
        mark: Place of the mark that has handles, from 0; None for none.
    """
    places = owned(job)
    if not places:
        return empty_view("no boards on the rack yet: measure one in, at the left")
    board = board if board in places else places[0]
    sketch, item = Sketch(show), job.boards[board]
    step = sketch.step = item.length / 95
    tint = stuff(item.species).tint if item.species else UNKNOWN_TINT
    y = 0.0
    for face in (Face.BEST, Face.OTHER):
        y -= item.width
        rect = face_of(sketch, item, y, tint, face=face, ref=f"handle:new {face}")
        sketch.write((0.0, rect.y1 + 2.2 * step), _face_words(face), Lettering(Layer.PENCIL, 0.9))
        if face is Face.BEST:
            sketch.label(
                (item.length, rect.y1 + 2.2 * step), _about(item, show), Lettering(size=0.9), anchor=Anchor.RIGHT
            )
        _handles(sketch, item, mark, rect, face)
        y -= 6.0 * step
    sketch.dimension((0.0, y + 3.0 * step), (item.length, y + 3.0 * step), show.length(item.length))
    sketch.dimension((item.length + 2.4 * step, -item.width), (item.length + 2.4 * step, 0.0), show.length(item.width))
    _all(sketch, job, places, board, item.length, y - 2.4 * step)
    return sketch.drawing(margin=1.4 * step)


def _face_words(face: Face) -> str:
    return "best face, head end at the left" if face is Face.BEST else "other face, turned over about its length"


def _about(item: Board, show: Show) -> str:
    """Return what a board is, in a line."""
    words = [
        item.label or "no label",
        stuff(item.species).name if item.species else "any species",
        f"{show.length(item.thickness)} thick, {item.sawn}",
    ]
    if item.came is not Came.NEW:
        words.append(str(item.came) + (f", {item.year}" if item.year else ""))
    if item.bow or item.crook:
        words.append(f"bow {show.length(item.bow)}, crook {show.length(item.crook)}")
    if item.one_face:
        words.append("one face kept")
    if item.forbidden:
        words.append("not to be used")
    return "  ·  ".join(words)


def _handles(sketch: Sketch, item: Board, at: int, rect: Rect, face: Face) -> None:
    """Draw the handles of the mark in hand: one moves it, one sizes it."""
    step = sketch.step
    if not 0 <= at < len(item.marks) or item.marks[at].face not in (face, Face.THROUGH):
        return
    place = mark_rect(item, item.marks[at], rect, face)
    sketch.box(place, Layer.LEAF, ref=f"mark:{at + 1}")
    handle(sketch, (place.x0, place.y0), 0.8 * step, f"handle:move {face}")
    handle(sketch, (place.x1, place.y1), 0.8 * step, f"handle:size {face}")


def _all(sketch: Sketch, job: Job, places: list[int], board: int, width: float, y: float) -> None:
    """Draw everything on the rack small, in columns, each with its name; the one in hand framed."""
    longest = max(job.boards[at].length for at in places)
    sheets = [each for each in job.sheets if each.quantity is not None]
    scale = width / (ACROSS * longest * 1.3)
    column, room = width / ACROSS, width / 40
    sketch.write((0.0, y), "On the rack", BOLD)
    tops = [y - 1.4 * room] * ACROSS
    for at in places:
        item = job.boards[at]
        n = max(range(ACROSS), key=lambda each: tops[each])
        x, top = n * column + 1.2 * room, tops[n]
        rect = Rect(x, top - item.width * scale, x + item.length * scale, top)
        tint = stuff(item.species).tint if item.species else UNKNOWN_TINT
        sketch.rect(rect, Layer.WOOD, ref=f"rack:{at}", grain=Grain.NONE, tint=tint)
        for mark in item.marks:
            small = Rect(
                x + mark.x * scale,
                rect.y0 + mark.y * scale,
                x + (mark.x + mark.length) * scale,
                rect.y0 + (mark.y + mark.width) * scale,
            )
            sketch.rect(small, Layer.WASTE, ref=f"rack:{at}")
        sketch.box(rect, Layer.LEAF if at == board else Layer.OUTLINE, ref=f"rack:{at}")
        many = f" × {item.quantity}" if (item.quantity or 1) > 1 else ""
        words = f"{item.label or '–'}{many}"
        sketch.label(
            (x - 0.3 * room, (rect.y0 + rect.y1) / 2),
            words,
            Lettering(size=0.85, bold=at == board),
            anchor=Anchor.RIGHT,
            ref=f"rack:{at}",
        )
        tops[n] = rect.y0 - 1.0 * room
    for each in sheets:
        _sheet(sketch, each, tops, column, room, scale)


def _sheet(sketch: Sketch, item: SheetStock, tops: list[float], column: float, room: float, scale: float) -> None:
    n = max(range(ACROSS), key=lambda each: tops[each])
    x, top = n * column + 1.2 * room, tops[n]
    rect = Rect(x, top - item.width * scale * 0.55, x + item.length * scale, top)
    sketch.rect(rect, Layer.WOOD, tint=stuff(item.material).tint, grain=Grain.NONE)
    sketch.box(rect, Layer.OUTLINE)
    words = f"{item.label or 'sheet'}  {sketch.show.size(item.length, item.width, item.thickness)}"
    sketch.label(
        ((rect.x0 + rect.x1) / 2, (rect.y0 + rect.y1) / 2),
        words,
        Lettering(size=0.8),
        room=Room(rect.width, shorter=(item.label or "sheet", "")),
    )
    tops[n] = rect.y0 - 1.0 * room
