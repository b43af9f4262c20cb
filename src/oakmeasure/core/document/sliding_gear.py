"""What a leaf slides on, what carries it, and what the fixings go through, as the document holds it.

Along the track all is measured from its hinge end: where the shut leaf's hinge edge is. Lengths in mm.
"""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from oakmeasure.core.document.rules import FrozenModel, bounded

Place = Annotated[float, bounded(0, 8000, "place")]
LEAST_BACKING = 18.0  # of a board that holds a track's screws: common practice, no source


class WallKind(StrEnum):
    """What is behind the plaster."""

    STUDS = "timber studs"
    MASONRY = "brick, block or concrete"
    BOARD = "plasterboard, nothing found behind"


class Stud(FrozenModel):
    """A stud that was found: its middle along the track, from its hinge end."""

    at: Annotated[float, bounded(-1000, 9000, "stud")]
    """Stud, mm."""


class WallChoices(FrozenModel):
    """The wall over the opening."""

    kind: WallKind = WallKind.STUDS
    """What the wall is."""
    plaster: Annotated[float, bounded(0, 80, "plaster")] = 12.5
    """Or board, on it, mm."""
    stud_first: Place | None = None
    """Middle of the first stud, from the track's hinge end as it is first held up, None until it is found."""
    stud_pitch: Annotated[float, bounded(100, 1300, "pitch of studs")] = 400.0
    """From middle to middle of the other studs, mm."""
    stud_width: Annotated[float, bounded(20, 200, "stud")] = 38.0
    """Width of the other studs, mm."""
    studs: Annotated[tuple[Stud, ...], Field(max_length=40)] = ()
    """Middles found one by one, instead."""
    backing: Annotated[float, bounded(0, 80, "backing board")] = 0.0
    """Board between wall and track, 0 for none, mm."""
    reach: Annotated[float, bounded(0, 600, "shift")] = 100.0
    """How far the track may be shifted, mm."""
    plug: Annotated[float, bounded(4, 20, "plug")] = 10.0
    """In masonry, mm."""
    redrill: bool = False
    """The track gets holes of its own before the studs."""
    shift: Annotated[float, bounded(-600, 600, "shift")] = 0.0
    """Of the track from where it was first held up, away from the hinge side, mm."""


class ScrewKind(StrEnum):
    """Which screw goes through the stack."""

    COUNTERSUNK = "countersunk wood screw"
    FLAT = "flat-headed wood screw"
    COACH = "coach screw"


class StackChoices(FrozenModel):
    """What a fixing passes and what it must bite."""

    lining: Annotated[float, bounded(0, 80, "lining")] = 25.0
    """Of a hung leaf, where none is to be made, mm."""
    spacer: Annotated[float, bounded(0, 80, "spacer")] = 0.0
    """A packer behind it, or what stands between a track and the wall, mm."""
    bite: Annotated[float, bounded(5, 120, "bite")] = 35.0
    """In what must hold, mm."""
    depth: Annotated[float, bounded(5, 400, "depth")] | None = None
    """None, or what the point must not reach, from the wall's own face: a pipe, a cable, the far face."""
    screw: Annotated[float, bounded(10, 250, "screw")] | None = None
    """None takes the shortest sold that bites, mm."""
    diameter: Annotated[float, bounded(2, 14, "screw")] = 6.0
    """Screw, mm."""
    kind: ScrewKind = ScrewKind.FLAT
    """Which screw."""


class FloorKind(StrEnum):
    """The floor under a floor guide."""

    TIMBER = "timber"
    CONCRETE = "concrete or tiles"
    LAMINATE = "floating laminate"
    CARPET = "carpet"


class GuideKind(StrEnum):
    """What keeps a sliding leaf's foot in line."""

    NONE = "none yet"
    FIN = "a fin in a groove in the foot"
    CHEEKS = "cheeks on either side, with felt"
    ROLLER = "a roller on the wall"


class Guide(FrozenModel):
    """What guides the foot of a sliding leaf, mm."""

    kind: GuideKind = GuideKind.NONE
    """Which guide."""
    floor: FloorKind = FloorKind.TIMBER
    """What the floor is."""
    groove_width: Annotated[float, bounded(3, 60, "groove")] = 7.0
    """Width of the groove in the leaf's foot, mm."""
    groove_depth: Annotated[float, bounded(3, 50, "groove")] = 20.0
    """Depth of the groove in the leaf's foot, mm."""
    fin: Annotated[float, bounded(1, 40, "fin")] = 5.0
    """That runs in it, mm."""
    cheek: Annotated[float, bounded(1, 30, "cheek")] = 4.0
    """Thickness of one, mm."""
    felt: Annotated[float, bounded(0, 10, "felt")] = 3.0
    """On it, mm."""
    plate: Annotated[float, bounded(0, 20, "plate")] = 4.0
    """Of the guide on the floor, thick with its screw heads, mm."""
    screws: Annotated[float, bounded(5, 80, "screws")] = 25.0
    """How long, into the floor, mm."""
    let_in: bool = False
    """On a piece of its own let into the floor."""


class HangerKind(StrEnum):
    """How a leaf is held by what it slides on."""

    FACE = "straps bolted to the face"
    TOP = "plates let into the head"
    FLOOR = "wheels let into the foot"


class HangerChoices(FrozenModel):
    """Where a sliding leaf is held; None takes what its set says."""

    kind: HangerKind | None = None
    """How."""
    bolt_in: Annotated[float, bounded(15, 600, "hanger from the edge")] | None = None
    """Middle of a hanger from the leaf's edge."""
    bolt: Annotated[float, bounded(3, 16, "bolt")] = 8.0
    """Diameter, mm."""
    bolt_apart: Annotated[float, bounded(10, 300, "bolts apart")] = 60.0
    """Of a hanger's two, one over the other."""
    bolt_down: Annotated[float, bounded(10, 400, "bolt from the top")] = 40.0
    """The upper one, from the leaf's top."""
    off: Annotated[float, bounded(0, 120, "offset")] | None = None
    """From the wheel's plane to the leaf's middle."""
    rating_kg: Annotated[float, bounded(1, 1000, "rating", "kg")] | None = None
    """What one hanger is rated for, kg."""
    proof: Annotated[float, bounded(1, 5, "proof load", "")] = 1.5
    """Load before the leaf goes up, as a ratio of its own."""
    hole_first: Annotated[float, bounded(10, 1000, "first hole")] | None = None
    """From the track's hinge end to its first hole, mm."""
    hole_pitch: Annotated[float, bounded(50, 1500, "pitch of holes")] | None = None
    """From hole to hole of the track, mm."""
    hole_up: Annotated[float, bounded(0, 400, "holes over the leaf")] | None = None
    """Of their line over the leaf's top."""
    bolt_head: Annotated[float, bounded(0, 30, "bolt head")] = 6.0
    """Height of the heads that hold the track, mm."""
    head_room: Annotated[float, bounded(0, 40, "room")] = 8.0
    """For them, under the wheel, mm."""
    strap: Annotated[float, bounded(0, 40, "strap")] = 9.0
    """How far a strap with its bolt heads stands off the leaf's face."""
    stop_long: Annotated[float, bounded(5, 120, "stop")] = 22.0
    """Of a stop on the track, mm."""
