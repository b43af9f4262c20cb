"""What a quick sum is: options in, figures with their working out.

Nothing here reads a job: `oak-measure sum` answers before a job's models are loaded.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from oakmeasure.core.base.errors import InputError, LengthError
from oakmeasure.core.base.parsing import parse_length, parse_quantity
from oakmeasure.core.base.units import Show, Unit, UnitSystem
from oakmeasure.core.document.species import plain_name
from oakmeasure.core.figures.figure import FIXED, Figure, Figures
from oakmeasure.core.figures.names import figure_name
from oakmeasure.data import table

Value = float | str | tuple[float, ...]


@dataclass(frozen=True, slots=True)
class SumOption:
    """What a sum is told."""

    name: str
    """As it is typed on the command line."""
    label: str
    """What it is called."""
    unit: Unit | None = Unit.MM
    """None for words out of `choices`."""
    default: float | str | None = None
    """What is taken where nothing is given; None: it is then `needed`, or may be left out."""
    needed: bool = True
    """Whether it must be given."""
    low: float = 0.0
    """The least that makes sense, in its unit."""
    high: float = math.inf
    """The most that makes sense, in its unit."""
    choices: tuple[str, ...] = ()
    """The words that it may be; () for a number."""
    repeated: bool = False
    """Given once for each of several."""
    over_zero: bool = False
    """0 makes no sense."""
    also: Mapping[str, str] = field(default_factory=dict)
    """Other words for its choices."""

    @property
    def key(self) -> str:
        """Return its name as a figure."""
        return self.name.replace("-", "_")


@dataclass(frozen=True, slots=True)
class Given:
    """The options of a sum as they were given, by name; what may be left out and was is not in it."""

    values: Mapping[str, Value]
    """What was given, by the option's name."""
    options: Mapping[str, SumOption]
    """The options, by their names."""
    figures: Figures
    """Where the sum's figures are added."""

    def __contains__(self, name: str) -> bool:
        return name in self.values

    def number(self, name: str) -> float:
        """Return a number, in the unit of its option.

        Args:
            name: Its name.
        """
        value = self.values[name]
        if not isinstance(value, float):
            raise TypeError(f"{name} is no number")
        return value

    def word(self, name: str) -> str:
        """Return a word out of its option's choices.

        Args:
            name: Its name.
        """
        return str(self.values[name])

    def many(self, name: str) -> tuple[float, ...]:
        """Return the numbers of an option that is given again and again.

        Args:
            name: Its name.
        """
        value = self.values[name]
        return value if isinstance(value, tuple) else ()

    def figure(self, name: str) -> Figure:
        """Return a number as a figure of the working.

        Args:
            name: Its name.
        """
        option = self.options[name]
        if figure_name(option.key) not in self.figures:
            unit = option.unit or Unit.COUNT
            self.figures.given(figure_name(option.key), option.label, self.number(name), FIXED, unit=unit)
        return self.figures[figure_name(option.key)]


@dataclass(frozen=True, slots=True)
class Sum:
    """A quick sum."""

    name: str
    """Its name on the command line."""
    title: str
    """Its heading."""
    says: str
    """What it works out, in a sentence."""
    words: str
    """Other words that it is found by."""
    options: tuple[SumOption, ...]
    """What it asks for."""
    gives: tuple[str, ...]
    """The figures that it answers with."""
    work: Callable[[Given], None]
    """Adds its figures."""
    fields: Mapping[str, str] = field(default_factory=dict)
    """Option by the name that a function of the core gives the same thing, for refusals."""
    sends: Mapping[str, str] = field(default_factory=dict)
    """Path of a leaf's field by the name of an option or figure that can be put there."""

    def option(self, name: str) -> SumOption:
        """Return an option by its name; InputError where the sum has none of that name.

        Args:
            name: Its name.
        """
        for each in self.options:
            if each.name == name:
                return each
        raise InputError(name, "", "one of " + ", ".join(f"--{each.name}" for each in self.options))


@dataclass(frozen=True, slots=True)
class Answer:
    """What a sum gives."""

    name: str
    """Name of the sum."""
    figures: Figures
    """All of them, inputs first."""
    gives: tuple[Figure, ...]
    """Those that were asked for."""

    def working(self, show: Show) -> list[str]:
        """Return every sum that was done as lines of text, in its order.

        What was told before a formula stands once.

        Args:
            show: How lengths and other quantities are written.
        """
        lines: list[str] = []
        told: set[str] = set()
        for each in self.figures:
            if len(each.rows) == 1 and each not in self.gives:
                continue
            by_formula = any(row.op == "note" for row in each.rows)
            for row, line in zip(each.rows, each.lines(show), strict=False):
                if not (by_formula and row.op == "" and row.ref in told):
                    lines.append(line)
                told.add(row.ref)
            lines += [each.source] if each.source else []
        return lines

    def values(self) -> dict[str, float]:
        """Return what was asked for, by name."""
        return {each.name: each.value for each in self.gives}

    def record(self, show: Show) -> dict[str, Any]:
        """Return it as it goes into JSON; units mm, deg, kg, N, % and count.

        Args:
            show: How lengths and other quantities are written.
        """
        figures = {each.name: {"value": each.value, "unit": each.unit.value} for each in self.gives}
        return {"sum": self.name, "figures": figures, "working": self.working(show)}


def read(which: Sum, texts: Mapping[str, Sequence[str]], system: UnitSystem = UnitSystem.MM) -> dict[str, Value]:
    """Return the options of a sum as they are written; bare numbers are in `system`.

    Args:
        which: The sum.
        texts: What was written for each option, once or more.
        system: In which units a bare number is.

    Raises:
        InputError: Naming the option.
    """
    for name in texts:
        which.option(name)
    values: dict[str, Value] = {}
    for option in which.options:
        written = [each for each in texts.get(option.name, ()) if each.strip()]
        if not written:
            if option.default is not None:
                values[option.name] = option.default if isinstance(option.default, str) else float(option.default)
            elif option.needed:
                raise InputError(option.name, "nothing", option.label if option.unit else _one_of(option))
            continue
        values[option.name] = read_option(option, written, system)
    return values


def read_option(option: SumOption, written: Sequence[str], system: UnitSystem = UnitSystem.MM) -> Value:
    """Return what was written for one option, once or more.

    Args:
        option: The option.
        written: What was written for it, once for each time that it was given.
        system: In which units a bare number is.

    Raises:
        InputError: Naming it.
    """
    if option.repeated:
        return tuple(float(_read(option, each, system)) for each in written)
    if len(written) > 1:
        raise InputError(option.name, " and ".join(written), "to be given once")
    return _read(option, written[0], system)


def _read(option: SumOption, text: str, system: UnitSystem) -> float | str:
    if option.unit is None:
        word = plain_name(text)
        word = option.also.get(word, word)
        if word not in option.choices:
            raise InputError(option.name, text, _one_of(option))
        return word
    try:
        if option.unit is Unit.MM:
            value = parse_length(text, system, allow_negative=option.low < 0)
        else:
            value = parse_quantity(text, option.unit)
    except LengthError as error:
        raise InputError(option.name, text, f"a number: {error}") from None
    return value


def _one_of(option: SumOption) -> str:
    return "one of " + ", ".join(option.choices)


def answer(which: Sum, values: Mapping[str, Value]) -> Answer:
    """Return what a sum gives.

    Args:
        which: The sum.
        values: What is given for each option.

    Raises:
        InputError: Naming the option that makes no sense.
    """
    options = {each.name: each for each in which.options}
    for name, value in values.items():
        option = options[name]
        for number in value if isinstance(value, tuple) else (value,):
            if isinstance(number, float):
                _check(option, number)
    said = Given(values, options, Figures())
    try:
        which.work(said)
    except InputError as error:
        name = error.field.rsplit(".", 1)[-1]
        raise error.at(which.fields.get(name, name.replace("_", "-"))) from None
    return Answer(
        which.name,
        said.figures,
        tuple(said.figures[figure_name(name)] for name in which.gives if figure_name(name) in said.figures),
    )


def _check(option: SumOption, value: float) -> None:
    unit = " mm" if option.unit is Unit.MM else ""
    high = f"{option.high:g}{unit}" if option.high < math.inf else ""
    if option.over_zero and value <= 0:
        need = f"more than 0, at most {high}" if high else "more than 0"
    elif not option.low <= value <= option.high:
        need = f"{option.low:g}{unit} to {high}" if high else f"{option.low:g}{unit} or more"
    elif option.unit is Unit.COUNT and value != int(value):
        need = "a whole number"
    else:
        return
    raise InputError(option.name, f"{value:g}", need)


def size(name: str, label: str, **more: Any) -> SumOption:
    """Return an option that is a length of more than 0.

    Args:
        name: Its name.
        label: What it is called, for the working and the drawing.
        more: Further fields of the option.
    """
    return SumOption(name, label, over_zero=True, **more)


def allowance(name: str, label: str, default: float | None = 0.0, **more: Any) -> SumOption:
    """Return an option that is a length, 0 too.

    Args:
        name: Its name.
        label: What it is called, for the working and the drawing.
        default: What it is where nothing else says so, mm; None where it must be given.
        more: Further fields of the option.
    """
    return SumOption(name, label, default=default, **more)


def rule(name: str) -> float:
    """Return a value of the shop rules for site joinery, which a sum takes where it is told none.

    Args:
        name: Its name.
    """
    return float(table("rules/site-metric")[name]["value"])
