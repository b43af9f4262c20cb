"""Where the cuts of an operation begin and end on the work, from the end at the left hand: as one marks them."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.body.pieces import CutOut
from oakmeasure.core.drawings.drawing import Anchor, Layer, Lettering, Sketch
from oakmeasure.core.drawings.make.bench_lies import LEFT, LOW, WIDE, Lies
from oakmeasure.core.hardware.boring import BoringKind
from oakmeasure.core.making.changes import FeatureMade
from oakmeasure.core.making.features import made_on
from oakmeasure.core.making.operation import Operation
from oakmeasure.core.making.played import Played
from oakmeasure.core.solution import LeafSolution

GO_WITH_IT = (BoringKind.CUP_SCREW, BoringKind.CUP_DOWEL)  # marked from the hinge itself
LARGE = 2.9  # type that is read at two metres
ROW = 84.0  # of the drawing's height, that a row of such type takes
MOST_ROWS = 5
LETTER = 30.0  # of the drawing's width, that a letter of such type takes
UNDER = LOW - 16.0  # the lower line of the bench
BESIDE = 12.0  # of a line, at which its number stands
TOUCHES = 0.05  # mm between two cuts that are marked as one
ALL_ALONG = 0.98  # of the work's length, from which a cut needs no place


@dataclass(frozen=True, slots=True)
class CutPlace:
    """One cut, or several that touch, along the work."""

    near: float
    """Where it begins, from the end at the left hand, mm."""
    far: float
    """Where it ends, mm."""
    is_round: bool
    """Whether it is drilled: one marks its middle."""
    at: Point
    """That place in the leaf, mm: across and up."""


def cut_places(leaf: LeafSolution, op: Operation, how: Lies, played: Played) -> tuple[CutPlace, ...]:
    """Return where the cuts of an operation lie along the work as it is now, trimming allowance and all.

    Args:
        leaf: The leaf, worked out to the end.
        op: The operation; it holds a piece or the leaf.
        how: How the work lies.
        played: The pieces after the operation.
    """
    name = op.hold.part if op.hold is not None else ""
    boxes = [each.box for each in played.body.pieces if each.part is not None and (not name or each.name == name)]
    if not boxes:
        return ()
    axis = 0 if how.level else 1
    low, high = min(box[axis] for box in boxes), max(box[axis + 3] for box in boxes)
    still_on = high - leaf.body.height if leaf.body is not None and axis else 0.0
    found: list[CutPlace] = []
    for solid, from_top in _solids(leaf, op, name):
        a, b = max(solid.box[axis], low), min(solid.box[axis + 2], high)
        if b <= a or b - a > ALL_ALONG * (high - low):
            continue
        near, far = (high - b, high - a) if how.flip_long else (a - low, b - low)
        if from_top is not None and axis:  # under a head out of level one measures down the cut's own edge
            near, far = from_top + still_on, from_top + still_on + (b - a)
        middle = ((solid.box[0] + solid.box[2]) / 2, (solid.box[1] + solid.box[3]) / 2)
        found.append(CutPlace(near, far, len(solid.points) == 1, middle))
    return tuple(_together(found))


def _solids(leaf: LeafSolution, op: Operation, name: str) -> Iterator[tuple[Solid, float | None]]:
    """Yield what is cut, with how far from its datum at the head it begins where it is cut in the whole leaf, mm."""
    made = {change.feature for change in op.changes if isinstance(change, FeatureMade)}
    if leaf.body is not None and name:
        for feature, what in made_on(leaf.body.piece(name)):
            if feature in made and what is not None:
                yield (what.solid if isinstance(what, CutOut) else what), None
    for cut in leaf.borings:
        if cut.kind in GO_WITH_IT or cut.solid is None or cut.name not in op.cuts:
            continue
        if not name or cut.member == name:
            yield cut.solid, None if name else cut.from_top


def _together(found: Iterable[CutPlace]) -> list[CutPlace]:
    """Return cuts in their order, those that touch as one; what lies in the same place counts once."""
    ordered: list[CutPlace] = []
    for each in sorted(found, key=lambda place: (place.near, place.far)):
        last = ordered[-1] if ordered else None
        if last is None or each.near > last.far + TOUCHES:
            ordered.append(each)
        else:
            ordered[-1] = CutPlace(last.near, max(last.far, each.far), last.is_round, last.at)
    return ordered


def draw_places(
    sketch: Sketch, places: Sequence[CutPlace], how: Lies, at: Callable[[float, float, float], Point]
) -> None:
    """Write each place over the work, in steps, so that no line crosses a number.

    Args:
        sketch: The drawing that is added to.
        places: The cuts along the work.
        how: How it lies.
        at: Where a place of the leaf is drawn.
    """
    if not places:
        return
    top = max(at(x, y, z)[1] for x in (how.box.x0, how.box.x1) for y in (how.box.y0, how.box.y1) for z in (0.0, 60.0))
    told = [(at(*place.at, 0.0)[0], _words(sketch, place)) for place in places]
    shown = sorted(told)[: MOST_ROWS - 1] + sorted(told)[max(len(told) - 1, MOST_ROWS - 1) :]
    right = [(x, words) for x, words in shown if x + LETTER * len(words) <= WIDE + LEFT]
    left = [each for each in shown if each not in right]
    for anchor, group, edge, way in ((Anchor.LEFT, right, top, 1), (Anchor.RIGHT, left[::-1], UNDER, -1)):
        for n, (x, words) in enumerate(group):
            row = edge + way * (22 + ROW * (len(group) - 0.5 - n))
            sketch.line([(x, edge), (x, row)], Layer.LEAF)
            beside = BESIDE if anchor is Anchor.LEFT else -BESIDE
            sketch.label((x + beside, row), words, Lettering(Layer.LEAF, LARGE, bold=True), anchor=anchor)
    zero = sketch.show.length(0.0)
    sketch.label(
        (0.0, UNDER - 22 - 0.5 * ROW), f"{how.left} {zero}", Lettering(Layer.OUTLINE, LARGE), anchor=Anchor.LEFT
    )


def _words(sketch: Sketch, place: CutPlace) -> str:
    show = sketch.show
    if place.is_round:
        return show.length((place.near + place.far) / 2)
    return f"{show.length(place.near)} – {show.length(place.far)}"
