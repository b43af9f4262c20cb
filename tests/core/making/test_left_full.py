"""A leaf left full for its hinges, mends as large as their holes, the block that an inset leaf shuts against."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime

import pytest

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.hanging import EvenGap, Hanging, Shim
from oakmeasure.core.document.hinges import HardwareChoices, MortiseLock
from oakmeasure.core.document.job import FitChoices
from oakmeasure.core.document.production import LogKind, MishapKind
from oakmeasure.core.edits import log_edits
from oakmeasure.core.making.repairs import judge_mishap
from oakmeasure.core.making.spoilt_holes import SCREW_HOLE, holes_of
from oakmeasure.core.solver import solve
from replay_laws import unmade
from samples import codes, job, said, solved

CUPBOARD = Framed(
    thickness=20.0, stile=60.0, top_rail=60.0, middle_rail=None, bottom_rail=65.0, muntin=None, panel_thickness=6.0
)


def _setting(leaf, op_id, label):
    return next(each.value for each in leaf.making.op(op_id).settings if each.label == label)


@pytest.mark.parametrize("trim", [0.5, 1.0, 2.0, 4.0])
@pytest.mark.parametrize("gap", [0.8, 1.0, 2.0, 3.0])
@pytest.mark.parametrize("hanging", [Hanging.LINING, Hanging.INSET_BUTTS])
def test_a_leaf_left_full_is_hung_before_it_is_planed_to_the_gap(hanging, gap, trim):
    size, build = ((414.0, 620.0), CUPBOARD) if hanging is Hanging.INSET_BUTTS else ((762.0, 1981.0), Framed())
    fit = FitChoices(even=EvenGap(), gap_hinge=gap, trim_side=trim, trim_height=trim)
    leaf = solved(*size, hanging=hanging, build=build, fit=fit)
    f, ids = leaf.figures, [each.id for each in leaf.making.operations]
    assert f["leaf_width"].value == pytest.approx(size[0] - 2 * gap)  # sized by what was chosen, not by the shop's rule
    assert f["full_width"].value + gap <= size[0] - min(0.5, gap)  # hung full it goes in, by a card
    assert unmade(leaf) == []
    assert "goes-in" not in codes(leaf)  # it is planed until it does
    order = ["size:leaf", "let-in:leaf", "hang:dry", "plane:even", "ease:leaf"]
    assert [each for each in ids if each in order] == [each for each in order if each != "let-in:leaf" or each in ids]
    assert _setting(leaf, "plane:even", "off the latch edge") == pytest.approx(
        f["full_width"].value - size[0] + 2 * gap
    )
    if "let-in:leaf" in ids:  # marked from a head that is still on
        first = next(each for each in leaf.borings if each.name == "butt 1")
        assert leaf.making.op("let-in:leaf").settings[-3].value == pytest.approx(first.from_top + min(trim, gap - 0.5))


def test_what_the_hinges_made_is_planed_off_what_hangs_and_nothing_left_on_is_told():
    made = EvenGap(shims=(Shim(thickness=0.55, count=2),))
    leaf = solved(fit=FitChoices(even=made, gap_hinge=1.5))
    f = leaf.figures
    assert f["full_width"].value == pytest.approx(762.0 - 2 * 1.5 + 1.0)  # as it was hung, whatever gap came
    assert f["plane_latch_edge"].value == pytest.approx(f["full_width"].value - (762.0 - 2 * 1.1))
    bare = solved(fit=FitChoices(even=EvenGap(), trim_side=0.0, trim_height=0.0))
    assert said(bare, "none-left-full").remedies[0].value == 1.5
    assert bare.making.op("plane:even") is None


def test_the_lock_goes_into_an_edge_that_stays():
    fit = FitChoices(even=EvenGap(), gap_hinge=2.0)
    leaf = solved(fit=fit, hardware=HardwareChoices(lock=MortiseLock()))
    ids = [each.id for each in leaf.making.operations]
    assert ids.index("let-in:forend") > ids.index("plane:even")
    assert ids.index("let-in:lock-keep") > ids.index("plane:even")


def test_a_hole_is_mended_by_its_own_size():
    leaf = solved()
    stile = next(each.member for each in leaf.borings if each.name == "butt 1")
    screw = judge_mishap(leaf, MishapKind.HOLE_OFF, stile, 3.0, hole=SCREW_HOLE)
    pilot = leaf.figures["screw_pilot"].value
    assert dict(screw.best.sizes)["peg"] == pytest.approx(pilot)
    recess = judge_mishap(leaf, MishapKind.HOLE_OFF, stile, 3.0, hole="butt 2")
    slip = next(each for each in recess.repairs if each.key == "plug")
    assert dict(slip.sizes)["slip, long"] == pytest.approx(100.0)
    cups = solved(414.0, 620.0, hanging=Hanging.OVERLAY, build=CUPBOARD)
    member = next(each.member for each in cups.borings if each.name == "cup 1")
    for hole in holes_of(cups, member):
        judged = judge_mishap(cups, MishapKind.HOLE_OFF, member, 2.0, hole=hole.name)
        plug = next(each for each in judged.repairs if each.key == "plug")
        filled = next(iter(dict(plug.sizes).values()))
        assert hole.wide <= filled <= hole.wide + 2.0, hole
    tiny = judge_mishap(cups, MishapKind.HOLE_DEEP, member, 2.0, hole="cup 1 screw 1")
    assert "disc" not in {each.key for each in tiny.repairs if each.fits}  # none is turned for a hole of 2


def test_which_hole_is_in_the_log_and_in_the_mend():
    work = job(414.0, 620.0, hanging=Hanging.OVERLAY, build=CUPBOARD)
    leaf = solve(work).leaves[0]
    member = next(each.member for each in leaf.borings if each.name == "cup 1")
    wrong = log_edits.Mishap(MishapKind.HOLE_OFF, member, 1.0, "plug", "bore:cups", "cup 2 screw 1")
    after = log_edits.gone_wrong(work, leaf, wrong, datetime(2026, 12, 2, 9))
    with pytest.raises(InputError, match="cup 9"):
        log_edits.gone_wrong(work, leaf, replace(wrong, hole="cup 9"), datetime(2026, 12, 2, 9))
    (entry,) = (each for each in after.leaves[0].making.log if each.kind is LogKind.MISHAP)
    assert entry.hole == "cup 2 screw 1"
    mend = solve(after).leaves[0].making.op("mend:1")
    assert "cup 2 screw 1" in mend.name
    assert mend.settings[0].value == pytest.approx(2.5)


@pytest.mark.parametrize("hanging", [Hanging.INSET, Hanging.INSET_BUTTS])
def test_an_inset_leaf_gets_its_block_as_far_back_as_it_is_thick(hanging):
    leaf = solved(414.0, 620.0, hanging=hanging, build=CUPBOARD)
    assert _setting(leaf, "fix:stop", "back from the front") == pytest.approx(20.0)
    assert solved(414.0, 620.0, hanging=Hanging.OVERLAY, build=CUPBOARD).making.op("fix:stop") is None


def test_the_step_has_the_backing_board_of_the_card(solved_demo):
    leaf = next(each for each in solved_demo.leaves if each.leaf.id == "barn-side")
    assert leaf.figures["backing"].value == pytest.approx(8.0)  # missing: less than any board that holds a screw
    board = next(each.value for each in said(leaf, "backing").remedies if each.path == "hardware.wall.backing")
    assert _setting(leaf, "fix:track", "backing board") == board == 18.0
