"""Laws of the steps: done on the pieces one after the other, they end at the leaf; for any construction and choice."""

from __future__ import annotations

import random
import types
import typing
from enum import StrEnum

from pydantic import ValidationError

from body_laws import ASKED_TOO_MUCH, random_leaf
from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.construction_model import ConstructionModel
from oakmeasure.core.document.hanging import EvenGap
from oakmeasure.core.document.job import Job, Leaf, Reading
from oakmeasure.core.figures.check import Level
from oakmeasure.core.making.changes import Brought, Trimmed
from oakmeasure.core.making.replay import replay
from oakmeasure.core.solution import LeafSolution


def any_choices(build: ConstructionModel, source: random.Random) -> ConstructionModel:
    """Return a construction with its enumerations and its yes-or-no choices drawn at random, where they go together."""
    for name, field in type(build).model_fields.items():
        kinds = (
            typing.get_args(field.annotation) if isinstance(field.annotation, types.UnionType) else (field.annotation,)
        )
        options: list[object] = []
        for kind in kinds:
            if isinstance(kind, type) and issubclass(kind, StrEnum):
                options += list(kind)
            elif kind is bool:
                options += [True, False]
            elif kind is type(None):
                options.append(None)
        if not options or source.random() < 0.4 or name == "kind":
            continue
        try:
            build = type(build).model_validate(build.model_dump() | {name: source.choice(options)})
        except (ValidationError, InputError):
            continue
    return build


def random_made(job: Job, source: random.Random) -> Leaf:
    """Return a leaf of any construction, hung any way under any head, with any choices of its construction."""
    leaf = random_leaf(job, source)
    fit = leaf.fit
    if source.random() < 0.3:  # left full for its hinges
        gap = Reading(value=source.choice((0.8, 1.5, 2.5)))
        even = EvenGap(gap=source.choice((None, gap)))
        fit = fit.model_copy(update={"even": even, "trim_side": source.choice((None, 0.0, 1.0, 4.0))})
    return leaf.model_copy(update={"build": any_choices(leaf.build, source), "fit": fit})


def unmade(leaf: LeafSolution) -> list[str]:
    """Return where the steps of a leaf do not end at it; [] where a stop says that it has no room for its parts.

    Args:
        leaf: The leaf, worked out to the end.
    """
    if leaf.fault is not None:
        return [repr(leaf.fault)]
    stops = [each.code for each in leaf.checks if each.level is Level.STOP]
    if any(each.startswith(ASKED_TOO_MUCH) for each in stops) or leaf.body is None or leaf.making is None:
        return []
    found = replay(leaf.body, leaf.cut_parts, leaf.making.operations, [each.name for each in leaf.borings])
    return [f"{each.op}: {each.words}" for each in found.differences]


# Where a number that is no size of the piece says it: as it was read, to a shoulder that is cut already, a cover
# without its tongue, what the hinges' gap asks for.
SAID_OTHERWISE = ("check:leaf", "fit:joints", "rip:last", "plane:even")


def unsaid(leaf: LeafSolution) -> list[str]:
    """Return the sizes that steps bring pieces to, or take off, and do not say on their card.

    Args:
        leaf: The leaf, worked out to the end.
    """
    if leaf.body is None or leaf.making is None:
        return []
    states = replay(leaf.body, leaf.cut_parts, leaf.making.operations).states
    found, before = [], {}
    for op in leaf.making.operations:
        said = [each.value for each in op.settings]
        for change in op.changes if op.id not in SAID_OTHERWISE else ():
            if isinstance(change, Brought):
                was = before[change.piece].along(change.axis) if change.piece in before else change.to
                numbers = (change.to, was - change.to)
            elif isinstance(change, Trimmed):
                numbers = (change.by,)
            else:
                continue
            if not any(abs(one - other) < 0.06 for one in numbers for other in said):
                found.append(f"{op.id}: {change} but {said}")
        before = states[op.id]
    return found
