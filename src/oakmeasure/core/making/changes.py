"""What an operation does to the pieces: the changes that one replays to see that the leaf comes out."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from oakmeasure.core.leaf.part import Size

LEAF = "the leaf"


class Axis(StrEnum):
    """The three ways of a piece: along its grain or its longest way, across it, through it."""

    LENGTH = "length"
    WIDTH = "width"
    THICKNESS = "thickness"


class LeafEdge(StrEnum):
    """The four edges of a leaf."""

    HINGE = "hinge edge"
    LATCH = "latch edge"
    FOOT = "foot"
    HEAD = "head"


class FeatureKind(StrEnum):
    """What is made on a piece beside its size."""

    TENON = "tenon"
    TONGUE = "tongue"
    FIELD = "raised field"
    SHAPE = "shape"
    MORTISE = "mortise"
    SOCKET = "socket"
    GROOVE = "groove"
    REBATE = "groove or rebate"
    HOUSING = "housing"
    LAP = "lap"


@dataclass(frozen=True, slots=True)
class Feature:
    """One thing to be made on one piece."""

    piece: str
    """The piece's name."""
    kind: FeatureKind
    """What it is."""
    number: int
    """Which of that kind on that piece, from 1."""
    other: str = ""
    """What goes in there, or where it goes in; "" for nothing."""

    @property
    def words(self) -> str:
        """How it is told in the log and in a check."""
        return f"{self.kind} {self.number} of the {self.piece}"


@dataclass(frozen=True, slots=True)
class PieceTaken:
    """A piece comes to be: sawn out of a board or a sheet, or there already."""

    piece: str
    """Its name."""
    size: Size
    """Its size then, mm."""


@dataclass(frozen=True, slots=True)
class Brought:
    """A piece is brought to a size one way."""

    piece: str
    """Its name."""
    axis: Axis
    """Which way."""
    to: float
    """The size that it has then, mm."""


@dataclass(frozen=True, slots=True)
class FeatureMade:
    """Something is made on a piece: a joint, a groove, a shape."""

    feature: Feature
    """What."""


@dataclass(frozen=True, slots=True)
class Joined:
    """Pieces, or what they are in, become one with something: glued, screwed or put together."""

    pieces: tuple[str, ...]
    """Their names."""
    into: str = LEAF
    """What they are then part of."""


@dataclass(frozen=True, slots=True)
class Trimmed:
    """Something is taken off an edge of what is put together."""

    side: LeafEdge
    """Which edge."""
    by: float
    """How much, mm."""
    whole: str = LEAF
    """Of what."""


@dataclass(frozen=True, slots=True)
class Outlined:
    """The leaf is brought to its outline, whatever stands over it."""

    late: tuple[tuple[LeafEdge, float], ...] = ()
    """What is left on some of its edges until later, mm."""


Change = PieceTaken | Brought | FeatureMade | Joined | Trimmed | Outlined
