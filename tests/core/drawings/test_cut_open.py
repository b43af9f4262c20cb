"""Sections that are drawn, against the wood of the body that they cut."""

from __future__ import annotations

from collections import Counter
from itertools import pairwise

import pytest

from oakmeasure.core.base.geometry import area
from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.cut_open import cut_across, cut_up, draw_cut
from oakmeasure.core.drawings.drawing import Area, Layer, Sketch


@pytest.mark.parametrize("upright", [True, False])
def test_a_section_shows_as_much_of_each_piece_as_the_plane_meets(solved_demo, upright):
    for leaf in solved_demo.leaves:
        body = leaf.body.bare
        at = cut_across(leaf.build) if upright else cut_up(leaf.build)
        sketch = Sketch(Show())
        draw_cut(sketch, body, at, lambda along, deep: (along, deep), upright=upright)
        drawn: Counter[str] = Counter()
        held, last = 0.0, ""
        for shape in sketch.shapes:
            if isinstance(shape, Area):
                last = last if shape.layer is Layer.SPACE else shape.ref  # a hole is in the piece before it
                drawn[last] += area(shape.points) * (-1 if shape.layer is Layer.SPACE else 1)
        for piece, rect in body.section(at, upright=upright):
            drawn[f"part:{piece.name}"] -= rect.width * rect.height
            held += rect.width * rect.height
        assert held > 0
        assert all(abs(left) < 1e-3 * held for left in drawn.values()), (leaf.leaf.name, drawn)


def test_a_groove_of_a_framed_leaf_is_deeper_than_its_panel_reaches(solved_demo):
    """Up through the panels, in the middle of the leaf: over and under each panel there is room, and then wood."""
    body = solved_demo.leaf("seed-room").body
    rects = body.section(cut_across(body.build), upright=True)
    middle = sum(body.over_all) / 2
    met = sorted((rect.x0, rect.x1, piece.role) for piece, rect in rects if rect.y0 < middle < rect.y1)
    rooms = [b[0] - a[1] for a, b in pairwise(met)]
    assert [role for *_, role in met] == ["rail", "panel", "rail", "panel", "rail"]
    assert all(0.5 < room < body.build.groove_depth for room in rooms)
