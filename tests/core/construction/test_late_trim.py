"""What comes off once the leaf is made: everything that hangs on its foot moves, what must stay is judged."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon, box

from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.layered.model import Layered
from oakmeasure.core.construction.light.model import Light
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.construction.veneered.model import Veneered, VeneerForm
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import HardwareChoices, MortiseLock
from oakmeasure.core.document.job import LateTrim
from oakmeasure.core.document.sliding_gear import Guide, GuideKind
from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
from oakmeasure.core.drawings.leaf.ways_view import ways_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from samples import codes, job, said, solved


def row(leaf, what):
    table = next(each for each in leaf.leaf_choices if each.title == "Trimmed once made")
    return next(each for each in table.options if each.cells[0] == what)


def test_five_off_the_bottom_moves_everything_that_hangs_on_the_foot():
    made = job(build=Framed(), late=LateTrim(foot=5.0, allow_end=3.0))
    before, after = solved(build=Framed()), solve(made).leaves[0]
    assert after.build.height == before.build.height - 5
    assert after.build.part("bottom rail").face.y1 == 195
    assert after.build.part("bottom rail").finished.width == 195
    assert after.build.part("bottom rail").planed == before.build.part("bottom rail").planed  # it was cut before
    assert after.build.part("middle rail").face.y0 == before.build.part("middle rail").face.y0 - 5
    assert after.figures["lock_up_trimmed"].value == 989
    assert after.figures["gap_floor_trimmed"].value == 11
    assert row(after, "bottom rail").cells[1:] == ("200", "195", "192", "40")
    assert row(after, "lock, up the leaf").cells[1:4] == ("994", "989", "986")
    assert after.butts.places[-1].bottom.value == before.butts.places[-1].bottom.value - 5
    assert after.weights.mass.value < before.weights.mass.value
    assert after.figures["leaf_height"].value == before.figures["leaf_height"].value
    taken_back = job_edits.with_field(made, "leaf-1", "late", LateTrim())
    assert solve(taken_back).leaves[0].build == before.build


def test_worst_trim_is_judged_by_what_must_stay_and_names_the_smallest_change():
    lock = HardwareChoices(lock=MortiseLock(backset=57.0))
    made = job(build=Framed(), hardware=lock, late=LateTrim(latch=10.0, allow_side=20.0))
    look = said(solve(made).leaves[0], "late-latch-latch-stile")
    assert look.level is Level.WARNING
    assert look.remedies[0].value == pytest.approx(95 - 72 - 10)  # backset and 15, 10 gone already
    assert "late-latch-latch-stile" not in codes(
        solve(job_edits.with_remedy(made, "leaf-1", look.remedies[0])).leaves[0]
    )
    far = job(build=Framed(), hardware=lock, late=LateTrim(latch=40.0))
    stop = said(solve(far).leaves[0], "late-latch-latch-stile")
    assert (stop.level, stop.remedies[0].value) == (Level.STOP, pytest.approx(23))
    assert "late-latch-latch-stile" not in codes(
        solve(job_edits.with_remedy(far, "leaf-1", stop.remedies[0])).leaves[0]
    )


def test_groove_ledges_end_boards_and_solid_edge_follow_a_trim():
    slab = {
        "build": Existing(width=861.0),
        "hanging": Hanging.SLIDING,
        "hardware": HardwareChoices(guide=Guide(kind=GuideKind.FIN, groove_width=8.0, groove_depth=18.0)),
    }
    leaf = solved(**slab, late=LateTrim(foot=4.0, hinge=3.0))
    assert leaf.figures["guide_left"].value == 14
    assert row(leaf, "groove for the guide").cells[1:3] == ("18", "14")
    assert row(leaf, "hinge edge").cells[1:3] == ("20.5", "17.5")
    gone = solved(**slab, late=LateTrim(foot=12.0))
    assert said(gone, "late-foot-groove-for-the-guide").remedies[0].value == 10
    boards = solved(build=Boarded(), late=LateTrim(foot=20.0, hinge=6.0))
    plain = solved(build=Boarded())
    assert boards.build.part("board 1").finished.width == plain.build.part("board 1").finished.width - 6
    assert boards.build.part("lower ledge").face.y0 == plain.build.part("lower ledge").face.y0 - 20
    assert row(boards, "lower ledge, from the foot").cells[1:3] == ("125", "105")
    everything = solved(build=Light(), late=LateTrim(foot=199.0, head=199.0, hinge=99.0, latch=99.0))
    assert everything.leaf_choices


CONSTRUCTIONS = (
    Framed(),
    Boarded(),
    Slab(),
    Layered(),
    Light(),
    Veneered(),
    Veneered(form=VeneerForm.FRAMED),
    Existing(inside=Inside.PANELLED, width=800.0),
)


@given(
    st.sampled_from(CONSTRUCTIONS),
    st.builds(LateTrim, foot=st.floats(0, 60), head=st.floats(0, 60), hinge=st.floats(0, 30), latch=st.floats(0, 30)),
)
@settings(max_examples=40)
def test_trimmed_leaf_is_the_leaf_as_made_cut_by_the_trim(build, late):
    plain, leaf = solved(build=build), solved(build=build, late=late)
    keeps = box(late.hinge, late.foot, plain.build.width - late.latch, plain.build.height - late.head)
    names = {each.name: each for each in leaf.build.parts}
    for each in plain.build.parts:
        wanted = Polygon(each.corners).intersection(keeps).area
        got = Polygon(names[each.name].corners).area if each.name in names else 0.0
        assert got == pytest.approx(wanted, abs=2.0), each.name
    for each in leaf.build.parts:
        assert each.length.value == pytest.approx(each.finished.length, abs=0.01)
        assert each.finished.length <= each.planed.length + 1e-6
    assert leaf_view(leaf, Show()).shapes
    assert ways_view(leaf, Show()).shapes
