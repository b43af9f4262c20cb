"""The menu: files, paper, leaves, undo. Everything that touches a disk reports back in a sentence."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING, Any

from PySide6.QtGui import QAction, QKeySequence
from PySide6.QtWidgets import QApplication, QInputDialog, QMenu

from oakmeasure.app.commands.beside import turn_by_turn
from oakmeasure.app.commands.job_files import JobFiles
from oakmeasure.app.commands.papers import Host
from oakmeasure.app.commands.solve_all import every_leaf
from oakmeasure.app.shell import theme
from oakmeasure.app.shell.job_book import JobBook
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.hang.room import HangRoom
from oakmeasure.app.stages.measure.to_measure import ToMeasureDialog
from oakmeasure.app.tools.file_dialogs import answered, file_name
from oakmeasure.app.tools.rules_dialog import RulesDialog
from oakmeasure.core.document import field_path
from oakmeasure.core.edits import hinge_edits, job_edits, tick_edits
from oakmeasure.core.forms.fields import Ask
from oakmeasure.files.job.job_file import JobFileError
from oakmeasure.files.settings import SCALES, keep_settings, read_settings
from oakmeasure.files.tables import lists as tables
from oakmeasure.language import NAMES, Language, current_language, set_language, tr

if TYPE_CHECKING:
    from oakmeasure.app.stages.make.workshop import Workshop
    from oakmeasure.app.tools.quick_sums import SumBox
    from oakmeasure.app.tools.schedule import ScheduleBox

LOG_FILTER = "Logs (*.jsonl)"


class Commands(JobFiles):
    """All commands of the menu. `ask_*` are replaced in tests by functions that answer."""

    def __init__(self, host: Host, session: Session) -> None:
        super().__init__(host, session)
        self.sums: SumBox | None = None
        self.lines: ScheduleBox | None = None
        self.shop: Workshop | None = None
        self.open_anew: Callable[[Language], object] = set_language  # whoever opened the window opens it anew
        self.menu = QMenu(self.window)
        self.menu.setToolTipsVisible(True)
        self._build()

    def _build(self) -> None:
        add = self._add
        add("New job…", self.new_job, QKeySequence.StandardKey.New)
        add("Open…", self.open, QKeySequence.StandardKey.Open)
        add("Save", self.save, QKeySequence.StandardKey.Save)
        add("Save as…", self.save_as, QKeySequence("Ctrl+Shift+S"))
        add("Earlier saves…", self.earlier_saves)
        self.menu.addSeparator()
        self._build_papers()
        self.menu.addSeparator()
        for action, keys in (
            (self.session.undo_stack.createUndoAction(self.menu, tr("Undo")), QKeySequence.StandardKey.Undo),
            (self.session.undo_stack.createRedoAction(self.menu, tr("Redo")), QKeySequence("Ctrl+Shift+Z")),
        ):
            action.setShortcut(keys)
            self._put(action)
        self.menu.addSeparator()
        add("Quick sums…", self.quick_sums, QKeySequence("F4"))
        add("Schedule…", self.schedule, QKeySequence("F6"))
        add("Read a schedule, CSV…", self.import_schedule)
        add("Schedule, CSV…", self.export_schedule)
        add("Still to be measured…", self.to_measure, QKeySequence("Ctrl+L"))
        add("Read ticks or points, CSV or DXF…", self.import_ticks)
        add("Read hinges or tracks, CSV…", self.import_hardware)
        add("Table of hinges or tracks, CSV…", self.export_hardware)
        self.menu.addSeparator()
        add("Shop rules…", self.shop_rules, QKeySequence("Ctrl+R"))
        add("Rename this leaf…", self.rename_leaf)
        add("Rename the job…", self.rename_job)
        add("Add a leaf…", self.add_leaf)
        add("Remove this leaf", self.remove_leaf)
        self.menu.addSeparator()
        add("Words of the trade…", self.words, QKeySequence.StandardKey.HelpContents)
        add("Light or dark", self.turn_light)
        add("Larger figures…", self.larger)
        add("Language…", self.other_language)

    def _build_papers(self) -> None:
        add = self._add
        add("Bench sheet, PDF…", self.bench_sheet, QKeySequence.StandardKey.Print)
        add("Bench sheet of this stage, PDF…", self.stage_sheet)
        add("Customer's sheet, to agree, PDF…", self.customer)
        add("Job folder…", self.job_folder)
        add("Rod at full size, PDF…", self.rod)
        add("Rod as distances, CSV…", self.rod_list)
        add("Templates at full size, PDF…", self.templates)
        add("The leaf taken apart, PDF…", self.taken_apart)
        add("This leaf for a router, DXF…", self.leaf_dxf)
        add("This drawing, SVG…", self.drawing_svg)
        add("Cut list, CSV…", self.cut_list)
        add("Cut list by setting, CSV…", self.settings_list)
        add("Rack, CSV…", self.export_rack)
        add("Read a rack, CSV…", self.import_rack)
        add("Boring list, CSV…", self.boring_list)
        add("Operations, CSV…", self.operations_list)
        add("Sheet of labels, PDF…", self.label_sheet)
        add("Record of this leaf, PDF…", self.record_sheet)
        add("Workshop mode", self.workshop, QKeySequence("Ctrl+W"))
        add("Keep-out zones, PDF…", self.zone_sheet)
        add("Keep-out zones, CSV…", self.keep_outs)

    def answer(self, ask: Ask) -> None:
        """Do what a sheet asks for."""
        {
            Ask.BOOK_FOLDER: self.book_folder,
            Ask.EXPORT_BUY: self.export_buy,
            Ask.EXPORT_LOG: self.export_log,
            Ask.EXPORT_RACK: self.export_rack,
            Ask.IMPORT_LOG: self.import_log,
            Ask.IMPORT_RACK: self.import_rack,
            Ask.IMPORT_TICKS: self.import_ticks,
            Ask.KEEP_HINGE: self.keep_hinge,
            Ask.KEEP_OUTS: self.keep_outs,
            Ask.LABEL_SHEET: self.label_sheet,
            Ask.OPERATIONS_LIST: self.operations_list,
            Ask.RECORD_SHEET: self.record_sheet,
            Ask.REOPEN: self.reopen,
            Ask.SETTINGS_LIST: self.settings_list,
            Ask.SHOP_RULES: self.shop_rules,
            Ask.TAKE_CHECK: self.take_check,
            Ask.UNCUT_ALL: self.uncut_all,
            Ask.UNPIN_ALL: self.unpin_all,
            Ask.WORKSHOP: self.workshop,
            Ask.ZONE_SHEET: self.zone_sheet,
        }[ask]()

    def _add(
        self, text: str, what: Callable[[], object], keys: QKeySequence | QKeySequence.StandardKey | None = None
    ) -> None:
        action = QAction(tr(text), self.menu)
        if keys is not None:
            action.setShortcut(keys)
        action.triggered.connect(lambda _on=False: what())
        self._put(action)

    def _put(self, action: QAction) -> None:
        self.menu.addAction(action)
        self.window.addAction(action)  # so that its keys work while the menu is shut

    # --- asking ------------------------------------------------------------------------------------------

    def ask_points_path(self) -> str:
        return self.ask_file("Read ticks or points", "Ticks and points (*.csv *.dxf)")

    def ask_rack_path(self) -> str:
        return self.ask_file("Read a rack", "Racks (*.csv)")

    def ask_schedule_path(self) -> str:
        return self.ask_file("Read a schedule", "Schedules (*.csv)")

    def ask_hardware_path(self) -> str:
        return self.ask_file("Read a table of hinges or tracks", "Tables (*.csv)")

    def ask_log_path(self) -> str:
        return self.ask_file("Read a log", LOG_FILTER)

    def ask_text(self, title: str, question: str, now: str) -> str:
        text, taken = QInputDialog.getText(self.window, tr(title), tr(question), text=now)
        return text.strip() if taken else ""

    # --- paper -------------------------------------------------------------------------------------------

    def import_ticks(self) -> None:
        """Read ticks or points from a file; they replace those of the leaf, as one step that can be undone."""
        path = self.ask_points_path()
        if not path:
            return
        from oakmeasure.files.tables.points import PointsFileError, read_points

        try:
            ticks = read_points(path, self.session.job.unit)
        except PointsFileError as error:
            self.tell("Not read", f"{error}. The ticks are as they were.")
            return
        leaf_id = self.session.leaf_id
        self._report(self.session.push("read ticks", lambda job: tick_edits.with_ticks(job, leaf_id, ticks)))

    def import_hardware(self) -> None:
        """Read a table: hinges join the job's own, a track set is taken by the leaf in hand."""
        path = self.ask_hardware_path()
        if not path:
            return
        from oakmeasure.files.tables import hardware_csv

        leaf_id = self.session.leaf_id
        try:
            ware, found = hardware_csv.read_hardware(Path(path))
            made = hardware_csv.with_hardware(self.session.job, found)
            if ware is hardware_csv.Ware.TRACKS:
                names = [each.name for each in found]
                name = self.ask_one_of("Track set", "Which one does this leaf take?", names) if len(names) > 1 else ""
                if len(names) > 1 and not name:
                    return
                made = hardware_csv.with_track(made, leaf_id, found, name)
        except ValueError as error:
            self.tell("Not read", f"{error}. Nothing has changed.")
            return
        self._report(self.session.push("read hardware", lambda _job: made))

    def export_hardware(self) -> None:
        """Write the shipped table and the job's own of a kind, to be changed and read again."""
        from oakmeasure.files.tables.hardware_csv import Ware, hardware_csv

        kind = self.ask_one_of("Hardware", "Which table?", [str(each) for each in Ware])
        if kind:
            self._write(
                "Hardware",
                f"{kind}.csv",
                "CSV (*.csv)",
                lambda: hardware_csv(self.session.job, Ware(kind)).encode("utf-8-sig"),
            )

    def take_check(self) -> None:
        """Keep the last tick as the check reading."""
        leaf_id = self.session.leaf_id
        self._report(self.session.push("take the check", lambda job: tick_edits.with_last_tick_as_check(job, leaf_id)))

    def to_measure(self) -> None:
        """Show all that is still to be measured, and what hangs on it."""
        if every_leaf(self.window, self.session) is not None:
            answered(ToMeasureDialog(self.window, self.session))

    def import_rack(self) -> None:
        """Read a rack from a file in place of the job's, as one step that can be undone."""
        from oakmeasure.files.tables.cutting_csv import CuttingFileError
        from oakmeasure.files.tables.stock_csv import read_rack

        path = self.ask_rack_path()
        if not path:
            return
        try:
            read = read_rack(Path(path), self.session.job)
        except CuttingFileError as error:
            self.tell("Not read", f"{error}. The rack is as it was.")
            return
        self._report(self.session.push("read a rack", lambda _job: read))

    def export_buy(self) -> None:
        """Write what is to be bought for the plan as it is."""
        plan = self.host.plan()
        if plan is None:
            self.tell("Nothing to write", "There is no plan yet.")
            return
        self._write(
            "What to buy",
            f"{file_name(self.session.job.name)} to buy.csv",
            "CSV (*.csv)",
            lambda: tables.buy_csv(plan).encode("utf-8-sig"),
        )

    def unpin_all(self) -> None:
        self._report(self.session.push("take all pins out", lambda job: field_path.with_value(job, "cutting.pins", ())))

    def uncut_all(self) -> None:
        self._report(
            self.session.push("nothing is cut yet", lambda job: field_path.with_value(job, "cutting.done", ()))
        )

    # --- making ------------------------------------------------------------------------------------------

    def ready_sums(self) -> SumBox:
        """Make the box of quick sums, once: it then opens at once and keeps what was written in it."""
        if self.sums is None:
            from oakmeasure.app.tools.quick_sums import SumBox

            self.sums = SumBox(self.window, self.session)
            self.sums.grab()  # lays it out and draws it while nobody waits
        return self.sums

    def quick_sums(self, name: str = "") -> None:
        """Show the quick sums, at one of them where it is named."""
        box = self.ready_sums()
        if name:
            box.choose(name)
        box.open_for()

    def schedule(self) -> None:
        """Show all leaves in lines."""
        from oakmeasure.app.tools.schedule import ScheduleBox

        if self.lines is None:
            self.lines = ScheduleBox(self.window, self.session)
        self.lines.open_for()

    def import_schedule(self) -> None:
        """Read leaves from a schedule into the job, as one step to undo."""
        from oakmeasure.files.tables.cutting_csv import CuttingFileError
        from oakmeasure.files.tables.schedule_csv import read_schedule, with_schedule

        path = self.ask_schedule_path()
        if not path:
            return
        try:
            leaves = read_schedule(Path(path), self.session.job)
        except CuttingFileError as error:
            self.tell("Not read", str(error))
            return
        self._report(self.session.push(f"read {len(leaves)} leaves", lambda job: with_schedule(job, leaves)))

    def workshop(self) -> None:
        """Show the operations large, one at a time."""
        from oakmeasure.app.stages.make.workshop import Workshop

        if self.shop is not None:  # of an earlier time: it would go on hearing of every edit
            self.shop.close()
            self.shop.deleteLater()
        self.shop = Workshop(self.session, self.window)
        self.shop.show()

    def export_log(self) -> None:
        from oakmeasure.files.tables.log_lines import log_lines

        self._write(
            "The log", f"{file_name(self.session.job.name)} log.jsonl", LOG_FILTER, lambda: log_lines(self.session.job)
        )

    def import_log(self) -> None:
        """Read a log; what is new is added as one step, and what was left out is told with its lines."""
        from oakmeasure.files.tables.log_lines import read_log, with_read

        path = self.ask_log_path()
        if not path:
            return
        whole = every_leaf(self.window, self.session)
        if whole is None:
            return
        try:
            leaves = {each.leaf.id: each for each in whole.leaves}
            read = read_log(Path(path).read_bytes(), self.session.job, leaves)
        except (OSError, ValueError) as error:
            words = getattr(error, "strerror", "") or str(error)
            self.tell("Not read", f"{Path(path).name}: {words.lower()}. The log is as it was.")
            return
        self._report(self.session.push("read a log", lambda job: with_read(job, read)))
        self.tell("The log", read.in_words())

    # --- hanging -----------------------------------------------------------------------------------------

    def reopen(self) -> None:
        """Begin a new job with the chosen leaf of the book."""
        made = self.session.room(HangRoom).again()
        if isinstance(made, str):
            self.tell("Not opened", made)
        elif self.may_close():
            self.session.open(made, None)

    def book_folder(self) -> None:
        """Say where the book is kept."""
        from oakmeasure.files.job.job_book import place

        left = self.session.room(JobBook).left_out
        wrong = f"\n\nLeft out:\n{chr(10).join(left[:5])}" if left else ""
        self.tell("The job book", f"One plain file for every leaf, in {place()}.{wrong}")

    # --- leaves ------------------------------------------------------------------------------------------

    def shop_rules(self) -> None:
        """Show the shop rules of the job, to be read and changed."""
        answered(RulesDialog(self.window, self.session))

    def keep_hinge(self) -> None:
        """Put the hinge of the leaf in hand among the job's own, with today's date."""
        on = date.today().isoformat()
        leaf_id = self.session.leaf_id
        self._report(self.session.push("keep this hinge", lambda job: hinge_edits.with_kept_hinge(job, leaf_id, on)))

    def rename_leaf(self) -> None:
        name = self.ask_text("Rename this leaf", "What is it for?", self.session.leaf.name)
        if name:
            self._report(self.session.edit("name", name))

    def rename_job(self) -> None:
        name = self.ask_text("Rename the job", "Which place is it?", self.session.job.name)
        if name:
            self._report(self.session.push("rename the job", lambda job: field_path.with_value(job, "name", name)))

    def add_leaf(self) -> None:
        name = self.ask_text("Add a leaf", "What is it for?", f"Leaf {len(self.session.job.leaves) + 1}")
        if name:
            self._report(self.session.push("add a leaf", lambda job: job_edits.with_new_leaf(job, name)))
            self.host.choose_leaf(self.session.job.leaves[-1].id)

    def remove_leaf(self) -> None:
        if len(self.session.job.leaves) == 1:
            self.tell("The last leaf", "A job has at least one leaf. Start a new job instead.")
            return
        leaf_id = self.session.leaf_id
        self._report(self.session.push("remove a leaf", lambda job: job_edits.without_leaf(job, leaf_id)))

    def words(self) -> None:
        """Show the words of the trade and what they mean."""
        from oakmeasure.app.tools.glossary import WordsBox

        answered(WordsBox(self.window))

    def turn_light(self) -> None:
        """Change between the light and the dark theme, for good."""
        app = QApplication.instance()
        assert isinstance(app, QApplication)
        wanted = theme.DARK if theme.palette() is theme.LIGHT else theme.LIGHT
        self.window.setUpdatesEnabled(False)  # nothing is painted before all is done
        steps: list[Callable[[], object]] = [
            self.host.forget_hidden,
            lambda: theme.undress(app),
            lambda: theme.dress(app, wanted),
            lambda: self._keep(dark=wanted is theme.DARK),
            lambda: self.window.setUpdatesEnabled(True),
            self.session.changed.emit,
        ]
        turn_by_turn(self.window, steps)

    def larger(self) -> None:
        """Ask how large everything is drawn from the next start on."""
        words = {f"{scale:.0%}".replace("%", " %"): scale for scale in SCALES}
        taken = self.ask_one_of("Larger figures", "How large, from the next start on?", list(words))
        if taken and self._keep(scale=words[taken]):
            self.tell("Larger figures", f"{taken} from the next start on.")

    def other_language(self) -> None:
        """Ask which language the screen speaks; the window is opened anew in it, on the saved job."""
        names = {name: each for each, name in NAMES.items()}
        taken = self.ask_one_of("Language", "Which language? What is not saved is saved first.", list(names))
        if not taken or names[taken] is current_language() or not (self.session.is_saved or self.save()):
            return
        if self._keep(language=names[taken]):
            self.open_anew(names[taken])

    def _keep(self, **chosen: Any) -> bool:
        """Keep a setting; returns whether that could be done."""
        try:
            keep_settings(replace(read_settings(), **chosen))
        except JobFileError as error:
            self.tell("Not kept", f"{error}.")
            return False
        return True
