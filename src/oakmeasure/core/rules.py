"""Shop rules: a named set of the choices on which the trade's schools differ, each value with its reason.

A job holds the whole set that it was made with, so that a later change of a shipped set moves no old job.
The shipped sets are tables in data/rules; people copy one and change it.
"""

from __future__ import annotations

import math
from enum import StrEnum
from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, ConfigDict

from oakmeasure.core.errors import InputError
from oakmeasure.data import names, table


class Model(BaseModel):
    """A frozen document model: unknown fields and numbers that are none are refused."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


def between(low: float, high: float, what: str, unit: str = "mm") -> AfterValidator:
    """Return the check of a number's range; its refusal says what it was read as and what would do."""

    return AfterValidator(lambda value: check_between(value, low, high, what, unit))


def check_between(value: float, low: float, high: float, what: str, unit: str = "mm") -> float:
    """Return `value`; InputError when it is not a number from low to high."""
    if not math.isfinite(value) or not low <= value <= high:
        raise InputError(what, f"{value:g}", limits=(low, high), unit=unit)
    return value


class ButtSchool(StrEnum):
    """Where the butts go."""

    THIRD_CENTRED = "third centred"
    THIRD_HIGH = "third under the top one"
    SEVEN_ELEVEN = "7 and 11 inches"


class Rule(Model):
    """One value and why the shop does it so."""

    value: Annotated[float, between(-1e5, 1e5, "rule", "")]
    reason: str = ""


class ShopRules(Model):
    """A named set. Lengths in mm unless the name says otherwise."""

    name: str
    about: str = ""
    # readings: standard uncertainty of one
    sigma_tape: Rule
    sigma_diagonal: Rule
    sigma_plumb_per_m: Rule
    # fit
    gap_hinge: Rule
    gap_latch: Rule
    gap_head: Rule
    gap_floor: Rule
    trim_side: Rule
    trim_height: Rule
    bevel_deg: Rule
    bevel_margin: Rule
    # joints
    tenon_share: Rule
    blind_share: Rule
    divide_at: Rule
    haunch_share: Rule
    haunch_most: Rule
    joint_step: Rule
    muntin_tenon: Rule
    groove_depth: Rule
    panel_hold: Rule
    panel_clearance: Rule
    cutters: tuple[float, ...]
    # sawing and planing
    allow_length: Rule
    allow_width: Rule
    allow_thickness: Rule
    horn: Rule
    kerf: Rule
    end_trim: Rule
    joint_allowance: Rule
    # hinges
    butt_from_top: Rule
    butt_from_bottom: Rule
    butt_third_below: Rule
    butt_school: ButtSchool
    butt_back_wood: Rule


def rule_set_names() -> tuple[str, ...]:
    """Return the keys of the shipped sets."""
    return names("rules")


def load_rules(key: str) -> ShopRules:
    """Return the shipped set `key`; every set names only where it differs from the first."""
    base: dict[str, Any] = dict(table("rules/site-metric"))
    base.update(table(f"rules/{key}"))
    return ShopRules.model_validate(base)
