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
    """A slab of strips edge to edge.

    measured: widths of the strips at hand, from the hinge edge; () are alike and at most `strip` wide. shoot: taken off
    each glue joint, both edges together. every: distance of loose tenons or dowels. stages: glued up in groups of.
    stiffeners: how many; stiffener_*: width and thickness; stiffener_in: ends from the leaf's edges; stiffener_end:
    their centre from foot and top. dado: how deep they are let in.
    """

    trade_name: ClassVar[str] = "solid slab"
    kind: Literal["slab"] = "slab"
    thickness: Annotated[float, bounded(16, 90, "thickness")] = 40.0
    measured: Annotated[tuple[LaidBoard, ...], Field(max_length=30)] = ()
    strip: Annotated[float, bounded(40, 400, "strip")] = 140.0
    shoot: Annotated[float, bounded(0, 10, "shooting")] = 0.0
    joint: SlabJoint = SlabJoint.TENONS
    every: Annotated[float, bounded(80, 800, "distance")] = 300.0
    glue: SlabGlue = SlabGlue.EDGES
    stages: Annotated[int, Field(ge=2, le=6)] = 3
    stiffener: Stiffener = Stiffener.DADOES
    stiffeners: Annotated[int, Field(ge=2, le=5)] = 2
    stiffener_width: Annotated[float, bounded(8, 200, "batten")] = 70.0
    stiffener_thickness: Annotated[float, bounded(5, 60, "batten thickness")] = 22.0
    stiffener_in: Annotated[float, bounded(0, 200, "batten ends")] = 60.0
    stiffener_end: Annotated[float, bounded(40, 800, "batten from the ends")] = 250.0
    dado: Annotated[float, bounded(0, 40, "dado")] = 8.0

    @property
    def glued_at_once(self) -> int:
        """How many strips are glued up together, before their groups are."""
        return self.stages

    def with_widths(self, widths: Sequence[float]) -> Self:
        """Return the same of strips as wide as they were read."""
        return self.model_copy(update={"measured": laid(widths)})

    def begun(self, clear_height: float | None) -> Self:
        """Return the same with battens that lie a fifth of a low leaf from its ends."""
        fifth = 5.0 * round((clear_height or 2000.0) / 25.0)
        return self.model_copy(update={"stiffener_end": min(max(fifth, 50.0), self.stiffener_end)})

    @property
    def glue_order(self) -> GlueOrder:
        """In which order it is glued up."""
        return GlueOrder.SLAB


MODEL = Slab
