"""What wood there is and what can be bought: boards as they are, sections, sheets; and how they are to be cut.

A board is seen on its best face, its head end to the left: x runs along it from there, y up from its lower edge.
"""

from __future__ import annotations

from datetime import date
from enum import StrEnum
from typing import Annotated

from pydantic import Field, field_validator, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import HAIR
from oakmeasure.core.document.first_cut import FirstCut
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.rules import FrozenModel, bounded
from oakmeasure.core.document.species import CORES, species_keys
from oakmeasure.core.document.text import ONE_LINE

Label = Annotated[str, Field(max_length=40), ONE_LINE]
Price = Annotated[float, bounded(0, 1e6, "price", "")]
Count = Annotated[int, Field(ge=1, le=999)]


class Face(StrEnum):
    """Which face of a board something lies on."""

    THROUGH = "through"
    BEST = "best face"
    OTHER = "other face"


class Flaw(StrEnum):
    """What is wrong with a place on a board."""

    KNOT = "knot"
    SAPWOOD = "sapwood"
    STAIN = "stain"
    SPLIT = "split"
    WANE = "wane"
    METAL = "hidden metal"
    GROOVE = "old groove or mortise"

    @property
    def weakens(self) -> bool:
        """Whether no part may hold it, seen or not."""
        return self in (Flaw.SPLIT, Flaw.WANE, Flaw.METAL, Flaw.GROOVE)


class BoardMark(FrozenModel):
    """A rectangle of a board that is not clear, mm."""

    flaw: Flaw = Flaw.KNOT
    """What it is."""
    face: Face = Face.THROUGH
    """On which face it shows."""
    x: Annotated[float, bounded(0, 8000, "place along the board")]
    """Place along the board, mm."""
    y: Annotated[float, bounded(0, 2200, "place across the board")]
    """Place across the board, mm."""
    length: Annotated[float, bounded(1, 8000, "length of the defect")]
    """Length of the defect, mm."""
    width: Annotated[float, bounded(1, 2200, "width of the defect")]
    """Width of the defect, mm."""

    @property
    def rank(self) -> int:
        """Return how clean a part must be to keep off it: 0 every part, 1 one that shows, 2 one clear all round."""
        if self.flaw.weakens:
            return 0
        return 2 if self.face is Face.OTHER else 1


class MoistureReading(FrozenModel):
    """What a meter or an oven said of a board, % of the dry mass."""

    day: date
    """When it was read."""
    percent: Annotated[float, bounded(3, 60, "moisture", "%")]
    """Moisture, %."""


class Came(StrEnum):
    """Where a board or sheet came from."""

    NEW = "new"
    OFFCUT = "off-cut"
    RECLAIMED = "reclaimed"
    DONOR = "donor leaf"


class Sawn(StrEnum):
    """How its faces are."""

    ROUGH = "rough"
    PLANED = "planed"


def _known_species(key: str | None) -> str | None:
    if key is not None and key not in species_keys():
        raise InputError("species", key, "a species of the table")
    return key


class Board(FrozenModel):
    """A board on the rack, or a size of board at the yard.

    species None: sold in whatever species the leaf is made of. quantity None: as many as are needed, to be bought.
    """

    species: str | None = None
    """Key of its species or sheet."""
    length: Annotated[float, bounded(150, 8000, "board length")]
    """Board length, mm."""
    width: Annotated[float, bounded(20, 800, "board width")]
    """Board width, mm."""
    thickness: Annotated[float, bounded(6, 150, "board thickness")]
    """Board thickness, mm."""
    quantity: Count | None = None
    """How many there are; None for as many as wanted."""
    price: Price | None = None
    """Price, in the job's money; None where it is not known."""
    label: Label = ""
    """What is written on it."""
    came: Came = Came.NEW
    """How it came: from where, for how much."""
    sawn: Sawn = Sawn.ROUGH
    """How it was sawn."""
    bow: Annotated[float, bounded(0, 80, "bow")] = 0.0
    """Out of flat along its face, mm."""
    crook: Annotated[float, bounded(0, 80, "crook")] = 0.0
    """Along its edge; each over its whole length, mm."""
    one_face: bool = False
    """Wood may come off one face only, the other one is kept as it is."""
    searched: bool = False
    """For metal."""
    year: Annotated[int, Field(ge=1200, le=2200)] | None = None
    """Year of old wood, to match it; None where it is not known."""
    colour: Annotated[str, Field(max_length=60), ONE_LINE] = ""
    """Colour of old wood, to match it."""
    forbidden: bool = False
    """Whether nothing may be cut from it."""
    marks: Annotated[tuple[BoardMark, ...], Field(max_length=60)] = ()
    """Its defects."""
    readings: Annotated[tuple[MoistureReading, ...], Field(max_length=200)] = ()
    """Its moisture, as it was read."""

    _known = field_validator("species")(_known_species)

    @model_validator(mode="after")
    def _marks_lie_on_it(self) -> Board:
        for at, mark in enumerate(self.marks):
            if mark.x + mark.length > self.length + HAIR or mark.y + mark.width > self.width + HAIR:
                size = f"{self.length:g} mm × {self.width:g} mm"
                raise InputError(
                    f"marks.{at}",
                    f"{mark.x + mark.length:g}, {mark.y + mark.width:g}",
                    f"a defect inside the board, {size}",
                )
        return self

    @property
    def is_owned(self) -> bool:
        """Whether it is on the rack, not at the yard."""
        return self.quantity is not None

    def turned_over(self) -> Board:
        """Return the board with its other face as the best one, turned over about its length."""
        faces = {Face.BEST: Face.OTHER, Face.OTHER: Face.BEST, Face.THROUGH: Face.THROUGH}
        marks = tuple(
            mark.model_copy(update={"face": faces[mark.face], "y": round(self.width - mark.y - mark.width, 3)})
            for mark in self.marks
        )
        return self.model_copy(update={"marks": marks})


class Section(FrozenModel):
    """A planed section as sold, by its length. species None: in whatever species the leaf is made of."""

    species: str | None = None
    """Key of its species or sheet."""
    width: Annotated[float, bounded(8, 400, "section width")]
    """Section width, mm."""
    thickness: Annotated[float, bounded(4, 150, "section thickness")]
    """Section thickness, mm."""
    length: Annotated[float, bounded(300, 8000, "section length")]
    """Section length, mm."""
    quantity: Count | None = None
    """How many there are; None for as many as wanted."""
    price: Price | None = None
    """Price, in the job's money; None where it is not known."""

    _known = field_validator("species")(_known_species)


class SheetStock(FrozenModel):
    """A sheet on the rack or at the yard."""

    material: str = "ply_birch"
    """Key of the sheet material."""
    length: Annotated[float, bounded(150, 6000, "sheet length")]
    """Sheet length, mm."""
    width: Annotated[float, bounded(100, 2200, "sheet width")]
    """Sheet width, mm."""
    thickness: Annotated[float, bounded(2, 60, "sheet thickness")]
    """Sheet thickness, mm."""
    quantity: Count | None = None
    """How many there are; None for as many as wanted."""
    price: Price | None = None
    """Price, in the job's money; None where it is not known."""
    label: Label = ""
    """What is written on it."""
    came: Came = Came.NEW
    """How it came: from where, for how much."""
    grained: bool = True
    """Parts lie along it."""
    trim: Annotated[float, bounded(0, 50, "trim")] = 6.0
    """Off each edge before it is cut, mm."""
    forbidden: bool = False
    """Whether nothing may be cut from it."""

    @model_validator(mode="after")
    def _known(self) -> SheetStock:
        if self.material not in CORES:
            raise InputError("material", self.material, "a sheet of the table")
        return self


class Cleanness(StrEnum):
    """How clean the wood of a leaf must be."""

    BOTH = "both faces clear"
    BEST = "best face clear"
    SOUND = "sound, knots and sapwood too"

    @property
    def clear(self) -> int:
        """Return it as the solvers have it: 2 clear all round, 1 on the face that shows, 0 sound."""
        return {Cleanness.BOTH: 2, Cleanness.BEST: 1, Cleanness.SOUND: 0}[self]


class Pin(FrozenModel):
    """A part of a leaf that is to come out of one board of the rack, by its label."""

    leaf: Annotated[str, Field(max_length=40), ONE_LINE]
    """Id of the leaf."""
    part: Annotated[str, Field(max_length=120), ONE_LINE]
    """Name of the part in its leaf."""
    board: Label
    """Label of the board."""


class Done(FrozenModel):
    """A part of a leaf that is cut already."""

    leaf: Annotated[str, Field(max_length=40), ONE_LINE]
    """Id of the leaf."""
    part: Annotated[str, Field(max_length=120), ONE_LINE]
    """Name of the part in its leaf."""
    board: Label = ""
    """What it came out of."""


class CuttingChoices(FrozenModel):
    """How the wood is to be cut.

    first None: boards ripped, sheets either way.
    """

    shown: Cleanness = Cleanness.BEST
    """How clean a face that shows must be."""
    may_hold: Annotated[tuple[Role, ...], Field(max_length=20)] = (Role.CORE, Role.PACKING)
    """Roles whose parts may have knots and sapwood whatever the leaf asks for."""
    first: FirstCut | None = None
    """Whether sheets are ripped or crosscut first; None for either."""
    seconds: Annotated[float, bounded(1, 600, "time to plan", "s")] = 10.0
    """To go on improving."""
    one_leaf: bool = False
    """Plan only the leaf in hand."""
    useful_length: Annotated[float, bounded(50, 3000, "length worth keeping")] = 300.0
    """Length worth keeping, mm."""
    useful_width: Annotated[float, bounded(10, 1000, "width worth keeping")] = 60.0
    """Width worth keeping, mm."""
    pins: Annotated[tuple[Pin, ...], Field(max_length=400)] = ()
    """Parts that are pinned to a board."""
    done: Annotated[tuple[Done, ...], Field(max_length=4000)] = ()
    """Parts that are cut already."""
