"""Reading asks first whether a file is one: a pipe would be waited for, a device never end."""

from __future__ import annotations

import errno
import stat
from pathlib import Path


def size_of(path: Path) -> int:
    """Return the size of a plain file, bytes; a link is followed.

    Args:
        path: The file.

    Raises:
        OSError: Where it is none that can be read to an end, or not there.
    """
    found = path.stat()
    if stat.S_ISDIR(found.st_mode):
        raise IsADirectoryError(errno.EISDIR, "it is a folder")
    if not stat.S_ISREG(found.st_mode):
        raise OSError(errno.EINVAL, "it is no plain file")
    return found.st_size


def other_names(path: Path) -> str:
    """Return in words that a file has more names on its disk, hard links; "" where it has one, or is not there.

    A file is written anew beside the old one and renamed over it: its other names keep what was before.

    Args:
        path: The file.
    """
    try:
        links = path.stat().st_nlink
    except OSError:
        return ""
    return "the other name of the file (a hard link) keeps what was before" if links > 1 else ""


def is_there(path: Path) -> bool:
    """Return whether something is at a place; nothing is where no name may be so long, or nobody may look.

    Args:
        path: The place.
    """
    try:
        return path.exists()
    except OSError:
        return False
