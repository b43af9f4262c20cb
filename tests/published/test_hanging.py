"""Hanging against the world outside: rotation matrices, SciPy's linear programmes, thread pitches, values of the
trade.
"""

from __future__ import annotations

import random

import numpy as np
import pytest
from scipy.optimize import linprog

from oakmeasure.core.document.adjustment import HungChoices
from oakmeasure.core.hanging.gap_remedy import GapPlace, HungFrame, put_right
from oakmeasure.core.hanging.remedy import HEIGHT_RANGE, SIDE_RANGE
from oakmeasure.core.hanging.rigid import motion_of
from oakmeasure.core.hanging.sliding import A_TURN


@pytest.mark.parametrize("packed", [(1.0, 0.0), (0.0, 1.0), (2.0, -1.0), (-0.5, 1.5)])
def test_small_turns_agree_with_the_rotation_matrix_to_a_hundredth(packed):
    """Linear algebra: exact rotation about the lower hinge that puts the upper one where it is packed to."""
    low, high, width, height = 250.0, 1800.0, 762.0, 1981.0
    motion = motion_of(low=low, low_packed=packed[0], high=high, high_packed=packed[1])
    angle = np.arcsin((packed[0] - packed[1]) / (high - low))
    rotation = np.array([[np.cos(angle), -np.sin(angle)], [np.sin(angle), np.cos(angle)]])
    pivot = np.array([0.0, low])
    for corner in ((0.0, 0.0), (width, 0.0), (0.0, height), (width, height)):
        exact = rotation @ (np.array(corner) - pivot) + pivot + np.array([packed[0], 0.0]) - np.array(corner)
        assert motion.across_at(corner[1]) == pytest.approx(exact[0], abs=0.01)
        assert motion.up_at(corner[0]) == pytest.approx(exact[1], abs=0.01)


def test_one_packed_behind_the_lower_hinge_lifts_the_latch_corner_0_476():
    """Similar triangles, a value of the trade: 762 wide, 1600 between the hinges, 1 packed: 762 ÷ 1600 = 0.476."""
    assert round(motion_of(low=200.0, low_packed=1.0, high=1800.0, high_packed=0.0).up_at(762.0), 3) == 0.476


def test_the_most_even_gap_by_the_hinges_is_that_of_scipys_linear_programme():
    """A Chebyshev fit: SciPy's own formulation over across and turn, HiGHS interior point, against put_right."""
    source = random.Random(5)
    for _ in range(25):
        height = source.uniform(1800, 2100)
        frame = HungFrame(760.0, height, (height - 200, 250.0), 9.0, 9.0)
        places = [
            GapPlace(side, name, at, source.uniform(1.0, 3.0), 2.0)
            for side in ("hinge", "latch")
            for name, at in (("top", height), ("middle", height / 2), ("bottom", 0.0))
        ]
        rows, most = [], []
        for place in places:
            sign = 1.0 if place.side == "hinge" else -1.0
            row = [sign, -sign * place.at / height]
            for way in (1.0, -1.0):
                rows.append([way * row[0], way * row[1], -1.0])
                most.append(way * (place.wanted - place.gap))
        wanted = linprog(
            [0, 0, 1], A_ub=rows, b_ub=most, bounds=[(None, None), (None, None), (0, None)], method="highs-ipm"
        ).fun
        found = put_right(places, frame, tolerance=5.0)
        assert found.least_wood.worst == pytest.approx(wanted, abs=1e-4)


def test_a_hanger_bolt_of_m8_moves_its_pitch_at_a_turn():
    """ISO 261, coarse pitch of M8: 1.25 mm, from memory."""
    assert A_TURN == 1.25


def test_ranges_of_cup_hinges_and_packing_are_those_of_the_trade():
    """Common practice, no source: ±2 to the side, ±3 in height; packing of card up to 2, let in no more than 1
    deeper.
    """
    assert (SIDE_RANGE, HEIGHT_RANGE) == (2.0, 3.0)
    assert (HungChoices().pack_most, HungChoices().let_in_most) == (2.0, 1.0)
