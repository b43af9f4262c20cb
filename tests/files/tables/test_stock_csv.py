"""The rack as a table: written and read back, or refused by its line."""

from __future__ import annotations

from datetime import date, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.document.job import new_job
from oakmeasure.core.document.stock import Board, BoardMark, Came, Face, Flaw, MoistureReading
from oakmeasure.core.edits.stock_edits import with_boards
from oakmeasure.files.tables.cutting_csv import CuttingFileError
from oakmeasure.files.tables.stock_csv import rack_csv, read_rack

FIRST = date(2026, 9, 1)


def log(percents, every=7):
    return [MoistureReading(day=FIRST + timedelta(days=every * n), percent=each) for n, each in enumerate(percents)]


marks = st.builds(
    BoardMark,
    flaw=st.sampled_from(list(Flaw)),
    face=st.sampled_from(list(Face)),
    x=st.integers(0, 900).map(float),
    y=st.integers(0, 80).map(float),
    length=st.integers(1, 90).map(float),
    width=st.integers(1, 19).map(float),
)


boards = st.builds(
    Board,
    species=st.sampled_from([None, "walnut", "ash"]),
    length=st.integers(1000, 4000).map(float),
    width=st.floats(100, 300).map(lambda each: round(each, 2)),
    thickness=st.just(52.0),
    quantity=st.one_of(st.none(), st.integers(1, 9)),
    price=st.one_of(st.none(), st.just(12.5)),
    came=st.sampled_from(list(Came)),
    one_face=st.booleans(),
    colour=st.sampled_from(["", "pale, “nailed”", "=amber"]),
    year=st.one_of(st.none(), st.integers(1700, 2000)),
    marks=st.lists(marks, max_size=3).map(tuple),
    readings=st.lists(st.integers(4, 30), max_size=3).map(lambda each: tuple(log([float(n) for n in each]))),
)


@given(st.lists(boards, max_size=5))
@settings(max_examples=25)
def test_rack_that_is_written_reads_back_the_same(tmp_path_factory, made):
    demo = new_job()
    labelled = tuple(each.model_copy(update={"label": f"L{n}"}) for n, each in enumerate(made))
    job = with_boards(demo, labelled)
    path = tmp_path_factory.mktemp("rack") / "rack.csv"
    path.write_text(rack_csv(job), encoding="utf-8")
    back = read_rack(path, demo)
    assert (back.boards, back.sections, back.sheets) == (job.boards, job.sections, job.sheets)


@pytest.mark.parametrize(
    ("lines", "said"),
    [
        ("plank,B1,,1000,100,52\n", "line 2: what"),
        ("board,B1,,1000,-1,52\n", "line 2: width_mm"),
        ("board,B1,,1000,100,52\nboard,B1,,1000,100,52\n", "line 3: label"),
        ("defect,B9,,10,10,\n", "line 2: label: no board above"),
        ("board,B1,heartwood,1000,100,52\n", "line 2"),
        ("board,B1,,1000,100,abc\n", "line 2: thickness_mm"),
        ("board,B1,,,100,52\n", "line 2: length"),
    ],
)
def test_rack_that_is_wrong_is_refused_with_its_line(tmp_path, demo, lines, said):
    path = tmp_path / "rack.csv"
    path.write_text("what,label,wood,length_mm,width_mm,thickness_mm\n" + lines, encoding="utf-8")
    with pytest.raises(CuttingFileError, match=said):
        read_rack(path, demo)
