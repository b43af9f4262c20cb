"""A new leaf in a frame that stays: its rebate, its old recesses and keep, and a hand that is changed."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.hinges import HardwareChoices, MortiseLock, butt_from_table
from oakmeasure.core.document.job import FitChoices, Hand, HeadShape
from oakmeasure.core.document.old_frame import JambSide, OldFrame, OldRecess, RecessFor
from oakmeasure.core.document.readings import HeadKind, Reading
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.hardware.boring import BoringKind, CutIn
from oakmeasure.core.solver import solve
from samples import assert_sums, codes, job, readings, said, solved

BUTT = butt_from_table("brock-100")  # 100 long, 5.5 when shut; 30 − 6 across the edge


def butts(*downs: float, deep: float = 2.0, jamb: JambSide = JambSide.LEFT, **more: float) -> tuple[OldRecess, ...]:
    return tuple(OldRecess(jamb=jamb, down=down, length=100.0, wide=24.0, deep=deep, **more) for down in downs)


def in_frame(width: float = 762.0, height: float = 1981.0, **more):
    """A leaf on chosen butts in a frame with its recesses."""
    recesses = more.pop("recesses", butts(152.0, 1652.0))
    hardware = HardwareChoices(butt=BUTT, **more.pop("hardware", {}))
    frame = OldFrame(recesses=recesses, **more.pop("frame", {}))
    return solved(width, height, old_frame=frame, hardware=hardware, **more)


def places(leaf) -> list[float]:
    return [each.top.value for each in leaf.butts.places]


def test_butts_go_into_the_old_recesses_and_nothing_is_cut_into_the_jamb():
    """[G] 2 under the head: recesses 152 and 1652 down the jamb are 150 and 1650 down the leaf.

    Shut 5.5, gap 2, jamb 2: the leaf is let in 1.5.
    """
    leaf = in_frame()
    assert places(leaf) == [pytest.approx(150.0), pytest.approx(1650.0)]
    assert leaf.figures["butt_depth"].value == pytest.approx(1.5)
    assert [each for each in leaf.borings if each.kind is BoringKind.BUTT and not each.cut_in.is_leaf] == []
    on_leaf = [each for each in leaf.borings if each.kind is BoringKind.BUTT]
    assert [each.from_top for each in on_leaf] == [pytest.approx(150.0), pytest.approx(1650.0)]
    assert {each.depth for each in on_leaf} == {1.5}
    assert said(leaf, "old-recesses").level is Level.OK
    assert "frame-patches" not in codes(leaf)
    assert_sums(leaf)


def test_a_head_out_of_level_is_reckoned_with():
    """[G] 2000 at the hinges, 1990 at the latch: the leaf is 12 under the head there; 162 down the jamb is 150."""
    leaf = in_frame(
        recesses=butts(162.0, 1662.0),
        readings=readings(width_top=800.0, width_bottom=800.0, height_hinge=2000.0, height_latch=1990.0),
    )
    assert places(leaf) == [pytest.approx(150.0, abs=0.01), pytest.approx(1650.0, abs=0.01)]


@given(
    downs=st.lists(st.integers(120, 1700), min_size=2, max_size=3, unique=True).filter(
        lambda found: min(b - a for a, b in zip(sorted(found), sorted(found)[1:], strict=False)) > 130
    ),
    tilt=st.floats(-12, 12),
    lean=st.floats(-8, 8),
)
def test_what_is_cut_in_the_leaf_meets_the_old_recess_where_it_hangs(downs, tilt, lean):
    leaf = in_frame(
        recesses=butts(*map(float, downs)),
        readings=readings(
            width_bottom=760.0,
            width_top=760.0 - lean,
            height_hinge=2000.0,
            height_latch=2000.0 + tilt,
            lean_hinge=lean,
            lean_latch=0.0,
        ),
    )
    for place, down in zip(leaf.butts.places, sorted(downs), strict=True):
        assert leaf.frame.hinge.place(down)[1] == pytest.approx(leaf.frame.leaf_at[1] + place.rect.y1, abs=0.01)
        assert place.jamb_top.value == pytest.approx(down, abs=0.01)


def test_recesses_of_other_butts_are_fitted_to_these():
    long = OldRecess(down=152.0, length=104.0, wide=24.0, deep=2.0)
    narrow = OldRecess(down=1652.0, length=100.0, wide=20.0, deep=1.2)
    check = said(in_frame(recesses=(long, narrow)), "old-recess-size")
    assert check.level is Level.WARNING
    assert "1 is filled by 4 at its lower end" in check.sentence
    assert "2 is cut 4 wider" in check.sentence
    assert "2 is cut 0.8 deeper" in check.sentence


def test_a_rebated_frame_is_measured_between_its_stops():
    """[G] 738 × 1969 between the stops, 12 of rebate: 762 × 1981 in it, a leaf of 757 × 1976 with 2, 3, 2 and 3."""
    gaps = FitChoices(gap_hinge=2.0, gap_latch=3.0, gap_head=2.0, gap_floor=3.0)
    leaf = in_frame(738.0, 1969.0, frame={"rebate_side": 12.0, "deep": 40.0}, recesses=(), fit=gaps)
    f = leaf.figures
    assert (f["clear_width"].value, f["clear_height"].value) == (pytest.approx(762.0), pytest.approx(1981.0))
    assert (f["leaf_width"].value, f["leaf_height"].value) == (pytest.approx(757.0), pytest.approx(1976.0))
    assert f["frame_proud"].value == pytest.approx(4.0)
    check = said(leaf, "frame-proud")
    assert (check.remedies[0].path, check.remedies[0].value) == ("build.thickness", 40.0)
    flush = in_frame(
        738.0, 1969.0, frame={"rebate_side": 12.0, "deep": 40.0}, recesses=(), build=Framed(thickness=40.0)
    )
    assert said(flush, "frame-flush").level is Level.OK
    assert_sums(leaf)


def test_a_rebate_under_an_arch_is_to_be_measured_in_itself():
    arch = HeadShape(kind=HeadKind.SEGMENTAL, rise=Reading(value=60.0))
    leaf = in_frame(738.0, 1969.0, frame={"rebate_side": 12.0}, recesses=(), head=arch)
    assert "rebate-shape" in codes(leaf)
    assert "frame_rebate" not in leaf.figures


LOCK = {"lock": MortiseLock(case_height=56.0)}


def keep(middle: float, jamb: JambSide = JambSide.RIGHT) -> OldRecess:
    return OldRecess(what=RecessFor.KEEP, jamb=jamb, down=middle - 60.0, length=120.0, wide=22.0, deep=3.0)


def test_the_lock_is_brought_to_the_old_keep():
    made = job(
        hardware=HardwareChoices(butt=BUTT, **LOCK), old_frame=OldFrame(recesses=(*butts(152.0, 1652.0), keep(1021.0)))
    )
    before = solve(made).leaves[0]
    check = said(before, "old-keep")
    assert check.level is Level.WARNING
    assert any(each.kind is BoringKind.LOCK_KEEP for each in before.borings)
    after = solve(job_edits.with_remedy(made, "leaf-1", check.remedies[0])).leaves[0]
    assert said(after, "old-keep").level is Level.OK
    assert not any(each.kind is BoringKind.LOCK_KEEP for each in after.borings)  # it is there
    assert after.frame.carried("latch", after.build.height - after.figures["lock_down"].value) == pytest.approx(1021.0)
    assert "frame-patches" not in codes(after)


def test_a_changed_hand_leaves_patches_and_new_cuts_keep_clear_of_them():
    """Hinges now on the right: the butts' recesses are in the latch jamb, the keep's in the hinge jamb."""
    recesses = (*butts(152.0, 1652.0), keep(1000.0))
    leaf = in_frame(hand=Hand.RIGHT, recesses=recesses, hardware=LOCK)
    check = said(leaf, "frame-patches")
    assert check.sentence.count("butt, 100 × 24 × 2") == 2
    assert "down the latch jamb" in check.sentence
    assert "keep, 120 × 22 × 3, 940 down the hinge jamb" in check.sentence
    on_jamb = [each for each in leaf.borings if each.cut_in is CutIn.HINGE_SIDE]
    assert len(on_jamb) == len(leaf.butts.places)  # cut anew
    steps = [each.id for each in leaf.making.operations]
    assert steps.index("patch:frame") < steps.index("let-in:side")
    low = in_frame(hand=Hand.RIGHT, recesses=(keep(230.0),))
    met = said(low, "patch-met-butt-1")
    mended = in_frame(hand=Hand.RIGHT, recesses=(keep(230.0),), hardware={"tops": met.remedies[0].value})
    assert "patch-met-butt-1" not in codes(mended)


def test_places_set_by_hand_leave_the_old_recesses_to_be_patched():
    leaf = in_frame(hardware={"tops": (300.0, 1500.0), "count": 2})
    assert places(leaf) == [300.0, 1500.0]
    assert said(leaf, "frame-patches").sentence.count("down the hinge jamb") == 2
