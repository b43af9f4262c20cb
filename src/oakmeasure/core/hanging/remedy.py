"""The remedy in plain words and turns.

Shims by number and thickness, how much deeper, screws and their turns, what is planed where, in the order in which
it is done.

What a screw of a cup hinge moves at one turn is by its maker; the figures here are common practice, no source.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations_with_replacement

from oakmeasure.core.base.units import IN_MM, MINUS, Show
from oakmeasure.core.hanging.gap_remedy import GapPlace, RemedyPlan

# Mm
SIDE_A_TURN = 0.7
DEPTH_A_TURN = 0.5
HEIGHT_A_TURN = 1.0
# Mm either way: common practice, no source
SIDE_RANGE = 2.0
DEPTH_RANGE = 2.0
HEIGHT_RANGE = 3.0
# Mm; less packing than paper is none
NOTHING = 0.05
LEAST_PACKED = 0.1
MOST_SHIMS = 4
CROSS_LEAST = 0.3  # mm out of plane that nobody sees: common practice, no source


@dataclass(frozen=True, slots=True)
class Step:
    """One thing to do."""

    kind: str
    """Pack, let in, plane, turn or look."""
    words: str
    """What."""
    amount: float
    """By how much, mm."""
    where: str
    """Hinge 1 from the top, or an edge."""


def shims_for(thickness: float, at_hand: Sequence[float]) -> tuple[float, ...]:
    """Return the fewest shims that come nearest to a thickness, the thickest first; () where none is the nearest.

    Args:
        thickness: How thick the packing is to be, mm.
        at_hand: Thicknesses of the shims that there are, mm.

    >>> shims_for(0.8, (0.25, 0.5, 1.0))
    (0.5, 0.25)
    """
    best: tuple[float, ...] = ()
    off = abs(thickness)
    for count in range(1, MOST_SHIMS + 1):
        for each in combinations_with_replacement(sorted(at_hand, reverse=True), count):
            wrong = abs(sum(each) - thickness)
            if wrong < off - 1e-9:
                best, off = each, wrong
    return best


def shim_words(shims: Sequence[float], show: Show = IN_MM) -> str:
    """Return "2 shims of 0.5 and 1 of 0.25".

    Args:
        shims: Thicknesses of the shims that there are, mm.
        show: How lengths and other quantities are written.
    """
    counts = {each: list(shims).count(each) for each in sorted(set(shims), reverse=True)}
    words = [f"{many} of {show.fine(each)}" for each, many in counts.items()]
    return ("shim " if sum(counts.values()) == 1 else "shims: ") + " and ".join(words)


def hinge_name(at: int, count: int) -> str:
    """Return what a hinge is called, counted from the top.

    Args:
        at: Number of the hinge from the top, from 0.
        count: How many hinges there are.
    """
    if at == 0:
        return "the top hinge"
    return "the bottom hinge" if at == count - 1 else ("the middle hinge" if count == 3 else f"hinge {at + 1}")


def butt_steps(
    plan: RemedyPlan, places: Sequence[GapPlace], shims: Sequence[float], *, height: float, show: Show = IN_MM
) -> tuple[Step, ...]:
    """Return the steps of a plan on butts: packing first, then letting in, then the plane.

    Hinges from the top down.

    Args:
        plan: The remedy's numbers.
        places: Where gaps are read, and what they are.
        shims: Thicknesses of the shims that there are, mm.
        height: Height, mm.
        show: How lengths and other quantities are written.
    """
    steps: list[Step] = []
    count = len(plan.packed)
    ordered = list(enumerate(plan.packed))
    for at, packed in ordered:
        if packed > LEAST_PACKED:
            chosen = shims_for(packed, shims)
            name = hinge_name(at, count)
            words = shim_words(chosen, show) if chosen else "paper"
            steps.append(
                Step("pack", f"pack {name} by {show.fine(packed)}: {words} behind its leaf on the lining", packed, name)
            )
    for at, packed in ordered:
        if packed < -LEAST_PACKED:
            name = hinge_name(at, count)
            steps.append(Step("let in", f"let {name} in {show.fine(-packed)} deeper on the lining", packed, name))
    steps += plane_steps(plan.planed, places, height=height, show=show)
    return tuple(steps) if steps else (Step("nothing", "nothing: every gap is within the tolerance", 0.0, ""),)


def across_steps(
    *, proud_top: float, proud_bottom: float, hinges: Sequence[float], height: float, show: Show = IN_MM
) -> tuple[Step, ...]:
    """Return what is moved across so that a leaf on butts lies in its plane; () where it does.

    proud_*: how far its latch edge stands out of its plane at top and foot when it is shut, mm. A flat leaf
    leans at the latch as it does at the hinges, so the outer hinges take up what differs, half each, less by
    the ratio of their distance to the height; what is alike is the stop's. Source: a plane turned about a level
    line.

    Args:
        proud_top: How far the top stands proud, mm; less than 0: how far back.
        proud_bottom: How far the bottom stands proud, mm; less than 0: how far back.
        hinges: Heights of their middles over the foot of a leaf that is `height` high, mm.
        height: Height, mm.
        show: How lengths and other quantities are written.
    """
    twist, alike = proud_top - proud_bottom, (proud_top + proud_bottom) / 2
    steps = []
    if abs(twist) > CROSS_LEAST:
        out, into = ("bottom", "top") if twist > 0 else ("top", "bottom")
        half = abs(twist) / 2 * (max(hinges) - min(hinges)) / height
        by = show.length(half, sign=False)
        words = f"move the {into} hinge {by} towards the stop, the {out} one as much away from it"
        steps.append(Step("across", words, half, "hinges"))
    if abs(alike) > CROSS_LEAST:
        way = "back" if alike > 0 else "out"
        by = show.length(abs(alike), sign=False)
        steps.append(Step("stop", f"set the stop {by} {way} over its whole height", alike, "stop"))
    return tuple(steps)


def plane_steps(
    planed: Sequence[float], places: Sequence[GapPlace], *, height: float, show: Show = IN_MM
) -> list[Step]:
    """Return what is planed off each edge: how much at each place, where it runs out.

    Args:
        planed: What is planed off the latch edge, mm.
        places: Where gaps are read, and what they are.
        height: Height, mm.
        show: How lengths and other quantities are written.
    """
    steps = []
    words = {"hinge": "hinge edge, the hinges off", "latch": "latch edge", "head": "head", "floor": "foot"}
    for side, edge in words.items():
        mine = [(place, off) for place, off in zip(places, planed, strict=True) if place.side == side]
        if any(off > NOTHING for _, off in mine):
            each = ", ".join(
                f"{show.fine(off) if off > NOTHING else 'to nothing'} at the {place.name}" for place, off in mine
            )
            most = max(off for _, off in mine)
            steps.append(Step("plane", f"plane the {edge}: {each}", most, side))
    return steps


# --- cup hinges --------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class CupTurn:
    """One screw of one hinge.

    out: up, away from the hinge side, or out of the cabinet.
    """

    hinge: int
    """Number of the hinge from the top."""
    screw: str
    """Which of its screws."""
    amount: float
    """How far the leaf goes there, mm."""
    turns: float
    """How often its screw is turned."""
    within: bool
    """Whether the screw goes so far."""


@dataclass(frozen=True, slots=True)
class Standing:
    """How a leaf on cups stands, mm; less than 0 is high, and behind."""

    low_hinge: float = 0.0
    """How much too low it hangs at the hinge side."""
    low_latch: float = 0.0
    """How much too low it hangs at the latch side."""
    proud_top: float = 0.0
    """How far its top stands proud."""
    proud_bottom: float = 0.0
    """How far its foot stands proud."""


def cup_turns(
    *, tops: Sequence[float], width: float, height: float, stands: Standing, shift: float = 0.0
) -> tuple[CupTurn, ...]:
    """Return what each screw of each cup hinge turns, in order: heights, then sides, then depth.

    Turning the leaf about its middle keeps its gaps at the sides. Source: geometry; ranges common practice.

    Args:
        tops: Middles of the cups, down from the leaf's top, mm.
        width: Width, mm.
        height: Height, mm.
        stands: How it stands.
        shift: How far the leaf as a whole goes to the latch, mm.
    """
    low_hinge, proud_bottom = stands.low_hinge, stands.proud_bottom
    turn = (stands.low_latch - low_hinge) / width
    middle = height / 2
    found = [
        CupTurn(n, "height", low_hinge, low_hinge / HEIGHT_A_TURN, abs(low_hinge) <= HEIGHT_RANGE + 1e-9)
        for n in range(1, len(tops) + 1)
        if abs(low_hinge) > NOTHING
    ]
    for n, top in enumerate(tops, start=1):
        across = shift - turn * ((height - top) - middle)
        if abs(across) > NOTHING:
            found.append(CupTurn(n, "side", across, across / SIDE_A_TURN, abs(across) <= SIDE_RANGE + 1e-9))
    for n, top in enumerate(tops, start=1):
        back = -(proud_bottom + (stands.proud_top - proud_bottom) * (height - top) / height)
        if abs(back) > NOTHING:
            found.append(CupTurn(n, "depth", back, back / DEPTH_A_TURN, abs(back) <= DEPTH_RANGE + 1e-9))
    return tuple(found)


def turn_words(each: CupTurn, count: int, show: Show = IN_MM) -> str:
    """Return "top hinge, side screw: 1 3/4 turns, 1.2 to the latch".

    Args:
        each: The screw and how far it is turned.
        count: How many there are.
        show: How lengths and other quantities are written.
    """
    name = hinge_name(each.hinge - 1, count).removeprefix("the ")
    way = {
        "height": ("up", "down"),
        "side": ("to the latch", "to the hinge side"),
        "depth": ("out of the cabinet", "into the cabinet"),
    }[each.screw][each.amount < 0]
    quarters = round(abs(each.turns) * 4)
    whole, rest = divmod(quarters, 4)
    part = {0: "", 1: "1/4", 2: "1/2", 3: "3/4"}[rest]
    turns = " ".join(word for word in (str(whole) if whole else "", part) if word) or "a breath"
    over = "" if each.within else ": more than it has"
    turned = f"{turns} turns" if quarters > 4 else f"{turns} turn"
    return f"{name}, {each.screw} screw: {turned}, {show.fine(abs(each.amount))} {way}{over}"


def signed(value: float, digits: int = 1) -> str:
    """Return a number with its sign, a true minus; "0" for what rounds to nothing.

    Args:
        value: The number.
        digits: Digits behind the point.

    >>> signed(0.04), signed(1.25, 2)
    ('0', '+1.25')
    """
    if abs(value) < 0.5 * 10**-digits:
        return "0"
    return f"{'+' if value > 0 else MINUS}{abs(value):.{digits}f}"
