"""The shop rules of the job: each with its value and its reason, each to be changed."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QDialogButtonBox, QGridLayout, QLabel, QScrollArea, QVBoxLayout, QWidget

from oakmeasure.app.forms.notes import label, tell
from oakmeasure.app.forms.quantity_edit import QuantityEdit
from oakmeasure.app.shell.session import Session
from oakmeasure.core.document.rules import RULE_KINDS
from oakmeasure.core.edits import job_edits
from oakmeasure.language import tr


class RulesDialog(QDialog):
    """All rules by group. A change is an edit of the job like any other: the leaf moves at once, undo takes it back."""

    def __init__(self, parent: QWidget | None, session: Session) -> None:
        super().__init__(parent)
        self.session = session
        self.setWindowTitle(tr("Shop rules"))
        self.resize(720, 620)
        self._entries: dict[str, QuantityEdit] = {}
        self._reasons: dict[str, QLabel] = {}
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 16, 16, 14)
        self._name = label("", "head")
        column.addWidget(self._name)
        self._about = label("", "pencil")
        column.addWidget(self._about)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        body = QWidget()
        body.setObjectName("sheet")
        self._grid = QGridLayout(body)
        self._grid.setContentsMargins(12, 8, 12, 12)
        self._grid.setHorizontalSpacing(14)
        self._grid.setColumnStretch(2, 1)
        scroll.setWidget(body)
        column.addWidget(scroll, 1)
        self._note = label("", "refused")
        self._note.hide()
        column.addWidget(self._note)
        buttons = QDialogButtonBox()
        buttons.addButton(tr("Done"), QDialogButtonBox.ButtonRole.AcceptRole)
        buttons.accepted.connect(self.accept)
        column.addWidget(buttons)
        self._fill()
        session.changed.connect(self.refresh)
        self.refresh()
        next(iter(self._entries.values())).line.setFocus()

    def _fill(self) -> None:
        group, row = "", 0
        for name, kind in RULE_KINDS.items():
            if kind.group != group:
                group = kind.group
                self._grid.addWidget(label(group, "group"), row, 0, 1, 3)
                row += 1
            entry = QuantityEdit(f"{group}, {kind.label}", kind.unit, partial(self._commit, name), name=f"rules.{name}")
            entry.setFixedWidth(120)
            entry.told.connect(lambda text, refused: tell(self._note, text if refused else "", refused))
            title = QLabel(tr(kind.label))
            title.setWordWrap(True)
            title.setFixedWidth(230)
            reason = label("", "pencil")
            reason.setWordWrap(True)
            self._entries[name], self._reasons[name] = entry, reason
            for at, widget in enumerate((title, entry, reason)):
                self._grid.addWidget(widget, row, at)
            row += 1

    def refresh(self) -> None:
        """Show the set of the job as it is now."""
        rules, show = self.session.job.rules, self.session.show
        self._name.setText(tr(rules.name))
        self._about.setText(tr(rules.about))
        for name, entry in self._entries.items():
            rule = getattr(rules, name)
            entry.show_value(rule.value, show)
            self._reasons[name].setText(tr(rule.reason))

    def _commit(self, name: str, value: float | None, nudge: bool) -> str:
        if value is None:
            return "needs a value"
        key = f"rule:{name}" if nudge else ""
        return self.session.push("change a shop rule", lambda job: job_edits.with_rule(job, name, value), key=key)
