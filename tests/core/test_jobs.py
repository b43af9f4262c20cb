"""The openings of the demo job, one of each kind that people come with, and what Measure makes of them."""

from __future__ import annotations

import re
from collections.abc import Iterator
from datetime import date

import pytest

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.framed.layout import rows_of
from oakmeasure.core.construction.framed.model import Framed, Infill
from oakmeasure.core.construction.framed.patterns import PATTERNS
from oakmeasure.core.document import field_path
from oakmeasure.core.document.adjustment import Gaps, SignOff
from oakmeasure.core.document.job import Job
from oakmeasure.core.reports.hanging_record import entry_of_leaf, record_of
from oakmeasure.core.solver import solve
from oakmeasure.files.job.job_file import demo_job
from samples import codes

# leaf, figure, value, tolerance: what the readings must come to at this stage
FIGURES = [
    ("hatch", "skew", 7.0, 1.0),
    ("hatch", "check_miss", 0.0, 1.0),
    ("hatch", "nick_up", 300.0, 1.0),
    ("office-store", "clear_width", 817.0, 0.1),
    ("office-store", "leaf_width", 812.0, 0.1),
    ("office-store", "leaf_height", 2032.0, 0.2),
    ("winnowing", "clear_width", 756.0, 0.1),
    ("winnowing", "clear_height", 2075.0, 0.1),
    ("winnowing", "floor_peak", 7.0, 1e-9),
    ("winnowing", "floor_rise", 7.0, 1e-6),
    ("packet-press", "clear_width", 447.0, 0.1),
    ("packet-press", "clear_height", 713.0, 0.1),
    ("specimens", "clear_width", 440.0, 0.1),
    ("tool-shed", "clear_width", 795.0, 0.1),
    ("ledger", "clear_width", 532.0, 0.1),
    ("meter", "clear_width", 1150.0, 0.1),
    ("meter", "in_the_way_1", 9.0, 1e-9),
    ("meter", "in_the_way_1_off", 14.0, 1e-9),
    ("pantry", "leaf_width", 658.0, 0.1),
    ("stair-cupboard", "head_rake", 208.0, 0.2),
    ("stair-cupboard", "head_low", 640.0, 0.2),
    ("barn-side", "in_the_way_1_off", 27.0, 1e-9),
    ("press-left", "clear_width", 520.0, 0.1),
    ("tall-press", "clear_height", 1193.0, 0.1),
    ("pigeon-holes", "clear_width", 388.0, 0.1),
    ("pigeon-holes", "clear_height", 512.0, 0.1),
    ("scale-case", "clear_width", 413.6, 0.1),
    ("sorting", "clear_width", 2210.0, 0.1),
    ("sorting", "floor_fall", 0.5, 1e-9),
    ("coal-hole", "clear_width", 747.0, 0.1),
    ("made-longer", "between", 742.0, 1e-9),
    ("made-longer", "lining_outside", 792.0, 1e-9),
    ("made-longer", "rough_needed", 800.0, 1e-9),
    ("made-longer", "leaf_width", 737.0, 1e-9),
    ("made-longer", "leaf_height", 1990.0, 1e-6),
    ("pair", "rough_width", 1536.0, 0.1),
    ("pair", "lining_outside", 1524.0, 0.1),
    ("pair", "between", 1474.0, 0.1),
    ("pair", "strip_latch", 8.0, 1e-9),
    ("walnut", "floor_slope", 5.0, 1e-9),
    ("walnut", "in_the_way_1_deep", 30.0, 1e-9),
    ("engine-room", "clear_width", 700.0, 0.1),
    ("linen-press", "head_radius", 1724.3, 0.5),
    ("linen-press", "head_arch_rise", 38.0, 0.1),
    ("reading-room", "clear_width", 880.0, 0.1),
]


# the same for Fit: how it hangs
FITTED = [
    ("hatch", "leaf_width", 629.75, 0.1),
    ("winnowing", "leaf_width", 832.0, 0.1),
    ("winnowing", "leaf_height", 2108.0, 0.1),
    ("winnowing", "hung_higher", 7.0, 1e-6),
    ("packet-press", "leaf_width", 444.0, 0.1),
    ("specimens", "overlay_shared", 9.5, 1e-9),
    ("ledger", "overlay", 13.5, 1e-9),
    ("meter", "track_needed", 1200.0, 0.1),
    ("meter", "leaf_width", 630.0, 0.1),
    ("meter", "clear_way", 545.0, 0.1),
    ("meter", "stands_out", 59.0, 1e-9),
    ("barn-side", "leaf_width", 955.0, 0.1),
    ("barn-side", "leaf_height", 2130.0, 0.1),
    ("barn-side", "backing", 8.0, 1e-9),
    ("tall-press", "leaf_height", 1188.0, 0.1),
    ("pigeon-holes", "leaf_width", 412.0, 0.1),
    ("pigeon-holes", "leaf_height", 536.0, 0.1),
    ("pigeon-holes", "run_between", 16.0, 1e-9),
    ("scale-case", "gap_made", 1.1, 1e-9),
    ("scale-case", "leaf_width", 411.4, 0.1),
    ("scale-case", "strokes_latch_edge", 12.0, 1e-9),
    ("scale-case", "butt_depth", 1.9, 1e-9),
    ("pigeon-holes", "opens_to", 170.0, 1e-9),
    ("winnowing", "headroom_needed", 209.0, 0.1),
    ("winnowing", "free_wall_needed", 834.0, 0.1),
    ("sorting", "centre", 140.0, 1e-9),
    ("sorting", "track_needed", 2290.0, 0.1),
    ("sorting", "leaf_width", 1215.0, 0.1),
    ("sorting", "clear_way", 965.0, 0.1),
    ("coal-hole", "leaf_width", 742.0, 0.1),
    ("tool-shed", "leaf_width", 790.0, 0.1),
    ("pair", "leaf_width", 732.5, 0.1),
    ("walnut", "leaf_width", 1015.0, 0.1),
    ("walnut", "leaf_height", 2310.0, 0.1),
    ("reading-room", "gear_short", 15.0, 0.1),
]


# the same for Leaf: how it is built
BUILT = [
    ("tool-shed", "boards_laid", 828.0, 1e-9),
    ("tool-shed", "laid_over", 38.0, 0.1),
    ("tool-shed", "glue_stages", 2.0, 1e-9),
    ("barn-side", "strips_count", 7.0, 1e-9),
    ("barn-side", "glue_stages", 3.0, 1e-9),
    ("coal-hole", "boards_count", 7.0, 1e-9),
    ("coal-hole", "board_end", 91.0, 0.1),
    ("coal-hole", "field_width", 668.0, 0.1),
    ("coal-hole", "field_height", 1180.0, 0.1),
    ("coal-hole", "brace_angle", 65.139, 0.005),
    ("coal-hole", "brace_edge", 1300.5, 0.1),
    ("coal-hole", "brace_blank", 1351.5, 0.1),
    ("coal-hole", "fixing_length", 32.0, 1e-9),
    ("walnut", "season", 11.1, 0.05),
    ("engine-room", "field_width", 610.0, 0.1),
    ("engine-room", "field_height", 640.0, 0.1),
    ("engine-room", "brace_angle", 46.375, 0.005),
    ("engine-room", "brace_blank", 884.1, 0.1),
    ("pantry", "leaf_width", 658.0, 0.1),
    ("pantry", "stile_off", 20.0, 0.1),
    ("pantry", "stile_left", 75.0, 0.1),
    ("pantry", "lower_panel_1_off", 9.0, 1e-9),
    ("pantry", "lower_panel_2_off", 8.0, 1e-9),
    ("pantry", "lower_panel_3_off", 9.0, 1e-9),
    ("pantry", "upper_panel_off", 26.0, 1e-9),
    ("office-store", "thickness", 36.0, 1e-9),
    ("office-store", "first_stile", 20.0, 1e-9),
    ("office-store", "middle_rail_centre", 990.0, 1e-9),
    ("office-store", "sheets", 2.0, 1e-9),
    ("winnowing", "added", 68.0, 0.1),
    ("winnowing", "pitch", 114.667, 0.01),
    ("winnowing", "recess_passes", 4.0, 1e-9),
    ("winnowing", "recess_depth", 10.0, 1e-9),
    ("winnowing", "guide_left", 14.0, 1e-9),
    ("meter", "brace_angle", 59.94, 0.01),
    ("meter", "boards_count", 6.0, 1e-9),
    ("stair-cupboard", "hinge_edge_height", 632.6, 0.1),
    ("made-longer", "added", 75.0, 1e-6),
    ("made-longer", "splice_lap", 75.0, 1e-9),
    ("made-longer", "splice_stagger", 25.0, 1e-9),
    ("made-longer", "piece_hinge", 150.0, 1e-6),
    ("made-longer", "piece_latch", 175.0, 1e-6),
    ("made-longer", "stile_off", 4.5, 1e-6),
    ("made-longer", "stile_left", 78.5, 1e-6),
    ("reading-room", "arch_radius", 1724.3, 0.1),
    ("reading-room", "shoulder", 720.0, 0.1),
    ("reading-room", "veneers_each", 9.0, 1e-9),
    ("reading-room", "veneer_raw", 3.6, 1e-9),
    ("reading-room", "wander", 0.3, 1e-9),
    ("reading-room", "edging", 12.0, 1e-9),
    ("reading-room", "edging_sawn", 18.0, 1e-9),
]


# the same for Hardware
HUNG = [
    ("packet-press", "cup_boring", 5.0, 1e-9),
    ("packet-press", "cup_centre", 22.5, 1e-9),
    ("packet-press", "plate_back", 57.0, 1e-9),
    ("packet-press", "cup_left", 4.0, 1e-9),
    ("packet-press", "stop_back", 20.0, 1e-9),
    ("specimens", "cup_boring", 6.5, 1e-9),
    ("ledger", "overlay", 13.5, 1e-9),
    ("ledger", "side_shown", 4.5, 1e-9),
    ("tall-press", "cup_1_plate", 107.5, 0.01),
    ("tall-press", "cup_2_plate", 1085.5, 0.05),
    ("pigeon-holes", "cup_1", 102.0, 1e-9),
    ("pigeon-holes", "cup_2", 434.0, 0.05),
    ("scale-case", "butt_depth", 1.9, 1e-9),
]


SAID_BUILT = [
    ("tool-shed", "held-across"),
    ("tool-shed", "nails"),
    ("tool-shed", "lay-up"),
    ("barn-side", "slots"),
    ("coal-hole", "fixings"),
    ("engine-room", "brace-round-one"),
    ("pair", "glass"),
    ("sample-room", "lock"),
    ("office-store", "layers"),
    ("office-store", "pieced"),
    ("office-store", "pins-refused"),
    ("winnowing", "recess-deep"),
    ("winnowing", "late-fine"),
    ("pantry", "reduced"),
    ("made-longer", "existing"),
    ("stair-cupboard", "outline"),
    ("meter", "boards-free"),
    ("reading-room", "veneers"),
    ("reading-room", "edging"),
    ("packet-press", "push-latch"),
    ("specimens", "cup-boring"),
    ("pigeon-holes", "cups-carry"),
]


SAID_FIT = [
    ("winnowing", "hung-higher"),
    ("meter", "projection"),
    ("barn-side", "backing"),
    ("reading-room", "gear-short"),
    ("pigeon-holes", "run"),
    ("pigeon-holes", "opens"),
    ("scale-case", "even-gap"),
    ("winnowing", "set"),
    ("winnowing", "anti-lift"),
    ("pair", "opens"),
    ("sorting", "clear-way"),
]


SAID_HUNG = [
    ("hatch", "latch"),
    ("tool-shed", "latch"),
    ("pantry", "latch"),
    ("made-longer", "latch"),
    ("pair", "bolts"),
    ("scale-case", "latch"),
    ("winnowing", "guide"),
    ("winnowing", "studs"),
    ("meter", "plug"),
    ("meter", "guide"),
    ("barn-side", "studs"),
    ("barn-side", "hangers-carry"),
    ("sorting", "guide-floor"),
    ("sorting", "straps-pass"),
    ("sorting", "stops-early"),
    ("walnut", "floor-level"),
    ("walnut", "floor-bears"),
    ("walnut", "stack-none"),
    ("engine-room", "clash-guide-groove-nails"),
    ("reading-room", "guide"),
]


# leaf, code of a check that must be said
SAID = [
    ("hatch", "tick-5"),
    ("hatch", "check"),
    ("winnowing", "floor-travel"),
    ("meter", "in-the-way-1"),
    ("barn-side", "in-the-way-3"),
    ("made-longer", "lining"),
    ("pair", "lining-strips"),
    ("walnut", "hidden-1"),
    ("walnut", "floor-travel"),
    ("sorting", "floor"),
    ("tool-shed", "survey-agrees"),
]


@pytest.fixture(scope="module")
def leaves(solved_demo):
    return {each.leaf.id: each for each in solved_demo.leaves}


@pytest.mark.parametrize(("leaf_id", "name", "value", "within"), FIGURES + FITTED + BUILT + HUNG)
def test_opening_of_each_job_comes_out(leaves, leaf_id, name, value, within):
    assert leaves[leaf_id].figures[name].value == pytest.approx(value, abs=within)


@pytest.mark.parametrize(("leaf_id", "code"), SAID + SAID_FIT + SAID_BUILT + SAID_HUNG)
def test_opening_of_each_job_is_judged(leaves, leaf_id, code):
    assert code in codes(leaves[leaf_id])


def test_every_job_has_its_opening_and_the_wrong_tick_is_named(leaves):
    assert len(leaves) == 28  # three room doors, twenty-one jobs, one of which has two openings, three more patterns
    more = {"seed-room", "drying-loft", "weighing-office", "sample-room", "scullery"}
    assert {leaf_id for leaf_id, *_ in FIGURES} == set(leaves) - more
    said = next(each for each in leaves["hatch"].checks if each.code == "tick-5")
    assert "latch side" in said.sentence
    assert leaves["hatch"].opening.template.ticks[4].miss == pytest.approx(9, abs=0.5)


def test_parts_of_a_lining_join_the_cut_list(leaves):
    pair = {part.name: part for part in leaves["pair"].cut_parts}
    assert pair["lining head"].finished.length == pytest.approx(1524, abs=0.1)
    assert pair["lining leg, hinge side"].finished.length == pytest.approx(2090 - 6 - 25 + 10, abs=0.1)
    assert pair["packing, hinge side"].finished.thickness == pytest.approx(6, abs=0.1)
    assert pair["strip, latch side, opening face"].finished.thickness == 8
    longer = leaves["made-longer"]
    assert {"lining head", "top rail"} <= {part.name for part in longer.cut_parts}
    sawn = {piece.piece.part for group in longer.plan.groups for cut in group.plan.boards for piece in cut.pieces}
    assert "lining head" in sawn


def test_a_leaf_of_each_ready_pattern_stands_in_the_demo(leaves):
    def filled(build):
        return tuple(
            (row.columns, row.infill in (Infill.GLASS, Infill.BOARDS) and row.infill) for row in rows_of(build)
        )

    shapes = {filled(leaf.leaf.build) for leaf in leaves.values() if isinstance(leaf.leaf.build, Framed)}
    for _, fields in PATTERNS.values():
        assert filled(Framed(**fields)) in shapes, fields


def test_sliding_jobs_offer_what_their_trade_would_do(leaves):
    barn = next(each for each in leaves["barn-side"].checks if each.code == "studs")
    assert {each.path for each in barn.remedies} == {
        "hardware.wall.shift",
        "hardware.wall.redrill",
        "hardware.wall.backing",
    }
    groove = next(each for each in leaves["engine-room"].checks if each.code == "clash-guide-groove-nails")
    assert "first" in groove.remedies[0].text
    assert "10 long" in groove.remedies[0].text
    cover = next(each for each in leaves["meter"].checks if each.code == "projection")
    assert "4 over the wish" in cover.sentence


def test_what_can_be_clicked_is_short_enough_for_its_card(leaves):
    long = {
        (each.leaf.id, remedy.text)
        for each in leaves.values()
        for check in each.checks
        for remedy in check.remedies
        if remedy.path and len(remedy.text) > 42
    }
    assert not long


def out_of_order(operations):
    """Return what is wrong with an order, in words: a need that comes later, an early one that could come sooner."""
    place = {op.id: at for at, op in enumerate(operations)}
    wrong = []
    for at, op in enumerate(operations):
        wrong += [f"{op.id} before {need}" for need in op.needs if place.get(need, at) >= at]
        if op.early:
            last = max((place[need] for need in op.needs if need in place), default=-1)
            wrong += [f"{op.id} behind {operations[n].id}" for n in range(last + 1, at) if not operations[n].early]
    return wrong


def test_every_job_is_made_in_order_can_be_signed_off_and_goes_into_the_book(leaves):
    whole = demo_job()
    for leaf in leaves.values():
        assert leaf.making is not None, leaf.leaf.id
        assert out_of_order(leaf.making.operations) == []
        assert leaf.making.operations[-1].id in ("hang:last", "glaze")
        signed = field_path.with_value(leaf.leaf, "hung.signed", SignOff(on=date(2026, 11, 26), by="I. Tarn"))
        job = whole.model_copy(update={"leaves": (signed,)})
        again = solve(job).leaves[0]
        record = record_of(job, again, Show())
        assert record.by == "I. Tarn"
        assert all(line.built for line in record.lines if line.what in ("leaf, width", "weight", "hardware", "timber"))
        entry = entry_of_leaf(job, again)
        assert entry.matches(f"{entry.width:.0f} {entry.construction.split()[0]}")


def test_job_11_is_levelled_by_its_screws_in_order(leaves):
    leaf = leaves["press-left"]
    turns = leaf.hung.turns
    assert [each.screw for each in turns] == ["side", "side", "depth", "depth"]
    apart = leaf.cups.places[1].top.value - leaf.cups.places[0].top.value
    assert turns[1].amount - turns[0].amount == pytest.approx(2.4 / leaf.fit.width.value * apart)
    assert all(each.within for each in turns)


def test_job_14_left_full_hung_and_sized_to_the_gap_that_came_has_strokes_a_side(leaves):
    leaf = leaves["scale-case"]
    f = leaf.figures
    assert f["gap_latch"].value == pytest.approx(1.1)  # two shims of 0.55
    assert f["gap_head"].value == f["gap_hinge"].value == f["gap_latch"].value
    strokes = [each.value for each in f if "strokes" in each.name]
    assert strokes
    assert all(each == int(each) and each >= 0 for each in strokes)
    hung = leaf.leaf.hung.model_copy(
        update={"gaps": Gaps(hinge_top=1.1, hinge_bottom=1.1, latch_top=1.1, latch_bottom=1.1, head_latch=1.1)}
    )
    job = demo_job().model_copy(update={"leaves": (leaf.leaf.model_copy(update={"hung": hung}),)})
    again = solve(job).leaves[0]
    assert again.hung.leaves[0].least_wood[0].kind == "nothing"


def test_job_18_a_pair_comes_right_with_its_meeting_line(leaves):
    leaf = leaves["pair"]
    active, slow = leaf.hung.leaves
    for each in (active, slow):
        even = each.found.even
        assert even.worst < 0.3
        assert all(-1.0 - 1e-6 <= packed <= 2.0 + 1e-6 for packed in even.packed)
    meeting = [
        gap for place, gap in zip(active.found.places, active.found.even.after, strict=True) if place.side == "latch"
    ]
    assert max(meeting) - min(meeting) < 0.6
    assert meeting == pytest.approx([3.0] * len(meeting), abs=0.3)


# What may stand in an inch job as it does in one in mm: counts, numbers of things, days, and numbers with a unit.
COUNTED = (
    r"(board|sheet|cut|joint|step|operation|pin|nail|leaf|leaves|more|figure|clamp|hour|point|reading|tick|day|part)"
)


OWN = re.compile(
    # formulas, sources and names; what has its unit; what is counted; what has a number
    rf"[÷√²×·]|Handbook|Timoshenko|“|(rail|track|frame) \d|\d+(\.\d+)? ?(%|°|kg|h\b|{COUNTED})|\d of \d|in \d|Nov|"
    r"are driven|of waiting|sand with|(stage|tick|takes|there are|from|the nail) \d|180 where"
)


def told(made: Job) -> Iterator[str]:
    """Yield all that is said of the leaves of a job."""
    show = Show(made.unit)
    for leaf in solve(made).leaves:
        for check in leaf.checks:
            yield from (check.title, check.sentence, check.rule, *(each.text for each in check.remedies))
        for figure in leaf.figures:
            yield from (figure.source, *(row.label for row in figure.rows))
        yield from (part.note for part in leaf.cut_parts)
        for op in leaf.making.operations if leaf.making is not None else ():
            yield from (op.name, op.how, op.why, op.practice, op.later, op.check.in_words(show) if op.check else "")
        for each in (*leaf.fit_choices, *leaf.leaf_choices):
            yield from (each.about, *(cell for option in each.options for cell in option.cells))
        for hung in leaf.hung.leaves:
            yield from (step.words for step in (*hung.least_wood, *hung.even))
        yield from (words for look in leaf.hung.looks for words in (look.found, look.remedy))


def test_an_inch_job_is_told_no_length_that_stands_there_in_mm(demo):
    """A text that is the same in both units has no length in it: it would be read as inches."""
    alike = set(told(demo)) & set(told(demo.model_copy(update={"unit": UnitSystem.INCH})))
    assert len(alike) > 1000
    assert [each for each in alike if re.search(r"[a-z] .*\d\d|\d\d.* [a-z]", each) and not OWN.search(each)] == []
