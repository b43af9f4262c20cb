"""What was cut before something was read that it hangs on: it is other than it should be now, and how it is mended."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import TYPE_CHECKING

from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.document.production import LogEntry, LogKind, MishapKind
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.making.as_made import GOES_BACK
from oakmeasure.core.making.log import in_time
from oakmeasure.core.making.operation import Operation, Trade
from oakmeasure.core.making.repairs import judge_mishap

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign
    from oakmeasure.core.making.sequence import Making

CUTS = (Trade.SAW, Trade.PLANE, Trade.JOINT, Trade.ROUT, Trade.BORE)
DEPTHS = ("deep", "depth stop", "deep, from this edge")
LEAST = 0.1  # mm that a cut may be off without a word


@dataclass(frozen=True, slots=True)
class CutAlready:
    """One size of a step that is done, and what it should be by what was read since."""

    op: Operation
    """The step as it is now."""
    label: str
    """What is set."""
    was: float
    """To what it was set when it was done, mm."""
    now: float
    """To what it would be set now, mm."""


def log_until(leaf: Leaf, until: datetime) -> Leaf:
    """Return a leaf with what was read up to a moment; readings after it that change its figures are left out.

    Args:
        leaf: The leaf, as the document holds it.
        until: The moment.
    """
    log = tuple(each for each in leaf.making.log if each.at <= until or not _goes_back(each))
    return leaf.model_copy(update={"making": leaf.making.model_copy(update={"log": log})})


def _goes_back(entry: LogEntry) -> bool:
    return entry.kind is LogKind.READING and entry.reading in GOES_BACK


def cut_already(leaf: Leaf, making: Making, made_until: Callable[[datetime], Making | None]) -> Iterator[CutAlready]:
    """Yield what was cut to other sizes than are asked for since something was read.

    Args:
        leaf: The leaf, as the document holds it.
        making: How it is made, by all that was read.
        made_until: How it would be made by what was read up to a moment.
    """
    log = in_time(leaf.making.log)
    read = [each.at for each in log if _goes_back(each)]
    done = {each.op: each.at for each in log if each.kind is LogKind.DONE}
    known: dict[int, Making | None] = {}
    for op in making.operations:
        at = done.get(op.id)
        if at is None or op.trade not in CUTS or not any(each > at for each in read):
            continue
        count = sum(each <= at for each in read)
        if count not in known:
            known[count] = made_until(at)
        before = known[count]
        old = before.op(op.id) if before is not None else None
        if old is None or [each.label for each in old.settings] != [each.label for each in op.settings]:
            continue
        for one, other in zip(old.settings, op.settings, strict=True):
            if one.unit is Unit.MM and abs(one.value - other.value) > LEAST:
                yield CutAlready(op, one.label, one.value, other.value)


def judge_cut_already(
    ctx: Context, design: LeafDesign, making: Making, made_until: Callable[[datetime], Making | None]
) -> None:
    """Say of every step that is done which of its sizes is another one by now, and how that is mended.

    Args:
        ctx: The leaf's context: its figures and checks added to.
        design: The leaf, set out with its hardware.
        making: How it is made.
        made_until: How it would be made by what was read up to a moment.
    """
    told: set[str] = set()
    for each in cut_already(ctx.leaf, making, made_until):
        if each.op.id in told:
            continue
        told.add(each.op.id)
        ctx.warn(
            f"cut-already-{each.op.id.replace(':', '-')}",
            "It is cut already, and by what was read since it is another size",
            f"{each.op.name}: {each.label} {ctx.fmt(each.was)} then, {ctx.fmt(each.now)} now.",
            Remedy(_mend(design, each, ctx.show)),
            grounds=Grounds(f"op:{each.op.id}"),
        )


def _mend(design: LeafDesign, wrong: CutAlready, show: Show) -> str:
    """Return how a step is mended that was done to another size."""
    by = show.length(abs(wrong.now - wrong.was), sign=False)
    more = wrong.now > wrong.was
    op = wrong.op
    if wrong.label in DEPTHS:
        if more:
            return f"Go {by} deeper, from the same fence"
        part, hole = (op.parts[0] if op.parts else ""), (op.cuts[0] if op.cuts else "")
        kind = MishapKind.HOLE_DEEP if op.trade is Trade.BORE else MishapKind.MORTISE_DEEP
        best = judge_mishap(design, kind, part, wrong.was - wrong.now, show, hole=hole).best
        return f"{best.name}, {by}" if best is not None else f"{by} too deep: look at Mend"
    if op.trade in (Trade.SAW, Trade.PLANE):
        return f"{by} too small now: look at Mend before it goes on" if more else f"Take {by} more off"
    return f"{by} off: hold it against the rod before it goes on, and look at Mend"
