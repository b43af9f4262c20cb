"""Document model of framed and panelled leaves. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.construction_model import ConstructionModel, GlueOrder
from oakmeasure.core.document.rules import FrozenModel, bounded


class TenonKind(StrEnum):
    """How a rail is held in the stile."""

    BLIND = "blind"
    THROUGH = "through and wedged"
    LOOSE = "loose tenons"
    DOWELS = "dowels"
    BRIDLE = "bridles"
    POCKET = "pocket screws"
    HALF_LAP = "half laps"

    @property
    def is_whole(self) -> bool:
        """Whether the rail itself reaches into the stile; else it ends at its shoulder."""
        return self in (TenonKind.BLIND, TenonKind.THROUGH, TenonKind.BRIDLE, TenonKind.HALF_LAP)

    @property
    def goes_through(self) -> bool:
        """Whether its end is seen on the stile's edge."""
        return self in (TenonKind.THROUGH, TenonKind.BRIDLE, TenonKind.HALF_LAP)


class Infill(StrEnum):
    """What stands in a field of a frame."""

    FLAT = "flat panels"
    RAISED = "raised and fielded panels"
    BOARDS = "tongued boards"
    GLASS = "glass"


class FieldRow(FrozenModel):
    """One row of fields of a frame. columns: side by side. share: of the height that the rows have to share.

    height: sight height by hand, instead. widths: shares of unequal columns, from the hinge side; () is equal.
    """

    columns: Annotated[int, Field(ge=1, le=6)] = 1
    share: Annotated[float, bounded(0.1, 20, "share", "")] = 1.0
    height: Annotated[float, bounded(20, 2500, "sight height")] | None = None
    infill: Infill = Infill.FLAT
    widths: Annotated[tuple[Annotated[float, bounded(0.1, 20, "share", "")], ...], Field(max_length=6)] = ()

    @model_validator(mode="after")
    def _agree(self) -> FieldRow:
        if self.widths and len(self.widths) != self.columns:
            raise InputError("widths", len(self.widths), f"one share for each of the {self.columns} columns")
        return self


class Framed(ConstructionModel):
    """Framed and panelled: stiles, rails, muntins, panels.

    rows: of fields, lowest first; () is one row, or two about a middle rail, the fields parted by a muntin.
    lock_height: of the lock rail's centre above the finished floor. lock_rail: which of the rails between it is, from
    0 up; None: none of them. other_rail: width of the other rails between. arch: rise of an arched top rail's lower
    edge; its width is then the one at the crown. sticking: moulded edge that the rails are coped over, depth.
    field_thickness, fielding: of raised panels in their middle, and how wide their slope is. glass_thickness: of panes.
    """

    trade_name: ClassVar[str] = "framed and panelled"
    is_worked_loose: ClassVar[bool] = True
    judges_its_lock: ClassVar[bool] = True
    kind: Literal["framed"] = "framed"
    thickness: Annotated[float, bounded(16, 90, "thickness")] = 44.0
    stile: Annotated[float, bounded(30, 400, "stile")] = 95.0
    top_rail: Annotated[float, bounded(30, 400, "top rail")] = 95.0
    middle_rail: Annotated[float, bounded(30, 500, "middle rail")] | None = 180.0
    bottom_rail: Annotated[float, bounded(30, 600, "bottom rail")] = 200.0
    muntin: Annotated[float, bounded(20, 300, "muntin")] | None = 95.0
    lock_height: Annotated[float, bounded(100, 2500, "lock height")] = 1000.0
    tenon: TenonKind = TenonKind.BLIND
    panel_thickness: Annotated[float, bounded(4, 60, "panel thickness")] = 12.0
    groove_depth: Annotated[float, bounded(4, 40, "groove")] | None = None
    rows: Annotated[tuple[FieldRow, ...], Field(max_length=8)] = ()
    lock_rail: Annotated[int, Field(ge=0, le=6)] | None = 0
    other_rail: Annotated[float, bounded(30, 500, "rail")] = 95.0
    arch: Annotated[float, bounded(5, 600, "rise of the arch")] | None = None
    sticking: Annotated[float, bounded(0, 30, "sticking")] = 0.0
    field_thickness: Annotated[float, bounded(6, 60, "raised panel")] = 20.0
    fielding: Annotated[float, bounded(10, 120, "fielding")] = 45.0
    glass_thickness: Annotated[float, bounded(3, 40, "glass")] = 6.0

    @property
    def glue_order(self) -> GlueOrder:
        """In which order it is glued up."""
        return GlueOrder.FRAME


MODEL = Framed
