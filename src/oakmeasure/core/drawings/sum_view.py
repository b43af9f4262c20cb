"""A quick sum as a drawing to scale: what is asked for stands out, what was told is dimensioned."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.build.shape import Rect
from oakmeasure.core.drawing import Drawing, Sketch
from oakmeasure.core.drawings import sum_hardware, sum_leaf, sum_wood
from oakmeasure.core.drawings.sum_parts import Draft
from oakmeasure.core.sums.quick import Answer
from oakmeasure.core.units import Show

VIEWS: dict[str, Callable[[Draft], None]] = {**sum_leaf.VIEWS, **sum_wood.VIEWS, **sum_hardware.VIEWS}


def sum_view(found: Answer, show: Show) -> Drawing:
    """Return the drawing of an answer."""
    draft = Draft(Sketch(), found, show)
    VIEWS[found.name](draft)
    box = draft.sketch.drawing().bounds
    return draft.sketch.drawing(margin=0.04 * max(box.width, box.height))


def blank() -> Drawing:
    """Return the board while an option is still missing."""
    return Drawing((), Rect(0, 0, 1, 1))
