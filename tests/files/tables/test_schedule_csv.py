"""A schedule of many openings: read, refused by its line, written out, sorted, searched, changed alike."""

from __future__ import annotations

import csv
import io
import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import MM_PER_INCH, UnitSystem
from oakmeasure.core.document.constructions import model_of
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Hand, new_job
from oakmeasure.core.figures.check import rank
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.reports.schedule import SORTS, changed_alike, schedule_row, shown_rows
from oakmeasure.core.solver import solve
from oakmeasure.files.job.job_file import demo_job
from oakmeasure.files.tables.cutting_csv import CuttingFileError
from oakmeasure.files.tables.schedule_csv import (
    MOST_LEAVES,
    OUT,
    read_schedule,
    schedule_csv,
    thickness_field,
    with_schedule,
)

HEAD = "name,width_mm,height_mm,hand,hanging,construction,wood,thickness_mm,like\n"


@pytest.fixture(scope="module")
def whole(solved_demo):
    return solved_demo


@pytest.fixture(scope="module")
def rows(whole):
    return [schedule_row(each) for each in whole.leaves]


def read(tmp_path, text, job=None, *, encoding="utf-8"):
    path = tmp_path / "schedule.csv"
    path.write_text(text, encoding=encoding)
    return read_schedule(path, job or new_job())


# --- reading -----------------------------------------------------------------------------------------------


def test_a_schedule_becomes_a_job_with_all_its_leaves(tmp_path):
    leaves = read(
        tmp_path,
        HEAD + 'Store 1,742.5,1990,left,,boarded,,,\nStore 2,"29 1/4""","6\' 6""",right,'
        "sliding on the wall,slab,Red oak,42,\n",
    )
    job = with_schedule(new_job(), leaves)
    assert [(each.id, each.name) for each in job.leaves] == [("store-1", "Store 1"), ("store-2", "Store 2")]
    first, second = job.leaves
    assert first.build.kind == "boarded"
    assert first.readings.width_middle.value == 742.5
    assert first.readings.width_middle.state is Provenance.MEASURED
    assert (second.hand, second.hanging, second.timber.species) == (Hand.RIGHT, Hanging.SLIDING, "red_oak")
    assert second.readings.height_middle.value == pytest.approx(1981.2)
    assert second.build.thickness == 42
    assert all(each.build is not None for each in solve(job).leaves)


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig"])
def test_semicolons_decimal_commas_and_a_byte_order_mark_are_read(tmp_path, encoding):
    text = "Name;Width_mm;Height_mm\nNord;742,5;1990\n\n;;\nSüd;743;1.99m\n"
    leaves = read(tmp_path, text, encoding=encoding)
    assert [each.name for each in leaves] == ["Nord", "Süd"]
    assert leaves[0].readings.width_middle.value == 742.5
    assert leaves[1].readings.height_middle.value == 1990


def test_what_a_line_does_not_say_comes_from_the_leaf_that_it_is_like(tmp_path):
    job = demo_job()
    hall = job.leaf("coal-hole")
    (leaf,) = read(tmp_path, HEAD + f'Second,700,1800,,,,,,"{hall.name}"\n', job)
    assert leaf.build == hall.build
    assert leaf.hardware == hall.hardware
    assert leaf.acknowledged == ()
    assert leaf.making.log == ()
    assert leaf.hung.signed is None
    added = with_schedule(job, (leaf,))
    assert len(added.leaves) == len(job.leaves) + 1
    assert added.leaves[:-1] == job.leaves


@pytest.mark.parametrize(
    ("line", "why"),
    [
        ("A,,1990", "at least one width"),
        ("A,wide,1990", "line 2: width_mm"),
        ("A,1e9,1990", "line 2: width_mm"),
        ("A,12,1990", "line 2: width_middle"),
        (",700,1990", "line 2: name"),
        ("A,700,1990,up", "line 2: hand"),
        ("A,700,1990,left,on a rope", "line 2: hanging"),
        ("A,700,1990,left,,paper", "line 2: construction"),
        ("A,700,1990,left,,slab,plastic", "line 2: wood"),
        ("A,700,1990,left,,slab,,900", "line 2: thickness_mm"),
        ("A,700,1990,left,,layered,,44", "line 2: thickness_mm"),
        ("A,700,1990,left,,,,,nobody", "line 2: like"),
        ("A,700,1990\nA,700,1990", "line 3"),
        ('A,"700,1990', "line 2"),
    ],
)
def test_a_line_that_makes_no_sense_is_refused_by_its_number_and_nothing_is_read(tmp_path, line, why):
    with pytest.raises(CuttingFileError, match=why):
        read(tmp_path, HEAD + line + "\n")


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("", "empty"),
        (HEAD, "no leaf"),
        ("leaf,w,h\nA,1,2\n", "no column name"),
        ("name;breite;hoehe\nA;1;2\n", "no column width_mm"),
        (HEAD + "".join(f"L{n},700,1990\n" for n in range(MOST_LEAVES + 1)), "a job takes"),
    ],
)
def test_a_file_that_is_no_schedule_says_so(tmp_path, text, why):
    with pytest.raises(CuttingFileError, match=why):
        read(tmp_path, text)
    with pytest.raises(CuttingFileError, match="is not text"):
        read(tmp_path, HEAD + "Süd,700,1990\n", encoding="latin-1")


NAMES = st.text(st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), min_size=1, max_size=20)


@settings(max_examples=40, deadline=None)
@given(names=st.lists(NAMES.map(str.strip).filter(bool), min_size=1, max_size=6, unique_by=str.lower))
def test_names_formulas_too_come_back_as_they_were_and_ids_differ(tmp_path_factory, names):
    folder = tmp_path_factory.mktemp("names")
    stream = io.StringIO()
    writer = csv.writer(stream)
    writer.writerow(("name", "width_mm", "height_mm"))
    writer.writerows((f"'{each}" if each[0] in "=+-@" else each, "700", "1990") for each in names)
    leaves = read(folder, stream.getvalue())
    assert [each.name for each in leaves] == names
    assert len({each.id for each in leaves}) == len(names)


# --- writing -----------------------------------------------------------------------------------------------


def test_what_is_written_is_read_back_with_the_same_openings_and_choices(tmp_path, whole):
    text = schedule_csv(whole)
    table = list(csv.DictReader(io.StringIO(text)))
    assert tuple(table[0]) == OUT
    assert [float(each["leaf_width_mm"]) for each in table] == pytest.approx(
        [each.fit.width.value for each in whole.leaves], abs=0.051
    )
    back = read(tmp_path, text, whole.job)
    for leaf, made in zip(whole.job.leaves, back, strict=True):
        assert (made.name, made.hand, made.hanging) == (leaf.name, leaf.hand, leaf.hanging)
        assert made.build.kind == leaf.build.kind
        assert made.timber.species == leaf.timber.species


# --- the schedule itself -----------------------------------------------------------------------------------


def test_lines_say_sizes_weight_state_and_the_worst_check(whole, rows):
    for leaf, row in zip(whole.leaves, rows, strict=True):
        assert row.width == leaf.fit.width.value
        assert row.mass == leaf.figures["mass"].value
        worst = min(rank(each.level) for each in leaf.checks)
        assert rank(row.level) == worst
        assert (row.worst is None) is (worst == 2)
    states = {row.leaf_id: row.state for row in rows}
    assert states["drying-loft"] == "hung"
    assert states["ledger"].startswith("made ")


@pytest.mark.parametrize("by", list(SORTS))
def test_every_column_sorts_both_ways_and_keeps_every_leaf(rows, by):
    up, down = shown_rows(rows, by=by), shown_rows(rows, by=by, downwards=True)
    assert {each.leaf_id for each in up} == {each.leaf_id for each in rows}
    keys = [SORTS[by](each) for each in up]
    assert all(a <= b for a, b in itertools.pairwise(keys))
    assert [SORTS[by](each) for each in down] == keys[::-1]


def test_words_and_sizes_filter(rows):
    boarded = shown_rows(rows, words="boarded")
    assert boarded
    assert all("boarded" in f"{each.name} {each.construction}".lower() for each in boarded)
    one = rows[3]
    assert one in shown_rows(rows, words=f"{one.width + 4:.0f} × {one.height - 4:.0f}")
    inches = f"{(one.width + 4) / MM_PER_INCH:.2f}"
    assert one in shown_rows(rows, words=inches, system=UnitSystem.INCH)
    assert one not in shown_rows(rows, words=inches)
    assert shown_rows(rows, words="nothing of this kind") == []
    assert shown_rows(rows) == rows


def test_several_are_changed_alike_or_none_is():
    job = demo_job()
    ids = ["seed-room", "drying-loft", "scullery"]
    after = changed_alike(job, ids, "fit.gap_latch", 4.0)
    assert all(after.leaf(each).fit.gap_latch == 4.0 for each in ids)
    others = [each for each in after.leaves if each.id not in ids]
    assert others == [each for each in job.leaves if each.id not in ids]
    with pytest.raises(InputError, match=job.leaf("seed-room").name):
        changed_alike(job, ids, "fit.gap_latch", 900.0)
    with pytest.raises(InputError):
        changed_alike(job, ["seed-room", "coal-hole"], "build.stiles", 90.0)


def test_a_light_leaf_has_no_thickness_of_its_own_in_the_schedule():
    """Its frame and what closes it make it: the width of its boards stood there once."""
    assert [thickness_field(model_of(kind)()) for kind in ("framed", "boarded", "light")] == [
        "thickness",
        "board_thickness",
        "",
    ]
