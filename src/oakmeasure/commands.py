"""What `oak-measure` answers without a screen."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Annotated

import typer

from oakmeasure.core.solve import Solution, solve
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


@app.command()
def shot(
    job: JobPath,
    png: Annotated[Path, typer.Argument(help="the picture to write")],
    stage: Annotated[str, typer.Option(help="Measure, Fit, Leaf, Timber or Hardware")] = Stage.MEASURE,
    leaf: Annotated[str, typer.Option(help="id of the leaf; the first when left out")] = "",
) -> None:
    """Paint the window at 1280 × 800 into a PNG, without a screen."""
    named = next((each for each in Stage if each.lower() == stage.lower()), None)
    if named is None:
        print(f"oak-measure: --stage {stage}: one of {', '.join(Stage)}", file=sys.stderr)
        raise typer.Exit(2)
    solution = _opened(job)
    from oakmeasure.app.start import picture

    try:
        picture(solution.job, png, stage=named, leaf=_chosen(solution, leaf))
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


@app.command("cut-list")
def cut_list(job: JobPath, csv: Annotated[Path, typer.Argument(help="the CSV to write")]) -> None:
    """Write the cut list of all leaves as CSV."""
    _written(csv, tables.cut_list_csv(_opened(job)).encode("utf-8-sig"))


@app.command("boring-list")
def boring_list(job: JobPath, csv: Annotated[Path, typer.Argument(help="the CSV to write")]) -> None:
    """Write what is let in for hardware, of all leaves, as CSV."""
    _written(csv, tables.boring_list_csv(_opened(job)).encode("utf-8-sig"))


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
