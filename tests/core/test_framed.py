"""Frames of any rows, their arches, glass and locks; leaves cut to a raked outline; a rail dragged; the year."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon
from shapely.ops import unary_union

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.construction.framed.layout import rows_of
from oakmeasure.core.construction.framed.model import FieldRow, Framed, Infill, TenonKind
from oakmeasure.core.construction.framed.patterns import PATTERNS, pattern_of, with_pattern
from oakmeasure.core.construction.layered.model import Layered
from oakmeasure.core.construction.light.model import Light
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.construction.veneered.model import Veneered
from oakmeasure.core.document.hanging import Hanging, LeafShape
from oakmeasure.core.document.hinges import HardwareChoices, MortiseLock
from oakmeasure.core.document.job import Climate, FitChoices, TimberChoices
from oakmeasure.core.document.readings import HeadKind, HeadShape
from oakmeasure.core.document.roles import Role
from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
from oakmeasure.core.drawings.timber.year_view import year_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.edits.drag import dragged, rails_to_drag
from oakmeasure.core.figures.check import Level
from oakmeasure.core.reports.year import climate_at, year_of
from oakmeasure.core.solver import solve
from samples import codes, framed, job, readings, solved


def said(leaf, code):
    return next(each for each in leaf.checks if each.code == code)


# --- rows and columns --------------------------------------------------------------------------------------


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
    assert all(part.volume > 0 for part in made.parts)
    assert len({part.name for part in made.parts}) == len(made.parts)
    rails = sorted((part.face for part in made.parts if part.role is Role.RAIL), key=lambda each: each.y0)
    assert all(high.y0 >= low.y1 for low, high in pairwise(rails))
    other = job_edits.with_value(job(width, height, build=build), "unit", UnitSystem.INCH)
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


# --- arch, glass, lock -------------------------------------------------------------------------------------


def test_arched_top_rail_and_the_panel_under_it_meet_along_the_arch():
    leaf = framed(arch=60.0, muntin=None)
    rail, panel = leaf.build.part("top rail"), leaf.build.part("upper panel")
    span = leaf.figures["shoulder"].value
    assert leaf.figures["arch_radius"].value == pytest.approx((span**2 / 4 + 60**2) / 120)
    assert rail.finished.width == pytest.approx(95 + 60)
    assert Polygon(rail.shape).intersection(Polygon(panel.shape)).area < 1.0
    assert max(y for _, y in panel.shape) == pytest.approx(leaf.build.height - 95, abs=0.01)
    both = Polygon(panel.shape).union(Polygon(rail.shape)).area
    assert both == pytest.approx(span * (leaf.build.height - panel.face.y0), rel=1e-6)
    high = job(build=Framed(arch=400.0))
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
    hit = solved(hardware=HardwareChoices(lock=MortiseLock()))
    assert said(hit, "lock-tenon").level is Level.STOP
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


# --- outlines ----------------------------------------------------------------------------------------------

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


@pytest.mark.parametrize(
    "build",
    [
        CUPBOARD,
        CUPBOARD.model_copy(update={"rows": (FieldRow(columns=2),), "muntin": 40.0}),
        Boarded(board=16.0, ledge_top=260.0, ledge_width=80.0),
        Slab(thickness=22.0, stiffener_end=270.0),
    ],
    ids=["framed", "two columns", "boarded", "slab"],
)
def test_raked_leaf_of_every_construction_is_cut_to_its_outline_and_nothing_stands_out(build):
    leaf = solved(build=build, **RAKED)
    outline = Polygon(leaf.fit.outline)
    made = [part for part in leaf.build.parts if part.role not in (Role.LEDGE, Role.BRACE, Role.STIFFENER)]
    covered = unary_union([Polygon(part.corners) for part in made]).area
    between = leaf.figures["board_gap"].value * outline.bounds[3] * 8 if "board_gap" in leaf.figures else 0.0
    assert covered == pytest.approx(outline.area, abs=1.0 + between)
    assert all(outline.buffer(1e-6).contains(Polygon(part.corners)) for part in leaf.build.parts)
    uprights = [part for part in made if part.role in (Role.STILE, Role.BOARD, Role.STRIP)]
    lengths = [part.finished.length for part in sorted(uprights, key=lambda each: each.face.x0)]
    assert lengths == sorted(lengths)  # shortest at the low side
    assert lengths[-1] - lengths[0] > 100
    assert leaf.butts.places[0].rect.y1 < leaf.figures["hinge_edge_height"].value
    assert leaf_view(leaf, Show()).shapes
    square = solved(build=build, **(RAKED | {"fit": FitChoices()}))
    assert square.weights.mass.value < leaf.weights.mass.value  # the square leaf ends under the low side


def test_raked_top_rail_is_longer_by_its_slope_and_stands_square_to_it():
    leaf = solved(build=CUPBOARD, **RAKED)
    rail = leaf.build.part("top rail")
    (hx, hy), (lx, ly) = rail.shape[0], rail.shape[1]
    slope = math.atan2(ly - hy, lx - hx)
    shoulder = leaf.figures["shoulder"].value
    tenons = leaf.figures["rail_length"].value - shoulder
    assert rail.finished.length == pytest.approx(shoulder / math.cos(slope) + tenons, abs=0.5)
    assert Polygon(rail.shape).area == pytest.approx(math.dist(rail.shape[0], rail.shape[1]) * 60, rel=0.01)


def test_ledge_that_runs_out_of_a_raked_head_is_a_stop_that_says_how_low_it_must_be():
    made = job(build=Boarded(board=16.0, ledge_top=60.0, ledge_width=80.0), **RAKED)
    stop = said(solve(made).leaves[0], "ledge-head")
    assert "ledge-head" not in codes(solve(job_edits.with_remedy(made, "leaf-1", stop.remedies[0])).leaves[0])


# --- dragging a rail, and the year -------------------------------------------------------------------------


def test_dragged_rail_snaps_to_lock_height_equal_panels_and_stays_between_its_neighbours():
    leaf = framed(lock_height=900.0)
    assert [part.name for part in rails_to_drag(leaf)] == ["middle rail"]
    floor = leaf.figures["gap_floor"].value
    near = dragged(leaf, "middle rail", 1000 - floor + 5)
    assert (near.path, near.value, near.words) == ("build.lock_height", 1000.0, "the usual lock height")
    bottom, top = leaf.build.part("bottom rail").face.y1, leaf.build.part("top rail").face.y0
    middle = dragged(leaf, "middle rail", (bottom + top) / 2 + 4)
    assert middle.value == pytest.approx((bottom + top) / 2 + floor, abs=0.01)
    for y in (-500.0, 5000.0):
        assert not codes(framed(lock_height=dragged(leaf, "middle rail", y).value), Level.STOP)


def test_dragged_rail_off_the_lock_sets_the_row_under_it_and_the_others_take_the_rest():
    six = solved(build=with_pattern(Framed(), "six"))
    drop = dragged(six, "upper rail", six.build.part("upper rail").face.y0)
    assert drop.path == "build.rows"
    again = solved(build=with_pattern(Framed(), "six").model_copy(update={"rows": drop.value}))

    def sights(leaf):
        return [part.face.height for part in leaf.build.parts if part.name.endswith("hinge-side panel")]

    assert sum(sights(again)) == pytest.approx(sum(sights(six)))
    assert sights(again) != pytest.approx(sights(six))
    assert dragged(six, "top rail", 100.0) is None
    assert rails_to_drag(solved(build=Boarded())) == []


@given(st.floats(5, 25), st.floats(20, 50), st.floats(55, 90))
@settings(max_examples=15)
def test_year_swings_between_the_two_airs_and_the_gaps_lose_what_the_leaf_gains(heat, low, high):
    air = TimberChoices(dry=Climate(temperature=heat, humidity=low), wet=Climate(temperature=heat, humidity=high))
    leaf = solved(timber=air)
    year, f = year_of(leaf), leaf.figures
    assert min(each.moisture for each in year) == pytest.approx(f["moisture_dry"].value, abs=1e-6)
    assert max(each.moisture for each in year) == pytest.approx(f["moisture_wet"].value, abs=1e-6)
    assert max(each.change for each in year) == pytest.approx(f["leaf_change_wet"].value, abs=1e-6)
    gaps = f["gap_hinge"].value + f["gap_latch"].value
    assert all(each.gaps + each.change == pytest.approx(gaps) for each in year)
    assert climate_at(7.0, air.dry, air.wet).humidity == pytest.approx(high)
    assert year_view(leaf, Show()).shapes
    assert len(rows_of(leaf.leaf.build)) == 2


@pytest.mark.parametrize("kind", [HeadKind.SEGMENTAL, HeadKind.HALF_ROUND, HeadKind.TWO_CENTRED])
@pytest.mark.parametrize(
    "build",
    [
        Framed(),
        Boarded(ledge_top=600.0),
        Slab(stiffener_end=600.0),
        Layered(),
        Light(),
        Veneered(),
        Existing(width=740.0, height=2600.0, inside=Inside.SOLID),
    ],
    ids=lambda each: each.kind,
)
def test_leaf_under_an_arch_is_cut_to_it_whatever_it_is_built_of(kind, build):
    crown = {HeadKind.SEGMENTAL: 2058, HeadKind.HALF_ROUND: 2380, HeadKind.TWO_CENTRED: 2500}[kind]
    sides = {"width_top": 720, "width_bottom": 720, "height_hinge": 2020, "height_latch": 2020}
    leaf = solved(
        readings=readings(**sides, height_middle=crown),
        head=HeadShape(kind=kind),
        build=build,
        fit=FitChoices(shape=LeafShape.SCRIBED),
    )
    outline = Polygon(leaf.fit.outline)
    assert all(outline.buffer(0.01).contains(Polygon(part.corners)) for part in leaf.build.parts)
    covered = unary_union([Polygon(part.corners) for part in leaf.build.parts]).area
    assert covered == pytest.approx(outline.area, rel=0.01)
    assert leaf.fit.height.value > 2020
    assert said(leaf, "outline").sentence
    assert leaf_view(leaf, Show()).shapes
    assert year_view(leaf, Show()).shapes
