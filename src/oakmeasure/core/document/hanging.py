"""How a leaf hangs, and what is chosen for each way, as the document holds it. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from functools import cache
from typing import Annotated

from pydantic import Field, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.readings import HeightReading, SmallReading, WidthReading
from oakmeasure.core.document.rules import FrozenModel, bounded
from oakmeasure.core.document.sliding_gear import HangerKind
from oakmeasure.data import table


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
    HEIGHT = "height, then width"
    WEIGHED = "both, weighed"
    AREA = "the most area"


Overlap = Annotated[float, bounded(-200, 400, "overlap")]
Small = Annotated[float, bounded(0, 300, "size")]


class Shim(FrozenModel):
    """Shims of one thickness that fill a gap, or part of it."""

    thickness: Annotated[float, bounded(0.05, 20, "shim")] = 0.5
    count: Annotated[int, Field(ge=1, le=40)] = 1


class EvenGap(FrozenModel):
    """The leaf is left full and hung; the gap that its hinges make is read, and the other sides are planed to it.

    shims: what just fills the gap at the hinges; gap: the same by a feeler, instead. full_width, full_height: of the
    leaf as it hangs; None takes its size at the glue-up.
    """

    shims: Annotated[tuple[Shim, ...], Field(max_length=8)] = ()
    gap: SmallReading | None = None
    full_width: WidthReading | None = None
    full_height: HeightReading | None = None


class PairChoices(FrozenModel):
    """meeting: gap between the two leaves; None takes the gap at the latch. rebate: how far they overlap there."""

    meeting: Annotated[float, bounded(0, 60, "gap")] | None = None
    rebate: Annotated[float, bounded(0, 40, "rebate")] = 0.0


class CabinetChoices(FrozenModel):
    """overlay: on each side of the opening, of a leaf that lies on it. division: that two leaves share. gap: between
    those two. run: leaves on one frame; frame: between two of its openings. must_open: as wished; None: no wish.
    side: thickness of the cabinet's side.
    """

    overlay: Annotated[float, bounded(0, 60, "overlay")] = 14.0
    division: Annotated[float, bounded(5, 120, "division")] = 22.0
    gap: Annotated[float, bounded(0, 20, "gap")] = 3.0
    run: Annotated[int, Field(ge=1, le=24)] = 1
    frame: Annotated[float, bounded(5, 300, "frame")] = 40.0
    must_open: Annotated[float, bounded(10, 270, "opening angle", "°")] | None = None
    side: Annotated[float, bounded(6, 80, "side")] = 18.0


class TrackSet(FrozenModel):
    """Track, hangers and guide as sold, by its sheet. Lengths in mm.

    ways: of hanging that it is made for. opening: of opening that it needs beyond the leaf's height, where the track
    lies in the opening; None: it goes on the wall. above: from the leaf's top to the top of the track with its
    hangers. drop: from the track's underside to the leaf's top. lift: how far the leaf goes up to be hung on.
    block: of an anti-lift block, over the leaf. stand_off: wall to the leaf's back. thickness_*: of the leaf that its
    hangers take. rating_kg: of one hanger, two to a leaf. roller, roller_in: width of a roller, its centre from the
    leaf's edge. kind: how its hangers hold the leaf; bolt_in: their middle from the leaf's edge; off: from the wheel's
    plane to the leaf's middle. hole_*: of the track, from its end, and down from its top. plate: let into head or foot
    for each hanger, as long, wide and deep; head_groove: wide and deep, along the head; 0 for none.
    lengths: of track that are sold. price: in the job's money.
    """

    name: Annotated[str, Field(min_length=1, max_length=80)]
    ways: tuple[Hanging, ...]
    opening: Small | None = None
    above: Small
    drop: Small
    lift: Small
    block: Small
    stand_off: Small
    thickness_least: Small
    thickness_most: Small
    rating_kg: Annotated[float, bounded(1, 1000, "rating", "kg")]
    roller: Small
    roller_in: Small
    kind: HangerKind = HangerKind.FACE
    bolt_in: Annotated[float, bounded(15, 600, "hanger from the edge")] = 75.0
    off: Small = 25.0
    hole_first: Annotated[float, bounded(10, 1000, "first hole")] = 50.0
    hole_pitch: Annotated[float, bounded(50, 1500, "pitch of holes")] = 400.0
    hole_down: Small = 20.0
    plate: tuple[Small, Small, Small] = (0.0, 0.0, 0.0)
    head_groove: tuple[Small, Small] = (0.0, 0.0)
    lengths: tuple[Annotated[float, bounded(300, 8000, "track")], ...]
    price: Annotated[float, bounded(0, 1e5, "price", "")]

    @model_validator(mode="after")
    def _sensible(self) -> TrackSet:
        if self.thickness_least > self.thickness_most:
            raise InputError("thickness_least", self.thickness_least, limits=(0, self.thickness_most), unit="mm")
        if not self.lengths:
            raise InputError("lengths", "nothing", "at least one length of track")
        return self


@cache
def track_sets() -> dict[str, TrackSet]:
    """Return the sets of data/track_sets.toml by their keys: made-up makers, true geometry."""
    return {key: TrackSet.model_validate(row) for key, row in table("track_sets").items()}


class SlideChoices(FrozenModel):
    """For a leaf that slides or covers. None: left to the set, or not known.

    overlap_*: beyond the opening; may be negative. centre: of two that pass each other; None takes the least.
    track_set: the one that is chosen. roller, roller_in: width of a roller, its centre from the leaf's edge. air:
    between the leaf and what it passes. stand_off: of the track, wall to the leaf's back. free_wall: beside the
    opening, where the leaf goes. stop: kept free at its end. pull: of the leaf that cannot pass the jamb. track: of the
    length at hand; None: cut to need. gear_height: of opening that the set needs beyond the leaf. drop: from the
    track's underside to the leaf's top. headroom: free wall over the opening. track_up: finished floor to the
    underside of a track that is up already. size_width, size_height: of a slab that is to be used. projection: the
    most that it may stand out of the wall, as wished.
    """

    overlap_hinge: Overlap = 38.0
    overlap_latch: Overlap = 38.0
    overlap_head: Overlap = 45.0
    centre: Annotated[float, bounded(0, 800, "overlap")] | None = None
    track_set: TrackSet | None = None
    roller: Small | None = None
    roller_in: Small | None = None
    air: Annotated[float, bounded(0, 60, "air")] = 5.0
    stand_off: Small | None = None
    free_wall: Annotated[float, bounded(0, 6000, "free wall")] | None = None
    stop: Small = 40.0
    pull: Small = 0.0
    track: Annotated[float, bounded(100, 8000, "track")] | None = None
    gear_height: Annotated[float, bounded(0, 600, "gear")] | None = None
    drop: Small | None = None
    headroom: Annotated[float, bounded(0, 3000, "free wall")] | None = None
    track_up: HeightReading | None = None
    size_width: WidthReading | None = None
    size_height: HeightReading | None = None
    projection: Annotated[float, bounded(5, 400, "projection")] | None = None
