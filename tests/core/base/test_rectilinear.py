"""Rings about rectangles, against Shapely's union of them."""

from __future__ import annotations

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.geometry import signed_area
from oakmeasure.core.base.rectilinear import rings_of


@given(st.sets(st.tuples(st.integers(0, 5), st.integers(0, 5)), max_size=30))
def test_rings_of_squares_hold_what_the_squares_hold(squares):
    boxes = [(x, y, x + 1, y + 1) for x, y in squares]
    rings = rings_of(boxes)
    union = shapely.union_all([shapely.box(*each) for each in boxes])
    assert sum(map(signed_area, rings)) == pytest.approx(len(squares))
    assert sum(signed_area(each) > 0 for each in rings) >= len(shapely.get_parts(union))
    assert sum(shapely.Polygon(each).length for each in rings) == pytest.approx(union.length)
    for ring in rings:
        assert all((a[0] == b[0]) is not (a[1] == b[1]) for a, b in zip(ring, (*ring[1:], ring[0]), strict=True))


def test_a_mortise_through_the_middle_is_a_hole():
    outer, hole = rings_of([(0, 0, 10, 2), (0, 2, 4, 3), (6, 2, 10, 3), (0, 3, 10, 5)])
    assert sorted(outer) == [(0, 0), (0, 5), (10, 0), (10, 5)]
    assert signed_area(hole) == -2
