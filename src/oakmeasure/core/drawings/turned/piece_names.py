"""The names of a leaf's pieces beside its picture, each led to a place of its piece that is seen."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from oakmeasure.core.base.geometry import Point, centroid
from oakmeasure.core.base.prism_sums import inside
from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Anchor, Layer, Lettering, Sketch
from oakmeasure.core.drawings.refs import part_ref
from oakmeasure.core.drawings.turned.picture import PictureFrame
from oakmeasure.core.drawings.turned.scene import Scene

LABEL_LINES = 2.7  # that a name and a size take
LED_IN = 0.12  # of a side's width, that a leader reaches into it
MOST_SIDES = 4  # of a piece, the largest first, that are tried


class Sides:
    """The sides of a picture, the furthest first: which of their places are seen."""

    def __init__(self, pieces: Sequence[int], outlines: Sequence[tuple[Point, ...]]) -> None:
        """pieces: number of each side's piece. outlines: corners of each, mm."""
        self.pieces, self.outlines = pieces, outlines

    @cached_property
    def _corners(self) -> tuple[Any, Any]:
        """All corners, a row each, and where those of each side begin."""
        points = np.array([point for each in self.outlines for point in each]).reshape(-1, 2)
        return points, np.cumsum([0, *map(len, self.outlines)])

    @cached_property
    def _boxes(self) -> Any:
        points, firsts = self._corners
        low, high = (each.reduceat(points, firsts[:-1], axis=0) for each in (np.minimum, np.maximum))
        return np.hstack([low, high])

    @cached_property
    def _sizes(self) -> Any:
        """The area of each side, mm²."""
        points, firsts = self._corners
        after = np.arange(1, len(points) + 1)
        after[firsts[1:] - 1] = firsts[:-1]
        crossed = points[:, 0] * points[after, 1] - points[after, 0] * points[:, 1]
        return abs(np.add.reduceat(crossed, firsts[:-1])) / 2

    @cached_property
    def _largest(self) -> dict[int, list[int]]:
        """The sides of each piece, the largest first."""
        found: dict[int, list[int]] = defaultdict(list)
        for at, each in enumerate(self.pieces):
            found[each].append(at)
        sizes = self._sizes.tolist() if found else []
        return {piece: sorted(own, key=lambda at: -sizes[at])[:MOST_SIDES] for piece, own in found.items()}

    def _seen(self, at: int, places: Sequence[Point]) -> Iterator[Point | None]:
        """Yield each place of a side before which no side of another piece lies, None for one that is hidden."""
        later = self._boxes[at + 1 :, :, None]
        xs, ys = np.array(places).T
        near = (later[:, 0] < xs) & (later[:, 2] > xs) & (later[:, 1] < ys) & (later[:, 3] > ys)
        for (x, y), column in zip(places, near.T, strict=True):
            over = (at + 1 + each for each in column.nonzero()[0].tolist())
            is_hidden = any(self.pieces[n] != self.pieces[at] and inside(self.outlines[n], x, y) for n in over)
            yield None if is_hidden else (x, y)

    def seen_of(self, piece: int, *, is_left: bool) -> Point | None:
        """Return a place of a piece that is seen, on one of its larger sides; None where none is found.

        Args:
            piece: Its number.
            is_left: Whether it should lie as far to the left as may be, or to the right.
        """
        for at in self._largest.get(piece, ()):
            places = _places_on(self.outlines[at], is_left=is_left)
            found = next((each for each in self._seen(at, places) if each is not None), None)
            if found is not None:
                return found
        return None

    def share_seen(self, piece: int) -> float:
        """Return of its largest side that share which is seen, by a few places; 0 of a piece without one.

        Args:
            piece: Its number.
        """
        if piece not in self._largest:
            return 0.0
        largest = self._largest[piece][0]
        places = _places_on(self.outlines[largest], is_left=True)
        return sum(each is not None for each in self._seen(largest, places)) / len(places)


def _places_on(outline: Sequence[Point], *, is_left: bool) -> list[Point]:
    """Return places on a convex side from the end at which it is named to the other, and near its ends up and down."""
    x, y = centroid(outline)
    ends = sorted(outline) if is_left else sorted(outline, reverse=True)
    near = ((ends[0][0] + ends[1][0]) / 2, (ends[0][1] + ends[1][1]) / 2)
    far = ((ends[-1][0] + ends[-2][0]) / 2, (ends[-1][1] + ends[-2][1]) / 2)
    ways = [_between(near, far, share) for share in (LED_IN, 0.3, 0.5, 0.7, 1 - LED_IN)]
    return [*ways, *(_between(corner, (x, y), LED_IN) for corner in outline)]


def _between(a: Point, b: Point, share: float) -> Point:
    return a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])


@dataclass(frozen=True, slots=True)
class PieceName:
    """A name beside the picture, with its size, and the piece that it is led to."""

    text: str
    """Its name, and how many of it there are."""
    size: str
    """Its finished size."""
    ref: str
    """What it is pointed at by."""
    to: Point
    """A place of the piece, mm."""
    is_seen: bool
    """Whether that is seen: else the piece lies behind others."""

    def draw(self, sketch: Sketch, picture: PictureFrame, y: float, *, is_left: bool) -> None:
        """Draw it.

        Args:
            sketch: The drawing that is added to.
            picture: Where things lie in it.
            y: How high it stands, mm.
            is_left: Whether it stands to the left of the picture.
        """
        step, side = picture.step, 1.0 if is_left else -1.0
        x = -side * (picture.half[0] + 1.5 * step)
        if self.is_seen:
            sketch.line([(x + side * 0.4 * step, y), (x + side * 1.2 * step, y), self.to], Layer.FAINT)
        anchor = Anchor.RIGHT if is_left else Anchor.LEFT
        sketch.label((x, y + 0.5 * step), self.text, BOLD, anchor=anchor, ref=self.ref)
        sketch.label((x, y - 0.5 * step), self.size, Lettering(PENCIL.layer, 0.9), anchor=anchor, ref=self.ref)


def draw_names(
    sketch: Sketch, picture: PictureFrame, scene: Scene, sides: Sides, only: frozenset[str] | None = None
) -> None:
    """Draw a name for every piece, those alike but for their number together, in two columns.

    Args:
        sketch: The drawing that is added to.
        picture: Where things lie in it.
        scene: The leaf's pieces in space.
        sides: What is seen of them.
        only: Names of those that are named; None for all.
    """
    named = {
        key: [at for at in ats if only is None or scene.body.pieces[at].name in only]
        for key, ats in kinds(scene, sketch.show).items()
    }
    found = {key: {at: _middle(scene, picture, at) for at in ats} for key, ats in named.items() if ats}
    in_order = sorted(found, key=lambda key: sum(x for x, _ in found[key].values()) / len(found[key]))
    half = sum(sum(x for x, _ in found[key].values()) < 0 for key in in_order)
    half = min(max(half, len(in_order) // 2), (len(in_order) + 1) // 2)  # what stands nearest the middle goes over
    for is_left, keys in ((True, in_order[:half]), (False, in_order[half:])):
        column = [_label(scene, sides, key, found[key], is_left=is_left) for key in keys]
        for label, y in _column(column, picture):
            label.draw(sketch, picture, y, is_left=is_left)


def _label(scene: Scene, sides: Sides, kind: tuple[str, str], middles: dict[int, Point], *, is_left: bool) -> PieceName:
    """Return what is written of pieces that are alike, led to the one of them that is seen nearest to it."""
    stem, size = kind
    in_order = sorted(middles, key=lambda at: middles[at][0] if is_left else -middles[at][0])
    seen = ((at, sides.seen_of(at, is_left=is_left)) for at in in_order)
    at, to = next(((at, place) for at, place in seen if place is not None), (in_order[0], None))
    name = scene.body.pieces[at].name
    text = f"{len(middles)} × {stem}" if len(middles) > 1 else name
    return PieceName(text, size, part_ref(name), to or middles[at], to is not None)


def kinds(scene: Scene, show: Show) -> dict[tuple[str, str], list[int]]:
    """Return the numbers of a leaf's pieces, those together that have one size and one name but for its number.

    Args:
        scene: The leaf's pieces in space.
        show: How lengths and other quantities are written.
    """
    found: dict[tuple[str, str], list[int]] = {}
    for at, piece in enumerate(scene.body.pieces):
        if piece.part is not None:
            size = piece.part.finished
            words = show.size(size.length, size.width, size.thickness)
            found.setdefault((re.sub(r" \d+$", "", piece.name), words), []).append(at)
    return found


def _middle(scene: Scene, picture: PictureFrame, at: int) -> Point:
    x0, y0, z0, x1, y1, z1 = scene.body.pieces[at].box
    ox, oy, oz = scene.offsets[at]
    return picture.at(((x0 + x1) / 2 + ox, (y0 + y1) / 2 + oy, (z0 + z1) / 2 + oz))


def _column(found: Sequence[PieceName], picture: PictureFrame) -> Iterator[tuple[PieceName, float]]:
    """Yield labels with their heights, one over the other, each as near to its piece's as there is room."""
    in_order = sorted(found, key=lambda each: each.to[1])
    every, high = LABEL_LINES * picture.step, picture.half[1] - picture.step
    if len(in_order) * every > 2 * high:
        every = 2 * high / len(in_order)
    places: list[float] = []
    for each in in_order:
        places.append(max(each.to[1], places[-1] + every if places else -high))
    top = high
    for at in range(len(places) - 1, -1, -1):
        places[at] = min(places[at], top)
        top = places[at] - every
    yield from zip(in_order, places, strict=True)
