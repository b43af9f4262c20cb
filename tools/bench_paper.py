"""What leaves the screen, and quick sums: how long they take; for bench.py."""

from __future__ import annotations

import statistics
import sys
import time
from pathlib import Path

Row = tuple[str, str, str, bool]


def paper() -> list[Row]:
    """The job folder of the demo job, and a schedule of 200 leaves scrolled through."""
    import os
    import tempfile

    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from oakmeasure.app.shell.start import application
    from oakmeasure.core.edits import job_edits
    from oakmeasure.core.solver import solve
    from oakmeasure.files.job.job_file import demo_job
    from oakmeasure.files.job_folder import write_folder
    from oakmeasure.files.pdf.rods import rod_pdf

    job = demo_job()
    solution = solve(job)
    start = time.perf_counter()
    for leaf in solution.leaves:
        rod_pdf(job, leaf)
    rods = time.perf_counter() - start
    with tempfile.TemporaryDirectory() as place:
        start = time.perf_counter()
        written = write_folder(solution, Path(place) / "folder")
        whole = time.perf_counter() - start
    assert written is not None

    from oakmeasure.app.shell.session import Session
    from oakmeasure.app.shell.window import Window

    for n in range(200 - len(job.leaves)):
        job = job_edits.with_new_leaf(job, f"Store {n}")
    app = application()
    window = Window(Session(job))
    window.session.whole()
    window.commands.schedule()
    lines = window.commands.lines
    assert lines is not None
    app.processEvents()
    bar, steps = lines.table.verticalScrollBar(), []
    for place in range(0, bar.maximum(), 120):
        start = time.perf_counter()
        bar.setValue(place)
        lines.table.viewport().repaint()
        steps.append((time.perf_counter() - start) * 1000)
    lines.close()
    window.session.undo_stack.setClean()
    window.close()
    median = statistics.median(steps)
    return [
        (f"job folder, {len(written.files)} files", "under 10 s", f"{whole:.1f} s, rods {rods:.1f}", whole < 10),
        (
            "a schedule of 200 leaves, one step of scrolling",
            "under 16 ms",
            f"{median:.1f} ms, at most {max(steps):.1f}",
            median < 16,
        ),
    ]


def quick_sums() -> list[Row]:
    """A quick sum on the command line beside an empty interpreter, and its box in the window."""
    import os
    import subprocess

    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    sizes = ["--length", "2000", "--width", "700", "--thickness", "40"]
    words = ["sum", "weight", "--species", "red_oak", *sizes, "--json"]
    code = f"import sys; sys.argv = ['oak-measure', *{words!r}]; from oakmeasure.cli.main import main; main()"
    times: dict[str, list[float]] = {"pass": [], code: []}
    for _ in range(9):
        for each, taken in times.items():
            start = time.perf_counter()
            subprocess.run([sys.executable, "-c", each], capture_output=True, check=False)
            taken.append((time.perf_counter() - start) * 1000)
    bare, took = (statistics.median(each) for each in times.values())

    from oakmeasure.app.shell.session import Session
    from oakmeasure.app.shell.start import application
    from oakmeasure.app.shell.window import Window
    from oakmeasure.files.job.job_file import demo_job

    app = application()
    window = Window(Session(demo_job()))
    window.resize(1280, 800)
    window.show()
    box = window.commands.ready_sums()
    for _ in range(6):
        app.processEvents()
    opened = []
    for _ in range(9):
        start = time.perf_counter()
        window.commands.quick_sums()
        app.processEvents()
        opened.append((time.perf_counter() - start) * 1000)
        box.close()
        app.processEvents()
    window.session.undo_stack.setClean()
    window.close()
    median = statistics.median(opened)
    return [
        ("oak-measure sum", "under 400 ms", f"{took:.0f} ms, {took / bare:.1f} x an empty Python", took < 400),
        ("the box of quick sums opened", "under 50 ms", f"{median:.0f} ms, at most {max(opened):.0f}", median < 50),
    ]


def rows() -> list[Row]:
    """Return every row."""
    return [*quick_sums(), *paper()]
