"""What is dragged on the drawing: it snaps, it stays between its neighbours, it sets the field behind it."""

from __future__ import annotations

import pytest

from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.framed.patterns import with_pattern
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.views import FitPage, fit_stage_view, opened_by
from oakmeasure.core.edits import job_edits
from oakmeasure.core.edits.drag import dragged, dragged_butt, rails_to_drag
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from samples import codes, framed, job, readings, solved


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


def test_butt_is_dragged_snaps_to_a_rail_and_stays_between_its_neighbours():
    made = job(build=Framed(lock_height=1000.0))
    leaf = solve(made).leaves[0]
    rail = leaf.build.part("middle rail").face
    drop = dragged_butt(leaf, 2, rail.y1 + 50 + 5)
    assert drop.words == "over the middle rail"
    moved = solve(job_edits.with_field(made, "leaf-1", drop.path, drop.value)).leaves[0]
    assert moved.butts.places[1].rect.y0 == pytest.approx(rail.y1)
    assert [each.top.value for each in moved.butts.places[::2]] == [each.top.value for each in leaf.butts.places[::2]]
    assert moved.butts.places[1].jamb_top.value == moved.butts.places[1].top.value + 2
    for y in (-900.0, 9000.0):
        pushed = job_edits.with_field(made, "leaf-1", "hardware.tops", dragged_butt(leaf, 2, y).value)
        assert "butts-by-hand" not in codes(solve(pushed).leaves[0])
    assert dragged_butt(leaf, 9, 100.0) is None
    three = job_edits.with_field(
        job_edits.with_field(made, "leaf-1", drop.path, drop.value), "leaf-1", "hardware.count", 4
    )
    assert "butts-by-hand" in codes(solve(three).leaves[0], Level.WARNING)


LEVEL = {
    "width_top": 800.0,
    "width_bottom": 800.0,
    "height_hinge": 2000.0,
    "height_latch": 2000.0,
    "lean_hinge": 0.0,
    "lean_latch": 0.0,
}


def hung(way, **more):
    return solved(readings=readings(**LEVEL), hanging=way, **more)


@pytest.mark.parametrize("hand", list(Hand))
@pytest.mark.parametrize("way", [Hanging.LINING, Hanging.SLIDING, Hanging.BYPASS_TRACKS])
@pytest.mark.parametrize("share", [0.1, 0.35, 0.8, 1.0])
def test_handle_dragged_to_where_it_is_drawn_opens_the_leaf_as_far(hand, way, share):
    leaf = hung(way, hand=hand, build=Framed(thickness=20, panel_thickness=6))
    drawing = fit_stage_view(leaf, Show(), page=FitPage.WAY, opened=share)
    ring = next(shape for shape in drawing.shapes if shape.ref == "handle:opened").points
    x, y = (sum(each[at] for each in ring) / len(ring) for at in (0, 1))
    assert opened_by(leaf, x, y) == pytest.approx(share, abs=1e-6)
