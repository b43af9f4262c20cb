"""Edits of how an opening was taken, and of the ticks on its template."""

from __future__ import annotations

from typing import Any

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.job import Job, Leaf
from oakmeasure.core.document.readings import MeasuredBy, Polygon, Tick, TickForm, TickTemplate
from oakmeasure.core.edits.job_edits import with_field, with_leaf
from oakmeasure.core.survey.ticks import rewritten


def with_measured_by(job: Job, leaf_id: str, way: MeasuredBy) -> Job:
    """Return the job with another way of taking a leaf's opening; what the other ways hold is kept.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        way: How the opening is taken: tape, template and ticks or a drawing.
    """

    def change(leaf: Leaf) -> Leaf:
        more: dict[str, Any] = {}
        if way is MeasuredBy.POLYGON and leaf.polygon is None:
            more["polygon"] = Polygon()
        if way is MeasuredBy.TICKS and leaf.template is None:
            more["template"] = TickTemplate()
        return leaf.model_copy(update={"measured_by": way, **more})

    return with_leaf(job, leaf_id, change)


def with_tick_form(job: Job, leaf_id: str, form: TickForm) -> Job:
    """Return the job with a leaf's ticks written another way; their points stay where they are.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        form: How ticks are written: along and in, or as a distance from a stick.
    """

    def change(leaf: Leaf) -> Leaf:
        if leaf.template is None:
            return leaf
        stick = leaf.template.stick.value
        ticks = tuple(rewritten(each, stick, form) for each in leaf.template.ticks)
        template = leaf.template.model_copy(update={"ticks": ticks, "form": form})
        return leaf.model_copy(update={"template": template})

    return with_leaf(job, leaf_id, change)


def with_ticks(job: Job, leaf_id: str, ticks: tuple[Tick, ...]) -> Job:
    """Return the job with a leaf's ticks replaced by those of a file, and its opening taken by them.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        ticks: The ticks of the file.
    """
    job = with_measured_by(job, leaf_id, MeasuredBy.TICKS)
    form = TickForm.POINT
    if any(each.angle_deg is not None for each in ticks):
        form = TickForm.ANGLE
    elif any(each.x2 is not None for each in ticks):
        form = TickForm.SECOND
    sides = max([4, *(each.side or 0 for each in ticks)])
    template = job.leaf(leaf_id).template
    assert template is not None
    known = {name: getattr(template, name) for name in type(template).model_fields}
    fresh = TickTemplate.model_validate(known | {"ticks": ticks, "form": form, "sides": max(sides, template.sides)})
    return with_field(job, leaf_id, "template", fresh)


def with_last_tick_as_check(job: Job, leaf_id: str) -> Job:
    """Return the job with the last tick taken out of the fit and kept as the check reading.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.

    Raises:
        InputError: When there is none.
    """
    template = job.leaf(leaf_id).template
    if template is None or not template.ticks:
        raise InputError("template.check", "nothing", "a tick in a corner, written as the last one")
    *rest, last = template.ticks
    check = last.model_copy(update={"side": None})
    return with_field(job, leaf_id, "template", template.model_copy(update={"ticks": tuple(rest), "check": check}))
