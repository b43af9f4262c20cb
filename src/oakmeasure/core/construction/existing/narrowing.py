"""Making a panelled leaf narrower: how much comes off the stiles, how much off each panel, and what that costs.

2·(off a stile) + the sum off a row's panels = what the leaf is too wide, for every row; panels lose whole steps of the
rule that joints are set out by, the same from both sides inwards and at most one step apart, so that the sight lines
stay alike; a stile loses no more than leaves its tenon whole. Solved as a mixed-integer programme (HiGHS).
Source: common practice of the trade.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.linear_programme import Programme
from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.existing.model import Existing, ReduceBy

# Where data/ways_out.toml says what each takes.
REDUCE_KEYS = {ReduceBy.SHARED: "reduce_shared", ReduceBy.STILES: "reduce_stiles", ReduceBy.PANELS: "reduce_panels"}
TENON_COVER = 8.0  # wood that stays outside a blind tenon: common practice, no source
STILE_LEAST = 50.0  # of a stile whose tenons go through: common practice, no source
PANEL_LEAST = 40.0  # of a panel's sight: common practice, no source
_SLACK = 0.5  # of a step, that the stiles may take when panels alone cannot share a reduction alike


@dataclass(frozen=True, slots=True)
class Reduction:
    """How a leaf is made narrower, mm."""

    by: ReduceBy
    """Where it comes off."""
    stile_off: float
    """Taken off each stile, mm."""
    panels: tuple[tuple[float, ...], ...]
    """Off each panel, row by row."""
    tenon_cover: float
    """Wood left outside a blind one; mm."""

    @property
    def key(self) -> str:
        """Return the way's row in data/ways_out.toml; where no panel is cut the frame stays together."""
        return REDUCE_KEYS[self.by if self.is_apart else ReduceBy.STILES]

    @property
    def is_apart(self) -> bool:
        """Whether the frame must come apart: panels and rails are cut."""
        return any(any(row) for row in self.panels)


def rows_of(choice: Existing) -> tuple[int, ...]:
    """Return how many panels stand side by side in each row, from the foot up.

    Args:
        choice: What is known of the old leaf, and chosen for it.
    """
    if choice.middle_rail is None:
        return (choice.panels,)
    return choice.panels, choice.panels_above or choice.panels


def sights_of(choice: Existing) -> tuple[float, ...]:
    """Return how wide a panel shows in each row of the leaf as it is, mm.

    Args:
        choice: What is known of the old leaf, and chosen for it.
    """
    between = choice.width - 2 * choice.stile
    return tuple((between - (n - 1) * choice.muntin) / n for n in rows_of(choice))


def stile_may_lose(*, stile: float, tenon: float, through: bool) -> float:
    """Return what a stile may lose off its outer edge, mm, its tenons whole.

    Args:
        stile: Width of a stile, mm.
        tenon: How far a tenon goes into the stile, mm.
        through: Whether tenons go through the stile.

    >>> stile_may_lose(stile=95, tenon=67, through=False)
    20.0
    """
    return max(0.0, stile - STILE_LEAST if through else stile - tenon - TENON_COVER)


@lru_cache(maxsize=256)
def reduce(
    *, total: float, rows: tuple[int, ...], sights: tuple[float, ...], may: float, by: ReduceBy, step: float = 1.0
) -> tuple[float, tuple[tuple[float, ...], ...]] | None:
    """Return (off each stile, off each panel of each row), mm; None where it cannot be done so.

    Args:
        total: What the leaf is too wide, mm.
        rows: How many panels stand side by side in each row.
        sights: Width that one panel shows in each row, mm.
        may: What a stile may lose, mm.
        by: Where it comes off: stiles, panels or both.
        step: Panels lose whole ones of it, mm.

    Raises:
        InputError: For a total that is negative or rows without panels.
    """
    if total < 0 or any(count < 1 for count in rows) or len(rows) != len(sights):
        raise InputError("total", total, "0 or more, and one panel at least in every row")
    most = {ReduceBy.SHARED: may, ReduceBy.STILES: may, ReduceBy.PANELS: min(_SLACK * step, may)}[by]
    count = 1 + sum(rows)
    upper = [most] + [
        0.0 if by is ReduceBy.STILES else max(0.0, (sight - PANEL_LEAST) // step)
        for n, sight in zip(rows, sights, strict=True)
        for _ in range(n)
    ]
    rules: list[tuple[dict[int, float], float, float]] = []
    first = 1
    for n in rows:
        mine = range(first, first + n)
        rules.append(({0: 2.0, **dict.fromkeys(mine, step)}, total, total))
        rules += [({first + at: 1.0, first + n - 1 - at: -1.0}, 0.0, 0.0) for at in range(n // 2)]
        rules += [({one: 1.0, other: -1.0}, -1.0, 1.0) for one, other in itertools.permutations(mine, 2)]
        first += n
    # As much as may be off the stiles, or as little; of panels that differ, the outer ones lose more.
    weights = [-1000.0 if by is ReduceBy.SHARED else 1000.0]
    for n in rows:
        weights += [1e-3 * min(at, n - 1 - at) for at in range(n)]
    programme = Programme([low for _, low, _ in rules], [high for _, _, high in rules])
    for column, (weight, top) in enumerate(zip(weights, upper, strict=True)):
        programme.add(weight, {at: terms[column] for at, (terms, _, _) in enumerate(rules) if column in terms}, top)
    found = programme.solve_mixed(range(1, count))
    if found is None:
        return None
    values = [step * round(each) for each in found[1:]]
    panels, at = [], 0
    for n in rows:
        panels.append(tuple(values[at : at + n]))
        at += n
    return (total - sum(panels[0])) / 2, tuple(panels)


def to_tenths(total: float) -> float:
    """Return a reduction as it is shared out: to the tenth of a millimetre.

    Args:
        total: What the leaf is too wide, mm.

    >>> to_tenths(66.02)
    66.0
    """
    return round(total, 1)


def ways_of(choice: Existing, total: float, step: float) -> dict[ReduceBy, Reduction]:
    """Return every way to make a panelled leaf narrower by `total`, mm.

    Args:
        choice: What is known of the old leaf, and chosen for it.
        total: What the leaf is too wide, mm.
        step: Joints are set out in whole ones of it, mm.
    """
    may = stile_may_lose(stile=choice.stile, tenon=choice.tenon, through=choice.through)
    rows, sights = tuple(rows_of(choice)), tuple(sights_of(choice))
    found: dict[ReduceBy, Reduction] = {}
    for by in ReduceBy:
        solved = reduce(total=to_tenths(total), rows=rows, sights=sights, may=may, by=by, step=step)
        if solved is not None:
            off, panels = solved
            off += (total - to_tenths(total)) / 2  # the plane takes what the rule cannot read
            found[by] = Reduction(by, off, panels, choice.stile - off - choice.tenon)
    return found


def panel_words(panels: Iterable[Sequence[float]], show: Show) -> str:
    """Return what comes off each panel, from the hinge side, a row after the other: "9 · 8 · 9 / 26".

    Args:
        panels: What comes off each panel, row by row, mm.
        show: How lengths and other quantities are written.
    """
    return " / ".join(" · ".join(show.length(each, sign=False) for each in row) for row in dict.fromkeys(panels))


def distinct(found: dict[ReduceBy, Reduction], taken: ReduceBy) -> list[Reduction]:
    """Return the ways that differ in what they cut; of two alike the one that is taken.

    Args:
        found: The ways, by what is narrowed.
        taken: The way that is chosen.
    """
    kept: dict[tuple[float, tuple[tuple[float, ...], ...]], Reduction] = {}
    for each in sorted(found.values(), key=lambda each: each.by is not taken):
        kept.setdefault((round(each.stile_off, 3), each.panels), each)
    return list(kept.values())
