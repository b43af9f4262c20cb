"""The plan of a lot: every board with its defects and what is cut from it.

What is left is hatched, what comes back is named.
"""

from __future__ import annotations

from dataclasses import dataclass
from statistics import median

from oakmeasure.core.base.units import IN_MM, Show
from oakmeasure.core.cutting.model import CutKind
from oakmeasure.core.document.species import stuff
from oakmeasure.core.document.stock import Board, Face
from oakmeasure.core.drawings.drawing import Anchor, Drawing, Grain, Layer, Lettering, Room, Sketch
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.drawings.timber.board_marks import draw_mark
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.planning.plan_model import CutStock, LotPlan, PlacedPiece

BAR_SHARE = 45  # a bar is drawn no lower than this part of its length
GAP = 1.6  # steps between two boards
# Of the drawing, about
WIDE_PX = 620.0
TALL_PX = 430.0
# That a word and a number need
WORD_PX = 12.0
MARK_PX = 7.5


def empty_view(words: str) -> Drawing:
    """Return a drawing that says why there is none.

    Args:
        words: The words.
    """
    sketch = Sketch(IN_MM)
    sketch.label((500.0, 300.0), words, Lettering(Layer.PENCIL, 1.2))
    sketch.box(Rect(0, 0, 1000.0, 600.0), Layer.FAINT)
    return sketch.drawing()


def stock_ref(stock: CutStock) -> str:
    """Return what a board of a plan is called on the drawing.

    Args:
        stock: The piece of stock with what is cut from it.
    """
    return f"stock:{stock.source.name}#{stock.number}"


def _grid(lot: LotPlan) -> tuple[int, int]:
    """Return in how many columns and rows the boards of a lot stand so that a word fits into most of their pieces."""
    tall = sum(_height(lot, each) for each in lot.stock) / len(lot.stock)
    longest = max(each.source.item.length for each in lot.stock)
    step = longest / 95
    wide, high = longest + 20 * step, tall + GAP * step
    typical = median(each.width for stock in lot.stock for each in stock.pieces)
    wanted = WORD_PX / max(min(typical, tall), 60.0)
    fits = []
    for columns in range(1, 5):
        if WIDE_PX / (columns * wide) >= wanted or columns == 1:
            fits.append((columns, max(1, int(TALL_PX / (high * min(wanted, WIDE_PX / (columns * wide)))))))
    return max(fits, key=lambda each: min(each[0] * each[1], len(lot.stock)))


def pages_of(lot: LotPlan) -> list[tuple[CutStock, ...]]:
    """Return the boards of a lot in pages: as many on one as can still be read.

    Args:
        lot: The boards of one lot, with their cuts.
    """
    if not lot.stock:
        return [()]
    columns, rows = _grid(lot)
    pages = -(-len(lot.stock) // (columns * rows))
    per = -(-len(lot.stock) // pages)
    return [lot.stock[at : at + per] for at in range(0, len(lot.stock), per)]


@dataclass(frozen=True, slots=True)
class _PlanSheet:
    """A plan as it is drawn: about `px` a mm, named for the leaf in hand, with what is pointed at."""

    lot: LotPlan
    px: float
    leaf_id: str
    chosen: str


def plan_view(lot: LotPlan, show: Show, *, page: int = 0, leaf_id: str = "", chosen: str = "") -> Drawing:
    """Return the boards of a page of a lot one under the other, to one scale.

    Args:
        lot: The boards of one lot, with their cuts.
        show: How lengths and other quantities are written.
        page: Which page of them, from 0.
        leaf_id: The leaf in hand; what is of other leaves is named after them.
        chosen: The board or piece that is pointed at; "" for none.
    """
    pages = pages_of(lot)
    shown = pages[min(page, len(pages) - 1)]
    if not shown:
        return empty_view("nothing to cut of this wood")
    sketch = Sketch(show)
    longest = max(each.source.item.length for each in shown)
    heights = [_height(lot, each) for each in shown]
    step = sketch.step = longest / 95
    gap = GAP * step
    columns = min(_grid(lot)[0], len(shown))
    per = -(-len(shown) // columns)
    # About how many px a mm will be: what is too low for a word has only its number, or nothing.
    px = min(WIDE_PX / (columns * (longest + 20 * step)), TALL_PX / (sum(heights) / columns + gap * per))
    sheet = _PlanSheet(lot, px, leaf_id, chosen)
    for column in range(columns):
        y, x = 0.0, column * (longest + 20 * step)
        for each, height in list(zip(shown, heights, strict=True))[column * per : (column + 1) * per]:
            y -= height
            _stock(sketch, sheet, each, (x, y, height))
            y -= gap
    return sketch.drawing(margin=1.2 * step)


def _height(lot: LotPlan, stock: CutStock) -> float:
    width = stock.source.item.width
    return max(width, stock.source.item.length / BAR_SHARE) if lot.lot.kind is CutKind.BARS else width


def _stock(sketch: Sketch, sheet: _PlanSheet, stock: CutStock, at: tuple[float, float, float]) -> None:
    show, step, lot = sketch.show, sketch.step, sheet.lot
    x, y, height = at
    item, ref = stock.source.item, stock_ref(stock)
    whole = Rect(x, y, x + item.length, y + height)
    sketch.rect(whole, Layer.WASTE, ref=ref)
    for line in hatching(whole, 2.2 * step):
        sketch.line(line, Layer.FAINT, ref=ref)
    tint = stuff(lot.lot.made_of).tint
    for each in stock.offcuts:
        rest = Rect(x + each.x, y + each.y, x + each.x + each.length, y + each.y + (each.width or height))
        sketch.rect(rest, Layer.WOOD, ref=ref, tint=tint)
        sketch.box(rest, Layer.FAINT)
        words = f"keep {show.size(each.length, each.width)}"
        if rest.height * sheet.px >= WORD_PX:
            sketch.label(
                ((rest.x0 + rest.x1) / 2, (rest.y0 + rest.y1) / 2),
                words,
                Lettering(Layer.PENCIL, 0.85),
                ref=ref,
                room=Room(rest.width - step, shorter=(show.length(each.length), "")),
            )
    for laid in stock.pieces:
        _piece(sketch, sheet, laid, (x, y, height))
    if isinstance(item, Board):
        for mark in item.marks:
            draw_mark(sketch, item, mark, whole, Face.BEST, ref=ref)
    sketch.box(whole, Layer.LEAF if sheet.chosen == ref else Layer.OUTLINE, ref=ref)
    name = stock.source.name if stock.source.is_owned else "buy"
    sketch.label((x - step, y + height / 2), name, Lettering(size=0.95, bold=True), anchor=Anchor.RIGHT, ref=ref)
    sketch.write(
        (x + item.length + step, y + height / 2),
        show.size(item.length, item.width),
        Lettering(Layer.PENCIL, 0.85),
        ref=ref,
    )


def piece_ref(laid: PlacedPiece) -> str:
    """Return what a piece of a plan is called on the drawing.

    Args:
        laid: The piece where it lies.
    """
    return f"piece:{laid.wanted.leaf}/{laid.wanted.name}"


def _piece(sketch: Sketch, sheet: _PlanSheet, laid: PlacedPiece, at: tuple[float, float, float]) -> None:
    lot, px = sheet.lot, sheet.px
    x, y, height = at
    tall = height if lot.lot.kind is CutKind.BARS else laid.width
    rect = Rect(x + laid.x, y + laid.y, x + laid.x + laid.length, y + laid.y + tall)
    wanted, ref = laid.wanted, piece_ref(laid)
    mine = wanted.leaf == sheet.leaf_id
    level = Grain.LEVEL if laid.length >= laid.width or lot.lot.kind is not CutKind.SHEETS else Grain.UPRIGHT
    sketch.rect(rect, Layer.WOOD, ref=ref, grain=level, tint=stuff(wanted.part.species).tint)
    sketch.box(rect, Layer.LEAF if mine else Layer.OUTLINE, ref=ref)
    name = wanted.name.replace(", strip ", " ").replace(" of ", "/")
    size = sketch.show.size(laid.length, laid.width)
    texts: tuple[str, ...] = (
        f"{wanted.mark}  {name}   {size}",
        f"{wanted.mark}  {name}",
        f"{wanted.mark} {size}",
        wanted.mark,
        "",
    )
    if not mine:
        texts = (f"{wanted.leaf_name}: {texts[0]}", f"{wanted.leaf_name}: {texts[1]}", *texts[1:])
    if tall * px < MARK_PX:
        return
    small = tall * px < WORD_PX
    texts = (wanted.mark,) if small else texts
    sketch.label(
        ((rect.x0 + rect.x1) / 2, (rect.y0 + rect.y1) / 2),
        texts[0],
        Lettering(size=0.7 if small else 0.85, bold=mine),
        ref=ref,
        room=Room(rect.width - sketch.step / 2, shorter=texts[1:]),
    )
