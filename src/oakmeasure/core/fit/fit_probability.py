"""The chance that a leaf goes in at the latch without planing, by adding squares; `tolerance` draws the whole of it."""

from __future__ import annotations

import math

from oakmeasure.core.base.units import Unit
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figures
from oakmeasure.core.fit.even_reveal import is_the_aim
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.gap_choice import gap_that_opens
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening

LEAST_GAP = 0.5  # less and it rubs with the first damp day: common practice, no source
LIKELY = 0.9  # under it one should have something to plane off


def least_at_latch(f: Figures) -> float:
    """Return the gap at the latch that must be left, mm: what the passing corner needs, of a fine gap half of it.

    Args:
        f: The leaf's figures.
    """
    margin = f.get("bevel_margin")
    return min(margin.value if margin is not None else LEAST_GAP, gap_that_opens(f).value / 2)


def chance_over(room: float, sigma: float) -> float:
    """Return the share of normal errors of standard uncertainty `sigma` that are under `room`, both mm.

    Source: the normal distribution, Φ(room/σ).

    Args:
        room: What the error may take up, mm.
        sigma: Standard uncertainty of the error, mm.

    >>> round(chance_over(1.645, 1.0), 3)
    0.95
    """
    if sigma <= 0:
        return 1.0 if room >= 0 else 0.0
    return 0.5 * (1 + math.erf(room / sigma / math.sqrt(2)))


def say_chance(ctx: Context, opening: Opening, fitted: Fit) -> None:
    """Add the chance of a leaf that stands in its opening.

    It is said where something ought to be left on to trim.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
        fitted: Size of the leaf and its gaps, mm.
    """
    f, clear = ctx.figures, ctx.figures["clear_width_uncertainty"]
    if is_the_aim(ctx.leaf):  # it is planed until it goes in
        return
    if ctx.leaf.hanging.covers or ctx.leaf.hanging.lies_on or not opening.taken.outline.is_upright:
        return
    cut, hang = (
        ctx.rule("sigma_cut", "how sure a planed size is"),
        ctx.rule("sigma_hang", "how sure the hinges' gap is"),
    )
    gap = gap_that_opens(f)
    room = gap.value - least_at_latch(f)
    read = clear.value if opening.lining is None else cut.value  # a lining to be made is as true as it is made
    sigma = math.sqrt(read**2 + fitted.leaves * (cut.value**2 + hang.value**2))
    chance = f.derived(
        "goes_in",
        "goes in at the latch without planing",
        100 * chance_over(room, sigma),
        gap,
        *([clear] if opening.lining is None else []),
        cut,
        hang,
        formula="share of normal errors, their squares added, that leave the gap that must be left",
        unit=Unit.PERCENT,
    )
    if chance.value < 100 * LIKELY and fitted.trim_side.value < sigma:
        leave = max(1.0, math.ceil(2 * sigma))
        ctx.warn(
            "goes-in",
            "It may not go in without planing",
            f"{chance.value:.0f} of 100 do at the latch, and {ctx.fmt(fitted.trim_side)} a side is left on to trim.",
            Remedy(f"Leave {ctx.fmt(leave)} a side to trim", "fit.trim_side", leave),
            *([Remedy(f"Or {opening.next_reading}")] if opening.next_reading else []),
            grounds=Grounds("goes_in", rule=f"{100 * LIKELY:.0f} of 100"),
        )
