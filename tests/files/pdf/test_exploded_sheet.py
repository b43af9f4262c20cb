"""The leaf taken apart on paper: every piece named and sized, nothing off the page, no two texts on one another."""

from __future__ import annotations

import io
import xml.etree.ElementTree as Tree
from datetime import date
from itertools import combinations

import pytest
from pypdf import PdfReader

from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import Area
from oakmeasure.core.drawings.turned.turn import Turn
from oakmeasure.core.drawings.turned.turned_view import turned_view
from oakmeasure.files.cad.svg import drawing_svg
from oakmeasure.files.pdf.exploded_sheet import exploded_pdf

POINT = 72 / 25.4


def page_of(solution, leaf_id):
    (page,) = PdfReader(io.BytesIO(exploded_pdf(solution.job, solution.leaf(leaf_id), on=date(2026, 12, 1)))).pages
    return page


def placed(page):
    """Return every text of a page with where it begins, points."""
    found = []

    def visit(text, _matrix, at, _font, size):
        if text.strip():
            found.append((text.strip(), at[4], at[5], size))

    page.extract_text(visitor_text=visit)
    return found


@pytest.mark.parametrize("leaf_id", ["seed-room", "coal-hole", "reading-room", "walnut", "packet-press", "engine-room"])
def test_every_piece_stands_on_it_with_its_size(solved_demo, leaf_id):
    texts = placed(page_of(solved_demo, leaf_id))
    words = " ".join(text for text, *_ in texts)
    leaf = solved_demo.leaf(leaf_id)
    for part in leaf.build.parts:
        assert part.name.rstrip("0123456789 ") in words
        assert Show().size(part.finished.length, part.finished.width, part.finished.thickness) in words
    assert "not to scale" in words
    assert leaf.leaf.name in words
    for _, x, y, _ in texts:
        assert 8 * POINT < x < 202 * POINT
        assert 8 * POINT < y < 289 * POINT


@pytest.mark.parametrize("leaf_id", ["seed-room", "reading-room", "office-store"])
def test_no_two_names_lie_on_one_another(solved_demo, leaf_id):
    texts = [(x, y) for _, x, y, size in placed(page_of(solved_demo, leaf_id)) if size < 8]
    for (ax, ay), (bx, by) in combinations(texts, 2):
        assert abs(ax - bx) > 40 or abs(ay - by) > 6


def test_boards_with_ledges_are_shown_from_behind_and_framed_leaves_from_before(solved_demo):
    seen = {
        each: " ".join(text for text, *_ in placed(page_of(solved_demo, each))) for each in ("coal-hole", "seed-room")
    }
    assert "seen from the closing side" in seen["coal-hole"]
    assert "seen from the opening side" in seen["seed-room"]


def test_the_svg_has_the_same_sides_and_edges(solved_demo):
    leaf = solved_demo.leaf("seed-room")
    drawing = turned_view(leaf, Show(), Turn(apart=0.6))
    areas = [each for each in drawing.shapes if isinstance(each, Area)]
    root = Tree.fromstring(drawing_svg(drawing, "apart"))
    space = "{http://www.w3.org/2000/svg}"
    polygons = root.findall(f"{space}polygon")
    assert len(polygons) == len(areas)
    assert {each.get("data-ref") for each in polygons} == {each.ref for each in areas}
    assert len(root.findall(f"{space}polyline")) >= sum(len(each.strokes) for each in areas)
