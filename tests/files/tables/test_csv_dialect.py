"""One list as spreadsheets of several lands save it: read alike, or refused with what to do."""

from __future__ import annotations

import codecs

import pytest

from oakmeasure.core.base.units import UnitSystem
from oakmeasure.files.tables.cutting_csv import STOCK, CuttingFileError, read_lines
from oakmeasure.files.tables.points import PointsFileError, read_points

LIST = "name,length_mm,width_mm,qty,price\nOak ä,2400,200,3,12.5\nAsh,600.5,90,2,4\n"
TICKS = "x,y\n0,0\n640,0\n647.5,910\n"
SAVED = {
    "plain": lambda text: text.encode(),
    "with a mark": lambda text: codecs.BOM_UTF8 + text.encode(),
    "semicolons": lambda text: text.replace(",", ";").replace(".", ",").encode(),
    "tabs": lambda text: text.replace(",", "\t").encode(),
    "told": lambda text: ("sep=;\r\n" + text.replace(",", ";").replace("\n", "\r\n")).encode(),
    "told by a bar": lambda text: ("sep=|\n" + text.replace(",", "|")).encode(),
    "sixteen bits": lambda text: codecs.BOM_UTF16_LE + text.replace(",", "\t").encode("utf-16-le"),
    "sixteen bits, the other way": lambda text: codecs.BOM_UTF16_BE + text.encode("utf-16-be"),
}


@pytest.mark.parametrize("way", SAVED)
def test_a_list_is_read_alike_however_it_was_saved(way, tmp_path):
    path = tmp_path / "list.csv"
    path.write_bytes(SAVED[way](LIST))
    one, two = read_lines(path, STOCK)
    assert (one.cells["name"], one.number_of("length_mm", 1), one.number_of("price", 0)) == ("Oak ä", 2400.0, 12.5)
    assert two.number_of("length_mm", 1) == 600.5
    assert two.number == (4 if way.startswith("told") else 3)
    path.write_bytes(SAVED[way](TICKS))
    assert [(each.x, each.y) for each in read_points(path, UnitSystem.MM)] == [(0, 0), (640, 0), (647.5, 910)]


def test_letters_of_another_encoding_are_refused_with_what_to_do(tmp_path):
    path = tmp_path / "list.csv"
    path.write_bytes(LIST.encode("latin-1"))
    with pytest.raises(CuttingFileError, match="UTF-8"):
        read_lines(path, STOCK)
    path.write_bytes(b"x,y\n0,0\n\xe4,1\n")
    with pytest.raises(PointsFileError, match="UTF-8"):
        read_points(path, UnitSystem.MM)
