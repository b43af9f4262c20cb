"""Lists of the Make pages: steps, a batch, glue stages, coats, days, repairs, the log, the printer's tape."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from oakmeasure.app.shell.part_lists import Listed, ListRow
from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.production import LogEntry, LogKind, unit_of
from oakmeasure.core.drawings.words import cut_off
from oakmeasure.core.making.as_made import Change
from oakmeasure.core.making.finish import Day, Schedule
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.labels import PieceLabel
from oakmeasure.core.making.lessons import Lesson
from oakmeasure.core.making.log import Pace, Progress, all_spent, progress
from oakmeasure.core.making.operation import Trade, time_words
from oakmeasure.core.making.repair_case import Judgement
from oakmeasure.core.making.working_plan import Timetable, day_words
from oakmeasure.core.reports.batch import Batch
from oakmeasure.core.solution import LeafSolution

MARKS = {
    Progress.DONE: "done",
    Progress.RUNNING: "running",
    Progress.STOPPED: "stopped",
    Progress.READY: "next",
    Progress.OPEN: "",
}
WORDS = 38  # characters of settings in a list


def change_words(change: Change, show: Show) -> str:
    """Return "cup depth 13 → 12.5"."""
    before = show.value(change.before, change.unit, with_unit=False)
    after = show.value(change.after, change.unit, with_unit=change.unit is not Unit.MM)
    return f"{change.label} {before} → {after}"


def step_list(leaf: LeafSolution, show: Show, lessons: Mapping[str, Sequence[Lesson]]) -> Listed:
    """Return header and rows of the operations in working order."""
    header = ("no.", "operation", "state", "hours", "waits", "set to")
    if leaf.making is None:
        return header, []
    states = progress(leaf.making.operations, leaf.leaf.making.log)
    times = all_spent(leaf.making.operations, leaf.leaf.making.log)
    rows = []
    for n, op in enumerate(leaf.making.operations, start=1):
        took = times[op.id].hours if op.id in times else 0.0
        hours = f"{took:.1f} of {op.hours:.1f}" if took else f"{op.hours:.1f}"
        words = ", ".join(each.in_words(show) for each in op.settings)
        words = (cut_off(show, words, WORDS - 2) or (words,))[0]
        lesson = "lesson" if op.id in lessons and states[op.id] is not Progress.DONE else ""
        state = MARKS[states[op.id]] or lesson
        rows.append(
            ListRow(
                (str(n), op.name, state, hours, time_words(op.wait_hours) if op.wait_hours else "", words),
                f"op:{op.id}",
            )
        )
    return header, rows


def batch_list(batches: Sequence[Batch], chosen: str) -> Listed:
    """Return header and rows of every operation of the job: how many leaves have it, how many set-ups it takes."""
    header = ("operation over all leaves", "leaves", "done", "set-ups", "hours left")
    rows = [
        ListRow(
            (
                each.name,
                str(len(each.leaves)),
                str(each.done) if each.done else "",
                str(len(each.alike())),
                f"{each.hours:.1f}" if each.hours else "",
            ),
            f"op:{each.op_id}",
        )
        for each in batches
    ]
    return header, rows


def glue_list(plan: GluePlan | None, show: Show) -> Listed:
    """Return header and rows of the stages over all glue-ups."""
    header = ("stage", "closes", "minutes", "of", "places", "hours in clamps")
    if plan is None:
        return header, []
    rows, number = [], 0
    for task in plan.tasks:
        if not task.stages:
            rows.append(ListRow((task.task.name, task.trouble, "–", f"{plan.glue.open_minutes:.1f}", "", ""), ""))
        for stage in task.stages:
            words = "; ".join(each.words for each in stage.closings)
            words = (cut_off(show, words, 56) or (words,))[0]
            number += 1
            rows.append(
                ListRow(
                    (
                        f"{task.task.name} {stage.number}",
                        words,
                        f"{stage.minutes:.1f}",
                        f"{plan.glue.open_minutes:.1f}",
                        str(stage.clamps),
                        f"{plan.glue.clamp_hours:.1f}",
                    ),
                    f"stage:{number}",
                )
            )
    return header, rows


def finish_list(schedule: Schedule | None, days: Sequence[Day]) -> Listed:
    """Return header and rows of the coats with their amounts and days."""
    header = ("coat", "begins", "done", "grams", "dries", "before the next")
    if schedule is None:
        return header, []
    work = [each for each in days if each.is_work]
    rows = [
        ListRow(
            (
                f"{coat.number} of {len(schedule.coats)}",
                f"{day.start:%a %d %b, %H:%M}",
                f"{day.end:%H:%M}",
                f"{coat.grams:.0f}",
                f"{coat.wait_hours:.0f} h",
                coat.how,
            ),
            "",
        )
        for coat, day in zip(schedule.coats, work, strict=False)
    ]
    hung = work[-1]
    rows.append(
        ListRow(
            (
                "may be hung",
                f"{hung.start:%a %d %b, %H:%M}",
                "",
                f"{schedule.grams:.0f}",
                "",
                f"hard after {schedule.cure_days:.0f} days",
            ),
            "",
        )
    )
    return header, rows


def time_list(table: Timetable | None, pace: Mapping[Trade, Pace]) -> Listed:
    """Return header and rows of what is left, with its latest start, and of one's own pace."""
    header = ("operation", "hours", "begins", "latest", "")
    if table is None:
        return header, []
    rows = []
    for slot in table.slots:
        latest = f"{day_words(slot.latest.date())}, {slot.latest:%H:%M}" if slot.latest else ""
        late = "makes it late" if slot is table.first_late else "late" if slot.is_late else ""
        rows.append(
            ListRow(
                (
                    slot.op.name,
                    f"{slot.hours:.1f}",
                    f"{day_words(slot.start.date())}, {slot.start:%H:%M}",
                    latest,
                    late,
                ),
                f"op:{slot.op.id}",
            )
        )
    for trade, own in pace.items():
        rows.append(
            ListRow(
                (
                    f"your own pace, {trade}",
                    f"× {own.factor:.2f}",
                    f"{own.spent:.1f} h",
                    f"est. {own.estimated:.1f} h",
                    f"{own.count} timed",
                ),
                "",
            )
        )
    return header, rows


def repair_list(judged: Judgement | None, show: Show) -> Listed:
    """Return header and rows of the repairs, those that fit first."""
    header = ("repair", "fits", "sizes", "work", "then waits", "what else moves")
    if judged is None:
        return header, []
    rows = []
    for each in judged.repairs:
        fits = "yes" if each.fits else f"no: {each.why}"
        sizes = ", ".join(f"{label} {show.length(value)}" for label, value in each.sizes) if each.fits else ""
        rows.append(
            ListRow(
                (
                    each.name,
                    fits,
                    sizes,
                    f"{each.hours:.1f} h",
                    time_words(each.wait_hours) if each.wait_hours else "",
                    "; ".join(each.moves),
                ),
                f"repair:{each.key}",
            )
        )
    return header, rows


def log_list(leaf: LeafSolution, show: Show, changed: Mapping[int, Sequence[Change]]) -> Listed:
    """Return header and rows of the log, the newest first; beside a reading what it has changed."""
    header = ("when", "what", "part", "in words", "at")
    names = {op.id: op.name for op in leaf.making.operations} if leaf.making is not None else {}
    rows = []
    for at, entry in reversed(list(enumerate(leaf.leaf.making.log))):
        rows.append(
            ListRow(
                (
                    f"{entry.at:%a %d %b, %H:%M}",
                    _what(entry, show),
                    entry.part,
                    _words(entry, show, changed.get(at, ())),
                    names.get(entry.op, entry.op),
                ),
                f"log:{at}",
            )
        )
    return header, rows


def _what(entry: LogEntry, show: Show) -> str:
    if entry.kind is LogKind.READING and entry.value is not None and entry.reading is not None:
        return f"{entry.reading} {show.value(entry.value, unit_of(entry.reading))}"
    if entry.kind in (LogKind.MISHAP, LogKind.MENDED):
        by = f" by {show.length(entry.value)}" if entry.value and entry.kind is LogKind.MISHAP else ""
        return f"{'mended' if entry.kind is LogKind.MENDED else 'mishap'}: {entry.mishap}{by}"
    return "lesson" if entry.about is not None else str(entry.kind)


def _words(entry: LogEntry, show: Show, changed: Sequence[Change]) -> str:
    found = [
        entry.text,
        f"photo {entry.photo}" if entry.photo else "",
        *(change_words(each, show) for each in changed[:4]),
    ]
    return "; ".join(each for each in found if each)


def tape_list(labels: Sequence[PieceLabel], tape: Sequence[Sequence[str]]) -> Listed:
    """Return header and rows of the labels, and which of them have come out of the printer."""
    header = ("label", "leaf", "size", "joints", "hand", "printed")
    printed = [tuple(each) for each in tape]
    rows = []
    for label in labels:
        out = printed.count(label.lines())
        rows.append(
            ListRow(
                (
                    f"{label.number}  {label.name}".strip(),
                    f"{label.leaf}{', ' + label.piece if label.piece else ''}",
                    label.size,
                    label.letters,
                    label.hand,
                    f"× {out}" if out else "",
                ),
                f"part:{label.name}",
            )
        )
    return header, rows
