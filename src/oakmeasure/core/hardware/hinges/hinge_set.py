"""Hinges of one packet differ: each measured, lettered to its place; a template for the largest of them.

template = hinge + (bush − cutter) all round, half on each side. Sources: common practice of the trade.
"""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.core.document.hinges import PacketButt
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, Origin, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.hardware.hinges.mortise_depth import mortise_depth
from oakmeasure.core.leaf.gap_choice import gap_let_in_for
from oakmeasure.core.leaf.leaf_context import Context

SPREAD = 0.15  # of thickness; more needs each its own depth: common practice, no source
LETTERS = "ABCDEFGHIJKL"


def judge_packet(ctx: Context) -> None:
    """Add each measured hinge with its letter and its own depth, and judge their spread.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    packet, f = ctx.leaf.hardware.packet, ctx.figures
    if not packet:
        return
    gap = gap_let_in_for(f)
    for at, each in enumerate(packet, start=1):
        letter = LETTERS[at - 1]
        closed = f.given(
            figure_name(f"packet_{at}"),
            f"hinge {letter}, thickness when shut",
            each.closed_thickness,
            Origin(edit=f"hardware.packet.{at - 1}.closed_thickness"),
        )
        f.derived(
            figure_name(f"packet_{at}_depth"),
            f"hinge {letter}, let in",
            mortise_depth(closed=closed.value, gap=gap.value),
            closed,
            gap,
            formula="half of (thickness when shut − gap)",
        )
    thick = [each.closed_thickness for each in packet]
    length, width = max(each.length for each in packet), max(each.width for each in packet)
    f.given("packet_length", "longest of the packet", length, fixed(source="as measured"))
    f.given("packet_width", "widest of the packet", width, fixed(source="as measured"))
    spread = f.derived(
        "packet_spread",
        "spread of their thickness",
        max(thick) - min(thick),
        *(f[figure_name(f"packet_{at}")] for at in range(1, len(packet) + 1)),
        formula="most − least",
    )
    _judge_spread(ctx, packet, spread)


def _judge_spread(ctx: Context, packet: Sequence[PacketButt], spread: Figure) -> None:
    """Judge whether all are measured, and how far they differ."""
    letters = ", ".join(f"{LETTERS[at]} {ctx.fmt(each.closed_thickness)}" for at, each in enumerate(packet))
    count = int(ctx.figures["butt_count"].value)
    if len(packet) < count:
        ctx.warn(
            "packet-few",
            "Not every hinge is measured",
            f"{len(packet)} of {count} are.",
            Remedy("Measure the rest, and letter each to its place"),
            grounds=Grounds("packet_spread", "butt:1"),
        )
    if spread.value > SPREAD:
        ctx.warn(
            "packet",
            "The hinges of the packet differ",
            f"{letters}: {ctx.fmt(spread)} apart. One depth for all would bind or gape.",
            Remedy("Each let in to its own depth; cheap ones trued first"),
            grounds=Grounds("packet_spread", "butt:1", rule=f"over {ctx.fmt(SPREAD)}"),
        )
    else:
        ctx.fine(
            "packet",
            "The hinges of the packet are alike",
            f"{letters}: {ctx.fmt(spread)} apart. Letter each to its place.",
            grounds=Grounds("packet_spread", "butt:1", rule=f"to {ctx.fmt(SPREAD)}"),
        )


def set_out_template(ctx: Context) -> None:
    """Add the opening of a template for the router: the largest hinge and what the bush stands off the cutter.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    choice, f = ctx.leaf.hardware.template, ctx.figures
    if choice is None:
        return
    bush = ctx.chosen("bush", "guide bush, outside", choice.bush, "hardware.template.bush")
    cutter = ctx.chosen("cutter", "cutter", choice.cutter, "hardware.template.cutter")
    if cutter.value >= bush.value:
        ctx.stop(
            "template",
            "The cutter does not pass the bush",
            f"Cutter {ctx.fmt(cutter)} in a bush of {ctx.fmt(bush)}.",
            Remedy(f"A cutter of {ctx.fmt(bush.value - 4)}", "hardware.template.cutter", bush.value - 4)
            if bush.value - 4 >= 3
            else Remedy("A larger bush"),
            grounds=Grounds("bush"),
        )
        return
    offset = f.total("template_offset", "bush stands off the cutter, each side", plus(bush, 0.5), minus(cutter, 0.5))
    length = f.get("packet_length") or f["butt_length"]
    along = f.total("template_length", "template, along the edge", plus(length), plus(offset, 2))
    # One end of the recess lies open at the opening face, where the knuckle stands.
    f.total("template_width", "template, in from the opening face", plus(f["butt_across"]), plus(offset))
    corner = f.derived(
        "template_corner", "corner that the cutter leaves round", cutter.value / 2, cutter, formula="half of the cutter"
    )
    ctx.fine(
        "template",
        f"Template {ctx.fmt(along)} along, {ctx.fmt(f['template_width'])} in",
        f"For the largest hinge; the bush stands off {ctx.fmt(offset)}; corners of {ctx.fmt(corner)} are pared square.",
        grounds=Grounds("template_length", "butt:1"),
    )
