"""The leaf beside itself in another construction: which one, and the table of both."""

from __future__ import annotations

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.forms.notes import label
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.fit.compare_panel import ComparePanel
from oakmeasure.core.edits import job_edits
from oakmeasure.core.reports.compare_constructions import other_kinds
from oakmeasure.language import tr


class BesidePanel(QWidget):
    """Signal `chosen()` when another construction is to be shown beside the leaf."""

    chosen = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 4, 0, 0)
        column.setSpacing(0)
        row = QHBoxLayout()
        row.setContentsMargins(20, 4, 14, 0)
        row.setSpacing(12)
        row.addWidget(label("beside it", "pencil"))
        self.box = ChoiceBox()
        self.box.setObjectName("beside")
        self.box.setAccessibleName(tr("construction to compare with"))
        self.box.setMinimumWidth(220)
        self.box.activated.connect(self._choose)
        row.addWidget(self.box)
        self.take = QPushButton(tr("Build it so"))
        self.take.setProperty("role", "link")
        self.take.setToolTip(tr("takes this construction; Ctrl+Z takes it back"))
        self.take.clicked.connect(self._take)
        row.addWidget(self.take)
        row.addStretch(1)
        column.addLayout(row)
        self.table = ComparePanel(session, lambda: (session.beside().table,), spacing=1)
        column.addWidget(self.table, 1)

    def refresh(self) -> None:
        """Show the table, and the constructions that the leaf is not built in."""
        kinds = other_kinds(self.session.leaf.build.kind)
        if [self.box.itemData(at) for at in range(self.box.count())] != [key for key, _ in kinds]:
            self.box.clear()
            for key, name in kinds:
                self.box.addItem(tr(name), key)
        self.box.setCurrentIndex([key for key, _ in kinds].index(self.session.beside_kind()))
        self.table.refresh()

    def _take(self) -> None:
        kind = self.session.beside_kind()
        self.session.push("build it so", lambda job: job_edits.with_construction(job, self.session.leaf_id, kind))

    def _choose(self, at: int) -> None:
        self.session.put_beside(self.box.itemData(at))
        self.chosen.emit()
