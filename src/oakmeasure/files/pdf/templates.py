"""Templates on paper at full size: both hands, the edges that the paper is laid against, tiled where one is large."""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Frame, Spacer

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand, Job
from oakmeasure.core.paper.outlines import has_edge_in
from oakmeasure.core.paper.router_layout import Flat, FlatLayer
from oakmeasure.core.paper.template import Reference, Template
from oakmeasure.core.paper.templates import hands, templates, templates_asked_for
from oakmeasure.core.solution import LeafSolution
from oakmeasure.files.pdf.drawing import BOLD, REGULAR, register_fonts
from oakmeasure.files.pdf.full_size import (
    FOOT,
    HEAD,
    INK,
    LEAST_LONG,
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
from oakmeasure.files.pdf.page_parts import SMALL, style, words
from oakmeasure.language import SPOKEN, tr

# Mm: the words, between the two hands, under each of them
COLUMN = 60.0
GAP = 20.0
CAPTION = 9.0
LEAST_ROLL = 210.0  # mm, for the bar and what stands beside it
BODY = style(9.6, after=1)
WOOD = HexColor("#FBF5E9")
CUT = HexColor("#DDD5C5")
THROUGH = HexColor("#FFFFFF")


def templates_pdf(job: Job, leaf: LeafSolution, *, paper: str = "A4", only: Sequence[str] = ()) -> bytes:
    """Return the templates of a leaf, all or those of some kinds, as the bytes of a PDF.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        paper: "A4" or "Letter".
        only: Kinds that are wanted; empty for all.

    Raises:
        ValueError: For a leaf that has none or a kind that is none of them, PaperError for a paper that is none
            or too small.
    """
    show, sheet = Show(job.unit, speech=SPOKEN), paper_named(paper)
    found = templates_asked_for(templates(leaf, show), only)
    if not found:
        raise ValueError("there is nothing in this leaf that a template is needed for")
    register_fonts()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=(sheet.width * mm, sheet.height * mm), pageCompression=1, invariant=1)
    canvas.setTitle(f"Templates: {leaf.leaf.name}")
    writer = _TemplateWriter(canvas, sheet, f"{leaf.leaf.name}, {job.name}" if job.name else leaf.leaf.name, show)
    for each in found:
        writer.write(each, hands(leaf, each))
    canvas.save()
    return buffer.getvalue()


@dataclass(frozen=True, slots=True)
class _Place:
    """Where a template's own 0, 0 lies on a page, mm from its lower left corner."""

    x: float
    y: float

    def at(self, point: Point) -> Point:
        return (self.x + point[0]) * mm, (self.y + point[1]) * mm


class _TemplateWriter:
    def __init__(self, canvas: Canvas, paper: Paper, leaf: str, show: Show) -> None:
        self.canvas, self.paper, self.leaf, self.show = canvas, paper, leaf, show

    def write(self, template: Template, both: Sequence[tuple[Hand, bool]]) -> None:
        """Write a template for both hands: on one page, on one each, or tiled after a page that shows the whole."""
        for page in _turns(self.paper):
            room = page.across - COLUMN - 6.0
            for stacked in (False, True):
                if _fits(template, room, page.up, len(both), stacked=stacked):
                    self._page(page, template, both, stacked=stacked)
                    return
        for page in _turns(self.paper):
            if _fits(template, page.across - COLUMN - 6.0, page.up, 1, stacked=False):
                for each in both:
                    self._page(page, template, [each], stacked=False)
                return
        for hand, own in both:
            self._tiles(template, hand, own=own)

    # --- on one page -------------------------------------------------------------------------------------

    def _page(self, page: Paper, template: Template, both: Sequence[tuple[Hand, bool]], *, stacked: bool) -> None:
        x0, _, x1, _ = template.box
        page = _cut_off(page, (x1 - x0 + GAP) * len(both) + COLUMN + 2 * MARGIN + 8.0)
        self._frame(page, template, "")
        x, top = MARGIN + 8.0, page.height - MARGIN - HEAD - 4.0
        for hand, own in both:
            drawn = template.of(hand)
            x0, y0, x1, y1 = drawn.box
            place = _Place(x - x0, top - y1)
            self._draw(drawn, place)
            middle = (place.x + (x0 + x1) / 2) * mm
            self.canvas.setFillColor(INK)
            self.canvas.setFont(BOLD, 10)
            self.canvas.drawCentredString(middle, (place.y + y0 - 5.5) * mm, tr(_hand(hand)))
            self.canvas.setFont(REGULAR, 8)
            self.canvas.drawCentredString(middle, (place.y + y0 - 9) * mm, tr("this leaf" if own else "the other hand"))
            if stacked:
                top -= (y1 - y0) + CAPTION + 10.0
            else:
                x += (x1 - x0) + GAP
        self._column(page, template)
        self.canvas.showPage()

    def _frame(self, page: Paper, template: Template, name: str) -> None:
        self.canvas.setPageSize((page.width * mm, page.height * mm))
        title = f"{template.title}: {template.surface}" if template.kind != "outline" else "the whole outline"
        page_frame(
            self.canvas,
            page,
            page.width,
            title=title[0].upper() + title[1:],
            under=f"{self.leaf}. Full size.",
            page=name,
        )

    def _column(self, page: Paper, template: Template) -> None:
        """Write what is to be known beside the drawing: how it is laid, what is cut, where."""
        story = [words("Lay it", SMALL), words(template.lay or "On the marks.", BODY), Spacer(0, 5)]
        if template.cuts:
            story.append(words("Cut", SMALL))
            for n, line in enumerate(template.words(self.show)):
                story += [words(f"{letter(n).lower()}  {line}.", BODY), Spacer(0, 2)]
        story += [each for note in template.notes for each in (words(note, BODY), Spacer(0, 2))]
        where = [(name, at) for name, at in template.places if at]
        if where:
            story += [Spacer(0, 5), words("Where its height line lies" if template.lines else "Where", SMALL)]
            story += [words(f"{name}: {at}", BODY) for name, at in where]
        frame = Frame((page.width - MARGIN - COLUMN) * mm, (MARGIN + FOOT) * mm, COLUMN * mm, page.up * mm, 0, 0, 0, 0)
        frame.addFromList(story, self.canvas)
        if story:
            raise PaperError(f"paper {self.paper.name}: the words of “{template.title}” find no room beside it")

    # --- tiled -------------------------------------------------------------------------------------------

    def _tiles(self, template: Template, hand: Hand, *, own: bool) -> None:
        drawn = template.of(hand)
        if self.paper.roll and drawn.box[3] - drawn.box[1] > drawn.box[2] - drawn.box[0]:
            drawn = drawn.lying()
        page, tiles = min(((page, _grid(drawn, page)) for page in _turns(self.paper)), key=lambda each: len(each[1]))
        whose = f"{_hand(hand)}, {'this leaf' if own else 'the other hand, or the closing face of this leaf'}"
        self._overview(_cut_off(page, 297.0), drawn, tiles, whose)
        for number, tile in enumerate(tiles, start=1):
            page = _cut_off(page, tile.x1 - tile.x0 + 2 * MARGIN)
            self._frame(page, template, f"sheet {tile.name}, {number} of {len(tiles)}")
            self.canvas.setFont(REGULAR, 8.5)
            self.canvas.drawRightString((page.width - MARGIN) * mm, (page.height - MARGIN - 10) * mm, tr(whose))
            place = _Place(MARGIN - tile.x0, MARGIN + FOOT - tile.y0)
            self.canvas.saveState()
            path = self.canvas.beginPath()
            path.rect(MARGIN * mm, (MARGIN + FOOT) * mm, (tile.x1 - tile.x0) * mm, (tile.y1 - tile.y0) * mm)
            self.canvas.clipPath(path, stroke=0, fill=0)
            self._draw(drawn, place)
            self.canvas.restoreState()
            self._joints(tile, place)
            self.canvas.showPage()

    def _joints(self, tile: _Tile, place: _Place) -> None:
        """Draw the lines that sheets are laid on one another by, and which sheet comes there."""
        c = self.canvas
        c.setStrokeColor(INK)
        c.setFillColor(INK)
        c.setLineWidth(0.5)
        c.setFont(BOLD, 10)
        half = OVERLAP / 2
        for there, x, name in ((tile.left, tile.x0 + half, tile.left), (tile.right, tile.x1 - half, tile.right)):
            if there:
                c.setDash([6, 2])
                c.line(*place.at((x, tile.y0)), *place.at((x, tile.y1)))
                c.setDash([])
                left, low = place.at((x, tile.y0))
                c.drawString(left + 3, low + 6, name)
        for there, y, name in ((tile.under, tile.y0 + half, tile.under), (tile.over, tile.y1 - half, tile.over)):
            if there:
                c.setDash([6, 2])
                c.line(*place.at((tile.x0, y)), *place.at((tile.x1, y)))
                c.setDash([])
                left, low = place.at(((tile.x0 + tile.x1) / 2, y))
                c.drawString(left, low + 3, name)

    def _overview(self, page: Paper, template: Template, tiles: Sequence[_Tile], whose: str) -> None:
        """Draw the whole, small, with its sheets: not to be measured from."""
        self._frame(page, template, f"{len(tiles)} sheets follow")
        x0, y0, x1, y1 = template.box
        room = (page.across - COLUMN - 10.0, page.up - 8.0)
        scale = min(room[0] / (x1 - x0), room[1] / (y1 - y0), 0.9)
        self.canvas.saveState()
        self.canvas.translate((MARGIN + 4.0) * mm, (MARGIN + FOOT + 4.0) * mm)
        self.canvas.scale(scale, scale)
        self._draw(template, _Place(-x0, -y0), small=1 / scale)
        self.canvas.setStrokeColor(PENCIL)
        self.canvas.setFillColor(INK)
        self.canvas.setLineWidth(0.4 / scale)
        self.canvas.setDash([3 / scale, 2 / scale])
        for t in tiles:
            self.canvas.rect((t.x0 - x0) * mm, (t.y0 - y0) * mm, (t.x1 - t.x0) * mm, (t.y1 - t.y0) * mm, fill=0)
            self.canvas.setFont(BOLD, 9 / scale)
            self.canvas.drawCentredString(((t.x0 + t.x1) / 2 - x0) * mm, ((t.y0 + t.y1) / 2 - y0) * mm, t.name)
        self.canvas.restoreState()
        frame = Frame((page.width - MARGIN - COLUMN) * mm, (MARGIN + FOOT) * mm, COLUMN * mm, page.up * mm, 0, 0, 0, 0)
        size = self.show.size(x1 - x0, y1 - y0)
        frame.addFromList(
            [
                words(whose, style(9.5, bold=True, after=4)),
                words(f"{size} in all. {template.lay}"),
                Spacer(0, 4),
                words(
                    "This page is small, not to scale. On the sheets lay each dashed line on that of its neighbour, "
                    "whose name stands beside it. Sheets with no edge of the wood on them are left out.",
                    SMALL,
                ),
            ],
            self.canvas,
        )
        self.canvas.showPage()

    # --- the drawing -------------------------------------------------------------------------------------

    def _draw(self, template: Template, place: _Place, *, small: float = 1.0) -> None:
        """Draw wood, cuts, lines and references. small: how much thicker lines are drawn, on an overview."""
        c = self.canvas
        c.setDash([])
        if template.wood:
            c.setFillColor(WOOD)
            self._path(template.wood, place, stroke=0, fill=1)
        # What is sunk less goes first: a mortise lies in its forend's recess.
        for n, cut in sorted(enumerate(template.cuts), key=lambda each: each[1].depth):
            self._cut(cut, place, letter(n).lower())
        c.setStrokeColor(PENCIL)
        c.setLineWidth(0.4 * small)
        for start, end in template.lines:
            c.setDash([] if template.kind in ("arch", "raked head", "outline") else [8, 2, 2, 2])
            c.line(*place.at(start), *place.at(end))
        c.setDash([])
        named: set[str] = set()
        for each in template.references:
            c.setStrokeColor(INK)
            c.setLineWidth((1.4 if each.is_datum else 0.6) * small)
            c.line(*place.at(each.start), *place.at(each.end))
            if small == 1.0:
                self._name(each, template, place, named)

    def _path(self, points: Sequence[Point], place: _Place, *, stroke: int, fill: int) -> None:
        path = self.canvas.beginPath()
        path.moveTo(*place.at(points[0]))
        for point in points[1:]:
            path.lineTo(*place.at(point))
        path.close()
        self.canvas.drawPath(path, stroke=stroke, fill=fill)

    def _cut(self, cut: Flat, place: _Place, name: str) -> None:
        c = self.canvas
        c.setStrokeColor(INK)
        c.setLineWidth(0.6)
        c.setFillColor(THROUGH if cut.layer is FlatLayer.THROUGH else CUT)
        if cut.radius:
            x, y = place.at(cut.points[0])
            reach = (cut.radius + 3.0) * mm
            c.circle(x, y, cut.radius * mm, stroke=1, fill=1)
            c.setLineWidth(0.3)
            c.line(x - reach, y, x + reach, y)
            c.line(x, y - reach, x, y + reach)
            at = (x + cut.radius * mm * 0.75 + 3, y + cut.radius * mm * 0.75 + 2)
        else:
            self._path(cut.points, place, stroke=1, fill=1)
            corner = place.at((min(x for x, _ in cut.points), max(y for _, y in cut.points)))
            at = (corner[0] + 3, corner[1] - 10)
        c.setFillColor(INK)
        c.setFont(BOLD, 9)
        c.drawString(*at, tr(name))

    def _name(self, reference: Reference, template: Template, place: _Place, named: set[str]) -> None:
        """Write a reference's name once along it, outside the wood."""
        (x0, y0), (x1, y1) = reference.start, reference.end
        name = tr(reference.name.partition(",")[0])
        if name in named or max(abs(x1 - x0), abs(y1 - y0)) < 18.0:
            return
        named.add(name)
        bx0, by0, bx1, by1 = template.box
        x, y = place.at(((x0 + x1) / 2, (y0 + y1) / 2))
        upright = abs(y1 - y0) > abs(x1 - x0)
        c = self.canvas
        c.saveState()
        c.translate(x, y)
        c.setFillColor(INK)
        c.setFont(BOLD if reference.is_datum else REGULAR, 8)
        if upright:
            c.rotate(90)
            c.drawCentredString(0, 4 if x0 + x1 < bx0 + bx1 else -9, name)
        else:
            c.drawCentredString(0, -9 if y0 + y1 < by0 + by1 else 4, name)
        c.restoreState()


def _hand(hand: Hand) -> str:
    return str(hand)[0].upper() + str(hand)[1:]


def _turns(paper: Paper) -> tuple[Paper, ...]:
    """Return the sheet lying and standing; a roll, or a sheet too narrow for the bar, only as it is."""
    if paper.roll or paper.height < LEAST_LONG:
        return (paper,)
    return paper, Paper(paper.name, paper.height, paper.width)


def _cut_off(paper: Paper, wide: float) -> Paper:
    """Return a roll as long as is needed for something; a sheet as it is."""
    return Paper(paper.name, max(wide, LEAST_ROLL), paper.height, roll=True) if paper.roll else paper


def _fits(template: Template, wide: float, high: float, count: int, *, stacked: bool) -> bool:
    x0, y0, x1, y1 = template.box
    w, h = x1 - x0 + 10.0, y1 - y0 + CAPTION + 6.0
    return (
        (w <= wide and count * h + (count - 1) * 4.0 <= high)
        if stacked
        else (count * w + (count - 1) * (GAP - 10.0) <= wide and h <= high)
    )


@dataclass(frozen=True, slots=True)
class _Tile:
    """One sheet of many: what of the template it holds, mm, and the names of its neighbours, "" where there is none."""

    name: str
    x0: float
    y0: float
    x1: float
    y1: float
    left: str
    right: str
    under: str
    over: str


def _grid(template: Template, page: Paper) -> list[_Tile]:
    """Return the sheets that have something on them, row by row from the foot. Raises PaperError."""
    bx0, by0, bx1, by1 = template.box
    columns = pieces(bx1 - bx0 + 2.0, page.across)
    rows = pieces(by1 - by0 + 2.0, page.up)

    boxes = {
        (c, r): (left + bx0 - 1, low + by0 - 1, right + bx0 - 1, high + by0 - 1)
        for r, (low, high) in enumerate(rows)
        for c, (left, right) in enumerate(columns)
    }
    drawn = {at: box for at, box in boxes.items() if has_edge_in(template, box)}

    def name(column: int, row: int) -> str:
        return f"{letter(column)}{row + 1}" if (column, row) in drawn else ""

    return [
        _Tile(name(c, r), *box, name(c - 1, r), name(c + 1, r), name(c, r - 1), name(c, r + 1))
        for (c, r), box in drawn.items()
    ]
