"""The kinds of reading: their words, what they measure on the corners, and how sure one is.

A new kind of reading is a row here and a field of `OpeningReadings`.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

# Free coordinates in this order: latch foot x y, latch head x y, hinge head x y. The hinge foot is (0, 0).
_Point = tuple[tuple[float, ...], tuple[float, ...]]  # a point's x and y as rows over the free coordinates


def _free(at: int) -> _Point:
    return tuple(tuple(float(row == column) for column in range(6)) for row in (2 * at, 2 * at + 1))  # type: ignore[return-value]


def _mix(*terms: tuple[float, _Point]) -> _Point:
    return tuple(tuple(sum(w * point[row][at] for w, point in terms) for at in range(6)) for row in (0, 1))  # type: ignore[return-value]


def _minus(one: _Point, other: _Point) -> _Point:
    return _mix((1.0, one), (-1.0, other))


_HF: _Point = ((0.0,) * 6, (0.0,) * 6)
_LF = _free(0)
_LH = _free(1)
_HH = _free(2)


class SurveyKind(StrEnum):
    """A reading's name; also its field in `OpeningReadings`."""

    WIDTH_TOP = "width_top"
    WIDTH_MIDDLE = "width_middle"
    WIDTH_BOTTOM = "width_bottom"
    HEIGHT_HINGE = "height_hinge"
    HEIGHT_MIDDLE = "height_middle"
    HEIGHT_LATCH = "height_latch"
    DIAGONAL_RISING = "diagonal_rising"
    DIAGONAL_FALLING = "diagonal_falling"
    LEAN_HINGE = "lean_hinge"
    LEAN_LATCH = "lean_latch"
    SILL_RISE = "sill_rise"
    HEAD_RISE = "head_rise"

    @property
    def is_width(self) -> bool:
        """Whether it is a width."""
        return self.startswith("width")

    @property
    def is_height(self) -> bool:
        """Whether it is a height."""
        return self.startswith("height")

    @property
    def is_plumb(self) -> bool:
        """Whether it is a reading of plumb."""
        return self.startswith(("lean", "sill", "head"))


MIDDLES = (SurveyKind.WIDTH_MIDDLE, SurveyKind.HEIGHT_MIDDLE)


@dataclass(frozen=True, slots=True)
class KindOfReading:
    """What a reading of an opening measures."""

    label: str
    """As said at the opening."""
    short: str
    """In a list."""
    matrix: tuple[tuple[float, ...], ...]
    """Two rows give the vector whose length is read, one row the reading."""
    wanted: str
    """Where it is read, from what to what."""


KINDS: dict[SurveyKind, KindOfReading] = {
    SurveyKind.WIDTH_TOP: KindOfReading(
        "width at the top", "width, top", _minus(_LH, _HH), "between the sides, just under the head"
    ),
    SurveyKind.WIDTH_MIDDLE: KindOfReading(
        "width in the middle", "width, middle", _mix((0.5, _LF), (0.5, _LH), (-0.5, _HF), (-0.5, _HH)), "half way up"
    ),
    SurveyKind.WIDTH_BOTTOM: KindOfReading(
        "width at the bottom", "width, bottom", _minus(_LF, _HF), "between the sides, on the floor"
    ),
    SurveyKind.HEIGHT_HINGE: KindOfReading(
        "height at the hinge side", "height, hinges", _minus(_HH, _HF), "finished floor to head, at the hinges"
    ),
    SurveyKind.HEIGHT_MIDDLE: KindOfReading(
        "height in the middle",
        "height, middle",
        _mix((0.5, _HH), (0.5, _LH), (-0.5, _HF), (-0.5, _LF)),
        "floor to head, half way",
    ),
    SurveyKind.HEIGHT_LATCH: KindOfReading(
        "height at the latch side", "height, latch", _minus(_LH, _LF), "finished floor to head, at the latch"
    ),
    SurveyKind.DIAGONAL_RISING: KindOfReading(
        "rising diagonal", "rising diag.", _minus(_LH, _HF), "hinge side's foot to the latch side's head"
    ),
    SurveyKind.DIAGONAL_FALLING: KindOfReading(
        "falling diagonal", "falling diag.", _minus(_HH, _LF), "hinge side's head to the latch side's foot"
    ),
    SurveyKind.LEAN_HINGE: KindOfReading(
        "lean of the hinge side",
        "lean, hinges",
        _minus(_HH, _HF)[:1],
        "over its height; plus: its top leans into the opening",
    ),
    SurveyKind.LEAN_LATCH: KindOfReading(
        "lean of the latch side",
        "lean, latch",
        _minus(_LF, _LH)[:1],
        "over its height; plus: its top leans into the opening",
    ),
    SurveyKind.SILL_RISE: KindOfReading(
        "rise of the sill", "sill", _minus(_LF, _HF)[1:], "over its width; plus: higher at the latch"
    ),
    SurveyKind.HEAD_RISE: KindOfReading(
        "rise of the head", "head", _minus(_LH, _HH)[1:], "over its width; plus: higher at the latch"
    ),
}
