"""A leaf taken apart as its joints let go of one another: which pieces are drawn away, which way, and in which order.

Pieces that a plane sets apart are drawn away from each other square to it, far enough to come out of their joints; then
what stays together is taken apart the same way. So a tenon is drawn along its mortise, and nothing goes through wood.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from oakmeasure.core.base.convex_cells import Point3
from oakmeasure.core.base.prism_sums import crossed
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.body.pieces import Body, CutOutKind, Piece

TOUCH = 0.5  # mm that two pieces may share across a plane that still sets them apart
CLEAR = 0.03  # of the leaf's larger side, that stays free between two pieces drawn apart
DEPTH_CLEAR = 2.0  # times as much in depth, where one sees it askew
SAMPLES = 9  # places at which outlines are compared
AXES = (2, 0, 1)  # what lies on a face comes off first, then what stands, then what lies level

_Ends = tuple[Point3, Point3]


@dataclass(frozen=True, slots=True)
class TakenApart:
    """How a leaf comes apart."""

    moves: tuple[tuple[Point3, ...], ...]
    """Of each piece in the body's order, how far it is drawn away at each stage, mm."""
    stages: int
    """How many there are."""

    def offsets(self, share: float) -> list[Point3]:
        """Return how far each piece is from its place, mm.

        Args:
            share: How far the leaf is taken apart: 0 whole, 1 all of it.
        """
        done = [min(max(share * self.stages - stage, 0.0), 1.0) for stage in range(self.stages)]
        return [_sum(moves, done) for moves in self.moves]


def _sum(moves: Sequence[Point3], shares: Sequence[float]) -> Point3:
    """Return so much of each of some moves together."""
    x, y, z = (sum(share * move[axis] for share, move in zip(shares, moves, strict=True)) for axis in range(3))
    return x, y, z


def taken_apart(body: Body) -> TakenApart:
    """Return how a leaf comes apart.

    Args:
        body: The leaf's body.
    """
    own = [at for at, piece in enumerate(body.pieces) if piece.part is not None]
    clear = CLEAR * max(body.width, body.height)
    moves: dict[int, list[tuple[int, Point3]]] = {at: [] for at in own}
    _take(body.pieces, own, clear, 0, moves)
    stages = 1 + max((stage for each in moves.values() for stage, _ in each), default=0)
    spread = {at: _by_stage(each, stages) for at, each in moves.items()}
    for at, piece in enumerate(body.pieces):
        if at not in spread:
            spread[at] = _between([spread[host] for host in _hosts(body, piece, own)], stages)
    return TakenApart(tuple(spread[at] for at in range(len(body.pieces))), stages)


def _by_stage(moves: Sequence[tuple[int, Point3]], stages: int) -> tuple[Point3, ...]:
    known = dict(moves)
    return tuple(known.get(stage, (0.0, 0.0, 0.0)) for stage in range(stages))


def _hosts(body: Body, piece: Piece, own: Sequence[int]) -> Iterator[int]:
    """Return the pieces that a loose tenon or a dowel joins."""
    for at in own:
        if any(each.kind is CutOutKind.SOCKET and each.solid == piece.solids[0] for each in body.pieces[at].cuts):
            yield at


def _between(moves: Sequence[tuple[Point3, ...]], stages: int) -> tuple[Point3, ...]:
    """Return the moves of what lies between others: it stays half way between them."""
    if not moves:
        return ((0.0, 0.0, 0.0),) * stages
    shares = [1 / len(moves)] * len(moves)
    return tuple(_sum([each[stage] for each in moves], shares) for stage in range(stages))


def _take(
    pieces: Sequence[Piece], group: Sequence[int], clear: float, stage: int, moves: dict[int, list[tuple[int, Point3]]]
) -> Point3:
    """Note how a group comes apart about its own middle; return how large it is then: across, up, in depth, mm."""
    low, high = _ends(pieces, group)
    size = [b - a for a, b in zip(low, high, strict=True)]
    axis, parts = _parts(pieces, group)
    if len(parts) < 2:
        return size[0], size[1], size[2]
    sizes = [_take(pieces, each, clear, stage + 1, moves) for each in parts]
    free = clear * (DEPTH_CLEAR if axis == 2 else 1.0)
    rooms = [_room(pieces, one, other, axis, free) for one, other in pairwise(parts)]
    whole = sum(each[axis] for each in sizes) + sum(rooms)
    at = (low[axis] + high[axis] - whole) / 2
    for part, each, room in zip(parts, sizes, [*rooms, 0.0], strict=True):
        a, b = (end[axis] for end in _ends(pieces, part))
        away = [0.0, 0.0, 0.0]
        away[axis] = at + each[axis] / 2 - (a + b) / 2
        for one in part:
            moves[one].append((stage, (away[0], away[1], away[2])))
        at += each[axis] + room
    size = [max(each[way] for each in (size, *sizes)) for way in range(3)]
    size[axis] = max(size[axis], whole)
    return size[0], size[1], size[2]


def _parts(pieces: Sequence[Piece], group: Sequence[int]) -> tuple[int, list[list[int]]]:
    """Return along which axis a group comes apart, and in which parts; one part where it does not."""
    if len(group) > 1:
        for axis in AXES:
            parts = _set_apart(pieces, group, axis)
            if len(parts) > 1:
                return axis, parts
        drawn = [found for axis in AXES for found in _drawn_off(pieces, group, axis)]
        if drawn:
            return min(drawn, key=lambda found: min(map(len, found[1])))
    return 0, [list(group)]


def _set_apart(pieces: Sequence[Piece], group: Sequence[int], axis: int) -> list[list[int]]:
    """Return a group in parts that planes square to an axis set apart."""
    ends = {at: tuple(end[axis] for end in _ends(pieces, [at])) for at in group}
    in_order = sorted(group, key=lambda at: ends[at])
    parts = [[in_order[0]]]
    reach = ends[in_order[0]][1]
    for at in in_order[1:]:
        if ends[at][0] >= reach - TOUCH:
            parts.append([at])
        else:
            parts[-1].append(at)
        reach = max(reach, ends[at][1])
    return parts


def _drawn_off(pieces: Sequence[Piece], group: Sequence[int], axis: int) -> Iterator[tuple[int, list[list[int]]]]:
    """Yield a group in two: what can be drawn off it up an axis, or down, though no plane sets it apart."""
    for is_up in (True, False):
        off = [
            at for at in group if all(_is_beyond(pieces[at], pieces[one], axis, is_up) for one in group if one != at)
        ]
        rest = [at for at in group if at not in off]
        if off and rest:
            yield axis, [rest, off] if is_up else [off, rest]


def _is_beyond(piece: Piece, other: Piece, axis: int, is_up: bool) -> bool:
    """Return whether one piece lies wholly to one side of another along an axis, wherever both are met on it."""
    (low, high), (least, most) = _block(piece), _block(other)
    ways = [way for way in range(3) if way != axis]
    if any(min(high[way], most[way]) - max(low[way], least[way]) < TOUCH for way in ways):
        return True
    if axis == 2:
        return low[2] >= most[2] - TOUCH if is_up else high[2] <= least[2] + TOUCH
    across = 1 - axis
    start, end = max(low[across], least[across]), min(high[across], most[across])
    for step in range(SAMPLES):
        at = start + (end - start) * (step + 0.5) / SAMPLES
        one = crossed(_face(piece), at, upright=axis == 1)
        two = crossed(_face(other), at, upright=axis == 1)
        if one and two and (one[0][0] < two[-1][1] - TOUCH if is_up else one[-1][1] > two[0][0] + TOUCH):
            return False
    return True


def _face(piece: Piece) -> Solid:
    assert piece.part is not None
    return Solid(piece.part.corners, (0.0, 1.0))


def _room(pieces: Sequence[Piece], one: Sequence[int], other: Sequence[int], axis: int, free: float) -> float:
    """Return how far two groups are drawn apart: out of their joints and clear of one another; or as they stand, mm."""
    end, start = _ends(pieces, one)[1][axis], _ends(pieces, other)[0][axis]
    if start - end > TOUCH:
        return start - end
    over = max(0.0, *(pieces[at].box[axis + 3] - end for at in one))
    under = max(0.0, *(start - pieces[at].box[axis] for at in other))
    return start - end + over + under + free


def _ends(pieces: Sequence[Piece], group: Sequence[int]) -> _Ends:
    """Return the block about a group, without what goes into others: its least corner and its most, mm."""
    blocks = [_block(pieces[at]) for at in group]
    low = tuple(min(each[0][axis] for each in blocks) for axis in range(3))
    high = tuple(max(each[1][axis] for each in blocks) for axis in range(3))
    return low, high  # type: ignore[return-value]


def _block(piece: Piece) -> _Ends:
    part = piece.part
    assert part is not None
    xs, ys = [x for x, _ in part.corners], [y for _, y in part.corners]
    depth = max((each.depth for each in piece.solids[:1]), key=lambda span: span[1] - span[0])
    return (min(xs), min(ys), depth[0]), (max(xs), max(ys), depth[1])
