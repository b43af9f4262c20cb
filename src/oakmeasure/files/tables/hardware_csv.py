"""Tables of hardware as CSV: butts, cup hinges and track sets, by the sheets of whoever makes them.

The columns tell which of the three a file holds. Everything that is read is in the state *from a table*: it is measured
before anything is cut by it. Lengths in mm; several in one cell stand with blanks between them.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from enum import StrEnum
from pathlib import Path
from typing import Any

from pydantic import BaseModel, ValidationError

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document import field_path
from oakmeasure.core.document.cup_hinges import CupHinge, cup_from_table, cup_keys
from oakmeasure.core.document.hanging import Hanging, TrackSet, track_sets
from oakmeasure.core.document.hinges import Butt, butt_from_table
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.readings import Reading
from oakmeasure.core.document.sliding_gear import HangerKind
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.data import table
from oakmeasure.files.tables.cutting_csv import CsvLine, CuttingFileError, read_lines
from oakmeasure.files.tables.lists import unescaped, written_csv

MOST_OWN = 60  # of a kind that a job keeps


class Ware(StrEnum):
    """What a table is of."""

    BUTTS = "butts"
    CUPS = "cups"
    TRACKS = "tracks"


BUTT = ("name", "length_mm", "leaf_mm", "closed_mm", "knuckle_mm", "setback_mm", "rating_kg", "metal_mm")
CUP = (
    "name",
    "reach_mm",
    "cup_depth_mm",
    "cranks_mm",
    "plates_mm",
    "boring_least_mm",
    "boring_most_mm",
    "pattern_apart_mm",
    "pattern_off_mm",
    "opens_deg",
    "stand_off_mm",
    "damped",
    "reveal_mm",
)
TRACK = (
    "name",
    "ways",
    "kind",
    "opening_mm",
    "above_mm",
    "drop_mm",
    "lift_mm",
    "block_mm",
    "stand_off_mm",
    "thickness_least_mm",
    "thickness_most_mm",
    "rating_kg",
    "roller_mm",
    "roller_in_mm",
    "bolt_in_mm",
    "off_mm",
    "hole_first_mm",
    "hole_pitch_mm",
    "hole_down_mm",
    "plate_mm",
    "head_groove_mm",
    "lengths_mm",
    "price",
)
COLUMNS = {Ware.BUTTS: BUTT, Ware.CUPS: CUP, Ware.TRACKS: TRACK}
NEEDED = {
    Ware.BUTTS: BUTT[:-1],
    Ware.CUPS: ("name", "reach_mm", "cup_depth_mm"),
    Ware.TRACKS: (
        "name",
        "ways",
        "above_mm",
        "drop_mm",
        "stand_off_mm",
        "thickness_least_mm",
        "thickness_most_mm",
        "rating_kg",
        "roller_mm",
        "roller_in_mm",
        "lengths_mm",
    ),
}
TELLS = {"knuckle_mm": Ware.BUTTS, "reach_mm": Ware.CUPS, "roller_mm": Ware.TRACKS}  # columns that only one of them has
READINGS = (
    "length",
    "leaf_width",
    "closed_thickness",
    "metal_thickness",
    "pin_projection",
    "pin_inset",
    "rating_kg",
    "reach",
    "cup_depth",
)
# Columns keep their names when a field of the document gets a better one: people build on them.
FIELDS = {
    "leaf_mm": "leaf_width",
    "closed_mm": "closed_thickness",
    "metal_mm": "metal_thickness",
    "knuckle_mm": "pin_projection",
    "setback_mm": "pin_inset",
    "rating_kg": "rating_kg",
}
SEVERAL = ("cranks", "plates", "lengths", "plate", "head_groove")
Piece = Butt | CupHinge | TrackSet
MODELS: dict[Ware, type[Butt] | type[CupHinge] | type[TrackSet]] = {
    Ware.BUTTS: Butt,
    Ware.CUPS: CupHinge,
    Ware.TRACKS: TrackSet,
}


def read_hardware(path: Path) -> tuple[Ware, tuple[Piece, ...]]:
    """Return what a table holds.

    Args:
        path: The file.

    Raises:
        CuttingFileError: With file, line and reason; then nothing is read.
    """
    lines = read_lines(path, ("name",))
    if not lines:
        raise CuttingFileError(f"{path.name}: nothing in it but its columns")
    head = lines[0].cells
    ware = next((of for column, of in TELLS.items() if column in head), None)
    if ware is None:
        raise CuttingFileError(f"{path.name}: no column {', '.join(TELLS)}: neither butts, cup hinges nor tracks")
    missing = [each for each in NEEDED[ware] if each not in head]
    if missing:
        raise CuttingFileError(f"{path.name}, line 1: no column {', '.join(missing)}, as {ware} need")
    if len(lines) > MOST_OWN:
        raise CuttingFileError(f"{path.name}: {len(lines)} {ware}, a job keeps {MOST_OWN}")
    return ware, tuple(_piece(line, ware) for line in lines)


def with_hardware(job: Job, found: tuple[Piece, ...]) -> Job:
    """Return the job with hinges among its own; one of the same name gives way.

    Args:
        job: The job that is read; it is not changed.
        found: The hinges that were read.

    Raises:
        InputError: For too many.
    """
    for field, kind in (("own_butts", Butt), ("own_cups", CupHinge)):
        new = [each for each in found if isinstance(each, kind)]
        names = {each.name for each in new}
        if new:
            kept = [each for each in getattr(job, field) if each.name not in names]
            job = field_path.with_value(job, field, (*kept, *new))
    return job


def with_track(job: Job, leaf_id: str, found: tuple[Piece, ...], name: str = "") -> Job:
    """Return the job with a leaf on one of the track sets that were read: the one called `name`, or the only one.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        found: The track sets that were read.
        name: Which of them; "" where there is only one.

    Raises:
        CuttingFileError: Where it is not told which.
    """
    sets = {each.name: each for each in found if isinstance(each, TrackSet)}
    if name not in sets and len(sets) > 1:
        raise CuttingFileError(f"which of them the leaf takes is not told: {', '.join(sets)}")
    return job_edits.with_field(job, leaf_id, "slide.track_set", sets.get(name) or next(iter(sets.values())))


def hardware_csv(job: Job, ware: Ware) -> str:
    """Return the shipped table and the job's own of a kind; it can be changed and read again.

    Args:
        job: The job that is read; it is not changed.
        ware: The table: butts, cup hinges, track sets and so on.
    """
    all_of: dict[Ware, Callable[[], Iterable[Piece]]] = {
        Ware.BUTTS: lambda: (*(butt_from_table(key) for key in table("butts")), *job.own_butts),
        Ware.CUPS: lambda: (*(cup_from_table(key) for key in cup_keys()), *job.own_cups),
        Ware.TRACKS: lambda: track_sets().values(),
    }
    return written_csv(COLUMNS[ware], [[_cell(each, column) for column in COLUMNS[ware]] for each in all_of[ware]()])


def _field(column: str) -> str:
    return FIELDS.get(column) or column.removesuffix("_mm").removesuffix("_deg")


# --- in ------------------------------------------------------------------------------------------------------


def _piece(line: CsvLine, ware: Ware) -> Piece:
    values: dict[str, Any] = {}
    for column in COLUMNS[ware]:
        text = unescaped(line.cells.get(column, "").strip())
        if text:
            values[_field(column)] = _value(line, column, text)
        elif column in NEEDED[ware]:
            raise line.refused(f"{column}: nothing there")
    if ware is Ware.CUPS:
        values["source"] = f"its sheet: {line.file}"
    if ware is Ware.TRACKS:
        values = {"lift": 10.0, "block": 5.0, "price": 0.0, **values}
    else:
        values |= {
            name: Reading(value=values[name], state=Provenance.FROM_TABLE) for name in READINGS if name in values
        }
    try:
        return MODELS[ware].model_validate(values)
    except ValidationError as error:
        reason = field_path.refusal(error)
        raise line.refused(f"{reason.field}: {str(reason.value)[:40]}, needs {reason.need}") from None
    except InputError as error:
        raise line.refused(f"{error.field}: {error.value}, needs {error.need}") from None


def _value(line: CsvLine, column: str, text: str) -> Any:
    field = _field(column)
    if field == "name":
        return text
    if field == "ways":
        return tuple(_one_of(line, column, each.strip(), Hanging) for each in text.split("|"))
    if field == "kind":
        return _one_of(line, column, text, HangerKind)
    if field == "damped":
        if text.lower() not in ("yes", "no"):
            raise line.refused(f"damped: “{text[:20]}”, needs yes or no")
        return text.lower() == "yes"
    if field == "reveal":
        return tuple(_reveal(line, each) for each in text.split())
    if field in SEVERAL:
        return tuple(_number(line, column, each) for each in text.split())
    return _number(line, column, text)


def _one_of(line: CsvLine, column: str, text: str, kind: type[StrEnum]) -> StrEnum:
    found = next((each for each in kind if each.lower() == text.lower()), None)
    if found is None:
        raise line.refused(f"{column}: “{text[:40]}”, needs one of {', '.join(kind)}")
    return found


def _number(line: CsvLine, column: str, text: str) -> float:
    return CsvLine(line.file, line.number, {column: text}).number_of(column, -1000.0)


def _reveal(line: CsvLine, text: str) -> dict[str, float]:
    """Read "16:3:0.4": a leaf's thickness, its boring, the gap that it needs beside it."""
    parts = text.split(":")
    if len(parts) != 3:
        raise line.refused(f"reveal_mm: “{text[:30]}”, needs thickness:boring:gap")
    thickness, boring, reveal = (_number(line, "reveal_mm", each) for each in parts)
    return {"thickness": thickness, "boring": boring, "reveal": reveal}


# --- out -----------------------------------------------------------------------------------------------------


def _cell(piece: BaseModel, column: str) -> str:
    field = _field(column)
    value = getattr(piece, field)
    if value is None:
        return ""
    if field == "ways":
        return "|".join(value)
    if field == "reveal":
        return " ".join(f"{row.thickness:g}:{row.boring:g}:{row.reveal:g}" for row in value)
    if field == "damped":
        return "yes" if value else "no"
    if isinstance(value, tuple):
        return " ".join(f"{each:g}" for each in value)
    if isinstance(value, Reading):
        return f"{value.value:g}"
    return f"{value:g}" if isinstance(value, float | int) else str(value)
