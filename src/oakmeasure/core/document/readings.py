"""What is read at the opening, as the document holds it: by tape and level, as a polygon, or by ticks on a board.

Everything is seen from the opening side (where the knuckles will show). Lengths in mm.
"""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.rules import FrozenModel, bounded
from oakmeasure.core.document.species import species_keys
from oakmeasure.core.figures.figure import Provenance


class Reading(FrozenModel):
    """One reading: its value, how well it is known and, where it differs from its kind's, its uncertainty."""

    value: float
    """As it was read, in the reading's unit."""
    state: Provenance = Provenance.MEASURED
    """How well it is known."""
    sigma: Annotated[float, bounded(0.01, 50, "uncertainty")] | None = None
    """Uncertainty, mm; None: by rule."""


def restated(value: Any, state: Provenance) -> Any:
    """Return a part of the document with every reading known no better than `state`.

    A reading, however deep, that is known better is then known as that, which is assumed or from a table.

    Args:
        value: The new value.
        state: How well it is known.
    """
    if isinstance(value, Reading):
        kept = value.state is Provenance.ASSUMED or value.state is state
        return value if kept else value.model_copy(update={"state": state, "sigma": None})
    if isinstance(value, FrozenModel):
        return value.model_copy(update={name: restated(each, state) for name, each in value})
    if isinstance(value, tuple):
        return tuple(restated(each, state) for each in value)
    return value


WidthReading = Annotated[Reading, bounded(200, 3000, "width")]
HeightReading = Annotated[Reading, bounded(300, 4000, "height")]
DiagonalReading = Annotated[Reading, bounded(360, 5000, "diagonal")]
LeanReading = Annotated[Reading, bounded(-150, 150, "lean")]
DepthReading = Annotated[Reading, bounded(10, 1000, "depth")]
RiseReading = Annotated[Reading, bounded(1, 3000, "rise")]
OffsetReading = Annotated[Reading, bounded(-100, 100, "bow")]
FloorReading = Annotated[Reading, bounded(-200, 200, "floor height")]
StandOutReading = Annotated[Reading, bounded(-300, 3000, "stand-out")]
SideReading = Annotated[Reading, bounded(20, 6000, "side or diagonal")]
StickReading = Annotated[Reading, bounded(20, 2000, "stick")]
SmallReading = Annotated[Reading, bounded(0, 60, "hinge figure")]
RatingReading = Annotated[Reading, bounded(1, 1000, "rating", "kg")]
ButtLength = Annotated[Reading, bounded(20, 400, "hinge length")]


class OpeningReadings(FrozenModel):
    """What tape and level read. None is: not read.

    Rising diagonal: hinge foot to latch head. Leans: of the whole side, in the plane of the wall, positive
    to the latch at the head. Sill, head: the latch end above (+) the hinge end. Across: lean of the whole side
    across the wall, positive when its head lies towards the opening side. Depth: of the lining, face to face;
    where none is in yet, of the wall.
    """

    width_top: WidthReading | None = None
    """Width near the head, mm; None where it was not read."""
    width_middle: WidthReading | None = None
    """Width half way up, mm."""
    width_bottom: WidthReading | None = None
    """Width near the foot, mm."""
    height_hinge: HeightReading | None = None
    """Height at the hinge side, mm."""
    height_middle: HeightReading | None = None
    """Height in the middle, mm."""
    height_latch: HeightReading | None = None
    """Height at the latch side, mm."""
    diagonal_rising: DiagonalReading | None = None
    """From the foot of the hinge side to the head of the latch side, mm."""
    diagonal_falling: DiagonalReading | None = None
    """From the head of the hinge side to the foot of the latch side, mm."""
    lean_hinge: LeanReading | None = None
    """How far the hinge side leans at its head, mm; plus: its top leans into the opening, to the latch."""
    lean_latch: LeanReading | None = None
    """How far the latch side leans at its head, mm; plus: its top leans into the opening, to the hinges."""
    sill_rise: LeanReading | None = None
    """How much the floor rises to the latch side, mm."""
    head_rise: LeanReading | None = None
    """How much the head rises to the latch side, mm."""
    across_hinge: LeanReading | None = None
    """How far the hinge side leans through the wall, mm; + towards the opening face at the head."""
    across_latch: LeanReading | None = None
    """How far the latch side leans through the wall, mm; + towards the opening face at the head."""
    depth: DepthReading | None = None
    """Depth of the opening through the wall, mm."""

    @property
    def some_width(self) -> Reading:
        """Return a width, the lowest that was read: for what only asks about how wide it is."""
        return next(each for each in (self.width_bottom, self.width_middle, self.width_top) if each is not None)

    @property
    def some_height(self) -> Reading:
        """Return a height, of a side rather than of the middle, for what only asks about how tall it is."""
        return next(each for each in (self.height_hinge, self.height_latch, self.height_middle) if each is not None)

    @model_validator(mode="after")
    def _enough(self) -> OpeningReadings:
        if not (self.width_top or self.width_middle or self.width_bottom):
            raise InputError("width_middle", "nothing", "at least one width")
        if not (self.height_hinge or self.height_middle or self.height_latch):
            raise InputError("height_middle", "nothing", "at least one height")
        return self


class MeasuredBy(StrEnum):
    """How the opening was taken; what the other ways hold is kept."""

    TAPE = "tape and level"
    POLYGON = "sides and diagonals"
    TICKS = "ticks on a board"


class HeadKind(StrEnum):
    """The shape of the head. Heights at the sides are read to where it springs."""

    LEVEL = "level"
    RAKED = "raked"
    SEGMENTAL = "segmental"
    HALF_ROUND = "half-round"
    TWO_CENTRED = "two-centred"

    @property
    def is_curved(self) -> bool:
        """Whether the head is an arc."""
        return self in (HeadKind.SEGMENTAL, HeadKind.HALF_ROUND, HeadKind.TWO_CENTRED)


class HeadShape(FrozenModel):
    """Shape of an opening's head, mm."""

    kind: HeadKind = HeadKind.LEVEL
    """Straight, raked, segmental, half-round or pointed."""
    rise: RiseReading | None = None
    """Crown above the springing line; None takes it from the middle height, or from a half-round's span."""


class Side(StrEnum):
    """A side of the opening, or the field behind the leaf."""

    HINGE = "hinge side"
    LATCH = "latch side"
    HEAD = "head"
    FLOOR = "floor"
    BEHIND = "behind the leaf"

    @property
    def slug(self) -> str:
        """Return it as names of figures have it."""
        return self.split()[0]


class SideOffset(FrozenModel):
    """How far a side bulges into the opening (+) off a line stretched from its one end to the other."""

    side: Side = Side.LATCH
    """The side."""
    at: Annotated[float, bounded(0, 4000, "place")] = 1000.0
    """From the foot of an upright side, from the hinge end of the head or the floor, mm."""
    into: OffsetReading = Reading(value=0.0)
    """How far it stands into the opening there, mm."""

    @model_validator(mode="after")
    def _a_side(self) -> SideOffset:
        if self.side is Side.BEHIND:
            raise InputError("side", self.side, "hinge side, latch side, head or floor")
        return self


class FloorAlong(StrEnum):
    """What the floor was read along."""

    SWING = "the swing"
    TRAVEL = "the travel"


class FloorPoint(FrozenModel):
    """A height of the finished floor over the sill at the hinge side's foot."""

    at: Annotated[float, bounded(-4000, 6000, "place")]
    """Degrees of opening (the swing), or mm along the wall from the hinge side, towards the latch and beyond (the
    travel).
    """
    height: FloorReading
    """Height of the floor there, mm."""


class FloorReadings(FrozenModel):
    """The floor where the leaf will pass: along its swing, `at` in degrees, or along its travel, in mm."""

    along: FloorAlong = FloorAlong.SWING
    """Along the opening, from the hinge side."""
    swing: Annotated[tuple[FloorPoint, ...], Field(max_length=40)] = ()
    """Under the swinging leaf."""
    travel: Annotated[tuple[FloorPoint, ...], Field(max_length=40)] = ()
    """Along a sliding leaf's way."""

    @model_validator(mode="after")
    def _on_the_swing(self) -> FloorReadings:
        for at, each in enumerate(self.swing):
            if not 0 <= each.at <= 180:
                raise InputError(f"swing.{at}.at", each.at, limits=(0, 180), unit="°")
        return self

    @property
    def points(self) -> tuple[FloorPoint, ...]:
        """Return the heights along the way that is chosen."""
        return self.swing if self.along is FloorAlong.SWING else self.travel

    @property
    def path(self) -> str:
        """Return the path of those points in the leaf."""
        return "floor.swing" if self.along is FloorAlong.SWING else "floor.travel"


class Obstruction(StrEnum):
    """What may stand in the way."""

    ARCHITRAVE = "architrave"
    SKIRTING = "skirting"
    PIPE = "pipe"
    SCREW_HEAD = "screw head"
    BOLT = "bolt"
    WALL = "wall beside"
    NEIGHBOUR = "neighbour"
    OTHER = "something else"


class InTheWay(FrozenModel):
    """Something beside or behind the leaf."""

    what: Obstruction = Obstruction.ARCHITRAVE
    """What it is."""
    where: Side = Side.HINGE
    """At which side it stands."""
    away: Annotated[float, bounded(0, 4000, "place")] = 0.0
    """From the opening's edge outward; behind the leaf: from the hinge side."""
    up: Annotated[float, bounded(0, 4000, "height")] = 0.0
    """Over the floor, mm."""
    stands_out: StandOutReading
    """From the wall's face; negative: how deep it lies in the wall."""


class LiningFrom(StrEnum):
    """What a lining to be made starts from."""

    ROUGH = "the rough opening"
    LEAF = "a leaf that exists"


class LiningSchool(StrEnum):
    """What is done where the wall is crooked."""

    PLUMB_FIRST = "plumb first"
    FOLLOW_WALL = "follow the wall"


class Lining(FrozenModel):
    """A lining to be made. The readings are then those of the rough opening.

    depth None: the depth read.
    """

    made_from: LiningFrom = LiningFrom.ROUGH
    """Whether the opening was read bare or lined."""
    thickness: Annotated[float, bounded(10, 60, "lining thickness")] = 25.0
    """Lining thickness, mm."""
    packing: Annotated[float, bounded(0, 100, "packing")] = 12.0
    """Both sides together, mm."""
    packing_head: Annotated[float, bounded(0, 100, "packing")] = 6.0
    """Over the head, mm."""
    depth: Annotated[float, bounded(40, 600, "lining depth")] | None = None
    """Lining depth, mm; None: by rule."""
    trench: Annotated[float, bounded(0, 30, "trench")] = 10.0
    """How far the legs are housed into the head, mm."""
    school: LiningSchool = LiningSchool.PLUMB_FIRST
    """How the lining sits in the wall."""
    species: str | None = None
    """Key of its species; None for the leaf's."""
    leaf_width: WidthReading | None = None
    """Width of the leaf that exists, for a lining made to it, mm."""
    leaf_height: HeightReading | None = None
    """Height of the leaf that exists, for a lining made to it, mm."""

    @model_validator(mode="after")
    def _sensible(self) -> Lining:
        if self.trench > self.thickness - 5:
            raise InputError("trench", self.trench, limits=(0, self.thickness - 5), unit="mm")
        if self.species is not None and self.species not in species_keys():
            raise InputError("species", self.species, "a species of the table")
        return self


class PolygonSide(FrozenModel):
    """A length between two corners of a polygon, numbered from 1 at the hinge side's foot, along the floor and up."""

    start: Annotated[int, Field(ge=1, le=8)]
    """Number of the corner that it starts at, from 1."""
    end: Annotated[int, Field(ge=1, le=8)]
    """Number of the corner that it ends at, from 1."""
    length: SideReading
    """Its length, mm."""

    @model_validator(mode="after")
    def _two_corners(self) -> PolygonSide:
        if self.start == self.end:
            raise InputError("end", self.end, "another corner than it starts from")
        return self


class Polygon(FrozenModel):
    """An opening of 3 to 8 straight sides by its sides and diagonals.

    Corner 1 is the foot of the hinge side, 2 the foot of the latch side, the rest go round over the head.
    """

    corners: Annotated[int, Field(ge=3, le=8)] = 4
    """How many corners the opening has."""
    spans: Annotated[tuple[PolygonSide, ...], Field(max_length=40)] = ()
    """Sides and diagonals."""
    floor_rise: LeanReading | None = None
    """How much the floor rises to the latch side by the level, mm."""
    lean_hinge: LeanReading | None = None
    """How far the hinge side leans by the level, mm."""

    @model_validator(mode="after")
    def _inside(self) -> Polygon:
        for at, each in enumerate(self.spans):
            if max(each.start, each.end) > self.corners:
                raise InputError(f"spans.{at}.end", max(each.start, each.end), f"a corner from 1 to {self.corners}")
        return self


Coordinate = Annotated[float, bounded(-10_000, 10_000, "coordinate")]
HeightAlong = Annotated[float, bounded(0, 4000, "height")]


class Tick(FrozenModel):
    """One tick: the mark on the board, and which way the stick lay.

    Either an angle (from the mark to the point, anticlockwise from the board's x), or a second point on the traced
    edge, x2 y2, or neither: then x y is the point itself.
    """

    x: Coordinate
    """Of the mark, mm along the board."""
    y: Coordinate
    """Of the mark, mm across the board."""
    angle_deg: Annotated[float, bounded(-360, 360, "angle", "°")] | None = None
    """Angle, degrees; None: by rule."""
    x2: Coordinate | None = None
    """Of the stick's other mark, or of the point, mm along the board; None where there is none."""
    y2: Coordinate | None = None
    """Of the stick's other mark, or of the point, mm across the board; None where there is none."""
    side: Annotated[int, Field(ge=1, le=8)] | None = None
    """1 the floor, 2 the latch side, then round over the head to the hinge side; None is left to the program."""
    excluded: bool = False
    """Taken out by hand."""

    @model_validator(mode="after")
    def _one_direction(self) -> Tick:
        if (self.x2 is None) is not (self.y2 is None):
            raise InputError("y2" if self.y2 is None else "x2", "nothing", "both figures of the second point")
        if self.x2 is not None and self.angle_deg is not None:
            raise InputError("angle_deg", self.angle_deg, "an angle or a second point, not both")
        if (self.x2, self.y2) == (self.x, self.y):
            raise InputError("x2", self.x2, "another point than the mark")
        return self


class TickForm(StrEnum):
    """How the direction of a tick is written."""

    ANGLE = "by its angle"
    SECOND = "by a second point"
    POINT = "points alone"


class TickTemplate(FrozenModel):
    """A template by ticks. The board is fixed to the hinge side; the nick, x y on it, says where."""

    stick: StickReading = Reading(value=250.0, state=Provenance.ASSUMED)
    """Point to mark."""
    form: TickForm = TickForm.ANGLE
    """How ticks are written."""
    sides: Annotated[int, Field(ge=3, le=8)] = 4
    """How many sides the opening has."""
    head: Literal["straight", "curved"] = "straight"
    """Whether the head is straight or an arc."""
    ticks: Annotated[tuple[Tick, ...], Field(max_length=5000)] = ()
    """The ticks."""
    check: Tick | None = None
    """A tick laid into a corner and kept out of the fit, that between `check_corner` and the next side round (1:
    floor and latch side, 2: latch side and head …).
    """
    check_corner: Annotated[int, Field(ge=1, le=8)] = 2
    """Number of the corner that the check reading is of."""
    nick_x: Coordinate = 0.0
    """Of the nick that says how the board stood, mm along the board."""
    nick_y: Coordinate = 0.0
    """Of the nick that says how the board stood, mm across the board."""
    nick_up: HeightAlong | None = None
    """The nick's height over the floor at the hinge side as read on the wall, so that the template finds its place
    again.
    """

    @model_validator(mode="after")
    def _inside(self) -> TickTemplate:
        for at, each in enumerate(self.ticks):
            if each.side is not None and each.side > self.sides:
                raise InputError(f"ticks.{at}.side", each.side, f"a side from 1 to {self.sides}")
        if self.check_corner > self.sides:
            raise InputError("check_corner", self.check_corner, f"a corner from 1 to {self.sides}")
        return self
