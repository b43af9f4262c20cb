"""One operation at the bench, and the order of many: each after what it needs, and what is urgent as soon as it may be.

The rule of the earliest moment: what is `early` stands directly behind the last of what it needs, with nothing between
but other early ones. Everything else keeps the order in which the trade does it. Source: common practice of the trade.
"""

from __future__ import annotations

import heapq
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.production import About
from oakmeasure.core.making.changes import Change


class Trade(StrEnum):
    """What kind of work it is; times of one's own are kept by it."""

    MEASURE = "measuring"
    WOOD = "choosing wood"
    SAW = "sawing"
    PLANE = "planing"
    MARK = "setting out"
    JOINT = "jointing"
    ROUT = "routing"
    BORE = "boring"
    FIT = "fitting"
    GLUE = "gluing"
    SAND = "sanding"
    FINISH = "finishing"
    SITE = "on site"
    MEND = "mending"


class Bucket(StrEnum):
    """Which of the leaf's hours an operation takes its share of; the hours of each are worked out once, as its cost."""

    PARTS = "parts"
    JOINTS = "joints"
    GLUE = "glue"
    FINISH = "finish"
    OLD = "old"
    REDUCE = "reduce"
    EXTEND = "extend"
    HANGING = "hanging"
    NONE = ""


@dataclass(frozen=True, slots=True)
class Setting:
    """What a tool is set to."""

    label: str
    """What it is called on the screen."""
    value: float
    """The value, in its unit."""
    unit: Unit = Unit.MM
    """Its unit."""
    figure: str = ""
    """Whose working explains it, where there is one."""

    def in_words(self, show: Show) -> str:
        """Return "fence 14.5".

        Args:
            show: How lengths and other quantities are written.
        """
        if self.unit is Unit.COUNT:
            return f"{self.label} {self.value:g}"
        return f"{self.label} {show.value(self.value, self.unit, with_unit=self.unit is not Unit.MM)}"


class SideUp(StrEnum):
    """What of the work looks up on the bench."""

    OPENING = "opening face up"
    CLOSING = "closing face up"
    HINGE_EDGE = "hinge edge up"
    LATCH_EDGE = "latch edge up"
    INNER_EDGE = "inner edge up"
    FOOT = "foot up"
    HEAD = "head up"


@dataclass(frozen=True, slots=True)
class WorkpieceSetup:
    """How the work lies: what looks up, what is at the left hand."""

    up: SideUp
    """Which side lies up."""
    part: str = ""
    """The one that is drawn; "" the whole leaf."""
    head_left: bool = True
    """Whether the head lies to the left."""

    @classmethod
    def of(cls, up: SideUp, parts: Sequence[str]) -> WorkpieceSetup:
        """Return how the first of several lies; the whole leaf where none is left, which a stop says.

        Args:
            up: Which side lies up.
            parts: Their names.
        """
        return cls(up, parts[0] if parts else "")


@dataclass(frozen=True, slots=True)
class StepCheck:
    """What is to be seen before it goes on."""

    words: str
    """In words."""
    limit: float | None = None
    """In mm, where it has one."""

    def in_words(self, show: Show) -> str:
        """Return the check with its limit.

        Args:
            show: How lengths and other quantities are written.
        """
        return self.words if self.limit is None else f"{self.words}: at most {show.length(self.limit)}"


SHORT_H = 2.0  # hours under which a time is told in minutes


def time_words(hours: float) -> str:
    """Return "46 min" or "14 h".

    Args:
        hours: How long it takes, h.
    """
    return f"{60 * hours:.0f} min" if hours < SHORT_H else f"{hours:.3g} h"


@dataclass(frozen=True, slots=True)
class Operation:
    """machine: it is set once for many."""

    id: str
    """Stable, the same for the same work on every leaf."""
    name: str
    """What is done."""
    trade: Trade
    """What kind of work it is."""
    parts: tuple[str, ...] = ()
    """Names of those at hand."""
    needs: tuple[str, ...] = ()
    """Ids of what must be done before."""
    settings: tuple[Setting, ...] = ()
    """What is set, in the order that one sets it."""
    hold: WorkpieceSetup | None = None
    """How the workpiece lies; None where that does not matter."""
    check: StepCheck | None = None
    """What is checked before one goes on; None for nothing."""
    cautions: tuple[str, ...] = ()
    """Keys of data/cautions.toml."""
    practice: str = ""
    """The practice piece, where a slip would spoil the leaf."""
    early: bool = False
    """Done as soon as it may be."""
    why: str = ""
    """Why it is done now."""
    later: str = ""
    """What it costs to leave it for later."""
    bucket: Bucket = Bucket.NONE
    """Which of the leaf's hours it takes from."""
    share: float = 1.0
    """How many parts of those hours it takes."""
    hours: float = 0.0
    """Hours of work."""
    wait_hours: float = 0.0
    """Hours after it, with nobody at it, until what needs it may start."""
    wait_for: str = ""
    """What one waits for afterwards; "" for nothing."""
    cuts: tuple[str, ...] = ()
    """Names of borings."""
    goes_on: tuple[str, ...] = ()
    """Names of borings that another operation begins and this one carries on."""
    stage: int = 0
    """Of the glue-up, from 1."""
    about: About = About.CONSTRUCTION
    """What it is about, for lessons and hours."""
    how: str = ""
    """How it is done; "" where that is plain."""
    changes: tuple[Change, ...] = ()
    """What it does to the pieces."""


@dataclass(slots=True)
class Steps:
    """Collects operations in the trade's order. `add` leaves out needs that this leaf does not have."""

    items: dict[str, Operation] = field(default_factory=dict)
    """The operations by their ids."""
    _later_needs: dict[str, list[str]] = field(default_factory=dict)

    def add(self, op: Operation) -> str:
        """Add an operation; returns its id.

        Args:
            op: The operation; None for none.

        Raises:
            KeyError: Where the id is taken.
        """
        if op.id in self.items:
            raise KeyError(f"operation {op.id} stands twice")
        self.items[op.id] = op
        return op.id

    def need(self, op_id: str, *needs: str) -> None:
        """Let an operation need others too, those of them that the leaf has; unknown ones are left out.

        Args:
            op_id: Id of the operation.
            needs: Ids of the operations that come before.
        """
        self._later_needs.setdefault(op_id, []).extend(needs)

    def needs_of(self, op: Operation) -> tuple[str, ...]:
        """Return what an operation needs of what the leaf has.

        Args:
            op: The operation; None for none.
        """
        wanted = dict.fromkeys((*op.needs, *self._later_needs.get(op.id, ())))
        return tuple(each for each in wanted if each in self.items and each != op.id)

    def has(self, op_id: str) -> bool:
        """Return whether there is such an operation.

        Args:
            op_id: Id of the operation.
        """
        return op_id in self.items

    def finished(self, hours: Callable[[Operation], float]) -> tuple[Operation, ...]:
        """Return all in working order, their needs without what the leaf does not have, with their hours.

        Args:
            hours: Gives the hours of an operation.
        """
        return in_order([replace(op, needs=self.needs_of(op), hours=hours(op)) for op in self.items.values()])


def in_order(operations: Sequence[Operation]) -> tuple[Operation, ...]:
    """Return the operations so that each follows what it needs.

    Of those that may come next the early ones come first, else the order given decides.

    Args:
        operations: The operations, in working order.

    Raises:
        InputError: Where they need one another in a ring, or need what is not there.
    """
    place = {op.id: at for at, op in enumerate(operations)}
    waits = {op.id: len(op.needs) for op in operations}
    then: dict[str, list[str]] = {op.id: [] for op in operations}
    for op in operations:
        for need in op.needs:
            if need not in place:
                raise InputError(op.id, need, "an operation that there is")
            then[need].append(op.id)
    ready = [(not op.early, place[op.id]) for op in operations if not waits[op.id]]
    heapq.heapify(ready)
    ordered: list[Operation] = []
    while ready:
        op = operations[heapq.heappop(ready)[1]]
        ordered.append(op)
        for after in then[op.id]:
            waits[after] -= 1
            if not waits[after]:
                heapq.heappush(ready, (not operations[place[after]].early, place[after]))
    if len(ordered) < len(operations):
        ring = sorted(each for each, left in waits.items() if left)
        raise InputError("needs", ", ".join(ring[:4]), "no ring of operations")
    return tuple(ordered)
