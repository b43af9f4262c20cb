"""What is known of each species: specific gravity, movement, tint on the drawing."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cache

from oakmeasure.core.base.errors import InputError
from oakmeasure.data import table


class Sawing(StrEnum):
    """How the face lies to the growth rings; decides how much the width moves."""

    FLAT = "flat-sawn"
    QUARTER = "quarter-sawn"


@dataclass(frozen=True, slots=True)
class Species:
    """A species of wood."""

    key: str
    """Its key in the table."""
    name: str
    """Its name, as it is shown."""
    basic_gravity: float
    """Oven-dry mass over green volume."""
    radial: float
    """Change of a dimension on the quarter for each point of moisture, 6 to 14 %."""
    tangential: float
    """Change of a dimension on the flat for each point of moisture, 6 to 14 %."""
    tint: str
    """Colour in drawings, as #rrggbb."""
    source: str
    """Where the values are from."""

    def movement(self, cut: Sawing) -> float:
        """Return the change of width per point of moisture for a board of that cut.

        Args:
            cut: How the board is sawn: flat, quarter or between.
        """
        return self.tangential if cut is Sawing.FLAT else self.radial


def coefficient_from_shrinkage(*, total_shrinkage: float) -> float:
    """Return the dimensional change coefficient per point of moisture from total shrinkage.

    Not rounded. Source: Wood Handbook, FPL-GTR-282, ch. 13, C = 1/(3000/S − 20) (30 % fibre saturation, base at
    10 %).

    Args:
        total_shrinkage: Green to oven dry, %, 0 < S < 60.

    Raises:
        InputError: Outside.

    >>> round(coefficient_from_shrinkage(total_shrinkage=7.8), 5)
    0.00274
    """
    if not 0 < total_shrinkage < 60:
        raise InputError("total_shrinkage", total_shrinkage, "more than 0 and less than 60 %")
    return 1 / (3000 / total_shrinkage - 20)


@dataclass(frozen=True, slots=True)
class SheetMaterial:
    """What is no solid timber: sheets, glass, metal.

    moist is "" for what nothing can be laid on.
    """

    key: str
    """Its key in the table."""
    name: str
    """Its name, as it is shown."""
    density: float
    """Density, kg/m³."""
    tint: str
    """Colour in drawings, as #rrggbb."""
    movement: float
    """Change of its length and its width for each point of moisture."""
    moist: str = ""
    """The wettest place that a sheet bears."""
    price_m2: float = 0.0
    """Of 12 thick, in the job's money."""


CORES = tuple(key for key, row in table("sheets").items() if "moist" in row)
# As sold, mm
SHEET_LENGTH = 2440.0
SHEET_WIDTH = 1220.0


@cache
def stuff(key: str) -> Species | SheetMaterial:
    """Return a species or a sheet by its key; InputError when neither table has it.

    Args:
        key: Its key in the table.
    """
    row = table("sheets").get(key)
    if row is None:
        return species(key)
    return SheetMaterial(
        key,
        row["name"],
        float(row["density"]),
        row["tint"],
        float(row["movement"]),
        row.get("moist", ""),
        row.get("price_m2", 0.0),
    )


def species_keys() -> tuple[str, ...]:
    """Return the keys of all species in the table."""
    return tuple(table("species"))


def plain_name(text: str) -> str:
    """Return a name as a key is written.

    Args:
        text: The text.

    >>> plain_name("Red oak"), plain_name("red-oak")
    ('red_oak', 'red_oak')
    """
    return text.strip().lower().replace("-", "_").replace(" ", "_")


@cache
def keys_by_name() -> dict[str, str]:
    """Return the key of every species and sheet by its plain key and by its plain name."""
    keys = (*species_keys(), *sheet_keys())
    return {key: key for key in keys} | {plain_name(stuff(key).name): key for key in keys}


def sheet_keys() -> tuple[str, ...]:
    """Return the keys of what is no solid timber: sheets, glass, metal."""
    return tuple(table("sheets"))


@cache
def species(key: str) -> Species:
    """Return the species `key`; InputError when the table has none of that name.

    Args:
        key: Its key in the table.
    """
    row = table("species").get(key)
    if row is None:
        raise InputError("species", key, "one of " + ", ".join(species_keys()))

    def coefficient(direction: str) -> float:
        if direction in row:
            return float(row[direction])
        return coefficient_from_shrinkage(total_shrinkage=row[f"shrink_{direction}"])

    return Species(
        key, row["name"], row["basic"], coefficient("radial"), coefficient("tangential"), row["tint"], row["source"]
    )
