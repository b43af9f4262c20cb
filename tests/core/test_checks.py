"""What is said of leaves of any kind: words, a stage, a place; remedies that can be taken and mend."""

from __future__ import annotations

from collections import defaultdict

from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.registry import KINDS
from oakmeasure.core.document import field_path
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Climate, FitChoices, Hand, TimberChoices
from oakmeasure.core.document.rules import rule_set_names
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.solver import solve
from samples import job

jobs = st.builds(
    lambda width, height, build, fit, wood, hand, rules, unit: field_path.with_value(
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


def test_a_check_is_said_at_one_stage_whatever_leaf_it_is_said_of():
    """The room that says it was handed its stage: a room called from another one must not say it at that one's."""
    stages = defaultdict(set)
    for kind in KINDS:
        for hanging in Hanging:
            made = job_edits.with_field(
                job_edits.with_construction(job(), "leaf-1", kind), "leaf-1", "hanging", hanging
            )
            checks = solve(made).leaves[0].checks
            assert len({each.code for each in checks}) == len(checks), (kind, hanging)
            for check in checks:
                stages[check.code].add(check.stage)
    assert {Stage.LEAF, Stage.TIMBER, Stage.HARDWARE, Stage.FIT, Stage.MAKE} < set().union(*stages.values())
    assert not {code: found for code, found in stages.items() if len(found) > 1}
    assert stages["leaf-swells"] | stages.get("leaf-moves", set()) == {Stage.TIMBER}  # said by what moves in the leaf
