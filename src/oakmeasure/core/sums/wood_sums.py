"""Quick sums of wood: movement, moisture, weight."""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import MM3_PER_M3, Unit
from oakmeasure.core.document.species import SheetMaterial, keys_by_name, sheet_keys, species, species_keys, stuff
from oakmeasure.core.figures.figure import FIXED, Figure, fixed
from oakmeasure.core.sums.quick import Given, Sum, SumOption, size
from oakmeasure.core.timber.wood import change_of_width, density, equilibrium_moisture

WOODS = species_keys()
STUFF = (*WOODS, *sheet_keys())
NAMES = keys_by_name()
PUBLISHED = "Wood Handbook, FPL-GTR-282"


def _movement(g: Given) -> None:
    wood, radial = species(g.word("species")), g.word("cut") == "radial"
    width, first, last = (g.figure(name) for name in ("width", "from-mc", "to-mc"))
    each = g.figures.given(
        "coefficient",
        f"{wood.name}, {g.word('cut')}, a point of moisture",
        wood.radial if radial else wood.tangential,
        fixed(source=wood.source),
        unit=Unit.RATIO,
    )
    change = change_of_width(
        width=width.value, coefficient=each.value, from_moisture=first.value, to_moisture=last.value
    )
    g.figures.derived(
        "change",
        "change of width; less than 0: it shrinks",
        change,
        width,
        each,
        first,
        last,
        formula="width × coefficient × (to − from); holds from 6 to 14 %",
        source=f"{PUBLISHED}, ch. 13",
    )


def _emc(g: Given) -> None:
    air, humidity = g.figure("temperature"), g.figure("humidity")
    rests = equilibrium_moisture(temperature=air.value, humidity=humidity.value)
    g.figures.derived(
        "moisture",
        "wood comes to rest at",
        rests,
        air,
        humidity,
        formula="sorption isotherm of two hydrates",
        source=f"{PUBLISHED}, ch. 4",
        unit=Unit.PERCENT,
    )


def _density(g: Given) -> Figure:
    if "density" in g:
        return g.figure("density")
    if "species" not in g:
        raise InputError("species", "nothing", "a species or a sheet, or --density")
    wood = stuff(g.word("species"))
    if isinstance(wood, SheetMaterial):
        return g.figures.given("density", wood.name, wood.density, FIXED, unit=Unit.KG_M3)
    moisture = g.figure("moisture")
    basic = g.figures.given("gravity", f"{wood.name}, basic gravity", wood.basic_gravity, FIXED, unit=Unit.RATIO)
    return g.figures.derived(
        "density",
        "density",
        density(basic_gravity=wood.basic_gravity, moisture=moisture.value),
        basic,
        moisture,
        formula="1000 × G / (1 − 0.265 × G × (30 − M) / 30) × (1 + M / 100)",
        source=f"{PUBLISHED}, ch. 4",
        unit=Unit.KG_M3,
    )


def _weight(g: Given) -> None:
    dense = _density(g)
    sides = [g.figure(name) for name in ("length", "width", "thickness")]
    mass = dense.value * sides[0].value * sides[1].value * sides[2].value / MM3_PER_M3
    g.figures.derived(
        "mass", "mass", mass, dense, *sides, formula="density × length × width × thickness / 10⁹", unit=Unit.KG
    )


SUMS = (
    Sum(
        "movement",
        "How wood moves",
        "What a width does when its moisture changes.",
        "shrink swell season expansion moisture panel",
        (
            SumOption("species", "species", None, choices=WOODS, also=NAMES),
            size("width", "width"),
            SumOption("cut", "growth rings", None, "tangential", choices=("tangential", "radial")),
            SumOption("from-mc", "moisture now", Unit.PERCENT, high=30),
            SumOption("to-mc", "moisture then", Unit.PERCENT, high=30),
        ),
        ("change",),
        _movement,
        sends={"species": "timber.species"},
    ),
    Sum(
        "emc",
        "Where wood comes to rest",
        "The moisture that wood takes on in air.",
        "equilibrium moisture humidity temperature climate",
        (
            SumOption("temperature", "air, temperature", Unit.CELSIUS, 20.0, low=-20, high=60),
            SumOption("humidity", "air, relative humidity", Unit.PERCENT, high=98),
        ),
        ("moisture",),
        _emc,
    ),
    Sum(
        "weight",
        "What it weighs",
        "Mass of a board, a sheet or a leaf.",
        "mass heavy density kg lb",
        (
            SumOption("species", "species or sheet", None, needed=False, choices=STUFF, also=NAMES),
            SumOption("density", "or density", Unit.KG_M3, needed=False, low=50, high=12000),
            size("length", "length"),
            size("width", "width"),
            size("thickness", "thickness"),
            SumOption("moisture", "moisture", Unit.PERCENT, 12.0, high=30),
        ),
        ("mass",),
        _weight,
        sends={"species": "timber.species"},
    ),
)
