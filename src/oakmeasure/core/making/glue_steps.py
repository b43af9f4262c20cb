"""The stages of a glue-up as operations, each with its clamps, its time and how long it stays in them."""

from __future__ import annotations

from oakmeasure.core.base.units import Unit
from oakmeasure.core.making.changes import Change
from oakmeasure.core.making.glue import GluePlan, TaskPlan
from oakmeasure.core.making.operation import SHORT_H, Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder, many

# Mm: common practice, no source
SQUARE = 1.0
SPREAD = 0.2


def glue_up(
    m: StepBuilder,
    plan: GluePlan | None,
    key: str,
    *needs: str,
    up: SideUp = SideUp.OPENING,
    held: tuple[str, ...] = (),
    joins: tuple[Change, ...] | None = None,
) -> None:
    """Add the stages of one glue-up of the plan; what is glued is then `m.whole`.

    A glue-up that has no stages is one operation all the same, which says what is in its way.

    Args:
        m: Where the operations are added.
        plan: The leaf's glue plan; None where nothing is glued.
        key: Begins the ids of its operations.
        needs: Ids of the operations that come before.
        up: Which side lies up.
        held: Names of parts that are shut in without glue.
        joins: What becomes one once it is glued; None: all of it the leaf.
    """
    found = next((each for each in plan.tasks if each.task.key == key), None) if plan is not None else None
    if plan is None or found is None:
        return
    glue, before = plan.glue, tuple(needs)
    ends = _id(key, 0, 0)
    stages = found.stages or (None,)
    for n, stage in enumerate(stages, start=1):
        last = n == len(stages)
        closings = stage.closings if stage is not None else found.task.closings
        parts = tuple(dict.fromkeys(name for each in closings for name in each.parts))
        made = (
            Setting("of open minutes", stage.minutes if stage else 0.0, Unit.COUNT),
            many(stage.clamps if stage else 0, "clamp places"),
            Setting("hours in the clamps", round(glue.clamp_hours, 1), Unit.COUNT)
            if glue.clamp_hours >= SHORT_H
            else Setting("minutes in the clamps", round(60 * glue.clamp_hours), Unit.COUNT),
        )
        settings = tuple(Setting(s.label, round(s.value, 1), s.unit) for s in made)
        where = f", stage {n} of {len(stages)}" if len(stages) > 1 else ""
        words = "; ".join(each.words for each in closings[:4]) + (" …" if len(closings) > 4 else "")
        m.add(
            ends if last else _id(key, n, len(stages)),
            f"Glue up {found.task.name}{where}",
            Trade.GLUE,
            parts=parts,
            needs=before,
            settings=settings,
            hold=WorkpieceSetup(up),
            cautions=m.cautions("glue", "heavy"),
            stage=n,
            check=StepCheck("diagonals, difference", SQUARE)
            if key in ("frame", "again", "end")
            else StepCheck("flat by straightedge in the clamps", SPREAD),
            bucket=Bucket.GLUE,
            share=float(len(closings)),
            wait_hours=glue.clamp_hours,
            wait_for="the glue",
            how=found.trouble or f"{glue.name}: {words}",
            changes=_joined(m, found, n, (parts, held, joins)) if last or joins is None else (),
        )
        before = (ends if last else _id(key, n, len(stages)),)
    m.whole = ends


def _id(key: str, number: int, of: int) -> str:
    """Return the id of a stage: the last one of a glue-up has a name of its own, so that others can need it."""
    return f"glue:{key}" if not number else f"glue:{key}-{number}"


def _joined(
    m: StepBuilder,
    found: TaskPlan,
    stage: int,
    what: tuple[tuple[str, ...], tuple[str, ...], tuple[Change, ...] | None],
) -> tuple[Change, ...]:
    """Return what becomes one in a stage: what is glued in it, what is shut in, or what else is told."""
    parts, held, joins = what
    if joins is not None:
        return joins
    if stage == max(len(found.stages), 1):
        return m.joined((*parts, *held))
    return m.joined(parts, f"{found.task.name}, stage {stage}")
