"""Laws across rooms: cut list, labels, steps and borings tell the same leaf, for either hand and in either unit."""

from __future__ import annotations

import csv
import io
from collections import Counter

import pytest

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.document.constructions import KINDS, model_of
from oakmeasure.core.document.job import Hand
from oakmeasure.core.making.labels import labels_of
from oakmeasure.core.solver import solve
from oakmeasure.files.job.job_file import demo_job
from oakmeasure.files.tables.lists import boring_list_csv, cut_list_csv, figures_record, rods_csv
from samples import job, said, solved

DEMO = solve(demo_job())


def rows(text):
    return list(csv.DictReader(io.StringIO(text)))


def without_hand(text):
    return [{key: value for key, value in row.items() if key != "hand"} for row in rows(text)]


@pytest.mark.parametrize("leaf", DEMO.leaves, ids=lambda each: each.leaf.id)
def test_every_piece_that_is_cut_has_its_label_and_every_label_its_piece(leaf):
    made = [each for each in leaf.cut_parts if not each.at_hand]
    told = labels_of(leaf, Show())
    assert {each.name for each in told} <= {each.name for each in leaf.cut_parts}
    assert {each.name for each in made} <= {each.name for each in told}
    planed = {each.name: each.planed for each in leaf.cut_parts}  # as it lies on the bench when it gets its label
    for label in told:
        size = planed[label.name]
        assert label.size == Show().size(size.length, size.width, size.thickness), label.name


@pytest.mark.parametrize("leaf", DEMO.leaves, ids=lambda each: each.leaf.id)
def test_every_step_works_at_parts_that_are_on_the_cut_list_and_every_wooden_part_is_worked_at(leaf):
    listed = {each.name for each in leaf.cut_parts}
    worked = {name for step in leaf.making.operations for name in step.parts}
    carried = {each.member for each in leaf.borings}  # what stands round the leaf, such as the head, is cut too
    assert worked <= listed | carried
    own = {each.name for each in leaf.build.parts if not each.at_hand and not each.is_old}
    assert own <= worked


@pytest.mark.parametrize("kind", KINDS)
def test_the_other_hand_cuts_the_same_pieces_at_the_same_places(kind):
    build = model_of(kind)()
    left, right = (solve(job(build=build, hand=hand)) for hand in (Hand.LEFT, Hand.RIGHT))
    assert cut_list_csv(left) == cut_list_csv(right)
    assert without_hand(boring_list_csv(left)) == without_hand(boring_list_csv(right))
    assert {row["hand"] for row in rows(boring_list_csv(left))}.isdisjoint(
        row["hand"] for row in rows(boring_list_csv(right))
    )
    one, other = (labels_of(each.leaves[0], Show()) for each in (left, right))
    assert [(each.name, each.size, each.face) for each in one] == [(each.name, each.size, each.face) for each in other]


@pytest.mark.parametrize("kind", KINDS)
def test_inches_change_what_is_written_and_nothing_that_is_cut(kind):
    metric = job(build=model_of(kind)())
    mm, inch = (solve(metric.model_copy(update={"unit": unit})) for unit in UnitSystem)
    assert cut_list_csv(mm) == cut_list_csv(inch)
    assert boring_list_csv(mm) == boring_list_csv(inch)
    assert rods_csv(mm.leaves[0]) == rods_csv(inch.leaves[0])
    one, other = (figures_record(each)["leaves"][0] for each in (mm, inch))
    assert {name: each["value"] for name, each in one["figures"].items()} == {
        name: each["value"] for name, each in other["figures"].items()
    }
    assert [each["code"] for each in one["verdicts"]] == [each["code"] for each in other["verdicts"]]


@pytest.mark.parametrize("kind", KINDS)
def test_cut_list_has_every_part_of_the_drawing_as_often_as_it_is_drawn(kind):
    solution = solve(job(build=model_of(kind)()))
    (leaf,) = solution.leaves
    listed = Counter(row["part"] for row in rows(cut_list_csv(solution)))
    assert listed == Counter(each.name for each in leaf.cut_parts)
    assert {each.name for each in leaf.build.parts} <= set(listed)
    for part, row in zip(leaf.cut_parts, rows(cut_list_csv(solution)), strict=True):
        assert float(row["length_mm"]) == pytest.approx(part.finished.length, abs=0.006)
        assert float(row["rough_length_mm"]) >= float(row["planed_length_mm"]) - 0.01 or part.at_hand


def test_what_a_check_points_at_is_in_the_leaf():
    leaf = solved(build=model_of("boarded")())
    for check in leaf.checks:
        assert said(leaf, check.code) is check
        kind, _, name = check.where.partition(":")
        if kind == "part":
            assert name in {each.name for each in leaf.cut_parts}
