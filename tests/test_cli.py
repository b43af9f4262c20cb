from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path

import pytest

from oakmeasure.data import path_of

DEMO = path_of("demo.oakjob")
COMMAND = [str(Path(sys.executable).parent / "oak-measure")]


def run(*words: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([*COMMAND, *words], capture_output=True, text=True, timeout=120)


def test_figures_prints_every_leaf_as_json():
    done = run("figures", DEMO, "--json")
    assert done.returncode == 0
    leaves = json.loads(done.stdout)["leaves"]
    assert [leaf["id"] for leaf in leaves][:3] == ["seed-room", "drying-loft", "weighing-office"]
    assert leaves[0]["figures"]["leaf_width"]["unit"] == "mm"
    assert run("figures", DEMO).stdout.count("leaf_width") == len(leaves)


def test_shot_paints_the_window_without_a_screen(tmp_path):
    target = tmp_path / "a.png"
    assert run("shot", DEMO, str(target), "--stage", "hardware").returncode == 0
    header = target.read_bytes()[:24]
    assert (int.from_bytes(header[16:20]), int.from_bytes(header[20:24])) == (1280, 800)


def test_lists_and_sheet_are_written(tmp_path):
    for command, name in (("cut-list", "c.csv"), ("boring-list", "b.csv"), ("sheet", "s.pdf")):
        assert run(command, DEMO, str(tmp_path / name)).returncode == 0, command
        assert (tmp_path / name).stat().st_size > 300


@pytest.mark.parametrize(
    ("words", "reason"),
    [
        (("figures", "/none.oakjob"), "was not opened"), (("shot", DEMO, "/tmp/x.png", "--stage", "attic"), "--stage"),
        (("sheet", DEMO, "/tmp/x.pdf", "--leaf", "attic"), "seed-room"),
        (("cut-list", DEMO, "/none/x.csv"), "was not written"),
        (("a.oakjob", "b.oakjob"), "one job at a time"),
    ],
)  # fmt: skip
def test_bad_words_end_with_status_2_and_one_line(words, reason):
    done = run(*words)
    assert done.returncode == 2
    assert reason in done.stderr
    assert "Traceback" not in done.stderr
    assert len(done.stderr.strip().splitlines()) == 1
