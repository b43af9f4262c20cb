"""The setting-out rod on paper at full size, tiled over sheets or on a roll, and its marks as a list."""

from __future__ import annotations

import io
from collections.abc import Sequence

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Job
from oakmeasure.core.paper.rods import Lane, Rod, RodMark, RodSpan, rods
from oakmeasure.core.solution import LeafSolution
from oakmeasure.files.pdf.drawing import BOLD, REGULAR, register_fonts
from oakmeasure.files.pdf.full_size import (
    INK,
    MARGIN,
    OVERLAP,
    PENCIL,
    Paper,
    PaperError,
    letter,
    page_frame,
    paper_named,
    pieces,
)
from oakmeasure.language import SPOKEN, tr

# Mm: written marks over the stick, one lane of it, the ruler under it
LABELS = 40.0
LANE = 6.0
RULER = 9.0
STICK = LANE * len(Lane)
ROW = LABELS + STICK + RULER + 4.0
# Mm between written marks; their type
PITCH = 3.0
TEXT_PT = 7.0
TINTS = {Lane.MEMBERS: "#F3E8D3", Lane.JOINTS: "#DDD5C5", Lane.PANELS: "#FBF5E9", Lane.HARDWARE: "#BBBBBB"}


def rod_pdf(job: Job, leaf: LeafSolution, *, paper: str = "A4") -> bytes:
    """Return both rods of a leaf as the bytes of a PDF, then their marks as a list.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        paper: "A4" or "Letter".

    Raises:
        ValueError: Where there is no leaf, PaperError for a paper that is none or too small.
    """
    found, sheet = rods(leaf), paper_named(paper)
    if not found:
        raise ValueError("there is no leaf to set out")
    rows = int(sheet.up // ROW)
    if rows < 1:
        raise PaperError(f"paper {sheet.name}: {sheet.up:.0f} mm are left between head and bar, a rod needs {ROW:g}")
    register_fonts()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=(sheet.width * mm, sheet.height * mm), pageCompression=1)
    canvas.setTitle(f"Rod: {leaf.leaf.name}")
    writer = _RodWriter(canvas, sheet, job, leaf, Show(job.unit, speech=SPOKEN))
    for rod in found:
        writer.stick(rod, rows)
    writer.lists(found)
    canvas.save()
    return buffer.getvalue()


class _RodWriter:
    def __init__(self, canvas: Canvas, paper: Paper, job: Job, leaf: LeafSolution, show: Show) -> None:
        self.canvas, self.paper, self.leaf, self.show = canvas, paper, leaf, show
        self.title = f"{leaf.leaf.name}, {job.name}" if job.name else leaf.leaf.name
        self.hand = leaf.leaf.hand_in_words

    # --- sticks ------------------------------------------------------------------------------------------

    def stick(self, rod: Rod, rows: int) -> None:
        """Write one rod, so many rows to a page."""
        if self.paper.roll:
            wide = rod.length + 2 * MARGIN
            tiles, rows = [(0.0, rod.length)], 1
        else:
            wide = self.paper.width
            tiles = pieces(rod.length, self.paper.across)
        pages = _batched(tiles, rows)
        for number, page in enumerate(pages, start=1):
            self.canvas.setPageSize((wide * mm, self.paper.height * mm))
            under = f"{rod.name}, full size, every mark from the {rod.datum}; {self.hand}, seen from the opening side"
            page_frame(
                self.canvas,
                self.paper,
                wide,
                title=self.title,
                under=under,
                page=f"{rod.name}, page {number} of {len(pages)}",
            )
            for row, (piece, (start, end)) in enumerate(page):
                top = self.paper.height - MARGIN - 16.0 - row * ROW
                self._tile(rod, start, end, piece, len(tiles), top)
            self.canvas.showPage()

    def _tile(self, rod: Rod, start: float, end: float, piece: int, count: int, top: float) -> None:
        foot = top - LABELS - STICK
        self.canvas.setLineWidth(0.4)
        for n, lane in enumerate(Lane):
            y = foot + STICK - (n + 1) * LANE
            for span in rod.lane(lane):
                if span.end >= start and span.start <= end:
                    self._span(span, lane, start, end, y)
            self.canvas.setStrokeColor(INK)
            self._line(start, start, y, end, y)
        self._line(start, start, foot + STICK, end, foot + STICK)
        marks = [each for each in rod.marks() if start - 1e-9 <= each.at <= end + 1e-9]
        self._marks(marks, start, end, foot)
        self._ruler(start, end, foot)
        self._joints(start, end, piece, count, foot)

    def _x(self, at: float, start: float) -> float:
        return (MARGIN + at - start) * mm

    def _line(self, origin: float, x0: float, y0: float, x1: float, y1: float) -> None:
        self.canvas.line(self._x(x0, origin), y0 * mm, self._x(x1, origin), y1 * mm)

    def _span(self, span: RodSpan, lane: Lane, start: float, end: float, y: float) -> None:
        x0, x1 = max(span.start, start), min(span.end, end)
        self.canvas.setStrokeColor(PENCIL)
        if span.is_point:
            self.canvas.setDash([4, 1.5, 1, 1.5])
            self._line(start, x0, y, x0, y + LANE)
            self.canvas.setDash([])
            return
        self.canvas.setFillColor(HexColor(TINTS[lane]))
        self.canvas.rect(self._x(x0, start), y * mm, (x1 - x0) * mm, LANE * mm, stroke=1, fill=1)
        words = tr(span.what)
        if stringWidth(words, REGULAR, TEXT_PT) < (x1 - x0) * mm - 4:
            self.canvas.setFillColor(INK)
            self.canvas.setFont(REGULAR, TEXT_PT)
            self.canvas.drawCentredString(self._x((x0 + x1) / 2, start), (y + LANE / 2 - 0.9) * mm, words)

    def _marks(self, marks: Sequence[RodMark], start: float, end: float, foot: float) -> None:
        places = spread([each.at for each in marks], PITCH, start + 1.5, end - 1.0)
        self.canvas.setStrokeColor(INK)
        high = foot + STICK
        for mark, place in zip(marks, places, strict=True):
            self.canvas.setLineWidth(0.3)
            self._line(start, mark.at, foot, mark.at, high + 2)
            self._line(start, mark.at, high + 2, place, high + 5)
            words = _cut(f"{tr(self.show.length(mark.at))}  {tr('; '.join(mark.names))}", (LABELS - 6) * mm)
            self.canvas.saveState()
            self.canvas.translate(self._x(place, start) + TEXT_PT * 0.32, (high + 5.5) * mm)
            self.canvas.rotate(90)
            self.canvas.setFillColor(INK)
            self.canvas.setFont(REGULAR, TEXT_PT)
            self.canvas.drawString(0, 0, words)
            self.canvas.restoreState()

    def _ruler(self, start: float, end: float, foot: float) -> None:
        self.canvas.setStrokeColor(PENCIL)
        self.canvas.setFillColor(PENCIL)
        self.canvas.setLineWidth(0.3)
        at = -int(-start // 10) * 10 if start else 0
        while at <= end:
            self._line(start, at, foot, at, foot - (4.0 if at % 100 == 0 else 2.5 if at % 50 == 0 else 1.5))
            if at % 100 == 0:
                self.canvas.setFont(BOLD, 7.5)
                self.canvas.drawString(self._x(at, start) + 2, (foot - 5.5) * mm, str(at))
            at += 10

    def _joints(self, start: float, end: float, piece: int, count: int, foot: float) -> None:
        """Draw the line that pieces are laid on one another by, with its letter."""
        self.canvas.setStrokeColor(INK)
        self.canvas.setLineWidth(0.5)
        here = ((piece > 0, start + OVERLAP / 2, piece - 1), (piece < count - 1, end - OVERLAP / 2, piece))
        for there, at, joint in here:
            if there:
                self.canvas.setDash([6, 2])
                self._line(start, at, foot - RULER, at, foot + STICK + 4)
                self.canvas.setDash([])
                self.canvas.setFillColor(INK)
                self.canvas.setFont(BOLD, 11)
                self.canvas.drawString(self._x(at, start) + 3, (foot - RULER) * mm, letter(joint))

    # --- lists -------------------------------------------------------------------------------------------

    def lists(self, found: Sequence[Rod]) -> None:
        """Write every mark as a distance from one end, for marking by tape."""
        wide, high = (self.paper.height, self.paper.width) if not self.paper.roll else (210.0, 297.0)
        page = Paper("list", wide, high)
        for rod in found:
            lines = [(mark, each) for mark in rod.marks() for each in _folded(mark, (wide - 2 * MARGIN - 34) * mm)]
            per = int((high - 2 * MARGIN - 34) // 4.6)
            for number, at in enumerate(range(0, len(lines), per), start=1):
                self.canvas.setPageSize((wide * mm, high * mm))
                under = f"{rod.name}: lay the tape once, from the {rod.datum}; nothing is measured from a mark"
                page_frame(self.canvas, page, wide, title=self.title, under=under, page=f"{rod.name}, list {number}")
                self._list(lines[at : at + per], high - MARGIN - 20.0, wide)
                self.canvas.showPage()

    def _list(self, lines: Sequence[tuple[RodMark, tuple[bool, str]]], top: float, wide: float) -> None:
        for n, (mark, (first, words)) in enumerate(lines):
            y = (top - 4.6 * n) * mm
            if first:
                self.canvas.setStrokeColor(HexColor("#CCCCCC"))
                self.canvas.setLineWidth(0.25)
                self.canvas.line(MARGIN * mm, y + 3.2 * mm, (wide - MARGIN) * mm, y + 3.2 * mm)
                self.canvas.setFont(BOLD, 9.5)
                self.canvas.setFillColor(INK)
                self.canvas.drawRightString((MARGIN + 26) * mm, y, tr(self.show.length(mark.at)))
            self.canvas.setFont(REGULAR, 9)
            self.canvas.setFillColor(INK)
            self.canvas.drawString((MARGIN + 32) * mm, y, words)


def _batched(tiles: list[tuple[float, float]], rows: int) -> list[list[tuple[int, tuple[float, float]]]]:
    numbered = list(enumerate(tiles))
    return [numbered[at : at + rows] for at in range(0, len(numbered), rows)]


def spread(places: Sequence[float], pitch: float, low: float, high: float) -> list[float]:
    """Return places for texts, in order and at least `pitch` apart, as near to what they name as that leaves room.

    Pushed on from the left, then back from the right end; where even that is too much they are set evenly.

    Args:
        places: Where each text would stand, points.
        pitch: The least distance between two texts, points.
        low: Where the first may stand, points.
        high: Where the last may stand, points.

    >>> spread([10.0, 11.0, 40.0], 3.0, 0.0, 100.0)
    [10.0, 13.0, 40.0]
    """
    if len(places) > 1 and (len(places) - 1) * pitch > high - low:
        step = (high - low) / (len(places) - 1)
        return [low + n * step for n in range(len(places))]
    found: list[float] = []
    for each in places:
        found.append(max(each, low if not found else found[-1] + pitch))
    limit = high
    for n in range(len(found) - 1, -1, -1):
        found[n] = min(found[n], limit)
        limit = found[n] - pitch
    return found


def _cut(words: str, room: float) -> str:
    if stringWidth(words, REGULAR, TEXT_PT) <= room:
        return words
    while words and stringWidth(words + "…", REGULAR, TEXT_PT) > room:
        words = words[:-1]
    return words + "…"


def _folded(mark: RodMark, room: float) -> list[tuple[bool, str]]:
    """Return the words of a mark as lines of the list, each with whether it is the first."""
    lines: list[str] = []
    for what in map(tr, mark.what):
        longer = f"{lines[-1]}; {what}" if lines else what
        if lines and stringWidth(longer, REGULAR, 9) <= room:
            lines[-1] = longer
        else:
            lines.append(what)
    return [(n == 0, line) for n, line in enumerate(lines)]
