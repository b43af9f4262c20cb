"""How a job looked when its window was closed: shown at once when it is opened again, while the rest is still imported.

A picture and the place in it (leaf, stage, page, size) for each job file, in $XDG_CACHE_HOME/oak-measure/seen. It
belongs to one content of the file: of a file that has changed since, nothing is shown that is not so any more.
"""

from __future__ import annotations

import contextlib
import hashlib
import json
from dataclasses import asdict, dataclass
from pathlib import Path

from platformdirs import user_cache_path
from PySide6.QtGui import QPixmap

from oakmeasure import __version__
from oakmeasure.app.shell import theme
from oakmeasure.files.job.claims import seal
from oakmeasure.files.private import private_folder

KEPT = 12  # jobs
DEMO = "the demo job"


@dataclass(frozen=True, slots=True)
class Seen:
    """Where one was. width, height: of the window, px."""

    leaf: str = ""
    stage: str = ""
    page: str = ""
    width: int = 1280
    height: int = 800


def _name(path: Path | None) -> str:
    """Return the name under which the look of a job file, or of the demo job, is kept."""
    what = f"{path.resolve()} {seal(path)}" if path is not None else f"{DEMO} {__version__}"
    whole = f"{what} {theme.palette().name} {__version__}"
    return hashlib.sha256(whole.encode("utf-8", "surrogatepass")).hexdigest()[:32]


def folder() -> Path:
    """Return where they are kept."""
    return user_cache_path("oak-measure") / "seen"


def keep_look(picture: QPixmap, seen: Seen, path: Path | None) -> None:
    """Keep how a job looks now. What cannot be kept is no trouble: the plain frame stands there then."""
    name = folder() / _name(path)
    with contextlib.suppress(OSError):
        private_folder(folder())
        picture.save(f"{name}.png", "PNG", 80)
        Path(f"{name}.json").write_text(json.dumps(asdict(seen)), encoding="utf-8")
        for old in sorted(folder().glob("*.json"), key=lambda each: each.stat().st_mtime, reverse=True)[KEPT:]:
            old.unlink(missing_ok=True)
            old.with_suffix(".png").unlink(missing_ok=True)


def last_look(path: Path | None) -> tuple[QPixmap | None, Seen | None]:
    """Return how a job looked and where one was; None, None where it has changed since or was never seen."""
    name = folder() / _name(path)
    try:
        found = json.loads(Path(f"{name}.json").read_text(encoding="utf-8"))
        leaf, stage, page = (str(found[each]) for each in ("leaf", "stage", "page"))
        seen = Seen(leaf, stage, page, int(found["width"]), int(found["height"]))
    except (OSError, ValueError, TypeError, KeyError, RecursionError):
        return None, None
    picture = QPixmap(f"{name}.png")
    return (None if picture.isNull() else picture), seen
