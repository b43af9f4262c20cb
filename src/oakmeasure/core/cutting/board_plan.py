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

SHUFFLES = 24
_EPS = 1e-6


@dataclass(frozen=True, slots=True)
class BoardPiece:
    """A rectangle to cut, grain along its length, mm."""

    name: str
    """Its name, as it is shown."""
    part: str
    """The part that it is, or is a strip of."""
    length: float
    """Length, mm."""
    width: float
    """Width, mm."""


@dataclass(frozen=True, slots=True)
class BoardStock:
    """A size of board, mm. quantity None: as many as needed. price None: judged by its area."""

    name: str
    """Its name, as it is shown."""
    length: float
    """Length, mm."""
    width: float
    """Width, mm."""
    quantity: int | None = None
    """How many there are; None for as many as wanted."""
    price: float | None = None
    """Price, in the job's money; None where it is not known."""

    @property
    def area(self) -> float:
        """Area of its face, mm²."""
        return self.length * self.width


@dataclass(frozen=True, slots=True)
class Placed:
    """A piece on its board; x along the board from its head end, y across from its lower edge."""

    piece: BoardPiece
    """The piece."""
    x: float
    """From the stock's head end, mm."""
    y: float
    """From the stock's lower edge, mm."""


@dataclass(frozen=True, slots=True)
class CutBoard:
    """One board with what is cut from it."""

    stock: BoardStock
    """The board."""
    pieces: tuple[Placed, ...]
    """What is cut from it."""
    strips: tuple[tuple[float, float], ...]
    """(y, width) of each ripped strip."""


@dataclass(frozen=True, slots=True)
class BoardPlan:
    """Boards with what is cut from them."""

    boards: tuple[CutBoard, ...]
    """In cutting order."""
    unplaced: tuple[BoardPiece, ...]
    """Pieces that no board on the rack can hold (or none that is left)."""
    least_boards: int
    """No plan can use fewer boards."""
    least_area: float
    """No plan can use less, mm²."""
    area_used: float
    """Area of the whole boards, mm²."""
    area_of_pieces: float
    """Area of all pieces, mm²."""


@dataclass(slots=True)
class _BoardStrip:
    width: float
    left: float
    pieces: list[BoardPiece] = field(default_factory=list)


@dataclass(slots=True)
class _Open:
    stock: BoardStock
    left: float
    strips: list[_BoardStrip] = field(default_factory=list)


@dataclass(slots=True)
class _Rack:
    """The stock with what the search asks of it again and again."""

    stock: list[BoardStock]
    kerf: float
    end_trim: float
    cost: dict[str, float] = field(default_factory=dict)
    by_cost: list[BoardStock] = field(default_factory=list)
    by_rate: list[BoardStock] = field(default_factory=list)

    def __post_init__(self) -> None:
        # Boards are compared by price where every one has a price, otherwise by area.
        priced = all(each.price is not None for each in self.stock)
        self.cost = {each.name: each.price if priced and each.price is not None else each.area for each in self.stock}
        self.by_cost = sorted(self.stock, key=lambda each: (self.cost[each.name], each.length))
        self.by_rate = sorted(self.stock, key=lambda each: (self.cost[each.name] / each.area, -each.area))

    def holds(self, board: BoardStock, length: float, width: float) -> bool:
        return length <= board.length - 2 * self.end_trim + _EPS and width <= board.width + _EPS


def plan_boards(
    pieces: Sequence[BoardPiece], stock: Sequence[BoardStock], *, kerf: float, end_trim: float
) -> BoardPlan:
    """Return the best plan found.

    All mm. Deterministic. Source: first-fit decreasing over strips; area bound.

    Args:
        pieces: Each with a name of its own.
        stock: Each with a name of its own.
        kerf: Of the saw, mm.
        end_trim: Taken off each end of a board before anything is cut, mm.
    """
    rack = _Rack(list(stock), kerf, end_trim)
    fits = [each for each in pieces if any(rack.holds(board, each.length, each.width) for board in stock)]
    least_area, least_boards, least_cost = _bound(fits, rack)
    best: tuple[float, list[_Open], list[BoardPiece]] | None = None
    for order, prefer in _attempts(fits, rack):
        boards, left = _pack(order, prefer, rack)
        _exchange(boards, rack)
        cost = sum(rack.cost[each.stock.name] for each in boards) + 1e12 * len(left)
        if best is None or cost < best[0] - _EPS:
            best = (cost, boards, left)
            if cost <= least_cost + _EPS:
                break
    boards, left = (best[1], best[2]) if best else ([], [])
    cut = tuple(_laid_out(each, kerf, end_trim) for each in sorted(boards, key=lambda one: -one.stock.area))
    placed = {each.piece.name for board in cut for each in board.pieces}
    return BoardPlan(
        cut,
        tuple(each for each in pieces if each.name not in placed),
        least_boards,
        least_area,
        sum(each.stock.area for each in cut),
        sum(each.length * each.width for each in pieces if each.name in placed),
    )


_ORDERS: tuple[Callable[[BoardPiece], tuple[float, ...]], ...] = (
    lambda each: (-each.width, -each.length),
    lambda each: (-each.length, -each.width),
    lambda each: (-each.length * each.width,),
)


def _attempts(pieces: list[BoardPiece], rack: _Rack) -> Iterator[tuple[list[BoardPiece], list[BoardStock]]]:
    """Yield (order of pieces, order of boards): sorted ones first, then seeded shuffles."""
    named = sorted(pieces, key=lambda each: each.name)
    for prefer in (rack.by_rate, rack.by_cost):
        for order in _ORDERS:
            yield sorted(named, key=order), prefer
    source = random.Random(1)
    base = sorted(((-each.width * each.length, each) for each in named), key=lambda each: each[0])
    for _ in range(SHUFFLES):
        # Large pieces stay near the front: a full shuffle only wastes attempts. Boards in any order: which size
        # is opened next decides more than which piece.
        shuffled = sorted(((size * (0.4 + 1.2 * source.random()), at) for at, (size, _piece) in enumerate(base)))
        yield [base[at][1] for _, at in shuffled], source.sample(rack.stock, len(rack.stock))


def _pack(order: list[BoardPiece], prefer: list[BoardStock], rack: _Rack) -> tuple[list[_Open], list[BoardPiece]]:
    boards: list[_Open] = []
    strips: list[_BoardStrip] = []
    left: list[BoardPiece] = []
    used: dict[str, int] = {}
    for piece in order:
        width, length = piece.width - _EPS, piece.length + rack.kerf - _EPS
        strip: _BoardStrip | None = None
        for each in strips:  # the narrowest that takes it, then the fullest
            takes = each.width >= width and each.left >= length
            if takes and (strip is None or (each.width, each.left) < (strip.width, strip.left)):
                strip = each
        if strip is None:
            strip = _open_strip(piece, boards, prefer, used, rack)
            if strip is None:
                left.append(piece)
                continue
            strips.append(strip)
        strip.pieces.append(piece)
        strip.left -= piece.length + rack.kerf
    return boards, left


def _open_strip(
    piece: BoardPiece, boards: list[_Open], prefer: list[BoardStock], used: dict[str, int], rack: _Rack
) -> _BoardStrip | None:
    """Rip a new strip off the fullest board that takes it, or off a new board; None when there is none left."""
    room: _Open | None = None
    for board in boards:
        takes = board.left >= piece.width + rack.kerf - _EPS and rack.holds(board.stock, piece.length, piece.width)
        if takes and (room is None or board.left < room.left):
            room = board
    if room is None:
        for stock in prefer:
            free = stock.quantity is None or used.get(stock.name, 0) < stock.quantity
            if free and rack.holds(stock, piece.length, piece.width):
                used[stock.name] = used.get(stock.name, 0) + 1
                room = _Open(stock, stock.width + rack.kerf)
                boards.append(room)
                break
        else:
            return None
    strip = _BoardStrip(piece.width, room.stock.length - 2 * rack.end_trim + rack.kerf)
    room.strips.append(strip)
    room.left -= piece.width + rack.kerf
    return strip


def _exchange(boards: list[_Open], rack: _Rack) -> None:
    """Change each board for the cheapest one that still holds its strips."""
    used: dict[str, int] = {}
    for board in boards:
        used[board.stock.name] = used.get(board.stock.name, 0) + 1
    for board in boards:
        width = board.stock.width - board.left
        length = board.stock.length - 2 * rack.end_trim - min(strip.left for strip in board.strips)
        for other in rack.by_cost:
            if rack.cost[other.name] >= rack.cost[board.stock.name] - _EPS:
                break
            free = other.quantity is None or used.get(other.name, 0) < other.quantity
            if free and rack.holds(other, length, width):
                used[board.stock.name] -= 1
                used[other.name] = used.get(other.name, 0) + 1
                board.stock = other
                break


def _laid_out(board: _Open, kerf: float, end_trim: float) -> CutBoard:
    placed: list[Placed] = []
    strips: list[tuple[float, float]] = []
    y = 0.0
    for strip in sorted(board.strips, key=lambda each: -each.width):
        strips.append((y, strip.width))
        x = end_trim
        for piece in strip.pieces:
            placed.append(Placed(piece, x, y))
            x += piece.length + kerf
        y += strip.width + kerf
    return CutBoard(board.stock, tuple(placed), tuple(strips))


def _bound(pieces: list[BoardPiece], rack: _Rack) -> tuple[float, int, float]:
    """Return the least board area, the least number of boards and the least cost that any plan needs.

    Area: every piece takes (length + kerf)·(width + kerf) of a board's (usable length + kerf)·(width + kerf).
    Pieces more than half as wide as the widest board cannot lie side by side: their lengths must follow each
    other. Pieces more than half as long as the longest cannot follow each other: their widths must lie side
    by side. The largest of the three counts. Cost: so many of the cheapest boards, or the area where it is cheapest.
    """
    stock, kerf, end_trim = rack.stock, rack.kerf, rack.end_trim
    if not pieces or not stock:
        return 0.0, 0, 0.0
    need = sum((each.length + kerf) * (each.width + kerf) for each in pieces)
    usable = [(board, (board.length - 2 * end_trim + kerf) * (board.width + kerf)) for board in stock]
    best_rate = max(size / board.area for board, size in usable)
    longest = max(board.length - 2 * end_trim + kerf for board in stock)
    widest = max(board.width + kerf for board in stock)
    lengths = sum(each.length + kerf for each in pieces if 2 * (each.width + kerf) > widest + _EPS)
    widths = sum(each.width + kerf for each in pieces if 2 * (each.length + kerf) > longest + _EPS)
    counts = (_fewest_by_area(need, usable), math.ceil(lengths / longest - 1e-9), math.ceil(widths / widest - 1e-9))
    least_cost = max(counts) * min(rack.cost.values())
    if least_cost > 0:  # nothing at hand is free
        least_cost = max(least_cost, need / max(size / rack.cost[board.name] for board, size in usable))
    return need / best_rate, max(counts), least_cost


def _fewest_by_area(need: float, usable: list[tuple[BoardStock, float]]) -> int:
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
