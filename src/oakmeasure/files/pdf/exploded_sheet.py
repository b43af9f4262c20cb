"""The exploded sheet: the leaf taken apart on one side of paper, every piece with its name and its size."""

from __future__ import annotations

import io
from dataclasses import replace
from datetime import date

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Job
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.drawings.turned.turned_view import clearest, turned_view
from oakmeasure.core.solution import LeafSolution
from oakmeasure.files.pdf.drawing import Pen, reach, register_fonts
from oakmeasure.files.pdf.page_parts import HEAD, MARGIN, PageHead
from oakmeasure.language import SPOKEN

LINES = 74.0  # of text that the height of the side has room for
SMALLER = 1.02  # a step down in size, until the names fit beside the picture
WHOLE_WIDE, WHOLE_HIGH = 30.0, 48.0  # mm of paper for the leaf put together, in the corner


def exploded_pdf(job: Job, leaf: LeafSolution, *, on: date | None = None) -> bytes:
    """Return a leaf taken apart as the bytes of a PDF of one side.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        on: The day that stands on the paper; None for today.

    Raises:
        ValueError: Where there is no leaf.
    """
    if leaf.body is None:
        raise ValueError("there is no leaf to take apart")
    register_fonts()
    show = Show(job.unit, speech=SPOKEN)
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=A4, pageCompression=1)
    canvas.setTitle(f"Taken apart: {leaf.leaf.name}")
    turn = clearest(leaf)
    side = "opening" if turn.away[2] > 0 else "closing"
    PageHead(job, leaf, "askew, not to scale", on or date.today(), show, side=side).draw(canvas, "taken apart")
    wide, high, whole = A4[0] / mm - 2 * MARGIN, A4[1] / mm - 2 * MARGIN - HEAD - WHOLE_HIGH, MARGIN + WHOLE_HIGH
    _put(canvas, turned_view(leaf, show, turn, lines=LINES), (MARGIN, whole + high), (wide, high))
    _put(
        canvas,
        turned_view(leaf, show, replace(turn, apart=0.0)),
        (A4[0] / mm - MARGIN - WHOLE_WIDE, whole),
        (WHOLE_WIDE, WHOLE_HIGH),
    )
    canvas.save()
    return buffer.getvalue()


def _put(canvas: Canvas, drawing: Drawing, at: tuple[float, float], size: tuple[float, float]) -> None:
    """Draw a drawing in the middle of a box of the page, mm of paper from its left and upper end, as large as it fits
    with its texts.
    """
    b, (left, top), (wide, high) = drawing.bounds, at, size
    scale = max(b.height / high, b.width / wide)
    start, end = reach(drawing, scale)
    while end - start > wide:
        scale *= SMALLER
        start, end = reach(drawing, scale)
    down = (high - b.height / scale) / 2
    Pen(canvas, drawing, left=left + (wide - end - start) / 2, top=top - down, scale=scale).draw()
