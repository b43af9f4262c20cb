"""Veneered leaves: core, edgings and veneers, worked by hand; unlike faces bow."""

from __future__ import annotations

import pytest

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.body.of_build import body_of
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.veneered.model import BackFace, Veneered, VeneerForm
from oakmeasure.core.edits import job_edits
from oakmeasure.core.solver import solve
from oakmeasure.core.timber.laminate import Lamina, curvature
from samples import job, said, solved


def part(leaf, name):
    return leaf.build.part(name)


def volume(leaf):
    return sum(each.net.volume for each in body_of(leaf.build).pieces)


def test_veneered_leaf_worked_by_hand():
    """44 thick: 2.5 on both faces leave a core of 39; edging 12 for a moulding of 9, ripped at 20 for 8 of sapwood."""
    leaf = solved(build=Veneered(moulding=9.0, sapwood=8.0))
    f = leaf.figures
    assert f["core"].value == 39
    assert (f["edging"].value, f["edging_sawn"].value) == (12, 20)
    assert (f["core_width"].value, f["core_height"].value) == (757 - 24, 1973 - 24)
    assert f["veneer_raw"].value == pytest.approx(3.3)
    assert f["veneers_each"].value == 11  # 11 · 3.3 + 10 · 1.2 = 48.3 of 52, one more would be 52.8
    assert f["veneers_across"].value == 4  # of 196 at the most over 757
    assert (f["veneers_needed"].value, f["veneer_boards"].value) == (8, 1)
    by_hand = 733 * 1949 * 39 + 39 * (2 * 12 * 1973 + 2 * 12 * 733) + 2 * 757 * 1973 * 2.5
    assert volume(leaf) == pytest.approx(by_hand)
    assert f["veneer_bow"].value == 0
    after = solved(build=Veneered(moulding=9.0, edging_first=False))
    assert part(after, "hinge edging").finished.thickness == 44
    assert sum(
        each.face.width for each in after.build.parts if each.name.startswith("veneer") and "back" not in each.name
    ) == pytest.approx(733)


def test_built_up_frame_has_a_core_two_edgings_and_two_veneers_a_member_and_weighs_what_they_do():
    leaf = solved(build=Veneered(form=VeneerForm.FRAMED, muntin=None, arch_rise=38.0))
    rail = [each for each in leaf.build.parts if each.name.startswith("top rail")]
    assert [each.name for each in rail] == [
        "top rail",
        "top rail, edging 1",
        "top rail, edging 2",
        "top rail, veneer",
        "top rail, veneer, back",
    ]
    assert rail[0].species == "blockboard"
    arch = 25  # points of its lower edge; the core lies between its edgings
    assert [y for _, y in rail[0].shape[:arch]] == pytest.approx([y + 8 for _, y in rail[3].shape[:arch]])
    assert leaf.figures["arch_radius"].value == pytest.approx(567**2 / 8 / 38 + 19)
    plain = solved(build=Framed(muntin=None, arch_rise=38.0))
    assert {each.name for each in plain.build.parts} <= {each.name for each in leaf.build.parts}
    f = leaf.figures
    stiles = 4 * f["edging"].value * f["movement"].value + (2 * 95 - 4 * f["edging"].value) * 0.0002
    points = f["moisture_wet"].value - f["moisture_made"].value
    assert f["leaf_change_wet"].value == pytest.approx(stiles * points)  # edgings as wood, their cores as blockboard


def test_unlike_faces_bow_and_like_ones_do_not():
    bare = solved(build=Veneered(back=BackFace.BARE, thickness=20.0, veneer=3.0))
    look = said(bare, "veneer-bow")
    assert bare.figures["veneer_bow"].value > 2
    assert Show().length(bare.figures["veneer_bow"].value) in look.sentence
    mended = solve(job_edits.with_remedy(job(build=bare.leaf.build), "leaf-1", look.remedies[0])).leaves[0]
    assert mended.figures["veneer_bow"].value == 0
    thin = solved(build=Veneered(back=BackFace.THIN, thickness=20.0, veneer=3.0))
    assert 0 < thin.figures["veneer_bow"].value < bare.figures["veneer_bow"].value
    with pytest.raises(InputError):
        curvature([Lamina(-1.0, 1.0, 0.0)])
    with pytest.raises(InputError):
        curvature([Lamina(1.0, 0.0, 0.0)])
