"""The cutting plan: every board with its strips and pieces, what is left hatched."""

from __future__ import annotations

from oakmeasure.core.base.units import Show, counted
from oakmeasure.core.cutting.board_plan import BoardPiece, CutBoard
from oakmeasure.core.cutting.leaf_plan import ThicknessGroup
from oakmeasure.core.document.species import SheetMaterial, stuff
from oakmeasure.core.drawings.drawing import BOLD, Anchor, Drawing, Grain, Layer, Lettering, Room, Sketch
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.drawings.leaf.leaf_view import no_leaf
from oakmeasure.core.drawings.refs import part_ref
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution


def cutting_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the boards one under the other, to one scale, longest use first.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    if leaf.plan is None:
        return no_leaf(leaf, show)
    sketch = Sketch(show)
    longest = max((cut.stock.length for group in leaf.plan.groups for cut in group.plan.boards), default=1000.0)
    tall = sum(cut.stock.width for group in leaf.plan.groups for cut in group.plan.boards)
    step = sketch.step = max(longest / 110, tall / 45)  # sheets are tall: their headings need room too
    marks = {part.name: part.mark for part in leaf.cut_parts} if leaf.build else {}
    y, number = 0.0, 0
    if not any(group.plan.boards for group in leaf.plan.groups):
        sketch.label((500.0, 300.0), "no new timber", Lettering(Layer.PENCIL, 1.2))
        sketch.box(Rect(0, 0, 1000.0, 600.0), Layer.FAINT)
    for group in leaf.plan.groups:
        if not group.plan.boards:
            continue
        y -= 3.4 * step
        sketch.write((0, y), _heading(group, show), BOLD)
        y -= 2.7 * step
        for cut in group.plan.boards:
            number += 1
            y -= cut.stock.width
            _board(sketch, cut, group, number, y, marks)
            y -= 2.6 * step
    return sketch.drawing(margin=1.5 * step)


def _heading(group: ThicknessGroup, show: Show) -> str:
    plan = group.plan
    made_of = stuff(group.species)
    word = "sheet" if isinstance(made_of, SheetMaterial) else "board"
    return (
        f"{made_of.name}, {show.length(group.thickness)} thick: {counted(len(plan.boards), word)}, "
        f"at least {plan.least_boards}"
    )


def _board(sketch: Sketch, cut: CutBoard, group: ThicknessGroup, number: int, y: float, marks: dict[str, str]) -> None:
    show, step = sketch.show, sketch.step
    whole = Rect(0, y, cut.stock.length, y + cut.stock.width)
    sketch.rect(whole, Layer.WASTE)
    for line in hatching(whole, 1.8 * step):
        sketch.line(line, Layer.FAINT)
    tint = stuff(group.species).tint
    for placed in cut.pieces:
        rect = Rect(placed.x, y + placed.y, placed.x + placed.piece.length, y + placed.y + placed.piece.width)
        texts = _names(placed.piece, marks[placed.piece.part])
        sketch.rect(rect, Layer.WOOD, ref=part_ref(placed.piece.part), grain=Grain.LEVEL, tint=tint)
        sketch.label(
            ((rect.x0 + rect.x1) / 2, (rect.y0 + rect.y1) / 2),
            f"{texts[0]}   {show.size(rect.width, rect.height)}",
            Lettering(size=0.9),
            ref=part_ref(placed.piece.part),
            room=Room(rect.width - 2 * step / 3, shorter=texts, high=rect.height),
        )
    sketch.box(whole, Layer.OUTLINE)
    for at, width in cut.strips[:-1]:
        sketch.line([(0, y + at + width), (cut.stock.length, y + at + width)], Layer.HIDDEN)
    sketch.label((-1.5 * step, y + cut.stock.width / 2), str(number), BOLD, anchor=Anchor.RIGHT)
    sketch.write(
        (cut.stock.length + 1.2 * step, y + cut.stock.width / 2),
        show.size(cut.stock.length, cut.stock.width),
        Lettering(Layer.PENCIL, 0.9),
    )


def _names(piece: BoardPiece, mark: str) -> tuple[str, ...]:
    """Return the names of a piece, longest first: in words, with its strip, by its number alone."""
    part, _, strip = piece.name.partition(", strip ")
    strip = " " + strip.replace(" of ", "/") if strip else ""
    return (f"{mark}  {part}{strip}", f"{mark}{strip and ' ·'}{strip}", mark)
