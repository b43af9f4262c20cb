"""Figures that can show their arithmetic.

A `Figure` is a number that a joiner will cut, drill or decide by. Its rows are the written sum that gave it,
each row naming the figure that it was taken from, so that one can walk down to the readings. `total` works
the value out *from* its rows: the sum that is shown is the sum that was done.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from enum import StrEnum

from oakmeasure.core.base.units import MINUS, Show, Unit
from oakmeasure.core.figures.names import FigureName, figure_name


class Provenance(StrEnum):
    """How well a reading or a hardware figure is known."""

    ASSUMED = "assumed"
    FROM_TABLE = "from a table"
    MEASURED = "measured"


_SURENESS = {Provenance.ASSUMED: 0, Provenance.FROM_TABLE: 1, Provenance.MEASURED: 2}


@dataclass(frozen=True, slots=True)
class WorkingRow:
    """One line of a written sum. `op` is "", "+", "−", "×", "÷", "=" or "note" (words only)."""

    op: str
    """The sign before it: "", +, − or =."""
    label: str
    """What it is called on the screen."""
    value: float | None = None
    """Its value; None for a line of words."""
    unit: Unit = Unit.MM
    """Its unit."""
    ref: str = ""
    """Name of the figure that it is; "" for none."""

    def as_written(self) -> tuple[str, float]:
        """Return its sign and number as a person writes them: an overlap of −10 is taken off, not added as "+ −10"."""
        value = self.value or 0.0
        if self.op in ("+", MINUS) and value < 0:
            return ("+" if self.op == MINUS else MINUS), -value
        return self.op, value


@dataclass(frozen=True, slots=True)
class Figure:
    """A number with its name, its unit, the sum that gave it and what it rests on."""

    name: str
    """Stable, for files and links."""
    label: str
    """The trade's words."""
    value: float
    """The value, mm where the unit is a length."""
    unit: Unit
    """Its unit."""
    rows: tuple[WorkingRow, ...] = ()
    """Its working, line by line."""
    source: str = ""
    """Whose rule, table or practice."""
    state: Provenance | None = None
    """The least sure of the readings and hardware figures that went in; None when it is all choice."""
    rests_on: frozenset[str] = frozenset()
    """Labels of the assumed inputs below it."""
    edit: str = ""
    """Path of the field that sets it, relative to the leaf; empty when it is worked out."""

    def lines(self, show: Show) -> list[str]:
        """Return the working as lines of text, the last one the result.

        Args:
            show: How lengths and other quantities are written.
        """
        return [row_text(row, show) for row in self.rows] + ([self.source] if self.source else [])


def row_text(row: WorkingRow, show: Show) -> str:
    """Return a row of a working as one line of text.

    Args:
        row: The row.
        show: How lengths and other quantities are written.
    """
    if row.value is None:
        return row.label
    op, value = row.as_written()
    op = {"": "", "note": ""}.get(op, op + " ")
    return f"{row.label}: {op}{show.value(value, row.unit)}"


@dataclass(frozen=True, slots=True)
class Origin:
    """Where an input comes from."""

    edit: str = ""
    """Path of the field that sets it; "" for none."""
    source: str = ""
    """Whose value it is."""
    state: Provenance | None = Provenance.MEASURED
    """How well it is known; None where nothing is uncertain in it, as it is no reading."""


READ = Origin()
FIXED = Origin(state=None)


def fixed(edit: str = "", source: str = "") -> Origin:
    """Return the origin of what is no reading.

    It is chosen where `edit` names the field; else a value of a table or a rule, or counted or sought, and `source`
    says whose.

    Args:
        edit: Path of the field that sets it; "" for none.
        source: Whose value it is.
    """
    return Origin(edit, source, None)


def given(name: FigureName, label: str, value: float, origin: Origin = READ, *, unit: Unit = Unit.MM) -> Figure:
    """Return a figure that is an input: a reading, a choice or a table value.

    Args:
        name: The figure's name.
        label: What it is called, for the working and the drawing.
        value: The value, in its unit; None where nothing is chosen.
        origin: Where it comes from.
        unit: Its unit.
    """
    how = str(origin.state) if origin.state is not None else "chosen" if origin.edit else ""
    rests = frozenset({label}) if origin.state is Provenance.ASSUMED else frozenset()
    return Figure(
        name,
        label,
        value,
        unit,
        (WorkingRow("=", f"{label}, {how}" if how else label, value, unit),),
        origin.source,
        origin.state,
        rests,
        origin.edit,
    )


def _inherit(parents: Iterable[Figure]) -> tuple[Provenance | None, frozenset[str]]:
    """Return the least sure state of the parents and all that they rest on."""
    state: Provenance | None = None
    rests: frozenset[str] = frozenset()
    for each in parents:
        if each.state is not None and (state is None or _SURENESS[each.state] < _SURENESS[state]):
            state = each.state
        if each.rests_on:
            rests |= each.rests_on
    return state, rests


@dataclass(frozen=True, slots=True)
class Term:
    """A figure as it counts in a sum."""

    figure: Figure
    """The figure."""
    times: float = 1.0
    """How often it counts."""


def plus(figure: Figure, times: float = 1.0) -> Term:
    """Return a term that is added.

    Args:
        figure: The figure.
        times: How often it counts.
    """
    return Term(figure, times)


def minus(figure: Figure, times: float = 1.0) -> Term:
    """Return a term that is taken off.

    Args:
        figure: The figure.
        times: How often it counts.
    """
    return Term(figure, -times)


SHARES = {1.0: "", 0.5: "half of ", 0.333333: "a third of ", 0.666667: "two thirds of ", 0.25: "a quarter of "}


def total(name: FigureName, label: str, *terms: Term, source: str = "") -> Figure:
    """Return the sum of the terms as a figure in the unit of the first one.

    Args:
        name: The figure's name.
        label: What it is called, for the working and the drawing.
        terms: What is added and what is taken off.
        source: Whose value or formula it is.
    """
    rows, value = [], 0.0
    for at, term in enumerate(terms):
        amount = term.times * term.figure.value
        value += amount
        times = abs(term.times)
        count = SHARES.get(round(times, 6), f"{times:.4g} × ")
        op = MINUS if term.times < 0 else "+" if at else ""
        rows.append(
            WorkingRow(
                op, count + term.figure.label, abs(term.times) * term.figure.value, term.figure.unit, term.figure.name
            )
        )
    unit = terms[0].figure.unit
    rows.append(WorkingRow("=", label, value, unit, name))
    state, rests = _inherit(term.figure for term in terms)
    return Figure(name, label, value, unit, tuple(rows), source, state, rests)


def derived(
    name: FigureName, label: str, value: float, *inputs: Figure, formula: str, unit: Unit = Unit.MM, source: str = ""
) -> Figure:
    """Return a figure worked out by a formula that is more than a sum; the formula stands in its working.

    Args:
        name: The figure's name.
        label: What it is called, for the working and the drawing.
        value: The value, in its unit; None where nothing is chosen.
        inputs: The figures that it is worked out from.
        formula: The formula, as it is shown in the working.
        unit: Its unit.
        source: Whose value or formula it is.
    """
    rows = [WorkingRow("", each.label, each.value, each.unit, each.name) for each in inputs]
    if formula:
        rows.append(WorkingRow("note", formula))
    rows.append(WorkingRow("=", label, value, unit, name))
    lowest, rests = _inherit(inputs)
    return Figure(name, label, value, unit, tuple(rows), source, lowest, rests)


@dataclass(slots=True)
class Figures:
    """All figures of a leaf, by name, in the order in which they were worked out."""

    by_name: dict[str, Figure] = field(default_factory=dict)
    """Each figure by its name."""

    def add(self, figure: Figure) -> Figure:
        """Add a figure under its own name and return it.

        Args:
            figure: The figure.
        """
        if figure.name in self.by_name:
            raise KeyError(f"figure {figure.name} is worked out twice")
        self.by_name[figure.name] = figure
        return figure

    def unused(self, name: str) -> FigureName:
        """Return a name that no figure has yet: the one asked for, or the same with a number behind it.

        Args:
            name: The name, made of a part or another key; several parts may be called alike.
        """
        tries = (figure_name(name if number == 1 else f"{name}_{number}") for number in itertools.count(1))
        return next(each for each in tries if each not in self.by_name)

    def given(
        self, name: FigureName, label: str, value: float, origin: Origin = READ, *, unit: Unit = Unit.MM
    ) -> Figure:
        """Add an input and return it; see the function `given`.

        Args:
            name: The figure's name.
            label: What it is called, for the working and the drawing.
            value: The value, in its unit; None where nothing is chosen.
            origin: Where it comes from.
            unit: Its unit.
        """
        return self.add(given(name, label, value, origin, unit=unit))

    def total(self, name: FigureName, label: str, *terms: Term, source: str = "") -> Figure:
        """Add a sum and return it; see the function `total`.

        Args:
            name: The figure's name.
            label: What it is called, for the working and the drawing.
            terms: What is added and what is taken off.
            source: Whose value or formula it is.
        """
        return self.add(total(name, label, *terms, source=source))

    def derived(
        self,
        name: FigureName,
        label: str,
        value: float,
        *inputs: Figure,
        formula: str,
        unit: Unit = Unit.MM,
        source: str = "",
    ) -> Figure:
        """Add a figure worked out by a formula and return it; see the function `derived`.

        Args:
            name: The figure's name.
            label: What it is called, for the working and the drawing.
            value: The value, in its unit; None where nothing is chosen.
            inputs: The figures that it is worked out from.
            formula: The formula, as it is shown in the working.
            unit: Its unit.
            source: Whose value or formula it is.
        """
        return self.add(derived(name, label, value, *inputs, formula=formula, unit=unit, source=source))

    def __getitem__(self, name: FigureName) -> Figure:
        return self.by_name[name]

    def __contains__(self, name: FigureName) -> bool:
        return name in self.by_name

    def get(self, name: FigureName) -> Figure | None:
        """Return the figure of that name; None where the leaf has none.

        Args:
            name: The figure's name.
        """
        return self.by_name.get(name)

    def __iter__(self) -> Iterator[Figure]:
        return iter(self.by_name.values())

    def __len__(self) -> int:
        return len(self.by_name)

    def parents(self, name: str) -> list[Figure]:
        """Return the figures that `name` was taken from, in the order of its rows.

        Args:
            name: Its name.
        """
        return [self.by_name[row.ref] for row in self.by_name[name].rows if row.ref in self.by_name and row.ref != name]
