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


class WallChoices(FrozenModel):
    """The wall over the opening. plaster: or board, on it. stud_first: middle of the first stud, from the track's
    hinge end as it is first held up, None until it is found; stud_pitch, stud_width: of the others. studs: middles
    found one by one, instead. backing: board between wall and track, 0 for none. reach: how far the track may be
    shifted. plug: in masonry. redrill: the track gets holes of its own before the studs. shift: of the track from
    where it was first held up, away from the hinge side.
    """

    kind: WallKind = WallKind.STUDS
    plaster: Annotated[float, bounded(0, 80, "plaster")] = 12.5
    stud_first: Place | None = None
    stud_pitch: Annotated[float, bounded(100, 1300, "pitch of studs")] = 400.0
    stud_width: Annotated[float, bounded(20, 200, "stud")] = 38.0
    studs: Annotated[tuple[Stud, ...], Field(max_length=40)] = ()
    backing: Annotated[float, bounded(0, 80, "backing board")] = 0.0
    reach: Annotated[float, bounded(0, 600, "shift")] = 100.0
    plug: Annotated[float, bounded(4, 20, "plug")] = 10.0
    redrill: bool = False
    shift: Annotated[float, bounded(-600, 600, "shift")] = 0.0


class ScrewKind(StrEnum):
    """Which screw goes through the stack."""

    COUNTERSUNK = "countersunk wood screw"
    FLAT = "flat-headed wood screw"
    COACH = "coach screw"


class StackChoices(FrozenModel):
    """What a fixing passes and what it must bite. lining: of a hung leaf, where none is to be made. spacer: a packer
    behind it, or what stands between a track and the wall. bite: in what must hold. depth: None, or what the point must
    not reach, from the wall's own face: a pipe, a cable, the far face. screw: None takes the shortest sold that bites.
    """

    lining: Annotated[float, bounded(0, 80, "lining")] = 25.0
    spacer: Annotated[float, bounded(0, 80, "spacer")] = 0.0
    bite: Annotated[float, bounded(5, 120, "bite")] = 35.0
    depth: Annotated[float, bounded(5, 400, "depth")] | None = None
    screw: Annotated[float, bounded(10, 250, "screw")] | None = None
    diameter: Annotated[float, bounded(2, 14, "screw")] = 6.0
    kind: ScrewKind = ScrewKind.FLAT


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
    """groove_*: in the leaf's foot; fin: that runs in it. cheek: thickness of one; felt: on it. plate: of the guide on
    the floor, thick with its screw heads. screws: how long, into the floor. let_in: on a piece of its own let into
    the floor.
    """

    kind: GuideKind = GuideKind.NONE
    floor: FloorKind = FloorKind.TIMBER
    groove_width: Annotated[float, bounded(3, 60, "groove")] = 7.0
    groove_depth: Annotated[float, bounded(3, 50, "groove")] = 20.0
    fin: Annotated[float, bounded(1, 40, "fin")] = 5.0
    cheek: Annotated[float, bounded(1, 30, "cheek")] = 4.0
    felt: Annotated[float, bounded(0, 10, "felt")] = 3.0
    plate: Annotated[float, bounded(0, 20, "plate")] = 4.0
    screws: Annotated[float, bounded(5, 80, "screws")] = 25.0
    let_in: bool = False


class HangerKind(StrEnum):
    """How a leaf is held by what it slides on."""

    FACE = "straps bolted to the face"
    TOP = "plates let into the head"
    FLOOR = "wheels let into the foot"


class HangerChoices(FrozenModel):
    """Where a sliding leaf is held; None takes what its set says. kind: how. bolt_in: middle of a hanger from the
    leaf's edge. bolt: diameter; bolt_apart: of a hanger's two, one over the other; bolt_down: the upper one, from the
    leaf's top. off: from the wheel's plane to the leaf's middle. rating_kg: of one hanger. proof: load before the leaf
    goes up, as a ratio of its own. hole_first, hole_pitch: of the track's holes, from its hinge end. hole_up: of their
    line over the leaf's top. bolt_head: height of the heads that hold the track; head_room: for them, under the wheel.
    strap: how far a strap with its bolt heads stands off the leaf's face. stop_long: of a stop on the track.
    """

    kind: HangerKind | None = None
    bolt_in: Annotated[float, bounded(15, 600, "hanger from the edge")] | None = None
    bolt: Annotated[float, bounded(3, 16, "bolt")] = 8.0
    bolt_apart: Annotated[float, bounded(10, 300, "bolts apart")] = 60.0
    bolt_down: Annotated[float, bounded(10, 400, "bolt from the top")] = 40.0
    off: Annotated[float, bounded(0, 120, "offset")] | None = None
    rating_kg: Annotated[float, bounded(1, 1000, "rating", "kg")] | None = None
    proof: Annotated[float, bounded(1, 5, "proof load", "")] = 1.5
    hole_first: Annotated[float, bounded(10, 1000, "first hole")] | None = None
    hole_pitch: Annotated[float, bounded(50, 1500, "pitch of holes")] | None = None
    hole_up: Annotated[float, bounded(0, 400, "holes over the leaf")] | None = None
    bolt_head: Annotated[float, bounded(0, 30, "bolt head")] = 6.0
    head_room: Annotated[float, bounded(0, 40, "room")] = 8.0
    strap: Annotated[float, bounded(0, 40, "strap")] = 9.0
    stop_long: Annotated[float, bounded(5, 120, "stop")] = 22.0
