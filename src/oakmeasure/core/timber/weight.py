"""The weight of each part and of the leaf."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.build.shape import Build, Role
from oakmeasure.core.context import Context
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.units import Unit
from oakmeasure.core.verdicts import Level, Remedy, Stage
from oakmeasure.core.working import Figure, derived, given, plus, total

MM3_PER_M3 = 1e9
TWO_PEOPLE_KG = 25.0  # common practice of safe lifting, no source


@dataclass(frozen=True, slots=True)
class Weights:
    """mass: of the leaf, kg. parts: of each part by name."""

    mass: Figure
    parts: dict[str, Figure]


def weigh(ctx: Context, build: Build, wood: Timber) -> Weights:
    """Add the mass of every part (net of joints and grooves) and of the leaf, without its hardware."""
    parts: dict[str, Figure] = {}
    for part in build.parts:
        rho = wood.panel_density if part.role is Role.PANEL else wood.density
        volume = ctx.figures.add(
            given(
                f"volume_{part.slug}",
                f"{part.name}, cubic metres net of joints and grooves",
                part.volume / MM3_PER_M3,
                Unit.RATIO,
                choice=True,
            )
        )
        parts[part.name] = ctx.figures.add(
            derived(
                f"mass_{part.slug}",
                f"{part.name}, weight",
                volume.value * rho.value,
                Unit.KG,
                volume,
                rho,
                formula="volume × density",
            )
        )
    mass = ctx.figures.add(total("mass", "leaf, weight without hardware", *(plus(each) for each in parts.values())))
    if mass.value > TWO_PEOPLE_KG:
        ctx.say(
            "lift",
            Level.LOOK,
            Stage.TIMBER,
            "Two people, or a lift",
            f"The leaf weighs {ctx.fmt(mass)}.",
            Remedy("Do not hang it alone"),
            rule=f"over {ctx.show.value(TWO_PEOPLE_KG, Unit.KG)}",
            figure="mass",
        )
    return Weights(mass, parts)
