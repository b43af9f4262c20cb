"""Lengths and other quantities as people write them, and how they are shown.

Inside the core a length is a float in mm, a mass in kg, a force in N, an angle in degrees, a temperature
in °C, a share in %. Text is read and shown only here. Nothing is rounded inside a calculation; the one
formatter below rounds once, on show.

The reader takes sums: `(59 5/8" - 3*1/8")/2`. A bare number is in the job's unit when it is used as a
length and a plain number when it multiplies or divides one.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, field
from enum import StrEnum
from fractions import Fraction
from typing import NamedTuple

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.speech import AS_MADE, Speech

MM_PER_INCH = 25.4  # exact: international yard and pound agreement of 1959
KG_PER_LB = 0.45359237  # exact: the same agreement
GRAVITY = 9.80665  # m/s²: standard, exact by the General Conference of 1901
N_PER_LBF = 4.4482216152605  # exact: lb times standard gravity
MM2_PER_M2 = 1e6
MM3_PER_M3 = 1e9
HAIR = 0.05  # mm: half of the last digit that is shown; less is nothing at a bench
LARGEST_LENGTH_MM = 100_000.0
SMALL_MM = 3.0
MINUS = "\N{MINUS SIGN}"


class UnitSystem(StrEnum):
    """What a bare number means, and how lengths are shown."""

    MM = "mm"
    INCH = "inch"


class Unit(StrEnum):
    """The unit that a figure is kept in."""

    MM = "mm"
    DEG = "deg"
    KG = "kg"
    N = "N"
    NM = "N·m"
    PERCENT = "%"
    COUNT = "count"
    KG_M3 = "kg/m³"
    CELSIUS = "°C"
    M2 = "m²"
    RATIO = "ratio"
    HOURS = "h"
    MONEY = "money"


def counted(count: int, one: str, many: str = "") -> str:
    """Return how many of a thing: "1 board", "3 boards".

    Args:
        count: How many there are.
        one: The word for one of them.
        many: Its plural; "" for the word with an s.

    >>> counted(1, "board"), counted(3, "board"), counted(2, "leaf", "leaves")
    ('1 board', '3 boards', '2 leaves')
    """
    return f"{count} {one if count == 1 else many or one + 's'}"


# --- showing ---------------------------------------------------------------------------------------------


def _trim(number: float, decimals: int) -> str:
    text = f"{number:.{decimals}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text in ("-0", "0") else text.replace("-", MINUS)


def inch_text(mm: float, denominator: int = 16, *, sign: bool = True) -> str:
    """Return `mm` in inches to the nearest 1/denominator, ties up, as in `27 7/8" +`.

    The sign behind says that the true value is a little more (+) or less (−) than what is shown.

    Args:
        mm: The length, mm.
        denominator: Of the finest part of an inch: 2, 4, 8, 16, 32 or 64.
        sign: Whether inches end in their sign.
    """
    exact = abs(mm) / MM_PER_INCH
    steps = math.floor(exact * denominator + 0.5 + 1e-9)
    fraction = Fraction(steps, denominator)
    whole, part = divmod(fraction, 1)
    pieces = ([str(whole)] if whole or not part else []) + ([f"{part.numerator}/{part.denominator}"] if part else [])
    minus = MINUS if mm < 0 and steps else ""
    miss = exact - float(fraction)
    behind = "" if abs(miss) < 1e-6 or not sign else " +" if miss > 0 else f" {MINUS}"
    return f'{minus}{" ".join(pieces)}"{behind}'


class _Written(NamedTuple):
    """How a figure of a unit is written: in what, to how many decimals, and how many units one of those is."""

    suffix: str
    decimals: int
    each: float = 1.0


_WRITTEN = {
    Unit.DEG: _Written("°", 2),
    Unit.KG: _Written("kg", 1),
    Unit.N: _Written("N", 0),
    Unit.NM: _Written("N·m", 2),
    Unit.PERCENT: _Written("%", 1),
    Unit.COUNT: _Written("", 0),
    Unit.KG_M3: _Written("kg/m³", 0),
    Unit.CELSIUS: _Written("°C", 1),
    Unit.M2: _Written("m²", 3),
    Unit.RATIO: _Written("", 5),
    Unit.HOURS: _Written("h", 2),
}
_WRITTEN_INCH = {Unit.KG: _Written("lb", 1, KG_PER_LB), Unit.N: _Written("lbf", 1, N_PER_LBF)}


@dataclass(frozen=True, slots=True)
class Show:
    """Turns values into text in the job's unit. One of these is handed to whoever writes for a person."""

    system: UnitSystem = UnitSystem.MM
    """Metric or inches."""
    denominator: int = 16
    """Of the finest part of an inch."""
    decimals: int = 1
    """Digits behind the point of a mm."""
    speech: Speech = field(default=AS_MADE, compare=False)
    """Whose words a drawing breaks into lines."""

    def length(self, mm: float, *, unit: bool = False, sign: bool = True) -> str:
        """Return a length as it is shown.

        Args:
            mm: The length, mm.
            unit: Whether the unit stands behind it.
            sign: Whether inches end in their sign.
        """
        if self.system is UnitSystem.INCH:
            inches = mm / MM_PER_INCH
            if 0 < abs(inches) < 1 / self.denominator and abs(inches * 64 - round(inches * 64)) > 1e-6:
                return _trim(inches, 3) + '"'  # a residual or a clearance: no mark of the rule is near it
            return inch_text(mm, self.denominator, sign=sign)
        # Depths and gaps are worked to less than a tenth: 1.75 is not 1.8.
        decimals = self.decimals + (abs(mm) < SMALL_MM)
        return _trim(mm, decimals) + (" mm" if unit else "")

    def size(self, *mm: float) -> str:
        """Return `708 × 2016`.

        Args:
            mm: The length, mm.
        """
        return " × ".join(self.length(each, sign=False) for each in mm)

    def short_length(self, mm: float) -> str:
        """Return a length for a place too narrow for a sixteenth with its sign: inches as a decimal, to 1/100.

        Args:
            mm: The length, mm.
        """
        if self.system is UnitSystem.INCH:
            return f'{mm / MM_PER_INCH:.2f}"'.replace("-", MINUS)
        return self.length(mm)

    def fine(self, mm: float, *, signed: bool = False) -> str:
        """Return a small length as feelers and shims tell it: hundredths of a mm, or thousandths of an inch.

        Args:
            mm: The length, mm.
            signed: With a plus where it is more than nothing.
        """
        inch = self.system is UnitSystem.INCH
        text = _trim(mm / MM_PER_INCH, 3) if inch else _trim(mm, 2)
        return ("+" if signed and mm > 0 and text != "0" else "") + text + ('"' if inch and text != "0" else "")

    def value(self, value: float, unit: Unit, *, with_unit: bool = True) -> str:
        """Return a value in its unit as it is shown.

        Args:
            value: The value, in its unit.
            unit: Its unit.
            with_unit: Whether the unit stands behind it.
        """
        if unit is Unit.MM:
            return self.length(value, unit=with_unit)
        if unit is Unit.MONEY:
            return f"{value:.2f}".replace("-", MINUS)  # in the job's own money, so without a sign of one
        written = _WRITTEN[unit]
        if self.system is UnitSystem.INCH:
            written = _WRITTEN_INCH.get(unit, written)
        text = _trim(value / written.each, written.decimals)
        if not with_unit or not written.suffix:
            return text
        return text + ("" if written.suffix == "°" else " ") + written.suffix


IN_MM = Show()  # for whoever uses the library without a job
_IN_MM = re.compile(r"(\d+(?:\.\d+)?) mm\b")


def in_words(error: InputError, show: Show) -> str:
    """Return what a refusal asks for, its lengths as they are written in the unit of `show`.

    Args:
        error: Why it was refused.
        show: How lengths and other quantities are written.
    """
    if show.system is UnitSystem.MM:
        return f"needs {error.need}"
    return "needs " + _IN_MM.sub(lambda found: show.length(float(found[1]), unit=True, sign=False), error.need)
