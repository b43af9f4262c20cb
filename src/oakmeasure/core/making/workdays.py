"""The working hours of a shop: Monday to Friday from eight, as many as one is at the bench.

Waiting goes on all night.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, time, timedelta

from oakmeasure.core.base.errors import InputError

OPENS = time(8, 0)
SATURDAY = 5
EPSILON = timedelta(seconds=1)


@dataclass(frozen=True, slots=True)
class Workdays:
    """Raises InputError unless more than 0 and at most 14."""

    hours: float = 6.0
    """A day."""

    def __post_init__(self) -> None:
        if not 0 < self.hours <= 14:
            raise InputError("hours_a_day", self.hours, "more than 0 and at most 14")

    def _opens(self, at: datetime) -> datetime:
        return datetime.combine(at.date(), OPENS)

    def _shuts(self, at: datetime) -> datetime:
        return self._opens(at) + timedelta(hours=self.hours)

    def is_work(self, at: datetime) -> bool:
        """Return whether there is work at a moment.

        Args:
            at: When it was.
        """
        return at.weekday() < SATURDAY and self._opens(at) <= at < self._shuts(at)

    def next_work(self, at: datetime) -> datetime:
        """Return the moment, or the first one after it, at which there is work.

        Args:
            at: When it was.
        """
        if at.weekday() < SATURDAY and at < self._opens(at):
            return self._opens(at)
        while not self.is_work(at):
            at = self._opens(at + timedelta(days=1))
        return at

    def last_work(self, at: datetime) -> datetime:
        """Return the moment, or the last one before it, up to which there is work.

        Args:
            at: When it was.
        """
        while True:
            if at.weekday() < SATURDAY and at > self._opens(at):
                return min(at, self._shuts(at))
            at = datetime.combine(at.date() - timedelta(days=1), time(23, 59, 59))

    def after(self, at: datetime, hours: float) -> datetime:
        """Return when so many hours of work that begin at a moment, or after it, are done.

        Args:
            at: When it was.
            hours: Of work, h.
        """
        left, at = timedelta(hours=hours), self.next_work(at)
        while left > timedelta(0):
            here = min(left, self._shuts(at) - at)
            at, left = at + here, left - here
            if left > EPSILON:
                at = self.next_work(at)
            else:
                break
        return at

    def before(self, at: datetime, hours: float) -> datetime:
        """Return when so many hours of work must begin to be done at a moment, or before it.

        Args:
            at: When it was.
            hours: Of work, h.
        """
        left, at = timedelta(hours=hours), self.last_work(at)
        while left > timedelta(0):
            here = min(left, at - self._opens(at))
            at, left = at - here, left - here
            if left > EPSILON:
                at = self.last_work(at)
            else:
                break
        return at
