"""Parts as the builders make them: rough sizes by the shop rules, areas, and screws that suit their stack."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Hold, Part, Rect, Size

# Lengths in which wood screws are commonly sold, mm: common practice, no source.
SCREWS = (13.0, 16.0, 19.0, 25.0, 32.0, 38.0, 45.0, 50.0, 63.0, 75.0, 90.0, 100.0)
# Of the whole thickness; common practice, no source
SCREW_SHORT_OF = 3.0
CLENCH = 12.0


def rough(ctx: Context, planed: Size, *, length: float | None = None) -> Size:
    """Return the sawn size of a part: its planed size and what the shop rules allow.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        planed: Planed length, width and thickness, mm.
        length: Another length than the planed one, mm; None for that.
    """
    rules = ctx.rules
    return Size(
        planed.length + rules.allow_length.value if length is None else length,
        planed.width + rules.allow_width.value,
        planed.thickness + rules.allow_thickness.value,
    )


def screw_for(total: float) -> float | None:
    """Return the longest screw that stays 3 short of the far face, mm; None where none is so short.

    Args:
        total: Thickness of all that it goes through, mm.

    >>> screw_for(40.0)
    32.0
    """
    return max((each for each in SCREWS if each <= total - SCREW_SHORT_OF + 1e-9), default=None)


def nail_for(total: float) -> float:
    """Return the nail to be clenched: the whole thickness and what is bent over, mm.

    Args:
        total: Thickness of all that it goes through, mm.
    """
    return total + CLENCH


def around(shape: Sequence[Point]) -> Rect:
    """Return the upright rectangle round a shape.

    Args:
        shape: Corners of the shape, mm.
    """
    xs, ys = [x for x, _ in shape], [y for _, y in shape]
    return Rect(min(xs), min(ys), max(xs), max(ys))


@dataclass(frozen=True, slots=True)
class PartSpec:
    """What a builder says of a part; `made` adds what the shop rules allow."""

    name: str
    """Its name."""
    role: Role
    """What it is in the leaf."""
    face: Rect
    """What is seen of it in the finished leaf, mm."""
    figures: tuple[Figure, Figure]
    """Its length and its width."""
    depth: tuple[float, float] = (0.0, 0.0)
    """From where to where it lies, in from the opening face, mm."""
    upright: bool = True
    """Whether its grain runs up the leaf."""
    note: str = ""
    """What is said beside it; "" for nothing."""
    place: Place | None = None
    """Where it stands among those of its role; None where that is not told."""
    is_back: bool = False
    """Whether it lies on the closing face, behind another of its kind."""
    sizes: tuple[Size, Size] | None = None
    """Length, width and thickness, finished and planed, mm; None while it is not sized."""
    species: str = ""
    """Key of its species or sheet."""
    shape: tuple[Point, ...] = ()
    """Corners of its face, mm; () where that is an upright rectangle."""
    outline: Rect | None = None
    """The whole part with its tongues, mm; None: what is seen of it."""
    hold: Hold | None = None
    """What holds it by its edges; None where nothing does."""
    tongues: tuple[Solid, ...] = ()
    """What stands out beyond its face into its neighbours."""
    cuts: tuple[Solid, ...] = ()
    """What is cut out of it where it crosses another."""
    at_hand: bool = False
    """Whether it is there already and cut out of nothing."""
    bought: bool = False
    """Whether it is a sheet, or timber planed already: sawn to its planed size."""

    def made(self, ctx: Context) -> Part:
        """Return the part.

        Args:
            ctx: The leaf's context, whose rules say what is allowed for.
        """
        assert self.sizes is not None, self.name
        finished, planed = self.sizes
        return Part(
            self.name,
            self.role,
            self.face,
            self.outline or self.face,
            self.upright,
            self.species,
            finished,
            planed,
            planed if self.bought else rough(ctx, planed),
            *self.figures,
            shape=self.shape,
            depth=self.depth,
            note=self.note,
            at_hand=self.at_hand,
            place=self.place,
            is_back=self.is_back,
            hold=self.hold,
            tongues=self.tongues,
            cuts=self.cuts,
        )
