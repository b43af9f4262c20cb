"""The document: frozen, its rules and their kinds, ids of their own."""

from __future__ import annotations

import pytest
from pydantic import ValidationError

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document import field_path
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.rules import RULE_KINDS, Rule, ShopRules, load_rules, rule_set_names
from oakmeasure.core.edits import job_edits
from oakmeasure.core.solver import solve


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
        field_path.with_value(demo, "leaves", (demo.leaves[0], demo.leaves[0]))
