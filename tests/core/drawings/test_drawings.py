"""Drawings without a screen: everything is there, where it belongs, in the words and numbers of the solution."""

from __future__ import annotations

import math
from functools import cache
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.document import field_path
from oakmeasure.core.document.hinges import HardwareChoices, MortiseLock
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.roles import Role
from oakmeasure.core.drawings.drawing import Anchor, Area, Dimension, Grain, Label, Layer, Line, Sketch
from oakmeasure.core.drawings.edge_view import edge_on
from oakmeasure.core.drawings.hang.crooked import crooked, side_sigmas
from oakmeasure.core.drawings.hatching import grain_lines, hatching
from oakmeasure.core.drawings.leaf.leaf_rods import height_marks, width_marks
from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
from oakmeasure.core.drawings.measure.opening_view import opening_view
from oakmeasure.core.drawings.views import VIEWS, MeasurePage, measure_view
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solver import solve, solve_leaf
from samples import framed, job, solved

rects = st.builds(lambda x, y, w, h: Rect(x, y, x + w, y + h), *(st.floats(-500, 500),) * 2, *(st.floats(1, 900),) * 2)


def _places(shape):
    if isinstance(shape, Label):
        return [(shape.x, shape.y)]
    return [shape.start, shape.end] if isinstance(shape, Dimension) else shape.points


@pytest.fixture(scope="module")
def leaves_of(demo):
    """The demo job's leaves, worked out in a unit or hung on one hand, each once."""

    @cache
    def in_unit(system):
        return solve(field_path.with_value(demo, "unit", system)).leaves

    @cache
    def by_hand(hand):
        turned = (field_path.with_value(demo, f"leaves.{at}.hand", hand).leaves[at] for at in range(len(demo.leaves)))
        return [solve_leaf(demo, each) for each in turned]

    return lambda how: in_unit(how) if isinstance(how, UnitSystem) else by_hand(how)


@pytest.mark.parametrize("stage", list(Stage))
@pytest.mark.parametrize("system", list(UnitSystem))
def test_every_view_of_every_demo_leaf_has_its_texts_inside_and_nothing_without_a_number(leaves_of, stage, system):
    for leaf in leaves_of(system):
        _check_view(leaf, VIEWS[stage](leaf, Show(system)), system)


def _check_view(leaf, drawing, system):
    b = drawing.bounds
    for shape in drawing.shapes:
        for x, y in _places(shape):
            assert math.isfinite(x)
            assert math.isfinite(y)
            assert b.x0 <= x <= b.x1
            assert b.y0 <= y <= b.y1
    for text in drawing.texts():
        assert text.strip()
        assert "nan" not in text
    for shape in drawing.shapes:
        if isinstance(shape, Dimension) and shape.figure:
            assert shape.figure in leaf.figures
            assert shape.text.split(",")[0].removesuffix(" ?") == Show(system).length(leaf.figures[shape.figure].value)


@pytest.mark.parametrize("page", list(MeasurePage))
@pytest.mark.parametrize("hand", list(Hand))
def test_every_page_of_measure_draws_every_opening_of_the_demo_with_its_texts_inside(leaves_of, page, hand):
    for turned in leaves_of(hand):
        leaf = turned.leaf
        drawing = measure_view(turned, Show(), exaggeration=14.0, page=page)
        assert drawing.shapes, leaf.id
        b = drawing.bounds
        for shape in drawing.shapes:
            for x, y in _places(shape):
                assert b.x0 <= x <= b.x1, leaf.id
                assert b.y0 <= y <= b.y1, leaf.id
        assert not any("nan" in text or not text.strip() for text in drawing.texts())


def test_ticks_are_drawn_off_their_side_as_often_as_said_and_the_wrong_one_in_its_own_layer(solved_demo):
    leaf = solved_demo.leaf("hatch")
    drawing = measure_view(leaf, Show(), exaggeration=10.0)
    wrong = [s for s in drawing.shapes if s.ref == "tick:5"]
    assert any(isinstance(s, Line) and s.layer is Layer.DOUBT for s in wrong)
    assert any(isinstance(s, Label) and s.text.startswith("tick 5, 9") for s in wrong)
    assert {"tick:check", "tick:nick", "tick:12"} <= drawing.refs()


def test_residual_stands_under_its_reading_with_its_sign(solved_demo):
    leaf = solved_demo.leaves[0]
    drawing = opening_view(leaf, Show())
    shown = {s.ref: s.text for s in drawing.shapes if isinstance(s, Label) and s.layer is Layer.PENCIL and s.ref}
    for kind, judged in leaf.opening.adjustment.readings.items():
        if abs(judged.miss) >= 0.05:
            assert shown[f"reading:{kind}"] == ("+" if judged.miss > 0 else "") + Show().length(judged.miss)


def test_uncertainty_band_is_as_wide_as_two_standard_errors_times_the_exaggeration(solved_demo):
    leaf = solved_demo.leaf("hatch")
    taken = leaf.opening.taken
    shape = crooked(leaf, 10.0)
    sigmas = side_sigmas(taken.corners, taken.covariance, 1)
    band = shape.band(1, sigmas)
    assert math.dist(band[0], band[-1]) == pytest.approx(4 * 10 * sigmas[0])


def test_leaf_view_shows_every_part_and_every_dimension_leads_to_its_figure():
    leaf = framed(tenon=TenonKind.THROUGH)
    drawing = leaf_view(leaf, Show())
    assert {f"part:{part.name}" for part in leaf.build.parts} <= drawing.refs()
    edits_offered = {shape.edit for shape in drawing.shapes if isinstance(shape, Dimension) and shape.edit}
    assert edits_offered == {"build.stile", "build.muntin", "build.top_rail", "build.middle_rail", "build.bottom_rail"}
    wedges = [s for s in drawing.shapes if isinstance(s, Area) and s.layer is Layer.METAL and s.ref.startswith("part:")]
    through = [tenon for tenon in leaf.build.tenons if tenon.through]
    assert len(wedges) == 2 * len(through)


@pytest.mark.parametrize("hand", list(Hand))
def test_chain_dimensions_add_up_to_the_leaf_and_stand_where_they_measure(hand):
    leaf = solved(hand=hand)
    drawing = leaf_view(leaf, Show())
    upright = [s for s in drawing.shapes if isinstance(s, Dimension) and s.start[0] == s.end[0]]
    assert sum(s.end[1] - s.start[1] for s in upright) == pytest.approx(leaf.build.height)
    level = [
        s for s in drawing.shapes if isinstance(s, Dimension) and s.start[1] == s.end[1] and s.figure != "leaf_width"
    ]
    assert sum(abs(s.end[0] - s.start[0]) for s in level) == pytest.approx(leaf.build.width)
    for shape in (*upright, *level):
        assert math.dist(shape.start, shape.end) == pytest.approx(leaf.figures[shape.figure].value)


@given(st.floats(60, 130), st.none() | st.floats(40, 120), st.none() | st.floats(90, 220))
def test_rods_carry_every_shoulder_and_edge(stile, muntin, middle):
    leaf = framed(stile=stile, muntin=muntin, middle_rail=middle)
    heights, widths = [y for y, _ in height_marks(leaf.build)], [x for x, _ in width_marks(leaf.build)]
    assert heights == sorted(heights)
    assert widths == sorted(widths)
    for part in leaf.build.parts:
        if part.role is Role.RAIL:
            assert any(abs(part.face.y0 - y) < 1e-6 for y in heights)
            assert any(abs(part.face.y1 - y) < 1e-6 for y in heights)
        if part.role in (Role.STILE, Role.MUNTIN):
            assert any(abs(part.face.x0 - x) < 1e-5 for x in widths)
            assert any(abs(part.face.x1 - x) < 1e-5 for x in widths)


@given(rects, st.floats(2, 90))
def test_hatching_stays_inside_and_runs_at_45_degrees(rect, spacing):
    for (x0, y0), (x1, y1) in hatching(rect, spacing):
        assert y1 - y0 == pytest.approx(x1 - x0, abs=1e-6)
        for x, y in ((x0, y0), (x1, y1)):
            assert rect.x0 - 1e-6 <= x <= rect.x1 + 1e-6
            assert rect.y0 - 1e-6 <= y <= rect.y1 + 1e-6


@given(rects, st.booleans())
def test_grain_runs_along_the_wood_and_is_the_same_each_time(rect, upright):
    lines = grain_lines(rect, upright=upright)
    assert lines == grain_lines(rect, upright=upright)
    for line in lines:
        along, across = (1, 0) if upright else (0, 1)
        assert all(b[along] > a[along] for a, b in pairwise(line))
        low, high = ((rect.x0, rect.x1), (rect.y0, rect.y1))[across]
        assert all(low <= point[across] <= high for point in line)


def test_grain_of_the_parts_is_drawn_along_their_length():
    drawing = leaf_view(framed(), Show())
    grain = {s.ref: s.grain for s in drawing.shapes if isinstance(s, Area) and s.layer is Layer.WOOD}
    assert grain["part:hinge stile"] is Grain.UPRIGHT
    assert grain["part:top rail"] is Grain.LEVEL
    assert grain["part:upper muntin"] is Grain.UPRIGHT


def test_mirroring_turns_places_and_not_words():
    sketch = Sketch(Show(), mirror_at=100.0)
    sketch.write((10, 5), "hinge")
    sketch.line([(0, 0), (30, 0)], Layer.OUTLINE)
    label, line = sketch.shapes
    assert isinstance(label, Label)
    assert (label.x, label.text, label.anchor) == (90.0, "hinge", Anchor.RIGHT)
    assert isinstance(line, Line)
    assert line.points == ((100.0, 0), (70.0, 0))


@pytest.mark.parametrize("times", [1, 10, 20])
def test_crookedness_is_shown_as_many_times_as_is_said(solved_demo, times):
    leaf = solved_demo.leaves[0]
    drawing = opening_view(leaf, Show(), exaggeration=times)
    sides = {s.ref: s.points for s in drawing.shapes if isinstance(s, Line) and s.layer is Layer.OUTLINE}
    (lf_x, _), (lh_x, _) = sides["side:latch side"]
    (hh_x, _), (hf_x, _) = sides["side:hinge side"]
    assert lh_x - lf_x == pytest.approx(times * (leaf.opening.latch_head[0] - leaf.opening.latch_foot[0]))
    assert hh_x - hf_x == pytest.approx(times * leaf.opening.hinge_head[0])


def test_doubted_reading_is_drawn_as_doubted_with_what_the_others_make_it(solved_demo):
    leaf = solved_demo.leaves[1]
    drawing = opening_view(leaf, Show())
    doubted = next(s for s in drawing.shapes if s.ref == "reading:width_top")
    assert isinstance(doubted, Dimension)
    assert doubted.layer is Layer.DOUBT
    assert doubted.text == "678.5, not 668.1"


def test_cutting_view_draws_each_piece_once_and_inside_its_board(solved_demo):
    leaf = solved_demo.leaves[0]
    drawing = VIEWS[Stage.TIMBER](leaf, Show())
    boards = [s for s in drawing.shapes if isinstance(s, Area) and s.layer is Layer.WASTE]
    pieces = [s for s in drawing.shapes if isinstance(s, Area) and s.layer is Layer.WOOD]
    assert len(boards) == leaf.plan.boards
    assert len(pieces) == sum(len(cut.pieces) for group in leaf.plan.groups for cut in group.plan.boards)
    for piece in pieces:
        assert any(_inside(piece, board) for board in boards)


def _inside(one, other):
    (x0, y0), (x1, y1) = other.points[0], other.points[2]
    return all(x0 - 1e-6 <= x <= x1 + 1e-6 and y0 - 1e-6 <= y <= y1 + 1e-6 for x, y in one.points)


def test_plan_through_a_butt_shows_its_depth_to_scale():
    leaf = solved()
    drawing = VIEWS[Stage.HARDWARE](leaf, Show())
    plates = [
        s
        for s in drawing.shapes
        if isinstance(s, Area) and s.layer is Layer.METAL and s.ref == "butt:1" and len(s.points) == 4
    ]
    stile = next(
        s for s in drawing.shapes if isinstance(s, Area) and s.ref == "part:hinge stile" and s.layer is Layer.END_GRAIN
    )
    big = (max(y for _, y in stile.points) - min(y for _, y in stile.points)) / leaf.build.thickness
    edge = min(x for x, _ in stile.points)
    in_the_leaf = [
        plate
        for plate in plates
        if max(x for x, _ in plate.points) > edge + 1e-6
        and min(y for _, y in plate.points) >= min(y for _, y in stile.points) - 1e-6
    ]
    inside = max(x for plate in in_the_leaf for x, _ in plate.points)
    assert (inside - edge) / big == pytest.approx(leaf.figures["butt_depth"].value)


def test_no_view_fails_on_a_leaf_that_is_all_stops():
    wrong = job(build=Framed(stile=380.0, lock_height=150.0, panel_thickness=60.0, middle_rail=60.0))
    leaf = solve(wrong).leaves[0]
    for view in VIEWS.values():
        assert view(leaf, Show()).shapes


@pytest.mark.parametrize("hand", list(Hand))
def test_edge_seen_straight_on_has_its_opening_face_where_the_eye_finds_it(hand):
    """Hinges left: from the hinge side the opening face is at the right hand, from the latch side at the left."""
    leaf = solved(hand=hand, hardware=HardwareChoices(lock=MortiseLock(case_height=56.0)))
    for at_latch in (False, True):
        sketch = Sketch(Show(), 20.0)
        edge_on(sketch, leaf, leaf.build, 0.0, at_latch=at_latch)
        right = (hand is Hand.LEFT) is not at_latch
        tips = [
            shape.points[1][0] for shape in sketch.shapes if isinstance(shape, Line) and shape.layer is Layer.PENCIL
        ]
        assert (max(tips) > leaf.build.thickness) is right  # the arrow beside "opening face"
        assert (min(tips) < 0) is not right
        cuts = [shape for shape in sketch.shapes if isinstance(shape, Area) and shape.ref.startswith("butt:")]
        if not at_latch:  # butts lie at the opening face, from it to their width across
            across = leaf.figures["butt_across"].value
            for cut in cuts:
                xs = [x for x, _ in cut.points]
                t = leaf.build.thickness
                assert (min(xs), max(xs)) == pytest.approx((t - across, t) if right else (0.0, across))
            assert cuts
