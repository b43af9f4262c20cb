"""What happens when the program itself is wrong: a sentence for the person, the traceback for a file."""

from __future__ import annotations

import datetime
import traceback
from pathlib import Path

from platformdirs import user_log_path

from oakmeasure import __version__
from oakmeasure.files.private import private_opener


def log_trouble(error: BaseException, folder: Path | None = None) -> str:
    """Append the traceback to the log and return a sentence that says so. Never raises.

    Args:
        error: What was not caught.
        folder: Where the log is kept; None for the user's state folder.
    """
    try:
        place = folder or user_log_path("oak-measure", ensure_exists=True)
        path = place / "trouble.log"
        with open(path, "a", encoding="utf-8", opener=private_opener) as log:
            log.write(f"--- {datetime.datetime.now().isoformat(timespec='seconds')} version {__version__}\n")
            traceback.print_exception(error, file=log)
        where = f" The details are in {path}."
    except OSError:
        where = ""
    return f"Something went wrong that is not your doing ({type(error).__name__}).{where}"
