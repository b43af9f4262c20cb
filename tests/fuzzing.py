"""Damaged and made-up input for everything that reads: it is read, or refused with a sentence, and nothing else.

Used by the tests with some thousands of inputs, by the bench with a hundred thousand, and there by atheris too.
"""

from __future__ import annotations

import contextlib
import io
import random
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path

import ezdxf

from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document.job import Job, new_job
from oakmeasure.core.edits import job_edits
from oakmeasure.core.solver import solve
from oakmeasure.files.job.job_file import JobFileError, demo_job, dumps, load
from oakmeasure.files.job.journal import Journal, read_journal
from oakmeasure.files.tables.cutting_csv import DEFECTS, PARTS, STOCK, CuttingFileError, read_lines
from oakmeasure.files.tables.hardware_csv import Ware, hardware_csv, read_hardware
from oakmeasure.files.tables.log_lines import log_lines, read_log
from oakmeasure.files.tables.points import PointsFileError, read_points
from oakmeasure.files.tables.schedule_csv import read_schedule, schedule_csv
from oakmeasure.files.tables.stock_csv import rack_csv, read_rack
from oakmeasure.gauges.protocol import BadLineError, GaugeReading, Lines, Quantity, line_of, parse_line

LONGEST_SECONDS, MOST_MB = 2.0, 500
TOKENS = (
    b"",
    b"\x00",
    b"\xff\xfe",
    b"\xef\xbb\xbf",
    b";",
    b",",
    b'"',
    b"\n",
    b"\r\n",
    b"=1+1",
    b"-",
    b"1e999",
    b"nan",
    b"-0",
    b"9" * 400,
    b'29 1/4"',
    b"\xc3\xa9",
    b"{}",
    b"[",
    b"]",
    b"null",
    b"true",
    b"\\u0000",
    b"0\nSECTION\n",
    b"  0\nEOF\n",
    b"*ZZ",
    b"' ",
    b"../../x",
    b"a" * 3000,
)


@dataclass(frozen=True, slots=True)
class Target:
    """Something that reads. seeds: good input. refuses: what it may raise. share: of all inputs that it gets."""

    name: str
    suffix: str
    seeds: tuple[bytes, ...]
    read: Callable[[Path], object]
    refuses: tuple[type[Exception], ...]
    share: float


def small_job() -> Job:
    job = demo_job()
    return job.model_copy(update={"leaves": (job.leaf("ledger"),), "boards": job.boards[:3]})


def _dxf() -> bytes:
    document = ezdxf.new("R12")
    space = document.modelspace()
    space.add_line((0, 0), (640, 0))
    space.add_polyline2d([(640, 0), (647, 910), (7, 905)])
    space.add_arc((320, 900), 330, 30, 150)
    document.blocks.new("b").add_point((1, 2))
    space.add_blockref("b", (10, 10))
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode("utf-8")


def targets() -> tuple[Target, ...]:
    """Return everything that is fuzzed."""
    job, made = small_job(), solve(small_job())
    leaves = {each.leaf.id: each for each in made.leaves}
    table = (CuttingFileError,)

    def lists(columns: tuple[str, ...]) -> bytes:
        return (",".join(columns) + "\nA,2400,200,3,12.5\nB,600.5,90,2,length\n").encode()

    def gauge(path: Path) -> None:
        lines = Lines()
        content = path.read_bytes()
        for at in range(0, len(content), 7):
            for line in lines.feed(content[at : at + 7]):
                with contextlib.suppress(BadLineError):
                    parse_line(line)

    readings = b"".join(line_of(GaugeReading(Quantity.DISTANCE, 700.0 + n)) for n in range(4))
    csv = tuple(hardware_csv(new_job(), ware).encode() for ware in Ware)
    ticks = (b"x,y\n0,0\n640,0\n647,910\n", b"1;2,5\n3;4\n", b'x,y,angle\n29 1/4",1,90\n')
    cut = tuple(map(lists, (STOCK, PARTS, DEFECTS)))
    return (
        Target("job", ".oakjob", (dumps(new_job()).encode(), dumps(job).encode()), load, (JobFileError,), 0.12),
        Target("journal", ".journal", (_journal(job),), read_journal, (JobFileError,), 0.05),
        Target("points", ".csv", ticks, lambda p: read_points(p, UnitSystem.MM), (PointsFileError,), 0.2),
        Target("dxf", ".dxf", (_dxf(),), lambda p: read_points(p, UnitSystem.MM), (PointsFileError,), 0.01),
        Target("schedule", ".csv", (schedule_csv(made).encode(),), lambda p: read_schedule(p, job), table, 0.08),
        Target("rack", ".csv", (rack_csv(job).encode(),), lambda p: read_rack(p, job), table, 0.08),
        Target("hardware", ".csv", csv, read_hardware, table, 0.1),
        Target("cutting", ".csv", cut, lambda p: read_lines(p, STOCK), table, 0.16),
        Target("log", ".jsonl", (log_lines(job),), lambda p: read_log(p.read_bytes(), job, leaves), (), 0.05),
        Target("gauge", ".txt", (readings,), gauge, (), 0.15),
    )


def _journal(job: Job) -> bytes:
    with tempfile.TemporaryDirectory() as place:
        journal = Journal(Path(place))
        journal.begin(job, None)
        for n in range(3):
            journal.record(job_edits.with_field(job, job.leaves[0].id, "fit.gap_floor", 4.0 + n))
        (file,) = Path(place).iterdir()
        content = file.read_bytes()
        journal.forget()
    return content


def mutated(seeds: tuple[bytes, ...], source: random.Random) -> bytes:
    """Return a seed with a few things done to it."""
    data = bytearray(source.choice(seeds))
    for _ in range(source.choice((1, 1, 1, 2, 3, 8))):
        at = source.randrange(len(data) + 1)
        end = min(len(data), at + source.choice((0, 1, 4, 30, 400)))
        what = source.randrange(6)
        if what == 0 and data:
            data[at % len(data)] = source.randrange(256)
        elif what == 1:
            data[at:end] = b""
        elif what == 2:
            data[at:at] = source.choice(TOKENS)
        elif what == 3:
            data[at:end] = source.choice(TOKENS)
        elif what == 4:
            data[at:at] = data[at:end] * source.choice((1, 2, 20))
        else:
            data = data[: source.randrange(len(data) + 1)]
    return bytes(data)


@dataclass(slots=True)
class Outcome:
    """inputs: how many. refused: of them. slowest: seconds. mb: most memory that the process has had."""

    inputs: int = 0
    refused: int = 0
    slowest: float = 0.0
    mb: float = 0.0


def try_one(target: Target, content: bytes, path: Path, outcome: Outcome) -> None:
    """Let a target read one input; AssertionError where it is neither read nor refused as it should be."""
    path.write_bytes(content)
    start, reason = time.process_time(), "read"
    try:
        target.read(path)
    except target.refuses as error:
        outcome.refused += 1
        reason = str(error)
    took = time.process_time() - start  # work done, the same on a busy machine
    assert reason, f"{target.name}: refused without a reason: {content[:200]!r}"
    assert "\n" not in reason, f"{target.name}: more than a line: {reason[:300]!r}"
    outcome.inputs += 1
    outcome.slowest = max(outcome.slowest, took)
    assert took < LONGEST_SECONDS, f"{target.name}: {took:.1f} s for {content[:200]!r}"


def fuzz(folder: Path, inputs: int, *, seed: int) -> dict[str, Outcome]:
    """Let every target read its share of so many inputs in a folder; what it would write elsewhere ends it."""
    outcomes: dict[str, Outcome] = {}
    for target in targets():
        path = folder / f"input{target.suffix}"
        source = random.Random(f"{seed}-{target.name}")
        outcome = outcomes[target.name] = Outcome()
        with only_in(folder):
            for _ in range(max(1, round(inputs * target.share))):
                try_one(target, mutated(target.seeds, source), path, outcome)
        outcome.mb = most_memory()
        path.unlink()
    return outcomes


def most_memory() -> float:
    """Return the most memory that this program has had, MB; not what the one that started it had before."""
    text = Path("/proc/self/status").read_text(encoding="ascii")
    return int(text.partition("VmHWM:")[2].split()[0]) / 1024


class only_in:  # noqa: N801
    """While it holds, a file that is opened to write anywhere else is an error."""

    _folder: Path | None = None
    _is_set = False

    def __init__(self, folder: Path) -> None:
        self.folder = folder

    def __enter__(self) -> None:
        only_in._folder = self.folder
        if not only_in._is_set:
            only_in._is_set = True
            sys.addaudithook(_watched)

    def __exit__(self, *_: object) -> None:
        only_in._folder = None


def _watched(event: str, arguments: tuple[object, ...]) -> None:
    folder = only_in._folder
    if folder is None:
        return
    if event == "open" and isinstance(arguments[1], str) and set(arguments[1]) & set("wax+"):
        assert str(arguments[0]).startswith(str(folder)), f"written outside: {arguments[0]!r}"
    assert event not in ("os.remove", "os.rename", "os.mkdir", "subprocess.Popen", "socket.connect"), event


def all_seeds() -> Iterator[tuple[Target, bytes]]:
    """Yield every target with each of its good inputs."""
    for target in targets():
        for seed in target.seeds:
            yield target, seed
