"""The strip over the plan: which wood, what it costs, how near that is proven, how far the search is, stop and go."""

from __future__ import annotations

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QProgressBar, QPushButton, QToolButton, QVBoxLayout, QWidget

from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.forms.notes import label
from oakmeasure.core.base.units import Show, counted
from oakmeasure.core.planning.plan_model import JobPlan, LotPlan
from oakmeasure.language import tr

STEPS = 1000


def lot_words(lot: LotPlan, show: Show) -> str:
    """Return a lot in the choice of woods."""
    size = show.length(lot.lot.thickness)
    if lot.lot.width:
        size = show.size(lot.lot.width, lot.lot.thickness)
    return f"{lot.lot.title}, {size}"


def proof_words(cost: float, bound: float, gap: float, *, least: bool) -> str:
    """Return how near a cost is to the least possible."""
    return f"{cost:.2f}: least possible" if least else f"{cost:.2f}, at least {bound:.2f}, gap {gap:.1%}"


class PlanStrip(QWidget):
    """Signals: `stopped`, `asked` (plan anew), `lot_chosen(at)`, `turned(by)`, `done(what)` for words at its end."""

    stopped = Signal()
    asked = Signal()
    lot_chosen = Signal(int)
    done = Signal(str)
    turned = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("planStrip")
        column = QVBoxLayout(self)
        column.setContentsMargins(22, 4, 22, 4)
        column.setSpacing(4)
        row = QHBoxLayout()
        row.setSpacing(10)
        self.lots = ChoiceBox()
        self.lots.setObjectName("lots")
        self.lots.setAccessibleName(tr("which wood is shown"))
        self.lots.setMinimumWidth(170)
        self.lots.activated.connect(self.lot_chosen)
        row.addWidget(self.lots)
        self.lot = label("", "sum")
        self.lot.setObjectName("lotProof")
        self.lot.setWordWrap(True)
        row.addWidget(self.lot, 1)
        self._runs = True
        self.go = QPushButton(tr("Stop"))
        self.go.setObjectName("planGo")
        self.go.clicked.connect(lambda: self.stopped.emit() if self._runs else self.asked.emit())
        row.addWidget(self.go)
        column.addLayout(row)
        below = QHBoxLayout()
        below.setSpacing(10)
        self.all = label("", "pencil")
        self.all.setObjectName("planProof")
        below.addWidget(self.all)
        self.bar = QProgressBar()
        self.bar.setRange(0, STEPS)
        self.bar.setTextVisible(False)
        self.bar.setFixedHeight(6)
        self.bar.setAccessibleName(tr("how much of the time is gone"))
        below.addWidget(self.bar, 1)
        column.addLayout(below)
        self._lay_ends(column)

    def _lay_ends(self, column: QVBoxLayout) -> None:
        """Lay out the pages of a wood, and what can be done with what was clicked."""
        self._ends = QHBoxLayout()
        self._ends.setSpacing(6)
        self.hint: QLabel = label("", "pencil")
        self.pages = label("", "pencil")
        self.back, self.on = QToolButton(), QToolButton()
        for button, sign, by in ((self.back, "‹", -1), (self.on, "›", 1)):
            button.setText(tr(sign))
            button.setObjectName("plan-back" if by < 0 else "plan-on")
            button.setAccessibleName(tr("boards before" if by < 0 else "boards after"))
            button.setProperty("role", "gauge")
            button.clicked.connect(lambda _on=False, by=by: self.turned.emit(by))
        self._ends.addWidget(self.back)
        self._ends.addWidget(self.pages)
        self._ends.addWidget(self.on)
        self._ends.addSpacing(12)
        self._ends.addWidget(self.hint, 1)
        self.buttons: dict[str, QToolButton] = {}
        for name, words in (
            ("pin", "Keep it on this board"),
            ("unpin", "Take the pin out"),
            ("forbid", "Leave it out"),
            ("cut", "It is cut"),
        ):
            button = QToolButton()
            button.setObjectName(f"plan-{name}")
            button.setText(tr(words))
            button.setProperty("role", "gauge")
            button.clicked.connect(lambda _on=False, name=name: self.done.emit(name))
            self.buttons[name] = button
            self._ends.addWidget(button)
        column.addLayout(self._ends)

    def show_plan(
        self, plan: JobPlan | None, at: int, show: Show, *, progress: float | None, missing: int, trouble: str
    ) -> None:
        """Show how far the search is, None where none runs, and the wood that is looked at."""
        running = progress is not None
        self._runs = running
        self.go.setText(tr("Stop" if running else "Plan again"))
        self.bar.setValue(round(STEPS * (progress or 0.0)))
        self.bar.setVisible(running)
        if plan is None:
            self.lot.setText(tr("looking for a first plan" if running else "nothing to cut"))
            self.all.setText("")
            return
        words = [lot_words(each, show) for each in plan.lots]
        self.lots.offer(words)
        self.lots.setCurrentIndex(at)
        if 0 <= at < len(plan.lots):
            lot = plan.lots[at]
            self.lot.setText(
                tr(
                    f"{counted(len(lot.stock), 'piece')}   "
                    + proof_words(lot.cost, lot.bound, lot.plan.gap, least=lot.plan.is_least)
                )
            )
        rest = f", {missing} more to come" if missing else ""
        proven = plan.is_least and not missing
        self.all.setText(tr(trouble or f"all wood{rest}: {proof_words(plan.cost, plan.bound, plan.gap, least=proven)}"))

    def show_page(self, first: int, last: int, whole: int) -> None:
        """Say which boards of the wood are shown; with one page alone nothing is said."""
        for each in (self.back, self.on, self.pages):
            each.setVisible(last - first + 1 < whole)
        self.pages.setText(tr(f"{first} to {last} of {whole}"))
        self.back.setEnabled(first > 1)
        self.on.setEnabled(last < whole)

    def show_actions(self, hint: str, names: tuple[str, ...]) -> None:
        """Offer what can be done with what was clicked."""
        self.hint.setText(tr(hint))
        for name, button in self.buttons.items():
            button.setVisible(name in names)
