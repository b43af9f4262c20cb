"""What is said of an old leaf that cannot all be so."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.base.units import HAIR
from oakmeasure.core.construction.existing.model import EdgeShape, Existing, Inside, Splice
from oakmeasure.core.construction.existing.narrowing import PANEL_LEAST
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.leaf.leaf_context import Context

Stop = Callable[[str, str, str, float, float, str], None]  # says a contradiction, and the most that would do


def says(choice: Existing, off_edge: Figure, off_height: Figure) -> str:
    """Return what is done to the leaf, in a few words.

    Args:
        choice: What is known of the old leaf, and chosen for it.
        off_edge: What comes off each long edge, mm; less than 0: what it lacks.
        off_height: What comes off the height, mm; less than 0: what it lacks.
    """
    words = [str(choice.inside)]
    if abs(off_edge.value) > HAIR:
        words.append("narrower" if off_edge.value > 0 else "wider")
    if abs(off_height.value) > HAIR:
        words.append("shorter" if off_height.value > 0 else LONGER[choice.splice])
    return "; ".join(words)


def contradictions(ctx: Context, choice: Existing) -> bool:
    """Say where a leaf is described so that it cannot be; return whether it can.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is known of the old leaf, and chosen for it.
    """
    found = len(ctx.checks_so_far.items)

    def stop(what: str, sentence: str, field: str, most: float, least: float, figure: str) -> None:
        ok = most >= least
        words = f"{field.replace('_', ' ').capitalize()} of {ctx.fmt(most)}, at the most"
        value = int(most) if field == "panels" else most
        ctx.stop(
            f"contradicts-{field.replace('_', '-')}",
            what,
            sentence,
            Remedy(words, f"build.{field}", value) if ok else Remedy("Measure the leaf again"),
            grounds=Grounds(figure),
        )

    if choice.inside in WITH_FACES:
        if 2 * choice.face > choice.thickness - 1:
            stop(
                "Its faces are thicker than the leaf",
                f"Twice {ctx.fmt(choice.face)} in {ctx.fmt(choice.thickness)}.",
                "face",
                (choice.thickness - 1) / 2,
                2,
                "thickness",
            )
        if 2 * choice.solid > choice.width:
            stop(
                "Its solid edges meet",
                f"Twice {ctx.fmt(choice.solid)} in {ctx.fmt(choice.width)}.",
                "solid",
                choice.width / 2,
                0,
                "old_width",
            )
        if 2 * choice.rail > choice.height:
            stop(
                "Its solid ends meet",
                f"Twice {ctx.fmt(choice.rail)} in {ctx.fmt(choice.height)}.",
                "rail",
                choice.height / 2,
                0,
                "old_height",
            )
    if choice.inside is Inside.PANELLED:
        _panelled(ctx, choice, stop)
    if choice.edge_shape is not EdgeShape.SQUARE and choice.edge_by <= 0:
        ctx.warn(
            "edge-unmeasured",
            f"Its edges are {choice.edge_shape}: by how much?",
            "That much must be planed off before anything is glued on.",
            Remedy(f"Measure it; {ctx.fmt(EDGE_UNREAD)} until then", "build.edge_by", EDGE_UNREAD),
            grounds=Grounds("edge_by"),
        )
    return all(each.level is not Level.STOP for each in ctx.checks_so_far.items[found:])


def _panelled(ctx: Context, choice: Existing, stop: Stop) -> None:
    _across(ctx, choice, stop)
    if choice.tenon > choice.stile:
        stop(
            "Its tenons are longer than its stiles",
            f"{ctx.fmt(choice.tenon)} into {ctx.fmt(choice.stile)}.",
            "tenon",
            choice.stile,
            10,
            "tenon",
        )
    middle = choice.middle_rail
    rails = choice.top_rail + choice.bottom_rail + (middle or 0.0)
    if rails > choice.height - 2 * PANEL_LEAST:
        stop(
            "Its rails leave no panels",
            f"{ctx.fmt(rails)} of {ctx.fmt(choice.height)} are rails.",
            "bottom_rail",
            choice.height - 2 * PANEL_LEAST - choice.top_rail - (middle or 0.0),
            30,
            "old_height",
        )
    elif middle is not None:
        low = choice.bottom_rail + PANEL_LEAST + middle / 2
        high = choice.height - choice.top_rail - PANEL_LEAST - middle / 2
        nearest = min(max(choice.middle_up, low), high)
        if abs(nearest - choice.middle_up) > 1e-6:
            stop(
                "Its middle rail lies over another rail",
                f"Its centre is entered {ctx.fmt(choice.middle_up)} up; it can stand from {ctx.fmt(low)} to "
                f"{ctx.fmt(high)}.",
                "middle_up",
                nearest,
                100,
                "old_height",
            )


def _across(ctx: Context, choice: Existing, stop: Stop) -> None:
    """Its stiles, muntins and panels against its width."""
    widest = max(choice.panels, choice.panels_above or 0 if choice.middle_rail is not None else 0)
    taken = 2 * choice.stile + (widest - 1) * choice.muntin
    room = choice.width - widest * PANEL_LEAST
    if taken > room:
        stile, muntins = (room - (widest - 1) * choice.muntin) / 2, widest - 1
        muntin = (room - 2 * choice.stile) / muntins if muntins else 0.0
        fewer = next(
            (
                n
                for n in range(widest - 1, 0, -1)
                if 2 * choice.stile + (n - 1) * choice.muntin <= choice.width - n * PANEL_LEAST
            ),
            1,
        )
        field, most, least = (
            ("stile", stile, 30.0)
            if stile >= 30
            else ("muntin", muntin, 20.0)
            if (muntin >= 20)
            else ("panels", float(fewer), 1.0)
        )
        stop(
            "Its stiles and muntins leave no panels",
            f"{ctx.fmt(taken)} of {ctx.fmt(choice.width)} are stiles and muntins.",
            field,
            most,
            least,
            "old_width",
        )


EDGE_UNREAD = 3.0  # that a shaped edge is taken to reach in until it is measured: common practice, no source
LONGER = {
    Splice.STAGGERED: "longer: halved, staggered",
    Splice.SCARF: "longer: scarfed 1:8",
    Splice.BLOCK: "longer: a block at one end",
}
WITH_FACES = (Inside.HOLLOW, Inside.BLOCKS, Inside.THICK)
