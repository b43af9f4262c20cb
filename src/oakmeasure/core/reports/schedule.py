"""The leaves of a job as a schedule: a line each with sizes, state and worst check; several changed alike."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.parsing import is_near_size
from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document.constructions import trade_name
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.readings import MeasuredBy, Reading
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Check, Level, rank
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.making.log import Progress, progress
from oakmeasure.core.solution import LeafSolution


@dataclass(frozen=True, slots=True)
class ScheduleRow:
    """One leaf."""

    leaf_id: str
    """Id of the leaf in the job."""
    name: str
    """Its name, as it is shown."""
    width: float | None
    """Width of the leaf, mm; None where there is none."""
    height: float | None
    """Height of the leaf, mm; None where there is none."""
    thickness: float | None
    """Thickness of the leaf, mm; None where there is none."""
    mass: float | None
    """Mass of the leaf, kg; None where there is none."""
    construction: str
    """How it is built."""
    hanging: str
    """How it hangs."""
    hand: str
    """At which side the hinges are, in words."""
    state: str
    """How far it has come, in words."""
    worst: Check | None
    """None where there is nothing to say."""

    @property
    def level(self) -> Level:
        """Return how bad its worst check is."""
        return self.worst.level if self.worst is not None else Level.OK

    def matches(self, words: str, system: UnitSystem = UnitSystem.MM) -> bool:
        """Return whether every word stands somewhere in its line; a size finds widths and heights near it.

        Args:
            words: The words.
            system: In which units a bare number is.
        """
        said = " ".join(
            (
                self.name,
                self.construction,
                self.hanging,
                self.hand,
                self.state,
                str(self.level),
                self.worst.title if self.worst is not None else "",
            )
        ).lower()
        sizes = [each for each in (self.width, self.height) if each is not None]
        return all(
            word in said or is_near_size(word, sizes, system) for word in words.lower().replace("×", " ").split()
        )


def schedule_row(leaf: LeafSolution) -> ScheduleRow:
    """Return the line of a leaf.

    Args:
        leaf: The leaf, worked out to the end.
    """
    said, built = leaf.leaf, leaf.build is not None
    checks = sorted(leaf.checks, key=lambda each: rank(each.level))
    worst = checks[0] if checks and checks[0].level is not Level.OK else None
    return ScheduleRow(
        said.id,
        said.name,
        leaf.fit.width.value if built else None,
        leaf.fit.height.value if built else None,
        leaf.figures["thickness"].value if built and "thickness" in leaf.figures else None,
        leaf.figures["mass"].value if built and "mass" in leaf.figures else None,
        trade_name(said.build.kind),
        str(said.hanging),
        str(said.hand),
        state_of(leaf),
        worst,
    )


def state_of(leaf: LeafSolution) -> str:
    """Return how far a leaf has come: hung, made, begun, measured, or assumed.

    Args:
        leaf: The leaf, worked out to the end.
    """
    said = leaf.leaf
    if said.hung.signed is not None:
        return "hung"
    if leaf.making is not None and said.making.log:
        states = progress(leaf.making.operations, said.making.log)
        done = sum(each is Progress.DONE for each in states.values())
        if done:
            return "made" if done == len(states) else f"made {done} of {len(states)}"
    if said.measured_by is not MeasuredBy.TAPE:
        return "measured"
    read = [each for _, each in said.readings if isinstance(each, Reading)]
    return "assumed" if all(each.state is Provenance.ASSUMED for each in read) else "measured"


SORTS: dict[str, Callable[[ScheduleRow], Any]] = {
    "leaf": lambda row: row.name.lower(),
    "width": lambda row: row.width or 0.0,
    "height": lambda row: row.height or 0.0,
    "thick": lambda row: row.thickness or 0.0,
    "weight": lambda row: row.mass or 0.0,
    "construction": lambda row: row.construction,
    "hung": lambda row: (row.hanging, row.hand),
    "state": lambda row: row.state,
    "worst": lambda row: (rank(row.level), row.worst.title if row.worst is not None else ""),
}


def shown_rows(
    rows: Iterable[ScheduleRow],
    *,
    words: str = "",
    system: UnitSystem = UnitSystem.MM,
    by: str = "",
    downwards: bool = False,
) -> list[ScheduleRow]:
    """Return the lines that answer to the words, sorted.

    Args:
        rows: The lines.
        words: What is sought; sizes among the words are in the unit of `system`.
        system: In which units a bare number is.
        by: One of SORTS; "" for the job's own order.
        downwards: Whether the largest stands first.
    """
    found = [each for each in rows if each.matches(words, system)]
    if by:
        found.sort(key=SORTS[by], reverse=downwards)
    return found


def changed_alike(job: Job, leaf_ids: Sequence[str], path: str, value: Any) -> Job:
    """Return the job with one field of several leaves set alike: all of them or none.

    Args:
        job: The job that is read; it is not changed.
        leaf_ids: Ids of the leaves.
        path: Path of the field in the leaf, its names joined by points.
        value: The new value.

    Raises:
        InputError: Naming the first leaf that refuses it.
    """
    for leaf_id in leaf_ids:
        try:
            job = job_edits.with_field(job, leaf_id, path, value)
        except InputError as error:
            raise InputError(error.field, error.value, f"{error.need} ({job.leaf(leaf_id).name})") from None
    return job
