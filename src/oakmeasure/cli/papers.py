"""What `oak-measure` writes without a screen: sheets, rods, templates, drawings, lists, the job folder."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import Annotated

import typer

from oakmeasure.cli.common import (
    HandName,
    JobPath,
    LeafId,
    PaperName,
    Writes,
    app,
    hand_named,
    job_written,
    leaf_asked_for,
    leaf_of,
    loaded,
    opened,
    refuse,
    refusing,
    some_of,
    written,
)
from oakmeasure.core.base.units import Show
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.paper.router_layout import FaceUp
from oakmeasure.files.job import job_file
from oakmeasure.files.tables import lists as tables
from oakmeasure.files.tables.hardware_csv import Ware


@app.command(cls=Writes)
def sheet(
    job: JobPath,
    pdf: Annotated[Path, typer.Argument(help="the PDF to write")],
    leaf: LeafId = "",
    stage: Annotated[str, typer.Option(help="of one stage, Measure to Hang, or all; the leaf's when left out")] = "",
) -> None:
    """Write the bench sheet of a leaf, or of one stage of it. Stops must have been answered for in the job."""
    document, solved = leaf_of(job, leaf)
    stops = solved.open_stops()
    if stops:
        raise refuse(f"not answered for: {'; '.join(each.title for each in stops)}")
    if stage:
        from oakmeasure.files.pdf.stage_sheets import stage_sheets_pdf

        named = [each for each in Stage if stage.lower() in (each.lower(), "all")]
        if not named:
            raise refuse(f"--stage {stage}: one of {', '.join(Stage)}, all")
        written(pdf, stage_sheets_pdf(document, solved, named))
        return
    from oakmeasure.files.pdf.bench_sheet import bench_sheet_pdf

    written(pdf, bench_sheet_pdf(document, solved))


@app.command(cls=Writes)
def customer(job: JobPath, pdf: Annotated[Path, typer.Argument(help="the PDF to write")], leaf: LeafId = "") -> None:
    """Write what the customer agrees to before the first cut: the leaf and its choices, without sums."""
    from oakmeasure.files.pdf.stage_sheets import customer_pdf

    document, solved = leaf_of(job, leaf)
    written(pdf, customer_pdf(document, solved))


@app.command(cls=Writes)
def rod(
    job: JobPath,
    target: Annotated[Path, typer.Argument(help="the PDF at full size to write, or the CSV of distances")],
    leaf: LeafId = "",
    paper: PaperName = "A4",
) -> None:
    """Write the setting-out rods of a leaf at full size, or as distances from one end."""
    document, solved = leaf_of(job, leaf)
    if target.suffix.lower() == ".csv":
        written(target, tables.rods_csv(solved).encode("utf-8-sig"))
        return
    from oakmeasure.files.pdf.full_size import PaperError
    from oakmeasure.files.pdf.rods import rod_pdf

    with refusing(PaperError, ValueError):
        content = rod_pdf(document, solved, paper=paper)
    written(target, content)


@app.command("templates", cls=Writes)
def write_templates(
    job: JobPath,
    target: Annotated[Path, typer.Argument(help="the PDF at full size, or the DXF, to write")],
    leaf: LeafId = "",
    paper: PaperName = "A4",
    only: Annotated[list[str] | None, typer.Option(help="a kind: cup, butt, lock …; as often as wanted")] = None,
    hand: HandName = "",
) -> None:
    """Write the templates of a leaf at 1:1: both hands as PDF, one hand as DXF."""
    document, solved = leaf_of(job, leaf)
    with refusing(ValueError):
        if target.suffix.lower() == ".dxf":
            from oakmeasure.files.cad.dxf import templates_dxf

            show = Show(document.unit)
            content = templates_dxf(solved, show, only=only or (), hand=hand_named(hand))
        else:
            from oakmeasure.files.pdf.templates import templates_pdf

            content = templates_pdf(document, solved, paper=paper, only=only or ())
    written(target, content)


@app.command("apart", cls=Writes)
def taken_apart(job: JobPath, pdf: Annotated[Path, typer.Argument(help="the PDF to write")], leaf: LeafId = "") -> None:
    """Write a leaf taken apart, seen askew: every piece with its name and size."""
    from oakmeasure.files.pdf.exploded_sheet import exploded_pdf

    document, solved = leaf_of(job, leaf)
    with refusing(ValueError):
        content = exploded_pdf(document, solved)
    written(pdf, content)


@app.command(cls=Writes)
def dxf(
    job: JobPath,
    target: Annotated[Path, typer.Argument(help="the DXF to write")],
    leaf: LeafId = "",
    face: Annotated[FaceUp, typer.Option(help="the face that is up on the table")] = FaceUp.OPENING,
    hand: HandName = "",
    part: Annotated[str, typer.Option(help="name of one part, which is written alone")] = "",
) -> None:
    """Write a leaf or one part as DXF in mm: outline, cuts into the face that is up, depths in the layers' names."""
    _, solved = leaf_of(job, leaf)
    from oakmeasure.files.cad.dxf import leaf_dxf

    with refusing(ValueError):
        content = leaf_dxf(solved, face, hand_named(hand), part=part)
    written(target, content)


@app.command(cls=Writes)
def svg(job: JobPath, target: Annotated[Path, typer.Argument(help="the SVG to write")], leaf: LeafId = "") -> None:
    """Write the drawing of a leaf as SVG, its user units mm."""
    from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
    from oakmeasure.files.cad.svg import drawing_svg

    document, solved = leaf_of(job, leaf)
    written(target, drawing_svg(leaf_view(solved, Show(document.unit)), solved.leaf.name))


@app.command()
def folder(
    job: JobPath,
    target: Annotated[Path, typer.Argument(help="the folder to make; one that holds something is not touched")],
    paper: Annotated[str, typer.Option(help="of the rods: A4, A3, roll, or width x height in mm")] = "A4",
) -> None:
    """Write everything that leaves the screen into one folder: sheets, rods, labels, DXF, SVG, lists, the job."""
    from oakmeasure.files.job_folder import write_folder
    from oakmeasure.files.pdf.full_size import PaperError

    def told(done: int, of: int, name: str) -> bool:
        if sys.stderr.isatty():
            print(f"\r{done} of {of}  {name[:60]:60}", end="", file=sys.stderr)
        return True

    with refusing(PaperError, job_file.JobFileError):
        done = write_folder(opened(job), target, paper=paper, told=told)
    if done is not None:
        print(f"{len(done.files)} files in {target}")
        for each in done.left_out:
            print(f"left out: {each}")


@app.command(cls=Writes)
def schedule(job: JobPath, csv: Annotated[Path, typer.Argument(help="the CSV to write")]) -> None:
    """Write all leaves as a schedule: openings, choices, sizes, weight, state, worst check."""
    from oakmeasure.files.tables.schedule_csv import schedule_csv

    written(csv, schedule_csv(opened(job)).encode("utf-8-sig"))


@app.command("read-schedule")
def read_a_schedule(
    csv: Annotated[Path, typer.Argument(help="name,width_mm,height_mm and more; docs/paper.md")],
    job: Annotated[Path, typer.Argument(help="the job file to write; one that is there gets the leaves added")],
) -> None:
    """Read a schedule of many openings into a job."""
    from oakmeasure.core.document.job import new_job
    from oakmeasure.files.tables.cutting_csv import CuttingFileError
    from oakmeasure.files.tables.schedule_csv import read_schedule, with_schedule

    document = loaded(job) if job.exists() else new_job(csv.stem)
    with refusing(CuttingFileError):
        leaves = read_schedule(csv, document)
    job_written(job, with_schedule(document, leaves))
    print(f"{len(leaves)} leaves")


@app.command("hardware", cls=Writes)
def hardware_table(
    job: JobPath,
    csv: Annotated[Path, typer.Argument(help="the CSV to write, or with --read the one to read")],
    kind: Annotated[Ware, typer.Option(help="what is written")] = Ware.BUTTS,
    read: Annotated[bool, typer.Option("--read", help="read a table of butts, cups or tracks into the job")] = False,
    take: Annotated[str, typer.Option(help="name of the track set in it that --leaf takes")] = "",
    leaf: LeafId = "",
) -> None:
    """Write a table of hinges or tracks, or read one into the job; docs/paper.md."""
    from oakmeasure.files.tables.hardware_csv import hardware_csv, read_hardware, with_hardware, with_track

    document = loaded(job)
    if not read:
        written(csv, hardware_csv(document, kind).encode("utf-8-sig"))
        return
    with refusing(ValueError):
        ware, found = read_hardware(csv)
        made = with_hardware(document, found)
        if ware is Ware.TRACKS:
            made = with_track(made, leaf_asked_for(document, leaf), found, take)
    job_written(job, made)
    print(f"{len(found)} {ware}")


@app.command("cut-list", cls=Writes)
def cut_list(job: JobPath, csv: Annotated[Path, typer.Argument(help="the CSV to write")]) -> None:
    """Write the cut list of all leaves as CSV."""
    written(csv, tables.cut_list_csv(opened(job)).encode("utf-8-sig"))


@app.command("settings", cls=Writes)
def settings(job: JobPath, csv: Annotated[Path, typer.Argument(help="the CSV to write")]) -> None:
    """Write the cut list by saw and planer setting, over all leaves, as CSV."""
    written(csv, tables.settings_csv(opened(job)).encode("utf-8-sig"))


@app.command("boring-list", cls=Writes)
def boring_list(job: JobPath, csv: Annotated[Path, typer.Argument(help="the CSV to write")]) -> None:
    """Write what is let in for hardware, of all leaves, as CSV."""
    written(csv, tables.boring_list_csv(opened(job)).encode("utf-8-sig"))


@app.command("keep-outs", cls=Writes)
def keep_outs(
    job: JobPath,
    out: Annotated[Path, typer.Argument(help="the CSV of all leaves, or the PDF of one, to write")],
    leaf: Annotated[str, typer.Option(help="id of the leaf of a PDF; the first when left out")] = "",
) -> None:
    """Write where nothing may be nailed, pinned or screwed: of all leaves as CSV, or of one as PDF."""
    if out.suffix.lower() != ".pdf":
        written(out, tables.keep_outs_csv(opened(job)).encode("utf-8-sig"))
        return
    from oakmeasure.files.pdf.keep_outs import zone_sheet_pdf

    written(out, zone_sheet_pdf(*leaf_of(job, leaf)))


@app.command(cls=Writes)
def labels(
    job: JobPath,
    pdf: Annotated[Path, typer.Argument(help="the PDF to write")],
    leaf: Annotated[str, typer.Option(help="id of the leaf; all leaves when left out")] = "",
) -> None:
    """Write a sheet of labels, one for every piece, as PDF."""
    from oakmeasure.core.making.labels import all_labels
    from oakmeasure.files.pdf.label_sheet import label_sheet_pdf

    document, leaves = some_of(job, leaf)
    written(pdf, label_sheet_pdf(all_labels(leaves, Show(document.unit), job=document.name)))
