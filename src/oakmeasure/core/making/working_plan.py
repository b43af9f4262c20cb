"""When each operation is done: from today on, and backwards from the day on which the leaf is wanted.

One pair of hands works the operations in their order and takes up another that may be done while glue, wood or a coat
is waited for. Work counts in working hours, waiting by the clock.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from oakmeasure.core.document.production import LogEntry, MakeChoices
from oakmeasure.core.making.log import Pace, all_spent
from oakmeasure.core.making.operation import Operation, Trade
from oakmeasure.core.making.workdays import Workdays

ENDS = time(23, 59)
MINUTE = timedelta(minutes=1)


@dataclass(frozen=True, slots=True)
class TimeSlot:
    """When an operation is done."""

    op: Operation
    """The operation."""
    hours: float
    """Hours that it takes."""
    start: datetime
    """When its work begins."""
    end: datetime
    """When its work ends."""
    ready: datetime
    """When what needs it may begin."""
    latest: datetime | None = None
    """Its latest start; None without a due day."""

    @property
    def is_late(self) -> bool:
        """Whether it ends after the day that was promised."""
        return self.latest is not None and self.start > self.latest + MINUTE


@dataclass(frozen=True, slots=True)
class Timetable:
    """late_by: the end behind the due day; 0 or less: in time."""

    slots: tuple[TimeSlot, ...]
    """Of what is left, in the order of their start."""
    begin: datetime
    """When the first begins."""
    end: datetime
    """When the last ends."""
    due: datetime | None
    """When it is promised; None where that is not said."""
    first_late: TimeSlot | None
    """Counted back from the due day, the first step that would have had to begin before now; None where there is
    none.
    """
    hours: float
    """Hours of work that are left."""
    waits: float
    """Hours of it in which nobody can go on."""

    @property
    def late_by(self) -> timedelta:
        """Days after the one that was promised; 0 where it is in time."""
        return self.end - self.due if self.due is not None else timedelta(0)

    @property
    def is_late(self) -> bool:
        """Whether it ends after the day that was promised."""
        return self.due is not None and self.end > self.due

    @property
    def days_late(self) -> int:
        """Return how many days after the due one it is done, the last of them begun; 0 in time."""
        return self.late_by.days + 1 if self.is_late else 0


def hours_left(op: Operation, pace: Mapping[Trade, Pace], spent: float) -> float:
    """Return the hours of an operation that are still to come, by one's own pace.

    Args:
        op: The operation; None for none.
        pace: How fast one works, by the kind of work.
        spent: Hours that were worked at it.
    """
    own = pace.get(op.trade)
    return max(op.hours * (own.factor if own is not None else 1.0) - spent, 0.0)


def timetable(
    operations: Sequence[Operation], choices: MakeChoices, pace: Mapping[Trade, Pace], now: datetime
) -> Timetable:
    """Return when the rest of the operations is done, from `now` or the day on which it is to begin.

    Args:
        operations: The operations, in working order.
        choices: What is chosen for the making: days, hours, coats.
        pace: How fast one works, by the kind of work.
        now: The time by the clock.
    """
    days = Workdays(choices.hours_a_day)
    log: Sequence[LogEntry] = choices.log
    times = all_spent(operations, log)
    begin = now
    if choices.start is not None and not log:
        begin = max(now, datetime.combine(choices.start, time(0, 0)))
    cursor = first = days.next_work(begin)
    ready: dict[str, datetime] = {}
    for op in operations:
        done = times[op.id].done if op.id in times else None
        if done is not None:
            ready[op.id] = done + timedelta(hours=op.wait_hours)
    left = [op for op in operations if op.id not in ready]
    slots: list[TimeSlot] = []
    idle = timedelta(0)
    while left:
        free = [op for op in left if all(need in ready for need in op.needs)]
        begun = (each for each in free if _from(each, ready, first) <= cursor)
        op = next(begun, None) or min(free, key=lambda each: _from(each, ready, first))
        if _from(op, ready, first) > cursor:
            wait = days.next_work(_from(op, ready, first))
            idle += wait - cursor
            cursor = wait
        hours = hours_left(op, pace, times[op.id].hours if op.id in times else 0.0)
        start = days.next_work(cursor)
        end = days.after(start, hours)
        ready[op.id] = end + timedelta(hours=op.wait_hours)
        slots.append(TimeSlot(op, hours, start, end, ready[op.id]))
        cursor = end
        left.remove(op)
    end = max((slot.end for slot in slots), default=begin)
    due = datetime.combine(choices.due, ENDS) if choices.due is not None else None
    placed = _backwards(slots, due, days) if due is not None else tuple(slots)
    late = next((slot for slot in reversed(placed) if slot.latest is not None and slot.latest < first), None)
    hours = sum(slot.hours for slot in slots)
    return Timetable(placed, first, end, due, late, hours, idle / timedelta(hours=1))


def _from(op: Operation, ready: Mapping[str, datetime], first: datetime) -> datetime:
    return max((ready[need] for need in op.needs), default=first)


def _backwards(slots: Sequence[TimeSlot], due: datetime, days: Workdays) -> tuple[TimeSlot, ...]:
    """Return the slots with their latest start: what comes behind them, and what waits for them, still in time."""
    latest: dict[str, datetime] = {}
    cursor, found = days.last_work(due), []
    for slot in reversed(slots):
        finish = cursor
        for other in slots:
            if slot.op.id in other.op.needs and other.op.id in latest:
                finish = min(finish, latest[other.op.id] - timedelta(hours=slot.op.wait_hours))
        start = days.before(finish, slot.hours)
        latest[slot.op.id] = start
        cursor = start
        found.append(TimeSlot(slot.op, slot.hours, slot.start, slot.end, slot.ready, start))
    return tuple(reversed(found))


def day_words(day: date) -> str:
    """Return "Fri 4 Dec".

    Args:
        day: The day.
    """
    return f"{day:%a} {day.day} {day:%b}"
