"""All steps done on the pieces, one after the other, on paper: whether the leaf comes out.

Begins with nothing; each operation's changes take the state of the pieces to the next. What does not come out as the
body has it is a fault of ours, never the joiner's.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace

from oakmeasure.core.body.listed import size_of
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.leaf.part import Part, Size
from oakmeasure.core.making.changes import (
    LEAF,
    Axis,
    Brought,
    Change,
    Feature,
    FeatureKind,
    FeatureMade,
    Joined,
    LeafEdge,
    Outlined,
    PieceTaken,
    Trimmed,
)
from oakmeasure.core.making.features import features_of, sides_of
from oakmeasure.core.making.operation import Operation

EXACT = 0.01  # mm


@dataclass(frozen=True, slots=True)
class PieceState:
    """A piece as it is between two operations."""

    size: Size
    """Its size, mm."""
    made: frozenset[Feature] = frozenset()
    """What is made on it."""
    whole: str = ""
    """What it is part of; "" while it is loose."""

    def along(self, axis: Axis) -> float:
        """Return its size one way, mm.

        Args:
            axis: Which way.
        """
        return float(getattr(self.size, axis))


State = dict[str, PieceState]


@dataclass(frozen=True, slots=True)
class Difference:
    """Where the steps and the leaf do not agree."""

    op: str
    """Id of the operation; "" where it is only seen at the end."""
    words: str
    """What is wrong."""


@dataclass(slots=True)
class Replay:
    """What came of all operations."""

    states: dict[str, State]
    """The pieces after each operation, by its id."""
    differences: tuple[Difference, ...]
    """What did not come out; () where the leaf did."""
    inside: dict[str, dict[str, str]] = field(default_factory=dict)
    """What each thing that is put together is part of in turn, after each operation, by its id."""

    def whole_of(self, op_id: str, piece: str) -> str:
        """Return the largest thing that a piece is part of after an operation; "" while it is loose.

        Args:
            op_id: Id of the operation.
            piece: Its name; it is there by then.
        """
        return _outermost(self.states[op_id], self.inside[op_id], piece)


def _outermost(state: State, inside: dict[str, str], name: str) -> str:
    whole = state[name].whole
    while whole in inside:
        whole = inside[whole]
    return whole


@dataclass(slots=True)
class _Bench:
    """The pieces while the operations are done on them."""

    wanted: dict[str, Part]
    sides: dict[str, dict[LeafEdge, Axis]]
    features: frozenset[Feature]
    ends: dict[str, Size]
    now: State = field(default_factory=dict)
    inside: dict[str, str] = field(default_factory=dict)
    """What each thing that is put together is part of in turn."""
    late: dict[LeafEdge, float] = field(default_factory=dict)
    """What is left on the leaf's edges until later, mm."""
    found: list[Difference] = field(default_factory=list)

    def outermost(self, name: str) -> str:
        """Return the largest thing that a piece is part of; "" while it is loose."""
        return _outermost(self.now, self.inside, name)

    def do(self, change: Change) -> str:
        """Do one change; return what is wrong with it, "" for nothing."""
        if isinstance(change, Trimmed):
            return self._trim(change)
        if isinstance(change, Joined):
            return self._join(change)
        if isinstance(change, Outlined):
            self.late = dict(change.late)
            for name in (each for each in self.ends if each in self.now and self.outermost(each) == LEAF):
                self.now[name] = replace(self.now[name], size=self._within(name))
            return ""
        name = change.feature.piece if isinstance(change, FeatureMade) else change.piece
        if isinstance(change, PieceTaken):
            wrong = "comes to be twice" if name in self.now else "" if name in self.wanted else "is no part"
            self.now.setdefault(name, PieceState(change.size))
            return wrong and f"the {name} {wrong}"
        if name not in self.now:
            return f"the {name} is not there yet"
        if isinstance(change, Brought):
            return self._bring(change)
        return self._cut(change.feature)

    def _bring(self, change: Brought) -> str:
        before = self.now[change.piece]
        if change.to > before.along(change.axis) + EXACT:
            sizes = f"{before.along(change.axis):.2f} to {change.to:.2f} mm"
            return f"the {change.piece} would be made larger: {change.axis} {sizes}"
        self.now[change.piece] = replace(before, size=replace(before.size, **{change.axis: change.to}))
        return ""

    def _cut(self, feature: Feature) -> str:
        before = self.now[feature.piece]
        if feature not in self.features:
            return f"no {feature.words} is wanted"
        if feature in before.made:
            return f"the {feature.words} is made twice"
        size = before.size
        if (
            feature.kind is FeatureKind.SHAPE and self.outermost(feature.piece) == LEAF
        ):  # all of the leaf to its outline
            size = self._within(feature.piece)
        self.now[feature.piece] = replace(before, size=size, made=before.made | {feature})
        return ""

    def _within(self, name: str) -> Size:
        """Return a piece's size where nothing stands over what it is in the leaf, but for what comes off later."""
        ends = {axis: float(getattr(self.ends[name], axis)) for axis in Axis}
        for side, axis in self.sides[name].items():
            ends[axis] += self.late.get(side, 0.0)
        return Size(*(min(self.now[name].along(axis), ends[axis]) for axis in Axis))

    def _join(self, change: Joined) -> str:
        is_new = False
        for name in change.pieces:
            if name in self.now:
                if not self.now[name].whole:
                    self.now[name] = replace(self.now[name], whole=change.into)
                    is_new = True
                elif (outer := self.outermost(name)) != change.into:
                    self.inside[outer] = change.into
                    is_new = True
            elif name not in self.inside:
                return f"the {name} is not there yet"
        return "" if is_new else f"the {', the '.join(change.pieces[:3])} are together already"

    def _trim(self, change: Trimmed) -> str:
        if change.by < EXACT:
            return f"nothing is taken off the {change.side}"
        hit = False
        for name, sides in self.sides.items():
            axis = sides.get(change.side)
            if axis is not None and name in self.now and self.outermost(name) == change.whole:
                hit, before = True, self.now[name]
                size = replace(before.size, **{axis: before.along(axis) - change.by})
                self.now[name] = replace(before, size=size)
        is_cut_to_shape = any(
            each.kind is FeatureKind.SHAPE for each in self.features
        )  # then an edge may lie further in
        return "" if hit or is_cut_to_shape else f"nothing of {change.whole} lies at its {change.side}"


def replay(body: Body, parts: Sequence[Part], operations: Sequence[Operation], hardware: Sequence[str] = ()) -> Replay:
    """Return what comes of doing all operations in their order.

    Args:
        body: The leaf that should come out.
        parts: Everything on the cut list: the leaf's parts, and those of its lining.
        operations: In working order.
        hardware: Names of all that is cut for hardware, in the leaf and in what it hangs in.
    """
    pieces = [each for each in body.pieces if each.part is not None]
    bench = _Bench(
        {part.name: part for part in parts},
        {piece.name: sides_of(piece, body) for piece in pieces},
        frozenset(features_of(body)),
        {piece.name: size_of(piece) for piece in pieces},
    )
    states: dict[str, State] = {}
    inside: dict[str, dict[str, str]] = {}
    for op in operations:
        for change in op.changes:
            wrong = bench.do(change)
            if wrong:
                bench.found.append(Difference(op.id, wrong))
        states[op.id], inside[op.id] = dict(bench.now), dict(bench.inside)
    bench.found += (Difference("", words) for words in _left(bench, parts))
    bench.found += (Difference("", words) for words in _not_cut(operations, hardware))
    return Replay(states, tuple(bench.found), inside)


def _left(bench: _Bench, parts: Sequence[Part]) -> Iterator[str]:
    """Yield where the pieces are not as the leaf has them."""
    for part in parts:
        state, wanted = bench.now.get(part.name), bench.ends.get(part.name, part.finished)
        if state is None:
            yield f"nobody makes the {part.name}"
            continue
        for axis in Axis:
            is_, should = state.along(axis), float(getattr(wanted, axis))
            if abs(is_ - should) > EXACT:
                yield f"the {part.name} has {axis} {is_:.2f}, the leaf {should:.2f} mm"
        if part.name in bench.ends and bench.outermost(part.name) != LEAF:
            yield f"nothing holds the {part.name}"
    made = {feature for state in bench.now.values() for feature in state.made}
    for feature in sorted(bench.features - made, key=lambda each: each.words):
        yield f"nobody makes the {feature.words}"


def _not_cut(operations: Sequence[Operation], hardware: Sequence[str]) -> Iterator[str]:
    """Yield what is cut for hardware by no operation, by several, or though nobody wants it."""
    made = Counter(name for op in operations for name in op.cuts)
    wanted = Counter(hardware)
    for name in sorted(wanted | made):
        if made[name] != wanted[name]:
            yield f"{name} is cut {made[name]} times, wanted {wanted[name]}"
