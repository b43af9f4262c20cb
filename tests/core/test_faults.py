"""A leaf that the program fails over is that leaf's check: the job's other leaves, its lists and papers go on."""

from __future__ import annotations

import pytest

from oakmeasure.core import solver
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.constructions import KINDS, model_of
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import LateTrim
from oakmeasure.core.document.readings import Lining
from oakmeasure.core.document.sliding_gear import HangerKind
from oakmeasure.core.drawings.views import VIEWS
from oakmeasure.core.edits.job_edits import with_field, with_remedy
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.solver import solve, solve_leaf
from oakmeasure.files.job_folder import write_folder
from oakmeasure.files.pdf.bench_sheet import bench_sheet_pdf
from oakmeasure.files.pdf.stage_sheets import customer_pdf, stage_sheets_pdf
from oakmeasure.files.tables import lists
from oakmeasure.files.tables.operations import operations_record
from oakmeasure.files.tables.schedule_csv import schedule_csv
from samples import job
from walking import PAGES

# One room of each stage, the first of the chain and the last among them.
ROOMS = (
    "add_butt_figures",
    "timber",
    "survey",
    "fit",
    "build_leaf",
    "weigh",
    "plan_leaf",
    "check_clashes",
    "cost_up",
    "make",
    "adjust_leaf",
    "judge_assumed",
)


def broken(monkeypatch, room, leaf_id):
    """Let a room of the solver fail over one leaf."""
    real = getattr(solver, room)

    def fails(*args, **kwargs):
        told = args[0]
        leaf = getattr(told, "leaf", told)
        if getattr(leaf, "id", "") == leaf_id and leaf.hanging is not Hanging.OPEN:
            raise ZeroDivisionError("float division by zero")
        return real(*args, **kwargs)

    monkeypatch.setattr(solver, room, fails)


@pytest.fixture(scope="module")
def few(demo):
    """Leaves of the demo job that are hung in five ways."""
    some = ("seed-room", "pair", "walnut", "packet-press", "winnowing")
    return demo.model_copy(update={"leaves": tuple(each for each in demo.leaves if each.id in some)})


@pytest.mark.parametrize("room", ROOMS)
def test_one_leaf_that_fails_is_its_own_check_and_all_others_stand_as_they_were(room, few, monkeypatch):
    as_they_were = {each["id"]: each for each in lists.figures_record(solve(few))["leaves"]}
    for leaf in few.leaves:
        with monkeypatch.context() as patch:
            broken(patch, room, leaf.id)
            found = solve(few)
        for each in lists.figures_record(found)["leaves"]:
            assert each["id"] == leaf.id or each == as_they_were[each["id"]]
        failed = found.leaf(leaf.id)
        assert isinstance(failed.fault, ZeroDivisionError)
        assert [each.leaf.id for each in found.leaves if each.fault is not None] == [leaf.id]
        assert failed.leaf == leaf
        (stop,) = [each for each in failed.checks if each.code == "not-worked-out"]
        assert stop.level is Level.STOP
        assert failed.build is None
        can_be_shown(found, failed)


def can_be_shown(solution, failed):
    """Draw, list and print a leaf that failed in every way that there is."""
    whole, show = solution.job, Show()
    for view in VIEWS.values():
        view(failed, show)
    for view, pages in PAGES:
        for page in pages:
            view(failed, show, page=page)
    for stage in Stage:
        assert failed.key_figure(stage, show)
    for each in (lists.cut_list_csv, lists.boring_list_csv, lists.settings_csv, lists.keep_outs_csv, schedule_csv):
        assert each(solution)
    lists.figures_record(solution)
    operations_record(solution.leaves, show)
    for paper in (bench_sheet_pdf, customer_pdf):
        assert paper(whole, failed).startswith(b"%PDF")
    assert stage_sheets_pdf(whole, failed, list(Stage)).startswith(b"%PDF")


def test_a_folder_is_written_with_a_leaf_that_failed_in_it(few, monkeypatch, tmp_path):
    broken(monkeypatch, "build_leaf", "pair")
    done = write_folder(solve(few), tmp_path / "mill", helpers=0)
    assert all((done.folder / name).exists() for name in done.files)
    assert any("Pair to the threshing floor" in each for each in done.left_out)
    assert {name.partition("/")[0] for name in done.files if "/" in name} >= {"seed-room", "walnut"}


def test_an_opening_that_nothing_can_be_said_of_still_has_its_leaf_in_the_job(few, monkeypatch):
    real = solver.survey

    def fails(ctx):
        if ctx.leaf.readings == few.leaves[0].readings:
            raise ArithmeticError("no opening")
        return real(ctx)

    monkeypatch.setattr(solver, "survey", fails)
    found = solve(few)
    assert isinstance(found.leaves[0].fault, ArithmeticError)
    can_be_shown(found, found.leaves[0])


def test_rails_cut_away_leave_no_frame_to_glue(demo):
    """A panelled leaf that exists, cut down past its end rails: a stop of its own, at every way of hanging."""
    for hanging in Hanging:
        found = solve_leaf(demo, with_field(demo, "stair-cupboard", "hanging", hanging).leaf("stair-cupboard"))
        assert found.fault is None, hanging
        assert all(each.clamps for each in (found.build.glue_ups if found.build else ()))


def test_a_shifted_track_is_asked_for_no_stop_where_the_gear_runs_on_the_floor(demo):
    slab = solve_leaf(demo, demo.leaf("barn-side"))
    shift = next(each for check in slab.checks for each in check.remedies if each.path == "hardware.wall.shift")
    made = with_field(with_remedy(demo, "barn-side", shift), "barn-side", "hardware.hangers.kind", HangerKind.FLOOR)
    assert solve_leaf(made, made.leaf("barn-side")).fault is None


def test_parts_that_are_called_alike_have_figures_of_their_own(demo):
    wide = with_field(demo, "linen-press", "readings.width_middle", 1500.0)
    high = with_field(wide, "linen-press", "readings.height_hinge", 3000.0)
    assert solve_leaf(high, high.leaf("linen-press")).fault is None
    late = LateTrim(foot=172.9, head=103.9, hinge=47.2, latch=100.0)
    for kind in KINDS:
        made = job(build=model_of(kind)(), late=late)
        assert solve(made).leaves[0].fault is None, kind


def test_a_lining_of_a_wood_that_nobody_knows_is_refused_where_it_is_written():
    with pytest.raises(ValueError, match="species"):
        Lining(species="unobtainium")
