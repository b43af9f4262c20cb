"""A strip of small pictures, one a step: the pieces as they lie after it, what it takes off hatched."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import Area, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.drawings.turned.picture import PictureFrame
from oakmeasure.core.drawings.turned.scene import Detail, Scene, marks_of, scene_played
from oakmeasure.core.drawings.turned.turn import Turn
from oakmeasure.core.drawings.turned.turned_view import draw_sides, for_hand
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.making.played import Played, player_of
from oakmeasure.core.solution import LeafSolution

SHEET = 1.5  # how many times wider than high the strip may be at the most
UNDER = 0.16  # of a picture's height, under it for its number
APART = 0.08  # and between two


def strip_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return all steps of a leaf as small pictures in rows, in working order, each with its number.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    if leaf.making is None or leaf.body is None:
        return empty_view("no leaf yet: nothing to make")
    turn = for_hand(leaf, Turn())
    play = player_of(leaf, leaf.making.operations)
    pictures = _pictures([play.after(op.id) for op in leaf.making.operations], turn)
    frames = [PictureFrame.about(each.scene, turn, 1.0) for each in pictures]
    wide, high = (max(frame.half[at] for frame in frames) * 2 for at in (0, 1))
    cell = wide * (1 + APART), high * (1 + UNDER + APART)
    columns = max(1, min(len(pictures), math.ceil(math.sqrt(len(pictures) * SHEET * cell[1] / cell[0]))))
    rows = math.ceil(len(pictures) / columns)
    sketch = Sketch(show, UNDER * high)
    for n, (each, frame) in enumerate(zip(pictures, frames, strict=True)):
        x, y = (n % columns + 0.5) * cell[0], (rows - n // columns - 0.5) * cell[1]
        first = len(sketch.shapes)
        draw_sides(sketch, replace(frame, shift=(x, y + UNDER * high / 2)), each.scene, turn)
        sketch.shapes[first:] = [_thin(area) if isinstance(area, Area) else area for area in sketch.shapes[first:]]
        number = Lettering(Layer.OUTLINE, 0.85, bold=True)
        sketch.label((x, y - high / 2 - UNDER * high / 4), each.numbers, number)
    return Drawing(tuple(sketch.shapes), Rect(0.0, 0.0, columns * cell[0], rows * cell[1]))


@dataclass(slots=True)
class _Picture:
    """What one or several steps leave behind that look alike."""

    scene: Scene
    played: Played
    first: int
    last: int

    @property
    def numbers(self) -> str:
        return str(self.first) if self.first == self.last else f"{self.first} – {self.last}"


def _pictures(played: list[Played], turn: Turn) -> list[_Picture]:
    """Return a picture of every step; of steps that follow one another and change nothing to be seen one of them all.

    What only differs in who is at hand is worked out once.
    """
    found: list[_Picture] = []
    for number, each in enumerate(played, start=1):
        last = found[-1] if found else None
        if last is None or each.taken_off or last.played.taken_off or _lie(each) != _lie(last.played):
            found.append(_Picture(scene_played(each, turn, Detail.SMALL), each, number, number))
        elif each.at_hand == last.played.at_hand:
            last.last = number
        else:
            scene = replace(last.scene, marks=marks_of(each, Detail.SMALL))
            found.append(_Picture(scene, each, number, number))
    return found


def _lie(played: Played) -> tuple[object, ...]:
    return played.offsets, tuple((each.name, each.solids, each.cuts) for each in played.body.pieces)


def _thin(area: Area) -> Area:
    """Return a side with thin lines."""
    return replace(area, strokes=tuple((Layer.DIMENSION, line) for _, line in area.strokes))
