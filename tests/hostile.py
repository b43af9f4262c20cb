"""Files that are none, places that cannot be written and options that make no sense, through the command line.

Each call must end with 0 or 2 and say something plain; what lay there before must lie there still.
"""

from __future__ import annotations

import io
import os
import sys
from collections.abc import Iterator
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path

from oakmeasure.cli.main import main
from oakmeasure.core.document.job import new_job
from oakmeasure.files.job.job_file import dumps

READS = ("figures", "to-measure", "operations")
WRITES = {
    "sheet": ".pdf",
    "customer": ".pdf",
    "rod": ".pdf",
    "templates": ".pdf",
    "dxf": ".dxf",
    "svg": ".svg",
    "schedule": ".csv",
    "cut-list": ".csv",
    "settings": ".csv",
    "boring-list": ".csv",
    "keep-outs": ".csv",
    "labels": ".pdf",
    "folder": "",
}
OPTIONS = (
    ("sum", "brace", "--width", "500", "--height", "700", "--brace-width", "1e309"),
    ("sum", "brace", "--width", "nan", "--height", "700"),
    ("sum", "brace", "--width", "9" * 5000, "--height", "700"),
    ("sum", "no-such-sum"),
    ("sum",),
    ("sum", "leaf-size", "--opening-width"),
    ("gauge-sim", "--values", "nan", "--count", "1"),
    ("gauge-sim", "--values", "", "--count", "1"),
    ("gauge-sim", "--noise", "inf", "--count", "1"),
    ("printer-sim", "--port", "99999999"),
    ("cut", "--kind", "bars"),
    ("cut", "--stock", "/dev/null", "--parts", "/dev/null", "--kind", "bars"),
    ("cut", "--stock", "/dev/zero", "--parts", "/dev/zero", "--kind", "boards"),
    ("figurs", "x.oakjob"),
    ("--no-such-option",),
    ("-h",),
    ("--version",),
    ("schema", "too", "many"),
)


def _files(folder: Path) -> Iterator[Path]:
    """Yield what is no job, each in its own way."""
    made = dumps(new_job())
    for name, content in (
        ("empty", b""),
        ("zeros", b"\0" * 4096),
        ("letters", b"\xff\xfe\xfa" * 99),
        ("half", made[: len(made) // 2].encode()),
        ("list", b"[]"),
        ("deep", b"[" * 100_000),
        ("digits", b'{"schema_version": ' + b"9" * 5000 + b"}"),
        ("many", b'{"schema_version": 8, "leaves": [' + b",".join([b"{}"] * 300_000) + b"]}"),
        ("nothing", made.replace('"hand": "hinges left"', '"hand": null').encode()),
    ):
        path = folder / f"{name}.oakjob"
        path.write_bytes(content)
        yield path
    os.mkfifo(folder / "pipe.oakjob")
    (folder / "folder.oakjob").mkdir()
    (folder / "nowhere.oakjob").symlink_to(folder / "gone")
    yield from (folder / f"{each}.oakjob" for each in ("pipe", "folder", "nowhere", "missing"))
    yield from (Path("/dev/zero"), folder / ("x" * 300), Path(""), folder / "a\nb.oakjob")


def calls(folder: Path) -> Iterator[tuple[str, ...]]:
    """Yield every call, as its words."""
    good = folder / "good.oakjob"
    good.write_text(dumps(new_job()), encoding="utf-8")
    there = folder / "there.csv"
    there.write_text("mine", encoding="utf-8")
    (folder / "closed").mkdir()
    for at, path in enumerate(_files(folder)):
        for command in READS:
            yield command, str(path)
        for command, suffix in WRITES.items():
            yield command, str(path), str(folder / f"out-{at}-{command}{suffix}")
    for command, suffix in WRITES.items():
        yield command, str(good), str(good)
        yield command, str(good), str(there)
        yield command, str(good), str(folder / "nowhere" / "deep" / f"a{suffix}" if suffix else good / "in a file")
        yield command, str(good), str(folder / ("y" * 300 + suffix))
        yield command, str(good), str(folder / "closed") if suffix else "/dev/null"
        yield command, str(good), str(folder / f"leaf{suffix}"), "--leaf", "nobody"
        yield command, str(good)
    yield from OPTIONS


def tried(folder: Path) -> tuple[int, list[str]]:
    """Make every call in this process; return how many, and what went wrong."""
    failed, many = [], 0
    kept = sys.argv
    for words in calls(folder):
        many += 1
        said, refused = io.StringIO(), io.StringIO()
        code: object = "no end"
        try:
            with redirect_stdout(said), redirect_stderr(refused):
                sys.argv = ["oak-measure", *words]
                main()
        except SystemExit as left:
            code = left.code or 0
        except BaseException as error:
            code = repr(error)
        finally:
            sys.argv = kept
        told = " ".join(each[-60:] for each in words)
        if code not in (0, 2) or "Traceback" in refused.getvalue():
            failed.append(f"{told}: {code} {refused.getvalue()[-200:]}")
        elif code == 2 and not (refused.getvalue() + said.getvalue()).strip():
            failed.append(f"{told}: refused without a word")
    if (folder / "there.csv").read_text(encoding="utf-8") != "mine":
        failed.append("an existing file was written over")
    if (folder / "good.oakjob").read_text(encoding="utf-8") != dumps(new_job()):
        failed.append("the job was written over")
    return many, failed
