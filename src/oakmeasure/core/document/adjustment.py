"""What is read of a leaf as it hangs, how it may be put right, and that it was signed off, as the document holds it."""

from __future__ import annotations

from datetime import date
from enum import StrEnum
from typing import Annotated

from pydantic import Field, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.rules import FrozenModel, bounded
from oakmeasure.core.document.text import ONE_LINE, SOME_LINES

Gap = Annotated[float, bounded(0, 60, "gap")]
Off = Annotated[float, bounded(-60, 60, "out by")]


class PutRight(StrEnum):
    """What is sought first when gaps are put right."""

    LEAST_WOOD = "least wood off"
    EVEN = "the most even gap"


class Touches(StrEnum):
    """Which corner touches first."""

    NONE = "none"
    TOP_LATCH = "the upper latch corner"
    BOTTOM_LATCH = "the lower latch corner"
    TOP_HINGE = "the upper hinge corner"
    BOTTOM_HINGE = "the lower hinge corner"


class Gaps(FrozenModel):
    """Gaps round a leaf as it hangs, three to a side or fewer; None: not read.

    A pair's meeting line is its latch side.
    """

    hinge_top: Gap | None = None
    """Gap at the hinge edge near the head, mm; None where it was not read."""
    hinge_middle: Gap | None = None
    """Gap at the hinge edge half way up, mm."""
    hinge_bottom: Gap | None = None
    """Gap at the hinge edge near the foot, mm."""
    latch_top: Gap | None = None
    """Gap at the latch edge near the head, mm."""
    latch_middle: Gap | None = None
    """Gap at the latch edge half way up, mm."""
    latch_bottom: Gap | None = None
    """Gap at the latch edge near the foot, mm."""
    head_hinge: Gap | None = None
    """Gap under the head at the hinge side, mm."""
    head_middle: Gap | None = None
    """Gap under the head in the middle, mm."""
    head_latch: Gap | None = None
    """Gap under the head at the latch side, mm."""
    floor_hinge: Gap | None = None
    """Gap over the floor at the hinge side, mm."""
    floor_middle: Gap | None = None
    """Gap over the floor in the middle, mm."""
    floor_latch: Gap | None = None
    """Gap over the floor at the latch side, mm."""
    low_hinge: Off | None = None
    """How much too low the leaf stands at its hinge edge, less than 0 too high, mm."""
    low_latch: Off | None = None
    """How much too low the leaf stands at its latch edge, less than 0 too high, mm."""
    proud_top: Off | None = None
    """How far the latch edge stands out of the plane it should lie in; of a cabinet leaf the whole edge."""
    proud_bottom: Off | None = None
    """How far the latch edge stands out of the plane it should lie in; of a cabinet leaf the whole edge."""
    touches: Touches = Touches.NONE
    """Where the leaf touches its stop."""

    @property
    def is_read(self) -> bool:
        """Whether anything is read."""
        return any(getattr(self, name) is not None for name in type(self).model_fields if name != "touches")


class RunLeaf(FrozenModel):
    """One leaf of a run, from the left."""

    low_left: Off = 0.0
    """How much too low its left end is, mm."""
    low_right: Off = 0.0
    """How much too low its right end is, mm."""
    gap_top: Gap | None = None
    """Gap to the next leaf on its right at the top, mm; None for the last."""
    gap_bottom: Gap | None = None
    """Gap to the next leaf on its right at the foot, mm; None for the last."""
    proud_top: Off = 0.0
    """How far its top stands out of the plane, mm."""
    proud_bottom: Off = 0.0
    """How far its foot stands out of the plane, mm."""


class Sliding(FrozenModel):
    """Of a leaf that slides."""

    jamb_top: Gap | None = None
    """Gap at the latch jamb when shut, near the head, mm."""
    jamb_bottom: Gap | None = None
    """Gap at the latch jamb when shut, near the floor, mm."""
    rail_rises: Off | None = None
    """From the hinge end of the rail to the other, less than 0 it falls."""
    rail_bowed: Annotated[float, bounded(0, 30, "bow")] | None = None
    """Out of straight in its middle, mm."""
    guide_rubs: Annotated[float, bounded(0, 20, "off the middle")] | None = None
    """Out of the groove's middle."""
    wheels_stiff: bool = False
    """One of them does not turn by hand."""


class SignOff(FrozenModel):
    """The hand-over of a hung leaf."""

    on: date
    """The day."""
    by: Annotated[str, Field(min_length=1, max_length=80), ONE_LINE]
    """Who."""
    note: Annotated[str, Field(max_length=600), SOME_LINES] = ""
    """What is to be remembered."""
    width: Annotated[float, bounded(100, 3000, "width")] | None = None
    """Width as it was hung, mm; None where nobody measured it."""
    height: Annotated[float, bounded(100, 4000, "height")] | None = None
    """Height as it was hung, mm; None where nobody measured it."""
    mass_kg: Annotated[float, bounded(0.1, 400, "weight", "kg")] | None = None
    """Mass as it was hung, kg; None where nobody weighed it."""


class HungChoices(FrozenModel):
    """What was read and chosen once a leaf hangs."""

    gaps: Gaps = Gaps()
    """Gaps of the leaf as it hangs."""
    second: Gaps = Gaps()
    """Of the other leaf of a pair."""
    run: Annotated[tuple[RunLeaf, ...], Field(max_length=24)] = ()
    """Of cabinet leaves side by side."""
    sliding: Sliding = Sliding()
    """What was read of a leaf that slides."""
    aim: PutRight = PutRight.LEAST_WOOD
    """What counts in putting it right."""
    tolerance: Annotated[float, bounded(0.05, 5, "tolerance")] = 0.5
    """That a gap may be off, mm."""
    pack_most: Annotated[float, bounded(0, 6, "packing")] = 2.0
    """How far a butt may be packed out, mm."""
    let_in_most: Annotated[float, bounded(0, 4, "let in")] = 1.0
    """How much deeper a butt may be let in, mm."""
    shims: Annotated[tuple[Annotated[float, bounded(0.05, 5, "shim")], ...], Field(min_length=1, max_length=8)] = (
        0.25,
        0.5,
        1.0,
    )
    """That are at hand, mm."""
    proof_held: bool = False
    """The proof load was hung before the leaf went up, and it held."""
    signed: SignOff | None = None
    """Who signed it off; None before that."""

    @model_validator(mode="after")
    def _shims_differ(self) -> HungChoices:
        if len(set(self.shims)) < len(self.shims):
            raise InputError("shims", "twice", "each thickness once")
        return self
