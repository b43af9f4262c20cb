"""The catalogue: every hinge of the shipped tables and of the job's own, against the leaf in hand, side by side."""

from __future__ import annotations

from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.cup_hinges import CupUnknown, cup_from_table, cup_keys
from oakmeasure.core.document.hinges import butt_from_table
from oakmeasure.core.document.job import Job
from oakmeasure.core.figures.check import Level, Remedy
from oakmeasure.core.fit.alternatives import Comparison, Option
from oakmeasure.core.fit.swing.cup_clearance import least_reveal
from oakmeasure.core.hardware.hinges.mortise_depth import mortise_depth, solve_cup
from oakmeasure.core.leaf.gap_choice import gap_let_in_for
from oakmeasure.core.solution import LeafSolution
from oakmeasure.data import table

CUP_COLUMNS = ("hinge", "reach", "boring", "left", "reveal", "opens", "does it do")
BUTT_COLUMNS = ("butt", "length", "let in", "stays", "rated", "does it do")


def catalogue(job: Job, leaf: LeafSolution) -> tuple[Comparison, ...]:
    """Return the hinges that could carry the leaf, each with what it would ask for; () before there is a leaf.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
    """
    if leaf.cups is not None:
        return (_cups(job, leaf),)
    return (_butts(job, leaf),) if leaf.butts is not None else ()


def _cups(job: Job, leaf: LeafSolution) -> Comparison:
    show, f, now = Show(job.unit), leaf.figures, leaf.leaf.hardware.cup
    options = []
    for hinge in (*(cup_from_table(key) for key in cup_keys()), *job.own_cups):
        crank = f["cup_crank"].value if now.unknown is not CupUnknown.CRANK else 0.0
        plate = f["cup_plate"].value if now.unknown is not CupUnknown.PLATE else 0.0
        overlay, reach = f["cup_overlay"].value, hinge.reach.value
        boring = solve_cup(overlay=overlay, reach=reach, crank=crank, boring=None, plate=plate)["boring"]
        left = f["thickness"].value - hinge.cup_depth.value - now.point
        reveal = least_reveal(hinge.reveal, thickness=f["thickness"].value, boring=boring)
        wants = [
            *(
                []
                if hinge.boring_least - 1e-6 <= boring <= hinge.boring_most + 1e-6
                else [f"boring {show.length(hinge.boring_least)} to {show.length(hinge.boring_most)} only"]
            ),
            *([] if left >= 1.0 else ["too deep for the leaf"]),
            *([] if crank in hinge.cranks else [f"no crank of {show.length(crank)}"]),
            *(
                []
                if leaf.leaf.cabinet.must_open is None or hinge.opens >= leaf.leaf.cabinet.must_open
                else ["does not open far enough"]
            ),
        ]
        is_taken = hinge == now.hinge
        cells = (
            hinge.name,
            show.length(hinge.reach.value),
            show.length(boring),
            show.length(left),
            show.length(reveal) if reveal is not None else "–",
            f"{hinge.opens:g}°",
            "; ".join(wants) or ("yes" if hinge.source.startswith("its sheet") else f"yes; {hinge.source}"),
        )
        options.append(
            Option(
                cells,
                Level.WARNING if wants else Level.OK,
                None if is_taken else Remedy("", "hardware.cup.hinge", hinge),
                is_taken,
            )
        )
    options.sort(key=lambda each: each.level is not Level.OK)
    about = "For this leaf, its overlay, crank and plate; made-up makers: put in the figures of yours and keep it."
    return Comparison("Cup hinges", about, CUP_COLUMNS, tuple(options))


def _butts(job: Job, leaf: LeafSolution) -> Comparison:
    show, f, now = Show(job.unit), leaf.figures, leaf.leaf.hardware.butt
    gap = gap_let_in_for(f).value
    mass, thickness, least = f["mass"].value, f["thickness"].value, f["rule_butt_back_wood"].value
    options = []
    for butt in (*(butt_from_table(key) for key in table("butts")), *job.own_butts):
        depth, stays = (
            mortise_depth(closed=butt.closed_thickness.value, gap=gap),
            thickness - (butt.leaf_width.value - butt.pin_projection.value),
        )
        wants = [
            *([] if mass <= butt.rating_kg.value else [f"too weak for {show.value(mass, Unit.KG)}"]),
            *([] if stays >= least else [f"only {show.length(stays)} of wood stays behind"]),
            *([] if depth >= 0 else ["too thin for the gap"]),
        ]
        is_taken = butt == now
        cells = (
            butt.name,
            show.length(butt.length.value),
            show.length(depth),
            show.length(stays),
            show.value(butt.rating_kg.value, Unit.KG),
            "; ".join(wants) or "yes",
        )
        options.append(
            Option(
                cells,
                Level.WARNING if wants else Level.OK,
                None if is_taken else Remedy("", "hardware.butt", butt),
                is_taken,
            )
        )
    options.sort(key=lambda each: each.level is not Level.OK)
    about = "For this leaf, its gap, thickness and weight; made-up makers: measure yours and keep it."
    return Comparison("Butts", about, BUTT_COLUMNS, tuple(options))
