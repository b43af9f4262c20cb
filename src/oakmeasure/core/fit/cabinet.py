"""Cabinet leaves: lying on their opening (full or half overlay), or inset; one, or a run on one frame."""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, fixed, minus, plus
from oakmeasure.core.fit.edges import gaps_along
from oakmeasure.core.fit.fit_result import Fit, finished, size_inside, square_edge
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening

LEAST_BETWEEN = 2.0  # between two leaves of a run, or they rub: common practice, no source


def fit_overlay(ctx: Context, opening: Opening) -> Fit:
    """Work out a leaf that lies on its opening: opening + overlay at each edge.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
    """
    choice, f = ctx.leaf.cabinet, ctx.figures
    # Where the overlay is what the hinges give, it is there already.
    overlay = ctx.figures.get("overlay") or f.given("overlay", "overlay", choice.overlay, fixed("cabinet.overlay"))
    shared = overlay
    if ctx.leaf.hanging is Hanging.HALF_OVERLAY:
        division = f.given("division", "division that two leaves share", choice.division, fixed("cabinet.division"))
        between = f.given("gap_between", "gap between the two", choice.gap, fixed("cabinet.gap"))
        shared = f.total(
            "overlay_shared",
            "overlay on the division, each",
            plus(division, 0.5),
            minus(between, 0.5),
            source="half of what the division leaves",
        )
    width = f.total("leaf_width", "leaf width", plus(opening.clear_width), plus(shared), plus(overlay))
    height = f.total("leaf_height", "leaf height", plus(opening.clear_height), plus(overlay, 2))
    at = (opening.hinge_in.value - shared.value, opening.floor_high.value - overlay.value)
    apart = _run(ctx, overlay)
    return replace(finished(ctx, width, height, square_edge(ctx), at=at), leaves=choice.run, apart=apart)


def _run(ctx: Context, overlay: Figure) -> float:
    """Add the gap from leaf to leaf of a run, and judge it; return it."""
    choice = ctx.leaf.cabinet
    if choice.run == 1:
        return 0.0
    frame = ctx.figures.given("frame", "frame between two openings", choice.frame, fixed("cabinet.frame"))
    ctx.figures.given("run", "leaves in the run", choice.run, fixed("cabinet.run"), unit=Unit.COUNT)
    between = ctx.figures.total("run_between", "from leaf to leaf", plus(frame), minus(overlay, 2))
    if between.value < LEAST_BETWEEN:
        most = max(0.0, (choice.frame - LEAST_BETWEEN) / 2)
        ctx.stop(
            "run-tight",
            "The leaves of the run rub",
            f"{ctx.fmt(between)} from one to the next: {ctx.fmt(overlay)} of overlay, {ctx.fmt(frame)} of frame.",
            Remedy(f"Overlay {ctx.fmt(most)}", "cabinet.overlay", most),
            grounds=Grounds("run_between", rule=f"at least {ctx.fmt(LEAST_BETWEEN)}"),
        )
    else:
        ctx.fine(
            "run",
            f"{choice.run} leaves in a run",
            f"{ctx.fmt(between)} from one to the next.",
            grounds=Grounds("run_between"),
        )
    return between.value


def fit_inset(ctx: Context, opening: Opening) -> Fit:
    """Work out a leaf that stands in its opening, on cups: opening − a gap at each edge.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
    """
    width, height, at = size_inside(ctx, opening)
    fitted = finished(ctx, width, height, square_edge(ctx), at=at)
    if fitted.possible:
        gaps_along(ctx, opening, width, height, at)
    return fitted
