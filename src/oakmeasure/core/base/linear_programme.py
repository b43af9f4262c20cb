"""Linear programmes that grow column by column, and whole numbers, by HiGHS; imported when first asked for."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    import numpy as np


LEAST_TIME = 0.02  # seconds
# Ways of the simplex method, as HiGHS counts them
DUAL = 1
PRIMAL = 4


@dataclass(frozen=True, slots=True)
class Solved:
    """Answer of a linear programme."""

    x: np.ndarray
    """How much of each column."""
    value: float
    """What the aim comes to."""
    prices: np.ndarray
    """What one more of each row's limit would cost."""


def _quiet() -> Any:
    """Return a solver that says nothing: the first one of a process would print its name where plans are printed."""
    import highspy

    class Quiet(highspy.Highs):
        def enableCallbacks(self) -> None:  # called before anything can be set
            self.silent()
            super().enableCallbacks()

    return Quiet()


class Programme:
    """The least cost of columns x ≥ 0 that bring every row between its limits; each solve goes on from the last one."""

    def __init__(self, low: Sequence[float], high: Sequence[float], *, goes_on: bool = False) -> None:
        """low, high: limits of each row; infinite ones for none.

        goes_on: after new columns from the last answer, by the primal method; that is twice as fast where there are
        thousands, for some hundreds it makes no difference.
        """
        import highspy
        import numpy as np

        self._np, self.columns, self.proven = np, 0, False
        self._moved, self._goes_on = True, goes_on
        self.left: Callable[[], float] | None = None  # seconds, for a programme that can be too large for its time
        self._solver = _quiet()
        self._solver.setOptionValue("threads", 1)
        self._optimal = highspy.HighsModelStatus.kOptimal
        self._whole, self._broken = highspy.HighsVarType.kInteger, highspy.HighsVarType.kContinuous
        none = (np.array([], dtype=np.int32), np.array([], dtype=float))
        self._none = none
        self.rows = 0
        for a, b in zip(low, high, strict=True):
            self.row(a, b)

    def row(self, low: float, high: float) -> int:
        """Add a row with nothing in it yet; return its place.

        Args:
            low: The least that its sum may be; None for no limit.
            high: The most that its sum may be; None for no limit.
        """
        self._solver.addRow(low, high, 0, *self._none)
        self.rows += 1
        return self.rows - 1

    def limit(self, row: int, low: float, high: float) -> None:
        """Set the limits of a row anew.

        Args:
            row: Place of the row.
            low: The least that its sum may be; None for no limit.
            high: The most that its sum may be; None for no limit.
        """
        self._moved = True
        self._solver.changeRowBounds(row, low, high)

    def hold(self, column: int, low: float, high: float) -> None:
        """Set the limits of a column anew.

        Args:
            column: Place of the column.
            low: The least that it may be.
            high: The most that it may be.
        """
        self._moved = True
        self._solver.changeColBounds(column, low, high)

    def cost(self, column: int, cost: float) -> None:
        """Set the cost of a column anew.

        Args:
            column: Place of the column.
            cost: Its new cost for each unit.
        """
        self._solver.changeColCost(column, cost)

    def add(self, cost: float, entries: dict[int, float], top: float = float("inf")) -> int:
        """Add a column: its cost, what it brings to each row, and the most of it; return its place.

        Args:
            cost: Cost of one unit of the column.
            entries: What the column brings to each row, by the row's place.
            top: The most that may be taken of it; None for no limit.
        """
        rows = self._np.array(sorted(entries), dtype=self._np.int32)
        values = self._np.array([entries[row] for row in sorted(entries)], dtype=float)
        self._solver.addCol(cost, 0.0, top, len(rows), rows, values)
        self.columns += 1
        return self.columns - 1

    def inside(self, on: bool) -> None:
        """Solve by interior points from now on, or by the simplex method.

        The prices of the first lie in the middle of those that are as good; the answer of the second is a
        corner.

        Args:
            on: True for interior points, false for the simplex method.
        """
        self._solver.setOptionValue("solver", "ipm" if on else "choose")
        self._solver.setOptionValue("run_crossover", "off" if on else "on")

    def solve(self) -> Solved | None:
        """Return the least cost; None where there is none, or where `left` seconds did not do."""
        # With new columns alone the last answer still holds, and the primal method goes on from it; with other limits
        # its prices do, and the dual method goes on from them.
        self._solver.setOptionValue("simplex_strategy", PRIMAL if self._goes_on and not self._moved else DUAL)
        self._moved = False
        if self.left is not None:  # of programmes with broken numbers HiGHS counts the time of all runs
            self._solver.setOptionValue("time_limit", self._solver.getRunTime() + max(self.left(), LEAST_TIME))
        self._solver.run()
        if self._solver.getModelStatus() != self._optimal:
            return None
        found, np = self._solver.getSolution(), self._np
        value = self._solver.getInfo().objective_function_value
        return Solved(np.array(found.col_value), float(value), np.array(found.row_dual))

    def solve_mixed(self, whole: Sequence[int]) -> np.ndarray | None:
        """Return the least cost with some columns whole.

        Args:
            whole: Places of the columns that may only be whole numbers.

        Returns:
            How much of each column; None where there is no such answer.
        """
        for at in whole:
            self._solver.changeColIntegrality(at, self._whole)
        self._solver.setOptionValue("mip_rel_gap", 0.0)
        self._solver.run()
        if self._solver.getModelStatus() != self._optimal:
            return None
        return self._np.array(self._solver.getSolution().col_value)

    def solve_whole(self, *, seconds: float, below: float | None = None) -> np.ndarray | None:
        """Return whole x of the least cost that was found in time; None for none.

        Args:
            seconds: For how long it may look, s.
            below: Only an answer that costs less than this counts.
        """
        np = self._np
        self._solver.setOptionValue("time_limit", max(seconds, LEAST_TIME))
        self._solver.setOptionValue("mip_rel_gap", 0.0)
        if below is not None:
            self._solver.setOptionValue("objective_bound", below)
        for at in range(self.columns):
            self._solver.changeColIntegrality(at, self._whole)
        self._solver.run()
        self.proven = self._solver.getModelStatus() == self._optimal
        found = np.array(self._solver.getSolution().col_value)
        is_plan = self._solver.getInfo().primal_solution_status == 2  # feasible
        for at in range(self.columns):  # it may be solved again with broken numbers
            self._solver.changeColIntegrality(at, self._broken)
        self._solver.setOptionValue("time_limit", float("inf"))
        return np.round(found) if is_plan and len(found) == self.columns else None
