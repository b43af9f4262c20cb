"""Where butts stand on a leaf, and what is cut for them."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.leaf.part import Rect


@dataclass(frozen=True, slots=True)
class ButtPlace:
    """One butt. top: its upper end, mm down from the leaf's top; jamb_*: down from the lining's head."""

    number: int
    top: Figure
    bottom: Figure
    jamb_top: Figure
    jamb_bottom: Figure
    rect: Rect


@dataclass(frozen=True, slots=True)
class Butts:
    """The hinges of a leaf, from the top down, and what is cut for them."""

    places: tuple[ButtPlace, ...]
    depth: Figure
    across: Figure
    pull: Figure | None
    borings: tuple[Boring, ...]
    schools: dict[str, tuple[float, ...]]  # near upper ends by the other schools, for comparison
