"""Where a light frame has no wood: between its rails and its stiles."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from oakmeasure.core.construction.light.model import Light
from oakmeasure.core.document.construction_model import ConstructionModel
from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Build, Hollow, Rect


def hollows(choice: ConstructionModel, build: Build) -> Iterator[Hollow]:
    """Yield the open fields of the frame.

    Args:
        choice: What is chosen for the construction.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    assert isinstance(choice, Light)
    solid = [each.face for each in build.parts if each.role in (Role.STILE, Role.RAIL, Role.MUNTIN)]
    rails = sorted({(each.y0, each.y1) for each in solid if each.width > each.height})
    sides = [each for each in solid if each.height > each.width]
    if len(sides) < 2:
        return
    x0, x1 = min(each.x1 for each in sides), max(each.x0 for each in sides)
    for (_, low), (high, _) in pairwise(rails):
        if high > low:
            yield Hollow("open field of the frame", Rect(x0, low, x1, high), (0.0, choice.frame_thickness))
