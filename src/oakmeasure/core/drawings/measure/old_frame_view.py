"""A frame that stays, from the front: its jambs with what was cut into them, and where the new leaf comes."""

from __future__ import annotations

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand, Leaf
from oakmeasure.core.document.old_frame import OldRecess, RecessFor
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Anchor, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.hang.crooked import crooked
from oakmeasure.core.drawings.leaf.leaf_view import floor_line
from oakmeasure.core.drawings.measure.opening_view import WALL, sides_named, wall_round
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.hardware.hinges.old_recesses import jamb_of
from oakmeasure.core.hardware.old_frame import Patch
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution

JAMB_SHOWN = 60.0  # mm of a jamb beside the opening
SHOWN_DEEP = 24.0  # mm that a recess is drawn deep: as deep as it is it would not be seen


def may_stay(leaf: Leaf) -> bool:
    """Return whether a leaf turns in a frame that may be there already: no cabinet, and no lining to be made.

    Args:
        leaf: The leaf, as the document holds it.
    """
    return leaf.lining is None and leaf.hanging.has_butts and not leaf.hanging.is_cabinet


def old_frame_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return a frame that stays with its recesses; what has to be patched is told apart.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    shape, frame, opening = crooked(leaf, 1.0), leaf.frame, leaf.opening
    w, h = shape.width, shape.height
    sketch = Sketch(show, mirror_at=w if leaf.leaf.hand is Hand.RIGHT else None)
    step = sketch.step = max(h, 1.4 * w) / 100
    wall_round(sketch, shape)
    base = tuple(
        leaf.figures[figure_name(f"{opening.taken_as}{each}")].value for each in ("hinge_side_in", "floor_high")
    )
    top = max(y for _, y in shape.points)
    for rect in (
        Rect(-JAMB_SHOWN, 0.0, 0.0, top + JAMB_SHOWN),
        Rect(w, 0.0, w + JAMB_SHOWN, top + JAMB_SHOWN),
        Rect(-JAMB_SHOWN, top, w + JAMB_SHOWN, top + JAMB_SHOWN),
    ):
        sketch.rect(rect, Layer.LINING)
    sketch.area(shape.points, Layer.SPACE)
    sketch.line([*shape.points, shape.points[0]], Layer.OUTLINE)
    floor_line(sketch.page(), -WALL, w + WALL, 0.0)
    if frame is not None and leaf.build is not None:
        x, y = frame.leaf_at[0] - base[0], frame.leaf_at[1] - base[1]
        sketch.box(Rect(x, y, x + leaf.build.width, y + leaf.build.height), Layer.HIDDEN, ref="figure:leaf_width")
        for number, recess in enumerate(leaf.leaf.old_frame.recesses, start=1):
            edge = jamb_of(leaf.leaf, recess)
            ends = [frame.jamb(edge).place(down) for down in (recess.down, recess.down + recess.length)]
            (x, y1), (_, y0) = ((px - base[0], py - base[1]) for px, py in ends)
            out = -1.0 if edge == "hinge" else 1.0
            rect = Rect(min(x, x + out * SHOWN_DEEP), y0, max(x, x + out * SHOWN_DEEP), y1)
            _recess(sketch, recess, rect, f"recess:{number}", is_patch=Patch(edge, recess) in leaf.patches, out=out)
    sides_named(sketch, leaf, w, -4 * step)
    return sketch.drawing(margin=3 * step)


def _recess(sketch: Sketch, recess: OldRecess, rect: Rect, ref: str, *, is_patch: bool, out: float) -> None:
    """Draw a recess in its jamb, with how far down it is and what becomes of it; out: the way into the jamb."""
    sketch.rect(rect, Layer.SPACE if is_patch else Layer.METAL, ref=ref)
    sketch.box(rect, Layer.DOUBT if is_patch else Layer.OUTLINE, ref=ref)
    step, middle = sketch.step, (rect.y0 + rect.y1) / 2
    face, anchor = (rect.x1, Anchor.RIGHT) if out < 0 else (rect.x0, Anchor.LEFT)
    at = face + out * (WALL + step)
    sketch.label(
        (at, middle + 1.4 * step),
        f"{recess.what}, {sketch.show.length(recess.down)} down",
        BOLD,
        anchor=anchor,
        ref=ref,
    )
    words = "to be patched" if is_patch else "kept" if recess.what is RecessFor.KEEP else "takes its butt"
    colour = Lettering(Layer.DOUBT if is_patch else PENCIL.layer, 0.9)
    sketch.label((at, middle - 1.4 * step), words, colour, anchor=anchor, ref=ref)
