"""The pieces as they lie after a step, and what the step takes off them: what a picture of the step is painted from.

A piece that is larger than it will be stands over at the leaf's edge at which it lies, else at both its ends alike.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import TYPE_CHECKING

from oakmeasure.core.base.convex_cells import cells_of
from oakmeasure.core.base.geometry import Point, half_plane_part, signed_area
from oakmeasure.core.base.prism_sums import corners_of, round_of
from oakmeasure.core.base.prisms import Solid, Span, block
from oakmeasure.core.body.listed import is_slanting, size_of
from oakmeasure.core.body.pieces import Body, CutOut, CutOutKind, Piece
from oakmeasure.core.body.taking_apart import TakenApart, taken_apart
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.leaf.part import Part, Size
from oakmeasure.core.making.changes import LEAF, Axis, FeatureKind, LeafEdge
from oakmeasure.core.making.features import features_of, made_on, sides_of, solids_of_its_own
from oakmeasure.core.making.operation import Operation
from oakmeasure.core.making.replay import PieceState, Replay, State, replay

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign

TIGHT = 0.01  # mm: nearer to a piece's end than this is at its end
MOVED = 60.0  # mm that the end of a cut moves at the most when the end of its piece is cut off
ROUND = 16  # sides of the polygon that stands for a bore
HUNG = "hang:"  # how the ids of operations begin at which the leaf hangs
LEG_WIDE, LEG_DEEPER = 32.0, 40.0  # mm that what it hangs in is drawn wide, and deeper than the leaf
DRY = "dry:"  # how the ids of operations begin that put pieces together without glue

Move = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class Played:
    """The pieces as they lie after one step."""

    body: Body
    """The pieces that are there, then what the step took off them, under the names of their pieces."""
    offsets: tuple[Move, ...]
    """How far each lies from its place in the leaf: across, up and in, mm."""
    taken_off: frozenset[int]
    """The numbers of those that are no pieces but what was taken off."""
    at_hand: frozenset[str]
    """Names of the pieces that the step is about; all of them where it is about the whole leaf."""
    is_whole: bool
    """Whether all that is there lies in its place."""
    is_sawn: bool = True
    """Whether anything is there yet; else the pieces are those of the leaf that will be."""


class Player:
    """Plays the steps of one leaf; what is known of its pieces once is kept."""

    def __init__(
        self, body: Body, operations: Sequence[Operation], replayed: Replay, frame: Sequence[Piece] = ()
    ) -> None:
        """body: the leaf that comes out. operations: in working order. replayed: what came of them. frame: round it."""
        self._body, self._operations, self._replayed, self._frame = body, operations, replayed, frame
        self._apart: TakenApart = taken_apart(body)
        self._features = frozenset(features_of(body))
        self._known: dict[str, Played] = {}

    def after(self, op_id: str) -> Played:
        """Return the pieces after a step.

        Args:
            op_id: Id of the operation.

        Raises:
            KeyError: Where there is none.
        """
        if op_id not in self._known:
            self._known[op_id] = self._played(op_id)
        return self._known[op_id]

    def _played(self, op_id: str) -> Played:
        at = [each.id for each in self._operations].index(op_id)
        op, last = self._operations[at], self._operations[at - 1].id if at else ""
        if not self._replayed.states[op_id]:
            apart = tuple(self._apart.offsets(1.0))
            return Played(self._body, apart, frozenset(), frozenset(), is_whole=False, is_sawn=False)
        now, before = self._replayed.states[op_id], self._replayed.states.get(last, {})
        bored, bored_before = self._bored(at + 1), self._bored(at)
        home = self._places(op, now)
        pieces: list[Piece] = []
        offsets: list[Move] = []
        off: list[tuple[Piece, Move]] = []
        hit: set[str] = set()
        for number, piece in enumerate(self._body.pieces):
            if piece.part is None:
                host = self._host(piece, now)
                if host is not None:
                    pieces.append(piece)
                    offsets.append(home[host])
                continue
            if piece.name not in now:
                continue
            new = self._as_it_is(piece, now[piece.name], bored)
            pieces.append(new)
            offsets.append(home[number])
            if piece.name in before:
                lost = list(taken_off(self._as_it_is(piece, before[piece.name], bored_before), new))
                off += ((each, home[number]) for each in lost)
                if lost:
                    hit.add(piece.name)
        at_hand = {*op.parts, *hit} & {each.name for each in pieces} or {each.name for each in pieces}
        if op.id.startswith(HUNG):
            pieces += self._frame
            offsets += [(0.0, 0.0, 0.0)] * len(self._frame)
        is_whole = not any(any(move) for move in offsets)
        body = replace(self._body, pieces=(*pieces, *(piece for piece, _ in off)))
        return Played(
            body,
            (*offsets, *(move for _, move in off)),
            frozenset(range(len(pieces), len(pieces) + len(off))),
            frozenset(at_hand),
            is_whole,
        )

    def _bored(self, steps: int) -> set[str]:
        """Return what the first steps cut for hardware in the leaf: what is not on the bench is cut in its frame."""
        return {name for each in self._operations[:steps] if each.hold is not None for name in each.cuts}

    def _places(self, op: Operation, now: State) -> dict[int, Move]:
        """Return how far each piece lies from its place: loose ones drawn apart, what is together drawn as one."""
        apart = self._apart.offsets(1.0)
        dry = set(op.parts) if op.id.startswith(DRY) else set()
        wholes: dict[str, list[int]] = {}
        for number, piece in enumerate(self._body.pieces):
            if piece.name in now:
                whole = LEAF if piece.name in dry else self._replayed.whole_of(op.id, piece.name)
                wholes.setdefault(whole, []).append(number)
        found: dict[int, Move] = {}
        for whole, numbers in wholes.items():
            for number in numbers:
                found[number] = apart[number] if not whole else (0.0, 0.0, 0.0)
            if whole and whole != LEAF:
                move = _middle([apart[number] for number in numbers])
                found |= dict.fromkeys(numbers, move)
        return found

    def _host(self, loose: Piece, now: State) -> int | None:
        """Return the number of a piece that holds a loose tenon or a dowel by now; None where none does."""
        for number, piece in enumerate(self._body.pieces):
            state = now.get(piece.name)
            sockets = (cut.solid for cut in piece.cuts if cut.kind is CutOutKind.SOCKET)
            if state is not None and state.whole and loose.solids[0] in sockets:
                return number
        return None

    def _as_it_is(self, piece: Piece, state: PieceState, bored: set[str]) -> Piece:
        """Return a piece as it is between two steps: with what is made on it by then, and as large as it is."""
        part = piece.part
        assert part is not None
        left = {feature for feature, _ in made_on(piece) if feature in self._features and feature not in state.made}
        cuts = tuple(cut for cut in piece.cuts if cut.kind is CutOutKind.HARDWARE and cut.goes_in in bored)
        made = [what for feature, what in made_on(piece) if feature not in left]
        cuts += tuple(each for each in made if isinstance(each, CutOut))
        missing = [what for feature, what in made_on(piece) if feature in left and isinstance(what, Solid)]
        kinds = {feature.kind for feature in left}
        count = solids_of_its_own(piece)
        own = piece.solids[:count]
        if FeatureKind.FIELD in kinds or FeatureKind.SHAPE in kinds:
            own = (_block_about(own),)
        for solid in missing:
            own = _with_stub(own, solid, part)
        tenons = tuple(each for each in made if isinstance(each, Solid))
        grown = _grown(piece, state.size, sides_of(piece, self._body))
        solids = tuple(map(grown, (*own, *tenons)))
        cuts = tuple(replace(cut, solid=grown(cut.solid)) for cut in cuts)
        return replace(piece, solids=solids, cuts=cuts, part=replace(part, finished=state.size))


def player_of(leaf: LeafDesign, operations: Sequence[Operation]) -> Player:
    """Return what plays the steps of a leaf.

    Args:
        leaf: The leaf, set out with its hardware.
        operations: Its steps, in working order.

    Raises:
        ValueError: For a leaf that has no body.
    """
    if leaf.body is None:
        raise ValueError("the leaf has no body")
    replayed = replay(leaf.body, leaf.cut_parts, operations, [each.name for each in leaf.borings])
    return Player(leaf.body, operations, replayed, tuple(_frame_of(leaf, leaf.body)))


def _frame_of(leaf: LeafDesign, body: Body) -> Iterator[Piece]:
    """Yield sides and head of what a leaf hangs in, where it stands between them; none of a leaf before a wall."""
    frame, hanging = leaf.frame, leaf.leaf.hanging
    if frame is None or hanging.covers or hanging.lies_on or hanging is Hanging.OPEN:
        return
    dx, dy = frame.leaf_at
    depth = (body.over_all[0], body.over_all[1] + LEG_DEEPER)
    (a, b), (c, d) = ((jamb.foot, jamb.head) for jamb in (frame.hinge, frame.latch))
    out = LEG_WIDE
    for name, corners in (
        ("hinge jamb", ((a[0] - out, a[1]), a, b, (b[0] - out, b[1]))),
        ("latch jamb", (c, (c[0] + out, c[1]), (d[0] + out, d[1]), d)),
        ("head", ((b[0] - out, b[1]), (d[0] + out, d[1]), (d[0] + out, d[1] + out), (b[0] - out, b[1] + out))),
    ):
        yield Piece(name, "", (Solid(tuple((x - dx, y - dy) for x, y in corners), depth),))


def _middle(moves: Sequence[Move]) -> Move:
    x, y, z = (sum(move[axis] for move in moves) / len(moves) for axis in range(3))
    return x, y, z


def _block_about(solids: Sequence[Solid]) -> Solid:
    boxes = [each.box for each in solids]
    x0, y0 = min(box[0] for box in boxes), min(box[1] for box in boxes)
    x1, y1 = max(box[2] for box in boxes), max(box[3] for box in boxes)
    return block(x0, y0, x1, y1, _depth_of(solids))


def _depth_of(solids: Sequence[Solid]) -> Span:
    return min(each.depth[0] for each in solids), max(each.depth[1] for each in solids)


def _is_block(solid: Solid) -> bool:
    x0, y0, x1, y1 = solid.box
    return len(solid.points) == 4 and abs(abs(signed_area(solid.points)) - (x1 - x0) * (y1 - y0)) < TIGHT


def _with_stub(own: tuple[Solid, ...], solid: Solid, part: Part) -> tuple[Solid, ...]:
    """Return a piece with the wood that stands yet where a tenon or a tongue will be cut out of it."""
    main, box = own[0], solid.box
    if len(own) > 1 or not _is_block(main):
        return (*own, block(*box, _depth_of(own)))
    x0, y0, x1, y1 = main.box
    stands_out_level = box[0] < x0 - TIGHT or box[2] > x1 + TIGHT
    stands_out_up = box[1] < y0 - TIGHT or box[3] > y1 + TIGHT
    if stands_out_level and not (stands_out_up and part.grain_upright):
        x0, x1 = min(x0, box[0]), max(x1, box[2])
    elif stands_out_up:
        y0, y1 = min(y0, box[1]), max(y1, box[3])
    return (block(x0, y0, x1, y1, main.depth),)


# --- larger than it will be ------------------------------------------------------------------------------------


def _grown(piece: Piece, size: Size, sides: dict[LeafEdge, Axis]) -> Callable[[Solid], Solid]:
    """Return what makes a solid of a piece as large as it is yet: its ends moved out, what lies between stays."""
    part, end = piece.part, size_of(piece)
    assert part is not None
    long, wide, thick = (max(0.0, getattr(size, axis) - getattr(end, axis)) for axis in Axis)
    if max(long, wide, thick) < TIGHT:
        return lambda solid: solid
    if is_slanting(part):
        return _grown_slanting(piece, (long, wide, thick))
    x0, y0, z0, x1, y1, z1 = piece.box
    more_x, more_y = (wide, long) if part.grain_upright else (long, wide)
    left, right = _shares(more_x, LeafEdge.HINGE in sides, LeafEdge.LATCH in sides)
    down, up = _shares(more_y, LeafEdge.FOOT in sides, LeafEdge.HEAD in sides)

    def grown(solid: Solid) -> Solid:
        return _moved_out(solid, ((x0, x1, left, right), (y0, y1, down, up), (z0, z1, thick / 2, thick / 2)))

    return grown


def _shares(more: float, at_low: bool, at_high: bool) -> tuple[float, float]:
    if at_low is at_high:
        return more / 2, more / 2
    return (more, 0.0) if at_low else (0.0, more)


_Ends = tuple[float, float, float, float]  # where a piece ends one way, and by how much each end moves out, mm


def _moved_out(solid: Solid, ends: tuple[_Ends, _Ends, _Ends]) -> Solid:
    def out(value: float, at: _Ends) -> float:
        low, high, before, behind = at
        return value - before if value < low + TIGHT else value + behind if value > high - TIGHT else value

    points = tuple((out(x, ends[0]), out(y, ends[1])) for x, y in solid.points)
    depth = (out(solid.depth[0], ends[2]), out(solid.depth[1], ends[2]))
    return replace(solid, points=points, depth=depth)


def _grown_slanting(piece: Piece, more: tuple[float, float, float]) -> Callable[[Solid], Solid]:
    """Return the same for a piece that lies askew: a block about it along its grain, as large as it is yet."""
    points = piece.solids[0].points
    (ax, ay), (bx, by) = max(zip(points, (*points[1:], points[0]), strict=True), key=lambda side: math.dist(*side))
    far = math.dist((ax, ay), (bx, by)) or 1.0
    ux, uy = (bx - ax) / far, (by - ay) / far
    us, vs = [x * ux + y * uy for x, y in points], [y * ux - x * uy for x, y in points]
    z0, z1 = piece.solids[0].depth
    long, wide, thick = more
    u0, u1, v0, v1 = min(us) - long / 2, max(us) + long / 2, min(vs) - wide / 2, max(vs) + wide / 2
    corners = tuple((u * ux - v * uy, u * uy + v * ux) for u, v in ((u0, v0), (u1, v0), (u1, v1), (u0, v1)))
    own = Solid(corners, (z0 - thick / 2, z1 + thick / 2))
    first = piece.solids[0]

    def grown(solid: Solid) -> Solid:
        return own if solid is first and max(long, wide) > TIGHT else solid

    return grown


# --- what is taken off -----------------------------------------------------------------------------------------


def taken_off(before: Piece, after: Piece) -> Iterator[Piece]:
    """Yield what a step takes off a piece, as pieces of its name and without a part.

    Args:
        before: The piece before the step.
        after: The same piece after it.
    """
    gone = tuple(each.solid for each in before.cuts)
    kept = tuple(CutOut(CutOutKind.LAP, each, before.name) for each in after.solids)
    if before.solids != after.solids:
        yield replace(before, solids=before.solids, cuts=(*before.cuts, *kept), part=None)
    done = list(before.cuts)
    for cut in after.cuts:
        if cut.solid in gone or _was_there(cut, before):
            continue
        solids = tuple(both for solid in after.solids for both in common(solid, cut.solid))
        if solids:
            yield replace(before, solids=solids, cuts=tuple(done), part=None)
        done.append(cut)  # two panels may lie in one groove: it is taken out once


def _was_there(cut: CutOut, before: Piece) -> bool:
    """Return whether a cut was made before, when its piece was larger."""
    return any(
        cut.kind is each.kind and cut.goes_in == each.goes_in and _near(cut.solid, each.solid) for each in before.cuts
    )


def _near(one: Solid, other: Solid) -> bool:
    return len(one.points) == len(other.points) and all(
        math.dist(a, b) < MOVED for a, b in zip(one.points, other.points, strict=True)
    )


@lru_cache(maxsize=2000)
def common(solid: Solid, cut: Solid) -> tuple[Solid, ...]:
    """Return what a solid and a cut have in common; () where nothing.

    Args:
        solid: Of a piece.
        cut: What is cut out of it.
    """
    depth = max(solid.depth[0], cut.depth[0]), min(solid.depth[1], cut.depth[1])
    edge = _outline(cut)
    if depth[1] - depth[0] < TIGHT:
        return ()
    if not _is_convex(edge):
        rest = tuple(Solid(each.outline, each.depth) for each in cells_of((solid,), (cut,)))
        return tuple(Solid(each.outline, each.depth) for each in cells_of((solid,), rest))
    left: Sequence[Point] = _outline(solid)
    for a, b in zip(edge, (*edge[1:], edge[0]), strict=True):
        left = half_plane_part(left, _beyond(a, b))
        if len(left) < 3:
            return ()
    return (Solid(tuple(left), depth),) if abs(signed_area(left)) > TIGHT else ()


def _beyond(a: Point, b: Point) -> Callable[[Point], float]:
    """Return how far a point lies to the right of a line: outside of what runs anticlockwise."""
    return lambda point: (point[0] - a[0]) * (b[1] - a[1]) - (point[1] - a[1]) * (b[0] - a[0])


def _outline(solid: Solid) -> tuple[Point, ...]:
    points = tuple(corners_of(solid))
    if len(solid.points) == 1:
        ((x, y),), r = solid.points, solid.radius
        points = tuple((x + r * a, y + r * b) for a, b in round_of(ROUND))
    return points if signed_area(points) > 0 else points[::-1]


def _is_convex(points: Sequence[Point]) -> bool:
    count = len(points)
    return all(_beyond(points[at], points[(at + 1) % count])(points[(at + 2) % count]) < TIGHT for at in range(count))
