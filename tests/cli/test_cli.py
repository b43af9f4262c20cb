from __future__ import annotations

import io
import json
import os
import shlex
import subprocess
import sys
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path

import pytest
from platformdirs import user_state_path

from hostile import tried
from oakmeasure.cli.main import main
from oakmeasure.data import path_of
from oakmeasure.files.job import earlier_saves

DEMO = path_of("demo.oakjob")
COMMAND = [str(Path(sys.executable).parent / "oak-measure")]


def run_installed(*words: str) -> subprocess.CompletedProcess[str]:
    """Run the installed command, a process of its own."""
    return subprocess.run([*COMMAND, *words], capture_output=True, text=True, timeout=120)


def run(*words: str) -> subprocess.CompletedProcess[str]:
    """Run what the installed command calls, here: all that it imports is there already."""
    said, refused = io.StringIO(), io.StringIO()
    with pytest.MonkeyPatch.context() as patch, redirect_stdout(said), redirect_stderr(refused):
        patch.setattr(sys, "argv", [*COMMAND, *words])
        with pytest.raises(SystemExit) as left:
            main()
    return subprocess.CompletedProcess(words, left.value.code or 0, said.getvalue(), refused.getvalue())


def test_figures_prints_every_leaf_as_json():
    done = run_installed("figures", DEMO, "--json")
    assert done.returncode == 0
    leaves = json.loads(done.stdout)["leaves"]
    assert [leaf["id"] for leaf in leaves][:3] == ["seed-room", "drying-loft", "weighing-office"]
    assert leaves[0]["figures"]["leaf_width"]["unit"] == "mm"
    assert run("figures", DEMO).stdout.count("leaf_width") == len(leaves)


def test_shot_paints_the_window_without_a_screen(tmp_path):
    target = tmp_path / "a.png"
    assert run_installed("shot", DEMO, str(target), "--stage", "hardware").returncode == 0
    header = target.read_bytes()[:24]
    assert (int.from_bytes(header[16:20]), int.from_bytes(header[20:24])) == (1280, 800)


def test_lists_and_sheet_are_written(tmp_path):
    for command, name in (("cut-list", "c.csv"), ("boring-list", "b.csv"), ("sheet", "s.pdf")):
        assert run(command, DEMO, str(tmp_path / name)).returncode == 0, command
        assert (tmp_path / name).stat().st_size > 300


@pytest.mark.parametrize(
    ("words", "reason"),
    [
        (("figures", "/none.oakjob"), "was not opened"),
        (("shot", DEMO, "/tmp/x.png", "--stage", "attic"), "--stage"),
        (("sheet", DEMO, "/tmp/x.pdf", "--leaf", "attic"), "seed-room"),
        (("cut-list", DEMO, "/none/x.csv"), "was not written"),
        (("a.oakjob", "b.oakjob"), "one job at a time"),
    ],
)
def test_bad_words_end_with_status_2_and_one_line(words, reason):
    for done in (run(*words), *([run_installed(*words)] if "attic" in words else [])):
        assert done.returncode == 2
        assert reason in done.stderr
        assert "Traceback" not in done.stderr
        assert len(done.stderr.strip().splitlines()) == 1


def test_version_and_help_are_told_and_a_word_that_is_no_command_is_refused_with_the_nearest():
    from oakmeasure import __version__

    assert run("--version").stdout == f"oak-measure {__version__}\n"
    assert "--version" in run("-h").stdout
    assert "full size" in run("rod", "-h").stdout
    for word, near in (("figure", "figures"), ("boring-lists", "boring-list"), ("bogus", "oak-measure -h")):
        done = run(word)
        assert done.returncode == 2
        assert near in done.stderr


@pytest.mark.parametrize("words", [("sum", "--list"), ("figures", DEMO), ("schema",)])
def test_a_pipe_that_closes_is_silent_and_a_full_device_is_a_sentence(words):
    first = subprocess.run(
        f"{shlex.join([*COMMAND, *words])} | head -c 1; exit ${{PIPESTATUS[0]}}",
        capture_output=True,
        executable="bash",
        shell=True,
        text=True,
        check=False,
    )
    assert (len(first.stdout), first.stderr) == (1, "")
    assert first.returncode in (0, 141)  # 0: all of it was in the pipe before it closed
    with open("/dev/full", "w", encoding="utf-8") as full:
        done = subprocess.run([*COMMAND, *words], stdout=full, stderr=subprocess.PIPE, text=True, check=False)
    assert done.returncode == 2
    assert done.stderr == "oak-measure: no space left on device\n"


def test_every_command_is_known_where_the_window_is_told_from_them():
    from oakmeasure.cli.inspect import app
    from oakmeasure.cli.main import COMMANDS

    named = {each.name or each.callback.__name__ for each in app.registered_commands}
    assert named == set(COMMANDS)


def test_cut_prints_a_plan_as_json_and_says_what_is_left_over(tmp_path):
    stock, parts = tmp_path / "s.csv", tmp_path / "p.csv"
    stock.write_text("name,length_mm,width_mm,qty,price\nS,2440,1220,,54.5\n", encoding="utf-8")
    parts.write_text("name,length_mm,width_mm,qty,grain\nA,800,390,9,any\nB,5000,100,2,length\n", encoding="utf-8")
    done = run("cut", "--stock", str(stock), "--parts", str(parts), "--kind", "sheets", "--seconds", "0.5", "--json")
    assert done.returncode == 0
    plan = json.loads(done.stdout)
    assert {"cost", "bound", "gap", "stock_used", "pieces"} <= set(plan)
    assert (plan["cost"], plan["stock_used"], len(plan["pieces"])) == (54.5, 1, 9)
    assert plan["left"] == [{"part": "B", "qty": 2}]
    assert "fit no stock" in done.stderr
    parts.write_text("name,length_mm,width_mm,qty,grain\nA,-8,390,9,any\n", encoding="utf-8")
    refused = run("cut", "--stock", str(stock), "--parts", str(parts), "--kind", "sheets")
    assert refused.returncode == 2
    assert "p.csv, line 2: length_mm: -8" in refused.stderr


def test_keep_outs_are_written_as_csv_and_as_pdf(tmp_path):
    for name in ("zones.csv", "zones.pdf"):
        assert run("keep-outs", DEMO, str(tmp_path / name)).returncode == 0
    assert (tmp_path / "zones.pdf").read_bytes().startswith(b"%PDF")
    assert "keep free" in (tmp_path / "zones.csv").read_text(encoding="utf-8-sig").splitlines()[0]


def test_cut_keeps_to_what_is_to_be_cut_first(tmp_path):
    stock, parts = tmp_path / "s.csv", tmp_path / "p.csv"
    stock.write_text("name,length_mm,width_mm,qty,price\nS,2000,1000,,10\n", encoding="utf-8")
    parts.write_text("name,length_mm,width_mm,qty,grain\nA,900,300,6,length\n", encoding="utf-8")
    for first in ("rip", "crosscut"):
        done = run(
            "cut",
            "--stock",
            str(stock),
            "--parts",
            str(parts),
            "--kind",
            "sheets",
            "--seconds",
            "0.4",
            "--first",
            first,
            "--json",
        )
        assert json.loads(done.stdout)["cost"] == 10
    refused = run("cut", "--stock", str(stock), "--parts", str(parts), "--kind", "sheets", "--first", "sideways")
    assert refused.returncode == 2
    assert "sideways" in refused.stderr


def test_operations_are_printed_as_json_in_working_order():
    done = run("operations", DEMO, "--json")
    assert done.returncode == 0
    leaves = json.loads(done.stdout)["leaves"]
    assert len(leaves) == 28
    assert all(leaf["operations"] for leaf in leaves)
    for leaf in leaves:
        seen: set[str] = set()
        for op in leaf["operations"]:
            assert op["id"] not in seen
            assert set(op["needs"]) <= seen
            assert op["name"]
            seen.add(op["id"])
    one = json.loads(run("operations", DEMO, "--leaf", "ledger", "--json").stdout)["leaves"]
    assert [leaf["id"] for leaf in one] == ["ledger"]
    assert {op["id"]: op["state"] for op in one[0]["operations"]}["glue:frame"] == "done"
    assert "Bore the cups from the closing face" in run("operations", DEMO, "--leaf", "ledger").stdout
    assert run("operations", DEMO, "--leaf", "attic", "--json").returncode == 2


def test_labels_are_written_as_a_sheet(tmp_path):
    from pypdf import PdfReader

    target = tmp_path / "labels.pdf"
    assert run("labels", DEMO, str(target), "--leaf", "pair").returncode == 0
    text = PdfReader(target).pages[0].extract_text()
    assert "hinge stile" in text
    assert "1 of 2" in text
    assert "(mirrored)" in text


def test_a_schedule_becomes_a_job_and_comes_out_again(tmp_path):
    given, job, out = tmp_path / "in.csv", tmp_path / "mill.oakjob", tmp_path / "out.csv"
    given.write_text("name,width_mm,height_mm\nNorth,742.5,1990\nSouth,743,1991\n", encoding="utf-8")
    assert run("read-schedule", str(given), str(job)).stdout.strip() == "2 leaves"
    assert run("read-schedule", str(given), str(job)).stdout.strip() == "2 leaves"
    assert run("schedule", str(job), str(out)).returncode == 0
    lines = out.read_text("utf-8-sig").splitlines()
    assert [each.split(",")[0] for each in lines] == ["name", "North", "South", "North", "South"]
    before = job.read_bytes()
    given.write_text("name,width_mm\nNorth,742.5\n", encoding="utf-8")
    done = run("read-schedule", str(given), str(job))
    assert (done.returncode, job.read_bytes()) == (2, before)
    assert "no column height_mm" in done.stderr


def test_rod_router_and_drawing_are_written_without_a_screen(tmp_path):
    demo = str(Path(__file__).parents[2] / "src/oakmeasure/data/demo.oakjob")
    for name, words in (
        ("a.pdf", ("rod", "--paper", "A3")),
        ("a.csv", ("rod",)),
        ("a.svg", ("svg",)),
        ("a.dxf", ("dxf", "--face", "closing", "--hand", "right")),
    ):
        target = tmp_path / name
        done = run(words[0], demo, str(target), "--leaf", "packet-press", *words[1:])
        assert done.returncode == 0, done.stderr
        assert target.stat().st_size > 500
    assert run("dxf", demo, str(tmp_path / "b.dxf"), "--hand", "both").returncode == 2
    assert run("rod", demo, str(tmp_path / "b.pdf"), "--paper", "napkin").returncode == 2
    assert not list(tmp_path.glob("b.*"))


def test_of_one_leaf_no_other_is_worked_out(tmp_path, monkeypatch):
    from oakmeasure.core import solver

    worked_out = []
    design = solver._design
    monkeypatch.setattr(solver, "_design", lambda job, leaf: (worked_out.append(leaf.id), design(job, leaf))[1])
    for words in (("rod", "a.csv"), ("svg", "a.svg"), ("labels", "a.pdf"), ("keep-outs", "z.pdf")):
        assert run(words[0], DEMO, str(tmp_path / words[1]), "--leaf", "pair").returncode == 0
    assert worked_out == ["pair"] * 4


def test_a_file_that_is_there_is_written_over_only_when_asked_and_the_job_never(tmp_path):
    job, out = tmp_path / "a.oakjob", tmp_path / "c.csv"
    job.write_bytes(Path(DEMO).read_bytes())
    os.link(job, tmp_path / "same.oakjob")
    before = job.read_bytes()
    for words in (("cut-list", job), ("svg", job), ("schedule", tmp_path / "same.oakjob"), ("hardware", job)):
        for more in ((), ("--force",)):
            done = run(words[0], str(job), str(words[1]), *more)
            assert (done.returncode, job.read_bytes()) == (2, before), words
            assert "is the job" in done.stderr
    out.write_text("mine", encoding="utf-8")
    refused = run("cut-list", str(job), str(out))
    assert (refused.returncode, out.read_text(encoding="utf-8")) == (2, "mine")
    assert "--force" in refused.stderr
    assert run("cut-list", "--force", str(job), str(out)).returncode == 0
    assert out.stat().st_size > 1000


def test_lists_go_to_standard_output_to_devices_and_through_links(tmp_path):
    told = run_installed("cut-list", DEMO, "-")
    assert told.stdout.lstrip("\ufeff").startswith("leaf,")
    assert not Path("-").exists()
    assert run_installed("cut-list", DEMO, "/dev/stdout").stdout == told.stdout
    assert run("cut-list", DEMO, "/dev/null").returncode == 0
    assert Path("/dev/null").is_char_device()
    (tmp_path / "real.csv").write_text("old", encoding="utf-8")
    (tmp_path / "link.csv").symlink_to(tmp_path / "real.csv")
    assert run("cut-list", DEMO, str(tmp_path / "link.csv"), "--force").returncode == 0
    assert (tmp_path / "link.csv").is_symlink()
    assert (tmp_path / "real.csv").stat().st_size > 1000
    assert "it is a folder" in run("cut-list", DEMO, str(tmp_path)).stderr


def test_a_job_that_a_command_writes_anew_keeps_its_earlier_save(tmp_path):
    job, given = tmp_path / "a.oakjob", tmp_path / "in.csv"
    job.write_bytes(Path(DEMO).read_bytes())
    before = job.read_bytes()
    given.write_text("name,width_mm,height_mm\nNorth,742.5,1990\n", encoding="utf-8")
    assert run("read-schedule", str(given), str(job)).returncode == 0
    assert job.read_bytes() != before
    (kept,) = earlier_saves.earlier(user_state_path("oak-measure") / "earlier", job)
    assert kept.file.read_bytes() == before


def test_no_file_no_place_and_no_option_ends_a_command_without_a_word_or_with_a_fault(tmp_path):
    many, failed = tried(tmp_path)
    assert failed == []
    assert many > 300
