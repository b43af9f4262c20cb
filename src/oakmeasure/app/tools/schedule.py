"""The schedule: all leaves of the job in lines, to be sorted, searched, and several changed alike."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from PySide6.QtCore import QAbstractTableModel, QModelIndex, QPersistentModelIndex, QRect, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QFontMetrics, QGuiApplication, QPainter, QPen, QPixmap
from PySide6.QtWidgets import (
    QAbstractItemView,
    QDialog,
    QHBoxLayout,
    QHeaderView,
    QLineEdit,
    QPushButton,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
    QVBoxLayout,
    QWidget,
)

from oakmeasure.app.canvas.silhouette import paint_parts
from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.forms.notes import label, note_label, tell
from oakmeasure.app.forms.quantity_edit import BoxLook, QuantityEdit
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.stage_bar import paint_level
from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.species import species, species_keys
from oakmeasure.core.figures.check import Level
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.reports.schedule import SORTS, ScheduleRow, changed_alike, schedule_row, shown_rows
from oakmeasure.core.solution import LeafSolution
from oakmeasure.language import tr

Index = QModelIndex | QPersistentModelIndex
COLUMNS = ("", *SORTS)
WIDTHS = (54, 226, 72, 72, 58, 74, 148, 176, 112, 240)
LEFT = int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
RIGHT = int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
ROW_PX = 50
TALL_PX = 42.0
TALLEST_MM = 2200.0


@dataclass(frozen=True, slots=True)
class Alike:
    """A field that is set on several leaves at once. unit: None for one of `choices`, words and value."""

    words: str
    path: str
    unit: Unit | None = Unit.MM
    choices: tuple[tuple[str, Any], ...] = ()


ALIKE = (
    Alike("gap at the latch", "fit.gap_latch"),
    Alike("gap at the hinges", "fit.gap_hinge"),
    Alike("gap at the head", "fit.gap_head"),
    Alike("gap over the floor", "fit.gap_floor"),
    Alike("left to trim, each side", "fit.trim_side"),
    Alike("thickness", "build.thickness"),
    Alike("stiles", "build.stile"),
    Alike("hand", "hand", None, tuple((str(each), each) for each in Hand)),
    Alike("hanging", "hanging", None, tuple((str(each), each) for each in Hanging)),
    Alike("timber", "timber.species", None, tuple((species(key).name, key) for key in species_keys())),
)


class ScheduleModel(QAbstractTableModel):
    """Lines of leaves; one that is not worked out yet shows its name alone."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: list[ScheduleRow] = []
        self.leaves: dict[str, LeafSolution] = {}
        self.show = Show()

    def put(self, rows: list[ScheduleRow], leaves: dict[str, LeafSolution], show: Show) -> None:
        """Show other lines; only numbers that changed do not lay the table out anew."""
        same = [each.leaf_id for each in rows] == [each.leaf_id for each in self.rows]
        if not same:
            self.beginResetModel()
        self.rows, self.leaves, self.show = rows, leaves, show
        if not same:
            self.endResetModel()
        elif rows:
            self.dataChanged.emit(self.index(0, 0), self.index(len(rows) - 1, len(COLUMNS) - 1))

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.rows)

    def columnCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(COLUMNS)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if role == Qt.ItemDataRole.DisplayRole and orientation is Qt.Orientation.Horizontal:
            return tr(COLUMNS[section])
        if role == Qt.ItemDataRole.TextAlignmentRole:
            return Qt.AlignmentFlag.AlignRight if 2 <= section <= 5 else Qt.AlignmentFlag.AlignLeft
        return None

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if role != Qt.ItemDataRole.DisplayRole or not index.column():
            return None
        return self.text(index.row(), index.column())

    def text(self, row: int, column: int) -> str:
        """Return a cell as it is read."""
        each, show = self.rows[row], self.show
        if column in (2, 3, 4):
            value = (each.width, each.height, each.thickness)[column - 2]
            return "–" if value is None else show.length(value)
        if column == 5:
            return "–" if each.mass is None else show.value(each.mass, Unit.KG)
        worst = each.worst.title if each.worst is not None else Level.OK.words
        return ("", each.name, "", "", "", "", each.construction, each.hanging, each.state, worst)[column]


class LinePainter(QStyledItemDelegate):
    """Paints a cell, in the first column the leaf itself to one scale for all, in the last the level as a shape."""

    def __init__(self, model: ScheduleModel, parent: QTableView) -> None:
        super().__init__(parent)
        self._model = model
        self._pictures: dict[str, tuple[LeafSolution, theme.Palette, QPixmap]] = {}

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        # Asked a hundred and forty times a screen: everything that can be is kept from one time to the next.
        at, column = index.row(), index.column()
        row, box = self._model.rows[at], option.rect
        p = theme.palette()
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(box, _colour(p.accent_soft))
        painter.setPen(_colour(p.hairline))
        painter.drawLine(box.left(), box.bottom(), box.right(), box.bottom())
        if column == 0:
            self._leaf(painter, row, box)
            return
        inner = box.adjusted(8, 0, -8, 0)
        if column == len(COLUMNS) - 1:
            painter.save()
            paint_level(painter, row.level, QRectF(box.left() + 8, box.center().y() - 7, 15, 14))
            painter.restore()
            inner = box.adjusted(30, 0, -4, 0)
        bold = column in (1, 2, 3)
        painter.setFont(theme.font(14, bold=bold))
        painter.setPen(_colour(p.ink))
        painter.drawText(
            inner, RIGHT if 2 <= column <= 5 else LEFT, _fitting(tr(self._model.text(at, column)), inner.width(), bold)
        )

    def _leaf(self, painter: QPainter, row: ScheduleRow, box: QRect) -> None:
        leaf = self._model.leaves.get(row.leaf_id)
        if leaf is None or leaf.build is None:
            return
        kept = self._pictures.get(row.leaf_id)
        if kept is None or kept[0] is not leaf or kept[1] is not theme.palette():
            kept = self._pictures[row.leaf_id] = (leaf, theme.palette(), _picture(leaf, leaf.build, box.size()))
        painter.drawPixmap(box.topLeft(), kept[2])


@lru_cache(maxsize=64)
def _colour(name: str) -> QColor:
    return QColor(name)


@lru_cache(maxsize=8192)
def _fitting(text: str, width: int, bold: bool) -> str:
    """Return a text as it fits into a cell."""
    metrics = QFontMetrics(theme.font(14, bold=bold))
    return metrics.elidedText(theme.typeset(text), Qt.TextElideMode.ElideRight, width)


def _picture(leaf: LeafSolution, build: Build, size: QSize) -> QPixmap:
    """Return a leaf as it stands in its cell; painted once, since scrolling shows the same again and again."""
    screen = QGuiApplication.primaryScreen()
    ratio = screen.devicePixelRatio() if screen is not None else 1.0
    picture = QPixmap(int(size.width() * ratio), int(size.height() * ratio))
    picture.setDevicePixelRatio(ratio)
    picture.fill(Qt.GlobalColor.transparent)
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(QColor(theme.palette().pencil), 0.8))
    scale = min(TALL_PX / max(TALLEST_MM, build.height), (size.width() - 10) / build.width)
    left = (size.width() - build.width * scale) / 2
    paint_parts(painter, leaf.leaf, build, left, size.height() - 5.0, scale)
    painter.end()
    return picture


class ScheduleBox(QDialog):
    """Stays open beside the window. A double click goes to the leaf."""

    def __init__(self, parent: QWidget | None, session: Session) -> None:
        super().__init__(parent)
        self.session = session
        self.setWindowTitle(tr("Schedule – Oak Measure"))
        self.resize(1280, 740)
        self.by, self.downwards = "", False
        self.model = ScheduleModel()
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 14, 16, 14)
        head = QHBoxLayout()
        self.look = QLineEdit()
        self.look.setObjectName("find")
        self.look.setPlaceholderText(tr("Find: boarded, 762, stop, sliding …"))
        self.look.setAccessibleName(tr("find leaves by words and sizes"))
        self.look.setMinimumWidth(340)
        self.count = label("", "pencil")
        head.addWidget(self.look)
        head.addWidget(self.count)
        head.addStretch(1)
        column.addLayout(head)
        column.addWidget(self._table(), 1)
        column.addLayout(self._change_row())
        self.note = note_label()
        column.addWidget(self.note)
        self.look.textChanged.connect(self.refresh)
        session.changed.connect(self._job_changed)
        session.others_known.connect(self.refresh)
        self._field_chosen()
        self.refresh()

    def _table(self) -> QTableView:
        self.table = table = QTableView()
        table.setModel(self.model)
        table.setItemDelegate(LinePainter(self.model, table))
        table.setShowGrid(False)
        table.verticalHeader().hide()
        table.verticalHeader().setDefaultSectionSize(ROW_PX)
        header = table.horizontalHeader()
        header.setHighlightSections(False)
        header.setFixedHeight(40)
        header.setSectionsClickable(True)
        header.setSectionResizeMode(QHeaderView.ResizeMode.Interactive)
        header.setStretchLastSection(True)
        header.sectionClicked.connect(self.sort_by)
        for at, width in enumerate(WIDTHS):
            table.setColumnWidth(at, width)
        table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        table.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        table.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        table.setTabKeyNavigation(False)
        table.setAccessibleName(tr("schedule of leaves"))
        table.selectionModel().selectionChanged.connect(lambda *_: self._count())
        table.doubleClicked.connect(lambda index: self._go(index.row()))
        return table

    def _change_row(self) -> QHBoxLayout:
        row = QHBoxLayout()
        row.addWidget(label("Change alike", "group"))
        self.field = ChoiceBox()
        self.field.setAccessibleName(tr("what is changed alike"))
        for each in ALIKE:
            self.field.addItem(tr(each.words))
        self.field.activated.connect(lambda _at: self._field_chosen())
        self.value = QuantityEdit("to", Unit.MM, lambda _value, _nudge: "", name="schedule.value", look=BoxLook.COMPACT)
        self.value.setFixedWidth(150)
        self.choice = ChoiceBox()
        self.choice.setMinimumWidth(240)
        self.choice.setAccessibleName(tr("to what it is changed"))
        self.set_button = QPushButton(tr("Set"))
        self.set_button.setObjectName("setAlike")
        self.set_button.clicked.connect(lambda _on=False: self.set_alike())
        for widget in (self.field, self.value, self.choice, self.set_button):
            row.addWidget(widget)
        row.addStretch(1)
        return row

    def _field_chosen(self) -> None:
        alike = ALIKE[self.field.currentIndex()]
        self.value.setVisible(alike.unit is not None)
        self.choice.setVisible(alike.unit is None)
        self.choice.clear()
        for words, value in alike.choices:
            self.choice.addItem(tr(words), value)

    # --- lines -------------------------------------------------------------------------------------------

    def refresh(self) -> None:
        """Show the leaves that answer to the words, in their order; what is chosen stays so."""
        chosen = set(self.chosen())
        leaves = {each.leaf.id: each for each in self.session.worked_out()}
        rows = [schedule_row(each) for each in leaves.values()]
        self.model.put(
            shown_rows(
                rows, words=self.look.text(), system=self.session.job.unit, by=self.by, downwards=self.downwards
            ),
            leaves,
            self.session.show,
        )
        for at, row in enumerate(self.model.rows):
            if row.leaf_id in chosen:
                flags = self.table.selectionModel().SelectionFlag
                self.table.selectionModel().select(self.model.index(at, 0), flags.Select | flags.Rows)
        self._count()

    def _job_changed(self) -> None:
        if self.isVisible():
            self.refresh()

    def _count(self) -> None:
        all_leaves, seen, chosen = len(self.session.job.leaves), len(self.model.rows), len(self.chosen())
        known = len(self.model.leaves)
        words = [f"{seen} of {all_leaves} leaves" if seen < all_leaves else f"{all_leaves} leaves"]
        words += [f"{all_leaves - known} being worked out"] if known < all_leaves else []
        words += [f"{chosen} chosen"] if chosen else []
        self.count.setText(tr(", ".join(words)))
        self.set_button.setEnabled(bool(chosen))
        leaves = "leaf" if chosen == 1 else "leaves"
        self.set_button.setText(tr(f"Set on {chosen} {leaves}" if chosen else "Choose leaves first"))

    def chosen(self) -> list[str]:
        """Return the ids of the leaves that are chosen, from the top down."""
        return [
            self.model.rows[each.row()].leaf_id
            for each in sorted(self.table.selectionModel().selectedRows(), key=lambda index: index.row())
            if each.row() < len(self.model.rows)
        ]

    def sort_by(self, column: int) -> None:
        """Sort by a column; again turns it round, a third time goes back to the job's own order."""
        name = COLUMNS[column]
        if not name:
            self.by, self.downwards = "", False
        elif self.by != name:
            self.by, self.downwards = name, False
        elif not self.downwards:
            self.downwards = True
        else:
            self.by, self.downwards = "", False
        header = self.table.horizontalHeader()
        header.setSortIndicatorShown(bool(self.by))
        if self.by:
            order = Qt.SortOrder.DescendingOrder if self.downwards else Qt.SortOrder.AscendingOrder
            header.setSortIndicator(column, order)
        self.refresh()

    def _go(self, row: int) -> None:
        self.session.choose_leaf(self.model.rows[row].leaf_id)

    # --- changing ------------------------------------------------------------------------------------------

    def set_alike(self) -> None:
        """Set the field on every chosen leaf, as one step to undo; all of them or none."""
        alike, ids = ALIKE[self.field.currentIndex()], self.chosen()
        if alike.unit is not None:
            if not self.value.commit():
                return
            value: Any = self.value.value
            if value is None:
                tell(self.note, "write what it is changed to", True)
                return
        else:
            value = self.choice.currentData()
        reason = self.session.push(f"{alike.words} alike", lambda job: changed_alike(job, ids, alike.path, value))
        told = reason or f"set on {len(ids)}. Ctrl+Z takes it back."
        tell(self.note, f"{alike.words}: {told}", bool(reason))

    def open_for(self) -> None:
        """Show it with the search in hand."""
        self.refresh()
        self.show()
        self.raise_()
        self.activateWindow()
        self.look.setFocus()
