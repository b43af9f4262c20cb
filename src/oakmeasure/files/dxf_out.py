"""A leaf as DXF in millimetres, a layer for each kind of cut, the depth in the layer's name."""

from __future__ import annotations

import io

from oakmeasure.core.job import Hand
from oakmeasure.core.paper.flat import FaceUp, FlatLayer, flat
from oakmeasure.core.solve import LeafSolution

COLOURS = {FlatLayer.OUTLINE: 7, FlatLayer.THROUGH: 1, FlatLayer.POCKET: 5, FlatLayer.BORE: 3, FlatLayer.MARK: 8}


def leaf_dxf(leaf: LeafSolution, face: FaceUp = FaceUp.OPENING, hand: Hand | None = None) -> bytes:
    """Return a leaf with one face up as the bytes of a DXF file, R2010. Raises ValueError where there is no leaf."""
    shapes = flat(leaf, face, hand)
    if not shapes:
        raise ValueError("there is no leaf to draw")
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
            space.add_lwpolyline(shape.points, close=True, dxfattribs=where)
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode("utf-8")
