"""Document model of leaves layered from sheet. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, ClassVar, Literal

from pydantic import field_validator

from oakmeasure.core.document.construction_model import ConstructionModel, EdgeLayer, GlueOrder, known_sheet
from oakmeasure.core.document.rules import bounded


class LayerStyle(StrEnum):
    """How the layers lie."""

    FRAME = "stiles and rails on both faces of a core"
    FULL = "three full layers"


class Lipping(StrEnum):
    """What covers the long edges of the layers."""

    NONE = "none"
    PLAIN = "plain"
    T = "T, its tongue between the faces"


class Pieced(StrEnum):
    """Which members are put together from shorter pieces."""

    NONE = "none"
    BOTTOM_RAIL = "the bottom rail"
    RAILS = "all rails"
    STILES = "the stiles"


class PieceJoint(StrEnum):
    """How two pieces of a member meet."""

    BUTT = "butt"
    SCARF = "scarf of 45°"


class Layered(ConstructionModel):
    """Layers of sheet: a core, stiles and rails on both of its faces, lippings on the long edges; or full layers."""

    trade_name: ClassVar[str] = "layered from sheet"
    """What the trade calls it."""
    kind: Literal["layered"] = "layered"
    """Which kind it is."""
    style: LayerStyle = LayerStyle.FRAME
    """How its layers show."""
    sheet: str = "ply_birch"
    """Key of its sheet material."""
    core: Annotated[float, bounded(3, 40, "core")] = 12.0
    """Thickness of the middle layer, mm."""
    face: Annotated[float, bounded(3, 30, "face layer")] = 12.0
    """Thickness of each outer layer, mm."""
    stile: Annotated[float, bounded(30, 400, "stile")] = 110.0
    """Stile, mm."""
    top_rail: Annotated[float, bounded(30, 400, "top rail")] = 110.0
    """Top rail, mm."""
    middle_rail: Annotated[float, bounded(30, 500, "middle rail")] | None = 190.0
    """Middle rail, mm; None: by rule."""
    bottom_rail: Annotated[float, bounded(30, 600, "bottom rail")] = 210.0
    """Bottom rail, mm."""
    muntin: Annotated[float, bounded(20, 300, "muntin")] | None = None
    """Muntin, mm; None: by rule."""
    lock_height: Annotated[float, bounded(100, 2500, "lock height")] = 1000.0
    """Lock height, mm."""
    lipping: Lipping = Lipping.PLAIN
    """How its edges are lipped."""
    lipping_depth: Annotated[float, bounded(3, 60, "lipping")] = 10.0
    """How far the lipping reaches in from the leaf's edge; the first stile stands in by it."""
    tongue: Annotated[float, bounded(3, 40, "tongue")] = 10.0
    """Of a T, further in between the faces, mm."""
    trim: Annotated[float, bounded(5, 60, "trim")] | None = None
    """Width of a moulding mitred round each field on both faces, mm; None for none."""
    trim_thickness: Annotated[float, bounded(3, 30, "trim thickness")] = 9.0
    """Trim thickness, mm."""
    pieced: Pieced = Pieced.NONE
    """Whether wide layers are pieced."""
    piece_joint: PieceJoint = PieceJoint.BUTT
    """How pieces are joined."""
    pin_every: Annotated[float, bounded(40, 500, "distance of pins")] = 150.0
    """Of the pins that hold while it sets, mm."""

    _known = field_validator("sheet")(known_sheet)

    @property
    def edge_layers(self) -> tuple[EdgeLayer, ...]:
        """The core and a face layer on each side; a lipping is as thick as all of them."""
        return (
            EdgeLayer("core", "core, thickness", self.core, "build.core"),
            EdgeLayer("face", "each face layer, thickness", self.face, "build.face", 2),
        )

    @property
    def thickness(self) -> float:
        """Thickness over all layers."""
        return self.core + 2 * self.face

    @property
    def glue_order(self) -> GlueOrder:
        """In which order it is glued up."""
        return GlueOrder.LAYERS


MODEL = Layered
