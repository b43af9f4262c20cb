"""The opening as it really is: taken by tape, by sides and diagonals or by ticks; clear sizes and how sure they are."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.matrices import Matrix
from oakmeasure.core.document.readings import MeasuredBy, Side
from oakmeasure.core.figures.figure import Figure, derived, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.adjust import Adjustment
from oakmeasure.core.survey.expected_minimum import spread_of_width
from oakmeasure.core.survey.kinds import KINDS, SurveyKind
from oakmeasure.core.survey.lining import LiningPlan, plan_lining
from oakmeasure.core.survey.next_reading import best_next
from oakmeasure.core.survey.outline import Box, Outline, half_planes, largest_box, plumb_box
from oakmeasure.core.survey.rebated_frame import between_rebates, is_rebated
from oakmeasure.core.survey.square import skew_from_both
from oakmeasure.core.survey.surroundings import across_readings, look_round
from oakmeasure.core.survey.survey_result import Taken, outline_of
from oakmeasure.core.survey.takings.polygon import judge_polygon, take_by_polygon
from oakmeasure.core.survey.takings.tape import judge_tape, sigma_of, take_by_tape
from oakmeasure.core.survey.takings.ticks import judge_ticks, take_by_ticks
from oakmeasure.core.survey.tick_board import TemplateFit


@dataclass(frozen=True, slots=True)
class Opening:
    """Corners, outline and the plumb clear size that the leaf is fitted to.

    `adjustment` is None when the readings contradict each other, or were ticks.
    """

    hinge_foot: Point
    """Corner at the foot of the hinge side, mm."""
    latch_foot: Point
    """Corner at the foot of the latch side, mm."""
    latch_head: Point
    """Corner at the head of the latch side, mm."""
    hinge_head: Point
    """Corner at the head of the hinge side, mm."""
    hinge_in: Figure
    """How far the hinge side stands in, mm."""
    latch_in: Figure
    """How far the latch side stands in, mm."""
    head_low: Figure
    """How much the head hangs down, mm."""
    floor_high: Figure
    """How much the floor stands up, mm."""
    clear_width: Figure
    """Width of the clear rectangle, mm."""
    clear_height: Figure
    """Height of the clear rectangle, mm."""
    outline: Outline
    """Its outline."""
    taken: Taken
    """What was measured; with a lining to be made that is the rough opening, else the same as the outline."""
    lining: LiningPlan | None
    """The lining that stands in it; None for none."""
    next_reading: str = ""
    """In words: what would make the clear width surest, and how sure."""
    taken_as: str = ""
    """What the names of the figures of what was taken begin with: "rough_" behind a lining, "sight_" in a rebate."""

    @property
    def adjustment(self) -> Adjustment[Any] | None:
        """The readings of the tape, adjusted; None for other takings."""
        return self.taken.adjustment

    @property
    def template(self) -> TemplateFit | None:
        """The sides through the ticks; None for other takings."""
        return self.taken.template


def survey(ctx: Context) -> Opening:
    """Work out the opening, add its figures, judge what was read and what stands round it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    taken = _take(ctx)
    across_readings(ctx)
    lining, taken_as = None, ""
    corners: tuple[Point, Point, Point, Point]
    if ctx.leaf.lining is not None:
        taken_as = "rough_"
        lining = plan_lining(ctx, ctx.leaf.lining, taken, _clear(ctx, taken, taken_as))
        box, outline, corners = lining.clear, lining.outline, lining.corners
    elif is_rebated(ctx, taken):
        taken_as = "sight_"
        box, corners = between_rebates(ctx, taken, _clear(ctx, taken, taken_as))
        outline = outline_of(corners)
    else:
        box = _clear(ctx, taken)
        outline, corners = taken.outline, (taken.hinge_foot, taken.latch_foot, taken.latch_head, taken.hinge_head)
    _uncertainty(ctx, taken, taken_as)
    _skew(ctx, taken)
    _judge(ctx, taken)
    look_round(ctx, box["floor_high"])
    return Opening(
        *corners,
        box["hinge_side_in"],
        box["latch_side_in"],
        box["head_low"],
        box["floor_high"],
        box["clear_width"],
        box["clear_height"],
        outline,
        taken,
        lining,
        ctx.next_reading,
        taken_as,
    )


def _take(ctx: Context) -> Taken:
    leaf = ctx.leaf
    taken = None
    if leaf.measured_by is MeasuredBy.POLYGON and leaf.polygon is not None:
        taken = take_by_polygon(ctx, leaf.polygon)
    elif leaf.measured_by is MeasuredBy.TICKS and leaf.template is not None:
        taken = take_by_ticks(ctx, leaf.template)
    return taken if taken is not None else take_by_tape(ctx)


def _judge(ctx: Context, taken: Taken) -> None:
    leaf = ctx.leaf
    if taken.template is not None and leaf.template is not None:
        judge_ticks(ctx, leaf.template, taken.template)
    elif taken.adjustment is not None and leaf.measured_by is MeasuredBy.POLYGON and leaf.polygon is not None:
        if isinstance(next(iter(taken.adjustment.readings)), SurveyKind):
            return  # the shape is not fixed yet and says so; what stands in for it is not what was read
        judge_polygon(ctx, taken, leaf.polygon)
    else:
        judge_tape(ctx, taken)


WORDS = {"": "", "rough_": "rough ", "sight_": "between the stops, "}


def _clear(ctx: Context, taken: Taken, prefix: str = "") -> dict[str, Figure]:
    """Add the clear plumb size: of the opening, of the rough one before its lining is made, or between the stops."""
    word = WORDS[prefix]
    upright = taken.outline.is_upright and len(taken.corners) >= 4
    box = plumb_box(taken.outline) if upright else largest_box(half_planes(taken.outline))
    how = taken.how if upright else taken.how + "; the upright rectangle of most area"

    def corner(name: str, label: str, value: float) -> Figure:
        figure = derived(
            figure_name(prefix + name), word + label, value, *taken.inputs, formula=how, source=taken.source
        )
        return ctx.figures.add(figure)

    where = _where(taken, box)
    found = {
        "hinge_side_in": corner("hinge_side_in", f"hinge side, furthest in ({where['hinge']})", box.x0),
        "latch_side_in": corner("latch_side_in", f"latch side, furthest in ({where['latch']})", box.x1),
        "head_low": corner("head_low", f"head, lowest ({where['head']})", box.y1),
        "floor_high": corner("floor_high", "floor, highest under the leaf", box.y0),
    }
    width, height = taken.bow_width, taken.bow_height
    found["clear_width"] = ctx.figures.total(
        figure_name(prefix + "clear_width"),
        word + "clear width, plumb",
        plus(found["latch_side_in"]),
        minus(found["hinge_side_in"]),
        *([minus(width)] if width else []),
        source="the least plumb width, from the hinge side's furthest in to the latch side's",
    )
    found["clear_height"] = ctx.figures.total(
        figure_name(prefix + "clear_height"),
        word + "clear height",
        plus(found["head_low"]),
        minus(found["floor_high"]),
        *([minus(height)] if height else []),
    )
    return found


def _where(taken: Taken, box: Box) -> dict[str, str]:
    """Return, for each side, where it stands furthest in."""

    def end(points: list[Point], x: float) -> str:
        if not points:
            return "nowhere"
        low, high = min(y for _, y in points), max(y for _, y in points)
        nearest = min(points, key=lambda each: abs(each[0] - x))
        share = (nearest[1] - low) / max(high - low, 1.0)
        return "at the foot" if share < 0.15 else "at the head" if share > 0.85 else "between its ends"

    hinge, latch = taken.outline.of(Side.HINGE), taken.outline.of(Side.LATCH)
    head = taken.hinge_head[1] < taken.latch_head[1]
    return {
        "hinge": end(hinge, box.x0),
        "latch": end(latch, box.x1),
        "head": f"at the {'hinge' if head else 'latch'} side",
    }


# --- how sure it is ----------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class ClearWidth:
    """The clear width as a function of the corners, for drawing openings at random."""

    mean: tuple[float, ...]
    """Of the free coordinates."""
    covariance: Matrix
    """Covariance of the corners' coordinates, mm²."""
    latch: tuple[int, ...]
    """Which free coordinates are x of the latch side's ends."""
    hinge: tuple[int, ...]
    """And of the hinge side's head; its foot is 0."""
    taken_off: float
    """What bows, which are no corners, take off, mm."""

    def of(self, drawn: Any) -> Any:
        """Return the clear width of every drawn opening, mm.

        Args:
            drawn: The drawn openings, one a row.
        """
        latch = drawn[list(self.latch)].min(axis=0)
        hinge = drawn[list(self.hinge)].max(axis=0).clip(0.0)
        return latch - hinge - self.taken_off


def clear_width_of(taken: Taken) -> ClearWidth | None:
    """Return the clear width to draw at random; None where no plumb width bounds the leaf.

    Args:
        taken: The opening as it was taken.
    """
    if not taken.outline.is_upright or len(taken.corners) < 4:
        return None
    mean = tuple(each for corner in taken.corners[1:] for each in corner)
    straight = min(taken.latch_foot[0], taken.latch_head[0]) - max(0.0, taken.hinge_head[0])
    box = plumb_box(taken.outline)
    bow = (taken.bow_width.value if taken.bow_width else 0.0) + straight - (box.x1 - box.x0)
    return ClearWidth(mean, taken.covariance, (0, 2), (len(mean) - 2,), bow)


def width_spread(taken: Taken) -> Callable[[Matrix], float]:
    """Return the clear width's standard uncertainty, mm, as a function of the corners' covariance.

    Args:
        taken: The opening as it was taken.
    """
    size = 2 * len(taken.corners) - 2
    if clear_width_of(taken) is None:  # no two sides bound it: no surer than its least sure corner
        return lambda covariance: math.sqrt(max(covariance[at][at] for at in range(size)))
    at = (taken.latch_foot[0], taken.latch_head[0], taken.hinge_head[0])
    return lambda covariance: spread_of_width(covariance, latch=(0, 2), hinge=size - 2, at=at)


def _uncertainty(ctx: Context, taken: Taken, prefix: str) -> None:
    """Add how sure the clear width is, and how sure one more reading, the best one, would make it."""
    clear = ctx.figures[figure_name(f"{prefix}clear_width")]
    how = "standard uncertainty, carried through the adjustment" if taken.adjustment else "carried through the fit"
    spread = width_spread(taken)
    now = ctx.figures.derived(
        "clear_width_uncertainty",
        f"uncertainty of the {WORDS[prefix].replace(', ', ' ')}clear width",
        spread(taken.covariance),
        clear,
        formula=how,
    )
    adj = taken.adjustment
    if adj is None or not isinstance(next(iter(adj.readings)), SurveyKind):
        return
    best = best_next(adj, spread=spread, sigmas={kind: sigma_of(ctx, kind) for kind in SurveyKind})
    label = f"its uncertainty after one more reading, the {KINDS[best.kind].label}"
    then = ctx.figures.derived("clear_width_uncertainty_next", label, best.then, now, formula=how)
    again = "again" if getattr(ctx.leaf.readings, best.kind) is not None else "next"
    ctx.next_reading = f"read the {KINDS[best.kind].label} {again}: the clear width is then known to ± {ctx.fmt(then)}"


def _skew(ctx: Context, taken: Taken) -> None:
    if len(taken.corners) != 4:
        return
    hf, lf, lh, hh = taken.corners
    width = (math.dist(hf, lf) + math.dist(hh, lh)) / 2
    ctx.figures.derived(
        "skew",
        "out of square over the height",
        skew_from_both(width=width, first=math.dist(hf, lh), second=math.dist(hh, lf)),
        *taken.inputs,
        formula="(rising² − falling²) ÷ (4 × width), the three as adjusted",
    )
