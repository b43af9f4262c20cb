"""A mishap that is to be mended, as an operation: after the one in which it happened, before the next on its part."""

from __future__ import annotations

from oakmeasure.core.document.production import LogKind
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.repairs import judge_mishap
from oakmeasure.core.making.step_builder import StepBuilder


def mends(m: StepBuilder) -> None:
    """Add an operation for every mishap in the log that a repair was chosen for.

    Args:
        m: Where the operations are added.
    """
    log = m.leaf.leaf.making.log
    number = 0
    for entry in log:
        if entry.kind is not LogKind.MISHAP or entry.mishap is None:
            continue
        number += 1
        judged = judge_mishap(m.leaf, entry.mishap, entry.part, entry.value or 0.0, m.show, hole=entry.hole)
        repair = next((each for each in judged.repairs if each.key == entry.repair), None)
        if repair is None:
            continue
        mend = f"mend:{number}"
        m.add(
            mend,
            f"{repair.name}: {entry.hole + ', ' if entry.hole else ''}{entry.part or 'the leaf'}",
            Trade.MEND,
            parts=(entry.part,) if entry.part else (),
            needs=(entry.op,),
            early=True,
            hours=repair.hours,
            wait_hours=repair.wait_hours,
            wait_for="the glue" if repair.wait_hours else "",
            how=repair.words,
            bucket=Bucket.NONE,
            settings=tuple(Setting(label, value) for label, value in repair.sizes),
            hold=WorkpieceSetup(SideUp.OPENING, entry.part),
            check=StepCheck("tried before it goes on"),
            why="before anything else is done to the part",
            later="glue and cutters go over the damage",
        )
        for op_id in _following(m, entry.op, entry.part):
            m.steps.need(op_id, mend)


def _following(m: StepBuilder, after: str, part: str) -> list[str]:
    """Return the operations on a part, or on the whole leaf, that come after one that has happened already."""
    items = list(m.steps.items.values())
    before = _ancestors(m, after) | {after}
    return [
        op.id
        for op in items
        if op.id not in before
        and not op.id.startswith(("mend:", "trial:", "measure:"))
        and after in _ancestors(m, op.id)
        and (not op.parts or not part or part in op.parts)
    ]


def _ancestors(m: StepBuilder, op_id: str) -> set[str]:
    """Return all that an operation needs, however far back."""
    found: set[str] = set()
    left = [op_id]
    while left:
        op = m.steps.items.get(left.pop())
        for need in m.steps.needs_of(op) if op is not None else ():
            if need not in found:
                found.add(need)
                left.append(need)
    return found
