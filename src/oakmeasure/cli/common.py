"""What the commands without a screen share: a job opened, a leaf of it, a file written, a refusal in one line."""

from __future__ import annotations

import gc
import sys
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Any

import typer
from platformdirs import user_state_path
from typer.core import TyperCommand

from oakmeasure.core.document.job import Hand, Job
from oakmeasure.core.solution import LeafSolution, Solution
from oakmeasure.core.solver import solve, solve_leaf
from oakmeasure.files.crash_log import log_trouble
from oakmeasure.files.job import job_file
from oakmeasure.files.job.earlier_saves import keep
from oakmeasure.files.plain_file import is_there, other_names

# A solved job is a million small things that all stay: the collector need not walk through them while it is made.
gc.set_threshold(50_000, 50, 100)
app = typer.Typer(
    add_completion=False,
    no_args_is_help=True,
    pretty_exceptions_enable=False,
    context_settings={"help_option_names": ["-h", "--help"]},
    help="Oak Measure. `oak-measure [JOB]` opens the window; these work without a screen.",
)
JobPath = Annotated[Path, typer.Argument(help="a job file, .oakjob")]
LeafId = Annotated[str, typer.Option(help="id of the leaf; the first when left out")]
PaperName = Annotated[str, typer.Option(help="A4, A3, roll, or width x height in mm")]
HandName = Annotated[str, typer.Option(help="left or right; its own when left out")]


def refuse(words: str) -> typer.Exit:
    """Say why not, in one line; the status to leave with."""
    print(f"oak-measure: {words}", file=sys.stderr)
    return typer.Exit(2)


@contextmanager
def refusing(*errors: type[Exception]) -> Iterator[None]:
    """Turn what a file or a wish cannot be into one line and status 2."""
    try:
        yield
    except errors as error:
        raise refuse(str(error)) from None


def loaded(path: Path) -> Job:
    """Return a job as its file holds it."""
    with refusing(job_file.JobFileError):
        return job_file.load(path)


def opened(path: Path) -> Solution:
    """Return a job, worked out."""
    solution = solve(loaded(path))
    _say_faults(solution.leaves)
    return solution


def _say_faults(leaves: Iterable[LeafSolution]) -> None:
    """Say of which leaf the program failed, and where more of it stands; the others go on."""
    for each in leaves:
        if each.fault is not None:
            print(f"oak-measure: {each.leaf.name}: {log_trouble(each.fault)}", file=sys.stderr)


class Writes(TyperCommand):
    """A command that writes a file: over one that is there only with `--force`, and over the job it reads never."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.epilog = "--force: write over a file that is there already. A target of - is standard output."

    def parse_args(self, ctx: Any, args: list[str]) -> list[str]:
        """Keep whether writing over was asked for, and which job is read."""
        WRITING.force = "--force" in args
        rest = super().parse_args(ctx, [each for each in args if each != "--force"])
        WRITING.job = ctx.params.get("job")
        return rest


@dataclass(slots=True)
class Writing:
    """What a command may write over."""

    force: bool = False
    """Whether a file that is there already is written over."""
    job: Path | None = None
    """The job that is read, which nothing is written over."""


WRITING = Writing()


def written(path: Path, content: bytes) -> None:
    """Write a file whole, or leave what was there; `-` is standard output."""
    if str(path) == "-":
        sys.stdout.buffer.write(content)
        return
    if WRITING.job is not None and _is_same(path, WRITING.job):
        raise refuse(f"{path.name} is the job: nothing else is written over it")
    if is_there(path) and path.is_file() and not WRITING.force:
        raise refuse(f"{path.name} is there already; --force writes over it")
    with refusing(job_file.JobFileError):
        job_file.write_whole(path, content)


def job_written(path: Path, job: Job) -> None:
    """Write a job file; what it held before is kept among the earlier saves."""
    with refusing(job_file.JobFileError):
        if told := other_names(path):
            print(f"oak-measure: {path.name}: {told}", file=sys.stderr)
        if is_there(path):
            keep(user_state_path("oak-measure") / "earlier", path)
        job_file.save(job, path)


def _is_same(one: Path, other: Path) -> bool:
    try:
        return one.samefile(other)
    except OSError:
        return False


def leaf_asked_for(job: Job, leaf: str) -> str:
    """Return the id of the leaf that was asked for, of the first where none was."""
    ids = [each.id for each in job.leaves]
    if leaf and leaf not in ids:
        raise refuse(f"--leaf {leaf}: the job has {', '.join(ids)}")
    return leaf or ids[0]


def leaf_of(path: Path, leaf: str) -> tuple[Job, LeafSolution]:
    """Return a job and the leaf of it that was asked for; no other is worked out."""
    job = loaded(path)
    solved = solve_leaf(job, job.leaf(leaf_asked_for(job, leaf)))
    _say_faults((solved,))
    return job, solved


def some_of(path: Path, leaf: str) -> tuple[Job, list[LeafSolution]]:
    """Return a job and the leaf of it that was asked for, all of them where none was."""
    if leaf:
        job, solved = leaf_of(path, leaf)
        return job, [solved]
    solution = opened(path)
    return solution.job, list(solution.leaves)


def hand_named(name: str) -> Hand | None:
    """Return the hand that was asked for; None where none was."""
    named = {str(each).split()[-1]: each for each in Hand}
    if name and name not in named:
        raise refuse(f"--hand {name}: one of {', '.join(named)}")
    return named.get(name)
