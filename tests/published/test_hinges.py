"""Hinges against the world outside: worked values of the trade; common practice, no source, unless one is named."""

from __future__ import annotations

import pytest

from oakmeasure.core.document.cup_hinges import cup_from_table
from oakmeasure.core.hardware.hinges.cup_checks import CUP
from oakmeasure.core.hardware.hinges.cups import cup_count, least_reveal
from oakmeasure.core.hardware.hinges.loads import top_hinge_pull
from oakmeasure.core.hardware.hinges.mortise_depth import solve_cup, withdrawal
from oakmeasure.core.hardware.hinges.screws import latch_corner_moves, misuse_pull
from samples import solved


@pytest.mark.parametrize(
    ("overlay", "reach", "crank", "plate", "boring"),
    [
        (16, 11, 0, 0, 5),
        (16, 12, 0, 0, 4),
        (14, 11.5, 0, 2, 4.5),
        (14, 11.5, 0, 0, 2.5),
        (-2, 12, 18, 0, 4),  # inset with a gap of 2
        ((18 - 2) / 2, 12, 9, 0, 5),  # half of a division of 18 with a gap of 2
        (-1.5, 11.5, 18, 0, 5),
        (9.5, 12, 9, 0, 6.5),
    ],
)
def test_boring_of_a_cup_by_overlay_reach_crank_and_plate(overlay, reach, crank, plate, boring):
    found = solve_cup(overlay=overlay, reach=reach, crank=crank, boring=None, plate=plate)
    assert found["boring"] == boring
    assert solve_cup(overlay=None, reach=reach, crank=crank, boring=boring, plate=plate)["overlay"] == overlay


def test_middle_of_the_cup_mock_up_and_which_overlay_it_gives():
    assert [5 + CUP / 2, 4 + CUP / 2, 4.5 + CUP / 2] == [22.5, 21.5, 22]
    assert solve_cup(overlay=14, reach=None, crank=0, boring=20 - CUP / 2, plate=0)["reach"] == 11.5
    assert solve_cup(overlay=None, reach=11, crank=0, boring=4.5, plate=2)["overlay"] == 13.5


@pytest.mark.parametrize(
    ("height", "mass", "count"), [(900, 6, 2), (1600, 12, 3), (2000, 17, 4), (2400, 22, 5), (901, 6, 3), (900, 6.1, 3)]
)
def test_number_of_cups_by_height_and_weight(height, mass, count):
    assert cup_count(height=height, mass=mass) == count


def test_a_sample_table_gives_2_1_for_24_thick_at_a_boring_of_4():
    assert least_reveal(cup_from_table("heron-110").reveal, thickness=24.0, boring=4.0) == 2.1
    assert pytest.approx(18.1) == 16 + 2.1  # of side, for an overlay of 16


def test_loads_of_a_hung_leaf_and_what_a_screw_bears():
    """40 kg, 762 wide, hinges 1600 apart; 80 kg on the pull; Wood Handbook, FPL-GTR-282, ch. 8, from memory."""
    assert top_hinge_pull(mass=40, leaf_width=762, hinge_spacing=1600) == pytest.approx(93.4, abs=0.05)
    assert misuse_pull(mass=40, width=762, spacing=1600, person=80) == pytest.approx(430, abs=0.5)
    assert withdrawal(gravity=0.42, diameter=4.2, thread=20) == pytest.approx(1604, abs=0.5)
    assert latch_corner_moves(by=1, width=762, spacing=1600) == pytest.approx(0.476, abs=5e-4)


def test_butt_of_5_5_in_a_gap_of_2_is_let_in_1_75_and_its_lining_is_a_head_gap_lower():
    leaf = solved()
    assert leaf.figures["butt_depth"].value == 1.75
    assert all(each.jamb_top.value == each.top.value + 2 for each in leaf.butts.places)
