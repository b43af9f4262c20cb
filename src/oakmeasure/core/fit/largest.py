"""The largest leaf that stands in a crooked opening with its gaps: square, by a stated aim, or scribed to it."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import HAIR
from oakmeasure.core.document.hanging import Aim
from oakmeasure.core.document.readings import Side
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening
from oakmeasure.core.survey.outline import Box, HalfPlane, Outline, half_planes, largest_box, plumb_box, scribed


@dataclass(frozen=True, slots=True)
class Scribed:
    """A leaf that follows a crooked opening."""

    outline: tuple[Point, ...]
    """Of the leaf, in the opening's coordinates."""
    box: Box
    """The upright rectangle round it, to start from."""


def largest_square(outline: Outline, gaps: dict[Side, float], aim: Aim, *, width_counts: float = 0.5) -> Box:
    """Return the largest upright, square leaf in an opening, mm in its coordinates, every gap kept.

    Width first: as wide as the plumb opening allows over its whole height, then as tall as head and floor allow
    over that width. Height first: the same, turned round. Weighed: the greatest k·width + (1 − k)·height, k
    being width_counts. Most area: over both together. Sides that bow in are replaced by their inner chords.

    Args:
        outline: The clear opening's corners and head.
        gaps: The gap at each side, mm; None for none.
        aim: What counts: the widest, the highest or the largest.
        width_counts: Weight of the width against the height, 0 to 1.

    Raises:
        InputError: Where the gaps leave nothing.
    """
    planes = half_planes(outline, gaps)
    plumb = plumb_box(outline) if outline.is_upright else None
    if plumb is None or aim is Aim.AREA:
        box = largest_box(planes)
    elif aim is Aim.WEIGHED:
        box = largest_box(planes, width_counts=width_counts)
    elif aim is Aim.HEIGHT:
        y0, y1 = plumb.y0 + gaps.get(Side.FLOOR, 0.0), plumb.y1 - gaps.get(Side.HEAD, 0.0)
        box = Box(*_across(planes, y0, y1))
    else:
        x0, x1 = plumb.x0 + gaps.get(Side.HINGE, 0.0), plumb.x1 - gaps.get(Side.LATCH, 0.0)
        y0, y1 = _between(planes, x0, x1)
        box = Box(x0, y0, x1, y1)
    if box.x1 <= box.x0 or box.y1 <= box.y0:
        raise InputError("gaps", "larger than the opening", "gaps that leave a leaf")
    return box


def _between(planes: list[HalfPlane], x0: float, x1: float) -> tuple[float, float]:
    """Return the lowest and the highest level that floor and head leave over a width; the sides are kept by it."""
    low, high = -1e9, 1e9
    for each in planes:
        if abs(each.b) < 0.5:
            continue  # a side: it bounds the width, not the height
        for x in (x0, x1):
            y = (each.c - each.a * x) / each.b
            if each.b > 0:
                high = min(high, y)
            else:
                low = max(low, y)
    return low, high


def _across(planes: list[HalfPlane], y0: float, y1: float) -> tuple[float, float, float, float]:
    """Return the box of that height: how far the sides leave room over it; head and floor are kept by it."""
    left, right = -1e9, 1e9
    for each in planes:
        if abs(each.a) < 0.5:
            continue  # head or floor: it bounds the height, not the width
        for y in (y0, y1):
            x = (each.c - each.b * y) / each.a
            if each.a > 0:
                right = min(right, x)
            else:
                left = max(left, x)
    return left, y0, right, y1


def scribe(ctx: Context, opening: Opening, gaps: dict[Side, float]) -> Scribed | None:
    """Return the leaf scribed to the opening, adding by how much each edge tapers; None where nothing is left.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
        gaps: The gap at each side, mm; None for none.
    """
    outline = scribed(opening.outline, gaps)
    if len(outline) < 3:
        return None
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    box = Box(min(xs), min(ys), max(xs), max(ys))
    tapers: dict[str, float] = {}
    if len(outline) == 4:
        (hf, lf, lh, hh) = _in_order(outline)
        tapers = {
            "hinge edge, at the foot": hf[0] - box.x0,
            "hinge edge, at the head": hh[0] - box.x0,
            "latch edge, at the foot": box.x1 - lf[0],
            "latch edge, at the head": box.x1 - lh[0],
            "top, at the hinges": box.y1 - hh[1],
            "top, at the latch": box.y1 - lh[1],
            "foot, at the hinges": hf[1] - box.y0,
            "foot, at the latch": lf[1] - box.y0,
        }
    figures: list[Figure] = []
    for name, value in tapers.items():
        slug = name.replace(",", "").replace(" at the", "").replace(" ", "_")
        figures.append(
            ctx.figures.derived(
                figure_name(f"scribe_{slug}"),
                f"off the {name}",
                value,
                opening.clear_width,
                opening.clear_height,
                formula="from the rectangle round the leaf to its scribed corner",
            )
        )
    most = max(figures, key=lambda each: each.value, default=None)
    words = f"Up to {ctx.fmt(most)} {most.label}." if most is not None and most.value > HAIR else "It stays square."
    ctx.fine(
        "scribed",
        "Scribed to the opening: every gap is even",
        words,
        Remedy("Glue it up to the rectangle, then scribe"),
        grounds=Grounds(most.name if most is not None else "leaf_width"),
    )
    return Scribed(outline, box)


def _in_order(points: tuple[Point, ...]) -> tuple[Point, Point, Point, Point]:
    """Return the corners from the hinge side's foot round anticlockwise."""
    start = min(range(4), key=lambda at: points[at][0] + points[at][1])
    a, b, c, d = (points[(start + step) % 4] for step in range(4))
    return a, b, c, d
