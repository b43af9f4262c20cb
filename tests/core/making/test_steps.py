"""The working order of the trade, construction by construction; cautions where the work can hurt; settings that are
the leaf's figures. Facts of the trade: common practice, no source.
"""

from __future__ import annotations

import pytest

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.edits import job_edits
from oakmeasure.core.making.operation import Bucket, Trade
from oakmeasure.core.solver import solve
from oakmeasure.data import table
from oakmeasure.files.job.job_file import demo_job
from samples import solved

# What comes before what, because the other way round spoils the leaf, with the reason.
ORDER = {
    "seed-room": (
        ("rest:rough", "true:parts", "sawn wood moves before it is flat"),
        ("true:parts", "thickness:parts", "the planer follows a face that is not true"),
        ("mark:joints", "mortise:stiles", "marked once, from the rod"),
        ("mortise:stiles", "tenon:rails", "a tenon is fitted to its mortise"),
        ("groove:frame", "dry:frame", "a closed frame has no loose rail to groove"),
        ("sand:inside", "glue:frame", "inner edges cannot be reached afterwards"),
        ("coat:tongues", "glue:frame", "a bare tongue shows when the panel shrinks"),
        ("dry:frame", "glue:frame-1", "a joint that does not close is found dry"),
        ("glue:frame-1", "glue:frame", "muntins before the stiles shut them in"),
        ("flush:frame", "size:leaf", "sizes are taken from a flat leaf"),
        ("size:leaf", "bevel:latch", "the bevel is planed to the finished width"),
        ("let-in:leaf", "hang:dry", "it hangs on its own hinges"),
        ("hang:dry", "finish:1", "fitted before the finish"),
        ("ease:leaf", "sand:last", "plane marks are sanded"),
    ),
    "coal-hole": (
        ("groove:boards", "tongue:boards", "a tongue is fitted to its groove"),
        ("lay:boards", "rip:last", "the last board is ripped to what is left"),
        ("seal:boards", "fix:ledges", "edges are coated while they are open"),
        ("fix:ledges", "cut:brace", "the brace is cut to the ledges as they lie"),
        ("cut:brace", "fix:brace", ""),
        ("fix:brace", "size:leaf", "an unbraced leaf is not square"),
    ),
    "barn-side": (
        ("shoot:edges", "dry:slab", "the joints are seen dry"),
        ("glue:slab-1", "glue:slab-2", "in parts that the open time allows"),
        ("glue:slab", "flat:slab", ""),
        ("flat:slab", "dado:slab", "a dado is measured from a flat face"),
        ("dado:slab", "fix:battens", ""),
        ("fix:track", "proof:track", ""),
        ("proof:track", "hang:dry", "the wall is tried before a leaf hangs on it"),
    ),
    "office-store": (
        ("mark:core", "glue:layers", "what will be bored is marked before it is covered"),
        ("flush:layers", "glue:lippings", "the groove for a T is what the core is narrower than its faces"),
        ("tongue:lippings", "glue:lippings", ""),
        ("glue:lippings", "flush:lippings", ""),
        ("flush:lippings", "size:leaf", ""),
        ("mortise:lock", "hang:dry", ""),
        ("hang:dry", "let-in:lock-keep", "the keep is marked off the lock"),
    ),
    "reading-room": (
        ("resaw", "rest:veneers", "freshly sawn veneers cup"),
        ("rest:veneers", "match:veneers", ""),
        ("match:veneers", "glue:press-1", "in the order that they were sawn"),
        ("edge:cores", "glue:press-1", "edges lie under the veneer"),
        ("sand:veneers", "groove:frame", "grooved from a face that stays"),
        ("arch:rail", "glue:frame", ""),
    ),
    "pantry": (
        ("read:leaf", "strip:leaf", "what is inside is read before it is opened"),
        ("strip:leaf", "part:frame", ""),
        ("part:frame", "narrow:panels", "panels come out of an open frame"),
        ("narrow:edges", "glue:again", ""),
    ),
    "made-longer": (
        ("strip:leaf", "cut:splice", "old nails are found before the saw"),
        ("cut:splice", "fit:splice", ""),
        ("fit:splice", "glue:end", ""),
        ("trench:lining", "join:lining", ""),
        ("join:lining", "fix:lining", ""),
        ("fix:lining", "hang:dry", ""),
    ),
    "pair": (
        ("let-in:bolts", "bore:bolt-holes", "the holes are marked off the bolts"),
        ("hang:dry", "bore:bolt-holes", ""),
        ("measure:glass", "glaze", "glass is ordered to the rebate as it came out"),
        ("finish:last", "glaze", "the rebate is finished under the glass"),
        ("mortise:lock", "glue:frame", "in the loose stile"),
    ),
    "packet-press": (
        ("bore:plates", "hang:dry", "plates in the sides before the carcase is shut"),
        ("size:leaf", "bore:cups", "cups are measured from the finished edge"),
    ),
}
POWER = {"saw", "plane", "router", "drill", "resaw"}


@pytest.fixture(scope="module")
def whole(solved_demo):
    return solved_demo


def ids(leaf):
    return [each.id for each in leaf.making.operations]


@pytest.mark.parametrize("leaf_id", list(ORDER))
def test_the_order_is_that_of_the_trade(whole, leaf_id):
    order = ids(whole.leaf(leaf_id))
    for before, after, why in ORDER[leaf_id]:
        assert before in order, before
        assert after in order, after
        assert order.index(before) < order.index(after), why


def test_every_construction_of_the_demo_is_ordered_here(whole):
    kinds = {whole.leaf(each).leaf.build.kind for each in ORDER}
    assert {each.leaf.build.kind for each in whole.leaves} - kinds <= {"light"}


def test_hardware_that_a_leaf_has_not_makes_no_operation(whole):
    for leaf in whole.leaves:
        order, hardware = ids(leaf), leaf.leaf.hardware
        assert ("bore:cups" in order) is (leaf.cups is not None)
        assert ("let-in:leaf" in order) is bool(leaf.butts and leaf.butts.borings)
        assert ("proof:track" in order) is ("fix:track" in order)
        assert any(each.endswith("lock") for each in order) is (hardware.lock is not None)
        assert ("fix:lining" in order) is (leaf.leaf.lining is not None)
        assert "hang:dry" in order
        assert order[-1] in ("hang:last", "glaze", "trim:late")


def test_every_cut_for_hardware_on_the_leaf_is_made_in_one_operation(whole):
    for leaf in whole.leaves:
        made = [name for op in leaf.making.operations for name in op.cuts]
        wanted = {each.name for each in leaf.borings if each.solid is not None}
        assert wanted <= set(made), leaf.leaf.id
        for op in leaf.making.operations:
            assert len(op.cuts) == len(set(op.cuts)), (leaf.leaf.id, op.id)


def test_power_tools_dust_glue_and_oil_carry_their_cautions(whole):
    known = set(table("cautions"))
    for leaf in whole.leaves:
        for op in leaf.making.operations:
            cautions = set(op.cautions)
            assert cautions <= known
            if op.trade is Trade.ROUT:
                assert cautions & {"router", "chisel"}, op.id
            if op.trade is Trade.SAW:
                assert cautions & POWER, op.id
            if op.trade is Trade.SAND:
                assert "dust" in cautions, op.id
            if op.trade is Trade.GLUE:
                assert "glue" in cautions, op.id
            if op.id.startswith(("finish:", "trial:finish")):
                oily = table("finishes")[leaf.making.finish.finish]["rags"]
                assert ("rags" in cautions) is oily, (leaf.leaf.id, op.id)
            if op.id in ("fix:track", "proof:track", "fix:lining"):
                assert "wall" in cautions, op.id


def test_over_25_kg_it_is_two_people_or_a_lift_and_a_light_leaf_is_not_made_heavy(whole):
    for leaf in whole.leaves:
        hang = leaf.making.op("hang:dry")
        assert ("heavy" in hang.cautions) is (leaf.figures["mass"].value > 25), leaf.leaf.id


def test_an_old_leaf_is_taken_for_leaded_and_nailed_until_it_is_read(whole):
    for leaf in whole.leaves:
        if leaf.leaf.build.kind == "existing":
            first = leaf.making.op("strip:leaf") or leaf.making.op("read:leaf")
            assert "lead" in first.cautions


def test_hours_follow_the_buckets_and_waiting_is_apart(whole):
    for leaf in whole.leaves:
        hours = dict.fromkeys(Bucket, 0.0)
        for op in leaf.making.operations:
            assert op.hours >= 0
            assert op.wait_hours >= 0
            hours[op.bucket] += op.hours
        assert sum(hours.values()) == pytest.approx(leaf.making.hours)
        glued = [op for op in leaf.making.operations if op.trade is Trade.GLUE]
        assert all(op.wait_hours > 0 for op in glued), leaf.leaf.id
        finished = [op for op in leaf.making.operations if op.id.startswith("finish:")]
        assert all(op.wait_hours > 0 for op in finished)


def test_settings_carry_the_figure_that_explains_them_to_a_hundredth(whole):
    for leaf in whole.leaves:
        for op in leaf.making.operations:
            for setting in op.settings:
                if setting.figure:
                    figure = leaf.figures[setting.figure]
                    assert figure.unit is setting.unit, (op.id, setting.label)


@pytest.mark.parametrize("system", list(UnitSystem))
def test_settings_are_read_out_in_the_persons_units(whole, system):
    show = Show(system)
    sized = whole.leaf("seed-room").making.op("size:leaf")
    words = [each.in_words(show) for each in sized.settings]
    assert words[0].startswith("width ")
    assert ('"' in words[0]) is (system is UnitSystem.INCH)


def test_a_wider_stile_moves_the_settings_of_joints_and_nothing_of_the_hinges():
    job = demo_job()
    wide = job_edits.with_field(job, "seed-room", "build.stile", 110.0)
    old, new = solve(job).leaf("seed-room").making, solve(wide).leaf("seed-room").making
    deep = [next(s.value for s in each.op("mortise:stiles").settings if s.label == "deep") for each in (old, new)]
    assert deep[1] > deep[0]
    assert old.op("let-in:leaf").settings == new.op("let-in:leaf").settings
    assert [each.id for each in old.operations] == [each.id for each in new.operations]


def test_a_leaf_that_slides_has_no_bevel_and_no_side_to_let_hinges_into():
    slid = ids(solved(905.0, 2095.0, hanging=Hanging.SLIDING))
    hung = ids(solved(905.0, 2095.0))
    for name in ("bevel:latch", "let-in:leaf", "let-in:side"):
        assert name in hung
        assert name not in slid
    assert {"fix:track", "proof:track"} <= set(slid) - set(hung)
