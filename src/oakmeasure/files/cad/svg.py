"""A drawing as SVG: millimetres as user units, a class for each layer, what a shape shows as `data-ref`."""

from __future__ import annotations

import xml.etree.ElementTree as Tree

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.drawings.drawing import Anchor, Area, Dimension, Drawing, Label, Line
from oakmeasure.core.drawings.hatching import grain_in

NAMESPACE = "http://www.w3.org/2000/svg"
TEXT = 0.014  # height of body text, as a share of the drawing's longer side
STYLE = """
.area { stroke: none } .wood, .panel { fill: #E8D3A6 } .end-grain { fill: #D8BE8A } .lining, .wall { fill: #E1DDD3 }
.metal { fill: #8C8C8C } .rod { fill: #F0DDB8 } .space, .leaf.area { fill: #FFFFFF } .waste { fill: #EFEBE2 }
.band, .handle { fill: #F3EEE4 } .line { fill: none; stroke: #2A2723; stroke-width: 0.0012em; vector-effect:
non-scaling-stroke; stroke-width: 1px } .hidden { stroke-dasharray: 6 4 } .centre { stroke-dasharray: 12 4 2 4 }
.faint, .grain { stroke: #B9AE9A } .pencil, .dimension { stroke: #6B645A } .doubt { stroke: #A86A12 }
text { font-family: "Source Sans 3", sans-serif; fill: #2A2723; stroke: none }
"""


def drawing_svg(drawing: Drawing, title: str) -> bytes:
    """Return a drawing as the bytes of an SVG file, its real size in mm, y downwards as SVG has it.

    Args:
        drawing: The drawing.
        title: What is drawn, for who cannot see it.
    """
    b = drawing.bounds
    root = Tree.Element(
        "svg",
        {
            "xmlns": NAMESPACE,
            "width": f"{b.width:.3f}mm",
            "height": f"{b.height:.3f}mm",
            "viewBox": f"{b.x0:.3f} {-b.y1:.3f} {b.width:.3f} {b.height:.3f}",
        },
    )
    Tree.SubElement(root, "title").text = title
    Tree.SubElement(root, "style").text = STYLE
    body = TEXT * max(b.width, b.height)
    for shape in drawing.shapes:
        if isinstance(shape, Area):
            _area(root, shape)
        elif isinstance(shape, Line):
            _path(root, shape.points, f"line {_class(shape.layer)}", shape.ref)
        elif isinstance(shape, Label):
            _label(root, shape, body)
        else:
            _dimension(root, shape, body)
    return b'<?xml version="1.0" encoding="UTF-8"?>\n' + Tree.tostring(root, encoding="utf-8")


def _class(layer: str) -> str:
    return str(layer).replace(" ", "-")


def _numbers(points: tuple[Point, ...] | list[Point]) -> str:
    return " ".join(f"{x:.3f},{-y:.3f}" for x, y in points)


def _path(root: Tree.Element, points: tuple[Point, ...] | list[Point], kind: str, ref: str) -> None:
    extra = {"data-ref": ref} if ref else {}
    Tree.SubElement(root, "polyline", {"class": kind, "points": _numbers(points), **extra})


def _area(root: Tree.Element, area: Area) -> None:
    extra = {"data-ref": area.ref} if area.ref else {}
    tint = {"style": f"fill: {area.tint}"} if area.tint else {}
    Tree.SubElement(
        root, "polygon", {"class": f"area {_class(area.layer)}", "points": _numbers(area.points), **tint, **extra}
    )
    for line in grain_in(area):
        _path(root, line, "line grain", "")
    for layer, points in area.strokes:
        _path(root, points, f"line {_class(layer)}", "")


def _label(root: Tree.Element, label: Label, body: float) -> None:
    size = body * label.lettering.size
    anchor = {Anchor.LEFT: "start", Anchor.RIGHT: "end"}.get(label.anchor, "middle")
    down = {Anchor.BELOW: 0.9, Anchor.ABOVE: -0.2}.get(label.anchor, 0.35) * size
    weight = {"font-weight": "600"} if label.lettering.bold else {}
    ref = {"data-ref": label.ref} if label.ref else {}
    _text(root, (label.x, label.y - down), label.text, size, {"text-anchor": anchor, **weight, **ref})


def _text(root: Tree.Element, at: Point, words: str, size: float, look: dict[str, str]) -> None:
    place = {"x": f"{at[0]:.3f}", "y": f"{-at[1]:.3f}", "font-size": f"{size:.3f}"}
    Tree.SubElement(root, "text", {**place, **look}).text = words


def _dimension(root: Tree.Element, shape: Dimension, body: float) -> None:
    (x0, y0), (x1, y1) = shape.start, shape.end
    _path(root, [shape.start, shape.end], "line dimension", f"figure:{shape.figure}" if shape.figure else shape.ref)
    tick = 0.3 * body
    for x, y in (shape.start, shape.end):
        _path(root, [(x - tick, y - tick), (x + tick, y + tick)], "line dimension", "")
    x, y = x0 + (x1 - x0) * shape.share, y0 + (y1 - y0) * shape.share
    _text(root, (x, y + 0.25 * body), shape.text, body, {"text-anchor": "middle", "font-weight": "600"})
