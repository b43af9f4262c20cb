"""What a template is: a piece of wood as one looks at it, its reference edges, and what is cut there."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.paper.router_layout import Flat

Box = tuple[float, float, float, float]


@dataclass(frozen=True, slots=True)
class Reference:
    """A line of the wood's own."""

    start: Point
    """Where the line begins, mm."""
    end: Point
    """Where it ends, mm."""
    name: str
    """Its name, as it is shown."""
    is_datum: bool = True
    """The paper is laid against it; else it is there to check by."""


@dataclass(frozen=True, slots=True)
class Template:
    """One template, as for a leaf with its hinges on the left. mm in a frame of its own."""

    kind: str
    """"cup", "butt" … surface: what is looked at."""
    notes: tuple[str, ...]
    """What else is to be known."""
    surface: str
    """Which face or edge it is laid on."""
    wood: tuple[Point, ...]
    """Its outline as far as it is shown, () for none."""
    references: tuple[Reference, ...]
    """Lines that it is laid by."""
    cuts: tuple[Flat, ...] = ()
    """Holes and pockets, their depth from this surface."""
    lines: tuple[tuple[Point, Point], ...] = ()
    """Heights and middles."""
    places: tuple[tuple[str, str], ...] = ()
    """What it is for, and where that lies, in words."""
    lay: str = ""
    """How it is laid."""
    is_slow: bool = False
    """Of a pair's slow leaf."""

    @property
    def title(self) -> str:
        """Return its name: the kind, and what of it."""
        names = [name for name, _ in self.places]
        return ", ".join(names) if names else self.kind

    @property
    def box(self) -> Box:
        """Return the upright rectangle about everything drawn: least x and y, most x and y."""
        points = [*self.wood, *(p for r in self.references for p in (r.start, r.end))]
        for cut in self.cuts:
            points += [(x + sx * cut.radius, y + sx * cut.radius) for x, y in cut.points for sx in (-1, 1)]
        xs, ys = [x for x, _ in points], [y for _, y in points]
        return min(xs), min(ys), max(xs), max(ys)

    def words(self, show: Show) -> tuple[str, ...]:
        """Return each cut in words, its distances from the edges that the paper is laid against.

        Args:
            show: How lengths and other quantities are written.
        """
        return tuple(self._cut_in_words(cut, show) for cut in self.cuts)

    def _cut_in_words(self, cut: Flat, show: Show) -> str:
        xs, ys = [x for x, _ in cut.points], [y for _, y in cut.points]
        deep = f"{show.length(cut.depth)} deep" if cut.depth else "through"
        across, up = self._datum(upright=True), self._datum(upright=False)
        if cut.radius:
            words = (
                f"{cut.what}: ø {show.length(2 * cut.radius)}, {deep}; centre {show.length(abs(xs[0]))} from {across}"
            )
            if up:
                words += f", {show.length(abs(ys[0]))} from {up}"
            elif abs(ys[0]) >= 0.005:
                words += f", {show.length(abs(ys[0]))} {'above' if ys[0] > 0 else 'below'} the height line"
            return words
        near, wide, high = min(abs(x) for x in xs), max(xs) - min(xs), max(ys) - min(ys)
        words = f"{cut.what}: {show.size(high, wide)}, {deep}; from {show.length(near)} off {across}"
        return f"{words}, {show.length(min(abs(y) for y in ys))} off {up}" if up else words

    def _datum(self, *, upright: bool) -> str:
        """Return the name of the datum along x = 0 or y = 0; "" where there is none."""
        axis = 0 if upright else 1
        for each in self.references:
            if each.is_datum and abs(each.start[axis]) < 0.005 and abs(each.end[axis]) < 0.005:
                return f"the {each.name.partition(',')[0]}"
        return ""

    def of(self, hand: Hand) -> Template:
        """Return it for a hand: itself with the hinges left, its mirror image with the hinges right.

        Args:
            hand: At which side the hinges are, seen from the opening side; None: the leaf's own.
        """
        return self if hand is Hand.LEFT else self._moved(lambda point: (-point[0], point[1]))

    def lying(self) -> Template:
        """Return it turned by a quarter, its right side up: an upright one along a roll."""
        return self._moved(lambda point: (-point[1], point[0]))

    def _moved(self, m: Callable[[Point], Point]) -> Template:
        return replace(
            self,
            wood=tuple(m(p) for p in self.wood),
            references=tuple(replace(r, start=m(r.start), end=m(r.end)) for r in self.references),
            cuts=tuple(replace(c, points=tuple(m(p) for p in c.points)) for c in self.cuts),
            lines=tuple((m(a), m(b)) for a, b in self.lines),
        )
