"""Track sets, what stops a swing, torque on a leaning hinge line."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.cup_hinges import CupChoices, cup_from_table
from oakmeasure.core.document.hanging import CabinetChoices, Hanging, SlideChoices, track_sets
from oakmeasure.core.document.hinges import HardwareChoices
from oakmeasure.core.document.job import FitChoices, Reading
from oakmeasure.core.document.readings import FloorPoint, FloorReadings, InTheWay, Obstruction, Side
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.fit.gear import sets_for
from oakmeasure.core.solver import solve
from samples import codes, job, readings, said, solved, square_readings

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


def test_every_set_of_the_table_fits_somewhere_and_its_sheet_makes_sense():
    for key, each in track_sets().items():
        assert each.ways, key
        assert each.block <= max(each.drop, each.lift), key
        for way in each.ways:
            assert key in sets_for(way)
    assert {way for each in track_sets().values() for way in each.ways} == {each for each in Hanging if each.slides}
    assert solved(readings=square_readings(762, 1981)).key_figure(Stage.FIT, MM)


LEVEL = {
    "width_top": 800.0,
    "width_bottom": 800.0,
    "height_hinge": 2000.0,
    "height_latch": 2000.0,
    "lean_hinge": 0.0,
    "lean_latch": 0.0,
}


def standing(out, where=Side.HINGE, away=6.0, what=Obstruction.ARCHITRAVE):
    return InTheWay(what=what, where=where, away=away, stands_out=Reading(value=out))


def hung(way, **more):
    return solved(readings=readings(**LEVEL), hanging=way, **more)


@pytest.mark.parametrize(
    ("slide", "code", "level"),
    [
        (SlideChoices(track=700), "track-short", Level.STOP),
        (SlideChoices(track=1500), "track-short", Level.WARNING),
        (SlideChoices(track=2000), "track", Level.OK),
        (SlideChoices(free_wall=500), "free-wall", Level.WARNING),
        (SlideChoices(size_width=Reading(value=820)), "slab-narrow", Level.WARNING),
    ],
)
def test_track_wall_and_slab_are_judged(slide, code, level):
    assert code in codes(hung(Hanging.SLIDING, slide=slide), level)


def test_negative_overlap_is_a_leaf_smaller_than_its_opening():
    leaf = hung(Hanging.FLOOR_GEAR, slide=SlideChoices(overlap_head=-10), fit=FitChoices(gap_floor=10))
    assert leaf.fit.height.value == pytest.approx(1980)


def test_pull_that_cannot_pass_the_jamb_comes_off_the_clear_way():
    assert hung(Hanging.SLIDING, slide=SlideChoices(pull=45)).figures["clear_way"].value == pytest.approx(755)


def test_architrave_stops_the_leaf_and_a_pin_further_out_lets_it_open():
    sample = job(readings=readings(**LEVEL), in_the_way=(standing(18),))
    leaf = solve(sample).leaves[0]
    assert leaf.figures["opens_to"].value == pytest.approx(145.8, abs=0.1)  # p 6, s 1, gap 2
    said = next(each for each in leaf.checks if each.code == "opens")
    assert "architrave" in said.sentence
    mended = solve(job_edits.with_remedy(sample, "leaf-1", said.remedies[0])).leaves[0]
    assert mended.figures["opens_to"].value == 180


def test_hinge_line_out_of_plumb_says_how_the_corner_moves():
    leaf = solved(
        readings=readings(**{**LEVEL, "lean_hinge": 4.0, "lean_latch": -4.0}, across_hinge=3.0, across_latch=3.0)
    )
    said = next(each for each in leaf.checks if each.code == "corner-rise")
    assert "rises" in said.sentence
    assert leaf.figures["corner_rise"].value == pytest.approx(2 * leaf.fit.width.value * 4 / 2000, abs=0.02)


def test_rising_hinges_are_offered_where_part_of_the_way_is_high():
    points = tuple(FloorPoint(at=at, height=Reading(value=high)) for at, high in ((20, 0), (90, 8)))
    leaf = solved(readings=readings(**LEVEL), floor=FloorReadings(swing=points))
    assert "rising-hinges" in codes(leaf, Level.WARNING)
    assert leaf.figures["rising_easing"].value > 0
