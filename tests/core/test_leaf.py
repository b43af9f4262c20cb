"""The framed leaf: parts fill it, sizes that cannot be built are said, remedies mend."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.framed.joints import RailJoint, rail_tenons
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.document.job import Climate, FitChoices, Hand, TimberChoices
from oakmeasure.core.document.rules import ButtSchool, load_rules, rule_set_names
from oakmeasure.core.document.stock import Board
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.hardware.hinges.butts import places_by_school
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solver import Solver, solve
from samples import assert_sums, codes, framed, job, readings, solved

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


@given(sizes, st.floats(500, 1100), st.floats(1500, 2400), st.sampled_from(rule_set_names()))
def test_parts_fill_the_leaf_exactly(build, width, height, rules):
    leaf = solve(job(width, height, rules=rules, build=build)).leaves[0]
    assume(not any(code.startswith(("rails-", "panel-width")) for code in codes(leaf, Level.STOP)))
    assert leaf.build is not None
    faces = [part.face for part in leaf.build.parts]
    area = sum(face.width * face.height for face in faces)
    assert area == pytest.approx(leaf.build.width * leaf.build.height, rel=1e-12)
    assert not any(one.overlaps(other) for at, one in enumerate(_shrunk(faces)) for other in _shrunk(faces)[at + 1 :])
    assert all(min(p.finished.length, p.finished.width, p.finished.thickness) > 0 for p in leaf.build.parts)
    assert all(p.volume > 0 for p in leaf.build.parts)
    for part in leaf.build.parts:  # every sawn part is larger than the planed one, and that than the finished one
        for small, large in ((part.finished, part.planed), (part.planed, part.rough)):
            assert small.length <= large.length + 1e-9
            assert small.width <= large.width + 1e-9
            assert small.thickness <= large.thickness


def _shrunk(faces):
    return [Rect(f.x0 + 1e-6, f.y0 + 1e-6, f.x1 - 1e-6, f.y1 - 1e-6) for f in faces]


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
    inch = solve(job_edits.with_value(made, "unit", UnitSystem.INCH)).leaves[0]
    assert [each.value for each in inch.figures] == [each.value for each in one.figures]
    other = solve(job(build=build, hand=Hand.LEFT if hand is Hand.RIGHT else Hand.RIGHT)).leaves[0]
    assert other.build == one.build


@pytest.mark.parametrize(
    ("build", "code"),
    [
        ({"lock_height": 250.0}, "rails-bottom-rail-middle-rail"),
        ({"lock_height": 1900.0}, "rails-middle-rail-top-rail"),
        ({"stile": 340.0}, "panel-width"),
        ({"muntin": 300.0, "stile": 220.0}, "panel-width"),
        ({"middle_rail": 60.0}, "muntin-tenons-meet"),
        ({"panel_thickness": 50.0}, "panel-thick"),
        ({"middle_rail": None, "bottom_rail": 600.0, "top_rail": 400.0}, "rails-bottom-rail-top-rail"),
    ],
)
def test_leaf_that_cannot_be_made_is_a_stop_that_names_what_would_mend_it(build, code):
    height = 1000.0 if build.get("bottom_rail") == 600.0 else 1981.0
    made = job(762.0, height, build=Framed(**build))
    leaf = solve(made).leaves[0]
    stop = next(each for each in leaf.checks if each.code == code)
    assert stop.level is Level.STOP
    assert stop.remedies
    for remedy in stop.remedies:
        if remedy.path:
            mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
            assert code not in codes(mended, Level.STOP), remedy.text


def test_overlap_remedy_is_the_smallest_change():
    leaf = framed(lock_height=250.0)
    stop = next(each for each in leaf.checks if each.code == "rails-bottom-rail-middle-rail")
    # bottom rail 200 + least panel 20 + half of 180 + floor gap 6
    assert stop.remedies[0].value == pytest.approx(316)


def test_gaps_wider_than_the_opening_leave_no_leaf_but_an_answer():
    leaf = solved(210.0, 1981.0, fit=FitChoices(gap_hinge=60, gap_latch=60))
    assert leaf.build is None
    assert "no-leaf" in codes(leaf, Level.STOP)


def test_wide_rails_get_two_tenons_with_wood_between():
    leaf = framed(bottom_rail=220.0)
    mine = [t for t in leaf.build.tenons if t.member == "bottom rail" and t.into == "hinge stile" and not t.is_haunch]
    low, high = sorted(mine, key=lambda each: each.rect.y0)
    assert high.rect.y0 - low.rect.y1 == pytest.approx(73)  # a third of 220, to the full millimetre
    assert low.rect.y0 == pytest.approx(40)  # the haunch
    assert high.rect.y1 == pytest.approx(220 - 12)  # less the groove
    haunch = next(t for t in leaf.build.tenons if t.member == "bottom rail" and t.is_haunch)
    assert haunch.rect.width == pytest.approx(12)  # projects by the groove's depth


def test_rail_too_narrow_for_a_tenon_has_none():
    made = job()
    ctx = Context(made.leaves[0], made.rules, Show())
    joint = RailJoint("top rail", Rect(95, 1940, 660, 1950), "top", 12.0, 63.0, 15.0, False)
    assert all(tenon.is_haunch for tenon in rail_tenons(ctx, joint, 755.0))


def test_trimming_allowance_is_on_at_the_bench_and_off_in_the_leaf():
    leaf = solved(fit=FitChoices(trim_side=5.0, trim_height=4.0), build=Framed(tenon=TenonKind.THROUGH))
    stile, rail = leaf.build.part("hinge stile"), leaf.build.part("top rail")
    assert stile.planed.width == stile.finished.width + 5
    assert stile.planed.length == stile.finished.length + 8
    assert rail.planed.length == rail.finished.length + 10  # the through tenon goes through the stile as glued up
    assert rail.planed.width == rail.finished.width + 4
    assert leaf.figures["leaf_width"].value == solved().figures["leaf_width"].value


def test_panel_is_held_at_the_driest_and_free_at_the_wettest():
    wet = TimberChoices(species="beech", moisture=8, wet=Climate(temperature=10, humidity=85))
    leaf = solved(900.0, 1981.0, timber=wet, build=Framed(muntin=None, groove_depth=8.0))
    assert "panel-drops" in codes(leaf)
    deeper = next(each for each in leaf.checks if each.code == "panel-drops").remedies[0]
    mended = solve(
        job_edits.with_remedy(
            job(900.0, 1981.0, timber=wet, build=Framed(muntin=None, groove_depth=8.0)), "leaf-1", deeper
        )
    ).leaves[0]
    assert mended.figures["panel_hold"].value >= 4


def test_bevel_that_is_too_small_is_a_stop_with_the_least_one():
    narrow = job(
        330.0,
        1200.0,
        build=Framed(muntin=None, middle_rail=None, thickness=60.0),
        fit=FitChoices(bevel_deg=1.0, gap_latch=2.0),
    )
    leaf = solve(narrow).leaves[0]
    stop = next(each for each in leaf.checks if each.code == "bevel-short")
    assert stop.level is Level.STOP
    assert "bevel-short" not in codes(solve(job_edits.with_remedy(narrow, "leaf-1", stop.remedies[0])).leaves[0])


def test_mirrored_leaf_is_drawn_mirrored():
    from oakmeasure.core.drawings.drawing import Area
    from oakmeasure.core.drawings.leaf.leaf_view import leaf_view

    views = [leaf_view(solved(hand=hand), Show()) for hand in Hand]
    width = solved().figures["leaf_width"].value

    def stile(view):
        area = next(shape for shape in view.shapes if isinstance(shape, Area) and shape.ref == "part:hinge stile")
        return sorted(x for x, _ in area.points)

    assert stile(views[0]) == pytest.approx([width - x for x in reversed(stile(views[1]))])


# --- hardware --------------------------------------------------------------------------------------------


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
        "from_top": from_top,
        "from_bottom": from_bottom,
        "third_below": third_below,
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


# --- solving only what is touched ------------------------------------------------------------------------


def test_an_edit_solves_only_the_leaf_it_touches(demo):
    solver = Solver()
    solver.solve(demo)
    assert solver.worked_out == len(demo.leaves)
    changed = job_edits.with_field(demo, demo.leaves[1].id, "build.stile", 92.0)
    solver.solve(changed)
    assert solver.worked_out == len(demo.leaves) + 1
    solver.solve(job_edits.with_value(changed, "name", "Other"))
    assert solver.worked_out == len(demo.leaves) + 1


def test_leaves_that_want_the_same_boards_are_told(demo):
    few = tuple(board.model_copy(update={"quantity": 2}) for board in demo.boards)
    solution = solve(job_edits.with_value(demo, "boards", few))
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
    thin = solve(job_edits.with_value(made, "boards", (Board(length=3000, width=250, thickness=30),))).leaves[0]
    assert any(code.startswith("no-board-") for code in codes(thin, Level.STOP))
    short = solve(job_edits.with_value(made, "boards", (Board(length=1500, width=250, thickness=52),))).leaves[0]
    assert "unplaced-hinge-stile" in codes(short, Level.STOP)


def test_what_was_set_by_hand_stays_when_the_construction_changes_and_may_be_so_there():
    start = job(840.0, 2010.0, build=Framed(stile=120.0, arch=35.0, thickness=40.0))
    veneered = job_edits.with_construction(start, "leaf-1", "veneered")
    kept = veneered.leaf("leaf-1").build
    assert (kept.stile, kept.arch, kept.thickness) == (120.0, 35.0, 40.0)
    assert kept.top_rail == type(kept).model_fields["top_rail"].default
