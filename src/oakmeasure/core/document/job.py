"""The document: what was measured, what was chosen, what is on the rack, what was acknowledged.

Everything here is frozen. Nothing that can be worked out is stored; `solve` works it out. A field that is
None is left to the shop rules.
"""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document.adjustment import HungChoices
from oakmeasure.core.document.constructions import KINDS, Construction, model_of
from oakmeasure.core.document.cup_hinges import CupHinge
from oakmeasure.core.document.hanging import Aim, CabinetChoices, EvenGap, Hanging, LeafShape, PairChoices, SlideChoices
from oakmeasure.core.document.hinges import Butt, HardwareChoices
from oakmeasure.core.document.old_frame import OldFrame
from oakmeasure.core.document.production import MakeChoices
from oakmeasure.core.document.readings import (
    FloorReadings,
    HeadShape,
    InTheWay,
    Lining,
    MeasuredBy,
    OpeningReadings,
    Polygon,
    Reading,
    SideOffset,
    TickTemplate,
)
from oakmeasure.core.document.rules import FrozenModel, ShopRules, bounded, load_rules
from oakmeasure.core.document.species import Sawing, species_keys
from oakmeasure.core.document.stock import Board, CuttingChoices, Section, SheetStock
from oakmeasure.core.document.text import ONE_LINE, Line
from oakmeasure.core.figures.figure import Provenance

SCHEMA_VERSION = 9

MOST_LEAVES = 1000  # of a job
MOST_BOARDS = 400  # that a rack holds
MOST_SECTIONS = 100
MOST_SHEETS = 200


class Hand(StrEnum):
    """Which side the hinges are on, seen from the opening side (where the knuckles show)."""

    LEFT = "hinges left"
    RIGHT = "hinges right"


Gap = Annotated[float, bounded(0, 60, "gap")]
Trim = Annotated[float, bounded(0, 50, "trimming allowance")]


class FitChoices(FrozenModel):
    """Gaps round the leaf and what is left on to plane; None takes the shop rule."""

    gap_hinge: Gap | None = None
    """Gap at the hinge edge, mm; None by the shop rule."""
    gap_latch: Gap | None = None
    """Gap at the latch edge, mm; None by the shop rule."""
    gap_head: Gap | None = None
    """Gap under the head, mm; None by the shop rule."""
    gap_floor: Gap | None = None
    """Gap over the floor, mm; None by the shop rule."""
    trim_side: Trim | None = None
    """Kept for fitting at each long edge, mm; None by the shop rule."""
    trim_height: Trim | None = None
    """Kept for fitting of the height, mm; None by the shop rule."""
    bevel_deg: Annotated[float, bounded(0, 10, "bevel", "degrees")] | None = None
    """Bevel, degrees; None: by rule."""
    bevel_margin: Annotated[float, bounded(0, 5, "margin")] | None = None
    """Margin, mm; None: by rule."""
    shape: LeafShape = LeafShape.SQUARE
    """Square, or scribed to the opening."""
    aim: Aim = Aim.WIDTH
    """What counts in a crooked opening: width, height or area."""
    width_weight_percent: Annotated[float, bounded(5, 95, "share of the width", "%")] = 50.0
    """Of a size that is weighed, how much the width counts, %; the height counts the rest."""
    even: EvenGap | None = None
    """The gap that the hinges make is the aim for the other sides; None: the gaps are those that are chosen."""


class Climate(FrozenModel):
    """Air that the leaf lives in for weeks."""

    temperature: Annotated[float, bounded(-20, 45, "temperature", "°C")]
    """Temperature, °C."""
    humidity: Annotated[float, bounded(5, 95, "humidity", "%")]
    """Humidity, %."""


class Exposure(StrEnum):
    """Where a leaf lives; data/places.toml says what that asks for."""

    DRY = "dry room"
    WET = "wet room"
    OUTSIDE = "outside"


USUAL_SPECIES = "european_oak"  # reckoned with until somebody chooses: common practice, no source


class TimberChoices(FrozenModel):
    """What it is made of, how dry it is when made, where it will live and the air that it will meet there.

    glue (durability class of EN 204),
    """

    place: Exposure = Exposure.DRY
    """Where the leaf lives."""
    glue: Literal["D1", "D2", "D3", "D4"] | None = None
    """Durability that the glue must have; None by the place."""
    finish: Literal["oil or wax", "varnish", "paint", "outside paint"] | None = None
    """Key of the finish; None takes what the place asks for."""
    fixings: Literal["plain steel", "plated steel", "stainless steel", "brass"] | None = None
    """Key of the fixings; None takes what the place asks for."""

    species: str | None = None
    """Key of its species; None: nobody chose it yet."""
    panel_species: str | None = None
    """Key of the panels' species; None for the same."""
    cut: Sawing = Sawing.FLAT
    """How boards are sawn."""
    moisture: Annotated[float, bounded(4, 25, "moisture", "%")] = 10.0
    """Moisture, %."""
    between_climates: bool = False
    """One face lives in the driest air while the other lives in the wettest."""
    dry: Climate = Climate(temperature=20, humidity=35)
    """The driest air of the year."""
    wet: Climate = Climate(temperature=18, humidity=70)
    """The wettest air of the year."""

    @property
    def wood(self) -> str:
        """Key of the species that is reckoned with: the one chosen, or until then a usual one."""
        return self.species or USUAL_SPECIES

    @model_validator(mode="after")
    def _known(self) -> TimberChoices:
        for field in ("species", "panel_species"):
            key = getattr(self, field)
            if key is not None and key not in species_keys():
                raise InputError(field, key, "a species of the table")
        return self


class LateTrim(FrozenModel):
    """What is taken off the leaf once it is made, by edge."""

    foot: Annotated[float, bounded(0, 200, "off the foot")] = 0.0
    """Off the foot, mm."""
    head: Annotated[float, bounded(0, 200, "off the head")] = 0.0
    """Off the head, mm."""
    hinge: Annotated[float, bounded(0, 100, "off the hinge edge")] = 0.0
    """Off the hinge edge, mm."""
    latch: Annotated[float, bounded(0, 100, "off the latch edge")] = 0.0
    """Off the latch edge, mm."""
    allow_side: Annotated[float, bounded(0, 60, "left a side")] = 0.0
    """What the site may still want off each long edge, at the worst, mm."""
    allow_end: Annotated[float, bounded(0, 100, "left at each end")] = 0.0
    """What the site may still want off each end, at the worst, mm."""

    @property
    def is_any(self) -> bool:
        """Whether anything is taken off."""
        return any((self.foot, self.head, self.hinge, self.latch))


class Acknowledged(FrozenModel):
    """A stop that was seen and answered for."""

    code: str
    """The check's code."""
    reason: Annotated[str, Field(min_length=3, max_length=300), ONE_LINE]
    """Why it may stay so, in the person's words."""


class Leaf(FrozenModel):
    """One leaf and the opening that it is for."""

    id: Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]
    """Its id in the job."""
    name: Annotated[str, Field(min_length=1, max_length=80), ONE_LINE]
    """Its name, as it is shown."""
    hand: Hand = Hand.LEFT
    """At which side the hinges are, seen from the opening side."""
    hanging: Hanging = Hanging.LINING
    """How it hangs."""
    measured_by: MeasuredBy = MeasuredBy.TAPE
    """How its opening is taken."""
    readings: OpeningReadings
    """Readings of tape and level."""
    polygon: Polygon | None = None
    """Sides and diagonals; None where it is not taken so."""
    template: TickTemplate | None = None
    """The template and its ticks; None where it is not taken so."""
    head: HeadShape = HeadShape()
    """Shape of the opening's head."""
    bows: Annotated[tuple[SideOffset, ...], Field(max_length=24)] = ()
    """Where sides are off a straight line."""
    floor: FloorReadings = FloorReadings()
    """Heights of the floor."""
    in_the_way: Annotated[tuple[InTheWay, ...], Field(max_length=24)] = ()
    """What stands in its way."""
    lining: Lining | None = None
    """The lining that is made for it; None for none."""
    old_frame: OldFrame = OldFrame()
    """What is known of a frame that is there already."""
    fit: FitChoices = FitChoices()
    """Gaps, trim and what counts."""
    pair: PairChoices = PairChoices()
    """What is chosen for a pair."""
    cabinet: CabinetChoices = CabinetChoices()
    """What is chosen for the door of a cabinet."""
    slide: SlideChoices = SlideChoices()
    """What is chosen for a leaf that slides."""
    build: Construction = model_of(KINDS[0])()
    """What is chosen for its construction."""
    late: LateTrim = LateTrim()
    """What comes off each edge once it is made."""
    timber: TimberChoices = TimberChoices()
    """Species, place and air."""
    hardware: HardwareChoices = Field(default_factory=HardwareChoices)
    """Hinges, lock, latch and pull."""
    making: MakeChoices = MakeChoices()
    """Glue, coats, days and the log."""
    hung: HungChoices = HungChoices()
    """What was read and chosen once it hangs."""
    acknowledged: tuple[Acknowledged, ...] = ()
    """Checks that the person lets stand."""

    @property
    def hand_in_words(self) -> str:
        """The hand as drawings, lists and paper say it; of a pair that the other leaf is the mirror of this one."""
        words = str(self.hand)
        return f"{words}; its pair mirrored" if self.hanging is Hanging.PAIR else words


class Job(FrozenModel):
    """The whole document."""

    schema_version: Literal[9] = 9
    """Which form of the file it is."""
    name: Annotated[str, Field(min_length=1, max_length=120), ONE_LINE]
    """Its name, as it is shown."""
    place: Line = ""
    """Where the job is; "" where that is not said."""
    unit: UnitSystem = UnitSystem.MM
    """Units that it is shown in."""
    rules: ShopRules
    """The shop rules that it is made by."""
    boards: Annotated[tuple[Board, ...], Field(max_length=MOST_BOARDS)] = ()
    """Boards of the rack."""
    sections: Annotated[tuple[Section, ...], Field(max_length=MOST_SECTIONS)] = ()
    """Timber that is bought planed, by section."""
    sheets: Annotated[tuple[SheetStock, ...], Field(max_length=MOST_SHEETS)] = ()
    """Sheets of the rack."""
    cutting: CuttingChoices = CuttingChoices()
    """What is chosen for the plan of the wood."""
    leaves: Annotated[tuple[Leaf, ...], Field(min_length=1, max_length=MOST_LEAVES)]
    """Its leaves, in their order."""
    own_cups: Annotated[tuple[CupHinge, ...], Field(max_length=60)] = ()
    """Cup hinges that were measured or mocked up, beside those of the tables."""
    own_butts: Annotated[tuple[Butt, ...], Field(max_length=60)] = ()
    """Butts that were measured or mocked up, beside those of the tables."""

    @property
    def names(self) -> tuple[str, ...]:
        """Return what somebody has called the job, its place and its leaves."""
        return (self.name, self.place, *(each.name for each in self.leaves))

    @model_validator(mode="after")
    def _ids_differ(self) -> Job:
        ids = [each.id for each in self.leaves]
        twice = next((each for each in ids if ids.count(each) > 1), None) if len(set(ids)) < len(ids) else None
        if twice is not None:
            raise InputError("leaves", twice, "an id of its own for each leaf")
        return self

    def leaf(self, leaf_id: str) -> Leaf:
        """Return the leaf with that id; KeyError when there is none.

        Args:
            leaf_id: Id of the leaf in the job.
        """
        for each in self.leaves:
            if each.id == leaf_id:
                return each
        raise KeyError(leaf_id)


def default_boards() -> tuple[Board, ...]:
    """Return sizes that most yards sell, in any species: the rack of a new job."""
    sizes = ((4200, 225, 52), (3000, 225, 52), (2400, 225, 52), (2400, 200, 26), (2400, 200, 20))
    return tuple(Board(length=length, width=width, thickness=thickness) for length, width, thickness in sizes)


def new_job(
    name: str = "New job",
    *,
    width: float = 762.0,
    height: float = 1981.0,
    rules: str = "site-metric",
    unit: UnitSystem = UnitSystem.MM,
) -> Job:
    """Return a job with one leaf in an opening that nobody has measured yet (its readings are assumed).

    Args:
        name: Its name.
        width: Width, mm.
        height: Height, mm.
        rules: Key of the set of shop rules.
        unit: In which units the job is written.
    """
    readings = OpeningReadings(
        width_middle=Reading(value=width, state=Provenance.ASSUMED),
        height_middle=Reading(value=height, state=Provenance.ASSUMED),
    )
    leaf = Leaf(id="leaf-1", name="Leaf 1", readings=readings)
    return Job(name=name, unit=unit, rules=load_rules(rules), boards=default_boards(), leaves=(leaf,))
