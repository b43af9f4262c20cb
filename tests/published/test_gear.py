"""Sliding gear and fixings against the world outside: statics, a linear solver, and worked values of the trade.

Worked values are common practice, no source.
"""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import pytest
from shapely.geometry import Point, box

from oakmeasure.core.base.parsing import parse_length
from oakmeasure.core.base.prisms import block, bore, distances
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.document.hanging import Hanging, SlideChoices, track_sets
from oakmeasure.core.document.hinges import HardwareChoices
from oakmeasure.core.document.sliding_gear import Guide, GuideKind, WallChoices
from oakmeasure.core.fit.bypass_sums import bypassing, missing_backing
from oakmeasure.core.hardware.sliding.hangers import eccentric, shares
from oakmeasure.core.hardware.sliding.studs import alignment, best_shift, stud_places, track_holes
from oakmeasure.core.hardware.sliding.tracks import floor_at
from samples import solved

G = 9.80665  # m/s², standard gravity: CGPM 1901


@pytest.mark.parametrize(("kilos", "newton"), [(52.6, 258), (35.0, 172), (116 * 0.45359237, 258)])
def test_each_hanger_carries_half_of_a_leaf_that_hangs_true(kilos, newton):
    """116 lb is 52.6 kg (international pound of 1959): 258 N each; a pine slab of 35.0 kg: 172 N."""
    for bolt_in in (75.0, 38.0):  # the two usual places
        left, right = shares(mass=kilos, first=bolt_in, second=914 - bolt_in, centre=457)
        assert left == pytest.approx(right)
        assert left == pytest.approx(newton, abs=0.5)


@pytest.mark.parametrize(("first", "second", "centre"), [(75, 880, 500), (38, 917, 300), (100, 400, 450)])
def test_shares_are_what_a_linear_solver_makes_of_the_equilibrium(first, second, centre):
    wanted = np.linalg.solve(np.array([[1.0, 1.0], [first, second]]), np.array([40 * G, 40 * G * centre]))
    assert shares(mass=40, first=first, second=second, centre=centre) == pytest.approx(tuple(wanted))
    pull = np.linalg.solve(np.array([[1.0, -1.0], [60.0, 0.0]]), np.array([0.0, 172.0 * 30.0]))
    assert eccentric(share=172.0, off=30.0, apart=60.0) == pytest.approx(pull[0])


@pytest.mark.parametrize("pitch", [parse_length('16"'), 400.0, 600.0])
def test_track_drilled_at_the_pitch_of_its_studs_can_always_be_shifted_onto_them(pitch):
    holes = track_holes(length=1900, first=50, pitch=pitch)
    studs = stud_places(first=217, pitch=pitch, low=-900, high=2900)
    ours = [each for each in holes if (each - 50) % pitch < 1e-6]  # but for one drilled near the cut end
    best = best_shift(ours, studs, width=38, edge=6, reach=pitch / 2)
    assert best.hits == len(ours)
    assert best.least == pytest.approx(19)


def test_holes_400_apart_drift_off_studs_16_inches_apart_by_6_4_a_bay():
    studs = stud_places(first=130, pitch=parse_length('16"'), low=-900, high=2900)
    found = [alignment((50 + 400 * bay,), studs, width=38, edge=6, shift=80).least for bay in range(4)]
    assert [a - b for a, b in pairwise(found)] == pytest.approx([6.4] * 3)


def test_groove_cheeks_and_stand_off_of_the_trade():
    """Groove 7 × 20 for a fin; cheeks as far apart as the leaf and 6 with felt; architrave 22 and 5 of air over 19."""
    guide = Guide(kind=GuideKind.FIN)
    assert (guide.groove_width, guide.groove_depth) == (7.0, 20.0)
    assert parse_length('1/4"') < 7.0 < parse_length('5/16"')
    assert parse_length('3/4"') == pytest.approx(20, abs=1)
    cheeks = solved(
        build=Slab(thickness=38.0),
        hanging=Hanging.SLIDING,
        hardware=HardwareChoices(guide=Guide(kind=GuideKind.CHEEKS), wall=WallChoices(stud_first=50.0)),
    )
    assert cheeks.figures["guide_spacing"].value == 38 + 6
    assert missing_backing(needed=22 + 5, stand_off=19) == 8
    assert floor_at([(0, 0), (1000, -5)], 1600) == -8  # slope × distance


def test_two_leaves_on_one_rail_and_on_two_tracks():
    one = bypassing(opening=2210, side=40, centre=140, one_rail=True, roller=70, roller_in=35)
    assert (one.track, one.leaf, one.clear) == (2290, 1215, 965)
    two = bypassing(opening=1150, side=25, centre=60, one_rail=False)
    assert (two.track, two.leaf, two.clear) == (1200, 630, 545)


def test_sets_of_the_table_have_a_geometry_that_a_leaf_can_hang_on():
    for track in track_sets().values():
        assert 12 <= track.bolt_in <= 150
        assert track.hole_first < track.hole_pitch
        assert track.above >= track.hole_down
        long, wide, deep = track.plate
        assert wide < track.thickness_least
        assert long / 2 <= track.bolt_in or not deep
    made = solved(
        build=Slab(thickness=38.0),
        hanging=Hanging.SLIDING,
        slide=SlideChoices(track_set=track_sets()["marram-flat-40"]),
    )
    assert 35 <= made.figures["thickness"].value <= 45  # the thickness that such straps take


def test_prisms_are_as_far_apart_as_space_says():
    """√(face² + depth²): against points sampled on both, and Shapely in the plane alone."""
    one, other = block(0, 0, 30, 30, (0, 10)), bore(60, 30, 20, (22, 40))
    (found,) = distances([(one, other)])
    plane = box(0, 0, 30, 30).distance(Point(60, 30).buffer(10, quad_segs=256))
    assert found == pytest.approx((plane**2 + 12**2) ** 0.5, abs=1e-3)
    ring = np.radians(np.arange(0, 360, 0.5))
    near = np.array([[60 + 10 * np.cos(a), 30 + 10 * np.sin(a), 22.0] for a in ring])
    edge = np.array([[30.0, y, 10.0] for y in np.linspace(0, 30, 301)])
    sampled = np.sqrt(((near[:, None, :] - edge[None, :, :]) ** 2).sum(axis=2)).min()
    assert found == pytest.approx(sampled, abs=0.01)
