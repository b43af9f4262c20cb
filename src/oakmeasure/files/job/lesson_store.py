"""Lessons that outlive their job: lines of JSON in the person's own data folder; a damaged line costs only itself."""

from __future__ import annotations

import json
from pathlib import Path

from platformdirs import user_data_path

from oakmeasure.core.making.lessons import Lesson
from oakmeasure.files.job.job_file import write_whole
from oakmeasure.files.private import ONLY_MINE, private_folder

MOST = 500  # kept; the oldest go first


def place() -> Path:
    """Return the file of the lessons."""
    return user_data_path("oak-measure") / "lessons.jsonl"


def kept_lessons() -> tuple[Lesson, ...]:
    """Return the lessons that are kept; none where there is no file or it cannot be read."""
    try:
        lines = place().read_text(encoding="utf-8", errors="replace").splitlines()
    except OSError:
        return ()
    return tuple(lesson for line in lines if (lesson := _read(line)) is not None)


def _read(line: str) -> Lesson | None:
    try:
        return Lesson.of_record(json.loads(line))
    except (ValueError, KeyError, TypeError):
        return None


def keep(lesson: Lesson) -> None:
    """Put a lesson to the others, once.

    Args:
        lesson: The lesson.

    Raises:
        JobFileError: Where that cannot be written.
    """
    old = kept_lessons()
    if lesson in old:
        return
    rows = [*old, lesson][-MOST:]
    text = "".join(json.dumps(each.record(), ensure_ascii=False) + "\n" for each in rows)
    where = place()
    try:
        private_folder(where.parent)
    except OSError:
        return  # no data folder: the lesson stays in its job
    write_whole(where, text.encode("utf-8"), mode=ONLY_MINE)
