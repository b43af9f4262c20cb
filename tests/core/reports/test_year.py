"""A leaf through the year."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.framed.layout import rows_of
from oakmeasure.core.document.job import Climate, TimberChoices
from oakmeasure.core.drawings.timber.year_view import year_view
from oakmeasure.core.reports.year import climate_at, year_of
from samples import solved


@given(st.floats(5, 25), st.floats(20, 50), st.floats(55, 90))
@settings(max_examples=15)
def test_year_swings_between_the_two_airs_and_the_gaps_lose_what_the_leaf_gains(heat, low, high):
    air = TimberChoices(dry=Climate(temperature=heat, humidity=low), wet=Climate(temperature=heat, humidity=high))
    leaf = solved(timber=air)
    year, f = year_of(leaf), leaf.figures
    assert min(each.moisture for each in year) == pytest.approx(f["moisture_dry"].value, abs=1e-6)
    assert max(each.moisture for each in year) == pytest.approx(f["moisture_wet"].value, abs=1e-6)
    assert max(each.change for each in year) == pytest.approx(f["leaf_change_wet"].value, abs=1e-6)
    gaps = f["gap_hinge"].value + f["gap_latch"].value
    assert all(each.gaps + each.change == pytest.approx(gaps) for each in year)
    assert climate_at(7.0, air.dry, air.wet).humidity == pytest.approx(high)
    assert year_view(leaf, Show()).shapes
    assert len(rows_of(leaf.leaf.build)) == 2
