"""Edits of the log: pure functions from a job to a new one."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from pydantic import ValidationError

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.field_path import refusal
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.production import LogEntry, LogKind, MishapKind
from oakmeasure.core.edits.job_edits import with_field
from oakmeasure.core.making.log import Progress, progress
from oakmeasure.core.making.spoilt_holes import holes_of
from oakmeasure.core.solution import LeafSolution


def entry_of(**fields: Any) -> LogEntry:
    """Return an entry; InputError naming the field that is refused.

    Args:
        fields: Fields of the entry with their values.
    """
    try:
        return LogEntry.model_validate(fields)
    except ValidationError as error:
        raise refusal(error) from None


def with_entry(job: Job, leaf_id: str, *entries: LogEntry) -> Job:
    """Return the job with entries in the log of a leaf, all of it in the order of time.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        entries: The entries.
    """
    log = (*job.leaf(leaf_id).making.log, *entries)
    return with_field(job, leaf_id, "making.log", tuple(sorted(log, key=lambda entry: entry.at)))


def check_part(leaf: LeafSolution, part: str) -> None:
    """Raise InputError for a part that the leaf does not have; "" is the leaf as a whole.

    Args:
        leaf: The leaf, worked out to the end.
        part: Name of the part; "" for the leaf as a whole.
    """
    names = [each.name for each in leaf.cut_parts]
    if part and part not in names:
        raise InputError(
            "part", part, f"a part of the {leaf.leaf.name}: {', '.join(names[:8])}" + (" …" * (len(names) > 8))
        )


def check_op(leaf: LeafSolution, op_id: str) -> None:
    """Raise InputError for an operation that the leaf does not have; "" is none.

    Args:
        leaf: The leaf, worked out to the end.
        op_id: Id of the operation.
    """
    if op_id and (leaf.making is None or leaf.making.op(op_id) is None):
        raise InputError("op", op_id, f"an operation of the {leaf.leaf.name}")


def begun(job: Job, leaf: LeafSolution, op_id: str, at: datetime) -> Job:
    """Return the job with an operation started; the one that runs is stopped at that moment.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        op_id: Id of the operation.
        at: When it was.
    """
    check_op(leaf, op_id)
    entries = []
    if leaf.making is not None:
        states = progress(leaf.making.operations, leaf.leaf.making.log)
        entries = [
            LogEntry(at=at, kind=LogKind.STOP, op=each)
            for each, state in states.items()
            if state is Progress.RUNNING and each != op_id
        ]
        if states[op_id] is Progress.RUNNING:
            return job
    return with_entry(job, leaf.leaf.id, *entries, LogEntry(at=at, kind=LogKind.START, op=op_id))


def ended(job: Job, leaf: LeafSolution, op_id: str, at: datetime, *, done: bool) -> Job:
    """Return the job with an operation done, or stopped to be taken up again.

    A mend that is done answers its mishap.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        op_id: Id of the operation.
        at: When it was.
        done: Whether it is done; else it was stopped.
    """
    check_op(leaf, op_id)
    entries = [LogEntry(at=at, kind=LogKind.DONE if done else LogKind.STOP, op=op_id)]
    if done and op_id.startswith("mend:"):
        mishaps = [entry for entry in leaf.leaf.making.log if entry.kind is LogKind.MISHAP]
        n = int(op_id.partition(":")[2]) - 1
        if n < len(mishaps):
            entries.append(
                LogEntry(
                    at=at,
                    kind=LogKind.MENDED,
                    op=op_id,
                    part=mishaps[n].part,
                    mishap=mishaps[n].mishap,
                    repair=mishaps[n].repair,
                )
            )
    return with_entry(job, leaf.leaf.id, *entries)


@dataclass(frozen=True, slots=True)
class Mishap:
    """What went wrong."""

    kind: MishapKind
    """What kind of mishap it is."""
    part: str
    """Name of the part; "" for the leaf as a whole."""
    by: float
    """How far too deep, off or too short; the length of a split, the depth of a tear-out; mm."""
    repair: str = ""
    """Key of the repair that was chosen; "" for none."""
    op: str = ""
    """Id of the operation; "" for none."""
    hole: str = ""
    """Name of the hole, where one went wrong."""


def gone_wrong(job: Job, leaf: LeafSolution, wrong: Mishap, at: datetime) -> Job:
    """Return the job with a mishap in the log; with a repair it becomes an operation.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        wrong: What went wrong.
        at: When it was.
    """
    check_part(leaf, wrong.part)
    names = [each.name for each in holes_of(leaf, wrong.part)]
    if wrong.hole and wrong.hole not in names:
        raise InputError("hole", wrong.hole, f"a hole of the {wrong.part or 'leaf'}: {', '.join(names[:8]) or 'none'}")
    what = {"op": wrong.op, "part": wrong.part, "value": wrong.by, "mishap": wrong.kind, "repair": wrong.repair}
    entry = entry_of(at=at, kind=LogKind.MISHAP, hole=wrong.hole, **what)
    return with_entry(job, leaf.leaf.id, entry)
