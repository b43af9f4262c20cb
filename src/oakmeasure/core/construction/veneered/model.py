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
    """Veneers sawn in the shop on a core, edged with solid wood: flush, or as a frame whose fields are veneered too.

    core: sheet that is veneered. veneer: thickness when finished; sanding: off each veneer; wander: between its
    thickest and its thinnest place as sawn. stock, stock_width: of the boards that are resawn. thin, thick: of the
    veneers as they came, measured; None: as they were meant. stock_boards: at hand; None: as many as needed. moulding:
    depth of the edge moulding; sapwood: of the board that the edging comes from. edging: its width, None: from the
    moulding. edging_first: before the veneer.
    """

    trade_name: ClassVar[str] = "veneered, built up"
    is_worked_loose: ClassVar[bool] = False
    kind: Literal["veneered"] = "veneered"  # type: ignore[assignment]
    form: VeneerForm = VeneerForm.FLUSH
    core: str = "blockboard"
    veneer: Annotated[float, bounded(0.5, 6, "veneer")] = 2.5
    sanding: Annotated[float, bounded(0, 3, "sanding")] = 0.5
    wander: Annotated[float, bounded(0, 3, "spread")] = 0.3
    stock: Annotated[float, bounded(12, 150, "board thickness")] = 52.0
    stock_width: Annotated[float, bounded(50, 600, "board width")] = 200.0
    thin: Annotated[float, bounded(0.3, 12, "thinnest veneer")] | None = None
    thick: Annotated[float, bounded(0.3, 12, "thickest veneer")] | None = None
    back: BackFace = BackFace.SAME
    match: Match = Match.SLIP
    stock_boards: Annotated[int, Field(ge=1, le=60)] | None = None
    moulding: Annotated[float, bounded(0, 40, "moulding")] = 0.0
    sapwood: Annotated[float, bounded(0, 80, "sapwood")] = 0.0
    edging: Annotated[float, bounded(3, 80, "edging")] | None = None
    edging_first: bool = True

    _known = field_validator("core")(known_sheet)

    @property
    def glue_order(self) -> GlueOrder:
        """Pressed, and where it is framed its members are then put together."""
        return GlueOrder.PRESSED_FRAME if self.form is VeneerForm.FRAMED else GlueOrder.PRESSED


def veneered(choice: ConstructionModel) -> Veneered | None:
    """Return a veneered leaf; None for any other."""
    return choice if isinstance(choice, Veneered) else None


MODEL = Veneered
