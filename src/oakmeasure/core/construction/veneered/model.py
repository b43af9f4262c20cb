"""Document model of veneered leaves. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, ClassVar, Literal

from pydantic import Field, field_validator

from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.construction_model import ConstructionModel, GlueOrder, known_sheet
from oakmeasure.core.document.rules import bounded
from oakmeasure.core.document.veneer_match import Match


class VeneerForm(StrEnum):
    """What is veneered."""

    FLUSH = "a flush leaf"
    FRAMED = "stiles, rails and panels, each built up"


class BackFace(StrEnum):
    """What lies on the closing face."""

    SAME = "the same veneer"
    THIN = "bought veneer, 0.6 thick"
    BARE = "nothing"


class Veneered(Framed):
    """Veneers sawn in the shop on a core, edged with solid wood: flush, or as a frame whose fields are veneered too."""

    trade_name: ClassVar[str] = "veneered, built up"
    """What the trade calls it."""
    is_worked_loose: ClassVar[bool] = False
    """Whether its parts are worked before they are put together."""
    kind: Literal["veneered"] = "veneered"  # type: ignore[assignment]
    """Which kind it is."""
    form: VeneerForm = VeneerForm.FLUSH
    """What the core is."""
    core: str = "blockboard"
    """Sheet that is veneered."""
    veneer: Annotated[float, bounded(0.5, 6, "veneer")] = 2.5
    """Thickness when finished, mm."""
    sanding: Annotated[float, bounded(0, 3, "sanding")] = 0.5
    """Off each veneer, mm."""
    thickness_spread: Annotated[float, bounded(0, 3, "spread")] = 0.3
    """Between its thickest and its thinnest place as sawn, mm."""
    stock: Annotated[float, bounded(12, 150, "board thickness")] = 52.0
    """Thickness of the boards that are resawn, mm."""
    stock_width: Annotated[float, bounded(50, 600, "board width")] = 200.0
    """Width of the boards that are resawn, mm."""
    thin: Annotated[float, bounded(0.3, 12, "thinnest veneer")] | None = None
    """The thinnest veneer as it came, measured, mm; None: as it was meant."""
    thick: Annotated[float, bounded(0.3, 12, "thickest veneer")] | None = None
    """The thickest veneer as it came, measured, mm; None: as it was meant."""
    back: BackFace = BackFace.SAME
    """What lies on the back."""
    match: Match = Match.SLIP
    """How veneers lie side by side."""
    stock_boards: Annotated[int, Field(ge=1, le=60)] | None = None
    """At hand; None: as many as needed."""
    moulding: Annotated[float, bounded(0, 40, "moulding")] = 0.0
    """Depth of the edge moulding, mm."""
    sapwood: Annotated[float, bounded(0, 80, "sapwood")] = 0.0
    """Of the board that the edging comes from, mm."""
    edging: Annotated[float, bounded(3, 80, "edging")] | None = None
    """Its width, None, mm: from the moulding."""
    edging_first: bool = True
    """Before the veneer."""

    _known = field_validator("core")(known_sheet)

    @property
    def glue_order(self) -> GlueOrder:
        """Pressed, and where it is framed its members are then put together."""
        return GlueOrder.PRESSED_FRAME if self.form is VeneerForm.FRAMED else GlueOrder.PRESSED


def veneered(choice: ConstructionModel) -> Veneered | None:
    """Return a veneered leaf; None for any other.

    Args:
        choice: What is chosen for the construction.
    """
    return choice if isinstance(choice, Veneered) else None


MODEL = Veneered
