"""Texts on the board: lines of words stand under one another, figures of a row clear of each other."""

from __future__ import annotations

import itertools

from PySide6.QtCore import QRectF

from oakmeasure.app.canvas.label_places import fitted, label_box
from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.drawing import Label, Layer, Room, Sketch
from oakmeasure.core.leaf.part import Rect

BOARD = QRectF(0, 0, 800, 600)


def view_of(sketch):
    """Return the view of a drawing 800 by 600 mm, and its labels."""
    drawing = sketch.drawing()
    return fitted(drawing, BOARD), [each for each in drawing.shapes if isinstance(each, Label)]


def sheet():
    sketch = Sketch(Show())
    sketch.box(Rect(0, 0, 800, 600), Layer.OUTLINE)
    return sketch


def test_lines_of_words_that_begin_at_one_place_stand_under_one_another(qapp):
    sketch = sheet()
    for line, text in enumerate(("let in 1.75 each side", "the leaf with more knuckles", "goes to the lining")):
        sketch.write((100, 300 - 6 * line), text)  # much closer than a line is high
    view, labels = view_of(sketch)
    boxes = sorted((label_box(each, view) for each in labels), key=lambda box: box.y())
    assert view.down
    assert all(under.y() > over.y() + 0.8 * over.height() for over, under in itertools.pairwise(boxes))


def test_figures_of_one_row_that_all_but_touch_go_apart_and_those_with_room_of_their_own_stay(qapp):
    sketch = sheet()
    wide = view_of(sheet())[0].scale
    for x in (300.0, 300.0 + 28.0 / wide):
        sketch.label((x, 300), "1234")
    view, labels = view_of(sketch)
    one, other = (label_box(each, view) for each in labels)
    assert view.aside
    assert other.x() - one.right() > 2.0
    kept = sheet()
    for x in (300.0, 300.0 + 28.0 / wide):
        kept.label((x, 300), "1234", room=Room(200))
    assert not view_of(kept)[0].aside
