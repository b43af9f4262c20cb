"""A quick sum as a drawing to scale: what is asked for stands out, what was told is dimensioned."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import Drawing, Sketch
from oakmeasure.core.drawings.sums import hardware, leaf, wood
from oakmeasure.core.drawings.sums.members import Draft
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.sums.quick import Answer

VIEWS: dict[str, Callable[[Draft], None]] = {**leaf.VIEWS, **wood.VIEWS, **hardware.VIEWS}


def sum_view(found: Answer, show: Show) -> Drawing:
    """Return the drawing of an answer.

    Args:
        found: The sum, answered.
        show: How lengths and other quantities are written.
    """
    draft = Draft(Sketch(show), found, show)
    VIEWS[found.name](draft)
    box = draft.sketch.drawing().bounds
    return draft.sketch.drawing(margin=0.04 * max(box.width, box.height))


def blank() -> Drawing:
    """Return the board while an option is still missing."""
    return Drawing((), Rect(0, 0, 1, 1))
