"""A frame's rails that are dragged on the drawing: which field of the frame says where each stands."""

from __future__ import annotations

from oakmeasure.core.construction.framed.layout import between_names, lock_rail_of, rows_of
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.construction_model import ConstructionModel
from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Build, Part


def rails(build: Build) -> list[Part]:
    """Return the rails that can be dragged: those between the top and the bottom one.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    ends = ("top rail", "bottom rail")
    return [part for part in build.parts if part.role is Role.RAIL and part.name not in ends]


def is_between(choice: ConstructionModel, name: str) -> bool:
    """Return whether a part is one of the rails between.

    Args:
        choice: What is chosen for the construction.
        name: Its name.
    """
    assert isinstance(choice, Framed)
    return name in between_names(choice, len(rows_of(choice)) - 1)


def set_rail(
    choice: ConstructionModel, name: str, *, centre: float, half: float, below: float, floor: float
) -> tuple[str, object] | None:
    """Return the field that sets where a rail between stands, and its value.

    Args:
        choice: The frame.
        name: Of the rail.
        centre: Where its middle is to stand, up from the leaf's foot, mm.
        half: Half of its width, mm.
        below: Upper edge of the rail below it, up from the foot, mm.
        floor: Gap under the leaf, mm.

    Returns:
        The rail on the lock sets the lock's height above the floor; any other one the sight height of the row below
        it. None where the frame has no rows of its own to set.
    """
    assert isinstance(choice, Framed)
    rows = rows_of(choice)
    between = between_names(choice, len(rows) - 1)
    at = between.index(name)
    if at == lock_rail_of(choice, len(between)):
        return "build.lock_height", round(centre + floor, 3)
    if not choice.rows:
        return None
    high = round(centre - half - below, 3)
    return "build.rows", tuple(
        row.model_copy(update={"height": high}) if n == at else row for n, row in enumerate(choice.rows)
    )
