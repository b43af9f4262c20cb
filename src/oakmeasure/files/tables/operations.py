"""Operations as plain values and as CSV."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from oakmeasure.core.base.units import Show
from oakmeasure.core.making.log import progress
from oakmeasure.core.making.operation import Operation
from oakmeasure.core.solution import LeafSolution
from oakmeasure.data import table
from oakmeasure.files.tables.lists import written_csv

HEADER = ("leaf", "no.", "id", "operation", "settings", "held", "check", "needs", "hours", "waits h", "state")


def operations_record(leaves: Iterable[LeafSolution], show: Show) -> dict[str, Any]:
    """Return the operations of leaves in working order; lengths in mm, times in hours.

    Args:
        leaves: The leaves, worked out.
        show: How lengths and other quantities are written.
    """
    return {
        "leaves": [
            {
                "id": leaf.leaf.id,
                "name": leaf.leaf.name,
                "construction": leaf.leaf.build.kind,
                "operations": [_record(op, show, str(states[op.id])) for op in leaf.making.operations],
            }
            for leaf in leaves
            if leaf.making is not None
            for states in (progress(leaf.making.operations, leaf.leaf.making.log),)
        ]
    }


def _record(op: Operation, show: Show, state: str) -> dict[str, Any]:
    cautions = table("cautions")
    return {
        "id": op.id,
        "name": op.name,
        "trade": str(op.trade),
        "needs": list(op.needs),
        "early": op.early,
        "why_now": op.why,
        "later": op.later,
        "parts": list(op.parts),
        "settings": [
            {"label": each.label, "value": round(each.value, 3), "unit": str(each.unit), "figure": each.figure}
            for each in op.settings
        ],
        "held": str(op.hold.up) if op.hold is not None else "",
        "head_left": op.hold.head_left if op.hold is not None else None,
        "check": op.check.in_words(show) if op.check is not None else "",
        "limit_mm": op.check.limit if op.check is not None else None,
        "cautions": [cautions[key] for key in op.cautions],
        "practice": op.practice,
        "how": op.how,
        "hours": round(op.hours, 3),
        "wait_hours": round(op.wait_hours, 2),
        "state": state,
    }


def operations_csv(leaves: Iterable[LeafSolution], show: Show) -> str:
    """Return the operations of leaves as CSV, in working order.

    Args:
        leaves: The leaves, worked out.
        show: How lengths and other quantities are written.
    """
    rows = []
    for leaf in leaves:
        if leaf.making is None:
            continue
        states = progress(leaf.making.operations, leaf.leaf.making.log)
        for n, op in enumerate(leaf.making.operations, start=1):
            rows.append(
                [
                    leaf.leaf.name,
                    str(n),
                    op.id,
                    op.name,
                    "; ".join(s.in_words(show) for s in op.settings),
                    str(op.hold.up) if op.hold else "",
                    op.check.in_words(show) if op.check else "",
                    " ".join(op.needs),
                    f"{op.hours:.2f}",
                    f"{op.wait_hours:g}",
                    str(states[op.id]),
                ]
            )
    return written_csv(HEADER, rows)
