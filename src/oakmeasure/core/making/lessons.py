"""Lessons: notes that come back, unasked, when the same construction, hardware or timber is used again."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import asdict, dataclass
from datetime import date
from typing import Any

from oakmeasure.core.document.job import Job, Leaf
from oakmeasure.core.document.production import About, LogKind
from oakmeasure.core.making.operation import Operation

MOST = 3  # shown at one operation


@dataclass(frozen=True, slots=True)
class Lesson:
    """What was learnt at a leaf."""

    about: About
    """What brings it back: construction, hardware or timber."""
    key: str
    """Which construction, hardware or timber."""
    op: str
    """The operation at which it was learnt; "" at none."""
    text: str
    """What was learnt."""
    leaf: str
    """Name of the leaf at which it was learnt."""
    job: str
    """Name of the job at which it was learnt."""
    on: date
    """The day."""

    def record(self) -> dict[str, str]:
        """Return it as plain values."""
        return {name: str(value) for name, value in asdict(self).items()}

    @classmethod
    def of_record(cls, row: Mapping[str, Any]) -> Lesson:
        """Return the lesson of such values.

        Args:
            row: The record.

        Raises:
            KeyError: ValueError or TypeError for others.
        """
        return cls(
            About(row["about"]),
            str(row["key"]),
            str(row.get("op", "")),
            str(row["text"]),
            str(row["leaf"]),
            str(row["job"]),
            date.fromisoformat(row["on"]),
        )


def keys_of(leaf: Leaf, about: About) -> tuple[str, ...]:
    """Return what a lesson on a leaf is filed under.

    Args:
        leaf: The leaf, as the document holds it.
        about: What a lesson is about.
    """
    if about is About.CONSTRUCTION:
        return (leaf.build.kind,)
    if about is About.TIMBER:
        woods = (leaf.timber.wood, leaf.timber.panel_species, getattr(leaf.build, "sheet", None))
        return tuple(dict.fromkeys(each for each in woods if each))
    hardware = leaf.hardware
    if leaf.hanging.has_butts:
        return (f"butt {hardware.butt.name}",)
    if leaf.hanging.is_cabinet:
        return (f"cup {hardware.cup.hinge.name}",)
    return (f"gear {leaf.slide.track_set.name}" if leaf.slide.track_set is not None else f"gear {leaf.hanging}",)


def lessons_in(job: Job) -> tuple[Lesson, ...]:
    """Return the lessons of a job's own logs.

    Args:
        job: The job that is read; it is not changed.
    """
    return tuple(
        Lesson(entry.about, keys_of(leaf, entry.about)[0], entry.op, entry.text, leaf.name, job.name, entry.at.date())
        for leaf in job.leaves
        for entry in leaf.making.log
        if entry.kind is LogKind.NOTE and entry.about is not None and entry.text
    )


def lessons_for(lessons: Iterable[Lesson], leaf: Leaf, op: Operation | None = None) -> tuple[Lesson, ...]:
    """Return what was learnt with the same construction, hardware or timber as a leaf's, the newest first.

    At an operation only what was learnt at the same one, or about what the operation is about.

    Args:
        lessons: Lessons of all jobs.
        leaf: The leaf, as the document holds it.
        op: The operation; None for none.
    """
    keys = {about: keys_of(leaf, about) for about in About}
    found = [each for each in lessons if each.key in keys[each.about]]
    if op is not None:
        found = [each for each in found if each.op == op.id or (not each.op and each.about is op.about)]
    once: dict[str, Lesson] = {}
    for each in sorted(found, key=lambda lesson: lesson.on, reverse=True):
        once.setdefault(each.text.strip().lower(), each)
    return tuple(once.values())


def at_operations(
    lessons: Sequence[Lesson], leaf: Leaf, operations: Iterable[Operation]
) -> dict[str, tuple[Lesson, ...]]:
    """Return the lessons of each operation that has some.

    Args:
        lessons: The lessons.
        leaf: The leaf, as the document holds it.
        operations: The operations.
    """
    found = {op.id: lessons_for(lessons, leaf, op)[:MOST] for op in operations}
    return {op_id: each for op_id, each in found.items() if each}
