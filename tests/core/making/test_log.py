"""The log: readings that flow back, times, one's own pace, the timetable, lessons, labels, batches."""

from __future__ import annotations

from datetime import date, datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.construction.layered.model import Layered
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.document.cup_hinges import CupChoices, cup_from_table
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import HardwareChoices, butt_from_table
from oakmeasure.core.document.job import Reading, TimberChoices
from oakmeasure.core.document.production import About, LogEntry, LogKind, MakeChoices, MishapKind, ReadingKind, unit_of
from oakmeasure.core.document.roles import Role
from oakmeasure.core.edits import job_edits, log_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.making.as_made import changes
from oakmeasure.core.making.far_off import asked_about, foretold
from oakmeasure.core.making.joints import joints_of, letter_of
from oakmeasure.core.making.labels import labels_of
from oakmeasure.core.making.lessons import at_operations, lessons_for, lessons_in
from oakmeasure.core.making.log import PRIOR_H, Progress, not_mended, own_pace, progress, spent
from oakmeasure.core.making.operation import Trade
from oakmeasure.core.making.workdays import Workdays
from oakmeasure.core.making.working_plan import timetable
from oakmeasure.core.reports.batch import batches
from oakmeasure.core.solver import solve, solve_leaf
from samples import assert_sums, codes, job, solved

T0 = datetime(2026, 11, 23, 8, 0)  # a Monday


def at(minutes: float) -> datetime:
    return T0 + timedelta(minutes=minutes)


def read(kind: ReadingKind, value: float, part: str = "", minutes: float = 0) -> LogEntry:
    return LogEntry(at=at(minutes), kind=LogKind.READING, reading=kind, value=value, part=part)


def worked(op: str, begun: float, ended: float, *, done: bool = True) -> list[LogEntry]:
    end = LogKind.DONE if done else LogKind.STOP
    return [LogEntry(at=at(begun), kind=LogKind.START, op=op), LogEntry(at=at(ended), kind=end, op=op)]


def making(*entries: LogEntry, **more) -> MakeChoices:
    return MakeChoices(log=entries, **more)


def cupboard(thickness: float, depth: float, point: float, *entries: LogEntry):
    hinge = cup_from_table("heron-110").model_copy(update={"cup_depth": Reading(value=depth)})
    return solved(
        500.0,
        700.0,
        hanging=Hanging.OVERLAY,
        making=making(*entries),
        hardware=HardwareChoices(cup=CupChoices(hinge=hinge, point=point)),
        build=Framed(
            thickness=thickness,
            stile=60.0,
            top_rail=60.0,
            bottom_rail=60.0,
            middle_rail=None,
            muntin=None,
            panel_thickness=6.0,
        ),
    )


def test_a_leaf_that_came_out_thinner_has_its_cups_bored_less_and_weighs_less_at_once():
    """Set out at 18 with cups of 13 and a point of 2.5; it came out 17.4: 17.4 − 2.5 − 2 = 12.9, to the half: 12.5."""
    before = cupboard(18.0, 13.0, 2.5)
    after = cupboard(18.0, 13.0, 2.5, read(ReadingKind.THICKNESS, 17.4))
    assert after.figures["cup_bored"].value == 12.5
    assert after.figures["cup_left"].value == pytest.approx(2.4)
    assert {c.depth for c in after.borings if c.name in ("cup 1", "cup 2")} == {12.5}
    said = {each.label: (each.before, each.after) for each in changes(before, after)}
    assert said["cup depth"] == (13.0, 12.5)
    frame = [p for p in before.build.parts if p.role is not Role.PANEL]
    seen = sum(p.face.width * p.face.height for p in frame)  # its tenons, mortises and grooves keep their thickness
    lost = seen * 0.6 / 1e9 * before.figures["density"].value
    assert said["weight"][0] - said["weight"][1] == pytest.approx(lost)
    assert after.figures["thickness"].state is Provenance.MEASURED
    assert "made-thick" in codes(after)
    assert after.making.op("mortise:stiles").settings == before.making.op("mortise:stiles").settings  # cut already
    assert next(s.value for s in after.making.op("bore:cups").settings if s.label == "depth stop") == 12.5
    assert_sums(after)


def test_what_was_set_out_by_the_thickness_wanted_says_so_once_another_is_read():
    """Fault 20: tenons of 6 were set out of 18; the working names that thickness, not the 17.4 that it came out."""
    after = cupboard(18.0, 13.0, 2.5, read(ReadingKind.THICKNESS, 17.4))
    by_name = after.figures.by_name
    assert (by_name["thickness"].value, by_name["thickness_set_out"].value) == (17.4, 18.0)
    (row,) = (each for each in by_name["tenon_thickness"].rows if each.ref.startswith("thickness"))
    assert (row.ref, row.value) == ("thickness_set_out", 18.0)
    assert row.label.endswith("as set out")
    for figure in by_name.values():  # and nobody else names one thickness with the value of the other
        assert all(row.value == by_name[row.ref].value for row in figure.rows if row.ref.startswith("thickness"))


@given(value=st.floats(15.5, 21.0))
@settings(max_examples=40, deadline=None)
def test_a_cup_is_bored_in_halves_never_deeper_than_its_hinge_nor_more_than_one_less(value):
    leaf = cupboard(18.0, 13.0, 2.5, read(ReadingKind.THICKNESS, value))
    bored = leaf.figures["cup_bored"].value
    assert 12.0 <= bored <= 13.0
    assert (2 * bored) % 1 == pytest.approx(0, abs=1e-9)
    if bored > 12.0:
        assert value - bored - 2.5 >= 2.0 - 1e-6


def test_a_board_that_measures_otherwise_changes_the_last_rip_and_stays_a_part_that_is_made():
    plain = solved(742.0 + 5, 1850.0, build=Boarded())
    boards = sorted((p for p in plain.build.parts if p.role is Role.BOARD), key=lambda p: p.face.x0)
    entry = read(ReadingKind.BOARD_WIDTH, boards[2].face.width - 0.8, boards[2].name)
    after = solved(742.0 + 5, 1850.0, build=Boarded(), making=making(entry))
    last = max((p for p in after.build.parts if p.role is Role.BOARD), key=lambda p: p.face.x0)
    assert last.face.width == pytest.approx(boards[-1].face.width + 0.8)
    assert last.face.x1 == pytest.approx(boards[-1].face.x1)
    said = {each.label: each.after - each.before for each in changes(plain, after)}
    assert said["last board"] == pytest.approx(0.8)
    assert [op.id for op in after.making.operations] == [op.id for op in plain.making.operations]
    assert all(not p.at_hand for p in after.build.parts)
    latest = solved(
        742.0 + 5,
        1850.0,
        build=Boarded(),
        making=making(entry, read(ReadingKind.BOARD_WIDTH, 110.0, boards[2].name, 5)),
    )
    third = next(p for p in latest.build.parts if p.name == boards[2].name)
    assert third.face.width == 110.0  # the newest reading counts


def test_widths_of_strips_moisture_and_weight_flow_back_too():
    slab = solved(
        build=Slab(), making=making(read(ReadingKind.BOARD_WIDTH, 120.0, "strip 2"), read(ReadingKind.MOISTURE, 8.0))
    )
    assert slab.build.part("strip 2").face.width == pytest.approx(120.0)
    assert slab.figures["moisture_made"].value == 8.0
    plain = solved(build=Slab(), timber=TimberChoices(moisture=8.0))
    assert slab.figures["density"].value == plain.figures["density"].value
    weighed = solved(build=Slab(), making=making(read(ReadingKind.MASS, 41.5)))
    assert weighed.figures["mass"].value == 41.5
    assert weighed.weights.mass.value == 41.5
    assert weighed.figures["mass"].state is Provenance.MEASURED


def test_layers_come_out_thinner_on_both_faces_alike():
    leaf = solved(build=Layered(), making=making(read(ReadingKind.THICKNESS, 35.0)))
    core, front = leaf.build.part("core"), leaf.build.part("hinge stile")
    back = leaf.build.part("hinge stile, back")
    assert core.finished.thickness == 12.0
    assert front.finished.thickness == back.finished.thickness == 11.5
    assert front.depth == (0.0, 11.5)
    assert back.depth == (23.5, 35.0)
    assert leaf.build.thickness == 35.0


def test_diagonals_twist_and_spread_are_judged_against_what_is_left_to_plane():
    width = solved().figures["glued_width"].value
    rising, falling = 2150.0, 2148.0
    lean = (rising**2 - falling**2) / (4 * width)
    leaf = solved(
        making=making(
            read(ReadingKind.RISING, rising),
            read(ReadingKind.FALLING, falling),
            read(ReadingKind.TWIST, 3.0),
            read(ReadingKind.SPREAD, 0.2),
        )
    )
    said = next(v for v in leaf.checks if v.code == "made-square")
    assert lean == pytest.approx(2.8, abs=0.2)
    assert said.level is Level.WARNING
    assert "leans" in said.sentence
    assert "made-twist" in codes(leaf, Level.WARNING)
    assert "made-spread" not in codes(leaf)
    far = solved(making=making(read(ReadingKind.RISING, 2160.0), read(ReadingKind.FALLING, 2150.0)))
    assert "made-square" in codes(far, Level.STOP)


def test_the_last_board_as_ripped_is_held_against_what_is_left_for_it():
    plain = solved(742.0, 1850.0, build=Boarded())
    last = max((p for p in plain.build.parts if p.role is Role.BOARD), key=lambda p: p.face.x0)
    wanted = last.face.width + plain.figures["trim_side"].value
    for value, level in ((wanted + 0.3, Level.OK), (wanted + 2.0, Level.WARNING), (wanted - 1.5, Level.WARNING)):
        leaf = solved(742.0, 1850.0, build=Boarded(), making=making(read(ReadingKind.LAST_RIP, value, last.name)))
        said = next(v for v in leaf.checks if v.code == "made-last-rip")
        assert said.level is level
        assert ("more to plane off" in said.sentence) is (value > wanted + 1)


def test_a_reading_that_cannot_be_is_refused_at_its_field():
    bad = (
        ({"reading": "moisture", "value": -3.0}, "value"),
        ({"reading": "width of a board", "value": 100.0}, "part"),
        ({"reading": "weight", "value": 900.0}, "value"),
        ({"value": 3.0}, "value"),
    )
    for fields, field in bad:
        with pytest.raises(InputError) as refused:
            log_edits.entry_of(at=T0, kind="reading", **fields)
        assert refused.value.field.endswith(field), fields
    leaf = solved()
    with pytest.raises(InputError, match="a part of the Leaf 1: hinge stile"):
        log_edits.check_part(leaf, "handle")
    with pytest.raises(InputError):
        log_edits.begun(job(), leaf, "no-such-step", T0)


def test_start_stop_resume_and_done_add_up_and_a_start_stops_what_runs():
    made = job()
    leaf = solve(made).leaves[0]
    first, second = leaf.making.operations[:2]
    made = log_edits.begun(made, leaf, first.id, at(0))
    leaf = solve(made).leaves[0]
    made = log_edits.begun(made, leaf, second.id, at(30))  # the first is stopped at that moment
    leaf = solve(made).leaves[0]
    assert spent(leaf.leaf.making.log, first.id).hours == 0.5
    states = progress(leaf.making.operations, leaf.leaf.making.log)
    assert (states[first.id], states[second.id]) == (Progress.STOPPED, Progress.RUNNING)
    made = log_edits.ended(made, leaf, second.id, at(90), done=True)
    made = log_edits.begun(made, solve(made).leaves[0], first.id, at(100))
    made = log_edits.ended(made, solve(made).leaves[0], first.id, at(115), done=True)
    log = made.leaves[0].making.log
    assert spent(log, first.id).hours == 0.75
    assert spent(log, second.id).hours == 1.0
    assert list(log) == sorted(log, key=lambda entry: entry.at)


def test_estimates_follow_ones_own_records_little_at_first_and_all_the_way_in_the_end():
    leaf = solved()
    saw = [op for op in leaf.making.operations if op.trade is Trade.SAW and op.hours > 0]
    entries = [
        e for n, op in enumerate(saw) for e in worked(op.id, 1000 * n, 1000 * n + 120 * op.hours)
    ]  # twice as long
    one = own_pace([(leaf.making.operations, entries[:2])])[Trade.SAW]
    every = own_pace([(leaf.making.operations, entries)] * 400)[Trade.SAW]
    est = saw[0].hours
    assert one.factor == pytest.approx((2 * est + PRIOR_H) / (est + PRIOR_H))
    assert 1 < one.factor < 1.5
    assert every.factor == pytest.approx(2.0, abs=0.01)
    now = at(50_000)
    slow = timetable(leaf.making.operations, MakeChoices(), {Trade.SAW: every}, now)
    usual = timetable(leaf.making.operations, MakeChoices(), {}, now)
    assert slow.hours - usual.hours == pytest.approx(sum(op.hours for op in saw), rel=0.02)


@settings(max_examples=30, deadline=None)
@given(due=st.dates(date(2026, 11, 24), date(2027, 2, 1)), hours=st.floats(2, 12), done=st.integers(0, 20))
def test_a_timetable_keeps_needs_waits_and_working_hours_and_counts_back_from_the_due_day(due, hours, done):
    leaf = LEAF
    entries = [e for n, op in enumerate(leaf.making.operations[:done]) for e in worked(op.id, 10 * n, 10 * n + 9)]
    choices = MakeChoices(log=tuple(entries), due=due, hours_a_day=hours)
    now = at(400)
    table = timetable(leaf.making.operations, choices, {}, now)
    days = Workdays(hours)
    by = {slot.op.id: slot for slot in table.slots}
    assert len(by) == len(leaf.making.operations) - done
    for slot in table.slots:
        assert days.is_work(slot.start)
        assert slot.start >= now
        for need in slot.op.needs:
            if need in by:
                assert slot.start >= by[need].ready
                assert slot.latest >= by[need].latest
    for one, two in zip(table.slots, table.slots[1:], strict=False):
        assert one.end <= two.start + timedelta(seconds=1)  # one pair of hands
    if table.first_late is not None:
        assert table.first_late.latest < table.begin
        after = table.slots[table.slots.index(table.first_late) + 1 :]
        assert all(slot.latest >= table.begin for slot in after)  # counted back, it is the first
    else:
        assert not table.is_late or all(slot.latest >= table.begin for slot in table.slots)


LEAF = solved()


def test_a_mend_that_is_done_answers_its_mishap():
    made = job()
    leaf = solve(made).leaves[0]
    wrong = log_edits.Mishap(MishapKind.SPLIT, "hinge stile", 40.0, "glue", "mortise:stiles")
    made = log_edits.gone_wrong(made, leaf, wrong, at(5))
    leaf = solve(made).leaves[0]
    assert len(not_mended(leaf.leaf.making.log)) == 1
    assert leaf.making.op("mend:1") is not None
    made = log_edits.ended(made, leaf, "mend:1", at(60), done=True)
    assert not not_mended(made.leaves[0].making.log)
    assert "mishap" not in codes(solve(made).leaves[0])
    with pytest.raises(InputError):
        log_edits.gone_wrong(made, leaf, log_edits.Mishap(MishapKind.SPLIT, "the moon", 1.0), at(9))


def test_a_lesson_comes_back_with_the_same_construction_hardware_or_timber_and_with_no_other():
    made = job_edits.with_new_leaf(job_edits.with_new_leaf(job(), "Second"), "Third")
    second, third = made.leaves[1].id, made.leaves[2].id
    made = job_edits.with_field(made, second, "hardware.butt", butt_from_table("tern-102"))
    made = job_edits.with_construction(made, third, "slab")
    made = job_edits.with_field(made, third, "timber.species", "walnut")
    notes = [
        LogEntry(
            at=at(n), kind=LogKind.NOTE, text=f"lesson {about}", about=about, op="mortise:stiles" if n == 0 else ""
        )
        for n, about in enumerate(About)
    ]
    made = log_edits.with_entry(made, "leaf-1", *notes)
    lessons = lessons_in(made)
    back = {leaf.id: {each.about for each in lessons_for(lessons, leaf)} for leaf in made.leaves}
    assert back["leaf-1"] == set(About)
    assert back[second] == {About.CONSTRUCTION, About.TIMBER}
    assert back[third] == {About.HARDWARE}
    there = at_operations(lessons, made.leaf(second), solve(made).leaf(second).making.operations)
    assert [each.text for each in there["mortise:stiles"]] == ["lesson construction"]


def test_letters_of_a_joint_stand_on_both_its_parts_and_no_letter_twice():
    leaf = solved(build=Framed())
    joints = joints_of(leaf.build)
    assert len({j.letter for j in joints}) == len(joints)
    labels = {each.name: each for each in labels_of(leaf, Show())}
    for joint in joints:
        assert joint.letter in labels[joint.member].letters.split()
        assert joint.letter in labels[joint.into].letters.split()
    letters = [letter_of(n) for n in range(700)]
    assert len(set(letters)) == 700
    assert not any(set("IO") & set(each) for each in letters)
    assert set(labels) == {p.name for p in leaf.cut_parts}
    assert all(each.size and each.hand == "hinges left" and each.face for each in labels.values())


def test_a_pair_has_a_label_for_each_piece_and_the_second_is_mirrored():
    leaf = solved(1500.0, hanging=Hanging.PAIR)
    stiles = [each for each in labels_of(leaf, Show()) if each.name == "hinge stile"]
    assert [each.piece for each in stiles] == ["1 of 2", "2 of 2"]
    assert "mirrored" not in stiles[0].hand
    assert "mirrored" in stiles[1].hand


def test_a_batch_has_every_leaf_with_that_operation_and_one_set_up_for_those_that_share_all_settings():
    made = job_edits.with_new_leaf(job_edits.with_new_leaf(job(), "Second"), "Third")
    made = job_edits.with_field(made, made.leaves[2].id, "build.thickness", 38.0)
    found = {each.op_id: each for each in batches(solve(made).leaves)}
    groove = found["groove:frame"]
    assert len(groove.leaves) == 3
    assert sorted(map(len, groove.alike())) == [1, 2]
    assert groove.hours == pytest.approx(sum(each.op.hours for each in groove.leaves))
    ids = list(found)
    assert ids.index("mortise:stiles") < ids.index("glue:frame") < ids.index("finish:last")


def test_a_leaf_that_is_made_is_offered_no_other_thickness():
    """What was read stays as it is, whatever is set out: the mend is told, not offered as an edit without effect."""
    thin = Framed(thickness=20.0, panel_thickness=6.0, middle_rail=None, muntin=None)
    start = solved(800.0, 2000.0, hanging=Hanging.FLOOR_GEAR, build=thin)
    made = solved(
        800.0, 2000.0, hanging=Hanging.FLOOR_GEAR, build=thin, making=making(read(ReadingKind.THICKNESS, 19.0))
    )
    for leaf, path in ((start, "build.thickness"), (made, "")):
        (check,) = [each for each in leaf.checks if each.code == "recess-thin"]
        assert [each.path for each in check.remedies] == [path]


@pytest.mark.parametrize(
    ("kind", "near", "far"),
    [
        (ReadingKind.MOISTURE, 13.0, 24.0),
        (ReadingKind.THICKNESS, 43.2, 34.0),
        (ReadingKind.MASS, 31.0, 58.7),
        (ReadingKind.RISING, 2160.0, 2610.0),
        (ReadingKind.TWIST, 4.0, 40.0),
        (ReadingKind.SPREAD, 1.0, 8.0),
    ],
)
def test_a_reading_far_from_what_was_foretold_is_asked_about(solved_demo, kind, near, far):
    leaf = next(each for each in solved_demo.leaves if each.leaf.id == "seed-room")
    assert asked_about(leaf, kind, near, "", Show()) == ""
    asked = asked_about(leaf, kind, far, "", Show())
    assert asked.startswith(Show().value(far, unit_of(kind)))
    assert asked.endswith("is it so?")


def test_what_every_leaf_foretells_is_near_itself(solved_demo):
    for leaf in solved_demo.leaves:
        for kind in ReadingKind:
            part = leaf.build.parts[0].name
            known = foretold(leaf, kind, part)
            if known is not None:
                assert asked_about(leaf, kind, known, part, Show()) == ""


def test_what_was_cut_before_a_reading_is_named_with_its_mend(demo):
    """Cups bored, and then the leaf is read thinner than it was set out: how deep they should be, what fills them."""
    leaf = demo.leaf("ledger")
    (thin,) = (each for each in leaf.making.log if each.reading is ReadingKind.THICKNESS)
    before, after = (
        log_edits.with_entry(demo, leaf.id, log_edits.entry_of(at=at, kind=LogKind.DONE, op="bore:cups"))
        for at in (thin.at - timedelta(minutes=5), thin.at + timedelta(minutes=5))
    )
    wrong = solve_leaf(before, before.leaf(leaf.id))
    look = next(each for each in wrong.checks if each.code == "cut-already-bore-cups")
    assert look.level is Level.WARNING
    assert "depth stop 13 then, 12.5 now" in look.sentence
    assert look.remedies[0].text == "A disc in its bottom, 0.5"
    right = solve_leaf(after, after.leaf(leaf.id))
    assert not [each for each in right.checks if each.code.startswith("cut-already")]


def test_wedges_are_cut_before_the_glue_and_a_cabinets_side_before_it_is_closed(solved_demo):
    through = solved(build=Framed(tenon=TenonKind.THROUGH))
    ids = [each.id for each in through.making.operations]
    tenons = [each for each in through.build.tenons if each.through and not each.is_haunch]
    assert through.making.op("cut:wedges").settings[0].value == 2 * len([t for t in tenons if "rail" in t.member])
    assert ids.index("cut:wedges") < next(at for at, each in enumerate(ids) if each.startswith("glue:"))
    cabinet = next(each for each in solved_demo.leaves if each.leaf.id == "scale-case")
    ids = [each.id for each in cabinet.making.operations]
    assert ids.index("let-in:side") < next(at for at, each in enumerate(ids) if each.startswith("glue:"))
