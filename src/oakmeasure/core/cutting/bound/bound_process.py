"""The bound of a long list, proven in a copy of this process while this one makes plans.

A copy is there at once and knows the whole problem (fork); what it finds comes back through a pipe. For boards it
works at the same programme: first the prices of a sample, which both begin at, then columns until the time is nearly
over. For sheets it goes on from the programme with strips of any width.
"""

from __future__ import annotations

import math
import multiprocessing
import os
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from multiprocessing.connection import Connection
from typing import Any

from oakmeasure.core.cutting.bound.any_width import prove_bound
from oakmeasure.core.cutting.lp import sample
from oakmeasure.core.cutting.lp.master import Master
from oakmeasure.core.cutting.model import Deadline
from oakmeasure.core.cutting.two_d.stock_assignment import Shop

NEAR = 1e-4  # of the cost; a bound as near is near enough
# Of the time, at which the copy ends, and at which it reckons a last bound of strips
END = 0.96
LAST = 0.9
LEAST_TIME = 2.0  # seconds, from which a copy is worth its start
POLLED = 0.05  # seconds
NICER = 5  # the copy gives way to what somebody waits for
Tell = Callable[[str, Any], None]  # "prices" or "bound", and that
Work = Callable[[Tell, Deadline], None]  # told by the first, until the second is over


class BoundProcess:
    """The copy, and what it has told so far."""

    def __init__(self, watch: Deadline, work: Work) -> None:
        self.watch, self.bound = watch, 0.0
        self._prices: list[float] | None = None
        self._has_prices = False
        context = multiprocessing.get_context("fork")
        self._heard, said = context.Pipe(duplex=False)
        self._copy = context.Process(target=_run, args=(work, watch, watch.gone, said), daemon=True)
        self._copy.start()
        said.close()  # here; the copy has its own end

    def prices(self) -> list[float] | None:
        """Return what the sample tells of the parts' worths, when it does; None where it does not."""
        while not self._has_prices and not self.watch.over() and self._listen(POLLED):
            pass
        return self._prices

    def listen(self) -> float:
        """Return the best bound so far, hundredths."""
        while self._listen(0.0):
            pass
        return self.bound

    def close(self) -> None:
        """End the copy."""
        self._copy.kill()
        self._copy.join()
        self._heard.close()

    def _listen(self, seconds: float) -> bool:
        """Take what is told within that time; return whether there may be more."""
        try:
            if not self._heard.poll(seconds):
                return seconds > 0
            what, told = self._heard.recv()
        except (EOFError, OSError):  # it has ended
            return False
        if what == "prices":
            self._prices, self._has_prices = told, True
        else:
            self.bound = max(self.bound, told)
        return True


def started(watch: Deadline, work: Work) -> BoundProcess | None:
    """Return a copy at work; None where the time is too short for it, or the machine has no room.

    Args:
        watch: The time that there is, who may stop it, and whom to tell.
        work: What the copy proves.
    """
    if watch.left < LEAST_TIME:
        return None
    try:
        return BoundProcess(watch, work)
    except OSError:
        return None


def of_strips(shop: Shop, demand: list[int], stock: dict[int, int | None]) -> Work:
    """Return the proof for what is cut in two stages. Tells of the prices of a sample first.

    Args:
        shop: The problem in whole tenths.
        demand: How many of each part are still wanted.
        stock: How many of each kind of stock there are; None for no limit.
    """

    def work(tell: Tell, watch: Deadline) -> None:
        prices = sample.prices(shop, demand, stock, (), watch.over)
        tell("prices", prices)
        master = Master(_of_one_level(shop), demand, stock)
        if not master.proves:
            return
        if prices is not None:
            master.begin(prices)

        def is_due() -> bool:
            tell("bound", master.bound)
            return watch.over() or watch.gone > LAST * watch.seconds

        master.solve(is_due, finest=1, near=NEAR)
        tell("bound", master.bound)

    return work


def of_sheets(master: Master) -> Work:
    """Return the proof for sheets that are cut in three stages, from their programme, solved already or not.

    Args:
        master: The linear programme of strips and what lies in them.
    """

    def work(tell: Tell, watch: Deadline) -> None:
        if not math.isfinite(master.value):
            master.solve(watch.over, finest=1, near=NEAR)
        prove_bound(master, watch.over, partial(tell, "bound"))

    return work


def _run(work: Work, watch: Deadline, spent: float, said: Connection) -> None:
    """Do the work in the copy."""
    _keep_quiet()
    parent = os.getppid()

    def tell(what: str, told: Any) -> None:
        said.send((what, told))

    time = Deadline(END * watch.seconds, stop=lambda: os.getppid() != parent, clock=watch.clock, spent=spent)
    work(tell, time)


def _of_one_level(shop: Shop) -> Shop:
    """Return the same where every part may hold what any of them may: to keep off more never costs less."""
    if len(shop.levels) == 1:
        return shop
    parts = tuple(replace(each, clear=shop.levels[0]) for each in shop.problem.parts)
    return Shop(replace(shop.problem, parts=parts))


def _keep_quiet() -> None:
    """Give way to others, and write nothing where the first process writes its plans."""
    os.nice(NICER)
    nothing = os.open(os.devnull, os.O_WRONLY)
    for each in (1, 2):
        os.dup2(nothing, each)
