"""One drawing, many renderers: shapes in mm, each on a layer and with a reference to what it shows.

A view builds a `Drawing` out of a solution; the window, the PDF page and the tests only read it. x runs right,
y up. Text has a size in points of the medium, not in mm, so that it stays legible at every scale.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum

from oakmeasure.core.base.geometry import Point, circle
from oakmeasure.core.base.units import Show
from oakmeasure.core.leaf.part import Rect


class Layer(StrEnum):
    """What a line or an area is; the renderer gives it its weight and colour."""

    WALL = "wall"
    LINING = "lining"
    WOOD = "wood"
    PANEL = "panel"
    END_GRAIN = "end grain"
    FACET = "facet"  # a side of a piece seen askew, in its own tint; its edges are strokes
    GRAIN = "grain"
    ROD = "rod"
    OUTLINE = "outline"
    HIDDEN = "hidden"
    PENCIL = "pencil"
    FAINT = "faint"
    DIMENSION = "dimension"
    METAL = "metal"
    LEAF = "leaf"
    READING = "reading"
    DOUBT = "doubt"
    WASTE = "waste"
    FLOOR = "floor"
    CENTRE = "centre"
    SPACE = "space"
    BAND = "band"
    HANDLE = "handle"


class Grain(StrEnum):
    """Which way the wood runs in an area."""

    NONE = ""
    UPRIGHT = "upright"
    LEVEL = "level"
    END = "end"


class Anchor(StrEnum):
    """Which point of a text stands at its place."""

    CENTRE = "centre"
    LEFT = "left"
    RIGHT = "right"
    BELOW = "below"  # the text hangs under the point
    ABOVE = "above"


@dataclass(frozen=True, slots=True)
class Area:
    """A filled outline."""

    points: tuple[Point, ...]
    """Its corners, mm."""
    layer: Layer
    """What kind of line or area it is."""
    ref: str = ""
    """What it shows, for pointing at it: "part:top rail"; "" for nothing."""
    grain: Grain = Grain.NONE
    """Which way the grain runs."""
    tint: str = ""
    """The species' colour, where it is wood."""
    strokes: tuple[tuple[Layer, tuple[Point, ...]], ...] = ()
    """Lines that lie on it and are drawn with it: each with what kind of line it is."""

    def moved(self, x: float) -> Area:
        """Return it so far to the right.

        Args:
            x: How far, mm; less than 0 to the left.
        """
        strokes = tuple((layer, _moved(points, x)) for layer, points in self.strokes)
        return replace(self, points=_moved(self.points, x), strokes=strokes)


@dataclass(frozen=True, slots=True)
class Line:
    """An open line."""

    points: tuple[Point, ...]
    """The points, mm."""
    layer: Layer
    """What kind of line or area it is."""
    ref: str = ""
    """What it shows, for pointing at it: "part:top rail"; "" for nothing."""

    def moved(self, x: float) -> Line:
        """Return it so far to the right.

        Args:
            x: How far, mm; less than 0 to the left.
        """
        return replace(self, points=_moved(self.points, x))


OAK = "#D9B98A"  # tint of wood that stands for any
Onto = Callable[[float, float], Point]  # from what is drawn to where it lies on the sheet
LETTERS = 1.1  # of the height that a label may fill, the size of type whose letters do


@dataclass(frozen=True, slots=True)
class Lettering:
    """In what type a text stands."""

    layer: Layer = Layer.OUTLINE
    """What kind of text it is, which says its colour."""
    size: float = 1.0
    """Size of its type; 1 is body text."""
    bold: bool = False
    """Whether it stands in bold type."""
    on_paper: bool = False
    """Whether it has a ground of its own, so that lines do not cross it."""


PLAIN = Lettering()
BOLD = Lettering(bold=True)
PENCIL = Lettering(Layer.PENCIL)


@dataclass(frozen=True, slots=True)
class Room:
    """How much a text may fill; where it does not fit, the first of `shorter` that does is shown, or nothing."""

    width: float = 0.0
    """Width that it may fill, mm; 0 for as much as it needs."""
    shorter: tuple[str, ...] = ()
    """The same in fewer letters, the longest first."""
    high: float = 0.0
    """Height that it may fill, mm, where less than a line is set smaller; 0 for as much as it needs."""


AS_NEEDED = Room()


@dataclass(frozen=True, slots=True)
class Label:
    """A text."""

    x: float
    """Across, where it is set, mm."""
    y: float
    """Up, where it is set, mm."""
    text: str
    """The text."""
    lettering: Lettering = PLAIN
    """In what type it stands."""
    anchor: Anchor = Anchor.CENTRE
    """Which point of the text stands there."""
    ref: str = ""
    """What it shows, for pointing at it: "part:top rail"; "" for nothing."""
    room: Room = AS_NEEDED
    """How much it may fill."""

    @property
    def layer(self) -> Layer:
        """What kind of text it is, as every shape has a layer."""
        return self.lettering.layer

    def moved(self, x: float) -> Label:
        """Return it so far to the right.

        Args:
            x: How far, mm; less than 0 to the left.
        """
        return replace(self, x=self.x + x)

    def set_in(self, body: float, per_mm: float, *, least: float) -> float:
        """Return how large it is set: smaller where it lacks the height of a line, but to be read.

        Args:
            body: Size of body text, in the view's unit.
            per_mm: How many of the view's units are a mm of the drawing.
            least: The least size that is read, in the view's unit.
        """
        whole = body * self.lettering.size
        return min(whole, max(LETTERS * self.room.high * per_mm, least)) if self.room.high else whole


@dataclass(frozen=True, slots=True)
class Dimension:
    """A dimension line from point to point with its value; `edit` is the field that it sets, where it sets one."""

    start: Point
    """Where it begins, mm."""
    end: Point
    """Where it ends, mm."""
    text: str
    """The text."""
    figure: str = ""
    """Name of the figure; "" for none."""
    edit: str = ""
    """Path of the field that sets it; "" for none."""
    layer: Layer = Layer.DIMENSION
    """What kind of line or area it is."""
    arrows: bool = False
    """Whether it has arrow heads."""
    ref: str = ""
    """What it shows, for pointing at it: "part:top rail"; "" for nothing."""
    share: float = 0.5
    """How far along the line its text stands, 0 to 1."""

    def moved(self, x: float) -> Dimension:
        """Return it so far to the right.

        Args:
            x: How far, mm; less than 0 to the left.
        """
        return replace(self, start=(self.start[0] + x, self.start[1]), end=(self.end[0] + x, self.end[1]))


def _moved(points: tuple[Point, ...], x: float) -> tuple[Point, ...]:
    return tuple((px + x, py) for px, py in points)


Shape = Area | Line | Label | Dimension


@dataclass(frozen=True, slots=True)
class Drawing:
    """All shapes of a view, bottom one first, and the mm box that they fill."""

    shapes: tuple[Shape, ...]
    """What is drawn, the first lowest."""
    bounds: Rect
    """What it takes up, mm."""

    def refs(self) -> set[str]:
        """Return everything that the drawing shows and can point at."""
        return {shape.ref for shape in self.shapes if shape.ref}

    def texts(self) -> list[str]:
        """Return every text on the drawing."""
        return [shape.text for shape in self.shapes if isinstance(shape, Label | Dimension)]


@dataclass(slots=True)
class Sketch:
    """Collects shapes. `mirror_at` turns the view round for hinges on the right: x becomes mirror_at − x."""

    show: Show
    """How lengths and other quantities are written on it."""
    step: float = 1.0
    """Distance that spaces its lines and texts, mm on the drawing: about the height of a line of text."""
    shapes: list[Shape] = field(default_factory=list)
    """What is drawn so far."""
    mirror_at: float | None = None
    """Line about which it is mirrored, mm; None for none."""

    def page(self) -> Sketch:
        """Return a sketch on the same sheet that is not mirrored: for rods, titles and sections beside the leaf."""
        return Sketch(self.show, self.step, self.shapes)

    def at(self, x: float, y: float) -> Point:
        """Return a point of this sketch as one of the drawing.

        Args:
            x: Across, away from the hinge edge, mm.
            y: Up, from the foot, mm.
        """
        return (self.mirror_at - x if self.mirror_at is not None else x, y)

    def area(
        self, points: Sequence[Point], layer: Layer, *, ref: str = "", grain: Grain = Grain.NONE, tint: str = ""
    ) -> None:
        """Add an area.

        Args:
            points: Points, mm.
            layer: What kind of line or area it is.
            ref: What it shows, for pointing at it: "part:top rail"; "" for nothing.
            grain: Which way the grain runs.
            tint: Colour of the wood, as #rrggbb; "" for the layer's own.
        """
        self.shapes.append(Area(tuple(self.at(*each) for each in points), layer, ref, grain, tint))

    def rect(self, rect: Rect, layer: Layer, *, ref: str = "", grain: Grain = Grain.NONE, tint: str = "") -> None:
        """Add a rectangle; how its grain is drawn is the renderer's business.

        Args:
            rect: The rectangle, mm.
            layer: What kind of line or area it is.
            ref: What it shows, for pointing at it: "part:top rail"; "" for nothing.
            grain: Which way the grain runs.
            tint: Colour of the wood, as #rrggbb; "" for the layer's own.
        """
        self.area(corners(rect), layer, ref=ref, grain=grain, tint=tint)

    def line(self, points: Sequence[Point], layer: Layer, *, ref: str = "") -> None:
        """Add a line through points.

        Args:
            points: Points, mm.
            layer: What kind of line or area it is.
            ref: What it shows, for pointing at it: "part:top rail"; "" for nothing.
        """
        self.shapes.append(Line(tuple(self.at(*each) for each in points), layer, ref))

    def box(self, rect: Rect, layer: Layer, *, ref: str = "") -> None:
        """Add the outline of a rectangle.

        Args:
            rect: The rectangle, mm.
            layer: What kind of line or area it is.
            ref: What it shows, for pointing at it: "part:top rail"; "" for nothing.
        """
        points = corners(rect)
        self.line([*points, points[0]], layer, ref=ref)

    def label(
        self,
        at: Point,
        text: str,
        lettering: Lettering = PLAIN,
        *,
        anchor: Anchor = Anchor.CENTRE,
        ref: str = "",
        room: Room = AS_NEEDED,
    ) -> None:
        """Add a text.

        Args:
            at: Where it is set: away from the hinge edge and up from the foot, mm.
            text: The text.
            lettering: In what type it stands.
            anchor: Which point of the text stands at the place.
            ref: What it shows, for pointing at it: "part:top rail"; "" for nothing.
            room: How much it may fill.
        """
        if self.mirror_at is not None and anchor in (Anchor.LEFT, Anchor.RIGHT):
            anchor = Anchor.RIGHT if anchor is Anchor.LEFT else Anchor.LEFT
        self.shapes.append(Label(*self.at(*at), text, lettering, anchor, ref, room))

    def write(
        self, at: Point, text: str, lettering: Lettering = PLAIN, *, ref: str = "", room: Room = AS_NEEDED
    ) -> None:
        """Add a text that begins at a place.

        Args:
            at: Where it begins: away from the hinge edge and up from the foot, mm.
            text: The text.
            lettering: In what type it stands.
            ref: What it shows, for pointing at it: "part:top rail"; "" for nothing.
            room: How much it may fill.
        """
        self.label(at, text, lettering, anchor=Anchor.LEFT, ref=ref, room=room)

    def dimension(
        self, start: Point, end: Point, text: str, *, figure: str = "", ref: str = "", share: float = 0.5
    ) -> None:
        """Add a plain dimension.

        Args:
            start: Where it begins, mm.
            end: Where it ends, mm.
            text: The text.
            figure: Name of the figure; "" for none.
            ref: What it shows, for pointing at it: "part:top rail"; "" for nothing.
            share: Where on the line the number stands, 0 to 1.
        """
        self.add(Dimension(start, end, text, figure, ref=ref, share=share))

    def add(self, dimension: Dimension) -> None:
        """Add a dimension of any kind.

        Args:
            dimension: It, in this sketch's own places.
        """
        self.shapes.append(replace(dimension, start=self.at(*dimension.start), end=self.at(*dimension.end)))

    def drawing(self, *, margin: float = 0.0) -> Drawing:
        """Return the finished drawing; `margin`, mm, is added round everything for texts at its edges.

        Args:
            margin: Added round everything, mm.
        """
        points = [point for shape in self.shapes for point in _points_of(shape)]
        if not points:
            return Drawing((), Rect(0, 0, 1, 1))
        xs, ys = [x for x, _ in points], [y for _, y in points]
        box = Rect(min(xs) - margin, min(ys) - margin, max(xs) + margin, max(ys) + margin)
        return Drawing(tuple(self.shapes), box)


def _points_of(shape: Shape) -> Iterable[Point]:
    if isinstance(shape, Area | Line):
        return shape.points
    if isinstance(shape, Label):
        return ((shape.x, shape.y),)
    return (shape.start, shape.end)


def corners(rect: Rect) -> list[Point]:
    """Return the corners of a rectangle, round from the lower left.

    Args:
        rect: The rectangle, mm.
    """
    return [(rect.x0, rect.y0), (rect.x1, rect.y0), (rect.x1, rect.y1), (rect.x0, rect.y1)]


def handle(sketch: Sketch, at: Point, radius: float, ref: str) -> None:
    """Draw a round handle that can be dragged.

    Args:
        sketch: The drawing that is added to.
        at: Where it stands on the drawing, mm.
        radius: Radius, mm.
        ref: What it shows, for pointing at it: "part:top rail"; "" for nothing.
    """
    ring = circle(*at, radius, steps=20)
    sketch.area(ring[:-1], Layer.HANDLE, ref=ref)
    sketch.line(ring, Layer.LEAF, ref=ref)
