"""The weight of each part and of the leaf."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.geometry import centroid
from oakmeasure.core.base.units import MM3_PER_M3, Unit
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import SheetMaterial, stuff
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import FIXED, Figure, fixed, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Part
from oakmeasure.core.timber.choice import Timber

TWO_PEOPLE_KG = 25.0  # common practice of safe lifting, no source


@dataclass(frozen=True, slots=True)
class Weights:
    """What a leaf weighs."""

    mass: Figure
    """Of the leaf, kg."""
    parts: dict[str, Figure]
    """Of each part by name."""


def weigh(ctx: Context, build: Build, wood: Timber) -> Weights:
    """Add the mass of every part (net of joints and grooves) and of the leaf, without its hardware.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        wood: Species, and moisture as made, at the driest and at the wettest.
    """
    parts: dict[str, Figure] = {}
    for part in build.parts:
        rho = _density(ctx, part, wood)
        volume = ctx.figures.given(
            figure_name(f"volume_{part.slug}"),
            f"{part.name}, cubic metres net of joints and grooves",
            part.volume / MM3_PER_M3,
            FIXED,
            unit=Unit.RATIO,
        )
        parts[part.name] = ctx.figures.derived(
            figure_name(f"mass_{part.slug}"),
            f"{part.name}, weight",
            volume.value * rho.value,
            volume,
            rho,
            formula="volume × density",
            unit=Unit.KG,
        )
    mass = ctx.figures.total("mass", "leaf, weight without hardware", *(plus(each) for each in parts.values()))
    _centre(ctx, build, parts, mass)
    if mass.value > TWO_PEOPLE_KG:
        ctx.warn(
            "lift",
            "Two people, or a lift",
            f"The leaf weighs {ctx.fmt(mass)}.",
            Remedy("Do not hang it alone"),
            grounds=Grounds("mass", rule=f"over {ctx.show.value(TWO_PEOPLE_KG, Unit.KG)}"),
        )
    return Weights(mass, parts)


def _density(ctx: Context, part: Part, wood: Timber) -> Figure:
    """Return the density of what a part is made of: the panels' or the frame's timber, or a sheet's."""
    if part.species == wood.panel.key and part.role is Role.PANEL:
        return wood.panel_density
    made_of = stuff(part.species)
    if not isinstance(made_of, SheetMaterial):
        return wood.density
    name = f"density_{made_of.key}"
    if figure_name(name) in ctx.figures:
        return ctx.figures[figure_name(name)]
    label = f"density of {made_of.name.lower()}"
    return ctx.figures.given(figure_name(name), label, made_of.density, fixed(source="common value"), unit=Unit.KG_M3)


def _centre(ctx: Context, build: Build, masses: dict[str, Figure], mass: Figure) -> None:
    """Add the centre of gravity: each part's own middle, weighed. Source: moments about two edges."""
    if mass.value <= 0:
        return
    across = up = 0.0
    for part in build.parts:
        x, y = centroid(part.corners)
        across += masses[part.name].value * x
        up += masses[part.name].value * y
    for name, label, moment in (
        ("centre_across", "centre of gravity, from the hinge edge", across),
        ("centre_up", "centre of gravity, up the leaf", up),
    ):
        ctx.figures.derived(
            figure_name(name), label, moment / mass.value, mass, formula="moments of the parts ÷ the whole weight"
        )
