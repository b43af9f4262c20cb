"""The boring list as screen, bench sheet and stage sheet show it: one row a cut, what is drilled by its middle."""

from __future__ import annotations

from oakmeasure.core.base.units import Show
from oakmeasure.core.hardware.boring import Boring

COLUMNS = ("let in", "member", "measured", "from, or middle", "to, or ⌀", "across", "deep")


def boring_row(cut: Boring, show: Show) -> tuple[str, ...]:
    """Return a cut's row.

    Args:
        cut: What is cut.
        show: How lengths are written.

    Returns:
        Its name, what it is cut in, from where it is measured, and its sizes, as COLUMNS name them.
    """
    upper, lower = show.length(cut.from_top), show.length(cut.to)
    if cut.kind.is_round:
        upper, lower = show.length(cut.marked_at), f"⌀ {show.length(cut.along)}"
    return cut.name, cut.member, str(cut.datum), upper, lower, show.length(cut.across), show.length(cut.depth)
