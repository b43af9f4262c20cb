"""A rail that is dragged on the drawing: where it may go, and what it snaps to."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.prisms import nearest_free
from oakmeasure.core.construction.registry import has, module
from oakmeasure.core.document.roles import Role
from oakmeasure.core.hardware.clash.moves import END_LEAST, END_MOST
from oakmeasure.core.hardware.clash.search import blocked
from oakmeasure.core.leaf.part import Part
from oakmeasure.core.solution import LeafSolution

SNAP = 8.0  # mm; nearer than this a rail jumps to it
SNAP_FREE = 40.0  # mm; nearer than this what is dragged jumps out of what it would meet
LOCK_HEIGHT = 1000.0  # above the floor: common practice, no source
STEP = 1.0  # to which a dragged rail is set


@dataclass(frozen=True, slots=True)
class DragEdit:
    """Where a dragged rail goes: one edit of the leaf."""

    path: str
    """Path of the field that it sets."""
    value: object
    """The value that it sets."""
    words: str
    """What it snapped to, "" for nothing."""


def rails_to_drag(leaf: LeafSolution) -> list[Part]:
    """Return the rails that can be dragged: those between the top and the bottom one.

    Args:
        leaf: The leaf, worked out to the end.
    """
    kind = leaf.leaf.build.kind
    found: list[Part] = [] if leaf.build is None or not has(kind, "drag") else module(kind, "drag").rails(leaf.build)
    return found


def dragged(leaf: LeafSolution, name: str, y: float) -> DragEdit | None:
    """Return the edit that sets a rail's centre at y, mm up the leaf; None where no such rail can be dragged.

    Args:
        leaf: The leaf, worked out to the end.
        name: Its name.
        y: Up, from the foot, mm.
    """
    choice = leaf.leaf.build
    if leaf.build is None or not has(choice.kind, "drag"):
        return None
    frame = module(choice.kind, "drag")
    if not frame.is_between(choice, name):
        return None
    rail = leaf.build.part(name)
    half = rail.face.height / 2
    below, above = _neighbours(leaf, rail)
    y = min(max(round(y / STEP) * STEP, below + half + 20), above - half - 20)
    floor = leaf.figures["gap_floor"].value
    y, words = _snapped(leaf, y, below, above, half, floor)
    edit = frame.set_rail(choice, name, centre=y, half=half, below=below, floor=floor)
    return None if edit is None else DragEdit(edit[0], edit[1], words)


def dragged_butt(leaf: LeafSolution, number: int, y: float) -> DragEdit | None:
    """Return the edit that sets a butt's middle at y, mm up the leaf, with all others where they are.

    None without it.

    It snaps to the rails: an end in line with a rail's edge, or its middle on the rail's; and out of what it
    would meet to where it is free. It passes no neighbour.

    Args:
        leaf: The leaf, worked out to the end.
        number: Its number, from 1.
        y: Up, from the foot, mm.
    """
    if leaf.butts is None or leaf.build is None or not 1 <= number <= len(leaf.butts.places):
        return None
    places, length = leaf.butts.places, leaf.figures["butt_length"].value
    height, half = leaf.fit.height.value, length / 2
    top = places[number - 2].rect.y0 - half if number > 1 else height - half
    foot = places[number].rect.y1 + half if number < len(places) else half
    y = min(max(round(y / STEP) * STEP, foot), top)
    marks = []
    for part in leaf.build.parts:
        if part.role in (Role.RAIL, Role.LEDGE) and not part.is_back:
            f = part.face
            marks += [
                (f.y0 - half, f"under the {part.name}"),
                (f.y1 + half, f"over the {part.name}"),
                ((f.y0 + f.y1) / 2, f"the middle of the {part.name}"),
            ]
    near = min(marks, key=lambda each: abs(each[0] - y), default=(y, ""))
    y, words = near if abs(near[0] - y) <= SNAP and foot <= near[0] <= top else (y, "")
    rect = places[number - 1].rect
    y, words = _freed(leaf, f"butt {number}", (rect.y0 + rect.y1) / 2, y, words)
    tops = [each.top.value for each in places]
    tops[number - 1] = round(height - y - half, 3)
    return DragEdit("hardware.tops", tuple(tops), words)


def dragged_cup(leaf: LeafSolution, number: int, y: float) -> DragEdit | None:
    """Return the edit that sets the top or the bottom cup's middle at y, mm up the leaf; None for one between.

    It snaps to where its hinge lies in line with a rail's inner edge, and stays 30 and more from the ends.

    Args:
        leaf: The leaf, worked out to the end.
        number: Its number, from 1.
        y: Up, from the foot, mm.
    """
    if leaf.cups is None or leaf.build is None or number not in (1, len(leaf.cups.places)):
        return None
    height = leaf.fit.height.value
    least, most = END_LEAST, min(END_MOST, height / 2 - 40.0)
    is_top = number == 1
    from_end = height - y if is_top else y
    from_end = min(max(round(from_end / STEP) * STEP, least), most)
    marks = []
    for part in leaf.build.parts:
        if part.role is Role.RAIL:
            inner = height - part.face.y0 if is_top else part.face.y1
            marks.append((inner, f"in line with the {part.name}"))
    near = min(marks, key=lambda each: abs(each[0] - from_end), default=(from_end, ""))
    value, words = near if abs(near[0] - from_end) <= SNAP and least <= near[0] <= most else (from_end, "")
    rect = leaf.cups.places[number - 1].rect
    up, words = _freed(leaf, f"cup {number}", (rect.y0 + rect.y1) / 2, height - value if is_top else value, words)
    value = min(max(height - up if is_top else up, least), most)
    return DragEdit("hardware.cup.first" if is_top else "hardware.cup.last", round(value, 3), words)


def _freed(leaf: LeafSolution, family: str, now: float, y: float, words: str) -> tuple[float, str]:
    """Return the free place next to where something is dragged, and what it snapped to; as it is if that is far."""
    mover = next((each for each in leaf.clashes.movers if family in each.moves), None)
    if mover is None:
        return y, words
    things = leaf.clashes.things
    way = nearest_free(blocked(mover, things), at=y - now, low=mover.low, high=mover.high)
    if way is None or abs(now + way - y) < 1e-6 or abs(now + way - y) > SNAP_FREE:
        return y, words
    return now + way, "the nearest free place"


def _neighbours(leaf: LeafSolution, rail: Part) -> tuple[float, float]:
    """Return the upper edge of the rail below and the lower edge of the one above."""
    assert leaf.build is not None
    rails = [part for part in leaf.build.parts if part.role is Role.RAIL and part.name != rail.name]
    below = [each.face.y1 for each in rails if each.face.y0 < rail.face.y0]
    above = [each.face.y0 for each in rails if each.face.y0 >= rail.face.y0]
    return max(below, default=0.0), min(above, default=leaf.build.height)


def _snapped(leaf: LeafSolution, y: float, below: float, above: float, half: float, floor: float) -> tuple[float, str]:
    """Return the place to which the rail jumps, and to what."""
    places = [(LOCK_HEIGHT - floor, "the usual lock height"), ((below + above) / 2, "equal panels")]
    for place in leaf.butts.places if leaf.butts is not None else ():
        places += [
            (place.rect.y0 - half, f"under butt {place.number}"),
            (place.rect.y1 + half, f"over butt {place.number}"),
        ]
    near = min(places, key=lambda each: abs(each[0] - y))
    inside = below + half + 20 <= near[0] <= above - half - 20
    return near if abs(near[0] - y) <= SNAP and inside else (y, "")
