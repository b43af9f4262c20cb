"""Whatever is chosen of what the document allows, the leaf is worked out, its parts are parts, its remedies mend."""

from __future__ import annotations

import random

import pytest

from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.slab.model import SlabGlue
from oakmeasure.core.document.construction_model import LaidBoard
from oakmeasure.core.document.constructions import KINDS, model_of
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import LateTrim, new_job
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.rules import Limits
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve_leaf
from samples import job
from walking import after_remedy, at_extremes, complaints, remedies, shown_complaints, walk

FEW = ("seed-room", "tool-shed", "winnowing", "barn-side", "scale-case")


def all_remedies(job, leaf, *, again):
    """Take every remedy of a leaf by itself, and every one that is offered then; return what is wrong."""
    solution, found = solve_leaf(job, leaf), []
    for check, remedy in remedies(solution):
        after, wrong = after_remedy(job, solution, check, remedy)
        found += [wrong] if wrong else []
        if after is not None:
            found += complaints(job, after)
            found += all_remedies(job, after.leaf, again=False) if again else []
    return found


def test_every_remedy_of_the_demo_mends_its_check_alone_and_after_another(demo):
    for leaf in demo.leaves:
        assert all_remedies(demo, leaf, again=True) == []


@pytest.mark.parametrize("leaf_id", FEW)
def test_every_remedy_mends_its_check_however_a_leaf_hangs_and_is_made(demo, leaf_id):
    leaf = demo.leaf(leaf_id)
    for hanging in Hanging:
        assert all_remedies(demo, leaf.model_copy(update={"hanging": hanging}), again=False) == []
    for kind in KINDS:
        made = job_edits.with_construction(demo, leaf_id, kind)
        assert all_remedies(made, made.leaf(leaf_id), again=False) == []


def test_a_walk_of_random_edits_finds_nothing(demo):
    met = walk(demo, 250, seed=7)
    assert met.found == {}
    assert met.taken > 10


def test_a_leaf_at_the_limits_of_what_is_legal_is_worked_out_and_drawn():
    source, job = random.Random(3), new_job()
    for _ in range(250):
        made = at_extremes(job, source)
        solution = solve_leaf(made, made.leaves[0])
        assert complaints(made, solution) == []
        assert shown_complaints(made, solution, source) == []


def test_a_part_that_is_trimmed_away_is_left_out_and_said(demo):
    """The demo's panelled leaf that exists, cut past its top rail: the cut list held one of less than nothing."""
    cut = job_edits.with_field(demo, "stair-cupboard", "late", LateTrim(head=200.0))
    solution = solve_leaf(cut, cut.leaf("stair-cupboard"))
    assert "top rail" not in {each.name for each in solution.cut_parts}
    assert any(each.level is Level.STOP for each in solution.checks)
    assert [each.mark for each in solution.build.parts] == [str(n) for n in range(1, len(solution.build.parts) + 1)]


def test_boards_that_no_glue_joins_are_not_held_across_by_nails(demo):
    """No glue on the boards is offered where it mends, and is then what the check goes by: each strip by itself."""
    for strips, mends in ((None, False), (tuple(LaidBoard(width=90.0) for _ in range(9)), True)):
        made = job_edits.with_field(demo, "tool-shed", "build.measured", strips) if strips else demo
        solution = solve_leaf(made, made.leaf("tool-shed"))
        held = next(each for each in solution.checks if each.code == "held-across")
        offered = [each for each in held.remedies if each.path == "build.glue"]
        assert bool(offered) is mends
        widths = [each.finished.width for each in solution.build.parts if each.role is Role.STRIP]
        whole, one = solution.figures["season"].value, solution.figures["strip_moves"].value
        assert one == pytest.approx(whole * max(widths) / solution.fit.width.value)
        for each in offered:
            free = job_edits.with_remedy(made, "tool-shed", each)
            assert "held-across" not in {each.code for each in solve_leaf(free, free.leaf("tool-shed")).checks}


@pytest.mark.parametrize("kind", KINDS)
def test_a_leaf_of_which_every_part_is_cut_away_has_its_stop_and_its_steps(kind):
    """The smallest opening, members at their widest, and all that may be trimmed."""
    model = model_of(kind)
    widest = {
        name: next(each.high for each in info.metadata if isinstance(each, Limits))
        for name, info in model.model_fields.items()
        if name in ("stile", "top_rail", "bottom_rail", "veneer", "lipping_width", "edging", "sanding", "stock_width")
        and any(isinstance(each, Limits) for each in info.metadata)
    }
    made = job(200, 300, build=model(**widest), late=LateTrim(foot=80.0, head=80.0, hinge=60.0, latch=60.0))
    solution = solve_leaf(made, made.leaves[0])
    assert complaints(made, solution) == []
    assert any(each.level is Level.STOP for each in solution.checks)
    for seed in range(8):
        assert shown_complaints(made, solution, random.Random(seed)) == []


def test_the_ways_of_gluing_a_slab_tell_the_movement_that_its_check_goes_by(demo):
    leaf = solve_leaf(demo, demo.leaf("tool-shed"))
    table = next(each for each in leaf.leaf_choices if each.title == "Where the glue goes")
    nowhere = next(each for each in table.options if each.cells[0] == str(SlabGlue.NOWHERE))
    assert nowhere.cells[1] == Show().length(leaf.figures["strip_moves"].value)
