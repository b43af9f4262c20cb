"""Screws in wood: what one bears along its own line, its pilot hole, and where it must not be used.

Source: Wood Handbook, FPL-GTR-282, ch. 8: ultimate withdrawal 108.25·G²·D·L, threads across the grain; a sixth of it is
the working value there. Pilot holes: common practice of the trade.
"""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import GRAVITY, Unit
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.document.hinges import is_chosen
from oakmeasure.core.document.species import SheetMaterial, Species, stuff
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, fixed
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.hardware.hinges.mortise_depth import withdrawal
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.wood import dry_gravity

WORKING = 6.0
# Hanging on the pull of an open leaf: misuse that it should survive
PERSON_KG = 80.0
AT_SHARE = 0.9
# Share of the screw's root; root is 0.68 of its diameter
PILOT_HARD = 0.85
PILOT_SOFT = 0.7
HARD_FROM = 0.5
ROOT = 0.68


def misuse_pull(*, mass: float, width: float, spacing: float, person: float = PERSON_KG) -> float:
    """Return the pull on the top hinge, N, with a person on the pull: (m·w/2 + M·0.9·w)·g/spacing.

    width, spacing of the hinges' centres: mm.

    Args:
        mass: Of the leaf, kg.
        width: Width of the leaf, mm.
        spacing: From the middle of the top hinge to that of the bottom one, mm.
        person: Mass of who hangs on the handle, kg.

    Raises:
        InputError: For a spacing of 0.

    >>> round(misuse_pull(mass=0, width=762, spacing=1600, person=80) + misuse_pull(mass=40, width=762, spacing=1600,
    ...       person=0))
    430
    """
    if spacing <= 0:
        raise InputError("spacing", spacing, "more than 0")
    return (mass * width / 2 + person * AT_SHARE * width) * GRAVITY / spacing


def pilot(*, diameter: float, gravity: float) -> float:
    """Return the pilot hole of a wood screw, mm: a share of its root, more in hard wood.

    Args:
        diameter: Of the hole or the screw, mm.
        gravity: Specific gravity of the wood, oven-dry mass over volume at 12 %.

    >>> round(pilot(diameter=4.0, gravity=0.6), 2), round(pilot(diameter=4.0, gravity=0.4), 2)
    (2.31, 1.9)
    """
    return ROOT * diameter * (PILOT_HARD if gravity >= HARD_FROM else PILOT_SOFT)


def latch_corner_moves(*, by: float, width: float, spacing: float) -> float:
    """Return how far the latch corner moves when one hinge is packed, mm: by × width ÷ spacing.

    1 packed behind the lower hinge raises it; behind the upper one lowers it. Source: similar triangles.

    Args:
        by: How far one hinge is out of line, mm.
        width: Width of the leaf, mm.
        spacing: From the middle of the top hinge to that of the bottom one, mm.

    >>> round(latch_corner_moves(by=1, width=762, spacing=1600), 3)
    0.476
    """
    if spacing <= 0:
        raise InputError("spacing", spacing, "more than 0")
    return by * width / spacing


def judge_screws(ctx: Context, body: Body, wood: Timber, mass: Figure) -> None:
    """Add what the top butt's screws bear in the leaf's edge, at rest and misused, and judge them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        body: The leaf's pieces in place.
        wood: Species, and moisture as made, at the driest and at the wettest.
        mass: Of the leaf, kg.
    """
    f, choice = ctx.figures, ctx.leaf.hardware.screws
    if "butt_spacing" not in f or "top_hinge_pull" not in f:
        return
    if not body.pieces:  # a stop says so
        return
    figures = f
    diameter = ctx.chosen("screw_diameter", "hinge screws, diameter", choice.diameter, "hardware.screws.diameter")
    length = ctx.chosen("screw_length", "hinge screws, length", choice.length, "hardware.screws.length")
    count = figures.given(
        "screw_count",
        "hinge screws in one leaf of a butt",
        choice.count,
        fixed("hardware.screws.count"),
        unit=Unit.COUNT,
    )
    front, _ = body.along("hinge")
    at_top = body.height - (f.get(figure_name("butt_1_top")) or f["butt_length"]).value
    member = body.member_at("hinge", at_top, front + f["butt_across"].value / 2) or body.pieces[0]
    made_of = stuff(member.material)
    if isinstance(made_of, SheetMaterial):
        ctx.warn(
            "screws-sheet",
            "Hinge screws in the edge of a sheet",
            f"The {member.name} is {made_of.name.lower()}: its plies or chips split, and no value is known.",
            Remedy("A lipping of solid wood, or hinges on the face"),
            grounds=Grounds("screw_length", f"part:{member.name}", rule="never in an edge of sheet, nor end grain"),
        )
        return
    dry, one = _one_bears(ctx, made_of, diameter, length)
    work, misuse = _loads(ctx, mass, one, count)
    figures.derived(
        "screw_pilot",
        "pilot hole",
        pilot(diameter=diameter.value, gravity=dry.value),
        diameter,
        dry,
        formula="root of the screw × 0.85 in hard wood, 0.7 in soft",
        source="common practice",
    )
    _lift(ctx)
    if is_chosen(ctx.leaf.hardware.butt):
        _say(ctx, f["top_hinge_pull"], work, misuse, one, count)


def _loads(ctx: Context, mass: Figure, one: Figure, count: Figure) -> tuple[Figure, Figure]:
    """Add what the top butt's screws may bear, and what they bear misused; return both."""
    f = ctx.figures
    work = f.derived(
        "screws_work",
        "the top butt's screws, to work with",
        one.value * count.value / WORKING,
        one,
        count,
        formula="screws × what one bears ÷ 6",
        unit=Unit.N,
    )
    misuse = f.derived(
        "misuse_pull",
        "top butt, pulled with a person on the open leaf",
        misuse_pull(mass=mass.value, width=f["leaf_width"].value, spacing=f["butt_spacing"].value),
        mass,
        f["leaf_width"],
        f["butt_spacing"],
        formula="(m·w ÷ 2 + 80·0.9·w) × 9.80665 ÷ spacing",
        unit=Unit.N,
    )
    return work, misuse


def _lift(ctx: Context) -> None:
    """Add how much packing behind the lower butt raises the latch corner."""
    f = ctx.figures
    up = latch_corner_moves(by=1.0, width=f["leaf_width"].value, spacing=f["butt_spacing"].value)
    f.derived(
        "packing_lifts",
        f"{ctx.fmt(1.0)} packed behind the lower butt raises the latch corner by",
        up,
        f["leaf_width"],
        f["butt_spacing"],
        formula="the packing × width ÷ spacing",
    )


def _one_bears(ctx: Context, made_of: Species, diameter: Figure, length: Figure) -> tuple[Figure, Figure]:
    """Add the gravity of dry wood and what one screw bears in it; return both."""
    f = ctx.figures
    gravity = dry_gravity(basic_gravity=made_of.basic_gravity)
    dry = f.given(
        "gravity_dry",
        f"gravity of {made_of.name}, dry over volume at 12 %",
        gravity,
        fixed(source="Wood Handbook, FPL-GTR-282, ch. 4"),
        unit=Unit.RATIO,
    )
    thread = f.derived(
        "screw_thread",
        "thread in the wood",
        2 / 3 * length.value,
        length,
        formula="two thirds of the screw",
        source="common practice",
    )
    one = f.derived(
        "screw_bears",
        "one screw bears before it pulls out",
        withdrawal(gravity=gravity, diameter=diameter.value, thread=thread.value),
        dry,
        diameter,
        thread,
        formula="108.25 × G² × D × L",
        source="Wood Handbook, FPL-GTR-282, ch. 8",
        unit=Unit.N,
    )
    return dry, one


def _say(ctx: Context, pull: Figure, work: Figure, misuse: Figure, one: Figure, count: Figure) -> None:
    words = f"They work to {ctx.fmt(work)}; at rest {ctx.fmt(pull)} pulls, with a person on it {ctx.fmt(misuse)}."
    rule = "a sixth of what pulls them out: Wood Handbook, ch. 8"
    if pull.value > work.value:
        longer = min(120.0, ctx.figures["screw_length"].value * pull.value / work.value * 1.02)
        ctx.stop(
            "screws-hold",
            "The top butt's screws will draw",
            words,
            Remedy(f"Screws {ctx.fmt(longer)} long", "hardware.screws.length", longer),
            grounds=Grounds("screws_work", "butt:1", rule=rule),
        )
    elif misuse.value > one.value * count.value:
        ctx.warn(
            "screws-hold",
            "A person on the open leaf tears it off",
            words,
            Remedy("One long screw in each butt, through the lining into what carries it"),
            grounds=Grounds("misuse_pull", "butt:1", rule=rule),
        )
    else:
        ctx.fine("screws-hold", "The screws hold", words, grounds=Grounds("screws_work", "butt:1", rule=rule))
