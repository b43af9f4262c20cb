"""A schedule of openings as CSV: a line a leaf, read into a job, and what became of them written out again."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from oakmeasure.core.base.errors import InputError, LengthError
from oakmeasure.core.base.parsing import parse_length
from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document import field_path
from oakmeasure.core.document.constructions import KINDS, model_of, trade_name
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import MOST_LEAVES, Hand, Job, Leaf
from oakmeasure.core.document.readings import OpeningReadings, Reading
from oakmeasure.core.document.species import keys_by_name, plain_name, species_keys
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.reports.schedule import schedule_row
from oakmeasure.core.solution import Solution
from oakmeasure.files.tables.cutting_csv import CsvLine, CuttingFileError, read_lines
from oakmeasure.files.tables.lists import unescaped, written_csv

NEEDED = ("name", "width_mm", "height_mm")
SIZES = {
    "width_mm": "width_middle",
    "width_top_mm": "width_top",
    "width_bottom_mm": "width_bottom",
    "height_mm": "height_middle",
    "height_hinge_mm": "height_hinge",
    "height_latch_mm": "height_latch",
}
HEADER = (*NEEDED, "hand", "hanging", "construction", "wood", "thickness_mm", "like")
OUT = (*HEADER[:-1], "leaf_width_mm", "leaf_height_mm", "mass_kg", "state", "worst", "why")


def read_schedule(path: Path, job: Job) -> tuple[Leaf, ...]:
    """Return the leaves of a schedule.

    What a line does not say is taken from the leaf that it is `like`, else from the job's last one.

    Args:
        path: The file.
        job: The job that is read; it is not changed.

    Raises:
        CuttingFileError: With file, line and reason; then nothing is read.
    """
    lines = read_lines(path, NEEDED)
    if not lines:
        raise CuttingFileError(f"{path.name}: no leaf in it")
    if len(lines) > MOST_LEAVES:
        raise CuttingFileError(f"{path.name}: {len(lines)} leaves, a job takes {MOST_LEAVES}")
    ids = {each.id for each in job.leaves}
    found = []
    for line in lines:
        leaf = _leaf(line, job, ids)
        ids.add(leaf.id)
        found.append(leaf)
    return tuple(found)


def with_schedule(job: Job, leaves: tuple[Leaf, ...]) -> Job:
    """Return the job with these leaves added; a new job's only leaf, still all assumed, gives way to them.

    Args:
        job: The job that is read; it is not changed.
        leaves: The leaves of the schedule.
    """
    old = job.leaves
    if len(old) == 1 and all(r.state is Provenance.ASSUMED for r in _readings(old[0])):
        old = ()
    return field_path.with_value(job, "leaves", (*old, *leaves))


def _readings(leaf: Leaf) -> list[Reading]:
    return [each for _, each in leaf.readings if isinstance(each, Reading)]


def _leaf(line: CsvLine, job: Job, ids: set[str]) -> Leaf:
    name = unescaped(line.cells["name"].strip())
    if not name:
        raise line.refused("name: it has none")
    model = job_edits.for_another_opening(_model(line, job))
    own: dict[str, Any] = {"id": _id(name, ids), "name": name, "readings": _sizes(line)}
    for column, read in (("hand", _hand), ("hanging", _hanging), ("construction", _construction)):
        text = unescaped(line.cells.get(column, "").strip())
        if text:
            value = read(line, text, model)
            own["build" if column == "construction" else column] = value
    wood = unescaped(line.cells.get("wood", "").strip())
    if wood:
        own["timber"] = model.timber.model_copy(update={"species": _wood(line, wood)})
    try:
        leaf = Leaf.model_validate(model.model_copy(update=own).model_dump())
    except ValidationError as error:
        raise _refused(line, error) from None
    return _thick(line, leaf, job)


def _refused(line: CsvLine, error: ValidationError) -> CuttingFileError:
    reason = field_path.refusal(error)
    return line.refused(f"{reason.field}: {str(reason.value)[:40]}, needs {reason.need}")


def _model(line: CsvLine, job: Job) -> Leaf:
    like = unescaped(line.cells.get("like", "").strip())
    if not like:
        return job.leaves[-1]
    for each in job.leaves:
        if like.lower() in (each.name.lower(), each.id):
            return each
    raise line.refused(f"like: no leaf of the job is called “{like[:30]}”")


def _sizes(line: CsvLine) -> OpeningReadings:
    read = {}
    for column, field in SIZES.items():
        text = line.cells.get(column, "").strip()
        if text:
            read[field] = Reading(value=_length(line, column, text))
    try:
        return OpeningReadings(**read)
    except ValidationError as error:
        raise _refused(line, error) from None


def _length(line: CsvLine, column: str, text: str) -> float:
    try:
        return parse_length(unescaped(text), UnitSystem.MM)
    except LengthError as error:
        raise line.refused(f"{column}: “{text[:30]}”: {error}") from None


def _thick(line: CsvLine, leaf: Leaf, job: Job) -> Leaf:
    text = line.cells.get("thickness_mm", "").strip()
    if not text:
        return leaf
    field = thickness_field(leaf.build)
    if not field:
        raise line.refused(f"thickness_mm: {trade_name(leaf.build.kind)} has none of its own: leave it empty")
    alone = job.model_copy(update={"leaves": (leaf,)})
    try:
        return job_edits.with_field(alone, leaf.id, f"build.{field}", _length(line, "thickness_mm", text)).leaves[0]
    except InputError as error:
        raise line.refused(f"thickness_mm: {text[:30]}, needs {error.need}") from None


def thickness_field(build: Any) -> str:
    """Return the field that says how thick a construction is; "" where that follows from its layers.

    Args:
        build: What is chosen for the construction.
    """
    return next((each for each in ("thickness", "board_thickness") if each in type(build).model_fields), "")


def _hand(line: CsvLine, text: str, _model: Leaf) -> Hand:
    for each in Hand:
        if text.lower() in (str(each), str(each).split()[-1]):
            return each
    raise line.refused(f"hand: “{text[:30]}”, needs left or right")


def _hanging(line: CsvLine, text: str, _model: Leaf) -> Hanging:
    for each in Hanging:
        if text.lower() == str(each).lower():
            return each
    raise line.refused(f"hanging: “{text[:30]}”, needs one of: {'; '.join(str(each) for each in Hanging)}")


def _construction(line: CsvLine, text: str, model: Leaf) -> Any:
    names = {kind: kind for kind in KINDS} | {trade_name(kind): kind for kind in KINDS}
    kind = names.get(text.lower())
    if kind is None:
        raise line.refused(f"construction: “{text[:30]}”, needs {', '.join(KINDS)}")
    if model.build.kind == kind:
        return model.build
    return model_of(kind)()


def _wood(line: CsvLine, text: str) -> str:
    key = keys_by_name().get(plain_name(text))
    if key in species_keys():
        return str(key)
    raise line.refused(f"wood: “{text[:30]}”, needs {', '.join(species_keys())}")


def _id(name: str, taken: set[str]) -> str:
    plain = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:32] or "leaf"
    return next(each for each in (plain, *(f"{plain}-{n}" for n in range(2, MOST_LEAVES + 3))) if each not in taken)


def schedule_csv(solution: Solution) -> str:
    """Return the job's leaves as a schedule: what was measured and chosen, then what became of it.

    Args:
        solution: The job, worked out.
    """
    rows = []
    for leaf in solution.leaves:
        row, said = schedule_row(leaf), leaf.leaf
        thick = thickness_field(said.build)
        f = leaf.figures
        measured = [_mm(f[each].value) if each in f else "" for each in ("clear_width", "clear_height")]
        rows.append(
            [
                row.name,
                *measured,
                row.hand.split()[-1],
                row.hanging,
                said.build.kind,
                said.timber.species or "",
                _mm(getattr(said.build, thick)) if thick else "",
                _mm(row.width),
                _mm(row.height),
                "" if row.mass is None else f"{row.mass:.1f}",
                row.state,
                str(row.level),
                row.worst.title if row.worst is not None else "",
            ]
        )
    return written_csv(OUT, rows)


def _mm(value: float | None) -> str:
    return "" if value is None else f"{value:.1f}"
