"""Edits: pure functions from a job to a new one. The document's own checks decide what is allowed."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

from pydantic import ValidationError

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.construction.framed import patterns
from oakmeasure.core.document.adjustment import Gaps, Sliding
from oakmeasure.core.document.construction_model import ConstructionModel
from oakmeasure.core.document.constructions import KINDS, model_of
from oakmeasure.core.document.field_path import refusal, with_field_of, with_value
from oakmeasure.core.document.job import Acknowledged, Climate, Exposure, Job, LateTrim, Leaf
from oakmeasure.core.document.readings import FloorReadings, MeasuredBy, restated
from oakmeasure.core.document.rules import load_rules
from oakmeasure.core.figures.check import Remedy
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.figures.names import figure_name
from oakmeasure.data import table

LOW_LEAF = 1400.0  # mm; a lower one begins without a middle rail


# --- the edits that a person makes -----------------------------------------------------------------------


def with_leaf(job: Job, leaf_id: str, change: Callable[[Leaf], Leaf]) -> Job:
    """Return the job with one leaf changed; the other leaves stay the same objects.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        change: What is done to the leaf; it returns another.
    """
    job.leaf(leaf_id)
    leaves = tuple(change(each) if each.id == leaf_id else each for each in job.leaves)
    return with_value(job, "leaves", leaves)


def with_field(job: Job, leaf_id: str, path: str, value: Any) -> Job:
    """Return the job with one field of a leaf changed. A number given for a reading becomes a measured one.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        path: Path of the field in the leaf, its names joined by points.
        value: The new value.
    """
    return with_leaf(job, leaf_id, lambda leaf: with_field_of(leaf, path, value))


def with_state(job: Job, leaf_id: str, path: str, state: Provenance) -> Job:
    """Return the job with the state of a reading or of a hardware figure changed.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        path: Path of the field in the leaf, its names joined by points.
        state: How well it is known.
    """
    return with_leaf(job, leaf_id, lambda leaf: with_value(leaf, f"{path}.state", state))


def with_remedy(job: Job, leaf_id: str, remedy: Remedy) -> Job:
    """Return the job with a check's remedy taken.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        remedy: What takes it; None where it is taken, or cannot be.
    """
    return with_field(job, leaf_id, remedy.path, remedy.value)


def with_place(job: Job, leaf_id: str, place: Exposure) -> Job:
    """Return the job with a leaf living elsewhere: its air is that of the place, what was chosen by hand stays.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        place: Where the leaf lives: indoors, outdoors, wet.
    """
    row = table("places")[str(place)]
    air = {name: Climate.model_validate(row[name]) for name in ("dry", "wet")}

    def change(leaf: Leaf) -> Leaf:
        return with_value(leaf, "timber", leaf.timber.model_copy(update={"place": place, **air}))

    return with_leaf(job, leaf_id, change)


def with_construction(job: Job, leaf_id: str, kind: str) -> Job:
    """Return the job with a leaf built another way, on that construction's own defaults; InputError for none such.

    What was set by hand and means the same there, a stile's width or an arch, stays. A leaf that exists starts
    at the size that is wanted, until somebody measures it.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        kind: A construction, one of `KINDS`.
    """
    if kind not in KINDS:
        raise InputError("build.kind", kind, "one of " + ", ".join(KINDS))
    leaf = job.leaf(leaf_id)
    if leaf.build.kind == kind:
        return job
    readings = leaf.readings
    heights = [each.value for each in (readings.height_hinge, readings.height_middle, readings.height_latch) if each]
    build = _carried(leaf.build, model_of(kind)()).begun(min(heights, default=None))
    return with_field(job, leaf_id, "build", _as_wanted(job, leaf_id, build) if build.keeps_its_sizes else build)


CARRIED = ("thickness", "stile", "top_rail", "middle_rail", "bottom_rail", "muntin", "lock_height", "arch_rise")


def _carried(old: ConstructionModel, new: ConstructionModel) -> ConstructionModel:
    """Return a construction with what was set by hand in the one before, where both have it and it may be so there."""
    for name in CARRIED:
        fields = type(old).model_fields, type(new).model_fields
        if not all(name in each for each in fields) or old.keeps_its_sizes or new.keeps_its_sizes:
            continue
        value = getattr(old, name)
        if value != fields[0][name].default:
            try:
                new = with_value(new, name, value)
            except InputError:  # too thin or too wide there
                continue
    return new


def _as_wanted(job: Job, leaf_id: str, build: ConstructionModel) -> ConstructionModel:
    from oakmeasure.core.solver import solve_leaf

    f = solve_leaf(job, job.leaf(leaf_id)).figures
    try:
        for name in ("width", "height"):
            if figure_name(f"leaf_{name}") in f:
                build = with_value(build, name, float(math.ceil(f[figure_name(f"leaf_{name}")].value)))
    except InputError:  # no leaf is so small or so large: it keeps the common size
        pass
    return build


def with_start(job: Job, leaf_id: str) -> Job:
    """Return a new job with the pattern that a leaf as tall as its opening usually has: a low one has no lock rail.

    Common practice, no source: a hatch or a cupboard under some 1400 mm is one panel high.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
    """
    height = job.leaf(leaf_id).readings.height_middle
    return with_pattern(job, leaf_id, "one") if height is not None and height.value < LOW_LEAF else job


def with_pattern(job: Job, leaf_id: str, key: str) -> Job:
    """Return the job with a framed leaf on one of the ready patterns; InputError where it is not framed.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        key: Its key in the table.
    """
    build = job.leaf(leaf_id).build
    return with_field(job, leaf_id, "build", patterns.with_pattern(build, key))


def with_rules(job: Job, key: str) -> Job:
    """Return the job with another shipped set of shop rules.

    Args:
        job: The job that is read; it is not changed.
        key: Key of the set of shop rules.
    """
    return with_value(job, "rules", load_rules(key))


CHANGED = ", changed"


def with_rule(job: Job, name: str, value: float) -> Job:
    """Return the job with one shop rule of its own set changed; a shipped set takes another name by that.

    Args:
        job: The job that is read; it is not changed.
        name: Its name.
        value: The rule's new value, in its unit.
    """
    rules = with_value(job.rules, f"{name}.value", value)
    reason = f"changed from {getattr(job.rules, name).value:g} in this job"
    rules = with_value(rules, f"{name}.reason", reason)
    if not rules.name.endswith(CHANGED):
        rules = with_value(rules, "name", rules.name + CHANGED)
    return with_value(job, "rules", rules)


def with_acknowledged(job: Job, leaf_id: str, code: str, reason: str) -> Job:
    """Return the job with a stop answered for.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        code: The check's code, which stays the same for ever.
        reason: Why it may stay so, in the person's words.
    """

    def change(leaf: Leaf) -> Leaf:
        others = tuple(each for each in leaf.acknowledged if each.code != code)
        try:
            return with_value(leaf, "acknowledged", (*others, Acknowledged(code=code, reason=reason)))
        except ValidationError as error:
            raise refusal(error, "acknowledged") from None

    return with_leaf(job, leaf_id, change)


OF_THE_SITE = ("readings", "polygon", "template", "head", "bows", "floor", "in_the_way", "lining", "fit", "slide")
UNHUNG: dict[str, Any] = {
    "gaps": Gaps(),
    "second": Gaps(),
    "run": (),
    "sliding": Sliding(),
    "proof_held": False,
    "signed": None,
}


def begun_again(leaf: Leaf) -> Leaf:
    """Return a leaf as the start of another one.

    Its choices stay, all that was read at its opening is assumed, and what became of it is gone: its log and
    days, what was trimmed off it, its gaps, its signing, its answers.

    Args:
        leaf: The leaf, as the document holds it.
    """
    return leaf.model_copy(
        update={
            **{name: restated(getattr(leaf, name), Provenance.ASSUMED) for name in OF_THE_SITE},
            "late": LateTrim(allow_side=leaf.late.allow_side, allow_end=leaf.late.allow_end),
            "making": leaf.making.model_copy(update={"log": (), "start": None, "due": None}),
            "hung": leaf.hung.model_copy(update=UNHUNG),
            "acknowledged": (),
        }
    )


def for_another_opening(leaf: Leaf) -> Leaf:
    """Return a leaf as the start of one for another opening: sizes by tape stay, assumed.

    What else was read at that one opening stays with it.

    Args:
        leaf: The leaf, as the document holds it.
    """
    own = {
        "measured_by": MeasuredBy.TAPE,
        "polygon": None,
        "template": None,
        "bows": (),
        "in_the_way": (),
        "floor": FloorReadings(),
    }
    return begun_again(leaf).model_copy(update=own)


def with_new_leaf(job: Job, name: str) -> Job:
    """Return the job with one more leaf: a copy of the last one's choices, its readings all assumed.

    Args:
        job: The job that is read; it is not changed.
        name: Its name.
    """
    model = job.leaves[-1]
    taken = {each.id for each in job.leaves}
    leaf_id = next(f"leaf-{at}" for at in range(1, len(taken) + 2) if f"leaf-{at}" not in taken)
    fresh = for_another_opening(model).model_copy(update={"id": leaf_id, "name": name})
    return with_value(job, "leaves", (*job.leaves, fresh))


def without_leaf(job: Job, leaf_id: str) -> Job:
    """Return the job without a leaf.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.

    Raises:
        InputError: For the last one.
    """
    return with_value(job, "leaves", tuple(each for each in job.leaves if each.id != leaf_id))
