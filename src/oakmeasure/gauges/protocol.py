"""The line protocol of a gauge: one reading a line, as docs/gauges.md has it."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from enum import StrEnum

LONGEST_LINE = 80  # bytes; whatever is longer is not a reading
LIMITS = {"D": 100_000.0, "S": 1000.0, "A": 360.0}
TO_MM = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4}


class Quantity(StrEnum):
    """What a gauge reads."""

    DISTANCE = "D"  # mm
    SLOPE = "S"  # mm per metre
    ANGLE = "A"  # degrees


@dataclass(frozen=True, slots=True)
class GaugeReading:
    """One reading: distance in mm, slope in mm per metre, angle in degrees."""

    quantity: Quantity
    """What was read."""
    value: float
    """Its value, mm or %."""


class BadLineError(ValueError):
    """A line that is no reading, with the reason in plain words."""


_LINE = re.compile(r"^([DSA]) ([+-]?\d{1,7}(?:\.\d{1,6})?) (mm|cm|m|in|mm/m|deg)$")


def checksum(body: bytes) -> int:
    """Return the exclusive or of all bytes, 0 to 255.

    Args:
        body: The line without its check.
    """
    result = 0
    for each in body:
        result ^= each
    return result


def line_of(reading: GaugeReading) -> bytes:
    """Return the line, with its checksum, that a gauge sends for a reading.

    Args:
        reading: The reading.
    """
    unit = {Quantity.DISTANCE: "mm", Quantity.SLOPE: "mm/m", Quantity.ANGLE: "deg"}[reading.quantity]
    body = f"{reading.quantity} {reading.value:.2f} {unit}".encode("ascii")
    return body + b"*%02X\r\n" % checksum(body)


def parse_line(line: bytes) -> GaugeReading:
    """Return the reading of a line, its end taken off.

    Args:
        line: The line as it was received, without its end.

    Raises:
        BadLineError: With the reason.
    """
    if len(line) > LONGEST_LINE:
        raise BadLineError(f"longer than {LONGEST_LINE} characters")
    body, star, given = line.strip(b" \t\r\n").partition(b"*")
    if star and not re.fullmatch(rb"[0-9A-Fa-f]{2}", given):
        raise BadLineError("no checksum behind the *")
    if star and int(given, 16) != checksum(body):
        raise BadLineError("checksum does not agree")
    try:
        found = _LINE.match(body.decode("ascii"))
    except UnicodeDecodeError:
        raise BadLineError("not plain text") from None
    if found is None:
        raise BadLineError("not a reading")
    quantity, value, unit = Quantity(found[1]), float(found[2]), found[3]
    if (quantity is Quantity.DISTANCE) is not (unit in TO_MM) or (quantity is Quantity.SLOPE) is not (unit == "mm/m"):
        raise BadLineError(f"{unit} is no unit for {quantity}")
    value *= TO_MM.get(unit, 1.0)
    if not math.isfinite(value) or abs(value) > LIMITS[quantity]:
        raise BadLineError("out of range")
    return GaugeReading(quantity, value)


class Lines:
    """Cuts what arrives into lines; a flood without an end is cut off, so that it takes no memory."""

    def __init__(self) -> None:
        self._rest = b""
        self._skipping = False

    def feed(self, received: bytes) -> list[bytes]:
        """Return the lines that are complete now, without their ends; an overlong one in its first part only.

        Args:
            received: Bytes as they came.
        """
        *whole, rest = (self._rest + received).replace(b"\r", b"\n").split(b"\n")
        lines = []
        for line in whole:
            if self._skipping:
                self._skipping = False
            elif line:
                lines.append(line[: LONGEST_LINE + 1])
        if len(rest) > LONGEST_LINE:
            if not self._skipping:
                lines.append(rest[: LONGEST_LINE + 1])
            self._skipping, rest = True, b""
        self._rest = rest
        return lines
