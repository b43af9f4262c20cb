"""The job line: the job, its leaves as small silhouettes, the box that finds anything, the unit, paper and files."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize, QStringListModel, Qt, Signal
from PySide6.QtGui import QColor, QFocusEvent, QPainter, QPaintEvent, QPen, QResizeEvent
from PySide6.QtWidgets import QButtonGroup, QCompleter, QHBoxLayout, QLabel, QLineEdit, QMenu, QToolButton, QWidget

from oakmeasure.app.canvas.silhouette import paint_parts
from oakmeasure.app.forms.clickable import Clickable
from oakmeasure.app.forms.notes import label
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.session import Session
from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.sums.registry import SUMS
from oakmeasure.language import tr

SILHOUETTE_HEIGHT = 36.0
TALLEST_MM = 2200.0
WIDEST = 26.0
RACK = 8  # leaves that stand on the job line at once; the others are in the list beside them


def solved_height(solved: LeafSolution) -> float:
    """Return how tall a leaf is drawn, mm; of one that is not built yet, the largest that its opening takes."""
    return max(solved.fit.height.value, 100.0)


class Silhouette(Clickable):
    """One leaf, small and to scale; click to work on it."""

    def __init__(self, leaf: Leaf, number: int) -> None:
        super().__init__()
        self.leaf, self.number, self.current = leaf, 0, False
        self.solved: LeafSolution | None = None
        self.show_leaf(leaf, None, number, current=False)

    def show_leaf(self, leaf: Leaf, solved: LeafSolution | None, number: int, *, current: bool) -> None:
        """Show a leaf as it is now; one that is not worked out yet as a blank."""
        if (leaf, current) == (self.leaf, self.current) and solved is self.solved and number == self.number:
            return  # nothing to paint again: most edits touch one leaf of the rack
        self.leaf, self.solved, self.current, self.number = leaf, solved, current, number
        keys = f" (Alt+{self.number})" if self.number < 10 else ""
        self.setToolTip(f"{leaf.name}{keys}")
        self.setAccessibleName(tr(f"leaf {self.number}, {leaf.name}"))
        wide, tall = (max(solved.fit.width.value, 1.0), solved_height(solved)) if solved else (700.0, 2000.0)
        self._scale = min(SILHOUETTE_HEIGHT / max(TALLEST_MM, tall), WIDEST / wide)
        self.setFixedSize(max(26, int(wide * self._scale) + 14), 48)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        p = theme.palette()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.current:
            painter.fillRect(QRectF(0, self.height() - 3, self.width(), 3), QColor(p.accent))
        if self.hasFocus():
            painter.setPen(QPen(QColor(p.accent), 2))
            painter.drawRect(QRectF(self.rect()).adjusted(1, 1, -1, -1))
        build = self.solved.build if self.solved else None
        left, foot = 7.0, self.height() - 6.0
        painter.setPen(QPen(QColor(p.ink if self.current else p.pencil), 1.0))
        if build is None:
            pen = QPen(QColor(p.ink if self.current else p.pencil), 1.0, Qt.PenStyle.DashLine)
            painter.setPen(pen)
            tall = (solved_height(self.solved) if self.solved else 2000.0) * self._scale
            painter.drawRect(QRectF(left, foot - tall, self.width() - 14, tall))
            painter.end()
            return
        paint_parts(painter, self.leaf, build, left, foot, self._scale)
        painter.end()


class Find(QLineEdit):
    """Finds a figure, a part, a check or a quick sum by its words. Signal `found(kind, key)`."""

    found = Signal(str, str)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("find")
        self.setPlaceholderText(tr("Search this job   Ctrl+K"))
        self.setAccessibleName(tr("Search for a size, a part, a check or a quick sum"))
        self.setMinimumWidth(130)
        self._targets: dict[str, tuple[str, str]] = {}
        self._model = QStringListModel()
        finder = QCompleter(self._model, self)
        finder.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        finder.setFilterMode(Qt.MatchFlag.MatchContains)
        finder.setMaxVisibleItems(12)
        finder.activated.connect(self._go)
        self.setCompleter(finder)
        self.returnPressed.connect(self._first)

    def focusInEvent(self, event: QFocusEvent) -> None:
        self.renew()
        super().focusInEvent(event)

    def renew(self) -> None:
        """Gather what can be found now."""
        show, solved = self.session.show, self.session.solved
        targets: dict[str, tuple[str, str]] = {}
        for figure in solved.figures:
            if not figure.name.startswith(("volume_", "area_")):
                targets[tr(f"{figure.label}: {show.value(figure.value, figure.unit)}")] = ("figure", figure.name)
        for part in solved.cut_parts:
            targets[tr(f"{part.name}, part")] = ("part", f"part:{part.name}")
        for check in solved.checks:
            targets[tr(f"{check.title} ({check.level.words})")] = ("check", check.code)
        for quick in SUMS.values():
            targets[tr(f"{quick.title}, quick sum")] = ("sum", quick.name)
        self._targets = targets
        # What is of this leaf comes before the sums that are of none.
        self._model.setStringList(sorted(targets, key=lambda each: (targets[each][0] == "sum", each)))

    def _first(self) -> None:
        finder = self.completer()
        if self.text() in self._targets:
            self._go(self.text())
        elif finder.completionCount():
            finder.setCurrentRow(0)
            self._go(finder.currentCompletion())

    def _go(self, text: str) -> None:
        target = self._targets.get(text)
        if target is not None:
            self.found.emit(*target)
            self.clear()


class Short(QLabel):
    """One line of text that ends in … where it has no room; the whole of it is its tool tip."""

    def __init__(self, widest: int, least: int) -> None:
        super().__init__()
        self._widest, self._least, self._whole = widest, least, ""

    def show_text(self, text: str) -> None:
        if text != self._whole:
            self._whole = text
            self.setToolTip(text)
            self.setAccessibleName(text)
            self.updateGeometry()
            self._fit()

    def _wide(self) -> int:
        return min(self.fontMetrics().horizontalAdvance(self._whole) + 4, self._widest)

    def sizeHint(self) -> QSize:
        return QSize(self._wide(), self.fontMetrics().height() + 4)

    def minimumSizeHint(self) -> QSize:
        return QSize(min(self._wide(), self._least), self.fontMetrics().height() + 4)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        self.setText(self.fontMetrics().elidedText(self._whole, Qt.TextElideMode.ElideRight, self.width()))


class JobLine(QWidget):
    """Signals: `leaf_chosen(id)`, `unit_chosen(system)`, `found(kind, key)`."""

    leaf_chosen = Signal(str)
    unit_chosen = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("jobLine")
        self.setFixedHeight(theme.LINE_HIGH)
        row = QHBoxLayout(self)
        row.setContentsMargins(18, 0, 14, 0)
        row.setSpacing(10)
        self.name = Short(210, 90)
        self.name.setProperty("role", "head")
        row.addWidget(self.name)
        self._rack = QHBoxLayout()
        self._rack.setSpacing(2)
        row.addLayout(self._rack)
        self.leaf_name = Short(150, 80)
        self.leaf_name.setObjectName("leafName")
        row.addWidget(self.leaf_name)
        self.all_leaves = QToolButton()
        self.all_leaves.setObjectName("allLeaves")
        self.all_leaves.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self._leaf_menu = QMenu(self)
        self._leaf_menu.aboutToShow.connect(self._fill_leaf_menu)
        self.all_leaves.setMenu(self._leaf_menu)
        row.addWidget(self.all_leaves)
        row.addStretch(1)
        self.finder = Find(session)
        self.finder.setMaximumWidth(270)
        row.addWidget(self.finder, 20)
        self.units = QButtonGroup(self)
        for system in UnitSystem:
            button = QToolButton()
            button.setText(tr(str(system)))
            button.setCheckable(True)
            button.setObjectName(f"unit-{system}")
            button.setAccessibleName(tr(f"show {system}"))
            self.units.addButton(button, list(UnitSystem).index(system))
            button.clicked.connect(lambda _on, system=system: self.unit_chosen.emit(system))
            row.addWidget(button)
        self.saved = label("", "pencil")
        self.saved.setFixedWidth(62)  # so that nothing moves when a job becomes unsaved
        row.addWidget(self.saved)
        self.paper = QToolButton()
        self.paper.setObjectName("paper")
        self.paper.setText(tr("Paper and files"))
        self.paper.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        row.addWidget(self.paper)
        self._silhouettes: list[Silhouette] = []
        self._first = 0

    def refresh(self) -> None:
        """Show the job as it is now."""
        session = self.session
        self.name.show_text(session.job.name)
        self.leaf_name.show_text(session.leaf.name)
        self.units.button(list(UnitSystem).index(session.job.unit)).setChecked(True)
        self.refresh_saved()
        ids = [each.id for each in session.job.leaves]
        first = self._first_shown(ids.index(session.leaf_id), len(ids))
        self.all_leaves.setVisible(len(ids) > RACK)
        self.all_leaves.setText(tr(f"{ids.index(session.leaf_id) + 1} of {len(ids)} ▾"))
        self.all_leaves.setAccessibleName(tr(f"leaf {ids.index(session.leaf_id) + 1} of {len(ids)}, choose another"))
        leaves = session.job.leaves[first : first + RACK]
        while len(self._silhouettes) > len(leaves):
            old = self._silhouettes.pop()
            old.hide()
            old.deleteLater()
        while len(self._silhouettes) < len(leaves):
            at = len(self._silhouettes)
            made = Silhouette(leaves[at], first + at + 1)
            made.clicked.connect(lambda made=made: self.leaf_chosen.emit(made.leaf.id))
            self._rack.addWidget(made)
            self._silhouettes.append(made)
        for at, (silhouette, leaf) in enumerate(zip(self._silhouettes, leaves, strict=True)):
            known, current = session.solution.known(leaf.id), leaf.id == session.leaf_id
            silhouette.show_leaf(leaf, known, first + at + 1, current=current)

    def _first_shown(self, current: int, count: int) -> int:
        """Return which leaf stands first on the rack: the one in hand is on it, and it moves no more than needed."""
        self._first = min(max(self._first, current - RACK + 1, 0), current, max(count - RACK, 0))
        return self._first

    def _fill_leaf_menu(self) -> None:
        self._leaf_menu.clear()
        for at, leaf in enumerate(self.session.job.leaves, start=1):
            action = self._leaf_menu.addAction(f"{at}  {leaf.name}")
            action.setCheckable(True)
            action.setChecked(leaf.id == self.session.leaf_id)
            action.triggered.connect(lambda _on=False, leaf_id=leaf.id: self.leaf_chosen.emit(leaf_id))

    def refresh_saved(self) -> None:
        session = self.session
        self.saved.setText(
            tr("saved" if session.is_saved and session.path else "not saved" if not session.is_saved else "")
        )

    def sizeHint(self) -> QSize:
        return QSize(1280, 54)
