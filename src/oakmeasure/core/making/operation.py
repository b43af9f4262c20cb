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
    """What a tool is set to. figure: whose working explains it, where there is one."""

    label: str
    value: float
    unit: Unit = Unit.MM
    figure: str = ""

    def in_words(self, show: Show) -> str:
        """Return "fence 14.5"."""
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
    """How the work lies: what looks up, what is at the left hand. part: the one that is drawn; "" the whole leaf."""

    up: SideUp
    part: str = ""
    head_left: bool = True


@dataclass(frozen=True, slots=True)
class StepCheck:
    """What is to be seen before it goes on. limit: in mm, where it has one."""

    words: str
    limit: float | None = None

    def in_words(self, show: Show) -> str:
        """Return the check with its limit."""
        return self.words if self.limit is None else f"{self.words}: at most {show.length(self.limit)}"


@dataclass(frozen=True, slots=True)
class Operation:
    """id: stable, the same for the same work on every leaf. parts: names of those at hand. needs: ids of what must
    be done before. early: done as soon as it may be. why: of its moment. later: what it costs to leave it for later.
    cautions: keys of data/cautions.toml. practice: the practice piece, where a slip would spoil the leaf. bucket,
    share: of which of the leaf's hours it takes how many parts. hours: of work. wait_hours: after it, nobody at it,
    until what needs it may start. cuts: names of borings. stage: of the glue-up, from 1. machine: it is set once for
    many.
    """

    id: str
    name: str
    trade: Trade
    parts: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()
    settings: tuple[Setting, ...] = ()
    hold: WorkpieceSetup | None = None
    check: StepCheck | None = None
    cautions: tuple[str, ...] = ()
    practice: str = ""
    early: bool = False
    why: str = ""
    later: str = ""
    bucket: Bucket = Bucket.NONE
    share: float = 1.0
    hours: float = 0.0
    wait_hours: float = 0.0
    wait_for: str = ""
    cuts: tuple[str, ...] = ()
    stage: int = 0
    about: About = About.CONSTRUCTION
    how: str = ""


@dataclass(slots=True)
class Steps:
    """Collects operations in the trade's order. `add` leaves out needs that this leaf does not have."""

    items: dict[str, Operation] = field(default_factory=dict)
    _later_needs: dict[str, list[str]] = field(default_factory=dict)

    def add(self, op: Operation) -> str:
        """Add an operation; returns its id. Raises KeyError where the id is taken."""
        if op.id in self.items:
            raise KeyError(f"operation {op.id} stands twice")
        self.items[op.id] = op
        return op.id

    def need(self, op_id: str, *needs: str) -> None:
        """Let an operation need others too, those of them that the leaf has; unknown ones are left out."""
        self._later_needs.setdefault(op_id, []).extend(needs)

    def needs_of(self, op: Operation) -> tuple[str, ...]:
        """Return what an operation needs of what the leaf has."""
        wanted = dict.fromkeys((*op.needs, *self._later_needs.get(op.id, ())))
        return tuple(each for each in wanted if each in self.items and each != op.id)

    def has(self, op_id: str) -> bool:
        """Return whether there is such an operation."""
        return op_id in self.items

    def finished(self, hours: Callable[[Operation], float]) -> tuple[Operation, ...]:
        """Return all in working order, their needs without what the leaf does not have, with their hours."""
        return in_order([replace(op, needs=self.needs_of(op), hours=hours(op)) for op in self.items.values()])


def in_order(operations: Sequence[Operation]) -> tuple[Operation, ...]:
    """Return the operations so that each follows what it needs; of those that may come next the early ones first, else
    in the order given.

    Raises InputError where they need one another in a ring, or need what is not there.
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
