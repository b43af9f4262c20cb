"""The bench sheet of a leaf: one A4 leaf of paper, front and back, to be pinned up.

Front: the drawing to a stated scale, sizes, hinge places, weights, checks with the reasons given for stops.
Back: cut list, boring list and the working of the main figures.
"""

from __future__ import annotations

import io
from collections.abc import Sequence
from datetime import date
from xml.sax.saxutils import escape

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import (
    BaseDocTemplate,
    Flowable,
    Frame,
    KeepInFrame,
    NextPageTemplate,
    PageBreak,
    PageTemplate,
    Paragraph,
    Spacer,
    Table,
    TableStyle,
)

from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
from oakmeasure.core.figures.check import ON_PAPER, Level
from oakmeasure.core.figures.figure import Figure, row_text
from oakmeasure.core.figures.names import FigureName, figure_name
from oakmeasure.core.fit.fit_result import gap_as_hung
from oakmeasure.core.hardware.boring_rows import COLUMNS, boring_row
from oakmeasure.core.leaf.part import Part
from oakmeasure.core.solution import LeafSolution
from oakmeasure.files.pdf.drawing import Pen, register_fonts, scale_for
from oakmeasure.files.pdf.hardware_blocks import hardware_block
from oakmeasure.files.pdf.page_parts import (
    COLUMN,
    HEAD,
    HEADING,
    MARGIN,
    SMALL,
    TIGHT,
    PageHead,
    grid,
    pairs,
    style,
    words,
)
from oakmeasure.language import SPOKEN, tr

MAIN_FIGURES = (
    "clear_width",
    "clear_height",
    "leaf_width",
    "leaf_height",
    "glued_width",
    "tenon",
    "rail_length",
    "arch_radius",
    "boards_count",
    "board_end",
    "boards_laid",
    "ledge_length",
    "brace_angle",
    "brace_edge",
    "brace_blank",
    "fixing_length",
    "strip_width",
    "laid_over",
    "season",
    "stiffener_length",
    "slot_length",
    "middle_rail_centre",
    "panel_width",
    "panel_hold",
    "least_bevel",
    "butt_depth",
    "butt_across",
    "top_hinge_pull",
    "lock_down",
    "latch_down",
    "cup_overlay",
    "cup_boring",
    "plate_back",
    "hanger_works",
    "hanger_1",
    "track_line",
    "stack_screw",
    "stack_bites",
    "guide_holds",
)


def bench_sheet_pdf(job: Job, leaf: LeafSolution, *, on: date | None = None) -> bytes:
    """Return the bench sheet of one leaf as a PDF.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        on: The date printed on it, today when left out.
    """
    register_fonts()
    show = Show(job.unit, speech=SPOKEN)
    stream = io.BytesIO()
    page_width, page_height = A4
    drawing = leaf_view(leaf, show, title=False)
    room = (page_width / mm - 2 * MARGIN - COLUMN - 2, page_height / mm - 2 * MARGIN - HEAD)
    scale = scale_for(drawing, width=room[0], height=room[1])
    head = PageHead(job, leaf, f"drawing 1 : {scale}", on or date.today(), show)

    def front(canvas: Canvas, _doc: object) -> None:
        head.draw(canvas, "front")
        Pen(canvas, drawing, left=MARGIN, top=page_height / mm - MARGIN - HEAD, scale=scale).draw()

    def back(canvas: Canvas, _doc: object) -> None:
        head.draw(canvas, "back")

    below = page_height - (MARGIN + HEAD) * mm - MARGIN * mm
    column = Frame(page_width - (MARGIN + COLUMN) * mm, MARGIN * mm, COLUMN * mm, below, 0, 0, 0, 0, id="column")
    whole = Frame(MARGIN * mm, MARGIN * mm, page_width - 2 * MARGIN * mm, below, 0, 0, 0, 0, id="whole")
    document = BaseDocTemplate(
        stream,
        pagesize=A4,
        title=f"{leaf.leaf.name}, bench sheet",
        author="Oak Measure",
        invariant=1,
        pageTemplates=[PageTemplate("front", [column], onPage=front), PageTemplate("back", [whole], onPage=back)],
    )
    # The back is one page: a leaf with much hardware has it all a little smaller.
    back = KeepInFrame(page_width - 2 * MARGIN * mm, below, _back(leaf, show), mode="shrink")
    story: list[Flowable] = [NextPageTemplate("back"), *_column(leaf, show), PageBreak(), back]
    document.build(story)
    return stream.getvalue()


def _column(leaf: LeafSolution, show: Show) -> list[Flowable]:
    f = leaf.figures

    def value(name: str) -> str:
        return show.value(f[figure_name(name)].value, f[figure_name(name)].unit)

    def gap(name: FigureName) -> str:
        return show.length(gap_as_hung(f, name).value)

    sizes = [
        ("leaf, finished", show.size(leaf.fit.width.value, leaf.fit.height.value)),
        ("at the glue-up", show.size(f["glued_width"].value, f["glued_height"].value)),
        ("gaps: hinge, latch", f"{gap('gap_hinge')}, {gap('gap_latch')}"),
        ("gaps: head, floor", f"{gap('gap_head')}, {gap('gap_floor')}"),
        ("bevel of the latch edge", value("bevel")),
    ]
    out: list[Flowable] = [words("Sizes", HEADING), pairs(sizes, COLUMN * mm), Spacer(0, 5)]
    out += hardware_block(leaf, show)
    out.append(words("Checks", HEADING))
    out += _checks(leaf)
    out.append(Spacer(0, 4))
    out.append(
        words(
            "Check against the opening before the first cut. Guards, eyes, ears, dust: as ever. "
            "Fire doors, escape routes, glass and structure: local code and licensed practice decide.",
            SMALL,
        )
    )
    return out


def _checks(leaf: LeafSolution) -> list[Flowable]:
    """Stops and what is to be checked in full, with the reasons for stops; what is OK by its title."""
    reasons = {each.code: each.reason for each in leaf.leaf.acknowledged}
    out: list[Flowable] = []
    fine = []
    for check in leaf.checks:
        if check.level is Level.OK:
            title = tr(check.title)
            fine.append(title.lower() if title == check.title else title)  # German has its nouns large
            continue
        title, sentence = escape(tr(check.title)), escape(tr(check.sentence))
        text = f"<b>{tr(ON_PAPER[check.level])}: {title}.</b> {sentence}"
        if check.code in reasons:
            text += f" <b>{tr('Answered for')}:</b> {escape(reasons[check.code])}"
        elif check.remedies:
            text += " " + escape(". ".join(tr(each.text) for each in check.remedies)) + "."
        out.append(Paragraph(text, style(8.0, after=3)))
    if fine:
        out.append(words(f"{tr('OK: ')}{'; '.join(fine)}.", SMALL))
    return out


def _back(leaf: LeafSolution, show: Show) -> list[Flowable]:
    if leaf.build is None or leaf.weights is None:
        return [words("No leaf fits this opening; nothing is to be cut.", HEADING)]
    out: list[Flowable] = [words("Cut list, length × width × thickness", HEADING), _cut_table(leaf, show), Spacer(0, 8)]
    if leaf.plan is not None:
        percent = show.value(leaf.plan.yield_percent, Unit.PERCENT)
        out += [
            words(
                f"Boards: {leaf.plan.boards}, at the least {leaf.plan.least_boards}; {percent} of them in rough parts."
            )
        ]
        out.append(Spacer(0, 8))
    if leaf.borings:
        out += [words("Let in for hardware", HEADING), _boring_table(leaf, show), Spacer(0, 8)]
    out += [words("Working of the main figures", HEADING), _workings(leaf, show)]
    return out


def _alike(parts: Sequence[Part]) -> list[list[Part]]:
    """Return the parts in their order, numbered ones that follow each other and are alike in one row together."""
    groups: list[list[Part]] = []
    for part in parts:
        last = groups[-1][-1] if groups else None
        same = (
            last is not None
            and part.name[-1:].isdigit()
            and last.name[-1:].isdigit()
            and (
                (last.finished, last.planed, last.rough, last.note, last.species, last.name.rpartition(" ")[0])
                == (part.finished, part.planed, part.rough, part.note, part.species, part.name.rpartition(" ")[0])
            )
        )
        if same:
            groups[-1].append(part)
        else:
            groups.append([part])
    return groups


def _cut_table(leaf: LeafSolution, show: Show) -> Table:
    rows = [
        [
            words(each, SMALL)
            for each in ("no.", "part", "timber", "finished", "planed for the glue-up", "rough", "weight")
        ]
    ]
    for group in _alike(leaf.cut_parts):
        part = group[0]
        sizes = [
            show.size(each.length, each.width, each.thickness) for each in (part.finished, part.planed, part.rough)
        ]
        weight = leaf.mass_of(part)
        mass = show.value(weight.value, Unit.KG) if weight else ""
        pieces = leaf.pieces_of(part)
        name, mark = part.name, part.mark
        if len(group) > 1:
            name, mark = f"{name} to {group[-1].name.rpartition(' ')[2]}", f"{mark}–{group[-1].mark}"
            mass = f"{mass} each" if mass else ""
        name += f" × {pieces}" if pieces > 1 else ""
        named = [words(name, style(8.2, bold=True)), *([words(part.note, SMALL)] if part.note else [])]
        rows.append(
            [words(mark), named, words(stuff(part.species).name, SMALL), *(words(each) for each in sizes), words(mass)]
        )
    return grid(rows, (0.045, 0.2, 0.12, 0.19, 0.19, 0.175, 0.08))


def _boring_table(leaf: LeafSolution, show: Show) -> Table:
    rows = [[words(each, SMALL) for each in COLUMNS]]
    for cut in leaf.borings:
        name, member, datum, *lengths = boring_row(cut, show)
        rows.append([words(name), words(member), words(datum, SMALL), *map(words, lengths)])
    return grid(rows, (0.1, 0.2, 0.26, 0.11, 0.11, 0.11, 0.11))


def _workings(leaf: LeafSolution, show: Show) -> Table:
    """The sums in three columns, read downwards."""
    sums = [
        _working(leaf.figures[figure_name(name)], show) for name in MAIN_FIGURES if figure_name(name) in leaf.figures
    ]
    third = -(-len(sums) // 3)
    columns = [sums[at : at + third] for at in range(0, len(sums), third)]
    rows = [[column[at] if at < len(column) else "" for column in columns] for at in range(third)]
    width = (A4[0] - 2 * MARGIN * mm) / 3
    table = Table(rows, colWidths=[width] * len(columns))
    table.setStyle(TableStyle([*TIGHT, ("RIGHTPADDING", (0, 0), (-1, -1), 8), ("BOTTOMPADDING", (0, 0), (-1, -1), 4)]))
    return table


def _working(figure: Figure, show: Show) -> list[Flowable]:
    lines: list[Flowable] = [words(figure.label[:1].upper() + figure.label[1:], style(8.0, bold=True))]
    lines += [words(row_text(row, show), SMALL) for row in figure.rows[:-1]]
    lines.append(Paragraph(f"= <b>{escape(show.value(figure.value, figure.unit))}</b>", SMALL))
    if figure.rests_on:
        lines.append(words("rests on what is assumed: " + "; ".join(sorted(figure.rests_on)), SMALL))
    return lines
