"""Figures and checks: sums that add up, the least sure state, worked out once, the worst first."""

from __future__ import annotations

import pytest

from oakmeasure.core.base.units import Show
from oakmeasure.core.figures.check import Check, Checks, Level, Stage, worst
from oakmeasure.core.figures.figure import FIXED, Figures, Origin, Provenance, derived, minus, plus, total
from oakmeasure.core.figures.figure import given as known


def test_total_is_the_sum_of_its_rows_and_names_where_they_came_from():
    width = known("width", "width", 731.0)
    stile = known("stile", "stile", 95.0, FIXED)
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
    chosen = known("a", "a", 1.0, FIXED)
    measured = known("b", "b", 1.0)
    table = known("c", "c", 1.0, Origin(state=Provenance.FROM_TABLE))
    assumed = known("d", "d", 1.0, Origin(state=Provenance.ASSUMED))
    assert total("x", "x", plus(chosen), plus(chosen)).state is None
    assert total("x", "x", plus(chosen), plus(measured)).state is Provenance.MEASURED
    assert total("x", "x", plus(measured), plus(table)).state is Provenance.FROM_TABLE
    below = derived("y", "y", 2.0, table, assumed, formula="sum")
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


def test_parents_lead_down_to_readings_without_a_loop(solved_demo):
    for leaf in solved_demo.leaves:
        for figure in leaf.figures:
            seen, below = set(), [figure.name]
            while below:
                name = below.pop()
                if name not in seen:
                    seen.add(name)
                    below += [each.name for each in leaf.figures.parents(name)]
            assert len(seen) <= len(leaf.figures)
    way_down = solved_demo.leaves[0].figures.parents("leaf_width")
    assert [each.name for each in way_down] == ["clear_width", "gap_hinge", "gap_latch"]


def test_findings_are_sorted_worst_first_and_keep_their_order_within_a_level():
    checks_so_far = Checks()
    for code, level in (("a", Level.OK), ("b", Level.STOP), ("c", Level.WARNING), ("d", Level.STOP)):
        checks_so_far.add(Check(code, level, Stage.FIT, "", ""))
    assert [each.code for each in checks_so_far.sorted()] == ["b", "d", "c", "a"]
    assert worst(checks_so_far.sorted()) is Level.STOP
    assert worst(checks_so_far.sorted(), Stage.LEAF) is Level.OK
