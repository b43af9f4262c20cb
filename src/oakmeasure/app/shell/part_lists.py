"""Lists under the board: the cut list and the boring list, one row lit with what it shows."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from PySide6.QtCore import QAbstractTableModel, QModelIndex, QPersistentModelIndex, QSize, Qt, Signal
from PySide6.QtGui import QColor, QMouseEvent, QPainter
from PySide6.QtWidgets import (
    QAbstractItemView,
    QHeaderView,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
)

from oakmeasure.app.canvas.label_places import text_size
from oakmeasure.app.shell import theme
from oakmeasure.core.base.glossary import explained
from oakmeasure.core.base.units import HAIR, MINUS, Show, Unit, UnitSystem
from oakmeasure.core.document.readings import FloorAlong
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.views import HardwarePage, LeafPage, MeasurePage, TimberPage
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.hardware.boring_rows import COLUMNS, boring_row
from oakmeasure.core.hardware.clash.zones import zones
from oakmeasure.core.planning.setups import setups
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.survey.adjust import Status
from oakmeasure.core.survey.kinds import KINDS, SurveyKind
from oakmeasure.core.survey.takings.polygon import PREFIX, label_of
from oakmeasure.core.survey.tick_board import TickStatus, side_names
from oakmeasure.language import tr

STATUS_WORDS = {Status.USED: "", Status.SET_ASIDE: ", aside", Status.BOWED: ", bow", Status.UNDECIDED: "  ?"}
TICK_WORDS = {TickStatus.USED: "", TickStatus.SET_ASIDE: "wrong", TickStatus.UNDECIDED: "?", TickStatus.EXCLUDED: "out"}
HEADER_NOTES = {
    "residual": "the reading less what the adjusted opening makes it",
    "±": "how sure one is of it; write “742 ± 1” to change it",
    "norm.": "normalised: the residual in units of its own usual spread; over 3 is suspect",
    "shows from": "the smallest misread of this reading that would show",
    "pcs": "pieces, for all leaves of the pair or the run",
    "planed": "at the glue-up, trimming allowance still on",
    "rough": "as sawn",
    "across": "from the opening face",
    "in": "from the hinge edge",
    "up": "from the leaf's foot",
}
Index = QModelIndex | QPersistentModelIndex


@dataclass(frozen=True, slots=True)
class ListRow:
    """A row: its cells as text and what it shows on the drawing."""

    cells: tuple[str, ...]
    ref: str


Listed = tuple[tuple[str, ...], list[ListRow]]


def readings_list(leaf: LeafSolution, show: Show) -> Listed:
    """Return header and rows of the readings, each with how sure it is, how far it misses and how that is judged."""
    header = ("reading", "±", "residual", "norm.", "shows from")
    if leaf.opening.adjustment is None:
        return header, []
    rows = []
    for kind, each in leaf.opening.adjustment.readings.items():
        judged = "–" if each.least_blunder == float("inf") else f"{each.normalised:.1f}"
        least = "–" if each.least_blunder == float("inf") else show.length(each.least_blunder)
        word = STATUS_WORDS[each.status]
        is_kind = isinstance(kind, SurveyKind)
        name = KINDS[kind].short if is_kind else label_of(kind, len(leaf.opening.taken.corners), short=True)
        ref = f"reading:{kind}" if is_kind else f"reading:{PREFIX}{kind}"
        sure = show.length(each.sigma)
        rows.append(ListRow((name + word, sure, show.length(each.miss), judged, least), ref))
    return header, rows


def measure_list(leaf: LeafSolution, show: Show, page: MeasurePage) -> Listed | None:
    """Return header and rows of what belongs beside a page of Measure; None of a frame that is there."""
    if page is MeasurePage.LINING:
        return stretches_list(leaf, show) if leaf.opening.lining is not None else None
    if page is MeasurePage.ROUND:
        return surroundings_list(leaf, show)
    if leaf.opening.template is not None:
        return ticks_list(leaf, show)
    return readings_list(leaf, show)


def ticks_list(leaf: LeafSolution, show: Show) -> Listed:
    """Return header and rows of the ticks, and of each side's standard error."""
    header = ("tick", "side", "miss", "")
    fit, template = leaf.opening.template, leaf.leaf.template
    if fit is None or template is None:
        return header, []
    names = side_names(template.sides)
    rows = [
        ListRow((f"{at}", names[each.side - 1], show.length(each.miss), TICK_WORDS[each.status]), f"tick:{at}")
        for at, each in enumerate(fit.ticks, start=1)
    ]
    rows += [
        ListRow(("±", name, show.length(each.sigma), "error"), f"side:{name}")
        for name, each in zip(names, fit.sides, strict=True)
    ]
    if fit.check_miss is not None:
        rows.insert(0, ListRow(("check", "corner", show.length(fit.check_miss), ""), "tick:check"))
    return header, rows


def surroundings_list(leaf: LeafSolution, show: Show) -> Listed:
    """Return header and rows of floor heights and things in the way."""
    rows = []
    swing = leaf.leaf.floor.along is FloorAlong.SWING
    for at, point in enumerate(leaf.leaf.floor.points, start=1):
        place = f"floor at {point.at:g}°" if swing else f"floor at {show.length(point.at)}"
        rows.append(ListRow((place, show.length(point.height.value), str(point.height.state)), f"floor:{at}"))
    for at, thing in enumerate(leaf.leaf.in_the_way, start=1):
        name = f"{thing.what}, {thing.where}"
        rows.append(ListRow((name, show.length(thing.stands_out.value), str(thing.stands_out.state)), f"thing:{at}"))
    return ("read", "mm" if show.system is UnitSystem.MM else "inch", ""), rows


def stretches_list(leaf: LeafSolution, show: Show) -> Listed:
    """Return header and rows of strips and packing, stretch by stretch."""
    header = ("stretch", "from", "to", "thick below", "thick above", "")
    lining = leaf.opening.lining
    if lining is None:
        return header, []
    rows = []
    for each in (*lining.strips, *lining.packing):
        what = f"{each.side}, {'strip, ' + each.face if each.face else 'packing'}"
        ref = f"figure:strip_{each.side.slug}" if each.face else "figure:packing_left"
        lengths = (show.length(value) for value in (each.lower, each.upper, each.start, each.end))
        where = "" if not each.face or max(abs(each.start), abs(each.end)) < HAIR else "on the wall"
        if each.face and min(each.start, each.end) < -HAIR:
            where = "on the lining"
        rows.append(ListRow((what, *lengths, where), ref))
    return header, rows


def cut_list(leaf: LeafSolution, show: Show) -> Listed:
    """Return header and rows of the cut list."""
    header: tuple[str, ...] = ("no.", "part", "finished", "planed", "rough", "weight")
    mixed = len({part.species for part in leaf.cut_parts}) > 1  # of one timber, its name would only take room
    several = leaf.fit.leaves > 1  # a pair or a run: as many of each part
    if several:
        header = (*header[:2], "pcs", *header[2:])
    rows = []
    for part in leaf.cut_parts:
        sizes = [
            show.size(each.length, each.width, each.thickness) for each in (part.finished, part.planed, part.rough)
        ]
        weight = leaf.mass_of(part)
        mass = show.value(weight.value, Unit.KG) if weight else ""
        timber = (stuff(part.species).name,) if mixed else ()
        pieces = (str(leaf.pieces_of(part)),) if several else ()
        rows.append(ListRow((part.mark, part.name, *pieces, *sizes, mass, *timber), f"part:{part.name}"))
    if mixed:
        header = (*header, "timber")
    if any(part.note for part in leaf.cut_parts):
        header = (*header, "to note")
        rows = [ListRow((*row.cells, part.note), row.ref) for row, part in zip(rows, leaf.cut_parts, strict=True)]
    return header, rows


def joint_list(leaf: LeafSolution, show: Show) -> Listed:
    """Return header and rows of every joint and fixing: where it stands, how far it reaches, how thick it is.

    The joints in the latch stile stand as those in the hinge stile do, and are not said twice.
    """
    header = ("joint", "up", "to", "in", "long", "thick")
    if leaf.build is None:
        return header, []
    rows = []
    for each in leaf.build.tenons:
        if each.into == "latch stile" and not leaf.fit.outline:
            continue
        r = each.rect
        kind = "haunch" if each.is_haunch else "through" if each.through else "tenon"
        lengths = (r.y0, r.y1, r.x0, each.reach, each.thickness)
        rows.append(ListRow((f"{kind}, {each.member}", *(show.length(one) for one in lengths)), f"part:{each.member}"))
    for at, fixing in enumerate(leaf.build.fixings, start=1):
        what = f"{at} {fixing.what.rpartition(' ')[2].rstrip('s')}, {fixing.ref.partition(':')[2]}"
        places = (show.length(fixing.y), "", show.length(fixing.x), show.length(fixing.length), "")
        rows.append(ListRow((what + (", slot" if fixing.slotted else ""), *places), fixing.ref))
    return header, rows


def boring_list(leaf: LeafSolution, show: Show) -> Listed:
    """Return header and rows of the boring list."""
    return COLUMNS, [ListRow(boring_row(cut, show), cut.ref) for cut in leaf.borings]


def zone_list(leaf: LeafSolution, show: Show) -> Listed:
    """Return header and rows of the keep-out zones, from the top down."""
    header = ("keep free", "from the top", "to", "from the hinge edge", "to", "deep from", "to", "open at")
    if leaf.body is None:
        return header, []
    rows = []
    for zone in zones(leaf.clashes, leaf.body):
        lengths = (zone.from_top, zone.to, zone.from_hinge, zone.in_to, zone.deep_from, zone.deep_to)
        rows.append(ListRow((zone.name, *(show.length(each) for each in lengths), zone.in_words()), zone.ref))
    return header, rows


def setting_list(leaves: Sequence[LeafSolution], show: Show) -> Listed:
    """Return header and rows of the saw and planer settings over the leaves that are worked out, largest first."""
    header = ("machine", "set to", "thick", "pieces", "of")
    rows = []
    for each in setups(leaves):
        named = dict.fromkeys(f"{piece.part.name} ({piece.leaf})" for piece in each.pieces)
        thick = show.length(each.thickness) if each.thickness else ""
        words = "; ".join(named)
        rows.append(
            ListRow(
                (str(each.machine), show.length(each.size), thick, str(each.count), words),
                f"part:{each.pieces[0].part.name}",
            )
        )
    return header, rows


def list_of_page(
    stage: Stage, page: str, leaf: LeafSolution, leaves: Sequence[LeafSolution], show: Show
) -> Listed | None:
    """Return header and rows of what belongs to a page; None where nothing does.

    It is about one leaf, or about all that are worked out, `leaves`. Pages of the whole job, of Make and of Hang
    have theirs in their rooms.
    """
    if stage is Stage.MEASURE:
        return measure_list(leaf, show, MeasurePage(page))
    if stage is Stage.LEAF and page == LeafPage.JOINTS:
        return joint_list(leaf, show)
    if stage is Stage.TIMBER and page == TimberPage.SETTINGS:
        return setting_list(leaves, show)
    if stage is Stage.TIMBER and page != TimberPage.YEAR:
        return cut_list(leaf, show)
    if stage is Stage.HARDWARE and page != HardwarePage.CATALOGUE:
        return (zone_list if page == HardwarePage.CLASHES else boring_list)(leaf, show)
    return None


class RecordModel(QAbstractTableModel):
    """A table over records; knows no window."""

    def __init__(self) -> None:
        super().__init__()
        self.header: tuple[str, ...] = ()
        self.records: Sequence[ListRow] = ()
        self.lit = ""

    def put(self, header: tuple[str, ...], records: Sequence[ListRow]) -> None:
        if header == self.header and len(records) == len(self.records):
            self.records = records  # only numbers changed: no need to lay the table out anew
            self._changed()
            return
        self.beginResetModel()
        self.header, self.records = header, records
        self.endResetModel()

    def light(self, ref: str) -> None:
        self.lit = ref
        self._changed()

    def _changed(self) -> None:
        if self.records:
            self.dataChanged.emit(self.index(0, 0), self.index(len(self.records) - 1, len(self.header) - 1))

    def widest(self) -> tuple[int, ...]:
        """Return the longest text of each column, by its count of characters."""
        return tuple(max(map(len, column)) for column in zip(*(each.cells for each in self.records), strict=True))

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.records)

    def columnCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.header)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if role == Qt.ItemDataRole.DisplayRole and orientation is Qt.Orientation.Horizontal:
            return tr(self.header[section])
        if role == Qt.ItemDataRole.TextAlignmentRole:
            return self.alignment(section)
        if role == Qt.ItemDataRole.ToolTipRole:
            return tr(HEADER_NOTES.get(self.header[section]) or explained(self.header[section])) or None
        return None

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        record = self.records[index.row()]
        if role == Qt.ItemDataRole.DisplayRole:
            return theme.typeset(record.cells[index.column()])
        if role == Qt.ItemDataRole.TextAlignmentRole:
            return self.alignment(index.column())
        if role == Qt.ItemDataRole.ToolTipRole:
            return tr(explained(record.cells[index.column()])) or None
        if role == Qt.ItemDataRole.BackgroundRole and self.is_lit(record):
            return QColor(theme.palette().accent_soft)
        if role == Qt.ItemDataRole.FontRole:
            return theme.font(14, bold=self.is_name(index.column()))
        return None

    def is_name(self, column: int) -> bool:
        """Return whether a column holds the name of its row."""
        return column == (1 if self.header[0] == "no." else 0)

    def is_lit(self, record: ListRow) -> bool:
        """Return whether a row is lit."""
        return bool(self.lit) and (
            record.ref == self.lit or (self.lit == "part:panel" and record.ref.endswith("panel"))
        )

    def alignment(self, column: int) -> Qt.AlignmentFlag:
        """Return the side of a column: numbers to the right."""
        texts = [each.cells[column] for each in self.records[:LOOKED_AT] if each.cells[column]]
        number = bool(column) and all(text[0] in f"0123456789–+⌀{MINUS}" for text in texts)
        side = Qt.AlignmentFlag.AlignRight if number else Qt.AlignmentFlag.AlignLeft
        return side | Qt.AlignmentFlag.AlignVCenter


PAD_PX = 4
LOOKED_AT = 12


class CellPainter(QStyledItemDelegate):
    """Paints a cell's text and its light. A style sheet would take ten times as long over a whole table."""

    def __init__(self, model: RecordModel, parent: QTableView) -> None:
        super().__init__(parent)
        self._model = model

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        text = theme.typeset(self._model.records[index.row()].cells[index.column()])
        width, height = text_size(text, 14, self._model.is_name(index.column()))
        return QSize(math.ceil(width) + 2 * PAD_PX + 2, math.ceil(height))

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        # The records are asked directly: each role asked through the index would cross the binding once more.
        p, model, row, column = theme.palette(), self._model, index.row(), index.column()
        record, box = model.records[row], option.rect
        if option.state & QStyle.StateFlag.State_Selected or model.is_lit(record):
            painter.fillRect(box, QColor(p.accent_soft))
        painter.setFont(theme.font(14, bold=model.is_name(column)))
        painter.setPen(QColor(p.ink))
        painter.drawText(
            box.adjusted(PAD_PX, 0, -PAD_PX, 0), model.alignment(column), theme.typeset(record.cells[column])
        )


class RecordList(QTableView):
    """Shows a RecordModel; hovering or choosing a row lights up what it shows."""

    pointed = Signal(str)
    chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.records = RecordModel()
        self.setModel(self.records)
        self.setItemDelegate(CellPainter(self.records, self))
        self.setMouseTracking(True)
        self.setShowGrid(False)
        self.verticalHeader().hide()
        self.verticalHeader().setDefaultSectionSize(24)
        self.horizontalHeader().setHighlightSections(False)
        self.horizontalHeader().setFixedHeight(31)
        self.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Interactive)
        self._fitted_to: object = None
        self.horizontalHeader().setStretchLastSection(False)
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.setTabKeyNavigation(False)
        self.setAccessibleName(tr("list of parts or borings"))
        self.selectionModel().currentRowChanged.connect(lambda now, _before: self._choose(now.row()))

    def show_records(self, header: tuple[str, ...], records: list[ListRow]) -> None:
        if header != self.records.header or records != self.records.records:
            self.records.put(header, records)
        wanted = (header, self.records.widest())
        if wanted != self._fitted_to:  # measuring every cell is slow: only when a text grew longer or shorter
            self._fitted_to = wanted
            self.resizeColumnsToContents()

    def show_row(self, ref: str) -> None:
        """Light a row and bring it into sight."""
        self.records.light(ref)
        for row, record in enumerate(self.records.records):
            if record.ref == ref:
                self.scrollTo(self.records.index(row, 0), QAbstractItemView.ScrollHint.PositionAtCenter)
                return

    def _choose(self, row: int) -> None:
        if 0 <= row < len(self.records.records):
            self.chosen.emit(self.records.records[row].ref)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        row = self.indexAt(event.position().toPoint()).row()
        self.pointed.emit(self.records.records[row].ref if 0 <= row < len(self.records.records) else "")
        super().mouseMoveEvent(event)

    def leaveEvent(self, event: Any) -> None:
        self.pointed.emit("")
        super().leaveEvent(event)
