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
from oakmeasure.core.document.text import ONE_LINE
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
        """Whether the leaf hangs on butts."""
        return self in (Hanging.LINING, Hanging.PAIR, Hanging.INSET_BUTTS)

    @property
    def is_cabinet(self) -> bool:
        """Whether it is the door of a cabinet."""
        return self in (Hanging.OVERLAY, Hanging.HALF_OVERLAY, Hanging.INSET, Hanging.INSET_BUTTS)

    @property
    def lies_on(self) -> bool:
        """Whether the leaf lies on a cabinet's front, on cup hinges."""
        return self in (Hanging.OVERLAY, Hanging.HALF_OVERLAY)

    @property
    def slides(self) -> bool:
        """Whether the leaf slides."""
        return self in (Hanging.SLIDING, Hanging.POCKET, Hanging.FLOOR_GEAR) or self.bypasses

    @property
    def bypasses(self) -> bool:
        """Whether two leaves slide past each other."""
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
    """Shim, mm."""
    count: Annotated[int, Field(ge=1, le=40)] = 1
    """How many are stacked."""


class EvenGap(FrozenModel):
    """The leaf is left full and hung; the gap that its hinges make is read, and the other sides are planed to it."""

    shims: Annotated[tuple[Shim, ...], Field(max_length=8)] = ()
    """What just fills the gap at the hinges."""
    gap: SmallReading | None = None
    """The same by a feeler, instead."""
    full_width: WidthReading | None = None
    """Width of the leaf as it hangs, mm; None takes its size at the glue-up."""
    full_height: HeightReading | None = None
    """Height of the leaf as it hangs, mm; None takes its size at the glue-up."""


class PairChoices(FrozenModel):
    """How the two leaves of a pair meet."""

    meeting: Annotated[float, bounded(0, 60, "gap")] | None = None
    """Gap between the two leaves, mm; None takes the gap at the latch."""
    rebate: Annotated[float, bounded(0, 40, "rebate")] = 0.0
    """How far they overlap there, mm."""


class CabinetChoices(FrozenModel):
    """How the door of a cabinet lies on it, mm."""

    overlay: Annotated[float, bounded(0, 60, "overlay")] = 14.0
    """On each side of the opening, of a leaf that lies on it, mm."""
    division: Annotated[float, bounded(5, 120, "division")] = 22.0
    """That two leaves share."""
    gap: Annotated[float, bounded(0, 20, "gap")] = 3.0
    """Between those two, mm."""
    run: Annotated[int, Field(ge=1, le=24)] = 1
    """Leaves on one frame."""
    frame: Annotated[float, bounded(5, 300, "frame")] = 40.0
    """Between two of its openings, mm."""
    must_open: Annotated[float, bounded(10, 270, "opening angle", "°")] | None = None
    """As wished; None: no wish."""
    side: Annotated[float, bounded(6, 80, "side")] = 18.0
    """Thickness of the cabinet's side."""


class TrackSet(FrozenModel):
    """Track, hangers and guide as sold, by its sheet. Lengths in mm."""

    name: Annotated[str, Field(min_length=1, max_length=80), ONE_LINE]
    """Its name, as it is shown."""
    ways: tuple[Hanging, ...]
    """Of hanging that it is made for."""
    opening: Small | None = None
    """Of opening that it needs beyond the leaf's height, where the track lies in the opening; None: it goes on the
    wall.
    """
    above: Small
    """From the leaf's top to the top of the track with its hangers."""
    drop: Small
    """From the track's underside to the leaf's top."""
    lift: Small
    """How far the leaf goes up to be hung on."""
    block: Small
    """Of an anti-lift block, over the leaf."""
    stand_off: Small
    """Wall to the leaf's back."""
    thickness_least: Small
    """The thinnest leaf that its hangers take, mm."""
    thickness_most: Small
    """The thickest leaf that its hangers take, mm."""
    rating_kg: Annotated[float, bounded(1, 1000, "rating", "kg")]
    """Of one hanger, two to a leaf, kg."""
    roller: Small
    """Width of a roller, mm."""
    roller_in: Small
    """From the leaf's edge to the roller's middle, mm."""
    kind: HangerKind = HangerKind.FACE
    """How its hangers hold the leaf."""
    bolt_in: Annotated[float, bounded(15, 600, "hanger from the edge")] = 75.0
    """Their middle from the leaf's edge."""
    off: Small = 25.0
    """From the wheel's plane to the leaf's middle."""
    hole_first: Annotated[float, bounded(10, 1000, "first hole")] = 50.0
    """From the track's end to its first hole, mm."""
    hole_pitch: Annotated[float, bounded(50, 1500, "pitch of holes")] = 400.0
    """From hole to hole of the track, mm."""
    hole_down: Small = 20.0
    """From the track's top to its holes, mm."""
    plate: tuple[Small, Small, Small] = (0.0, 0.0, 0.0)
    """Let into head or foot for each hanger, as long, wide and deep."""
    head_groove: tuple[Small, Small] = (0.0, 0.0)
    """Wide and deep, along the head; 0 for none."""
    lengths: tuple[Annotated[float, bounded(300, 8000, "track")], ...]
    """Of track that are sold, mm."""
    price: Annotated[float, bounded(0, 1e5, "price", "")]
    """In the job's money."""

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
    """For a leaf that slides or covers. None: left to the set, or not known."""

    overlap_hinge: Overlap = 38.0
    """How far the leaf reaches beyond the opening at the hinge side, mm; may be less than 0."""
    overlap_latch: Overlap = 38.0
    """How far the leaf reaches beyond the opening at the latch side, mm; may be less than 0."""
    overlap_head: Overlap | None = None
    """How far the leaf reaches beyond the opening at the head, mm; may be less than 0; None: the usual."""
    centre: Annotated[float, bounded(0, 800, "overlap")] | None = None
    """Of two that pass each other, mm; None takes the least."""
    track_set: TrackSet | None = None
    """The one that is chosen."""
    roller: Small | None = None
    """Width of a roller, mm; None by the track set."""
    roller_in: Small | None = None
    """From the leaf's edge to the roller's middle, mm; None by the track set."""
    running_clearance: Annotated[float, bounded(0, 60, "air")] = 5.0
    """Between the leaf and what it passes, mm."""
    stand_off: Small | None = None
    """Of the track, wall to the leaf's back."""
    free_wall: Annotated[float, bounded(0, 6000, "free wall")] | None = None
    """Beside the opening, where the leaf goes, mm."""
    stop: Small = 40.0
    """Kept free at its end."""
    pull: Small = 0.0
    """Of the leaf that cannot pass the jamb."""
    track: Annotated[float, bounded(100, 8000, "track")] | None = None
    """Of the length at hand, mm; None: cut to need."""
    gear_height: Annotated[float, bounded(0, 600, "gear")] | None = None
    """Of opening that the set needs beyond the leaf, mm."""
    drop: Small | None = None
    """From the track's underside to the leaf's top."""
    headroom: Annotated[float, bounded(0, 3000, "free wall")] | None = None
    """Free wall over the opening, mm."""
    track_up: HeightReading | None = None
    """Finished floor to the underside of a track that is up already."""
    size_width: WidthReading | None = None
    """Width of the slab that is to be used, mm; None for none."""
    size_height: HeightReading | None = None
    """Height of the slab that is to be used, mm; None for none."""
    projection: Annotated[float, bounded(5, 400, "projection")] | None = None
    """The most that it may stand out of the wall, as wished, mm."""
