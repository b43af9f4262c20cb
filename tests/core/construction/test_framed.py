"""Frames of any rows: parts that fill them, arches, glass, locks, tenons; what cannot be built is said and mended."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon
from shapely.ops import unary_union

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.framed.joints import RailJoint, rail_tenons
from oakmeasure.core.construction.framed.model import FieldRow, Framed, Infill, TenonKind
from oakmeasure.core.construction.framed.patterns import PATTERNS, pattern_of, with_pattern
from oakmeasure.core.document import field_path
from oakmeasure.core.document.hanging import Hanging, LeafShape
from oakmeasure.core.document.hinges import HardwareChoices, MortiseLock
from oakmeasure.core.document.job import Climate, FitChoices, TimberChoices
from oakmeasure.core.document.readings import HeadKind, HeadShape
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.rules import rule_set_names
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solver import solve
from samples import codes, framed, job, readings, said, solved


def test_six_panels_worked_by_hand():
    """757 × 1973, stiles 95: 567 between shoulders, 236 each of two; lock rail at 1000 − 6; the rest 1 to 0.45."""
    leaf = solved(762.0, 1981.0, build=with_pattern(Framed(), "six"))
    f, build = leaf.figures, leaf.build
    assert f["sight_width"].value == pytest.approx((567 - 95) / 2)
    assert f["sight_height_bottom"].value == pytest.approx(1000 - 6 - 90 - 200)
    rest = 1973 - 95 - (994 + 90) - 95
    assert f["sight_height_middle"].value == pytest.approx(rest / 1.45)
    assert f["sight_height_top"].value == pytest.approx(rest * 0.45 / 1.45)
    rails = sorted((part.face for part in build.parts if part.role is Role.RAIL), key=lambda each: each.y0)
    assert [round(each.height, 3) for each in rails] == [200, 180, 95, 95]
    assert rails[1].y0 == pytest.approx(904)
    assert sum(part.role is Role.PANEL for part in build.parts) == 6
    assert sum(part.role is Role.MUNTIN for part in build.parts) == 3


rows = st.lists(
    st.builds(
        FieldRow,
        columns=st.integers(1, 4),
        share=st.floats(0.3, 3),
        infill=st.sampled_from(Infill),
        height=st.none() | st.floats(120, 300),
    ),
    min_size=1,
    max_size=4,
)


@given(rows, st.floats(700, 1100), st.floats(1900, 2300), st.sampled_from(TenonKind), st.integers(0, 3) | st.none())
@settings(max_examples=40)
def test_any_rows_fill_the_leaf_exactly_and_their_volumes_are_positive(found, width, height, tenon, lock):
    build = Framed(rows=tuple(found), tenon=tenon, lock_rail=lock, middle_rail=150.0, muntin=50.0, other_rail=70.0)
    leaf = solved(width, height, build=build)
    if codes(leaf, Level.STOP):
        return
    made = leaf.build
    faces = [Polygon(part.corners) for part in made.parts]
    whole = unary_union(faces)
    assert whole.area == pytest.approx(made.width * made.height, rel=1e-9)
    assert sum(each.area for each in faces) == pytest.approx(whole.area, rel=1e-9)
    assert all(each.net.volume > 0 for each in leaf.body.pieces)
    assert len({part.name for part in made.parts}) == len(made.parts)
    rails = sorted((part.face for part in made.parts if part.role is Role.RAIL), key=lambda each: each.y0)
    assert all(high.y0 >= low.y1 for low, high in pairwise(rails))
    other = field_path.with_value(job(width, height, build=build), "unit", UnitSystem.INCH)
    assert [part.finished for part in solve(other).leaves[0].build.parts] == [part.finished for part in made.parts]


def test_patterns_are_known_again_and_keep_the_widths_of_their_members():
    for key in PATTERNS:
        made = with_pattern(Framed(middle_rail=222.0, muntin=66.0), key)
        assert pattern_of(made) == key
        assert made.middle_rail in (222.0, None)
        assert solved(build=made).build is not None
    assert pattern_of(Framed(rows=(FieldRow(columns=3), FieldRow(columns=3), FieldRow(columns=3)))) == ""


def test_unequal_columns_share_what_the_muntins_leave():
    leaf = solved(build=Framed(rows=(FieldRow(columns=3, widths=(1, 2, 1)),), muntin=40.0))
    sights = [leaf.figures[f"sight_width_{at}"].value for at in (1, 2, 3)]
    assert sights == pytest.approx([(567 - 80) / 4, (567 - 80) / 2, (567 - 80) / 4])
    widths = [part.finished.width for part in leaf.build.parts if part.role is Role.PANEL]
    assert widths[1] > widths[0]
    assert leaf.figures["panel_hold_2"].value < leaf.figures["panel_hold_1"].value  # the wider one moves more


def test_arched_top_rail_and_the_panel_under_it_meet_along_the_arch():
    leaf = framed(arch_rise=60.0, muntin=None)
    rail, panel = leaf.build.part("top rail"), leaf.build.part("upper panel")
    span = leaf.figures["shoulder"].value
    assert leaf.figures["arch_radius"].value == pytest.approx((span**2 / 4 + 60**2) / 120)
    assert rail.finished.width == pytest.approx(95 + 60)
    assert Polygon(rail.shape).intersection(Polygon(panel.shape)).area < 1.0
    assert max(y for _, y in panel.shape) == pytest.approx(leaf.build.height - 95, abs=0.01)
    both = Polygon(panel.shape).union(Polygon(rail.shape)).area
    assert both == pytest.approx(span * (leaf.build.height - panel.face.y0), rel=1e-6)
    high = job(build=Framed(arch_rise=400.0))
    stop = said(solve(high).leaves[0], "arch")
    assert "arch" not in codes(solve(job_edits.with_remedy(high, "leaf-1", stop.remedies[0])).leaves[0], Level.STOP)


def test_glass_weighs_as_glass_has_its_caution_and_comes_out_of_no_board():
    leaf = solved(build=with_pattern(Framed(), "glazed_top"))
    size = leaf.build.part("upper pane").finished
    assert leaf.weights.parts["upper pane"].value == pytest.approx(size.length * size.width * 6 * 2500 / 1e9)
    assert size.width == pytest.approx(567 + 2 * 12 - 2 * 3)
    assert "local code" in said(leaf, "glass").rule
    cut = {piece.piece.part for group in leaf.plan.groups for board in group.plan.boards for piece in board.pieces}
    assert "upper pane" not in cut


def test_lock_case_that_meets_a_tenon_is_a_stop_and_a_deep_backset_widens_the_stile():
    clear = solved(hardware=HardwareChoices(lock=MortiseLock()))  # the default door with the default lock has no stop
    assert not codes(clear, Level.STOP)
    up, tall = clear.figures["lock_up"].value, clear.leaf.hardware.lock.case_height
    tenons = [each.rect for each in clear.build.tenons if each.into == "latch stile" and not each.is_haunch]
    assert all(up + tall / 2 <= each.y0 or up - tall / 2 >= each.y1 for each in tenons)
    assert abs(up + clear.figures["gap_floor"].value - 1000.0) < 200.0
    hit = solved(hardware=HardwareChoices(lock=MortiseLock(case_height=350.0)))
    assert said(hit, "lock-tenon").level is Level.STOP
    low = solved(600.0, 900.0, build=Framed(middle_rail=None), hardware=HardwareChoices(lock=MortiseLock()))
    assert low.figures["lock_up"].value == pytest.approx(low.build.height / 2)
    assert not codes(low, Level.STOP)
    small = HardwareChoices(lock=MortiseLock(case_height=50.0))
    assert said(solved(hardware=small), "lock").level is Level.OK  # it stands between the two tenons
    made = job(hardware=HardwareChoices(lock=MortiseLock(backset=90.0, case_height=50.0)))
    stop = said(solve(made).leaves[0], "lock-backset")
    assert "lock-backset" not in codes(solve(job_edits.with_remedy(made, "leaf-1", stop.remedies[0])).leaves[0])


@pytest.mark.parametrize("kind", list(TenonKind))
def test_every_joint_has_its_rail_its_list_and_its_word(kind):
    leaf = framed(tenon=kind)
    f = leaf.figures
    rail = leaf.build.part("middle rail")
    reach = 2 * f["tenon"].value if kind.is_whole else 0.0
    assert rail.finished.length == pytest.approx(f["shoulder"].value + reach)
    mine = [each for each in leaf.build.tenons if each.member == "middle rail"]
    assert bool(mine) is (kind is not TenonKind.POCKET)
    assert all(each.rect.x0 >= 0 and each.rect.x1 <= leaf.build.width for each in mine)
    assert all(rail.face.y0 - 1e-6 <= each.rect.y0 and each.rect.y1 <= rail.face.y1 + 1e-6 for each in mine)
    if kind in (TenonKind.LOOSE, TenonKind.DOWELS, TenonKind.POCKET):
        assert rail.note
    look = [each for each in leaf.checks if each.code == "joint-weak"]
    assert bool(look) is (kind in (TenonKind.POCKET, TenonKind.HALF_LAP))
    for each in look:
        assert "joint-weak" not in codes(
            solve(job_edits.with_remedy(job(build=Framed(tenon=kind)), "leaf-1", each.remedies[0])).leaves[0]
        )


def test_short_tenons_and_thin_leaves_for_their_lock_are_mended_by_one_click():
    narrow = job(build=Framed(stile=45.0))
    look = said(solve(narrow).leaves[0], "tenon-short")
    assert "tenon-short" not in codes(solve(job_edits.with_remedy(narrow, "leaf-1", look.remedies[0])).leaves[0])
    thin = job(build=Framed(thickness=28.0), hardware=HardwareChoices(lock=MortiseLock(case_height=50.0)))
    look = said(solve(thin).leaves[0], "lock-thin")
    assert "lock-thin" not in codes(solve(job_edits.with_remedy(thin, "leaf-1", look.remedies[0])).leaves[0])


RAKED = {
    "readings": readings(
        width_top=580.0,
        width_bottom=580.0,
        height_hinge=640.0,
        height_latch=848.0,
        diagonal_rising=1027.5,
        diagonal_falling=864.0,
    ),
    "head": HeadShape(kind=HeadKind.RAKED),
    "hanging": Hanging.INSET_BUTTS,
    "fit": FitChoices(shape=LeafShape.SCRIBED),
}


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


def test_raked_top_rail_is_longer_by_its_slope_and_stands_square_to_it():
    leaf = solved(build=CUPBOARD, **RAKED)
    rail = leaf.build.part("top rail")
    (hx, hy), (lx, ly) = rail.shape[0], rail.shape[1]
    slope = math.atan2(ly - hy, lx - hx)
    shoulder = leaf.figures["shoulder"].value
    tenons = leaf.figures["rail_length"].value - shoulder
    assert rail.finished.length == pytest.approx(
        shoulder / math.cos(slope) + rail.finished.width * math.tan(slope) + tenons * math.cos(slope), abs=0.5
    )
    assert Polygon(rail.shape).area == pytest.approx(math.dist(rail.shape[0], rail.shape[1]) * 60, rel=0.01)


sizes = st.builds(
    Framed,
    thickness=st.floats(30, 60),
    stile=st.floats(60, 140),
    top_rail=st.floats(60, 140),
    middle_rail=st.none() | st.floats(90, 260),
    bottom_rail=st.floats(90, 300),
    muntin=st.none() | st.floats(40, 140),
    lock_height=st.floats(500, 1400),
    tenon=st.sampled_from(TenonKind),
    panel_thickness=st.floats(6, 20),
)


@given(sizes, st.floats(500, 1100), st.floats(1500, 2400), st.sampled_from(rule_set_names()))
def test_parts_fill_the_leaf_exactly(build, width, height, rules):
    leaf = solve(job(width, height, rules=rules, build=build)).leaves[0]
    assume(not any(code.startswith(("rails-", "panel-width")) for code in codes(leaf, Level.STOP)))
    assert leaf.build is not None
    faces = [part.face for part in leaf.build.parts]
    area = sum(face.width * face.height for face in faces)
    assert area == pytest.approx(leaf.build.width * leaf.build.height, rel=1e-12)
    assert not any(one.overlaps(other) for at, one in enumerate(_shrunk(faces)) for other in _shrunk(faces)[at + 1 :])
    assert all(min(p.finished.length, p.finished.width, p.finished.thickness) > 0 for p in leaf.build.parts)
    assert all(each.net.volume > 0 for each in leaf.body.pieces)
    for part in leaf.build.parts:  # every sawn part is larger than the planed one, and that than the finished one
        for small, large in ((part.finished, part.planed), (part.planed, part.rough)):
            assert small.length <= large.length + 1e-9
            assert small.width <= large.width + 1e-9
            assert small.thickness <= large.thickness


def _shrunk(faces):
    return [Rect(f.x0 + 1e-6, f.y0 + 1e-6, f.x1 - 1e-6, f.y1 - 1e-6) for f in faces]


@pytest.mark.parametrize(
    ("build", "code"),
    [
        ({"lock_height": 250.0}, "rails-bottom-rail-middle-rail"),
        ({"lock_height": 1900.0}, "rails-middle-rail-top-rail"),
        ({"stile": 340.0}, "panel-width"),
        ({"muntin": 300.0, "stile": 220.0}, "panel-width"),
        ({"middle_rail": 60.0}, "muntin-tenons-meet"),
        ({"panel_thickness": 50.0}, "panel-thick"),
        ({"middle_rail": None, "bottom_rail": 600.0, "top_rail": 400.0}, "rails-bottom-rail-top-rail"),
    ],
)
def test_leaf_that_cannot_be_made_is_a_stop_that_names_what_would_mend_it(build, code):
    height = 1000.0 if build.get("bottom_rail") == 600.0 else 1981.0
    made = job(762.0, height, build=Framed(**build))
    leaf = solve(made).leaves[0]
    stop = next(each for each in leaf.checks if each.code == code)
    assert stop.level is Level.STOP
    assert stop.remedies
    for remedy in stop.remedies:
        if remedy.path:
            mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
            assert code not in codes(mended, Level.STOP), remedy.text


def test_overlap_remedy_is_the_smallest_change():
    leaf = framed(lock_height=250.0)
    stop = next(each for each in leaf.checks if each.code == "rails-bottom-rail-middle-rail")
    # bottom rail 200 + least panel 20 + half of 180 + floor gap 6
    assert stop.remedies[0].value == pytest.approx(316)


def test_wide_rails_get_two_tenons_with_wood_between():
    leaf = framed(bottom_rail=220.0)
    mine = [t for t in leaf.build.tenons if t.member == "bottom rail" and t.into == "hinge stile" and not t.is_haunch]
    low, high = sorted(mine, key=lambda each: each.rect.y0)
    assert high.rect.y0 - low.rect.y1 == pytest.approx(73)  # a third of 220, to the full millimetre
    assert low.rect.y0 == pytest.approx(40)  # the haunch
    assert high.rect.y1 == pytest.approx(220 - 12)  # less the groove
    haunch = next(t for t in leaf.build.tenons if t.member == "bottom rail" and t.is_haunch)
    assert haunch.rect.width == pytest.approx(12)  # projects by the groove's depth


def test_rail_too_narrow_for_a_tenon_has_none():
    made = job()
    ctx = Context(made.leaves[0], made.rules, Show())
    joint = RailJoint("top rail", Rect(95, 1940, 660, 1950), "top", 12.0, 63.0, 15.0, False)
    assert all(tenon.is_haunch for tenon in rail_tenons(ctx, joint, 755.0))


def test_panel_is_held_at_the_driest_and_free_at_the_wettest():
    wet = TimberChoices(species="beech", moisture=8, wet=Climate(temperature=10, humidity=85))
    leaf = solved(900.0, 1981.0, timber=wet, build=Framed(muntin=None, groove_depth=8.0))
    assert "panel-drops" in codes(leaf)
    deeper = next(each for each in leaf.checks if each.code == "panel-drops").remedies[0]
    mended = solve(
        job_edits.with_remedy(
            job(900.0, 1981.0, timber=wet, build=Framed(muntin=None, groove_depth=8.0)), "leaf-1", deeper
        )
    ).leaves[0]
    assert mended.figures["panel_hold"].value >= 4
