"""The timber of a leaf: how dry it is made, how dry and how wet it will be, what that does to it."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.job import Climate, Leaf
from oakmeasure.core.document.species import SheetMaterial, Species, species, stuff
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, Origin, Provenance, fixed, given
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.timber.wood import READY_WITHIN, density, equilibrium_moisture

HANDBOOK = "Wood Handbook, FPL-GTR-282"
DENSITY_FORMULA = "1000 × G ÷ (1 − 0.265·G·(30 − M)/30) × (1 + M/100)"
# The range that the coefficients were fitted to
COEFFICIENT_FROM = 6.0
COEFFICIENT_TO = 14.0


@dataclass(frozen=True, slots=True)
class Timber:
    """Figures of the chosen timber; `panel_*` are those of the panels' species."""

    frame: Species
    """Species of the frame."""
    panel: Species
    """Species of the panels."""
    made: Figure
    """Moisture when it is made, %."""
    dry: Figure
    """Moisture at the driest, %."""
    wet: Figure
    """Moisture at the wettest, %."""
    coefficient: Figure
    """Movement of the frame's boards for each point of moisture."""
    panel_coefficient: Figure
    """Movement of the panels' boards for each point of moisture."""
    density: Figure
    """Of the frame's species, kg/m³."""
    panel_density: Figure
    """Of the panels' species, kg/m³."""


def timber(ctx: Context) -> Timber:
    """Add the figures of the timber, before any size depends on them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    choice = ctx.leaf.timber
    frame = species(choice.wood)
    panel = species(choice.panel_species or choice.wood)
    f = ctx.figures
    made = f.given(
        "moisture_made",
        "moisture when made",
        choice.moisture,
        fixed("timber.moisture", source="set by hand for this leaf"),
        unit=Unit.PERCENT,
    )
    dry = _rests_at(ctx, "dry", "driest air", choice.dry)
    wet = _rests_at(ctx, "wet", "wettest air", choice.wet)
    cut = str(choice.cut)

    def of(kind: Species, prefix: str, what: str) -> tuple[Figure, Figure]:
        c = f.given(
            figure_name(f"{prefix}movement"),
            f"movement of {kind.name}, {cut}, for each point",
            kind.movement(choice.cut),
            origin_of(ctx, kind.key, kind.source),
            unit=Unit.RATIO,
        )
        g = f.given(
            figure_name(f"{prefix}gravity"),
            f"basic gravity of {kind.name}",
            kind.basic_gravity,
            origin_of(ctx, kind.key, kind.source),
            unit=Unit.RATIO,
        )
        d = f.derived(
            figure_name(f"{prefix}density"),
            f"density of the {what}",
            density(basic_gravity=kind.basic_gravity, moisture=choice.moisture),
            g,
            made,
            formula=DENSITY_FORMULA,
            source=f"{HANDBOOK}, ch. 4",
            unit=Unit.KG_M3,
        )
        return c, d

    coefficient, rho = of(frame, "", "frame")
    panel_coefficient, panel_rho = (coefficient, rho) if panel is frame else of(panel, "panel_", "panels")
    _judge(ctx, made, dry, wet)
    return Timber(frame, panel, made, dry, wet, coefficient, panel_coefficient, rho, panel_rho)


def movement_of(ctx: Context, wood: Timber, key: str) -> Figure:
    """Return how much of its width a timber or a sheet gains for each point of moisture, as a figure.

    Args:
        ctx: The leaf's context: its figures are added to.
        wood: The leaf's timber, whose own figures are used where it is that.
        key: Key of the species or the sheet.
    """
    if key == wood.frame.key:
        return wood.coefficient
    if key == wood.panel.key:
        return wood.panel_coefficient
    name, made_of = figure_name(f"movement_{key}"), stuff(key)
    if name in ctx.figures:
        return ctx.figures[name]
    if isinstance(made_of, SheetMaterial):
        value, source = made_of.movement, "common value"
    else:
        value, source = made_of.movement(ctx.leaf.timber.cut), made_of.source
    label = f"movement of {made_of.name.lower()}, for each point"
    return ctx.figures.given(name, label, value, origin_of(ctx, key, source), unit=Unit.RATIO)


def not_chosen(leaf: Leaf) -> dict[str, str]:
    """Return the keys of what a leaf is reckoned to be made of though nobody chose it, each with its field.

    Args:
        leaf: The leaf, as the document holds it.
    """
    found = {} if leaf.timber.species else {leaf.timber.wood: "timber.species"}
    material = leaf.build.material_not_said
    return found | ({material: "build.material"} if material else {})


def origin_of(ctx: Context, key: str, source: str) -> Origin:
    """Return where a value of a species or a sheet comes from: assumed, where nobody chose that.

    Args:
        ctx: The leaf's context: its choices are read.
        key: Key of the species or the sheet.
        source: Of its values.
    """
    edit = not_chosen(ctx.leaf).get(key)
    return fixed(source=source) if edit is None else Origin(edit, source, Provenance.ASSUMED)


def judge_chosen(ctx: Context, build: Build) -> None:
    """Say what a leaf is reckoned to be made of though nobody chose it.

    Args:
        ctx: The leaf's context: its choices are read, its checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    for key, path in not_chosen(ctx.leaf).items():
        is_new = path == "timber.species"
        if not any(part.species == key and part.at_hand is not is_new for part in build.parts):
            continue
        name = stuff(key).name
        ctx.warn(
            "timber-not-chosen" if is_new else "material-not-said",
            "The timber is not chosen yet" if is_new else "What the leaf is made of is not said yet",
            f"Weight, movement and price are those of {name}.",
            Remedy(f"Take {name}", path, key),
            Remedy("Choose it at Timber" if is_new else "Say it at Leaf"),
            grounds=Grounds("gravity" if is_new else "mass"),
        )


def _rests_at(ctx: Context, key: str, label: str, climate: Climate) -> Figure:
    air = given(
        figure_name(f"humidity_{key}"),
        f"humidity of the {label}",
        climate.humidity,
        fixed(f"timber.{key}.humidity"),
        unit=Unit.PERCENT,
    )
    heat = given(
        figure_name(f"temperature_{key}"),
        f"temperature of the {label}",
        climate.temperature,
        fixed(f"timber.{key}.temperature"),
        unit=Unit.CELSIUS,
    )
    value = equilibrium_moisture(temperature=climate.temperature, humidity=climate.humidity)
    return ctx.figures.derived(
        figure_name(f"moisture_{key}"),
        f"wood's moisture in the {label}",
        value,
        ctx.figures.add(heat),
        ctx.figures.add(air),
        formula="sorption isotherm, two hydrates",
        source=f"{HANDBOOK}, ch. 4",
        unit=Unit.PERCENT,
    )


def _judge(ctx: Context, made: Figure, dry: Figure, wet: Figure) -> None:
    if dry.value > wet.value:
        ctx.warn(
            "climate-turned",
            "The driest air is wetter than the wettest",
            f"Wood rests at {ctx.fmt(dry)} in the one and {ctx.fmt(wet)} in the other.",
            Remedy("Change them over"),
            grounds=Grounds("moisture_dry"),
        )
    elif not dry.value - READY_WITHIN <= made.value <= wet.value + READY_WITHIN:
        ctx.warn(
            "moisture-off",
            "The timber is not ready",
            f"It is at {ctx.fmt(made)}; where it goes it will live between {ctx.fmt(dry)} and {ctx.fmt(wet)}.",
            Remedy("Let it settle there in stick until two readings a week apart agree"),
            grounds=Grounds("moisture_made", rule=f"within {READY_WITHIN:g} points of where it will live"),
        )
    else:
        ctx.fine(
            "moisture",
            "Dry enough to make",
            f"Made at {ctx.fmt(made)}; it will live between {ctx.fmt(dry)} and {ctx.fmt(wet)}.",
            grounds=Grounds("moisture_made"),
        )
    if dry.value < COEFFICIENT_FROM - 0.5 or wet.value > COEFFICIENT_TO + 0.5:
        ctx.warn(
            "movement-range",
            "Movement is worked beyond its table",
            f"The coefficients hold from 6 to 14 %; here it goes from {ctx.fmt(dry)} to {ctx.fmt(wet)}, so "
            "movement is less sure.",
            Remedy("Leave a little more room than is worked out"),
            grounds=Grounds("moisture_wet", rule=f"{HANDBOOK}, ch. 13"),
        )
