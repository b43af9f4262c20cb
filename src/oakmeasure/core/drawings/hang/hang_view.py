"""A leaf as it hangs and as it will, gaps exaggerated; a run of leaves; what is looked at; a drill."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import HAIR, Show
from oakmeasure.core.document.adjustment import PutRight
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.drawing import BOLD, OAK, PENCIL, Anchor, Drawing, Grain, Layer, Lettering, Sketch
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.drawings.words import broken
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.hanging.adjust import Hung, Remedied, frame_of
from oakmeasure.core.hanging.gap_remedy import GapPlace, HungFrame, RemedyPlan
from oakmeasure.core.hanging.practice import Drill, Score
from oakmeasure.core.hanging.remedy import LEAST_PACKED, turn_words
from oakmeasure.core.leaf.part import Part, Rect
from oakmeasure.core.solution import LeafSolution

TALL = 560.0
TIMES = 14.0
APART = 150.0
LINING = 14.0


@dataclass(frozen=True, slots=True)
class _Pose:
    """A leaf to be drawn: its gaps at the places that were read."""

    title: str
    gaps: Sequence[float]
    planed: Sequence[float] = ()
    packed: Sequence[float] = ()


@dataclass(frozen=True, slots=True)
class _Hung:
    """What hangs: `mirrored` has its hinges at the right hand.

    `meeting`: its latch edge meets another leaf's, and the line between them stands with the active one.
    """

    frame: HungFrame
    places: Sequence[GapPlace]
    mirrored: bool = False
    meeting: bool = False
    parts: Sequence[Part] = ()


def hang_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the leaf as it hangs and put right by the aim that is chosen, or what its screws turn.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    hung = leaf.hung
    if leaf.build is None:
        return empty_view("no leaf yet: nothing to hang")
    if hung.turns:
        return _turned(leaf, hung, show)
    first = next((each for each in hung.leaves if each.found is not None), None)
    if first is None or first.found is None:
        return _not_read(leaf, show)
    left = leaf.leaf.hand is Hand.LEFT
    sketch = Sketch(show)
    x = 0.0
    pair = len(hung.leaves) > 1
    for after in (False, True):
        for n, each in enumerate(hung.leaves):
            assert each.found is not None
            plan = each.found.plan(leaf.leaf.hung.aim)
            k = TALL / each.frame.height
            # Of a pair hinged at both ends the active leaf stands at its own hand.
            at = x + (each.frame.width * k if pair and left is (n == 1) else 0.0)
            title = "" if n else "put right" if after else "as it hangs"
            before = _Pose(title, each.read)
            pose = _Pose(title, plan.after, plan.planed, plan.packed) if after else before
            door = _Hung(each.frame, each.found.places, left is (n == 1), pair, leaf.build.parts)
            _leaf(sketch, door, pose, x=at, k=k)
        x += first.frame.width * TALL / first.frame.height * len(hung.leaves) + APART
    if not pair:  # of a pair the steps stand in the list: beside two leaves they would be too small to read
        _steps(sketch, hung.leaves, leaf.leaf.hung.aim, x)
    return sketch.drawing(margin=18)


def _steps(sketch: Sketch, leaves: Sequence[Remedied], aim: PutRight, x: float) -> None:
    y = TALL - 6
    sketch.write((x, y + 26), str(aim).capitalize(), Lettering(size=1.15, bold=True))
    for each in leaves:
        steps = each.least_wood if aim is PutRight.LEAST_WOOD else each.even
        for n, step in enumerate(steps, start=1):
            for m, line in enumerate(broken(sketch.show, step.words, 40, f"{n}  ")):
                sketch.write((x + (0 if m == 0 else 16), y - 6), line, Lettering(Layer.OUTLINE))
                y -= 29
        y -= 10
    sketch.write((x, max(y - 12, 8.0)), f"gaps drawn × {TIMES:g}", Lettering(Layer.PENCIL, 0.9))


def _not_read(leaf: LeafSolution, show: Show) -> Drawing:
    """The leaf with the gaps that are wanted: what is to be read, and where."""
    frame, f = frame_of(leaf), leaf.figures
    sketch = Sketch(show)
    up = (("top", frame.height), ("middle", frame.height / 2), ("bottom", 0.0))
    along = (("hinge", 0.0), ("middle", frame.width / 2), ("latch", frame.width))
    places = [
        GapPlace(side, name, at, f[figure_name(f"gap_{side}")].value, f[figure_name(f"gap_{side}")].value)
        for side, stations in (("hinge", up), ("latch", up), ("head", along))
        for name, at in stations
    ]
    door = _Hung(frame, places, leaf.leaf.hand is Hand.RIGHT)
    _leaf(sketch, door, _Pose("as it should hang", [p.gap for p in places]), x=0.0, k=TALL / frame.height)
    x = frame.width * TALL / frame.height + APART
    y = TALL - 40
    for words in (
        "Read the gaps with feelers, shut, at three places a side,",
        "or as many as you can reach;",
        "then it says what to pack, let in, turn or plane.",
    ):
        for line in broken(show, words, 36):
            sketch.write((x, y), line, PENCIL)
            y -= 28
    return sketch.drawing(margin=18)


def _leaf(sketch: Sketch, door: _Hung, pose: _Pose, *, x: float, k: float) -> None:
    """Draw a leaf in its lining, its gaps many times as wide."""
    show, frame, mirrored, meeting = sketch.show, door.frame, door.mirrored, door.meeting
    wide, high = frame.width * k, frame.height * k

    def at(px: float, py: float) -> tuple[float, float]:
        return (x + wide - px if mirrored else x + px), py

    def gap_at(side: str, where: float) -> float:
        otherwise = 0.0 if meeting and side == "latch" else 3.0
        return _between(door.places, pose.gaps, side, where, otherwise=otherwise)

    end = wide if meeting else wide + LINING
    open_ = [
        at(-LINING, 0),
        at(-LINING, high + LINING),
        at(end, high + LINING),
        at(end, 0),
        at(wide, 0),
        at(wide, high),
    ]
    sketch.area([*open_, at(0, high), at(0, 0)], Layer.LINING)
    sketch.area([at(0, 0), at(wide, 0), at(wide, high), at(0, high)], Layer.SPACE)
    e = TIMES * k
    heights = [frame.height * n / 8 for n in range(9)]
    alongs = [frame.width * n / 6 for n in range(7)]

    def point(px: float, py: float) -> tuple[float, float]:
        left = gap_at("hinge", py) * e
        right = gap_at("latch", py) * e
        share = px / frame.width
        top, foot = gap_at("head", px) * e, gap_at("floor", px) * e
        lift = py / frame.height
        return at(left + (wide - left - right) * share, foot + (high - foot - top) * lift)

    edge = [point(0.0, y) for y in heights] + [point(px, frame.height) for px in alongs[1:]]
    edge += [point(frame.width, y) for y in reversed(heights[:-1])] + [point(px, 0.0) for px in reversed(alongs[1:-1])]
    sketch.area(edge, Layer.WOOD, tint=OAK, grain=Grain.UPRIGHT)
    for part in door.parts:
        shape = [point(*corner) for corner in part.corners]
        sketch.line([*shape, shape[0]], Layer.FAINT)
    sketch.line([*edge, edge[0]], Layer.OUTLINE)
    _numbers(sketch, door, pose, at, (wide, high, k))
    for n, y in enumerate(frame.hinges):
        px, py = at(gap_at("hinge", y) * e / 2, y * k)
        sketch.rect(Rect(px - 5, py - 16, px + 5, py + 16), Layer.METAL)
        if pose.packed and abs(pose.packed[n]) > LEAST_PACKED:
            word = show.fine(pose.packed[n], signed=True)
            if not meeting:
                word = f"{'pack' if pose.packed[n] > 0 else 'let in'} {show.fine(abs(pose.packed[n]))}"
            tx, ty = at(gap_at("hinge", y) * e + 14, y * k)
            sketch.label(
                (tx, ty),
                word,
                Lettering(Layer.LEAF, bold=True, on_paper=True),
                anchor=Anchor.RIGHT if mirrored else Anchor.LEFT,
            )
    if pose.title:
        middle = at(wide, 0)[0] if meeting else x + wide / 2
        sketch.label((middle, -18), pose.title, BOLD, anchor=Anchor.BELOW)


def _between(places: Sequence[GapPlace], gaps: Sequence[float], side: str, where: float, *, otherwise: float) -> float:
    """Return the gap of a side at a place, between the places where it was read; `otherwise` where none was."""
    mine = sorted((p.at, gap) for p, gap in zip(places, gaps, strict=True) if p.side == side)
    if not mine:
        return otherwise
    for (a, ga), (b, gb) in pairwise(mine):
        if a <= where <= b:
            return ga + (gb - ga) * (where - a) / max(b - a, 1e-9)
    return mine[0][1] if where < mine[0][0] else mine[-1][1]


def _numbers(
    sketch: Sketch, door: _Hung, pose: _Pose, at: Callable[[float, float], Point], size: tuple[float, float, float]
) -> None:
    """The gap at each place beside the lining, and what is planed there, hatched.

    size: of the leaf as drawn, its scale.
    """
    show, meeting = sketch.show, door.meeting
    wide, high, k = size
    clear = 44.0 if meeting else 14.0
    for n, (place, gap) in enumerate(zip(door.places, pose.gaps, strict=True)):
        off = pose.planed[n] if pose.planed else 0.0
        tight = gap < HAIR
        layer = Layer.DOUBT if tight else Layer.OUTLINE
        px, py = {
            "hinge": (-LINING - 26, min(max(place.at * k, 12), high - 12)),
            "latch": (wide - 34 if meeting else wide + LINING + 26, min(max(place.at * k, 12), high - 12)),
            "head": (min(max(place.at * k, 14), wide - clear), high + LINING + 16),
            "floor": (min(max(place.at * k, 14), wide - 14), 14.0),
        }[place.side]
        tx, ty = at(px, py)
        sketch.label((tx, ty), show.fine(gap) if not tight else "touches", Lettering(layer, 0.95, bold=tight))
        if off > HAIR:
            beyond = ty + 32 if place.side == "head" else ty - 32
            sketch.label((tx, beyond), f"plane {show.fine(off)}", Lettering(Layer.LEAF, 0.85, bold=True))
            side = (
                Rect(wide - 5, max(py - 60, 0), wide, min(py + 60, high))
                if place.side == "latch"
                else Rect(max(px - 60, 0), high - 5, min(px + 60, wide), high)
                if place.side == "head"
                else None
            )
            for line in hatching(side, 6.0) if side is not None else ():
                sketch.line([at(*each) for each in line], Layer.WASTE)


def _turned(leaf: LeafSolution, hung: Hung, show: Show) -> Drawing:
    """A cabinet leaf that stands low or proud, with its screws and their turns beside each hinge, in order."""
    sketch, frame, gaps = Sketch(show), frame_of(leaf), leaf.leaf.hung.gaps
    k = min(TALL / frame.height, 460.0 / frame.width)
    wide, high = frame.width * k, frame.height * k
    left = leaf.leaf.hand is Hand.LEFT
    low_hinge, low_latch = (gaps.low_hinge or 0.0) * TIMES * k, (gaps.low_latch or 0.0) * TIMES * k
    sketch.box(Rect(0, 0, wide, high), Layer.HIDDEN)
    ends = (low_hinge, low_latch) if left else (low_latch, low_hinge)
    shape = [(0.0, -ends[0]), (wide, -ends[1]), (wide, high - ends[1]), (0.0, high - ends[0])]
    sketch.area(shape, Layer.WOOD, tint=OAK, grain=Grain.UPRIGHT)
    sketch.line([*shape, shape[0]], Layer.OUTLINE)
    hx = 0.0 if left else wide
    for n, y in enumerate(frame.hinges):
        sketch.rect(Rect(hx - 9, y * k - 15, hx + 9, y * k + 15), Layer.METAL)
        sketch.label((hx + (20 if left else -20), y * k), str(n + 1), BOLD)
    for name, value, x, y in (
        ("low", gaps.low_latch, wide + 12 if left else -12, high / 2),
        ("proud at the top", gaps.proud_top, wide / 2, high + 18),
        ("proud at the foot", gaps.proud_bottom, wide / 2, -max(ends) - 22),
    ):
        if value:
            words = (
                f"{name} {show.fine(abs(value))}"
                if value > 0
                else f"{name.replace('low', 'high').replace('proud', 'behind')} {show.fine(-value)}"
            )
            sketch.label(
                (x, y),
                words,
                Lettering(Layer.DOUBT, bold=True),
                anchor=Anchor.CENTRE if name != "low" else (Anchor.LEFT if left else Anchor.RIGHT),
            )
    x, y = wide + 210.0, high - 10  # clear of how low it stands
    sketch.write((x, y + 34), "The screws, in their order", Lettering(size=1.15, bold=True))
    for n, each in enumerate(hung.turns, start=1):
        for m, line in enumerate(broken(show, turn_words(each, len(frame.hinges), show), 44, f"{n}  ")):
            sketch.write((x + (0 if m == 0 else 16), y), line, Lettering(Layer.OUTLINE if each.within else Layer.DOUBT))
            y -= 28
    sketch.write((x, y - 14), f"out of level drawn × {TIMES:g}", Lettering(Layer.PENCIL, 0.9))
    return sketch.drawing(margin=24)


# --- practice, record, book ----------------------------------------------------------------------------------


def practice_view(
    door: Drill, packed: Sequence[float], planed: float, judged: Score | None, show: Show, best: RemedyPlan | None
) -> Drawing:
    """Return the drill's door as it hangs, and, when it is judged, as the remedy leaves it.

    Args:
        door: The drill's crooked door.
        packed: What each hinge is packed by, the lowest first, mm.
        planed: What is planed off the latch edge, mm.
        judged: How the person's remedy did; None before it is judged.
        show: How lengths and other quantities are written.
        best: The best remedy, shown beside the person's; None before it is asked for.
    """
    sketch, k = Sketch(show), TALL / door.frame.height
    hung = _Hung(door.frame, door.places)
    _leaf(sketch, hung, _Pose(f"door {door.seed}, as it hangs", [p.gap for p in door.places]), x=0.0, k=k)
    x = door.frame.width * k + APART
    if judged is not None:
        off = [planed if p.side == "latch" else 0.0 for p in door.places]
        _leaf(sketch, hung, _Pose("with your remedy", judged.after, off, packed), x=x, k=k)
        x += door.frame.width * k + APART
        sketch.write((x, TALL - 20), f"{judged.points} of 100", Lettering(Layer.LEAF, 2.2, bold=True))
        lines = [*judged.working]
        if best is not None:
            lines.append(
                "best: "
                + ", ".join(show.fine(each, signed=True) for each in best.packed)
                + (", and the plane" if best.planes else "")
            )
            lines.append(
                "set wrong by: "
                + ", ".join(show.fine(each, signed=True) for each in door.faults)
                + (f", too full by {show.fine(door.swollen)}" if door.swollen else "")
            )
        y = TALL - 80
        for words in lines:
            for line in broken(show, words, 38):
                sketch.write((x, y), line)
                y -= 26
    else:
        for n, words in enumerate(
            (
                "What is packed, and what let in deeper?",
                "Two butts turn the leaf; a third follows them.",
                "Wood that is planed off does not come back.",
            )
        ):
            sketch.write((x, TALL - 30 - 30 * n), words, PENCIL)
    return sketch.drawing(margin=18)
