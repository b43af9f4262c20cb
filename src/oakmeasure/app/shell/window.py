"""The main window: job line, rod, stage sheet, board, checks and working."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtGui import QCloseEvent, QKeySequence, QResizeEvent, QShortcut
from PySide6.QtWidgets import QHBoxLayout, QMainWindow, QStackedWidget, QVBoxLayout, QWidget

from oakmeasure.app.commands.menu import Commands
from oakmeasure.app.commands.papers import Host
from oakmeasure.app.forms.form import Form
from oakmeasure.app.shell import theme, titles
from oakmeasure.app.shell.board_hands import BoardHands
from oakmeasure.app.shell.board_view import drawing_of
from oakmeasure.app.shell.centre import EXAGGERATION, Middle
from oakmeasure.app.shell.job_bar import JobLine
from oakmeasure.app.shell.last_seen import Seen
from oakmeasure.app.shell.part_lists import Listed, list_of_page
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.side_panel import SidePanel
from oakmeasure.app.shell.stage_bar import StageBar
from oakmeasure.app.shell.turning import TurnBar
from oakmeasure.app.stages.hang.room import HangRoom
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.app.stages.measure.gauge_strip import GaugeStrip
from oakmeasure.app.stages.sheets import SHEETS
from oakmeasure.app.stages.timber.room import PAGES, TimberRoom
from oakmeasure.core.drawings import views
from oakmeasure.core.figures.check import Level, Stage, worst
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.planning.setups import saved, setups
from oakmeasure.language import tr

WORDS_FROM_PX = 560
BESIDE_FROM_PX = 600  # of room for board and list, from which they stand side by side at Measure


class Window(QMainWindow):
    """Draws the session's solution; each part sends intents back to the session."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setMinimumSize(1024, 700)
        self.resize(1280, 800)
        self.exaggeration = EXAGGERATION
        self._words_shown = True
        self._laid_for_ticks = False
        self.job_line = JobLine(session)
        self.rod = StageBar()
        self.sheets = QStackedWidget()
        self._sheet_of: dict[Stage, Form] = {}
        self.middle = Middle(session)
        self.board, self.list, self.compare = self.middle.board, self.middle.list, self.middle.compare
        self.sure, self.goes_in = self.middle.sure, self.middle.goes_in
        self.gauge = GaugeStrip(session)
        self.side = SidePanel(session)
        self.checks, self.working = self.side.checks, self.side.working
        self.timber = TimberRoom(session, self.middle.strip)
        self.turning = TurnBar(session, self.board)
        self.middle.take_in(self.turning.widgets)
        self.hands = BoardHands(session, self.timber, self.middle)
        self._lay_out()
        host = Host(self, self.middle.drawing, self.timber.plan, self.where, self.choose_leaf, self.forget_hidden)
        self.commands = Commands(host, session)
        self.job_line.paper.setMenu(self.commands.menu)
        self._connect()
        self._shortcuts()
        self.session.working = self._first_working()
        self._all_changed()
        self._stage_laid_out()
        self.sheet().focus_first()
        session.show_working(self._first_working())

    def _lay_out(self) -> None:
        ground = QWidget()
        ground.setObjectName("ground")
        column = QVBoxLayout(ground)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.job_line)
        column.addWidget(self.rod)
        row = QHBoxLayout()
        row.setSpacing(0)
        left = QWidget()
        left.setObjectName("sheet")
        left.setFixedWidth(theme.SHEET_WIDE)
        left_column = QVBoxLayout(left)
        left_column.setContentsMargins(0, 0, 0, 0)
        left_column.setSpacing(0)
        left_column.addWidget(self.sheets, 1)
        left_column.addWidget(self.gauge)
        row.addWidget(left)
        row.addWidget(self.middle, 1)
        row.addWidget(self.side)
        column.addLayout(row, 1)
        self.setCentralWidget(ground)

    def _connect(self) -> None:
        s = self.session
        s.changed.connect(self._all_changed)
        s.stage_changed.connect(self._stage_changed)
        s.working_changed.connect(self._show_working)
        s.lit_changed.connect(self._light)
        s.saved_changed.connect(self._title_changed)
        s.others_known.connect(self._others_known)
        s.field_asked.connect(lambda path: self.sheet().focus_field(path))
        self.rod.chosen.connect(s.go_to)
        self.job_line.leaf_chosen.connect(self.choose_leaf)
        self.job_line.unit_chosen.connect(s.set_unit)
        self.job_line.finder.found.connect(self.go_to_found)
        self.board.pointed.connect(s.light)
        self.board.resized.connect(self._board_resized)
        self.board.figure_asked.connect(s.show_working)
        self.board.part_asked.connect(self._ask_part)
        self.board.handle_moved.connect(self.hands.move_handle)
        self.board.handle_taken.connect(self.timber.taken)
        self.timber.changed.connect(self._timber_changed)
        s.room(MakeRoom).changed.connect(self._room_changed)
        s.room(HangRoom).changed.connect(self._room_changed)
        self.board.commit = self.hands.commit
        self.middle.other.chosen.connect(lambda: self._show_stage(keep_view=False))
        self.list.pointed.connect(s.light)
        self.list.chosen.connect(self._ask_part)
        self.middle.crooked.valueChanged.connect(self._exaggerate)
        self.middle.opened.valueChanged.connect(lambda _value: self.draw())
        self.turning.room.changed.connect(self.draw)
        self.turning.room.switched.connect(lambda: self._show_stage(keep_view=False))

    def _shortcuts(self) -> None:
        for at, stage in enumerate(Stage, start=1):
            self._shortcut(f"Ctrl+{at}", partial(self.session.go_to, stage))
        for at in range(9):
            self._shortcut(f"Alt+{at + 1}", partial(self._leaf_number, at))
        self._shortcut("Ctrl+K", self.job_line.finder.setFocus)
        self._shortcut("Ctrl+0", self.board.fit_again)
        self._shortcut("Ctrl+T", self.turning.button.click)

    def _shortcut(self, keys: str, what: Callable[[], object]) -> None:
        QShortcut(QKeySequence(keys), self).activated.connect(what)

    def sheet(self) -> Form:
        """Return the sheet of the stage in hand, made when it is first needed."""
        stage = self.session.stage
        if stage not in self._sheet_of:
            made = Form(self.session, SHEETS[stage])
            made.asked.connect(self.commands.answer)
            made.page_changed.connect(self._page_changed)
            self._sheet_of[stage] = made
            self.sheets.addWidget(made)
        return self._sheet_of[stage]

    def forget_hidden(self) -> None:
        """Take away what no page on the screen shows."""
        for each in self._sheet_of.values():
            each.forget_hidden()

    def where(self) -> Seen:
        """Return where one is now."""
        session = self.session
        return Seen(session.leaf_id, str(session.stage), self.sheet().page, self.width(), self.height())

    def _all_changed(self) -> None:
        self.job_line.refresh()
        self._show_rod()
        self._show_stage(keep_view=True)
        self._show_working()
        self._title_changed()

    def _others_known(self) -> None:
        """Show what is said of all leaves together, now that they are all worked out."""
        self.job_line.refresh()
        self._show_rod()
        if self.session.stage is Stage.TIMBER:
            self._show_stage(keep_view=True)
        self.side.refresh()

    def _first_working(self) -> str:
        """Return the figure whose working stands beside a stage until another one is asked for."""
        names, figures = titles.FIRST_WORKING[self.session.stage], self.session.solved.figures
        return next((each for each in names if figure_name(each) in figures), names[0])

    def _of_the_job(self) -> Listed | None:
        """Show what a page that a room of its own has: its words over the drawing; return its list."""
        page = self._job_page()
        self.middle.strip.setVisible(page is views.TimberPage.PLAN)
        if self.session.stage is Stage.TIMBER:
            self.timber.show_page(views.TimberPage(self.sheet().page))
            self.timber.refresh()
        if page is None:
            return None
        room = self._room()
        self.middle.title.setText(tr(room.title(page)))
        return room.listed(page)

    def _room(self) -> Any:
        """Return what shows and does the pages of the stage in hand that have a room of their own."""
        return {Stage.MAKE: self.session.room(MakeRoom), Stage.HANG: self.session.room(HangRoom)}.get(
            self.session.stage, self.timber
        )

    def _room_changed(self) -> None:
        """Show another operation, stage, label, door or entry; no edit was made."""
        if self.session.stage in (Stage.MAKE, Stage.HANG):
            rows = len(self.list.records.records)
            self._show_stage(keep_view=False)
            if rows != len(self.list.records.records):
                self._stage_laid_out()

    def _timber_changed(self) -> None:
        """Show a better plan; the sheet and the checks stay as they are."""
        page = self._job_page()
        if isinstance(page, views.TimberPage):
            self.draw()
            self.middle.title.setText(tr(self.timber.title(page)))
            rows = len(self.list.records.records)
            self.list.show_records(*(self.timber.listed(page) or ((), [])))
            if not rows and self.list.records.records:
                self._stage_laid_out()

    def _job_page(self) -> views.TimberPage | views.MakePage | views.HangPage | None:
        """Return the page of Make or Hang, or of Timber about the whole job, where one is shown."""
        page = self.sheet().page
        if self.session.stage is Stage.MAKE:
            return views.MakePage(page)
        if self.session.stage is Stage.HANG:
            return views.HangPage(page)
        return views.TimberPage(page) if self.session.stage is Stage.TIMBER and page in PAGES else None

    def _stage_changed(self) -> None:
        self._show_rod()
        self._show_stage(keep_view=False)
        self._stage_laid_out()
        self.session.show_working(self._first_working())

    def _page_changed(self) -> None:
        self._show_stage(keep_view=False)
        self._stage_laid_out()

    def _show_rod(self) -> None:
        s = self.session
        for stage, mark in self.rod.marks.items():
            level = worst((*s.solution.checks, *s.solved.checks), stage)
            is_nothing = s.solved.build is None and stage not in (Stage.MEASURE, Stage.FIT) and level is Level.OK
            mark.show_state(s.solved.key_figure(stage, s.show), None if is_nothing else level, stage is s.stage)

    def _show_stage(self, *, keep_view: bool) -> None:
        stage = self.session.stage
        sheet = self.sheet()
        sheet.refresh()
        self.sheets.setCurrentWidget(sheet)
        measuring = stage is Stage.MEASURE
        page = views.MeasurePage(sheet.page) if measuring else views.MeasurePage.OPENING
        fit_page = views.FitPage(sheet.page) if stage is Stage.FIT else None
        leaf_page = views.LeafPage(sheet.page) if stage is Stage.LEAF else None
        words = (
            titles.measure_words(page, self.session.leaf)
            if measuring
            else titles.FIT_WORDS[fit_page]
            if fit_page
            else titles.BOARD_WORDS[stage]
        )
        self.middle.title.setText(tr(titles.OTHER_WORDS.get(sheet.page, words)))
        crooked = measuring and views.is_exaggerated(self.session.solved, page)
        for each in (self.middle.crooked, self.middle.crooked_label):
            each.setVisible(crooked)
        moves = stage is Stage.FIT and sheet.page == views.FitPage.WAY
        moves = moves and (self.session.solved.swing is not None or self.session.leaf.hanging.slides)
        for each in (self.middle.opened, self.middle.opened_label):
            each.setVisible(moves)
        lays_up = stage is Stage.LEAF and hasattr(self.session.leaf.build, "measured")
        self.gauge.setVisible(measuring or lays_up)  # boards at hand are measured like openings
        self.draw(keep_view=keep_view)
        solved, show = self.session.solved, self.session.show
        catalogue = stage is Stage.HARDWARE and sheet.page == views.HardwarePage.CATALOGUE
        leaves = self.session.worked_out()
        listed = list_of_page(stage, sheet.page, solved, leaves, show)
        if sheet.page == views.TimberPage.SETTINGS and stage is Stage.TIMBER:
            together, alone = saved(setups(leaves))
            self.middle.title.setText(
                tr(f"{together} settings over all leaves, the largest first; leaf by leaf {alone}")
            )
        listed = self._of_the_job() or listed
        compares = fit_page is views.FitPage.CHOICES or leaf_page is views.LeafPage.WAYS or catalogue
        by_another = leaf_page is views.LeafPage.OTHER
        self.middle.beside.setVisible(listed is not None or compares or by_another or fit_page is views.FitPage.SURE)
        self.list.setVisible(listed is not None)
        self.board.setVisible(fit_page is not views.FitPage.SURE)
        self.goes_in.setVisible(fit_page is views.FitPage.SURE)
        self.compare.setVisible(compares)
        self.middle.other.setVisible(by_another)
        if listed is not None:
            self._show_records(listed)
        if fit_page is views.FitPage.SURE:
            self.goes_in.refresh()
        if compares:
            self.compare.refresh()
        if by_another:
            self.middle.other.refresh()
        if measuring:
            self.sure.refresh()
            if (solved.opening.template is not None) is not self._laid_for_ticks:
                self._stage_laid_out()
        self.side.refresh()

    def _show_records(self, listed: Listed) -> None:
        self.list.show_records(*listed)
        if self.session.stage in (Stage.MAKE, Stage.HANG):
            self.list.show_row(self._room().in_hand())

    def _stage_laid_out(self) -> None:
        """Give board and list their shares: narrow readings stand beside the opening, wide lists under the board."""
        beside = self._stands_beside() and self.middle.split.width() >= BESIDE_FROM_PX
        self.sure.setVisible(beside and self.session.stage is Stage.MEASURE)
        self.middle.split.setOrientation(Qt.Orientation.Horizontal if beside else Qt.Orientation.Vertical)
        if self.session.stage is Stage.FIT:
            whole = self.middle.split.height()
            self.middle.split.setSizes([whole * 2 // 5, whole * 3 // 5])
        elif self.sheet().page in (views.LeafPage.WAYS, views.LeafPage.OTHER, views.HardwarePage.CATALOGUE):
            whole = self.middle.split.height()
            table = titles.TABLES_PX.get(self.sheet().page, whole // 2)
            self.middle.split.setSizes([whole - table, table])
        elif self.session.stage is Stage.LEAF and beside:
            self.middle.split.setSizes([280, 388])
        elif beside:
            self._laid_for_ticks = self.session.solved.opening.template is not None
            self.middle.split.setSizes([392, 276] if self._laid_for_ticks else [300, 368])
        else:
            plans = self.sheet().page == views.TimberPage.PLAN
            self.middle.give_list(titles.PLAN_LIST_PX if plans else titles.MOST_LIST_PX.get(self.session.stage, 300))

    def draw(self, *, keep_view: bool = True) -> None:
        """Draw the board of the stage in hand."""
        s, page, job_page = self.session, self.sheet().page, self._job_page()
        narrow, degrees = self.middle.split.width() < BESIDE_FROM_PX, self.middle.opened.value()
        self.middle.crooked_label.setText(tr(f"{'' if narrow else 'crookedness shown '}× {self.exaggeration}"))
        turns = s.solved.swing is not None
        self.middle.opened_label.setText(tr(f"opened {degrees}°" if turns else f"slid {degrees / 1.8:.0f} %"))
        if s.stage is Stage.LEAF:
            self._words_shown = self._has_room_for_words()
        if self.turning.is_shown(s.stage, page):
            plays = s.stage is Stage.MAKE
            drawing = self.turning.room.played() if plays else self.turning.room.drawing()
            if not plays:
                self.middle.title.setText(tr("The leaf, turned"))
        elif job_page is not None:
            drawing = self._room().drawing(job_page)
        else:
            drawing = drawing_of(
                s,
                page,
                exaggeration=float(self.exaggeration),
                opened=degrees / 180,
                has_room_for_words=self._words_shown,
            )
        self.board.set_drawing(drawing, keep_view=keep_view)

    def _has_room_for_words(self) -> bool:
        """Return whether words can stand beside the leaf without making it small."""
        return self.board.width() >= WORDS_FROM_PX

    def _stands_beside(self) -> bool:
        """Return whether what belongs to the board stands beside it, where there is room, and not under it."""
        page = self.sheet().page
        if self.session.stage is Stage.LEAF:
            return page == views.LeafPage.JOINTS
        return self.session.stage is Stage.MEASURE and page == views.MeasurePage.OPENING

    def _board_resized(self) -> None:
        wide = self.middle.split.width() >= BESIDE_FROM_PX
        if self._stands_beside() and wide is not (self.middle.split.orientation() is Qt.Orientation.Horizontal):
            self._stage_laid_out()
            self.draw(keep_view=False)
        if self.session.stage is Stage.LEAF and self._has_room_for_words() is not self._words_shown:
            self.draw(keep_view=False)

    def _show_working(self) -> None:
        self.side.show_working(self.height())

    def _light(self) -> None:
        self.board.set_lit(self.session.lit)
        if self.list.isVisible():
            in_hand = self._room().in_hand() if self.session.stage in (Stage.MAKE, Stage.HANG) else ""
            self.list.records.light(self.session.lit or in_hand)

    def _title_changed(self) -> None:
        s = self.session
        star = "" if s.is_saved else "*"
        self.setWindowTitle(f"{star}{s.job.name} – Oak Measure")
        self.job_line.refresh_saved()

    def choose_leaf(self, leaf_id: str) -> None:
        """Work on another leaf; what was typed and refused belongs to the one that is left."""
        for sheet in self._sheet_of.values():
            for entry in sheet.entries.values():
                entry.give_back()
        self.session.choose_leaf(leaf_id)
        # This leaf may hang or be built another way.
        if figure_name(self.session.working) not in self.session.solved.figures:
            self.session.show_working(self._first_working())

    def _leaf_number(self, at: int) -> None:
        if at < len(self.session.job.leaves):
            self.choose_leaf(self.session.job.leaves[at].id)

    def _exaggerate(self, times: int) -> None:
        self.exaggeration = times
        self.draw()

    def _ask_part(self, ref: str) -> None:
        """Show the working of what was clicked, and where a whole job is shown, point at it there."""
        if self._job_page() is not None:
            self._room().clicked(ref)
        self.hands.ask(ref)

    def go_to_found(self, kind: str, key: str) -> None:
        """Go to what the find box found."""
        if kind == "figure":
            self.session.show_working(key)
            self.session.light(f"figure:{key}")
        elif kind == "part":
            self.session.go_to(Stage.LEAF)
            self._ask_part(key)
        elif kind == "sum":
            self.commands.quick_sums(key)
        else:
            for check in (each for each in self.session.solved.checks if each.code == key):
                self.session.go_to(check.stage)
                self.session.show_working(check.figure)
                self.session.light(check.where)

    def resizeEvent(self, event: QResizeEvent) -> None:
        self.side.fit_into(event.size().width())
        super().resizeEvent(event)

    def closeEvent(self, event: QCloseEvent) -> None:
        if self.commands.may_close():
            self.commands.leave()
            self.gauge.disconnect_gauge()
            self.timber.leave()
            self.session.room(MakeRoom).leave()
            event.accept()
        else:
            event.ignore()
