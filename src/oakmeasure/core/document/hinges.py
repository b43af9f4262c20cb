"""Hardware as the document holds it: butts and their packet, screws, lock, pull, template, cups. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from oakmeasure.core.document.cup_hinges import CupChoices
from oakmeasure.core.document.readings import ButtLength, RatingReading, Reading, SmallReading
from oakmeasure.core.document.rules import ButtSchool, FrozenModel, bounded
from oakmeasure.core.document.sliding_gear import Guide, HangerChoices, StackChoices, WallChoices
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.data import table


class Butt(FrozenModel):
    """A butt hinge as it lies on the bench; each figure says how well it is known.

    knuckle: pin centre out from the opening face. setback: pin centre back from the leaf's edge. rating_kg: the
    leaf that a set of them carries.
    """

    name: str
    length: ButtLength
    leaf: SmallReading
    closed: SmallReading
    knuckle: SmallReading
    setback: SmallReading
    rating_kg: RatingReading


def butt_from_table(key: str) -> Butt:
    """Return the butt `key` of data/butts.toml, its figures in the state *from a table*."""
    row = table("butts")[key]

    def known(name: str) -> Reading:
        return Reading(value=row[name], state=Provenance.FROM_TABLE)

    return Butt(
        name=row["name"],
        **{each: known(each) for each in ("length", "leaf", "closed", "knuckle", "setback", "rating_kg")},
    )


def _default_butt() -> Butt:
    return butt_from_table("brock-100")


class MortiseLock(FrozenModel):
    """A mortise lock. case_depth: forend to the case's back. backset: to spindle. forend_*: plate let into the edge.

    spindle_up: of the spindle from the case's foot; key_below: keyhole under it. bores: of their holes.
    """

    case_depth: Annotated[float, bounded(30, 250, "lock case")] = 76.0
    case_height: Annotated[float, bounded(40, 350, "lock case")] = 150.0
    backset: Annotated[float, bounded(15, 200, "backset")] = 55.0
    case_thickness: Annotated[float, bounded(6, 40, "lock case")] = 15.0
    forend_length: Annotated[float, bounded(60, 500, "forend")] = 200.0
    forend_width: Annotated[float, bounded(10, 40, "forend")] = 20.0
    forend_thickness: Annotated[float, bounded(1, 8, "forend")] = 3.0
    key_below: Annotated[float, bounded(0, 150, "keyhole")] = 57.0
    spindle_bore: Annotated[float, bounded(6, 60, "spindle hole")] = 18.0
    key_bore: Annotated[float, bounded(0, 40, "keyhole")] = 16.0


class PacketButt(FrozenModel):
    """One hinge of a packet as it measures: its length, the width of a leaf, its thickness when shut."""

    length: Annotated[float, bounded(20, 300, "butt length")]
    width: Annotated[float, bounded(5, 150, "butt width")]
    closed: Annotated[float, bounded(0.5, 20, "butt thickness")]


class Screws(FrozenModel):
    """The screws of one leaf of a butt."""

    diameter: Annotated[float, bounded(2, 8, "screw")] = 4.0
    length: Annotated[float, bounded(10, 120, "screw")] = 32.0
    count: Annotated[int, Field(ge=2, le=12)] = 4


class RouterTemplate(FrozenModel):
    """A template for letting in: the guide bush runs in it, the cutter inside the bush."""

    bush: Annotated[float, bounded(6, 60, "guide bush")] = 17.0
    cutter: Annotated[float, bounded(3, 40, "cutter")] = 12.0


class PullKind(StrEnum):
    """What the leaf is pulled by."""

    NONE = "nothing yet"
    BAR = "a bar, screwed from behind"
    FLUSH = "a flush pull, let in"


class Pull(FrozenModel):
    """centres: of a bar's two screws. up: middle above the floor. in_from: middle from the latch edge. recess_*: of a
    flush pull, as high, wide and deep.
    """

    kind: PullKind = PullKind.NONE
    centres: Annotated[float, bounded(20, 800, "centres")] = 160.0
    up: Annotated[float, bounded(100, 2500, "height")] = 1000.0
    in_from: Annotated[float, bounded(10, 400, "from the edge")] = 45.0
    recess_high: Annotated[float, bounded(10, 400, "recess")] = 120.0
    recess_wide: Annotated[float, bounded(10, 120, "recess")] = 40.0
    recess_deep: Annotated[float, bounded(1, 40, "recess")] = 12.0


class LatchKind(StrEnum):
    """What keeps the leaf shut, where that is no mortise lock."""

    NONE = "none"
    TUBULAR = "a tubular latch, bored into the edge"
    CATCH = "a roller or ball catch, bored into the edge"
    THUMB = "a thumb latch, on the face"
    RIM = "a rim latch, on the closing face"


class Latch(FrozenModel):
    """up: its middle above the floor. backset: latch edge to the spindle, the thumb's slot or a rim latch's spindle.
    bore: of its body in the edge, deep: how far; plate_*: of its forend, let in. spindle: hole through the leaf.
    slot_*: of a thumb latch.
    """

    kind: LatchKind = LatchKind.NONE
    up: Annotated[float, bounded(100, 2500, "height")] = 1000.0
    backset: Annotated[float, bounded(15, 200, "backset")] = 45.0
    bore: Annotated[float, bounded(6, 40, "bore")] = 23.0
    deep: Annotated[float, bounded(15, 150, "bore, depth")] = 64.0
    plate_length: Annotated[float, bounded(0, 200, "forend")] = 58.0
    plate_width: Annotated[float, bounded(5, 40, "forend")] = 25.0
    plate_thickness: Annotated[float, bounded(0.5, 8, "forend")] = 3.0
    spindle: Annotated[float, bounded(5, 60, "spindle hole")] = 16.0
    slot_high: Annotated[float, bounded(10, 80, "slot")] = 36.0
    slot_wide: Annotated[float, bounded(5, 40, "slot")] = 14.0


class FlushBolts(FrozenModel):
    """Bolts let into the edge of a pair's slow leaf: as long, wide and deep; into: head and floor, how far."""

    length: Annotated[float, bounded(60, 600, "bolt")] = 200.0
    width: Annotated[float, bounded(8, 40, "bolt")] = 19.0
    deep: Annotated[float, bounded(4, 40, "bolt")] = 14.0
    bolt: Annotated[float, bounded(4, 25, "bolt")] = 10.0
    into: Annotated[float, bounded(5, 60, "bolt's hole")] = 18.0


class HardwareChoices(FrozenModel):
    """The butts, None leaving number and school to the rules; the lock, None for none; cup hinges of a cabinet leaf.

    tops: upper ends of the butts by hand, down from the leaf's top; () by school. packet: as they measure, from the top
    one down. template: None for none. bolts: of a pair; None for none. hangers, wall, guide: of a leaf that slides;
    stack: what its track's screws pass, or the one long screw of each hinge.
    """

    butt: Butt = Field(default_factory=_default_butt)
    count: Annotated[int, Field(ge=2, le=6)] | None = None
    school: ButtSchool | None = None
    lock: MortiseLock | None = None
    cup: CupChoices = Field(default_factory=CupChoices)
    tops: Annotated[tuple[Annotated[float, bounded(0, 3500, "butt from the top")], ...], Field(max_length=6)] = ()
    packet: Annotated[tuple[PacketButt, ...], Field(max_length=12)] = ()
    screws: Screws = Screws()
    template: RouterTemplate | None = None
    pull: Pull = Pull()
    latch: Latch = Latch()
    bolts: FlushBolts | None = None
    hangers: HangerChoices = HangerChoices()
    wall: WallChoices = WallChoices()
    stack: StackChoices = StackChoices()
    guide: Guide = Guide()
