"""Tables of hardware: out and in again, and what is refused with its line and reason."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.document.cup_hinges import cup_from_table, cup_keys
from oakmeasure.core.document.hanging import Hanging, track_sets
from oakmeasure.core.document.hinges import butt_from_table
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.reports.hinge_catalogue import catalogue
from oakmeasure.core.solver import solve
from oakmeasure.data import table
from oakmeasure.files.tables.cutting_csv import CuttingFileError
from oakmeasure.files.tables.hardware_csv import BUTT, Ware, hardware_csv, read_hardware, with_hardware, with_track
from samples import job

LINE = "My butt,102,31,5.6,6,1,55"


@pytest.fixture
def file(tmp_path):
    def write(text, encoding="utf-8"):
        path = tmp_path / "table.csv"
        path.write_bytes(text.encode(encoding) if isinstance(text, str) else text)
        return path

    return write


@pytest.mark.parametrize("ware", list(Ware))
def test_what_is_shipped_goes_out_and_comes_in_the_same(file, ware):
    shipped = {
        Ware.BUTTS: [butt_from_table(key) for key in table("butts")],
        Ware.CUPS: [cup_from_table(key) for key in cup_keys()],
        Ware.TRACKS: list(track_sets().values()),
    }[ware]
    found, pieces = read_hardware(file(hardware_csv(job(), ware)))
    assert found is ware
    if ware is Ware.CUPS:
        pieces = [each.model_copy(update={"source": there.source}) for each, there in zip(pieces, shipped, strict=True)]
    assert list(pieces) == shipped


def test_a_hinge_that_was_read_stands_in_the_catalogue_as_from_a_table_and_replaces_its_namesake(file):
    _, found = read_hardware(file(",".join(BUTT) + "\n" + LINE))
    made = with_hardware(with_hardware(job(), found), found)
    assert [each.name for each in made.own_butts] == ["My butt"]
    assert made.own_butts[0].closed_thickness.state is Provenance.FROM_TABLE
    (listed,) = catalogue(made, solve(made).leaves[0])
    assert any("My butt" in option.cells[0] for option in listed.options)


def test_a_track_set_is_taken_by_its_leaf_and_reckoned_with(file):
    sliding = job(hanging=Hanging.SLIDING)
    _, found = read_hardware(file(hardware_csv(sliding, Ware.TRACKS)))
    with pytest.raises(CuttingFileError, match="which of them"):
        with_track(sliding, "leaf-1", found)
    made = with_track(sliding, "leaf-1", found, found[0].name)
    assert made.leaves[0].slide.track_set == found[0]
    assert solve(made).leaves[0].gear is not None


def test_semicolons_decimal_commas_and_a_mark_at_the_start_are_read(file):
    text = "\ufeff" + ";".join(BUTT) + "\r\nButt;101,6;31;5,6;6;1;55\r\n"
    _, (butt,) = read_hardware(file(text))
    assert (butt.length.value, butt.closed_thickness.value) == (101.6, 5.6)


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("", "it is empty"),
        ("name,colour\nx,red", "no column knuckle_mm, reach_mm, roller_mm"),
        ("name,knuckle_mm\nx,6", "line 1: no column length_mm"),
        (",".join(BUTT), "nothing in it but its columns"),
        (",".join(BUTT) + "\nB,102,31,5.6,6,1,heavy", "line 2: rating_kg: “heavy” is no number"),
        (",".join(BUTT) + "\nB,102,31,,6,1,55", "line 2: closed_mm: nothing there"),
        (",".join(BUTT) + "\nB,-4,31,5.6,6,1,55", "line 2: length"),
        (",".join(BUTT) + f"\n{LINE}\n{LINE}", "line 3: name: My butt stands in line 2 already"),
        ("name,reach_mm,cup_depth_mm,damped\nC,11,12,perhaps", "line 2: damped"),
        ("name,reach_mm,cup_depth_mm,reveal_mm\nC,11,12,16:3", "needs thickness:boring:gap"),
        ("name,reach_mm,cup_depth_mm,boring_least_mm,boring_most_mm\nC,11,12,7,4", "line 2: boring_least"),
        (b"\xff\xfe\x00", "is not text"),
    ],
)
def test_a_table_that_cannot_be_says_which_line_and_why(file, text, why):
    with pytest.raises(CuttingFileError, match=why):
        read_hardware(file(text))


def test_more_than_a_job_keeps_is_refused_and_formulas_come_out_as_words(file):
    many = "\n".join(f"B{n},102,31,5.6,6,1,55" for n in range(61))
    with pytest.raises(CuttingFileError, match="61 butts, a job keeps 60"):
        read_hardware(file(",".join(BUTT) + "\n" + many))
    _, found = read_hardware(file(",".join(BUTT) + '\n"=1+1",102,31,5.6,6,1,55'))
    assert "'=1+1" in hardware_csv(with_hardware(job(), found), Ware.BUTTS)


@given(st.text(max_size=200))
def test_any_text_is_read_or_refused(tmp_path_factory, text):
    path = tmp_path_factory.mktemp("any") / "t.csv"
    path.write_bytes((",".join(BUTT) + "\n" + text).encode("utf-8", "surrogatepass"))
    try:
        ware, _ = read_hardware(path)
    except CuttingFileError as refused:
        reason = str(refused)
    else:
        reason = f"t.csv {ware}"
    assert "t.csv" in reason
