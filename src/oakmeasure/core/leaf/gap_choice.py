"""Which of a leaf's gaps counts, where there are two that could."""

from __future__ import annotations

from oakmeasure.core.figures.figure import Figure, Figures


def gap_that_opens(f: Figures) -> Figure:
    """Return the gap at the edge that swings out: of a pair where the two meet, else at the latch.

    Args:
        f: The leaf's figures.
    """
    return f.get("gap_meeting") or f["gap_latch"]


def gap_let_in_for(f: Figures) -> Figure:
    """Return the gap that hinges are let in for: the one that was wanted, where a leaf is planed to what they made.

    Args:
        f: The leaf's figures.
    """
    return f.get("gap_wanted") or f["gap_hinge"]
