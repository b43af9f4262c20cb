"""What every sheet of paper is made of: the head, lines of text, pairs of a name and its value, tables."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.enums import TA_RIGHT
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Paragraph, Table, TableStyle

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Job
from oakmeasure.core.solution import LeafSolution
from oakmeasure.files.pdf.drawing import BOLD, REGULAR
from oakmeasure.language import tr

SMALLEST = 6.5  # points, of the line under a page's title
# Mm: page margin, height of the head, width of the right column
MARGIN = 10.0
HEAD = 14.0
COLUMN = 70.0


def style(size: float, *, bold: bool = False, after: float = 0.0, right: bool = False) -> ParagraphStyle:
    """Return a style of type.

    Args:
        size: Size of the type, points.
        bold: Whether it stands in bold type.
        after: Space under it, points.
        right: Whether it stands at the right.
    """
    return ParagraphStyle(
        f"{size}{bold}{after}{right}",
        fontName=BOLD if bold else REGULAR,
        fontSize=size,
        leading=size * 1.22,
        spaceAfter=after,
        textColor=HexColor("#111111"),
        alignment=TA_RIGHT if right else 0,
    )


HEADING = style(9.5, bold=True, after=2)
TEXT = style(8.2)
SMALL = style(7.4)


class PageHead:
    """The line at the top of each side: what it is, for which hand, to which scale."""

    def __init__(
        self, job: Job, leaf: LeafSolution, scale: str, on: date, show: Show, *, side: str = "opening"
    ) -> None:
        """scale: to which it is drawn, in words. side: from which the leaf is seen, "opening" or "closing"."""
        self.left = leaf.leaf.name
        self.under = " · ".join(each for each in (job.name, job.place) if each)
        size = show.size(leaf.fit.width.value, leaf.fit.height.value, leaf.leaf.build.over_all)
        self.right = f"{size}, {leaf.leaf.hand_in_words}"
        self.note = f"seen from the {side} side · {scale} · {on.isoformat()} · rules: {job.rules.name}"

    def draw(self, canvas: Canvas, side: str) -> None:
        """Draw it at the origin.

        Args:
            canvas: The page.
            side: Which side of how many, in words.
        """
        width, height = A4
        top = height - MARGIN * mm
        canvas.setFillColor(HexColor("#111111"))
        canvas.setFont(BOLD, 15)
        canvas.drawString(MARGIN * mm, top - 12, tr(self.left)[:60])
        canvas.drawRightString(width - MARGIN * mm, top - 12, tr(self.right))
        under, note, size = tr(self.under)[:80], f"{tr(self.note)} · {tr(side)}", 8.5
        room = width - 2 * MARGIN * mm - 12
        while stringWidth(under, REGULAR, size) + stringWidth(note, REGULAR, size) > room and size > SMALLEST:
            size -= 0.25
        while stringWidth(under, REGULAR, size) + stringWidth(note, REGULAR, size) > room and len(under) > 12:
            under = under[:-2] + "…"
        canvas.setFont(REGULAR, size)
        canvas.drawString(MARGIN * mm, top - 25, under)
        canvas.drawRightString(width - MARGIN * mm, top - 25, note)
        canvas.setLineWidth(0.8)
        canvas.line(MARGIN * mm, top - 33, width - MARGIN * mm, top - 33)


def words(text: str, style: ParagraphStyle = TEXT) -> Paragraph:
    """Return a paragraph.

    Args:
        text: The text.
        style: The style of its type.
    """
    return Paragraph(escape(tr(text)), style)


def pairs(rows: Iterable[tuple[str, str]], width: float) -> Table:
    """Return a table of labels and values.

    Args:
        rows: Labels with their values.
        width: Width that there is for it, points.
    """
    table = Table(
        [[words(left), words(right, style(8.2, bold=True, right=True))] for left, right in rows],
        colWidths=[width * 0.64, width * 0.36],
    )
    table.setStyle(TableStyle(TIGHT))
    return table


TIGHT = [
    ("VALIGN", (0, 0), (-1, -1), "TOP"),
    ("LEFTPADDING", (0, 0), (-1, -1), 0),
    ("RIGHTPADDING", (0, 0), (-1, -1), 3),
    ("TOPPADDING", (0, 0), (-1, -1), 0.6),
    ("BOTTOMPADDING", (0, 0), (-1, -1), 0.8),
]


def grid(rows: list[list[Flowable]], shares: tuple[float, ...]) -> Table:
    """Return a table with a header.

    Args:
        rows: Rows of cells, the header first.
        shares: Share of the width that each column has.
    """
    width = A4[0] - 2 * MARGIN * mm
    table = Table(rows, colWidths=[width * share for share in shares], repeatRows=1)
    table.setStyle(
        TableStyle(
            [
                *TIGHT,
                ("LINEBELOW", (0, 0), (-1, -1), 0.25, HexColor("#BBBBBB")),
                ("LINEBELOW", (0, 0), (-1, 0), 0.6, HexColor("#444444")),
            ]
        )
    )
    return table
