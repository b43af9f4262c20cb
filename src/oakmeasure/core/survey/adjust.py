"""Survey adjustment: all readings of an opening brought into one shape, and a misread found where it can be.

Weighted least squares on the four corners. The hinge side's foot is the origin, x runs to the latch, y up.
A reading is judged by its normalised residual v/(σ√r), r its redundancy number (Baarda's test). The normal
matrix is needed for r and for the uncertainty of the leaf, so the iteration stands here in NumPy rather than
in a general solver; the tests hold it against SciPy's.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from oakmeasure.core.errors import InputError
from oakmeasure.core.survey.kinds import KINDS, MIDDLES, Kind

SUSPECT = 3.0  # normalised residual beyond which a reading is doubted
# The best suspect must explain the misfit better than the next by this much in v'Pv (odds of 20 to 1),
# or none is singled out.
SINGLED_OUT_BY = 6.0
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
    covariance: np.ndarray

    def sigma_of(self, gradient: np.ndarray) -> float:
        """Return the standard uncertainty of a linear function of the six free coordinates."""
        return float(np.sqrt(max(gradient @ self.covariance @ gradient, 0.0)))


@dataclass(frozen=True, slots=True)
class _Assumption:
    label: str
    row: tuple[float, ...]
    sigma: float


# In the order in which they are taken, each only where the readings leave that freedom open.
_ASSUMPTIONS = (
    _Assumption("the sill is level", (0, 1, 0, 0, 0, 0), 0.01),
    _Assumption("head and sill are parallel", (0, -1, 0, 1, 0, -1), ASSUMED_SIGMA),
    _Assumption("the sides are parallel", (-1, 0, 1, 0, -1, 0), ASSUMED_SIGMA),
    _Assumption("the hinge side is plumb", (0, 0, 0, 0, 1, 0), ASSUMED_SIGMA),
    _Assumption("the latch side is plumb", (-1, 0, 1, 0, 0, 0), ASSUMED_SIGMA),
)


@dataclass(slots=True)
class _Fit:
    corners: np.ndarray
    kinds: list[Kind]
    residuals: np.ndarray  # reading less adjusted
    redundancies: np.ndarray
    sigmas: np.ndarray
    covariance: np.ndarray
    assumptions: tuple[str, ...]

    @property
    def normalised(self) -> np.ndarray:
        r = np.maximum(self.redundancies, 0)
        with np.errstate(divide="ignore", invalid="ignore"):
            w = np.abs(self.residuals) / (self.sigmas * np.sqrt(r))
        return np.where(r > 1e-6, w, 0.0)


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
    corner = [(float(x), float(y)) for x, y in fit.corners.reshape(3, 2)]
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


def _start(used: Mapping[Kind, Observed]) -> np.ndarray:
    widths = [each.value for kind, each in used.items() if kind.is_width]
    heights = [each.value for kind, each in used.items() if kind.is_height]
    if not widths or not heights:
        raise InputError("readings", "too few", "at least one width and one height that agree with the others")
    w, h = sum(widths) / len(widths), sum(heights) / len(heights)
    return np.array([w, 0.0, w, h, 0.0, h])


def _predict(kind: Kind, p: np.ndarray) -> tuple[float, np.ndarray]:
    """Return what the reading would be on corners `p`, and its gradient."""
    matrix = KINDS[kind].matrix
    if matrix.shape[0] == 1:
        return float(matrix[0] @ p), matrix[0]
    vector = matrix @ p
    length = float(np.hypot(*vector))
    return length, (vector / length) @ matrix


def _solve(used: Mapping[Kind, Observed]) -> _Fit:
    p = _start(used)
    kinds = list(used)
    values = np.array([used[kind].value for kind in kinds])
    sigmas = np.array([used[kind].sigma for kind in kinds])
    assumed = _fill_up(np.array([_predict(kind, p)[1] for kind in kinds]), any(kind.is_plumb for kind in kinds))
    rows = np.array([each.row for each in assumed], dtype=float).reshape(len(assumed), 6)
    weight = 1 / np.concatenate([sigmas, [each.sigma for each in assumed]]) ** 2
    for _ in range(40):
        predicted = [_predict(kind, p) for kind in kinds]
        a = np.vstack([np.array([gradient for _, gradient in predicted]), rows])
        misfit = np.concatenate([values - np.array([value for value, _ in predicted]), -rows @ p])
        normal = a.T @ (weight[:, None] * a)
        step = np.linalg.solve(normal, a.T @ (weight * misfit))
        p = p + step
        if not np.all(np.isfinite(p)) or np.max(np.abs(p)) > 1e5:
            raise InputError("readings", "contradictory", "readings that one opening can have")
        if np.max(np.abs(step)) < 1e-9:
            break
    covariance = np.linalg.inv(normal)
    n = len(kinds)
    shared = np.einsum("ij,jk,ik->i", a[:n], covariance, a[:n])
    residuals = values - np.array([_predict(kind, p)[0] for kind in kinds])
    redundancy = 1 - shared / sigmas**2
    return _Fit(p, kinds, residuals, redundancy, sigmas, covariance, tuple(each.label for each in assumed))


def _fill_up(gradients: np.ndarray, has_plumb: bool) -> list[_Assumption]:
    """Return the assumptions that make the corners determinate, as few as possible."""
    taken: list[_Assumption] = []
    rank = int(np.linalg.matrix_rank(gradients, tol=1e-6))
    order = _ASSUMPTIONS[1:] + _ASSUMPTIONS[:1] if has_plumb else _ASSUMPTIONS
    for each in order:
        if rank == 6:
            break
        trial = np.vstack([gradients, np.array([one.row for one in [*taken, each]], dtype=float)])
        if (higher := int(np.linalg.matrix_rank(trial, tol=1e-6))) > rank:
            taken.append(each)
            rank = higher
    return taken


def _suspects(fit: _Fit) -> list[Kind]:
    """Return the readings that could be the misread: none, the one, or several that cannot be told apart."""
    w = fit.normalised
    if len(w) == 0 or w.max() <= SUSPECT:
        return []
    return [kind for kind, each in zip(fit.kinds, w, strict=True) if w.max() ** 2 - each**2 < SINGLED_OUT_BY]


def _judge(kind: Kind, observed: Observed, fit: _Fit, aside: list[Kind], undecided: tuple[Kind, ...]) -> Judged:
    adjusted = _predict(kind, fit.corners)[0]
    miss = observed.value - adjusted
    if kind in aside:
        status = Status.BOWED if kind in MIDDLES else Status.SET_ASIDE
        # Outside the fit: judged against the shape that the others make, with that shape's own uncertainty.
        gradient = _predict(kind, fit.corners)[1]
        spread = float(np.sqrt(observed.sigma**2 + gradient @ fit.covariance @ gradient))
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
    redundancy = float(max(fit.redundancies[at], 0.0))
    checked = redundancy > 1e-6
    least = SUSPECT * observed.sigma / redundancy**0.5 if checked else float("inf")
    status = Status.UNDECIDED if kind in undecided else Status.USED
    return Judged(
        observed.value,
        observed.sigma,
        adjusted,
        miss,
        float(fit.normalised[at]),
        redundancy,
        least,
        miss / redundancy if checked else 0.0,
        status,
    )


def _refuse_impossible(p: np.ndarray) -> None:
    """Refuse corners that cross over or collapse."""
    corners = np.vstack([[0.0, 0.0], p.reshape(3, 2)])
    edges = np.roll(corners, -1, axis=0) - corners
    after = np.roll(edges, -1, axis=0)
    turns = edges[:, 0] * after[:, 1] - edges[:, 1] * after[:, 0]
    if np.any(turns <= 0):
        raise InputError("readings", "contradictory", "readings that one opening can have")
