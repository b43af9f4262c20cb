"""Mortise and tenon: thickness to the nearest cutter, haunches, tenons divided where they are too wide."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.framed.model import TenonKind
from oakmeasure.core.document.roles import Place
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Loose, Rect, Tenon

# Common practice, no source
MOST_DOWELS = 4
DOWELS_APART = 45.0
DOWELS_SOLD = (6.0, 8.0, 10.0, 12.0, 16.0)  # diameters, mm
DOWEL_WOOD = 1.0  # of a dowel's diameter, that stays between two of them: common practice, no source
BETWEEN_SHARE = 1 / 3  # of the rail, left between divided tenons: common practice, no source
LOOSE = {TenonKind.LOOSE: Loose.TENON, TenonKind.DOWELS: Loose.DOWEL}
HINGE_STILE = "hinge stile"
LATCH_STILE = "latch stile"


@dataclass(frozen=True, slots=True)
class RailJoint:
    """What a rail's ends are set out from."""

    rail: str
    """Name of the rail."""
    rect: Rect
    """The rectangle that it takes up, mm in the leaf."""
    place: Place | None
    """Which of its kind the rail is."""
    groove: float
    """Depth of the panel groove, mm."""
    tenon: float
    """How far the tenon goes into the stile, mm."""
    thickness: float
    """Thickness of the tenon, mm."""
    through: bool
    """Whether it goes through."""
    kind: TenonKind = TenonKind.BLIND
    """Through, blind or loose."""
    middle: float = 0.0
    """Middle of the tenon's thickness, in from the opening face, mm."""


def _dowels(joint: RailJoint) -> list[tuple[float, float]]:
    """Return the dowels of a rail's end: two to four, clear of its grooves, evenly spread. Source: common practice."""
    size = joint.thickness
    low, high = joint.rect.y0 + joint.groove + size, joint.rect.y1 - joint.groove - size
    if high <= low:
        return []
    count = min(MOST_DOWELS, max(2, round((high - low) / DOWELS_APART) + 1))
    return [(y - size / 2, y + size / 2) for y in (low + at * (high - low) / (count - 1) for at in range(count))]


def dowel_size(ctx: Context, thickness: Figure) -> Figure:
    """Add and return the dowels' diameter: of those sold, the nearest to the tenon's share of the thickness.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        thickness: Thickness of the leaf, mm.
    """
    share = ctx.rule("tenon_share", "tenon's share of the thickness", Unit.RATIO)
    wanted = thickness.value * share.value
    size = min(DOWELS_SOLD, key=lambda each: (abs(each - wanted), each))
    return ctx.figures.derived(
        "dowel",
        "dowels, diameter",
        size,
        thickness,
        share,
        formula=f"share of the thickness is {ctx.fmt(wanted)}; the nearest that is sold",
    )


def judge_dowels(ctx: Context, tenons: Sequence[Tenon]) -> None:
    """Judge how far apart the dowels of each rail's end stand.

    Args:
        ctx: The leaf's context: its checks are added to.
        tenons: Every joint of the frame.
    """
    size = ctx.figures["dowel"].value
    near: tuple[float, str] | None = None
    for rail in dict.fromkeys(each.member for each in tenons if each.loose is Loose.DOWEL):
        ys = sorted(each.rect.y0 for each in tenons if each.member == rail and each.into == HINGE_STILE)
        least = min((b - a - size for a, b in pairwise(ys)), default=size)
        if least < DOWEL_WOOD * size and (near is None or least < near[0]):
            near = least, rail
    if near is not None:
        ctx.warn(
            "dowels-near",
            "Two dowels stand too near each other",
            f"In the {near[1]} {ctx.fmt(near[0])} of wood stays between dowels of {ctx.fmt(size)}.",
            Remedy("A wider rail, or loose tenons", "build.tenon", TenonKind.LOOSE),
            grounds=Grounds("dowel", f"part:{near[1]}", rule="a dowel's own thickness or more: common practice"),
        )


def tenon_thickness(ctx: Context, thickness: Figure) -> Figure:
    """Add and return the tenon's thickness: its share of the stock, to the nearest cutter on hand.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        thickness: Thickness of the leaf, mm.
    """
    share = ctx.rule("tenon_share", "tenon's share of the thickness", Unit.RATIO)
    wanted = thickness.value * share.value
    cutter = min(ctx.rules.cutters, key=lambda each: (abs(each - wanted), each))
    return ctx.figures.derived(
        "tenon_thickness",
        "tenon, thickness",
        cutter,
        thickness,
        share,
        formula=f"share of the thickness is {ctx.fmt(wanted)}; the nearest cutter",
    )


def rail_tenons(ctx: Context, joint: RailJoint, leaf_width: float) -> list[Tenon]:
    """Return the tenons and haunches at both ends of a rail.

    The groove takes its depth off the tenon at a grooved edge; at the leaf's end a haunch takes a share and
    projects by the groove's depth. A tenon wider than `divide_at` times its thickness is divided, a third of
    the rail left between. Source: common practice of the trade.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        joint: What the rail's ends are set out from.
        leaf_width: Width of the leaf, mm.
    """
    spans, haunch = _across(ctx, joint)
    if joint.kind is TenonKind.DOWELS:
        spans, haunch = _dowels(joint), None
    elif joint.kind is TenonKind.POCKET:
        return []
    elif joint.kind in (TenonKind.BRIDLE, TenonKind.HALF_LAP):
        spans, haunch = [(joint.rect.y0, joint.rect.y1)], None
    elif joint.kind is TenonKind.LOOSE:
        haunch = None
    found = []
    for stile, at_hinge in ((HINGE_STILE, True), (LATCH_STILE, False)):
        for span in spans:
            found.append(_tenon(joint, stile, at_hinge, joint.tenon, span, leaf_width))
        if haunch is not None:
            found.append(_tenon(joint, stile, at_hinge, min(joint.groove, joint.tenon), haunch, leaf_width))
    return found


def _tenon(
    joint: RailJoint, stile: str, at_hinge: bool, reach: float, span: tuple[float, float], width: float
) -> Tenon:
    x0, x1 = (joint.rect.x0 - reach, joint.rect.x0) if at_hinge else (joint.rect.x1, joint.rect.x1 + reach)
    is_haunch = reach < joint.tenon
    return Tenon(
        joint.rail,
        stile,
        Rect(max(x0, 0.0), span[0], min(x1, width), span[1]),
        joint.thickness,
        joint.through and not is_haunch,
        is_haunch,
        middle=joint.middle,
        loose=LOOSE.get(joint.kind),
    )


def _across(ctx: Context, joint: RailJoint) -> tuple[list[tuple[float, float]], tuple[float, float] | None]:
    """Return the tenons' spans up the leaf and the haunch's, or None where there is no haunch."""
    rules, rect = ctx.rules, joint.rect
    step = rules.joint_step.value
    low, high = rect.y0 + joint.groove, rect.y1 - joint.groove
    haunch = None
    if joint.place in (Place.TOP, Place.BOTTOM):
        size = min(rules.haunch_share.value * rect.height, rules.haunch_most.value)
        size = math.floor(size / step + 1e-9) * step
        if joint.place is Place.TOP:
            high, haunch = rect.y1 - size, (rect.y1 - size, rect.y1)
        else:
            low, haunch = rect.y0 + size, (rect.y0, rect.y0 + size)
    if high <= low:
        return [], haunch
    between = math.floor(BETWEEN_SHARE * rect.height / step) * step
    single = (high - low - between) / 2
    if high - low > rules.divide_at.value * joint.thickness and single >= joint.thickness:
        return [(low, low + single), (high - single, high)], haunch
    return [(low, high)], haunch
