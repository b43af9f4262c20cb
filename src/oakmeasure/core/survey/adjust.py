"""Survey adjustment: all readings of an opening brought into one shape, and a misread found where it can be.

Weighted least squares on the four corners. The hinge side's foot is the origin, x runs to the latch, y up.
A reading is judged by its normalised residual v/(σ√r), r its redundancy number (Baarda's test). The normal
matrix is needed for r and for the uncertainty of the leaf, so the iteration stands here rather than in a
general solver; the tests hold it against SciPy's.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from oakmeasure.core.errors import InputError
from oakmeasure.core.survey.kinds import KINDS, MIDDLES, Kind
from oakmeasure.core.survey.linear import Matrix, Vector, combined, dot, inverse, normal_matrix, rank, solved, times

SUSPECT = 3.0  # normalised residual beyond which a reading is doubted
# The best suspect must explain the misfit better than the next by this much in v'Pv (odds of 20 to 1),
# or none is singled out.
SINGLED_OUT_BY = 6.0
CHECKED = 1e-6  # a redundancy below this is none
SILL_SIGMA = 1.5  # a floor that looks level may well fall this much under a door: common practice, no source
ASSUMED_SIGMA = 5.0  # a side that nobody checked may well be this much out


class Status(StrEnum):
    """What became of a reading."""

    USED = "used"
    SET_ASIDE = "set aside"
    BOWED = "bowed side"
    UNDECIDED = "undecided"


@dataclass(frozen=True, slots=True)
class Observed:
    """A reading as it goes in: its value and standard uncertainty, mm."""

    value: float
    sigma: float


@dataclass(frozen=True, slots=True)
class Judged:
    """A reading as it comes out. All in mm but `normalised` and `redundancy`, which are plain numbers.

    adjusted: what the shape makes it. miss: reading less adjusted. least_blunder: the smallest misread that
    this reading would have shown; infinite when nothing checks it. blunder: the likeliest size of the misread
    if it is one.
    """

    value: float
    sigma: float
    adjusted: float
    miss: float
    normalised: float
    redundancy: float
    least_blunder: float
    blunder: float
    status: Status


@dataclass(frozen=True, slots=True)
class Adjustment:
    """The opening's corners, (x, y) from the hinge side's foot, and what became of each reading."""

    hinge_foot: tuple[float, float]
    latch_foot: tuple[float, float]
    latch_head: tuple[float, float]
    hinge_head: tuple[float, float]
    readings: Mapping[Kind, Judged]
    assumptions: tuple[str, ...]
    undecided: tuple[Kind, ...]
    redundancy: int
    covariance: Matrix

    def sigma_of(self, gradient: Vector) -> float:
        """Return the standard uncertainty of a linear function of the six free coordinates."""
        return math.sqrt(max(dot(gradient, times(self.covariance, gradient)), 0.0))

    def gradient(self, kind: Kind) -> list[float]:
        """Return how a reading of that kind changes with the six free coordinates, taken or not."""
        return _predict(kind, [*self.latch_foot, *self.latch_head, *self.hinge_head])[1]


@dataclass(frozen=True, slots=True)
class _Assumption:
    label: str
    row: tuple[float, ...]
    sigma: float


# In the order in which they are taken, each only where the readings leave that freedom open.
_ASSUMPTIONS = (
    _Assumption("the sill is level", (0, 1, 0, 0, 0, 0), SILL_SIGMA),
    _Assumption("head and sill are parallel", (0, -1, 0, 1, 0, -1), ASSUMED_SIGMA),
    _Assumption("the sides are parallel", (-1, 0, 1, 0, -1, 0), ASSUMED_SIGMA),
    _Assumption("the hinge side is plumb", (0, 0, 0, 0, 1, 0), ASSUMED_SIGMA),
    _Assumption("the latch side is plumb", (-1, 0, 1, 0, 0, 0), ASSUMED_SIGMA),
)


@dataclass(slots=True)
class _Fit:
    corners: list[float]
    kinds: list[Kind]
    residuals: list[float]  # reading less adjusted
    redundancies: list[float]
    sigmas: list[float]
    covariance: Matrix
    assumptions: tuple[str, ...]

    def normalised(self, at: int) -> float:
        r = self.redundancies[at]
        return abs(self.residuals[at]) / (self.sigmas[at] * math.sqrt(r)) if r > CHECKED else 0.0


def adjust(readings: Mapping[Kind, Observed]) -> Adjustment:
    """Return the opening that fits the readings best, with each reading judged.

    readings: at least one width and one height, mm. Freedoms that no reading fixes are filled with stated
    assumptions (a level sill, parallel sides). Raises InputError when no opening has these readings.
    Source: weighted least squares; W. Baarda, A testing procedure for use in geodetic networks (1968),
    from memory.
    """
    used = dict(readings)
    aside: list[Kind] = []
    while True:
        fit = _solve(used)
        group = _suspects(fit)
        if len(group) != 1 or len(used) <= 2:
            break
        aside.append(group[0])
        del used[group[0]]
    _refuse_impossible(fit.corners)
    undecided = tuple(group) if len(group) > 1 else ()
    p = fit.corners
    corner = [(p[0], p[1]), (p[2], p[3]), (p[4], p[5])]
    judged = {kind: _judge(kind, observed, fit, aside, undecided) for kind, observed in readings.items()}
    return Adjustment(
        (0.0, 0.0),
        corner[0],
        corner[1],
        corner[2],
        judged,
        fit.assumptions,
        undecided,
        len(fit.kinds) + len(fit.assumptions) - 6,
        fit.covariance,
    )


def _start(used: Mapping[Kind, Observed]) -> list[float]:
    widths = [each.value for kind, each in used.items() if kind.is_width]
    heights = [each.value for kind, each in used.items() if kind.is_height]
    if not widths or not heights:
        raise InputError("readings", "too few", "at least one width and one height that agree with the others")
    w, h = sum(widths) / len(widths), sum(heights) / len(heights)
    return [w, 0.0, w, h, 0.0, h]


def _predict(kind: Kind, p: Vector) -> tuple[float, list[float]]:
    """Return what the reading would be on corners `p`, and its gradient."""
    matrix = KINDS[kind].matrix
    if len(matrix) == 1:
        return dot(matrix[0], p), list(matrix[0])
    vector = times(matrix, p)
    length = math.hypot(*vector)
    if length < 1e-9:
        raise InputError("readings", "contradictory", "readings that one opening can have")
    return length, combined([each / length for each in vector], matrix)


def _solve(used: Mapping[Kind, Observed]) -> _Fit:
    p = _start(used)
    kinds = list(used)
    assumed = _fill_up([_predict(kind, p)[1] for kind in kinds], any(kind.is_plumb for kind in kinds))
    sigmas = [used[kind].sigma for kind in kinds]
    weights = [1 / sigma**2 for sigma in (*sigmas, *(each.sigma for each in assumed))]
    for _ in range(40):
        predicted = [_predict(kind, p) for kind in kinds]
        rows = [gradient for _, gradient in predicted] + [list(each.row) for each in assumed]
        misfit = [used[kind].value - value for kind, (value, _) in zip(kinds, predicted, strict=True)]
        misfit += [-dot(each.row, p) for each in assumed]
        normal = normal_matrix(weights, rows)
        try:
            step = solved(normal, combined([w * each for w, each in zip(weights, misfit, strict=True)], rows))
        except ZeroDivisionError:
            raise InputError("readings", "contradictory", "readings that one opening can have") from None
        p = [x + dx for x, dx in zip(p, step, strict=True)]
        if not all(abs(x) < 1e5 for x in p):
            raise InputError("readings", "contradictory", "readings that one opening can have")
        if max(abs(dx) for dx in step) < 1e-7:
            break
    covariance = inverse(normal)
    residuals = [used[kind].value - _predict(kind, p)[0] for kind in kinds]
    redundancies = [
        1 - w * dot(row, times(covariance, row)) for w, row in zip(weights[: len(kinds)], rows, strict=False)
    ]
    return _Fit(p, kinds, residuals, redundancies, sigmas, covariance, tuple(each.label for each in assumed))


def _fill_up(gradients: Matrix, has_plumb: bool) -> list[_Assumption]:
    """Return the assumptions that make the corners determinate, as few as possible."""
    taken: list[_Assumption] = []
    so_far = rank(gradients)
    order = _ASSUMPTIONS[1:] + _ASSUMPTIONS[:1] if has_plumb else _ASSUMPTIONS
    for each in order:
        if so_far == 6:
            break
        if (higher := rank([*gradients, *(one.row for one in [*taken, each])])) > so_far:
            taken.append(each)
            so_far = higher
    return taken


def _suspects(fit: _Fit) -> list[Kind]:
    """Return the readings that could be the misread: none, the one, or several that cannot be told apart."""
    w = [fit.normalised(at) for at in range(len(fit.kinds))]
    worst = max(w, default=0.0)
    if worst <= SUSPECT:
        return []
    return [kind for kind, each in zip(fit.kinds, w, strict=True) if worst**2 - each**2 < SINGLED_OUT_BY]


def _judge(kind: Kind, observed: Observed, fit: _Fit, aside: list[Kind], undecided: tuple[Kind, ...]) -> Judged:
    adjusted = _predict(kind, fit.corners)[0]
    miss = observed.value - adjusted
    if kind in aside:
        status = Status.BOWED if kind in MIDDLES else Status.SET_ASIDE
        # Outside the fit: judged against the shape that the others make, with that shape's own uncertainty.
        gradient = _predict(kind, fit.corners)[1]
        spread = math.sqrt(observed.sigma**2 + dot(gradient, times(fit.covariance, gradient)))
        redundancy = observed.sigma**2 / spread**2
        return Judged(
            observed.value,
            observed.sigma,
            adjusted,
            miss,
            abs(miss) / spread,
            redundancy,
            SUSPECT * spread,
            miss,
            status,
        )
    at = fit.kinds.index(kind)
    redundancy = max(fit.redundancies[at], 0.0)
    checked = redundancy > CHECKED
    least = SUSPECT * observed.sigma / redundancy**0.5 if checked else float("inf")
    status = Status.UNDECIDED if kind in undecided else Status.USED
    return Judged(
        observed.value,
        observed.sigma,
        adjusted,
        miss,
        fit.normalised(at),
        redundancy,
        least,
        miss / redundancy if checked else 0.0,
        status,
    )


def _refuse_impossible(p: Vector) -> None:
    """Refuse corners that cross over or collapse."""
    corners = [(0.0, 0.0), (p[0], p[1]), (p[2], p[3]), (p[4], p[5])]
    for at in range(4):
        (ax, ay), (bx, by), (cx, cy) = corners[at], corners[(at + 1) % 4], corners[(at + 2) % 4]
        if (bx - ax) * (cy - by) - (by - ay) * (cx - bx) <= 0:
            raise InputError("readings", "contradictory", "readings that one opening can have")
