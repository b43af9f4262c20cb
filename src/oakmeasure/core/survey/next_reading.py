"""Which reading would help most: the one that shrinks the uncertainty of the clear width most."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from oakmeasure.core.base.matrices import Matrix, dot, times
from oakmeasure.core.survey.adjust import Adjustment
from oakmeasure.core.survey.kinds import SurveyKind


@dataclass(frozen=True, slots=True)
class NextReading:
    """The reading that would tell most."""

    kind: SurveyKind
    """What to read (again)."""
    now: float
    """Standard uncertainty of the size in question as it is, mm."""
    then: float
    """Standard uncertainty of the size in question after that reading, mm."""


def best_next(
    adjustment: Adjustment[SurveyKind], *, spread: Callable[[Matrix], float], sigmas: Mapping[SurveyKind, float]
) -> NextReading:
    """Return the reading that would make a size surest.

    Source: one more observation in a least-squares adjustment, Σ' = Σ − Σgg'Σ / (σ² + g'Σg).

    Args:
        adjustment: The readings there are, adjusted.
        spread: The size's standard uncertainty, mm, from the covariance of the free coordinates.
        sigmas: Uncertainty of a reading of each kind, mm.
    """
    before = adjustment.covariance

    def then(kind: SurveyKind) -> float:
        gradient = adjustment.gradient(kind)
        shared = times(before, gradient)
        by = sigmas[kind] ** 2 + dot(gradient, shared)
        after = [
            [each - a * b / by for each, b in zip(row, shared, strict=True)]
            for row, a in zip(before, shared, strict=True)
        ]
        return spread(after)

    left = {kind: then(kind) for kind in SurveyKind}
    best = min(left, key=left.__getitem__)
    return NextReading(best, spread(before), left[best])
