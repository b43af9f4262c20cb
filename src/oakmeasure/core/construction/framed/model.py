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
    """One row of fields of a frame."""

    columns: Annotated[int, Field(ge=1, le=6)] = 1
    """Side by side."""
    share: Annotated[float, bounded(0.1, 20, "share", "")] = 1.0
    """Of the height that the rows have to share."""
    height: Annotated[float, bounded(20, 2500, "sight height")] | None = None
    """Sight height by hand, instead, mm."""
    infill: Infill = Infill.FLAT
    """What fills it."""
    widths: Annotated[tuple[Annotated[float, bounded(0.1, 20, "share", "")], ...], Field(max_length=6)] = ()
    """Shares of unequal columns, from the hinge side; () is equal."""

    @model_validator(mode="after")
    def _agree(self) -> FieldRow:
        if self.widths and len(self.widths) != self.columns:
            raise InputError("widths", len(self.widths), f"one share for each of the {self.columns} columns")
        return self


class Framed(ConstructionModel):
    """Framed and panelled: stiles, rails, muntins, panels."""

    trade_name: ClassVar[str] = "framed and panelled"
    """What the trade calls it."""
    is_worked_loose: ClassVar[bool] = True
    """Whether its parts are worked before they are put together."""
    judges_its_lock: ClassVar[bool] = True
    """Whether it judges the lock against its own stile."""
    kind: Literal["framed"] = "framed"
    """Which kind it is."""
    thickness: Annotated[float, bounded(16, 90, "thickness")] = 44.0
    """Thickness, mm."""
    stile: Annotated[float, bounded(30, 400, "stile")] = 95.0
    """Stile, mm."""
    top_rail: Annotated[float, bounded(30, 400, "top rail")] = 95.0
    """Top rail, mm."""
    middle_rail: Annotated[float, bounded(30, 500, "middle rail")] | None = 180.0
    """Middle rail, mm; None: by rule."""
    bottom_rail: Annotated[float, bounded(30, 600, "bottom rail")] = 200.0
    """Bottom rail, mm."""
    muntin: Annotated[float, bounded(20, 300, "muntin")] | None = 95.0
    """Muntin, mm; None: by rule."""
    lock_height: Annotated[float, bounded(100, 2500, "lock height")] = 1000.0
    """Of the lock rail's centre above the finished floor."""
    tenon: TenonKind = TenonKind.BLIND
    """How rails meet the stiles."""
    panel_thickness: Annotated[float, bounded(4, 60, "panel thickness")] = 12.0
    """Panel thickness, mm."""
    groove_depth: Annotated[float, bounded(4, 40, "groove")] | None = None
    """Groove, mm; None: by rule."""
    rows: Annotated[tuple[FieldRow, ...], Field(max_length=8)] = ()
    """Of fields, lowest first; () is one row, or two about a middle rail, the fields parted by a muntin."""
    lock_rail: Annotated[int, Field(ge=0, le=6)] | None = 0
    """Which of the rails between it is, from 0 up; None: none of them."""
    other_rail: Annotated[float, bounded(30, 500, "rail")] = 95.0
    """Width of the other rails between, mm."""
    arch_rise: Annotated[float, bounded(5, 600, "rise of the arch")] | None = None
    """Rise of an arched top rail's lower edge; its width is then the one at the crown."""
    sticking: Annotated[float, bounded(0, 30, "sticking")] = 0.0
    """Moulded edge that the rails are coped over, depth, mm."""
    field_thickness: Annotated[float, bounded(6, 60, "raised panel")] = 20.0
    """Thickness of raised panels in their middle, mm."""
    fielding: Annotated[float, bounded(10, 120, "fielding")] = 45.0
    """Width of the slope round a raised panel, mm."""
    glass_thickness: Annotated[float, bounded(3, 40, "glass")] = 6.0
    """Thickness of panes, mm."""

    @property
    def glue_order(self) -> GlueOrder:
        """In which order it is glued up."""
        return GlueOrder.FRAME


MODEL = Framed
