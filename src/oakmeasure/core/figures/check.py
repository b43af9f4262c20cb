"""Judgement: a level, one plain sentence with the numbers, whose rule it is, what would mend it, and where."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum


class Level(StrEnum):
    """How bad it is. Shown as a shape and a word, never by colour alone."""

    STOP = "stop"
    WARNING = "look again"
    OK = "fine"

    @property
    def words(self) -> str:
        """What it is called on the screen; files keep its value."""
        return _WORDS[self]


_WORDS = {Level.STOP: "Do not cut", Level.WARNING: "Check", Level.OK: "OK"}
ON_PAPER = {Level.STOP: "DO NOT CUT", Level.WARNING: "CHECK", Level.OK: "OK"}  # where no shape stands beside it
_ORDER = {Level.STOP: 0, Level.WARNING: 1, Level.OK: 2}


def rank(level: Level) -> int:
    """Return the place of a level, worst first.

    Args:
        level: How bad it is.
    """
    return _ORDER[level]


class Stage(StrEnum):
    """The marks on the rod, in working order."""

    MEASURE = "Measure"
    FIT = "Fit"
    LEAF = "Leaf"
    TIMBER = "Timber"
    HARDWARE = "Hardware"
    MAKE = "Make"
    HANG = "Hang"


@dataclass(frozen=True, slots=True)
class Remedy:
    """What would mend it. With a `path` it can be taken as one edit of the leaf: that field set to `value`."""

    text: str
    """What is done, in words."""
    path: str = ""
    """Path of the field that it sets; "" where no field does."""
    value: object = None
    """The value that it sets."""


@dataclass(frozen=True, slots=True)
class Grounds:
    """What a check rests on, and where that is seen."""

    figure: str = ""
    """The figure whose working explains it."""
    where: str = ""
    """What it shows on the drawing ("part:middle rail", "reading:width_top")."""
    rule: str = ""
    """The limit and whose it is."""


GROUNDLESS = Grounds()


@dataclass(frozen=True, slots=True)
class Check:
    """One finding."""

    code: str
    """Stable, for acknowledging a stop."""
    level: Level
    """How bad it is."""
    stage: Stage
    """The stage that it belongs to."""
    title: str
    """A few words."""
    sentence: str
    """The numbers."""
    rule: str = ""
    """The limit and whose it is."""
    remedies: tuple[Remedy, ...] = ()
    """What would mend it, the best first."""
    where: str = ""
    """What it shows on the drawing ("part:middle rail", "reading:width_top")."""
    figure: str = ""
    """The figure whose working explains it."""


@dataclass(slots=True)
class Checks:
    """Collects checks; a check never stops at the first one."""

    items: list[Check] = field(default_factory=list)
    """The checks so far."""

    def add(self, check: Check) -> None:
        """Add a check.

        Args:
            check: What is to be said.
        """
        self.items.append(check)

    def has(self, code: str) -> bool:
        """Return whether a check of that code was said.

        Args:
            code: The check's code, which stays the same for ever.
        """
        return any(each.code == code for each in self.items)

    def sorted(self) -> tuple[Check, ...]:
        """Return the checks, the worst first."""
        return tuple(sorted(self.items, key=lambda each: _ORDER[each.level]))


def worst(checks: tuple[Check, ...], stage: Stage | None = None) -> Level:
    """Return the worst level, of one stage or of all; `fine` where there is no check.

    Args:
        checks: What was said.
        stage: The stage that it belongs to.
    """
    levels = [each.level for each in checks if stage is None or each.stage is stage]
    return min(levels, key=_ORDER.__getitem__, default=Level.OK)
