"""The log of a job as lines of JSON, one entry a line: what a pad at the bench writes, and what is read back.

A line that is cut off or that makes no sense is left out and told with its number and its words; the others are taken.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.field_path import refusal
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.production import LogEntry
from oakmeasure.core.edits.log_edits import check_part, with_entry
from oakmeasure.core.solution import LeafSolution

LONGEST_FILE = 5_000_000  # bytes
SHOWN = 60  # characters of a refused line


@dataclass(frozen=True, slots=True)
class Refused:
    """A line that was left out: its number from 1, why, and how it begins."""

    line: int
    """Number of the line."""
    reason: str
    """Why it was refused."""
    words: str
    """What stood there."""


@dataclass(frozen=True, slots=True)
class LogRead:
    """What a log file held."""

    new: tuple[tuple[str, LogEntry], ...]
    """By the id of their leaf."""
    known: int
    """Entries that were in the job already."""
    refused: tuple[Refused, ...]
    """Lines that were not taken."""

    def in_words(self) -> str:
        """Return what was taken and what was not."""
        taken = f"{len(self.new)} {'entry' if len(self.new) == 1 else 'entries'} taken" + (
            f", {self.known} were there already" if self.known else ""
        )
        lines = [f"line {each.line}: {each.reason} – “{each.words}”" for each in self.refused[:6]]
        more = f"and {len(self.refused) - 6} more lines" if len(self.refused) > 6 else ""
        return "\n".join(each for each in (taken, *(["left out:"] if lines else []), *lines, more) if each)


def log_lines(job: Job) -> bytes:
    """Return the log of every leaf of the job, in the order of time.

    Args:
        job: The job that is read; it is not changed.
    """
    rows = [(entry, leaf.id) for leaf in job.leaves for entry in leaf.making.log]
    rows.sort(key=lambda row: row[0].at)
    lines = [json.dumps({"leaf": leaf_id, **_shortened(entry)}, ensure_ascii=False) for entry, leaf_id in rows]
    return "".join(f"{line}\n" for line in lines).encode("utf-8")


def _shortened(entry: LogEntry) -> dict[str, Any]:
    return {key: value for key, value in entry.model_dump(mode="json").items() if value not in ("", None)}


def read_log(content: bytes, job: Job, leaves: Mapping[str, LeafSolution]) -> LogRead:
    """Return what a log file holds that the job does not have yet.

    Args:
        content: The file.
        job: The job that is read; it is not changed.
        leaves: Worked out, by id, to know their parts.

    Raises:
        ValueError: For a file that is far too large to be a log.
    """
    if len(content) > LONGEST_FILE:
        raise ValueError("it is far too large to be a log")
    there = {(leaf.id, entry) for leaf in job.leaves for entry in leaf.making.log}
    new: list[tuple[str, LogEntry]] = []
    refused: list[Refused] = []
    known = 0
    for number, raw in enumerate(content.split(b"\n"), start=1):
        line = raw.strip()
        if not line:
            continue
        try:
            row = _entry(line, leaves)
        except InputError as error:
            words = line[:SHOWN].decode("utf-8", errors="replace")
            refused.append(Refused(number, f"{error.field} needs {error.need}", words))
            continue
        if row in there:
            known += 1
            continue
        there.add(row)
        new.append(row)
    return LogRead(tuple(new), known, tuple(refused))


def _entry(line: bytes, leaves: Mapping[str, LeafSolution]) -> tuple[str, LogEntry]:
    try:
        record = json.loads(line.decode("utf-8"))
    except UnicodeDecodeError:
        raise InputError("line", "", "plain text, UTF-8") from None
    except (json.JSONDecodeError, RecursionError):
        raise InputError("line", "", "its end: it is cut off or damaged") from None
    if not isinstance(record, dict):
        raise InputError("line", "", "one entry in braces")
    leaf_id = record.pop("leaf", None)
    leaf = leaves.get(leaf_id) if isinstance(leaf_id, str) else None
    if leaf is None or not isinstance(leaf_id, str):
        raise InputError("leaf", str(leaf_id), "the id of a leaf of this job")
    try:
        entry = LogEntry.model_validate(record)
    except ValidationError as error:
        raise refusal(error) from None
    check_part(leaf, entry.part)
    return leaf_id, entry


def with_read(job: Job, read: LogRead) -> Job:
    """Return the job with what was read from a log file.

    Args:
        job: The job that is read; it is not changed.
        read: What was read of a log.
    """
    for leaf_id in dict.fromkeys(leaf_id for leaf_id, _ in read.new):
        job = with_entry(job, leaf_id, *(entry for each, entry in read.new if each == leaf_id))
    return job
