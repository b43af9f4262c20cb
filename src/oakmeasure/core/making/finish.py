"""The finish of a leaf: coats, amounts, drying times, both faces and all edges, and the days on which that is done.

Sources: data/finishes.toml, common practice; drying doubles for every 10 °C less and slows in damp air: common
practice.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from oakmeasure.core.base.units import MM2_PER_M2
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.making.workdays import Workdays
from oakmeasure.core.timber.place import finish_of
from oakmeasure.data import table

AT_DEGREES = 20.0
DOUBLES_EVERY = 10.0
AT_HUMIDITY = 55.0
DAMP = 0.015  # longer for each % of humidity over 55
ENDS_TWICE = 2.0  # end grain drinks as much as two coats of face


@dataclass(frozen=True, slots=True)
class Coat:
    """One coat of finish."""

    number: int
    """From 1."""
    grams: float
    """Finish for all leaves of the opening, g."""
    wait_hours: float
    """Hours until the next coat, or until it may be hung."""
    how: str
    """How it is put on."""


@dataclass(frozen=True, slots=True)
class Schedule:
    """The coats of a leaf's finish."""

    finish: str
    """In words."""
    coats: tuple[Coat, ...]
    """The coats, in their order."""
    faces: float
    """Area of the faces, m², of all leaves of the opening."""
    edges: float
    """Area of the edges, m², of all leaves of the opening."""
    ends: float
    """Area of the ends, m², of all leaves of the opening."""
    handle_hours: float
    """Hours until it may be turned over."""
    cure_days: float
    """Days from the last coat until it is hard."""
    rags: bool
    """Whether oily rags may catch fire."""

    @property
    def grams(self) -> float:
        """Return what all coats take."""
        return sum(each.grams for each in self.coats)


def in_the_cold(degrees: float) -> float:
    """Return how many times as long glue or finish takes at a temperature, °C, as at 20: twice for every 10 less.

    Args:
        degrees: Temperature of the workshop, °C.

    >>> in_the_cold(10.0)
    2.0
    """
    return float(2.0 ** ((AT_DEGREES - degrees) / DOUBLES_EVERY))


def slower(*, degrees: float, humidity: float) -> float:
    """Return how many times as long a finish dries as at 20 °C and 55 %.

    Args:
        degrees: Temperature of the workshop, °C.
        humidity: Relative humidity of the workshop, %.

    >>> slower(degrees=10.0, humidity=55.0)
    2.0
    """
    return float(in_the_cold(degrees) * (1 + DAMP * max(humidity - AT_HUMIDITY, 0.0)))


def finish_schedule(leaf: Leaf, body: Body, leaves: int) -> Schedule:
    """Return the coats of a leaf, or of all leaves of its opening.

    Args:
        leaf: The leaf, as the document holds it.
        body: Its pieces in place.
        leaves: How many leaves alike hang in the opening.
    """
    kind = finish_of(leaf.timber)
    row = table("finishes")[kind]
    build, (front, back) = body.build, body.along("hinge")
    edge = back - front
    faces = leaves * 2 * build.width * build.height / MM2_PER_M2
    edges = leaves * 2 * build.height * edge / MM2_PER_M2
    ends = leaves * 2 * build.width * edge / MM2_PER_M2
    times = slower(degrees=leaf.making.shop_temperature_c, humidity=leaf.making.humidity)
    count = leaf.making.coats or int(row["coats"])
    grams = row["grams"] * (faces + edges + ENDS_TWICE * ends)
    coats = tuple(
        Coat(n, grams, times * (row["hang"] if n == count else row["recoat"]), row["how"] if n == 1 else row["between"])
        for n in range(1, count + 1)
    )
    return Schedule(kind, coats, faces, edges, ends, times * row["handle"], float(row["cure"]), bool(row["rags"]))


@dataclass(frozen=True, slots=True)
class Day:
    """One thing of the finish on the calendar."""

    words: str
    """In words."""
    start: datetime
    """When it begins."""
    end: datetime
    """When it ends."""
    is_work: bool
    """Whether it is work, else waiting."""


def finish_days(schedule: Schedule, begin: datetime, days: Workdays, *, hours_a_coat: float) -> tuple[Day, ...]:
    """Return the calendar from the first coat to the day on which it may be hung, and the one on which it is hard.

    Each coat is begun in working hours, when the one before is dry; between its faces it is turned over.

    Args:
        schedule: The coats of the finish.
        begin: When the first coat is put on.
        days: On which days and for how many hours one works.
        hours_a_coat: Work of one coat, h.
    """
    found: list[Day] = []
    at = days.next_work(begin)
    for coat in schedule.coats:
        done = days.after(at, hours_a_coat)
        found.append(Day(f"coat {coat.number}, both faces and all edges", at, done, True))
        dry = done + timedelta(hours=coat.wait_hours)
        found.append(Day("dries", done, dry, False))
        at = days.next_work(dry)
    found.append(Day("may be hung", at, at, True))
    found.append(Day("hard", at, at + timedelta(days=schedule.cure_days), False))
    return tuple(found)
