"""The command `oak-measure`: the window, and the same answers without a screen."""

from __future__ import annotations

import errno
import os
import sys

COMMANDS = (
    "shot",
    "figures",
    "sheet",
    "cut-list",
    "boring-list",
    "demo-picture",
    "schema",
    "to-measure",
    "gauge-sim",
    "keep-outs",
    "cut",
    "settings",
    "operations",
    "labels",
    "printer-sim",
    "sum",
    "rod",
    "templates",
    "customer",
    "apart",
    "dxf",
    "svg",
    "schedule",
    "read-schedule",
    "hardware",
    "folder",
    "install-desktop",
)


DONE, FAULT, REFUSED, PIPE_CLOSED = 0, 1, 2, 141  # exit codes; the last is what a shell gives for a closed pipe
USAGE = """oak-measure [JOB]             open the window, on a job
oak-measure --demo            open the window on the demo job
oak-measure COMMAND …         answer without a screen; oak-measure COMMAND --help
oak-measure --help            the commands
oak-measure --version         the version

It ends with 0 when all is done, 1 after a fault of the program, 2 where something is refused, in one line."""


def main() -> None:
    """Open the window on `[JOB]`, or run one of the commands, and leave with its exit code.

    What reads the output may have gone, `| head -1`: then there is nothing more to say. A device that is full is said.
    """
    out = sys.stdout
    status = _answered(sys.argv[1:])
    if sys.stdout is not out:  # the command line's library has put a deaf one in the place of a pipe that closed
        status = PIPE_CLOSED
    try:
        sys.stdout.flush()
    except OSError as error:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())  # or Python would try once more as it ends
        status = PIPE_CLOSED
        if not isinstance(error, BrokenPipeError):
            status = _refused((error.strerror or str(error)).lower())
    raise SystemExit(status)


def _answered(words: list[str]) -> int:
    """Do what the words ask. Returns the exit code."""
    try:
        return _done(words)
    except SystemExit as left:
        return left.code if isinstance(left.code, int) else DONE if left.code is None else REFUSED
    except BrokenPipeError:
        return PIPE_CLOSED
    except OSError as error:
        if error.errno != errno.ENOSPC:
            return _failed(error)
        return _refused((error.strerror or str(error)).lower())
    except Exception as error:
        return _failed(error)


def _done(words: list[str]) -> int:
    first = words[0] if words else ""
    if first in ("-h", "--version"):
        from oakmeasure import __version__

        print(USAGE if first == "-h" else f"oak-measure {__version__}")
        return DONE
    if first in COMMANDS and first == "sum":  # answers at once: no command line's library, no models
        from oakmeasure.cli.quick_sum import run as run_sum

        return run_sum(words[1:])
    if first in COMMANDS or (first.startswith("-") and first != "--demo"):
        from oakmeasure.cli.inspect import app

        app()
        return DONE
    if len(words) > 1:
        return _refused("one job at a time" if first == "--demo" or not _is_no_job(first) else _no_command(first))
    if first and first != "--demo" and _is_no_job(first):
        return _refused(_no_command(first))
    # The window does not wait for the command line's library: it starts at once.
    from oakmeasure.app.shell.splash import run

    return run(None if first in ("", "--demo") else first, demo=first == "--demo")


def _is_no_job(word: str) -> bool:
    """Return whether a word is meant as a command: no file is called so, and no job would be."""
    return not (os.path.lexists(word) or os.sep in word or word.endswith(".oakjob"))


def _no_command(word: str) -> str:
    import difflib

    near = difflib.get_close_matches(word, COMMANDS, 1)
    return f"{word}: no command and no file" + (
        f"; the nearest command is {near[0]}" if near else "; see oak-measure -h"
    )


def _refused(words: str) -> int:
    print(f"oak-measure: {words}", file=sys.stderr)
    return REFUSED


def _failed(error: Exception) -> int:
    from oakmeasure.files.crash_log import log_trouble

    print(f"oak-measure: {log_trouble(error)}", file=sys.stderr)
    return FAULT
