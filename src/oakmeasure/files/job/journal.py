"""The journal: every edit that is not saved yet, on disk as it is made, so that a kill or a power cut loses nothing.

One file for each open job, in the person's state folder. Its first line is the job as it was saved or opened, each
later one what an edit changed: fields of the job, and leaves that are new or different. A line has its checksum before
it; one that was cut off is passed over. The file is locked while its program lives: one that is not was left behind.
"""

from __future__ import annotations

import contextlib
import errno
import fcntl
import json
import os
import uuid
import zlib
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any, BinaryIO

from oakmeasure.core.document.job import Job
from oakmeasure.files.job.job_file import JobFileError, loads
from oakmeasure.files.private import private_folder, private_opener

SUFFIX = ".journal"
LARGEST = 200_000_000  # bytes; a journal that is larger is not read


def change_text(before: Job, after: Job) -> str:
    """Return what an edit changed, as JSON: fields of the job, the order of the leaves, leaves that differ.

    Args:
        before: The job before the edit.
        after: The job after it.
    """
    parts = []
    for name in Job.model_fields:
        one, other = getattr(before, name), getattr(after, name)
        if name != "leaves" and one is not other and one != other:
            parts.append(after.model_dump_json(include={name})[1:-1])
    if before.leaves is not after.leaves:
        known = {leaf.id: leaf for leaf in before.leaves}
        new = [
            leaf.model_dump_json()
            for leaf in after.leaves
            if leaf is not known.get(leaf.id) and leaf != known.get(leaf.id)
        ]
        parts += [f'"order":{json.dumps([leaf.id for leaf in after.leaves])}', f'"leaves":[{",".join(new)}]']
    return "{" + ",".join(parts) + "}"


def with_changes(document: dict[str, Any], change: dict[str, Any]) -> dict[str, Any]:
    """Return a job's document with one edit on it.

    Args:
        document: The job as JSON gave it.
        change: What changed, by its path.

    Raises:
        KeyError: For an edit that it does not fit.
    """
    new = {leaf["id"]: leaf for leaf in change.get("leaves", ())}
    fields = {name: value for name, value in change.items() if name not in ("order", "leaves")}
    leaves = document["leaves"]
    if "order" in change:
        by_id = {leaf["id"]: leaf for leaf in leaves} | new
        leaves = [by_id[leaf_id] for leaf_id in change["order"]]
    return {**document, **fields, "leaves": leaves}


class Journal:
    """What is written while a job is open.

    Nothing is on disk before the first edit. OSErrors are told, not raised: `trouble` says why edits are not kept.
    """

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.trouble = ""
        self._job: Job | None = None
        self._path: Path | None = None
        self._stream: BinaryIO | None = None

    def begin(self, job: Job, path: Path | None) -> None:
        """Take a job as it is saved or opened; what was kept of another is not needed any more.

        Args:
            job: The job that is read; it is not changed.
            path: The job's file; None for one that was never saved.
        """
        self.forget()
        self._job, self._path = job, path

    def record(self, job: Job) -> None:
        """Keep what differs from the last that was kept.

        Args:
            job: The job that is read; it is not changed.
        """
        if self._job is None or job is self._job:
            return
        try:
            if self._stream is None:
                self._start(self._job)
            _put(self._stream, change_text(self._job, job))
            self._job, self.trouble = job, ""
        except OSError as error:
            self.trouble = (error.strerror or str(error)).lower()  # the next edit brings this one with it

    def sync(self) -> None:
        """Bring it to the disk itself: a power cut then loses nothing either."""
        if self._stream is not None:
            with contextlib.suppress(OSError, ValueError, AttributeError):  # closed meanwhile: it is saved
                os.fsync(self._stream.fileno())

    def forget(self) -> None:
        """Drop what was kept: it is saved, or the person let it go."""
        if self._stream is not None:
            name = self._stream.name
            self._close()
            with contextlib.suppress(OSError):
                os.unlink(name)

    def _close(self) -> None:
        if self._stream is not None:
            with contextlib.suppress(OSError):
                self._stream.close()
            self._stream = None

    def _start(self, job: Job) -> None:
        private_folder(self.folder)
        file = self.folder / f"{uuid.uuid4().hex}{SUFFIX}"
        stream = open(file, "ab", buffering=0, opener=private_opener)  # noqa: SIM115 - it is open as long as the job
        try:
            fcntl.flock(stream, fcntl.LOCK_EX | fcntl.LOCK_NB)
            known = {"journal": 1, "path": str(self._path) if self._path is not None else ""}
            _put(stream, f'{json.dumps(known)[:-1]},"job":{job.model_dump_json()}}}')
        except BaseException:
            stream.close()
            with contextlib.suppress(OSError):
                os.unlink(stream.name)
            raise
        self._stream = stream


def _put(stream: BinaryIO | None, words: str) -> None:
    """Append one line, in one call: a kill leaves it whole or not there.

    What of it found no room is cut off again: a line that is not whole would hide those after it. Raises OSError.
    """
    assert stream is not None
    text = words.encode("utf-8")
    line = b"%08x %s\n" % (zlib.crc32(text), text)
    before = os.fstat(stream.fileno()).st_size
    try:
        if stream.write(line) != len(line):
            raise OSError(errno.ENOSPC, "no space left on device")
    except OSError:
        os.ftruncate(stream.fileno(), before)
        raise


# --- what was left behind ------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Left:
    """A journal whose program is gone."""

    file: Path
    """The journal."""
    path: Path | None
    """Of its job file, None for one that was never saved."""
    base: Job
    """The job as it was saved."""
    job: Job
    """The job with all edits."""
    edits: int
    """How many."""
    at: datetime
    """Of the last of them."""

    def discard(self) -> None:
        """Throw it away."""
        with contextlib.suppress(OSError):
            self.file.unlink()


def left_behind(folder: Path) -> list[Left]:
    """Return the journals that nobody holds, the newest first.

    What cannot be read at all is put aside as it is.

    Args:
        folder: Where journals are kept.
    """
    found = []
    for file in sorted(folder.glob(f"*{SUFFIX}")) if folder.is_dir() else ():
        if _is_held(file):
            continue
        try:
            one = read_journal(file)
        except (JobFileError, OSError):
            with contextlib.suppress(OSError):
                file.rename(file.with_suffix(".damaged"))
            continue
        if one.edits:
            found.append(one)
        else:
            one.discard()
    return sorted(found, key=lambda each: each.at, reverse=True)


def _is_held(file: Path) -> bool:
    try:
        with file.open("ab") as stream:
            fcntl.flock(stream, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        return True
    return False


def read_journal(file: Path) -> Left:
    """Return what a journal holds, as far as its lines are whole.

    Args:
        file: The journal.

    Raises:
        JobFileError: Where not even the first one is, OSError where it cannot be read.
    """
    if file.stat().st_size > LARGEST:
        raise JobFileError(f"{file.name} is far too large to be a journal")
    lines = _whole_lines(file.read_bytes())
    if not lines or lines[0].get("journal") != 1 or not isinstance(lines[0].get("job"), dict):
        raise JobFileError(f"{file.name} is no journal")
    document, edits = lines[0]["job"], 0
    base = loads(json.dumps(document))
    # The edits are in the words of the version that wrote them: they are made first, then all of it is brought up.
    for change in lines[1:]:
        try:
            document = with_changes(document, change)
        except (KeyError, TypeError):
            break
        edits += 1
    job = loads(json.dumps(document))
    path = str(lines[0].get("path", ""))
    at = datetime.fromtimestamp(file.stat().st_mtime)
    return Left(file, Path(path) if path else None, base, job, edits, at)


def _whole_lines(content: bytes) -> list[dict[str, Any]]:
    """Return the lines up to the first that is cut off or not what was written."""
    found = []
    for line in content.split(b"\n"):
        mark, _, text = line.partition(b" ")
        try:
            if int(mark, 16) != zlib.crc32(text):
                break
            value = json.loads(text)
        except (ValueError, RecursionError):
            break
        if not isinstance(value, dict):
            break
        found.append(value)
    return found
