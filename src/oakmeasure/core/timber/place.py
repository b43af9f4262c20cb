"""Where a leaf lives: what of core, glue, finish and fixings bears it, and how joints that look up are sloped.

Sources: durability classes of wood glue by EN 204, from memory; the rest common practice, no source (data/places.toml).
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.job import Exposure, TimberChoices
from oakmeasure.core.document.species import CORES, SheetMaterial, stuff
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import fixed
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Part
from oakmeasure.core.timber.wood import equilibrium_moisture
from oakmeasure.data import table

WETTER = tuple(str(each) for each in Exposure)  # from the driest to the wettest
TANNIC = ("oak", "chestnut", "cedar")  # blacken with plain or plated steel: common knowledge


def asks(place: Exposure) -> dict[str, Any]:
    """Return what a place asks for: its air, glues, finishes and fixings, the first of each taken unless chosen.

    Args:
        place: Where the leaf lives.
    """
    return table("places")[str(place)]


def at_rest(choice: TimberChoices) -> tuple[float, float]:
    """Return the moisture, %, at which wood rests in the driest and in the wettest air that a leaf will meet.

    Args:
        choice: What is chosen for the timber and its air.
    """
    low, high = (
        equilibrium_moisture(temperature=air.temperature, humidity=air.humidity) for air in (choice.dry, choice.wet)
    )
    return low, high


def rests_at(choice: TimberChoices) -> float:
    """Return the moisture, %, halfway between the two: what boards are dried to.

    Args:
        choice: What is chosen for the timber and its air.
    """
    return sum(at_rest(choice)) / 2


def glue_of(choice: TimberChoices) -> str:
    """Return the durability class of the glue, EN 204: the chosen one, or what the place asks for.

    Args:
        choice: What is chosen for the timber and its air.
    """
    return choice.glue or str(asks(choice.place)["glue"][0])


def finish_of(choice: TimberChoices) -> str:
    """Return the finish: the chosen one, or what the place asks for.

    Args:
        choice: What is chosen for the timber and its air.
    """
    return choice.finish or str(asks(choice.place)["finish"][0])


def fixings_of(choice: TimberChoices) -> str:
    """Return what screws and nails are made of: the chosen metal, or what the place asks for.

    Args:
        choice: What is chosen for the timber and its air.
    """
    return choice.fixings or str(asks(choice.place)["fixings"][0])


def sheets_for(place: Exposure) -> tuple[str, ...]:
    """Return the sheets that bear a place, the lightest first.

    Args:
        place: Where the leaf lives.
    """
    found = [stuff(key) for key in CORES]
    fit = [
        each
        for each in found
        if isinstance(each, SheetMaterial) and WETTER.index(each.moist) >= WETTER.index(str(place))
    ]
    return tuple(each.key for each in sorted(fit, key=lambda each: each.density))


def judge_place(ctx: Context, parts: Sequence[Part]) -> None:
    """Judge core, glue, finish and fixings against where the leaf lives, and say how joints are sloped there.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        parts: The parts.
    """
    choice = ctx.leaf.timber
    needs, words = asks(choice.place), str(choice.place)
    found = len(ctx.checks_so_far.items)
    _sheets(ctx, parts, words)
    for field, value in (("glue", glue_of(choice)), ("finish", finish_of(choice)), ("fixings", fixings_of(choice))):
        if value not in needs[field]:
            best = needs[field][0]
            ctx.warn(
                f"place-{field}",
                f"The {field} will not bear a {words}"
                if choice.place is not Exposure.OUTSIDE
                else f"The {field} will not bear it outside",
                f"{value.capitalize()}; {words} asks for {' or '.join(needs[field])}.",
                Remedy(best.capitalize() if field != "glue" else best, f"timber.{field}", best),
                grounds=Grounds(
                    "moisture_wet", rule="glue by EN 204, from memory" if field == "glue" else "common practice"
                ),
            )
    _tannin(ctx)
    slope = float(needs["slope_deg"])
    if slope:
        ctx.figures.given(
            "place_slope",
            "slope of what looks up, so that water runs off",
            slope,
            fixed(source="common practice"),
            unit=Unit.DEG,
        )
    if len(ctx.checks_so_far.items) == found:
        says = f"Glue {glue_of(choice)}, {finish_of(choice)}, fixings of {fixings_of(choice)}."
        if slope:
            says += (
                f" Upper edges of rails and ledges slope {slope:g}° outwards; joints are laid so that water runs off."
            )
        ctx.fine(
            "place",
            f"It will bear where it lives: {words}",
            says,
            grounds=Grounds("place_slope" if slope else "moisture_wet"),
        )


def _sheets(ctx: Context, parts: Sequence[Part], words: str) -> None:
    """Say which sheet does not bear the place, and which would."""
    place = ctx.leaf.timber.place
    for key in dict.fromkeys(part.species for part in parts if not part.at_hand):
        made_of = stuff(key)
        if not isinstance(made_of, SheetMaterial) or not made_of.moist:
            continue
        if WETTER.index(made_of.moist) >= WETTER.index(str(place)):
            continue
        fit = sheets_for(place)
        build = ctx.leaf.build
        field = next((name for name in ("sheet", "core") if getattr(build, name, None) == key), "")
        better = stuff(fit[0])
        ctx.report(
            "place-core",
            Level.STOP if place is Exposure.OUTSIDE else Level.WARNING,
            "The sheet will not bear where it lives",
            f"{made_of.name} is for a {made_of.moist}; the leaf lives in a {words}."
            if place is not Exposure.OUTSIDE
            else f"{made_of.name} is for a {made_of.moist}; the leaf lives outside.",
            Remedy(better.name, f"build.{field}", fit[0]) if field else Remedy(better.name),
            grounds=Grounds(
                "moisture_wet",
                next(f"part:{part.name}" for part in parts if part.species == key),
                rule="swollen edges do not come back: common practice",
            ),
        )


def _tannin(ctx: Context) -> None:
    """Say where tannic wood would blacken plain or plated steel in the damp."""
    choice = ctx.leaf.timber
    metal = fixings_of(choice)
    if (
        choice.place is Exposure.DRY
        or not any(each in choice.wood for each in TANNIC)
        or metal in ("stainless steel", "brass")
    ):
        return
    ctx.warn(
        "place-tannin",
        "Its tannin will blacken the steel",
        f"{stuff(choice.wood).name} in the damp, fixings of {metal}.",
        Remedy("Stainless steel", "timber.fixings", "stainless steel"),
        grounds=Grounds("moisture_wet", rule="common knowledge"),
    )
