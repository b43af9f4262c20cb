"""The wood of a whole job: what is wanted, pinned, forbidden, cut already, bought; each plan held against its rack."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.costing.pricing import wood_share
from oakmeasure.core.cutting.model import CutKind, Defect
from oakmeasure.core.document.stock import (
    Board,
    BoardMark,
    Came,
    Cleanness,
    CuttingChoices,
    Face,
    Flaw,
    Pin,
    Section,
    SheetStock,
)
from oakmeasure.core.planning.job_plan import overdrawn, pins_missed, to_buy, with_cut
from oakmeasure.core.planning.plan_model import Remnant
from oakmeasure.core.planning.remnants import place_in, without
from oakmeasure.core.solver import solve
from planning import planned


def check(job, plan, leaves):
    """Every piece of every leaf once; on its board, off what it must keep off, a kerf from its neighbours."""
    laid = Counter(
        (each.wanted.leaf, each.wanted.part.name) for lot in plan.lots for one in lot.stock for each in one.pieces
    )
    done = Counter((each.leaf, each.part) for each in job.cutting.done)
    for leaf in leaves:
        for part in leaf.sawn:
            if not any(w.part.name == part.name for w, _ in plan.homeless):
                assert laid[leaf.leaf.id, part.name] + done[leaf.leaf.id, part.name] >= 1, part.name
    for lot in plan.lots:
        for one in lot.stock:
            item = one.source.item
            for each in one.pieces:
                assert each.x >= -1e-6
                assert each.x + each.length <= item.length + 1e-6
                assert each.y >= -1e-6
                assert lot.lot.kind is CutKind.BARS or each.y + each.width <= item.width + 1e-6
                for mark in getattr(item, "marks", ()):
                    if mark.rank <= each.wanted.clear:
                        assert (
                            each.x >= mark.x + mark.length - 1e-6
                            or each.x + each.length <= mark.x + 1e-6
                            or each.y >= mark.y + mark.width - 1e-6
                            or each.y + each.width <= mark.y + 1e-6
                        )
            for at, a in enumerate(one.pieces):
                for b in one.pieces[at + 1 :]:
                    along = max(a.x, b.x) - min(a.x + a.length, b.x + b.length)
                    across = max(a.y, b.y) - min(a.y + a.width, b.y + b.width)
                    assert max(along, across) >= lot.lot.problem.kerf - 1e-6


def with_rack(job, **changes):
    return job.model_copy(update=changes)


def test_every_piece_of_the_demo_has_its_place_beside_the_defects(demo, solved_demo):
    plan = planned(demo)
    check(demo, plan, [solved_demo.leaf(each) for each in ("weighing-office", "drying-loft")])
    assert plan.is_whole
    assert plan.cost == pytest.approx(sum(one.source.price for lot in plan.lots for one in lot.stock))
    assert plan.bound <= plan.cost
    assert overdrawn(plan) == ()
    assert sum(wood_share(plan, each) for each in ("weighing-office", "drying-loft")) == pytest.approx(plan.cost)
    assert all(not each.source.is_owned for each in to_buy(plan))


def test_part_that_is_pinned_lies_on_its_board_and_a_forbidden_board_holds_nothing(demo):
    pins = tuple(Pin(leaf="drying-loft", part=part, board="R1") for part in ("hinge stile", "bottom rail"))
    boards = tuple(each.model_copy(update={"forbidden": each.label == "R2"}) for each in demo.boards)
    job = with_rack(demo, boards=boards, cutting=CuttingChoices(pins=pins))
    plan = planned(job)
    check(job, plan, [solve(job).leaf("drying-loft")])
    at = {
        (each.wanted.leaf, each.wanted.name): one.source.name
        for lot in plan.lots
        for one in lot.stock
        for each in one.pieces
    }
    assert at["drying-loft", "hinge stile"] == "R1"
    assert at["drying-loft", "bottom rail"] != "R1"  # 197 wide: the board is 196
    assert pins_missed(plan, job) == (pins[1],)
    assert "R2" not in at.values()


def test_board_that_is_cut_leaves_the_rack_its_parts_the_list_and_its_rest_comes_back(demo):
    pins = (Pin(leaf="drying-loft", part="hinge stile", board="R1"),)
    job, leaves = (
        with_rack(demo, cutting=CuttingChoices(pins=pins, useful_length=150, useful_width=20)),
        ("drying-loft",),
    )
    before = planned(job, leaves)
    lot = next(lot for lot in before.lots if any(one.source.is_owned and one.offcuts for one in lot.stock))
    one = next(one for one in lot.stock if one.source.is_owned and one.offcuts)
    after = with_cut(job, one, lot.lot.made_of)
    assert len(after.cutting.done) == len(one.pieces)
    assert after.cutting.pins == ()
    assert "R1" not in {each.label for each in after.boards}
    back = [each for each in (*after.boards, *after.sheets) if each not in (*job.boards, *job.sheets)]
    fresh = [each for each in back if each.came is Came.OFFCUT]
    assert {each.label for each in fresh} == {f"O{n + 2}" for n in range(len(fresh))}
    assert [(each.length, each.width) for each in fresh] == [(each.length, each.width) for each in one.offcuts]
    again = planned(after, leaves)
    pieces = [sum(len(each.pieces) for lot in plan.lots for each in lot.stock) for plan in (before, again)]
    assert pieces[0] - pieces[1] == len(one.pieces)


def test_planed_section_serves_what_it_is_just_over_and_is_bought_by_its_length(demo, solved_demo):
    part = next(each for each in solved_demo.leaf("engine-room").sawn if each.role == "ledge")
    assert (part.finished.width, part.finished.thickness) == (70, 20)
    plan = planned(demo, ("engine-room",))
    bars = [lot for lot in plan.lots if lot.lot.kind is CutKind.BARS]
    assert [(lot.lot.width, lot.lot.thickness) for lot in bars] == [(72, 21)]
    none = with_rack(demo, sections=(Section(width=74, thickness=21, length=3000),))  # 4 over: no more its size
    assert not [lot for lot in planned(none, ("engine-room",)).lots if lot.lot.kind is CutKind.BARS]


def test_what_may_show_decides_what_a_part_keeps_off(demo):
    mark = BoardMark(flaw=Flaw.KNOT, face=Face.OTHER, x=100, y=10, length=20, width=20)
    ranks = {each: mark.model_copy(update={"face": each}).rank for each in Face}
    assert ranks == {Face.THROUGH: 1, Face.BEST: 1, Face.OTHER: 2}
    assert mark.model_copy(update={"flaw": Flaw.METAL}).rank == 0
    assert [each.clear for each in Cleanness] == [2, 1, 0]
    board = Board(length=1000, width=100, thickness=27, marks=(mark,))
    assert board.turned_over().marks[0].face is Face.BEST
    assert board.turned_over().marks[0].y == 70
    assert board.turned_over().turned_over() == board


@pytest.mark.parametrize(
    ("make", "said"),
    [
        (
            lambda: Board(length=1000, width=100, thickness=27, marks=(BoardMark(x=950, y=0, length=60, width=10),)),
            "inside",
        ),
        (lambda: Board(length=-5, width=100, thickness=27), "board length"),
        (lambda: SheetStock(material="oak", length=2440, width=1220, thickness=12), "sheet of the table"),
        (lambda: SheetStock(material="glass", length=2440, width=1220, thickness=0.5), "sheet thickness"),
    ],
)
def test_rack_refuses_what_cannot_be(make, said):
    with pytest.raises((InputError, ValueError), match=said):
        make()


def test_part_thicker_than_any_board_says_what_it_needs(demo):
    job = with_rack(demo, boards=tuple(each for each in demo.boards if each.thickness < 30))
    plan = planned(job, ("weighing-office",))
    assert not plan.is_whole
    assert "the thickest board is 26" in plan.homeless[0][1]
    assert any(lot.stock for lot in plan.lots)  # the best partial plan all the same


@given(
    st.lists(
        st.tuples(
            st.integers(0, 1900), st.integers(0, 180), st.integers(10, 300), st.integers(5, 120), st.integers(0, 2)
        ),
        max_size=5,
    ),
    st.integers(100, 1500),
    st.integers(20, 150),
    st.integers(0, 2),
)
@settings(max_examples=60)
def test_place_of_a_pinned_part_is_clear_and_what_is_left_does_not_touch_it(marks, length, width, clear):
    defects = tuple(Defect("b", x, y, a, b, rank) for x, y, a, b, rank in marks)
    board = Remnant(0.0, 0.0, 2000.0, 200.0, defects)
    found = place_in(board, length, width, clear, 10.0)
    if found is None:
        return
    x, y = found
    assert x >= 10
    assert x + length <= 1990 + 1e-6
    assert y + width <= 200
    for each in defects:
        if each.rank <= clear:
            assert x >= each.x + each.length or x + length <= each.x or y >= each.y + each.width or y + width <= each.y
    rest = without(board, x, y, length, width, 4.0)
    for at, a in enumerate(rest):
        boxes = [replace(each) for each in rest[at + 1 :]] + [Remnant(x, y, length, width)]
        for b in boxes:
            apart = max(
                max(a.x, b.x) - min(a.x + a.length, b.x + b.length), max(a.y, b.y) - min(a.y + a.width, b.y + b.width)
            )
            assert apart >= 4 - 1e-6
        assert all(each.x >= 0 and each.x + each.length <= a.length + 1e-6 for each in a.defects)
