"""Every way of hanging: sizes, what stands in the way, and that every remedy offered mends."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.hanging import Aim, CabinetChoices, Hanging, LeafShape, PairChoices, SlideChoices
from oakmeasure.core.document.job import FitChoices, Hand, Reading
from oakmeasure.core.document.readings import InTheWay, Obstruction, Side
from oakmeasure.core.drawings.drawing import Dimension
from oakmeasure.core.drawings.views import FitPage, fit_stage_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from samples import codes, job, readings, solved, square_readings

LEVEL = {
    "width_top": 800.0,
    "width_bottom": 800.0,
    "height_hinge": 2000.0,
    "height_latch": 2000.0,
    "lean_hinge": 0.0,
    "lean_latch": 0.0,
}


def standing(out, where=Side.HINGE, away=6.0, what=Obstruction.ARCHITRAVE):
    return InTheWay(what=what, where=where, away=away, stands_out=Reading(value=out))


def hung(way, **more):
    return solved(readings=readings(**LEVEL), hanging=way, **more)


@given(
    st.sampled_from([Hanging.LINING, Hanging.PAIR, Hanging.INSET, Hanging.INSET_BUTTS]),
    st.floats(0, 8),
    st.floats(0, 8),
)
def test_leaves_and_gaps_fill_the_opening(way, side, meeting):
    gaps = FitChoices(gap_hinge=side, gap_latch=side, gap_head=side, gap_floor=side)
    leaf = hung(way, fit=gaps, pair=PairChoices(meeting=meeting))
    count = leaf.fit.leaves
    between = meeting if count == 2 else 0.0
    assert count * leaf.fit.width.value + between + 2 * side == pytest.approx(800)


def test_rebated_meeting_adds_its_overlap_to_the_two():
    square, rebated = (hung(Hanging.PAIR, pair=PairChoices(meeting=3, rebate=each)) for each in (0, 12))
    assert 2 * (rebated.fit.width.value - square.fit.width.value) == pytest.approx(12)
    assert rebated.fit.apart == 3 - 12


@pytest.mark.parametrize("hand", list(Hand))
def test_pair_is_drawn_whole_its_two_leaves_and_gaps_filling_the_clear_width(hand):
    leaf = hung(Hanging.PAIR, hand=hand)
    drawing = fit_stage_view(leaf, Show())
    dims = [shape for shape in drawing.shapes if isinstance(shape, Dimension)]
    widths = [each for each in dims if each.figure == "leaf_width"]
    assert len(widths) == 2
    clear = next(each for each in dims if each.figure == "clear_width")
    assert clear.end[0] - clear.start[0] == pytest.approx(leaf.figures["clear_width"].value)
    assert "figure:gap_meeting" in drawing.refs()


@given(st.integers(2, 8), st.floats(5, 20), st.floats(30, 80))
def test_leaves_of_a_run_cover_the_frame_with_even_gaps_or_say_that_they_rub(count, overlay, frame):
    leaf = hung(Hanging.OVERLAY, cabinet=CabinetChoices(overlay=overlay, run=count, frame=frame))
    length = count * 800 + (count - 1) * frame + 2 * overlay
    assert count * leaf.fit.width.value + (count - 1) * leaf.fit.apart == pytest.approx(length)
    assert ("run-tight" in codes(leaf)) is (leaf.fit.apart < 2)


def test_every_remedy_of_the_ways_of_hanging_mends_its_check():
    cases = {
        "run-tight": {"hanging": Hanging.OVERLAY, "cabinet": CabinetChoices(overlay=22, run=3, frame=40)},
        "bypass": {"hanging": Hanging.BYPASS_RAIL, "slide": SlideChoices(centre=80)},
        "backing": {"hanging": Hanging.SLIDING, "slide": SlideChoices(stand_off=10), "in_the_way": (standing(22),)},
        "projection": {"hanging": Hanging.COVER, "slide": SlideChoices(projection=40), "in_the_way": (standing(9),)},
        "gear-short": {
            "hanging": Hanging.POCKET,
            "slide": SlideChoices(gear_height=92, size_height=Reading(value=1981)),
        },
    }
    for code, more in cases.items():
        sample = job(readings=readings(**LEVEL), **more)
        said = next(each for each in solve(sample).leaves[0].checks if each.code == code)
        assert said.level is not Level.OK
        offered = [each for each in said.remedies if each.path]
        assert offered, code
        for remedy in offered:
            after = solve(job_edits.with_remedy(sample, "leaf-1", remedy)).leaves[0]
            assert not [each for each in after.checks if each.code == code and each.level is said.level], (code, remedy)


@given(
    st.sampled_from(list(Hanging)),
    st.floats(250, 2800),
    st.floats(400, 3500),
    st.floats(-200, 400),
    st.floats(0, 60),
    st.booleans(),
    st.floats(0, 1),
)
def test_no_choice_of_hanging_makes_the_leaf_or_its_picture_fail(way, width, height, overlap, overlay, right, opened):
    slide = SlideChoices(
        overlap_hinge=overlap,
        overlap_latch=overlap,
        overlap_head=overlap,
        stand_off=12,
        track=900,
        free_wall=600,
        gear_height=80,
        projection=50,
    )
    leaf = solved(
        readings=square_readings(width, height),
        hanging=way,
        hand=Hand.RIGHT if right else Hand.LEFT,
        slide=slide,
        cabinet=CabinetChoices(overlay=overlay, run=2),
        in_the_way=(standing(20), standing(9, Side.BEHIND, 300)),
    )
    for page in FitPage:
        drawing = fit_stage_view(leaf, Show(), page=page, opened=opened)
        assert drawing.shapes
        assert not any("nan" in text for text in drawing.texts())


def test_scribed_leaf_keeps_every_gap_and_says_what_comes_off_where():
    crooked = readings(**{**LEVEL, "width_top": 806.0, "lean_latch": -6.0, "height_latch": 2003.0})
    leaf = solved(readings=crooked, fit=FitChoices(shape=LeafShape.SCRIBED))
    square = solved(readings=crooked)
    assert leaf.fit.width.value > square.fit.width.value + 5
    assert leaf.figures["scribe_latch_edge_foot"].value == pytest.approx(6, abs=0.1)
    assert leaf.figures["gap_latch_foot"].value == leaf.figures["gap_latch_head"].value
    assert "scribed" in codes(leaf, Level.OK)
    assert len(leaf.fit.outline) == 4


def test_square_leaf_of_most_area_is_never_smaller_than_the_widest():
    crooked = readings(**{**LEVEL, "width_top": 806.0, "lean_latch": -6.0, "height_latch": 2009.0})
    sizes = {}
    for aim in Aim:
        leaf = solved(readings=crooked, fit=FitChoices(aim=aim))
        sizes[aim] = leaf.fit.width.value * leaf.fit.height.value
    assert sizes[Aim.AREA] >= sizes[Aim.WIDTH] - 1


def test_gaps_larger_than_the_opening_leave_no_leaf_and_say_so():
    small = square_readings(250, 350)
    wide = FitChoices(gap_hinge=60, gap_latch=60, gap_head=60, gap_floor=60)
    for fit in (wide, wide.model_copy(update={"shape": LeafShape.SCRIBED}), wide.model_copy(update={"aim": Aim.AREA})):
        assert "no-leaf" in codes(solved(readings=small, fit=fit), Level.STOP)
