"""How sure the least of several uncertain sizes is.

A plumb clear width is the least over the height. Where a side is about plumb, either end may be the one that counts,
so the plain law of propagation, which looks at one end only, jumps with the smallest change. The moments of the lesser
of two correlated normal quantities are known exactly.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.survey.linear import Matrix, Vector, dot, times


@dataclass(frozen=True, slots=True)
class Lesser:
    """mean, variance: of min(x, y). share_x: probability that x is the lesser."""

    mean: float
    variance: float
    share_x: float


def lesser(*, x: float, y: float, var_x: float, var_y: float, covariance: float) -> Lesser:
    """Return the moments of the lesser of two normal quantities, mm and mm².

    x, y: means. Source: C. E. Clark, The greatest of a finite set of random variables (1961), from memory; of two
    it is exact. For two equal independent ones of spread σ the mean is σ/√π below theirs.

    >>> round(lesser(x=0, y=0, var_x=1, var_y=1, covariance=0).mean, 4)
    -0.5642
    """
    spread = math.sqrt(max(var_x + var_y - 2 * covariance, 0.0))
    if spread < 1e-9:
        return Lesser(x, var_x, 1.0) if x <= y else Lesser(y, var_y, 0.0)
    alpha = (y - x) / spread
    share = 0.5 * (1 + math.erf(alpha / math.sqrt(2)))
    density = math.exp(-alpha * alpha / 2) / math.sqrt(2 * math.pi)
    mean = x * share + y * (1 - share) - spread * density
    square = (x * x + var_x) * share + (y * y + var_y) * (1 - share) - (x + y) * spread * density
    return Lesser(mean, max(square - mean * mean, 0.0), share)


def spread_of_width(covariance: Matrix, *, latch: tuple[Vector, Vector], hinge: Vector, at: Vector) -> float:
    """Return the standard uncertainty of min(latch foot, latch head) − max(0, hinge head), mm.

    latch, hinge: rows over the free coordinates that give those x. at: their means: latch foot, latch head, hinge head.
    covariance: of the free coordinates. The two lessers are exact, their covariance is Clark's.
    """

    def shared(one: Vector, other: Vector) -> float:
        return dot(one, times(covariance, other))

    foot, head = latch
    back = [-each for each in hinge]
    near = lesser(x=at[0], y=at[1], var_x=shared(foot, foot), var_y=shared(head, head), covariance=shared(foot, head))
    far = lesser(x=-at[2], y=0.0, var_x=shared(back, back), var_y=0.0, covariance=0.0)
    together = far.share_x * (near.share_x * shared(foot, back) + (1 - near.share_x) * shared(head, back))
    return math.sqrt(max(near.variance + far.variance + 2 * together, 0.0))
