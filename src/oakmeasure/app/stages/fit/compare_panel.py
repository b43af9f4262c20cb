"""Choices side by side: what each costs and means, and a word to take it by."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from statistics import median

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import QGridLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from oakmeasure.app.forms.notes import label, note_label, tell
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.stage_bar import paint_level
from oakmeasure.core.figures.check import Level, Remedy, Stage
from oakmeasure.core.fit.alternatives import Comparison, Option
from oakmeasure.core.reports.hinge_catalogue import catalogue
from oakmeasure.language import tr


class LevelMark(QWidget):
    """The shape of a level, with its word for those who do not see it."""

    def __init__(self, level: Level) -> None:
        super().__init__()
        self.level = level
        self.setFixedSize(QSize(20, 20))
        self.setAccessibleName(tr(level.words))
        self.setToolTip(tr(level.words))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_level(painter, self.level, QRectF(3, 4, 13, 12))
        painter.end()


NARROW = 480  # px of the panel, in which a last column of so many characters, or of so many columns, has no room
SHORT = 18
MANY = 6


class ComparePanel(QScrollArea):
    """All comparisons of the leaf in hand, one under the other."""

    def __init__(
        self, session: Session, shown: Callable[[], tuple[Comparison, ...]] | None = None, *, spacing: int = 3
    ) -> None:
        """shown: what is compared; None for what there is at the stage in hand. spacing: of its lines, px."""
        super().__init__()
        self.session = session
        self._choices = shown or self._of_the_stage
        self._spacing = spacing
        self.setObjectName("compare")
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.note = note_label()
        self.buttons: dict[str, QPushButton] = {}
        self._shown: tuple[tuple[Comparison, ...], bool] | None = None

    @property
    def _is_narrow(self) -> bool:
        return self.viewport().width() < NARROW

    def refresh(self) -> None:
        """Show the comparisons as they are now; built anew only when one of them changed, or they have less room."""
        choices = self._choices()
        if (choices, self._is_narrow) == self._shown:
            return
        self._shown = (choices, self._is_narrow)
        bar = self.verticalScrollBar()
        place = bar.value()
        self.buttons = {}
        body = QWidget()
        body.setObjectName("panel")
        column = QVBoxLayout(body)
        column.setContentsMargins(20, 8, 14, 12)
        column.setSpacing(4)
        if not choices:
            words = label(NOTHING[self.session.stage], "pencil")
            words.setWordWrap(True)
            column.addWidget(words)
        for each in choices:
            self._add(column, each)
        self.note = note_label()
        column.addWidget(self.note)
        column.addStretch(1)
        self.setWidget(body)
        self._give_height()
        bar.setValue(place)

    def _of_the_stage(self) -> tuple[Comparison, ...]:
        solved = self.session.solved
        if self.session.stage is Stage.HARDWARE:
            return catalogue(self.session.job, solved)
        return solved.leaf_choices if self.session.stage is Stage.LEAF else solved.fit_choices

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if self._shown is not None and self._shown[1] is not self._is_narrow:
            self.refresh()
        self._give_height()

    def _give_height(self) -> None:
        """Give the lines that wrap their height: a scroll area asks for the least, in which they would overlap."""
        body = self.widget()
        layout = body.layout() if body is not None else None
        if body is not None and layout is not None:
            body.setMinimumHeight(layout.heightForWidth(self.viewport().width()))

    def _add(self, column: QVBoxLayout, comparison: Comparison) -> None:
        column.addWidget(label(comparison.title, "group"))
        about = label(theme.typeset(comparison.about), "pencil")
        about.setWordWrap(True)
        column.addWidget(about)
        grid = QGridLayout()
        grid.setHorizontalSpacing(8 if self._is_narrow else 14)
        grid.setVerticalSpacing(self._spacing)
        last = len(comparison.columns) - 1
        lengths = [len(each.cells[last]) for each in comparison.options] or [0]
        under = self._is_narrow and (median(lengths) > SHORT or len(comparison.columns) > MANY)
        for at, title in enumerate(comparison.columns[: last if under else last + 1]):
            grid.addWidget(label(title, "pencil"), 0, at + 1, _side(title))
        for row, option in enumerate(comparison.options):
            line = 1 + 2 * row  # and one for what would be too narrow beside the others
            grid.addWidget(LevelMark(option.level), line, 0, Qt.AlignmentFlag.AlignTop)
            for at, text in enumerate(option.cells):
                cell = QLabel(theme.typeset(text))
                cell.setFont(theme.font(14, bold=at == 0))
                cell.setWordWrap(at == last)
                cell.setAlignment(_side(comparison.columns[at]) | Qt.AlignmentFlag.AlignTop)
                if under and at == last:
                    cell.setProperty("role", "pencil")
                    grid.addWidget(cell, line + 1, 1, 1, last + 2)
                else:
                    grid.addWidget(cell, line, at + 1)
            grid.addWidget(self._taker(comparison, option), line, last + 2, Qt.AlignmentFlag.AlignTop)
        grid.setColumnStretch(last + 1, 1)
        column.addLayout(grid)
        column.addSpacing(10)

    def _taker(self, comparison: Comparison, option: Option) -> QWidget:
        if option.is_taken:
            return label("taken", "pencil")
        if option.remedy is None or not option.remedy.path:
            return QLabel()
        button = QPushButton(tr("take"))
        button.setProperty("role", "link")
        button.setCursor(Qt.CursorShape.PointingHandCursor)
        button.setToolTip(tr("takes this way; Ctrl+Z takes it back"))
        button.setAccessibleName(tr(f"take {option.cells[0]}, {comparison.title}"))
        remedy = option.remedy
        button.clicked.connect(lambda: self._take(replace(remedy, text=f"take {option.cells[0]}")))
        self.buttons[option.cells[0]] = button
        return button

    def _take(self, remedy: Remedy) -> None:
        reason = self.session.take(remedy)
        tell(self.note, reason, bool(reason))


NOTHING = {
    Stage.HARDWARE: "No hinges carry this leaf: its gear is at Fit.",
    Stage.FIT: "Nothing to compare: this leaf is made to its cabinet, and its hinges come at Hardware.",
    Stage.LEAF: "Nothing to choose between. Write what comes off once the leaf is made: here stands all that it moves.",
}
NUMBERS = (
    "cost",
    "hours",
    "price",
    "track",
    "bevel",
    "gap at the back",
    "moves",
    "opens",
    "as made",
    "trimmed",
    "at the worst",
    "off each stile",
    "off the panels",
)


def _side(title: str) -> Qt.AlignmentFlag:
    return Qt.AlignmentFlag.AlignRight if title in NUMBERS else Qt.AlignmentFlag.AlignLeft
