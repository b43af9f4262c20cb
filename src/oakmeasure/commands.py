"""What `oak-measure` answers without a screen."""

from __future__ import annotations

import json
import sys
from dataclasses import replace
from pathlib import Path
from typing import Annotated

import typer

from oakmeasure.core.cutting.problem import CutKind, First
from oakmeasure.core.job import Hand
from oakmeasure.core.paper.flat import FaceUp
from oakmeasure.core.solve import Solution, solve
from oakmeasure.core.units import Show
from oakmeasure.core.verdicts import Stage
from oakmeasure.files import jobfile, tables

app = typer.Typer(
    add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False,
    help="Oak Measure. `oak-measure [JOB]` opens the window; these work without a screen.",
)  # fmt: skip
JobPath = Annotated[Path, typer.Argument(help="a job file, .oakjob")]


def _opened(path: Path) -> Solution:
    try:
        return solve(jobfile.load(path))
    except jobfile.JobFileError as error:
        print(f"oak-measure: {error}", file=sys.stderr)
        raise typer.Exit(2) from None


def _written(path: Path, content: bytes) -> None:
    try:
        jobfile.write_whole(path, content)
    except jobfile.JobFileError as error:
        print(f"oak-measure: {error}", file=sys.stderr)
        raise typer.Exit(2) from None


def _chosen(solution: Solution, leaf: str) -> str:
    ids = [each.leaf.id for each in solution.leaves]
    if leaf and leaf not in ids:
        print(f"oak-measure: --leaf {leaf}: the job has {', '.join(ids)}", file=sys.stderr)
        raise typer.Exit(2)
    return leaf or ids[0]


def _page(page: str, stage: Stage) -> str:
    from oakmeasure.core.drawings.views import FitPage, MakePage, MeasurePage

    of = {Stage.MEASURE: MeasurePage, Stage.FIT: FitPage, Stage.MAKE: MakePage}
    pages: list[str] = list(of.get(stage, ()))
    named = next((each for each in pages if each.lower() == page.lower()), "")
    if page and not named:
        print(f"oak-measure: --page {page}: one of {', '.join(pages) or 'none'}, at {stage}", file=sys.stderr)
        raise typer.Exit(2)
    return named


@app.command()
def figures(job: JobPath, as_json: Annotated[bool, typer.Option("--json", help="as JSON")] = False) -> None:
    """Print all figures, parts, borings and verdicts of a job."""
    solution = _opened(job)
    if as_json:
        print(json.dumps(tables.figures_record(solution), indent=1, ensure_ascii=False))
        return
    record = tables.figures_record(solution)
    for leaf in record["leaves"]:
        print(f"{leaf['name']} ({leaf['construction']}, {leaf['hanging']}, {leaf['hand']})")
        for name, figure in leaf["figures"].items():
            print(f"  {name}: {figure['value']:g} {figure['unit']}")
        for verdict in leaf["verdicts"]:
            print(f"  {verdict['level']}: {verdict['title']}. {verdict['sentence']}")


@app.command("to-measure")
def to_measure(job: JobPath) -> None:
    """List what is still to be measured, with what hangs on it; one line each, tabs between."""
    from oakmeasure.core.still import all_to_measure

    for each in all_to_measure(_opened(job).leaves):
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
        print(f"oak-measure: --values {values}: numbers with commas between them", file=sys.stderr)
        raise typer.Exit(2) from None
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


@app.command()
def shot(
    job: JobPath,
    png: Annotated[Path, typer.Argument(help="the picture to write")],
    stage: Annotated[str, typer.Option(help="Measure, Fit, Leaf, Timber, Hardware or Make")] = Stage.MEASURE,
    leaf: Annotated[str, typer.Option(help="id of the leaf; the first when left out")] = "",
    page: Annotated[str, typer.Option(help="of the sheet of Measure, Fit or Make")] = "",
) -> None:
    """Paint the window at 1280 × 800 into a PNG, without a screen."""
    named = next((each for each in Stage if each.lower() == stage.lower()), None)
    if named is None:
        print(f"oak-measure: --stage {stage}: one of {', '.join(Stage)}", file=sys.stderr)
        raise typer.Exit(2)
    solution = _opened(job)
    from oakmeasure.app.start import picture

    try:
        picture(solution.job, png, stage=named, leaf=_chosen(solution, leaf), page=_page(page, named))
    except (jobfile.JobFileError, OSError) as error:
        print(f"oak-measure: {error}", file=sys.stderr)
        raise typer.Exit(2) from None


@app.command()
def sheet(
    job: JobPath,
    pdf: Annotated[Path, typer.Argument(help="the PDF to write")],
    leaf: Annotated[str, typer.Option(help="id of the leaf; the first when left out")] = "",
) -> None:
    """Write the bench sheet of a leaf. Stops must have been answered for in the job."""
    solution = _opened(job)
    solved = solution.leaf(_chosen(solution, leaf))
    stops = solved.open_stops()
    if stops:
        print(f"oak-measure: not answered for: {'; '.join(each.title for each in stops)}", file=sys.stderr)
        raise typer.Exit(2)
    from oakmeasure.files.bench_sheet import bench_sheet_pdf

    _written(pdf, bench_sheet_pdf(solution.job, solved))


@app.command()
def rod(
    job: JobPath,
    target: Annotated[Path, typer.Argument(help="the PDF at full size to write, or the CSV of distances")],
    leaf: Annotated[str, typer.Option(help="id of the leaf; the first when left out")] = "",
    paper: Annotated[str, typer.Option(help="A4, A3, roll, or width x height in mm")] = "A4",
) -> None:
    """Write the setting-out rods of a leaf at full size, or as distances from one end."""
    solution = _opened(job)
    solved = solution.leaf(_chosen(solution, leaf))
    if target.suffix.lower() == ".csv":
        _written(target, tables.rods_csv(solved).encode("utf-8-sig"))
        return
    from oakmeasure.files.full_size import PaperError
    from oakmeasure.files.rod_pdf import rod_pdf

    try:
        content = rod_pdf(solution.job, solved, paper=paper)
    except (PaperError, ValueError) as error:
        print(f"oak-measure: {error}", file=sys.stderr)
        raise typer.Exit(2) from None
    _written(target, content)


@app.command()
def dxf(
    job: JobPath,
    target: Annotated[Path, typer.Argument(help="the DXF to write")],
    leaf: Annotated[str, typer.Option(help="id of the leaf; the first when left out")] = "",
    face: Annotated[FaceUp, typer.Option(help="the face that is up on the table")] = FaceUp.OPENING,
    hand: Annotated[str, typer.Option(help="left or right; its own when left out")] = "",
) -> None:
    """Write a leaf as DXF in mm: outline, cuts and bores into the face that is up, depths in the layers' names."""
    solution = _opened(job)
    solved = solution.leaf(_chosen(solution, leaf))
    hands = {str(each).split()[-1]: each for each in Hand}
    if hand and hand not in hands:
        print(f"oak-measure: --hand {hand}: one of {', '.join(hands)}", file=sys.stderr)
        raise typer.Exit(2)
    from oakmeasure.files.dxf_out import leaf_dxf

    try:
        content = leaf_dxf(solved, face, hands[hand] if hand else None)
    except ValueError as error:
        print(f"oak-measure: {error}", file=sys.stderr)
        raise typer.Exit(2) from None
    _written(target, content)


@app.command()
def svg(
    job: JobPath,
    target: Annotated[Path, typer.Argument(help="the SVG to write")],
    leaf: Annotated[str, typer.Option(help="id of the leaf; the first when left out")] = "",
) -> None:
    """Write the drawing of a leaf as SVG, its user units mm."""
    from oakmeasure.core.drawings.leaf_view import leaf_view
    from oakmeasure.files.svg_out import drawing_svg

    solution = _opened(job)
    solved = solution.leaf(_chosen(solution, leaf))
    _written(target, drawing_svg(leaf_view(solved, Show(solution.job.unit)), solved.leaf.name))


@app.command()
def folder(
    job: JobPath,
    target: Annotated[Path, typer.Argument(help="the folder to make; one that holds something is not touched")],
    paper: Annotated[str, typer.Option(help="of the rods: A4, A3, roll, or width x height in mm")] = "A4",
) -> None:
    """Write everything that leaves the screen into one folder: sheets, rods, labels, DXF, SVG, lists, the job."""
    from oakmeasure.files.full_size import PaperError
    from oakmeasure.files.job_folder import write_folder

    def told(done: int, of: int, name: str) -> bool:
        if sys.stderr.isatty():
            print(f"\r{done} of {of}  {name[:60]:60}", end="", file=sys.stderr)
        return True

    try:
        written = write_folder(_opened(job), target, paper=paper, told=told)
    except (PaperError, jobfile.JobFileError) as error:
        print(f"oak-measure: {error}", file=sys.stderr)
        raise typer.Exit(2) from None
    if written is not None:
        print(f"{len(written.files)} files in {target}")
        for each in written.left_out:
            print(f"left out: {each}")


@app.command()
def schedule(job: JobPath, csv: Annotated[Path, typer.Argument(help="the CSV to write")]) -> None:
    """Write all leaves as a schedule: openings, choices, sizes, weight, state, worst verdict."""
    from oakmeasure.files.schedule_csv import schedule_csv

    _written(csv, schedule_csv(_opened(job)).encode("utf-8-sig"))


@app.command("read-schedule")
def read_a_schedule(
    csv: Annotated[Path, typer.Argument(help="name,width_mm,height_mm and more; docs/paper.md")],
    job: Annotated[Path, typer.Argument(help="the job file to write; one that is there gets the leaves added")],
) -> None:
    """Read a schedule of many openings into a job."""
    from oakmeasure.core.job import new_job
    from oakmeasure.files.cutting_in import CuttingFileError
    from oakmeasure.files.schedule_csv import read_schedule, with_schedule

    document = _opened(job).job if job.exists() else new_job(csv.stem)
    try:
        leaves = read_schedule(csv, document)
    except CuttingFileError as error:
        print(f"oak-measure: {error}", file=sys.stderr)
        raise typer.Exit(2) from None
    _written(job, jobfile.dumps(with_schedule(document, leaves)).encode("utf-8"))
    print(f"{len(leaves)} leaves")


@app.command("cut-list")
def cut_list(job: JobPath, csv: Annotated[Path, typer.Argument(help="the CSV to write")]) -> None:
    """Write the cut list of all leaves as CSV."""
    _written(csv, tables.cut_list_csv(_opened(job)).encode("utf-8-sig"))


@app.command("settings")
def settings(job: JobPath, csv: Annotated[Path, typer.Argument(help="the CSV to write")]) -> None:
    """Write the cut list by saw and planer setting, over all leaves, as CSV."""
    _written(csv, tables.settings_csv(_opened(job)).encode("utf-8-sig"))


@app.command("boring-list")
def boring_list(job: JobPath, csv: Annotated[Path, typer.Argument(help="the CSV to write")]) -> None:
    """Write what is let in for hardware, of all leaves, as CSV."""
    _written(csv, tables.boring_list_csv(_opened(job)).encode("utf-8-sig"))


@app.command("keep-outs")
def keep_outs(
    job: JobPath,
    out: Annotated[Path, typer.Argument(help="the CSV of all leaves, or the PDF of one, to write")],
    leaf: Annotated[str, typer.Option(help="id of the leaf of a PDF; the first when left out")] = "",
) -> None:
    """Write where nothing may be nailed, pinned or screwed: of all leaves as CSV, or of one as PDF."""
    solution = _opened(job)
    if out.suffix.lower() != ".pdf":
        _written(out, tables.keep_outs_csv(solution).encode("utf-8-sig"))
        return
    from oakmeasure.files.zone_sheet import zone_sheet_pdf

    _written(out, zone_sheet_pdf(solution.job, solution.leaf(_chosen(solution, leaf))))


@app.command()
def cut(
    stock: Annotated[Path, typer.Option(help="CSV: name,length_mm,width_mm,qty,price; an empty qty is no limit")],
    parts: Annotated[Path, typer.Option(help="CSV: name,length_mm,width_mm,qty,grain (length or any)")],
    kind: Annotated[CutKind, typer.Option(help="what the stock is")],
    defects: Annotated[Path | None, typer.Option(help="CSV: board,x_mm,y_mm,length_mm,width_mm")] = None,
    kerf: Annotated[float, typer.Option(help="of the saw, mm", min=0.0, max=30.0)] = 3.2,
    trim: Annotated[float, typer.Option(help="off every edge of a sheet, both ends of others", min=0.0, max=200)] = 0.0,
    seconds: Annotated[float, typer.Option(help="to go on improving", min=0.1, max=3600.0)] = 10.0,
    first: Annotated[
        First | None, typer.Option(help="the first cuts; boards are ripped, sheets cut either way")
    ] = None,
    as_json: Annotated[bool, typer.Option("--json", help="as JSON")] = False,
) -> None:
    """Plan the cutting of parts out of bars, boards or sheets: the cost, the least it could be, and every cut."""
    from oakmeasure.core.cutting.cut import cut as plan_cuts
    from oakmeasure.core.cutting.cut import why_left
    from oakmeasure.core.cutting.problem import Watch
    from oakmeasure.files.cutting_in import CuttingFileError, read_problem

    try:
        problem = replace(read_problem(stock, parts, defects, kind=kind, kerf=kerf, trim=trim), first=first)
    except CuttingFileError as error:
        print(f"oak-measure: {error}", file=sys.stderr)
        raise typer.Exit(2) from None
    plan = plan_cuts(problem, Watch(seconds))
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
    from oakmeasure.core.units import Show
    from oakmeasure.files.making_tables import operations_record

    solution = _opened(job)
    leaves = [solution.leaf(_chosen(solution, leaf))] if leaf else list(solution.leaves)
    record = operations_record(leaves, Show(solution.job.unit))
    if as_json:
        print(json.dumps(record, indent=1, ensure_ascii=False))
        return
    for each in record["leaves"]:
        print(f"{each['name']} ({each['id']})")
        for n, op in enumerate(each["operations"], start=1):
            print(f"  {n:3} {op['name']}" + (f"  [{op['state']}]" if op["state"] else ""))


@app.command()
def labels(
    job: JobPath,
    pdf: Annotated[Path, typer.Argument(help="the PDF to write")],
    leaf: Annotated[str, typer.Option(help="id of the leaf; all leaves when left out")] = "",
) -> None:
    """Write a sheet of labels, one for every piece, as PDF."""
    from oakmeasure.core.making.labels import all_labels
    from oakmeasure.core.units import Show
    from oakmeasure.files.label_sheet import label_sheet_pdf

    solution = _opened(job)
    leaves = [solution.leaf(_chosen(solution, leaf))] if leaf else list(solution.leaves)
    _written(pdf, label_sheet_pdf(all_labels(leaves, Show(solution.job.unit), job=solution.job.name)))


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
        print(f"oak-measure: port {port}: {(error.strerror or str(error)).lower()}", file=sys.stderr)
        raise typer.Exit(2) from None
    print(f"listening on port {printer.port}", flush=True)
    try:
        while not count or len(printer.tape) < count:
            time.sleep(0.05)
    except KeyboardInterrupt:
        pass
    finally:
        printer.close()


@app.command("demo-picture", hidden=True)
def demo_picture(png: Path) -> None:
    """Show the demo job's window on whatever screen there is and save a picture of it."""
    from oakmeasure.app.start import demo_job, picture

    picture(demo_job(), png, stage=Stage.LEAF)


@app.command()
def schema() -> None:
    """Print the JSON Schema of the job file."""
    from oakmeasure.core.job import Job

    print(json.dumps(Job.model_json_schema(), indent=1, sort_keys=True))


@app.command("sum", context_settings={"allow_extra_args": True, "ignore_unknown_options": True}, add_help_option=False)
def quick_sum(context: typer.Context) -> None:
    """One quick sum: `oak-measure sum NAME --option value … [--json]`; `oak-measure sum --list`."""
    from oakmeasure.sum_command import run

    raise typer.Exit(run(context.args))
