"""Runs of leaves lined up, leaves out of their plane, sliding leaves: what is turned, moved and looked at, in order."""

from __future__ import annotations

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.units import IN_MM
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.document.adjustment import Gaps, HungChoices, RunLeaf, Sliding
from oakmeasure.core.document.hanging import Hanging, SlideChoices, track_sets
from oakmeasure.core.document.readings import FloorAlong, FloorPoint, FloorReadings, Reading
from oakmeasure.core.figures.check import Level
from oakmeasure.core.hanging.gap_remedy import GapPlace, HungFrame, moved
from oakmeasure.core.hanging.remedy import SIDE_RANGE, across_steps
from oakmeasure.core.hanging.rigid import Motion
from oakmeasure.core.hanging.run import line_up
from oakmeasure.core.hanging.sliding import hanger_turns, last_settings, looks
from samples import codes, solved

HEIGHT = 1981.0
FRAME = HungFrame(762.0, HEIGHT, (1800.0, 1000.0, 250.0), 2.0, 1.0)


def crooked_run(source: random.Random, count: int, width: float, height: float, gap: float):
    """A run that was level with equal gaps and was then turned and shifted, each leaf by itself."""
    turn = [source.uniform(-0.003, 0.003) for _ in range(count)]
    shift = [source.uniform(-0.8, 0.8) for _ in range(count)]
    low = [source.uniform(-2, 2) for _ in range(count)]
    leaves = []
    for n in range(count):
        gaps = {}
        if n < count - 1:
            for name, up in (("gap_top", height / 2), ("gap_bottom", -height / 2)):
                here, there = shift[n] - turn[n] * up, shift[n + 1] - turn[n + 1] * up
                gaps[name] = gap + there - here
        leaves.append(
            RunLeaf(low_left=low[n], low_right=low[n] - turn[n] * width, proud_top=source.uniform(-1, 1), **gaps)
        )
    return leaves


def test_a_run_of_eight_is_lined_up_heights_sides_and_depth():
    for seed in range(12):
        run = crooked_run(random.Random(seed), 8, 412.0, 536.0, 16.0)
        plan = line_up(run, width=412.0, height=536.0, spread=332.0)
        assert plan.worst_height < 1e-6
        assert plan.worst_gap < 0.02
        assert not plan.short
        for each, turned in zip(run, plan.leaves, strict=True):
            assert turned.up == pytest.approx(each.low_left)
            assert turned.up + turned.rises == pytest.approx(each.low_right)
            assert turned.depth_top == pytest.approx(-each.proud_top)
            assert abs(turned.across) + abs(turned.rises) / 412.0 * 332.0 / 2 <= SIDE_RANGE + 1e-6
        gaps = [g for each in plan.leaves[:-1] for g in (each.gap_top, each.gap_bottom)]
        assert max(gaps) - min(gaps) < 0.05


def test_a_run_that_is_further_out_than_its_screws_says_which_leaf_and_why():
    run = [
        RunLeaf(low_left=0.0, low_right=0.0, gap_top=3.0, gap_bottom=3.0),
        RunLeaf(low_left=8.0, low_right=8.0, proud_top=3.5),
        RunLeaf(low_left=0.0, low_right=6.0),
    ]
    plan = line_up(run, width=412.0, height=536.0, spread=332.0)
    words = " ".join(plan.short)
    assert "leaf 2 stands" in words
    assert "leaf 2 is 3.5 out at its top" in words
    assert "leaf 3 leans more" in words
    assert line_up([], width=1.0, height=1.0, spread=1.0) is None


@given(top=st.floats(-4, 4), foot=st.floats(-4, 4))
def test_a_leaf_out_of_its_plane_lies_in_it_once_hinges_and_stop_are_moved(top, foot):
    steps = across_steps(proud_top=top, proud_bottom=foot, hinges=FRAME.hinges, height=HEIGHT)
    hinges = next((each for each in steps if each.kind == "across"), None)
    stop = sum(each.amount for each in steps if each.kind == "stop")
    lean = 0.0
    if hinges is not None:
        top_goes_in = "move the top hinge" in hinges.words
        assert top_goes_in is (top > foot)
        lean = (-2 if top_goes_in else 2) * hinges.amount * HEIGHT / (FRAME.hinges[0] - FRAME.hinges[-1])
    for proud, turned in ((top, lean / 2), (foot, -lean / 2)):
        assert abs(proud + turned - stop) <= 0.3 + 0.15 + 1e-9


def test_a_leaf_that_lies_in_its_plane_is_left_so_and_one_that_does_not_is_told_before_the_plane():
    assert across_steps(proud_top=0.2, proud_bottom=-0.05, hinges=FRAME.hinges, height=HEIGHT) == ()
    twisted = solved(
        hung=HungChoices(
            gaps=Gaps(latch_top=0.0, latch_bottom=5.0, hinge_top=2.0, hinge_bottom=2.0, proud_top=2.0, proud_bottom=0.0)
        )
    )
    kinds = [each.kind for each in twisted.hung.leaves[0].least_wood]
    assert {"across", "stop"} <= set(kinds)
    assert "plane" not in kinds[: kinds.index("stop")]


@given(lean=st.floats(-6, 6))
def test_a_sliding_leaf_turned_by_its_hanger_stands_parallel_to_its_jamb(lean):
    height, apart = 2000.0, 800.0
    level = hanger_turns(Sliding(jamb_top=8.0 + lean, jamb_bottom=8.0), height=height, apart=apart)
    turned = Motion(0.0, 0.0, level.latch_up / apart)
    gaps = [moved(GapPlace("latch", "", y, gap, 0.0), turned) for y, gap in ((height, 8.0 + lean), (0.0, 8.0))]
    assert gaps[0] == pytest.approx(gaps[1])


def test_what_binds_is_looked_at_in_its_order_before_any_hole():
    found = looks(
        Sliding(rail_rises=5.0, rail_bowed=0.4, guide_rubs=4.0, wheels_stiff=True), track=1900.0, floor_rises=1.0
    )
    assert [each.what.partition(":")[0] for each in found] == [
        "the floor along its way",
        "the rail",
        "the rail",
        "the guide",
        "the wheels",
    ]
    assert [each.fine for each in found] == [True, False, True, False, False]
    unknown = looks(Sliding(), track=1900.0, floor_rises=None)
    assert all(each.fine is None for each in unknown)
    slid = solved(
        hanging=Hanging.SLIDING, hung=HungChoices(sliding=Sliding(rail_rises=-6.0, jamb_top=6.0, jamb_bottom=2.0))
    )
    assert "hang-binds" in codes(slid, Level.WARNING)
    assert "hang-jamb" in codes(slid, Level.WARNING)
    assert hanger_turns(Sliding(jamb_top=3.0), height=2000.0, apart=800.0) is None


def test_wheel_shims_and_stops_come_last_as_the_gear_has_them():
    falls = FloorReadings(
        along=FloorAlong.TRAVEL,
        travel=tuple(FloorPoint(at=at, height=Reading(value=-0.005 * at)) for at in (0.0, 1800.0)),
    )
    leaf = solved(905.0, 2095.0, hanging=Hanging.FLOOR_GEAR, build=Slab(thickness=38.0), floor=falls)
    last = {each.what.partition(":")[0]: each.found for each in leaf.hung.looks}
    assert last["the wheels' track"] == ", ".join(IN_MM.fine(each.value) for each in leaf.gear.shims)
    assert last["the wheels' track"].startswith("0, ")
    on_wall = solved(905.0, 2095.0, hanging=Hanging.SLIDING, build=Slab(thickness=38.0))
    last = {each.what: each.found for each in on_wall.hung.looks}
    assert f"open at {IN_MM.length(on_wall.figures['stop_open'].value)} from" in last["the stops"]
    assert not any(what.startswith("the wheels' track") for what in last)
    assert last_settings((), None) == ()
    assert "level" in last_settings((0.0, 0.0), None)[0].found


def test_the_proof_load_comes_before_the_leaf_and_can_be_answered_for():
    track = next(each for each in track_sets().values() if Hanging.SLIDING in each.ways)
    more = {"hanging": Hanging.SLIDING, "slide": SlideChoices(track_set=track)}
    read = Sliding(jamb_top=3.0, jamb_bottom=3.0)
    leaf = solved(hung=HungChoices(sliding=read), **more)
    assert "hang-proof" in codes(leaf, Level.STOP)
    held = solved(hung=HungChoices(sliding=read, proof_held=True), **more)
    assert "hang-proof" in codes(held, Level.OK)
