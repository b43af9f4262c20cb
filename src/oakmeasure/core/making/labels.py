"""Labels for parts: name, leaf, face and edge marks, letters of its joints, sizes, hand; one for every piece."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.leaf.part import Part
from oakmeasure.core.making.joints import joints_of

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign

INNER = (Role.STILE, Role.RAIL, Role.MUNTIN)


@dataclass(frozen=True, slots=True)
class PieceLabel:
    """What stands on one label."""

    number: str
    """In the cut list."""
    name: str
    """Its name, as it is shown."""
    leaf: str
    """Name of the leaf."""
    job: str
    """Name of the job."""
    size: str
    """Finished size, in words."""
    face: str
    """Where the mark goes on its face."""
    edge: str
    """Where the mark goes on its edge."""
    letters: str
    """Of its joints, in order from its foot or its hinge end."""
    hand: str
    """At which side the hinges are, in words."""
    head: str
    """Which end is the head, in words."""
    piece: str = ""
    """"1 of 2" of a pair or a run, else ""."""

    def lines(self) -> tuple[str, ...]:
        """Return the label as lines of text, the name first."""
        joints = f"joints {self.letters}" if self.letters else ""
        found = (
            f"{self.number} {self.name}".strip(),
            f"{self.leaf}{f', {self.piece}' if self.piece else ''}",
            self.size,
            f"face: {self.face}",
            f"edge: {self.edge}" if self.edge else "",
            joints,
            self.head,
            self.hand,
            self.job,
        )
        return tuple(each for each in found if each)


def labels_of(leaf: LeafDesign, show: Show, *, job: str = "") -> tuple[PieceLabel, ...]:
    """Return a label for every piece of a leaf that is made, and of its lining; of a pair, its fellow is mirrored.

    Args:
        leaf: The leaf, set out with its hardware.
        show: How lengths and other quantities are written.
        job: The job's name, for the label.
    """
    if leaf.build is None:
        return ()
    joints = joints_of(leaf.build)
    found = []
    for part in leaf.cut_parts:
        if part.at_hand and not part.is_old:
            continue
        mine = [j.letter for j in joints if part.name in (j.member, j.into)]
        pieces = leaf.pieces_of(part)
        for n in range(1, pieces + 1):
            mirrored = " (mirrored)" if leaf.leaf.hanging is Hanging.PAIR and n == 2 else ""
            found.append(
                PieceLabel(
                    part.mark,
                    part.name,
                    leaf.leaf.name,
                    job,
                    show.size(part.planed.length, part.planed.width, part.planed.thickness),
                    _face(part),
                    _edge(part),
                    " ".join(mine),
                    f"{leaf.leaf.hand}{mirrored}" if pieces < 3 else str(leaf.leaf.hand),
                    _head(part),
                    f"{n} of {pieces}" if pieces > 1 else "",
                )
            )
    return tuple(found)


def _face(part: Part) -> str:
    if part.is_back or part.role in (Role.LEDGE, Role.BRACE, Role.STIFFENER):
        return "closing face out"
    return "opening face"


def _edge(part: Part) -> str:
    if part.role in (Role.STILE, Role.MUNTIN):
        return "to the panel" if part.role is Role.STILE else "both grooved"
    if part.role is Role.RAIL:
        return "to the panel" if part.place in (Place.TOP, Place.BOTTOM) else "both grooved"
    if part.role in (Role.BOARD, Role.STRIP):
        return "tongue to the latch" if part.has_tongue else "to the latch"
    return ""


def _head(part: Part) -> str:
    return "arrow up: head" if part.grain_upright else "arrow: hinge side to latch"


def all_labels(leaves: Iterable[LeafDesign], show: Show, *, job: str = "") -> tuple[PieceLabel, ...]:
    """Return the labels of several leaves, one leaf after the other.

    Args:
        leaves: The leaves, worked out.
        show: How lengths and other quantities are written.
        job: The job's name, for the label.
    """
    return tuple(label for leaf in leaves for label in labels_of(leaf, show, job=job))
