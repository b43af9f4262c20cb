"""What a leaf slides on, what carries it, and what the fixings go through, as the document holds it. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from oakmeasure.core.rules import Model, between

Place = Annotated[float, between(0, 8000, "place")]


class WallKind(StrEnum):
    """What is behind the plaster."""

    STUDS = "timber studs"
    MASONRY = "brick, block or concrete"
    BOARD = "plasterboard, nothing found behind"


class WallChoices(Model):
    """The wall over the opening. plaster: or board, on it. stud_first: middle of the first stud, from the track's
    hinge end as it is first held up; stud_pitch, stud_width: of the others. studs: middles found one by one, instead.
    backing: board between wall and track, 0 for none. reach: how far the track may be shifted. plug: in masonry.
    redrill: the track gets holes of its own before the studs.
    """

    kind: WallKind = WallKind.STUDS
    plaster: Annotated[float, between(0, 80, "plaster")] = 12.5
    stud_first: Place = 200.0
    stud_pitch: Annotated[float, between(100, 1300, "pitch of studs")] = 400.0
    stud_width: Annotated[float, between(20, 200, "stud")] = 38.0
    studs: Annotated[tuple[Place, ...], Field(max_length=40)] = ()
    backing: Annotated[float, between(0, 80, "backing board")] = 0.0
    reach: Annotated[float, between(0, 600, "shift")] = 60.0
    plug: Annotated[float, between(4, 20, "plug")] = 10.0
    redrill: bool = False


class StackChoices(Model):
    """What a fixing passes and what it must bite. spacer: loose or a bracket's foot. bite: in what must hold. depth:
    None, or what the point must not reach, from the wall's own face: a pipe, a cable, the far face. screw: None takes
    the shortest sold that bites. diameter: of the screw.
    """

    spacer: Annotated[float, between(0, 80, "spacer")] = 0.0
    bite: Annotated[float, between(5, 120, "bite")] = 35.0
    depth: Annotated[float, between(5, 400, "depth")] | None = None
    screw: Annotated[float, between(10, 250, "screw")] | None = None
    diameter: Annotated[float, between(2, 14, "screw")] = 6.0


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


class Guide(Model):
    """groove_*: in the leaf's foot; fin: that runs in it. felt: on each cheek. plate: of the guide on the floor, thick
    with its screw heads. screws: how long, into the floor. let_in: on a piece of its own let into the floor.
    """

    kind: GuideKind = GuideKind.NONE
    floor: FloorKind = FloorKind.TIMBER
    groove_width: Annotated[float, between(3, 60, "groove")] = 7.0
    groove_depth: Annotated[float, between(3, 50, "groove")] = 20.0
    fin: Annotated[float, between(1, 40, "fin")] = 5.0
    felt: Annotated[float, between(0, 10, "felt")] = 3.0
    plate: Annotated[float, between(0, 20, "plate")] = 4.0
    screws: Annotated[float, between(5, 80, "screws")] = 25.0
    let_in: bool = False


class HangerChoices(Model):
    """Where a sliding leaf is held. bolt_in: middle of a hanger's bolts from the leaf's edge; None by its set.
    bolt: diameter; bolt_apart: of a hanger's two, one over the other; bolt_down: the upper one, from the leaf's top.
    off: from the wheel's plane to the leaf's middle, None by its set. proof: load before the leaf goes up, as a ratio
    of its own. bolt_head: height of the heads that hold the track; head_room: over them, under the wheel.
    """

    bolt_in: Annotated[float, between(15, 600, "bolts from the edge")] | None = None
    bolt: Annotated[float, between(3, 16, "bolt")] = 8.0
    bolt_apart: Annotated[float, between(0, 300, "bolts apart")] = 60.0
    bolt_down: Annotated[float, between(10, 400, "bolt from the top")] = 40.0
    off: Annotated[float, between(0, 120, "offset")] | None = None
    proof: Annotated[float, between(1, 5, "proof load", "")] = 1.5
    bolt_head: Annotated[float, between(0, 30, "bolt head")] = 6.0
    head_room: Annotated[float, between(0, 40, "room")] = 8.0
