"""Boarded leaves: worked by hand, filling their width, braces on the right side, remedies that mend."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import area
from oakmeasure.core.base.units import Show
from oakmeasure.core.body.of_build import body_of
from oakmeasure.core.construction.boarded.model import Boarded, BoardEdge, BoardedStyle, BraceEnds, FixedBy, Rip
from oakmeasure.core.construction.braces import corner_brace, halves, pointed_shape, turned_over
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.construction.spacing import board_count
from oakmeasure.core.document.construction_model import LaidBoard
from oakmeasure.core.document.hanging import Hanging, LeafShape
from oakmeasure.core.document.job import Climate, FitChoices, Hand, TimberChoices
from oakmeasure.core.document.readings import HeadKind, HeadShape
from oakmeasure.core.document.roles import Role
from oakmeasure.core.drawings.drawing import Area
from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from samples import codes, job, readings, said, solved

DRY = TimberChoices(species="redwood", moisture=13.0, wet=Climate(temperature=18, humidity=68))


def faces(leaf, role):
    found = sorted((part.face for part in leaf.build.parts if part.role is role), key=lambda each: (each.x0, each.y0))
    return [(each.x0, each.x1, each.y0, each.y1) for each in found]


def test_boarded_leaf_worked_by_hand():
    """742 × 1812: seven boards of 112, ends 91; ledges 668 × 140, 32 fixings; Z in 668 × 1282."""
    build = Boarded(cover=112.0, groove=6.0, gap=0.0, ledge_inset=37.0, ledge_width=140.0)
    leaf = solved(747.0, 1820.0, build=build, timber=DRY)
    f = leaf.figures
    sizes = {part.name: part for part in leaf.build.parts}
    assert [sizes[f"board {at}"].finished.width for at in range(1, 8)] == pytest.approx(
        [91, 112, 112, 112, 112, 112, 91]
    )
    assert {part.finished.length for name, part in sizes.items() if name.startswith("board")} == {1812.0}
    assert sizes["board 1"].planed.width == pytest.approx(
        91 + 5 + f["trim_side"].value
    )  # tongue, 1 less than its groove; left on
    assert sizes["board 7"].planed.width == pytest.approx(91 + f["trim_side"].value)  # the last one has no tongue
    for name, y0 in (("lower ledge", 125.0), ("upper ledge", 1812 - 125 - 140.0)):
        assert (sizes[name].finished.length, sizes[name].finished.width) == (668.0, 140.0)
        assert sizes[name].face.y0 == pytest.approx(y0)
    brace = corner_brace(base=668, height=1812 - 250 - 280, width=110)
    assert f["brace_blank"].value == pytest.approx(brace.blank)
    volumes = {piece.name: piece.net.volume for piece in body_of(leaf.build).pieces}
    assert volumes["brace"] == pytest.approx(110 * brace.edge * 20)  # between its two long edges it is a strip
    assert len(leaf.build.fixings) == 2 * 7 * 2
    assert {each.length for each in leaf.build.fixings} == {32.0}
    rho = f["density"].value / 1e9
    assert volumes["board 2"] * rho == pytest.approx(leaf.weights.parts["board 2"].value)


boarded = st.builds(
    Boarded,
    style=st.sampled_from(BoardedStyle),
    cover=st.floats(60, 240),
    groove=st.floats(3, 12),
    edge=st.sampled_from(BoardEdge),
    rip=st.sampled_from(Rip),
    gap=st.none() | st.floats(0, 3),
    ledges=st.integers(2, 4),
    ledge_width=st.floats(60, 180),
    brace_width=st.floats(50, 150),
    brace_ends=st.sampled_from(BraceEnds),
    half_lapped=st.booleans(),
    fixed_by=st.sampled_from(FixedBy),
    double=st.booleans(),
    ledge_inset=st.floats(0, 60),
)


@given(boarded, st.floats(500, 1100), st.floats(1500, 2300), st.sampled_from(Hand))
@settings(max_examples=40)
def test_boards_and_gaps_fill_the_leaf_and_braces_rise_from_the_hinge_side(build, width, height, hand):
    leaf = solved(width, height, build=build, hand=hand)
    f, made = leaf.figures, leaf.build
    boards = faces(leaf, Role.BOARD)[:: 2 if build.double else 1]
    assert boards[0][0] == pytest.approx(0.0 if build.style is not BoardedStyle.FRAMED else build.stile)
    assert boards[-1][1] == pytest.approx(made.width - boards[0][0], abs=1e-6)
    for left, right in pairwise(boards):
        assert right[0] - left[1] == pytest.approx(f["board_gap"].value, abs=1e-6)
    assert all(min(part.finished.length, part.finished.width) > 0 for part in made.parts)
    net = len(boards) * (f["board_cover"].value + f["board_gap"].value) - f["board_gap"].value - f["board_groove"].value
    assert net >= f["boards_width"].value - 1e-6  # five on paper are not five
    for part in made.parts:
        if part.role is Role.BRACE and "crossing" not in part.name:
            foot = min(part.shape, key=lambda each: (each[1], each[0]))
            head = max(part.shape, key=lambda each: (each[1], each[0]))
            assert foot[0] < head[0]  # the foot at the hinges, whichever hand: the drawing turns it
            assert Polygon(part.shape).is_valid
    assert leaf_view(leaf, Show()).shapes
    assert len({each.code for each in leaf.checks}) == len(leaf.checks)
    for check in leaf.checks:
        for remedy in (each for each in check.remedies if each.path):
            taken = job_edits.with_remedy(job(width, height, build=build, hand=hand), "leaf-1", remedy)
            mended = solve(taken).leaves[0]
            assert check.level is not Level.STOP or check.code not in codes(mended, Level.STOP), remedy.text


def test_crossing_brace_in_two_pieces_meets_the_whole_one_and_lies_in_its_field():
    whole = pointed_shape(0.0, 0.0, 610.0, 640.0, 70.0)
    other = turned_over(whole, 0.0, 610.0)
    pieces = halves(other, whole)
    kept = Polygon(other).difference(Polygon(whole))
    assert sum(map(area, pieces)) == pytest.approx(kept.area, abs=0.01)
    for piece in pieces:
        assert Polygon(piece).intersection(Polygon(whole)).area < 1e-6
        assert Polygon([(0, 0), (610, 0), (610, 640), (0, 640)]).buffer(1e-6).contains(Polygon(piece))


def test_brace_angle_is_made_round_by_one_click_and_a_steep_one_asks_for_a_ledge():
    made = job(
        760.0,
        910.0,
        build=Boarded(
            style=BoardedStyle.X,
            ledge_inset=72.5,
            ledge_width=70.0,
            ledge_from_foot=61.0,
            ledge_top=61.0,
            brace_width=70.0,
        ),
        timber=DRY,
    )
    offer = said(solve(made).leaves[0], "brace-round-one")
    assert "30 lower" in offer.sentence  # 640 high becomes 610, as wide as it is
    mended = solve(job_edits.with_remedy(made, "leaf-1", offer.remedies[0])).leaves[0]
    assert mended.figures["brace_angle"].value == pytest.approx(45.0)
    steep = job(500.0, 2100.0, build=Boarded(), timber=DRY)
    look = said(solve(steep).leaves[0], "brace-slope-one")
    assert "brace-slope-lower" not in codes(solve(job_edits.with_remedy(steep, "leaf-1", look.remedies[0])).leaves[0])


@pytest.mark.parametrize("build", [Boarded(), Boarded(style=BoardedStyle.X), Slab()], ids=["Z", "X", "slab"])
def test_leaf_for_the_other_hand_has_the_same_parts_and_is_drawn_mirrored(build):
    left, right = (solved(762.0, 1981.0, build=build, hand=hand, timber=DRY) for hand in Hand)
    assert left.build.parts == right.build.parts
    width = left.build.width

    def shapes(leaf):  # of the front; the section beside it stays on its side of the page
        drawn = [each for each in leaf_view(leaf, Show()).shapes if isinstance(each, Area)]
        return [
            each
            for each in drawn
            if each.ref.startswith("part:") and all(-1 <= x <= width + 1 and y >= 0 for x, y in each.points)
        ]

    for one, other in zip(shapes(left), shapes(right), strict=True):
        if "board" in one.ref or "brace" in one.ref or "strip" in one.ref:
            assert sorted((round(width - x, 3), round(y, 3)) for x, y in one.points) == sorted(
                (round(x, 3), round(y, 3)) for x, y in other.points
            )


def test_brace_of_a_framed_leaf_may_end_on_its_stiles_and_no_other_leaf_has_any():
    framed = solved(
        762.0,
        1981.0,
        build=Boarded(style=BoardedStyle.FRAMED, ledges=3, ledge_thickness=24.0, brace_ends=BraceEnds.STILES),
        timber=DRY,
    )
    brace = framed.build.part("lower brace")
    assert {round(x, 3) for x, _ in brace.shape} == {95.0, round(framed.build.width - 95.0, 3)}
    made = job(762.0, 1981.0, build=Boarded(brace_ends=BraceEnds.STILES), timber=DRY)
    look = said(solve(made).leaves[0], "no-stiles-one")
    assert "no-stiles-one" not in codes(solve(job_edits.with_remedy(made, "leaf-1", look.remedies[0])).leaves[0])


def test_lay_up_of_measured_boards_leaves_the_last_one_and_too_many_are_a_stop():
    widths = tuple(LaidBoard(width=each) for each in (150.0, 160.0, 155.0, 158.0))
    leaf = solved(747.0, 1820.0, build=Boarded(measured=widths, gap=0.0), timber=DRY)
    assert leaf.figures["board_5"].value == pytest.approx(742 - 623)
    assert [part.at_hand for part in leaf.build.parts if part.role is Role.BOARD] == [True] * 4 + [False]
    planned = {piece.piece.part for group in leaf.plan.groups for board in group.plan.boards for piece in board.pieces}
    assert "board 5" in planned  # what is at hand is not cut out of new boards
    assert "board 1" not in planned
    over = said(solved(747.0, 1820.0, build=Boarded(measured=widths * 2)), "boards-over")
    assert over.level is Level.STOP
    assert [each.path for each in over.remedies] == [""]  # no end board is wide enough to be ripped to


def test_boards_at_hand_that_lay_up_too_wide_are_ripped_at_both_ends_or_the_last_one():
    old = tuple(LaidBoard(width=each) for each in (205.0, 190.0, 240.0, 188.0))  # with gaps of 1: 826 for a leaf of 783
    start = job(788.0, 2004.0, build=Boarded(measured=old, gap=1.0, style=BoardedStyle.LEDGED, edge=BoardEdge.SQUARE))
    over = said(solve(start).leaves[0], "boards-over")
    assert solve(start).leaves[0].figures["boards_over"].value == pytest.approx(43.0)
    for remedy, ends in zip(over.remedies[:2], ((183.5, 166.5), (205.0, 145.0)), strict=True):
        leaf = solve(job_edits.with_remedy(start, "leaf-1", remedy)).leaves[0]
        boards = [part for part in leaf.build.parts if part.role is Role.BOARD]
        assert (boards[0].finished.width, boards[-1].finished.width) == pytest.approx(ends)
        assert all(each.at_hand for each in boards)
        assert said(leaf, "lay-up").title == "4 boards fill the leaf"


def test_gap_at_fitting_follows_the_moisture_and_dry_boards_draw_out_of_their_grooves():
    wet = TimberChoices(species="redwood", moisture=8.0, wet=Climate(temperature=15, humidity=85))
    leaf = solved(747.0, 1820.0, build=Boarded(cover=140.0), timber=wet)
    assert leaf.figures["board_gap"].value >= leaf.figures["board_change_wet"].value
    assert "boards-buckle" not in codes(leaf)
    tight = job(747.0, 1820.0, build=Boarded(cover=140.0, gap=0.0), timber=wet)
    look = said(solve(tight).leaves[0], "boards-buckle")
    assert "boards-buckle" not in codes(solve(job_edits.with_remedy(tight, "leaf-1", look.remedies[0])).leaves[0])
    green = TimberChoices(species="beech", moisture=18.0, dry=Climate(temperature=22, humidity=25))
    assert "tongue-out" in codes(solved(747.0, 1820.0, build=Boarded(cover=200.0, groove=6.0), timber=green))
    with pytest.raises(InputError, match="cover"):
        board_count(width=700, cover=5, groove=6)


RAKED = {
    "readings": readings(
        width_top=580.0,
        width_bottom=580.0,
        height_hinge=640.0,
        height_latch=848.0,
        diagonal_rising=1027.5,
        diagonal_falling=864.0,
    ),
    "head": HeadShape(kind=HeadKind.RAKED),
    "hanging": Hanging.INSET_BUTTS,
    "fit": FitChoices(shape=LeafShape.SCRIBED),
}


def test_ledge_that_runs_out_of_a_raked_head_is_a_stop_that_says_how_low_it_must_be():
    made = job(build=Boarded(board_thickness=16.0, ledge_top=60.0, ledge_width=80.0), **RAKED)
    stop = said(solve(made).leaves[0], "ledge-head")
    assert "ledge-head" not in codes(solve(job_edits.with_remedy(made, "leaf-1", stop.remedies[0])).leaves[0])
