"""A run of cabinet leaves, as it hangs and as it is lined up."""

from __future__ import annotations

import math
from collections.abc import Sequence

from oakmeasure.core.base.units import HAIR, Show
from oakmeasure.core.document.adjustment import RunLeaf
from oakmeasure.core.drawings.drawing import BOLD, OAK, Anchor, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.hang.hang_view import TIMES
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.hanging.adjust import frame_of
from oakmeasure.core.hanging.gap_remedy import HungFrame
from oakmeasure.core.hanging.run import RunPlan
from oakmeasure.core.solution import LeafSolution

RUN_TIMES = TIMES * 0.8
_Move = tuple[float, float, float]  # up, by how much it rises to the right, across, mm
UNMOVED: _Move = (0.0, 0.0, 0.0)


def run_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return a run of leaves as they hang over the same lined up, heights and gaps exaggerated.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    plan, run = leaf.hung.run, leaf.leaf.hung.run
    if plan is None or not run:
        return empty_view("read the leaves of the run one after the other, from the left")
    sketch, frame = Sketch(show), frame_of(leaf)
    k = min(1000.0 / (len(run) * (frame.width + 60)), 250.0 / frame.height)
    _row(sketch, [(each, UNMOVED) for each in run], frame, k, y=frame.height * k + 150, words="as they hang")
    moves = [(each.up, each.rises, each.across) for each in plan.leaves]
    _row(sketch, list(zip(run, moves, strict=True)), frame, k, y=0.0, words="lined up")
    _moves(sketch, plan, frame, k)
    return sketch.drawing(margin=22)


def _row(
    sketch: Sketch, run: Sequence[tuple[RunLeaf, _Move]], frame: HungFrame, k: float, *, y: float, words: str
) -> None:
    x, pitch = 0.0, (frame.width + 60) * k
    sketch.line([(-20, y + frame.height * k), (len(run) * pitch, y + frame.height * k)], Layer.HIDDEN)
    for n, (each, (up, rises, across)) in enumerate(run):
        left = (-each.low_left + up) * k * RUN_TIMES
        right = (-each.low_right + up + rises) * k * RUN_TIMES
        lean = math.atan2(right - left, frame.width * k)
        shift = across * k * RUN_TIMES - math.sin(lean) * frame.height * k / 2
        foot = [
            (x + shift + frame.height * k * math.sin(lean) / 1, y + left),
            (x + frame.width * k + shift + frame.height * k * math.sin(lean), y + right),
        ]
        head = [(x + shift + frame.width * k, y + frame.height * k + right), (x + shift, y + frame.height * k + left)]
        shape = [*foot, *head]
        sketch.area(shape, Layer.WOOD, tint=OAK, ref=f"run:{n}")
        sketch.line([*shape, shape[0]], Layer.OUTLINE)
        sketch.label((x + frame.width * k / 2, y + frame.height * k / 2), str(n + 1), Lettering(size=1.1, bold=True))
        x += pitch
    sketch.label((-30, y + frame.height * k / 2), words, BOLD, anchor=Anchor.RIGHT)


def _moves(sketch: Sketch, plan: RunPlan, frame: HungFrame, k: float) -> None:
    pitch = (frame.width + 60) * k

    def by(mm: float) -> str:
        return sketch.show.fine(mm, signed=True)

    for n, each in enumerate(plan.leaves):
        x = n * pitch + frame.width * k / 2
        lines = [f"up {by(each.up)}", f"turn {by(each.rises)}", f"across {by(each.across)}"]
        if abs(each.depth_top) + abs(each.depth_bottom) > HAIR:
            lines.append(f"depth {by(each.depth_top)} / {by(each.depth_bottom)}")
        for m, line in enumerate(lines):
            sketch.label((x, -28 - 24 * m), line, Lettering(Layer.LEAF, 0.85))
