"""Document model of light face frames. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, ClassVar, Literal

from pydantic import field_validator

from oakmeasure.core.document.construction_model import ConstructionModel, EdgeLayer, GlueOrder, known_sheet
from oakmeasure.core.document.rules import bounded


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


class Light(ConstructionModel):
    """A frame of thin members laid on boards or sheet."""

    trade_name: ClassVar[str] = "light face frame"
    """What the trade calls it."""
    is_worked_loose: ClassVar[bool] = True
    """Whether its parts are worked before they are put together."""
    kind: Literal["light"] = "light"
    """Which kind it is."""
    frame_thickness: Annotated[float, bounded(12, 40, "frame thickness")] = 20.0
    """Frame thickness, mm."""
    stile: Annotated[float, bounded(25, 250, "stile")] = 70.0
    """Stile, mm."""
    top_rail: Annotated[float, bounded(25, 250, "top rail")] = 70.0
    """Top rail, mm."""
    middle_rail: Annotated[float, bounded(25, 300, "middle rail")] | None = None
    """Middle rail, mm; None: by rule."""
    bottom_rail: Annotated[float, bounded(25, 300, "bottom rail")] = 90.0
    """Bottom rail, mm."""
    lock_height: Annotated[float, bounded(100, 2500, "lock height")] = 1000.0
    """Lock height, mm."""
    joint: LightJoint = LightJoint.POCKET
    """How its frame is joined."""
    fill: LightFill = LightFill.BOARDS
    """What fills it."""
    fill_thickness: Annotated[float, bounded(3, 25, "filling")] = 9.0
    """Thickness of what fills the frame, mm."""
    sheet: str = "ply_birch"
    """Key of its sheet material."""
    board: Annotated[float, bounded(40, 250, "board")] = 100.0
    """Cover of one board, at most, mm."""
    rebate: Annotated[float, bounded(4, 30, "rebate")] = 10.0
    """Width of the rebate that takes a sheet, mm."""
    glue: LightGlue = LightGlue.JOINTS
    """Where it goes."""
    brace: LightBrace = LightBrace.NONE
    """How it is braced."""
    brace_width: Annotated[float, bounded(25, 200, "brace")] = 70.0
    """Of the braces in the upper field."""

    _known = field_validator("sheet")(known_sheet)

    @property
    def edge_layers(self) -> tuple[EdgeLayer, ...]:
        """The frame, and what lies on its back; what lies in its rebates ends before the edge."""
        frame = EdgeLayer("frame_thick", "frame, thickness", self.frame_thickness, "build.frame_thickness")
        if self.fill.is_in_rebate:
            return (frame,)
        words = f"{'boards' if self.fill.is_boards else 'sheet'} behind, thickness"
        return frame, EdgeLayer("fill_thick", words, self.fill_thickness, "build.fill_thickness")

    @property
    def brace_thickness(self) -> float:
        """Return how thick a brace is, mm: what lies in a rebate of the frame goes on behind it."""
        return self.frame_thickness - (self.fill_thickness if self.fill.is_in_rebate else 0.0)

    @property
    def thickness(self) -> float:
        """Thickness over all: the frame and what lies behind it."""
        return self.frame_thickness + (0.0 if self.fill.is_in_rebate else self.fill_thickness)

    @property
    def glue_order(self) -> GlueOrder:
        """In which order it is glued up."""
        return GlueOrder.FRAME_AND_FILL


MODEL = Light
