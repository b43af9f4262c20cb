"""Shop rules: a named set of the choices on which the trade's schools differ, each value with its reason.

A job holds the whole set that it was made with, so that a later change of a shipped set moves no old job.
The shipped sets are tables in data/rules; people copy one and change it.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, GetCoreSchemaHandler, GetJsonSchemaHandler, model_validator
from pydantic_core import CoreSchema, core_schema

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.text import Line
from oakmeasure.data import names, table


class FrozenModel(BaseModel):
    """A frozen document model: unknown fields and numbers that are none are refused."""

    model_config = ConfigDict(defer_build=True, frozen=True, extra="forbid", allow_inf_nan=False)


@dataclass(frozen=True, slots=True)
class Limits:
    """Between what a number, or a reading's value, may be; stands in its field's annotation, and in the schema."""

    low: float
    """The least that it may be, in the field's unit."""
    high: float
    """The most that it may be, in the field's unit."""
    what: str
    """What it is."""
    unit: str = "mm"
    """What the unit is called in a refusal."""

    def _checked(self, value: Any) -> Any:
        check_between(getattr(value, "value", value), self.low, self.high, self.what, self.unit)
        return value

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        """Tell pydantic to check the value once it is read."""
        return core_schema.no_info_after_validator_function(self._checked, handler(source))

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        """Tell the JSON schema of the limits."""
        said, limits = handler(schema), {"minimum": self.low, "maximum": self.high}
        return {**said, "properties": {"value": limits}} if "$ref" in said else {**said, **limits}


def bounded(low: float, high: float, what: str, unit: str = "mm") -> Limits:
    """Return the check of a number's range; its refusal says what it was read as and what would do.

    Args:
        low: The least that it may be, in the field's unit.
        high: The most that it may be, in the field's unit.
        what: What it is.
        unit: What the unit is called in a refusal.
    """
    return Limits(low, high, what, unit)


def check_between(value: float, low: float, high: float, what: str, unit: str = "mm") -> float:
    """Return `value`; InputError when it is not a number from low to high.

    Args:
        value: The value that is checked.
        low: The least that it may be, in the value's unit.
        high: The most that it may be, in the value's unit.
        what: What it is.
        unit: What the unit is called in a refusal.
    """
    if not math.isfinite(value) or not low <= value <= high:
        raise InputError(what, f"{value:g}", limits=(low, high), unit=unit)
    return value


class ButtSchool(StrEnum):
    """Where the butts go."""

    THIRD_CENTRED = "third centred"
    THIRD_HIGH = "third under the top one"
    SEVEN_ELEVEN = "7 and 11 inches"


class Rule(FrozenModel):
    """One value and why the shop does it so."""

    value: Annotated[float, bounded(-1e5, 1e5, "rule", "")]
    """Rule."""
    reason: Line = ""
    """Why the shop does it so."""


@dataclass(frozen=True, slots=True)
class RuleKind:
    """What a rule is called, what it is counted in, and between what it makes sense."""

    group: str
    """Under which heading it stands."""
    label: str
    """What it is called on the screen."""
    low: float
    """The least that makes sense, in its unit."""
    high: float
    """The most that makes sense, in its unit."""
    unit: Unit = Unit.MM
    """Its unit."""


RULE_KINDS: dict[str, RuleKind] = {
    "sigma_tape": RuleKind("How sure a reading is", "one by tape", 0.05, 10),
    "sigma_diagonal": RuleKind("How sure a reading is", "a diagonal", 0.05, 20),
    "sigma_plumb_per_m": RuleKind("How sure a reading is", "plumb or level, for each metre", 0.02, 5),
    "sigma_tick": RuleKind("How sure a reading is", "a tick on the board", 0.05, 10),
    "gap_hinge": RuleKind("Gaps", "at the hinges", 0, 60),
    "gap_latch": RuleKind("Gaps", "at the latch", 0, 60),
    "gap_head": RuleKind("Gaps", "at the head", 0, 60),
    "gap_floor": RuleKind("Gaps", "over the floor", 0, 60),
    "trim_side": RuleKind("Left on to trim", "each side", 0, 50),
    "trim_height": RuleKind("Left on to trim", "top and bottom each", 0, 50),
    "sigma_cut": RuleKind("How sure a cut is", "a planed size", 0.02, 5),
    "sigma_hang": RuleKind("How sure a cut is", "the gap that the hinges make", 0.02, 5),
    "shaving": RuleKind("How sure a cut is", "one stroke of the plane takes", 0.02, 1),
    "solid_edge": RuleKind("Bought slabs", "solid edge", 0, 120),
    "bench_length": RuleKind("What the shop can hold", "bench, or floor kept flat: length", 600, 8000),
    "clamp_reach": RuleKind("What the shop can hold", "clamps reach", 200, 4000),
    "clamps": RuleKind("What the shop can hold", "clamps", 1, 100, Unit.COUNT),
    "planer_width": RuleKind("What the shop can hold", "planer takes", 100, 1300),
    "sander_width": RuleKind("What the shop can hold", "sander takes", 0, 1600),
    "saw_width": RuleKind("What the shop can hold", "saw: beside the blade", 200, 3200),
    "timber_price": RuleKind("Costs, in the job's money", "a cubic metre of sawn timber", 0, 1e5, Unit.MONEY),
    "hour_price": RuleKind("Costs, in the job's money", "an hour of work", 0, 1000, Unit.MONEY),
    "planed_price": RuleKind("Costs, in the job's money", "a cubic metre planed to size", 0, 1e5, Unit.MONEY),
    "milling_minutes": RuleKind("Costs, in the job's money", "minutes to mill a rough part", 0, 240, Unit.RATIO),
    "length_minutes": RuleKind("Costs, in the job's money", "minutes to cut a planed part", 0, 60, Unit.RATIO),
    "machining_price": RuleKind("Costs, in the job's money", "a part machined out of house", 0, 1000, Unit.MONEY),
    "finish_price": RuleKind("Costs, in the job's money", "finish for a square metre", 0, 1000, Unit.MONEY),
    "margin": RuleKind("Costs, in the job's money", "margin", 0, 300, Unit.PERCENT),
    "bevel_deg": RuleKind("Latch edge", "bevel", 0, 10, Unit.DEG),
    "bevel_margin": RuleKind("Latch edge", "gap kept as the corner passes", 0, 5),
    "tenon_share": RuleKind("Joints", "tenon, share of the thickness", 0.15, 0.6, Unit.RATIO),
    "blind_share": RuleKind("Joints", "blind tenon, share of the stile", 0.3, 0.95, Unit.RATIO),
    "divide_at": RuleKind("Joints", "tenon divided when wider than this many thicknesses", 2, 20, Unit.RATIO),
    "haunch_share": RuleKind("Joints", "haunch, share of an end rail", 0, 0.6, Unit.RATIO),
    "haunch_most": RuleKind("Joints", "haunch, at the most", 0, 120),
    "joint_step": RuleKind("Joints", "set out to the full", 0.1, 10),
    "muntin_tenon": RuleKind("Joints", "muntin's tenon", 5, 150),
    "groove_depth": RuleKind("Panels", "groove", 4, 40),
    "panel_hold": RuleKind("Panels", "least hold at the driest", 0, 30),
    "panel_clearance": RuleKind("Panels", "clearance", 0, 10),
    "allow_length": RuleKind("Sawing and planing", "length of a rough part", 0, 300),
    "allow_width": RuleKind("Sawing and planing", "width of a rough part", 0, 40),
    "allow_thickness": RuleKind("Sawing and planing", "thickness of a rough part", 0, 20),
    "horn": RuleKind("Sawing and planing", "horn of a stile", 0, 200),
    "kerf": RuleKind("Sawing and planing", "saw kerf", 0.2, 12),
    "end_trim": RuleKind("Sawing and planing", "off each end of a board", 0, 200),
    "joint_allowance": RuleKind("Sawing and planing", "for shooting a glue joint", 0, 20),
    "butt_from_top": RuleKind("Butts", "leaf's top to the top one", 0, 600),
    "butt_from_bottom": RuleKind("Butts", "leaf's foot to the bottom one", 0, 600),
    "butt_third_below": RuleKind("Butts", "between the top one and the third", 0, 800),
    "butt_back_wood": RuleKind("Butts", "wood that stays behind", 0, 40),
}


class ShopRules(FrozenModel):
    """A named set. Lengths in mm unless the name says otherwise; each within the limits of RULE_KINDS."""

    name: Line
    """Its name, as it is shown."""
    about: Line = ""
    """Whose rules they are and what they are good for."""
    # readings: standard uncertainty of one
    sigma_tape: Rule
    """One by tape, mm."""
    sigma_diagonal: Rule
    """A diagonal, mm."""
    sigma_plumb_per_m: Rule
    """Plumb or level, for each metre, mm."""
    sigma_tick: Rule = Rule(value=0.5, reason="a pencil line and a sharp point")
    """A tick on the board, mm."""
    # fit
    gap_hinge: Rule
    """At the hinges, mm."""
    gap_latch: Rule
    """At the latch, mm."""
    gap_head: Rule
    """At the head, mm."""
    gap_floor: Rule
    """Over the floor, mm."""
    trim_side: Rule
    """Each side, mm."""
    trim_height: Rule
    """Top and bottom each, mm."""
    solid_edge: Rule = Rule(value=25, reason="what most bought slabs have behind their edge; look at yours")
    """Solid edge, mm."""
    sigma_cut: Rule = Rule(value=0.3, reason="plane and straightedge, tried along the whole edge")
    """A planed size, mm."""
    sigma_hang: Rule = Rule(value=0.4, reason="a gauged recess and hinges of one packet")
    """The gap that the hinges make, mm."""
    shaving: Rule = Rule(value=0.1, reason="a try plane set to trim")
    """One stroke of the plane takes, mm."""
    bench_length: Rule = Rule(value=2400, reason="the bench, or two bearers set true")
    """Bench, or floor kept flat: length, mm."""
    clamp_reach: Rule = Rule(value=1200, reason="the longest that there are enough of")
    """Clamps reach, mm."""
    clamps: Rule = Rule(value=8, reason="of that reach")
    """Clamps, count."""
    planer_width: Rule = Rule(value=400, reason="thicknesser")
    """Planer takes, mm."""
    sander_width: Rule = Rule(value=0, reason="none: scraped and sanded by hand")
    """Sander takes, mm."""
    saw_width: Rule = Rule(value=1250, reason="fence out as far as it goes")
    """Saw: beside the blade, mm."""
    timber_price: Rule = Rule(value=1900, reason="made up: put in what your yard asks")
    """A cubic metre of sawn timber, money."""
    hour_price: Rule = Rule(value=40, reason="made up: put in yours")
    """An hour of work, money."""
    planed_price: Rule = Rule(value=5200, reason="made up: the yard's waste is in it")
    """A cubic metre planed to size, money."""
    milling_minutes: Rule = Rule(value=14, reason="made up: faced, edged, thicknessed, and left to rest")
    """Minutes to mill a rough part, ratio."""
    length_minutes: Rule = Rule(value=3, reason="made up: looked at and cut to length")
    """Minutes to cut a planed part, ratio."""
    machining_price: Rule = Rule(value=9.5, reason="made up: planed part in, jointed part out")
    """A part machined out of house, money."""
    finish_price: Rule = Rule(value=5, reason="made up: oil or varnish for all its coats")
    """Finish for a square metre, money."""
    margin: Rule = Rule(value=20, reason="made up: tools, rent, what goes wrong")
    """Margin, %."""
    bevel_deg: Rule
    """Bevel, deg."""
    bevel_margin: Rule
    """Gap kept as the corner passes, mm."""
    # joints
    tenon_share: Rule
    """Tenon, share of the thickness, ratio."""
    blind_share: Rule
    """Blind tenon, share of the stile, ratio."""
    divide_at: Rule
    """Tenon divided when wider than this many thicknesses, ratio."""
    haunch_share: Rule
    """Haunch, share of an end rail, ratio."""
    haunch_most: Rule
    """Haunch, at the most, mm."""
    joint_step: Rule
    """Set out to the full, mm."""
    muntin_tenon: Rule
    """Muntin's tenon, mm."""
    groove_depth: Rule
    """Groove, mm."""
    panel_hold: Rule
    """Least hold at the driest, mm."""
    panel_clearance: Rule
    """Clearance, mm."""
    cutters: tuple[float, ...]
    """Widths of the cutters that there are, mm."""
    # sawing and planing
    allow_length: Rule
    """Length of a rough part, mm."""
    allow_width: Rule
    """Width of a rough part, mm."""
    allow_thickness: Rule
    """Thickness of a rough part, mm."""
    horn: Rule
    """Horn of a stile, mm."""
    kerf: Rule
    """Saw kerf, mm."""
    end_trim: Rule
    """Off each end of a board, mm."""
    joint_allowance: Rule
    """For shooting a glue joint, mm."""
    # hinges
    butt_from_top: Rule
    """Leaf's top to the top one, mm."""
    butt_from_bottom: Rule
    """Leaf's foot to the bottom one, mm."""
    butt_third_below: Rule
    """Between the top one and the third, mm."""
    butt_school: ButtSchool
    """Where the butts go."""
    butt_back_wood: Rule
    """Wood that stays behind, mm."""

    @model_validator(mode="after")
    def _sensible(self) -> ShopRules:
        for name, kind in RULE_KINDS.items():
            rule: Rule = getattr(self, name)
            check_between(rule.value, kind.low, kind.high, name, str(kind.unit) if kind.unit is Unit.MM else "")
        if not self.cutters or any(not 1 <= each <= 60 for each in self.cutters):
            raise InputError("cutters", self.cutters, "at least one cutter from 1 to 60 mm")
        return self


def rule_set_names() -> tuple[str, ...]:
    """Return the keys of the shipped sets."""
    return names("rules")


def load_rules(key: str) -> ShopRules:
    """Return the shipped set `key`; every set names only where it differs from the first.

    Args:
        key: Its key in the table.
    """
    base: dict[str, Any] = dict(table("rules/site-metric"))
    base.update(table(f"rules/{key}"))
    return ShopRules.model_validate(base)
