"""How sure a size is: by drawing many openings at random, and by adding squares where it is a plain sum.

NumPy is imported when something is drawn, not before: it would take longer than the window does to start.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.matrices import Matrix, Vector, dot, times

if TYPE_CHECKING:
    import numpy as np

DRAWS = 100_000
SEED = 20_240  # shown beside the plot, so that anyone can draw the same openings again
BARS = 48


@dataclass(frozen=True, slots=True)
class Spread:
    """What came of the draws, mm."""

    mean: float
    """Mean, mm."""
    sd: float
    """Standard deviation, mm."""
    low: float
    """2.5 % of the draws lie below, mm."""
    high: float
    """97.5 % of the draws lie below, mm."""
    start: float
    """Where the first bar begins, mm."""
    end: float
    """Where the last bar ends, mm."""
    bars: tuple[float, ...]
    """Shares of equal steps from `start` to `end`."""
    share: float
    """Share of the draws that a question asked of them holds for, 0 to 1."""
    draws: int
    """How many openings were drawn."""
    seed: int
    """Of the random numbers; the same one gives the same draws."""


def root_sum_square(gradient: Vector, covariance: Matrix) -> float:
    """Return the standard uncertainty of a linear function, mm: √(g'Σg); of independent readings √Σ(gσ)².

    Source: law of propagation of uncertainty, JCGM 100:2008 (GUM) 5.2, from memory.

    Args:
        gradient: By coordinate.
        covariance: Of the coordinates.

    >>> root_sum_square([1.0, -1.0], [[9.0, 0.0], [0.0, 16.0]])
    5.0
    """
    return math.sqrt(max(dot(gradient, times(covariance, gradient)), 0.0))


def monte_carlo(
    size: Callable[[Any], Any],
    mean: Sequence[float],
    covariance: Matrix,
    *,
    holds: Callable[[Any], Any] | None = None,
    draws: int = DRAWS,
    seed: int = SEED,
) -> Spread:
    """Return the spread of a size over openings drawn from normal distributions.

    Source: JCGM 101:2008 (propagation of distributions), from memory.

    Args:
        size: From an array of coordinates, one row each, the draws in columns, to an array of mm.
        mean: Of the coordinates, one for each.
        covariance: Of the coordinates.
        holds: Says of that array of sizes, true or false for each draw.
        draws: How many, at least 100.
        seed: Of the random numbers; the same one gives the same draws.

    Raises:
        InputError: For fewer.
    """
    import numpy as np

    if draws < 100:
        raise InputError("draws", draws, "at least 100")
    source = np.random.default_rng(seed)
    drawn = np.asarray(mean, dtype=float)[:, None] + draw_normal(source, covariance, draws)
    sizes = size(drawn)
    centre, sd = float(sizes.mean()), float(sizes.std())
    low, high = (float(each) for each in np.percentile(sizes, (2.5, 97.5)))
    reach = max(4 * sd, 1e-6)
    counted, _ = np.histogram(sizes, bins=BARS, range=(centre - reach, centre + reach))
    share = float(holds(sizes).mean()) if holds is not None else 1.0
    bars = tuple(float(each) / draws for each in counted)
    return Spread(centre, sd, low, high, centre - reach, centre + reach, bars, share, draws, seed)


def draw_normal(source: Any, covariance: Matrix, draws: int) -> Any:
    """Return normal draws about 0 with that covariance, one row for each coordinate.

    Args:
        source: A NumPy generator of random numbers.
        covariance: Covariance of the corners' coordinates, mm².
        draws: How many openings are drawn.
    """
    import numpy as np

    root = _root(np.asarray(covariance, dtype=float))
    return root @ source.standard_normal((root.shape[1], draws))


def _root(covariance: np.ndarray) -> np.ndarray:
    """Return a matrix whose square is the covariance; an assumption without spread must not stop it."""
    import numpy as np

    values, vectors = np.linalg.eigh(covariance)
    return vectors * np.sqrt(np.clip(values, 0.0, None))


def of_hundred(share: float) -> str:
    """Return a share of the draws in words: "93 of 100".

    Args:
        share: Share of the draws, 0 to 1.
    """
    if share > 0.995:
        return "more than 99 of 100"
    if share < 0.005:
        return "hardly one of 100"
    return f"{100 * share:.0f} of 100"
