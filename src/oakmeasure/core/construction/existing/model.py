"""Document model of leaves that exist. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.construction_model import ConstructionModel
from oakmeasure.core.document.rules import bounded
from oakmeasure.core.document.species import CORES, species_keys


class Inside(StrEnum):
    """What a leaf that exists has inside, found by knocking, weighing and a look at its edges."""

    HOLLOW = "hollow"
    BLOCKS = "framed, with blocks"
    SOLID = "solid"
    THICK = "thick-faced on a core"
    PANELLED = "framed and panelled"


class EdgeShape(StrEnum):
    """How the long edges of a leaf that exists are shaped."""

    SQUARE = "square"
    BEVELLED = "bevelled"
    ROUNDED = "rounded"
    REBATED = "rebated"


class Splice(StrEnum):
    """How a leaf is made longer."""

    STAGGERED = "staggered splices, halved"
    SCARF = "long scarfs, 1:8"
    BLOCK = "a block on loose tenons, for an end without load"


class ReduceBy(StrEnum):
    """Where a panelled leaf loses its width."""

    SHARED = "stiles as far as their tenons stay, then panels"
    STILES = "stiles only"
    PANELS = "panels and rails only"


USUAL_MATERIAL = "redwood"  # of leaves that exist, until somebody says it: common practice, no source


class Existing(ConstructionModel):
    """A leaf that is there already.

    Of a panelled one: stile, its rails, muntin and panels across, lap: of the halving.
    """

    trade_name: ClassVar[str] = "a leaf that exists"
    """What the trade calls it."""
    keeps_its_sizes: ClassVar[bool] = True
    """Whether its sizes are what they are, and no glue-up gives them."""
    kind: Literal["existing"] = "existing"
    """Which kind it is."""
    width: Annotated[float, bounded(150, 2000, "width")] = 762.0
    """Width as it lies on the bench, mm."""
    height: Annotated[float, bounded(200, 3500, "height")] = 1981.0
    """Height as it lies on the bench, mm."""
    thickness: Annotated[float, bounded(12, 90, "thickness")] = 40.0
    """Thickness as it lies on the bench, mm."""
    inside: Inside = Inside.BLOCKS
    """What it is inside."""
    material: str | None = None
    """Key of what it is made of; None: nobody said it yet."""
    face: Annotated[float, bounded(2, 30, "face")] = 4.0
    """Skin or thick face, mm."""
    solid: Annotated[float, bounded(0, 400, "solid edge")] = 32.0
    """Wood from each long edge inwards, and rail, mm: from top and foot, before a hollow or a core begins."""
    rail: Annotated[float, bounded(0, 600, "solid end")] = 60.0
    """Solid end, mm."""
    edge_shape: EdgeShape = EdgeShape.SQUARE
    """Shape of its long edges."""
    edge_by: Annotated[float, bounded(0, 40, "edge")] = 0.0
    """How far a bevel, a rounding or a rebate reaches in, mm."""
    stile: Annotated[float, bounded(30, 250, "stile")] = 95.0
    """Stile, mm."""
    top_rail: Annotated[float, bounded(30, 400, "top rail")] = 95.0
    """Top rail, mm."""
    middle_rail: Annotated[float, bounded(30, 500, "middle rail")] | None = 180.0
    """Middle rail, mm; None: by rule."""
    middle_up: Annotated[float, bounded(100, 2500, "middle rail")] = 990.0
    """Middle rail, mm."""
    bottom_rail: Annotated[float, bounded(30, 600, "bottom rail")] = 200.0
    """Bottom rail, mm."""
    muntin: Annotated[float, bounded(20, 300, "muntin")] = 70.0
    """Muntin, mm."""
    panels: Annotated[int, Field(ge=1, le=6)] = 2
    """How many panels stand side by side in the lower row."""
    panels_above: Annotated[int, Field(ge=1, le=6)] | None = None
    """How many stand side by side in the upper row; None for the same."""
    tenon: Annotated[float, bounded(10, 250, "tenon")] = 60.0
    """How far it reaches into the stile, mm."""
    through: bool = False
    """It shows on the edge."""
    reduce_by: ReduceBy = ReduceBy.SHARED
    """Where what is too wide comes off."""
    splice: Splice = Splice.STAGGERED
    """How a longer stile is spliced."""
    splice_lap: Annotated[float, bounded(10, 400, "lap")] = 75.0
    """Length of an extension's halving, mm; None by the thickness."""
    splice_stagger: Annotated[float, bounded(0, 200, "stagger")] = 25.0
    """How much further the one stile's splice reaches than the other's, mm."""
    at_foot: bool = True
    """It is added there."""
    grooves: Annotated[int, Field(ge=0, le=40)] = 0
    """V lines up the face between two bands."""
    band: Annotated[float, bounded(5, 600, "band")] = 70.0
    """Band, mm."""
    groove_depth: Annotated[float, bounded(0.5, 15, "groove")] = 3.0
    """Groove, mm."""
    recess_depth: Annotated[float, bounded(1, 40, "recess")] | None = None
    """Depth of a flush pull's recess, mm."""
    recess_step: Annotated[float, bounded(0.5, 15, "step")] = 3.0
    """Depth of one pass of the router, mm."""

    @property
    def material_not_said(self) -> str | None:
        """Key of what it is reckoned to be made of, where nobody said it."""
        return None if self.material else USUAL_MATERIAL

    @property
    def wood(self) -> str:
        """Key of what it is reckoned to be made of: as was said, or until then what is usual."""
        return self.material or USUAL_MATERIAL

    @model_validator(mode="after")
    def _known_material(self) -> Existing:
        if self.material is not None and self.material not in (*species_keys(), *CORES):
            raise InputError("material", self.material, "a species of the table or a sheet")
        return self

    @property
    def is_hollow(self) -> bool:
        """Whether there is no wood behind its faces but at its edges, or only blocks."""
        return self.inside in (Inside.HOLLOW, Inside.BLOCKS)

    @property
    def solid_from_foot(self) -> float | None:
        """How far it is solid wood from its foot up, mm; None: all the way."""
        return self.rail if self.is_hollow else None


def panelled(choice: ConstructionModel) -> Existing | None:
    """Return an old leaf that is framed and panelled; None for any other.

    Args:
        choice: What is chosen for the construction.
    """
    return choice if isinstance(choice, Existing) and choice.inside is Inside.PANELLED else None


MODEL = Existing
