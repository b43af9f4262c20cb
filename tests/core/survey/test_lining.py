"""Linings in crooked walls: packing, strips, legs and the opening that is left."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.document.job import Reading
from oakmeasure.core.document.readings import Lining, LiningFrom, LiningSchool
from oakmeasure.core.edits import job_edits
from oakmeasure.core.solver import solve
from samples import codes, job, readings, solved, square_readings

LEVEL = {
    "width_top": 800.0,
    "width_middle": 800.0,
    "width_bottom": 800.0,
    "height_hinge": 2000.0,
    "height_latch": 2000.0,
    "lean_hinge": 0.0,
    "lean_latch": 0.0,
}


def rough(lean=0.0, across=0.0):
    return readings(
        **{**LEVEL, "width_top": 800 + lean, "width_middle": 800 + lean / 2, "lean_latch": -lean},
        across_latch=across,
        across_hinge=0.0,
        depth=110.0,
    )


def test_worst_lean_eats_the_packing_first_and_the_remedy_makes_the_lining_go_in():
    tall = solved(readings=readings(**{**LEVEL, "lean_hinge": 10.0, "lean_latch": -10.0}), lining=Lining(packing=12))
    assert tall.figures["packing_left"].value == pytest.approx(2)
    sample = job(readings=readings(**{**LEVEL, "lean_hinge": 20.0, "lean_latch": -20.0}), lining=Lining(packing=12))
    leaf = solve(sample).leaves[0]
    said = next(each for each in leaf.checks if each.code == "lining-tight")
    mended = solve(job_edits.with_remedy(sample, "leaf-1", said.remedies[0])).leaves[0]
    assert "lining-tight" not in codes(mended)
    assert mended.figures["packing_left"].value == pytest.approx(2, abs=0.6)


def test_packing_behind_each_leg_and_the_lining_fill_the_rough_opening_at_every_height():
    leaf = solved(readings=rough(lean=8.0), lining=Lining(packing=12))
    lining = leaf.opening.lining
    for hinge, latch in zip(lining.packing[::2], lining.packing[1::2], strict=True):
        width = 800 + 8 * hinge.lower / 2000
        assert hinge.start + lining.outside.value + latch.start == pytest.approx(width)


def test_two_schools_for_a_crooked_wall_strips_or_none_and_a_narrower_plumb_leaf():
    sample = job(readings=rough(lean=-6.0, across=8.0), lining=Lining())
    plumb = solve(sample).leaves[0]
    follow = solve(job_edits.with_field(sample, "leaf-1", "lining.school", LiningSchool.FOLLOW_WALL)).leaves[0]
    assert plumb.opening.lining.strips
    assert not follow.opening.lining.strips
    assert follow.figures["clear_width"].value == pytest.approx(plumb.figures["clear_width"].value)
    assert follow.opening.latch_head[0] < follow.opening.latch_foot[0]
    thickest = max(each.start for each in plumb.opening.lining.strips)
    assert thickest == pytest.approx(8, abs=0.1)
    assert any(part.name.startswith("strip, latch side") for part in plumb.cut_parts)


def test_legs_follow_a_falling_floor_and_the_head_stays_level():
    leaf = solved(readings=readings(**LEVEL, sill_rise=-7.0), lining=Lining())
    f = leaf.figures
    assert f["leg_latch"].value - f["leg_hinge"].value == pytest.approx(7, abs=0.4)
    assert leaf.opening.lining.underside[0] == leaf.opening.lining.underside[1]


@given(st.floats(400, 1200), st.floats(600, 2300))
def test_lining_made_to_a_leaf_gives_that_leaf_back(width, height):
    lining = Lining(made_from=LiningFrom.LEAF, leaf_width=Reading(value=width), leaf_height=Reading(value=height))
    leaf = solved(readings=square_readings(1300, 2450), lining=lining)
    assert leaf.fit.width.value == pytest.approx(width)
    assert leaf.fit.height.value == pytest.approx(height)


def test_the_head_of_a_lining_that_follows_the_wall_is_as_long_as_the_wall_is_wide_there():
    """Rough 873 at the foot and 887 at the head, 28 of packing: a head of 859; plumb, of 845."""
    wall = {**LEVEL, "width_bottom": 873.0, "width_middle": 880.0, "width_top": 887.0, "lean_latch": -14.0}
    for school, length in ((LiningSchool.FOLLOW_WALL, 859.0), (LiningSchool.PLUMB_FIRST, 845.0)):
        leaf = solved(readings=readings(**wall), lining=Lining(school=school, packing=28))
        head = next(each for each in leaf.opening.lining.parts if each.name == "lining head")
        assert head.finished.length == pytest.approx(length, abs=0.01)
