"""How far lining and wall stand out from each other, stretch by stretch: strips across the wall, packing within it."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.document.readings import Reading, Side
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.survey_result import Taken

STRETCHES = 4  # quarters of the height: what one strip is planed to by hand


@dataclass(frozen=True, slots=True)
class Stretch:
    """One stretch of a side, from `lower` to `upper` over the floor.

    Of strips: + is the lining standing out of the wall (a strip on the wall, under the architrave), − the wall
    standing out of the lining (a strip on the lining, or plane the wall).
    """

    side: Side
    """The side."""
    face: str
    """Of the wall; of packing ""."""
    lower: float
    """Where it begins, mm up."""
    upper: float
    """Where it ends, mm up."""
    start: float
    """Thickness at its lower end, mm."""
    end: float
    """Thickness at its upper end, mm."""


def strip_thickness(*, lean: float, height: float, at: float) -> float:
    """Return how far a plumb lining stands out of the leaning wall at a height, on the face that leans outward, mm.

    The lining is flush where the wall stands out most, so that nothing of the wall stands proud of it. Source:
    plane geometry.

    Args:
        lean: Lean of the wall over `height`, mm; + towards that face at the head.
        height: Height, mm.
        at: Height up the opening, mm.

    >>> [strip_thickness(lean=8, height=2000, at=at) for at in (0, 1000, 2000)]
    [8.0, 4.0, 0.0]
    """
    face = lean * at / height
    return max(lean, 0.0) - face


def strips_of(
    ctx: Context, leans: tuple[Reading | None, Reading | None], *, depth: float, height: float
) -> tuple[Stretch, ...]:
    """Return the strips of both sides and faces, adding each side's largest as a figure.

    On the opening face the lining is flush where the wall stands out most. Its other edge lies `depth` back, so
    that there the wall stands out by what the strip is in front, if the lining is as deep as the wall.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        leans: How the two sides lean, at the hinge and at the latch; None where nobody has read it.
        depth: Depth of the lining, through the wall, mm.
        height: Height, mm.
    """
    found: list[Stretch] = []
    wall = ctx.leaf.readings.depth.value if ctx.leaf.readings.depth is not None else depth
    for side, lean in zip((Side.HINGE, Side.LATCH), leans, strict=True):
        if lean is None or abs(lean.value) < 1e-9:
            continue
        for face in ("opening face", "closing face"):
            for at in range(STRETCHES):
                lower, upper = height * at / STRETCHES, height * (at + 1) / STRETCHES
                start, end = (strip_thickness(lean=lean.value, height=height, at=each) for each in (lower, upper))
                if face == "closing face":
                    start, end = depth - wall - start, depth - wall - end
                found.append(Stretch(side, face, lower, upper, start, end))
        name = f"strip_{side.slug}"
        reading = ctx.figures.get(figure_name(f"reading_across_{side.slug}"))
        most = max(max(each.start, each.end) for each in found if each.side is side and each.face == "opening face")
        ctx.figures.derived(
            figure_name(name),
            f"thickest strip, {side}",
            most,
            *([reading] if reading else []),
            formula="the lining plumb and flush where the wall stands out most",
        )
    return tuple(found)


def packing_stretches(
    taken: Taken, legs: tuple[tuple[float, float], tuple[float, float]], height: float
) -> tuple[Stretch, ...]:
    """Return the packing between wall and leg, stretch by stretch, for both sides.

    Args:
        taken: The opening as it was taken.
        legs: Clear width at foot and head, at the hinge side and at the latch side, mm.
        height: Height, mm.
    """

    def wall(foot: float, head: float, top: float, at: float) -> float:
        return foot + (head - foot) * at / top

    found = []
    for at in range(STRETCHES):
        ends = [height * at / STRETCHES, height * (at + 1) / STRETCHES]
        hinge = [
            _between(legs[0], height, y) - wall(taken.hinge_foot[0], taken.hinge_head[0], taken.hinge_head[1], y)
            for y in ends
        ]
        latch = [
            wall(taken.latch_foot[0], taken.latch_head[0], taken.latch_head[1], y) - _between(legs[1], height, y)
            for y in ends
        ]
        found.append(Stretch(Side.HINGE, "", ends[0], ends[1], hinge[0], hinge[1]))
        found.append(Stretch(Side.LATCH, "", ends[0], ends[1], latch[0], latch[1]))
    return tuple(found)


def _between(leg: tuple[float, float], height: float, at: float) -> float:
    return leg[0] + (leg[1] - leg[0]) * at / height
