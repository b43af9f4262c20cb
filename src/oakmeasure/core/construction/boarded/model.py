"""Document model of boarded leaves. Lengths in mm."""

from __future__ import annotations

from collections.abc import Sequence
from enum import StrEnum
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from oakmeasure.core.document.construction_model import ConstructionModel, EdgeLayer, GlueOrder, LaidBoard, laid
from oakmeasure.core.document.rules import bounded


class BoardedStyle(StrEnum):
    """What holds the boards together."""

    LEDGED = "ledged"
    Z = "ledged, Z-braced"
    X = "ledged, X-braced"
    FRAMED = "framed and braced"


class BoardEdge(StrEnum):
    """How two boards meet."""

    TONGUED = "tongue and groove"
    SQUARE = "square-edged"


class Rip(StrEnum):
    """Which boards are ripped so that they make the width."""

    BOTH = "both end boards alike"
    LAST = "the last board"


class BraceEnds(StrEnum):
    """How a brace ends."""

    CORNER = "flat on the ledges"
    STILES = "flat on the stiles"
    POINTED = "pointed into the corners"


class FixedBy(StrEnum):
    """What goes through boards and ledges."""

    SCREWS = "screws"
    NAILS = "clenched nails"


class Boarded(ConstructionModel):
    """Boards on ledges, with braces or in a frame."""

    trade_name: ClassVar[str] = "boarded"
    """What the trade calls it."""
    kind: Literal["boarded"] = "boarded"
    """Which kind it is."""
    style: BoardedStyle = BoardedStyle.Z
    """Ledged, ledged and braced, or framed."""
    board_thickness: Annotated[float, bounded(8, 60, "board thickness")] = 20.0
    """Thickness of the boards, mm."""
    cover: Annotated[float, bounded(40, 400, "cover")] = 112.0
    """Width that one shows, mm."""
    edge: BoardEdge = BoardEdge.TONGUED
    """How boards meet."""
    groove: Annotated[float, bounded(2, 20, "groove")] = 6.0
    """Depth of the groove, mm; the tongue is outside the cover."""
    rip: Rip = Rip.BOTH
    """What is done where boards lay up too wide."""
    measured: Annotated[tuple[LaidBoard, ...], Field(max_length=30)] = ()
    """Covers of the boards at hand from the hinge edge, all but the last, which is ripped; () are all alike."""
    gap: Annotated[float, bounded(0, 10, "gap")] | None = None
    """Between boards at fitting, mm; None: from moisture."""
    ledges: Annotated[int, Field(ge=2, le=4)] = 2
    """How many ledges there are."""
    ledge_width: Annotated[float, bounded(40, 300, "ledge")] = 140.0
    """Width of a ledge, mm."""
    ledge_thickness: Annotated[float, bounded(12, 60, "ledge thickness")] = 20.0
    """Thickness of a ledge, mm."""
    ledge_inset: Annotated[float, bounded(0, 200, "ledge ends")] = 32.0
    """From the leaf's edges to the ledges' ends, mm."""
    ledge_from_foot: Annotated[float, bounded(20, 800, "ledge from the foot")] = 125.0
    """From the foot to the lowest ledge, mm."""
    ledge_top: Annotated[float, bounded(20, 800, "ledge from the top")] = 125.0
    """From the top to the uppermost ledge, mm."""
    brace_width: Annotated[float, bounded(40, 250, "brace")] = 110.0
    """Brace, mm."""
    brace_ends: BraceEnds = BraceEnds.CORNER
    """How braces end."""
    half_lapped: bool = False
    """Whether crossing braces are halved together."""
    fixed_by: FixedBy = FixedBy.SCREWS
    """Nails or screws."""
    stile: Annotated[float, bounded(40, 250, "stile")] = 95.0
    """Width of the framed one's stiles, mm."""
    top_rail: Annotated[float, bounded(40, 300, "top rail")] = 95.0
    """Width of the framed one's top rail, mm."""
    frame_thickness: Annotated[float, bounded(25, 80, "frame thickness")] = 44.0
    """Thickness of the framed one's frame, mm."""
    double: bool = False
    """Whether a second layer of boards lies behind."""

    @property
    def panel_thickness(self) -> float:
        """Thickness of the boards, both layers of a double leaf."""
        return self.board_thickness * (2 if self.double else 1)

    @property
    def edge_layers(self) -> tuple[EdgeLayer, ...]:
        """The frame, or the boards."""
        if self.style is BoardedStyle.FRAMED:
            return (EdgeLayer("frame_thick", "frame, thickness", self.frame_thickness, "build.frame_thickness"),)
        layers = 2 if self.double else 1
        return (EdgeLayer("board_thick", "board, thickness", self.board_thickness, "build.board_thickness", layers),)

    @property
    def over_all(self) -> float:
        """Thickness over boards and ledges, or of the frame, mm."""
        return self.thickness

    @property
    def ledges_from(self) -> float:
        """Return how far in from the opening face ledges and braces begin, mm: behind all boards."""
        if self.style is not BoardedStyle.FRAMED:
            return self.panel_thickness
        return max(self.frame_thickness - self.ledge_thickness, self.panel_thickness)

    @property
    def thickness(self) -> float:
        """Thickness over all: boards and ledges, or the frame."""
        if self.style is BoardedStyle.FRAMED:
            return self.frame_thickness
        return self.panel_thickness + self.ledge_thickness

    def with_widths(self, widths: Sequence[float]) -> Self:
        """Return the same of boards as wide as they were read; the last one is ripped to what is left.

        Args:
            widths: What each shows, from the hinge edge, mm.
        """
        return self.model_copy(update={"measured": laid(widths[:-1])})

    @property
    def glue_order(self) -> GlueOrder:
        """In which order it is glued up."""
        return GlueOrder.FRAME


MODEL = Boarded
