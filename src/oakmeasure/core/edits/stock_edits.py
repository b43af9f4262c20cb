"""Edits of the rack: boards, their marks, dragged or typed, what is pinned and what is cut. Each returns a new job."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.field_path import with_value
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.stock import Board, BoardMark, Face, MoistureReading, Pin

GRID = 1.0  # to which what is dragged snaps, mm
LEAST_MARK = 3.0  # mm; less was a click, no drag
STEPS = 95  # of the longest side of the drawing: the air between its two faces is five of them


def with_board(job: Job, at: int, **changes: Any) -> Job:
    """Return the job with some figures of a board changed.

    Args:
        job: The job that is read; it is not changed.
        at: Its place in the list, from 0.
        changes: Fields of the board with their new values.

    Raises:
        InputError: See the message.
    """
    board = job.boards[at]
    for name, value in changes.items():
        board = with_value(board, name, value)
    return with_boards(job, (*job.boards[:at], board, *job.boards[at + 1 :]))


def with_boards(job: Job, boards: tuple[Board, ...]) -> Job:
    """Return the job with another rack.

    Args:
        job: The job that is read; it is not changed.
        boards: All boards of the rack, in their order.

    Raises:
        InputError: See the message.
    """
    labels = [each.label for each in boards if each.label]
    twice = next((each for each in labels if labels.count(each) > 1), None) if len(set(labels)) < len(labels) else None
    if twice is not None:
        raise InputError("label", twice, f"a label of its own; {twice} is on another board")
    return with_value(job, "boards", boards)


def with_new_board(job: Job, like: int | None) -> Job:
    """Return the job with one more board: as large as another one, clear, its label the next that is free.

    Args:
        job: The job that is read; it is not changed.
        like: Place of the board that it begins as a copy of; None for a plain one.
    """
    model = job.boards[like] if like is not None else Board(length=2400, width=200, thickness=52)
    fresh = Board(
        species=model.species,
        length=model.length,
        width=model.width,
        thickness=model.thickness,
        quantity=1,
        label=free_label(job),
    )
    at = 1 + max((n for n, each in enumerate(job.boards) if each.is_owned), default=-1)
    return with_boards(job, (*job.boards[:at], fresh, *job.boards[at:]))


def free_label(job: Job, letter: str = "B") -> str:
    """Return the next label that no board has.

    Args:
        job: The job that is read; it is not changed.
        letter: What the label begins with.
    """
    taken = {each.label for each in job.boards}
    return next(f"{letter}{n}" for n in range(1, 10_000) if f"{letter}{n}" not in taken)


def without_board(job: Job, at: int) -> Job:
    """Return the job without a board; what was pinned to it is free again.

    Args:
        job: The job that is read; it is not changed.
        at: Its place in the list, from 0.
    """
    gone = job.boards[at].label
    job = with_boards(job, (*job.boards[:at], *job.boards[at + 1 :]))
    pins = tuple(each for each in job.cutting.pins if not gone or each.board != gone)
    return with_value(job, "cutting.pins", pins)


# --- marks ------------------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Spot:
    """A place on a face of a board as it is drawn, from the lower edge of that face, mm."""

    face: Face
    """The face of the board."""
    x: float
    """From the head end, mm."""
    y: float
    """From the lower edge as the face shows it, mm."""


def spot_on(board: Board, face: Face, x: float, y: float) -> Spot:
    """Return where on a face a place of the rack's drawing lies, kept on the board.

    The best face is drawn with its upper edge at 0, the other one five steps below it.

    Args:
        board: The board, seen on its best face with its head end to the left.
        face: Which face of the board is seen.
        x: Along the board as it is drawn, mm.
        y: Up, as the board is drawn, mm.
    """
    low = -board.width if face is not Face.OTHER else -2 * board.width - 5 * board.length / STEPS
    snapped = [round(each / GRID) * GRID for each in (x, y - low)]
    return Spot(face, min(max(snapped[0], 0.0), board.length), min(max(snapped[1], 0.0), board.width))


def _on_best(board: Board, face: Face, y: float, height: float) -> float:
    """Return a mark's lower edge as the job has it, seen on the best face."""
    return y if face is not Face.OTHER else board.width - y - height


def drawn_mark(board: Board, start: Spot, end: Spot, like: BoardMark | None) -> BoardMark | None:
    """Return the mark that is drawn from one spot to another; None where that is too small to be meant.

    Args:
        board: The board, seen on its best face with its head end to the left.
        start: Where the pointer was pressed.
        end: Where the pointer is let go.
        like: The defect whose kind and face are taken; None for the first kind.
    """
    x0, x1 = sorted((start.x, end.x))
    y0, y1 = sorted((start.y, end.y))
    if x1 - x0 < LEAST_MARK or y1 - y0 < LEAST_MARK:
        return None
    face = Face.OTHER if start.face is Face.OTHER else Face.BEST
    made: dict[str, Any] = {
        "face": face,
        "x": x0,
        "y": _on_best(board, face, y0, y1 - y0),
        "length": x1 - x0,
        "width": y1 - y0,
    }
    return BoardMark(**made) if like is None else BoardMark(flaw=like.flaw, **made)


def moved_mark(board: Board, mark: BoardMark, spot: Spot) -> BoardMark:
    """Return a mark with its lower head corner, as its face shows it, at another spot; it stays on the board.

    Args:
        board: The board, seen on its best face with its head end to the left.
        mark: The mark of a defect.
        spot: Where its lower head corner goes: from the head end and from the lower edge as the face shows it,
            mm.
    """
    x = min(spot.x, board.length - mark.length)
    low = min(spot.y, board.width - mark.width)
    return mark.model_copy(update={"x": x, "y": _on_best(board, spot.face, low, mark.width)})


def sized_mark(board: Board, mark: BoardMark, spot: Spot) -> BoardMark:
    """Return a mark with its upper foot corner, as its face shows it, at another spot; the other corner stays.

    Args:
        board: The board, seen on its best face with its head end to the left.
        mark: The mark of a defect.
        spot: Where its upper foot corner goes: from the head end and from the lower edge as the face shows it,
            mm.
    """
    low = _on_best(board, spot.face, mark.y, mark.width)
    long, wide = max(spot.x - mark.x, LEAST_MARK), max(spot.y - low, LEAST_MARK)
    return mark.model_copy(update={"length": long, "width": wide, "y": _on_best(board, spot.face, low, wide)})


def with_marks(job: Job, at: int, marks: tuple[BoardMark, ...]) -> Job:
    """Return the job with the marks of a board changed.

    Args:
        job: The job that is read; it is not changed.
        at: Its place in the list, from 0.
        marks: The board's new marks.

    Raises:
        InputError: See the message.
    """
    return with_board(job, at, marks=marks)


# --- readings, pins ---------------------------------------------------------------------------------------------


def with_reading(job: Job, at: int, day: date, percent: float) -> Job:
    """Return the job with what a meter said of a board on a day; of one day the last reading counts.

    Args:
        job: The job that is read; it is not changed.
        at: Its place in the list, from 0.
        day: The day.
        percent: Moisture as read, % of the dry mass.
    """
    kept = [each for each in job.boards[at].readings if each.day != day]
    made = with_value(MoistureReading(day=day, percent=10.0), "percent", percent)
    return with_board(job, at, readings=tuple(sorted([*kept, made], key=lambda each: each.day)))


def without_reading(job: Job, at: int, day: date) -> Job:
    """Return the job without the reading of a day.

    Args:
        job: The job that is read; it is not changed.
        at: Its place in the list, from 0.
        day: The day.
    """
    return with_board(job, at, readings=tuple(each for each in job.boards[at].readings if each.day != day))


def with_pin(job: Job, leaf: str, part: str, board: str) -> Job:
    """Return the job with a part pinned to a board of the rack, by its label; "" takes the pin out.

    Args:
        job: The job that is read; it is not changed.
        leaf: Id of the leaf.
        part: Name of the part; "" for the leaf as a whole.
        board: Label of the board; "" for none.
    """
    pins = [each for each in job.cutting.pins if (each.leaf, each.part) != (leaf, part)]
    if board:
        if all(each.label != board for each in job.boards):
            raise InputError("board", board, "the label of a board on the rack")
        pins.append(Pin(leaf=leaf, part=part, board=board))
    return with_value(job, "cutting.pins", tuple(pins))


def with_forbidden(job: Job, label: str, *, forbidden: bool = True) -> Job:
    """Return the job with a board or sheet left out of all plans, or let in again.

    Args:
        job: The job that is read; it is not changed.
        label: Label of the board or sheet.
        forbidden: Whether nothing may be cut from it.
    """
    boards = tuple(
        each.model_copy(update={"forbidden": forbidden}) if each.label == label else each for each in job.boards
    )
    sheets = tuple(
        each.model_copy(update={"forbidden": forbidden}) if each.label == label else each for each in job.sheets
    )
    return job.model_copy(update={"boards": boards, "sheets": sheets})
