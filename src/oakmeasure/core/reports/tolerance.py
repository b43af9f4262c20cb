"""Will it go in: openings drawn as the readings allow, leaves as they are cut and hung, and the gaps that come of it.

The leaf is hung plumb, the gap at its hinges and at its head set where they are tightest; what the readings, the
plane and the hinges miss ends at the latch and at the floor. NumPy is imported when something is drawn.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from oakmeasure.core.base.uncertainty import DRAWS, SEED, draw_normal, of_hundred
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hanging
from oakmeasure.core.figures.figure import Figures
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_probability import LEAST_GAP, least_at_latch
from oakmeasure.core.solution import LeafSolution


@dataclass(frozen=True, slots=True)
class Range:
    """One gap, or overlap, over all draws, mm."""

    label: str
    """What it is called on the screen."""
    asked: float
    """What was asked for, mm."""
    low: float
    """5 % of the draws lie below, mm."""
    high: float
    """95 % of the draws lie below, mm."""
    least: float
    """Under this, wood comes off, mm."""
    figure: str
    """Name of the figure; "" for none."""


@dataclass(frozen=True, slots=True)
class Tolerance:
    """How sure it is that the leaf goes in without planing."""

    ranges: tuple[Range, ...]
    """What each size came to."""
    share: float
    """Share of the draws in which the leaf goes in, or covers, without planing, 0 to 1."""
    worst: str
    """The edge that fails most."""
    draws: int
    """How many openings were drawn."""
    seed: int
    """Of the random numbers; the same one gives the same draws."""
    sentence: str
    """What it means."""
    detail: str
    """How it was reckoned."""


Drawn = dict[str, Any]  # x or y of each corner by its name, an array over the draws


def tolerance(leaf: LeafSolution, show: Show, *, draws: int = DRAWS, seed: int = SEED) -> Tolerance | None:
    """Return how often the leaf goes in without planing and where each gap then lies; None for an odd outline.

    Source: JCGM 101:2008 (propagation of distributions), from memory; what is drawn is said in the detail.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        draws: How many, at least 100.
        seed: Of the random numbers; the same one gives the same draws.
    """
    if not leaf.fit.possible or not leaf.opening.taken.outline.is_upright or len(leaf.opening.taken.corners) < 4:
        return None
    import numpy as np

    f, source = leaf.figures, np.random.default_rng(seed)
    cut, hang = leaf.sigma_cut, leaf.sigma_hang
    corners = _corners(leaf, source, draws, cut)
    noise = _Noise(*(source.normal(0.0, sigma, draws) for sigma in (cut, cut, cut, hang)))
    edges = (_lies_before if leaf.leaf.hanging.covers or leaf.leaf.hanging.lies_on else _stands_in)(
        leaf, corners, noise
    )
    ranges, failed = [], {}
    holds = np.ones(draws, dtype=bool)
    for name, (label, values, least) in edges.items():
        low, high = (float(each) for each in np.percentile(values, (5, 95)))
        asked = f[figure_name(name)].value if figure_name(name) in f else float(values.mean())
        ranges.append(Range(label, asked, low, high, least, name if figure_name(name) in f else ""))
        fails = values < least
        failed[label] = float(fails.mean())
        holds &= ~fails
    share = float(holds.mean())
    worst = max(failed, key=failed.__getitem__)
    count = f"{draws:_}".replace("_", "\u202f")
    return Tolerance(
        tuple(ranges),
        share,
        worst if failed[worst] > 0.005 else "",
        draws,
        seed,
        _sentence(leaf, share, worst, failed[worst]),
        f"Over {count} openings and leaves, seed {seed}: the readings as sure as they are, a planed size ± "
        f"{show.length(cut)}, the hinges ± {show.length(hang)}. Bars: 5 to 95 %.",
    )


@dataclass(frozen=True, slots=True)
class _Noise:
    """What plane and hinges miss, one value a draw, mm."""

    width: Any
    height: Any
    other_width: Any
    hang: Any


def _corners(leaf: LeafSolution, source: Any, draws: int, cut: float) -> Drawn:
    """Return the corners of the drawn openings; of a lining that is still to be made, as well as it will be made."""
    taken, opening = leaf.opening.taken, leaf.opening
    names = ("hf", "lf", "lh", "hh")
    nominal = dict(
        zip(names, (opening.hinge_foot, opening.latch_foot, opening.latch_head, opening.hinge_head), strict=True)
    )
    drawn: Drawn = {}
    if opening.lining is not None:
        for name, (x, y) in nominal.items():
            drawn[f"{name}x"], drawn[f"{name}y"] = x + source.normal(0, cut, draws), y + source.normal(0, cut, draws)
        return drawn
    free = draw_normal(source, taken.covariance, draws)  # of all corners but the first, x before y
    last = len(taken.corners) - 2
    for name, at in (("lf", 0), ("lh", 1), ("hh", last)):
        x, y = nominal[name]
        drawn[f"{name}x"], drawn[f"{name}y"] = x + free[2 * at], y + free[2 * at + 1]
    drawn["hfx"], drawn["hfy"] = nominal["hf"]
    return drawn


Edges = dict[str, tuple[str, Any, float]]


def _stands_in(leaf: LeafSolution, at: Drawn, noise: _Noise) -> Edges:
    """Return each end of each gap of a leaf that stands in its opening, or of a pair."""
    import numpy as np

    f, fit = leaf.figures, leaf.fit
    tapers = _tapers(f)
    width = fit.width.value + noise.width
    hinge_gap = f["gap_hinge"].value + noise.hang
    foot, head = at["hfx"] - tapers("hinge_edge_foot"), at["hhx"] - tapers("hinge_edge_head")
    x0 = np.maximum(foot, head) + hinge_gap
    gaps: Edges = {
        "gap_hinge_foot": ("hinges, foot", x0 - foot, 0.0),
        "gap_hinge_head": ("hinges, head", x0 - head, 0.0),
    }
    least = least_at_latch(f)
    if leaf.leaf.hanging is Hanging.PAIR:
        clear = np.minimum(at["lfx"], at["lhx"]) - np.maximum(at["hfx"], at["hhx"])
        both = width + fit.width.value + noise.other_width - leaf.leaf.pair.rebate
        gaps["gap_meeting"] = ("where they meet", clear - 2 * hinge_gap - both, least)
        x1 = at["lfx"] - f["gap_hinge"].value
    else:
        x1 = x0 + width
        gaps["gap_latch_foot"] = ("latch, foot", at["lfx"] + tapers("latch_edge_foot") - x1, least)
        gaps["gap_latch_head"] = ("latch, head", at["lhx"] + tapers("latch_edge_head") - x1, least)
    tops = at["hhy"] + tapers("top_hinges"), at["lhy"] + tapers("top_latch")
    feet = at["hfy"] - tapers("foot_hinges"), at["lfy"] - tapers("foot_latch")
    y1 = np.minimum(*tops) - f["gap_head"].value
    y0 = y1 - fit.height.value - noise.height
    gaps["gap_head_hinges"] = ("head, at the hinges", tops[0] - y1, 0.0)
    gaps["gap_head_latch"] = ("head, at the latch", tops[1] - y1, 0.0)
    low = min(LEAST_GAP, f["gap_floor"].value)
    gaps["gap_floor_hinges"] = ("floor, at the hinges", y0 - feet[0], low)
    gaps["gap_floor_latch"] = ("floor, at the latch", y0 - feet[1], low)
    return gaps


def _tapers(f: Figures) -> Callable[[str], float]:
    """Return what is scribed off each end of an edge, mm; 0 for a square leaf."""

    def off(name: str) -> float:
        figure = f.get(figure_name(f"scribe_{name}"))
        return figure.value if figure is not None else 0.0

    return off


def _lies_before(leaf: LeafSolution, at: Drawn, noise: _Noise) -> Edges:
    """Return the overlaps of a leaf that lies on its opening or stands before it, and its gap over the floor."""
    import numpy as np

    fit, opening = leaf.fit, leaf.opening
    x0 = fit.x_hinge_edge + noise.hang
    whole = leaf.leaf.hanging.bypasses
    width = fit.width.value + noise.width
    end = x0 + width + (fit.width.value + noise.other_width + fit.apart if whole else 0.0)
    edges: Edges = {
        "overlap_hinge": ("overlap, hinge side", np.minimum(at["hfx"], at["hhx"]) - x0, 0.0),
        "overlap_latch": ("overlap, latch side", end - np.maximum(at["lfx"], at["lhx"]), 0.0),
    }
    if whole:
        edges["centre"] = ("overlap in the middle", -(fit.apart - noise.width - noise.other_width), 0.0)
    foot = fit.y_foot
    top = foot + fit.height.value + noise.height
    over = top - np.maximum(at["hhy"], at["lhy"])
    asked = fit.y_foot + fit.height.value - opening.head_low.value
    edges["overlap_head"] = ("overlap, head", over, 0.0 if asked > 0 else float(asked) - 1e3)
    if leaf.leaf.hanging.lies_on:
        edges["overlay"] = ("overlap, foot", np.minimum(at["hfy"], at["lfy"]) - foot + noise.hang, 0.0)
    else:
        edges["gap_floor"] = ("floor", foot - np.maximum(at["hfy"], at["lfy"]) + noise.hang, LEAST_GAP)
    return edges


def _sentence(leaf: LeafSolution, share: float, worst: str, failed: float) -> str:
    what = "covers its opening" if leaf.leaf.hanging.covers or leaf.leaf.hanging.lies_on else "goes in without planing"
    words = f"In {of_hundred(share)} it {what}."
    return words if failed <= 0.005 else f"{words} First to fail: {worst}."
