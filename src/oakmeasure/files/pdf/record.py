"""The record of a leaf on paper: one side, a second where there is much to tell."""

from __future__ import annotations

import io
from collections.abc import Sequence
from datetime import date
from typing import Any

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.platypus import BaseDocTemplate, Flowable, Frame, PageTemplate, Paragraph, Spacer, Table, TableStyle

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Job
from oakmeasure.core.paper.customer import customer_drawing
from oakmeasure.core.reports.hanging_record import Record, record_of
from oakmeasure.core.solution import LeafSolution
from oakmeasure.files.pdf.drawing import Pen, register_fonts
from oakmeasure.files.pdf.page_parts import HEADING, MARGIN, TEXT, PageHead, words
from oakmeasure.language import SPOKEN, tr

# Mm of a page for the drawing, and under it for the names
LEAST = 55.0
LARGEST = 130.0
SIGNED_HIGH = 24.0


def record_pdf(job: Job, leaf: LeafSolution, *, on: date | None = None) -> bytes:
    """Return the record of a leaf as the bytes of a PDF.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        on: The day that stands on the paper; None for none.

    Raises:
        ValueError: Where there is no leaf.
    """
    show = Show(job.unit, speech=SPOKEN)
    record = record_of(job, leaf, show)
    if record is None:
        raise ValueError("there is no leaf to record")
    register_fonts()
    buffer = io.BytesIO()
    head = PageHead(job, leaf, "record", on or record.on or date.today(), show)
    frame = Frame(MARGIN * mm, MARGIN * mm, A4[0] - 2 * MARGIN * mm, A4[1] - 2 * MARGIN * mm - 38)
    document = BaseDocTemplate(buffer, pagesize=A4, title=f"Record: {record.title}")
    document.addPageTemplates(
        PageTemplate(frames=[frame], onPage=lambda canvas, page: head.draw(canvas, f"side {page.page}"))
    )
    document.build([*_story(record), LeafDrawn(leaf, show), *_signed()])
    return buffer.getvalue()


class LeafDrawn(Flowable):
    """The leaf as it hangs, in what is left of the page; where little is, it stays away."""

    def __init__(self, leaf: LeafSolution, show: Show) -> None:
        super().__init__()
        self.drawing = customer_drawing(leaf, show)

    def wrap(self, available_width: float, available_height: float) -> tuple[float, float]:
        """Return the size that it takes, points.

        Args:
            available_width: Points.
            available_height: Points.
        """
        room = available_height - SIGNED_HIGH * mm
        self.high = min(room, LARGEST * mm) if room > LEAST * mm else 0.0
        return available_width, self.high

    def draw(self) -> None:
        """Draw it at its place."""
        if self.high:
            b = self.drawing.bounds
            scale = max(b.height / (self.high / mm), b.width / (A4[0] / mm - 2 * MARGIN))
            left = (A4[0] / mm - 2 * MARGIN - b.width / scale) / 2
            Pen(self.canv, self.drawing, left=left, top=self.high / mm, scale=scale).draw()


def _story(record: Record) -> list[Any]:
    signed = f"Hung {record.on.day} {record.on:%B %Y} by {record.by}." if record.on else "Not signed off."
    story: list[Any] = [Spacer(1, 6), words(signed, HEADING)]
    rows = [["", "as built", "as hung"], *([each.what, each.built, each.hung] for each in record.lines)]
    story += [_table(rows, (38, 92, 50)), Spacer(1, 8)]
    for title, pairs in (("Gaps as hung", record.gaps), ("The opening as measured", record.readings)):
        if pairs:
            story += [words(title, HEADING), _in_fours(pairs), Spacer(1, 8)]
    for title, lines in (
        ("Answered for", [f"{what}: {why}" for what, why in record.answered]),
        ("Learnt", list(record.lessons)),
        ("Notes", list(record.notes)),
    ):
        if lines:
            story += [words(title, HEADING), *(words(line) for line in lines), Spacer(1, 8)]
    return story


def _signed() -> list[Any]:
    return [Spacer(1, 26), _table([["signed", "", "for", ""]], (18, 70, 12, 80))]


def _in_fours(pairs: Sequence[tuple[str, str]]) -> Table:
    cells = [f"{name}: {value}" for name, value in pairs]
    cells += [""] * (-len(cells) % 4)
    return _table([cells[n : n + 4] for n in range(0, len(cells), 4)], (45, 45, 45, 45))


def _table(rows: list[list[str]], widths: tuple[float, ...]) -> Table:
    made = Table(
        [[Paragraph(_safe(tr(cell)), TEXT) for cell in row] for row in rows],
        colWidths=[w * mm for w in widths],
        hAlign="LEFT",
    )
    made.setStyle(
        TableStyle(
            [
                ("LINEBELOW", (0, 0), (-1, -1), 0.25, "#999999"),
                ("TOPPADDING", (0, 0), (-1, -1), 2),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 2),
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
            ]
        )
    )
    return made


def _safe(cell: str) -> str:
    return cell.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
