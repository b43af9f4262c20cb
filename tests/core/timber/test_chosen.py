"""What a leaf is made of, before somebody chose it: reckoned with, said, and never passed off as a choice."""

from __future__ import annotations

import pytest

from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.layered.model import Layered
from oakmeasure.core.edits.job_edits import with_field, with_remedy
from oakmeasure.core.figures.check import Level
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.solver import solve_leaf
from samples import codes, job, solved


def test_timber_that_nobody_chose_is_said_once_with_its_mend_and_what_rests_on_it_is_assumed():
    start = job(780.0, 2040.0, build=Framed())
    leaf = solve_leaf(start, start.leaves[0])
    (check,) = [each for each in leaf.checks if each.code == "timber-not-chosen"]
    assert (check.level, check.title) == (Level.WARNING, "The timber is not chosen yet")
    assert leaf.figures["mass"].state is Provenance.ASSUMED
    taken = with_remedy(start, "leaf-1", check.remedies[0])
    after = solve_leaf(taken, taken.leaves[0])
    assert after.leaf.timber.species == "european_oak"
    assert "timber-not-chosen" not in codes(after)
    assert after.figures["mass"].state is not Provenance.ASSUMED
    assert after.figures["mass"].value == leaf.figures["mass"].value


@pytest.mark.parametrize("inside", list(Inside))
def test_what_an_old_leaf_is_made_of_is_asked_for_and_no_new_timber_is(inside):
    start = job(780.0, 2040.0, build=Existing(inside=inside, width=800.0, height=2060.0))
    leaf = solve_leaf(start, start.leaves[0])
    assert {"material-not-said"} & codes(leaf) == {"material-not-said"}
    assert "timber-not-chosen" not in codes(leaf)
    said = with_field(start, "leaf-1", "build.material", "redwood")
    after = solve_leaf(said, said.leaves[0])
    assert "material-not-said" not in codes(after)
    assert after.figures["mass"].value == leaf.figures["mass"].value


def test_what_is_assumed_of_timber_is_no_reading_to_take():
    leaf = solved(780.0, 2040.0, build=Layered())
    said = [each.sentence for each in leaf.checks if each.code.startswith("assumed-")]
    assert not [each for each in said if "gravity" in each or "movement" in each]
