"""Lengths and other quantities as people write them, read."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction

from oakmeasure.core.base.errors import LengthError
from oakmeasure.core.base.units import LARGEST_LENGTH_MM, MINUS, Unit, UnitSystem

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
_LB = Fraction("0.45359237")
_LBF = Fraction("4.4482216152605")
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


def decimal_point(text: str) -> str:
    """Return a number with its decimal comma, where it has one, as a point.

    Args:
        text: The number, as somebody wrote it.

    Raises:
        LengthError: Where the comma may part thousands.

    >>> decimal_point("19,5")
    '19.5'
    """
    if "," not in text:
        return text
    if "." in text or text.count(",") > 1:
        raise LengthError(f"“{text}”: write it without thousands signs")
    whole, part = text.split(",")
    if len(part) == 3 and part.isdigit() and whole.strip("-0"):
        raise LengthError(f"“{text}” may be {whole}{part} or {whole}.{part}: write it without the comma")
    return f"{whole or '0'}.{part}"


def _plain_number(text: str) -> Fraction:
    text = decimal_point(text)
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
