"""Stock, parts and defects from CSV, for a cutting plan; what is not understood is refused with its line and reason."""

from __future__ import annotations

import csv
import io
from pathlib import Path

from oakmeasure.core.base.errors import FileError, LengthError
from oakmeasure.core.base.parsing import decimal_point
from oakmeasure.core.cutting.model import CutKind, Defect, PartItem, Problem, StockItem
from oakmeasure.core.document.text import one_line
from oakmeasure.files.plain_file import size_of
from oakmeasure.files.tables.csv_dialect import SAVE_AS, encoding_of, separator_of, told_separator

LARGEST = 20_000_000  # bytes
MOST_LINES = 20_000
MOST_MM = 100_000.0
STOCK = ("name", "length_mm", "width_mm", "qty", "price")
PARTS = ("name", "length_mm", "width_mm", "qty", "grain")
DEFECTS = ("board", "x_mm", "y_mm", "length_mm", "width_mm")


class CuttingFileError(FileError):
    """A list that cannot be read; the text says where and why."""


def read_problem(stock: Path, parts: Path, defects: Path | None, *, kind: CutKind, kerf: float, trim: float) -> Problem:
    """Return what is to be cut.

    Args:
        stock: The file of stock.
        parts: The file of parts.
        defects: The file of defects; None for none.
        kind: Whether bars or sheets and boards are cut.
        kerf: Of the saw, mm.
        trim: Taken off each edge of a sheet before anything is cut, mm.

    Raises:
        CuttingFileError: Which names the file and the line.
    """
    flat = kind is not CutKind.BARS
    bought = tuple(_stock(line, flat) for line in read_lines(stock, STOCK))
    wanted = tuple(_part(line, flat) for line in read_lines(parts, PARTS))
    if not bought:
        raise CuttingFileError(f"{stock.name}: no stock in it")
    if not wanted:
        raise CuttingFileError(f"{parts.name}: no parts in it")
    by_name = {each.name: each for each in bought}
    marked = []
    for line in read_lines(defects, DEFECTS) if defects is not None else ():
        marked.append(_defect(line, by_name))
    return Problem(kind, bought, wanted, tuple(marked), kerf, trim)


class CsvLine:
    """One line of a list, its cells by their column."""

    def __init__(self, file: str, number: int, cells: dict[str, str]) -> None:
        self.file, self.number, self.cells = file, number, cells

    def refused(self, reason: str) -> CuttingFileError:
        """Return the refusal that names the file, the row and the reason.

        Args:
            reason: Why the row is refused.
        """
        return CuttingFileError(f"{self.file}, line {self.number}: {reason}")

    def number_of(self, column: str, low: float, *, high: float = MOST_MM, empty: float | None = None) -> float:
        """Return a length of the row, mm.

        Args:
            column: Name of the column.
            low: The least that it may be, mm.
            high: The most that it may be, mm.
            empty: What an empty cell counts as; None where it must be filled.
        """
        text = self.cells[column].strip()
        if not text and empty is not None:
            return empty
        try:
            value = float(decimal_point(text))
        except LengthError as error:
            raise self.refused(f"{column}: {error}") from None
        except ValueError:
            raise self.refused(f"{column}: “{text[:30]}” is no number") from None
        if not low <= value <= high:  # NaN is neither
            raise self.refused(f"{column}: {text[:30]}, needs {low:g} to {high:g}")
        return value

    def count_of(self, column: str) -> int:
        """Return how many there are of the row.

        Args:
            column: Name of the column.
        """
        text = self.cells[column].strip()
        if not (text.isascii() and text.isdigit() and len(text) <= 7 and 1 <= int(text) <= 1_000_000):
            raise self.refused(f"{column}: “{text[:30]}”, needs a whole number, 1 or more")
        return int(text)


def _text_of(path: Path) -> str:
    try:
        if size_of(path) > LARGEST:
            raise CuttingFileError(f"{path.name}: it is far too large to be a list")
        content = path.read_bytes()
        return content.decode(encoding_of(content))
    except UnicodeDecodeError as error:
        raise CuttingFileError(f"{path.name}: byte {error.start} is not text; {SAVE_AS}") from None
    except OSError as error:
        raise CuttingFileError(f"{path.name}: {(error.strerror or str(error)).lower()}") from None


def read_lines(path: Path, columns: tuple[str, ...]) -> list[CsvLine]:
    """Return the lines of a list. Names in the first column may not come twice where it is called name.

    Args:
        path: The file.
        columns: The columns that it must have.
    """
    text = _text_of(path)
    first, _, rest = text.partition("\n")
    told = told_separator(first)
    lines, before = (rest, 1) if told else (text, 0)
    first = lines.lstrip("\r\n ").partition("\n")[0]
    reader = csv.reader(io.StringIO(lines), strict=True, delimiter=told or separator_of(first))
    head: list[str] | None = None
    found: list[CsvLine] = []
    try:
        for row in reader:
            if not any(cell.strip() for cell in row):
                continue
            if head is None:
                head = [cell.strip().lower() for cell in row]
                missing = [each for each in columns if each not in head]
                if missing:
                    raise CuttingFileError(
                        f"{path.name}, line {before + reader.line_num}: no column {', '.join(missing)}"
                    )
                continue
            if len(found) >= MOST_LINES:
                raise CuttingFileError(f"{path.name}: more than {MOST_LINES} lines")
            cells = dict(zip(head, [*map(one_line, row), *[""] * len(head)], strict=False))
            found.append(CsvLine(path.name, before + reader.line_num, cells))
    except csv.Error as error:
        raise CuttingFileError(f"{path.name}, line {before + reader.line_num}: {error}") from None
    if head is None:
        raise CuttingFileError(f"{path.name}: it is empty")
    if columns[0] == "name":
        _names_once(found)
    return found


def _names_once(lines: list[CsvLine]) -> None:
    names: dict[str, int] = {}
    for line in lines:
        name = line.cells["name"].strip()
        if not name:
            raise line.refused("name: nothing there")
        if name in names:
            raise line.refused(f"name: {name} stands in line {names[name]} already")
        names[name] = line.number


def _stock(line: CsvLine, flat: bool) -> StockItem:
    count = None if not line.cells["qty"].strip() else line.count_of("qty")
    wide = line.number_of("width_mm", 1.0) if flat else line.number_of("width_mm", 0.0, empty=0.0)
    return StockItem(
        line.cells["name"].strip(),
        line.number_of("length_mm", 1.0),
        wide,
        count,
        line.number_of("price", 0.01, high=1e7),
    )


def _part(line: CsvLine, flat: bool) -> PartItem:
    grain = line.cells["grain"].strip().lower() or "length"
    if grain not in ("length", "any"):
        raise line.refused(f"grain: “{grain[:20]}”, needs length or any")
    wide = line.number_of("width_mm", 1.0) if flat else line.number_of("width_mm", 0.0, empty=0.0)
    return PartItem(
        line.cells["name"].strip(),
        line.number_of("length_mm", 1.0),
        wide,
        line.count_of("qty"),
        grain == "any" and flat,
    )


def _defect(line: CsvLine, stock: dict[str, StockItem]) -> Defect:
    board = stock.get(line.cells["board"].strip())
    if board is None:
        raise line.refused(f"board: no stock is called “{line.cells['board'][:30]}”")
    x, y = line.number_of("x_mm", 0.0), line.number_of("y_mm", 0.0)
    long, wide = line.number_of("length_mm", 0.0), line.number_of("width_mm", 0.0)
    if x + long > board.length + 1e-6 or y + wide > board.width + 1e-6:
        raise line.refused(f"the defect reaches outside {board.name}, {board.length:g} × {board.width:g}")
    return Defect(board.name, x, y, long, wide)
