"""A leaf through its year: what the air does to the wood month by month, and the wood to the width and the gaps.

Temperature and humidity swing between the driest and the wettest air that are chosen; the wood rests at what
`equilibrium_moisture` says of it. Thick wood lags behind: the real swing is smaller.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.document.job import Climate
from oakmeasure.core.leaf.gap_choice import gap_that_opens
from oakmeasure.core.timber.wood import change_of_width, equilibrium_moisture

if TYPE_CHECKING:
    from oakmeasure.core.solution import LeafSolution

MONTHS = "JFMAMJJASOND"
DRY_MONTH = 1.0  # the driest indoor air: midwinter, heated: common practice, no source
STEPS = 48


@dataclass(frozen=True, slots=True)
class Moment:
    """A leaf at one time of the year."""

    month: float
    """0 to 12 from the first of January."""
    moisture: float
    """Moisture of the wood then, %."""
    change: float
    """Of the leaf's width, or of a board's, mm."""
    gaps: float | None
    """The side gaps together, mm; None for a leaf that has none."""


def climate_at(month: float, dry: Climate, wet: Climate) -> Climate:
    """Return the air at a time of the year: a cosine between the driest and the wettest.

    Args:
        month: 0 to 12, from the driest day of the year.
        dry: The driest air of the year.
        wet: The wettest air of the year.
    """
    share = (1 - math.cos(2 * math.pi * (month - DRY_MONTH) / 12)) / 2
    return Climate(
        temperature=dry.temperature + share * (wet.temperature - dry.temperature),
        humidity=dry.humidity + share * (wet.humidity - dry.humidity),
    )


def year_of(leaf: LeafSolution) -> tuple[Moment, ...]:
    """Return the year of a leaf; () where nothing of it moves.

    Args:
        leaf: The leaf, worked out to the end.
    """
    f, choice = leaf.figures, leaf.leaf.timber
    moving = f.get("moving_width") or f.get("board_cover")
    if moving is None or leaf.build is None:
        return ()
    gaps = None
    if not leaf.leaf.hanging.covers and not leaf.leaf.hanging.lies_on and "moving_width" in f:
        gaps = f["gap_hinge"].value + gap_that_opens(f).value
    found = []
    for step in range(STEPS + 1):
        month = 12 * step / STEPS
        air = climate_at(month, choice.dry, choice.wet)
        moisture = equilibrium_moisture(temperature=air.temperature, humidity=air.humidity)
        change = change_of_width(
            width=moving.value, coefficient=f["movement"].value, from_moisture=choice.moisture, to_moisture=moisture
        )
        found.append(Moment(month, moisture, change, None if gaps is None else gaps - change))
    return tuple(found)
