"""Paints docs/screenshots again from the demo job: one picture of each stage."""

from __future__ import annotations

import shutil
import subprocess
import tempfile
from datetime import date
from pathlib import Path

from oakmeasure.app.shell.start import picture, schedule_picture, sum_picture, workshop_picture
from oakmeasure.app.shell.turning import TurnRoom
from oakmeasure.app.stages.hang.room import HangRoom
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.core.drawings.turned.turn import Turn
from oakmeasure.core.drawings.views import FitPage, HangPage, HardwarePage, MakePage, TimberPage
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.solver import solve
from oakmeasure.files.job.job_file import demo_job
from oakmeasure.files.pdf.stage_sheets import stage_sheets_pdf

SHOTS: dict[str, tuple[Stage, str, str]] = {
    "measure": (Stage.MEASURE, "seed-room", ""),
    "measure-ticks": (Stage.MEASURE, "hatch", ""),
    "fit-swing": (Stage.FIT, "office-store", FitPage.WAY),
    "fit-sliding": (Stage.FIT, "winnowing", FitPage.WAY),
    "leaf-framed": (Stage.LEAF, "sample-room", ""),
    "leaf-apart": (Stage.LEAF, "seed-room", ""),
    "timber-rack": (Stage.TIMBER, "seed-room", TimberPage.RACK),
    "timber-plan": (Stage.TIMBER, "seed-room", TimberPage.PLAN),
    "hardware": (Stage.HARDWARE, "weighing-office", ""),
    "hardware-hinges": (Stage.HARDWARE, "packet-press", ""),
    "hardware-sliding": (Stage.HARDWARE, "barn-side", HardwarePage.GEAR),
    "hardware-clashes": (Stage.HARDWARE, "engine-room", HardwarePage.CLASHES),
    "make": (Stage.MAKE, "seed-room", MakePage.STEPS),
    "hang": (Stage.HANG, "scullery", HangPage.GAPS),
    "hang-practice": (Stage.HANG, "scullery", HangPage.PRACTICE),
}

PREPARED = {
    "leaf-apart": lambda session: (
        session.room(TurnRoom).switch(True),
        session.room(TurnRoom).set_turn(Turn(apart=1.0)),
    ),
    "make": lambda session: (session.room(TurnRoom).switch(True), session.room(MakeRoom).take("tenon:rails")),
    "hang-practice": lambda session: (
        session.room(HangRoom).new_door(7),
        session.room(HangRoom).try_remedy((1.0, 1.25), 0.0),
    ),
}  # what is taken in hand before a picture


def bench_sheet(target: Path) -> None:
    """Write the front of a bench sheet as a picture, where poppler's pdftoppm is there to paint a page."""
    program = shutil.which("pdftoppm")
    if program is None:
        print(f"{target.name}: left as it is, pdftoppm (poppler-utils) is not there")
        return
    solution = solve(demo_job())
    leaf = solution.leaf("packet-press")
    with tempfile.TemporaryDirectory() as folder:
        page = Path(folder) / "sheet.pdf"
        page.write_bytes(stage_sheets_pdf(solution.job, leaf, [Stage.HARDWARE], on=date(2026, 11, 26)))
        subprocess.run(
            [program, "-r", "100", "-f", "1", "-l", "1", "-singlefile", "-png", str(page), str(target.with_suffix(""))],
            check=True,
        )


if __name__ == "__main__":
    folder = Path(__file__).parent.parent / "docs/screenshots"
    for name, (stage, leaf, page) in SHOTS.items():
        target = folder / f"{name}.png"
        picture(demo_job(), target, stage=stage, leaf=leaf, page=page, prepare=PREPARED.get(name))
        print(target)
    workshop_picture(demo_job(), folder / "make-workshop.png", leaf="seed-room", op="mortise:stiles")
    sum_picture(demo_job(), folder / "quick-sum.png", leaf="coal-hole", name="brace")
    schedule_picture(demo_job(), folder / "schedule.png")
    bench_sheet(folder / "bench-sheet.png")
