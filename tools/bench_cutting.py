"""Cutting plans against their proofs: lists cut up on purpose, so that the least cost is known, and lists as they come.

Uses the instances of ../shared/cutting where they are; the others are made here, from seeds.
"""

from __future__ import annotations

import json
import math
import os
import random
import re
import resource
import statistics
import subprocess
import sys
import time
from collections import Counter
from dataclasses import replace
from pathlib import Path
from typing import Any

from oakmeasure.core.cutting.bound.any_width import prove_bound
from oakmeasure.core.cutting.lp.master import Master
from oakmeasure.core.cutting.model import CutKind, CutPlan, Deadline, Defect, PartItem, Problem, StockItem
from oakmeasure.core.cutting.plan import cut
from oakmeasure.core.cutting.two_d.stock_assignment import Shop
from oakmeasure.core.cutting.two_d.strips import finest_grid
from oakmeasure.files.tables.cutting_csv import read_problem

INSTANCES = Path(__file__).parents[2] / "shared/cutting"
FOLDERS = {CutKind.BARS: "linear", CutKind.SHEETS: "sheets", CutKind.BOARDS: "boards"}
TEXTBOOK = (
    (1380, 22),
    (1520, 25),
    (1560, 12),
    (1710, 14),
    (1820, 18),
    (1880, 18),
    (1930, 20),
    (2000, 10),
    (2050, 12),
    (2100, 14),
    (2140, 16),
    (2150, 18),
    (2200, 20),
)
SOLVED, PROVEN = 10.0, 60.0  # seconds
Row = tuple[str, str, str, bool]


def timed(problem: Problem, seconds: float) -> tuple[CutPlan, float, float]:
    """Return the plan, the seconds it took, and those until the first sound one."""
    first: list[float] = []
    watch = Deadline(seconds)
    watch.tell = lambda _plan: first.append(watch.gone)
    start = time.perf_counter()
    plan = cut(problem, watch)
    return plan, time.perf_counter() - start, first[0] if first else watch.gone


def textbook() -> list[Row]:
    """The textbook instance, with its proof."""
    parts = tuple(PartItem(str(length), length, 0, many) for length, many in TEXTBOOK)
    plan, took, _ = timed(Problem(CutKind.BARS, (StockItem("bar", 5600, 0, None, 1.0),), parts, kerf=0.0), 5.0)
    return [
        (
            "bars: textbook instance",
            "73, proven, under 1 s",
            f"{plan.cost:g}, {'proven' if plan.is_least else 'not proven'}, {took:.2f} s",
            plan.cost == 73 and plan.is_least and took < 1,
        )
    ]


def bars_as_they_come() -> list[Row]:
    """Lists of 300 to 3 000 parts: how far a plan of 2 s can be off at the most."""
    rows = []
    for many, kinds in ((300, 30), (1000, 60), (3000, 60)):
        source = random.Random(many + kinds)
        lengths = [source.randrange(250, 2300) for _ in range(kinds)]
        count = Counter(source.randrange(kinds) for _ in range(many))
        stock = (
            StockItem("2400", 2400, 0, None, 9.6),
            StockItem("3600", 3600, 0, None, 13.9),
            StockItem("4200", 4200, 0, None, 16.4),
            StockItem("5400", 5400, 0, 20, 20.0),
        )
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
        problem = read_problem(
            folder / f"{name}.stock.csv",
            folder / f"{name}.parts.csv",
            marked if marked.is_file() else None,
            kind=kind,
            kerf=known["kerf_mm"],
            trim=known["trim_mm"],
        )
        plan, took, first = timed(problem, seconds)
        met += plan.cost <= known["optimum_cost"] + 0.005 and not plan.left
        dearer.append(plan.cost / known["optimum_cost"] - 1)
        firsts.append(first)
        late = max(late, took - seconds)
    return [
        (
            f"{kind}: {len(names)} lists of 20 to 120 parts",
            f"least possible in {seconds:g} s",
            f"{met} of {len(names)}; the others {max(dearer):.0%} dearer at the most",
            met == len(names),
        ),
        (
            f"{kind}: first sound plan",
            "under 0.3 s",
            f"{statistics.median(firsts):.2f} s median, {max(firsts):.2f} s at the most",
            max(firsts) < 0.3,
        ),
        (f"{kind}: over its deadline", "under 1 s", f"{max(late, 0.0):.2f} s", late < 1),
    ]


def near_fits() -> list[Row]:
    """Bars cut up in whole 5 mm, under 0.05 % lost: how many are put together again in 10 s."""
    met, took_most = 0, 0.0
    for seed in (1, 2, 3):
        source, lengths = random.Random(seed), []
        for _ in range(20):
            left = 6000.0
            while left > 1500:
                lengths.append(5 * source.randrange(60, 280))
                left -= lengths[-1] + 3
            lengths.append(5 * int(left // 5))
        parts = tuple(PartItem(f"p{each}", each, 0, many) for each, many in sorted(Counter(lengths).items()))
        plan, took, _ = timed(Problem(CutKind.BARS, (StockItem("bar", 6000, 0, None, 10.0),), parts, kerf=3.0), 10.0)
        met, took_most = met + (plan.cost == 200 and plan.is_least), max(took_most, took)
    return [
        (
            "bars: 3 near-fit lists of 130 parts",
            "least possible in 10 s",
            f"{met} of 3, {took_most:.1f} s at the most",
            met == 3,
        )
    ]


def real_sheets(many: int, seed: int = 1) -> Problem:
    """Parts of a whole job as they come: carcase sides, shelves, door cores and rails, two in five with grain."""
    source = random.Random(seed)
    kinds = max(12, round(many**0.5 * 3))
    sizes = [
        (source.randrange(300, 2100), source.choice((95, 110, 150, 190, 220, 300, 380, 450, 560, 610)))
        for _ in range(kinds)
    ]
    count = Counter(source.randrange(kinds) for _ in range(many))
    parts = tuple(PartItem(f"p{at}", *sizes[at], each, source.random() < 0.6) for at, each in sorted(count.items()))
    return Problem(CutKind.SHEETS, (StockItem("sheet", 2440, 1220, None, 54.5),), parts, kerf=3.2, trim=6.0)


def packed(problem: Problem) -> int:
    """Return how many sheets the best of a general rectangle packer's guillotine modes takes for the same parts."""
    import rectpack

    (sheet,), kerf = problem.stock, problem.kerf
    room = [round(10 * (side - 2 * problem.trim + kerf)) for side in (sheet.length, sheet.width)]
    best = 10**6
    modes = [getattr(rectpack, name) for name in dir(rectpack) if name.startswith("Guillotine") and name[10:]]
    sorts = (rectpack.SORT_AREA, rectpack.SORT_LSIDE, rectpack.SORT_SSIDE)
    for mode in modes:
        for order in sorts:
            # It turns all parts or none: grain is kept by turning none; the best of both is taken where none has grain.
            packer = rectpack.newPacker(
                rotation=all(each.turns for each in problem.parts),
                pack_algo=mode,
                sort_algo=order,
                bin_algo=rectpack.PackingBin.BFF,
            )
            for each in problem.parts:
                for _ in range(each.quantity):
                    packer.add_rect(round(10 * (each.length + kerf)), round(10 * (each.width + kerf)))
            packer.add_bin(*room, count=10**4)
            packer.pack()
            best = min(best, len(packer))
    return best


def least_proven(many: int) -> int:
    """Return how many sheets any plan of so many parts takes at the least, as far as it is proven in a minute."""
    shop, begun = Shop(real_sheets(many)), time.perf_counter()
    master, bounds = Master(shop, shop.demand, {0: None}), [0.0]
    master.solve(lambda: time.perf_counter() - begun > SOLVED, finest=finest_grid(shop), near=1e-4)
    prove_bound(master, lambda: time.perf_counter() - begun > PROVEN, bounds.append)
    return math.ceil(bounds[-1] / shop.price[0] - 1e-3)


def alone(what: str) -> Any:
    """Return what a part of the bench finds in a process of its own: what the plans before it have left in memory would
    be counted with it, and what it takes itself with theirs.
    """
    run = subprocess.run([sys.executable, __file__, what], capture_output=True, text=True, check=True)
    return json.loads(run.stdout)


def sheets_as_they_come() -> list[Row]:
    """Whole jobs of sheet parts against the least that is proven of them, and against a general rectangle packer."""
    rows = []
    for many in (300, 600, 1000, 3000):
        problem = real_sheets(many)
        plan, took, first = timed(problem, 10.0)
        ours, least = sum(each for _, each in plan.used), max(alone(str(many)), round(plan.bound / 54.5))
        over, early = ours / least - 1, round(plan.bound / 54.5)
        rows.append(
            (
                f"sheets: {many} parts of a job, with grain",
                "within 1.5 % in 10 s",
                f"{ours}: {over:.1%} over {least}, proven in a minute, {plan.gap:.1%} over {early}, proven in its "
                f"{took:.1f} s; first plan {first:.2f} s",
                over <= 0.015 and took < 11,
            )
        )
        if many <= 600:
            rows += against_a_packer(problem, ours)
    return rows


def against_a_packer(problem: Problem, ours: int) -> list[Row]:
    """The same list, and the list without grain: the packer cannot keep one part's grain and turn another."""
    free = replace(problem, parts=tuple(replace(each, turns=True) for each in problem.parts))
    rows, many = [], sum(each.quantity for each in problem.parts)
    for words, mine, theirs in (
        ("with grain (the packer turns none)", ours, packed(problem)),
        ("without grain", sum(each for _, each in timed(free, 10.0)[0].used), packed(free)),
    ):
        fewer = 1 - mine / theirs
        rows.append(
            (
                f"sheets: {many} parts {words}, against a rectangle packer",
                "5 % fewer sheets",
                f"{mine} against {theirs}: {fewer:.1%} fewer",
                fewer >= 0.05,
            )
        )
    return rows


def cut_up_sheets(many: int) -> Problem:
    """Small parts and long ones, of many lengths in a few widths, as sheets cut up by chance with 4 % waste hold them:
    lists that the bound of the material proves.
    """
    source, kerf = random.Random(1), 3
    lengths, widths = (
        [source.randrange(300, 2100) for _ in range(60)],
        (95, 110, 150, 190, 220, 300, 380, 450, 560, 610),
    )
    parts: Counter[tuple[int, int]] = Counter()
    while sum(parts.values()) < many:
        y = 1208
        while y >= widths[0]:
            wide, x, row = source.choice([each for each in widths if each <= y]), 2428, []
            while fit := [each for each in lengths if each <= x]:
                row.append(source.choice(fit))
                x -= row[-1] + kerf
            row[-1] += x - source.randrange(20) if x > 60 else 0
            parts.update((each, wide) for each in row)
            y -= wide + kerf
    items = tuple(PartItem(f"p{a}x{b}", a, b, n, False) for (a, b), n in sorted(parts.items()))
    return Problem(CutKind.SHEETS, (StockItem("sheet", 2440, 1220, None, 54.5),), items, kerf=float(kerf), trim=6.0)


def sheets_cut_up() -> list[Row]:
    """Long lists of sheet parts against a bound that is near enough to prove them."""
    rows = []
    for many in (1000, 3000):
        problem = cut_up_sheets(many)
        plan, took, first = timed(problem, 10.0)
        ours = sum(each for _, each in plan.used)
        rows.append(
            (
                f"sheets: {many} parts of {len(problem.parts)} kinds, sheets cut up",
                "within 1.5 % in 10 s",
                f"{ours}: within {plan.gap:.1%}, {took:.1f} s; first plan {first:.2f} s",
                plan.gap <= 0.015 and took < 11,
            )
        )
    return rows


def sheets_together() -> list[Row]:
    """All lists of sheets whose least cost is known, planned as one."""
    folder = INSTANCES / FOLDERS[CutKind.SHEETS]
    stock, parts, least = [], [], 0.0
    for path in sorted(folder.glob("*.json")):
        known = json.loads(path.read_text(encoding="utf-8"))
        one = read_problem(
            folder / f"{path.stem}.stock.csv",
            folder / f"{path.stem}.parts.csv",
            None,
            kind=CutKind.SHEETS,
            kerf=known["kerf_mm"],
            trim=known["trim_mm"],
        )
        stock, least = list(one.stock[:1]), least + known["optimum_cost"]
        parts += [replace(each, name=f"{path.stem}-{each.name}") for each in one.parts]
        problem = replace(one, stock=tuple(stock), parts=tuple(parts))
    if not parts:
        return []
    plan, took, first = timed(problem, 10.0)
    many, over = sum(each.quantity for each in parts), plan.cost / least - 1
    return [
        (
            f"sheets: {many} parts, all those lists as one",
            "within 1.5 % in 10 s",
            f"{over:.1%} over what they were cut from, {took:.1f} s; first plan {first:.2f} s",
            over <= 0.015,
        )
    ]


def real_boards(many: int, seed: int = 1) -> Problem:
    """Stiles, rails, muntins, panel strips of many doors, on boards with knots and wane, each one of its kind."""
    source = random.Random(seed)
    parts: Counter[tuple[int, int]] = Counter()
    while sum(parts.values()) < many:
        high, wide, stile = source.randrange(1850, 2150), source.randrange(600, 900), source.choice((90, 95, 100, 110))
        inner = wide - 2 * stile + 60
        parts[high, stile] += 2
        for rail in (source.choice((95, 110)), source.choice((150, 190)), source.choice((190, 220))):
            parts[inner, rail] += 1
        parts[source.randrange(500, 900), stile] += 2
    area = sum(long * wide * each for (long, wide), each in parts.items())
    stock, defects, have = [], [], 0.0
    while have < 2.4 * area:
        name, long, wide = f"B{len(stock) + 1}", source.choice((2400, 3000, 3600, 4200)), source.randrange(170, 300)
        stock.append(StockItem(name, long, wide, 1, round(long * wide * 1e-6 * source.uniform(28, 42), 2)))
        have += long * wide
        for _ in range(source.choice((0, 0, 1, 1, 2))):
            a, b = source.randrange(30, 90), source.randrange(25, 70)
            defects.append(Defect(name, source.randrange(0, long - a), source.randrange(0, wide - b), a, b))
        if source.random() < 0.3:
            defects.append(Defect(name, 0, 0, long, source.randrange(8, 22)))
    items = tuple(PartItem(f"p{at}", long, wide, each) for at, ((long, wide), each) in enumerate(sorted(parts.items())))
    return Problem(CutKind.BOARDS, tuple(stock), items, tuple(defects), kerf=3.2, trim=10.0)


def boards_as_they_come() -> list[Row]:
    """Whole jobs of doors on boards that are all different, against the bound of the programme."""
    rows = []
    for many in (80, 300, 1000):
        plan, took, first = timed(real_boards(many), 10.0)
        rows.append(
            (
                f"boards: {many} parts of doors",
                "within 4 % in 10 s" if many >= 300 else "–",
                f"within {plan.gap:.1%}, {took:.1f} s; first plan {first:.2f} s"
                + (f"; {sum(each for _, each in plan.left)} left" if plan.left else ""),
                plan.gap < 0.04 or many < 300,
            )
        )
    return rows


def whole_job() -> list[Row]:
    """The demo job's wood, lot by lot, as the window plans it."""
    from oakmeasure.core.planning.job_plan import needs
    from oakmeasure.core.solver import solve
    from oakmeasure.files.job.job_file import demo_job
    from oakmeasure.files.plan_worker import improve

    job = demo_job()
    lots = needs(job, solve(job).leaves).lots
    best: dict[int, CutPlan] = {}
    start = time.perf_counter()
    firsts: list[float] = []

    def told(at: int, plan: CutPlan) -> None:
        best[at] = plan
        if len(best) == len(lots) and not firsts:
            firsts.append(time.perf_counter() - start)

    improve([each.problem for each in lots], 10.0, told)
    cost, bound = sum(each.cost for each in best.values()), sum(each.bound for each in best.values())
    proven = sum(each.is_least for each in best.values())
    parts = sum(part.quantity for lot in lots for part in lot.problem.parts)
    return [
        (
            f"the demo job: {parts} parts in {len(lots)} lots",
            "–",
            f"within {1 - bound / cost:.1%}; {proven} lots least possible; all planned once after {firsts[0]:.1f} s",
            True,
        )
    ]


def frames_while_planning() -> list[Row]:
    """The longest that the window's loop stood still while the wood of the demo job was planned."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from PySide6.QtCore import QTimer

    from oakmeasure.app.shell.start import application, open_window
    from oakmeasure.core.drawings.views import TimberPage
    from oakmeasure.core.figures.check import Stage
    from oakmeasure.files.job.job_file import demo_job

    app = application()
    window = open_window(demo_job())
    window.resize(1280, 800)
    window.session.whole()
    window.session.go_to(Stage.TIMBER)
    window.sheet().go_to_page(TimberPage.PLAN)
    worst, last = 0.0, time.perf_counter()

    def beat() -> None:
        nonlocal worst, last
        now = time.perf_counter()
        worst, last = max(worst, now - last - 0.01), now

    timer = QTimer()
    timer.setInterval(10)
    timer.timeout.connect(beat)
    for _ in range(20):
        app.processEvents()
    last = time.perf_counter()
    timer.start()
    end = time.perf_counter() + 15
    while window.timber.planner.is_running and time.perf_counter() < end:
        app.processEvents()
        time.sleep(0.002)
    timer.stop()
    window.session.undo_stack.setClean()
    window.close()
    return [("window while it plans: longest frame", "under 100 ms", f"{1000 * worst:.0f} ms", worst < 0.1)]


def rows() -> list[Row]:
    """Return the table of the cutting plans: what, budget, measured, whether it holds."""
    found = [*textbook(), *bars_as_they_come(), *near_fits()]
    for kind in CutKind:
        found += constructed(kind, 2.0)
    found += [*sheets_together(), *sheets_cut_up(), *sheets_as_they_come(), *boards_as_they_come(), *whole_job()]
    for each in ALONE:
        found += [(words, wanted, said, holds) for words, wanted, said, holds in alone(each)]
    memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    return [*found, ("cutting plans: memory of the whole bench", "under 500 MB", f"{memory:.0f} MB", memory < 500)]


def memory_of_two(problem: Problem) -> list[Row]:
    """What a long list takes: the process that plans and the one that proves, which has most of its memory from it."""
    timed(problem, 10.0)
    # A process begins with the peak of the one that started it, in what getrusage tells; here it is its own.
    peak = re.search(r"VmHWM:\s*(\d+)", Path("/proc/self/status").read_text())
    assert peak is not None
    both = [int(peak[1]) / 1024, resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1024]
    kind = f"{problem.kind.value}: {sum(each.quantity for each in problem.parts)} parts"
    return [(f"{kind}, memory of both processes", "under 500 MB", f"{both[0]:.0f} + {both[1]:.0f} MB", sum(both) < 500)]


ALONE = {
    "frames": frames_while_planning,
    "boards": lambda: memory_of_two(real_boards(1000)),
    "sheets": lambda: memory_of_two(real_sheets(3000)),
}

if __name__ == "__main__":
    print(json.dumps(ALONE[sys.argv[1]]() if sys.argv[1] in ALONE else least_proven(int(sys.argv[1]))))
