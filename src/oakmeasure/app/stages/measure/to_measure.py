"""The list of all that is still to be measured, with what hangs on it; a row leads to its box."""

from __future__ import annotations

from PySide6.QtWidgets import QDialog, QDialogButtonBox, QVBoxLayout, QWidget

from oakmeasure.app.forms.notes import label
from oakmeasure.app.shell.part_lists import ListRow, RecordList
from oakmeasure.app.shell.session import Session
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.reports.open_readings import StillToMeasure, all_to_measure
from oakmeasure.language import tr

HEADER = ("leaf", "what", "known as", "on it hang")


class ToMeasureDialog(QDialog):
    """All leaves together, what is assumed before what is from a table."""

    def __init__(self, parent: QWidget | None, session: Session) -> None:
        super().__init__(parent)
        self.session = session
        self.setWindowTitle(tr("Still to be measured"))
        self.resize(860, 560)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 16, 16, 14)
        self.items = all_to_measure(session.solution.leaves)
        assumed = sum(each.state is Provenance.ASSUMED for each in self.items)
        column.addWidget(label(f"{assumed} assumed, {len(self.items) - assumed} from a table", "head"))
        column.addWidget(label("Choose one to go to its box. Nothing is cut to an assumed figure.", "pencil"))
        self.list = RecordList()
        self.list.setAccessibleName(tr("what is still to be measured"))
        self.list.show_records(HEADER, [_record(at, each) for at, each in enumerate(self.items)])
        self.list.clearSelection()
        self.list.chosen.connect(self._go)
        column.addWidget(self.list, 1)
        buttons = QDialogButtonBox()
        buttons.addButton(tr("Done"), QDialogButtonBox.ButtonRole.AcceptRole)
        buttons.accepted.connect(self.accept)
        column.addWidget(buttons)

    def _go(self, ref: str) -> None:
        item = self.items[int(ref)]
        self.session.choose_leaf(item.leaf_id)
        self.session.go_to(Stage.HARDWARE if item.edit.startswith("hardware") else Stage.MEASURE)
        self.session.show_working(item.name)
        self.accept()
        if item.edit:
            self.session.field_asked.emit(item.edit)


def _record(at: int, item: StillToMeasure) -> ListRow:
    hangs = ", ".join(item.hangs)
    if item.others:
        hangs = f"{hangs} and {item.others} more" if hangs else f"{item.others} figures"
    return ListRow((item.leaf_name, item.label, str(item.state), hangs or "nothing yet"), str(at))
