"""The few small matrices of the survey, in plain Python.

NumPy would do it, but importing it takes half as long again as an empty window takes to start, for six unknowns;
it is imported where there is something large to reckon.
"""

from __future__ import annotations

from collections.abc import Sequence
from operator import mul

Vector = Sequence[float]
Matrix = Sequence[Vector]


def dot(a: Vector, b: Vector) -> float:
    """Return the scalar product.

    Args:
        a: One vector.
        b: The other, of the same length.
    """
    return sum(map(mul, a, b))


def times(matrix: Matrix, vector: Vector) -> list[float]:
    """Return matrix · vector.

    Args:
        matrix: The matrix, row by row.
        vector: The vector, as long as its rows.
    """
    return [sum(map(mul, row, vector)) for row in matrix]


def combined(weights: Vector, rows: Matrix) -> list[float]:
    """Return the sum of the rows, each times its weight.

    Args:
        weights: One for each row.
        rows: The rows.
    """
    return [sum(map(mul, weights, column)) for column in zip(*rows, strict=True)]


def normal_matrix(weights: Vector, rows: Matrix) -> list[list[float]]:
    """Return the sum of weight · row' · row: symmetric, as wide as a row.

    Args:
        weights: One for each row.
        rows: The rows.
    """
    n = len(rows[0])
    normal = [[0.0] * n for _ in range(n)]
    for weight, row in zip(weights, rows, strict=True):
        for i in range(n):
            if row[i]:  # most readings touch few of the coordinates
                part, line = weight * row[i], normal[i]
                for j in range(i, n):
                    line[j] += part * row[j]
    for i in range(n):
        for j in range(i):
            normal[i][j] = normal[j][i]
    return normal


def solved(matrix: Matrix, right: Vector) -> list[float]:
    """Return x of matrix · x = right, by elimination with pivots.

    Args:
        matrix: A square matrix, row by row; it stays as it is.
        right: The right-hand side.

    Raises:
        ZeroDivisionError: For a singular matrix.
    """
    n = len(matrix)
    work = [[*row, each] for row, each in zip(matrix, right, strict=True)]
    for column in range(n):
        pivot = max(range(column, n), key=lambda at: abs(work[at][column]))
        work[column], work[pivot] = work[pivot], work[column]
        head = work[column]
        if abs(head[column]) < 1e-14:
            raise ZeroDivisionError("singular matrix")
        for at in range(column + 1, n):
            row = work[at]
            factor = row[column] / head[column]
            if factor:
                for of in range(column, n + 1):
                    row[of] -= factor * head[of]
    x = [0.0] * n
    for at in range(n - 1, -1, -1):
        row = work[at]
        x[at] = (row[n] - sum(row[of] * x[of] for of in range(at + 1, n))) / row[at]
    return x


def inverse(matrix: Matrix) -> list[list[float]]:
    """Return the inverse of a symmetric matrix.

    Args:
        matrix: A symmetric matrix, row by row.

    Raises:
        ZeroDivisionError: For a singular one.
    """
    n = len(matrix)
    return [solved(matrix, [1.0 if at == of else 0.0 for of in range(n)]) for at in range(n)]


def rank(rows: Matrix, *, tolerance: float = 1e-6) -> int:
    """Return how many of the rows are independent, by elimination with full pivots.

    Args:
        rows: The rows.
        tolerance: Less than this counts as nothing.
    """
    work = [list(row) for row in rows]
    found = 0
    while work:
        at, column = max(
            ((r, c) for r in range(len(work)) for c in range(len(work[0]))),
            key=lambda each: abs(work[each[0]][each[1]]),
        )
        head = work[at][column]
        if abs(head) <= tolerance:
            break
        found += 1
        pivot = work.pop(at)
        work = [[each - row[column] / head * other for each, other in zip(row, pivot, strict=True)] for row in work]
    return found
