"""The glue-up planner: what of a glue-up closes within the glue's open time, in stages, with clamps and people.

Open and clamp times are at 20 °C and double for every 10 °C less: common practice, no source; so are the minutes that
clamps and squaring take. The plan never lets a stage run over the open time: where one step alone does, there is no
plan, and it says which step and what would help.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from oakmeasure.core.document.job import Leaf
from oakmeasure.core.document.rules import ShopRules
from oakmeasure.core.figures.check import Level
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.making.finish import in_the_cold
from oakmeasure.core.making.glue_tasks import Closing, Task, tasks_of
from oakmeasure.core.timber.place import glue_of
from oakmeasure.data import table

# Each clamp; diagonals and winding sticks, of a stage
CLAMP_MINUTES = 0.35
SQUARE_MINUTES = 0.8
CAUL_PLACES = 2  # that one clamp pulls over a bowed caul
SPECIAL = ("hide",)  # taken only where it is asked for
# Of the open time, from which the clock warns
LAST_MINUTE = 1.0
LAST_SHARE = 0.25
# Minutes, and how many of them, in which the clock looks for what comes then
LOOKS_EVERY = 0.1
LOOKS_AHEAD = 200
TIGHT = 0.85  # share of the open time over which a stage is called tight


@dataclass(frozen=True, slots=True)
class Glue:
    """A glue as it is on the day."""

    key: str
    """Its key in the table."""
    name: str
    """Its name, as it is shown."""
    durability: str
    """Its class, D1 to D4."""
    open_minutes: float
    """Minutes from the first bead to the last clamp."""
    clamp_hours: float
    """Hours in the clamps."""
    gap: float
    """The widest gap that it fills, mm."""
    least: float
    """The lowest temperature for it, °C."""
    end_grain: str
    """What it does on end grain."""
    clean: str
    """How squeeze-out is cleaned."""


@dataclass(frozen=True, slots=True)
class GlueStage:
    """What is glued in one go."""

    number: int
    """Its number, from 1."""
    closings: tuple[Closing, ...]
    """Joints that are closed in it."""
    minutes: float
    """Minutes until the last clamp is tight."""
    clamps: int
    """Places that are clamped."""
    cauls: bool
    """One clamp pulls two of them."""
    start: tuple[float, ...]
    """Of each closing, minutes from the first bead."""


@dataclass(frozen=True, slots=True)
class TaskPlan:
    """The stages of a glue-up; none where one step alone runs over."""

    task: Task
    """What is glued up."""
    stages: tuple[GlueStage, ...]
    """In what order it is closed."""
    trouble: str = ""
    """Which."""
    ways: tuple[str, ...] = ()
    """What would help."""


@dataclass(frozen=True, slots=True)
class GluePlan:
    """The glue-ups of a leaf, one after the other."""

    glue: Glue
    """The glue."""
    tasks: tuple[TaskPlan, ...]
    """Each glue-up in its stages."""
    clamps: int
    """How many clamps it takes at the most."""
    people: int
    """How many work at it."""

    @property
    def fits(self) -> bool:
        """Return whether every glue-up has its stages."""
        return all(each.stages for each in self.tasks)

    @property
    def longest(self) -> float:
        """Return the minutes of the longest stage, 0 where there is none."""
        return max((stage.minutes for each in self.tasks for stage in each.stages), default=0.0)

    def spare(self, stage: GlueStage) -> float:
        """Return how many minutes the glue stays open after a stage is closed.

        Args:
            stage: The joints that are closed in one go.
        """
        return self.glue.open_minutes - stage.minutes

    def stage(self, number: int) -> tuple[TaskPlan, GlueStage] | None:
        """Return the stage of a number over all glue-ups, from 1.

        Args:
            number: Its number, from 1.
        """
        flat = [(each, stage) for each in self.tasks for stage in each.stages]
        return flat[number - 1] if 0 < number <= len(flat) else None


def glue_on_the_day(key: str, degrees: float) -> Glue:
    """Return a glue with its times at the temperature of the shop, °C.

    Args:
        key: Its key in the table.
        degrees: Temperature of the workshop, °C.

    Raises:
        KeyError: For no such glue.

    >>> round(glue_on_the_day("white", 20.0).open_minutes, 1), round(glue_on_the_day("white", 30.0).open_minutes, 1)
    (8.0, 4.0)
    """
    row: dict[str, Any] = table("glues")[key]
    longer = in_the_cold(degrees)
    return Glue(
        key,
        row["name"],
        row["class"],
        row["open"] * longer,
        row["clamp"] * longer / 60,
        row["gap"],
        row["least"],
        row["end_grain"],
        row["clean"],
    )


def glue_keys(leaf: Leaf) -> tuple[str, ...]:
    """Return the glue that is chosen, or all that bear where the leaf lives.

    The first that stays open long enough is then taken.

    Args:
        leaf: The leaf, as the document holds it.
    """
    if leaf.making.glue is not None:
        return (leaf.making.glue,)
    wanted = glue_of(leaf.timber)
    return tuple(key for key, row in table("glues").items() if row["class"] >= wanted and key not in SPECIAL)


def stage_minutes(closings: Sequence[Closing], *, people: int, share: bool, cauls: bool = False) -> float:
    """Return how long a stage takes until its last clamp is tight, minutes.

    Args:
        closings: Joints that are closed one after the other.
        people: How many work at it.
        share: Whether clamps stay the same however many joints close in one stage.
        cauls: Whether cauls are laid first.
    """
    spread = sum(each.minutes for each in closings)
    clamps = places(closings, share=share) / (CAUL_PLACES if cauls else 1)
    return (spread + CLAMP_MINUTES * clamps) / max(people, 1) + SQUARE_MINUTES


def places(closings: Sequence[Closing], *, share: bool) -> int:
    """Return how many places are clamped in a stage.

    Args:
        closings: Joints that are closed one after the other.
        share: Whether clamps stay the same however many joints close in one stage.
    """
    return max((each.clamps for each in closings), default=0) if share else sum(each.clamps for each in closings)


def plan_task(task: Task, *, open_minutes: float, people: int, clamps: int) -> TaskPlan:
    """Return the stages of a glue-up: as many closings in each as fit the open time and the clamps, in their order.

    Args:
        task: What is glued up.
        open_minutes: For how long the glue stays open on the day, minutes.
        people: How many work at it.
        clamps: How many clamps there are; where they are short, one pulls two places over a bowed caul.
    """
    groups: list[list[Closing]] = []
    for closing in task.closings:
        with_last = [*groups[-1], closing] if groups else []
        if groups and not closing.alone and _goes(task, with_last, open_minutes, people, clamps):
            groups[-1].append(closing)
        else:
            groups.append([closing])
    for group in groups:
        if not _goes(task, group, open_minutes, people, clamps):
            return _no_plan(task, group, open_minutes, people, clamps)
    return TaskPlan(task, tuple(_stage(task, n, each, people, clamps) for n, each in enumerate(groups, start=1)))


def _goes(task: Task, group: Sequence[Closing], open_minutes: float, people: int, clamps: int) -> bool:
    wanted = places(group, share=task.share)
    if wanted > CAUL_PLACES * clamps:
        return False
    minutes = stage_minutes(group, people=people, share=task.share, cauls=wanted > clamps)
    return minutes <= open_minutes + 1e-9


def _stage(task: Task, number: int, group: Sequence[Closing], people: int, clamps: int) -> GlueStage:
    wanted = places(group, share=task.share)
    cauls = wanted > clamps
    minutes = stage_minutes(group, people=people, share=task.share, cauls=cauls)
    start, at = [], 0.0
    for each in group:
        start.append(at)
        at += each.minutes / max(people, 1)
    return GlueStage(number, tuple(group), minutes, wanted, cauls, tuple(start))


def _no_plan(task: Task, group: Sequence[Closing], open_minutes: float, people: int, clamps: int) -> TaskPlan:
    wanted = places(group, share=task.share)
    words = group[0].words
    if wanted > CAUL_PLACES * clamps:
        trouble = f"{words}: {wanted} places to clamp, {clamps} clamps pull {CAUL_PLACES * clamps} over cauls"
        return TaskPlan(task, (), trouble, ("borrow clamps", "wedges between cleats on a board, or straps"))
    minutes = stage_minutes(group, people=people, share=task.share, cauls=wanted > clamps)
    trouble = f"{words}: {minutes:.1f} minutes, and it cannot be done by halves; the glue stays open {open_minutes:.1f}"
    ways = []
    helped = [n for n in range(people + 1, 5) if stage_minutes(group, people=n, share=task.share) <= open_minutes]
    if helped:
        ways.append(f"{helped[0]} people at it")
    slower = [row["name"] for row in table("glues").values() if row["open"] >= minutes]
    if slower:
        ways.append(f"{slower[0]}, which stays open longer")
    ways.append("a cooler shop")
    return TaskPlan(task, (), trouble, tuple(ways))


def plan_glue(leaf: Leaf, build: Build, rules: ShopRules) -> GluePlan | None:
    """Return the glue plan of a leaf; None where nothing is glued.

    Where no glue is chosen, the first that bears where the leaf lives and stays open long enough is taken.

    Args:
        leaf: The leaf, as the document holds it.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        rules: The shop rules of the job.
    """
    tasks = tasks_of(leaf, build)
    if not tasks:
        return None
    clamps, people = int(rules.clamps.value), leaf.making.people
    first: GluePlan | None = None
    for key in glue_keys(leaf):
        glue = glue_on_the_day(key, leaf.making.shop_temperature_c)
        plans = tuple(plan_task(each, open_minutes=glue.open_minutes, people=people, clamps=clamps) for each in tasks)
        plan = GluePlan(glue, plans, clamps, people)
        if plan.fits:
            return plan
        first = first or plan
    return first


@dataclass(frozen=True, slots=True)
class ClockFace:
    """What a glue clock shows."""

    left: str
    """"7:30", or "over by 0:20"."""
    gone: float
    """Share of the open time, 0 to 1."""
    level: Level
    """How bad it is."""
    now: str
    """What is to be done."""
    then: str
    """What comes after it, "" for nothing."""


def clock_face(stage: GlueStage, open_minutes: float, seconds: float) -> ClockFace:
    """Return what a clock shows so many seconds after the first bead.

    It warns in the last quarter of the open time, and stops in its last minute.

    Args:
        stage: The joints that are closed in one go.
        open_minutes: For how long the glue stays open on the day, minutes.
        seconds: Since the first bead, s.
    """
    minutes = seconds / 60
    left = open_minutes - minutes
    shown = abs(int(left * 60 + math.copysign(1e-6, left)))
    level = Level.STOP if left < LAST_MINUTE else Level.WARNING if left < LAST_SHARE * open_minutes else Level.OK
    now = next_words(stage, minutes)
    later = (next_words(stage, minutes + n * LOOKS_EVERY) for n in range(1, LOOKS_AHEAD))
    return ClockFace(
        f"{'over by ' if left < 0 else ''}{shown // 60}:{shown % 60:02d}",
        min(max(minutes / open_minutes, 0.0), 1.0),
        level,
        now,
        next((words for words in later if words != now), ""),
    )


def next_words(stage: GlueStage, minutes: float, *, say: Callable[[str], str] = str) -> str:
    """Return what is to be done at a time after the first bead, minutes: spread and close, clamp, or leave it.

    Args:
        stage: The joints that are closed in one go.
        minutes: Since the first bead, minutes.
        say: What says a text in the language of the screen.
    """
    for closing, start, end in zip(stage.closings, stage.start, (*stage.start[1:], None), strict=True):
        finish = end if end is not None else start + closing.minutes
        if minutes < finish:
            return say(closing.words)
    if minutes < stage.minutes - SQUARE_MINUTES:
        return say(f"{stage.clamps} places: clamps on, finger tight, then home")
    if minutes < stage.minutes:
        return say("diagonals and winding sticks, shift the clamps until they agree")
    return say("leave it; wipe what is wet")
