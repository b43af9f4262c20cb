"""Plans of the demo's wood for tests, quickly."""

from __future__ import annotations

import random
import time
from collections import Counter

from oakmeasure.core.cutting.model import CutKind, Deadline, Defect, PartItem, Problem, StockItem
from oakmeasure.core.cutting.plan import cut
from oakmeasure.core.planning.job_plan import lot_plan, needs
from oakmeasure.core.planning.plan_model import JobPlan
from oakmeasure.core.solver import solve


def work(seconds, **more):
    """Return the time for a search, in seconds that this process works: the same on a busy machine."""
    return Deadline(seconds, clock=time.process_time, **more)


def planned(job, leaves=("weighing-office", "drying-loft"), seconds=0.4):
    """Return the plan of some leaves' wood."""
    solution = solve(job)
    wanted = needs(job, [solution.leaf(each) for each in leaves])
    lots = [lot_plan(lot, cut(lot.problem, work(seconds)), job) for lot in wanted.lots]
    return JobPlan(tuple(lots), wanted.homeless)


def boards_cut_up(many, seed):
    """Return boards cut up with no waste but their defects, beside dearer ones, and what they cost."""
    source = random.Random(seed)
    stock, parts, defects, cost = [], [], [], 0.0
    for at in range(many):
        long, wide, y = source.choice((2000.0, 2600.0)), 0.0, 0.0
        for _ in range(2):
            width, x, end = float(source.choice((70, 95, 120))), 0.0, long
            if source.random() < 0.6:
                gone = float(source.randrange(40, 120))
                defects.append(Defect(f"b{at}", long - gone, y, gone, width))
                end -= gone
            while end - x > 900:
                piece = float(source.randrange(300, 800))
                parts.append((piece, width))
                x += piece + 4
            parts.append((end - x, width))
            y, wide = y + width + 4, y + width
        stock.append(StockItem(f"b{at}", long, wide, 1, round(long * wide * 3e-5, 2)))
        cost += stock[-1].price
    spare = [StockItem(f"x{at}", 2600, 300, 1, 30.0 + at) for at in range(2)]
    items = tuple(PartItem(f"p{at}", a, b, n) for at, ((a, b), n) in enumerate(Counter(parts).items()))
    return Problem(CutKind.BOARDS, (*stock, *spare), items, tuple(defects), kerf=4.0), cost
