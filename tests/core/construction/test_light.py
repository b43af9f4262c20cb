"""Light frames with a sheet on them or in a rebate, worked by hand."""

from __future__ import annotations

import pytest

from oakmeasure.core.base.geometry import area, clipped
from oakmeasure.core.body.of_build import body_of
from oakmeasure.core.construction.light.model import Light, LightBrace, LightFill, LightGlue, LightJoint
from oakmeasure.core.document.roles import Role
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from samples import codes, job, said, solved


def part(leaf, name):
    return leaf.build.part(name)


def volume(leaf):
    return sum(each.net.volume for each in body_of(leaf.build).pieces)


def test_light_frame_worked_by_hand():
    """Leaf 757 × 1973, members 70 and 90 of 20, boards of at most 100 on the back: eight of 94.625."""
    leaf = solved(build=Light(brace=LightBrace.CROSSED, brace_width=60.0))
    f = leaf.figures
    assert f["shoulder"].value == 617
    assert (f["boards_count"].value, f["board_end"].value) == (8, pytest.approx(757 / 8))
    assert f["pocket_screw"].value == 32
    assert f["brace_blank"].value == pytest.approx((617**2 + 1813**2) ** 0.5)
    frame = 20 * (2 * 70 * 1973 + 617 * 160)
    boards = 757 * 1973 * 9
    braces = [each for each in body_of(leaf.build).pieces if each.role is Role.BRACE]
    lapped = area(clipped(braces[0].part.shape, braces[1].part.shape)) * 20
    whole = sum(area(each.part.shape) for each in braces) * 20
    assert sum(each.net.volume for each in braces) == pytest.approx(whole - lapped)  # half of each where they cross
    assert volume(leaf) == pytest.approx(frame + boards + whole - lapped)
    assert sum(each.what == "pocket screws" for each in leaf.build.fixings) == 8
    assert all(each.slotted for each in leaf.build.fixings if each.what == "screws")
    assert leaf.body.along("hinge") == (0.0, 29.0)  # the boards reach the edges too
    held = solved(build=Light(glue=LightGlue.OVER))
    assert "held-across" in codes(held, Level.WARNING)
    mended = solve(
        job_edits.with_remedy(job(build=Light(glue=LightGlue.OVER)), "leaf-1", said(held, "held-across").remedies[0])
    ).leaves[0]
    assert "held-across" not in codes(mended)


def test_sheet_in_a_rebate_is_the_sight_and_both_rebates_less_its_clearance():
    leaf = solved(build=Light(fill=LightFill.REBATED, fill_thickness=6.0, rebate=10.0, joint=LightJoint.DOWELS))
    sheet = part(leaf, "sheet")
    assert sheet.finished.width == pytest.approx(617 + 2 * 9)
    assert sheet.finished.length == pytest.approx(1813 + 2 * 9)
    assert leaf.build.thickness == 20
    assert leaf.figures["dowel_length"].value == 70
    assert len(leaf.build.tenons) == 8
    thin = job(build=Light(fill=LightFill.REBATED, fill_thickness=16.0))
    look = said(solve(thin).leaves[0], "rebate-deep")
    assert "rebate-deep" not in codes(solve(job_edits.with_remedy(thin, "leaf-1", look.remedies[0])).leaves[0])
    inside = solved(build=Light(fill=LightFill.BOARDED))
    assert inside.build.thickness == 20
    assert inside.figures["boards_across"].value == pytest.approx(617 + 18)
