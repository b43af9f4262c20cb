"""Leaves that slide, and covers that lift off: overlap, track, way, depth. All lengths in mm."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError


@dataclass(frozen=True, slots=True)
class Bypass:
    """Two leaves that pass each other. leaf: width of each. clear: way with one leaf pushed behind the other."""

    track: float
    leaf: float
    clear: float


def bypassing(
    *, opening: float, side: float, centre: float, one_rail: bool, roller: float = 0.0, roller_in: float = 0.0
) -> Bypass:
    """Return track, leaves and clear way of two leaves that pass each other before an opening.

    side: overlap at each side. centre: overlap of the leaves in the middle. one_rail: both hang from the same rail;
    the wheels of the one then stand between those of the other and cannot pass. roller: width of a roller, roller_in:
    its centre from the leaf's edge.
    track = opening + 2·side; leaf = (track + centre)/2; clear = opening − leaf + side, on one rail less a roller.
    Not rounded. Raises InputError: on one rail the centre overlap must hold both rollers, 2·roller_in + roller.

    >>> bypassing(opening=1150, side=25, centre=60, one_rail=False)
    Bypass(track=1200, leaf=630.0, clear=545.0)
    """
    if opening <= 0:
        raise InputError("opening", opening, "more than 0")
    if one_rail and centre < least_centre(roller=roller, roller_in=roller_in):
        need = least_centre(roller=roller, roller_in=roller_in)
        raise InputError("centre", centre, f"at least {need:g} mm: the rollers stand side by side")
    track = opening + 2 * side
    leaf = (track + centre) / 2
    if leaf >= track:
        raise InputError("centre", centre, "less than the track: the leaves could not pass")
    return Bypass(track, leaf, opening - leaf + side - (roller if one_rail else 0.0))


def least_centre(*, roller: float, roller_in: float) -> float:
    """Return the least centre overlap of two leaves on one rail: 2·(roller centre to edge) + roller width."""
    return 2 * roller_in + roller


def missing_backing(*, needed: float, stand_off: float) -> float:
    """Return the thickness of backing board that a track's stand-off lacks; 0 where it does."""
    return max(0.0, needed - stand_off)
