"""What `oak-measure` answers without a screen."""

from __future__ import annotations

import json
import sys
import tempfile
from dataclasses import replace
from pathlib import Path
from typing import Annotated, Any

import typer
import typer.main

from oakmeasure.cli import papers
from oakmeasure.cli.common import (
    JobPath,
    LeafId,
    Writes,
    app,
    leaf_asked_for,
    loaded,
    opened,
    refuse,
    refusing,
    some_of,
    written,
)
from oakmeasure.core.cutting.model import CutKind
from oakmeasure.core.document.first_cut import FirstCut
from oakmeasure.core.figures.check import Stage
from oakmeasure.files.job import job_file
from oakmeasure.files.tables import lists as tables

__all__ = ["app", "papers"]  # the commands that write files stand in a module of their own

MOST_GIVEN = 1e6  # of what a simulated gauge is told


def _page(page: str, stage: Stage) -> str:
    from oakmeasure.core.drawings.views import FitPage, MakePage, MeasurePage

    of = {Stage.MEASURE: MeasurePage, Stage.FIT: FitPage, Stage.MAKE: MakePage}
    pages: list[str] = list(of.get(stage, ()))
    named = next((each for each in pages if each.lower() == page.lower()), "")
    if page and not named:
        raise refuse(f"--page {page}: one of {', '.join(pages) or 'none'}, at {stage}")
    return named


@app.command()
def figures(job: JobPath, as_json: Annotated[bool, typer.Option("--json", help="as JSON")] = False) -> None:
    """Print all figures, parts, borings and checks of a job."""
    solution = opened(job)
    if as_json:
        print(json.dumps(tables.figures_record(solution), indent=1, ensure_ascii=False))
        return
    record = tables.figures_record(solution)
    for leaf in record["leaves"]:
        print(f"{leaf['name']} ({leaf['construction']}, {leaf['hanging']}, {leaf['hand']})")
        for name, figure in leaf["figures"].items():
            print(f"  {name}: {figure['value']:g} {figure['unit']}")
        for check in leaf["verdicts"]:
            print(f"  {check['level']}: {check['title']}. {check['sentence']}")


@app.command("to-measure")
def to_measure(job: JobPath) -> None:
    """List what is still to be measured, with what hangs on it; one line each, tabs between."""
    from oakmeasure.core.reports.open_readings import all_to_measure

    for each in all_to_measure(opened(job).leaves):
        hangs = ", ".join(each.hangs) or "-"
        print(f"{each.leaf_name}\t{each.label}\t{each.state}\t{hangs}\t+{each.others}")


@app.command("gauge-sim")
def gauge_sim(
    noise: Annotated[float, typer.Option(help="standard deviation of a reading, mm")] = 0.3,
    bad: Annotated[float, typer.Option(help="share of readings before which a bad line is sent")] = 0.12,
    every: Annotated[float, typer.Option(help="seconds between readings; 0: one for each line read from here")] = 2.0,
    count: Annotated[int, typer.Option(help="readings until it stops; 0: until it is stopped")] = 0,
    values: Annotated[str, typer.Option(help="what it reads, mm, in turn")] = "742,739.5,736.5,2031,2032,2033.5",
    seed: Annotated[int, typer.Option(help="of noise and bad lines")] = 1,
) -> None:
    """Be a gauge on a pseudo-terminal, whose name is printed first; see docs/gauges.md."""
    import time

    from oakmeasure.gauges.simulated import SimulatedGauge

    try:
        true = [float(each) for each in values.split(",")]
    except ValueError:
        raise refuse(f"--values {values}: numbers with commas between them") from None
    if not all(0 <= each <= MOST_GIVEN for each in (noise, bad, every)):  # NaN is none of them
        raise refuse(f"--noise, --bad and --every: each needs 0 to {MOST_GIVEN:g}")
    if not all(abs(each) <= MOST_GIVEN for each in true):
        raise refuse(f"--values {values}: each needs −{MOST_GIVEN:g} to {MOST_GIVEN:g}")
    gauge = SimulatedGauge(noise=noise, bad_share=bad, seed=seed)
    print(gauge.path, flush=True)
    sent = 0
    try:
        while not count or sent < count:
            if every > 0:
                time.sleep(every)
            elif not sys.stdin.readline():
                break
            print(f"{gauge.press(true[sent % len(true)]):.2f}", flush=True)
            sent += 1
    except KeyboardInterrupt:
        pass
    finally:
        gauge.close()


@app.command(cls=Writes)
def shot(
    job: JobPath,
    png: Annotated[Path, typer.Argument(help="the picture to write")],
    stage: Annotated[str, typer.Option(help="Measure, Fit, Leaf, Timber, Hardware or Make")] = Stage.MEASURE,
    leaf: LeafId = "",
    page: Annotated[str, typer.Option(help="of the sheet of Measure, Fit or Make")] = "",
) -> None:
    """Paint the window at 1280 × 800 into a PNG, without a screen."""
    named = next((each for each in Stage if each.lower() == stage.lower()), None)
    if named is None:
        raise refuse(f"--stage {stage}: one of {', '.join(Stage)}")
    document = loaded(job)
    from oakmeasure.app.shell.start import picture

    with refusing(job_file.JobFileError, OSError), tempfile.TemporaryDirectory() as folder:
        made = Path(folder) / "window.png"
        picture(document, made, stage=named, leaf=leaf_asked_for(document, leaf), page=_page(page, named))
        written(png, made.read_bytes())


@app.command()
def cut(  # noqa: PLR0913 - each is an option of the command
    stock: Annotated[Path, typer.Option(help="CSV: name,length_mm,width_mm,qty,price; an empty qty is no limit")],
    parts: Annotated[Path, typer.Option(help="CSV: name,length_mm,width_mm,qty,grain (length or any)")],
    kind: Annotated[CutKind, typer.Option(help="what the stock is")],
    defects: Annotated[Path | None, typer.Option(help="CSV: board,x_mm,y_mm,length_mm,width_mm")] = None,
    kerf: Annotated[float, typer.Option(help="of the saw, mm", min=0.0, max=30.0)] = 3.2,
    trim: Annotated[float, typer.Option(help="off every edge of a sheet, both ends of others", min=0.0, max=200)] = 0.0,
    seconds: Annotated[float, typer.Option(help="to go on improving", min=0.1, max=3600.0)] = 10.0,
    first: Annotated[
        FirstCut | None, typer.Option(help="the first cuts; boards are ripped, sheets cut either way")
    ] = None,
    as_json: Annotated[bool, typer.Option("--json", help="as JSON")] = False,
) -> None:
    """Plan the cutting of parts out of bars, boards or sheets: the cost, the least it could be, and every cut."""
    from oakmeasure.core.cutting.model import Deadline
    from oakmeasure.core.cutting.plan import cut as plan_cuts
    from oakmeasure.core.cutting.plan import why_left
    from oakmeasure.files.tables.cutting_csv import CuttingFileError, read_problem

    with refusing(CuttingFileError):
        problem = replace(read_problem(stock, parts, defects, kind=kind, kerf=kerf, trim=trim), first=first)
    plan = plan_cuts(problem, Deadline(seconds))
    for words in why_left(problem, plan):
        print(f"oak-measure: {words}", file=sys.stderr)
    if as_json:
        print(json.dumps(tables.cut_record(plan), indent=1, ensure_ascii=False))
        return
    least = "least possible" if plan.is_least else f"at least {plan.bound:g}, gap {plan.gap:.1%}"
    print(f"cost {plan.cost:g} ({least}), {sum(many for _, many in plan.used)} pieces of stock, {plan.seconds:.1f} s")
    for each in plan.cuts:
        size = f"{each.length:g}" + (f" × {each.width:g}" if each.width else "")
        print(
            f"  {each.stock} {each.index + 1}: {each.part} {size} at {each.x:g}" + (f", {each.y:g}" if each.y else "")
        )


@app.command()
def operations(
    job: JobPath,
    leaf: Annotated[str, typer.Option(help="id of the leaf; all leaves when left out")] = "",
    as_json: Annotated[bool, typer.Option("--json", help="as JSON")] = False,
) -> None:
    """Print the operations of every leaf, or of one, in working order."""
    from oakmeasure.core.base.units import Show
    from oakmeasure.files.tables.operations import operations_record

    document, leaves = some_of(job, leaf)
    record = operations_record(leaves, Show(document.unit))
    if as_json:
        print(json.dumps(record, indent=1, ensure_ascii=False))
        return
    for each in record["leaves"]:
        print(f"{each['name']} ({each['id']})")
        for n, op in enumerate(each["operations"], start=1):
            print(f"  {n:3} {op['name']}" + (f"  [{op['state']}]" if op["state"] else ""))


@app.command("printer-sim")
def printer_sim(
    port: Annotated[int, typer.Option(help="to listen on; 0: any free one", min=0, max=65535)] = 9321,
    paper: Annotated[int, typer.Option(help="labels until it runs out; 0: never", min=0)] = 0,
    count: Annotated[int, typer.Option(help="labels until it stops; 0: until it is stopped", min=0)] = 0,
) -> None:
    """Be a label printer on this machine: print the tape as it comes; see docs/labels.md."""
    import time

    from oakmeasure.gauges.label_printer import SimulatedPrinter, tape_text

    try:
        printer = SimulatedPrinter(
            port=port, paper=paper or None, on_label=lambda each: print(tape_text(each), flush=True)
        )
    except OSError as error:
        raise refuse(f"port {port}: {(error.strerror or str(error)).lower()}") from None
    print(f"listening on port {printer.port}", flush=True)
    try:
        while not count or len(printer.tape) < count:
            time.sleep(0.05)
    except KeyboardInterrupt:
        pass
    finally:
        printer.close()


def commands_told() -> dict[str, str]:
    """Return what each command does, by its name."""
    group = typer.main.get_command(app)
    told: dict[str, Any] = getattr(group, "commands", {})
    return {name: (each.help or "").splitlines()[0] for name, each in told.items() if not each.hidden}


@app.command("install-desktop")
def install_desktop(remove: Annotated[bool, typer.Option("--remove", help="take them out again")] = False) -> None:
    """Put launcher, icon, kind of file and man page into your own folders, or take them out again."""
    from oakmeasure.cli import desktop_install

    with refusing(OSError):
        files = desktop_install.remove() if remove else desktop_install.install(commands_told())
    print("\n".join(str(each) for each in files) or "nothing was there")


@app.command("demo-picture", hidden=True)
def demo_picture(png: Path) -> None:
    """Show the demo job's window on whatever screen there is and save a picture of it."""
    from oakmeasure.app.shell.start import picture
    from oakmeasure.files.job.job_file import demo_job

    picture(demo_job(), png, stage=Stage.LEAF)


@app.command()
def schema() -> None:
    """Print the JSON Schema of the job file."""
    from oakmeasure.core.document.schema import job_schema

    print(json.dumps(job_schema(), indent=1, sort_keys=True))


@app.command("sum", context_settings={"allow_extra_args": True, "ignore_unknown_options": True}, add_help_option=False)
def quick_sum(context: typer.Context) -> None:
    """One quick sum: `oak-measure sum NAME --option value … [--json]`; `oak-measure sum --list`."""
    from oakmeasure.cli.quick_sum import run

    raise typer.Exit(run(context.args))
