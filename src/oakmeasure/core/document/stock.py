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

Label = Annotated[str, Field(max_length=40)]
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
    face: Face = Face.THROUGH
    x: Annotated[float, bounded(0, 8000, "place along the board")]
    y: Annotated[float, bounded(0, 2200, "place across the board")]
    length: Annotated[float, bounded(1, 8000, "length of the defect")]
    width: Annotated[float, bounded(1, 2200, "width of the defect")]

    @property
    def rank(self) -> int:
        """Return how clean a part must be to keep off it: 0 every part, 1 one that shows, 2 one clear all round."""
        if self.flaw.weakens:
            return 0
        return 2 if self.face is Face.OTHER else 1


class MoistureReading(FrozenModel):
    """What a meter or an oven said of a board, % of the dry mass."""

    day: date
    percent: Annotated[float, bounded(3, 60, "moisture", "%")]


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
    bow: out of flat along its face; crook: along its edge; each over its whole length, mm. one_face: wood may come off
    one face only, the other one is kept as it is. searched: for metal. year, colour: of old wood, to match.
    """

    species: str | None = None
    length: Annotated[float, bounded(150, 8000, "board length")]
    width: Annotated[float, bounded(20, 800, "board width")]
    thickness: Annotated[float, bounded(6, 150, "board thickness")]
    quantity: Count | None = None
    price: Price | None = None
    label: Label = ""
    came: Came = Came.NEW
    sawn: Sawn = Sawn.ROUGH
    bow: Annotated[float, bounded(0, 80, "bow")] = 0.0
    crook: Annotated[float, bounded(0, 80, "crook")] = 0.0
    one_face: bool = False
    searched: bool = False
    year: Annotated[int, Field(ge=1200, le=2200)] | None = None
    colour: Annotated[str, Field(max_length=60)] = ""
    forbidden: bool = False
    marks: Annotated[tuple[BoardMark, ...], Field(max_length=60)] = ()
    readings: Annotated[tuple[MoistureReading, ...], Field(max_length=200)] = ()

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
    width: Annotated[float, bounded(8, 400, "section width")]
    thickness: Annotated[float, bounded(4, 150, "section thickness")]
    length: Annotated[float, bounded(300, 8000, "section length")]
    quantity: Count | None = None
    price: Price | None = None

    _known = field_validator("species")(_known_species)


class SheetStock(FrozenModel):
    """A sheet on the rack or at the yard. grained: parts lie along it. trim: off each edge before it is cut, mm."""

    material: str = "ply_birch"
    length: Annotated[float, bounded(150, 6000, "sheet length")]
    width: Annotated[float, bounded(100, 2200, "sheet width")]
    thickness: Annotated[float, bounded(2, 60, "sheet thickness")]
    quantity: Count | None = None
    price: Price | None = None
    label: Label = ""
    came: Came = Came.NEW
    grained: bool = True
    trim: Annotated[float, bounded(0, 50, "trim")] = 6.0
    forbidden: bool = False

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

    leaf: Annotated[str, Field(max_length=40)]
    part: Annotated[str, Field(max_length=120)]
    board: Label


class Done(FrozenModel):
    """A part of a leaf that is cut already. board: what it came out of."""

    leaf: Annotated[str, Field(max_length=40)]
    part: Annotated[str, Field(max_length=120)]
    board: Label = ""


class CuttingChoices(FrozenModel):
    """How the wood is to be cut. first None: boards ripped, sheets either way. may_hold: roles whose parts may have
    knots and sapwood whatever the leaf asks for. seconds: to go on improving. one_leaf: plan only the leaf in hand.
    """

    shown: Cleanness = Cleanness.BEST
    may_hold: Annotated[tuple[Role, ...], Field(max_length=20)] = (Role.CORE, Role.PACKING)
    first: FirstCut | None = None
    seconds: Annotated[float, bounded(1, 600, "time to plan", "s")] = 10.0
    one_leaf: bool = False
    useful_length: Annotated[float, bounded(50, 3000, "length worth keeping")] = 300.0
    useful_width: Annotated[float, bounded(10, 1000, "width worth keeping")] = 60.0
    pins: Annotated[tuple[Pin, ...], Field(max_length=400)] = ()
    done: Annotated[tuple[Done, ...], Field(max_length=4000)] = ()
