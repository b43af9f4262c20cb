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
from collections.abc import Iterable
from dataclasses import dataclass, field
from enum import StrEnum
from fractions import Fraction
from typing import NamedTuple

from oakmeasure.core.base.errors import InputError, LengthError
from oakmeasure.core.base.speech import AS_MADE, Speech

MM_PER_INCH = 25.4  # exact: international yard and pound agreement of 1959
KG_PER_LB = 0.45359237  # exact: the same agreement
GRAVITY = 9.80665  # m/s²: standard, exact by the General Conference of 1901
N_PER_LBF = 4.4482216152605  # exact: lb times standard gravity
MM2_PER_M2, MM3_PER_M3 = 1e6, 1e9
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


# Text is summed in exact fractions, so that 29 5/8" is 752.475 mm and not 752.4749999.
_INCH = Fraction("25.4")
_LENGTH_UNITS = {
    "mm": Fraction(1),
    "cm": Fraction(10),
    "m": Fraction(1000),
    '"': _INCH,
    "in": _INCH,
    "inch": _INCH,
    "inches": _INCH,
    "'": 12 * _INCH,
    "ft": 12 * _INCH,
    "thou": _INCH / 1000,
}
_FEET = ("'", "ft")
_INCHES = ('"', "in", "inch", "inches")
_LB, _LBF = Fraction("0.45359237"), Fraction("4.4482216152605")
_OTHER_UNITS: dict[Unit, dict[str, Fraction]] = {
    Unit.KG: {"kg": Fraction(1), "g": Fraction(1, 1000), "lb": _LB, "lbs": _LB},
    Unit.N: {"n": Fraction(1), "kn": Fraction(1000), "lbf": _LBF},
    Unit.PERCENT: {"%": Fraction(1)},
    Unit.DEG: {"°": Fraction(1), "deg": Fraction(1)},
    Unit.HOURS: {"h": Fraction(1)},
    Unit.COUNT: {},
}

_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3"}
_QUOTES = {
    "″": '"',
    "”": '"',
    "“": '"',
    "′": "'",
    "’": "'",
    "‘": "'",
    "⁄": "/",
    MINUS: "-",
    "–": "-",
    "×": "*",
    "÷": "/",
    "\u00a0": " ",
    "\u202f": " ",
}

_TOKEN = re.compile(
    r"""\s*(?:
      (?P<mixed>\d+(?:\s+|-)\d+\s?/\s?\d+)          # 27 7/8   27-7/8
    | (?P<fraction>\d+/\d+)                          # 5/8
    | (?P<number>\d+(?:[.,]\d+)*|[.,]\d+)            # 708  708.5  708,5
    | (?P<unit>[A-Za-z°%]+|"|')
    | (?P<op>[-+*/()])
    )""",
    re.VERBOSE,
)


@dataclass(frozen=True, slots=True)
class _Value:
    number: Fraction
    is_length: bool
    """Carries a unit; a bare number does not."""


@dataclass(frozen=True, slots=True)
class _Token:
    kind: str
    text: str
    spaced: bool
    """Stands after white space."""


def _clean(text: str) -> str:
    for sign, plain in _VULGAR.items():
        text = re.sub(rf"(?<=\d)\s*{sign}", f" {plain}", text).replace(sign, plain)
    for sign, plain in _QUOTES.items():
        text = text.replace(sign, plain)
    text = text.replace("''", '"').strip()
    # The sign behind a rounded value ("27 7/8 +") is shown by us and read back here.
    return re.sub(r"(\"|/\d+)\s+[+-]$", r"\1", text)


def _tokens(text: str, units: dict[str, Fraction]) -> list[_Token]:
    found, at = [], 0
    while at < len(text):
        match = _TOKEN.match(text, at)
        if match is None:
            raise LengthError(f"“{text[at:].strip()[:12]}” is not part of a number")
        kind = str(match.lastgroup)
        part = match.group(kind)
        if kind == "unit":
            part = part.lower()
            if part not in units:
                raise LengthError(f"“{match.group(kind)}” is not a unit that belongs here")
        found.append(_Token(kind, part, spaced=match.start(kind) > at))
        at = match.end()
    return found


def _plain_number(text: str) -> Fraction:
    if "," in text:
        if "." in text or text.count(",") > 1:
            raise LengthError(f"“{text}”: write it without thousands signs")
        whole, part = text.split(",")
        if len(part) == 3 and whole.strip("0"):
            raise LengthError(f"“{text}” may be {whole}{part} or {whole}.{part}: write it without the comma")
        text = f"{whole or '0'}.{part}"
    if text.count(".") > 1:
        raise LengthError(f"“{text}” has two points")
    return Fraction(text)


def _fraction(text: str) -> Fraction:
    top, bottom = text.split("/")
    if int(bottom) == 0:
        raise LengthError(f"“{text.strip()}” divides by nothing")
    return Fraction(int(top), int(bottom))


class _Reader:
    """A recursive descent over the tokens: sum, product, signed value, value with its unit."""

    def __init__(self, text: str, units: dict[str, Fraction], bare: Fraction, what: str) -> None:
        self.tokens = _tokens(text, units)
        self.at = 0
        self.units = units
        self.bare = bare
        self.what = what
        self.depth = 0

    def peek(self) -> _Token | None:
        return self.tokens[self.at] if self.at < len(self.tokens) else None

    def take_op(self, ops: str) -> str:
        token = self.peek()
        if token is not None and token.kind == "op" and token.text in ops:
            self.at += 1
            return token.text
        return ""

    def read(self) -> Fraction:
        value = self.sum()
        rest = self.peek()
        if rest is not None:
            raise LengthError(f"“{rest.text}” stands where an operation was expected")
        return self.as_quantity(value)

    def as_quantity(self, value: _Value) -> Fraction:
        return value.number if value.is_length else value.number * self.bare

    def sum(self) -> _Value:
        left = self.product()
        while op := self.take_op("+-"):
            right = self.product()
            sign = 1 if op == "+" else -1
            if left.is_length or right.is_length:
                left = _Value(self.as_quantity(left) + sign * self.as_quantity(right), True)
            else:
                left = _Value(left.number + sign * right.number, False)
        return left

    def product(self) -> _Value:
        left = self.signed()
        while op := self.take_op("*/"):
            right = self.signed()
            if op == "*":
                if left.is_length and right.is_length:
                    raise LengthError(f"a {self.what} times a {self.what} is not a {self.what}")
                left = _Value(left.number * right.number, left.is_length or right.is_length)
            else:
                if right.is_length:
                    raise LengthError(f"something divided by a {self.what} is not a {self.what}")
                if right.number == 0:
                    raise LengthError("it divides by nothing")
                left = _Value(left.number / right.number, left.is_length)
        return left

    def signed(self) -> _Value:
        self.depth += 1
        if self.depth > 40:
            raise LengthError("too many brackets or signs")
        try:
            if op := self.take_op("+-"):
                value = self.signed()
                return value if op == "+" else _Value(-value.number, value.is_length)
            if self.take_op("("):
                value = self.sum()
                if not self.take_op(")"):
                    raise LengthError("a bracket is not closed")
                return value
            return self.value()
        finally:
            self.depth -= 1

    def number(self) -> Fraction:
        token = self.peek()
        if token is None:
            raise LengthError("the sum stops too early")
        if token.kind == "mixed":
            whole, part = re.split(r"\s+|-", token.text, maxsplit=1)
            number = int(whole) + _fraction(part)
        elif token.kind == "fraction":
            number = _fraction(token.text)
        elif token.kind == "number":
            number = _plain_number(token.text)
        else:
            raise LengthError(f"a number was expected where “{token.text}” stands")
        self.at += 1
        return number

    def value(self) -> _Value:
        number = self.number()
        token = self.peek()
        if token is None or token.kind != "unit":
            return _Value(number, False)
        self.at += 1
        value = number * self.units[token.text]
        if token.text in _FEET:
            value += self.inches_behind_feet()
        return _Value(value, True)

    def inches_behind_feet(self) -> Fraction:
        """The `7 1/2"` of `6' 7 1/2"`, or of `6'-7 1/2"`."""
        token = self.peek()
        dash = token is not None and token.kind == "op" and token.text == "-" and not token.spaced
        start = self.at
        if dash:
            self.at += 1
            token = self.peek()
        if token is None or token.kind not in ("number", "fraction", "mixed"):
            self.at = start
            return Fraction(0)
        number = self.number()
        token = self.peek()
        if token is not None and token.kind == "unit":
            if token.text not in _INCHES:
                raise LengthError(f"feet and {token.text} in one number make no sense")
            self.at += 1
        elif dash:
            self.at = start
            return Fraction(0)
        return number * _INCH


def parse_length(text: str, system: UnitSystem = UnitSystem.MM, *, allow_negative: bool = False) -> float:
    """Return the length that `text` writes, in mm. Not rounded.

    Args:
        text: A length or a sum of lengths, in any form of the module's header.
        system: The unit of a bare number.
        allow_negative: Whether it may be less than 0: for readings with a sign, such as a lean.

    Raises:
        LengthError: With a plain reason.

    >>> parse_length('(59 5/8" - 3*1/8")/2')
    752.475
    """
    bare = _INCH if system is UnitSystem.INCH else Fraction(1)
    value = _read(text, _LENGTH_UNITS, bare, "length")
    if value < 0 and not allow_negative:
        raise LengthError("a size cannot be less than nothing")
    if abs(value) > LARGEST_LENGTH_MM:
        raise LengthError("longer than 100 m: not a door")
    return value


def parse_quantity(text: str, unit: Unit) -> float:
    """Return the number that `text` writes, in `unit` (kg, N, %, °C, degrees, count).

    A bare number is in that unit; lb, lbf and °F are read where they belong.

    Args:
        text: The text.
        unit: Its unit.

    Raises:
        LengthError: See the message.

    >>> parse_quantity("68 °F", Unit.CELSIUS)
    20.0
    """
    if unit is Unit.CELSIUS:
        match = re.fullmatch(r"\s*(.+?)\s*°?\s*([CcFf])\s*", text)
        degrees = _read(match.group(1) if match else text, {}, Fraction(1), "temperature")
        return (degrees - 32) / 1.8 if match and match.group(2) in "Ff" else degrees
    return _read(text, _OTHER_UNITS.get(unit, {}), Fraction(1), "number")


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


NEAR_SIZE = 5.0  # mm, within which a size that is sought is found


def is_near_size(word: str, sizes: Iterable[float], system: UnitSystem) -> bool:
    """Return whether a word that is sought writes a length near one of `sizes`, bare in the unit of `system`.

    Args:
        word: The word for one of them.
        sizes: The sizes, mm.
        system: In which units a bare number is.

    >>> is_near_size("30", [760.0], UnitSystem.INCH), is_near_size("30", [760.0], UnitSystem.MM)
    (True, False)
    """
    try:
        value = parse_length(word, system)
    except LengthError:
        return False
    return any(abs(each - value) <= NEAR_SIZE for each in sizes)


def _read(text: str, units: dict[str, Fraction], bare: Fraction, what: str) -> float:
    clean = _clean(text)
    if not clean:
        raise LengthError("nothing is written here")
    if len(clean) > 200:
        raise LengthError("too long to be a measure")
    if re.search(r"\d[eE]\d", clean):
        raise LengthError("write the number out, without an exponent")
    return float(_Reader(clean, units, bare, what).read())


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
            value: The value, in its unit; None where nothing is chosen.
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
