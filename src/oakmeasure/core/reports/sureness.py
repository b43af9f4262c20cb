"""How sure the clear width is, in the words that a joiner needs, with the draws behind them."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.uncertainty import DRAWS, SEED, Spread, monte_carlo, of_hundred
from oakmeasure.core.base.units import Show
from oakmeasure.core.fit.fit_probability import least_at_latch
from oakmeasure.core.fit.fit_result import gap_as_hung
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.survey.clear_opening import clear_width_of


@dataclass(frozen=True, slots=True)
class Sureness:
    """How sure it is that the leaf goes into the opening."""

    spread: Spread
    """How often each width came up."""
    needed: float
    """The clear width from which on it goes in, mm."""
    sentence: str
    """What it means."""
    detail: str
    """How it was reckoned."""


def how_sure(leaf: LeafSolution, show: Show, *, draws: int = DRAWS, seed: int = SEED) -> Sureness | None:
    """Return how often the leaf (or the lining to be made) goes in, over openings drawn as the readings allow.

    A leaf goes in without planing when the gap at the hinges stays whole and that at the latch keeps the margin
    that the passing corner needs. None for an opening that no plumb width bounds. Source: see `monte_carlo`.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        draws: How many openings are drawn.
        seed: Of the random numbers; the same one gives the same draws.
    """
    f, taken = leaf.figures, leaf.opening.taken
    clear = clear_width_of(taken)
    if clear is None or f["clear_width_uncertainty"].value < 1e-6:
        return None
    if leaf.opening.lining is not None:
        needed, what = f["lining_outside"].value, f"a lining of {show.length(f['lining_outside'].value)} goes in plumb"
    else:
        needed = leaf.fit.width.value + gap_as_hung(f, "gap_hinge").value + least_at_latch(f)
        what = f"a leaf of {show.length(leaf.fit.width.value)} goes in without planing"
    spread = monte_carlo(
        clear.of, clear.mean, clear.covariance, holds=lambda sizes: sizes >= needed, draws=draws, seed=seed
    )
    sigma = show.length(f["clear_width_uncertainty"].value)
    count = f"{draws:_}".replace("_", "\u202f")
    detail = f"± {sigma} by the sums, ± {show.length(spread.sd)} over {count} openings, seed {seed}."
    then = f.get("clear_width_uncertainty_next")
    if then is not None and then.value < 0.9 * f["clear_width_uncertainty"].value:
        reading = then.label.rpartition(", the ")[2]
        detail += f" The {reading} would make it ± {show.length(then.value)}."
    return Sureness(spread, needed, f"In {of_hundred(spread.share)} such openings {what}.", detail)
