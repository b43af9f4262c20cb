"""Late trim, where a leaf lives, what the shop can hold, what it costs, and two constructions side by side."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon, box

from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.layered.model import Layered
from oakmeasure.core.construction.light.model import Light
from oakmeasure.core.construction.slab.model import Slab, SlabGlue, SlabJoint
from oakmeasure.core.construction.veneered.model import Veneered, VeneerForm
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import HardwareChoices, MortiseLock
from oakmeasure.core.document.job import Exposure, FitChoices, LateTrim, TimberChoices
from oakmeasure.core.document.sliding_gear import Guide, GuideKind
from oakmeasure.core.drawings.leaf.beside_view import beside_view
from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
from oakmeasure.core.drawings.leaf.ways_view import ways_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.reports.compare_constructions import beside, other_kinds
from oakmeasure.core.solver import solve
from oakmeasure.core.timber.place import finish_of, fixings_of, glue_of, sheets_for
from samples import BOARDS, codes, job, solved


def said(leaf, code):
    return next(each for each in leaf.checks if each.code == code)


def row(leaf, what):
    table = next(each for each in leaf.leaf_choices if each.title == "Trimmed once made")
    return next(each for each in table.options if each.cells[0] == what)


# --- late trim -----------------------------------------------------------------------------------------------


def test_five_off_the_bottom_moves_everything_that_hangs_on_the_foot():
    made = job(build=Framed(), late=LateTrim(foot=5.0, may_end=3.0))
    before, after = solved(build=Framed()), solve(made).leaves[0]
    assert after.build.height == before.build.height - 5
    assert after.build.part("bottom rail").face.y1 == 195
    assert after.build.part("bottom rail").finished.width == 195
    assert after.build.part("bottom rail").planed == before.build.part("bottom rail").planed  # it was cut before
    assert after.build.part("middle rail").face.y0 == before.build.part("middle rail").face.y0 - 5
    assert after.figures["lock_up_trimmed"].value == 989
    assert after.figures["gap_floor_trimmed"].value == 11
    assert row(after, "bottom rail").cells[1:] == ("200", "195", "192", "40")
    assert row(after, "lock, up the leaf").cells[1:4] == ("994", "989", "986")
    assert after.butts.places[-1].bottom.value == before.butts.places[-1].bottom.value - 5
    assert after.weights.mass.value < before.weights.mass.value
    assert after.figures["leaf_height"].value == before.figures["leaf_height"].value
    taken_back = job_edits.with_field(made, "leaf-1", "late", LateTrim())
    assert solve(taken_back).leaves[0].build == before.build


def test_worst_trim_is_judged_by_what_must_stay_and_names_the_smallest_change():
    lock = HardwareChoices(lock=MortiseLock(backset=57.0))
    made = job(build=Framed(), hardware=lock, late=LateTrim(latch=10.0, may_side=20.0))
    look = said(solve(made).leaves[0], "late-latch-latch-stile")
    assert look.level is Level.WARNING
    assert look.remedies[0].value == pytest.approx(95 - 72 - 10)  # backset and 15, 10 gone already
    assert "late-latch-latch-stile" not in codes(
        solve(job_edits.with_remedy(made, "leaf-1", look.remedies[0])).leaves[0]
    )
    far = job(build=Framed(), hardware=lock, late=LateTrim(latch=40.0))
    stop = said(solve(far).leaves[0], "late-latch-latch-stile")
    assert (stop.level, stop.remedies[0].value) == (Level.STOP, pytest.approx(23))
    assert "late-latch-latch-stile" not in codes(
        solve(job_edits.with_remedy(far, "leaf-1", stop.remedies[0])).leaves[0]
    )


def test_groove_ledges_end_boards_and_solid_edge_follow_a_trim():
    slab = {
        "build": Existing(width=861.0),
        "hanging": Hanging.SLIDING,
        "hardware": HardwareChoices(guide=Guide(kind=GuideKind.FIN, groove_width=8.0, groove_depth=18.0)),
    }
    leaf = solved(**slab, late=LateTrim(foot=4.0, hinge=3.0))
    assert leaf.figures["guide_left"].value == 14
    assert row(leaf, "groove for the guide").cells[1:3] == ("18", "14")
    assert row(leaf, "hinge edge").cells[1:3] == ("20.5", "17.5")
    gone = solved(**slab, late=LateTrim(foot=12.0))
    assert said(gone, "late-foot-groove-for-the-guide").remedies[0].value == 10
    boards = solved(build=Boarded(), late=LateTrim(foot=20.0, hinge=6.0))
    plain = solved(build=Boarded())
    assert boards.build.part("board 1").finished.width == plain.build.part("board 1").finished.width - 6
    assert boards.build.part("lower ledge").face.y0 == plain.build.part("lower ledge").face.y0 - 20
    assert row(boards, "lower ledge, from the foot").cells[1:3] == ("125", "105")
    everything = solved(build=Light(), late=LateTrim(foot=199.0, head=199.0, hinge=99.0, latch=99.0))
    assert everything.leaf_choices


CONSTRUCTIONS = (
    Framed(),
    Boarded(),
    Slab(),
    Layered(),
    Light(),
    Veneered(),
    Veneered(form=VeneerForm.FRAMED),
    Existing(inside=Inside.PANELLED, width=800.0),
)


@given(
    st.sampled_from(CONSTRUCTIONS),
    st.builds(LateTrim, foot=st.floats(0, 60), head=st.floats(0, 60), hinge=st.floats(0, 30), latch=st.floats(0, 30)),
)
@settings(max_examples=40)
def test_trimmed_leaf_is_the_leaf_as_made_cut_by_the_trim(build, late):
    plain, leaf = solved(build=build), solved(build=build, late=late)
    keeps = box(late.hinge, late.foot, plain.build.width - late.latch, plain.build.height - late.head)
    names = {each.name: each for each in leaf.build.parts}
    for each in plain.build.parts:
        wanted = Polygon(each.corners).intersection(keeps).area
        got = Polygon(names[each.name].corners).area if each.name in names else 0.0
        assert got == pytest.approx(wanted, abs=2.0), each.name
    for each in leaf.build.parts:
        assert each.length.value == pytest.approx(each.finished.length, abs=0.01)
        assert each.finished.length <= each.planed.length + 1e-6
    assert leaf_view(leaf, Show()).shapes
    assert ways_view(leaf, Show()).shapes


# --- where it lives ------------------------------------------------------------------------------------------


def test_place_sets_its_air_and_limits_core_glue_finish_fixings_and_slopes():
    made = job_edits.with_place(job(build=Layered(sheet="mdf")), "leaf-1", Exposure.OUTSIDE)
    timber = made.leaf("leaf-1").timber
    assert (timber.wet.humidity, glue_of(timber), finish_of(timber), fixings_of(timber)) == (
        88,
        "D4",
        "outside paint",
        "stainless steel",
    )
    leaf = solve(made).leaves[0]
    stop = said(leaf, "place-core")
    assert stop.level is Level.STOP
    mended = solve(job_edits.with_remedy(made, "leaf-1", stop.remedies[0])).leaves[0]
    assert "place-core" not in codes(mended)
    assert mended.figures["place_slope"].value == 9
    assert "9°" in said(mended, "place").sentence
    for field, value, code in (
        ("glue", "D2", "place-glue"),
        ("finish", "oil or wax", "place-finish"),
        ("fixings", "plain steel", "place-fixings"),
    ):
        wrong = job_edits.with_field(made, "leaf-1", f"timber.{field}", value)
        look = said(solve(wrong).leaves[0], code)
        assert code not in codes(solve(job_edits.with_remedy(wrong, "leaf-1", look.remedies[0])).leaves[0])
    wet = job_edits.with_place(job(timber=TimberChoices(fixings="plated steel")), "leaf-1", Exposure.WET)
    assert "place-tannin" in codes(solve(wet).leaves[0], Level.WARNING)
    assert solve(wet).leaves[0].figures["moisture_wet"].value > solved().figures["moisture_wet"].value
    assert "mdf" not in sheets_for(Exposure.WET)
    assert set(sheets_for(Exposure.OUTSIDE)) < set(sheets_for(Exposure.WET)) < set(sheets_for(Exposure.DRY))


# --- the shop ------------------------------------------------------------------------------------------------


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
    slab = solved(build=Slab(stages=3, strip=150.0))
    names = [each.name for each in slab.build.glue_ups]
    assert names == ["each group of 3", "the slab"]
    assert slab.build.glue_ups[0].across < slab.build.glue_ups[1].across
    assert slab.figures["glue_clamps"].value == 8  # one about every 300 over 1977


# --- glue, cost, beside --------------------------------------------------------------------------------------


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
