"""Sliding gear and fixings: shares, studs against an exhaustive search, stacks, guides, shims, motion, and refusals."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.document.hanging import Hanging, SlideChoices, track_sets
from oakmeasure.core.document.hinges import HardwareChoices
from oakmeasure.core.document.job import FitChoices, Hand
from oakmeasure.core.document.readings import FloorAlong, FloorPoint, FloorReadings, Reading
from oakmeasure.core.document.sliding_gear import (
    FloorKind,
    Guide,
    GuideKind,
    HangerChoices,
    HangerKind,
    ScrewKind,
    StackChoices,
    Stud,
    WallChoices,
    WallKind,
)
from oakmeasure.core.drawings.drawing import Area
from oakmeasure.core.drawings.views import FitPage, HardwarePage, fit_stage_view, hardware_stage_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.hardware.fixing_stack import SAFE, SCREWS, screw_between
from oakmeasure.core.hardware.sliding.hangers import eccentric, shares
from oakmeasure.core.hardware.sliding.studs import alignment, best_shift, margin, redrilled, stud_places, track_holes
from oakmeasure.core.hardware.sliding.tracks import floor_at
from oakmeasure.core.solver import solve
from samples import assert_sums, codes, job, said, solved

SLIDING = [each for each in Hanging if each.slides]


def slid(hanging=Hanging.SLIDING, **more):
    more.setdefault("build", Slab(thickness=38.0))
    hardware = HardwareChoices(**{key: more.pop(key) for key in ("hangers", "wall", "stack", "guide") if key in more})
    return job(width=905.0, height=2095.0, hanging=hanging, hardware=hardware, **more)


@given(st.floats(1, 200), st.floats(20, 300), st.floats(100, 2000), st.floats(-0.2, 1.2))
def test_two_hangers_carry_the_whole_and_balance_about_the_centre(mass, first, apart, share):
    second, centre = first + apart, first + share * apart
    left, right = shares(mass=mass, first=first, second=second, centre=centre)
    assert left + right == pytest.approx(mass * 9.80665)
    assert left * (centre - first) == pytest.approx(right * (second - centre), abs=1e-6 * mass * apart)


def test_loads_refuse_hangers_that_cross_and_bolts_on_one_another():
    with pytest.raises(InputError) as refused:
        shares(mass=30, first=500, second=500, centre=500)
    assert refused.value.field == "bolt_in"
    with pytest.raises(InputError) as refused:
        eccentric(share=100, off=20, apart=0)
    assert refused.value.field == "bolt_apart"


def test_slab_on_straps_by_hand():
    """Leaf 981 wide, hangers 75 in; half the weight each, at 25 beside the wheel on bolts 60 apart."""
    leaf = solve(slid()).leaves[0]
    f = leaf.figures
    half = f["mass"].value * 9.80665 / 2
    assert f["hanger_1"].value == pytest.approx(half)
    assert f["hanger_works"].value == pytest.approx(half * (1 + 25 / 60))
    assert f["proof_load"].value == pytest.approx(1.5 * f["mass"].value)
    assert f["track_line"].value == pytest.approx(6 + leaf.fit.height.value + 60)
    bolts = {each.name: each for each in leaf.borings if each.name.startswith("hanger")}
    assert len(bolts) == 4
    assert bolts["hanger 2 bolt 2"].solid.points == ((leaf.fit.width.value - 75, leaf.fit.height.value - 100),)
    assert_sums(leaf)


def test_weak_hangers_are_a_stop_and_those_beyond_the_middle_too():
    weak = solve(slid(hangers=HangerChoices(rating_kg=10.0))).leaves[0]
    assert said(weak, "hangers-weak").level is Level.STOP
    beyond = slid(hangers=HangerChoices(bolt_in=520.0))
    stop = said(solve(beyond).leaves[0], "hangers-beyond")
    assert solve(beyond).leaves[0].gear is None
    assert "hangers-beyond" not in codes(solve(job_edits.with_remedy(beyond, "leaf-1", stop.remedies[0])).leaves[0])


@given(
    st.floats(20, 200),
    st.floats(150, 650),
    st.floats(0, 400),
    st.floats(250, 650),
    st.floats(700, 3000),
    st.sampled_from([38.0, 45.0, 63.0]),
    st.floats(4, 12),
    st.floats(20, 200),
)
@settings(max_examples=120)
def test_best_shift_is_what_an_exhaustive_search_finds(first, pitch, stud, stud_pitch, length, width, edge, reach):
    holes = track_holes(length=length, first=first, pitch=pitch)
    studs = stud_places(first=stud, pitch=stud_pitch, low=-1000, high=length + 1000)
    best = best_shift(holes, studs, width=width, edge=edge, reach=reach)
    assert abs(best.shift) <= reach + 1e-6
    steps = [alignment(holes, studs, width=width, edge=edge, shift=-reach + at * reach / 400) for at in range(801)]
    most = max(each.hits for each in steps)
    assert best.hits >= most
    assert best.hits == sum(margin(each + best.shift, studs, width) >= edge - 1e-6 for each in holes)
    if best.hits == len(holes) == most:
        assert best.least >= max(each.least for each in steps if each.hits == most) - 1e-6
    elif best.hits == most:
        assert abs(best.shift) <= min(abs(each.shift) for each in steps if each.hits == most) + 1e-6


@given(st.floats(20, 200), st.floats(100, 700), st.floats(500, 6000))
def test_holes_lie_on_the_track_and_leave_no_long_end(first, pitch, length):
    holes = track_holes(length=length, first=first, pitch=pitch)
    assert holes[0] == first
    assert all(b > a for a, b in pairwise(holes))
    assert holes[-1] <= length - min(first, 25) + 1e-6
    assert length - holes[-1] <= max(0.75 * pitch, first + 25) + 1e-6


def test_holes_off_the_studs_by_hand_are_shifted_drilled_anew_or_backed():
    """Holes 400 apart before studs at 406 from 130, 38 wide: shifted 92 all five are held, by 7 at the least."""
    wall = WallChoices(stud_first=130.0, stud_pitch=406.0)
    made = slid(wall=wall, slide=SlideChoices(overlap_hinge=25.0, overlap_latch=25.0))
    leaf = solve(made).leaves[0]
    stop = said(leaf, "studs")
    assert (stop.level, leaf.gear.held) == (Level.STOP, (False,) * 5)
    ways = {each.path: each for each in stop.remedies}
    assert ways["hardware.wall.shift"].value == pytest.approx(92)
    for remedy in stop.remedies:
        mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
        assert "studs" in codes(mended, Level.OK), remedy.text
        assert all(mended.gear.held)
    shifted = solve(job_edits.with_remedy(made, "leaf-1", ways["hardware.wall.shift"])).leaves[0]
    assert shifted.figures["stud_margin"].value == pytest.approx(7)
    assert shifted.figures["track_longer"].value == pytest.approx(92 - shifted.figures["stop_room"].value)
    backed = solve(job_edits.with_remedy(made, "leaf-1", ways["hardware.wall.backing"])).leaves[0]
    assert backed.figures["stack_passes"].value == 12.5 + 18


def test_wall_of_board_is_never_enough_and_studs_are_asked_for_until_they_are_found():
    assert said(solve(slid()).leaves[0], "studs").level is Level.WARNING
    board = slid(wall=WallChoices(kind=WallKind.BOARD))
    assert said(solve(board).leaves[0], "wall-board").level is Level.STOP
    found = tuple(Stud(at=each) for each in (50.0, 450.0, 850.0, 1250.0, 1650.0, 1912.0))
    assert "studs" in codes(solve(slid(wall=WallChoices(studs=found))).leaves[0], Level.OK)
    none = solve(slid(wall=WallChoices(studs=(Stud(at=-900.0),)))).leaves[0]
    assert "no stud" in said(none, "studs").title
    assert redrilled(length=1900, studs=(-900.0,), apart=610.0) == ()


@pytest.mark.parametrize(
    "call",
    [
        lambda: track_holes(length=1000, first=50, pitch=0),
        lambda: track_holes(length=60, first=50, pitch=400),
        lambda: stud_places(first=0, pitch=-1, low=0, high=1),
        lambda: best_shift((), (1.0,), width=38, edge=5, reach=10),
        lambda: screw_between(least=0, most=None),
    ],
)
def test_what_cannot_be_is_refused(call):
    with pytest.raises(InputError):
        call()


@given(st.floats(5, 200), st.floats(10, 250))
def test_screw_bites_and_stays_short_or_none_does(least, most):
    found = screw_between(least=least, most=most)
    fits = [each for each in SCREWS if least - 1e-9 <= each <= most + 1e-9]
    assert found == (fits[0] if fits else None)


def test_stack_by_hand_through_spacer_board_and_plaster():
    """5 + 18 + 12.5 passed, 35 wanted: 70.5, so 80, which bites 44.5; a pipe 60 deep allows 5 + 18 + 60 − 5 = 78."""
    wall = WallChoices(stud_first=50.0, backing=18.0)
    leaf = solve(slid(wall=wall, stack=StackChoices(spacer=5.0))).leaves[0]
    assert (leaf.figures["stack_least"].value, leaf.figures["stack_screw"].value) == (70.5, 80)
    assert leaf.figures["stack_bites"].value == 44.5
    near = solve(slid(wall=wall, stack=StackChoices(spacer=5.0, depth=60.0))).leaves[0]
    assert near.figures["stack_most"].value == 5 + 18 + 60 - SAFE
    assert said(near, "stack-none").level is Level.STOP
    long = solve(slid(wall=wall, stack=StackChoices(spacer=5.0, depth=60.0, screw=80.0))).leaves[0]
    assert said(long, "stack-deep").level is Level.STOP
    short = slid(wall=wall, stack=StackChoices(screw=50.0))
    weak = said(solve(short).leaves[0], "stack-bite")
    assert "stack-bite" not in codes(solve(job_edits.with_remedy(short, "leaf-1", weak.remedies[0])).leaves[0])


def test_kinds_of_screw_have_their_holes_and_heads():
    """6 across: 6.5 through what is passed; its root is 0.68 of it, 0.7 of that in soft wood: 2.856. Coach: 4.2."""
    leaf = solve(slid(wall=WallChoices(stud_first=50.0))).leaves[0]
    assert leaf.figures["stack_clearance"].value == 6.5
    assert leaf.figures["stack_pilot"].value == pytest.approx(2.856)
    coach = solve(slid(wall=WallChoices(stud_first=50.0), stack=StackChoices(kind=ScrewKind.COACH))).leaves[0]
    assert coach.figures["stack_pilot"].value == pytest.approx(4.2)
    for stack in (StackChoices(kind=ScrewKind.COUNTERSUNK), StackChoices(kind=ScrewKind.COACH, diameter=4.0)):
        made = slid(wall=WallChoices(stud_first=50.0), stack=stack)
        check = said(solve(made).leaves[0], "stack-head")
        mended = solve(job_edits.with_remedy(made, "leaf-1", check.remedies[0])).leaves[0]
        assert "stack-holes" in codes(mended, Level.OK)


def test_long_screw_of_a_hinge_passes_lining_and_packer():
    leaf = solved(hardware=HardwareChoices(stack=StackChoices(spacer=10.0)))
    assert leaf.figures["stack_passes"].value == 25 + 10
    assert leaf.figures["stack_screw"].value == 70
    plugged = solve(slid(wall=WallChoices(kind=WallKind.MASONRY))).leaves[0]
    assert plugged.figures["plug_hole"].value == plugged.figures["stack_bites"].value + 12.5 + 10


@pytest.mark.parametrize(
    ("guide", "code", "level"),
    [
        (Guide(), "guide-none", Level.WARNING),
        (Guide(kind=GuideKind.FIN, floor=FloorKind.LAMINATE), "guide-floor", Level.STOP),
        (Guide(kind=GuideKind.FIN, floor=FloorKind.CARPET), "guide-floor", Level.STOP),
        (Guide(kind=GuideKind.FIN, groove_width=32.0, fin=30.0), "guide-wide", Level.STOP),
        (Guide(kind=GuideKind.FIN, groove_width=60.0, fin=40.0), "guide-wide", Level.STOP),
        (Guide(kind=GuideKind.FIN, fin=7.0), "guide-play", Level.STOP),
        (Guide(kind=GuideKind.FIN, groove_depth=6.0), "guide-holds", Level.WARNING),
        (Guide(kind=GuideKind.FIN, plate=9.0), "guide-plate", Level.STOP),
    ],
)
def test_guide_that_does_not_do_is_told_and_mended_by_its_click(guide, code, level):
    made = slid(guide=guide, fit=FitChoices(gap_floor=8.0))
    check = said(solve(made).leaves[0], code)
    assert check.level is level
    mended = solve(job_edits.with_remedy(made, "leaf-1", next(each for each in check.remedies if each.path))).leaves[0]
    assert code not in codes(mended, level)


def test_groove_and_cheeks_by_hand():
    leaf = solve(slid(guide=Guide(kind=GuideKind.FIN, groove_width=7.0, groove_depth=20.0))).leaves[0]
    assert leaf.figures["guide_cheek"].value == (38 - 7) / 2
    groove = next(each for each in leaf.borings if each.name == "guide groove")
    assert groove.solid.box[:2] == (0.0, 0.0)
    assert groove.solid.depth == (15.5, 22.5)
    cheeks = solve(slid(guide=Guide(kind=GuideKind.CHEEKS))).leaves[0]
    assert cheeks.figures["guide_spacing"].value == 38 + 6


def on_floor(points, **more):
    floor = FloorReadings(
        along=FloorAlong.TRAVEL, travel=tuple(FloorPoint(at=at, height=Reading(value=high)) for at, high in points)
    )
    return slid(Hanging.FLOOR_GEAR, floor=floor, **more)


def test_shims_are_slope_times_distance_and_none_stands_under_the_highest_hole():
    leaf = solve(on_floor(((0, 0.0), (1000, -5.0), (3000, -15.0)))).leaves[0]
    holes, shims = leaf.gear.holes, [each.value for each in leaf.gear.shims]
    assert shims == pytest.approx([0.005 * (each - holes[0]) for each in holes])
    assert {"floor-level", "floor-bears"} <= codes(leaf)
    assert leaf.gear.kind is HangerKind.FLOOR
    assert {each.name for each in leaf.borings} >= {"wheel 1 recess", "wheel 2 recess", "head groove"}
    unread = solve(slid(Hanging.FLOOR_GEAR)).leaves[0]
    assert "not read" in said(unread, "floor-level").title


@given(
    st.lists(st.tuples(st.floats(0, 3000), st.floats(-20, 20)), min_size=2, max_size=6, unique_by=lambda e: e[0]),
    st.floats(-200, 3200),
)
def test_floor_between_its_readings_lies_between_them(points, at):
    points = sorted(points)
    if any(b[0] - a[0] < 1 for a, b in pairwise(points)):
        return
    for x, y in points:
        assert floor_at(points, x) == pytest.approx(y, abs=1e-6)
    inside = [(a, b) for a, b in pairwise(points) if a[0] <= at <= b[0]]
    for a, b in inside:
        assert min(a[1], b[1]) - 1e-6 <= floor_at(points, at) <= max(a[1], b[1]) + 1e-6


def test_leaf_stops_a_rollers_width_early_where_the_stop_has_no_room():
    bypass = slid(
        Hanging.BYPASS_RAIL, slide=SlideChoices(track_set=track_sets()["marram-bypass"], running_clearance=12.0)
    )
    leaf = solve(bypass).leaves[0]
    early = said(leaf, "stops-early")
    assert leaf.figures["stops_early"].value == 22  # rollers of 70 at 35: none of it beyond the leaf's edge
    mended = solve(job_edits.with_remedy(bypass, "leaf-1", next(each for each in early.remedies if each.path))).leaves[
        0
    ]
    assert "stops-early" not in codes(mended)


@pytest.mark.parametrize("hanging", [Hanging.BYPASS_RAIL, Hanging.BYPASS_TRACKS])
def test_leaves_that_pass_each_other_stand_in_two_planes(hanging):
    leaf = slid(hanging, slide=SlideChoices(running_clearance=6.0))
    leaf = solve(leaf).leaves[0]
    drawn = fit_stage_view(leaf, Show(), page=FitPage.WAY, opened=0.4)
    spans = sorted(
        (min(y for _, y in each.points), max(y for _, y in each.points))
        for each in drawn.shapes
        if isinstance(each, Area) and each.ref == "figure:stands_out"
    )
    assert len(spans) == 2
    assert spans[0][1] < spans[1][0]
    assert leaf.figures["stands_out"].value >= 2 * 38 + 2 * 6


def test_a_track_that_holds_its_leaf_further_out_than_need_be_counts():
    near, far = (solve(slid(slide=SlideChoices(stand_off=off))).leaves[0].figures for off in (20.0, 60.0))
    assert far["stands_out"].value == near["stands_out"].value + 40
    assert far["stands_out"].value == 60 + far["thickness_over"].value


def test_wheels_straps_and_guides_in_motion_are_judged_and_mended():
    jams = slid(hangers=HangerChoices(bolt_head=9.0, head_room=8.0))
    stop = said(solve(jams).leaves[0], "wheel-jams")
    assert stop.level is Level.STOP
    assert "wheels-pass" in codes(solve(job_edits.with_remedy(jams, "leaf-1", stop.remedies[0])).leaves[0])
    two = slid(Hanging.BYPASS_RAIL, guide=Guide(kind=GuideKind.CHEEKS))
    for code, fine in (("straps-meet", "straps-pass"), ("guide-between", "guide-passes")):
        stop = said(solve(two).leaves[0], code)
        mended = solve(job_edits.with_remedy(two, "leaf-1", stop.remedies[0])).leaves[0]
        assert fine in codes(mended, Level.OK)
    outer = solve(two).leaves[0].figures
    assert outer["off_outer"].value == outer["off"].value + 38 + 5


def test_bolt_through_a_battens_screw_is_found_and_the_hangers_move():
    leaf = solve(slid(build=Boarded(), hangers=HangerChoices(bolt_down=120.0, bolt_in=75.0))).leaves[0]
    steel = [each for each in leaf.clashes.clashes if each.one.family.startswith("hanger")]
    for clash in steel:
        assert any(each.path == "hardware.hangers.bolt_in" for each in said(leaf, clash.code).remedies)


@pytest.mark.parametrize("hanging", SLIDING)
@pytest.mark.parametrize("hand", list(Hand))
def test_every_sliding_leaf_has_gear_that_is_drawn_for_its_hand(hanging, hand):
    made = slid(hanging, guide=Guide(kind=GuideKind.FIN), wall=WallChoices(stud_first=130.0), hand=hand)
    leaf = solve(made).leaves[0]
    assert_sums(leaf)
    show = Show(made.unit)
    drawing = hardware_stage_view(leaf, show, page=HardwarePage.GEAR)
    assert {"figure:track_needed", "figure:hanger_1", "figure:hanger_2"} <= drawing.refs()
    assert hardware_stage_view(leaf, show, page=HardwarePage.FIXINGS).texts()
    other = solve(job_edits.with_field(made, "leaf-1", "hand", Hand.LEFT if hand is Hand.RIGHT else Hand.RIGHT)).leaves[
        0
    ]
    assert other.borings == leaf.borings  # no number knows the hand
    assert other.gear == leaf.gear


@pytest.mark.parametrize(
    ("place", "wanted"),
    [
        (100.0, 19.0),  # on the middle of a stud 38 wide
        (119.0, 0.0),  # on its edge
        (120.0, -1.0),
        (300.0, -181.0),  # half way to the next
        (-50.0, -131.0),  # before the first
        (900.0, -381.0),  # beyond the last
    ],
)
def test_margin_of_a_hole_is_from_the_nearer_stud_edge(place, wanted):
    assert margin(place, (100.0, 500.0), 38.0) == pytest.approx(wanted)


def test_margin_without_a_stud_is_far_beside_and_one_stud_holds_no_track():
    assert margin(100.0, (), 38.0) < -1e6
    assert redrilled(length=1000, studs=(500.0,), apart=610.0) == ()
    assert redrilled(length=2000, studs=(100.0, 900.0, 1900.0), apart=610.0) == ()  # too far apart
    assert redrilled(length=1000, studs=(10.0, 400.0, 995.0), apart=610.0) == ()  # too near the ends


@pytest.mark.parametrize("reach", [0.0, 1e-3, 50.0])
def test_shift_never_goes_beyond_its_reach_and_stays_where_nothing_is_gained(reach):
    aligned = best_shift((100.0, 500.0), (100.0, 500.0), width=38.0, edge=6.0, reach=reach)
    assert (aligned.shift, aligned.least, aligned.hits) == (0.0, 19.0, 2)
    off = best_shift((100.0, 500.0), (300.0, 700.0), width=38.0, edge=6.0, reach=reach)
    assert abs(off.shift) <= reach + 1e-9
    assert off.hits == 0


def test_shares_outside_the_hangers_lift_one_of_them():
    left, right = shares(mass=10, first=100, second=300, centre=400)
    assert left < 0 < right
    assert right > 10 * 9.80665


def test_leaf_right_under_its_wheels_has_no_eccentric_part_and_one_beside_them_has_in_step():
    assert eccentric(share=200.0, off=0.0, apart=60.0) == 0
    assert eccentric(share=200.0, off=30.0, apart=60.0) == 2 * eccentric(share=200.0, off=15.0, apart=60.0)
    assert shares(mass=0.0, first=50, second=700, centre=375) == (0.0, 0.0)
    with pytest.raises(InputError):
        shares(mass=10.0, first=700, second=50, centre=375)
