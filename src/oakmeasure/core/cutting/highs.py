"""The two solvers of SciPy (HiGHS) that the cutting plans rest on, imported when first asked: a second's work."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    import numpy as np

Entries = tuple[list[int], list[int], list[float]]


@dataclass(frozen=True, slots=True)
class Solved:
    """x: how much of each column. value: of the aim. prices: of each row, 0 or less."""

    x: np.ndarray
    value: float
    prices: np.ndarray


def matrix(entries: Entries, rows: int, columns: int) -> Any:
    """Return a sparse matrix of (rows, columns, values)."""
    from scipy.sparse import csc_matrix

    at, across, values = entries
    return csc_matrix((values, (at, across)), shape=(rows, columns))


def linear(cost: np.ndarray, at_most: Any, limits: np.ndarray) -> Solved | None:
    """Return the least cost of x ≥ 0 with at_most · x ≤ limits; None where there is none."""
    from scipy.optimize import linprog

    solved = linprog(cost, A_ub=at_most, b_ub=limits, bounds=(0, None), method="highs")
    return Solved(solved.x, float(solved.fun), solved.ineqlin.marginals) if solved.status == 0 else None


def whole(cost: np.ndarray, at_most: Any, limits: np.ndarray, *, seconds: float, top: Any = None) -> np.ndarray | None:
    """Return whole x ≥ 0 of the least cost that was found in time; None where none was. top: most of each column."""
    import numpy as np
    from scipy.optimize import Bounds, LinearConstraint, milp

    low = np.full(len(limits), -np.inf)
    solved = milp(cost, constraints=[LinearConstraint(at_most, low, limits)], integrality=np.ones(len(cost)),
                  bounds=Bounds(0, np.inf if top is None else top),
                  options={"time_limit": max(seconds, 0.02), "mip_rel_gap": 0.0})  # fmt: skip
    return None if solved.x is None else np.round(solved.x)
