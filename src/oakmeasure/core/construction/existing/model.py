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


class Existing(ConstructionModel):
    """A leaf that is there already. width, height, thickness: as it lies on the bench.

    solid: wood from each long edge inwards, and rail: from top and foot, before a hollow or a core begins. face: skin
    or thick face. edge_by: how far a bevel, a rounding or a rebate reaches in. Of a panelled one: stile, its rails,
    muntin and panels across, tenon: how far it reaches into the stile, through: it shows on the edge.
    splice_lap, splice_stagger: of an extension; at_foot: it is added there. lap: of the halving. grooves: V lines up
    the face between two bands. recess_*: of a flush pull; step: one pass's depth.
    """

    trade_name: ClassVar[str] = "a leaf that exists"
    keeps_its_sizes: ClassVar[bool] = True
    kind: Literal["existing"] = "existing"
    width: Annotated[float, bounded(150, 2000, "width")] = 762.0
    height: Annotated[float, bounded(200, 3500, "height")] = 1981.0
    thickness: Annotated[float, bounded(12, 90, "thickness")] = 40.0
    inside: Inside = Inside.BLOCKS
    material: str = "redwood"
    face: Annotated[float, bounded(2, 30, "face")] = 4.0
    solid: Annotated[float, bounded(0, 400, "solid edge")] = 32.0
    rail: Annotated[float, bounded(0, 600, "solid end")] = 60.0
    edge_shape: EdgeShape = EdgeShape.SQUARE
    edge_by: Annotated[float, bounded(0, 40, "edge")] = 0.0
    stile: Annotated[float, bounded(30, 250, "stile")] = 95.0
    top_rail: Annotated[float, bounded(30, 400, "top rail")] = 95.0
    middle_rail: Annotated[float, bounded(30, 500, "middle rail")] | None = 180.0
    middle_up: Annotated[float, bounded(100, 2500, "middle rail")] = 990.0
    bottom_rail: Annotated[float, bounded(30, 600, "bottom rail")] = 200.0
    muntin: Annotated[float, bounded(20, 300, "muntin")] = 70.0
    panels: Annotated[int, Field(ge=1, le=6)] = 2
    panels_above: Annotated[int, Field(ge=1, le=6)] | None = None
    tenon: Annotated[float, bounded(10, 250, "tenon")] = 60.0
    through: bool = False
    by: ReduceBy = ReduceBy.SHARED
    splice: Splice = Splice.STAGGERED
    splice_lap: Annotated[float, bounded(10, 400, "lap")] = 75.0
    splice_stagger: Annotated[float, bounded(0, 200, "stagger")] = 25.0
    at_foot: bool = True
    grooves: Annotated[int, Field(ge=0, le=40)] = 0
    band: Annotated[float, bounded(5, 600, "band")] = 70.0
    groove_depth: Annotated[float, bounded(0.5, 15, "groove")] = 3.0
    recess_depth: Annotated[float, bounded(1, 40, "recess")] | None = None
    recess_step: Annotated[float, bounded(0.5, 15, "step")] = 3.0

    @model_validator(mode="after")
    def _known_material(self) -> Existing:
        if self.material not in (*species_keys(), *CORES):
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
    """Return an old leaf that is framed and panelled; None for any other."""
    return choice if isinstance(choice, Existing) and choice.inside is Inside.PANELLED else None


MODEL = Existing
