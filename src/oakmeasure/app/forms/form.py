"""The stage sheet at the left: the boxes, choices and lists of one stage, built from groups, page by page."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from PySide6.QtCore import QCoreApplication, QEvent, Qt, Signal
from PySide6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from oakmeasure.app.forms.choice_box import ChoiceBox, ChoiceRow
from oakmeasure.app.forms.list_editor import ListRows
from oakmeasure.app.forms.notes import label, note_label, tell
from oakmeasure.app.forms.quantity_edit import NEXT_STATE, Asked, BoxLook, QuantityEdit
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.session import Session
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document import field_path
from oakmeasure.core.document.job import Reading
from oakmeasure.core.drawings.views import FitPage, HangPage, HardwarePage, LeafPage, MakePage, MeasurePage, TimberPage
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.forms.fields import Choice, Command, Field, Group, Panel, Rows
from oakmeasure.core.survey.adjust import Status
from oakmeasure.language import tr

# Px, beside a sheet's groups
MARGINS = (18, 16)
SCROLL_BAR = 12
ROOM = theme.SHEET_WIDE - sum(MARGINS) - SCROLL_BAR
BOX_PX = 20  # that a box in a row has round its words, which are set a little smaller than others
TAB_PX = 9  # that the name of a page has round it
LEAST_CHOICE = 140
MOST_CHOICE = 186


class GroupBox(QWidget):
    """One group, built when it is first shown."""

    def __init__(self, sheet: Form, group: Group) -> None:
        super().__init__()
        self.sheet, self.group = sheet, group
        self.entries: dict[str, QuantityEdit] = {}
        self.fields: dict[str, Field] = {}
        self.choices: list[tuple[Choice, ChoiceBox, list[Any], ChoiceRow]] = []
        self.lists: list[Any] = []  # rows and panels: each is refreshed
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.setSpacing(5)
        if group.title:
            self._add_head(group)
        if group.columns > 1:
            self._add_grid()
            return
        for item in group.items:
            if isinstance(item, Field):
                self._add_field(item)
            elif isinstance(item, Choice):
                self._add_choice(item)
            elif isinstance(item, Rows):
                self._add_rows(item)
            elif isinstance(item, Panel):
                made = item.make(self.sheet.session)
                self.lists.append(made)
                self._column.addWidget(made)
            else:
                self._add_command(item)

    def is_as_the_job(self) -> bool:
        """Return whether it holds nothing but what the job says: no panel of its own, nothing that was refused."""
        if any(isinstance(each, Panel) and each.keeps for each in self.group.items):
            return False
        lists = self.findChildren(ListRows)
        refused = any(each.property("refused") for each in self.findChildren(QuantityEdit))
        return not refused and all(each.is_as_the_job() for each in lists)

    def _add_head(self, group: Group) -> None:
        """Put the title down and what is said beside it, or under it where both are too long for a line."""
        head = QHBoxLayout()
        head.setContentsMargins(0, 8, 0, 0)
        title = label(group.title, "group")
        head.addWidget(title)
        head.addStretch(1)
        self._column.addLayout(head)
        if group.hint:
            hint = label(group.hint, "pencil")
            if title.sizeHint().width() + hint.sizeHint().width() + 8 > ROOM:
                hint.setWordWrap(True)
                self._column.addWidget(hint)
            else:
                head.addWidget(hint)

    def _columns(self) -> int:
        """Return how many boxes stand in a row: as many as are asked for, fewer where words need more room."""
        words = [tr(each.label) for each in self.group.items if isinstance(each, Field)]
        wide = max(map(self.fontMetrics().horizontalAdvance, words))
        fit = [many for many in range(self.group.columns, 1, -1) if (ROOM - 6 * (many - 1)) / many >= wide + BOX_PX]
        return fit[0] if fit else 1

    def _add_grid(self) -> None:
        grid = QGridLayout()
        grid.setSpacing(6)
        note = note_label()
        columns = self._columns()
        for at, item in enumerate(self.group.items):
            assert isinstance(item, Field)
            grid.addWidget(self._entry(item, note, compact=True), at // columns, at % columns)
        for column in range(columns):
            grid.setColumnStretch(column, 1)
        self._column.addLayout(grid)
        self._column.addWidget(note)

    def _add_field(self, field: Field) -> None:
        note = note_label()
        entry = self._entry(field, note, compact=False)
        entry.setFixedWidth(126)
        self._add_row(field.label, entry, entry.line)
        self._column.addWidget(note)

    def _add_row(self, words: str, box: QWidget, buddy: QWidget) -> None:
        row = QHBoxLayout()
        row.addWidget(self._title(words, buddy), 1)
        row.addWidget(box)
        self._column.addLayout(row)

    def _title(self, words: str, buddy: QWidget) -> QLabel:
        title = QLabel(tr(words))
        title.setWordWrap(True)
        title.setBuddy(buddy)
        return title

    def _entry(self, field: Field, note: QLabel, *, compact: bool) -> QuantityEdit:
        sheet = self.sheet
        entry = QuantityEdit(
            field.label,
            field.unit,
            lambda value, nudge: sheet.commit(field, value, nudge, entry),
            name=field.path,
            look=BoxLook.COMPACT if compact else BoxLook.ROW,
            asks=Asked(signed=field.signed, optional=field.optional, has_state=field.has_state, note=field.note),
        )
        entry.told.connect(lambda text, refused: tell(note, text, refused))
        entry.entered.connect(lambda focused: sheet.entered(field, focused))
        entry.state_asked.connect(lambda: sheet.next_state(field))
        self.entries[field.path] = entry
        self.fields[field.path] = field
        return entry

    def _add_choice(self, choice: Choice) -> None:
        combo = ChoiceBox()
        combo.setObjectName(choice.name)
        combo.setAccessibleName(tr(choice.label))
        combo.setToolTip(tr(choice.note))
        keys = []
        for key, text in choice.options():
            combo.addItem(tr(text))
            keys.append(key)
        note = note_label()
        combo.activated.connect(lambda at: self.sheet.choose(choice, keys[at], note))
        title = self._title(choice.label, combo)
        # A long word beside it takes a little of its room.
        longest = max(map(self.fontMetrics().horizontalAdvance, title.text().split()), default=0)
        row = ChoiceRow(title, combo, beside=max(LEAST_CHOICE, min(MOST_CHOICE, ROOM - 8 - longest)), under=ROOM)
        self._column.addLayout(row)
        self._column.addWidget(note)
        self.choices.append((choice, combo, keys, row))

    def _add_rows(self, rows: Rows) -> None:
        made = ListRows(self.sheet.session, rows)
        made.pointed.connect(self.sheet.session.light)
        self.lists.append(made)
        self._column.addWidget(made)

    def _add_command(self, command: Command) -> None:
        button = QPushButton(tr(command.label))
        button.setProperty("role", "link")
        button.setObjectName(command.ask)
        button.setToolTip(tr(command.note))
        button.clicked.connect(lambda: self.sheet.asked.emit(command.ask))
        self._column.addWidget(button, alignment=Qt.AlignmentFlag.AlignLeft)


class Form(QWidget):
    """All groups of one stage, those of one page at a time. Signals: `asked(ask)`, `page_changed`."""

    asked = Signal(object)
    page_changed = Signal()

    def __init__(self, session: Session, groups: Sequence[Group]) -> None:
        super().__init__()
        self.session, self.groups = session, groups
        order = {
            page: at
            for at, page in enumerate(
                (*MeasurePage, *FitPage, *LeafPage, *TimberPage, *HardwarePage, *MakePage, *HangPage)
            )
        }
        self.pages = sorted({each.page for each in self.groups}, key=lambda page: order.get(page, 0))
        self.page = self.pages[0]
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        self._tabs: dict[str, QToolButton] = {}
        if len(self.pages) > 1:
            outer.addLayout(self._tab_row())
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        self._scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        body = QWidget()
        body.setObjectName("sheet")
        self._column = QVBoxLayout(body)
        self._column.setContentsMargins(MARGINS[0], 6 if self._tabs else 14, MARGINS[1], 14)
        self._column.setSpacing(5)
        self._boxes: list[GroupBox | None] = [None] * len(self.groups)
        self._column.addStretch(1)
        self._scroll.setWidget(body)
        outer.addWidget(self._scroll, 1)
        session.lit_changed.connect(self._light)

    def _tab_row(self) -> QVBoxLayout:
        """Return the names of the pages in a row, or in two where they are too long for one."""
        rows = QVBoxLayout()
        rows.setContentsMargins(8, 8, 2, 0)
        rows.setSpacing(0)
        row, taken = QHBoxLayout(), 0
        rows.addLayout(row)
        for page in self.pages:
            tab = QToolButton()
            tab.setText(tr(page))
            tab.setCheckable(True)
            tab.setObjectName(f"page-{page}")
            tab.setAccessibleName(tr(f"page {page}"))
            tab.setProperty("role", "page")
            tab.clicked.connect(lambda _on, page=page: self.go_to_page(page))
            self._tabs[page] = tab
            tab.ensurePolished()
            wide = tab.fontMetrics().horizontalAdvance(tab.text()) + TAB_PX
            taken += wide
            if taken > theme.SHEET_WIDE - 10:
                row.addStretch(1)
                row, taken = QHBoxLayout(), wide
                rows.addLayout(row)
            row.addWidget(tab)
        row.addStretch(1)
        return rows

    # --- what is there -------------------------------------------------------------------------------------

    @property
    def entries(self) -> dict[str, QuantityEdit]:
        """Return the boxes that are built, by the path of their field."""
        shown_last = sorted(self._built(), key=lambda box: not box.isHidden())  # constructions share some fields
        return {path: entry for box in shown_last for path, entry in box.entries.items()}

    def _built(self) -> Iterator[GroupBox]:
        return (each for each in self._boxes if each is not None)

    def _is_asked(self, group: Group) -> bool:
        return group.page == self.page and (group.when is None or group.when(self.session.leaf))

    def go_to_page(self, page: str) -> None:
        """Show another page."""
        self.page = page
        self.page_changed.emit()  # whoever shows it asks it to be refreshed

    # --- showing -----------------------------------------------------------------------------------------

    def refresh(self) -> None:
        """Show the job as it is now; changes nothing."""
        has = {group.page for group in self.groups if group.when is None or group.when(self.session.leaf)}
        if self.page not in has:  # another leaf, which has no such page
            self.page = next(page for page in self.pages if page in has)
        for page, tab in self._tabs.items():
            tab.setVisible(page in has)
            tab.setChecked(page == self.page)
        for at, group in enumerate(self.groups):
            asked = self._is_asked(group)
            box = self._boxes[at]
            if asked and box is None:
                box = self._boxes[at] = GroupBox(self, group)
                before = sum(each is not None for each in self._boxes[:at])
                self._column.insertWidget(before, box)
            if box is not None:
                if not asked and group.page == self.page:  # no longer asked: what was refused there goes with it
                    for entry in box.entries.values():
                        entry.give_back()
                box.setVisible(asked)
                if asked:
                    self._refresh(box)

    def forget_hidden(self) -> None:
        """Take away the groups that are not on the screen, and the ends of long lists; both come again when asked for.

        What somebody has written in one stays: a refused value, and all that a panel of its own holds.
        """
        shown = self.isVisible()
        for at, box in enumerate(self._boxes):
            if box is not None and not (shown and box.isVisible()) and box.is_as_the_job():
                self._boxes[at] = None
                box.hide()
                self._column.removeWidget(box)
                box.deleteLater()
                QCoreApplication.sendPostedEvents(box, QEvent.Type.DeferredDelete)
            elif box is not None:
                for each in box.findChildren(ListRows):
                    each.shorten()

    def _refresh(self, box: GroupBox) -> None:
        leaf, solved, show = self.session.leaf, self.session.solved, self.session.show
        judged: Any = solved.opening.adjustment.readings if solved.opening.adjustment else {}
        for path, entry in box.entries.items():
            field = box.fields[path]
            value = field_path.get(leaf, path)
            state: Provenance | None = None
            if isinstance(value, Reading):
                state, value = value.state, value.value
            placeholder = ""
            figure = solved.figures.get(figure_name(field.figure)) if field.figure and value is None else None
            if figure is not None:
                placeholder = show.value(figure.value, field.unit, with_unit=False)
            entry.show_value(value, show, placeholder=placeholder, state=state)
            if path.startswith("readings."):
                reading = judged.get(path.partition(".")[2])
                entry.set_flag("doubted", reading is not None and reading.status is not Status.USED)
        for choice, combo, keys, row in box.choices:
            key = choice.get(self.session.job, self.session.leaf_id)
            combo.setCurrentIndex(keys.index(key) if key in keys else -1)
            if choice.other is not None:
                combo.show_other(choice.other(self.session.job, self.session.leaf_id))
            row.fit()
        for each in box.lists:
            each.refresh()

    def _light(self) -> None:
        for box in self._built():
            for path, entry in box.entries.items():
                ref = box.fields[path].ref
                entry.set_flag("lit", bool(ref) and ref == self.session.lit and not entry.line.hasFocus())

    def focus_first(self) -> None:
        """Put the cursor into the first box."""
        for box in self._built():
            if box.isHidden():
                continue
            for entry in box.entries.values():
                entry.line.setFocus()
                return

    def focus_field(self, path: str) -> bool:
        """Put the cursor into the box of a field, turning to its page; False when this sheet has none."""
        for group in self.groups:
            if any(isinstance(each, Field) and each.path == path for each in group.items):
                if group.when is not None and not group.when(self.session.leaf):
                    continue
                if group.page != self.page:
                    self.go_to_page(group.page)
                entry = self.entries[path]
                entry.line.setFocus()
                entry.line.selectAll()
                self._scroll.ensureWidgetVisible(entry)
                return True
        return False

    # --- intents -----------------------------------------------------------------------------------------

    def commit(self, field: Field, value: float | None, nudge: bool, entry: QuantityEdit) -> str:
        """Set a field to what was written in its box; with "± 1" behind it, also how sure it is."""
        given: Any = value
        if field.unit is Unit.COUNT and value is not None:
            if value != int(value):
                return "needs a whole number"
            given = int(value)
        if field.has_state and value is not None and entry.sigma is not None:
            given = Reading(value=value, sigma=entry.sigma)
        return self.session.edit(field.path, given, nudge=nudge)

    def choose(self, choice: Choice, key: Any, note: QLabel) -> None:
        """Make a choice; a refusal is said under it and the box goes back."""
        leaf_id = self.session.leaf_id
        reason = self.session.push(f"choose {choice.label.lower()}", lambda job: choice.put(job, leaf_id, key))
        tell(note, reason, bool(reason))
        if reason:
            self.refresh()

    def entered(self, field: Field, focused: bool) -> None:
        self.session.light(field.ref if focused else "")
        if focused:
            figure = field.figure or field.path.rpartition(".")[2]
            if field.path.startswith("readings."):
                figure = f"reading_{figure}"
            elif field.path.startswith("hardware.butt."):
                figure = f"butt_{figure}"
            worked_out = self.session.solved.figures.get(figure_name(figure))
            if worked_out is not None and len(worked_out.rows) > 1:
                self.session.show_working(figure)

    def next_state(self, field: Field) -> None:
        reading = field_path.get(self.session.leaf, field.path)
        if isinstance(reading, Reading):
            self.session.set_state(field.path, NEXT_STATE[reading.state])
