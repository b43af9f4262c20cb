"""The recipe of docs/adding.md makes a construction that is solved, made, drawn, asked for and printed."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

import oakmeasure

RECIPES = Path(__file__).parent.parent / "docs/adding.md"
BLOCK = re.compile(r"^`(core/[\w/]+\.py)`.*?\n\n```python\n(.*?)^```", re.MULTILINE | re.DOTALL)
LINE = re.compile(r"^The line, in `KINDS` of (core/[\w/]+\.py):\n\n```\n(.*?)\n```", re.MULTILINE | re.DOTALL)

DONE = """
from oakmeasure.core.construction.registry import KINDS
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import new_job
from oakmeasure.core.drawings.views import VIEWS
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.solver import solve
from oakmeasure.files.pdf.bench_sheet import bench_sheet_pdf
from oakmeasure.files.pdf.stage_sheets import stage_sheets_pdf
from oakmeasure.files.tables.lists import cut_list_csv, figures_record
from oakmeasure.core.base.units import Show

made = job_edits.with_construction(new_job(width=762, height=1981), "leaf-1", "plain")
for hanging in Hanging:
    hung = job_edits.with_field(made, "leaf-1", "hanging", hanging)
    leaf = solve(hung).leaves[0]
    for view in VIEWS.values():
        assert view(leaf, Show()).shapes or leaf.build is None, view
solution = solve(made)
leaf = solution.leaves[0]
part = leaf.build.part("sheet")
assert part.mark == "1"
assert (part.finished.width, part.finished.length) == (leaf.fit.width.value, leaf.fit.height.value)
assert leaf.figures["mass"].value > 5
assert "square:sheet" in [op.id for op in leaf.making.operations]
assert "steps-differ" not in [check.code for check in leaf.checks], [check.sentence for check in leaf.checks]
assert "sheet" in cut_list_csv(solution)
assert figures_record(solution)["leaves"][0]["construction"] == "plain sheet"
assert bench_sheet_pdf(made, leaf).startswith(b"%PDF")
assert stage_sheets_pdf(made, leaf).startswith(b"%PDF")
thick = solve(job_edits.with_field(made, "leaf-1", "build.thickness", 25.0)).leaves[0]
assert thick.figures["mass"].value > leaf.figures["mass"].value

from oakmeasure.app.shell.application import application
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.window import Window
app = application()
window = Window(Session(made))
window.session.go_to(Stage.LEAF)
app.processEvents()
boxes = window.sheet().findChildren(object)
assert any(each.objectName() == "build.thickness" for each in boxes), "the sheet does not ask how thick it is"
print("done")
"""


@pytest.fixture
def with_plain(tmp_path):
    """A copy of the package to which the recipe was done."""
    tree = tmp_path / "src/oakmeasure"
    shutil.copytree(Path(oakmeasure.__file__).parent, tree, ignore=shutil.ignore_patterns("__pycache__"))
    text = RECIPES.read_text(encoding="utf-8")
    files = BLOCK.findall(text)
    assert {Path(name).stem for name, _ in files} == {"__init__", "model", "build", "steps", "sheet"}
    assert len({Path(name).parent for name, _ in files}) == 1  # one folder
    for name, code in files:
        path = tree / name
        path.parent.mkdir(exist_ok=True)
        path.write_text(code, encoding="utf-8")
    where, line = LINE.search(text).groups()
    registry = tree / where
    before = registry.read_text(encoding="utf-8")
    registry.write_text(before.replace('    "existing",\n', f'    "existing",\n{line}\n', 1), encoding="utf-8")
    assert registry.read_text(encoding="utf-8").count("\n") == before.count("\n") + 1  # one line
    return tmp_path / "src"


def test_a_construction_is_its_folder_and_one_line(with_plain):
    env = os.environ | {"PYTHONPATH": str(with_plain), "QT_QPA_PLATFORM": "offscreen"}
    done = subprocess.run([sys.executable, "-c", DONE], capture_output=True, text=True, env=env, check=False)
    assert (done.stdout.strip(), done.returncode) == ("done", 0), done.stderr[-3000:]
