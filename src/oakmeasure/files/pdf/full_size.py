"""Paper at full size: the sheets there are, what every such page says, how a length is tiled over pages."""

from __future__ import annotations

import re
from dataclasses import dataclass

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from oakmeasure.files.pdf.drawing import BOLD, REGULAR
from oakmeasure.language import tr

PAPERS = {"A4": (297.0, 210.0), "A3": (420.0, 297.0)}  # mm, on their long side
# Mm: unprinted edge, what pieces share, the bar that is measured
MARGIN = 12.0
OVERLAP = 20.0
BAR = 100.0
# Mm of a page for what it is, and for the bar
HEAD = 16.0
FOOT = 14.0
LEAST_LONG = BAR + 2 * MARGIN
# Mm: what a PDF page may be, and a narrow roll
ROLL_LONGEST = 5000.0
ROLL_WIDTH = 210.0
WARNING = ("Measure the bar before use: it is 100 mm.", "Print at 100 %, not fitted to the page.")
INK = HexColor("#111111")
PENCIL = HexColor("#666666")


class PaperError(ValueError):
    """A paper that is none, or that is too small for what goes on it; the reason in plain words."""


@dataclass(frozen=True, slots=True)
class Paper:
    """A sheet, its long side lying, mm."""

    name: str
    """Its name, as it is shown."""
    width: float
    """Width, mm."""
    height: float
    """Height, mm."""
    roll: bool = False
    """As long as it must be."""

    @property
    def across(self) -> float:
        """Return what can be drawn on along it, mm."""
        return self.width - 2 * MARGIN

    @property
    def up(self) -> float:
        """Return what can be drawn on between head and foot, mm."""
        return self.height - 2 * MARGIN - HEAD - FOOT


def paper_named(text: str) -> Paper:
    """Return a paper: A4, A3, roll, or width x height in mm.

    Args:
        text: "A4", "A3", "roll", or width x height in mm.

    Raises:
        PaperError: See the message.
    """
    name = text.strip().upper()
    if name in PAPERS:
        return Paper(name, *PAPERS[name])
    if name == "ROLL":
        return Paper("roll", ROLL_LONGEST, ROLL_WIDTH, roll=True)
    size = re.fullmatch(r"(\d{2,4})\s*[X×]\s*(\d{2,4})", name)
    if size is None:
        raise PaperError(f"paper {text}: one of A4, A3, roll, or its size in mm, 400x300")
    wide, high = sorted((float(size[1]), float(size[2])), reverse=True)
    if wide < LEAST_LONG:
        raise PaperError(f"paper {text}: its long side needs {LEAST_LONG:g} for the bar of {BAR:g} mm")
    return Paper(f"{wide:g} × {high:g}", wide, high)


def pieces(length: float, across: float) -> list[tuple[float, float]]:
    """Return from where to where each piece of a length goes, mm, neighbours sharing OVERLAP.

    Args:
        length: Length, mm.
        across: What one sheet shows, mm.

    Raises:
        PaperError: Where a page is too short to get on.

    >>> pieces(500.0, 273.0)
    [(0.0, 273.0), (253.0, 500.0)]
    """
    if across <= 2 * OVERLAP:
        raise PaperError(f"{across:g} mm along the page is too little: pieces share {OVERLAP:g}")
    found, start = [], 0.0
    while True:
        end = min(start + across, length)
        found.append((start, end))
        if end >= length - 1e-9:
            return found
        start = end - OVERLAP


def letter(joint: int) -> str:
    """Return what a joint of two pieces is called: A, B, … Z, AA.

    Args:
        joint: Number of the joint, from 0.

    >>> letter(0), letter(26)
    ('A', 'AA')
    """
    return chr(65 + joint % 26) * (1 + joint // 26)


def page_frame(canvas: Canvas, paper: Paper, width: float, *, title: str, under: str, page: str) -> None:
    """Write the head and the bar of a page that is `width` mm long.

    Args:
        canvas: The page.
        paper: The size of paper.
        width: Length of the page, mm.
        title: What is printed on it.
        under: What stands under the title.
        page: "2 of 3" and the like.
    """
    top = paper.height - MARGIN
    canvas.setFillColor(INK)
    canvas.setFont(BOLD, 12)
    canvas.drawString(MARGIN * mm, (top - 5) * mm, tr(title))
    canvas.setFont(REGULAR, 8.5)
    canvas.drawString(MARGIN * mm, (top - 10) * mm, tr(under))
    canvas.drawRightString((width - MARGIN) * mm, (top - 5) * mm, tr(page))
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.6)
    y = MARGIN + 4
    canvas.line(MARGIN * mm, y * mm, (MARGIN + BAR) * mm, y * mm)
    for at in range(11):
        tall = 3.0 if at % 5 == 0 else 1.8
        canvas.line((MARGIN + 10 * at) * mm, y * mm, (MARGIN + 10 * at) * mm, (y + tall) * mm)
    canvas.setFont(BOLD, 8.5)
    for n, words in enumerate(WARNING):
        canvas.drawString((MARGIN + BAR + 4) * mm, (y + 1.4 - 4.2 * n) * mm, tr(words))
