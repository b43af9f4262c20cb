"""The one shape of result that every construction gives: parts with their joints, panels and sight openings.

Coordinates are the finished leaf's, seen from the opening face with the hinges on the left: x from the hinge
edge, y up from the foot, in mm. A drawing for hinges on the right mirrors them; the numbers stay.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.prisms import Solid, bore, rod
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure

FIXING_DIAMETER = 3.5  # of a nail or screw, for what it must not meet: common practice, no source


@dataclass(frozen=True, slots=True)
class Rect:
    """An upright rectangle in the leaf."""

    x0: float
    y0: float
    x1: float
    y1: float

    @property
    def width(self) -> float:
        return self.x1 - self.x0

    @property
    def height(self) -> float:
        return self.y1 - self.y0

    def overlaps(self, other: Rect) -> bool:
        return self.x0 < other.x1 and other.x0 < self.x1 and self.y0 < other.y1 and other.y0 < self.y1


@dataclass(frozen=True, slots=True)
class Size:
    """length along the grain, width across it, thickness; mm."""

    length: float
    width: float
    thickness: float


@dataclass(frozen=True, slots=True)
class Tenon:
    """One tenon, where it lies in the finished leaf. thickness: across the leaf."""

    member: str
    into: str
    rect: Rect
    thickness: float
    through: bool
    is_haunch: bool = False
    is_upright: bool = False
    """Whether it goes up or down into a rail, not level into a stile."""

    @property
    def volume(self) -> float:
        return self.rect.width * self.rect.height * self.thickness

    @property
    def reach(self) -> float:
        """How far it goes in: upright into a rail, level into a stile."""
        return self.rect.height if self.is_upright else self.rect.width


@dataclass(frozen=True, slots=True)
class Part:
    """A part with the same name on the drawing, in the lists and on its label.

    face: what is seen of it in the finished leaf (a panel: its sight). outline: the whole part, tongues too.
    finished: in the hung leaf. planed: at the glue-up, trimming allowance still on. rough: sawn.
    length, width: the figures behind `finished`. volume: net of joints and grooves, mm³, finished.
    mark: its number in the cut list. shape: corners of its face where that is no upright rectangle, () where it is.
    depth: from and to, into the leaf from its opening face; None: the whole thickness, a panel in its middle.
    note: what its cut ends or edges need, for the list. boards: side by side, that it is made of. fielded: width of the
    slope round a raised panel. at_hand: it is there already and cut out of nothing. is_old: of a leaf that hung before.
    """

    name: str
    role: Role
    face: Rect
    outline: Rect
    grain_upright: bool
    species: str
    finished: Size
    planed: Size
    rough: Size
    length: Figure
    width: Figure
    volume: float
    mark: str = ""
    shape: tuple[Point, ...] = ()
    depth: tuple[float, float] | None = None
    note: str = ""
    boards: int = 1
    fielded: float = 0.0
    at_hand: bool = False
    is_old: bool = False
    place: Place | None = None
    """Where it stands among those of its role; None where that is not told."""
    is_back: bool = False
    """Whether it lies on the closing face, behind another of its kind."""

    @property
    def corners(self) -> tuple[Point, ...]:
        """Return the corners of its face."""
        f = self.face
        return self.shape or ((f.x0, f.y0), (f.x1, f.y0), (f.x1, f.y1), (f.x0, f.y1))

    @property
    def slug(self) -> str:
        return self.name.replace(" ", "_").replace("-", "_")


@dataclass(frozen=True, slots=True)
class Fixing:
    """A screw or a nail. length, mm. slotted: its hole lets the wood move. ref: of the part that it holds. depth: from
    and to, into the leaf from its opening face, of one driven square to it. end: of one driven along the face, in the
    middle of the thickness that `depth` gives.
    """

    x: float
    y: float
    length: float
    what: str
    slotted: bool
    ref: str
    depth: tuple[float, float] = (0.0, 0.0)
    end: Point | None = None

    @property
    def solid(self) -> Solid:
        """Where it lies in the leaf."""
        if self.end is not None:
            return rod((self.x, self.y), self.end, FIXING_DIAMETER, (self.depth[0] + self.depth[1]) / 2)
        return bore(self.x, self.y, FIXING_DIAMETER, self.depth)


class GlueUpKind(StrEnum):
    """Glue-ups that steps are looked up for."""

    FRAME = "frame"
    NEW_END = "end"
    AGAIN = "again"
    OTHER = "over"


@dataclass(frozen=True, slots=True)
class GlueUp:
    """What is glued at one time. length: along its clamps' row; across: what they span; mm. clamps: how many."""

    name: str
    length: float
    across: float
    clamps: int
    kind: GlueUpKind = GlueUpKind.OTHER


@dataclass(frozen=True, slots=True)
class Dim:
    """A size to be written on the setting-out drawing. upright: up the latch side, else along the top."""

    start: float
    end: float
    figure: str
    ref: str
    upright: bool


@dataclass(frozen=True, slots=True)
class DrawnMark:
    """A line on the leaf's face that is no edge of a part: a V line, a groove, a recess. hidden: inside the wood."""

    points: tuple[Point, ...]
    ref: str
    hidden: bool = False


@dataclass(frozen=True, slots=True)
class Hollow:
    """A place in a leaf where there is no wood."""

    name: str
    face: Rect
    depth: tuple[float, float]
    """From where to where, in from the opening face, mm."""
    has_blocks: bool = False
    """Whether blocks of wood stand in it, nobody knows where."""


@dataclass(frozen=True, slots=True)
class Build:
    """A leaf as it is built. groove_*: of the panel groove, 0 where there is none. edge: thickness at its edges.

    fixings: seen from the opening face. dims: sizes to write; () leaves them to a frame's own. says: what its joints
    are, in a few words. glue_ups: one after the other. layered: its parts
    lie on one another, the foremost hides the others. refused: fixings that would meet a lock or a hinge.
    """

    width: float
    height: float
    thickness: float
    parts: tuple[Part, ...]
    tenons: tuple[Tenon, ...] = ()
    sights: tuple[Rect, ...] = ()
    groove_depth: float = 0.0
    groove_width: float = 0.0
    tenon_thickness: float = 0.0
    summary: str = ""
    edge: float = 0.0
    fixings: tuple[Fixing, ...] = ()
    dims: tuple[Dim, ...] = ()
    says: str = ""
    glue_ups: tuple[GlueUp, ...] = ()
    layered: bool = False
    refused: tuple[Fixing, ...] = ()
    marks: tuple[DrawnMark, ...] = ()

    @property
    def middle(self) -> float:
        """Where the middle of its edge lies, from the opening face, mm: there tenons are."""
        return (self.edge or self.thickness) / 2

    def depth_of(self, part: Part) -> tuple[float, float]:
        """Return from where to where a part lies into the leaf from its opening face, mm."""
        if part.depth is not None:
            return part.depth
        if part.role is Role.PANEL:
            middle, half = self.thickness / 2, part.finished.thickness / 2
            return middle - half, middle + half
        return 0.0, self.thickness

    def at(self, role: Role, place: Place) -> Part | None:
        """Return the part of a role at a place, the front one of two; None where there is none."""
        return next((p for p in self.parts if p.role is role and p.place is place and not p.is_back), None)

    def is_at(self, name: str, role: Role, place: Place) -> bool:
        """Return whether the part called `name` is that of a role at a place."""
        found = self.at(role, place)
        return found is not None and found.name == name

    def part(self, name: str) -> Part:
        """Return the part called `name`; KeyError when there is none."""
        for each in self.parts:
            if each.name == name:
                return each
        raise KeyError(name)
