"""Openings against the world outside: geometry by another way, SciPy and NumPy, facts of the trade."""

from __future__ import annotations

import math

import numpy as np
import pytest
from scipy import optimize, stats

from oakmeasure.core.base.arcs import segmental_radius, two_centred_radius
from oakmeasure.core.base.parsing import parse_length
from oakmeasure.core.base.uncertainty import monte_carlo, root_sum_square
from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.document.readings import HeadKind, Lining
from oakmeasure.core.survey.adjust import Observed
from oakmeasure.core.survey.expected_minimum import mean_of_product, positive_part
from oakmeasure.core.survey.heads import head_line
from oakmeasure.core.survey.lining_strips import strip_thickness
from oakmeasure.core.survey.outline import HalfPlane, largest_box
from oakmeasure.core.survey.polygon import adjust_polygon
from oakmeasure.core.survey.ticks import fit_side, line_through
from samples import readings, solved

# --- heads -----------------------------------------------------------------------------------------------


def test_segmental_head_of_800_by_120_has_a_radius_of_726_667():
    """[G] Euclid III.35; and by the circle through three points."""
    assert segmental_radius(span=800, rise=120) == pytest.approx(726.667, abs=5e-4)
    assert math.dist((0, 0), (400, 120 - 726.6666667)) == pytest.approx(726.667, abs=1e-3)
    assert segmental_radius(span=720, rise=38) == pytest.approx(1724.3, abs=0.05)


def test_equilateral_pointed_head_has_the_span_for_its_radius():
    """Common practice, no source: the equilateral arch is struck from its springings."""
    assert two_centred_radius(span=900, rise=900 * math.sqrt(3) / 2) == pytest.approx(900)
    line = head_line((0, 0), (900, 0), HeadKind.TWO_CENTRED, 900 * math.sqrt(3) / 2)
    for x, y in line:
        assert math.dist((x, y), (900, 0) if x <= 450 else (0, 0)) == pytest.approx(900)


# --- survey ----------------------------------------------------------------------------------------------


def test_polygon_agrees_with_scipy_on_a_stair_opening_with_noise():
    true = np.array([(0, 0), (820, 0), (830, 760), (500, 1430), (0, 1700)], float)
    pairs = [(a, b) for a in range(5) for b in range(a + 1, 5)]
    source = np.random.default_rng(4)
    read = {pair: float(np.linalg.norm(true[pair[0]] - true[pair[1]]) + source.normal(0, 0.5)) for pair in pairs}

    def residuals(p):
        at = np.array([(0.0, 0.0), (p[0], 0.0), *p[1:].reshape(3, 2)])
        return [np.linalg.norm(at[a] - at[b]) - value for (a, b), value in read.items()]

    reference = optimize.least_squares(residuals, true[1:].ravel()[[0, 2, 3, 4, 5, 6, 7]]).x
    ours = adjust_polygon(5, {f"{a + 1}-{b + 1}": Observed(value, 0.5) for (a, b), value in read.items()})
    got = [ours.corners[1][0], *(each for corner in ours.corners[2:] for each in corner)]
    assert got == pytest.approx(list(reference), abs=1e-4)


def test_line_through_points_agrees_with_scipy_orthogonal_distance():
    source = np.random.default_rng(9)
    along = np.linspace(0, 900, 12)
    points = [(x, 0.02 * x + 5 + e) for x, e in zip(along, source.normal(0, 0.6, 12), strict=True)]
    line = line_through(points)

    def off(p):
        return [(math.sin(p[0]) * x - math.cos(p[0]) * y - p[1]) for x, y in points]

    reference = optimize.least_squares(off, [0.0, 0.0]).x
    ours = sorted(abs(line.miss(each)) for each in points)
    assert ours == pytest.approx(sorted(map(abs, off(reference))), abs=1e-6)


def test_robust_side_finds_the_true_line_within_three_standard_errors_at_a_fifth_of_outliers():
    """300 simulated sides of 15 ticks, three of them wrong by 5 to 30."""
    source = np.random.default_rng(20)
    missed = 0
    for _ in range(300):
        lean, place = source.normal(0, 0.01), source.normal(0, 20)
        ys = np.sort(source.uniform(0, 2000, 15))
        xs = place + lean * ys + source.normal(0, 0.5, 15)
        wrong = source.choice(15, 3, replace=False)
        xs[wrong] += source.choice([-1, 1], 3) * source.uniform(5, 30, 3)
        fit = fit_side(list(zip(xs, ys, strict=True)), tick_sigma=0.5)
        middle = float(np.mean([y for y, kept in zip(ys, fit.kept, strict=True) if kept]))
        off = abs(fit.curve.miss((place + lean * middle, middle)))
        missed += off > 3 * fit.sigma
        assert not any(fit.kept[at] for at in wrong)
    assert missed <= 3  # 3 in 1000 of normal errors lie beyond 3 standard errors


def test_robust_arch_finds_the_true_radius_at_a_fifth_of_outliers():
    source = np.random.default_rng(21)
    for _ in range(40):
        radius, turns = source.uniform(400, 1500), np.linspace(math.radians(60), math.radians(120), 15)
        out = radius + source.normal(0, 0.4, 15)
        out[source.choice(15, 3, replace=False)] += 12
        points = [(r * math.cos(t), r * math.sin(t)) for r, t in zip(out, turns, strict=True)]
        fit = fit_side(points, tick_sigma=0.5, curved=True)
        top = (0.0, radius)
        assert abs(fit.curve.miss(top)) < 3 * max(fit.sigma, 0.25)


# --- uncertainty -----------------------------------------------------------------------------------------


def test_monte_carlo_of_a_sum_of_readings_is_the_root_of_the_sum_of_squares():
    """JCGM 100:2008 5.1.2 and JCGM 101:2008 (from memory): for a linear sum the two must agree."""
    sigmas = np.array([0.5, 0.5, 1.0, 0.3])
    gradient = [1.0, -1.0, 0.5, 2.0]
    covariance = np.diag(sigmas**2).tolist()
    spread = monte_carlo(lambda d: np.array(gradient) @ d, [700, 3, 10, 2], covariance)
    assert root_sum_square(gradient, covariance) == pytest.approx(
        math.sqrt(sum((g * s) ** 2 for g, s in zip(gradient, sigmas, strict=True)))
    )
    assert spread.sd == pytest.approx(root_sum_square(gradient, covariance), rel=0.02)
    assert spread.draws == 100_000
    again = monte_carlo(lambda d: np.array(gradient) @ d, [700, 3, 10, 2], covariance)
    assert again == spread  # the same seed draws the same openings


def test_least_of_three_equal_readings_is_biased_by_0_846_and_has_a_spread_of_0_75():
    """[G] Order statistics of the normal distribution; also by integrating SciPy's density."""
    spread = monte_carlo(lambda d: d.min(axis=0), [0.0] * 3, np.eye(3).tolist())
    assert spread.mean == pytest.approx(-0.846, abs=0.01)
    assert spread.sd == pytest.approx(0.75, abs=0.01)
    mean = stats.norm.expect(lambda x: 3 * x * (1 - stats.norm.cdf(x)) ** 2)
    assert mean == pytest.approx(-0.846, abs=1e-3)


def test_positive_part_and_product_agree_with_scipy():
    for mean, sd in ((0.0, 1.0), (1.5, 0.7), (-2.0, 1.1)):
        ours = positive_part(mean=mean, sd=sd)
        law = stats.norm(mean, sd)
        assert ours.mean == pytest.approx(law.expect(lambda x: max(x, 0.0)), rel=1e-4)
        assert ours.square == pytest.approx(law.expect(lambda x: max(x, 0.0) ** 2), rel=1e-4)
    cov = [[1.0, -0.6], [-0.6, 2.0]]
    drawn = np.random.default_rng(1).multivariate_normal([0.3, -0.2], cov, 1_000_000)
    ours = mean_of_product(mean_u=0.3, sd_u=1.0, mean_v=-0.2, sd_v=math.sqrt(2), covariance=-0.6)
    assert ours == pytest.approx(np.prod(np.maximum(drawn, 0), axis=1).mean(), rel=0.02)


@pytest.mark.parametrize("at", range(25))
def test_uncertainty_by_sums_is_what_drawing_openings_gives(solved_demo, at):
    from oakmeasure.core.reports.sureness import how_sure

    leaf = solved_demo.leaves[at]
    sure = how_sure(leaf, Show())
    assert sure.spread.sd == pytest.approx(leaf.figures["clear_width_uncertainty"].value, rel=0.02)


# --- lining and largest leaf -------------------------------------------------------------------------------


def test_lining_of_59_5_8_less_a_quarter_is_57_7_8_between_the_jambs():
    """[G] in inches: outside 59 3/8", with sides of 3/4" 57 7/8" between."""
    width, height = parse_length('59 5/8"'), parse_length('82"')
    rough = readings(
        width_top=width,
        width_middle=width,
        width_bottom=width,
        height_hinge=height,
        height_latch=height,
        lean_hinge=0,
        lean_latch=0,
    )
    f = solved(readings=rough, lining=Lining(packing=parse_length('1/4"'), thickness=parse_length('3/4"'))).figures
    show = Show(UnitSystem.INCH)
    assert show.length(f["lining_outside"].value) == '59 3/8"'
    assert show.length(f["between"].value) == '57 7/8"'
    assert f["clear_width"].value == pytest.approx(parse_length('57 7/8"'))


def test_strips_of_a_wall_that_leans_eight_go_from_eight_to_nothing():
    """[G] similar triangles."""
    assert [strip_thickness(lean=8, height=2000, at=at) for at in (0, 500, 2000)] == [8, 6, 0]
    assert [strip_thickness(lean=-8, height=2000, at=at) for at in (0, 500, 2000)] == [0, 2, 8]


def test_largest_upright_rectangle_agrees_with_scipy_on_random_convex_openings():
    """By SciPy: the concave log of the area, maximised over all four sides at once."""
    source = np.random.default_rng(6)
    for _ in range(6):
        turns = np.sort(source.uniform(0, 2 * math.pi, 6)) + np.linspace(0, 1e-3, 6)
        if np.max(np.diff([*turns, turns[0] + 2 * math.pi])) > 2.6:
            continue
        planes = [HalfPlane(math.cos(t), math.sin(t), source.uniform(300, 900)) for t in turns]
        ours = largest_box(planes)
        held = [
            {"type": "ineq", "fun": lambda b, p=p, i=i, j=j: p.c - p.a * b[i] - p.b * b[j]}
            for p in planes
            for i in (0, 2)
            for j in (1, 3)
        ]
        best = max(
            (
                optimize.minimize(
                    lambda b: -math.log(max(b[2] - b[0], 1e-9)) - math.log(max(b[3] - b[1], 1e-9)),
                    start,
                    constraints=held,
                    method="SLSQP",
                )
                for start in ([-50, -50, 50, 50], [-10, -90, 10, 90])
            ),
            key=lambda each: -each.fun,
        )
        area = (ours.x1 - ours.x0) * (ours.y1 - ours.y0)
        assert area == pytest.approx(math.exp(-best.fun), rel=1e-3)
