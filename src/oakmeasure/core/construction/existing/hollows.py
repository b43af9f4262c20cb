"""Where an old leaf has no wood: behind its faces, from edge to edge."""

from __future__ import annotations

from collections.abc import Iterator

from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.document.construction_model import ConstructionModel
from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Build, Hollow, Rect


def hollows(choice: ConstructionModel, build: Build) -> Iterator[Hollow]:
    """Yield the inside of a leaf that is hollow, or framed with blocks.

    Args:
        choice: What is chosen for the construction.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    assert isinstance(choice, Existing)
    if not choice.is_hollow:
        return
    ends = [each.face for each in build.parts if each.is_old and each.role in (Role.STILE, Role.RAIL)]
    sides = [each for each in ends if each.height > each.width]
    level = [each for each in ends if each.width >= each.height]
    if len(sides) < 2:
        return
    old = next((each.face for each in build.parts if each.is_old and each.role is Role.VENEER), sides[0])
    low = max([old.y0, *(each.y1 for each in level if each.y0 < build.height / 2)])
    high = min([old.y1, *(each.y0 for each in level if each.y0 >= build.height / 2)])
    x0, x1 = min(each.x1 for each in sides), max(each.x0 for each in sides)
    some = choice.inside is Inside.BLOCKS
    name = "inside of the old leaf, where only blocks are wood" if some else "hollow of the old leaf"
    yield Hollow(name, Rect(x0, low, x1, high), (choice.face, choice.thickness - choice.face), some)
