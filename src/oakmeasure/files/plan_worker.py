"""Planning in a process of its own, so that the window stays live: problems in as JSON, better plans out line by line.

Every lot gets a quick sound plan first; then the time goes to those that are not proven, each as much as the others.
Run as `python -m oakmeasure.files.plan_worker`; it reads one JSON document from its input and ends by itself.
"""

from __future__ import annotations

import json
import sys
from collections.abc import Callable, Sequence
from dataclasses import asdict
from functools import partial
from typing import Any

from oakmeasure.core.cutting.model import Cut, CutKind, CutPlan, Deadline, Defect, PartItem, Problem, StockItem
from oakmeasure.core.cutting.plan import cut
from oakmeasure.core.document.first_cut import FirstCut

QUICK = 0.15  # seconds for the first plan of a lot
LEAST = 0.3  # seconds for a lot that is improved


def encoded(problems: Sequence[Problem], seconds: float) -> str:
    """Return the document that the worker reads.

    Args:
        problems: The problems.
        seconds: For how long the worker may look, s.
    """
    return json.dumps({"seconds": seconds, "problems": [asdict(each) for each in problems]})


def problem_from(document: dict[str, Any]) -> Problem:
    """Return a problem from its document.

    Args:
        document: The problem as JSON gave it.

    Raises:
        KeyError: TypeError or ValueError for another document.
    """
    first = document["first"]
    lists: dict[str, tuple[Any, ...]] = {
        name: tuple(kind(**each) for each in document[name])
        for name, kind in (("stock", StockItem), ("parts", PartItem), ("defects", Defect))
    }
    return Problem(
        CutKind(document["kind"]),
        lists["stock"],
        lists["parts"],
        lists["defects"],
        document["kerf"],
        document["trim"],
        None if first is None else FirstCut(first),
        document["stages"],
    )


def plan_from(document: dict[str, Any]) -> CutPlan:
    """Return a plan from its document.

    Args:
        document: The plan as JSON gave it.

    Raises:
        KeyError: TypeError or ValueError for another document.
    """
    cuts = tuple(Cut(**each) for each in document["cuts"])
    left, used = (tuple((name, many) for name, many in document[each]) for each in ("left", "used"))
    return CutPlan(document["cost"], document["bound"], cuts, left, used, document["seconds"])


def improve(problems: Sequence[Problem], seconds: float, told: Callable[[int, CutPlan], None]) -> None:
    """Plan each problem, and tell of every better plan with the problem's place.

    Args:
        problems: The problems.
        seconds: For how long it may look, s.
        told: Is called with the problem's place and each better plan of it.
    """
    best: list[CutPlan] = []
    for at, problem in enumerate(problems):
        plan = cut(problem, Deadline(QUICK))
        best.append(plan)
        told(at, plan)
    open_ones = [at for at, plan in enumerate(best) if not plan.is_least and problems[at].parts]

    def better(at: int, plan: CutPlan) -> None:
        now = best[at]
        left, before = sum(many for _, many in plan.left), sum(many for _, many in now.left)
        if (left, plan.cost, -plan.bound) < (before, now.cost, -now.bound):
            best[at] = plan
            told(at, plan)

    for at in open_ones:
        share = max(LEAST, seconds / len(open_ones))
        better(at, cut(problems[at], Deadline(share, tell=partial(better, at))))


def main() -> int:
    """Read the problems, write a line for each better plan. Returns the exit status."""
    document = json.loads(sys.stdin.read())

    def told(at: int, plan: CutPlan) -> None:
        print(json.dumps({"at": at, "plan": asdict(plan)}), flush=True)

    improve([problem_from(each) for each in document["problems"]], float(document["seconds"]), told)
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
