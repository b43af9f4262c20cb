"""What goes on paper and into files: each command asks where, writes it whole, and says why where it could not."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QFileDialog, QInputDialog, QMessageBox, QWidget

from oakmeasure.app.commands.beside import beside
from oakmeasure.app.commands.solve_all import every_leaf
from oakmeasure.app.shell.last_seen import Seen
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.app.tools.dialogs import answered_for
from oakmeasure.app.tools.file_dialogs import file_name, say_kinds
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.planning.plan_model import JobPlan
from oakmeasure.core.solution import Solution
from oakmeasure.files.job.job_file import JobFileError, write_whole
from oakmeasure.files.tables import lists as tables
from oakmeasure.language import tr

if TYPE_CHECKING:
    from oakmeasure.app.commands.folder_writer import FolderWriter


@dataclass(frozen=True, slots=True)
class Host:
    """What commands ask of the window that they belong to."""

    window: QWidget
    """Above which boxes open."""
    drawing: Callable[[], Drawing]
    """What stands on the board."""
    plan: Callable[[], JobPlan | None]
    """The plan of the job's wood, as far as there is one."""
    where: Callable[[], Seen]
    """Where one is, for the next start."""
    choose_leaf: Callable[[str], object]
    """Go to a leaf, by its id."""
    forget_hidden: Callable[[], object]
    """Take away what is not on the screen; it is made again when it is asked for."""


class Papers:
    """`ask_*` are replaced in tests by functions that answer."""

    def __init__(self, host: Host, session: Session) -> None:
        self.host, self.window, self.session = host, host.window, session
        self.writer: FolderWriter | None = None

    def tell(self, title: str, text: str) -> None:
        """Say something that needs no answer."""
        QMessageBox.information(self.window, tr(title), tr(text))

    def _report(self, refused: str) -> None:
        if refused:
            self.tell("Not changed", refused)

    def ask_save_path(self, title: str, suggested: str, kinds: str) -> str:
        return QFileDialog.getSaveFileName(self.window, tr(title), suggested, say_kinds(kinds))[0]

    def ask_one_of(self, title: str, question: str, choices: list[str]) -> str:
        """Ask for one of several; "" for none."""
        shown = [tr(each) for each in choices]
        text, taken = QInputDialog.getItem(self.window, tr(title), tr(question), shown, 0, False)
        return choices[shown.index(text)] if taken else ""

    def ask_paper(self) -> str:
        """Ask what is printed on: a sheet, a roll, or a size."""
        title, question = "Paper", "Printed at full size on (or width x height, mm)"
        sizes = {tr(each): each for each in ("A4", "A3", "roll")}
        paper, taken = QInputDialog.getItem(self.window, tr(title), tr(question), list(sizes), 0, True)
        return sizes.get(paper.strip(), paper.strip()) if taken else ""

    def answer_stops(self) -> bool:
        """Ask for a reason for every stop; returns whether all are answered for."""
        return answered_for(self.window, self.session)

    def _folder(self) -> str:
        return str(self.session.path.parent if self.session.path else Path.home())

    def bench_sheet(self) -> None:
        """Write the bench sheet of the leaf in hand; stops are answered for first."""
        if not self.answer_stops():
            return

        def content() -> bytes:
            from oakmeasure.files.pdf.bench_sheet import bench_sheet_pdf

            return bench_sheet_pdf(self.session.job, self.session.solved)

        name = file_name(f"{self.session.job.name} {self.session.leaf.name}")
        self._write("Bench sheet", f"{name}.pdf", "PDF (*.pdf)", content)

    def stage_sheet(self) -> None:
        """Write the bench sheet of the stage in hand; stops are answered for first."""
        if not self.answer_stops():
            return
        stage = self.session.stage

        def content() -> bytes:
            from oakmeasure.files.pdf.stage_sheets import stage_sheets_pdf

            return stage_sheets_pdf(self.session.job, self.session.solved, [stage])

        self._write(f"Bench sheet, {stage}", f"{self._leaf_file()} {stage}.pdf", "PDF (*.pdf)", content)

    def customer(self) -> None:
        """Write what the customer agrees to before the first cut."""

        def content() -> bytes:
            from oakmeasure.files.pdf.stage_sheets import customer_pdf

            return customer_pdf(self.session.job, self.session.solved)

        self._write("To agree", f"{self._leaf_file()} to agree.pdf", "PDF (*.pdf)", content)

    def taken_apart(self) -> None:
        """Write the leaf in hand taken apart, every piece with its name and size."""

        def content() -> bytes:
            from oakmeasure.files.pdf.exploded_sheet import exploded_pdf

            return exploded_pdf(self.session.job, self.session.solved)

        if self.session.solved.body is None:
            self.tell("Not written", "There is no leaf to take apart.")
            return
        self._write("Taken apart", f"{self._leaf_file()} taken apart.pdf", "PDF (*.pdf)", content)

    def rod(self) -> None:
        """Write the setting-out rods of the leaf in hand at full size."""

        def made(paper: str) -> bytes:
            from oakmeasure.files.pdf.rods import rod_pdf

            return rod_pdf(self.session.job, self.session.solved, paper=paper)

        self._full_size("Rod", "rod", made)

    def templates(self) -> None:
        """Write the templates of the leaf in hand at full size, for both hands."""

        def made(paper: str) -> bytes:
            from oakmeasure.files.pdf.templates import templates_pdf

            return templates_pdf(self.session.job, self.session.solved, paper=paper)

        self._full_size("Templates", "templates", made)

    def _full_size(self, title: str, name: str, made: Callable[[str], bytes]) -> None:
        """Ask for the paper, then write what is drawn at full size on it."""
        paper = self.ask_paper()
        if not paper:
            return
        try:
            content = beside(lambda: made(paper))
        except ValueError as error:
            self.tell("Not written", f"{error}.")
            return
        self._write(title, f"{self._leaf_file()} {name} {paper}.pdf", "PDF (*.pdf)", lambda: content)

    def rod_list(self) -> None:
        """Write the marks of both rods as distances from one end."""
        self._write(
            "Rod",
            f"{self._leaf_file()} rod.csv",
            "CSV (*.csv)",
            lambda: tables.rods_csv(self.session.solved).encode("utf-8-sig"),
        )

    def leaf_dxf(self) -> None:
        """Write the leaf in hand with the face up that is asked for."""
        from oakmeasure.core.paper.router_layout import FaceUp
        from oakmeasure.files.cad.dxf import leaf_dxf

        if self.session.solved.build is None:
            self.tell("Not written", "There is no leaf to draw.")
            return
        face = self.ask_one_of("Face up", "Which face is up on the table?", [str(each) for each in FaceUp])
        if face:
            self._write(
                "Leaf",
                f"{self._leaf_file()} {face} face.dxf",
                "DXF (*.dxf)",
                lambda: leaf_dxf(self.session.solved, FaceUp(face)),
            )

    def drawing_svg(self) -> None:
        """Write the drawing on the board."""
        from oakmeasure.files.cad.svg import drawing_svg

        title = f"{self.session.leaf.name}, {self.session.stage}"
        self._write(
            "Drawing",
            f"{self._leaf_file()} {self.session.stage}.svg",
            "SVG (*.svg)",
            lambda: drawing_svg(self.host.drawing(), title),
        )

    def _leaf_file(self) -> str:
        return file_name(f"{self.session.job.name} {self.session.leaf.name}")

    def job_folder(self) -> None:
        """Write everything that leaves the screen into one folder, off the main thread."""
        from oakmeasure.app.commands.folder_writer import FolderWriter

        path = self.ask_save_path("Job folder", str(Path(self._folder()) / file_name(self.session.job.name)), "")
        if not path:
            return
        paper = self.ask_paper()
        if not paper:
            return
        whole = every_leaf(self.window, self.session)
        if whole is None:
            return
        self.writer = FolderWriter(self.window, whole, Path(path), paper)
        self.writer.ended.connect(self.tell)
        self.writer.start()

    def export_schedule(self) -> None:
        """Write all leaves as a schedule."""
        from oakmeasure.files.tables.schedule_csv import schedule_csv

        self._write_all("Schedule", "schedule.csv", schedule_csv)

    def cut_list(self) -> None:
        self._write_all("Cut list", "cut list.csv", tables.cut_list_csv)

    def settings_list(self) -> None:
        self._write_all("Cut list by setting", "settings.csv", tables.settings_csv)

    def export_rack(self) -> None:
        from oakmeasure.files.tables.stock_csv import rack_csv

        self._write(
            "Rack",
            f"{file_name(self.session.job.name)} rack.csv",
            "CSV (*.csv)",
            lambda: rack_csv(self.session.job).encode("utf-8-sig"),
        )

    def operations_list(self) -> None:
        from oakmeasure.files.tables.operations import operations_csv

        self._write_all("Operations", "operations.csv", lambda whole: operations_csv(whole.leaves, self.session.show))

    def label_sheet(self) -> None:
        labels = self.session.room(MakeRoom).labels()

        def content() -> bytes:
            from oakmeasure.files.pdf.label_sheet import label_sheet_pdf

            return label_sheet_pdf(labels)

        name = file_name(f"{self.session.job.name} {self.session.leaf.name} labels")
        self._write("Labels", f"{name}.pdf", "PDF (*.pdf)", content)

    def record_sheet(self) -> None:
        """Write the record of the leaf in hand."""
        if self.session.solved.build is None:
            self.tell("Nothing to write", "There is no leaf to record.")
            return
        name = file_name(f"{self.session.job.name} {self.session.leaf.name} record")

        def content() -> bytes:
            from oakmeasure.files.pdf.record import record_pdf

            return record_pdf(self.session.job, self.session.solved)

        self._write("Record", f"{name}.pdf", "PDF (*.pdf)", content)

    def boring_list(self) -> None:
        self._write_all("Boring list", "boring list.csv", tables.boring_list_csv)

    def zone_sheet(self) -> None:

        def content() -> bytes:
            from oakmeasure.files.pdf.keep_outs import zone_sheet_pdf

            return zone_sheet_pdf(self.session.job, self.session.solved)

        name = file_name(f"{self.session.job.name} {self.session.leaf.name} keep-out zones")
        self._write("Keep-out zones", f"{name}.pdf", "PDF (*.pdf)", content)

    def keep_outs(self) -> None:
        self._write_all("Keep-out zones", "keep-out zones.csv", tables.keep_outs_csv)

    def _write_all(self, title: str, name: str, text: Callable[[Solution], str]) -> None:
        """Write a list of all leaves as CSV, once every one of them is worked out."""
        whole = every_leaf(self.window, self.session)
        if whole is not None:
            self._write(
                title,
                f"{file_name(self.session.job.name)} {name}",
                "CSV (*.csv)",
                lambda: text(whole).encode("utf-8-sig"),
            )

    def _write(self, title: str, suggested: str, kinds: str, content: Callable[[], bytes]) -> None:
        path = self.ask_save_path(title, str(Path(self._folder()) / suggested), kinds)
        if not path:
            return
        try:
            write_whole(Path(path), beside(content))
        except JobFileError as error:
            self.tell("Not written", str(error))
