"""Where the glue of a light frame with boards goes, side by side."""

from __future__ import annotations

from oakmeasure.core.construction.alternatives import GLUE_COLUMNS
from oakmeasure.core.construction.light.checks import HELD_MOVES
from oakmeasure.core.construction.light.model import Light, LightGlue
from oakmeasure.core.figures.check import Level, Remedy
from oakmeasure.core.fit.alternatives import Comparison, Option
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.timber.choice import Timber


def ways(ctx: Context, _fit: Fit, _build: Build, _wood: Timber) -> tuple[Comparison, ...]:
    """Return where the glue may go, with what each way means; nothing where it is closed by sheet.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        _fit: Not asked: the choice alone decides.
        _build: Not asked: the choice alone decides.
        _wood: Not asked: the choice alone decides.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Light)
    return (_light_glue(ctx, choice),) if choice.fill.is_boards else ()


def _light_glue(ctx: Context, choice: Light) -> Comparison:
    moves, each = ctx.figures["boards_move"], ctx.figures["boards_count"]
    one = moves.value / max(each.value, 1.0)
    rows = (
        (LightGlue.JOINTS, one, one, "each board for itself, in slots; the frame stays square", Level.OK),
        (
            LightGlue.OVER,
            0.0,
            0.0,
            f"{ctx.fmt(moves)} of movement is held back: split boards or a bowed frame",
            Level.OK if moves.value <= HELD_MOVES else Level.WARNING,
        ),
    )
    options = tuple(
        Option(
            (str(glue), ctx.fmt(move), ctx.fmt(opens), means),
            level,
            None if glue is choice.glue else Remedy("", "build.glue", glue),
            glue is choice.glue,
        )
        for glue, move, opens, means, level in rows
    )
    about = f"{each.value:.0f} boards; how much one moves on the frame, and what a joint opens."
    return Comparison("Where the glue goes", about, GLUE_COLUMNS, options)
