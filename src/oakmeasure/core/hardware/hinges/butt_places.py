"""Where butts stand on a leaf, and what is cut for them."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.leaf.part import Rect


@dataclass(frozen=True, slots=True)
class ButtPlace:
    """One butt."""

    number: int
    """Its number, from 1."""
    top: Figure
    """Its upper end, mm down from the leaf's top."""
    bottom: Figure
    """Its lower end, down from the leaf's top, mm."""
    jamb_top: Figure
    """Its upper end, down from the head on the hinge jamb, mm."""
    jamb_bottom: Figure
    """Its lower end, down from the head on the hinge jamb, mm."""
    rect: Rect
    """The rectangle that it takes up, mm in the leaf."""


@dataclass(frozen=True, slots=True)
class Butts:
    """The hinges of a leaf, from the top down, and what is cut for them."""

    places: tuple[ButtPlace, ...]
    """Where they stand, from the top."""
    depth: Figure
    """How deep they are let in, mm."""
    across: Figure
    """How far they reach across the edge, mm."""
    pull: Figure | None
    """What the top one is pulled by, N; None where that is not known."""
    borings: tuple[Boring, ...]
    """What is cut for them, in the leaf and in what carries it."""
    schools: dict[str, tuple[float, ...]]
    """Near upper ends by the other schools, for comparison."""
