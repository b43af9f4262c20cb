"""The operations over the days, and the finish as a calendar.

Work is in full bars, waiting hatched, the due day a line.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import datetime, timedelta

from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import BOLD, OAK, PENCIL, Anchor, Drawing, Layer, Lettering, Room, Sketch
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.drawings.words import cut_off
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.making.finish import Day, Schedule
from oakmeasure.core.making.working_plan import TimeSlot, Timetable, day_words

WIDE = 700.0
NAMES = 330.0
ROW = 27.0
MOST_ROWS = 16
TALL_ROW = 92.0
NAME_CHARACTERS = 42
MOST_DAYS = 60
IN_TIME = "#C9A36A"
LATE = "#B5533C"


def time_view(table: Timetable | None, show: Show, *, chosen: str = "") -> Drawing:
    """Return the timetable of a leaf, one row for each operation that is left.

    Args:
        table: The days; None before there are operations.
        show: How lengths and other quantities are written.
        chosen: Id of the operation in hand; "" for none.
    """
    if table is None or not table.slots:
        return empty_view("everything is done" if table is not None else "no leaf yet: nothing to make")
    sketch = Sketch(show)
    first = table.begin.replace(hour=0, minute=0, second=0)
    last = max([table.end, *([table.due] if table.due else [])])
    days = min(max((last - first).days + 1, 3), MOST_DAYS)
    rows = _rows(table, chosen)
    row_high = max(ROW, min(56.0, 330.0 / len(rows)))
    high = row_high * len(rows)

    def x(at: datetime) -> float:
        return NAMES + WIDE * min(max((at - first) / timedelta(days=days), 0.0), 1.0)

    _days(sketch, first, days, high, x)
    for n, row in enumerate(rows):
        first_op, last_op = row[0], row[-1]
        y = high - (n + 0.5) * row_high
        more = f"  + {len(row) - 1}" if len(row) > 1 else ""
        name = first_op.op.name
        if more or len(show.speech.tr(name)) >= NAME_CHARACTERS:
            name = show.speech.mark_final(
                (cut_off(show, name, NAME_CHARACTERS - 2 - len(more)) or (show.speech.tr(name),))[0] + more
            )
        mine = any(slot.op.id == chosen for slot in row)
        late = any(slot.is_late for slot in row)
        sketch.label(
            (NAMES - 8, y),
            name,
            Lettering(Layer.DOUBT if table.first_late in row else Layer.OUTLINE, 0.86, bold=mine),
            anchor=Anchor.RIGHT,
            ref=f"op:{first_op.op.id}",
        )
        rect = Rect(x(first_op.start), y - 8, max(x(last_op.end), x(first_op.start) + 5), y + 8)
        ready = max(slot.ready for slot in row)
        if ready > last_op.end:
            wait = Rect(rect.x1, y - 5, max(x(ready), rect.x1 + 2), y + 5)
            for line in hatching(wait, 6.0):
                sketch.line(line, Layer.FAINT)
            sketch.box(wait, Layer.FAINT)
        sketch.rect(rect, Layer.WOOD, ref=f"op:{first_op.op.id}", tint=LATE if late else IN_TIME)
        if rect.width > 12:
            sketch.box(rect, Layer.OUTLINE, ref=f"op:{first_op.op.id}")
    if table.due is not None:
        sketch.line([(x(table.due), -8), (x(table.due), high + 6)], Layer.DOUBT)
        sketch.label(
            (x(table.due), -12),
            f"due {day_words(table.due.date())}",
            Lettering(Layer.DOUBT, bold=True),
            anchor=Anchor.BELOW,
        )
    sketch.line([(x(table.end), -8), (x(table.end), high + 6)], Layer.LEAF)
    sketch.label(
        (x(table.end), high + 30),
        f"hung {day_words(table.end.date())}",
        Lettering(Layer.LEAF, bold=True),
        anchor=Anchor.ABOVE,
    )
    return sketch.drawing(margin=26)


def _rows(table: Timetable, chosen: str) -> list[list[TimeSlot]]:
    """Return the slots in rows: those of one day that follow one another without a wait stand in one."""
    rows: list[list[TimeSlot]] = []
    for slot in table.slots:
        last = rows[-1][-1] if rows else None
        parted = (
            last is None
            or last.start.date() != slot.start.date()
            or last.op.wait_hours >= 2
            or slot is table.first_late
        )
        if parted or slot.op.id == chosen or (last is not None and last.op.id == chosen):
            rows.append([slot])
        else:
            rows[-1].append(slot)
    while len(rows) > MOST_ROWS:  # the two shortest neighbours stand together
        at = min(range(len(rows) - 1), key=lambda n: len(rows[n]) + len(rows[n + 1]))
        rows[at : at + 2] = [rows[at] + rows[at + 1]]
    return rows


def _days(sketch: Sketch, first: datetime, days: int, high: float, x: Callable[[datetime], float]) -> None:
    every = next(each for each in (1, 2, 5, 7, 14) if days / each <= 7.5 or each == 14)
    for n in range(days + 1):
        day = first + timedelta(days=n)
        if day.weekday() >= 5 and n < days:
            sketch.rect(Rect(x(day), 0, x(day + timedelta(days=1)), high), Layer.BAND)
        sketch.line([(x(day), 0), (x(day), high)], Layer.FAINT)
        if n % every == 0 and n < days:
            room = x(first + timedelta(days=n + every)) - x(day) - 8
            shorter = (sketch.show.speech.mark_final(f"{day.day} {day:%b}"), str(day.day))
            sketch.write(
                (x(day) + 2, high + 12),
                day_words(day.date()),
                Lettering(Layer.PENCIL, 0.8),
                room=Room(room, shorter=shorter),
            )


def finish_view(schedule: Schedule, days: Sequence[Day], show: Show) -> Drawing:
    """Return the coats as a calendar: one row each, work, then drying, then the day on which it may be hung.

    Args:
        schedule: The coats of the finish.
        days: Coats with the days on which they are put on.
        show: How lengths and other quantities are written.
    """
    sketch = Sketch(show)
    first = days[0].start.replace(hour=0, minute=0, second=0)
    shown = [each for each in days if each.words != "hard"]
    hung = next(each for each in days if each.words == "may be hung")
    span = max((hung.end - first).days + 2, 4)
    rows = [each for each in shown if each.is_work]
    high = TALL_ROW * len(rows)

    def x(at: datetime) -> float:
        return 210.0 + (WIDE + 60) * ((at - first) / timedelta(days=span))

    _days(sketch, first, span, high, x)
    for n, work in enumerate(rows):
        y = high - (n + 0.5) * TALL_ROW
        sketch.label((202, y + 9), work.words.partition(",")[0].capitalize(), BOLD, anchor=Anchor.RIGHT)
        if work.words == "may be hung":
            sketch.line([(x(work.start), 0), (x(work.start), high)], Layer.LEAF)
            sketch.label(
                (x(work.start), -6),
                f"may be hung {day_words(work.start.date())}",
                Lettering(Layer.LEAF, 1.15, bold=True),
                anchor=Anchor.BELOW,
            )
            continue
        coat = schedule.coats[n]
        sketch.label((202, y - 13), f"{coat.grams:.0f} g", Lettering(Layer.PENCIL, 0.9), anchor=Anchor.RIGHT)
        dry = next(each for each in days if not each.is_work and each.start == work.end)
        rect = Rect(x(work.start), y - 13, max(x(work.end), x(work.start) + 6), y + 13)
        wait = Rect(rect.x1, y - 8, x(dry.end), y + 8)
        for line in hatching(wait, 9.0):
            sketch.line(line, Layer.FAINT)
        sketch.box(wait, Layer.FAINT)
        sketch.rect(rect, Layer.WOOD, tint=OAK)
        sketch.box(rect, Layer.OUTLINE)
        sketch.write((rect.x0, y - 27), f"{work.start:%a %H:%M}", Lettering(Layer.PENCIL, 0.85))
        sketch.write(
            (max(wait.x1 + 8, rect.x1 + 40), y), f"dries {coat.wait_hours:.0f} h", Lettering(Layer.PENCIL, 0.85)
        )
    area = f"faces {schedule.faces:.2f}, edges {schedule.edges:.2f}, ends {schedule.ends:.2f} m², the ends twice"
    area = f"{area}: {schedule.grams:.0f} g in all"
    sketch.write((0, -78), f"{schedule.finish.capitalize()}: {area}")
    sketch.write(
        (0, -112),
        f"Turned over after {schedule.handle_hours:.0f} h; hard after {schedule.cure_days:.0f} days. Both faces alike, "
        "or it bows.",
        PENCIL,
    )
    if schedule.rags:
        sketch.write(
            (0, -146),
            "Oily rags burn by themselves: dry them flat outdoors, one deep.",
            Lettering(Layer.DOUBT, bold=True),
        )
    return sketch.drawing(margin=18)
