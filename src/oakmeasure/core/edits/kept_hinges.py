"""A leaf's hinge as it joins the hinges of the job's own, with its day and how its reach is known."""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.cup_hinges import CupHinge, CupUnknown
from oakmeasure.core.document.hinges import Butt
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.solution import LeafSolution


def kept_cup(leaf: LeafSolution, on: str) -> CupHinge:
    """Return the leaf's cup hinge as it joins the job's own.

    Named by its day, its reach from the mock-up if sought.

    Args:
        leaf: The leaf, worked out to the end.
        on: The day, in words.

    Raises:
        InputError: For a leaf without cup hinges.
    """
    if leaf.cups is None:
        raise InputError("hardware.cup", leaf.leaf.name, "a leaf on cup hinges")
    choice, f = leaf.leaf.hardware.cup, leaf.figures
    hinge = choice.hinge
    reach, how = hinge.reach, "measured" if hinge.reach.state is Provenance.MEASURED else "its sheet"
    if choice.unknown is CupUnknown.REACH:
        reach = reach.model_copy(update={"value": round(f["cup_reach"].value, 3), "state": Provenance.MEASURED})
        how = (
            f"mock-up: overlay {f['cup_overlay'].value:g}, middle {f['cup_centre'].value:g}, crank "
            f"{f['cup_crank'].value:g}, plate {f['cup_plate'].value:g} mm"
        )
    return hinge.model_copy(
        update={"name": f"{_plain(hinge.name)}, kept {on}"[:80], "reach": reach, "source": f"{how}, {on}"}
    )


def kept_butt(leaf: LeafSolution, on: str) -> Butt:
    """Return the leaf's butt as it joins the job's own, named by its day.

    Args:
        leaf: The leaf, worked out to the end.
        on: The day, in words.

    Raises:
        InputError: Where it has none.
    """
    if leaf.butts is None:
        raise InputError("hardware.butt", leaf.leaf.name, "a leaf on butts")
    butt = leaf.leaf.hardware.butt
    return butt.model_copy(update={"name": f"{_plain(butt.name)}, kept {on}"})


def _plain(name: str) -> str:
    return name.partition(", kept ")[0]
