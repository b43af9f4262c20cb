"""Cup hinges as the document holds them: the hinge by its sheet or a mock-up, how it is set, what is sought."""

from __future__ import annotations

from enum import StrEnum
from functools import cache
from typing import Annotated, Any

from pydantic import Field, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.readings import Reading, SmallReading
from oakmeasure.core.document.rules import FrozenModel, bounded
from oakmeasure.core.document.text import ONE_LINE, Line
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
    """Thickness of the leaf, mm."""
    boring: Annotated[float, bounded(0, 15, "boring")]
    """From the leaf's edge to the cup's edge, mm."""
    reveal: Annotated[float, bounded(0, 30, "reveal")]
    """The least reveal that they need, mm."""


class CupHinge(FrozenModel):
    """A hinge with a cup of 35."""

    name: Annotated[str, Field(min_length=1, max_length=80), ONE_LINE] = "Heron 110"
    """Its name, as it is shown."""
    reach: SmallReading = Reading(value=11.0, state=Provenance.FROM_TABLE)
    """Overlay of a straight arm at boring 0, plate 0."""
    cup_depth: SmallReading = Reading(value=11.5, state=Provenance.FROM_TABLE)
    """Depth of the cup, mm."""
    cranks: Annotated[tuple[Size, ...], Field(min_length=1, max_length=6)] = (0.0, 9.0, 18.0)
    """What the arms on offer are cranked by, mm."""
    plates: Annotated[tuple[Size, ...], Field(min_length=1, max_length=8)] = (0.0, 2.0, 4.0)
    """Heights of the mounting plates on offer, mm."""
    boring_least: Annotated[float, bounded(0, 12, "boring")] = 3.0
    """Least distance from the leaf's edge to the cup's edge, mm."""
    boring_most: Annotated[float, bounded(1, 15, "boring")] = 6.0
    """Greatest distance from the leaf's edge to the cup's edge, mm."""
    pattern_apart: Annotated[float, bounded(30, 70, "pattern")] = 45.0
    """Between its two screws or dowels, mm."""
    pattern_off: Annotated[float, bounded(0, 20, "pattern")] = 9.5
    """From the cup's middle to the line of its screws, mm."""
    opens: Annotated[float, bounded(60, 270, "opening angle", "°")] = 110.0
    """Opening angle, degrees."""
    stand_off: Annotated[float, bounded(0, 5, "stand-off")] = 1.5
    """Leaf to cabinet when shut, mm."""
    damped: bool = False
    """Whether it shuts softly."""
    reveal: Annotated[tuple[RevealRow, ...], Field(max_length=40)] = ()
    """The maker's table of the least reveal."""
    source: Line = "its sheet; made-up maker"
    """Whose figures they are."""

    @model_validator(mode="after")
    def _agrees(self) -> CupHinge:
        if self.boring_least > self.boring_most:
            raise InputError("boring_least", self.boring_least, f"at most {self.boring_most:g} mm, the largest boring")
        return self


CUP_SIZES = ("reach", "cup_depth")  # of a cup hinge, whose state tells whether it was chosen


def cup_from_table(key: str) -> CupHinge:
    """Return the hinge `key` of data/cups.toml, its figures in the state *from a table*.

    Args:
        key: Its key in the table.
    """
    row: dict[str, Any] = dict(table("cups")[key])
    for name in CUP_SIZES:
        row[name] = Reading(value=row[name], state=Provenance.FROM_TABLE)
    apart, off = row.pop("pattern")
    row["reveal"] = tuple(RevealRow(thickness=t, boring=b, reveal=v) for t, b, v in row["reveal"])
    return CupHinge(**row, pattern_apart=apart, pattern_off=off)


def is_cup_chosen(hinge: CupHinge) -> bool:
    """Return whether somebody chose a cup hinge: until then one is taken so that there is something to reckon with.

    Args:
        hinge: The hinge, as the document holds it.
    """
    return hinge != _default_cup()


@cache
def _default_cup() -> CupHinge:
    """Return the hinge that is taken until somebody chooses one: its figures are assumed."""
    usual = cup_from_table("heron-110")
    sizes = {name: getattr(usual, name).model_copy(update={"state": Provenance.ASSUMED}) for name in CUP_SIZES}
    return usual.model_copy(update=sizes)


def cup_keys() -> tuple[str, ...]:
    """Return the keys of the hinges that ship with the application."""
    return tuple(table("cups"))


class CupChoices(FrozenModel):
    """How the hinge is set."""

    hinge: CupHinge = Field(default_factory=_default_cup)
    """The cup hinge."""
    unknown: CupUnknown = CupUnknown.BORING
    """The figure that follows from the others; what its own field holds is not used."""
    boring: Annotated[float, bounded(-20, 40, "boring")] = USUAL_BORING
    """Boring, mm."""
    crank: Annotated[float, bounded(0, 30, "crank")] | None = None
    """None, mm: straight for a full overlay, half cranked for half, full for inset."""
    plate: Annotated[float, bounded(-5, 30, "plate")] = 0.0
    """Plate, mm."""
    first: Annotated[float, bounded(30, 600, "cup from the end")] = 100.0
    """Of the end cups' middles, from the leaf's ends."""
    last: Annotated[float, bounded(30, 600, "cup from the end")] | None = None
    """From the foot, None as first, mm."""
    count: Annotated[int, Field(ge=2, le=8)] | None = None
    """None by height and weight."""
    plate_front: Annotated[float, bounded(10, 100, "plate")] = 37.0
    """Of the plate's holes from the cabinet's front edge."""
    point: Annotated[float, bounded(0, 8, "cutter point")] = 2.5
    """Of the cutter, beyond its cup, mm."""
    dowels: bool = False
    """The cup is pressed in on two dowels, else screwed."""
    push_latch: bool = False
    """Whether it is opened by a push, so that it needs room behind."""
    push_travel: Annotated[float, bounded(0, 10, "travel")] = 2.5
    """Travel, mm."""
