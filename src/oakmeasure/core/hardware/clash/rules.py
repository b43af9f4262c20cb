"""How near to one another two things in a leaf may be, and how bad it is when they are nearer.

All of it common practice of the trade, no source.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from oakmeasure.core.figures.check import Level


class BodyKind(StrEnum):
    """What a thing in the leaf is; rules are for two kinds."""

    CUT = "cut"  # a recess, a mortise or a bore for hardware
    SCREW = "screw"  # of hardware, its whole length: steel
    BITE = "bite"  # of such a screw: the part of it that must be in sound wood to hold
    FIXING = "fixing"  # nails, pins and screws that hold the leaf together
    JOINT = "joint"  # tenons, dowels, loose tenons
    PANEL = "panel"  # with its groove
    GROOVE = "groove"  # for a guide, gear or channels
    LINE = "line"  # a V line on the face
    HOLLOW = "hollow"  # where there is no wood
    BLOCKS = "blocks"  # where there is wood only here and there
    TRIM = "trim"  # where the saw goes when the leaf is trimmed once made


@dataclass(frozen=True, slots=True)
class Spacing:
    """How near two bodies may be."""

    least: float
    """Distance, mm."""
    meets: Level
    """Level where they overlap by more than `grave`."""
    near: Level
    """Where it is less, or they are nearer than `least`."""
    words: str
    """What is said where it is not kept."""
    grave: float = 0.0
    """Overlap from which on it stops the work, mm."""


STOP = Level.STOP
WARNING = Level.WARNING
_STEEL = "a cutter meets steel"
_SHORT = "the wood between breaks out"
_WEAK = "wood that a joint needs"
_KNOCK = "there is wood only where a block is: knock, and drill a small hole first"
SPACINGS: dict[frozenset[BodyKind], Spacing] = {
    frozenset(pair): spacing
    for pair, spacing in (
        ((BodyKind.CUT, BodyKind.CUT), Spacing(5.0, STOP, WARNING, _SHORT)),
        ((BodyKind.CUT, BodyKind.SCREW), Spacing(3.0, STOP, WARNING, _SHORT)),
        ((BodyKind.CUT, BodyKind.FIXING), Spacing(3.0, STOP, WARNING, _STEEL)),
        ((BodyKind.CUT, BodyKind.JOINT), Spacing(0.0, STOP, WARNING, _WEAK, grave=5.0)),
        ((BodyKind.CUT, BodyKind.PANEL), Spacing(2.0, STOP, WARNING, "it breaks into the panel's groove")),
        ((BodyKind.CUT, BodyKind.GROOVE), Spacing(4.0, STOP, WARNING, _SHORT)),
        ((BodyKind.CUT, BodyKind.HOLLOW), Spacing(0.0, STOP, WARNING, "there is no wood there")),
        ((BodyKind.SCREW, BodyKind.SCREW), Spacing(3.0, STOP, WARNING, "a screw meets a screw")),
        ((BodyKind.SCREW, BodyKind.FIXING), Spacing(2.0, STOP, WARNING, "a screw meets steel")),
        (
            (BodyKind.BITE, BodyKind.JOINT),
            Spacing(0.0, WARNING, WARNING, "a screw in the end grain of a tenon hardly holds"),
        ),
        ((BodyKind.BITE, BodyKind.PANEL), Spacing(1.0, WARNING, WARNING, "a screw that pins a panel lets it split")),
        ((BodyKind.SCREW, BodyKind.GROOVE), Spacing(3.0, STOP, WARNING, _STEEL)),
        ((BodyKind.BITE, BodyKind.HOLLOW), Spacing(0.0, STOP, WARNING, "a screw needs wood")),
        ((BodyKind.GROOVE, BodyKind.FIXING), Spacing(2.0, STOP, WARNING, _STEEL)),
        ((BodyKind.GROOVE, BodyKind.JOINT), Spacing(0.0, WARNING, WARNING, _WEAK)),
        ((BodyKind.GROOVE, BodyKind.PANEL), Spacing(3.0, STOP, WARNING, "it breaks into the panel's groove")),
        ((BodyKind.GROOVE, BodyKind.HOLLOW), Spacing(0.0, STOP, WARNING, "there is no wood there")),
        ((BodyKind.GROOVE, BodyKind.GROOVE), Spacing(4.0, STOP, WARNING, _SHORT)),
        ((BodyKind.LINE, BodyKind.FIXING), Spacing(1.0, STOP, WARNING, _STEEL)),
        ((BodyKind.CUT, BodyKind.BLOCKS), Spacing(0.0, WARNING, WARNING, _KNOCK)),
        ((BodyKind.BITE, BodyKind.BLOCKS), Spacing(0.0, WARNING, WARNING, _KNOCK)),
        ((BodyKind.GROOVE, BodyKind.BLOCKS), Spacing(0.0, WARNING, WARNING, _KNOCK)),
        ((BodyKind.TRIM, BodyKind.FIXING), Spacing(3.0, STOP, STOP, "the saw meets steel")),
        ((BodyKind.TRIM, BodyKind.CUT), Spacing(3.0, WARNING, WARNING, "the trim opens it")),
        ((BodyKind.TRIM, BodyKind.SCREW), Spacing(3.0, STOP, WARNING, "the saw meets steel")),
    )
}
MOST_LEAST = max(each.least for each in SPACINGS.values())


def spacing(one: BodyKind, other: BodyKind) -> Spacing | None:
    """Return the rule for two kinds; None where they may lie as they like.

    Args:
        one: What the one is.
        other: What the other is.
    """
    return SPACINGS.get(frozenset((one, other)))
