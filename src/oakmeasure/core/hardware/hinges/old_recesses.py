"""Old recesses in a frame that stays: where they come on a new leaf, how deep the leaf's own are then.

The shut butt fills what is cut in jamb and leaf and the gap between: leaf = thickness when shut − gap − jamb.
Common practice, no source.
"""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.document.job import Hand, Leaf
from oakmeasure.core.document.old_frame import JambSide, OldRecess, RecessFor
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, fixed
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.frame import Frame
from oakmeasure.core.leaf.leaf_context import Context

LIKE = 0.5  # mm by which an old recess may differ from the butt and still take it


@dataclass(frozen=True, slots=True)
class OldPlaces:
    """Old recesses that the leaf's butts go into, from the top down."""

    recesses: tuple[OldRecess, ...]
    """The recesses."""
    downs: tuple[Figure, ...]
    """Their upper ends, down from the head on the hinge jamb, mm."""
    deep: Figure
    """How deep the deepest of them is, mm."""


def jamb_of(leaf: Leaf, recess: OldRecess) -> str:
    """Return at which edge of the leaf a recess's jamb stands, "hinge" or "latch".

    Args:
        leaf: The leaf: its hand says it.
        recess: The recess.
    """
    return "hinge" if (leaf.hand is Hand.LEFT) is (recess.jamb is JambSide.LEFT) else "latch"


def recesses_at(ctx: Context, edge: str, what: RecessFor) -> list[tuple[int, OldRecess]]:
    """Return old recesses in a jamb with their places in the list, from the top down.

    Args:
        ctx: The leaf's context: its choices are read.
        edge: "hinge" or "latch".
        what: What they were cut for.
    """
    found = [
        (at, each)
        for at, each in enumerate(ctx.leaf.old_frame.recesses)
        if each.what is what and jamb_of(ctx.leaf, each) == edge
    ]
    return sorted(found, key=lambda each: each[1].down)


def uses_old(ctx: Context) -> list[tuple[int, OldRecess]]:
    """Return the old recesses that the butts go into: none where their places or their number are set otherwise.

    Args:
        ctx: The leaf's context: its choices are read.
    """
    found, hardware = recesses_at(ctx, "hinge", RecessFor.BUTT), ctx.leaf.hardware
    if hardware.tops or hardware.count not in (None, len(found)):
        return []
    return found


def old_places(ctx: Context) -> OldPlaces | None:
    """Add the old recesses of the hinge jamb; return them, or None where the butts go elsewhere.

    Args:
        ctx: The leaf's context: its choices are read, its figures added to.
    """
    found = uses_old(ctx)
    if not found:
        return None
    f = ctx.figures
    downs = tuple(
        f.given(
            figure_name(f"old_recess_{number}"),
            f"old recess {number}, its upper end down from the head, on the hinge jamb",
            each.down,
            fixed(f"old_frame.recesses.{at}.down"),
        )
        for number, (at, each) in enumerate(found, start=1)
    )
    at, deepest = max(found, key=lambda each: each[1].deep)
    deep = f.given(
        "old_recess_deep", "old recesses, how deep in the jamb", deepest.deep, fixed(f"old_frame.recesses.{at}.deep")
    )
    return OldPlaces(tuple(each for _, each in found), downs, deep)


def tops_from(old: OldPlaces, frame: Frame, height: float) -> tuple[float, ...]:
    """Return how far down the leaf each butt begins: where its old recess comes on the leaf as it hangs, mm.

    Args:
        old: The old recesses.
        frame: What the leaf hangs in.
        height: Of the leaf's hinge edge, mm.
    """
    return tuple(height - (frame.hinge.place(each.value)[1] - frame.leaf_at[1]) for each in old.downs)


def judge_recesses(ctx: Context, old: OldPlaces) -> None:
    """Say what the old recesses still need for these butts, or that they take them.

    Args:
        ctx: The leaf's context: its figures are read, its checks added to.
        old: The old recesses.
    """
    f, fmt = ctx.figures, ctx.fmt
    length, across = f["butt_length"].value, f["butt_across"].value
    needs = []
    for number, each in enumerate(old.recesses, start=1):
        for is_, wanted, more, less in (
            (each.length, length, "is cut {} longer at its lower end", "is filled by {} at its lower end"),
            (each.wide, across, "is cut {} wider", "is filled by {} behind the butt"),
            (each.deep, old.deep.value, "is cut {} deeper", ""),
        ):
            if abs(is_ - wanted) > LIKE and (is_ < wanted or less):
                needs.append(f"{number} {(more if is_ < wanted else less).format(fmt(abs(is_ - wanted)))}")
    if needs:
        ctx.warn(
            "old-recess-size",
            "The old recesses do not fit these butts",
            f"The butt is {fmt(length)} long and reaches {fmt(across)}. Old recess {'; '.join(needs)}.",
            Remedy("Butts as long as the old ones, or fit each recess to them"),
            grounds=Grounds("old_recess_deep", "butt:1"),
        )
    else:
        ctx.fine(
            "old-recesses",
            "The old recesses take the butts",
            f"The leaf is let in {fmt(f['butt_depth'])}, the jamb is {fmt(old.deep)}.",
            grounds=Grounds("butt_depth", "butt:1", rule="shut, the butt fills both and the gap"),
        )
