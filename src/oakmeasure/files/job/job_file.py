"""The job file: one JSON document (`.oakjob`, UTF-8, sorted keys, a schema version, SI numbers).

Saving writes a new file beside the old one, syncs it and renames it over: a kill or a full disk leaves the old
file whole. Opening never changes a file; a file that is not understood is refused with its line and reason.
"""

from __future__ import annotations

import contextlib
import errno
import glob
import json
import os
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from oakmeasure.core.base.errors import FileError
from oakmeasure.core.document.field_path import refusal
from oakmeasure.core.document.job import MOST_LEAVES, SCHEMA_VERSION, Job
from oakmeasure.data import text as shipped_text
from oakmeasure.files.plain_file import size_of

SUFFIX = ".oakjob"
LEFT_AFTER = 600.0  # seconds after which a file that a killed save was writing is nobody's
UNDER_WAY = ".oakmeasure"  # behind the name of a file that is being written: other programs' files are not ours
NAME_LEFT = 50  # letters of a file's name that are kept in that one's: a name has 255 bytes at the most
MOST_ENTRIES = 100_000  # of all lists of a job together: the largest jobs have a tenth of that
LARGEST_FILE = 20_000_000  # bytes; a job of 200 leaves is under 1 MB


def _record(value: Any) -> dict[str, Any]:
    """Return a record, or an empty one for what is none: whatever is wrong stays, and is refused by its name later."""
    return value if isinstance(value, dict) else {}


def _records(values: Any) -> list[dict[str, Any]]:
    return [each for each in values if isinstance(each, dict)] if isinstance(values, list) else []


def upgrade_1_to_2(document: dict[str, Any]) -> dict[str, Any]:
    """Version 2 adds what else is read at an opening; all of it may be missing.

    Args:
        document: The job as JSON gave it, in the old form.
    """
    return document | {"schema_version": 2}


def upgrade_2_to_3(document: dict[str, Any]) -> dict[str, Any]:
    """Version 3 adds track sets, an even gap as the aim and what a rail's rollers are by default.

    Args:
        document: The job as JSON gave it, in the old form.
    """
    return document | {"schema_version": 3}


def upgrade_3_to_4(document: dict[str, Any]) -> dict[str, Any]:
    """Version 4 adds four constructions, where a leaf lives, what is trimmed late and what the shop can hold.

    Args:
        document: The job as JSON gave it, in the old form.
    """
    return document | {"schema_version": 4}


def upgrade_4_to_5(document: dict[str, Any]) -> dict[str, Any]:
    """Version 5 keeps how far cup hinges open with the hinge, and the guide of a sliding leaf with its gear.

    It adds latches, hangers, wall and fixings.

    Args:
        document: The job as JSON gave it, in the old form.
    """
    for leaf in _records(document.get("leaves")):
        opens = _record(leaf.get("cabinet")).pop("hinge_angle", None)
        hinge = _record(_record(leaf.get("hardware")).get("cup")).get("hinge")
        if opens not in (None, 110.0) and isinstance(hinge, dict):  # 110 was what stood there until somebody chose
            hinge["opens"] = opens
        wide, deep = (_record(leaf.get("build")).pop(f"guide_{each}", None) for each in ("width", "depth"))
        if wide is not None:
            _record(leaf.setdefault("hardware", {}))["guide"] = {
                "kind": "a fin in a groove in the foot",
                "groove_width": wide,
                "groove_depth": deep or 18.0,
            }
    return document | {"schema_version": 5}


def upgrade_5_to_6(document: dict[str, Any]) -> dict[str, Any]:
    """Version 6 adds to boards what they are like, and sections, sheets and how they are to be cut.

    Args:
        document: The job as JSON gave it, in the old form.
    """
    return document | {"schema_version": 6}


def upgrade_6_to_7(document: dict[str, Any]) -> dict[str, Any]:
    """Version 7 adds to each leaf how it is made and the log of it.

    Args:
        document: The job as JSON gave it, in the old form.
    """
    return document | {"schema_version": 7}


# What fields were called in version 7, by the part of a leaf that they are in; of its construction, by its kind.
RENAMED = {
    "fit": {"width_counts": "width_weight_percent"},
    "slide": {"air": "running_clearance"},
    "late": {"may_side": "allow_side", "may_end": "allow_end"},
    "making": {"degrees": "shop_temperature_c"},
}
BUTT_RENAMED = {"leaf": "leaf_width", "closed": "closed_thickness", "knuckle": "pin_projection", "setback": "pin_inset"}
BUILD_RENAMED = {
    "framed": {"arch": "arch_rise"},
    "veneered": {"arch": "arch_rise", "wander": "thickness_spread"},
    "boarded": {
        "board": "board_thickness",
        "frame": "frame_thickness",
        "ledge_in": "ledge_inset",
        "ledge_foot": "ledge_from_foot",
    },
    "light": {"frame": "frame_thickness"},
    "slab": {"every": "joint_spacing", "stages": "group_size"},
    "existing": {"by": "reduce_by"},
}


def _rename(record: dict[str, Any], names: dict[str, str]) -> None:
    for old, new in names.items():
        if old in record:
            record[new] = record.pop(old)


def upgrade_7_to_8(document: dict[str, Any]) -> dict[str, Any]:
    """Version 8 calls fields by what they are and from where: a butt's leaf is its width, its knuckle where its pin is.

    Args:
        document: The job as JSON gave it, in the old form.
    """
    for leaf in _records(document.get("leaves")):
        for part, names in RENAMED.items():
            _rename(_record(leaf.get(part)), names)
        build, hardware = _record(leaf.get("build")), _record(leaf.get("hardware"))
        _rename(build, BUILD_RENAMED.get(str(build.get("kind")), {}))
        for butt in (_record(hardware.get("butt")), *_records(hardware.get("packet"))):
            _rename(butt, BUTT_RENAMED)
    for butt in _records(document.get("own_butts")):
        _rename(butt, BUTT_RENAMED)
    return document | {"schema_version": 8}


def upgrade_8_to_9(document: dict[str, Any]) -> dict[str, Any]:
    """Version 9 gives both leans one sense, plus leans into the opening: until then the latch side's was plus away.

    Args:
        document: The job as JSON gave it, in the old form.
    """
    for leaf in _records(document.get("leaves")):
        lean = _record(_record(leaf.get("readings")).get("lean_latch"))
        if isinstance(lean.get("value"), int | float) and not isinstance(lean.get("value"), bool):
            lean["value"] = 0.0 - lean["value"]
    return document | {"schema_version": 9}


# Each step brings a document one version up; tests/files/samples holds a file of every older version.
UPGRADES: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {
    1: upgrade_1_to_2,
    2: upgrade_2_to_3,
    3: upgrade_3_to_4,
    4: upgrade_4_to_5,
    5: upgrade_5_to_6,
    6: upgrade_6_to_7,
    7: upgrade_7_to_8,
    8: upgrade_8_to_9,
}


class JobFileError(FileError):
    """A job file that cannot be read or written; the text says where and why."""


def dumps(job: Job) -> str:
    """Return the job as the text of its file.

    Args:
        job: The job that is read; it is not changed.
    """
    return json.dumps(job.model_dump(mode="json"), indent=1, sort_keys=True, ensure_ascii=False) + "\n"


def loads(text: str) -> Job:
    """Return the job that the text of a file holds.

    Args:
        text: The text.

    Raises:
        JobFileError: See the message.
    """
    try:
        document = json.loads(text, parse_constant=_no_constant)
    except json.JSONDecodeError as error:
        raise JobFileError(f"line {error.lineno}: {error.msg.lower()}; the file is damaged") from None
    except JobFileError:
        raise
    except ValueError:  # of more digits than Python reads
        raise JobFileError("it holds a number of thousands of digits; the file is damaged") from None
    except RecursionError:
        raise JobFileError("it is nested too deeply to be a job") from None
    if not isinstance(document, dict) or "schema_version" not in document:
        raise JobFileError("it is not a job: it has no schema version")
    version = document["schema_version"]
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise JobFileError(f"its schema version {str(version)[:20]!r} makes no sense")
    version = min(version, 10**9)
    if version > SCHEMA_VERSION:
        raise JobFileError(f"it was written by a newer version (schema {version}; this one reads {SCHEMA_VERSION})")
    leaves = document.get("leaves")
    if isinstance(leaves, list) and len(leaves) > MOST_LEAVES:  # before each of them is looked at
        raise JobFileError(f"it has {len(leaves)} leaves, a job takes {MOST_LEAVES}")
    if _has_too_many(document):
        raise JobFileError(f"its lists have more than {MOST_ENTRIES} entries together: it is far too large to be a job")
    try:
        for step in range(version, SCHEMA_VERSION):
            document = UPGRADES[step](document)
        return Job.model_validate(document)
    except ValidationError as error:
        reason = refusal(error)
        line = _line_of(text, reason.field)
        raise JobFileError(f"{line}{reason.field}: {str(reason.value)[:60]}, needs {reason.need}") from None


def _has_too_many(document: Any) -> bool:
    """Return whether all lists of a document have more entries together than those of any job."""
    entries, waiting = 0, [document]
    while waiting:
        value = waiting.pop()
        if isinstance(value, list):
            entries += len(value)
            if entries > MOST_ENTRIES:
                return True
            waiting += [each for each in value if isinstance(each, dict | list)]
        else:
            waiting += [each for each in value.values() if isinstance(each, dict | list)]
    return False


def demo_job() -> Job:
    """Return the job that ships with the application."""
    return loads(shipped_text("demo.oakjob"))


def _no_constant(name: str) -> float:
    raise JobFileError(f"it holds {name} where a number is needed")


def _line_of(text: str, path: str) -> str:
    """Return "line 12: " for the line on which the last name of a path first stands after those before it."""
    at = 0
    for name in path.split("."):
        found = text.find(f'"{name}"', at)
        if found >= 0:
            at = found
    return f"line {text.count(chr(10), 0, at) + 1}: " if at else ""


def load(path: Path | str) -> Job:
    """Return the job in a file.

    Args:
        path: The file.

    Raises:
        JobFileError: Which names the file.
    """
    path = Path(path)
    try:
        if size_of(path) > LARGEST_FILE:
            raise JobFileError("it is far too large to be a job")
        return loads(path.read_text(encoding="utf-8"))
    except JobFileError as error:
        raise JobFileError(f"{path.name} was not opened: {error}") from None
    except UnicodeDecodeError as error:
        raise JobFileError(f"{path.name} was not opened: byte {error.start} is not text (UTF-8)") from None
    except OSError as error:
        raise JobFileError(f"{path.name} was not opened: {(error.strerror or str(error)).lower()}") from None


def save(job: Job, path: Path | str) -> None:
    """Write the job to a file, whole or not at all.

    Args:
        job: The job that is read; it is not changed.
        path: The file.

    Raises:
        JobFileError: Which names the file.
    """
    path = Path(path)
    write_whole(path, dumps(job).encode("utf-8"))
    _tidy(path)


def _tidy(path: Path) -> None:
    """Remove what saves that were killed have left beside a file; not what another may be writing just now."""
    with contextlib.suppress(OSError):
        whole = path.resolve()
        for each in whole.parent.glob(f".{glob.escape(whole.name[:NAME_LEFT])}.*{UNDER_WAY}"):
            if time.time() - each.stat().st_mtime > LEFT_AFTER:
                each.unlink()


def write_whole(path: Path, content: bytes, *, mode: int = 0o644) -> None:
    """Write a file whole or not at all: a new one beside it, synced, renamed over.

    A symbolic link is followed: what it points to is written, the link stays. A device or a pipe is written into as it
    is.

    Args:
        path: The file.
        content: All that it is to hold.
        mode: Who may read and write a file that is new.

    Raises:
        JobFileError: See the message.
    """
    temporary: str | None = None
    try:
        if path.is_dir():
            raise IsADirectoryError(errno.EISDIR, "it is a folder")
        if path.exists() and not path.is_file():  # asked of the name given: a pipe behind /dev/stdout has no other
            path.write_bytes(content)
            return
        whole = path.resolve()
        handle, temporary = tempfile.mkstemp(prefix=f".{whole.name[:NAME_LEFT]}.", suffix=UNDER_WAY, dir=whole.parent)
        with os.fdopen(handle, "wb") as stream:
            stream.write(content)
            stream.flush()
            os.fsync(stream.fileno())
        os.chmod(temporary, (whole.stat().st_mode & 0o777) if whole.exists() else mode)
        os.replace(temporary, whole)
    except OSError as error:
        if temporary is not None:
            with contextlib.suppress(OSError):
                os.unlink(temporary)
        raise JobFileError(f"{path.name} was not written: {(error.strerror or str(error)).lower()}") from None
