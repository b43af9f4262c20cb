"""Boards that dry: the day on which they are ready, and how sure it is."""

from __future__ import annotations

import math
from datetime import date, timedelta

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.document.stock import MoistureReading
from oakmeasure.core.timber.drying import METER, trend

FIRST = date(2026, 9, 1)


def log(percents, every=7):
    return [MoistureReading(day=FIRST + timedelta(days=every * n), percent=each) for n, each in enumerate(percents)]


@given(st.floats(6, 14), st.floats(3, 14), st.floats(0.004, 0.05), st.booleans())
@settings(max_examples=60)
def test_day_when_it_is_ready_is_that_of_the_curve_it_was_made_from(rest, away, rate, wets):
    sign = -1 if wets and rest - away > 3.2 else 1
    readings = log([rest + sign * away * math.exp(-rate * 7 * n) for n in range(6)])
    if not all(3 <= each.percent <= 60 for each in readings):
        return
    found = trend(readings, rest)
    if abs(readings[-1].percent - rest) <= 2:
        assert found.is_ready
        return
    wanted = math.log(away / 2) / rate
    assert found.rate == pytest.approx(rate, rel=1e-6)
    if wanted < 3000:
        assert abs((found.ready - FIRST).days - wanted) <= 1
    assert found.at(0) == pytest.approx(readings[0].percent)
    assert found.earliest <= found.ready <= found.latest


def test_uncertainty_of_the_day_is_what_many_noisy_meters_scatter_by():
    """Two hundred made-up meters read one drying board: the days scatter as the one trend says they would."""
    source = np.random.default_rng(5)
    true = [10 + 14 * math.exp(-0.02 * 7 * n) for n in range(7)]
    days, sigmas = [], []
    for _ in range(200):
        found = trend(log([each + source.normal(0, METER) for each in true]), 10.0)
        days.append((found.ready - FIRST).days)
        sigmas.append(found.sigma_days)
    assert np.mean(days) == pytest.approx(math.log(7) / 0.02, abs=3)
    assert np.std(days) == pytest.approx(np.mean(sigmas), rel=0.3)


def test_board_that_does_not_come_nearer_has_no_day_and_one_reading_says_only_how_wet():
    assert trend([], 10.0) is None
    alone = trend(log([18.0]), 10.0)
    assert (alone.ready, alone.rate, alone.is_ready) == (None, 0.0, False)
    assert trend(log([15.0, 15.4, 16.0]), 10.0).ready is None
    assert trend(log([11.5]), 10.0).is_ready
