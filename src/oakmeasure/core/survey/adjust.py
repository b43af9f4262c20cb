"""Survey adjustment: all readings of an opening brought into one shape, and a misread found where it can be.

Weighted least squares on the corners, four or any other number. The hinge side's foot is the origin, x runs to
the latch, y up; the other corners' coordinates are the unknowns, in order round the opening.
A reading is judged by its normalised residual v/(σ√r), r its redundancy number (Baarda's test). The normal
matrix is needed for r and for the uncertainty of the leaf, so the iteration stands here rather than in a
general solver; the tests hold it against SciPy's.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Generic, TypeVar

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import signed_area
from oakmeasure.core.base.matrices import Matrix, Vector, combined, dot, inverse, normal_matrix, rank, solved, times
from oakmeasure.core.base.uncertainty import root_sum_square
from oakmeasure.core.survey.kinds import KINDS, MIDDLES, SurveyKind

SUSPECT = 3.0  # normalised residual beyond which a reading is doubted
# The best suspect must explain the misfit better than the next by this much in v'Pv (odds of 20 to 1),
# or none is singled out.
SINGLED_OUT_BY = 6.0
CHECKED = 1e-6  # a redundancy below this is none
SILL_SIGMA = 1.5  # a floor that looks level may well fall this much under a door: common practice, no source
ASSUMED_SIGMA = 5.0  # a side that nobody checked may well be this much out


class TooFewError(InputError):
    """The readings leave the shape free to rack."""

    def __init__(self, field: str) -> None:
        super().__init__(field, "too few", "more readings: as they stand the shape can still rack")


class ContradictoryError(InputError):
    """No opening has such readings."""

    def __init__(self) -> None:
        super().__init__("readings", "contradictory", "readings that one opening can have")


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
    """As it was read, mm."""
    sigma: float
    """Standard uncertainty, mm."""


@dataclass(frozen=True, slots=True)
class Judged:
    """A reading as it comes out. All in mm but `normalised` and `redundancy`, which are plain numbers."""

    value: float
    """As it was read, mm."""
    sigma: float
    """Standard uncertainty, mm."""
    adjusted: float
    """What the shape makes it, mm."""
    miss: float
    """Reading less adjusted, mm."""
    normalised: float
    """Residual over its standard deviation."""
    redundancy: float
    """What share of it the other readings check, 0 to 1."""
    least_blunder: float
    """The smallest misread that this reading would have shown, mm; infinite when nothing checks it."""
    blunder: float
    """The likeliest size of the misread if it is one, mm."""
    status: Status
    """What is made of it."""


K = TypeVar("K", bound=str)


@dataclass(frozen=True, slots=True)
class Assumption:
    """Taken where the readings leave a freedom open: a row over the free coordinates that is 0, give or take sigma."""

    label: str
    """What it is called on the screen."""
    row: tuple[float, ...]
    """Its coefficients over the coordinates."""
    sigma: float
    """Standard uncertainty, mm."""


@dataclass(frozen=True, slots=True)
class Network(Generic[K]):
    """What can be read on an opening of so many corners."""

    matrices: Mapping[K, Matrix]
    """By reading; two rows over the free coordinates give the vector whose length is read, one row the reading
    itself.
    """
    assumptions: tuple[Assumption, ...]
    """In the order in which they are taken."""
    bows: tuple[K, ...] = ()
    """Readings that a bowed side explains."""


@dataclass(frozen=True, slots=True)
class Adjustment(Generic[K]):
    """The opening's corners, (x, y) from the first one, the hinge side's foot, and what became of each reading."""

    corners: tuple[tuple[float, float], ...]
    """Corners, mm, from the foot of the hinge side anticlockwise."""
    readings: Mapping[K, Judged]
    """Each reading, judged."""
    assumptions: tuple[str, ...]
    """What was taken for granted where nothing was read."""
    undecided: tuple[K, ...]
    """Readings of which one is wrong, and nobody can tell which."""
    redundancy: int
    """How many readings more than needed there are."""
    covariance: Matrix
    """Covariance of the corners' coordinates, mm²."""
    network: Network[K]
    """Readings and what each of them measures."""

    @property
    def hinge_foot(self) -> tuple[float, float]:
        """Corner at the foot of the hinge side, mm."""
        return self.corners[0]

    @property
    def latch_foot(self) -> tuple[float, float]:
        """Corner at the foot of the latch side, mm."""
        return self.corners[1]

    @property
    def latch_head(self) -> tuple[float, float]:
        """Corner at the head of the latch side, mm."""
        return self.corners[2]

    @property
    def hinge_head(self) -> tuple[float, float]:
        """Corner at the head of the hinge side, mm."""
        return self.corners[-1]

    def sigma_of(self, gradient: Vector) -> float:
        """Return the standard uncertainty of a linear function of the free coordinates.

        Args:
            gradient: How the size changes with each coordinate.
        """
        return root_sum_square(gradient, self.covariance)

    def predicted(self, key: K) -> float:
        """Return what a reading would be on these corners, taken or not.

        Args:
            key: Name of the reading.
        """
        return _predict(self.network.matrices[key], [each for corner in self.corners[1:] for each in corner])[0]

    def gradient(self, key: K) -> list[float]:
        """Return how a reading changes with the free coordinates, taken or not.

        Args:
            key: Name of the reading.
        """
        return _predict(self.network.matrices[key], [each for corner in self.corners[1:] for each in corner])[1]


FOUR_SIDED: Network[SurveyKind] = Network(
    {kind: each.matrix for kind, each in KINDS.items()},
    (
        Assumption("the sill is level", (0, 1, 0, 0, 0, 0), SILL_SIGMA),
        Assumption("head and sill are parallel", (0, -1, 0, 1, 0, -1), ASSUMED_SIGMA),
        Assumption("the sides are parallel", (-1, 0, 1, 0, -1, 0), ASSUMED_SIGMA),
        Assumption("the hinge side is plumb", (0, 0, 0, 0, 1, 0), ASSUMED_SIGMA),
        Assumption("the latch side is plumb", (-1, 0, 1, 0, 0, 0), ASSUMED_SIGMA),
    ),
    MIDDLES,
)


@dataclass(slots=True)
class _Fit(Generic[K]):
    corners: list[float]
    kinds: list[K]
    residuals: list[float]
    """Reading less adjusted."""
    redundancies: list[float]
    sigmas: list[float]
    covariance: Matrix
    assumptions: tuple[str, ...]

    def normalised(self, at: int) -> float:
        r = self.redundancies[at]
        return abs(self.residuals[at]) / (self.sigmas[at] * math.sqrt(r)) if r > CHECKED else 0.0


def adjust(readings: Mapping[SurveyKind, Observed], *, is_raked: bool = False) -> Adjustment[SurveyKind]:
    """Return the four-sided opening that fits the readings best, with each reading judged.

    Freedoms that no reading fixes are filled with stated assumptions (a level sill, parallel sides). Source:
    weighted least squares; W. Baarda, A testing procedure for use in geodetic networks (1968), from memory.

    Args:
        readings: At least one width and one height, mm.
        is_raked: Whether the head rakes; widths are then read on the level.

    Raises:
        InputError: When no opening has these readings.
    """
    network = FOUR_SIDED
    if is_raked:
        level = {kind: each[:1] if kind.is_width else each for kind, each in network.matrices.items()}
        # That head and sill are parallel is the last thing to take for granted here.
        parallel = "head and sill are parallel"
        assumed = sorted(network.assumptions, key=lambda each: each.label == parallel)
        network = Network(level, tuple(assumed), network.bows)
    if any(kind.is_plumb for kind in readings):  # then the sill need not be taken for level first
        network = Network(network.matrices, network.assumptions[1:] + network.assumptions[:1], network.bows)
    return adjust_network(network, readings, _start)


def adjust_network(
    network: Network[K], readings: Mapping[K, Observed], start: Callable[[Mapping[K, Observed]], list[float]]
) -> Adjustment[K]:
    """Return the corners that fit the readings best; `start` gives free coordinates near enough to begin from.

    A reading that is singled out is set aside and the rest fitted again; one group that cannot be told apart
    ends the search.

    Args:
        network: Readings and what each of them measures.
        readings: What was read, by its name.
        start: Gives free coordinates, mm, near enough to begin from.

    Raises:
        InputError: Where the readings fix no shape, or none that closes.
    """
    used = dict(readings)
    aside: list[K] = []
    while True:
        fit = _solve(network, used, start(used))
        group = _suspects(fit)
        if len(group) != 1 or len(used) <= 2:
            break
        aside.append(group[0])
        del used[group[0]]
    p = fit.corners
    corners = ((0.0, 0.0), *zip(p[::2], p[1::2], strict=True))
    _refuse_impossible(corners)
    undecided = tuple(group) if len(group) > 1 else ()
    judged = {key: _judge(network, key, observed, fit, aside, undecided) for key, observed in readings.items()}
    redundancy = len(fit.kinds) + len(fit.assumptions) - len(p)
    return Adjustment(corners, judged, fit.assumptions, undecided, redundancy, fit.covariance, network)


def _start(used: Mapping[SurveyKind, Observed]) -> list[float]:
    widths = [each.value for kind, each in used.items() if kind.is_width]
    heights = [each.value for kind, each in used.items() if kind.is_height]
    if not widths or not heights:
        raise InputError("readings", "too few", "at least one width and one height that agree with the others")
    w, h = sum(widths) / len(widths), sum(heights) / len(heights)
    return [w, 0.0, w, h, 0.0, h]


def _predict(matrix: Matrix, p: Vector) -> tuple[float, list[float]]:
    """Return what the reading would be on corners `p`, and its gradient."""
    if len(matrix) == 1:
        return dot(matrix[0], p), list(matrix[0])
    vector = times(matrix, p)
    length = math.hypot(*vector)
    if length < 1e-9:
        raise ContradictoryError()
    return length, combined([each / length for each in vector], matrix)


def _solve(network: Network[K], used: Mapping[K, Observed], p: list[float]) -> _Fit[K]:
    kinds = list(used)
    matrices = [network.matrices[kind] for kind in kinds]
    assumed = _fill_up(network, [_predict(matrix, p)[1] for matrix in matrices], len(p))
    sigmas = [used[kind].sigma for kind in kinds]
    weights = [1 / sigma**2 for sigma in (*sigmas, *(each.sigma for each in assumed))]
    for _ in range(40):
        predicted = [_predict(matrix, p) for matrix in matrices]
        rows = [gradient for _, gradient in predicted] + [list(each.row) for each in assumed]
        misfit = [used[kind].value - value for kind, (value, _) in zip(kinds, predicted, strict=True)]
        misfit += [-dot(each.row, p) for each in assumed]
        normal = normal_matrix(weights, rows)
        try:
            step = solved(normal, combined([w * each for w, each in zip(weights, misfit, strict=True)], rows))
        except ZeroDivisionError:
            raise ContradictoryError() from None
        p = [x + dx for x, dx in zip(p, step, strict=True)]
        if not all(abs(x) < 1e5 for x in p):
            raise ContradictoryError()
        if max(abs(dx) for dx in step) < 1e-7:
            break
    covariance = inverse(normal)
    residuals = [used[kind].value - _predict(matrix, p)[0] for kind, matrix in zip(kinds, matrices, strict=True)]
    redundancies = [
        1 - w * dot(row, times(covariance, row)) for w, row in zip(weights[: len(kinds)], rows, strict=False)
    ]
    return _Fit(p, kinds, residuals, redundancies, sigmas, covariance, tuple(each.label for each in assumed))


def _fill_up(network: Network[K], gradients: Matrix, unknowns: int) -> list[Assumption]:
    """Return the assumptions that make the corners determinate, as few as possible. InputError when none do."""
    taken: list[Assumption] = []
    so_far = rank(gradients)
    for each in network.assumptions:
        if so_far == unknowns:
            break
        if (higher := rank([*gradients, *(one.row for one in [*taken, each])])) > so_far:
            taken.append(each)
            so_far = higher
    if so_far < unknowns:
        raise TooFewError("readings")
    return taken


def _suspects(fit: _Fit[K]) -> list[K]:
    """Return the readings that could be the misread: none, the one, or several that cannot be told apart."""
    w = [fit.normalised(at) for at in range(len(fit.kinds))]
    worst = max(w, default=0.0)
    if worst <= SUSPECT:
        return []
    return [kind for kind, each in zip(fit.kinds, w, strict=True) if worst**2 - each**2 < SINGLED_OUT_BY]


def _judge(
    network: Network[K], kind: K, observed: Observed, fit: _Fit[K], aside: list[K], undecided: tuple[K, ...]
) -> Judged:
    adjusted, gradient = _predict(network.matrices[kind], fit.corners)
    miss = observed.value - adjusted
    if kind in aside:
        status = Status.BOWED if kind in network.bows else Status.SET_ASIDE
        # Outside the fit: judged against the shape that the others make, with that shape's own uncertainty.
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


def _refuse_impossible(corners: Sequence[tuple[float, float]]) -> None:
    """Refuse corners that cross over or collapse; a four-sided opening has no corner that points inwards either."""
    count = len(corners)
    turns = []
    for at in range(count):
        (ax, ay), (bx, by), (cx, cy) = (corners[(at + step) % count] for step in range(3))
        turns.append((bx - ax) * (cy - by) - (by - ay) * (cx - bx))
    if signed_area(corners) <= 0 or (count <= 4 and min(turns) <= 0) or _crosses_itself(corners):
        raise ContradictoryError()


def _crosses_itself(corners: Sequence[tuple[float, float]]) -> bool:
    sides = [(corners[at], corners[(at + 1) % len(corners)]) for at in range(len(corners))]

    def turn(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
        return (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])

    for at, (a, b) in enumerate(sides):
        for c, d in sides[at + 2 : len(sides) - (at == 0)]:
            if turn(a, b, c) * turn(a, b, d) < 0 and turn(c, d, a) * turn(c, d, b) < 0:
                return True
    return False
