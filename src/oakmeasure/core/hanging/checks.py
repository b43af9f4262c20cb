"""What is to be said of a leaf as it hangs: whether it can be put right, how, and what would where it cannot."""

from __future__ import annotations

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.adjustment import Touches
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import fixed
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.hanging.adjust import Hung, Remedied
from oakmeasure.core.hanging.remedy import DEPTH_RANGE, HEIGHT_RANGE, SIDE_RANGE, hinge_name
from oakmeasure.core.leaf.leaf_context import Context


def judge_hanging(ctx: Context, hung: Hung) -> None:
    """Judge a leaf as it hangs; where nothing was read it says only that.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        hung: How the leaf hangs, and what is to be done.
    """
    for n, each in enumerate(hung.leaves):
        _gaps(ctx, each, second=n == 1)
    _turns(ctx, hung)
    if hung.run is not None:
        short = hung.run.short
        ctx.report(
            "hang-run",
            Level.STOP if short else Level.OK,
            "Not all of the run can be lined up" if short else "The run can be lined up",
            "; ".join(short[:2]) + "."
            if short
            else f"Gaps {ctx.fmt(hung.run.gap)} between the leaves, uneven by {ctx.fmt(hung.run.worst_gap)}.",
            *((Remedy("Bore plates anew; or share the rest among the gaps"),) if short else ()),
        )
    wrong = next((look for look in hung.looks if look.fine is False), None)
    if wrong is not None:
        ctx.warn(
            "hang-binds",
            f"Look first at {wrong.what}",
            f"{wrong.found.capitalize()}. No hole is drilled again before this is right.",
            Remedy(wrong.remedy.capitalize()),
        )
    if hung.level is not None:
        turns = hung.level.turns
        way = "down" if turns < 0 else "up"
        ctx.report(
            "hang-jamb",
            Level.OK if abs(turns) < 0.25 else Level.WARNING,
            "The leaf against its jamb",
            f"Latch hanger {abs(turns):.1f} turns {way}: then {ctx.fmt(hung.level.jamb)} all the way.",
        )
    _proof(ctx, hung)
    _signed(ctx)


def _gaps(ctx: Context, each: Remedied, *, second: bool) -> None:
    tag, found = ("-second" if second else ""), each.found
    if found is None:
        return
    least, even = found.least_wood, found.even
    name = f"{each.name}: " if second or each.name != "the leaf" else ""
    ctx.figures.given(
        figure_name(f"hung_worst{tag.replace('-', '_')}"),
        f"{name}worst gap, off by, once put right",
        round(least.worst, 3),
        fixed(source="the remedy with the least wood off"),
    )
    if each.contradictions:
        ctx.warn(
            f"hang-contradicts{tag}",
            "Gaps that contradict the leaf",
            f"{name}{each.contradictions[0]}.",
            Remedy("Read these two again; or the leaf is not of its size"),
        )
    if least.within and not least.planes:
        done = all(step.kind == "nothing" for step in each.least_wood)
        ctx.report(
            f"hang-gaps{tag}",
            Level.OK if done else Level.WARNING,
            f"{name}the gaps are right".capitalize() if done else f"{name}the hinges put it right".capitalize(),
            f"Worst {ctx.fmt(least.worst)} off" + ("." if done else f" then: {each.least_wood[0].words}."),
        )
        return
    ctx.report(
        f"hang-gaps{tag}",
        Level.WARNING if least.within or even.within else Level.STOP,
        f"{name}some wood must come off".capitalize()
        if least.within or even.within
        else f"{name}this cannot be put right so".capitalize(),
        f"Least wood leaves the worst gap {ctx.fmt(least.worst)} off, the most even {ctx.fmt(even.worst)}.",
        *_ways(ctx, each),
    )


def _ways(ctx: Context, each: Remedied) -> list[Remedy]:
    """Return what would put it right where hinges and plane do not, or without the plane."""
    found = each.found
    ways: list[Remedy] = []
    if found is None:
        return ways
    if found.needs:
        over = [
            (hinge_name(n, len(found.needs)), packed)
            for n, packed in enumerate(found.needs)
            if packed > each.frame.pack + 0.01 or -packed > each.frame.let_in + 0.01
        ]
        ways += [
            Remedy(f"{name} {'packed' if packed > 0 else 'let in'} {ctx.fmt(abs(packed))}, no wood off".capitalize())
            for name, packed in over[:2]
        ]
    wide = [
        (place, gap)
        for place, gap in zip(found.places, found.least_wood.after, strict=True)
        if gap > place.wanted + ctx.leaf.hung.tolerance + 0.01
    ]
    if wide:
        place, gap = max(wide, key=lambda row: row[1] - row[0].wanted)
        edge = {"latch": "latch edge", "hinge": "hinge edge", "head": "head", "floor": "foot"}[place.side]
        ways.append(Remedy(f"A strip on the {edge}: {ctx.fmt(gap - place.wanted)} too wide there"))
    return ways


def _turns(ctx: Context, hung: Hung) -> None:
    if not hung.turns:
        return
    over = [each for each in hung.turns if not each.within]
    if over:
        most = max(over, key=lambda each: abs(each.amount))
        limit = {"side": SIDE_RANGE, "depth": DEPTH_RANGE}.get(most.screw, HEIGHT_RANGE)
        ctx.stop(
            "hang-turns",
            "More than the screws have",
            f"Hinge {most.hinge}, {most.screw}: {ctx.fmt(abs(most.amount))} is wanted, it has {ctx.fmt(limit)}.",
            Remedy("Loosen the plate and move it first, then the screws"),
            grounds=Grounds(rule=f"±{ctx.fmt(SIDE_RANGE)}, height ±{ctx.fmt(HEIGHT_RANGE)}: common practice"),
        )
        return
    ctx.warn(
        "hang-turns", "The screws put it right", f"{len(hung.turns)} screws: heights first, then sides, then depth."
    )


def _proof(ctx: Context, hung: Hung) -> None:
    load = ctx.figures.get("proof_load")
    if load is None or (not ctx.leaf.hung.gaps.is_read and ctx.leaf.hung.signed is None and not hung.is_read):
        return
    if ctx.leaf.hung.proof_held:
        ctx.fine(
            "hang-proof",
            "The track held its proof load",
            f"{ctx.show.value(load.value, Unit.KG)} before the leaf went up.",
            grounds=Grounds("proof_load"),
        )
    else:
        ctx.stop(
            "hang-proof",
            "No proof load was hung yet",
            f"{ctx.show.value(load.value, Unit.KG)} on the track before the leaf goes up.",
            Remedy("It was hung and it held", "hung.proof_held", True),
            grounds=Grounds("proof_load"),
        )


def _signed(ctx: Context) -> None:
    touches, signed = ctx.leaf.hung.gaps.touches, ctx.leaf.hung.signed
    if touches is not Touches.NONE:
        top = touches in (Touches.TOP_LATCH, Touches.TOP_HINGE)
        ctx.warn(
            "hang-touches",
            f"{str(touches).capitalize()} touches first",
            f"It meets its stop at the {'top' if top else 'foot'}: half of it at each hinge, or the stop is moved.",
            Remedy(f"Across: the {'bottom' if top else 'top'} hinge out, or the other in, by half"),
        )
    if signed is not None:
        ctx.fine("hang-signed", "Hung and signed off", f"{signed.on.day} {signed.on:%b %Y}, {signed.by}.")
