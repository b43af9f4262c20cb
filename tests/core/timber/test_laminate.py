"""A laminate of layers that move: which way it bows."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.timber.laminate import Lamina, curvature


@given(st.lists(st.tuples(st.floats(0.5, 30), st.floats(0.05, 2), st.floats(-0.01, 0.01)), min_size=1, max_size=5))
def test_laminate_turned_over_bows_the_other_way_and_a_symmetrical_one_not_at_all(layers):
    strips = [Lamina(*each) for each in layers]
    assert curvature(strips) == pytest.approx(-curvature(strips[::-1]), abs=1e-9)
    assert curvature([*strips, *strips[::-1]]) == pytest.approx(0, abs=1e-9)
