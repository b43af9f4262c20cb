"""Butts: which one does, where they sit on leaf, lining and cabinet, what is said of wedges and gaps."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.construction.boarded.model import Boarded, BoardedStyle
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.document.hanging import EvenGap, Hanging, Shim
from oakmeasure.core.document.hinges import HardwareChoices, butt_from_table
from oakmeasure.core.document.job import FitChoices, Hand
from oakmeasure.core.document.readings import Provenance, Reading
from oakmeasure.core.document.rules import ButtSchool
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.fit.even_reveal import strokes
from oakmeasure.core.hardware.boring import Device
from oakmeasure.core.hardware.hinges.butt_schools import ButtEnds, places_by_school
from oakmeasure.core.solver import solve
from samples import codes, job, solved


def test_butts_that_are_too_weak_or_too_wide_name_the_one_of_the_table_that_does_and_taking_it_mends():
    taken = HardwareChoices(butt=butt_from_table("brock-100"))
    heavy = job(780.0, 2040.0, build=Boarded(style=BoardedStyle.X, double=True), hardware=taken)
    weak = next(each for each in solve(heavy).leaves[0].checks if each.code == "butts-weak")
    assert weak.remedies[0].text == "Take the Tern 102 ball-bearing, up to 80 kg"
    mended = solve(job_edits.with_remedy(heavy, "leaf-1", weak.remedies[0])).leaves[0]
    assert "butts-weak" not in codes(mended)
    thin = solved(780.0, 2040.0, build=Boarded())
    wide = next(each for each in thin.checks if each.code == "butt-back")
    assert wide.title == "The butts are wider than the edge"  # 24 in 20
    assert all(each.path == "" for each in wide.remedies)  # none of the table is narrow enough for boards alone
    assert wide.level is Level.WARNING  # nobody chose them yet: that is said instead of a verdict on what they carry
    assert "hinges-not-chosen" in codes(thin, Level.WARNING)
    assert not {"butts-carry", "butts-weak", "screws-hold"} & codes(thin)
    bought = solved(780.0, 2040.0, build=Boarded(), hardware=taken)
    assert "butt-back" in codes(bought, Level.STOP)
    assert not [each for each in bought.borings if each.kind.device is Device.BUTT]


def test_butts_of_a_cabinets_leaf_are_in_line_with_its_rails_or_their_own_length_from_its_ends():
    framed = solved(440.0, 560.0, hanging=Hanging.INSET_BUTTS, build=Framed(middle_rail=None, muntin=None)).figures
    assert framed["butt_1_top"].value == framed["top_rail"].value
    height, foot = framed["leaf_height"].value, framed["butt_2_top"].value + framed["butt_length"].value
    assert height - foot == pytest.approx(framed["bottom_rail"].value)
    start = job(440.0, 560.0, hanging=Hanging.INSET_BUTTS)
    slab = solve(job_edits.with_construction(start, "leaf-1", "slab")).leaves[0]
    assert slab.figures["butt_1_top"].value == slab.figures["butt_length"].value
    assert not {each for each in codes(slab, Level.STOP) if each.startswith(("stiffener", "butts"))}


def test_butt_on_a_wedged_tenon_is_said():
    leaf = solved(2100.0 / 2, 1981.0, build=Framed(tenon=TenonKind.THROUGH, bottom_rail=260.0))
    assert any(code.endswith("-wedge") for code in codes(leaf))


def test_thin_butt_for_a_wide_gap_is_a_stop():
    leaf = solved(fit=FitChoices(gap_hinge=7.0))
    stop = next(each for each in leaf.checks if each.code == "butt-gap")
    assert stop.level is Level.STOP
    assert not leaf.butts.borings


def test_borings_stand_in_pairs_a_head_gap_apart():
    leaf = solved(hand=Hand.RIGHT)
    on_leaf = [cut for cut in leaf.butts.borings if cut.member == "hinge stile"]
    on_lining = [cut for cut in leaf.butts.borings if cut.member == "hinge lining leg"]
    gap = leaf.figures["gap_head"].value
    assert len(on_leaf) == 3
    for one, other in zip(on_leaf, on_lining, strict=True):
        assert other.from_top - one.from_top == pytest.approx(gap)
        assert (one.along, one.across, one.depth) == (other.along, other.across, other.depth)


@given(
    st.sampled_from(ButtSchool),
    st.integers(2, 6),
    st.floats(300, 3000),
    st.floats(50, 150),
    st.floats(80, 300),
    st.floats(80, 300),
    st.floats(0, 400),
)
def test_butts_stand_one_above_the_other_inside_the_leaf_or_are_refused(
    school, count, height, length, from_top, from_bottom, third_below
):
    place = {
        "school": school,
        "count": count,
        "height": height,
        "length": length,
        "ends": ButtEnds(from_top=from_top, from_bottom=from_bottom, third_below=third_below),
    }
    try:
        tops = places_by_school(**place)
    except InputError:
        return
    assert len(tops) == count
    assert all(below - above >= length for above, below in pairwise(tops))
    assert tops[0] >= 0
    assert tops[-1] + length <= height


def test_low_leaf_has_no_room_for_its_butts():
    leaf = solved(600.0, 420.0, build=Framed(muntin=None, middle_rail=None, top_rail=60.0, bottom_rail=60.0))
    assert "butts-room" in codes(leaf, Level.STOP)


def test_hinges_are_let_in_for_the_gap_that_was_wanted_not_the_one_that_came():
    even = EvenGap(shims=(Shim(thickness=0.55, count=2),))
    leaf = solved(fit=FitChoices(gap_hinge=2.0, even=even))
    assert leaf.figures["butt_depth"].value == pytest.approx((leaf.figures["butt_closed"].value - 2.0) / 2)
    with pytest.raises(InputError, match="shaving"):
        strokes(1.0, shaving=0.0)


@pytest.mark.parametrize(
    ("metal", "flush", "says"), [(2.0, 1.5, "0.25 proud"), (1.5, 2.5, "0.25 under the wood"), (1.75, 2.0, "")]
)
def test_the_gap_of_butts_let_in_flush_is_foretold(metal, flush, says):
    """Fault 31: shut 5.5, less the metal twice; the step says the same as the check."""
    butt = butt_from_table("brock-100").model_copy(
        update={"metal_thickness": Reading(value=metal, state=Provenance.MEASURED)}
    )
    leaf = solved(hardware=HardwareChoices(butt=butt))
    assert leaf.figures["gap_let_in_flush"].value == pytest.approx(flush)
    found = [each.sentence for each in leaf.checks if each.code == "butts-flush"]
    assert bool(found) is bool(says)
    assert all(says in each and f"{flush:g}" in each for each in found)
    step = leaf.making.op("let-in:leaf")
    words = {"0.25 proud": "0.25 proud of the edge", "0.25 under the wood": "0.25 under the edge"}.get(says, "flush")
    assert words in step.check.words
    assert words in step.practice


def test_nothing_is_foretold_of_butts_that_nobody_chose():
    assert "gap_let_in_flush" not in solved().figures
