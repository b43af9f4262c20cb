"""The one shape of result that every construction gives: parts with their joints, panels and sight openings.

Coordinates are the finished leaf's, seen from the opening face with the hinges on the left: x from the hinge
edge, y up from the foot, in mm. A drawing for hinges on the right mirrors them; the numbers stay.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from oakmeasure.core.base.geometry import Point, field_grown
from oakmeasure.core.base.prisms import Solid, Span, block, bore, rod
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure

FIXING_DIAMETER = 3.5  # of a nail or screw, for what it must not meet: common practice, no source


@dataclass(frozen=True, slots=True)
class Rect:
    """An upright rectangle in the leaf."""

    x0: float
    """Left edge, mm."""
    y0: float
    """Lower edge, mm."""
    x1: float
    """Right edge, mm."""
    y1: float
    """Upper edge, mm."""

    @property
    def width(self) -> float:
        """Width, mm."""
        return self.x1 - self.x0

    @property
    def height(self) -> float:
        """Height, mm."""
        return self.y1 - self.y0

    def overlaps(self, other: Rect) -> bool:
        """Return whether two rectangles share an area; touching is none.

        Args:
            other: The other rectangle.
        """
        return self.x0 < other.x1 and other.x0 < self.x1 and self.y0 < other.y1 and other.y0 < self.y1


@dataclass(frozen=True, slots=True)
class Size:
    """length along the grain, width across it, thickness; mm."""

    length: float
    """Along the grain, mm."""
    width: float
    """Across the grain on the face, mm."""
    thickness: float
    """Thickness, mm."""


class Loose(StrEnum):
    """What joins two members that have no tenon of their own."""

    TENON = "loose tenon"
    DOWEL = "dowel"


TONGUE_ROOM = 1.0  # that a board's groove is deeper than its tongue, mm: common practice, no source


@dataclass(frozen=True, slots=True)
class Hold:
    """What holds a panel or a sheet by its edges: a groove, or a rebate and what closes it."""

    depth: Span
    """From where to where the groove lies, in from the opening face, mm; of a rebate to the face that it is open to."""
    room: tuple[float, float]
    """From the panel's edge to the groove's bottom, at its sides and at its ends, mm."""


@dataclass(frozen=True, slots=True)
class Tenon:
    """One tenon, where it lies in the finished leaf."""

    member: str
    """Name of the part that has it."""
    into: str
    """Name of the part that it goes into."""
    rect: Rect
    """The rectangle that it takes up, mm in the leaf."""
    thickness: float
    """Thickness across the leaf, mm."""
    through: bool
    """Whether it comes out on the other side."""
    is_haunch: bool = False
    """Whether it is a haunch beside a tenon."""
    is_upright: bool = False
    """Whether it goes up or down into a rail, not level into a stile."""
    middle: float = 0.0
    """Middle of its thickness, in from the leaf's opening face, mm."""
    loose: Loose | None = None
    """What it is where it is a piece of its own, half in each of two members; None for a member's own tenon."""

    @property
    def depth(self) -> Span:
        """From where to where it lies, in from the opening face, mm."""
        return self.middle - self.thickness / 2, self.middle + self.thickness / 2

    @property
    def solid(self) -> Solid:
        """Where it lies in the leaf."""
        r = self.rect
        return block(r.x0, r.y0, r.x1, r.y1, self.depth)

    @property
    def reach(self) -> float:
        """How far it goes in: upright into a rail, level into a stile."""
        return self.rect.height if self.is_upright else self.rect.width


@dataclass(frozen=True, slots=True)
class Part:
    """A part with the same name on the drawing, in the lists and on its label."""

    name: str
    """Its name in the leaf."""
    role: Role
    """What it is in the leaf."""
    face: Rect
    """What is seen of it in the finished leaf (a panel: its sight)."""
    outline: Rect
    """The whole part, tongues too."""
    grain_upright: bool
    """Whether its grain runs up the leaf."""
    species: str
    """Key of its species or sheet."""
    finished: Size
    """Its size in the hung leaf, mm."""
    planed: Size
    """Its size at the glue-up, the trimming allowance still on, mm."""
    rough: Size
    """Its size as it is sawn, mm."""
    length: Figure
    """Figure behind the finished length; None where there is none."""
    width: Figure
    """Figure behind the finished width; None where there is none."""
    mark: str = ""
    """Its number in the cut list."""
    shape: tuple[Point, ...] = ()
    """Corners of its face where that is no upright rectangle, () where it is."""
    depth: tuple[float, float] | None = None
    """From and to, into the leaf from its opening face; None: the whole thickness, a panel in its middle."""
    note: str = ""
    """What its cut ends or edges need, for the list."""
    boards: int = 1
    """Side by side, that it is made of."""
    fielded: float = 0.0
    """Width of the slope round a raised panel, mm; 0 for none."""
    at_hand: bool = False
    """It is there already and cut out of nothing."""
    is_old: bool = False
    """Of a leaf that hung before."""
    is_half: bool = False
    """Whether it is one of two pieces that a member is joined of end to end."""
    place: Place | None = None
    """Where it stands among those of its role; None where that is not told."""
    is_back: bool = False
    """Whether it lies on the closing face, behind another of its kind."""
    has_tongue: bool = False
    """Whether its latch edge has a tongue."""
    is_raked: bool = False
    """Whether its grain runs along the rake of the head."""
    hold: Hold | None = None
    """What holds it by its edges; None where nothing does."""
    tongues: tuple[Solid, ...] = ()
    """What stands out beyond its face into its neighbours: no tenon, those are the leaf's."""
    cuts: tuple[Solid, ...] = ()
    """What is cut out of it where it crosses another; what tenons, panels and tongues take needs no telling."""
    share: float = 1.0
    """How much of it is wood: less than 1 where it stands for blocks in a hollow."""
    layer_of: str = ""
    """Name of the member that it is a layer of; "" for none."""
    sloped: float = 0.0
    """How much thinner a raised panel is at its edges than in its field, mm."""

    @property
    def corners(self) -> tuple[Point, ...]:
        """Return the corners of its face."""
        f = self.face
        return self.shape or ((f.x0, f.y0), (f.x1, f.y0), (f.x1, f.y1), (f.x0, f.y1))

    @property
    def whole(self) -> tuple[Point, ...]:
        """Corners of all of it but tenons and tongues: of what a groove holds also what the groove hides."""
        if self.hold is None:
            return self.corners
        return field_grown(self.corners, self.face.x0 - self.outline.x0, self.face.y0 - self.outline.y0)

    @property
    def is_bent(self) -> bool:
        """Whether it is a level strip bent to a curve, or sawn to it: as long and wide as it was before."""
        return self.role is Role.LIPPING and len(self.shape) > 4 and not self.grain_upright

    @property
    def step_in(self) -> float:
        """How far in from a raised panel's edge the step lies that stands for its slopes, mm: clear of the groove."""
        return max(self.fielded / 2, self.face.x0 - self.outline.x0, self.face.y0 - self.outline.y0)

    @property
    def slug(self) -> str:
        """The name as figures' names have it, with underscores."""
        return self.name.replace(" ", "_").replace("-", "_")


@dataclass(frozen=True, slots=True)
class Fixing:
    """A screw or a nail.

    length, mm.
    """

    x: float
    """Across, mm."""
    y: float
    """Up, mm."""
    length: float
    """Length of the nail or screw, mm."""
    what: str
    """What it is."""
    slotted: bool
    """Its hole lets the wood move."""
    ref: str
    """Of the part that it holds."""
    depth: tuple[float, float] = (0.0, 0.0)
    """From and to, into the leaf from its opening face, of one driven square to it."""
    end: Point | None = None
    """Of one driven along the face, in the middle of the thickness that `depth` gives."""

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
    """What is glued at one time."""

    name: str
    """What comes of it."""
    length: float
    """Length along the row of its clamps, mm."""
    across: float
    """What they span; mm."""
    clamps: int
    """How many."""
    kind: GlueUpKind = GlueUpKind.OTHER
    """Of what kind it is."""


@dataclass(frozen=True, slots=True)
class Dim:
    """A size to be written on the setting-out drawing."""

    start: float
    """Where it begins, mm."""
    end: float
    """Where it ends, mm."""
    figure: str
    """Name of the figure; "" for none."""
    ref: str
    """What it shows, for pointing at it: "part:top rail"; "" for nothing."""
    upright: bool
    """Up the latch side, else along the top."""


@dataclass(frozen=True, slots=True)
class DrawnMark:
    """A line on the leaf's face that is no edge of a part: a V line, a groove, a recess."""

    points: tuple[Point, ...]
    """The points, mm."""
    ref: str
    """What it shows, for pointing at it: "part:top rail"; "" for nothing."""
    hidden: bool = False
    """Inside the wood."""


@dataclass(frozen=True, slots=True)
class Hollow:
    """A place in a leaf where there is no wood."""

    name: str
    """Its name, as it is shown."""
    face: Rect
    """Where it lies on the face, mm."""
    depth: tuple[float, float]
    """From where to where, in from the opening face, mm."""
    has_blocks: bool = False
    """Whether blocks of wood stand in it, nobody knows where."""


@dataclass(frozen=True, slots=True)
class Build:
    """A leaf as it is built."""

    width: float
    """Width as it is glued up, mm."""
    height: float
    """Height as it is glued up, mm."""
    thickness: float
    """Thickness, mm."""
    parts: tuple[Part, ...]
    """Its parts."""
    tenons: tuple[Tenon, ...] = ()
    """Its tenons."""
    sights: tuple[Rect, ...] = ()
    """What shows of each panel, mm."""
    groove_depth: float = 0.0
    """Depth of the panel groove, mm; 0 where there is none."""
    groove_width: float = 0.0
    """Width of the panel groove, mm; 0 where there is none."""
    tenon_thickness: float = 0.0
    """Thickness of the tenons, mm; 0 for none."""
    summary: str = ""
    """In a few words, how it is built."""
    fixings: tuple[Fixing, ...] = ()
    """Seen from the opening face."""
    dims: tuple[Dim, ...] = ()
    """Sizes to write; () leaves them to a frame's own."""
    says: str = ""
    """What its joints are, in a few words."""
    glue_ups: tuple[GlueUp, ...] = ()
    """One after the other."""
    layered: bool = False
    """Its parts lie on one another, the foremost hides the others."""
    refused: tuple[Fixing, ...] = ()
    """Fixings that would meet a lock or a hinge."""
    marks: tuple[DrawnMark, ...] = ()
    """What else is drawn on it."""
    outline: tuple[Point, ...] = ()
    """Corners of the leaf, anticlockwise, mm; () for an upright rectangle."""

    def depth_of(self, part: Part) -> tuple[float, float]:
        """Return from where to where a part lies into the leaf from its opening face, mm.

        Args:
            part: The part.
        """
        if part.depth is not None:
            return part.depth
        if part.role is Role.PANEL:
            middle, half = self.thickness / 2, part.finished.thickness / 2
            return middle - half, middle + half
        return 0.0, self.thickness

    def at(self, role: Role, place: Place) -> Part | None:
        """Return the part of a role at a place, the front one of two; None where there is none.

        Args:
            role: What it is in the leaf.
            place: Where it stands among those of its role; None where that is not told.
        """
        return next((p for p in self.parts if p.role is role and p.place is place and not p.is_back), None)

    def is_at(self, name: str, role: Role, place: Place) -> bool:
        """Return whether the part called `name` is that of a role at a place.

        Args:
            name: Its name.
            role: What it is in the leaf.
            place: Where it stands among those of its role; None where that is not told.
        """
        found = self.at(role, place)
        return found is not None and found.name == name

    def part(self, name: str) -> Part:
        """Return the part called `name`; KeyError when there is none.

        Args:
            name: Its name.
        """
        for each in self.parts:
            if each.name == name:
                return each
        raise KeyError(name)
