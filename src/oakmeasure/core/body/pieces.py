"""A leaf's body: its pieces in place, each a set of prisms, and what is cut out of each of them.

Coordinates are the leaf's: x from the hinge edge, y up from the foot, depth in from the opening face; mm.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from itertools import pairwise

from oakmeasure.core.base.prism_sums import Net, crossed, holds, less, net
from oakmeasure.core.base.prisms import Solid, Span
from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Build, Part, Rect


class CutOutKind(StrEnum):
    """What is cut out of a piece."""

    MORTISE = "mortise"
    SOCKET = "socket"
    GROOVE = "groove"
    REBATE = "groove or rebate"
    HOUSING = "housing"
    LAP = "lap"
    HARDWARE = "hardware"


@dataclass(frozen=True, slots=True)
class CutOut:
    """Something cut out of a piece."""

    kind: CutOutKind
    """What it is."""
    solid: Solid
    """What it takes out, mm; it may reach beyond the piece."""
    goes_in: str
    """What goes in there, by its name: another piece, or hardware."""


@dataclass(frozen=True, slots=True)
class Piece:
    """One piece of wood or sheet in a leaf."""

    name: str
    """Its name, as it is on the cut list."""
    material: str
    """Key of its species or sheet."""
    solids: tuple[Solid, ...]
    """What it is before anything is cut out of it: its body, its tenons, its tongues."""
    part: Part | None = None
    """The part of the cut list that it is; None for a loose tenon or a dowel."""
    cuts: tuple[CutOut, ...] = ()
    """What is cut out of it."""

    @property
    def role(self) -> Role | None:
        """What it is in the leaf; None for a loose tenon or a dowel."""
        return self.part.role if self.part is not None else None

    @property
    def net(self) -> Net:
        """What of it is wood: volume, mm³, and its middle."""
        found = net(self.solids, [each.solid for each in self.cuts])
        part = self.part
        if part is None or (part.share == 1.0 and not part.sloped):
            return found
        return Net(max(found.volume * part.share + _slopes(part), 0.0), found.middle)

    def spans(self, x: float, y: float) -> list[Span]:
        """Return from where to where there is wood of it at a place of the face, in from the opening face, mm.

        Args:
            x: Across, mm.
            y: Up, mm.
        """
        return less(
            [each.depth for each in self.solids if holds(each, x, y)],
            [each.solid.depth for each in self.cuts if holds(each.solid, x, y)],
        )

    @property
    def box(self) -> tuple[float, float, float, float, float, float]:
        """The block about it with its tenons: least x, y and depth, most x, y and depth, mm."""
        boxes = [(*each.box, *each.depth) for each in self.solids]
        low = (min(each[at] for each in boxes) for at in (0, 1, 4))
        high = (max(each[at] for each in boxes) for at in (2, 3, 5))
        return (*low, *high)  # type: ignore[return-value]


def _slopes(part: Part) -> float:
    """Return what a raised panel's slopes hold more than the step that stands for them, mm³.

    Source: frustums of pyramids, one on each face.
    """
    long, wide = part.finished.length, part.finished.width
    slope, step = min(part.fielded, wide / 2, long / 2), min(part.step_in, wide / 2, long / 2)
    raised = long * wide - slope * (long + wide) + 4 / 3 * slope * slope
    return part.sloped * (raised - (long - 2 * step) * (wide - 2 * step))


@dataclass(frozen=True, slots=True)
class Through:
    """A piece that is met on the way through a leaf at a place of its face."""

    piece: Piece
    """The piece."""
    depth: Span
    """From where to where it is met, in from the opening face, mm."""


@dataclass(frozen=True, slots=True)
class Body:
    """A leaf as pieces in place."""

    build: Build
    """The parts and joints that it follows from."""
    pieces: tuple[Piece, ...]
    """Its pieces: the parts of the cut list in its order, then loose tenons and dowels."""
    _edges: dict[str, Span] = field(default_factory=dict, compare=False, repr=False)

    @property
    def width(self) -> float:
        """Over all, mm."""
        return self.build.width

    @property
    def height(self) -> float:
        """Over all, mm."""
        return self.build.height

    def through(self, x: float, y: float) -> tuple[Through, ...]:
        """Return the pieces that a drill meets at a place, from the opening face on.

        Args:
            x: Across, mm.
            y: Up, mm.
        """
        met = [Through(piece, span) for piece in self.pieces for span in piece.spans(x, y)]
        return tuple(sorted(met, key=lambda each: each.depth))

    def span_at(self, x: float, y: float) -> Span | None:
        """Return where the leaf's two faces are at a place, in from its opening face, mm; None where it is open.

        Args:
            x: Across, mm.
            y: Up, mm.
        """
        met = self.through(x, y)
        return (min(each.depth[0] for each in met), max(each.depth[1] for each in met)) if met else None

    def thickness_at(self, x: float, y: float) -> float:
        """Return how thick the leaf is at a place, from face to face, mm; 0 where it is open.

        Args:
            x: Across, mm.
            y: Up, mm.
        """
        span = self.span_at(x, y)
        return span[1] - span[0] if span is not None else 0.0

    def span_over(self, rect: Rect, *, widest: bool = False) -> Span | None:
        """Return where the leaf's two faces are over a rectangle, the nearest to each other; None where it is open.

        Args:
            rect: The rectangle on the face, mm: its corners and its middle are asked.
            widest: Whether they are asked for where they are furthest from each other.
        """
        inset = 1e-3
        xs = (rect.x0 + inset, (rect.x0 + rect.x1) / 2, rect.x1 - inset)
        ys = (rect.y0 + inset, (rect.y0 + rect.y1) / 2, rect.y1 - inset)
        met = [span for x in xs for y in ys if (span := self.span_at(x, y)) is not None]
        front, back = (min, max) if widest else (max, min)
        return (front(each[0] for each in met), back(each[1] for each in met)) if met else None

    @property
    def over_all(self) -> Span:
        """From where to where the leaf lies, ledges and battens with it, in from its opening face, mm."""
        depths = [each.depth for piece in self.pieces for each in piece.solids]
        return min(each[0] for each in depths), max(each[1] for each in depths)

    def along(self, edge: str) -> Span:
        """Return where the leaf's two faces are along one of its long edges, nothing cut out of it for hardware, mm.

        Args:
            edge: "hinge" or "latch".

        Returns:
            From where to where most of the edge lies; over all where nothing stands there.
        """
        if edge not in self._edges:
            self._edges[edge] = self._along(edge)
        return self._edges[edge]

    def thickness_along(self, edge: str) -> float:
        """Return how thick the leaf is along one of its long edges, mm.

        Args:
            edge: "hinge" or "latch".
        """
        front, back = self.along(edge)
        return back - front

    def _along(self, edge: str) -> Span:
        near = replace(self, pieces=tuple(self._near(edge)), _edges={})
        ends = sorted(
            {y for piece in near.pieces for each in piece.solids for y in each.box[1::2]} | {0.0, self.height}
        )
        lengths: dict[Span, float] = {}
        for low, high in pairwise(ends):
            middle = (low + high) / 2
            span = near.span_at(near.edge_at(edge, middle), middle) if high - low > EDGE_IN else None
            if span is not None:
                lengths[span] = lengths.get(span, 0.0) + high - low
        return max(lengths, key=lambda span: lengths[span]) if lengths else self.over_all

    def _near(self, edge: str) -> list[Piece]:
        """Return the pieces in the outer quarter of the leaf at one of its long edges."""
        if edge == "hinge":
            return [p for p in self.pieces if any(each.box[0] < self.width / 4 for each in p.solids)]
        return [p for p in self.pieces if any(each.box[2] > self.width * 3 / 4 for each in p.solids)]

    def edge_at(self, edge: str, y: float) -> float:
        """Return a place across, a hair inside one of the leaf's long edges, mm; of a scribed edge where it is there.

        Args:
            edge: "hinge" or "latch".
            y: Up, mm.
        """
        solids = (solid for piece in self._near(edge) for solid in piece.solids)
        spans = [each for solid in solids for each in crossed(solid, y, upright=False)]
        if edge == "hinge":
            return min((a for a, _ in spans), default=0.0) + EDGE_IN
        return max((b for _, b in spans), default=self.width) - EDGE_IN

    def out_at(self, edge: str, y: float) -> float:
        """Return where one of the leaf's long edges lies at a height, across, mm: of a scribed leaf where it leans to.

        Args:
            edge: "hinge" or "latch".
            y: Up, mm.
        """
        if not self.build.outline:
            return 0.0 if edge == "hinge" else self.width
        return self.edge_at(edge, y) + (-EDGE_IN if edge == "hinge" else EDGE_IN)

    def piece_at(self, x: float, y: float, depth: float) -> Piece | None:
        """Return the piece at a place of the face and a depth; None where there is no wood.

        Args:
            x: Across, mm.
            y: Up, mm.
            depth: In from the opening face, mm.
        """
        return next((each.piece for each in self.through(x, y) if each.depth[0] <= depth <= each.depth[1]), None)

    def member_at(self, edge: str, y: float, depth: float) -> Piece | None:
        """Return the piece that a long edge is made of at a height and a depth; None where it is open.

        Args:
            edge: "hinge" or "latch".
            y: Up, mm.
            depth: In from the opening face, mm.
        """
        return self.piece_at(self.edge_at(edge, y), y, depth)

    def section(self, at: float, *, upright: bool) -> list[tuple[Piece, Rect]]:
        """Return the leaf cut open: every rectangle of wood, along the line and in from the opening face, mm.

        Args:
            at: Where the cut stands across, or how far up it lies, mm.
            upright: Whether it is an upright cut.
        """
        found = []
        for piece in self.pieces:
            there = [(span, each.depth) for each in piece.solids for span in crossed(each, at, upright=upright)]
            out = [(span, cut.solid.depth) for cut in piece.cuts for span in crossed(cut.solid, at, upright=upright)]
            found += [(piece, each) for each in _left(there, out)]
        return found

    @property
    def bare(self) -> Body:
        """The same with nothing cut out of it for hardware."""
        pieces = tuple(
            replace(each, cuts=tuple(cut for cut in each.cuts if cut.kind is not CutOutKind.HARDWARE))
            for each in self.pieces
        )
        return replace(self, pieces=pieces)

    def piece(self, name: str) -> Piece:
        """Return the piece called `name`; KeyError when there is none.

        Args:
            name: Its name, as it is on the cut list.
        """
        for each in self.pieces:
            if each.name == name:
                return each
        raise KeyError(name)

    def with_cuts(self, cuts: Iterable[tuple[Solid, str]]) -> Body:
        """Return the body with more cut out of it, each out of every piece that it meets.

        Args:
            cuts: What is taken out and what goes in there.
        """
        listed = [CutOut(CutOutKind.HARDWARE, solid, name) for solid, name in cuts]
        if not listed:
            return self
        pieces = tuple(
            replace(piece, cuts=(*piece.cuts, *met))
            if (met := tuple(c for c in listed if meets(piece, c.solid)))
            else piece
            for piece in self.pieces
        )
        return replace(self, pieces=pieces, _edges={edge: self.along(edge) for edge in ("hinge", "latch")})


EDGE_IN = 0.5  # how far in from an edge its faces are asked for, mm


def meets(piece: Piece, solid: Solid) -> bool:
    """Return whether the block about a solid shares room with the block about one of a piece's prisms.

    Args:
        piece: The piece.
        solid: The solid.
    """
    x0, y0, x1, y1 = solid.box
    z0, z1 = solid.depth
    for each in piece.solids:
        a0, b0, a1, b1 = each.box
        near = min(x1, a1) - max(x0, a0) > 1e-6 and min(y1, b1) - max(y0, b0) > 1e-6
        if near and min(z1, each.depth[1]) - max(z0, each.depth[0]) > 1e-6:
            return True
    return False


def _left(there: Sequence[tuple[Span, Span]], out: Sequence[tuple[Span, Span]]) -> list[Rect]:
    """Return what is left of rectangles when others are taken out, as rectangles in strips along the line."""
    if not there:
        return []
    ends = sorted({each for span, _ in (*there, *out) for each in span})
    strips: list[Rect] = []
    for low, high in pairwise(ends):
        middle = (low + high) / 2
        depths = less(
            [depth for span, depth in there if span[0] < middle < span[1]],
            [depth for span, depth in out if span[0] < middle < span[1]],
        )
        for z0, z1 in depths:
            before = next((at for at, each in enumerate(strips) if (each.x1, each.y0, each.y1) == (low, z0, z1)), None)
            if before is None:
                strips.append(Rect(low, z0, high, z1))
            else:
                strips[before] = Rect(strips[before].x0, z0, high, z1)
    return strips
