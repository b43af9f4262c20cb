"""Figures, checks, edits: what everything else rests on."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show, Unit, UnitSystem
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.job import Acknowledged, Climate, FitChoices, Hand, Job, TimberChoices, new_job
from oakmeasure.core.document.rules import RULE_KINDS, Rule, ShopRules, load_rules, rule_set_names
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Check, Checks, Level, Stage, worst
from oakmeasure.core.figures.figure import Figures, Provenance, derived, minus, plus, total
from oakmeasure.core.figures.figure import given as known
from oakmeasure.core.solver import solve
from samples import job

# --- figures ---------------------------------------------------------------------------------------------


def test_total_is_the_sum_of_its_rows_and_names_where_they_came_from():
    width = known("width", "width", 731.0)
    stile = known("stile", "stile", 95.0, choice=True)
    shoulder = total("shoulder", "shoulder to shoulder", plus(width), minus(stile, 2), source="by rule")
    assert shoulder.value == 541
    assert shoulder.lines(Show()) == [
        "width: 731 mm",
        "2 × stile: − 190 mm",
        "shoulder to shoulder: = 541 mm",
        "by rule",
    ]
    assert [row.ref for row in shoulder.rows] == ["width", "stile", "shoulder"]


def test_state_is_the_least_sure_of_what_went_in_and_choices_do_not_count():
    chosen = known("a", "a", 1.0, choice=True)
    measured = known("b", "b", 1.0)
    table = known("c", "c", 1.0, state=Provenance.FROM_TABLE)
    assumed = known("d", "d", 1.0, state=Provenance.ASSUMED)
    assert total("x", "x", plus(chosen), plus(chosen)).state is None
    assert total("x", "x", plus(chosen), plus(measured)).state is Provenance.MEASURED
    assert total("x", "x", plus(measured), plus(table)).state is Provenance.FROM_TABLE
    below = derived("y", "y", 2.0, Unit.MM, table, assumed, formula="sum")
    assert (below.state, below.rests_on) == (Provenance.ASSUMED, {"d"})
    assert total("z", "z", plus(below), minus(measured)).rests_on == {"d"}


def test_a_figure_is_worked_out_once():
    figures = Figures()
    figures.add(known("a", "a", 1.0))
    with pytest.raises(KeyError, match="twice"):
        figures.add(known("a", "a", 2.0))
    assert len(figures) == 1
    assert "a" in figures
    assert figures.get("b") is None


def test_parents_lead_down_to_readings_without_a_loop(demo):
    for leaf in solve(demo).leaves:
        for figure in leaf.figures:
            seen, below = set(), [figure.name]
            while below:
                name = below.pop()
                if name not in seen:
                    seen.add(name)
                    below += [each.name for each in leaf.figures.parents(name)]
            assert len(seen) <= len(leaf.figures)
    way_down = solve(demo).leaves[0].figures.parents("leaf_width")
    assert [each.name for each in way_down] == ["clear_width", "gap_hinge", "gap_latch"]


def test_findings_are_sorted_worst_first_and_keep_their_order_within_a_level():
    checks_so_far = Checks()
    for code, level in (("a", Level.OK), ("b", Level.STOP), ("c", Level.WARNING), ("d", Level.STOP)):
        checks_so_far.add(Check(code, level, Stage.FIT, "", ""))
    assert [each.code for each in checks_so_far.sorted()] == ["b", "d", "c", "a"]
    assert worst(checks_so_far.sorted()) is Level.STOP
    assert worst(checks_so_far.sorted(), Stage.LEAF) is Level.OK


# --- edits -----------------------------------------------------------------------------------------------


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


def test_document_is_frozen_and_refuses_what_it_does_not_know(demo):
    with pytest.raises(ValidationError):
        demo.name = "Other"
    with pytest.raises(ValidationError):
        Job.model_validate({**demo.model_dump(), "colour": "red"})


def test_every_rule_has_a_kind_with_limits_and_every_kind_a_rule():
    numbers = {name for name, field in ShopRules.model_fields.items() if field.annotation is Rule}
    assert set(RULE_KINDS) == numbers
    for key in rule_set_names():
        assert load_rules(key).name
    for kind in RULE_KINDS.values():
        assert kind.low < kind.high


def test_changed_rule_gives_the_set_another_name_and_says_what_it_was(demo):
    changed = job_edits.with_rule(job_edits.with_rule(demo, "gap_latch", 4.0), "gap_head", 3.0)
    assert changed.rules.name == "Site joinery, metric, changed"
    assert changed.rules.gap_latch.reason == "changed from 3 in this job"
    before, after = (solve(each).leaves[0].figures["leaf_width"].value for each in (demo, changed))
    assert after == pytest.approx(before - 1)
    with pytest.raises(InputError) as refused:
        job_edits.with_rule(demo, "tenon_share", 2.0)
    assert refused.value.limits == (0.15, 0.6)


def test_two_leaves_of_one_id_are_refused(demo):
    with pytest.raises(InputError, match="an id of its own"):
        job_edits.with_value(demo, "leaves", (demo.leaves[0], demo.leaves[0]))


jobs = st.builds(
    lambda width, height, build, fit, wood, hand, rules, unit: job_edits.with_value(
        job(width, height, build=build, fit=fit, timber=wood, hand=hand, rules=rules), "unit", unit
    ),
    st.floats(260, 1200),
    st.floats(500, 2600),
    st.builds(
        Framed,
        stile=st.floats(30, 200),
        muntin=st.none() | st.floats(20, 200),
        lock_height=st.floats(150, 2200),
        middle_rail=st.none() | st.floats(30, 300),
        panel_thickness=st.floats(4, 60),
        groove_depth=st.none() | st.floats(4, 40),
    ),
    st.builds(FitChoices, gap_hinge=st.none() | st.floats(0, 12), bevel_deg=st.none() | st.floats(0, 5)),
    st.builds(
        TimberChoices,
        species=st.sampled_from(["beech", "redcedar", "european_oak"]),
        moisture=st.floats(6, 20),
        wet=st.builds(Climate, temperature=st.floats(0, 25), humidity=st.floats(60, 95)),
    ),
    st.sampled_from(Hand),
    st.sampled_from(rule_set_names()),
    st.sampled_from(UnitSystem),
)


@given(jobs)
def test_every_remedy_that_is_offered_can_be_taken_and_mends_what_it_was_offered_for(made):
    for check in solve(made).leaves[0].checks:
        for remedy in check.remedies:
            if remedy.path:
                mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
                left = [each for each in mended.checks if each.code == check.code and each.level is Level.STOP]
                assert not (left and check.level is Level.STOP), (check.title, remedy.text)


@given(jobs)
def test_every_check_has_words_a_stage_and_points_at_what_exists(made):
    leaf = solve(made).leaves[0]
    codes = [each.code for each in leaf.checks]
    assert len(codes) == len(set(codes))
    for check in leaf.checks:
        assert check.title
        assert check.sentence.endswith(".")
        assert not check.figure or check.figure in leaf.figures
        assert check.level is Level.OK or check.remedies
