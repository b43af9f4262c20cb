"""A cutting plan out of boards: ripped into strips, the strips crosscut into pieces, every cut from edge to edge.

Grain runs along the board, so pieces are never turned. First fit over several orders, narrower pieces allowed
in a wider strip, each board used then changed for the cheapest that still holds its strips. Quick, not proven
best: the bound beside the plan says how far it could be off. The kerf is added to every piece and once to the
board's usable size, so that n pieces cost n − 1 kerfs.
"""

from __future__ import annotations

import math
import random
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field

SHUFFLES = 120
_EPS = 1e-6


@dataclass(frozen=True, slots=True)
class Piece:
    """A rectangle to cut, grain along its length, mm. part: the part that it is, or is a strip of."""

    name: str
    part: str
    length: float
    width: float


@dataclass(frozen=True, slots=True)
class Stock:
    """A size of board, mm. quantity None: as many as needed. price None: judged by its area."""

    name: str
    length: float
    width: float
    quantity: int | None = None
    price: float | None = None

    @property
    def area(self) -> float:
        return self.length * self.width


@dataclass(frozen=True, slots=True)
class Placed:
    """A piece on its board; x along the board from its head end, y across from its lower edge."""

    piece: Piece
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class CutBoard:
    """One board with what is cut from it."""

    stock: Stock
    pieces: tuple[Placed, ...]
    strips: tuple[tuple[float, float], ...]  # (y, width) of each ripped strip


@dataclass(frozen=True, slots=True)
class Plan:
    """boards: in cutting order. unplaced: pieces that no board on the rack can hold (or none that is left).

    least_boards: no plan can use fewer boards. least_area: no plan can use less, mm². area_used: whole boards.
    """

    boards: tuple[CutBoard, ...]
    unplaced: tuple[Piece, ...]
    least_boards: int
    least_area: float
    area_used: float
    area_of_pieces: float


@dataclass(slots=True)
class _Strip:
    width: float
    left: float
    pieces: list[tuple[Piece, float]] = field(default_factory=list)


@dataclass(slots=True)
class _Open:
    stock: Stock
    left: float
    strips: list[_Strip] = field(default_factory=list)


def plan_boards(pieces: Sequence[Piece], stock: Sequence[Stock], *, kerf: float, end_trim: float) -> Plan:
    """Return the best plan found.

    kerf: of the saw. end_trim: taken off each end of a board before anything is cut. All mm. Deterministic.
    Source: first-fit decreasing over strips; area bound.
    """
    fits = [each for each in pieces if any(_holds(board, each, end_trim) for board in stock)]
    never = [each for each in pieces if each not in fits]
    best: tuple[float, list[_Open], list[Piece]] | None = None
    for order, prefer in _attempts(fits, stock):
        boards, left = _pack(order, prefer, kerf, end_trim)
        _exchange(boards, stock, kerf, end_trim)
        cost = sum(_cost(each.stock, stock) for each in boards) + 1e12 * len(left)
        if best is None or cost < best[0] - _EPS:
            best = (cost, boards, left)
    boards, left = (best[1], best[2]) if best else ([], [])
    cut = tuple(_laid_out(each, kerf, end_trim) for each in sorted(boards, key=lambda one: -one.stock.area))
    least_area, least_boards = _bound(fits, stock, kerf, end_trim)
    return Plan(
        cut,
        tuple(never + left),
        least_boards,
        least_area,
        sum(each.stock.area for each in cut),
        sum(each.length * each.width for each in fits if each not in left),
    )


def _holds(board: Stock, piece: Piece, end_trim: float) -> bool:
    return piece.length <= board.length - 2 * end_trim + _EPS and piece.width <= board.width + _EPS


def _cost(board: Stock, stock: Sequence[Stock]) -> float:
    """Boards are compared by price where every one has a price, otherwise by area."""
    if board.price is not None and all(each.price is not None for each in stock):
        return board.price
    return board.area


_ORDERS: tuple[Callable[[Piece], tuple[float, ...]], ...] = (
    lambda each: (-each.width, -each.length),
    lambda each: (-each.length, -each.width),
    lambda each: (-each.length * each.width,),
)


def _attempts(pieces: list[Piece], stock: Sequence[Stock]) -> Iterator[tuple[list[Piece], list[Stock]]]:
    """Yield (order of pieces, order of boards): sorted ones first, then seeded shuffles."""
    by_cost = sorted(stock, key=lambda each: (_cost(each, stock), each.length))
    by_rate = sorted(stock, key=lambda each: (_cost(each, stock) / each.area, -each.area))
    named = sorted(pieces, key=lambda each: each.name)
    for prefer in (by_rate, by_cost):
        for order in _ORDERS:
            yield sorted(named, key=order), prefer
    source = random.Random(1)
    base = sorted(named, key=lambda each: -each.width * each.length)
    for _ in range(SHUFFLES):
        # Large pieces stay near the front: a full shuffle only wastes attempts. Boards in any order: which size
        # is opened next decides more than which piece.
        shuffled = sorted(base, key=lambda each: -each.width * each.length * source.uniform(0.4, 1.6))
        prefer = list(stock)
        source.shuffle(prefer)
        yield shuffled, prefer


def _pack(order: list[Piece], prefer: list[Stock], kerf: float, end_trim: float) -> tuple[list[_Open], list[Piece]]:
    boards: list[_Open] = []
    left: list[Piece] = []
    used: dict[str, int] = {}
    for piece in order:
        strip = min(
            (
                strip
                for board in boards
                for strip in board.strips
                if strip.width >= piece.width - _EPS and strip.left >= piece.length + kerf - _EPS
            ),
            key=lambda each: (each.width - piece.width, each.left),
            default=None,
        )
        if strip is None:
            strip = _open_strip(piece, boards, prefer, used, kerf, end_trim)
        if strip is None:
            left.append(piece)
            continue
        strip.pieces.append((piece, strip.left))
        strip.left -= piece.length + kerf
    return boards, left


def _open_strip(
    piece: Piece, boards: list[_Open], prefer: list[Stock], used: dict[str, int], kerf: float, end_trim: float
) -> _Strip | None:
    room = min(
        (board for board in boards if board.left >= piece.width + kerf - _EPS and _holds(board.stock, piece, end_trim)),
        key=lambda each: each.left,
        default=None,
    )
    if room is None:
        for stock in prefer:
            if _holds(stock, piece, end_trim) and (stock.quantity is None or used.get(stock.name, 0) < stock.quantity):
                used[stock.name] = used.get(stock.name, 0) + 1
                room = _Open(stock, stock.width + kerf)
                boards.append(room)
                break
        else:
            return None
    strip = _Strip(piece.width, room.stock.length - 2 * end_trim + kerf)
    room.strips.append(strip)
    room.left -= piece.width + kerf
    return strip


def _exchange(boards: list[_Open], stock: Sequence[Stock], kerf: float, end_trim: float) -> None:
    """Change each board for the cheapest one that still holds its strips."""
    used = {each.name: sum(board.stock is each for board in boards) for each in stock}
    for board in boards:
        width = sum(strip.width + kerf for strip in board.strips) - kerf
        length = max(sum(piece.length + kerf for piece, _ in strip.pieces) - kerf for strip in board.strips)
        for other in sorted(stock, key=lambda each: _cost(each, stock)):
            if _cost(other, stock) >= _cost(board.stock, stock) - _EPS:
                break
            free = other.quantity is None or used[other.name] < other.quantity
            if free and other.width >= width - _EPS and other.length - 2 * end_trim >= length - _EPS:
                used[board.stock.name] -= 1
                used[other.name] += 1
                board.stock = other
                break


def _laid_out(board: _Open, kerf: float, end_trim: float) -> CutBoard:
    placed: list[Placed] = []
    strips: list[tuple[float, float]] = []
    y = 0.0
    for strip in sorted(board.strips, key=lambda each: -each.width):
        strips.append((y, strip.width))
        x = end_trim
        for piece, _ in strip.pieces:
            placed.append(Placed(piece, x, y))
            x += piece.length + kerf
        y += strip.width + kerf
    return CutBoard(board.stock, tuple(placed), tuple(strips))


def _bound(pieces: list[Piece], stock: Sequence[Stock], kerf: float, end_trim: float) -> tuple[float, int]:
    """Return the least board area and the least number of boards that any plan needs.

    Area: every piece takes (length + kerf)·(width + kerf) of a board's (usable length + kerf)·(width + kerf).
    Pieces more than half as wide as the widest board cannot lie side by side: their lengths must follow each
    other. Pieces more than half as long as the longest cannot follow each other: their widths must lie side
    by side. The largest of the three counts.
    """
    if not pieces or not stock:
        return 0.0, 0
    need = sum((each.length + kerf) * (each.width + kerf) for each in pieces)
    usable = [(board, (board.length - 2 * end_trim + kerf) * (board.width + kerf)) for board in stock]
    best_rate = max(size / board.area for board, size in usable)
    longest = max(board.length - 2 * end_trim + kerf for board in stock)
    widest = max(board.width + kerf for board in stock)
    lengths = sum(each.length + kerf for each in pieces if 2 * (each.width + kerf) > widest + _EPS)
    widths = sum(each.width + kerf for each in pieces if 2 * (each.length + kerf) > longest + _EPS)
    counts = (_fewest_by_area(need, usable), math.ceil(lengths / longest - 1e-9), math.ceil(widths / widest - 1e-9))
    return need / best_rate, max(counts)


def _fewest_by_area(need: float, usable: list[tuple[Stock, float]]) -> int:
    """Return how many boards hold `need` when the largest are taken first."""
    count = 0
    for board, size in sorted(usable, key=lambda each: -each[1]):
        whole = math.ceil(need / size - 1e-9)
        take = whole if board.quantity is None else min(whole, board.quantity)
        count += take
        need -= take * size
        if need <= 1e-9:
            break
    return count
