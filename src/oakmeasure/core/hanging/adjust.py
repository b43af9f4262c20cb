"""The hanging of a leaf, all of it: which remedy suits its way of hanging, worked out from what was read."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.base.units import IN_MM, Show
from oakmeasure.core.document.adjustment import Gaps, HungChoices
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.hanging.gap_remedy import Found, HungFrame, RemedyPlan, contradictions, places_of, put_right
from oakmeasure.core.hanging.remedy import (
    HEIGHT_RANGE,
    SIDE_RANGE,
    CupTurn,
    Standing,
    Step,
    across_steps,
    butt_steps,
    cup_turns,
    turn_words,
)
from oakmeasure.core.hanging.rigid import Motion
from oakmeasure.core.hanging.run import RunPlan, line_up
from oakmeasure.core.hanging.sliding import Look, TrackLevel, hanger_turns, last_settings, looks

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign


@dataclass(frozen=True, slots=True)
class Remedied:
    """One leaf put right.

    steps: least wood, then the most even.
    """

    name: str
    """Which leaf it is."""
    frame: HungFrame
    """Width, height and hinges of the leaf as it hangs."""
    found: Found | None
    """Its gaps; None for cups read as low and proud."""
    least_wood: tuple[Step, ...]
    """Steps that take the least wood."""
    even: tuple[Step, ...]
    """Steps that give the most even gaps."""
    contradictions: tuple[str, ...]
    """Readings that cannot all be right, in words."""
    read: tuple[float, ...]
    """The gaps as they were read, mm."""


@dataclass(frozen=True, slots=True)
class Hung:
    """What follows from how a leaf hangs."""

    leaves: tuple[Remedied, ...]
    """One, or the two of a pair."""
    turns: tuple[CupTurn, ...]
    """Of cup hinges that stand low or proud."""
    run: RunPlan | None
    """How a run of leaves is lined up; None for no run."""
    looks: tuple[Look, ...]
    """What is looked at on a leaf that slides, in order."""
    level: TrackLevel | None
    """How its hangers are turned; None for a leaf that does not slide."""

    @property
    def is_read(self) -> bool:
        """Return whether anything was read of the leaf as it hangs."""
        return bool(self.turns or self.run or self.level) or any(each.found for each in self.leaves)


NOT_HUNG = Hung((), (), None, (), None)


def hinge_heights(leaf: LeafDesign) -> tuple[float, ...]:
    """Return the middles of a leaf's hinges over its foot, mm, from the top down.

    Args:
        leaf: The leaf, set out with its hardware.
    """
    height = leaf.fit.height.value
    if leaf.butts is not None:
        return tuple(
            height
            - (leaf.figures[figure_name(f"butt_{n}_top")].value + leaf.figures[figure_name(f"butt_{n}_bottom")].value)
            / 2
            for n in range(1, len(leaf.butts.places) + 1)
        )
    if leaf.cups is not None:
        return tuple(height - each.top.value for each in leaf.cups.places)
    return ()


def frame_of(leaf: LeafDesign) -> HungFrame:
    """Return the leaf as a plate and how far its hinges let it go: butts are packed, cups are screwed.

    Args:
        leaf: The leaf, set out with its hardware.
    """
    hung = leaf.leaf.hung
    width, height = leaf.fit.width.value, leaf.fit.height.value
    if leaf.cups is not None:
        return HungFrame(width, height, hinge_heights(leaf), SIDE_RANGE, SIDE_RANGE, HEIGHT_RANGE)
    return HungFrame(width, height, hinge_heights(leaf), hung.pack_most, hung.let_in_most)


def adjust_leaf(leaf: LeafDesign, show: Show = IN_MM) -> Hung:
    """Return the remedy for a leaf as it hangs; nothing where there is no leaf or nothing was read.

    Args:
        leaf: The leaf, set out with its hardware.
        show: How lengths and other quantities are written.
    """
    hung = leaf.leaf.hung
    if leaf.build is None:
        return NOT_HUNG
    leaves, heights = [], hinge_heights(leaf)
    if heights:  # a leaf too low for its hinges has none yet, and nothing to move
        pair = leaf.leaf.hanging is Hanging.PAIR
        slow = _remedied(leaf, "slow leaf", _without_meeting(hung.second), show) if pair else None
        gaps = hung.gaps
        if slow is not None and slow.found is not None:  # it is put right first; the meeting line is as it leaves it
            gaps = _met(gaps, slow.found.plan(hung.aim).motion, slow.frame.height)
        found = _remedied(leaf, "active leaf" if pair else "the leaf", gaps, show, hung.gaps)
        leaves = [each for each in (found, slow) if each is not None]
    turns = _turns(leaf, hung) if leaf.cups is not None else ()
    run = None
    if hung.run and heights and leaf.leaf.hanging.is_cabinet and leaf.cups is not None:
        run = line_up(
            hung.run,
            width=leaf.fit.width.value,
            height=leaf.fit.height.value,
            spread=max(heights) - min(heights),
            show=show,
        )
    seen: tuple[Look, ...] = ()
    level = None
    if leaf.leaf.hanging.slides:
        f = leaf.figures
        rises = f["floor_rise"].value if "floor_rise" in f else None
        track = f["track_needed"].value if "track_needed" in f else 2 * leaf.fit.width.value
        shims = [each.value for each in leaf.gear.shims] if leaf.gear is not None else []
        last = last_settings(shims, f["stop_open"].value if "stop_open" in f else None, show)
        seen = (*looks(hung.sliding, track=track, floor_rises=rises, show=show), *last)
        apart = f["hangers_apart"].value if "hangers_apart" in f else 0.8 * leaf.fit.width.value
        level = hanger_turns(hung.sliding, height=leaf.fit.height.value, apart=apart)
    return Hung(tuple(leaves), turns, run, seen, level)


def _without_meeting(gaps: Gaps) -> Gaps:
    """Return the gaps of a pair's slow leaf: its meeting line is read once, with the active one."""
    return gaps.model_copy(update={f"latch_{name}": None for name in ("top", "middle", "bottom")})


def _met(gaps: Gaps, slow: Motion, height: float) -> Gaps:
    """Return the gaps of the active leaf once the slow one has moved.

    What that comes nearer, the meeting line narrows.
    """
    update = {}
    for name, at in (("top", height), ("middle", height / 2), ("bottom", 0.0)):
        gap = getattr(gaps, f"latch_{name}")
        if gap is not None:
            update[f"latch_{name}"] = max(gap - slow.across_at(at), 0.0)
    return gaps.model_copy(update=update)


def _remedied(leaf: LeafDesign, name: str, gaps: Gaps, show: Show, read: Gaps | None = None) -> Remedied | None:
    frame, hung, f = frame_of(leaf), leaf.leaf.hung, leaf.figures
    wanted = {side: f[figure_name(f"gap_{side}")].value for side in ("hinge", "latch", "head", "floor")}
    if leaf.leaf.hanging is Hanging.PAIR:
        wanted["latch"] = f["gap_meeting"].value
    places = places_of(gaps, width=frame.width, height=frame.height, wanted=wanted)
    if not places:
        return None
    found = put_right(places, frame, tolerance=hung.tolerance)
    if found is None:
        return None
    clashes: list[str] = []
    if leaf.leaf.hanging is Hanging.LINING and leaf.fit.possible:
        across = f["clear_width"].value - frame.width
        up = f["clear_height"].value - frame.height
        clashes = contradictions(gaps, room_across=across, room_up=up, show=show)
    crossed: tuple[Step, ...] = ()
    if leaf.butts is not None:
        crossed = across_steps(
            proud_top=gaps.proud_top or 0.0,
            proud_bottom=gaps.proud_bottom or 0.0,
            hinges=frame.hinges,
            height=frame.height,
            show=show,
        )
    steps = [
        butt_steps(plan, found.places, hung.shims, height=frame.height, show=show)
        if leaf.butts is not None
        else _cup_steps(leaf, plan, show)
        for plan in (found.least_wood, found.even)
    ]
    before = places_of(read or gaps, width=frame.width, height=frame.height, wanted=wanted)
    least, even = (_with(each, crossed) for each in steps)
    return Remedied(name, frame, found, least, even, tuple(clashes), tuple(each.gap for each in before))


def _with(steps: tuple[Step, ...], crossed: tuple[Step, ...]) -> tuple[Step, ...]:
    """Return the steps with what is moved across before what is planed."""
    if not crossed:
        return steps
    planed = tuple(each for each in steps if each.kind == "plane")
    return (*(each for each in steps if each.kind not in ("plane", "nothing")), *crossed, *planed)


def _cup_steps(leaf: LeafDesign, plan: RemedyPlan, show: Show) -> tuple[Step, ...]:
    """The motion of a leaf on cups as turns of its screws; what is planed as on butts."""
    from oakmeasure.core.hanging.remedy import HEIGHT_A_TURN, NOTHING, SIDE_A_TURN, plane_steps

    frame = frame_of(leaf)
    count = len(frame.hinges)
    turns = []
    if abs(plan.motion.up) > NOTHING:
        turns = [
            CupTurn(n, "height", plan.motion.up, plan.motion.up / HEIGHT_A_TURN, True) for n in range(1, count + 1)
        ]
    turns += [
        CupTurn(n, "side", each, each / SIDE_A_TURN, True)
        for n, each in enumerate(plan.packed, 1)
        if abs(each) > NOTHING
    ]
    steps = [Step("turn", turn_words(each, count, show), each.amount, f"hinge {each.hinge}") for each in turns]
    found = leaf.leaf.hung
    wanted = {side: leaf.figures[figure_name(f"gap_{side}")].value for side in ("hinge", "latch", "head", "floor")}
    places = places_of(found.gaps, width=frame.width, height=frame.height, wanted=wanted)
    steps += plane_steps(plan.planed, places, height=frame.height, show=show)
    return tuple(steps) or (Step("nothing", "nothing: every gap is within the tolerance", 0.0, ""),)


def _turns(leaf: LeafDesign, hung: HungChoices) -> tuple[CupTurn, ...]:
    g = hung.gaps
    if all(each is None for each in (g.low_hinge, g.low_latch, g.proud_top, g.proud_bottom)):
        return ()
    tops = [each.top.value for each in leaf.cups.places] if leaf.cups is not None else []
    return cup_turns(
        tops=tops,
        width=leaf.fit.width.value,
        height=leaf.fit.height.value,
        stands=Standing(g.low_hinge or 0.0, g.low_latch or 0.0, g.proud_top or 0.0, g.proud_bottom or 0.0),
    )
