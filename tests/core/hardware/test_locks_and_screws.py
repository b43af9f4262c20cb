"""Locks, pulls, screws, packets and templates: worked by hand, mirrored, contradicted."""

from __future__ import annotations

import csv
import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.layered.model import Layered, Lipping
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.document.hanging import Hanging, PairChoices
from oakmeasure.core.document.hinges import (
    HardwareChoices,
    MortiseLock,
    PacketButt,
    Pull,
    PullKind,
    RouterTemplate,
    Screws,
    butt_from_table,
)
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.hardware.hardware_view import hardware_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.hardware.hinges.mortise_depth import withdrawal
from oakmeasure.core.hardware.hinges.screws import latch_corner_moves, misuse_pull, pilot
from oakmeasure.core.solver import solve
from oakmeasure.files.tables import lists as tables
from samples import assert_sums, codes, job, said, solved


def cut(leaf):
    return {each.name: each for each in leaf.borings}


def test_lock_is_cut_on_leaf_and_lining_a_head_gap_apart():
    """Leaf 1973, lock 1000 above a floor 6 under it: 994 up, 979 down, 981 on the lining under a head gap of 2."""
    lock = MortiseLock(case_height=150.0, forend_length=200.0, backset=57.0)
    leaf = solved(build=Framed(middle_rail=None), hardware=HardwareChoices(lock=lock))
    found = cut(leaf)
    assert leaf.figures["lock_down"].value == 979
    assert (found["lock mortise"].from_top, found["lock mortise"].to) == (904, 1054)
    assert (found["lock mortise"].along, found["lock mortise"].depth) == (150, 76)
    assert found["lock keep"].from_top == found["lock forend"].from_top + 2
    assert (found["spindle hole"].across, found["keyhole"].across) == (57, 57)
    assert found["keyhole"].from_top == 979 + 57 - 8
    assert {each.member for each in leaf.other_borings} == {"latch stile", "latch lining leg"}
    assert_sums(leaf)


def test_every_construction_takes_a_lock_and_a_pull_and_draws_them():
    chosen = HardwareChoices(lock=MortiseLock(), pull=Pull(kind=PullKind.BAR, centres=224.0, up=1100.0))
    for build in (Framed(), Slab(), Layered(lipping=Lipping.PLAIN, lipping_depth=20.0), Existing()):
        leaf = solved(build=build, hardware=chosen)
        found = cut(leaf)
        assert found["pull hole 2"].from_top - found["pull hole 1"].from_top == 224
        drawn = {each.ref for each in hardware_view(leaf, Show()).shapes}
        assert {"lock:mortise", "pull hole:1"} <= {each.ref for each in leaf.other_borings}
        assert {each.ref for each in leaf.other_borings if "lining" not in each.member} <= drawn


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"lock": MortiseLock(backset=80.0, case_depth=76.0)}, "lock-contradicts"),
        ({"pull": Pull(kind=PullKind.BAR, up=2300.0)}, "pull-out"),
        ({"pull": Pull(kind=PullKind.FLUSH, recess_deep=40.0)}, "pull-deep"),
        ({"template": RouterTemplate(bush=10.0, cutter=12.0)}, "template"),
        ({"tops": (100.0, 150.0, 1800.0)}, "butts-by-hand"),
    ],
)
def test_hardware_that_contradicts_itself_is_a_stop_mended_by_its_click(change, code):
    made = job(hardware=HardwareChoices(**change), build=Framed(thickness=42.0))
    stop = said(solve(made).leaves[0], code)
    assert stop.level is Level.STOP
    for remedy in (each for each in stop.remedies if each.path):
        assert code not in codes(solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0], Level.STOP), (
            remedy.text
        )


def test_rating_of_zero_is_refused_and_a_lock_in_a_hollow_leaf_is_a_stop():
    with pytest.raises(InputError, match="needs"):
        job_edits.with_field(job(), "leaf-1", "hardware.butt.rating_kg", 0.0)
    hollow = Existing(inside=Inside.HOLLOW)
    leaf = solved(build=hollow, hardware=HardwareChoices(lock=MortiseLock()))
    assert "lock-hollow" in codes(leaf, Level.STOP)
    blocks = solved(build=Existing(), hardware=HardwareChoices(lock=MortiseLock()))
    assert "lock-hollow" in codes(blocks, Level.WARNING)


def test_hinges_of_a_packet_have_letters_their_own_depths_and_a_template_for_the_largest():
    packet = (
        PacketButt(length=100.0, width=30.0, closed_thickness=5.5),
        PacketButt(length=100.4, width=30.2, closed_thickness=5.7),
        PacketButt(length=99.8, width=30.0, closed_thickness=5.4),
    )
    leaf = solved(hardware=HardwareChoices(packet=packet, template=RouterTemplate(bush=17.0, cutter=12.0)))
    f = leaf.figures
    assert [f[f"packet_{at}_depth"].value for at in (1, 2, 3)] == pytest.approx([1.75, 1.85, 1.7])
    assert f["packet_spread"].value == pytest.approx(0.3)
    assert "B 5.7" in said(leaf, "packet").sentence
    assert f["template_length"].value == pytest.approx(100.4 + 5)
    assert f["template_width"].value == pytest.approx(f["butt_across"].value + 2.5)
    two = solved(hardware=HardwareChoices(packet=packet[:2]))
    assert "packet-few" in codes(two, Level.WARNING)
    tight = solved(hardware=HardwareChoices(packet=packet, template=RouterTemplate(bush=10.0, cutter=10.0)))
    assert "template" in codes(tight, Level.STOP)


@given(st.floats(0.3, 0.9), st.floats(2, 8), st.floats(5, 60))
def test_withdrawal_grows_with_the_square_of_gravity_and_in_step_with_size(gravity, diameter, thread):
    one = withdrawal(gravity=gravity, diameter=diameter, thread=thread)
    assert withdrawal(gravity=gravity, diameter=2 * diameter, thread=thread) == pytest.approx(2 * one)
    assert withdrawal(gravity=gravity / 2, diameter=diameter, thread=thread) == pytest.approx(one / 4)
    assert pilot(diameter=diameter, gravity=gravity) < 0.68 * diameter
    assert misuse_pull(mass=20, width=800, spacing=1500) > misuse_pull(mass=20, width=700, spacing=1500)


@pytest.mark.parametrize(
    ("call", "bad"),
    [
        (withdrawal, {"gravity": 0.0, "diameter": 4.0, "thread": 20.0}),
        (withdrawal, {"gravity": 0.5, "diameter": 4.0, "thread": 0.0}),
        (misuse_pull, {"mass": 1.0, "width": 1.0, "spacing": 0.0}),
        (latch_corner_moves, {"by": 1.0, "width": 1.0, "spacing": 0.0}),
    ],
)
def test_loads_refuse_what_cannot_be(call, bad):
    with pytest.raises(InputError):
        call(**bad)


def test_screws_are_judged_in_the_wood_that_they_bite_and_refused_in_the_edge_of_a_sheet():
    leaf = solved(hardware=HardwareChoices(butt=butt_from_table("brock-100")))
    f = leaf.figures
    assert "screws-hold" in codes(leaf, Level.OK)
    assert f["screws_work"].value == pytest.approx(f["screw_bears"].value * 4 / 6)
    assert f["packing_lifts"].value == pytest.approx(757 / f["butt_spacing"].value)
    bare = solved(build=Layered(lipping=Lipping.NONE))
    assert "screws-sheet" in codes(bare, Level.WARNING)
    assert "screws_work" not in bare.figures


def test_short_screws_in_a_wide_low_leaf_draw_and_longer_ones_hold():
    short = Screws(diameter=2.5, length=12.0, count=2)
    hardware = HardwareChoices(butt=butt_from_table("brock-100"), screws=short)
    made = job(1100.0, 900.0, build=Slab(), hardware=hardware)
    stop = said(solve(made).leaves[0], "screws-hold")
    assert stop.level is Level.STOP
    mended = solve(job_edits.with_remedy(made, "leaf-1", stop.remedies[0])).leaves[0]
    assert "screws-hold" not in codes(mended, Level.STOP)
    assert mended.figures["screws_work"].value >= mended.figures["top_hinge_pull"].value


@given(st.sampled_from(Hand), st.floats(60, 110), st.floats(850, 1150))
def test_mirror_of_a_mirror_is_the_same_and_no_number_knows_the_hand(hand, stile, lock):
    chosen = HardwareChoices(lock=MortiseLock(case_depth=50.0, backset=30.0), pull=Pull(kind=PullKind.FLUSH))
    made = job(build=Framed(stile=stile, lock_height=lock), hand=hand, hardware=chosen)
    one = solve(made).leaves[0]
    other = Hand.LEFT if hand is Hand.RIGHT else Hand.RIGHT
    mirrored = solve(job_edits.with_field(made, "leaf-1", "hand", other)).leaves[0]
    again = solve(
        job_edits.with_field(job_edits.with_field(made, "leaf-1", "hand", other), "leaf-1", "hand", hand)
    ).leaves[0]
    assert mirrored.borings == one.borings == again.borings
    assert hardware_view(again, Show()).shapes == hardware_view(one, Show()).shapes
    spans = [
        sorted(
            (
                round(x, 6)
                for shape in hardware_view(leaf, Show()).shapes
                if shape.ref == "lock:mortise"
                for x, _ in shape.points
            )
        )
        for leaf in (one, mirrored)
    ]
    width = one.build.width
    assert spans[0] == pytest.approx(sorted(width - x for x in spans[1]))


def test_pair_lists_every_cut_for_both_hands():
    made = job(1500.0, 2040.0, hanging=Hanging.PAIR, pair=PairChoices(meeting=3.0))
    solution = solve(made)
    rows = list(csv.DictReader(io.StringIO(tables.boring_list_csv(solution))))
    hands = {row["hand"] for row in rows}
    assert hands == {"hinges left", "hinges right"}
    by_hand = [[{**row, "hand": ""} for row in rows if row["hand"] == hand] for hand in sorted(hands)]
    assert by_hand[0] == by_hand[1]
    assert len(rows) == 2 * len(solution.leaves[0].borings)
