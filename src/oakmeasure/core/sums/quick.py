"""What a quick sum is: options in, figures with their working out.

Nothing here reads a job: `oak-measure sum` answers before a job's models are loaded.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from oakmeasure.core.base.errors import InputError, LengthError
from oakmeasure.core.base.units import Show, Unit, UnitSystem, parse_length, parse_quantity
from oakmeasure.core.document.species import plain_name
from oakmeasure.core.figures.figure import Figure, Figures
from oakmeasure.core.figures.names import figure_name
from oakmeasure.data import table

Value = float | str | tuple[float, ...]


@dataclass(frozen=True, slots=True)
class SumOption:
    """What a sum is told. name: as it is typed on the command line. unit: None for words out of `choices`.

    default: None where there is none; the option is then `needed`, or may be left out. low, high: what makes sense,
    in `unit`. repeated: given once for each of several. over_zero: 0 makes no sense. also: other
    words for its choices.
    """

    name: str
    label: str
    unit: Unit | None = Unit.MM
    default: float | str | None = None
    needed: bool = True
    low: float = 0.0
    high: float = math.inf
    choices: tuple[str, ...] = ()
    repeated: bool = False
    over_zero: bool = False
    also: Mapping[str, str] = field(default_factory=dict)

    @property
    def key(self) -> str:
        """Return its name as a figure."""
        return self.name.replace("-", "_")


@dataclass(frozen=True, slots=True)
class Given:
    """The options of a sum as they were given, by name; what may be left out and was is not in it."""

    values: Mapping[str, Value]
    options: Mapping[str, SumOption]
    figures: Figures

    def __contains__(self, name: str) -> bool:
        return name in self.values

    def number(self, name: str) -> float:
        """Return a number, in the unit of its option."""
        value = self.values[name]
        if not isinstance(value, float):
            raise TypeError(f"{name} is no number")
        return value

    def word(self, name: str) -> str:
        """Return a word out of its option's choices."""
        return str(self.values[name])

    def many(self, name: str) -> tuple[float, ...]:
        """Return the numbers of an option that is given again and again."""
        value = self.values[name]
        return value if isinstance(value, tuple) else ()

    def figure(self, name: str) -> Figure:
        """Return a number as a figure of the working."""
        option = self.options[name]
        if figure_name(option.key) not in self.figures:
            unit = option.unit or Unit.COUNT
            self.figures.given(figure_name(option.key), option.label, self.number(name), unit, choice=True)
        return self.figures[figure_name(option.key)]


@dataclass(frozen=True, slots=True)
class Sum:
    """A quick sum. words: other words that it is found by. gives: the figures that it answers with.

    work: adds its figures. fields: option by the name that a function of the core gives the same thing, for refusals.
    sends: path of a leaf's field by the name of an option or figure that can be put there.
    """

    name: str
    title: str
    says: str
    words: str
    options: tuple[SumOption, ...]
    gives: tuple[str, ...]
    work: Callable[[Given], None]
    fields: Mapping[str, str] = field(default_factory=dict)
    sends: Mapping[str, str] = field(default_factory=dict)

    def option(self, name: str) -> SumOption:
        """Return an option by its name; InputError where the sum has none of that name."""
        for each in self.options:
            if each.name == name:
                return each
        raise InputError(name, "", "one of " + ", ".join(f"--{each.name}" for each in self.options))


@dataclass(frozen=True, slots=True)
class Answer:
    """What a sum gives. figures: all of them, inputs first. gives: those that were asked for."""

    name: str
    figures: Figures
    gives: tuple[Figure, ...]

    def working(self, show: Show) -> list[str]:
        """Return every sum that was done as lines of text, in its order; what was told before a formula stands once."""
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
        """Return it as it goes into JSON; units mm, deg, kg, N, % and count."""
        figures = {each.name: {"value": each.value, "unit": each.unit.value} for each in self.gives}
        return {"sum": self.name, "figures": figures, "working": self.working(show)}


def read(which: Sum, texts: Mapping[str, Sequence[str]], system: UnitSystem = UnitSystem.MM) -> dict[str, Value]:
    """Return the options of a sum as they are written; bare numbers are in `system`.

    texts: what was written for each option, once or more. Raises InputError naming the option.
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
    """Return what was written for one option, once or more. Raises InputError naming it."""
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
    """Return what a sum gives. Raises InputError naming the option that makes no sense."""
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
    """Return an option that is a length of more than 0."""
    return SumOption(name, label, over_zero=True, **more)


def allowance(name: str, label: str, default: float | None = 0.0, **more: Any) -> SumOption:
    """Return an option that is a length, 0 too."""
    return SumOption(name, label, default=default, **more)


def rule(name: str) -> float:
    """Return a value of the shop rules for site joinery, which a sum takes where it is told none."""
    return float(table("rules/site-metric")[name]["value"])
