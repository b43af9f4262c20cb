"""How sure the least of several uncertain sizes is.

A plumb clear width is the least over the height. Where a side is about plumb, either end may be the one that counts,
so the plain law of propagation, which looks at one end only, jumps with the smallest change. With the latch side's foot
L, how far its head stands further in U and how far the hinge side's head stands in V, the width is L − U⁺ − V⁺, and
the moments of the positive part of a normal quantity are known.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.base.matrices import Matrix, Vector

_NODES = 48  # of Simpson's rule over the one integral that has no closed form; the error is below 1e-4 of the spread
_SIMPSON = (1, *(4, 2) * (_NODES // 2 - 1), 4, 1)
_REACH = 6.0  # standard deviations
_NONE = 1e-12  # mm; a spread below it is none
_ROOT_HALF = math.sqrt(0.5)
_NORMAL = 1 / math.sqrt(2 * math.pi)


@dataclass(frozen=True, slots=True)
class Moments:
    """Moments of max(0, x), x normal."""

    mean: float
    """Mean, mm."""
    square: float
    """Mean of the square, mm²."""
    share: float
    """Probability that x is positive."""


def positive_part(*, mean: float, sd: float) -> Moments:
    """Return the moments of the positive part of a normal quantity, mm and mm².

    Source: integration by parts of the normal density, as in C. E. Clark, The greatest of a finite set of
    random variables (1961), from memory.

    Args:
        mean: Mean of the normal quantity, mm.
        sd: Its standard deviation, mm.

    >>> round(positive_part(mean=0, sd=1).mean, 4)
    0.3989
    """
    if sd < _NONE:
        return Moments(max(mean, 0.0), max(mean, 0.0) ** 2, float(mean > 0))
    z = mean / sd
    share = 0.5 * (1 + math.erf(z / math.sqrt(2)))
    density = math.exp(-z * z / 2) / math.sqrt(2 * math.pi)
    return Moments(mean * share + sd * density, (mean * mean + sd * sd) * share + mean * sd * density, share)


def mean_of_product(*, mean_u: float, sd_u: float, mean_v: float, sd_v: float, covariance: float) -> float:
    """Return the mean of max(0, u)·max(0, v) for two normal quantities, mm².

    By Simpson's rule over u, the mean of v's positive part given u in closed form.

    Args:
        mean_u: Mean of the first, mm.
        sd_u: Standard deviation of the first, mm.
        mean_v: Mean of the second, mm.
        sd_v: Standard deviation of the second, mm.
        covariance: Covariance of the two, mm².
    """
    if sd_u < 1e-9:
        return max(mean_u, 0.0) * positive_part(mean=mean_v, sd=sd_v).mean
    low, high = max(0.0, mean_u - _REACH * sd_u), mean_u + _REACH * sd_u
    if high <= low:
        return 0.0
    slope = covariance / sd_u**2
    left = math.sqrt(max(sd_v**2 - slope * covariance, 0.0))
    step = (high - low) / _NODES
    erf, exp = math.erf, math.exp  # this is asked some five hundred times at every edit
    total = 0.0
    for at, weight in enumerate(_SIMPSON):
        u = low + at * step
        off = (u - mean_u) / sd_u
        mean = mean_v + slope * (u - mean_u)
        if left <= _NONE:
            v = max(mean, 0.0)
        else:  # as positive_part gives it
            z = mean / left
            v = mean * 0.5 * (1 + erf(z * _ROOT_HALF)) + left * exp(-z * z / 2) * _NORMAL
        total += weight * u * exp(-off * off / 2) * v
    return total * step / 3 / sd_u * _NORMAL


def spread_of_width(covariance: Matrix, *, latch: tuple[int, int], hinge: int, at: Vector) -> float:
    """Return the standard uncertainty of min(latch foot, latch head) − max(0, hinge head), mm.

    Args:
        covariance: Of the free coordinates.
        latch: Which of the free coordinates are the x of the latch side's foot and head.
        hinge: Which of them is the x of the hinge side's head.
        at: Their means: latch foot, latch head, hinge head.
    """
    (foot, head), c = latch, covariance
    variance_u = (c[foot][foot] - c[foot][head]) - (c[head][foot] - c[head][head])  # of foot - head
    mean_u, sd_u = at[0] - at[1], math.sqrt(max(variance_u, 0.0))
    mean_v, sd_v = at[2], math.sqrt(max(c[hinge][hinge], 0.0))
    u, v = positive_part(mean=mean_u, sd=sd_u), positive_part(mean=mean_v, sd=sd_v)
    together = mean_of_product(
        mean_u=mean_u, sd_u=sd_u, mean_v=mean_v, sd_v=sd_v, covariance=c[foot][hinge] - c[head][hinge]
    )
    variance = (
        c[foot][foot]
        + u.square
        - u.mean**2
        + v.square
        - v.mean**2
        - 2 * (u.share * (c[foot][foot] - c[foot][head]) + v.share * c[foot][hinge])
        + 2 * (together - u.mean * v.mean)
    )
    return math.sqrt(max(variance, 0.0))
