"""A frame that is there already: its rebate, and what was cut into it for the leaf that hung there before."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from oakmeasure.core.document.rules import FrozenModel, bounded


class RecessFor(StrEnum):
    """What an old recess was cut for."""

    BUTT = "butt"
    KEEP = "keep"


class JambSide(StrEnum):
    """A jamb as it stands, whichever way the new leaf hangs."""

    LEFT = "left"
    RIGHT = "right"


class OldRecess(FrozenModel):
    """A recess in a jamb, as it is found."""

    what: RecessFor = RecessFor.BUTT
    """What it was cut for."""
    jamb: JambSide = JambSide.LEFT
    """Which jamb it is in, seen from the opening side."""
    down: Annotated[float, bounded(0, 3500, "down from the head")]
    """From the head, along the jamb, to its upper end, mm."""
    length: Annotated[float, bounded(10, 400, "length")]
    """Its length, mm."""
    wide: Annotated[float, bounded(3, 100, "width")] = 27.0
    """In from the frame's opening face, or of a keep across it, mm."""
    deep: Annotated[float, bounded(0.1, 60, "depth")] = 2.0
    """Into the jamb, mm."""


class OldFrame(FrozenModel):
    """What is known of a frame that stays."""

    rebate_side: Annotated[float, bounded(1, 60, "rebate")] | None = None
    """How far the stop stands in at each side, mm: what is read is then between the stops; None: it is in the frame."""
    rebate_head: Annotated[float, bounded(0, 60, "rebate")] | None = None
    """How far it stands down at the head, mm; None: as at the sides."""
    deep: Annotated[float, bounded(5, 120, "depth")] | None = None
    """From the frame's opening face back to the stop, mm; None: not measured."""
    recesses: Annotated[tuple[OldRecess, ...], Field(max_length=12)] = ()
    """What is cut into its jambs."""
