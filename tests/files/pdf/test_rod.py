"""The setting-out rod: marks against the leaf, the page read back by an independent library, refusals."""

from __future__ import annotations

import csv
import io
import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader

from oakmeasure.core.document.roles import Role
from oakmeasure.core.paper.rods import Lane, rods
from oakmeasure.files.pdf.full_size import BAR, MARGIN, OVERLAP, PaperError, paper_named, pieces
from oakmeasure.files.pdf.rods import LABELS, ROW, STICK, rod_pdf, spread
from oakmeasure.files.tables.lists import rods_csv
from reading_pdf import lines_of
from samples import framed


@pytest.fixture(scope="module")
def whole(solved_demo):
    return solved_demo


def test_every_part_and_cut_of_every_demo_leaf_is_on_a_rod_with_both_its_ends(whole):
    for leaf in whole.leaves:
        height, width = rods(leaf)
        marks = {round(each.at, 1) for each in height.marks()}, {round(each.at, 1) for each in width.marks()}
        for part in leaf.build.parts:
            if part.role in (Role.RAIL, Role.LEDGE):
                assert {round(part.face.y0, 1), round(part.face.y1, 1)} <= marks[0], (leaf.leaf.id, part.name)
            if part.role in (Role.STILE, Role.MUNTIN, Role.BOARD, Role.STRIP):
                assert {round(part.face.x0, 1), round(part.face.x1, 1)} <= marks[1], (leaf.leaf.id, part.name)
        for place in leaf.butts.places if leaf.butts and leaf.butts.borings else ():
            assert {round(place.rect.y0, 1), round(place.rect.y1, 1)} <= marks[0]
        for cut in leaf.borings:
            if cut.solid is not None and len(cut.solid.points) == 1:
                assert round(cut.solid.points[0][1], 1) in marks[0], (leaf.leaf.id, cut.name)
                assert round(cut.solid.points[0][0], 1) in marks[1], (leaf.leaf.id, cut.name)


def test_marks_go_up_from_one_end_and_none_lies_beyond_the_stick(whole):
    for leaf in whole.leaves:
        for rod in rods(leaf):
            places = [each.at for each in rod.marks()]
            assert places == sorted(places)
            assert places[0] == pytest.approx(0.0, abs=0.01)
            assert all(b - a >= 0.005 for a, b in itertools.pairwise(places))
            inside = [each for each in rod.spans if each.lane in (Lane.MEMBERS, Lane.JOINTS)]
            assert all(-1e-6 <= each.start <= each.end <= rod.length + 1e-6 for each in inside), leaf.leaf.id


def test_mortises_on_the_height_rod_are_the_tenons_of_the_build():
    leaf = framed()
    height, width = rods(leaf)
    wanted = {(t.rect.y0, t.rect.y1) for t in leaf.build.tenons if "hinge" in t.into}
    assert {(s.start, s.end) for s in height.lane(Lane.JOINTS) if "rail" in s.what} == wanted
    shoulders = [each for each in width.lane(Lane.JOINTS) if each.what.endswith("shoulders")]
    assert {each.end - each.start for each in shoulders} == {leaf.figures["shoulder"].value}


@pytest.mark.parametrize("paper", ["A4", "A3", "roll", "500x350"])
def test_the_page_read_back_has_its_bar_and_every_mark_to_a_hundredth(whole, paper):
    leaf = whole.leaf("seed-room")
    reader = PdfReader(io.BytesIO(rod_pdf(whole.job, leaf, paper=paper)))
    sheet = paper_named(paper)
    seen = {"height rod": set(), "width rod": set()}
    pages = [page for page in reader.pages if ", page " in page.extract_text()]
    for rod in rods(leaf):
        mine = [page for page in pages if f"{rod.name}, page" in page.extract_text()]
        assert f"{rod.name}, page {len(mine)} of {len(mine)}" in mine[-1].extract_text()
        tiles = [(0.0, rod.length)] if sheet.roll else pieces(rod.length, sheet.across)
        per = 1 if sheet.roll else int(sheet.up // ROW)
        for number, page in enumerate(mine):
            lines = lines_of(page)
            level = [b for b in lines if b[1] == b[3] and b[0] == pytest.approx(MARGIN)]
            assert any(abs(b[2] - b[0] - BAR) < 0.01 for b in level), "the bar of 100 mm"
            assert "Measure the bar before use" in page.extract_text()
            first = sheet.height - MARGIN - 16.0 - LABELS - STICK
            for x0, y0, x1, y1 in lines:
                if x0 == x1 and y1 - y0 == pytest.approx(STICK + 2, abs=0.01):
                    row = round((first - y0) / ROW)
                    assert y0 == pytest.approx(first - row * ROW, abs=0.01)
                    seen[rod.name].add(x0 - MARGIN + tiles[number * per + row][0])
        for mark in rod.marks():
            assert min(abs(mark.at - each) for each in seen[rod.name]) < 0.01, (rod.name, mark)


def test_the_list_of_distances_is_the_same_in_pdf_and_csv(whole):
    leaf = whole.leaf("coal-hole")
    rows = list(csv.reader(io.StringIO(rods_csv(leaf))))
    assert rows[0] == ["rod", "from", "at_mm", "what"]
    marks = [(rod.name, mark) for rod in rods(leaf) for mark in rod.marks()]
    assert [(row[0], float(row[2])) for row in rows[1:]] == [
        (name, pytest.approx(m.at, abs=0.005)) for name, m in marks
    ]
    reader = PdfReader(io.BytesIO(rod_pdf(whole.job, leaf)))
    text = "\n".join(page.extract_text() for page in reader.pages if ", list " in page.extract_text())
    assert all(mark.what[0] in text for _, mark in marks)


@given(st.floats(20, 6000), st.floats(41, 900))
def test_pieces_cover_the_whole_length_and_share_what_they_are_laid_on_by(length, across):
    found = pieces(length, across)
    assert found[0][0] == 0
    assert found[-1][1] == pytest.approx(length)
    for (_, end), (start, after) in itertools.pairwise(found):
        assert end - start == pytest.approx(OVERLAP)
        assert after > end
    assert all(end - start <= across + 1e-9 for start, end in found)


@given(st.lists(st.floats(0, 250), max_size=60).map(sorted))
def test_written_marks_keep_their_order_and_their_distance(places):
    found = spread(places, 3.0, 0.0, 250.0)
    least = 3.0 if (len(places) - 1) * 3 <= 250 else 250 / (len(places) - 1)
    assert all(b - a >= least - 1e-6 for a, b in itertools.pairwise(found))
    if places and all(b - a >= 3.0 for a, b in itertools.pairwise(places)):
        assert found == pytest.approx(places)


@pytest.mark.parametrize(
    ("paper", "why"),
    [("B9", "one of A4, A3, roll"), ("60x40", "long side needs 124"), ("300x90", "a rod needs"), ("", "one of A4")],
)
def test_a_paper_that_is_none_or_too_small_is_refused_with_its_reason(whole, paper, why):
    with pytest.raises(PaperError, match=why):
        rod_pdf(whole.job, whole.leaf("seed-room"), paper=paper)


def test_pieces_that_would_not_get_on_are_refused():
    with pytest.raises(PaperError, match="too little"):
        pieces(500, 39)
