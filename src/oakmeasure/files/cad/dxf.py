"""A leaf, a part of it or its templates as DXF in millimetres, layers by the kind and depth of a cut."""

from __future__ import annotations

import io
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.paper.router_layout import FaceUp, Flat, FlatLayer, bulges, flat, flat_part
from oakmeasure.core.paper.template import Template
from oakmeasure.core.paper.templates import hands, templates, templates_asked_for
from oakmeasure.core.solution import LeafSolution

APART = 50.0  # mm between templates in one file

COLOURS = {FlatLayer.OUTLINE: 7, FlatLayer.THROUGH: 1, FlatLayer.POCKET: 5, FlatLayer.BORE: 3, FlatLayer.MARK: 8}


def leaf_dxf(leaf: LeafSolution, face: FaceUp = FaceUp.OPENING, hand: Hand | None = None, *, part: str = "") -> bytes:
    """Return a leaf, or one part of it, with one face up as the bytes of a DXF file, R2010.

    Args:
        leaf: The leaf, worked out to the end.
        face: Which face is seen.
        hand: At which side the hinges are, seen from the opening side; None: the leaf's own.
        part: Name of the part; "" for the leaf as a whole.

    Raises:
        ValueError: Where there is no leaf, or no such part in it.
    """
    shapes = flat_part(leaf, part, face, hand) if part else flat(leaf, face, hand)
    if not shapes:
        raise ValueError("there is no leaf to draw")
    return _document(shapes)


def templates_dxf(leaf: LeafSolution, show: Show, *, only: Sequence[str] = (), hand: Hand | None = None) -> bytes:
    """Return templates beside one another, APART mm between them, each on its own layers by what is cut.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        only: Kinds, all when left out.
        hand: The leaf's own when left out.

    Raises:
        ValueError: Where there is none.
    """
    shapes: list[Flat] = []
    x = 0.0
    for template in templates_asked_for(templates(leaf, show), only):
        drawn = template.of(hand or hands(leaf, template)[0][0])
        x0, y0, x1, _ = drawn.box
        for each in _as_flats(drawn):
            shapes.append(replace(each, points=tuple((px - x0 + x, py - y0) for px, py in each.points)))
        x += x1 - x0 + APART
    if not shapes:
        raise ValueError("there is nothing in this leaf that a template is needed for")
    return _document(shapes)


def _as_flats(template: Template) -> Iterator[Flat]:
    """Yield a template's own shapes: the wood's edges as marks, an arch's or a brace's as its outline."""
    if template.cuts:
        for line in template.references:
            yield Flat(FlatLayer.MARK, (line.start, line.end), line.name)
        yield from template.cuts
    elif template.wood:
        yield Flat(FlatLayer.OUTLINE, template.wood, template.title)


def _document(shapes: Iterable[Flat]) -> bytes:
    import ezdxf
    from ezdxf import units

    document = ezdxf.new("R2010", units=units.MM)
    space = document.modelspace()
    for shape in shapes:
        if shape.name not in document.layers:
            document.layers.add(shape.name, color=COLOURS[shape.layer])
        where = {"layer": shape.name}
        if shape.radius:
            space.add_circle(shape.points[0], shape.radius, dxfattribs=where)
        elif len(shape.points) == 2:
            space.add_line(*shape.points, dxfattribs=where)
        else:
            sides = [(x, y, bulge) for (x, y), bulge in zip(shape.points, bulges(shape.points), strict=True)]
            space.add_lwpolyline(sides, format="xyb", close=True, dxfattribs=where)
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode("utf-8")
