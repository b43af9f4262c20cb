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
    """month: 0 to 12 from the first of January. change: of the leaf's width, or of a board's, mm. gaps: the side gaps
    together, mm; None for a leaf that has none."""

    month: float
    moisture: float
    change: float
    gaps: float | None


def climate_at(month: float, dry: Climate, wet: Climate) -> Climate:
    """Return the air at a time of the year: a cosine between the driest and the wettest."""
    share = (1 - math.cos(2 * math.pi * (month - DRY_MONTH) / 12)) / 2
    return Climate(
        temperature=dry.temperature + share * (wet.temperature - dry.temperature),
        humidity=dry.humidity + share * (wet.humidity - dry.humidity),
    )


def year_of(leaf: LeafSolution) -> tuple[Moment, ...]:
    """Return the year of a leaf; () where nothing of it moves."""
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
