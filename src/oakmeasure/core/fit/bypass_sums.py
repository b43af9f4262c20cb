"""Leaves that slide, and covers that lift off: overlap, track, way, depth. All lengths in mm."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError


@dataclass(frozen=True, slots=True)
class Bypass:
    """Two leaves that pass each other."""

    track: float
    """Length of the track, mm."""
    leaf: float
    """Width of each leaf, mm."""
    clear: float
    """Way that is clear with one leaf pushed behind the other, mm."""


def bypassing(
    *, opening: float, side: float, centre: float, one_rail: bool, roller: float = 0.0, roller_in: float = 0.0
) -> Bypass:
    """Return track, leaves and clear way of two leaves that pass each other before an opening.

    track = opening + 2·side; leaf = (track + centre)/2; clear = opening − leaf + side, on one rail less a
    roller. Not rounded.

    Args:
        opening: Clear width of the opening, mm.
        side: Overlap over the opening at each side, mm.
        centre: Overlap of the two leaves in the middle, mm.
        one_rail: Whether both hang from the same rail; the wheels of the one then stand between those of the
            other and cannot pass.
        roller: Width of a roller, mm.
        roller_in: From the leaf's edge to the roller's middle, mm.

    Raises:
        InputError: On one rail the centre overlap must hold both rollers, 2·roller_in + roller.

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
    """Return the least centre overlap of two leaves on one rail: 2·(roller centre to edge) + roller width.

    Args:
        roller: Width of a roller, mm.
        roller_in: From the leaf's edge to the roller's middle, mm.
    """
    return 2 * roller_in + roller


def missing_backing(*, needed: float, stand_off: float) -> float:
    """Return the thickness of backing board that a track's stand-off lacks; 0 where it does.

    Args:
        needed: What is needed, mm.
        stand_off: How far the track stands off the wall, mm.
    """
    return max(0.0, needed - stand_off)
