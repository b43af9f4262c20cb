"""The public surface of core: what is promised is there, explained, and enough to work out a door."""

from __future__ import annotations

import ast
import inspect
import subprocess
import sys
from pathlib import Path

import pytest

from oakmeasure import core


def test_every_name_is_fetched_from_one_room_and_no_other_is_there():
    fetched = [each for names in core._ROOMS.values() for each in names]
    assert sorted(fetched) == sorted(core.__all__)
    tree = ast.parse(Path(inspect.getfile(core)).read_text(encoding="utf-8"))
    typed = next(each for each in ast.walk(tree) if isinstance(each, ast.If))
    seen = {a.name: each.module for each in typed.body if isinstance(each, ast.ImportFrom) for a in each.names}
    for room, names in core._ROOMS.items():
        for name in names:
            assert seen[name] == f"oakmeasure.core.{room}"
            assert inspect.getdoc(getattr(core, name))
    with pytest.raises(AttributeError):
        core.Window  # noqa: B018


def test_a_door_is_worked_out_by_what_is_public_and_a_sum_loads_no_drawings():
    code = """
import sys
from oakmeasure.core import Show, UnitSystem, parse_length
print(Show(UnitSystem.INCH).length(parse_length('27 7/8"', UnitSystem.INCH)))
unasked = ("oakmeasure.core.drawings", "oakmeasure.core.cutting", "PySide6")
assert not [each for each in sys.modules if each.startswith(unasked)]
from oakmeasure.core import Job, Leaf, OpeningReadings, Reading, load_rules, solve
read = OpeningReadings(width_top=Reading(value=762.0), height_middle=Reading(value=1981.0))
door = Leaf(id="door", name="Door", readings=read)
(leaf,) = solve(Job(name="A job", rules=load_rules("site-metric"), leaves=(door,))).leaves
print(leaf.fit.width.value < 762, bool(leaf.build.parts))
"""
    said = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=False)
    assert (said.stdout.split("\n")[:2], said.stderr) == (['27 7/8"', "True True"], "")
