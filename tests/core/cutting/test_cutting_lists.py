"""Cutting lists that are read from files: what is wrong is refused with its line, what is too long is told."""

from __future__ import annotations

import pytest

from oakmeasure.core.cutting.model import CutKind
from oakmeasure.core.cutting.plan import cut, why_left
from oakmeasure.files.tables.cutting_csv import CuttingFileError, read_problem
from plan_checker import check
from planning import work


def written(folder, name, text):
    path = folder / name
    path.write_text(text, encoding="utf-8")
    return path


STOCK_CSV = "name,length_mm,width_mm,qty,price\nS,2440,1220,,54.5\n"
PARTS_CSV = "name,length_mm,width_mm,qty,grain\nA,600,400,3,any\n"


@pytest.mark.parametrize(
    ("stock", "parts", "defects", "said"),
    [
        (STOCK_CSV, PARTS_CSV.replace("600", "-600"), "", "line 2: length_mm: -600"),
        (STOCK_CSV, PARTS_CSV + "A,1,1,1,any\n", "", "line 3: name: A stands in line 2"),
        (STOCK_CSV, PARTS_CSV.replace("3", "two"), "", "line 2: qty"),
        (STOCK_CSV, PARTS_CSV.replace("any", "up"), "", "needs length or any"),
        (STOCK_CSV, "name,length_mm\nA,1\n", "", "no column width_mm, qty, grain"),
        (STOCK_CSV, "", "", "it is empty"),
        (STOCK_CSV, PARTS_CSV + "B,300\n", "", "line 3: width_mm"),
        (STOCK_CSV.replace("54.5", "nan"), PARTS_CSV, "", "price"),
        (STOCK_CSV, PARTS_CSV, "S,2400,0,100,20\n", "line 2: the defect reaches outside S"),
        (STOCK_CSV, PARTS_CSV, "T,0,0,100,20\n", "no stock is called"),
    ],
)
def test_list_that_is_wrong_is_refused_with_its_line(tmp_path, stock, parts, defects, said):
    paths = [written(tmp_path, "s.csv", stock), written(tmp_path, "p.csv", parts)]
    marked = written(tmp_path, "d.csv", "board,x_mm,y_mm,length_mm,width_mm\n" + defects)
    with pytest.raises(CuttingFileError, match=said):
        read_problem(*paths, marked, kind=CutKind.SHEETS, kerf=3.2, trim=0.0)


def test_part_longer_than_any_stock_is_left_with_its_reason_and_the_rest_is_planned(tmp_path):
    parts = written(tmp_path, "p.csv", PARTS_CSV + "B,5000,100,2,length\n")
    problem = read_problem(written(tmp_path, "s.csv", STOCK_CSV), parts, None, kind=CutKind.SHEETS, kerf=3.2, trim=6.0)
    plan = cut(problem, work(0.3))
    check(problem, plan)
    assert plan.left == (("B", 2),)
    assert "2 of B (5000 × 100) fit no stock" in why_left(problem, plan)[0]
    assert len(plan.cuts) == 3
