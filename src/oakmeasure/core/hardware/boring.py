"""What is cut and bored for hardware: named, measured from an end and an edge, and, in a leaf, as a solid."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from oakmeasure.core.base.prisms import Solid, block
from oakmeasure.core.document.hanging import Hanging


class Device(StrEnum):
    """What something is cut for."""

    BUTT = "butt"
    CUP = "cup"
    PLATE = "plate"
    LOCK = "lock"
    LATCH = "latch"
    PULL = "pull"
    BOLT = "flush bolt"
    HANGER = "hanger"
    WHEEL = "wheel"
    HEAD_GUIDE = "head groove"
    FLOOR_GUIDE = "guide groove"


class BoringKind(StrEnum):
    """What is cut; its words, with places for the number of its device and its own."""

    BUTT = "butt {number}"
    CUP = "cup {number}"
    CUP_SCREW = "cup {number} screw {at}"
    CUP_DOWEL = "cup {number} dowel {at}"
    PLATE = "plate {number}"
    LOCK_MORTISE = "lock mortise"
    LOCK_FOREND = "lock forend"
    LOCK_KEEP = "lock keep"
    SPINDLE_HOLE = "spindle hole"
    KEYHOLE = "keyhole"
    LATCH_BORE = "latch bore"
    LATCH_FOREND = "latch forend"
    LATCH_KEEP = "latch keep"
    LATCH_SPINDLE = "latch spindle"
    THUMB_SLOT = "thumb slot"
    PULL_HOLE = "pull hole {at}"
    FLUSH_PULL = "flush pull"
    BOLT_TOP = "flush bolt top"
    BOLT_FOOT = "flush bolt foot"
    BOLT_HOLE_TOP = "bolt hole top"
    BOLT_HOLE_FOOT = "bolt hole foot"
    HANGER_BOLT = "hanger {number} bolt {at}"
    HANGER_RECESS = "hanger {number} recess"
    WHEEL_RECESS = "wheel {number} recess"
    HEAD_GROOVE = "head groove"
    GUIDE_GROOVE = "guide groove"

    @property
    def device(self) -> Device:
        """What it is cut for."""
        return _DEVICES[self]

    @property
    def is_forend(self) -> bool:
        """Whether it is a plate let in round another cut."""
        return self in (BoringKind.LOCK_FOREND, BoringKind.LATCH_FOREND)

    @property
    def is_keep(self) -> bool:
        """Whether a lock or a latch shuts into it."""
        return self in (BoringKind.LOCK_KEEP, BoringKind.LATCH_KEEP)

    @property
    def is_recess(self) -> bool:
        """Whether gear is let in there."""
        return self in (BoringKind.HANGER_RECESS, BoringKind.WHEEL_RECESS)

    @property
    def is_groove(self) -> bool:
        """Whether it runs all along its edge."""
        return self in (BoringKind.HEAD_GROOVE, BoringKind.GUIDE_GROOVE)

    @property
    def is_bolt_hole(self) -> bool:
        """Whether a flush bolt shuts into it."""
        return self in (BoringKind.BOLT_HOLE_TOP, BoringKind.BOLT_HOLE_FOOT)

    @property
    def holds_a_screw(self) -> bool:
        """Whether a screw bites in it."""
        return self is BoringKind.CUP_SCREW

    @property
    def is_round(self) -> bool:
        """Whether it is drilled: one marks its middle."""
        return self in _ROUND


_ROUND = (
    BoringKind.CUP,
    BoringKind.CUP_SCREW,
    BoringKind.CUP_DOWEL,
    BoringKind.SPINDLE_HOLE,
    BoringKind.KEYHOLE,
    BoringKind.LATCH_BORE,
    BoringKind.LATCH_SPINDLE,
    BoringKind.PULL_HOLE,
    BoringKind.HANGER_BOLT,
    BoringKind.BOLT_HOLE_TOP,
    BoringKind.BOLT_HOLE_FOOT,
)
_OF_DEVICE = {
    Device.BUTT: (BoringKind.BUTT,),
    Device.CUP: (BoringKind.CUP, BoringKind.CUP_SCREW, BoringKind.CUP_DOWEL),
    Device.PLATE: (BoringKind.PLATE,),
    Device.LOCK: (
        BoringKind.LOCK_MORTISE,
        BoringKind.LOCK_FOREND,
        BoringKind.LOCK_KEEP,
        BoringKind.SPINDLE_HOLE,
        BoringKind.KEYHOLE,
    ),
    Device.LATCH: (
        BoringKind.LATCH_BORE,
        BoringKind.LATCH_FOREND,
        BoringKind.LATCH_KEEP,
        BoringKind.LATCH_SPINDLE,
        BoringKind.THUMB_SLOT,
    ),
    Device.PULL: (BoringKind.PULL_HOLE, BoringKind.FLUSH_PULL),
    Device.BOLT: (BoringKind.BOLT_TOP, BoringKind.BOLT_FOOT, BoringKind.BOLT_HOLE_TOP, BoringKind.BOLT_HOLE_FOOT),
    Device.HANGER: (BoringKind.HANGER_BOLT, BoringKind.HANGER_RECESS),
    Device.WHEEL: (BoringKind.WHEEL_RECESS,),
    Device.HEAD_GUIDE: (BoringKind.HEAD_GROOVE,),
    Device.FLOOR_GUIDE: (BoringKind.GUIDE_GROOVE,),
}
_DEVICES = {kind: device for device, kinds in _OF_DEVICE.items() for kind in kinds}


class Surface(StrEnum):
    """Which surface of the leaf, or of what carries it, something is cut into."""

    HINGE_EDGE = "hinge edge"
    LATCH_EDGE = "latch edge"
    MEETING_EDGE = "meeting edge"
    HEAD = "head"
    FOOT = "foot"
    OPENING_FACE = "opening face"
    CLOSING_FACE = "closing face"
    CARRIER = "what carries the leaf"

    @property
    def is_face(self) -> bool:
        """Whether it is a face of the leaf."""
        return self in (Surface.OPENING_FACE, Surface.CLOSING_FACE)

    @property
    def is_end(self) -> bool:
        """Whether it is the leaf's head or foot."""
        return self in (Surface.HEAD, Surface.FOOT)


class CutSide(StrEnum):
    """From where something is cut, and between which edges it lies: in words for a list."""

    HINGE_EDGE = "hinge edge"
    LATCH_EDGE = "latch edge, in its middle"
    MEETING_EDGE = "meeting edge, in its middle"
    HEAD = "head, in its middle"
    HEAD_ALONG = "head, in its middle, all along"
    FOOT = "foot, in its middle"
    FOOT_ALONG = "foot, in its middle, all along"
    CLOSING_AT_HINGE = "closing face, at the hinge edge"
    OPENING_AT_LATCH = "opening face, from the latch edge"
    OPENING_THROUGH_AT_HINGE = "opening face, through, from the hinge edge"
    OPENING_THROUGH_AT_LATCH = "opening face, through, from the latch edge"
    THROUGH_AT_LATCH = "through, from the latch edge"
    BOTH_FACES_AT_LATCH = "both faces, from the latch edge"
    FACE_TO_LEAF = "face to the leaf"
    CABINET_INSIDE = "inside, from the front edge"
    MEETING_LINE = "from the meeting line"

    @property
    def surface(self) -> Surface:
        """The surface that it is cut into."""
        return _SURFACES.get(self, Surface.OPENING_FACE)

    @property
    def is_measured_from_latch(self) -> bool:
        """Whether its place across is measured from the latch edge, or it lies in that edge."""
        return self in _FROM_LATCH

    @property
    def is_measured_from_hinge(self) -> bool:
        """Whether its place across is measured from the hinge edge, or it lies in that edge."""
        return self in (CutSide.HINGE_EDGE, CutSide.CLOSING_AT_HINGE, CutSide.OPENING_THROUGH_AT_HINGE)


_SURFACES = {
    CutSide.HINGE_EDGE: Surface.HINGE_EDGE,
    CutSide.LATCH_EDGE: Surface.LATCH_EDGE,
    CutSide.MEETING_EDGE: Surface.MEETING_EDGE,
    CutSide.HEAD: Surface.HEAD,
    CutSide.HEAD_ALONG: Surface.HEAD,
    CutSide.FOOT: Surface.FOOT,
    CutSide.FOOT_ALONG: Surface.FOOT,
    CutSide.CLOSING_AT_HINGE: Surface.CLOSING_FACE,
    CutSide.FACE_TO_LEAF: Surface.CARRIER,
    CutSide.CABINET_INSIDE: Surface.CARRIER,
    CutSide.MEETING_LINE: Surface.CARRIER,
}
_FROM_LATCH = (
    CutSide.LATCH_EDGE,
    CutSide.OPENING_AT_LATCH,
    CutSide.OPENING_THROUGH_AT_LATCH,
    CutSide.THROUGH_AT_LATCH,
    CutSide.BOTH_FACES_AT_LATCH,
)


class Datum(StrEnum):
    """From where a cut's upper end is measured."""

    LEAF_TOP = "down from the leaf's top"
    HINGE_EDGE_TOP = "down from the top of the hinge edge"
    LATCH_EDGE_TOP = "down from the top of the latch edge"
    JAMB_HEAD = "down from the head, on this jamb"
    OPENING_EDGE = "down from the opening's upper edge, on this side"
    INTO_HEAD = "up into the head"
    INTO_FLOOR = "down into the floor"


class CutIn(StrEnum):
    """Whose wood something is cut in."""

    LEAF = "the leaf"
    SLOW_LEAF = "the slow leaf of a pair"
    HINGE_SIDE = "what carries the leaf, at its hinge edge"
    LATCH_SIDE = "what carries the leaf, at its latch edge"
    HEAD = "the lining's head"
    FLOOR = "the floor"

    @property
    def is_leaf(self) -> bool:
        """Whether it is cut in a leaf."""
        return self in (CutIn.LEAF, CutIn.SLOW_LEAF)


@dataclass(frozen=True, slots=True)
class Boring:
    """A cut for hardware; lengths in mm."""

    kind: BoringKind
    """What is cut."""
    cut_in: CutIn
    """Whose wood."""
    part: str
    """The part that it is cut in, by its name, or what carries the leaf, in words."""
    side: CutSide
    """From where it is cut."""
    datum: Datum
    """From where `from_top` is measured."""
    from_top: float
    """To its upper end."""
    along: float
    """How long it is, up the member, mm."""
    across: float
    """How wide it is, or how far from the face or edge that `side` names, mm."""
    depth: float
    """How far it goes into the edge or the face, mm."""
    solid: Solid | None = None
    """Where it lies in the leaf; None for a cut in what carries it."""
    number: int = 0
    """Of its device, from the top or from the hinge edge; 0 where there is one."""
    at: int = 0
    """Its own, where a device has several."""

    @property
    def name(self) -> str:
        """What it is called on drawings and in lists."""
        return self.kind.value.format(number=self.number, at=self.at)

    @property
    def member(self) -> str:
        """The part that it is cut in, in words: of the slow leaf of a pair it says so."""
        return f"{self.part}, slow leaf" if self.cut_in is CutIn.SLOW_LEAF else self.part

    @property
    def edge(self) -> str:
        """From where it is cut, in words."""
        return str(self.side)

    @property
    def ref(self) -> str:
        """What it is shown by on a drawing: "butt:1" for butt 1, "cup:2" for cup 2 with its screws or dowels."""
        if self.kind.device is Device.CUP:
            return f"cup:{self.number}"
        kind, _, number = self.name.rpartition(" ")
        return f"{kind}:{number}"

    @property
    def family(self) -> str:
        """What it belongs to: all of a lock is one, a cup and its screws, a butt and its screws."""
        if self.number and self.kind.device in _NUMBERED:
            return f"{self.kind.device} {self.number}"
        if self.kind is BoringKind.THUMB_SLOT or self.kind.device is Device.BOLT:
            return self.name
        return self.name if self.kind is BoringKind.FLUSH_PULL else str(self.kind.device)

    @property
    def is_slow(self) -> bool:
        """Whether it is cut in the slow leaf of a pair, or where that is bolted."""
        return self.cut_in is CutIn.SLOW_LEAF or self.kind.is_bolt_hole

    @property
    def is_active(self) -> bool:
        """Whether, of a pair, it is cut in the active leaf alone: what a lock or latch needs."""
        return self.kind.device in (Device.LOCK, Device.LATCH) and not self.is_slow

    @property
    def to(self) -> float:
        """Its lower end, from the same datum, mm."""
        return self.from_top + self.along

    @property
    def marked_at(self) -> float:
        """Where one marks it, from the same datum, mm: the middle of what is drilled, the upper end of what is cut."""
        return self.from_top + (self.along / 2 if self.kind.is_round else 0.0)


_NUMBERED = (Device.BUTT, Device.CUP, Device.PLATE, Device.HANGER, Device.WHEEL)


def jamb_datum(hanging: Hanging) -> Datum:
    """Return from where one measures on what carries the leaf.

    Args:
        hanging: How the leaf hangs.
    """
    return Datum.OPENING_EDGE if hanging.is_cabinet else Datum.JAMB_HEAD


def leg(hanging: Hanging, side: str) -> str:
    """Return what carries the leaf at a side, "hinge" or "latch": a lining's leg or a cabinet's side.

    Args:
        hanging: How the leaf hangs.
        side: "hinge" or "latch".
    """
    return f"cabinet, {side} side" if hanging is Hanging.INSET_BUTTS else f"{side} lining leg"


def leaf_cut(
    kind: BoringKind, part: str, side: CutSide, from_top: float, size: tuple[float, float, float], solid: Solid
) -> Boring:
    """Return a cut in the leaf, measured down from its top.

    Args:
        kind: What is cut.
        part: Name of the part that it is cut in.
        side: From where it is cut.
        from_top: To its upper end, mm.
        size: How long it is, how wide or how far from the face or edge that `side` names, and how deep, mm.
        solid: Where it lies in the leaf.
    """
    return Boring(kind, CutIn.LEAF, part, side, Datum.LEAF_TOP, from_top, *size, solid)


@dataclass(frozen=True, slots=True)
class KeepPlate:
    """The plate that a lock or latch shuts into, mm."""

    from_top: float
    """Its upper end, down from the leaf's top."""
    length: float
    """Its length, up the edge."""
    width: float
    """Its width, across the edge."""
    thickness: float
    """Its thickness, let in flush."""
    depth: tuple[float, float]
    """Where it lies in the slow leaf's edge, in from the opening face."""


def keep(
    kind: BoringKind, hanging: Hanging, member: str, *, plate: KeepPlate, on_jamb: float, leaf: tuple[float, float]
) -> Boring | None:
    """Return the plate that a lock or latch shuts into: in the lining, or of a pair in the edge of its slow leaf.

    None where nothing stands there.

    Args:
        kind: What is cut: a lock's keep or a latch's.
        hanging: How the leaf hangs.
        member: Name of the part that the lock or latch is in.
        plate: The plate and where it sits.
        on_jamb: Where its upper end comes on the jamb that the leaf shuts to, down from the head there, mm.
        leaf: Width and height of the leaf, mm.
    """
    (width, height), from_top = leaf, plate.from_top
    long, wide, thick = plate.length, plate.width, plate.thickness
    if hanging is Hanging.PAIR:
        y = height - from_top
        return Boring(
            kind,
            CutIn.SLOW_LEAF,
            member,
            CutSide.MEETING_EDGE,
            Datum.LEAF_TOP,
            from_top,
            long,
            wide,
            thick,
            block(width - thick, y - long, width, y, plate.depth),
        )
    if not hanging.has_butts:
        return None
    return Boring(
        kind,
        CutIn.LATCH_SIDE,
        leg(hanging, "latch"),
        CutSide.FACE_TO_LEAF,
        jamb_datum(hanging),
        on_jamb,
        long,
        wide,
        thick,
    )
