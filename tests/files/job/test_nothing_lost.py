"""Nothing is lost: kills while saving and editing, damaged journals, a full disk, earlier saves, claims."""

from __future__ import annotations

import functools
import json
import os
import subprocess
import sys
import time
import zlib
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from killed import Killer
from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document import field_path
from oakmeasure.core.document.job import new_job
from oakmeasure.core.edits import job_edits
from oakmeasure.files.job import earlier_saves, job_file
from oakmeasure.files.job.claims import Claim, seal
from oakmeasure.files.job.job_file import JobFileError, demo_job, load, save
from oakmeasure.files.job.journal import Journal, left_behind, read_journal

SAMPLES = Path(__file__).parent.parent / "samples"
KILLS = 12  # of each kind; the bench does 200 and 50


@pytest.fixture(scope="module")
def killer():
    made = Killer(seed=13)
    yield made
    made.close()


def test_a_save_that_is_killed_leaves_the_old_file_or_the_new_one(killer, tmp_path):
    save(new_job("job 0"), tmp_path / "a.oakjob")
    for _ in range(KILLS):
        killer.kill_one("save", tmp_path)
        assert load(tmp_path / "a.oakjob").name in ("job 0", "job 1")
    old = time.time() - 3600
    for each in tmp_path.glob(".a.oakjob.*"):
        os.utime(each, (old, old))
    save(new_job("job 2"), tmp_path / "a.oakjob")
    assert [each.name for each in tmp_path.iterdir()] == ["a.oakjob"]


def test_every_edit_that_was_made_before_the_kill_is_taken_up_again(killer, tmp_path):
    for at in range(KILLS):
        folder = tmp_path / str(at)
        said = killer.kill_one("edit", folder)
        (left,) = left_behind(folder / "journal")
        assert left.job.leaves[0].fit.gap_floor >= 3.0 + int(said[-1]) / 1000 - 1e-9
        assert left.edits >= len(said)
        left.discard()
        assert left_behind(folder / "journal") == []


# --- the journal ---------------------------------------------------------------------------------------------


def some_edits(job, numbers):
    """Edits of many kinds, each from a number."""
    made = [job]
    for n in numbers:
        before = made[-1]
        leaf = before.leaves[n % len(before.leaves)].id
        after = (
            job_edits.with_field(before, leaf, "fit.gap_floor", 3 + (n % 90) / 10),
            field_path.with_value(before, "name", f"job {n}"),
            field_path.with_value(before, "unit", UnitSystem.INCH if before.unit is UnitSystem.MM else UnitSystem.MM),
            field_path.with_value(
                before,
                "leaves",
                (*before.leaves, before.leaves[0].model_copy(update={"id": f"new-{len(made)}", "name": f"New {n}"})),
            )
            if len(before.leaves) < 5
            else before,
            field_path.with_value(before, "leaves", before.leaves[1:]) if len(before.leaves) > 2 else before,
            field_path.with_value(before, "boards", before.boards[: n % 3]),
        )[n % 6]
        made.append(after)
    return made


@functools.cache
def three_leaves():
    job = demo_job()
    return job.model_copy(update={"leaves": job.leaves[:3]})


@pytest.fixture
def small():
    return three_leaves()


def journal_of(folder: Path, jobs) -> Path:
    journal = Journal(folder)
    journal.begin(jobs[0], Path("/somewhere/a.oakjob"))
    for job in jobs[1:]:
        journal.record(job)
    journal._close()
    (file,) = folder.glob("*.journal")
    return file


@settings(max_examples=25)
@given(st.lists(st.integers(0, 10_000), min_size=1, max_size=8), st.data())
def test_a_journal_that_is_cut_or_damaged_anywhere_gives_the_edits_before_that(tmp_path_factory, numbers, data):
    small = three_leaves()
    jobs = some_edits(small, numbers)
    file = journal_of(tmp_path_factory.mktemp("journal"), jobs)
    whole = read_journal(file)
    assert whole.job == jobs[-1]
    assert whole.base == small
    assert whole.path == Path("/somewhere/a.oakjob")
    content = file.read_bytes()
    at = data.draw(st.integers(0, len(content) - 1))
    damaged = content[:at] + bytes([content[at] ^ data.draw(st.integers(1, 255))]) + content[at + 1 :]
    for text in (content[:at], damaged):
        file.write_bytes(text)
        if at < content.index(b"\n"):
            with pytest.raises(JobFileError):
                read_journal(file)
        else:
            assert read_journal(file).job in jobs


def test_a_journal_of_an_older_version_is_taken_up_with_its_edits(tmp_path):
    """What version 7 called a butt's knuckle is where its pin is; an edit of it is there after an update."""
    before = json.loads((SAMPLES / "version-7.oakjob").read_text(encoding="utf-8"))
    leaf = json.loads(json.dumps(before["leaves"][0]))
    leaf["hardware"]["butt"]["knuckle"]["value"] = 7.25
    change = {"order": [each["id"] for each in before["leaves"]], "leaves": [leaf]}
    texts = [json.dumps(each).encode() for each in ({"journal": 1, "path": "", "job": before}, change)]
    file = tmp_path / "old.journal"
    file.write_bytes(b"".join(b"%08x %s\n" % (zlib.crc32(text), text) for text in texts))
    found = read_journal(file)
    assert found.edits == 1
    assert found.job.leaves[0].hardware.butt.pin_projection.value == 7.25
    assert found.base.leaves[0].hardware.butt.pin_projection.value != 7.25


def test_nothing_is_on_disk_before_an_edit_and_nothing_after_a_save(small, tmp_path):
    journal = Journal(tmp_path / "journal")
    journal.begin(small, None)
    assert not (tmp_path / "journal").exists()
    journal.record(field_path.with_value(small, "name", "other"))
    assert left_behind(tmp_path / "journal") == []  # it is held: its program lives
    assert len(list((tmp_path / "journal").iterdir())) == 1
    journal.forget()
    assert list((tmp_path / "journal").iterdir()) == []


def test_a_journal_that_cannot_be_read_at_all_is_put_aside_not_thrown_away(tmp_path):
    (tmp_path / "x.journal").write_bytes(b"nonsense")
    assert left_behind(tmp_path) == []
    assert (tmp_path / "x.damaged").read_bytes() == b"nonsense"


def test_a_journal_without_a_place_is_told_and_goes_on_when_there_is_one(small, tmp_path):
    (tmp_path / "journal").write_text("a file where a folder was meant")
    journal = Journal(tmp_path / "journal")
    journal.begin(small, None)
    journal.record(field_path.with_value(small, "name", "one"))
    assert journal.trouble
    (tmp_path / "journal").unlink()
    last = field_path.with_value(small, "name", "two")
    journal.record(last)
    assert journal.trouble == ""
    journal._close()
    (left,) = left_behind(tmp_path / "journal")
    assert left.job == last


# --- full disk, no leave, someone else -----------------------------------------------------------------------

FULL = """
import resource, signal, sys
from pathlib import Path
from oakmeasure.core.document.job import new_job
from oakmeasure.files.job.job_file import JobFileError, save
from oakmeasure.files.job.journal import Journal
signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
resource.setrlimit(resource.RLIMIT_FSIZE, (2000, 2000))
folder = Path(sys.argv[1])
try:
    save(new_job("new"), folder / "a.oakjob")
except JobFileError as error:
    print(error)
journal = Journal(folder / "journal")
journal.begin(new_job("one"), None)
journal.record(new_job("two"))
print(journal.trouble)
"""


def test_a_disk_that_is_full_leaves_the_old_file_and_is_told(tmp_path):
    save(new_job("old"), tmp_path / "a.oakjob")
    done = subprocess.run([sys.executable, "-c", FULL, str(tmp_path)], capture_output=True, text=True, check=True)
    saved, kept = done.stdout.strip().splitlines()
    assert "a.oakjob was not written" in saved
    assert kept
    assert load(tmp_path / "a.oakjob").name == "old"
    assert sorted(each.name for each in tmp_path.iterdir()) == ["a.oakjob", "journal"]
    assert list((tmp_path / "journal").iterdir()) == []  # nothing that would be offered at the next start


def test_an_edit_that_found_no_room_comes_with_the_next_one_and_a_save_leaves_nothing(small, tmp_path, monkeypatch):
    journal = Journal(tmp_path)
    journal.begin(small, None)
    journal.record(field_path.with_value(small, "name", "one"))
    whole = journal._stream

    class Full:
        name = whole.name

        def fileno(self):
            return whole.fileno()

        def write(self, line):
            return whole.write(line[: len(line) // 2])

    journal._stream = Full()
    journal.record(field_path.with_value(small, "name", "two"))
    assert journal.trouble == "no space left on device"
    journal._stream = whole
    last = field_path.with_value(small, "name", "three")
    journal.record(last)
    assert journal.trouble == ""
    (file,) = tmp_path.iterdir()
    assert read_journal(file).job == last
    assert read_journal(file).edits == 2
    journal.forget()
    assert list(tmp_path.iterdir()) == []


def test_a_folder_without_leave_to_write_is_told(tmp_path, monkeypatch):
    def refused(*_args, **_more):
        raise PermissionError(13, "Permission denied")

    save(new_job("old"), tmp_path / "a.oakjob")
    monkeypatch.setattr(job_file.tempfile, "mkstemp", refused)
    with pytest.raises(JobFileError, match=r"a\.oakjob was not written: permission denied"):
        save(new_job("new"), tmp_path / "a.oakjob")
    assert load(tmp_path / "a.oakjob").name == "old"


def test_the_last_ten_saves_are_kept_each_once(tmp_path):
    path = tmp_path / "a.oakjob"
    for n in range(14):
        earlier_saves.keep(tmp_path / "earlier", path)
        earlier_saves.keep(tmp_path / "earlier", path)  # what is the same is kept once
        save(new_job(f"job {n}"), path)
        os.utime(path, (1_000_000 + n, 1_000_000 + n))
    there = earlier_saves.earlier(tmp_path / "earlier", path)
    assert [load(each.file).name for each in there] == [f"job {n}" for n in range(12, 2, -1)]
    other = tmp_path / "b.oakjob"
    save(new_job("b"), other)
    assert earlier_saves.earlier(tmp_path / "earlier", other) == []


def test_a_claim_is_held_by_one_program_and_goes_with_it(tmp_path):
    path = tmp_path / "a.oakjob"
    holder = subprocess.Popen(
        [
            sys.executable,
            "-c",
            "import sys, time; from pathlib import Path; from oakmeasure.files.job.claims import Claim; "
            "c = Claim(Path(sys.argv[1])); print(c.take(Path(sys.argv[2])), flush=True); time.sleep(60)",
            str(tmp_path / "claims"),
            str(path),
        ],
        stdout=subprocess.PIPE,
        text=True,
    )
    assert holder.stdout.readline() == "True\n"
    mine = Claim(tmp_path / "claims")
    assert mine.take(tmp_path / "b.oakjob")
    assert not mine.take(path)
    assert not Claim(tmp_path / "claims").take(tmp_path / "b.oakjob")  # the one that it had, it still has
    holder.kill()
    holder.wait()
    holder.stdout.close()
    assert mine.take(path)
    mine.leave()


def test_a_seal_tells_a_changed_file_from_one_that_was_only_touched(tmp_path):
    path = tmp_path / "a.oakjob"
    assert seal(path) == ""
    save(new_job("one"), path)
    first = seal(path)
    os.utime(path)
    assert seal(path) == first
    save(new_job("two"), path)
    assert seal(path) != first


def test_what_is_kept_for_a_person_is_read_by_nobody_else(demo, tmp_path):
    job = tmp_path / "a.oakjob"
    save(demo, job)
    kept = tmp_path / "state"
    earlier_saves.keep(kept, job)
    journal = Journal(tmp_path / "journal")
    journal.begin(demo, job)
    journal.record(demo.model_copy(update={"name": "Lower mill"}))
    for folder in (kept, tmp_path / "journal"):
        for each in (folder, *folder.rglob("*")):
            assert each.stat().st_mode & 0o077 == 0, each
    journal.forget()


def test_saving_follows_a_link_and_tidies_nothing_of_other_programs(demo, tmp_path):
    real, link = tmp_path / "real.oakjob", tmp_path / "link.oakjob"
    save(demo, real)
    link.symlink_to(real)
    others = [tmp_path / f".{name}" for name in ("real.oakjob.swp", "real.oakjob.bak", "link.oakjob.swp")]
    ours = tmp_path / ".real.oakjob.abcd1234.oakmeasure"
    for each in (*others, ours):
        each.write_text("theirs", encoding="utf-8")
        os.utime(each, (1, 1))
    save(demo.model_copy(update={"name": "Lower mill"}), link)
    assert link.is_symlink()
    assert load(real).name == "Lower mill"
    assert all(each.exists() for each in others)
    assert not ours.exists()


def test_names_of_255_letters_are_written(demo, tmp_path):
    for letter in ("a", "ö"):
        name = letter * ((255 - len(".oakjob")) // len(letter.encode()))
        save(demo, tmp_path / f"{name}.oakjob")
        assert load(tmp_path / f"{name}.oakjob").name == demo.name


def test_a_clock_that_runs_back_drops_no_newest_save(tmp_path):
    """Twelve saves, each by a clock an hour earlier than the one before: the last ten stay, the newest first."""
    path, folder = tmp_path / "a.oakjob", tmp_path / "earlier"
    for n in range(12):
        save(new_job(f"job {n}"), path)
        os.utime(path, (1_700_000_000 - 3600 * n,) * 2)
        earlier_saves.keep(folder, path)
    kept = [load(each.file).name for each in earlier_saves.earlier(folder, path)]
    assert kept == [f"job {n}" for n in range(11, 1, -1)]


def test_a_save_that_was_kept_before_there_were_numbers_is_the_oldest(tmp_path):
    path, folder = tmp_path / "a.oakjob", tmp_path / "earlier"
    save(new_job("new"), path)
    earlier_saves.keep(folder, path)
    (place,) = folder.iterdir()
    save(new_job("old"), place / "2031-01-02 03.04.05.000000.oakjob")
    assert [load(each.file).name for each in earlier_saves.earlier(folder, path)] == ["new", "old"]
