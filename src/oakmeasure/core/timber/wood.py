"""Weight, moisture and movement of solid wood.

Source of all formulas: Wood Handbook, FPL-GTR-282, chapters 4 (density, sorption) and 13 (movement).
"""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError

FIBRE_SATURATION_PERCENT = 30.0
READY_WITHIN = 2.0  # points of where it will rest, and wood may be worked: common practice, no source


def density(*, basic_gravity: float, moisture: float) -> float:
    """Return the density in kg/m³ of wood at a moisture content.

    Not rounded. Source: ch. 4, G_M = G/(1 − 0.265·G·(30 − M)/30), ρ = 1000·G_M·(1 + M/100).

    Args:
        basic_gravity: Oven-dry mass over green volume, 0.1 to 1.3.
        moisture: % of the dry mass, 0 to 30.

    Raises:
        InputError: Outside.

    >>> round(density(basic_gravity=0.57, moisture=12))
    702
    """
    if not 0.1 <= basic_gravity <= 1.3:
        raise InputError("basic_gravity", basic_gravity, "0.1 to 1.3")
    if not 0 <= moisture <= FIBRE_SATURATION_PERCENT:
        raise InputError("moisture", moisture, "0 to 30 %")
    dry_share = (FIBRE_SATURATION_PERCENT - moisture) / FIBRE_SATURATION_PERCENT
    gravity = basic_gravity / (1 - 0.265 * basic_gravity * dry_share)
    return 1000 * gravity * (1 + moisture / 100)


def dry_gravity(*, basic_gravity: float) -> float:
    """Return the specific gravity of oven-dry mass over volume at 12 %, as screw formulas want it.

    Source: ch. 4, as `density`.

    Args:
        basic_gravity: Oven-dry mass over green volume.

    >>> round(dry_gravity(basic_gravity=0.57), 3)
    0.627
    """
    return density(basic_gravity=basic_gravity, moisture=12.0) / 1000 / 1.12


def equilibrium_moisture(*, temperature: float, humidity: float) -> float:
    """Return the moisture content, %, at which wood rests in air.

    Not rounded. Sensitivity: near 65 % one point of humidity is about 0.2 points of moisture. Source: ch. 4,
    the two-hydrate sorption isotherm with W, K, K1, K2 as polynomials of °F.

    Args:
        temperature: Of the air, °C, −20 to 60.
        humidity: Relative humidity, %, 0 to 98.

    Raises:
        InputError: Outside.

    >>> round(equilibrium_moisture(temperature=21.1, humidity=50), 1)
    9.2
    """
    if not -20 <= temperature <= 60:
        raise InputError("temperature", temperature, "−20 to 60 °C")
    if not 0 <= humidity <= 98:
        raise InputError("humidity", humidity, "0 to 98 %")
    t = temperature * 1.8 + 32
    w = 330 + 0.452 * t + 0.00415 * t * t
    k = 0.791 + 0.000463 * t - 0.000000844 * t * t
    k1 = 6.34 + 0.000775 * t - 0.0000935 * t * t
    k2 = 1.09 + 0.0284 * t - 0.0000904 * t * t
    kh = k * humidity / 100
    hydrated = (k1 * kh + 2 * k1 * k2 * kh * kh) / (1 + k1 * kh + k1 * k2 * kh * kh)
    return 1800 / w * (kh / (1 - kh) + hydrated)


def change_of_width(*, width: float, coefficient: float, from_moisture: float, to_moisture: float) -> float:
    """Return the signed change, in mm, of a width (growing is positive).

    Moistures in %; the coefficient holds from 6 to 14 % and is somewhat high beyond. Not rounded. Source: ch.
    13, ΔD = D·C·(M₂ − M₁).

    Args:
        width: Across the grain at from_moisture, mm.
        coefficient: Change of width for each point of moisture.
        from_moisture: Moisture at which the width is read, %.
        to_moisture: Moisture to which it goes, %.

    >>> round(change_of_width(width=190, coefficient=0.00369, from_moisture=6, to_moisture=14), 2)
    5.61
    """
    return width * coefficient * (to_moisture - from_moisture)
