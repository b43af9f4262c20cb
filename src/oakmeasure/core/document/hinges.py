"""Hardware as the document holds it: butts and their packet, screws, lock, pull, template, cups. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from oakmeasure.core.document.cup_hinges import CupChoices
from oakmeasure.core.document.readings import ButtLength, RatingReading, Reading, SmallReading
from oakmeasure.core.document.rules import ButtSchool, FrozenModel, bounded
from oakmeasure.core.document.sliding_gear import Guide, HangerChoices, StackChoices, WallChoices
from oakmeasure.core.document.text import Line
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.data import table


class Butt(FrozenModel):
    """A butt hinge as it lies on the bench; each figure says how well it is known."""

    name: Line
    """Its name, as it is shown."""
    length: ButtLength
    """Length of the butt, mm."""
    leaf_width: SmallReading
    """Width of one leaf of it, pin to edge, mm."""
    closed_thickness: SmallReading
    """Thickness when closed, mm."""
    pin_projection: SmallReading
    """Pin centre out from the opening face."""
    pin_inset: SmallReading
    """Pin centre back from the leaf's edge."""
    rating_kg: RatingReading
    """The leaf that a set of them carries."""
    metal_thickness: SmallReading | None = None
    """Thickness of the metal of one leaf of it, mm; None: nobody measured it."""


BUTT_SIZES = ("length", "leaf_width", "closed_thickness", "pin_projection", "pin_inset", "rating_kg")


def butt_from_table(key: str) -> Butt:
    """Return the butt `key` of data/butts.toml, its figures in the state *from a table*.

    Args:
        key: Its key in the table.
    """
    row = table("butts")[key]

    def known(name: str) -> Reading:
        return Reading(value=row[name], state=Provenance.FROM_TABLE)

    return Butt(name=row["name"], **{each: known(each) for each in (*BUTT_SIZES, "metal_thickness")})


def is_chosen(butt: Butt) -> bool:
    """Return whether somebody chose a butt: until then one is taken so that there is something to reckon with.

    Args:
        butt: The butt, as the document holds it.
    """
    return any(getattr(butt, each).state is not Provenance.ASSUMED for each in BUTT_SIZES)


def _default_butt() -> Butt:
    """Return the butt that is taken until somebody chooses one: its figures are assumed."""
    usual = butt_from_table("brock-100")
    sizes = {each: Reading(value=getattr(usual, each).value, state=Provenance.ASSUMED) for each in BUTT_SIZES}
    return usual.model_copy(update={**sizes, "metal_thickness": None})


class MortiseLock(FrozenModel):
    """A mortise lock.

    spindle_up: of the spindle from the case's foot; bores: of their holes.
    """

    case_depth: Annotated[float, bounded(30, 250, "lock case")] = 76.0
    """Forend to the case's back."""
    case_height: Annotated[float, bounded(40, 350, "lock case")] = 150.0
    """Height of the lock's case, mm."""
    backset: Annotated[float, bounded(15, 200, "backset")] = 55.0
    """From the latch edge to the spindle, mm."""
    case_thickness: Annotated[float, bounded(6, 40, "lock case")] = 15.0
    """Thickness of the lock's case, mm."""
    forend_length: Annotated[float, bounded(60, 500, "forend")] = 200.0
    """Length of the forend that is let into the edge, mm."""
    forend_width: Annotated[float, bounded(10, 40, "forend")] = 20.0
    """Width of the forend that is let into the edge, mm."""
    forend_thickness: Annotated[float, bounded(1, 8, "forend")] = 3.0
    """Thickness of the forend that is let into the edge, mm."""
    key_below: Annotated[float, bounded(0, 150, "keyhole")] = 57.0
    """Keyhole under it, mm."""
    spindle_bore: Annotated[float, bounded(6, 60, "spindle hole")] = 18.0
    """Spindle hole, mm."""
    key_bore: Annotated[float, bounded(0, 40, "keyhole")] = 16.0
    """Keyhole, mm."""


class PacketButt(FrozenModel):
    """One hinge of a packet as it measures: its length, the width of a leaf, its thickness when shut."""

    length: Annotated[float, bounded(20, 300, "butt length")]
    """Butt length, mm."""
    width: Annotated[float, bounded(5, 150, "butt width")]
    """Butt width, mm."""
    closed_thickness: Annotated[float, bounded(0.5, 20, "butt thickness")]
    """Butt thickness, mm."""


class Screws(FrozenModel):
    """The screws of one leaf of a butt."""

    diameter: Annotated[float, bounded(2, 8, "screw")] = 4.0
    """Diameter of a screw, mm."""
    length: Annotated[float, bounded(10, 120, "screw")] = 32.0
    """Length of a screw, mm."""
    count: Annotated[int, Field(ge=2, le=12)] = 4
    """How many there are in one butt."""


class RouterTemplate(FrozenModel):
    """A template for letting in: the guide bush runs in it, the cutter inside the bush."""

    bush: Annotated[float, bounded(6, 60, "guide bush")] = 17.0
    """Guide bush, mm."""
    cutter: Annotated[float, bounded(3, 40, "cutter")] = 12.0
    """Cutter, mm."""


class PullKind(StrEnum):
    """What the leaf is pulled by."""

    NONE = "nothing yet"
    BAR = "a bar, screwed from behind"
    FLUSH = "a flush pull, let in"


class Pull(FrozenModel):
    """A pull and where it stands, mm."""

    kind: PullKind = PullKind.NONE
    """Bar, flush pull or none."""
    centres: Annotated[float, bounded(20, 800, "centres")] = 160.0
    """Of a bar's two screws."""
    up: Annotated[float, bounded(100, 2500, "height")] = 1000.0
    """Middle above the floor, mm."""
    in_from: Annotated[float, bounded(10, 400, "from the edge")] = 45.0
    """Middle from the latch edge, mm."""
    recess_high: Annotated[float, bounded(10, 400, "recess")] = 120.0
    """Height of a flush pull's recess, mm."""
    recess_wide: Annotated[float, bounded(10, 120, "recess")] = 40.0
    """Width of a flush pull's recess, mm."""
    recess_deep: Annotated[float, bounded(1, 40, "recess")] = 12.0
    """Depth of a flush pull's recess, mm."""


class LatchKind(StrEnum):
    """What keeps the leaf shut, where that is no mortise lock."""

    NONE = "none"
    TUBULAR = "a tubular latch, bored into the edge"
    CATCH = "a roller or ball catch, bored into the edge"
    THUMB = "a thumb latch, on the face"
    RIM = "a rim latch, on the closing face"


class Latch(FrozenModel):
    """A latch and where it stands, mm."""

    kind: LatchKind = LatchKind.NONE
    """Which latch."""
    up: Annotated[float, bounded(100, 2500, "height")] = 1000.0
    """Its middle above the floor, mm."""
    backset: Annotated[float, bounded(15, 200, "backset")] = 45.0
    """Latch edge to the spindle, the thumb's slot or a rim latch's spindle."""
    bore: Annotated[float, bounded(6, 40, "bore")] = 23.0
    """Of its body in the edge, mm."""
    deep: Annotated[float, bounded(15, 150, "bore, depth")] = 64.0
    """How far, mm."""
    plate_length: Annotated[float, bounded(0, 200, "forend")] = 58.0
    """Length of the forend that is let in, mm."""
    plate_width: Annotated[float, bounded(5, 40, "forend")] = 25.0
    """Width of the forend that is let in, mm."""
    plate_thickness: Annotated[float, bounded(0.5, 8, "forend")] = 3.0
    """Thickness of the forend that is let in, mm."""
    spindle: Annotated[float, bounded(5, 60, "spindle hole")] = 16.0
    """Hole through the leaf, mm."""
    slot_high: Annotated[float, bounded(10, 80, "slot")] = 36.0
    """Height of a thumb latch's slot, mm."""
    slot_wide: Annotated[float, bounded(5, 40, "slot")] = 14.0
    """Width of a thumb latch's slot, mm."""


class FlushBolts(FrozenModel):
    """Bolts let into the edge of a pair's slow leaf."""

    length: Annotated[float, bounded(60, 600, "bolt")] = 200.0
    """How long a bolt is, mm."""
    width: Annotated[float, bounded(8, 40, "bolt")] = 19.0
    """How wide a bolt is, mm."""
    deep: Annotated[float, bounded(4, 40, "bolt")] = 14.0
    """How deep a bolt is, mm."""
    bolt: Annotated[float, bounded(4, 25, "bolt")] = 10.0
    """Bolt, mm."""
    into: Annotated[float, bounded(5, 60, "bolt's hole")] = 18.0
    """Head and floor, how far."""


class HardwareChoices(FrozenModel):
    """The butts, None leaving number and school to the rules; the lock, None for none; cup hinges of a cabinet leaf."""

    butt: Butt = Field(default_factory=_default_butt)
    """The butt."""
    count: Annotated[int, Field(ge=2, le=6)] | None = None
    """How many butts; None by the rule."""
    school: ButtSchool | None = None
    """Where the butts go; None by the shop rule."""
    lock: MortiseLock | None = None
    """The mortise lock; None for none."""
    cup: CupChoices = Field(default_factory=CupChoices)
    """The cup hinges of a cabinet's door."""
    tops: Annotated[tuple[Annotated[float, bounded(0, 3500, "butt from the top")], ...], Field(max_length=6)] = ()
    """Upper ends of the butts by hand, down from the leaf's top; () by school."""
    packet: Annotated[tuple[PacketButt, ...], Field(max_length=12)] = ()
    """As they measure, from the top one down."""
    screws: Screws = Screws()
    """The butts' screws."""
    template: RouterTemplate | None = None
    """None for none."""
    pull: Pull = Pull()
    """The pull."""
    latch: Latch = Latch()
    """The latch."""
    bolts: FlushBolts | None = None
    """Of a pair; None for none."""
    hangers: HangerChoices = HangerChoices()
    """Hangers of a leaf that slides."""
    wall: WallChoices = WallChoices()
    """The wall that the track of a sliding leaf is fixed to."""
    stack: StackChoices = StackChoices()
    """What its track's screws pass, or the one long screw of each hinge."""
    guide: Guide = Guide()
    """Guide of a leaf that slides."""
