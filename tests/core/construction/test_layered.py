"""Layered leaves: layers and their pins, worked by hand."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.geometry import area
from oakmeasure.core.body.of_build import body_of
from oakmeasure.core.construction.layered.model import Layered, LayerStyle, Lipping, Pieced, PieceJoint
from oakmeasure.core.construction.layered.pins import pin_places
from oakmeasure.core.document.hinges import HardwareChoices, MortiseLock
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.check import Level
from oakmeasure.core.leaf.part import Rect
from samples import codes, solved


def part(leaf, name):
    return leaf.build.part(name)


def volume(leaf):
    return sum(each.net.volume for each in body_of(leaf.build).pieces)


def test_layered_leaf_worked_by_hand():
    """Leaf 757 × 1973: lipping 20 with a tongue of 10, stiles 110, three layers of 12, lock at 1000 over 6 of gap."""
    leaf = solved(
        build=Layered(
            lipping=Lipping.T,
            lipping_depth=20.0,
            tongue=10.0,
            trim=14.0,
            pieced=Pieced.BOTTOM_RAIL,
            piece_joint=PieceJoint.SCARF,
        )
    )
    f = leaf.figures
    assert (f["thickness"].value, f["first_stile"].value) == (36.0, 20.0)
    assert f["shoulder"].value == pytest.approx(757 - 40 - 220)
    assert f["core_width"].value == pytest.approx(757 - 40 - 20)
    assert f["lipping_width"].value == 30.0
    assert part(leaf, "hinge stile").face.x0 == 20.0
    middle = part(leaf, "middle rail").face
    assert (middle.y0, middle.y1) == (994 - 95, 994 + 95)
    assert f["bottom_rail_piece"].value == pytest.approx(497 / 2 + 12 / 2)  # half of each scarf of 45° through 12
    assert sum("bottom rail" in each.name for each in leaf.build.parts) == 4
    trims = [each for each in leaf.build.parts if each.role is Role.TRIM]
    assert len(trims) == 16  # four round each of two fields on two faces
    assert sorted({round(each.finished.length) for each in trims}) == sorted({497, 689, 1973 - 110 - 1089})
    by_hand = (
        697 * 1973 * 12
        + 2 * 12 * (2 * 110 * 1973 + 497 * (110 + 190 + 210))
        + 2 * 1973 * (20 * 36 + 10 * 12)
        + sum(area(each.shape) * 9 for each in trims)
    )
    assert volume(leaf) == pytest.approx(by_hand, rel=1e-9)
    assert f["pin_length"].value == 20.0  # 2 short of two layers of 12
    moves = 2 * 20 * f["movement"].value + (757 - 2 * 20) * 0.0002  # lippings as wood, ply as a sheet
    assert f["leaf_change_wet"].value == pytest.approx(moves * (f["moisture_wet"].value - 10))
    assert f["sheets"].value == 2
    assert {each.species for each in leaf.build.parts} == {"ply_birch", "european_oak"}


def test_three_full_layers_of_half_an_inch():
    leaf = solved(build=Layered(style=LayerStyle.FULL, core=12.7, face=12.7, lipping=Lipping.NONE))
    assert leaf.figures["thickness"].value == pytest.approx(38.1)
    assert len(leaf.build.parts) == 3
    assert volume(leaf) == pytest.approx(757 * 1973 * 38.1)
    assert "edges-bare" in codes(leaf, Level.WARNING)
    points = leaf.figures["moisture_wet"].value - leaf.figures["moisture_made"].value
    assert leaf.figures["leaf_change_wet"].value == pytest.approx(757 * 0.0002 * points)  # ply, 0.02 % a point


def test_pins_that_would_meet_the_lock_or_a_hinge_are_refused_and_all_others_driven():
    lock = HardwareChoices(lock=MortiseLock(case_depth=90.0, case_height=160.0))
    leaf = solved(build=Layered(stile=120.0), hardware=lock)
    driven, refused = leaf.build.fixings, leaf.build.refused
    members = [each for each in leaf.build.parts if each.depth == (0.0, 12.0) and each.role is not Role.LIPPING]
    assert len(driven) + len(refused) == sum(len(pin_places(each.face, 150.0)) for each in members)
    assert refused
    butts = [place.rect for place in leaf.butts.places]

    def is_met(each):
        lock_met = each.x > 757 - 90 - 8 - 1e-9 and abs(each.y - 994) <= 88 + 1e-9
        return lock_met or any(each.x <= 48 and b.y0 - 8 <= each.y <= b.y1 + 8 for b in butts)

    assert all(map(is_met, refused))
    assert not any(map(is_met, driven))
    assert "pins-refused" in codes(leaf)


@given(st.floats(40, 300), st.floats(40, 2000), st.floats(60, 400))
def test_pins_stay_inside_their_member_and_no_further_apart_than_asked(wide, tall, every):
    places = pin_places(Rect(0, 0, wide, tall), every)
    assert all(20 - 1e-6 <= x <= wide - 20 + 1e-6 and 20 - 1e-6 <= y <= tall - 20 + 1e-6 for x, y in places)
    for axis in (0, 1):
        lines = sorted({round(each[axis], 6) for each in places})
        assert all(b - a <= every + 1e-6 for a, b in itertools.pairwise(lines))
