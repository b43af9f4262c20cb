"""Ways out with their cost, each of which can be taken and mends what it was offered for."""

from __future__ import annotations

import pytest

from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.hanging import Hanging, SlideChoices, track_sets
from oakmeasure.core.document.job import FitChoices, Reading
from oakmeasure.core.drawings.leaf.beside_view import beside_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.reports.compare_constructions import beside, other_kinds
from oakmeasure.core.solver import solve, solve_leaf
from samples import codes, job, said, solved

SLAB = Framed(thickness=38.0, stile=110.0, top_rail=110.0, middle_rail=190.0, bottom_rail=210.0, muntin=None)


def sliding(width=756.0, height=2075.0, **slide):
    return job(width, height, hanging=Hanging.SLIDING, build=SLAB, slide=SlideChoices(**slide))


def test_pocket_that_is_too_low_has_its_ways_out_by_cost_and_each_that_is_taken_mends_it():
    made = job(
        720.0,
        2058.0,
        hanging=Hanging.POCKET,
        build=SLAB,
        slide=SlideChoices(track_set=track_sets()["osier-pocket-92"], size_height=Reading(value=1981.0)),
    )
    leaf = solve(made).leaves[0]
    assert leaf.figures["gear_short"].value == pytest.approx(15.0)
    ways = leaf.fit_choices[0]
    assert ways.title == "Ways out"
    names = [each.cells[0] for each in ways.options]
    assert {
        "Trim the leaf",
        "Osier pocket frame, low",
        "Cut the wall over the head",
        "Order it to size",
        "A thinner lining at the head",
    } == set(names)
    fine = [float(each.cells[1]) for each in ways.options if each.level is Level.OK]
    assert fine == sorted(fine)
    for option in ways.options:
        if option.remedy is not None:
            mended = solve(job_edits.with_remedy(made, "leaf-1", option.remedy)).leaves[0]
            assert "gear-short" not in codes(mended, Level.STOP), option.cells


def test_cost_is_hours_at_their_price_and_material_and_every_choice_can_be_taken(demo, solved_demo):
    dear = job_edits.with_rule(demo, "hour_price", 80.0)
    for before, after in zip(solved_demo.leaves, solve(dear).leaves, strict=True):
        for one, other in zip(before.fit_choices, after.fit_choices, strict=True):
            costs = {each.cells[0]: each for each in one.options}
            for option in other.options:
                was = costs[option.cells[0]]
                if "hours" in one.columns:
                    hours, rise = float(was.cells[2]), float(option.cells[1]) - float(was.cells[1])
                    assert rise == pytest.approx(40 * hours, abs=40 * 0.05 + 1)
                if option.remedy is not None:
                    taken = job_edits.with_remedy(dear, after.leaf.id, option.remedy)
                    assert solve_leaf(taken, taken.leaf(after.leaf.id)).figures


def test_bevels_side_by_side_hold_the_least_and_only_those_that_pass_can_be_taken():
    leaf = solved(450.0, 1981.0, build=Framed(thickness=60.0, stile=80.0, muntin=None))
    bevels = next(each for each in leaf.fit_choices if each.title.startswith("Bevel"))
    least = leaf.figures["least_bevel"].value
    assert least > 1
    for option in bevels.options:
        degrees = float(option.cells[1].rstrip("°"))
        assert (option.level is Level.OK) is (degrees >= least - 0.01)
        assert option.remedy is None or option.level is Level.OK


def test_wall_that_is_too_short_and_a_low_ceiling_have_their_ways_out_too():
    wall = solve(sliding(free_wall=700.0)).leaves[0]
    ways = next(each for each in wall.fit_choices if each.title == "Ways out")
    assert {each.cells[0] for each in ways.options} == {
        "Take the way that is left",
        "Two leaves that pass each other",
        "A pocket in the wall",
    }
    low = sliding(overlap_head=45.0, track_set=track_sets()["marram-flat-heavy"], headroom=200.0)
    leaf = solve(low).leaves[0]
    ways = next(each for each in leaf.fit_choices if each.title == "Ways out")
    less = next(each for each in ways.options if each.cells[0] == "Less overlap at the head")
    assert less.remedy.value == pytest.approx(45 - leaf.figures["headroom_short"].value)
    mended = solve(job_edits.with_remedy(low, "leaf-1", less.remedy)).leaves[0]
    assert said(mended, "headroom").level is Level.OK
    taken = [each for each in next(c for c in leaf.fit_choices if c.title == "Track sets").options if each.is_taken]
    assert [each.cells[0] for each in taken] == ["Marram flat rail, heavy"]


@pytest.mark.parametrize("kind", [key for key, _ in other_kinds("framed")])
def test_leaf_stands_beside_itself_in_every_other_construction(kind):
    made = job()
    one = solve(made).leaves[0]
    pair = beside(made, "leaf-1", one, kind)
    assert pair.one is one
    assert pair.other.leaf.build.kind == kind
    labels = [each.cells[0] for each in pair.table.options]
    assert labels == [
        "thickness",
        "parts",
        "timber",
        "weight",
        "moves in a year",
        "hours",
        "cost",
        "to look at",
        "stops",
    ]
    weight = next(each for each in pair.table.options if each.cells[0] == "weight")
    assert weight.cells[1:] == tuple(
        Show().value(each.figures["mass"].value, each.figures["mass"].unit) for each in (pair.one, pair.other)
    )
    texts = beside_view(pair, Show()).texts()
    assert "framed and panelled" in texts
    tiny = job(210.0, 1981.0, fit=FitChoices(gap_hinge=60.0, gap_latch=60.0))
    assert beside(tiny, "leaf-1", solve(tiny).leaves[0], kind).table.options[0].cells[0] == "thickness"
