"""Plans of the demo's wood for tests, quickly."""

from __future__ import annotations

from oakmeasure.core.cutting.cut import cut
from oakmeasure.core.cutting.job_plan import JobPlan, lot_plan, needs
from oakmeasure.core.cutting.problem import Watch
from oakmeasure.core.solve import solve


def planned(job, leaves=("weighing-office", "drying-loft"), seconds=0.4):
    """Return the plan of some leaves' wood."""
    solution = solve(job)
    wanted = needs(job, [solution.leaf(each) for each in leaves])
    lots = [lot_plan(lot, cut(lot.problem, Watch(seconds)), job) for lot in wanted.lots]
    return JobPlan(tuple(lots), wanted.homeless)
