"""The job folder: everything that leaves the screen, in one go. All of it is written, or nothing is there."""

from __future__ import annotations

import os
import shutil
import tempfile
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import date
from pathlib import Path

from oakmeasure.core.build import CONSTRUCTIONS
from oakmeasure.core.job import Hand, Job
from oakmeasure.core.making.labels import labels_of
from oakmeasure.core.paper.flat import FaceUp
from oakmeasure.core.paper.templates import templates
from oakmeasure.core.solve import LeafSolution, Solution
from oakmeasure.core.units import Show
from oakmeasure.files import jobfile, tables
from oakmeasure.files.jobfile import JobFileError

Task = tuple[str, Callable[[], bytes]]
Told = Callable[[int, int, str], bool]


@dataclass(frozen=True, slots=True)
class Written:
    """What came into a folder: names of its files, and what was left out with its reason."""

    folder: Path
    files: tuple[str, ...]
    left_out: tuple[str, ...]


def write_folder(
    solution: Solution, target: Path, *, paper: str = "A4", on: date | None = None, told: Told | None = None
) -> Written | None:
    """Write the job folder. told: how many files of how many, and which; returning False stops it.

    Returns None where it was stopped; then, and when JobFileError is raised, nothing is left behind. A folder that
    holds something already is not touched. Raises PaperError for a paper that is none or too small for a rod.
    """
    if target.exists() and (not target.is_dir() or any(target.iterdir())):
        raise JobFileError(f"{target.name} is there already and not empty: choose another name")
    left_out: list[str] = []
    tasks = list(_tasks(solution, paper, on or date.today(), left_out))
    beside = None
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        beside = Path(tempfile.mkdtemp(prefix=f".{target.name}.", dir=target.parent))
        for at, (name, content) in enumerate(tasks):
            if told is not None and not told(at, len(tasks), name):
                shutil.rmtree(beside, ignore_errors=True)
                return None
            path = beside / name
            path.parent.mkdir(exist_ok=True)
            path.write_bytes(content())
        if target.exists():
            target.rmdir()
        os.chmod(beside, 0o755)
        os.replace(beside, target)
    except OSError as error:
        raise JobFileError(f"{target.name} was not written: {(error.strerror or str(error)).lower()}") from None
    finally:
        if beside is not None and beside.exists():
            shutil.rmtree(beside, ignore_errors=True)
    if told is not None:
        told(len(tasks), len(tasks), "")
    return Written(target, tuple(name for name, _ in tasks), tuple(left_out))


def _tasks(solution: Solution, paper: str, on: date, left_out: list[str]) -> Iterator[Task]:
    from oakmeasure.files.making_tables import operations_csv
    from oakmeasure.files.schedule_csv import schedule_csv

    job, show = solution.job, Show(solution.job.unit)
    leaves = solution.leaves
    yield "job.oakjob", lambda: jobfile.dumps(job).encode("utf-8")
    for name, text in (
        ("schedule", lambda: schedule_csv(solution)),
        ("cut list", lambda: tables.cut_list_csv(solution)),
        ("settings", lambda: tables.settings_csv(solution)),
        ("boring list", lambda: tables.boring_list_csv(solution)),
        ("keep-out zones", lambda: tables.keep_outs_csv(solution)),
        ("operations", lambda: operations_csv(leaves, show)),
    ):
        yield f"{name}.csv", lambda text=text: text().encode("utf-8-sig")  # type: ignore[misc]
    for leaf in leaves:
        if leaf.build is None:
            left_out.append(f"{leaf.leaf.name}: there is no leaf yet")
            continue
        yield from _of_leaf(job, leaf, paper, on, left_out)
    yield "read me.txt", lambda: _read_me(solution, left_out, on).encode("utf-8")


def _of_leaf(job: Job, leaf: LeafSolution, paper: str, on: date, left_out: list[str]) -> Iterator[Task]:
    from oakmeasure.core.drawings.leaf_view import leaf_view
    from oakmeasure.files.bench_sheet import bench_sheet_pdf
    from oakmeasure.files.dxf_out import leaf_dxf
    from oakmeasure.files.label_sheet import label_sheet_pdf
    from oakmeasure.files.record_pdf import record_pdf
    from oakmeasure.files.rod_pdf import rod_pdf
    from oakmeasure.files.svg_out import drawing_svg
    from oakmeasure.files.template_pdf import templates_pdf

    folder, show = leaf.leaf.id, Show(job.unit)
    stops = leaf.open_stops()
    if stops:
        left_out.append(f"{leaf.leaf.name}, bench sheet: not answered for: {'; '.join(each.title for each in stops)}")
    else:
        yield f"{folder}/bench sheet.pdf", lambda: bench_sheet_pdf(job, leaf, on=on)
    yield f"{folder}/rod {paper}.pdf", lambda: rod_pdf(job, leaf, paper=paper)
    yield f"{folder}/rod.csv", lambda: tables.rods_csv(leaf).encode("utf-8-sig")
    if templates(leaf, show):
        yield f"{folder}/templates {paper}.pdf", lambda: templates_pdf(job, leaf, paper=paper)
    yield f"{folder}/labels.pdf", lambda: label_sheet_pdf(labels_of(leaf, show, job=job.name))
    yield f"{folder}/leaf.svg", lambda: drawing_svg(leaf_view(leaf, show), leaf.leaf.name)
    for hand in tables.hands_of(leaf):
        for face in FaceUp:
            name = f"{folder}/{hand}, {face} face up.dxf"
            yield name, lambda hand=hand, face=face: leaf_dxf(leaf, face, Hand(hand))  # type: ignore[misc]
    if leaf.leaf.hung.signed is not None:
        yield f"{folder}/record.pdf", lambda: record_pdf(job, leaf)


def _read_me(solution: Solution, left_out: list[str], on: date) -> str:
    lines = [f"{solution.job.name}, {on.isoformat()}", ""]
    for leaf in solution.leaves:
        size = (
            f"{leaf.fit.width.value:.1f} x {leaf.fit.height.value:.1f} mm" if leaf.build is not None else "no leaf yet"
        )
        kind = CONSTRUCTIONS[leaf.leaf.build.kind][0]
        lines.append(
            f"{leaf.leaf.id}/  {leaf.leaf.name}: {size}, {kind}, {leaf.leaf.hanging}, {leaf.leaf.hand_in_words}"
        )
    lines += ["", "Rods and templates are full size: measure the bar of 100 mm on each page before use."]
    if left_out:
        lines += ["", "Left out:", *(f"- {each}" for each in left_out)]
    return "\n".join(lines) + "\n"
