"""Edits of a job: what they do not touch stays the same object; refusals name field and need."""

from __future__ import annotations

import pytest

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.job import Acknowledged, new_job
from oakmeasure.core.document.readings import MeasuredBy
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.figure import Provenance


def test_an_edit_leaves_what_it_does_not_touch_the_same_object(demo):
    changed = job_edits.with_field(demo, "seed-room", "build.stile", 96.0)
    assert changed.leaves[1] is demo.leaves[1]
    assert changed.leaves[0].readings is demo.leaves[0].readings
    assert changed.rules is demo.rules
    assert demo.leaves[0].build.stile == 95.0


@pytest.mark.parametrize(
    ("path", "value", "need"),
    [
        ("build.stile", 3.0, "30 mm to 400 mm"),
        ("build.stile", float("inf"), "finite"),
        ("build.nothing", 1.0, "a field"),
        ("hardware.count", 9, "less than or equal to 6"),
        ("readings.width_top", 12.0, "200 mm to 3000 mm"),
        ("fit.gap_latch", -1.0, "0 mm to 60 mm"),
        ("timber.species", "heartwood", "species of the table"),
        ("timber.dry.humidity", 101.0, "5 to 95 %"),
        ("name", "", "at least 1 character"),
        ("build.tenon", "glued", "blind"),
        ("hardware.butt.rating_kg", 0.0, "1 to 1000 kg"),
    ],
)
def test_refused_edit_names_field_and_need(demo, path, value, need):
    with pytest.raises(InputError) as refused:
        job_edits.with_field(demo, "seed-room", path, value)
    assert refused.value.field == path
    assert need in refused.value.need


def test_last_width_cannot_be_emptied():
    made = new_job()
    with pytest.raises(InputError, match="at least one width"):
        job_edits.with_field(made, "leaf-1", "readings.width_middle", None)
    both = job_edits.with_field(made, "leaf-1", "readings.width_top", 760.0)
    assert job_edits.with_field(both, "leaf-1", "readings.width_middle", None).leaves[0].readings.width_middle is None


def test_typed_reading_is_measured_and_keeps_its_own_uncertainty(demo):
    loose = job_edits.with_field(demo, "seed-room", "readings.width_top.sigma", 2.0)
    again = job_edits.with_field(
        job_edits.with_state(loose, "seed-room", "readings.width_top", Provenance.ASSUMED),
        "seed-room",
        "readings.width_top",
        741.0,
    )
    reading = again.leaves[0].readings.width_top
    assert (reading.value, reading.state, reading.sigma) == (741.0, Provenance.MEASURED, 2.0)


def test_leaves_are_added_with_ids_of_their_own_and_the_last_one_stays(demo):
    signed = next(each for each in demo.leaves if each.hung.signed is not None)
    beside = job_edits.with_new_leaf(demo.model_copy(update={"leaves": (signed,)}), "Another").leaves[-1]
    assert (beside.hung.signed, beside.making.log) == (None, ())
    assert beside.hung.tolerance == signed.hung.tolerance
    assert beside.build == signed.build
    more = job_edits.with_new_leaf(job_edits.with_new_leaf(demo, "Hatch"), "Other hatch")
    assert len({each.id for each in more.leaves}) == len(demo.leaves) + 2
    few = more
    for leaf in more.leaves[1:]:
        few = job_edits.without_leaf(few, leaf.id)
    with pytest.raises(InputError):
        job_edits.without_leaf(few, few.leaves[0].id)
    with pytest.raises(KeyError):
        job_edits.with_field(demo, "no-such-leaf", "build.stile", 90.0)


def test_stop_is_answered_once_with_a_reason_that_says_something(demo):
    once = job_edits.with_acknowledged(demo, "seed-room", "bevel-short", "hung on rising butts")
    twice = job_edits.with_acknowledged(once, "seed-room", "bevel-short", "hung on a pivot")
    assert twice.leaf("seed-room").acknowledged == (Acknowledged(code="bevel-short", reason="hung on a pivot"),)
    with pytest.raises(InputError):
        job_edits.with_acknowledged(demo, "seed-room", "bevel-short", "x")


def test_new_leaf_keeps_nothing_that_was_read_at_the_other_opening(demo):
    fresh = job_edits.with_new_leaf(demo, "Hatch").leaves[-1]
    assert fresh.measured_by is MeasuredBy.TAPE
    assert fresh.template is None
    assert not fresh.in_the_way
