"""Saw and planer settings over all leaves of a job: what is cut at one setting, cut together, the largest first.

Parts that leave the planer at one thickness, pass the fence at one width, or meet the stop at one length share a
setting. Largest first, so that what is spoilt can still become something smaller. Source: common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

from oakmeasure.core.design import LeafDesign
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import SheetMaterial, stuff
from oakmeasure.core.leaf.part import Part

SAME = 0.05  # mm; nearer than this it is one setting


class Machine(StrEnum):
    """What is set, in the order of working."""

    PLANER = "planer, thickness"
    FENCE = "saw, fence"
    STOP = "saw, stop"


@dataclass(frozen=True, slots=True)
class SetupPiece:
    """How many of a part of a leaf are cut at a setting."""

    leaf: str
    """Name of the leaf."""
    part: Part
    """The part."""
    count: int
    """How many of it."""


@dataclass(frozen=True, slots=True)
class Setup:
    """One setting: its size, mm; for fence and stop also the thickness of what is cut."""

    machine: Machine
    """Which machine is set."""
    size: float
    """What its fence is set to, mm."""
    thickness: float
    """Thickness of what is cut, mm."""
    pieces: tuple[SetupPiece, ...]
    """By leaf and part."""

    @property
    def count(self) -> int:
        """Return how many pieces are cut at it."""
        return sum(each.count for each in self.pieces)


def setups(leaves: Iterable[LeafDesign]) -> tuple[Setup, ...]:
    """Return every setting of the leaves, planer, fence and stop, each from its largest size down.

    The planed sizes are set, the trimming allowance still on. What is there already, what comes as sheet and
    what off-cuts give is not planed, and left out.

    Args:
        leaves: The leaves, worked out.
    """
    pieces = [
        SetupPiece(leaf.leaf.name, part, leaf.pieces_of(part))
        for leaf in leaves
        for part in leaf.cut_parts
        if _is_planed(part)
    ]
    found: list[Setup] = []
    for machine in Machine:
        groups: dict[tuple[int, int], list[SetupPiece]] = {}
        for each in pieces:
            thick, size = each.part.planed.thickness, _size(machine, each.part)
            key = (0 if machine is Machine.PLANER else _step(thick), _step(size))
            groups.setdefault(key, []).append(each)
        for (thick, size), parts in sorted(groups.items(), key=lambda each: (-each[0][0], -each[0][1])):
            found.append(Setup(machine, size * SAME, thick * SAME, tuple(parts)))
    return tuple(found)


def saved(found: Iterable[Setup]) -> tuple[int, int]:
    """Return how many settings there are, and how many there would be if every leaf were cut by itself.

    Args:
        found: Those that there are.
    """
    together = alone = 0
    for each in found:
        together += 1
        alone += len({piece.leaf for piece in each.pieces})
    return together, alone


def _is_planed(part: Part) -> bool:
    return not part.at_hand and part.role is not Role.PACKING and not isinstance(stuff(part.species), SheetMaterial)


def _size(machine: Machine, part: Part) -> float:
    size = part.planed
    return {Machine.PLANER: size.thickness, Machine.FENCE: size.width, Machine.STOP: size.length}[machine]


def _step(size: float) -> int:
    return round(size / SAME)
