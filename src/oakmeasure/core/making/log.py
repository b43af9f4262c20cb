"""What the log says: how far each operation is, how long it took, what was read last, which mishaps are not mended."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum

from oakmeasure.core.document.production import LogEntry, LogKind, ReadingKind
from oakmeasure.core.making.operation import Operation, Trade

LONGEST_H = 12.0  # of one sitting: longer means that nobody wrote the end
PRIOR_H = 2.0  # hours of the estimate that weigh against one's own records: ours


class Progress(StrEnum):
    """How far an operation is."""

    OPEN = ""
    READY = "next"
    RUNNING = "running"
    STOPPED = "stopped"
    DONE = "done"


@dataclass(frozen=True, slots=True)
class Spent:
    """The hours that an operation has taken."""

    hours: float = 0.0
    """Hours at it so far, of sittings that have an end."""
    since: datetime | None = None
    """The running sitting's start."""
    done: datetime | None = None
    """When it was done."""
    sittings: int = 0
    """How often one sat down to it."""


def spent(log: Sequence[LogEntry], op_id: str) -> Spent:
    """Return how long was spent on an operation: from each start to the stop, the end, or the next start.

    Args:
        log: The log of the leaf.
        op_id: Id of the operation.
    """
    hours, since, done, sittings = 0.0, None, None, 0
    for entry in in_time(log):
        if entry.op != op_id or entry.kind not in (LogKind.START, LogKind.STOP, LogKind.DONE):
            continue
        if since is not None:
            hours += min((entry.at - since) / timedelta(hours=1), LONGEST_H)
            sittings += 1
        since = entry.at if entry.kind is LogKind.START else None
        if entry.kind is LogKind.DONE:
            done = entry.at
        elif entry.kind is LogKind.START:
            done = None  # taken up again
    return Spent(hours, since, done, sittings)


def in_time(log: Iterable[LogEntry]) -> list[LogEntry]:
    """Return the entries in the order of time; those of one moment as they were written.

    Args:
        log: The log.
    """
    return sorted(log, key=lambda entry: entry.at)


def all_spent(operations: Sequence[Operation], log: Sequence[LogEntry]) -> dict[str, Spent]:
    """Return what was spent on every operation; those that nobody began are left out.

    Args:
        operations: The operations, in working order.
        log: The log of the leaf.
    """
    begun = dict.fromkeys(entry.op for entry in log if entry.op)
    known = {op.id for op in operations}
    return {op_id: spent(log, op_id) for op_id in begun if op_id in known}


def progress(operations: Sequence[Operation], log: Sequence[LogEntry]) -> dict[str, Progress]:
    """Return how far each operation is; the first that may be done now is `next`.

    Args:
        operations: The operations, in working order.
        log: The log of the leaf.
    """
    times = all_spent(operations, log)
    found: dict[str, Progress] = {}
    for op in operations:
        mine = times.get(op.id, Spent())
        if mine.done is not None:
            found[op.id] = Progress.DONE
        elif mine.since is not None:
            found[op.id] = Progress.RUNNING
        elif mine.sittings:
            found[op.id] = Progress.STOPPED
        else:
            found[op.id] = Progress.OPEN
    ready = next(
        (
            op.id
            for op in operations
            if found[op.id] is Progress.OPEN and all(found[need] is Progress.DONE for need in op.needs)
        ),
        "",
    )
    if ready:
        found[ready] = Progress.READY
    return found


def last_reading(log: Sequence[LogEntry], kind: ReadingKind, part: str = "") -> LogEntry | None:
    """Return the latest reading of a kind, of a part where one is named; None where there is none.

    Args:
        log: The log of the leaf.
        kind: What was read.
        part: Name of the part; "" for the leaf as a whole.
    """
    found = [
        e for e in in_time(log) if e.kind is LogKind.READING and e.reading is kind and (not part or e.part == part)
    ]
    return found[-1] if found else None


def not_mended(log: Sequence[LogEntry]) -> list[LogEntry]:
    """Return the mishaps that nobody has mended yet: each `mended` answers the first open one of its kind and part.

    Args:
        log: The log of the leaf.
    """
    left: list[LogEntry] = []
    for entry in in_time(log):
        if entry.kind is LogKind.MISHAP:
            left.append(entry)
        elif entry.kind is LogKind.MENDED:
            same = next((e for e in left if (e.mishap, e.part) == (entry.mishap, entry.part)), None)
            if same is not None:
                left.remove(same)
    return left


@dataclass(frozen=True, slots=True)
class Pace:
    """How one's own times stand to the estimates of a kind of work."""

    factor: float
    """What every estimate of it is multiplied by."""
    estimated: float
    """Hours as they were estimated."""
    spent: float
    """Hours that it took."""
    count: int
    """Operations that were timed from their start to their end."""


def own_pace(made: Iterable[tuple[Sequence[Operation], Sequence[LogEntry]]]) -> dict[Trade, Pace]:
    """Return one's pace by kind of work, from all that was timed: (spent + 2 h) ÷ (estimated + 2 h).

    One short record so moves an estimate little, and many move it all the way. Source: ours, a prior of two
    hours.

    Args:
        made: Operations of leaves that were made, with their logs.
    """
    sums: dict[Trade, tuple[float, float, int]] = {}
    for operations, log in made:
        times = all_spent(operations, log)
        for op in operations:
            mine = times.get(op.id)
            if mine is not None and mine.done is not None and mine.sittings and op.hours > 0:
                estimated, took, count = sums.get(op.trade, (0.0, 0.0, 0))
                sums[op.trade] = (estimated + op.hours, took + mine.hours, count + 1)
    return {
        trade: Pace((took + PRIOR_H) / (estimated + PRIOR_H), estimated, took, count)
        for trade, (estimated, took, count) in sums.items()
    }
