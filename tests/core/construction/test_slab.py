"""Slabs of strips: worked by hand, filling their width, stiffeners whose screws find room, glue-ups in groups."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.slab.build import slot_length, strip_count
from oakmeasure.core.construction.slab.checks import glue_stages
from oakmeasure.core.construction.slab.joint_places import tenon_places
from oakmeasure.core.construction.slab.model import Slab, SlabGlue, SlabJoint, Stiffener
from oakmeasure.core.document.construction_model import LaidBoard
from oakmeasure.core.document.roles import Role
from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.leaf.part_factory import SCREW_SHORT_OF, screw_for
from oakmeasure.core.solver import solve
from samples import codes, job, said, solved


def faces(leaf, role):
    found = sorted((part.face for part in leaf.build.parts if part.role is role), key=lambda each: (each.x0, each.y0))
    return [(each.x0, each.x1, each.y0, each.y1) for each in found]


def test_slab_worked_by_hand():
    """757 × 1973 in 140s at most: six of 126.167; battens 637 less shrinkage; screws round in the middle only."""
    build = Slab(thickness=40.0, strip=140.0, stiffener_in=60.0, stiffeners=2, stiffener_end=250.0)
    leaf = solved(762.0, 1981.0, build=build)
    f = leaf.figures
    strips = [part for part in leaf.build.parts if part.role is Role.STRIP]
    assert [part.finished.width for part in strips] == pytest.approx([757 / 6] * 6)
    assert strips[0].planed.width == pytest.approx(757 / 6 + f["trim_side"].value)
    shrink = 757 * f["movement"].value * (f["moisture_made"].value - f["moisture_dry"].value)
    assert f["stiffener_length"].value == pytest.approx(757 - 120 - shrink)
    assert f["season"].value == pytest.approx(
        757 * f["movement"].value * (f["moisture_wet"].value - f["moisture_dry"].value)
    )
    assert [each.slotted for each in leaf.build.fixings] == [True, True, False, True, True] * 2
    middle = [each.x for each in leaf.build.fixings if not each.slotted]
    assert middle == pytest.approx([757 / 2] * 2)
    assert tenon_places(height=1973, every=300)[0] == 100.0


@given(
    st.floats(300, 1300),
    st.floats(600, 2400),
    st.floats(60, 300),
    st.sampled_from(SlabJoint),
    st.sampled_from(SlabGlue),
    st.sampled_from(Stiffener),
    st.integers(2, 5),
)
@settings(max_examples=40)
def test_strips_fill_the_slab_and_every_stop_is_mended_by_its_remedy(width, height, strip, joint, glue, kept, count):
    made = job(width, height, build=Slab(strip=strip, joint=joint, glue=glue, stiffener=kept, stiffeners=count))
    leaf = solve(made).leaves[0]
    strips = faces(leaf, Role.STRIP)
    assert strips[0][0] == 0.0
    assert strips[-1][1] == pytest.approx(leaf.build.width)
    assert all(each.net.volume > 0 for each in leaf.body.pieces)
    assert 0 < leaf.figures["centre_across"].value < leaf.build.width
    assert leaf_view(leaf, Show()).shapes
    for check in leaf.checks:
        for remedy in (each for each in check.remedies if each.path):
            mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
            assert check.level is not Level.STOP or check.code not in codes(mended, Level.STOP), remedy.text


def test_old_boards_make_their_width_or_say_what_is_missing():
    old = tuple(LaidBoard(width=each) for each in (212.0, 187.0, 231.0, 198.0))
    leaf = solved(795.0, 1948.0, build=Slab(measured=old))
    assert leaf.figures["boards_laid"].value == 828
    assert leaf.figures["strip_1"].value == pytest.approx(212 - 19)  # 38 off, half at each edge
    made = job(900.0, 1948.0, build=Slab(measured=old))
    stop = said(solve(made).leaves[0], "strips-short")
    assert "strips-short" not in codes(solve(job_edits.with_remedy(made, "leaf-1", stop.remedies[0])).leaves[0])


@pytest.mark.parametrize(
    ("strips", "at_once", "stages"), [(1, 3, 0), (2, 3, 1), (3, 3, 1), (4, 3, 2), (9, 3, 4), (10, 3, 5)]
)
def test_glue_ups_are_counted_group_by_group(strips, at_once, stages):
    assert glue_stages(strips=strips, at_once=at_once) == stages


@given(st.floats(100, 1500), st.floats(40, 400), st.floats(0, 8))
def test_fewest_strips_reach_and_one_less_would_not(width, strip, shoot):
    count = strip_count(width=width, strip=strip, shoot=shoot)
    assert count * strip - (count - 1) * shoot >= width - 1e-6
    assert count == 1 or (count - 1) * strip - (count - 2) * shoot < width + 1e-6


def test_slot_grows_from_the_middle_and_the_screw_never_comes_through():
    lengths = [slot_length(moves=12.0, from_middle=x, width=900.0) for x in (0, 150, 300, 450)]
    assert lengths == sorted(lengths)
    assert lengths[0] == 5.0
    assert screw_for(15.0) is None
    assert all(screw_for(total) <= total - 3 for total in range(16, 90))
    assert math.isclose(screw_for(40.0), 32.0)


SCREWED = [each for each in Stiffener if each not in (Stiffener.NONE, Stiffener.NAILED)]


@given(st.sampled_from(SCREWED), st.floats(28, 60), st.floats(12, 40))
def test_screws_of_a_slab_stay_behind_its_face_or_it_says_that_none_is_short_enough(stiffener, thickness, deep):
    made = solved(build=Slab(thickness=thickness, stiffener=stiffener, stiffener_thickness=deep))
    screws = [each for each in made.build.fixings if each.what == "screws"]
    assert screws
    if "no-screw" in codes(made):
        assert not any(each.length for each in screws)
        return
    assert all(each.length > 0 and each.depth[0] >= SCREW_SHORT_OF - 1e-9 for each in screws)


def test_shallower_channels_leave_room_for_a_screw():
    deep = job(build=Slab(thickness=30.0, stiffener=Stiffener.CHANNELS, stiffener_thickness=17.0))
    said = next(each for each in solve(deep).leaves[0].checks if each.code == "no-screw")
    assert said.level is Level.STOP
    mended = solve(job_edits.with_remedy(deep, "leaf-1", said.remedies[0])).leaves[0]
    assert "no-screw" not in codes(mended)
