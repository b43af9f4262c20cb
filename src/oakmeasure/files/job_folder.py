"""The job folder: everything that leaves the screen, in one go. All of it is written, or nothing is there."""

from __future__ import annotations

import contextlib
import fcntl
import glob
import multiprocessing
import os
import shutil
import tempfile
import time
from collections.abc import Callable, Iterable, Iterator, Sequence
from concurrent.futures import FIRST_COMPLETED, Future, ProcessPoolExecutor, wait
from concurrent.futures.process import BrokenProcessPool
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from threading import Thread
from typing import Any

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.document.constructions import trade_name
from oakmeasure.core.document.job import Hand, Job
from oakmeasure.core.making.labels import labels_of
from oakmeasure.core.paper.router_layout import FaceUp
from oakmeasure.core.paper.templates import needs_template
from oakmeasure.core.solution import LeafSolution, Solution
from oakmeasure.core.solver import solve_leaf
from oakmeasure.files.job import job_file
from oakmeasure.files.job.job_file import NAME_LEFT, UNDER_WAY, JobFileError
from oakmeasure.files.plain_file import is_there
from oakmeasure.files.tables import lists as tables
from oakmeasure.language import SPOKEN, Language, current_language, protect_names, set_language

Task = tuple[str, Callable[[], bytes]]
Told = Callable[[int, int, str], bool]
SILENT = 20.0  # seconds without a leaf from any helper, after which they are given up
# Leaves that no helper is started for; helpers at the most
FEW = 8
MOST_HELPERS = 3


@dataclass(frozen=True, slots=True)
class Written:
    """What came into a folder: names of its files, and what was left out with its reason."""

    folder: Path
    """The folder."""
    files: tuple[str, ...]
    """Names of the files in it."""
    left_out: tuple[str, ...]
    """What is not in it, and why."""


def write_folder(
    solution: Solution,
    target: Path,
    *,
    paper: str = "A4",
    on: date | None = None,
    told: Told | None = None,
    helpers: int | None = None,
) -> Written | None:
    """Write the job folder.

    Returns None where it was stopped; then, and when JobFileError is raised, nothing is left behind. A folder
    that holds something already is not touched.

    Args:
        solution: The job, worked out.
        target: The folder to be written; it must not be there, or be empty.
        paper: "A4" or "Letter".
        on: The day that stands on the paper; None for none.
        told: How many files of how many, and which; returning False stops it.
        helpers: Processes that write leaves beside this one; where left out, as many as there are other cores,
            and none for a few leaves.

    Raises:
        PaperError: For a paper that is none or too small for a rod.
    """
    if is_there(target) and (not target.is_dir() or any(target.iterdir())):
        raise JobFileError(f"{target.name} is there already and not empty: choose another name")
    left_out: list[str] = []
    tasks = list(_tasks(solution, paper, on or date.today(), left_out))
    beside = held = None
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        _tidy(target)
        beside = Path(tempfile.mkdtemp(prefix=_under_way(target), suffix=UNDER_WAY, dir=target.parent))
        held = _hold(beside)
        for done, name in enumerate(_written(solution, tasks, beside, paper, on or date.today(), helpers)):
            if told is not None and not told(done, len(tasks), name):
                return None
        if target.exists():
            target.rmdir()
        os.chmod(beside, 0o755)
        os.replace(beside, target)
    except OSError as error:
        raise JobFileError(f"{target.name} was not written: {(error.strerror or str(error)).lower()}") from None
    finally:
        if beside is not None and beside.exists():
            shutil.rmtree(beside, ignore_errors=True)
        if held is not None:
            os.close(held)
    if told is not None:
        told(len(tasks), len(tasks), "")
    return Written(target, tuple(name for name, _ in tasks), tuple(left_out))


def _under_way(target: Path) -> str:
    return f".{target.name[:NAME_LEFT]}."


def _hold(folder: Path) -> int | None:
    """Return an open file that keeps a folder for this process, however that ends.

    None where another has it, or where the place knows no locks: what is not kept is never tidied either.
    """
    held = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
    try:
        fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        os.close(held)
        return None
    return held


def _tidy(target: Path) -> None:
    """Remove what was half written beside a folder by one that was killed; not what another is writing just now."""
    with contextlib.suppress(OSError):
        for each in target.parent.glob(f"{glob.escape(_under_way(target))}*{UNDER_WAY}"):
            if each.is_symlink() or not each.is_dir():
                continue
            held = _hold(each)
            if held is not None:
                shutil.rmtree(each, ignore_errors=True)
                os.close(held)


def _written(
    solution: Solution, tasks: Sequence[Task], folder: Path, paper: str, on: date, helpers: int | None
) -> Iterator[str]:
    """Write every file and yield its name.

    Whole leaves go to helpers, from the last one on; this process writes the rest from the first one on, and what a
    helper that died has left.
    """
    by_leaf: dict[str, list[Task]] = {}
    for task in tasks:
        by_leaf.setdefault(task[0].rpartition("/")[0], []).append(task)
    waiting = [each for each in by_leaf if each]
    if helpers is None:
        helpers = min((os.cpu_count() or 1) - 1, MOST_HELPERS) if len(waiting) > FEW else 0
    yield from _put(by_leaf.get("", ()), folder)
    if not helpers:
        for leaf in waiting:
            yield from _put(by_leaf[leaf], folder)
        return
    context = multiprocessing.get_context("spawn")  # a window's process has threads: it is not to be forked
    pool = ProcessPoolExecutor(
        helpers, context, _prepare, (job_file.dumps(solution.job), str(folder), paper, on, current_language())
    )
    yield from _shared(pool, helpers, waiting, by_leaf, folder)


def _shared(
    pool: ProcessPoolExecutor, helpers: int, waiting: list[str], by_leaf: dict[str, list[Task]], folder: Path
) -> Iterator[str]:
    """Write leaves here and in helpers; yield the names of their files."""
    sent: dict[Future[list[str]], str] = {}
    heard, is_broken = time.monotonic(), False
    try:
        while waiting or sent:
            _send(pool, waiting, sent, 2 * helpers)
            for future in [each for each in sent if each.done()]:
                leaf, heard = sent.pop(future), time.monotonic()
                # What went wrong there is done here again: then it is said, if it was not the helper's own.
                yield from future.result() if future.exception() is None else _put(by_leaf[leaf], folder)
            if waiting:
                yield from _put(by_leaf[waiting.pop(0)], folder)
            elif sent:
                wait(sent, timeout=0.2, return_when=FIRST_COMPLETED)
                if time.monotonic() - heard > SILENT:  # one that did not get as far as to say that it cannot
                    raise BrokenProcessPool
    except BrokenProcessPool:
        is_broken = True
        for child in multiprocessing.active_children():
            child.kill()
        for leaf in [*waiting, *sent.values()]:
            yield from _put(by_leaf[leaf], folder)
    finally:
        pool.shutdown(wait=not is_broken, cancel_futures=True)


def _send(pool: ProcessPoolExecutor, waiting: list[str], sent: dict[Future[list[str]], str], most: int) -> None:
    """Give helpers the last leaves, so many at a time; each leaves the list once it is sent."""
    while waiting and len(sent) < most:
        sent[pool.submit(_leaf_in_helper, waiting[-1])] = waiting[-1]
        waiting.pop()


def _put(tasks: Iterable[Task], folder: Path) -> Iterator[str]:
    """Write files into a folder, and yield the name of each before its turn: it can be stopped there."""
    for name, content in tasks:
        yield name
        path = folder / name
        path.parent.mkdir(exist_ok=True)
        path.write_bytes(content())


_HELPED: dict[str, Any] = {}  # of a helper: what it was started with


def _end_with_its_parent() -> None:
    """End this helper when the process that started it is gone, even killed: it would wait for work for ever."""
    parent = multiprocessing.parent_process()

    def watch() -> None:
        if parent is not None:
            parent.join()
            os._exit(1)

    Thread(target=watch, name="parent", daemon=True).start()


def _prepare(text: str, folder: str, paper: str, on: date, language: Language) -> None:
    _end_with_its_parent()
    set_language(language)
    job = job_file.loads(text)
    protect_names(job.names)
    _HELPED.update(job=job, folder=Path(folder), paper=paper, on=on)


def _leaf_in_helper(leaf_id: str) -> list[str]:
    """Work a leaf out again and write its files; the names of them."""
    job = _HELPED["job"]
    leaf = solve_leaf(job, job.leaf(leaf_id))
    return list(_put(_of_leaf(job, leaf, _HELPED["paper"], _HELPED["on"], []), _HELPED["folder"]))


def _tasks(solution: Solution, paper: str, on: date, left_out: list[str]) -> Iterator[Task]:
    from oakmeasure.files.tables.operations import operations_csv
    from oakmeasure.files.tables.schedule_csv import schedule_csv

    job, show = solution.job, Show(solution.job.unit, speech=SPOKEN)
    leaves = solution.leaves
    yield "job.oakjob", lambda: job_file.dumps(job).encode("utf-8")
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
    from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
    from oakmeasure.files.cad.dxf import leaf_dxf
    from oakmeasure.files.cad.svg import drawing_svg
    from oakmeasure.files.pdf.bench_sheet import bench_sheet_pdf
    from oakmeasure.files.pdf.exploded_sheet import exploded_pdf
    from oakmeasure.files.pdf.label_sheet import label_sheet_pdf
    from oakmeasure.files.pdf.record import record_pdf
    from oakmeasure.files.pdf.rods import rod_pdf
    from oakmeasure.files.pdf.stage_sheets import customer_pdf, stage_sheets_pdf
    from oakmeasure.files.pdf.templates import templates_pdf

    folder, show = leaf.leaf.id, Show(job.unit, speech=SPOKEN)
    stops = leaf.open_stops()
    if stops:
        left_out.append(f"{leaf.leaf.name}, bench sheets: not answered for: {'; '.join(each.title for each in stops)}")
    else:
        yield f"{folder}/bench sheet.pdf", lambda: bench_sheet_pdf(job, leaf, on=on)
        yield f"{folder}/stage sheets.pdf", lambda: stage_sheets_pdf(job, leaf, on=on)
    yield f"{folder}/to agree.pdf", lambda: customer_pdf(job, leaf, on=on)
    yield f"{folder}/rod {paper}.pdf", lambda: rod_pdf(job, leaf, paper=paper)
    yield f"{folder}/rod.csv", lambda: tables.rods_csv(leaf).encode("utf-8-sig")
    if needs_template(leaf):
        yield f"{folder}/templates {paper}.pdf", lambda: templates_pdf(job, leaf, paper=paper)
    yield f"{folder}/labels.pdf", lambda: label_sheet_pdf(labels_of(leaf, show, job=job.name))
    yield f"{folder}/taken apart.pdf", lambda: exploded_pdf(job, leaf, on=on)
    yield f"{folder}/leaf.svg", lambda: drawing_svg(leaf_view(leaf, show), leaf.leaf.name)
    for hand in tables.hands_of(leaf):
        for face in FaceUp:
            name = f"{folder}/{hand}, {face} face up.dxf"
            yield name, lambda hand=hand, face=face: leaf_dxf(leaf, face, Hand(hand))  # type: ignore[misc]
    if leaf.leaf.hung.signed is not None:
        yield f"{folder}/record.pdf", lambda: record_pdf(job, leaf)


def _read_me(solution: Solution, left_out: list[str], on: date) -> str:
    show, unit = Show(solution.job.unit, speech=SPOKEN), "inches" if solution.job.unit is UnitSystem.INCH else "mm"
    lines = [f"{solution.job.name}, {on.isoformat()}; sizes in {unit}", ""]
    for leaf in solution.leaves:
        size = show.size(leaf.fit.width.value, leaf.fit.height.value) if leaf.build is not None else "no leaf yet"
        kind = trade_name(leaf.leaf.build.kind)
        lines.append(
            f"{leaf.leaf.id}/  {leaf.leaf.name}: {size}, {kind}, {leaf.leaf.hanging}, {leaf.leaf.hand_in_words}"
        )
    lines += ["", "Rods and templates are full size: measure the bar of 100 mm on each page before use."]
    if left_out:
        lines += ["", "Left out:", *(f"- {each}" for each in left_out)]
    return "\n".join(lines) + "\n"
