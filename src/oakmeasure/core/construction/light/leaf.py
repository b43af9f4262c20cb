"""A light leaf while it is built."""

from __future__ import annotations

from dataclasses import dataclass, field

from oakmeasure.core.construction.framed.layout import FrameLayout
from oakmeasure.core.construction.light.model import Light
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Fixing, Part, Tenon
from oakmeasure.core.timber.choice import Timber


@dataclass(slots=True)
class LightLeaf:
    """The leaf while it is being set out."""

    ctx: Context
    """The leaf's context."""
    fit: Fit
    """Size of the leaf and its gaps."""
    wood: Timber
    """Species and moisture."""
    choice: Light
    """What is chosen for the light frame."""
    stile: Figure
    """Width of a stile, mm."""
    shoulder: Figure
    """Between the shoulders of a rail, mm."""
    layout: FrameLayout
    """Where rails and fields stand."""
    parts: list[Part] = field(default_factory=list)
    """The parts so far."""
    tenons: list[Tenon] = field(default_factory=list)
    """The tenons so far."""
    fixings: list[Fixing] = field(default_factory=list)
    """Nails and screws so far."""
