"""Small matrices, against NumPy."""

from __future__ import annotations

import numpy as np
import pytest

from oakmeasure.core.base.matrices import inverse, rank
from oakmeasure.core.base.matrices import solved as solution_of


def test_small_matrices_agree_with_numpy():
    """Reference library: numpy.linalg on random well-conditioned matrices."""
    source = np.random.default_rng(5)
    for _ in range(50):
        root = source.normal(size=(6, 6))
        matrix, right = root @ root.T + np.eye(6), source.normal(size=6)
        rows = matrix.tolist()
        assert solution_of(rows, right.tolist()) == pytest.approx(np.linalg.solve(matrix, right).tolist())
        assert np.allclose(inverse(rows), np.linalg.inv(matrix))


def test_rank_counts_independent_rows_and_singular_is_refused():
    rows = [[1.0, 2, 3], [2.0, 4, 6], [0.0, 1, 1], [1.0, 3, 4]]
    assert rank(rows) == np.linalg.matrix_rank(np.array(rows)) == 2
    assert rank([]) == 0
    with pytest.raises(ZeroDivisionError):
        inverse([[1.0, 2], [2.0, 4]])
