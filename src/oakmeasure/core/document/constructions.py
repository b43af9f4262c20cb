"""Constructions and what is chosen for each, as the document holds them. Lengths in mm."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.layer_constructions import Existing, Layered, Light, Match, known_sheet
from oakmeasure.core.document.rules import Model, between


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


class Row(Model):
    """One row of fields of a frame. columns: side by side. share: of the height that the rows have to share.

    height: sight height by hand, instead. widths: shares of unequal columns, from the hinge side; () is equal.
    """

    columns: Annotated[int, Field(ge=1, le=6)] = 1
    share: Annotated[float, between(0.1, 20, "share", "")] = 1.0
    height: Annotated[float, between(20, 2500, "sight height")] | None = None
    infill: Infill = Infill.FLAT
    widths: Annotated[tuple[Annotated[float, between(0.1, 20, "share", "")], ...], Field(max_length=6)] = ()

    @model_validator(mode="after")
    def _agree(self) -> Row:
        if self.widths and len(self.widths) != self.columns:
            raise InputError("widths", len(self.widths), f"one share for each of the {self.columns} columns")
        return self


class Framed(Model):
    """Framed and panelled: stiles, rails, muntins, panels.

    rows: of fields, lowest first; () is one row, or two about a middle rail, the fields parted by a muntin.
    lock_height: of the lock rail's centre above the finished floor. lock_rail: which of the rails between it is, from
    0 up; None: none of them. other_rail: width of the other rails between. arch: rise of an arched top rail's lower
    edge; its width is then the one at the crown. sticking: moulded edge that the rails are coped over, depth.
    field_thickness, fielding: of raised panels in their middle, and how wide their slope is. glass_thickness: of panes.
    """

    kind: Literal["framed"] = "framed"
    thickness: Annotated[float, between(16, 90, "thickness")] = 44.0
    stile: Annotated[float, between(30, 400, "stile")] = 95.0
    top_rail: Annotated[float, between(30, 400, "top rail")] = 95.0
    middle_rail: Annotated[float, between(30, 500, "middle rail")] | None = 180.0
    bottom_rail: Annotated[float, between(30, 600, "bottom rail")] = 200.0
    muntin: Annotated[float, between(20, 300, "muntin")] | None = 95.0
    lock_height: Annotated[float, between(100, 2500, "lock height")] = 1000.0
    tenon: TenonKind = TenonKind.BLIND
    panel_thickness: Annotated[float, between(4, 60, "panel thickness")] = 12.0
    groove_depth: Annotated[float, between(4, 40, "groove")] | None = None
    rows: Annotated[tuple[Row, ...], Field(max_length=8)] = ()
    lock_rail: Annotated[int, Field(ge=0, le=6)] | None = 0
    other_rail: Annotated[float, between(30, 500, "rail")] = 95.0
    arch: Annotated[float, between(5, 600, "rise of the arch")] | None = None
    sticking: Annotated[float, between(0, 30, "sticking")] = 0.0
    field_thickness: Annotated[float, between(6, 60, "raised panel")] = 20.0
    fielding: Annotated[float, between(10, 120, "fielding")] = 45.0
    glass_thickness: Annotated[float, between(3, 40, "glass")] = 6.0


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


class Laid(Model):
    """A board or strip at hand, measured. width: what it shows in the leaf, a tongue not counted."""

    width: Annotated[float, between(30, 600, "board")]


class Boarded(Model):
    """Boards on ledges, with braces or in a frame.

    board: thickness of the boards. cover: width that one shows. groove: depth of it; the tongue is outside the cover.
    measured: covers of the boards at hand from the hinge edge, all but the last, which is ripped; () are all alike.
    gap: between boards at fitting; None: from moisture. ledge_*: width and thickness of a ledge, its ends in from the
    leaf's edges, its near edge from foot and top. stile, top_rail, frame: widths and thickness of the framed one.
    double: a second layer of boards behind.
    """

    kind: Literal["boarded"] = "boarded"
    style: BoardedStyle = BoardedStyle.Z
    board: Annotated[float, between(8, 60, "board thickness")] = 20.0
    cover: Annotated[float, between(40, 400, "cover")] = 112.0
    edge: BoardEdge = BoardEdge.TONGUED
    groove: Annotated[float, between(2, 20, "groove")] = 6.0
    rip: Rip = Rip.BOTH
    measured: Annotated[tuple[Laid, ...], Field(max_length=30)] = ()
    gap: Annotated[float, between(0, 10, "gap")] | None = None
    ledges: Annotated[int, Field(ge=2, le=4)] = 2
    ledge_width: Annotated[float, between(40, 300, "ledge")] = 140.0
    ledge_thickness: Annotated[float, between(12, 60, "ledge thickness")] = 20.0
    ledge_in: Annotated[float, between(0, 200, "ledge ends")] = 32.0
    ledge_foot: Annotated[float, between(20, 800, "ledge from the foot")] = 125.0
    ledge_top: Annotated[float, between(20, 800, "ledge from the top")] = 125.0
    brace_width: Annotated[float, between(40, 250, "brace")] = 110.0
    brace_ends: BraceEnds = BraceEnds.CORNER
    half_lapped: bool = False
    fixed_by: FixedBy = FixedBy.SCREWS
    stile: Annotated[float, between(40, 250, "stile")] = 95.0
    top_rail: Annotated[float, between(40, 300, "top rail")] = 95.0
    frame: Annotated[float, between(25, 80, "frame thickness")] = 44.0
    double: bool = False

    @property
    def panel_thickness(self) -> float:
        """Thickness of the boards, both layers of a double leaf."""
        return self.board * (2 if self.double else 1)

    @property
    def thickness(self) -> float:
        """Thickness over all: boards and ledges, or the frame."""
        if self.style is BoardedStyle.FRAMED:
            return self.frame
        return self.panel_thickness + self.ledge_thickness


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


class Slab(Model):
    """A slab of strips edge to edge.

    measured: widths of the strips at hand, from the hinge edge; () are alike and at most `strip` wide. shoot: taken off
    each glue joint, both edges together. every: distance of loose tenons or dowels. stages: glued up in groups of.
    stiffeners: how many; stiffener_*: width and thickness; stiffener_in: ends from the leaf's edges; stiffener_end:
    their centre from foot and top. dado: how deep they are let in.
    """

    kind: Literal["slab"] = "slab"
    thickness: Annotated[float, between(16, 90, "thickness")] = 40.0
    measured: Annotated[tuple[Laid, ...], Field(max_length=30)] = ()
    strip: Annotated[float, between(40, 400, "strip")] = 140.0
    shoot: Annotated[float, between(0, 10, "shooting")] = 0.0
    joint: SlabJoint = SlabJoint.TENONS
    every: Annotated[float, between(80, 800, "distance")] = 300.0
    glue: SlabGlue = SlabGlue.EDGES
    stages: Annotated[int, Field(ge=2, le=6)] = 3
    stiffener: Stiffener = Stiffener.DADOES
    stiffeners: Annotated[int, Field(ge=2, le=5)] = 2
    stiffener_width: Annotated[float, between(8, 200, "batten")] = 70.0
    stiffener_thickness: Annotated[float, between(5, 60, "batten thickness")] = 22.0
    stiffener_in: Annotated[float, between(0, 200, "batten ends")] = 60.0
    stiffener_end: Annotated[float, between(40, 800, "batten from the ends")] = 250.0
    dado: Annotated[float, between(0, 40, "dado")] = 8.0


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

    kind: Literal["veneered"] = "veneered"  # type: ignore[assignment]
    form: VeneerForm = VeneerForm.FLUSH
    core: str = "blockboard"
    veneer: Annotated[float, between(0.5, 6, "veneer")] = 2.5
    sanding: Annotated[float, between(0, 3, "sanding")] = 0.5
    wander: Annotated[float, between(0, 3, "spread")] = 0.3
    stock: Annotated[float, between(12, 150, "board thickness")] = 52.0
    stock_width: Annotated[float, between(50, 600, "board width")] = 200.0
    thin: Annotated[float, between(0.3, 12, "thinnest veneer")] | None = None
    thick: Annotated[float, between(0.3, 12, "thickest veneer")] | None = None
    back: BackFace = BackFace.SAME
    match: Match = Match.SLIP
    stock_boards: Annotated[int, Field(ge=1, le=60)] | None = None
    moulding: Annotated[float, between(0, 40, "moulding")] = 0.0
    sapwood: Annotated[float, between(0, 80, "sapwood")] = 0.0
    edging: Annotated[float, between(3, 80, "edging")] | None = None
    edging_first: bool = True

    _known = field_validator("core")(known_sheet)


Construction = Annotated[Framed | Boarded | Slab | Layered | Light | Veneered | Existing, Field(discriminator="kind")]
