"""Whose job file it is: the window that opened it first holds a claim, so that a second one is told.

And what the file looked like when it was read or written: whether somebody else has changed it since.
"""

from __future__ import annotations

import contextlib
import fcntl
import hashlib
from pathlib import Path
from typing import BinaryIO

from oakmeasure.files.private import private_folder


class Claim:
    """A lock in the state folder for a job file; it goes with its program, however that ends."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self._stream: BinaryIO | None = None
        self._held = ""

    def take(self, path: Path) -> bool:
        """Claim a file in place of the last one.

        Returns False, and keeps the last one, where another window has it.

        Args:
            path: The job's file.
        """
        name = hashlib.sha256(str(path.resolve()).encode("utf-8", "surrogatepass")).hexdigest()[:32]
        if name == self._held:
            return True
        try:
            private_folder(self.folder)
            stream = (self.folder / f"{name}.lock").open("ab")
        except OSError:
            return True  # where no lock can be held, the change of the file itself still tells
        try:
            fcntl.flock(stream, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            stream.close()
            return False
        self.leave()
        self._stream, self._held = stream, name
        return True

    def leave(self) -> None:
        """Let it go."""
        if self._stream is not None:
            with contextlib.suppress(OSError):
                self._stream.close()
        self._stream, self._held = None, ""


def seal(path: Path) -> str:
    """Return what tells a file's content; "" where there is none.

    Args:
        path: The file.
    """
    try:
        return hashlib.sha256(path.read_bytes()).hexdigest()
    except OSError:
        return ""
