"""Readings over days, veneers in sequence, prices, the rack as a table."""

from __future__ import annotations

import math
from datetime import date, timedelta

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.costing.pricing import buy_ways, hardware_price, price_of
from oakmeasure.core.document.job import new_job
from oakmeasure.core.document.stock import Board, BoardMark, Came, Face, Flaw, MoistureReading, Sawn
from oakmeasure.core.document.veneer_match import Match
from oakmeasure.core.edits.stock_edits import Spot, drawn_mark, moved_mark, sized_mark, spot_on, with_boards, with_pin
from oakmeasure.core.planning.veneer_plan import veneer_plan
from oakmeasure.core.reports.stock_advice import remarks, straight_length
from oakmeasure.core.solver import solve
from oakmeasure.core.timber.drying import METER, trend
from oakmeasure.core.timber.resaw import matched, resawn, short_by
from oakmeasure.files.tables.cutting_csv import CuttingFileError
from oakmeasure.files.tables.stock_csv import rack_csv, read_rack

FIRST = date(2026, 9, 1)


def log(percents, every=7):
    return [MoistureReading(day=FIRST + timedelta(days=every * n), percent=each) for n, each in enumerate(percents)]


# --- drying ------------------------------------------------------------------------------------------------


@given(st.floats(6, 14), st.floats(3, 14), st.floats(0.004, 0.05), st.booleans())
@settings(max_examples=60)
def test_day_when_it_is_ready_is_that_of_the_curve_it_was_made_from(rest, away, rate, wets):
    sign = -1 if wets and rest - away > 3.2 else 1
    readings = log([rest + sign * away * math.exp(-rate * 7 * n) for n in range(6)])
    if not all(3 <= each.percent <= 60 for each in readings):
        return
    found = trend(readings, rest)
    if abs(readings[-1].percent - rest) <= 2:
        assert found.is_ready
        return
    wanted = math.log(away / 2) / rate
    assert found.rate == pytest.approx(rate, rel=1e-6)
    if wanted < 3000:
        assert abs((found.ready - FIRST).days - wanted) <= 1
    assert found.at(0) == pytest.approx(readings[0].percent)
    assert found.earliest <= found.ready <= found.latest


def test_uncertainty_of_the_day_is_what_many_noisy_meters_scatter_by():
    """Two hundred made-up meters read one drying board: the days scatter as the one trend says they would."""
    source = np.random.default_rng(5)
    true = [10 + 14 * math.exp(-0.02 * 7 * n) for n in range(7)]
    days, sigmas = [], []
    for _ in range(200):
        found = trend(log([each + source.normal(0, METER) for each in true]), 10.0)
        days.append((found.ready - FIRST).days)
        sigmas.append(found.sigma_days)
    assert np.mean(days) == pytest.approx(math.log(7) / 0.02, abs=3)
    assert np.std(days) == pytest.approx(np.mean(sigmas), rel=0.3)


def test_board_that_does_not_come_nearer_has_no_day_and_one_reading_says_only_how_wet():
    assert trend([], 10.0) is None
    alone = trend(log([18.0]), 10.0)
    assert (alone.ready, alone.rate, alone.is_ready) == (None, 0.0, False)
    assert trend(log([15.0, 15.4, 16.0]), 10.0).ready is None
    assert trend(log([11.5]), 10.0).is_ready


# --- veneers -----------------------------------------------------------------------------------------------


@given(st.floats(12, 80), st.floats(1.5, 6), st.floats(0.8, 2), st.floats(0, 0.8), st.floats(0, 0.5))
@settings(max_examples=60)
def test_slices_lie_in_the_board_a_kerf_apart_and_one_more_would_not(stock, raw, kerf, sanding, wander):
    if raw <= sanding + wander:
        with pytest.raises(InputError, match="sanding"):
            resawn(stock=stock, raw=raw, kerf=kerf, sanding=sanding, wander=wander)
        return
    found = resawn(stock=stock, raw=raw, kerf=kerf, sanding=sanding, wander=wander)
    for a, b in zip(found.slices, found.slices[1:], strict=False):
        assert b.low - a.high == pytest.approx(kerf)
    if found.slices:
        assert found.slices[-1].high <= stock + 1e-6
    more = len(found.slices) + 1
    assert more * raw + (more - 1) * kerf > stock - 1e-6
    assert found.thinnest <= found.finished <= raw


def test_book_matched_pairs_come_from_one_board_and_mirror_one_another():
    rows = matched(across=4, faces=2, each=5, match=Match.BOOK)
    for row in rows:
        for left, right in zip(row[::2], row[1::2], strict=True):
            assert left.board == right.board
            assert right.number == left.number + 1
            assert (left.turned, right.turned) == (False, True)
    slip = matched(across=4, faces=2, each=5, match=Match.SLIP)
    assert [(each.board, each.number) for row in slip for each in row] == [
        (1, 1),
        (1, 2),
        (1, 3),
        (1, 4),
        (1, 5),
        (2, 1),
        (2, 2),
        (2, 3),
    ]
    with pytest.raises(InputError):
        matched(across=2, faces=1, each=0, match=Match.SLIP)


def test_one_short_is_sawn_thinner_or_out_of_another_board():
    """28 thick gives 6 of 3.2 with a kerf of 1.3; 7 come of (28 - 6 x 1.3)/7 = 2.886."""
    thinner, another = short_by(needed=7, stock=28, raw=3.2, kerf=1.3, sanding=0.4, wander=0.2, least=2.0)
    assert thinner.thinnest == pytest.approx(20.2 / 7 - 0.6)
    assert thinner.holds
    assert another.boards == 2
    assert not short_by(needed=7, stock=28, raw=3.2, kerf=1.3, sanding=0.4, wander=0.2, least=2.5)[0].holds
    assert short_by(needed=6, stock=28, raw=3.2, kerf=1.3, sanding=0.4, wander=0.2, least=2.0) == ()


def test_every_veneer_of_the_reading_room_has_its_slice_once(demo):
    plan = veneer_plan(solve(demo).leaf("reading-room"))
    laid = [(each.laid.board, each.laid.number) for row in plan.faces for each in row]
    assert len(laid) == len(set(laid)) == plan.needed
    assert all(number <= len(plan.resawn.slices) for _, number in laid)
    assert veneer_plan(solve(demo).leaf("seed-room")) is None


# --- price -------------------------------------------------------------------------------------------------


def test_price_is_the_sum_of_its_lines_with_the_margin(demo):
    leaf = solve(demo).leaf("seed-room")
    price = price_of(demo, leaf)
    assert price.cost == pytest.approx(sum(each.value for each in price.lines))
    assert price.price == pytest.approx(price.cost * (1 + demo.rules.margin.value / 100))
    work = [each for each in price.lines if each.hours]
    assert sum(each.value for each in work) == pytest.approx(40 * sum(each.hours for each in work))
    assert hardware_price(leaf) == 3 * 6.5 + 12
    assert price.bought_price < price.price
    assert price_of(demo, leaf, timber=100.0).lines[0].value == 100.0


def test_three_ways_to_buy_are_priced_from_the_same_parts(demo):
    leaf = solve(demo).leaf("seed-room")
    rough, planed, machined = buy_ways(demo, leaf)
    solid = leaf.sawn
    assert rough.hours == pytest.approx(len(solid) * demo.rules.milling_minutes.value / 60)
    volume = sum(each.planed.length * each.planed.width * each.planed.thickness for each in solid) / 1e9
    assert planed.material == machined.material == pytest.approx(volume * demo.rules.planed_price.value)
    assert machined.service == pytest.approx(len(solid) * demo.rules.machining_price.value)
    assert machined.hours == 0
    for each in (rough, planed, machined):
        assert each.total == pytest.approx(each.material + each.service + each.hours * 40)


# --- the rack ----------------------------------------------------------------------------------------------


def test_what_is_to_be_thought_of_with_a_board():
    old = Board(
        length=2000, width=200, thickness=50, came=Came.DONOR, sawn=Sawn.PLANED, one_face=True, bow=16, year=1887
    )
    said = remarks(old, 10.0, Show())
    assert said[0] == "search it for metal before it meets a blade"
    assert "old paint may hold lead" in said
    assert "bowed: no part over 1000" in said
    assert straight_length(old.model_copy(update={"bow": 3})) == 2000
    wet = Board(length=2000, width=200, thickness=50, readings=tuple(log([16.5])))
    assert remarks(wet, 10.0, Show()) == ["6.5 points too wet"]


@given(
    st.sampled_from(list(Face)),
    st.floats(-500, 3500),
    st.floats(-900, 300),
    st.floats(-500, 3500),
    st.floats(-900, 300),
)
@settings(max_examples=80)
def test_mark_that_is_drawn_moved_or_sized_stays_on_its_board(face, x0, y0, x1, y1):
    board = Board(length=3000, width=220, thickness=52)
    start, end = spot_on(board, face, x0, y0), spot_on(board, face, x1, y1)
    mark = drawn_mark(board, start, end, None)
    if mark is None:
        assert abs(start.x - end.x) < 3 or abs(start.y - end.y) < 3
        return
    assert mark.face is (Face.OTHER if face is Face.OTHER else Face.BEST)
    spot = Spot(face, end.x, end.y)
    for each in (mark, moved_mark(board, mark, spot), sized_mark(board, mark, spot)):
        assert each.x >= 0
        assert -3 <= each.y <= board.width
        assert each.x + each.length <= board.length + 3
        assert each.y + each.width <= board.width + 3
    moved = moved_mark(board, mark, Spot(face, 0.0, 0.0))
    assert moved.y == pytest.approx(0.0 if face is not Face.OTHER else board.width - mark.width)


def test_labels_differ_and_pins_name_a_board(demo):
    twice = demo.boards[0].model_copy(update={"label": "B2"})
    with pytest.raises(InputError, match="B2"):
        with_boards(demo, (twice, *demo.boards[1:]))
    with pytest.raises(InputError, match="label of a board"):
        with_pin(demo, "seed-room", "top rail", "nowhere")
    job = with_pin(with_pin(demo, "seed-room", "top rail", "B1"), "seed-room", "top rail", "B3")
    assert [each.board for each in job.cutting.pins] == ["B3"]
    assert with_pin(job, "seed-room", "top rail", "").cutting.pins == ()


marks = st.builds(
    BoardMark,
    flaw=st.sampled_from(list(Flaw)),
    face=st.sampled_from(list(Face)),
    x=st.integers(0, 900).map(float),
    y=st.integers(0, 80).map(float),
    length=st.integers(1, 90).map(float),
    width=st.integers(1, 19).map(float),
)
boards = st.builds(
    Board,
    species=st.sampled_from([None, "walnut", "ash"]),
    length=st.integers(1000, 4000).map(float),
    width=st.floats(100, 300).map(lambda each: round(each, 2)),
    thickness=st.just(52.0),
    quantity=st.one_of(st.none(), st.integers(1, 9)),
    price=st.one_of(st.none(), st.just(12.5)),
    came=st.sampled_from(list(Came)),
    one_face=st.booleans(),
    colour=st.sampled_from(["", "pale, “nailed”", "=amber"]),
    year=st.one_of(st.none(), st.integers(1700, 2000)),
    marks=st.lists(marks, max_size=3).map(tuple),
    readings=st.lists(st.integers(4, 30), max_size=3).map(lambda each: tuple(log([float(n) for n in each]))),
)


@given(st.lists(boards, max_size=5))
@settings(max_examples=25)
def test_rack_that_is_written_reads_back_the_same(tmp_path_factory, made):
    demo = new_job()
    labelled = tuple(each.model_copy(update={"label": f"L{n}"}) for n, each in enumerate(made))
    job = with_boards(demo, labelled)
    path = tmp_path_factory.mktemp("rack") / "rack.csv"
    path.write_text(rack_csv(job), encoding="utf-8")
    back = read_rack(path, demo)
    assert (back.boards, back.sections, back.sheets) == (job.boards, job.sections, job.sheets)


@pytest.mark.parametrize(
    ("lines", "said"),
    [
        ("plank,B1,,1000,100,52\n", "line 2: what"),
        ("board,B1,,1000,-1,52\n", "line 2: width_mm"),
        ("board,B1,,1000,100,52\nboard,B1,,1000,100,52\n", "line 3: label"),
        ("defect,B9,,10,10,\n", "line 2: label: no board above"),
        ("board,B1,heartwood,1000,100,52\n", "line 2"),
        ("board,B1,,1000,100,abc\n", "line 2: thickness_mm"),
        ("board,B1,,,100,52\n", "line 2: length"),
    ],
)
def test_rack_that_is_wrong_is_refused_with_its_line(tmp_path, demo, lines, said):
    path = tmp_path / "rack.csv"
    path.write_text("what,label,wood,length_mm,width_mm,thickness_mm\n" + lines, encoding="utf-8")
    with pytest.raises(CuttingFileError, match=said):
        read_rack(path, demo)
