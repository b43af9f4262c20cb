"""All operations of a leaf in working order: one step maker for each construction, then hardware, then its end.

Hours: those that the leaf costs, each kind of them shared out among the operations that it is spent in.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.base.units import IN_MM, Show
from oakmeasure.core.construction.registry import module
from oakmeasure.core.document.rules import ShopRules
from oakmeasure.core.making.end_steps import hang_and_finish, lining, size
from oakmeasure.core.making.finish import Schedule, finish_schedule
from oakmeasure.core.making.glue import GluePlan, plan_glue
from oakmeasure.core.making.hardware_steps import hardware
from oakmeasure.core.making.operation import Bucket, Operation
from oakmeasure.core.making.repair_steps import mends
from oakmeasure.core.making.step_builder import StepBuilder
from oakmeasure.core.making.wood_steps import measure_first, timber_steps
from oakmeasure.data import table

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign


@dataclass(frozen=True, slots=True)
class Making:
    """How a leaf is made."""

    operations: tuple[Operation, ...]
    """In working order, hours for all leaves of its opening."""
    glue: GluePlan | None
    """How it is glued up; None where nothing is."""
    finish: Schedule
    """Its coats."""

    def op(self, op_id: str) -> Operation | None:
        """Return an operation by its id; None where there is none.

        Args:
            op_id: Id of the operation.
        """
        return next((each for each in self.operations if each.id == op_id), None)

    @property
    def hours(self) -> float:
        """Return the hours of work, waiting not counted."""
        return sum(each.hours for each in self.operations)


def make(leaf: LeafDesign, rules: ShopRules, show: Show = IN_MM) -> Making | None:
    """Return how a leaf is made; None where there is no leaf.

    Args:
        leaf: The leaf, set out with its hardware.
        rules: The shop rules of the job.
        show: How lengths and other quantities are written.
    """
    build = leaf.build
    if build is None or leaf.body is None:
        return None
    choice = leaf.leaf.build
    glue = plan_glue(leaf.leaf, build, rules)
    finish = finish_schedule(leaf.leaf, leaf.body, leaf.fit.leaves)
    m = StepBuilder(leaf, build, show=show)
    of_kind = module(choice.kind, "steps")
    if hasattr(of_kind, "cut_later"):
        m.later = of_kind.cut_later(m, choice)
    measure_first(m)
    timber_steps(m)
    of_kind.steps(m, choice, glue)
    size(m)
    lining(m)
    hardware(m)
    hang_and_finish(m, finish)
    if hasattr(of_kind, "last_steps"):
        of_kind.last_steps(m)
    mends(m)
    return Making(m.steps.finished(_hours(m)), glue, finish)


def _hours(m: StepBuilder) -> Callable[[Operation], float]:
    """Return what gives an operation its share of the leaf's hours, by its bucket; a mend has its own."""
    shares: dict[Bucket, float] = {}
    for op in m.steps.items.values():
        shares[op.bucket] = shares.get(op.bucket, 0.0) + op.share
    # Of a leaf cut away by a stop, a bucket may hold nothing to do.
    buckets = [(bucket, whole) for bucket, whole in shares.items() if bucket and whole]
    each = {bucket: hours_of(m, bucket) * m.leaf.fit.leaves / whole for bucket, whole in buckets}
    return lambda op: each.get(op.bucket, 0.0) * op.share if op.bucket else op.hours


def hours_of(m: StepBuilder, bucket: Bucket) -> float:
    """Return the hours of one leaf for one kind of work, as its cost has them; hanging by the table of prices.

    Args:
        m: Where the operations are added.
        bucket: The kind of hours that the leaf's cost has them under.
    """
    if bucket is Bucket.HANGING:
        return float(table("prices")["hanging"]["hours"])
    return m.value(f"hours_{bucket}")
