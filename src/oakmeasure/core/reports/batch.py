"""One operation over all leaves of a job: who has it, with which settings, how far each is."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.making.log import Progress, progress
from oakmeasure.core.making.operation import Operation

if TYPE_CHECKING:
    from oakmeasure.core.solution import LeafSolution


@dataclass(frozen=True, slots=True)
class OfLeaf:
    """The operation on one leaf."""

    leaf_id: str
    """Id of the leaf in the job."""
    leaf: str
    """Name of the leaf."""
    op: Operation
    """The operation."""
    progress: Progress
    """How far it has come."""


@dataclass(frozen=True, slots=True)
class Batch:
    """An operation that several leaves have."""

    op_id: str
    """Id of the operation that they share."""
    name: str
    """What is done."""
    leaves: tuple[OfLeaf, ...]
    """The leaves that share it."""
    hours: float
    """Hours that are left of it over all of them."""

    @property
    def done(self) -> int:
        """How many of its leaves are done."""
        return sum(each.progress is Progress.DONE for each in self.leaves)

    def alike(self) -> tuple[tuple[OfLeaf, ...], ...]:
        """Return the leaves that still have it in groups that share every setting, the largest first.

        A set-up for each.

        Where all have it behind them, all are returned.
        """
        left = [each for each in self.leaves if each.progress is not Progress.DONE] or list(self.leaves)
        groups: dict[tuple[tuple[str, float], ...], list[OfLeaf]] = {}
        for each in left:
            key = tuple((s.label, round(s.value, 1)) for s in each.op.settings)
            groups.setdefault(key, []).append(each)
        return tuple(tuple(each) for each in sorted(groups.values(), key=len, reverse=True))


def batches(leaves: Iterable[LeafSolution]) -> tuple[Batch, ...]:
    """Return every operation of the job with the leaves that have it, about in working order.

    Args:
        leaves: The leaves, worked out.
    """
    found: dict[str, list[tuple[float, OfLeaf]]] = {}
    for leaf in leaves:
        if leaf.making is None:
            continue
        operations = leaf.making.operations
        states = progress(operations, leaf.leaf.making.log)
        for at, op in enumerate(operations):
            mine = OfLeaf(leaf.leaf.id, leaf.leaf.name, op, states[op.id])
            found.setdefault(op.id, []).append((at / len(operations), mine))
    ordered = sorted(found.items(), key=lambda each: sum(at for at, _ in each[1]) / len(each[1]))
    return tuple(
        Batch(
            op_id,
            rows[0][1].op.name.partition(" in the loose ")[0],
            tuple(each for _, each in rows),
            sum(each.op.hours for _, each in rows if each.progress is not Progress.DONE),
        )
        for op_id, rows in ordered
    )
