"""Nothing is lost, and nothing is leaked: kills, damaged input, a thousand edits, a job of 200 leaves; for bench.py."""

from __future__ import annotations

import gc
import importlib.util
import json
import subprocess
import sys
import tempfile
import time
from pathlib import Path

ROOT = Path(__file__).parent.parent
SAVES_KILLED, EDITS_KILLED, INPUTS = 200, 50, 100_000
Row = tuple[str, str, str, bool]

FUZZ = """
import json, logging, sys, tempfile
from dataclasses import asdict
from pathlib import Path
logging.disable(50)
sys.path.insert(0, sys.argv[1])
from fuzzing import fuzz
with tempfile.TemporaryDirectory() as place:
    outcomes = fuzz(Path(place), int(sys.argv[2]), seed=int(sys.argv[3]))
print(json.dumps({name: asdict(each) for name, each in outcomes.items()}))
"""

ATHERIS = """
import logging, os, sys, tempfile
from pathlib import Path
logging.disable(50)
sys.path.insert(0, sys.argv[1])
import atheris
with atheris.instrument_imports(include=["oakmeasure.files", "oakmeasure.gauges"]):
    from fuzzing import Outcome, targets, try_one
every = [each for each in targets() if each.name != "dxf"]
place = Path(tempfile.mkdtemp())
outcome = Outcome()
def one(data):
    if data:
        target = every[data[0] % len(every)]
        try_one(target, data[1:], place / f"input{target.suffix}", outcome)
seeds = Path(tempfile.mkdtemp())
for at, target in enumerate(every):
    for n, seed in enumerate(target.seeds):
        (seeds / f"{target.name}-{n}").write_bytes(bytes([at]) + seed)
limits = [f"-runs={sys.argv[2]}", "-max_len=4000", "-rss_limit_mb=500", "-timeout=2", "-verbosity=0"]
atheris.Setup([sys.argv[0], *limits, str(seeds)], one)
atheris.Fuzz()
"""


def kills() -> list[Row]:
    """Programs killed while they save, and while they are edited: what is on the disk afterwards."""
    sys.path.insert(0, str(ROOT / "tests"))
    from killed import Killer
    from oakmeasure.core.document.job import new_job
    from oakmeasure.files.job.job_file import load, save
    from oakmeasure.files.job.journal import left_behind

    lost = whole = 0
    killer = Killer(seed=1)
    with tempfile.TemporaryDirectory() as place:
        folder = Path(place)
        save(new_job("job 0"), folder / "a.oakjob")
        for _ in range(SAVES_KILLED):
            killer.kill_one("save", folder)
            whole += load(folder / "a.oakjob").name in ("job 0", "job 1")
        job_edits = 0
        for at in range(EDITS_KILLED):
            said = killer.kill_one("edit", folder / str(at), most_seconds=0.2)
            (left,) = left_behind(folder / str(at) / "journal")
            job_edits += len(said)
            lost += left.job.leaves[0].fit.gap_floor < 3.0 + int(said[-1]) / 1000 - 1e-9
    killer.close()
    return [
        (f"{SAVES_KILLED} kills while saving: files that are whole", "all", f"{whole}", whole == SAVES_KILLED),
        (f"{EDITS_KILLED} kills while editing, {job_edits} edits: jobs that miss one", "none", f"{lost}", not lost),
    ]


def damaged_input() -> list[Row]:
    """A hundred thousand damaged files and lines, half of them in each of two processes."""
    start = time.perf_counter()
    half = [
        subprocess.Popen(
            [sys.executable, "-c", FUZZ, str(ROOT / "tests"), str(INPUTS // 2), str(seed)],
            stdout=subprocess.PIPE,
            stderr=subprocess.PIPE,
            text=True,
        )
        for seed in (1, 2)
    ]
    outcomes, failed = [], ""
    for each in half:
        said, trouble = each.communicate()
        if each.returncode:
            failed = (trouble.strip().splitlines() or ["it ended"])[-1][:160]
        else:
            outcomes += list(json.loads(said).values())
    inputs = sum(each["inputs"] for each in outcomes)
    slowest, mb = (max((each[what] for each in outcomes), default=0.0) for what in ("slowest", "mb"))
    words = failed or f"{inputs}, slowest {slowest * 1000:.0f} ms, {mb:.0f} MB, {time.perf_counter() - start:.0f} s"
    fine = not failed and inputs >= 0.99 * INPUTS and slowest < 2 and mb < 500
    return [("damaged files and lines, read or refused", "100 000, under 2 s and 500 MB", words, fine), _by_atheris()]


def _by_atheris() -> Row:
    what, budget = "the same led by coverage (atheris)", "20 000 runs, nothing found"
    if importlib.util.find_spec("atheris") is None:
        return what, budget, "not to be had for this Python", True
    done = subprocess.run(
        [sys.executable, "-c", ATHERIS, str(ROOT / "tests"), "20000"], capture_output=True, text=True, check=False
    )
    lines = done.stderr.strip().splitlines()
    return what, budget, "nothing" if not done.returncode else (lines or ["it ended"])[-1][:160], not done.returncode


def leaks() -> list[Row]:
    """A thousand edits in the window, each painted: memory after the first hundred, and at the end."""
    code = """
import gc, json, os, sys
os.environ["QT_QPA_PLATFORM"] = "offscreen"
from oakmeasure.files.job.job_file import demo_job
from oakmeasure.app.shell.start import application, open_window
app = application()
window = open_window(demo_job())
while window.session.solution.next_missing():
    app.processEvents()
def held():
    gc.collect()
    with open("/proc/self/statm") as stream:
        return int(stream.read().split()[1]) * os.sysconf("SC_PAGE_SIZE") / 1e6
window.session.undo_stack.setUndoLimit(50)
marks = []
for at in range(1100):
    assert not window.session.edit("build.stile", 90.0 + at % 10 + at / 1000)
    app.processEvents()
    if at in (99, 1099):
        marks.append(held())
print(json.dumps(marks))
sys.stdout.flush()
os._exit(0)
"""
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    first, last = json.loads(done.stdout)
    grown = last / first - 1
    return [
        (
            "memory over 1000 edits",
            "flat within 5 %",
            f"{100 * grown:+.1f} % ({first:.0f} to {last:.0f} MB)",
            grown < 0.05,
        )
    ]


def schedule_of_200() -> list[Row]:
    """A schedule of 200 openings read into a job; that opened, and one of its leaves edited."""
    from oakmeasure.core.edits import job_edits
    from oakmeasure.core.solver import Solver
    from oakmeasure.files.job.job_file import demo_job, load, save
    from oakmeasure.files.tables.schedule_csv import read_schedule, with_schedule

    with tempfile.TemporaryDirectory() as place:
        csv, file = Path(place) / "s.csv", Path(place) / "a.oakjob"
        lines = [f"Store {n},{700 + n % 120},{1950 + n % 90},{('left', 'right')[n % 2]}" for n in range(200)]
        csv.write_text("\n".join(["name,width_mm,height_mm,hand", *lines]), "utf-8")
        job = demo_job()
        job = job.model_copy(update={"leaves": job.leaves[:1]})
        start = time.perf_counter()
        leaves = read_schedule(csv, job)
        read = time.perf_counter() - start
        job = with_schedule(job, leaves)
        save(job, file)
        start = time.perf_counter()
        opened = load(file)
        solver = Solver()
        solver.unfold(opened).leaf(opened.leaves[0].id)
        shown = time.perf_counter() - start
        start = time.perf_counter()
        solver.solve(opened)
        rest = time.perf_counter() - start
        start = time.perf_counter()
        solver.solve(job_edits.with_field(opened, opened.leaves[5].id, "fit.gap_floor", 7.0))
        edited = time.perf_counter() - start
    gc.collect()
    return [
        ("a schedule of 200 openings read", "-", f"{read:.2f} s", True),
        (
            "the job of it: opened, its first leaf there",
            "under 2 s",
            f"{shown:.2f} s, all others {rest:.1f} s after it",
            shown < 2,
        ),
        ("the job of it: one edit solved", "under 100 ms", f"{edited * 1000:.0f} ms", edited < 0.1),
    ]


def rows() -> list[Row]:
    """Return every row."""
    return [*kills(), *damaged_input(), *leaks(), *schedule_of_200()]
