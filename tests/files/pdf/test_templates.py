"""Templates at 1:1: against the figures, against one another, and read back from the paper and the DXF."""

from __future__ import annotations

import io
import math

import ezdxf
import pytest
from pypdf import PdfReader
from shapely import LineString, Polygon, affinity, unary_union

from oakmeasure.core.base.units import Show, Unit, UnitSystem
from oakmeasure.core.document.hinges import PullKind
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.roles import Role
from oakmeasure.core.edits import job_edits
from oakmeasure.core.paper.router_layout import FaceUp, FlatLayer, flat_part, outline_of
from oakmeasure.core.paper.templates import hands, kinds_of, templates
from oakmeasure.core.solver import solve
from oakmeasure.files.cad.dxf import APART, leaf_dxf, templates_dxf
from oakmeasure.files.pdf.full_size import BAR, MARGIN, PaperError
from oakmeasure.files.pdf.templates import templates_pdf
from reading_pdf import lines_of

SHOW = Show()
KINDS = {
    "cup",
    "plate",
    "butt",
    "lock",
    "latch",
    "hanger",
    "wheel",
    "brace",
    "arch",
    "raked head",
    "outline",
    "flush bolt",
}


@pytest.fixture(scope="module")
def whole(solved_demo):
    return solved_demo


def one(leaf, kind, on=""):
    (found,) = [each for each in templates(leaf, SHOW) if each.kind == kind and on in each.surface]
    return found


def test_the_demo_has_every_kind_and_each_cut_of_each_leaf_is_on_one_template(whole):
    seen = set()
    for leaf in whole.leaves:
        found = templates(leaf, SHOW)
        seen |= set(kinds_of(found))
        cuts = sum(len(each.cuts) * len(each.places) for each in found)
        borings = [each for each in leaf.borings if "all along" not in each.edge and "bolt hole" not in each.name]
        plates = [each for each in borings if each.name.startswith("plate")]
        assert cuts == len(borings) + len(plates), leaf.leaf.id  # a plate has two holes
    assert seen >= KINDS


def test_a_cup_is_as_far_in_as_the_boring_figures_say_and_its_plate_as_far_back(whole):
    leaf = whole.leaf("packet-press")
    cup = one(leaf, "cup")
    ring = next(each for each in cup.cuts if each.radius == pytest.approx(17.5))
    assert abs(ring.points[0][0]) == pytest.approx(leaf.cups.centre.value, abs=0.01)
    assert ring.depth == leaf.leaf.hardware.cup.hinge.cup_depth.value
    assert [name for name, _ in cup.places] == ["cup 1", "cup 2"]
    assert all(
        f"{SHOW.length(place.top.value)} down" in where
        for place, (_, where) in zip(leaf.cups.places, cup.places, strict=True)
    )
    holes = one(leaf, "plate").cuts
    assert {abs(each.points[0][0]) for each in holes} == {leaf.figures["plate_back"].value}
    assert abs(holes[0].points[0][1] - holes[1].points[0][1]) == pytest.approx(32.0)


def test_the_leafs_edge_and_the_lining_meet_face_to_face(whole):
    """Turned over onto each other, as the leaf shuts, the let-ins for a butt and for a lock's forend coincide."""
    for name, kind, edge, carrier in (
        ("seed-room", "butt", "hinge edge", "lining"),
        ("office-store", "lock", "latch edge", "lining"),
        ("pantry", "latch", "latch edge", "lining"),
    ):
        leaf = whole.leaf(name)
        on_leaf = max((c for c in one(leaf, kind, edge).cuts if not c.radius), key=lambda c: Polygon(c.points).area)
        on_lining = one(leaf, kind, carrier).cuts[0]
        turned = affinity.scale(Polygon(on_leaf.points), xfact=-1, origin=(0, 0))
        assert turned.symmetric_difference(Polygon(on_lining.points)).area < 0.01, name


def test_the_other_hand_is_the_mirror_and_this_leafs_own_comes_first(whole):
    for leaf in whole.leaves:
        for each in templates(leaf, SHOW):
            (own, _), _ = hands(leaf, each)
            assert (own is leaf.leaf.hand) is not each.is_slow
            left, right = each.of(Hand.LEFT), each.of(Hand.RIGHT)
            assert [(-x, y) for x, y in right.wood] == list(left.wood)
            assert [c.depth for c in left.cuts] == [c.depth for c in right.cuts]
            x0, y0, x1, y1 = left.box
            assert right.box == pytest.approx((-x1, y0, -x0, y1))


def test_brace_ends_laid_on_the_board_have_the_angle_of_the_brace(whole):
    for name in ("coal-hole", "engine-room", "meter"):
        leaf = whole.leaf(name)
        braces = [part for part in leaf.build.parts if part.role is Role.BRACE]
        found = [each for each in templates(leaf, SHOW) if each.kind == "brace"]
        assert sum(len(each.places) for each in found) == 2 * len(braces)
        for each in found:
            part = leaf.build.part(each.places[0][0].rpartition(",")[0])
            corners = part.corners
            sides = sorted(math.dist(a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True))
            cuts = [math.dist(r.start, r.end) for r in each.references if not r.is_datum]
            assert all(min(abs(cut - side) for side in sides) < 0.01 for cut in cuts)
            if name == "coal-hole":  # one cut to an end: the angle that the figure gives
                assert each.notes[0].startswith(f"Cut at {SHOW.value(leaf.figures['brace_angle'].value, Unit.DEG)} to")
            wide = each.box[3] - each.box[1]
            long_edge = max(sides)
            assert wide == pytest.approx(Polygon(corners).area / long_edge, rel=0.35)  # pointed ends are not square


def test_in_an_inch_job_nothing_of_a_template_is_told_in_mm(whole):
    show = Show(UnitSystem.INCH)
    for leaf in whole.leaves:
        for each in templates(leaf, show):
            told = (*each.notes, *each.words(show), *(where for _, where in each.places))
            assert not any(" mm" in line for line in told), told


def test_arch_raked_head_and_outline_are_the_leafs_own(whole):
    for name, kind in (("linen-press", "arch"), ("stair-cupboard", "raked head"), ("linen-press", "outline")):
        leaf = whole.leaf(name)
        shape = Polygon(outline_of(leaf))
        found = one(leaf, kind)
        piece = Polygon(found.wood)
        assert piece.difference(shape).area < 0.01
        assert max(y for _, y in found.wood) == pytest.approx(max(y for _, y in outline_of(leaf)))
        drawn = unary_union([LineString([r.start, r.end]) for r in found.references])
        assert drawn.hausdorff_distance(shape.exterior.intersection(drawn.buffer(0.05))) < 0.1
        assert (piece.area == pytest.approx(shape.area)) is (kind == "outline")


@pytest.mark.parametrize("paper", ["A4", "A3", "roll", "200x150"])
def test_every_page_says_measure_the_bar_and_has_it_and_names_hand_and_edge(whole, paper):
    for name in ("packet-press", "office-store", "coal-hole", "stair-cupboard"):
        leaf = whole.leaf(name)
        pages = PdfReader(io.BytesIO(templates_pdf(whole.job, leaf, paper=paper))).pages
        words = [page.extract_text() for page in pages]
        assert all("Measure the bar before use" in each for each in words)
        assert all("Hinges left" in each or "Hinges right" in each for each in words)
        text = "\n".join(words)
        for template in templates(leaf, SHOW):
            datums = {r.name.partition(",")[0] for r in template.references if r.is_datum}
            assert any(each in text for each in datums), (name, template.title)
        for page in pages:
            level = [b for b in lines_of(page) if b[1] == b[3] and b[0] == pytest.approx(MARGIN)]
            assert any(abs(b[2] - b[0] - BAR) < 0.01 for b in level)


def test_a_butt_measured_on_the_page_is_its_let_in_to_a_hundredth(whole):
    leaf = whole.leaf("seed-room")
    (page, *_) = PdfReader(io.BytesIO(templates_pdf(whole.job, leaf, only=("butt",)))).pages
    lines = lines_of(page)
    upright = sorted({round(x0, 3) for x0, y0, x1, y1 in lines if abs(x1 - x0) < 0.001 and abs(y1 - y0) > 99})
    across = leaf.figures["butt_across"].value
    thick = leaf.build.thickness
    found = [b - a for a in upright for b in upright if b > a]
    assert any(abs(each - across) < 0.01 for each in found), "how far across the edge"
    assert any(abs(each - thick) < 0.01 for each in found), "the leaf's thickness"
    long = leaf.leaf.hardware.butt.length.value
    assert any(abs(abs(y1 - y0) - long) < 0.01 for _, y0, _, y1 in lines)


def test_tiles_join_without_gap_and_only_sheets_with_an_edge_are_printed(whole):
    leaf = whole.leaf("linen-press")
    reader = PdfReader(io.BytesIO(templates_pdf(whole.job, leaf, only=("outline",))))
    sheets = [page.extract_text() for page in reader.pages if "sheet " in page.extract_text()]
    assert len(sheets) == 2 * int(sheets[0].partition(" of ")[2].split()[0])
    named = {text.partition("sheet ")[2].split(",")[0] for text in sheets}
    for text in sheets:
        neighbours = {word for word in text.split() if word in named}
        assert neighbours, "each sheet names one that it joins"
    area = leaf.build.width * leaf.build.height / (273 * 148)
    assert len(named) < 1.6 * area + 6


def test_refusals_name_what_there_is_and_what_is_missing(whole):
    with pytest.raises(ValueError, match="no template “cup” for this leaf; there is: butt"):
        templates_pdf(whole.job, whole.leaf("seed-room"), only=("cup",))
    for paper, why in (("A9", "one of A4"), ("60x40", "long side needs 124"), ("200x60", "too little|no room")):
        with pytest.raises(PaperError, match=why):
            templates_pdf(whole.job, whole.leaf("stair-cupboard"), paper=paper)


# --- DXF -----------------------------------------------------------------------------------------------------


def test_templates_and_parts_are_read_back_by_ezdxf_to_a_hundredth(whole):
    leaf = whole.leaf("packet-press")
    document = ezdxf.read(io.StringIO(templates_dxf(leaf, SHOW, only=("cup",)).decode("utf-8")))
    assert not document.audit().errors
    cups = [each for each in document.modelspace().query("CIRCLE") if each.dxf.radius == pytest.approx(17.5)]
    edge = next(
        each
        for each in document.modelspace().query('LINE[layer=="MARK"]')
        if each.dxf.start.x == pytest.approx(each.dxf.end.x)
    )
    assert abs(cups[0].dxf.center.x - edge.dxf.start.x) == pytest.approx(leaf.cups.centre.value, abs=0.01)
    every = ezdxf.read(io.StringIO(templates_dxf(leaf, SHOW).decode("utf-8"))).modelspace()
    upright = [line for line in every.query('LINE[layer=="MARK"]') if line.dxf.start.x == line.dxf.end.x]
    cup, plate = (line.dxf.start.x for line in upright)
    assert plate - cup == pytest.approx(APART, abs=0.01)  # of hinges on the left the one ends where its edge is


def test_each_part_of_a_framed_leaf_lies_at_its_corner_with_its_tenons(whole):
    leaf = whole.leaf("packet-press")
    for part in leaf.build.parts:
        document = ezdxf.read(io.StringIO(leaf_dxf(leaf, FaceUp.CLOSING, part=part.name).decode("utf-8")))
        (line,) = document.modelspace().query('LWPOLYLINE[layer=="OUTLINE"]')
        x0, y0, x1, y1 = Polygon([(x, y) for x, y in line.get_points("xy")]).bounds
        size = part.finished
        assert (x0, y0) == pytest.approx((0, 0), abs=0.01)
        assert sorted((x1, y1)) == pytest.approx(sorted((size.length, size.width)), abs=0.01), part.name
    stile = flat_part(leaf, "hinge stile", FaceUp.CLOSING)
    assert {c.name for c in stile if c.layer is FlatLayer.BORE} == {"BORE_13", "BORE_10"}
    assert not [c for c in flat_part(leaf, "latch stile", FaceUp.CLOSING) if c.layer is FlatLayer.BORE]
    with pytest.raises(ValueError, match="no part “leg”: hinge stile"):
        flat_part(leaf, "leg", FaceUp.OPENING)


@pytest.mark.parametrize(("kind", "cuts"), [(PullKind.BAR, 2), (PullKind.FLUSH, 1)])
def test_a_handle_and_a_flush_pull_have_their_paper_as_far_in_as_chosen(whole, kind, cuts):
    job = job_edits.with_field(whole.job, "winnowing", "hardware.pull.kind", kind)
    leaf = solve(job).leaf("winnowing")
    pull = one(leaf, "pull")
    assert len(pull.cuts) == cuts
    middle = sum(x for cut in pull.cuts for x, _ in cut.points) / sum(len(cut.points) for cut in pull.cuts)
    assert abs(middle) == pytest.approx(leaf.figures["pull_in"].value, abs=0.01)
    assert pull.references[0].name == "latch edge"
    wanted = leaf.leaf.hardware.pull
    if kind is PullKind.FLUSH:
        assert pull.cuts[0].depth == wanted.recess_deep
        height = max(y for _, y in pull.cuts[0].points) - min(y for _, y in pull.cuts[0].points)
        assert height == pytest.approx(wanted.recess_high)
    else:
        assert abs(pull.cuts[0].points[0][1] - pull.cuts[1].points[0][1]) == pytest.approx(wanted.centres)
    assert "pull" in PdfReader(io.BytesIO(templates_pdf(job, leaf, only=("pull",)))).pages[0].extract_text().lower()
