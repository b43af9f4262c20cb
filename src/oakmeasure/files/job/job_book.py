"""The job book: one plain JSON file for every leaf that was signed off, in a folder of the person's own.

Three made-up ones ship with the application. A file that is damaged is left out and told.
"""

from __future__ import annotations

import json
from collections.abc import Iterable
from datetime import date
from pathlib import Path
from typing import Any

from platformdirs import user_data_path
from pydantic import ValidationError

from oakmeasure.core.document.job import Job
from oakmeasure.core.document.readings import restated
from oakmeasure.core.edits.job_edits import begun_again
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.making.lessons import Lesson
from oakmeasure.core.reports.hanging_record import BookEntry
from oakmeasure.data import text
from oakmeasure.files.job.job_file import JobFileError, loads, write_whole
from oakmeasure.files.private import ONLY_MINE, private_folder

SUFFIX = ".hung.json"


def place() -> Path:
    """Return the folder of the book."""
    return user_data_path("oak-measure") / "book"


def file_name(entry: BookEntry) -> str:
    """Return the name of an entry's file: its day, its job, its leaf.

    Args:
        entry: The leaf's page in the book.
    """
    plain = "".join(each if each.isalnum() else "-" for each in f"{entry.job} {entry.name}").strip("-").lower()
    while "--" in plain:
        plain = plain.replace("--", "-")
    return f"{entry.on.isoformat()}-{plain[:80]}{SUFFIX}"


def dumps(entry: BookEntry) -> str:
    """Return an entry as the text of its file.

    Args:
        entry: The leaf's page in the book.
    """
    record = {
        "name": entry.name,
        "job": entry.job,
        "place": entry.place,
        "construction": entry.construction,
        "hanging": entry.hanging,
        "timber": entry.timber,
        "width_mm": entry.width,
        "height_mm": entry.height,
        "mass_kg": round(entry.mass_kg, 3),
        "on": entry.on.isoformat(),
        "by": entry.by,
        "lessons": [
            {name: text for name, text in each.record().items() if name not in ("leaf", "job")}  # the entry has them
            for each in entry.lessons
        ],
        "document": entry.document,
    }
    return json.dumps(record, indent=1, sort_keys=True, ensure_ascii=False) + "\n"


def loads_entry(content: str, source: str = "") -> BookEntry:
    """Return the entry of a file's text.

    Args:
        content: The file's text.
        source: The entry's file, to be named in a refusal.

    Raises:
        JobFileError: With the reason.
    """
    try:
        row: dict[str, Any] = json.loads(content)
        lessons = tuple(Lesson.of_record({**each, "leaf": row["name"], "job": row["job"]}) for each in row["lessons"])
        return BookEntry(
            str(row["name"]),
            str(row["job"]),
            str(row["place"]),
            str(row["construction"]),
            str(row["hanging"]),
            str(row["timber"]),
            float(row["width_mm"]),
            float(row["height_mm"]),
            float(row["mass_kg"]),
            date.fromisoformat(row["on"]),
            str(row["by"]),
            lessons,
            dict(row["document"]),
            source,
        )
    except json.JSONDecodeError as error:
        raise JobFileError(f"line {error.lineno}: {error.msg.lower()}") from None
    except (KeyError, ValueError, TypeError, AttributeError) as error:
        raise JobFileError(f"it is no record of a leaf: {error}") from None


def put(entry: BookEntry) -> Path:
    """Write an entry into the book; one of the same day, job and leaf takes its place.

    Args:
        entry: The leaf's page in the book.

    Raises:
        JobFileError: See the message.
    """
    folder = place()
    try:
        private_folder(folder)
    except OSError as error:
        raise JobFileError(f"the book's folder was not made: {(error.strerror or str(error)).lower()}") from None
    target = folder / file_name(entry)
    write_whole(target, dumps(entry).encode("utf-8"), mode=ONLY_MINE)
    return target


def shipped() -> tuple[BookEntry, ...]:
    """Return the made-up leaves that ship with the application."""
    return tuple(loads_entry(text(f"book/{each}"), "an example") for each in book_files())


def book_files() -> tuple[str, ...]:
    """Return the names of the shipped files."""
    from importlib import resources

    folder = resources.files("oakmeasure.data").joinpath("book")
    return tuple(sorted(each.name for each in folder.iterdir() if each.name.endswith(SUFFIX)))


def read_all() -> tuple[tuple[BookEntry, ...], tuple[str, ...]]:
    """Return every entry, the newest first, and what was left out with its reason."""
    found, wrong = list(shipped()), []
    try:
        paths: Iterable[Path] = sorted(place().glob(f"*{SUFFIX}"))
    except OSError:
        paths = ()
    for path in paths:
        try:
            found.append(loads_entry(path.read_text(encoding="utf-8"), path.name))
        except (JobFileError, OSError, UnicodeDecodeError) as error:
            wrong.append(f"{path.name}: {error}")
    return tuple(sorted(found, key=lambda each: each.on, reverse=True)), tuple(wrong)


def start_again(entry: BookEntry) -> Job:
    """Return a new job that begins where a leaf of the book ended.

    All that was read at its opening is assumed, what was measured of its hardware counts as from a table, its
    log and signing are gone.

    Args:
        entry: The leaf's page in the book.

    Raises:
        JobFileError: For a document that cannot be read.
    """
    try:
        job = loads(json.dumps(entry.document))
    except (JobFileError, ValidationError) as error:
        raise JobFileError(f"the leaf of {entry.name} cannot be opened again: {error}") from None
    leaf = job.leaves[0]
    hardware = restated(leaf.hardware, Provenance.FROM_TABLE)  # another packet of the same hinge
    fresh = begun_again(leaf).model_copy(update={"hardware": hardware})
    return job.model_copy(update={"name": f"After {entry.name}", "place": "", "leaves": (fresh,)})
