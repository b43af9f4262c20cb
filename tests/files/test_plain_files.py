"""What is read is a plain file that comes to an end, and each number in it means one thing."""

from __future__ import annotations

import os

import pytest

from oakmeasure.core.base.errors import FileError
from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document.job import MOST_BOARDS, MOST_SECTIONS, MOST_SHEETS
from oakmeasure.files.job.job_file import load
from oakmeasure.files.tables.cutting_csv import read_lines
from oakmeasure.files.tables.points import read_points
from oakmeasure.files.tables.stock_csv import read_rack

READERS = {
    "a.oakjob": load,
    "a.csv": lambda path: read_lines(path, ("name",)),
    "b.csv": lambda path: read_points(path, UnitSystem.MM),
    "b.dxf": lambda path: read_points(path, UnitSystem.MM),
}


@pytest.mark.parametrize("name", READERS)
def test_a_pipe_a_device_and_a_folder_are_refused_at_once(name, tmp_path):
    (tmp_path / "folder").mkdir()
    os.mkfifo(tmp_path / "pipe")
    for what, words in (("folder", "it is a folder"), ("pipe", "it is no plain file"), ("/dev/zero", "no plain file")):
        link = tmp_path / f"{what.replace('/', '-')}-{name}"
        link.symlink_to(tmp_path / what)
        with pytest.raises(FileError, match=words):
            READERS[name](link)


@pytest.mark.parametrize(
    ("what", "most", "line"),
    [
        ("board", MOST_BOARDS, "board,2000,150,25"),
        ("section", MOST_SECTIONS, "section,2400,95,45"),
        ("sheet", MOST_SHEETS, "sheet,2440,1220,18"),
    ],
)
def test_a_rack_holds_so_many_and_the_line_that_is_too_many_is_named(what, most, line, demo, tmp_path):
    file = tmp_path / "rack.csv"
    head = "what,length_mm,width_mm,thickness_mm\n"
    file.write_text(head + f"{line}\n" * (most + 1), encoding="utf-8")
    with pytest.raises(FileError, match=f"line {most + 2}: what: a rack holds {most} {what}s at the most"):
        read_rack(file, demo)


@pytest.mark.parametrize(
    ("cell", "words"), [("1,981", "may be 1981 or 1.981"), ("-1,981", "1.981"), ("²", "no number")]
)
def test_a_number_that_may_be_two_is_refused(cell, words, tmp_path):
    file = tmp_path / "a.csv"
    file.write_text(f'name,length_mm\nA,"{cell}"\n', encoding="utf-8")
    (line,) = read_lines(file, ("name", "length_mm"))
    with pytest.raises(FileError, match=words):
        line.number_of("length_mm", -5000.0)
    assert line.cells["name"] == "A"


@pytest.mark.parametrize("cell", ["²", "9" * 5000, "٣", "0", "1.0"])
def test_a_count_is_a_whole_number_in_plain_digits(cell, tmp_path):
    file = tmp_path / "a.csv"
    file.write_text(f"name,qty\nA,{cell}\n", encoding="utf-8")
    (line,) = read_lines(file, ("name", "qty"))
    with pytest.raises(FileError, match="needs a whole number"):
        line.count_of("qty")
