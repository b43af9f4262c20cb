"""The job folder: whole or not at all, every file readable by others, progress and stop."""

from __future__ import annotations

import contextlib
import csv
import io
import multiprocessing
import os
import subprocess
import sys
import time
from datetime import date
from pathlib import Path

import ezdxf
import pytest
from pypdf import PdfReader

from killed import never
from oakmeasure.core.solver import solve
from oakmeasure.files import job_folder
from oakmeasure.files.job import job_file
from oakmeasure.files.job.job_file import JobFileError, demo_job
from oakmeasure.files.job_folder import write_folder
from oakmeasure.files.pdf.full_size import PaperError

ON = date(2026, 11, 26)
FEW = ("seed-room", "packet-press", "pair", "drying-loft")


@pytest.fixture(scope="module")
def some():
    job = demo_job()
    return solve(job.model_copy(update={"leaves": tuple(each for each in job.leaves if each.id in FEW)}))


@pytest.fixture(scope="module")
def written(some, tmp_path_factory):
    target = tmp_path_factory.mktemp("paper") / "mill"
    told = []
    done = write_folder(some, target, on=ON, told=lambda *each: told.append(each) or True)
    return done, told


def test_every_file_is_there_and_read_by_others(some, written):
    done, _ = written
    there = {str(each.relative_to(done.folder)) for each in done.folder.rglob("*") if each.is_file()}
    assert there == set(done.files)
    for name in there:
        content = (done.folder / name).read_bytes()
        if name.endswith(".pdf"):
            assert PdfReader(io.BytesIO(content)).pages
        elif name.endswith(".dxf"):
            assert not ezdxf.read(io.StringIO(content.decode())).audit().errors
        elif name.endswith(".csv"):
            rows = list(csv.reader(io.StringIO(content.decode("utf-8-sig"))))
            assert len({len(row) for row in rows}) == 1, name
    assert job_file.load(done.folder / "job.oakjob") == some.job
    assert {each.partition("/")[0] for each in there if "/" in each} == set(FEW)


def test_records_are_of_signed_leaves_and_bench_sheets_of_answered_ones(some, written):
    done, _ = written
    for leaf in some.leaves:
        assert (f"{leaf.leaf.id}/record.pdf" in done.files) is (leaf.leaf.hung.signed is not None)
        assert (f"{leaf.leaf.id}/bench sheet.pdf" in done.files) is not bool(leaf.open_stops())
        told = any(each.startswith(f"{leaf.leaf.name}, bench sheet") for each in done.left_out)
        assert told is bool(leaf.open_stops())
    read_me = (done.folder / "read me.txt").read_text("utf-8")
    assert all(leaf.leaf.name in read_me for leaf in some.leaves)
    assert all(each in read_me for each in done.left_out)
    assert "measure the bar" in read_me


def test_a_pair_has_files_for_both_its_hands(written):
    done, _ = written
    hands = {each.partition("/")[2].partition(",")[0] for each in done.files if each.startswith("pair/hinges")}
    assert hands == {"hinges left", "hinges right"}
    single = [each for each in done.files if each.startswith("seed-room/hinges")]
    assert len(single) == 2


def test_progress_counts_every_file_up_to_the_last(written):
    done, told = written
    assert [each[0] for each in told] == list(range(len(done.files) + 1))
    assert {each[1] for each in told} == {len(done.files)}
    assert sorted(each[2] for each in told[:-1]) == sorted(done.files)


@pytest.mark.parametrize("helpers", [0, 1])
def test_what_is_stopped_leaves_nothing_behind(some, tmp_path, helpers):
    assert write_folder(some, tmp_path / "mill", told=lambda at, _of, _name: at < 9, helpers=helpers) is None
    assert list(tmp_path.iterdir()) == []


def test_a_helper_writes_the_very_same_files_and_all_are_told(some, written, tmp_path):
    alone, _ = written
    names = []
    done = write_folder(
        some, tmp_path / "mill", on=ON, told=lambda _at, _of, name: names.append(name) or True, helpers=1
    )
    assert done.files == alone.files
    assert sorted(names[:-1]) == sorted(done.files)
    for name in done.files:
        if not name.endswith((".dxf", ".pdf")):  # which hold the hour that they were written in
            assert (done.folder / name).read_bytes() == (alone.folder / name).read_bytes(), name
        assert (done.folder / name).stat().st_size > 0


def test_a_helper_that_is_silent_is_given_up(some, tmp_path, monkeypatch):
    monkeypatch.setattr(job_folder, "_leaf_in_helper", never)
    monkeypatch.setattr(job_folder, "SILENT", 0.5)
    done = write_folder(some, tmp_path / "mill", helpers=1)
    assert all((done.folder / name).exists() for name in done.files)
    assert multiprocessing.active_children() == []


def test_what_a_helper_that_died_has_left_is_written_all_the_same(some, tmp_path, monkeypatch):
    monkeypatch.setattr(job_folder, "_prepare", os._exit)
    done = write_folder(some, tmp_path / "mill", helpers=1)
    assert all((done.folder / name).exists() for name in done.files)


def test_a_folder_that_holds_something_is_not_touched_and_an_empty_one_is_filled(some, tmp_path):
    mine = tmp_path / "mill"
    mine.mkdir()
    (mine / "notes.txt").write_text("mine")
    with pytest.raises(JobFileError, match="not empty"):
        write_folder(some, mine)
    assert [each.name for each in mine.iterdir()] == ["notes.txt"]
    (mine / "notes.txt").unlink()
    assert write_folder(some, mine, told=lambda *_: True) is not None
    assert (mine / "job.oakjob").exists()


@pytest.mark.parametrize("wrong", ["paper", "place", "disk"])
def test_what_cannot_be_written_is_said_and_nothing_is_left_behind(some, tmp_path, monkeypatch, wrong):
    target, paper = tmp_path / "mill", "A4"
    if wrong == "paper":
        paper = "60x50"
    elif wrong == "place":
        (tmp_path / "file").write_text("no folder")
        target = tmp_path / "file" / "mill"
    else:

        def full(*_args, **_more):
            raise OSError(28, "No space left on device")

        monkeypatch.setattr(job_folder.tables, "boring_list_csv", full)
    before = sorted(each.name for each in tmp_path.iterdir())
    with pytest.raises((JobFileError, PaperError)):
        write_folder(some, target, paper=paper)
    assert sorted(each.name for each in tmp_path.iterdir()) == before


KILLED = """
import sys, time
from pathlib import Path
from oakmeasure.core.solver import solve
from oakmeasure.files.job.job_file import demo_job
from oakmeasure.files.job_folder import write_folder
if __name__ == "__main__":
    job = demo_job()
    def told(done, of, name):
        print(name, flush=True)
        time.sleep(0.05)
        return True
    write_folder(solve(job), Path(sys.argv[1]), told=told, helpers=2)
"""


def of_this_test(folder) -> list[str]:
    """The command lines of processes that have to do with a folder, those that were started by it among them."""
    found = []
    for each in Path("/proc").glob("[0-9]*"):
        with contextlib.suppress(OSError):
            if str(folder).encode() in (each / "environ").read_bytes():
                found.append((each / "cmdline").read_text().replace("\0", " "))
    return found


def test_a_folder_whose_writer_was_killed_has_no_helpers_left_and_is_tidied_at_the_next(some, tmp_path):
    script = tmp_path / "writes.py"
    script.write_text(KILLED, encoding="utf-8")
    environment = {**os.environ, "OAK_MEASURE_TEST": str(tmp_path)}
    target = tmp_path / "mill"
    with subprocess.Popen([sys.executable, script, target], stdout=subprocess.PIPE, env=environment) as writer:
        for _ in range(30):  # its helpers are at work by then
            writer.stdout.readline()
        assert len(of_this_test(tmp_path)) >= 3
        writer.kill()
    for _ in range(100):
        if not of_this_test(tmp_path):
            break
        time.sleep(0.1)
    assert of_this_test(tmp_path) == []
    left = [each for each in tmp_path.iterdir() if each.name.startswith(".mill.")]
    assert left
    assert not target.exists()
    other = tmp_path / ".mill.notes"
    other.mkdir()
    assert write_folder(some, target, on=ON, helpers=0).folder == target
    assert not left[0].exists()
    assert other.exists()


def test_a_folder_that_another_is_writing_just_now_is_left_alone(some, tmp_path):
    def told(done, _of, _name):
        if done == 3:
            assert write_folder(some, tmp_path / "mill", on=ON, helpers=0).folder.exists()
        return True

    with pytest.raises(JobFileError):  # the other was first
        write_folder(some, tmp_path / "mill", on=ON, helpers=0, told=told)
    assert [each.name for each in tmp_path.iterdir()] == ["mill"]
