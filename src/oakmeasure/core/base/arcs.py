"""Radii of heads from their span and rise."""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError

ROUNDING = 1e-6  # mm: a half circle over a span that was added up elsewhere is one still


def segmental_radius(*, span: float, rise: float) -> float:
    """Return the radius of a segmental head, mm: s²/(8h) + h/2.

    Not rounded. Sensitivity: 1 mm more rise shortens the radius by about radius/rise − 1 mm. Source:
    intersecting chords, Euclid III.35.

    Args:
        span: Clear chord where the arch springs, mm.
        rise: Crown above that chord, mm; 0 < rise ≤ span/2.

    Raises:
        InputError: Naming the field outside.

    >>> round(segmental_radius(span=800, rise=120), 3)
    726.667
    """
    _span(span)
    if not 0 < rise <= span / 2 + ROUNDING:
        raise InputError("rise", rise, limits=(0.0, span / 2), unit="mm")
    return span**2 / (8 * rise) + rise / 2


def two_centred_radius(*, span: float, rise: float) -> float:
    """Return the radius of both arcs of a pointed head whose centres lie on the springing line, mm: h²/s + s/4.

    Source: each arc springs square to the line of the centres.

    Args:
        span: Clear chord where it springs, mm.
        rise: Point above that chord, mm; ≥ span/2 (equal is a half-round).

    Raises:
        InputError: Naming the field outside.

    >>> two_centred_radius(span=800, rise=800)
    1000.0
    """
    _span(span)
    if rise < span / 2:
        raise InputError("rise", rise, f"at least half the span, {span / 2:g} mm; less is a segmental head")
    return rise**2 / span + span / 4


def half_round_rise(*, span: float) -> float:
    """Return the rise of a half-round head, half its span, mm.

    Args:
        span: From springing to springing, mm.

    Raises:
        InputError: For a span that is none.
    """
    _span(span)
    return span / 2


def _span(span: float) -> None:
    if span <= 0:
        raise InputError("span", span, "more than 0")
