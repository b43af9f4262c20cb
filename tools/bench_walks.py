"""Random edits through the core and through the window, every way of hanging, hostile files and calls; for bench.py."""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
import tempfile
import time
from pathlib import Path

ROOT = Path(__file__).parent.parent
CORE_STEPS, EXTREMES, WINDOW_STEPS, SCREEN_STEPS = 3000, 2000, 1500, 400
BODY_LEAVES = 1000  # in each of two processes
SLOWEST_S = 0.3  # of CPU, that the main thread may be held by one step
Row = tuple[str, str, str, bool]

WALK = """
import json, logging, random, sys
logging.disable(50)
sys.path.insert(0, sys.argv[1])
from walking import at_extremes, complaints, shown_complaints, walk
from oakmeasure.core.document.job import new_job
from oakmeasure.core.solver import solve_leaf
from oakmeasure.files.job.job_file import demo_job
seed = int(sys.argv[2])
met = walk(demo_job(), int(sys.argv[3]), seed=seed)
found, source, job = dict(met.found), random.Random(seed), new_job()
for _ in range(int(sys.argv[4])):
    made = at_extremes(job, source)
    leaf = solve_leaf(made, made.leaves[0])
    for each in complaints(made, leaf) or shown_complaints(made, leaf, source):
        found.setdefault(each, "at the limits")
print(json.dumps([met.steps, met.taken, found]))
"""

BODIES = """
import json, logging, random, sys, time
logging.disable(50)
sys.path.insert(0, sys.argv[1])
from body_laws import laws, random_leaf, unlike_its_mirror
from oakmeasure.core.body.of_build import body_of
from oakmeasure.core.solver import solve_leaf
from oakmeasure.files.job.job_file import demo_job
job, source, found = demo_job(), random.Random(int(sys.argv[2])), {}
whole, body = [], []
for at in range(int(sys.argv[3])):
    leaf = random_leaf(job, source)
    start = time.process_time()
    solved = solve_leaf(job, leaf)
    whole.append(time.process_time() - start)
    for each in laws(solved):
        found.setdefault(each, f"{leaf.name}, {leaf.build.kind}, {leaf.hanging}, {leaf.head.kind}")
    if at % 5 == 0:
        for each in unlike_its_mirror(job, leaf.model_copy(update={"old_frame": None})):
            found.setdefault(f"mirrored, {each} differs", leaf.name)
    if solved.build is not None:
        start = time.process_time()
        made = body_of(solved.build)
        [piece.net for piece in made.pieces], made.along("hinge"), made.along("latch")
        body.append(time.process_time() - start)
whole.sort(), body.sort()
print(json.dumps([at + 1, whole[len(whole) // 2], body[len(body) // 2], body[int(len(body) * 0.95)], found]))
"""

REPLAYS = """
import json, logging, random, sys, time
logging.disable(50)
sys.path.insert(0, sys.argv[1])
from replay_laws import random_made, unmade
from oakmeasure.core.making.replay import replay
from oakmeasure.core.solver import solve_leaf
from oakmeasure.files.job.job_file import demo_job
job, source, found, times = demo_job(), random.Random(100 + int(sys.argv[2])), {}, []
for at in range(int(sys.argv[3])):
    leaf = random_made(job, source)
    solved = solve_leaf(job, leaf)
    for each in unmade(solved):
        found.setdefault(each, f"{leaf.name}, {leaf.build.kind}, {leaf.hanging}, {leaf.head.kind}")
    if solved.body is not None and solved.making is not None:
        start = time.process_time()
        replay(solved.body, solved.cut_parts, solved.making.operations)
        times.append(time.process_time() - start)
times.sort()
print(json.dumps([at + 1, times[len(times) // 2], times[-1], found]))
"""

SWEEP = """
import json, logging, sys
logging.disable(50)
sys.path.insert(0, sys.argv[1])
from walking import complaints
from oakmeasure.core.document.constructions import KINDS, model_of
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.readings import HeadKind
from oakmeasure.core.solver import solve_leaf
from oakmeasure.files.job.job_file import demo_job
job, tried, found = demo_job(), 0, {}
for at, leaf in enumerate(job.leaves):
    if at % 2 != int(sys.argv[2]):
        continue
    for kind in (None, *KINDS):
        for hanging in Hanging:
            for head in (None, *HeadKind):
                update = {"hanging": hanging}
                if kind:
                    update["build"] = model_of(kind)()
                if head:
                    update["head"] = leaf.head.model_copy(update={"kind": head})
                made = leaf.model_copy(update=update)
                tried += 1
                for each in complaints(job, solve_leaf(job, made)):
                    found.setdefault(each, f"{leaf.id}, {kind}, {hanging}, {head}")
print(json.dumps([tried, found]))
"""


def _two(code: str, *words: str) -> tuple[list[list[object]], dict[str, str], float]:
    """Return what a piece of work in two processes told, what it found, and the seconds that it took."""
    start = time.perf_counter()
    half = [
        subprocess.Popen(
            [sys.executable, "-c", code, str(ROOT / "tests"), str(at), *words], stdout=subprocess.PIPE, text=True
        )
        for at in (0, 1)
    ]
    told = [json.loads(each.communicate()[0] or '[0, 0, {"it ended": ""}]') for each in half]
    found = {what: where for *_, each in told for what, where in each.items()}
    return told, found, time.perf_counter() - start


def core() -> list[Row]:
    """Random edits, remedies and limits; every way of hanging with every construction and head."""
    told, found, took = _two(WALK, str(CORE_STEPS), str(EXTREMES))
    steps, taken = (sum(int(str(each[at])) for each in told) for at in (0, 1))
    first = next(iter(found), "")[:120]
    words = (
        f"{steps} steps, {taken} remedies, {2 * EXTREMES} leaves at their limits: {len(found)} failures, {took:.0f} s"
    )
    rows = [
        ("random edits through the core", "5 000 steps, no failure", f"{words} {first}", not found and steps >= 5000)
    ]
    told, found, took = _two(SWEEP)
    tried = sum(int(str(each[0])) for each in told)
    what = "every hanging, construction and head of the demo's leaves"
    words = f"{tried} leaves: {len(found)} failures, {took:.0f} s {next(iter(found), '')[:120]}"
    return [*rows, (what, "no failure", words, not found), *bodies(), *replays()]


def bodies() -> list[Row]:
    """Random leaves of every construction, way of hanging and head against the laws of a body, and what one costs."""
    told, found, took = _two(BODIES, str(BODY_LEAVES))
    tried = sum(int(str(each[0])) for each in told)
    first = next(((what, where) for what, where in found.items()), ("", ""))
    words = f"{tried} leaves: {len(found)} broken, {took:.0f} s {' '.join(first)[:160]}"
    laws = ("random leaves that are bodies", f"{2 * BODY_LEAVES}, no law broken", words, not found)
    solved, body, slow = (max(float(str(each[at])) * 1000 for each in told) for at in (1, 2, 3))
    words = f"{body:.1f} ms of {solved:.1f} ms that the leaf takes ({body / solved:.0%}); 19 of 20 under {slow:.1f} ms"
    return [laws, ("body of one leaf, median", "under 6 ms", words, body < 6.0)]


def replays() -> list[Row]:
    """Random leaves with random choices, every step of them done on the pieces."""
    told, found, took = _two(REPLAYS, str(BODY_LEAVES))
    tried = sum(int(str(each[0])) for each in told)
    first = next(((what, where) for what, where in found.items()), ("", ""))
    words = f"{tried} leaves: {len(found)} broken, {took:.0f} s {' '.join(first)[:160]}"
    laws = ("random leaves whose steps end at them", f"{2 * BODY_LEAVES}, no law broken", words, not found)
    middle, slow = (max(float(str(each[at])) * 1000 for each in told) for at in (1, 2))
    return [laws, ("replay of one leaf", "under 15 ms", f"median {middle:.1f} ms, slowest {slow:.1f} ms", slow < 15.0)]


def window() -> list[Row]:
    """Random hands on the window, offscreen and on a real screen; its slowest step."""
    rows: list[Row] = []
    runs = [("offscreen", [], WINDOW_STEPS, seed) for seed in (1, 2)]
    if shutil.which("xvfb-run"):
        runs.append(("xcb", ["xvfb-run", "-a", "-s", "-screen 0 1280x800x24"], SCREEN_STEPS, 3))
    steps, found, slowest = 0, {}, []
    for platform, before, many, seed in runs:
        done = subprocess.run(
            [*before, sys.executable, str(ROOT / "tests/window_walk.py"), str(many), str(seed)],
            env={**os.environ, "QT_QPA_PLATFORM": platform},
            capture_output=True,
            text=True,
            check=False,
        )
        lines = done.stdout.strip().splitlines()
        met = json.loads(lines[-1]) if not done.returncode and lines else {"steps": 0, "found": {"it ended": ""}}
        steps += met["steps"]
        found |= met["found"]
        slowest += met.get("slowest", [])
    words = f"{steps} steps, {len(found)} failures {next(iter(found), '')[:120]}"
    rows.append(("random hands on the window", "3 000 steps, no failure", words, not found and steps >= 3000))
    seconds, step = max(slowest, default=[99.0, "none"])
    over = sum(each[0] > SLOWEST_S for each in slowest)
    words = f"{1000 * seconds:.0f} ms ({step[:40]}), {over} over it"
    return [*rows, ("slowest step of the window, CPU of its main thread", "under 300 ms", words, seconds < SLOWEST_S)]


def calls() -> list[Row]:
    """Files that are none and options that are none, through every command."""
    sys.path.insert(0, str(ROOT / "tests"))
    from hostile import tried

    start = time.perf_counter()
    with tempfile.TemporaryDirectory() as place:
        many, failed = tried(Path(place))
    words = f"{many} calls: {len(failed)} failures, {time.perf_counter() - start:.0f} s {next(iter(failed), '')[:160]}"
    return [("hostile files and calls of the command line", "no failure", words, not failed)]


def rows() -> list[Row]:
    """Return every row."""
    return [*core(), *window(), *calls()]
