"""Puts the program into a person's desktop, and takes it out again: launcher, icon, kind of file, man page, metadata.

Everything goes under $XDG_DATA_HOME (~/.local/share); nothing needs root, and only what was put there is taken out.
"""

from __future__ import annotations

import contextlib
import os
import shutil
import subprocess
import sys
from collections.abc import Mapping
from pathlib import Path

from oakmeasure.data import text

PLACES = {
    "oak-measure.desktop": "applications/oak-measure.desktop",
    "oak-measure.svg": "icons/hicolor/scalable/apps/oak-measure.svg",
    "oak-measure.xml": "mime/packages/oak-measure.xml",
    "oak-measure.1": "man/man1/oak-measure.1",
    "oak-measure.metainfo.xml": "metainfo/oak-measure.metainfo.xml",
}


def data_home() -> Path:
    """Return where a person's own data lie, by the XDG base directories."""
    return Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local/share")


def program() -> str:
    """Return the command that starts this installation, as a launcher's line takes it."""
    beside = Path(sys.executable).parent / "oak-measure"
    path = str(beside) if beside.exists() else shutil.which("oak-measure") or f"{sys.executable} -m oakmeasure"
    return f'"{path}"' if " " in path and Path(path).exists() else path


def man_page(commands: Mapping[str, str]) -> str:
    """Return the man page.

    Args:
        commands: What each command does, by its name.

    Returns:
        The page in roff.
    """
    lines = []
    for name, does in sorted(commands.items()):
        words = does.replace("\\", "\\\\").replace("-", "\\-")
        lines += [".TP", f".B {name.replace('-', chr(92) + '-')}", words]
    return text("desktop/oak-measure.1").replace("@COMMANDS@", "\n".join(lines))


def install(commands: Mapping[str, str], home: Path | None = None) -> list[Path]:
    """Write the files.

    Args:
        commands: What each command does, by its name, for the man page.
        home: The folder of a person's own data; by the XDG base directories when left out.

    Returns:
        The files.

    Raises:
        OSError: One of them cannot be written; then those written are taken out.
    """
    home = home or data_home()
    written: list[Path] = []
    try:
        for name, place in PLACES.items():
            content = (
                man_page(commands) if name.endswith(".1") else text(f"desktop/{name}").replace("@EXEC@", program())
            )
            path = home / place
            path.parent.mkdir(parents=True, exist_ok=True)
            path.write_text(content, encoding="utf-8")
            written.append(path)
    except OSError:
        for path in written:
            path.unlink(missing_ok=True)
        raise
    _told(home)
    return written


def remove(home: Path | None = None) -> list[Path]:
    """Take the files out again, and folders that only they were in; returns the files."""
    home = home or data_home()
    gone = []
    for place in PLACES.values():
        path = home / place
        if path.exists():
            path.unlink()
            gone.append(path)
        for folder in path.parents:
            if folder == home or not folder.is_relative_to(home):
                break
            with contextlib.suppress(OSError):
                folder.rmdir()
    if gone:
        _told(home)
    return gone


def _told(home: Path) -> None:
    """Let the desktop know, where it has the programs for that."""
    for command, place in (("update-desktop-database", "applications"), ("update-mime-database", "mime")):
        if shutil.which(command) and (home / place).is_dir():
            subprocess.run([command, str(home / place)], capture_output=True, check=False)
