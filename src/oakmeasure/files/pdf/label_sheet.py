"""A sheet of labels as PDF: three across, eight down on A4, to be cut or on sticky paper."""

from __future__ import annotations

import io
from collections.abc import Sequence

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from oakmeasure.core.making.labels import PieceLabel
from oakmeasure.files.pdf.drawing import BOLD, REGULAR, register_fonts
from oakmeasure.language import tr

# Mm
COLUMNS = 3
ROWS = 8
MARGIN = 8.0
PAD = 2.4
INK = HexColor("#111111")


def label_sheet_pdf(labels: Sequence[PieceLabel]) -> bytes:
    """Return the labels as the bytes of a PDF, as many sides as they need; one that says so where there are none.

    Args:
        labels: The labels.
    """
    register_fonts()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=A4)
    canvas.setTitle("Labels")
    wide, high = (A4[0] - 2 * MARGIN * mm) / COLUMNS, (A4[1] - 2 * MARGIN * mm) / ROWS
    per = COLUMNS * ROWS
    if not labels:
        canvas.setFont(REGULAR, 12)
        canvas.drawString(MARGIN * mm, A4[1] - 30 * mm, tr("No parts to label."))
    for n, label in enumerate(labels):
        if n and n % per == 0:
            canvas.showPage()
        column, row = n % COLUMNS, n % per // COLUMNS
        _draw(canvas, label, MARGIN * mm + column * wide, A4[1] - MARGIN * mm - (row + 1) * high, wide, high)
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def _draw(canvas: Canvas, label: PieceLabel, x: float, y: float, wide: float, high: float) -> None:
    pad = PAD * mm
    canvas.setStrokeColor(HexColor("#999999"))
    canvas.setLineWidth(0.3)
    canvas.rect(x, y, wide, high)
    canvas.setFillColor(INK)
    canvas.setStrokeColor(INK)
    top = y + high - pad
    _fit(canvas, f"{label.number}  {label.name}".strip(), BOLD, 11.5, (x + pad, top - 9), wide - 2 * pad - 12)
    _arrow(canvas, label, x + wide - pad - 4, top)
    lines = [
        f"{label.leaf}{', ' + label.piece if label.piece else ''}",
        label.size,
        "  ".join(each for each in (f"face: {label.face}", f"edge: {label.edge}" if label.edge else "") if each),
        f"{label.hand} · {label.job}" if label.job else label.hand,
    ]
    for n, words in enumerate(lines):
        _fit(canvas, words, REGULAR, 9.5 if n == 1 else 8.0, (x + pad, top - 22 - 11.5 * n), wide - 2 * pad)
    if label.letters:
        _fit(canvas, label.letters, BOLD, 14, (x + pad, y + pad + 1), wide - 2 * pad)


def _arrow(canvas: Canvas, label: PieceLabel, x: float, top: float) -> None:
    """An arrow to the head, or along a rail from the hinge side to the latch."""
    canvas.setLineWidth(1.2)
    if label.head.startswith("arrow up"):
        lines = [(x, top - 13, x, top), (x - 3, top - 5, x, top), (x + 3, top - 5, x, top)]
    else:
        lines = [(x - 9, top - 6, x + 4, top - 6), (x, top - 3, x + 4, top - 6), (x, top - 9, x + 4, top - 6)]
    canvas.lines(lines)


def _fit(canvas: Canvas, words: str, font: str, size: float, at: tuple[float, float], room: float) -> None:
    """Write a line, smaller where it is too long, and shortened where that would be too small to read."""
    words = tr(words)
    while stringWidth(words, font, size) > room and size > 6.0:
        size -= 0.5
    while stringWidth(words, font, size) > room and len(words) > 4:
        words = words[:-2] + "…"
    canvas.setFont(font, size)
    canvas.drawString(*at, words)
