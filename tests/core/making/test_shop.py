"""What the shop can hold, where the glue goes, and what the hours cost."""

from __future__ import annotations

import pytest

from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.layered.model import Layered
from oakmeasure.core.construction.slab.model import Slab, SlabGlue, SlabJoint
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from samples import BOARDS, codes, job, said, solved


@pytest.mark.parametrize(
    ("rule", "value", "code"),
    [
        ("bench_length", 1500.0, "shop-bench"),
        ("clamp_reach", 600.0, "shop-reach"),
        ("clamps", 3.0, "shop-clamps"),
        ("planer_width", 120.0, "shop-planer"),
        ("sander_width", 600.0, "shop-sander"),
    ],
)
def test_what_the_shop_cannot_hold_is_said_with_a_way_round(rule, value, code):
    plain = job(build=Slab())
    assert code not in codes(solve(plain).leaves[0])
    look = said(solve(job_edits.with_rule(plain, rule, value)).leaves[0], code)
    assert look.level is Level.WARNING
    assert look.remedies
    assert Show().value(value, look_unit(rule)) in look.sentence or f"{value:.0f}" in look.sentence


def look_unit(rule):
    from oakmeasure.core.document.rules import RULE_KINDS

    return RULE_KINDS[rule].unit


def test_sheet_wider_than_the_saw_is_said_and_glue_groups_are_counted_for_the_clamps():
    assert "shop-saw" in codes(
        solve(job_edits.with_rule(job(build=Layered()), "saw_width", 500.0)).leaves[0], Level.WARNING
    )
    slab = solved(build=Slab(group_size=3, strip=150.0))
    names = [each.name for each in slab.build.glue_ups]
    assert names == ["each group of 3", "the slab"]
    assert slab.build.glue_ups[0].across < slab.build.glue_ups[1].across
    assert slab.figures["glue_clamps"].value == 8  # one about every 300 over 1977


def test_where_the_glue_goes_is_a_choice_with_its_movement():
    made = job(build=Slab(glue=SlabGlue.EDGES, joint=SlabJoint.TENONS))
    leaf = solve(made).leaves[0]
    table = leaf.leaf_choices[0]
    assert table.title == "Where the glue goes"
    edges, mortises, nowhere = table.options
    assert edges.is_taken
    assert edges.cells[1] == Show().length(leaf.figures["season"].value)
    assert (edges.cells[2], mortises.cells[2] != "0") == ("0", True)
    assert float(nowhere.cells[1]) < float(edges.cells[1])
    taken = solve(job_edits.with_remedy(made, "leaf-1", mortises.remedy)).leaves[0]
    assert taken.leaf_choices[0].options[1].is_taken
    glued = solved(build=Slab(joint=SlabJoint.GLUED)).leaf_choices[0].options[1]
    assert (glued.level, glued.remedy) == (Level.WARNING, None)


def test_cost_is_hours_timber_and_sheet_by_the_plan_and_the_rules():
    leaf = solved(build=Layered())
    f = leaf.figures
    assert f["cost_work"].value == pytest.approx(f["hours"].value * 40)
    sheets = 2 * 2.44 * 1.22
    assert f["sheet_area"].value == pytest.approx(sheets)
    assert f["cost_sheet"].value == pytest.approx(sheets * 34)
    assert f["cost"].value == pytest.approx(f["cost_work"].value + f["cost_timber"].value + f["cost_sheet"].value)
    dear = solve(job_edits.with_rule(job(build=Layered()), "hour_price", 80.0)).leaves[0]
    assert dear.figures["cost_work"].value == pytest.approx(2 * f["cost_work"].value)
    priced = tuple(each.model_copy(update={"price": 30.0}) for each in BOARDS)
    framed = solve(job().model_copy(update={"boards": priced})).leaves[0]
    assert framed.figures["cost_timber"].value == pytest.approx(30 * framed.plan.boards)
