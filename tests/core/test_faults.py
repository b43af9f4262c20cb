"""A leaf that the program fails over is that leaf's check: the job's other leaves, its lists and papers go on."""

from __future__ import annotations

import pytest

from oakmeasure.core import solver
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.drawings.views import (
    VIEWS,
    FitPage,
    HardwarePage,
    LeafPage,
    MakePage,
    MeasurePage,
    TimberPage,
    fit_stage_view,
    hardware_stage_view,
    leaf_stage_view,
    measure_view,
    timber_view,
)
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.solver import solve
from oakmeasure.files.pdf.bench_sheet import bench_sheet_pdf
from oakmeasure.files.pdf.stage_sheets import customer_pdf, stage_sheets_pdf
from oakmeasure.files.tables import lists
from oakmeasure.files.tables.operations import operations_record
from oakmeasure.files.tables.schedule_csv import schedule_csv

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
PAGES = (
    (measure_view, MeasurePage),
    (fit_stage_view, FitPage),
    (leaf_stage_view, LeafPage),
    (timber_view, TimberPage),
    (hardware_stage_view, HardwarePage),
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
    job, show = solution.job, Show()
    for view in VIEWS.values():
        view(failed, show)
    for view, pages in PAGES:
        for page in pages:
            view(failed, show, page=page)
    assert list(MakePage)
    for stage in Stage:
        assert failed.key_figure(stage, show)
    for each in (lists.cut_list_csv, lists.boring_list_csv, lists.settings_csv, lists.keep_outs_csv, schedule_csv):
        assert each(solution)
    lists.figures_record(solution)
    operations_record(solution.leaves, show)
    for paper in (bench_sheet_pdf, customer_pdf):
        assert paper(job, failed).startswith(b"%PDF")
    assert stage_sheets_pdf(job, failed, list(Stage)).startswith(b"%PDF")
