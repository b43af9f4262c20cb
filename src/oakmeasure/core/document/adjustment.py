"""What is read of a leaf as it hangs, how it may be put right, and that it was signed off, as the document holds it."""

from __future__ import annotations

from datetime import date
from enum import StrEnum
from typing import Annotated

from pydantic import Field, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.rules import FrozenModel, bounded

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
    """Gaps round a leaf as it hangs, three to a side or fewer; None: not read. A pair's meeting line is its latch side.

    low_hinge, low_latch: how much too low the leaf stands at its hinge and at its latch edge, less than 0 too high:
    of a leaf that lies on its cabinet. proud_top, proud_bottom: how far the latch edge stands out of the plane it
    should lie in; of a cabinet leaf the whole edge.
    """

    hinge_top: Gap | None = None
    hinge_middle: Gap | None = None
    hinge_bottom: Gap | None = None
    latch_top: Gap | None = None
    latch_middle: Gap | None = None
    latch_bottom: Gap | None = None
    head_hinge: Gap | None = None
    head_middle: Gap | None = None
    head_latch: Gap | None = None
    floor_hinge: Gap | None = None
    floor_middle: Gap | None = None
    floor_latch: Gap | None = None
    low_hinge: Off | None = None
    low_latch: Off | None = None
    proud_top: Off | None = None
    proud_bottom: Off | None = None
    touches: Touches = Touches.NONE

    @property
    def is_read(self) -> bool:
        """Whether anything is read."""
        return any(getattr(self, name) is not None for name in type(self).model_fields if name != "touches")


class RunLeaf(FrozenModel):
    """One leaf of a run, from the left. low_*: too low at its left and right end. gap_*: to the next one on its right,
    at the top and at the foot. proud_*: out of the plane.
    """

    low_left: Off = 0.0
    low_right: Off = 0.0
    gap_top: Gap | None = None
    gap_bottom: Gap | None = None
    proud_top: Off = 0.0
    proud_bottom: Off = 0.0


class Sliding(FrozenModel):
    """Of a leaf that slides. jamb_*: gap at the latch jamb when shut. rail_rises: from the hinge end of the rail to the
    other, less than 0 it falls. rail_bowed: out of straight in its middle. guide_rubs: out of the groove's middle.
    wheels_stiff: one of them does not turn by hand.
    """

    jamb_top: Gap | None = None
    jamb_bottom: Gap | None = None
    rail_rises: Off | None = None
    rail_bowed: Annotated[float, bounded(0, 30, "bow")] | None = None
    guide_rubs: Annotated[float, bounded(0, 20, "off the middle")] | None = None
    wheels_stiff: bool = False


class SignOff(FrozenModel):
    """on: the day. by: who. note: what is to be remembered. width, height, mass_kg: as it was hung, where measured."""

    on: date
    by: Annotated[str, Field(min_length=1, max_length=80)]
    note: Annotated[str, Field(max_length=600)] = ""
    width: Annotated[float, bounded(100, 3000, "width")] | None = None
    height: Annotated[float, bounded(100, 4000, "height")] | None = None
    mass_kg: Annotated[float, bounded(0.1, 400, "weight", "kg")] | None = None


class HungChoices(FrozenModel):
    """gaps: of the leaf, second: of the other leaf of a pair. run: of cabinet leaves side by side. tolerance: that a
    gap may be off. pack_most, let_in_most: how far a butt may be packed out or let in deeper. shims: that are at
    hand. proof_held: the proof load was hung before the leaf went up, and it held.
    """

    gaps: Gaps = Gaps()
    second: Gaps = Gaps()
    run: Annotated[tuple[RunLeaf, ...], Field(max_length=24)] = ()
    sliding: Sliding = Sliding()
    aim: PutRight = PutRight.LEAST_WOOD
    tolerance: Annotated[float, bounded(0.05, 5, "tolerance")] = 0.5
    pack_most: Annotated[float, bounded(0, 6, "packing")] = 2.0
    let_in_most: Annotated[float, bounded(0, 4, "let in")] = 1.0
    shims: Annotated[tuple[Annotated[float, bounded(0.05, 5, "shim")], ...], Field(min_length=1, max_length=8)] = (
        0.25,
        0.5,
        1.0,
    )
    proof_held: bool = False
    signed: SignOff | None = None

    @model_validator(mode="after")
    def _shims_differ(self) -> HungChoices:
        if len(set(self.shims)) < len(self.shims):
            raise InputError("shims", "twice", "each thickness once")
        return self
