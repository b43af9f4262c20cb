"""The second process, which proves what boards cost at the least while plans are made."""

from __future__ import annotations

import itertools
import multiprocessing
import os
import random
import signal
import subprocess
import sys
import time
from dataclasses import replace
from pathlib import Path

import pytest

from oakmeasure.core.cutting.bound import bound_process
from oakmeasure.core.cutting.lp.master import Master
from oakmeasure.core.cutting.model import CENT, CutKind, Defect, PartItem, Problem, StockItem
from oakmeasure.core.cutting.plan import cut
from oakmeasure.core.cutting.two_d.stock_assignment import Shop
from planning import boards_cut_up, work

AT_WORK = """
import sys
sys.path.insert(0, sys.argv[1])
from oakmeasure.core.cutting.plan import cut
from oakmeasure.core.cutting.model import Deadline
from planning import boards_cut_up, work
cut(boards_cut_up(40, 1)[0], Deadline(60.0))
"""


def graded(problem):
    """Every other part may hold the knots that the rest keeps off; the ends are of no use to any."""
    parts = tuple(replace(each, clear=at % 2) for at, each in enumerate(problem.parts))
    knots = [replace(each, rank=at % 2) for at, each in enumerate(problem.defects)]
    return replace(problem, parts=parts, defects=tuple(knots))


@pytest.mark.parametrize("is_graded", [False, True])
def test_what_is_proven_aside_is_more_than_the_material_and_never_more_than_the_least(is_graded):
    problem, least = boards_cut_up(30, 3)
    problem = graded(problem) if is_graded else problem
    shop = Shop(problem)
    k = shop.kerf
    area = sum(n * (a + k) * (b + k) for n, (a, b) in zip(shop.demand, shop.sizes, strict=True))
    material = area * min(shop.price[each.at] / shop.room(each) for each in shop.stock)
    stock = {each.at: each.count for each in shop.stock}
    copy = bound_process.started(work(4.0), bound_process.of_strips(shop, shop.demand, stock))
    assert copy is not None
    copy.prices()
    while copy._copy.is_alive():
        copy.listen()
        time.sleep(0.02)
    found = copy.listen()
    copy.close()
    assert material < found <= CENT * least + 0.01


def test_bound_of_a_long_list_is_told_when_it_rises_and_no_process_is_left():
    stock = tuple(StockItem(f"b{at}", 2000 + 70 * at, 230, 1, 30.0 + at) for at in range(40))
    parts = tuple(PartItem(f"p{at}", 500 + 37 * at, 90 + at % 3 * 10, 10) for at in range(18))
    knots = tuple(Defect(f"b{at}", 300 + 41 * at, 5 * at, 60, 30) for at in range(0, 40, 2))
    told = []
    plan = cut(Problem(CutKind.BOARDS, stock, parts, knots, kerf=3.0), work(4.0, tell=told.append))
    assert told[0].bound < plan.bound <= plan.cost
    assert any(a.cost == b.cost and a.bound < b.bound for a, b in itertools.pairwise(told))
    assert plan.gap < 0.1
    assert not multiprocessing.active_children()


def test_without_a_second_process_the_bound_is_this_ones_own(monkeypatch):
    def refused(*_args):
        raise BlockingIOError

    monkeypatch.setattr(bound_process, "BoundProcess", refused)
    problem, least = boards_cut_up(30, 3)
    plan = cut(problem, work(4.0))
    assert 0.9 * least < plan.bound <= least + 0.001


def test_what_breaks_in_the_copy_breaks_no_plan(monkeypatch):
    monkeypatch.setattr(bound_process.sample, "prices", lambda *_args: 1 / 0)
    problem, _ = boards_cut_up(30, 3)
    plan = cut(problem, work(2.5))
    assert not plan.left


def test_parts_of_two_grades_have_no_bound_in_the_programme_itself():
    """A part that may hold a knot may reach out of it into clear wood, which the programme never lets it."""
    problem, _ = boards_cut_up(4, 3)
    shop = Shop(graded(problem))
    master = Master(shop, shop.demand, {each.at: each.count for each in shop.stock})
    master.begin([float(a * b) for a, b in shop.sizes])
    master.solve(lambda: False, finest=1)
    assert master.bound == 0


def test_sheets_that_are_least_possible_are_proven_so_where_their_material_does_not():
    """It ends by itself as soon as it is proven; the time only stops what would never be."""
    source = random.Random(4)
    parts = tuple(
        PartItem(f"p{at}", source.randrange(300, 2100), source.choice((95, 150, 220, 300, 450, 610)), 8)
        for at in range(20)
    )
    problem = Problem(CutKind.SHEETS, (StockItem("sheet", 2440, 1220, None, 50.0),), parts, kerf=3.2, trim=6.0)
    told = []
    plan = cut(problem, work(60.0, tell=told.append))
    assert told[0].bound < plan.bound
    assert plan.is_least


def test_copy_ends_with_the_process_that_it_works_for():
    tests = str(Path(__file__).parents[2])
    first = subprocess.Popen([sys.executable, "-c", AT_WORK, tests])
    children = Path(f"/proc/{first.pid}/task/{first.pid}/children")
    due = time.monotonic() + 30
    while not children.read_text().split() and time.monotonic() < due:
        time.sleep(0.05)
    (copy,) = (int(each) for each in children.read_text().split())
    first.send_signal(signal.SIGKILL)
    first.wait()
    while is_running(copy) and time.monotonic() < due + 15:
        time.sleep(0.05)
    assert not is_running(copy)


def is_running(process):
    try:
        os.kill(process, 0)
        return Path(f"/proc/{process}/stat").read_text().split()[2] != "Z"
    except (ProcessLookupError, FileNotFoundError):
        return False
