"""What is still to be measured, over all leaves of a job, and what hangs on it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from oakmeasure.core.figures.figure import Figure, Provenance
from oakmeasure.core.leaf.assumed import KEY_FIGURES, still_to_measure
from oakmeasure.core.solution import LeafSolution


@dataclass(frozen=True, slots=True)
class StillToMeasure:
    """One input that nobody has measured."""

    leaf_id: str
    """Id of the leaf in the job."""
    leaf_name: str
    """Name of the leaf."""
    name: str
    """Name of its figure."""
    label: str
    """What is to be read."""
    state: Provenance
    """How well it is known."""
    edit: str
    """Path of its field, "" for an assumption that the survey made itself."""
    hangs: tuple[str, ...]
    """Labels of the figures that a joiner cuts to and that rest on it."""
    others: int
    """How many more."""


def all_to_measure(leaves: Iterable[LeafSolution]) -> list[StillToMeasure]:
    """Return what is only assumed, leaf by leaf; then what is only from a table.

    Args:
        leaves: The leaves, worked out.
    """
    leaves = tuple(leaves)
    return [_of(leaf, each) for leaf in leaves for each in still_to_measure(leaf.figures)] + [
        _of(leaf, each)
        for leaf in leaves
        for each in leaf.figures
        if each.state is Provenance.FROM_TABLE and each.edit and len(each.rows) == 1
    ]


def _of(leaf: LeafSolution, figure: Figure) -> StillToMeasure:
    if figure.state is Provenance.ASSUMED:
        hanging = [each for each in leaf.figures if figure.label in each.rests_on and each.name != figure.name]
    else:
        hanging = _resting_on(leaf, figure.name)
    named = tuple(each.label for each in hanging if each.name in KEY_FIGURES)
    assert figure.state is not None
    return StillToMeasure(
        leaf.leaf.id,
        leaf.leaf.name,
        figure.name,
        figure.label,
        figure.state,
        figure.edit,
        named,
        len(hanging) - len(named),
    )


def _resting_on(leaf: LeafSolution, name: str) -> list[Figure]:
    """Return the figures that a figure went into, however far down; figures come after what they rest on."""
    found: dict[str, Figure] = {}
    for each in leaf.figures:
        if any(row.ref != each.name and (row.ref == name or row.ref in found) for row in each.rows):
            found[each.name] = each
    return list(found.values())
