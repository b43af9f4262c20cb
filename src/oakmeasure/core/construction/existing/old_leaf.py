"""An old leaf while it is worked out, and what is there of it."""

from __future__ import annotations

from dataclasses import dataclass, field

from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.existing.model import Existing
from oakmeasure.core.construction.existing.narrowing import Reduction
from oakmeasure.core.figures.figure import Figure, fixed
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import DrawnMark, Part
from oakmeasure.core.timber.choice import Timber
from oakmeasure.data import table


@dataclass(slots=True)
class OldLeaf:
    """What is known of the leaf while it is worked out."""

    ctx: Context
    """The leaf's context."""
    fit: Fit
    """Size of the leaf and its gaps."""
    wood: Timber
    """Species and moisture."""
    choice: Existing
    """What is known of the old leaf."""
    off_edge: Figure
    """Off each long edge, less than 0 is put on."""
    off_height: Figure
    """What comes off the height, mm."""
    reduction: Reduction | None = None
    """How it is made narrower; None where it is not."""
    parts: list[Part] = field(default_factory=list)
    """The parts so far."""
    marks: list[DrawnMark] = field(default_factory=list)
    """What is drawn on it so far."""

    @property
    def longer(self) -> float:
        """How much it must grow in height, mm; 0 where it does not."""
        return max(0.0, -self.off_height.value)


def span_of(leaf: OldLeaf) -> tuple[float, float, float, float]:
    """Return where the old leaf lies in the finished one: x0, x1, y0, y1.

    Args:
        leaf: The old leaf while it is worked out.
    """
    choice, w, h = leaf.choice, leaf.fit.width.value, leaf.fit.height.value
    put_on = max(0.0, -leaf.off_edge.value)
    grown = leaf.longer
    low, high = (grown, h) if choice.at_foot else (0.0, h - grown)
    return put_on, w - put_on, low, high


def part_there(leaf: OldLeaf, name: str, label: str, value: float) -> Figure:
    """Return the figure of a part that is there, added where it is not yet.

    Args:
        leaf: The old leaf while it is worked out.
        name: Name of the figure.
        label: What it is called, for the working and the drawing.
        value: Its size, mm.
    """
    known = leaf.ctx.figures.get(figure_name(name))
    return known or leaf.ctx.figures.derived(
        figure_name(name), label, value, leaf.off_edge, leaf.off_height, formula="as it is, less what comes off"
    )


def add_hours(ctx: Context, name: str, key: str, words: str, size: float) -> None:
    """Add the hours of changing an old leaf, from data/ways_out.toml.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        name: What is done, as it stands in the figure's name.
        key: Its key in data/ways_out.toml.
        words: What is done, in words.
        size: Length that is worked, mm.
    """
    row = table("ways_out")[key]
    hours = row["hours"] + row.get("per_100", 0) * size / 100
    ctx.figures.given(
        figure_name(f"work_{name}"),
        f"hours, {words}",
        hours,
        fixed(source="made up from common practice"),
        unit=Unit.HOURS,
    )
