"""How a leaf of unlike layers bows when its veneers shrink or swell and its core does not.

Strips glued together, each with its thickness t, its stiffness E and the strain ε that it would take if it were free:
with A = ΣE·t, B = ΣE·(z₁² − z₀²)/2, D = ΣE·(z₁³ − z₀³)/3, N = ΣE·ε·t, M = ΣE·ε·(z₁² − z₀²)/2, the curvature is
(A·M − B·N)/(A·D − B²). Source: laminated plate theory; for two strips the same as Timoshenko 1925.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.timber.movement import ALONG_GRAIN

# Stiffness as a share of solid wood along its grain: common values, from memory.
VENEER_ALONG = 1.0
VENEER_ACROSS = 0.07
CORE_ALONG = 0.6
CORE_ACROSS = 0.4


@dataclass(frozen=True, slots=True)
class Lamina:
    """One layer of a laminated leaf."""

    thickness: float
    """Thickness, mm."""
    stiffness: float
    """Any unit, the same for all."""
    strain: float
    """Strain that it would take if it were free, mm per mm."""


def curvature(strips: Sequence[Lamina]) -> float:
    """Return the curvature, 1/mm, of strips glued face to face, the first one lowest.

    Hollow upwards where positive.

    Args:
        strips: The strips, the lowest first.

    Raises:
        InputError: Where a thickness is negative or the whole has no stiffness.

    >>> round(curvature([Lamina(1, 1, 0.0), Lamina(1, 1, -0.001)]) * 1e6)
    -750
    """
    z = a = b = d = n = m = 0.0
    for each in strips:
        if each.thickness < 0:
            raise InputError("thickness", each.thickness, "0 or more")
        top = z + each.thickness
        square, cube = (top**2 - z**2) / 2, (top**3 - z**3) / 3
        a, b, d = a + each.stiffness * each.thickness, b + each.stiffness * square, d + each.stiffness * cube
        n, m = n + each.stiffness * each.strain * each.thickness, m + each.stiffness * each.strain * square
        z = top
    if a * d - b * b <= 0:
        raise InputError("strips", len(strips), "some thickness and stiffness")
    return (a * m - b * n) / (a * d - b * b)


def leaf_bow(
    *, size: tuple[float, float], core: float, veneers: tuple[float, float], points: float, coefficient: float
) -> float:
    """Return the bow, mm, of a veneered leaf: the larger of that across its width and that up its height.

    0 where both faces are alike. Not rounded.

    Args:
        size: Width and height of the leaf, mm.
        core: Thickness of the core, mm.
        veneers: Thickness of the front and of the back veneer, mm, their grain upright.
        points: Change of moisture, points of %.
        coefficient: Movement of the veneers across the grain for each point of moisture.

    >>> leaf_bow(size=(800, 2000), core=35, veneers=(2.5, 2.5), points=4, coefficient=0.003)
    0.0
    """
    (width, height), (front, back) = size, veneers
    if abs(front - back) < 1e-9 or core <= 0:
        return 0.0

    def bow(length: float, in_veneer: float, in_core: float, strain: float) -> float:
        layers = [Lamina(back, in_veneer, strain), Lamina(core, in_core, 0.0), Lamina(front, in_veneer, strain)]
        return abs(curvature(layers)) * length**2 / 8

    return max(
        bow(width, VENEER_ACROSS, CORE_ACROSS, coefficient * points),
        bow(height, VENEER_ALONG, CORE_ALONG, ALONG_GRAIN * points),
    )
