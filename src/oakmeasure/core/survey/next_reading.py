"""Which reading would help most: the one that shrinks the uncertainty of the clear width most."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from oakmeasure.core.survey.adjust import Adjustment
from oakmeasure.core.survey.kinds import Kind
from oakmeasure.core.survey.linear import Vector, dot, times


@dataclass(frozen=True, slots=True)
class NextReading:
    """kind: what to read (again). now, then: standard uncertainty of the size in question before and after, mm."""

    kind: Kind
    now: float
    then: float


def best_next(adjustment: Adjustment, *, size: Vector, sigmas: Mapping[Kind, float]) -> NextReading:
    """Return the reading that would make a size surest.

    size: gradient of the size over the six free coordinates. sigmas: uncertainty of a reading of each kind, mm.
    Source: one more observation in a least-squares adjustment, Σ' = Σ − Σgg'Σ / (σ² + g'Σg).
    """
    spread = adjustment.covariance
    variance = max(dot(size, times(spread, size)), 0.0)

    def left(kind: Kind) -> float:
        gradient = adjustment.gradient(kind)
        shared = times(spread, gradient)
        return max(variance - dot(size, shared) ** 2 / (sigmas[kind] ** 2 + dot(gradient, shared)), 0.0)

    best = min(Kind, key=left)
    return NextReading(best, math.sqrt(variance), math.sqrt(left(best)))
