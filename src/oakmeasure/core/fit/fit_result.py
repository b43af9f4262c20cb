"""The one shape of result that every way of hanging gives, and what all of them share."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.units import Unit
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, Figures, fixed, minus, plus
from oakmeasure.core.figures.names import FigureName, figure_name
from oakmeasure.core.fit import even_reveal
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening

MOST_TRIM = {"framed": 12.0}  # by construction; a boarded leaf may be cut down on site: common practice, no source
TRIM_ANY = 50.0
LEAST_LEAF_WIDTH = 150.0
LEAST_LEAF_HEIGHT = 250.0


@dataclass(frozen=True, slots=True)
class Fit:
    """The leaf in its opening.

    The glued size is the size at the bench, with the trimming allowance still on.
    """

    width: Figure
    """Finished width on the opening face, mm."""
    height: Figure
    """Finished height, mm."""
    trim_side: Figure
    """Kept for fitting at each long edge, mm."""
    trim_height: Figure
    """Kept for fitting of the height, mm."""
    glued_width: Figure
    """Width as it is glued up, mm."""
    glued_height: Figure
    """Height as it is glued up, mm."""
    x_hinge_edge: float
    """The leaf's hinge edge in the opening's coordinates."""
    y_foot: float
    """Where its foot is in the opening, mm."""
    bevel: Figure
    """Bevel of the latch edge, degrees."""
    possible: bool
    """Whether such a leaf can be."""
    leaves: int = 1
    """Of this size that hang in the opening."""
    apart: float = 0.0
    """From one of them to the next, negative where they overlap, mm."""
    outline: tuple[tuple[float, float], ...] = ()
    """Of a scribed leaf, in its own coordinates; () for a square one."""


def gap_as_hung(figures: Figures, name: FigureName) -> Figure:
    """Return a gap as it is once the leaf is trimmed, where it is trimmed there late.

    Args:
        figures: The leaf's figures.
        name: The gap's name, such as "gap_floor".
    """
    return figures.get(figure_name(f"{name}_trimmed")) or figures[name]


def add_gaps(ctx: Context) -> None:
    """Add the gaps round the leaf; a lining made to a leaf rests on them, and so does the floor's check.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    choice = ctx.leaf.fit
    if even_reveal.is_the_aim(ctx.leaf):
        even_reveal.add_made_gaps(ctx)
        return
    ctx.chosen("gap_hinge", "gap at the hinges", choice.gap_hinge, "fit.gap_hinge")
    ctx.chosen("gap_latch", "gap at the latch", choice.gap_latch, "fit.gap_latch")
    ctx.chosen("gap_head", "gap at the head", choice.gap_head, "fit.gap_head")
    ctx.chosen("gap_floor", "gap over the floor", choice.gap_floor, "fit.gap_floor")


def finished(ctx: Context, width: Figure, height: Figure, bevel: Figure, *, at: tuple[float, float]) -> Fit:
    """Return the fit of a leaf of that size: what is left on to trim added, one that is too small refused.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        width: Width, mm.
        height: Height, mm.
        bevel: Bevel of the latch edge, degrees.
        at: Hinge edge and foot of the leaf, mm in the opening's coordinates.
    """
    choice = ctx.leaf.fit
    side = ctx.chosen("trim_side", "trimming allowance, each side", choice.trim_side, "fit.trim_side")
    ends = ctx.chosen("trim_height", "trimming allowance, top and bottom each", choice.trim_height, "fit.trim_height")
    glued_width = ctx.figures.total("glued_width", "width at the glue-up", plus(width), plus(side, 2))
    glued_height = ctx.figures.total("glued_height", "height at the glue-up", plus(height), plus(ends, 2))
    _judge_trim(ctx, side, ends)
    possible = width.value >= LEAST_LEAF_WIDTH and height.value >= LEAST_LEAF_HEIGHT
    if not possible:
        ctx.stop(
            "no-leaf",
            "No leaf is left",
            f"The gaps leave {ctx.show.size(width.value, height.value)}; a leaf needs at least "
            f"{ctx.show.size(LEAST_LEAF_WIDTH, LEAST_LEAF_HEIGHT)}.",
            Remedy("Smaller gaps, or read the opening again"),
            grounds=Grounds("leaf_width"),
        )
    return Fit(width, height, side, ends, glued_width, glued_height, at[0], at[1], bevel, possible)


def _judge_trim(ctx: Context, side: Figure, ends: Figure) -> None:
    """Say where more is left on than the joints and the looks of a construction bear to lose."""
    most = MOST_TRIM.get(ctx.leaf.build.kind, TRIM_ANY)
    for figure, field, where in ((side, "fit.trim_side", "each side"), (ends, "fit.trim_height", "top and bottom")):
        if figure.value > most:
            ctx.warn(
                f"trim-much-{'side' if figure is side else 'height'}",
                "That is much to trim off such a leaf",
                f"{ctx.fmt(figure)} {where}: stiles, tenons and grooves are set out for {ctx.fmt(most)} at the most.",
                Remedy(f"Leave {ctx.fmt(most)} on", field, most),
                grounds=Grounds(
                    figure.name,
                    rule=f"common practice: up to {ctx.fmt(MOST_TRIM['framed'])} a side; "
                    f"{ctx.fmt(TRIM_ANY)} for boarded leaves cut on site",
                ),
            )


def size_inside(
    ctx: Context, opening: Opening, *, width: Figure | None = None
) -> tuple[Figure, Figure, tuple[float, float]]:
    """Add the size of a square leaf that stands in its opening, a gap at each edge; return it with its hinge foot.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
        width: Width of one of a pair, mm, worked out already; None for one leaf.
    """
    f = ctx.figures
    if width is None:
        terms = (plus(opening.clear_width), minus(f["gap_hinge"]), minus(f["gap_latch"]))
        width = f.total("leaf_width", "leaf width", *terms)
    terms = (plus(opening.clear_height), minus(f["gap_head"]), minus(f["gap_floor"]))
    height = f.total("leaf_height", "leaf height", *terms)
    at = (opening.hinge_in.value + f["gap_hinge"].value, opening.floor_high.value + f["gap_floor"].value)
    return width, height, at


def square_edge(ctx: Context) -> Figure:
    """Return the bevel of a leaf whose edges stay square.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    return ctx.figures.given(
        "bevel", "bevel of the latch edge", 0.0, fixed(source="no edge passes a jamb"), unit=Unit.DEG
    )
