"""Fit beyond the size: an even gap, track sets, what stops a swing, the chance of going in, the ways out."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.cup_hinges import CupChoices, cup_from_table
from oakmeasure.core.document.hanging import (
    CabinetChoices,
    EvenGap,
    Hanging,
    PairChoices,
    Shim,
    SlideChoices,
    track_sets,
)
from oakmeasure.core.document.hinges import HardwareChoices
from oakmeasure.core.document.job import FitChoices, Reading
from oakmeasure.core.document.readings import FloorPoint, FloorReadings, InTheWay, Obstruction, Side
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.fit.even_reveal import strokes
from oakmeasure.core.fit.gear import sets_for
from oakmeasure.core.reports.tolerance import tolerance
from oakmeasure.core.solver import solve, solve_leaf
from samples import codes, job, readings, solved, square_readings

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


def sliding(width=756.0, height=2075.0, **slide):
    return job(width, height, hanging=Hanging.SLIDING, build=SLAB, slide=SlideChoices(**slide))


def said(leaf, code):
    return next(each for each in leaf.checks if each.code == code)


# --- an even gap -------------------------------------------------------------------------------------------


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


def test_hinges_are_let_in_for_the_gap_that_was_wanted_not_the_one_that_came():
    even = EvenGap(shims=(Shim(thickness=0.55, count=2),))
    leaf = solved(fit=FitChoices(gap_hinge=2.0, even=even))
    assert leaf.figures["butt_depth"].value == pytest.approx((leaf.figures["butt_closed"].value - 2.0) / 2)
    with pytest.raises(InputError, match="shaving"):
        strokes(1.0, shaving=0.0)


# --- track sets --------------------------------------------------------------------------------------------


def test_headroom_is_the_track_the_leaf_and_the_lift_to_hang_it_on_and_its_remedies_mend_it():
    heavy = track_sets()["marram-flat-heavy"]  # 190 above the leaf, lifted 16
    low = sliding(overlap_head=45.0, track_set=heavy, headroom=200.0)
    leaf = solve(low).leaves[0]
    assert leaf.figures["headroom_needed"].value == pytest.approx(45 + 190 + 16)
    stop = said(leaf, "headroom")
    assert stop.level is Level.STOP
    for remedy in stop.remedies:
        mended = solve(job_edits.with_remedy(low, "leaf-1", remedy)).leaves[0]
        assert said(mended, "headroom").level is Level.OK, remedy.text


@pytest.mark.parametrize(
    ("key", "build", "needs"),
    [
        ("sedge-cover-20", SLAB, "made for by-passing on two tracks"),
        ("marram-flat-40", CUPBOARD, "takes leaves of 35 to 45, not 20"),
        ("osier-pocket-92", SLAB, "made for on a pocket track"),
    ],
)
def test_set_that_does_not_suit_names_what_and_another_that_does(key, build, needs):
    made = job(756.0, 2075.0, hanging=Hanging.SLIDING, build=build, slide=SlideChoices(track_set=track_sets()[key]))
    stop = said(solve(made).leaves[0], "set")
    assert stop.level is Level.STOP
    assert needs in stop.sentence.lower()
    mended = solve(job_edits.with_remedy(made, "leaf-1", stop.remedies[0])).leaves[0]
    assert said(mended, "set").level is Level.OK


def test_figures_of_the_set_go_before_the_default_and_those_by_hand_before_the_set():
    chosen = track_sets()["marram-bypass"]
    by_set = solved(
        2210.0,
        2040.0,
        hanging=Hanging.BYPASS_RAIL,
        build=SLAB,
        slide=SlideChoices(overlap_hinge=40, overlap_latch=40, track_set=chosen),
    )
    assert by_set.figures["roller"].value == chosen.roller
    assert by_set.figures["roller"].source == chosen.name
    by_hand = solved(
        2210.0,
        2040.0,
        hanging=Hanging.BYPASS_RAIL,
        build=SLAB,
        slide=SlideChoices(overlap_hinge=40, overlap_latch=40, track_set=chosen, roller=90.0),
    )
    assert by_hand.figures["roller"].value == 90.0
    assert by_hand.figures["clear_way"].value < by_set.figures["clear_way"].value


@given(up=st.floats(1900, 2300), drop=st.floats(0, 60), rise=st.floats(0, 20))
@settings(max_examples=20)
def test_leaf_under_a_track_that_is_up_is_floor_to_track_less_drop_gap_and_the_floor_s_rise(up, drop, rise):
    floor = FloorReadings(
        along="the travel",
        travel=(FloorPoint(at=0, height=Reading(value=0.0)), FloorPoint(at=900, height=Reading(value=rise))),
    )
    leaf = solved(
        756.0,
        2000.0,
        hanging=Hanging.SLIDING,
        build=SLAB,
        floor=floor,
        fit=FitChoices(gap_floor=10),
        slide=SlideChoices(track_up=Reading(value=up), drop=drop),
    )
    assert leaf.figures["leaf_height"].value == pytest.approx(up - drop - 10 - rise)
    assert ("head-open" in codes(leaf)) is (up - drop - rise < 2000)


def test_slab_and_track_that_contradict_each_other_are_a_stop_with_what_to_trim():
    made = sliding(size_height=Reading(value=2100.0), track_up=Reading(value=2110.0), drop=20.0)
    stop = said(solve(made).leaves[0], "under-track")
    assert stop.level is Level.STOP
    assert "16 too much" in stop.sentence  # 2110 − 20 − 6 = 2084
    assert "under-track" not in codes(solve(job_edits.with_remedy(made, "leaf-1", stop.remedies[0])).leaves[0])


# --- the swing ---------------------------------------------------------------------------------------------


def test_leaf_that_drags_half_way_stops_there_and_a_wider_gap_lets_it_on():
    floor = FloorReadings(
        swing=(FloorPoint(at=0, height=Reading(value=0.0)), FloorPoint(at=90, height=Reading(value=18.0)))
    )
    leaf = solved(floor=floor, fit=FitChoices(gap_floor=6.0))
    assert leaf.swing.stopped_by == "floor"
    assert leaf.swing.stops_deg == pytest.approx(30.5, abs=0.51)  # 6 of 18 after a third of 90°
    assert "It drags from" in said(leaf, "rising-hinges").sentence
    assert solved(floor=floor, fit=FitChoices(gap_floor=20.0)).swing.stopped_by == ""


def test_cupboard_opens_as_far_as_its_hinges_or_the_wall_beside_it_and_says_which_would_do():
    wish = {"hanging": Hanging.OVERLAY, "build": CUPBOARD}
    made = job(388.0, 512.0, cabinet=CabinetChoices(overlay=12.0, must_open=165.0), **wish)
    look = said(solve(made).leaves[0], "opens")
    assert look.level is Level.WARNING
    mended = solve(job_edits.with_remedy(made, "leaf-1", look.remedies[0])).leaves[0]
    assert mended.figures["opens_to"].value >= 165.0
    wall = (InTheWay(what=Obstruction.WALL, where=Side.HINGE, away=30.0, stands_out=Reading(value=600.0)),)
    beside = solved(
        388.0,
        512.0,
        cabinet=CabinetChoices(overlay=12.0),
        in_the_way=wall,
        hardware=HardwareChoices(cup=CupChoices(hinge=cup_from_table("bittern-170"))),
        **wish,
    )
    assert beside.swing.stopped_by.startswith("wall beside")
    assert 85 < beside.figures["opens_to"].value < 100
    nearer = (wall[0].model_copy(update={"away": 14.0}),)  # 2 beyond the overlay: its corner needs them
    tight = solved(388.0, 512.0, cabinet=CabinetChoices(overlay=12.0), in_the_way=nearer, **wish)
    assert tight.figures["opens_to"].value <= beside.figures["opens_to"].value


def test_leaf_on_a_leaning_hinge_line_says_with_what_torque_and_which_way():
    lean = {"width_top": 762, "width_bottom": 762, "height_hinge": 1981, "height_latch": 1981, "across_hinge": 8}
    leaf = solved(readings=readings(**lean))
    torque = leaf.figures["self_swing"]
    assert torque.value == pytest.approx(
        leaf.weights.mass.value * 9.80665 * leaf.fit.width.value / 2000 * 8 / 1981, rel=0.01
    )
    assert "opens by itself" in said(leaf, "self-swing").sentence
    other = solved(readings=readings(**(lean | {"across_hinge": -8})))
    assert "shuts by itself" in said(other, "self-swing").sentence


# --- how likely it goes in ---------------------------------------------------------------------------------


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


# --- several leaves, and choices side by side --------------------------------------------------------------


def test_pair_and_run_list_and_plan_every_leaf():
    one, pair = solved(1500.0), solved(1500.0, hanging=Hanging.PAIR, pair=PairChoices())
    assert {pair.pieces_of(part) for part in pair.cut_parts} == {2}
    assert {one.pieces_of(part) for part in one.cut_parts} == {1}
    cut = [piece.piece.part for group in pair.plan.groups for board in group.plan.boards for piece in board.pieces]
    assert all(cut.count(part.name) >= 2 for part in pair.build.parts)


def test_pocket_that_is_too_low_has_its_ways_out_by_cost_and_each_that_is_taken_mends_it():
    made = job(
        720.0,
        2058.0,
        hanging=Hanging.POCKET,
        build=SLAB,
        slide=SlideChoices(track_set=track_sets()["osier-pocket-92"], size_height=Reading(value=1981.0)),
    )
    leaf = solve(made).leaves[0]
    assert leaf.figures["gear_short"].value == pytest.approx(15.0)
    ways = leaf.fit_choices[0]
    assert ways.title == "Ways out"
    names = [each.cells[0] for each in ways.options]
    assert {
        "Trim the leaf",
        "Osier pocket frame, low",
        "Cut the wall over the head",
        "Order it to size",
        "A thinner lining at the head",
    } == set(names)
    fine = [float(each.cells[1]) for each in ways.options if each.level is Level.OK]
    assert fine == sorted(fine)
    for option in ways.options:
        if option.remedy is not None:
            mended = solve(job_edits.with_remedy(made, "leaf-1", option.remedy)).leaves[0]
            assert "gear-short" not in codes(mended, Level.STOP), option.cells


def test_cost_is_hours_at_their_price_and_material_and_every_choice_can_be_taken(demo):
    dear = job_edits.with_rule(demo, "hour_price", 80.0)
    for before, after in zip(solve(demo).leaves, solve(dear).leaves, strict=True):
        for one, other in zip(before.fit_choices, after.fit_choices, strict=True):
            costs = {each.cells[0]: each for each in one.options}
            for option in other.options:
                was = costs[option.cells[0]]
                if "hours" in one.columns:
                    hours, rise = float(was.cells[2]), float(option.cells[1]) - float(was.cells[1])
                    assert rise == pytest.approx(40 * hours, abs=40 * 0.05 + 1)
                if option.remedy is not None:
                    taken = job_edits.with_remedy(dear, after.leaf.id, option.remedy)
                    assert solve_leaf(taken, taken.leaf(after.leaf.id)).figures


def test_bevels_side_by_side_hold_the_least_and_only_those_that_pass_can_be_taken():
    leaf = solved(450.0, 1981.0, build=Framed(thickness=60.0, stile=80.0, muntin=None))
    bevels = next(each for each in leaf.fit_choices if each.title.startswith("Bevel"))
    least = leaf.figures["least_bevel"].value
    assert least > 1
    for option in bevels.options:
        degrees = float(option.cells[1].rstrip("°"))
        assert (option.level is Level.OK) is (degrees >= least - 0.01)
        assert option.remedy is None or option.level is Level.OK


def test_much_left_on_a_framed_leaf_is_looked_at_again_and_a_scribed_leaf_keeps_its_gaps():
    made = job(fit=FitChoices(trim_side=30.0))
    look = said(solve(made).leaves[0], "trim-much-side")
    assert solve(job_edits.with_remedy(made, "leaf-1", look.remedies[0])).leaves[0].figures["trim_side"].value == 12.0


def test_every_set_of_the_table_fits_somewhere_and_its_sheet_makes_sense():
    for key, each in track_sets().items():
        assert each.ways, key
        assert each.block <= max(each.drop, each.lift), key
        for way in each.ways:
            assert key in sets_for(way)
    assert {way for each in track_sets().values() for way in each.ways} == {each for each in Hanging if each.slides}
    assert solved(readings=square_readings(762, 1981)).key_figure(Stage.FIT, MM)


def test_wall_that_is_too_short_and_a_low_ceiling_have_their_ways_out_too():
    wall = solve(sliding(free_wall=700.0)).leaves[0]
    ways = next(each for each in wall.fit_choices if each.title == "Ways out")
    assert {each.cells[0] for each in ways.options} == {
        "Take the way that is left",
        "Two leaves that pass each other",
        "A pocket in the wall",
    }
    low = sliding(overlap_head=45.0, track_set=track_sets()["marram-flat-heavy"], headroom=200.0)
    leaf = solve(low).leaves[0]
    ways = next(each for each in leaf.fit_choices if each.title == "Ways out")
    less = next(each for each in ways.options if each.cells[0] == "Less overlap at the head")
    assert less.remedy.value == pytest.approx(45 - leaf.figures["headroom_short"].value)
    mended = solve(job_edits.with_remedy(low, "leaf-1", less.remedy)).leaves[0]
    assert said(mended, "headroom").level is Level.OK
    taken = [each for each in next(c for c in leaf.fit_choices if c.title == "Track sets").options if each.is_taken]
    assert [each.cells[0] for each in taken] == ["Marram flat rail, heavy"]
