"""What butts can and cannot: their number, the load, wedges under them, another one that would do."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from oakmeasure.core.construction.framed.model import TenonKind
from oakmeasure.core.document.hinges import Butt, butt_from_table, is_chosen
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.document.rules import ButtSchool
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, minus, plus
from oakmeasure.core.leaf.gap_choice import gap_let_in_for
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build
from oakmeasure.data import table

if TYPE_CHECKING:
    from oakmeasure.core.hardware.hinges.butt_places import ButtPlace

# Grade and mass, kg, that a set of three was tested with: EN 1935, from memory, to be verified.
GRADES = ((10, 60.0), (11, 80.0), (12, 100.0), (13, 120.0), (14, 160.0))

FLUSH = 0.1  # mm that a let-in may lie beside the wood and is called flush: what a chisel holds, common practice


def hinge_grade(mass: float) -> int | None:
    """Return the least grade of EN 1935 that is tested for a leaf of that mass, kg; None beyond them all.

    Args:
        mass: Of the leaf, kg.

    >>> hinge_grade(61.0), hinge_grade(40.0), hinge_grade(200.0)
    (11, 10, None)
    """
    return next((grade for grade, heavy in GRADES if mass <= heavy), None)


def judge_count(ctx: Context, count: int, by_rule: int, school: ButtSchool, mass: Figure) -> None:
    """Say whether so many of these butts carry the leaf.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        count: How many there are.
        by_rule: How many the rule asks for; None where it does not say.
        school: Whose rule decides how many and where.
        mass: Of the leaf, kg.
    """
    rating = ctx.figures["butt_rating_kg"]
    if not is_chosen(ctx.leaf.hardware.butt):
        ctx.warn(
            "hinges-not-chosen",
            "The hinges are not chosen yet",
            f"Places and recesses are those of the {ctx.leaf.hardware.butt.name}. They will have to carry "
            f"{ctx.fmt(mass)}.",
            *other_butts(ctx, lambda each: each.rating_kg.value >= mass.value),
            Remedy("Choose them in the list of hinges, or measure your own"),
            grounds=Grounds("butt_count", "butt:1"),
        )
        return
    numbers = f"{ctx.fmt(mass)} on {count} butts, {school}."
    if count < by_rule:
        ctx.warn(
            "butts-few",
            "Too few butts",
            numbers,
            Remedy(f"{by_rule} butts", "hardware.count", by_rule),
            grounds=Grounds("butt_count", rule=f"{by_rule} by height and weight"),
        )
    if mass.value > rating.value:
        ctx.stop(
            "butts-weak",
            "The leaf is too heavy for these butts",
            numbers,
            *other_butts(ctx, lambda each: each.rating_kg.value >= mass.value),
            Remedy("Stronger butts"),
            grounds=Grounds("mass", "butt:1", rule=f"rated for {ctx.fmt(rating)}"),
        )
    elif count >= by_rule:
        ctx.fine(
            "butts-carry",
            "The butts carry the leaf",
            f"{numbers} By the standard for hinges: grade {hinge_grade(mass.value) or 'none'} or better.",
            grounds=Grounds("butt_count", rule=f"rated for {ctx.fmt(rating)}"),
        )


def foretell_flush(ctx: Context, depth: Figure) -> None:
    """Say what gap the butts would leave if they were let in flush, as by habit, where that is not the gap wanted.

    Source: metal on metal the shut butt is thicker than its two leaves by what stays open between them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        depth: How deep they are let in for the gap that is wanted, mm.
    """
    butt = ctx.leaf.hardware.butt
    if butt.metal_thickness is None or not is_chosen(butt):
        return
    metal = ctx.reading(
        "butt_metal", "butt, metal of one leaf", butt.metal_thickness, "hardware.butt.metal_thickness", f"“{butt.name}”"
    )
    flush = ctx.figures.total(
        "gap_let_in_flush",
        "gap if the butts are let in flush",
        plus(ctx.figures["butt_closed"]),
        minus(metal),
        minus(metal),
    )
    proud = metal.value - depth.value
    if abs(proud) < FLUSH:
        return
    how = f"each stands {ctx.fmt(proud)} proud" if proud > 0 else f"each lies {ctx.fmt(-proud)} under the wood"
    ctx.fine(
        "butts-flush",
        "The butts are not let in flush",
        f"Let in {ctx.fmt(depth)}, {how}: the gap is {ctx.fmt(gap_let_in_for(ctx.figures))}. "
        f"Flush it would be {ctx.fmt(flush)}.",
        grounds=Grounds("gap_let_in_flush", "butt:1", rule="flush: shut, less its metal twice"),
    )


def judge_places(ctx: Context, places: tuple[ButtPlace, ...], build: Build) -> None:
    """A butt over the end grain of a through tenon or its wedges holds no screw: a screw there starts the wedge.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        places: Where the butts stand.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    ends = [tenon for tenon in build.tenons if tenon.through and build.is_at(tenon.into, Role.STILE, Place.HINGE)]
    for place in places:
        for tenon in ends:
            low, high = max(place.rect.y0, tenon.rect.y0), min(place.rect.y1, tenon.rect.y1)
            if high - low > 0:
                ctx.warn(
                    f"butt-{place.number}-wedge",
                    f"Butt {place.number} sits on a wedged tenon",
                    f"{ctx.fmt(high - low)} of it covers the {tenon.member}'s tenon end: screws bite end grain.",
                    Remedy("Move the butt off the rail, or use blind tenons", "build.tenon", TenonKind.BLIND),
                    grounds=Grounds(f"butt_{place.number}_top", f"butt:{place.number}", rule="never on a wedge"),
                )


def other_butts(ctx: Context, does: Callable[[Butt], bool]) -> list[Remedy]:
    """Return the first butt of the table that does, as something to take.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        does: Says whether a butt would do.
    """
    found = next((each for each in map(butt_from_table, table("butts")) if does(each)), None)
    if found is None or (found.name == ctx.leaf.hardware.butt.name and is_chosen(ctx.leaf.hardware.butt)):
        return []
    return [Remedy(f"Take the {found.name}, up to {found.rating_kg.value:g} kg", "hardware.butt", found)]
