"""What is chosen for leaves that are not cut from boards alone: layered, light, veneered, there already; mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.rules import Model, between
from oakmeasure.core.document.species import CORES, species_keys


def known_sheet(key: str) -> str:
    """Return the key of a sheet that wood can be laid on; InputError for any other."""
    if key not in CORES:
        raise InputError("sheet", key, "one of " + ", ".join(CORES))
    return key


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


class Layered(Model):
    """Layers of sheet: a core, stiles and rails on both of its faces, lippings on the long edges; or full layers.

    core, face: thickness of the middle layer and of each outer one. lipping_depth: how far the lipping reaches in from
    the leaf's edge; the first stile stands in by it. tongue: of a T, further in between the faces. trim: width of a
    moulding mitred round each field on both faces; None for none. pin_every: of the pins that hold while it sets.
    """

    kind: Literal["layered"] = "layered"
    style: LayerStyle = LayerStyle.FRAME
    sheet: str = "ply_birch"
    core: Annotated[float, between(3, 40, "core")] = 12.0
    face: Annotated[float, between(3, 30, "face layer")] = 12.0
    stile: Annotated[float, between(30, 400, "stile")] = 110.0
    top_rail: Annotated[float, between(30, 400, "top rail")] = 110.0
    middle_rail: Annotated[float, between(30, 500, "middle rail")] | None = 190.0
    bottom_rail: Annotated[float, between(30, 600, "bottom rail")] = 210.0
    muntin: Annotated[float, between(20, 300, "muntin")] | None = None
    lock_height: Annotated[float, between(100, 2500, "lock height")] = 1000.0
    lipping: Lipping = Lipping.PLAIN
    lipping_depth: Annotated[float, between(3, 60, "lipping")] = 10.0
    tongue: Annotated[float, between(3, 40, "tongue")] = 10.0
    trim: Annotated[float, between(5, 60, "trim")] | None = None
    trim_thickness: Annotated[float, between(3, 30, "trim thickness")] = 9.0
    pieced: Pieced = Pieced.NONE
    piece_joint: PieceJoint = PieceJoint.BUTT
    pin_every: Annotated[float, between(40, 500, "distance of pins")] = 150.0

    _known = field_validator("sheet")(known_sheet)

    @property
    def thickness(self) -> float:
        """Thickness over all layers."""
        return self.core + 2 * self.face


class LightJoint(StrEnum):
    """How a light frame is joined."""

    POCKET = "pocket screws"
    DOWELS = "dowels"


class LightFill(StrEnum):
    """What closes a light frame."""

    BOARDS = "boards on the back"
    SHEET = "sheet on the back"
    REBATED = "sheet in a rebate"
    BOARDED = "boards in a rebate"

    @property
    def is_in_rebate(self) -> bool:
        """Whether it lies inside the frame's thickness."""
        return self in (LightFill.REBATED, LightFill.BOARDED)

    @property
    def is_boards(self) -> bool:
        """Whether it is of boards, which move."""
        return self in (LightFill.BOARDS, LightFill.BOARDED)


class LightBrace(StrEnum):
    """What keeps a light frame square."""

    NONE = "none"
    ONE = "one brace"
    CROSSED = "two, half-lapped where they cross"


class LightGlue(StrEnum):
    """Where the glue goes in a light frame."""

    JOINTS = "in the frame's joints only"
    OVER = "the frame glued over its filling"


class Light(Model):
    """A frame of thin members laid on boards or sheet. fill_thickness: of these. board: cover of one board, at most.

    rebate: width of the rebate that takes a sheet. glue: where it goes. brace_width: of the braces in the upper field.
    """

    kind: Literal["light"] = "light"
    frame: Annotated[float, between(12, 40, "frame thickness")] = 20.0
    stile: Annotated[float, between(25, 250, "stile")] = 70.0
    top_rail: Annotated[float, between(25, 250, "top rail")] = 70.0
    middle_rail: Annotated[float, between(25, 300, "middle rail")] | None = None
    bottom_rail: Annotated[float, between(25, 300, "bottom rail")] = 90.0
    lock_height: Annotated[float, between(100, 2500, "lock height")] = 1000.0
    joint: LightJoint = LightJoint.POCKET
    fill: LightFill = LightFill.BOARDS
    fill_thickness: Annotated[float, between(3, 25, "filling")] = 9.0
    sheet: str = "ply_birch"
    board: Annotated[float, between(40, 250, "board")] = 100.0
    rebate: Annotated[float, between(4, 30, "rebate")] = 10.0
    glue: LightGlue = LightGlue.JOINTS
    brace: LightBrace = LightBrace.NONE
    brace_width: Annotated[float, between(25, 200, "brace")] = 70.0

    _known = field_validator("sheet")(known_sheet)

    @property
    def thickness(self) -> float:
        """Thickness over all: the frame and what lies behind it."""
        return self.frame + (0.0 if self.fill.is_in_rebate else self.fill_thickness)


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


class Existing(Model):
    """A leaf that is there already. width, height, thickness: as it lies on the bench.

    solid: wood from each long edge inwards, and rail: from top and foot, before a hollow or a core begins. face: skin
    or thick face. edge_by: how far a bevel, a rounding or a rebate reaches in. Of a panelled one: stile, its rails,
    muntin and panels across, tenon: how far it reaches into the stile, through: it shows on the edge.
    splice_lap, splice_stagger: of an extension; at_foot: it is added there. lap: of the halving. grooves: V lines up
    the face between two bands. recess_*: of a flush pull; step: one pass's depth.
    """

    kind: Literal["existing"] = "existing"
    width: Annotated[float, between(150, 2000, "width")] = 762.0
    height: Annotated[float, between(200, 3500, "height")] = 1981.0
    thickness: Annotated[float, between(12, 90, "thickness")] = 40.0
    inside: Inside = Inside.BLOCKS
    material: str = "redwood"
    face: Annotated[float, between(2, 30, "face")] = 4.0
    solid: Annotated[float, between(0, 400, "solid edge")] = 32.0
    rail: Annotated[float, between(0, 600, "solid end")] = 60.0
    edge_shape: EdgeShape = EdgeShape.SQUARE
    edge_by: Annotated[float, between(0, 40, "edge")] = 0.0
    stile: Annotated[float, between(30, 250, "stile")] = 95.0
    top_rail: Annotated[float, between(30, 400, "top rail")] = 95.0
    middle_rail: Annotated[float, between(30, 500, "middle rail")] | None = 180.0
    middle_up: Annotated[float, between(100, 2500, "middle rail")] = 990.0
    bottom_rail: Annotated[float, between(30, 600, "bottom rail")] = 200.0
    muntin: Annotated[float, between(20, 300, "muntin")] = 70.0
    panels: Annotated[int, Field(ge=1, le=6)] = 2
    panels_above: Annotated[int, Field(ge=1, le=6)] | None = None
    tenon: Annotated[float, between(10, 250, "tenon")] = 60.0
    through: bool = False
    by: ReduceBy = ReduceBy.SHARED
    splice: Splice = Splice.STAGGERED
    splice_lap: Annotated[float, between(10, 400, "lap")] = 75.0
    splice_stagger: Annotated[float, between(0, 200, "stagger")] = 25.0
    at_foot: bool = True
    grooves: Annotated[int, Field(ge=0, le=40)] = 0
    band: Annotated[float, between(5, 600, "band")] = 70.0
    groove_depth: Annotated[float, between(0.5, 15, "groove")] = 3.0
    recess_depth: Annotated[float, between(1, 40, "recess")] | None = None
    recess_step: Annotated[float, between(0.5, 15, "step")] = 3.0

    @model_validator(mode="after")
    def _known_material(self) -> Existing:
        if self.material not in (*species_keys(), *CORES):
            raise InputError("material", self.material, "a species of the table or a sheet")
        return self


class Match(StrEnum):
    """How veneers of one board lie beside one another."""

    SLIP = "slip-matched, all as sawn"
    BOOK = "book-matched, every other turned over"
