"""Edits of the hinges: from the catalogue, and what the mock-up gave kept in it."""

from __future__ import annotations

from oakmeasure.core.document.cup_hinges import cup_from_table
from oakmeasure.core.document.field_path import with_value
from oakmeasure.core.document.hinges import Butt, butt_from_table
from oakmeasure.core.document.job import Hand, Job, Leaf
from oakmeasure.core.document.old_frame import JambSide
from oakmeasure.core.edits.job_edits import with_field


def with_butt(job: Job, leaf_id: str, key: str) -> Job:
    """Return the job with the butt of a leaf changed for one of the table.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        key: Its key in the table.
    """
    butt: Butt = butt_from_table(key)
    return with_field(job, leaf_id, "hardware.butt", butt)


def with_cup(job: Job, leaf_id: str, key: str) -> Job:
    """Return the job with the cup hinge of a leaf changed for one of the table.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        key: Its key in the table.
    """
    return with_field(job, leaf_id, "hardware.cup.hinge", cup_from_table(key))


def with_kept_hinge(job: Job, leaf_id: str, on: str) -> Job:
    """Return the job with the hinge of a leaf among its own, named by the day `on`; InputError where it has none.

    Args:
        job: The job that is read; it is not changed.
        leaf_id: Id of the leaf in the job.
        on: The day, in words.
    """
    from oakmeasure.core.edits.kept_hinges import kept_butt, kept_cup
    from oakmeasure.core.solver import solve_leaf

    solved = solve_leaf(job, job.leaf(leaf_id))
    if solved.cups is not None:
        hinge = kept_cup(solved, on)
        return with_value(job, "own_cups", (*(each for each in job.own_cups if each.name != hinge.name), hinge))
    butt = kept_butt(solved, on)
    return with_value(job, "own_butts", (*(each for each in job.own_butts if each.name != butt.name), butt))


def next_recess(leaf: Leaf) -> dict[str, object]:
    """Return what the next old recess is taken to be: like the last one that was written, else like the leaf's butt.

    Args:
        leaf: The leaf, as the document holds it.
    """
    if leaf.old_frame.recesses:
        last = leaf.old_frame.recesses[-1]
        return {"what": last.what, "jamb": last.jamb, "length": last.length, "wide": last.wide, "deep": last.deep}
    butt = leaf.hardware.butt
    jamb = JambSide.LEFT if leaf.hand is Hand.LEFT else JambSide.RIGHT
    across = butt.leaf_width.value - butt.pin_projection.value
    return {"jamb": jamb, "length": butt.length.value, "wide": across}
