"""The rack as one CSV table: boards, sections, sheets, each with its figures.

Defects and readings in lines of their own that name their board. What is written reads back the same; what is wrong
is refused with its line.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.field_path import refusal
from oakmeasure.core.document.job import MOST_BOARDS, MOST_SECTIONS, MOST_SHEETS, Job
from oakmeasure.core.document.rules import FrozenModel
from oakmeasure.core.document.stock import Board, BoardMark, MoistureReading, Section, SheetStock
from oakmeasure.core.edits import stock_edits
from oakmeasure.files.tables.cutting_csv import CsvLine, CuttingFileError, read_lines
from oakmeasure.files.tables.lists import unescaped, written_csv

HEADER = (
    "what",
    "label",
    "wood",
    "length_mm",
    "width_mm",
    "thickness_mm",
    "qty",
    "price",
    "came",
    "sawn",
    "bow_mm",
    "crook_mm",
    "one_face",
    "searched",
    "year",
    "colour",
    "forbidden",
    "grained",
    "trim_mm",
    "flaw",
    "face",
    "x_mm",
    "y_mm",
    "day",
    "percent",
)
KINDS = ("board", "section", "sheet", "defect", "reading")
PLAIN = {
    "length_mm": "length",
    "width_mm": "width",
    "thickness_mm": "thickness",
    "bow_mm": "bow",
    "crook_mm": "crook",
    "x_mm": "x",
    "y_mm": "y",
    "trim_mm": "trim",
    "price": "price",
    "percent": "percent",
}
WHOLE = {"qty": "quantity", "year": "year"}
YES = {"one_face", "searched", "forbidden", "grained"}


def rack_csv(job: Job) -> str:
    """Return all that is on the rack and at the yard as CSV, mm.

    Args:
        job: The job that is read; it is not changed.
    """
    rows: list[list[str]] = []
    for board in job.boards:
        rows.append(_row("board", board, board.label, board.species or ""))
        rows += [_row("defect", mark, board.label, "") for mark in board.marks]
        rows += [_row("reading", each, board.label, "") for each in board.readings]
    rows += [_row("section", each, "", each.species or "") for each in job.sections]
    rows += [_row("sheet", each, each.label, each.material) for each in job.sheets]
    return written_csv(HEADER, rows)


def _row(what: str, item: FrozenModel, label: str, wood: str) -> list[str]:
    cells = dict.fromkeys(HEADER, "") | {"what": what, "label": label, "wood": wood}
    for column in HEADER[3:]:
        name = PLAIN.get(column) or WHOLE.get(column) or column
        value = getattr(item, name, None)
        if value is None or value == "":
            continue
        cells[column] = (
            ("yes" if value else "no")
            if isinstance(value, bool)
            else (f"{value:g}" if isinstance(value, float) else str(value))
        )
    return [cells[each] for each in HEADER]


def read_rack(path: Path, job: Job) -> Job:
    """Return the job with the rack of a file in place of its own.

    Args:
        path: The file.
        job: The job that is read; it is not changed.

    Raises:
        CuttingFileError: File, line and reason.
    """
    boards: list[dict[str, Any]] = []
    sections, sheets = [], []
    by_label: dict[str, dict[str, Any]] = {}
    for line in read_lines(path, ("what", "length_mm", "width_mm")):
        what = line.cells["what"].strip().lower()
        if what not in KINDS:
            raise line.refused(f"what: “{what[:20]}”, needs {', '.join(KINDS)}")
        label = unescaped(line.cells.get("label", "").strip())
        values = _values(line, what)
        if what == "board":
            values["label"] = label
            values["line"] = line
            if label and label in by_label:
                raise line.refused(f"label: {label} is on another board")
            by_label[label] = values
            boards.append(values)
        elif what in ("defect", "reading"):
            if label not in by_label:
                raise line.refused(f"label: no board above is called “{label[:30]}”")
            kind = BoardMark if what == "defect" else MoistureReading
            by_label[label].setdefault("marks" if what == "defect" else "readings", []).append(
                _made(line, kind, values)
            )
        elif what == "section":
            sections.append(_made(line, Section, values))
        else:
            sheets.append(_made(line, SheetStock, values | {"label": label}))
        for name, there, most in (
            ("boards", boards, MOST_BOARDS),
            ("sections", sections, MOST_SECTIONS),
            ("sheets", sheets, MOST_SHEETS),
        ):
            if len(there) > most:
                raise line.refused(f"what: a rack holds {most} {name} at the most")
    made = tuple(_made(each.pop("line"), Board, each) for each in boards)
    try:
        job = stock_edits.with_boards(job, made)
    except InputError as error:
        raise CuttingFileError(f"{path.name}: {error.need}") from None
    return job.model_copy(update={"sections": tuple(sections), "sheets": tuple(sheets)})


def _values(line: CsvLine, what: str) -> dict[str, Any]:
    """Return the cells of a line that its kind has, as their kind of value."""
    kind: type[FrozenModel] = {
        "board": Board,
        "section": Section,
        "sheet": SheetStock,
        "defect": BoardMark,
        "reading": MoistureReading,
    }[what]  # type: ignore[assignment]
    found: dict[str, Any] = {}
    wood = line.cells.get("wood", "").strip()
    if wood:
        found["material" if what == "sheet" else "species"] = wood
    for column in _there(line):
        name = PLAIN.get(column) or WHOLE.get(column) or column
        if name not in kind.model_fields:
            continue
        text = unescaped(line.cells[column].strip())
        if column in PLAIN:
            found[name] = line.number_of(column, 0.0, high=1e6)
        elif column in WHOLE:
            found[name] = line.count_of(column)
        elif column in YES:
            if text.lower() not in ("yes", "no"):
                raise line.refused(f"{column}: “{text[:20]}”, needs yes or no")
            found[name] = text.lower() == "yes"
        elif column == "day":
            try:
                found[name] = date.fromisoformat(text)
            except ValueError:
                raise line.refused(f"day: “{text[:20]}”, needs a day like 2026-09-21") from None
        else:
            found[name] = text
    return found


def _there(line: CsvLine) -> Iterable[str]:
    return (each for each in HEADER[3:] if line.cells.get(each, "").strip())


def _made(line: CsvLine, kind: Any, values: dict[str, Any]) -> Any:
    try:
        return kind(**values)
    except ValidationError as error:
        reason = refusal(error)
        raise line.refused(f"{reason.field or 'this line'}: {str(reason.value)[:40]}, needs {reason.need}") from None
