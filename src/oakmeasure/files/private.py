"""What the program keeps for a person is that person's alone: nobody else on the machine reads it."""

from __future__ import annotations

import os
from pathlib import Path

ONLY_MINE = 0o600


def private_folder(folder: Path) -> Path:
    """Make a folder that only its owner may look into, and return it; one that is there is shut to others.

    Args:
        folder: The folder.

    Raises:
        OSError: Where it cannot be made.
    """
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    if folder.stat().st_mode & 0o077:
        folder.chmod(0o700)
    return folder


def private_opener(path: str, flags: int) -> int:
    """Open a file that only its owner may read, where it is new; the `opener` of `open`.

    Args:
        path: The file.
        flags: How it is opened.

    Returns:
        Its descriptor.
    """
    return os.open(path, flags, ONLY_MINE)
