"""Which hole or recess of a part went wrong: how wide, how long and how deep it is, and from where it is cut."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.hardware.boring import Boring, CutSide, Device

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign

SCREW_HOLE = "screw hole"


@dataclass(frozen=True, slots=True)
class Hole:
    """A hole, or a recess, in one part."""

    name: str
    """What it is called."""
    wide: float
    """Its diameter, or the less of a recess's two sizes on its surface, mm."""
    long: float
    """The larger of the two; of a round one its diameter; mm."""
    depth: float
    """How deep it is to be, mm."""
    is_round: bool
    """Whether it is drilled."""
    into_face: bool
    """Whether it is cut into a face, not into an edge."""
    device: Device | None = None
    """What it is for; None for a screw."""


def holes_of(leaf: LeafDesign, part: str) -> tuple[Hole, ...]:
    """Return what is bored and cut in a part for hardware, its screws last.

    Args:
        leaf: The leaf, set out with its hardware.
        part: Name of the part; "" for the whole leaf.
    """
    cuts = [cut for cut in leaf.borings if not part or cut.member == part]
    found = {cut.name: _hole(cut) for cut in cuts}
    pilot, length = leaf.figures.get("screw_pilot"), leaf.figures.get("screw_length")
    if pilot is not None and length is not None and any(cut.kind.device is Device.BUTT for cut in cuts):
        found[SCREW_HOLE] = Hole(SCREW_HOLE, pilot.value, pilot.value, length.value, is_round=True, into_face=False)
    return tuple(found.values())


def _hole(cut: Boring) -> Hole:
    into_face = cut.side.surface.is_face or cut.side is CutSide.FACE_TO_LEAF
    device = cut.kind.device
    if cut.kind.is_round:
        return Hole(cut.name, cut.along, cut.along, cut.depth, is_round=True, into_face=into_face, device=device)
    across = cut.across
    if cut.solid is not None:
        a, b, c, d = cut.solid.box
        sizes = sorted((c - a, d - b, cut.solid.depth[1] - cut.solid.depth[0]))
        sizes.remove(min(sizes, key=lambda each: abs(each - cut.depth)))
        across = min(sizes)
    wide, long = sorted((across or cut.along, cut.along))
    return Hole(cut.name, wide, long, cut.depth, is_round=False, into_face=into_face, device=device)


def hole_of(leaf: LeafDesign, part: str, name: str) -> Hole | None:
    """Return a hole of a part by its name.

    Args:
        leaf: The leaf, set out with its hardware.
        part: Name of the part; "" for the whole leaf.
        name: Of the hole; "" for the deepest.

    Returns:
        None where nothing is cut there, or nothing of that name.
    """
    found = holes_of(leaf, part)
    if not name:
        return max(found, key=lambda each: (each.device is not None, each.depth), default=None)  # a screw last
    return next((each for each in found if each.name == name), None)
