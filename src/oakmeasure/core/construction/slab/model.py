"""Document model of slabs. Lengths in mm."""

from __future__ import annotations

from collections.abc import Sequence
from enum import StrEnum
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from oakmeasure.core.document.construction_model import ConstructionModel, GlueOrder, LaidBoard, laid
from oakmeasure.core.document.rules import bounded


class SlabJoint(StrEnum):
    """What joins the strips of a slab."""

    GLUED = "glued edges"
    TENONS = "loose tenons"
    DOWELS = "dowels"


class SlabGlue(StrEnum):
    """Where the glue goes."""

    EDGES = "on every edge"
    MORTISES = "in the mortises only"
    NOWHERE = "nowhere on the boards"


class Stiffener(StrEnum):
    """What keeps a slab flat and lets it move."""

    DADOES = "battens in dadoes"
    CHANNELS = "metal channels let in"
    NAILED = "nailed ledges"
    NONE = "nothing"


class Slab(ConstructionModel):
    """A slab of strips edge to edge."""

    trade_name: ClassVar[str] = "solid slab"
    """What the trade calls it."""
    kind: Literal["slab"] = "slab"
    """Which kind it is."""
    thickness: Annotated[float, bounded(16, 90, "thickness")] = 40.0
    """Thickness, mm."""
    measured: Annotated[tuple[LaidBoard, ...], Field(max_length=30)] = ()
    """Widths of the strips at hand, from the hinge edge; () are alike and at most `strip` wide."""
    strip: Annotated[float, bounded(40, 400, "strip")] = 140.0
    """Width of the widest strip, mm."""
    shoot: Annotated[float, bounded(0, 10, "shooting")] = 0.0
    """Taken off each glue joint, both edges together, mm."""
    joint: SlabJoint = SlabJoint.TENONS
    """How its strips are joined."""
    joint_spacing: Annotated[float, bounded(80, 800, "distance")] = 300.0
    """Distance of loose tenons or dowels, mm."""
    glue: SlabGlue = SlabGlue.EDGES
    """Whether strips are glued together."""
    group_size: Annotated[int, Field(ge=2, le=6)] = 3
    """How many pieces are glued up at a time."""
    stiffener: Stiffener = Stiffener.DADOES
    """What keeps it flat."""
    stiffeners: Annotated[int, Field(ge=2, le=5)] = 2
    """How many stiffeners there are."""
    stiffener_width: Annotated[float, bounded(8, 200, "batten")] = 70.0
    """Width of a stiffener, mm."""
    stiffener_thickness: Annotated[float, bounded(5, 60, "batten thickness")] = 22.0
    """Thickness of a stiffener, mm."""
    stiffener_in: Annotated[float, bounded(0, 200, "batten ends")] = 60.0
    """From the leaf's edges to the stiffeners' ends, mm."""
    stiffener_end: Annotated[float, bounded(40, 800, "batten from the ends")] = 250.0
    """From foot and top to the stiffeners' middle, mm."""
    dado: Annotated[float, bounded(0, 40, "dado")] = 8.0
    """How deep stiffeners are let in, mm."""

    @property
    def over_all(self) -> float:
        """Thickness over battens that stand out at the back, mm."""
        proud = {
            Stiffener.DADOES: max(self.stiffener_thickness - self.dado, 0.0),
            Stiffener.NAILED: self.stiffener_thickness,
        }
        return self.thickness + proud.get(self.stiffener, 0.0)

    @property
    def glued_at_once(self) -> int:
        """How many strips are glued up together, before their groups are."""
        return self.group_size

    def with_widths(self, widths: Sequence[float]) -> Self:
        """Return the same of strips as wide as they were read.

        Args:
            widths: What each shows, from the hinge edge, mm.
        """
        return self.model_copy(update={"measured": laid(widths)})

    def begun(self, clear_height: float | None) -> Self:
        """Return the same with battens that lie a fifth of a low leaf from its ends.

        Args:
            clear_height: The least reading of the opening's height, mm; None where nobody has read it.
        """
        fifth = 5.0 * round((clear_height or 2000.0) / 25.0)
        return self.model_copy(update={"stiffener_end": min(max(fifth, 50.0), self.stiffener_end)})

    @property
    def glue_order(self) -> GlueOrder:
        """In which order it is glued up."""
        return GlueOrder.SLAB


MODEL = Slab
