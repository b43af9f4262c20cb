"""A sliding leaf that binds or stands askew: what is looked at, in its order, before any hole is drilled again."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.units import IN_MM, Show
from oakmeasure.core.document.adjustment import Sliding

# Mm a metre; mm; mm: common practice, no source
LEVEL_PER_M = 1.0
STRAIGHT = 1.0
CENTRED = 1.5
A_TURN = 1.25  # mm of a hanger's bolt, M8: ISO 261 coarse pitch


@dataclass(frozen=True, slots=True)
class Look:
    """One thing to look at."""

    what: str
    """What is looked at."""
    found: str
    """What was found."""
    fine: bool | None
    """None while nobody has."""
    remedy: str = ""
    """Where it is not."""


def looks(read: Sliding, *, track: float, floor_rises: float | None, show: Show = IN_MM) -> tuple[Look, ...]:
    """Return what is looked at, in order: floor, rail level, rail straight, guide, wheels; only then the holes.

    Args:
        read: What was read of the sliding leaf.
        track: Length of the track, mm.
        floor_rises: How much the floor rises at the most along the leaf's way, mm; None where nobody has read
            it.
        show: How lengths and other quantities are written.
    """
    allowed = LEVEL_PER_M * track / 1000
    found = [
        Look(
            "the floor along its way",
            "" if floor_rises is None else f"rises {show.fine(floor_rises)}",
            None if floor_rises is None else floor_rises <= 3.0,
            "hang it from the highest point; ease the foot there",
        )
    ]
    rail = read.rail_rises
    rises = show.fine(abs(rail or 0.0))
    found.append(
        Look(
            "the rail: level",
            ""
            if rail is None
            else f"{'rises' if rail >= 0 else 'falls'} {rises} over {show.length(track, sign=False)}",
            None if rail is None else abs(rail) <= allowed,
            f"slack the screws at the {'high' if (rail or 0) >= 0 else 'low'} end, shim it {rises} level",
        )
    )
    bow = read.rail_bowed
    found.append(
        Look(
            "the rail: straight",
            "" if bow is None else f"{show.fine(bow)} out in its middle",
            None if bow is None else bow <= STRAIGHT,
            "a stretched line along it, packing behind where it bends in",
        )
    )
    guide = read.guide_rubs
    found.append(
        Look(
            "the guide: in the groove's middle",
            "" if guide is None else f"{show.fine(guide)} off",
            None if guide is None else guide <= CENTRED,
            "slack it, let the leaf find its place, screw it down",
        )
    )
    found.append(
        Look(
            "the wheels: turn by hand",
            "one is stiff" if read.wheels_stiff else "",
            False if read.wheels_stiff else None,
            "clean it; no oil on plastic; change it",
        )
    )
    return tuple(found)


def last_settings(shims: Sequence[float], stop_open: float | None, show: Show = IN_MM) -> tuple[Look, ...]:
    """Return what is set once it runs free.

    That is the shims under the wheels' track, mm, and the stop of the open leaf, mm from the track's hinge end.
    None where the gear has none.

    Args:
        shims: Thicknesses of the shims that there are, mm.
        stop_open: From the track's end to the open stop, mm; None where there is none.
        show: How lengths and other quantities are written.
    """
    found = []
    if shims:
        words = ", ".join(show.fine(each) for each in shims) if any(shims) else "none: it is level"
        found.append(Look("the wheels' track: shims, hole by hole", words, None, "brass or hard card, under each hole"))
    if stop_open is not None:
        place = f"open at {show.length(stop_open, sign=False)} from the hinge end of the track, shut against the jamb"
        found.append(Look("the stops", place, None, "set when the leaf hangs parallel, both screws"))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class TrackLevel:
    """How the hangers are turned."""

    latch_up: float
    """Of the hanger at the latch edge, mm, less than 0 down."""
    turns: float
    """How often its bolt is turned."""
    jamb: float
    """Gap at the jamb then, all the way up, mm."""


def hanger_turns(read: Sliding, *, height: float, apart: float) -> TrackLevel | None:
    """Return how one hanger is turned so that the leaf stands parallel to its jamb.

    None where both ends are not read.

    A wider gap at the top leans the leaf away from the jamb there: its latch hanger must come down by the
    difference times apart ÷ height. Source: a rigid leaf turned, geometry.

    Args:
        read: What was read of the sliding leaf.
        height: Of the leaf, mm.
        apart: Between the hangers' bolts, mm.

    >>> hanger_turns(Sliding(jamb_top=6.0, jamb_bottom=2.0), height=2000.0, apart=800.0).latch_up
    -1.6
    """
    if read.jamb_top is None or read.jamb_bottom is None:
        return None
    up = -(read.jamb_top - read.jamb_bottom) * apart / height
    return TrackLevel(up, up / A_TURN, (read.jamb_top + read.jamb_bottom) / 2)
