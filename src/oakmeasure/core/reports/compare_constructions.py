"""Two constructions for the same opening, side by side: parts, timber, weight, hours, cost, checks."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.constructions import KINDS, trade_name
from oakmeasure.core.document.job import Job
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Check, Level, Stage, rank
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.alternatives import Comparison, Option
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.solver import solve_leaf


@dataclass(frozen=True, slots=True)
class ConstructionComparison:
    """The leaf in hand and the same leaf built another way, and the table of both."""

    one: LeafSolution
    """The leaf as it is."""
    other: LeafSolution
    """The leaf, built another way."""
    table: Comparison
    """Both side by side."""


def other_kinds(kind: str) -> list[tuple[str, str]]:
    """Return every other construction: its key and its name.

    Args:
        kind: A construction, one of `KINDS`.
    """
    return [(key, trade_name(key)) for key in KINDS if key != kind]


def beside(job: Job, leaf_id: str, one: LeafSolution, kind: str) -> ConstructionComparison:
    """Return the leaf in hand beside itself as another construction on its own defaults.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        one: The leaf as it is.
        kind: A construction, one of `KINDS`.

    Raises:
        InputError: See the message.
    """
    changed = job_edits.with_construction(job, leaf_id, kind)
    other = solve_leaf(changed, changed.leaf(leaf_id))
    show = Show(job.unit)
    names = [trade_name(each.leaf.build.kind) for each in (one, other)]
    rows = zip(_rows(one, show), _rows(other, show), strict=True)
    options = [
        Option((label, mine, theirs), _worse(mine_level, their_level))
        for (label, mine, mine_level), (_, theirs, their_level) in rows
    ]
    about = "The same opening, the same timber; the other one on its own good defaults. Hours and prices are made up."
    table = Comparison("Beside another construction", about, ("", names[0], names[1]), tuple(options))
    return ConstructionComparison(one, other, table)


def _worse(one: Level, other: Level) -> Level:
    return min(one, other, key=rank)


def _rows(leaf: LeafSolution, show: Show) -> list[tuple[str, str, Level]]:
    """Return what is compared of one leaf: its label, its value, and its level where it has one."""
    f, build, plan = leaf.figures, leaf.build, leaf.plan
    if build is None or plan is None:
        labels = ("thickness", "parts", "timber", "weight", "moves in a year", "hours", "cost", "to look at", "stops")
        return [(label, "no leaf", Level.STOP) for label in labels]
    looks = [each for each in leaf.checks if each.level is Level.WARNING]
    stops = [each for each in leaf.checks if each.level is Level.STOP]
    # Boards move each for itself; any other leaf as a whole.
    of = "leaf_change" if "leaf_change_wet" in f else "board_change"
    moves = sum(abs(f[figure_name(f"{of}_{air}")].value) for air in ("wet", "dry") if figure_name(f"{of}_{air}") in f)
    return [
        ("thickness", show.length(build.thickness), Level.OK),
        ("parts", str(len(build.parts)), Level.OK),
        ("timber", plan.in_words(), Level.OK),
        ("weight", show.value(f["mass"].value, Unit.KG), Level.OK),
        ("moves in a year", show.length(moves), Level.OK),
        ("hours", f"{f['hours'].value:.1f}", Level.OK),
        ("cost", f"{f['cost'].value:.0f}", Level.OK),
        ("to look at", f"{len(looks)}: {_first(looks)}" if looks else "none", Level.WARNING if looks else Level.OK),
        ("stops", f"{len(stops)}: {_first(stops)}" if stops else "none", Level.STOP if stops else Level.OK),
    ]


def _first(checks: list[Check]) -> str:
    """Return the title of the first check about the leaf itself, or of the first one."""
    about = [each for each in checks if each.stage in (Stage.LEAF, Stage.TIMBER)]
    return (about or checks)[0].title
