"""Ticks and points from outside: CSV and DXF. A file is taken whole or refused with the line and the reason."""

from __future__ import annotations

import csv
import itertools
import math
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any, TextIO

from pydantic import ValidationError

from oakmeasure.core.base.errors import FileError, InputError, LengthError
from oakmeasure.core.base.parsing import parse_length, parse_quantity
from oakmeasure.core.base.units import Unit, UnitSystem
from oakmeasure.core.document.field_path import refusal
from oakmeasure.core.document.readings import Tick
from oakmeasure.files.plain_file import size_of
from oakmeasure.files.tables.csv_dialect import SAVE_AS, encoding_of, separator_of, told_separator

MOST_POINTS = 5000
TOO_MANY = f"more than {MOST_POINTS} points are no opening; thin them out"
LARGEST_DXF = 30_000_000  # bytes; it is read whole
LONGEST_LINE = 2000  # characters
COLUMNS = ("x", "y", "angle", "x2", "y2", "side")
WITHOUT_HEADER = {2: ("x", "y"), 3: ("x", "y", "angle"), 4: ("x", "y", "x2", "y2")}
ALONG_SEGMENT = (0.1, 0.37, 0.63, 0.9)  # shares at which a drawn edge gives points, off its corners
ALONG_ARC = 9
MOST_ENTITIES = 10_000
DEEPEST_BLOCK = 8
KNOWN = ("POINT", "LINE", "LWPOLYLINE", "POLYLINE", "ARC", "CIRCLE", "SPLINE", "ELLIPSE")


class PointsFileError(FileError):
    """A file of points that cannot be read; the text says where and why."""


def read_points(path: Path | str, unit: UnitSystem) -> tuple[Tick, ...]:
    """Return the ticks of a CSV or the points of a DXF file.

    Args:
        path: The file.
        unit: Of bare numbers in a CSV.

    Raises:
        PointsFileError: Which names the file.
    """
    path = Path(path)
    try:
        ticks = _read_dxf(path) if path.suffix.lower() == ".dxf" else _read_csv(path, unit)
    except PointsFileError as error:
        raise PointsFileError(f"{path.name} was not read: {error}") from None
    except OSError as error:
        raise PointsFileError(f"{path.name} was not read: {(error.strerror or str(error)).lower()}") from None
    if not ticks:
        raise PointsFileError(f"{path.name} was not read: no ticks or points in it")
    return ticks


# --- CSV -----------------------------------------------------------------------------------------------------


def _read_csv(path: Path, unit: UnitSystem) -> tuple[Tick, ...]:
    ticks: list[Tick] = []
    columns: Sequence[str] | None = None
    try:
        size_of(path)
        with path.open("rb") as content:
            encoding = encoding_of(content.read(4))
        with path.open(encoding=encoding, newline="") as stream:
            for number, cells in _rows(stream):
                if columns is None:
                    columns, is_header = _columns(cells, number)
                    if is_header:
                        continue
                if len(ticks) == MOST_POINTS:
                    raise PointsFileError(f"line {number}: {TOO_MANY}")
                ticks.append(_tick(cells, columns, number, unit))
    except UnicodeDecodeError as error:
        raise PointsFileError(f"byte {error.start} is not text; {SAVE_AS}") from None
    except csv.Error as error:
        raise PointsFileError(f"it is not CSV: {error}") from None
    return tuple(ticks)


def _rows(stream: TextIO) -> Iterator[tuple[int, list[str]]]:
    """Yield line number and cells of every row that is not empty; never more than one line at a time."""
    separator = ""
    for number in itertools.count(1):
        line = stream.readline(LONGEST_LINE + 1)
        if not line:
            return
        if len(line) > LONGEST_LINE:
            raise PointsFileError(f"line {number} is longer than {LONGEST_LINE} characters")
        text = line.strip()
        if number == 1 and told_separator(line):
            separator = told_separator(line)
            continue
        if not text or text.startswith("#"):
            continue
        separator = separator or separator_of(text)
        cells = [each.strip() for each in next(csv.reader([text], delimiter=separator, quotechar='"'))]
        yield number, cells


def _columns(cells: Sequence[str], number: int) -> tuple[Sequence[str], bool]:
    """Return the column names, and whether the row is the header that gives them."""
    names = [each.lower().removesuffix("_mm").removesuffix("_deg") for each in cells]
    if "x" in names:
        unknown = [each for each in names if each not in COLUMNS and each not in ("name", "note", "no")]
        if unknown:
            raise PointsFileError(f"line {number}: the column “{unknown[0]}” is none of {', '.join(COLUMNS)}")
        if "y" not in names:
            raise PointsFileError(f"line {number}: there is no column y")
        return names, True
    if len(cells) not in WITHOUT_HEADER:
        raise PointsFileError(f"line {number}: {len(cells)} columns without a header; 2 to 4, or name them")
    return WITHOUT_HEADER[len(cells)], False


def _tick(cells: Sequence[str], columns: Sequence[str], number: int, unit: UnitSystem) -> Tick:
    if len(cells) < len(columns):
        raise PointsFileError(f"line {number}: {len(cells)} cells where {len(columns)} are needed")
    values: dict[str, Any] = {}
    for name, cell in zip(columns, cells, strict=False):
        if not cell or name not in COLUMNS:
            continue
        try:
            if name == "side":
                values["side"] = int(cell)
            elif name == "angle":
                values["angle_deg"] = parse_quantity(cell, Unit.DEG)
            else:
                values[name] = parse_length(cell, unit, allow_negative=True)
        except (LengthError, ValueError) as error:
            reason = str(error) if isinstance(error, LengthError) else "needs a whole number"
            raise PointsFileError(f"line {number}, {name}: “{cell[:40]}”: {reason}") from None
    try:
        return Tick(**values)
    except (ValidationError, InputError) as error:
        refused = refusal(error) if isinstance(error, ValidationError) else error
        raise PointsFileError(f"line {number}, {refused.field}: needs {refused.need}") from None


# --- DXF -----------------------------------------------------------------------------------------------------


def _read_dxf(path: Path) -> tuple[Tick, ...]:
    size = size_of(path)
    if size > LARGEST_DXF:
        raise PointsFileError(f"{size / 1e6:.0f} MB is far too large for the outline of an opening")
    import ezdxf
    from ezdxf import units
    from ezdxf.enums import InsertUnits

    try:
        document = ezdxf.readfile(path)
    except OSError as error:
        if error.strerror:
            raise
        raise PointsFileError("it is not a DXF file") from None
    except Exception as error:  # a damaged file makes the reader fail in many ways
        raise PointsFileError(f"it is not a DXF file, or damaged ({type(error).__name__})") from None
    try:
        given = InsertUnits(document.units or InsertUnits.Millimeters)
        scale = units.conversion_factor(given, InsertUnits.Millimeters)
        found = list(dict.fromkeys(_points(document.modelspace(), scale)))
    except PointsFileError:
        raise
    except Exception as error:
        raise PointsFileError(f"it cannot be measured ({type(error).__name__})") from None
    try:
        return tuple(Tick(x=x, y=y) for x, y in found)
    except ValidationError as error:
        raise PointsFileError(f"a point of it {refusal(error).field} is too far out; is its unit right?") from None


def _points(entities: Any, scale: float) -> Iterator[tuple[float, float]]:
    """Yield the points of a drawing in mm. Raises PointsFileError for far too many, or none that can be measured."""
    count, unknown = 0, set()
    for entity in _out_of_blocks(entities, itertools.count(1)):
        if entity.dxftype() not in KNOWN:
            unknown.add(entity.dxftype())
        for x, y in _points_of(entity):
            count += 1
            if count > MOST_POINTS:
                raise PointsFileError(TOO_MANY)
            yield x * scale, y * scale
    if not count and unknown:
        raise PointsFileError(f"only {', '.join(sorted(unknown)[:6])} in it: points, lines and curves are needed")


def _out_of_blocks(entities: Any, seen: Iterator[int], depth: int = 0) -> Iterator[Any]:
    """Yield what is drawn, blocks taken apart where they are set in, blocks in them too; `seen` counts all of it."""
    for entity in entities:
        if next(seen) > MOST_ENTITIES:
            raise PointsFileError(f"more than {MOST_ENTITIES} things are drawn in it, those in blocks counted")
        if entity.dxftype() != "INSERT":
            yield entity
        elif depth < DEEPEST_BLOCK:
            for each in entity.multi_insert() if entity.mcount > 1 else (entity,):
                yield from _out_of_blocks(each.virtual_entities(), seen, depth + 1)


def _points_of(entity: Any) -> Iterator[tuple[float, float]]:
    """Yield points on an entity: a point itself, places along lines and curves that keep off the corners."""
    kind = entity.dxftype()
    if kind == "POINT":
        yield entity.dxf.location.x, entity.dxf.location.y
    elif kind == "LINE":
        yield from _along(entity.dxf.start, entity.dxf.end)
    elif kind in ("LWPOLYLINE", "POLYLINE"):
        for piece in entity.virtual_entities():
            yield from _points_of(piece)
    elif kind in ("ARC", "CIRCLE"):
        start, end = (entity.dxf.start_angle, entity.dxf.end_angle) if kind == "ARC" else (0.0, 360.0)
        sweep = (end - start) % 360 or 360.0
        for at in range(ALONG_ARC):
            turn = math.radians(start + sweep * (at + 0.5) / ALONG_ARC)
            yield (
                entity.dxf.center.x + entity.dxf.radius * math.cos(turn),
                entity.dxf.center.y + entity.dxf.radius * math.sin(turn),
            )
    elif kind in ("SPLINE", "ELLIPSE"):
        curve = entity.construction_tool()
        if kind == "SPLINE":
            params = [curve.max_t * (at + 0.5) / ALONG_ARC for at in range(ALONG_ARC)]
            yield from ((point.x, point.y) for point in curve.points(params))
        else:
            sweep = (curve.end_param - curve.start_param) % math.tau or math.tau
            params = [curve.start_param + sweep * (at + 0.5) / ALONG_ARC for at in range(ALONG_ARC)]
            yield from ((point.x, point.y) for point in curve.vertices(params))


def _along(start: Any, end: Any) -> Iterator[tuple[float, float]]:
    for share in ALONG_SEGMENT:
        yield start.x + share * (end.x - start.x), start.y + share * (end.y - start.y)
