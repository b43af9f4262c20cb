"""An even gap by shims, the chance of going in, ranges about what is asked."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.hanging import EvenGap, Hanging, PairChoices, Shim, SlideChoices
from oakmeasure.core.document.job import FitChoices, Reading
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.reports.tolerance import tolerance
from oakmeasure.core.solver import solve
from samples import codes, job, readings, said, solved

MM = Show(UnitSystem.MM)


CUPBOARD = Framed(
    thickness=20.0,
    stile=60.0,
    top_rail=60.0,
    middle_rail=None,
    bottom_rail=65.0,
    muntin=None,
    panel_thickness=6.0,
    groove_depth=8.0,
)


SLAB = Framed(thickness=38.0, stile=110.0, top_rail=110.0, middle_rail=190.0, bottom_rail=210.0, muntin=None)


@given(st.lists(st.tuples(st.integers(1, 30), st.integers(1, 3)), min_size=1, max_size=3))
@settings(max_examples=15)
def test_every_gap_is_the_stack_of_shims_and_the_strokes_take_the_rest_off(stack):
    shims = tuple(Shim(thickness=tenth / 20, count=count) for tenth, count in stack)
    gap = sum(each.thickness * each.count for each in shims)
    even = EvenGap(shims=shims, full_width=Reading(value=414.0), full_height=Reading(value=620.0))
    leaf = solved(414.0, 620.0, hanging=Hanging.INSET_BUTTS, build=CUPBOARD, fit=FitChoices(even=even))
    f = leaf.figures
    assert [f[f"gap_{edge}"].value for edge in ("hinge", "latch", "head", "floor")] == pytest.approx([gap] * 4)
    assert f["leaf_width"].value + 2 * gap == pytest.approx(414.0)
    off = f["plane_latch_edge"].value
    assert off == pytest.approx(2 * gap)  # all of the width comes off the latch edge: the other one hangs already
    assert (f["strokes_latch_edge"].value - 1) * 0.1 < off <= f["strokes_latch_edge"].value * 0.1 + 1e-9
    assert f["plane_top"].value == pytest.approx(gap)


def test_leaf_that_was_not_left_full_enough_is_a_stop_and_before_it_hangs_the_rule_stands_in():
    short = EvenGap(gap=Reading(value=2.0), full_width=Reading(value=758.0), full_height=Reading(value=1975.0))
    leaf = solved(fit=FitChoices(even=short))
    assert said(leaf, "even-gap").level is Level.OK  # 758 = 762 − 2 × 2
    assert leaf.figures["gap_floor"].value == 6.0  # over a floor the chosen gap stays
    shorter = short.model_copy(update={"full_width": Reading(value=757.0)})
    stop = said(solved(fit=FitChoices(even=shorter)), "not-full")
    assert stop.level is Level.STOP
    assert "1 at the latch edge" in stop.sentence
    assert said(solved(fit=FitChoices(even=EvenGap())), "not-hung").level is Level.WARNING


def test_drawn_gap_at_the_latch_spreads_as_the_squares_say_and_trimming_answers_a_bad_chance():
    leaf = solved(fit=FitChoices(trim_side=0.0))
    found = tolerance(leaf, MM, draws=40_000)
    latch = next(each for each in found.ranges if each.label == "latch, foot")
    f = leaf.figures
    sigma = math.hypot(*(f[name].value for name in ("clear_width_uncertainty", "rule_sigma_cut", "rule_sigma_hang")))
    # The least of both ends varies no more than one end with the whole clear width's uncertainty.
    assert 0.5 * sigma < (latch.high - latch.low) / 3.29 < 1.6 * sigma
    assert tolerance(leaf, MM, draws=5000) == tolerance(leaf, MM, draws=5000)  # the seed is said, so it comes again
    rough = job(fit=FitChoices(trim_side=0.0), readings=readings(width_middle=762.0, height_middle=1981.0))
    look = said(solve(rough).leaves[0], "goes-in")
    assert look.level is Level.WARNING
    assert "goes-in" not in codes(solve(job_edits.with_remedy(rough, "leaf-1", look.remedies[0])).leaves[0])


@pytest.mark.parametrize("hanging", [each for each in Hanging if each is not Hanging.OPEN])
def test_every_way_of_hanging_has_its_ranges_about_what_is_asked(hanging):
    leaf = solved(900.0, 2000.0, hanging=hanging, build=SLAB, slide=SlideChoices(overlap_hinge=40, overlap_latch=40))
    found = tolerance(leaf, MM, draws=4000)
    assert len(found.ranges) >= 4
    assert all(each.low <= each.asked + 3.0 and each.high >= each.asked - 3.0 for each in found.ranges)
    assert 0 <= found.share <= 1
    exact = job_edits.with_rule(
        job_edits.with_rule(job(900.0, 2000.0, hanging=hanging, build=SLAB), "sigma_cut", 0.02), "sigma_hang", 0.02
    )
    for kind in ("sigma_tape", "sigma_diagonal"):
        exact = job_edits.with_rule(exact, kind, 0.05)
    exact = job_edits.with_rule(exact, "sigma_plumb_per_m", 0.02)
    sure = tolerance(solve(exact).leaves[0], MM, draws=4000)
    assert sure.share >= found.share - 0.01


def test_pair_and_run_list_and_plan_every_leaf():
    one, pair = solved(1500.0), solved(1500.0, hanging=Hanging.PAIR, pair=PairChoices())
    assert {pair.pieces_of(part) for part in pair.cut_parts} == {2}
    assert {one.pieces_of(part) for part in one.cut_parts} == {1}
    cut = [piece.piece.part for group in pair.plan.groups for board in group.plan.boards for piece in board.pieces]
    assert all(cut.count(part.name) >= 2 for part in pair.build.parts)


def test_much_left_on_a_framed_leaf_is_looked_at_again_and_a_scribed_leaf_keeps_its_gaps():
    made = job(fit=FitChoices(trim_side=30.0))
    look = said(solve(made).leaves[0], "trim-much-side")
    assert solve(job_edits.with_remedy(made, "leaf-1", look.remedies[0])).leaves[0].figures["trim_side"].value == 12.0
