"""The hanging record and the job book: what they hold, what is found in them, what begins from them; the drill."""

from __future__ import annotations

from datetime import date

import pytest

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.adjustment import Gaps, HungChoices, SignOff
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.readings import MeasuredBy
from oakmeasure.core.edits import job_edits
from oakmeasure.core.hanging.practice import STEP, drill, score
from oakmeasure.core.reports.hanging_record import entry_of_leaf, reading_rows, record_of
from oakmeasure.core.solver import solve
from oakmeasure.files.job.job_file import demo_job
from samples import job, solved


def test_a_drill_is_the_same_for_its_seed_and_its_own_faults_turned_round_win_it():
    for seed in range(120):
        door = drill(seed)
        assert door == drill(seed)
        best = score(door, [-each for each in door.faults], door.swollen)
        assert best.points >= 75, seed
        if not door.swollen:
            assert best.points == 100
            assert not door.found.least_wood.planes
            assert score(door, [0.0] * len(door.faults), 0.0).points < 100
        assert all(abs(each / STEP - round(each / STEP)) < 1e-6 for each in (door.faults[0], door.faults[-1]))


def test_wood_a_hinge_that_binds_and_too_much_packing_cost_points_and_say_so():
    door = next(drill(n) for n in range(50) if len(drill(n).faults) == 3 and not drill(n).swollen)
    right = [-each for each in door.faults]
    planed = score(door, right, 3.0)
    assert any("of wood that could have stayed" in each for each in planed.working)
    crooked = score(door, [right[0], right[1] + 1.0, right[2]], 0.0)
    assert any("the middle hinge is +1 out of line" in each for each in crooked.working)
    far = score(door, [each + 4.0 for each in right], 0.0)
    assert any("more than a hinge is packed" in each for each in far.working)
    assert far.points < 50
    with pytest.raises(ValueError, match="hinges"):
        score(door, [0.0], 0.0)


def test_the_record_holds_as_built_and_as_hung_gaps_reasons_and_lessons():
    made = job(
        hung=HungChoices(
            gaps=Gaps(hinge_top=2.0, latch_top=3.2), signed=SignOff(on=date(2026, 11, 20), by="I. Tarn", width=730.4)
        )
    )
    made = job_edits.with_acknowledged(made, "leaf-1", "some-stop", "looked at it twice")
    record = record_of(made, solve(made).leaves[0], Show())
    lines = {each.what: each for each in record.lines}
    assert lines["leaf, width"].hung == "730.4"
    assert dict(record.gaps) == {"hinge, top": "2", "latch, top": "3.2"}
    assert record.answered == (("some-stop", "looked at it twice"),)
    assert (record.on, record.by) == (date(2026, 11, 20), "I. Tarn")


def test_the_record_holds_the_opening_as_it_was_measured_each_way():
    demo = demo_job()
    show = Show()
    taped = record_of(demo, solve(demo).leaf("seed-room"), show)
    read = demo.leaf("seed-room").readings
    assert dict(taped.readings)["width, top"] == show.length(read.width_top.value)
    assert len(taped.readings) == sum(getattr(read, name) is not None for name in type(read).model_fields)
    ways = {leaf.measured_by: reading_rows(leaf, show) for leaf in demo.leaves}
    assert ways[MeasuredBy.TICKS][0][0] == "ticks on the board"
    assert int(ways[MeasuredBy.TICKS][0][1]) > 6
    if MeasuredBy.POLYGON in ways:
        assert all(name.startswith("corner ") for name, _ in ways[MeasuredBy.POLYGON])


def test_a_leaf_from_the_book_is_the_start_of_a_new_job_with_its_own_numbers():
    made = job(hung=HungChoices(signed=SignOff(on=date(2026, 11, 20), by="I. Tarn", width=731.0, mass_kg=28.4)))
    entry = entry_of_leaf(made, solve(made).leaves[0])
    again = Job.model_validate(entry.document)
    assert (entry.width, entry.mass_kg) == (731.0, 28.4)
    assert solve(again).leaves[0].figures["leaf_width"].value == solve(made).leaves[0].figures["leaf_width"].value
    assert len(again.leaves) == 1
    assert again.boards == again.sections == again.sheets == ()


def test_a_leaf_that_is_not_signed_does_not_go_into_the_book():
    with pytest.raises(ValueError, match="sign it off"):
        entry_of_leaf(job(), solved())


def test_the_book_is_searched_by_place_construction_and_size():
    made = job(hung=HungChoices(signed=SignOff(on=date(2026, 11, 20), by="I. Tarn")))
    entry = entry_of_leaf(made.model_copy(update={"place": "Long Reach"}), solve(made).leaves[0])
    width = entry.width
    for words in (
        "long reach",
        "framed",
        f"{width + 4:.0f}",
        f"{width:.0f} × {entry.height:.0f}",
        "tarn 2026-11",
        "butts lining",
    ):
        assert entry.matches(words), words
    for words in ("boarded", f"{width + 40:.0f}", "long reach slab"):
        assert not entry.matches(words), words
