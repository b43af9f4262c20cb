"""Cup hinges as the document holds them: the hinge by its sheet or a mock-up, how it is set, what is sought."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Any

from pydantic import Field, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.readings import Reading, SmallReading
from oakmeasure.core.document.rules import FrozenModel, bounded
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.data import table

USUAL_BORING = 4.5  # until it is sought or set: common practice, no source
Size = Annotated[float, bounded(0, 60, "size")]


class CupUnknown(StrEnum):
    """Which figure of overlay = reach − crank + boring − plate is worked out from the others."""

    BORING = "boring"
    OVERLAY = "overlay"
    PLATE = "plate"
    CRANK = "crank"
    REACH = "reach, from a mock-up"


class RevealRow(FrozenModel):
    """Least reveal at a thickness and a boring, by the hinge's own sheet."""

    thickness: Annotated[float, bounded(10, 60, "thickness")]
    boring: Annotated[float, bounded(0, 15, "boring")]
    reveal: Annotated[float, bounded(0, 30, "reveal")]


class CupHinge(FrozenModel):
    """A hinge with a cup of 35. reach: overlay of a straight arm at boring 0, plate 0. source: whose figures they are.

    pattern_apart, pattern_off: of its two screws or dowels; the second is the screw line, from the cup's middle away
    from the leaf's edge. stand_off: leaf to cabinet when shut.
    """

    name: Annotated[str, Field(min_length=1, max_length=80)] = "Heron 110"
    reach: SmallReading = Reading(value=11.0, state=Provenance.FROM_TABLE)
    cup_depth: SmallReading = Reading(value=11.5, state=Provenance.FROM_TABLE)
    cranks: Annotated[tuple[Size, ...], Field(min_length=1, max_length=6)] = (0.0, 9.0, 18.0)
    plates: Annotated[tuple[Size, ...], Field(min_length=1, max_length=8)] = (0.0, 2.0, 4.0)
    boring_least: Annotated[float, bounded(0, 12, "boring")] = 3.0
    boring_most: Annotated[float, bounded(1, 15, "boring")] = 6.0
    pattern_apart: Annotated[float, bounded(30, 70, "pattern")] = 45.0
    pattern_off: Annotated[float, bounded(0, 20, "pattern")] = 9.5
    opens: Annotated[float, bounded(60, 270, "opening angle", "°")] = 110.0
    stand_off: Annotated[float, bounded(0, 5, "stand-off")] = 1.5
    damped: bool = False
    reveal: Annotated[tuple[RevealRow, ...], Field(max_length=40)] = ()
    source: str = "its sheet; made-up maker"

    @model_validator(mode="after")
    def _agrees(self) -> CupHinge:
        if self.boring_least > self.boring_most:
            raise InputError("boring_least", self.boring_least, f"at most {self.boring_most:g} mm, the largest boring")
        return self


def cup_from_table(key: str) -> CupHinge:
    """Return the hinge `key` of data/cups.toml, its figures in the state *from a table*."""
    row: dict[str, Any] = dict(table("cups")[key])
    for name in ("reach", "cup_depth"):
        row[name] = Reading(value=row[name], state=Provenance.FROM_TABLE)
    apart, off = row.pop("pattern")
    row["reveal"] = tuple(RevealRow(thickness=t, boring=b, reveal=v) for t, b, v in row["reveal"])
    return CupHinge(**row, pattern_apart=apart, pattern_off=off)


def cup_keys() -> tuple[str, ...]:
    """Return the keys of the hinges that ship with the application."""
    return tuple(table("cups"))


class CupChoices(FrozenModel):
    """How the hinge is set. unknown: the figure that follows from the others; what its own field holds is not used.

    crank: None: straight for a full overlay, half cranked for half, full for inset.
    first: of the end cups' middles, from the leaf's ends; last: from the foot, None as first. count: None by height and
    weight. plate_front: of the plate's holes from the cabinet's front edge. point: of the cutter, beyond its cup.
    dowels: the cup is pressed in on two dowels, else screwed.
    """

    hinge: CupHinge = Field(default_factory=lambda: cup_from_table("heron-110"))
    unknown: CupUnknown = CupUnknown.BORING
    boring: Annotated[float, bounded(-20, 40, "boring")] = USUAL_BORING
    crank: Annotated[float, bounded(0, 30, "crank")] | None = None
    plate: Annotated[float, bounded(-5, 30, "plate")] = 0.0
    first: Annotated[float, bounded(30, 600, "cup from the end")] = 100.0
    last: Annotated[float, bounded(30, 600, "cup from the end")] | None = None
    count: Annotated[int, Field(ge=2, le=8)] | None = None
    plate_front: Annotated[float, bounded(10, 100, "plate")] = 37.0
    point: Annotated[float, bounded(0, 8, "cutter point")] = 2.5
    dowels: bool = False
    push_latch: bool = False
    push_travel: Annotated[float, bounded(0, 10, "travel")] = 2.5
