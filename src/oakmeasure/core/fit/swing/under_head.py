"""A leaf that opens under a head that is not level: the top of its closing face swings in towards the latch.

While a point of the leaf's top is still under the head it has come towards the latch by √((x + s)² + (t + p)² − p²) −
(x + s), x its distance from the hinge edge; most at the hinges. Source: a turn about the pin.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.document.readings import Side
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.fit.swing.geometry import SwingPlan
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening

STEPS = 60  # places along the leaf's top that are looked at
PASSES = 0.25  # of plumb gap, that must stay as it passes: common practice, no source


def towards_latch(plan: SwingPlan, x: float) -> float:
    """Return how far a point of the closing face's top has come towards the latch when it leaves the head, mm.

    Args:
        plan: The leaf in plan.
        x: Its distance from the hinge edge, mm.

    >>> round(towards_latch(SwingPlan(800, 44, 6, 1), 0.0), 2)
    48.65
    """
    from_pin = x + plan.setback
    return math.sqrt(from_pin**2 + (plan.thickness + plan.knuckle) ** 2 - plan.knuckle**2) - from_pin


@dataclass(frozen=True, slots=True)
class HeadMiss:
    """Where a leaf's top comes nearest to the head as it opens."""

    across: float
    """From the hinge edge, mm."""
    left: float
    """Plumb between leaf and head there, less than 0 where it strikes, mm."""
    gap: float
    """Plumb between them shut, mm."""


def nearest_to_head(plan: SwingPlan, top: Sequence[Point], head: Sequence[Point]) -> HeadMiss:
    """Return where a leaf's top comes nearest to the head as it opens.

    Args:
        plan: The leaf in plan.
        top: The leaf's upper edge from the hinges to the latch, mm.
        head: The head from the hinge side to the latch side, in the same coordinates.
    """
    found = []
    for at in range(STEPS + 1):
        x = top[0][0] + (top[-1][0] - top[0][0]) * at / STEPS
        y, moved = _at(top, x), towards_latch(plan, x - top[0][0])
        least = min(_at(head, x + moved * share / 8) for share in range(9))
        found.append(HeadMiss(x - top[0][0], least - y, _at(head, x) - y))
    return min(found, key=lambda each: each.left)


def _at(line: Sequence[Point], x: float) -> float:
    for (ax, ay), (bx, by) in pairwise(line):
        if ax <= x <= bx and bx > ax:
            return ay + (by - ay) * (x - ax) / (bx - ax)
    return line[0][1] if x < line[0][0] else line[-1][1]


def judge_head(ctx: Context, opening: Opening, fit: Fit, plan: SwingPlan) -> None:
    """Stop a leaf whose top would strike a head that falls towards the latch.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
        fit: Size of the leaf and where it hangs, mm.
        plan: The leaf in plan.
    """
    head = sorted(set(opening.outline.of(Side.HEAD)))
    if len(head) < 2 or max(y for _, y in head) - min(y for _, y in head) < 1e-6 or fit.leaves > 1:
        return
    dx, dy = fit.x_hinge_edge, fit.y_foot
    corners = fit.outline or ((0.0, fit.height.value), (fit.width.value, fit.height.value))
    half = max(y for _, y in corners) / 2
    top = sorted((x + dx, y + dy) for x, y in corners if y > half)
    if len(top) < 2:
        return
    worst = nearest_to_head(plan, top, head)
    f = ctx.figures
    needed = f.derived(
        "head_gap_needed",
        f"plumb gap at the head that it needs to open, {ctx.fmt(worst.across)} from the hinges",
        worst.gap - worst.left,
        f["thickness"],
        f["butt_knuckle"],
        f["butt_setback"],
        formula="(√((x + s)² + (t + p)² − p²) − (x + s)) × fall of the head over that way",
        source="a turn about the pin",
    )
    if worst.left >= -1e-6 + (PASSES if needed.value > PASSES else 0.0):
        return
    gap = f["gap_head"].value + needed.value - worst.gap + PASSES
    wider = Remedy(f"Gap at the head {ctx.fmt(gap)}", "fit.gap_head", round(gap, 1) + 0.1)
    ctx.stop(
        "head-strikes",
        "Its top strikes the head as it opens",
        f"{ctx.fmt(worst.across)} from the hinges it needs {ctx.fmt(needed)} of plumb gap; there is "
        f"{ctx.fmt(worst.gap)}.",
        Remedy(f"Bevel the top, {ctx.fmt(needed.value - worst.gap + PASSES)} down to the closing face"),
        Remedy("Or hang it on the low side"),
        *([wider] if gap <= MOST_GAP else []),
        grounds=Grounds("head_gap_needed", "edge:head"),
    )


MOST_GAP = 30.0  # at a head, that is still a gap: common practice, no source
