"""How a leaf hangs, and what is chosen for each way, as the document holds it. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from oakmeasure.core.readings import HeightReading, WidthReading
from oakmeasure.core.rules import Model, between


class Hanging(StrEnum):
    """The ways of hanging that can be worked out."""

    LINING = "on butts in a lining"
    PAIR = "a pair on butts in a lining"
    OVERLAY = "cabinet, full overlay"
    HALF_OVERLAY = "cabinet, half overlay"
    INSET = "cabinet, inset on cups"
    INSET_BUTTS = "cabinet, inset on butts"
    SLIDING = "sliding on the wall"
    BYPASS_RAIL = "by-passing on one rail"
    BYPASS_TRACKS = "by-passing on two tracks"
    POCKET = "on a pocket track"
    FLOOR_GEAR = "on gear on the floor"
    COVER = "a cover that lifts off"
    OPEN = "not decided yet"

    @property
    def has_butts(self) -> bool:
        return self in (Hanging.LINING, Hanging.PAIR, Hanging.INSET_BUTTS)

    @property
    def is_cabinet(self) -> bool:
        return self in (Hanging.OVERLAY, Hanging.HALF_OVERLAY, Hanging.INSET, Hanging.INSET_BUTTS)

    @property
    def lies_on(self) -> bool:
        """Whether the leaf lies on a cabinet's front, on cup hinges."""
        return self in (Hanging.OVERLAY, Hanging.HALF_OVERLAY)

    @property
    def slides(self) -> bool:
        return self in (Hanging.SLIDING, Hanging.POCKET, Hanging.FLOOR_GEAR) or self.bypasses

    @property
    def bypasses(self) -> bool:
        return self in (Hanging.BYPASS_RAIL, Hanging.BYPASS_TRACKS)

    @property
    def covers(self) -> bool:
        """Whether the leaf stands before the opening, larger than it."""
        return self.slides or self is Hanging.COVER


class LeafShape(StrEnum):
    """What is made of a crooked opening."""

    SQUARE = "a square leaf"
    SCRIBED = "scribed to the opening"


class Aim(StrEnum):
    """Which square leaf is the largest."""

    WIDTH = "width, then height"
    AREA = "the most area"


Overlap = Annotated[float, between(-200, 400, "overlap")]
Small = Annotated[float, between(0, 300, "size")]


class PairChoices(Model):
    """meeting: gap between the two leaves; None takes the gap at the latch. rebate: how far they overlap there."""

    meeting: Annotated[float, between(0, 60, "gap")] | None = None
    rebate: Annotated[float, between(0, 40, "rebate")] = 0.0


class CabinetChoices(Model):
    """overlay: on each side of the opening, of a leaf that lies on it. division: that two leaves share. gap: between
    those two. run: leaves on one frame; frame: between two of its openings.
    """

    overlay: Annotated[float, between(0, 60, "overlay")] = 14.0
    division: Annotated[float, between(5, 120, "division")] = 22.0
    gap: Annotated[float, between(0, 20, "gap")] = 3.0
    run: Annotated[int, Field(ge=1, le=24)] = 1
    frame: Annotated[float, between(5, 300, "frame")] = 40.0


class SlideChoices(Model):
    """For a leaf that slides or covers.

    overlap_*: beyond the opening; may be negative. centre: of two that pass each other; None takes the least.
    roller, roller_in: width of a roller, its centre from the leaf's edge. air: between the leaf and what it passes.
    stand_off: of the track, wall to the leaf's back; None: not known. free_wall: beside the opening, where the leaf
    goes; None: not read. stop: kept free at its end. pull: of the leaf that cannot pass the jamb. track: of the length
    at hand; None: cut to need. gear_height: of opening that the set needs beyond the leaf; None: not known.
    size_width, size_height: a slab of that size is to be used. projection: the most that it may stand out of the
    wall, as wished; None: no wish.
    """

    overlap_hinge: Overlap = 38.0
    overlap_latch: Overlap = 38.0
    overlap_head: Overlap = 45.0
    centre: Annotated[float, between(0, 800, "overlap")] | None = None
    roller: Small = 70.0
    roller_in: Small = 35.0
    air: Annotated[float, between(0, 60, "air")] = 5.0
    stand_off: Small | None = None
    free_wall: Annotated[float, between(0, 6000, "free wall")] | None = None
    stop: Small = 40.0
    pull: Small = 0.0
    track: Annotated[float, between(100, 8000, "track")] | None = None
    gear_height: Annotated[float, between(0, 600, "gear")] | None = None
    size_width: WidthReading | None = None
    size_height: HeightReading | None = None
    projection: Annotated[float, between(5, 400, "projection")] | None = None
