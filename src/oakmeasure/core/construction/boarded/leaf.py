"""A boarded leaf while it is built."""

from __future__ import annotations

from dataclasses import dataclass, field

from oakmeasure.core.construction.boarded.model import Boarded, BoardedStyle
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Dim, Fixing, Part, Rect, Tenon
from oakmeasure.core.timber.choice import Timber


@dataclass(slots=True)
class BoardedLeaf:
    """The leaf while it is being set out."""

    ctx: Context
    """The leaf's context."""
    fit: Fit
    """Size of the leaf and its gaps."""
    wood: Timber
    """Species and moisture."""
    choice: Boarded
    """What is chosen for the boarded leaf."""
    groove: Figure
    """Depth of the groove, mm."""
    gap: Figure
    """Gap between two boards at fitting, mm."""
    inside: Rect
    """The rectangle that the boards fill."""
    parts: list[Part] = field(default_factory=list)
    """The parts so far."""
    tenons: list[Tenon] = field(default_factory=list)
    """The tenons so far."""
    fixings: list[Fixing] = field(default_factory=list)
    """Nails and screws so far."""
    dims: list[Dim] = field(default_factory=list)
    """Dimensions so far."""

    @property
    def is_framed(self) -> bool:
        """Whether its boards lie in a frame."""
        return self.choice.style is BoardedStyle.FRAMED
