"""The weight of each part and of the leaf."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.prism_sums import Net
from oakmeasure.core.base.units import MM3_PER_M3, Unit
from oakmeasure.core.body.pieces import Body, Piece
from oakmeasure.core.document.species import SheetMaterial, stuff
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import FIXED, Figure, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Loose
from oakmeasure.core.timber.choice import DENSITY_FORMULA, HANDBOOK, Timber, origin_of
from oakmeasure.core.timber.wood import density

TWO_PEOPLE_KG = 25.0  # common practice of safe lifting, no source


@dataclass(frozen=True, slots=True)
class Weights:
    """What a leaf weighs."""

    mass: Figure
    """Of the leaf, kg."""
    parts: dict[str, Figure]
    """Of each part by name."""


def weigh(ctx: Context, body: Body, wood: Timber) -> Weights:
    """Add the mass of every piece (net of joints and grooves) and of the leaf, without its hardware.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        body: The leaf's pieces in place, nothing cut out of them for hardware yet.
        wood: Species, and moisture as made, at the driest and at the wettest.
    """
    parts: dict[str, Figure] = {}
    middles: list[tuple[float, Net]] = []
    for piece in body.pieces:
        if piece.part is not None:
            parts[piece.name] = _weigh_piece(ctx, piece.name, piece.part.slug, _density(ctx, piece, wood), [piece.net])
            middles.append((parts[piece.name].value, piece.net))
    joined = [each for each in body.pieces if each.part is None]
    if joined:
        name = "loose_tenons" if joined[0].name == str(Loose.TENON) else "dowels"
        nets, rho = [each.net for each in joined], _density(ctx, joined[0], wood)
        words = name.replace("_", " ")
        joints = _weigh_piece(ctx, words, name, rho, nets)
        middles += [(joints.value * each.volume / max(sum(n.volume for n in nets), 1.0), each) for each in nets]
    else:
        joints = None
    terms = [plus(each) for each in (*parts.values(), *([joints] if joints is not None else []))]
    mass = ctx.figures.total("mass", "leaf, weight without hardware", *terms)
    _centre(ctx, middles, mass)
    return Weights(mass, parts)


def judge_lift(ctx: Context, mass: Figure) -> None:
    """Say where a leaf is too heavy for one: as it was weighed, if somebody has, else as worked out.

    Args:
        ctx: The leaf's context: its checks are added to.
        mass: Of the leaf, kg.
    """
    if mass.value > TWO_PEOPLE_KG:
        ctx.warn(
            "lift",
            "Two people, or a lift",
            f"The leaf weighs {ctx.fmt(mass)}.",
            Remedy("Do not hang it alone"),
            grounds=Grounds("mass", rule=f"over {ctx.show.value(TWO_PEOPLE_KG, Unit.KG)}"),
        )


def _weigh_piece(ctx: Context, name: str, slug: str, rho: Figure, nets: Sequence[Net]) -> Figure:
    """Add the net volume and the weight of a piece, or of several alike together."""
    volume = ctx.figures.given(
        figure_name(f"volume_{slug}"),
        f"{name}, cubic metres net of joints and grooves",
        sum(each.volume for each in nets) / MM3_PER_M3,
        FIXED,
        unit=Unit.RATIO,
    )
    return ctx.figures.derived(
        figure_name(f"mass_{slug}"),
        f"{name}, weight",
        volume.value * rho.value,
        volume,
        rho,
        formula="volume × density",
        unit=Unit.KG,
    )


def _density(ctx: Context, piece: Piece, wood: Timber) -> Figure:
    """Return the density of what a piece is made of: the frame's timber, the panels', another one, or a sheet's."""
    if piece.material == wood.frame.key:
        return wood.density
    if piece.material == wood.panel.key:
        return wood.panel_density
    made_of = stuff(piece.material)
    name = figure_name(f"density_{made_of.key}")
    if name in ctx.figures:
        return ctx.figures[name]
    label = f"density of {made_of.name.lower()}"
    if isinstance(made_of, SheetMaterial):
        return ctx.figures.given(
            name, label, made_of.density, origin_of(ctx, made_of.key, "common value"), unit=Unit.KG_M3
        )
    gravity = ctx.figures.given(
        figure_name(f"gravity_{made_of.key}"),
        f"basic gravity of {made_of.name.lower()}",
        made_of.basic_gravity,
        origin_of(ctx, made_of.key, made_of.source),
        unit=Unit.RATIO,
    )
    return ctx.figures.derived(
        name,
        label,
        density(basic_gravity=gravity.value, moisture=wood.made.value),
        gravity,
        wood.made,
        formula=DENSITY_FORMULA,
        source=f"{HANDBOOK}, ch. 4",
        unit=Unit.KG_M3,
    )


def _centre(ctx: Context, middles: Sequence[tuple[float, Net]], mass: Figure) -> None:
    """Add the centre of gravity: each piece's own middle, weighed. Source: moments about edge, foot and face."""
    if mass.value <= 0:
        return
    for at, (name, label) in enumerate(
        (
            ("centre_across", "centre of gravity, from the hinge edge"),
            ("centre_up", "centre of gravity, up the leaf"),
            ("centre_in", "centre of gravity, in from the opening face"),
        )
    ):
        moment = sum(each * net.middle[at] for each, net in middles)
        ctx.figures.derived(
            figure_name(name), label, moment / mass.value, mass, formula="moments of the pieces ÷ the whole weight"
        )
