"""A leaf as a whole: every sum adds up, nothing entered is an exception, an edit solves what it touches."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.document import field_path
from oakmeasure.core.document.job import FitChoices, Hand
from oakmeasure.core.document.rules import load_rules, rule_set_names
from oakmeasure.core.document.stock import Board
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.solver import Solver, solve
from samples import assert_sums, codes, job, readings, solved

sizes = st.builds(
    Framed,
    thickness=st.floats(30, 60),
    stile=st.floats(60, 140),
    top_rail=st.floats(60, 140),
    middle_rail=st.none() | st.floats(90, 260),
    bottom_rail=st.floats(90, 300),
    muntin=st.none() | st.floats(40, 140),
    lock_height=st.floats(500, 1400),
    tenon=st.sampled_from(TenonKind),
    panel_thickness=st.floats(6, 20),
)


@given(sizes, st.floats(500, 1100), st.floats(1500, 2400))
def test_every_sum_that_is_shown_adds_up_to_its_figure(build, width, height):
    leaf = solve(job(width, height, build=build)).leaves[0]
    assert_sums(leaf)
    for figure in leaf.figures:
        terms = figure.rows[:-1]
        for row in terms:  # every term leads on to a figure that has this very value, or a stated share of it
            if row.ref:
                assert row.ref in leaf.figures


@given(
    st.fixed_dictionaries(
        {name: st.floats(200, 3000) for name in ("width_top", "width_middle", "width_bottom")}
        | {name: st.floats(300, 4000) for name in ("height_hinge", "height_middle", "height_latch")}
        | {name: st.floats(360, 5000) for name in ("diagonal_rising", "diagonal_falling")}
    ),
    st.builds(
        Framed,
        stile=st.floats(30, 400),
        middle_rail=st.none() | st.floats(30, 500),
        thickness=st.floats(16, 90),
        bottom_rail=st.floats(30, 600),
        muntin=st.none() | st.floats(20, 300),
        lock_height=st.floats(100, 2500),
        panel_thickness=st.floats(4, 60),
        groove_depth=st.none() | st.floats(4, 40),
    ),
    st.builds(FitChoices, gap_hinge=st.none() | st.floats(0, 60), trim_side=st.none() | st.floats(0, 50)),
)
def test_nothing_that_can_be_entered_is_answered_with_an_exception(values, build, fit):
    leaf = solve(job(readings=readings(**values), build=build, fit=fit)).leaves[0]
    assert leaf.checks
    for stage in Stage:
        assert leaf.key_figure(stage, Show())


@given(sizes, st.sampled_from(Hand))
def test_solving_twice_gives_the_same_and_unit_or_hand_change_no_size(build, hand):
    made = job(build=build, hand=hand)
    one, again = solve(made).leaves[0], solve(made).leaves[0]
    assert list(one.figures) == list(again.figures)
    inch = solve(field_path.with_value(made, "unit", UnitSystem.INCH)).leaves[0]
    assert [each.value for each in inch.figures] == [each.value for each in one.figures]
    other = solve(job(build=build, hand=Hand.LEFT if hand is Hand.RIGHT else Hand.RIGHT)).leaves[0]
    assert other.build == one.build


def test_mirrored_leaf_is_drawn_mirrored():
    from oakmeasure.core.drawings.drawing import Area
    from oakmeasure.core.drawings.leaf.leaf_view import leaf_view

    views = [leaf_view(solved(hand=hand), Show()) for hand in Hand]
    width = solved().figures["leaf_width"].value

    def stile(view):
        area = next(shape for shape in view.shapes if isinstance(shape, Area) and shape.ref == "part:hinge stile")
        return sorted(x for x, _ in area.points)

    assert stile(views[0]) == pytest.approx([width - x for x in reversed(stile(views[1]))])


def test_an_edit_solves_only_the_leaf_it_touches(demo):
    solver = Solver()
    solver.solve(demo)
    assert solver.worked_out == len(demo.leaves)
    changed = job_edits.with_field(demo, demo.leaves[1].id, "build.stile", 92.0)
    solver.solve(changed)
    assert solver.worked_out == len(demo.leaves) + 1
    solver.solve(field_path.with_value(changed, "name", "Other"))
    assert solver.worked_out == len(demo.leaves) + 1


def test_leaves_that_want_the_same_boards_are_told(demo):
    few = tuple(board.model_copy(update={"quantity": 2}) for board in demo.boards)
    solution = solve(field_path.with_value(demo, "boards", few))
    assert any(each.code == "boards-shared" for each in solution.checks)


def test_rules_of_a_set_decide_what_is_left_open():
    for key in rule_set_names():
        rules = load_rules(key)
        leaf = solve(job(rules=key)).leaves[0]
        assert leaf.figures["gap_latch"].value == rules.gap_latch.value
        assert rules.gap_latch.reason in leaf.figures["gap_latch"].source
        assert all(
            getattr(rules, name).reason for name in type(rules).model_fields if hasattr(getattr(rules, name), "reason")
        )


def test_no_board_thick_or_long_enough_is_a_stop():
    made = job()
    thin = solve(field_path.with_value(made, "boards", (Board(length=3000, width=250, thickness=30),))).leaves[0]
    assert any(code.startswith("no-board-") for code in codes(thin, Level.STOP))
    short = solve(field_path.with_value(made, "boards", (Board(length=1500, width=250, thickness=52),))).leaves[0]
    assert "unplaced-hinge-stile" in codes(short, Level.STOP)


def test_what_was_set_by_hand_stays_when_the_construction_changes_and_may_be_so_there():
    start = job(840.0, 2010.0, build=Framed(stile=120.0, arch_rise=35.0, thickness=40.0))
    veneered = job_edits.with_construction(start, "leaf-1", "veneered")
    kept = veneered.leaf("leaf-1").build
    assert (kept.stile, kept.arch_rise, kept.thickness) == (120.0, 35.0, 40.0)
    assert kept.top_rail == type(kept).model_fields["top_rail"].default
