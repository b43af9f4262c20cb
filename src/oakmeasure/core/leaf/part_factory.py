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
    """Return the sawn size of a part: its planed size and what the shop rules allow. length: another one, mm."""
    rules = ctx.rules
    return Size(
        planed.length + rules.allow_length.value if length is None else length,
        planed.width + rules.allow_width.value,
        planed.thickness + rules.allow_thickness.value,
    )


def screw_for(total: float) -> float | None:
    """Return the longest screw that stays 3 short of the far face, mm; None where none is so short.

    >>> screw_for(40.0)
    32.0
    """
    return max((each for each in SCREWS if each <= total - SCREW_SHORT_OF + 1e-9), default=None)


def nail_for(total: float) -> float:
    """Return the nail to be clenched: the whole thickness and what is bent over, mm."""
    return total + CLENCH


def around(shape: Sequence[Point]) -> Rect:
    """Return the upright rectangle round a shape."""
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
    """Return a part. sizes: finished and planed. figures: behind its length and its width.

    bought: a sheet, or timber planed already: sawn to its planed size.
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
    """Add the leaf's thickness at its edges, where hinges and hangers hold it, and over its ledges or battens."""
    source = "set by hand for this leaf"
    ctx.figures.given("thickness", "leaf thickness, at its edges", edge, edit=edit, source=source, choice=True)
    if over_all > edge + 0.01:
        label = "leaf thickness, over all"
        ctx.figures.given("thickness_over", label, over_all, source="with its ledges or battens", choice=True)
