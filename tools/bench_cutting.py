"""Cutting plans against their proofs: lists cut up on purpose, so that the least cost is known, and lists as they come.

Uses the instances of ../shared/cutting where they are; the others are made here, from seeds.
"""

from __future__ import annotations

import json
import random
import resource
import statistics
import time
from collections import Counter
from pathlib import Path

from oakmeasure.core.cutting.cut import cut
from oakmeasure.core.cutting.problem import CutKind, CutPlan, PartItem, Problem, StockItem, Watch
from oakmeasure.files.cutting_in import read_problem

INSTANCES = Path(__file__).parents[2] / "shared/cutting"
FOLDERS = {CutKind.BARS: "linear", CutKind.SHEETS: "sheets", CutKind.BOARDS: "boards"}
TEXTBOOK = ((1380, 22), (1520, 25), (1560, 12), (1710, 14), (1820, 18), (1880, 18), (1930, 20), (2000, 10), (2050, 12),
            (2100, 14), (2140, 16), (2150, 18), (2200, 20))  # fmt: skip
Row = tuple[str, str, str, bool]


def timed(problem: Problem, seconds: float) -> tuple[CutPlan, float, float]:
    """Return the plan, the seconds it took, and those until the first sound one."""
    first: list[float] = []
    watch = Watch(seconds)
    watch.tell = lambda _plan: first.append(watch.gone)
    start = time.perf_counter()
    plan = cut(problem, watch)
    return plan, time.perf_counter() - start, first[0] if first else watch.gone


def textbook() -> list[Row]:
    """The textbook instance, with its proof."""
    parts = tuple(PartItem(str(length), length, 0, many) for length, many in TEXTBOOK)
    plan, took, _ = timed(Problem(CutKind.BARS, (StockItem("bar", 5600, 0, None, 1.0),), parts, kerf=0.0), 5.0)
    return [("bars: textbook instance", "73, proven, under 1 s",
             f"{plan.cost:g}, {'proven' if plan.is_least else 'not proven'}, {took:.2f} s",
             plan.cost == 73 and plan.is_least and took < 1)]  # fmt: skip


def bars_as_they_come() -> list[Row]:
    """Lists of 300 to 3 000 parts: how far a plan of 2 s can be off at the most."""
    rows = []
    for many, kinds in ((300, 30), (1000, 60), (3000, 60)):
        source = random.Random(many + kinds)
        lengths = [source.randrange(250, 2300) for _ in range(kinds)]
        count = Counter(source.randrange(kinds) for _ in range(many))
        stock = (StockItem("2400", 2400, 0, None, 9.6), StockItem("3600", 3600, 0, None, 13.9),
                 StockItem("4200", 4200, 0, None, 16.4), StockItem("5400", 5400, 0, 20, 20.0))  # fmt: skip
        parts = tuple(PartItem(f"p{at}", lengths[at], 0, each) for at, each in sorted(count.items()))
        plan, took, first = timed(Problem(CutKind.BARS, stock, parts, kerf=3.2), 2.0)
        rows.append(
            (
                f"bars: {many} parts of {kinds} lengths",
                "within 0.4 % in 2 s",
                f"within {plan.gap:.2%}, {took:.2f} s; first plan {first:.2f} s",
                plan.gap < 0.004 and took < 3,
            )
        )
    return rows


def constructed(kind: CutKind, seconds: float) -> list[Row]:
    """Instances whose least cost is known: how many are met in time, and how dear the others are."""
    folder = INSTANCES / FOLDERS[kind]
    names = sorted(each.stem for each in folder.glob("*.json")) if folder.is_dir() else []
    if not names:
        return []
    met, dearer, firsts, late = 0, [], [], 0.0
    for name in names:
        known = json.loads((folder / f"{name}.json").read_text(encoding="utf-8"))
        marked = folder / f"{name}.defects.csv"
        problem = read_problem(folder / f"{name}.stock.csv", folder / f"{name}.parts.csv",
                               marked if marked.is_file() else None, kind=kind, kerf=known["kerf_mm"],
                               trim=known["trim_mm"])  # fmt: skip
        plan, took, first = timed(problem, seconds)
        met += plan.cost <= known["optimum_cost"] + 0.005 and not plan.left
        dearer.append(plan.cost / known["optimum_cost"] - 1)
        firsts.append(first)
        late = max(late, took - seconds)
    return [(f"{kind}: {len(names)} lists of 20 to 120 parts", f"least possible in {seconds:g} s",
             f"{met} of {len(names)}; the others {max(dearer):.0%} dearer at the most", met == len(names)),
            (f"{kind}: first sound plan", "under 0.3 s", f"{statistics.median(firsts):.2f} s median, "
             f"{max(firsts):.2f} s at the most", max(firsts) < 0.3),
            (f"{kind}: over its deadline", "under 1 s", f"{max(late, 0.0):.2f} s", late < 1)]  # fmt: skip


def rows() -> list[Row]:
    """Return the table of the cutting plans: what, budget, measured, whether it holds."""
    found = [*textbook(), *bars_as_they_come()]
    for kind in CutKind:
        found += constructed(kind, 2.0)
    memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    return [*found, ("cutting plans: memory of the whole bench", "under 500 MB", f"{memory:.0f} MB", memory < 500)]
