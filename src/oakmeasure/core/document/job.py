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
from oakmeasure.core.figures.figure import Provenance

SCHEMA_VERSION = 7


class Hand(StrEnum):
    """Which side the hinges are on, seen from the opening side (where the knuckles show)."""

    LEFT = "hinges left"
    RIGHT = "hinges right"


Gap = Annotated[float, bounded(0, 60, "gap")]
Trim = Annotated[float, bounded(0, 50, "trimming allowance")]


class FitChoices(FrozenModel):
    """Gaps round the leaf and what is left on to plane; None takes the shop rule.

    width_counts: of a size that is weighed, how much the width counts, %; the height counts the rest. even: the gap
    that the hinges make is the aim for the other sides; None: the gaps are those that are chosen.
    """

    gap_hinge: Gap | None = None
    gap_latch: Gap | None = None
    gap_head: Gap | None = None
    gap_floor: Gap | None = None
    trim_side: Trim | None = None
    trim_height: Trim | None = None
    bevel_deg: Annotated[float, bounded(0, 10, "bevel", "degrees")] | None = None
    bevel_margin: Annotated[float, bounded(0, 5, "margin")] | None = None
    shape: LeafShape = LeafShape.SQUARE
    aim: Aim = Aim.WIDTH
    width_counts: Annotated[float, bounded(5, 95, "share of the width", "%")] = 50.0
    even: EvenGap | None = None


class Climate(FrozenModel):
    """Air that the leaf lives in for weeks."""

    temperature: Annotated[float, bounded(-20, 45, "temperature", "°C")]
    humidity: Annotated[float, bounded(5, 95, "humidity", "%")]


class Exposure(StrEnum):
    """Where a leaf lives; data/places.toml says what that asks for."""

    DRY = "dry room"
    WET = "wet room"
    OUTSIDE = "outside"


class TimberChoices(FrozenModel):
    """What it is made of, how dry it is when made, where it will live and the air that it will meet there.

    between_climates: one face lives in the driest air while the other lives in the wettest. glue (durability class of
    EN 204), finish, fixings: None takes what the place asks for.
    """

    place: Exposure = Exposure.DRY
    glue: Literal["D1", "D2", "D3", "D4"] | None = None
    finish: Literal["oil or wax", "varnish", "paint", "outside paint"] | None = None
    fixings: Literal["plain steel", "plated steel", "stainless steel", "brass"] | None = None

    species: str = "european_oak"
    panel_species: str | None = None
    cut: Sawing = Sawing.FLAT
    moisture: Annotated[float, bounded(4, 25, "moisture", "%")] = 10.0
    between_climates: bool = False
    dry: Climate = Climate(temperature=20, humidity=35)
    wet: Climate = Climate(temperature=18, humidity=70)

    @model_validator(mode="after")
    def _known(self) -> TimberChoices:
        for field in ("species", "panel_species"):
            key = getattr(self, field)
            if key is not None and key not in species_keys():
                raise InputError(field, key, "a species of the table")
        return self


class LateTrim(FrozenModel):
    """What is taken off the leaf once it is made, by edge; may_*: what the site may still want off each, at the worst.

    foot, head, hinge, latch: mm off. may_side: off each long edge; may_end: off top and foot each.
    """

    foot: Annotated[float, bounded(0, 200, "off the foot")] = 0.0
    head: Annotated[float, bounded(0, 200, "off the head")] = 0.0
    hinge: Annotated[float, bounded(0, 100, "off the hinge edge")] = 0.0
    latch: Annotated[float, bounded(0, 100, "off the latch edge")] = 0.0
    may_side: Annotated[float, bounded(0, 60, "left a side")] = 0.0
    may_end: Annotated[float, bounded(0, 100, "left at each end")] = 0.0

    @property
    def is_any(self) -> bool:
        """Whether anything is taken off."""
        return any((self.foot, self.head, self.hinge, self.latch))


class Acknowledged(FrozenModel):
    """A stop that was seen and answered for."""

    code: str
    reason: Annotated[str, Field(min_length=3, max_length=300)]


class Leaf(FrozenModel):
    """One leaf and the opening that it is for."""

    id: Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]
    name: Annotated[str, Field(min_length=1, max_length=80)]
    hand: Hand = Hand.LEFT
    hanging: Hanging = Hanging.LINING
    measured_by: MeasuredBy = MeasuredBy.TAPE
    readings: OpeningReadings
    polygon: Polygon | None = None
    template: TickTemplate | None = None
    head: HeadShape = HeadShape()
    bows: Annotated[tuple[SideOffset, ...], Field(max_length=24)] = ()
    floor: FloorReadings = FloorReadings()
    in_the_way: Annotated[tuple[InTheWay, ...], Field(max_length=24)] = ()
    lining: Lining | None = None
    fit: FitChoices = FitChoices()
    pair: PairChoices = PairChoices()
    cabinet: CabinetChoices = CabinetChoices()
    slide: SlideChoices = SlideChoices()
    build: Construction = model_of(KINDS[0])()
    late: LateTrim = LateTrim()
    timber: TimberChoices = TimberChoices()
    hardware: HardwareChoices = Field(default_factory=HardwareChoices)
    making: MakeChoices = MakeChoices()
    hung: HungChoices = HungChoices()
    acknowledged: tuple[Acknowledged, ...] = ()

    @property
    def hand_in_words(self) -> str:
        """The hand as drawings, lists and paper say it; of a pair that the other leaf is the mirror of this one."""
        words = str(self.hand)
        return f"{words}; its pair mirrored" if self.hanging is Hanging.PAIR else words


class Job(FrozenModel):
    """The whole document. own_cups, own_butts: hinges that were measured or mocked up, beside those of the tables."""

    schema_version: Literal[7] = 7
    name: Annotated[str, Field(min_length=1, max_length=120)]
    place: str = ""
    unit: UnitSystem = UnitSystem.MM
    rules: ShopRules
    boards: Annotated[tuple[Board, ...], Field(max_length=400)] = ()
    sections: Annotated[tuple[Section, ...], Field(max_length=100)] = ()
    sheets: Annotated[tuple[SheetStock, ...], Field(max_length=200)] = ()
    cutting: CuttingChoices = CuttingChoices()
    leaves: Annotated[tuple[Leaf, ...], Field(min_length=1)]
    own_cups: Annotated[tuple[CupHinge, ...], Field(max_length=60)] = ()
    own_butts: Annotated[tuple[Butt, ...], Field(max_length=60)] = ()

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
        """Return the leaf with that id; KeyError when there is none."""
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
    """Return a job with one leaf in an opening that nobody has measured yet (its readings are assumed)."""
    readings = OpeningReadings(
        width_middle=Reading(value=width, state=Provenance.ASSUMED),
        height_middle=Reading(value=height, state=Provenance.ASSUMED),
    )
    leaf = Leaf(id="leaf-1", name="Leaf 1", readings=readings)
    return Job(name=name, unit=unit, rules=load_rules(rules), boards=default_boards(), leaves=(leaf,))
