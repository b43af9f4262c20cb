"""Parts as the builders make them: rough sizes by the shop rules, areas, and screws that suit their stack."""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.core.base.geometry import Point, area
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Part, Rect, Size

# Lengths in which wood screws are commonly sold, mm: common practice, no source.
SCREWS = (13.0, 16.0, 19.0, 25.0, 32.0, 38.0, 45.0, 50.0, 63.0, 75.0, 90.0, 100.0)
SCREW_SHORT_OF, CLENCH = 3.0, 12.0  # of the whole thickness; common practice, no source


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


def part(
    ctx: Context,
    name: str,
    role: Role,
    face: Rect,
    sizes: tuple[Size, Size],
    figures: tuple[Figure, Figure],
    *,
    species: str,
    upright: bool,
    depth: tuple[float, float],
    shape: tuple[Point, ...] = (),
    outline: Rect | None = None,
    volume: float | None = None,
    note: str = "",
    at_hand: bool = False,
    bought: bool = False,
    place: Place | None = None,
    is_back: bool = False,
) -> Part:
    """Return a part.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        name: Its name.
        role: What it is in the leaf.
        face: What is seen of it in the finished leaf, mm.
        sizes: Length, width and thickness, finished and planed, mm.
        figures: Names of the figures of its length, its width and its thickness.
        species: Key of its species or sheet.
        upright: Whether its grain runs up the leaf.
        depth: From where to where it lies, in from the opening face, mm.
        shape: Corners of its face, mm; () where that is an upright rectangle.
        outline: The whole part with its tongues, mm; None: what is seen of it.
        volume: Net volume, mm³; None: its face times its thickness.
        note: What is said beside it; "" for nothing.
        at_hand: Whether it is there already and cut out of nothing.
        bought: Whether it is a sheet, or timber planed already: sawn to its planed size.
        place: Where it stands among those of its role; None where that is not told.
        is_back: Whether it lies on the closing face, behind another of its kind.
    """
    finished, planed = sizes
    if volume is None:
        seen = area(shape) if shape else face.width * face.height
        volume = seen * finished.thickness
    sawn = planed if bought else rough(ctx, planed)
    return Part(
        name,
        role,
        face,
        outline or face,
        upright,
        species,
        finished,
        planed,
        sawn,
        *figures,
        max(volume, 0.0),
        shape=shape,
        depth=depth,
        note=note,
        at_hand=at_hand,
        place=place,
        is_back=is_back,
    )


def add_thickness(ctx: Context, edge: float, over_all: float, edit: str) -> None:
    """Add the leaf's thickness at its edges, where hinges and hangers hold it, and over its ledges or battens.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        edge: Thickness at the edges, where hinges and hangers hold it, mm.
        over_all: Thickness over ledges or battens, mm.
        edit: Path of the field that sets it; "" for none.
    """
    source = "set by hand for this leaf"
    ctx.figures.given("thickness", "leaf thickness, at its edges", edge, edit=edit, source=source, choice=True)
    if over_all > edge + 0.01:
        label = "leaf thickness, over all"
        ctx.figures.given("thickness_over", label, over_all, source="with its ledges or battens", choice=True)
