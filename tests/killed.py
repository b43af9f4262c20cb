"""A program to be killed: it saves, or edits, until it is.

One process imports everything once and forks a new victim for each line that it reads, so that hundreds of kills take
seconds.
"""

from __future__ import annotations

import os
import random
import signal
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path


def victims() -> None:
    """Fork a victim for every "save FOLDER" or "edit FOLDER" on stdin; print its process, then what it has done."""
    from PySide6.QtCore import QCoreApplication

    from oakmeasure.app.commands.autosave import Keeper
    from oakmeasure.app.shell.session import Session
    from oakmeasure.core.document.job import new_job
    from oakmeasure.files.job.job_file import save

    works: dict[str, Callable[[Path], None]] = {}

    def saves(folder: Path) -> None:
        jobs = [new_job(f"job {n}") for n in range(2)]
        for n in range(10**6):
            save(jobs[n % 2], folder / "a.oakjob")
            os.write(1, b"saved\n")

    def edits(folder: Path) -> None:
        app = QCoreApplication([])
        session = Session(new_job("edited"))
        session.keeper = Keeper(session, folder)
        for n in range(10**6):
            assert session.edit("fit.gap_floor", 3.0 + n / 1000) == ""
            os.write(1, b"%d\n" % n)
            app.processEvents()

    works.update(save=saves, edit=edits)
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)
    print("ready", flush=True)
    for line in sys.stdin:
        what, _, folder = line.strip().partition(" ")
        pid = os.fork()
        if not pid:
            works[what](Path(folder))
        os.write(1, b"pid %d\n" % pid)


class Killer:
    """Starts victims and kills them after a random while. what: save or edit."""

    def __init__(self, seed: int) -> None:
        self.source = random.Random(seed)
        self.program = subprocess.Popen(
            [sys.executable, __file__], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True, bufsize=1
        )
        assert self._line() == "ready"

    def _line(self) -> str:
        assert self.program.stdout is not None
        return self.program.stdout.readline().strip()

    def kill_one(self, what: str, folder: Path, *, most_seconds: float = 0.06) -> list[str]:
        """Let a victim work, kill it a while after it has done something; return what it said it had done."""
        assert self.program.stdin is not None
        self.program.stdin.write(f"{what} {folder}\n")
        said: list[str] = []
        pid = 0
        while not (pid and said):
            line = self._line()
            if line.startswith("pid "):
                pid = int(line[4:])
            else:
                said.append(line)
        time.sleep(self.source.uniform(0, most_seconds))
        os.kill(pid, signal.SIGKILL)
        while _lives(pid):
            time.sleep(0.001)
        return said + self._rest()

    def _rest(self) -> list[str]:
        """Return what is in the pipe still."""
        import fcntl

        assert self.program.stdout is not None
        handle = self.program.stdout.fileno()
        flags = fcntl.fcntl(handle, fcntl.F_GETFL)
        fcntl.fcntl(handle, fcntl.F_SETFL, flags | os.O_NONBLOCK)
        found = []
        try:
            while line := self.program.stdout.readline():
                found.append(line.strip())
        except (BlockingIOError, TypeError):
            pass
        finally:
            fcntl.fcntl(handle, fcntl.F_SETFL, flags)
        return found

    def close(self) -> None:
        self.program.kill()
        self.program.communicate()


def never(_leaf: str) -> list[str]:
    """Be a helper that says nothing."""
    time.sleep(600)
    return []


def _lives(pid: int) -> bool:
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    return True


if __name__ == "__main__":
    victims()
