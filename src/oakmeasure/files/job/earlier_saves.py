"""Earlier saves: before a job file is written over, what it held is kept; the last ten of each file.

They lie in the person's state folder, a folder for each job file, named by the time at which they were written.
"""

from __future__ import annotations

import contextlib
import hashlib
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from oakmeasure.files.job.job_file import LARGEST_FILE, SUFFIX, JobFileError, write_whole
from oakmeasure.files.private import ONLY_MINE, private_folder

KEPT = 10
WRITTEN = "%Y-%m-%d %H.%M.%S.%f"


@dataclass(frozen=True, slots=True)
class Earlier:
    """An earlier save."""

    file: Path
    """The file."""
    at: datetime
    """When that file had been written, by the clock of then."""
    number: int = 0
    """In which order it was kept: a clock may run back. 0 of those that were kept before there were numbers."""


def _place(folder: Path, path: Path) -> Path:
    whole = str(path.resolve())
    return folder / f"{path.stem[:40]}-{hashlib.sha256(whole.encode('utf-8', 'surrogatepass')).hexdigest()[:16]}"


def keep(folder: Path, path: Path) -> None:
    """Keep what a file holds now, if there is one; the oldest beyond ten go.

    Args:
        folder: Where earlier saves are kept.
        path: The job's file.

    Raises:
        JobFileError: Where it cannot.
    """
    try:
        if not path.is_file() or path.stat().st_size > LARGEST_FILE:
            return
        content, at = path.read_bytes(), datetime.fromtimestamp(path.stat().st_mtime)
        place = _place(folder, path)
        private_folder(folder)
        private_folder(place)
    except OSError as error:
        raise JobFileError(f"an earlier save was not kept: {(error.strerror or str(error)).lower()}") from None
    there = earlier(folder, path)
    if there and there[0].file.read_bytes() == content:
        return
    number = there[0].number + 1 if there else 1
    write_whole(place / f"{number:06d} {at:{WRITTEN}}{SUFFIX}", content, mode=ONLY_MINE)
    for old in earlier(folder, path)[KEPT:]:
        with contextlib.suppress(OSError):
            old.file.unlink()


def earlier(folder: Path, path: Path) -> list[Earlier]:
    """Return the earlier saves of a file, the newest first.

    Args:
        folder: Where earlier saves are kept.
        path: The job's file.
    """
    found = []
    for file in _place(folder, path).glob(f"*{SUFFIX}"):
        first, _, rest = file.stem.partition(" ")
        number, written = (int(first), rest) if first.isdecimal() else (0, file.stem)
        with contextlib.suppress(ValueError):
            found.append(Earlier(file, datetime.strptime(written, WRITTEN), number))
    return sorted(found, key=lambda each: (each.number, each.at), reverse=True)
