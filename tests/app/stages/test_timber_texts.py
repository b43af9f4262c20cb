"""Texts of the Timber views of the whole job: none runs off the board, none lies on another, mm and inches."""

from __future__ import annotations

from functools import cache

import pytest
from PySide6.QtCore import QRectF

from oakmeasure.app.canvas.label_places import dimension_box, fitted, label_box, label_text
from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.costing.pricing import buy_ways, price_of
from oakmeasure.core.drawings.drawing import Dimension, Label
from oakmeasure.core.drawings.timber.drying_view import drying_view
from oakmeasure.core.drawings.timber.plan_view import pages_of, plan_view
from oakmeasure.core.drawings.timber.price_view import price_view
from oakmeasure.core.drawings.timber.stock_view import owned, rack_view
from oakmeasure.core.drawings.timber.veneer_view import veneer_view
from oakmeasure.core.planning.veneer_plan import veneer_plan
from oakmeasure.core.solver import solve
from oakmeasure.core.timber.drying import trend
from oakmeasure.core.timber.place import at_rest
from oakmeasure.files.job.job_file import demo_job
from planning import planned

SHOWS = pytest.mark.parametrize("show", [Show(), Show(UnitSystem.INCH)], ids=["mm", "inch"])
JOB = demo_job()


@cache
def whole():
    return solve(JOB)


def check(drawing, room, *, lie_apart=True):
    """Every text in the room; and where asked, none on another."""
    view = fitted(drawing, room)
    boxes = [(s.text, label_box(s, view)) for s in drawing.shapes if isinstance(s, Label) and label_text(s, view)]
    boxes += [(s.text, dimension_box(s, view)) for s in drawing.shapes if isinstance(s, Dimension)]
    assert boxes
    for at, (text, box) in enumerate(boxes):
        assert room.adjusted(-3, -3, 3, 3).contains(box), text
        for other, its in boxes[at + 1 :] if lie_apart else ():
            shared = box.adjusted(1, 3, -1, -3).intersected(its.adjusted(1, 3, -1, -3))
            assert shared.isEmpty(), (text, other)


@SHOWS
@pytest.mark.usefixtures("qapp")
def test_texts_of_the_rack_fit_for_every_board(show):
    for at in owned(JOB):
        check(rack_view(JOB, show, board=at, mark=0), QRectF(0, 0, 668, 314))


@SHOWS
@pytest.mark.usefixtures("qapp")
def test_texts_of_the_plan_fit_on_every_page_of_every_lot(show):
    plan = planned(JOB, ("scullery", "pair", "office-store", "coal-hole", "engine-room"), seconds=0.2)
    for lot in plan.lots:
        for at in range(len(pages_of(lot))):
            check(plan_view(lot, show, page=at, leaf_id="pair"), QRectF(0, 0, 668, 440))


@SHOWS
@pytest.mark.usefixtures("qapp")
def test_texts_of_the_veneers_fit(show):
    leaf = whole().leaf("reading-room")
    check(veneer_view(leaf, veneer_plan(leaf), show), QRectF(0, 0, 668, 440))
    assert "no veneers" in veneer_view(whole().leaf("hatch"), None, show).texts()[0]


@pytest.mark.usefixtures("qapp")
def test_texts_of_the_moisture_log_fit_before_and_after_it_is_ready():
    rest = at_rest(JOB.leaf("seed-room").timber)
    for board in (each for each in JOB.boards if each.readings):
        check(drying_view(board, trend(board.readings, sum(rest) / 2), rest), QRectF(0, 0, 668, 520), lie_apart=False)
    bare = JOB.boards[2]
    assert "no readings" in drying_view(bare, trend(bare.readings, 10.0), rest).texts()[0]


@pytest.mark.parametrize("leaf_id", ["seed-room", "reading-room", "coal-hole", "press-left", "walnut", "office-store"])
@pytest.mark.usefixtures("qapp")
def test_texts_of_the_price_fit_and_it_adds_up_for_every_construction(leaf_id):
    leaf = whole().leaf(leaf_id)
    price, ways = price_of(JOB, leaf), buy_ways(JOB, leaf)
    check(price_view(price, ways), QRectF(0, 0, 668, 300))
    assert price.price == pytest.approx(1.2 * sum(each.value for each in price.lines))
    assert all(each.value >= 0 for each in (*price.lines, *price.bought))
    assert all(each.total >= each.material + each.service - 1e-9 for each in ways)
    assert price_view(None, ()).texts() == ["this leaf cannot be made yet: no price"]
