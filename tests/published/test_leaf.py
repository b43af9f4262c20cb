"""Constructions and wood against the world outside: the handbook's worked values, trigonometry by Shapely."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import area, centroid, clipped
from oakmeasure.core.base.parsing import parse_length as inch
from oakmeasure.core.construction.arch import arch_points, height_at, segment_area
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.braces import (
    corner_brace,
    corner_shape,
    height_for_corner,
    height_for_pointed,
    height_for_stile,
    pointed_brace,
    pointed_shape,
    stile_brace,
    stile_shape,
)
from oakmeasure.core.construction.clip_to_outline import head_of
from oakmeasure.core.construction.existing.model import Splice
from oakmeasure.core.construction.existing.narrowing import ReduceBy, reduce, stile_may_lose
from oakmeasure.core.construction.existing.recess import passes
from oakmeasure.core.construction.existing.splices import splice_length
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.construction.layered.build import first_stile
from oakmeasure.core.construction.layered.model import Layered, Lipping
from oakmeasure.core.construction.layered.pins import pin_for
from oakmeasure.core.construction.spacing import board_count, equal_ends, pitch_between
from oakmeasure.core.construction.veneered.model import Veneered
from oakmeasure.core.document.construction_model import LaidBoard
from oakmeasure.core.leaf.part_factory import nail_for, screw_for
from oakmeasure.core.timber.laminate import Lamina, curvature
from oakmeasure.core.timber.movement import bow_between_climates
from oakmeasure.core.timber.resaw import veneers_from
from samples import solved


def test_through_tenoned_coped_rail_is_as_long_as_the_leaf_is_wide():
    """[G] leaf 762, stile 95, sticking 10 → rail 762."""
    leaf = solved(767.0, 1981.0, build=Framed(tenon=TenonKind.THROUGH, sticking=10.0))
    assert leaf.figures["leaf_width"].value == pytest.approx(762)
    assert leaf.figures["rail_length"].value == pytest.approx(762)


@pytest.mark.parametrize(
    ("width", "cover", "groove", "count", "end"),
    [
        ("35in", "7in", "1/4in", 6, "3 1/2in"),
        ("51in", "7 1/4in", "1/4in", 8, "3 3/4in"),
        ("35in", "3 1/2in", "0in", 10, "3 1/2in"),
    ],
)
def test_boards_that_make_a_width(width, cover, groove, count, end):
    """[G] five of 7" are 35" only on paper."""
    values = {"width": inch(width), "cover": inch(cover)}
    found = board_count(**values, groove=inch(groove))
    assert found == count
    assert equal_ends(**values, count=found) == pytest.approx(inch(end))


def test_last_board_of_a_lay_up_in_inches():
    """[G] five measure 31 1/4" of 35" → 3 3/4"."""
    laid = tuple(LaidBoard(width=inch("6 1/4in")) for _ in range(5))
    leaf = solved(inch("35in") + 5, 1981.0, build=Boarded(measured=laid, gap=0.0))
    assert leaf.figures["board_6"].value == pytest.approx(inch("3 3/4in"), abs=1e-6)


def test_ledges_an_inch_and_a_half_in_are_32_inches_long():
    """[G] 35" leaf, 1 1/2" each → 32"."""
    leaf = solved(inch("35in") + 5, 1981.0, build=Boarded(ledge_inset=inch("1 1/2in")))
    assert leaf.figures["ledge_length"].value == pytest.approx(inch("32in"))


def test_braces_of_a_field_of_600_by_700():
    """[G] width 100: corner 55.626°, 848.1, 916.5; on the stiles 43.17°, 822.7; pointed 49.399°, 921.95."""
    corner = corner_brace(base=600, height=700, width=100)
    assert corner.angle_deg == pytest.approx(55.626, abs=5e-4)
    assert (corner.edge, corner.blank) == pytest.approx((848.1, 916.5), abs=0.05)
    stile = stile_brace(base=600, height=700, width=100)
    assert stile.angle_deg == pytest.approx(43.17, abs=5e-3)
    assert stile.edge == pytest.approx(822.7, abs=0.05)
    pointed = pointed_brace(base=600, height=700)
    assert pointed.angle_deg == pytest.approx(49.399, abs=5e-4)
    assert pointed.blank == pytest.approx(921.95, abs=5e-3)
    for bad in ({"base": 0, "height": 700, "width": 100}, {"base": 60, "height": 70, "width": 100}):
        with pytest.raises(InputError):
            corner_brace(**bad)


@given(st.floats(250, 1200), st.floats(250, 1500), st.floats(40, 120))
def test_brace_shapes_lie_in_their_field_at_their_angle_and_width(base, height, width):
    """Shapely: the strip's area is its width times its edge, its long edge stands at its angle, the field holds it."""
    field = Polygon([(0, 0), (base, 0), (base, height), (0, height)]).buffer(1e-6)
    try:
        brace = corner_brace(base=base, height=height, width=width)
    except InputError:
        return
    shape = corner_shape(0, 0, base, height, width)
    assert field.contains(Polygon(shape))
    assert Polygon(shape).area == pytest.approx(brace.edge * width, rel=1e-9)
    (ax, ay), (bx, by) = shape[1], shape[2]
    assert math.degrees(math.atan2(by - ay, bx - ax)) == pytest.approx(brace.angle_deg, abs=1e-6)
    assert height_for_corner(base=base, width=width, angle_deg=brace.angle_deg) == pytest.approx(height, rel=1e-6)
    if height > base * 0.3 + width:
        stile = stile_brace(base=base, height=height, width=width)
        strip = Polygon(stile_shape(0, 0, base, height, width))
        assert field.contains(strip)
        assert strip.area == pytest.approx(stile.edge * width, rel=1e-9)
        assert height_for_stile(base=base, width=width, angle_deg=stile.angle_deg) == pytest.approx(height, rel=1e-6)
    pointed = pointed_brace(base=base, height=height)
    assert height_for_pointed(base=base, angle_deg=pointed.angle_deg) == pytest.approx(height)
    if width < min(base, height) / 2:
        assert field.contains(Polygon(pointed_shape(0, 0, base, height, width)))


def test_screws_and_nails_through_boards_and_ledges():
    """[G] screw ≤ total − 3: 32 through 20 + 20; clenched nail = total + 12."""
    assert screw_for(40) == 32
    assert nail_for(40) == 52


def test_bow_between_two_climates_and_what_a_finish_takes():
    """[G] 2000, 40, 4 points → 2.5; four faces of 0.12 → 0.48."""
    assert bow_between_climates(height=2000, thickness=40, points=4) == pytest.approx(2.5)
    assert solved().figures["finish_takes"].value == pytest.approx(0.48)


# --- shapes, against Shapely -------------------------------------------------------------------------------


convex = st.lists(st.tuples(st.floats(-500, 1500), st.floats(-500, 2500)), min_size=6, max_size=12).map(
    lambda points: Polygon(points + points[:1]).convex_hull
)


@given(convex, st.floats(0, 800), st.floats(0, 1800), st.floats(20, 600), st.floats(20, 900))
def test_part_cut_to_an_outline_is_their_intersection_and_balances_where_shapely_says(hull, x, y, wide, tall):
    if hull.geom_type != "Polygon" or hull.area < 1e4:
        return
    outline = list(hull.exterior.coords)[:-1]
    if not hull.exterior.is_ccw:
        outline.reverse()
    part = [(x, y), (x + wide, y), (x + wide, y + tall), (x, y + tall)]
    wanted = Polygon(part).intersection(hull)
    found = clipped(part, outline)
    assert (area(found) if len(found) > 2 else 0.0) == pytest.approx(wanted.area, abs=0.01)
    if wanted.area > 100:
        middle = centroid(found)
        assert middle == pytest.approx((wanted.centroid.x, wanted.centroid.y), abs=0.01)


@given(st.floats(200, 1500), st.floats(0.05, 0.5))
def test_segment_has_the_area_of_the_circle_that_it_is_cut_from(span, share):
    """r²/2·(φ − sin φ), the published area of a circular segment; the drawn one has 24 straight pieces."""
    rise = span * share
    radius = (span**2 / 4 + rise**2) / (2 * rise)
    angle = 2 * math.asin(min(1.0, span / 2 / radius))
    exact = radius**2 / 2 * (angle - math.sin(angle))
    assert segment_area(arch_points(x0=0.0, x1=span, springing=0.0, rise=rise)) == pytest.approx(exact, rel=0.02)
    assert height_at(span=span, rise=rise, across=span / 2) == pytest.approx(rise)
    assert height_at(span=span, rise=rise, across=0.0) == pytest.approx(0.0, abs=1e-6)


def test_head_of_an_outline_is_its_upper_edge_from_hinge_to_latch():
    head = head_of([(0, 0), (600, 2), (605, 850), (-3, 640)])
    assert head.points == ((-3, 640), (605, 850))
    assert head.falls == 210
    assert head.at(301) == pytest.approx(640 + 210 * 304 / 608)
    assert head.at(-50) == 640
    assert head.at(900) == 850
    assert head.slope_deg == pytest.approx(math.degrees(math.atan2(210, 608)))


# --- layers, veneers, old leaves: worked values of the trade's handbook, section 3.4 to 3.7 --------------------


def test_three_layers_of_half_an_inch_and_a_lipping_that_sets_the_first_stile_in():
    assert Layered(core=inch('1/2"'), face=inch('1/2"')).thickness == pytest.approx(38.1)
    assert first_stile(lipping=Lipping.T, depth=20.0) == 20.0
    assert first_stile(lipping=Lipping.NONE, depth=20.0) == 0.0
    assert pin_for(24.0) < 24.0  # pins shorter than the layers: common practice, no source


@pytest.mark.parametrize(
    ("stock", "raw", "kerf", "count"),
    [(28.0, 3.2, 1.3, 6), (44.0, 3.6, 1.2, 9)],  # the handbook's, and the arched reading room door's
)
def test_veneers_from_a_board(stock, raw, kerf, count):
    assert veneers_from(stock=stock, raw=raw, kerf=kerf) == count
    assert count * raw + (count - 1) * kerf <= stock < (count + 1) * raw + count * kerf


def test_veneers_that_measure_130_to_165_thousandths_may_lose_five_before_an_eighth():
    """.130 to .165 in cannot finish at 1/8 in once more than 0.127 mm comes off the thinnest."""
    leaf = solved(build=Veneered(veneer=inch('1/8"'), sanding=0.1, thin=0.130 * 25.4, thick=0.165 * 25.4))
    assert leaf.figures["veneer_may_lose"].value == pytest.approx(0.127)
    assert leaf.figures["veneer_spread"].value == pytest.approx(0.035 * 25.4)


def test_leaf_narrowed_from_687_to_612():
    """25 off each stile, the three panels 8, 9 and 8."""
    off, panels = reduce(total=75.0, rows=(3,), sights=(120.0,), may=25.0, by=ReduceBy.SHARED)
    assert (off, panels) == (25.0, ((8, 9, 8),))


@pytest.mark.parametrize(("width", "stile"), [(709.0, 73.0), (703.0, 70.0)])
def test_stiles_beside_563_between_shoulders(width, stile):
    off, _ = reduce(total=709.0 - width, rows=(1,), sights=(563.0,), may=20.0, by=ReduceBy.STILES)
    assert (709.0 - 563.0) / 2 - off == stile


def test_lines_pass_by_pass_splices_and_what_a_stile_may_lose():
    assert pitch_between(width=832.0, band=72.0, count=7) == pytest.approx(114.667, abs=5e-4)
    assert passes(depth=10.0, step=3.0) == 4
    assert splice_length(splice=Splice.SCARF, lap=75.0, thickness=40.0) == 8 * 40  # about 1 in 8
    assert stile_may_lose(stile=95.0, tenon=67.0, through=False) == 20.0


@given(st.floats(0.5, 20), st.floats(0.5, 20), st.floats(0.05, 20), st.floats(-0.01, 0.01))
def test_two_strips_bend_as_timoshenko_wrote_of_the_bimetal_thermostat(t1, t2, n, strain):
    """Timoshenko, Analysis of bi-metal thermostats, 1925: 6ε(1 + m)² / (h·(3(1 + m)² + (1 + mn)(m² + 1/(mn))))."""
    m, h = t1 / t2, t1 + t2
    published = 6 * strain * (1 + m) ** 2 / (h * (3 * (1 + m) ** 2 + (1 + m * n) * (m**2 + 1 / (m * n))))
    mine = curvature([Lamina(t1, n, 0.0), Lamina(t2, 1.0, strain)])
    assert mine == pytest.approx(published, rel=1e-6, abs=1e-12)
