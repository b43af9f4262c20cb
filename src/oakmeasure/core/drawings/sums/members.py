"""What the drawings of quick sums share: members, dimensions, walls."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.drawings.drawing import OAK, PENCIL, Anchor, Grain, Layer, Sketch
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.sums.quick import Answer


@dataclass(slots=True)
class Draft:
    """A sketch with the answer that it draws."""

    sketch: Sketch
    """The drawing that is added to."""
    found: Answer
    """The sum, answered."""
    show: Show
    """How lengths are written."""

    def v(self, name: str, other: float = 0.0) -> float:
        """Return a figure of the answer; `other` where it was left out.

        Args:
            name: Its name.
            other: What is taken where the figure was left out.
        """
        figure = self.found.figures.get(figure_name(name))
        return other if figure is None else figure.value

    def text(self, name: str) -> str:
        """Return a figure as it is shown.

        Args:
            name: Its name.
        """
        figure = self.found.figures[figure_name(name)]
        if figure.unit is Unit.MM:
            return self.show.length(figure.value)
        return self.show.value(figure.value, figure.unit)

    def wood(self, rect: Rect, grain: Grain = Grain.UPRIGHT, *, asked: bool = True) -> None:
        """Draw a piece of wood; the one that is asked for has the heavier outline.

        Args:
            rect: The rectangle, mm.
            grain: Which way the grain runs.
            asked: Whether it is the piece that is asked for.
        """
        self.sketch.rect(rect, Layer.WOOD, grain=grain, tint=OAK)
        self.sketch.box(rect, Layer.LEAF if asked else Layer.OUTLINE)

    def across(self, x0: float, x1: float, y: float, name: str) -> None:
        """Dimension a figure from x0 to x1 at the height y.

        Args:
            x0: Where it begins, across, mm.
            x1: Where it ends, across, mm.
            y: Up, from the foot, mm.
            name: Its name.
        """
        self.sketch.dimension((x0, y), (x1, y), self.text(name), figure=name)

    def up(self, y0: float, y1: float, x: float, name: str, *, share: float = 0.5) -> None:
        """Dimension a figure upwards.

        Args:
            y0: Its lower end, mm.
            y1: Its upper end, mm.
            x: Across, away from the hinge edge, mm.
            name: Its name.
            share: Where along the line its text stands, 0 to 1.
        """
        self.sketch.dimension((x, y0), (x, y1), self.text(name), figure=name, share=share)

    def wall(self, rect: Rect) -> None:
        """Draw a piece of wall or lining in section.

        Args:
            rect: The rectangle, mm.
        """
        self.sketch.rect(rect, Layer.WALL)
        self.sketch.box(rect, Layer.OUTLINE)

    def shape(self, points: Sequence[Point], *, grain: Grain = Grain.LEVEL) -> None:
        """Draw a piece of wood of any outline.

        Args:
            points: Points, mm.
            grain: Which way the grain runs.
        """
        self.sketch.area(points, Layer.WOOD, grain=grain, tint=OAK)
        self.sketch.line([*points, points[0]], Layer.LEAF)

    def note(self, x: float, y: float, words: str, *, anchor: Anchor = Anchor.CENTRE) -> None:
        """Write what needs no line to it.

        Args:
            x: Across, away from the hinge edge, mm.
            y: Up, from the foot, mm.
            words: The words.
            anchor: Which point of the text stands at the place.
        """
        self.sketch.label((x, y), words, PENCIL, anchor=anchor)
