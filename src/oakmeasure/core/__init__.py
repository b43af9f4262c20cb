"""The calculations of a door joiner, without Qt and without files: usable as a library.

What is named in `__all__` is what others may rest on; each is fetched from its room when it is first asked for, so that
a sum does not load the drawings. Everything else may move.

>>> from oakmeasure.core import Show, UnitSystem, parse_length
>>> parse_length('27 7/8"', UnitSystem.INCH)
708.025
>>> Show(UnitSystem.INCH).length(708.025)
'27 7/8"'
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from oakmeasure.core.base.errors import InputError
    from oakmeasure.core.base.parsing import parse_length, parse_quantity
    from oakmeasure.core.base.units import Show, Unit, UnitSystem
    from oakmeasure.core.cutting.model import CutKind, CutPlan, Deadline, Defect, PartItem, Problem, StockItem
    from oakmeasure.core.cutting.plan import cut
    from oakmeasure.core.design import LeafDesign
    from oakmeasure.core.document.field_path import with_value
    from oakmeasure.core.document.job import Job, Leaf
    from oakmeasure.core.document.readings import OpeningReadings, Reading
    from oakmeasure.core.document.rules import load_rules
    from oakmeasure.core.document.schema import job_schema
    from oakmeasure.core.figures.check import Check, Level, Stage
    from oakmeasure.core.figures.figure import Figure, Figures
    from oakmeasure.core.leaf.part import Build, Part
    from oakmeasure.core.making.operation import Operation
    from oakmeasure.core.solution import LeafSolution, Solution
    from oakmeasure.core.solver import Solver, solve
    from oakmeasure.core.sums.registry import sum_named

__all__ = [
    "Build",
    "Check",
    "CutKind",
    "CutPlan",
    "Deadline",
    "Defect",
    "Figure",
    "Figures",
    "InputError",
    "Job",
    "Leaf",
    "LeafDesign",
    "LeafSolution",
    "Level",
    "OpeningReadings",
    "Operation",
    "Part",
    "PartItem",
    "Problem",
    "Reading",
    "Show",
    "Solution",
    "Solver",
    "Stage",
    "StockItem",
    "Unit",
    "UnitSystem",
    "cut",
    "job_schema",
    "load_rules",
    "parse_length",
    "parse_quantity",
    "solve",
    "sum_named",
    "with_value",
]

_ROOMS = {
    "base.errors": ("InputError",),
    "base.parsing": ("parse_length", "parse_quantity"),
    "base.units": ("Show", "Unit", "UnitSystem"),
    "cutting.model": ("CutKind", "CutPlan", "Deadline", "Defect", "PartItem", "Problem", "StockItem"),
    "cutting.plan": ("cut",),
    "design": ("LeafDesign",),
    "document.field_path": ("with_value",),
    "document.job": ("Job", "Leaf"),
    "document.readings": ("OpeningReadings", "Reading"),
    "document.rules": ("load_rules",),
    "document.schema": ("job_schema",),
    "figures.check": ("Check", "Level", "Stage"),
    "figures.figure": ("Figure", "Figures"),
    "leaf.part": ("Build", "Part"),
    "making.operation": ("Operation",),
    "solution": ("LeafSolution", "Solution"),
    "solver": ("Solver", "solve"),
    "sums.registry": ("sum_named",),
}


def __getattr__(name: str) -> object:
    for room, names in _ROOMS.items():
        if name in names:
            return getattr(import_module(f"{__name__}.{room}"), name)
    raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
