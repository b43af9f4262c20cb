"""What is looked at on a leaf that slides, in order."""

from __future__ import annotations

from oakmeasure.core.base.geometry import circle
from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.drawings.words import broken
from oakmeasure.core.hanging.sliding import Look
from oakmeasure.core.solution import LeafSolution

LOOK_LINE = 48  # characters of a line of what is looked at; mm from line to line
LOOK_STEP = 27.0


def looks_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return what is looked at of a leaf that slides, in its order, with what was found and what mends it.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    hung = leaf.hung
    if not hung.looks:
        return empty_view("this leaf does not slide")
    sketch = Sketch(show)
    y = 0.0
    first = next((n for n, each in enumerate(hung.looks) if each.fine is False), None)
    for n, each in enumerate(hung.looks):
        y = _look(sketch, each, n, y, later=first is not None and n > first)
    if hung.level is not None:
        turns = f"{abs(hung.level.turns):.1f} turns {'down' if hung.level.latch_up < 0 else 'up'}"
        words = f"The latch hanger {turns}: then {show.fine(hung.level.jamb)} all the way up the jamb"
        for line in broken(show, words, LOOK_LINE):
            sketch.write((0, y + 20), line, Lettering(Layer.LEAF, bold=True))
            y -= LOOK_STEP
        y -= 14
    sketch.write((0, y + 10), "Only when all of this is right is a hole drilled again.", PENCIL)
    return sketch.drawing(margin=24)


def _look(sketch: Sketch, look: Look, n: int, y: float, *, later: bool) -> float:
    """Draw what is looked at, what was found and what mends it; return where the next one stands."""
    ring = circle(22, y, 20)
    sketch.area(ring, Layer.METAL if look.fine is False else Layer.SPACE)
    sketch.line(ring, Layer.OUTLINE)
    sketch.label((22, y), str(n + 1), BOLD)
    state = {True: "right", False: "not right", None: "look"}[look.fine]
    sketch.write(
        (64, y + 13),
        f"{look.what.capitalize()}: {state}",
        Lettering(Layer.DOUBT if look.fine is False else Layer.FAINT if later else Layer.OUTLINE, 1.1, bold=True),
    )
    words = "; ".join(each for each in (look.found, look.remedy if look.fine is not True else "") if each)
    lines = broken(sketch.show, words, LOOK_LINE)
    for m, line in enumerate(lines):
        sketch.write((64, y - 14 - LOOK_STEP * m), line, PENCIL)
    further = y - 92 - LOOK_STEP * (len(lines) - 1)
    sketch.line([(22, y - 24), (22, further + 24)], Layer.FAINT)
    return further
