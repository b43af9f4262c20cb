"""When a board will be ready: its readings over days against the moisture that it will rest at in the room.

Wood gives its moisture off the faster the further it is from rest: M(t) = E + (M0 - E)*exp(-k*t). ln|M - E| over the
days is a straight line; its slope is -k. Ready is within two points of E. The uncertainty of the day follows from how
the readings scatter about the line, and from what a meter can tell where there are only two. Sources: first-order
drying, common practice; straight line and its covariance by least squares (weights: the scatter of ln grows as 1/|M -
E|).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from oakmeasure.core.document.stock import MoistureReading
from oakmeasure.core.timber.wood import READY_WITHIN

METER = 0.5  # standard uncertainty of a reading, points
NEAR = 0.3  # points; nearer to rest than this a reading says nothing of the rate
FAR_DAYS = 3650.0


@dataclass(frozen=True, slots=True)
class Trend:
    """How a board dries, or takes up."""

    rest: float
    """Moisture that the room brings it to, %."""
    rate: float
    """k, a day; 0 where it does not move."""
    first: date
    """Day of the first reading."""
    start: float
    """Moisture on that day by the line."""
    last: float
    """The last reading, %."""
    ready: date | None
    """Day on which it is within two points, None for never (or nobody can tell)."""
    sigma_days: float
    """Standard uncertainty of that day."""
    is_ready: bool
    """By the last reading."""

    def at(self, days: float) -> float:
        """Return the moisture so many days after the first reading, %, by the line.

        Args:
            days: Days since the first reading.
        """
        return self.rest + (self.start - self.rest) * math.exp(-self.rate * days)

    @property
    def a_week(self) -> float:
        """Return how many points it takes up in a week as it now is; negative while it dries."""
        return -7 * self.rate * (self.last - self.rest)

    @property
    def either_side(self) -> float:
        """Return how many days before or after `ready` it may be, two standard uncertainties."""
        return min(2 * self.sigma_days, FAR_DAYS)

    @property
    def earliest(self) -> date | None:
        """Return the first day on which it may be ready."""
        return None if self.ready is None else self.ready - timedelta(days=round(self.either_side))

    @property
    def latest(self) -> date | None:
        """Return the last day on which it may be ready."""
        return None if self.ready is None else self.ready + timedelta(days=round(self.either_side))


def trend(readings: Sequence[MoistureReading], rest: float) -> Trend | None:
    """Return how a board dries, or takes up, towards its moisture at rest, %; None without a reading.

    Args:
        readings: Moisture as it was read, with its day.
        rest: Moisture at which it comes to rest in this air, %.

    >>> from datetime import date, timedelta
    >>> days = [MoistureReading(day=date(2026, 9, 1) + timedelta(days=7 * n), percent=10 + 8 * math.exp(-0.03 * 7 * n))
    ...         for n in range(5)]
    >>> (trend(days, 10.0).ready - date(2026, 9, 1)).days  # ln(8 / 2) / 0.03 = 46.2
    46
    """
    ordered = sorted(readings, key=lambda each: each.day)
    if not ordered:
        return None
    first, last = ordered[0].day, ordered[-1]
    is_ready = abs(last.percent - rest) <= READY_WITHIN
    above = last.percent >= rest
    used = [
        ((each.day - first).days, each.percent - rest)
        for each in ordered
        if (each.percent - rest) * (1 if above else -1) > NEAR
    ]
    nothing = Trend(rest, 0.0, first, last.percent, last.percent, last.day if is_ready else None, 0.0, is_ready)
    if len({day for day, _ in used}) < 2:
        return nothing
    # Weighted least squares of ln|M - E|: a reading's uncertainty there is METER / |M - E|.
    weights = [(away / METER) ** 2 for _, away in used]
    days, logs = [day for day, _ in used], [math.log(abs(away)) for _, away in used]
    total = sum(weights)
    mean_day = sum(w * d for w, d in zip(weights, days, strict=True)) / total
    mean_log = sum(w * y for w, y in zip(weights, logs, strict=True)) / total
    spread = sum(w * (d - mean_day) ** 2 for w, d in zip(weights, days, strict=True))
    slope = sum(w * (d - mean_day) * (y - mean_log) for w, d, y in zip(weights, days, logs, strict=True)) / spread
    if slope >= -1e-6:  # it does not come nearer
        return nothing
    rate = -slope
    misses = sum(w * (y - mean_log - slope * (d - mean_day)) ** 2 for w, d, y in zip(weights, days, logs, strict=True))
    scale = max(1.0, misses / (len(used) - 2)) if len(used) > 2 else 1.0
    reached = mean_day + (mean_log - math.log(READY_WITHIN)) / rate
    # t = mean + (mean_log - ln 2)/k: from the variances of mean_log and of the slope, which are independent.
    sigma = math.sqrt(scale * (1 / total + (reached - mean_day) ** 2 / spread)) / rate
    start = rest + (1 if above else -1) * math.exp(mean_log - slope * mean_day)
    ready = first + timedelta(days=round(min(reached, FAR_DAYS))) if reached < FAR_DAYS else None
    return Trend(rest, rate, first, start, last.percent, ready, min(sigma, FAR_DAYS), is_ready)
