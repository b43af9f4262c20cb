"""What goes on paper and into files from the window: asked, written whole, or refused with a reason."""

from __future__ import annotations

import io

import ezdxf
import pytest
from pypdf import PdfReader
from PySide6.QtWidgets import QProgressDialog

from oakmeasure.app.commands import solve_all
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.figures.check import Stage


@pytest.fixture
def papers(window, tmp_path):
    """The commands of a window that answer every question: paths into a folder of their own, the first choice."""
    commands = window.commands
    commands.ask_save_path = lambda _title, suggested, _kinds: str(tmp_path / suggested.rpartition("/")[2])
    commands.ask_paper = lambda: "A3"
    commands.ask_one_of = lambda _title, _question, choices: choices[-1]
    commands.said = []
    commands.tell = lambda title, text: commands.said.append((title, text))
    commands.place = tmp_path
    return commands


def with_stops(papers):
    """Open a job of two leaves, one of which has stops that nobody has answered for."""
    job = papers.session.job
    papers.session.open(job.model_copy(update={"leaves": (job.leaf("seed-room"), job.leaf("engine-room"))}), None)


def written(papers, suffix):
    (found,) = papers.place.glob(f"*{suffix}")
    return found


def test_rod_list_router_and_drawing_are_written_from_the_menu(papers):
    for words in ("Rod at full size", "Rod as distances", "This leaf for a router", "This drawing"):
        action = next(each for each in papers.menu.actions() if each.text().startswith(words))
        action.trigger()
    assert papers.said == []
    pages = PdfReader(io.BytesIO(written(papers, ".pdf").read_bytes())).pages
    assert "height rod, page 1 of" in pages[0].extract_text()
    assert written(papers, "rod.csv").read_text("utf-8-sig").startswith("rod,from,at_mm,what")
    assert written(papers, "closing face.dxf").exists()
    assert ezdxf.readfile(written(papers, ".dxf")).modelspace().query('LWPOLYLINE[layer=="OUTLINE"]')
    assert papers.session.leaf.name in written(papers, ".svg").read_text("utf-8")


def test_sheet_of_the_stage_templates_and_what_is_to_agree_are_written_from_the_menu(papers):
    papers.session.go_to(Stage.HARDWARE)
    for words in ("Bench sheet of this stage", "Customer's sheet", "Templates at full size"):
        next(each for each in papers.menu.actions() if each.text().startswith(words)).trigger()
    assert papers.said == []
    texts = {
        each.name: PdfReader(io.BytesIO(each.read_bytes())).pages[0].extract_text()
        for each in papers.place.glob("*.pdf")
    }
    assert "Let in and bored" in texts[next(each for each in texts if each.endswith("Hardware.pdf"))]
    assert "To be agreed before the first cut" in texts[next(each for each in texts if "to agree" in each)]
    assert "Measure the bar before use" in texts[next(each for each in texts if "templates A3" in each)]


def test_a_paper_that_is_too_small_is_said_and_nothing_is_written(papers):
    papers.ask_paper = lambda: "300x90"
    papers.rod()
    assert "a rod needs" in papers.said[0][1]
    papers.ask_paper = lambda: ""
    papers.rod()
    papers.ask_one_of = lambda *_: ""
    papers.leaf_dxf()
    assert not list(papers.place.iterdir())
    assert len(papers.said) == 1


def test_a_folder_that_cannot_be_written_is_said_for_every_paper(papers):
    blocked = papers.place / "blocked"
    blocked.write_text("a file where a folder was meant")
    papers.ask_save_path = lambda *_: str(blocked / "x.pdf")
    for write in (papers.rod, papers.rod_list, papers.leaf_dxf, papers.drawing_svg, papers.cut_list):
        write()
    assert [title for title, _ in papers.said] == ["Not written"] * 5
    assert [each.name for each in papers.place.iterdir()] == ["blocked"]


def test_without_a_leaf_rod_and_router_say_so(papers):
    papers.session.edit("hanging", Hanging.OPEN)
    papers.rod()
    papers.leaf_dxf()
    assert [title for title, _ in papers.said] == ["Not written"] * 2
    assert all("no leaf" in text for _, text in papers.said)
    assert not list(papers.place.iterdir())


def test_the_job_folder_is_written_off_the_main_thread_with_progress(papers, qtbot, tmp_path):
    target = tmp_path / "mill"
    with_stops(papers)
    papers.ask_save_path = lambda *_: str(target)
    papers.job_folder()
    moved = []
    papers.writer.moved.connect(lambda *each: moved.append(each))
    qtbot.waitUntil(lambda: bool(papers.said), timeout=60_000)
    assert papers.said[0][0] == "Job folder"
    assert f"{moved[-1][1]} files in mill" in papers.said[0][1]
    assert (target / "read me.txt").exists()
    assert "Left out" in papers.said[0][1]


def test_the_job_folder_can_be_stopped_and_a_full_one_is_refused(papers, qtbot, tmp_path):
    target = tmp_path / "mill"
    with_stops(papers)
    papers.ask_save_path = lambda *_: str(target)
    papers.job_folder()
    papers.writer.box.canceled.emit()
    qtbot.waitUntil(lambda: bool(papers.said), timeout=60_000)
    assert papers.said == [("Stopped", "Nothing was written.")]
    assert not target.exists()
    target.mkdir()
    (target / "mine.txt").write_text("mine")
    papers.job_folder()
    qtbot.waitUntil(lambda: len(papers.said) == 2, timeout=60_000)
    assert "not empty" in papers.said[1][1]


def test_hinges_and_tracks_are_read_from_a_table_and_written(papers):
    papers.ask_one_of = lambda _title, _question, choices: "butts" if "butts" in choices else choices[0]
    papers.export_hardware()
    table = written(papers, "butts.csv")
    table.write_text(table.read_text("utf-8-sig").replace("Brock 100 steel", "Mine 100"), "utf-8")
    papers.ask_hardware_path = lambda: str(table)
    papers.import_hardware()
    assert "Mine 100" in {each.name for each in papers.session.job.own_butts}
    papers.ask_one_of = lambda _title, _question, choices: "tracks" if "tracks" in choices else choices[0]
    papers.export_hardware()
    papers.session.choose_leaf("winnowing")
    papers.ask_hardware_path = lambda: str(written(papers, "tracks.csv"))
    papers.import_hardware()
    assert papers.session.leaf.slide.track_set.name == "Marram flat rail 40"
    assert papers.said == []
    table.write_text("name,colour\nx,red\n")
    papers.ask_hardware_path = lambda: str(table)
    papers.import_hardware()
    assert papers.said[-1][0] == "Not read"
    assert "no column" in papers.said[-1][1]


def test_a_worker_that_fails_is_told_in_a_sentence_and_closing_stops_one_that_works(
    papers, qtbot, monkeypatch, tmp_path
):
    from oakmeasure.files import job_folder

    def broken(*_args, **_more):
        raise ZeroDivisionError("no")

    with_stops(papers)
    monkeypatch.setattr(job_folder, "write_folder", broken)
    papers.job_folder()
    qtbot.waitUntil(lambda: bool(papers.said), timeout=10_000)
    assert papers.said[0][0] == "Not written"
    assert "not your doing (ZeroDivisionError)" in papers.said[0][1]
    monkeypatch.undo()
    papers.job_folder()
    assert papers.writer.thread_at_work.is_alive()
    papers.session.undo_stack.setClean()
    assert papers.window.close()
    assert not papers.writer.thread_at_work.is_alive()
    assert [each.name for each in tmp_path.iterdir() if each.name.startswith(".")] == []  # whole, or nothing of it


def test_lists_of_all_leaves_wait_for_them_with_progress_and_can_be_stopped(papers, monkeypatch):
    job = papers.session.job
    many = tuple(job.leaves[0].model_copy(update={"id": f"leaf-{n}", "name": f"Leaf {n}"}) for n in range(40))
    papers.session.open(job.model_copy(update={"leaves": many}), None)
    papers.session._others.stop()
    timber = papers.window.timber
    timber.replan()
    assert not timber.planner.is_running  # the window does not wait for forty leaves
    seen = []

    class Stopped(QProgressDialog):
        def setLabelText(self, text):
            seen.append(text)

        def wasCanceled(self):
            return len(seen) >= 5

    monkeypatch.setattr(solve_all, "QProgressDialog", Stopped)
    papers.cut_list()
    assert len(seen) == 5
    assert not list(papers.place.iterdir())
    monkeypatch.undo()
    papers.cut_list()
    assert len(written(papers, "cut list.csv").read_text("utf-8-sig").splitlines()) > 40 * 5
    papers.session.others_known.emit()
    assert timber.planner.is_running
    timber.leave()
