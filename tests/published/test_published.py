"""The main job against the world outside. Beside each check stands where its value is from.

"[G]" geometry or arithmetic, proved here by another way; "common practice, no source" a fact of the trade;
"from memory" a published value quoted from memory.
"""

from __future__ import annotations

import math

import numpy as np
import pytest
from scipy.optimize import least_squares

from oakmeasure.core.base.parsing import parse_length
from oakmeasure.core.base.units import inch_text
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.document.job import FitChoices, Hand, TimberChoices
from oakmeasure.core.document.rules import ButtSchool
from oakmeasure.core.document.species import Sawing, species
from oakmeasure.core.fit.swing.bevel import back_gap, least_bevel_deg, square_corner_growth
from oakmeasure.core.hardware.hinges.butt_schools import ButtEnds, butt_count, places_by_school
from oakmeasure.core.hardware.hinges.loads import top_hinge_pull
from oakmeasure.core.survey.adjust import Observed, adjust
from oakmeasure.core.survey.kinds import SurveyKind
from oakmeasure.core.survey.square import corner_angle_deg, skew_from_both, skew_from_diagonal
from oakmeasure.core.timber.wood import change_of_width, density, equilibrium_moisture
from samples import framed, readings, solved

# --- lengths ---------------------------------------------------------------------------------------------


def test_inch_is_exactly_25_4_mm():
    """International yard and pound agreement, 1959 (from memory)."""
    assert parse_length('1"') == 25.4
    assert parse_length("1ft") == 304.8


@pytest.mark.parametrize(
    ("text", "mm"),
    [("6' 7 1/2\"", 2019.3), ('(59 5/8" - 3*1/8")/2', 752.475), ('(59 5/8" − 3/8")/2', 752.475), ('29 5/8"', 752.475)],
)
def test_sums_of_inches_come_out_exact(text, mm):
    """[G]"""
    assert parse_length(text) == mm


@pytest.mark.parametrize(("mm", "text"), [(35, '1 3/8" +'), (8, '5/16" +'), (12.7, '1/2"')])
def test_inches_to_the_nearest_sixteenth_say_which_way_they_were_rounded(mm, text):
    """[G] 35/25.4 = 1.378; 8/25.4 = 0.315."""
    assert inch_text(mm) == text


# --- wood ------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(("name", "rho"), [("red_oak", 688), ("european_oak", 702), ("redwood", 504)])
def test_density_at_12_percent_follows_the_wood_handbook(name, rho):
    """Wood Handbook, FPL-GTR-282, ch. 4 (from memory); G on it."""
    assert density(basic_gravity=species(name).basic_gravity, moisture=12) == pytest.approx(rho, abs=0.6)


@pytest.mark.parametrize(("humidity", "percent"), [(30, 6.2), (50, 9.2), (65, 12.0), (80, 16.0)])
def test_equilibrium_moisture_at_70_f_follows_the_wood_handbook(humidity, percent):
    """Wood Handbook, FPL-GTR-282, ch. 4, table of equilibrium moisture at 70 °F (from memory)."""
    assert equilibrium_moisture(temperature=(70 - 32) / 1.8, humidity=humidity) == pytest.approx(percent, abs=0.06)


@pytest.mark.parametrize(
    ("name", "radial", "tangential"),
    [
        ("red_oak", 0.00158, 0.00369),
        ("white_oak", 0.00180, 0.00365),
        ("walnut", 0.00190, 0.00274),
        ("cherry", 0.00126, 0.00248),
        ("sugar_maple", 0.00165, 0.00353),
        ("yellow_poplar", 0.00158, 0.00289),
        ("white_pine", 0.00071, 0.00212),
        ("ponderosa", 0.00133, 0.00216),
        ("douglas_fir", 0.00165, 0.00267),
        ("redcedar", 0.00111, 0.00234),
    ],
)
def test_movement_coefficients_are_those_of_the_wood_handbook(name, radial, tangential):
    """Wood Handbook, FPL-GTR-282, ch. 13, table 13-5 (from memory)."""
    assert species(name).movement(Sawing.QUARTER) == radial
    assert species(name).movement(Sawing.FLAT) == tangential


def test_stiles_of_red_oak_over_eight_points_and_quarter_stock_about_half():
    """[G] on the Wood Handbook's coefficients: 2 × 95 × .00369 × 8 = 5.61."""
    oak = species("red_oak")
    flat, quarter = (
        change_of_width(width=2 * 95, coefficient=oak.movement(cut), from_moisture=6, to_moisture=14)
        for cut in (Sawing.FLAT, Sawing.QUARTER)
    )
    assert flat == pytest.approx(5.61, abs=0.005)
    assert quarter / flat == pytest.approx(0.43, abs=0.01)


# --- the opening -----------------------------------------------------------------------------------------


def test_square_diagonal_and_skew_of_an_opening():
    """[G] 762 × 1981: Pythagoras; 2125 and 2120 differ by a skew of 6.96."""
    assert math.hypot(762, 1981) == pytest.approx(2122.50, abs=0.005)
    assert skew_from_both(width=762, first=2125, second=2120) == pytest.approx(6.96, abs=0.005)
    assert skew_from_diagonal(width=762, height=1981, diagonal=math.hypot(762 + 6, 1981)) == pytest.approx(
        6, abs=0.03
    )  # a leaning side is a hair longer than its rise
    assert corner_angle_deg(width=3, height=4, diagonal=5) == pytest.approx(90)


def test_survey_of_a_hand_built_opening_gives_its_corners_back():
    """[G] Corners chosen by hand, the readings worked out from them by Pythagoras; Baarda's redundancies add up to
    the number of readings less the number of unknowns."""
    hf, lf, lh, hh = (0.0, 0.0), (736.0, 0.0), (742.0, 2033.0), (1.0, 2031.0)
    result = adjust({kind: Observed(value, 0.5) for kind, value in _readings_of(hf, lf, lh, hh).items()})
    assert result.latch_foot == pytest.approx(lf, abs=1e-6)
    assert result.latch_head == pytest.approx(lh, abs=1e-6)
    assert result.hinge_head == pytest.approx(hh, abs=1e-6)
    assert sum(each.redundancy for each in result.readings.values()) == pytest.approx(8 - 5)
    assert result.redundancy == 3


def test_survey_adjustment_agrees_with_scipy_least_squares():
    """Reference library: scipy.optimize.least_squares on the same weighted distances."""
    read = _readings_of((0, 0), (736, 0), (742, 2033), (1, 2031))
    noise = dict(zip(read, (0.4, -0.3, 0.2, -0.5, 0.3, 0.1, 0.8, -0.6), strict=True))
    sigmas = {kind: 1.0 if kind.startswith("diagonal") else 0.5 for kind in read}
    ours = adjust({kind: Observed(value + noise[kind], sigmas[kind]) for kind, value in read.items()})

    def misfit(p):
        corners = (0.0, 0.0), (p[0], 0.0), (p[1], p[2]), (p[3], p[4])
        return [(value - read[kind] - noise[kind]) / sigmas[kind] for kind, value in _readings_of(*corners).items()]

    theirs = least_squares(misfit, [740, 740, 2030, 0, 2030], xtol=1e-14, ftol=1e-14).x
    mine = [ours.latch_foot[0], *ours.latch_head, *ours.hinge_head]
    assert mine == pytest.approx(list(theirs), abs=1e-5)


def _readings_of(hf, lf, lh, hh):
    def middle(a, b):
        return ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)

    return {
        SurveyKind.WIDTH_TOP: math.dist(hh, lh),
        SurveyKind.WIDTH_MIDDLE: math.dist(middle(hf, hh), middle(lf, lh)),
        SurveyKind.WIDTH_BOTTOM: math.dist(hf, lf),
        SurveyKind.HEIGHT_HINGE: math.dist(hf, hh),
        SurveyKind.HEIGHT_MIDDLE: math.dist(middle(hf, lf), middle(hh, lh)),
        SurveyKind.HEIGHT_LATCH: math.dist(lf, lh),
        SurveyKind.DIAGONAL_RISING: math.dist(hf, lh),
        SurveyKind.DIAGONAL_FALLING: math.dist(hh, lf),
    }


# --- the leaf in its opening -----------------------------------------------------------------------------


def test_skew_of_six_takes_six_off_the_clear_width():
    """[G] Sides 762 × 1981 leaning 6 over a level sill: the plumb clear width is 756."""
    corners = (0.0, 0.0), (762.0, 0.0), (768.0, 1981.0), (6.0, 1981.0)
    values = {str(kind): value for kind, value in _readings_of(*corners).items()}
    assert solved(readings=readings(**values)).figures["clear_width"].value == pytest.approx(756, abs=0.02)


def test_gaps_of_five_leave_703_of_708():
    """[G] 708 − 5 → 703."""
    leaf = solved(708, 2000, fit=FitChoices(gap_hinge=2, gap_latch=3))
    assert leaf.figures["leaf_width"].value == pytest.approx(703, abs=1e-6)


def test_back_corner_growth_and_least_bevel():
    """[G] Checked again by turning the corner about the pin, a hundredth of a degree at a time."""
    assert square_corner_growth(width=762, thickness=35, knuckle=6, setback=1) == pytest.approx(1.077, abs=5e-4)
    bevel = least_bevel_deg(width=450, thickness=44, knuckle=8, setback=1, gap=2, margin=1)
    assert bevel == pytest.approx(2.51, abs=0.005)
    back = 44 * math.tan(math.radians(bevel))
    angles = np.radians(np.arange(0, 60, 0.01))
    x, y = 450 + 1 - back, 44 + 8  # of the back corner from the pin
    inside = y * np.cos(angles) - x * np.sin(angles) >= 8  # still behind the opening face, where the lining is
    furthest = np.max((x * np.cos(angles) + y * np.sin(angles))[inside]) - 1
    assert furthest == pytest.approx(450 + 2 - 1, abs=0.01)


def test_one_in_sixteen_is_the_site_bevel_of_3_6_degrees():
    """Common practice, no source: 1 in 16; atan(1/16) = 3.58."""
    assert math.degrees(math.atan(1 / 16)) == pytest.approx(3.6, abs=0.03)
    assert back_gap(gap=3, thickness=44, bevel_deg=3.6) == pytest.approx(3 + 44 / 16, abs=0.02)


# --- the framed leaf -------------------------------------------------------------------------------------


def test_lock_at_36_inches_over_half_an_inch_of_floor_gap_is_35_and_a_half_up_the_leaf():
    """Common practice, no source: 36" − 1/2" = 35 1/2"."""
    leaf = solved(762, 1981, fit=FitChoices(gap_floor=12.7), build=Framed(lock_height=36 * 25.4))
    assert leaf.figures["middle_rail_centre"].value == pytest.approx(35.5 * 25.4)


def test_four_panel_leaf_worked_by_hand():
    """[G] A whole leaf by hand: opening 762 × 1981, gaps 2 + 3, 2 + 6; 44 thick; members and rules as below.

    leaf 757 × 1973. Shoulder 757 − 2·95 = 567; blind tenon ⅔ of 95 to the full mm = 63; rail 567 + 126 = 693.
    Middle rail's centre 1000 − 6 = 994, from 904 to 1084. Sights: (567 − 95)/2 = 236 wide; 904 − 200 = 704 and
    1973 − 95 − 1084 = 794 high. Muntins + 2·35. Panel length: sight + 2·12 − 2·1.
    Panel width: made at 10 %, wettest 18 °C 70 % (13.2 %), flat European oak from S = 7.8.
    """
    leaf = framed(762, 1981)
    assert leaf.build is not None
    sizes = {part.name: part.finished for part in leaf.build.parts}
    coefficient = 1 / (3000 / 7.8 - 20)
    swell = (236 + 24) * coefficient * (equilibrium_moisture(temperature=18, humidity=70) - 10)
    panel = 236 + 24 - 2 * (swell / 2 + 1)
    expected = {
        "hinge stile": (1973, 95, 44),
        "latch stile": (1973, 95, 44),
        "top rail": (693, 95, 44),
        "middle rail": (693, 180, 44),
        "bottom rail": (693, 200, 44),
        "lower muntin": (774, 95, 44),
        "upper muntin": (864, 95, 44),
        "lower hinge-side panel": (726, panel, 12),
        "lower latch-side panel": (726, panel, 12),
        "upper hinge-side panel": (816, panel, 12),
        "upper latch-side panel": (816, panel, 12),
    }
    assert {name: (s.length, s.width, s.thickness) for name, s in sizes.items()} == {
        name: pytest.approx(size, abs=1e-6) for name, size in expected.items()
    }
    assert panel == pytest.approx(255.7, abs=0.05)
    assert leaf.figures["tenon_thickness"].value == 15  # a third of 44 is 14.67; of the cutters 15 is nearest


def test_through_tenons_end_flush_with_the_leaf():
    """[G] A through tenon is the stile: the rail is as long as the leaf is wide."""
    leaf = framed(767, 2000, tenon=TenonKind.THROUGH)
    assert leaf.figures["rail_length"].value == pytest.approx(leaf.figures["leaf_width"].value)


def test_weight_of_a_rectangle_of_wood():
    """[G] A leaf without any void weighs what its rectangle weighs: panels as thick as the frame leave none but the
    room in the grooves, which is subtracted here."""
    leaf = framed(762, 1981, muntin=None, middle_rail=None, panel_thickness=42)
    build, f = leaf.build, leaf.figures
    assert build is not None
    rho = f["density"].value
    sight = build.sights[0]
    recess = sight.width * sight.height * 2  # the panel is 2 thinner than the frame
    groove = build.groove_depth
    empty = 2 * (sight.width + sight.height) * groove * 42 + 4 * groove * groove * 42  # its corners too
    panel = build.parts[-1]
    tongue = (panel.finished.length * panel.finished.width - sight.width * sight.height) * 42
    solid = build.width * build.height * 44 - recess - empty + tongue
    assert f["mass"].value == pytest.approx(solid * 1e-9 * rho, rel=1e-9)


# --- hinges ----------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("height", "mass", "count"),
    [(1500, 20, 2), (1500, 21, 3), (1981, 18, 3), (2290, 40, 3), (2291, 40, 4), (3051, 40, 5)],
)
def test_number_of_butts(height, mass, count):
    """Common practice, no source: two to 1500 and 20 kg, three to 2290 (90"), one more per 760 (30")."""
    assert butt_count(height=height, mass=mass) == count


def test_butt_places_by_two_schools():
    """Common practice, no source: 150 from the top, 225 from the bottom to the near end; the third centred, or 200
    below the top one; 7" and 11"."""
    ends = ButtEnds(from_top=150, from_bottom=225, third_below=200)
    place = {"count": 3, "height": 2000, "length": 100, "ends": ends}
    assert places_by_school(school=ButtSchool.THIRD_CENTRED, **place) == (150, 912.5, 1675)
    assert places_by_school(school=ButtSchool.THIRD_HIGH, **place) == (150, 450, 1675)
    seven, _, eleven = places_by_school(school=ButtSchool.SEVEN_ELEVEN, **place)
    assert (seven, 2000 - eleven - 100) == (177.8, pytest.approx(279.4))


def test_butt_transfer_depth_and_pull():
    """[G] On the lining: on the leaf + head gap (120, gap 2 → 122); depth (5.5 − 2)/2 = 1.75; 40 kg, 762, 1600."""
    leaf = solved(762, 1981, fit=FitChoices(gap_hinge=2, gap_head=2))
    f = leaf.figures
    assert all(f[f"butt_{n}_jamb"].value == pytest.approx(f[f"butt_{n}_top"].value + 2) for n in (1, 2, 3))
    assert f["butt_depth"].value == pytest.approx(1.75)
    assert top_hinge_pull(mass=40, leaf_width=762, hinge_spacing=1600) == pytest.approx(93.4, abs=0.05)


def test_hand_changes_no_size():
    """Common practice, no source: a left and a right leaf are cut from one list; only the hinge edge changes sides."""
    left, right = (solved(hand=hand, timber=TimberChoices()) for hand in Hand)
    assert left.build is not None
    assert right.build is not None
    assert [part.finished for part in left.build.parts] == [part.finished for part in right.build.parts]
