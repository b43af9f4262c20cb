"""Bench sheets of the stages and the customer's sheet on A4: a drawing, then tables, drawn straight onto the page."""

from __future__ import annotations

import io
from collections.abc import Iterable, Sequence
from datetime import date

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Job
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.paper.customer import CAUTION, customer_blocks, customer_drawing
from oakmeasure.core.paper.stage_sheet import BOX, Block, stage_sheet
from oakmeasure.core.solution import LeafSolution
from oakmeasure.files.pdf.drawing import BOLD, REGULAR, Pen, reach, register_fonts
from oakmeasure.files.pdf.page_parts import HEAD, MARGIN, PageHead
from oakmeasure.language import SPOKEN, tr

WIDE = A4[0] / mm
HIGH = A4[1] / mm
# mm, of a drawing: the least with all lists on its side, what it has where they go on overleaf, the most;
# the least where they fill the other side
DRAWN_LEAST = 78.0
DRAWN_HIGH = 120.0
DRAWN_MOST = 175.0
DRAWN_OVER = 45.0
BETWEEN = 36.0  # mm that lists lose where they go on overleaf
SIGNED = Block("Agreed", ("date", "signed", "for the workshop"), (0.25, 0.4, 0.35), (("", "", ""),), tall=True)
SIGNED_HIGH = 38.0  # mm of the customer's sheet for the caution and what is signed
# Type in points, its lines in mm
SIZE = 8.6
LEADING = 3.7
# Mm between lines of a table; a row with room for a pencil
PAD = 1.1
TALL = 7.2
# Mm: a table's heading, its columns' names, under it
TITLE = 5.0
NAMES = 3.6
AFTER = 3.5
Laid = list[list[str]]
INK = HexColor("#111111")
LINE = HexColor("#BBBBBB")
GREY = HexColor("#555555")


def stage_sheets_pdf(
    job: Job, leaf: LeafSolution, stages: Iterable[Stage] = tuple(Stage), *, on: date | None = None
) -> bytes:
    """Return the bench sheets of some stages, all of them when left out, each beginning on a page of its own.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        stages: Which stages are printed.
        on: The day that stands on the paper; None for none.
    """
    register_fonts()
    show, stream = Show(job.unit, speech=SPOKEN), io.BytesIO()
    canvas = Canvas(stream, pagesize=A4, pageCompression=1, invariant=1)
    canvas.setTitle(f"Bench sheets: {leaf.leaf.name}")
    page = Page(canvas, PageHead(job, leaf, "not to scale", on or date.today(), show))
    for stage in stages:
        sheet = stage_sheet(leaf, stage, show)
        page.begin(str(stage))
        page.title(str(stage), sheet.key)
        rows = [page.laid(block) for block in sheet.blocks]
        if sheet.drawing is not None:
            # As large as leaves the lists on the same side, where they fit there at all.
            lists = sum(height_of(block, laid) for block, laid in zip(sheet.blocks, rows, strict=True))
            left = page.y - MARGIN - 5.0 - lists
            back = HIGH - HEAD - 2 * MARGIN - BETWEEN
            over = min(DRAWN_HIGH, max(left + back, DRAWN_OVER))  # and no third side is begun for it
            page.drawing(sheet.drawing, min(left, DRAWN_MOST) if left >= DRAWN_LEAST else over)
        for block, laid in zip(sheet.blocks, rows, strict=True):
            page.block(block, laid)
        page.end()
    canvas.save()
    return stream.getvalue()


def customer_pdf(job: Job, leaf: LeafSolution, *, on: date | None = None) -> bytes:
    """Return the customer's sheet of a leaf: what it will be, what is to be agreed, room to sign.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        on: The day that stands on the paper; None for none.
    """
    register_fonts()
    show, stream = Show(job.unit, speech=SPOKEN), io.BytesIO()
    canvas = Canvas(stream, pagesize=A4, pageCompression=1, invariant=1)
    canvas.setTitle(f"To agree: {leaf.leaf.name}")
    page = Page(canvas, PageHead(job, leaf, "not to scale", on or date.today(), show))
    page.begin("to agree")
    page.title("Your door", "to agree before the first cut")
    blocks = customer_blocks(leaf, show)
    rows = [page.laid(block) for block in blocks]
    lists = sum(height_of(block, laid) for block, laid in zip(blocks, rows, strict=True))
    left = page.y - MARGIN - SIGNED_HIGH - lists
    page.drawing(customer_drawing(leaf, show), min(max(left, DRAWN_LEAST), DRAWN_MOST))
    for block, laid in zip(blocks, rows, strict=True):
        page.block(block, laid)
    page.words(CAUTION, size=8.2)
    page.block(SIGNED)
    page.end()
    canvas.save()
    return stream.getvalue()


class Page:
    """A sheet that is written from the top down; it goes on overleaf by itself. y: what is free below, mm."""

    def __init__(self, canvas: Canvas, head: PageHead) -> None:
        self.canvas, self.head = canvas, head
        self.y, self.name, self.side = 0.0, "", 0

    def begin(self, name: str) -> None:
        """Begin a sheet.

        Args:
            name: What the sheet is called at its head.
        """
        self.name, self.side = name, 0
        self._over()

    def end(self) -> None:
        """Finish the page that is being written."""
        self.canvas.showPage()

    def _over(self) -> None:
        if self.side:
            self.canvas.showPage()
        self.side += 1
        self.head.draw(self.canvas, f"{self.name}, side {self.side}")
        self.y = HIGH - MARGIN - HEAD - 2.0

    def title(self, name: str, key: str) -> None:
        """Write what the sheet is, large, and its figure beside it.

        Args:
            name: What the sheet is.
            key: The figure beside it, in words.
        """
        self.canvas.setFillColor(INK)
        self.canvas.setFont(BOLD, 17)
        self.canvas.drawString(MARGIN * mm, (self.y - 5.5) * mm, tr(name))
        self.canvas.setFont(BOLD, 13)
        self.canvas.drawRightString((WIDE - MARGIN) * mm, (self.y - 5.5) * mm, tr(key))
        self.y -= 10.0

    def drawing(self, drawing: Drawing, most: float) -> None:
        """Draw as large as it fits across the page and `most` mm high, in the middle.

        Args:
            drawing: The drawing.
            most: The greatest height that it may have, mm.
        """
        b, room = drawing.bounds, WIDE - 2 * MARGIN
        scale = max(b.width / room, b.height / most)
        low, high = reach(drawing, scale)
        for _ in range(3):  # texts do not shrink with the drawing: those at its sides need room of their own
            scale *= max((high - low) / room, 1.0)
            low, high = reach(drawing, scale)
        left = (WIDE - (high - low)) / 2 - low
        Pen(self.canvas, drawing, left=left, top=self.y, scale=scale).draw()
        self.y -= b.height / scale + 4.0

    def words(self, text: str, *, size: float = SIZE, bold: bool = False, after: float = 2.0) -> None:
        """Write a paragraph across the page.

        Args:
            text: The text.
            size: Of the type, points.
            bold: Whether it stands in bold type.
            after: Space under it, mm.
        """
        font = BOLD if bold else REGULAR
        step = LEADING * size / SIZE
        for line in folded(text, font, size, (WIDE - 2 * MARGIN) * mm):
            self._room(step)
            self.canvas.setFillColor(INK)
            self.canvas.setFont(font, size)
            self.canvas.drawString(MARGIN * mm, (self.y - step + 0.8) * mm, line)
            self.y -= step
        self.y -= after

    def _room(self, needed: float) -> None:
        if self.y - needed < MARGIN:
            self._over()

    def laid(self, block: Block) -> list[Laid]:
        """Return the rows of a table in lines as its columns hold them.

        Args:
            block: The block of rows.
        """
        widths = [share * (WIDE - 2 * MARGIN) for share in block.shares]
        return [
            [
                folded(text, BOLD if n == block.bold else REGULAR, SIZE, (wide - 2.0) * mm)
                for n, (text, wide) in enumerate(zip(row, widths, strict=True))
            ]
            for row in block.rows
        ]

    def block(self, block: Block, rows: Sequence[Laid] | None = None) -> None:
        """Write a table; its heading comes over again overleaf.

        Args:
            block: The block of rows.
            rows: Its rows where they are laid already; None to lay them.
        """
        widths = [share * (WIDE - 2 * MARGIN) for share in block.shares]
        self._room(20.0)
        self._heading(block, widths)
        for cells in self.laid(block) if rows is None else rows:
            high = _row_height(block, cells)
            if self.y - high < MARGIN:
                self._over()
                self._heading(block, widths)
            self._row(cells, widths, high, block.bold)
        self.y -= AFTER

    def _heading(self, block: Block, widths: Sequence[float]) -> None:
        c = self.canvas
        c.setFillColor(INK)
        c.setFont(BOLD, 10)
        c.drawString(MARGIN * mm, (self.y - 3.6) * mm, tr(block.title))
        self.y -= TITLE
        if any(block.columns):
            c.setFillColor(GREY)
            c.setFont(REGULAR, 7.4)
            x = MARGIN
            for name, wide in zip(block.columns, widths, strict=True):
                c.drawString(x * mm, (self.y - 2.6) * mm, tr(name))
                x += wide
            self.y -= NAMES
        c.setStrokeColor(INK)
        c.setLineWidth(0.5)
        c.line(MARGIN * mm, self.y * mm, (WIDE - MARGIN) * mm, self.y * mm)

    def _row(self, cells: Sequence[Sequence[str]], widths: Sequence[float], high: float, bold: int) -> None:
        c, x = self.canvas, MARGIN
        lower = max(high - PAD - LEADING * max(len(each) for each in cells), 0.0)
        c.setFillColor(INK)
        for n, (lines, wide) in enumerate(zip(cells, widths, strict=True)):
            if lines == [BOX]:
                c.setStrokeColor(INK)
                c.setLineWidth(0.6)
                c.rect((x + 1) * mm, (self.y - 3.6 - lower) * mm, 2.9 * mm, 2.9 * mm, fill=0)
            else:
                c.setFont(BOLD if n == bold else REGULAR, SIZE)
                for at, line in enumerate(lines):
                    c.drawString(x * mm, (self.y - LEADING * (at + 1) + 0.6 - lower) * mm, line)
            x += wide
        self.y -= high
        c.setStrokeColor(LINE)
        c.setLineWidth(0.25)
        c.line(MARGIN * mm, self.y * mm, (WIDE - MARGIN) * mm, self.y * mm)


def _row_height(block: Block, cells: Laid) -> float:
    high = max(len(each) for each in cells) * LEADING + PAD
    return max(high, TALL) if block.tall else high


def height_of(block: Block, rows: Sequence[Laid]) -> float:
    """Return how much of a page a table takes, mm.

    Args:
        block: The block of rows.
        rows: Its rows, laid.
    """
    heading = TITLE + (NAMES if any(block.columns) else 0.0)
    return heading + sum(_row_height(block, each) for each in rows) + AFTER


def folded(text: str, font: str, size: float, room: float) -> list[str]:
    """Return a text in lines no longer than `room` points; a word that is longer by itself is broken.

    Args:
        text: The text.
        font: Name of the font.
        size: Of the type, points.
        room: Width of a line, points.
    """
    lines: list[str] = []
    line = ""
    for word in tr(text).split():
        longer = f"{line} {word}" if line else word
        if stringWidth(longer, font, size) <= room:
            line = longer
            continue
        if line:
            lines.append(line)
        while len(word) > 1 and stringWidth(word, font, size) > room:
            fits = next(n for n in range(len(word) - 1, 0, -1) if n == 1 or stringWidth(word[:n], font, size) <= room)
            lines.append(word[:fits])
            word = word[fits:]
        line = word
    return [*lines, line] if line or not lines else lines
