"""A walk of random edits that the document allows, led by its own types and limits, and what must hold after each.

Used by the tests with some hundred steps, by the bench with some thousands.
"""

from __future__ import annotations

import contextlib
import datetime
import json
import math
import random
import traceback
import types
from collections.abc import Iterator
from dataclasses import dataclass, field
from enum import Enum
from functools import cache
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from annotated_types import Ge, Gt, Le, Len, Lt, MaxLen, MinLen
from pydantic import BaseModel, ValidationError
from pydantic.fields import FieldInfo

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.framed.patterns import PATTERNS
from oakmeasure.core.document import field_path
from oakmeasure.core.document.constructions import KINDS, Construction, model_of
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Exposure, Job, LateTrim, Leaf
from oakmeasure.core.document.readings import HeadKind, HeadShape, OpeningReadings, Reading
from oakmeasure.core.document.rules import RULE_KINDS, Limits
from oakmeasure.core.document.species import species_keys
from oakmeasure.core.drawings.views import (
    VIEWS,
    FitPage,
    HardwarePage,
    LeafPage,
    MeasurePage,
    TimberPage,
    fit_stage_view,
    hardware_stage_view,
    leaf_stage_view,
    measure_view,
    timber_view,
)
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Check, Remedy
from oakmeasure.core.solution import LeafSolution, Solution
from oakmeasure.core.solver import solve_leaf
from oakmeasure.data import table
from oakmeasure.files.cad.svg import drawing_svg
from oakmeasure.files.tables import lists
from oakmeasure.files.tables.operations import operations_record

PAGES = (
    (measure_view, MeasurePage),
    (fit_stage_view, FitPage),
    (leaf_stage_view, LeafPage),
    (timber_view, TimberPage),
    (hardware_stage_view, HardwarePage),
)
WIDEST = Limits(-100.0, 100.0, "number")  # of a number whose type tells no limits
MOST_ITEMS = 5
TEXTS = ("note", "no glue on the boards", "a", "Ä ß é", "x" * 40, 'say "so"; =1+1', "two\nlines")
WIDE, TALL = (200, 3000), (300, 3000)  # mm: openings that are walked through
OURS = (InputError, ValidationError)


# --- values that a field's type allows ---------------------------------------------------------------------------


def random_value(annotation: Any, limits: tuple[Any, ...], source: random.Random, old: Any = None) -> Any:
    """Return a value of a type, mostly within its limits; near the old one as often as anywhere."""
    origin = get_origin(annotation)
    if origin is Annotated:
        inner, *more = get_args(annotation)
        return random_value(inner, (*more, *limits), source, old)
    if origin in (Union, types.UnionType):
        kinds = get_args(annotation)
        return random_value(source.choice(kinds), limits, source, old)
    if origin is Literal:
        return source.choice(get_args(annotation))
    if origin is tuple:
        return _items(annotation, limits, source, old)
    if annotation in (None, type(None)):
        return None
    if issubclass(annotation, BaseModel):
        return _model(annotation, limits, source, old)
    return _scalar(annotation, limits, source, old)


def _scalar(kind: type, limits: tuple[Any, ...], source: random.Random, old: Any) -> Any:
    if issubclass(kind, Enum):
        return source.choice(list(kind))
    if issubclass(kind, bool):
        return source.random() < 0.5
    if issubclass(kind, int):
        return round(_number(limits, source, old))
    if issubclass(kind, float):
        return _number(limits, source, old)
    if issubclass(kind, str):
        return source.choice(_keys() if source.random() < 0.8 else TEXTS)
    if issubclass(kind, datetime.date):  # a day, or a moment of it
        return kind(2026, source.randint(1, 12), source.randint(1, 28))
    raise TypeError(f"no values for {kind}")


@cache
def _keys() -> list[str]:
    return [*species_keys(), *species_keys()] + [key for name in ("sheets", "glues") for key in table(name)]


def _number(limits: tuple[Any, ...], source: random.Random, old: Any) -> float:
    low, high = WIDEST.low, WIDEST.high
    for each in limits:
        match each:
            case Limits():
                low, high = each.low, each.high
            case Ge(ge=bound) | Gt(gt=bound):
                low, high = bound, max(high, bound + 100)
            case Le(le=bound) | Lt(lt=bound):
                low, high = min(low, bound), bound
            case FieldInfo():
                return _number(tuple(each.metadata), source, old)
    way = source.randrange(6)
    if way == 0:
        return source.choice((low, high))
    if way < 4 and isinstance(old, int | float):
        return min(high, max(low, round(old * source.uniform(0.7, 1.4) + source.uniform(-3, 3), source.choice((0, 1)))))
    return round(source.uniform(low, high), source.choice((0, 1, 3)))


def _items(annotation: Any, limits: tuple[Any, ...], source: random.Random, old: Any) -> tuple[Any, ...]:
    kinds = get_args(annotation)
    if len(kinds) != 2 or kinds[1] is not Ellipsis:
        return tuple(random_value(kind, (), source) for kind in kinds)
    most = min([MOST_ITEMS] + [each.max_length for each in _flat(limits) if isinstance(each, MaxLen | Len)])
    least = max([0] + [each.min_length for each in _flat(limits) if isinstance(each, MinLen | Len)])
    items = list(old) if isinstance(old, tuple) else []
    while len(items) < least or (len(items) < most and source.random() < 0.6):
        items.insert(source.randrange(len(items) + 1), random_value(kinds[0], (), source))
    while len(items) > least and source.random() < 0.3:
        del items[source.randrange(len(items))]
    return tuple(items)


def _flat(limits: tuple[Any, ...]) -> Iterator[Any]:
    for each in limits:
        yield from each.metadata if isinstance(each, FieldInfo) else (each,)


def _model(model: type[BaseModel], limits: tuple[Any, ...], source: random.Random, old: Any) -> BaseModel:
    """Return a model with some of its fields made up; where its own checks refuse it, with fewer."""
    values: dict[str, Any] = {}
    for share in (0.5, 0.2, 0.0):
        values = {}
        for name, info in model.model_fields.items():
            if info.is_required() or source.random() < share:
                told = limits if name == "value" else ()  # a reading's limits are its value's
                before = getattr(old, name, None)
                values[name] = random_value(info.annotation, (*info.metadata, *told), source, before)
        try:
            return model.model_validate(values)
        except OURS:
            continue
    return model.model_validate(values)


# --- where they can go -------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Spot:
    """A field that can be edited: its path in the leaf, its type and limits, what stands there."""

    path: str
    annotation: Any
    limits: tuple[Any, ...]
    value: Any


def spots(model: BaseModel, before: str = "") -> Iterator[Spot]:
    """Yield every field below a model, those of its lists too."""
    for name, info in type(model).model_fields.items():
        path, value = before + name, getattr(model, name)
        if path in ("id", "build", "build.kind"):
            continue
        annotation = info.annotation
        if annotation is Construction:
            continue
        yield Spot(path, annotation, tuple(info.metadata), value)
        if isinstance(value, BaseModel):
            yield from spots(value, path + ".")
        elif isinstance(value, tuple):
            for at, each in enumerate(value):
                if isinstance(each, BaseModel):
                    yield from spots(each, f"{path}.{at}.")
    if not before:
        yield from spots(model.build, "build.")


# --- what must hold ----------------------------------------------------------------------------------------------


def complaints(job: Job, solution: LeafSolution) -> list[str]:
    """Return what is wrong with a leaf worked out, whatever was chosen: nothing where all is well."""
    if solution.fault is not None:
        return [_where(solution.fault)]
    found = []
    for part in solution.cut_parts:
        sizes = (part.finished, part.planed, part.rough)
        if any(min(each.length, each.width, each.thickness) < -1e-6 for each in sizes):
            found.append(f"a part is less than nothing: {part.name}")
    try:
        json.dumps(lists.figures_record(Solution(job, (solution,), ())), allow_nan=False)
    except ValueError:
        bad = [each.name for each in solution.figures if not math.isfinite(each.value)]
        found.append(f"no number in the record: {bad}")
    return found


def _where(error: BaseException) -> str:
    last = traceback.extract_tb(error.__traceback__)[-1]
    return f"{type(error).__name__} {error} at {last.filename.rpartition('/')[2]}:{last.lineno}"


def shown_complaints(job: Job, solution: LeafSolution, source: random.Random) -> list[str]:
    """Return what is wrong with one of its drawings and with its lists."""
    show, whole = Show(job.unit), Solution(job, (solution,), ())
    try:
        view, pages = source.choice(PAGES)
        stage = source.choice(list(VIEWS))
        for drawing in (VIEWS[stage](solution, show), view(solution, show, page=source.choice(list(pages)))):
            if b"nan" in drawing_svg(drawing, "walk").lower().replace(b"nan ", b""):
                return [f"no number in the drawing of {stage}"]
        for write in (lists.cut_list_csv, lists.boring_list_csv, lists.settings_csv, lists.keep_outs_csv):
            write(whole)
        operations_record(whole.leaves, show)
    except Exception as error:
        return [_where(error)]
    return []


def remedies(solution: LeafSolution) -> list[tuple[Check, Remedy]]:
    """Return every remedy of a leaf that can be taken as an edit, with its check."""
    return [(check, each) for check in solution.checks for each in check.remedies if each.path]


def after_remedy(job: Job, solution: LeafSolution, check: Check, remedy: Remedy) -> tuple[LeafSolution | None, str]:
    """Take a remedy.

    Returns:
        The leaf after it, None where it cannot be taken; and what is wrong with the remedy, "" where nothing is.
    """
    leaf = solution.leaf
    where = f"{check.code}: {remedy.text} ({remedy.path} = {remedy.value})"
    try:
        changed = job_edits.with_remedy(job.model_copy(update={"leaves": (leaf,)}), leaf.id, remedy).leaves[0]
    except OURS as error:
        return None, f"{where} is refused: {error}"
    if changed == leaf:
        return None, f"{where} changes nothing"
    after = solve_leaf(job, changed)
    if any(each.code == check.code and each.sentence == check.sentence for each in after.checks):
        return after, f"{where} leaves the check as it was: {check.sentence}"
    return after, ""


# --- the walk ----------------------------------------------------------------------------------------------------


@dataclass(slots=True)
class Walk:
    """What a walk met. found: what was wrong, and the edits that led there."""

    steps: int = 0
    refused: int = 0
    taken: int = 0
    found: dict[str, str] = field(default_factory=dict)


def random_edit(job: Job, leaf: Leaf, source: random.Random) -> tuple[Job, str]:
    """Return the job after one random edit of a leaf or of what it shares, and what was done; InputError if refused."""
    way = source.random()
    if way < 0.08:
        kind = source.choice(KINDS)
        return job_edits.with_construction(job, leaf.id, kind), f"made as {kind}"
    if way < 0.12:
        key = source.choice(list(PATTERNS))
        return job_edits.with_pattern(job, leaf.id, key), f"pattern {key}"
    if way < 0.14:
        place = source.choice(list(Exposure))
        return job_edits.with_place(job, leaf.id, place), f"place {place}"
    if way < 0.20:
        name, kind = source.choice(list(RULE_KINDS.items()))
        value = round(source.choice((kind.low, kind.high, source.uniform(kind.low, kind.high))), 2)
        return job_edits.with_rule(job, name, value), f"rule {name} = {value}"
    if way < 0.22:
        info = Job.model_fields["boards"]
        boards = random_value(info.annotation, tuple(info.metadata), source, job.boards)
        return field_path.with_value(job, "boards", boards), "other boards"
    # Fields at every depth alike: a list of fifty readings is not edited fifty times as often as the hand.
    everywhere = list(spots(leaf))
    top = source.choice(sorted({each.path.partition(".")[0] for each in everywhere}))
    spot = source.choice([each for each in everywhere if each.path.partition(".")[0] == top])
    value = random_value(spot.annotation, spot.limits, source, spot.value)
    return job_edits.with_field(job, leaf.id, spot.path, value), f"{spot.path} = {value!r}"


def walk(job: Job, steps: int, *, seed: int) -> Walk:
    """Walk so many steps through a job's leaves: edits, remedies, undo; each leaf is solved, drawn and listed."""
    source, met = random.Random(seed), Walk()
    start = job.model_copy(update={"leaves": (source.choice(job.leaves),)})
    here, trail, solution = start, [start.leaves[0].id], solve_leaf(start, start.leaves[0])
    while met.steps < steps:
        if source.random() < 0.03 or len(trail) > 60:
            start = job.model_copy(update={"leaves": (source.choice(job.leaves),)})
            here, trail, solution = start, [start.leaves[0].id], solve_leaf(start, start.leaves[0])
        met.steps += 1
        offered = remedies(solution)
        if offered and source.random() < 0.25:
            check, remedy = source.choice(offered)
            after, wrong = after_remedy(here, solution, check, remedy)
            if wrong:
                met.found.setdefault(wrong, " > ".join(trail))
            if after is None:
                continue
            met.taken += 1
            there, said = here.model_copy(update={"leaves": (after.leaf,)}), f"remedy {remedy.text}"
        else:
            try:
                there, said = random_edit(here, here.leaves[0], source)
            except OURS:
                met.refused += 1
                continue
            after = solve_leaf(there, there.leaves[0])
        wrongs = complaints(there, after) or shown_complaints(there, after, source)
        for each in wrongs:
            met.found.setdefault(each, " > ".join((*trail, said)))
        if not wrongs:
            here, solution = there, after
            trail.append(said)
    return met


def at_extremes(job: Job, source: random.Random) -> Job:
    """Return a job of one new leaf of a legal size, most of it at its limits: opening, head, construction, hanging."""
    width, height = (round(source.choice((low, high, source.uniform(low, high)))) for low, high in (WIDE, TALL))
    leaf = job.leaves[0].model_copy(
        update={
            "readings": OpeningReadings(width_middle=Reading(value=width), height_middle=Reading(value=height)),
            "hanging": source.choice(list(Hanging)),
            "head": HeadShape(
                kind=source.choice(list(HeadKind)), rise=Reading(value=source.choice((1, 60, height // 2, 3000)))
            ),
        }
    )
    build: BaseModel = model_of(source.choice(KINDS))()
    for name, info in type(build).model_fields.items():
        if name == "kind" or source.random() < 0.5:
            continue
        limits = tuple(each for each in info.metadata if isinstance(each, Limits))
        value = random_value(info.annotation, tuple(info.metadata), source, getattr(build, name))
        if limits and source.random() < 0.6:
            value = source.choice((limits[0].low, limits[0].high))
        with contextlib.suppress(*OURS):
            build = field_path.with_value(build, name, value)
    late = random_value(LateTrim, (), source) if source.random() < 0.3 else LateTrim()
    return job.model_copy(update={"leaves": (leaf.model_copy(update={"build": build, "late": late}),)})
