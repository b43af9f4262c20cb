"""The record of a leaf that hangs, and the leaves of the job book."""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import OAK, PENCIL, Anchor, Drawing, Grain, Layer, Lettering, Room, Sketch
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.drawings.words import broken, cut_off
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.reports.hanging_record import BookEntry, Record


def cut(words: str, show: Show) -> tuple[str, ...]:
    """Return words cut shorter and shorter, for a label with little room.

    Args:
        words: The words.
        show: How lengths and other quantities are written.
    """
    return cut_off(show, words, 80, 60, 40, 26, 16)


# Where columns begin
WIDE = 1100.0
BUILT = 245.0
HUNG = 450.0
REST = 600.0
ROW = 44.0  # from line to line, where there is room for all


def record_view(record: Record | None, show: Show) -> Drawing:
    """Return the record as it goes on paper, in short.

    Args:
        record: The record of the finished leaf; None before there is one.
        show: How lengths and other quantities are written.
    """
    if record is None:
        return empty_view("no leaf yet: nothing to record")
    sketch = Sketch(show)
    sketch.rect(Rect(-20, -20, WIDE + 20, 660), Layer.SPACE)
    sketch.box(Rect(-20, -20, WIDE + 20, 660), Layer.PENCIL)
    sketch.write(
        (0, 626), record.title, Lettering(size=1.5, bold=True), room=Room(700, shorter=cut(record.title, show))
    )
    signed = f"hung {record.on.day} {record.on:%B %Y}, {record.by}" if record.on is not None else "not signed off yet"
    sketch.label(
        (WIDE, 626), signed, Lettering(Layer.LEAF if record.on else Layer.DOUBT, bold=True), anchor=Anchor.RIGHT
    )
    place = record.place
    sketch.write((0, 594), place, PENCIL, room=Room(WIDE, shorter=cut(place, show)))
    y = 552.0
    for name, px in (("", 0.0), ("as built", BUILT), ("as hung", HUNG)):
        sketch.write((px, y), name, PENCIL)
    row = min(ROW, (y + 10) / max(len(record.lines), 1))
    for line in record.lines:
        y -= row
        sketch.write((0, y), line.what, Lettering(Layer.PENCIL, 0.95))
        sketch.write(
            (BUILT, y),
            line.built,
            Lettering(size=0.95),
            room=Room(195 if line.hung else 340, shorter=cut(line.built, show)),
        )
        sketch.write((HUNG, y), line.hung, Lettering(size=0.95, bold=True))
    _right(sketch, record)
    return sketch.drawing(margin=10)


def _right(sketch: Sketch, record: Record) -> None:
    y, x = 552.0, REST
    blocks = [
        ("gaps", [f"{name}  {gap}" for name, gap in record.gaps]),
        ("answered for", [f"{title}: {reason}" for title, reason in record.answered]),
        ("learnt", list(record.lessons)),
        ("notes", [n for n in record.notes if not any(lesson in n for lesson in record.lessons)]),
    ]
    for head, rows in blocks:
        if not rows or y < 40:
            continue
        sketch.write((x, y), head, PENCIL)
        if head == "gaps":
            for n, row in enumerate(rows[:12]):
                sketch.write((x + (n % 2) * 262, y - ROW * (n // 2 + 1)), row, Lettering(size=0.85))
            y -= ROW * (-(-min(len(rows), 12) // 2) + 1.5)
            continue
        for row in rows[:4]:
            for line in broken(sketch.show, row, 35)[:4]:
                if y < 20:
                    return
                y -= 38
                sketch.write((x, y), line, Lettering(size=0.9))
        y -= 40


def book_view(entries: Sequence[BookEntry], chosen: int, show: Show) -> Drawing:
    """Return the leaves of the book to one scale, the chosen one with what was learnt of it.

    Args:
        entries: Leaves of the job book.
        chosen: Place of the chosen leaf in the book.
        show: How lengths and other quantities are written.
    """
    if not entries:
        return empty_view("nothing in the book answers to that")
    sketch = Sketch(show)
    shown = entries[:10]
    k = min(300.0 / max(each.height for each in shown), 560.0 / sum(each.width + 120 for each in shown))
    x = 0.0
    for n, each in enumerate(shown):
        rect = Rect(x, 0.0, x + each.width * k, each.height * k)
        sketch.rect(rect, Layer.WOOD, tint=OAK, grain=Grain.UPRIGHT, ref=f"book:{n}")
        sketch.box(rect, Layer.LEAF if n == chosen else Layer.OUTLINE, ref=f"book:{n}")
        sketch.label(
            ((rect.x0 + rect.x1) / 2, -14),
            str(n + 1),
            Lettering(bold=n == chosen),
            anchor=Anchor.BELOW,
            ref=f"book:{n}",
        )
        x += (each.width + 120) * k
    entry = entries[min(chosen, len(entries) - 1)]
    y, x = 300.0, 600.0
    sketch.write((x, y), entry.name, Lettering(size=1.3, bold=True))
    lines = [
        entry.job + (f", {entry.place}" if entry.place else ""),
        f"{entry.construction}, {entry.timber}",
        entry.hanging,
        f"hung {entry.on.day} {entry.on:%B %Y}, {entry.by}",
        *(f"Learnt: {each.text}" for each in entry.lessons),
    ]
    for words in lines:
        for line in broken(show, words, 44):
            y -= 27
            sketch.write((x, y), line, Lettering(Layer.DOUBT if words.startswith("Learnt") else Layer.OUTLINE))
    return sketch.drawing(margin=24)
