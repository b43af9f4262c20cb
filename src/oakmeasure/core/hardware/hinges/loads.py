"""What a hung leaf does to its hinges."""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import GRAVITY


def top_hinge_pull(*, mass: float, leaf_width: float, hinge_spacing: float) -> float:
    """Return the level pull on the top hinge, N; the bottom one is pushed in by as much.

    Not rounded. Source: moments about the bottom hinge, m·g·(w/2)/spacing.

    Args:
        mass: Of the leaf, kg.
        leaf_width: Width of the leaf, mm; its mass acts half way across.
        hinge_spacing: Centre of the top hinge to centre of the bottom one, mm, > 0.

    Raises:
        InputError: See the message.

    >>> round(top_hinge_pull(mass=40, leaf_width=762, hinge_spacing=1600), 1)
    93.4
    """
    if hinge_spacing <= 0:
        raise InputError("hinge_spacing", hinge_spacing, "more than 0")
    if mass < 0:
        raise InputError("mass", mass, "0 or more")
    return mass * GRAVITY * (leaf_width / 2) / hinge_spacing
