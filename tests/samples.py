"""Sample jobs that several tests start from."""

from __future__ import annotations

from typing import Any

import pytest

from oakmeasure.core.base.units import MINUS
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.job import Job, Leaf, OpeningReadings, Reading
from oakmeasure.core.document.rules import load_rules
from oakmeasure.core.document.stock import Board
from oakmeasure.core.figures.check import Check, Level
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.solver import solve

BOARDS = (
    Board(length=4200, width=260, thickness=52),
    Board(length=3000, width=225, thickness=52),
    Board(length=2400, width=200, thickness=20),
)


def square_readings(width: float, height: float) -> OpeningReadings:
    """Readings of a true rectangle."""
    diagonal = (width**2 + height**2) ** 0.5
    values = {
        "width_top": width,
        "width_middle": width,
        "width_bottom": width,
        "height_hinge": height,
        "height_middle": height,
        "height_latch": height,
        "diagonal_rising": diagonal,
        "diagonal_falling": diagonal,
    }
    return readings(**values)


def readings(**values: float) -> OpeningReadings:
    return OpeningReadings(**{name: Reading(value=value) for name, value in values.items()})


def job(width: float = 762.0, height: float = 1981.0, *, rules: str = "site-metric", **leaf: Any) -> Job:
    """A job with one framed leaf in a square opening."""
    leaf.setdefault("readings", square_readings(width, height))
    made = Leaf(id="leaf-1", name="Leaf 1", **leaf)
    return Job(name="Sample", rules=load_rules(rules), boards=BOARDS, leaves=(made,))


def solved(width: float = 762.0, height: float = 1981.0, **leaf: Any) -> LeafSolution:
    return solve(job(width, height, **leaf)).leaves[0]


def framed(width: float = 762.0, height: float = 1981.0, **build: Any) -> LeafSolution:
    return solved(width, height, build=Framed(**build))


def codes(leaf: LeafSolution, level: Level | None = None) -> set[str]:
    return {each.code for each in leaf.checks if level is None or each.level is level}


def said(leaf: LeafSolution, code: str) -> Check:
    """The check of that code, which there must be."""
    return next(each for each in leaf.checks if each.code == code)


def assert_sums(leaf: LeafSolution) -> None:
    """Every sum that is shown adds up to its figure, and ends in its very value."""
    for figure in leaf.figures:
        terms, result = figure.rows[:-1], figure.rows[-1]
        assert result.value == figure.value
        if terms and all(row.op in ("", "+", MINUS) and row.value is not None for row in terms) and terms[0].op == "":
            signed = [-row.value if row.op == MINUS else row.value for row in terms]
            assert sum(signed) == pytest.approx(figure.value, abs=1e-9)
